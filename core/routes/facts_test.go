package routes_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/routes"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// What checks what is sent, in which order routes are tried, and what answers when
// nothing else does; said by a reader before anything was run.
func TestWhatElseIsToldOfARoute(t *testing.T) {
	for name, c := range map[string]struct {
		tree string
		want []string
	}{
		"across files that are put below one another": {`
-- package.json --
{ "dependencies": { "express": "4" } }
-- app.js --
const app = require('express')()
app.get('/lots/new', blank)
app.use('/lots', require('./lots'))
app.get('/lots/:id', late)
app.get('*', missing)
-- lots.js --
const router = require('express').Router()
router.get('/:id', one)
router.post('/', validate(shape), add)
module.exports = router
`, []string{
			"1 GET /lots/new", "2 GET /lots/:id", "3 POST /lots checks validate", "4 GET /lots/:id", "5 GET /* fallback",
		}},
		"in place, and by a schema": {`
-- package.json --
{ "dependencies": { "fastify": "4" } }
-- app.js --
const app = require('fastify')()
app.post('/lots', async (req) => {
  const lot = shape.safeParse(req.body)
  return lot
})
app.get('/lots', async () => [])
`, []string{"1 POST /lots checks safeParse", "2 GET /lots"}},
		"by marks of parameters; the most exact answers": {`
-- pom.xml --
<project><artifactId>vault</artifactId></project>
-- src/Lots.java --
@RestController
public class Lots {
    @PostMapping("/lots")
    public Lot add(@Valid @RequestBody Lot lot) { return lot; }
    @GetMapping("/lots")
    public List<Lot> all() { return null; }
}
`, []string{"- GET /lots", "- POST /lots checks Valid"}},
		"by the state of the model": {`
-- Vault.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web"></Project>
-- Lots.cs --
[Route("lots")]
public class LotsController : Controller
{
    [HttpPost]
    public IActionResult Add(Lot lot)
    {
        if (!ModelState.IsValid) return BadRequest();
        return Ok();
    }
}
-- Program.cs --
app.MapFallbackToFile("index.html");
`, []string{"- GET /{*rest} fallback", "- POST /lots checks ModelState"}},
		"by a form and by a request class": {`
-- manage.py --
import django
-- vault/urls.py --
from django.urls import path
from . import views
urlpatterns = [path('lots/', views.add), path('about/', views.about)]
-- vault/views.py --
def add(request):
    form = LotForm(request.POST)
    if form.is_valid():
        form.save()

def about(request):
    return None
`, []string{"1 ANY /lots checks is_valid", "1 ANY /about"}},
		"by validation of the request": {`
-- composer.json --
{ "require": { "laravel/framework": "11" } }
-- routes/web.php --
<?php
use App\Http\Controllers\LotController;
Route::post('/lots', [LotController::class, 'store']);
Route::put('/lots', [LotController::class, 'update']);
Route::fallback([LotController::class, 'missing']);
-- app/Http/Controllers/LotController.php --
<?php
namespace App\Http\Controllers;
class LotController extends Controller
{
    public function store(Request $request) { $request->validate(['a' => 'required']); }
    public function update(LotRequest $request) { }
    public function missing() {}
}
-- app/Http/Requests/LotRequest.php --
<?php
class LotRequest extends FormRequest { }
`, []string{"1 POST /lots checks validate", "2 PUT /lots checks LotRequest", "3 ANY /{*rest} fallback"}},
		"by binding": {`
-- go.mod --
module vault
-- main.go --
package main

func main() {
	r := gin.New()
	r.POST("/lots", add)
	r.NoRoute(missing)
}

func add(c *gin.Context) {
	if err := c.ShouldBindJSON(&lot); err != nil {
		return
	}
}
`, []string{"- POST /lots checks ShouldBindJSON"}},
		"by the types that a function takes": {`
-- main.py --
from fastapi import FastAPI
from pydantic import BaseModel
app = FastAPI()

class NewLot(BaseModel):
    grams: int

@app.post('/lots')
def add(lot: NewLot):
    return lot

@app.get('/lots')
def all_lots():
    return []
`, []string{"1 POST /lots checks NewLot", "2 GET /lots"}},
	} {
		t.Run(name, func(t *testing.T) {
			var got []string
			for _, r := range routes.Of(testkit.Survey(t, c.tree)) {
				line := fmt.Sprintf("%d %s %s", r.Order, r.Method, r.Pattern)
				if r.Order == 0 {
					line = "-" + line[1:]
				}
				if len(r.Checks) > 0 {
					line += " checks " + strings.Join(r.Checks, ", ")
				}
				if r.Fallback {
					line += " fallback"
				}
				got = append(got, line)
			}
			require.ElementsMatch(t, c.want, got)
		})
	}
}
