package golang

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// walker walks the bodies of a file. It reads expressions by their precedence
// as far as it matters: what an operand is, where it ends, and what is called.
// A line's end ends a statement where Go would put a semicolon; since the
// lexer leaves line ends out, lines are compared.
type walker struct {
	s *syntax.Stream
	c *syntax.Chains
	// header is set between "if", "for" or "switch" and the body: a brace there
	// begins the body, no literal.
	header bool
	// repeated is the type of the last constant of a group, which those without
	// one and without a value have as well.
	repeated int32
	// switched is what the last "x.(type)" looked at.
	switched int32
}

// none is a chain nothing is known of.
const none = syntax.None

// signature reads the parameters from open on and what is given back, binds
// the names in the scope of the moment and returns the results with the index
// behind them.
func (w *walker) signature(open int) (results []int32, next int) {
	s := w.s
	w.params(open)
	next = s.Close(open) + 1
	switch {
	case next >= s.Len() || s.Line(next) != s.EndLine(next-1) || s.Is(next, "{"):
		return nil, next
	case s.Is(next, "("):
		return w.params(next), s.Close(next) + 1
	}
	if !w.startsType(next) {
		return nil, next
	}
	t, next := w.typ(next)
	return []int32{t}, next
}

// startsType reports whether a type can begin at i.
func (w *walker) startsType(i int) bool {
	return w.s.IsIdent(i) || w.s.Any(i, "*", "[", "(") || w.s.Match(i, "<", "-")
}

// entry is one of a list of parameters: a type, a name, or both.
type entry struct{ from, to int }

// entries parts a list of parameters, and tells whether they have names.
func (w *walker) entries(open int) (all []entry, named bool) {
	s, end := w.s, w.s.Close(open)
	for i := open + 1; i < end; i++ {
		from := i
		for i < end && !s.Is(i, ",") {
			i = s.Close(i) + 1
		}
		all = append(all, entry{from, i})
		named = named || w.hasName(from, i)
	}
	return all, named
}

// params reads a list of parameters, which have names or have none, and binds
// the names. It returns the type of each.
func (w *walker) params(open int) (types []int32) {
	all, named := w.entries(open)
	if !named {
		for _, e := range all {
			t, _ := w.typ(w.dots(e.from))
			types = append(types, t)
		}
		return types
	}
	var waiting []int // names whose type comes with a later one
	for _, e := range all {
		waiting = append(waiting, e.from)
		if e.to == e.from+1 {
			continue
		}
		at := w.dots(e.from + 1)
		t, _ := w.typ(at)
		if at > e.from+1 {
			t = w.c.Go(t, model.ChainList, nil)
		}
		for _, n := range waiting {
			w.c.Bind(w.s.Bytes(n), w.c.Instance(t))
			types = append(types, t)
		}
		waiting = waiting[:0]
	}
	return types
}

// dots is the index behind "...".
func (w *walker) dots(i int) int {
	if w.s.Match(i, ".", ".", ".") {
		return i + 3
	}
	return i
}

// hasName reports whether a parameter is a name and a type.
func (w *walker) hasName(i, end int) bool {
	s := w.s
	if i+1 >= end || !s.IsIdent(i) || s.Any(i, "func", "map", "chan", "struct", "interface") {
		return false
	}
	if s.Is(i+1, ".") {
		return s.Is(i+2, ".")
	}
	return !s.Is(i+1, "[") || s.Close(i+1)+1 < end
}

// typ reads a type.
func (w *walker) typ(i int) (node int32, next int) {
	s, c := w.s, w.c
	if !c.Deeper() {
		return none, s.Close(i) + 1
	}
	defer c.Shallower()
	switch {
	case s.Is(i, "*"):
		return w.typ(i + 1)
	case s.Is(i, "("):
		t, _ := w.typ(i + 1)
		return t, s.Close(i) + 1
	case s.Is(i, "["):
		t, next := w.typ(s.Close(i) + 1)
		return c.Go(t, model.ChainList, nil), next
	case s.Match(i, "map", "["):
		k, _ := w.typ(i + 2)
		v, next := w.typ(s.Close(i+1) + 1)
		return c.Map(k, v), next
	case s.Match(i, "<", "-", "chan"):
		t, next := w.typ(i + 3)
		return c.Go(t, model.ChainList, nil), next
	case s.Is(i, "chan"):
		if i++; s.Match(i, "<", "-") {
			i += 2
		}
		t, next := w.typ(i)
		return c.Go(t, model.ChainList, nil), next
	case s.Match(i, "func", "("):
		at := c.Open()
		results, next := w.signature(i + 1)
		c.Close(at)
		return c.Func(results), next
	case s.Match(i, "struct", "{"), s.Match(i, "interface", "{"):
		return none, s.Close(i+1) + 1
	case s.IsIdent(i):
		return w.typeName(i)
	}
	return none, i + 1
}

func (w *walker) typeName(i int) (node int32, next int) {
	s, c := w.s, w.c
	n, local := c.Find(s.Bytes(i))
	if !local {
		n = c.Name(s.Bytes(i))
	}
	i++
	if s.Is(i, ".") && s.IsIdent(i+1) {
		n = c.Member(n, s.Bytes(i+1))
		i += 2
	}
	if s.Is(i, "[") && s.Line(i) == s.EndLine(i-1) && s.Close(i) > i+1 {
		i = s.Close(i) + 1 // what a generic type is made with
	}
	return n, i
}

// block walks statements in braces.
func (w *walker) block(open int) (next int) {
	at := w.c.Open()
	w.statements(open+1, w.s.Close(open), nil)
	w.c.Close(at)
	return w.s.Close(open) + 1
}

// statements walks what stands in braces. In the cases of a switch over types
// the name it gives to the value stands for another type in each.
func (w *walker) statements(i, end int, typed []byte) {
	if !w.c.Deeper() {
		return
	}
	defer w.c.Shallower()
	header := w.header
	w.header = false
	for i < end {
		if typed != nil && w.s.Is(i, "case") {
			i = w.typeCase(i+1, end, typed)
			continue
		}
		i = max(w.statement(i, end), i+1)
	}
	w.header = header
}

// typeCase reads the types of a case; where there is one alone the value is of it.
func (w *walker) typeCase(i, end int, typed []byte) (next int) {
	var types []int32
	for i < end && !w.s.Is(i, ":") {
		t, n := w.typ(i)
		types = append(types, t)
		w.c.Put(t, model.CallRead, w.s.Line(i))
		if i = max(n, i+1); w.s.Is(i, ",") {
			i++
		}
	}
	if len(types) == 1 {
		w.c.Bind(typed, w.c.Instance(types[0]))
	} else {
		w.c.Bind(typed, w.switched)
	}
	return i + 1
}

func (w *walker) statement(i, end int) (next int) {
	s := w.s
	if !s.IsIdent(i) {
		switch {
		case s.Is(i, "{"):
			return w.block(i)
		case s.Any(i, ";", ":", ","):
			return i + 1
		}
		return w.simple(i, end)
	}
	switch string(s.Bytes(i)) {
	case "if", "for", "select":
		return w.headed(i+1, end, false)
	case "switch":
		return w.headed(i+1, end, true)
	case "go", "defer", "return", "case":
		if s.Line(i+1) == s.Line(i) || s.Is(i, "case") {
			return w.simple(i+1, end)
		}
		return i + 1
	case "else", "default", "break", "continue", "fallthrough", "goto":
		return i + 1
	case "var", "const":
		return w.group(i+1, w.value)
	case "type":
		return w.group(i+1, func(i int) int {
			w.c.Bind(s.Bytes(i), none)
			return specEnd(s, i)
		})
	}
	return w.simple(i, end)
}

// group calls spec for the one at i, or for each in the parentheses.
func (w *walker) group(i int, spec func(i int) int) int {
	s := w.s
	if !s.Is(i, "(") {
		return max(spec(i), i+1)
	}
	end := s.Close(i)
	for i++; i < end; {
		i = max(spec(i), i+1)
	}
	return end + 1
}

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

// bind makes names stand for what is put into them.
func (w *walker) bind(names []int, nodes []int32, of int32, typed bool) {
	for k, n := range names {
		node := of
		if !typed {
			node = w.c.Nth(nodes, len(names), k)
		}
		w.c.Bind(w.s.Bytes(n), node)
	}
}

// headed walks "if", "for", "switch" and "select" with their body.
func (w *walker) headed(i, end int, switches bool) (next int) {
	s := w.s
	at, header := w.c.Open(), w.header
	w.header, w.switched = true, none
	var typed []byte
	for i < end && !s.Is(i, "{") {
		if s.Is(i, ";") {
			i++
			continue
		}
		if switches && s.Match(i, syntax.Name, ":", "=") {
			typed = s.Bytes(i)
		}
		i = max(w.simple(i, end), i+1)
	}
	w.header = header
	if s.Is(i, "{") {
		if !switches || w.switched == none && !w.onTypes(i) {
			typed = nil
		}
		body := w.c.Open()
		w.statements(i+1, s.Close(i), typed)
		w.c.Close(body)
		i = s.Close(i) + 1
	}
	w.c.Close(at)
	return i
}

// onTypes reports whether the header before a body ends in ".(type)".
func (w *walker) onTypes(open int) bool {
	return w.s.Match(open-4, ".", "(", "type", ")")
}

// simple walks a statement without a body of its own.
func (w *walker) simple(i, end int) (next int) {
	s := w.s
	k := i
	for s.IsIdent(k) && s.Is(k+1, ",") {
		k += 2
	}
	if s.Match(k, syntax.Name, ":", "=") {
		var names []int
		for n := i; n <= k; n += 2 {
			names = append(names, n)
		}
		return w.define(names, k+3)
	}
	if s.Match(i, syntax.Name, ":") && !w.header {
		return i + 2 // a label, or the key of a case
	}
	if s.Is(i, "range") {
		i++
	}
	_, i = w.list(i)
	for i < end && s.Line(i) == s.EndLine(i-1) {
		switch {
		case s.Is(i, "="):
			if i++; s.Is(i, "range") {
				i++
			}
			_, i = w.list(i)
		case s.Any(i, "+", "-", "*", "/", "%", "&", "|", "^", "<", ">"):
			i++ // of "+=", "++" and their like
		default:
			return i
		}
	}
	return i
}

// define binds what stands on the left of ":=".
func (w *walker) define(names []int, i int) (next int) {
	if w.s.Is(i, "range") {
		n, next := w.expr(i + 1)
		of := []int32{w.c.Go(n, model.ChainKey, nil), w.c.Go(n, model.ChainElement, nil)}
		for k, name := range names {
			w.c.Bind(w.s.Bytes(name), of[min(k, 1)])
		}
		return next
	}
	nodes, next := w.list(i)
	w.bind(names, nodes, none, false)
	return next
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
	for s.Any(i, "-", "+", "!", "^", "*", "&") {
		i++
	}
	if s.Match(i, "<", "-") {
		n, next := w.unary(i + 2)
		return w.c.Go(n, model.ChainElement, nil), next
	}
	return w.postfix(w.operand(i))
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

// typeText is a type without the packages of its names.
func typeText(s *syntax.Stream, i, end int) string {
	var b strings.Builder
	for ; i < end; i++ {
		if s.IsIdent(i) && s.Is(i+1, ".") && i+2 < end && s.IsIdent(i+2) {
			i++
			continue
		}
		b.Write(s.Bytes(i))
	}
	return b.String()
}

// typeParams hides the names of type parameters: nothing is known of them but
// that they are types.
func (w *walker) typeParams(open int) {
	for i := open + 1; i < w.s.Close(open); i++ {
		if w.s.IsIdent(i) && w.s.Any(i-1, "[", ",") {
			w.c.Bind(w.s.Bytes(i), none)
		}
		i = w.s.Close(i)
	}
}

// receiver binds the name of a receiver, and hides its type parameters.
func (w *walker) receiver(open int, of string) {
	s := w.s
	if s.IsIdent(open+1) && !s.Any(open+2, ")", "[", ".") {
		w.c.Bind(s.Bytes(open+1), w.c.Self(of))
	}
	for i := open + 1; i < s.Close(open); i++ {
		if s.Is(i, "[") {
			w.typeParams(i)
		}
	}
}

// body walks a function that was just defined, and keeps what it gives.
func (w *walker) body(d *model.Definition, params, last, at int) {
	s := w.s
	results, next := w.signature(params)
	text := ""
	if d.Parent != "" {
		text = w.written(params, next)
		results = append(results, none) // a method without results is one as well
	}
	for k, r := range results[:min(len(results), 16)] {
		if r != none || k == 0 && d.Parent != "" {
			w.c.Shape(model.Shape{Owner: d.Parent, Name: d.Name, Kind: model.ShapeResult, Nth: uint8(k), Node: r, Text: text})
			text = ""
		}
	}
	if s.Is(next, "{") && next <= last {
		w.c.In = int32(at)
		w.block(next)
		w.c.In = -1
	}
}

// field keeps the types of a line of fields; one without a name is embedded.
func (w *walker) field(of string, items []int) {
	s := w.s
	k := 0
	for k+2 < len(items) && s.Is(items[k+1], ",") {
		k += 2
	}
	alone := len(items) == 1 || s.Kind(items[1]) == syntax.String
	if s.Is(items[0], "*") || alone || s.Is(items[1], ".") || s.Is(items[1], "[") && len(items) == 2 {
		at := items[0]
		t, _ := w.typ(at)
		name := items[0]
		for _, i := range items {
			if s.Is(i, "[") || s.Kind(i) == syntax.String {
				break
			}
			if s.IsIdent(i) {
				name = i
			}
		}
		w.c.Shape(model.Shape{Owner: of, Name: s.Text(name), Kind: model.ShapeValue, Node: w.c.Instance(t)})
		w.c.Shape(model.Shape{Name: of, Kind: model.ShapeBase, Node: t})
		return
	}
	t, _ := w.typ(items[k] + 1)
	for n := 0; n <= k; n += 2 {
		w.c.Shape(model.Shape{Owner: of, Name: s.Text(items[n]), Kind: model.ShapeValue, Node: w.c.Instance(t)})
	}
}

// member keeps a method of an interface, or an interface that it embeds.
func (w *walker) member(of string, items []int) {
	s := w.s
	if len(items) < 2 || !s.Is(items[1], "(") {
		if s.IsIdent(items[0]) {
			t, _ := w.typ(items[0])
			w.c.Shape(model.Shape{Name: of, Kind: model.ShapeBase, Node: t})
		}
		return
	}
	at := w.c.Open()
	results, next := w.signature(items[1])
	w.c.Close(at)
	name := s.Text(items[0])
	w.c.Shape(model.Shape{Owner: of, Name: name, Kind: model.ShapeMethod, Node: none, Text: w.written(items[1], next)})
	for k, r := range results[:min(len(results), 16)] {
		w.c.Shape(model.Shape{Owner: of, Name: name, Kind: model.ShapeResult, Nth: uint8(k), Node: r})
	}
}

// top walks constants and variables at the top of a file; what is put into
// them belongs to the last of them.
func (w *walker) top(names []int, at int) {
	s := w.s
	w.c.In = int32(at)
	defer func() { w.c.In = -1 }()
	i := names[len(names)-1] + 1
	t, typed := none, false
	if !s.Is(i, "=") && s.Line(i) == s.EndLine(i-1) && w.startsType(i) {
		t, i = w.typ(i)
		typed = true
	}
	var nodes []int32
	valued := s.Is(i, "=") && s.Line(i) == s.EndLine(i-1)
	if valued {
		nodes, _ = w.list(i + 1)
	}
	if typed || valued {
		w.repeated = t
	} else if w.repeated != none {
		t, typed = w.repeated, true
	}
	w.known(names, nodes, w.c.Instance(t), typed)
}

// known keeps what names at the top stand for.
func (w *walker) known(names []int, nodes []int32, of int32, typed bool) {
	for k, n := range names {
		node := of
		if !typed {
			node = w.c.Nth(nodes, len(names), k)
		}
		if node != none {
			w.c.Shape(model.Shape{Name: w.s.Text(n), Kind: model.ShapeValue, Node: node})
		}
	}
}
