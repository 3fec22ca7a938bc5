package calls_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// tangle is a tree in which functions of several files and interfaces call each
// other as a seed has it.
func tangle(seed uint64) string {
	r := rand.New(rand.NewPCG(seed, 30))
	files := 2 + r.IntN(6)
	var b strings.Builder
	b.WriteString("-- go.mod --\nmodule vault\n")
	fmt.Fprintf(&b, "-- lots/store.go --\npackage lots\n\ntype Store interface {\n\tPut(int)\n\tTake() int\n}\n")
	for f := range files {
		fmt.Fprintf(&b, "-- lots/f%d.go --\npackage lots\n\ntype shelf%d struct{ next Store }\n\nfunc (s *shelf%d) Put(x int) {}\n\nfunc (s *shelf%d) Take() int { return 1 }\n",
			f, f, f, f)
		for n := range 1 + r.IntN(5) {
			fmt.Fprintf(&b, "\nfunc f%dn%d(s Store) {\n", f, n)
			for range r.IntN(5) {
				switch r.IntN(3) {
				case 0:
					fmt.Fprintf(&b, "\tf%dn0(s)\n", r.IntN(files))
				case 1:
					b.WriteString("\ts.Put(1)\n")
				default:
					fmt.Fprintf(&b, "\t_ = &shelf%d{next: s}\n", r.IntN(files))
				}
			}
			b.WriteString("}\n")
		}
		if r.IntN(2) == 0 {
			fmt.Fprintf(&b, "-- lots/f%d_test.go --\npackage lots\n\nimport \"testing\"\n\nfunc TestF%d(t *testing.T) { f%dn0(nil) }\n", f, f, f)
		}
	}
	return b.String()
}

// TestEachLinkIsFoundFromBothItsEnds: the order of the links, the numbers of
// definitions and the links by either end say the same.
func TestEachLinkIsFoundFromBothItsEnds(t *testing.T) {
	for seed := range uint64(25) {
		s := testkit.Survey(t, tangle(seed))
		g := calls.Of(s)
		require.NotEmpty(t, g.Edges, "seed %d", seed)
		from, to := 0, 0
		for n := range g.Places() {
			ref := g.RefAt(n)
			require.Equal(t, n, g.Place(ref), "seed %d", seed)
			for _, e := range g.From(ref) {
				require.Equal(t, n, g.Place(e.From))
			}
			for _, e := range g.To(ref) {
				require.Equal(t, n, g.Place(e.To), "a member of an interface stands where that does")
			}
			from += len(g.From(ref))
			to += len(g.To(ref))
			if ref.Definition < 0 {
				require.Empty(t, g.Name(ref))
				require.Nil(t, g.Definition(ref))
			} else {
				require.Equal(t, g.Definition(ref).Qualified(), g.Name(ref))
			}
		}
		require.Equal(t, len(g.Edges), from, "seed %d: every link begins somewhere, once", seed)
		require.Equal(t, len(g.Edges), to, "seed %d: and ends somewhere, once", seed)
		for i, e := range g.Edges {
			if i > 0 {
				require.LessOrEqual(t, g.Place(g.Edges[i-1].From), g.Place(e.From), "by file and definition")
			}
			if e.To.Member != 0 {
				require.Contains(t, []string{"Store.Put", "Store.Take"}, g.Name(e.To))
			}
		}
	}
}

// TestTheSameTreeGivesTheSameGraph: files are followed side by side, and members of
// interfaces numbered as they are met; that must not show.
func TestTheSameTreeGivesTheSameGraph(t *testing.T) {
	for seed := range uint64(5) {
		tree := tangle(seed)
		first := calls.Of(testkit.Survey(t, tree))
		for range 4 {
			again := calls.Of(testkit.Survey(t, tree))
			require.Equal(t, first.Edges, again.Edges)
			require.Equal(t, first.Told, again.Told)
			require.Equal(t, first.Untold, again.Untold)
		}
	}
}

// TestAFileWithoutFactsHasAPlaceAndNoLinks: what was not read is still numbered.
func TestAFileWithoutFactsHasAPlaceAndNoLinks(t *testing.T) {
	s := testkit.Survey(t, "-- a.go --\npackage a\n\nfunc f() { g() }\n\nfunc g() {}\n-- b.bin --\n\x00\x01\n-- c.txt --\nwords\n")
	s.Files[1].Facts = nil
	g := calls.Of(s)
	require.Equal(t, 3+2, g.Places(), "three files and two functions")
	ref, ok := g.AtPath("b.bin", 1)
	require.True(t, ok)
	require.Equal(t, calls.Ref{File: 1, Definition: -1}, ref)
	require.Empty(t, g.From(ref))
	require.Empty(t, g.To(ref))
	_, ok = g.AtPath("nowhere.go", 1)
	require.False(t, ok)
	at, _ := g.AtPath("a.go", 3)
	require.Equal(t, "f", g.Name(at))
	require.Len(t, g.From(at), 1)
	require.Equal(t, model.CallPlain, g.From(at)[0].Kind)
}
