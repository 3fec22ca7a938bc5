package find_test

import (
	"regexp"
	"strings"
	"testing"

	"jantel/core/find"

	"github.com/stretchr/testify/require"
)

func in(t *testing.T, q string, re, exact bool, text string) []find.Hit {
	t.Helper()
	p, err := find.NewPattern(q, re, exact)
	require.NoError(t, err)
	return p.In([]byte(text), 100)
}

func TestTextIsFoundLineByLine(t *testing.T) {
	text := "one Seed\ntwo\n\tseedling SEED\nstraße Ärger\n"
	require.Equal(t, []find.Hit{{1, "one Seed", 4, 8}, {3, "seedling SEED", 0, 4}}, in(t, "seed", false, false, text))
	require.Equal(t, []find.Hit{{1, "one Seed", 4, 8}}, in(t, "Seed", false, true, text))
	require.Equal(t, []find.Hit{{3, "seedling SEED", 9, 13}}, in(t, "SEED", false, true, text))
	require.Equal(t, []find.Hit{{4, "straße Ärger", 8, 10}}, in(t, "ä", false, false, text))
	require.Equal(t, []find.Hit{{3, "seedling SEED", 0, 8}}, in(t, `seed\w+`, true, false, text))
	require.Equal(t, []find.Hit{{2, "two", 0, 3}}, in(t, `(?m)^t.o$`, true, true, text))
	require.Empty(t, in(t, "none", false, false, text))
	require.Empty(t, in(t, "none.+at all", true, false, text))
}

func TestALongLineIsCutAroundItsHit(t *testing.T) {
	h := in(t, "needle", false, false, strings.Repeat("é", 3000)+"needle"+strings.Repeat("x", 3000))
	require.Len(t, h, 1)
	require.Less(t, len(h[0].Text), 400)
	require.Equal(t, "needle", h[0].Text[h[0].Start:h[0].End])
}

func TestASearchThatIsNoneSaysWhy(t *testing.T) {
	for q, re := range map[string]bool{"": false, "   ": false, "(": true, "a{2000}": true, "\xff": false, strings.Repeat("x", 1001): false} {
		_, err := find.NewPattern(q, re, false)
		require.Error(t, err, q)
	}
}

func FuzzSearchAgreesWithTheLibrary(f *testing.F) {
	f.Add("seed", "a Seed\nb SEED seed\n", false)
	f.Add("aB", "xabAB\nabab\n", true)
	f.Add("\xff", "a\xff\n", false)
	f.Fuzz(func(t *testing.T, q, text string, exact bool) {
		p, err := find.NewPattern(q, false, exact)
		if err != nil || strings.ContainsAny(q, "\n\r") {
			return
		}
		flags := "(?i)"
		if exact {
			flags = ""
		}
		for i := 0; i < len(q); i++ {
			if q[i] >= 0x80 || (q[i]|32 == 'k' || q[i]|32 == 's') && !exact {
				return // the library folds ſ and the Kelvin sign as well
			}
		}
		re := regexp.MustCompile(flags + regexp.QuoteMeta(q))
		var want []int
		for i, line := range strings.Split(text, "\n") {
			if re.MatchString(line) {
				want = append(want, i+1)
			}
		}
		var got []int
		for _, h := range p.In([]byte(text), 1<<20) {
			got = append(got, h.Line)
			require.True(t, 0 <= h.Start && h.Start <= h.End && h.End <= len(h.Text))
		}
		require.Equal(t, want, got)
	})
}

func TestNamesAreRankedAsAReaderMeans(t *testing.T) {
	for _, c := range []struct{ q, better, worse string }{
		{"lots", "counter/src/lots.ts", "counter/src/plotsize.ts"},
		{"shelfpick", "desk/src/components/ShelfPicker.tsx", "desk/shelf/src/pages/quick.tsx"},
		{"sp", "desk/ShelfPicker.tsx", "desk/whisper.tsx"},
		{"logic/lab", "counter/src/logic/labels.ts", "counter/src/data/labels.ts"},
		{"app", "counter/src/app.ts", "desk/src/components/apparatus/list.ts"},
	} {
		m := find.NewMatcher(c.q)
		require.Greater(t, m.Path(c.better), m.Path(c.worse), c.q)
	}
	m := find.NewMatcher("weigh")
	require.Greater(t, m.Name("weigh"), m.Name("weighLots"))
	require.Greater(t, m.Name("weighLots"), m.Name("reweigh"))
	require.Zero(t, m.Name("wei"))
	require.Zero(t, find.NewMatcher("").Name("x"))
	require.Zero(t, find.NewMatcher("xyz").Path("an/oxbow/entry/blaze.ts"))
}
