package server_test

import (
	"fmt"
	"net/http"
	"net/url"
	"testing"

	"jantel/core/compare"
	"jantel/core/testkit"
	"jantel/review"
	"jantel/server"
	"jantel/store"

	"github.com/stretchr/testify/require"
)

func TestAnEventCarriesTheFindingAndWhoChangedIt(t *testing.T) {
	dir := testkit.Tree(t, tree)
	p := start(t, dir)
	id := p.takeIn(dir)
	var seen map[string]any
	p.events(func(name string, d map[string]any) bool {
		seen = d
		return name == "review" && d["what"] == "finding"
	}, func() {
		p.do(http.MethodPost, fmt.Sprintf("/api/codebases/%d/findings", id), server.NewFinding{Kind: review.Keep, Title: "good", Path: "lots", By: "Odd"}, nil)
	})
	require.Equal(t, "findings", seen["part"])
	require.Equal(t, "Odd", seen["by"])
	f, ok := seen["finding"].(map[string]any)
	require.True(t, ok, "a page need not ask for what it is told")
	require.Equal(t, "good", f["title"])
	require.Equal(t, "lots", f["place"].(map[string]any)["path"])
}

func TestAChangeOfOnePartLeavesTheOthersUnchanged(t *testing.T) {
	dir := testkit.Tree(t, tree)
	p := start(t, dir)
	id := p.takeIn(dir)
	views := []string{"overview", "layout", "margin?at=lots", "code?at=main.go", "weave", "dependencies", "flows", "routes", "section"}
	tags := func() map[string]string {
		out := map[string]string{}
		for _, v := range views {
			r, _ := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/%s", id, v), nil)
			require.Equal(t, http.StatusOK, r.StatusCode, v)
			out[v] = r.Header.Get("ETag")
			require.NotEmpty(t, out[v], v)
		}
		return out
	}
	changed := func(act func()) (out []string) {
		before := tags()
		act()
		after := tags()
		for _, v := range views {
			if before[v] != after[v] {
				out = append(out, v)
			}
		}
		return out
	}
	at := func(what string) string { return fmt.Sprintf("/api/codebases/%d/%s", id, what) }
	require.Equal(t, []string{"layout", "margin?at=lots"}, changed(func() {
		p.do(http.MethodPost, at("findings"), server.NewFinding{Kind: review.Keep, Title: "good", Path: "."}, nil)
	}))
	require.Equal(t, []string{"layout", "margin?at=lots", "code?at=main.go"}, changed(func() {
		p.do(http.MethodPut, at("read"), server.Mark{Path: "main.go", Read: true}, nil)
	}))
	require.Equal(t, []string{"dependencies"}, changed(func() {
		p.do(http.MethodPut, at("arrangement"), server.Arrangement{Place: ".", Boxes: []string{"lots"}}, nil)
	}))
}

func TestFindingsAreListedInStretchesAndHandedOutAsTheyAreSeen(t *testing.T) {
	dir := testkit.Tree(t, tree)
	p := start(t, dir)
	id := p.takeIn(dir)
	at := fmt.Sprintf("/api/codebases/%d/findings", id)
	for i := range 7 {
		p.do(http.MethodPost, at, server.NewFinding{Kind: []review.Kind{review.Fix, review.Keep}[i%2], Title: fmt.Sprintf("remark %d", i), Path: "lots", Assignee: "Maren"}, nil)
	}
	var l review.List
	p.get(at+"?from=2&count=3", &l)
	require.Equal(t, []int{7, 7, 3}, []int{l.All, l.Count, len(l.Rows)})
	require.Equal(t, "remark 2", l.Rows[0].Title)
	p.get(at+"?kind=keep&group=kind", &l)
	require.Equal(t, []review.Group{{Key: "keep", Count: 3}}, l.Groups)
	p.get(at+"?count=0", &l)
	require.Equal(t, []string{"Maren"}, l.People)
	require.Empty(t, l.Rows)
	_, b := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/export/findings.csv?kind=keep", id), nil)
	require.Contains(t, string(b), "remark 1")
	require.NotContains(t, string(b), "remark 2")
	r, _ := p.send(http.MethodGet, at+"?count=-1", nil)
	require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode)
}

func TestTwoPlacesBesideEachOther(t *testing.T) {
	dir := testkit.Tree(t, tree)
	p := start(t, dir)
	id := p.takeIn(dir)
	var b compare.Beside
	p.get(fmt.Sprintf("/api/codebases/%d/beside?at=lots&with=lots/utils", id), &b)
	require.NotEmpty(t, b.Figures)
	r, _ := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/beside?at=lots&with=none", id), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
	r, _ = p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/beside?with-codebase=99", id), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}

func TestSmellsAreListedInStretchesTheStrongestFirst(t *testing.T) {
	dir := testkit.Tree(t, tree)
	p := start(t, dir)
	id := p.takeIn(dir)
	at := fmt.Sprintf("/api/codebases/%d/smells", id)
	var whole server.SmellList
	p.get(at, &whole)
	require.NotEmpty(t, whole.Smells)
	require.Equal(t, whole.Count, whole.Total)
	var got []string
	for from := range whole.Total {
		var one server.SmellList
		p.get(fmt.Sprintf("%s?from=%d&count=1", at, from), &one)
		require.Len(t, one.Smells, 1)
		require.NotEmpty(t, one.Titles[one.Smells[0].Rule].Why)
		got = append(got, one.Smells[0].ID)
	}
	for i, sm := range whole.Smells {
		require.Equal(t, got[i], sm.ID)
		require.True(t, i == 0 || sm.Strength <= whole.Smells[i-1].Strength)
	}
	p.do(http.MethodPut, fmt.Sprintf("/api/codebases/%d/silences", id),
		server.Silences{All: []server.Quiet{{Smell: whole.Smells[0].ID, Reason: "agreed"}}}, nil)
	var after server.SmellList
	p.get(at, &after)
	require.Equal(t, whole.Count-1, after.Count)
	require.Equal(t, whole.Smells[0].ID, after.Smells[after.Total-1].ID, "what is silenced stands last")
}

func TestRemovingACodebaseFreesWhatNoOtherHolds(t *testing.T) {
	dir := testkit.Tree(t, tree)
	other := testkit.Tree(t, tree+"-- more.go --\npackage main\n")
	p := start(t, dir, other)
	a, b := p.takeIn(dir), p.takeIn(other)
	var freed store.Freed
	p.do(http.MethodDelete, fmt.Sprintf("/api/codebases/%d", b), nil, &freed)
	require.Equal(t, 1, freed.Surveys)
	require.Equal(t, 1, freed.Texts, "the other codebase still holds the rest")
	require.Positive(t, freed.Bytes)
	var code server.Code
	p.get(fmt.Sprintf("/api/codebases/%d/code?at=main.go", a), &code)
	require.NotEmpty(t, code.Text, "what another codebase holds is still there")
	r, _ := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/overview", b), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
	p.do(http.MethodDelete, fmt.Sprintf("/api/codebases/%d", a), nil, &freed)
	require.Greater(t, freed.Texts, 3)
}

func TestFoldersAreChosenOnlyFromThoseAllowed(t *testing.T) {
	dir := testkit.Tree(t, tree)
	p := start(t, dir)
	var f server.Folders
	p.get("/api/folders", &f)
	require.Len(t, f.Folders, 1)
	p.get("/api/folders?at="+url.QueryEscape(f.Folders[0].Path), &f)
	require.Empty(t, f.Above, "what lies above may not be surveyed")
	require.Equal(t, "lots", f.Folders[0].Name)
	for _, at := range []string{"/", "/etc", dir + "/..", dir + "/none", "relative"} {
		r, _ := p.send(http.MethodGet, "/api/folders?at="+url.QueryEscape(at), nil)
		require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode, at)
	}
}

func TestNoViewIsSentTwice(t *testing.T) {
	dir := testkit.Tree(t, tree)
	p := start(t, dir)
	id := p.takeIn(dir)
	for _, v := range []string{
		"overview", "layout", "margin?at=lots", "code?at=main.go", "weave", "dependencies", "flows", "routes", "section",
		"smells", "belongings?at=lots", "narrowed?role=entry", "between?from=main.go&to=lots", "beside?at=lots&with=lots/utils",
	} {
		at := fmt.Sprintf("/api/codebases/%d/%s", id, v)
		r, _ := p.send(http.MethodGet, at, nil)
		require.Equal(t, http.StatusOK, r.StatusCode, v)
		tag := r.Header.Get("ETag")
		require.Regexp(t, `^"[^"]+"$`, tag, v)
		again, body := p.send(http.MethodGet, at, nil, "If-None-Match", tag)
		require.Equal(t, http.StatusNotModified, again.StatusCode, v)
		require.Empty(t, body, v)
		other, _ := p.send(http.MethodGet, at, nil, "If-None-Match", `"another"`)
		require.Equal(t, http.StatusOK, other.StatusCode, v)
	}
}

func TestFindingsOfARoleAreHandedOutAsTheyAreListed(t *testing.T) {
	dir := testkit.Tree(t, tree)
	p := start(t, dir)
	id := p.takeIn(dir)
	at := fmt.Sprintf("/api/codebases/%d/findings", id)
	for _, place := range []string{"main.go", "lots/lots.go"} {
		p.do(http.MethodPost, at, server.NewFinding{Kind: review.Keep, Title: "on " + place, Path: place}, nil)
	}
	var l review.List
	p.get(at+"?role=entry", &l)
	require.Len(t, l.Rows, 1)
	for _, file := range []string{"findings.csv", "findings.md"} {
		_, b := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/export/%s?role=entry", id, file), nil)
		require.Contains(t, string(b), "on main.go", file)
		require.NotContains(t, string(b), "on lots/lots.go", file)
	}
}

func TestCodeOfALanguageThatIsNotReadIsSaidToBe(t *testing.T) {
	dir := testkit.Tree(t, "-- chat.lua --\nfunction open(lot) return lot end\n-- main.go --\npackage main\n\nfunc main() {}\n")
	p := start(t, dir)
	id := p.takeIn(dir)
	for path, unread := range map[string]bool{"chat.lua": true, "main.go": false} {
		var code server.Code
		p.get(fmt.Sprintf("/api/codebases/%d/code?at=%s", id, path), &code)
		require.Equal(t, unread, code.Unread, path)
	}
}
