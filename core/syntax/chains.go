package syntax

import (
	"cmp"
	"slices"
	"strconv"
	"sync"

	"jantel/core/model"
)

// Chains gathers the chains of a file while its reader walks the bodies: each
// name that is met is looked up among the locals of the moment and becomes the
// step of a chain, so that no local name is kept.
//
// Scopes are one table from name to chain with a log of what was there before:
// looking up costs the same however many there are, and leaving a scope puts
// back what the log says.
type Chains struct {
	body  model.Body
	nodes slots    // of the steps of the body
	calls slots    // of its calls
	names slots    // of its words
	hash  []uint32 // of its words
	local []int32  // by name: its chain + 2, Hidden + 2 where nothing is known of it, 0 where it is no local
	log   []undo
	In    int32 // the definition that is being walked, -1 at the top, ByLine where its lines tell
	depth int
	size  int // of the file
}

// ByLine leaves it to the lines which definition a chain stands in: the
// innermost that holds them.
const ByLine int32 = -2

// None is a chain nothing is known of.
const None int32 = model.NoChain

type undo struct{ name, was int32 }

// Chains starts the chains of the stream's file; they are kept with its facts.
func (s *Stream) Chains() *Chains {
	if s.chains == nil {
		s.chains = roomFor(len(s.Src)).Get().(*Chains)
		s.chains.size = len(s.Src)
		s.chains.name(nil) // the word that says nothing is the first
		s.chains.In = -1
	}
	return s.chains
}

// chainRooms keeps the room of files that were read for those still to be read:
// the tables of a file grow many times over, and a survey reads thousands. To clear
// a table costs what it has held at most, so that small files do not get the room
// of large ones.
var chainRooms [4]sync.Pool

// roomFor is the room of files of so many bytes.
func roomFor(size int) *sync.Pool {
	n := 0
	for size >>= 13; size > 0 && n < len(chainRooms)-1; size >>= 2 { // 8, 32 and 128 KB
		n++
	}
	return &chainRooms[n]
}

func init() {
	for i := range chainRooms {
		chainRooms[i].New = func() any { return &Chains{} }
	}
}

// mostKept bounds the room that is kept.
const mostKept = 1 << 14

// release gives up the room of chains that were written down.
func (c *Chains) release() {
	if len(c.body.Nodes) > mostKept || len(c.body.Calls) > mostKept || len(c.body.Words) > mostKept {
		return
	}
	clear(c.nodes)
	clear(c.calls)
	clear(c.names)
	clear(c.body.Words)
	clear(c.body.Shapes)
	c.body = model.Body{Nodes: c.body.Nodes[:0], Words: c.body.Words[:0], Calls: c.body.Calls[:0], Shapes: c.body.Shapes[:0]}
	c.local, c.hash, c.log, c.depth = c.local[:0], c.hash[:0], c.log[:0], 0
	roomFor(c.size).Put(c)
}

func (c *Chains) name(b []byte) int32 {
	n, h := c.known(b)
	if n >= 0 {
		return n
	}
	if c.names.full(len(c.body.Words)) {
		c.names = make(slots, c.names.more())
		for i, h := range c.hash {
			c.names.put(h, int32(i))
		}
	}
	n = int32(len(c.body.Words))
	c.names.put(h, n)
	c.body.Words, c.hash = append(c.body.Words, string(b)), append(c.hash, h)
	c.local = append(c.local, 0)
	return n
}

// known is a word that was met before, below zero where it was not; and its hash.
func (c *Chains) known(b []byte) (n int32, h uint32) {
	h = wordHash(b)
	if len(c.names) == 0 {
		return -1, h
	}
	for i := c.names.first(h); ; i = c.names.next(i) {
		if n = c.names[i] - 1; n < 0 || c.body.Words[n] == string(b) {
			return n, h
		}
	}
}

// Step goes on from a chain, or begins one at None. What goes on from nothing
// that is known is not known either.
func (c *Chains) Step(from int32, op model.ChainOp, name []byte) int32 {
	k := model.ChainNode{From: from, Op: op, Word: c.name(name)}
	if c.nodes.full(len(c.body.Nodes)) {
		c.nodes = make(slots, c.nodes.more())
		for i := range c.body.Nodes {
			c.nodes.put(stepHash(&c.body.Nodes[i]), int32(i))
		}
	}
	h := stepHash(&k)
	for i := c.nodes.first(h); ; i = c.nodes.next(i) {
		n := c.nodes[i] - 1
		if n < 0 {
			break
		}
		if c.body.Nodes[n] == k {
			return n
		}
	}
	n := int32(len(c.body.Nodes))
	c.body.Nodes = append(c.body.Nodes, k)
	c.nodes.put(h, n)
	return n
}

// Name begins a chain at a name of the file.
func (c *Chains) Name(name []byte) int32 { return c.Step(None, model.ChainName, name) }

// Self is a value of the type with that qualified name, which stands in this file.
func (c *Chains) Self(qualified string) int32 {
	return c.Step(None, model.ChainSelf, []byte(qualified))
}

// Go goes on from a chain that may be None.
func (c *Chains) Go(from int32, op model.ChainOp, name []byte) int32 {
	if from == None {
		return None
	}
	return c.Step(from, op, name)
}

// Member is what is called name in what a chain leads to.
func (c *Chains) Member(from int32, name []byte) int32 { return c.Go(from, model.ChainMember, name) }

// Result is what a call gives, nth of several.
func (c *Chains) Result(from int32, nth int) int32 {
	if nth == 0 {
		return c.Go(from, model.ChainResult, nil)
	}
	return c.Go(from, model.ChainResult, strconv.AppendInt(nil, int64(nth), 10))
}

// Instance is a value of a type.
func (c *Chains) Instance(of int32) int32 { return c.Go(of, model.ChainInstance, nil) }

// Told reports whether to name a local says nothing more: it does where it stands
// for a function, a member or what is taken from elsewhere, since that is read.
func (c *Chains) Told(node int32) bool {
	if node == None {
		return true
	}
	switch c.body.Nodes[node].Op {
	case model.ChainMember, model.ChainTaken, model.ChainName, model.ChainBare:
		return false
	}
	return true
}

// Map is the type of maps.
func (c *Chains) Map(key, value int32) int32 {
	if key == None {
		return c.Go(value, model.ChainMap, nil)
	}
	return c.Go(value, model.ChainMap, strconv.AppendInt(nil, int64(key), 10))
}

// Func is the type of functions that give these.
func (c *Chains) Func(results []int32) int32 {
	if len(results) == 0 {
		return c.Step(None, model.ChainFunc, nil)
	}
	var more []byte
	for _, r := range results[1:] {
		if len(more) > 0 {
			more = append(more, ',')
		}
		more = strconv.AppendInt(more, int64(r), 10)
	}
	return c.Step(results[0], model.ChainFunc, more)
}

// Either is one of several: what is not known among them says nothing.
func (c *Chains) Either(nodes ...int32) int32 {
	first := None
	var more []byte
	for i, n := range nodes {
		switch {
		case n == None || slices.Contains(nodes[:i], n):
		case first == None:
			first = n
		default:
			if len(more) > 0 {
				more = append(more, ',')
			}
			more = strconv.AppendInt(more, int64(n), 10)
		}
	}
	if len(more) == 0 {
		return first
	}
	return c.Step(first, model.ChainEither, more)
}

// Nth is what the k-th of n names stands for when these are put into them: a
// call alone gives one value to each.
func (c *Chains) Nth(nodes []int32, n, k int) int32 {
	switch {
	case len(nodes) == n:
		return nodes[k]
	case len(nodes) != 1 || nodes[0] == None:
		return None
	}
	if last := c.body.Nodes[nodes[0]]; last.Op == model.ChainResult && last.Word == 0 {
		return c.Result(last.From, k)
	}
	if k == 0 {
		return nodes[0]
	}
	return None
}

// Put is a chain put to work where the walk stands.
func (c *Chains) Put(node int32, kind model.CallKind, line int) {
	if node == None {
		return
	}
	k := model.BodyCall{In: c.In, Node: node, Line: int32(line), Kind: kind} // one for each line, until it is known which stand together
	if c.calls.full(len(c.body.Calls)) {
		c.calls = make(slots, c.calls.more())
		for i := range c.body.Calls {
			c.calls.put(callHash(&c.body.Calls[i]), int32(i))
		}
	}
	h := callHash(&k)
	for i := c.calls.first(h); ; i = c.calls.next(i) {
		n := c.calls[i] - 1
		if n < 0 {
			break
		}
		if was := &c.body.Calls[n]; was.Line == k.Line && was.Node == k.Node && was.Kind == k.Kind {
			return
		}
	}
	c.calls.put(h, int32(len(c.body.Calls)))
	c.body.Calls = append(c.body.Calls, k)
}

// Shape tells the type of something that the file defines.
func (c *Chains) Shape(s model.Shape) { c.body.Shapes = append(c.body.Shapes, s) }

// Spare says that the file is for other machines than the usual one.
func (c *Chains) Spare() { c.body.Spare = true }

// Open begins a scope; what it returns is handed to Close.
func (c *Chains) Open() int { return len(c.log) }

// Close ends a scope: names mean again what they meant before.
func (c *Chains) Close(at int) {
	for i := len(c.log) - 1; i >= at; i-- {
		c.local[c.log[i].name] = c.log[i].was
	}
	c.log = c.log[:at]
}

// Bind makes a name stand for a chain until its scope ends; None hides what it
// meant outside.
func (c *Chains) Bind(name []byte, node int32) {
	n := c.name(name)
	c.log = append(c.log, undo{n, c.local[n]})
	c.local[n] = node + 2
}

// Unbind puts back what a name stood for; below None it was no local.
func (c *Chains) Unbind(name []byte, was int32) {
	n := c.name(name)
	c.log = append(c.log, undo{n, c.local[n]})
	c.local[n] = max(was+2, 0)
}

// Find is what a name stands for among the locals.
func (c *Chains) Find(name []byte) (node int32, local bool) {
	n, _ := c.known(name)
	if n < 0 || c.local[n] == 0 {
		return None, false
	}
	return c.local[n] - 2, true
}

// maxDeep bounds expressions within expressions; what lies deeper is stepped over.
const maxDeep = 300

// Deeper reports whether one more expression within another is read; Shallower
// has to follow where it is.
func (c *Chains) Deeper() bool {
	if c.depth >= maxDeep {
		return false
	}
	c.depth++
	return true
}

// Shallower leaves an expression.
func (c *Chains) Shallower() { c.depth-- }

// pack writes them down, with definitions numbered anew. A chain is kept once
// for each definition, but where a file has several functions in place that
// something comes in by: which of them it stands in its line tells.
func (c *Chains) pack(defs []model.Definition, moved []int32, several bool) []byte {
	if c.In == ByLine {
		c.place(defs)
	}
	for i := range c.body.Calls {
		if in := &c.body.Calls[i].In; *in >= 0 && c.In != ByLine {
			*in = moved[*in]
		}
	}
	// Calls are many, and sorting them is a good part of what bodies cost: they are put down
	// nearly in their order, so that they are sorted by it once.
	slices.SortStableFunc(c.body.Calls, func(a, b model.BodyCall) int {
		switch {
		case a.In != b.In:
			return int(a.In - b.In)
		case a.Line != b.Line:
			return int(a.Line - b.Line)
		case a.Node != b.Node:
			return int(a.Node - b.Node)
		}
		return int(a.Kind) - int(b.Kind)
	})
	if !several {
		c.once()
	}
	return model.PackBody(&c.body)
}

// once keeps each chain once for each definition and kind, in its first line. The calls
// are sorted by definition and line.
func (c *Chains) once() {
	type met struct {
		in    int32
		kinds uint64
	}
	nodes := make([]met, len(c.body.Nodes))
	kept := c.body.Calls[:0]
	for _, k := range c.body.Calls {
		m := &nodes[k.Node]
		if m.in != k.In+2 { // definitions count from -1, nothing is met yet at 0
			*m = met{in: k.In + 2}
		}
		if bit := uint64(1) << k.Kind; m.kinds&bit == 0 {
			m.kinds |= bit
			kept = append(kept, k)
		}
	}
	c.body.Calls = kept
}

// place finds the definition that each call stands in. Definitions are sorted by
// where they begin, so that those which hold a line lie on one stack.
func (c *Chains) place(defs []model.Definition) {
	slices.SortStableFunc(c.body.Calls, func(a, b model.BodyCall) int { return cmp.Compare(a.Line, b.Line) })
	var open []int32
	next := 0
	for i := range c.body.Calls {
		call := &c.body.Calls[i]
		line := int(call.Line)
		for ; next < len(defs) && defs[next].Line <= line; next++ {
			for n := len(open); n > 0 && defs[open[n-1]].EndLine < defs[next].Line; n-- {
				open = open[:n-1]
			}
			open = append(open, int32(next))
		}
		for n := len(open); n > 0 && defs[open[n-1]].EndLine < line; n-- {
			open = open[:n-1]
		}
		n := len(open)
		if call.Kind == model.CallInherit { // a type says so, whatever stands in its line
			for n > 0 && (defs[open[n-1]].Kind == model.DefMethod || defs[open[n-1]].Kind == model.DefProperty) {
				n--
			}
		}
		if call.In = -1; n > 0 {
			call.In = open[n-1]
		}
	}
}
