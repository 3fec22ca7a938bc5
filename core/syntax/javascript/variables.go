package javascript

import (
	"jantel/core/model"
	"jantel/core/syntax"
)

func (r *reader) bindings(d declaration) int {
	if r.s.Is(d.at+1, "enum") {
		if next := r.enumStatement(d, d.at+2); next > 0 {
			return next
		}
	}
	return r.variables(d.at, d.first, d.end, d.parent, d.exported)
}

// defaultValue reads what stands behind "export default": a name that is
// handed out, or a value without one.
func (r *reader) defaultValue(d declaration) int {
	last := r.statementEnd(d.at, d.end)
	if last <= d.at+1 {
		r.public[r.s.Text(d.at)] = true
		return last + 1
	}
	kind := r.functionKind("", d.at, last)
	if kind == model.DefFunction && !r.isFunction(d.at, last) {
		kind = model.DefConstant // a value that something else makes
	}
	r.define("default", d.parent, kind, d.first, last, true)
	return last + 1
}

// assignment reads "exports.name = …" and "module.exports = …".
func (r *reader) assignment(i, end int, parent string) int {
	s := r.s
	j := i
	for s.Match(j, syntax.Name, ".", syntax.Name) {
		j += 2
	}
	if v := namesExports(s, i); v > 0 && !s.Is(i, "(") {
		r.names["default"] = true
		return r.module(declaration{first: i, at: v, end: end, parent: parent, exported: true, isDefault: true}, r.statementEnd(v, end))
	}
	exports := s.Is(i, "exports") || s.Is(i, "module") && s.Is(i+2, "exports")
	if j == i || !exports || !s.Is(j+1, "=") || s.Is(j+2, "=") {
		if next := r.placed(i, j, end, parent); next > 0 && !exports {
			return next
		}
		return r.statementEnd(i, end) + 1
	}
	last := r.statementEnd(j+2, end)
	name := s.Text(j)
	if s.Any(j+2, "function", "async", "(") {
		d := r.define(name, parent, r.functionKind(name, j+2, last), i, last, true)
		d.Params = r.params(r.paramsOf(j+2, last))
	}
	r.names[name] = true
	return last + 1
}

// namesExports is where the value stands in "module.exports = …" at i, which may be
// in parentheses; 0 where no such thing is there.
func namesExports(s *syntax.Stream, i int) (value int) {
	if s.Is(i, "(") {
		i++
	}
	for from := i; ; {
		switch {
		case s.Match(i, "module", ".", "exports", "="):
			i += 4
		case s.Match(i, "exports", "="):
			i += 2
		case i > from:
			return i
		default:
			return 0
		}
	}
}

// calledAtOnce reports whether the function at i is called where it is written.
func calledAtOnce(s *syntax.Stream, i int) bool {
	for s.Any(i, "async", "function", "*") || s.IsIdent(i) {
		i++
	}
	return s.Is(i, "(") && s.Is(s.Close(i)+1, "{") && s.Is(s.Close(s.Close(i)+1)+1, "(")
}

// module reads what a file stands for as a whole, up to the token last.
func (r *reader) module(d declaration, last int) (next int) {
	s := r.s
	switch fn := s.Is(d.at, "function") || s.Match(d.at, "async", "function"); {
	case s.Is(d.at, "class"):
		r.class(d.at, d.first, d.parent, true)
	case fn && calledAtOnce(s, d.at): // what it gives stands for the module, and has no name
	case fn:
		if s.Is(d.at, "async") {
			d.at++
		}
		r.functionStatement(d)
	case r.isFunction(d.at, last):
		def := r.define("default", d.parent, r.functionKind("", d.at, last), d.first, last, true)
		def.Params = r.params(r.paramsOf(d.at, last))
	case s.Is(d.at, "{"):
		r.exportsObject(d.at, d.parent)
	case s.IsIdent(d.at) && last <= d.at+1:
		r.public[s.Text(d.at)] = true
	}
	return last + 1
}

// exportsObject reads "module.exports = { a, b, c() { … } }": what stands in it
// goes by its own name, as if it had been put on exports alone.
func (r *reader) exportsObject(open int, parent string) {
	s := r.s
	for k := open + 1; k < s.Close(open); k = s.Close(k) + 1 {
		if s.IsIdent(k) && s.Any(k-1, "{", ",") {
			r.public[s.Text(k)] = true
			r.names[s.Text(k)] = true
		}
	}
	from := len(r.f.Definitions)
	r.members(open, parent, true)
	for i := from; i < len(r.f.Definitions); i++ {
		d := &r.f.Definitions[i]
		d.Kind = model.DefFunction
		r.names[d.Name] = true
	}
}

func join(parent, name string) string {
	if parent == "" {
		return name
	}
	return parent + "." + name
}

// variables reads "const a = …, b = …", one binding after the other.
func (r *reader) variables(i, first, end int, parent string, exported bool) int {
	s := r.s
	kind := model.DefVariable
	if s.Is(i, "const") {
		kind = model.DefConstant
	}
	last := r.statementEnd(i+1, end)
	for j := i + 1; j <= last; {
		b := binding{first: j, at: j, parent: parent, kind: kind, exported: exported}
		if j == i+1 {
			b.first = first
		}
		stop := r.bindingEnd(j, last)
		b.last = stop - 1
		if b.last > j && s.Is(b.last, ";") {
			b.last--
		}
		switch {
		case s.Any(j, "{", "["):
			r.pattern(j, kind, parent, b.first, b.last, exported)
		case s.IsIdent(j):
			r.variable(b)
		}
		j = stop + 1
	}
	return last + 1
}

// binding is one name of a declaration with what it is set to.
type binding struct {
	first, at, last int
	parent          string
	kind            model.DefinitionKind
	exported        bool
}

// bindingEnd is the comma that ends the binding at i, behind last where none does.
func (r *reader) bindingEnd(i, last int) int {
	s := r.s
	for i <= last && !s.Is(i, ",") {
		if k := r.skipTypeArgs(i); k > i { // a comma between type arguments is none
			i = k
			continue
		}
		i = s.Close(i) + 1
	}
	return i
}

func (r *reader) variable(b binding) {
	s := r.s
	eq := b.at + 1
	for eq <= b.last && !s.Is(eq, "=") {
		eq = s.Close(eq) + 1
	}
	whole := namesExports(s, eq+1)
	if whole > 0 { // const rack = module.exports = …
		r.names["default"], r.public[s.Text(b.at)] = true, true
		eq = whole - 1
	}
	kind := b.kind
	if eq <= b.last {
		kind = r.valueKind(s.Text(b.at), eq+1, b.last, kind)
	}
	d := r.define(s.Text(b.at), b.parent, kind, b.first, max(b.last, b.at), b.exported)
	if whole > 0 && s.Is(whole, "{") {
		r.exportsObject(whole, b.parent)
		return
	}
	if s.Is(eq+1, "{") && s.Close(eq+1) <= b.last {
		r.members(eq+1, join(b.parent, s.Text(b.at)), b.exported)
		return
	}
	switch kind {
	case model.DefFunction, model.DefComponent:
		d.Params = r.params(r.paramsOf(eq+1, b.last))
	case model.DefClass:
		for c := eq + 1; c <= b.last; c++ {
			if s.Is(c, "{") {
				r.classBody(c, join(b.parent, s.Text(b.at)))
				return
			}
		}
	}
}

// pattern defines the names a destructuring pattern binds.
func (r *reader) pattern(open int, kind model.DefinitionKind, parent string, first, last int, exported bool) {
	s := r.s
	for k := open + 1; k < s.Close(open); {
		switch {
		case s.IsIdent(k) && (s.Any(k+1, ",", "}", "]", "=")):
			r.define(s.Text(k), parent, kind, first, last, exported)
			if s.Is(k+1, "=") {
				for k++; k < s.Close(open) && !s.Is(k, ","); k = s.Close(k) + 1 {
				}
			}
		case (s.Any(k, "{", "[")) && !s.Is(k-1, "="):
			r.pattern(k, kind, parent, first, last, exported)
		}
		k = s.Close(k) + 1
	}
}

var wrappers = map[string]bool{"memo": true, "forwardRef": true, "observer": true, "lazy": true}

// valueKind is the kind of a variable by what it is set to.
func (r *reader) valueKind(name string, i, end int, kind model.DefinitionKind) model.DefinitionKind {
	s := r.s
	switch {
	case s.Is(i, "class"):
		return model.DefClass
	case r.isFunction(i, end):
		return r.functionKind(name, i, end)
	}
	call := i
	for s.Match(call, syntax.Name, ".") {
		call += 2
	}
	if s.IsIdent(call) && wrappers[s.Text(call)] && upper(name) {
		return model.DefComponent
	}
	return kind
}

// isFunction reports whether the expression from i to end is a function or an
// arrow function.
func (r *reader) isFunction(i, end int) bool {
	s := r.s
	if s.Is(i, "async") {
		i++
	}
	if s.Is(i, "function") {
		return true
	}
	i = r.skipTypeArgs(i)
	if s.Match(i, syntax.Name, "=>") {
		return true
	}
	if !s.Is(i, "(") {
		return false
	}
	for k := s.Close(i) + 1; k <= end; k = s.Close(k) + 1 {
		switch {
		case s.Is(k, "=>"):
			return true
		case s.Any(k, ":", syntax.Name, "<", ">", ".", "|", "&", "[", "{", syntax.Quoted, ","):
		default:
			return false
		}
	}
	return false
}

func (r *reader) paramsOf(i, end int) int {
	for ; i <= end && !r.s.Is(i, "("); i++ {
		if r.s.Is(i, "=>") {
			return end + 1
		}
	}
	return i
}

func upper(name string) bool { return name != "" && name[0] >= 'A' && name[0] <= 'Z' }
