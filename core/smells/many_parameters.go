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

// manyParameters reports functions that take more than so many. What is declared,
// written, and written anew by heirs is one function, and is told once.
func manyParameters(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "parameters"))
	type signature struct {
		project, name string
		params        int
	}
	at := map[signature]int{}
	c.source(func(f *model.File) {
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			if d.Kind != model.DefFunction && d.Kind != model.DefMethod || d.Params <= limit {
				continue
			}
			k := signature{c.moduleOf(f.Path), d.Name, d.Params}
			if n, told := at[k]; told && !forms[d.Name] {
				h := &out[n]
				h.evidence = append(h.evidence, model.Evidence{Path: f.Path, Line: d.Line, Note: d.Qualified()})
				h.message = fmt.Sprintf("*%s* takes %s parameters, in %s places", d.Name, number(d.Params), number(len(h.evidence)+1))
				h.touches = append(h.touches, f.Path)
				continue
			}
			at[k] = len(out)
			out = append(out, hit{
				path: f.Path, line: d.Line, end: d.Line, name: d.Qualified(),
				strength: 0.2 + 0.08*float64(d.Params-limit), touches: []string{f.Path},
				message: fmt.Sprintf("*%s* takes %s parameters", d.Name, number(d.Params)),
			})
		}
	})
	return out
}

// forms are names that a language gives: those of one name have nothing else in common.
var forms = map[string]bool{"__init__": true, "constructor": true, "initialize": true, "__construct": true, "new": true, "main": true}
