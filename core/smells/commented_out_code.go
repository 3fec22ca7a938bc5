package smells

import (
	"fmt"

	"jantel/core/model"
)

var commentedOutCodeRule = &Rule{
	Slug: "commented-out-code", Facet: model.Units, Title: "Code in comments", Weight: 0.4, Habit: true, find: commentedOutCode,
	Question:   "Is code kept in comments?",
	Why:        "Nobody knows whether it still works or why it was taken out, and nobody dares to delete it.",
	Example:    "Eleven lines of the old scale in `scale.ts`, each behind `//`.",
	Remedy:     "Delete it; the history keeps it. Where it waits for something, say for what.",
	Parameters: []Parameter{{"lines", "lines of code in comments in a file", 10, 5, 4}},
}

func commentedOutCode(c *Context, r *Rule) (out []hit) {
	least := int(c.Value(r, "lines"))
	c.source(func(f *model.File) {
		if c.Role(f.Path) == model.RoleConfig {
			return // what may be set is shown so, and waits there to be taken in
		}
		lines := 0
		var ev []model.Evidence
		for _, a := range f.Facts.Asides {
			n := a.To - a.From + 1
			lines += n
			ev = append(ev, model.Evidence{Path: f.Path, Line: a.From, Note: fmt.Sprintf("%s lines", number(n))})
		}
		if lines < least {
			return
		}
		out = append(out, hit{
			path: f.Path, line: f.Facts.Asides[0].From, end: f.Facts.Asides[0].To, strength: min(0.5, 0.2+0.01*float64(lines-least)),
			touches: []string{f.Path}, evidence: ev[:min(12, len(ev))],
			message: fmt.Sprintf("%s lines of code stand in comments", capital(number(lines))),
		})
	})
	return out
}
