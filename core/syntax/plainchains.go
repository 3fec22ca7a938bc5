package syntax

import "jantel/core/model"

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
	s := w.s
	if dotted, _ := w.before(at); dotted || !s.IsIdent(at) {
		return w.chain(at, def, class, depth+1)
	}
	return w.root(at, def, class)
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
