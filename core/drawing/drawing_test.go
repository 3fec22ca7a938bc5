package drawing_test

import (
	"cmp"
	"fmt"
	"math/rand/v2"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"jantel/core/drawing"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func draw(t *testing.T, tree string, r drawing.Request) *drawing.Drawing {
	s := testkit.Survey(t, tree)
	j := judgement.Judge(s, model.Brief{}, nil)
	return drawing.Of(s, j.Roles, j.InScope, r)
}

const layered = `
-- src/routes/a.ts --
import '../handlers/b'
fetch('/x')
-- src/handlers/b.ts --
import '../data/c'
import '../data/d'
const late = () => import('../words/e')
-- src/data/c.ts --
-- src/data/d.ts --
import '../words/e'
-- src/words/e.ts --
-- src/words/e.test.ts --
import '../routes/a'
test('x', () => {})
`

func box(d *drawing.Drawing, p string) drawing.Box {
	for _, b := range d.Boxes {
		if b.Path == p {
			return b
		}
	}
	return drawing.Box{}
}

func TestFoldersStandInLevels(t *testing.T) {
	d := draw(t, layered, drawing.Request{Place: "."})
	require.Len(t, d.Boxes, 4, "a chain of single folders is passed over")
	var levels []string
	for _, p := range []string{"src/routes", "src/handlers", "src/data", "src/words"} {
		levels = append(levels, fmt.Sprint(box(d, p).Level))
	}
	require.Equal(t, "0 1 2 3", strings.Join(levels, " "))
	var bundles []string
	for _, b := range d.Bundles {
		bundles = append(bundles, fmt.Sprintf("%s %s %s %d", b.From, b.To, b.Class, b.Count))
	}
	require.Equal(t, []string{"src/data src/words code 1", "src/handlers src/data code 2", "src/handlers src/words lazy 1", "src/routes src/handlers code 1"}, bundles)
	require.Equal(t, []string{"code", "lazy"}, d.Classes)
	require.Empty(t, d.Rings)
	withTests := draw(t, layered, drawing.Request{Place: ".", Tests: true})
	require.Len(t, withTests.Rings, 1, "the test needs what needs it")
}

func TestAFolderIsTakenApartInPlace(t *testing.T) {
	d := draw(t, layered, drawing.Request{Place: ".", Opened: []string{"src/data", "elsewhere"}})
	require.Equal(t, []string{"src/data"}, d.Opened)
	require.True(t, box(d, "src/data/c.ts").File)
	require.Equal(t, "src/data", box(d, "src/data/d.ts").Within)
	require.Empty(t, box(d, "src/data").Path)
	require.False(t, box(d, "src/data/c.ts").Opens)
	require.True(t, box(d, "src/words").Opens)
}

func TestRingsAreCutWhereItCostsLeast(t *testing.T) {
	d := draw(t, `
-- a/x.ts --
import '../b/y'
import '../b/z'
-- b/y.ts --
import '../c/w'
-- b/z.ts --
-- c/w.ts --
import '../a/x'
`, drawing.Request{Place: "."})
	require.Len(t, d.Rings, 1)
	require.Equal(t, []string{"a", "b", "c"}, d.Rings[0].Members)
	up := 0
	for _, b := range d.Bundles {
		if b.Up {
			up++
			require.True(t, b.Cut)
		}
	}
	require.Equal(t, 1, up)
}

var number = regexp.MustCompile(`-?[\d.]+`)

// points samples a path of lines and cubic curves.
func points(t *testing.T, curve string) (out [][2]float64) {
	var at [2]float64
	for _, part := range regexp.MustCompile(`[MLC][^MLC]*`).FindAllString(curve, -1) {
		var v []float64
		for _, n := range number.FindAllString(part, -1) {
			x, err := strconv.ParseFloat(n, 64)
			require.NoError(t, err)
			v = append(v, x)
		}
		switch part[0] {
		case 'M':
		case 'L':
			for k := 1; k <= 10; k++ {
				f := float64(k) / 10
				out = append(out, [2]float64{at[0] + f*(v[0]-at[0]), at[1] + f*(v[1]-at[1])})
			}
		case 'C':
			for k := 1; k <= 20; k++ {
				f := float64(k) / 20
				g := 1 - f
				bez := func(i int) float64 {
					return g*g*g*at[i] + 3*g*g*f*v[i] + 3*g*f*f*v[2+i] + f*f*f*v[4+i]
				}
				out = append(out, [2]float64{bez(0), bez(1)})
			}
		}
		at = [2]float64{v[len(v)-2], v[len(v)-1]}
	}
	return out
}

// clear checks that boxes lie inside the drawing and apart, and that no curve
// runs through a box it does not join.
func clear(t *testing.T, d *drawing.Drawing, round int) {
	require.NotEmpty(t, d.Boxes)
	for i, a := range d.Boxes {
		require.True(t, a.X >= 0 && a.Y >= 0 && a.X+a.W <= d.Width && a.Y+a.H <= d.Height)
		for _, b := range d.Boxes[i+1:] {
			require.False(t, a.X < b.X+b.W && b.X < a.X+a.W && a.Y < b.Y+b.H && b.Y < a.Y+a.H, "%s over %s", a.Path, b.Path)
		}
	}
	for _, b := range d.Bundles {
		for _, p := range points(t, b.Curve) {
			require.True(t, p[0] >= -1 && p[0] <= d.Width+1 && p[1] <= d.Height+1)
			for _, x := range d.Boxes {
				if x.Path == b.From || x.Path == b.To {
					continue
				}
				inside := p[0] > x.X+0.5 && p[0] < x.X+x.W-0.5 && p[1] > x.Y+0.5 && p[1] < x.Y+x.H-0.5
				require.False(t, inside, "round %d: %s to %s runs through %s", round, b.From, b.To, x.Path)
			}
		}
	}
}

func randomTree(r *rand.Rand) (tree string, folders int) {
	n := 4 + r.IntN(40)
	for i := range n {
		tree += fmt.Sprintf("-- f%02d/%s.ts --\n", i, strings.Repeat("x", 1+r.IntN(9)))
		for range r.IntN(5) {
			tree += fmt.Sprintf("import '../f%02d'\n", r.IntN(n))
		}
		tree += fmt.Sprintf("-- f%02d/index.ts --\n", i)
	}
	return tree, n
}

func TestNoCurveRunsThroughABoxAndNoBoxHidesAnother(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	for round := range 12 {
		tree, _ := randomTree(r)
		d := draw(t, tree, drawing.Request{Place: "."})
		clear(t, d, round)
		require.Equal(t, d, draw(t, tree, drawing.Request{Place: "."}), "the same each time")
	}
}

// What a hand moved and the rings of a charter change where boxes stand, and
// nothing of what must hold for them.
func TestArrangedDrawingsAndRingsAreAsClear(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 9))
	for round := range 12 {
		tree, n := randomTree(r)
		ask := drawing.Request{Place: ".", RingOf: map[string]string{}}
		for i := range n {
			ask.Order = append(ask.Order, fmt.Sprintf("f%02d", i))
		}
		r.Shuffle(n, func(i, k int) { ask.Order[i], ask.Order[k] = ask.Order[k], ask.Order[i] })
		ask.Order = ask.Order[:r.IntN(n)]
		if round%2 == 1 {
			ask.Circles = []string{"adapters", "application", "domain"}
			for i := range n {
				if k := r.IntN(4); k < 3 {
					ask.RingOf[fmt.Sprintf("f%02d/index.ts", i)] = ask.Circles[k]
				}
			}
		}
		d := draw(t, tree, ask)
		clear(t, d, round)
		for i, f := range d.Frames {
			require.True(t, f.X >= 0 && f.Y >= 0 && f.X+f.W <= d.Width && f.Y+f.H <= d.Height, "%+v in %v × %v", f, d.Width, d.Height)
			if i > 0 {
				o := d.Frames[i-1]
				require.True(t, f.X > o.X && f.Y > o.Y && f.X+f.W < o.X+o.W && f.Y+f.H < o.Y+o.H, "each ring lies in the one before")
			}
		}
		for _, b := range d.Boxes {
			for k, f := range d.Frames {
				// The frames are those that hold anything: found again by name.
				circle := slices.Index(ask.Circles, f.Name) + 1
				in := b.X >= f.X && b.Y >= f.Y && b.X+b.W <= f.X+f.W && b.Y+b.H <= f.Y+f.H
				require.Equal(t, b.Circle >= circle, in, "%s of ring %d and frame %d", b.Path, b.Circle, k)
			}
		}
	}
}

func TestOnePlaceIsDrawnWithItsNeighbours(t *testing.T) {
	d := draw(t, layered, drawing.Request{Place: ".", Focus: "src/data"})
	require.Equal(t, "src/data", d.Focus)
	var names []string
	for _, b := range d.Boxes {
		names = append(names, b.Path)
	}
	require.Equal(t, []string{"src/data", "src/handlers", "src/words"}, names)
	require.Len(t, d.Bundles, 2, "what ties only the neighbours is left out")
	require.Equal(t, []string{"code"}, d.Classes)
	// A place that is not drawn narrows nothing.
	require.Len(t, draw(t, layered, drawing.Request{Place: ".", Focus: "elsewhere"}).Boxes, 4)
	// Part of an opened folder.
	open := draw(t, layered, drawing.Request{Place: ".", Opened: []string{"src/data"}, Focus: "src/data/d.ts"})
	require.Len(t, open.Boxes, 3)
}

func TestAFileIsDrawnWithItsNeighbours(t *testing.T) {
	d := draw(t, layered, drawing.Request{Place: "src/data/d.ts"})
	var names []string
	for _, b := range d.Boxes {
		require.True(t, b.File)
		names = append(names, b.Name)
	}
	require.Equal(t, []string{"data/d.ts", "handlers/b.ts", "words/e.ts"}, names)
	require.Len(t, d.Bundles, 2)
	clear(t, d, 0)
	alone := draw(t, "-- a.ts --\nx()\n-- b.ts --\n", drawing.Request{Place: "a.ts"})
	require.Len(t, alone.Boxes, 1)
	many := "-- hub.ts --\nexport const x = 1\n"
	for i := range 200 {
		many += fmt.Sprintf("-- f%03d.ts --\nimport './hub'\n", i)
	}
	d = draw(t, many, drawing.Request{Place: "hub.ts"})
	require.Len(t, d.Boxes, drawing.MaxBoxes)
	require.NotEmpty(t, box(d, "hub.ts").Path)
	require.Contains(t, d.Notes[0], "Of 200 neighbours")
}

func TestAHandOrdersTheBoxesOfARow(t *testing.T) {
	tree := "-- top/a.ts --\nimport '../one'\nimport '../two'\nimport '../three'\n-- one/index.ts --\n-- two/index.ts --\n-- three/index.ts --\n"
	row := func(r drawing.Request) (out []string) {
		d := draw(t, tree, r)
		var boxes []drawing.Box
		for _, b := range d.Boxes {
			if b.Level == 1 {
				boxes = append(boxes, b)
			}
		}
		slices.SortFunc(boxes, func(a, b drawing.Box) int { return cmp.Compare(a.X, b.X) })
		for _, b := range boxes {
			out = append(out, b.Path)
		}
		return append(out, fmt.Sprint(d.Moved))
	}
	require.Equal(t, []string{"one", "three", "two", "false"}, row(drawing.Request{Place: "."}))
	require.Equal(t, []string{"two", "one", "three", "true"}, row(drawing.Request{Place: ".", Order: []string{"two", "one", "three"}}))
	require.Equal(t, []string{"two", "three", "one", "true"}, row(drawing.Request{Place: ".", Order: []string{"two", "gone", "one"}}), "who was not moved keeps the place")
	require.Equal(t, []string{"one", "three", "two", "false"}, row(drawing.Request{Place: ".", Order: []string{"one", "three", "two"}}))
}

func TestPackagesFromOutsideStandBelowAll(t *testing.T) {
	tree := "-- a/x.ts --\nimport 'react'\nimport '../b/y'\n-- a/z.ts --\nimport 'react'\n-- b/y.ts --\nimport 'zod'\n-- c/w.ts --\nimport 'react'\n"
	d := draw(t, tree, drawing.Request{Place: ".", Rim: true})
	clear(t, d, 0)
	require.Equal(t, []string{"code", "outside"}, d.Classes)
	react, zod := box(d, "package:react"), box(d, "package:zod")
	require.True(t, react.Rim)
	require.Equal(t, 3, react.Files)
	require.Equal(t, zod.Level, react.Level)
	for _, b := range d.Boxes {
		require.True(t, b.Rim || b.Level < react.Level, b.Path)
	}
	count := map[string]int{}
	for _, b := range d.Bundles {
		if b.Class == drawing.External {
			count[b.From+" "+b.To] = b.Count
			require.False(t, b.Up)
		}
	}
	require.Equal(t, map[string]int{"a package:react": 2, "b package:zod": 1, "c package:react": 1}, count)
	// With rings of a charter they stand outside of all.
	rings := draw(t, tree, drawing.Request{Place: ".", Rim: true, Circles: []string{"outer", "inner"}, RingOf: map[string]string{"a/x.ts": "outer", "b/y.ts": "inner"}})
	clear(t, rings, 1)
	require.Len(t, rings.Frames, 2)
	for _, f := range rings.Frames {
		require.Less(t, f.Y+f.H, box(rings, "package:react").Y)
	}
	many := ""
	for i := range 60 {
		many += fmt.Sprintf("-- f%02d/a.ts --\nimport 'pkg%02d'\nimport 'common'\n", i, i)
	}
	d = draw(t, many, drawing.Request{Place: ".", Rim: true})
	require.Contains(t, d.Notes[0], "Of 61 packages")
	require.NotEmpty(t, box(d, "package:common").Path)
	require.Empty(t, draw(t, tree, drawing.Request{Place: "."}).Boxes[0].Rim)
}

func TestOnlyWhatIsAskedForIsDrawn(t *testing.T) {
	d := draw(t, layered, drawing.Request{Place: ".", Only: func(p string) bool { return !strings.HasPrefix(p, "src/words") }})
	require.Len(t, d.Boxes, 3)
}

func TestTooManyPartsAreSaid(t *testing.T) {
	tree := ""
	for i := range 200 {
		tree += fmt.Sprintf("-- f%03d/a.ts --\nx()\n", i)
	}
	d := draw(t, tree, drawing.Request{Place: "."})
	require.Len(t, d.Boxes, drawing.MaxBoxes)
	require.Len(t, d.Notes, 1)
}

func TestWhatALongerWayImpliesIsMarked(t *testing.T) {
	d := draw(t, `
-- page/a.ts --
import { b } from '../logic/b'
import { c } from '../store/c'
export const a = b + c
-- logic/b.ts --
import { c } from '../store/c'
export const b = c
-- store/c.ts --
export const c = 1
`, drawing.Request{Place: "."})
	implied := map[string]bool{}
	for _, b := range d.Bundles {
		implied[b.From+" "+b.To] = b.Implied
	}
	require.Equal(t, map[string]bool{"page logic": false, "page store": true, "logic store": false}, implied)
}

func TestTheProjectsOfARepositoryAreDrawnFirst(t *testing.T) {
	tree, projects := "-- tools/build.ts --\nx()\n", []string{"."}
	for _, p := range []string{"api", "desk", "labels", "press", "seeds", "shelf", "sowing", "vault"} {
		projects = append(projects, "packages/"+p)
		tree += fmt.Sprintf("-- packages/%[1]s/src/data/a.ts --\nimport '../view/b'\nimport '../../../vault/src/data/a'\n-- packages/%[1]s/src/view/b.ts --\nx()\n", p)
	}
	projects = append(projects, "packages/api/example") // a project within another is a part of it
	d := draw(t, tree, drawing.Request{Place: ".", Auto: true, Projects: projects})
	paths := func(d *drawing.Drawing) (all []string) {
		for _, b := range d.Boxes {
			all = append(all, b.Path)
		}
		return all
	}
	require.Equal(t, append(projects[1:9:9], "tools"), paths(d))
	require.Equal(t, []string{"packages"}, d.Opened)
	// Few projects say little: the fullest are taken apart as any folder is.
	few := draw(t, tree, drawing.Request{Place: ".", Auto: true, Projects: projects[:3]})
	require.Contains(t, few.Opened, "packages")
	require.Contains(t, paths(few), "packages/api/src/data")
	require.Contains(t, paths(draw(t, tree, drawing.Request{Place: "packages/api", Auto: true, Projects: projects})), "packages/api/src/data")
}

func TestNotesAndMakeFilesAreNoParts(t *testing.T) {
	d := draw(t, layered+"-- INSTALL --\nfirst dry the seed\n-- boxes.am --\nall:\n", drawing.Request{Place: "."})
	require.Empty(t, box(d, "INSTALL").Path)
	require.Empty(t, box(d, "boxes.am").Path)
	require.NotEmpty(t, box(d, "src/routes").Path)
}
