package syntax

import (
	"encoding/binary"
	"slices"
)

// Alike is the share of fingerprints (by Jaccard) from which two pieces of code
// count as nearly the same.
const Alike = 0.8

// Lookups is how many of n fingerprints, the least first, have to be looked up
// to meet every set that is alike: two such sets share one of so many of each.
func Lookups(n int) int {
	return min(n-int(float64(n)*Alike+0.999999)+1, n)
}

// printSet makes sets of fingerprints; it keeps its room, so each goroutine has
// its own.
type printSet struct{ room, out []uint32 }

// of returns the fingerprints that b holds, sorted and each once.
func (o *printSet) of(b []byte) []byte {
	n := len(b) / 4
	if len(o.out) < n {
		o.room, o.out = make([]uint32, 2*n), make([]uint32, 2*n)
	}
	set := DecodePrints(o.out[:n], b)
	if n < few {
		slices.Sort(set)
	} else {
		set = radix(set, o.room[:n], 0, 1, 2, 3)
	}
	set = slices.Compact(set)
	out := make([]byte, 0, 4*len(set))
	for _, p := range set {
		out = binary.LittleEndian.AppendUint32(out, p)
	}
	return out
}

// DecodePrints unpacks fingerprints into room of their number.
func DecodePrints(into []uint32, b []byte) []uint32 {
	for i := range into {
		into[i] = binary.LittleEndian.Uint32(b[4*i:])
	}
	return into
}

// SortPairs sorts numbers made of two of 32 bits by both, or by the upper alone
// where they stand by the lower already.
func SortPairs(a []uint64, upper bool) []uint64 {
	digits := []uint{0, 1, 2, 3, 4, 5, 6, 7}
	if upper {
		digits = digits[4:]
	}
	return radix(a, make([]uint64, len(a)), digits...)
}

// few is the length below which sorting by comparison is the faster one.
const few = 64

// radix sorts by the given bytes of each number, the least first (0 for the
// lowest), and keeps the order of equal ones. Fingerprints come by the million
// and are spread evenly, so that sorting them by digits takes a fifth of what
// comparing takes. The result may lie in room, which must be as long as a.
func radix[T uint32 | uint64](a, room []T, digits ...uint) []T {
	for _, d := range digits {
		shift := 8 * d
		var at [256]int
		for _, x := range a {
			at[uint8(x>>shift)]++
		}
		if slices.Contains(at[:], len(a)) {
			continue // they are all alike here
		}
		sum := 0
		for i, n := range at {
			at[i] = sum
			sum += n
		}
		for _, x := range a {
			i := uint8(x >> shift)
			room[at[i]] = x
			at[i]++
		}
		a, room = room, a
	}
	return a
}
