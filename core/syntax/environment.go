package syntax

import (
	"sort"
	"strings"
	"sync"

	"jantel/core/model"
)

// Environment are the ways in which a language reads a variable of its
// environment: calls with the name as their first literal, and things indexed
// or asked by it.
type Environment struct {
	Calls   map[string]bool // os.Getenv("NAME")
	Indexed map[string]bool // ENV["NAME"]
	Members map[string]bool // process.env.NAME

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

// Read lists the variables met in a stream, each with its first line.
func (e *Environment) Read(s *Stream) []model.Mention {
	seen := map[string]int{}
	for i := range s.Tokens {
		if s.Tokens[i].Kind != Ident || !e.endOf(s.Bytes(i)) {
			continue
		}
		name := e.asked(s, i)
		if _, known := seen[name]; !known && isVariable(name) {
			seen[name] = s.Line(i)
		}
	}
	return mentions(seen)
}

// asked is the variable that is asked for at token i, "" where none is.
func (e *Environment) asked(s *Stream, i int) string {
	var set map[string]bool
	switch next := s.Bytes(i + 1); {
	case len(next) != 1:
		return ""
	case next[0] == '.' && s.IsIdent(i+2):
		set = e.Members
	case s.Kind(i+2) != String:
		return ""
	case next[0] == '(':
		set = e.Calls
	case next[0] == '[':
		set = e.Indexed
	}
	if set == nil {
		return ""
	}
	if way, _ := s.Dotted(i); !set[way] {
		return ""
	}
	return s.Unquote(i + 2)
}

// mentions are the names met, in order.
func mentions(seen map[string]int) []model.Mention {
	if len(seen) == 0 {
		return nil
	}
	out := make([]model.Mention, 0, len(seen))
	for n, line := range seen {
		out = append(out, model.Mention{Name: n, Line: line})
	}
	sort.Slice(out, func(i, j int) bool { return out[i].Name < out[j].Name })
	return out
}

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
