package drawing_test

import (
	"fmt"
	"math/rand/v2"
	"regexp"
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

func TestNoCurveRunsThroughABoxAndNoBoxHidesAnother(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	for round := range 12 {
		tree := ""
		n := 4 + r.IntN(40)
		for i := range n {
			tree += fmt.Sprintf("-- f%02d/%s.ts --\n", i, strings.Repeat("x", 1+r.IntN(9)))
			for range r.IntN(5) {
				tree += fmt.Sprintf("import '../f%02d'\n", r.IntN(n))
			}
			tree += fmt.Sprintf("-- f%02d/index.ts --\n", i)
		}
		d := draw(t, tree, drawing.Request{Place: "."})
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
		require.Equal(t, d, draw(t, tree, drawing.Request{Place: "."}), "the same each time")
	}
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
