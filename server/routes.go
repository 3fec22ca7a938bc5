package server

import (
	"context"
	"strings"

	"jantel/core/model"
	"jantel/core/relations"
	"jantel/core/routes"
)

// RouteRow is a route as the list has it.
type RouteRow struct {
	model.Route
	InTests bool     `json:"in_tests" doc:"a test declares it"`
	Calls   int      `json:"calls" doc:"requests in the codebase that lead to it"`
	Writes  []string `json:"writes" doc:"what it changes though it answers GET, where that is asked for"`
	// Around is told with the way of one; here it would be said anew at each.
	Around int `json:"around" doc:"how much runs around it without being named at the route"`
}

// Contract is what a system answers: its routes, and what they are about.
type Contract struct {
	Routes    []RouteRow        `json:"routes" doc:"those that tests declare last; of a typed address in the order in which they are tried"`
	Tests     int               `json:"tests" doc:"how many of them tests declare"`
	Resources []routes.Resource `json:"resources" doc:"of the routes that no test declares"`
	Off       []OffRow          `json:"off" doc:"routes, and routers put below a path, that a comment switches off"`
}

// OffRow is a route that stands in a comment.
type OffRow struct {
	Method  string `json:"method" doc:"empty where a router is put below the path"`
	Pattern string `json:"pattern"`
	Path    string `json:"path"`
	Line    int    `json:"line"`
}

// offAt are the routes at a place that a comment switches off.
func offAt(o *judged, place string) []OffRow {
	out := []OffRow{}
	for f := range o.Reading.Own(place) {
		if o.Reading.IsTest(f.Path) {
			continue
		}
		for _, r := range f.Facts.OffRoutes {
			out = append(out, OffRow{r.Method, r.Pattern, f.Path, r.Line})
		}
	}
	return out
}

// routesView lists the routes that are declared or answered at a place, or those
// that would answer a typed address, the one that answers first.
func (s *Server) routesView(ctx context.Context, in *struct {
	ViewIn
	Typed string `query:"path" doc:"only routes that answer this address; a method may stand before it"`
	Full  bool   `query:"full" doc:"what routes change that answer GET as well"`
}) (*view[*Contract], error) {
	return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*Contract, error) {
		all := routesAt(o, in.place())
		method, typed, spaced := strings.Cut(strings.TrimSpace(in.Typed), " ")
		if !spaced {
			method, typed = "", method
		}
		if typed = strings.TrimSpace(typed); typed != "" {
			all = answering(all, strings.ToUpper(method), typed)
		}
		if in.Full {
			all = writing(o, all)
		}
		return all, nil
	})
}

// allRoutes are those of the whole codebase.
func allRoutes(o *judged) []model.Route {
	return cached(o, "routes", func() []model.Route { return routes.Of(o.facts) })
}

func routesAt(o *judged, place string) *Contract {
	return cached(o, "contract "+place, func() *Contract {
		all := allRoutes(o)
		calls := map[[3]string]int{}
		own, _ := relations.Requests(o.facts, all)
		for _, q := range own {
			if q.Route != nil {
				calls[routeKey(q.Route)]++
			}
		}
		out := &Contract{Routes: []RouteRow{}, Off: offAt(o, place)}
		var tests []RouteRow
		var plain []model.Route
		for i := range all {
			r := &all[i]
			if !model.Within(place, r.Path) && (r.HandlerPath == "" || !model.Within(place, r.HandlerPath)) {
				continue
			}
			row := RouteRow{Route: *r, InTests: o.Reading.IsTest(r.Path), Calls: calls[routeKey(r)], Writes: []string{}, Around: len(r.Around)}
			row.Route.Around = nil
			if row.InTests {
				tests = append(tests, row)
				continue
			}
			out.Routes = append(out.Routes, row)
			plain = append(plain, *r)
		}
		out.Tests = len(tests)
		out.Resources = routes.Resources(plain, o.module)
		for i := range out.Resources {
			x := &out.Resources[i]
			for _, said := range o.Said {
				if said.Kind == model.OverruleGap && said.Target == x.In+"\t"+x.Pattern {
					x.Purpose = said.Value
				}
			}
		}
		out.Routes = append(out.Routes, tests...)
		return out
	})
}

func routeKey(r *model.Route) [3]string { return [3]string{r.Method, r.Pattern, r.Path} }

// answering are the routes that fit an address, in the order in which they are
// tried.
func answering(all *Contract, method, typed string) *Contract {
	plain := make([]model.Route, len(all.Routes))
	for i := range all.Routes {
		plain[i] = all.Routes[i].Route
	}
	out := &Contract{Routes: []RouteRow{}, Resources: []routes.Resource{}, Off: []OffRow{}}
	var tests []RouteRow
	for _, i := range routes.Answering(plain, method, typed) {
		if row := all.Routes[i]; row.InTests {
			tests = append(tests, row)
		} else {
			out.Routes = append(out.Routes, row)
		}
	}
	out.Tests = len(tests)
	out.Routes = append(out.Routes, tests...)
	return out
}

// writing adds what routes change that answer GET.
func writing(o *judged, all *Contract) *Contract {
	changes := cached(o, "changed by GET", func() map[[3]string][]string {
		by := map[[3]string][]string{}
		for _, j := range o.journeys() {
			if j.Route == nil || j.Route.Method != "GET" {
				continue
			}
			seen := map[string]bool{}
			for _, op := range j.Operations {
				if text := op.What + "s " + op.Entity; op.What != "read" && !seen[text] {
					seen[text] = true
					by[routeKey(j.Route)] = append(by[routeKey(j.Route)], text)
				}
			}
		}
		return by
	})
	out := *all
	out.Routes = make([]RouteRow, len(all.Routes))
	for i, row := range all.Routes {
		if w := changes[routeKey(&row.Route)]; len(w) > 0 {
			row.Writes = w
		}
		out.Routes[i] = row
	}
	return &out
}
