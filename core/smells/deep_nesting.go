package smells

import (
	"fmt"

	"jantel/core/model"
)

var deepNestingRule = &Rule{
	Slug: "deep-nesting", Facet: model.Units, Title: "Deep nesting", Weight: 1, Family: familySize, Habit: true, find: deepNesting,
	Question:   "Do branches stand in each other deeper than one can hold in mind?",
	Why:        "Each level is a condition that has to be remembered to know when a line runs at all.",
	Example:    "`planDrying`: a loop in a case in a loop in three conditions.",
	Remedy:     "Leave early where nothing is to be done, and take the inner loop out under a name of its own.",
	Parameters: []Parameter{{"levels", "branches and loops in each other", 6, 4, 4}},
}

func deepNesting(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "levels"))
	c.source(func(f *model.File) {
		for _, in := range f.Facts.Insides {
			if in.Nesting <= limit {
				continue
			}
			d := f.Facts.Definitions[in.Definition]
			out = append(out, hit{
				path: f.Path, line: d.Line, end: d.EndLine, name: d.Qualified(), touches: []string{f.Path},
				strength: 0.3 + 0.12*float64(in.Nesting-limit-1),
				message:  fmt.Sprintf("In *%s* branches and loops stand %s deep in each other", d.Name, number(in.Nesting)),
				evidence: []model.Evidence{{Path: f.Path, Line: in.NestLine, Note: "the innermost"}},
			})
		}
	})
	return out
}
