package smells

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/weave"
)

func numberedName(c *Context, _ *Rule) (out []hit) {
	for _, d := range c.Folders {
		files := c.units(d.Path)
		for _, f := range files {
			out = append(out, numberedDefinitions(f)...)
		}
		if !slices.ContainsFunc(files, func(f *model.File) bool { return strings.ContainsAny(path.Base(f.Path), "0123456789") }) {
			continue
		}
		stems := map[string][]string{}
		for _, f := range files {
			s := naming.Stem(f.Path)
			if base, _, ok := naming.Number(s); ok {
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
			if !ok || len(stems[key]) < 2 && plain[key] == "" {
				continue
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
			out = append(out, hit{path: f.Path, strength: 0.6, message: fmt.Sprintf("*%s* is told from its siblings by the number %s alone", s, digits), evidence: ev, touches: []string{f.Path}})
		}
	}
	return out
}

func numberedDefinitions(f *model.File) (out []hit) {
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
		if !ok {
			continue
		}
		all := byBase[group(d, base)]
		plain := names[group(d, base)]
		if plain == nil && len(all) < 2 || len(all) > oneByOne && d != all[0] {
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
		out = append(out, hit{path: f.Path, name: d.Qualified(), line: d.Line, end: d.EndLine, strength: 0.3, message: message, evidence: ev, touches: []string{f.Path}})
	}
	return out
}

// oneByOne is up to how many numbered siblings each is named by itself; of more
// the first stands for all.
const oneByOne = 6

func namedThing(d model.Definition) bool {
	switch d.Kind {
	case model.DefType, model.DefClass, model.DefInterface, model.DefEnum, model.DefFunction, model.DefMethod, model.DefComponent:
		return true
	}
	return false
}

func vagueName(c *Context, _ *Rule) (out []hit) {
	lex := weave.Words()
	for _, d := range c.Folders {
		for _, f := range c.units(d.Path) {
			stem := naming.Stem(f.Path)
			words := naming.Words(stem)
			// A file in a folder of the same meaning is the folder's fault.
			if lex.VagueFiles[strings.Join(words, " ")] {
				out = append(out, hit{path: f.Path, strength: 0.5, message: fmt.Sprintf("*%s* says nothing of what the file does", path.Base(f.Path)), evidence: exports(f), touches: []string{f.Path}})
			}
			if f.Facts == nil {
				continue
			}
			for i := range f.Facts.Definitions {
				def := &f.Facts.Definitions[i]
				if def.Parent != "" || !def.Exported {
					continue
				}
				vague := false
				strength := 0.3
				switch def.Kind {
				case model.DefFunction:
					vague = lex.VagueFunctions[strings.Join(naming.Words(naming.Own(def.Name)), " ")]
				case model.DefClass, model.DefInterface, model.DefType:
					w := naming.Words(naming.Own(def.Name))
					vague = lex.VagueTypes[strings.Join(w, " ")]
					if n := len(w); !vague && n > 1 && lex.VagueSuffixes[w[n-1]] && def.Kind == model.DefClass {
						vague, strength = true, 0.15
					}
				}
				if vague {
					out = append(out, hit{path: f.Path, name: def.Qualified(), line: def.Line, end: def.EndLine, strength: strength, message: fmt.Sprintf("The %s *%s* could be about anything", def.Kind, def.Name), evidence: []model.Evidence{{Path: f.Path, Line: def.Line, Note: string(def.Kind) + " " + def.Name}}, touches: []string{f.Path}})
				}
			}
		}
	}
	return out
}

// exports shows what a file with a vague name offers.
func exports(f *model.File) (ev []model.Evidence) {
	if f.Facts == nil {
		return nil
	}
	for _, d := range f.Facts.Definitions {
		if d.Parent == "" && d.Exported && len(ev) < 6 {
			ev = append(ev, model.Evidence{Path: f.Path, Line: d.Line, Note: fmt.Sprintf("%s %s", d.Kind, d.Name)})
		}
	}
	return ev
}

// fixedNames are files whose names tools prescribe.
var fixedNames = map[string]bool{"readme": true, "makefile": true, "dockerfile": true, "index": true, "main": true, "license": true, "conftest": true, "setup": true, "vite-env": true, "next-env": true, "setupTests": true, "reportWebVitals": true}

func caseAgainstFolder(c *Context, r *Rule) (out []hit) {
	limit, share := c.Value(r, "siblings"), c.Value(r, "share")
	for _, d := range c.Folders {
		byExt := map[string][]*model.File{}
		for _, f := range c.units(d.Path) {
			if s := naming.Stem(f.Path); !strings.HasPrefix(s, ".") && !strings.HasPrefix(s, "_") && !fixedNames[s] {
				e := path.Ext(f.Path)
				byExt[e] = append(byExt[e], f)
			}
		}
		for _, files := range byExt {
			counts := map[naming.Case]int{}
			total := 0
			for _, g := range files {
				if k := naming.CaseOf(naming.Stem(g.Path)); k != naming.Plain && k != naming.Caps {
					counts[k]++
					total++
				}
			}
			lead, n := leading(counts)
			if float64(total) < limit || float64(n) < share*float64(total) {
				continue
			}
			var ev []model.Evidence
			for _, g := range files {
				if naming.CaseOf(naming.Stem(g.Path)) == lead && len(ev) < 3 {
					ev = append(ev, model.Evidence{Path: g.Path, Note: "written in " + string(lead)})
				}
			}
			for _, f := range files {
				// A single capitalised word beside PascalCase fits; one beside
				// another case does not.
				own := naming.CaseOf(naming.Stem(f.Path))
				if own == naming.Plain || own == naming.Caps || own == lead {
					continue
				}
				out = append(out, hit{path: f.Path, strength: 0.4, message: fmt.Sprintf("*%s* is %s, where %d of %d siblings are %s", path.Base(f.Path), own, n, total, lead), evidence: ev, touches: []string{f.Path}})
			}
		}
	}
	return out
}

func leading(counts map[naming.Case]int) (best naming.Case, n int) {
	for _, k := range []naming.Case{naming.Kebab, naming.Snake, naming.Camel, naming.Pascal, naming.Mixed} {
		if counts[k] > n {
			best, n = k, counts[k]
		}
	}
	return best, n
}
