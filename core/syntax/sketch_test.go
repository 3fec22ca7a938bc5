package syntax

import (
	"encoding/binary"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
)

func TestSortingByDigitsIsSorting(t *testing.T) {
	r := rand.New(rand.NewPCG(19, 23))
	var sets printSet // kept from one to the next, as a reader keeps it
	for range 200 {
		n := 1 + r.IntN(400)
		few := make([]uint32, n)
		pairs := make([]uint64, n)
		packed := []byte{}
		for i := range few {
			few[i] = r.Uint32() >> r.IntN(30) // many alike in their upper digits
			pairs[i] = uint64(few[i])<<32 | uint64(i)
			packed = binary.LittleEndian.AppendUint32(packed, few[i])
		}
		want := slices.Compact(slices.Sorted(slices.Values(few)))
		got := sets.of(packed)
		require.Equal(t, want, DecodePrints(make([]uint32, len(got)/4), got)[:len(want):len(want)])
		require.Len(t, got, 4*len(want))
		sorted := slices.Sorted(slices.Values(pairs))
		require.Equal(t, sorted, SortPairs(slices.Clone(pairs), true), "equal ones stay in their order")
		r.Shuffle(n, func(i, j int) { pairs[i], pairs[j] = pairs[j], pairs[i] })
		require.Equal(t, sorted, SortPairs(pairs, false))
	}
}

// TestAlikeSetsShareALeast: what is looked up is enough, for every size and for
// as few common prints as being alike allows.
func TestAlikeSetsShareALeast(t *testing.T) {
	r := rand.New(rand.NewPCG(29, 31))
	alike := 0
	for range 3000 {
		n := 3 + r.IntN(60)
		seen := map[uint32]bool{}
		fresh := func() uint32 {
			for {
				if p := r.Uint32N(5000); !seen[p] {
					seen[p] = true
					return p
				}
			}
		}
		var a, b []uint32
		for range n {
			p := fresh()
			a, b = append(a, p), append(b, p)
		}
		for range r.IntN(n/6 + 2) {
			a = append(a, fresh())
		}
		for range r.IntN(n/6 + 2) {
			b = append(b, fresh())
		}
		slices.Sort(a)
		slices.Sort(b)
		if float64(n)/float64(len(seen)) < Alike {
			continue
		}
		alike++
		shared := false
		for _, p := range a[:Lookups(len(a))] {
			shared = shared || slices.Contains(b[:Lookups(len(b))], p)
		}
		require.True(t, shared, "%v %v", a, b)
	}
	require.Greater(t, alike, 1000)
}
