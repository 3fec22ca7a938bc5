package javascript

import (
	"slices"

	"jantel/core/model"
	"jantel/core/syntax"
)

// Scripts of before there were modules. All of a file may stand within a function
// that is called at once, or that is handed to what loads or awaits the page: its
// body is then the top of the file. Types are functions whose members are put on
// their prototype, and names are put on an object that stands for a namespace.

// wrapped is a function whose body stands for the top of its file.
type wrapped struct {
	open int   // the brace its body opens with
	head int   // the bracket its parameters open with
	args []int // where what it is handed begins, as far as that is written beside it
}

// put is a function or an object that is put on something that has a name.
type put struct {
	owner, name string // name is "" for all that an object has
	at          int    // where it begins
	proto       bool   // it belongs to what the owner makes
}

// loaders are calls whose function is the body of a file.
var loaders = syntax.Set("define", "require", "requirejs", "$", "jQuery", "ready")

// everywhere are names of the object that holds all names of a page.
var everywhere = syntax.Set("window", "self", "global", "globalThis")

// wrapper reads a statement at i that only wraps the top of the file, and gives the
// token behind it; 0 where it is none.
func (r *reader) wrapper(i, end int, parent string) int {
	if r.typed {
		return 0
	}
	found := r.called(i)
	if len(found) == 0 {
		found = r.loaded(i, end)
	}
	if len(found) == 0 {
		return 0
	}
	last := r.statementEnd(i, end)
	if r.wraps == nil {
		r.wraps = map[int][]wrapped{}
	}
	r.wraps[i] = found
	r.f.Closed = true
	for _, w := range found {
		r.statements(w.open+1, r.s.Close(w.open), parent)
	}
	if r.s.Is(i, "define") && r.standsAt == 0 {
		r.given(found[len(found)-1])
	}
	return last + 1
}

// given finds what the function of a module gives, which stands for the module.
func (r *reader) given(w wrapped) {
	s := r.s
	for k := w.open + 1; k < s.Close(w.open); k = s.Close(k) + 1 {
		if s.Is(k, "return") {
			r.standsAt = k
		}
	}
	switch k := r.standsAt; {
	case k == 0:
	case s.Is(k+1, "{"):
		r.exportsObject(k+1, "")
	case s.IsIdent(k+1) && s.Any(k+2, ";", "}"):
		r.public[s.Text(k+1)] = true
	}
}

// functionAt is the function that is written at i, without arrows.
func (r *reader) functionAt(i int) (w wrapped, ok bool) {
	s := r.s
	if s.Is(i, "async") {
		i++
	}
	if !s.Is(i, "function") {
		return w, false
	}
	if i++; s.IsIdent(i) {
		i++
	}
	if !s.Is(i, "(") || !s.Is(s.Close(i)+1, "{") {
		return w, false
	}
	return wrapped{open: s.Close(i) + 1, head: i}, true
}

// called is a function that is called where it stands, "(function () { … })()" in
// any way to write that, with those that it is handed.
func (r *reader) called(i int) []wrapped {
	s := r.s
	at := i
	if s.Any(at, "!", "+", "-", "~", "void") {
		at++
	}
	in := at
	if s.Is(at, "(") {
		in++
	}
	w, ok := r.functionAt(in)
	if !ok || in == i {
		return nil
	}
	after := s.Close(w.open) + 1
	if in > at && s.Is(after, ")") {
		after++
	}
	if s.Match(after, ".", syntax.Name) {
		after += 2
	}
	if !s.Is(after, "(") {
		return nil
	}
	out := []wrapped{w}
	for _, a := range s.Args(after) {
		out[0].args = append(out[0].args, a[0])
		if f, ok := r.functionAt(a[0]); ok {
			out = append(out, f)
		}
	}
	return out
}

// loaded is the function that is handed to what loads a file or awaits the page.
func (r *reader) loaded(i, end int) (out []wrapped) {
	s := r.s
	for !s.Is(i, "(") || !loaders[s.Text(i-1)] {
		switch {
		case s.Match(i, syntax.Name, "."), s.Is(i, "."):
			i++
		case s.IsIdent(i) && s.Is(i+1, "("):
			if i++; !loaders[s.Text(i-1)] {
				return nil
			}
			continue
		default:
			return nil
		}
		if i >= end {
			return nil
		}
	}
	if s.Is(s.Close(i)+1, ".") { // $(document).ready(function …
		return r.loaded(s.Close(i)+1, end)
	}
	for _, a := range s.Args(i) {
		if f, ok := r.functionAt(a[0]); ok {
			out = append(out, f)
		} else if s.Is(a[0], "(") && s.Is(s.Close(a[0])+1, "=>") && s.Is(s.Close(a[0])+2, "{") {
			out = append(out, wrapped{open: s.Close(a[0]) + 2, head: a[0]})
		}
	}
	return out
}

// placed reads "Name.name = function …" and what is put on a prototype, where the
// names go from i to j; it gives the token behind it, 0 where it is neither.
func (r *reader) placed(i, j, end int, parent string) int {
	s := r.s
	if r.typed || j == i || !s.Is(j+1, "=") || s.Any(j+2, "=", ">") {
		return 0
	}
	names := []string{}
	for k := i; k <= j; k += 2 {
		if name := s.Text(k); k > i || !everywhere[name] {
			names = append(names, name)
		}
	}
	if names[0] == "this" {
		return 0
	}
	last := r.statementEnd(j+2, end)
	stop := last
	if s.Is(stop, ";") {
		stop--
	}
	p := put{name: names[len(names)-1], at: j + 2}
	rest := names[:len(names)-1]
	if n := len(rest); n > 0 && rest[n-1] == "prototype" {
		p.proto, rest = true, rest[:n-1]
	} else if p.name == "prototype" {
		p.proto, p.name = true, ""
	}
	if p.proto && len(rest) == 0 {
		return 0
	}
	p.owner = parent
	for _, name := range rest {
		p.owner = join(p.owner, name)
	}
	if !r.put(p, i, stop, last) {
		return 0
	}
	if r.puts == nil {
		r.puts = map[int]put{}
	}
	r.puts[i] = p
	return last + 1
}

// put defines what is put somewhere, from its first token to its last.
func (r *reader) put(p put, first, stop, last int) bool {
	s := r.s
	switch {
	case p.name == "" && s.Is(p.at, "{"):
		r.members(p.at, p.owner, true)
	case p.name == "":
		return false
	case p.proto && r.isFunction(p.at, stop):
		d := r.define(p.name, p.owner, model.DefMethod, first, last, true)
		d.Params = r.params(r.paramsOf(p.at, stop))
	case !p.proto && r.isFunction(p.at, stop):
		d := r.define(p.name, p.owner, r.functionKind(p.name, p.at, stop), first, last, p.owner != "")
		d.Params = r.params(r.paramsOf(p.at, stop))
	default:
		return false
	}
	return true
}

// members defines the functions of an object that has a name, or is put on a prototype.
func (r *reader) members(open int, owner string, exported bool) {
	s := r.s
	for _, m := range s.Args(open) {
		at, last := m[0], m[1]-1
		for s.Any(at, "async", "get", "set", "*") && !s.Any(at+1, ":", ",", "(") {
			at++
		}
		if !s.IsIdent(at) || !s.Is(at+1, "(") && (!s.Is(at+1, ":") || !r.isFunction(at+2, last)) {
			continue
		}
		d := r.define(s.Text(at), owner, model.DefMethod, m[0], last, exported)
		d.Params = r.params(r.paramsOf(at+1, last))
	}
}

// constructors makes types of the functions that something is put on the prototype
// of: each reaches down to the last of its members that follow it, and is made by
// what it was.
func (r *reader) constructors() {
	types := map[string]bool{}
	for _, p := range r.puts {
		if p.proto {
			types[p.owner] = true
		}
	}
	if len(types) == 0 {
		return
	}
	r.makes = map[string]bool{}
	var all []model.Definition
	defs := r.f.Definitions
	for i := range defs {
		d := &defs[i]
		if !types[d.Qualified()] || d.Kind != model.DefFunction && d.Kind != model.DefComponent {
			continue
		}
		made := *d
		made.Name, made.Parent, made.Kind = "constructor", d.Qualified(), model.DefMethod
		d.Kind, d.Params = model.DefClass, 0
		for j := i + 1; j < len(defs) && defs[j].Parent == d.Qualified(); j++ {
			d.EndLine = max(d.EndLine, defs[j].EndLine)
		}
		all = append(all, made)
		r.makes[made.Parent] = true
	}
	r.f.Definitions = append(defs, all...) // only now: those that are gone through may move
}

// wrapper walks the functions that stand for the top of the file: what they are
// handed goes by the names of their parameters.
func (w *walker) wrapper(i, end int) (next int) {
	found := w.r.wraps[i]
	if len(found) == 0 {
		return 0
	}
	s := w.s
	for _, f := range found {
		nodes := []int32{}
		for _, a := range f.args {
			node, _ := w.expr(a)
			nodes = append(nodes, node)
		}
		at := w.c.Open()
		for n, a := range s.Args(f.head) {
			node := none
			if n < len(nodes) && !slices.ContainsFunc(found, func(g wrapped) bool { return g.head > f.args[n] && g.head < f.args[n]+4 }) {
				node = nodes[n]
			}
			if u, ok := w.r.locals[s.Text(a[0])]; ok && u.Name == "*" && n >= len(nodes) {
				node = w.name(a[0]) // a loader hands it over
			}
			w.pattern(a[0], node)
		}
		w.statements(f.open+1, s.Close(f.open))
		w.c.Close(at)
	}
	return w.r.statementEnd(i, end) + 1
}

// placed walks what is put on something that has a name.
func (w *walker) placed(i int) (next int) {
	p, ok := w.r.puts[i]
	if !ok {
		return 0
	}
	if p.name == "" {
		w.literal(p.at, p.owner)
		return w.s.Close(p.at) + 1
	}
	class := w.class
	if p.proto {
		w.class = p.owner
	} else if of := join(p.owner, p.name); w.r.makes[of] {
		w.class, p.owner, p.name = of, of, "constructor"
	}
	next = w.functionValue(p.owner, p.name, p.at)
	w.class = class
	return next
}
