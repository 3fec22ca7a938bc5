package languages_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

func TestScriptsWithoutModulesDefineWhatTheyPutSomewhere(t *testing.T) {
	for name, c := range map[string]struct{ text, want string }{
		"a type by its prototype": {
			"function Bog(n)\n{\n  this.n = n;\n}\nBog.prototype.drain = function ()\n{\n  return 1;\n};\nBog.prototype = {\n  get wet() { return 1; },\n  dry: function () {},\n  n: 3\n};\nfunction after() {}\n",
			"class Bog 1-11, method Bog.constructor 1-4, method Bog.drain 5-8, method Bog.wet 10-10, method Bog.dry 11-11, function after 14-14",
		},
		"within a function that is called at once": {
			"(function ($) {\n  function weigh(n) {}\n  var Desk = function () {};\n  Desk.prototype.open = function () {};\n  Vault.open = function (a, b) {};\n})(jQuery);\n",
			"function weigh 2-2, class Desk 3-4, method Desk.constructor 3-3, method Desk.open 4-4, function Vault.open 5-5",
		},
		"handed to what loads it": {
			"require(['a'], function (a) {\n  function step() {}\n});\njQuery(document).ready(function () {\n  function late() {}\n});\nlots.each(function () {\n  function none() {}\n});\n",
			"function step 2-2, function late 5-5",
		},
		"no definitions": {
			"lots.n = 3;\nlots.a == function () {};\nthis.b = function () {};\nlots.prototype = other;\nlots[1] = function () {};\nprototype.c = function () {};\nif (a) { lots.d = function () {}; }\n", "",
		},
	} {
		t.Run(name, func(t *testing.T) {
			got := []string{}
			for _, d := range facts("a.js", c.text).Definitions {
				if d.Kind != "variable" {
					got = append(got, fmt.Sprintf("%s %s %d-%d", d.Kind, d.Qualified(), d.Line, d.EndLine))
				}
			}
			require.Equal(t, c.want, strings.Join(got, ", "))
		})
	}
	require.Empty(t, facts("a.ts", "Vault.open = function () {}\n").Definitions, "what is written with types has modules")
}

func TestAllTypesOfAFileAreTypesHoweverManyThereAre(t *testing.T) {
	for _, n := range []int{3, 30, 300} {
		var text strings.Builder
		for i := range n {
			fmt.Fprintf(&text, "function Box%d() {}\nBox%d.prototype.open = function () {};\n", i, i)
		}
		types := 0
		for _, d := range facts("a.js", text.String()).Definitions {
			if d.Kind == "class" {
				types++
			}
		}
		require.Equal(t, n, types)
	}
}
