package server

import (
	"context"
	"net/http"

	"jantel/core/model"
	"jantel/core/overview"
	"jantel/core/smells"
	"jantel/review"

	"github.com/danielgtaylor/huma/v2"
)

func (s *Server) registerViews(api huma.API) {
	registerView(s, api, "/api/codebases/{id}/overview", s.overview)
	registerView(s, api, "/api/codebases/{id}/layout", s.layout, review.PartFindings, review.PartMarks)
	registerView(s, api, "/api/codebases/{id}/margin", s.margin, review.PartFindings, review.PartMarks)
	registerView(s, api, "/api/codebases/{id}/code", s.code, review.PartMarks)
	registerView(s, api, "/api/codebases/{id}/siblings", s.siblings)
	huma.Get(api, "/api/codebases/{id}/smells", s.smells, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
	s.registerDesk(api)
	s.registerParts(api)
	s.registerReach(api)
	s.registerPast(api)
	s.registerNames(api)
	s.registerTexts(api)
	s.registerShapes(api)
	s.registerStates(api)
	registerView(s, api, "/api/codebases/{id}/flows", s.flows)
	registerView(s, api, "/api/codebases/{id}/rights", s.rightsView)
	registerView(s, api, "/api/codebases/{id}/wiring", s.wiringView)
	s.registerDrawings(api)
	s.registerDeclared(api)
	huma.Get(api, "/api/codebases/{id}/routes", s.routesView)
	huma.Get(api, "/api/codebases/{id}/routes/otherwise", s.otherwise, func(op *huma.Operation) {
		op.Errors = []int{http.StatusNotFound, http.StatusUnprocessableEntity}
	})
	s.registerJourneys(api)
	s.registerDefinition(api)
	s.registerRename(api)
	huma.Get(api, "/api/codebases/{id}/places", func(ctx context.Context, in *struct {
		ViewIn
		Q string `query:"q"`
	}) (*body[[]PlaceHit], error) {
		o, err := s.shelf.survey(ctx, in.ID, in.Survey)
		if err != nil {
			return nil, err
		}
		return &body[[]PlaceHit]{findPlaces(o, in.Q, 30)}, nil
	})
	huma.Get(api, "/api/rules", func(context.Context, *struct{}) (*body[[]*smells.Rule], error) {
		return &body[[]*smells.Rule]{smells.Rules()}, nil
	})
}

func noPlace(place string) error {
	return huma.Error404NotFound("there is no " + place + " in this survey")
}

func (s *Server) overview(_ context.Context, o *judged, place string) (*overview.Sheet, error) {
	if o.facts.File(place) != nil {
		place = model.FolderOf(place)
	}
	sh := cached(o, "overview "+place, func() *overview.Sheet { return overview.Of(o.facts, o.Result, place) })
	if sh == nil {
		return nil, noPlace(place)
	}
	return sh, nil
}
