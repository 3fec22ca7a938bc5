package php

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// walker walks a file once its definitions are known. Variables begin with a
// sign of their own, so that whatever has none is the name of a class, a
// function or a constant.
type walker struct {
	r     *reader
	s     *syntax.Stream
	c     *syntax.Chains
	class string
	gives int32
	deep  int    // functions around
	said  string // what the comment before the function that comes next says
}

const none = syntax.None

func (r *reader) bodies() {
	w := &walker{r: r, s: r.s, c: r.s.Chains(), gives: none}
	w.c.In = syntax.ByLine
	w.statements(0, r.s.Len())
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

func (w *walker) variable(i int) bool {
	b := w.s.Bytes(i)
	return len(b) > 1 && b[0] == '$'
}

// is compares a keyword in any case.
func (w *walker) is(i int, words ...string) bool {
	b := w.s.Bytes(i)
	for _, word := range words {
		if len(b) == len(word) && w.s.IsIdent(i) && strings.EqualFold(string(b), word) {
			return true
		}
	}
	return false
}

func (w *walker) statement(i, end int) (next int) {
	s := w.s
	switch {
	case s.Is(i, "{"):
		w.statements(i+1, s.Close(i))
		return s.Close(i) + 1
	case s.Match(i, "#", "["):
		return s.Close(i+1) + 1
	case !s.IsIdent(i):
		if s.Any(i, "(", "[") {
			_, next := w.expr(i)
			return next
		}
		return i + 1
	case w.is(i, "class", "interface", "trait", "enum") && s.IsIdent(i+1) && !w.variable(i+1):
		return w.classAt(i+1, s.Text(i+1))
	case w.is(i, "function") && s.IsIdent(i+1):
		name := s.Text(i + 1)
		owner := ""
		if w.deep > 0 {
			owner, name = "", ""
		}
		w.said = w.about(i)
		return w.function(owner, name, i+2)
	case w.is(i, "namespace", "use", "const", "global", "declare"):
		for i < end && !s.Any(i, ";", "{") {
			i = s.Close(i) + 1
		}
		if s.Is(i, "{") && !s.Is(s.Close(i)+1, ";") {
			return i // of a namespace with braces
		}
		return s.Close(i) + 1
	case w.is(i, "foreach") && s.Is(i+1, "("):
		w.each(i + 1)
		return s.Close(i+1) + 1
	case w.is(i, "catch") && s.Is(i+1, "("):
		for k := i + 2; k < s.Close(i+1); k++ {
			if w.variable(k) {
				t, _ := w.typ(i + 2)
				w.c.Bind(s.Bytes(k), w.c.Instance(t))
			}
		}
		return s.Close(i+1) + 1
	case w.is(i, "if", "while", "elseif") && s.Is(i+1, "("):
		return w.branch(i + 1)
	case w.is(i, "for", "switch", "match") && s.Is(i+1, "("):
		w.inside(i + 1)
		return s.Close(i+1) + 1
	case w.is(i, "return") && !s.Is(i+1, ";"):
		n, next := w.expr(i + 1)
		if w.gives == none {
			w.gives = n
		}
		return next
	case w.is(i, "abstract", "final", "readonly", "public", "protected", "private", "static", "else", "try", "finally", "do", "echo", "print",
		"case", "default", "break", "continue", "throw", "return", "yield", "as", "insteadof") && !s.Is(i+1, ":"):
		return i + 1
	}
	_, next = w.expr(i)
	return next
}

// branch walks a condition and what it decides on. A variable that is asked to be of
// a type is of it in there; where it is asked not to be and what is decided on leaves,
// it is of it behind.
func (w *walker) branch(open int) (next int) {
	s := w.s
	w.inside(open)
	next = s.Close(open) + 1
	at, not := w.instanceof(open)
	if at < 0 || !s.Is(next, "{") || not && !w.leaves(next) {
		return next
	}
	name, is := s.Bytes(at-1), w.c.Instance(w.name(at+1))
	was, known := w.c.Find(name)
	if !not {
		w.c.Bind(name, is)
	}
	w.statements(next, s.Close(next)+1)
	now, _ := w.c.Find(name)
	switch {
	case not:
		w.c.Bind(name, is)
	case known && now == is:
		w.c.Bind(name, was)
	}
	return s.Close(next) + 1
}

// instanceof finds in a condition where a variable is asked to be of a type, or
// as the whole of it not to be; -1 where it is not.
func (w *walker) instanceof(open int) (at int, not bool) {
	s := w.s
	at, end := open+1, s.Close(open)
	for at < end && !w.is(at, "instanceof") {
		at++
	}
	not = s.Is(open+1, "!")
	if at == end || !w.variable(at-1) || not && s.Is(open+2, "(") && s.Close(open+2)+1 < end {
		return -1, not
	}
	return at, not
}

// leaves reports whether the block at i ends by leaving what is around it.
func (w *walker) leaves(i int) bool {
	if !w.s.Is(i, "{") {
		return false
	}
	for k := i + 1; k < w.s.Close(i); k = w.s.Close(k) + 1 {
		if w.is(k, "return", "throw", "continue", "break", "exit", "die") {
			return true
		}
	}
	return false
}

// each walks "foreach (list as key => value)".
func (w *walker) each(open int) {
	s := w.s
	n, k := w.expr(open + 1)
	for ; k < s.Close(open); k++ {
		if !w.variable(k) {
			continue
		}
		if s.Match(k+1, "=", ">") {
			w.c.Bind(s.Bytes(k), w.c.Go(n, model.ChainKey, nil))
			continue
		}
		w.c.Bind(s.Bytes(k), w.c.Go(n, model.ChainElement, nil))
	}
}

// name begins a chain at the name of a class, a function or a constant.
func (w *walker) name(i int) int32 {
	s := w.s
	switch {
	case w.is(i, "self", "static") && w.class != "":
		return w.c.Name([]byte(w.class))
	case w.is(i, "parent") && w.class != "":
		return w.c.Step(none, model.ChainBase, []byte(w.class))
	}
	return w.c.Name([]byte(strings.TrimPrefix(s.Text(i), `\`)))
}

// classAt walks a class whose name stands before i+1.
func (w *walker) classAt(i int, name string) (next int) {
	s := w.s
	k := i + 1
	for k < s.Len() && !s.Any(k, "{", ";") {
		if s.IsIdent(k) && !w.is(k, "extends", "implements") && name != "" && !s.Is(k-1, ":") {
			n := w.name(k)
			w.c.Shape(model.Shape{Name: name, Kind: model.ShapeBase, Node: n})
			w.c.Put(n, model.CallInherit, s.Line(k))
		}
		if s.Is(k, "(") {
			w.inside(k)
		}
		k = s.Close(k) + 1
	}
	if !s.Is(k, "{") {
		return k
	}
	class, deep := w.class, w.deep
	w.class, w.deep = name, 1
	for m := k + 1; m < s.Close(k); {
		m = max(w.member(m, s.Close(k)), m+1)
	}
	w.class, w.deep = class, deep
	return s.Close(k) + 1
}

func (w *walker) member(i, end int) (next int) {
	s := w.s
	about := w.about(i)
	for s.Match(i, "#", "[") {
		i = s.Close(i+1) + 1
	}
	for modifiers[strings.ToLower(s.Text(i))] {
		i++
	}
	switch {
	case w.is(i, "use"): // what a trait has the class has
		for i++; i < end && !s.Any(i, ";", "{"); i++ {
			if s.IsIdent(i) && w.class != "" {
				n := w.name(i)
				w.c.Shape(model.Shape{Name: w.class, Kind: model.ShapeBase, Node: n})
				w.c.Put(n, model.CallInherit, s.Line(i))
			}
		}
		return s.Close(i) + 1
	case w.is(i, "function"):
		k := i + 1
		if s.Is(k, "&") {
			k++
		}
		w.said = about
		return w.function(w.class, s.Text(k), k+1)
	case w.is(i, "const", "case"):
		return w.r.end(i, end) + 1
	}
	t, k := w.typ(i)
	if !w.variable(k) {
		return k
	}
	node := w.c.Instance(t)
	if node == none {
		node = w.saidOf(about, "@var", "")
	}
	name := k
	if k++; s.Is(k, "=") {
		n, after := w.expr(k + 1)
		if node == none {
			node = n
		}
		k = after
	}
	w.field(name, node)
	return w.r.end(k, end) + 1
}

// field keeps the type of what is called so on an instance.
func (w *walker) field(i int, node int32) {
	if node != none && w.class != "" {
		w.c.Shape(model.Shape{Owner: w.class, Name: strings.TrimPrefix(w.s.Text(i), "$"), Kind: model.ShapeValue, Node: node})
	}
}

// typ reads a type; plain ones say nothing.
func (w *walker) typ(i int) (node int32, next int) {
	s := w.s
	if s.Is(i, "?") {
		i++
	}
	node = none
	for s.IsIdent(i) && !w.variable(i) {
		if !plain[strings.ToLower(s.Text(i))] {
			node = w.c.Either(node, w.name(i))
		}
		if i++; !s.Any(i, "|", "&") || w.variable(i+1) {
			break
		}
		i++
	}
	return node, i
}

var plain = syntax.Set("null", "void", "int", "string", "bool", "float", "array", "mixed", "object", "callable",
	"iterable", "false", "true", "never")

// function walks parameters and body, and keeps what it gives under its name.
func (w *walker) function(owner, name string, i int) (next int) {
	s := w.s
	if !s.Is(i, "(") {
		return i
	}
	at, before, said := w.c.Open(), w.gives, w.said
	w.said = ""
	w.deep++
	w.gives = none
	defer func() {
		w.deep--
		w.gives = before
		w.c.Close(at)
	}()
	w.params(i, strings.EqualFold(name, "__construct"), said)
	k := s.Close(i) + 1
	if w.is(k, "use") && s.Is(k+1, "(") {
		k = s.Close(k+1) + 1
	}
	result := none
	if s.Is(k, ":") {
		var t int32
		t, k = w.typ(k + 1)
		result = w.c.Instance(t)
	}
	switch {
	case s.Match(k, "=", ">"):
		w.gives, next = w.expr(k + 2)
	case s.Is(k, "{"):
		w.statements(k+1, s.Close(k))
		next = s.Close(k) + 1
	default:
		next = k + 1
	}
	if result == none { // a comment may name what is not there, or no more than the best of it
		result = w.c.Either(w.saidOf(said, "@return", ""), w.gives)
	}
	if name != "" && result != none {
		w.c.Shape(model.Shape{Owner: owner, Name: name, Kind: model.ShapeResult, Node: result})
	}
	return next
}

func (w *walker) params(open int, constructs bool, said string) {
	s, end := w.s, w.s.Close(open)
	for i := open + 1; i < end; {
		for s.Match(i, "#", "[") {
			i = s.Close(i+1) + 1
		}
		promoted := false
		for modifiers[strings.ToLower(s.Text(i))] {
			promoted = true
			i++
		}
		t, k := w.typ(i)
		for k < end && !w.variable(k) && !s.Is(k, ",") {
			k++
		}
		if w.variable(k) {
			node, name := w.c.Instance(t), k
			if node == none {
				node = w.saidOf(said, "@param", s.Text(k))
			}
			if k++; s.Is(k, "=") {
				given, after := w.expr(k + 1)
				if node == none {
					node = given
				}
				k = after
			}
			w.c.Bind(s.Bytes(name), node)
			if promoted && constructs {
				w.field(name, node)
			}
		}
		for i = k; i < end && !s.Is(i, ","); {
			i = s.Close(i) + 1
		}
		i++
	}
}

// inside walks expressions between brackets.
func (w *walker) inside(open int) {
	for i := open + 1; i < w.s.Close(open); {
		_, next := w.expr(i)
		i = max(next, i+1)
	}
}

func (w *walker) expr(i int) (node int32, next int) {
	s := w.s
	if !w.c.Deeper() {
		return none, s.Close(i) + 1
	}
	defer w.c.Shallower()
	at := i
	node, next = w.unary(i)
	for next < s.Len() {
		long := w.operator(next)
		if long == 0 {
			return node, next
		}
		sets := long == 1 && s.Is(next, "=")
		keeps := sets || s.Is(next, "?")
		other, after := w.unary(next + long)
		if sets {
			for s.Is(after, "=") && w.operator(after) == 1 { // a = b = c
				other, after = w.unary(after + 1)
			}
			w.assigned(at, next, other)
		}
		switch {
		case !keeps:
			node = none
		case sets || node == none || long == 1:
			node = other
		}
		next = max(after, next+long)
	}
	return node, next
}

// assigned keeps what a variable or a field of the instance stands for.
func (w *walker) assigned(i, end int, node int32) {
	s := w.s
	if node == none && end == i+1 && w.variable(i) {
		node = w.saidOf(w.about(i), "@var", "")
	}
	switch {
	case end == i+1 && w.variable(i):
		w.c.Bind(s.Bytes(i), node)
	case end == i+4 && s.Match(i, "$this", "-", ">", syntax.Name):
		w.field(i+3, node)
	}
}

func (w *walker) operator(i int) (long int) {
	s := w.s
	if w.is(i, "instanceof", "and", "or", "xor") {
		return 1
	}
	for s.Kind(i) == syntax.Punct {
		b := s.Bytes(i)
		if !syntax.In(b[0], "+-*/%.&|^<>=!?") || s.Match(i, "-", ">") || s.Match(i, "=", ">") || s.Match(i, "?", "-", ">") ||
			long > 0 && s.Tokens[i-1].End != s.Tokens[i].Start {
			break
		}
		long++
		i++
	}
	return long
}

func (w *walker) unary(i int) (node int32, next int) {
	s := w.s
	for s.Any(i, "!", "-", "+", "~", "&", "@", ".") || w.is(i, "clone", "print", "echo", "throw", "yield", "include", "require",
		"include_once", "require_once", "return") {
		i++
	}
	if s.Is(i, "(") && s.Is(i+2, ")") && s.IsIdent(i+1) && plain[strings.ToLower(s.Text(i+1))] {
		return w.unary(i + 3) // "(int) $x"
	}
	return w.postfix(w.operand(i))
}

func (w *walker) operand(i int) (node int32, next int, told bool) {
	s, c := w.s, w.c
	switch {
	case s.Any(i, ")", "]", "}", ";", ","), s.Kind(i) == syntax.Newline:
		return none, i, true
	case s.Is(i, "("):
		n, after := w.expr(i + 1)
		for after < s.Close(i) {
			_, k := w.expr(after)
			after = max(k, after+1)
		}
		return n, s.Close(i) + 1, true
	case s.Is(i, "["):
		w.pair(i)
		first := none
		for k := i + 1; k < s.Close(i); {
			n, after := w.expr(k)
			if first == none {
				first = n
			}
			k = max(after, k+1)
		}
		return c.Instance(c.Go(first, model.ChainList, nil)), s.Close(i) + 1, true
	case s.Is(i, "{"):
		w.statements(i+1, s.Close(i))
		return none, s.Close(i) + 1, true
	case !s.IsIdent(i):
		if s.Kind(i) == syntax.String {
			w.holes(i)
		}
		return none, i + 1, true
	case s.Is(i, "$this"):
		if w.class == "" {
			return none, i + 1, true
		}
		return c.Self(w.class), i + 1, true
	case w.variable(i):
		n, _ := c.Find(s.Bytes(i))
		return n, i + 1, true
	case w.is(i, "new"):
		return w.built(i)
	case w.is(i, "function", "fn"):
		k := i + 1
		if s.Is(k, "&") {
			k++
		}
		return none, w.function("", "", k), true
	case w.is(i, "static") && w.is(i+1, "function", "fn"):
		return none, w.function("", "", i+2), true
	case w.is(i, "match") && s.Is(i+1, "("):
		w.inside(i + 1)
		return none, s.Close(i+1) + 1, true
	case plain[strings.ToLower(s.Text(i))]:
		return none, i + 1, true
	}
	if w.is(i, "parent") {
		return w.name(i), i + 1, true
	}
	return w.name(i), i + 1, false
}

func (w *walker) built(i int) (node int32, next int, told bool) {
	s, c := w.s, w.c
	if w.is(i+1, "class") { // one without a name
		k := i + 2
		if s.Is(k, "(") {
			w.inside(k)
			k = s.Close(k)
		} else {
			k = i + 1
		}
		return none, w.classAt(k, ""), true
	}
	k := i + 2
	node = none
	if s.IsIdent(i+1) && !w.variable(i+1) {
		n := w.name(i + 1)
		c.Put(n, model.CallConstruct, s.Line(i+1))
		node = c.Instance(n)
		if w.is(i+1, "parent") {
			node = n
		}
	}
	if s.Is(k, "(") {
		w.inside(k)
		k = s.Close(k) + 1
	}
	return node, k, true
}

func (w *walker) postfix(node int32, i int, told bool) (int32, int) {
	s, c := w.s, w.c
	line := s.Line(i - 1)
	for i < s.Len() {
		switch {
		case s.Match(i, "-", ">", syntax.Name), s.Match(i, "?", "-", ">", syntax.Name):
			if s.Is(i, "?") {
				i++
			}
			if w.variable(i + 2) {
				return none, i + 3
			}
			node, told, line = c.Member(node, s.Bytes(i+2)), false, s.Line(i+2)
			i += 3
			continue
		case s.Match(i, ":", ":", syntax.Name):
			if w.is(i+2, "class") {
				c.Put(node, model.CallRead, line)
				return node, i + 3
			}
			name := strings.TrimPrefix(s.Text(i+2), "$")
			node, told, line = c.Member(node, []byte(name)), false, s.Line(i+2)
			i += 3
			continue
		case s.Is(i, "("):
			c.Put(node, model.CallPlain, line)
			w.inside(i)
			w.handed(i)
			node, told = c.Result(node, 0), true
		case s.Is(i, "["):
			w.inside(i)
			node, told = c.Go(node, model.ChainElement, nil), true
		default:
			if !told {
				c.Put(node, model.CallRead, line)
			}
			return node, i
		}
		i = s.Close(i) + 1
	}
	return node, i
}
