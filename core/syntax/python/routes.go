package python

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// makers are the calls whose result routes are declared on, with the keyword
// that gives them a prefix.
var makers = map[string]string{
	"Blueprint": "url_prefix", "APIRouter": "prefix", "Flask": "", "FastAPI": "", "Quart": "", "Starlette": "",
	"Sanic": "",
}

// routes finds the routes declared by decorators, by path() and re_path() in a
// list of addresses, and what is mounted below a prefix.
func (r *reader) routes() {
	s := r.s
	for i := range s.Tokens {
		if s.Tokens[i].Kind != syntax.Ident || !s.Is(i+1, "(") {
			continue
		}
		c := called{at: i, word: s.Text(i), args: s.Args(i + 1)}
		name, first := s.Dotted(i)
		if key, ok := makers[c.word]; ok && s.Match(first-2, syntax.Name, "=") {
			if p := r.keyword(c.args, key); key != "" && p != "" {
				r.f.Mounts = append(r.f.Mounts, model.MountFact{Path: p, Target: s.Text(first - 2), Line: s.Line(i)})
			}
			continue
		}
		if len(c.args) == 0 {
			continue
		}
		if name != c.word {
			c.on = strings.TrimSuffix(name, "."+c.word)
		}
		if read := routeCalls[c.word]; read != nil {
			read(r, c)
		} else if s.Is(first-1, "@") && c.on != "" {
			r.decorated(i, c.word, c.on, c.args)
		}
	}
}

// called is a call with arguments: the name, and what it is called on.
type called struct {
	at       int
	word, on string
	args     [][2]int
}

// routeCalls are those that declare routes, by their name.
var routeCalls = map[string]func(*reader, called){
	"include_router": (*reader).include, "register_blueprint": (*reader).include, "mount": (*reader).include,
	"path": (*reader).address, "re_path": (*reader).address, "url": (*reader).address,
	"add_url_rule": (*reader).rule,
}

// rule reads an address that is added by hand, with the view as the third argument
// or by its name.
func (r *reader) rule(c called) {
	path := r.text(c.args[0])
	if !strings.HasPrefix(path, "/") {
		return
	}
	var view [2]int
	for i, a := range c.args {
		if r.s.Match(a[0], "view_func", "=") {
			view = [2]int{a[0] + 2, a[1]}
		} else if i == 2 && !r.s.Match(a[0], syntax.Name, "=") {
			view = a
		}
	}
	name, class := r.view(view)
	methods := r.methods("route", c.args)
	if class {
		methods = []string{"ANY"} // by what the class answers to
	}
	for _, m := range methods {
		r.f.Routes = append(r.f.Routes, model.RouteFact{
			Method: m, Pattern: syntax.JoinRoute("", path), Line: r.s.Line(c.at), On: c.on, Handler: name,
		})
	}
}

// view is what an argument names as answering, a function or a class.
func (r *reader) view(a [2]int) (name string, class bool) {
	if a[0] >= a[1] {
		return "", false
	}
	if name = r.s.Name(a); name != "" {
		return name, false
	}
	for k := a[0]; k < a[1]; k++ {
		if r.s.Match(k-1, ".", "as_view") { // lots.as_view(): the class answers
			name, _ = r.s.Dotted(k - 2)
			return name, true
		}
	}
	return "", false
}

// include reads what hangs the routes of another module below a prefix.
func (r *reader) include(c called) {
	if c.on == "" {
		return
	}
	t, p := r.s.Name(c.args[0]), r.keyword(c.args, "prefix")+r.keyword(c.args, "url_prefix")
	if c.word == "mount" && len(c.args) > 1 {
		t, p = r.s.Name(c.args[1]), r.text(c.args[0])
	}
	if t != "" {
		r.f.Mounts = append(r.f.Mounts, model.MountFact{
			On: c.on, Path: p, Target: t, Line: r.s.Line(c.at), Instead: c.word == "register_blueprint",
		})
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
	name := r.below(i)
	for _, m := range r.methods(word, args) {
		r.f.Routes = append(r.f.Routes, model.RouteFact{
			Method: m, Pattern: syntax.JoinRoute("", path), Line: s.Line(i), On: on, Handler: name,
		})
	}
}

// methods are those that a decorator answers to.
func (r *reader) methods(word string, args [][2]int) []string {
	if m, ok := syntax.Methods[word]; ok {
		return []string{m}
	}
	if word != "route" && word != "api_route" {
		return nil
	}
	var all []string
	for _, a := range args {
		for k := a[0]; k < a[1] && r.s.Is(a[0], "methods"); k++ {
			if r.s.Kind(k) == syntax.String {
				all = append(all, strings.ToUpper(plain(r.s.Text(k))))
			}
		}
	}
	if len(all) == 0 {
		return []string{"GET"}
	}
	return all
}

// below is the name of what the decorator at i stands above.
func (r *reader) below(i int) string {
	s := r.s
	for k := s.Close(i+1) + 1; k < s.Len() && k < i+400; k++ {
		if s.Is(k, "(") {
			k = s.Close(k)
			continue
		}
		if s.Any(k, "def", "class") && s.IsIdent(k+1) {
			return s.Text(k + 1)
		}
	}
	return ""
}

// address reads one entry of a list of addresses: a view, or what is included
// below.
func (r *reader) address(c called) {
	s, args := r.s, c.args
	if c.on != "" || len(args) < 2 || s.Kind(args[0][0]) != syntax.String || args[0][1]-args[0][0] != 1 {
		return
	}
	list, prefix := r.listOf(c.at)
	p := r.pathAt(c.word, args[0][0])
	if prefix != "" {
		p = syntax.JoinRoute(prefix, p)
	}
	view := args[1]
	if s.Match(view[0], "include", "(") {
		if t := r.included(view[0] + 1); t != "" {
			r.f.Mounts = append(r.f.Mounts, model.MountFact{On: list, Path: p, Target: t, Line: s.Line(c.at)})
		}
		return
	}
	name, _ := r.view(view)
	r.f.Routes = append(r.f.Routes, model.RouteFact{
		Method: "ANY", Pattern: syntax.JoinRoute("", p), Line: s.Line(c.at), On: list, Handler: name,
	})
}

// addresses is what the list of addresses of a module is called, which others
// include by the module's name.
const addresses = "urlpatterns"

// listOf is what the list is called that an address stands in, and what stands
// before it: a list with a name of its own is included by it, one that is written
// where it is included lies below that address.
func (r *reader) listOf(at int) (name, prefix string) {
	s := r.s
	for k := at - 1; k >= 0; k-- {
		m := int(s.Tokens[k].Match)
		switch {
		case m >= 0 && m < k:
			k = m
		case m > at && s.Is(k, "[") && s.Is(k-1, "=") && s.IsIdent(k-2):
			return s.Text(k - 2), prefix
		case m > at && s.Is(k, "(") && s.Any(k-1, "path", "re_path", "url"):
			prefix = syntax.JoinRoute(r.pathAt(s.Text(k-1), k+1), prefix)
		case m < 0 && s.Kind(k) == syntax.Newline:
			return addresses, prefix
		}
	}
	return addresses, prefix
}

// pathAt is the address that a call begins with: a form of one where it is no path.
func (r *reader) pathAt(call string, at int) string {
	p := plain(r.s.Text(at))
	if call != "path" {
		p = strings.TrimSuffix(strings.TrimPrefix(p, "^"), "$")
	}
	return p
}

// included is what include(…) brings in: a list by its name, a module by its
// path, alone or first in a pair.
func (r *reader) included(open int) string {
	in := r.s.Args(open)
	if len(in) == 0 {
		return ""
	}
	if x := r.text(in[0]); x != "" {
		return "module:" + x
	}
	if r.s.Is(in[0][0], "(") {
		if x := r.s.Args(in[0][0]); len(x) > 0 {
			if name := r.s.Name(x[0]); name != "" {
				return name
			}
			return "module:" + r.text(x[0])
		}
	}
	return r.s.Name(in[0])
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
