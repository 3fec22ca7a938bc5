// Package golang reads Go.
package golang

import (
	"bytes"

	"jantel/core/syntax"
)

// lexer makes the tokens of a Go file. Line ends are kept out of the stream:
// the reader looks at the tokens' lines where a statement's end matters.
type lexer struct{ *syntax.Builder }

func lex(src []byte) *syntax.Stream {
	l := &lexer{syntax.NewBuilder(src)}
	for l.Pos < len(src) && !l.Full() {
		if read := byFirst[src[l.Pos]]; read != nil {
			read(l)
			continue
		}
		l.sign()
	}
	return l.Finish()
}

var byFirst syntax.ByFirst[*lexer]

func init() {
	byFirst.OnWords((*lexer).word)
	byFirst.On("\n", func(l *lexer) { l.LineNo++; l.Pos++ })
	byFirst.On(" \t\r", func(l *lexer) { l.Pos++ })
	byFirst.On(syntax.Digits, (*lexer).number)
	byFirst.On("/", (*lexer).slash)
	byFirst.On("`", (*lexer).rawString)
	byFirst.On("\"'", (*lexer).text)
	byFirst.On("([{", func(l *lexer) { l.sign(); l.Open() })
	byFirst.On(")]}", func(l *lexer) { c := l.Src[l.Pos]; l.sign(); l.Shut(syntax.Opener(c)) })
}

func (l *lexer) sign() {
	l.Pos++
	l.Add(syntax.Punct, l.Pos-1, l.LineNo)
}

func (l *lexer) word() {
	start := l.Pos
	for l.Pos++; l.Pos < len(l.Src) && syntax.IsIdentPart(l.Src[l.Pos]); {
		l.Pos++
	}
	l.Add(syntax.Ident, start, l.LineNo)
}

// slash tells comments from divisions.
func (l *lexer) slash() {
	src, start, line := l.Src, l.Pos, l.LineNo
	switch {
	case bytes.HasPrefix(src[start:], []byte("//")):
		l.Pos = len(src)
		if i := bytes.IndexByte(src[start:], '\n'); i >= 0 {
			l.Pos = start + i
		}
	case bytes.HasPrefix(src[start:], []byte("/*")):
		l.Pos = len(src)
		if i := bytes.Index(src[start+2:], []byte("*/")); i >= 0 {
			l.Pos = start + i + 4
		} else {
			l.Misread("a comment is not closed", line)
		}
		l.LineNo += bytes.Count(src[start:l.Pos], []byte{'\n'})
	default:
		l.sign()
		return
	}
	l.Add(syntax.Comment, start, line)
}

func (l *lexer) rawString() {
	start, line := l.Pos, l.LineNo
	end := l.Find(start+1, "`")
	if end < 0 {
		l.Misread("a raw string is not closed", line)
		l.sign()
		return
	}
	l.Pos = end + 1
	l.LineNo += bytes.Count(l.Src[start:l.Pos], []byte{'\n'})
	l.Add(syntax.String, start, line)
}

func (l *lexer) text() {
	start := l.Pos
	if !l.quoted(l.Src[start]) {
		l.Misread("a string is not closed", l.LineNo)
		l.Pos = start
		l.sign()
		return
	}
	l.Add(syntax.String, start, l.LineNo)
}

// number steps over digits, prefixes, exponents and suffixes alike.
func (l *lexer) number() {
	src, start := l.Src, l.Pos
	for l.Pos < len(src) {
		c := src[l.Pos]
		if c == '$' || c != '.' && !syntax.IsIdentPart(c) {
			break
		}
		l.Pos++
		if (c|0x20 == 'e' || c|0x20 == 'p') && l.Pos < len(src) && (src[l.Pos] == '+' || src[l.Pos] == '-') {
			l.Pos++
		}
	}
	l.Add(syntax.Number, start, l.LineNo)
}

// quoted steps over a string or rune that ends on its own line.
func (l *lexer) quoted(q byte) bool {
	for l.Pos++; l.Pos < len(l.Src); l.Pos++ {
		switch l.Src[l.Pos] {
		case '\\':
			l.Pos++
		case '\n':
			return false
		case q:
			l.Pos++
			return true
		}
	}
	l.Pos = len(l.Src)
	return false
}
