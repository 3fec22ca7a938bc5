package routes_test

import (
	"fmt"
	"testing"

	"jantel/core/routes"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// What runs around what answers, in running order, as a reader of these small
// trees says it before anything is run.
func TestWhatRunsAroundARoute(t *testing.T) {
	for name, c := range map[string]struct {
		tree string
		want map[string][]string
	}{
		"what is put on the outer router runs first, and only for what is declared behind it": {`
-- package.json --
{ "dependencies": { "express": "4" } }
-- app.js --
const express = require('express')
const lots = require('./lots')
const app = express()
app.get('/health', (req, res) => res.end())
app.use(express.json())
app.use(signedIn)
app.use('/lots', counted, lots)
app.get('/about', about)
app.use((err, req, res, next) => res.status(500).end())
-- lots.js --
const router = require('express').Router()
router.use('/:id', onShelf)
router.get('/', list)
router.get('/:id', one)
module.exports = router
`, map[string][]string{
			"GET /health": {"error in place app.js:9"},
			"GET /about":  {"before express.json app.js:5", "before signedIn app.js:6", "error in place app.js:9"},
			"GET /lots": {
				"before express.json app.js:5", "before signedIn app.js:6", "before counted app.js:7", "error in place app.js:9",
			},
			"GET /lots/:id": {
				"before express.json app.js:5", "before signedIn app.js:6", "before counted app.js:7", "before onShelf lots.js:2",
				"error in place app.js:9",
			},
		}},
		"hooks with their options behind arrows, faults that another method takes": {`
-- Gemfile --
gem 'rails'
-- config/routes.rb --
Rails.application.routes.draw do
  resources :lots, :only => [:index, :show]
end
-- app/controllers/lots_controller.rb --
class LotsController < ApplicationController
  rescue_from ::ActiveRecord::RecordNotFound, :with => :missing
  before_action :find_lot, :only => [:show]
  after_action :counted, :except => :show
  def index
  end
  def show
  end
  private
  def find_lot
  end
  def counted
  end
  def missing
  end
end
`, map[string][]string{
			"GET /lots": {
				"after counted app/controllers/lots_controller.rb:4", "error missing app/controllers/lots_controller.rb:2",
			},
			"GET /lots/:id": {
				"before find_lot app/controllers/lots_controller.rb:3", "error missing app/controllers/lots_controller.rb:2",
			},
		}},
		"hooks of a server, whatever their order": {`
-- package.json --
{ "dependencies": { "fastify": "4" } }
-- app.js --
const app = require('fastify')()
app.get('/lots', list)
app.addHook('preHandler', signedIn)
app.addHook('onResponse', logged)
app.setErrorHandler(say)
`, map[string][]string{
			"GET /lots": {"before signedIn app.js:3", "after logged app.js:4", "error say app.js:5"},
		}},
		"groups keep what is put on them": {`
-- go.mod --
module vault
-- main.go --
package main

func main() {
	r := chi.NewRouter()
	r.Use(logged)
	r.Get("/open", open)
	r.Group(func(r chi.Router) {
		r.Use(signedIn, counted)
		r.Get("/lots", list)
	})
	r.Get("/about", about)
}
`, map[string][]string{
			"GET /open":  {"before logged main.go:5"},
			"GET /lots":  {"before logged main.go:5", "before signedIn main.go:8", "before counted main.go:8"},
			"GET /about": {"before logged main.go:5"},
		}},
		"decorators of a blueprint, and what handles faults": {`
-- app.py --
from flask import Flask, Blueprint
app = Flask(__name__)
lots = Blueprint('lots', __name__, url_prefix='/lots')

@app.before_request
def remember():
    pass

@lots.before_request
def signed_in():
    pass

@lots.after_request
def count(r):
    return r

@app.errorhandler(ValueError)
def wrong(e):
    return '', 400

@lots.route('/')
def all_lots():
    return ''

@app.route('/about')
def about():
    return ''

app.register_blueprint(lots)
`, map[string][]string{
			"GET /about": {"before remember app.py:5", "error wrong app.py:17"},
			"GET /lots": {
				"before remember app.py:5", "before signed_in app.py:9", "after count app.py:13", "error wrong app.py:17",
			},
		}},
		"middleware and dependencies of an application": {`
-- main.py --
from fastapi import FastAPI, APIRouter, Depends
app = FastAPI()
router = APIRouter(prefix='/lots', dependencies=[Depends(signed_in)])
app.add_middleware(Timing)

@app.middleware('http')
async def logged(request, call_next):
    return await call_next(request)

@router.get('/')
async def all_lots():
    return []

app.include_router(router, dependencies=[Depends(counted)])
`, map[string][]string{
			"GET /lots": {
				"around logged main.py:6", "around Timing main.py:4", "before counted main.py:14", "before signed_in main.py:3",
			},
		}},
		"actions before and after, of the class and of what it builds upon": {`
-- Gemfile --
gem 'rails'
-- config/routes.rb --
Rails.application.routes.draw do
  resources :lots, only: [:index, :create]
  get '/about', to: 'pages#about'
end
-- app/controllers/application_controller.rb --
class ApplicationController < ActionController::Base
  before_action :signed_in
  rescue_from Missing, with: :gone
end
-- app/controllers/lots_controller.rb --
class LotsController < ApplicationController
  before_action :on_shelf, only: [:create]
  after_action :count, except: :index

  def index
  end

  def create
  end
end
-- app/controllers/pages_controller.rb --
class PagesController < ApplicationController
  skip_before_action :signed_in, only: :about

  def about
  end
end
`, map[string][]string{
			"GET /lots": {
				"before signed_in app/controllers/application_controller.rb:2", "error gone app/controllers/application_controller.rb:3",
			},
			"POST /lots": {
				"before signed_in app/controllers/application_controller.rb:2", "before on_shelf app/controllers/lots_controller.rb:2",
				"after count app/controllers/lots_controller.rb:3", "error gone app/controllers/application_controller.rb:3",
			},
			"GET /about": {"error gone app/controllers/application_controller.rb:3"},
		}},
		"what a constructor puts before the actions of its class": {`
-- composer.json --
{ "require": { "laravel/framework": "11" } }
-- routes/web.php --
<?php
use App\Http\Controllers\LotController;
Route::get('/lots', [LotController::class, 'index']);
Route::post('/lots', [LotController::class, 'store']);
-- app/Http/Controllers/LotController.php --
<?php
namespace App\Http\Controllers;
class LotController extends Controller
{
    public function __construct()
    {
        $this->middleware('auth')->except('index');
        $this->middleware('counted')->only(['index', 'store']);
    }
    public function index() {}
    public function store() {}
}
`, map[string][]string{
			"GET /lots": {"before counted app/Http/Controllers/LotController.php:8"},
			"POST /lots": {
				"before auth app/Http/Controllers/LotController.php:7", "before counted app/Http/Controllers/LotController.php:8",
			},
		}},
		"what an application uses, line by line": {`
-- Vault.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web"></Project>
-- Program.cs --
var app = builder.Build();
app.UseExceptionHandler("/error");
app.UseAuthentication();
app.UseMiddleware<CountLots>();
app.MapGet("/lots", () => "");
app.Run();
`, map[string][]string{
			"GET /lots": {
				"before UseAuthentication Program.cs:3", "before CountLots Program.cs:4", "error UseExceptionHandler Program.cs:2",
			},
		}},
		"filters and interceptors by their bases and by where they are added": {`
-- pom.xml --
<project><artifactId>vault</artifactId></project>
-- src/main/java/vault/Lots.java --
package vault;
@RestController
public class Lots {
    @GetMapping("/lots")
    public String all() { return ""; }
    @GetMapping("/about")
    public String about() { return ""; }
}
-- src/main/java/vault/Timing.java --
package vault;
@Component
public class Timing extends OncePerRequestFilter {
    protected void doFilterInternal() {}
}
-- src/main/java/vault/Web.java --
package vault;
public class Web implements WebMvcConfigurer {
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(new OnShelf()).addPathPatterns("/lots/**");
    }
}
-- src/main/java/vault/Wrong.java --
package vault;
@ControllerAdvice
public class Wrong {
    @ExceptionHandler(Gone.class)
    public String gone() { return ""; }
}
`, map[string][]string{
			"GET /lots": {
				"around Timing src/main/java/vault/Timing.java:2", "before OnShelf src/main/java/vault/Web.java:4",
				"error gone src/main/java/vault/Wrong.java:4",
			},
			"GET /about": {"around Timing src/main/java/vault/Timing.java:2", "error gone src/main/java/vault/Wrong.java:4"},
		}},
		"the list of a settings file": {`
-- manage.py --
import django
-- vault/settings.py --
MIDDLEWARE = [
    'django.middleware.security.SecurityMiddleware',
    'vault.counted.CountLots',
]
-- vault/urls.py --
from django.urls import path
from . import views
urlpatterns = [path('lots/', views.lots)]
-- vault/views.py --
def lots(request):
    return None
`, map[string][]string{
			"ANY /lots": {"around SecurityMiddleware vault/settings.py:2", "around CountLots vault/settings.py:3"},
		}},
		"guards, interceptors and what is applied for some addresses": {`
-- package.json --
{ "dependencies": { "@nestjs/common": "10" } }
-- src/main.ts --
const app = await NestFactory.create(AppModule)
app.useGlobalPipes(new ValidationPipe())
-- src/app.module.ts --
export class AppModule {
  configure(consumer: MiddlewareConsumer) {
    consumer.apply(Counted).forRoutes('lots')
  }
}
-- src/lots.controller.ts --
import { Controller, Get } from '@nestjs/common'
@Controller('lots')
export class LotsController {
  @Get()
  all() { return [] }
}
-- src/about.controller.ts --
@Controller('about')
export class AboutController {
  @Get()
  about() { return '' }
}
`, map[string][]string{
			"GET /lots":  {"before Counted src/app.module.ts:3", "before ValidationPipe src/main.ts:2"},
			"GET /about": {"before ValidationPipe src/main.ts:2"},
		}},
		"what is under another, and what only looks like it": {`
-- package.json --
{ "dependencies": { "express": "4", "vue": "3" } }
-- app.js --
const app = require('express')()
app.use('/static', express.static('public'))
app.get('/lots', list)
-- screen.js --
const screen = createApp(Root)
screen.use(store)
plugin.addHook(list)
`, map[string][]string{
			"GET /lots": nil,
		}},
	} {
		t.Run(name, func(t *testing.T) {
			got := map[string][]string{}
			for _, r := range routes.Of(testkit.Survey(t, c.tree)) {
				var all []string
				for _, x := range r.Around {
					name := x.Name
					if name == "" {
						name = "in place"
					}
					all = append(all, fmt.Sprintf("%s %s %s:%d", x.When, name, x.Path, x.Line))
				}
				got[r.Method+" "+r.Pattern] = all
			}
			require.Equal(t, c.want, got)
		})
	}
}
