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

// declaration reads a type, a function or variables. What it is shows in the
// first sign behind its words.
func (r *reader) declaration(first, i, end int, in scope) int {
	s := r.s
	if after := r.typeAmong(first, i, end, in); after > 0 {
		return after
	}
	for j := i; j < end; j++ {
		switch {
		case r.text(j):
		case s.Is(j, "="), r.isColon(j) && in.class != "" && j > i+1: // a value, or a field of so many bits
			last := r.stop(j, end)
			r.variables(first, i, last, in, false)
			return last + 1
		case s.Is(j, ";"):
			r.variables(first, i, j, in, s.Is(i, "extern"))
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
		case s.Is(j, "}"), r.isColon(j):
			return j + 1
		case s.Is(j, "("):
			return r.parenthesis(first, i, j, end, in)
		case s.Is(j, "operator"):
			if paren := r.operatorParen(j, end); paren > 0 { // else a name, in C
				return r.function(first, paren, end, in, operatorName(r, paren))
			}
		}
	}
	return end
}

// isColon reports whether a single colon stands at j.
func (r *reader) isColon(j int) bool {
	return r.s.Is(j, ":") && !r.s.Is(j+1, ":") && !r.s.Is(j-1, ":")
}

// typeAmong reads a type with its body among the first words of a declaration,
// and the variables that may follow it; it gives the token behind, 0 where
// there is none.
func (r *reader) typeAmong(first, i, end int, in scope) int {
	s := r.s
	for j := i; j < end && s.IsIdent(j) && !s.Is(j+1, "("); j++ {
		if !typeWords[string(s.Bytes(j))] {
			continue
		}
		after, _, ok := r.typeAt(first, j, end, in)
		if !ok {
			return 0
		}
		last := r.stop(after, end)
		if last > after {
			r.variables(first, after, last, in, false)
		}
		return last + 1
	}
	return 0
}

// operatorParen is where the parameters of the operator named at j open, 0
// where no parenthesis is near.
func (r *reader) operatorParen(j, end int) int {
	s := r.s
	k := j + 1
	for k < end && k < j+16 && !s.Any(k, "(", ";") {
		k++
	}
	if !s.Is(k, "(") {
		return 0
	}
	if s.Match(k, "(", ")", "(") {
		return k + 2
	}
	return k
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

// parenthesis decides what the first parenthesis of a declaration opens: what
// belongs to an attribute or a macro, a name, or the parameters of a function.
func (r *reader) parenthesis(first, i, paren, end int, in scope) int {
	s := r.s
	closing := s.Close(paren)
	if closing == paren {
		return paren + 1
	}
	after := r.next(closing)
	before := paren - 1
	switch {
	case before == i && in.class == "" && r.registered(i, paren, in):
		return closing + 1
	case s.IsIdent(before) && attributes[s.Text(before)]:
		// It tells of the declaration; go on behind it.
		return r.rest(first, i, closing+1, end, in)
	case !s.IsIdent(before), s.Is(paren+1, "*") && s.Is(after, "("):
		return r.nameInParens(first, i, paren, end, in)
	case before == i && r.isMacroLine(paren, end, in):
		return closing + 1
	case before == i && in.class != "" && s.Text(before) != in.class && r.body(after, end) < 0:
		return r.stop(after, end) + 1 // a macro that makes a field
	case r.untyped(i, before) && r.nameFollows(after, end) && !r.oldStyle(paren, end):
		return r.rest(first, i, after, end, in) // MACRO(int) name(…)
	}
	return r.function(first, paren, end, in, s.Text(before))
}

// isMacroLine reports whether the call that a declaration begins with is a
// macro that stands as a line of its own.
func (r *reader) isMacroLine(paren, end int, in scope) bool {
	s := r.s
	closing := s.Close(paren)
	after := r.next(closing)
	if s.Line(after) <= s.EndLine(closing) || s.Is(after, "{") {
		return false
	}
	if in.class == "" {
		return !s.Is(after, ":") && !r.oldStyle(paren, end)
	}
	return s.Text(paren-1) != in.class && !s.Is(paren-2, "~")
}

// nameInParens reads a pointer to a function, or a name in parentheses.
func (r *reader) nameInParens(first, i, paren, end int, in scope) int {
	s := r.s
	closing := s.Close(paren)
	after := r.next(closing)
	last := r.stop(after, end)
	if s.Is(after, "(") && s.Is(paren+1, "*") {
		// int (*name(int))(char): a function that returns a pointer to one.
		if k, open := paren+2, r.next(s.Close(after)); s.Match(k, syntax.Name, "(") && s.Is(open, "{") {
			last = s.Close(open)
			r.add(in, in.parent, s.Text(k), model.DefFunction, first, last).Params = s.Params(k + 1)
			return last + 1
		}
		r.pointer(first, i, paren, last, in)
	}
	if k := r.body(after, end); k >= 0 && !s.Is(after, "=") {
		return s.Close(k) + 1
	}
	return last + 1
}

// pointer defines the variable whose name is the last in the parentheses.
func (r *reader) pointer(first, i, paren, last int, in scope) {
	s := r.s
	k := s.Close(paren) - 1
	for k > paren && !s.IsIdent(k) {
		k--
	}
	if k == paren || !s.Is(last, ";") || s.Is(i, "extern") {
		return
	}
	kind := model.DefVariable
	if in.class != "" {
		kind = model.DefProperty
	}
	r.add(in, in.parent, s.Text(k), kind, first, last)
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
		case r.isColon(i):
			return r.behindInitialisers(i+1, end)
		case s.Match(i, "-", ">"):
			for i += 2; i < end && !s.Any(i, "{", ";"); {
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

// behindInitialisers is the brace that opens a body behind "name(…)" or
// "name{…}", with commas between; -1 where there is none.
func (r *reader) behindInitialisers(i, end int) int {
	s := r.s
	for i < end {
		for i < end && !s.Any(i, "(", "{", ";") {
			i = max(r.angle(i, end), i+1)
		}
		if i >= end || s.Is(i, ";") {
			return -1
		}
		i = s.Close(i) + 1
		for s.Is(i, ".") || r.text(i) {
			i++
		}
		switch {
		case s.Is(i, "{"):
			return i
		case s.Is(i, ";"):
			return -1
		}
		i++
	}
	return -1
}

// function reads a function whose parameters open at paren.
func (r *reader) function(first, paren, end int, in scope, name string) int {
	s := r.s
	after := r.next(s.Close(paren))
	open := r.bodyOf(paren, end)
	if open < 0 && in.class == "" {
		r.f.Declared++
		return r.stop(after, end) + 1
	}
	// = default, = delete and = 0 end with the semicolon.
	last := r.stop(after, end)
	if open >= 0 {
		last = s.Close(open)
		for s.Match(last+1, "catch", "(") && s.Is(s.Close(last+2)+1, "{") {
			last = s.Close(s.Close(last+2) + 1)
		}
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
	parent, kind := in.parent, model.DefFunction
	if owners := r.owners(first, at); len(owners) > 0 {
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

// bodyOf is the brace that opens the body of a function whose parameters open
// at paren, -1 without one.
func (r *reader) bodyOf(paren, end int) int {
	s := r.s
	closing := s.Close(paren)
	if !r.oldStyle(paren, end) {
		return r.body(r.next(closing), end)
	}
	for k := closing + 1; k < end; k = s.Close(k) + 1 {
		if s.Is(k, "{") {
			return k
		}
	}
	return -1
}

// owners are the types and namespaces written before the name at at:
// "Owner::Inner::name", "Owner<T>::name".
func (r *reader) owners(first, at int) (owners []string) {
	s := r.s
	for k := at; k-2 > 0 && s.Match(k-2, ":", ":"); {
		if k -= 3; s.Is(k, ">") {
			k = r.angleStart(k, first) - 1
		}
		if !s.IsIdent(k) {
			break
		}
		owners = append([]string{s.Text(k)}, owners...)
	}
	return owners
}

// angleStart is the "<" that the ">" at k closes, first where there is none.
func (r *reader) angleStart(k, first int) int {
	depth := 0
	for ; k > first; k-- {
		if r.s.Is(k, ">") {
			depth++
		} else if r.s.Is(k, "<") {
			if depth--; depth == 0 {
				break
			}
		}
	}
	return k
}

// variables reads the names that a declaration without parameters gives.
func (r *reader) variables(first, i, last int, in scope, declared bool) {
	s := r.s
	if declared || last <= i || r.has(i, last, "using") || in.class != "" && r.has(i, last, "extern") {
		return
	}
	kind := r.variableKind(i, last, in)
	words := 0
	for k := i; k < last; {
		switch {
		case r.text(k):
			k++
		case s.IsIdent(k):
			if !typeWords[string(s.Bytes(k))] {
				words++
			}
			n := r.next(k)
			switch {
			case s.Is(k-1, "}") && strings.HasPrefix(s.Text(k), "__"):
				k = n // an attribute behind the body of a type
			case r.endsName(n, last) && (words > 1 || s.Any(k-1, "*", "&", ",", ">", "}")):
				r.add(in, in.parent, s.Text(k), kind, first, last)
				k = r.comma(n, last)
			default:
				k = max(r.angle(n, last), n)
			}
		case s.Is(k, "="):
			k = r.comma(k, last)
		default:
			k = s.Close(k) + 1
		}
	}
}

// variableKind is a constant, a variable, or within a type a field.
func (r *reader) variableKind(i, last int, in scope) model.DefinitionKind {
	constant := r.has(i, last, "const") || r.has(i, last, "constexpr")
	switch {
	case in.class != "" && (!constant || !r.has(i, last, "static")):
		return model.DefProperty
	case constant:
		return model.DefConstant
	}
	return model.DefVariable
}

// endsName reports whether what stands at n ends the name of a variable.
func (r *reader) endsName(n, last int) bool {
	return n >= last || r.s.Any(n, ",", "=", "[", "{") || r.s.Is(n, ":") && !r.s.Is(n+1, ":")
}

// comma is the next one at or behind k, last without one.
func (r *reader) comma(k, last int) int {
	for k < last && !r.s.Is(k, ",") {
		k = r.s.Close(k) + 1
	}
	return k
}

func (r *reader) has(i, end int, word string) bool {
	for ; i < end && r.s.IsIdent(i); i++ {
		if r.s.Is(i, word) {
			return true
		}
	}
	return false
}
