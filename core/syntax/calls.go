package syntax

import (
	"strings"

	"jantel/core/model"
)

// Args are the arguments of the call whose "(" stands at open, as token ranges
// from the first token of each up to behind its last.
func (s *Stream) Args(open int) [][2]int {
	end := s.Close(open)
	if end == open {
		return nil
	}
	var out [][2]int
	from := open + 1
	for i := from; i < end; i = s.Close(i) + 1 {
		if s.Kind(i) == Punct && s.Src[s.Tokens[i].Start] == ',' {
			if i > from {
				out = append(out, [2]int{from, i})
			}
			from = i + 1
		}
	}
	if from < end {
		out = append(out, [2]int{from, end})
	}
	return out
}

// Params is the number of parameters between the parentheses at open: commas
// between the angle brackets of a type part none.
func (s *Stream) Params(open int) int {
	end := s.Close(open)
	if end <= open+1 {
		return 0
	}
	n, angles, some := 0, 0, false
	for i := open + 1; i < end; i = s.Close(i) + 1 {
		some = true
		if s.Kind(i) != Punct {
			continue
		}
		switch s.Src[s.Tokens[i].Start] {
		case '<':
			angles++
		case '>':
			// Behind "=" or "-" it is the head of an arrow.
			if prev := s.Tokens[i-1]; prev.End != s.Tokens[i].Start || s.Src[prev.Start] != '=' && s.Src[prev.Start] != '-' {
				angles = max(angles-1, 0)
			}
		case ',':
			if angles == 0 && some {
				n++
				some = false
			}
		}
	}
	if angles > 0 {
		return len(s.Args(open)) // a comparison in a default: no types to speak of
	}
	if some {
		n++
	}
	return n
}

// InPlace reports whether a function is written out in a range of tokens,
// rather than named.
func (s *Stream) InPlace(r [2]int) bool {
	for i := r[0]; i < r[1]; i++ {
		switch s.Text(i) {
		case "func", "function", "fn", "fun", "sub", "lambda", "delegate", "{", "=>":
			return true
		case "=", "-": // => and ->
			if s.Is(i+1, ">") && s.Tokens[i].End == s.Tokens[i+1].Start {
				return true
			}
		case "|":
			if i == r[0] || s.Any(i-1, "move", "(") {
				return true
			}
		}
	}
	return false
}

// Dotted is the name a.b.c that ends with the identifier at i, and the index
// of its first token.
func (s *Stream) Dotted(i int) (string, int) {
	first := i
	for first >= 2 && s.Match(first-2, Name, ".") {
		first -= 2
	}
	if first == i {
		return s.Text(i), i
	}
	var b strings.Builder
	for k := first; k <= i; k++ {
		b.Write(s.Bytes(k))
	}
	return b.String(), first
}

// Name is the dotted name that a range of tokens is, "" when it is anything
// else.
func (s *Stream) Name(r [2]int) string {
	last := r[1] - 1
	if !s.IsIdent(last) {
		return ""
	}
	name, first := s.Dotted(last)
	if first != r[0] {
		return ""
	}
	return name
}

// Methods are the HTTP methods by the names that routers give them.
var Methods = map[string]string{
	"get": "GET", "post": "POST", "put": "PUT", "patch": "PATCH", "delete": "DELETE", "head": "HEAD",
	"options": "OPTIONS", "all": "ANY", "any": "ANY", "del": "DELETE", "connect": "CONNECT", "trace": "TRACE",
}

// JoinRoute puts a pattern below a prefix: one slash between them, none at the
// end but for the root.
func JoinRoute(prefix, pattern string) string {
	out := "/" + strings.Trim(prefix, "/")
	if p := strings.Trim(pattern, "/"); p != "" {
		if out != "/" {
			out += "/"
		}
		out += p
	}
	return out
}

// Span is a stretch of tokens in which routes lie below a prefix.
type Span struct {
	First, Last int
	Prefix      string
}

// Around is the prefix of all spans that hold token i, outermost first.
func Around(spans []Span, i int) string {
	out := ""
	for _, sp := range spans {
		if sp.First <= i && i <= sp.Last {
			out = JoinRoute(out, sp.Prefix)
		}
	}
	return out
}

// AddRoute keeps a route of a file.
func AddRoute(f *model.Facts, spans []Span, at int, r model.RouteFact) {
	r.Pattern = JoinRoute(Around(spans, at), r.Pattern)
	f.Routes = append(f.Routes, r)
}
