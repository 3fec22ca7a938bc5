package server

import (
	"context"
	"net/http"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/routes"

	"github.com/danielgtaylor/huma/v2"
)

// Tried is what would change if a route had another method and pattern.
type Tried struct {
	Changes []TriedChange `json:"changes" doc:"the first 200 of them"`
	Of      int           `json:"of" doc:"routes of the same application, which alone are asked"`
}

// TriedChange is an address that something else would answer.
type TriedChange struct {
	Method  string      `json:"method"`
	Address string      `json:"address" doc:"made up: what stands for any value is filled in"`
	Now     *TriedRoute `json:"now" doc:"what answers it; nothing where it is left out"`
	Then    *TriedRoute `json:"then"`
}

// TriedRoute is a route that answers an address.
type TriedRoute struct {
	Method  string `json:"method"`
	Pattern string `json:"pattern" doc:"as it stands today"`
	Path    string `json:"path"`
	Line    int    `json:"line"`
	Tried   bool   `json:"tried" doc:"the one that is changed"`
}

// TryIn names a route, and what it is tried with.
type TryIn struct {
	ViewIn
	Line    int    `query:"line" required:"true" doc:"where the route is declared in the file it is asked at"`
	Method  string `query:"method" required:"true"`
	Pattern string `query:"pattern" required:"true"`
	To      string `query:"to" required:"true" maxLength:"400" doc:"the pattern that is tried; a method may stand before it"`
}

// otherwise tells which addresses would be answered otherwise.
func (s *Server) otherwise(ctx context.Context, in *TryIn) (*view[*Tried], error) {
	return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*Tried, error) {
		method, to, spaced := strings.Cut(strings.TrimSpace(in.To), " ")
		if !spaced {
			method, to = in.Method, method
		}
		if to = strings.TrimSpace(to); !strings.HasPrefix(to, "/") {
			return nil, huma.NewError(http.StatusUnprocessableEntity, "a pattern begins with a slash: /lots/{id}")
		}
		app, which := sameApp(o, in)
		if which < 0 {
			return nil, huma.Error404NotFound("no such route is declared in " + in.place())
		}
		out := &Tried{Changes: []TriedChange{}, Of: len(app)}
		told := func(i int) *TriedRoute {
			if i < 0 {
				return nil
			}
			return &TriedRoute{app[i].Method, app[i].Pattern, app[i].Path, app[i].Line, i == which}
		}
		for _, x := range routes.Otherwise(app, which, strings.ToUpper(method), to) {
			out.Changes = append(out.Changes, TriedChange{x.Method, x.Address, told(x.Now), told(x.Then)})
		}
		return out, nil
	})
}

// sameApp are the routes that hang below the same head as one, and its place among
// them; -1 where it is not there. Where the most exact answers, they are those of
// the same module.
func sameApp(o *judged, in *TryIn) (app []model.Route, which int) {
	all := allRoutes(o)
	of := slices.IndexFunc(all, func(r model.Route) bool {
		return r.Path == in.place() && r.Line == in.Line && r.Method == in.Method && r.Pattern == in.Pattern
	})
	if of < 0 {
		return nil, -1
	}
	one := all[of]
	for i := range all {
		r := &all[i]
		if o.Reading.IsTest(r.Path) != o.Reading.IsTest(one.Path) {
			continue
		}
		if r.App == one.App || o.module(r.Path) == o.module(one.Path) {
			if i == of {
				which = len(app)
			}
			app = append(app, *r)
		}
	}
	return app, which
}
