// Package syntax turns the bytes of one file into facts. A lexer per language
// makes tokens and matches brackets, so that the tokens are a tree; a reader
// per language walks it as an island grammar: it knows the shapes it wants and
// steps over everything else. Each language lives in a folder of its own and
// registers itself.
package syntax

import (
	"bytes"
	"sync"
)

// Kind is the kind of a token.
type Kind uint8

// The kinds of tokens. Comments are kept apart from the others.
const (
	EOF Kind = iota
	Ident
	Number
	String // with its quotes; a piece of one where it is interpolated
	Regex
	Punct
	Newline // ends a logical line, in languages where that matters
	Indent
	Dedent
	Text    // prose between tags
	TagOpen // "<" that starts an element
	TagEnd  // ">" or "/>" that ends it
	Comment
)

// Token is a run of bytes. Lines count from 1. Match is the index of the
// bracket at the other end of the group, -1 where there is none.
type Token struct {
	Start, End    int32
	Line, EndLine int32
	Match         int32
	Kind          Kind
	sign          byte   // its first one: most questions about a token are answered by it, without the text
	shape         uint16 // what it counts as where code is compared, told once for all who ask
}

// Stream is a lexed file.
type Stream struct {
	Src      []byte
	Tokens   []Token
	Comments []Token
	Unread   []int32 // the places in Comments of branches of code that are not read
	Problem  string  // what was misread on the way, "" when nothing was
	// Ends: blocks go up to an "end"; Implicit: the last value of a body is given
	// back without a word for it.
	Ends, Implicit bool
	lines          int
	left           int // looks at tokens that a reader still has
	chains         *Chains
	telling        []tellingWord // the words that tables know, once they were told
}

// MaxTokens bounds what is kept of one file; the rest is not read.
const MaxTokens = 4_000_000

// MaxNesting bounds open brackets; deeper ones are not matched.
const MaxNesting = 1000

// Len is the number of tokens.
func (s *Stream) Len() int { return len(s.Tokens) }

// Bytes is the text of token i, nil when there is no such token.
func (s *Stream) Bytes(i int) []byte {
	if s.left--; uint(i) >= uint(len(s.Tokens)) || s.left < 0 {
		return s.none()
	}
	t := &s.Tokens[i]
	return s.Src[t.Start:t.End]
}

// A reader may look at each token so many times on average, and at so many in
// a short text: honest code needs ten to twenty. Past that a text was made to be
// slow, and is given up; so the time a reader takes grows with its text,
// whatever the text is and however the reader goes about it.
const (
	looksEach = 250
	looksMore = 50_000
)

// TooMuch is what a stream panics with when a text needs more work than is
// done for one; who reads files recovers it.
type TooMuch struct{}

func (TooMuch) Error() string { return "needs more work than is done for one file" }

// none stands for a token that is not there.
func (s *Stream) none() []byte {
	if s.left < 0 {
		panic(TooMuch{})
	}
	return nil
}

// Text is the text of token i.
func (s *Stream) Text(i int) string { return string(s.Bytes(i)) }

// Is reports whether token i reads exactly text.
func (s *Stream) Is(i int, text string) bool {
	if s.left--; uint(i) >= uint(len(s.Tokens)) || s.left < 0 {
		s.none()
		return text == ""
	}
	return s.Tokens[i].is(s.Src, text)
}

// is reports whether a token of a source reads exactly text.
func (t *Token) is(src []byte, text string) bool {
	switch len(text) {
	case 0:
		return t.Start == t.End
	case 1:
		return t.sign == text[0] && t.End-t.Start == 1
	}
	return t.sign == text[0] && string(src[t.Start:t.End]) == text
}

// First is the first sign of token i, 0 when there is no such token.
func (s *Stream) First(i int) byte {
	if s.left--; uint(i) >= uint(len(s.Tokens)) || s.left < 0 {
		s.none()
		return 0
	}
	return s.Tokens[i].sign
}

// IsSign reports whether token i is a single sign.
func (s *Stream) IsSign(i int) bool {
	return uint(i) < uint(len(s.Tokens)) && s.Tokens[i].Kind == Punct && s.Tokens[i].End-s.Tokens[i].Start == 1
}

// Kind is the kind of token i, EOF when there is no such token.
func (s *Stream) Kind(i int) Kind {
	if s.left--; uint(i) >= uint(len(s.Tokens)) || s.left < 0 {
		s.none()
		return EOF
	}
	return s.Tokens[i].Kind
}

// IsIdent reports whether token i is an identifier or a keyword.
func (s *Stream) IsIdent(i int) bool { return s.Kind(i) == Ident }

// Line is the line token i starts on.
func (s *Stream) Line(i int) int {
	if i < 0 || len(s.Tokens) == 0 {
		return 1
	}
	return int(s.Tokens[min(i, len(s.Tokens)-1)].Line)
}

// EndLine is the line token i ends on.
func (s *Stream) EndLine(i int) int {
	if i < 0 || len(s.Tokens) == 0 {
		return 1
	}
	return int(s.Tokens[min(i, len(s.Tokens)-1)].EndLine)
}

// LastLine is the line that the last token with a text ends on; comments and empty
// lines below it do not count.
func (s *Stream) LastLine() int {
	for i := len(s.Tokens) - 1; i >= 0; i-- {
		if k := s.Tokens[i].Kind; k != Newline && k != Indent && k != Dedent {
			return int(s.Tokens[i].EndLine)
		}
	}
	return 1
}

// Close is the index of the bracket that closes the one at i; i itself when
// it opens nothing or is never closed.
func (s *Stream) Close(i int) int {
	if s.left--; uint(i) >= uint(len(s.Tokens)) || s.left < 0 {
		s.none()
		return i
	}
	if m := int(s.Tokens[i].Match); m > i {
		return m
	}
	return i
}

// Unquote is the text of a string token without its quotes, escapes left as
// they are.
func (s *Stream) Unquote(i int) string {
	b := s.Bytes(i)
	if len(b) >= 2 && (In(b[0], "\"'`")) && b[len(b)-1] == b[0] {
		return string(b[1 : len(b)-1])
	}
	return string(b)
}

// Builder is what lexers write their tokens with: it counts lines and matches
// brackets with an explicit stack.
type Builder struct {
	Stream
	Pos      int
	LineNo   int
	unclosed []int32
	opened   [256]int32 // how many of each opening sign are open, so that a stray closing one costs no search
	full     bool
	wasted   int            // bytes looked at in vain
	absent   map[string]int // what stands nowhere at or behind a place
}

// NewBuilder starts a stream over src.
func NewBuilder(src []byte) *Builder {
	b := &Builder{Stream: Stream{Src: src, left: looksEach*len(src) + looksMore}, LineNo: 1}
	if t, ok := tokens.Get().(*[]Token); ok && cap(*t) >= len(src)/5 {
		b.Tokens = (*t)[:0]
	} else {
		b.Tokens = make([]Token, 0, len(src)/5+16)
	}
	return b
}

// tokens keeps the room of files that were read for those still to be read.
var tokens sync.Pool

// Release gives up the room of a stream that is not looked at any more.
func (s *Stream) Release() {
	if c := cap(s.Tokens); c > 0 && c < 1<<20 {
		t := s.Tokens[:0]
		tokens.Put(&t)
	}
	s.Tokens = nil
	if t := s.telling; cap(t) > 0 && cap(t) < 1<<18 {
		tellingRooms.Put(&t)
	}
	s.telling = nil
}

// Add appends the token src[start:b.Pos] that began on line.
func (b *Builder) Add(k Kind, start, line int) {
	if k == Comment {
		b.Comments = append(b.Comments, Token{
			Start: int32(start), End: int32(b.Pos), Line: int32(line), EndLine: int32(b.LineNo), Match: -1, Kind: k,
		})
		return
	}
	if len(b.Tokens) >= MaxTokens {
		b.Misread("more tokens than are read of one file", line)
		b.full = true
		return
	}
	var sign byte
	if start < b.Pos && start < len(b.Src) {
		sign = b.Src[start]
	}
	b.Tokens = append(b.Tokens, Token{
		Start: int32(start), End: int32(b.Pos), Line: int32(line), EndLine: int32(b.LineNo), Match: -1, Kind: k, sign: sign,
	})
}

// FromEarlier lets the newest token begin at an earlier place.
func (b *Builder) FromEarlier(start int) {
	t := b.Last()
	t.Start, t.sign = int32(start), b.Src[start]
}

// Waste notes that so many bytes were looked at in vain, for the end of
// something that has none. Spent then tells when to stop looking: a text made
// to be slow is read as signs from there on.
func (b *Builder) Waste(bytes int) { b.wasted += max(bytes, 0) }

// Spent reports whether more was looked at in vain than any honest text asks.
func (b *Builder) Spent() bool { return b.wasted > 32*len(b.Src)+1<<20 }

// Find is where text stands at or behind a place, -1 where it does not. What is
// not there is looked for once: a text that opens the same thing again and
// again and never closes it is read no slower for it.
func (b *Builder) Find(at int, text string) int {
	if at > len(b.Src) || b.Spent() {
		return -1
	}
	if from, known := b.absent[text]; known && at >= from {
		return -1
	}
	if i := bytes.Index(b.Src[at:], []byte(text)); i >= 0 {
		return at + i
	}
	if b.absent == nil {
		b.absent = map[string]int{}
	}
	b.absent[text] = at
	b.Waste(len(b.Src) - at)
	return -1
}

// Full reports whether the limit of tokens was reached.
func (b *Builder) Full() bool { return b.full }

// Last is the newest token, or nil.
func (b *Builder) Last() *Token {
	if len(b.Tokens) == 0 {
		return nil
	}
	return &b.Tokens[len(b.Tokens)-1]
}

// LastIs reports whether the newest token reads text.
func (b *Builder) LastIs(text string) bool {
	t := b.Last()
	return t != nil && string(b.Src[t.Start:t.End]) == text
}

// Open marks the newest token as an opening bracket.
func (b *Builder) Open() {
	if len(b.unclosed) < MaxNesting {
		b.unclosed = append(b.unclosed, int32(len(b.Tokens)-1))
		b.opened[b.Src[b.Tokens[len(b.Tokens)-1].End-1]]++
	} else {
		b.Misread("brackets nested deeper than are matched", b.LineNo)
	}
}

// Shut matches the newest token, a closing bracket, with the nearest open one
// that reads opener; unclosed brackets in between are given up.
func (b *Builder) Shut(opener byte) {
	me := int32(len(b.Tokens) - 1)
	for i := len(b.unclosed) - 1; i >= 0 && b.opened[opener] > 0; i-- {
		o := &b.Tokens[b.unclosed[i]]
		if b.Src[o.End-1] == opener {
			for _, k := range b.unclosed[i:] {
				b.opened[b.Src[b.Tokens[k].End-1]]--
			}
			if i != len(b.unclosed)-1 {
				b.Misread("a bracket is not closed", int(o.Line))
			}
			o.Match, b.Tokens[me].Match = me, b.unclosed[i]
			b.unclosed = b.unclosed[:i]
			return
		}
	}
	b.Misread("a bracket closes nothing", b.LineNo)
}

// Depth is the number of open brackets.
func (b *Builder) Depth() int { return len(b.unclosed) }

// Misread notes the first thing that went wrong.
func (b *Builder) Misread(what string, line int) {
	if b.Problem == "" {
		b.Problem = what + " (line " + itoa(line) + ")"
	}
}

// Finish closes the stream and checks that every bracket was closed.
func (b *Builder) Finish() *Stream {
	if len(b.unclosed) > 0 {
		b.Misread("a bracket is not closed", int(b.Tokens[b.unclosed[len(b.unclosed)-1]].Line))
	}
	b.lines = b.LineNo
	for i := range b.Tokens {
		b.Tokens[i].shape = normal(b.Src, &b.Tokens[i])
	}
	b.left = looksEach*len(b.Tokens) + looksMore
	return &b.Stream
}

func itoa(n int) string {
	if n == 0 {
		return "0"
	}
	var d [20]byte
	i := len(d)
	for ; n > 0; n /= 10 {
		i--
		d[i] = byte('0' + n%10)
	}
	return string(d[i:])
}

// IsIdentStart reports whether c can start an identifier in most languages;
// every byte beyond ASCII counts.
func IsIdentStart(c byte) bool { return identTable[c] == 1 }

// IsIdentPart reports whether c can go on in an identifier.
func IsIdentPart(c byte) bool { return identTable[c] != 0 }

var identTable = func() (t [256]byte) {
	for c := range 256 {
		switch {
		case c >= 'a' && c <= 'z', c >= 'A' && c <= 'Z', c == '_', c == '$', c >= 0x80:
			t[c] = 1
		case c >= '0' && c <= '9':
			t[c] = 2
		}
	}
	return t
}()
