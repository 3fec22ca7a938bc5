package golang

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// notRouters have methods named like those of a router.
var notRouters = map[string]bool{"http": true, "httptest": true, "client": true, "c": true, "os": true, "cache": true, "resty": true}

// routes finds the routes declared by calls on a router: methods named for
// those of HTTP in either case, Handle and HandleFunc with a pattern that may
// name the method, Route and Group for what lies below a path.
func (r *reader) routes() {
	s := r.s
	var spans []syntax.Span
	for i := 0; i < s.Len(); i++ {
		if s.Tokens[i].Kind != syntax.Ident || s.Kind(i+2) != syntax.String || !s.Is(i+1, "(") || !s.Is(i-1, ".") || !s.IsIdent(i-2) && !s.Is(i-2, ")") {
			continue
		}
		on := ""
		if s.IsIdent(i - 2) {
			on, _ = s.Dotted(i - 2)
		}
		args := s.Args(i + 1)
		if len(args) == 0 || s.Kind(args[0][0]) != syntax.String || args[0][1]-args[0][0] != 1 {
			continue
		}
		path := s.Unquote(args[0][0])
		last := args[len(args)-1]
		word := s.Text(i)
		switch word {
		case "Route":
			if strings.HasPrefix(path, "/") && len(args) == 2 && s.Is(last[0], "func") {
				spans = append(spans, syntax.Span{First: last[0], Last: last[1] - 1, Prefix: path})
			}
		case "Mount":
			if strings.HasPrefix(path, "/") && len(args) == 2 {
				if t := target(s, last); t != "" {
					r.f.Mounts = append(r.f.Mounts, model.MountFact{On: on, Path: syntax.JoinRoute(syntax.Around(spans, i), path), Target: t, Line: s.Line(i)})
				}
			}
		case "Group":
			if (path == "" || strings.HasPrefix(path, "/")) && on != "" {
				if v := assigned(s, i); v != "" && v != on {
					r.f.Mounts = append(r.f.Mounts, model.MountFact{On: on, Path: path, Target: v, Line: s.Line(i)})
				}
			}
		case "Handle", "HandleFunc", "Method", "MethodFunc", "Add":
			method := "ANY"
			if word == "Method" || word == "MethodFunc" || word == "Add" || (word == "Handle" || word == "HandleFunc") && len(args) == 3 {
				if len(args) < 3 || s.Kind(args[1][0]) != syntax.String {
					continue
				}
				method, path = strings.ToUpper(path), s.Unquote(args[1][0])
			}
			if m, rest, ok := strings.Cut(path, " "); ok && m == strings.ToUpper(m) {
				method, path = m, strings.TrimSpace(rest)
			}
			if len(args) < 2 || !strings.Contains(path, "/") || !isMethod(method) {
				continue
			}
			syntax.AddRoute(r.f, spans, i, model.RouteFact{Method: method, Pattern: path, Line: s.Line(i), On: on, Handler: handler(s, last), InPlace: s.InPlace(last)})
		default:
			method, ok := syntax.Methods[strings.ToLower(word)]
			if !ok || word == strings.ToLower(word) || !strings.HasPrefix(path, "/") || len(args) < 2 || notRouters[on] {
				continue
			}
			if word == "Head" || word == "Delete" || word == "Get" || word == "Put" || word == "Patch" || word == "Post" || word == strings.ToUpper(word) || word == "Any" || word == "Options" {
				syntax.AddRoute(r.f, spans, i, model.RouteFact{Method: method, Pattern: path, Line: s.Line(i), On: on, Handler: handler(s, last), InPlace: s.InPlace(last)})
			}
		}
	}
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
				if n := s.Name(in[0]); n != "" && strings.HasPrefix(s.Text(a[0]), "http") {
					return n
				}
			}
			return s.Name([2]int{a[0], k})
		}
	}
	return ""
}
