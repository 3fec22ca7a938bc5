package server

import (
	"context"

	"jantel/core/model"
	"jantel/core/routes"

	"github.com/danielgtaylor/huma/v2"
)

// routesView lists the routes that are declared or answered at a place, or
// those that would answer a typed path.
func (s *Server) routesView(ctx context.Context, in *struct {
	ViewIn
	Typed string `query:"path" doc:"only routes that answer this path"`
}) (*view[[]model.Route], error) {
	o, err := s.shelf.survey(ctx, in.ID, in.Survey)
	if err != nil {
		return nil, err
	}
	tag := o.etag()
	if in.Match == tag {
		return nil, huma.Status304NotModified()
	}
	out := []model.Route{}
	for _, r := range cached(o, "routes", func() []model.Route { return routes.Of(o.facts) }) {
		here := model.Within(in.place(), r.Path) || r.HandlerPath != "" && model.Within(in.place(), r.HandlerPath)
		if here && (in.Typed == "" || routes.Match(r.Pattern, in.Typed)) {
			out = append(out, r)
		}
	}
	return &view[[]model.Route]{tag, out}, nil
}
