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
		if l.step() {
			break
		}
	}
	return l.Finish()
}

func (l *lexer) at(i int) byte {
	if i < 0 || i >= len(l.Src) {
		return 0
	}
	return l.Src[i]
}

// step takes one token; it reports whether the code ends here.
func (l *lexer) step() bool {
	c := l.Src[l.Pos]
	start, line := l.Pos, l.LineNo
	switch {
	case c == '\n':
		l.Pos++
		l.LineNo++
		for len(l.waiting) > 0 {
			h := l.waiting[0]
			l.waiting = l.waiting[1:]
			l.heredoc(h)
		}
	case syntax.In(c, " \t\r\f"):
		l.Pos++
	case c == '=' && l.lineStart() && isLetter(l.at(l.Pos+1)):
		l.pod()
	case c == '#':
		l.LineComment()
	case syntax.In(c, "$@%&"):
		l.variable(start, line)
	case isWord(c) && !(c >= '0' && c <= '9'):
		return l.word(start, line)
	case c >= '0' && c <= '9':
		l.Number()
	case syntax.In(c, "\"'`"):
		if !l.quoted(0, c, 1, syntax.String) {
			l.Misread("a string is not closed", line)
			l.Sign()
		}
	case c == '/' && l.wantsValue():
		if !l.quoted(0, '/', 1, syntax.Regex) {
			l.Sign()
		}
	case c == '/' && l.at(l.Pos+1) == '/':
		// "or where undefined": its second sign begins no pattern.
		l.Pos += 2
		l.Add(syntax.Punct, start, line)
	case c == '(':
		l.parameters()
		l.Sign()
	case c == '<' && l.Next("<<") && l.announce():
	case c == '<' && l.wantsValue() && l.glob():
	default:
		l.Sign()
	}
	return false
}

// parameters notes where the parameters of a sub end that open here.
func (l *lexer) parameters() {
	n := len(l.Tokens)
	if !(l.LastIs("sub") || l.LastIs("method") || n > 1 && l.Last().Kind == syntax.Ident && (l.Is(n-2, "sub") || l.Is(n-2, "method") || l.Is(n-2, "fun"))) {
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
			if depth == 1 && l.at(p-1) != '=' && l.at(p-1) != ' ' && l.at(p-1) != '{' {
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
func (l *lexer) variable(start, line int) {
	c := l.Src[l.Pos]
	if (syntax.In(c, "%&")) && !l.wantsValue() {
		l.Sign()
		return
	}
	p := l.Pos + 1
	if c == '$' && l.at(p) == '#' && (syntax.In(l.at(p+1), "{$") || isWord(l.at(p+1))) {
		p++
	}
	for l.at(p) == '$' && (isWord(l.at(p+1)) || syntax.In(l.at(p+1), "${:")) {
		p++
	}
	switch d := l.at(p); {
	case d == '{':
		if e := p + 1; l.at(e) == '^' { // ${^NAME}
			p = e + 1
			for isWord(l.at(p)) {
				p++
			}
			if l.at(p) == '}' {
				p++
			}
			break
		}
		// The braces follow as a group of their own.
	case isWord(d), d == ':' && l.at(p+1) == ':' && isWord(l.at(p+2)), d == '^' && isLetter(l.at(p+1)):
		if d == '^' {
			p++
		}
		for isWord(l.at(p)) || l.at(p) == ':' && l.at(p+1) == ':' && l.at(p+2) != '$' {
			if l.at(p) == ':' {
				p++
			}
			p++
		}
	case l.Pos < l.signature:
		l.Sign()
		return
	case c == '$' && d != 0 && d > ' ' && d < 0x7f:
		p++ // $_ has a name; $!, $/, $( and their like have a sign
	case c == '@' && (syntax.In(d, "-+_")), c == '%' && (syntax.In(d, "+-!^")):
		p++
	default:
		l.Sign()
		return
	}
	l.Pos = p
	l.Add(syntax.Ident, start, line)
}

// quotes are the words that quote what follows, with how many parts they have.
var quotes = map[string]int{"q": 1, "qq": 1, "qw": 1, "qx": 1, "qr": 1, "m": 1, "s": 2, "tr": 2, "y": 2}

// word takes a name, or all that a quoting word quotes.
func (l *lexer) word(start, line int) bool {
	p := l.Pos
	for isWord(l.at(p)) || l.at(p) == ':' && l.at(p+1) == ':' && (isWord(l.at(p+2)) || isWord(l.at(p-1))) {
		if l.at(p) == ':' {
			p++
		}
		p++
	}
	w := string(l.Src[l.Pos:p])
	test := w == "s" && l.LastIs("-") && int(l.Last().End) == l.Pos // the size of a file
	if parts := quotes[w]; parts > 0 && !test && !l.LastIs("->") && !l.LastIs("sub") && !l.afterArrow() {
		q := p
		for syntax.In(l.at(q), " \t") || l.at(q) == '\n' && l.at(q+1) != '=' {
			q++
		}
		d := l.at(q)
		key := l.at(q) == '=' && (syntax.In(l.at(q+1), "> =")) || l.at(q) == ',' && (q > p || !l.wantsValue()) || syntax.In(l.at(q), ";)") ||
			d == '}' && l.LastIs("{")
		if d != 0 && !key && d > ' ' && (!isWord(d) || q > p && d != '_') && !(d == '#' && q > p) && d < 0x7f && !(d == '=' && q > p) {
			kind := syntax.String
			if w == "m" || w == "qr" || w == "s" {
				kind = syntax.Regex
			}
			if isWord(d) {
				kind = syntax.Regex
			}
			if l.quoted(q-l.Pos, d, parts, kind) {
				return false
			}
			l.Misread("a string is not closed", line)
		}
	}
	l.Pos = p
	l.Add(syntax.Ident, start, line)
	if w == "__END__" || w == "__DATA__" {
		if last := len(l.Tokens); last < 2 || l.Line(last-2) < line {
			// What follows is text, but documentation may stand in it.
			s, at := l.Pos, l.LineNo
			l.Pos = len(l.Src)
			l.LineNo += bytes.Count(l.Src[s:], []byte{'\n'})
			l.Add(syntax.Comment, s, at)
			return true
		}
	}
	if w == "format" && l.wantsFormat(p) {
		l.format()
	}
	return false
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
// so many bytes, and the letters behind a pattern.
func (l *lexer) quoted(prefix int, open byte, parts int, kind syntax.Kind) bool {
	start, line := l.Pos, l.LineNo
	if l.Spent() {
		return false
	}
	p := l.Pos + prefix
	lines := bytes.Count(l.Src[start:min(p, len(l.Src))], []byte{'\n'})
	fail := func() bool {
		l.Waste(p - start)
		l.Pos, l.LineNo = start, line
		return false
	}
	for part := 0; part < parts; part++ {
		shut, nests := closing[open]
		if !nests {
			shut = open
		}
		if part == 0 || nests {
			if part > 0 {
				// The second part may stand apart, even on the next line.
				for p < len(l.Src) && (syntax.In(l.at(p), " \t\n")) {
					if l.at(p) == '\n' {
						lines++
					}
					p++
				}
				open = l.at(p)
				if shut, nests = closing[open]; !nests {
					shut = open
				}
			}
			p++
		}
		depth := 1
		for ; ; p++ {
			if p >= len(l.Src) {
				return fail()
			}
			switch c := l.Src[p]; {
			case c == '\\':
				p++
				if l.at(p) == '\n' {
					lines++
				}
			case c == '\n':
				if lines++; lines > syntax.MaxRun {
					return fail()
				}
			case c == shut:
				depth--
			case nests && c == open:
				depth++
			}
			if depth == 0 {
				break
			}
		}
		p++
	}
	if kind == syntax.Regex || parts == 2 {
		for isLetter(l.at(p)) {
			p++
		}
	}
	l.Pos, l.LineNo = p, line+lines
	l.Add(kind, start, line)
	return true
}

// values are the words after which a slash begins a pattern.
var values = syntax.Set("split", "grep", "map", "join", "if", "unless", "and", "or", "not", "return", "push", "unshift", "while", "until", "x", "lt", "gt", "le", "ge", "eq", "ne", "cmp", "xor", "when", "print", "else", "elsif")

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
	indent := false
	if l.at(p) == '~' {
		indent = true
		p++
	}
	q := p
	for l.at(q) == ' ' {
		q++
	}
	var w string
	switch c := l.at(q); {
	case syntax.In(c, "\"'"):
		end := q + 1
		for end < len(l.Src) && l.Src[end] != c && l.Src[end] != '\n' {
			end++
		}
		if l.at(end) != c {
			return false
		}
		w, q = string(l.Src[q+1:end]), end+1
	case q == p && (isLetter(c) || c == '_'):
		end := q
		for isWord(l.at(end)) {
			end++
		}
		w, q = string(l.Src[q:end]), end
	default:
		return false
	}
	start, line := l.Pos, l.LineNo
	l.Pos = q
	l.Add(syntax.String, start, line)
	l.waiting = append(l.waiting, heredoc{w, indent})
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
