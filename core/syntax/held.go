package syntax

import (
	"slices"

	"jantel/core/model"
)

// MaxHeld bounds how many texts of one catalogue are kept, MaxText how much of
// each, in bytes.
const (
	MaxHeld  = 10000
	MaxText  = 120
	maxTable = 8 // how deep tables lie in each other
)

// Held is a text of a catalogue as it is kept.
func Held(key, text string, line int) model.Literal {
	return model.Literal{Name: key, Value: clip(text, MaxText), Line: line}
}

// heldTexts are the texts by name that a file of code holds, where that is all it
// does: a table that is handed out, or one that is filled key by key. Whether it is
// a catalogue, its place tells.
func heldTexts(f *model.Facts, s *Stream) []model.Literal {
	if slices.ContainsFunc(f.Definitions, func(d model.Definition) bool {
		return d.Kind == model.DefFunction || d.Kind == model.DefMethod || d.Kind == model.DefClass || d.Kind == model.DefComponent
	}) {
		return nil
	}
	h := &holder{s: s}
	for i := 0; i < len(s.Tokens) && len(h.out) < MaxHeld; i++ {
		switch {
		case s.Kind(i) != Ident && !s.Is(i, "="):
		case s.Any(i, "return", "default", "="):
			if open := h.opens(i + 1); open > 0 {
				h.table(open, "", 0)
				i = s.Close(open)
			}
		case s.Is(i+1, "[") && s.Kind(i+2) == String && s.Match(i+3, "]", "=") && s.Kind(i+5) == String:
			h.keep(s.Unquote(i+2), i+5)
		}
	}
	return h.out
}

type holder struct {
	s   *Stream
	out []model.Literal
}

// opens is where a table opens that starts at i, 0 where none does.
func (h *holder) opens(i int) int {
	switch {
	case h.s.Any(i, "{", "["):
		return i
	case h.s.Match(i, "array", "("):
		return i + 1
	}
	return 0
}

func (h *holder) keep(key string, at int) {
	if len(h.out) < MaxHeld && len(key) <= 300 {
		h.out = append(h.out, Held(key, h.s.Unquote(at), h.s.Line(at)))
	}
}

// table keeps the texts of a table and of those in it, whose keys go on from the
// key they stand under.
func (h *holder) table(open int, under string, depth int) {
	s := h.s
	end := s.Close(open)
	for k := open + 1; k < end; k++ {
		value := h.value(k)
		if value == 0 {
			k = max(k, min(s.Close(k), end))
			continue
		}
		key := under + s.Unquote(k)
		inner := h.opens(value)
		switch {
		case inner > 0 && depth < maxTable:
			h.table(inner, key+".", depth+1)
			k = s.Close(inner)
		case s.Kind(value) == String:
			h.keep(key, value)
			k = value
		default:
			k = value - 1
		}
	}
}

// value is where the value of a key at k stands, 0 where k is no key.
func (h *holder) value(k int) int {
	s := h.s
	if s.Kind(k) != String && s.Kind(k) != Ident {
		return 0
	}
	switch {
	case s.Is(k+1, ":"), s.Is(k+1, "=>"):
		return k + 2
	case s.Match(k+1, "=", ">"):
		return k + 3
	}
	return 0
}
