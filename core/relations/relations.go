// Package relations finds what ties files together by name alone, at run time:
// templates that code asks for, routes and what answers them, requests to
// routes of the same codebase, messages from sender to receiver; and what the
// code keeps, with what it does to it.
package relations

import (
	"cmp"
	"slices"

	"jantel/core/model"
	"jantel/core/parallel"
	"jantel/core/routes"
	"jantel/core/syntax"
)

// Add adds the links that hold by name to those a survey has. One sort of them
// that breaks is noted and costs its own links alone.
func Add(s *model.Survey, t *syntax.Tree) (notes []model.Note) {
	var found []model.Link
	part := func(what string, fn func() []model.Link) {
		if broken := parallel.Try(func() { found = append(found, fn()...) }); broken != nil {
			notes = append(notes, model.Note{Path: ".", Text: what + " could not be followed: " + broken.Error()})
		}
	}
	part("templates", func() []model.Link { return templateLinks(t) })
	part("components of templates", func() []model.Link { return componentLinks(t) })
	part("routes and requests", func() []model.Link { return routeLinks(s) })
	part("messages", func() []model.Link { return messageLinks(s, Messages(s)) })
	merge(s, found)
	return notes
}

// routeLinks ties routes to what answers them, and requests to routes.
func routeLinks(s *model.Survey) (found []model.Link) {
	all := routes.Of(s)
	for _, r := range all {
		if r.HandlerPath != "" && r.HandlerPath != r.Path {
			found = append(found, model.Link{
				From: r.Path, To: r.HandlerPath, Kind: model.LinkRoute, Line: r.Line,
				Text: r.Method + " " + r.Pattern, Sure: true,
			})
		}
	}
	requests, _ := Requests(s, all)
	for _, q := range requests {
		if q.Route != nil && q.Route.Path != q.Path {
			found = append(found, model.Link{
				From: q.Path, To: q.Route.Path, Kind: model.LinkHTTP, Line: q.Line, Text: q.Text(), Sure: q.Sure,
			})
		}
	}
	return found
}

// merge puts links among those of a survey, which are in order already.
func merge(s *model.Survey, found []model.Link) {
	if len(found) == 0 {
		return
	}
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
	return cmp.Or(
		cmp.Compare(a.From, b.From), cmp.Compare(a.Line, b.Line), cmp.Compare(a.To, b.To),
		cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.Text, b.Text), slices.Compare(a.Names, b.Names),
	)
}
