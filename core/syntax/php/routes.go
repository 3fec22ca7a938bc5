package php

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// routes finds Route::get('/lots', [Lots::class, 'list']) and its like, in
// groups below a prefix, and methods under a Route attribute.
func (r *reader) routes() {
	s := r.s
	var spans []syntax.Span
	for i := 0; i < s.Len(); i++ {
		if r.is(i, "Route") && s.Match(i-2, "#", "[") && (s.Any(i+1, "(", "]")) {
			r.attribute(i)
			continue
		}
		if s.Tokens[i].Kind != syntax.Ident || !s.Is(i+1, "(") {
			continue
		}
		static := s.Match(i-2, ":", ":") && r.is(i-3, "Route")
		chain := s.Match(i-2, "-", ">")
		if !static && !chain {
			continue
		}
		word := strings.ToLower(s.Text(i))
		args := s.Args(i + 1)
		if len(args) == 0 {
			continue
		}
		switch word {
		case "group":
			if p := r.prefix(i); p != "" || r.arrayPrefix(args[0]) != "" {
				last := args[len(args)-1]
				if p == "" {
					p = r.arrayPrefix(args[0])
				}
				spans = append(spans, syntax.Span{First: last[0], Last: last[1] - 1, Prefix: p})
			}
		case "fallback":
			if static {
				syntax.AddRoute(r.f, spans, i, model.RouteFact{Method: "ANY", Pattern: "/{*rest}", Line: s.Line(i), Handler: r.action(args[0]), InPlace: s.InPlace(args[0])})
			}
		case "resource", "apiresource":
			if static && len(args) > 1 && s.Kind(args[0][0]) == syntax.String {
				r.resource(spans, i, s.Unquote(args[0][0]), r.action(args[1]), word == "apiresource")
			}
		default:
			m, ok := syntax.Methods[word]
			if !ok || len(args) < 2 || s.Kind(args[0][0]) != syntax.String || args[0][1]-args[0][0] != 1 {
				continue
			}
			path := s.Unquote(args[0][0])
			if chain && (!strings.HasPrefix(path, "/") || !strings.HasPrefix(s.Text(i-3), "$") || !router(s.Text(i-3))) {
				continue
			}
			on := ""
			if chain {
				on = strings.TrimPrefix(s.Text(i-3), "$")
			}
			syntax.AddRoute(r.f, spans, i, model.RouteFact{Method: m, Pattern: path, Line: s.Line(i), On: on, Handler: r.action(args[1]), InPlace: s.InPlace(args[1])})
		}
	}
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
	case method == "":
		return class
	}
	return class + "." + method
}

// resource stands for the seven routes of a resource, or five without forms.
func (r *reader) resource(spans []syntax.Span, i int, name, class string, api bool) {
	one := name + "/{" + strings.TrimSuffix(name[strings.LastIndexAny(name, "/.")+1:], "s") + "}"
	for _, x := range []struct{ method, pattern, action string }{{"GET", name, "index"}, {"GET", name + "/create", "create"}, {"POST", name, "store"}, {"GET", one, "show"}, {"GET", one + "/edit", "edit"}, {"PUT", one, "update"}, {"DELETE", one, "destroy"}} {
		if api && (x.action == "create" || x.action == "edit") {
			continue
		}
		h := ""
		if class != "" {
			h = class + "." + x.action
		}
		syntax.AddRoute(r.f, spans, i, model.RouteFact{Method: x.method, Pattern: x.pattern, Line: r.s.Line(i), Handler: h})
	}
}

// attribute reads #[Route('/lots', methods: ['GET'])] above a method.
func (r *reader) attribute(i int) {
	s := r.s
	path, methods := "", []string(nil)
	for n, a := range s.Args(i + 1) {
		key := ""
		if s.Is(a[0]+1, ":") {
			key = s.Text(a[0])
		}
		for k := a[0]; k < a[1]; k++ {
			if s.Kind(k) != syntax.String {
				continue
			}
			if key == "path" || key == "" && n == 0 {
				path = s.Unquote(k)
			}
			if key == "methods" {
				methods = append(methods, strings.ToUpper(s.Unquote(k)))
			}
		}
	}
	end := s.Close(i - 1)
	for k := end + 1; k < s.Len() && k < end+200; k++ {
		if s.Match(k, "#", "[") {
			k = s.Close(k + 1)
			continue
		}
		if r.is(k, "class") {
			r.classPrefix = path
			return
		}
		if r.is(k, "function") && s.IsIdent(k+1) {
			if len(methods) == 0 {
				methods = []string{"ANY"}
			}
			for _, m := range methods {
				r.f.Routes = append(r.f.Routes, model.RouteFact{Method: m, Pattern: syntax.JoinRoute(r.classPrefix, path), Line: s.Line(i), Handler: s.Text(k + 1)})
			}
			return
		}
	}
}
