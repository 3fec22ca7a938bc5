package journeys_test

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// services are small ones as they are built in several languages, with their
// ways written down by hand before they were run.
var services = []struct {
	name, tree string
	want       []string
}{
	{"Python: a blueprint over a service and a repository", `
-- pyproject.toml --
[project]
name = "bench"
dependencies = ["flask"]
-- bench/__init__.py --
-- bench/routes.py --
from flask import Blueprint, request
from bench.service import Trials

bp = Blueprint("trials", __name__, url_prefix="/trials")
trials = Trials()

@bp.get("/")
def index():
    return trials.listed()

@bp.post("/")
def create():
    return trials.record(request.json)

@bp.get("/ping")
def ping():
    return "ok"
-- bench/service.py --
from bench.repository import TrialRepository

class Trials:
    def __init__(self):
        self.repository = TrialRepository()

    def listed(self):
        return self.repository.all()

    def record(self, data):
        self.check(data)
        return self.repository.add(data)

    def check(self, data):
        if not data:
            raise ValueError("nothing given")
-- bench/repository.py --
import sqlite3

class TrialRepository:
    def all(self):
        return sqlite3.connect("b").execute("SELECT * FROM trials").fetchall()

    def add(self, data):
        return sqlite3.connect("b").execute("INSERT INTO trials (lot) VALUES (?)", (data["lot"],))
-- schema.sql --
CREATE TABLE trials (lot text);
`, []string{
		"GET /trials: index Trials.listed TrialRepository.all => reads trials",
		"POST /trials: create Trials.record TrialRepository.add => creates trials",
		"GET /trials/ping: ping",
	}},
	{"Java: a controller over an interface with one that implements it", `
-- pom.xml --
<project><artifactId>vault</artifactId><dependencies><dependency><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter-web</artifactId></dependency></dependencies></project>
-- src/main/java/vault/LotController.java --
package vault;

import org.springframework.web.bind.annotation.*;

@RestController
@RequestMapping("/lots")
public class LotController {
    private final LotService lots;

    public LotController(LotService lots) { this.lots = lots; }

    @PostMapping
    public Lot add(@RequestBody Lot lot) {
        return lots.keep(lot);
    }

    @GetMapping("/{id}")
    public Lot one(@PathVariable long id) {
        return lots.find(id);
    }
}
-- src/main/java/vault/LotService.java --
package vault;

public interface LotService {
    Lot keep(Lot lot);
    Lot find(long id);
}
-- src/main/java/vault/StoredLots.java --
package vault;

import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;

@Service
public class StoredLots implements LotService {
    private final JdbcTemplate db;

    public StoredLots(JdbcTemplate db) { this.db = db; }

    public Lot keep(Lot lot) {
        db.update("INSERT INTO lots (name) VALUES (?)", lot.name());
        return lot;
    }

    public Lot find(long id) {
        return db.queryForObject("SELECT * FROM lots WHERE id = ?", Lot.class, id);
    }
}
-- src/main/java/vault/Lot.java --
package vault;

public record Lot(String name) {}
-- schema.sql --
CREATE TABLE lots (name text);
`, []string{
		"POST /lots: LotController.add ~StoredLots.keep => creates lots",
		"GET /lots/{id}: LotController.one ~StoredLots.find => reads lots",
	}},
	{"C#: a controller, a service with one step between, and a context", `
-- Vault.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web"></Project>
-- Controllers/LotsController.cs --
using Microsoft.AspNetCore.Mvc;
using Vault.Services;
namespace Vault.Controllers;

[ApiController]
[Route("lots")]
public class LotsController : ControllerBase
{
    private readonly LotService _lots;
    public LotsController(LotService lots) { _lots = lots; }

    [HttpPost]
    public IActionResult Add(string name)
    {
        _lots.Keep(name);
        return Ok();
    }
}
-- Services/LotService.cs --
using Vault.Data;
namespace Vault.Services;

public class LotService
{
    private readonly LotRepository _store;
    public LotService(LotRepository store) { _store = store; }
    public void Keep(string name) => Checked(name);
    private void Checked(string name) { _store.Insert(name); }
}
-- Data/LotRepository.cs --
namespace Vault.Data;

public class LotRepository
{
    private readonly IDbConnection _db;
    public void Insert(string name)
    {
        _db.Execute("INSERT INTO lots (name) VALUES (@name)", new { name });
    }
}
-- schema.sql --
CREATE TABLE lots (name text);
`, []string{
		"POST /lots: LotsController.Add LotService.Keep LotService.Checked LotRepository.Insert => creates lots",
	}},
	{"PHP: routes by class and method, one that asks another system", `
-- composer.json --
{ "name": "vault/archive", "require": { "laravel/framework": "11" }, "autoload": { "psr-4": { "App\\": "app/" } } }
-- routes/web.php --
<?php
use App\Http\Controllers\LotController;

Route::post('/lots', [LotController::class, 'store']);
Route::get('/lots/{id}', [LotController::class, 'show']);
-- app/Http/Controllers/LotController.php --
<?php
namespace App\Http\Controllers;

use App\Services\Lots;

class LotController
{
    public function __construct(private Lots $lots) {}

    public function store($request)
    {
        return $this->lots->keep($request->name);
    }

    public function show($id)
    {
        return $this->lots->find($id);
    }
}
-- app/Services/Lots.php --
<?php
namespace App\Services;

use Illuminate\Support\Facades\DB;

class Lots
{
    public function keep($name)
    {
        DB::insert('INSERT INTO lots (name) VALUES (?)', [$name]);
    }

    public function find($id)
    {
        return DB::select('SELECT * FROM lots WHERE id = ?', [$id]);
    }
}
-- schema.sql --
CREATE TABLE lots (name text);
`, []string{
		"POST /lots: LotController.store Lots.keep => creates lots",
		"GET /lots/{id}: LotController.show Lots.find => reads lots",
	}},
	{"TypeScript: a message goes on where it is received", `
-- package.json --
{ "name": "desk", "dependencies": { "amqplib": "1" } }
-- src/labels.ts --
import { bus } from './bus'
import { clear, print } from './printer'
bus.subscribe('lot.kept', (lot) => {
  print(lot)
})
bus.subscribe('lot.gone', () => {
  clear()
})
-- src/lots.ts --
import { bus } from './bus'
export function keep(lot: string) {
  bus.publish('lot.kept', lot)
  bus.publish('lot.gone', lot)
}
-- src/printer.ts --
export function print(lot: string) {
  return fetch('https://printer.example/labels', { method: 'POST', body: lot })
}
export function clear() {}
-- src/bus.ts --
export const bus = make()
function make(): any { return null }
`, []string{
		"message lot.gone:  clear",
		"message lot.kept:  print => asks printer.example (printer.ts:2)",
	}},
}

func TestServicesInSeveralLanguagesAreFollowed(t *testing.T) {
	for _, c := range services {
		t.Run(c.name, func(t *testing.T) { require.ElementsMatch(t, c.want, told(t, c.tree)) })
	}
}
