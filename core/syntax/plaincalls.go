package syntax

import (
	"bytes"
	"slices"

	"jantel/core/model"
)

// Plainly is how calls are told in languages whose bodies are not read by their
// grammar: by names and what stands before them. What a name stands for is known
// where it is built or declared with its type; else a member is any of that name.
type Plainly struct {
	Self     map[string]bool // words for the instance
	Build    string          // member that builds one of a class: "new"
	Typed    bool            // a type stands behind a name and a colon
	Arrow    bool            // members stand behind an arrow
	Super    string          // word for what the class is built upon
	Gives    []string        // signs between the parameters of a function and what it gives
	Lists    map[string]bool // types that hold several of what stands behind them
	NotCalls map[string]bool // words that stand before a parenthesis and call nothing
}

// plainWalk is one file walked so.
type plainWalk struct {
	p    *Plainly
	s    *Stream
	c    *Chains
	defs []model.Definition // by where they begin
	open []int
	next int
	// types tells what a name is an instance of, by the definition or the class
	// that it stands in.
	types map[[2]string]string
}

// Calls walks a file once its definitions are known.
func (p *Plainly) Calls(s *Stream, f *model.Facts) {
	w := &plainWalk{
		p: p, s: s, c: s.Chains(), defs: slices.Clone(f.Definitions), types: map[[2]string]string{},
	}
	w.c.In = ByLine
	slices.SortStableFunc(w.defs, func(a, b model.Definition) int {
		if a.Line != b.Line {
			return a.Line - b.Line
		}
		return b.EndLine - a.EndLine
	})
	for _, d := range f.Definitions {
		if d.Name == "Companion" && d.Parent != "" { // its members are those of the class
			w.c.Shape(model.Shape{Name: d.Parent, Kind: model.ShapeBase, Node: w.c.Name([]byte(d.Qualified()))})
		}
		for _, b := range d.Bases {
			n := w.c.Name([]byte(b))
			w.c.Shape(model.Shape{Name: d.Qualified(), Kind: model.ShapeBase, Node: n})
			w.c.Put(n, model.CallInherit, d.Line)
		}
	}
	for i := range s.Tokens {
		if s.Tokens[i].Kind == Ident {
			w.instances(i)
		}
	}
	w.open, w.next = nil, 0
	for i := range s.Tokens {
		if s.Tokens[i].Kind == Ident {
			w.token(i)
		}
	}
}

// here is the definition and the class that a token stands in, by their
// qualified names.
func (w *plainWalk) here(i int) (def, class string) {
	line := w.s.Line(i)
	shut := func(before int) {
		for n := len(w.open); n > 0 && w.defs[w.open[n-1]].EndLine < before; n-- {
			w.open = w.open[:n-1]
		}
	}
	for ; w.next < len(w.defs) && w.defs[w.next].Line <= line; w.next++ {
		shut(w.defs[w.next].Line)
		w.open = append(w.open, w.next)
	}
	shut(line)
	if len(w.open) == 0 {
		return "", ""
	}
	d := &w.defs[w.open[len(w.open)-1]]
	if d.Kind == model.DefClass || d.Kind == model.DefInterface || d.Kind == model.DefType || d.Kind == model.DefNamespace {
		return d.Qualified(), d.Qualified()
	}
	return d.Qualified(), d.Parent
}

// instances notes "name = Type.new", "name = Type(…)" and "name: Type".
func (w *plainWalk) instances(i int) {
	s := w.s
	def, class := w.here(i)
	k := i + 1
	of := -1
	switch {
	case s.Is(k, "=") && !s.Is(k+1, "="):
		for k++; s.Any(k, "new", "&", "*"); {
			k++
		}
		switch {
		case !s.IsIdent(k) || !capital(s.Bytes(k)):
		case w.p.Build != "" && s.Match(k+1, ".", w.p.Build), w.p.Build == "" && (s.Is(k+1, "(") || s.Is(k+1, ":")):
			of = k
		}
	case w.p.Typed && s.Is(k, ":") && !s.Is(k+1, ":"):
		for k++; s.Any(k, "&", "mut", "dyn", "impl", "'"); {
			k++
		}
		if s.IsIdent(k) && capital(s.Bytes(k)) {
			of = k
		}
	}
	if of < 0 {
		return
	}
	name, t := s.Text(i), s.Text(of)
	w.types[[2]string{def, name}] = t
	// What stands in no method, or is marked as a field, the whole class knows.
	if def == class || def == class+"."+name || name[0] == '@' || s.Is(i-1, ".") || w.p.Arrow && s.Is(i-1, ">") {
		w.types[[2]string{class, name}] = t
	}
}

func capital(b []byte) bool { return len(b) > 0 && b[0] >= 'A' && b[0] <= 'Z' }

// token reads what is called at a name. Definitions tell what they give where it
// is written behind their parameters.
func (w *plainWalk) token(i int) {
	s, c := w.s, w.c
	def, class := w.here(i)
	call := s.Is(i+1, "(")
	dotted, at := w.before(i)
	// In no function a name behind a type is declared, not called.
	declared := def == class && call && (s.IsIdent(i-1) || s.Any(i-1, "*", "&"))
	if call && w.defined(i) {
		w.gives(i, class)
	}
	switch {
	// What is called on something of its own name is defined elsewhere: lots.named(…)
	// in the function named, but for "fun String.named(".
	case w.p.NotCalls[string(s.Bytes(i))], declared, w.defined(i) && (!s.Is(i-1, ".") || s.Is(i-3, "fun")):
	case dotted && call:
		if w.p.Build != "" && s.Is(i, w.p.Build) {
			if s.IsIdent(at) && capital(s.Bytes(at)) {
				c.Put(c.Name(s.Bytes(at)), model.CallConstruct, s.Line(i))
			}
			return
		}
		c.Put(w.member(i, at, def, class), model.CallPlain, s.Line(i))
	case s.Is(i-1, "new") && capital(s.Bytes(i)):
		c.Put(c.Name(s.Bytes(i)), model.CallConstruct, s.Line(i))
	case !dotted && call && bytes.Contains(s.Bytes(i), []byte("::")):
		of, name, _ := bytes.Cut(s.Bytes(i), []byte("::"))
		c.Put(c.Member(c.Name(of), name), model.CallPlain, s.Line(i))
	case !dotted && call:
		if class != "" {
			c.Put(c.Step(None, model.ChainBare, []byte(class+" "+s.Text(i))), model.CallPlain, s.Line(i))
			return
		}
		c.Put(c.Name(s.Bytes(i)), model.CallPlain, s.Line(i))
	}
}

// before tells whether a name is a member of what stands before it, and where
// that ends.
func (w *plainWalk) before(i int) (dotted bool, at int) {
	s := w.s
	switch {
	case s.Is(i-1, "."):
		if at = i - 2; s.Any(at, "?", "!", "&") {
			at--
		}
		return true, at
	case w.p.Arrow && s.Match(i-2, "-", ">"), s.Match(i-2, ":", ":"):
		return true, i - 3
	case w.p.Arrow && s.Is(i-1, "->"), s.Any(i-1, "::", "?.", "&."):
		return true, i - 2
	}
	return false, i
}

// member is the chain of a member called at i of what ends at at.
func (w *plainWalk) member(i, at int, def, class string) int32 {
	s, c := w.s, w.c
	name := s.Bytes(i)
	if s.IsIdent(at) {
		if first, _ := w.before(at); !first || s.Is(at-1, ":") {
			if from := w.root(at, def, class); from != None {
				return c.Member(from, name)
			}
			if s.Is(i-1, ":") || s.Is(i-1, "::") { // of a module or a namespace
				return c.Member(c.Name(s.Bytes(at)), name)
			}
		} else if w.p.Self[s.Text(max(at-2, 0))] || w.p.Self[s.Text(max(at-3, 0))] {
			// "self.repo.save()": a field of the instance.
			if t := w.types[[2]string{class, s.Text(at)}]; t != "" {
				return c.Member(c.Instance(c.Name([]byte(t))), name)
			}
		}
	}
	// What is known of what stands before it tells; else a member is any of its name.
	return c.Step(w.chain(at, def, class, 0), model.ChainOnly, name)
}

// defined reports whether a name before a parenthesis is being defined.
func (w *plainWalk) defined(i int) bool {
	line := w.s.Line(i)
	return slices.ContainsFunc(w.open, func(d int) bool {
		return w.defs[d].Name == string(w.s.Bytes(i)) && w.defs[d].Line <= line && line <= w.defs[d].Line+2 &&
			!w.s.Any(i-1, "=", ";", "{", "return")
	})
}
