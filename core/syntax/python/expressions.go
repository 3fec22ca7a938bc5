package python

import (
	"jantel/core/model"
	"jantel/core/syntax"
)

// expr reads an expression. Of "a or b" and "a if c else b" the first is what it
// gives; what is reckoned or compared gives nothing.
func (w *walker) expr(i int) (node int32, next int) {
	s := w.s
	if !w.c.Deeper() {
		return none, s.Close(i) + 1
	}
	defer w.c.Shallower()
	node, next = w.unary(i)
	for next < s.Len() {
		switch {
		case s.Is(next, "or"):
			var other int32
			other, next = w.unary(next + 1)
			node = w.c.Either(node, other)
		case s.Is(next, "if"):
			_, next = w.unary(next + 1)
		case s.Any(next, "and", "in", "is", "else", "not"):
			other := none
			word := s.Text(next)
			other, next = w.unary(next + 1)
			switch {
			case word == "else":
				node = w.c.Either(node, other)
			case word != "else":
				node = none
			}
		case w.operator(next) > 0:
			node = none
			_, next = w.unary(next + w.operator(next))
		default:
			return node, next
		}
	}
	return node, next
}

// operator tells how many tokens an operator has; 0 where there is none. What
// puts something somewhere is taken for one as well.
func (w *walker) operator(i int) (long int) {
	s := w.s
	for s.Kind(i) == syntax.Punct {
		b := s.Bytes(i)
		if !syntax.In(b[0], "+-*/%@&|^<>=!~") || long > 0 && s.Tokens[i-1].End != s.Tokens[i].Start {
			break
		}
		long++
		i++
	}
	return long
}

func (w *walker) unary(i int) (node int32, next int) {
	s := w.s
	for s.Any(i, "-", "+", "~", "not", "await", "*", "**", "yield", "from") {
		i++
	}
	if s.Is(i, "lambda") {
		at := w.c.Open()
		k := i + 1
		for ; k < s.Len() && !s.Any(k, ":", syntax.Break); k = s.Close(k) + 1 {
			if s.IsIdent(k) && s.Any(k-1, "lambda", ",", "*") {
				w.c.Bind(s.Bytes(k), none)
			}
		}
		_, next = w.expr(k + 1)
		w.c.Close(at)
		return none, next
	}
	return w.postfix(w.operand(i))
}

func (w *walker) operand(i int) (node int32, next int, told bool) {
	s, c := w.s, w.c
	switch {
	case s.Is(i, "("):
		return w.bracket(i), s.Close(i) + 1, true
	case s.Is(i, "["):
		n := w.bracket(i)
		return c.Instance(c.Go(n, model.ChainList, nil)), s.Close(i) + 1, true
	case s.Is(i, "{"):
		w.bracket(i)
		return none, s.Close(i) + 1, true
	case !s.IsIdent(i) || between[string(s.Bytes(i))], s.Any(i, "None", "True", "False"):
		return none, i + 1, true
	case s.Match(i, "super", "(") && w.class != "":
		return c.Step(none, model.ChainBase, []byte(w.class)), s.Close(i+1) + 1, true
	}
	if value := w.walrus(i); value > 0 {
		n, next := w.expr(value)
		w.put(i, n)
		w.given = append(w.given, given{i, n})
		return n, next, c.Told(n)
	}
	if n, local := c.Find(s.Bytes(i)); local {
		return n, i + 1, c.Told(n)
	}
	return w.fileName(i)
}

// given is a name that is given a value within brackets.
type given struct {
	at   int
	node int32
}

// walrus is where the value begins that a name is given where it stands; 0 where it
// is given none.
func (w *walker) walrus(i int) int {
	switch {
	case w.s.Match(i+1, ":", "="):
		return i + 3
	case w.s.Is(i+1, ":="):
		return i + 2
	}
	return 0
}

// fileName begins a chain at what is taken from a module, or a name of the file.
func (w *walker) fileName(i int) (node int32, next int, told bool) {
	if u, ok := w.r.locals[string(w.s.Bytes(i))]; ok {
		return w.c.Step(none, model.ChainTaken, []byte(u.Module+" "+u.Name)), i + 1, false
	}
	if len(w.modules) > 0 {
		if n, next := w.dotted(i); next > 0 {
			return n, next, true
		}
	}
	return w.c.Name(w.s.Bytes(i)), i + 1, false
}

// dotted reads the name of a module that was imported with its dots: the
// longest that is one.
func (w *walker) dotted(i int) (node int32, next int) {
	s := w.s
	name := s.Text(i)
	for k := i + 1; s.Is(k, ".") && s.IsIdent(k+1); k += 2 {
		name += "." + s.Text(k+1)
		if w.modules[name] {
			node, next = w.c.Step(none, model.ChainTaken, []byte(name+" *")), k+2
		}
	}
	return node, next
}

// bracket walks what stands in brackets, the names of a comprehension bound
// first, and gives what its first expression is.
func (w *walker) bracket(open int) (first int32) {
	s, end := w.s, w.s.Close(open)
	at, before := w.c.Open(), len(w.given)
	defer func() {
		// What is given a value within brackets keeps it outside of them.
		w.c.Close(at)
		for _, g := range w.given[before:] {
			w.put(g.at, g.node)
		}
		if before == 0 {
			w.given = w.given[:0]
		}
	}()
	first = none
	body := w.body
	for k := open + 1; k < end; k = s.Close(k) + 1 {
		if s.Is(k, "for") {
			w.body = true // its names are its own, wherever it stands
			w.loop(k, end)
		}
	}
	for i := open + 1; i < end; {
		if s.Any(i, ",", ":", "for", "async", "=") {
			i++
			continue
		}
		n, next := w.expr(i)
		if first == none {
			first = n
		}
		i = max(next, i+1)
	}
	w.body = body
	return first
}

func (w *walker) postfix(node int32, i int, told bool) (int32, int) {
	s, c := w.s, w.c
	line := s.Line(i - 1)
	for i < s.Len() {
		switch {
		case s.Is(i, ".") && s.IsIdent(i+1):
			node, told, line = c.Member(node, s.Bytes(i+1)), false, s.Line(i+1)
			i += 2
			continue
		case s.Is(i, "("):
			c.Put(node, model.CallPlain, line)
			w.arguments(i)
			node, told = c.Result(node, 0), true
		case s.Is(i, "["):
			if !told {
				c.Put(node, model.CallRead, line)
			}
			w.bracket(i)
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

// arguments walks what a call is given; the names of parameters are none of its own.
func (w *walker) arguments(open int) {
	s, end := w.s, w.s.Close(open)
	at := w.c.Open()
	body := w.body
	for k := open + 1; k < end; k = s.Close(k) + 1 {
		if s.Is(k, "for") {
			w.body = true
			w.loop(k, end)
		}
	}
	for i := open + 1; i < end; {
		switch {
		case s.Match(i, syntax.Name, "=") && !s.Is(i+2, "="):
			i += 2
		case s.Any(i, ",", ":", "for", "async"):
			i++
		default:
			_, next := w.expr(i)
			i = max(next, i+1)
		}
	}
	w.body = body
	w.c.Close(at)
}
