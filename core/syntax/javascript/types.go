package javascript

import (
	"strconv"

	"jantel/core/model"
	"jantel/core/syntax"
)

// classAt walks a class and gives the chain of its name.
func (w *walker) classAt(i int) (node int32, next int) {
	s := w.s
	name, k := "default", i+1
	if s.IsIdent(k) && !s.Any(k, "extends", "implements") {
		name = s.Text(k)
		k++
	}
	qualified := join(w.owner, name)
	at := w.c.Open()
	defer w.c.Close(at)
	k = w.typeParams(k)
	for k < s.Len() && !s.Is(k, "{") {
		if !s.Any(k, "extends", "implements", ",") {
			k = s.Close(k) + 1
			continue
		}
		kind := model.CallInherit
		t, after := w.typ(k + 1)
		if t != none {
			w.c.Shape(model.Shape{Name: qualified, Kind: model.ShapeBase, Node: t})
			w.c.Put(t, kind, s.Line(k+1))
		}
		k = max(after, k+1)
		if s.Is(k, "(") { // what it extends is made by a call
			w.arguments(k, none, none)
		}
	}
	if !s.Is(k, "{") {
		return none, i + 1
	}
	class, owner, deep := w.class, w.owner, w.deep
	w.class, w.deep = qualified, deep+1
	for m := k + 1; m < s.Close(k); {
		m = max(w.classMember(m, s.Close(k)), m+1)
	}
	w.class, w.owner, w.deep = class, owner, deep
	return w.c.Name([]byte(qualified)), s.Close(k) + 1
}

// typeParams hides the names of type parameters behind a name.
func (w *walker) typeParams(i int) (next int) {
	s := w.s
	next = w.r.skipTypeArgs(i)
	for k := i; k < next; k++ {
		if s.IsIdent(k) && s.Any(k-1, "<", ",", "const") {
			w.c.Bind(s.Bytes(k), none)
		}
	}
	return next
}

func (w *walker) classMember(i, end int) (next int) {
	s := w.s
	for s.Is(i, "@") {
		_, i = w.expr(i + 1)
	}
	if s.Match(i, "static", "{") {
		return w.block(i + 1)
	}
	for memberWords[string(s.Bytes(i))] && s.Any(i+1, syntax.Name, "[", "*", syntax.Quoted, syntax.Figure, "#") {
		i++
	}
	for s.Any(i, "*", "#") {
		i++
	}
	name := ""
	switch {
	case s.IsIdent(i):
		name = s.Text(i)
	case s.Kind(i) == syntax.String:
		name = s.Unquote(i)
	case s.Is(i, "["):
		i = s.Close(i)
	default:
		return i + 1
	}
	k := i + 1
	if s.Any(k, "?", "!") {
		k++
	}
	at := w.c.Open()
	defer w.c.Close(at)
	if j := w.typeParams(k); s.Is(j, "(") {
		return w.callable(w.class, name, j, false)
	}
	node := w.r.docs.typeAbove(w, i)
	if s.Is(k, ":") {
		t, after := w.typ(k + 1)
		node, k = w.instance(t), after
	}
	if s.Is(k, "=") {
		if name != "" && w.function(k+1) {
			return w.functionValue(w.class, name, k+1)
		}
		n, after := w.expr(k + 1)
		if node == none {
			node = n
		}
		k = after
	}
	if name != "" && node != none {
		w.c.Shape(model.Shape{Owner: w.class, Name: name, Kind: model.ShapeValue, Node: node})
	}
	return max(k, min(w.r.statementEnd(i, end), end-1))
}

// interfaceAt keeps the members of an interface.
func (w *walker) interfaceAt(i, _ int) int {
	s := w.s
	if !s.IsIdent(i + 1) {
		return 0
	}
	name := join(w.owner, s.Text(i+1))
	at := w.c.Open()
	defer w.c.Close(at)
	k := w.typeParams(i + 2)
	for k < s.Len() && !s.Is(k, "{") {
		if !s.Any(k, "extends", ",") {
			return 0
		}
		t, after := w.typ(k + 1)
		if t != none {
			w.c.Shape(model.Shape{Name: name, Kind: model.ShapeBase, Node: t})
			w.c.Put(t, model.CallInherit, s.Line(k+1))
		}
		k = max(after, k+1)
	}
	w.typeMembers(k, name)
	return s.Close(k) + 1
}

// typeMembers keeps the members of a type that is written out in braces.
func (w *walker) typeMembers(open int, of string) {
	s, end := w.s, w.s.Close(open)
	for i := open + 1; i < end; {
		for s.Any(i, "readonly", "get", "set") && s.IsIdent(i+1) {
			i++
		}
		k := i + 1
		if s.Is(k, "?") {
			k++
		}
		if s.Is(i, "(") { // what may be called as it is
			w.takes(i, of, "")
			if k = s.Close(i) + 1; s.Is(k, ":") {
				_, k = w.typ(k + 1)
			}
		} else if j := w.r.skipTypeArgs(k); s.IsIdent(i) && s.Is(j, "(") {
			w.c.Shape(model.Shape{Owner: of, Name: s.Text(i), Kind: model.ShapeMethod, Node: none})
			if s.Is(s.Close(j)+1, ":") {
				t, after := w.typ(s.Close(j) + 2)
				if t != none {
					w.c.Shape(model.Shape{Owner: of, Name: s.Text(i), Kind: model.ShapeResult, Node: t})
				}
				k = after
			} else {
				k = s.Close(j) + 1
			}
		} else if s.IsIdent(i) && s.Is(k, ":") && s.Is(k+1, "(") && s.Is(s.Close(k+1)+1, "=>") {
			w.c.Shape(model.Shape{Owner: of, Name: s.Text(i), Kind: model.ShapeMethod, Node: none})
			t, after := w.typ(s.Close(k+1) + 2)
			if t != none {
				w.c.Shape(model.Shape{Owner: of, Name: s.Text(i), Kind: model.ShapeResult, Node: t})
			}
			k = after
		} else if s.IsIdent(i) && s.Is(k, ":") {
			t, after := w.typ(k + 1)
			if t != none {
				w.c.Shape(model.Shape{Owner: of, Name: s.Text(i), Kind: model.ShapeValue, Node: w.instance(t)})
			}
			k = after
		}
		i = max(k, s.Close(i)+1)
		for i < end && s.Any(i, ";", ",") {
			i++
		}
	}
}

func (w *walker) typeAlias(i, end int) int {
	s := w.s
	if !s.IsIdent(i + 1) {
		return 0
	}
	at := w.c.Open()
	defer w.c.Close(at)
	k := w.typeParams(i + 2)
	if !s.Is(k, "=") {
		return 0
	}
	name := s.Text(i + 1)
	switch j := w.r.skipTypeArgs(k + 1); {
	case s.Is(k+1, "{"):
		w.typeMembers(k+1, join(w.owner, name))
		w.more(s.Close(k+1)+1, join(w.owner, name))
	case s.Is(j, "(") && s.Is(s.Close(j)+1, "=>"):
		w.takes(j, join(w.owner, name), "")
		fallthrough
	default:
		t, after := w.oneType(k + 1)
		if s.Any(after, "|", "extends") {
			t, _ = w.typ(k + 1)
		}
		if t != none {
			w.c.Shape(model.Shape{Owner: w.owner, Name: name, Kind: model.ShapeUnder, Node: t})
		}
		w.more(after, join(w.owner, name))
	}
	return w.r.statementEnd(i, end) + 1
}

// mostTaken is up to how many of what a function takes are kept of its type.
const mostTaken = 3

// takes keeps the types of what a function of a type takes, so that a function put
// there knows what it is handed: as members of the type, or of the function that takes
// it, under names that no member can have.
func (w *walker) takes(open int, of, at string) {
	s := w.s
	for i, nth := open+1, 0; i < s.Close(open) && nth < mostTaken; nth++ {
		k := s.Close(i) + 1 // a name, or a pattern
		if s.Is(k, "?") {
			k++
		}
		if s.Is(k, ":") {
			var t int32
			if t, k = w.typ(k + 1); t != none {
				name := at + "(" + strconv.Itoa(nth) + ")"
				w.c.Shape(model.Shape{Owner: of, Name: name, Kind: model.ShapeValue, Node: w.instance(t)})
			}
		}
		for k < s.Close(open) && !s.Is(k, ",") {
			k = s.Close(k) + 1
		}
		i = k + 1
	}
}

// takenBy are what a function is handed that is put where a type, or a function that
// is called, says so.
func (w *walker) takenBy(by int32, at string) (handed []int32) {
	for nth := range mostTaken {
		handed = append(handed, w.c.Member(by, []byte(at+"("+strconv.Itoa(nth)+")")))
	}
	return handed
}

// given is what the function that is walked is handed in that place.
func (w *walker) given(nth int) int32 {
	if nth < len(w.handed) {
		return w.handed[nth]
	}
	return none
}

// more keeps what a type has besides what it begins with: "{ … } & Lots", "Lots & { … }".
func (w *walker) more(i int, of string) {
	s := w.s
	for s.Is(i, "&") {
		if s.Is(i+1, "{") {
			w.typeMembers(i+1, of)
			i = s.Close(i+1) + 1
			continue
		}
		t, next := w.oneType(i + 1)
		if t != none {
			w.c.Shape(model.Shape{Name: of, Kind: model.ShapeBase, Node: t})
		}
		i = max(next, i+1)
	}
}

// typ reads a type. Of a union with nothing in it the rest is the type.
func (w *walker) typ(i int) (node int32, next int) {
	s := w.s
	if !w.c.Deeper() {
		return none, s.Close(i) + 1
	}
	defer w.c.Shallower()
	if s.Any(i, "|", "&") {
		i++
	}
	node, next = w.oneType(i)
	for s.Any(next, "|", "&") {
		empty := plain[string(s.Bytes(next+1))]
		meets := s.Is(next, "&") && node != none
		var n int32
		if n, next = w.oneType(next + 1); !empty && !meets {
			node = w.c.Either(node, n)
		}
	}
	switch {
	case s.Is(next, "is") && s.Line(next) == s.Line(next-1):
		_, next = w.typ(next + 1)
		return none, next
	case s.Is(next, "extends"):
		_, next = w.typ(next + 1)
		if s.Is(next, "?") {
			_, next = w.typ(next + 1)
			if s.Is(next, ":") {
				_, next = w.typ(next + 1)
			}
		}
		return none, next
	}
	return node, next
}

func (w *walker) oneType(i int) (node int32, next int) {
	s, c := w.s, w.c
	for s.Any(i, "readonly", "unique", "asserts", "infer", "abstract") && (s.IsIdent(i+1) || s.Any(i+1, "[", "(")) {
		i++
	}
	switch {
	case s.Is(i, "("), s.Is(i, "<"):
		k := w.r.skipTypeArgs(i)
		if s.Is(s.Close(k)+1, "=>") {
			t, next := w.typ(s.Close(k) + 2)
			return c.Func([]int32{t}), next
		}
		node, _ = w.typ(i + 1)
		next = s.Close(i) + 1
	case s.Is(i, "new"):
		return none, w.typeEnd(i + 1)
	case s.Is(i, "{"):
		node, next = w.written(i), s.Close(i)+1
	case s.Is(i, "["):
		node, next = none, s.Close(i)+1
	case s.Any(i, "keyof", "typeof"):
		_, next = w.oneType(i + 1)
		return none, next
	case s.IsIdent(i):
		node, next = w.typeName(i)
	case s.Is(i, "-"):
		return none, i + 2
	default:
		node, next = none, i+1
	}
	for s.Is(next, "[") && s.Line(next) == s.EndLine(next-1) {
		switch {
		case s.Close(next) == next+1:
			node = c.Go(node, model.ChainList, nil)
		case s.Kind(next+1) == syntax.String && s.Close(next) == next+2 && node != none:
			node = c.Member(w.instance(node), []byte(s.Unquote(next+1)))
			w.values[node] = true
		default:
			node = none
		}
		next = s.Close(next) + 1
	}
	return node, next
}

// written keeps the members of a type that is written out where it is needed, under a
// name that nothing else can have.
func (w *walker) written(open int) int32 {
	name := "{" + w.salt + strconv.Itoa(open) + "}"
	w.typeMembers(open, name)
	node := w.c.Self(name)
	w.values[node] = true
	return node
}

// instance is a value of a type.
func (w *walker) instance(t int32) int32 {
	if w.values[t] {
		return t
	}
	return w.c.Instance(t)
}

func (w *walker) typeEnd(i int) int {
	if w.s.Is(i, "(") {
		i = w.s.Close(i) + 1
		if w.s.Is(i, "=>") {
			_, i = w.typ(i + 1)
		}
	}
	return i
}

func (w *walker) typeName(i int) (node int32, next int) {
	s, c := w.s, w.c
	word := s.Text(i)
	if word == "import" && s.Match(i+1, "(", syntax.Quoted, ")") { // import("./lots").Lot
		n := c.Step(none, model.ChainTaken, []byte(s.Unquote(i+2)+" *"))
		for i += 4; s.Is(i, ".") && s.IsIdent(i+1); i += 2 {
			n = c.Member(n, s.Bytes(i+1))
		}
		return n, i
	}
	n, local := c.Find(s.Bytes(i))
	if !local {
		n = w.name(i)
	}
	for i++; s.Is(i, ".") && s.IsIdent(i+1); i += 2 {
		n = c.Member(n, s.Bytes(i+1))
	}
	if !s.Is(i, "<") {
		return n, i
	}
	end := w.r.skipTypeArgs(i)
	if end == i {
		return n, i
	}
	first, k := w.typ(i + 1)
	switch {
	case listTypes[word]:
		n = c.Go(first, model.ChainList, nil)
	case mapTypes[word]:
		second := none
		if s.Is(k, ",") {
			second, _ = w.typ(k + 1)
		}
		n = c.Map(first, second)
	case sameTypes[word]:
		n = first
	}
	return n, end
}

// What some types that everybody knows are about: a list or a map of what they
// hold, or what they hold itself.
var (
	listTypes = syntax.Set("Array", "ReadonlyArray", "Set", "ReadonlySet", "Iterable", "IterableIterator", "AsyncIterable", "NodeListOf")
	mapTypes  = syntax.Set("Map", "ReadonlyMap", "Record", "WeakMap")
	sameTypes = syntax.Set("Promise", "PromiseLike", "Partial", "Omit", "Pick",
		"Required", "Readonly", "NonNullable", "Awaited", "MaybeRef", "Ref")
	plain = syntax.Set("null", "undefined", "void", "never")
)
