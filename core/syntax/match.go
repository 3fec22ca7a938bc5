package syntax

import "strings"

// What a pattern may ask for besides a text.
const (
	Name   = "\x00name"   // any identifier or keyword
	Quoted = "\x00quoted" // any string, or a piece of one
	Figure = "\x00figure" // any number
	Break  = "\x00break"  // the end of a logical line
)

// Match reports whether the tokens from i on read like the pattern, one part
// a token: a text stands for itself, Name and its like for any token of a kind.
//
//	s.Match(i, "new", syntax.Name, "(")
func (s *Stream) Match(i int, pattern ...string) bool {
	for k, want := range pattern {
		if !s.reads(i+k, want) {
			return false
		}
	}
	return true
}

// Any reports whether token i reads like one of the patterns.
func (s *Stream) Any(i int, patterns ...string) bool {
	t := &nowhere
	if s.left--; uint(i) < uint(len(s.Tokens)) && s.left >= 0 {
		t = &s.Tokens[i]
	} else {
		s.none()
	}
	for _, want := range patterns {
		if want != "" && want[0] == 0 {
			if s.reads(i, want) {
				return true
			}
		} else if s.left--; t.is(s.Src, want) { // each comparison counts as a look
			return true
		}
	}
	return false
}

// nowhere stands for a token that is not there.
var nowhere Token

func (s *Stream) reads(i int, want string) bool {
	if want == "" || want[0] != 0 {
		return s.Is(i, want)
	}
	switch want {
	case Name:
		return s.Kind(i) == Ident
	case Quoted:
		return s.Kind(i) == String
	case Figure:
		return s.Kind(i) == Number
	}
	return s.Kind(i) == Newline
}

// In reports whether a byte is one of a set.
func In(c byte, set string) bool { return strings.IndexByte(set, c) >= 0 }

// ByFirst says how a lexer goes on, by the first byte of what comes next; nil
// where nothing begins with it.
type ByFirst[L any] [256]func(L)

// On sets what reads on behind each byte of a set.
func (t *ByFirst[L]) On(set string, read func(L)) {
	for i := range len(set) {
		t[set[i]] = read
	}
}

// OnWords sets what reads a word: what begins with a letter, "_", "$" or a byte
// beyond ASCII.
func (t *ByFirst[L]) OnWords(read func(L)) {
	for c := range t {
		if IsIdentStart(byte(c)) {
			t[c] = read
		}
	}
}

// Digits begin a number.
const Digits = "0123456789"

// Opener is the bracket that a closing one shuts.
func Opener(closing byte) byte {
	switch closing {
	case ')':
		return '('
	case ']':
		return '['
	}
	return '{'
}
