package report

import (
	"encoding/xml"
	"errors"
	"io"
	"strings"
	"testing"

	"jantel/core/reach"

	"github.com/stretchr/testify/require"
)

// texts are the words of a picture, one after the other; that it is a picture at all
// is held on the way.
func texts(t *testing.T, svg string) (out []string) {
	t.Helper()
	d := xml.NewDecoder(strings.NewReader(svg))
	for {
		token, err := d.Token()
		if errors.Is(err, io.EOF) {
			return out
		}
		require.NoError(t, err)
		switch x := token.(type) {
		case xml.StartElement:
			require.Contains(t, []string{"svg", "rect", "text", "tspan", "line", "g", "title", "path"}, x.Name.Local)
		case xml.CharData:
			if s := strings.TrimSpace(string(x)); s != "" {
				out = append(out, s)
			}
		}
	}
}

func TestAStripIsAPictureWhateverNamesItMeets(t *testing.T) {
	x := Strip{
		Title: "GET /<lots>", Source: "vault & co", Before: []string{"before: a<b (app.ts:3)"}, Ends: []string{"It reads lots."},
		Stops: []StripStop{
			{Name: "show<T>", Role: "handler", Where: "a/]]>.ts:4", First: 3, At: 4, Lines: []string{"\tif (a < b) {", "  \x1b[31mred"}, Likely: true},
			{Name: strings.Repeat("long", 40), Where: strings.Repeat("deep/", 60) + "x.ts:1", Notes: []string{"raises <script>"}},
		},
	}
	var b strings.Builder
	require.NoError(t, StripSVG(&b, &x))
	got := texts(t, b.String())
	for _, want := range []string{"GET /<lots>", "vault & co", "before: a<b (app.ts:3)", "show<T>", "a/]]>.ts:4", "raises <script>", "It reads lots.", "→"} {
		require.Contains(t, got, want)
	}
	require.Contains(t, b.String(), "stroke-dasharray", "what may be is drawn broken")
	require.NotContains(t, b.String(), "\x1b")
	for _, s := range got {
		require.Less(t, len([]rune(s)), 200, "nothing runs out of the picture")
	}
}

func TestAHundredStopsStandInRows(t *testing.T) {
	var x Strip
	for range 100 {
		x.Stops = append(x.Stops, StripStop{Name: "pass", Where: "a.ts:1", First: 1, Lines: []string{"a", "b"}})
	}
	var b strings.Builder
	require.NoError(t, StripSVG(&b, &x))
	require.Equal(t, 100, strings.Count(b.String(), ">pass <"))
	head, _, _ := strings.Cut(b.String(), "\n")
	require.Contains(t, head, `width="1438"`, "four beside each other")
	var none strings.Builder
	require.NoError(t, StripSVG(&none, &Strip{Title: "GET /x", Ends: []string{"It can not be followed."}}))
	require.Contains(t, texts(t, none.String()), "It can not be followed.")
}

func TestAPartIsHandedOutWithItsEnds(t *testing.T) {
	x := PartSheet{
		Title: "Shelf`s", Path: "a|b.ts", Line: 3, Head: "class Shelf {", Jobs: [][]string{{"a", "b"}, {"c", "d"}}, Left: 2,
		Members: []PartLine{{Name: "take", Path: "a|b.ts", Line: 4, Count: 900}, {Name: "give", Path: "a|b.ts", Line: 9, Count: 1}},
		Users:   []PartLine{{Name: "desk", Path: "c.ts", Line: 1}}, Duties: []PartLine{{Name: "draws", Path: "a|b.ts", Line: 5}},
		Tests: []PartLine{{Path: "a.test.ts"}},
	}
	for range 40 {
		x.Uses = append(x.Uses, PartLine{Name: "<use>", Path: "d.ts", Line: 1})
	}
	var text, svg strings.Builder
	require.NoError(t, PartMarkdown(&text, &x))
	for _, want := range []string{
		"# ``Shelf`s``", "`a|b.ts:3`", "class Shelf {", "## What it does", "- `draws`, `a|b.ts:5`", "- `a, b`", "- `take`, `a|b.ts:4`", "- `a.test.ts`",
		"2 further ends not listed.",
	} {
		require.Contains(t, text.String(), want)
	}
	require.NotContains(t, text.String(), "Nearly the same", "what there is none of is left out")
	require.NoError(t, PartSVG(&svg, &x))
	got := texts(t, svg.String())
	for _, want := range []string{"used by one place", "made of 2 members", "uses 40 places", "and 16 more", "2 groups of its functions do not call each other", "900 lines"} {
		require.Contains(t, got, want)
	}
}

func TestReachIsHandedOutWithWhatIsNotSure(t *testing.T) {
	x := reach.Reach{
		Files: 3, ByTypes: 1, Folders: []reach.FolderReach{{Path: "a", Files: 3}},
		Steps: []reach.ReachStep{
			{Distance: 1, Count: 3, Places: []reach.Reached{{Path: "a/x.ts", Sure: true}, {Path: "a/y.ts", Name: "Y.go", Line: 4}}},
			{Distance: 2, Count: 1, Places: []reach.Reached{{Path: "a/z.ts", Sure: true}}},
		},
		Tests:    []reach.Reached{{Path: "a/x.test.ts", Sure: true}},
		Together: []reach.ChangedTogether{{Path: "b.ts", Times: 4}},
		Along:    reach.ComesAlong{Files: 5, List: []reach.Reached{{Path: "c.ts", Sure: true}}, Cuts: []reach.Saving{{From: "a/x.ts", To: "c.ts", Line: 2, Saves: 4}}},
	}
	var b strings.Builder
	require.NoError(t, ReachMarkdown(&b, &x, "a/w.ts"))
	for _, want := range []string{
		"# What a change at `a/w.ts` may touch", "3 files in one folder.", "One file more through types alone.", "## Directly: 3", "- `a/x.ts`\n",
		"- `Y.go at a/y.ts:4` (may be)", "- and 1 more", "## Over 2 steps: 1", "- `a/x.test.ts`", "- `b.ts`, 4 times",
		"- 4 files fewer without `c.ts`, needed at `a/x.ts:2`", "- and 4 more",
	} {
		require.Contains(t, b.String(), want)
	}
	var none strings.Builder
	require.NoError(t, ReachMarkdown(&none, &reach.Reach{}, "a.ts"))
	require.Contains(t, none.String(), "Nothing was found that needs it.")
	require.Contains(t, none.String(), "None was found.")
}
