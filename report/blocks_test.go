package report

import (
	"strings"
	"testing"
	"time"

	"jantel/core/model"
	"jantel/core/overview"
	"jantel/review"

	"github.com/stretchr/testify/require"
)

func TestAPageIsTakenApartIntoTextAndPlaces(t *testing.T) {
	got := PageBlocks("# Drying\n\nSee [the *rack*](desk/rack.ts) first.\n\n[how a lot is weighed](bench/weigh.py#weigh)\n\n[x](a%20b.go#L3-L9)\n\n[y](a.go#L7)\n\nLast.\n")
	require.Len(t, got, 5)
	require.Contains(t, got[0].HTML, "<h1>Drying</h1>")
	require.Contains(t, got[0].HTML, `<a href="desk/rack.ts"`)
	require.Equal(t, &ExcerptRef{Path: "bench/weigh.py", Caption: "how a lot is weighed", Name: "weigh"}, got[1].Excerpt)
	require.Equal(t, &ExcerptRef{Path: "a b.go", Caption: "x", From: 3, To: 9}, got[2].Excerpt)
	require.Equal(t, &ExcerptRef{Path: "a.go", Caption: "y", From: 7, To: 7}, got[3].Excerpt)
	require.Contains(t, got[4].HTML, "Last.")
}

func TestWhatLeadsElsewhereIsNoPlace(t *testing.T) {
	for _, href := range []string{"https://moor.example/x", "//moor.example/x", "/etc/passwd", "../up.go", "mailto:a@b", "#L3", "", "javascript:x"} {
		require.Nil(t, linkedPlace(href), href)
	}
}

func TestAPageIsHarmlessWhateverIsWrittenInIt(t *testing.T) {
	got := PageBlocks("<script>x()</script>\n\n![p](http://moor.example/p.png)\n\n[l](javascript:x)\n\n- [x] done\n- [ ] to do <input type=image onclick=x>\n")
	var all strings.Builder
	for _, b := range got {
		all.WriteString(b.HTML)
	}
	require.NotContains(t, all.String(), "<script")
	require.NotContains(t, all.String(), "<img")
	require.NotContains(t, all.String(), "javascript:")
	require.NotContains(t, all.String(), "onclick")
	require.Equal(t, 2, strings.Count(all.String(), `type="checkbox"`))
}

func TestWhatIsNestedTooDeepStandsAsItIsWritten(t *testing.T) {
	require.Equal(t, "> a\n1. b\n", shallow("> a\n1. b\n"))
	deep := strings.Repeat("> ", 400) + "x\n"
	require.Equal(t, mostNested, strings.Count(SafeHTML(deep), "<blockquote>"))
	require.Contains(t, SafeHTML(deep), "&gt; &gt;")
	for _, mark := range []string{"> ", ">", "1. ", "- ", "12) "} {
		got := shallow(strings.Repeat(mark, 400) + "x")
		require.Equal(t, 1, strings.Count(got, `\`), mark)
		require.Equal(t, got, shallow(got), "what is shallow stays as it is")
	}
	require.Equal(t, "- - - -\n---\n", shallow("- - - -\n---\n"), "a rule is no list")
}

func FuzzPageBlocks(f *testing.F) {
	f.Add("# a\n\n[b](c#L1-L2)\n\n- [ ] d\n")
	f.Add("[a]: b\n\n[a]\n\n| a |\n|---|\n")
	f.Fuzz(func(t *testing.T, text string) {
		for _, b := range PageBlocks(text) {
			require.NotContains(t, strings.ToLower(b.HTML), "<script")
			if x := b.Excerpt; x != nil {
				require.False(t, strings.HasPrefix(x.Path, "..") || strings.HasPrefix(x.Path, "/"), x.Path)
			}
		}
	})
}

func TestPagesBeginWithWhatIsKnown(t *testing.T) {
	line := 4
	k := &Known{
		Name: "vault", Feature: "drying", Parts: []string{"desk/drying page.ts", "bench/drying.py"}, Unread: []string{"press", "archive"},
		Sheet: &overview.Sheet{
			Sentences: []overview.Sentence{{Text: "Two parts: *desk* and *bench*."}},
			Runs:      []overview.Run{{Purpose: "test", Text: "make test", Path: "Makefile", Line: 3}},
			Entries:   []model.Evidence{{Path: "bench/main.py", Line: line, Note: "it starts"}},
			ReadFirst: []overview.Reason{{Path: "bench/rules.py", Why: "most need it"}},
		},
		Findings: []review.Finding{
			{Kind: review.Keep, Title: "One folder for one part", Place: review.Place{Path: "bench"}},
			{Kind: review.Fix, Title: "Weighs twice", Text: "Ask the scale once.", Place: review.Place{Path: "desk/p.ts", Line: 3, EndLine: 5}},
			{Kind: review.Redo, Title: "Cut the picker", Place: review.Place{Path: "desk/p.ts", Definition: "Picker"}},
			{Kind: review.Ask, Title: "Why is it off?", Place: review.Place{Path: "app.ts", Line: 21}},
			{Kind: review.Fix, State: review.Done, Title: "Said so", Place: review.Place{Path: "."}},
			{Kind: review.Taste, State: review.Dropped, Title: "Never mind", Place: review.Place{Path: "."}},
		},
	}
	title, guide := Begin(review.PageGuide, k)
	require.Equal(t, "Getting to know vault", title)
	for _, want := range []string{
		"Two parts: desk and bench.", "- [ ] test: `make test`, said in [Makefile](Makefile#L3)", "- [bench/main.py](bench/main.py#L4): it starts",
		"- [ ] [desk/drying page.ts](desk/drying%20page.ts)", "- [ ] [bench/rules.py](bench/rules.py): most need it", "## Where new code goes",
	} {
		require.Contains(t, guide, want)
	}
	_, text := Begin(review.PageReport, k)
	for _, want := range []string{
		"## What to keep\n\n### One folder for one part\n\nIn [bench](bench).", "### 1. Weighs twice\n\nAsk the scale once.\n\n[desk/p.ts:3-5](desk/p.ts#L3-L5)",
		"### 2. Cut the picker\n\n[Picker](desk/p.ts#Picker)", "## Done since\n\n### Said so", "## Open questions\n\n### Why is it off?", "- `press`\n- `archive`",
	} {
		require.Contains(t, text, want)
	}
	require.NotContains(t, text, "Never mind")
	for _, kind := range []review.PageKind{review.PageDecision, review.PageRegrouping} {
		_, text = Begin(kind, k)
		require.Contains(t, text, "## Why\n")
	}
}

func TestAPageIsHandedOutAsOneFile(t *testing.T) {
	var out strings.Builder
	require.NoError(t, PageHTML(&out, &PageSheet{
		Title: "A <b>", Kind: "guide", By: "Maren", At: time.Date(2026, 12, 1, 0, 0, 0, 0, time.UTC),
		Pieces: []PagePiece{{HTML: "<p>text</p>"}, {Path: "a.ts", First: 7, Lines: []string{"<x>", "y"}}, {Path: "b.ts", Missing: "it is gone"}},
	}))
	for _, want := range []string{"A &lt;b&gt;", "guide, Maren, 1 December 2026", "<p>text</p>", "a.ts:7", "7  &lt;x&gt;\n8  y", "it is gone"} {
		require.Contains(t, out.String(), want)
	}
	require.NotContains(t, out.String(), "http://")
	require.NotContains(t, out.String(), "src=\"")
}
