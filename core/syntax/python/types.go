package python

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// What some types that everybody knows hold.
var (
	listTypes = syntax.Set("list", "List", "set", "Set", "frozenset", "FrozenSet", "Sequence", "Iterable", "Iterator", "Collection",
		"Generator", "AsyncIterator", "AsyncIterable", "MutableSequence", "deque", "Deque", "QuerySet")
	mapTypes  = syntax.Set("dict", "Dict", "Mapping", "MutableMapping", "OrderedDict", "defaultdict", "DefaultDict")
	sameTypes = syntax.Set("Optional", "Final", "ClassVar", "Annotated", "Awaitable", "Mapped", "Required", "NotRequired")
)

// typ reads a type as it is annotated, in quotes or without.
func (w *walker) typ(i int) (node int32, next int) {
	s := w.s
	if !w.c.Deeper() {
		return none, s.Close(i) + 1
	}
	defer w.c.Shallower()
	node, next = w.oneType(i)
	for s.Is(next, "|") {
		var other int32
		other, next = w.oneType(next + 1)
		node = w.c.Either(node, other)
	}
	return node, next
}

func (w *walker) oneType(i int) (node int32, next int) {
	s, c := w.s, w.c
	switch {
	case s.Kind(i) == syntax.String:
		name := strings.Trim(s.Text(i), `"'`)
		if strings.ContainsAny(name, "[|. ") {
			return none, i + 1
		}
		if u, ok := w.r.locals[name]; ok {
			return c.Step(none, model.ChainTaken, []byte(u.Module+" "+u.Name)), i + 1
		}
		return c.Name([]byte(name)), i + 1
	case s.Is(i, "None"), !s.IsIdent(i):
		return none, s.Close(i) + 1
	}
	node, next, _ = w.operand(i)
	word := s.Text(i)
	for s.Is(next, ".") && s.IsIdent(next+1) {
		word = s.Text(next + 1)
		node = c.Member(node, s.Bytes(next+1))
		next += 2
	}
	if !s.Is(next, "[") {
		c.Put(node, model.CallRead, s.Line(i))
		return node, next
	}
	first, k := w.typ(next + 1)
	end := s.Close(next) + 1
	switch {
	case listTypes[word]:
		return c.Go(first, model.ChainList, nil), end
	case mapTypes[word]:
		second := none
		if s.Is(k, ",") {
			second, _ = w.typ(k + 1)
		}
		return c.Map(first, second), end
	case sameTypes[word]:
		return first, end
	case word == "Union":
		for s.Is(k, ",") {
			var other int32
			other, k = w.typ(k + 1)
			first = c.Either(first, other)
		}
		return first, end
	}
	return node, end
}
