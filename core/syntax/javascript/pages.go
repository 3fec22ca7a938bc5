package javascript

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// pageKeys are the keys that say what a route of pages shows.
var pageKeys = syntax.Set("component", "Component", "element", "loadComponent", "loadChildren", "lazy", "redirectTo")

// pages finds the routes of front ends: elements named Route with a path, and
// lists of objects with a path and what is shown there, one within another.
func (r *reader) pages() {
	s := r.s
	type openTag struct {
		last   int
		prefix string
	}
	var elements []openTag
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
				r.f.Routes = append(r.f.Routes, model.RouteFact{
					Method: "GET", Pattern: syntax.JoinRoute("", full), Line: s.Line(i), Handler: shows,
				})
			}
			if end := s.Close(i); end > last {
				elements = append(elements, openTag{end, full})
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
		case s.Kind(i) == syntax.TagEnd || s.Any(i, ">", "/>"):
			return path, shows, has, i
		case s.Match(i, "path", "="):
			if s.Kind(i+2) == syntax.String {
				path, has = s.Unquote(i+2), true
			} else if s.Match(i+2, "{", syntax.Quoted) {
				path, has = s.Unquote(i+3), true
			}
		case pageKeys[s.Text(i)] && s.Match(i+1, "=", "{"):
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
		if s.Match(k, "import", "(", syntax.Quoted) {
			return "module:" + s.Unquote(k+2)
		}
	}
	return ""
}

// routeObject reads { path: "…", component: …, children: […] }; it reports
// whether the object was one.
func (r *reader) routeObject(open int, prefix string) bool {
	s := r.s
	o := pageRoute{children: -1}
	for _, a := range s.Args(open) {
		if s.Any(a[0], syntax.Name, syntax.Quoted) && s.Is(a[0]+1, ":") {
			r.pageKey(&o, a)
		}
	}
	if !o.placed || o.shows == "" && o.children < 0 && o.lazily == "" {
		return false
	}
	full := syntax.JoinRoute(prefix, o.path)
	if strings.HasPrefix(o.path, "/") {
		full = syntax.JoinRoute("", o.path)
	}
	if o.lazily != "" {
		r.f.Mounts = append(r.f.Mounts, model.MountFact{Path: full, Target: o.lazily, Line: s.Line(open)})
	}
	if o.shows != "" {
		handler := strings.TrimPrefix(o.shows, "redirect")
		r.f.Routes = append(r.f.Routes, model.RouteFact{Method: "GET", Pattern: full, Line: s.Line(open), Handler: handler})
	}
	if o.children < 0 {
		return true
	}
	for k := o.children + 1; k < s.Close(o.children); k = s.Close(k) + 1 {
		if s.Is(k, "{") {
			r.routeObject(k, full)
		}
	}
	return true
}

// pageRoute is what an object says of the page at an address.
type pageRoute struct {
	path     string
	placed   bool   // it has a path, or is the index of what is around it
	shows    string // what is drawn there
	lazily   string // the file whose routes stand below
	children int    // where the list of those below opens, -1 without
}

// pageKey reads one key of such an object.
func (r *reader) pageKey(o *pageRoute, a [2]int) {
	s, value := r.s, a[0]+2
	switch key := s.Unquote(a[0]); {
	case key == "path" && s.Kind(value) == syntax.String && a[1] == value+1:
		o.path, o.placed = s.Unquote(value), true
	case key == "index" && s.Is(value, "true"):
		o.placed = true
	case key == "redirectTo":
		o.shows = "redirect"
	case key == "loadChildren":
		if o.lazily = r.shows(value, a[1]); !strings.HasPrefix(o.lazily, "module:") {
			o.shows, o.lazily = o.lazily, ""
		}
	case pageKeys[key]:
		if o.shows = r.shows(value, a[1]); o.shows == "" {
			o.shows = key
		}
	case key == "children" && s.Is(value, "["):
		o.children = value
	}
}
