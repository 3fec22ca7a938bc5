package routes

import (
	"regexp"
	"slices"
	"strings"

	"jantel/core/model"
)

// validating are names of what stands before a route and looks at what is sent.
var validating = regexp.MustCompile(`(?i)valid|sanitiz|celebrate|(?:parse|check)_?(?:body|params|query)|(?:body|params|query|json)_?schema`)

// checkedBases are what the types of requests build upon that check themselves when
// they are made.
var checkedBases = map[string]bool{
	"FormRequest": true, "BaseModel": true, "Schema": true, "SQLModel": true, "Struct": true, "AbstractValidator": true,
}

// checks is what looks at what a route is sent before it is used: what runs before
// it, what the handler calls, what it is marked with, and the types that it takes.
func (j *joiner) checks(f *model.File, r *model.RouteFact, next func(line int) int, of *model.Route) (names []string) {
	add := func(n string) {
		if !slices.Contains(names, n) {
			names = append(names, n)
		}
	}
	before := slices.Clone(of.Guards)
	for _, x := range of.Around {
		if x.When == model.InsertBefore {
			before = append(before, x.Name)
		}
	}
	for _, n := range before {
		if validating.MatchString(n) {
			add(n)
		}
	}
	file, from, to, handler := j.body(f, r, next, of)
	if file == nil {
		return names
	}
	for _, run := range file.Facts.Runs {
		if run.Kind == model.RunValid && run.Line >= from && run.Line <= to {
			add(run.Name)
		}
	}
	for _, t := range j.checkedTypes(file, handler) {
		add(t)
	}
	return names
}

// body are the lines of what answers a route: of its handler, which is told by its
// place among the definitions, or what is written in place, where that is -1; the file
// is nil where neither is known.
func (j *joiner) body(
	f *model.File, r *model.RouteFact, next func(int) int, of *model.Route,
) (file *model.File, from, to, handler int) {
	if of.HandlerPath == "" {
		if !r.InPlace {
			return nil, 0, 0, -1
		}
		return f, r.Line, next(r.Line) - 1, -1
	}
	file = j.s.File(of.HandlerPath)
	if handler = definitionAt(file, of.HandlerLine); handler < 0 {
		return nil, 0, 0, -1
	}
	d := &file.Facts.Definitions[handler]
	return file, d.Line, d.EndLine, handler
}

// definitionAt is the last definition that begins at a line; -1 where none does.
func definitionAt(f *model.File, line int) int {
	at := -1
	if f == nil || f.Facts == nil {
		return at
	}
	for i := range f.Facts.Definitions {
		if d := &f.Facts.Definitions[i]; d.Line == line && d.Kind != model.DefClass {
			at = i
		}
	}
	return at
}

// checkedTypes are the types a handler takes that check themselves.
func (j *joiner) checkedTypes(f *model.File, definition int) (names []string) {
	for i := range f.Facts.Insides {
		in := &f.Facts.Insides[i]
		if in.Definition != definition {
			continue
		}
		for _, t := range in.Takes {
			if j.checked(f, t, 0) {
				names = append(names, t)
			}
		}
	}
	return names
}

// checked reports whether a class checks itself when it is made, by what it builds
// upon.
func (j *joiner) checked(f *model.File, class string, deep int) bool {
	g, d := j.base(f, class)
	if d == nil || deep > maxBases {
		return false
	}
	return slices.ContainsFunc(d.Bases, func(b string) bool {
		return checkedBases[b[strings.LastIndexAny(b, `.:\\`)+1:]] || j.checked(g, b, deep+1)
	})
}
