package server_test

import (
	"fmt"
	"net/http"
	"net/url"
	"testing"

	"jantel/core/parts"
	"jantel/core/reach"
	"jantel/core/testkit"
	"jantel/server"

	"github.com/stretchr/testify/require"
)

const lots = `-- bench/lots.py --
class Lots:
    def find(self, id):
        return self.row(id)

    def row(self, id):
        return self.db.execute("SELECT * FROM lots WHERE id = ?", id)

    def label(self, lot):
        return self.sheet(lot)

    def sheet(self, lot):
        return lot
-- bench/main.py --
from lots import Lots

def main():
    Lots().find(1)

def other():
    Lots().label(1)
-- bench/test_lots.py --
from lots import Lots

def test_find():
    assert Lots().find(1)
`

func TestPartsAreListedNarrowedAndOpened(t *testing.T) {
	dir := testkit.Tree(t, lots)
	p := start(t, dir)
	id := p.takeIn(dir)
	list := func(query string) (l server.PartList) {
		p.get(fmt.Sprintf("/api/codebases/%d/parts?%s", id, query), &l)
		return l
	}
	all := list("")
	require.Equal(t, 2, all.All, "the class, and the functions of the program; tests are none")
	require.Equal(t, "Lots", all.Parts[0].Name, "the largest and most used first")
	require.Equal(t, 2, all.Parts[0].Users)
	require.True(t, all.Parts[0].Tested)
	require.Equal(t, parts.Stores, all.Parts[0].Duties[0].Name)
	require.Equal(t, 6, all.Parts[0].Duties[0].Line)
	require.Equal(t, map[string]int{"class": 1, "functions": 1}, all.Kinds)
	require.Equal(t, "main.py", list("only=unused").Parts[0].Name)
	require.Equal(t, "main.py", list("only=untested").Parts[0].Name)
	require.Equal(t, all.Only["untested"], list("only=untested").Count)
	require.Empty(t, list("words=nowhere").Parts)
	require.Equal(t, "main.py", list("sort=lines&up=true").Parts[0].Name)
	require.Equal(t, "Lots", list("kind=class").Parts[0].Name)
	require.Equal(t, "main.py", list("from=1&count=1").Parts[0].Name)
	r, _ := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/parts?at=nowhere", id), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)

	var one server.OnePart
	p.get(fmt.Sprintf("/api/codebases/%d/part?at=bench/lots.py&name=%s", id, url.QueryEscape("Lots")), &one)
	require.Equal(t, "class Lots:", one.Head)
	require.Len(t, one.Members, 4)
	require.Equal(t, [][]string{{"find", "row"}, {"label", "sheet"}}, one.Jobs, "two jobs that share nothing")
	require.Len(t, one.Users, 2, "tests are told apart")
	require.Equal(t, "bench/test_lots.py", one.Tests[0].Path)
	r, _ = p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/part?at=bench/lots.py&name=Boxes", id), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}

func TestReachIsToldOfFilesFoldersAndDefinitions(t *testing.T) {
	dir := testkit.Tree(t, lots)
	p := start(t, dir)
	id := p.takeIn(dir)
	of := func(query string) (x reach.Reach) {
		p.get(fmt.Sprintf("/api/codebases/%d/reach?%s", id, query), &x)
		return x
	}
	file := of("at=bench/lots.py")
	require.Equal(t, 1, file.Files)
	require.Equal(t, "bench/main.py", file.Steps[0].Places[0].Path)
	require.Equal(t, "bench/test_lots.py", file.Tests[0].Path)
	find := of("at=bench/lots.py&line=2")
	require.Equal(t, "main", find.Steps[0].Places[0].Name)
	require.Equal(t, 1, find.Steps[0].Count, "the other function labels, and does not find")
	require.Equal(t, 1, of("at=bench/main.py").Along.Files)
	require.Zero(t, of("at=bench").Files)
	r, _ := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/reach?at=nowhere", id), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}

func TestTypesAboutOneThingAreLaidSideBySide(t *testing.T) {
	dir := testkit.Tree(t, `
-- counter/package.json --
{ "name": "counter" }
-- counter/src/types.ts --
export interface SeedBox {
  id: string
  weight: number
  slot: number
}
export interface BoxState {
  open: boolean
}
-- counter/src/box.test.ts --
export interface Box {
  id: string
}
-- store/package.json --
{ "name": "store" }
-- store/schema.sql --
CREATE TABLE boxes (
  id TEXT PRIMARY KEY,
  weight TEXT NOT NULL,
  shelf TEXT NOT NULL
);
CREATE TABLE growers (
  id TEXT PRIMARY KEY
);
-- press/Card.java --
public record Card(String number, int copies) {
}
`)
	p := start(t, dir)
	id := p.takeIn(dir)
	var list server.ShapeList
	p.get(fmt.Sprintf("/api/codebases/%d/shapes", id), &list)
	require.Len(t, list.Groups, 1, "a grower alone is beside nothing, and a state is no box")
	require.Equal(t, "box", list.Groups[0].About)
	require.Equal(t, 2, list.Groups[0].Parts)
	require.Equal(t, 3, list.Groups[0].Otherwise, "weight, slot and shelf")
	p.get(fmt.Sprintf("/api/codebases/%d/shapes?words=grow", id), &list)
	require.Empty(t, list.Groups)

	var one server.OneShape
	p.get(fmt.Sprintf("/api/codebases/%d/shape?at=counter/src/types.ts&line=3", id), &one)
	require.Equal(t, "SeedBox", one.Name)
	require.Len(t, one.Fields, 3)
	require.Len(t, one.Beside, 1)
	require.Equal(t, 1, one.Beside[0].Same)
	require.Equal(t, 1, one.Beside[0].Differs)
	require.Equal(t, 1, one.Beside[0].Lost)
	require.Equal(t, 1, one.Beside[0].Added)
	r, _ := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/shape?at=counter/src/types.ts&line=99", id), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
	p.get(fmt.Sprintf("/api/codebases/%d/shape?at=press/Card.java&line=1", id), &one)
	require.Len(t, one.Fields, 2)
	require.Empty(t, one.Beside)
}

func TestWiringOfAPlace(t *testing.T) {
	dir := testkit.Tree(t, `
-- Program.cs --
var b = WebApplication.CreateBuilder(args);
b.Services.AddSingleton<ICards, FileCards>();
b.Services.AddTransient<ICards, SheetCards>();
b.Services.AddScoped<Day>();
-- cards/Cards.cs --
public interface ICards { int Read(); }
public class Day { private readonly ICards _cards; }
`)
	p := start(t, dir)
	id := p.takeIn(dir)
	var all server.WiringList
	p.get(fmt.Sprintf("/api/codebases/%d/wiring", id), &all)
	require.Equal(t, 2, all.All)
	require.Equal(t, map[string]int{"handed out twice": 1}, all.Wrong)
	require.Equal(t, "ICards", all.Rows[0].For)
	require.Len(t, all.Rows[0].By, 2)
	var some server.WiringList
	p.get(fmt.Sprintf("/api/codebases/%d/wiring?at=cards", id), &some)
	require.Equal(t, 1, some.All, "who asks for it stands there")
}
