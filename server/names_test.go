package server_test

import (
	"fmt"
	"net/http"
	"testing"

	"jantel/core/rename"
	"jantel/core/testkit"
	"jantel/server"

	"github.com/stretchr/testify/require"
)

func TestNamesOfAPlaceAreToldAndNarrowed(t *testing.T) {
	dir := testkit.Tree(t, panels+lots+"-- bench/growers.py --\ndef get_grower(req):\n    store.add(req)\n\ndef find_requests(request):\n    return request\n\ndef keep_request(request):\n    return request\n\ndef drop_req(request):\n    return request\n")
	p := start(t, dir)
	id := p.takeIn(dir)
	names := func(query string) (n server.Names) {
		p.get(fmt.Sprintf("/api/codebases/%d/names?%s", id, query), &n)
		return n
	}
	all := names("")
	require.Equal(t, all.All, all.Found)
	require.Len(t, all.Words, all.Found)
	require.Positive(t, all.Smells, "the numbered panels")
	require.Less(t, names("at=bench").Names, all.Names)
	some := names("words=grow")
	require.Equal(t, 1, some.Found)
	require.Equal(t, "grower", some.Words[0].Word)
	short := names("short=true")
	require.Equal(t, 1, short.Found)
	require.Equal(t, "req", short.Words[0].Word)
	require.Equal(t, "request", short.Words[0].Long)
	require.Equal(t, "get", all.Verbs[0].Verb)
	require.Equal(t, 1, all.Verbs[0].Broken)
	r, _ := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/names?at=nowhere", id), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}

func TestWhatARenameTouchesIsToldOverAllTexts(t *testing.T) {
	dir := testkit.Tree(t, `
-- src/lots.ts --
export function weigh(lot: string) {
  return lot.length
}
-- src/desk.ts --
import { weigh } from './lots'

export const tell = (lot: string) => weigh(lot)
-- docs/weighing.md --
First weigh the lot.
`)
	p := start(t, dir)
	id := p.takeIn(dir)
	var x rename.Touched
	p.get(fmt.Sprintf("/api/codebases/%d/rename?at=src/lots.ts&line=2", id), &x)
	require.Equal(t, "weigh", x.Name)
	var got []string
	for _, at := range x.Places {
		got = append(got, fmt.Sprintf("%s:%d %s", at.Path, at.Line, at.Tie))
	}
	require.Equal(t, []string{"src/desk.ts:1 sure", "src/desk.ts:3 sure", "src/lots.ts:1 sure", "docs/weighing.md:1 only looks like"}, got)
	for _, nowhere := range []string{"at=src/desk.ts&line=1", "at=src/none.ts&line=1"} {
		r, _ := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/rename?%s", id, nowhere), nil)
		require.Equal(t, http.StatusNotFound, r.StatusCode, nowhere)
	}
}
