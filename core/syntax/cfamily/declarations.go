package cfamily

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// hasBody tells whether a body comes before the statement ends.
func (r *reader) hasBody(i, end int) bool {
	for ; i < end && !r.s.Is(i, ";"); i = r.s.Close(i) + 1 {
		if r.s.Is(i, "{") {
			return true
		}
	}
	return false
}

// cutLast parts a qualified name before its last part.
func cutLast(name string) (around, last string) {
	i := strings.LastIndexByte(name, '.')
	return name[:max(i, 0)], name[i+1:]
}

func (r *reader) declaration(first, i, end int, in scope) int {
	s := r.s
	for j := i; j < end; j++ {
		if typeWords[string(s.Bytes(j))] && s.IsIdent(j) {
			after, _, ok := r.typeAt(first, j, end, in)
			if !ok {
				break
			}
			// Names of variables may follow the body.
			last := r.stop(after, end)
			if last > after {
				r.variables(first, after, last, in, false)
			}
			return last + 1
		}
		if !s.IsIdent(j) || s.Is(j+1, "(") {
			break
		}
	}
	extern := s.Is(i, "extern")
	for j := i; j < end; j++ {
		switch {
		case r.text(j):
		case s.Is(j, "="):
			last := r.stop(j, end)
			r.variables(first, i, last, in, false)
			return last + 1
		case s.Is(j, ";"):
			r.variables(first, i, j, in, extern)
			return j + 1
		case s.Is(j, "["):
			j = s.Close(j)
		case s.Is(j, "<"):
			j = max(r.angle(j, end)-1, j)
		case s.Is(j, "{"):
			// int x{1}; or a block that belongs to a macro.
			if after := s.Close(j) + 1; s.IsIdent(j-1) && j-1 > i && s.Is(after, ";") && s.Line(j) == s.Line(j-1) {
				r.variables(first, i, j, in, false)
				return after + 1
			}
			return s.Close(j) + 1
		case s.Is(j, "}"):
			return j + 1
		case s.Is(j, "("):
			return r.parenthesis(first, i, j, end, in)
		case s.Is(j, ":") && !s.Is(j+1, ":") && !s.Is(j-1, ":"):
			if in.class != "" && j > i+1 { // a field of so many bits
				last := r.stop(j, end)
				r.variables(first, i, last, in, false)
				return last + 1
			}
			return j + 1
		case s.Is(j, "operator"):
			k := j + 1
			for k < end && k < j+16 && !s.Is(k, "(") && !s.Is(k, ";") {
				k++
			}
			if !s.Is(k, "(") { // a name, in C
				continue
			}
			j = k
			if s.Match(j, "(", ")", "(") {
				j += 2
			}
			return r.function(first, j, end, in, operatorName(r, j))
		}
	}
	return end
}

func operatorName(r *reader, paren int) string {
	k := paren - 1
	for k > 0 && !r.s.Is(k, "operator") {
		k--
	}
	var b strings.Builder
	for ; k < paren; k++ {
		if b.Len() > 0 && r.s.IsIdent(k) {
			b.WriteByte(' ')
		}
		b.Write(r.s.Bytes(k))
	}
	return b.String()
}

// parenthesis decides what the first parenthesis of a declaration opens.
func (r *reader) parenthesis(first, i, paren, end int, in scope) int {
	s := r.s
	closing := s.Close(paren)
	if closing == paren {
		return paren + 1
	}
	after := r.next(closing)
	before := paren - 1
	switch {
	case s.IsIdent(before) && attributes[s.Text(before)]:
		// It tells of the declaration; go on behind it.
		return r.rest(first, i, closing+1, end, in)
	case !s.IsIdent(before), s.Is(paren+1, "*") && s.Is(after, "("):
		// A pointer to a function, or a name in parentheses.
		last := r.stop(after, end)
		if s.Is(after, "(") && s.Is(paren+1, "*") {
			// int (*name(int))(char): a function that returns a pointer to one.
			if k := paren + 2; s.Match(k, syntax.Name, "(") && s.Is(r.next(s.Close(after)), "{") {
				last = s.Close(r.next(s.Close(after)))
				r.add(in, in.parent, s.Text(k), model.DefFunction, first, last).Params = s.Params(k + 1)
				return last + 1
			}
			for k := closing - 1; k > paren; k-- {
				if s.IsIdent(k) {
					kind := model.DefVariable
					if in.class != "" {
						kind = model.DefProperty
					}
					if s.Is(last, ";") && !s.Is(i, "extern") {
						r.add(in, in.parent, s.Text(k), kind, first, last)
					}
					break
				}
			}
		}
		if k := r.body(after, end); k >= 0 && !s.Is(after, "=") {
			return s.Close(k) + 1
		}
		return last + 1
	case before == i && in.class != "" && s.Text(before) != in.class && !s.Is(before-1, "~") && s.Line(after) > s.EndLine(closing) && !s.Is(after, "{"),
		before == i && in.class == "" && s.Line(after) > s.EndLine(closing) && !s.Is(after, "{") && !s.Is(after, ":") && !r.oldStyle(paren, end):
		return closing + 1 // a macro that stands as a line of its own
	case before == i && in.class != "" && s.Text(before) != in.class && r.body(after, end) < 0:
		return r.stop(after, end) + 1 // a macro that makes a field
	case r.untyped(i, before) && r.nameFollows(after, end) && !r.oldStyle(paren, end):
		return r.rest(first, i, after, end, in) // MACRO(int) name(…)
	}
	return r.function(first, paren, end, in, s.Text(before))
}

// rest goes on with a declaration behind something that belongs to it.
func (r *reader) rest(first, i, j, end int, in scope) int {
	s := r.s
	for ; j < end; j++ {
		switch {
		case s.Is(j, "("):
			return r.parenthesis(first, i, j, end, in)
		case s.Is(j, "["):
			j = s.Close(j)
		case s.Any(j, "=", ";"):
			last := r.stop(j, end)
			r.variables(first, i, last, in, s.Is(i, "extern") || s.Match(j-1, ")", ";"))
			return last + 1
		case typeWords[string(s.Bytes(j))]:
			if after, _, ok := r.typeAt(first, j, end, in); ok {
				return r.stop(after, end) + 1
			}
		case s.Is(j, "{"):
			return s.Close(j) + 1
		case s.Is(j, "}"):
			return j + 1
		}
	}
	return j
}

var storage = syntax.Set("static", "extern", "inline", "const", "constexpr", "virtual", "volatile", "__inline", "__inline__", "_Noreturn")

// untyped reports whether nothing before a name can be its type.
func (r *reader) untyped(i, name int) bool {
	for ; i < name; i++ {
		if !storage[r.s.Text(i)] && !r.text(i) {
			return false
		}
	}
	return true
}

var afterParameters = syntax.Set("const", "override", "final", "noexcept", "volatile", "throw", "requires", "try", "mutable")

// nameFollows reports whether another name with parentheses follows: then the
// first was a macro around the type.
func (r *reader) nameFollows(i, end int) bool {
	s := r.s
	if !s.IsIdent(i) && !s.Is(i, "*") && !s.Is(i, "&") || afterParameters[s.Text(i)] || attributes[s.Text(i)] {
		return false
	}
	for ; i < end; i++ {
		switch {
		case s.Is(i, "("):
			return s.IsIdent(i-1) && !attributes[s.Text(i-1)]
		case s.Any(i, syntax.Name, "*", "&", ":", "~"):
		case s.Is(i, "<"):
			k := r.angle(i, end)
			if k == i {
				return false
			}
			i = k - 1
		default:
			return false
		}
	}
	return false
}

// oldStyle reports whether types of parameters stand between the parentheses
// and the body, as C had it first.
func (r *reader) oldStyle(paren, end int) bool {
	s := r.s
	closing := s.Close(paren)
	if closing == paren+1 {
		return false
	}
	for k := paren + 1; k < closing; k++ {
		if odd := (k-paren)%2 == 1; odd && !s.IsIdent(k) || !odd && !s.Is(k, ",") {
			return false
		}
	}
	if !s.IsIdent(closing + 1) {
		return false
	}
	for k := closing + 1; k < end && k < closing+200; k = s.Close(k) + 1 {
		if s.Is(k, "{") {
			return s.Is(k-1, ";")
		}
		if s.Any(k, "}", "=") {
			return false
		}
	}
	return false
}

// body is the index of the brace that opens a body behind parameters, -1 where
// the declaration ends without one.
func (r *reader) body(i, end int) int {
	s := r.s
	for i < end {
		switch {
		case r.text(i):
			i++
		case s.Is(i, "{"):
			return i
		case s.Any(i, ";", "}", ",", "="):
			return -1
		case s.Is(i, ":") && !s.Is(i+1, ":") && !s.Is(i-1, ":"):
			// Initialisers: name(…) or name{…}, …
			for i++; i < end; {
				for i < end && !s.Is(i, "(") && !s.Is(i, "{") && !s.Is(i, ";") {
					if k := r.angle(i, end); k > i {
						i = k
						continue
					}
					i++
				}
				if s.Is(i, ";") || i >= end {
					return -1
				}
				i = s.Close(i) + 1
				for s.Is(i, ".") {
					i++
				}
				for r.text(i) {
					i++
				}
				if s.Is(i, "{") {
					return i
				}
				if !s.Is(i, ",") {
					if s.Is(i, ";") {
						return -1
					}
				}
				i++
			}
		case s.Match(i, "-", ">"):
			for i += 2; i < end && !s.Is(i, "{") && !s.Is(i, ";"); {
				if k := r.angle(i, end); k > i {
					i = k
					continue
				}
				i = s.Close(i) + 1
			}
		default:
			i = s.Close(i) + 1
		}
	}
	return -1
}

// function reads a function whose parameters open at paren.
func (r *reader) function(first, paren, end int, in scope, name string) int {
	s := r.s
	closing := s.Close(paren)
	after := r.next(closing)
	open := -1
	if r.oldStyle(paren, end) {
		for k := closing + 1; k < end; k = s.Close(k) + 1 {
			if s.Is(k, "{") {
				open = k
				break
			}
		}
	} else {
		open = r.body(after, end)
	}
	// The name may be that of a member of something.
	at := paren - 1
	if strings.HasPrefix(name, "operator") {
		for at > first && !s.Is(at, "operator") {
			at--
		}
	}
	if s.Is(at-1, "~") {
		at--
		name = "~" + name
	}
	var owners []string
	for k := at; k-2 > 0 && s.Match(k-2, ":", ":"); {
		k -= 3
		if s.Is(k, ">") { // Owner<T>::
			depth := 0
			for ; k > first; k-- {
				if s.Is(k, ">") {
					depth++
				} else if s.Is(k, "<") {
					if depth--; depth == 0 {
						break
					}
				}
			}
			k--
		}
		if !s.IsIdent(k) {
			break
		}
		owners = append([]string{s.Text(k)}, owners...)
	}
	last := open
	if open >= 0 {
		last = s.Close(open)
		for s.Match(last+1, "catch", "(") && s.Is(s.Close(last+2)+1, "{") {
			last = s.Close(s.Close(last+2) + 1)
		}
	} else {
		last = r.stop(after, end)
		// = default, = delete and = 0 end with the semicolon.
		if in.class == "" {
			return last + 1
		}
	}
	parent, kind := in.parent, model.DefFunction
	if len(owners) > 0 {
		parent, kind = strings.Join(owners, "."), model.DefMethod
		if in.parent != "" {
			parent = in.parent + "." + parent
		}
	} else if in.class != "" {
		kind = model.DefMethod
	}
	d := r.add(in, parent, name, kind, first, last)
	if !s.Is(paren+1, "void") || s.Close(paren) != paren+2 {
		d.Params = s.Params(paren)
	}
	if name == "main" && parent == "" && open >= 0 && r.f.Starts == 0 {
		r.f.Starts = d.Line
	}
	return last + 1
}

// variables reads the names that a declaration without parameters gives.
func (r *reader) variables(first, i, last int, in scope, declared bool) {
	s := r.s
	if declared || last <= i {
		return
	}
	kind := model.DefVariable
	for k := i; k < last && s.IsIdent(k); k++ {
		if s.Any(k, "const", "constexpr") {
			kind = model.DefConstant
		}
		if s.Is(k, "using") || s.Is(k, "extern") && in.class != "" {
			return
		}
	}
	if in.class != "" && kind == model.DefVariable || in.class != "" && !r.has(i, last, "static") {
		kind = model.DefProperty
	}
	words := 0
	for k := i; k < last; {
		switch {
		case r.text(k):
			k++
		case s.IsIdent(k):
			n := r.next(k)
			if !typeWords[string(s.Bytes(k))] {
				words++
			}
			plain := n >= last || s.Any(n, ",", "=", "[") || s.Is(n, ":") && !s.Is(n+1, ":") || s.Is(n, "{")
			if s.Is(k-1, "}") && strings.HasPrefix(s.Text(k), "__") {
				k = n // an attribute behind the body of a type
				continue
			}
			if plain && (words > 1 || s.Any(k-1, "*", "&", ",", ">", "}")) {
				r.add(in, in.parent, s.Text(k), kind, first, last)
				for k = n; k < last && !s.Is(k, ","); {
					k = s.Close(k) + 1
				}
				continue
			}
			k = n
			k = max(r.angle(k, last), k)
		case s.Is(k, "="):
			for k < last && !s.Is(k, ",") {
				k = s.Close(k) + 1
			}
		default:
			k = s.Close(k) + 1
		}
	}
}

func (r *reader) has(i, end int, word string) bool {
	for ; i < end && r.s.IsIdent(i); i++ {
		if r.s.Is(i, word) {
			return true
		}
	}
	return false
}
