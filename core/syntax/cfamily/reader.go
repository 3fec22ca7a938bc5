package cfamily

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// scope is what a run of declarations lies in.
type scope struct {
	parent   string
	class    string // the type's simple name, "" outside of one
	exported bool
}

func (r *reader) items(i, end int, in scope) {
	for i < end {
		i = max(r.item(i, end, &in), i+1)
	}
}

func (r *reader) add(in scope, parent, name string, kind model.DefinitionKind, first, last int) *model.Definition {
	r.f.Definitions = append(r.f.Definitions, model.Definition{
		Name: name, Parent: parent, Kind: kind, Line: r.s.Line(first), EndLine: r.s.EndLine(last),
		Exported: in.exported,
	})
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
var attributes = syntax.Set(
	"__attribute__", "__attribute", "__declspec", "alignas", "decltype", "noexcept", "throw", "_Alignas", "__asm__",
	"asm", "typeof", "__typeof__", "explicit", "requires",
)

// statements are words that start no declaration.
var statements = syntax.Set(
	"return", "if", "for", "while", "switch", "do", "goto", "case", "else", "sizeof", "delete", "new", "throw",
	"static_assert", "_Static_assert",
)

// item reads one declaration, or steps over what is none.
func (r *reader) item(i, end int, in *scope) int {
	s := r.s
	if r.text(i) || s.Is(i, ";") {
		return i + 1
	}
	first, i, after := r.prefix(i, end, in)
	if after > 0 {
		return after
	}
	if i >= end {
		return i
	}
	decl := *in
	switch w := s.Text(i); {
	case w == "namespace":
		return r.namespace(first, i, end, *in)
	case w == "using":
		return r.named(first, i, end, model.DefType, s.Match(i+1, syntax.Name, "="), *in)
	case w == "typedef":
		return r.typedef(first, i, end, *in)
	case w == "concept" && s.IsIdent(i+1):
		return r.named(first, i, end, model.DefOther, true, *in)
	case w == "friend" && r.hasBody(i, end):
		// A function of the namespace around, written in the class.
		out, _ := cutLast(in.parent)
		return r.declaration(first, i+1, end, scope{parent: out, exported: true})
	case w == "friend", statements[w]:
		return r.statement(i, end)
	case labels[w] && r.isLabel(i, *in):
		in.exported = w == "public" || w == "signals" || w == "slots" && in.exported || w == "Q_SIGNALS"
		if s.Is(i+1, ":") {
			return i + 2
		}
		return i + 3
	case w == "static" && in.class == "":
		decl.exported = false
	}
	return r.declaration(first, i, end, decl)
}

func (r *reader) isLabel(i int, in scope) bool {
	return in.class != "" && (r.s.Is(i+1, ":") || r.s.Is(i+2, ":") && !r.s.Is(i+2, "("))
}

// named defines the name behind the word at i, for a declaration that its
// semicolon ends.
func (r *reader) named(first, i, end int, kind model.DefinitionKind, is bool, in scope) int {
	last := r.stop(i, end)
	if is {
		r.add(in, in.parent, r.s.Text(i+1), kind, first, last)
	}
	return last + 1
}

// prefix steps over what may stand before a declaration: directives, templates,
// attributes, "extern", macros on a line of their own. It gives where the
// declaration begins and where its first word stands; after is set where
// something else was read whole.
func (r *reader) prefix(i, end int, in *scope) (first, at, after int) {
	s := r.s
	for first = i; i < end; {
		switch {
		case r.text(i):
			i++
		case s.Is(i, "template"):
			k := r.angle(i+1, end)
			if k == i+1 {
				return first, i, r.statement(i, end)
			}
			if i = k; s.Is(i, "requires") {
				i = r.constraint(i+1, end)
			}
		case s.Match(i, "[", "["):
			i = s.Close(i) + 1
		case s.Match(i, "extern", syntax.Quoted, "{"):
			r.items(i+3, s.Close(i+2), *in)
			return first, i, s.Close(i+2) + 1
		case s.Match(i, "extern", syntax.Quoted):
			i += 2
		case s.Match(i, syntax.Name, syntax.Name) && s.Line(i+1) > s.Line(i) && shouted(s.Bytes(i)):
			i++ // a macro that stands as a line of its own
			first = i
		case s.Match(i, "inline", "namespace"), s.Match(i, "export", syntax.Name):
			i++
		default:
			return first, i, 0
		}
	}
	return first, i, 0
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
			for s.Match(i, ":", ":") {
				i += 3
			}
			i = r.angle(i, end)
		default:
			return i
		}
		if !(s.Match(i, "&", "&")) && !(s.Match(i, "|", "|")) {
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
		if r.s.Any(i, ";", "}") {
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
	for s.Any(j, syntax.Name, ":", "[") {
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
		inner.exported = false
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
	h := typeHead{enum: s.Is(i, "enum"), end: end, in: in}
	j := i + 1
	if h.enum && s.Any(j, "class", "struct") {
		j++
	}
	for j >= 0 && j < end && !s.Is(j, "{") {
		j = r.headPart(j, &h)
	}
	if j < 0 || j >= end {
		return 0, "", false
	}
	last := s.Close(j)
	if n := len(h.names); n > 0 {
		name = h.names[n-1]
	}
	parent := in.parent
	if name != "" {
		kind := model.DefClass
		if h.enum {
			kind = model.DefEnum
		}
		d := r.add(in, in.parent, name, kind, first, last)
		d.Bases = h.bases
		parent = d.Qualified()
	}
	if h.enum {
		r.enumerators(j+1, last, parent, in)
		return last + 1, name, true
	}
	simple := name[strings.LastIndex(name, ".")+1:]
	if simple == "" {
		simple = "-"
	}
	r.items(j+1, last, scope{parent: parent, class: simple, exported: !s.Is(i, "class")})
	return last + 1, name, true
}

// typeHead is what stands between the word of a type and its body.
type typeHead struct {
	enum         bool
	end          int
	in           scope
	names, bases []string
}

// headPart reads one part of a type's head and gives the token behind it, -1
// where it shows that no type is defined here.
func (r *reader) headPart(j int, h *typeHead) int {
	s := r.s
	switch {
	case r.text(j):
		return j + 1
	case s.Is(j, "["):
		return s.Close(j) + 1
	case s.Is(j, "<"):
		if k := r.angle(j, h.end); k > j {
			return k
		}
		return -1
	case s.Match(j, ":", ":"):
		return j + 2
	case s.Is(j, ":") && h.enum:
		return r.before(j, h.end)
	case s.Is(j, ":"):
		if len(h.names) == 0 || h.in.class != "" && s.Kind(j+1) == syntax.Number {
			return -1
		}
		return r.bases(j+1, h)
	case !s.IsIdent(j):
		return -1
	case attributes[s.Text(j)], s.Is(j+1, "("):
		if len(h.names) > 0 && !attributes[s.Text(j)] {
			return -1 // a function that returns such a type
		}
		if s.Is(j+1, "(") {
			return s.Close(j+1) + 1
		}
	case s.Is(j, "final") && len(h.names) > 0:
	case s.Match(j-2, ":", ":") && len(h.names) > 0:
		h.names[len(h.names)-1] += "." + s.Text(j)
	default:
		h.names = append(h.names, s.Text(j))
	}
	return j + 1
}

// before is the brace that opens a body at or behind j, -1 where the statement
// ends first.
func (r *reader) before(j, end int) int {
	for ; j < end && !r.s.Is(j, "{"); j++ {
		if r.s.Is(j, ";") {
			return -1
		}
	}
	return j
}

// bases reads what a class builds upon, up to its body; -1 where the statement
// ends first.
func (r *reader) bases(j int, h *typeHead) int {
	s := r.s
	for j < h.end && !s.Is(j, "{") {
		switch {
		case s.Any(j, ";", "("):
			return -1
		case s.IsIdent(j) && !labels[s.Text(j)] && !s.Is(j, "virtual"):
			base := s.Text(j)
			for j++; s.Match(j, ":", ":", syntax.Name); j += 3 {
				base += "." + s.Text(j+2)
			}
			h.bases = append(h.bases, base)
			j = r.angle(j, h.end)
		default:
			j++
		}
	}
	return j
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
	for s.Any(j, "const", "volatile") {
		j++
	}
	if typeWords[s.Text(j)] {
		if after, _, ok := r.typeAt(j, j, end, in); ok {
			j = after
		}
	}
	last := r.stop(j, end)
	for k := j; k < last; k = s.Close(k) + 1 {
		name := k
		switch n := r.next(k); {
		case s.IsIdent(k) && (n == last || s.Any(n, ",", "[")):
		case s.IsIdent(k) && s.Is(n, "(") && r.next(s.Close(n)) >= last && !s.Any(n+1, "*", "^"):
		case s.Is(k, "(") && s.Is(s.Close(k)+1, "("):
			// A pointer to a function has its name in the first parentheses.
			for name = s.Close(k) - 1; name > k && !s.IsIdent(name); name-- {
			}
			if name == k {
				name = -1
			}
			k = s.Close(k) + 1
		default:
			continue
		}
		if name >= 0 {
			r.add(in, in.parent, s.Text(name), model.DefType, first, last)
		}
	}
	return last + 1
}

// declaration reads a type, a function or variables.
