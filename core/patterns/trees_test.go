package patterns_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// shown is a tree that shows a pattern, or looks as if it did.
type shown struct {
	what string
	tree string
}

// each repeats files for features: "$" stands for the feature, "%" for it with
// a capital first.
func each(files string, features ...string) string {
	var b strings.Builder
	for _, f := range features {
		b.WriteString(strings.NewReplacer("$", f, "%", strings.ToUpper(f[:1])+f[1:]).Replace(files))
	}
	return b.String()
}

const (
	layerFiles = `
-- src/routes/$.ts --
import { list } from '../handlers/$'
router.get('/$', list)
-- src/handlers/$.ts --
import { all } from '../services/$'
export const list = (req, res) => res.json(all())
-- src/services/$.ts --
import { rows } from '../repositories/$'
export const all = () => rows()
-- src/repositories/$.ts --
export const rows = () => pool.query('SELECT id FROM $ WHERE 1 = 1')
`
	featureFiles = `
-- src/$/routes.ts --
import { all } from './service'
router.get('/$', all)
-- src/$/service.ts --
import { rows } from './repository'
export const all = () => rows()
-- src/$/repository.ts --
export const rows = () => pool.query('SELECT id FROM $ WHERE 1 = 1')
-- src/$/model.ts --
export interface % { id: string }
`
	component = `
-- src/components/%Card.tsx --
export function %Card({ row }) { return <b>{row.id}</b> }
-- src/pages/%Page.tsx --
import { %Card } from '../components/%Card'
export function %Page() { return <main><%Card row={{ id: 1 }} /></main> }
`
)

// trees are, for each pattern, trees that show it and trees that look like it
// and are something else.
var trees = map[string]struct{ shows, looks []shown }{
	"layered": {
		shows: []shown{
			{"routes, handlers, services and repositories", each(layerFiles, "lots", "boxes", "growers")},
			{"in Python", each(`
-- vault/routes/$.py --
from vault.services import $
@app.get("/$")
def listed():
    return $.listed()
-- vault/services/$.py --
from vault.repositories import $ as rows
def listed():
    return rows.all()
-- vault/repositories/$.py --
def all():
    return cursor.execute("SELECT id FROM $ WHERE kept = 1")
`, "lots", "boxes", "growers")},
			{"in Java", each(`
-- src/main/java/vault/controllers/%Controller.java --
package vault.controllers;
import vault.services.%Service;
@RestController
public class %Controller {
    private final %Service service;
    public %Controller(%Service service) { this.service = service; }
    @GetMapping("/$")
    public Object all() { return service.all(); }
}
-- src/main/java/vault/services/%Service.java --
package vault.services;
import vault.repositories.%Repository;
@Service
public class %Service {
    private final %Repository rows;
    public %Service(%Repository rows) { this.rows = rows; }
    public Object all() { return rows.all(); }
}
-- src/main/java/vault/repositories/%Repository.java --
package vault.repositories;
@Repository
public class %Repository {
    public Object all() { return jdbc.query("SELECT id FROM $ WHERE kept = 1"); }
}
`, "lot", "box", "grower")},
		},
		looks: []shown{
			{"folders of such names whose dependencies point every way", each(`
-- src/routes/$.ts --
export const path = '/$'
-- src/services/$.ts --
import { path } from '../routes/$'
export const all = () => path
-- src/repositories/$.ts --
import { all } from '../services/$'
export const rows = () => pool.query('SELECT id FROM $ WHERE 1 = 1', all())
`, "lots", "boxes", "growers")},
			{"the same roles, cut by feature", each(featureFiles, "lots", "boxes", "growers")},
		},
	},
	"model-view-controller": {
		shows: []shown{
			{"views that are templates", each(`
-- app/models/$.rb --
class % < ApplicationRecord
end
-- app/controllers/$_controller.rb --
class %Controller < ApplicationController
  def show
    @x = %.find(1)
  end
end
-- app/views/$/show.html.erb --
<p><%= @x %></p>
`, "lot", "box", "grower")},
			{"Ruby with templates", each(`
-- app/controllers/%s_controller.rb --
class %sController < ApplicationController
  def index
    @rows = %.where(kept: true)
  end
end
-- app/models/$.rb --
class % < ApplicationRecord
end
-- app/views/$s/index.html.erb --
<h1>%</h1>
`, "lot", "grower", "shelf")},
			{"models, views that answer and templates", each(`
-- $s/models.py --
from django.db import models
class %(models.Model):
    pass
-- $s/views.py --
from django.shortcuts import render
from .models import %
def index(request):
    return render(request, '$.html', {'rows': %.objects.all()})
-- $s/templates/$.html --
<h1>%</h1>
`, "lot", "grower", "box")},
			{"PHP", each(`
-- src/Controllers/%Controller.php --
<?php
namespace Vault\Controllers;
use Vault\Models\%;
class %Controller { public function index() { return view('$.index', ['rows' => %::all()]); } }
-- src/Models/%.php --
<?php
namespace Vault\Models;
class % extends Model { protected $fillable = ['name']; }
-- src/views/$/index.blade.php --
<h1>%</h1>
`, "lot", "grower", "box")},
			{"C#", each(`
-- Controllers/%Controller.cs --
using Vault.Models;
namespace Vault.Controllers;
public class %Controller : Controller { public IActionResult Index() { return View(new %()); } }
-- Models/%.cs --
namespace Vault.Models;
public class % { public int Id { get; set; } }
-- Views/%/Index.cshtml --
@model Vault.Models.%
<h1>%</h1>
`, "Lot", "Grower", "Box")},
		},
		looks: []shown{
			{"a program whose examples are built so", each("-- kiln/$.rb --\nclass %\n  def run\n    1\n  end\nend\n", "dry", "heat", "cool", "turn", "vent", "weigh", "fill", "mark", "seal") +
				each("-- samples/app/models/$.rb --\nclass % < ApplicationRecord\nend\n-- samples/app/controllers/$_controller.rb --\nclass %Controller < ApplicationController\n  def show\n    @x = %.find(1)\n  end\nend\n-- samples/app/views/$/show.html.erb --\n<p><%= @x %></p>\n", "lot", "box", "grower")},
			{"components and pages with a folder of types", each(component, "lot", "box", "grower") + "-- src/models/all.ts --\nexport interface Lot { id: string }\n"},
			{"layers whose handlers are called controllers", each(strings.NewReplacer("handlers", "controllers").Replace(layerFiles), "lots", "boxes", "growers")},
		},
	},
	"model-view-viewmodel": {
		shows: []shown{
			{"XAML", each(`
-- Views/%View.xaml --
<UserControl xmlns="x"></UserControl>
-- ViewModels/%ViewModel.cs --
namespace Vault.ViewModels;
using Vault.Models;
public class %ViewModel { public % Row { get; set; } }
-- Models/%.cs --
namespace Vault.Models;
public class % { public int Id { get; set; } }
`, "Lot", "Grower", "Box")},
			{"Kotlin", each(`
-- app/ui/%Screen.kt --
package vault.ui
import vault.ui.%ViewModel
@Composable
fun %Screen(model: %ViewModel) { Text(model.name) }
-- app/ui/%ViewModel.kt --
package vault.ui
import vault.data.%
class %ViewModel(val row: %) : ViewModel() { val name = row.name }
-- app/data/%.kt --
package vault.data
data class %(val name: String)
`, "Lot", "Grower", "Box")},
			{"TypeScript", each(`
-- src/%View.tsx --
import { %ViewModel } from './%ViewModel'
export function %View({ model }: { model: %ViewModel }) { return <b>{model.name}</b> }
-- src/%ViewModel.ts --
import type { % } from './%'
export class %ViewModel { constructor(private row: %) {} get name() { return this.row.name } }
-- src/%.ts --
export interface % { name: string }
`, "Lot", "Grower", "Box")},
		},
		looks: []shown{
			{"one file of that name among many", each(component, "lot", "box", "grower") + "-- src/printViewModel.ts --\nexport const width = 3\n"},
			{"view models without any view", each("-- api/%ViewModel.cs --\nnamespace Vault.Api;\npublic class %ViewModel { public int Id { get; set; } }\n-- api/%Controller.cs --\nnamespace Vault.Api;\npublic class %Controller : ControllerBase { [HttpGet(\"/$\")] public %ViewModel Get() { return new %ViewModel(); } }\n", "Lot", "Box", "Grower")},
		},
	},
	"rings": {
		shows: []shown{
			{"a core with ports and adapters in Go", `
-- go.mod --
module press
-- core/label/label.go --
package label
type Label struct{ Code string }
-- core/queue/queue.go --
package queue
import ("press/core/label"; "press/ports")
func Step(p ports.Printer) { p.Print(label.Label{}) }
-- ports/ports.go --
package ports
import "press/core/label"
type Printer interface{ Print(label.Label) }
-- adapters/spool/spool.go --
package spool
import "press/core/label"
func Print(l label.Label) { println(l.Code) }
-- adapters/web/web.go --
package web
import "press/core/queue"
func Serve() { queue.Step(nil) }
-- cmd/press/main.go --
package main
import "press/adapters/web"
func main() { web.Serve() }
`},
			{"a core that all others need, whatever they are called", "-- core/weigh/weigh.ts --\nexport const grams = (x) => x\n" + each(`
-- core/$/$.ts --
import { grams } from '../weigh/weigh'
export const dry% = (x) => grams(x)
`, "lot", "box", "grower") + each(`
-- $/$.ts --
import { dryLot } from '../core/lot/lot'
export const run = () => dryLot(1)
`, "store", "report", "desk")},
			{"a domain with application and infrastructure", each(`
-- src/domain/$.ts --
export class % { dry() { return true } }
-- src/application/$.ts --
import { % } from '../domain/$'
export const run = () => new %().dry()
-- src/infrastructure/$.ts --
import { % } from '../domain/$'
import { run } from '../application/$'
export const keep = (x: %) => pool.query('SELECT id FROM $ WHERE 1 = 1', run())
`, "lot", "box", "grower")},
			{"in Python", each(`
-- vault/domain/$.py --
class %:
    pass
-- vault/adapters/$.py --
from vault.domain.$ import %
def keep(x: %):
    return cursor.execute("INSERT INTO $ VALUES (1)")
-- vault/ports/$.py --
from vault.domain.$ import %
class Store:
    def put(self, x: %): ...
`, "lot", "box")},
		},
		looks: []shown{
			{"a core that needs what surrounds it", each(`
-- src/core/$.ts --
import { keep } from '../infrastructure/$'
import { show } from '../adapters/$'
export const run = () => keep(show())
-- src/infrastructure/$.ts --
export const keep = (x) => x
-- src/adapters/$.ts --
import { keep } from '../infrastructure/$'
export const show = () => keep(1)
`, "lot", "box", "grower")},
			{"folders of such names that lie nowhere near each other", each(layerFiles, "lots", "boxes", "growers") + "-- src/routes/core/left.ts --\nexport const left = 1\n-- src/services/adapters/right.ts --\nimport '../../routes/core/left'\n"},
			{"a core with all the code in it", each(`
-- core/$.ts --
export const all = () => pool.query('SELECT id FROM $ WHERE 1 = 1')
`, "lots", "boxes", "growers", "shelves", "seals", "labels", "racks", "trays", "desks", "orders", "samples", "tests") + each("-- $/run.ts --\nimport { all } from '../core/lots'\nall()\n", "desk", "store", "report")},
			{"a folder called core that nothing uses", each(layerFiles, "lots", "boxes", "growers") + "-- src/core/left.ts --\nexport const left = 1\n"},
		},
	},
	"by feature": {
		shows: []shown{
			{"TypeScript", each(featureFiles, "lots", "boxes", "growers")},
			{"Python", each(`
-- bench/$/routes.py --
from .service import listed
@app.get("/$")
def index():
    return listed()
-- bench/$/service.py --
from .repository import rows
def listed():
    return rows()
-- bench/$/repository.py --
def rows():
    return cursor.execute("SELECT id FROM $ WHERE 1 = 1")
-- bench/$/models.py --
class %:
    pass
`, "drying", "germination", "viability")},
			{"Go", "-- go.mod --\nmodule vault\n-- main.go --\npackage main\nimport \"vault/drying\"\nfunc main() { drying.Handle(nil, nil) }\n" + each(`
-- $/handler.go --
package $
import "net/http"
func Handle(w http.ResponseWriter, r *http.Request) { logicOf() }
-- $/service.go --
package $
func logicOf() { rows() }
-- $/repository.go --
package $
func rows() { db.Query("SELECT id FROM $ WHERE 1 = 1") }
-- $/model.go --
package $
type Row struct{ ID string }
`, "drying", "germination", "viability")},
		},
		looks: []shown{
			{"the same parts in folders of their kinds", each(layerFiles, "lots", "boxes", "growers")},
			{"folders named for features with one kind in each", each("-- src/$/view.tsx --\nexport function %View() { return <b>$</b> }\n-- src/$/more.tsx --\nimport { %View } from './view'\nexport function %More() { return <%View /> }\n", "lots", "boxes", "growers")},
		},
	},
	"by kind": {
		shows: []shown{
			{"hooks, stores and utilities", each("-- src/hooks/use%.ts --\nimport { useState } from 'react'\nexport function use%() { return useState(0) }\n-- src/types/$.ts --\nexport interface % { id: string }\n-- src/utils/$.ts --\nexport const format% = (x) => String(x)\n", "lots", "boxes", "growers", "labels")},
			{"models and schemas", each("-- src/models/$.ts --\nexport interface % { id: string }\n-- src/schemas/$.ts --\nexport const $Schema = z.object({ id: z.string() })\n-- src/helpers/$.ts --\nexport const at = 1\n", "lots", "boxes", "growers")},
			{"helpers and configuration", each("-- lib/helpers/$.rb --\nmodule %Helper\n  def self.show\n    1\n  end\nend\n-- lib/types/$.rb --\nclass %\nend\n", "lot", "box", "grower", "label")},
		},
		looks: []shown{
			{"layers that keep their direction", each(layerFiles, "lots", "boxes", "growers")},
			{"features with their kinds inside", each(featureFiles, "lots", "boxes", "growers")},
		},
	},
	"core-feature-shared": {
		shows: []shown{
			{"TypeScript", each("-- src/features/$/index.ts --\nimport { open } from '../../core/db'\nimport { format } from '../../shared/format'\nexport const $ = () => format(open())\n", "drying", "growers", "labels") + "-- src/core/db.ts --\nexport const open = () => 1\n-- src/shared/format.ts --\nexport const format = (x) => x\n"},
			{"Kotlin", each("-- app/feature/$/%.kt --\npackage vault.feature.$\nimport vault.core.Store\nimport vault.common.Words\nclass %(val s: Store, val w: Words)\n", "drying", "growers") + "-- app/core/Store.kt --\npackage vault.core\nclass Store\n-- app/common/Words.kt --\npackage vault.common\nclass Words\n"},
			{"Python", each("-- vault/modules/$/__init__.py --\nfrom vault.core import store\nfrom vault.shared import words\nx = store.open(words.say())\n", "drying", "growers", "labels") + "-- vault/core/store.py --\ndef open(x):\n    return x\n-- vault/core/__init__.py --\n-- vault/shared/words.py --\ndef say():\n    return 1\n-- vault/shared/__init__.py --\n-- vault/__init__.py --\n"},
		},
		looks: []shown{
			{"features that need each other", "-- src/features/a/index.ts --\nimport '../b'\nimport '../c'\nimport '../../core/x'\n-- src/features/b/index.ts --\nimport '../a'\nimport '../c'\n-- src/features/c/index.ts --\nimport '../a'\nimport '../b'\n-- src/core/x.ts --\nimport '../features/a'\n-- src/shared/y.ts --\nimport '../features/b'\n"},
			{"a shared folder and no core", each("-- src/features/$/index.ts --\nimport { format } from '../../shared/format'\nexport const $ = format(1)\n", "drying", "growers") + "-- src/shared/format.ts --\nexport const format = (x) => x\n"},
		},
	},
	"apps and libs": {
		shows: []shown{
			{"apps and packages", each("-- apps/$/package.json --\n{ \"name\": \"$\" }\n-- apps/$/main.ts --\nimport { say } from '@vault/words'\nsay('$')\n", "desk", "counter") + each("-- packages/$/package.json --\n{ \"name\": \"@vault/$\", \"main\": \"index.ts\" }\n-- packages/$/index.ts --\nexport const say = (x) => x\n", "words", "types")},
			{"apps and libs", each("-- apps/$/package.json --\n{ \"name\": \"$\" }\n-- apps/$/main.ts --\nexport const $ = 1\n", "desk", "counter", "press") + each("-- libs/$/package.json --\n{ \"name\": \"$\" }\n-- libs/$/index.ts --\nexport const $ = 1\n", "words", "units")},
			{"services and packages in Python", each("-- services/$/pyproject.toml --\n[project]\nname = \"$\"\n-- services/$/$.py --\nimport words\n", "desk", "bench", "press") + each("-- packages/$/pyproject.toml --\n[project]\nname = \"$\"\n-- packages/$/$.py --\nx = 1\n", "words", "units")},
		},
		looks: []shown{
			{"one project with such folders", each(component, "lot", "box", "grower") + "-- package.json --\n{ \"name\": \"desk\" }\n-- src/libs/one.ts --\nexport const one = 1\n"},
			{"several projects side by side, of one sort", each("-- $/package.json --\n{ \"name\": \"$\", \"main\": \"index.js\" }\n-- $/index.js --\nexport const $ = 1\n", "words", "units", "dates", "codes")},
		},
	},
	"components and pages": {
		shows: []shown{
			{"pages", each(component, "lot", "box", "grower")},
			{"screens", each(strings.NewReplacer("pages", "screens", "Page", "Screen").Replace(component), "lot", "box", "grower")},
			{"single-file components", each("-- src/components/%Card.vue --\n<template><b>$</b></template>\n<script setup>\ndefineProps(['row'])\n</script>\n-- src/views/%View.vue --\n<template><%Card /></template>\n<script setup>\nimport %Card from '../components/%Card.vue'\n</script>\n", "lot", "box", "grower")},
		},
		looks: []shown{
			{"a service with one page", each(layerFiles, "lots", "boxes", "growers") + "-- src/pages/Home.tsx --\nexport function Home() { return <b>vault</b> }\n"},
			{"components without pages", each("-- src/parts/%Tag.tsx --\nexport function %Tag() { return <b>$</b> }\n", "lot", "box", "grower")},
		},
	},
	"ui-logic-data": {
		shows: []shown{
			{"C#", each(`
-- Vault/UI/%Form.cs --
namespace Vault.UI;
using Vault.Logic;
public class %Form { %Rules rules = new %Rules(); }
-- Vault/Logic/%Rules.cs --
namespace Vault.Logic;
using Vault.Data;
public class %Rules { %Table table = new %Table(); }
-- Vault/Data/%Table.cs --
namespace Vault.Data;
public class %Table { public int Count => 1; }
`, "Lot", "Box")},
			{"Kotlin", each(`
-- app/ui/%Screen.kt --
package vault.ui
import vault.domain.%Rules
class %Screen(val rules: %Rules)
-- app/domain/%Rules.kt --
package vault.domain
import vault.data.%Store
class %Rules(val store: %Store)
-- app/data/%Store.kt --
package vault.data
class %Store
`, "Lot", "Box", "Grower")},
			{"Python", each("-- vault/ui/$.py --\nfrom vault.logic import $\nx = $.run()\n-- vault/logic/$.py --\nfrom vault.data import $ as rows\ndef run():\n    return rows.all()\n-- vault/data/$.py --\ndef all():\n    return []\n", "lots", "boxes") + "-- vault/__init__.py --\n-- vault/ui/__init__.py --\n-- vault/logic/__init__.py --\n-- vault/data/__init__.py --\n"},
		},
		looks: []shown{
			{"an interface that reaches for the data", each("-- src/ui/$.ts --\nimport { rows } from '../data/$'\nexport const show = rows\n-- src/logic/$.ts --\nimport { show } from '../ui/$'\nexport const run = show\n-- src/data/$.ts --\nimport { run } from '../logic/$'\nexport const rows = run\n", "lots", "boxes")},
			{"no logic between", each("-- src/ui/$.ts --\nimport { rows } from '../data/$'\nexport const show = rows\n-- src/data/$.ts --\nexport const rows = 1\n", "lots", "boxes")},
		},
	},
	"message loops": {
		shows: []shown{
			{"reducers and actions", each("-- src/$/reducer.ts --\nimport type { %Action } from './actions'\nexport function $Reducer(state: number, action: %Action) { return state + action.by }\n-- src/$/actions.ts --\nexport type %Action = { by: number }\n-- src/$/%Page.tsx --\nimport { $Reducer } from './reducer'\nexport function %Page() { const [n, send] = useReducer($Reducer, 0); return <b onClick={() => send({ by: 1 })}>{n}</b> }\n", "lots", "boxes")},
			{"update and view in Go", "-- go.mod --\nmodule desk\n-- main.go --\npackage main\nimport \"desk/lots\"\nfunc main() { lots.Run() }\n" + each("-- $/$.go --\npackage $\ntype Msg struct{ Key string }\ntype Model struct{ N int }\nfunc update(m Model, msg Msg) Model { return m }\nfunc view(m Model) string { return \"\" }\n", "lots", "boxes")},
			{"update and view in Rust", "-- Cargo.toml --\n[package]\nname = \"desk\"\n-- src/main.rs --\nmod lots;\nmod boxes;\nfn main() {}\n" + each("-- src/$.rs --\npub enum Msg { Dry, Store }\npub struct Model { n: i32 }\npub fn update(model: Model, msg: Msg) -> Model { model }\npub fn view(model: &Model) -> String { String::new() }\n", "lots", "boxes")},
		},
		looks: []shown{
			{"functions called update that store rows", each("-- src/$.ts --\nexport function update(id: string, row: object) { return pool.query('UPDATE $ SET x = 1') }\n", "lots", "boxes", "growers")},
			{"types of messages without a loop", each("-- src/mail/$.ts --\nexport interface %Message { to: string }\nexport const send = (m: %Message) => m\n", "lots", "boxes", "growers")},
		},
	},
	"publish-subscribe": {
		shows: []shown{
			{"topics", each("-- src/$/send.ts --\nexport const done = (x) => bus.publish('$.dried', x)\n-- src/print/$.ts --\nbus.subscribe('$.dried', (x) => x)\n", "lot", "box", "grower")},
			{"queues in Python", each("-- vault/$.py --\ndef done(x):\n    channel.basic_publish(exchange='', routing_key='$.dried', body=x)\n-- printer/$.py --\ndef listen():\n    channel.basic_consume(queue='$.dried', on_message_callback=show)\n", "lot", "box", "grower")},
			{"emitters", each("-- src/$.js --\nexports.done = (x) => events.emit('$:dried', x)\n-- src/watch_$.js --\nevents.on('$:dried', (x) => x)\n", "lot", "box", "grower")},
		},
		looks: []shown{
			{"events of a thing at hand", each("-- src/$.ts --\nexport class % { done() { this.emit('$.dried', 1) } }\n-- src/room_$.ts --\nimport { % } from './$'\nnew %().on('$.dried', (x) => x)\n", "lot", "box", "grower")},
			{"what parts of an interface tell who placed them", each("-- desk/$.py --\nimport gi\nfrom gi.repository import Gtk\nclass %(Gtk.Box):\n    def done(self):\n        self.emit('$-dried', 1)\n-- desk/room_$.py --\ndef hear(part):\n    part.connect('$-dried', show)\n", "lot", "box", "grower")},
			{"messages that nobody receives", each("-- src/$.ts --\nexport const done = (x) => bus.publish('$.dried', x)\n", "lot", "box", "grower")},
			{"a single message in a layered service", each(layerFiles, "lots", "boxes", "growers") + "-- src/services/late.ts --\nexport const done = () => bus.publish('lot.dried', 1)\n-- src/handlers/late.ts --\nbus.subscribe('lot.dried', () => 1)\n"},
		},
	},
	"pipeline": {
		shows: []shown{
			{"steps in a row", "-- src/main.ts --\nimport { read } from './steps/read'\nimport { clean } from './steps/clean'\nimport { merge } from './steps/merge'\nimport { write } from './steps/write'\nwrite(merge(clean(read())))\n" + each("-- src/steps/$.ts --\nexport const $ = (x) => x\n", "read", "clean", "merge", "write")},
			{"numbered stages in Python", "-- run.py --\nfrom pipeline.extract_cards import run as a\nfrom pipeline.transform_cards import run as b\nfrom pipeline.load_cards import run as c\nc(b(a()))\n-- pipeline/__init__.py --\n" + each("-- pipeline/$_cards.py --\ndef run(x=None):\n    return x\n", "extract", "transform", "load")},
			{"passes in Go", "-- go.mod --\nmodule cards\n-- cmd/cards/main.go --\npackage main\nimport (\"cards/passes/parse\"; \"cards/passes/validate\"; \"cards/passes/sort\"; \"cards/passes/write\")\nfunc main() { write.Run(sort.Run(validate.Run(parse.Run(nil)))) }\n" + each("-- passes/$/$.go --\npackage $\nfunc Run(x []string) []string { return x }\n", "parse", "validate", "sort", "write") + "-- passes/all.go --\npackage passes\n"},
		},
		looks: []shown{
			{"steps that call each other", "-- src/main.ts --\nimport { read } from './steps/read'\nread()\n-- src/steps/read.ts --\nimport { clean } from './clean'\nexport const read = () => clean()\n-- src/steps/clean.ts --\nimport { merge } from './merge'\nexport const clean = () => merge()\n-- src/steps/merge.ts --\nimport { write } from './write'\nexport const merge = () => write()\n-- src/steps/write.ts --\nexport const write = () => 1\n"},
			{"an index that hands utilities out", "-- src/index.ts --\nexport { a } from './helpers/a'\nexport { b } from './helpers/b'\nexport { c } from './helpers/c'\n" + each("-- src/helpers/$.ts --\nexport const $ = 1\n", "a", "b", "c")},
		},
	},
	"plug-ins": {
		shows: []shown{
			{"a base among them, which each needs", "-- moor/__init__.py --\n-- moor/desk.py --\nimport importlib\n\ndef tell(name):\n    return importlib.import_module('moor.plugins.' + name)\n-- moor/plugins/__init__.py --\n" +
				"-- moor/plugins/base.py --\nfrom moor import desk\n\nclass Teller:\n    def tell(self):\n        return desk\n" +
				each("-- moor/plugins/$.py --\nfrom moor.plugins.base import Teller\n\nclass %Teller(Teller):\n    def tell(self):\n        return 1\n", "mail", "bell", "lamp", "sheet", "radio")},
			{"modules that define the same, loaded by their names", "-- moor/__init__.py --\n-- moor/desk.py --\nimport importlib\n\ndef read(name, text):\n    return importlib.import_module('moor.readers.' + name).parse(text)\n-- moor/words.py --\ndef split(text):\n    return text.split()\n-- moor/readers/__init__.py --\n" +
				each("-- moor/readers/$.py --\nfrom moor.words import split\n\ndef parse(text):\n    return split(text)\n", "barley", "clover", "dock", "elder", "fennel", "gorse", "hazel", "ivy", "juniper", "kale", "larch", "mallow")},
			{"heirs by way of each other", "-- moor/__init__.py --\n-- moor/desk.py --\ndef walk(all):\n    return [one.tell() for one in all]\n-- moor/gather/__init__.py --\n-- moor/gather/common.py --\nfrom moor import desk\n\nclass Gatherer:\n    def tell(self):\n        return desk\n" +
				each("-- moor/gather/$.py --\nfrom .common import Gatherer\n\nclass %Gatherer(Gatherer):\n    pass\n", "barley", "clover", "dock") +
				each("-- moor/gather/$.py --\nfrom .barley import BarleyGatherer\n\nclass %Gatherer(BarleyGatherer):\n    pass\n", "elder", "fennel", "gorse", "hazel", "ivy")},
			{"found at run time", "-- src/host.ts --\nexport interface Plugin { name: string }\nexport const load = (n: string) => import(`./plugins/${n}`)\n" + each("-- src/plugins/$.ts --\nimport type { Plugin } from '../host'\nexport const $: Plugin = { name: '$' }\n", "ink", "paper", "cutter", "folder")},
			{"registered in one place", "-- src/host.ts --\nexport const plugins = []\nexport const register = (p) => plugins.push(p)\n-- src/all.ts --\n" + each("import './drivers/$'\n", "ink", "paper", "cutter") + each("-- src/drivers/$.ts --\nimport { register } from '../host'\nregister('$')\n", "ink", "paper", "cutter")},
			{"families that are built alike and loaded by name", "-- lib/Press/Role/Ink.pm --\npackage Press::Role::Ink;\nsub pour { }\n1;\n-- lib/Press/Role/Sheet.pm --\npackage Press::Role::Sheet;\nsub cut { }\n1;\n-- lib/Press/Run.pm --\npackage Press::Run;\nsub run { my $c = load($_[0]); $c->pour }\n1;\n" +
				each("-- lib/Press/Ink/%.pm --\npackage Press::Ink::%;\nuse Moo;\nwith 'Press::Role::Ink';\nsub pour { }\n1;\n", "black", "red", "blue") + each("-- lib/Press/Sheet/%.pm --\npackage Press::Sheet::%;\nuse Moo;\nwith 'Press::Role::Sheet';\nsub cut { }\n1;\n", "rag", "pulp", "linen")},
			{"parts of which a program can hold one at a time", "-- kern/main.c --\nint main(void) { return load(\"ink\"); }\n" +
				each("-- store/$/store_$.c --\nint keep_init(void) { return 1; }\nint keep_get(int n) { return n; }\n", "ink", "paper", "fold", "cut")},
			{"files that hand themselves over, whatever their folder is called", "-- kern/command.c --\nint press_register_command(const char *name, int (*run)(void)) { return 1; }\n-- kern/main.c --\nint main(void) { return 0; }\n" +
				each("-- commands/$.c --\n#include \"press.h\"\nstatic int run_$(void) { return 1; }\nvoid init_$(void) { press_register_command(\"$\", run_$); }\n", "fold", "cut", "glue", "print", "scan") + "-- press.h --\nint press_register_command(const char *name, int (*run)(void));\n"},
			{"a folder whose name ends so", "-- press/__init__.py --\n-- press/host.py --\ndef load(names):\n    return names\n-- press/builtin_plugins/__init__.py --\n" + each("-- press/builtin_plugins/$.py --\nfrom press import host\ndef $():\n    return host.load('$')\n", "sheet", "strip", "roll")},
			{"many heirs beside their base, none of them named", "-- press/run.py --\nfrom press.servers import all_of\nall_of()\n-- press/servers/__init__.py --\ndef all_of():\n    return load()\n-- press/servers/generic.py --\nclass Generic:\n    pass\n" +
				each("-- press/servers/$.py --\nfrom press.servers.generic import Generic\nclass %(Generic):\n    pass\n", "ink", "paper", "cutter", "fold", "glue", "print")},
			{"a folder each, built upon the same and named by nobody", "-- press/run.py --\nfrom press.base import Module\n-- press/base.py --\nclass Module:\n    pass\n" +
				each("-- press/modules/$/__init__.py --\nfrom .$ import %\n-- press/modules/$/$.py --\nfrom press.base import Module\nclass %(Module):\n    pass\n", "ink", "paper", "cutter", "fold", "glue", "print")},
			{"made from each other, all of them named by nobody", "-- press/__init__.py --\n-- press/base.py --\nclass Plug:\n    pass\n-- press/plugins/__init__.py --\n" +
				"-- press/plugins/plain.py --\nfrom press.base import Plug\nclass Plain(Plug):\n    pass\n" +
				each("-- press/plugins/$.py --\nfrom press.plugins.plain import Plain\nclass %(Plain):\n    pass\n", "ink", "paper", "cutter", "fold", "glue")},
			{"wherever they lie, where nobody names one", "-- press/run.py --\nfrom press.base import Step\nStep.all()\n-- press/__init__.py --\n-- press/base.py --\nclass Step:\n    pass\n-- press/words.py --\ndef split():\n    return 1\n" +
				each("-- press/$/__init__.py --\n-- press/$/step.py --\nfrom press.base import Step\nclass %(Step):\n    pass\n-- press/$/help.py --\nx = 1\n", "ink", "paper", "cutter", "fold", "glue", "print", "bind", "sew", "trim")},
			{"types of C that macros make upon one of the codebase", "-- press/step.h --\ntypedef struct _PressStep PressStep;\nint press_step_run(PressStep *s);\n-- press/step.c --\n#include \"step.h\"\nint press_step_run(PressStep *s) { return 1; }\n-- press/main.c --\n#include \"step.h\"\nint main(void) { return press_step_run(0); }\n" +
				each("-- press/step$.c --\n#include \"step.h\"\n\nG_DEFINE_TYPE (PressStep%, press_step_$, PRESS_TYPE_STEP)\n\nstatic void press_step_$_init(void) { press_step_run(0); }\n", "ink", "paper", "cutter", "fold", "glue", "print", "bind", "sew")},
			{"modules whose functions are called after them, loaded by their names", "-- moor/run.pl --\n#!/usr/bin/perl\nuse Desk;\nrequire \"lib/$_.pm\" for @ARGV;\n-- moor/Desk.pm --\npackage Desk;\nsub open_desk { return 1 }\n1;\n" +
				each("-- moor/lib/$.pm --\npackage $;\nuse Desk;\nsub $_begin { return 1 }\nsub $_draw { return 2 }\n1;\n", "barley", "clover", "dock", "elder", "fennel", "gorse", "hazel")},
			{"modules with the first line of a program, loaded by their names", "-- moor/run.py --\nimport importlib\nimportlib.import_module('readers.' + name).parse(text)\n" +
				each("-- moor/readers/$.py --\n#!/usr/bin/env python3\n\ndef parse(text):\n    return text\n", "barley", "clover", "dock", "elder", "fennel", "gorse", "hazel", "ivy", "juniper", "kale", "larch", "mallow")},
			{"a folder whose name ends so, written in one", "-- press/host.h --\nint press_host(int n);\n-- press/host.c --\nint press_host(int n) { return n; }\nint main(void) { return 0; }\n" +
				each("-- pressplugins/$/$.c --\n#include \"../../press/host.h\"\nint $_run(void) { return press_host(1); }\n", "ink", "paper", "cutter", "fold")},
			{"asked by the one method that all of them have, and named by nobody", "-- lib/moor/desk.rb --\nclass Desk\n  def ask(all)\n    all.map(&:weigh_it)\n  end\nend\n" +
				each("-- lib/moor/$/lot.rb --\nmodule %\n  class Lot\n    def weigh_it\n      1\n    end\n  end\nend\n", "graina", "grainb", "grainc", "graind", "graine", "grainf", "graing", "grainh", "graini", "grainj", "graink", "grainl", "grainm", "grainn", "graino", "grainp", "grainq", "grainr", "grains", "graint", "grainu", "grainv", "grainw", "grainx", "grainy", "grainz")},
			{"in groups, a folder each", "-- press/__init__.py --\n-- press/host.py --\ndef tell():\n    return 1\n" +
				each("-- press/plugins/wet/$/$.py --\nfrom press.host import tell\ndef $():\n    return tell()\n-- press/plugins/wet/$/help.py --\nx = 1\n", "ink", "glue") +
				each("-- press/plugins/dry/$/$.py --\nfrom press.host import tell\ndef $():\n    return tell()\n-- press/plugins/dry/$/help.py --\nx = 1\n", "fold", "cut")},
			{"in Python", "-- press/__init__.py --\n-- press/base.py --\nclass Format:\n    pass\n-- press/formats/__init__.py --\n" + each("-- press/formats/$.py --\nfrom press.base import Format\nclass %(Format):\n    pass\n", "sheet", "strip", "roll")},
		},
		looks: []shown{
			{"examples that each show the same", each("-- examples/$/run.py --\nfrom vault.kiln import Kiln\n\nclass Run(Kiln):\n    def dry(self):\n        return 1\n", "wood", "glass", "clay", "wool", "stone", "moss", "peat") +
				"-- vault/__init__.py --\n-- vault/kiln.py --\nclass Kiln:\n    def dry(self):\n        return 0\n"},
			{"the same for one machine each", each("-- src/$/call.c --\n#include \"../call.h\"\nint begin(int n) { return n; }\nint finish(int n) { return n + 1; }\n", "x86", "sparc", "mips", "powerpc", "alpha") +
				"-- src/call.h --\nint begin(int n);\nint finish(int n);\n-- src/all.c --\n#include \"call.h\"\nint all(int n) { return finish(begin(n)); }\n"},
			{"plug-ins that need each other", "-- src/host.ts --\nexport const x = 1\n-- src/plugins/a.ts --\nimport './b'\nimport './c'\n-- src/plugins/b.ts --\nimport './a'\nimport './c'\n-- src/plugins/c.ts --\nimport './a'\n-- src/main.ts --\nimport './plugins/a'\nimport './plugins/b'\n-- src/other.ts --\nimport './plugins/c'\n"},
			{"a family whose members all are named outside of it", "-- press/ink.py --\nclass Ink:\n    pass\n" + each("-- press/inks/$.py --\nfrom press.ink import Ink\nclass %(Ink):\n    pass\n-- press/use_$.py --\nfrom press.inks.$ import %\nx = %()\n", "black", "red", "blue")},
			{"what nearly everything builds upon", "-- press/run.py --\nfrom press.ink import Ink\nInk()\n-- press/base.py --\nclass Thing:\n    pass\n" +
				each("-- press/$.py --\nfrom press.base import Thing\nfrom press.use_$ import Use%\nclass %(Thing):\n    pass\n-- press/use_$.py --\nfrom press.base import Thing\nclass Use%(Thing):\n    pass\n", "ink", "paper", "cutter", "fold", "glue", "print", "bind", "sew")},
			{"a few heirs beside their base", "-- press/run.py --\nprint(1)\n-- press/inks/generic.py --\nclass Generic:\n    pass\n" +
				each("-- press/inks/$.py --\nfrom press.inks.generic import Generic\nclass %(Generic):\n    pass\n", "black", "red", "blue")},
			{"programs side by side", "-- kern/main.c --\nint main(void) { return 0; }\n" +
				each("-- tools/$.c --\nint usage(void) { return 1; }\nint main(void) { return usage(); }\n", "ink", "paper", "fold", "cut")},
			{"functions that each file has for itself", "-- kern/main.c --\nint main(void) { return 0; }\n" +
				each("-- store/$.c --\nstatic int keep(void) { return 1; }\nint $_get(int n) { return keep(); }\n", "ink", "paper", "fold", "cut")},
			{"files that register themselves with what lies beside them", each("-- shelf/$.c --\nvoid init_$(void) { shelf_register(1); }\n", "fold", "cut", "glue", "print", "scan") + "-- shelf/all.c --\nint shelf_register(int n) { return n; }\n-- kern/main.c --\nint main(void) { return 0; }\n"},
			{"models that a framework finds by itself", "-- app/base.rb --\nclass Base < ApplicationRecord\nend\n" + each("-- app/models/$.rb --\nclass % < Base\nend\n", "lot", "box", "shelf")},
			{"a folder of providers that everybody calls by name", each("-- src/providers/$.ts --\nexport const $ = 1\n-- src/use_$.ts --\nimport { $ } from './providers/$'\nexport const used = $\n", "ink", "paper", "cutter")},
		},
	},
	"library": {
		shows: []shown{
			{"packages, with a tool in cmd and a program that writes a file of one", "-- go.mod --\nmodule moor/weighing\n" +
				each("-- $/$.go --\npackage $\n\nfunc Step(n int) int { return n + 1 }\n", "scale", "kiln", "fan", "label", "tray") +
				"-- scale/gen.go --\npackage main\n\nfunc main() {}\n-- cmd/weigh-dump/main.go --\npackage main\n\nimport \"moor/weighing/scale\"\n\nfunc main() { scale.Step(1) }\n"},
			{"a package that the program beside it does not need", "-- go.mod --\nmodule words\n-- make/main.go --\npackage main\nimport \"words/model\"\nfunc main() { model.Make() }\n-- model/model.go --\npackage model\nfunc Make() {}\n" +
				each("-- words/$.go --\npackage words\nfunc %() {}\n", "say", "spell", "count", "split")},
			{"a package of npm", "-- package.json --\n{ \"name\": \"words\", \"main\": \"index.js\" }\n-- index.js --\nexport { a } from './a'\n-- a.js --\nexport const a = 1\n-- b.js --\nexport const b = 1\n"},
			{"a module of Go", "-- go.mod --\nmodule words\n-- words.go --\npackage words\nfunc Say() {}\n-- units/units.go --\npackage units\nfunc Grams() {}\n"},
			{"a package of Python as it is installed", "-- words/__init__.py --\nfrom .say import say\n-- words/say.py --\nfrom .units import grams\ndef say():\n    return grams(1)\nif __name__ == '__main__':\n    say()\n-- words/units.py --\ndef grams(x):\n    return x\n"},
			{"a module of Go with examples that run", "-- go.mod --\nmodule words\n-- words.go --\npackage words\nfunc Say() {}\n-- _examples/one/main.go --\npackage main\nimport \"words\"\nfunc main() { words.Say() }\n-- _examples/two/main.go --\npackage main\nimport \"words\"\nfunc main() { words.Say() }\n"},
			{"a file beside the folder of its name", "-- lib/words.rb --\nrequire 'words/say'\nmodule Words\n  def self.say; Say.new; end\nend\n" + each("-- lib/words/$.rb --\nmodule Words\n  class %\n    def run; 1; end\n  end\nend\n", "say", "spell", "count", "split")},
			{"a module of Go with programs that try it", "-- go.mod --\nmodule words\n-- spell/spell.go --\npackage spell\nfunc Say() {}\n-- manualtest/stress/main.go --\npackage main\nimport \"words/spell\"\nfunc main() { spell.Say() }\n-- hack/gen/main.go --\npackage main\nimport \"words/spell\"\nfunc main() { spell.Say() }\n"},
			{"a package of npm that listens when it is asked to", "-- package.json --\n{ \"name\": \"helper\", \"main\": \"index.js\" }\n-- index.js --\nconst http = require('http')\n\nclass Helper {\n  start(port) {\n    this.server = http.createServer()\n    this.server.listen(port)\n  }\n}\n\nmodule.exports = new Helper()\n"},
			{"packages aside of the program, one of which is called as if it were asked", "-- go.mod --\nmodule words\n-- make/main.go --\npackage main\nimport \"words/model\"\nfunc main() { model.Make() }\n-- model/model.go --\npackage model\nfunc Make() {}\n" +
				each("-- words/$.go --\npackage words\nfunc %() {}\n", "say", "spell", "word_controller", "split")},
			{"a few large files beside many small examples", each("-- share/%.php --\n<?php\nclass % {\n"+strings.Repeat("  function say() { return 1; }\n", 40)+"}\n", "words", "count", "split", "join", "trim") +
				each("-- examples/try$.php --\n<?php\nrequire '../share/Words.php';\n$w = new Words();\n", "a", "b", "c", "d", "e", "f", "g", "h", "i", "j", "k", "l")},
			{"a package of npm that starts nothing", "-- package.json --\n{ \"name\": \"words\", \"scripts\": { \"test\": \"gulp test\" } }\n" + each("-- src/$.js --\nexport const $ = 1\n", "say", "spell", "count")},
			{"classes that nothing starts", each("-- Words/%.php --\n<?php\nnamespace Words;\nclass % { public function run() { return 1; } }\n", "say", "spell", "count", "split", "join", "trim")},
			{"what its authors call so, beside programs that show it", "-- README.md --\n# Words\n\nWords is a small library for splitting words.\n" +
				each("-- src/$.py --\nimport words\ndef $():\n    return words.split()\n", "say", "spell", "count") + each("-- show_$.py --\n#!/usr/bin/env python3\nimport words\nwords.split()\n", "one", "two")},
			{"what hardly anything of is reached by its one program", "-- tell.c --\n#include \"say.h\"\nint main(void) { return say(1); }\n-- src/words.h --\nint say(int n);\n-- say.h --\nint say(int n);\n" +
				each("-- src/$.c --\n#include \"words.h\"\nint $(int n) { return n; }\n", "spell", "count", "split", "join", "trim", "fold", "turn", "sort", "find", "list", "pick", "keep", "drop", "hold", "send", "take", "read", "name", "mark", "seek")},
			{"a program that describes a library", "-- setup.py --\nfrom setuptools import setup\nNAME = 'words'\nsetup(name=NAME, packages=['words'], classifiers=['Topic :: Software Development :: Libraries'])\n-- words/__init__.py --\n-- words/say.py --\ndef say():\n    return 1\n-- tools/tell.py --\n#!/usr/bin/env python3\nfrom words.say import say\nprint(say())\n"},
			{"a package of composer that says so", "-- composer.json --\n{\"name\": \"moor/words\", \"type\": \"library\"}\n" + each("-- src/%.php --\n<?php\nclass % { function run() { return 1; } }\n", "say", "spell")},
			{"a package of Go without a project file", "-- words.go --\npackage words\nfunc Say() {}\n-- spell.go --\npackage words\nfunc Spell() {}\n"},
			{"what a build makes for others, beside programs that try it", `
-- Makefile.am --
SUBDIRS = lib tools
-- lib/Makefile.am --
lib_LTLIBRARIES = libwords.la
libwords_la_SOURCES = say.c spell.c count.c
-- tools/Makefile.am --
bin_PROGRAMS = sayit
` + each("-- lib/$.c --\n#include \"words.h\"\nint $(int n) { return n; }\n", "say", "spell", "count") +
				"-- lib/words.h --\nint say(int n);\n-- tools/sayit.c --\n#include \"../lib/words.h\"\nint main(void) { return say(1); }\n"},
			{"what a build makes for others, with more programs that write it than files", "-- Makefile.am --\nlib_LTLIBRARIES = libwords.la\n-- words.c --\n#include \"words.h\"\nint say(int n) { return n; }\n-- words.h --\nint say(int n);\n" +
				each("-- make$.c --\nint main(void) { return 1; }\n", "list", "table", "tree")},
			{"a library that CMake installs", "-- CMakeLists.txt --\nproject(words)\nadd_library(words say.c spell.c count.c)\nadd_executable(try try.c)\ninstall(TARGETS words LIBRARY DESTINATION lib)\n" +
				each("-- $.c --\n#include \"words.h\"\nint $(int n) { return n; }\n", "say", "spell", "count") +
				"-- words.h --\nint say(int n);\n-- try.c --\n#include \"words.h\"\nint main(void) { return say(1); }\n"},
			{"a project of Python", "-- pyproject.toml --\n[project]\nname = \"words\"\n-- words/__init__.py --\nfrom .say import say\n-- words/say.py --\ndef say():\n    return 1\n"},
		},
		looks: []shown{
			{"a package of npm that answers requests and draws pages", "-- package.json --\n{ \"name\": \"words\", \"main\": \"words.js\", \"dependencies\": { \"express\": \"4\" } }\n-- words.js --\nconst express = require('express')\nconst say = require('./lib/controllers/say')\nmodule.exports = () => { const app = express(); app.get('/say', say.show); return app }\n-- lib/controllers/say.js --\nexports.show = (req, res) => res.render('say')\n" + each("-- views/$.ejs --\n<p><%= $ %></p>\n", "say", "spell", "count")},
			{"a package of npm that is run", "-- package.json --\n{ \"name\": \"words\", \"scripts\": { \"start\": \"node src/say.js\" } }\n" + each("-- src/$.js --\nexport const $ = 1\n", "say", "spell", "count")},
			{"a package that answers requests and draws pages", "-- vault/__init__.py --\n-- vault/urls.py --\nfrom django.urls import path\nfrom . import views\nurlpatterns = [path('lots/', views.lots), path('boxes/', views.boxes)]\n-- vault/views.py --\nfrom django.shortcuts import render\ndef lots(request):\n    return render(request, 'lots.html')\ndef boxes(request):\n    return render(request, 'boxes.html')\n" +
				each("-- vault/templates/$.html --\n<p>$</p>\n", "lots", "boxes", "shelves")},
			{"a package that its program needs nearly all of", "-- bin/vault --\n#!/usr/bin/env python3\nfrom vault import desk\ndesk.run()\n-- vault/__init__.py --\n-- vault/desk.py --\nfrom vault import " +
				strings.Join([]string{"lot", "box", "shelf", "label"}, ", ") + "\ndef run():\n    return lot.all()\n" + each("-- vault/$.py --\ndef all():\n    return []\n", "lot", "box", "shelf", "label")},
			{"what manages libraries", "-- README.md --\n# Shelf\n\nShelf is a photo library manager for the desk.\n-- shelf.py --\nimport lots\nif __name__ == '__main__':\n    lots.all()\n-- lots.py --\ndef all():\n    return []\n"},
			{"a package with a folder of commands in it", "-- vault/__init__.py --\n-- vault/lots.py --\ndef all():\n    return []\n-- vault/boxes.py --\nfrom vault import lots\n-- vault/commands/__init__.py --\n-- vault/commands/dry.py --\nfrom vault import lots\ndef main():\n    lots.all()\n"},
			{"a program whose top folder holds a package's words and nothing else", "-- go.mod --\nmodule press\n-- doc.go --\n// Package press prints labels.\npackage press\n-- cmd/press/main.go --\npackage main\nimport \"press/queue\"\nfunc main() { queue.Step() }\n-- queue/queue.go --\npackage queue\nfunc Step() {}\n"},
			{"programs that a build makes", "-- Makefile.am --\nbin_PROGRAMS = say spell\nnoinst_LIBRARIES = libcommon.a\n-- common.h --\nint add(int n);\n-- common.c --\n#include \"common.h\"\nint add(int n) { return n; }\n" +
				each("-- $.c --\n#include \"common.h\"\nint main(void) { return add(1); }\n", "say", "spell")},
			{"a module with a program in it", "-- go.mod --\nmodule press\n-- cmd/press/main.go --\npackage main\nfunc main() {}\n-- cmd/scan/main.go --\npackage main\nfunc main() {}\n"},
			{"a page with a package file", each(component, "lot", "box", "grower") + "-- package.json --\n{ \"name\": \"desk\", \"private\": true }\n"},
		},
	},
	"scripts": {
		shows: []shown{
			{"Python", "-- dry.py --\n#!/usr/bin/env python3\nprint(1)\n-- weigh.py --\n#!/usr/bin/env python3\nprint(2)\n-- label.py --\nif __name__ == '__main__':\n    print(3)\n"},
			{"Perl", each("-- $.pl --\n#!/usr/bin/perl\nuse strict;\nprint \"$\\n\";\n", "dry", "weigh", "label")},
			{"JavaScript", each("-- $.js --\n#!/usr/bin/env node\nconsole.log('$')\n", "dry", "weigh", "label", "store")},
		},
		looks: []shown{
			{"modules that can be tried by themselves", each("-- $.py --\n#!/usr/bin/env python3\nimport shared\ndef run():\n    return shared.x\nif __name__ == '__main__':\n    run()\n", "dry", "weigh", "label") +
				"-- shared.py --\nx = 1\n-- desk.py --\nimport dry, weigh, label\ndry.run()\n"},
			{"a program with scripts that build and try it", "-- a.go --\npackage main\nfunc main() {}\n-- b.go --\npackage main\nfunc b() {}\n-- c.go --\npackage main\nfunc c() {}\n-- d.go --\npackage main\nfunc d() {}\n" +
				each("-- ci/$.sh --\n#!/bin/sh\ngo $\n", "build", "vet", "fmt")},
			{"one script beside a package", "-- run.py --\n#!/usr/bin/env python3\nfrom vault import lots\nlots.all()\n-- vault/__init__.py --\n" + each("-- vault/$.py --\ndef all():\n    return []\n", "lots", "boxes", "growers")},
			{"modules that others use", each("-- $.py --\nimport shared\ndef run():\n    return shared.x\n", "dry", "weigh", "label") + "-- shared.py --\nx = 1\n"},
		},
	},
	"scaffold": {
		shows: []shown{
			{"a project of Python's", "-- manage.py --\n#!/usr/bin/env python3\nimport os\n-- vault/__init__.py --\n-- vault/settings.py --\nDEBUG = True\n-- vault/urls.py --\nurlpatterns = []\n-- lots/__init__.py --\n-- lots/apps.py --\nname = 'lots'\n"},
			{"a page's", "-- vite.config.ts --\nexport default {}\n-- package.json --\n{ \"name\": \"desk\", \"private\": true }\n-- src/main.tsx --\nimport { App } from './App'\nrender(<App />)\n-- src/App.tsx --\nexport function App() { return <h1>desk</h1> }\n"},
			{"a service's", "-- Program.cs --\nvar app = WebApplication.Create();\napp.Run();\n-- appsettings.json --\n{}\n-- Controllers/HomeController.cs --\nnamespace Vault;\npublic class HomeController : Controller { }\n-- vault.csproj --\n<Project Sdk=\"Microsoft.NET.Sdk.Web\" />\n"},
		},
		looks: []shown{
			{"the same folders with years of work in them", "-- manage.py --\nimport os\n-- vault/settings.py --\nDEBUG = True\n-- vault/urls.py --\nurlpatterns = []\n" + each("-- vault/$.py --\n"+strings.Repeat("def rule():\n    return 1\n\n\n", 120), "a", "b", "c", "d", "e", "f", "g", "h", "i", "j")},
			{"half of a generator's folders", "-- manage.py --\nimport os\n-- vault/lots.py --\ndef all():\n    return []\n-- vault/boxes.py --\nfrom vault import lots\n"},
		},
	},
}

func TestEachPatternIsToldFromWhatLooksLikeIt(t *testing.T) {
	require.Len(t, trees, 17, "the whole catalogue")
	for name, c := range trees {
		require.GreaterOrEqual(t, len(c.shows), 3, name)
		require.GreaterOrEqual(t, len(c.looks), 2, name)
		for _, s := range c.shows {
			t.Run(name+": "+s.what, func(t *testing.T) {
				got := ranking(t, s.tree)
				require.NotEmpty(t, got)
				require.Equal(t, name, got[0].Name, "%s", outcomeOf(got))
				require.NotEmpty(t, got[0].For)
			})
		}
		for _, s := range c.looks {
			t.Run(name+", but for: "+s.what, func(t *testing.T) {
				if got := ranking(t, s.tree); len(got) > 0 {
					require.NotEqual(t, name, got[0].Name, "%s", outcomeOf(got))
				}
			})
		}
	}
}
