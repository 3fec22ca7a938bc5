package perl

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

var verbs = map[string]string{"get": "GET", "post": "POST", "put": "PUT", "patch": "PATCH", "del": "DELETE", "delete": "DELETE", "options": "OPTIONS", "any": "ANY", "websocket": "GET"}

// route reads get '/path' => sub {…} and $r->get('/path')->to('lots#show').
func (r *reader) route(i int) {
	s := r.s
	method := verbs[s.Text(i)]
	if method == "" {
		return
	}
	arrow := s.Is(i-1, ">") && s.Is(i-2, "-")
	at := i + 1
	if s.Is(at, "(") {
		at++
	}
	if s.Is(at, "[") && s.Text(i) == "any" { // any ['get', 'post'] => '/path'
		at = s.Close(at) + 1
		if s.Is(at, "=") {
			at += 2
		}
	}
	if s.Kind(at) != syntax.String {
		return
	}
	pattern := word(s.Text(at))
	if !strings.HasPrefix(pattern, "/") {
		return
	}
	if !arrow {
		if r.starts(i) && s.Is(at+1, "=") && s.Is(at+2, ">") {
			fact := model.RouteFact{Method: method, Pattern: pattern, Line: s.Line(i)}
			if s.Is(at+3, `\`) && s.IsIdent(at+4) {
				fact.Handler = strings.TrimPrefix(s.Text(at+4), "&")
			}
			syntax.AddRoute(r.f, nil, i, fact)
		}
		return
	}
	if !s.Is(i+1, "(") {
		return
	}
	// ->to('controller#action') names what answers.
	handler := ""
	for k := s.Close(i+1) + 1; k < s.Len() && !s.Is(k, ";"); k = s.Close(k) + 1 {
		if s.Is(k, "to") && s.Is(k+1, "(") && s.Kind(k+2) == syntax.String {
			handler = strings.ReplaceAll(word(s.Text(k+2)), "#", ".")
		}
	}
	if handler != "" {
		syntax.AddRoute(r.f, nil, i, model.RouteFact{Method: method, Pattern: pattern, Line: s.Line(i), Handler: handler})
	}
}

// action reads the address in the attributes of a sub: Path, Local, Global.
func (r *reader) action(sub, open int, name, parent string) {
	s := r.s
	// A controller's name gives the addresses of its actions their start.
	space := parent
	for _, part := range []string{"::Controller::", "::C::"} {
		if _, rest, ok := strings.Cut(parent, part); ok {
			space = strings.ToLower(strings.ReplaceAll(rest, "::", "/"))
		}
	}
	if space == parent || space == "root" {
		space = ""
	}
	args := ""
	pattern, found := "", false
	for k := sub + 2; k < open; k++ {
		if !s.Is(k-1, ":") || !s.IsIdent(k) {
			continue
		}
		value := ""
		if s.Is(k+1, "(") && s.Kind(k+2) == syntax.String {
			value = word(s.Text(k + 2))
		}
		switch s.Text(k) {
		case "Path":
			found = true
			pattern = space + "/" + value
			if strings.HasPrefix(value, "/") {
				pattern = value
			}
		case "Local":
			found, pattern = true, space+"/"+name
		case "Global":
			found, pattern = true, name
		case "Args":
			args = "/*"
			if s.Is(k+1, "(") && s.Kind(k+2) == syntax.Number {
				args = strings.Repeat("/:arg", min(int(s.Bytes(k + 2)[0]-'0'), 9))
			}
		}
	}
	if found {
		syntax.AddRoute(r.f, nil, sub, model.RouteFact{Method: "ANY", Pattern: pattern + args, Line: s.Line(sub), Handler: name})
	}
}
