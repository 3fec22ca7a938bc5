package server

import (
	"cmp"
	"context"
	"net/http"
	"slices"

	"jantel/core/model"
	"jantel/core/states"

	"github.com/danielgtaylor/huma/v2"
)

// StateRow is something that can be in one of several named states.
type StateRow struct {
	Name    string   `json:"name"`
	Path    string   `json:"path"`
	Line    int      `json:"line"`
	Members []string `json:"members"`
	Moves   int      `json:"moves" doc:"steps from one to another that were seen"`
	Choices int      `json:"choices" doc:"choices among them"`
	Lacks   int      `json:"lacks" doc:"choices that leave one out, with nothing for the rest"`
}

// StateList are those of a place in which something moves or is chosen by them.
type StateList struct {
	Rows  []StateRow `json:"rows" doc:"those in which most moves first"`
	Still int        `json:"still" doc:"enumerations by which nothing was seen to move or to be chosen"`
	Left  int        `json:"left" doc:"further ones that were not looked at"`
}

func (s *Server) registerStates(api huma.API) {
	registerView(s, api, "/api/codebases/{id}/states", func(ctx context.Context, o *judged, place string) (*StateList, error) {
		all := s.allStates(ctx, o)
		out := &StateList{Rows: []StateRow{}, Left: all.Left}
		for i := range all.Holders {
			h := &all.Holders[i]
			if !model.Within(place, h.Path) {
				continue
			}
			if len(h.Moves)+len(h.Choices) == 0 {
				out.Still++
				continue
			}
			row := StateRow{Name: h.Name, Path: h.Path, Line: h.Line, Members: h.Members, Moves: len(h.Moves), Choices: len(h.Choices)}
			for _, c := range h.Choices {
				if len(c.Lacks) > 0 {
					row.Lacks++
				}
			}
			out.Rows = append(out.Rows, row)
		}
		slices.SortStableFunc(out.Rows, func(a, b StateRow) int {
			return cmp.Or(cmp.Compare(b.Moves, a.Moves), cmp.Compare(b.Lacks, a.Lacks), cmp.Compare(b.Choices, a.Choices))
		})
		return out, nil
	})
	huma.Get(api, "/api/codebases/{id}/state", func(ctx context.Context, in *struct {
		ViewIn
		Line int `query:"line" required:"true" minimum:"1" doc:"where the states are defined"`
	}) (*view[*states.Holder], error) {
		return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*states.Holder, error) {
			all := s.allStates(ctx, o)
			for i := range all.Holders {
				if h := &all.Holders[i]; h.Path == in.place() && h.Line == in.Line {
					return h, nil
				}
			}
			return nil, huma.Error404NotFound("no states are defined at this line of " + in.place())
		})
	}, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
}

// allStates are the states of the whole codebase.
func (s *Server) allStates(ctx context.Context, o *judged) *states.All {
	ctx = context.WithoutCancel(ctx) // what is kept is for those who ask later as well
	return cached(o, "states", func() *states.All {
		return states.Of(o.Reading, func(path string) []string { return s.linesOf(ctx, o, path) })
	})
}
