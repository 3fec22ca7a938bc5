package server

import (
	"context"
	"fmt"
	"net/http"

	"jantel/core/reach"

	"github.com/danielgtaylor/huma/v2"
)

// ReachIn names what reach is asked for: a file or a folder, or the definition that
// holds a line.
type ReachIn struct {
	ViewIn
	Line int `query:"line" minimum:"0" doc:"a line of the definition that is meant; 0 for the whole place"`
}

// registerReach serves what a change at a place may touch, as lists and as a
// picture.
func (s *Server) registerReach(api huma.API) {
	missing := func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} }
	huma.Get(api, "/api/codebases/{id}/reach", func(ctx context.Context, in *ReachIn) (*view[*reach.Reach], error) {
		return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*reach.Reach, error) { return o.reach(in.place(), in.Line) })
	}, missing)
	huma.Get(api, "/api/codebases/{id}/reach/picture", func(ctx context.Context, in *struct {
		ReachIn
		Way string `query:"way" enum:"touched,along" default:"touched" doc:"what a change touches, or what comes along"`
	}) (*view[*reach.ReachPicture], error) {
		return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*reach.ReachPicture, error) {
			return o.reachPicture(in.place(), in.Line, in.Way)
		})
	}, missing)
}

// reach tells what a change at a place may touch.
func (o *judged) reach(place string, line int) (*reach.Reach, error) {
	file := o.facts.File(place) != nil
	if !file && o.Folder(place) == nil {
		return nil, noPlace(place)
	}
	return cached(o, fmt.Sprintf("reach %s:%d", place, line), func() *reach.Reach {
		if file && line > 0 {
			if x, ok := reach.OfDefinition(o.Reading, place, line); ok {
				return x
			}
		}
		return reach.Of(o.Reading, place)
	}), nil
}

// reachPicture draws it.
func (o *judged) reachPicture(place string, line int, way string) (*reach.ReachPicture, error) {
	file := o.facts.File(place) != nil
	if !file && o.Folder(place) == nil {
		return nil, noPlace(place)
	}
	return cached(o, fmt.Sprintf("reach picture %s %s:%d", way, place, line), func() *reach.ReachPicture {
		if file && line > 0 {
			if x, ok := reach.DrawDefinition(o.Reading, place, line, way); ok {
				return x
			}
		}
		return reach.Draw(o.Reading, place, way)
	}), nil
}
