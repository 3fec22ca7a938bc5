package smells

import (
	"fmt"

	"jantel/core/model"
)

var manyParametersRule = &Rule{
	Slug: "many-parameters", Facet: model.Units, Title: "Many parameters", Weight: 0.5,
	Family: familySize, Habit: true, find: manyParameters,
	Question:   "Does a function take more than a caller can keep apart?",
	Why:        "Long lists are called in the wrong order, and each new one is passed through everything.",
	Example:    "`placeBox(shelf, row, column, depth, weight, owner, force)`.",
	Remedy:     "Put together what belongs together, and let the function be given that.",
	Parameters: []Parameter{{"parameters", "parameters of one function", 8, 6, 5}},
}

func manyParameters(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "parameters"))
	c.source(func(f *model.File) {
		for _, d := range f.Facts.Definitions {
			if (d.Kind == model.DefFunction || d.Kind == model.DefMethod) && d.Params > limit {
				out = append(out, hit{
					path: f.Path, line: d.Line, end: d.Line, name: d.Qualified(),
					strength: 0.2 + 0.08*float64(d.Params-limit), touches: []string{f.Path},
					message: fmt.Sprintf("*%s* takes %s parameters", d.Name, number(d.Params)),
				})
			}
		}
	})
	return out
}
