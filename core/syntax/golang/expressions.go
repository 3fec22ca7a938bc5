package golang

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// value reads "a, b T = x, y" within a body.
func (w *walker) value(i int) (next int) {
	s := w.s
	var names []int
	for s.IsIdent(i) {
		names = append(names, i)
		if i++; !s.Is(i, ",") {
			break
		}
		i++
	}
	if len(names) == 0 {
		return i + 1
	}
	t, typed := none, false
	if !s.Is(i, "=") && s.Line(i) == s.EndLine(i-1) && w.startsType(i) {
		t, i = w.typ(i)
		typed = true
	}
	var nodes []int32
	if s.Is(i, "=") {
		nodes, i = w.list(i + 1)
	}
	w.bind(names, nodes, w.c.Instance(t), typed)
	return i
}

// list reads expressions with commas between them.
func (w *walker) list(i int) (nodes []int32, next int) {
	for {
		n, after := w.expr(i)
		nodes = append(nodes, n)
		if after <= i || !w.s.Is(after, ",") {
			return nodes, max(after, i)
		}
		i = after + 1
	}
}

// expr reads an expression. What compares gives nothing that is known.
func (w *walker) expr(i int) (node int32, next int) {
	s := w.s
	if !w.c.Deeper() {
		return none, s.Close(i) + 1
	}
	defer w.c.Shallower()
	node, next = w.unary(i)
	for next < s.Len() && s.Line(next) == s.EndLine(next-1) {
		long, compares := w.operator(next)
		if long == 0 {
			break
		}
		var other int32
		other, next = w.unary(next + long)
		switch {
		case compares:
			node = none
		case node == none:
			node = other
		}
	}
	return node, next
}

// operator tells how many tokens an operator between two operands has at i; 0
// where there is none. One with "=" behind it puts something somewhere.
func (w *walker) operator(i int) (long int, compares bool) {
	s := w.s
	if s.Kind(i) != syntax.Punct {
		return 0, false
	}
	joined := func(k int) byte { // the sign that follows without a gap
		if k+1 < s.Len() && s.Tokens[k].End == s.Tokens[k+1].Start && s.Kind(k+1) == syntax.Punct {
			return s.Bytes(k + 1)[0]
		}
		return 0
	}
	first, second := s.Bytes(i)[0], joined(i)
	switch first {
	case '=', '!':
		if second == '=' {
			return 2, true
		}
		return 0, false
	case '<', '>':
		switch {
		case second == '=':
			return 2, true
		case second == first:
			if joined(i+1) == '=' {
				return 0, false
			}
			return 2, false
		case first == '<' && second == '-':
			return 2, true // something is sent
		}
		return 1, true
	case '&', '|':
		switch second {
		case first:
			return 2, true
		case '=':
			return 0, false
		case '^':
			if joined(i+1) == '=' {
				return 0, false
			}
			return 2, false
		}
		return 1, false
	case '+', '-':
		if second == first && w.ends(i+2) {
			return 0, false
		}
	case '*', '/', '%', '^':
	default:
		return 0, false
	}
	if second == '=' {
		return 0, false
	}
	return 1, false
}

// ends reports whether a statement is at its end before token i, as behind "x++".
func (w *walker) ends(i int) bool {
	s := w.s
	return i >= s.Len() || s.Line(i) != s.Line(i-1) || s.Any(i, "{", "}", ";", ")")
}

func (w *walker) unary(i int) (node int32, next int) {
	s := w.s
	for {
		switch s.First(i) {
		case '-', '+', '!', '^', '*', '&':
			if s.IsSign(i) {
				i++
				continue
			}
		case '<':
			if s.Is(i+1, "-") {
				n, next := w.unary(i + 2)
				return w.c.Go(n, model.ChainElement, nil), next
			}
		}
		return w.postfix(w.operand(i))
	}
}

// operand is what a primary expression begins with: its chain, the index behind
// it, and whether it is a type written out.
func (w *walker) operand(i int) (node int32, next int, isType, local bool) {
	s, c := w.s, w.c
	switch {
	case s.Kind(i) == syntax.String, s.Kind(i) == syntax.Number:
		return none, i + 1, false, true
	case s.Is(i, "("):
		header := w.header
		w.header = false
		n, _ := w.expr(i + 1)
		w.header = header
		return n, s.Close(i) + 1, false, true
	case s.Is(i, "["), s.Match(i, "map", "["), s.Is(i, "chan"), s.Match(i, "struct", "{"), s.Match(i, "interface", "{"):
		n, next := w.typ(i)
		return n, next, true, true
	case s.Match(i, "func", "("):
		return w.function(i)
	case !s.IsIdent(i):
		return none, i, false, true
	}
	if n, local := c.Find(s.Bytes(i)); local {
		return n, i + 1, false, c.Told(n)
	}
	if s.Is(i+1, "(") {
		switch string(s.Bytes(i)) {
		case "new", "make":
			t, _ := w.typ(i + 2)
			w.arguments(i + 1)
			return c.Instance(t), s.Close(i+1) + 1, false, true
		case "append", "min", "max":
			nodes := w.arguments(i + 1)
			c.Put(c.Name(s.Bytes(i)), model.CallPlain, s.Line(i)) // the package may have its own
			return nodes[0], s.Close(i+1) + 1, false, true
		}
	}
	return c.Name(s.Bytes(i)), i + 1, false, false
}

// function reads a function written in place, or the type of one.
func (w *walker) function(i int) (node int32, next int, isType, local bool) {
	at := w.c.Open()
	defer func() { w.c.Close(at) }()
	results, next := w.signature(i + 1)
	node = w.c.Func(results)
	if !w.s.Is(next, "{") {
		return node, next, true, true
	}
	header := w.header
	w.header = false
	next = w.block(next)
	w.header = header
	return w.c.Instance(node), next, false, true
}

// postfix reads what follows an operand: members, calls, elements, literals.
func (w *walker) postfix(node int32, i int, isType, local bool) (int32, int) {
	s, c := w.s, w.c
	told := local // a chain that ends without being called is read
	line := s.Line(i - 1)
	for i < s.Len() {
		if s.Is(i, ".") {
			switch {
			case s.IsIdent(i + 1):
				node, told, line = c.Member(node, s.Bytes(i+1)), false, s.Line(i+1)
				i += 2
				continue
			case s.Match(i+1, "(", "type", ")"):
				w.switched = node
				return node, i + 4
			case s.Is(i+1, "("):
				t, _ := w.typ(i + 2)
				node, told = c.Instance(t), true
				i = s.Close(i+1) + 1
				continue
			}
			return node, i + 1
		}
		if s.Line(i) != s.EndLine(i-1) {
			break
		}
		switch {
		case s.Is(i, "("):
			w.arguments(i)
			c.Put(node, model.CallPlain, line)
			node, told = c.Result(node, 0), true
		case s.Is(i, "["):
			if !told {
				c.Put(node, model.CallRead, line)
			}
			node, told = w.element(node, i), true
		case s.Is(i, "{") && (isType || !w.header && node != none):
			if !isType {
				c.Put(node, model.CallConstruct, line)
			}
			w.literal(i)
			node, told, isType = c.Instance(node), true, false
		default:
			if !told {
				c.Put(node, model.CallRead, line)
			}
			return node, i
		}
		i = s.Close(i) + 1
	}
	if !told {
		c.Put(node, model.CallRead, line)
	}
	return node, i
}

// arguments walks what stands in the parentheses of a call; types may be among it.
func (w *walker) arguments(open int) (nodes []int32) {
	header := w.header
	w.header = false
	end := w.s.Close(open)
	for i := open + 1; i < end; {
		n, next := w.expr(i)
		nodes = append(nodes, n)
		for i = max(next, i+1); i < end && w.s.Any(i, ",", "."); {
			i++
		}
	}
	w.header = header
	if len(nodes) == 0 {
		nodes = append(nodes, none)
	}
	return nodes
}

// element reads "[i]", "[a:b]" or the types a generic function is made with.
func (w *walker) element(node int32, open int) int32 {
	header := w.header
	w.header = false
	end, slice := w.s.Close(open), false
	for i := open + 1; i < end; {
		if w.s.Any(i, ":", ",") {
			slice = slice || w.s.Is(i, ":")
			i++
			continue
		}
		_, next := w.expr(i)
		i = max(next, i+1)
	}
	w.header = header
	if slice {
		return node
	}
	return w.c.Go(node, model.ChainElement, nil)
}

// literal walks the values of a literal. A name before a colon is taken for a field.
func (w *walker) literal(open int) {
	s := w.s
	if !w.c.Deeper() {
		return
	}
	defer w.c.Shallower()
	header := w.header
	w.header = false
	end := s.Close(open)
	for i := open + 1; i < end; {
		switch {
		case s.Is(i, "{"):
			w.literal(i)
			i = s.Close(i) + 1
		case s.Any(i, ",", ":"):
			i++
		case s.Match(i, syntax.Name, ":"):
			i += 2
		default:
			_, next := w.expr(i)
			i = max(next, i+1)
		}
	}
	w.header = header
}

// written is a signature as text, without the names of parameters and packages:
// two methods match when theirs are the same.
func (w *walker) written(open, end int) string {
	text := w.listText(open)
	next := w.s.Close(open) + 1
	switch {
	case next >= end:
		return text
	case w.s.Is(next, "("):
		return text + w.listText(next)
	}
	return text + "(" + typeText(w.s, next, end) + ")"
}

func (w *walker) listText(open int) string {
	all, named := w.entries(open)
	var parts []string
	waiting := 0
	for _, e := range all {
		switch {
		case !named:
			parts = append(parts, typeText(w.s, e.from, e.to))
		case e.to == e.from+1:
			waiting++
		default:
			t := typeText(w.s, e.from+1, e.to)
			for range waiting + 1 {
				parts = append(parts, t)
			}
			waiting = 0
		}
	}
	return "(" + strings.Join(parts, ",") + ")"
}
