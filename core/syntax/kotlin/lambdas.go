package kotlin

import (
	"jantel/core/model"
	"jantel/core/syntax"
)

// lambda walks a function in braces; handed is what it is given, on what bare
// names in it are members of.
func (w *walker) lambda(open int, handed, on int32) (last int32, next int) {
	s := w.s
	at, asked, gives := w.c.Open(), w.askedOf, w.gives
	if on != none {
		w.askedOf = append(asked[:len(asked):len(asked)], on)
	}
	w.inside++
	from := w.lambdaParams(open, handed)
	last = w.statements(from, s.Close(open))
	w.inside--
	w.askedOf, w.gives = asked, gives
	w.c.Close(at)
	return last, s.Close(open) + 1
}

// lambdaParams binds the parameters before the arrow of a function in braces, or
// the one that it has without.
func (w *walker) lambdaParams(open int, handed int32) (from int) {
	s := w.s
	arrow := open + 1
	for arrow < min(s.Close(open), open+60) && s.Any(arrow, syntax.Name, ",", ":", "(", "<", ">", "?", ".", "_") {
		arrow = s.Close(arrow) + 1
	}
	if !s.Match(arrow, "-", ">") {
		w.c.Bind([]byte("it"), handed)
		return open + 1
	}
	if s.Is(open+1, "(") { // taken apart
		for k := open + 2; k < s.Close(open+1); k++ {
			if s.IsIdent(k) {
				w.c.Bind(s.Bytes(k), none)
			}
		}
		return arrow + 2
	}
	for k := open + 1; k < arrow; {
		name := k
		node := handed
		handed = none
		if k++; s.Is(k, ":") {
			var t int32
			t, k = w.typ(k + 1)
			node = w.c.Instance(t)
		}
		if s.IsIdent(name) {
			w.c.Bind(s.Bytes(name), node)
		}
		for k < arrow && !s.Is(k, ",") {
			k++
		}
		k++
	}
	return arrow + 2
}

// How functions that everybody knows hand on what they are called on.
var (
	handOn = syntax.Set("let", "also", "takeIf", "takeUnless")
	runOn  = syntax.Set("apply", "run", "with")
	giveIt = syntax.Set("apply", "also", "takeIf", "takeUnless")
	lastOf = syntax.Set("let", "run", "with", "lazy", "runBlocking", "withContext", "synchronized", "use", "runCatching", "coroutineScope",
		"transaction", "async", "remember")
	over = syntax.Set("forEach", "map", "filter", "mapNotNull", "flatMap", "any", "all", "none", "first", "firstOrNull", "find", "single",
		"singleOrNull", "last", "lastOrNull", "sumOf", "sumBy", "count", "groupBy", "associateBy", "associateWith", "sortedBy",
		"sortedByDescending", "maxBy", "minBy", "maxByOrNull", "minByOrNull", "filterNot", "partition", "onEach", "forEachIndexed", "mapIndexed",
		"removeIf", "joinToString", "distinctBy", "takeWhile", "dropWhile", "collect", "observe", "use", "findLast")
	maps = syntax.Set("map", "mapNotNull", "mapIndexed", "flatMap")
)

// run walks the function in braces that a call is given.
func (w *walker) run(st *state, open int) (next int) {
	c, name := w.c, string(st.name)
	if !st.told {
		c.Put(st.node, model.CallPlain, st.line)
		st.node = c.Either(c.Result(st.node, 0), c.Instance(st.with))
	} else if name == "with" {
		st.node = none
	}
	handed, on := none, none
	switch {
	case handOn[name]:
		handed = st.from
	case runOn[name]:
		on = st.from
	case over[name]:
		handed = c.Go(st.from, model.ChainElement, nil)
		if name == "use" {
			handed = st.from
		}
	}
	last, next := w.lambda(open, handed, on)
	switch {
	case giveIt[name]:
		st.node = st.from
	case lastOf[name]:
		st.node = c.Either(st.node, last)
	case maps[name]:
		st.node = c.Either(st.node, c.Instance(c.Go(last, model.ChainList, nil)))
	}
	st.told, st.name, st.with = true, nil, none
	return next
}
