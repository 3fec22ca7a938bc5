package server

import (
	"context"
	"slices"

	"jantel/core/model"
	"jantel/core/rights"
)

// Allowed is who may do what at a place.
type Allowed struct {
	rights.Rights
	All   int            `json:"all" doc:"actions at the place, those not listed too"`
	Holes map[string]int `json:"holes" doc:"how many actions lack a check, by what is missing"`
}

// mostActions is how many actions are told at once, those with a hole first.
const mostActions = 400

// rightsView tells of each route at a place where rights are checked.
func (s *Server) rightsView(_ context.Context, o *judged, place string) (*Allowed, error) {
	all := cached(o, "rights", func() *rights.Rights {
		return rights.Of(o.Reading, o.journeys(), allRoutes(o), o.module)
	})
	out := &Allowed{Rights: rights.Rights{Actions: []rights.Permitted{}, Names: []string{}}, Holes: map[string]int{}}
	named := map[string]bool{}
	for _, a := range all.Actions {
		if !model.Within(place, a.Path) {
			continue
		}
		if a.Hole != "" {
			out.Holes[a.Hole]++
		}
		for _, c := range a.Checks {
			named[c.Right] = true
		}
		if out.All++; len(out.Actions) < mostActions {
			out.Actions = append(out.Actions, a)
		}
	}
	out.Names = slices.DeleteFunc(slices.Clone(all.Names), func(n string) bool { return !named[n] })
	return out, nil
}
