package csharp

import (
	"bytes"

	"jantel/core/syntax"
)

var grammar = &syntax.Braces{Special: special}

// special takes what other languages of the family do not have: directives of
// the preprocessor and the many forms of strings.
func special(b *syntax.Builder) bool {
	switch b.Src[b.Pos] {
	case '#':
		return directive(b)
	case '"':
		if b.Next(`"""`) {
			raw(b, 0)
			return true
		}
	case '@':
		if b.Next(`@"`) {
			return verbatim(b, 2)
		}
		if b.Next(`@$"`) {
			return verbatim(b, 3)
		}
		if b.Pos+1 < len(b.Src) && syntax.IsIdentStart(b.Src[b.Pos+1]) {
			// A name that would be a word of the language without its mark.
			start, line := b.Pos+1, b.LineNo
			for b.Pos++; b.Pos < len(b.Src) && syntax.IsIdentPart(b.Src[b.Pos]); {
				b.Pos++
			}
			b.Add(syntax.Ident, start, line)
			return true
		}
	case '$':
		n := 0
		for b.Pos+n < len(b.Src) && b.Src[b.Pos+n] == '$' {
			n++
		}
		rest := b.Src[b.Pos+n:]
		switch {
		case bytes.HasPrefix(rest, []byte(`"""`)):
			raw(b, n)
			return true
		case n == 1 && bytes.HasPrefix(rest, []byte(`@"`)):
			return verbatim(b, 3)
		case n == 1 && len(rest) > 0 && rest[0] == '"':
			return interpolated(b)
		}
	}
	return false
}

// directive takes a line that starts with "#". Of branches the first is read:
// what stands between an #else or #elif and its #endif is a comment.
func directive(b *syntax.Builder) bool {
	for p := b.Pos - 1; p >= 0 && b.Src[p] != '\n'; p-- {
		if b.Src[p] != ' ' && b.Src[p] != '\t' && b.Src[p] != '\r' {
			return false
		}
	}
	word := func(at int) string {
		at++
		for at < len(b.Src) && (syntax.In(b.Src[at], " \t")) {
			at++
		}
		end := at
		for end < len(b.Src) && b.Src[end] >= 'a' && b.Src[end] <= 'z' {
			end++
		}
		return string(b.Src[at:end])
	}
	start, line := b.Pos, b.LineNo
	w := word(b.Pos)
	lineEnd := func(at int) int {
		if i := bytes.IndexByte(b.Src[at:], '\n'); i >= 0 {
			return at + i
		}
		return len(b.Src)
	}
	b.Pos = lineEnd(b.Pos)
	if w == "else" || w == "elif" {
		for depth := 0; b.Pos < len(b.Src); {
			at := b.Pos + 1
			for at < len(b.Src) && (syntax.In(b.Src[at], " \t")) {
				at++
			}
			if at < len(b.Src) && b.Src[at] == '#' {
				switch word(at) {
				case "if":
					depth++
				case "endif":
					depth--
				}
			}
			b.LineNo++
			b.Pos = lineEnd(min(b.Pos+1, len(b.Src)))
			if depth < 0 {
				break
			}
		}
	}
	b.Add(syntax.Comment, start, line)
	return true
}

// verbatim takes @"…", in which a quote is written twice and lines may end.
func verbatim(b *syntax.Builder, open int) bool {
	start, line := b.Pos, b.LineNo
	if b.Spent() {
		return false
	}
	for p := b.Pos + open; p < len(b.Src); p++ {
		if b.Src[p] != '"' {
			continue
		}
		if p+1 < len(b.Src) && b.Src[p+1] == '"' {
			p++
			continue
		}
		b.Pos = p + 1
		b.LineNo += bytes.Count(b.Src[start:b.Pos], []byte{'\n'})
		b.Add(syntax.String, start, line)
		return true
	}
	b.Misread("a string is not closed", line)
	b.Waste(len(b.Src) - start)
	return false
}

// interpolated takes $"… {code} …", in which {{ is a brace.
func interpolated(b *syntax.Builder) bool {
	start, line := b.Pos, b.LineNo
	if b.Spent() {
		return false
	}
	p, depth := b.Pos+2, 0
	for p < len(b.Src) && b.Src[p] != '\n' {
		c := b.Src[p]
		switch {
		case depth == 0 && c == '\\':
			p++
		case depth == 0 && c == '"':
			b.Pos = p + 1
			b.Add(syntax.String, start, line)
			return true
		case c == '{':
			if depth == 0 && p+1 < len(b.Src) && b.Src[p+1] == '{' {
				p++
			} else {
				depth++
			}
		case c == '}' && depth > 0:
			depth--
		case depth > 0 && c == '"':
			// A string within the code of a hole.
			for p++; p < len(b.Src) && b.Src[p] != '"' && b.Src[p] != '\n'; p++ {
				if b.Src[p] == '\\' {
					p++
				}
			}
		}
		p++
	}
	b.Misread("a string is not closed", line)
	b.Waste(p - start)
	return false
}

// raw takes a string between three quotes or more; what closes it is as many.
func raw(b *syntax.Builder, dollars int) {
	n := 0
	for b.Pos+dollars+n < len(b.Src) && b.Src[b.Pos+dollars+n] == '"' {
		n++
	}
	b.Until(dollars+n, string(bytes.Repeat([]byte{'"'}, n)))
	for b.Pos < len(b.Src) && b.Src[b.Pos] == '"' && b.Last() != nil && b.Last().Kind == syntax.String {
		b.Pos++
		b.Last().End++
	}
}
