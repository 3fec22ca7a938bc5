package smells

import (
	"fmt"
	"strings"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/syntax"
)

var wiringWithLogicRule = &Rule{
	Slug: "wiring-with-logic", Facet: model.Boundaries, Title: "Wiring with logic in it", Weight: 0.8,
	Family: familySize, find: wiringWithLogic,
	Question:   "Does logic stand where the program is put together?",
	Why:        "What stands there can not be used or tested without starting everything.",
	Example:    "`app.ts` starts the server and computes allowances in between.",
	Remedy:     "Move it into a file of its own and call it from there.",
	Parameters: []Parameter{{"lines", "lines of one function", 120, 80, 60}},
}

// manyPrograms is how many entries of a folder make it one of programs side by side.
const manyPrograms = 5

// neededPrograms are programs that others need, or of which others call a function, as a
// library has a start to be tried by: they can be run as well, and put nothing together.
func (c *Context) neededPrograms() map[string]bool {
	needed := map[string]bool{}
	for i := range c.Edges() {
		needed[c.Edges()[i].To] = true
	}
	g := calls.Of(c.Survey)
	for i, f := range c.Survey.Files {
		if f.Facts == nil || needed[f.Path] || c.Role(f.Path) != model.RoleEntry {
			continue
		}
		for d := range f.Facts.Definitions {
			for _, e := range g.To(calls.Ref{File: int32(i), Definition: int32(d)}) {
				needed[f.Path] = needed[f.Path] || int(e.From.File) != i
			}
		}
	}
	return needed
}

// leastParts is how many other files a program has to be made of to be put together at all.
const leastParts = 2

// partsOfPrograms counts the other files that each file needs or calls; headers say
// what is there, and are none.
func (c *Context) partsOfPrograms() map[string]int {
	parts := map[string]map[string]bool{}
	add := func(from, to string) {
		if from == to || syntax.IsHeader(to) {
			return
		}
		if parts[from] == nil {
			parts[from] = map[string]bool{}
		}
		parts[from][to] = true
	}
	for i := range c.Edges() {
		add(c.Edges()[i].From, c.Edges()[i].To)
	}
	g := calls.Of(c.Survey)
	for i, f := range c.Survey.Files {
		if f.Facts == nil || c.Role(f.Path) != model.RoleEntry {
			continue
		}
		for d := range f.Facts.Definitions {
			for _, e := range g.From(calls.Ref{File: int32(i), Definition: int32(d)}) {
				add(f.Path, c.Survey.Files[e.To.File].Path)
			}
		}
	}
	count := map[string]int{}
	for p, of := range parts {
		count[p] = len(of)
	}
	return count
}

// wiringWithLogic reports places that start a program and hold much code of
// their own.
func wiringWithLogic(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "lines"))
	programs := map[string]int{} // in a folder: of many, each is a whole program of its own
	for f := range c.Own(".") {
		if c.Role(f.Path) == model.RoleEntry {
			programs[model.FolderOf(f.Path)]++
		}
	}
	needed, parts := c.neededPrograms(), c.partsOfPrograms()
	for f := range c.Own(".") {
		if c.Role(f.Path) != model.RoleEntry || programs[model.FolderOf(f.Path)] >= manyPrograms || needed[f.Path] ||
			parts[f.Path] < leastParts || setAside(f.Path) {
			continue
		}
		for _, d := range f.Facts.Definitions {
			if strings.EqualFold(d.Name, "main") {
				continue // it is where all is put together; how long it is other rules say
			}
			if (d.Kind == model.DefFunction || d.Kind == model.DefMethod) && d.EndLine-d.Line+1 >= limit {
				out = append(out, hit{path: f.Path, line: d.Line, end: d.EndLine, name: d.Qualified(), strength: over(
					float64(d.EndLine-d.Line+1), float64(limit),
				), touches: []string{f.Path},
					message: fmt.Sprintf("*%s*, %d lines long, stands where the program is put together", d.Name, d.EndLine-d.Line+1)})
			}
		}
	}
	return out
}
