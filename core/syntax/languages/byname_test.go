package languages_test

import (
	"testing"

	"jantel/core/routes"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func TestBaseTypesLeadToWhereTheyAreDefined(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"Python: by name, by module, by another name and through a package": {tree: `
-- vault/__init__.py --
from .lots import Lot
-- vault/lots.py --
class Lot:
    pass
-- vault/shelf.py --
import vault.lots
import vault.lots as stock
from . import lots
from .lots import Lot as Weighed

class A(vault.lots.Lot): pass
class B(stock.Lot): pass
class C(lots.Lot): pass
class D(Weighed, Generic[Lot]): pass
class E(A): pass
-- desk/tray.py --
from vault import Lot
from outside import Tray

class Box(Lot, Tray, metaclass=Lot): pass
`, links: []string{
			"desk/tray.py -> vault/__init__.py", "desk/tray.py -> vault/lots.py (inheritance)",
			"vault/__init__.py -> vault/lots.py",
			"vault/shelf.py -> vault/lots.py", "vault/shelf.py -> vault/lots.py", "vault/shelf.py -> vault/lots.py", "vault/shelf.py -> vault/lots.py",
			"vault/shelf.py -> vault/lots.py (inheritance)", "vault/shelf.py -> vault/lots.py (inheritance)", "vault/shelf.py -> vault/lots.py (inheritance)", "vault/shelf.py -> vault/lots.py (inheritance)",
		}, external: []string{"outside"}},
		"Python: a star passes names on, a whole module does not": {tree: `
-- lots.py --
class Lot: pass
-- passing.py --
from lots import *
-- whole.py --
import lots
-- a.py --
from passing import Lot
class A(Lot): pass
-- b.py --
from whole import Lot
class B(Lot): pass
-- ring1.py --
from ring2 import Lost
class R(Lost): pass
-- ring2.py --
from ring1 import Lost
`, links: []string{
			"a.py -> passing.py", "a.py -> lots.py (inheritance)", "b.py -> whole.py", "passing.py -> lots.py", "ring1.py -> ring2.py", "ring2.py -> ring1.py", "whole.py -> lots.py",
		}},
		"Go: embedded types of the same package and of others": {tree: `
-- go.mod --
module vault
-- lots/lot.go --
package lots

type Lot struct{ Weight int }

type Dryer interface{ Dry() }

type tag struct{}
-- lots/sealed.go --
package lots

type Sealed struct {
	*Lot
	tag ` + "`json:\"-\"`" + `
	note string
	next []Lot
}
-- shelf/shelf.go --
package shelf

import (
	"sync"
	stock "vault/lots"
)

type Shelf struct {
	sync.Mutex
	stock.Lot ` + "`json:\"lot\"`" + `
	other stock.Dryer
}

type Oven interface {
	stock.Dryer
	Heat(to int) error
}

type Rack[T any] struct{ Box[T] }
-- shelf/box.go --
package shelf

type Box[T any] struct{ in []T }
`, links: []string{
			"lots/sealed.go -> lots/lot.go (inheritance)", "lots/sealed.go -> lots/lot.go (inheritance)",
			"shelf/shelf.go -> lots/lot.go", "shelf/shelf.go -> lots/lot.go (inheritance)", "shelf/shelf.go -> lots/lot.go (inheritance)", "shelf/shelf.go -> shelf/box.go (inheritance)",
		}, external: []string{"sync"}},
	})
}

func TestPagesLeadToTheComponentsTheyName(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"templates, styles, elements and attributes of components": {tree: `
-- lots/lot-list.component.ts --
@Component({
  selector: 'app-lot-list',
  templateUrl: 'lot-list.component.html',
  styleUrls: ['./lot-list.component.css', './gone.css'],
})
export class LotListComponent {}
-- lots/lot-list.component.html --
<section>
  <app-weight-tag *ngFor="let l of lots" [grams]="l.grams"></app-weight-tag>
  <input appDrying [moisture]="m">
  <p-outside></p-outside>
</section>
-- lots/lot-list.component.css --
-- lots/weight-tag.component.ts --
@Component({ selector: 'app-weight-tag', template: '<b><app-unit></app-unit></b>', styleUrl: './weight-tag.css' })
export class WeightTagComponent {}
-- lots/weight-tag.css --
-- lots/unit.component.ts --
@Component({ selector: "app-unit, [appUnit]", template: ` + "`\n  <i></i>\n`" + ` })
export class UnitComponent {}
-- lots/drying.directive.ts --
@Directive({ selector: 'input[appDrying]' })
export class DryingDirective {}
`, links: []string{
			"lots/lot-list.component.html -> lots/weight-tag.component.ts (rendering)", "lots/lot-list.component.html -> lots/drying.directive.ts (rendering)",
			"lots/lot-list.component.ts -> lots/lot-list.component.html (template)", "lots/lot-list.component.ts -> lots/lot-list.component.css (template)",
			"lots/weight-tag.component.ts -> lots/unit.component.ts (rendering)", "lots/weight-tag.component.ts -> lots/weight-tag.css (template)",
		}, unresolved: []string{"./gone.css"}},
		"elements that are defined by hand; two of one name lead nowhere": {tree: `
-- tag.js --
customElements.define('seed-tag', class extends HTMLElement {})
-- one.js --
customElements.define('seed-box', One)
-- two.ts --
@customElement('seed-box')
export class Two {}
-- page.html --
<!-- <seed-tag> -->
<seed-tag></seed-tag><seed-box></seed-box>
`, links: []string{"page.html -> tag.js (rendering)"}},
	})
}

func TestScriptsLeadToTheScenesAtTheirNodes(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"nodes by path, by text and by their own name": {tree: `
-- project.godot --
[application]
config/name="Drying room"
-- room.tscn --
[gd_scene load_steps=4 format=3]
[ext_resource type="Script" path="res://room.gd" id="1_room"]
[ext_resource type="PackedScene" path="res://shelf.tscn" id="2_shelf"]
[ext_resource type="PackedScene" path="res://fan.tscn" id="3_fan"]

[node name="Room" type="Node2D"]
script = ExtResource("1_room")

[node name="Racks" type="Node2D" parent="."]

[node name="Shelf" parent="Racks" instance=ExtResource("2_shelf")]

[node name="Fan" parent="Racks/Shelf" instance=ExtResource("3_fan")]
unique_name_in_owner = true
-- shelf.tscn --
[gd_scene format=3]
[node name="Shelf" type="Node2D"]
-- fan.tscn --
[gd_scene format=3]
[node name="Fan" type="Node2D"]
-- room.gd --
extends Node2D

@onready var shelf = $Racks/Shelf
@onready var fan = %Fan

func dry(hours):
	var half = hours % Fan
	var other = $"Racks/Shelf/Fan"
	get_node("Racks/Nowhere").hide()
	return half / 2
`, links: []string{
			"room.gd -> shelf.tscn (rendering)", "room.gd -> fan.tscn (rendering)", "room.gd -> fan.tscn (rendering)",
			"room.tscn -> room.gd", "room.tscn -> shelf.tscn", "room.tscn -> fan.tscn",
		}},
	})
}

func TestActionsGoOnFromOthers(t *testing.T) {
	s := testkit.Survey(t, `
-- lib/Vault/Controller/Lots.pm --
package Vault::Controller::Lots;
use base 'Catalyst::Controller';

sub base : Chained('/site') PathPart('lots') CaptureArgs(0) { }
sub lot : Chained('base') PathPart('') CaptureArgs(1) { }
sub list : Chained('base') PathPart('') Args(0) GET { }
sub show : Chained('lot') PathPart('') Args(0) { }
sub weigh : Chained('lot') Args(1) { }
sub index : Path : Args(0) { }
-- lib/Vault/Controller/Lots/Boxes.pm --
package Vault::Controller::Lots::Boxes;
sub boxes : Chained('../lot') Args { }
sub lost : Chained('/nowhere') PathPart('lost') Args(0) { }
-- lib/Vault/Controller/Root.pm --
package Vault::Controller::Root;
sub site : Chained('/') PathPart('vault') CaptureArgs(0) { }
`)
	var got []string
	for _, r := range routes.Of(s) {
		got = append(got, r.Method+" "+r.Pattern+" "+r.HandlerName)
	}
	require.Equal(t, []string{
		"ANY /lost lost",
		"ANY /lots/{*args} index",
		"GET /vault/lots list",
		"ANY /vault/lots/:capture show",
		"ANY /vault/lots/:capture/boxes/* boxes",
		"ANY /vault/lots/:capture/weigh/:arg weigh",
	}, got)
}
