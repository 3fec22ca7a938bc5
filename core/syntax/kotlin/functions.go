package kotlin

import (
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func (r *reader) function(h head, i, end int, parent string, local bool) int {
	s := r.s
	j := r.angle(i+1, end)
	// The name is the last word before the parentheses; what stands before it
	// is the type it is added to.
	name := -1
	for j < end && !(s.Is(j, "(") && name >= 0 && !s.Is(j+1, ")") || s.Is(j, "(") && name >= 0) {
		switch {
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
			return i + 1
		}
	}
	if name < 0 || !s.Is(j, "(") {
		return i + 1
	}
	kind := model.DefFunction
	if parent != "" && !local {
		kind = model.DefMethod
	}
	params := s.Params(j)
	last := s.Close(j)
	k := r.typeAfter(last+1, end)
	last = k - 1
	for s.Any(k, "where", ",") {
		for k++; k < end && (s.Any(k, syntax.Name, ":", ".", "<")) && s.Line(k) == s.Line(last); {
			k = max(r.angle(k, end), k+1)
		}
		last = k - 1
	}
	body := -1
	if s.Is(k, "{") {
		body, last = k, s.Close(k)
	} else if s.Is(k, "=") {
		body = k
		last = r.expression(k+1, end)
	}
	d := r.add(h, parent, r.name(name), kind, last)
	d.Params = params
	full := d.Qualified()
	if d.Name == "main" && parent == "" && r.f.Starts == 0 {
		r.f.Starts = d.Line
	}
	if body >= 0 {
		r.locals(body+1, last, full)
	}
	return last + 1
}

// typeAfter steps over ": Type" at i.
func (r *reader) typeAfter(i, end int) int {
	s := r.s
	if !s.Is(i, ":") {
		return i
	}
	i++
	for i < end {
		switch {
		case s.Is(i, "@"):
			i += 2
		case s.Any(i, "(", "suspend"):
			i = s.Close(i) + 1
		case s.Is(i, "<"):
			i = max(r.angle(i, end), i+1)
		case s.IsIdent(i) && !s.Is(i, "where") && (s.Line(i) == s.Line(i-1) || s.Any(i-1, ".", ":")) && !s.Is(i, "get") && !s.Is(i, "by"):
			i++
		case s.Any(i, "?", ".", "*", "&"):
			i++
		case s.Match(i, "-", ">"):
			i += 2
		default:
			return i
		}
	}
	return i
}

// goesOn are the signs and words with which a line can not begin a statement.
var goesOn = syntax.Set(".", "?", ":", "=", ")", "]", "}", ",", "&", "|", ">", "<", "/", "%", "else", "as", "is", "in", "catch", "finally", "{")

// open are the signs after which a line can not end.
var opens = syntax.Set("=", ".", ",", "+", "-", "*", "/", "%", "&", "|", ":", "<", "(", "[", "else", "as", "is", "in", "return", "by", "->", "?")

// expression returns the index of the last token of the expression at i: it
// goes over line ends only where the one before or the one after asks for it.
func (r *reader) expression(i, end int) int {
	s := r.s
	last := i
	for i < end {
		if s.Any(i, ";", ",", "}", ")") {
			break
		}
		if i > last && s.Line(i) > s.EndLine(last) {
			t := string(s.Bytes(i))
			before := string(s.Bytes(last))
			arrow := before == ">" && s.Is(last-1, "-")
			if !goesOn[t] && !opens[before] && !arrow || t == "{" && !opens[before] {
				head := before == ")" && r.condition(last)
				if !head {
					break
				}
			}
			if s.Match(last-1, "+", "+") || s.Match(last-1, "-", "-") {
				break
			}
		}
		last = s.Close(i)
		i = last + 1
	}
	return min(last, max(end-1, 0))
}

// condition reports whether the parenthesis that closes at i belongs to an if,
// a for or a while, whose body may stand on the next line.
func (r *reader) condition(i int) bool {
	m := int(r.s.Tokens[i].Match)
	return m > 0 && (r.s.Any(m-1, "if", "for", "while", "when"))
}

func (r *reader) value(h head, i, end int, parent string) int {
	s := r.s
	kind := model.DefVariable
	switch {
	case h.constant:
		kind = model.DefConstant
	case parent != "":
		kind = model.DefProperty
	}
	j := r.angle(i+1, end)
	var names []int
	if s.Is(j, "(") { // taken apart
		for k := j + 1; k < s.Close(j); k++ {
			if s.IsIdent(k) && (s.Any(k-1, "(", ",")) {
				names = append(names, k)
			}
		}
		j = s.Close(j) + 1
	} else {
		name := -1
		for j < end {
			if s.IsIdent(j) {
				name = j
				j++
				j = r.angle(j, end)
				if s.Is(j, "?") {
					j++
				}
				if s.Is(j, ".") {
					j++
					continue
				}
				break
			}
			if s.Any(j, "@", "(") {
				j = s.Close(j) + 1
				continue
			}
			if s.Is(j, ".") {
				j++
				continue
			}
			break
		}
		if name < 0 {
			return i + 1
		}
		names = append(names, name)
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
	bodies := [][2]int{{names[0], last}}
	// Accessors belong to the property.
	for k := j; k < end; {
		_, a := r.head(k, end)
		if s.Is(a, ";") && k == j {
			k++
			continue
		}
		if !s.Is(a, "get") && !s.Is(a, "set") || s.Any(a+1, ".", "=") {
			break
		}
		to := a
		b := a + 1
		if s.Is(b, "(") {
			to = s.Close(b)
			b = r.typeAfter(to+1, end)
			to = max(to, b-1)
		} else if k == a {
			break
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
	full := parent
	for _, n := range names {
		if s.Text(n) == "_" {
			continue
		}
		d := r.add(h, parent, r.name(n), kind, last)
		full = d.Qualified()
	}
	for _, b := range bodies {
		r.locals(b[0], b[1], full)
	}
	return last + 1
}

// locals reads the functions and types declared inside a body.
func (r *reader) locals(i, end int, parent string) {
	s := r.s
	for i < end {
		switch {
		case s.Is(i, "fun") && (s.Any(i+1, syntax.Name, "<")), s.Match(i, "class", syntax.Name) && !s.Is(i-1, ":"), s.Match(i, "interface", syntax.Name):
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

// inside looks for SQL and for routes declared by calls with a block.
func (r *reader) inside() {
	s := r.s
	var spans []syntax.Span
	for i := range s.Tokens {
		if s.Tokens[i].Kind == syntax.String {
			continue
		}
		if s.Match(i, "route", "(", syntax.Quoted) && s.Is(s.Close(i+1)+1, "{") {
			open := s.Close(i+1) + 1
			spans = append(spans, syntax.Span{First: open, Last: s.Close(open), Prefix: s.Unquote(i + 2)})
		}
		if verbs[string(s.Bytes(i))] && s.IsIdent(i) && !s.Is(i-1, ".") && s.Is(i+1, "(") {
			if s.Kind(i+2) == syntax.String && s.Close(i+1) == i+3 && s.Is(i+4, "{") {
				syntax.AddRoute(r.f, spans, i, model.RouteFact{Method: strings.ToUpper(s.Text(i)), Pattern: s.Unquote(i + 2), Line: s.Line(i)})
			}
		} else if len(spans) > 0 && verbs[string(s.Bytes(i))] && s.Is(i+1, "{") {
			syntax.AddRoute(r.f, spans, i, model.RouteFact{Method: strings.ToUpper(s.Text(i)), Line: s.Line(i)})
		}
	}
}
