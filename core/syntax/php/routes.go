package php

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// routeCall is a call on the router: Route::get(…), or $app->get(…).
type routeCall struct {
	at     int // the name of the method
	word   string
	static bool
	args   [][2]int
	spans  *[]syntax.Span // what lies below a path so far
}

// routes finds Route::get('/lots', [Lots::class, 'list']) and its like, in
// groups below a prefix, and methods under a Route attribute.
func (r *reader) routes() {
	s := r.s
	var spans []syntax.Span
	for i := 0; i < s.Len(); i++ {
		if s.Match(i-2, "#", "[") && r.is(i, "Route") && s.Any(i+1, "(", "]") {
			r.attribute(i)
			continue
		}
		if s.Tokens[i].Kind != syntax.Ident || !s.Is(i+1, "(") {
			continue
		}
		c := routeCall{at: i, static: s.Match(i-2, ":", ":") && r.is(i-3, "Route"), spans: &spans}
		if !c.static && !s.Match(i-2, "-", ">") {
			continue
		}
		if c.args = s.Args(i + 1); len(c.args) > 0 {
			c.word = strings.ToLower(s.Text(i))
			r.routeCall(c)
		}
	}
}

func (r *reader) routeCall(c routeCall) {
	switch c.word {
	case "group":
		p := r.prefix(c.at)
		if p == "" {
			p = r.arrayPrefix(c.args[0])
		}
		if last := c.args[len(c.args)-1]; p != "" {
			*c.spans = append(*c.spans, syntax.Span{First: last[0], Last: last[1] - 1, Prefix: p})
		}
	case "addgroup":
		r.addGroup(c)
	case "addroute", "map", "match":
		r.several(c)
	case "fallback":
		if c.static {
			r.route(c, "ANY", "/{*rest}", "", c.args[0])
		}
	case "resource", "apiresource":
		if c.static && len(c.args) > 1 && r.s.Kind(c.args[0][0]) == syntax.String {
			r.resource(c, r.s.Unquote(c.args[0][0]), r.action(c.args[1]))
		}
	default:
		r.verb(c)
	}
}

// addGroup reads a group whose prefix is its first argument.
func (r *reader) addGroup(c routeCall) {
	if first, last := c.args[0], c.args[len(c.args)-1]; len(c.args) > 1 && r.s.Kind(first[0]) == syntax.String {
		*c.spans = append(*c.spans, syntax.Span{First: last[0], Last: last[1] - 1, Prefix: r.s.Unquote(first[0])})
	}
}

// several reads a route with its methods written before its path, one or a list.
func (r *reader) several(c routeCall) {
	s := r.s
	if len(c.args) < 3 || s.Kind(c.args[1][0]) != syntax.String || c.args[1][1]-c.args[1][0] != 1 {
		return
	}
	on, ok := r.on(c)
	if !ok {
		return
	}
	path := s.Unquote(c.args[1][0])
	for k := c.args[0][0]; k < c.args[0][1]; k++ {
		if s.Kind(k) != syntax.String {
			continue
		}
		if m, ok := syntax.Methods[strings.ToLower(s.Unquote(k))]; ok {
			r.route(c, m, path, on, c.args[2])
		}
	}
}

// on is the variable of the router that a call is made on; false where it is made
// on something else.
func (r *reader) on(c routeCall) (string, bool) {
	if c.static {
		return "", true
	}
	on, variable := strings.CutPrefix(r.s.Text(c.at-3), "$")
	return on, variable && router(on)
}

// below reports whether a call stands in a group, whose path may be all of its own.
func (c routeCall) below() bool {
	for _, span := range *c.spans {
		if span.First <= c.at && c.at <= span.Last {
			return true
		}
	}
	return false
}

// verb reads a method that is named for one of HTTP.
func (r *reader) verb(c routeCall) {
	s, first := r.s, c.args[0]
	m, ok := syntax.Methods[c.word]
	if !ok || len(c.args) < 2 || s.Kind(first[0]) != syntax.String || first[1]-first[0] != 1 {
		return
	}
	path := s.Unquote(first[0])
	on, ok := r.on(c)
	if !ok || !c.static && !strings.HasPrefix(path, "/") && (path != "" || !c.below()) {
		return
	}
	r.route(c, m, path, on, c.args[1])
}

func (r *reader) route(c routeCall, method, path, on string, handler [2]int) {
	if path == "[/]" { // the stroke may be left out
		path = "/"
	}
	syntax.AddRoute(r.f, *c.spans, c.at, model.RouteFact{
		Method: method, Pattern: path, Line: r.s.Line(c.at), On: on, Handler: r.action(handler), InPlace: r.s.InPlace(handler),
	})
}

func router(variable string) bool {
	v := strings.ToLower(strings.TrimPrefix(variable, "$"))
	return v == "app" || v == "router" || v == "group" || v == "r" || v == "routes" || strings.HasSuffix(v, "router")
}

// prefix is what ->prefix('x') says in the chain that ends at i.
func (r *reader) prefix(i int) string {
	s := r.s
	for k := i - 1; k > 0 && !s.Is(k, ";") && !s.Is(k, "{"); k-- {
		if r.is(k, "prefix") && s.Match(k+1, "(", syntax.Quoted) {
			return s.Unquote(k + 2)
		}
		if s.Is(k, ")") && int(s.Tokens[k].Match) > 0 {
			open := int(s.Tokens[k].Match)
			if r.is(open-1, "prefix") && s.Kind(open+1) == syntax.String {
				return s.Unquote(open + 1)
			}
			k = open
		}
	}
	return ""
}

// arrayPrefix is the prefix in ['prefix' => 'x'].
func (r *reader) arrayPrefix(a [2]int) string {
	s := r.s
	for k := a[0]; k+3 < a[1]; k++ {
		if s.Kind(k) == syntax.String && s.Unquote(k) == "prefix" && s.Match(k+1, "=", ">", syntax.Quoted) {
			return s.Unquote(k + 3)
		}
	}
	return ""
}

// action is what answers: [Lots::class, 'list'], 'Lots@list' or Lots::class,
// written as Lots.list.
func (r *reader) action(a [2]int) string {
	s := r.s
	if a[1]-a[0] == 1 && s.Kind(a[0]) == syntax.String {
		return strings.ReplaceAll(s.Unquote(a[0]), "@", ".")
	}
	class, method := "", ""
	for k := a[0]; k < a[1]; k++ {
		if s.Any(k, "function", "fn") {
			return ""
		}
		if s.Match(k, syntax.Name, ":") && r.is(k+3, "class") {
			class = s.Text(k)
		}
		if s.Kind(k) == syntax.String {
			method = s.Unquote(k)
		}
	}
	switch {
	case class == "":
		return ""
	case method == "" && strings.Contains(class, `\`):
		return r.inFull(class) + ".__invoke"
	case method == "":
		return class
	}
	return r.inFull(class) + "." + method
}

// inFull is a name with a namespace before it, written from the top: what it
// begins with may be taken in under that name.
func (r *reader) inFull(name string) string {
	first, rest, spaced := strings.Cut(name, `\`)
	if !spaced || first == "" {
		return strings.TrimPrefix(name, `\`)
	}
	for i := range r.f.Imports {
		if im := &r.f.Imports[i]; im.Alias == first {
			return im.Text + `\` + rest
		}
	}
	if first == "namespace" {
		name = rest
	}
	if r.f.Namespace == "" {
		return name
	}
	return r.f.Namespace + `\` + name
}

// standard are the routes of a resource with their actions; "%" stands for all
// of them, "%1" for one.
var standard = []struct{ method, pattern, action string }{
	{"GET", "%", "index"}, {"GET", "%/create", "create"}, {"POST", "%", "store"}, {"GET", "%1", "show"},
	{"GET", "%1/edit", "edit"}, {"PUT", "%1", "update"}, {"DELETE", "%1", "destroy"},
}

// resource stands for the seven routes of a resource, or five without forms.
func (r *reader) resource(c routeCall, name, class string) {
	one := name + "/{" + strings.TrimSuffix(name[strings.LastIndexAny(name, "/.")+1:], "s") + "}"
	patterns := strings.NewReplacer("%1", one, "%", name)
	for _, x := range standard {
		if c.word == "apiresource" && (x.action == "create" || x.action == "edit") {
			continue
		}
		h := ""
		if class != "" {
			h = class + "." + x.action
		}
		syntax.AddRoute(r.f, *c.spans, c.at, model.RouteFact{
			Method: x.method, Pattern: patterns.Replace(x.pattern), Line: r.s.Line(c.at), Handler: h,
		})
	}
}

// attribute reads #[Route('/lots', methods: ['GET'])] above a method, or above
// the class whose methods lie below its path.
func (r *reader) attribute(i int) {
	s := r.s
	path, methods := r.routeOf(i)
	end := s.Close(i - 1)
	for k := end + 1; k < s.Len() && k < end+200; k++ {
		switch {
		case s.Match(k, "#", "["):
			k = s.Close(k + 1)
		case r.is(k, "class"):
			r.classPrefix = path
			return
		case r.is(k, "function") && s.IsIdent(k+1):
			for _, m := range methods {
				r.f.Routes = append(r.f.Routes, model.RouteFact{
					Method: m, Pattern: syntax.JoinRoute(r.classPrefix, path), Line: s.Line(i), Handler: s.Text(k + 1),
				})
			}
			return
		}
	}
}

// routeOf is the path and the methods that the attribute at i gives.
func (r *reader) routeOf(i int) (path string, methods []string) {
	s := r.s
	for n, a := range s.Args(i + 1) {
		key := ""
		if s.Is(a[0]+1, ":") {
			key = s.Text(a[0])
		}
		for k := a[0]; k < a[1]; k++ {
			switch {
			case s.Kind(k) != syntax.String:
			case key == "path", key == "" && n == 0:
				path = s.Unquote(k)
			case key == "methods":
				methods = append(methods, strings.ToUpper(s.Unquote(k)))
			}
		}
	}
	if len(methods) == 0 {
		methods = []string{"ANY"}
	}
	return path, methods
}
