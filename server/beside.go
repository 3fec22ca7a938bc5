package server

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"strings"

	"jantel/core/compare"

	"github.com/danielgtaylor/huma/v2"
)

// BesideIn names a place and a second one beside it.
type BesideIn struct {
	ViewIn
	With         string `query:"with" doc:"the second place; the root when empty"`
	WithCodebase int64  `query:"with-codebase" doc:"0 for the same codebase"`
	WithSurvey   int64  `query:"with-survey" doc:"0 for the newest finished survey"`
}

func (s *Server) registerBeside(api huma.API) {
	huma.Get(api, "/api/codebases/{id}/beside", s.beside, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
}

// beside tells what differs between two places.
func (s *Server) beside(ctx context.Context, in *BesideIn) (*view[*compare.Beside], error) {
	a, err := s.shelf.survey(ctx, in.ID, in.Survey)
	if err != nil {
		return nil, err
	}
	b, err := s.shelf.survey(ctx, cmp.Or(in.WithCodebase, in.ID), in.WithSurvey)
	if err != nil {
		return nil, err
	}
	with := cmp.Or(in.With, ".")
	tag := fmt.Sprintf("%q", strings.Trim(a.etag(), `"`)+"+"+strings.Trim(b.etag(), `"`))
	return answer(&in.ViewIn, tag, func() (*compare.Beside, error) {
		out := compare.Of(
			compare.Side{Survey: a.facts, Result: a.Result, Place: in.place(), Ties: a.ties()},
			compare.Side{Survey: b.facts, Result: b.Result, Place: with, Ties: b.ties()},
		)
		if out == nil && a.Folder(in.place()) == nil && a.facts.File(in.place()) == nil {
			return nil, noPlace(in.place())
		}
		if out == nil {
			return nil, noPlace(with)
		}
		return out, nil
	})
}
