package server

import (
	"context"
	"slices"

	"jantel/core/model"
	"jantel/core/wiring"
)

// WiringList is what is handed out where something is asked for, at a place.
type WiringList struct {
	Rows  []wiring.Handed `json:"rows" doc:"what may be wrong first"`
	All   int             `json:"all" doc:"rows of the place, those not listed too"`
	Wrong map[string]int  `json:"wrong"`
}

// mostHanded is how many rows are told at once.
const mostHanded = 400

func (s *Server) wiringView(_ context.Context, o *judged, place string) (*WiringList, error) {
	all := cached(o, "wiring", func() []wiring.Handed {
		return wiring.Join(o.Reading, o.module)
	})
	out := &WiringList{Rows: []wiring.Handed{}, Wrong: map[string]int{}}
	for i := range all {
		h := &all[i]
		here := slices.ContainsFunc(h.By, func(w model.Wiring) bool { return model.Within(place, w.Path) }) ||
			slices.ContainsFunc(h.Askers, func(a wiring.Asker) bool { return model.Within(place, a.Path) })
		if !here {
			continue
		}
		for _, w := range h.Wrong {
			out.Wrong[w]++
		}
		if out.All++; len(out.Rows) < mostHanded {
			out.Rows = append(out.Rows, *h)
		}
	}
	return out, nil
}
