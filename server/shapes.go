package server

import (
	"cmp"
	"context"
	"net/http"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/shapes"

	"github.com/danielgtaylor/huma/v2"
)

// ShapeGroup are shapes that are about the same thing by their names.
type ShapeGroup struct {
	About  string           `json:"about"`
	Shapes []shapes.ShapeAt `json:"shapes"`
	All    int              `json:"all" doc:"shapes, those not listed too"`
	Parts  int              `json:"parts" doc:"modules that have one"`
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
	shapes.ShapeAt
	shapes.Tally
	Pairs []shapes.FieldPair `json:"pairs"`
}

// OneShape is a shape with its fields, and others that are about the same.
type OneShape struct {
	shapes.ShapeAt
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

// driftGroups is of how many groups it is told how far they drifted apart.
const driftGroups = 60

// drifted tells how far the shapes of the first groups drifted apart, and puts those
// that did first among those in equally many modules.
func (s *Server) drifted(ctx context.Context, o *judged, list *ShapeList) {
	ctx = context.WithoutCancel(ctx) // what is kept is for those who ask later as well
	for i := range list.Groups {
		g := &list.Groups[i]
		g.Otherwise = -1
		if i < driftGroups {
			g.Otherwise = cached(o, "drifted "+g.About, func() int {
				var others [][]shapes.ShapeField
				for k := range g.Shapes[1:] {
					others = append(others, s.fieldsOf(ctx, o, &g.Shapes[k+1]))
				}
				if n, told := shapes.Otherwise(s.fieldsOf(ctx, o, &g.Shapes[0]), others); told {
					return n
				}
				return -1
			})
		}
	}
	slices.SortStableFunc(list.Groups, func(a, b ShapeGroup) int {
		return cmp.Or(cmp.Compare(b.Parts, a.Parts), cmp.Compare(b.Otherwise, a.Otherwise))
	})
}

func shapesBy(o *judged) shapes.Groups {
	return cached(o, "shapes", func() shapes.Groups { return shapes.GroupsOf(o.Reading) })
}

func shapeList(o *judged, place, words string) *ShapeList {
	out := &ShapeList{Groups: []ShapeGroup{}}
	for about, all := range shapesBy(o) {
		here := slices.ContainsFunc(all, func(x shapes.ShapeAt) bool { return model.Within(place, x.Path) })
		if len(all) < 2 || shapes.General[about] || !here {
			continue
		}
		if words != "" && !strings.Contains(about, words) &&
			!slices.ContainsFunc(all, func(x shapes.ShapeAt) bool { return strings.Contains(strings.ToLower(x.Path), words) }) {
			continue
		}
		in := map[string]bool{}
		for _, x := range all {
			in[o.module(x.Path)] = true
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
		out := &OneShape{ShapeAt: shapes.ShapeAt{Path: f.Path, Name: d.Name, Line: d.Line, Role: o.Reading.Role(f.Path)}, Beside: []ShapeBeside{}}
		out.Fields = s.fieldsOf(ctx, o, &out.ShapeAt)
		if len(out.Fields) == 0 {
			return out, nil
		}
		read := 0
		for _, x := range shapesBy(o).With(out.ShapeAt) {
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
func (s *Server) fieldsOf(ctx context.Context, o *judged, x *shapes.ShapeAt) []shapes.ShapeField {
	return shapes.FieldsAt(o.facts.File(x.Path), s.linesOf(ctx, o, x.Path), x)
}
