package server

import (
	"context"
	"net/http"
	"strings"

	"jantel/core/calls"
	"jantel/core/journeys"
	"jantel/core/model"

	"github.com/danielgtaylor/huma/v2"
)

// Way is a journey with the code around each of its stops.
type Way struct {
	Method     string          `json:"method"`
	Pattern    string          `json:"pattern"`
	Guards     []string        `json:"guards" doc:"what is asked before it answers, in order"`
	Guarded    int             `json:"guarded" doc:"of the other routes of its file, how many ask something"`
	Beside     int             `json:"beside" doc:"how many other routes its file declares"`
	Broken     string          `json:"broken" doc:"why it could not be followed, empty where it was"`
	Stops      []Stop          `json:"stops"`
	Others     int             `json:"others" doc:"further definitions that it reaches"`
	Skipped    []model.Role    `json:"skipped" doc:"what most routes beside it come through and it does not"`
	Operations []WayOperation  `json:"operations"`
	Ends       []string        `json:"ends"`
	Tests      []TestOfHandler `json:"tests" doc:"those that reach what answers, the nearest first"`
	// Around is what runs before, around and after what answers, in running order.
	Around []model.RouteInsert `json:"around"`
	Checks []string            `json:"checks" doc:"what looks at what is sent, as far as it is told"`
}

// Stop is a definition on the way, with some lines of it.
type Stop struct {
	Path  string     `json:"path"`
	Name  string     `json:"name"`
	Line  int        `json:"line" doc:"where it begins"`
	Role  model.Role `json:"role"`
	Tie   model.Tie  `json:"tie"`
	At    int        `json:"at" doc:"the line that leads on, or that does what the way is for; 0 where neither is told"`
	First int        `json:"first" doc:"number of the first line shown"`
	Lines []string   `json:"lines"`
	// Bounds is what makes a transaction of it; empty where nothing does.
	Bounds string      `json:"bounds"`
	Faults []FaultHere `json:"faults" doc:"what it raises, turns into another fault or swallows"`
}

// FaultHere is a fault that a stop raises, or what becomes of one there.
type FaultHere struct {
	What string `json:"what" enum:"raise,turn,swallow"`
	Name string `json:"name" doc:"its class, or the number that is answered; empty where it is not told"`
	Line int    `json:"line"`
}

// WayOperation is what a journey does to something that is kept.
type WayOperation struct {
	Entity string `json:"entity"`
	What   string `json:"what"`
	Path   string `json:"path"`
	Line   int    `json:"line"`
}

// TestOfHandler is a test that reaches what answers a route.
type TestOfHandler struct {
	Path     string `json:"path"`
	Kind     string `json:"kind"`
	Distance int    `json:"distance" doc:"over how many calls"`
}

// Lines shown of a stop: some before the one that leads on, and some behind.
const (
	linesBefore = 4
	linesBehind = 5
	maxLine     = 400 // bytes of one
)

func (s *Server) registerJourneys(api huma.API) {
	huma.Get(api, "/api/codebases/{id}/journey", s.journey, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
}

// journey follows one route from what answers it to what is kept.
func (s *Server) journey(ctx context.Context, in *struct {
	ViewIn
	Line    int    `query:"line" required:"true" doc:"where the route is declared in the file it is asked at"`
	Method  string `query:"method" required:"true"`
	Pattern string `query:"pattern" required:"true"`
}) (*view[*Way], error) {
	return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*Way, error) {
		if w := s.wayOf(ctx, o, in.place(), in.Line, in.Method, in.Pattern); w != nil {
			return w, nil
		}
		return nil, huma.Error404NotFound("no such route is declared in " + in.place())
	})
}

// wayOf is the way of the route that is declared at a line; nil where none is.
func (s *Server) wayOf(ctx context.Context, o *judged, place string, line int, method, pattern string) *Way {
	for _, j := range o.journeys() {
		if r := j.Route; r != nil && r.Path == place && r.Line == line && r.Method == method && r.Pattern == pattern {
			return s.way(ctx, o, &j)
		}
	}
	// Those of tests are followed when somebody asks for one.
	singly := cached(o, "journeys singly", func() *journeys.Singly { return journeys.NewSingly(o.Reading) })
	if j := singly.Of(func(r model.Route) bool {
		return r.Path == place && r.Line == line && r.Method == method && r.Pattern == pattern
	}); j != nil {
		return s.way(ctx, o, j)
	}
	return nil
}

// journeys are all of a survey.
func (o *judged) journeys() []model.Journey {
	return cached(o, "journeys", func() []model.Journey { return journeys.Of(o.Reading, o.Entries) })
}

// testedBy are the tests that reach a definition, by its path and name.
func (o *judged) testedBy() map[[2]string][]model.TestReach {
	return cached(o, "tested by", func() map[[2]string][]model.TestReach {
		out := map[[2]string][]model.TestReach{}
		for _, t := range journeys.TestedBy(o.Reading) {
			out[[2]string{t.Path, t.Name}] = t.Tests
		}
		return out
	})
}

// testsOf are the tests that reach a definition, the nearest first.
func (o *judged) testsOf(path, name string) []TestOfHandler {
	out := []TestOfHandler{}
	for _, t := range o.testedBy()[[2]string{path, name}] {
		out = append(out, TestOfHandler{t.Path, t.Kind, t.Distance})
	}
	return out
}

func (s *Server) way(ctx context.Context, o *judged, j *model.Journey) *Way {
	w := &Way{
		Method: j.Route.Method, Pattern: j.Route.Pattern, Guards: append([]string{}, j.Route.Guards...),
		Broken: j.Broken, Others: j.Others, Ends: append([]string{}, j.Ends...),
		Skipped: append([]model.Role{}, j.Skipped...), Stops: []Stop{}, Operations: []WayOperation{}, Tests: []TestOfHandler{},
		Around: append([]model.RouteInsert{}, j.Route.Around...), Checks: append([]string{}, j.Route.Checks...),
	}
	for _, other := range o.journeys() {
		if r := other.Route; r != nil && r.Path == j.Route.Path && r.Line != j.Route.Line {
			w.Beside++
			if len(r.Guards) > 0 {
				w.Guarded++
			}
		}
	}
	for _, op := range j.Operations {
		w.Operations = append(w.Operations, WayOperation{op.Entity, op.What, op.Path, op.Line})
	}
	for i, st := range j.Stops {
		at := 0
		if i+1 < len(j.Stops) {
			at = j.Stops[i+1].From
		} else {
			at = endsAt(o, j, &st)
		}
		stop := Stop{
			Path: st.Path, Name: st.Name, Line: st.Line, Role: st.Role, Tie: st.Tie, At: at, Lines: []string{},
			Bounds: st.Bounds, Faults: []FaultHere{},
		}
		for _, x := range st.Faults {
			stop.Faults = append(stop.Faults, FaultHere{x.What, x.Name, x.Line})
		}
		stop.First, stop.Lines = s.around(ctx, o, &st, at)
		w.Stops = append(w.Stops, stop)
	}
	if len(j.Stops) > 0 {
		w.Tests = o.testsOf(j.Stops[0].Path, j.Stops[0].Name)
	}
	return w
}

// endsAt is the line of the last stop that does what the way is for.
func endsAt(o *judged, j *model.Journey, last *model.JourneyStop) int {
	for _, op := range j.Operations {
		if op.Path == last.Path && op.Line >= last.Line && op.Line <= endOf(o, last) {
			return op.Line
		}
	}
	return 0
}

// endOf is the last line of the definition that a stop is.
func endOf(o *judged, st *model.JourneyStop) int {
	g := calls.Of(o.facts)
	if at, ok := g.AtPath(st.Path, max(st.Line, 1)); ok {
		if d := g.Definition(at); d != nil {
			return d.EndLine
		}
	}
	return 1 << 30
}

// around are the lines of a stop around the one that leads on; from its first
// where none does. Beyond the definition nothing is shown.
func (s *Server) around(ctx context.Context, o *judged, st *model.JourneyStop, at int) (first int, lines []string) {
	lines = []string{}
	all := s.linesOf(ctx, o, st.Path)
	if all == nil {
		return 0, lines // it is not kept any more; the way itself is known all the same
	}
	begins := max(st.Line, 1)
	first = begins
	last := begins + linesBefore + linesBehind
	if at > 0 {
		first, last = max(begins, at-linesBefore), at+linesBehind
	}
	last = min(last, endOf(o, st), len(all))
	for i := first; i <= last; i++ {
		l := all[i-1]
		if len(l) > maxLine {
			l = l[:maxLine] + " …"
		}
		lines = append(lines, strings.ToValidUTF8(l, "\uFFFD"))
	}
	return first, lines
}
