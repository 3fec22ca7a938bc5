package javascript

import (
	"jantel/core/model"
	"jantel/core/syntax"
)

// controllerMarks are decorators of a class whose methods answer routes.
var controllerMarks = syntax.Set("Controller", "RestController", "JsonController", "RootLevelController")

// verbMarks are decorators of a method that answers a route.
var verbMarks = map[string]string{
	"Get": "GET", "Post": "POST", "Put": "PUT", "Patch": "PATCH", "Delete": "DELETE", "All": "ANY", "Head": "HEAD",
	"Options": "OPTIONS", "Sse": "GET",
}

// controllers reads the classes whose decorators say what they answer:
// @Controller('lots') above a class, @Get(':id') above its methods.
func (r *reader) controllers() {
	s := r.s
	for i := range s.Tokens {
		if s.Tokens[i].Kind != syntax.Ident || !s.Is(i-1, "@") || !s.Is(i+1, "(") || !controllerMarks[s.Text(i)] {
			continue
		}
		c := controller{}
		if c.class, c.body = r.classBelow(s.Close(i+1) + 1); c.body == 0 {
			continue
		}
		first := i - 1
		for first > 0 && s.Is(first-1, ")") && int(s.Tokens[first-1].Match) > 1 && s.Is(int(s.Tokens[first-1].Match)-2, "@") {
			first = int(s.Tokens[first-1].Match) - 2
		}
		c.guards = r.guardsOf(first, c.body)
		for _, c.prefix = range r.below(s.Args(i+1), "") {
			r.answersIn(c)
		}
	}
}

// controller is a class whose methods answer.
type controller struct {
	class, prefix string
	body          int
	guards        []string
}

// guardsOf are the guards that decorators between two tokens name.
func (r *reader) guardsOf(from, to int) (names []string) {
	s := r.s
	for m := from; m < to; m++ {
		if s.Is(m, "UseGuards") && s.Is(m-1, "@") && s.Is(m+1, "(") {
			for _, a := range s.Args(m + 1) {
				if n := s.Name(a); n != "" {
					names = append(names, n)
				}
			}
		}
	}
	return names
}

// classBelow is the class that decorators stand above, and the brace it begins
// with; 0 where none follows.
func (r *reader) classBelow(i int) (name string, open int) {
	s := r.s
	for ; i < s.Len(); i++ {
		switch {
		case s.Match(i, "@", syntax.Name, "("):
			i = s.Close(i + 2)
		case s.Match(i, "@", syntax.Name), s.Any(i, "export", "default", "abstract"):
			if s.Is(i, "@") {
				i++
			}
		case s.Match(i, "class", syntax.Name):
			for k := i + 2; k < s.Len() && k < i+60; k++ {
				if s.Is(k, "{") {
					return s.Text(i + 1), k
				}
			}
			return "", 0
		default:
			return "", 0
		}
	}
	return "", 0
}

// below are the paths that a decorator names: one text, a list of them, or the
// option "path"; "" where it names none.
func (r *reader) below(args [][2]int, none string) []string {
	s := r.s
	if len(args) == 0 {
		return []string{none}
	}
	at := args[0][0]
	switch {
	case s.Kind(at) == syntax.String:
		return []string{s.Unquote(at)}
	case s.Is(at, "["):
		var all []string
		for _, a := range s.Args(at) {
			if s.Kind(a[0]) == syntax.String {
				all = append(all, s.Unquote(a[0]))
			}
		}
		return all
	case s.Is(at, "{"):
		for _, pair := range s.Args(at) {
			if s.Match(pair[0], "path", ":") {
				return r.below([][2]int{{pair[0] + 2, pair[1]}}, none)
			}
		}
		return []string{none}
	}
	return nil // a constant: which path is not told
}

// answersIn reads the methods of a class that answer.
func (r *reader) answersIn(c controller) {
	s := r.s
	first := 0 // decorator of the member that comes next
	end := s.Close(c.body)
	for k := c.body + 1; k < end; k++ {
		switch {
		case s.Match(k, "@", syntax.Name):
			if first == 0 {
				first = k
			}
			if k++; s.Is(k+1, "(") {
				k = s.Close(k + 1)
			}
			continue
		case s.IsIdent(k) && s.Any(k+1, "(", "<"):
			if first > 0 {
				r.answersBy(c, first, k)
			}
			first = 0
			for k < end && !s.Any(k, "{", ";") { // past its head
				k = s.Close(k) + 1
			}
		case s.Any(k, ";", "}"):
			first = 0
		}
		k = s.Close(k)
	}
}

// answersBy keeps the routes that the decorators before a method say.
func (r *reader) answersBy(c controller, from, method int) {
	s := r.s
	guards := append(append([]string{}, c.guards...), r.guardsOf(from, method)...)
	for m := from + 1; m < method; m++ {
		verb := verbMarks[s.Text(m)]
		if verb == "" || !s.Is(m-1, "@") || !s.Is(m+1, "(") {
			continue
		}
		for _, path := range r.below(s.Args(m+1), "") {
			r.f.Routes = append(r.f.Routes, model.RouteFact{
				Method: verb, Pattern: syntax.JoinRoute(c.prefix, path), Line: s.Line(m), Handler: c.class + "." + s.Text(method), Guards: guards,
			})
		}
	}
}
