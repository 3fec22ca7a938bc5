package kotlin

import (
	"jantel/core/model"
	"jantel/core/syntax"
)

// ends are words that no value begins with.
var ends = syntax.Set("else", "catch", "finally", "in", "is", "as", "by", "where", "while", "val", "var", "fun", "class", "interface",
	"import", "package")

// expr walks an expression and tells what it stands for.
func (w *walker) expr(i int) (node int32, next int) {
	s := w.s
	if !w.c.Deeper() {
		return none, s.Close(i) + 1
	}
	defer w.c.Shallower()
	at := i
	node, next = w.unary(i)
	for next < s.Len() && next > at {
		same := s.Line(next) == s.EndLine(next-1)
		switch {
		case s.Match(next, "?", ":"):
			var other int32
			other, next = w.unary(next + 2)
			node = w.c.Either(node, other)
		case s.Is(next, "as") && same:
			node, next = w.cast(next + 1)
		case same && (s.Is(next, "is") || s.Match(next, "!", "is")):
			node, next = none, w.asked(at, next)
		case w.sets(next):
			return none, w.assigned(at, next)
		case s.Match(next, "&", "&"), s.Match(next, "|", "|"), same && w.operates(next):
			_, next = w.unary(next + w.long(next))
			node = none
		case same && s.Any(next, "in") || same && s.Match(next, "!", "in"):
			for !s.Is(next, "in") {
				next++
			}
			_, next = w.unary(next + 1)
			node = none
		case same && w.infix(next):
			method := w.member(node, next)
			w.c.Put(method, model.CallPlain, s.Line(next))
			_, next = w.unary(next + 1)
			node = w.c.Result(method, 0)
		default:
			return node, next
		}
	}
	return node, next
}

// infix reports whether a function stands between two values at i.
func (w *walker) infix(i int) bool {
	s := w.s
	if !s.IsIdent(i) || ends[string(s.Bytes(i))] || s.Line(i+1) != s.Line(i) {
		return false
	}
	return (s.IsIdent(i+1) && !ends[string(s.Bytes(i+1))] || s.Any(i+1, syntax.Quoted, "(") || s.Kind(i+1) == syntax.Number) &&
		s.Tokens[i].End < s.Tokens[i+1].Start
}

func (w *walker) operates(i int) bool {
	s := w.s
	return s.Kind(i) == syntax.Punct && syntax.In(s.Bytes(i)[0], "+-*/%<>=!.&|") && !s.Match(i, "-", ">") && !s.Match(i, "!", "in") &&
		!(s.Is(i, ".") && s.IsIdent(i+1))
}

func (w *walker) long(i int) int {
	s, n := w.s, 1
	for s.Kind(i+n) == syntax.Punct && syntax.In(s.Bytes(i + n)[0], "=<>&|.+-") && s.Tokens[i+n-1].End == s.Tokens[i+n].Start && n < 3 {
		n++
	}
	return n
}

// sets reports whether something is put into what stands before i.
func (w *walker) sets(i int) bool {
	s := w.s
	if s.Is(i, "=") {
		return !s.Is(i+1, "=") || s.Tokens[i].End != s.Tokens[i+1].Start
	}
	return s.Any(i, "+", "-", "*", "/", "%") && s.Is(i+1, "=") && s.Tokens[i].End == s.Tokens[i+1].Start
}

// assigned walks the value that is put into what stands from at to eq.
func (w *walker) assigned(at, eq int) (next int) {
	s := w.s
	k := eq
	for !s.Is(k, "=") {
		k++
	}
	node, next := w.expr(k + 1)
	if k > eq || node == none {
		return next
	}
	name := at
	if s.Match(at, "this", ".", syntax.Name) {
		name = at + 2
	}
	if !s.IsIdent(name) || name+1 != eq {
		return next
	}
	if was, local := w.c.Find(s.Bytes(name)); local && name == at {
		if was == none {
			w.c.Bind(s.Bytes(name), node)
		}
	} else if w.class != "" {
		w.c.Shape(model.Shape{Owner: w.class, Name: s.Text(name), Kind: model.ShapeValue, Node: node})
	}
	return next
}

// cast walks the type behind "as".
func (w *walker) cast(i int) (node int32, next int) {
	if w.s.Is(i, "?") {
		i++
	}
	t, next := w.typ(i)
	w.c.Put(t, model.CallRead, w.s.Line(i))
	return w.c.Instance(t), next
}

// asked walks "is Type": a local that is asked is of it where that is so.
func (w *walker) asked(at, i int) (next int) {
	s := w.s
	not := s.Is(i, "!")
	k := i + 1
	if not {
		k++
	}
	t, next := w.typ(k)
	w.c.Put(t, model.CallRead, s.Line(k))
	if i == at+1 && s.IsIdent(at) {
		w.is(s.Bytes(at), w.c.Instance(t), not)
	}
	return next
}

// is makes a name stand for a value of a type until it is taken back.
func (w *walker) is(name []byte, is int32, not bool) {
	was, local := w.c.Find(name)
	if !local && w.class == "" || is == none {
		return
	}
	if !local {
		was = none - 1 // it is none: nothing is put back
	}
	w.casts = append(w.casts, casted{name, was, is, not})
	if !not {
		w.c.Bind(name, is)
	}
}

// uncast takes back what was found to be of a type.
func (w *walker) uncast(at int) {
	for i := len(w.casts) - 1; i >= at; i-- {
		k := &w.casts[i]
		if now, _ := w.c.Find(k.name); !k.not && now == k.is {
			w.c.Unbind(k.name, k.was)
		}
	}
	w.casts = w.casts[:min(at, len(w.casts))]
}

func (w *walker) unary(i int) (node int32, next int) {
	s := w.s
	for s.Any(i, "!", "-", "+", "*") && i+1 < s.Len() {
		i++
	}
	return w.operand(i)
}

// operand walks a value with what stands behind it.
func (w *walker) operand(i int) (node int32, next int) {
	s, c := w.s, w.c
	switch s.Kind(i) {
	case syntax.String:
		w.holes(i)
		return w.postfix(none, i+1, i, true)
	case syntax.Punct:
		return w.bracket(i)
	case syntax.Ident:
	default:
		return none, i + 1
	}
	if read := valued[string(s.Bytes(i))]; read != nil {
		return read(w, i)
	}
	switch word := s.Bytes(i); {
	case ends[string(word)]:
		return none, i
	case plain[string(word)]:
		return w.postfix(none, i+1, i, true)
	case s.Is(i+1, "@") && s.Tokens[i].End == s.Tokens[i+1].Start: // a label
		return none, i + 2
	}
	if n, local := c.Find(s.Bytes(i)); local {
		return w.postfix(n, i+1, i, true)
	}
	return w.postfix(w.bare(i), i+1, i, false)
}

// bare begins a chain at a name: a member of what is worked on, of the class or
// one around it, else a name of the file.
func (w *walker) bare(i int) int32 {
	name := w.s.Bytes(i)
	node := w.c.Name(name)
	if w.class != "" {
		node = w.c.Step(none, model.ChainBare, append([]byte(w.class+" "), name...))
	}
	if n := len(w.askedOf); n > 0 {
		for k := max(0, n-3); k < n; k++ {
			node = w.c.Either(w.c.Member(w.askedOf[k], name), node)
		}
	}
	return node
}

// bracket walks a function in braces, or what stands in parentheses.
func (w *walker) bracket(i int) (node int32, next int) {
	s := w.s
	switch {
	case s.Is(i, "("):
		node = none
		for k := i + 1; k < s.Close(i); {
			n, after := w.expr(k)
			if k == i+1 {
				node = n
			}
			k = max(after, k+1)
		}
		return w.postfix(node, s.Close(i)+1, i, true)
	case s.Is(i, "{"):
		_, next = w.lambda(i, none, none)
		return none, next
	case s.Is(i, "["):
		w.arguments(i)
		return none, s.Close(i) + 1
	case s.Match(i, ":", ":", syntax.Name):
		if !s.Is(i+2, "class") {
			w.c.Put(w.bare(i+2), model.CallPlain, s.Line(i+2))
		}
		return none, i + 3
	case s.Any(i, ")", "]", "}", ",", ";"):
		return none, i
	}
	return none, i + 1
}

// arguments walks what stands between brackets, names of parameters left out.
func (w *walker) arguments(open int) (first int32) {
	s := w.s
	first = none
	for i := open + 1; i < s.Close(open); {
		if s.Match(i, syntax.Name, "=") && !s.Is(i+2, "=") {
			i += 2
		}
		n, next := w.expr(i)
		if i == open+1 {
			first = n
		}
		if i = max(next, i+1); s.Is(i, ",") {
			i++
		}
	}
	return first
}

// member is the chain of what is called name at i in a value; of what is not
// known any member of that name.
func (w *walker) member(from int32, i int) int32 {
	return w.c.Step(from, model.ChainOnly, w.s.Bytes(i))
}

// state is how far the walk of a chain has come.
type state struct {
	node, from, with int32
	name             []byte
	told             bool
	line             int
}

// postfix walks members, calls, indexes and functions in braces behind a value
// whose last token is at.
func (w *walker) postfix(node int32, i, at int, told bool) (int32, int) {
	s := w.s
	st := state{node: node, from: none, with: none, told: told, line: s.Line(at)}
	if !told {
		st.name = s.Bytes(at)
	}
	for i < s.Len() {
		same := s.Line(i) == s.EndLine(i-1)
		switch {
		case s.Is(i, ".") && s.IsIdent(i+1), s.Match(i, "?", ".", syntax.Name):
			if s.Is(i, "?") {
				i++
			}
			i = w.dotted(&st, i+1)
		case s.Match(i, "!", "!") && same:
			i += 2
		case s.Match(i, ":", ":", syntax.Name) && same:
			w.reference(&st, i+2)
			return none, i + 3
		case s.Is(i, "<") && same && s.Any(w.args(i), "(", "{") && w.args(i) > i:
			var after int
			if st.with, after = w.typ(i + 1); after != w.args(i)-1 {
				st.with = none
			}
			i = w.args(i)
		case s.Is(i, "(") && same:
			i = w.called(&st, i)
		case s.Is(i, "{") && same && (st.name != nil || s.Is(i-1, ")")) && w.takes(i):
			i = w.run(&st, i)
		case s.Is(i, "[") && same:
			w.arguments(i)
			st.node, st.told, st.name = w.c.Go(st.node, model.ChainElement, nil), true, nil
			i = s.Close(i) + 1
		default:
			if !st.told {
				w.c.Put(st.node, model.CallRead, st.line)
			}
			return st.node, i
		}
	}
	return st.node, i
}

// takes reports whether the brace at i belongs to the call before it: not where
// that is the head of something.
func (w *walker) takes(i int) bool {
	s := w.s
	if !s.Is(i-1, ")") {
		return true
	}
	open := int(s.Tokens[i-1].Match)
	return open <= 0 || !s.Any(open-1, "if", "when", "while", "for", "catch")
}

func (w *walker) dotted(st *state, i int) (next int) {
	s := w.s
	call := s.Is(i+1, "(") || s.Is(i+1, "{") || s.Is(i+1, "<") && w.args(i+1) > i+1
	if call {
		st.from, st.node = st.node, w.member(st.node, i)
	} else {
		st.from, st.node = st.node, w.c.Member(st.node, s.Bytes(i))
	}
	st.name, st.told, st.line, st.with = s.Bytes(i), false, s.Line(i), none
	return i + 1
}

func (w *walker) reference(st *state, i int) {
	s := w.s
	if s.Is(i, "class") {
		w.c.Put(st.node, model.CallRead, s.Line(i))
		return
	}
	w.c.Put(w.c.Member(st.node, s.Bytes(i)), model.CallPlain, s.Line(i))
}

// called walks the parentheses of a call.
func (w *walker) called(st *state, open int) (next int) {
	w.c.Put(st.node, model.CallPlain, st.line)
	next = w.s.Close(open) + 1
	first := w.arguments(open)
	if w.s.Is(next, "{") && w.s.Line(next) == w.s.EndLine(next-1) && string(st.name) == "with" {
		st.from = first
		return next
	}
	st.node, st.told = w.c.Either(w.c.Result(st.node, 0), w.c.Instance(st.with)), true
	st.with = none
	if string(st.name) == "copy" && st.from != none {
		st.node = st.from
	}
	if !w.s.Is(next, "{") {
		st.name = nil
	}
	return next
}

// holes walks what stands in braces between the letters of a text.
func (w *walker) holes(i int) {
	text := w.s.Bytes(i)
	if text[0] != '"' || !w.c.Deeper() {
		return
	}
	defer w.c.Shallower()
	for hole, line := range syntax.Holes(text, w.s.Line(i), "${") {
		in := *w
		in.s = grammar.LexFrom(hole, line)
		in.statements(0, in.s.Len())
		in.s.Release()
	}
}
