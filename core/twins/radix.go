package twins

import "slices"

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
