package syntax

import (
	"bytes"
	"regexp"

	"jantel/core/model"
)

// asides finds comments that are code: three lines or more on end of which
// most read like statements. Prose ends its sentences without a semicolon;
// examples in the comment of a definition stand deeper than its words.
func asides(f *model.Facts, s *Stream) {
	starts := map[int]bool{}
	for i := range f.Definitions {
		starts[f.Definitions[i].Line] = true
	}
	var run aside
	flush := func() {
		// A comment right before a definition is about it.
		if len(run.lines) >= leastAside && !starts[run.last+1] && len(f.Asides) < maxInsides && run.isCode() {
			f.Asides = append(f.Asides, model.Stretch{From: run.first, To: run.last})
		}
		run = aside{lines: run.lines[:0]}
	}
	for i := range s.Comments {
		t := &s.Comments[i]
		text := s.Src[t.Start:t.End]
		if bytes.HasPrefix(text, []byte("/**")) || bytes.HasPrefix(text, []byte("///")) || bytes.HasPrefix(text, []byte("#!")) {
			flush()
			continue
		}
		if text[0] == '\n' || text[0] == '\r' || text[0] == '#' && t.EndLine > t.Line {
			flush()
			// A branch that the preprocessor leaves out is no comment, but for one
			// that it always does.
			if leftOut(s.Src, int(t.Start)) {
				run.take(text, int(t.Line), int(t.EndLine)-1)
			}
			continue
		}
		if len(run.lines) > 0 && int(t.Line) != run.last+1 {
			flush()
		}
		run.take(text, int(t.Line), int(t.EndLine))
	}
	flush()
}

// leftOut reports whether the line that ends at a place is "#if 0".
func leftOut(src []byte, end int) bool {
	line := src[max(0, end-40):end]
	line = line[bytes.LastIndexByte(line, '\n')+1:]
	line = bytes.ReplaceAll(line, []byte(" "), nil)
	return bytes.HasPrefix(line, []byte("#if0"))
}

// leastAside is from how many lines on comments are taken for code.
const leastAside = 3

// aside is a run of lines of comments, those that are empty left out.
type aside struct {
	first, last int
	lines       [][]byte
}

func (a *aside) take(text []byte, line, end int) {
	if len(a.lines) == 0 {
		a.first = line
	}
	a.last = end
	for l := range bytes.Lines(text) {
		if l = bytes.Trim(bytes.TrimSpace(l), "/*#- \t"); len(l) > 0 {
			a.lines = append(a.lines, l)
		}
	}
}

// isCode reports whether four in five lines read as code. Most runs are prose, and
// that is known long before their end.
func (a *aside) isCode() bool {
	prose := 0
	for _, l := range a.lines {
		if !readsAsCode(l) {
			if prose++; 5*prose > len(a.lines) {
				return false
			}
		}
	}
	return len(a.lines)-prose >= leastAside
}

// statements reads lines that only code is written like.
var statements = regexp.MustCompile(`^(?:` +
	`[\w.$\[\]>:-]+ ?(?:[-+*/|]|:)?= ?[^=].*[;)\]}\w"']$|` + // x = y, x := y
	`(?:\w+ )?[\w.$>:!-]+\(.*\)(?:;|\)|,| \{|:)?$|` + // f(x)
	`(?:if|for|while|switch|foreach|elif|else if|func|function|def|class|return|import)\b.*[;:{})]$|` +
	`(?:const|let|var|use|using|public|private)\b.*[;:{})]$|` +
	`[\w\s."'$,:\[\](){}<>=!&|+*/?-]+;$|` + // anything; up to a semicolon
	`[})\]]+[;,]?(?: else \{)?$|` +
	`<\/?[A-Za-z][^<>]*>.*$` +
	`)`)

// prose turns away lines that are sentences.
var prose = regexp.MustCompile(`\b(?:the|is|are|that|this|which|should|will|because|TODO|FIXME|see|note|copyright|licen[sc]ed?)\b`)

func readsAsCode(l []byte) bool {
	if len(l) > 200 {
		l = l[:200]
	}
	// Nearly all lines are prose, and have none of the signs that each of the
	// expressions asks for: to look for them costs a fiftieth.
	if !bytes.ContainsAny(l, "=(;{}<]") && !In(l[len(l)-1], ":)]") {
		return false
	}
	return !running(l) && statements.Match(l) && !prose.Match(l)
}

// running reports whether three plain words follow each other, as they do in
// nearly every line of prose: as `(?:\b[a-z]{2,} ){3}` does, at a tenth of the cost.
func running(l []byte) bool {
	words, length, apart := 0, 0, true // apart: what is read now began as a word of its own
	for _, c := range l {
		switch {
		case 'a' <= c && c <= 'z':
			length++
			continue
		case c == ' ' && apart && length >= 2:
			if words++; words == 3 {
				return true
			}
		default:
			words = 0
		}
		length, apart = 0, !('A' <= c && c <= 'Z' || '0' <= c && c <= '9' || c == '_')
	}
	return false
}
