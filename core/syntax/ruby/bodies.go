package ruby

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

const none = syntax.None

// walker walks a file once its definitions are known. What an "end" closes is
// no bracket, so that it keeps a stack of its own; each frame of it tells what
// the last thing said in it stands for, since that is what a method gives.
type walker struct {
	r      *reader
	s      *syntax.Stream
	c      *syntax.Chains
	class  string // around, by its qualified name
	frames []frame
	block  int32  // what the block that comes next is handed
	gives  int32  // what the call before that block gives
	into   []byte // what the value of the block that comes next is put into
}

// frame is something that an "end" closes, or the file.
type frame struct {
	kind    frameKind
	at      int    // of the scope, to be closed
	class   string // that was around
	method  string // that is around or that it is the body of
	def     int    // the frame of that method, 0 in none
	last    int32  // what was said last
	gives   int32  // what it gives so far: by a return, or at the end of a branch; of a block what its call does
	loop    bool   // its header may hold a "do" that opens nothing
	into    []byte // what its value is put into
	subject []byte // what is asked in a case
	was     int32  // what that stood for
}

type frameKind uint8

const (
	plainFrame frameKind = iota // a loop, a begin
	fileFrame
	classFrame
	defFrame
	lineFrame // a method written in one line
	blockFrame
	branchFrame // if, unless, case
)

func (r *reader) bodies() {
	w := &walker{r: r, s: r.s, c: r.s.Chains(), block: none, gives: none}
	w.c.In = syntax.ByLine
	for i := range r.f.Definitions {
		w.bases(&r.f.Definitions[i])
	}
	w.frames = append(w.frames, frame{last: none, gives: none, kind: fileFrame})
	w.run(0, r.s.Len())
}

// bases keeps what a type is built upon, and what is mixed into it.
func (w *walker) bases(d *model.Definition) {
	for _, b := range d.Bases {
		n := w.typeNamed(d.Parent, b)
		w.c.Shape(model.Shape{Name: d.Qualified(), Kind: model.ShapeBase, Node: n})
		w.c.Put(n, model.CallInherit, d.Line)
	}
}

// typeNamed begins a chain at the name of a type that is written within another.
func (w *walker) typeNamed(within, text string) int32 {
	first, rest, more := strings.Cut(strings.TrimPrefix(text, "::"), "::")
	if strings.HasPrefix(text, "::") {
		within = ""
	}
	node := w.c.Step(none, model.ChainType, []byte(within+" "+first))
	for more {
		first, rest, more = strings.Cut(rest, "::")
		node = w.c.Member(node, []byte(first))
	}
	return node
}

func (w *walker) top() *frame { return &w.frames[len(w.frames)-1] }

// method is the name of the method around, "" in none.
func (w *walker) method() string { return w.top().method }

func (w *walker) push(f frame) {
	f.at, f.class, f.last, f.gives = w.c.Open(), w.class, none, none
	f.into, w.into = w.into, nil
	switch f.kind {
	case defFrame:
		f.def = len(w.frames)
	case classFrame:
	default:
		f.method, f.def = w.top().method, w.top().def
	}
	w.frames = append(w.frames, f)
}

// pop leaves a frame: what it gives is what was said last around it.
func (w *walker) pop() {
	if len(w.frames) < 2 {
		return
	}
	f := *w.top()
	w.frames = w.frames[:len(w.frames)-1]
	value := w.c.Either(f.gives, f.last)
	if f.subject != nil {
		w.c.Bind(f.subject, f.was)
	}
	switch f.kind {
	case defFrame, lineFrame:
		w.c.Close(f.at)
		if value != none && f.method != "initialize" {
			w.c.Shape(model.Shape{Owner: f.class, Name: f.method, Kind: model.ShapeResult, Node: value})
		}
		value = none
	case classFrame:
		w.c.Close(f.at)
		w.class, value = f.class, none
	case blockFrame:
		value = f.gives // what the call gives, whatever its block does
	}
	if f.into != nil {
		w.assign(f.into, value)
	}
	w.top().last = value
}

// run walks tokens one statement after the other.
func (w *walker) run(i, end int) {
	if !w.c.Deeper() {
		return
	}
	defer w.c.Shallower()
	depth := len(w.frames)
	for i < end {
		i = max(w.statement(i), i+1)
	}
	for len(w.frames) > depth && depth > 1 {
		w.pop() // a bracket ends whatever was begun in it
	}
}

// words are what a statement may begin with, and how it goes on.
var words map[string]func(*walker, int) int

func init() {
	words = map[string]func(*walker, int) int{
		"class": (*walker).classAt, "module": (*walker).classAt, "def": (*walker).def, "end": (*walker).end, "do": (*walker).do,
		"return": (*walker).returns, "next": (*walker).returns, "break": (*walker).returns,
		"else": (*walker).turn, "elsif": (*walker).turn, "when": (*walker).when, "in": (*walker).turn, "rescue": (*walker).rescue,
		"ensure": (*walker).turn, "then": (*walker).step, "alias": (*walker).line, "undef": (*walker).line,
	}
	for word := range blockWords {
		words[word] = (*walker).opens
	}
}

func (w *walker) step(i int) int { return i + 1 }

func (w *walker) line(i int) int {
	for i < w.s.Len() && !w.s.Any(i, syntax.Break, ";") {
		i++
	}
	return i
}

func (w *walker) statement(i int) (next int) {
	s := w.s
	if s.Any(i, syntax.Break, ";") {
		w.top().loop = false
		if w.top().kind == lineFrame {
			w.pop()
		}
		return i + 1
	}
	if s.IsIdent(i) {
		if read := words[string(s.Bytes(i))]; read != nil {
			return read(w, i)
		}
	}
	if k := w.several(i); k > 0 {
		return k
	}
	n, next := w.expr(i)
	if next > i {
		w.top().last = n
	}
	return next
}

// several walks the names of "a, b = value", up to the value; 0 where they do not
// stand there.
func (w *walker) several(i int) (next int) {
	s, k := w.s, i
	for s.IsIdent(k) && !isConstant(s, k) && s.Is(k+1, ",") {
		k += 2
	}
	if k == i || !s.IsIdent(k) || !s.Is(k+1, "=") || s.Any(k+2, "=", "~", ">") {
		return 0
	}
	for ; i <= k; i += 2 {
		if s.Bytes(i)[0] != '@' {
			w.c.Bind(s.Bytes(i), none)
		}
	}
	return k + 2
}

// returns walks what a method or a block gives before its end.
func (w *walker) returns(i int) int {
	if w.s.Any(i+1, syntax.Break, ";", "if", "unless", "}") {
		return i + 1
	}
	n, next := w.expr(i + 1)
	if at := w.top().def; at > 0 && w.s.Is(i, "return") {
		w.frames[at].gives = w.c.Either(w.frames[at].gives, n)
	}
	w.top().last = none
	return next
}

// opens begins what an "end" will close; behind a statement the word is only its
// condition.
func (w *walker) opens(i int) int {
	word := blockWords[w.s.Text(i)]
	if !word.anywhere && (!w.r.starts(i) || !w.s.Is(i, "for") && w.r.afterJump(i)) {
		return i + 1
	}
	f := frame{loop: word.loop}
	switch {
	case w.s.Any(i, "if", "unless", "case"):
		f.kind = branchFrame
	case w.s.Is(i, "for") && w.s.IsIdent(i+1) && w.s.Is(i+2, "in"):
		n, next := w.expr(i + 3)
		w.push(f)
		w.c.Bind(w.s.Bytes(i+1), w.c.Go(n, model.ChainElement, nil))
		return next
	}
	w.push(f)
	switch {
	case w.s.Is(i, "case") && w.s.IsIdent(i+1) && w.s.Any(i+2, syntax.Break):
		w.asked(i + 1)
		return i + 2
	case w.s.Is(i, "if") && w.s.Match(i+1, syntax.Name, ".", "is_a?", "(") && isConstant(w.s, i+5) && !w.s.Is(w.s.Close(i+4)+1, "|"):
		if w.asked(i + 1) {
			t, _ := w.constant(i + 5)
			w.c.Bind(w.s.Bytes(i+1), w.c.Instance(t))
			return w.s.Close(i+4) + 1
		}
	}
	return i + 1
}

// asked notes of which local is asked what it is.
func (w *walker) asked(i int) bool {
	was, local := w.c.Find(w.s.Bytes(i))
	if local {
		w.top().subject, w.top().was = w.s.Bytes(i), was
	}
	return local
}

// turn ends a branch: what was said last in it is one of what the whole gives.
func (w *walker) turn(i int) int {
	f := w.top()
	if f.kind == branchFrame || f.kind == plainFrame || f.kind == defFrame {
		f.gives, f.last = w.c.Either(f.gives, f.last), none
	}
	if f.subject != nil {
		w.c.Bind(f.subject, f.was)
	}
	return i + 1
}

// when begins a branch of a case: what is asked is of the types that it names.
func (w *walker) when(i int) int {
	w.turn(i)
	f, is, k := w.top(), none, i+1
	for isConstant(w.s, k) {
		var t int32
		t, k = w.constant(k)
		is = w.c.Either(is, w.c.Instance(t))
		if !w.s.Is(k, ",") {
			break
		}
		k++
	}
	if f.subject != nil && is != none {
		w.c.Bind(f.subject, is)
	}
	return k
}

// rescue walks "rescue Full, Torn => e".
func (w *walker) rescue(i int) int {
	w.turn(i)
	is, k := none, i+1
	for isConstant(w.s, k) {
		var t int32
		t, k = w.constant(k)
		is = w.c.Either(is, w.c.Instance(t))
		if w.s.Is(k, ",") {
			k++
		}
	}
	if w.s.Match(k, "=", ">", syntax.Name) {
		w.c.Bind(w.s.Bytes(k+2), is)
		return k + 3
	}
	return k
}

func (w *walker) end(i int) int {
	if w.top().kind != fileFrame {
		w.pop()
	}
	return i + 1
}

// do begins a block, unless it is that of a loop's header.
func (w *walker) do(i int) int {
	if f := w.top(); f.loop {
		f.loop = false
		return i + 1
	}
	handed, gives := w.block, w.gives
	w.push(frame{kind: blockFrame})
	w.top().gives = gives
	w.block, w.gives = none, none
	return w.blockParams(i+1, handed)
}

// blockParams binds the names between the bars of a block; the first is what the
// block is handed.
func (w *walker) blockParams(i int, handed int32) int {
	s := w.s
	if !s.Is(i, "|") {
		return i
	}
	for i++; i < s.Len() && !s.Is(i, "|") && !s.Any(i, syntax.Break); i++ {
		if s.IsIdent(i) {
			w.c.Bind(s.Bytes(i), handed)
		}
		handed = none
	}
	return i + 1
}

// classAt walks the head of a class or module.
func (w *walker) classAt(i int) int {
	s := w.s
	if s.Is(i+1, "<") { // class << self
		w.push(frame{kind: classFrame})
		k := i + 1
		for s.Is(k, "<") {
			k++
		}
		return k + 1
	}
	if !isConstant(s, i+1) || !w.r.starts(i) {
		return i + 1
	}
	name, k := w.r.path(i + 1)
	w.push(frame{kind: classFrame})
	w.class = strings.ReplaceAll(under(strings.ReplaceAll(w.class, ".", "::"), name), "::", ".")
	if s.Is(k, "<") && isConstant(s, k+1) {
		if _, k = w.r.path(k + 1); s.Is(k, ".") {
			return w.line(k) // a class that is made in place
		}
	}
	return k
}

// def walks the head of a method.
func (w *walker) def(i int) int {
	s := w.s
	k := i + 1
	if s.IsIdent(k) && s.Any(k+1, ".", "::") {
		k += 2
	}
	name, k := w.r.methodName(k)
	if name == "" {
		return i + 1
	}
	w.push(frame{kind: defFrame, method: name})
	w.top().into = nil
	switch {
	case s.Is(k, "("):
		w.params(k+1, s.Close(k))
		k = s.Close(k) + 1
	case s.IsIdent(k) && s.Line(k) == s.Line(i) || s.Any(k, "*", "&"):
		end := w.line(k)
		w.params(k, end)
		k = end
	}
	if s.Is(k, "=") && !strings.HasSuffix(name, "=") {
		w.top().kind = lineFrame
		return k + 1
	}
	return k
}

// params binds the parameters between two tokens, and walks their defaults.
func (w *walker) params(i, end int) {
	s := w.s
	for i < end {
		switch {
		case s.IsIdent(i) && s.Is(i+1, "="):
			n, next := w.expr(i + 2)
			w.c.Bind(s.Bytes(i), n)
			i = max(next, i+2)
			continue
		case s.IsIdent(i):
			w.c.Bind(s.Bytes(i), none)
		case s.Kind(i) == syntax.String && strings.HasSuffix(s.Text(i), ":"):
			name := []byte(strings.TrimSuffix(s.Text(i), ":"))
			n, next := none, i+1
			if i+1 < end && !s.Is(i+1, ",") {
				n, next = w.expr(i + 1)
			}
			w.c.Bind(name, n)
			i = max(next, i+1)
			continue
		}
		i++
	}
}
