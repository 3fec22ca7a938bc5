package javascript

import (
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
	if s.Is(first, "@") && s.IsIdent(first+1) {
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
		case s.Is(i, "extends"), s.Is(i, "implements"), s.Is(i, ","):
			listening = true
		case listening && s.IsIdent(i):
			name, first := s.Text(i), i
			for s.Is(i+1, ".") && s.IsIdent(i+2) {
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

var memberWords = map[string]bool{"public": true, "private": true, "protected": true, "static": true, "readonly": true, "abstract": true, "override": true, "async": true, "declare": true, "get": true, "set": true, "accessor": true}

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

func (r *reader) member(i, end int, parent string) int {
	s := r.s
	first := i
	public := true
	for s.Is(i, "@") {
		i += 2
		for s.Is(i, ".") {
			i += 2
		}
		if s.Is(i, "(") {
			i = s.Close(i) + 1
		}
	}
	if s.Is(i, ";") {
		return i + 1
	}
	if s.Is(i, "static") && s.Is(i+1, "{") {
		return s.Close(i+1) + 1
	}
	for memberWords[string(s.Bytes(i))] && (s.IsIdent(i+1) || s.Is(i+1, "[") || s.Is(i+1, "*") || s.Kind(i+1) == syntax.String || s.Kind(i+1) == syntax.Number) {
		if s.Is(i, "private") || s.Is(i, "protected") {
			public = false
		}
		i++
	}
	if s.Is(i, "*") {
		i++
	}
	name := ""
	switch {
	case s.IsIdent(i), s.Kind(i) == syntax.Number:
		name = s.Text(i)
	case s.Kind(i) == syntax.String:
		name = s.Unquote(i)
	case s.Is(i, "["):
		i = s.Close(i)
	default:
		return r.s.Close(i) + 1
	}
	if name != "" && name[0] == '#' {
		public = false
	}
	j := i + 1
	if s.Is(j, "?") || s.Is(j, "!") {
		j++
	}
	j = r.skipTypeArgs(j)
	if s.Is(j, "(") {
		last := r.bodyEnd(j)
		if last >= end {
			last = end - 1
		}
		last = r.beforeIndex(s.Close(j)+1, last)
		if name != "" {
			d := r.define(name, parent, model.DefMethod, first, last, public)
			d.Params = r.params(j)
			if !r.hasBody(last) {
				r.heads[len(r.f.Definitions)-1] = true
			}
		}
		return last + 1
	}
	last := r.beforeIndex(j, r.statementEnd(i, end))
	if name != "" {
		kind := model.DefProperty
		for k := j; k <= last; k = s.Close(k) + 1 {
			if s.Is(k, "=") {
				if r.isFunction(k+1, last) {
					kind = model.DefMethod
				}
				break
			}
		}
		stop := last
		if s.Is(stop, ";") && stop > i {
			stop--
		}
		r.define(name, parent, kind, first, max(stop, i), public)
	}
	return last + 1
}

// beforeIndex cuts what a member's type seems to go on with where a bracket
// starts a line: there the next member begins.
func (r *reader) beforeIndex(from, last int) int {
	s := r.s
	for k := from; k <= last; k = s.Close(k) + 1 {
		if s.Is(k, "=") || s.Is(k, "{") {
			return last
		}
		if s.Is(k, "[") && k > from && s.Line(k) > s.EndLine(k-1) && r.endsValue(k-1) {
			return k - 1
		}
	}
	return last
}
