package javascript

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// class reads a class whose keyword is at i.
func (r *reader) class(i, first int, parent string, exported bool) int {
	s := r.s
	name, j := "default", i+1
	if s.IsIdent(j) && !s.Is(j, "extends") && !s.Is(j, "implements") {
		name = s.Text(j)
		j++
	}
	head := j
	for j < s.Len() && !s.Is(j, "{") {
		if k := r.skipTypeArgs(j); k > j {
			j = k
			continue
		}
		j = s.Close(j) + 1
	}
	if !s.Is(j, "{") {
		return i + 1
	}
	d := r.define(name, parent, model.DefClass, first, s.Close(j), exported)
	d.Bases = r.baseNames(head, j)
	if s.Match(first, "@", syntax.Name) {
		d.Marks = append(d.Marks, s.Text(first+1))
	}
	r.classBody(j, join(parent, name))
	return s.Close(j) + 1
}

// baseNames names what stands behind extends and implements.
func (r *reader) baseNames(i, end int) []string {
	s := r.s
	var out []string
	listening := false
	for i < end {
		switch {
		case s.Any(i, "extends", "implements", ","):
			listening = true
		case listening && s.IsIdent(i):
			name, first := s.Text(i), i
			for s.Match(i+1, ".", syntax.Name) {
				i += 2
				name = s.Text(i)
			}
			if i > first {
				r.built = append(r.built, model.Use{Kind: model.LinkInheritance, Module: s.Text(first), Name: name, Line: s.Line(first)})
			}
			out = append(out, name)
			listening = false
		}
		if k := r.skipTypeArgs(i); k > i {
			i = k
			continue
		}
		i = s.Close(i) + 1
	}
	return out
}

var memberWords = map[string]bool{
	"public": true, "private": true, "protected": true, "static": true, "readonly": true, "abstract": true,
	"override": true, "async": true, "declare": true, "get": true, "set": true, "accessor": true,
}

// classBody reads the members between the braces that open at i.
func (r *reader) classBody(open int, parent string) {
	s := r.s
	end := s.Close(open)
	for i := open + 1; i < end; {
		next := r.member(i, end, parent)
		if next <= i {
			next = s.Close(i) + 1
		}
		i = next
	}
}

// member reads the member of a class at i and gives the token behind it.
func (r *reader) member(i, end int, parent string) int {
	s := r.s
	m := classMember{first: i, end: end, parent: parent, public: true}
	i = r.skipDecorators(i)
	if s.Is(i, ";") {
		return i + 1
	}
	if s.Match(i, "static", "{") {
		return s.Close(i+1) + 1
	}
	for memberWords[string(s.Bytes(i))] && s.Any(i+1, syntax.Name, "[", "*", syntax.Quoted, syntax.Figure) {
		m.public = m.public && !s.Any(i, "private", "protected")
		i++
	}
	if s.Is(i, "*") {
		i++
	}
	switch {
	case s.Any(i, syntax.Name, syntax.Figure):
		m.name = s.Text(i)
	case s.Kind(i) == syntax.String:
		m.name = s.Unquote(i)
	case s.Is(i, "["):
		i = s.Close(i)
	default:
		return s.Close(i) + 1
	}
	m.public = m.public && !strings.HasPrefix(m.name, "#")
	j := i + 1
	if s.Any(j, "?", "!") {
		j++
	}
	if j = r.skipTypeArgs(j); s.Is(j, "(") {
		return r.methodMember(m, j)
	}
	return r.fieldMember(m, i, j)
}

// classMember is a member of a class as far as it is read; its name is "" where
// it is computed.
type classMember struct {
	first, end int
	parent     string
	name       string
	public     bool
}

func (r *reader) skipDecorators(i int) int {
	s := r.s
	for s.Is(i, "@") {
		i += 2
		for s.Is(i, ".") {
			i += 2
		}
		if s.Is(i, "(") {
			i = s.Close(i) + 1
		}
	}
	return i
}

// methodMember reads a method whose parameters open at open.
func (r *reader) methodMember(m classMember, open int) int {
	last := min(r.bodyEnd(open), m.end-1)
	last = r.beforeIndex(r.s.Close(open)+1, last)
	if m.name != "" {
		d := r.define(m.name, m.parent, model.DefMethod, m.first, last, m.public)
		d.Params = r.params(open)
		if !r.hasBody(last) {
			r.heads[len(r.f.Definitions)-1] = true
		}
	}
	return last + 1
}

// fieldMember reads a field whose name stands at i and whose type or value
// begins at j.
func (r *reader) fieldMember(m classMember, i, j int) int {
	s := r.s
	last := r.beforeIndex(j, r.statementEnd(i, m.end))
	if m.name == "" {
		return last + 1
	}
	for j <= last && !s.Is(j, "=") {
		j = s.Close(j) + 1
	}
	kind := model.DefProperty
	if j <= last && r.isFunction(j+1, last) {
		kind = model.DefMethod
	}
	stop := last
	if s.Is(stop, ";") && stop > i {
		stop--
	}
	r.define(m.name, m.parent, kind, m.first, max(stop, i), m.public)
	return last + 1
}

// beforeIndex cuts what a member's type seems to go on with where a bracket
// starts a line: there the next member begins.
func (r *reader) beforeIndex(from, last int) int {
	s := r.s
	for k := from; k <= last; k = s.Close(k) + 1 {
		if s.Any(k, "=", "{") {
			return last
		}
		if s.Is(k, "[") && k > from && s.Line(k) > s.EndLine(k-1) && r.endsValue(k-1) {
			return k - 1
		}
	}
	return last
}
