package perl

import (
	"bytes"
	"strings"

	"jantel/core/syntax"
)

// lexer makes the tokens of a Perl file. Variables are one token with their
// sign; what is quoted in any of the language's ways is a string, and a
// pattern a regular expression.
type lexer struct {
	*syntax.Builder
	waiting []heredoc // announced on this line, to be read behind it
	// signature is the end of the parameters being read: in them a sign that
	// stands for a value without a name is no variable named by what follows.
	signature int
}

type heredoc struct {
	word   string
	indent bool
}

func lex(src []byte) *syntax.Stream {
	l := &lexer{Builder: syntax.NewBuilder(src)}
	for l.Pos < len(src) && !l.Full() {
		l.step()
	}
	return l.Finish()
}

func (l *lexer) at(i int) byte {
	if i < 0 || i >= len(l.Src) {
		return 0
	}
	return l.Src[i]
}

// byFirst takes one token, by the first byte of what comes.
var byFirst syntax.ByFirst[*lexer]

func init() {
	byFirst.OnWords((*lexer).word)
	byFirst.On(" \t\r\f", func(l *lexer) { l.Pos++ })
	byFirst.On("\n", (*lexer).newline)
	byFirst.On("=", (*lexer).equals)
	byFirst.On("#", func(l *lexer) { l.LineComment() })
	byFirst.On("$@%&", (*lexer).variable)
	byFirst.On(syntax.Digits, func(l *lexer) { l.Number() })
	byFirst.On("\"'`", (*lexer).text)
	byFirst.On("/", (*lexer).slash)
	byFirst.On("(", func(l *lexer) { l.parameters(); l.Sign() })
	byFirst.On("<", (*lexer).less)
}

func (l *lexer) step() {
	if read := byFirst[l.Src[l.Pos]]; read != nil {
		read(l)
		return
	}
	l.Sign()
}

func (l *lexer) newline() {
	l.Pos++
	l.LineNo++
	for len(l.waiting) > 0 {
		h := l.waiting[0]
		l.waiting = l.waiting[1:]
		l.heredoc(h)
	}
}

func (l *lexer) equals() {
	if l.lineStart() && isLetter(l.at(l.Pos+1)) {
		l.pod()
		return
	}
	l.Sign()
}

func (l *lexer) text() {
	if !l.quoted(0, l.Src[l.Pos], 1, syntax.String) {
		l.Misread("a string is not closed", l.LineNo)
		l.Sign()
	}
}

func (l *lexer) slash() {
	switch {
	case l.wantsValue():
		if !l.quoted(0, '/', 1, syntax.Regex) {
			l.Sign()
		}
	case l.at(l.Pos+1) == '/':
		// "or where undefined": its second sign begins no pattern.
		start := l.Pos
		l.Pos += 2
		l.Add(syntax.Punct, start, l.LineNo)
	default:
		l.Sign()
	}
}

func (l *lexer) less() {
	if l.Next("<<") && l.announce() || l.wantsValue() && l.glob() {
		return
	}
	l.Sign()
}

// parameters notes where the parameters of a sub end that open here.
func (l *lexer) parameters() {
	n := len(l.Tokens)
	named := n > 1 && l.Last().Kind == syntax.Ident && l.Any(n-2, "sub", "method", "fun")
	if !named && !l.LastIs("sub") && !l.LastIs("method") {
		return
	}
	depth := 0
	for p := l.Pos; p < len(l.Src) && p < l.Pos+2000; p++ {
		switch l.Src[p] {
		case '(':
			depth++
		case ')':
			if depth--; depth == 0 {
				l.signature = p
				return
			}
		case '{', '}':
			if depth == 1 && !syntax.In(l.at(p-1), "= {") {
				return
			}
		}
	}
}

func isLetter(c byte) bool { return c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' }
func isWord(c byte) bool   { return syntax.IsIdentPart(c) && c != '$' }

func (l *lexer) lineStart() bool { return l.Pos == 0 || l.Src[l.Pos-1] == '\n' }

// pod takes documentation up to its "=cut".
func (l *lexer) pod() {
	start, line := l.Pos, l.LineNo
	rest := l.Src[l.Pos:]
	if i := bytes.Index(rest, []byte("\n=cut")); i >= 0 && !bytes.HasPrefix(rest, []byte("=cut")) {
		l.Pos += i + 5
		if j := bytes.IndexByte(l.Src[l.Pos:], '\n'); j >= 0 {
			l.Pos += j
		} else {
			l.Pos = len(l.Src)
		}
	} else if bytes.HasPrefix(rest, []byte("=cut")) {
		l.Pos += 4
	} else {
		l.Pos = len(l.Src)
	}
	l.LineNo += bytes.Count(l.Src[start:l.Pos], []byte{'\n'})
	l.Add(syntax.Comment, start, line)
}

// variable takes a name with its sign: $x, @{…}, $#x, %$x, $$, $A::b.
func (l *lexer) variable() {
	start := l.Pos
	c := l.Src[start]
	if syntax.In(c, "%&") && !l.wantsValue() {
		l.Sign()
		return
	}
	p := start + 1
	if c == '$' && l.at(p) == '#' && (syntax.In(l.at(p+1), "{$") || isWord(l.at(p+1))) {
		p++
	}
	for l.at(p) == '$' && (isWord(l.at(p+1)) || syntax.In(l.at(p+1), "${:")) {
		p++
	}
	if p = l.variableEnd(c, p); p < 0 {
		l.Sign()
		return
	}
	l.Pos = p
	l.Add(syntax.Ident, start, l.LineNo)
}

// variableEnd is where the name at p ends, or the sign that stands for one; -1
// where there is neither. Braces behind it follow as a group of their own.
func (l *lexer) variableEnd(sign byte, p int) int {
	switch d := l.at(p); {
	case d == '{':
		if l.at(p+1) != '^' {
			return p
		}
		for p += 2; isWord(l.at(p)); p++ { // ${^NAME}
		}
		if l.at(p) == '}' {
			p++
		}
		return p
	case d == '^' && isLetter(l.at(p+1)):
		return l.nameEnd(p + 1)
	case isWord(d), d == ':' && l.at(p+1) == ':' && isWord(l.at(p+2)):
		return l.nameEnd(p)
	case l.Pos < l.signature:
		return -1
	case sign == '$' && d > ' ' && d < 0x7f, sign == '@' && syntax.In(d, "-+_"), sign == '%' && syntax.In(d, "+-!^"):
		return p + 1 // $_ has a name; $!, $/, $( and their like have a sign
	}
	return -1
}

// nameEnd is where a name with its packages ends.
func (l *lexer) nameEnd(p int) int {
	for {
		switch {
		case isWord(l.at(p)):
			p++
		case l.at(p) == ':' && l.at(p+1) == ':' && l.at(p+2) != '$':
			p += 2
		default:
			return p
		}
	}
}

// quotes are the words that quote what follows, with how many parts they have.
var quotes = map[string]int{"q": 1, "qq": 1, "qw": 1, "qx": 1, "qr": 1, "m": 1, "s": 2, "tr": 2, "y": 2}

// word takes a name, or all that a quoting word quotes.
func (l *lexer) word() {
	start, line := l.Pos, l.LineNo
	p := start
	for {
		if l.at(p) == ':' && l.at(p+1) == ':' && (isWord(l.at(p+2)) || isWord(l.at(p-1))) {
			p += 2
		} else if isWord(l.at(p)) {
			p++
		} else {
			break
		}
	}
	w := string(l.Src[start:p])
	if l.quotes(w, p) {
		return
	}
	l.Pos = p
	l.Add(syntax.Ident, start, line)
	switch w {
	case "__END__", "__DATA__":
		if last := len(l.Tokens); last < 2 || l.Line(last-2) < line {
			// What follows is text, but documentation may stand in it.
			at := l.Pos
			l.Pos = len(l.Src)
			l.LineNo += bytes.Count(l.Src[at:], []byte{'\n'})
			l.Add(syntax.Comment, at, line)
		}
	case "format":
		if l.wantsFormat(p) {
			l.format()
		}
	}
}

// quotes takes all that the word before p quotes, when it is a quoting word and
// stands as one: not as the name of a method or a sub, nor as a key.
func (l *lexer) quotes(w string, p int) bool {
	parts := quotes[w]
	if parts == 0 || l.LastIs("->") || l.LastIs("sub") || l.afterArrow() {
		return false
	}
	if w == "s" && l.LastIs("-") && int(l.Last().End) == l.Pos {
		return false // the size of a file
	}
	q := p
	for syntax.In(l.at(q), " \t") || l.at(q) == '\n' && l.at(q+1) != '=' {
		q++
	}
	d := l.at(q)
	if !l.delimits(d, q, p) {
		return false
	}
	kind := syntax.String
	if w == "m" || w == "qr" || w == "s" || isWord(d) {
		kind = syntax.Regex
	}
	if l.quoted(q-l.Pos, d, parts, kind) {
		return true
	}
	l.Misread("a string is not closed", l.LineNo)
	return false
}

// delimits reports whether the sign at q, behind a quoting word that ends at p,
// opens what it quotes.
func (l *lexer) delimits(d byte, q, p int) bool {
	apart := q > p
	switch {
	case d <= ' ', d >= 0x7f, syntax.In(d, ";)"):
		return false
	case d == '=':
		return !apart && !syntax.In(l.at(q+1), "> =")
	case d == ',':
		return !apart && l.wantsValue()
	case d == '}':
		return !l.LastIs("{")
	case d == '#':
		return !apart
	case isWord(d):
		return apart && d != '_'
	}
	return true
}

func (l *lexer) afterArrow() bool {
	n := len(l.Tokens)
	return n > 1 && l.Is(n-1, ">") && l.Is(n-2, "-") && l.Tokens[n-2].End == l.Tokens[n-1].Start
}

// wantsFormat reports whether "format NAME =" ends the line reached.
func (l *lexer) wantsFormat(p int) bool {
	rest := l.Src[p:]
	if i := bytes.IndexByte(rest, '\n'); i >= 0 {
		rest = rest[:i]
	}
	t := strings.TrimSpace(string(rest))
	return strings.HasSuffix(t, "=") && !strings.ContainsAny(t, "$@%(){}[]<>,;") && len(t) < 60
}

// format takes the lines of a format up to its single dot.
func (l *lexer) format() {
	i := bytes.IndexByte(l.Src[l.Pos:], '\n')
	if i < 0 {
		return
	}
	end := l.Find(l.Pos+i, "\n.\n")
	if end < 0 {
		return
	}
	start, line := l.Pos, l.LineNo
	l.Pos = end + 2
	l.LineNo += bytes.Count(l.Src[start:l.Pos], []byte{'\n'})
	l.Add(syntax.String, start, line)
}

var closing = map[byte]byte{'(': ')', '[': ']', '{': '}', '<': '>'}

// quoted takes one or two parts between signs, of which the first opens after
// so many bytes, and the letters behind a pattern. Where the two parts share a
// sign that does not nest, the one that ends the first opens the second;
// otherwise the second has signs of its own and may stand apart.
func (l *lexer) quoted(prefix int, open byte, parts int, kind syntax.Kind) bool {
	start, line := l.Pos, l.LineNo
	if l.Spent() {
		return false
	}
	p := start + prefix
	ok := true
	for part := 0; part < parts && ok; part++ {
		_, nests := closing[open]
		switch {
		case part == 0:
			p++
		case nests:
			for p < len(l.Src) && syntax.In(l.Src[p], " \t\n") {
				p++
			}
			open = l.at(p)
			p++
		}
		p, ok = l.partEnd(p, open)
	}
	if !ok || bytes.Count(l.Src[start:min(p, len(l.Src))], []byte{'\n'}) > syntax.MaxRun {
		l.Waste(p - start)
		return false
	}
	if kind == syntax.Regex || parts == 2 {
		for isLetter(l.at(p)) {
			p++
		}
	}
	l.Pos, l.LineNo = p, line+bytes.Count(l.Src[start:p], []byte{'\n'})
	l.Add(kind, start, line)
	return true
}

// partEnd is behind the sign that ends the part opened before p; false where
// the text ends first, or goes on for more lines than one honest string does.
func (l *lexer) partEnd(p int, open byte) (int, bool) {
	shut, nests := closing[open]
	if !nests {
		shut = open
	}
	depth, lines := 1, 0
	for ; p < len(l.Src); p++ {
		switch c := l.Src[p]; {
		case c == '\\':
			p++
		case c == '\n':
			if lines++; lines > syntax.MaxRun {
				return p, false
			}
		case c == shut:
			if depth--; depth == 0 {
				return p + 1, true
			}
		case nests && c == open:
			depth++
		}
	}
	return p, false
}

// values are the words after which a slash begins a pattern.
var values = syntax.Set(
	"split", "grep", "map", "join", "if", "unless", "and", "or", "not", "return", "push", "unshift", "while",
	"until", "x", "lt", "gt", "le", "ge", "eq", "ne", "cmp", "xor", "when", "print", "else", "elsif",
)

// wantsValue reports whether a value may begin here, and not an operator.
func (l *lexer) wantsValue() bool {
	t := l.Last()
	if t == nil {
		return true
	}
	c := l.Src[t.Start]
	switch t.Kind {
	case syntax.Ident:
		return values[string(l.Src[t.Start:t.End])]
	case syntax.Number, syntax.String, syntax.Regex:
		return false
	}
	return c != ')' && c != ']' && c != '}'
}

// announce notes a heredoc, whose text follows behind the line.
func (l *lexer) announce() bool {
	p := l.Pos + 2
	h := heredoc{indent: l.at(p) == '~'}
	if h.indent {
		p++
	}
	q := p
	for l.at(q) == ' ' {
		q++
	}
	switch c := l.at(q); {
	case syntax.In(c, "\"'"):
		end := q + 1
		for end < len(l.Src) && l.Src[end] != c && l.Src[end] != '\n' {
			end++
		}
		if l.at(end) != c {
			return false
		}
		h.word, q = string(l.Src[q+1:end]), end+1
	case q == p && (isLetter(c) || c == '_'):
		end := q
		for isWord(l.at(end)) {
			end++
		}
		h.word, q = string(l.Src[q:end]), end
	default:
		return false
	}
	start := l.Pos
	l.Pos = q
	l.Add(syntax.String, start, l.LineNo)
	l.waiting = append(l.waiting, h)
	return true
}

// heredoc takes the lines up to the word alone.
func (l *lexer) heredoc(h heredoc) {
	start, line := l.Pos, l.LineNo
	if l.Spent() {
		return
	}
	at := l.LineNo
	for p := l.Pos; p < len(l.Src); {
		end := len(l.Src)
		if i := bytes.IndexByte(l.Src[p:], '\n'); i >= 0 {
			end = p + i
		}
		text := strings.TrimSuffix(string(l.Src[p:end]), "\r")
		if h.indent {
			text = strings.TrimLeft(text, " \t")
		}
		at++
		if text == h.word {
			l.Pos = min(end+1, len(l.Src))
			l.LineNo = line + bytes.Count(l.Src[start:l.Pos], []byte{'\n'})
			l.Add(syntax.String, start, line)
			l.Last().EndLine = int32(max(line, l.LineNo-1))
			return
		}
		p = end + 1
	}
	l.Misread("a heredoc is not closed", line)
	l.Waste(len(l.Src) - start)
}

// glob takes <$file>, <STDIN> and <*.txt>.
func (l *lexer) glob() bool {
	for p := l.Pos + 1; p < len(l.Src) && p < l.Pos+80; p++ {
		switch c := l.Src[p]; {
		case c == '>':
			if p == l.Pos+1 {
				return false
			}
			start, line := l.Pos, l.LineNo
			l.Pos = p + 1
			l.Add(syntax.String, start, line)
			return true
		case c == '\n', c == ' ', c == ';', c == '=':
			return false
		}
	}
	return false
}
