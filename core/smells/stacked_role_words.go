package smells

import (
	"fmt"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
	"jantel/core/weave"
)

var stackedRoleWordsRule = &Rule{
	Slug: "stacked-role-words", Facet: model.Names, Title: "Stacked role words", Weight: 0.6,
	Family: familyName, Habit: true, find: stackedRoleWords,
	Question: "Does a name pile up words for what a thing is?",
	Why:      "Behind three such words nobody knows what it is about.",
	Example:  "`LotServiceManagerHelper`.",
	Remedy:   "Keep the one that says most, and say what it is about instead of the others.",
}

// emptyRoles are words of the trade that say nothing of what is done: a theme of a view is
// one thing and a provider another, but a manager of a service is either.
var emptyRoles = syntax.Set("factory", "impl", "abstract", "handler", "service", "wrapper", "provider", "processor", "controller", "base")

// stackedRoleWords reports names that end in three or more words of the trade, two of which
// say nothing.
func stackedRoleWords(c *Context, _ *Rule) (out []hit) {
	lex := weave.Words()
	c.source(func(f *model.File) {
		for _, d := range f.Facts.Definitions {
			if d.Kind != model.DefClass && d.Kind != model.DefInterface {
				continue
			}
			w := naming.Words(naming.Own(d.Name))
			n, empty := 0, 0
			for i := len(w) - 1; i > 0; i-- {
				if _, ok := lex.Names[w[i]]; !ok && !lex.VagueSuffixes[w[i]] && w[i] != "factory" && w[i] != "impl" && w[i] != "abstract" {
					break
				}
				if n++; emptyRoles[w[i]] || lex.VagueSuffixes[w[i]] {
					empty++
				}
			}
			if n >= 3 && empty >= 2 {
				out = append(out, hit{
					path: f.Path, line: d.Line, end: d.Line, name: d.Qualified(), strength: 0.3 + 0.1*float64(n-3),
					touches: []string{f.Path},
					message: fmt.Sprintf("*%s* ends in %s words that say what it is, not what it is about", d.Name, number(n)),
				})
			}
		}
	})
	return out
}
