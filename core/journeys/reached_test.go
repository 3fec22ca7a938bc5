package journeys_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"jantel/core/calls"
	"jantel/core/journeys"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// chained is a module in which functions call others as a seed has it, with tests
// that begin somewhere.
func chained(seed uint64) string {
	r := rand.New(rand.NewPCG(seed, 11))
	n := 4 + r.IntN(14)
	var b strings.Builder
	b.WriteString("-- go.mod --\nmodule vault\n")
	for i := range n {
		fmt.Fprintf(&b, "-- lots/f%02d.go --\npackage lots\n\nfunc f%02d() {\n", i, i)
		for range r.IntN(3) {
			fmt.Fprintf(&b, "\tf%02d()\n", r.IntN(n))
		}
		b.WriteString("}\n")
	}
	for k := range 1 + r.IntN(4) {
		fmt.Fprintf(&b, "-- lots/t%d_test.go --\npackage lots\n\nimport \"testing\"\n\nfunc help%d() { f%02d() }\n\nfunc TestIt%d(t *testing.T) { help%d(); f%02d() }\n",
			k, k, r.IntN(n), k, k, r.IntN(n))
	}
	return b.String()
}

// TestWhatATestReachesIsWhatAWalkFinds holds it against the plainest walk there is.
func TestWhatATestReachesIsWhatAWalkFinds(t *testing.T) {
	reachedAny := false
	for seed := range uint64(40) {
		j := judgement.Judge(testkit.Survey(t, chained(seed)), model.Brief{}, nil)
		g := calls.Of(j.Reading.Survey)
		want := map[string]map[string]int{}
		for i, f := range j.Reading.Files {
			if !strings.HasSuffix(f.Path, "_test.go") {
				continue
			}
			far := map[string]int{}
			at := []calls.Ref{{File: int32(i), Definition: -1}}
			for d := range f.Facts.Definitions {
				at = append(at, calls.Ref{File: int32(i), Definition: int32(d)})
			}
			for step := 1; step <= 5; step++ {
				var next []calls.Ref
				for _, ref := range at {
					for _, e := range g.From(ref) {
						name := g.Path(e.To) + " " + g.Name(e.To)
						if _, seen := far[name]; e.Kind == model.CallPlain && !seen {
							far[name] = step
							next = append(next, e.To)
						}
					}
				}
				at = next
			}
			for name, step := range far {
				if p, _, _ := strings.Cut(name, " "); strings.HasSuffix(p, "_test.go") {
					continue
				}
				if want[name] == nil {
					want[name] = map[string]int{}
				}
				want[name][f.Path] = step
			}
		}
		got := map[string]map[string]int{}
		for _, tb := range journeys.TestedBy(j.Reading) {
			at := map[string]int{}
			for k, r := range tb.Tests {
				at[r.Path] = r.Distance
				require.Equal(t, "unit", r.Kind)
				if k > 0 {
					require.LessOrEqual(t, tb.Tests[k-1].Distance, r.Distance, "the nearest first")
				}
			}
			got[tb.Path+" "+tb.Name] = at
			reachedAny = true
		}
		// A helper that stands in a test costs a step from the test, none from its file:
		// both walks begin at all that the file defines.
		require.Equal(t, want, got, "seed %d", seed)
	}
	require.True(t, reachedAny)
}
