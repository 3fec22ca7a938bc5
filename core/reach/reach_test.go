package reach_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/reach"
	"jantel/core/reading"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

const tree = `-- counter/data/lots.ts --
export const find = (id: string) => id
export const drop = (id: string) => id
-- counter/logic/lots.ts --
import { find } from '../data/lots'
export const one = (id: string) => find(id)
-- counter/handlers/lots.ts --
import { one } from '../logic/lots'
export const show = (id: string) => one(id)
-- counter/handlers/growers.ts --
import type { Lot } from '../logic/kinds'
import { one } from '../logic/lots'
export const ask = (l: Lot) => one(l.id)
-- counter/logic/kinds.ts --
export interface Lot { id: string }
-- counter/logic/lots.test.ts --
import { one } from './lots'
it('finds', () => { expect(one('a')).toBe('a') })
`

func of(t *testing.T, text string) *reading.Reading {
	t.Helper()
	return judgement.Judge(testkit.Survey(t, text), model.Brief{}, nil).Reading
}

// places are the paths and names of a step.
func places(list []reach.Reached) (out []string) {
	for _, p := range list {
		out = append(out, strings.TrimSuffix(p.Path+" "+p.Name, " "))
	}
	return out
}

func TestAChangeReachesWhatNeedsIt(t *testing.T) {
	x := reach.Of(of(t, tree), "counter/data/lots.ts")
	require.Equal(t, 3, x.Files)
	require.Equal(t, []string{"counter/logic/lots.ts"}, places(x.Steps[0].Places))
	require.Equal(t, []string{"counter/handlers/growers.ts", "counter/handlers/lots.ts"}, places(x.Steps[1].Places))
	require.Equal(t, []reach.FolderReach{{Path: "counter/handlers", Files: 2}, {Path: "counter/logic", Files: 1}}, x.Folders)
	require.Equal(t, []string{"counter/logic/lots.test.ts"}, places(x.Tests))
	require.Zero(t, x.Along.Files)
	require.Zero(t, reach.Of(of(t, tree), "counter/handlers").Files)
}

func TestTypesAloneAreCountedApart(t *testing.T) {
	x := reach.Of(of(t, tree), "counter/logic/kinds.ts")
	require.Zero(t, x.Files)
	require.Equal(t, 1, x.ByTypes)
}

func TestWhatComesAlongAndWhichCutMakesItLess(t *testing.T) {
	x := reach.Of(of(t, tree), "counter/handlers/lots.ts")
	require.Equal(t, 2, x.Along.Files)
	require.Equal(t, []reach.Saving{{From: "counter/handlers/lots.ts", To: "counter/logic/lots.ts", Line: 1, Saves: 2}}, x.Along.Cuts)
}

func TestTheReachOfOneDefinition(t *testing.T) {
	r := of(t, tree)
	x, ok := reach.OfDefinition(r, "counter/data/lots.ts", 1)
	require.True(t, ok)
	require.Equal(t, []string{"counter/logic/lots.ts one"}, places(x.Steps[0].Places))
	require.Equal(t, []string{"counter/handlers/growers.ts ask", "counter/handlers/lots.ts show"}, places(x.Steps[1].Places))
	require.True(t, x.Steps[1].Places[0].Sure)
	require.Equal(t, []string{"counter/logic/lots.test.ts"}, places(x.Tests))
	unused, ok := reach.OfDefinition(r, "counter/data/lots.ts", 2)
	require.True(t, ok)
	require.Zero(t, unused.Files, "nobody calls it, though its file is needed")
	_, ok = reach.OfDefinition(r, "nowhere.ts", 1)
	require.False(t, ok)
}

// Whatever the links, with rings among them: who reaches whom agrees both ways,
// and what is counted is what is listed where all is listed.
func TestReachHoldsWhateverTheLinks(t *testing.T) {
	for seed := range uint64(25) {
		rnd := rand.New(rand.NewPCG(seed, 3))
		n := 3 + rnd.IntN(9)
		var b strings.Builder
		for i := range n {
			fmt.Fprintf(&b, "-- a/f%d.ts --\n", i)
			for j := range n {
				if i != j && rnd.IntN(4) == 0 {
					fmt.Fprintf(&b, "import { x%d } from './f%d'\nx%d()\n", j, j, j)
				}
			}
			fmt.Fprintf(&b, "export const x%d = () => %d\n", i, i)
		}
		r := of(t, b.String())
		needs := map[string]map[string]bool{}
		for i := range n {
			p := fmt.Sprintf("a/f%d.ts", i)
			x := reach.Of(r, p)
			listed := 0
			for k, s := range x.Steps {
				require.Equal(t, k+1, s.Distance, "no step is left out")
				require.Len(t, s.Places, s.Count)
				listed += s.Count
				for _, to := range s.Places {
					if needs[to.Path] == nil {
						needs[to.Path] = map[string]bool{}
					}
					needs[to.Path][p] = true
				}
			}
			require.Equal(t, x.Files, listed)
			whole(t, reach.Draw(r, p, reach.Touched), x.Files)
			whole(t, reach.Draw(r, p, reach.Along), x.Along.Files)
			named, ok := reach.DrawDefinition(r, p, 1, reach.Touched)
			require.True(t, ok)
			whole(t, named, named.Reached)
		}
		for i := range n {
			p := fmt.Sprintf("a/f%d.ts", i)
			along := reach.Of(r, p).Along
			require.Equal(t, len(needs[p]), along.Files, "seed %d %s", seed, p)
			for _, c := range along.Cuts {
				require.LessOrEqual(t, c.Saves, along.Files)
			}
		}
	}
}

// whole holds that a picture shows all that is reached, each box within it, none
// over another, and each joined with one that lies nearer.
func whole(t *testing.T, x *reach.ReachPicture, reached int) {
	t.Helper()
	require.Equal(t, reached, x.Reached+x.Tests)
	counted, joined := 0, map[int]bool{0: true}
	for _, tie := range x.Ties {
		require.Less(t, x.Boxes[tie.From].Column, x.Boxes[tie.To].Column)
		joined[tie.To] = true
	}
	for i, a := range x.Boxes {
		require.True(t, joined[i], "a box that nothing leads to")
		require.LessOrEqual(t, a.X+a.W, x.Width)
		require.LessOrEqual(t, a.Y+a.H, x.Height+0.1)
		if i > 0 {
			counted += a.Count
		}
		for _, b := range x.Boxes[:i] {
			require.False(t, a.X < b.X+b.W && b.X < a.X+a.W && a.Y < b.Y+b.H && b.Y < a.Y+a.H, "one over another")
		}
	}
	require.Equal(t, reached, counted)
}

func TestAColumnThatIsTooTallIsFolded(t *testing.T) {
	var b strings.Builder
	b.WriteString("-- core.ts --\nexport const x = 1\n")
	for i := range 40 {
		fmt.Fprintf(&b, "-- part%02d/use.ts --\nimport { x } from '../core'\nx()\n", i)
	}
	b.WriteString("-- core.test.ts --\nimport { x } from './core'\ntest('x', () => { expect(x).toBe(1) })\n")
	x := reach.Draw(of(t, b.String()), "core.ts", reach.Touched)
	require.Equal(t, 40, x.Reached)
	require.Equal(t, 1, x.Tests)
	require.Len(t, x.Boxes, 1+9+1+1)
	require.Equal(t, "31 more", x.Boxes[10].Name)
	require.Empty(t, x.Boxes[10].Path)
	require.True(t, x.Boxes[11].Tests)
	require.Equal(t, []string{"from here", "directly"}, []string{x.Columns[0].Title, x.Columns[1].Title})
	_, ok := reach.DrawDefinition(of(t, tree), "nowhere.ts", 1, reach.Along)
	require.False(t, ok)
}
