package smells

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
)

var probableTypoRule = &Rule{
	Slug: "probable-typo", Facet: model.Names, Title: "Probable typo", Weight: 0.4, Family: familyName, Habit: true, find: probableTypo,
	Question:   "Is a word a slip away from one that is common here?",
	Why:        "Who searches for the word does not find this one.",
	Example:    "`recieveLot` where eight other names have *receive*.",
	Remedy:     "Write it as the others do.",
	Parameters: []Parameter{{"uses", "names that have the other word", 12, 8, 6}},
}

// probableTypo reports words that stand in one name alone and are a slip away
// from one that is common here: two letters changed round, one doubled or left
// out of a pair, or a vowel taken for another in a long word.
func probableTypo(c *Context, r *Rule) (out []hit) {
	common := int(c.Value(r, "uses"))
	type seen struct {
		n    int
		file *model.File
		def  *model.Definition
	}
	words := map[string]*seen{}
	put := func(name string, f *model.File, d *model.Definition) {
		if len(name) < 6 || name == strings.ToUpper(name) {
			return // too short, or a constant of others, whose names are theirs
		}
		for _, w := range naming.Words(name) {
			if len(w) < 6 {
				continue
			}
			s := words[w]
			if s == nil {
				s = &seen{file: f, def: d}
				words[w] = s
			}
			s.n++
		}
	}
	c.source(func(f *model.File) {
		put(naming.Stem(f.Path), f, nil)
		for i := range f.Facts.Definitions {
			if d := &f.Facts.Definitions[i]; d.Exported {
				put(d.Name, f, d)
			}
		}
	})
	for _, w := range slices.Sorted(maps.Keys(words)) {
		s := words[w]
		if s.n > 1 {
			continue
		}
		best := ""
		slips(w, func(x string) {
			if t := words[x]; t != nil && t.n >= common && (best == "" || t.n > words[best].n || t.n == words[best].n && x < best) {
				best = x
			}
		})
		if best == "" {
			continue
		}
		h := hit{path: s.file.Path, name: w, strength: 0.3, touches: []string{s.file.Path}}
		note := "the file's name"
		if s.def != nil {
			h.line, h.end, note = s.def.Line, s.def.Line, s.def.Name
		}
		t := words[best]
		other := model.Evidence{Path: t.file.Path, Note: fmt.Sprintf("%s, as %d names have it", best, t.n)}
		if t.def != nil {
			other.Line = t.def.Line
		}
		h.evidence = []model.Evidence{{Path: s.file.Path, Line: h.line, Note: note}, other}
		h.message = fmt.Sprintf("*%s* stands here alone, and is a slip away from *%s*", w, best)
		out = append(out, h)
	}
	return out
}

// slips calls fn with what may have been meant where a word was mistyped.
// Neither its first nor its last letters are touched: endings are grammar.
func slips(w string, fn func(string)) {
	const vowels = "aeiou"
	b := []byte(w)
	for i := 1; i+2 < len(b); i++ {
		if b[i] != b[i+1] {
			x := slices.Clone(b)
			x[i], x[i+1] = x[i+1], x[i]
			fn(string(x))
		}
		switch {
		case i == 1:
		case b[i] == b[i-1]:
			fn(w[:i] + w[i+1:]) // one of a pair too many
		default:
			fn(w[:i] + string(b[i]) + w[i:]) // or one of it missing
		}
		if len(b) >= 8 && strings.IndexByte(vowels, b[i]) >= 0 {
			for _, v := range []byte(vowels) {
				if v != b[i] {
					fn(w[:i] + string(v) + w[i+1:])
				}
			}
		}
	}
}
