// Package cfamily reads C and C++.
package cfamily

import (
	"bytes"
	"regexp"

	"jantel/core/model"
	"jantel/core/syntax"
)

func init() {
	syntax.Register(&syntax.Language{
		Name: "C", Version: 8,
		Profile: syntax.Profile{Code: true, Plain: "c", PlainNames: true, OneOfAName: true, SameNames: true, TestPrograms: true,
			Headers: []string{".h"}},
		Extensions: []string{".c", ".h"}, Read: read, Resolve: resolve,
	})
	syntax.Register(&syntax.Language{
		Name: "C++", Version: 8, Profile: syntax.Profile{Code: true, Plain: "c", SameNames: true, Inherits: true, TestPrograms: true,
			Headers: []string{".hpp", ".hh", ".hxx", ".h++"}},
		ResolvedWith: "C",
		Extensions:   []string{".cc", ".cpp", ".cxx", ".c++", ".hpp", ".hh", ".hxx", ".h++", ".inl", ".ipp", ".tpp"},
		Read:         read,
	})
}

var grammar = &syntax.Braces{Chars: true, Special: special}

// special takes directives of the preprocessor, each as one token of text, raw
// strings, and strings with a mark before them.
func special(b *syntax.Builder) bool {
	switch b.Src[b.Pos] {
	case '#':
		return directive(b)
	case '/':
		return joinedComment(b)
	case 'R', 'L', 'u', 'U':
		return markedString(b)
	case '\\':
		// A line that goes on behind its end.
		b.Pos++
		return true
	}
	return false
}

// joinedComment takes a comment of one line that a backslash carries over its end.
func joinedComment(b *syntax.Builder) bool {
	if !bytes.HasPrefix(b.Src[b.Pos:], []byte("//")) {
		return false
	}
	i := bytes.IndexByte(b.Src[b.Pos:], '\n')
	if i <= 0 || !bytes.HasSuffix(bytes.TrimSuffix(b.Src[b.Pos:b.Pos+i], []byte{'\r'}), []byte{'\\'}) {
		return false
	}
	take(b, syntax.Comment)
	return true
}

// markedString takes u8"…", L"…", R"x(…)x" and their like.
func markedString(b *syntax.Builder) bool {
	if b.Pos > 0 && syntax.IsIdentPart(b.Src[b.Pos-1]) {
		return false
	}
	at := func(p int) byte {
		if p < len(b.Src) {
			return b.Src[p]
		}
		return 0
	}
	p := b.Pos + 1
	if b.Src[b.Pos] == 'u' && at(p) == '8' {
		p++
	}
	raw := b.Src[b.Pos] == 'R'
	if !raw && at(p) == 'R' {
		raw = true
		p++
	}
	if at(p) != '"' {
		return false
	}
	if raw {
		end := p + 1
		for end < len(b.Src) && end-p < 18 && !syntax.In(b.Src[end], "(\"\n") {
			end++
		}
		if at(end) != '(' {
			return false
		}
		b.Until(end+1-b.Pos, ")"+string(b.Src[p+1:end])+`"`)
		return true
	}
	start := b.Pos
	b.Pos = p
	if b.Quoted('"', false) {
		b.Last().Start = int32(start)
		return true
	}
	b.Pos = start
	return false
}

// word is the name of the directive whose "#" stands at at.
func word(src []byte, at int) string {
	at++
	for at < len(src) && (syntax.In(src[at], " \t")) {
		at++
	}
	end := at
	for end < len(src) && src[end] >= 'a' && src[end] <= 'z' {
		end++
	}
	return string(src[at:end])
}

// lineEnd is the end of the line at at, over ends marked with a backslash, and
// how many of those there were. A comment that runs over lines goes along.
func lineEnd(b *syntax.Builder, at int) (end, more int) {
	src := b.Src
	for {
		i := bytes.IndexByte(src[at:], '\n')
		line := src[at:]
		if i >= 0 {
			line = src[at : at+i]
		}
		if open := bytes.LastIndex(line, []byte("/*")); open >= 0 && !bytes.Contains(line[open:], []byte("*/")) && i >= 0 &&
			!bytes.Contains(line[:open], []byte("//")) {
			if closing := b.Find(at+open, "*/"); closing >= 0 {
				more += bytes.Count(src[at:closing], []byte{'\n'})
				at = closing + 2
				continue
			}
		}
		if i < 0 {
			return len(src), more
		}
		k := at + i - 1
		if k >= at && src[k] == '\r' {
			k--
		}
		if k < at || src[k] != '\\' {
			return at + i, more
		}
		more++
		at += i + 1
	}
}

// directive takes a line that starts with "#". Of branches the first is read,
// the second where the first is "#if 0"; what is left out is a comment, but for
// what it includes.
func directive(b *syntax.Builder) bool {
	for p := b.Pos - 1; p >= 0 && b.Src[p] != '\n'; p-- {
		if b.Src[p] != ' ' && b.Src[p] != '\t' && b.Src[p] != '\r' {
			return false
		}
	}
	w := word(b.Src, b.Pos)
	text := take(b, syntax.Text)
	switch w {
	case "if":
		f := bytes.Fields(text[bytes.Index(text, []byte("if"))+2:])
		if len(f) > 0 && string(f[0]) == "0" {
			skip(b, true)
		}
	case "else", "elif":
		skip(b, false)
	}
	return true
}

func take(b *syntax.Builder, k syntax.Kind) []byte {
	start, line := b.Pos, b.LineNo
	end, more := lineEnd(b, b.Pos)
	b.Pos = end
	b.LineNo += more
	b.Add(k, start, line)
	return b.Src[start:end]
}

// skip leaves out lines up to the "#endif" of the branch reached, or with
// other up to its "#else" or "#elif".
func skip(b *syntax.Builder, other bool) {
	start, line := b.Pos, b.LineNo
	flush := func() {
		if len(bytes.TrimSpace(b.Src[start:b.Pos])) > 0 {
			b.Unread = append(b.Unread, int32(len(b.Comments)))
			b.Add(syntax.Comment, start, line)
		}
	}
	for depth := 0; b.Pos < len(b.Src); {
		b.LineNo++
		b.Pos++ // the line end before
		at := b.Pos
		for at < len(b.Src) && (syntax.In(b.Src[at], " \t")) {
			at++
		}
		if at >= len(b.Src) || b.Src[at] != '#' {
			if i := bytes.IndexByte(b.Src[b.Pos:], '\n'); i >= 0 {
				b.Pos += i
			} else {
				b.Pos = len(b.Src)
			}
			continue
		}
		switch w := word(b.Src, at); w {
		case "if", "ifdef", "ifndef":
			depth++
		case "else", "elif":
			if depth == 0 && other {
				b.Pos = at
				flush()
				take(b, syntax.Text)
				return
			}
		case "endif":
			if depth--; depth < 0 {
				b.Pos = at
				flush()
				take(b, syntax.Text)
				return
			}
		case "include":
			if !other {
				b.Pos = at
				flush()
				take(b, syntax.Text)
				start, line = b.Pos, b.LineNo
				continue
			}
		}
		end, more := lineEnd(b, at)
		b.Pos = end
		b.LineNo += more
	}
	flush()
}

var environment = &syntax.Environment{Calls: syntax.Set("getenv", "secure_getenv", "std::getenv")}

type reader struct {
	s     *syntax.Stream
	f     *model.Facts
	signs syntax.Signs
	names map[string]bool
}

func read(how syntax.How, src []byte) *model.Facts {
	r := &reader{s: grammar.Lex(src), f: syntax.NewFacts(), signs: syntax.Signs{}, names: map[string]bool{}}
	r.directives()
	r.items(0, r.s.Len(), scope{exported: true})
	r.otherMain()
	r.f.Env = environment.Read(r.s)
	r.f.Names = syntax.SortedSet(r.names)
	plainly.Calls(r.s, r.f)
	// A value may be given back through what is handed in.
	r.s.Implicit = true
	return syntax.Finish(how, r.f, r.s, r.signs)
}

// mainHead is the head of the function that a program starts in.
var mainHead = regexp.MustCompile(`(?m)^[ \t]*(?:static[ \t]+)?(?:int|void)(?:[ \t]+|[ \t]*\r?\n)main[ \t]*\(`)

// otherMain looks for the start of the program in the branches that are left out:
// on another machine its function may have another name.
func (r *reader) otherMain() {
	for i := range r.s.Comments {
		t := &r.s.Comments[i]
		text := r.s.Src[t.Start:t.End]
		if r.f.Starts > 0 || len(text) == 0 || text[0] == '/' || !bytes.Contains(text, []byte("main")) {
			continue
		}
		if m := mainHead.FindIndex(text); m != nil {
			r.f.Starts = int(t.Line) + bytes.Count(text[:m[0]], []byte{'\n'})
		}
	}
}

// directives reads what is included and what macros are defined.
func (r *reader) directives() {
	s := r.s
	for i := range s.Tokens {
		t := &s.Tokens[i]
		if t.Kind != syntax.Text {
			continue
		}
		text := s.Src[t.Start:t.End]
		w := word(text, 0)
		rest := bytes.TrimSpace(text[bytes.Index(text, []byte(w))+len(w):])
		switch w {
		case "include", "include_next", "import":
			if len(rest) < 3 || rest[0] != '"' && rest[0] != '<' {
				continue
			}
			closing := byte('"')
			if rest[0] == '<' {
				closing = '>'
			}
			end := bytes.IndexByte(rest[1:], closing)
			if end <= 0 {
				continue
			}
			im := model.Import{Text: string(rest[1 : 1+end]), Kind: model.LinkImport, Line: int(t.Line)}
			if closing == '>' {
				im.Alias = "system"
			}
			r.f.Imports = append(r.f.Imports, im)
		case "define":
			n := 0
			for n < len(rest) && syntax.IsIdentPart(rest[n]) {
				n++
			}
			// A guard has no value.
			if n == 0 || len(bytes.TrimSpace(rest[n:])) == 0 {
				continue
			}
			kind := model.DefConstant
			if rest[n:][0] == '(' {
				kind = model.DefOther
			}
			name := string(rest[:n])
			r.names[name] = true
			r.f.Definitions = append(r.f.Definitions, model.Definition{
				Name: name, Kind: kind, Line: int(t.Line), EndLine: int(t.EndLine), Exported: true,
			})
		}
	}
}
