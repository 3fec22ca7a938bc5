package server_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"jantel/core/testkit"
	"jantel/review"
	"jantel/server"

	"github.com/stretchr/testify/require"
)

func TestAPageIsBegunWrittenReadAndHandedOut(t *testing.T) {
	dir := testkit.Tree(t, system)
	p := start(t, dir)
	id := p.takeIn(dir)
	base := fmt.Sprintf("/api/codebases/%d/pages", id)
	var begun server.PageStart
	p.do(http.MethodGet, base+"/begin?kind=guide", nil, &begun)
	require.Contains(t, begun.Text, "## What it is")

	var one review.Page
	p.do(http.MethodPost, base, server.NewPage{Kind: review.PageGuide, Title: begun.Title, Text: "Start here.\n\n[how](src/lots.ts#L1-L2)\n\n[gone](src/none.ts)\n\n[what](src/lots.ts#nothing)\n", By: "ida"}, &one)
	require.Equal(t, int64(1), one.Version)
	var all server.PageList
	p.do(http.MethodGet, base, nil, &all)
	require.Len(t, all.Pages, 1)
	require.Empty(t, all.Pages[0].Text, "lists carry no texts")

	var shown server.PageShown
	p.do(http.MethodGet, fmt.Sprintf("%s/%d", base, one.ID), nil, &shown)
	require.Len(t, shown.Blocks, 4)
	require.Contains(t, shown.Blocks[0].HTML, "Start here.")
	require.Len(t, shown.Blocks[1].Excerpt.Lines, 2)
	require.Equal(t, 1, shown.Blocks[1].Excerpt.First)
	require.Equal(t, "it is not in this survey any more", shown.Blocks[2].Excerpt.Missing)
	require.Equal(t, "nothing is not in it any more", shown.Blocks[3].Excerpt.Missing)
	require.Nil(t, shown.Regroup)

	r, text := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/page/%d.md", id, one.ID), nil)
	require.Equal(t, http.StatusOK, r.StatusCode)
	require.True(t, strings.HasPrefix(string(text), "# "+begun.Title))
	r, text = p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/page/%d.html", id, one.ID), nil)
	require.Contains(t, r.Header.Get("Content-Security-Policy"), "sandbox")
	require.Contains(t, string(text), "src/lots.ts:1")
	for _, file := range []string{"99.md", fmt.Sprintf("%d.exe", one.ID)} {
		r, _ = p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/page/%s", id, file), nil)
		require.Equal(t, http.StatusNotFound, r.StatusCode, file)
	}
}

func TestTwoWhoWriteOnePageLoseNothing(t *testing.T) {
	dir := testkit.Tree(t, system)
	p := start(t, dir)
	base := fmt.Sprintf("/api/codebases/%d/pages", p.takeIn(dir))
	var one review.Page
	p.do(http.MethodPost, base, server.NewPage{Kind: review.PageDecision, Title: "Weigh once", Text: "a"}, &one)
	put := func(c server.PageChange) int {
		r, _ := p.send(http.MethodPut, fmt.Sprintf("%s/%d", base, one.ID), c)
		return r.StatusCode
	}
	require.Equal(t, http.StatusOK, put(server.PageChange{Title: "Weigh once", Text: "b", Version: 1}))
	require.Equal(t, http.StatusPreconditionFailed, put(server.PageChange{Title: "Weigh twice", Text: "c", Version: 1}), "somebody else was first")
	require.Equal(t, http.StatusUnprocessableEntity, put(server.PageChange{Title: " ", Text: "c", Version: 2}))
	require.Equal(t, http.StatusOK, put(server.PageChange{Title: "Weigh once", Text: "b", Version: 2, Gone: true}), "what failed changed nothing")
	r, _ := p.send(http.MethodGet, fmt.Sprintf("%s/%d", base, one.ID), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
	require.Equal(t, http.StatusOK, put(server.PageChange{Title: "Weigh once", Text: "b", Version: 3}), "taken back")
	var shown server.PageShown
	p.do(http.MethodGet, fmt.Sprintf("%s/%d", base, one.ID), nil, &shown)
	require.Equal(t, "b", shown.Page.Text)
	for _, bad := range []server.NewPage{
		{Kind: "poem", Title: "x"}, {Kind: review.PageGuide, Title: ""}, {Kind: review.PageGuide, Title: "a\nb"},
		{Kind: review.PageGuide, Title: "x", Text: strings.Repeat("x", review.MaxPageText+1)},
	} {
		r, _ := p.send(http.MethodPost, base, bad)
		require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode, bad.Title)
	}
	r, _ = p.send(http.MethodPut, base+"/99", server.PageChange{Title: "x", Version: 1})
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}

func TestADraftOfARegroupingSaysWhatBecomesOfIt(t *testing.T) {
	dir := testkit.Tree(t, system)
	p := start(t, dir)
	base := fmt.Sprintf("/api/codebases/%d/pages", p.takeIn(dir))
	var one review.Page
	p.do(http.MethodPost, base, server.NewPage{
		Kind: review.PageRegrouping, Title: "Lots", Text: "```\ngit mv src/lots.ts src/lots/rules.ts\ngit mv none.ts x.ts\n```\n",
	}, &one)
	var shown server.PageShown
	p.do(http.MethodGet, fmt.Sprintf("%s/%d", base, one.ID), nil, &shown)
	require.Len(t, shown.Regroup.Moves, 2)
	require.Equal(t, 1, shown.Regroup.Moves[0].Files)
	require.Equal(t, "there is no such file or folder", shown.Regroup.Moves[1].Not)
	require.Equal(t, shown.Regroup.Now.Folders+1, shown.Regroup.Then.Folders)
	require.Greater(t, shown.Regroup.Then.Across, shown.Regroup.Now.Across)
}
