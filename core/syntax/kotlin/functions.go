package kotlin

import (
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func (r *reader) function(h head, i, end int, parent string, local bool) int {
	s := r.s
	name, paren := r.functionName(i+1, end)
	if name < 0 {
		return i + 1
	}
	kind := model.DefFunction
	if parent != "" && !local {
		kind = model.DefMethod
	}
	k := r.typeAfter(s.Close(paren)+1, end)
	last := k - 1
	for s.Any(k, "where", ",") {
		for k++; k < end && s.Any(k, syntax.Name, ":", ".", "<") && s.Line(k) == s.Line(last); {
			k = max(r.angle(k, end), k+1)
		}
		last = k - 1
	}
	body := -1
	if s.Is(k, "{") {
		body, last = k, s.Close(k)
	} else if s.Is(k, "=") {
		body, last = k, r.expression(k+1, end)
	}
	d := r.add(h, parent, r.name(name), kind, last)
	d.Params = s.Params(paren)
	full := d.Qualified()
	if d.Name == "main" && parent == "" && r.f.Starts == 0 {
		r.f.Starts = d.Line
	}
	if body >= 0 {
		r.locals(body+1, last, full)
	}
	return last + 1
}

// functionName finds the last word before the parameters, and where they open;
// what stands before it is the type it is added to. It is -1 where there is none.
func (r *reader) functionName(j, end int) (name, paren int) {
	s := r.s
	name = -1
	for j = r.angle(j, end); j < end; {
		switch {
		case s.Is(j, "(") && name >= 0:
			return name, j
		case s.IsIdent(j):
			name = j
			j++
		case s.Is(j, "<"):
			j = max(r.angle(j, end), j+1)
		case s.Is(j, "("):
			j = s.Close(j) + 1
		case s.Any(j, ".", "?", "@", "*"):
			j++
		default:
			return -1, j
		}
	}
	return -1, j
}

// typeAfter steps over ": Type" at i.
func (r *reader) typeAfter(i, end int) int {
	s := r.s
	if !s.Is(i, ":") {
		return i
	}
	for i++; i < end; {
		switch {
		case s.Is(i, "@"), s.Match(i, "-", ">"):
			i += 2
		case s.Any(i, "(", "suspend"):
			i = s.Close(i) + 1
		case s.Is(i, "<"):
			i = max(r.angle(i, end), i+1)
		case s.Any(i, "?", ".", "*", "&"), r.goesOnType(i):
			i++
		default:
			return i
		}
	}
	return i
}

// goesOnType reports whether the word at i belongs to a type: it stands on its
// line, and begins nothing else.
func (r *reader) goesOnType(i int) bool {
	s := r.s
	return s.IsIdent(i) && !s.Any(i, "where", "get", "by") && (s.Line(i) == s.Line(i-1) || s.Any(i-1, ".", ":"))
}

// goesOn are the signs and words with which a line can not begin a statement.
var goesOn = syntax.Set(
	".", "?", ":", "=", ")", "]", "}", ",", "&", "|", ">", "<", "/", "%", "else", "as", "is", "in", "catch",
	"finally", "{",
)

// open are the signs after which a line can not end.
var opens = syntax.Set(
	"=", ".", ",", "+", "-", "*", "/", "%", "&", "|", ":", "<", "(", "[", "else", "as", "is", "in", "return", "by",
	"->", "?",
)

// expression returns the index of the last token of the expression at i: it
// goes over line ends only where the one before or the one after asks for it.
func (r *reader) expression(i, end int) int {
	s := r.s
	last := i
	for i < end && !s.Any(i, ";", ",", "}", ")") {
		if i > last && s.Line(i) > s.EndLine(last) && !r.goesOver(last, i) {
			break
		}
		last = s.Close(i)
		i = last + 1
	}
	return min(last, max(end-1, 0))
}

// goesOver reports whether an expression goes on from the end of a line, at
// last, to the next, at i.
func (r *reader) goesOver(last, i int) bool {
	s := r.s
	if s.Match(last-1, "+", "+") || s.Match(last-1, "-", "-") {
		return false
	}
	before := string(s.Bytes(last))
	if opens[before] || before == ")" && r.condition(last) {
		return true
	}
	arrow := s.Match(last-1, "-", ">")
	return !s.Is(i, "{") && (arrow || goesOn[string(s.Bytes(i))])
}

// condition reports whether the parenthesis that closes at i belongs to an if,
// a for or a while, whose body may stand on the next line.
func (r *reader) condition(i int) bool {
	m := int(r.s.Tokens[i].Match)
	return m > 0 && (r.s.Any(m-1, "if", "for", "while", "when"))
}

// value reads a property or a variable whose word stands at i, with its value
// and its accessors.
func (r *reader) value(h head, i, end int, parent string) int {
	s := r.s
	kind := model.DefVariable
	switch {
	case h.constant:
		kind = model.DefConstant
	case parent != "":
		kind = model.DefProperty
	}
	names, j := r.valueNames(i, end)
	if names == nil && !s.Is(r.angle(i+1, end), "(") {
		return i + 1
	}
	j = r.typeAfter(j, end)
	last := j - 1
	if s.Any(j, "=", "by") {
		last = r.expression(j+1, end)
		j = last + 1
	}
	if len(names) == 0 {
		return j
	}
	bodies, last := r.accessors(j, end, [][2]int{{names[0], last}}, last)
	full := parent
	for _, n := range names {
		if !s.Is(n, "_") {
			full = r.add(h, parent, r.name(n), kind, last).Qualified()
		}
	}
	for _, b := range bodies {
		r.locals(b[0], b[1], full)
	}
	return last + 1
}

// valueNames are the names that the word at i declares: one, perhaps behind the
// type it is added to, or several that a value is taken apart into.
func (r *reader) valueNames(i, end int) (names []int, next int) {
	s := r.s
	j := r.angle(i+1, end)
	if s.Is(j, "(") {
		for k := j + 1; k < s.Close(j); k++ {
			if s.IsIdent(k) && s.Any(k-1, "(", ",") {
				names = append(names, k)
			}
		}
		return names, s.Close(j) + 1
	}
	for j < end {
		switch {
		case s.IsIdent(j):
			names = []int{j}
			j = r.angle(j+1, end)
			if s.Is(j, "?") {
				j++
			}
			if !s.Is(j, ".") {
				return names, j
			}
			j++
		case s.Any(j, "@", "("):
			j = s.Close(j) + 1
		case s.Is(j, "."):
			j++
		default:
			return names, j
		}
	}
	return names, j
}

// accessors adds the bodies of those that follow a property, which belong to
// it, and gives the last token of all.
func (r *reader) accessors(k, end int, bodies [][2]int, last int) ([][2]int, int) {
	s := r.s
	if _, a := r.head(k, end); s.Is(a, ";") {
		k++
	}
	for k < end {
		_, a := r.head(k, end)
		if !s.Any(a, "get", "set") || s.Any(a+1, ".", "=") || k == a && !s.Is(a+1, "(") {
			break
		}
		to, b := a, a+1
		if s.Is(b, "(") {
			to = s.Close(b)
			b = r.typeAfter(to+1, end)
			to = max(to, b-1)
		}
		switch {
		case s.Is(b, "{"):
			to = s.Close(b)
		case s.Is(b, "="):
			to = r.expression(b+1, end)
		}
		bodies = append(bodies, [2]int{b, to})
		last = to
		k = to + 1
	}
	return bodies, last
}

// locals reads the functions and types declared inside a body.
func (r *reader) locals(i, end int, parent string) {
	s := r.s
	for i < end {
		switch {
		case s.Is(i, "fun") && (s.Any(i+1, syntax.Name, "<")), s.Match(i, "class", syntax.Name) &&
			!s.Is(i-1, ":"), s.Match(i, "interface", syntax.Name):
			first := i
			for first > 0 && s.IsIdent(first-1) && modifiers[string(s.Bytes(first-1))] {
				first--
			}
			i = max(r.member(first, end, parent, true), i+1)
		case s.Is(i, "object") && (s.Any(i+1, ":", "{")):
			// The members of an object without a name belong to what holds it.
			k := i + 1
			for k < end && !s.Is(k, "{") && !s.Is(k, ";") {
				k = s.Close(k) + 1
			}
			i = max(s.Close(k)+1, i+1)
		default:
			i++
		}
	}
}

// mentions lists the names of types met in the code, and of functions that are
// called on nothing: both may lie in the same package without an import.
func (r *reader) mentions() []model.Mention {
	out := syntax.TypeMentions(r.s, common)
	s, seen := r.s, map[string]bool{}
	for i := range s.Tokens {
		if s.Tokens[i].Kind != syntax.Ident || !s.Is(i+1, "(") || s.Any(i-1, ".", "fun", "@") {
			continue
		}
		if c := s.Src[s.Tokens[i].Start]; c >= 'A' && c <= 'Z' || s.Line(i) != s.Line(i+1) {
			continue
		}
		if n := r.name(i); !seen[n] {
			seen[n] = true
			out = append(out, model.Mention{Name: n, Line: s.Line(i)})
		}
	}
	sort.Slice(out, func(i, j int) bool { return out[i].Name < out[j].Name })
	return out
}

var verbs = syntax.Set("get", "post", "put", "patch", "delete", "head", "options")

// inside looks for routes declared by calls with a block.
func (r *reader) inside() {
	s := r.s
	var spans []syntax.Span
	for i := range s.Tokens {
		if s.Match(i, "route", "(", syntax.Quoted) && s.Is(s.Close(i+1)+1, "{") {
			open := s.Close(i+1) + 1
			spans = append(spans, syntax.Span{First: open, Last: s.Close(open), Prefix: s.Unquote(i + 2)})
		}
		if s.Tokens[i].Kind != syntax.Ident || !verbs[string(s.Bytes(i))] {
			continue
		}
		fact := model.RouteFact{Method: strings.ToUpper(s.Text(i)), Line: s.Line(i), InPlace: true}
		if s.Is(i+1, "(") && !s.Is(i-1, ".") {
			if !s.Match(i+2, syntax.Quoted, ")", "{") {
				continue
			}
			fact.Pattern = s.Unquote(i + 2)
		} else if len(spans) == 0 || !s.Is(i+1, "{") {
			continue
		}
		syntax.AddRoute(r.f, spans, i, fact)
	}
}
