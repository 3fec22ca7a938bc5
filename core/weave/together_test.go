package weave

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
)

func TestFeaturesOfTheSameFoldersStandTogether(t *testing.T) {
	folders := map[string]map[string]int{
		"accession":   {"routes": 10, "data": 10},
		"drying":      {"chamber": 40},
		"germination": {"chamber": 30, "plates": 5},
		"grower":      {"routes": 8, "data": 12},
		"label":       {"print": 9},
		"request":     {"routes": 10, "data": 10, "print": 1},
	}
	names := []string{"accession", "drying", "germination", "grower", "label", "request"}
	together(names, folders)
	at := func(n string) int { return slices.Index(names, n) }
	apart := func(a, b string) int { return max(at(a)-at(b), at(b)-at(a)) }
	require.Equal(t, 1, apart("drying", "germination"), "%v", names)
	require.LessOrEqual(t, apart("accession", "grower"), 2, "%v", names)
	require.LessOrEqual(t, apart("accession", "request"), 2, "%v", names)
	require.LessOrEqual(t, apart("grower", "request"), 2, "%v", names)
}

// The order is the same however the names come in a fixed first order, loses
// none, and does not depend on how maps are gone through.
func TestTheOrderOfFeaturesIsAPermutationAndTheSameEachTime(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 2))
	for range 50 {
		var names []string
		folders := map[string]map[string]int{}
		for i := range 2 + r.IntN(40) {
			n := fmt.Sprintf("f%02d", i)
			names = append(names, n)
			folders[n] = map[string]int{}
			for range 1 + r.IntN(5) {
				folders[n][fmt.Sprintf("d%d", r.IntN(12))] += 1 + r.IntN(200)
			}
		}
		first := slices.Clone(names)
		together(first, folders)
		for range 3 {
			again := slices.Clone(names)
			together(again, folders)
			require.Equal(t, first, again)
		}
		sorted := slices.Clone(first)
		slices.Sort(sorted)
		require.Equal(t, names, sorted)
	}
}
