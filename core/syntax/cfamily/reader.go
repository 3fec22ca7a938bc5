package cfamily

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// scope is what a run of declarations lies in.
type scope struct {
	parent string
	class  string // the type's simple name, "" outside of one
	shown  bool
}

func (r *reader) items(i, end int, in scope) {
	for i < end {
		i = max(r.item(i, end, &in), i+1)
	}
}

func (r *reader) add(in scope, parent, name string, kind model.DefinitionKind, first, last int) *model.Definition {
	r.f.Definitions = append(r.f.Definitions, model.Definition{Name: name, Parent: parent, Kind: kind, Line: r.s.Line(first), EndLine: r.s.EndLine(last), Exported: in.shown})
	if in.class == "" {
		r.names[name] = true
	}
	return &r.f.Definitions[len(r.f.Definitions)-1]
}

// text is whether token i is a directive, which stands anywhere and means
// nothing here.
func (r *reader) text(i int) bool { return r.s.Kind(i) == syntax.Text }

// next is the index of the first token behind i that is no directive.
func (r *reader) next(i int) int {
	for i++; r.text(i); i++ {
	}
	return i
}

// angle steps over <…> at i; where it is no list of types it returns i.
func (r *reader) angle(i, end int) int {
	s := r.s
	if !s.Is(i, "<") {
		return i
	}
	depth := 0
	for k := i; k < end && k < i+2000; k++ {
		switch string(s.Bytes(k)) {
		case "<":
			depth++
		case ">":
			if s.Is(k-1, "-") && s.Tokens[k-1].End == s.Tokens[k].Start {
				continue
			}
			if depth--; depth == 0 {
				return k + 1
			}
		case "(", "[":
			k = s.Close(k)
		case ";", "{", "}":
			return i
		}
	}
	return i
}

var labels = syntax.Set("public", "private", "protected", "signals", "slots", "Q_SIGNALS")

// skipped are calls before a name that belong to the declaration.
var attributes = syntax.Set("__attribute__", "__attribute", "__declspec", "alignas", "decltype", "noexcept", "throw", "_Alignas", "__asm__", "asm", "typeof", "__typeof__", "explicit", "requires")

// statements are words that start no declaration.
var statements = syntax.Set("return", "if", "for", "while", "switch", "do", "goto", "case", "else", "sizeof", "delete", "new", "throw", "static_assert", "_Static_assert")

func (r *reader) item(i, end int, in *scope) int {
	s := r.s
	if r.text(i) || s.Is(i, ";") {
		return i + 1
	}
	first := i
	hidden := false
	for i < end {
		switch {
		case r.text(i):
			i++
			continue
		case s.Is(i, "template"):
			k := r.angle(i+1, end)
			if k == i+1 {
				return r.statement(i, end)
			}
			i = k
			if s.Is(i, "requires") {
				i = r.constraint(i+1, end)
			}
			continue
		case s.Is(i, "[") && s.Is(i+1, "["):
			i = s.Close(i) + 1
			continue
		case s.Is(i, "extern") && s.Kind(i+1) == syntax.String:
			if s.Is(i+2, "{") {
				r.items(i+3, s.Close(i+2), *in)
				return s.Close(i+2) + 1
			}
			i += 2
			continue
		case s.IsIdent(i) && s.Line(i+1) > s.Line(i) && s.IsIdent(i+1) && shouted(s.Bytes(i)):
			i++ // a macro that stands as a line of its own
			first = i
			continue
		case s.Is(i, "inline") && s.Is(i+1, "namespace"), s.Is(i, "export") && s.IsIdent(i+1):
			i++
			continue
		}
		break
	}
	if i >= end {
		return i
	}
	w := s.Text(i)
	switch {
	case w == "namespace":
		return r.namespace(first, i, end, *in)
	case w == "using":
		last := r.stop(i, end)
		if s.IsIdent(i+1) && s.Is(i+2, "=") {
			r.add(*in, in.parent, s.Text(i+1), model.DefType, first, last)
		}
		return last + 1
	case w == "typedef":
		return r.typedef(first, i, end, *in)
	case w == "concept" && s.IsIdent(i+1):
		last := r.stop(i, end)
		r.add(*in, in.parent, s.Text(i+1), model.DefOther, first, last)
		return last + 1
	case w == "friend" && r.hasBody(i, end):
		// A function of the namespace around, written in the class.
		out, _ := cutLast(in.parent)
		return r.declaration(first, i+1, end, scope{parent: out, shown: true})
	case w == "friend", statements[w]:
		return r.statement(i, end)
	case labels[w] && in.class != "" && (s.Is(i+1, ":") || s.Is(i+2, ":")) && !s.Is(i+2, "("):
		in.shown = w == "public" || w == "signals" || w == "slots" && in.shown || w == "Q_SIGNALS"
		if s.Is(i+1, ":") {
			return i + 2
		}
		return i + 3
	case w == "static" && in.class == "":
		hidden = true
	}
	decl := *in
	decl.shown = in.shown && !hidden
	return r.declaration(first, i, end, decl)
}

// shouted reports whether a word is written in capitals, as macros are.
func shouted(w []byte) bool {
	letters := 0
	for _, c := range w {
		if c >= 'a' && c <= 'z' {
			return false
		}
		if c >= 'A' && c <= 'Z' {
			letters++
		}
	}
	return letters > 3
}

// constraint steps over the condition after "requires".
func (r *reader) constraint(i, end int) int {
	s := r.s
	for i < end {
		switch {
		case s.Is(i, "("):
			i = s.Close(i) + 1
		case s.IsIdent(i):
			i++
			for s.Is(i, ":") && s.Is(i+1, ":") {
				i += 3
			}
			i = r.angle(i, end)
		default:
			return i
		}
		if !(s.Is(i, "&") && s.Is(i+1, "&")) && !(s.Is(i, "|") && s.Is(i+1, "|")) {
			return i
		}
		i += 2
	}
	return i
}

// stop is the index of the semicolon that ends the statement at i, or of the
// brace that closes what holds it.
func (r *reader) stop(i, end int) int {
	for ; i < end; i = r.s.Close(i) + 1 {
		if r.s.Is(i, ";") || r.s.Is(i, "}") {
			return i
		}
	}
	return max(end-1, 0)
}

// statement steps over what is no declaration.
func (r *reader) statement(i, end int) int {
	for ; i < end; i = r.s.Close(i) + 1 {
		if r.s.Is(i, ";") {
			return i + 1
		}
		if r.s.Is(i, "{") {
			return r.s.Close(i) + 1
		}
	}
	return i
}

func (r *reader) namespace(first, i, end int, in scope) int {
	s := r.s
	j := i + 1
	var names []string
	for s.IsIdent(j) || s.Is(j, ":") || s.Is(j, "[") {
		if s.IsIdent(j) && !s.Is(j, "inline") && !s.Is(j+1, "(") {
			names = append(names, s.Text(j))
		}
		j = s.Close(j) + 1
	}
	if !s.Is(j, "{") {
		return r.stop(j, end) + 1
	}
	last := s.Close(j)
	inner := in
	if len(names) == 0 {
		inner.shown = false
	} else {
		d := r.add(in, in.parent, strings.Join(names, "."), model.DefNamespace, first, last)
		inner.parent = d.Qualified()
	}
	r.items(j+1, last, inner)
	return last + 1
}

var typeWords = syntax.Set("struct", "class", "union", "enum")

// typeAt reads a type with a body whose word stands at i. It returns the index
// behind the body and what was defined; ok is false where none is.
func (r *reader) typeAt(first, i, end int, in scope) (after int, name string, ok bool) {
	s := r.s
	w := s.Text(i)
	j := i + 1
	if w == "enum" && (s.Is(j, "class") || s.Is(j, "struct")) {
		j++
	}
	var names []string
	var bases []string
	for j < end && !s.Is(j, "{") {
		switch {
		case r.text(j):
			j++
		case s.IsIdent(j) && s.Is(j+1, "(") && len(names) > 0 && !attributes[s.Text(j)]:
			return 0, "", false // a function that returns such a type
		case s.IsIdent(j) && (s.Is(j+1, "(") || attributes[s.Text(j)]):
			j++
			if s.Is(j, "(") {
				j = s.Close(j) + 1
			}
		case s.Is(j, "["):
			j = s.Close(j) + 1
		case s.IsIdent(j):
			if !s.Is(j, "final") || len(names) == 0 {
				if s.Is(j-1, ":") && s.Is(j-2, ":") && len(names) > 0 {
					names[len(names)-1] += "." + s.Text(j)
				} else {
					names = append(names, s.Text(j))
				}
			}
			j++
		case s.Is(j, "<"):
			k := r.angle(j, end)
			if k == j {
				return 0, "", false
			}
			j = k
		case s.Is(j, ":") && s.Is(j+1, ":"):
			j += 2
		case s.Is(j, ":"):
			if w == "enum" {
				for j < end && !s.Is(j, "{") {
					if s.Is(j, ";") {
						return 0, "", false
					}
					j++
				}
				continue
			}
			if len(names) == 0 || in.class != "" && s.Kind(j+1) == syntax.Number {
				return 0, "", false
			}
			for j++; j < end && !s.Is(j, "{"); {
				switch {
				case s.Is(j, ";"), s.Is(j, "("):
					return 0, "", false
				case s.IsIdent(j) && !labels[s.Text(j)] && !s.Is(j, "virtual"):
					base := s.Text(j)
					j++
					for s.Is(j, ":") && s.Is(j+1, ":") && s.IsIdent(j+2) {
						base += "." + s.Text(j+2)
						j += 3
					}
					bases = append(bases, base)
					j = r.angle(j, end)
				default:
					j++
				}
			}
		default:
			return 0, "", false
		}
	}
	if j >= end {
		return 0, "", false
	}
	last := s.Close(j)
	if len(names) > 0 {
		name = names[len(names)-1]
	}
	parent := in.parent
	if name != "" {
		kind := model.DefClass
		if w == "enum" {
			kind = model.DefEnum
		}
		d := r.add(in, in.parent, name, kind, first, last)
		d.Bases = bases
		parent = d.Qualified()
	}
	if w == "enum" {
		r.enumerators(j+1, last, parent, in)
	} else {
		simple := name[strings.LastIndex(name, ".")+1:]
		if simple == "" {
			simple = "-"
		}
		r.items(j+1, last, scope{parent: parent, class: simple, shown: w != "class"})
	}
	return last + 1, name, true
}

func (r *reader) enumerators(i, end int, parent string, in scope) {
	s := r.s
	for i < end {
		if !s.IsIdent(i) {
			i = s.Close(i) + 1
			continue
		}
		at := i
		for i < end && !s.Is(i, ",") {
			i = s.Close(i) + 1
		}
		last := i - 1
		for last > at && r.text(last) {
			last--
		}
		r.add(in, parent, s.Text(at), model.DefConstant, at, last)
		i++
	}
}

func (r *reader) typedef(first, i, end int, in scope) int {
	s := r.s
	j := i + 1
	for s.Is(j, "const") || s.Is(j, "volatile") {
		j++
	}
	if typeWords[s.Text(j)] {
		if after, _, ok := r.typeAt(j, j, end, in); ok {
			j = after
		}
	}
	last := r.stop(j, end)
	for k := j; k < last; k = s.Close(k) + 1 {
		if !s.IsIdent(k) && !s.Is(k, "(") {
			continue
		}
		n := r.next(k)
		switch {
		case s.IsIdent(k) && (n == last || s.Is(n, ",") || s.Is(n, "[")):
			r.add(in, in.parent, s.Text(k), model.DefType, first, last)
		case s.IsIdent(k) && s.Is(n, "(") && r.next(s.Close(n)) >= last && !s.Is(n+1, "*") && !s.Is(n+1, "^"):
			r.add(in, in.parent, s.Text(k), model.DefType, first, last)
		case s.Is(k, "(") && s.Is(s.Close(k)+1, "("):
			// A pointer to a function has its name in the first parentheses.
			for m := s.Close(k) - 1; m > k; m-- {
				if s.IsIdent(m) {
					r.add(in, in.parent, s.Text(m), model.DefType, first, last)
					break
				}
			}
			k = s.Close(k) + 1
		}
	}
	return last + 1
}

// declaration reads a type, a function or variables.
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
			if s.Is(j, "(") && s.Is(j+1, ")") && s.Is(j+2, "(") {
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
			if k := paren + 2; s.IsIdent(k) && s.Is(k+1, "(") && s.Is(r.next(s.Close(after)), "{") {
				last = s.Close(r.next(s.Close(after)))
				r.add(in, in.parent, s.Text(k), model.DefFunction, first, last).Params = len(s.Args(k + 1))
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
		case s.Is(j, "="), s.Is(j, ";"):
			last := r.stop(j, end)
			r.variables(first, i, last, in, s.Is(i, "extern") || s.Is(j, ";") && s.Is(j-1, ")"))
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
		case s.IsIdent(i), s.Is(i, "*"), s.Is(i, "&"), s.Is(i, ":"), s.Is(i, "~"):
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
		if s.Is(k, "}") || s.Is(k, "=") {
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
		case s.Is(i, ";"), s.Is(i, "}"), s.Is(i, ","), s.Is(i, "="):
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
		case s.Is(i, "-") && s.Is(i+1, ">"):
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
	for k := at; k-2 > 0 && s.Is(k-1, ":") && s.Is(k-2, ":"); {
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
		for s.Is(last+1, "catch") && s.Is(last+2, "(") && s.Is(s.Close(last+2)+1, "{") {
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
	for _, a := range s.Args(paren) {
		if a[1]-a[0] != 1 || !s.Is(a[0], "void") {
			d.Params++
		}
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
		if s.Is(k, "const") || s.Is(k, "constexpr") {
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
			plain := n >= last || s.Is(n, ",") || s.Is(n, "=") || s.Is(n, "[") || s.Is(n, ":") && !s.Is(n+1, ":") || s.Is(n, "{")
			if s.Is(k-1, "}") && strings.HasPrefix(s.Text(k), "__") {
				k = n // an attribute behind the body of a type
				continue
			}
			if plain && (words > 1 || s.Is(k-1, "*") || s.Is(k-1, "&") || s.Is(k-1, ",") || s.Is(k-1, ">") || s.Is(k-1, "}")) {
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
