package javascript

import (
	"jantel/core/model"
	"jantel/core/syntax"
)

// Modules of the older sort hand out by setting: "exports.name = …" one by one,
// "module.exports = …" what stands for the whole module, which may be one function,
// one class, or an object of which each member goes by its own name. What is
// defined so comes first here, then who calls it.

// assignment reads "exports.name = …" and "module.exports = …".
func (r *reader) assignment(i, end int, parent string) int {
	s := r.s
	j := i
	for s.Match(j, syntax.Name, ".", syntax.Name) {
		j += 2
	}
	if v := namesExports(s, i); v > 0 {
		r.names["default"] = true
		return r.module(declaration{first: i, at: v, end: end, parent: parent, exported: true, isDefault: true}, r.statementEnd(v, end))
	}
	exports := s.Is(i, "exports") || s.Is(i, "module") && s.Is(i+2, "exports")
	if j == i || !exports || !s.Is(j+1, "=") || s.Is(j+2, "=") {
		if next := r.placed(i, j, end, parent); next > 0 && !exports {
			return next
		}
		return r.statementEnd(i, end) + 1
	}
	last := r.statementEnd(j+2, end)
	name := s.Text(j)
	if s.Any(j+2, "function", "async", "(") {
		d := r.define(name, parent, r.functionKind(name, j+2, last), i, last, true)
		d.Params = r.params(r.paramsOf(j+2, last))
	}
	r.names[name] = true
	return last + 1
}

// namesExports is where the value stands in "module.exports = …" at i; 0 where no
// such thing is there. What is put into the name "exports" alone goes nowhere.
func namesExports(s *syntax.Stream, i int) (value int) {
	for stands := false; ; {
		switch {
		case s.Match(i, "module", ".", "exports", "="):
			i, stands = i+4, true
		case s.Match(i, "exports", "="):
			i += 2
		case stands:
			return i
		default:
			return 0
		}
	}
}

// alsoExports is the same for a value that a name is set to, in parentheses or not:
// const rack = (module.exports = …).
func alsoExports(s *syntax.Stream, i int) (value int) {
	if s.Is(i, "(") {
		i++
	}
	return namesExports(s, i)
}

// calledAtOnce reports whether the function at i is called where it is written.
func calledAtOnce(s *syntax.Stream, i int) bool {
	for s.Any(i, "async", "function", "*") || s.IsIdent(i) {
		i++
	}
	return s.Is(i, "(") && s.Is(s.Close(i)+1, "{") && s.Is(s.Close(s.Close(i)+1)+1, "(")
}

// module reads what a file stands for as a whole, up to the token last.
func (r *reader) module(d declaration, last int) (next int) {
	s := r.s
	switch fn := s.Is(d.at, "function") || s.Match(d.at, "async", "function"); {
	case s.Is(d.at, "class"):
		r.class(d.at, d.first, d.parent, true)
	case fn && calledAtOnce(s, d.at): // what it gives stands for the module, and has no name
	case fn:
		if s.Is(d.at, "async") {
			d.at++
		}
		r.functionStatement(d)
	case r.isFunction(d.at, last):
		def := r.define("default", d.parent, r.functionKind("", d.at, last), d.first, last, true)
		def.Params = r.params(r.paramsOf(d.at, last))
	case s.Is(d.at, "{"):
		r.exportsObject(d.at, d.parent)
	case s.IsIdent(d.at) && last <= d.at+1:
		r.public[s.Text(d.at)] = true
	}
	return last + 1
}

// exportsObject reads "module.exports = { a, b, c() { … } }": what stands in it
// goes by its own name, as if it had been put on exports alone.
func (r *reader) exportsObject(open int, parent string) {
	s := r.s
	for k := open + 1; k < s.Close(open); k = s.Close(k) + 1 {
		if s.IsIdent(k) && s.Any(k-1, "{", ",") {
			r.public[s.Text(k)] = true
			r.names[s.Text(k)] = true
		}
	}
	from := len(r.f.Definitions)
	r.members(open, parent, true)
	for i := from; i < len(r.f.Definitions); i++ {
		d := &r.f.Definitions[i]
		d.Kind = model.DefFunction
		r.names[d.Name] = true
	}
}

// handedOut reads "exports.name = …" and "module.exports = …".
func (w *walker) handedOut(i int) (next int) {
	s := w.s
	if v := namesExports(s, i); v > 0 {
		return w.stands(v)
	}
	k := i
	if s.Match(k, "module", ".", "exports") {
		k += 2
	}
	if !s.Match(k, "exports", ".", syntax.Name, "=") || s.Is(k+4, "=") {
		return 0
	}
	return w.value(s.Text(k+2), k+4)
}

// stands reads what stands for a whole module: an object hands out all it names.
func (w *walker) stands(at int) (next int) {
	s := w.s
	if fn := at + 1; (s.Is(at, "function") || s.Match(at, "async", "function")) && !calledAtOnce(s, at) {
		for s.Any(fn, "function", "*") {
			fn++
		}
		if s.IsIdent(fn) {
			w.hand("default", w.c.Name(s.Bytes(fn)))
			return w.callable(w.owner, s.Text(fn), w.r.skipTypeArgs(fn+1), false)
		}
	}
	if s.Match(at, "class", syntax.Name) && !s.Is(at+1, "extends") {
		w.hand("default", w.c.Name(s.Bytes(at+1)))
		_, next := w.classAt(at)
		return next
	}
	if s.Is(at, "{") {
		return w.module(at)
	}
	return w.value("default", at)
}

// module reads an object that stands for the whole module: what has a name in it
// goes by that name alone, as if it had been put on exports.
func (w *walker) module(open int) (next int) {
	s := w.s
	whole := join(w.owner, "default")
	w.hand("default", w.c.Self(whole))
	names := make(map[string]bool, len(s.Args(open)))
	stood := w.stood
	w.stood, w.alsoStood = names, names
	defer func() { w.stood = stood }()
	for _, m := range s.Args(open) {
		if at := w.memberName(m[0]); s.IsIdent(at) {
			names[s.Text(at)] = true
		}
	}
	for _, m := range s.Args(open) {
		at := w.memberName(m[0])
		if !s.IsIdent(at) {
			w.property(m[0], m[1], "")
			continue
		}
		key, k := s.Text(at), w.r.skipTypeArgs(at+1)
		switch {
		case s.Is(k, "("):
			w.callable(w.owner, key, k, false)
		case s.Is(k, ":") && w.function(k+1):
			w.functionValue(w.owner, key, k+1)
		case s.Is(k, ":"):
			node, _ := w.expr(k + 1)
			w.hand(key, node)
		default:
			w.hand(key, w.name(at))
			w.property(m[0], m[1], "")
		}
		w.c.Shape(model.Shape{Owner: whole, Name: key, Kind: model.ShapeValue, Node: w.c.Name(s.Bytes(at))})
	}
	return s.Close(open) + 1
}

// alsoOut walks what the name at the token at stands for, and the module besides.
func (w *walker) alsoOut(at, i int) (next int) {
	s := w.s
	v := alsoExports(s, i)
	switch {
	case s.Is(v, "{"):
		w.also = s.Text(at)
		next = w.stands(v)
	case w.function(v):
		w.hand("default", w.name(at))
		next = w.functionValue(w.owner, s.Text(at), v)
	default:
		w.hand("default", w.name(at))
		next = w.value(s.Text(at), v)
	}
	if s.Is(i, "(") {
		next = s.Close(i) + 1
	}
	return next
}

// ownExport is the name in "exports.name" and "module.exports.name" at i, or behind
// the name that the module was put into, which the file knows by itself; 0 where
// none of them stands there.
func (w *walker) ownExport(i int) int {
	s := w.s
	switch {
	case s.Match(i, "module", ".", "exports", ".", syntax.Name):
		return i + 4
	case s.Match(i, "exports", ".", syntax.Name):
		return i + 2
	case w.also != "" && s.Is(i, w.also) && s.Match(i+1, ".", syntax.Name) && w.alsoStood[string(s.Bytes(i+2))]:
		return i + 2
	}
	return 0
}
