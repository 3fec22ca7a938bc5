package server_test

import (
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"jantel/core/model"
	"jantel/core/states"
	"jantel/core/testkit"
	"jantel/server"

	"github.com/stretchr/testify/require"
)

const system = `
-- src/app.ts --
import express from 'express'
import { lots } from './lots'
const app = express()
app.use('/api', lots)
app.get('/health', (req, res) => res.end())
app.listen(process.env.PORT)
-- src/lots.ts --
import { Router } from 'express'
import { list } from './handlers'
export const lots = Router()
lots.get('/lots/:id', list)
-- src/handlers.ts --
export const list = (req, res) => {}
`

func TestRoutesAreListedAndATypedPathIsAnswered(t *testing.T) {
	dir := testkit.Tree(t, system)
	p := start(t, dir)
	id := p.takeIn(dir)
	get := func(query string) (out []model.Route) {
		var c server.Contract
		p.get(fmt.Sprintf("/api/codebases/%d/routes%s", id, query), &c)
		for _, r := range c.Routes {
			require.False(t, r.InTests)
			out = append(out, r.Route)
		}
		return out
	}
	all := get("")
	require.Equal(t, []model.Route{
		{
			Method: "GET", Pattern: "/api/lots/:id", Path: "src/lots.ts", Line: 4, HandlerPath: "src/handlers.ts", HandlerName: "list",
			HandlerLine: 1, Guards: []string{}, Checks: []string{}, App: "src/app.ts", Order: 1,
		},
		{
			Method: "GET", Pattern: "/health", Path: "src/app.ts", Line: 5, InPlace: true, Guards: []string{},
			Checks: []string{}, App: "src/app.ts", Order: 2,
		},
	}, all)
	require.Equal(t, all[:1], get("?path=/api/lots/7"))
	require.Empty(t, get("?path=/api/lots"))
	require.Equal(t, all[:1], get("?at=src/handlers.ts"), "what a file answers is its own")
	require.Equal(t, all[1:], get("?at=src/app.ts"))
	r, _ := p.send(http.MethodGet, "/api/codebases/99/routes", nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}

// TestARouteOfATestOpensLikeAnyOther: the contract lists those on demand, and each row opens.
func TestARouteOfATestOpensLikeAnyOther(t *testing.T) {
	dir := testkit.Tree(t, system+"-- src/lots.test.ts --\nimport express from 'express'\nimport { keep } from './store'\n"+
		"const app = express()\napp.post('/trial/:id', sow)\nfunction sow(req, res) {\n  keep(req.body)\n}\n"+
		"test('sows', () => {\n  expect(1).toBe(1)\n})\n-- src/store.ts --\nexport function keep(lot) {\n  db.query('INSERT INTO lots (id) VALUES (1)')\n}\n")
	p := start(t, dir)
	id := p.takeIn(dir)
	var c server.Contract
	p.get(fmt.Sprintf("/api/codebases/%d/routes", id), &c)
	require.NotZero(t, c.Tests)
	opened := 0
	for _, r := range c.Routes {
		var w server.Way
		p.get(fmt.Sprintf("/api/codebases/%d/journey?at=%s&line=%d&method=%s&pattern=%s", id, url.QueryEscape(r.Path), r.Line, r.Method, url.QueryEscape(r.Pattern)), &w)
		if r.InTests {
			require.Equal(t, "/trial/:id", w.Pattern)
			require.NotEmpty(t, w.Stops, w.Broken)
			opened++
		}
	}
	require.Equal(t, 1, opened)
	for _, none := range []string{"/trial/:no", "/nowhere"} {
		r, _ := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/journey?at=src/lots.test.ts&line=4&method=POST&pattern=%s", id, url.QueryEscape(none)), nil)
		require.Equal(t, http.StatusNotFound, r.StatusCode)
	}
}

func TestTheMarginTellsWhatGitTells(t *testing.T) {
	dir := testkit.Repository(t, system)
	for i := range 3 {
		for _, f := range []string{"src/app.ts", "src/lots.ts"} {
			h, err := os.OpenFile(filepath.Join(dir, f), os.O_APPEND|os.O_WRONLY, 0)
			require.NoError(t, err)
			_, err = fmt.Fprintf(h, "// %d\n", i)
			require.NoError(t, err)
			require.NoError(t, h.Close())
		}
		testkit.Git(t, dir, "commit", "-qam", "Change both")
	}
	p := start(t, dir)
	id := p.takeIn(dir)
	var m server.Margin
	p.get(fmt.Sprintf("/api/codebases/%d/margin?at=src/lots.ts", id), &m)
	require.NotNil(t, m.History)
	require.Equal(t, 4, m.History.Changes)
	require.Equal(t, "Maren", m.History.Authors[0].Name)
	require.Equal(t, 2026, m.History.Last.Year())
	require.Equal(t, []model.Pair{{A: "src/lots.ts", B: "src/app.ts", Together: 4, Confidence: 1}}, m.History.Together)
	var folder server.Margin
	p.get(fmt.Sprintf("/api/codebases/%d/margin?at=src", id), &folder)
	require.Nil(t, folder.History)
}

func TestWhatAnEditorCanOpenIsSaid(t *testing.T) {
	dir := testkit.Repository(t, system)
	bare := filepath.Join(t.TempDir(), "vault.git")
	testkit.Git(t, dir, "clone", "-q", "--bare", dir, bare)
	p := start(t, filepath.Dir(dir), filepath.Dir(bare))
	for path, want := range map[string]string{dir: dir, bare: ""} {
		var c server.CodebaseStatus
		p.do(http.MethodPost, "/api/codebases", map[string]string{"path": path, "revision": "main"}, &c)
		real, err := filepath.EvalSymlinks(path)
		require.NoError(t, err)
		if want != "" {
			want = real
		}
		require.Equal(t, want, c.Root, "a bare repository has no files to open")
	}
}

func TestWhatIsSentReceivedAndKeptIsListed(t *testing.T) {
	dir := testkit.Tree(t, system+`
-- desk/api.ts --
export const one = (id: string) => fetch('/api/lots/' + id)
export const none = () => fetch('/api/none')
export const far = () => fetch('https://scales.example.org/grams')
bus.publish('lot.asked', 1)
-- desk/words.py --
bus.subscribe('lot.asked', f)
db.execute("SELECT id FROM lots WHERE id = 1")
-- schema.sql --
CREATE TABLE lots (id int);
`)
	p := start(t, dir)
	id := p.takeIn(dir)
	get := func(query string) (out server.Flows) {
		p.get(fmt.Sprintf("/api/codebases/%d/flows%s", id, query), &out)
		return out
	}
	all := get("")
	require.Equal(t, []server.RequestRow{
		{Method: "GET", Pattern: "/api/lots/*", Path: "desk/api.ts", Line: 1, Route: "GET /api/lots/:id", RoutePath: "src/lots.ts", RouteLine: 4, Sure: true},
		{Method: "GET", Pattern: "/api/none", Path: "desk/api.ts", Line: 2},
		{Pattern: "GET /grams", Host: "scales.example.org", Path: "desk/api.ts", Line: 3},
	}, all.Requests)
	require.Len(t, all.Messages, 1)
	require.Equal(t, "lot.asked", all.Messages[0].Name)
	require.Equal(t, []model.Evidence{{Path: "desk/api.ts", Line: 4}}, all.Messages[0].Senders)
	require.Equal(t, []model.Evidence{{Path: "desk/words.py", Line: 1}}, all.Messages[0].Receivers)
	require.Equal(t, []model.Evidence{{Path: "desk/words.py", Line: 2}}, all.Entities[0].Operations[model.Read])
	require.Len(t, get("?at=src").Requests, 1, "what is answered here is listed here")
	require.Empty(t, get("?at=src").Messages)
	require.Len(t, get("?at=desk").Entities, 1)
}

// TestARouteIsFollowedToWhatIsKept: each stop comes with the lines around the
// call that leads on, the last with those that write.
func TestARouteIsFollowedToWhatIsKept(t *testing.T) {
	dir := testkit.Tree(t, `
-- package.json --
{ "name": "vault", "dependencies": { "express": "4" } }
-- src/routes.js --
const { Router } = require('express')
const { addLot } = require('./handlers')
const r = Router()
r.post('/lots', addLot)
r.get('/lost', gone)
module.exports = r
-- src/handlers.js --
const { keep } = require('./repositories/lots')
exports.addLot = function (req, res) {
  const name = req.body.name
  keep(name)
  res.end()
}
-- src/repositories/lots.js --
const { pool } = require('./pool')
exports.keep = function (name) {
  return pool.query('INSERT INTO lots (name) VALUES ($1)', [name])
}
-- src/repositories/pool.js --
exports.pool = {}
-- schema.sql --
CREATE TABLE lots (name text);
-- test/lots.test.js --
const { addLot } = require('../src/handlers')
test('adds', () => { addLot({}, {}) })
`)
	p := start(t, dir)
	id := p.takeIn(dir)
	at := fmt.Sprintf("/api/codebases/%d/journey?at=src/routes.js", id)
	var w server.Way
	p.get(at+"&line=4&method=POST&pattern=/lots", &w)
	require.Empty(t, w.Broken)
	require.Len(t, w.Stops, 2)
	require.Equal(t, []any{"addLot", 4, 2}, []any{w.Stops[0].Name, w.Stops[0].At, w.Stops[0].First})
	require.Equal(t, "  keep(name)", w.Stops[0].Lines[2])
	require.Contains(t, w.Stops[1].Lines[w.Stops[1].At-w.Stops[1].First], "INSERT INTO lots")
	require.Equal(t, []server.WayOperation{{Entity: "lots", What: "create", Path: "src/repositories/lots.js", Line: 3}}, w.Operations)
	require.Equal(t, []server.TestOfHandler{{Path: "test/lots.test.js", Kind: "unit", Distance: 1}}, w.Tests)
	p.get(at+"&line=5&method=GET&pattern=/lost", &w)
	require.Contains(t, w.Broken, "gone")
	r, _ := p.send(http.MethodGet, at+"&line=99&method=GET&pattern=/lots", nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}

// TestADefinitionSaysWhomItCallsAndWhoCallsIt, by any line that it holds.
func TestADefinitionSaysWhomItCallsAndWhoCallsIt(t *testing.T) {
	dir := testkit.Tree(t, `
-- go.mod --
module vault
-- scale.go --
package vault

func Weigh() int {
	tare()
	tare()
	return 1
}

func tare() {}
-- scale_test.go --
package vault

import "testing"

func TestWeigh(t *testing.T) { Weigh() }
`)
	p := start(t, dir)
	id := p.takeIn(dir)
	var d server.OneDefinition
	p.get(fmt.Sprintf("/api/codebases/%d/definition?at=scale.go&line=5", id), &d)
	require.Equal(t, "Weigh", d.Name)
	require.Equal(t, []server.CallEnd{{Path: "scale.go", Name: "tare", Line: 9, At: 4, Kind: "call", Sure: true}}, d.Calls)
	require.Equal(t, []server.CallEnd{{Path: "scale_test.go", Name: "TestWeigh", Line: 5, At: 5, Kind: "call", Sure: true}}, d.CalledBy)
	require.Equal(t, []server.TestOfHandler{{Path: "scale_test.go", Kind: "unit", Distance: 1}}, d.Tests)
	p.get(fmt.Sprintf("/api/codebases/%d/definition?at=scale.go&line=1", id), &d)
	require.Empty(t, d.Name)
	r, _ := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/definition?at=gone.go&line=1", id), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}

func TestResourcesAreToldWithWhatTheyLackAndWhatIsSaidOfIt(t *testing.T) {
	dir := testkit.Tree(t, `
-- package.json --
{ "dependencies": { "express": "4" } }
-- src/app.js --
const app = require('express')()
app.get('/lots', list)
app.get('/lots/:id', signedIn, one)
app.delete('/lots/:id', signedIn, gone)
app.get('/lots/new', form)
function list(req, res) { db.query('INSERT INTO visits (at) VALUES (1)'); res.json([]) }
function one(req, res) { res.json({}) }
function gone(req, res) { res.json({}) }
function form(req, res) { res.json({}) }
-- db/schema.sql --
CREATE TABLE visits (at INTEGER);
-- test/app.test.js --
const app = require('express')()
app.get('/lots/:id', (req, res) => res.end())
test('answers', () => { expect(app).toBeDefined() })
`)
	p := start(t, dir)
	id := p.takeIn(dir)
	at := fmt.Sprintf("/api/codebases/%d/routes", id)
	get := func(query string) (c server.Contract) {
		p.get(at+query, &c)
		return c
	}
	all := get("?full=true")
	require.Equal(t, 1, all.Tests)
	require.Len(t, all.Routes, 5)
	require.True(t, all.Routes[4].InTests, "those of tests stand last")
	require.Len(t, all.Resources, 1)
	x := all.Resources[0]
	require.Equal(t, []string{"create", "update"}, x.Missing)
	require.Len(t, x.Open, 2)
	require.Equal(t, "/lots", all.Routes[x.Has["list"]].Pattern)
	require.Equal(t, []string{"creates visits"}, all.Routes[x.Has["list"]].Writes, "it answers GET and writes")
	require.Empty(t, get("").Routes[x.Has["list"]].Writes, "asked for, since ways are followed for it")

	typed := get("?path=GET%20/lots/new")
	require.Equal(t, []string{"/lots/:id", "/lots/new"}, []string{typed.Routes[0].Pattern, typed.Routes[1].Pattern}, "declared first, answers first")
	require.Empty(t, get("?path=PUT%20/lots/7").Routes, "no route takes it")

	gap := model.Overrule{Kind: model.OverruleGap, Target: x.In + "\t" + x.Pattern, Value: "lots are taken in by hand"}
	p.do(http.MethodPost, fmt.Sprintf("/api/codebases/%d/overrules", id), gap, nil)
	require.Equal(t, gap.Value, get("").Resources[0].Purpose)
	gap.Value = " "
	r, _ := p.send(http.MethodPost, fmt.Sprintf("/api/codebases/%d/overrules", id), gap)
	require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode, "it takes a reason")
}

func TestRoutesInCommentsAreToldApart(t *testing.T) {
	dir := testkit.Tree(t, `
-- package.json --
{ "dependencies": { "express": "4" } }
-- src/app.js --
const app = require('express')()
app.get('/lots', (req, res) => res.end())
// app.delete('/lots/:id', (req, res) => res.end())
-- src/app.test.js --
const app = require('express')()
app.get('/x', (req, res) => res.end())
// app.get('/y', (req, res) => res.end())
`)
	p := start(t, dir)
	id := p.takeIn(dir)
	var c server.Contract
	p.get(fmt.Sprintf("/api/codebases/%d/routes", id), &c)
	require.Len(t, c.Routes, 2, "what stands in a comment is no route")
	require.Equal(t, []server.OffRow{{Method: "DELETE", Pattern: "/lots/:id", Path: "src/app.js", Line: 3}}, c.Off)
	p.get(fmt.Sprintf("/api/codebases/%d/routes?path=/lots", id), &c)
	require.Empty(t, c.Off, "an address that is typed is answered by none of them")
}

func TestRightsAreToldHolesFirst(t *testing.T) {
	dir := testkit.Tree(t, `
-- package.json --
{ "dependencies": { "express": "4" } }
-- src/app.js --
const app = require('express')()
app.post('/boxes', signedIn, (req, res) => res.end())
app.put('/boxes/:id', signedIn, may('boxes.write'), (req, res) => res.end())
app.delete('/boxes/:id', (req, res) => res.end())
-- other/app.js --
const app = require('express')()
app.get('/lots', (req, res) => res.end())
`)
	p := start(t, dir)
	id := p.takeIn(dir)
	var all server.Allowed
	p.get(fmt.Sprintf("/api/codebases/%d/rights", id), &all)
	require.Equal(t, 4, all.All)
	require.Equal(t, map[string]int{"nothing is asked": 1}, all.Holes)
	require.Equal(t, "DELETE", all.Actions[0].Method)
	require.Equal(t, []string{"signedIn", "boxes.write"}, all.Names)
	var some server.Allowed
	p.get(fmt.Sprintf("/api/codebases/%d/rights?at=other", id), &some)
	require.Equal(t, 1, some.All)
	require.Empty(t, some.Names, "rights of elsewhere are not named")
}

func TestStatesAndWhatIsLeftOut(t *testing.T) {
	dir := testkit.Tree(t, `
-- src/printer.ts --
export type PrinterState = 'idle' | 'busy' | 'done'
export type Paper = 'small' | 'middle' | 'large'
export interface Printer { state: PrinterState }
export function next(p: Printer): Printer {
  switch (p.state) {
    case 'idle':
      return { ...p, state: 'busy' }
    case 'busy':
      return { ...p, state: 'done' }
  }
  return p
}
-- src/desk.ts --
import { next, type Printer } from './printer'
export function clear(p: Printer) {
  if (p.state === 'done') p.state = 'idle'
}
-- src/desk.test.ts --
import { clear } from './printer'
clear({ state: 'busy' })
-- other/a.ts --
export const a = 1
`)
	p := start(t, dir)
	id := p.takeIn(dir)
	var list server.StateList
	p.get(fmt.Sprintf("/api/codebases/%d/states", id), &list)
	require.Len(t, list.Rows, 1)
	require.Equal(t, 1, list.Still, "paper never changes")
	row := list.Rows[0]
	require.Equal(t, []string{"idle", "busy", "done"}, row.Members)
	require.Equal(t, 3, row.Moves, "two in the file, one in a file that takes it, none in the test")
	require.Equal(t, 1, row.Lacks)
	var one states.Holder
	p.get(fmt.Sprintf("/api/codebases/%d/state?at=src/printer.ts&line=1", id), &one)
	require.Equal(t, []string{"done"}, one.Choices[0].Lacks)
	require.Equal(t, "next", one.Choices[0].By)
	require.Contains(t, one.Moves, states.StateMove{From: "done", To: "idle", By: "clear", Path: "src/desk.ts", Line: 3})
	p.get(fmt.Sprintf("/api/codebases/%d/states?at=other", id), &list)
	require.Empty(t, list.Rows)
	r, _ := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/state?at=src/printer.ts&line=2000", id), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}

func TestAPatternIsTriedBeforeItIsWritten(t *testing.T) {
	dir := testkit.Tree(t, system)
	p := start(t, dir)
	id := p.takeIn(dir)
	ask := func(to string) string {
		return fmt.Sprintf("/api/codebases/%d/routes/otherwise?at=src/lots.ts&line=4&method=GET&pattern=%s&to=%s", id,
			url.QueryEscape("/api/lots/:id"), url.QueryEscape(to))
	}
	var tried server.Tried
	p.get(ask("/health"), &tried)
	require.Equal(t, 2, tried.Of)
	require.Len(t, tried.Changes, 2)
	require.Equal(t, "/api/lots/7", tried.Changes[0].Address)
	require.Nil(t, tried.Changes[0].Then)
	require.Equal(t, "/health", tried.Changes[1].Address, "it stands before the one that answers today")
	require.Equal(t, "/health", tried.Changes[1].Now.Pattern)
	require.True(t, tried.Changes[1].Then.Tried)
	p.get(ask("/api/lots/:lot"), &tried)
	require.Empty(t, tried.Changes)
	p.get(ask("POST /api/lots/:id"), &tried)
	require.Equal(t, []string{"GET", "POST"}, []string{tried.Changes[0].Method, tried.Changes[1].Method})
	for to, status := range map[string]int{"lots": http.StatusUnprocessableEntity, "": http.StatusUnprocessableEntity} {
		r, _ := p.send(http.MethodGet, ask(to), nil)
		require.Equal(t, status, r.StatusCode, to)
	}
	r, _ := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/routes/otherwise?at=src/lots.ts&line=9&method=GET&pattern=/x&to=/y", id), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}

func TestWaysPartsAndReachAreHandedOut(t *testing.T) {
	dir := testkit.Tree(t, system+`
-- src/use<b>.ts --
import { list } from './handlers'
export class Shelf { take() { return list(1, 2) } give() { return 2 } }
`)
	p := start(t, dir)
	id := p.takeIn(dir)
	for file, want := range map[string][]string{
		"journey.svg?at=src/lots.ts&line=4&method=GET&pattern=" + url.QueryEscape("/api/lots/:id"): {"GET /api/lots/:id", "list", "src/handlers.ts:1"},
		"reach.svg?at=src/handlers.ts":                               {"What a change may touch: src/handlers.ts", "directly", "src"},
		"reach.svg?at=src/app.ts&way=along":                          {"What comes along: src/app.ts"},
		"reach.svg?at=src/handlers.ts&line=1":                        {"use&lt;b&gt;.ts", "definition"},
		"reach.md?at=src/handlers.ts":                                {"# What a change at `src/handlers.ts` may touch", "## Directly: 2", "`src/use<b>.ts`"},
		"part.md?name=Shelf&at=" + url.QueryEscape("src/use<b>.ts"):  {"# `Shelf`", "Made of", "`take`", "Uses", "`list`"},
		"part.svg?name=Shelf&at=" + url.QueryEscape("src/use<b>.ts"): {"Shelf in src/use&lt;b&gt;.ts", "made of 2 members", "take"},
	} {
		r, body := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/export/%s", id, file), nil)
		require.Equal(t, http.StatusOK, r.StatusCode, file)
		for _, w := range want {
			require.Contains(t, string(body), w, file)
		}
		if strings.HasPrefix(r.Header.Get("Content-Type"), "image/svg") {
			d := xml.NewDecoder(bytes.NewReader(body))
			for {
				_, err := d.Token()
				if errors.Is(err, io.EOF) {
					break
				}
				require.NoError(t, err, file)
			}
		}
	}
	for _, file := range []string{
		"journey.svg?at=src/lots.ts&line=9&method=GET&pattern=/x", "reach.svg?at=nowhere", "reach.md?at=nowhere",
		"part.md?at=src/app.ts&name=Nobody", "part.png",
	} {
		r, _ := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/export/%s", id, file), nil)
		require.Equal(t, http.StatusNotFound, r.StatusCode, file)
	}
}
