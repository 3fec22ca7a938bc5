package shapes

import (
	"maps"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/reading"
)

// ShapeAt is something that holds data, by where it is defined.
type ShapeAt struct {
	Path string     `json:"path"`
	Name string     `json:"name"`
	Line int        `json:"line"`
	Role model.Role `json:"role"`
}

// Groups are all shapes of own code by what they are about.
type Groups map[string][]ShapeAt

// GroupsOf gathers the shapes of own code, tests left out.
func GroupsOf(r *reading.Reading) Groups {
	out := Groups{}
	for f := range r.Own(".") {
		if r.IsTest(f.Path) {
			continue
		}
		for i := range f.Facts.Definitions {
			if d := &f.Facts.Definitions[i]; holdsData(f, d) {
				about := strings.Join(About(d.Name), " ")
				out[about] = append(out[about], ShapeAt{f.Path, d.Name, d.Line, r.Role(f.Path)})
			}
		}
	}
	// A seed request is a request, where something is called that alone and nothing
	// a seed.
	for _, about := range slices.Sorted(maps.Keys(out)) {
		words := naming.Words(out[about][0].Name)
		if last := naming.Singular(words[len(words)-1]); len(out[about]) == 1 && !strings.HasSuffix(" "+about, " "+last) {
			out.join(about, last)
		}
	}
	// A drying run is a run.
	for _, about := range slices.Sorted(maps.Keys(out)) {
		if i := strings.LastIndexByte(about, ' '); i > 0 {
			out.join(about, about[i+1:])
		}
	}
	return out
}

// join puts the shapes about one thing to those about another that is there.
func (g Groups) join(about, other string) {
	if g[other] != nil && !General[other] {
		g[other] = append(g[other], g[about]...)
		delete(g, about)
	}
}

// With is the group that a shape is in.
func (g Groups) With(x ShapeAt) []ShapeAt {
	for _, group := range g {
		if slices.Contains(group, x) {
			return group
		}
	}
	return nil
}

// General are words that things of all sorts are called by: to be about the same of
// these means nothing.
var General = map[string]bool{
	"state": true, "option": true, "config": true, "node": true, "entry": true, "error": true, "result": true, "context": true,
	"event": true, "list": true, "map": true, "key": true, "value": true, "name": true, "id": true, "set": true, "group": true, "test": true,
	"prop": true, "param": true, "arg": true, "type": true, "data": true, "info": true, "model": true,
}

// holdsData reports whether a definition may be a shape: a type of several lines
// that has no methods of its own but a few.
func holdsData(f *model.File, d *model.Definition) bool {
	switch d.Kind {
	case model.DefClass, model.DefInterface, model.DefType:
	default:
		return false
	}
	if d.EndLine == d.Line && d.Params == 0 {
		return false
	}
	methods := 0
	for i := range f.Facts.Definitions {
		if m := &f.Facts.Definitions[i]; m.Kind == model.DefMethod && m.Parent == d.Qualified() {
			methods += m.EndLine - m.Line + 1
		}
	}
	return 2*methods <= d.EndLine-d.Line+1
}

// FieldsAt reads the fields of a shape from the lines of its file; none where it is
// not found there.
func FieldsAt(f *model.File, lines []string, x *ShapeAt) []ShapeField {
	if f != nil && f.Facts != nil {
		for i := range f.Facts.Definitions {
			if d := &f.Facts.Definitions[i]; d.Line == x.Line && d.Name == x.Name && d.EndLine <= len(lines) {
				return append([]ShapeField{}, Fields(lines[d.Line-1:d.EndLine], d.Line)...)
			}
		}
	}
	return []ShapeField{}
}

// Otherwise counts what a shape has otherwise than the one of others that is most
// like it; false where it shares no field with any.
func Otherwise(first []ShapeField, others [][]ShapeField) (n int, told bool) {
	shared := 0
	for _, fields := range others {
		if t := Count(Align(first, fields)); t.Same+t.Differs > shared {
			shared, n, told = t.Same+t.Differs, t.Differs+t.Lost+t.Added, true
		}
	}
	return n, told
}
