package golang

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

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
