// Package relations finds what ties files together by name alone, at run time:
// templates that code asks for, routes and what answers them, requests to
// routes of the same codebase, messages from sender to receiver; and what the
// code keeps, with what it does to it.
package relations

import (
	"cmp"
	"slices"

	"jantel/core/model"
	"jantel/core/routes"
	"jantel/core/syntax"
)

// Add adds the links that hold by name to those a survey has.
func Add(s *model.Survey, t *syntax.Tree) {
	var found []model.Link
	found = append(found, templateLinks(t)...)
	found = append(found, componentLinks(t)...)
	all := routes.Of(s)
	for _, r := range all {
		if r.HandlerPath != "" && r.HandlerPath != r.Path {
			found = append(found, model.Link{From: r.Path, To: r.HandlerPath, Kind: model.LinkRoute, Line: r.Line, Text: r.Method + " " + r.Pattern, Sure: true})
		}
	}
	requests, _ := Requests(s, all)
	for _, q := range requests {
		if q.Route != nil && q.Route.Path != q.Path {
			found = append(found, model.Link{From: q.Path, To: q.Route.Path, Kind: model.LinkHTTP, Line: q.Line, Text: q.Text(), Sure: q.Sure})
		}
	}
	found = append(found, messageLinks(Messages(s))...)
	if len(found) == 0 {
		return
	}
	// Those that are there are in order already: the two are merged.
	slices.SortFunc(found, compare)
	merged := make([]model.Link, 0, len(s.Links)+len(found))
	i := 0
	for _, l := range found {
		for i < len(s.Links) && compare(s.Links[i], l) <= 0 {
			merged = append(merged, s.Links[i])
			i++
		}
		merged = append(merged, l)
	}
	s.Links = append(merged, s.Links[i:]...)
	s.Links = slices.CompactFunc(s.Links, func(a, b model.Link) bool {
		return a.From == b.From && a.To == b.To && a.Kind == b.Kind && a.Line == b.Line && a.Text == b.Text
	})
}

func compare(a, b model.Link) int {
	return cmp.Or(cmp.Compare(a.From, b.From), cmp.Compare(a.Line, b.Line), cmp.Compare(a.To, b.To), cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.Text, b.Text), slices.Compare(a.Names, b.Names))
}
