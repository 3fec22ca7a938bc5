package syntax

import (
	"bytes"
	"strings"

	"jantel/core/model"
)

// raisers are words and calls that raise a fault: what is raised stands behind the
// words, the calls raise by themselves.
var (
	raisers    = Set("throw", "raise")
	raiseCalls = Set("panic", "die", "croak", "confess", "abort", "abort_if", "abort_unless", "bail")
	catchers   = Set("catch", "except", "rescue")
)

// maxFaults bounds what is kept of one file.
const maxFaults = 1000

// faults finds what is raised, and what becomes of it where it is caught: turned
// into another fault, swallowed by a block that does nothing, or handled.
func faults(f *model.Facts, s *Stream) {
	s.tells(asksFaults, func(i int) {
		if len(f.Faults) >= maxFaults {
			return
		}
		b := s.Bytes(i)
		if k := bytes.LastIndexByte(b, ':'); k > 0 { // Carp::croak
			b = b[k+1:]
		}
		switch {
		case raisers[string(b)]:
			if name, ok := s.raised(i); ok {
				f.Faults = append(f.Faults, model.FaultFact{What: model.FaultRaise, Name: name, Line: s.Line(i)})
			}
		case raiseCalls[string(b)]:
			if name, ok := s.raisedByCall(i); ok {
				f.Faults = append(f.Faults, model.FaultFact{What: model.FaultRaise, Name: name, Line: s.Line(i)})
			}
		case catchers[string(b)]:
			s.caught(f, i)
		}
	})
	turn(f)
}

// raised is what a statement raises: the class that is made or named. What raises
// again what was caught raises nothing of its own.
func (s *Stream) raised(i int) (string, bool) {
	k := i + 1
	made := s.Is(k, "new")
	if made {
		k++
	}
	if s.Any(k, `\`, "::") {
		k++
	}
	if !s.IsIdent(k) || s.Is(i-1, ".") {
		return "", false
	}
	for s.Match(k+1, ".", Name) || s.Match(k+1, "::", Name) || s.Match(k+1, `\`, Name) {
		k += 2
	}
	name := s.Text(k)
	name = name[strings.LastIndexAny(name, `\:`)+1:]
	if !made && !s.Is(k+1, "(") && s.classAt(k) == "" {
		return "", false // throw e
	}
	return name, true
}

// raisedByCall is what a call raises: the number that it answers with, else its own
// name.
func (s *Stream) raisedByCall(i int) (string, bool) {
	name := s.Text(i)
	name = name[strings.LastIndexByte(name, ':')+1:]
	switch {
	case s.Any(i-1, "func", "function", "def", "sub", "fn", "fun", "->", ">"), s.Is(i-1, ".") && name != "abort":
		return "", false
	case strings.HasPrefix(name, "abort"):
		if !s.Is(i+1, "(") {
			return "", false
		}
		for _, a := range s.Args(i + 1) {
			if s.Kind(a[0]) == Number {
				return s.Text(a[0]), true
			}
		}
		return "", false
	case s.Any(i+1, "(", "!") || s.Kind(i+1) == String || name == "die" && s.IsIdent(i+1):
		return name, true
	}
	return "", false
}

// caught keeps what becomes of a fault that is caught at a token.
func (s *Stream) caught(f *model.Facts, i int) {
	if s.Any(i-1, "func", "function", "def", "sub", "fn", "fun") {
		return
	}
	var name string
	var from, to int
	switch {
	case s.Is(i-1, "."):
		from, to = s.caughtPromise(i)
	case s.Is(i+1, "{"):
		from, to = i+2, s.Close(i+1)
	case s.Is(i, "catch") && s.Is(i+1, "("):
		name = s.typeIn(i+2, s.Close(i+1))
		from, to = s.braced(s.Close(i+1)+1, min(s.Close(i+1)+40, s.Len()))
	case !s.Is(i, "catch"):
		name, from, to = s.rescued(i)
	}
	if from == 0 {
		return
	}
	x := model.FaultFact{What: model.FaultCatch, Name: name, Line: s.Line(i), EndLine: s.EndLine(max(to-1, i))}
	if s.idle(from, to) {
		x.What = model.FaultSwallow
	}
	if s.Is(to, "}") {
		x.EndLine = s.Line(to)
	}
	f.Faults = append(f.Faults, x)
}

// caughtPromise is the body of the function in .catch(() => { … }).
func (s *Stream) caughtPromise(i int) (from, to int) {
	if !s.Is(i+1, "(") {
		return 0, 0
	}
	args := s.Args(i + 1)
	if len(args) != 1 || !s.InPlace(args[0]) {
		return 0, 0
	}
	return s.braced(args[0][0], args[0][1])
}

// braced is the inside of the first braces between two tokens; 0 where there are
// none.
func (s *Stream) braced(from, to int) (int, int) {
	for k := from; k < to; k++ {
		if s.Is(k, "{") {
			return k + 1, s.Close(k)
		}
		if s.Is(k, "(") {
			k = s.Close(k)
		}
	}
	return 0, 0
}

// typeIn is the class that a catch names in its parentheses, the first of several:
// what is written like a class.
func (s *Stream) typeIn(from, to int) string {
	for k := from; k < to; k++ {
		if name := s.classAt(k); name != "" {
			return name
		}
	}
	return ""
}

// classAt is the class that is named at a token, without what it lies in; "" where
// what stands there is written like no class.
func (s *Stream) classAt(k int) string {
	if !s.IsIdent(k) || s.Any(k+1, ".", `\`, "::") {
		return ""
	}
	name := s.Text(k)
	if name = name[strings.LastIndexAny(name, `\:`)+1:]; name == "" || name[0] < 'A' || name[0] > 'Z' {
		return ""
	}
	return name
}

// rescued reads what stands behind "except" and "rescue": the first class, and the
// block up to where the next begins or the indentation ends.
func (s *Stream) rescued(i int) (name string, from, to int) {
	if i > 0 && s.Line(i-1) == s.Line(i) && !s.breaks(i-1) {
		return "", 0, 0 // a name of its own, or behind a statement
	}
	line, column := s.Line(i), s.column(i)
	from = i + 1
	for from < s.Len() && s.Line(from) == line && s.Kind(from) != Newline {
		if name == "" {
			name = s.classAt(from)
		}
		from++
	}
	for to = from; to < s.Len(); to++ {
		if !s.breaks(to) && s.Line(to) > line && s.column(to) <= column {
			break
		}
	}
	return name, from, to
}

// breaks reports whether a token stands for no sign of the text.
func (s *Stream) breaks(i int) bool {
	k := s.Kind(i)
	return k == Newline || k == Indent || k == Dedent
}

// idle reports whether a block does nothing.
func (s *Stream) idle(from, to int) bool {
	for k := from; k < to; k++ {
		if !s.breaks(k) && !s.Any(k, "pass", "nil", "continue", ";", "...", ".") {
			return false
		}
	}
	return true
}

// turn tells of what is raised in a block that caught something that it is turned
// into another; the block itself says no more than that.
func turn(f *model.Facts) {
	var out []model.FaultFact
	for i, x := range f.Faults {
		if x.What == model.FaultCatch {
			turned := false
			for k := i + 1; k < len(f.Faults) && f.Faults[k].Line <= x.EndLine; k++ {
				if f.Faults[k].What == model.FaultRaise {
					f.Faults[k].What, turned = model.FaultTurn, true
				}
			}
			if turned {
				continue
			}
		}
		out = append(out, x)
	}
	f.Faults = out
}
