package ruby

import (
	"bytes"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// expr walks an expression and tells what it stands for.
func (w *walker) expr(i int) (node int32, next int) {
	s := w.s
	if !w.c.Deeper() {
		return none, s.Close(i) + 1
	}
	defer w.c.Shallower()
	at := i
	if s.IsIdent(i) && w.sets(i+1) {
		return w.assigned(i, i+1)
	}
	node, next = w.unary(i)
	for next < s.Len() {
		switch {
		case w.sets(next):
			return w.assigned(at, next)
		case s.Match(next, "|", "|"), s.Is(next, "or"):
			var other int32
			other, next = w.unary(next + w.long(next))
			node = w.c.Either(node, other)
		case s.Match(next, "&", "&") && s.Tokens[next].End == s.Tokens[next+1].Start, s.Is(next, "and"):
			node, next = w.unary(next + w.long(next))
		case s.Is(next, "?"):
			return w.ternary(next)
		case w.operates(next):
			node = none
			_, next = w.unary(next + w.long(next))
		default:
			return node, next
		}
	}
	return node, next
}

// ternary walks "? a : b".
func (w *walker) ternary(i int) (node int32, next int) {
	yes, next := w.expr(i + 1)
	if !w.s.Is(next, ":") {
		return yes, next
	}
	no, next := w.expr(next + 1)
	return w.c.Either(yes, no), next
}

// long is how many tokens an operator has.
func (w *walker) long(i int) int {
	s, n := w.s, 1
	for s.Kind(i) == syntax.Punct && s.Kind(i+n) == syntax.Punct && syntax.In(s.Bytes(i + n)[0], "=<>&|*~.") &&
		s.Tokens[i+n-1].End == s.Tokens[i+n].Start && n < 3 {
		n++
	}
	return n
}

// operates reports whether an operator between two values stands at i.
func (w *walker) operates(i int) bool {
	s := w.s
	if s.Kind(i) != syntax.Punct || s.Match(i, "=", ">") {
		return false
	}
	switch s.Bytes(i)[0] {
	case '+', '-', '*', '/', '%', '<', '>', '=', '!', '&', '^', '~', '.', '|':
		return len(s.Bytes(i)) == 1
	}
	return false
}

// sets reports whether something is put into what stands before i.
func (w *walker) sets(i int) bool {
	s := w.s
	return s.Is(i, "=") && !s.Any(i+1, "=", "~", ">") || s.Match(i, "|", "|", "=") || s.Match(i, "&", "&", "=") ||
		s.Any(i, "+", "-", "*", "/") && s.Is(i+1, "=") && s.Tokens[i].End == s.Tokens[i+1].Start
}

// assigned walks the value that is put into what stands from at to eq.
func (w *walker) assigned(at, eq int) (node int32, next int) {
	s := w.s
	k := eq
	for !s.Is(k, "=") {
		k++
	}
	simple := eq == at+1 && s.IsIdent(at)
	if simple && s.Any(k+1, "if", "unless", "case", "begin") {
		w.into = s.Bytes(at)
		return none, k + 1
	}
	node, next = w.expr(k + 1)
	switch {
	case simple && !s.Any(eq, "+", "-", "*", "/"):
		w.assign(s.Bytes(at), node)
		if s.Is(eq, "|") && s.Bytes(at)[0] == '@' {
			node = w.c.Either(node, w.field(s.Bytes(at)))
		}
	case s.Is(eq-2, ".") && s.IsIdent(eq-1):
		w.writes(at, eq)
	}
	return node, next
}

// writes calls the member that is written to, as in "a.b = 1".
func (w *walker) writes(at, eq int) {
	if eq-2 == at+1 && w.s.Is(at, "self") && w.class != "" {
		name := append(bytes.Clone(w.s.Bytes(eq-1)), '=')
		w.c.Put(w.c.Member(w.c.Self(w.class), name), model.CallPlain, w.s.Line(eq))
	}
}

// assign makes a local stand for a value; what belongs to an instance or a class
// is kept for all of it.
func (w *walker) assign(name []byte, node int32) {
	switch {
	case name[0] == '@' || isUpper(name[0]):
		if node != none {
			w.c.Shape(model.Shape{Owner: w.class, Name: string(name), Kind: model.ShapeValue, Node: node})
		}
	default:
		w.c.Bind(name, node)
	}
}

func isUpper(c byte) bool { return c >= 'A' && c <= 'Z' }

// field is what a variable of the instance stands for.
func (w *walker) field(name []byte) int32 {
	if w.class == "" {
		return none
	}
	return w.c.Member(w.c.Self(w.class), name)
}

func (w *walker) unary(i int) (node int32, next int) {
	s := w.s
	for s.Any(i, "!", "not", "-", "+", "~", "*", "&", "defined?") && i+1 < s.Len() {
		i++
	}
	return w.postfix(w.operand(i))
}

// operand walks what stands at the beginning of a chain; called tells that it was
// a call.
func (w *walker) operand(i int) (node int32, next int) {
	s := w.s
	switch s.Kind(i) {
	case syntax.String, syntax.Text, syntax.Regex:
		w.holes(i)
		return none, i + 1
	case syntax.Punct:
		return w.bracket(i)
	case syntax.Ident:
	default:
		return none, i + 1
	}
	if isConstant(s, i) {
		return w.constant(i)
	}
	word := s.Bytes(i)
	if word[0] == '@' {
		return w.field(word), i + 1
	}
	switch string(word) {
	case "nil", "true", "false", "then":
		return none, i + 1
	case "self":
		if w.class == "" {
			return none, i + 1
		}
		return w.c.Self(w.class), i + 1
	case "super":
		node := none
		if m := w.method(); m != "" && w.class != "" {
			node = w.c.Member(w.c.Step(none, model.ChainBase, []byte(w.class)), []byte(m))
		}
		return w.call(node, i)
	case "end", "do", "if", "unless", "while", "until", "rescue", "and", "or", "else", "elsif", "when", "ensure", "return", "case", "begin",
		"class", "module", "def", "in":
		return none, i
	case "yield", "raise", "puts", "p", "lambda", "proc", "not":
		return w.call(none, i)
	}
	if n, local := w.c.Find(word); local && !s.Is(i+1, "(") {
		return n, i + 1
	}
	if s.Is(i, "new") && w.class != "" {
		return w.member(w.c.Self(w.class), i)
	}
	if w.class == "" {
		return w.call(w.c.Name(word), i)
	}
	return w.call(w.c.Step(none, model.ChainBare, append([]byte(w.class+" "), word...)), i)
}

// bracket walks a list, a hash or what stands in parentheses.
func (w *walker) bracket(i int) (node int32, next int) {
	s := w.s
	switch {
	case s.Match(i, "-", ">"): // a lambda
		k := i + 2
		if s.Is(k, "(") {
			k = s.Close(k) + 1
		}
		return none, k
	case s.Is(i, "::") && isConstant(s, i+1):
		return w.constant(i)
	case s.Is(i, "("):
		w.push(frame{})
		w.run(i+1, s.Close(i))
		w.pop()
		return w.top().last, s.Close(i) + 1
	case s.Is(i, "["):
		first := none
		for k := i + 1; k < s.Close(i); {
			n, after := w.expr(k)
			first = w.c.Either(first, n)
			k = max(after, k+1)
		}
		return w.c.Instance(w.c.Go(first, model.ChainList, nil)), s.Close(i) + 1
	case s.Is(i, "{"):
		w.inside(i)
		return none, s.Close(i) + 1
	case s.Any(i, ")", "]", "}", ",", ";", "|"):
		return none, i
	}
	return none, i + 1
}

// inside walks expressions between brackets.
func (w *walker) inside(open int) {
	for i := open + 1; i < w.s.Close(open); {
		_, next := w.expr(i)
		i = max(next, i+1)
	}
}

// constant begins a chain at a path of constants.
func (w *walker) constant(i int) (node int32, next int) {
	name, next := w.r.path(i)
	if next == i {
		return none, i + 1
	}
	if w.s.Is(next, "(") && w.r.touching(next) { // a method that is called like a type
		return w.call(w.c.Name([]byte(name)), next-1)
	}
	node = w.typeNamed(w.class, name)
	if !w.s.Is(next, ".") {
		w.c.Put(node, model.CallRead, w.s.Line(i))
	}
	return node, next
}

// call puts a method to work, whose name stands at i, and walks its arguments.
func (w *walker) call(method int32, i int) (node int32, next int) {
	s := w.s
	w.c.Put(method, model.CallPlain, s.Line(i))
	w.named(i)
	next = i + 1
	w.symbolBlock(next)
	switch {
	case s.Is(next, "(") && w.r.touching(next):
		w.inside(next)
		next = s.Close(next) + 1
	case w.argument(next):
		for {
			_, after := w.expr(next)
			next = max(after, next+1)
			if s.Match(next, "=", ">") {
				next += 2
				continue
			}
			if s.Kind(next-1) == syntax.String && !s.Any(next, ",", syntax.Break) && w.argument(next) {
				continue // behind a label
			}
			if !s.Is(next, ",") {
				break
			}
			next++
		}
	}
	return w.c.Result(method, 0), next
}

// symbolBlock reads "&:name" among arguments: a block that calls the member of
// that name of whatever it is handed.
func (w *walker) symbolBlock(i int) {
	s := w.s
	if s.Is(i, "(") {
		i++
	}
	for ; s.Any(i, ",", "&", syntax.Quoted, syntax.Name); i++ {
		if name := w.symbol(i + 1); s.Is(i, "&") && name != "" {
			w.c.Put(w.reached(w.block, name), model.CallPlain, s.Line(i))
			return
		}
	}
}

// usual are members that lists, maps, texts and all objects have: of what is not
// known nobody can say whose they are.
var usual = syntax.Set(
	"each", "map", "size", "length", "empty?", "first", "last", "dup", "freeze", "to_s", "to_i", "to_sym", "to_a", "to_h", "nil?",
	"present?", "blank?", "select", "reject", "find", "sort", "sort_by", "push", "pop", "merge", "keys", "values", "join", "split", "call",
	"inspect", "hash", "key?", "include?", "any?", "all?", "delete", "fetch", "concat", "count", "sum", "min", "max", "each_with_index",
	"name", "id", "update_all", "delete_all", "destroy_all", "find_by", "find_each", "find_or_create_by", "find_or_initialize_by",
	"update_attribute", "update_attributes", "update_column", "update_columns", "save!", "create!", "destroy!", "update!",
	"valid?", "invalid?",
	"new_record?", "persisted?", "to_param", "to_json", "to_xml", "as_json", "html_safe", "start_with?", "end_with?", "each_with_object",
	"group_by", "min_by", "max_by", "each_slice", "gsub!", "sort_by!", "key?", "has_key?", "has_value?", "with_index", "to_proc",
	"is_a?", "respond_to?", "class", "new", "instance_of?", "frozen?", "each_pair", "zip", "flatten", "compact", "uniq",
	"reverse", "index", "replace", "clear", "update", "format", "write", "read", "close", "open", "save", "match", "gsub", "sub",
	"strip", "==",
)

// reached is the chain of a member of a value, of which nothing may be known.
func (w *walker) reached(from int32, name string) int32 {
	// Of one word are most attributes and what belongs to a model, which stand nowhere.
	if usual[name] || !strings.ContainsAny(name, "_!?") {
		return w.c.Member(from, []byte(name))
	}
	return w.c.Step(from, model.ChainOnly, []byte(name))
}

// argument reports whether an argument without parentheses begins at i.
func (w *walker) argument(i int) bool {
	s := w.s
	if i >= s.Len() || s.Line(i) != s.EndLine(i-1) || w.r.touching(i) {
		return false
	}
	switch s.Kind(i) {
	case syntax.String, syntax.Number, syntax.Regex:
		return true
	case syntax.Ident:
		return words[string(s.Bytes(i))] == nil && !s.Any(i, "and", "or")
	case syntax.Punct:
		switch {
		case s.Is(i, "["), s.Is(i, "::"):
			return true
		case s.Match(i, "-", ">"):
			return true
		case s.Any(i, "*", "&", "-", "!"):
			return s.Tokens[i].End == s.Tokens[i+1].Start && !s.Is(i+1, "=")
		}
	}
	return false
}

// postfix walks members, indexes and blocks behind a value.
func (w *walker) postfix(node int32, i int) (int32, int) {
	s, c := w.s, w.c
	for i < s.Len() {
		at := i
		switch {
		case s.Match(i, "&", ".") && s.Tokens[i].End == s.Tokens[i+1].Start:
			at++
			fallthrough
		case s.Is(i, "."), s.Is(i, "::") && !isConstant(s, i+1):
			if !s.IsIdent(at + 1) {
				return node, at + 1
			}
			if node, i = w.member(node, at+1); i <= at {
				return node, at + 1
			}
		case s.Is(i, "[") && w.r.touching(i):
			w.inside(i)
			node, i = c.Go(node, model.ChainElement, nil), s.Close(i)+1
		case s.Is(i, "{") && (s.IsIdent(i-1) || s.Any(i-1, ")", "]")):
			w.braces(i)
			i = s.Close(i) + 1
		case s.Is(i, "do"):
			w.gives = node
			return node, i
		default:
			return node, i
		}
	}
	return node, i
}

// braces walks a block in braces.
func (w *walker) braces(open int) {
	at, handed := w.c.Open(), w.block
	w.block = none
	w.push(frame{})
	w.run(w.blockParams(open+1, handed), w.s.Close(open))
	w.pop()
	w.c.Close(at)
}

// itself are members whose block is handed what they are asked of, not one of
// its elements.
var itself = syntax.Set("tap", "then", "yield_self", "instance_eval", "instance_exec")

// member walks what is called name at i, of a value.
func (w *walker) member(from int32, i int) (node int32, next int) {
	s, c := w.s, w.c
	name := string(s.Bytes(i))
	w.block = c.Go(from, model.ChainElement, nil)
	if itself[name] {
		w.block = from
	}
	switch {
	case name == "new":
		if from == none {
			return w.call(none, i)
		}
		c.Put(w.typeOf(from), model.CallConstruct, s.Line(i))
		_, next = w.call(none, i)
		return c.Instance(w.typeOf(from)), next
	case name == "class" && from != none:
		return w.typeOf(from), i + 1
	case sends[name]:
		k := i + 1
		if s.Is(k, "(") {
			k++
		}
		if method := w.symbol(k); method != "" {
			c.Put(c.Member(from, []byte(method)), model.CallPlain, s.Line(i))
			_, next = w.call(none, i)
			return c.Result(c.Member(from, []byte(method)), 0), next
		}
	case itself[name], name == "freeze", name == "dup":
		_, next = w.call(none, i)
		return from, next
	}
	return w.call(w.reached(from, name), i)
}

// typeOf is the type that a chain names; of the instance its class.
func (w *walker) typeOf(node int32) int32 {
	if w.class != "" && node == w.c.Self(w.class) {
		return w.c.Step(none, model.ChainType, []byte(" "+w.class))
	}
	return node
}

// sends are members that call the one whose name they are handed.
var sends = syntax.Set("send", "public_send", "__send__", "try", "try!", "method", "instance_method")

// symbol is the name that a symbol or a plain text at i is.
func (w *walker) symbol(i int) string {
	b := w.s.Bytes(i)
	if w.s.Kind(i) != syntax.String || len(b) < 2 || b[0] != ':' || b[1] == '"' {
		return ""
	}
	return string(b[1:])
}

// named reads what is called by its name as a symbol: by what is hooked to
// happen around something, and by a block made of a symbol.
func (w *walker) named(i int) {
	s := w.s
	word := s.Text(i)
	open := i + 1
	if s.Is(open, "(") {
		open++
	}
	switch {
	case s.Any(i-1, "."):
	case sends[word] && w.class != "":
		if m := w.symbol(open); m != "" {
			w.c.Put(w.c.Member(w.c.Self(w.class), []byte(m)), model.CallPlain, s.Line(i))
		}
	case word == "attr_reader", word == "attr_accessor":
		for k := open; w.symbol(k) != "" && w.class != ""; k += 2 {
			m := w.symbol(k)
			w.c.Shape(model.Shape{Owner: w.class, Name: m, Kind: model.ShapeValue, Node: w.field([]byte("@" + m))})
		}
	case w.class != "" && w.method() == "" && (strings.HasPrefix(word, "before_") || strings.HasPrefix(word, "after_") ||
		strings.HasPrefix(word, "around_") || word == "validate" || word == "helper_method"):
		for k := open; w.symbol(k) != ""; k += 2 {
			w.c.Put(w.c.Member(w.c.Self(w.class), []byte(w.symbol(k))), model.CallPlain, s.Line(k))
		}
	}
}

// holes walks what stands in braces between the letters of a text.
func (w *walker) holes(i int) {
	text := w.s.Bytes(i)
	if text[0] == '\'' || text[0] == ':' || bytes.HasPrefix(text, []byte("%q")) || bytes.HasPrefix(text, []byte("%w")) {
		return
	}
	for hole, line := range syntax.Holes(text, w.s.Line(i), "#{") {
		w.hole(hole, line)
	}
}

func (w *walker) hole(text []byte, line int) {
	if !w.c.Deeper() {
		return
	}
	defer w.c.Shallower()
	l := &lexer{Builder: syntax.NewBuilder(text)}
	l.LineNo = line
	l.code()
	r, in := *w.r, *w
	r.s = l.Finish()
	in.r, in.s = &r, r.s
	in.frames = []frame{{kind: fileFrame, method: w.method()}}
	for i := 0; i < in.s.Len(); {
		_, next := in.expr(i)
		i = max(next, i+1)
	}
	in.s.Release()
}
