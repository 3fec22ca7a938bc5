package journeys_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/journeys"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// told writes journeys a line each: what comes in, the names it comes through
// ("~" before one that is only likely), and what is done at the end.
func told(t *testing.T, tree string) []string {
	t.Helper()
	s := testkit.Survey(t, tree)
	j := judgement.Judge(s, model.Brief{}, nil)
	out := []string{}
	for _, x := range journeys.Of(j.Reading, j.Entries) {
		var b strings.Builder
		if x.Route != nil {
			fmt.Fprintf(&b, "%s %s:", x.Route.Method, x.Route.Pattern)
		} else {
			fmt.Fprintf(&b, "%s %s:", x.Start.Kind, x.Start.Name)
		}
		for _, s := range x.Stops {
			if b.WriteByte(' '); s.Tie == model.TieLikely {
				b.WriteByte('~')
			}
			b.WriteString(s.Name)
		}
		if x.Broken != "" {
			b.WriteString(" (" + x.Broken + ")")
		}
		if len(x.Ends) > 0 {
			b.WriteString(" => " + strings.Join(x.Ends, "; "))
		}
		if len(x.Skipped) > 0 {
			fmt.Fprintf(&b, " skips %v", x.Skipped)
		}
		out = append(out, b.String())
	}
	return out
}

// shelves is a service of so many routes, which all ask who is there; that is kept as well.
func shelves(n int) string {
	var b strings.Builder
	b.WriteString(`
-- go.mod --
module counter
-- store/store.go --
package store

import "database/sql"

type Store struct{ db *sql.DB }

func (s *Store) Keeper(token string) string {
	s.db.Exec("DELETE FROM tokens WHERE old")
	return ""
}
`)
	for i := range n {
		fmt.Fprintf(&b, "func (s *Store) Shelf%d() { s.db.Query(\"SELECT name FROM shelves WHERE id = %d\") }\n", i, i)
	}
	b.WriteString("-- main.go --\npackage main\n\nimport (\n\t\"net/http\"\n\t\"counter/store\"\n)\n\ntype desk struct{ store *store.Store }\n\n" +
		"func serve(mux *http.ServeMux, d *desk) {\n")
	for i := range n {
		fmt.Fprintf(&b, "\tmux.HandleFunc(\"GET /shelf%d\", d.shelf%d)\n", i, i)
	}
	b.WriteString("}\n")
	for i := range n {
		fmt.Fprintf(&b, "func (d *desk) shelf%d(w http.ResponseWriter, q *http.Request) {\n\td.store.Keeper(\"\")\n\td.store.Shelf%d()\n}\n", i, i)
	}
	return b.String()
}

func TestWhatManyRoutesComeThroughEndsNone(t *testing.T) {
	require.Contains(t, told(t, shelves(14)), "GET /shelf3: desk.shelf3 Store.Shelf3 => reads shelves, deletes tokens")
	require.Contains(t, told(t, shelves(5)), "GET /shelf3: desk.shelf3 Store.Keeper => reads shelves, deletes tokens", "too few to tell")
}

var trees = []struct {
	name, tree string
	want       []string
}{
	{"classes that answer by what they are built upon, by a step, and by nothing of their own", `
-- site/urls.py --
from django.urls import path
from site.views import Sheet, Card, Slip
urlpatterns = [path("sheet/", Sheet.as_view()), path("card/", Card.as_view()), path("slip/", Slip.as_view())]
-- site/__init__.py --
-- site/views.py --
from django.views.generic import FormView
class Kept(FormView):
    def form_valid(self, form):
        return self._keep(form)
    def _keep(self, form):
        return form
class Sheet(Kept):
    def _rows(self):
        return []
class Card(Kept):
    def get_queryset(self):
        return []
class Slip(FormView):
    def _rows(self):
        return []
`, []string{"ANY /card: Card.get_queryset", "ANY /sheet: Kept.form_valid", "ANY /slip: Slip"}},
	{"a class that is called like a function, though its base hands something out as well", `
-- composer.json --
{"autoload": {"psr-4": {"Press\\\\": "src/"}}}
-- routes.php --
<?php
use Press\LabelController;
use Press\Labels\ListController;
return static function (RouteCollector $routes): void {
    $routes->get('/label', LabelController::class);
};
-- src/Controller.php --
<?php
namespace Press;
abstract class Controller {
    public function show(string $name): void { echo $name; }
}
-- src/LabelController.php --
<?php
namespace Press;
final class LabelController extends Controller {
    public function __construct(private Labels $labels) {}
    public function __invoke(): void { $this->labels->print(); }
}
-- src/Labels.php --
<?php
namespace Press;
class Labels { public function print(): void { echo "label"; } }
`, []string{"GET /label: LabelController.__invoke"}},
	{"what asks who is there is passed by, and what only says yes or no ends nothing", `
-- package.json --
{"name": "counter", "dependencies": {"express": "4"}}
-- server.js --
const express = require('express')
const mayEnter = require('./access')
const shelf = require('./repositories/shelf')
const labels = require('./labels')
const app = express()
app.get('/labels/:box', async (req, res) => {
  if (!(await mayEnter(req, res))) return
  if (shelf.isLent(req.params.box)) return res.status(404).end()
  res.json(await labels.ofBox(req.params.box))
})
app.listen(80)
-- access.js --
const shelf = require('./repositories/shelf')
module.exports = async (req) => {
  const keeper = await shelf.keeperOf(req.params.box)
  return keeper === req.user && shelf.isOpen(keeper)
}
-- labels.js --
const shelf = require('./repositories/shelf')
module.exports = {
  async ofBox(box) {
    return this.written(await shelf.seedsIn(box))
  },
  written: (seeds) => seeds.map((s) => s.name),
}
-- repositories/shelf.js --
const fs = require('fs').promises
exports.keeperOf = async (box) => JSON.parse(await fs.readFile('keepers.json'))[box]
exports.isOpen = (keeper) => keeper.startsWith('open')
exports.isLent = (box) => box.startsWith('lent')
exports.seedsIn = async (box) => JSON.parse(await fs.readFile(box))
`, []string{"GET /labels/:box:  ofBox seedsIn", "command : "}},
	{"where nothing tells the end, what most is reached from; not a helper, and not what calls nothing", `
-- app.py --
from flask import Flask
from sheets import Sheet
app = Flask(__name__)
@app.get("/sheets")
def sheets():
    note("asked")
    return Sheet().all()
@app.get("/about")
def about():
    note("about")
    return {}
def note(what):
    print(what)
-- sheets.py --
class Sheet:
    def all(self):
        return [self.one(n) for n in range(3)]
    def one(self, n):
        return {"n": self.width(n)}
    def width(self, n):
        return n
`, []string{"GET /about: about", "GET /sheets: sheets Sheet.all", "command app: app"}},
	{"a service in layers, its store reached over an interface", `
-- go.mod --
module vault
-- main.go --
package main

import (
	"net/http"

	"vault/handlers"
	"vault/store"
)

func main() {
	h := handlers.New(store.Open())
	http.HandleFunc("POST /lots", h.Add)
	http.HandleFunc("GET /health", h.Health)
	store.Warm()
	http.ListenAndServe(":80", nil)
}
-- handlers/lots.go --
package handlers

import "net/http"

type Keeper interface{ Keep(name string) error }

type Handler struct{ keeper Keeper }

func New(k Keeper) *Handler { return &Handler{k} }

func (h *Handler) Add(w http.ResponseWriter, r *http.Request) {
	name := clean(r.FormValue("name"))
	h.keeper.Keep(name)
}

func (h *Handler) Health(w http.ResponseWriter, r *http.Request) {}

func clean(s string) string { return s }
-- store/lots.go --
package store

import "database/sql"

type Store struct{ db *sql.DB }

func Open() *Store { return &Store{} }

func Warm() { new(Store).insert("none") }

func (s *Store) Keep(name string) error {
	return s.insert(name)
}

func (s *Store) insert(name string) error {
	_, err := s.db.Exec("INSERT INTO lots (name) VALUES (?)", name)
	return err
}
-- schema.sql --
CREATE TABLE lots (name text);
`, []string{
		"GET /health: Handler.Health",
		"POST /lots: Handler.Add ~Store.Keep ~Store.insert => creates lots",
		"command main: main Warm Store.insert => creates lots",
	}},
	{"functions written where the route is each have their own way", `
-- package.json --
{ "name": "vault", "main": "app.js", "dependencies": { "express": "4" } }
-- app.js --
const express = require('express')
const { findLots, addLot } = require('./lots')
const app = express()
app.get('/lots', (req, res) => {
  res.json(findLots())
})
app.post('/lots', (req, res) => {
  addLot(req.body)
  res.end()
})
app.delete('/lots', gone)
app.listen(80)
-- lots.js --
const db = require('./db')
exports.findLots = function () {
  return db.query('SELECT * FROM lots')
}
exports.addLot = function (lot) {
  check(lot)
  return db.query('INSERT INTO lots (name) VALUES (?)', [lot.name])
}
function check(lot) {
  return check(lot)
}
-- db.js --
exports.query = function (text) {}
-- schema.sql --
CREATE TABLE lots (name text);
`, []string{
		"DELETE /lots: (what answers it, gone, could not be found)",
		"GET /lots:  findLots => reads lots",
		"POST /lots:  addLot => creates lots",
		"command : ",
	}},
	{"of four that are built alike the one that leaves out the rules says so", `
-- package.json --
{ "name": "vault", "dependencies": { "express": "4" } }
-- src/routes.ts --
import { Router } from 'express'
import { addA, addB, addC, addD } from './handlers/all'
const r = Router()
r.post('/a', addA)
r.post('/b', addB)
r.post('/c', addC)
r.post('/d', addD)
export default r
-- src/handlers/all.ts --
import type { Request, Response } from 'express'
import { keepA, keepB, keepC } from '../services/rules'
import { save } from '../repositories/lots'
export function addA(req: Request, res: Response) { keepA(); res.json({}) }
export function addB(req: Request, res: Response) { keepB(); res.json({}) }
export function addC(req: Request, res: Response) { keepC(); res.json({}) }
export function addD(req: Request, res: Response) { save('d'); res.json({}) }
-- src/services/rules.ts --
import { save } from '../repositories/lots'
export function keepA() { save('a') }
export function keepB() { save('b') }
export function keepC() { save('c') }
-- src/repositories/lots.ts --
import { pool } from './pool'
export function save(name: string) { return pool.query('INSERT INTO lots (name) VALUES ($1)', [name]) }
-- src/repositories/pool.ts --
import { Pool } from 'pg'
export const pool = new Pool()
-- schema.sql --
CREATE TABLE lots (name text);
`, []string{
		"POST /a: addA keepA save => creates lots",
		"POST /b: addB keepB save => creates lots",
		"POST /c: addC keepC save => creates lots",
		"POST /d: addD save => creates lots skips [logic]",
	}},
}

func TestWhatComesInIsFollowed(t *testing.T) {
	for _, c := range trees {
		t.Run(c.name, func(t *testing.T) { require.Equal(t, c.want, told(t, c.tree)) })
	}
}

func TestWhichTestsReachWhat(t *testing.T) {
	s := testkit.Survey(t, `
-- go.mod --
module vault
-- scale/scale.go --
package scale

func Weigh() int { return tare() }

func tare() int { return 0 }

func Unused() {}
-- scale/scale_test.go --
package scale

import "testing"

func TestWeigh(t *testing.T) { helper() }

func helper() { Weigh() }
-- integration/all_test.go --
package integration

import (
	"testing"
	"vault/scale"
)

func TestAll(t *testing.T) { scale.Weigh() }
`)
	j := judgement.Judge(s, model.Brief{}, nil)
	require.Equal(t, []model.TestedBy{
		{Path: "scale/scale.go", Name: "Weigh", Tests: []model.TestReach{
			{Path: "integration/all_test.go", Kind: "integration", Distance: 1},
			{Path: "scale/scale_test.go", Kind: "unit", Distance: 1},
		}},
		{Path: "scale/scale.go", Name: "tare", Tests: []model.TestReach{
			{Path: "integration/all_test.go", Kind: "integration", Distance: 2},
			{Path: "scale/scale_test.go", Kind: "unit", Distance: 2},
		}},
	}, journeys.TestedBy(j.Reading))
}

func TestWhatHoldsOrNothingAndWhatBecomesOfFaults(t *testing.T) {
	s := testkit.Survey(t, `
-- pom.xml --
<project><artifactId>vault</artifactId></project>
-- src/main/java/vault/LotController.java --
package vault;
@RestController
public class LotController {
    private final Lots lots;
    public LotController(Lots lots) { this.lots = lots; }
    @PostMapping("/lots")
    public void take(String name) {
        if (name == null) throw new MissingName();
        lots.keep(name);
    }
}
-- src/main/java/vault/Lots.java --
package vault;
@Service
@Transactional
public class Lots {
    private final LotRepository lotRepository;
    public void keep(String name) {
        try {
            lotRepository.save(name);
        } catch (DataException e) {
            throw new NotKept(e);
        }
    }
}
-- src/main/java/vault/LotRepository.java --
package vault;
public class LotRepository {
    public void save(String name) {
        try { write(name); } catch (IOException ignored) { }
    }
    private void write(String name) { }
}
`)
	j := judgement.Judge(s, model.Brief{}, nil)
	var got []string
	for _, x := range journeys.Of(j.Reading, j.Entries) {
		if x.Route == nil {
			continue
		}
		for _, st := range x.Stops {
			line := st.Name + " " + st.Bounds
			for _, f := range st.Faults {
				line += fmt.Sprintf(" %s %s:%d", f.What, f.Name, f.Line)
			}
			got = append(got, line)
		}
	}
	require.Equal(t, []string{
		"LotController.take  raise MissingName:8", "Lots.keep Transactional turn NotKept:10", "LotRepository.save  swallow IOException:4",
	}, got)
}
