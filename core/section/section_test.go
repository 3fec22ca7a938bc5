package section_test

import (
	"fmt"
	"math/rand/v2"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/section"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func cut(t *testing.T, tree string, place string) *section.Section {
	s := testkit.Survey(t, tree)
	return section.Of(s, judgement.Judge(s, model.Brief{}, nil), place)
}

// rows are the names of the blocks of a part, row by row from the top.
func rows(x *section.Section, part int) string {
	byRow := map[int][]string{}
	last := 0
	for _, b := range x.Blocks {
		if b.Pile == part {
			byRow[b.Row] = append(byRow[b.Row], b.Name)
			last = max(last, b.Row)
		}
	}
	var out []string
	for r := range last + 1 {
		if len(byRow[r]) > 0 {
			out = append(out, strings.Join(byRow[r], " "))
		}
	}
	return strings.Join(out, " / ")
}

const layered = `
-- package.json --
{"name": "counter", "main": "src/app.ts", "dependencies": {"express": "4", "pg": "8"}}
-- src/app.ts --
import express from 'express'
import { all } from './routes/lots'
const app = express()
app.get('/lots', all)
app.listen(80)
-- src/routes/lots.ts --
import { find } from '../logic/lots'
export function all() { return find() }
-- src/logic/lots.ts --
import { rows } from '../data/lots'
export function find() { return rows() }
-- src/data/lots.ts --
import { Pool } from 'pg'
export function rows() { return new Pool().query('SELECT * FROM lots') }
-- src/data/lots.test.ts --
import { rows } from './lots'
test('rows', () => { expect(rows()).toEqual([]) })
`

func TestFoldersStandAboveWhatTheyNeed(t *testing.T) {
	x := cut(t, layered, ".")
	require.Len(t, x.Parts, 1)
	require.Equal(t, "app.ts / routes / logic / data", rows(x, 0))
	require.Empty(t, x.Ties, "what lies below is needed: no line says it again")
	require.Equal(t, 2, x.Blocks[1].Tests, x.Blocks[1].Path)
	require.Equal(t, "src/app.ts", x.Blocks[0].Path, "a file alone opens itself")
}

func TestWhoComesInStandsAboveAndWhatIsKeptBelow(t *testing.T) {
	x := cut(t, layered, ".")
	var above, below []string
	for _, tag := range x.Tags {
		if tag.Below {
			below = append(below, tag.Text)
			require.Greater(t, tag.Y, x.Ground)
		} else {
			above = append(above, tag.Text)
			require.Less(t, tag.Y, x.Roof)
		}
	}
	require.Equal(t, []string{"1 route", "program app.ts"}, above)
	require.Equal(t, []string{"PostgreSQL"}, below)
}

func TestProjectsStandSideBySideTheCallerFirst(t *testing.T) {
	x := cut(t, `
-- counter/package.json --
{"name": "counter", "dependencies": {"express": "4"}}
-- counter/app.ts --
import express from 'express'
const app = express()
app.get('/lots', (q, r) => r.json([]))
app.listen(80)
-- desk/package.json --
{"name": "desk"}
-- desk/pages/lots.ts --
import { get } from '../api/lots'
export const Lots = () => get()
-- desk/api/lots.ts --
export const get = () => fetch('/lots')
-- desk/tools/package.json --
{"name": "tools"}
-- desk/tools/pack.ts --
export const pack = 1
-- words/all.ts --
export const words = []
`, ".")
	names := []string{}
	for _, p := range x.Parts {
		names = append(names, p.Name)
	}
	require.Equal(t, []string{"desk", "words", "counter"}, names,
		"a project within another stands in it; what lies in none is named by its folder")
	require.Len(t, x.Ties, 1)
	require.Equal(t, "desk/api counter/app.ts http 1", fmt.Sprint(x.Ties[0].From, " ", x.Ties[0].To, " ", x.Ties[0].Class, " ",
		x.Ties[0].Count))
}

func TestARingAndABreachAreMarkedWhereTheyStand(t *testing.T) {
	x := cut(t, `
-- jantel.yaml --
layers:
  - name: logic
    holds: ["src/logic"]
  - name: data
    holds: ["src/data"]
    may: [logic]
-- src/logic/lot.ts --
import { rows } from '../data/rows'
import { more } from '../data/more'
export const lot = 1
-- src/data/rows.ts --
import { lot } from '../logic/lot'
export const rows = lot
-- src/data/more.ts --
export const more = 1
`, ".")
	require.Equal(t, "logic / data", rows(x, 0), "the lighter way points up")
	require.Len(t, x.Ties, 2)
	require.True(t, x.Ties[0].Ring && !x.Ties[0].Breach)
	require.Equal(t, "src/data", x.Ties[0].From)
	require.True(t, x.Ties[1].Breach && !x.Ties[1].Ring)
	require.Equal(t, 2, x.Ties[1].Count)
	for _, b := range x.Blocks {
		require.True(t, b.Ring, b.Path)
	}
}

func TestFilesPutTogetherForTheDrawingMakeNoRing(t *testing.T) {
	x := cut(t, `
-- src/app.ts --
import './pages/lots'
-- src/settings.ts --
export const settings = 1
-- src/pages/lots.ts --
import { settings } from '../settings'
export const lots = settings
-- src/pages/boxes.ts --
export const boxes = 1
-- src/other/a.ts --
export const a = 1
`, "src")
	for _, b := range x.Blocks {
		require.False(t, b.Ring, b.Path)
	}
	for _, tie := range x.Ties {
		require.False(t, tie.Ring)
	}
}

func TestManyProjectsFoldIntoTheirFolders(t *testing.T) {
	var tree strings.Builder
	for i := range 12 {
		fmt.Fprintf(&tree, "-- packages/p%02d/package.json --\n{\"name\": \"p%02d\"}\n-- packages/p%02d/index.ts --\nexport const a = %d\n", i, i, i, i)
	}
	tree.WriteString("-- app/package.json --\n{\"name\": \"app\"}\n-- app/main.ts --\nexport const b = 1\n")
	x := cut(t, tree.String(), ".")
	require.Len(t, x.Parts, 2)
	require.Equal(t, "packages", x.Parts[1].Name)
	flat := strings.ReplaceAll(tree.String(), "packages/", "")
	x = cut(t, flat, ".")
	require.Len(t, x.Parts, 9)
	last := x.Parts[8]
	require.Equal(t, "all others", last.Name)
	lines := 0
	for _, p := range x.Parts {
		lines += p.Lines
	}
	require.Equal(t, 13, lines, "nothing is lost")
}

func TestWithoutProgramTextThereIsNothingToCut(t *testing.T) {
	require.Empty(t, cut(t, "-- README.md --\nWords.\n", ".").Parts)
}

var step = regexp.MustCompile(`[MVH][-0-9.,]+`)

// crossed lists the blocks whose inside a path runs through.
func crossed(x *section.Section, line string) []string {
	var out []string
	var px, py float64
	for i, s := range step.FindAllString(line, -1) {
		nx, ny := px, py
		switch s[0] {
		case 'M':
			at := strings.Split(s[1:], ",")
			nx, _ = strconv.ParseFloat(at[0], 64)
			ny, _ = strconv.ParseFloat(at[1], 64)
		case 'H':
			nx, _ = strconv.ParseFloat(s[1:], 64)
		case 'V':
			ny, _ = strconv.ParseFloat(s[1:], 64)
		}
		if i > 0 {
			for _, b := range x.Blocks {
				if max(px, nx) > b.X+0.2 && min(px, nx) < b.X+b.W-0.2 && max(py, ny) > b.Y+0.2 && min(py, ny) < b.Y+b.H-0.2 {
					out = append(out, b.Path)
				}
			}
		}
		px, py = nx, ny
	}
	return out
}

// TestNothingLiesOverAnythingElse makes up codebases of every size: blocks stay
// on the sheet and apart, and no tie runs through one.
func TestNothingLiesOverAnythingElse(t *testing.T) {
	for seed := range uint64(40) {
		r := rand.New(rand.NewPCG(seed, 11))
		var tree strings.Builder
		var files []string
		parts := 1 + r.IntN(12)
		for p := range parts {
			fmt.Fprintf(&tree, "-- part%d/package.json --\n{\"name\": \"part%d\"}\n", p, p)
			for range 1 + r.IntN(16) {
				f := fmt.Sprintf("part%d/%s%d/file%d.ts", p, []string{"a", "someVeryLongFolderName", "x/y"}[r.IntN(3)], r.IntN(7), len(files))
				fmt.Fprintf(&tree, "-- %s --\n", f)
				for range r.IntN(5) {
					if len(files) > 0 {
						to := files[r.IntN(len(files))]
						fmt.Fprintf(&tree, "import '%s%s'\n", strings.Repeat("../", strings.Count(f, "/")), strings.TrimSuffix(to, ".ts"))
					}
				}
				tree.WriteString(strings.Repeat("export const a = 1\n", 1+r.IntN(60)))
				files = append(files, f)
				if r.IntN(3) == 0 && len(files) > 2 { // and something that points back
					fmt.Fprintf(&tree, "import '%s%s'\n", strings.Repeat("../", strings.Count(f, "/")), strings.TrimSuffix(files[0], ".ts"))
				}
			}
		}
		x := cut(t, tree.String(), ".")
		require.LessOrEqual(t, len(x.Parts), 9)
		held := 0
		for i, b := range x.Blocks {
			held += b.Files
			require.True(t, b.X >= 0 && b.X+b.W <= x.Width && b.Y > x.Roof && b.Y+b.H < x.Ground, "seed %d: %s is off the sheet", seed, b.Path)
			for _, c := range x.Blocks[:i] {
				apart := b.X+b.W <= c.X || c.X+c.W <= b.X || b.Y+b.H <= c.Y || c.Y+c.H <= b.Y
				require.True(t, apart, "seed %d: %s lies over %s", seed, b.Path, c.Path)
			}
		}
		require.Equal(t, len(files), held, "seed %d: each file lies in one block", seed)
		for _, b := range x.Blocks {
			if b.Beside {
				right := b.X + b.W + 7*float64(len(b.Title[0]))
				require.LessOrEqual(t, right, x.Parts[b.Pile].X+x.Parts[b.Pile].W, "seed %d: the name of %s leaves its part", seed, b.Path)
			}
		}
		for _, tie := range x.Ties {
			require.Empty(t, crossed(x, tie.Line), "seed %d: %s to %s", seed, tie.From, tie.To)
		}
		require.Equal(t, x, cut(t, tree.String(), "."), "the same tree is drawn alike")
	}
}

func TestAStoreThatIsStartedForAPartIsItsStoreAndNoOther(t *testing.T) {
	x := cut(t, `
-- counter/package.json --
{ "name": "counter", "dependencies": { "pg": "8" } }
-- counter/src/data.ts --
import { Pool } from 'pg'
export function rows() { return new Pool().query('SELECT * FROM lots') }
-- counter/src/app.ts --
import { rows } from './data'
rows()
-- tools/a.ts --
export const a = 1
-- tools/b.ts --
import { a } from './a'
export const b = a
-- compose.yaml --
services:
  store:
    image: postgres:16
  cache:
    image: redis:7
`, ".")
	count := map[string]int{}
	for _, tag := range x.Tags {
		if tag.Below {
			count[tag.Text]++
		}
	}
	require.Equal(t, map[string]int{"PostgreSQL": 1, "Redis": 1}, count, "what no code asks for is shown where it is started")
}

func TestAnEdgeThatHoldsNothingSaysSo(t *testing.T) {
	x := cut(t, layered, ".")
	require.Equal(t, []string{"comes in", "kept and called"}, []string{x.In, x.Out})
	x = cut(t, "-- box.go --\npackage box\n\nfunc Weigh(n int) int {\n\treturn n * 2\n}\n", ".")
	require.Equal(t, []string{"comes in", "kept and called: not told"}, []string{x.In, x.Out})
}

func TestANameBelowFitsIntoItsFrame(t *testing.T) {
	x := cut(t, `
-- compose.yaml --
services:
  store:
    image: registry.hollin-moor.example/teams/vault/stores/postgres-with-many-extensions-and-a-long-name:16
-- counter/package.json --
{"name": "counter"}
-- counter/src/data.ts --
export const rows = () => fetch('https://post-office-of-the-hollin-moor-and-beyond.example/letters')
-- counter/src/app.ts --
import { rows } from './data'
rows()
-- desk/package.json --
{"name": "desk"}
-- desk/src/app.ts --
export const rows = () => fetch('https://growers-of-the-hollin-moor-and-beyond.example/cards')
`, ".")
	below := 0
	for _, tag := range x.Tags {
		if tag.Below {
			below++
			require.LessOrEqual(t, float64(len([]rune(tag.Text)))*7.25+14, tag.W+1, tag.Text)
		}
	}
	require.GreaterOrEqual(t, below, 2)
}
