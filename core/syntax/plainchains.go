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
	if n := w.root(at, def, class); n != None || !w.unbound(at, def, class) {
		return n
	}
	if t := w.types[[2]string{class, "@" + s.Text(at)}]; t != "" {
		return c.Instance(c.Name([]byte(t))) // it keeps what it made under its own name
	}
	return c.Result(c.Step(None, model.ChainBare, []byte(class+" "+s.Text(at))), 0)
}

// root is what a name at the beginning of a chain stands for: the instance, what
// its class is built upon, what it was built of or declared as, a class; None where
// it is none of these.
func (w *plainWalk) root(at int, def, class string) int32 {
	who := w.s.Text(at)
	instance := func(t string) int32 { return w.c.Instance(w.c.Name([]byte(t))) }
	switch {
	case w.p.Self[who] && class != "":
		return w.c.Self(class)
	case w.p.Super != "" && who == w.p.Super && class != "":
		return w.c.Step(None, model.ChainBase, []byte(class))
	case w.types[[2]string{def, who}] != "":
		return instance(w.types[[2]string{def, who}])
	case w.types[[2]string{class, who}] != "":
		return instance(w.types[[2]string{class, who}])
	case w.fields[[2]string{class, who}] && w.types[[2]string{class, "@" + who}] != "":
		return instance(w.types[[2]string{class, "@" + who}])
	case capital([]byte(who)):
		return w.c.Name([]byte(who))
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
	if name, ok := w.method(def, class); ok && s.Text(i) == name && s.Is(i+1, "(") {
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

// method is the name of a method of a class, of the definition that one is.
func (w *plainWalk) method(def, class string) (name string, ok bool) {
	// Every name of a file is asked about: nothing is made for it.
	if class == "" || len(def) <= len(class)+1 || def[:len(class)] != class || def[len(class)] != '.' {
		return "", false
	}
	name = def[len(class)+1:]
	return name, !strings.Contains(name, ".")
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
