package smells

import (
	"fmt"
	"path"
	"regexp"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
)

var numberedNameRule = &Rule{
	Slug: "numbered-name", Facet: model.Names, Title: "Numbered name", Weight: 2, Family: familyName, Habit: true, find: numberedName,
	Question: "Are things told apart by a number?",
	Why:      "A number says that there are several, not how they differ; every reader has to open all of them.",
	Example:  "`pack1.ts` and `pack2.ts`: two ways to pack labels, and nobody knows which to use.",
	Remedy:   "Name each for what only it does, or make one of them with a parameter.",
}

func numberedName(c *Context, _ *Rule) (out []hit) {
	sources, terms := c.sourceStems(), c.numberedTerms()
	for _, d := range c.Folders {
		files := c.units(d.Path)
		for _, f := range files {
			out = append(out, numberedDefinitions(f, terms)...)
		}
		if !slices.ContainsFunc(files, func(f *model.File) bool { return strings.ContainsAny(path.Base(f.Path), "0123456789") }) {
			continue
		}
		stems := map[string][]string{}
		for _, f := range files {
			s := naming.Stem(f.Path)
			if base, _, ok := naming.Number(s); ok && !versioned(f.Path) {
				stems[base+path.Ext(f.Path)] = append(stems[base+path.Ext(f.Path)], f.Path)
			}
		}
		plain := map[string]string{}
		for _, f := range files {
			plain[naming.Stem(f.Path)+path.Ext(f.Path)] = f.Path
		}
		for _, f := range files {
			s := naming.Stem(f.Path)
			base, digits, ok := naming.Number(s)
			key := base + path.Ext(f.Path)
			if setAside(f.Path) || ofTheTrade(base, digits, terms) {
				continue // of examples there are several
			}
			if !ok || len(stems[key]) < 2 && plain[key] == "" || versioned(f.Path) || syntax.IsHeader(f.Path) && sources[s] {
				continue
			}
			if len(stems[key]) > fewSiblings && f.Path != stems[key][0] {
				continue // the first of many stands for all
			}
			var ev []model.Evidence
			if plain[key] != "" {
				ev = append(ev, model.Evidence{Path: plain[key], Note: "the same name without the number"})
			}
			for _, p := range stems[key] {
				if p != f.Path && len(ev) < 6 {
					ev = append(ev, model.Evidence{Path: p, Note: "the same name with another number"})
				}
			}
			h := hit{
				path: f.Path, strength: 0.6, evidence: ev, touches: []string{f.Path},
				message: fmt.Sprintf("*%s* is told from its siblings by the number %s alone", s, digits),
			}
			if n := len(stems[key]); n > fewSiblings {
				h.touches = stems[key]
				h.message = fmt.Sprintf("%s files called *%s* are told apart by a number alone", capital(number(n)), base)
			}
			out = append(out, h)
		}
	}
	return out
}

// manyFiles is in names of how many files a word with a number is a term.
const manyFiles = 3

// numberedTerms are words that go with their number wherever they stand, like a
// protocol and its version: in names of several files, and none of them numbered 1,
// with which things begin that are merely counted.
func (c *Context) numberedTerms() map[string]bool {
	files := map[string]map[string]bool{}
	see := func(p, name string) {
		if !strings.ContainsAny(name, "0123456789") {
			return
		}
		w := naming.Words(name)
		for i := 1; i < len(w); i++ {
			if w[i][0] < '0' || w[i][0] > '9' || w[i-1][0] >= '0' && w[i-1][0] <= '9' {
				continue
			}
			word := w[i-1] + w[i]
			if files[word] == nil {
				files[word] = map[string]bool{}
			}
			files[word][p] = true
		}
	}
	c.source(func(f *model.File) {
		stem := naming.Stem(f.Path)
		see(stem, stem)
		for i := range f.Facts.Definitions {
			see(stem, f.Facts.Definitions[i].Name)
		}
	})
	out := map[string]bool{}
	for word, in := range files {
		if base, _, ok := naming.Number(word); ok && len(in) >= manyFiles && files[base+"1"] == nil {
			out[word] = true
		}
	}
	return out
}

// ofTheTrade reports whether a name and its number are what the trade calls a thing:
// g1, matrixG2, decode_l3, or a term.
func ofTheTrade(base, digits string, terms map[string]bool) bool {
	w := naming.Words(base)
	return len(w) > 0 && (widths[digits] || len(w[len(w)-1]) == 1 || terms[w[len(w)-1]+digits])
}

// fewSiblings is up to how many numbered files of a name each is named by itself.
const fewSiblings = 3

// sourceStems are the names of all sources that have headers: what is wrong with the name
// of both is said once.
func (c *Context) sourceStems() map[string]bool {
	out := map[string]bool{}
	for _, f := range c.Survey.Files {
		if len(syntax.ProfileOf(f.Language).Headers) > 0 && !syntax.IsHeader(f.Path) {
			out[naming.Stem(f.Path)] = true
		}
	}
	return out
}

// versioned reports whether the figure in the name of a file is part of a version, or of
// what a standard is called.
func versioned(p string) bool {
	return versionDot.MatchString(strings.TrimSuffix(path.Base(p), path.Ext(p)))
}

var versionDot = regexp.MustCompile(`\d[._-]\d`)

// dimensions reports whether types are told apart by how many dimensions they have: there
// are some for two, three or four, and none for one.
func dimensions(all []*model.Definition) bool {
	for _, d := range all {
		_, n, _ := naming.Number(d.Name)
		if n != "2" && n != "3" && n != "4" || d.Kind != model.DefClass && d.Kind != model.DefType {
			return false
		}
	}
	return true
}

// addresses reports whether two things are told apart by the version of the protocol
// of addresses that they are for: there a figure says all.
func addresses(all []*model.Definition) bool {
	if len(all) != 2 {
		return false
	}
	_, a, _ := naming.Number(all[0].Name)
	_, b, _ := naming.Number(all[1].Name)
	return min(a, b) == "4" && max(a, b) == "6"
}

func numberedDefinitions(f *model.File, terms map[string]bool) (out []hit) {
	if f.Facts == nil {
		return nil
	}
	numbered := false
	for i := range f.Facts.Definitions {
		n := f.Facts.Definitions[i].Name
		numbered = numbered || n != "" && n[len(n)-1] >= '0' && n[len(n)-1] <= '9'
	}
	if !numbered {
		return nil
	}
	byBase := map[string][]*model.Definition{}
	names := map[string]*model.Definition{}
	group := func(d *model.Definition, base string) string {
		return model.Definition{Parent: d.Parent, Name: base}.Qualified()
	}
	for i := range f.Facts.Definitions {
		d := &f.Facts.Definitions[i]
		if !namedThing(*d) {
			continue
		}
		names[d.Qualified()] = d
		if base, _, ok := naming.Number(d.Name); ok {
			byBase[group(d, base)] = append(byBase[group(d, base)], d)
		}
	}
	for i := range f.Facts.Definitions {
		d := &f.Facts.Definitions[i]
		if !namedThing(*d) {
			continue
		}
		base, digits, ok := naming.Number(d.Name)
		if !ok || ofTheTrade(base, digits, terms) {
			continue
		}
		all := byBase[group(d, base)]
		plain := names[group(d, base)]
		if widthsOf(all) {
			continue
		}
		if digits == "6" && plain != nil && len(all) == 1 {
			continue // for the newer addresses, beside the one for those of old
		}
		if plain == nil && len(all) < 2 || len(all) > oneByOne && d != all[0] || addresses(all) || plain == nil && dimensions(all) {
			continue
		}
		var ev []model.Evidence
		if plain != nil {
			ev = append(ev, model.Evidence{Path: f.Path, Line: plain.Line, Note: "the same name without the number"})
		}
		for _, o := range all {
			if o.Line != d.Line && len(ev) < 6 {
				ev = append(ev, model.Evidence{Path: f.Path, Line: o.Line, Note: o.Name})
			}
		}
		message := fmt.Sprintf("*%s* is told from its siblings by the number %s alone", d.Name, digits)
		if len(all) > oneByOne {
			message = fmt.Sprintf("%s things called *%s* are told apart by a number alone", capital(number(len(all))), base)
		}
		out = append(out, hit{
			path: f.Path, name: d.Qualified(), line: d.Line, end: d.EndLine, strength: 0.3, message: message,
			evidence: ev, touches: []string{f.Path},
		})
	}
	return out
}

// widthsOf reports whether things are told apart by how many bits they are for: by
// three powers of two or more, and nothing else.
func widthsOf(all []*model.Definition) bool {
	for _, d := range all {
		_, n, _ := naming.Number(d.Name)
		if !bits[n] && !widths[n] {
			return false
		}
	}
	return len(all) > 2
}

// bits are the powers of two below those that are widths whatever they stand beside.
var bits = map[string]bool{"1": true, "2": true, "4": true}

// widths are numbers that say how wide a thing is.
var widths = syntax.Set("8", "16", "24", "32", "48", "64", "96", "128", "192", "256", "384", "512", "1024", "2048", "4096")

// oneByOne is up to how many numbered siblings each is named by itself; of more
// the first stands for all.
const oneByOne = 6
