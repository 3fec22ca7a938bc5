package model

import (
	"bytes"
	"encoding/binary"
	"errors"
	"slices"
	"sync"
	"unsafe"
)

// A chain says how a value comes about, step by step, from a name that a file
// knows: "vault.Shelves()[0].Label" is the member Label of an element of what a
// call of the member Shelves of the name vault gives. Locals, parameters and
// receivers are replaced by their own chains while a file is read, so that a
// chain means the same wherever it stands; what they lead to is found once all
// files are read.

// ChainOp is one step of a chain.
type ChainOp uint8

// The steps.
const (
	ChainName     ChainOp = iota + 1 // a name of the file: of its top, imported, or known everywhere
	ChainTaken                       // a name taken from a module: Name is "module name", "module *" for the whole
	ChainMember                      // what is called Name in it
	ChainResult                      // what a call of it gives; Name is the place among several results, "" for the first
	ChainElement                     // an element of a list, or a value of a map
	ChainKey                         // a key of a map
	ChainInstance                    // a value of the type that it is
	ChainSelf                        // a value of the type called Name (qualified) that stands in this file
	ChainList                        // the type of lists of it
	ChainMap                         // the type of maps to it; Name is the node of the key, "" where it is not told
	ChainFunc                        // the type of functions that give it; Name are the nodes of further results
	ChainBase                        // what the type called Name is built upon
	ChainType                        // "type name": a type within that type or one around it, else a name of the file
	ChainOnly                        // any member of that name, of whatever it is
	ChainBare                        // "type name": a member of that type or of one around it, else a name of the file
	ChainEither                      // it or one of the others: Name are their nodes
)

// Counted parts the name of what is called from the number of its arguments, in
// languages where that tells which of several functions of the name is meant.
const Counted = '#'

// NoChain stands for a value nothing is known of.
const NoChain = -1

// ChainNode is a chain: a step from another one. Its name is kept as the place of
// a word: there are millions of steps, and what holds no pointer costs half the
// room and is never gone through for what is still needed.
type ChainNode struct {
	From int32 // index of the node it goes on from, NoChain where it begins
	Word int32 // index of its name among the words of the body
	Op   ChainOp
}

// CallKind says what is done with what a chain leads to.
type CallKind uint8

// What is done.
const (
	CallPlain CallKind = iota + 1
	CallConstruct
	CallRender
	CallInherit
	CallInject
	CallRead
)

// String is the kind's name in the survey.
func (k CallKind) String() string {
	return [...]string{"", "call", "construct", "render", "inherit", "inject", "read"}[k]
}

// BodyCall is a chain that is put to work in a definition, once for each.
type BodyCall struct {
	In   int32 // index of the definition that encloses it, -1 at the top of the file
	Node int32
	Line int32
	Kind CallKind
}

// ShapeKind says what a shape tells the type of.
type ShapeKind uint8

// The kinds of shape.
const (
	ShapeValue   ShapeKind = iota + 1 // a field or variable: Node is its value
	ShapeResult                       // a function or method: Node is what it gives, Nth in its place
	ShapeBase                         // a type: Node is one that it is built upon or embeds
	ShapeUnder                        // a type: Node is the type that it is another name for
	ShapeMethod                       // a member of an interface without a body; Text is its signature
	ShapeExtends                      // a function that looks like a member of what Node is a value of
)

// Shape is the type of something that a file defines.
type Shape struct {
	Owner string // qualified name of the type it belongs to, "" at the top
	Name  string
	Kind  ShapeKind
	Nth   uint8
	Node  int32
	Text  string // signature, for languages that match interfaces by it
}

// Body is what the bodies of a file's definitions do.
type Body struct {
	// Spare says that the file is built on other machines than the usual one:
	// where another defines the same, that one stands for both.
	Spare  bool
	Nodes  []ChainNode
	Words  []string // the first is ""
	Calls  []BodyCall
	Shapes []Shape
}

// Name is what a step of the body is called, "" for one without a name.
func (b *Body) Name(n *ChainNode) string { return b.Words[n.Word] }

// PackBody writes a body as one slice of bytes.
func PackBody(b *Body) []byte {
	if len(b.Nodes) == 0 && len(b.Calls) == 0 && len(b.Shapes) == 0 && !b.Spare {
		return nil
	}
	p := packers.Get().(*packer)
	defer p.release()
	p.at[""] = 0
	p.nth = append(p.nth[:0], make([]uint64, len(b.Words))...)
	p.out = append(p.out, 0)
	if b.Spare {
		p.out[0] = 1
	}
	p.number(len(b.Nodes))
	for i, n := range b.Nodes {
		p.number(int(n.Op))
		// Most steps go on from one that stands near.
		p.number(i - int(n.From))
		p.wordAt(b.Words, n.Word)
	}
	p.number(len(b.Calls))
	in, line := int32(0), int32(0)
	for _, c := range b.Calls {
		p.signed(int(c.In - in))
		p.number(int(c.Node))
		p.signed(int(c.Line - line))
		p.number(int(c.Kind))
		in, line = c.In, c.Line
	}
	p.number(len(b.Shapes))
	for _, s := range b.Shapes {
		p.word(s.Owner)
		p.word(s.Name)
		p.number(int(s.Kind)<<4 | int(s.Nth&15))
		p.number(int(s.Node) + 1)
		p.word(s.Text)
	}
	return bytes.Clone(p.out) // as long as it is: what was grown for it is kept for the next
}

type packer struct {
	out []byte
	at  map[string]uint64 // the number of each word that was written
	nth []uint64          // the same by its place among the words of the body, plus one
}

// packers keeps the room of bodies that were packed for those still to be packed.
var packers = sync.Pool{New: func() any { return &packer{at: map[string]uint64{}} }}

// mostPacked bounds the room that is kept, in words and in bytes.
const mostPacked = 1 << 18

func (p *packer) release() {
	if len(p.at) > mostPacked>>4 || cap(p.out) > mostPacked {
		return
	}
	clear(p.at)
	p.out = p.out[:0]
	packers.Put(p)
}

func (p *packer) number(n int) { p.out = binary.AppendUvarint(p.out, uint64(n)) }
func (p *packer) signed(n int) { p.out = binary.AppendVarint(p.out, int64(n)) }

// word writes a word where it occurs first, and later its number, which it gives.
func (p *packer) word(w string) uint64 {
	n, ok := p.at[w]
	if ok {
		p.out = binary.AppendUvarint(p.out, n<<1)
		return n
	}
	n = uint64(len(p.at))
	p.at[w] = n
	p.out = binary.AppendUvarint(p.out, uint64(len(w))<<1|1)
	p.out = append(p.out, w...)
	return n
}

// wordAt writes the word at a place among those of a body.
func (p *packer) wordAt(words []string, at int32) {
	if n := p.nth[at]; n > 0 {
		p.out = binary.AppendUvarint(p.out, (n-1)<<1)
		return
	}
	p.nth[at] = p.word(words[at]) + 1
}

var errBody = errors.New("the facts on bodies are damaged")

// UnpackBody reads what PackBody wrote. Its words share the bytes of packed,
// which must not be changed afterwards.
func UnpackBody(packed []byte) (*Body, error) {
	b := &Body{}
	if len(packed) == 0 {
		return b, nil
	}
	b.Spare = packed[0] == 1
	u := unpacker{in: packed[1:]}
	b.Nodes = make([]ChainNode, u.count(3))
	room := wordRooms.Get().(*[]string)
	u.words = append((*room)[:0], "")
	defer func() {
		*room = u.words
		wordRooms.Put(room)
	}()
	for i := range b.Nodes {
		n := &b.Nodes[i]
		n.Op = ChainOp(u.number())
		n.From = int32(i) - int32(u.number())
		n.Word = u.wordAt()
		// A step only ever goes on from one before it: there is no way round.
		if n.From < NoChain || int(n.From) >= i {
			return nil, errBody
		}
	}
	b.Calls = make([]BodyCall, u.count(4))
	in, line := int32(0), int32(0)
	for i := range b.Calls {
		c := &b.Calls[i]
		in += int32(u.signed())
		c.In, c.Node = in, int32(u.number())
		line += int32(u.signed())
		c.Line, c.Kind = line, CallKind(u.number())
		if c.In < -1 || c.Node < 0 || int(c.Node) >= len(b.Nodes) || c.Kind > CallRead {
			return nil, errBody
		}
	}
	b.Shapes = make([]Shape, u.count(5))
	for i := range b.Shapes {
		s := &b.Shapes[i]
		s.Owner, s.Name = u.word(), u.word()
		k := u.number()
		s.Kind, s.Nth = ShapeKind(k>>4), uint8(k&15)
		s.Node = int32(u.number()) - 1
		s.Text = u.word()
		if s.Node < NoChain || int(s.Node) >= len(b.Nodes) {
			return nil, errBody
		}
	}
	if u.bad {
		return nil, errBody
	}
	b.Words = slices.Clone(u.words) // as many as there are, which nobody knows before
	return b, nil
}

// wordRooms keeps the room for words of bodies that were unpacked.
var wordRooms = sync.Pool{New: func() any { return new([]string) }}

type unpacker struct {
	in    []byte
	words []string
	bad   bool
}

func (u *unpacker) number() int {
	n, k := binary.Uvarint(u.in)
	if k <= 0 || n > 1<<31 {
		u.bad, u.in = true, nil
		return 0
	}
	u.in = u.in[k:]
	return int(n)
}

func (u *unpacker) signed() int {
	n, k := binary.Varint(u.in)
	if k <= 0 || n > 1<<31 || n < -1<<31 {
		u.bad, u.in = true, nil
		return 0
	}
	u.in = u.in[k:]
	return int(n)
}

// count is how many follow, each of at least so many bytes.
func (u *unpacker) count(each int) int {
	n := u.number()
	if n*each > len(u.in) {
		u.bad, u.in = true, nil
		return 0
	}
	return n
}

func (u *unpacker) word() string { return u.words[u.wordAt()] }

// wordAt is the place of the next word among those that were met.
func (u *unpacker) wordAt() int32 {
	n := u.number()
	if n&1 == 0 {
		if n>>1 >= len(u.words) {
			u.bad = true
			return 0
		}
		return int32(n >> 1)
	}
	if n >>= 1; n > len(u.in) || n == 0 {
		u.bad = true
		return 0
	}
	u.words = append(u.words, unsafe.String(&u.in[0], n))
	u.in = u.in[n:]
	return int32(len(u.words) - 1)
}
