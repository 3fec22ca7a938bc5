package kotlin

import "jantel/core/model"

// valued are the words that begin a value of their own.
var valued map[string]func(*walker, int) (int32, int)

func init() {
	valued = map[string]func(*walker, int) (int32, int){
		"if": (*walker).branch, "when": (*walker).when, "try": (*walker).try, "for": (*walker).loop, "do": (*walker).step,
		"while": (*walker).head, "return": (*walker).returns, "throw": (*walker).leave, "this": (*walker).this, "super": (*walker).super,
		"object": (*walker).object, "fun": (*walker).nameless, "break": (*walker).jump, "continue": (*walker).jump,
	}
}

func (w *walker) step(i int) (int32, int) { return none, i + 1 }

func (w *walker) jump(i int) (int32, int) {
	if w.s.Is(i+1, "@") {
		return none, i + 3
	}
	return none, i + 1
}

func (w *walker) leave(i int) (int32, int) {
	_, next := w.expr(i + 1)
	return none, next
}

func (w *walker) returns(i int) (int32, int) {
	s := w.s
	k := i + 1
	if s.Is(k, "@") {
		k += 2
	}
	if k >= s.Len() || s.Line(k) != s.Line(i) || s.Is(k, "}") {
		return none, k
	}
	n, next := w.expr(k)
	w.gives = w.c.Either(w.gives, n)
	return none, next
}

func (w *walker) head(i int) (int32, int) {
	if !w.s.Is(i+1, "(") {
		return none, i + 1
	}
	w.arguments(i + 1)
	return none, w.s.Close(i+1) + 1
}

func (w *walker) this(i int) (int32, int) {
	k := i + 1
	if w.s.Is(k, "@") && w.s.Tokens[i].End == w.s.Tokens[k].Start {
		k += 2
	}
	node := none
	if n := len(w.askedOf); n > 0 && k == i+1 {
		node = w.askedOf[n-1]
	} else if w.class != "" {
		node = w.c.Self(w.class)
	}
	return w.postfix(node, k, i, true)
}

func (w *walker) super(i int) (int32, int) {
	k := w.args(i + 1)
	if w.s.Is(k, "@") {
		k += 2
	}
	if w.class == "" {
		return w.postfix(none, k, i, true)
	}
	return w.postfix(w.c.Step(none, model.ChainBase, []byte(w.class)), k, i, true)
}

// object walks one that is made in place.
func (w *walker) object(i int) (int32, int) {
	k := i + 1
	for w.s.Any(k, ":", ",") {
		t, after := w.typ(k + 1)
		w.c.Put(t, model.CallRead, w.s.Line(k))
		if k = max(after, k+1); w.s.Is(k, "(") {
			w.arguments(k)
			k = w.s.Close(k) + 1
		}
	}
	if w.s.Is(k, "{") {
		w.inside++
		w.statements(k+1, w.s.Close(k))
		w.inside--
		k = w.s.Close(k) + 1
	}
	return none, k
}

// nameless walks a function without a name.
func (w *walker) nameless(i int) (int32, int) {
	if !w.s.Is(i+1, "(") {
		return none, i + 1
	}
	at := w.c.Open()
	defer w.c.Close(at)
	w.params(i+1, "")
	k := w.s.Close(i+1) + 1
	if w.s.Is(k, ":") {
		_, k = w.typ(k + 1)
	}
	switch {
	case w.s.Is(k, "{"):
		_, k = w.block(k)
	case w.s.Is(k, "="):
		_, k = w.expr(k + 1)
	}
	return none, k
}

// branch walks "if (…) a else b".
func (w *walker) branch(i int) (node int32, next int) {
	s := w.s
	if !s.Is(i+1, "(") {
		return none, i + 1
	}
	at := len(w.casts)
	w.arguments(i + 1)
	node, next = w.body(s.Close(i+1) + 1)
	leaves := s.Any(s.Close(i+1)+1, "return", "throw", "continue", "break") ||
		s.Is(s.Close(i+1)+1, "{") && s.Any(s.Close(i+1)+2, "return", "throw", "continue", "break")
	nots := w.casts[at:]
	for k := range nots {
		if nots[k].not && leaves {
			w.c.Bind(nots[k].name, nots[k].is)
		}
	}
	w.uncast(at)
	if s.Is(next, ";") && s.Is(next+1, "else") {
		next++
	}
	if s.Is(next, "else") {
		var other int32
		other, next = w.body(next + 1)
		node = w.c.Either(node, other)
	}
	return node, next
}

// body walks a block or the one statement that stands for it.
func (w *walker) body(i int) (node int32, next int) {
	if w.s.Is(i, "{") {
		return w.block(i)
	}
	if w.s.Is(i, ";") {
		return none, i
	}
	return w.expr(i)
}

// when walks "when (x) { is A -> …; else -> … }".
func (w *walker) when(i int) (node int32, next int) {
	s := w.s
	open := i + 1
	var subject []byte
	if s.Is(open, "(") {
		k := open + 1
		if s.Any(k, "val") && s.Is(k+2, "=") {
			n, _ := w.expr(k + 3)
			w.c.Bind(s.Bytes(k+1), n)
			subject = s.Bytes(k + 1)
		} else {
			w.arguments(open)
			if s.IsIdent(k) && s.Is(k+1, ")") {
				subject = s.Bytes(k)
			}
		}
		open = s.Close(open) + 1
	}
	if !s.Is(open, "{") {
		return none, open
	}
	node = none
	for k := open + 1; k < s.Close(open); {
		at := len(w.casts)
		k = w.conditions(k, s.Close(open), subject)
		n, after := w.body(k)
		node = w.c.Either(node, n)
		w.uncast(at)
		k = max(after, k+1)
	}
	return node, s.Close(open) + 1
}

// conditions walks what stands before the arrow of a branch.
func (w *walker) conditions(i, end int, subject []byte) (next int) {
	s := w.s
	for i < end && !s.Match(i, "-", ">") {
		if s.Is(i, "is") {
			t, after := w.typ(i + 1)
			w.c.Put(t, model.CallRead, s.Line(i))
			if subject != nil && s.Match(after, "-", ">") {
				w.is(subject, w.c.Instance(t), false)
			}
			i = max(after, i+1)
			continue
		}
		if s.Any(i, ",", "!", "in", "else", ";") {
			i++
			continue
		}
		_, after := w.expr(i)
		i = max(after, i+1)
	}
	return min(i+2, end)
}

// try walks "try { … } catch (e: E) { … } finally { … }".
func (w *walker) try(i int) (node int32, next int) {
	s := w.s
	if !s.Is(i+1, "{") {
		return none, i + 1
	}
	node, next = w.block(i + 1)
	for s.Is(next, "catch") && s.Is(next+1, "(") {
		at := w.c.Open()
		w.params(next+1, "")
		k := s.Close(next+1) + 1
		if s.Is(k, "{") {
			var n int32
			n, k = w.block(k)
			node = w.c.Either(node, n)
		}
		w.c.Close(at)
		next = k
	}
	if s.Match(next, "finally", "{") {
		_, next = w.block(next + 1)
	}
	return node, next
}

// loop walks "for (x in xs) …".
func (w *walker) loop(i int) (node int32, next int) {
	s := w.s
	if !s.Is(i+1, "(") {
		return none, i + 1
	}
	k := i + 2
	for k < s.Close(i+1) && !s.Is(k, "in") {
		k++
	}
	n, _ := w.expr(k + 1)
	at := w.c.Open()
	defer w.c.Close(at)
	one := w.c.Go(n, model.ChainElement, nil)
	if s.Is(i+2, "(") {
		one = none
	}
	for p := i + 2; p < k; p++ {
		if s.IsIdent(p) {
			w.c.Bind(s.Bytes(p), one)
			if s.Is(p+1, ":") {
				break
			}
		}
	}
	_, next = w.body(s.Close(i+1) + 1)
	return none, next
}
