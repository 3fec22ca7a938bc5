package python

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// makers are the calls whose result routes are declared on, with the keyword
// that gives them a prefix.
var makers = map[string]string{"Blueprint": "url_prefix", "APIRouter": "prefix", "Flask": "", "FastAPI": "", "Quart": "", "Starlette": "", "Sanic": ""}

// routes finds the routes declared by decorators, by path() and re_path() in a
// list of addresses, and what is mounted below a prefix.
func (r *reader) routes() {
	s := r.s
	for i := range s.Tokens {
		if s.Tokens[i].Kind != syntax.Ident || !s.Is(i+1, "(") {
			continue
		}
		word := s.Text(i)
		args := s.Args(i + 1)
		name, first := s.Dotted(i)
		if key, ok := makers[word]; ok && s.Match(first-2, syntax.Name, "=") {
			if p := r.keyword(args, key); key != "" && p != "" {
				r.f.Mounts = append(r.f.Mounts, model.MountFact{Path: p, Target: s.Text(first - 2), Line: s.Line(i)})
			}
			continue
		}
		switch word {
		case "include_router", "register_blueprint", "mount":
			if len(args) == 0 || name == word {
				continue
			}
			on := strings.TrimSuffix(name, "."+word)
			t, p := s.Name(args[0]), r.keyword(args, "prefix")+r.keyword(args, "url_prefix")
			if word == "mount" && len(args) > 1 {
				t, p = s.Name(args[1]), r.text(args[0])
			}
			if t != "" {
				r.f.Mounts = append(r.f.Mounts, model.MountFact{On: on, Path: p, Target: t, Line: s.Line(i)})
			}
		case "path", "re_path", "url":
			if name != word || len(args) < 2 || s.Kind(args[0][0]) != syntax.String || args[0][1]-args[0][0] != 1 {
				continue
			}
			r.address(i, word, args)
		case "add_url_rule":
			if len(args) > 2 && strings.HasPrefix(r.text(args[0]), "/") {
				r.f.Routes = append(r.f.Routes, model.RouteFact{Method: "ANY", Pattern: syntax.JoinRoute("", r.text(args[0])), Line: s.Line(i), On: strings.TrimSuffix(name, "."+word), Handler: s.Name(args[len(args)-1])})
			}
		default:
			if !s.Is(first-1, "@") || name == word || len(args) == 0 {
				continue
			}
			r.decorated(i, word, strings.TrimSuffix(name, "."+word), args)
		}
	}
}

// decorated reads "@router.get('/lots')" and "@app.route('/lots', methods=[…])"
// above a function.
func (r *reader) decorated(i int, word, on string, args [][2]int) {
	s := r.s
	path := r.text(args[0])
	if !strings.HasPrefix(path, "/") && !(path == "" && s.Kind(args[0][0]) == syntax.String) {
		return
	}
	var methods []string
	if m, ok := syntax.Methods[word]; ok {
		methods = []string{m}
	} else if word == "route" || word == "api_route" {
		for _, a := range args {
			if s.Is(a[0], "methods") {
				for k := a[0]; k < a[1]; k++ {
					if s.Kind(k) == syntax.String {
						methods = append(methods, strings.ToUpper(plain(s.Text(k))))
					}
				}
			}
		}
		if len(methods) == 0 {
			methods = []string{"GET"}
		}
	}
	name := ""
	for k := s.Close(i+1) + 1; k < s.Len() && k < i+400; k++ {
		if s.Is(k, "(") {
			k = s.Close(k)
			continue
		}
		if (s.Any(k, "def", "class")) && s.IsIdent(k+1) {
			name = s.Text(k + 1)
			break
		}
	}
	for _, m := range methods {
		r.f.Routes = append(r.f.Routes, model.RouteFact{Method: m, Pattern: syntax.JoinRoute("", path), Line: s.Line(i), On: on, Handler: name})
	}
}

// address reads one entry of a list of addresses: a view, or what is included
// below.
func (r *reader) address(i int, word string, args [][2]int) {
	s := r.s
	p := plain(s.Text(args[0][0]))
	if word != "path" {
		p = strings.TrimSuffix(strings.TrimPrefix(p, "^"), "$")
	}
	view := args[1]
	if s.Match(view[0], "include", "(") {
		in := s.Args(view[0] + 1)
		if len(in) == 0 {
			return
		}
		t := s.Name(in[0])
		if x := r.text(in[0]); x != "" {
			t = "module:" + x
		} else if s.Is(in[0][0], "(") {
			if x := s.Args(in[0][0]); len(x) > 0 {
				t = "module:" + r.text(x[0])
			}
		}
		if t != "" {
			r.f.Mounts = append(r.f.Mounts, model.MountFact{On: "urlpatterns", Path: p, Target: t, Line: s.Line(i)})
		}
		return
	}
	name := s.Name(view)
	if name == "" {
		// lots.as_view(): the class answers.
		for k := view[0]; k < view[1]; k++ {
			if s.Match(k-1, ".", "as_view") {
				name, _ = s.Dotted(k - 2)
			}
		}
	}
	r.f.Routes = append(r.f.Routes, model.RouteFact{Method: "ANY", Pattern: syntax.JoinRoute("", p), Line: s.Line(i), On: "urlpatterns", Handler: name})
}

func (r *reader) text(a [2]int) string {
	if a[1]-a[0] != 1 || r.s.Kind(a[0]) != syntax.String {
		return ""
	}
	return plain(r.s.Text(a[0]))
}

func (r *reader) keyword(args [][2]int, key string) string {
	for _, a := range args {
		if key != "" && r.s.Match(a[0], key, "=", syntax.Quoted) {
			return plain(r.s.Text(a[0] + 2))
		}
	}
	return ""
}

// plain takes the prefix letters and quotes off a literal.
func plain(t string) string {
	t = strings.TrimLeft(t, "rRuUbBfF")
	return strings.Trim(t, `"'`)
}
