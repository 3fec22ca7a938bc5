package typed

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// inside walks expressions between brackets.
func (w *walker) inside(open int) {
	for i := open + 1; i < w.s.Close(open); {
		_, next := w.expr(i)
		i = max(next, i+1)
	}
}

// expr reads an expression; of "c ? a : b" and "a ?? b" the first that is known
// is what it gives.
func (w *walker) expr(i int) (node int32, next int) {
	s := w.s
	if !w.c.Deeper() {
		return none, s.Close(i) + 1
	}
	defer w.c.Shallower()
	node, next = w.unary(i)
	for next < s.Len() {
		switch {
		case s.Any(next, "instanceof", "is", "as"):
			cast := s.Is(next, "as")
			k := next + 1
			if s.Any(k, "not", "final") {
				k++
			}
			t, after := w.typ(k)
			w.c.Put(t, model.CallRead, s.Line(k))
			node = none
			if cast {
				node = w.c.Instance(t)
			} else if s.IsIdent(after) && !s.Any(after, "and", "or", "when") {
				w.c.Bind(s.Bytes(after), w.c.Instance(t))
				after++
			}
			next = max(after, k)
			continue
		case s.Is(next, "switch") && s.Is(next+1, "{"):
			return none, w.block(next + 1)
		}
		long := w.operator(next)
		if long == 0 {
			return node, next
		}
		keeps := s.Is(next, "?") || s.Is(next, "=") && long == 1
		other, after := w.unary(next + long)
		switch {
		case !keeps:
			node = none
		case node == none || !s.Is(next, "?") || long == 1 && s.Is(next, "?"):
			node = other
		}
		next = max(after, next+long)
	}
	return node, next
}

func (w *walker) operator(i int) (long int) {
	s := w.s
	for s.Kind(i) == syntax.Punct {
		b := s.Bytes(i)
		if !syntax.In(b[0], "+-*/%&|^<>=!?") || w.arrow(i) || long > 0 && s.Tokens[i-1].End != s.Tokens[i].Start {
			break
		}
		if s.Match(i, "?", ".") {
			break
		}
		long++
		i++
	}
	return long
}

func (w *walker) unary(i int) (node int32, next int) {
	s := w.s
	for s.Any(i, "!", "-", "+", "~", "&", "*", "^") && !w.arrow(i) ||
		s.Any(i, "await", "throw", "ref", "out", "in", "return") && !s.Any(i+1, "=", ".", ")", ",") {
		if s.Any(i, "out") {
			if next := w.declaration(i + 1); next > 0 {
				return none, next
			}
		}
		i++
	}
	// "(Type) value" gives a value of the type.
	if s.Is(i, "(") && s.IsIdent(i+1) && !w.lambda(i) {
		if t, k := w.typ(i + 1); k == s.Close(i) && w.castable(k+1) {
			w.c.Put(t, model.CallRead, s.Line(i+1))
			n, next := w.unary(k + 1)
			if c := w.c.Instance(t); c != none {
				n = c
			}
			return n, next
		}
	}
	return w.postfix(w.operand(i))
}

// castable reports whether a value can follow the type of a cast at i.
func (w *walker) castable(i int) bool {
	s := w.s
	return s.IsIdent(i) && !s.Any(i, "instanceof", "is", "as", "switch") || s.Any(i, "(", syntax.Quoted)
}

// lambda reports whether a function is written at i.
func (w *walker) lambda(i int) bool {
	s := w.s
	if s.Is(i, "(") {
		return w.arrow(s.Close(i) + 1)
	}
	return s.IsIdent(i) && w.arrow(i+1)
}

func (w *walker) function(i int) (next int) {
	s := w.s
	at := w.c.Open()
	defer w.c.Close(at)
	handed := w.handed
	w.handed = none
	k := i + 1
	if s.Is(i, "(") {
		k = s.Close(i) + 1
		if s.IsIdent(i+1) && s.Any(i+2, ",", ")") {
			for p := i + 1; p < k; p++ {
				if s.IsIdent(p) {
					w.c.Bind(s.Bytes(p), handed)
					handed = none
				}
			}
		} else {
			w.params(i, "")
		}
	} else {
		w.c.Bind(s.Bytes(i), handed)
	}
	if w.arrow(k) {
		k += 2
	}
	if s.Is(k, "{") {
		return w.block(k)
	}
	_, next = w.expr(k)
	return next
}

func (w *walker) operand(i int) (node int32, next int, told bool) {
	s, c := w.s, w.c
	switch {
	case w.lambda(i):
		return none, w.function(i), true
	case s.Is(i, "("):
		n, after := w.expr(i + 1)
		for after < s.Close(i) {
			_, k := w.expr(after)
			after = max(k, after+1)
		}
		return n, s.Close(i) + 1, true
	case s.Any(i, "{", "["):
		w.inside(i)
		return none, s.Close(i) + 1, true
	case s.Any(i, ")", "]", "}", ";", ","):
		return none, i, true // nothing stands here
	case !s.IsIdent(i) || w.d.Plain[string(s.Bytes(i))]:
		if s.Kind(i) == syntax.String && w.d.Holes != nil {
			w.holes(i)
		}
		return none, i + 1, true
	case s.Is(i, "this"):
		if w.class == "" {
			return none, i + 1, true
		}
		return c.Self(w.class), i + 1, true
	case s.Is(i, w.d.Base):
		if w.class == "" {
			return none, i + 1, true
		}
		return c.Step(none, model.ChainBase, []byte(w.class)), i + 1, true
	case s.Is(i, "new"):
		return w.built(i)
	case s.Any(i, "typeof", "nameof", "sizeof", "default") && s.Is(i+1, "("):
		t, _ := w.typ(i + 2)
		c.Put(t, model.CallRead, s.Line(i+2))
		return none, s.Close(i+1) + 1, true
	}
	if n, local := c.Find(s.Bytes(i)); local {
		return n, i + 1, true
	}
	return w.bare(i), i + 1, false
}

// built reads "new T(…)", with members that are set or a body behind it.
func (w *walker) built(i int) (node int32, next int, told bool) {
	s, c := w.s, w.c
	k := w.marks(i + 1)
	if s.Any(k, "(", "{", "[") { // of a type that is told elsewhere
		w.inside(k)
		k = s.Close(k) + 1
		if s.Is(k, "{") {
			w.inside(k)
			k = s.Close(k) + 1
		}
		return none, k, true
	}
	line := s.Line(k)
	// The name of what is built may stand before type arguments that hold others.
	name, _ := w.plainName(k)
	t, k := w.typ(k)
	for s.Is(k, "[") {
		w.inside(k)
		k = s.Close(k) + 1
		t, name = c.Go(t, model.ChainList, nil), none
	}
	c.Put(name, model.CallConstruct, line)
	if s.Is(k, "(") {
		w.arguments(k, none)
		k = s.Close(k) + 1
	}
	if s.Is(k, "{") {
		if w.d.Bracketed {
			w.settings(k)
		} else {
			w.members(k+1, s.Close(k))
		}
		k = s.Close(k) + 1
	}
	return c.Instance(t), k, true
}

// plainName is the chain of a type's name without what it is made with.
func (w *walker) plainName(i int) (node int32, next int) {
	if !w.s.IsIdent(i) {
		return none, i
	}
	return w.path(w.typeName(i), i)
}

// path goes on from the name of a type at i to those within it; the whole may be
// one that is written with its namespace.
func (w *walker) path(n int32, i int) (node int32, next int) {
	s := w.s
	first := i
	for i++; s.Is(i, ".") && s.IsIdent(i+1); i += 2 {
		n = w.c.Member(n, s.Bytes(i+1))
	}
	if i > first+1 && s.Tokens[i-1].End-s.Tokens[first].Start < 300 {
		n = w.c.Either(n, w.c.Name(s.Src[s.Tokens[first].Start:s.Tokens[i-1].End]))
	}
	return n, i
}

// settings walks "{ Name = value, … }" behind what is built.
func (w *walker) settings(open int) {
	s := w.s
	for i := open + 1; i < s.Close(open); {
		if s.Match(i, syntax.Name, "=") && !s.Is(i+2, "=") {
			i += 2
		}
		_, next := w.expr(i)
		i = max(next, i+1)
	}
}

func (w *walker) postfix(node int32, i int, told bool) (int32, int) {
	s, c := w.s, w.c
	line := s.Line(i - 1)
	from, over, with := none, "", none
	for i < s.Len() {
		switch {
		case s.Is(i, ".") && s.IsIdent(i+1), s.Match(i, "?", ".", syntax.Name), s.Match(i, "!", ".", syntax.Name):
			if s.Any(i, "?", "!") {
				i++
			}
			if s.Is(i+1, "class") {
				c.Put(node, model.CallRead, line)
				return none, i + 2
			}
			if s.Is(i+1, "this") || s.Is(i+1, w.d.Base) {
				node = c.Instance(node)
				i += 2
				told = true
				continue
			}
			over, from = s.Text(i+1), node
			node, told, line = c.Member(node, w.called(i+1)), false, s.Line(i+1)
			i += 2
			continue
		case w.twice(i, ":") && s.IsIdent(i+2):
			i++
			if s.Is(i+1, "new") {
				c.Put(node, model.CallConstruct, line)
				return none, i + 2
			}
			c.Put(c.Member(node, s.Bytes(i+1)), model.CallPlain, s.Line(i+1))
			return none, i + 2
		case s.Is(i, "<"):
			if k := w.args(i); k > i && (s.Is(k, "(") || w.twice(k, ":")) {
				var after int
				if with, after = w.typ(i + 1); after != k-1 {
					with = none
				}
				i = k
				continue
			}
		case s.Is(i, "("):
			handed := none
			if w.d.Over[over] && from != none {
				handed = c.Go(from, model.ChainElement, nil)
			}
			c.Put(node, model.CallPlain, line)
			w.arguments(i, handed)
			// What is made with one type most often gives one of it, if it does not
			// say what it gives.
			node, told, over = c.Either(c.Result(node, 0), c.Instance(with)), true, ""
			with = none
			i = s.Close(i) + 1
			continue
		case s.Is(i, "["):
			if !told {
				c.Put(node, model.CallRead, line)
			}
			w.inside(i)
			node, told = c.Go(node, model.ChainElement, nil), true
			i = s.Close(i) + 1
			continue
		case (w.twice(i, "+") || w.twice(i, "-")) && !s.IsIdent(i+2) && !s.Is(i+2, "("):
			i += 2
			continue
		case s.Match(i, "with", "{"):
			w.settings(i + 1)
			i = s.Close(i+1) + 1
			continue
		}
		break
	}
	if !told {
		c.Put(node, model.CallRead, line)
	}
	return node, i
}

// arguments walks what a call is given; a function among it gets what is handed.
func (w *walker) arguments(open int, handed int32) {
	s := w.s
	for i := open + 1; i < s.Close(open); {
		if s.Match(i, syntax.Name, ":") && !s.Is(i+2, ":") {
			i += 2 // the name of a parameter
		}
		w.handed = none
		if w.lambda(i) {
			w.handed = handed
		}
		_, next := w.expr(i)
		if i = max(next, i+1); s.Is(i, ",") {
			i++
		}
	}
	w.handed = none
}

// holes walks the parts of a text that are code.
func (w *walker) holes(i int) {
	if !w.c.Deeper() {
		return
	}
	defer w.c.Shallower()
	for _, part := range w.d.Holes(w.s.Bytes(i), w.s.Line(i)) {
		in := *w
		in.s = part
		for k := 0; k < part.Len(); {
			_, next := in.expr(k)
			k = max(next, k+1)
		}
		part.Release()
	}
}

// Names is a set of words written with spaces between them.
func Names(words string) map[string]bool { return syntax.Set(strings.Fields(words)...) }
