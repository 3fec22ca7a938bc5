package javascript

import (
	"strconv"

	"jantel/core/model"
	"jantel/core/syntax"
)

// expr reads an expression and gives what it stands for, as far as it matters:
// of "a ?? b" and "a || b" the first that is known, of "c ? a : b" as well;
// what is reckoned or compared gives nothing.
func (w *walker) expr(i int) (node int32, next int) {
	s := w.s
	if !w.c.Deeper() {
		return none, s.Close(i) + 1
	}
	defer w.c.Shallower()
	node, next = w.unary(i)
	for next < s.Len() {
		long, keeps := w.operator(next)
		if long == 0 {
			return node, next
		}
		if s.Any(next, "as", "satisfies") {
			t, after := w.typ(next + 1)
			if t != none && s.Is(next, "as") {
				node = w.c.Instance(t)
			}
			next = after
			continue
		}
		other, after := w.unary(next + long)
		switch {
		case long == 1 && s.Is(next, "="):
			w.field(i, next, other)
			node = other // what is put somewhere is what the whole gives
		case !keeps:
			node = none
		case node == none || s.Is(next, "?"):
			node = other
		}
		next = max(after, next+long)
	}
	return node, next
}

// field keeps what is put into a field of the class that is walked, "this.name = …", where
// no type says what it holds.
func (w *walker) field(i, eq int, node int32) {
	s := w.s
	if w.r.typed || w.class == "" || eq != i+3 || !s.Match(i, "this", ".", syntax.Name) {
		return
	}
	if t := w.r.docs.typeAbove(w, i); t != none {
		node = t
	}
	if node != none && !w.kept[w.class+"."+s.Text(i+2)] {
		w.kept[w.class+"."+s.Text(i+2)] = true
		w.c.Shape(model.Shape{Owner: w.class, Name: s.Text(i + 2), Kind: model.ShapeValue, Node: node})
	}
}

// operator tells how many tokens an operator between two operands has, and
// whether what stands on its sides is what it gives.
func (w *walker) operator(i int) (long int, keeps bool) {
	s := w.s
	if s.Kind(i) == syntax.Ident {
		if s.Any(i, "as", "satisfies") && s.Line(i) == s.EndLine(i-1) {
			return 1, true
		}
		if s.Any(i, "instanceof", "in") {
			return 1, false
		}
		return 0, false
	}
	if s.Kind(i) != syntax.Punct {
		return 0, false
	}
	b := s.Bytes(i)
	c := b[0]
	if len(b) > 1 {
		return 0, false // "=>", "?.", "++": none between operands
	}
	if !syntax.In(c, "+-*/%=<>!&|^?:") || c == ':' || c == '!' && !s.Is(i+1, "=") {
		return 0, false
	}
	long = 1
	for long < 4 && s.Kind(i+long) == syntax.Punct && s.Tokens[i+long-1].End == s.Tokens[i+long].Start &&
		len(s.Bytes(i+long)) == 1 && syntax.In(s.Bytes(i + long)[0], "=&|?<>*") {
		long++
	}
	if c == '?' && long == 1 {
		return 1, true // its other side stands behind ":", which ends this one
	}
	return long, s.Is(i, "|") && s.Is(i+1, "|") || c == '?' || c == '&' && long == 2
}

func (w *walker) unary(i int) (node int32, next int) {
	s := w.s
	for {
		switch {
		case s.Any(i, "!", "-", "+", "~", "++", "--"):
			i++
		case s.Is(i, "..."):
			i++
		case s.Any(i, "await", "typeof", "void", "delete", "yield", "throw") && !s.Any(i+1, ".", ",", ")", "="):
			i++
			if s.Is(i, "*") {
				i++
			}
		default:
			return w.postfix(w.operand(i))
		}
	}
}

// operand is what an expression begins with, the token behind it, and whether
// it is a name of its own that has to be read.
func (w *walker) operand(i int) (node int32, next int, told bool) {
	s, c := w.s, w.c
	switch {
	case s.Kind(i) == syntax.String:
		// The pieces of a template stand with expressions between them.
		return none, i + 1, true
	case s.Kind(i) == syntax.TagOpen:
		return none, w.tag(i), true
	case w.function(i) && !s.Is(i, "<"), s.Is(i, "<") && w.function(i):
		n, next := w.inline(i)
		return n, next, true
	case s.Is(i, "("):
		n, after := w.expr(i + 1)
		for after < s.Close(i) {
			n, after = w.next(after)
		}
		if t := w.r.docs.cast(w, i); t != none {
			n = t
		}
		return n, s.Close(i) + 1, true
	case s.Is(i, "["):
		return w.list(i), s.Close(i) + 1, true
	case s.Is(i, "{"):
		w.literal(i, "")
		return none, s.Close(i) + 1, true
	case !s.IsIdent(i):
		return none, i + 1, true
	}
	switch string(s.Bytes(i)) {
	case "this":
		if s.Match(i+1, ".", syntax.Name) && w.class == "" && w.stood[string(s.Bytes(i+2))] {
			return c.Name(s.Bytes(i + 2)), i + 3, false
		}
		if w.class == "" {
			return none, i + 1, true
		}
		return c.Self(w.class), i + 1, true
	case "super":
		if w.class == "" {
			return none, i + 1, true
		}
		base := c.Step(none, model.ChainBase, []byte(w.class))
		if s.Is(i+1, "(") {
			c.Put(c.Member(base, []byte("constructor")), model.CallConstruct, s.Line(i))
			w.arguments(i+1, none, none)
			return none, s.Close(i+1) + 1, true
		}
		return base, i + 1, true
	case "new":
		return w.built(i)
	case "class":
		n, next := w.classAt(i)
		return n, next, true
	case "require", "import":
		if s.Match(i+1, "(", syntax.Quoted, ")") {
			return c.Step(none, model.ChainTaken, []byte(s.Unquote(i+2)+" *")), i + 4, true
		}
	}
	if n, local := c.Find(s.Bytes(i)); local {
		return n, i + 1, c.Told(n)
	}
	if k := w.ownExport(i); k > 0 {
		i = k
	}
	return w.name(i), i + 1, false
}

// next steps over what stands between two expressions, and reads the second.
func (w *walker) next(i int) (int32, int) {
	if w.s.Any(i, ",", ";", ":", "?") {
		i++
	}
	n, next := w.expr(i)
	return n, max(next, i+1)
}

// name begins a chain: at what is taken from a module, or at a name of the file.
func (w *walker) name(i int) int32 {
	if u, ok := w.r.locals[string(w.s.Bytes(i))]; ok {
		return w.c.Step(none, model.ChainTaken, []byte(u.Module+" "+u.Name))
	}
	if u, ok := w.r.docs.named(string(w.s.Bytes(i))); ok && w.r.typed {
		return w.c.Step(none, model.ChainTaken, []byte(u.Module+" "+u.Name))
	}
	if w.owner != "" {
		return w.c.Name([]byte(join(w.owner, w.s.Text(i))))
	}
	return w.c.Name(w.s.Bytes(i))
}

// built reads "new X(…)".
func (w *walker) built(i int) (node int32, next int, told bool) {
	s, c := w.s, w.c
	k := i + 1
	if !s.IsIdent(k) {
		return none, k, true
	}
	n, _, _ := w.operand(k)
	line := s.Line(k)
	for k++; s.Is(k, ".") && s.IsIdent(k+1); k += 2 {
		n, line = c.Member(n, s.Bytes(k+1)), s.Line(k+1)
	}
	k = w.r.skipTypeArgs(k)
	c.Put(n, model.CallConstruct, line)
	if s.Is(k, "(") {
		w.arguments(k, none, n)
		k = s.Close(k) + 1
	}
	return c.Instance(n), k, true
}

// inline walks a function that is written where it is needed.
func (w *walker) inline(i int) (node int32, next int) {
	s := w.s
	if s.Is(i, "async") && !s.Is(i+1, "=>") {
		i++
	}
	arrow := !s.Is(i, "function")
	class := w.class
	if !arrow {
		if i++; s.Is(i, "*") {
			i++
		}
		if s.IsIdent(i) {
			i++
		}
	}
	gives, next := w.signature(w.r.skipTypeArgs(i), arrow, false)
	w.class = class
	if gives == none {
		return none, next
	}
	return w.c.Instance(w.c.Func([]int32{gives})), next
}

// overLists are members of lists that hand the elements to a function; the
// elements come second in those that also hand on what was gathered.
var overLists = syntax.Set(
	"map", "filter", "forEach", "find", "findLast", "findIndex", "some", "every", "flatMap", "sort", "then", "each",
)

// postfix reads what follows an operand: members, calls, elements.
func (w *walker) postfix(node int32, i int, told bool) (int32, int) {
	s, c := w.s, w.c
	line := s.Line(i - 1)
	from := none // what the last member was asked of
	over := ""
	for i < s.Len() {
		switch {
		case s.Is(i, "."), s.Is(i, "?.") && !s.Any(i+1, "(", "["):
			if !s.IsIdent(i + 1) {
				return node, i + 1
			}
			over = s.Text(i + 1)
			from = node
			node, told, line = c.Member(node, s.Bytes(i+1)), false, s.Line(i+1)
			i += 2
			continue
		case s.Is(i, "?."):
			i++
			continue
		case s.Is(i, "!") && s.Line(i) == s.EndLine(i-1) && !s.Is(i+1, "="):
			i++
			continue
		case s.Is(i, "<"):
			k := w.r.skipTypeArgs(i)
			if k == i || !s.Is(k, "(") || s.Line(i) != s.EndLine(i-1) {
				break
			}
			i = k
			continue
		case s.Is(i, "(") && s.Line(i) == s.EndLine(i-1) || s.Is(i, "(") && over != "" && s.Line(i) == s.EndLine(i-1)+1 && s.Is(i-1, "."):
			handed := none
			if overLists[over] && from != none {
				if handed = from; over != "then" {
					handed = c.Go(from, model.ChainElement, nil)
				}
			}
			c.Put(node, model.CallPlain, line)
			w.arguments(i, handed, node)
			node, told, over = c.Result(node, 0), true, ""
			i = s.Close(i) + 1
			continue
		case s.Is(i, "[") && s.Line(i) == s.EndLine(i-1):
			if !told {
				c.Put(node, model.CallRead, line)
			}
			for k := i + 1; k < s.Close(i); {
				_, k = w.next(k)
			}
			node, told, over = c.Go(node, model.ChainElement, nil), true, ""
			i = s.Close(i) + 1
			continue
		case s.Kind(i) == syntax.String && s.Src[s.Tokens[i].Start] == '`' && !told:
			c.Put(node, model.CallPlain, line) // a tagged template
			return none, i + 1
		case s.Any(i, "++", "--") && s.Line(i) == s.EndLine(i-1):
			i++
			continue
		}
		break
	}
	if !told {
		c.Put(node, model.CallRead, line)
	}
	return node, i
}

// arguments walks what a call is given; a function among it gets what is handed, or
// what the function that is called says it hands to what it takes there.
func (w *walker) arguments(open int, handed, callee int32) {
	for i, nth := open+1, 0; i < w.s.Close(open); nth++ {
		w.handed = nil
		switch told := handed != none || callee != none; {
		case !told || !w.function(i):
		case handed != none:
			w.handed = []int32{handed}
		default:
			w.handed = w.takenBy(callee, "("+strconv.Itoa(nth)+")")
		}
		_, next := w.expr(i)
		if i = max(next, i+1); w.s.Is(i, ",") {
			i++
		}
	}
	w.handed = nil
}

// list reads "[a, b]": a list of what its first element is.
func (w *walker) list(open int) int32 {
	first := none
	for i := open + 1; i < w.s.Close(open); {
		n, next := w.expr(i)
		if first == none {
			first = n
		}
		if i = max(next, i+1); w.s.Is(i, ",") {
			i++
		}
	}
	return w.c.Instance(w.c.Go(first, model.ChainList, nil))
}

// literal walks an object written out. One with a name, at the top of a file,
// keeps its members.
func (w *walker) literal(open int, name string) {
	s := w.s
	if !w.c.Deeper() {
		return
	}
	defer w.c.Shallower()
	end := s.Close(open)
	for i := open + 1; i < end; {
		next := w.property(i, end, name)
		for i = max(next, i+1); i < end && s.Is(i, ","); {
			i++
		}
	}
}

// memberName is the token behind the words before the name of a member.
func (w *walker) memberName(at int) int {
	for w.s.Any(at, "async", "get", "set", "*") && !w.s.Any(at+1, ":", ",", "(", "}") {
		at++
	}
	return at
}

// property walks one member of an object.
func (w *walker) property(i, end int, of string) (next int) {
	s := w.s
	if s.Is(i, "...") {
		_, next := w.expr(i + 1)
		return next
	}
	at := w.memberName(i)
	key := ""
	switch {
	case s.IsIdent(at):
		key = s.Text(at)
	case s.Kind(at) == syntax.String:
		key = s.Unquote(at)
	case s.Is(at, "["):
		_, _ = w.expr(at + 1)
		at = s.Close(at)
	default:
		_, next := w.expr(i)
		return next
	}
	k := w.r.skipTypeArgs(at + 1)
	switch {
	case s.Is(k, "("):
		return w.memberOf(of, key, k)
	case s.Is(k, ":"):
		if of != "" && w.function(k+1) {
			w.memberShape(of, key)
			return w.namedFunction(of, key, k+1)
		}
		n, next := w.expr(k + 1)
		if of != "" && n != none {
			w.c.Shape(model.Shape{Owner: of, Name: key, Kind: model.ShapeValue, Node: n})
		}
		return next
	case s.IsIdent(at) && (s.Any(k, ",", "=") || k >= end):
		n, local := w.c.Find(s.Bytes(at))
		if !local {
			n = w.name(at)
			w.c.Put(n, model.CallRead, s.Line(at))
		}
		if of != "" && n != none {
			w.c.Shape(model.Shape{Owner: of, Name: key, Kind: model.ShapeValue, Node: n})
		}
		return k
	}
	_, next = w.expr(i)
	return next
}

// memberShape keeps that an object at the top has a function as a member.
func (w *walker) memberShape(of, key string) {
	if of != "" {
		w.c.Shape(model.Shape{Owner: of, Name: key, Kind: model.ShapeMethod, Node: none})
	}
}

func (w *walker) memberOf(of, key string, open int) (next int) {
	w.memberShape(of, key)
	if of == "" {
		return w.callable("", "", open, false)
	}
	class := w.class
	w.class = of
	next = w.callable(of, key, open, false)
	w.class = class
	return next
}

func (w *walker) namedFunction(of, key string, i int) (next int) {
	class := w.class
	if w.s.Is(i, "function") || w.s.Match(i, "async", "function") { // an arrow has what is around it
		w.class = of
	}
	next = w.functionValue(of, key, i)
	w.class = class
	return next
}

// tag walks the opening of an element: what it draws, and what is handed to it.
func (w *walker) tag(i int) (next int) {
	s := w.s
	k := i + 1
	if s.IsIdent(k) {
		n, local := w.c.Find(s.Bytes(k))
		if !local {
			n = w.name(k)
		}
		draws := upper(s.Text(k)) || s.Is(k+1, ".")
		line := s.Line(k)
		for k++; s.Is(k, ".") && s.IsIdent(k+1); k += 2 {
			n, line = w.c.Member(n, s.Bytes(k+1)), s.Line(k+1)
		}
		if draws {
			w.c.Put(n, model.CallRender, line)
		}
	}
	// The rest is attributes, then what stands between its tags.
	end := s.Close(i)
	for k < end {
		switch {
		case s.Is(k, "{"):
			w.inBraces(k)
		case s.Kind(k) == syntax.TagOpen && w.c.Deeper():
			w.tag(k)
			w.c.Shallower()
		}
		k = s.Close(k) + 1
	}
	return end + 1
}

// inBraces walks an expression that stands in an element.
func (w *walker) inBraces(open int) {
	for i := open + 1; i < w.s.Close(open); {
		_, next := w.expr(i)
		i = max(next, i+1)
	}
}
