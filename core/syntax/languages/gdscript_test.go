package languages_test

import "testing"

func TestGDScript(t *testing.T) {
	run(t, []sample{
		{name: "a class that is the whole file", file: "drawer.gd", text: `## Shows one drawer of the vault.
class_name Drawer extends Node2D

signal opened(slot: int)
enum Side { LEFT, RIGHT = 4 }
enum { FREE, TAKEN }
const Lot = preload("res://lots/lot.gd")
@export var slots: int = 4
@export_range(0, 10)
var depth := 1:
	set(value):
		depth = value
@onready var lid: Node = $Lid/Handle
static var count = { "a": func(): return 1 }

func _ready() -> void:
	var scene = load("res://drawer.tscn")
	lid.connect("pressed", func(x):
		print("}")
	)
	if %Sign.visible: return

class Inner extends Resource:
	var grams = 1
	func weigh(a, b = [1, 2]):
		return """
func no(): pass
"""
func last(): pass
`, defs: []string{"+class Drawer 2-29", "+other Drawer.opened 4-4", "+enum Drawer.Side 5-5", "+constant Drawer.Side.LEFT 5-5", "+constant Drawer.Side.RIGHT 5-5", "+constant Drawer.FREE 6-6", "+constant Drawer.TAKEN 6-6", "+constant Drawer.Lot 7-7", "+property Drawer.slots 8-8", "+property Drawer.depth 9-12", "+property Drawer.lid 13-13", "+property Drawer.count 14-14", "method Drawer._ready 16-21", "+class Drawer.Inner 23-28", "+property Drawer.Inner.grams 24-24", "+method Drawer.Inner.weigh 25-28", "+method Drawer.last 29-29"},
			imports: []string{"7 res://lots/lot.gd: ", "17 lazy import res://drawer.tscn: "}},
		{name: "a script without a name", file: "a.gd", text: "extends \"res://base.gd\"\nvar _hidden = 1\nfunc _init(a, b):\n\tpass\n",
			defs:    []string{"variable _hidden 2-2", "function _init 3-4"},
			imports: []string{"1 res://base.gd: "}},
	})
}

func TestGDScriptLinks(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"paths from the project, classes by name, what is loaded for all": {tree: `
-- game/project.godot --
[application]
config/name="Vault"
run/main_scene="res://main.tscn"
[autoload]
Store="*res://store.gd"
-- game/main.tscn --
[gd_scene format=3]
[ext_resource type="Script" path="res://main.gd" id="1"]
[ext_resource type="Texture2D" path="res://gone.png" id="2"]
[node name="Main" type="Node2D"]
script = ExtResource("1")
-- game/main.gd --
extends Shelf
const Lot = preload("lot.gd")
func _ready():
	Store.open()
-- game/shelf.gd --
class_name Shelf
-- game/lot.gd --
extends "shelf.gd"
-- game/store.gd --
extends Node
`, links: []string{"game/lot.gd -> game/shelf.gd", "game/lot.gd -> game/shelf.gd (inheritance)", "game/main.gd -> game/shelf.gd", "game/main.gd -> game/shelf.gd (inheritance)", "game/main.gd -> game/lot.gd", "game/main.gd -> game/store.gd",
			"game/main.tscn -> game/main.gd", "game/project.godot -> game/main.tscn (configuration)", "game/project.godot -> game/store.gd (configuration)"},
			unresolved: []string{"res://gone.png"}},
	})
}
