package smells

import (
	"fmt"

	"jantel/core/model"
	"jantel/core/syntax"
)

var severalTypesRule = &Rule{
	Slug: "several-types", Facet: model.Units, Title: "Several types in one file", Weight: 0.5,
	Family: familySize, Habit: true, find: severalTypes,
	Question:   "Do several types share one file, where one is expected?",
	Why:        "A type that is not in the file of its name is looked for in vain.",
	Example:    "`Import.java` with `Row`, `Reader`, `Report` and `Fault`.",
	Remedy:     "Give each type a file of its name.",
	Parameters: []Parameter{{"types", "types of ten lines and more", 6, 4, 3}},
}

func severalTypes(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "types"))
	c.source(func(f *model.File) {
		if !syntax.ProfileOf(f.Language).OneType {
			return
		}
		var ev []model.Evidence
		n := 0
		for _, d := range f.Facts.Definitions {
			if (d.Kind == model.DefClass || d.Kind == model.DefInterface) && (d.Parent == "" || d.Parent == f.Facts.Namespace) &&
				d.EndLine-d.Line >= 10 {
				n++
				ev = append(ev, model.Evidence{Path: f.Path, Line: d.Line, Note: d.Name})
			}
		}
		if n >= limit {
			out = append(out, hit{
				path: f.Path, strength: 0.2 + 0.06*float64(n-limit), touches: []string{f.Path},
				evidence: ev[:min(12, len(ev))], message: fmt.Sprintf("%s types share one file", capital(number(n))),
			})
		}
	})
	return out
}
