package routes_test

import (
	"fmt"
	"testing"

	"jantel/core/routes"
	_ "jantel/core/syntax/languages"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func TestRoutes(t *testing.T) {
	for name, c := range map[string]struct {
		tree string
		want []string
	}{
		"Express: mounted routers, chains, wrapped handlers; calls of clients are none": {`
-- src/app.ts --
import express from 'express'
import { lots } from './routes/lots'
import growers from './routes/growers'
const app = express()
app.use(express.json())
app.use('/api', lots)
app.use('/api/growers', auth, growers)
app.get('/health', (req, res) => res.send('ok'))
cache.get('/lots', fallback)
-- src/routes/lots.ts --
import { Router } from 'express'
import { list, weigh } from '../handlers/lots'
import axios from 'axios'
export const lots = Router()
lots.get('/lots', list)
lots.post('/lots/:id/weight', check, wrap(weigh))
lots.route('/lots/:id').get(list).delete(list)
axios.get('/lots', { params: {} })
-- src/routes/growers.ts --
import { Router } from 'express'
const router = Router()
router.get('/', (req, res) => {})
export default router
-- src/handlers/lots.ts --
export const list = (req, res) => {}
export function weigh(req, res) {}
`, []string{
			"GET /api/growers src/routes/growers.ts:3 -> ",
			"GET /api/lots src/routes/lots.ts:5 -> list src/handlers/lots.ts:1",
			"DELETE /api/lots/:id src/routes/lots.ts:7 -> list src/handlers/lots.ts:1",
			"GET /api/lots/:id src/routes/lots.ts:7 -> list src/handlers/lots.ts:1",
			"POST /api/lots/:id/weight src/routes/lots.ts:6 -> weigh src/handlers/lots.ts:2",
			"GET /health src/app.ts:8 -> ",
		}},
		"Go: groups, mounts, patterns that name the method": {`
-- go.mod --
module vault
-- main.go --
package main

import (
	"net/http"
	"vault/lots"
)

func main() {
	r := chi.NewRouter()
	r.Get("/health", health)
	r.Route("/api", func(r chi.Router) {
		r.Route("/shelves/{shelf}", func(r chi.Router) {
			r.Put("/", lots.Put)
		})
		r.Mount("/lots", lots.Routes())
	})
	mux.HandleFunc("GET /seeds/{id}", lots.Seed)
	v1 := g.Group("/v1")
	v1.GET("/boxes", http.HandlerFunc(health))
	resp, _ := http.Get("/not/a/route")
}
func health(w http.ResponseWriter, q *http.Request) {}
-- lots/lots.go --
package lots

func Routes() http.Handler {
	r := chi.NewRouter()
	r.Post("/{id}", Put)
	return r
}
func Put(w http.ResponseWriter, r *http.Request) {}
func Seed(w http.ResponseWriter, r *http.Request) {}
`, []string{
			"POST /api/lots/{id} lots/lots.go:5 -> Put lots/lots.go:8",
			"PUT /api/shelves/{shelf} main.go:13 -> lots.Put lots/lots.go:8",
			"GET /health main.go:10 -> health main.go:22",
			"GET /seeds/{id} main.go:17 -> lots.Seed lots/lots.go:9",
			"GET /v1/boxes main.go:19 -> health main.go:22",
		}},
		"Go: routes told by a chain, and what is only sent": {`
-- go.mod --
module vault
-- main.go --
package main

import (
	"net/http"

	"github.com/gorilla/mux"
)

type desk struct{ request *sender }

func serve(router *mux.Router, h *desk) {
	below := router.PathPrefix("/v1").Subrouter()
	below.HandleFunc("/lots", h.keep).Methods(http.MethodPost)
	below.HandleFunc("/lots", h.list).Name("lots").Methods(http.MethodGet, "HEAD")
	deeper := below.PathPrefix("/vault").Subrouter()
	deeper.Path("/{box}").Methods("PUT").HandlerFunc(h.keep)
	router.Methods("DELETE").Path("/lots/{lot}").Handler(http.HandlerFunc(h.drop))
	router.PathPrefix("/pictures/").Handler(http.FileServer(nil))
	router.HandleFunc("/about", h.list)
	router.HandleFunc("/me", h.known(h.list)).Methods("GET")
	router.HandleFunc("/boxes", h.boxes(store))
	h.request.Post("/v1/discover", map[string]string{"url": "x"})
	h.request.Put("/v1/lots", 3)
}
func (d *desk) keep(w http.ResponseWriter, q *http.Request) {}
func (d *desk) known(then http.HandlerFunc) http.HandlerFunc { return then }
func (d *desk) boxes(kept int) http.HandlerFunc { return nil }
func (d *desk) list(w http.ResponseWriter, q *http.Request) {}
func (d *desk) drop(w http.ResponseWriter, q *http.Request) {}
`, []string{
			"ANY /about main.go:19 -> h.list main.go:28",
			"ANY /boxes main.go:21 -> h.boxes main.go:27",
			"DELETE /lots/{lot} main.go:17 -> h.drop main.go:29",
			"GET /me main.go:20 -> h.list main.go:28",
			"ANY /pictures/* main.go:18 -> http.FileServer ",
			"GET /v1/lots main.go:14 -> h.list main.go:28",
			"HEAD /v1/lots main.go:14 -> h.list main.go:28",
			"POST /v1/lots main.go:13 -> h.keep main.go:25",
			"PUT /v1/vault/{box} main.go:16 -> h.keep main.go:25",
		}},
		"Python: decorators, blueprints, routers with prefixes, lists of addresses": {`
-- app/main.py --
from fastapi import FastAPI
from app import lots
from app.seeds import bp
app = FastAPI()
app.include_router(lots.router, prefix="/api")
app.register_blueprint(bp)
@app.get("/health")
async def health():
    pass
-- app/lots.py --
from fastapi import APIRouter
router = APIRouter(prefix="/lots")
@router.post("/{lot}/weight")
@logged
def weigh(lot): pass
-- app/seeds.py --
from flask import Blueprint
bp = Blueprint("seeds", __name__, url_prefix="/seeds")
@bp.route("/<int:seed>", methods=["GET", "DELETE"])
def one(seed): pass
-- app/__init__.py --
-- site/urls.py --
from django.urls import path, include
from site import views
urlpatterns = [path("vault/", include("shelf.urls")), path("about/", views.about)]
-- site/views.py --
def about(request): pass
-- site/__init__.py --
-- shelf/urls.py --
from django.urls import path
from .views import Box
urlpatterns = [path("<int:box>/", Box.as_view())]
-- shelf/views.py --
class Box: pass
-- shelf/__init__.py --
`, []string{
			"ANY /about site/urls.py:3 -> views.about site/views.py:1",
			"POST /api/lots/{lot}/weight app/lots.py:3 -> weigh app/lots.py:5",
			"GET /health app/main.py:7 -> health app/main.py:8",
			"DELETE /seeds/<int:seed> app/seeds.py:3 -> one app/seeds.py:4",
			"GET /seeds/<int:seed> app/seeds.py:3 -> one app/seeds.py:4",
			"ANY /vault/<int:box> shelf/urls.py:3 -> Box shelf/views.py:1",
		}},
		"Java: annotations on methods below those on the class": {`
-- Lots.java --
package vault;
@RestController
@RequestMapping("/api/lots")
class Lots {
    @GetMapping("/{id}")
    Lot one(String id) { return null; }
    @RequestMapping(value = {"/dry", "/damp"}, method = RequestMethod.POST)
    void dry() {}
    @DeleteMapping
    void drop() {}
}
-- Seeds.java --
@Path("/seeds")
class Seeds {
    @GET
    @Path("{id}")
    public Seed one() { return null; }
}
`, []string{
			"DELETE /api/lots Lots.java:9 -> drop Lots.java:9",
			"POST /api/lots/damp Lots.java:7 -> dry Lots.java:7",
			"POST /api/lots/dry Lots.java:7 -> dry Lots.java:7",
			"GET /api/lots/{id} Lots.java:5 -> one Lots.java:5",
			"GET /seeds/{id} Seeds.java:3 -> one Seeds.java:3",
		}},
		"C#: attributes below those on the class, groups and mapped functions": {`
-- LotsController.cs --
[ApiController]
[Route("api/[controller]")]
public class LotsController
{
    [HttpGet("{id}")]
    public Lot One(string id) => null;
    [HttpPost, Authorize]
    public void Add() { }
    [HttpDelete("/all")]
    public void Drop() { }
}
-- Program.cs --
var api = app.MapGroup("/v1");
api.MapGet("/seeds/{id}", One);
app.MapPost("/boxes", (Box b) => { });
static string One(int id) => "";
`, []string{
			"DELETE /all LotsController.cs:9 -> Drop LotsController.cs:9",
			"POST /api/lots LotsController.cs:7 -> Add LotsController.cs:7",
			"GET /api/lots/{id} LotsController.cs:5 -> One LotsController.cs:5",
			"POST /boxes Program.cs:3 -> ",
			"GET /v1/seeds/{id} Program.cs:2 -> One ",
		}},
		"PHP: static calls, groups, resources and attributes": {`
-- routes/api.php --
<?php
use App\Lots;
Route::get('/lots', [Lots::class, 'list']);
Route::prefix('vault')->middleware('auth')->group(function () {
    Route::post('shelves/{shelf}', 'Shelves@put');
    Route::apiResource('boxes', Lots::class)->only(['index']);
});
-- app/Lots.php --
<?php
namespace App;
class Lots {
    function list() {}
    #[Route('/seeds/{id}', methods: ['GET'])]
    public function seed() {}
}
`, []string{
			"GET /lots routes/api.php:3 -> Lots.list app/Lots.php:4",
			"GET /seeds/{id} app/Lots.php:5 -> seed app/Lots.php:5",
			"GET /vault/boxes routes/api.php:6 -> Lots.index ",
			"POST /vault/boxes routes/api.php:6 -> Lots.store ",
			"DELETE /vault/boxes/{boxe} routes/api.php:6 -> Lots.destroy ",
			"GET /vault/boxes/{boxe} routes/api.php:6 -> Lots.show ",
			"PUT /vault/boxes/{boxe} routes/api.php:6 -> Lots.update ",
			"POST /vault/shelves/{shelf} routes/api.php:5 -> Shelves.put ",
		}},
		"Ruby: resources, namespaces, single addresses; blocks": {`
-- config/routes.rb --
Rails.application.routes.draw do
  get '/health', to: 'health#show'
  namespace :api do
    resources :lots, only: [:index, :show] do
      get 'weight', to: 'weights#show'
    end
  end
end
-- app/controllers/api/lots_controller.rb --
class Api::LotsController
  def index; end
  def show; end
end
-- app/controllers/health_controller.rb --
class HealthController
  def show; end
end
-- bin/small.rb --
get '/seeds/:id' do
  puts 1
end
puts get(1)
`, []string{
			"GET /api/lots config/routes.rb:4 -> Api::LotsController.index app/controllers/api/lots_controller.rb:2",
			"GET /api/lots/:id config/routes.rb:4 -> Api::LotsController.show app/controllers/api/lots_controller.rb:3",
			"GET /api/lots/:lot_id/weight config/routes.rb:5 -> Api::WeightsController.show ",
			"GET /health config/routes.rb:2 -> HealthController.show app/controllers/health_controller.rb:2",
			"GET /seeds/:id bin/small.rb:1 -> ",
		}},
	} {
		t.Run(name, func(t *testing.T) {
			got := []string{}
			for _, r := range routes.Of(testkit.Survey(t, c.tree)) {
				at := ""
				if r.HandlerPath != "" {
					at = fmt.Sprintf("%s:%d", r.HandlerPath, r.HandlerLine)
				}
				line := fmt.Sprintf("%s %s %s:%d -> %s", r.Method, r.Pattern, r.Path, r.Line, r.HandlerName)
				if r.HandlerName != "" {
					line += " " + at
				}
				got = append(got, line)
			}
			require.Equal(t, c.want, got)
		})
	}
}

func TestATypedPathFindsWhatAnswers(t *testing.T) {
	for _, c := range []struct {
		pattern, typed string
		want           bool
	}{
		{"/lots/:id", "/lots/7", true},
		{"/lots/{id}/weight", "lots/7/weight?unit=g", true},
		{"/lots/<int:id>", "/lots/7/", true},
		{"/lots", "/lots/7", false},
		{"/lots/:id", "/lots", false},
		{"/files/*", "/files/a/b", true},
		{"/files/{rest...}", "/files/a/b", true},
		{"/", "/", true},
		{"/", "", true},
		{"/lots/new", "/lots/old", false},
	} {
		require.Equal(t, c.want, routes.Match(c.pattern, c.typed), "%s answers %s", c.pattern, c.typed)
	}
}

func TestRoutersThatMountEachOtherEnd(t *testing.T) {
	got := routes.Of(testkit.Survey(t, `
-- a.js --
const b = require('./b')
const router = express.Router()
router.use('/b', b)
router.get('/a', f)
module.exports = router
-- b.js --
const a = require('./a')
const router = express.Router()
router.use('/a', a)
module.exports = router
`))
	require.NotEmpty(t, got)
	require.LessOrEqual(t, len(got), 8)
}

func TestWhatAnswersIsWrittenInPlaceNamedOrNotTold(t *testing.T) {
	s := testkit.Survey(t, `
-- a.js --
router.get('/a', (req, res) => {})
router.get('/b', function (req, res) {})
router.get('/c', list)
router.get('/d', handlers['list'])
-- a.go --
package a

func r() {
	m.HandleFunc("/e", func(w http.ResponseWriter, r *http.Request) {})
	m.HandleFunc("/f", list)
}
-- A.cs --
class A { void B() { app.MapGet("/g", () => 1); app.MapGet("/h", Lots.List); } }
-- a.php --
<?php
Route::get('/i', function () {});
Route::get('/j', 'LotController@index');
-- a.rb --
get '/k' do
  1
end
`)
	got := map[string]string{}
	for _, r := range routes.Of(s) {
		switch {
		case r.InPlace && r.HandlerName == "":
			got[r.Pattern] = "in place"
		case r.HandlerName != "":
			got[r.Pattern] = r.HandlerName
		default:
			got[r.Pattern] = "not told"
		}
	}
	require.Equal(t, map[string]string{"/a": "in place", "/b": "in place", "/c": "list", "/d": "not told", "/e": "in place", "/f": "list", "/g": "in place", "/h": "Lots.List", "/i": "in place", "/j": "LotController.index", "/k": "in place"}, got)
}
