// Package golang reads Go.
package golang

import (
	"bytes"

	"jantel/core/syntax"
)

// lex makes the tokens of a Go file. Line ends are kept out of the stream: the
// reader looks at the tokens' lines where a statement's end matters.
func lex(src []byte) *syntax.Stream {
	b := syntax.NewBuilder(src)
	n := len(src)
	for b.Pos < n && !b.Full() {
		c := src[b.Pos]
		start, line := b.Pos, b.LineNo
		switch {
		case c == '\n':
			b.LineNo++
			b.Pos++
		case syntax.In(c, " \t\r"):
			b.Pos++
		case syntax.IsIdentStart(c):
			b.Pos++
			for b.Pos < n && syntax.IsIdentPart(src[b.Pos]) {
				b.Pos++
			}
			b.Add(syntax.Ident, start, line)
		case c >= '0' && c <= '9':
			number(b)
			b.Add(syntax.Number, start, line)
		case c == '/' && b.Pos+1 < n && src[b.Pos+1] == '/':
			if i := bytes.IndexByte(src[b.Pos:], '\n'); i >= 0 {
				b.Pos += i
			} else {
				b.Pos = n
			}
			b.Add(syntax.Comment, start, line)
		case c == '/' && b.Pos+1 < n && src[b.Pos+1] == '*':
			if i := bytes.Index(src[b.Pos+2:], []byte("*/")); i >= 0 {
				b.Pos += i + 4
			} else {
				b.Misread("a comment is not closed", line)
				b.Pos = n
			}
			b.LineNo += bytes.Count(src[start:b.Pos], []byte{'\n'})
			b.Add(syntax.Comment, start, line)
		case c == '`':
			end := b.Find(b.Pos+1, "`")
			if end < 0 {
				b.Misread("a raw string is not closed", line)
				b.Pos++
				b.Add(syntax.Punct, start, line)
				continue
			}
			b.Pos = end + 1
			b.LineNo += bytes.Count(src[start:b.Pos], []byte{'\n'})
			b.Add(syntax.String, start, line)
		case syntax.In(c, "\"'"):
			if !quoted(b, c) {
				b.Misread("a string is not closed", line)
				b.Pos = start + 1
				b.Add(syntax.Punct, start, line)
				continue
			}
			b.Add(syntax.String, start, line)
		case syntax.In(c, "([{"):
			b.Pos++
			b.Add(syntax.Punct, start, line)
			b.Open()
		case syntax.In(c, ")]}"):
			b.Pos++
			b.Add(syntax.Punct, start, line)
			b.Shut(opener[c])
		default:
			b.Pos++
			b.Add(syntax.Punct, start, line)
		}
	}
	return b.Finish()
}

var opener = map[byte]byte{')': '(', ']': '[', '}': '{'}

// number steps over digits, prefixes, exponents and suffixes alike.
func number(b *syntax.Builder) {
	src := b.Src
	for b.Pos < len(src) {
		c := src[b.Pos]
		switch {
		case syntax.IsIdentPart(c) && c != '$', c == '.':
			b.Pos++
			if (syntax.In(c, "eEpP")) && b.Pos < len(src) && (syntax.In(src[b.Pos], "+-")) {
				b.Pos++
			}
		default:
			return
		}
	}
}

// quoted steps over a string or rune that ends on its own line.
func quoted(b *syntax.Builder, q byte) bool {
	for b.Pos++; b.Pos < len(b.Src); b.Pos++ {
		switch b.Src[b.Pos] {
		case '\\':
			b.Pos++
		case '\n':
			return false
		case q:
			b.Pos++
			return true
		}
	}
	b.Pos = len(b.Src)
	return false
}
