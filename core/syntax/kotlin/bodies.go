package kotlin

import (
	"jantel/core/model"
	"jantel/core/syntax"
)

const none = syntax.None

// walker walks a file once its definitions are known. A statement ends with its
// line where nothing asks for more; what stands in braces behind a call is a
// function, most often of what the call was made on.
type walker struct {
	s       *syntax.Stream
	c       *syntax.Chains
	class   string
	inside  int      // functions around
	askedOf []int32  // what bare names are members of, besides of the class: the innermost last
	gives   int32    // what the function around gives by a return
	casts   []casted // what was found to be of a type
}

// casted is a name that stands for something else for a while.
type casted struct {
	name []byte
	was  int32
	is   int32
	not  bool // it was asked not to be of it
}

func (r *reader) bodies() {
	w := &walker{s: r.s, c: r.s.Chains(), gives: none}
	w.c.In = syntax.ByLine
	for i := range r.f.Definitions {
		if d := &r.f.Definitions[i]; d.Name == "Companion" && d.Parent != "" { // its members are those of the class
			w.c.Shape(model.Shape{Name: d.Parent, Kind: model.ShapeBase, Node: w.c.Name([]byte(d.Qualified()))})
		}
	}
	w.statements(0, r.s.Len())
}

// statements walks those between two tokens, and tells what the last stands for.
func (w *walker) statements(i, end int) (last int32) {
	last = none
	if !w.c.Deeper() {
		return last
	}
	defer w.c.Shallower()
	for i < end {
		at := len(w.casts)
		n, next := w.statement(i, end)
		if next > i+1 || n != none || w.s.IsIdent(i) {
			last = n
		}
		w.uncast(at)
		i = max(next, i+1)
	}
	return last
}

// block walks statements in braces.
func (w *walker) block(open int) (last int32, next int) {
	at := w.c.Open()
	last = w.statements(open+1, w.s.Close(open))
	w.c.Close(at)
	return last, w.s.Close(open) + 1
}

// declared are the words that begin a declaration, and how it goes on.
var declared map[string]func(w *walker, i, end int) (next int)

func init() {
	declared = map[string]func(w *walker, i, end int) (next int){
		"package": (*walker).line, "import": (*walker).line, "typealias": (*walker).alias,
		"class": (*walker).classAt, "interface": (*walker).classAt, "object": (*walker).classAt,
		"fun": (*walker).function, "val": (*walker).value, "var": (*walker).value,
		"constructor": (*walker).constructor, "init": (*walker).initial,
	}
}

func (w *walker) line(i, end int) int {
	at := w.s.Line(i)
	for i < end && w.s.Line(i) == at {
		i++
	}
	return i
}

func (w *walker) statement(i, end int) (node int32, next int) {
	s := w.s
	for i < end {
		switch {
		case s.Is(i, "@"):
			i = w.mark(i)
			continue
		case s.Is(i, "companion") && s.Is(i+1, "object"):
			return none, w.companion(i + 1)
		case modifiers[string(s.Bytes(i))] && (s.IsIdent(i+1) || s.Is(i+1, "@")):
			i++
			continue
		}
		break
	}
	if i >= end {
		return none, end
	}
	if s.IsIdent(i) && w.declares(i) {
		return none, declared[string(s.Bytes(i))](w, i, end)
	}
	return w.expr(i)
}

// declares reports whether the word at i begins a declaration there.
func (w *walker) declares(i int) bool {
	s := w.s
	switch word := string(s.Bytes(i)); word {
	case "object":
		return s.IsIdent(i + 1)
	case "interface":
		return s.IsIdent(i + 1)
	case "fun":
		return s.IsIdent(i+1) || s.Is(i+1, "<")
	case "init":
		return s.Is(i+1, "{") && w.inside == 0
	case "constructor":
		return s.Is(i+1, "(") && w.inside == 0
	default:
		return declared[word] != nil && (s.IsIdent(i+1) || s.Any(i+1, "(", "<"))
	}
}

// mark steps over an annotation.
func (w *walker) mark(i int) int {
	s := w.s
	for i++; s.IsIdent(i) || s.Any(i, ".", ":") && s.IsIdent(i+1); i++ {
		if s.IsIdent(i) && !s.Any(i+1, ".", ":") {
			i++
			break
		}
	}
	i = w.args(i)
	if s.Is(i, "(") && s.Line(i) == s.Line(i-1) || s.Is(i, "[") {
		return s.Close(i) + 1
	}
	return i
}

// args steps over "<…>" at i where it reads like the arguments of a type.
func (w *walker) args(i int) int {
	s := w.s
	if !s.Is(i, "<") {
		return i
	}
	depth := 0
	for k := i; k < s.Len() && k < i+300; k = s.Close(k) + 1 {
		switch {
		case s.Is(k, "<"):
			depth++
		case s.Is(k, ">"):
			if s.Is(k-1, "-") {
				continue
			}
			if depth--; depth == 0 {
				return k + 1
			}
		case !s.Any(k, syntax.Name, ",", ".", "?", "*", ":", "(", "-", "@", "&"):
			return i
		}
	}
	return i
}

func join(parent, name string) string {
	if parent == "" {
		return name
	}
	return parent + "." + name
}

// within walks a body in which bare names are members of a type.
func (w *walker) within(class string, open int) {
	was, inside, asked := w.class, w.inside, w.askedOf
	w.class, w.inside, w.askedOf = class, 0, nil
	w.statements(open+1, w.s.Close(open))
	w.class, w.inside, w.askedOf = was, inside, asked
}

func (w *walker) companion(i int) (next int) {
	s := w.s
	name, k := "Companion", i+1
	if s.IsIdent(k) {
		name = s.Text(k)
		k++
	}
	return w.typeBody(join(w.class, name), k, false)
}

// classAt walks a class, an interface or an object.
func (w *walker) classAt(i, end int) (next int) {
	s := w.s
	enum := s.Is(i-1, "enum")
	if s.Is(i, "fun") {
		i++
	}
	name := join(w.class, s.Text(i+1))
	at := w.c.Open()
	defer w.c.Close(at)
	k := w.args(i + 2)
	for modifiers[string(s.Bytes(k))] || s.Is(k, "@") {
		if s.Is(k, "@") {
			k = w.mark(k)
			continue
		}
		k++
	}
	if s.Is(k, "constructor") {
		k++
	}
	if s.Is(k, "(") {
		w.params(k, name)
		k = s.Close(k) + 1
	}
	return w.typeBody(name, k, enum)
}

// typeBody walks what a type is built upon, from its colon on, and its body.
func (w *walker) typeBody(name string, k int, enum bool) (next int) {
	s := w.s
	for s.Any(k, ":", ",") {
		if s.Is(k+1, "@") {
			k = w.mark(k+1) - 1
		}
		t, after := w.typ(k + 1)
		if t != none {
			w.c.Shape(model.Shape{Name: name, Kind: model.ShapeBase, Node: t})
			w.c.Put(t, model.CallInherit, s.Line(k+1))
		}
		k = max(after, k+1)
		switch {
		case s.Is(k, "("):
			w.c.Put(t, model.CallConstruct, s.Line(k-1))
			w.arguments(k)
			k = s.Close(k) + 1
		case s.Is(k, "by"):
			_, k = w.operand(k + 1)
		}
	}
	for s.Is(k, "where") {
		for k++; k < s.Len() && !s.Is(k, "{") && s.Line(k) == s.Line(k-1); k++ {
		}
	}
	if !s.Is(k, "{") {
		return k
	}
	if enum {
		w.constants(name, k)
	} else {
		w.within(name, k)
	}
	return s.Close(k) + 1
}

// constants walks those that an enumeration begins with, then its members.
func (w *walker) constants(name string, open int) {
	s, end := w.s, w.s.Close(open)
	self := w.c.Self(name)
	i := open + 1
	for i < end && !s.Is(i, ";") {
		if s.Is(i, "@") {
			i = w.mark(i)
			continue
		}
		if s.IsIdent(i) && s.Any(i+1, "(", ",", ";", "{", "}") {
			w.c.Shape(model.Shape{Owner: name, Name: s.Text(i), Kind: model.ShapeValue, Node: self})
		}
		switch {
		case s.Is(i, "("):
			w.arguments(i)
		case s.Is(i, "{"):
			w.within(name, i)
		}
		i = s.Close(i) + 1
	}
	was, inside := w.class, w.inside
	w.class, w.inside = name, 0
	w.statements(i+1, end)
	w.class, w.inside = was, inside
}

func (w *walker) alias(i, end int) (next int) {
	s := w.s
	name := i + 1
	k := w.args(name + 1)
	if !s.Is(k, "=") {
		return k
	}
	t, next := w.typ(k + 1)
	if t != none {
		w.c.Shape(model.Shape{Name: join(w.class, s.Text(name)), Kind: model.ShapeUnder, Node: t})
	}
	return next
}

func (w *walker) initial(i, end int) int {
	w.inside++
	_, next := w.block(i + 1)
	w.inside--
	return next
}

func (w *walker) constructor(i, end int) int {
	s := w.s
	at := w.c.Open()
	defer w.c.Close(at)
	w.params(i+1, "")
	k := s.Close(i+1) + 1
	if s.Is(k, ":") && s.Is(k+2, "(") {
		w.arguments(k + 2)
		k = s.Close(k+2) + 1
	}
	if s.Is(k, "{") {
		w.inside++
		_, k = w.block(k)
		w.inside--
	}
	return k
}

// function walks "fun <T> Type.name(params): Type = value" or with a body.
func (w *walker) function(i, end int) (next int) {
	s := w.s
	if s.Is(i+1, "interface") {
		return w.classAt(i, end)
	}
	k := w.args(i + 1)
	of, name := none, k
	if !s.Is(k+1, "(") { // it extends a type
		name = k
		for name < end && !s.Is(name+1, "(") {
			name++
		}
		if name-k > 60 || name >= end {
			return k
		}
		t, _ := w.extended(k)
		of = w.c.Instance(t)
	}
	at, inside, asked, gives := w.c.Open(), w.inside, w.askedOf, w.gives
	w.inside, w.gives = inside+1, none
	if of != none {
		w.askedOf = append(w.askedOf[:len(w.askedOf):len(w.askedOf)], of)
	}
	defer func() {
		w.c.Close(at)
		w.inside, w.askedOf, w.gives = inside, asked, gives
	}()
	w.params(name+1, "")
	k = s.Close(name+1) + 1
	result := none
	if s.Is(k, ":") {
		var t int32
		t, k = w.typ(k + 1)
		result = w.c.Instance(t)
	}
	told := none
	switch {
	case s.Is(k, "=") && !s.Is(k+1, "="):
		told, k = w.expr(k + 1)
	case s.Is(k, "{"):
		_, k = w.block(k)
	}
	if result == none {
		result = told
	}
	w.named(s.Text(name), of, result, inside)
	return k
}

// named keeps what a function gives, and what it extends.
func (w *walker) named(name string, of, gives int32, inside int) {
	if inside > 0 {
		return
	}
	if of != none {
		w.extends(name, of)
	}
	if gives != none {
		w.c.Shape(model.Shape{Owner: w.class, Name: name, Kind: model.ShapeResult, Node: gives})
	}
}

// extends keeps that a function or a value looks like a member of a type: where it
// is a member itself only its class knows it.
func (w *walker) extends(name string, of int32) {
	if w.class == "" {
		w.c.Shape(model.Shape{Name: name, Kind: model.ShapeExtends, Node: of})
	}
}

// extended reads the type that a function or a value extends, up to the dot
// before its name.
func (w *walker) extended(i int) (node int32, next int) {
	s := w.s
	node = w.typeName(i)
	for i++; ; {
		i = w.args(i)
		if s.Is(i, "?") {
			i++
		}
		if !s.Is(i, ".") || !s.IsIdent(i+1) || !s.Any(i+2, ".", "<", "?") {
			return node, i
		}
		node = w.c.Member(node, s.Bytes(i+1))
		i += 2
	}
}

// params binds parameters; those of a class that are kept are its fields.
func (w *walker) params(open int, of string) {
	s, end := w.s, w.s.Close(open)
	for i := open + 1; i < end; {
		for modifiers[string(s.Bytes(i))] && !s.Is(i+1, ":") || s.Is(i, "@") {
			if s.Is(i, "@") {
				i = w.mark(i)
				continue
			}
			i++
		}
		kept := s.Any(i, "val", "var") && s.IsIdent(i+1)
		if kept {
			i++
		}
		name, node, k := i, none, i+1
		if s.Is(k, ":") {
			var t int32
			t, k = w.typ(k + 1)
			node = w.c.Instance(t)
			if s.Match(name-1, "vararg") {
				node = w.c.Instance(w.c.Go(t, model.ChainList, nil))
			}
		}
		if s.Is(k, "=") {
			_, k = w.expr(k + 1)
		}
		if s.IsIdent(name) {
			w.c.Bind(s.Bytes(name), node)
			if kept && of != "" && node != none {
				w.c.Shape(model.Shape{Owner: of, Name: s.Text(name), Kind: model.ShapeValue, Node: node})
			}
		}
		for i = max(k, name+1); i < end && !s.Is(i, ","); {
			i = s.Close(i) + 1
		}
		i++
	}
}

// value walks "val name: Type = value", with what is done to read and to set it.
func (w *walker) value(i, end int) (next int) {
	s := w.s
	k := w.args(i + 1)
	if s.Is(k, "(") { // taken apart
		for p := k + 1; p < s.Close(k); p++ {
			if s.IsIdent(p) && !s.Is(p-1, ":") {
				w.c.Bind(s.Bytes(p), none)
			}
		}
		k = s.Close(k) + 1
		if s.Is(k, "=") {
			_, k = w.expr(k + 1)
		}
		return k
	}
	of, name := none, k
	if s.Any(k+1, ".", "<", "?") {
		var t int32
		t, name = w.extended(k)
		of, name = w.c.Instance(t), name+1
	}
	node := none
	if k = name + 1; s.Is(k, ":") {
		var t int32
		t, k = w.typ(k + 1)
		node = w.c.Instance(t)
	}
	asked := w.askedOf
	if of != none {
		w.askedOf = append(asked[:len(asked):len(asked)], of)
	}
	told := none
	switch {
	case s.Is(k, "=") && !s.Is(k+1, "="):
		told, k = w.expr(k + 1)
	case s.Is(k, "by"):
		told, k = w.expr(k + 1)
	}
	got, k := w.accessors(k, end)
	w.askedOf = asked
	w.keep(name, w.c.Either(node), w.c.Either(told, got), of)
	return k
}

// keep makes a name stand for a value: a local, or a field of the class.
func (w *walker) keep(name int, typed, told, of int32) {
	node := typed
	if node == none {
		node = told
	}
	text := w.s.Text(name)
	if w.inside > 0 {
		w.c.Bind([]byte(text), node)
		return
	}
	if of != none {
		w.extends(text, of)
	}
	if _, local := w.c.Find([]byte(text)); local {
		w.c.Bind([]byte(text), node) // a parameter of the class has its name
	}
	if node != none {
		w.c.Shape(model.Shape{Owner: w.class, Name: text, Kind: model.ShapeValue, Node: node})
	}
}

// accessors walks "get() = …" and "set(x) { … }" behind a value.
func (w *walker) accessors(k, end int) (got int32, next int) {
	s := w.s
	got = none
	for k < end {
		at := k
		for modifiers[string(s.Bytes(at))] {
			at++
		}
		if !s.Any(at, "get", "set") || !s.Is(at+1, "(") {
			return got, k
		}
		scope := w.c.Open()
		w.params(at+1, "")
		w.inside++
		k = s.Close(at+1) + 1
		if s.Is(k, ":") {
			_, k = w.typ(k + 1)
		}
		n := none
		switch {
		case s.Is(k, "="):
			n, k = w.expr(k + 1)
		case s.Is(k, "{"):
			gives := w.gives
			w.gives = none
			_, k = w.block(k)
			n, w.gives = w.gives, gives
		}
		w.inside--
		w.c.Close(scope)
		if s.Is(at, "get") {
			got = w.c.Either(got, n)
		}
	}
	return got, k
}
