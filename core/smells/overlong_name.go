package smells

import (
	"fmt"

	"jantel/core/model"
	"jantel/core/naming"
)

var overlongNameRule = &Rule{
	Slug: "overlong-name", Facet: model.Names, Title: "Overlong name", Weight: 0.4, Family: familyName, Habit: true, find: overlongName,
	Question:   "Does a name need a line of its own?",
	Why:        "Long names differ where nobody looks, and the code around them is no longer seen.",
	Example:    "`takeTheLotOutOfTheShelfAndWeighIt`.",
	Remedy:     "Say in the name what its surroundings do not say, and leave the rest to them.",
	Parameters: []Parameter{{"words", "words in a name", 8, 7, 6}},
}

func overlongName(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "words"))
	c.source(func(f *model.File) {
		for _, d := range f.Facts.Definitions {
			if !namedThing(d) || len(d.Name) < 3*limit {
				continue
			}
			if w := naming.Words(naming.Own(d.Name)); len(w) > limit {
				out = append(out, hit{
					path: f.Path, line: d.Line, end: d.Line, name: d.Qualified(),
					strength: 0.15 + 0.08*float64(len(w)-limit), touches: []string{f.Path},
					message: fmt.Sprintf("*%s* has %s words", d.Name, number(len(w))),
				})
			}
		}
	})
	return out
}
