package routes_test

import (
	"testing"

	"jantel/core/routes"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func TestWhatIsAskedBeforeARouteAnswers(t *testing.T) {
	for name, c := range map[string]struct {
		tree string
		want map[string][]string
	}{
		"functions before the handler": {`
-- package.json --
{ "dependencies": { "express": "4" } }
-- app.js --
const app = require('express')()
app.get('/open', list)
app.post('/lots', signedIn, can('lots.write'), add)
app.put('/lots', [signedIn, checks.body], (req, res) => { res.end() })
app.delete('/lots', async (req, res) => { gone() })
`, map[string][]string{"/open": {}, "POST /lots": {"signedIn", "can(lots.write)"}, "PUT /lots": {"signedIn", "checks.body"}, "DELETE /lots": {}}},
		"a step that most routes of a file end with answers none of them": {`
-- package.json --
{ "dependencies": { "express": "4" } }
-- app.js --
const app = require('express')()
app.get('/lots', signedIn, list, respond)
app.post('/lots', signedIn, wrap(async (req, res, next) => { next() }), respond)
app.get('/open', respond)
`, map[string][]string{"GET /lots": {"signedIn"}, "POST /lots": {"signedIn"}, "/open": {}}},
		"decorators of the handler": {`
-- app.py --
from flask import Flask
app = Flask(__name__)

@app.route('/open')
def open_():
    pass

@app.route('/lots', methods=['POST'])
@login_required
@cache.cached
def add():
    pass
`, map[string][]string{"/open": {}, "POST /lots": {"login_required"}}},
		"attributes of the handler and its class": {`
-- Lots.cs --
[ApiController]
[Authorize]
[Route("lots")]
public class LotsController : ControllerBase
{
    [HttpGet]
    public IActionResult All() { return Ok(); }

    [HttpPost]
    [RequireRole]
    public IActionResult Add() { return Ok(); }
}
`, map[string][]string{"GET /lots": {"Authorize"}, "POST /lots": {"Authorize", "RequireRole"}}},
		"decorators of a method and its class, in scripts": {`
-- package.json --
{ "dependencies": { "@nestjs/common": "10" } }
-- src/lots.controller.ts --
import { Controller, Get, Post, UseGuards } from '@nestjs/common'

@UseGuards(SignedIn)
@Controller({ path: 'lots', version: '1' })
export class LotsController {
  constructor(private readonly lots: Lots) {}

  @Get()
  @UseGuards(MayRead)
  all(@Query('q') q: string): Lot[] { return this.lots.all(q) }

  @Post(':id/weight')
  async weigh(@Param('id') id: string, @Body() body: Weight) {
    return this.lots.weigh(id, body)
  }

  private noRoute() {}
}
`, map[string][]string{"GET /lots": {"SignedIn", "MayRead"}, "POST /lots/:id/weight": {"SignedIn"}}},
	} {
		t.Run(name, func(t *testing.T) {
			got := map[string][]string{}
			for _, r := range routes.Of(testkit.Survey(t, c.tree)) {
				key := r.Method + " " + r.Pattern
				if r.Pattern == "/open" {
					key = r.Pattern
				}
				got[key] = r.Guards
			}
			require.Equal(t, c.want, got)
		})
	}
}
