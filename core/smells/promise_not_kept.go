package smells

import (
	"fmt"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
)

var promiseNotKeptRule = &Rule{
	Slug: "promise-not-kept", Facet: model.Names, Title: "Promise not kept", Weight: 0.8,
	Family: familyName, Habit: true, find: promiseNotKept,
	Question: "Does a name promise something that the code does not do?",
	Why:      "Who reads the call believes the name, and is wrong.",
	Example:  "`isDry(lot)` that also sets the day of drying; `getShelf()` that gives nothing back.",
	Remedy:   "Name it for what it does, or let it do what it is named for.",
}

// keepsAnswer reports whether all that is set is what the name asks for: it is worked out
// once and kept.
func keepsAnswer(name string, sets []model.Mention) bool {
	w := naming.Words(name)
	asked := strings.Join(w[1:], "")
	for _, m := range sets {
		kept := strings.Join(naming.Words(m.Name[strings.LastIndexAny(m.Name, ".>")+1:]), "")
		if kept == "" || !strings.HasPrefix(kept, asked) && kept != w[0]+asked {
			return false
		}
	}
	return true
}

// phrases begin with a verb that gives and mean something else.
var phrases = syntax.Set("get ready", "get started", "get going", "get up", "get away", "get out", "get rid", "find out")

func promiseNotKept(c *Context, _ *Rule) (out []hit) {
	c.source(func(f *model.File) {
		if c.HandsOn(f.Path) {
			return
		}
		types := map[string]bool{} // what others belong to is a type, however it is written
		for i := range f.Facts.Definitions {
			types[f.Facts.Definitions[i].Parent] = true
		}
		for _, in := range f.Facts.Insides {
			d := f.Facts.Definitions[in.Definition]
			word := syntax.FirstWord(d.Name)
			if w := naming.Words(d.Name); len(w) == 2 && phrases[w[0]+" "+w[1]] {
				continue
			}
			if in.Empty || len(word) == len(d.Name) || builds(d) || types[d.Qualified()] {
				continue
			}
			h := hit{path: f.Path, line: d.Line, end: d.EndLine, name: d.Qualified(), touches: []string{f.Path}}
			switch {
			case (naming.Asking[word] || naming.Giving[word]) && !in.Gives:
				h.strength = 0.4
				h.message = fmt.Sprintf("*%s* gives nothing back, though its name promises it", d.Name)
			case naming.Asking[word] && len(in.Sets) > 0 && !keepsAnswer(d.Name, in.Sets):
				h.strength = 0.5
				h.message = fmt.Sprintf("*%s* asks by its name, and sets *%s*", d.Name, in.Sets[0].Name)
				for _, m := range in.Sets {
					h.evidence = append(h.evidence, model.Evidence{Path: f.Path, Line: m.Line, Note: "sets " + m.Name})
				}
			default:
				continue
			}
			out = append(out, h)
		}
	})
	return out
}
