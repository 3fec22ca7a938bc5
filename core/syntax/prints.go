package syntax

import (
	"encoding/binary"
	"strings"
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

// nestedPrints is how deep definitions may lie in each other on average.
const nestedPrints = 50

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
	room := printRooms.Get().(*printRoom)
	counted, out, lines := room.counted[:0], room.out[:0], room.lines[:0]
	defer func() {
		room.counted, room.out, room.lines = counted, out, lines
		printRooms.Put(room)
	}()
	var (
		ring   [printRun]uint64
		window [printWindow]uint64
		hash   uint64
		slot   int    // of the oldest token in the ring
		at     = -1   // the least run of the window
		last   = -1   // the run that was kept last
		least  uint64 // its hash
	)
	for i := range s.Tokens {
		v := uint64(s.Tokens[i].shape)
		if v == 0 {
			continue
		}
		counted = append(counted, s.Tokens[i].Line)
		hash = (hash-ring[slot]*power)*base + v // nothing leaves while the ring is filling
		ring[slot] = v
		if slot++; slot == printRun {
			slot = 0
		}
		run := len(counted) - printRun
		if run < 0 {
			continue
		}
		h := hash
		h ^= h >> 33
		h *= 0xff51afd7ed558ccd
		h ^= h >> 33
		window[run%printWindow] = h
		switch {
		case at < 0 || h <= least:
			at, least = run, h // the rightmost of equals
		case at <= run-printWindow:
			// The least has left the window: the next is looked for.
			at, least = run, h
			for k := run - 1; k > run-printWindow; k-- {
				if x := window[k%printWindow]; x < least {
					at, least = k, x
				}
			}
		}
		if run >= printWindow-1 && at != last {
			last = at
			out = binary.LittleEndian.AppendUint32(out, uint32(least>>16))
			lines = append(lines, counted[at])
		}
	}
	n := len(counted)
	if n < PrintLeast || len(lines) == 0 {
		return
	}
	f.Prints, f.Tokens = room.set.of(out), n
	// Definitions lie in each other a few deep; where a text nests them without
	// end, those that come after so much are not told apart.
	left := nestedPrints * n
	for i := range f.Definitions {
		d := &f.Definitions[i]
		switch d.Kind {
		case model.DefFunction, model.DefMethod, model.DefComponent, model.DefClass:
		default:
			continue
		}
		tokens := search(counted, int32(d.EndLine)+1) - search(counted, int32(d.Line))
		if tokens < PrintLeast {
			continue
		}
		if left -= tokens; left < 0 {
			break
		}
		from, to := search(lines, int32(d.Line)), search(lines, int32(d.EndLine)+1)
		if to-from > 2 {
			f.Spans = append(f.Spans, model.Span{Definition: i, Tokens: tokens, Prints: room.set.of(out[4*from : 4*to])})
		}
	}
}

// printRoom is what is needed on the way: the line of each token that counts,
// the prints so far and the line of each.
type printRoom struct {
	counted, lines []int32
	out            []byte
	set            printSet
}

// printRooms keeps the room of files that were read for those still to be read.
var printRooms = sync.Pool{New: func() any { return new(printRoom) }}

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

// aName is what a word counts as that is no word of the language.
const aName = 1

// normal is what a token counts as, 0 for none.
func normal(src []byte, t *Token) uint16 {
	switch t.Kind {
	case Ident:
		if t.End <= t.Start {
			return aName
		}
		if w := &words[wordSlot(src[t.Start:t.End])]; w.as != 0 && w.word == string(src[t.Start:t.End]) {
			return w.as
		}
		return aName
	case Number:
		return 2
	case String, Regex:
		return 3
	case Punct, TagOpen, TagEnd:
		if t.End > t.Start {
			return 16 + uint16(t.sign)
		}
	case Text:
		if t.sign == '#' {
			return 0 // a directive of a preprocessor: lists of them are all alike
		}
		return 4
	}
	return 0
}

// shapes are the words that give code its shape; those in one row count as the
// same word.
var shapes = []string{
	"if", "else elif elsif", "for foreach", "while until loop", "return", "func function def fn fun sub",
	"class struct impl trait", "switch match select when", "case",
	"try begin", "catch except rescue", "throw raise panic", "new", "var let const val my",
	"import use require include", "await yield async", "break", "continue next",
	"in of", "not and or", "nil null None undef", "true false True False",
}

// words is a table of the shapes in which no two share a slot, so that a word
// is told with one comparison.
var words = func() (table [1 << 13]struct {
	word string
	as   uint16
}) {
	for i, row := range shapes {
		for _, w := range strings.Fields(row) {
			slot := &table[wordSlot([]byte(w))]
			if slot.as != 0 {
				panic("the words " + w + " and " + slot.word + " share a slot")
			}
			slot.word, slot.as = w, 301+uint16(i)
		}
	}
	return table
}()

// wordSlot is where a word, which is not empty, stands in the table if it is
// one of the shapes.
func wordSlot(w []byte) int {
	n := len(w)
	return (int(w[0])*31 ^ int(w[n-1])*97 ^ int(w[n/2])*257 ^ n*1021) & (1<<13 - 1)
}
