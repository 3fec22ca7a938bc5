package calls_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// found writes the links of a tree a line each: "from -> to", with "~" before
// the arrow where it is only likely, and what is done behind it where that is no
// plain call. Reads are left out unless they are asked for.
func found(t *testing.T, tree string, reads bool) []string {
	t.Helper()
	g := calls.Of(testkit.Survey(t, tree))
	out := []string{}
	for _, e := range g.Edges {
		if e.Kind == model.CallRead && !reads {
			continue
		}
		arrow, kind := " -> ", ""
		if !e.Sure {
			arrow = " ~> "
		}
		if e.Kind != model.CallPlain {
			kind = " (" + e.Kind.String() + ")"
		}
		from, to := g.Path(e.From)+" "+g.Name(e.From), g.Path(e.To)+" "+g.Name(e.To)
		// From how many lines makes no difference.
		if l := strings.TrimSpace(from) + arrow + strings.TrimSpace(to) + kind; !slices.Contains(out, l) {
			out = append(out, l)
		}
	}
	return out
}

var trees = []struct {
	name, tree string
	want       []string
}{
	{"Go: members, results, elements, embedding, locals that hide", `
-- go.mod --
module vault
-- main.go --
package main

import "vault/shelf"

func main() {
	s, err := shelf.Open("north")
	if err != nil {
		return
	}
	for _, b := range s.Boxes() {
		b.Label()
		weigh := func() {}
		weigh()
	}
	s.Close()
	weigh()
}

func weigh() {}
-- shelf/shelf.go --
package shelf

type base struct{}

func (base) Close() {}

type Box struct{ lot *Lot }

func (b *Box) Label() string { return b.lot.Name() }

type Lot struct{}

func (*Lot) Name() string { return "" }

type Shelf struct {
	base
	boxes map[string][]*Box
}

func Open(name string) (*Shelf, error) { return &Shelf{}, nil }

func (s *Shelf) Boxes() []*Box { return s.boxes["a"] }
`, []string{
		"main.go main -> main.go weigh",
		"main.go main -> shelf/shelf.go base.Close",
		"main.go main -> shelf/shelf.go Box.Label",
		"main.go main -> shelf/shelf.go Open",
		"main.go main -> shelf/shelf.go Shelf.Boxes",
		"shelf/shelf.go Box.Label -> shelf/shelf.go Lot.Name",
		"shelf/shelf.go Open -> shelf/shelf.go Shelf (construct)",
	}},
	{"Go: an interface leads to those that have all its members with the same signatures", `
-- go.mod --
module vault
-- a.go --
package vault

type Store interface {
	Put(lot string, grams int) error
	Get(lot string) (int, error)
}

type Disk struct{}

func (Disk) Put(name string, g int) error  { return nil }
func (Disk) Get(name string) (int, error) { return 0, nil }

type Half struct{}

func (Half) Put(name string, g int) error { return nil }

type Other struct{}

func (Other) Put(name string) error         { return nil }
func (Other) Get(name string) (int, error) { return 0, nil }

func Keep(s Store) { s.Put("a", 1) }
`, []string{
		"a.go Keep -> a.go Store.Put",
		"a.go Keep ~> a.go Disk.Put",
	}},
	{"Go: the type of a switch, of an assertion and of constants that repeat it", `
-- go.mod --
module vault
-- a.go --
package vault

type State int

const (
	Dry State = iota
	Wet
)

func (s State) Name() string { return "" }

type Seed struct{}

func (Seed) Sow() {}

func Look(x any) string {
	switch v := x.(type) {
	case Seed:
		v.Sow()
	case State:
		v.Name()
	}
	if s, ok := x.(Seed); ok {
		s.Sow()
	}
	return Wet.Name()
}
`, []string{
		"a.go Look -> a.go State.Name",
		"a.go Look -> a.go Seed.Sow",
	}},
	{"TypeScript: names handed on, parameter properties, what is returned, elements of lists", `
-- src/index.ts --
export { Shelf as Rack } from './shelf'
export * from './open'
-- src/shelf.ts --
export class Box {
  label() {
    return 'x'
  }
}
export class Shelf {
  boxes: Box[] = []
  first() {
    return this.boxes[0]
  }
}
-- src/open.ts --
import { Rack } from './index'
export const open = () => new Rack()
export default class Desk {
  constructor(private rack: Rack) {}
  show = () => this.rack.first().label()
  all() {
    this.rack.boxes.filter((b) => b).forEach((b) => b.label())
  }
}
-- src/main.ts --
import Desk, { open } from './open'
import * as all from './index'
const desk = new Desk(open())
desk.show()
function start() {
  const open = () => 1
  open()
  all.open().first()
}
`, []string{
		"src/main.ts -> src/open.ts Desk.show",
		"src/main.ts desk -> src/open.ts Desk (construct)",
		"src/main.ts desk -> src/open.ts open",
		"src/main.ts start -> src/open.ts open",
		"src/main.ts start -> src/shelf.ts Shelf.first",
		"src/open.ts open -> src/shelf.ts Shelf (construct)",
		"src/open.ts Desk.show -> src/shelf.ts Box.label",
		"src/open.ts Desk.show -> src/shelf.ts Shelf.first",
		"src/open.ts Desk.all -> src/shelf.ts Box.label",
	}},
	{"TSX: what is drawn, and what is called in an element", `
-- page.tsx --
import { weigh } from './scale'
function Row({ lot }: { lot: string }) {
  return <li>{lot}</li>
}
export function Page() {
  return (
    <ul title={weigh('a')}>
      <Row lot="a" />
      {['b'].map((lot) => (
        <Row key={lot} lot={weigh(lot)} />
      ))}
    </ul>
  )
}
-- scale.ts --
export function weigh(lot: string) {
  return lot
}
`, []string{
		"page.tsx Page -> page.tsx Row (render)",
		"page.tsx Page -> scale.ts weigh",
	}},
	{"JavaScript: modules that stand for one thing, and objects written out", `
-- scale.js --
module.exports = {
  weigh() { return tare() },
  clear: function () { this.weigh() }
}
function tare() {}
-- vault.js --
class Vault { open() {} }
module.exports = Vault
-- main.js --
const scale = require('./scale')
const Vault = require('./vault')
scale.weigh()
new Vault().open()
const desk = {
  show(v) { this.hide() },
  hide() {}
}
desk.show()
`, []string{
		"main.js -> vault.js Vault (construct)",
		"main.js -> vault.js Vault.open",
		"main.js -> main.js desk.show",
		"main.js -> scale.js weigh",
		"main.js desk.show -> main.js desk.hide",
		"scale.js weigh -> scale.js tare",
		"scale.js clear -> scale.js weigh",
	}},
	{"JavaScript: what comments say of types, and what is put into fields", `
-- lid.js --
class Lid { open() {} }
module.exports = Lid
-- shelf.js --
const Lid = require('./lid')
class Shelf {
  constructor(size) {
    this.lid = new Lid()
    this.size = size
    let exports
    exports = size
  }
  pick() { return this.lid.open() }
}
module.exports = Shelf
-- shapes.js --
/** @import Shelf from './shelf' */
/**
 * @typedef {object} Context what a walk has at hand
 * @property {Shelf} shelf the shelf
 */
/** @typedef {Context} Walk */
module.exports = {}
-- use.js --
/** @import Shelf, { Nothing } from './shelf' */
/** @import { Context, Walk as Way } from './shapes' */
/** @typedef {import('./lid')} Cover */
class Use {
  constructor() {
    /** @type {Shelf | undefined} */
    this.shelf = undefined
  }
  field() { this.shelf.pick() }
  cast(it) { const { lid } = /** @type {Shelf} */ (it); lid.open() }
  /**
   * @param {Cover} cover what lies on it
   * @param {Context} context
   * @returns {Shelf}
   */
  taken(cover, { shelf }) { cover.open(); shelf.pick() }
  given() { this.taken().pick() }
  /** @param {Way} way */
  named(way) { way.shelf.pick() }
  /** @param {Unknown} it */
  unknown(it) { it.pick() }
}
/** @type {Map<string, Cover>} */
const covers = new Map()
covers.get('a').open()
module.exports = Use
`, []string{
		"shelf.js Shelf.constructor -> lid.js Lid (construct)",
		"shelf.js Shelf.pick -> lid.js Lid.open",
		"use.js Use.field -> shelf.js Shelf.pick",
		"use.js Use.cast -> lid.js Lid.open",
		"use.js Use.taken -> lid.js Lid.open",
		"use.js Use.taken -> shelf.js Shelf.pick",
		"use.js Use.given -> use.js Use.taken",
		"use.js Use.given -> shelf.js Shelf.pick",
		"use.js Use.named -> shelf.js Shelf.pick",
		"use.js -> lid.js Lid.open",
	}},
	{"JavaScript: modules that are a function or a class, and what a module asks of itself", `
-- access.js --
const store = require('./store')
module.exports = async (box) => store.check(box)
-- rack.js --
const store = require('./store')
exports = module.exports = class Rack {
  weigh() { return store.again(1) }
}
-- store.js --
module.exports = exports = function open(id) { return exports.check(id) }
exports.check = async (id) => id === 3
exports.again = (id) => module.exports.check(id)
exports.also = exports.check
-- label.js --
const label = (module.exports = {
  write(seed) { return label.short(seed) },
  short: (seed) => seed.slice(0, 3),
})
-- scale.mjs --
export default {
  weigh() { return this.tare() },
  tare: () => 0,
}
-- main.js --
const access = require('./access'), Rack = require('./rack'), store = require('./store')
import scale from './scale.mjs'
function main() {
  access(1)
  new Rack().weigh()
  store(2)
  store.also(3)
  scale.weigh()
}
`, []string{
		"access.js default -> store.js check",
		"rack.js Rack.weigh -> store.js again",
		"store.js open -> store.js check",
		"store.js again -> store.js check",
		"label.js write -> label.js short",
		"scale.mjs default.weigh -> scale.mjs default.tare",
		"main.js main -> access.js default",
		"main.js main -> rack.js Rack (construct)",
		"main.js main -> rack.js Rack.weigh",
		"main.js main -> store.js open",
		"main.js main -> store.js check",
		"main.js main -> scale.mjs default.weigh",
	}},
	{"Python: self and bases, attributes, imports within functions, properties", `
-- vault/__init__.py --
from .shelf import Shelf
-- vault/shelf.py --
class Box:
    def label(self) -> str:
        return ""

class Base:
    def __init__(self):
        self.box = Box()

    def close(self):
        pass

class Shelf(Base):
    @property
    def first(self) -> Box:
        return self.box

    def show(self):
        self.close()
        super().close()
        return self.first.label()
-- main.py --
import vault
from vault import Shelf

def run(shelves: list[Shelf], one: "Shelf | None" = None):
    from vault.shelf import Box
    for s in shelves:
        s.show()
    [x.close() for x in shelves]
    Box().label()
    vault.Shelf()
    s = 1
    s.show()
`, []string{
		"main.py run -> vault/shelf.py Box (construct)",
		"main.py run -> vault/shelf.py Box.label",
		"main.py run -> vault/shelf.py Base.close",
		"main.py run -> vault/shelf.py Shelf (construct)",
		"main.py run -> vault/shelf.py Shelf.show",
		"vault/shelf.py Base.__init__ -> vault/shelf.py Box (construct)",
		"vault/shelf.py Shelf -> vault/shelf.py Base (inherit)",
		"vault/shelf.py Shelf.show -> vault/shelf.py Box.label",
		"vault/shelf.py Shelf.show -> vault/shelf.py Base.close",
	}},
	{"Java: of several methods of a name the one that takes so many arguments, wherever it stands", `
-- vault/Shelf.java --
package vault;
class Shelf {
    public void open() {}
    public void fill(Box box, int grams) {}
    public void label(String... words) {}
    public java.util.Map<String, Box> all(int at) { return null; }
}
-- vault/Box.java --
package vault;
class Box {}
-- vault/Kiln.java --
package vault;
class Kiln extends Shelf {
    protected void open(Box box) {}
    public void fill(Box box) {}
    public void label(String word) {}
    void run(Kiln other) {
        open();
        open(new Box());
        other.open();
        other.fill(new Box(), 2);
        fill(this.<Box>pick(1, 2));
        label("a", "b");
        other.label("a");
        all(new java.util.HashMap<String, Box>().size());
    }
    <T> T pick(int a, int b) { return null; }
}
`, []string{
		"vault/Kiln.java Kiln -> vault/Shelf.java Shelf (inherit)",
		"vault/Kiln.java Kiln.run -> vault/Box.java Box (construct)",
		"vault/Kiln.java Kiln.run -> vault/Kiln.java Kiln.fill",
		"vault/Kiln.java Kiln.run -> vault/Kiln.java Kiln.label",
		"vault/Kiln.java Kiln.run -> vault/Kiln.java Kiln.open",
		"vault/Kiln.java Kiln.run -> vault/Kiln.java Kiln.pick",
		"vault/Kiln.java Kiln.run -> vault/Shelf.java Shelf.all",
		"vault/Kiln.java Kiln.run -> vault/Shelf.java Shelf.fill",
		"vault/Kiln.java Kiln.run -> vault/Shelf.java Shelf.label",
		"vault/Kiln.java Kiln.run -> vault/Shelf.java Shelf.open",
	}},
	{"Java: of methods that take as many, which one is meant is likely at most", `
-- vault/Node.java --
package vault;
class Node {
    void hang(Node other) {}
    void turn() {}
    void dry() {}
}
-- vault/Lid.java --
package vault;
class Lid extends Node {
    void hang(String text) {}
    @Override
    void turn() {}
    void shut(int n) {}
    void run(Lid lid) {
        lid.hang("a");
        lid.turn();
        lid.dry();
        lid.shut(1);
    }
}
-- vault/Check.java --
package vault;

import org.moor.Base;

class Check extends Base {
    void same(Node a, Node b) {}
    void same(Lid a, Lid b) {}
    void one(Node a) {}
    void run() {
        same("a", "b");
        one(null);
    }
}
`, []string{
		"vault/Check.java Check.run -> vault/Check.java Check.one",
		"vault/Check.java Check.run ~> vault/Check.java Check.same",
		"vault/Lid.java Lid -> vault/Node.java Node (inherit)",
		"vault/Lid.java Lid.run -> vault/Lid.java Lid.shut",
		"vault/Lid.java Lid.run -> vault/Lid.java Lid.turn",
		"vault/Lid.java Lid.run -> vault/Node.java Node.dry",
		"vault/Lid.java Lid.run ~> vault/Lid.java Lid.hang",
	}},
	{"Java: fields, the same package, static imports, nested types, who implements", `
-- vault/Shelf.java --
package vault;

import static vault.Scale.weigh;
import java.util.List;

public class Shelf {
    private final Store store;
    private List<Box> boxes;

    Shelf(Store store) { this.store = store; }

    void fill() {
        for (Box b : boxes) b.label();
        boxes.stream().filter(b -> b.light()).forEach(Box::label);
        store.put(weigh("a"));
        var lid = new Box.Lid();
        lid.shut();
        close();
    }

    void close() {}
}
-- vault/Box.java --
package vault;

class Box {
    String label() { return ""; }
    boolean light() { return true; }
    static class Lid { void shut() {} }
}
-- vault/Scale.java --
package vault;

class Scale { static int weigh(String lot) { return 0; } }
-- vault/Store.java --
package vault;

interface Store { void put(int grams); }
-- vault/Disk.java --
package vault;

class Disk implements Store { public void put(int grams) {} }
`, []string{
		"vault/Disk.java Disk -> vault/Store.java Store (inherit)",
		"vault/Shelf.java Shelf.fill -> vault/Box.java Box.label",
		"vault/Shelf.java Shelf.fill -> vault/Box.java Box.light",
		"vault/Shelf.java Shelf.fill -> vault/Box.java Box.Lid (construct)",
		"vault/Shelf.java Shelf.fill -> vault/Box.java Box.Lid.shut",
		"vault/Shelf.java Shelf.fill ~> vault/Disk.java Disk.put",
		"vault/Shelf.java Shelf.fill -> vault/Scale.java Scale.weigh",
		"vault/Shelf.java Shelf.fill -> vault/Shelf.java Shelf.close",
		"vault/Shelf.java Shelf.fill -> vault/Store.java Store.put",
	}},
	{"PHP: promotion, statics, parents, traits, namespaces, closures", `
-- src/Shelf.php --
<?php
namespace Vault;

use Vault\Data\{Store, Box};
use Vault\Tools\Scale as Weigher;

class Shelf extends Base {
    use Labels;
    private Box $box;
    public function __construct(private Store $store, ?string $name = null) {
        parent::__construct();
        $this->lid = new Weigher();
    }
    public function fill(array $lots): void {
        foreach ($lots as $lot) { $this->store->put($lot); }
        $this->box->open();
        $this->lid->tare();
        Weigher::clear();
        $this->label();
        $made = self::make();
        $made->close();
        array_map(function ($l) { return helper($l); }, $lots);
    }
    public static function make(): self { return new self(new Store()); }
    public function close() {}
}
function helper($x) { return \Vault\Data\plain($x); }
-- src/Base.php --
<?php
namespace Vault;
abstract class Base { public function __construct() {} }
-- src/Labels.php --
<?php
namespace Vault;
trait Labels { public function label() {} }
-- src/Data.php --
<?php
namespace Vault\Data;
class Store { public function put($lot) {} }
class Box { public function open() {} }
function plain($x) {}
-- src/Scale.php --
<?php
namespace Vault\Tools;
class Scale { public function tare() {} public static function clear() {} }
`, []string{
		"src/Shelf.php Shelf -> src/Base.php Base (inherit)",
		"src/Shelf.php Shelf -> src/Labels.php Labels (inherit)",
		"src/Shelf.php Shelf.__construct -> src/Base.php Base.__construct",
		"src/Shelf.php Shelf.__construct -> src/Scale.php Scale (construct)",
		"src/Shelf.php Shelf.fill -> src/Data.php Box.open",
		"src/Shelf.php Shelf.fill -> src/Data.php Store.put",
		"src/Shelf.php Shelf.fill -> src/Labels.php Labels.label",
		"src/Shelf.php Shelf.fill -> src/Scale.php Scale.clear",
		"src/Shelf.php Shelf.fill -> src/Scale.php Scale.tare",
		"src/Shelf.php Shelf.fill -> src/Shelf.php Shelf.make",
		"src/Shelf.php Shelf.fill -> src/Shelf.php Shelf.close",
		"src/Shelf.php Shelf.fill -> src/Shelf.php helper",
		"src/Shelf.php Shelf.make -> src/Shelf.php Shelf (construct)",
		"src/Shelf.php Shelf.make -> src/Data.php Store (construct)",
		"src/Shelf.php helper -> src/Data.php plain",
	}},
	{"Ruby: what a name is built of, modules, members without parentheses", `
-- app/lot.rb --
class Lot < Base
  def keep
    check
    @scale = Scale.new
    @scale.weigh(self)
    shelf = Shelf.new
    shelf.put self
    Label.print(self)
  end

  def check; end
end
-- app/base.rb --
class Base
  def close; end
end
-- app/shelf.rb --
class Shelf
  def put(lot)
    tidy()
  end

  def tidy; end
end
-- app/scale.rb --
class Scale
  def weigh(lot); end
end
-- app/label.rb --
class Label
  def self.print(lot); end
end
`, []string{
		"app/lot.rb Lot -> app/base.rb Base (inherit)", "app/lot.rb Lot.keep -> app/lot.rb Lot.check",
		"app/lot.rb Lot.keep -> app/scale.rb Scale (construct)",
		"app/lot.rb Lot.keep -> app/scale.rb Scale.weigh",
		"app/lot.rb Lot.keep -> app/shelf.rb Shelf (construct)",
		"app/lot.rb Lot.keep -> app/shelf.rb Shelf.put",
		"app/lot.rb Lot.keep -> app/label.rb Label.print",
		"app/shelf.rb Shelf.put -> app/shelf.rb Shelf.tidy",
	}},
	{"Kotlin: fields of a constructor, classes that are called", `
-- src/Shelf.kt --
package vault

class Shelf(private val store: Store) {
    fun fill(lot: Lot) {
        store.put(lot)
        lot.seal()
        val box = Box()
        box.open()
        tidy()
    }

    private fun tidy() {}
}

class Store { fun put(lot: Lot) {} }
class Lot { fun seal() {} }
class Box { fun open() {} }
`, []string{
		"src/Shelf.kt Shelf.fill -> src/Shelf.kt Store.put",
		"src/Shelf.kt Shelf.fill -> src/Shelf.kt Lot.seal",
		"src/Shelf.kt Shelf.fill -> src/Shelf.kt Box (construct)",
		"src/Shelf.kt Shelf.fill -> src/Shelf.kt Box.open",
		"src/Shelf.kt Shelf.fill -> src/Shelf.kt Shelf.tidy",
	}},
	{"C: a name that is there once leads to where it is written out, one that is there twice nowhere", `
-- src/main.c --
#include "shelf.h"
static int twice(void) { return 1; }
int main(void) {
  shelf_open(1);
  if (twice()) return both();
  return 0;
}
-- src/shelf.h --
int shelf_open(int n);
-- src/shelf.c --
#include "shelf.h"
int shelf_open(int n) {
  return n;
}
-- src/a.c --
int both(void) {
  return 1;
}
-- src/b.c --
int both(void) {
  return 2;
}
`, []string{
		"src/main.c main -> src/shelf.c shelf_open",
		"src/main.c main -> src/main.c twice",
	}},
	{"C#: injection, properties, awaited results, bodies that are expressions", `
-- Vault/Shelf.cs --
using Vault.Data;
namespace Vault.Shelves
{
    public class ShelfService
    {
        private readonly IBoxes _boxes;
        public Scale Scale { get; set; }
        public ShelfService(IBoxes boxes) { _boxes = boxes; }
        public async Task<Box> Find(int id)
        {
            var box = await _boxes.FindAsync(id);
            box.Open();
            Scale.Tare();
            return Check(box);
        }
        private Box Check(Box b) => b.Seal();
    }
    public class Scale { public void Tare() { } }
}
-- Vault/Data.cs --
namespace Vault.Data
{
    public interface IBoxes { Task<Box> FindAsync(int id); }
    public class Boxes : IBoxes { public async Task<Box> FindAsync(int id) { return new Box(); } }
    public class Box { public void Open() { } public Box Seal() { return this; } }
}
`, []string{
		"Vault/Data.cs Boxes -> Vault/Data.cs IBoxes (inherit)",
		"Vault/Data.cs Boxes.FindAsync -> Vault/Data.cs Box (construct)",
		"Vault/Shelf.cs ShelfService.Find -> Vault/Data.cs IBoxes.FindAsync",
		"Vault/Shelf.cs ShelfService.Find ~> Vault/Data.cs Boxes.FindAsync",
		"Vault/Shelf.cs ShelfService.Find -> Vault/Data.cs Box.Open",
		"Vault/Shelf.cs ShelfService.Find -> Vault/Shelf.cs ShelfService.Check",
		"Vault/Shelf.cs ShelfService.Find -> Vault/Shelf.cs Scale.Tare",
		"Vault/Shelf.cs ShelfService.Check -> Vault/Data.cs Box.Seal",
	}},
}

func TestWhoCallsWhom(t *testing.T) {
	for _, c := range trees {
		t.Run(c.name, func(t *testing.T) { require.ElementsMatch(t, c.want, found(t, c.tree, false)) })
	}
}

// TestWhatLeadsNowhereIsCounted: a call that can not be told is counted, one
// that leads out of the codebase is told.
func TestWhatLeadsNowhereIsCounted(t *testing.T) {
	g := calls.Of(testkit.Survey(t, "-- go.mod --\nmodule a\n-- a.go --\npackage a\n\nimport \"fmt\"\n\nfunc f(x any) {\n\tfmt.Println()\n\tlost.Call()\n}\n"))
	require.Empty(t, g.Edges)
	require.Equal(t, map[string]int{"a.go": 1}, g.Told)
	require.Equal(t, map[string]int{"a.go": 1}, g.Untold)
}

// TestWhatHasNoEndIsGivenUp: rings of types and of values, and bases by the
// hundred, cost neither the survey nor its time.
func TestWhatHasNoEndIsGivenUp(t *testing.T) {
	var wide strings.Builder
	for i := range 60 {
		fmt.Fprintf(&wide, "class C%d(", i)
		for k := range 60 {
			fmt.Fprintf(&wide, "C%d, ", k)
		}
		fmt.Fprintf(&wide, "):\n    def m%d(self):\n        self.lost()\n", i)
	}
	for name, tree := range map[string]string{
		"a class that is its own base": "-- a.py --\nclass A(B):\n    def f(self):\n        self.g()\n\nclass B(A):\n    pass\n",
		"values in a ring":             "-- a.ts --\nexport const a = b\nexport const b = a\na.c()\n",
		"aliases in a ring":            "-- go.mod --\nmodule a\n-- a.go --\npackage a\n\ntype A B\ntype B A\n\nfunc f(a A) { a.g() }\n",
		"handed on in a ring":          "-- a.ts --\nexport * from './b'\n-- b.ts --\nexport * from './a'\n-- c.ts --\nimport { x } from './a'\nx()\n",
		"many bases each":              "-- a.py --\n" + wide.String(),
		"recursion":                    "-- a.go --\npackage a\n\nfunc f() { f() }\n",
	} {
		t.Run(name, func(t *testing.T) {
			for _, l := range found(t, tree, false) {
				require.NotContains(t, l, "lost")
			}
		})
	}
}

// TestTheOrderOfFilesChangesNothing: the same bytes give the same links.
func TestTheOrderOfFilesChangesNothing(t *testing.T) {
	tree := trees[7].tree
	first := found(t, tree, true)
	for range 5 {
		require.Equal(t, first, found(t, tree, true))
	}
}
