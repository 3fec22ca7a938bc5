package golang

import (
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
	heads    bool // nobody asks what bodies do
}

// none is a chain nothing is known of.
const none = syntax.None

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
	if s.Is(next, "{") && next <= last && !w.heads {
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
