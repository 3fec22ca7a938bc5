package charter

import (
	"encoding/json"
	"maps"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

const written = `# How the vault is meant to be built.
layers:
  - name: handlers # answer requests
    holds: ["counter/src/handlers"]
    may: [logic]   # and nothing else
  # The rules.
  - name: logic
    holds:
      - counter/src/logic # all of it
      - counter/src/rules
  - name: wiring
    holds: [counter/src/app.ts]
    wiring: true

# Parts that stand alone.
apart:
  - name: bench
    places: [bench/drying, bench/weather]
thresholds:
  long-file: 400   # we like them short
  crowded-folder: 20
`

// changed applies a change and returns the lines that went and came.
func changed(t *testing.T, src string, ch Revision) (gone, come []string) {
	t.Helper()
	out, faults := Apply(src, ch)
	require.Empty(t, faults)
	before, after := strings.Split(src, "\n"), strings.Split(out, "\n")
	for _, l := range before {
		if !slices.Contains(after, l) {
			gone = append(gone, l)
		}
	}
	for _, l := range after {
		if !slices.Contains(before, l) {
			come = append(come, l)
		}
	}
	return gone, come
}

func TestAChangeTouchesNoOtherLine(t *testing.T) {
	for name, c := range map[string]struct {
		change     Revision
		gone, come string
	}{
		"what a layer may, its comment kept": {Revision{What: "layer", Index: 0, Layer: &Layer{Name: "handlers", Holds: []string{"counter/src/handlers"}, May: []string{"logic", "types"}}},
			"    may: [logic]   # and nothing else", "    may: [logic, types]   # and nothing else"},
		"its name": {Revision{What: "layer", Index: 0, Layer: &Layer{Name: "edge", Holds: []string{"counter/src/handlers"}, May: []string{"logic"}}},
			"  - name: handlers # answer requests", "  - name: edge # answer requests"},
		"a list over lines becomes one": {Revision{What: "layer", Index: 1, Layer: &Layer{Name: "logic", Holds: []string{"counter/src/logic/**"}}},
			"    holds:\n      - counter/src/logic # all of it\n      - counter/src/rules", "    holds: [counter/src/logic/**]"},
		"a key that was not there": {Revision{What: "layer", Index: 1, Layer: &Layer{Name: "logic", Holds: []string{"counter/src/logic", "counter/src/rules"}, May: []string{"data"}}},
			"", "    may: [data]"},
		"a key that goes": {Revision{What: "layer", Index: 2, Layer: &Layer{Name: "wiring", Holds: []string{"counter/src/app.ts"}}},
			"    wiring: true", ""},
		"a layer that goes": {Revision{What: "layer", Index: 2, Drop: true},
			"  - name: wiring\n    holds: [counter/src/app.ts]\n    wiring: true", ""},
		"a layer that comes": {Revision{What: "layer", Index: -1, Layer: &Layer{Name: "data", Holds: []string{"counter/src/data", "a: b"}}},
			"", "  - name: data\n    holds: [counter/src/data, \"a: b\"]"},
		"an area that changes": {Revision{What: "apart", Index: 0, Apart: &Area{Name: "bench", Places: []string{"bench/drying", "bench/dormancy"}}},
			"    places: [bench/drying, bench/weather]", "    places: [bench/drying, bench/dormancy]"},
		"an area that comes": {Revision{What: "apart", Index: -1, Apart: &Area{Name: "ends", Places: []string{"press", "archive"}}},
			"", "  - name: ends\n    places: [press, archive]"},
		"the last area goes with its list": {Revision{What: "apart", Index: 0, Drop: true},
			"apart:\n  - name: bench\n    places: [bench/drying, bench/weather]", ""},
		"the first exception": {Revision{What: "exception", Index: -1, Exception: &Exception{From: "a", To: "b/**", Reason: "it is\nold", Until: "2027-01-31"}},
			"", "exceptions:\n  - from: a\n    to: b/**\n    reason: it is old\n    until: \"2027-01-31\""},
		"a threshold, its comment kept": {Revision{What: "threshold", Key: "long-file", Value: 500}, "  long-file: 400   # we like them short", "  long-file: 500   # we like them short"},
		"a threshold that comes":        {Revision{What: "threshold", Key: "too-deep", Value: 2.5}, "", "  too-deep: 2.5"},
		"a threshold that goes":         {Revision{What: "threshold", Key: "crowded-folder", Drop: true}, "  crowded-folder: 20", ""},
		"rings":                         {Revision{What: "rings", Rings: true}, "", "rings: true"},
		"nothing":                       {Revision{What: "layer", Index: 0, Layer: &Layer{Name: "handlers", Holds: []string{"counter/src/handlers"}, May: []string{"logic"}}}, "", ""},
	} {
		t.Run(name, func(t *testing.T) {
			gone, come := changed(t, written, c.change)
			require.Equal(t, c.gone, strings.Join(gone, "\n"))
			require.Equal(t, c.come, strings.Join(come, "\n"))
		})
	}
}

func TestWhatCanNotBeChangedIsSaid(t *testing.T) {
	for src, ch := range map[string]Revision{
		written:                             {What: "layer", Index: 9, Layer: &Layer{Name: "x"}},
		"layers: [":                         {What: "rings", Rings: true},
		written + "\n":                      {What: "apart"},
		written + "\n\n\n":                  {What: "colour"},
		written + "\n\n":                    {What: "threshold"},
		"layers: [{name: a, holds: [b]}]\n": {What: "layer", Index: 0, Layer: &Layer{Name: "x"}},
	} {
		out, faults := Apply(src, ch)
		require.Equal(t, src, out)
		require.Len(t, faults, 1)
		require.NotEmpty(t, faults[0].Text)
	}
	out, faults := Apply("", Revision{What: "layer", Index: -1, Layer: &Layer{Name: "all", Holds: []string{"**"}}})
	require.Empty(t, faults)
	require.Equal(t, "layers:\n  - name: all\n    holds: [\"**\"]\n", out)
}

// Whatever is changed one after the other: the text stays one that can be read,
// says what the changes say, and loses no comment of what was not taken away.
func TestAnyRowOfChangesIsReadBackAsItWasMeant(t *testing.T) {
	for seed := range uint64(150) {
		r := rand.New(rand.NewPCG(seed, 3))
		text := written
		c, faults := Parse([]byte(text))
		require.Empty(t, faults)
		want := c.Layers
		for range 6 {
			i := r.IntN(len(want)+1) - 1
			l := Layer{Name: string(rune('a' + r.IntN(26))), Holds: []string{[]string{"src/**", "x # y", "it's", "a, b", "- c"}[r.IntN(5)]}, Wiring: r.IntN(4) == 0}
			for slices.ContainsFunc(want, func(o Layer) bool { return o.Name == l.Name }) {
				l.Name += "x"
			}
			drop := i >= 0 && len(want) > 2 && r.IntN(4) == 0
			switch {
			case drop:
				name := want[i].Name
				if slices.ContainsFunc(want, func(o Layer) bool { return slices.Contains(o.May, name) }) {
					continue // others may depend on it
				}
				want = slices.Delete(slices.Clone(want), i, i+1)
			case i < 0:
				want = append(slices.Clone(want), l)
			default:
				name := want[i].Name
				if slices.ContainsFunc(want, func(o Layer) bool { return slices.Contains(o.May, name) }) {
					l.Name = name
				}
				want = slices.Clone(want)
				want[i] = l
			}
			text, faults = Apply(text, Revision{What: "layer", Index: i, Drop: drop, Layer: &l})
			require.Empty(t, faults, "%s", text)
			got, faults := Parse([]byte(text))
			require.Empty(t, faults, "%s", text)
			require.Len(t, got.Layers, len(want))
			for k := range want {
				require.Equal(t, want[k].Name, got.Layers[k].Name, "%s", text)
				require.Equal(t, want[k].Holds, got.Layers[k].Holds, "%s", text)
				require.Equal(t, want[k].Wiring, got.Layers[k].Wiring, "%s", text)
			}
		}
		require.Contains(t, text, "# How the vault is meant to be built.")
		require.Contains(t, text, "# Parts that stand alone.")
		require.Contains(t, text, "long-file: 400   # we like them short")
	}
}

func FuzzApply(f *testing.F) {
	f.Add(written, 0, "x")
	f.Add("layers:\n- name: a\n  holds: b\n", 1, "- y: [")
	f.Fuzz(func(t *testing.T, src string, index int, name string) {
		out, faults := Apply(src, Revision{What: "layer", Index: index, Layer: &Layer{Name: name, Holds: []string{name}}})
		if len(faults) > 0 && out != src {
			t.Errorf("%q was changed although %v", src, faults)
		}
	})
}

// The schema is published beside the reader; both know the same keys.
func TestTheSchemaKnowsEveryKey(t *testing.T) {
	var schema struct {
		Properties map[string]struct {
			Items struct{ Properties map[string]any }
		}
	}
	require.NoError(t, json.Unmarshal(Schema, &schema))
	keys := func(v any) (out []string) {
		typ := reflect.TypeOf(v)
		for i := range typ.NumField() {
			if name, _, _ := strings.Cut(typ.Field(i).Tag.Get("yaml"), ","); name != "" {
				out = append(out, name)
			}
		}
		slices.Sort(out)
		return out
	}
	require.Equal(t, keys(Charter{}), slices.Sorted(maps.Keys(schema.Properties)))
	require.Equal(t, keys(Layer{}), slices.Sorted(maps.Keys(schema.Properties["layers"].Items.Properties)))
	require.Equal(t, keys(Area{}), slices.Sorted(maps.Keys(schema.Properties["apart"].Items.Properties)))
	require.Equal(t, keys(Exception{}), slices.Sorted(maps.Keys(schema.Properties["exceptions"].Items.Properties)))
}
