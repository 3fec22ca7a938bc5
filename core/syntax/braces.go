package syntax

import "bytes"

// Braces is a lexer for the languages that bracket their code in braces and
// write comments with slashes. What a language does otherwise (raw strings,
// heredocs, preprocessors) it does in Special.
type Braces struct {
	// HashComments makes "#" start a comment as well.
	HashComments bool
	// NestedComments lets a comment in /* */ hold another.
	NestedComments bool
	// Chars says that quotes of one sign ' hold a character, not a string;
	// where none is closed on its line the sign stands alone.
	Chars bool
	// Special is tried first at each place; it reports whether it took
	// something, and has then moved b.Pos and added what it took.
	Special func(b *Builder) bool
}

// MaxRun is the number of lines after which a string that should end sooner is
// taken to be misread.
const MaxRun = 200

// Lex makes the tokens of src.
func (g *Braces) Lex(src []byte) *Stream { return g.LexFrom(src, 1) }

// LexFrom makes the tokens of a part of a text that begins on a line of it.
func (g *Braces) LexFrom(src []byte, line int) *Stream {
	b := NewBuilder(src)
	b.LineNo = line
	n := len(src)
	for b.Pos < n && !b.Full() {
		c := src[b.Pos]
		start, line := b.Pos, b.LineNo
		switch {
		case c == '\n':
			b.LineNo++
			b.Pos++
		case In(c, " \t\r\f"):
			b.Pos++
		case g.Special != nil && g.Special(b):
		case IsIdentStart(c):
			b.Pos++
			for b.Pos < n && IsIdentPart(src[b.Pos]) {
				b.Pos++
			}
			b.Add(Ident, start, line)
		case c >= '0' && c <= '9':
			b.Number()
		case c == '/' && b.Next("//"), c == '#' && g.HashComments:
			b.LineComment()
		case c == '/' && b.Next("/*"):
			b.BlockComment("/*", "*/", g.NestedComments)
		case In(c, "\"`'"):
			if !b.Quoted(c, false) {
				b.Pos = start + 1
				b.LineNo = line
				if c != '\'' || !g.Chars {
					b.Misread("a string is not closed", line)
				}
				b.Add(Punct, start, line)
			}
		default:
			b.Sign()
		}
	}
	return b.Finish()
}

// Next reports whether text stands at the place reached.
func (b *Builder) Next(text string) bool {
	return len(b.Src)-b.Pos >= len(text) && string(b.Src[b.Pos:b.Pos+len(text)]) == text
}

// Sign takes one sign, and opens or closes a bracket with it.
func (b *Builder) Sign() {
	start, line := b.Pos, b.LineNo
	c := b.Src[b.Pos]
	b.Pos++
	b.Add(Punct, start, line)
	switch c {
	case '(', '[', '{':
		b.Open()
	case ')':
		b.Shut('(')
	case ']':
		b.Shut('[')
	case '}':
		b.Shut('{')
	}
}

// Number takes digits with prefixes, exponents and suffixes alike.
func (b *Builder) Number() {
	start, line := b.Pos, b.LineNo
	for src := b.Src; b.Pos < len(src); {
		c := src[b.Pos]
		// A dot belongs to the number where a digit follows: 1..2 is a range
		// and 1.max() a call.
		if IsIdentPart(c) && c != '$' || c == '.' && b.Pos+1 < len(src) && src[b.Pos+1] >= '0' && src[b.Pos+1] <= '9' {
			b.Pos++
			if (In(c, "eE")) && b.Pos < len(src) && (In(src[b.Pos], "+-")) {
				b.Pos++
			}
			continue
		}
		break
	}
	b.Add(Number, start, line)
}

// LineComment takes all up to the end of the line.
func (b *Builder) LineComment() {
	start, line := b.Pos, b.LineNo
	if i := bytes.IndexByte(b.Src[b.Pos:], '\n'); i >= 0 {
		b.Pos += i
	} else {
		b.Pos = len(b.Src)
	}
	b.Add(Comment, start, line)
}

// BlockComment takes a comment between two signs. One that is never closed
// reaches to the end.
func (b *Builder) BlockComment(from, to string, nested bool) {
	start, line := b.Pos, b.LineNo
	b.Pos += len(from)
	end := -1 // where the next closing sign stands: looked for once, however many open before it
	for depth := 1; depth > 0; {
		if end < b.Pos {
			if end = bytes.Index(b.Src[b.Pos:], []byte(to)); end < 0 {
				b.Misread("a comment is not closed", line)
				b.Pos = len(b.Src)
				break
			}
			end += b.Pos
		}
		if nested {
			if in := bytes.Index(b.Src[b.Pos:end], []byte(from)); in >= 0 {
				depth++
				b.Pos += in + len(from)
				continue
			}
		}
		depth--
		b.Pos = end + len(to)
	}
	b.LineNo += bytes.Count(b.Src[start:b.Pos], []byte{'\n'})
	b.Add(Comment, start, line)
}

// Quoted takes a string between two signs q with backslash escapes and adds
// it. Where it is not closed on its line (or, when it may hold several, within
// MaxRun lines) nothing is added and b.Pos stands anywhere.
func (b *Builder) Quoted(q byte, lines bool) (ok bool) {
	start, line := b.Pos, b.LineNo
	if b.Spent() {
		return false
	}
	defer func() {
		if !ok {
			b.Waste(b.Pos - start)
		}
	}()
	for b.Pos++; b.Pos < len(b.Src); b.Pos++ {
		switch c := b.Src[b.Pos]; c {
		case '\\':
			b.Pos++
			if b.Pos < len(b.Src) && b.Src[b.Pos] == '\n' {
				b.LineNo++
			}
		case '\n':
			b.LineNo++
			if !lines || b.LineNo-line > MaxRun {
				b.LineNo = line
				return false
			}
		case q:
			b.Pos++
			b.Add(String, start, line)
			return true
		}
	}
	b.LineNo = line
	return false
}

// Until takes a string that starts with the next open bytes and ends with the
// first close after them, whatever stands between. Where it is never closed
// the opening bytes alone are taken as a sign.
func (b *Builder) Until(open int, closing string) {
	start, line := b.Pos, b.LineNo
	b.Pos += open
	end := b.Find(b.Pos, closing)
	if end < 0 {
		b.Misread("a string is not closed", line)
		b.Add(Punct, start, line)
		return
	}
	b.Pos = end + len(closing)
	b.LineNo += bytes.Count(b.Src[start:b.Pos], []byte{'\n'})
	b.Add(String, start, line)
}

// Interpolated takes a string that ends with the sign q and may hold code
// between open and a closing brace, strings and all. With lines it may run
// over line ends. Where it is not closed it reports false and adds nothing.
func (b *Builder) Interpolated(prefix int, q byte, open string, lines bool) (ok bool) {
	start, line := b.Pos, b.LineNo
	pos, at := b.Pos+prefix+1, line
	src := b.Src
	if b.Spent() {
		return false
	}
	defer func() {
		if !ok {
			b.Waste(pos - start)
		}
	}()
	for pos < len(src) {
		c := src[pos]
		switch {
		case c == '\\':
			pos += 2
		case c == '\n':
			at++
			pos++
			if !lines || at-line > MaxRun {
				return false
			}
		case c == q:
			b.Pos, b.LineNo = pos+1, at
			b.Add(String, start, line)
			return true
		case len(src)-pos > len(open) && string(src[pos:pos+len(open)]) == open:
			end, more, ok := b.hole(pos + len(open))
			if !ok || at+more-line > MaxRun {
				return false
			}
			pos, at = end, at+more
		default:
			pos++
		}
	}
	return false
}

// hole finds the end of code inside a string: the brace that closes it, over
// nested braces and strings. It returns the place behind it and the line ends
// passed.
func (b *Builder) hole(pos int) (end, lines int, ok bool) {
	src := b.Src
	for open := 1; pos < len(src); pos++ {
		switch c := src[pos]; c {
		case '\n':
			lines++
			if lines > MaxRun {
				return 0, 0, false
			}
		case '{':
			open++
		case '}':
			if open--; open == 0 {
				return pos + 1, lines, true
			}
		case '"', '\'', '`':
			// A string inside; one that is not closed is a sign of its own.
			from, k := pos, pos+1
			for ; k < len(src) && src[k] != '\n'; k++ {
				if src[k] == '\\' {
					k++
					continue
				}
				if src[k] == c {
					pos = k
					break
				}
			}
			if pos == from {
				if b.Waste(k - from); b.Spent() {
					return 0, 0, false
				}
			}
		}
	}
	return 0, 0, false
}
