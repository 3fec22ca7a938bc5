package perl

import (
	"path"
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
	arrow := s.Match(i-2, "-", ">")
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
		if r.starts(i) && s.Match(at+1, "=", ">") {
			fact := model.RouteFact{Method: method, Pattern: pattern, Line: s.Line(i)}
			fact.InPlace = s.Is(at+3, "sub")
			if s.Match(at+3, `\`, syntax.Name) {
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
		if s.Match(k, "to", "(", syntax.Quoted) {
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
	args, method := "", "ANY"
	pattern, found := "", false
	chained, captures, link := "", -1, name
	first := sub + 2
	for first < open && !s.Is(first, ":") {
		first = s.Close(first) + 1
	}
	// A colon stands before the first attribute and may stand before others.
	for k := first + 1; k < open; k = s.Close(k) + 1 {
		if !s.IsIdent(k) {
			continue
		}
		value, given := "", false
		if s.Match(k+1, "(", syntax.Quoted) {
			value, given = word(s.Text(k+2)), true
		}
		count := -1 // a number in parentheses
		if s.Match(k+1, "(", syntax.Figure) {
			count = min(int(s.Bytes(k + 2)[0]-'0'), 9)
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
			if count >= 0 {
				args = strings.Repeat("/:arg", count)
			}
		case "Chained":
			if chained = value; !given {
				chained = "/"
			}
		case "ChainedParent": // the action of the same name in the controller above
			chained = "../" + name
		case "PathPart":
			link = value
		case "PathPrefix":
			link = space
		case "CaptureArgs":
			captures = max(count, 0)
		case "GET", "POST", "PUT", "DELETE", "PATCH", "HEAD":
			method = s.Text(k)
		case "Method":
			method = value
		}
	}
	switch {
	case chained != "" && captures >= 0:
		// It answers nothing itself: others go on from it.
		r.f.Mounts = append(r.f.Mounts, model.MountFact{On: chainOf(space, chained), Path: link + strings.Repeat("/:capture", captures), Target: chainOf(space, name), Line: s.Line(sub)})
	case chained != "":
		syntax.AddRoute(r.f, nil, sub, model.RouteFact{Method: method, Pattern: link + args, Line: s.Line(sub), On: chainOf(space, chained), Handler: name})
	case found && args == "" || name == "default":
		// Without a number of them any arguments may follow; the default
		// action of a controller answers whatever nobody else does.
		if name == "default" {
			pattern = space
		}
		syntax.AddRoute(r.f, nil, sub, model.RouteFact{Method: method, Pattern: strings.TrimSuffix(pattern, "/") + "/{*args}", Line: s.Line(sub), Handler: name})
	case found:
		syntax.AddRoute(r.f, nil, sub, model.RouteFact{Method: method, Pattern: pattern + args, Line: s.Line(sub), Handler: name})
	}
}

// chainOf is the action that another goes on from, by its path below all
// controllers: named with a slash first it is that path, else it lies beside.
func chainOf(space, name string) string {
	if strings.HasPrefix(name, "/") {
		return model.Chain + strings.TrimPrefix(name, "/")
	}
	for strings.HasPrefix(name, "../") {
		space, name = path.Dir(space), strings.TrimPrefix(name, "../")
	}
	return model.Chain + strings.Trim(path.Join(space, name), "./")
}
