package languages_test

import (
	"testing"

	"jantel/core/syntax"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func TestLinks(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"relative, index and endings": {tree: `
-- a.ts --
import './b'
import './c.js'
import './d'
import './style.css'
import './none'
import '../out'
-- b.tsx --
-- c.ts --
-- c.js --
-- d/index.ts --
import '..'
-- style.css --
-- index.js --
`, links: []string{"a.ts -> b.tsx", "a.ts -> c.ts", "a.ts -> d/index.ts", "a.ts -> style.css", "d/index.ts -> index.js"}, unresolved: []string{"./none", "../out"}},
		"modules that a loader is handed, from where the page counts": {tree: `
-- js/app.js --
require(['vault/shelf', 'text!vault/shelf.html', 'lib/far'], function (shelf, page) {
  shelf.open()
})
-- js/vault/shelf.js --
define("vault/shelf", ["./lid", "exports", "../drying/tray"], function (lid, exports, tray) {
  exports.open = function () { return lid.close(tray) }
})
-- js/vault/lid.js --
sap.ui.define(['vault/shelf'], (shelf) => {
  return { close: (n) => n }
})
-- js/vault/shelf.html --
<p>shelf</p>
-- js/drying/tray.js --
define(function () { return 1 })
-- js/other.js --
box.define(['vault/shelf'], function (x) {})
define('a name alone')
require(names, function () {})
`, links: []string{"js/app.js -> js/vault/shelf.html", "js/app.js -> js/vault/shelf.js", "js/vault/lid.js -> js/vault/shelf.js", "js/vault/shelf.js -> js/drying/tray.js", "js/vault/shelf.js -> js/vault/lid.js"}, external: []string{"lib"}},
		"path aliases and their heirs": {tree: `
-- tsconfig.base.json --
{ "compilerOptions": { "baseUrl": ".", "paths": { "@shared/*": ["shared/src/*", "shared/*"], "types": ["shared/types.ts"], }, } } // end
-- app/tsconfig.json --
{ "extends": "../tsconfig.base", /* why */ }
-- app/a.ts --
import '@shared/one'
import '@shared/two'
import 'types'
import '@shared/none'
import 'shared/two'
-- shared/src/one.ts --
-- shared/two.ts --
-- shared/types.ts --
`, links: []string{"app/a.ts -> shared/src/one.ts", "app/a.ts -> shared/two.ts", "app/a.ts -> shared/types.ts", "app/a.ts -> shared/two.ts"}, unresolved: []string{"@shared/none"}},
		"workspaces, exports and packages from outside": {tree: `
-- package.json --
{ "workspaces": ["packages/*"], "dependencies": { "react": "19.0.0" } }
-- packages/words/package.json --
{ "name": "@vault/words", "exports": { ".": { "types": "./dist/index.d.ts", "import": "./dist/index.js" }, "./deep/*": "./src/deep/*.ts" }, "imports": { "#own": "./src/own.ts" } }
-- packages/words/src/index.ts --
import '#own'
import '#none'
-- packages/words/src/own.ts --
-- packages/words/src/deep/x.ts --
-- app/a.ts --
import '@vault/words'
import '@vault/words/deep/x'
import 'react/jsx-runtime'
import 'fs'
import 'node:path'
`, links: []string{"app/a.ts -> packages/words/src/index.ts", "app/a.ts -> packages/words/src/deep/x.ts", "packages/words/src/index.ts -> packages/words/src/own.ts"}, external: []string{"react 19.0.0", "fs", "node:path"}, unresolved: []string{"#none"}},
		"a package in node_modules wins by nearness": {tree: `
-- a.js --
require('seed')
-- node_modules/seed/package.json --
{ "name": "seed", "main": "lib" }
-- node_modules/seed/lib/index.js --
-- sub/node_modules/seed/index.js --
-- sub/b.js --
const x = () => require('seed')
`, links: []string{"a.js -> node_modules/seed/lib/index.js", "sub/b.js -> sub/node_modules/seed/index.js (lazy import)"}},
		"Python packages and modules": {tree: `
-- vault/__init__.py --
from .lots import weigh
SIZE = 1
-- vault/lots.py --
import os
from . import boxes, SIZE
from .. import gone
-- vault/boxes.py --
from vault import lots
import vault.lots as l
from vault.none import x
-- tests/helper.py --
-- tests/test_lots.py --
import helper
from vault.lots import weigh
def f():
    import vault.boxes
`, links: []string{"tests/test_lots.py -> tests/helper.py", "tests/test_lots.py -> vault/lots.py", "tests/test_lots.py -> vault/boxes.py (lazy import)", "vault/__init__.py -> vault/lots.py", "vault/boxes.py -> vault/lots.py", "vault/boxes.py -> vault/lots.py", "vault/lots.py -> vault/__init__.py", "vault/lots.py -> vault/boxes.py"},
			external: []string{"os"}, unresolved: []string{"vault.none", ".."}},
		"Python below src, with namespaces and versions": {tree: `
-- pyproject.toml --
[project]
name = "vault"
dependencies = ["flask>=3.1"]
-- src/vault/cold/rooms.py --
import flask
from vault.dry import rack
-- src/vault/dry/rack.py --
import os.path
`, links: []string{"src/vault/cold/rooms.py -> src/vault/dry/rack.py"}, external: []string{"flask >=3.1", "os"}},
		"Go packages narrowed to what is used": {tree: `
-- go.mod --
module vault/v2

require other.example/x v1.2.3
-- main.go --
package main

import (
	"fmt"
	"other.example/x/y"
	"vault/v2/lots"
	_ "vault/v2/driver"
	"vault/v2/none"
	"vault/v2-side"
)

func main() { lots.Weigh(lots.Box{}); fmt.Println(y.Z) }
-- lots/weigh.go --
package lots

func Weigh(Box) {}
-- lots/box.go --
package lots

type Box struct{}
-- lots/other.go --
package lots

func Other() {}
-- lots/lots_test.go --
package lots

func Weigh() {}
-- driver/driver.go --
package driver
-- driver/a.go --
package driver
`, links: []string{"main.go -> lots/box.go", "main.go -> lots/weigh.go", "main.go -> driver/driver.go"}, external: []string{"fmt", "other.example/x/y v1.2.3", "vault/v2-side"}, unresolved: []string{"vault/v2/none"}},
		"Go modules inside one another and vendored copies": {tree: `
-- go.mod --
module vault
-- a.go --
package a

import "vault/tools/cut"
import "seed.example/lots"

var _ = cut.X + lots.Y
-- tools/go.mod --
module vault/tools
-- tools/cut/cut.go --
package cut

const X = 1
-- vendor/modules.txt --
-- vendor/seed.example/lots/lots.go --
package lots

const Y = 1
`, links: []string{"a.go -> tools/cut/cut.go", "a.go -> vendor/seed.example/lots/lots.go"}},
	})
}

type linkCase struct {
	tree                        string
	links, external, unresolved []string
}

func linksOf(t *testing.T, cases map[string]linkCase) {
	for name, c := range cases {
		t.Run(name, func(t *testing.T) {
			s := testkit.Survey(t, c.tree)
			require.Equal(t, append([]string{}, c.links...), testkit.Links(s))
			var external, unresolved []string
			for _, e := range s.External {
				x := e.Package
				if e.Version != nil {
					x += " " + *e.Version
				}
				external = append(external, x)
			}
			for _, u := range s.Unresolved {
				unresolved = append(unresolved, u.Text)
				require.NotEmpty(t, u.Reason)
			}
			require.ElementsMatch(t, c.external, external)
			require.ElementsMatch(t, c.unresolved, unresolved)
		})
	}
}

func TestLinksByName(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"Java: imports, the same package, members and all of a package": {tree: `
-- a/src/main/java/hollin/vault/Shelf.java --
package hollin.vault;
import hollin.lots.Lot;
import hollin.lots.deep.*;
import static hollin.lots.Rules.MAX;
import java.util.List;
import hollin.lots.None;
class Shelf extends Rack { Seed seed; Lot.Part part; }
-- a/src/main/java/hollin/vault/Rack.java --
package hollin.vault;
class Rack {}
-- a/src/main/java/hollin/lots/Lot.java --
package hollin.lots;
public class Lot { public static class Part {} }
-- a/src/main/java/hollin/lots/Rules.java --
package hollin.lots;
public class Rules { public static final int MAX = 1; }
-- a/src/main/java/hollin/lots/deep/Seed.java --
package hollin.lots.deep;
public class Seed {}
-- a/src/main/java/hollin/lots/deep/Unused.java --
package hollin.lots.deep;
public class Unused {}
`, links: []string{
			"a/src/main/java/hollin/vault/Shelf.java -> a/src/main/java/hollin/lots/Lot.java",
			"a/src/main/java/hollin/vault/Shelf.java -> a/src/main/java/hollin/lots/deep/Seed.java",
			"a/src/main/java/hollin/vault/Shelf.java -> a/src/main/java/hollin/lots/Rules.java",
			"a/src/main/java/hollin/vault/Shelf.java -> a/src/main/java/hollin/vault/Rack.java",
			"a/src/main/java/hollin/vault/Shelf.java -> a/src/main/java/hollin/vault/Rack.java (inheritance)",
		}, external: []string{"java.util"}, unresolved: []string{"hollin.lots.None"}},
	})
}

func TestLinksInTheirCorners(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"JavaScript: what runs goes before what is declared of it": {tree: `
-- dist/app.js --
import lots from './lots.js'
-- dist/lots.js --
export default 1
-- dist/lots.d.ts --
export default 1 as number
-- dist/only.d.ts --
import lots from './lots.js'
`, links: []string{"dist/app.js -> dist/lots.js", "dist/only.d.ts -> dist/lots.d.ts"}},
		"exports are taken in the order written, types as the compiler takes them": {tree: `
-- node_modules/words/package.json --
{ "name": "words", "exports": { ".": { "custom": "./src/a.ts", "types": "./dist/a.d.cts", "import": "./dist/a.js" }, "./deep": [{ "import": { "types": "./dist/deep.d.ts" } }], "./req": { "require": "./dist/req.cjs" } } }
-- node_modules/words/dist/a.d.cts --
-- node_modules/words/dist/a.js --
-- node_modules/words/dist/a.d.ts --
-- node_modules/words/dist/deep.d.ts --
-- node_modules/words/dist/req.cjs --
-- node_modules/words/src/a.ts --
-- a.ts --
import 'words'
import 'words/deep'
import 'words/req'
import 'words/none'
`, links: []string{"a.ts -> node_modules/words/dist/a.d.cts", "a.ts -> node_modules/words/dist/deep.d.ts", "a.ts -> node_modules/words/dist/req.cjs"}, unresolved: []string{"words/none"}},
		"types that others wrote stand for a package without any": {tree: `
-- node_modules/@types/lots/index.d.ts --
-- node_modules/@types/seed__box/index.d.ts --
-- a.ts --
import lots from 'lots'
import '@seed/box'
import 'other'
`, links: []string{"a.ts -> node_modules/@types/lots/index.d.ts", "a.ts -> node_modules/@types/seed__box/index.d.ts"}, external: []string{"other"}},
		"Java: nested types, members of a type, the nearest of two": {tree: `
-- desk/main/vault/Lot.java --
package vault;
public class Lot { public enum Part { A } static int weigh() { return 1; } }
-- press/main/vault/Lot.java --
package vault;
public class Lot {}
-- desk/test/app/Use.java --
package app;
import vault.Lot.Part;
import static vault.Lot.*;
class Use { Part p = Part.A; }
-- press/test/app/Other.java --
package app;
import vault.*;
class Other extends Use { Lot lot; }
`, links: []string{
			"desk/test/app/Use.java -> desk/main/vault/Lot.java",
			"desk/test/app/Use.java -> desk/main/vault/Lot.java",
			"press/test/app/Other.java -> press/main/vault/Lot.java",
			"press/test/app/Other.java -> desk/test/app/Use.java",
			"press/test/app/Other.java -> desk/test/app/Use.java (inheritance)",
		}},
		"PHP: names in every place a class stands, none where none does": {tree: `
-- a.php --
<?php
namespace App;
use Seed\Box as Crate;
function f(Lot|null $l, Crate ...$c): ?Shelf {
    try { $x instanceof Tag; Rack::count(Rack::MAX); } catch (Fault | Other $e) {}
    Lot(1); $o->Ghost; echo GHOST;
    return new Shelf;
}
-- Lot.php --
<?php namespace App; class Lot {}
-- Shelf.php --
<?php namespace App; class Shelf {}
-- Tag.php --
<?php namespace App; interface Tag {}
-- Rack.php --
<?php namespace App; class Rack {}
-- Fault.php --
<?php namespace App; class Fault {}
-- Ghost.php --
<?php namespace App; class Ghost {}
-- Max.php --
<?php namespace App; class MAX {}
-- seed/Box.php --
<?php namespace Seed; class Box {}
`, links: []string{"a.php -> seed/Box.php", "a.php -> Lot.php", "a.php -> Shelf.php", "a.php -> Fault.php", "a.php -> Rack.php", "a.php -> Tag.php"}},
		"Ruby: a module many open has no home, one named for it has": {tree: `
-- lib/vault.rb --
module Vault; end
-- lib/vault/lot.rb --
module Vault
  class Lot
    include Kept
  end
end
-- lib/vault/kept.rb --
module Vault
  module Kept; end
end
-- lib/other/kept_too.rb --
module Vault
  module Kept; end
end
-- app/use.rb --
Vault
Vault::Lot.new
File.read(1)
-- app/inner.rb --
module Vault
  ::File.join(1)
  x::File
  y = ::Vault::Lot
end
-- lib/vault/file.rb --
module Vault
  File = 1
end
-- lib/file.rb --
class File; end
`, links: []string{
			"app/inner.rb -> lib/vault/lot.rb",
			"app/use.rb -> lib/vault.rb",
			"app/use.rb -> lib/vault/lot.rb",
			"lib/vault/lot.rb -> lib/vault/kept.rb (inheritance)",
			"lib/vault/lot.rb -> lib/vault/kept.rb",
		}},
		"Go: names across packages of one folder, dots and blanks": {tree: `
-- go.mod --
module vault
-- a.go --
package vault

import (
	. "vault/box"
	_ "vault/effects"
	l "vault/lots"
	"unsafe"
)

var x = Lid + l.Weigh()
-- box/box.go --
package box

const Lid = 1
-- box/other.go --
package box

const Unused = 2
-- effects/effects.go --
package effects
-- lots/lots.go --
package lots

func Weigh() int { return 1 }
`, links: []string{"a.go -> box/box.go", "a.go -> effects/effects.go", "a.go -> lots/lots.go"}},
		"Python: the codebase is a package itself": {tree: `
-- __init__.py --
-- urls.py --
from vault.views import lots
from vault.lib.text import cut
import json
-- views/__init__.py --
-- views/lots.py --
from vault import models
import other.views
-- lib/text.py --
def cut(x): return x
-- models.py --
class Lot: pass
`, links: []string{"urls.py -> views/lots.py", "urls.py -> lib/text.py", "views/lots.py -> models.py"}, external: []string{"json", "other"}},
		"Python: the codebase is a package itself, with a module of its name in it": {tree: `
-- __init__.py --
-- vault.py --
from vault import lots
from vault.text import cut
-- text.py --
from vault.lots import Lot
def cut(x): return x
-- lots.py --
class Lot: pass
`, links: []string{"text.py -> lots.py", "vault.py -> lots.py", "vault.py -> text.py"}},
		"Python: a package's own name against a module beside it": {tree: `
-- vault/__init__.py --
from .lots import Lot
lots = Lot
-- vault/lots.py --
class Lot: pass
-- vault/box.py --
-- use.py --
import vault.box as b
from vault import box, Lot
from vault.lots import *
import os.path
if b:
    from . import none
`, links: []string{"use.py -> vault/box.py", "use.py -> vault/__init__.py", "use.py -> vault/box.py", "use.py -> vault/lots.py", "vault/__init__.py -> vault/lots.py"}, external: []string{"os"}, unresolved: []string{"."}},
	})
}

func TestImportsOfTypesAloneAreTold(t *testing.T) {
	f := syntax.Named("TypeScript").Read(syntax.How{Language: "TypeScript"}, []byte(`import type { Lot } from './a'
import { type Box, type Shelf as S } from './b'
import { type Box, weigh } from './c'
import dry, { type Seed } from './d'
import type from './e'
import './f'
export type { Lot } from './g'
export { weigh } from './h'
`))
	var only []string
	for _, im := range f.Imports {
		if im.Types {
			only = append(only, im.Text)
		}
	}
	require.Equal(t, []string{"./a", "./b", "./g"}, only)
}
