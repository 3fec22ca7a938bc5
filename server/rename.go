package server

import (
	"context"
	"net/http"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/rename"

	"github.com/danielgtaylor/huma/v2"
)

func (s *Server) registerRename(api huma.API) {
	huma.Get(api, "/api/codebases/{id}/rename", s.renameView, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
}

// renameView tells what the renaming of the definition at a line would touch, over
// all texts of the codebase.
func (s *Server) renameView(ctx context.Context, in *struct {
	ViewIn
	Line int `query:"line" required:"true" minimum:"1" doc:"a line that the definition holds"`
}) (*view[*rename.Touched], error) {
	return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*rename.Touched, error) {
		g := calls.Of(o.facts)
		at, ok := g.AtPath(in.place(), in.Line)
		if !ok {
			return nil, noPlace(in.place())
		}
		ctx, cancel := context.WithTimeout(ctx, maxDuration)
		defer cancel()
		var broke error
		out := rename.Of(o.facts, g, at, func(fn func(string, []byte) bool) {
			_, broke = s.texts.each(ctx, s.facts, o, ".", func(f *model.File, text []byte) bool { return fn(f.Path, text) })
		})
		if broke != nil {
			return nil, broke
		}
		if out == nil {
			return nil, huma.Error404NotFound("no definition holds this line of " + in.place())
		}
		return out, nil
	})
}
