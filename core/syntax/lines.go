package syntax

import (
	"bytes"
	"unicode/utf16"
	"unicode/utf8"

	"jantel/core/model"
)

// CountLines is the number of lines of src; a last line without a line break
// counts.
func CountLines(src []byte) int {
	n := bytes.Count(src, []byte{'\n'})
	if len(src) > 0 && src[len(src)-1] != '\n' {
		n++
	}
	return n
}

// CountStream fills the line counts of f from a lexed file: a line with any
// token is code, one with comments alone is comment, the rest is blank.
func CountStream(f *model.Facts, s *Stream) {
	f.Lines = CountLines(s.Src)
	if f.Lines == 0 {
		return
	}
	marks := make([]byte, f.Lines+2)
	unread := s.Unread
	for i := range s.Comments {
		t := &s.Comments[i]
		if len(unread) > 0 && int(unread[0]) == i { // a branch of the preprocessor: code nonetheless
			unread = unread[1:]
			line := int(t.Line)
			for text := range bytes.Lines(s.Src[t.Start:t.End]) {
				if line <= f.Lines && len(bytes.TrimSpace(text)) > 0 {
					marks[line] = 2
				}
				line++
			}
			continue
		}
		for l := int(t.Line); l <= int(t.EndLine) && l <= f.Lines; l++ {
			marks[l] = 1
		}
	}
	last := int32(0)
	for i := range s.Tokens {
		t := &s.Tokens[i]
		if t.EndLine == last { // nearly all tokens end where the one before them does
			continue
		}
		if t.Kind == Newline || t.Kind == Indent || t.Kind == Dedent {
			continue
		}
		for l := int(t.Line); l <= int(t.EndLine) && l <= f.Lines; l++ {
			marks[l] = 2
		}
		last = t.EndLine
	}
	for l := 1; l <= f.Lines; l++ {
		switch marks[l] {
		case 2:
			f.Code++
		case 1:
			f.Comment++
		default:
			f.Blank++
		}
	}
}

// CountPlain fills the line counts of a text no lexer reads: what is not
// blank counts as code.
func CountPlain(f *model.Facts, src []byte) {
	f.Lines = CountLines(src)
	for len(src) > 0 {
		line, rest, _ := bytes.Cut(src, []byte{'\n'})
		if len(bytes.TrimSpace(line)) == 0 {
			f.Blank++
		} else {
			f.Code++
		}
		src = rest
	}
}

// Decode turns UTF-16 (by its byte order mark) into UTF-8, drops a UTF-8 mark,
// gives lines that a carriage return ends alone the end that others have, and
// reports whether the bytes are text at all. Latin-1 stays as it is: the
// lexers take every byte beyond ASCII as a letter.
func Decode(src []byte) (text []byte, isText bool) {
	switch {
	case bytes.HasPrefix(src, []byte{0xEF, 0xBB, 0xBF}):
		src = src[3:]
	case bytes.HasPrefix(src, []byte{0xFF, 0xFE}) && !bytes.HasPrefix(src, []byte{0xFF, 0xFE, 0, 0}):
		return fromUTF16(src[2:], false), true
	case bytes.HasPrefix(src, []byte{0xFE, 0xFF}):
		return fromUTF16(src[2:], true), true
	}
	isText = bytes.IndexByte(src[:min(len(src), 8000)], 0) < 0
	if isText && bytes.IndexByte(src, '\n') < 0 && bytes.IndexByte(src, '\r') >= 0 {
		src = bytes.ReplaceAll(src, []byte{'\r'}, []byte{'\n'})
	}
	return src, isText
}

func fromUTF16(b []byte, big bool) []byte {
	u := make([]uint16, 0, len(b)/2)
	for i := 0; i+1 < len(b); i += 2 {
		if big {
			u = append(u, uint16(b[i])<<8|uint16(b[i+1]))
		} else {
			u = append(u, uint16(b[i+1])<<8|uint16(b[i]))
		}
	}
	out := make([]byte, 0, len(u))
	for _, r := range utf16.Decode(u) {
		out = utf8.AppendRune(out, r)
	}
	return out
}

// LooksMinified reports whether the text was squeezed by a program: very long
// lines throughout.
func LooksMinified(src []byte, lines int) bool {
	if len(src) < 2000 {
		return false
	}
	if len(src)/max(lines, 1) > 500 {
		return true
	}
	// A line of more than 2000 bytes holds a whole block of 1000 without a line
	// end; few texts have one, and their blocks are looked through quickly.
	block := false
	for i := 0; i+1000 <= len(src) && !block; i += 1000 {
		block = bytes.IndexByte(src[i:i+1000], '\n') < 0
	}
	if !block {
		return false
	}
	long, rest := 0, src
	for len(rest) > 0 {
		line, r, _ := bytes.Cut(rest, []byte{'\n'})
		if len(line) > 2000 {
			long += len(line)
		}
		rest = r
	}
	return long > len(src)*7/10
}
