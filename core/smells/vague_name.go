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
			all := strings.Join(words, " ")
			// In a folder of commands it is what the command is called.
			said := lex.VagueFiles[all] && !(commandFolders[path.Base(d.Path)] && !lex.VagueSuffixes[all])
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
				// Where a definition is called like its file, the file has said so.
				if def := &f.Facts.Definitions[i]; vagueDefinition(lex, def) && !(said && slices.Equal(naming.Words(def.Name), words)) {
					out = append(out, hit{
						path: f.Path, name: def.Qualified(), line: def.Line, end: def.EndLine, strength: 0.3,
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

// vagueDefinition reports whether what something is called fits anything.
func vagueDefinition(lex *weave.Lexicon, def *model.Definition) bool {
	if def.Parent != "" && def.Kind != model.DefMethod || !def.Exported {
		return false
	}
	w := naming.Words(naming.Own(def.Name))
	all := strings.Join(w, " ")
	switch def.Kind {
	case model.DefFunction, model.DefMethod:
		// "handle" alone is what many interfaces ask of a type.
		return aboutAnything(w) || lex.VagueFunctions[all] && (def.Kind == model.DefFunction || len(w) > 1)
	case model.DefClass, model.DefInterface, model.DefType:
		return lex.VagueTypes[all] || def.Kind == model.DefClass && managesAnything(lex, w)
	}
	return false
}

// managesAnything reports whether a name ends in what helps or manages, and says with no
// word of what: with one, it is the one of that.
func managesAnything(lex *weave.Lexicon, words []string) bool {
	n := len(words)
	return n > 1 && lex.VagueSuffixes[words[n-1]] && !slices.ContainsFunc(words, func(w string) bool {
		return !lex.VagueFiles[w] && !lex.VagueSuffixes[w] && !emptyWords[w]
	})
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
