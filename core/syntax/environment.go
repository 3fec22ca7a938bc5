package syntax

import (
	"cmp"
	"sort"
	"strings"
	"sync"
	"unicode/utf8"

	"jantel/core/model"
)

// Environment are the ways in which a language reads a variable of its
// environment: calls with the name as their first literal, and things indexed
// or asked by it.
type Environment struct {
	Calls   map[string]bool // os.Getenv("NAME")
	Indexed map[string]bool // ENV["NAME"]
	Members map[string]bool // process.env.NAME
	// Fails are those of the calls, and of what is indexed, that fail where the
	// variable is not set and no second value is given.
	Fails map[string]bool

	once sync.Once
	ends Sieve // of the last parts of all of these
}

// endOf reports whether a word can be the last part of one of the ways.
func (e *Environment) endOf(w []byte) bool {
	e.once.Do(func() {
		for _, set := range []map[string]bool{e.Calls, e.Indexed, e.Members} {
			for n := range set {
				e.ends.add(n[strings.LastIndexByte(n, '.')+1:])
			}
		}
	})
	return e.ends.May(w)
}

// Read lists the variables met in a stream by name, each with its first line, and
// with what stands for it where any reading of it says so.
func (e *Environment) Read(s *Stream) []model.EnvFact {
	seen := map[string]*model.EnvFact{}
	for i := range s.Tokens {
		if s.Tokens[i].Kind != Ident || !e.endOf(s.Bytes(i)) {
			continue
		}
		v, ok := e.asked(s, i)
		if !ok || !isVariable(v.Name) {
			continue
		}
		first := seen[v.Name]
		if first == nil {
			seen[v.Name] = &v
			continue
		}
		first.Default = cmp.Or(first.Default, v.Default)
		first.Must = first.Must || v.Must
	}
	return Variables(seen)
}

// Variables are the variables met, in order.
func Variables(seen map[string]*model.EnvFact) []model.EnvFact {
	if len(seen) == 0 {
		return nil
	}
	out := make([]model.EnvFact, 0, len(seen))
	for _, v := range seen {
		out = append(out, *v)
	}
	sort.Slice(out, func(i, j int) bool { return out[i].Name < out[j].Name })
	return out
}

// asked is the variable that is asked for at token i; ok is false where none is.
func (e *Environment) asked(s *Stream, i int) (v model.EnvFact, ok bool) {
	var set map[string]bool
	next := s.Bytes(i + 1)
	switch {
	case len(next) != 1:
		return v, false
	case next[0] == '.' && s.IsIdent(i+2):
		set = e.Members
	case s.Kind(i+2) != String:
		return v, false
	case next[0] == '(':
		set = e.Calls
	case next[0] == '[':
		set = e.Indexed
	}
	if set == nil {
		return v, false
	}
	way, _ := s.Dotted(i)
	if !set[way] {
		return v, false
	}
	v = model.EnvFact{Name: s.Unquote(i + 2), Line: s.Line(i)}
	var second bool
	v.Default, second = instead(s, i+1)
	if e.Fails[way+string(next)] && !second {
		// A block behind the call gives a value as well.
		v.Must = !s.Any(s.Close(i+1)+1, "{", "do")
	}
	return v, true
}

// instead is what stands for a variable that is asked for with the "(", "[" or "."
// at open: the second argument, or what follows "||", "??", "?:" or "or". Given is
// false where nothing does; the text is "" for what is no plain value.
func instead(s *Stream, open int) (text string, given bool) {
	behind := open + 2
	if !s.Is(open, ".") {
		shut := s.Close(open)
		if s.Is(open+2, ",") && open+3 < shut {
			return plainValue(s, open+3, shut), true
		}
		behind = shut + 1
	}
	for _, sign := range [][]string{{"||"}, {"??"}, {"?:"}, {"or"}, {"|", "|"}, {"?", "?"}, {"?", ":"}} {
		if s.Match(behind, sign...) {
			from := behind + len(sign)
			return plainValue(s, from, from+1), true
		}
	}
	return "", false
}

// plainValue is the literal that tokens are, "" for anything else.
func plainValue(s *Stream, from, to int) string {
	if to != from+1 {
		return ""
	}
	switch s.Kind(from) {
	case String:
		return clip(s.Unquote(from), maxValue)
	case Number:
		return s.Text(from)
	}
	switch w := s.Text(from); w {
	case "true", "false", "True", "False":
		return w
	}
	return ""
}

// maxValue bounds how much of a text is kept, in bytes.
const maxValue = 120

// isVariable reports whether a text is the name of a variable: letters, digits
// and underscores.
func isVariable(name string) bool {
	if name == "" || name[0] >= '0' && name[0] <= '9' {
		return false
	}
	if OfRequest(name) {
		return false
	}
	for i := range len(name) {
		if !IsIdentPart(name[i]) || name[i] == '$' || name[i] >= 0x80 {
			return false
		}
	}
	return true
}

// OfRequest reports whether a name is one under which a server hands a request
// on: headers, and what the gateway says of it. They are asked for in the same
// way, and are no setting of anybody's.
func OfRequest(name string) bool {
	if rest, ok := strings.CutPrefix(name, "HTTP_"); ok {
		return rest != "PROXY"
	}
	return gateway[name]
}

var gateway = Set(
	"REQUEST_METHOD", "REQUEST_URI", "REQUEST_PATH", "PATH_INFO", "PATH_TRANSLATED", "QUERY_STRING", "SCRIPT_NAME",
	"SCRIPT_FILENAME", "CONTENT_TYPE", "CONTENT_LENGTH", "REMOTE_ADDR", "REMOTE_HOST", "REMOTE_PORT", "REMOTE_USER", "REMOTE_IDENT",
	"SERVER_NAME", "SERVER_PORT", "SERVER_ADDR", "SERVER_PROTOCOL", "SERVER_SOFTWARE", "GATEWAY_INTERFACE",
	"DOCUMENT_ROOT", "AUTH_TYPE", "HTTPS", "PHP_SELF", "PHP_AUTH_USER", "PHP_AUTH_PW", "REQUEST_TIME", "REQUEST_SCHEME", "argv", "argc")

// Set makes a set of words.
func Set(words ...string) map[string]bool {
	m := make(map[string]bool, len(words))
	for _, w := range words {
		m[w] = true
	}
	return m
}

// clip is the start of a text, n bytes at most.
func clip(text string, n int) string {
	for len(text) > n {
		_, size := utf8.DecodeLastRuneInString(text)
		text = text[:len(text)-size]
	}
	return text
}
