package charter_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"jantel/core/charter"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/reading"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

const layers = `# how the vault is built
layers:
  - name: routes
    holds: ["src/routes/**"]
    may: [logic]
  - name: logic
    holds: [src/logic]
    may: [data]
  - name: data
    holds: ["src/data/**"]
  - name: wiring
    holds: ["src/main.ts"]
    wiring: true
`

const tree = `
-- src/main.ts --
import './routes/a'
import './data/c'
-- src/routes/a.ts --
import '../logic/b'
import '../data/c'
fetch('/x')
export function a() {}
-- src/logic/b.ts --
import '../routes/a'
export function b() {}
-- src/data/c.ts --
export function c() {}
-- src/logic/b.test.ts --
import '../routes/a'
test('b', () => {})
-- src/loose.ts --
import './data/c'
export function loose() {}
`

var today = time.Date(2026, 11, 20, 0, 0, 0, 0, time.UTC)

func hold(t *testing.T, text, tree string) *charter.Result {
	c, faults := charter.Parse([]byte(text))
	require.Empty(t, faults)
	s := testkit.Survey(t, tree)
	j := judgement.Judge(s, model.Brief{}, nil)
	return c.Hold(reading.Of(s, j.InScope, j.Roles), today)
}

func breaches(r *charter.Result) []string {
	out := []string{}
	for _, b := range r.Breaches {
		out = append(out, fmt.Sprintf("%s:%d -> %s (%s)", b.From, b.Line, b.To, b.Rule))
	}
	return out
}

func TestBreachesOfLayers(t *testing.T) {
	r := hold(t, layers, tree)
	require.Equal(t, []string{
		"src/logic/b.ts:1 -> src/routes/a.ts (logic may depend on data alone)",
		"src/routes/a.ts:2 -> src/data/c.ts (routes may depend on logic alone)",
	}, breaches(r))
	require.Equal(t, []string{"src/loose.ts"}, r.Loose)
	require.Empty(t, r.Idle)
	require.Equal(t, "logic", r.LayerOf["src/logic/b.ts"])
}

func TestExceptionsHoldUntilTheyExpire(t *testing.T) {
	with := func(until string) *charter.Result {
		return hold(t, layers+"exceptions:\n  - from: src/routes/a.ts\n    to: src/data/**\n    reason: the list is cached\n"+until, tree)
	}
	require.Len(t, with("").Breaches, 1)
	require.Len(t, with("    until: 2026-11-20\n").Breaches, 1, "the last day counts")
	r := with("    until: 2026-11-01\n")
	require.Len(t, r.Breaches, 2)
	require.Len(t, r.Expired, 1)
}

func TestAreasAreKeptApart(t *testing.T) {
	r := hold(t, layers+"apart:\n  - name: parts of the desk\n    places: [src/logic, src/loose.ts, src/data]\n", tree)
	require.Equal(t, []string{
		"src/logic/b.ts:1 -> src/routes/a.ts (logic may depend on data alone)",
		"src/loose.ts:1 -> src/data/c.ts (src/loose.ts and src/data are kept apart (parts of the desk))",
		"src/routes/a.ts:2 -> src/data/c.ts (routes may depend on logic alone)",
	}, breaches(r))
}

func TestGlobsThatMatchNothingAreSaid(t *testing.T) {
	r := hold(t, strings.Replace(layers, "[src/logic]", "[src/logic, \"src/gone/**\"]", 1), tree)
	require.Equal(t, []string{"src/gone/**"}, r.Idle)
}

func TestTheWiringLayerHoldsNoLogic(t *testing.T) {
	long := "-- src/main.ts --\nexport function main() {\n" + strings.Repeat("  step()\n", 70) + "}\n"
	r := hold(t, layers, strings.Replace(tree, "-- src/main.ts --\n", long, 1))
	require.Len(t, r.Wiring, 1)
	require.Contains(t, r.Wiring[0].Note, "main has 72 lines")
}

func TestBrokenAndHostileChartersAreRefusedWithTheirLine(t *testing.T) {
	bomb := "a: &a [x, x]\nb: &b [*a, *a]\nc: [*b, *b]\n"
	for name, c := range map[string]struct {
		text string
		line int
		want string
	}{
		"not YAML":           {"layers:\n  - name: [\n", 0, ""},
		"unknown key":        {"layers:\n  - name: a\n    holds: [a]\n    colour: red\n", 4, "colour"},
		"unknown layer":      {"layers:\n  - name: a\n    holds: [a]\n    may: [b]\n", 2, "which is no layer"},
		"twice":              {"layers:\n  - name: a\n    holds: [a]\n  - name: a\n    holds: [b]\n", 4, "two layers"},
		"holds nothing":      {"layers:\n  - name: a\n", 2, "holds nothing"},
		"aliases":            {bomb, 1, "anchors"},
		"a glob that climbs": {"layers:\n  - name: a\n    holds: [\"../x\"]\n", 3, "no glob"},
		"a bad glob":         {"layers:\n  - name: a\n    holds: [\"a[\"]\n", 3, "no glob"},
		"no reason":          {layers + "exceptions:\n  - from: a\n    to: b\n    reason: \"\"\n", 15, "needs a reason"},
		"a day that is none": {layers + "exceptions:\n  - from: a\n    to: b\n    reason: x\n    until: soon\n", 15, "no day"},
		"too large":          {"# " + strings.Repeat("x", 10<<20), 0, "bytes"},
		"too deep":           {"layers: " + strings.Repeat("[", 100) + strings.Repeat("]", 100), 1, "nested"},
		"deep by blanks":     {"layers:\n" + strings.Repeat(" ", 200) + "x: 1\n", 2, "nested"},
		"empty":              {"", 1, ""},
		"tabs":               {"layers:\n\t- name: a\n", 2, "tab"},
		"the wrong shape":    {"layers: 3\n", 1, ""},
	} {
		t.Run(name, func(t *testing.T) {
			got, faults := charter.Parse([]byte(c.text))
			require.Nil(t, got)
			require.NotEmpty(t, faults)
			require.NotEmpty(t, faults[0].Text)
			require.Contains(t, faults[0].Error(), c.want)
			if c.line > 0 {
				require.Equal(t, c.line, faults[0].Line, faults[0].Text)
			}
		})
	}
}

func TestACharterIsDerivedFromTheLevels(t *testing.T) {
	s := testkit.Survey(t, strings.ReplaceAll(tree, "import '../routes/a'\nexport function b", "import '../data/c'\nexport function b"))
	j := judgement.Judge(s, model.Brief{}, nil)
	c := charter.Derive(s, j.Judgement)
	text, err := c.Text()
	require.NoError(t, err)
	again, faults := charter.Parse([]byte(text))
	require.Empty(t, faults, text)
	require.Empty(t, again.Hold(reading.Of(s, j.InScope, j.Roles), today).Breaches, "what is there now is allowed")
	var names []string
	for _, l := range again.Layers {
		names = append(names, l.Name+" "+strings.Join(l.May, ","))
	}
	require.Equal(t, []string{"routes logic,data", "logic data", "data "}, names)
}

func FuzzCharter(f *testing.F) {
	f.Add([]byte(layers))
	f.Add([]byte("layers:\n- {name: a, holds: ['**']}\napart:\n- places: [a, b]\n"))
	f.Add([]byte("a: &a\n  <<: *a\n"))
	f.Fuzz(func(t *testing.T, src []byte) {
		c, faults := charter.Parse(src)
		require.True(t, (c == nil) == (len(faults) > 0))
	})
}

func TestADependencyIsHeldAgainstTheCharterBeforeItExists(t *testing.T) {
	c, faults := charter.Parse([]byte(layers + "apart:\n  - name: rooms\n    places: [src/logic, src/loose.ts]\n"))
	require.Empty(t, faults)
	s := testkit.Survey(t, tree)
	j := judgement.Judge(s, model.Brief{}, nil)
	r := reading.Of(s, j.InScope, j.Roles)
	for pair, rule := range map[[2]string]string{
		{"src/routes", "src/logic"}:     "",
		{"src/routes", "src/data"}:      "routes may depend on logic alone",
		{"src/data/c.ts", "src/routes"}: "data may depend on nothing",
		{"src/main.ts", "src/data"}:     "",
		{"src/logic", "src/loose.ts"}:   "rooms are kept apart",
		{"src/nowhere", "src/loose.ts"}: "",
	} {
		got := c.Would(r, pair[0], pair[1])
		if rule == "" {
			require.Empty(t, got, pair)
		} else {
			require.NotEmpty(t, got, pair)
			t.Log(pair, got)
		}
	}
}
