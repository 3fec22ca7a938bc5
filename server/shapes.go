package server

import (
	"cmp"
	"context"
	"maps"
	"net/http"
	"slices"
	"strings"
	"sync"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/shapes"

	"github.com/danielgtaylor/huma/v2"
)

// ShapeAt is something that holds data, by where it is defined.
type ShapeAt struct {
	Path string     `json:"path"`
	Name string     `json:"name"`
	Line int        `json:"line"`
	Role model.Role `json:"role"`
}

// ShapeGroup are shapes that are about the same thing by their names.
type ShapeGroup struct {
	About  string    `json:"about"`
	Shapes []ShapeAt `json:"shapes"`
	All    int       `json:"all" doc:"shapes, those not listed too"`
	Parts  int       `json:"parts" doc:"modules that have one"`
	// Otherwise counts what the first has otherwise than the one most like it.
	Otherwise int `json:"otherwise" doc:"fields that the first and the one most like it do not have alike; -1 where that was not looked at"`
}

// ShapeList are the things that several shapes are about.
type ShapeList struct {
	Groups []ShapeGroup `json:"groups" doc:"those in most modules first"`
	Found  int          `json:"found"`
}

// ShapeBeside is a shape laid beside another, field by field.
type ShapeBeside struct {
	ShapeAt
	shapes.Tally
	Pairs []shapes.FieldPair `json:"pairs"`
}

// OneShape is a shape with its fields, and others that are about the same.
type OneShape struct {
	ShapeAt
	Fields []shapes.ShapeField `json:"fields"`
	Beside []ShapeBeside       `json:"beside" doc:"those that share most fields first"`
}

// How many groups and shapes are told at once.
const (
	mostShapeGroups = 200
	mostShapes      = 12
	readShapes      = 40
)

func (s *Server) registerShapes(api huma.API) {
	huma.Get(api, "/api/codebases/{id}/shapes", func(ctx context.Context, in *struct {
		ViewIn
		Words string `query:"words" maxLength:"100" doc:"part of what they are about, or of a path"`
	}) (*view[*ShapeList], error) {
		return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*ShapeList, error) {
			out := shapeList(o, in.place(), strings.ToLower(strings.TrimSpace(in.Words)))
			s.drifted(ctx, o, out)
			return out, nil
		})
	})
	huma.Get(api, "/api/codebases/{id}/shape", s.oneShape, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
}

// shapesBy are all shapes of own code by what they are about.
func shapesBy(o *judged) map[string][]ShapeAt {
	return cached(o, "shapes", func() map[string][]ShapeAt {
		out := map[string][]ShapeAt{}
		for f := range o.Reading.Own(".") {
			if o.Reading.IsTest(f.Path) {
				continue
			}
			for i := range f.Facts.Definitions {
				d := &f.Facts.Definitions[i]
				if !holdsData(f, d) {
					continue
				}
				about := strings.Join(shapes.About(d.Name), " ")
				out[about] = append(out[about], ShapeAt{f.Path, d.Name, d.Line, o.Reading.Role(f.Path)})
			}
		}
		// A seed request is a request, where something is called that alone and nothing
		// a seed.
		for _, about := range slices.Sorted(maps.Keys(out)) {
			if len(out[about]) != 1 {
				continue
			}
			words := naming.Words(out[about][0].Name)
			last := naming.Singular(words[len(words)-1])
			if last != about && !strings.HasSuffix(about, " "+last) && out[last] != nil && !general[last] {
				out[last] = append(out[last], out[about]...)
				delete(out, about)
			}
		}
		// A drying run is a run.
		for _, about := range slices.Sorted(maps.Keys(out)) {
			if i := strings.LastIndexByte(about, ' '); i > 0 && out[about[i+1:]] != nil && !general[about[i+1:]] {
				out[about[i+1:]] = append(out[about[i+1:]], out[about]...)
				delete(out, about)
			}
		}
		return out
	})
}

// general are words that things of all sorts are called by.
var general = map[string]bool{
	"state": true, "option": true, "config": true, "node": true, "entry": true, "error": true, "result": true, "context": true,
	"event": true, "list": true, "map": true, "key": true, "value": true, "name": true, "id": true, "set": true, "group": true, "test": true,
	"prop": true, "param": true, "arg": true, "type": true, "data": true, "info": true, "model": true,
}

// aboutOf is the group that a shape is in.
func aboutOf(o *judged, x ShapeAt) []ShapeAt {
	for _, group := range shapesBy(o) {
		if slices.Contains(group, x) {
			return group
		}
	}
	return nil
}

// driftGroups is of how many groups it is told how far they drifted apart.
const driftGroups = 60

// drifted tells how far the shapes of the first groups drifted apart, and puts those
// that did first among those in equally many modules.
func (s *Server) drifted(ctx context.Context, o *judged, list *ShapeList) {
	ctx = context.WithoutCancel(ctx) // what is kept is for those who ask later as well
	by := cached(o, "drifted", func() *sync.Map { return &sync.Map{} })
	for i := range list.Groups {
		g := &list.Groups[i]
		g.Otherwise = -1
		if i >= driftGroups {
			continue
		}
		known, ok := by.Load(g.About)
		if !ok {
			known = -1
			if n, told := s.otherwise(ctx, o, g.Shapes); told {
				known = n
			}
			by.Store(g.About, known)
		}
		g.Otherwise = known.(int)
	}
	slices.SortStableFunc(list.Groups, func(a, b ShapeGroup) int {
		return cmp.Or(cmp.Compare(b.Parts, a.Parts), cmp.Compare(b.Otherwise, a.Otherwise))
	})
}

// otherwise counts what the first shape has otherwise than the one that is most like
// it; false where no two of them share a field.
func (s *Server) otherwise(ctx context.Context, o *judged, all []ShapeAt) (n int, told bool) {
	first := s.fieldsOf(ctx, o, &all[0])
	shared := 0
	for _, x := range all[1:] {
		t := shapes.Count(shapes.Align(first, s.fieldsOf(ctx, o, &x)))
		if t.Same+t.Differs > shared {
			shared, n, told = t.Same+t.Differs, t.Differs+t.Lost+t.Added, true
		}
	}
	return n, told
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

func shapeList(o *judged, place, words string) *ShapeList {
	out := &ShapeList{Groups: []ShapeGroup{}}
	for about, all := range shapesBy(o) {
		if len(all) < 2 || general[about] || !slices.ContainsFunc(all, func(x ShapeAt) bool { return model.Within(place, x.Path) }) {
			continue
		}
		if words != "" && !strings.Contains(about, words) &&
			!slices.ContainsFunc(all, func(x ShapeAt) bool { return strings.Contains(strings.ToLower(x.Path), words) }) {
			continue
		}
		in := map[string]bool{}
		for _, x := range all {
			in[model.ProjectOf(o.Modules, x.Path)] = true
		}
		out.Groups = append(out.Groups, ShapeGroup{About: about, Shapes: all[:min(len(all), mostShapes)], All: len(all), Parts: len(in)})
	}
	slices.SortFunc(out.Groups, func(a, b ShapeGroup) int {
		return cmp.Or(cmp.Compare(b.Parts, a.Parts), cmp.Compare(b.All, a.All), strings.Compare(a.About, b.About))
	})
	out.Found = len(out.Groups)
	out.Groups = out.Groups[:min(out.Found, mostShapeGroups)]
	return out
}

// oneShape lays the shape at a line beside others that are about the same.
func (s *Server) oneShape(ctx context.Context, in *struct {
	ViewIn
	Line int `query:"line" required:"true" minimum:"1" doc:"where the shape is defined"`
}) (*view[*OneShape], error) {
	return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*OneShape, error) {
		var d *model.Definition
		f := o.facts.File(in.place())
		for i := 0; f != nil && f.Facts != nil && i < len(f.Facts.Definitions); i++ {
			x := &f.Facts.Definitions[i]
			if x.Line <= in.Line && x.EndLine >= in.Line && (x.Kind == model.DefClass || x.Kind == model.DefInterface || x.Kind == model.DefType) {
				d = x
			}
		}
		if d == nil {
			return nil, huma.Error404NotFound("no type is defined at this line of " + in.place())
		}
		out := &OneShape{ShapeAt: ShapeAt{f.Path, d.Name, d.Line, o.Reading.Role(f.Path)}, Beside: []ShapeBeside{}}
		out.Fields = s.fieldsOf(ctx, o, &out.ShapeAt)
		if len(out.Fields) == 0 {
			return out, nil
		}
		read := 0
		for _, x := range aboutOf(o, out.ShapeAt) {
			if x == out.ShapeAt || read >= readShapes {
				continue
			}
			read++
			fields := s.fieldsOf(ctx, o, &x)
			if len(fields) == 0 {
				continue
			}
			pairs := shapes.Align(out.Fields, fields)
			out.Beside = append(out.Beside, ShapeBeside{x, shapes.Count(pairs), pairs})
		}
		slices.SortStableFunc(out.Beside, func(a, b ShapeBeside) int {
			return cmp.Compare(b.Same+b.Differs, a.Same+a.Differs)
		})
		out.Beside = out.Beside[:min(len(out.Beside), mostShapes)]
		return out, nil
	})
}

// fieldsOf reads the fields of a shape from its text; none where that is not kept
// any more.
func (s *Server) fieldsOf(ctx context.Context, o *judged, x *ShapeAt) []shapes.ShapeField {
	lines := s.linesOf(ctx, o, x.Path)
	if lines == nil {
		return []shapes.ShapeField{}
	}
	f := o.facts.File(x.Path)
	for i := range f.Facts.Definitions {
		if d := &f.Facts.Definitions[i]; d.Line == x.Line && d.Name == x.Name && d.EndLine <= len(lines) {
			if all := shapes.Fields(lines[d.Line-1:d.EndLine], d.Line); all != nil {
				return all
			}
		}
	}
	return []shapes.ShapeField{}
}
