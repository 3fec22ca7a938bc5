// Package javascript reads JavaScript and TypeScript, with JSX in both.
package javascript

import (
	"bytes"

	"jantel/core/syntax"
)

// What the lexer is in the middle of.
type mode uint8

const (
	inCode     mode = iota // between brackets, or at the top
	inTemplate             // the text of a template literal
	inTag                  // between < and > of an element
	inChildren             // between an element's tags
)

type frame struct {
	mode  mode
	tag   int32 // token that opened the element
	start int   // where the template began, for going back
	line  int
	depth int // open brackets when it began
}

type lexer struct {
	*syntax.Builder
	stack []frame
	jsx   bool
	ts    bool
}

// lex makes the tokens of a file. jsx says whether elements are read; ts
// whether <T>x is a type assertion.
func lex(src []byte, jsx, ts bool) *syntax.Stream {
	l := &lexer{Builder: syntax.NewBuilder(src), jsx: jsx, ts: ts}
	if bytes.HasPrefix(src, []byte("#!")) {
		l.toLineEnd()
		l.Add(syntax.Comment, 0, 1)
	}
	for l.Pos < len(src) && !l.Full() {
		switch l.top().mode {
		case inTemplate:
			l.template()
		case inTag:
			l.tag()
		case inChildren:
			l.children()
		default:
			l.code()
		}
	}
	for _, f := range l.stack {
		if f.mode != inCode {
			l.Misread("an element or a template is not closed", f.line)
			break
		}
	}
	return l.Finish()
}

func (l *lexer) top() frame {
	if n := len(l.stack); n > 0 {
		return l.stack[n-1]
	}
	return frame{}
}

func (l *lexer) push(f frame) { l.stack = append(l.stack, f) }
func (l *lexer) pop()         { l.stack = l.stack[:len(l.stack)-1] }

func (l *lexer) toLineEnd() {
	if i := bytes.IndexByte(l.Src[l.Pos:], '\n'); i >= 0 {
		l.Pos += i
	} else {
		l.Pos = len(l.Src)
	}
}

func (l *lexer) peek(n int) byte {
	if l.Pos+n < len(l.Src) {
		return l.Src[l.Pos+n]
	}
	return 0
}

func (l *lexer) punct(n int) {
	start := l.Pos
	l.Pos += n
	l.Add(syntax.Punct, start, l.LineNo)
}

// byFirst reads one token of ordinary code.
var byFirst syntax.ByFirst[*lexer]

func init() {
	byFirst.OnWords((*lexer).word)
	byFirst.On("#", (*lexer).private)
	byFirst.On("\\", (*lexer).escapedWord)
	byFirst.On("\n", func(l *lexer) { l.LineNo++; l.Pos++ })
	byFirst.On(" \t\r", func(l *lexer) { l.Pos++ })
	byFirst.On(syntax.Digits, (*lexer).number)
	byFirst.On(".", (*lexer).dot)
	byFirst.On("\"'", (*lexer).text)
	byFirst.On("`", (*lexer).backtick)
	byFirst.On("/", (*lexer).slash)
	byFirst.On("<", (*lexer).less)
	byFirst.On("([{", (*lexer).opening)
	byFirst.On(")]}", (*lexer).closing)
	byFirst.On("=?+-", (*lexer).operator)
}

func (l *lexer) code() {
	if read := byFirst[l.Src[l.Pos]]; read != nil {
		read(l)
		return
	}
	l.punct(1)
}

func (l *lexer) word() {
	start := l.Pos
	l.Pos++
	for l.Pos < len(l.Src) && (syntax.IsIdentPart(l.Src[l.Pos]) || l.Src[l.Pos] == '\\' && l.peek(1) == 'u') {
		l.Pos++
	}
	l.Add(syntax.Ident, start, l.LineNo)
}

func (l *lexer) private() {
	if syntax.IsIdentStart(l.peek(1)) {
		l.word()
		return
	}
	l.punct(1)
}

func (l *lexer) escapedWord() {
	if l.peek(1) == 'u' {
		l.word()
		return
	}
	l.punct(1)
}

func (l *lexer) dot() {
	switch c := l.peek(1); {
	case isDigit(c):
		l.number()
	case c == '.' && l.peek(2) == '.':
		l.punct(3)
	default:
		l.punct(1)
	}
}

func isDigit(c byte) bool { return c >= '0' && c <= '9' }

func (l *lexer) text() {
	start, line := l.Pos, l.LineNo
	if l.quoted(l.Src[start]) {
		l.Add(syntax.String, start, line)
		return
	}
	l.Misread("a string is not closed", line)
	l.Pos, l.LineNo = start, line
	l.punct(1)
}

func (l *lexer) backtick() {
	l.push(frame{mode: inTemplate, start: l.Pos, line: l.LineNo, depth: l.Depth()})
	l.Pos++
	l.template()
}

// slash tells comments, regular expressions and divisions apart.
func (l *lexer) slash() {
	src, start, line := l.Src, l.Pos, l.LineNo
	switch {
	case l.peek(1) == '/':
		l.toLineEnd()
		l.Add(syntax.Comment, start, line)
	case l.peek(1) == '*':
		if i := bytes.Index(src[start+2:], []byte("*/")); i >= 0 {
			l.Pos += i + 4
		} else {
			l.Misread("a comment is not closed", line)
			l.Pos = len(src)
		}
		l.LineNo += bytes.Count(src[start:l.Pos], []byte{'\n'})
		l.Add(syntax.Comment, start, line)
	case l.operand() && l.regex():
		l.Add(syntax.Regex, start, line)
	default:
		l.punct(1)
	}
}

func (l *lexer) less() {
	if !l.jsx || !l.operand() || !l.element() {
		l.punct(1)
	}
}

func (l *lexer) opening() {
	c, line := l.Src[l.Pos], l.LineNo
	l.punct(1)
	l.Open()
	if c == '{' {
		l.push(frame{mode: inCode, line: line})
	}
}

func (l *lexer) closing() {
	c := l.Src[l.Pos]
	l.punct(1)
	l.Shut(syntax.Opener(c))
	if n := len(l.stack); c == '}' && n > 0 && l.stack[n-1].mode == inCode {
		l.pop()
	}
}

// operator reads "=>", "?.", "++" and "--" as one token, since what follows
// them is read by them; others a byte each.
func (l *lexer) operator() {
	next := l.peek(1)
	switch c := l.Src[l.Pos]; {
	case c == '=' && next == '>', c == '?' && next == '.' && !isDigit(l.peek(2)), syntax.In(c, "+-") && next == c:
		l.punct(2)
	default:
		l.punct(1)
	}
}

func (l *lexer) number() {
	start := l.Pos
	for l.Pos < len(l.Src) {
		c := l.Src[l.Pos]
		if !syntax.IsIdentPart(c) && c != '.' {
			break
		}
		l.Pos++
		if syntax.In(c, "eE") && syntax.In(l.peek(0), "+-") && l.Pos >= 2 && l.Src[l.Pos-2] != 'x' {
			l.Pos++
		}
	}
	l.Add(syntax.Number, start, l.LineNo)
}

func (l *lexer) quoted(q byte) bool {
	for l.Pos++; l.Pos < len(l.Src); l.Pos++ {
		switch l.Src[l.Pos] {
		case '\\':
			l.Pos++
			if l.Pos < len(l.Src) && l.Src[l.Pos] == '\n' {
				l.LineNo++
			} else if l.peek(0) == '\r' && l.peek(1) == '\n' {
				l.Pos++
				l.LineNo++
			}
		case '\n':
			return false
		case q:
			l.Pos++
			return true
		}
	}
	return false
}

// template reads the text of a template literal up to its end or to "${".
func (l *lexer) template() {
	start, line := l.Pos, l.LineNo
	if start > 0 && start == l.top().start+1 {
		start--
	}
	for l.Pos < len(l.Src) {
		switch c := l.Src[l.Pos]; {
		case c == '\\':
			l.Pos++
			if l.Pos < len(l.Src) && l.Src[l.Pos] == '\n' {
				l.LineNo++
			}
		case c == '\n':
			l.LineNo++
		case c == '`':
			l.Pos++
			l.Add(syntax.String, start, line)
			l.pop()
			return
		case c == '$' && l.peek(1) == '{':
			if l.Pos > start {
				l.Add(syntax.String, start, line)
			}
			l.punct(2)
			l.Open()
			l.push(frame{mode: inCode, line: l.LineNo})
			return
		}
		l.Pos++
	}
	// It never ends: the quote was no quote. Go on right behind it.
	f := l.top()
	l.Misread("a template literal is not closed", f.line)
	l.pop()
	if start == f.start {
		l.Pos, l.LineNo = f.start, f.line
		l.punct(1)
		return
	}
	l.Pos = len(l.Src)
}

var beforeOperand = map[string]bool{
	"return": true, "typeof": true, "case": true, "in": true, "of": true, "delete": true, "void": true,
	"throw": true, "new": true, "else": true, "do": true, "instanceof": true, "yield": true, "await": true,
	"default": true, "extends": true,
}

// operand reports whether a value may start here, so that "/" begins a
// regular expression and "<" an element rather than being operators.
func (l *lexer) operand() bool {
	t := l.Last()
	if t == nil {
		return true
	}
	text := l.Src[t.Start:t.End]
	switch t.Kind {
	case syntax.Ident:
		if !beforeOperand[string(text)] {
			return false
		}
		// "x.return / 2": a property is no keyword.
		n := len(l.Tokens)
		return n < 2 || l.Src[l.Tokens[n-2].Start] != '.'
	case syntax.Number, syntax.String, syntax.Regex, syntax.TagEnd:
		return false
	}
	switch text[0] {
	case ')':
		// "if (x) /re/": a value follows the head of a statement.
		if t.Match > 0 {
			p := &l.Tokens[t.Match-1]
			switch string(l.Src[p.Start:p.End]) {
			case "if", "while", "for", "with":
				return true
			}
		}
		return false
	case ']':
		return false
	case '}':
		return l.closesBlock(t)
	case '+', '-':
		return len(text) == 1
	}
	return true
}

// closesBlock reports whether a "}" ends a block (a statement follows) rather
// than an object or an interpolation (an operator follows).
func (l *lexer) closesBlock(t *syntax.Token) bool {
	if t.Match < 0 {
		return true
	}
	if l.Src[l.Tokens[t.Match].Start] == '$' {
		return false
	}
	if t.Match == 0 {
		return true
	}
	p := &l.Tokens[t.Match-1]
	switch p.Kind {
	case syntax.Ident:
		switch string(l.Src[p.Start:p.End]) {
		case "return", "typeof", "case", "in", "of", "void", "throw", "new", "default", "yield", "await":
			return false
		}
		return true
	case syntax.Punct:
		switch l.Src[p.End-1] {
		case ')', ';', '{', '}':
			return true
		case '>':
			return p.End-p.Start == 2
		case ':':
			return false
		}
	}
	return false
}

// regex reads a regular expression, or leaves everything as it was when there
// is none on this line.
func (l *lexer) regex() bool {
	class := false
	for i := l.Pos + 1; i < len(l.Src); i++ {
		switch c := l.Src[i]; {
		case c == '\n':
			return false
		case c == '\\':
			i++
		case c == '[':
			class = true
		case c == ']':
			class = false
		case c == '/' && !class:
			for i++; i < len(l.Src) && syntax.IsIdentPart(l.Src[i]); i++ {
			}
			l.Pos = i
			return true
		}
	}
	return false
}

// element starts an element when "<" is followed by one.
func (l *lexer) element() bool {
	c := l.peek(1)
	if !syntax.IsIdentStart(c) && c != '>' {
		return false
	}
	if l.ts && c != '>' {
		// "<T,>(x)" and "<T extends U>(x)" are generics of an arrow function.
		i := l.Pos + 1
		for i < len(l.Src) && syntax.IsIdentPart(l.Src[i]) {
			i++
		}
		rest := bytes.TrimLeft(l.Src[i:min(i+40, len(l.Src))], " \t\r\n")
		if bytes.HasPrefix(rest, []byte(",")) || bytes.HasPrefix(rest, []byte("extends ")) || bytes.HasPrefix(rest, []byte("= ")) {
			return false
		}
	}
	l.openTag()
	return true
}

func (l *lexer) openTag() {
	start := l.Pos
	l.Pos++
	l.Add(syntax.TagOpen, start, l.LineNo)
	l.push(frame{mode: inTag, tag: int32(len(l.Tokens) - 1), line: l.LineNo})
}

// tag reads one token between "<" and ">".
func (l *lexer) tag() {
	src, start, line := l.Src, l.Pos, l.LineNo
	switch c := src[start]; {
	case c == '\n':
		l.LineNo++
		l.Pos++
	case syntax.In(c, " \t\r"):
		l.Pos++
	case syntax.IsIdentStart(c):
		for l.Pos < len(src) && (syntax.IsIdentPart(src[l.Pos]) || src[l.Pos] == '-') {
			l.Pos++
		}
		l.Add(syntax.Ident, start, line)
	case syntax.In(c, "\"'"):
		end := l.Find(start+1, string(src[start:start+1]))
		if end < 0 {
			l.Misread("a string is not closed", line)
			l.punct(1)
			return
		}
		l.Pos = end + 1
		l.LineNo += bytes.Count(src[start:l.Pos], []byte{'\n'})
		l.Add(syntax.String, start, line)
	case c == '{':
		l.punct(1)
		l.Open()
		l.push(frame{mode: inCode, line: line})
	case c == '/' && l.peek(1) == '>':
		l.Pos += 2
		l.endElement(start)
	case c == '/' && (syntax.In(l.peek(1), "/*")):
		l.code()
	case c == '<' && l.typeArguments():
		l.Add(syntax.Punct, start, line)
	case c == '>':
		f := l.top()
		l.pop()
		l.punct(1)
		l.push(frame{mode: inChildren, tag: f.tag, line: f.line})
	default:
		l.punct(1)
	}
}

// typeArguments steps over "<…>" behind the name of an element.
func (l *lexer) typeArguments() bool {
	depth := 0
	for i := l.Pos; i < len(l.Src) && i < l.Pos+400; i++ {
		switch l.Src[i] {
		case '<':
			depth++
		case '>':
			if depth--; depth == 0 {
				l.Pos = i + 1
				return true
			}
		case '\n', '/', ';':
			return false
		}
	}
	return false
}

// endElement closes the element on top: its first and last tokens match.
func (l *lexer) endElement(start int) {
	f := l.top()
	l.Add(syntax.TagEnd, start, l.LineNo)
	n := int32(len(l.Tokens) - 1)
	l.Tokens[f.tag].Match, l.Tokens[n].Match = n, f.tag
	l.pop()
}

// children reads what stands between the tags of an element.
func (l *lexer) children() {
	src, start, line := l.Src, l.Pos, l.LineNo
	switch c := src[start]; {
	case c == '{':
		l.punct(1)
		l.Open()
		l.push(frame{mode: inCode, line: line})
	case c == '<' && l.peek(1) == '/':
		i := bytes.IndexByte(src[start:], '>')
		if i < 0 {
			l.Misread("a tag is not closed", line)
			l.Pos = len(src)
			return
		}
		l.Pos += i + 1
		l.LineNo += bytes.Count(src[start:l.Pos], []byte{'\n'})
		l.endElement(start)
	case c == '<':
		l.openTag()
	default:
		i := bytes.IndexAny(src[start:], "<{")
		if i < 0 {
			i = len(src) - start
		}
		l.Pos += i
		l.LineNo += bytes.Count(src[start:l.Pos], []byte{'\n'})
		if len(bytes.TrimSpace(src[start:l.Pos])) > 0 {
			l.Add(syntax.Text, start, line)
		}
	}
}
