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
	whole := alsoExports(s, eq+1)
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
