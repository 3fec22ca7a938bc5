package kotlin

import (
	"jantel/core/model"
	"jantel/core/syntax"
)

// What some types that everybody knows hold.
var (
	listTypes = syntax.Set("List", "MutableList", "Set", "MutableSet", "Collection", "MutableCollection", "Iterable", "Sequence", "Array",
		"ArrayList", "HashSet", "LinkedHashSet", "Iterator", "Flow", "StateFlow", "MutableStateFlow", "LiveData", "Deque",
		"ArrayDeque")
	mapTypes  = syntax.Set("Map", "MutableMap", "HashMap", "LinkedHashMap", "ConcurrentHashMap")
	sameTypes = syntax.Set("Deferred", "Result", "Lazy", "Optional", "WeakReference")
	plain     = syntax.Set("null", "true", "false", "Unit", "Int", "Long", "String", "Boolean", "Double", "Float", "Byte", "Short",
		"Char", "Any", "Nothing")
)

// What members of lists give: a list of the same, or one of its elements.
var (
	listGives = syntax.Set("filter", "filterNot", "filterNotNull", "sorted", "sortedBy", "sortedByDescending", "sortedWith", "reversed",
		"take", "drop", "takeWhile", "dropWhile", "distinct", "distinctBy", "toList", "toMutableList", "toSet", "asSequence", "plus", "minus",
		"onEach", "shuffled", "orEmpty", "subList", "asReversed", "takeLast", "dropLast", "values")
	listOne = syntax.Set("first", "firstOrNull", "last", "lastOrNull", "single", "singleOrNull", "find", "findLast", "random", "get",
		"getOrNull", "elementAt", "maxBy", "minBy", "maxByOrNull", "minByOrNull", "removeAt", "removeFirst", "removeLast", "next", "await")
)

// typeName begins a chain at the name of a type.
func (w *walker) typeName(i int) int32 {
	if w.class == "" {
		return w.c.Name(w.s.Bytes(i))
	}
	return w.c.Step(none, model.ChainType, append([]byte(w.class+" "), w.s.Bytes(i)...))
}

// typ reads a type.
func (w *walker) typ(i int) (node int32, next int) {
	s, c := w.s, w.c
	if !c.Deeper() {
		return none, s.Close(i) + 1
	}
	defer c.Shallower()
	for s.Is(i, "@") || s.Any(i, "in", "out", "suspend", "reified") && (s.IsIdent(i+1) || s.Is(i+1, "(")) {
		if s.Is(i, "@") {
			i = w.mark(i)
			continue
		}
		i++
	}
	if s.Is(i, "(") { // of functions, or a type in parentheses
		k := s.Close(i) + 1
		if !s.Match(k, "-", ">") {
			node, _ = w.typ(i + 1)
			return node, w.orNone(k)
		}
		t, next := w.typ(k + 2)
		return c.Func([]int32{t}), next
	}
	if !s.IsIdent(i) {
		return none, s.Close(i) + 1
	}
	if plain[string(s.Bytes(i))] {
		return none, w.orNone(i + 1)
	}
	node, next = w.typePath(i)
	word := string(s.Bytes(next - 1))
	if end := w.args(next); end > next {
		node = w.made(word, node, next)
		next = end
	}
	if s.Is(next, ".") && s.Is(next+1, "(") { // of functions that are run on one
		return w.typ(next + 1)
	}
	return node, w.orNone(next)
}

func (w *walker) orNone(i int) int {
	for w.s.Is(i, "?") && !w.s.Any(i+1, ".", ":") {
		i++
	}
	return i
}

// typePath reads a name with those before it; the whole may be one that is
// written with its package.
func (w *walker) typePath(i int) (node int32, next int) {
	s := w.s
	first := i
	node = w.typeName(i)
	for i++; s.Is(i, ".") && s.IsIdent(i+1); i += 2 {
		node = w.c.Member(node, s.Bytes(i+1))
	}
	if i > first+1 && s.Tokens[i-1].End-s.Tokens[first].Start < 300 {
		node = w.c.Either(node, w.c.Name(s.Src[s.Tokens[first].Start:s.Tokens[i-1].End]))
	}
	return node, i
}

// made is a type with the arguments that open at i.
func (w *walker) made(word string, node int32, i int) int32 {
	first, k := w.typ(i + 1)
	switch {
	case listTypes[word]:
		return w.c.Go(first, model.ChainList, nil)
	case mapTypes[word] && w.s.Is(k, ","):
		second, _ := w.typ(k + 1)
		return w.c.Map(first, second)
	case sameTypes[word]:
		return first
	}
	return node
}
