package javascript

import (
	"strconv"

	"jantel/core/model"
	"jantel/core/syntax"
)

// walker walks a file from its first token to its last, once its definitions
// are known: declarations bind names, expressions become chains. Which
// definition a chain stands in its line tells.
type walker struct {
	r     *reader
	s     *syntax.Stream
	c     *syntax.Chains
	class string // the qualified name of the class that is walked
	owner string // the namespace that is walked
	// deep is how many functions are around; at 0 names belong to the file.
	deep int
	// gives is what the function that is walked returns, as far as it was met.
	gives int32
	// values are chains of types that stand for their values already, having no name of
	// their own: members of others, Lot["box"], and types written out in their place.
	values map[int32]bool
	// salt parts the types that are written out in comments from those of the file.
	salt string
	// kept are the fields of classes of which is known what was put there first.
	kept map[string]bool
	// handed are what a function gets that is written as an argument, or put into a
	// name of a type, as far as that is told.
	handed []int32
	// callee is the function whose parameters are read, "" where it has no name.
	callee string
	// stood are the names in an object that stands for the module: "this" has them
	// in the functions of that object.
	stood map[string]bool
	// also is the name a module is put into as it is handed out.
	also      string
	alsoStood map[string]bool
}

const none = syntax.None

// bodies walks the file.
func (r *reader) bodies() {
	w := &walker{r: r, s: r.s, c: r.s.Chains(), gives: none, values: map[int32]bool{}, kept: map[string]bool{}}
	w.c.In = syntax.ByLine
	if r.docs != nil && len(r.docs.types) > 0 {
		w.defined(r.docs.types)
	}
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

// block walks statements in braces, with names of their own.
func (w *walker) block(open int) (next int) {
	at := w.c.Open()
	w.statements(open+1, w.s.Close(open))
	w.c.Close(at)
	return w.s.Close(open) + 1
}

// words read what begins with them, and give the token behind it; 0 where the
// word is a name there.
var words map[string]func(w *walker, i, end int) int

func init() {
	declared := func(w *walker, i, end int) int { return w.variables(i+1, end) }
	headed := func(w *walker, i, end int) int { return w.headed(i+1, end) }
	step := func(_ *walker, i, _ int) int { return i + 1 }
	words = map[string]func(w *walker, i, end int) int{
		"import": (*walker).importing, "export": (*walker).exporting,
		"const": declared, "let": declared, "var": declared,
		"class":     func(w *walker, i, _ int) int { _, next := w.classAt(i); return next },
		"interface": (*walker).interfaceAt, "type": (*walker).typeAlias,
		"enum": (*walker).named, "namespace": (*walker).namespace, "module": (*walker).namespace,
		"for": headed, "while": headed, "if": headed, "switch": headed, "with": headed, "catch": headed,
		"return": (*walker).returning,
		"else":   step, "do": step, "try": step, "finally": step, "declare": step, "abstract": step, "default": step,
		"case": step, "break": step, "continue": step, "throw": step,
	}
}

func (w *walker) statement(i, end int) (next int) {
	s := w.s
	if next := w.wrapper(i, end); next > 0 {
		return next
	}
	if next := w.placed(i); next > 0 {
		return next
	}
	switch {
	case s.Is(i, "{"):
		return w.block(i)
	case s.Is(i, "@"):
		_, next := w.expr(i + 1)
		return next
	case !s.IsIdent(i):
		if s.Any(i, ";", ",", ":", ")", "}", "]") {
			return i + 1
		}
		_, next := w.expr(i)
		return next
	}
	if read := words[string(s.Bytes(i))]; read != nil && !s.Any(i+1, "=", ".", ",", ")", "?.", "=>") {
		if next := read(w, i, end); next > 0 {
			return next
		}
	}
	if s.Match(i, "async", "function") {
		i++
	}
	if s.Is(i, "function") && (s.IsIdent(i+1) || s.Match(i+1, "*", syntax.Name)) {
		return w.functionStatement(i)
	}
	if s.Match(i, syntax.Name, ":") {
		return i + 2
	}
	if next := w.handedOut(i); next > 0 {
		return next
	}
	_, next = w.expr(i)
	return next
}

func (w *walker) importing(i, end int) int {
	if w.s.Any(i+1, "(", ".") {
		return 0
	}
	return w.r.statementEnd(i, end) + 1
}

// exporting keeps under which names things are handed out.
func (w *walker) exporting(i, end int) int {
	s := w.s
	switch {
	case s.Is(i+1, "{") || s.Match(i+1, "type", "{"):
		open := i + 1
		if s.Is(open, "type") {
			open++
		}
		if !s.Is(s.Close(open)+1, "from") {
			for k := open + 1; k < s.Close(open); k++ {
				if s.Match(k, syntax.Name, "as", syntax.Name) {
					w.hand(s.Text(k+2), w.name(k))
					k += 2
				}
			}
		}
		return w.r.statementEnd(i, end) + 1
	case s.Is(i+1, "*"):
		return w.r.statementEnd(i, end) + 1
	case !s.Is(i+1, "default"):
		return i + 1
	}
	k := i + 2
	for s.Any(k, "async", "abstract") {
		k++
	}
	switch {
	case s.Is(k, "function") && s.IsIdent(k+1):
		w.hand("default", w.c.Name(s.Bytes(k+1)))
		return w.functionStatement(k)
	case s.Is(k, "function"), s.Is(k, "class") && !s.IsIdent(k+1):
		w.value("default", k)
		return w.skipped(k)
	case s.Is(k, "class"):
		w.hand("default", w.c.Name(s.Bytes(k+1)))
		return k
	}
	return w.value("default", k)
}

// skipped walks an expression that begins with a word and gives the token behind it.
func (w *walker) skipped(i int) int {
	_, next := w.expr(i)
	return next
}

// hand keeps that something is handed out, or known in the file, under a name.
func (w *walker) hand(name string, node int32) {
	if node != none {
		w.c.Shape(model.Shape{Owner: w.owner, Name: name, Kind: model.ShapeValue, Node: node})
	}
}

// value keeps what a name at the top stands for, and walks it.
func (w *walker) value(name string, i int) (next int) {
	s := w.s
	if s.Is(i, "{") {
		w.literal(i, join(w.owner, name))
		w.hand(name, w.c.Self(join(w.owner, name)))
		return s.Close(i) + 1
	}
	gives := w.gives
	node, next := w.expr(i)
	w.gives = gives
	w.hand(name, node)
	return next
}

// variables walks "const a = …, { b } = …".
func (w *walker) variables(i, end int) (next int) {
	s := w.s
	if s.Is(i, "enum") {
		return w.named(i, end)
	}
	for {
		next = w.binding(i, end)
		if next <= i || !s.Is(next, ",") || next >= end {
			return max(next, i+1)
		}
		i = next + 1
	}
}

// binding walks one name or pattern with its type and what is put into it.
func (w *walker) binding(i, end int) (next int) {
	s := w.s
	at := i
	if s.Any(i, "{", "[") {
		i = s.Close(i)
	} else if !s.IsIdent(i) {
		return i
	}
	if i++; s.Is(i, "!") {
		i++
	}
	node, typed := none, false
	if s.Is(i, ":") {
		var t int32
		t, i = w.typ(i + 1)
		node, typed = w.instance(t), true
	}
	if node == none {
		node = w.r.docs.typeAbove(w, at)
		typed = node != none
	}
	top := w.deep == 0 && s.IsIdent(at)
	switch {
	case s.Is(i, "of"), s.Is(i, "in"):
		n, next := w.expr(i + 1)
		if s.Is(i, "of") {
			node = w.c.Go(n, model.ChainElement, nil)
		}
		w.pattern(at, node)
		return next
	case !s.Is(i, "="):
		if top && typed {
			w.hand(s.Text(at), node)
		} else {
			w.pattern(at, node)
		}
		return i
	case top && alsoExports(s, i+1) > 0: // const rack = module.exports = …
		return w.alsoOut(at, i+1)
	case top && !typed && s.Is(i+1, "{"):
		return w.value(s.Text(at), i+1)
	case w.function(i + 1):
		if typed && node != none {
			w.handed = w.takenBy(node, "")
		}
		if top {
			return w.functionValue(w.owner, s.Text(at), i+1)
		}
	}
	n, next := w.expr(i + 1)
	if !typed {
		node = n
	}
	if top {
		w.hand(s.Text(at), node)
	} else {
		w.pattern(at, node)
	}
	return next
}

// function reports whether a function is written at i.
func (w *walker) function(i int) bool { return w.r.isFunction(i, min(i+400, w.s.Len()-1)) }

// functionValue walks a function that a name stands for, at the top or in what
// owner names.
func (w *walker) functionValue(owner, name string, i int) (next int) {
	s := w.s
	if s.Is(i, "async") && !s.Is(i+1, "=>") {
		i++
	}
	if s.Is(i, "function") {
		k := i + 1
		if s.Is(k, "*") {
			k++
		}
		if s.IsIdent(k) {
			k++
		}
		return w.callable(owner, name, w.r.skipTypeArgs(k), false)
	}
	return w.callable(owner, name, w.r.skipTypeArgs(i), true)
}

func (w *walker) functionStatement(i int) int {
	s := w.s
	k := i + 1
	if s.Is(k, "*") {
		k++
	}
	name := s.Text(k)
	if w.deep > 0 {
		w.c.Bind(s.Bytes(k), none)
		return w.callable("", "", w.r.skipTypeArgs(k+1), false)
	}
	return w.callable(w.owner, name, w.r.skipTypeArgs(k+1), false)
}

// callable walks the parameters and the body of a function, and keeps what it
// gives under its name: as its type says, else as its first return does. Its
// body is an expression where it is an arrow function without braces.
func (w *walker) callable(owner, name string, i int, arrow bool) (next int) {
	switch name {
	case "":
		w.callee = ""
	case "constructor":
		w.callee = owner
	default:
		w.callee = join(owner, name)
	}
	node, next := w.signature(i, arrow, owner != "" && name == "constructor")
	if name != "" && node != none {
		w.c.Shape(model.Shape{Owner: owner, Name: name, Kind: model.ShapeResult, Node: node})
	}
	return next
}

// signature walks parameters and body and gives what the function gives.
func (w *walker) signature(i int, arrow, constructs bool) (gives int32, next int) {
	s := w.s
	at, before := w.c.Open(), w.gives
	w.deep++
	w.gives = none
	defer func() {
		w.deep--
		w.gives = before
		w.c.Close(at)
	}()
	result, typed := none, false
	said := w.r.docs.above(s.Line(i))
	if t := said.gives(w); t != none {
		result, typed = t, true
	}
	if s.Is(i, "(") {
		w.params(i, constructs, said)
		i = s.Close(i) + 1
	} else if s.Match(i, syntax.Name, "=>") {
		w.c.Bind(s.Bytes(i), w.given(0))
		i++
	}
	w.handed, w.callee = nil, ""
	if s.Is(i, ":") {
		var t int32
		t, i = w.typ(i + 1)
		result, typed = w.instance(t), true
	}
	if s.Is(i, "=>") {
		i++
		arrow = true
	}
	switch {
	case s.Is(i, "{"):
		w.statements(i+1, s.Close(i))
		next = s.Close(i) + 1
	case arrow:
		w.gives, next = w.expr(i)
	default:
		return result, i // a head without a body
	}
	if !typed {
		result = w.gives
	}
	return result, next
}

// params binds the parameters from open on. Those of a constructor that have a
// word before them are fields as well.
func (w *walker) params(open int, constructs bool, said *doc) {
	s, end := w.s, w.s.Close(open)
	callee, nth := w.callee, -1
	w.callee = ""
	for i := open + 1; i < end; {
		nth++
		for s.Is(i, "@") {
			_, i = w.expr(i + 1)
		}
		field := false
		for memberWords[string(s.Bytes(i))] && s.IsIdent(i+1) {
			field = true
			i++
		}
		if s.Is(i, "...") {
			i++
		}
		at := i
		i = s.Close(i) + 1
		if s.Is(i, "?") {
			i++
		}
		node := none
		if i == at+1 || s.Any(at, "{", "[") {
			node = w.given(nth)
		}
		if s.Is(i, ":") {
			if j := w.r.skipTypeArgs(i + 1); callee != "" && s.Is(j, "(") && s.Is(s.Close(j)+1, "=>") {
				w.takes(j, callee, "("+strconv.Itoa(nth)+")")
			}
			var t int32
			t, i = w.typ(i + 1)
			node = w.instance(t)
		}
		if node == none {
			node = said.takes(w, at, nth)
		}
		if s.Is(i, "=") {
			n, next := w.expr(i + 1)
			if node == none {
				node = n
			}
			i = next
		}
		w.pattern(at, node)
		if field && constructs && node != none {
			w.c.Shape(model.Shape{Owner: w.class, Name: s.Text(at), Kind: model.ShapeValue, Node: node})
		}
		for i < end && !s.Is(i, ",") {
			i = s.Close(i) + 1
		}
		i++
	}
}

// pattern binds a name, or the names of a pattern, to parts of a value.
func (w *walker) pattern(i int, node int32) {
	s := w.s
	switch {
	case s.Is(i, "{"):
		w.members(i, node)
	case s.Is(i, "["):
		for k := i + 1; k < s.Close(i); k = s.Close(k) + 1 {
			if s.Any(k, "{", "[") || s.IsIdent(k) {
				w.pattern(k, w.c.Go(node, model.ChainElement, nil))
			}
		}
	case s.IsIdent(i):
		w.c.Bind(s.Bytes(i), node)
	}
}

// members binds the names that a pattern in braces takes out of a value.
func (w *walker) members(open int, node int32) {
	s := w.s
	for k := open + 1; k < s.Close(open); k++ {
		switch {
		case s.Match(k, syntax.Name, ":"):
			w.pattern(k+2, w.c.Member(node, s.Bytes(k)))
		case s.IsIdent(k):
			w.c.Bind(s.Bytes(k), w.c.Member(node, s.Bytes(k)))
		}
		for k < s.Close(open) && !s.Is(k, ",") {
			k = s.Close(k) + 1
		}
	}
}

// headed walks what stands in the parentheses behind "for", "if" and their
// like; its names are known in the statement behind.
func (w *walker) headed(i, end int) int {
	s := w.s
	if s.Is(i, "await") {
		i++
	}
	if !s.Is(i, "(") {
		return 0
	}
	at := w.c.Open()
	if s.Is(i-1, "catch") {
		w.pattern(i+1, none)
	} else {
		w.statements(i+1, s.Close(i))
	}
	next := s.Close(i) + 1
	if next < end {
		next = max(w.statement(next, end), next+1)
	}
	w.c.Close(at)
	return next
}

func (w *walker) returning(i, end int) int {
	s := w.s
	if i+1 >= end || s.Line(i+1) != s.Line(i) || s.Any(i+1, ";", "}") {
		return i + 1
	}
	if i == w.r.standsAt {
		return w.stands(i + 1)
	}
	n, next := w.expr(i + 1)
	if w.gives == none {
		w.gives = n
	}
	return next
}

// named steps over a declaration with a name and braces.
func (w *walker) named(i, _ int) int {
	s := w.s
	if s.Match(i+1, syntax.Name, "{") {
		return s.Close(i+2) + 1
	}
	return 0
}

func (w *walker) namespace(i, _ int) int {
	s := w.s
	k := i + 1
	name := ""
	for s.Any(k, syntax.Name, ".", syntax.Quoted) {
		name += s.Unquote(k)
		k++
	}
	if name == "" || !s.Is(k, "{") {
		return 0
	}
	owner := w.owner
	w.owner = join(owner, name)
	w.statements(k+1, s.Close(k))
	w.owner = owner
	return s.Close(k) + 1
}
