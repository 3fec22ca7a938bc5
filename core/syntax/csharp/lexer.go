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
		switch {
		case b.Next(`@"`):
			return verbatim(b, 2)
		case b.Next(`@$"`):
			return verbatim(b, 3)
		}
		return markedName(b)
	case '$':
		return dollars(b)
	}
	return false
}

// markedName takes a name that would be a word of the language without its mark.
func markedName(b *syntax.Builder) bool {
	start := b.Pos + 1
	if start >= len(b.Src) || !syntax.IsIdentStart(b.Src[start]) {
		return false
	}
	for b.Pos++; b.Pos < len(b.Src) && syntax.IsIdentPart(b.Src[b.Pos]); {
		b.Pos++
	}
	b.Add(syntax.Ident, start, b.LineNo)
	return true
}

// dollars takes $"…", $@"…" and $$"""…""".
func dollars(b *syntax.Builder) bool {
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
	return false
}

// directive takes a line that starts with "#". Of branches the first is read:
// what stands between an #else or #elif and its #endif is a comment.
func directive(b *syntax.Builder) bool {
	for p := b.Pos - 1; p >= 0 && b.Src[p] != '\n'; p-- {
		if !syntax.In(b.Src[p], " \t\r") {
			return false
		}
	}
	start, line := b.Pos, b.LineNo
	w := directiveWord(b.Src, b.Pos)
	b.Pos = lineEnd(b.Src, b.Pos)
	if w == "else" || w == "elif" {
		for depth := 0; b.Pos < len(b.Src) && depth >= 0; {
			switch directiveWord(b.Src, blanks(b.Src, b.Pos+1)) {
			case "if":
				depth++
			case "endif":
				depth--
			}
			b.LineNo++
			b.Pos = lineEnd(b.Src, min(b.Pos+1, len(b.Src)))
		}
	}
	b.Add(syntax.Comment, start, line)
	return true
}

// directiveWord is the word of the directive at at, "" where none stands there.
func directiveWord(src []byte, at int) string {
	if at >= len(src) || src[at] != '#' {
		return ""
	}
	at = blanks(src, at+1)
	end := at
	for end < len(src) && src[end] >= 'a' && src[end] <= 'z' {
		end++
	}
	return string(src[at:end])
}

func blanks(src []byte, at int) int {
	for at < len(src) && syntax.In(src[at], " \t") {
		at++
	}
	return at
}

func lineEnd(src []byte, at int) int {
	if i := bytes.IndexByte(src[at:], '\n'); i >= 0 {
		return at + i
	}
	return len(src)
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
	src, p, depth := b.Src, b.Pos+2, 0
	for ; p < len(src) && src[p] != '\n'; p++ {
		switch c := src[p]; {
		case depth == 0 && c == '\\':
			p++
		case depth == 0 && c == '"':
			b.Pos = p + 1
			b.Add(syntax.String, start, line)
			return true
		case depth == 0 && bytes.HasPrefix(src[p:], []byte("{{")):
			p++
		case c == '{':
			depth++
		case c == '}' && depth > 0:
			depth--
		case depth > 0 && c == '"':
			p = stringEnd(src, p)
		}
	}
	b.Misread("a string is not closed", line)
	b.Waste(p - start)
	return false
}

// stringEnd is where a string within the code of a hole ends, on its line.
func stringEnd(src []byte, p int) int {
	for p++; p < len(src) && src[p] != '"' && src[p] != '\n'; p++ {
		if src[p] == '\\' {
			p++
		}
	}
	return p
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
