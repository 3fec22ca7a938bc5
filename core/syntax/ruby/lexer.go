package ruby

import (
	"bytes"

	"jantel/core/syntax"
)

// lexer makes the tokens of a Ruby file. Line ends that end a statement are
// tokens; a label ("if: 1") and a symbol (":if") are strings, so that no word
// in them is taken for a keyword.
type lexer struct {
	*syntax.Builder
	waiting []heredoc // announced on this line, to be read behind it
}

type heredoc struct {
	word   string
	indent bool
}

func lex(src []byte) *syntax.Stream {
	l := &lexer{Builder: syntax.NewBuilder(src)}
	l.code()
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
	byFirst.On("\n", (*lexer).newline)
	byFirst.On(" \t\r", func(l *lexer) { l.Pos++ })
	byFirst.On("\\", (*lexer).joinedLine)
	byFirst.On("#", func(l *lexer) { l.LineComment() })
	byFirst.On("@$", (*lexer).variable)
	byFirst.On(syntax.Digits, func(l *lexer) { l.Number() })
	byFirst.On("\"`'", (*lexer).text)
	byFirst.On(":", (*lexer).colon)
	byFirst.On("%", orSign((*lexer).percent))
	byFirst.On("/", orSign((*lexer).regex))
	byFirst.On("?", orSign((*lexer).char))
	byFirst.On("<", orSign((*lexer).announce))
}

// orSign reads a sign where something else does not stand.
func orSign(read func(*lexer) bool) func(*lexer) {
	return func(l *lexer) {
		if start, line := l.Pos, l.LineNo; !read(l) {
			l.sign(start, line)
		}
	}
}

// code lexes up to the end of the file.
func (l *lexer) code() {
	l.lineStart()
	for l.Pos < len(l.Src) && !l.Full() {
		if read := byFirst[l.Src[l.Pos]]; read != nil {
			read(l)
			continue
		}
		l.Sign()
	}
}

// joinedLine steps over a line end that is taken back.
func (l *lexer) joinedLine() {
	p := l.Pos + 1
	if l.at(p) == '\r' {
		p++
	}
	if l.at(p) != '\n' {
		l.Sign()
		return
	}
	l.Pos = p + 1
	l.LineNo++
}

func (l *lexer) text() {
	c, start, line := l.Src[l.Pos], l.Pos, l.LineNo
	if c == '`' && l.isMethodName() || !l.delimited(1, c, c, c != '\'') {
		l.sign(start, line)
		return
	}
	// "key": value
	if l.at(l.Pos) == ':' && l.at(l.Pos+1) != ':' && c != '`' {
		l.Pos++
		l.Last().End++
	}
}

// isMethodName reports whether a sign is one here: "def /" or "a./".
func (l *lexer) isMethodName() bool { return l.LastIs("def") || l.LastIs(".") }

func (l *lexer) sign(start, line int) {
	l.Pos, l.LineNo = start, line
	l.Sign()
}

// newline ends the statement unless the line plainly goes on, then reads the
// heredocs that were announced on it.
func (l *lexer) newline() {
	start, line := l.Pos, l.LineNo
	l.Pos++
	l.LineNo++
	if t := l.Last(); t != nil && t.Kind != syntax.Newline && !l.goesOn() {
		l.Add(syntax.Newline, start, line)
		l.Last().EndLine = int32(line)
	}
	for len(l.waiting) > 0 {
		h := l.waiting[0]
		l.waiting = l.waiting[1:]
		l.body(h)
	}
	l.lineStart()
}

// lineStart takes what only counts at the start of a line: a comment between
// =begin and =end, and the mark behind which no code stands.
func (l *lexer) lineStart() {
	if l.Next("=begin") && (l.Pos+6 == len(l.Src) || l.at(l.Pos+6) <= ' ') {
		s, n := l.Pos, l.LineNo
		end := bytes.Index(l.Src[l.Pos:], []byte("\n=end"))
		if end < 0 {
			l.Misread("a comment is not closed", n)
			l.Pos = len(l.Src)
		} else {
			l.Pos += end + 5
			for l.Pos < len(l.Src) && l.Src[l.Pos] != '\n' {
				l.Pos++
			}
		}
		l.LineNo += bytes.Count(l.Src[s:l.Pos], []byte{'\n'})
		l.Add(syntax.Comment, s, n)
	}
	if l.Next("__END__") && (l.Pos+7 == len(l.Src) || syntax.In(l.at(l.Pos+7), "\n\r")) {
		s, n := l.Pos, l.LineNo
		l.LineNo += bytes.Count(l.Src[s:], []byte{'\n'})
		l.Pos = len(l.Src)
		l.Add(syntax.Comment, s, n)
	}
}

// goesOn reports whether the line that just ended is continued: it ends with
// an operator, or the next one starts with a dot.
func (l *lexer) goesOn() bool {
	t := l.Last()
	if t.Kind == syntax.Punct {
		switch l.Src[t.Start] {
		case ',', '.', '=', '+', '-', '*', '/', '&', '|', '<', '^', '%', '(', '[', '!':
			// "|" closes the parameters of a block as well.
			return l.Src[t.Start] != '|' || len(l.Tokens) < 2
		}
	}
	for p := l.Pos; p < len(l.Src); p++ {
		switch c := l.Src[p]; {
		case syntax.In(c, " \t\r"):
		case c == '\n':
			return false
		case c == '#':
			for p < len(l.Src) && l.Src[p] != '\n' {
				p++
			}
		case c == '.':
			return l.at(p+1) != '.'
		case c == '&':
			return l.at(p+1) == '.'
		default:
			return false
		}
	}
	return false
}

func (l *lexer) word() {
	start, line := l.Pos, l.LineNo
	for l.Pos < len(l.Src) && syntax.IsIdentPart(l.Src[l.Pos]) && l.Src[l.Pos] != '$' {
		l.Pos++
	}
	if c := l.at(l.Pos); (syntax.In(c, "?!")) && l.at(l.Pos+1) != '=' {
		l.Pos++
	} else if (syntax.In(c, "?!")) && l.at(l.Pos+1) == '=' && (syntax.In(l.at(l.Pos+2), "=~")) {
		l.Pos++
	}
	// A label: a word right before a single colon that a value or a blank follows.
	if l.at(l.Pos) == ':' && l.at(l.Pos+1) != ':' && !l.ternary() && !l.LastIs(".") {
		l.Pos++
		l.Add(syntax.String, start, line)
		return
	}
	l.Add(syntax.Ident, start, line)
}

// ternary reports whether an open "?" on this line makes the colon ahead its
// other half.
func (l *lexer) ternary() bool {
	for i := len(l.Tokens) - 1; i >= 0 && i > len(l.Tokens)-60; i-- {
		t := &l.Tokens[i]
		if t.Kind == syntax.Newline {
			return false
		}
		if t.Kind == syntax.Punct {
			switch l.Src[t.Start] {
			case '?':
				return true
			case ':', '(', ',', '{':
				return false
			}
		}
	}
	return false
}

func (l *lexer) variable() {
	start, line := l.Pos, l.LineNo
	l.Pos++
	if l.at(l.Pos) == '@' {
		l.Pos++
	}
	if c := l.at(l.Pos); syntax.IsIdentStart(c) && c != '$' || c >= '0' && c <= '9' {
		for l.Pos < len(l.Src) && syntax.IsIdentPart(l.Src[l.Pos]) {
			l.Pos++
		}
	} else if l.Src[start] == '$' && l.Pos < len(l.Src) && l.Src[l.Pos] > ' ' {
		l.Pos++ // $!, $/ and their like
	}
	l.Add(syntax.Ident, start, line)
}

// colon takes "::", a symbol, or the sign alone.
func (l *lexer) colon() {
	start, line := l.Pos, l.LineNo
	next := l.at(l.Pos + 1)
	switch {
	case next == ':':
		l.Pos++
		l.Add(syntax.Punct, start, line)
		l.Pos++
		l.Last().End++
		return
	case syntax.In(next, "\"'"):
		if l.delimited(2, next, next, next == '"') {
			return
		}
	case syntax.IsIdentStart(next):
		l.Pos++
		for l.Pos < len(l.Src) && syntax.IsIdentPart(l.Src[l.Pos]) {
			l.Pos++
		}
		if syntax.In(l.at(l.Pos), "?!=") && !syntax.In(l.at(l.Pos+1), "=>~") {
			l.Pos++
		}
		l.Add(syntax.String, start, line)
		return
	case next == '[' && l.at(l.Pos+2) == ']', syntax.In(next, "<>=+-*/!%&|^~"):
		if !l.wantsValue() {
			break
		}
		for l.Pos += 2; syntax.In(l.at(l.Pos), "]=<>*~@"); {
			l.Pos++
		}
		l.Add(syntax.String, start, line)
		return
	}
	l.sign(start, line)
}

var closers = map[byte]byte{'(': ')', '[': ']', '{': '}', '<': '>'}

// percent takes %w[…], %q(…), %r{…}, %(…) and their like.
func (l *lexer) percent() bool {
	if l.isMethodName() {
		return false
	}
	p := l.Pos + 1
	kind := l.at(p)
	if syntax.In(kind, "wWiIqQrxs") {
		p++
	} else {
		kind = 0
	}
	open := l.at(p)
	if open <= ' ' || open >= 0x80 || open == '=' && kind == 0 || syntax.IsIdentPart(open) {
		return false
	}
	shut, nests := closers[open]
	if !nests {
		shut = open
	}
	// After a value it is a remainder, but "puts %w[a]" is not.
	if !l.wantsValue() && (kind == 0 || !nests || !l.spaced()) {
		return false
	}
	if !l.delimited(p+1-l.Pos, open, shut, !syntax.In(kind, "qwis")) {
		return false
	}
	if kind == 'r' {
		l.flags()
	}
	return true
}

// spaced reports whether a blank stands before the sign and none behind.
func (l *lexer) spaced() bool {
	return l.Pos > 0 && (syntax.In(l.Src[l.Pos-1], " \t")) && l.at(l.Pos+1) != ' ' && l.at(l.Pos+1) != '='
}

var openWords = map[string]bool{
	"if": true, "unless": true, "while": true, "until": true, "and": true, "or": true, "not": true, "return": true,
	"when": true, "in": true, "then": true, "else": true, "elsif": true, "do": true, "case": true, "puts": true,
	"yield": true, "split": true, "gsub": true, "sub": true, "match": true, "scan": true, "assert_match": true,
	"raise": true, "begin": true, "rescue": true, "next": true, "break": true,
}

// wantsValue reports whether a value is due: what looks like an operator is
// then the start of a literal.
func (l *lexer) wantsValue() bool {
	t := l.Last()
	if t == nil {
		return true
	}
	switch t.Kind {
	case syntax.Newline:
		return true
	case syntax.Number, syntax.Regex:
		return false
	case syntax.String:
		// Behind a label a value follows; behind a string none.
		return l.Src[t.End-1] == ':'
	case syntax.Ident:
		w := string(l.Src[t.Start:t.End])
		if n := len(l.Tokens); openWords[w] && !(n > 1 && l.Is(n-2, ".")) {
			return true
		}
		// "name /x/" with a blank before and none behind is an argument.
		name := !syntax.In(w[0], "@$") && !(w[0] >= 'A' && w[0] <= 'Z') && w != "end" && w != "self"
		return name && l.spaced()
	}
	return !syntax.In(l.Src[t.Start], ")]}")
}

func (l *lexer) regex() bool {
	if !l.wantsValue() || l.isMethodName() || !l.delimited(1, '/', '/', true) {
		return false
	}
	l.flags()
	return true
}

func (l *lexer) flags() {
	for l.Pos < len(l.Src) && l.Src[l.Pos] >= 'a' && l.Src[l.Pos] <= 'z' {
		l.Pos++
	}
	l.Last().End = int32(l.Pos)
	l.Last().Kind = syntax.Regex
}

// char takes ?a where a value is due.
func (l *lexer) char() bool {
	next := l.at(l.Pos + 1)
	if !l.wantsValue() || next <= ' ' || syntax.IsIdentPart(next) && syntax.IsIdentPart(l.at(l.Pos+2)) && next < 0x80 {
		return false
	}
	start, line := l.Pos, l.LineNo
	l.Pos += 2
	if next == '\\' {
		l.Pos++
	}
	for l.at(l.Pos) >= 0x80 {
		l.Pos++
	}
	l.Pos = min(l.Pos, len(l.Src))
	l.Add(syntax.String, start, line)
	return true
}

// delimited takes a literal whose opening is skip bytes long and ends with
// shut; brackets of its own kind nest, and code in #{…} is stepped over.
func (l *lexer) delimited(skip int, open, shut byte, code bool) bool {
	start, line := l.Pos, l.LineNo
	if l.Spent() {
		return false
	}
	pos, at, depth := l.Pos+skip, l.LineNo, 1
	for pos < len(l.Src) {
		c := l.Src[pos]
		switch {
		case c == '\\':
			if l.at(pos+1) == '\n' {
				at++
			}
			pos += 2
			continue
		case c == '\n':
			at++
			if at-line > 5*syntax.MaxRun {
				l.Misread("a string is not closed", line)
				l.Waste(pos - start)
				return false
			}
		case code && c == '#' && l.at(pos+1) == '{':
			end, lines, ok := l.hole(pos+2, 0)
			if ok {
				pos, at = end, at+lines
				continue
			}
		case c == shut:
			depth--
			if depth == 0 {
				l.Pos, l.LineNo = pos+1, at
				l.Add(syntax.String, start, line)
				return true
			}
		case c == open:
			depth++
		}
		pos++
	}
	l.Misread("a string is not closed", line)
	l.Waste(pos - start)
	return false
}

// hole finds the brace that closes code in a string.
func (l *lexer) hole(pos, depth int) (end, lines int, ok bool) {
	if depth > 30 || l.Spent() {
		return 0, 0, false
	}
	start := pos
	defer func() {
		// What stands inside another is looked at again by whoever finds that
		// it leads nowhere: that adds up without end in a text made for it.
		if !ok || depth > 0 {
			l.Waste(pos - start)
		}
	}()
	for open := 1; pos < len(l.Src); pos++ {
		switch c := l.Src[pos]; c {
		case '\\':
			pos++
		case '\n':
			if lines++; lines > syntax.MaxRun {
				return 0, 0, false
			}
		case '{':
			open++
		case '}':
			if open--; open == 0 {
				return pos + 1, lines, true
			}
		case '"', '\'', '`':
			if shut := l.inHole(pos, depth); shut > 0 {
				pos = shut
			} else if l.Spent() {
				return 0, 0, false
			}
		}
	}
	return 0, 0, false
}

// inHole is where a string within such code ends, 0 where it is not closed on
// its line.
func (l *lexer) inHole(from, depth int) int {
	c, k := l.Src[from], from+1
	for ; k < len(l.Src) && l.Src[k] != '\n'; k++ {
		switch {
		case l.Src[k] == '\\':
			k++
		case c != '\'' && l.Src[k] == '#' && l.at(k+1) == '{':
			if e, n, in := l.hole(k+2, depth+1); in && n == 0 {
				k = e - 1
			}
		case l.Src[k] == c:
			return k
		}
	}
	l.Waste(k - from)
	return 0
}

// announce notes a heredoc; its text follows behind the line.
func (l *lexer) announce() bool {
	if !l.Next("<<") {
		return false
	}
	p := l.Pos + 2
	h := heredoc{indent: syntax.In(l.at(p), "-~")}
	if h.indent {
		p++
	}
	if quote := l.at(p); syntax.In(quote, "\"'`") {
		end := bytes.IndexAny(l.Src[p+1:], "\n"+string(rune(quote)))
		if end < 0 || l.Src[p+1+end] == '\n' {
			return false
		}
		h.word = string(l.Src[p+1 : p+1+end])
		p += end + 2
	} else {
		w := p
		for p < len(l.Src) && syntax.IsIdentPart(l.Src[p]) && l.Src[p] != '$' {
			p++
		}
		if h.word = string(l.Src[w:p]); !l.isHeredoc(h) {
			return false
		}
	}
	if h.word == "" || l.LastIs("class") || l.Spent() {
		return false
	}
	start := l.Pos
	l.Pos = p
	l.Add(syntax.String, start, l.LineNo)
	l.waiting = append(l.waiting, h)
	return true
}

// isHeredoc tells a heredoc without quotes from a shift, which "a <<B" is as
// often as not: by a capital word or a sign before it, where a value is due.
func (l *lexer) isHeredoc(h heredoc) bool {
	if h.word == "" || h.word[0] >= '0' && h.word[0] <= '9' {
		return false
	}
	capital := h.word[0] >= 'A' && h.word[0] <= 'Z'
	return (h.indent || capital) && (l.wantsValue() || l.spacedShift())
}

// spacedShift reports whether "<<" stands as an argument would: a blank or an
// opening sign before it.
func (l *lexer) spacedShift() bool {
	c := l.at(l.Pos - 1)
	return syntax.In(c, " (,=[")
}

// body reads the text of a heredoc up to its word alone on a line.
func (l *lexer) body(h heredoc) {
	start, line := l.Pos, l.LineNo
	for l.Pos < len(l.Src) {
		end := bytes.IndexByte(l.Src[l.Pos:], '\n')
		text := l.Src[l.Pos:]
		if end >= 0 {
			text = text[:end]
		}
		t := bytes.TrimRight(text, "\r")
		if h.indent {
			t = bytes.TrimLeft(t, " \t")
		}
		if string(t) == h.word {
			l.Pos += len(text)
			l.Add(syntax.Text, start, line)
			if end >= 0 {
				l.Pos++
				l.LineNo++
			}
			return
		}
		if end < 0 {
			break
		}
		l.Pos += end + 1
		l.LineNo++
	}
	// Never closed: it was a shift. Read on behind its line.
	l.Waste(l.Pos - start)
	l.Misread("a heredoc is not closed", line)
	l.Pos, l.LineNo = start, line
}
