package server

import (
	"context"
	"net/http"

	"jantel/core/calls"
	"jantel/core/model"

	"github.com/danielgtaylor/huma/v2"
)

// OneDefinition is what a definition calls, who calls it, and which tests reach it.
type OneDefinition struct {
	Path     string          `json:"path"`
	Name     string          `json:"name" doc:"qualified; empty for the top of the file"`
	Kind     string          `json:"kind" doc:"empty for the top of the file"`
	Line     int             `json:"line"`
	EndLine  int             `json:"end_line"`
	Calls    []CallEnd       `json:"calls"`
	CalledBy []CallEnd       `json:"called_by"`
	Left     int             `json:"left" doc:"further ends of either sort that are not listed"`
	Tests    []TestOfHandler `json:"tests"`
	Untold   int             `json:"untold" doc:"calls of the whole file that lead nowhere that is known"`
}

// CallEnd is the other end of a link between definitions.
type CallEnd struct {
	Path string `json:"path"`
	Name string `json:"name"`
	Line int    `json:"line" doc:"of the call, or of the definition that is called"`
	At   int    `json:"at" doc:"line of the call"`
	Kind string `json:"kind"`
	Sure bool   `json:"sure"`
}

func (s *Server) registerDefinition(api huma.API) {
	huma.Get(api, "/api/codebases/{id}/definition", func(ctx context.Context, in *struct {
		ViewIn
		Line int `query:"line" required:"true" minimum:"1" doc:"a line that it holds"`
	}) (*view[*OneDefinition], error) {
		return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*OneDefinition, error) {
			d := definitionAt(o, in.place(), in.Line)
			if d == nil {
				return nil, noPlace(in.place())
			}
			return d, nil
		})
	}, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
}

// maxEnds bounds how many ends are listed of one definition; the rest is counted.
const maxEnds = 400

func definitionAt(o *judged, place string, line int) *OneDefinition {
	g := calls.Of(o.facts)
	at, ok := g.AtPath(place, line)
	if !ok {
		return nil
	}
	out := &OneDefinition{Path: place, Name: g.Name(at), Line: 1, Calls: []CallEnd{}, CalledBy: []CallEnd{}}
	out.Untold = g.Untold[place]
	if d := g.Definition(at); d != nil {
		out.Kind, out.Line, out.EndLine = string(d.Kind), d.Line, d.EndLine
	} else {
		out.EndLine = o.facts.File(place).Lines()
	}
	type key struct {
		path, name string
		read       bool
	}
	seen := map[key]bool{}
	add := func(list []CallEnd, r calls.Ref, e calls.Edge, line int) []CallEnd {
		k := key{g.Path(r), g.Name(r), e.Kind == model.CallRead}
		if seen[k] || k.read && seen[key{k.path, k.name, false}] {
			return list
		}
		seen[k] = true
		if len(list) == maxEnds {
			out.Left++
			return list
		}
		return append(list, CallEnd{k.path, k.name, line, int(e.Line), e.Kind.String(), e.Sure})
	}
	for _, e := range g.From(at) {
		begins := 1
		if d := g.Definition(e.To); d != nil {
			begins = d.Line
		}
		out.Calls = add(out.Calls, e.To, e, begins)
	}
	clear(seen)
	for _, e := range g.To(at) {
		out.CalledBy = add(out.CalledBy, e.From, e, int(e.Line))
	}
	out.Tests = o.testsOf(place, out.Name)
	return out
}
