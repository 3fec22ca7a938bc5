// Package indented makes the tokens of languages that show their blocks by
// indentation.
package indented

import (
	"bytes"

	"jantel/core/syntax"
)

// Lex makes the tokens of a file, with the ends of logical lines and
// the changes of indentation among them.
func Lex(src []byte) *syntax.Stream {
	l := &lexer{Builder: syntax.NewBuilder(src), indents: []int{0}, fresh: true}
	for l.Pos < len(src) && !l.Full() {
		if l.fresh && l.Depth() == 0 && !l.indentation() {
			continue
		}
		l.token()
	}
	if n := len(l.Tokens); n > 0 && l.Tokens[n-1].Kind != syntax.Newline {
		l.Add(syntax.Newline, l.Pos, l.LineNo)
	}
	for range l.indents[1:] {
		l.Add(syntax.Dedent, l.Pos, l.LineNo)
	}
	return l.Finish()
}

type lexer struct {
	*syntax.Builder
	indents []int
	fresh   bool // at the start of a logical line
}

// indentation measures a line's leading blanks; it reports false when the
// line holds nothing but a comment.
func (l *lexer) indentation() bool {
	src, width, start := l.Src, 0, l.Pos
	for l.Pos < len(src) {
		switch src[l.Pos] {
		case ' ':
			width++
		case '\t':
			width = width/8*8 + 8
		case '\f', '\r':
			width = 0
		default:
			goto measured
		}
		l.Pos++
	}
measured:
	if l.Pos >= len(src) {
		return false
	}
	switch c := src[l.Pos]; c {
	case '\n':
		l.Pos++
		l.LineNo++
		return false
	case '#':
		l.comment()
		return false
	}
	l.fresh = false
	if top := l.indents[len(l.indents)-1]; width > top {
		l.indents = append(l.indents, width)
		l.Add(syntax.Indent, start, l.LineNo)
	} else {
		for len(l.indents) > 1 && width < l.indents[len(l.indents)-1] {
			l.indents = l.indents[:len(l.indents)-1]
			l.Add(syntax.Dedent, l.Pos, l.LineNo)
		}
	}
	return true
}

func (l *lexer) comment() {
	start := l.Pos
	if i := bytes.IndexByte(l.Src[l.Pos:], '\n'); i >= 0 {
		l.Pos += i
	} else {
		l.Pos = len(l.Src)
	}
	l.Add(syntax.Comment, start, l.LineNo)
}

var byFirst syntax.ByFirst[*lexer]

func init() {
	byFirst.OnWords((*lexer).word)
	byFirst.On("$", (*lexer).sign)
	byFirst.On("\n", (*lexer).newline)
	byFirst.On(" \t\r\f", func(l *lexer) { l.Pos++ })
	byFirst.On("\\", (*lexer).joinedLine)
	byFirst.On("#", (*lexer).comment)
	byFirst.On("\"'", func(l *lexer) { l.str(l.Pos, false, false) })
	byFirst.On(syntax.Digits, (*lexer).number)
	byFirst.On(".", (*lexer).dot)
	byFirst.On("([{", func(l *lexer) { l.sign(); l.Open() })
	byFirst.On(")]}", func(l *lexer) { c := l.Src[l.Pos]; l.sign(); l.Shut(syntax.Opener(c)) })
	byFirst.On("-:=", (*lexer).operator)
}

func (l *lexer) token() {
	if read := byFirst[l.Src[l.Pos]]; read != nil {
		read(l)
		return
	}
	l.sign()
}

func (l *lexer) sign() {
	l.Pos++
	l.Add(syntax.Punct, l.Pos-1, l.LineNo)
}

func (l *lexer) at(i int) byte {
	if i < len(l.Src) {
		return l.Src[i]
	}
	return 0
}

// newline ends a logical line, unless it stands within brackets.
func (l *lexer) newline() {
	if l.Depth() == 0 {
		l.Add(syntax.Newline, l.Pos, l.LineNo)
		l.fresh = true
	}
	l.Pos++
	l.LineNo++
}

// joinedLine steps over a line end that is taken back.
func (l *lexer) joinedLine() {
	if !syntax.In(l.at(l.Pos+1), "\n\r") {
		l.sign()
		return
	}
	l.Pos++
	if l.at(l.Pos) == '\r' {
		l.Pos++
	}
	if l.at(l.Pos) == '\n' {
		l.Pos++
		l.LineNo++
	}
}

// word takes a name, or the string that its letters are the mark of.
func (l *lexer) word() {
	src, start := l.Src, l.Pos
	for l.Pos < len(src) && syntax.IsIdentPart(src[l.Pos]) && src[l.Pos] != '$' {
		l.Pos++
	}
	if syntax.In(l.at(l.Pos), "\"'") && l.Pos-start <= 2 {
		if raw, format, ok := stringPrefix(src[start:l.Pos]); ok {
			l.str(start, raw, format)
			return
		}
	}
	l.Add(syntax.Ident, start, l.LineNo)
}

func (l *lexer) dot() {
	if c := l.at(l.Pos + 1); c >= '0' && c <= '9' {
		l.number()
		return
	}
	l.sign()
}

// number takes digits, prefixes and exponents alike; "0xe+1" is a sum.
func (l *lexer) number() {
	src, start := l.Src, l.Pos
	hex := l.at(start+1)|32 == 'x'
	for l.Pos < len(src) {
		c := src[l.Pos]
		exponent := syntax.In(c, "+-") && l.Pos > start && src[l.Pos-1]|32 == 'e' && (l.Pos-start < 2 || !hex)
		if !syntax.IsIdentPart(c) && c != '.' && !exponent {
			break
		}
		l.Pos++
	}
	l.Add(syntax.Number, start, l.LineNo)
}

// operator takes "->", ":=" and "==" as one token, others a byte each.
func (l *lexer) operator() {
	start := l.Pos
	switch c, next := l.Src[start], l.at(start+1); {
	case c == '-' && next == '>', c != '-' && next == '=':
		l.Pos += 2
		l.Add(syntax.Punct, start, l.LineNo)
	default:
		l.sign()
	}
}

func stringPrefix(p []byte) (raw, format, ok bool) {
	for _, c := range p {
		switch c | 32 {
		case 'r':
			raw = true
		case 'f', 't':
			format = true
		case 'b', 'u':
		default:
			return false, false, false
		}
	}
	return raw, format, true
}

// str reads a string whose quote is at l.Pos; what it was made of before stays
// part of the token. In a formatted one, quotes inside braces belong to the
// expression there.
func (l *lexer) str(start int, raw, format bool) {
	src, line := l.Src, l.LineNo
	q := src[l.Pos]
	triple := bytes.HasPrefix(src[l.Pos:], []byte{q, q, q})
	open := l.Pos
	end := l.strEnd(l.Pos, q, triple, format, 0)
	if end < 0 {
		l.Misread("a string is not closed", line)
		l.Pos = open + 1
		l.LineNo = line
		l.Add(syntax.Punct, start, line)
		return
	}
	l.Pos = end
	l.LineNo += bytes.Count(src[start:end], []byte{'\n'})
	l.Add(syntax.String, start, line)
}

// strEnd is the index behind the string that opens at i, or -1.
func (l *lexer) strEnd(i int, q byte, triple, format bool, nest int) int {
	src := l.Src
	i = ends(i, triple)
	braces := 0
	for i < len(src) {
		c := src[i]
		shuts := c == q && (!triple || bytes.HasPrefix(src[i:], []byte{q, q, q}))
		switch {
		case c == '\\':
			i++
			if l.at(i) == '\r' && l.at(i+1) == '\n' {
				i++
			}
		case c == '\n' && !triple && braces == 0:
			return -1
		case format && c == '{':
			if braces == 0 && l.at(i+1) == '{' {
				i++
			} else {
				braces++
			}
		case format && c == '}' && braces > 0:
			braces--
		case braces > 0 && syntax.In(c, "\"'") && nest < 8:
			if !shuts || l.closesLater(i, q) {
				// A string of its own within the expression.
				if e := l.strEnd(i, c, bytes.HasPrefix(src[i:], []byte{c, c, c}), false, nest+1); e > 0 {
					i = e
					continue
				}
			}
			if c == q {
				return ends(i, triple)
			}
		case shuts:
			return ends(i, triple)
		}
		i++
	}
	return -1
}

func ends(i int, triple bool) int {
	if triple {
		return i + 3
	}
	return i + 1
}

// closesLater reports whether a "}" follows on the line, as it must when a
// quote inside braces opens a string of its own.
func (l *lexer) closesLater(i int, q byte) bool {
	line, _, _ := bytes.Cut(l.Src[i+1:], []byte{'\n'})
	j := bytes.IndexByte(line, q)
	return j >= 0 && bytes.IndexByte(line[j:], '}') >= 0
}
