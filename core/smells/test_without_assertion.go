package smells

import (
	"fmt"

	"jantel/core/calls"
	"jantel/core/model"
)

var testWithoutAssertionRule = &Rule{
	Slug: "test-without-assertion", Facet: model.Units, Title: "Test that checks nothing", Weight: 0.8, Tests: true,
	Habit: true, find: testWithoutAssertion,
	Question: "Can a test fail other than by breaking?",
	Why:      "It is green whatever the code does, and is counted as a test all the same.",
	Example:  "*draws the shelf* renders `Shelf` and looks at nothing.",
	Remedy:   "Say what has to hold afterwards, or delete it.",
}

// testWithoutAssertion reports cases that call nothing that checks, themselves
// or through what tests define as helpers.
func testWithoutAssertion(c *Context, _ *Rule) (out []hit) {
	helpers := c.checkers()
	c.tests(func(f *model.File) {
		var ev []model.Evidence
		for _, t := range f.Facts.Cases {
			if t.Asserts || len(t.Calls) == 0 || anyOf(helpers, t.Calls) {
				continue
			}
			ev = append(ev, model.Evidence{Path: f.Path, Line: t.Line, Note: t.Name})
		}
		if len(ev) == 0 {
			return
		}
		message := fmt.Sprintf("The test *%s* checks nothing", ev[0].Note)
		if len(ev) > 1 {
			message = fmt.Sprintf("%s of %s tests check nothing", capital(number(len(ev))), number(len(f.Facts.Cases)))
		}
		out = append(out, hit{
			path: f.Path, line: ev[0].Line, strength: min(0.6, 0.3+0.05*float64(len(ev)-1)), touches: []string{f.Path},
			evidence: ev[:min(12, len(ev))], message: message,
		})
	})
	return out
}

// checkers are the names of functions that check something, themselves or
// through others.
func (c *Context) checkers() map[string]bool {
	g := calls.Of(c.Survey)
	seen := map[calls.Ref]bool{}
	var next []calls.Ref
	for i, f := range c.Survey.Files {
		if f.Facts == nil {
			continue
		}
		for _, in := range f.Facts.Insides {
			if in.Asserts {
				next = append(next, calls.Ref{File: int32(i), Definition: int32(in.Definition)})
			}
		}
	}
	names := map[string]bool{}
	for len(next) > 0 {
		at := next[len(next)-1]
		next = next[:len(next)-1]
		d := g.Definition(at)
		if seen[at] || d == nil {
			continue
		}
		seen[at] = true
		names[d.Name] = true
		for _, e := range g.To(at) {
			// A case that calls a case is no helper.
			if e.Kind == model.CallPlain && c.IsTest(c.Files[e.From.File].Path) {
				next = append(next, e.From)
			}
		}
	}
	return names
}

// tests goes over the judged files of tests.
func (c *Context) tests(fn func(f *model.File)) {
	for f := range c.Code(".") {
		if c.IsTest(f.Path) {
			fn(f)
		}
	}
}

func anyOf(set map[string]bool, names []string) bool {
	for _, n := range names {
		if set[n] {
			return true
		}
	}
	return false
}
