package rights_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/journeys"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/rights"
	"jantel/core/routes"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func of(t *testing.T, tree string) *rights.Rights {
	t.Helper()
	s := testkit.Survey(t, tree)
	o := judgement.Judge(s, model.Brief{}, nil)
	return rights.Of(o.Reading, journeys.Of(o.Reading, o.Entries), routes.Of(s), func(string) string { return "." })
}

// told writes actions as lines: what is asked, where, and what is missing.
func told(all *rights.Rights) (out []string) {
	for _, a := range all.Actions {
		line := a.Method + " " + a.Pattern
		for _, c := range a.Checks {
			line += fmt.Sprintf(" %s@%s:%d", c.Right, c.Where, c.Line)
		}
		if a.Hole != "" {
			line += " | " + strings.TrimSpace(a.Hole+" "+a.Lacks)
		}
		out = append(out, line)
	}
	return out
}

const express = "-- package.json --\n{ \"dependencies\": { \"express\": \"4\" } }\n"

func TestWhereRightsAreChecked(t *testing.T) {
	for name, c := range map[string]struct {
		tree string
		want []string
	}{
		"on the router, for all that is declared behind it": {express + `
-- app.js --
const app = require('express')()
app.post('/login', enter)
app.post('/found', keep)
app.use(signedIn)
app.post('/lots', add)
app.delete('/lots/:id', drop)
app.use('/growers', may('growers.write'), require('./growers'))
-- growers.js --
const router = require('express').Router()
router.post('/', add)
module.exports = router
`, []string{
			"POST /found | nothing is asked", "POST /growers signedIn@route:4 may@route:7", "POST /login", "POST /lots signedIn@route:4",
			"DELETE /lots/:id signedIn@route:4",
		}},
		"at the route, and one that is open": {express + `
-- app.js --
const app = require('express')()
const lots = require('./lots')
app.get('/lots', lots.all)
app.post('/lots', signedIn, may('lots.write'), lots.add)
app.put('/lots/:id', signedIn, may('lots.write'), lots.change)
app.delete('/lots/:id', lots.drop)
app.post('/login', lots.enter)
-- lots.js --
exports.all = (req, res) => res.json([])
exports.add = (req, res) => res.json({})
exports.change = (req, res) => res.json({})
exports.drop = (req, res) => res.json({})
exports.enter = (req, res) => res.json({})
`, []string{
			"DELETE /lots/:id | nothing is asked",
			"POST /login",
			"POST /lots signedIn@route:4 lots.write@route:4",
			"PUT /lots/:id signedIn@route:5 lots.write@route:5",
			"GET /lots",
		}},
		"further in, by a function that asks": {express + `
-- app.js --
const app = require('express')()
const { add } = require('./lots')
app.post('/lots', add)
-- lots.js --
const { ensureCurator } = require('./who')
function add(req, res) {
  ensureCurator(req.user)
  res.json({})
}
module.exports = { add }
-- who.js --
function ensureCurator(user) {
  if (user.role !== 'curator') throw new Error('no')
}
module.exports = { ensureCurator }
`, []string{"POST /lots ensureCurator@inside:3"}},
		"further in, by a role that is compared": {express + `
-- app.js --
const app = require('express')()
const { add } = require('./lots')
app.post('/lots', add)
-- lots.js --
function add(req, res) {
  if (req.user.role !== 'curator') return res.status(403).end()
  res.json({})
}
module.exports = { add }
`, []string{"POST /lots curator@inside:2"}},
		"on the screen alone": {express + `
-- server/app.js --
const app = require('express')()
app.post('/lots', (req, res) => res.json({}))
app.put('/lots/:id', signedIn, (req, res) => res.json({}))
-- desk/who.js --
export function hasPermission(name) { return granted.has(name) }
-- desk/LotPage.jsx --
import { addLot } from './api'
import { hasPermission } from './who'
export function LotPage({ user }) {
  if (!hasPermission('lots.write')) return null
  return <button onClick={() => addLot({})}>Add</button>
}
-- desk/api.js --
export const addLot = (lot) => fetch('/lots', { method: 'POST', body: lot })
`, []string{
			"POST /lots lots.write@screen:4 | asked on the screen alone",
			"PUT /lots/:id signedIn@route:3",
		}},
		"less than others of it": {express + `
-- app.js --
const app = require('express')()
app.post('/boxes', signedIn, may('boxes.write'), (req, res) => res.end())
app.put('/boxes/:id', signedIn, may('boxes.write'), (req, res) => res.end())
app.patch('/boxes/:id', signedIn, may('boxes.write'), (req, res) => res.end())
app.delete('/boxes/:id', signedIn, (req, res) => res.end())
`, []string{
			"DELETE /boxes/:id signedIn@route:5 | asks for less than others of it boxes.write",
			"POST /boxes signedIn@route:2 boxes.write@route:2",
			"PATCH /boxes/:id signedIn@route:4 boxes.write@route:4",
			"PUT /boxes/:id signedIn@route:3 boxes.write@route:3",
		}},
		"alone among those that change the same thing, in a service that is mostly open": {express + `
-- app.js --
const app = require('express')()
app.post('/boxes', signedIn, (req, res) => res.end())
app.put('/boxes/:id', signedIn, (req, res) => res.end())
app.delete('/boxes/:id', (req, res) => res.end())
app.post('/lots', (req, res) => res.end())
app.post('/runs', (req, res) => res.end())
app.post('/trials', (req, res) => res.end())
app.post('/api/v2/growers', (req, res) => res.end())
`, []string{
			"DELETE /boxes/:id | nothing is asked",
			"POST /api/v2/growers",
			"POST /boxes signedIn@route:2",
			"PUT /boxes/:id signedIn@route:3",
			"POST /lots", "POST /runs", "POST /trials",
		}},
		"attributes with roles, counted once": {`
-- Lots.cs --
[ApiController]
[Route("lots")]
public class LotsController : ControllerBase
{
    [HttpPost]
    [Authorize(Roles = "curator")]
    public IActionResult Add() { return Ok(); }
}
`, []string{"POST /lots curator@route:5"}},
		"nothing is missed where nobody asks": {express + `
-- app.js --
const app = require('express')()
app.post('/lots', parseBody, (req, res) => res.end())
app.delete('/lots/:id', (req, res) => res.end())
`, []string{"POST /lots", "DELETE /lots/:id"}},
	} {
		t.Run(name, func(t *testing.T) { require.Equal(t, c.want, told(of(t, c.tree))) })
	}
}

func TestNamesThatSpeakOfRights(t *testing.T) {
	for name, want := range map[string]bool{
		"signedIn": true, "can(lots.write)": true, "may(x)": true, "Authorize": true, "login_required": true, "requireAuth": true,
		"RolesAllowed": true, "canEdit": true, "isAdmin": true, "verifyToken": true, "checks.body": false, "csrfProtection": false,
		"cacheFor(60)": false, "validateLot": false, "candle": false, "mayor": false, "authorsOnly": false, "rateLimit": false,
		"logger": false, "AllowAnonymous": false,
	} {
		require.Equal(t, want, rights.Speaks(name), name)
	}
}
