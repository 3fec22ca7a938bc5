package calls_test

import "testing"

// scripts are JavaScript of before there were modules; what is called was written
// down before any was run: eight of the eleven were told rightly at once.
var scripts = []smallFile{
	{"a type by its prototype, in a function that is called at once", "a.js", `
(function (Vault, $) {
    'use strict';
    Vault.Shelf = function (n) { this.n = n; this.refresh(); };
    Vault.Shelf.prototype = {
        fill: function (n) { this.n += n; this.refresh(); },
        refresh() { $('#shelf').text(this.n); }
    };
    Vault.open = function () { return new Vault.Shelf(weigh(1)); };
    function weigh(n) { return n; }
}(Vault, jQuery));
`, []string{"Vault.Shelf.constructor -> Vault.Shelf.refresh", "Vault.Shelf.fill -> Vault.Shelf.refresh",
		"Vault.open -> Vault.Shelf (construct)", "Vault.open -> weigh"}, nil},
	{"names at the top of scripts that a page loads one after the other", "a.js", `
-- a.js --
var Vault = Vault || {};
Vault.weigh = function (lot) { return lot.grams; };
function tare(n) { return n; }
-- b.js --
function dry(lot) { return tare(Vault.weigh(lot)); }
$(document).ready(function () { $('#dry').click(function () { dry(1); }); });
`, []string{"dry -> Vault.weigh", "dry -> tare", "-> dry"}, nil},
	{"what stands in the function of one script is known to it alone", "a.js", `
-- a.js --
(function () {
  function tare(n) { return n; }
  tare(1);
})();
-- b.js --
function dry(lot) { return tare(lot); }
`, []string{"-> tare"}, nil},
	{"two scripts that define the same name", "a.js", `
-- a.js --
function tare(n) { return n; }
-- b.js --
function tare(n) { return n + 1; }
-- c.js --
function dry(lot) { return tare(lot); }
`, nil, nil},
	{"members that are put on a prototype one by one, braces on lines of their own", "a.js", `
function Bog(depth)
{
  this.depth = depth;
}
Bog.prototype.drain = function()
{
  return this.measure();
};
Bog.prototype.measure = function () { return this.depth; };
Bog.dig = function () { var bog = new Bog(2); return bog.drain(); };
`, []string{"Bog.drain -> Bog.measure", "Bog.dig -> Bog (construct)", "Bog.dig -> Bog.drain"}, nil},
	{"modules that a loader hands each other, with what stands for each", "app.js", `
-- app.js --
require(['./lid', './tray'], function (lid, tray) { lid.close(tray.weigh(1)); });
-- lid.js --
define('lid', ['exports', './tray'], function (exports, tray) {
  function close(n) { return tray.weigh(n); }
  function hide(n) { return n; }
  return { close: close, tape: hide };
});
-- tray.js --
define(() => {
  var tray = {};
  tray.weigh = function (n) { return n; };
  return tray;
});
-- page.js --
define(['./lid'], function (lid) { return function () { lid.tape(2); close(3); }; });
`, []string{"-> close", "-> tray.weigh", "close -> tray.weigh", "-> hide"}, nil},
	{"a module that a loader is handed", "a.js", `
define(['jquery'], function ($) {
  function step(n) { return n; }
  return { run: function () { return step(1); } };
});
`, []string{"run -> step"}, nil},
	{"a wrapper for all loaders, whose function is handed over", "a.js", `
(function (root, factory) {
  if (typeof define === 'function') { define([], factory); } else { root.press = factory(); }
}(this, function () {
  function ink(n) { return n; }
  function print() { return ink(1); }
  return print;
}));
`, []string{"print -> ink"}, nil},
	{"signs before the function, and what it is called with", "a.js", `
!function () {
  function a() {}
  a();
}();
;(function () {
  function b() {}
  b();
}).call(this);
void function () {
  function c() {}
  c();
}();
`, []string{"-> a", "-> b", "-> c"}, nil},
	{"a name on the window", "a.js", `
-- a.js --
window.desk = function () { return 1; };
-- b.js --
function open() { return desk(); }
`, []string{"open -> desk"}, nil},
	{"a comparison, an arrow and a value are no definitions", "a.js", `
var lots = {};
lots.all == function () { return 1; };
lots.n = 3;
lots.f => 2;
this.g = function () { return 4; };
`, nil, nil},
	{"modules know nothing of each other's tops", "a.js", `
-- a.js --
export const one = 1
function tare(n) { return n }
-- b.js --
import { one } from './a.js'
export function dry(lot) { return tare(lot) }
`, nil, nil},
}

func TestScriptsWithoutModules(t *testing.T) { holdFiles(t, scripts) }

func TestWhatAFunctionOfAnObjectOrAFieldCallsIsItsOwn(t *testing.T) {
	holdFiles(t, []smallFile{
		{"a field that holds an arrow", "a.ts", `
function weigh(n: number) { return n }
export class Shelf {
  n = 1
  fill = () => { weigh(this.n); this.refresh() }
  refresh() {}
}
`, []string{"Shelf.fill -> Shelf.refresh", "Shelf.fill -> weigh"}, nil},
		{"a function in an object", "a.js", `
function weigh(n) { return n }
export const desk = {
  open: function () { weigh(1); this.shut() },
  shut: () => weigh(2),
}
`, []string{"desk.open -> desk.shut", "desk.open -> weigh", "desk.shut -> weigh"}, nil},
	})
}
