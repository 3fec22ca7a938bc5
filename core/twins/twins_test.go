package twins_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// body is a function of so many different statements, made from a seed.
func body(name string, seed uint64, n int) string {
	r := rand.New(rand.NewPCG(seed, 7))
	var b strings.Builder
	fmt.Fprintf(&b, "export function %s(lot, box) {\n", name)
	for range n {
		switch r.IntN(5) {
		case 0:
			fmt.Fprintf(&b, "  if (lot.a%d > %d) { box.put(lot, %d) } else { return null }\n", r.IntN(9), r.IntN(9), r.IntN(9))
		case 1:
			fmt.Fprintf(&b, "  const v%d = [lot.x, ...box.y].map((z) => z * %d)\n", r.IntN(99), r.IntN(9))
		case 2:
			fmt.Fprintf(&b, "  for (const s of box.slots) { s.take({ at: %d, by: 'x' }) }\n", r.IntN(9))
		case 3:
			fmt.Fprintf(&b, "  try { await box.dry(lot) } catch (e) { throw new Error('%d') }\n", r.IntN(9))
		default:
			fmt.Fprintf(&b, "  switch (lot.stage) { case %d: box.n += 1; break }\n", r.IntN(9))
		}
	}
	b.WriteString("}\n")
	return b.String()
}

func told(s *model.Survey) []string {
	out := []string{}
	for _, t := range s.Twins {
		var ms []string
		for _, m := range t.Members {
			name := m.Path
			if m.Name != "" {
				name += "#" + m.Name
			}
			ms = append(ms, name)
		}
		out = append(out, strings.Join(ms, " = "))
	}
	return out
}

func TestTwinsAreFoundUnderOtherNames(t *testing.T) {
	one, other := body("dry", 1, 12), body("weigh", 2, 12)
	renamed := strings.NewReplacer("lot", "seed", "box", "crate", "dry", "air", "'x'", "`y`").Replace(one)
	changed := strings.Replace(one, "export function dry(lot, box) {\n", "export function dry(lot, box) {\n  log(lot)\n", 1)
	s := testkit.Survey(t, "-- a.ts --\n"+one+"-- b.ts --\n"+renamed+"-- c.ts --\n"+changed+"-- d.ts --\n"+other+"-- e.ts --\nexport const x = 1\n")
	require.Equal(t, []string{"a.ts = b.ts = c.ts"}, told(s))
	require.GreaterOrEqual(t, s.Twins[0].Alike, 0.8)
	require.Less(t, s.Twins[0].Alike, 1.0)
}

func TestTwinsInsideFiles(t *testing.T) {
	one := body("dry", 1, 10)
	s := testkit.Survey(t, "-- a.ts --\n"+one+body("a", 11, 14)+"-- b.ts --\n"+body("b", 12, 14)+strings.ReplaceAll(one, "dry", "air")+"-- c.ts --\n"+body("c", 13, 14))
	require.Equal(t, []string{"a.ts#dry = b.ts#air"}, told(s))
	require.Equal(t, 1, s.Twins[0].Members[0].Line)
}

func TestShortCodeAndOtherPeoplesAreNotCompared(t *testing.T) {
	short := body("dry", 1, 1)
	long := body("dry", 1, 12)
	s := testkit.Survey(t, "-- a.ts --\n"+short+"-- b.ts --\n"+short+"-- node_modules/x/a.js --\n"+long+"-- node_modules/y/a.js --\n"+long)
	require.Empty(t, told(s))
}

// TestEveryPairThatIsAlikeIsFound holds the search against comparing all with
// all, over random sets of near copies.
func TestEveryPairThatIsAlikeIsFound(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	tree := ""
	for i := range 40 {
		text := body("f", uint64(r.IntN(12)), 14)
		lines := strings.SplitAfter(text, "\n")
		if k := 1 + r.IntN(len(lines)-3); r.IntN(2) == 0 {
			lines = append(lines[:k:k], lines[k+1:]...)
		}
		tree += fmt.Sprintf("-- f%02d.ts --\n%s", i, strings.Join(lines, ""))
	}
	s := testkit.Survey(t, tree)
	sets := map[string]map[uint32]bool{}
	for _, f := range s.Files {
		m := map[uint32]bool{}
		for b := f.Facts.Prints; len(b) > 0; b = b[4:] {
			m[uint32(b[0])|uint32(b[1])<<8|uint32(b[2])<<16|uint32(b[3])<<24] = true
		}
		sets[f.Path] = m
	}
	together := map[string]int{}
	for i, g := range s.Twins {
		for _, m := range g.Members {
			if m.Name == "" {
				together[m.Path] = i + 1
			}
		}
	}
	pairs := 0
	for a, x := range sets {
		for b, y := range sets {
			if a >= b {
				continue
			}
			both := 0
			for p := range x {
				if y[p] {
					both++
				}
			}
			if float64(both)/float64(len(x)+len(y)-both) >= 0.8 {
				pairs++
				require.NotZero(t, together[a], a)
				require.Equal(t, together[a], together[b], "%s and %s", a, b)
			}
		}
	}
	require.Greater(t, pairs, 20)
}
