package syntax

import (
	"strings"

	"jantel/core/model"
)

// maxPlainChain is how many members of members are followed back.
const maxPlainChain = 20

// chain is what is known of the value that ends at a token: what a call gives
// whose function is known, what was built, a member of such. None where nothing is.
func (w *plainWalk) chain(at int, def, class string, depth int) int32 {
	s, c := w.s, w.c
	for s.Any(at, "!", "?", "&") {
		at--
	}
	if at < 0 || depth > maxPlainChain {
		return None
	}
	if s.Is(at, ")") {
		open := int(s.Tokens[at].Match)
		if open <= 0 || open >= at || !s.IsIdent(open-1) {
			return None
		}
		return w.given(open-1, def, class, depth)
	}
	if !s.IsIdent(at) {
		return None
	}
	dotted, before := w.before(at)
	if dotted {
		if w.p.Bare {
			return w.given(at, def, class, depth) // a member without parentheses is called
		}
		if from := w.owner(before, def, class, depth); from != None {
			return c.Member(from, s.Bytes(at))
		}
		return None
	}
	return w.owner(at, def, class, depth)
}

// given is what the call of the function at a token gives: an instance where a
// class is built.
func (w *plainWalk) given(i int, def, class string, depth int) int32 {
	s, c := w.s, w.c
	dotted, before := w.before(i)
	switch {
	case dotted && w.p.Build != "" && s.Is(i, w.p.Build):
		if s.IsIdent(before) && capital(s.Bytes(before)) {
			return c.Instance(c.Name(s.Bytes(before)))
		}
		return None
	case dotted:
		from := w.owner(before, def, class, depth+1)
		if from == None {
			return None
		}
		return c.Result(c.Member(from, s.Bytes(i)), 0)
	case w.p.Build == "" && capital(s.Bytes(i)):
		return c.Instance(c.Name(s.Bytes(i)))
	case class != "":
		return c.Result(c.Step(None, model.ChainBare, []byte(class+" "+s.Text(i))), 0)
	}
	return c.Result(c.Name(s.Bytes(i)), 0)
}

// owner is what the value that ends at a token is, where it stands at the
// beginning of a chain or is one itself.
func (w *plainWalk) owner(at int, def, class string, depth int) int32 {
	s, c := w.s, w.c
	if dotted, _ := w.before(at); dotted || !s.IsIdent(at) {
		return w.chain(at, def, class, depth+1)
	}
	who := s.Text(at)
	instance := func(t string) int32 { return c.Instance(c.Name([]byte(t))) }
	switch {
	case w.p.Self[who] && class != "":
		return c.Self(class)
	case w.p.Super != "" && who == w.p.Super && class != "":
		return c.Step(None, model.ChainBase, []byte(class))
	case w.types[[2]string{def, who}] != "":
		return instance(w.types[[2]string{def, who}])
	case w.types[[2]string{class, who}] != "":
		return instance(w.types[[2]string{class, who}])
	case w.fields[[2]string{class, who}] && w.types[[2]string{class, "@" + who}] != "":
		return instance(w.types[[2]string{class, "@" + who}])
	case capital(s.Bytes(at)):
		return c.Name(s.Bytes(at))
	case w.unbound(at, def, class) && w.types[[2]string{class, "@" + who}] != "":
		return instance(w.types[[2]string{class, "@" + who}]) // it keeps what it made under its own name
	case w.unbound(at, def, class):
		return c.Result(c.Step(None, model.ChainBare, []byte(class+" "+who)), 0)
	}
	return None
}

// gives notes what a function gives, as it is written behind its parameters.
func (w *plainWalk) gives(i int, class string) {
	s, c := w.s, w.c
	k := s.Close(i+1) + 1
	for _, sign := range w.p.Gives {
		if !s.Is(k, sign) {
			return
		}
		k++
	}
	if len(w.p.Gives) == 0 || !s.IsIdent(k) {
		return
	}
	of := c.Name(s.Bytes(k))
	if w.p.Lists[s.Text(k)] && s.Is(k+1, "<") && s.IsIdent(k+2) {
		of = c.Go(c.Name(s.Bytes(k+2)), model.ChainList, nil)
	}
	c.Shape(model.Shape{Owner: class, Name: s.Text(i), Kind: model.ShapeResult, Node: c.Instance(of)})
}

// binds notes the names that a definition binds: what is assigned, its parameters
// and those of its blocks; and which members only hand out a field.
func (w *plainWalk) binds(i int) {
	s := w.s
	def, class := w.here(i)
	switch {
	case s.Any(i, "attr_reader", "attr_accessor"):
		for k := i + 1; s.Kind(k) == String; k += 2 {
			w.fields[[2]string{class, strings.TrimPrefix(s.Text(k), ":")}] = true
			if !s.Is(k+1, ",") {
				break
			}
		}
	case s.Is(i+1, "=") && !s.Any(i+2, "=", "~"), s.Any(i+1, "|", "+", "-", "&", "*") && (s.Is(i+2, "=") || s.Is(i+3, "=")),
		s.Is(i-1, "|"), s.Is(i+1, "|"), s.Any(i-1, "for", ">"), s.Is(i+1, ","), s.Is(i-1, ","):
		w.bound[[2]string{def, s.Text(i)}] = true
	}
	if _, name, ok := w.method(def, class); ok && s.Text(i) == name && s.Is(i+1, "(") {
		for k := i + 2; k < s.Close(i+1); k++ {
			if s.IsIdent(k) || s.Kind(k) == String { // "upload:" is one by its name
				w.bound[[2]string{def, strings.TrimSuffix(s.Text(k), ":")}] = true
			}
		}
	}
}

// rescued notes what is caught under a name: "rescue Full, Torn => e".
func (w *plainWalk) rescued(i int, def string) {
	s := w.s
	of := ""
	for k := i + 1; k < i+20; k++ {
		switch {
		case s.IsIdent(k) && capital(s.Bytes(k)):
			if of = s.Text(k); s.Is(k+1, ",") {
				return // one of several
			}
		case s.Match(k, "=", ">", Name):
			if of != "" {
				w.types[[2]string{def, s.Text(k + 2)}] = of
			}
			return
		case !s.Any(k, "::", ":", "="):
			return
		}
	}
}

// method parts the qualified name of a method of a class.
func (w *plainWalk) method(def, class string) (owner, name string, ok bool) {
	name, ok = strings.CutPrefix(def, class+".")
	return class, name, ok && class != "" && !strings.Contains(name, ".")
}

// unbound reports whether a name without anything before it calls a member of the
// class: where members are called so, it is one, and nothing else has its name.
func (w *plainWalk) unbound(i int, def, class string) bool {
	s := w.s
	if !w.p.Bare || class == "" || def == class || !w.methods[[2]string{class, s.Text(i)}] || w.bound[[2]string{def, s.Text(i)}] {
		return false
	}
	return !s.Any(i-1, ":", "def", "alias", "@", ".") && !s.Is(i+1, ":") && !w.defined(i)
}
