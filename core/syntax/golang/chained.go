package golang

import (
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// Some routers tell a route by a chain of calls, in whatever order:
//
//	r.HandleFunc("/lots", list).Methods(http.MethodGet).Name("lots")
//	r.Methods("POST").Path("/lots").HandlerFunc(keep)
//	below := r.PathPrefix("/vault").Subrouter()

// chained is a chain of calls, with what each is handed by its name.
type chained struct {
	on    string // what the first is called on
	first int    // the token that the chain begins with
	calls map[string][][2]int
}

// chainOf reads the chain that the call at i is one of.
func chainOf(s *syntax.Stream, i int) chained {
	c := chained{calls: map[string][][2]int{}}
	for s.Match(i-2, ")", ".") {
		open := int(s.Tokens[i-2].Match)
		if open < 1 || !s.IsIdent(open-1) {
			break
		}
		i = open - 1
	}
	c.first = i
	if s.Match(i-2, syntax.Name, ".") {
		c.on, c.first = s.Dotted(i - 2)
	}
	for s.Match(i, syntax.Name, "(") {
		c.calls[s.Text(i)] = s.Args(i + 1)
		if i = s.Close(i+1) + 1; !s.Is(i, ".") {
			break
		}
		i++
	}
	return c
}

// methods are those that the chain limits its route to; ANY where it does not.
func (c chained) methods(s *syntax.Stream) []string {
	var out []string
	for _, a := range c.calls["Methods"] {
		last := a[1] - 1
		m := s.Text(last) // http.MethodGet
		if s.Kind(last) == syntax.String {
			m = s.Unquote(last)
		}
		if m = strings.ToUpper(strings.TrimPrefix(m, "Method")); isMethod(m) && !slices.Contains(out, m) {
			out = append(out, m)
		}
	}
	if len(out) == 0 {
		return []string{"ANY"}
	}
	return out
}

// name is what the chain calls its route.
func (c chained) name(s *syntax.Stream) string {
	if a := c.calls["Name"]; len(a) == 1 && s.Kind(a[0][0]) == syntax.String {
		return s.Unquote(a[0][0])
	}
	return ""
}

// answers is what answers the route of the chain.
func (c chained) answers() (a [2]int, ok bool) {
	for _, word := range []string{"HandlerFunc", "Handler"} {
		if args := c.calls[word]; len(args) == 1 {
			return args[0], true
		}
	}
	return a, false
}

// chainedPath reads a chain that tells its path by itself.
func (r *reader) chainedPath(c routeCall) {
	s := r.s
	chain := chainOf(s, c.at)
	if !strings.HasPrefix(c.path, "/") {
		return
	}
	path := c.path
	if c.word == "PathPrefix" {
		if _, ok := chain.calls["Subrouter"]; ok {
			if v := givenTo(s, chain.first); v != "" && v != chain.on {
				r.f.Mounts = append(r.f.Mounts, model.MountFact{On: chain.on, Path: path, Target: v, Line: s.Line(c.at)})
			}
			return
		}
		path = strings.TrimSuffix(path, "/") + "/*"
	}
	if a, ok := chain.answers(); ok {
		c.on, c.args = chain.on, append(c.args, a)
		r.routeBy(chain, c, path)
	}
}

// routeBy keeps a route with what its chain says of it.
func (r *reader) routeBy(chain chained, c routeCall, path string) {
	for _, m := range chain.methods(r.s) {
		r.route(c, m, path)
		r.f.Routes[len(r.f.Routes)-1].Name = chain.name(r.s)
	}
}
