package smells

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
	"jantel/core/weave"
)

var vagueNameRule = &Rule{
	Slug: "vague-name", Facet: model.Names, Title: "Vague name", Weight: 1.5, Family: familyName, Habit: true, find: vagueName,
	Question: "Does a name fit anything?",
	Why:      "A name that fits anything is passed over by readers and collects unrelated code.",
	Example:  "`stuff.ts` with `doStuff` and `getInfo`.",
	Remedy:   "Name it for what it does to what; where it does several things, split it first.",
}

func vagueName(c *Context, _ *Rule) (out []hit) {
	out = c.ruled(askedWords)
	lex := weave.Words()
	for _, d := range c.Folders {
		for _, f := range c.units(d.Path) {
			stem := naming.Stem(f.Path)
			words := naming.Words(stem)
			// A file in a folder of the same meaning is the folder's fault.
			said := lex.VagueFiles[strings.Join(words, " ")]
			if said {
				out = append(out, hit{
					path: f.Path, strength: vaguely(f.Lines()),
					message:  fmt.Sprintf("*%s* says nothing of what the file does", path.Base(f.Path)),
					evidence: exports(f), touches: []string{f.Path},
				})
			}
			if f.Facts == nil {
				continue
			}
			for i := range f.Facts.Definitions {
				def := &f.Facts.Definitions[i]
				if def.Parent != "" && def.Kind != model.DefMethod || !def.Exported {
					continue
				}
				if said && slices.Equal(naming.Words(def.Name), words) {
					continue // its file has said so
				}
				vague := false
				strength := 0.3
				switch def.Kind {
				case model.DefFunction, model.DefMethod:
					w := naming.Words(naming.Own(def.Name))
					// "handle" alone is what many interfaces ask of a type.
					vague = aboutAnything(w) || lex.VagueFunctions[strings.Join(w, " ")] && (def.Kind == model.DefFunction || len(w) > 1)
				case model.DefClass, model.DefInterface, model.DefType:
					w := naming.Words(naming.Own(def.Name))
					vague = lex.VagueTypes[strings.Join(w, " ")]
					// With a word that says of what, a manager is the one of that; with none, of anything.
					if n := len(w); !vague && n > 1 && lex.VagueSuffixes[w[n-1]] && def.Kind == model.DefClass {
						vague = !slices.ContainsFunc(w, func(w string) bool { return !lex.VagueFiles[w] && !lex.VagueSuffixes[w] && !emptyWords[w] })
					}
				}
				if vague {
					out = append(out, hit{
						path: f.Path, name: def.Qualified(), line: def.Line, end: def.EndLine, strength: strength,
						message:  fmt.Sprintf("The %s *%s* could be about anything", def.Kind, def.Name),
						evidence: []model.Evidence{{Path: f.Path, Line: def.Line, Note: string(def.Kind) + " " + def.Name}},
						touches:  []string{f.Path},
					})
				}
			}
		}
	}
	return out
}

// emptyWords are words that add nothing to a vague one.
var emptyWords = syntax.Set(
	"base", "abstract", "default", "main", "my", "app", "application", "object", "class", "simple", "global", "core", "item",
)

// vaguely is how much a file that could hold anything does hold: the more it is, the
// more a reader has to open it for.
func vaguely(lines int) float64 { return min(0.8, 0.15+float64(lines)/800) }

// Verbs and things that say nothing of each other.
var (
	vagueVerbs  = syntax.Set("do", "handle", "process", "manage", "perform", "make", "run", "execute", "get", "set", "check", "use", "update")
	vagueThings = syntax.Set("stuff", "thing", "things", "something", "anything", "misc", "whatever")
)

// aboutAnything reports whether a name is a verb that fits anything, done to
// anything.
func aboutAnything(words []string) bool {
	return len(words) == 2 && vagueVerbs[words[0]] && vagueThings[words[1]]
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
