package smells

import (
	"fmt"

	"jantel/core/model"
)

var testWaitsRule = &Rule{
	Slug: "test-waits", Facet: model.Units, Title: "Test that waits", Weight: 0.5, Tests: true, Habit: true, find: testWaits,
	Question: "Does a test wait for time to pass?",
	Why:      "It is slow on every machine and fails on the slow ones.",
	Example:  "*the spool is emptied* sleeps two seconds and then looks.",
	Remedy:   "Wait for what is to happen, with a limit, or hand in a clock.",
}

func testWaits(c *Context, _ *Rule) (out []hit) {
	c.tests(func(f *model.File) {
		var ev []model.Evidence
		for _, t := range f.Facts.Cases {
			if t.Waits > 0 {
				ev = append(ev, model.Evidence{Path: f.Path, Line: t.Waits, Note: t.Name})
			}
		}
		if len(ev) == 0 {
			return
		}
		message := fmt.Sprintf("The test *%s* waits for time to pass", ev[0].Note)
		if len(ev) > 1 {
			message = fmt.Sprintf("%s tests wait for time to pass", capital(number(len(ev))))
		}
		out = append(out, hit{
			path: f.Path, line: ev[0].Line, strength: min(0.5, 0.25+0.05*float64(len(ev)-1)), touches: []string{f.Path},
			evidence: ev[:min(12, len(ev))], message: message,
		})
	})
	return out
}
