package csharp

import (
	"bytes"

	"jantel/core/syntax"
)

// holes are the parts of a text with code in it that are code: what stands in
// braces, up to how it is to be written.
func holes(text []byte, line int) (out []*syntax.Stream) {
	if text[0] != '$' && !bytes.HasPrefix(text, []byte("@$")) {
		return nil
	}
	for i := 0; i < len(text); i++ {
		switch text[i] {
		case '\n':
			line++
		case '{':
			if i+1 < len(text) && text[i+1] == '{' && text[1] != '$' {
				i++
				continue
			}
			end := holeEnd(text[i+1:])
			if end < 0 {
				return out
			}
			if hole := text[i+1 : i+1+end]; bytes.ContainsAny(hole, "(.") {
				out = append(out, grammar.LexFrom(hole, line))
			}
			line += bytes.Count(text[i:i+1+end], []byte{'\n'})
			i += end
		}
	}
	return out
}

// holeEnd is where a hole ends: at its brace, or where it is said how what is in
// it is to be written.
func holeEnd(text []byte) int {
	deep := 0
	for i, c := range text {
		switch c {
		case '{', '(', '[':
			deep++
		case '}', ')', ']':
			if deep == 0 {
				return i
			}
			deep--
		case ':', ',':
			if deep == 0 && bytes.IndexByte(text[:i], '?') < 0 {
				return i
			}
		}
	}
	return -1
}
