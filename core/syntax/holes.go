package syntax

import (
	"bytes"
	"iter"
)

// Holes are the parts of a text that are code: what stands between open, which
// ends with a brace, and the brace that closes it. With each comes the line that
// it begins on, where the text begins on line.
func Holes(text []byte, line int, open string) iter.Seq2[[]byte, int] {
	return func(yield func([]byte, int) bool) {
		for at := bytes.Index(text, []byte(open)); at >= 0; at = bytes.Index(text, []byte(open)) {
			line += bytes.Count(text[:at], []byte{'\n'})
			text = text[at+len(open):]
			end := closing(text)
			if end < 0 || !yield(text[:end], line) {
				return
			}
			line += bytes.Count(text[:end], []byte{'\n'})
			text = text[end:]
		}
	}
}

// closing is where the brace closes that was opened before a text, -1 where it does not.
func closing(text []byte) int {
	deep := 1
	for i, c := range text {
		switch c {
		case '{':
			deep++
		case '}':
			if deep--; deep == 0 {
				return i
			}
		}
	}
	return -1
}
