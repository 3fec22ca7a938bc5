package smells

import (
	"fmt"

	"jantel/core/model"
	"jantel/core/reading"
)

var longFunctionRule = &Rule{
	Slug: "long-function", Facet: model.Units, Title: "Long function", Weight: 1.2, Family: familySize, Habit: true, find: longFunction,
	Question:   "Is a function too long to be held in mind?",
	Why:        "What does not fit on a screen is read in pieces, and what its parts have to do with each other is guessed.",
	Example:    "`printSheet`, 140 lines from layout to spooling.",
	Remedy:     "Take the steps out that have a name of their own.",
	Parameters: []Parameter{{"lines", "lines from its first to its last", 120, 80, 60}},
}

// callable reports whether a definition is code that is called.
func callable(d model.Definition) bool {
	return d.Kind == model.DefFunction || d.Kind == model.DefMethod || d.Kind == model.DefComponent
}

// wrapsAll reports whether a function is what a module hands out as a whole: nearly all of
// the file stands in it, and how long it is the file says, up to some times the limit.
func wrapsAll(f *model.File, d *model.Definition, limit int) bool {
	n := d.EndLine - d.Line + 1
	return d.Name == "default" && n <= 3*limit && 10*n >= 8*f.Lines()
}

func longFunction(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "lines"))
	c.source(func(f *model.File) {
		for i, d := range f.Facts.Definitions {
			if n := d.EndLine - d.Line + 1; callable(d) && n > limit && !wrapsAll(f, &d, limit) && !(n > 2*limit && reading.IsTable(f, i)) {
				out = append(out, hit{
					path: f.Path, line: d.Line, end: d.EndLine, name: d.Qualified(),
					strength: over(float64(n), float64(limit)), touches: []string{f.Path},
					message: fmt.Sprintf("*%s* is %d lines long, where %d is the limit", d.Name, n, limit),
				})
			}
		}
	})
	return out
}
