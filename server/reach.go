package server

import (
	"context"
	"fmt"
	"net/http"

	"jantel/core/reach"

	"github.com/danielgtaylor/huma/v2"
)

// registerReach serves what a change at a place may touch: of a file or a
// folder, or of the definition that holds a line.
func (s *Server) registerReach(api huma.API) {
	huma.Get(api, "/api/codebases/{id}/reach", func(ctx context.Context, in *struct {
		ViewIn
		Line int `query:"line" minimum:"0" doc:"a line of the definition that is meant; 0 for the whole place"`
	}) (*view[*reach.Reach], error) {
		return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*reach.Reach, error) {
			file := o.facts.File(in.place()) != nil
			if !file && o.Folder(in.place()) == nil {
				return nil, noPlace(in.place())
			}
			return cached(o, fmt.Sprintf("reach %s:%d", in.place(), in.Line), func() *reach.Reach {
				if file && in.Line > 0 {
					if x, ok := reach.OfDefinition(o.Reading, in.place(), in.Line); ok {
						return x
					}
				}
				return reach.Of(o.Reading, in.place())
			}), nil
		})
	}, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
}
