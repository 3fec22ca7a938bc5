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

func TestTextsByNameAreToldNarrowedAndOpened(t *testing.T) {
	held := ""
	for i := range 250 {
		held += fmt.Sprintf(",\n  \"box%d\": \"Box %d\"", i, i)
	}
	dir := testkit.Tree(t, `
-- web/locales/en.json --
{ "title": "Lots", "save": "Save"`+held+` }
-- web/locales/de.json --
{ "title": "Posten" }
-- web/locales/fr.json --
{ "title": "Lots", "save": "Garder" }
-- web/page.ts --
export const a = [i18n.t('title'), i18n.t('save'), i18n.t('title'), i18n.t('title'), i18n.t('title'),
i18n.t('title')]
-- web/port.ts --
export const port = process.env.PORT ?? 80
-- bench/a.ts --
export const b = process.env.OTHER
`)
	p := start(t, dir)
	id := p.takeIn(dir)
	texts := func(query string) (l server.TextList) {
		p.get(fmt.Sprintf("/api/codebases/%d/texts?%s", id, query), &l)
		return l
	}
	all := texts("")
	require.Equal(t, 252, all.Found)
	require.Len(t, all.Rows, 200, "the rest is counted")
	require.Equal(t, map[string]int{"text": 252, "setting": 2}, all.Kinds)
	require.Equal(t, map[string]int{"missing in some": 251}, all.Wrong)
	require.Len(t, all.Sets, 1)
	require.Len(t, all.Sets[0].Tongues, 3)
	require.Equal(t, 1, texts("kind=setting&at=bench").Found)
	require.Empty(t, texts("kind=setting&at=bench").Sets)
	require.Equal(t, 1, texts("words=garder").Found, "by what a text says")
	require.Equal(t, 0, texts("wrong=held+nowhere").Found)
	one := texts("words=title").Rows[0]
	require.Len(t, one.Asked, 4)
	require.Equal(t, 5, one.AskedIn)
	require.Len(t, texts("words=title&open=title").Rows[0].Asked, 5)
	r, _ := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/texts?at=nowhere", id), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
	r, _ = p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/texts?kind=other", id), nil)
	require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode)
}
