package python

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// walker walks a file by its indentation, once its definitions and imports are
// known: names are bound as they are met, and expressions become chains.
type walker struct {
	r       *reader
	s       *syntax.Stream
	c       *syntax.Chains
	modules map[string]bool // those imported as "import a.b"
	class   string          // qualified name of the class that is walked
	name    string          // qualified name of what is walked
	body    bool            // a function's body is walked
	gives   int32           // what the function returns, as far as it was met
	given   []given
}

const none = syntax.None

// bodies walks the file.
func (r *reader) bodies() {
	w := &walker{r: r, s: r.s, c: r.s.Chains(), gives: none, modules: map[string]bool{}}
	for local, u := range r.locals {
		if u.Name == "*" && strings.Contains(local, ".") {
			w.modules[local] = true
		}
	}
	w.c.In = syntax.ByLine
	w.block(0)
}

// block walks statements up to the end of their indentation.
func (w *walker) block(i int) (next int) {
	s := w.s
	for i < s.Len() {
		switch s.Kind(i) {
		case syntax.Dedent:
			return i + 1
		case syntax.Newline:
			i++
		case syntax.Indent:
			if !w.c.Deeper() {
				return s.Len()
			}
			i = w.block(i + 1)
			w.c.Shallower()
		default:
			i = max(w.statement(i), i+1)
		}
	}
	return i
}

func (w *walker) statement(i int) (next int) {
	s := w.s
	if s.Is(i, "@") {
		_, next := w.expr(i + 1)
		return next
	}
	if s.Is(i, "async") && s.IsIdent(i+1) {
		i++
	}
	if !s.IsIdent(i) {
		_, next := w.expr(i)
		return next
	}
	switch string(s.Bytes(i)) {
	case "def":
		return w.function(i)
	case "class":
		return w.classAt(i)
	case "import", "from", "global", "nonlocal", "pass", "break", "continue":
		return w.r.lineEnd(i)
	case "for":
		return w.loop(i, w.r.lineEnd(i))
	case "with", "except":
		return w.as(i)
	case "return", "yield":
		if s.Any(i+1, syntax.Break) {
			return i + 1
		}
		n, next := w.expr(i + 1)
		if w.gives == none && s.Is(i, "return") {
			w.gives = n
		}
		return next
	case "if", "elif", "while", "assert", "raise", "del", "else", "try", "finally", "not", "await", "match", "case":
		if end := w.until(i+1, w.r.lineEnd(i), ":"); s.Is(i, "case") && s.Is(end, ":") && !s.Any(i+1, "=", ".", ",", ":") {
			return w.pattern(i+1, end)
		}
		if w.body && s.Any(i, "if", "elif") && (s.Is(i+1, "isinstance") || s.Match(i+1, "not", "isinstance")) {
			return w.asked(i + 1)
		}
		if !s.Any(i+1, "=", ".", ",") {
			return i + 1
		}
	}
	return w.assignment(i)
}

// asked walks "isinstance(x, T) and more:" and what it decides on. In there x is
// a T; where it is asked not to be one and what is decided on leaves, it is one
// behind.
func (w *walker) asked(i int) (next int) {
	s := w.s
	not := s.Is(i, "not")
	end := w.until(i, w.r.lineEnd(i), ":")
	open := i + 1
	if not {
		open++
	}
	if !s.Match(open, "(", syntax.Name, ",") || not && s.Close(open)+1 != end || s.Is(s.Close(open)+1, "or") {
		return i
	}
	name, is := s.Bytes(open+1), w.oneOf(open+3)
	was, known := w.c.Find(name)
	if !known || is == none {
		return i
	}
	if !not {
		w.c.Bind(name, is)
	}
	for k := open; k < end; {
		_, next := w.expr(k)
		k = max(next, k+1)
	}
	next, leaves := w.decided(end + 1)
	switch now, _ := w.c.Find(name); {
	case not && leaves:
		w.c.Bind(name, is)
	case !not && now == is:
		w.c.Bind(name, was)
	}
	return next
}

// oneOf is a value of the type at i, or of one of those in brackets.
func (w *walker) oneOf(i int) int32 {
	if !w.s.Is(i, "(") {
		t, _ := w.typ(i)
		return w.c.Instance(t)
	}
	is := none
	for k := i + 1; k < w.s.Close(i); k++ {
		var t int32
		t, k = w.typ(k)
		is = w.c.Either(is, w.c.Instance(t))
	}
	return is
}

// decided walks what stands behind a colon, in its line or below it, and tells
// whether it leaves what is around it.
func (w *walker) decided(i int) (next int, leaves bool) {
	s := w.s
	if s.Kind(i) == syntax.Newline && s.Kind(i+1) == syntax.Indent {
		return w.block(i + 2), s.Any(i+2, "return", "raise", "continue", "break")
	}
	return max(w.statement(i), i+1), s.Any(i, "return", "raise", "continue", "break")
}

// pattern walks what stands behind "case" up to its colon: a class that is named
// there is asked for, not built. What may be asked besides is walked after it.
func (w *walker) pattern(i, end int) (next int) {
	s, t := w.s, none
	if s.IsIdent(i) && !s.Is(i, "_") {
		t, _ = w.typ(i)
		w.c.Put(t, model.CallRead, s.Line(i))
	}
	for k := i; k < end; k = s.Close(k) + 1 {
		switch {
		case s.Match(k, "as", syntax.Name):
			w.put(k+1, w.c.Instance(t))
		case s.Is(k, "if"):
			return k + 1
		}
	}
	return end
}

// loop walks "for x in xs" up to end and binds what stands before "in".
func (w *walker) loop(i, end int) (next int) {
	k := w.until(i, end, "in")
	n, next := w.expr(k + 1)
	w.target(i+1, k, w.c.Go(n, model.ChainElement, nil))
	return next
}

func (w *walker) until(i, end int, word string) int {
	for i < end && !w.s.Is(i, word) {
		i = w.s.Close(i) + 1
	}
	return i
}

// target binds the names between two tokens: one alone stands for the value.
func (w *walker) target(i, end int, node int32) {
	s := w.s
	if i+1 == end && s.IsIdent(i) {
		w.put(i, node)
		return
	}
	for ; i < end; i++ {
		if s.IsIdent(i) && !s.Is(i-1, ".") && !s.Any(i+1, ".", "[", "(") {
			w.put(i, none)
		}
	}
}

// put makes the name at i stand for a value. At the top of a file and in a class
// it is kept for all; in a function a second value does not undo a first that is known.
func (w *walker) put(i int, node int32) {
	if !w.body {
		if node != none {
			w.c.Shape(model.Shape{Owner: w.name, Name: w.s.Text(i), Kind: model.ShapeValue, Node: node})
		}
		return
	}
	w.c.Bind(w.s.Bytes(i), node)
}

// as walks "with a() as b, c() as d:" and "except E as e:".
func (w *walker) as(i int) (next int) {
	s := w.s
	fails := s.Is(i, "except")
	for i++; i < s.Len() && !s.Any(i, ":", syntax.Break); {
		n, next := w.expr(i)
		if fails {
			n = w.c.Instance(n)
		}
		if i = max(next, i+1); s.Is(i, "as") {
			if s.IsIdent(i + 1) {
				w.put(i+1, n)
			}
			i = s.Close(i+1) + 1
		}
		if s.Any(i, ",", ")") {
			i++
		}
	}
	return i + 1
}

// assignment walks "a = b = value", "a: T = value" and plain expressions.
func (w *walker) assignment(i int) (next int) {
	s := w.s
	end := w.r.lineEnd(i)
	var starts, ends []int
	at := i
	node, typed := none, false
	for k := i; k < end; k = s.Close(k) + 1 {
		switch {
		case s.Is(k, ";"):
			end = k
		case s.Is(k, "lambda"):
			k = w.until(k, end, ":")
		case s.Is(k, ":") && len(starts) == 0 && !typed:
			starts, ends = append(starts, at), append(ends, k)
			var t int32
			t, k = w.typ(k + 1)
			node, typed = w.c.Instance(t), true
			if k >= end || !s.Is(k, "=") {
				w.assigned(starts, ends, node)
				return max(k, i+1)
			}
			at = k + 1
		case s.Is(k, "=") && !s.Is(k+1, "=") && !w.compound(k):
			if !typed {
				starts, ends = append(starts, at), append(ends, k)
			}
			at = k + 1
		}
	}
	if len(starts) == 0 {
		n, next := w.expr(i)
		_ = n
		return next
	}
	nodes := []int32{}
	next = at
	for next < end {
		n, after := w.expr(next)
		nodes = append(nodes, n)
		if next = max(after, next+1); !s.Is(next, ",") {
			break
		}
		next++
	}
	if !typed && len(nodes) == 1 {
		node = nodes[0]
	}
	w.assigned(starts, ends, node)
	return next
}

// compound reports whether "=" at k belongs to an operator: "+=", "<=", "==".
func (w *walker) compound(k int) bool {
	s := w.s
	if k == 0 || s.Kind(k-1) != syntax.Punct || s.Tokens[k-1].End != s.Tokens[k].Start {
		return false
	}
	b := s.Bytes(k - 1)
	return syntax.In(b[len(b)-1], "+-*/%&|^<>=!@:")
}

func (w *walker) assigned(starts, ends []int, node int32) {
	s := w.s
	for n, i := range starts {
		if s.Match(i, syntax.Name, ".", syntax.Name) && ends[n] == i+3 && w.class != "" && w.body {
			if self, ok := w.c.Find(s.Bytes(i)); ok && self == w.c.Self(w.class) {
				if node != none {
					w.c.Shape(model.Shape{Owner: w.class, Name: s.Text(i + 2), Kind: model.ShapeValue, Node: node})
				}
				continue
			}
		}
		if !s.IsIdent(i) || ends[n] > i+1 {
			w.target(i, ends[n], none)
			_, _ = w.expr(i) // what is put into "a.b[c()]" reads a and calls c
			continue
		}
		w.put(i, node)
	}
}

func (w *walker) function(i int) (next int) {
	s := w.s
	name := s.Text(i + 1)
	j := i + 2
	if s.Is(j, "[") {
		j = s.Close(j) + 1
	}
	if !s.Is(j, "(") {
		return i + 1
	}
	if w.body {
		w.c.Bind(s.Bytes(i+1), w.c.Name([]byte(join(w.name, name))))
	}
	at, outer := w.c.Open(), *w
	owner := w.name
	w.params(j, w.class != "" && w.class == w.name && !w.static(i))
	w.name, w.body, w.gives = join(w.name, name), true, none
	k := s.Close(j) + 1
	result := none
	if s.Match(k, "-", ">") || s.Is(k, "->") {
		if k++; s.Is(k, ">") {
			k++
		}
		t, after := w.typ(k)
		result, k = w.c.Instance(t), after
	}
	next = w.suite(k)
	if result == none {
		result = w.gives
	}
	gives := result
	*w = outer
	w.c.Close(at)
	if gives != none {
		w.c.Shape(model.Shape{Owner: owner, Name: name, Kind: model.ShapeResult, Node: gives})
	}
	return next
}

// static reports whether a method is marked to take neither instance nor class.
func (w *walker) static(def int) bool {
	for k := def - 1; k > 0 && k > def-4; k-- {
		if w.s.Match(k, "@", "staticmethod") {
			return true
		}
	}
	return false
}

// suite walks what stands behind the head of a definition.
func (w *walker) suite(k int) (next int) {
	s := w.s
	for k < s.Len() && !s.Any(k, ":", syntax.Break) {
		k = s.Close(k) + 1
	}
	if s.Is(k, ":") && s.Kind(k+1) != syntax.Newline {
		end := w.r.lineEnd(k)
		for i := k + 1; i < end; {
			i = max(w.statement(i), i+1)
		}
		return end
	}
	for k++; s.Kind(k) == syntax.Newline; {
		k++
	}
	if s.Kind(k) != syntax.Indent || !w.c.Deeper() {
		return k
	}
	defer w.c.Shallower()
	return w.block(k + 1)
}

// params binds the parameters; the first of a method is the instance, or the class.
func (w *walker) params(open int, method bool) {
	s, end := w.s, w.s.Close(open)
	first := true
	for i := open + 1; i < end; {
		list := s.Is(i, "*")
		for s.Any(i, "*", "**", "/") {
			i++
		}
		if s.IsIdent(i) {
			name, node := i, none
			i++
			switch {
			case first && method && s.Is(name, "cls"):
				node = w.c.Name([]byte(w.class))
			case first && method:
				node = w.c.Self(w.class)
			}
			if s.Is(i, ":") {
				t, next := w.typ(i + 1)
				if list {
					t = w.c.Go(t, model.ChainList, nil)
				}
				node, i = w.c.Instance(t), max(next, i+1)
			}
			if s.Is(i, "=") {
				n, next := w.expr(i + 1)
				if node == none {
					node = n
				}
				i = max(next, i+1)
			}
			w.c.Bind(s.Bytes(name), node)
		}
		first = false
		for i < end && !s.Is(i, ",") {
			i = s.Close(i) + 1
		}
		i++
	}
}

func (w *walker) classAt(i int) (next int) {
	s := w.s
	if !s.IsIdent(i + 1) {
		return i + 1
	}
	name := join(w.name, s.Text(i+1))
	j := i + 2
	if s.Is(j, "[") {
		j = s.Close(j) + 1
	}
	if w.body {
		w.c.Bind(s.Bytes(i+1), w.c.Name([]byte(name)))
	}
	if s.Is(j, "(") {
		for k := j + 1; k < s.Close(j); {
			if s.Match(k, syntax.Name, "=") {
				k += 2
				_, k = w.expr(k)
				continue
			}
			n, next := w.expr(k)
			if n != none {
				w.c.Shape(model.Shape{Name: name, Kind: model.ShapeBase, Node: n})
				w.c.Put(n, model.CallInherit, s.Line(k))
			}
			if k = max(next, k+1); s.Is(k, ",") {
				k++
			}
		}
		j = s.Close(j) + 1
	}
	outer := *w
	w.class, w.name, w.body = name, name, false
	next = w.suite(j)
	*w = outer
	return next
}

// words between two operands, and those before one.
var between = syntax.Set("and", "or", "in", "is", "not", "if", "else", "await", "lambda")
