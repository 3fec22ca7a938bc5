package server

import (
	"cmp"
	"context"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"jantel/core/model"
	"jantel/core/parts"
	"jantel/core/reach"
	"jantel/report"
)

// handOuts are the files that are made of one thing at a place: a way, a part, what
// is reached. Each says what it is about by the query; what is not there is an error.
var handOuts = map[string]struct {
	kind  string
	write func(ctx context.Context, s *Server, o *judged, q url.Values, w io.Writer) error
}{
	"journey.svg": {"image/svg+xml", handStrip},
	"reach.svg":   {"image/svg+xml", handReach},
	"reach.md":    {"text/markdown; charset=utf-8", handReachText},
	"part.svg": {"image/svg+xml", func(ctx context.Context, s *Server, o *judged, q url.Values, w io.Writer) error {
		return handPart(ctx, s, o, q, w, report.PartSVG)
	}},
	"part.md": {"text/markdown; charset=utf-8", func(ctx context.Context, s *Server, o *judged, q url.Values, w io.Writer) error {
		return handPart(ctx, s, o, q, w, report.PartMarkdown)
	}},
}

// status is what an error of a hand-out answers with.
func status(err error) int {
	if e, ok := err.(interface{ GetStatus() int }); ok {
		return e.GetStatus()
	}
	return http.StatusInternalServerError
}

func handStrip(ctx context.Context, s *Server, o *judged, q url.Values, w io.Writer) error {
	line, _ := strconv.Atoi(q.Get("line"))
	way := s.wayOf(ctx, o, cmp.Or(q.Get("at"), "."), line, q.Get("method"), q.Get("pattern"))
	if way == nil {
		return noPlace("a route " + q.Get("method") + " " + q.Get("pattern") + " in " + q.Get("at"))
	}
	x := report.Strip{Title: way.Method + " " + way.Pattern, Source: report.Source(o.facts)}
	for _, r := range way.Around {
		x.Before = append(x.Before, fmt.Sprintf("%s: %s (%s:%d)", r.When, cmp.Or(r.Name, "written in place"), r.Path, r.Line))
	}
	for _, g := range way.Guards {
		if !slices.ContainsFunc(way.Around, func(r model.RouteInsert) bool { return r.Name == g }) {
			x.Before = append(x.Before, "at the route: "+g)
		}
	}
	if way.Broken != "" {
		x.Ends = append(x.Ends, "It can not be followed: "+way.Broken+".")
	}
	for _, st := range way.Stops {
		stop := report.StripStop{
			Name: cmp.Or(st.Name, "the top of the file"), Role: string(st.Role), Where: fmt.Sprintf("%s:%d", st.Path, cmp.Or(st.At, st.Line)),
			First: st.First, At: st.At, Lines: st.Lines, Likely: st.Tie == "likely",
		}
		if st.Bounds != "" {
			stop.Notes = append(stop.Notes, "all of it or nothing: "+st.Bounds)
		}
		stop.Notes = append(stop.Notes, faultNotes(st.Faults)...)
		x.Stops = append(x.Stops, stop)
	}
	for _, e := range way.Ends {
		x.Ends = append(x.Ends, "It "+e+".")
	}
	return report.StripSVG(w, &x)
}

// faultNotes say what becomes of faults at a stop: the same at several lines once.
func faultNotes(faults []FaultHere) (notes []string) {
	lines := map[string][]string{}
	for _, f := range faults {
		text := faultVerbs[f.What] + " " + cmp.Or(f.Name, "a fault")
		if lines[text] == nil {
			notes = append(notes, text)
		}
		lines[text] = append(lines[text], strconv.Itoa(f.Line))
	}
	for i, text := range notes {
		word := ", line "
		if len(lines[text]) > 1 {
			word = ", lines "
		}
		notes[i] = text + word + strings.Join(lines[text], ", ")
	}
	return notes
}

var faultVerbs = map[string]string{"raise": "raises", "turn": "turns it into", "swallow": "swallows"}

// reachTitles say what is drawn.
var reachTitles = map[string]string{reach.Touched: "What a change may touch: ", reach.Along: "What comes along: "}

func handReach(_ context.Context, _ *Server, o *judged, q url.Values, w io.Writer) error {
	line, _ := strconv.Atoi(q.Get("line"))
	place := cmp.Or(q.Get("at"), ".")
	way := cmp.Or(q.Get("way"), reach.Touched)
	if reachTitles[way] == "" {
		way = reach.Touched
	}
	x, err := o.reachPicture(place, line, way)
	if err != nil {
		return err
	}
	return report.ReachSVG(w, x, reachTitles[way]+report.PlaceName(place), report.Source(o.facts))
}

func handReachText(_ context.Context, _ *Server, o *judged, q url.Values, w io.Writer) error {
	line, _ := strconv.Atoi(q.Get("line"))
	place := cmp.Or(q.Get("at"), ".")
	x, err := o.reach(place, line)
	if err != nil {
		return err
	}
	if line > 0 {
		place = fmt.Sprintf("%s:%d", place, line)
	}
	return report.ReachMarkdown(w, x, place)
}

func handPart(
	ctx context.Context, s *Server, o *judged, q url.Values, w io.Writer, write func(io.Writer, *report.PartSheet) error,
) error {
	p, x, err := s.opened(ctx, o, cmp.Or(q.Get("at"), "."), q.Get("name"))
	if err != nil {
		return err
	}
	sheet := report.PartSheet{
		Title: x.Name, Path: x.Path, Line: p.Line, Head: x.Head, Jobs: x.Jobs, Left: x.Left, Source: report.Source(o.facts),
		Users: endLines(x.Users), Uses: endLines(x.Uses), Duties: dutyLines(p),
	}
	for _, m := range x.Members {
		sheet.Members = append(sheet.Members, report.PartLine{Name: m.Name, Path: x.Path, Line: m.Line, Count: m.EndLine - m.Line + 1})
	}
	for _, t := range x.Twins {
		sheet.Twins = append(sheet.Twins, report.PartLine{Name: t.Name, Path: t.Path, Line: t.Line})
	}
	for _, t := range x.Tests {
		sheet.Tests = append(sheet.Tests, report.PartLine{Path: t.Path})
	}
	return write(w, &sheet)
}

func dutyLines(p *parts.Part) (out []report.PartLine) {
	for _, d := range p.Duties {
		out = append(out, report.PartLine{Name: d.Name, Path: p.Path, Line: d.Line, Count: d.Count})
	}
	return out
}

func endLines(all []CallEnd) (out []report.PartLine) {
	for _, e := range all {
		out = append(out, report.PartLine{Name: cmp.Or(e.Name, "the top of the file"), Path: e.Path, Line: e.Line})
	}
	return out
}
