package relations

import (
	"sort"
	"strings"

	"jantel/core/model"
)

// Request is a request that the code sends, with the route of the codebase
// that answers it.
type Request struct {
	model.CallFact
	Path  string
	Route *model.Route // nil where none was found
	Sure  bool         // the whole path fits, and the method
}

// Text is the request as a line.
func (q Request) Text() string {
	if q.Method == "" {
		return q.Pattern
	}
	return q.Method + " " + q.Pattern
}

// Requests lists what the code sends over HTTP to paths that may be its own,
// by file and line, and what it sends to other systems, by host.
func Requests(s *model.Survey, all []model.Route) (own []Request, abroad map[string][]model.Evidence) {
	x := newMatcher(all)
	abroad = map[string][]model.Evidence{}
	for _, f := range s.Files {
		if f.Facts == nil {
			continue
		}
		for _, c := range f.Facts.Calls {
			if c.Host != "" {
				abroad[c.Host] = append(abroad[c.Host], model.Evidence{Path: f.Path, Line: c.Line, Note: c.Method + " " + c.Pattern})
				continue
			}
			q := Request{CallFact: c, Path: f.Path}
			q.Route, q.Sure = x.find(c)
			own = append(own, q)
		}
	}
	return own, abroad
}

// matcher finds routes for paths.
type matcher struct {
	routes []model.Route
	parts  [][]string
	last   map[string][]int // last literal part to routes
}

func newMatcher(all []model.Route) *matcher {
	x := &matcher{routes: all, last: map[string][]int{}}
	for i, r := range all {
		p := split(r.Pattern)
		x.parts = append(x.parts, p)
		key := lastLiteral(p)
		x.last[key] = append(x.last[key], i)
	}
	return x
}

func split(p string) []string {
	var out []string
	for _, s := range strings.Split(strings.Trim(p, "/"), "/") {
		if s != "" {
			out = append(out, s)
		}
	}
	return out
}

func parameter(s string) bool {
	return strings.ContainsAny(s, ":{<*[(")
}

func lastLiteral(p []string) string {
	for i := len(p) - 1; i >= 0; i-- {
		if !parameter(p[i]) {
			return strings.ToLower(p[i])
		}
	}
	return ""
}

// find is the route that answers a request best: all parts fit, the most of
// them as they are written, so that a fixed part goes before a variable one. A
// prefix that the route has and the request does not, put in elsewhere, makes
// it unsure.
func (x *matcher) find(c model.CallFact) (*model.Route, bool) {
	want := split(c.Pattern)
	best, score, sure := -1, 0, false
	asked := map[string]bool{}
	// The last word of the route may be any of the request's: what comes after
	// it there is a variable of the route, or the rest that it takes.
	for k := len(want) - 1; k >= 0; k-- {
		key := strings.ToLower(want[k])
		if parameter(want[k]) || asked[key] {
			continue
		}
		asked[key] = true
		for _, i := range x.last[key] {
			r := x.routes[i]
			if c.Method != "" && r.Method != c.Method && r.Method != "ANY" {
				continue
			}
			n, whole := fit(x.parts[i], want)
			if n == 0 {
				continue
			}
			n = 4 * n
			if whole {
				n += 2
			}
			if r.Method == c.Method {
				n++
			}
			if n > score || n == score && i < best {
				best, score, sure = i, n, whole && c.Method != ""
			}
		}
	}
	if best < 0 {
		// A fallback of the whole answers what nobody else does.
		for _, i := range x.last[""] {
			if p := x.parts[i]; len(want) > 0 && len(p) == 1 && strings.HasPrefix(p[0], "{*") &&
				(x.routes[i].Method == "ANY" || x.routes[i].Method == c.Method) {
				return &x.routes[i], false
			}
		}
		return nil, false
	}
	return &x.routes[best], sure
}

// maxPrefix is how many parts of a route may come from elsewhere.
const maxPrefix = 2

// takesRest reports whether a last part of a route stands for any number of
// parts.
func takesRest(p string) bool {
	switch {
	case p == "*", p == "**", strings.HasPrefix(p, "{*"), strings.HasPrefix(p, "<path:"), strings.HasPrefix(p, "[..."),
		strings.HasPrefix(p, "(.*"), strings.HasSuffix(p, "...}"),
		strings.HasPrefix(p, "{") && strings.HasSuffix(p, ":.*}"):
		return true
	}
	return len(p) > 1 && p[0] == '*' // *rest
}

// fit counts the parts that two paths have alike as written, 0 where they do
// not fit; whole tells that no part of the route was left over in front.
func fit(have, want []string) (alike int, whole bool) {
	if n := len(have); n > 0 && takesRest(have[n-1]) && (len(want) >= n || len(want) == n-1 && strings.HasPrefix(have[n-1], "{*")) {
		have, want = have[:n-1], want[:n-1]
	}
	extra := len(have) - len(want)
	if extra < 0 || extra > maxPrefix {
		return 0, false
	}
	for _, p := range have[:extra] {
		if parameter(p) {
			return 0, false
		}
	}
	for i, w := range want {
		h := have[extra+i]
		switch {
		case parameter(h) && !parameter(w):
			// A word where the route has a parameter may be one of its values.
		case parameter(h) || strings.Contains(w, "*"):
		case strings.EqualFold(h, w):
			alike++
		default:
			return 0, false
		}
	}
	return alike, extra == 0
}

// Hosts lists the systems that the code calls, by name.
func Hosts(abroad map[string][]model.Evidence) []string {
	out := make([]string, 0, len(abroad))
	for h := range abroad {
		out = append(out, h)
	}
	sort.Strings(out)
	return out
}
