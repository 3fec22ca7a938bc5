package perl

import (
	"path"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

var verbs = map[string]string{
	"get": "GET", "post": "POST", "put": "PUT", "patch": "PATCH", "del": "DELETE", "delete": "DELETE",
	"options": "OPTIONS", "any": "ANY", "websocket": "GET",
}

// route reads get '/path' => sub {…} and $r->get('/path')->to('lots#show').
func (r *reader) route(i int) {
	s := r.s
	fact := model.RouteFact{Method: verbs[s.Text(i)], Line: s.Line(i)}
	at := r.address(i)
	if s.Kind(at) != syntax.String {
		return
	}
	if fact.Pattern = word(s.Text(at)); !strings.HasPrefix(fact.Pattern, "/") {
		return
	}
	switch {
	case s.Match(i-2, "-", ">"):
		if s.Is(i+1, "(") {
			fact.Handler = r.namedBehind(s.Close(i+1) + 1)
		}
		if fact.Handler == "" {
			return
		}
	case r.starts(i) && s.Match(at+1, "=", ">"):
		fact.InPlace = s.Is(at+3, "sub")
		if s.Match(at+3, `\`, syntax.Name) {
			fact.Handler = strings.TrimPrefix(s.Text(at+4), "&")
		}
	default:
		return
	}
	syntax.AddRoute(r.f, nil, i, fact)
}

// address is the token that may be the address behind the verb at i.
func (r *reader) address(i int) int {
	s := r.s
	at := i + 1
	if s.Is(at, "(") {
		at++
	}
	if s.Is(at, "[") && s.Is(i, "any") { // any ['get', 'post'] => '/path'
		at = s.Close(at) + 1
		if s.Is(at, "=") {
			at += 2
		}
	}
	return at
}

// namedBehind is what ->to('controller#action') names in the rest of a statement.
func (r *reader) namedBehind(k int) (handler string) {
	s := r.s
	for ; k < s.Len() && !s.Is(k, ";"); k = s.Close(k) + 1 {
		if s.Match(k, "to", "(", syntax.Quoted) {
			handler = strings.ReplaceAll(word(s.Text(k+2)), "#", ".")
		}
	}
	return handler
}

// action reads the address in the attributes of a sub: Path, Local, Global.
func (r *reader) action(sub, open int, name, parent string) {
	s := r.s
	a := action{name: name, space: spaceOf(parent), method: "ANY", captures: -1, link: name}
	first := sub + 2
	for first < open && !s.Is(first, ":") {
		first = s.Close(first) + 1
	}
	// A colon stands before the first attribute and may stand before others.
	for k := first + 1; k < open; k = s.Close(k) + 1 {
		if read := attributes[s.Text(k)]; read != nil && s.IsIdent(k) {
			read(&a, r.attributeAt(k))
		}
	}
	line := s.Line(sub)
	fact := model.RouteFact{Method: a.method, Line: line, Handler: name}
	switch {
	case a.chained != "" && a.captures >= 0:
		// It answers nothing itself: others go on from it.
		r.f.Mounts = append(r.f.Mounts, model.MountFact{
			On: chainOf(a.space, a.chained), Path: a.link +
				strings.Repeat("/:capture", a.captures), Target: chainOf(a.space, name), Line: line,
		})
		return
	case a.chained != "":
		fact.Pattern, fact.On = a.link+a.args, chainOf(a.space, a.chained)
	case name == "default":
		// The default action of a controller answers whatever nobody else does.
		fact.Pattern = strings.TrimSuffix(a.space, "/") + "/{*args}"
	case a.found && a.args == "":
		// Without a number of them any arguments may follow.
		fact.Pattern = strings.TrimSuffix(a.pattern, "/") + "/{*args}"
	case a.found:
		fact.Pattern = a.pattern + a.args
	default:
		return
	}
	syntax.AddRoute(r.f, nil, sub, fact)
}

// action is what the attributes of a sub say of the addresses it answers to.
type action struct {
	name, space string // the sub, and what its controller's addresses start with
	method      string
	pattern     string
	found       bool   // an attribute gives it an address
	args        string // what follows the address
	chained     string // the action it goes on from
	link        string // its own part of a chain
	captures    int    // how many arguments a link of a chain takes, -1 where it ends one
}

// attribute is one attribute with what stands in its parentheses.
type attribute struct {
	name, value string
	given       bool
	count       int // -1 without a number
}

func (r *reader) attributeAt(k int) attribute {
	s := r.s
	a := attribute{name: s.Text(k), count: -1}
	if s.Match(k+1, "(", syntax.Quoted) {
		a.value, a.given = word(s.Text(k+2)), true
	}
	if s.Match(k+1, "(", syntax.Figure) {
		a.count = min(int(s.Bytes(k + 2)[0]-'0'), 9)
	}
	return a
}

var attributes = map[string]func(*action, attribute){
	"Path": func(a *action, at attribute) {
		a.found = true
		a.pattern = a.space + "/" + at.value
		if strings.HasPrefix(at.value, "/") {
			a.pattern = at.value
		}
	},
	"Local":  func(a *action, _ attribute) { a.found, a.pattern = true, a.space+"/"+a.name },
	"Global": func(a *action, _ attribute) { a.found, a.pattern = true, a.name },
	"Args": func(a *action, at attribute) {
		a.args = "/*"
		if at.count >= 0 {
			a.args = strings.Repeat("/:arg", at.count)
		}
	},
	"Chained": func(a *action, at attribute) {
		if a.chained = at.value; !at.given {
			a.chained = "/"
		}
	},
	// The action of the same name in the controller above.
	"ChainedParent": func(a *action, _ attribute) { a.chained = "../" + a.name },
	"PathPart":      func(a *action, at attribute) { a.link = at.value },
	"PathPrefix":    func(a *action, _ attribute) { a.link = a.space },
	"CaptureArgs":   func(a *action, at attribute) { a.captures = max(at.count, 0) },
	"Method":        func(a *action, at attribute) { a.method = at.value },
	"GET":           asMethod, "POST": asMethod, "PUT": asMethod, "DELETE": asMethod, "PATCH": asMethod, "HEAD": asMethod,
}

func asMethod(a *action, at attribute) { a.method = at.name }

// spaceOf is what a controller's name gives the addresses of its actions as
// their start.
func spaceOf(controller string) string {
	space := ""
	for _, part := range []string{"::Controller::", "::C::"} {
		if _, rest, ok := strings.Cut(controller, part); ok {
			space = strings.ToLower(strings.ReplaceAll(rest, "::", "/"))
		}
	}
	if space == "root" {
		return ""
	}
	return space
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
