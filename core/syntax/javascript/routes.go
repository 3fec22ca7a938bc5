package javascript

import (
	"regexp"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// routerName is how routers are called where they come in as parameters.
var routerName = regexp.MustCompile(`(?i)^(app|server|fastify|instance|routes?|(\w*router)|(\w+app))$`)

// makers are the calls whose result routes are declared on.
var makers = map[string]bool{"express": true, "Router": true, "express.Router": true, "fastify": true, "Fastify": true, "Hono": true, "Koa": true, "KoaRouter": true, "restify.createServer": true, "polka": true, "Elysia": true, "OpenAPIHono": true}

// routes finds the routes declared by calls on a router: its methods named for
// those of HTTP, "use" for what is mounted below, "route" for chains.
func (r *reader) routes() {
	s := r.s
	made := map[string]bool{}
	for i := range s.Tokens {
		if s.Tokens[i].Kind != syntax.Ident || !s.Is(i+1, "(") {
			continue
		}
		if name, first := s.Dotted(i); makers[name] {
			if s.Is(first-1, "new") {
				first--
			}
			if s.Is(first-1, "=") && s.IsIdent(first-2) {
				made[s.Text(first-2)] = true
			}
		}
	}
	isRouter := func(name string) bool {
		return made[name] || routerName.MatchString(name[strings.LastIndexByte(name, '.')+1:])
	}
	for i := range s.Tokens {
		if s.Tokens[i].Kind != syntax.Ident || !s.Is(i+1, "(") || !s.Is(i-1, ".") {
			continue
		}
		word := s.Text(i)
		method, isMethod := syntax.Methods[word]
		if !isMethod && word != "use" && word != "register" && word != "route" {
			continue
		}
		args := s.Args(i + 1)
		if len(args) == 0 {
			continue
		}
		if isMethod && s.Is(i-2, ")") {
			// app.route('/x').get(a).post(b)
			if on, pattern, ok := r.chained(i - 2); ok {
				r.f.Routes = append(r.f.Routes, model.RouteFact{Method: method, Pattern: syntax.JoinRoute("", pattern), Line: s.Line(i), On: on, Handler: r.handler(args[len(args)-1]), InPlace: s.InPlace(args[len(args)-1])})
			}
			continue
		}
		if !s.IsIdent(i - 2) {
			continue
		}
		on, _ := s.Dotted(i - 2)
		if !isRouter(on) {
			continue
		}
		path, isPath := r.path(args[0])
		switch {
		case isMethod && isPath && len(args) > 1 && !s.Is(args[1][0], "{"):
			r.f.Routes = append(r.f.Routes, model.RouteFact{Method: method, Pattern: syntax.JoinRoute("", path), Line: s.Line(i), On: on, Handler: r.handler(args[len(args)-1]), InPlace: s.InPlace(args[len(args)-1])})
		case word == "use" && isPath && len(args) > 1, word == "route" && isPath && len(args) == 2:
			if t := r.mounted(args[len(args)-1]); t != "" {
				r.f.Mounts = append(r.f.Mounts, model.MountFact{On: on, Path: path, Target: t, Line: s.Line(i)})
			}
		case word == "use" && !isPath, word == "register":
			prefix := ""
			if len(args) > 1 && s.Is(args[1][0], "{") {
				for k := args[1][0]; k < args[1][1]; k++ {
					if s.Is(k, "prefix") && s.Is(k+1, ":") && s.Kind(k+2) == syntax.String {
						prefix = s.Unquote(k + 2)
					}
				}
			}
			if t := r.mounted(args[0]); t != "" && t != on {
				r.f.Mounts = append(r.f.Mounts, model.MountFact{On: on, Path: prefix, Target: t, Line: s.Line(i)})
			}
		}
	}
}

// path is the first argument when it is a path: a literal that starts with a
// slash or a star.
func (r *reader) path(a [2]int) (string, bool) {
	if a[1]-a[0] != 1 || r.s.Kind(a[0]) != syntax.String {
		return "", false
	}
	p := r.s.Unquote(a[0])
	return p, p == "" || p[0] == '/' || p[0] == '*'
}

// chained follows ").post(b).get(a)" back to the route it hangs on.
func (r *reader) chained(shut int) (on, pattern string, ok bool) {
	s := r.s
	for range 12 {
		open := int(s.Tokens[shut].Match)
		if open <= 0 || open > shut || !s.IsIdent(open-1) {
			return "", "", false
		}
		if s.Is(open-1, "route") {
			args := s.Args(open)
			if len(args) != 1 || !s.IsIdent(open-3) {
				return "", "", false
			}
			p, isPath := r.path(args[0])
			on, _ := s.Dotted(open - 3)
			return on, p, isPath
		}
		if _, isMethod := syntax.Methods[s.Text(open-1)]; !isMethod || !s.Is(open-2, ".") || !s.Is(open-3, ")") {
			return "", "", false
		}
		shut = open - 3
	}
	return "", "", false
}

// handler is the name of what answers; "" for a function written in place.
func (r *reader) handler(a [2]int) string {
	s := r.s
	if n := s.Name(a); n != "" {
		return n
	}
	// wrap(list), list.bind(x): the name inside, as far as there is one.
	if s.IsIdent(a[0]) && !s.Is(a[0], "async") && !s.Is(a[0], "function") {
		for k := a[0]; k < a[1]; k++ {
			if s.Is(k, "(") && s.Close(k) == a[1]-1 {
				if in := s.Args(k); len(in) == 1 {
					if n := s.Name(in[0]); n != "" && n != "this" {
						return n
					}
				}
				break
			}
		}
	}
	return ""
}

// mounted is the router that an argument brings: a name, a call of a name, or
// a module required in place.
func (r *reader) mounted(a [2]int) string {
	s := r.s
	if n := s.Name(a); n != "" {
		return n
	}
	if (s.Is(a[0], "require") || s.Is(a[0], "import")) && s.Is(a[0]+1, "(") && s.Kind(a[0]+2) == syntax.String {
		return "module:" + s.Unquote(a[0]+2)
	}
	for k := a[0]; k < a[1]; k++ {
		if s.Is(k, "(") && s.Close(k) == a[1]-1 && k > a[0] {
			return strings.TrimSuffix(s.Name([2]int{a[0], k}), ".routes")
		}
	}
	return ""
}
