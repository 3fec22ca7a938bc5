package syntax

import "bytes"

// leftOver are calls that are made to look for a fault, with what they are
// called on.
var leftOver = map[string]map[string]bool{
	"log": Set("console"), "pry": Set("binding"), "set_trace": Set("pdb", "ipdb"),
	"var_dump": Set(""), "debugger": Set(""), "breakpoint": Set(""), "print_r": Set(""), "dd": Set(""), "Dumper": Set(""),
}

// looksFor reports whether a call by such a name is made to look for a fault: some are
// that in one language alone, or only where what they write is not given back instead.
func (t *traiter) looksFor(i int, name string, args [][2]int) bool {
	switch name {
	case "dd", "var_dump", "print_r":
		page := bytes.Contains(t.s.Src[:min(len(t.s.Src), 1000)], []byte("<?"))
		return page && (name != "print_r" || len(args) < 2)
	case "breakpoint", "debugger":
		return len(args) == 0
	case "Dumper":
		return t.printed(i) && bytes.Contains(t.s.Src, []byte("Data::Dumper"))
	case "log":
		// A console of its own hands on what it is given: log: (...args) => console.log(...args).
		return len(args) == 0 || !t.s.Is(args[0][0], "...")
	}
	return true
}

// printed reports whether what stands at a token is written out where it stands.
func (t *traiter) printed(i int) bool {
	s := t.s
	for k := i - 1; k >= 0 && k > i-12 && !s.Any(k, ";", "{", "}", "="); k-- {
		if s.Any(k, "print", "say", "warn", "printf") {
			return true
		}
	}
	return false
}

// tells are words in names of functions that write for somebody to read.
var tells = [][]byte{[]byte("log"), []byte("dump"), []byte("debug"), []byte("print"), []byte("test"), []byte("help"), []byte("usage")}

// inTelling reports whether a token stands in a function that is called for writing.
func (t *traiter) inTelling(i int) bool {
	line := t.s.Line(i)
	for k := range t.f.Definitions {
		d := &t.f.Definitions[k]
		if d.Line <= line && line <= d.EndLine && hasBody(d.Kind) && containsAny(bytes.ToLower([]byte(d.Name)), tells) {
			return true
		}
	}
	return false
}

// onDemand reports whether what is written at a token is written only where somebody asked
// for it: VERBOSE && console.log(lot), print Dumper($lot) if DEBUG.
func (t *traiter) onDemand(i int) bool {
	s := t.s
	for k := i - 1; k >= 0 && k > i-24 && !s.Any(k, ";", "{", "}"); k-- {
		w := bytes.ToLower(s.Bytes(k))
		if s.Any(k, "die", "croak", "confess") {
			return true // it is what a fault says
		}
		names := s.Kind(k) == Ident && (bytes.Contains(w, []byte("debug")) || bytes.Contains(w, []byte("verbose")))
		if names || s.Is(k, "log") && s.Any(k+1, "&", "&&") {
			return true
		}
	}
	return false
}

// stops reports whether the statement that stops a program in its debugger stands at a
// token: debugger;
func (s *Stream) stops(i int) bool {
	return s.Is(i, "debugger") && s.Is(i+1, ";") && (i == 0 || s.Any(i-1, ";", "{", "}", ")"))
}
