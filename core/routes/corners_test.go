package routes_test

import (
	"strings"
	"testing"

	"jantel/core/routes"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// told writes routes as "METHOD pattern handler".
func told(t *testing.T, tree string) []string {
	t.Helper()
	out := []string{}
	for _, r := range routes.Of(testkit.Survey(t, tree)) {
		line := r.Method + " " + r.Pattern
		if r.HandlerName != "" {
			line += " " + r.HandlerName
		}
		out = append(out, line)
	}
	return out
}

func TestRoutesInTheirCorners(t *testing.T) {
	for name, c := range map[string]struct {
		tree string
		want []string
	}{
		"groups and methods before the path, classes that are called, in namespaces of one file": {`
-- routes.php --
<?php
use Vault\Controllers\HomeController;
use Vault\Controllers\Lots;
use Vault\Controllers\Boxes as Crates;
return static function (Collector $routes): void {
    $routes->addRoute(['GET', 'POST'], '[/]', HomeController::class);
    $routes->addGroup('/lots', static function (Collector $routes): void {
        $routes->get('', Lots\ListController::class);
        $routes->addGroup('/old', static function (Collector $routes): void {
            $routes->addRoute('DELETE', '/drop', Lots\DropController::class);
        });
    });
    $routes->post('/boxes/drop', Crates\DropController::class);
    $other->addRoute(['GET'], '/none', HomeController::class);
};
-- src/Home.php --
<?php
namespace Vault\Controllers;
class HomeController { public function __invoke() {} }
-- src/Lots.php --
<?php
namespace Vault\Controllers\Lots;
class ListController { public function __invoke() {} }
class DropController { public function __invoke() {} }
-- src/Boxes.php --
<?php
namespace Vault\Controllers\Boxes;
class DropController { public function __invoke() {} }
`, []string{
			"GET / HomeController", "POST / HomeController", "GET /lots Vault\\Controllers\\Lots\\ListController.__invoke",
			"DELETE /lots/old/drop Vault\\Controllers\\Lots\\DropController.__invoke",
			"POST /boxes/drop Vault\\Controllers\\Boxes\\DropController.__invoke",
		}},
		"plug-ins registered with a prefix": {`
-- app.js --
const fastify = require('fastify')()
fastify.register(require('./lots'), { prefix: '/lots' })
fastify.get('/health', async () => 'ok')
-- lots.js --
module.exports = async function (instance) {
  instance.get('/', list)
  instance.delete('/:id', async (q) => {})
}
function list() {}
`, []string{"GET /health", "GET /lots list", "DELETE /lots/:id"}},
		"a router of a router, three deep": {`
-- a.ts --
import b from './b'
const app = express()
app.use('/a', b)
-- b.ts --
import c from './c'
const router = Router()
router.use('/b', c)
export default router
-- c.ts --
const router = Router()
router.post('/c', save)
export default router
`, []string{"POST /a/b/c save"}},
		"one router below two paths": {`
-- a.ts --
import { lots } from './lots'
const app = express()
app.use('/v1', lots)
app.use('/v2', lots)
-- lots.ts --
export const lots = Router()
lots.get('/lots', list)
`, []string{"GET /v1/lots list", "GET /v2/lots list"}},
		"what only looks like a route": {`
-- a.ts --
const m = new Map()
m.get('/lots', 1)
client.get('/lots', { headers: {} })
headers.set('/x', y)
app.get('title')
app.use(cors())
const url = app.get('/lots')
`, []string{}},
		"Go: methods of the library's own router, and none of a client": {`
-- a.go --
package a

func f() {
	mux.Handle("POST /lots/{id}", http.HandlerFunc(save))
	mux.HandleFunc("/", index)
	r.Method("PUT", "/boxes", h)
	e.GET("/seeds/:id", func(c echo.Context) error { return nil })
	http.Get("/not")
	c.Get("/neither", x)
	req.Header.Get("/nor")
	v := g.Group("/v1")
	w := v.Group("/deep")
	w.POST("/x", save)
}
func save() {}
func index() {}
`, []string{"ANY / index", "PUT /boxes h", "POST /lots/{id} save", "GET /seeds/:id", "POST /v1/deep/x save"}},
		"Python: lists of addresses with a name of their own, and written where they are included": {`
-- urls.py --
from django.urls import include, path, re_path
import views
lot_patterns = [
    path('dry/', views.dry),
    re_path(r'^(?P<id>\d+)/$', views.one),
]
urlpatterns = [
    path('lots/', include(lot_patterns)),
    path('rows/', include((lot_patterns, 'rows'))),
    path('desk/', include([path('a/', views.a), re_path(r'^b/', include([path('c/', views.c)]))])),
]
urlpatterns += [path('late/', views.late)]
`, []string{"ANY /desk/a views.a", "ANY /desk/b/c views.c", "ANY /late views.late", "ANY /lots/(?P<id>\\d+) views.one", "ANY /lots/dry views.dry",
			"ANY /rows/(?P<id>\\d+) views.one", "ANY /rows/dry views.dry"}},
		"Python: views of a class, rules added by hand, apps mounted": {`
-- a.py --
app = FastAPI()
sub = FastAPI()
app.mount("/sub", sub)
@sub.api_route("/x", methods=["get", "POST"])
def x(): pass
flask.add_url_rule("/rule", "name", view)
flask.add_url_rule("/named", view_func=lots.send, methods=["POST"])
flask.add_url_rule("/class", view_func=Shelf.as_view("shelf"))
flask.add_url_rule("/none", endpoint="far")
flask.add_url_rule(rule, view_func=lots.open)
@app.websocket("/ws")
def ws(): pass
@cache.get("key")
def no(): pass
urlpatterns = [re_path(r"^lots/(?P<id>\d+)$", views.Lot.as_view())]
`, []string{"ANY /lots/(?P<id>\\d+) views.Lot", "ANY /class Shelf", "GET /none", "GET /rule view", "GET /sub/x x", "POST /named lots.send", "POST /sub/x x"}},
		"PHP: prefixes in arrays, groups in groups, classes with an address": {`
-- r.php --
<?php
Route::group(['prefix' => 'admin'], function () {
    Route::prefix('deep')->group(function () {
        Route::any('x', fn () => 1);
    });
    Route::delete('y', 'Y@drop');
});
$router->get('/slim/{id}', Lots::class);
$cache->get('/not', 1);
-- C.php --
<?php
#[Route('/lots')]
class C {
    #[Route('/{id}', name: 'one', methods: ['GET', 'HEAD'])]
    #[IsGranted('X')]
    public function one() {}
    #[Route]
    public function all() {}
}
`, []string{"DELETE /admin/y Y.drop", "ANY /admin/deep/x", "ANY /lots all", "GET /lots/{id} one", "HEAD /lots/{id} one", "GET /slim/{id} Lots"}},
		"Ruby: resources within each other, one of a kind, scopes, verbs": {`
-- config/routes.rb --
Rails.application.routes.draw do
  root 'home#index'
  resource :profile, only: %i[show update]
  scope '/v1', module: 'v1' do
    resources :shelves, except: [:new, :edit, :destroy, :create, :update] do
      resources :boxes, only: :index
      member do
        post 'dry', to: 'shelves#dry'
      end
      collection do
        get 'full', to: 'shelves#full'
      end
    end
  end
  match '/x', to: 'x#y', via: :all
  delete 'seeds/:id' => 'seeds#drop'
end
`, []string{
			"GET /profile ProfileController.show", "PATCH /profile ProfileController.update", "PUT /profile ProfileController.update",
			"DELETE /seeds/:id SeedsController.drop", "ANY /x XController.y",
			"GET /v1/shelves V1::ShelvesController.index", "GET /v1/shelves/:id V1::ShelvesController.show",
			"GET /v1/shelves/:shelf_id/boxes V1::BoxesController.index",
			"POST /v1/shelves/:id/dry V1::ShelvesController.dry",
			"GET /v1/shelves/full V1::ShelvesController.full",
		}},
		"JavaScript: addresses with something put in": {strings.ReplaceAll(`
-- package.json --
{ "dependencies": { "express": "4" } }
-- app.js --
import express from 'express'
const app = express()
const base = '/v1'
app.get(~/lots/:id(${UUID})~, one)
app.delete(~${base}/beds/${kind}~, drop)
app.post(~/plain~, add)
function one() {}
function drop() {}
function add() {}
`, "~", "`"), []string{"GET /lots/:id one", "DELETE /*/beds/* drop", "POST /plain add"}},
		"Ruby: options behind arrows, controllers of another name, addresses for several methods": {`
-- Gemfile --
gem 'rails'
-- config/routes.rb --
Rails.application.routes.draw do
  post  '/imports', :to => 'imports#create', :as => 'imports'
  match '/imports/:id/run', :to => 'imports#run', :via => [:get, :post], :as => 'import_run'
  resources :members, :controller => 'principals', :only => [:index]
  resources :beds, :except => [:new, :edit, :update, :destroy, :show, :create]
  get 'about', controller: :pages, action: :about
  get 'welcome/index'
  resources :lots, only: [] do
    member do
      get 'history'
      match 'preview', :via => [:post]
      get 'tab/:name', :action => 'issue_tab'
    end
    get 'report', :on => :collection
  end
end
`, []string{
			"POST /imports ImportsController.create",
			"GET /imports/:id/run ImportsController.run", "POST /imports/:id/run ImportsController.run",
			"GET /members PrincipalsController.index", "GET /beds BedsController.index",
			"GET /about PagesController.about", "GET /welcome/index WelcomeController.index",
			"GET /lots/:id/history LotsController.history", "POST /lots/:id/preview LotsController.preview",
			"GET /lots/:id/tab/:name LotsController.issue_tab", "GET /lots/report LotsController.report",
		}},
	} {
		t.Run(name, func(t *testing.T) {
			require.ElementsMatch(t, c.want, told(t, c.tree))
		})
	}
}

func TestRoutesOfPages(t *testing.T) {
	for name, c := range map[string]struct {
		tree string
		want []string
	}{
		"elements in elements": {`
-- app.tsx --
import { LotPage } from './lot'
export const App = () => <Routes>
  <Route path="/lots" element={<Frame />}>
    <Route index element={<LotList />} />
    <Route path=":id" element={<LotPage kind="x" />} />
    <Route path="/late" component={Late} />
  </Route>
  <Route path="*" element={<Lost />} />
</Routes>
-- lot.tsx --
export const LotPage = () => <p />
`, []string{"GET /* Lost", "GET /late Late", "GET /lots Frame", "GET /lots LotList", "GET /lots/:id LotPage lot.tsx"}},
		"lists of objects": {`
-- routes.ts --
export const routes = [
  { path: 'lots', component: LotList, children: [
    { path: ':id', loadComponent: () => import('./lot').then((m) => m.LotPage) },
    { path: '', redirectTo: 'all' },
  ] },
  { path: 'notes.txt', size: 3 },
]
-- lot.ts --
export class LotPage {}
`, []string{"GET /lots ", "GET /lots LotList", "GET /lots/:id ./lot lot.ts"}},
		"pages by their place": {`
-- web/package.json --
{ "dependencies": { "next": "15" } }
-- web/src/app/(shop)/lots/[id]/page.tsx --
export default function LotPage() { return <p /> }
-- web/src/app/api/lots/route.ts --
export async function GET() {}
export const POST = async () => {}
-- web/pages/index.jsx --
export default function Home() { return <p /> }
-- web/pages/docs/[...rest].tsx --
export default () => <p />
-- web/pages/_app.tsx --
export default () => <p />
-- kit/package.json --
{ "devDependencies": { "@sveltejs/kit": "2" } }
-- kit/src/routes/lots/[id]/+page.svelte --
<p>x</p>
-- kit/src/routes/lots/+server.ts --
export function DELETE() {}
`, []string{"DELETE /lots DELETE kit/src/routes/lots/+server.ts", "GET / Home web/pages/index.jsx", "GET /api/lots GET web/src/app/api/lots/route.ts", "GET /docs/*rest default web/pages/docs/[...rest].tsx",
			"GET /lots/:id  kit/src/routes/lots/[id]/+page.svelte", "GET /lots/:id LotPage web/src/app/(shop)/lots/[id]/page.tsx", "POST /api/lots POST web/src/app/api/lots/route.ts"}},
	} {
		t.Run(name, func(t *testing.T) {
			var got []string
			for _, r := range routes.Of(testkit.Survey(t, c.tree)) {
				line := r.Method + " " + r.Pattern + " " + r.HandlerName
				if r.HandlerPath != "" {
					line += " " + r.HandlerPath
				}
				got = append(got, line)
			}
			require.ElementsMatch(t, c.want, got)
		})
	}
}
