package routes_test

import (
	"fmt"
	"testing"

	"jantel/core/routes"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// Written down before they were run.
func TestWhatRoutesAreCalledAndAnswer(t *testing.T) {
	for name, c := range map[string]struct {
		tree string
		want []string
	}{
		"calls on a router": {`-- app.ts --
import express from 'express'
import { show, keep } from './growers'
const app = express()
app.get('/growers/:id', show)
app.post('/growers', keep)
app.get('/label', (req, res) => {
  if (!req.query.id) return res.status(400).json({ why: 'no id' })
  res.sendFile('label.pdf')
})
app.get('/health', (req, res) => res.end())
-- growers.ts --
export function show(req, res) { res.json({}) }
export function keep(req, res) {
  if (!req.body.name) return res.render('grower')
  res.redirect('/growers')
}
`, []string{"GET /growers/:id  data", "GET /health  ", "GET /label  file", "POST /growers  redirect"}},
		"addresses in a list": {`-- vault/urls.py --
from django.urls import path
from . import views
urlpatterns = [
    path('shelves/', views.shelves, name='shelves'),
    path('shelves/<int:id>/', views.shelf, name="shelf"),
    path('old/', views.old),
]
-- vault/views.py --
from django.shortcuts import render, redirect
from django.http import JsonResponse

def shelves(request):
    return render(request, 'shelves.html')

def shelf(request, id):
    return JsonResponse({})

def old(request):
    return redirect('shelves')
`, []string{"ANY /old  redirect", "ANY /shelves shelves page", "ANY /shelves/<int:id> shelf data"}},
		"marks on methods": {`-- Lots.cs --
[Route("lots")]
public class LotsController : Controller {
  [HttpGet("{id}", Name = "Lot")]
  public IActionResult Show(int id) { return View(id); }
  [HttpPost]
  public IActionResult Keep(Lot lot) { return Ok(lot); }
}
`, []string{"GET /lots/{id} Lot page", "POST /lots  data"}},
		"facades": {`-- routes/web.php --
<?php
Route::get('/lots', [LotController::class, 'index'])->name('lots.index');
Route::post('/lots', [LotController::class, 'store']);
-- app/LotController.php --
<?php
class LotController {
    public function index() { return view('lots'); }
    public function store() { return response()->json([]); }
}
`, []string{"GET /lots lots.index page", "POST /lots  data"}},
	} {
		t.Run(name, func(t *testing.T) {
			var got []string
			for _, r := range routes.Of(testkit.Survey(t, c.tree)) {
				got = append(got, fmt.Sprintf("%s %s %s %s", r.Method, r.Pattern, r.Name, r.Answers))
			}
			require.ElementsMatch(t, c.want, got)
		})
	}
}
