package server_test

import (
	"fmt"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"jantel/core/drawing"
	"jantel/core/model"
	"jantel/core/section"
	"jantel/core/testkit"
	"jantel/server"

	"github.com/stretchr/testify/require"
)

const counter = `
-- routes/lots.ts --
import { list } from '../handlers/lots'
router.get('/lots', list)
-- routes/growers.ts --
import { list } from '../handlers/growers'
router.get('/growers', list)
-- handlers/lots.ts --
import { all } from '../data/lots'
export function list(req, res) { res.json(all()) }
-- handlers/growers.ts --
import { all } from '../data/growers'
export function list(req, res) { res.json(all()) }
-- data/lots.ts --
export function all() { return db.query("SELECT id FROM lots") }
-- data/growers.ts --
export function all() { return db.query("SELECT id FROM growers") }
`

// counterAt starts a server with the counter taken in.
func counterAt(t *testing.T) (*page, string) {
	dir := t.TempDir()
	testkit.Write(t, dir, counter)
	p := start(t, dir)
	return p, fmt.Sprintf("/api/codebases/%d", p.takeIn(dir))
}

func boxes(d *drawing.Drawing) (out []string) {
	for _, b := range d.Boxes {
		out = append(out, b.Path)
	}
	return out
}

func TestAFolderIsCutOpen(t *testing.T) {
	p, base := counterAt(t)
	ask := func(at string) (names []string) {
		var x section.Section
		require.Equal(t, http.StatusOK, p.get(base+"/section?at="+at, &x).StatusCode)
		for _, b := range x.Blocks {
			names = append(names, b.Name)
		}
		return names
	}
	require.Equal(t, []string{"data", "handlers", "routes"}, ask(""))
	require.Equal(t, []string{"growers.ts", "lots.ts"}, ask("data"))
	r, svg := p.send(http.MethodGet, base+"/export/section.svg?at=data", nil)
	require.Equal(t, "image/svg+xml", r.Header.Get("Content-Type"))
	require.Contains(t, string(svg), "<title>data/lots.ts:")
	for _, missing := range []string{"/section?at=nowhere", "/export/section.svg?at=nowhere"} {
		r, _ = p.send(http.MethodGet, base+missing, nil)
		require.Equal(t, http.StatusNotFound, r.StatusCode, missing)
	}
}

func TestDependenciesAreDrawnAsAsked(t *testing.T) {
	p, base := counterAt(t)
	ask := func(query string) *drawing.Drawing {
		var d server.Dependencies
		require.Equal(t, http.StatusOK, p.get(base+"/dependencies?"+query, &d).StatusCode)
		return d.Drawing
	}
	require.Equal(t, []string{"data", "handlers", "routes"}, boxes(ask("")))
	require.Equal(t, []string{"handlers", "routes"}, boxes(ask("focus=routes")))
	require.Equal(t, []string{"data/lots.ts", "handlers/lots.ts"}, boxes(ask("at="+url.QueryEscape("data/lots.ts"))))
	require.Equal(t, []string{"data/growers.ts", "handlers/growers.ts", "routes/growers.ts"}, boxes(ask("open=data&open=handlers&open=routes&feature=grower")))
	require.Equal(t, []string{"handlers/growers.ts", "handlers/lots.ts"}, boxes(ask("open=data&open=handlers&open=routes&role=handler")))
	r, _ := p.send(http.MethodGet, base+"/dependencies?at=nowhere", nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
	r, _ = p.send(http.MethodGet, base+"/dependencies?open="+strings.Repeat("x&open=", 101), nil)
	require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode)
	// The picture shows the same.
	r, svg := p.send(http.MethodGet, base+"/export/dependencies.svg?focus=routes", nil)
	require.Equal(t, http.StatusOK, r.StatusCode)
	require.Contains(t, string(svg), ">handlers<")
	require.NotContains(t, string(svg), ">data<")
	r, _ = p.send(http.MethodGet, base+"/export/dependencies.svg?at=nowhere", nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}

func TestViewsAreNarrowedToAFeatureOrARole(t *testing.T) {
	p, base := counterAt(t)
	ask := func(query string) (n server.Narrowed) {
		require.Equal(t, http.StatusOK, p.get(base+"/narrowed?"+query, &n).StatusCode)
		return n
	}
	require.Equal(t, []string{"data/growers.ts", "handlers/growers.ts", "routes/growers.ts"}, ask("feature=grower").Paths)
	require.Equal(t, []string{"handlers/growers.ts"}, ask("feature=grower&role=handler").Paths)
	require.Equal(t, 2, ask("feature=grower&role=handler").Lines)
	require.Empty(t, ask("feature=nothing").Paths)
	require.Empty(t, ask("feature=-&role=handler").Paths, "no handler belongs to no feature")
	require.Len(t, ask("").Paths, 6)
}

func TestAnArrangementIsKeptAndTakenBack(t *testing.T) {
	p, base := counterAt(t)
	draw := func() *drawing.Drawing {
		var d server.Dependencies
		p.get(base+"/dependencies?open=data&open=handlers&open=routes", &d)
		return d.Drawing
	}
	left := func(d *drawing.Drawing) bool { // the growers' data left of the lots'
		at := map[string]float64{}
		for _, b := range d.Boxes {
			at[b.Path] = b.X
		}
		return at["data/growers.ts"] < at["data/lots.ts"]
	}
	first := draw()
	require.False(t, first.Moved)
	order := []string{"data/lots.ts", "data/growers.ts"}
	if !left(first) {
		order[0], order[1] = order[1], order[0]
	}
	var kept server.Arrangement
	p.do(http.MethodPut, base+"/arrangement", server.Arrangement{Place: ".", Boxes: order}, &kept)
	second := draw()
	require.True(t, second.Moved)
	require.NotEqual(t, left(first), left(second))
	p.get(base+"/arrangement?at=.", &kept)
	require.Equal(t, order, kept.Boxes)
	_, svg := p.send(http.MethodGet, base+"/export/dependencies.svg?open=data&open=handlers&open=routes", nil)
	for _, b := range second.Boxes {
		require.Contains(t, string(svg), fmt.Sprintf(`<rect x="%g" y="%g"`, b.X, b.Y), "the picture has the same places")
	}
	p.do(http.MethodPut, base+"/arrangement", server.Arrangement{Place: ".", Boxes: []string{}}, nil)
	require.Equal(t, first, draw())
	r, _ := p.send(http.MethodPut, "/api/codebases/99/arrangement", server.Arrangement{Place: ".", Boxes: order})
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}

func TestADeclaredDependencyCountsUntilItIsTakenBack(t *testing.T) {
	p, base := counterAt(t)
	declare := model.Overrule{Kind: "link", Target: "data/lots.ts\tdata/growers.ts", Value: "a view joins the two tables", By: "Ines"}
	found := func() (out []string) {
		var l []model.Link
		p.get(base+"/between?from=data/lots.ts&to=data/growers.ts", &l)
		for _, x := range l {
			out = append(out, string(x.Kind)+": "+x.Text)
		}
		return out
	}
	require.Empty(t, found())
	var all []model.Overrule
	p.do(http.MethodPost, base+"/overrules", declare, &all)
	require.Equal(t, []model.Overrule{declare}, all)
	require.Equal(t, []string{"declared: a view joins the two tables"}, found())
	var d server.Dependencies
	p.get(base+"/dependencies?open=data", &d)
	require.Contains(t, d.Drawing.Classes, "declared")
	// It survives the next survey.
	p.events(func(name string, data map[string]any) bool { return name == "surveyed" || data["state"] == "finished" }, func() {
		p.do(http.MethodPost, base+"/surveys", map[string]any{}, nil)
	})
	require.Equal(t, []string{"declared: a view joins the two tables"}, found())
	for _, wrong := range []model.Overrule{
		{Kind: "link", Target: "data/lots.ts", Value: "why"},
		{Kind: "link", Target: "data/lots.ts\tdata/lots.ts", Value: "why"},
		{Kind: "link", Target: "data/lots.ts\tdata/growers.ts", Value: " "},
	} {
		r, text := p.send(http.MethodPost, base+"/overrules", wrong)
		require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode, string(text))
	}
	p.do(http.MethodPost, base+"/overrules?gone=true", declare, nil)
	require.Empty(t, found())
}

func TestACharterOfRingsIsDrawnInRings(t *testing.T) {
	dir := t.TempDir()
	testkit.Write(t, dir, counter)
	require.NoError(t, os.WriteFile(filepath.Join(dir, "jantel.yaml"), []byte("rings: true\nlayers:\n  - name: outside\n    holds: [routes/**]\n    may: [inside]\n  - name: inside\n    holds: [data/**, handlers/**]\n"), 0o600))
	p := start(t, dir)
	var d server.Dependencies
	p.get(fmt.Sprintf("/api/codebases/%d/dependencies", p.takeIn(dir)), &d)
	require.Len(t, d.Drawing.Frames, 2)
	require.Equal(t, "outside", d.Drawing.Frames[0].Name)
	in := map[string]int{}
	for _, b := range d.Drawing.Boxes {
		in[b.Path] = b.Circle
	}
	require.Equal(t, map[string]int{"routes": 1, "handlers": 2, "data": 2}, in)
}

func TestWhereThePatternIsRingsTheyAreDrawnWithoutACharter(t *testing.T) {
	dir := t.TempDir()
	testkit.Write(t, dir, `
-- go.mod --
module press
-- core/queue.go --
package core

type Queue struct{ Sheets []string }

func (q *Queue) Next() string { return q.Sheets[0] }
-- core/sheet.go --
package core

type Sheet struct{ Text string }
-- ports/printer.go --
package ports

import "press/core"

type Printer interface{ Print(s core.Sheet) error }
-- adapters/spool.go --
package adapters

import (
	"press/core"
	"press/ports"
)

var _ ports.Printer = Spool{}

type Spool struct{}

func (Spool) Print(s core.Sheet) error { return nil }
-- adapters/serial.go --
package adapters

import "press/core"

type Serial struct{}

func (Serial) Print(s core.Sheet) error { return nil }
`)
	p := start(t, dir)
	base := fmt.Sprintf("/api/codebases/%d", p.takeIn(dir))
	frames := func() (names []string) {
		var d server.Dependencies
		p.get(base+"/dependencies?auto=true", &d)
		for _, f := range d.Drawing.Frames {
			names = append(names, f.Name)
		}
		return names
	}
	require.Equal(t, []string{"around the core", "the core"}, frames())
	p.do(http.MethodPut, base+"/charter", server.CharterText{Text: "layers:\n  - name: all\n    holds: [\"**\"]\n"}, nil)
	require.Empty(t, frames(), "a charter has the say")
}
