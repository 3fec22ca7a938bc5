package syntax

import (
	"encoding/binary"
	"strings"

	"jantel/core/model"
)

// declares are words that stand before a name that holds inside of a body alone.
var (
	declares      = Set("let", "const", "var", "val", "my", "mut", "local", "final", "auto")
	declaresSieve = NewSieve(declares)
)

func declaresAt(s *Stream, i int) bool {
	w := s.Bytes(i)
	return len(w) > 0 && declaresSieve.May(w) && declares[string(w)]
}

// maxLocals bounds what is kept of one file.
const maxLocals = 600

// local keeps the name at a token of a body, where it is one that is declared there:
// behind a word that says so, before ":=", behind a type, or at the start of a
// statement that sets it.
func (w *insider) local(i int, text []byte) {
	s := w.s
	c := s.First(i + 1)
	if c == '(' || len(w.locals) >= maxLocals || s.Is(i-1, ".") || text[0] == '@' {
		return
	}
	if c != '=' && c != ':' && c != ';' && !declaresAt(s, i-1) {
		return // most are only used
	}
	sets := s.Is(i+1, "=") && !s.Any(i+2, "=", ">", "~")
	switch {
	case declaresAt(s, i), declaresAt(s, i-1) && s.IsIdent(i+1) && s.Tokens[i+1].shape == aName:
		return // the word goes on: final Box box, let mut rest
	case declaresAt(s, i-1), s.Is(i+1, ":="), s.Match(i+1, ":", "=") && !s.Is(i+3, "="):
	case sets && (s.breaks(i-1) || s.Any(i-1, ";", "{", "}")) && (text[0] == '$' || s.Ends || w.indented):
	case s.IsIdent(i-1) && s.Line(i-1) == s.Line(i) && (sets || s.Is(i+1, ";")) && s.Tokens[i-1].shape == aName &&
		(s.breaks(i-2) || s.Any(i-2, ";", "{", "}", "(")):
	default:
		return
	}
	for _, a := range w.around {
		if d := &w.f.Definitions[a.def]; d.Name == string(text) && d.Line == s.Line(i) {
			return // what is defined there is told by itself
		}
	}
	w.keepLocal(string(text), model.LocalName, s.Line(i))
}

func (w *insider) keepLocal(name string, kind byte, line int) {
	name = strings.TrimLeft(name, "$@%&*")
	if len(name) < 2 || len(name) > 80 || len(w.locals) >= maxLocals {
		return
	}
	key := string(kind) + name
	_, known := w.locals[key]
	// What is set again is the parameter.
	if _, param := w.locals[string(model.LocalParameter)+name]; known || param {
		return
	}
	w.locals[key] = len(w.f.Locals)
	w.f.Locals = append(w.f.Locals, kind, byte(len(name)))
	w.f.Locals = append(w.f.Locals, name...)
	w.f.Locals = binary.AppendUvarint(w.f.Locals, uint64(line))
}

// paramNames keeps the names of the parameters in the brackets at a token.
func (w *insider) paramNames(open int, typeLast bool) {
	s := w.s
	for n, a := range s.Args(open) {
		if n > 12 {
			return
		}
		if at := s.paramName(a[0], min(a[1], a[0]+12), typeLast); at >= 0 && !s.Any(at, "self", "cls", "this", "_") {
			w.keepLocal(s.Text(at), model.LocalParameter, s.Line(at))
		}
	}
}

// paramName is the token that names a parameter: before its type where one stands
// behind a colon or, in some languages, plainly behind; else the last word of it.
func (s *Stream) paramName(from, to int, typeLast bool) int {
	at := -1
	for k := from; k < to && !s.Is(k, "="); k++ {
		switch {
		case s.Is(k, ":"):
			return at
		case s.Any(k, "[", "(", "{", "<"):
			if at < 0 || !typeLast && s.Is(k, "<") {
				k = s.Close(k)
				continue
			}
			return at
		case s.IsIdent(k):
			if at >= 0 && typeLast {
				return at
			}
			if !s.Is(k-1, "@") {
				at = k
			}
		}
	}
	return at
}
