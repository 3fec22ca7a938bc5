package smells

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
)

// falseLanguageWord reports types called a base or abstract that nothing builds
// upon, and interfaces by name that are none.
func falseLanguageWord(c *Context, _ *Rule) (out []hit) {
	heirs := map[string]bool{}
	for _, f := range c.Survey.Files {
		if f.Facts == nil {
			continue
		}
		for i := range f.Facts.Definitions {
			for _, b := range f.Facts.Definitions[i].Bases {
				if at := strings.LastIndexAny(b, `.\:`); at >= 0 {
					b = b[at+1:]
				}
				if at := strings.IndexAny(b, "<[("); at >= 0 {
					b = b[:at]
				}
				heirs[b] = true
			}
		}
		for _, u := range f.Facts.Uses {
			if u.Kind == model.LinkInheritance {
				heirs[u.Name] = true
			}
		}
	}
	builtUpon := map[string]bool{} // files of which a type is, whatever it is called there
	for i := range c.Survey.Links {
		if l := &c.Survey.Links[i]; l.Kind == model.LinkInheritance {
			builtUpon[l.To] = true
		}
	}
	// What is offered to others may have its heirs there.
	offered := c.library()
	c.source(func(f *model.File) {
		if !syntax.ProfileOf(f.Language).Inherits {
			return
		}
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			if d.Parent != "" && d.Parent != f.Facts.Namespace {
				continue
			}
			w := naming.Words(naming.Own(d.Name))
			if len(w) < 2 || d.Name == strings.ToUpper(d.Name) {
				continue
			}
			say := func(text string) {
				out = append(out, hit{path: f.Path, line: d.Line, end: d.EndLine, name: d.Qualified(), strength: 0.3, touches: []string{f.Path}, evidence: []model.Evidence{{Path: f.Path, Line: d.Line, Note: string(d.Kind) + " " + d.Name}}, message: text})
			}
			switch d.Kind {
			case model.DefClass:
				if !heirs[d.Name] && !builtUpon[f.Path] && (w[0] == "base" || w[0] == "abstract" || w[len(w)-1] == "base") && !offered {
					say(fmt.Sprintf("*%s* is called a base, and nothing here builds upon it", d.Name))
				}
				if w[len(w)-1] == "interface" && !syntax.ProfileOf(f.Language).ClassInterfaces {
					say(fmt.Sprintf("*%s* is called an interface, and is a class", d.Name))
				}
			case model.DefEnum:
				if w[len(w)-1] == "interface" {
					say(fmt.Sprintf("*%s* is called an interface, and is an enum", d.Name))
				}
			}
		}
	})
	return out
}

// library reports whether a project file offers the code to others, who may use
// what nobody here does.
func (c *Context) library() bool {
	for _, f := range c.Survey.Files {
		if f.Facts != nil && f.Facts.Project != nil && c.Judged[f.Path] && !strings.Contains(f.Path, "/") && (len(f.Facts.Project.Entries) > 0 || len(f.Facts.Project.Exports) > 0) {
			return true
		}
	}
	return false
}

// synonyms are verbs that say the same of what is done to a thing.
var synonyms = [][]string{
	{"get", "fetch", "load", "retrieve", "find", "lookup"},
	{"delete", "remove", "destroy", "erase"},
	{"create", "make", "build", "new", "generate"},
	{"update", "modify", "change", "edit"},
	{"show", "display", "render", "draw"},
	{"check", "validate", "verify"},
}

var verbGroup = func() map[string]int {
	out := map[string]int{}
	for i, g := range synonyms {
		for _, v := range g {
			out[v] = i
		}
	}
	return out
}()

// severalWords reports things for which one action has several verbs, in files
// of one role: across roles the verbs may well tell the layers apart.
func severalWords(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "words"))
	type key struct {
		role  model.Role
		group int
		thing string
	}
	verbs := map[key]map[string][]model.Evidence{}
	c.source(func(f *model.File) {
		role := c.Roles[f.Path].Role
		if role == "" {
			return
		}
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			if !d.Exported || d.Parent != "" || d.Kind != model.DefFunction {
				continue
			}
			w := naming.Words(naming.Own(d.Name))
			if len(w) < 2 {
				continue
			}
			g, ok := verbGroup[w[0]]
			if !ok {
				continue
			}
			k := key{role, g, strings.Join(w[1:], " ")}
			if verbs[k] == nil {
				verbs[k] = map[string][]model.Evidence{}
			}
			verbs[k][w[0]] = append(verbs[k][w[0]], model.Evidence{Path: f.Path, Line: d.Line, Note: d.Name})
		}
	})
	for _, k := range slices.SortedFunc(maps.Keys(verbs), func(a, b key) int {
		return cmp.Or(cmp.Compare(a.thing, b.thing), cmp.Compare(a.group, b.group), cmp.Compare(a.role, b.role))
	}) {
		of := verbs[k]
		if len(of) < limit {
			continue
		}
		words := slices.Sorted(maps.Keys(of))
		var ev []model.Evidence
		var touches []string
		for _, w := range words {
			for _, e := range of[w] {
				if len(ev) < 12 {
					ev = append(ev, e)
				}
				if !slices.Contains(touches, e.Path) {
					touches = append(touches, e.Path)
				}
			}
		}
		out = append(out, hit{path: ev[0].Path, line: ev[0].Line, name: k.thing, extra: words[0], strength: 0.2 + 0.1*float64(len(words)-limit), touches: touches, evidence: ev,
			message: fmt.Sprintf("For *%s* one action has the verbs %s and %s", k.thing, strings.Join(words[:len(words)-1], ", "), words[len(words)-1])})
	}
	return out
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
