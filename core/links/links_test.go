package links_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"jantel/core/links"
	"jantel/core/model"

	"github.com/stretchr/testify/require"
)

func every(string) bool { return true }

func edges(pairs ...string) (out []model.Link) {
	for _, p := range pairs {
		out = append(out, model.Link{From: p[:1], To: p[1:2], Kind: model.LinkImport})
	}
	return out
}

func TestCyclesAreFoundWithTheFewestLinksToCut(t *testing.T) {
	require.Empty(t, links.FileCycles(edges("ab", "bc", "ac"), every))
	got := links.FileCycles(edges("ab", "ba", "xy", "yz", "zx", "xz", "aa"), every)
	require.Equal(t, []model.Cycle{
		{Level: "file", Members: []string{"a", "b"}, Break: []model.CycleLink{{From: "a", To: "b"}}, Exact: true},
		{Level: "file", Members: []string{"x", "y", "z"}, Break: []model.CycleLink{{From: "z", To: "x"}}, Exact: true},
	}, got)
	require.Empty(t, links.FileCycles(edges("ab", "ba"), func(p string) bool { return p == "a" }), "only judged files count")
	for _, k := range []model.LinkKind{model.LinkHTTP, model.LinkMessage, model.LinkLazyImport} {
		require.Empty(t, links.FileCycles([]model.Link{{From: "a", To: "b", Kind: model.LinkImport}, {From: "b", To: "a", Kind: k}}, every), k)
	}
}

// acyclic reports whether no ring is left, by taking leaves away.
func acyclic(ls []model.Link) bool {
	for len(ls) > 0 {
		from := map[string]bool{}
		for _, l := range ls {
			from[l.From] = true
		}
		var rest []model.Link
		for _, l := range ls {
			if from[l.To] {
				rest = append(rest, l)
			}
		}
		if len(rest) == len(ls) {
			return false
		}
		ls = rest
	}
	return true
}

func without(ls []model.Link, cut []model.CycleLink) (out []model.Link) {
	gone := map[model.CycleLink]bool{}
	for _, c := range cut {
		gone[c] = true
	}
	for _, l := range ls {
		if !gone[model.CycleLink{From: l.From, To: l.To}] {
			out = append(out, l)
		}
	}
	return out
}

func TestWhatIsCutOpensEveryRingAndIsFewest(t *testing.T) {
	for seed := range uint64(120) {
		r := rand.New(rand.NewPCG(seed, 3))
		n := 3 + r.IntN(5)
		seen := map[[2]int]bool{}
		var ls []model.Link
		for range n + r.IntN(n) {
			a, b := r.IntN(n), r.IntN(n)
			if a != b && !seen[[2]int{a, b}] {
				seen[[2]int{a, b}] = true
				ls = append(ls, model.Link{From: fmt.Sprint(a), To: fmt.Sprint(b), Kind: model.LinkImport})
			}
		}
		var cut []model.CycleLink
		for _, c := range links.FileCycles(ls, every) {
			require.True(t, c.Exact)
			cut = append(cut, c.Break...)
		}
		require.True(t, acyclic(without(ls, cut)))
		require.Len(t, cut, fewest(ls), "by trying every subset")
	}
}

func fewest(ls []model.Link) int {
	best := len(ls)
	for set := range 1 << len(ls) {
		var rest []model.Link
		n := 0
		for i, l := range ls {
			if set&(1<<i) != 0 {
				n++
			} else {
				rest = append(rest, l)
			}
		}
		if n < best && acyclic(rest) {
			best = n
		}
	}
	return best
}

func TestALargeRingIsCutGreedilyAndSaysSo(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 1))
	var ls []model.Link
	for i := range 40 {
		ls = append(ls, model.Link{From: fmt.Sprintf("f%02d", i), To: fmt.Sprintf("f%02d", (i+1)%40), Kind: model.LinkImport})
		ls = append(ls, model.Link{From: fmt.Sprintf("f%02d", i), To: fmt.Sprintf("f%02d", r.IntN(40)), Kind: model.LinkImport})
	}
	c := links.FileCycles(ls, every)
	require.Len(t, c, 1)
	require.False(t, c[0].Exact)
	rest := without(ls, c[0].Break)
	var loops []model.Link
	for _, l := range rest {
		if l.From != l.To {
			loops = append(loops, l)
		}
	}
	require.True(t, acyclic(loops))
	require.Less(t, len(c[0].Break), 25)
}

func TestTypesAloneCloseNoRing(t *testing.T) {
	all := func(string) bool { return true }
	ring := []model.Link{
		{From: "desk/lots.ts", To: "vault/shelf.ts", Kind: model.LinkImport},
		{From: "vault/shelf.ts", To: "desk/lots.ts", Kind: model.LinkImport},
	}
	require.Len(t, links.FileCycles(ring, all), 1)
	require.Len(t, links.FolderCycles(ring, all), 1)
	ring[1].TypeOnly = true
	require.Empty(t, links.FileCycles(ring, all))
	require.Empty(t, links.FolderCycles(ring, all))
}
