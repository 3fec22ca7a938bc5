package syntax

import (
	"encoding/binary"
	"sync"

	"jantel/core/model"
)

// Fingerprints of code (Schleimer, Wilkerson and Aiken, SIGMOD 2003): hashes of
// runs of normalised tokens, of which each window keeps the least, so that code
// that is alike keeps the same ones wherever it stands.
const (
	printRun    = 12 // tokens in a run
	printWindow = 8  // runs of which one is kept
	// PrintLeast is the number of tokens below which nothing is compared:
	// shorter code is alike by chance.
	PrintLeast = 60
)

// prints fills in the fingerprints of a file, and which of them belong to each
// definition that is long enough. Names, numbers and texts count as alike,
// words of the language and signs as what they are.
func prints(f *model.Facts, s *Stream) {
	if len(s.Tokens) < PrintLeast {
		return
	}
	const base = 1_000_003
	power := uint64(1)
	for range printRun - 1 {
		power *= base
	}
	var (
		ring   [printRun]uint64
		window [printWindow]uint64
		lines  []int32
		out    []byte
		hash   uint64
		n      int
		last   = -1 // the run that was kept last
		at     = -1 // the least run of the window
	)
	// The line of each token that counts.
	counted := lineRoom.Get().(*[]int32)
	defer func() {
		*counted = (*counted)[:0]
		lineRoom.Put(counted)
	}()
	for i := range s.Tokens {
		v := normal(s, i)
		if v == 0 {
			continue
		}
		*counted = append(*counted, s.Tokens[i].Line)
		slot := n % printRun
		if n >= printRun {
			hash -= ring[slot] * power
		}
		ring[slot] = v
		hash = hash*base + v
		n++
		if n < printRun {
			continue
		}
		run := n - printRun
		h := hash
		h ^= h >> 33
		h *= 0xff51afd7ed558ccd
		h ^= h >> 33
		window[run%printWindow] = h
		switch {
		case at < 0 || h <= window[at%printWindow]:
			at = run // the rightmost of equals
		case at <= run-printWindow:
			// The least has left the window: the next is looked for.
			at = run
			for k := run - 1; k > run-printWindow; k-- {
				if window[k%printWindow] < window[at%printWindow] {
					at = k
				}
			}
		}
		if run >= printWindow-1 && at != last {
			last = at
			out = binary.LittleEndian.AppendUint32(out, uint32(window[at%printWindow]>>16))
			lines = append(lines, (*counted)[at])
		}
	}
	if n < PrintLeast || len(lines) == 0 {
		return
	}
	f.Prints, f.Tokens = out, n
	for i := range f.Definitions {
		d := &f.Definitions[i]
		switch d.Kind {
		case model.DefFunction, model.DefMethod, model.DefComponent, model.DefClass:
		default:
			continue
		}
		tokens := search(*counted, int32(d.EndLine)+1) - search(*counted, int32(d.Line))
		if tokens < PrintLeast {
			continue
		}
		from, to := search(lines, int32(d.Line)), search(lines, int32(d.EndLine)+1)
		if to-from > 2 {
			f.Spans = append(f.Spans, model.Span{Definition: i, From: from, To: to, Tokens: tokens})
		}
	}
}

// lineRoom keeps the room of files that were read for those still to be read.
var lineRoom = sync.Pool{New: func() any { return new([]int32) }}

// search is the index of the first line that is at least l.
func search(lines []int32, l int32) int {
	lo, hi := 0, len(lines)
	for lo < hi {
		if m := (lo + hi) / 2; lines[m] < l {
			lo = m + 1
		} else {
			hi = m
		}
	}
	return lo
}

// normal is what a token counts as, 0 for none.
func normal(s *Stream, i int) uint64 {
	t := &s.Tokens[i]
	switch t.Kind {
	case Ident:
		if n := t.End - t.Start; n >= 2 && n <= 8 {
			if w := keyword(string(s.Src[t.Start:t.End])); w != 0 {
				return w
			}
		}
		return 1
	case Number:
		return 2
	case String, Regex:
		return 3
	case Punct, TagOpen, TagEnd:
		if t.End > t.Start {
			return 16 + uint64(s.Src[t.Start])
		}
	case Text:
		return 4
	}
	return 0
}

// keyword tells apart the words that give code its shape, 0 for all others.
func keyword(w string) uint64 {
	switch w {
	case "if":
		return 301
	case "else", "elif", "elsif":
		return 302
	case "for", "foreach":
		return 303
	case "while", "until", "loop":
		return 304
	case "return":
		return 305
	case "func", "function", "def", "fn", "fun", "sub":
		return 306
	case "class", "struct", "impl", "trait":
		return 307
	case "switch", "match", "select", "when":
		return 308
	case "case":
		return 309
	case "try", "begin":
		return 310
	case "catch", "except", "rescue":
		return 311
	case "throw", "raise", "panic":
		return 312
	case "new":
		return 313
	case "var", "let", "const", "val", "my":
		return 314
	case "import", "use", "require", "include":
		return 315
	case "await", "yield", "async":
		return 316
	case "break":
		return 317
	case "continue", "next":
		return 318
	case "in", "of":
		return 319
	case "not", "and", "or":
		return 320
	case "nil", "null", "None", "undef":
		return 321
	case "true", "false", "True", "False":
		return 322
	}
	return 0
}
