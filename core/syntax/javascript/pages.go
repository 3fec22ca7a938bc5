package javascript

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// shown are the keys that say what a route of pages shows.
var shown = syntax.Set("component", "Component", "element", "loadComponent", "loadChildren", "lazy", "redirectTo")

// pages finds the routes of front ends: elements named Route with a path, and
// lists of objects with a path and what is shown there, one within another.
func (r *reader) pages() {
	s := r.s
	type open struct {
		last   int
		prefix string
	}
	var elements []open
	for i := 0; i < s.Len(); i++ {
		for n := len(elements); n > 0 && i > elements[n-1].last; n-- {
			elements = elements[:n-1]
		}
		switch {
		case s.Kind(i) == syntax.TagOpen && s.Is(i+1, "Route"):
			prefix := ""
			if n := len(elements); n > 0 {
				prefix = elements[n-1].prefix
			}
			path, shows, has, last := r.routeElement(i + 2)
			full := prefix
			if has && path != "" {
				full = syntax.JoinRoute(prefix, path)
				if strings.HasPrefix(path, "/") {
					full = syntax.JoinRoute("", path)
				}
			}
			if (has || r.attribute(i+2, last, "index")) && shows != "" {
				r.f.Routes = append(r.f.Routes, model.RouteFact{Method: "GET", Pattern: syntax.JoinRoute("", full), Line: s.Line(i), Handler: shows})
			}
			if end := s.Close(i); end > last {
				elements = append(elements, open{end, full})
			}
		case s.Is(i, "{") && s.Close(i) > i && len(elements) == 0:
			if r.routeObject(i, "") {
				i = s.Close(i)
			}
		}
	}
}

// routeElement reads the attributes of a route up to the sign that ends its
// head.
func (r *reader) routeElement(i int) (path, shows string, has bool, last int) {
	s := r.s
	for ; i < s.Len(); i++ {
		switch {
		case s.Is(i, "{"):
			i = s.Close(i)
		case s.Kind(i) == syntax.TagEnd || s.Is(i, ">") || s.Is(i, "/>"):
			return path, shows, has, i
		case s.Is(i, "path") && s.Is(i+1, "="):
			if s.Kind(i+2) == syntax.String {
				path, has = s.Unquote(i+2), true
			} else if s.Is(i+2, "{") && s.Kind(i+3) == syntax.String {
				path, has = s.Unquote(i+3), true
			}
		case shown[s.Text(i)] && s.Is(i+1, "=") && s.Is(i+2, "{"):
			shows = r.shows(i+3, s.Close(i+2))
		}
	}
	return path, shows, has, s.Len() - 1
}

// attribute reports whether a bare attribute stands between two tokens.
func (r *reader) attribute(i, end int, name string) bool {
	for ; i < end; i++ {
		if r.s.Is(i, name) && !r.s.Is(i+1, "=") {
			return true
		}
		i = r.s.Close(i)
	}
	return false
}

// shows is the component that a range of tokens names: <Page/>, Page, or
// () => import("./page").
func (r *reader) shows(i, end int) string {
	s := r.s
	for k := i; k < end; k++ {
		if s.Kind(k) == syntax.TagOpen && s.IsIdent(k+1) {
			return s.Text(k + 1)
		}
		if s.IsIdent(k) {
			if w := s.Text(k); w[0] >= 'A' && w[0] <= 'Z' {
				return w
			}
		}
		if s.Is(k, "import") && s.Is(k+1, "(") && s.Kind(k+2) == syntax.String {
			return "module:" + s.Unquote(k+2)
		}
	}
	return ""
}

// routeObject reads { path: "…", component: …, children: […] }; it reports
// whether the object was one.
func (r *reader) routeObject(open int, prefix string) bool {
	s := r.s
	path, shows, lazily := "", "", ""
	has, index := false, false
	children := -1
	for _, a := range s.Args(open) {
		if !s.IsIdent(a[0]) && s.Kind(a[0]) != syntax.String || !s.Is(a[0]+1, ":") {
			continue
		}
		switch key := s.Unquote(a[0]); {
		case key == "path" && s.Kind(a[0]+2) == syntax.String && a[1] == a[0]+3:
			path, has = s.Unquote(a[0]+2), true
		case key == "index" && s.Is(a[0]+2, "true"):
			index = true
		case key == "redirectTo":
			shows = "redirect"
		case key == "loadChildren":
			// The routes of another file stand below this one.
			if lazily = r.shows(a[0]+2, a[1]); !strings.HasPrefix(lazily, "module:") {
				shows, lazily = lazily, ""
			}
		case shown[key]:
			if shows = r.shows(a[0]+2, a[1]); shows == "" {
				shows = key
			}
		case key == "children" && s.Is(a[0]+2, "["):
			children = a[0] + 2
		}
	}
	if !(has || index) || shows == "" && children < 0 && lazily == "" {
		return false
	}
	full := syntax.JoinRoute(prefix, path)
	if strings.HasPrefix(path, "/") {
		full = syntax.JoinRoute("", path)
	}
	if lazily != "" {
		r.f.Mounts = append(r.f.Mounts, model.MountFact{Path: full, Target: lazily, Line: s.Line(open)})
	}
	if shows != "" {
		r.f.Routes = append(r.f.Routes, model.RouteFact{Method: "GET", Pattern: full, Line: s.Line(open), Handler: strings.TrimPrefix(shows, "redirect")})
	}
	if children >= 0 {
		for k := children + 1; k < s.Close(children); k = s.Close(k) + 1 {
			if s.Is(k, "{") {
				r.routeObject(k, full)
			}
		}
	}
	return true
}
