// Package typed walks the bodies of languages that write the type before the
// name: "Shelf shelf = vault.find(box);". What such a statement declares is told
// by trying: a type, then a name, then what ends or goes on behind one.
package typed

import (
	"jantel/core/model"
	"jantel/core/syntax"
	"slices"
	"strconv"
)

// Dialect is in which words these languages differ.
type Dialect struct {
	Base      string          // the word for what a class is built upon
	Inferred  map[string]bool // words that stand for a type that is told by the value
	Modifiers map[string]bool
	Types     map[string]bool // words that begin a type with a body
	Lists     map[string]bool // types that hold many of their argument
	Maps      map[string]bool // types that hold many of their second one
	Same      map[string]bool // types that hold one of their argument
	Over      map[string]bool // members that hand each element to a function
	Plain     map[string]bool // words that are no name of anything
	// Bracketed: marks stand in square brackets.
	Bracketed bool
	// Counted: of several functions of a name that one is called which takes so many
	// arguments.
	Counted bool
	// Statements may stand at the top of a file.
	Statements bool
	// Holes are the parts of a text that are code, by their tokens.
	Holes func(text []byte, line int) []*syntax.Stream
}

const none = syntax.None

type walker struct {
	s      *syntax.Stream
	c      *syntax.Chains
	d      *Dialect
	class  string
	handed int32
	bounds map[string]int32 // parameters of the types around, with what they have to be
}

// Walk walks a file.
func Walk(s *syntax.Stream, d *Dialect) {
	w := &walker{s: s, c: s.Chains(), d: d, handed: none, bounds: map[string]int32{}}
	w.c.In = syntax.ByLine
	w.members(0, s.Len())
}

func join(parent, name string) string {
	if parent == "" {
		return name
	}
	return parent + "." + name
}

func (w *walker) members(i, end int) {
	if !w.c.Deeper() {
		return
	}
	defer w.c.Shallower()
	for i < end {
		i = max(w.member(i, end), i+1)
	}
}

// marks steps over annotations and attributes, and reads what they name.
func (w *walker) marks(i int) int {
	s := w.s
	for {
		switch {
		case !w.d.Bracketed && s.Is(i, "@") && s.IsIdent(i+1) && !s.Is(i+1, "interface"):
			for i += 2; s.Is(i, ".") && s.IsIdent(i+1); i += 2 {
			}
			if s.Is(i, "(") {
				w.inside(i)
				i = s.Close(i) + 1
			}
		case w.d.Bracketed && s.Is(i, "["):
			i = s.Close(i) + 1
		default:
			return i
		}
	}
}

// member walks one declaration of a file or a type.
func (w *walker) member(i, end int) (next int) {
	s := w.s
	i = w.marks(i)
	for w.d.Modifiers[string(s.Bytes(i))] && (s.IsIdent(i+1) || s.Any(i+1, "<", "@", "[", "~", "(")) {
		i++
		i = w.marks(i)
	}
	switch {
	case s.Is(i, "{"):
		return w.block(i)
	case s.Is(i, "<"):
		i = w.args(i)
	case s.Any(i, "import", "package", "using"):
		return w.toEnd(i, end)
	case s.Is(i, "namespace"):
		for i < end && !s.Any(i, "{", ";") {
			i++
		}
		if s.Is(i, "{") {
			w.members(i+1, s.Close(i))
		}
		return s.Close(i) + 1
	case w.d.Types[string(s.Bytes(i))] && s.IsIdent(i+1):
		if s.Any(i, "record") && w.d.Types[string(s.Bytes(i+1))] {
			i++
		}
		return w.typeAt(i)
	case !s.IsIdent(i) && !(s.Is(i, "(") && s.IsIdent(s.Close(i)+1)): // a tuple may be what is given
		return i + 1
	}
	if s.Is(i+1, "(") && s.IsIdent(i) { // a constructor
		return w.method("", s.Text(i), none, i+1)
	}
	if w.class == "" && w.d.Statements {
		return w.statement(i, end)
	}
	t, k := w.typ(i)
	if !s.IsIdent(k) {
		return max(w.toEnd(i, end), i+1)
	}
	if s.Is(k, "operator") {
		for name := k; k < end && !s.Is(k, "("); k++ {
			if s.Is(k+1, "(") {
				return w.method(w.class, s.Text(name), w.c.Instance(t), k+1)
			}
		}
	}
	name := k
	for k++; s.Is(k, ".") && s.IsIdent(k+1); k += 2 {
		name = k + 1 // of an interface that is named as well
	}
	k = w.args(k)
	if s.Is(k, "(") {
		return w.method(w.class, s.Text(name), w.c.Instance(t), k)
	}
	return w.field(t, name, k, end)
}

// toEnd is behind the semicolon or the block that ends a statement.
func (w *walker) toEnd(i, end int) int {
	for i < end {
		if w.s.Any(i, ";", "{") {
			return w.s.Close(i) + 1
		}
		i = w.s.Close(i) + 1
	}
	return end
}

// args steps over "<…>" at i where it reads like type arguments.
func (w *walker) args(i int) int {
	s := w.s
	if !s.Is(i, "<") {
		return i
	}
	depth := 0
	for k := i; k < s.Len() && k < i+400; k = s.Close(k) + 1 {
		switch {
		case s.Is(k, "<"):
			depth++
		case s.Is(k, ">"):
			if depth--; depth == 0 {
				return k + 1
			}
		case !s.Any(k, syntax.Name, ",", ".", "?", "&", "[", "@", "("):
			return i
		}
	}
	return i
}

// typeAt walks a class and its like.
func (w *walker) typeAt(i int) (next int) {
	s := w.s
	name := join(w.class, s.Text(i+1))
	at := w.c.Open()
	defer w.c.Close(at)
	k := i + 2
	if after := w.args(k); after > k {
		for p := k; p < after; p++ {
			if s.IsIdent(p) && s.Any(p-1, "<", ",", "in", "out") {
				w.c.Bind(s.Bytes(p), none)
			}
		}
		k = after
	}
	class := w.class
	defer func() { w.class = class }()
	if s.Is(k, "(") { // what a record or a class is made of
		w.params(k, name)
		k = s.Close(k) + 1
	}
	for k < s.Len() && !s.Any(k, "{", ";") {
		if s.Match(k, "where", syntax.Name, ":") { // what a parameter has to be stands for it
			t, after := w.typ(k + 3)
			w.bounds[s.Text(k+1)] = t
			defer delete(w.bounds, s.Text(k+1))
			for k = max(after, k+4); k < s.Len() && !s.Any(k, "{", ";", "where"); {
				k = s.Close(k) + 1
			}
			continue
		}
		if !s.Any(k, "extends", "implements", ":", ",") {
			k = s.Close(k) + 1
			continue
		}
		t, after := w.typ(k + 1)
		if t != none {
			w.c.Shape(model.Shape{Name: name, Kind: model.ShapeBase, Node: t})
			w.c.Put(t, model.CallInherit, s.Line(k+1))
		}
		k = max(after, k+1)
		if s.Is(k, "(") {
			w.inside(k)
		}
	}
	// What a class is built upon is no member of it.
	w.class = name
	if s.Is(k, "{") {
		first := k + 1
		if s.Is(i, "enum") {
			first = w.constants(k, w.c.Self(name))
		}
		w.members(first, s.Close(k))
	}
	return s.Close(k) + 1
}

// constants walks those that an enumeration begins with.
func (w *walker) constants(open int, self int32) (next int) {
	s, end := w.s, w.s.Close(open)
	i := open + 1
	for i < end && !s.Is(i, ";") {
		if s.IsIdent(i) && s.Any(i-1, "{", ",", ")") {
			w.c.Shape(model.Shape{Owner: w.class, Name: s.Text(i), Kind: model.ShapeValue, Node: self})
		}
		if s.Is(i, "(") {
			w.inside(i)
		}
		if s.Is(i, "{") {
			w.members(i+1, s.Close(i))
		}
		i = s.Close(i) + 1
	}
	return min(i+1, end)
}

// method walks a method whose parameters open at open.
func (w *walker) method(owner, name string, gives int32, open int) (next int) {
	s := w.s
	if owner != "" && gives != none {
		w.c.Shape(model.Shape{Owner: owner, Name: name, Kind: model.ShapeResult, Node: gives})
	}
	at := w.c.Open()
	defer w.c.Close(at)
	w.params(open, "")
	k := s.Close(open) + 1
	for k < s.Len() && !s.Any(k, "{", ";", "}") && !w.arrow(k) {
		if s.Is(k, "(") { // ": base(…)"
			w.inside(k)
		}
		k = s.Close(k) + 1
	}
	switch {
	case s.Is(k, "{"):
		return w.block(k)
	case w.arrow(k):
		_, next = w.expr(k + 2)
		return next
	}
	return k + 1
}

// arrow reports whether "=>" or "->" stands at i.
func (w *walker) arrow(i int) bool {
	s := w.s
	return s.Is(i+1, ">") && s.Any(i, "=", "-") && s.Tokens[i].End == s.Tokens[i+1].Start
}

// twice reports whether the same sign stands at i two times.
func (w *walker) twice(i int, sign string) bool {
	s := w.s
	return s.Match(i, sign, sign) && s.Tokens[i].End == s.Tokens[i+1].Start
}

// field walks fields of one type, and properties.
func (w *walker) field(t int32, name, k, end int) (next int) {
	s := w.s
	for {
		for s.Is(k, "[") {
			k = s.Close(k) + 1
			t = w.c.Go(t, model.ChainList, nil)
		}
		node := w.c.Instance(t)
		if s.Is(k, "{") { // what a property does to be read and set
			w.accessors(k)
			k = s.Close(k) + 1
		}
		if s.Is(k, "=") {
			if w.arrow(k) {
				k++
			}
			n, after := w.expr(k + 1)
			if node == none {
				node = n
			}
			k = max(after, k+1)
		}
		if w.class != "" && node != none {
			w.c.Shape(model.Shape{Owner: w.class, Name: s.Text(name), Kind: model.ShapeValue, Node: node})
		}
		if !s.Is(k, ",") || !s.IsIdent(k+1) {
			if s.Is(k, ";") {
				k++
			}
			return min(k, end)
		}
		name, k = k+1, k+2
	}
}

func (w *walker) accessors(open int) {
	s := w.s
	for i := open + 1; i < s.Close(open); {
		switch {
		case s.Is(i, "{"):
			i = w.block(i)
		case w.arrow(i):
			_, next := w.expr(i + 2)
			i = max(next, i+1)
		default:
			i++
		}
	}
}

// params binds parameters; those of a record are its fields as well.
func (w *walker) params(open int, of string) {
	s, end := w.s, w.s.Close(open)
	for i := open + 1; i < end; {
		i = w.marks(i)
		extends := s.Is(i, "this") && i == open+1
		for s.Any(i, "final", "ref", "out", "in", "params", "this", "scoped", "readonly") && s.IsIdent(i+1) {
			i++
		}
		t, k := w.typ(i)
		if s.Match(k, ".", ".", ".") {
			k += 3
			t = w.c.Go(t, model.ChainList, nil)
		}
		if s.IsIdent(k) {
			node := w.c.Instance(t)
			if extends && node != none && s.IsIdent(open-1) {
				w.c.Shape(model.Shape{Owner: w.class, Name: s.Text(open - 1), Kind: model.ShapeExtends, Node: node})
			}
			if of != "" {
				if node != none {
					w.c.Shape(model.Shape{Owner: of, Name: s.Text(k), Kind: model.ShapeValue, Node: node})
				}
			}
			w.c.Bind(s.Bytes(k), node)
		}
		for i = max(k, i+1); i < end && !s.Is(i, ","); {
			i = s.Close(i) + 1
		}
		i++
	}
}

// typ reads a type. One of a list, map or holder of another is told by its name.
func (w *walker) typ(i int) (node int32, next int) {
	s, c := w.s, w.c
	if !s.IsIdent(i) || !w.c.Deeper() {
		if s.Is(i, "(") {
			return none, s.Close(i) + 1 // a tuple
		}
		return none, i
	}
	defer w.c.Shallower()
	word := s.Text(i)
	n, local := c.Find(s.Bytes(i))
	if bound, ok := w.bounds[word]; ok && local && typeParam(n) {
		n = bound
	} else if !local || !typeParam(n) {
		n = w.typeName(i)
	}
	n, i = w.path(n, i)
	word = s.Text(i - 1)
	if end := w.args(i); end > i {
		first, k := w.typ(i + 1)
		switch {
		case w.d.Lists[word]:
			n = c.Go(first, model.ChainList, nil)
		case w.d.Maps[word]:
			second := none
			if s.Is(k, ",") {
				second, _ = w.typ(k + 1)
			}
			n = c.Map(first, second)
		case w.d.Same[word]:
			n = first
		}
		i = end
	}
	if s.Is(i, "?") && !s.Is(i+1, ".") && (s.IsIdent(i+1) || s.Any(i+1, ")", ",", ">", "[")) {
		i++
	}
	for s.Is(i, "[") && s.Close(i) <= i+2 && !w.number(i+1) {
		n = c.Go(n, model.ChainList, nil)
		i = s.Close(i) + 1
	}
	if w.d.Inferred[word] {
		n = none
	}
	return n, i
}

func (w *walker) number(i int) bool { return !w.s.Any(i, "]", ",") }

// bare begins a chain at a name: a member of the type that is walked or of one
// around it, else a name of the file.
func (w *walker) bare(i int) int32 {
	if w.class == "" {
		return w.c.Name(w.s.Bytes(i))
	}
	return w.c.Step(none, model.ChainBare, []byte(w.class+" "+string(w.called(i))))
}

// called is a name with the number of arguments that it is called with, where it is and
// that tells which of several functions of the name is meant.
func (w *walker) called(i int) []byte {
	s := w.s
	name := s.Bytes(i)
	if !w.d.Counted || !s.Is(i+1, "(") {
		return name
	}
	n, end := 0, s.Close(i+1)
	for k := i + 2; k < end; k = s.Close(k) + 1 {
		if n == 0 {
			n = 1
		}
		if after := w.args(k); after > k {
			if k = after; k >= end {
				break
			}
		}
		if s.Is(k, ",") {
			n++
		}
	}
	return strconv.AppendInt(append(slices.Clone(name), model.Counted), int64(n), 10)
}

// typeName begins a chain at the name of a type.
func (w *walker) typeName(i int) int32 {
	if w.class == "" {
		return w.c.Name(w.s.Bytes(i))
	}
	return w.c.Step(none, model.ChainType, []byte(w.class+" "+w.s.Text(i)))
}

// typeParam reports whether a local name is that of a type parameter: nothing is
// known of it.
func typeParam(node int32) bool { return node == none }

// block walks statements in braces.
func (w *walker) block(open int) (next int) {
	at := w.c.Open()
	w.statements(open+1, w.s.Close(open))
	w.c.Close(at)
	return w.s.Close(open) + 1
}

func (w *walker) statements(i, end int) {
	if !w.c.Deeper() {
		return
	}
	defer w.c.Shallower()
	for i < end {
		i = max(w.statement(i, end), i+1)
	}
}

var headed = syntax.Set("if", "for", "foreach", "while", "switch", "catch", "try", "using", "lock", "synchronized", "fixed", "when")

func (w *walker) statement(i, end int) (next int) {
	s := w.s
	switch {
	case s.Is(i, "{"):
		return w.block(i)
	case s.Any(i, ";", ",", ":", ")", "}", "]"):
		return i + 1
	case w.arrow(i):
		return i + 2
	case s.Is(i, "@") && s.IsIdent(i+1):
		return w.marks(i)
	}
	word := string(s.Bytes(i))
	switch {
	case headed[word] && s.Is(i+1, "("):
		at := w.c.Open()
		w.statements(i+2, s.Close(i+1))
		next = s.Close(i+1) + 1
		if next < end {
			next = max(w.statement(next, end), next)
		}
		w.c.Close(at)
		return next
	case w.d.Types[word] && s.IsIdent(i+1) && word != "record":
		return w.typeAt(i)
	case s.Any(i, "return", "throw", "else", "do", "try", "finally", "case", "default", "break", "continue", "yield", "await", "goto",
		"checked", "unchecked", "unsafe", "assert"):
		if s.Any(i+1, "=", ".") {
			break
		}
		if s.Is(i, "case") && s.IsIdent(i+1) { // a name behind a type is bound to what is matched
			if t, after := w.typ(i + 1); t != none && s.IsIdent(after) && !s.Any(after, "when", "or", "and") {
				w.c.Put(t, model.CallRead, s.Line(i+1))
				w.c.Bind(s.Bytes(after), w.c.Instance(t))
				return after + 1
			}
		}
		return i + 1
	case w.d.Modifiers[word] && s.IsIdent(i+1) && word != "new":
		return i + 1
	case s.Is(i, "using") && s.IsIdent(i+1):
		return i + 1
	}
	if next := w.declaration(i); next > 0 {
		return next
	}
	_, next = w.expr(i)
	return next
}

// declaration walks "Type name = value, other;", and gives 0 where none stands.
func (w *walker) declaration(i int) (next int) {
	s := w.s
	if !s.IsIdent(i) || w.d.Plain[string(s.Bytes(i))] {
		return 0
	}
	if s.Is(i, "var") && s.Is(i+1, "(") {
		for k := i + 2; k < s.Close(i+1); k++ {
			if s.IsIdent(k) {
				w.c.Bind(s.Bytes(k), none)
			}
		}
		return s.Close(i+1) + 1
	}
	t, k := w.typ(i)
	for k > i && s.Is(k, "|") && s.Is(i-1, "(") { // what is caught may be of several
		var other int32
		other, k = w.typ(k + 1)
		t = w.c.Either(t, other)
	}
	if k == i || !s.IsIdent(k) || w.d.Plain[string(s.Bytes(k))] || !s.Any(k+1, "=", ";", ":", ",", ")", "in", "[") || s.Match(k+1, "=", "=") {
		return 0
	}
	for {
		name := k
		node := w.c.Instance(t)
		k++
		for s.Is(k, "[") {
			node = w.c.Instance(w.c.Go(t, model.ChainList, nil))
			k = s.Close(k) + 1
		}
		switch {
		case s.Any(k, ":", "in"):
			n, after := w.expr(k + 1)
			if node == none {
				node = w.c.Go(n, model.ChainElement, nil)
			}
			k = after
		case s.Is(k, "="):
			if s.Is(k+1, "{") {
				w.inside(k + 1)
				k = s.Close(k+1) + 1
				break
			}
			n, after := w.expr(k + 1)
			if node == none {
				node = n
			}
			k = max(after, k+1)
		}
		w.c.Bind(s.Bytes(name), node)
		if !s.Is(k, ",") || !s.IsIdent(k+1) || !s.Any(k+2, "=", ",", ";") {
			return k
		}
		k++
	}
}
