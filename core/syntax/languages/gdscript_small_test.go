package languages_test

import "testing"

func TestGDScriptSmall(t *testing.T) {
	small(t, "a.gd", `
== a function ends where the indentation does
func a():
	pass

func b():
	pass
=> +function a 1-2; +function b 4-5
== a function in one line
func a(): pass
func b(): return 1
=> +function a 1-1; +function b 2-2
== arguments over lines
func a(
		one: int,
		two := [1, 2],
) -> int:
	return 1
func b():
	pass
=> +function a 1-5; +function b 6-7
== spaces instead of tabs
func a():
    if true:
        pass
func b():
    pass
=> +function a 1-3; +function b 4-5
== a hash in a string is no comment
var a = "# no"
var b = '#' # func no():
=> +variable a 1-1; +variable b 2-2
== a string over lines
var a = """
func no():
	pass
"""
var b = 1
=> +variable a 1-4; +variable b 5-5
== a string over lines in single quotes
var a = '''
var no = "
'''
var b = 1
=> +variable a 1-3; +variable b 4-4
== raw strings, names and paths of nodes
var a = r"\d"
var b = &"name"
var c = ^"Lid/Handle"
func d(): pass
=> +variable a 1-1; +variable b 2-2; +variable c 3-3; +function d 4-4
== nodes by dollar and by percent
@onready var a = $Lid
@onready var b = $"Lid/The Handle"
@onready var c = %Sign
var d = 7 % 2
=> +variable a 1-1; +variable b 2-2; +variable c 3-3; +variable d 4-4
== a backslash continues a line
var a = 1 + \
	2
var b = 1
=> +variable a 1-2; +variable b 3-3
== lists and tables over lines
const A = [
	1,
	2,
]
var b = {
	"x": "}",
}
=> +constant A 1-4; +variable b 5-7
== annotations before, and on a line of their own
@export var a := 1
@export_group("Looks")
@export_range(0, 10) var b: int
@tool
=> +variable a 1-1; +variable b 3-3
== enums with and without a name
enum Side { LEFT, RIGHT = 4, }
enum { FREE }
=> +enum Side 1-1; +constant Side.LEFT 1-1; +constant Side.RIGHT 1-1; +constant FREE 2-2
== enums over lines, with comments
enum Stage {
	DAMP, # var no
	DRY,
}
var b = 1
=> +enum Stage 1-4; +constant Stage.DAMP 2-2; +constant Stage.DRY 3-3; +variable b 5-5
== signals
signal opened
signal moved(from: int, to)
=> +other opened 1-1; +other moved 2-2
== a property with a getter and a setter
var a: int:
	get:
		return 1
	set(v):
		a = v
var b = 1
=> +variable a 1-5; +variable b 6-6
== a property whose setter is named
var a = 1: set = put, get = take
func put(v): pass
=> +variable a 1-1; +function put 2-2
== classes inside
class Inner:
	var n = 1
	func f():
		pass
class Other extends Inner: pass
=> +class Inner 1-4; +property Inner.n 2-2; +method Inner.f 3-4; +class Other 5-5
== classes inside classes
class A:
	class B:
		func f(): pass
	var n
=> +class A 1-4; +class A.B 2-3; +method A.B.f 3-3; +property A.n 4-4
== a leading low line is private
var _a = 1
func _b(): pass
const _C = 1
=> variable _a 1-1; function _b 2-2; constant _C 3-3
== functions without a name
var a = func(x): return x
func b():
	each(func(x):
		print(x)
	)
func c(): pass
=> +variable a 1-1; +function b 2-5; +function c 6-6
== static functions and variables
static func a(): pass
static var b = 1
=> +function a 1-1; +variable b 2-2
== words of the language as names behind a point
func a():
	self.class_name = 1
	x.func_ref()
func b(): pass
=> +function a 1-3; +function b 4-4
== what is loaded first and what is loaded late
const A = preload("res://a.gd")
func f():
	var b = load("res://b.tscn")
=> +constant A 1-1; +function f 2-3
<- 1 res://a.gd; 3 lazy import res://b.tscn
== what a path made at run time hides
func f(n):
	var b = load("res://" + n)
=> +function f 1-2
== the class above is a file
extends "res://lots/base.gd"
var n = 1
=> +variable n 2-2
<- 1 res://lots/base.gd
== a class with a name and a picture
@icon("res://icon.svg")
class_name Shelf
extends Node
func f(): pass
=> +class Shelf 2-4; +method Shelf.f 4-4
== comments where the indentation would end
func a():
	pass
# a comment at the left
	pass
func b(): pass
=> +function a 1-4; +function b 5-5
== empty lines with spaces in them
func a():
	pass
   
	pass
func b(): pass
=> +function a 1-4; +function b 5-5
== a match with patterns
func a(n):
	match n:
		1, 2: pass
		{"x": var y}: pass
		_: pass
func b(): pass
=> +function a 1-5; +function b 6-6
== two statements in one line
var a = 1; var b = 2
func c(): pass; pass
=> +variable a 1-1; +variable b 1-1; +function c 2-2
== typed lists
var a: Array[int] = [1]
func b(n: Array[Lot]) -> Dictionary[String, int]: return {}
=> +variable a 1-1; +function b 2-2
== a region, and documentation
## What this is for.
#region Lots
var a = 1
#endregion
=> +variable a 3-3
== a condition over lines within brackets
func a():
	if (one
			and two):
		pass
func b(): pass
=> +function a 1-4; +function b 5-5
== a dollar inside a string, a percent inside a format
var a = "$5 of %s" % name
var b = 1
=> +variable a 1-1; +variable b 2-2
== a setter in the way of older scripts
export(int) var a = 1 setget put, take
onready var b = get_node("Lid")
func put(v): pass
=> +variable a 1-1; +variable b 2-2; +function put 3-3
== an inner class ends where the function after it begins
class Slot:
	var lot

	func clear():
		lot = null

func a(): pass
=> +class Slot 1-5; +property Slot.lot 2-2; +method Slot.clear 4-5; +function a 7-7
== what is called later, by name
func a():
	await get_tree().process_frame
	call_deferred("b")
func b(): pass
=> +function a 1-3; +function b 4-4
`)
}
