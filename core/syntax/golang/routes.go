package golang

import (
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// notRouters have methods named like those of a router.
var notRouters = syntax.Set("http", "httptest", "client", "c", "os", "cache", "resty", "request", "req")

// routeCall is a call on what may be a router, with a text first.
type routeCall struct {
	at    int // the name of the method
	word  string
	on    string
	path  string // the text
	args  [][2]int
	spans *[]syntax.Span // what lies below a path so far
}

func (c routeCall) last() [2]int { return c.args[len(c.args)-1] }

// routeWords reads what each method of a router declares: Handle and HandleFunc
// with a pattern that may name the method, Route, Group and Mount for what lies
// below a path. Others are those named for the methods of HTTP.
var routeWords = map[string]func(*reader, routeCall){
	"Route": (*reader).routeBlock, "Mount": (*reader).mount, "Group": (*reader).routeGroup,
	"Handle": (*reader).handle, "HandleFunc": (*reader).handle,
	"Method": (*reader).handle, "MethodFunc": (*reader).handle, "Add": (*reader).handle,
	"Path": (*reader).chainedPath, "PathPrefix": (*reader).chainedPath,
}

// routes finds the routes declared by calls on a router.
func (r *reader) routes() {
	s := r.s
	var spans []syntax.Span
	for i := 0; i < s.Len(); i++ {
		if s.Tokens[i].Kind != syntax.Ident || s.First(i+1) != '(' || !s.Is(i-1, ".") || !s.Match(i+1, "(", syntax.Quoted) ||
			!s.Any(i-2, syntax.Name, ")") {
			continue
		}
		c := routeCall{at: i, word: s.Text(i), args: s.Args(i + 1), spans: &spans}
		if len(c.args) == 0 || c.args[0][1]-c.args[0][0] != 1 {
			continue
		}
		c.path = s.Unquote(c.args[0][0])
		if s.IsIdent(i - 2) {
			c.on, _ = s.Dotted(i - 2)
		}
		if read := routeWords[c.word]; read != nil {
			read(r, c)
		} else {
			r.verb(c)
		}
	}
}

func (r *reader) routeBlock(c routeCall) {
	if last := c.last(); strings.HasPrefix(c.path, "/") && len(c.args) == 2 && r.s.Is(last[0], "func") {
		*c.spans = append(*c.spans, syntax.Span{First: last[0], Last: last[1] - 1, Prefix: c.path})
	}
}

func (r *reader) mount(c routeCall) {
	if !strings.HasPrefix(c.path, "/") || len(c.args) != 2 {
		return
	}
	if t := target(r.s, c.last()); t != "" {
		below := syntax.JoinRoute(syntax.Around(*c.spans, c.at), c.path)
		r.f.Mounts = append(r.f.Mounts, model.MountFact{On: c.on, Path: below, Target: t, Line: r.s.Line(c.at)})
	}
}

func (r *reader) routeGroup(c routeCall) {
	if c.path != "" && !strings.HasPrefix(c.path, "/") || c.on == "" {
		return
	}
	if v := assigned(r.s, c.at); v != "" && v != c.on {
		r.f.Mounts = append(r.f.Mounts, model.MountFact{On: c.on, Path: c.path, Target: v, Line: r.s.Line(c.at)})
	}
}

func (r *reader) handle(c routeCall) {
	method, path := "ANY", c.path
	if named := c.word != "Handle" && c.word != "HandleFunc"; named || len(c.args) == 3 {
		if len(c.args) < 3 || r.s.Kind(c.args[1][0]) != syntax.String {
			return
		}
		method, path = strings.ToUpper(path), r.s.Unquote(c.args[1][0])
	}
	if m, rest, ok := strings.Cut(path, " "); ok && m == strings.ToUpper(m) {
		method, path = m, strings.TrimSpace(rest)
	}
	if len(c.args) < 2 || !strings.Contains(path, "/") || !isMethod(method) {
		return
	}
	if method != "ANY" {
		r.route(c, method, path)
		return
	}
	chain := chainOf(r.s, c.at)
	if c.on == "" {
		c.on = chain.on
	}
	r.routeBy(chain, c, path)
}

// verb reads a method of a router that is named for one of HTTP, in capitals or
// with a capital first.
func (r *reader) verb(c routeCall) {
	lower := strings.ToLower(c.word)
	method, ok := syntax.Methods[lower]
	on := c.on[strings.LastIndexByte(c.on, '.')+1:]
	if !ok || c.word == lower || !strings.HasPrefix(c.path, "/") || len(c.args) < 2 || notRouters[on] {
		return
	}
	if last := c.last(); handler(r.s, last) == "" && !r.s.InPlace(last) {
		return // something that is sent
	}
	if c.word == strings.ToUpper(c.word) || titled[c.word] {
		r.route(c, method, c.path)
	}
}

var titled = syntax.Set("Get", "Put", "Post", "Patch", "Delete", "Head", "Options", "Any")

func (r *reader) route(c routeCall, method, path string) {
	last := c.last()
	syntax.AddRoute(r.f, *c.spans, c.at, model.RouteFact{
		Method: method, Pattern: path, Line: r.s.Line(c.at), On: c.on,
		Handler: handler(r.s, last), Inner: inner(r.s, last), InPlace: r.s.InPlace(last),
	})
}

func isMethod(m string) bool {
	for _, x := range syntax.Methods {
		if m == x {
			return true
		}
	}
	return false
}

// assigned is the variable that the call at i is given to.
func assigned(s *syntax.Stream, i int) string {
	_, first := s.Dotted(i)
	return givenTo(s, first)
}

// givenTo is the variable that what begins at a token is given to.
func givenTo(s *syntax.Stream, first int) string {
	if s.Match(first-3, syntax.Name, ":", "=") {
		return s.Text(first - 3)
	}
	if s.Match(first-2, syntax.Name, "=") {
		return s.Text(first - 2)
	}
	return ""
}

// handler is the name of what answers; "" for a function written in place.
func handler(s *syntax.Stream, a [2]int) string {
	if n := s.Name(a); n != "" {
		return n
	}
	return target(s, a)
}

// inner is the first name that the call is handed which makes what answers:
// loggedIn(list, keeper). "" where no call does, or with anything but names.
func inner(s *syntax.Stream, a [2]int) string {
	open := a[0]
	for open < a[1] && (s.IsIdent(open) || s.Is(open, ".")) {
		open++
	}
	if open == a[0] || !s.Is(open, "(") || s.Close(open) != a[1]-1 {
		return ""
	}
	args := s.Args(open)
	if slices.ContainsFunc(args, func(a [2]int) bool { return s.Name(a) == "" }) || len(args) == 0 {
		return ""
	}
	return s.Name(args[0])
}

// target is the name called or wrapped: lots.Router(), http.HandlerFunc(list).
func target(s *syntax.Stream, a [2]int) string {
	if n := s.Name(a); n != "" {
		return n
	}
	for k := a[0]; k < a[1]; k++ {
		if s.Is(k, "func") {
			return ""
		}
		if s.Is(k, "(") && s.Close(k) == a[1]-1 && k > a[0] {
			if in := s.Args(k); len(in) == 1 {
				if n := s.Name(in[0]); n != "" && s.Is(k-1, "HandlerFunc") {
					return n
				}
			}
			return s.Name([2]int{a[0], k})
		}
	}
	return ""
}
