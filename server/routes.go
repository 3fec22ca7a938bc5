package server

import (
	"context"

	"jantel/core/model"
	"jantel/core/routes"
)

// routesView lists the routes that are declared or answered at a place, or
// those that would answer a typed path.
func (s *Server) routesView(ctx context.Context, in *struct {
	ViewIn
	Typed string `query:"path" doc:"only routes that answer this path"`
}) (*view[[]model.Route], error) {
	return viewOf(ctx, s, &in.ViewIn, func(o *judged) ([]model.Route, error) {
		out := []model.Route{}
		for _, r := range cached(o, "routes", func() []model.Route { return routes.Of(o.facts) }) {
			here := model.Within(in.place(), r.Path) || r.HandlerPath != "" && model.Within(in.place(), r.HandlerPath)
			if here && (in.Typed == "" || routes.Match(r.Pattern, in.Typed)) {
				out = append(out, r)
			}
		}
		return out, nil
	})
}
