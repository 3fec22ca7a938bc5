package server

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"jantel/core/model"
	"jantel/core/smells"
)

// SmellList is a stretch of the smells of a place.
type SmellList struct {
	Count  int                 `json:"count" doc:"smells that count, silenced ones left out"`
	Total  int                 `json:"total" doc:"rows of the whole list, silenced ones last"`
	From   int                 `json:"from"`
	Smells []model.Smell       `json:"smells" doc:"strongest first"`
	Titles map[string]RuleText `json:"titles" doc:"the rules of the smells told"`
}

// smellsAt are the smells of a place, those that go before others first and silenced ones
// last. It is made once and shared.
func smellsAt(o *judged, place string, n Narrow) *SmellList {
	return cached(o, fmt.Sprintf("smells %s %+v", place, n), func() *SmellList { return ranked(o, n, o.SmellsAt(place)) })
}

// hitsAt are the same one by one, those that others tell of as well.
func hitsAt(o *judged, place string, n Narrow) *SmellList {
	return cached(o, fmt.Sprintf("hits %s %+v", place, n), func() *SmellList {
		var all []*model.Smell
		for i := range o.Hits {
			if sm := &o.Hits[i]; model.Within(place, sm.Path) {
				all = append(all, sm)
			}
		}
		return ranked(o, n, all)
	})
}

func ranked(o *judged, n Narrow, all []*model.Smell) *SmellList {
	l := &SmellList{Smells: []model.Smell{}}
	for _, sm := range all {
		if n != (Narrow{}) && !n.touches(o, sm) {
			continue
		}
		l.Smells = append(l.Smells, brief(sm))
		if sm.Silenced == "" {
			l.Count++
		}
	}
	slices.SortStableFunc(l.Smells, func(a, b model.Smell) int {
		return cmp.Or(cmp.Compare(min(len(a.Silenced), 1), min(len(b.Silenced), 1)), cmp.Compare(b.Rank, a.Rank))
	})
	l.Total = len(l.Smells)
	return l
}

// mostPlaces bounds the places of a smell in a list; its count says how many
// there are, and the desk lists them one by one.
const mostPlaces = 20

// brief is a smell as lists have it.
func brief(sm *model.Smell) model.Smell {
	b := *sm
	b.Places = b.Places[:min(mostPlaces, len(b.Places))]
	return b
}

// titlesOf are the words of the rules of smells.
func titlesOf(found []model.Smell) map[string]RuleText {
	out := map[string]RuleText{}
	for _, sm := range found {
		if r := smells.Named(sm.Rule); r != nil {
			out[sm.Rule] = RuleText{r.Title, r.Question, r.Why}
		}
	}
	return out
}

// touches reports whether a smell lies on a file that is left.
func (n Narrow) touches(o *judged, sm *model.Smell) bool {
	return n.holds(o, sm.Path) || slices.ContainsFunc(sm.Touches, func(p string) bool { return n.holds(o, p) })
}

// smells lists a stretch of the smells of a place, so that every number opens
// its list.
func (s *Server) smells(ctx context.Context, in *struct {
	ViewIn
	Narrow
	From  int `query:"from" minimum:"0"`
	Count int `query:"count" minimum:"0" maximum:"500" default:"50"`
}) (*view[*SmellList], error) {
	return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*SmellList, error) {
		all := smellsAt(o, in.place(), in.Narrow)
		from := min(in.From, all.Total)
		out := &SmellList{
			Count: all.Count, Total: all.Total, From: in.From, Smells: all.Smells[from:min(from+in.Count, all.Total)],
		}
		out.Titles = titlesOf(out.Smells)
		return out, nil
	})
}
