package calls_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// small are files of one language each, tricky first: what is called is written
// down by hand as "from -> to" with the names alone.
var small = []struct {
	name, file, text string
	want             []string
}{
	// Go
	{"a method value, handed on and called", "a.go", `
package a

type Desk struct{}

func (d *Desk) Show() {}
func run(f func()) { f() }
func main() {
	d := &Desk{}
	run(d.Show)
	show := d.Show
	show()
}
`, []string{"main -> run", "main -> Desk.Show", "main -> Desk (construct)"}},
	{"a function that gives several, and one that gives a function", "a.go", `
package a

type Box struct{}

func (Box) Open() {}
func pair() (int, Box, error) { return 0, Box{}, nil }
func maker() func() Box { return func() Box { return Box{} } }
func main() {
	_, b, _ := pair()
	b.Open()
	maker()().Open()
}
`, []string{"main -> pair", "main -> maker", "main -> Box.Open", "pair -> Box (construct)", "maker -> Box (construct)"}},
	{"channels, pointers to maps, keys of maps", "a.go", `
package a

type Lot struct{}

func (Lot) Sow() {}

type Key struct{}

func (Key) Turn() {}
func main(in <-chan Lot, by *map[Key][]Lot) {
	l := <-in
	l.Sow()
	for k, lots := range *by {
		k.Turn()
		lots[0].Sow()
	}
}
`, []string{"main -> Lot.Sow", "main -> Key.Turn"}},
	{"a local hides a function of its name, and only in its block", "a.go", `
package a

func weigh() {}
func other() {}
func main() {
	{
		weigh := other
		weigh()
	}
	weigh()
}
`, []string{"main -> other", "main -> weigh"}},
	{"generic functions and types", "a.go", `
package a

type List[T any] struct{ items []T }

func (l *List[T]) Add(x T) {}
func newList[T any]() *List[T] { return &List[T]{} }
func main() {
	l := newList[int]()
	l.Add(1)
}
`, []string{"main -> newList", "main -> List.Add", "newList -> List (construct)"}},
	{"an embedded pointer, and a method that hides the embedded one", "a.go", `
package a

type base struct{}

func (*base) Close() {}
func (*base) Name() {}

type Desk struct{ *base }

func (Desk) Name() {}
func main(d Desk) {
	d.Close()
	d.Name()
	d.base.Name()
}
`, []string{"main -> base.Close", "main -> Desk.Name", "main -> base.Name"}},
	{"conditions before a brace build nothing", "a.go", `
package a

type T struct{ ok bool }

func check(t T) bool { return t.ok }
func main(x, T2 T) {
	if x == T2 {
		check(x)
	}
	for check(T{ok: true}) {
	}
	switch {
	case check(x):
	}
}
`, []string{"main -> check", "main -> T (construct)"}},
	{"deferred, in goroutines, in literals of literals", "a.go", `
package a

type Stop struct{ run func() }

func a() {}
func b() {}
func c() {}
func main() {
	defer a()
	go func() { b() }()
	_ = []Stop{{run: c}, {run: func() { a() }}}
}
`, []string{"main -> a", "main -> b"}},

	// TypeScript and JavaScript
	{"this in functions of objects and arrow functions of classes", "a.ts", `
class Desk {
  tare() {}
  weigh = () => { this.tare() }
  all() { [1].forEach(() => this.weigh()) }
}
`, []string{"Desk.weigh -> Desk.tare", "Desk.all -> Desk.weigh"}},
	{"what a class is built upon, and its constructor", "a.ts", `
class Base {
  constructor(n: number) {}
  close() {}
}
class Desk extends Base {
  constructor() { super(1); super.close() }
  close() {}
}
`, []string{"Desk -> Base (inherit)", "Desk.constructor -> Base.constructor (construct)", "Desk.constructor -> Base.close"}},
	{"unions with nothing, arrays, promises, maps", "a.ts", `
class Lot { sow() {} }
function find(id: string): Promise<Lot | undefined> { return null as any }
async function run(all: Lot[], by: Map<string, Lot>, one?: Lot | null) {
  const l = await find('a')
  l?.sow()
  one!.sow()
  for (const x of all) x.sow()
  by.get('a')!.sow()
}
`, []string{"run -> find", "run -> Lot.sow"}},
	{"destructured parameters, defaults, aliases in patterns", "a.ts", `
interface Tools { say(text: string): void }
function talk({ say: tell }: Tools, other = make()) { tell('a'); other.say('b') }
function make(): Tools { return null as any }
`, []string{"talk -> Tools.say", "talk -> make"}},
	{"what a function returns without saying so", "a.ts", `
class Lot { sow() {} }
const lots = () => [new Lot()]
function first() { return lots()[0] }
function run() { first().sow() }
`, []string{"lots -> Lot (construct)", "first -> lots", "run -> first", "run -> Lot.sow"}},
	{"a ternary, a nullish default, a cast, brackets around", "a.ts", `
class A { go() {} }
class B { go() {} }
function run(x: unknown, y?: A) {
  (x as A).go()
  ;(y ?? new A()).go()
  const b = x ? new B() : null
  b.go()
}
`, []string{"run -> A.go", "run -> A (construct)", "run -> B (construct)", "run -> B.go"}},
	{"names in strings, comments and keys call nothing", "a.ts", `
function weigh() {}
function run() {
  const o = { weigh: 1, 'tare()': 2 }
  // weigh()
  return 'weigh()' + o.weigh
}
`, []string{}},
	{"templates, tagged and plain", "a.js", `
function tag(parts) {}
function name() {}
function run() { tag` + "`a ${name()} b`" + `; return ` + "`${name()}`" + ` }
`, []string{"run -> tag", "run -> name"}},
	{"getters, static members, private names", "a.ts", `
class Vault {
  static open() { return new Vault() }
  #lock() {}
  shut() { this.#lock() }
}
function run() { Vault.open().shut() }
`, []string{"Vault.open -> Vault (construct)", "Vault.shut -> Vault.#lock", "run -> Vault.open", "run -> Vault.shut"}},
	{"namespaces and interfaces with functions for members", "a.ts", `
namespace scale {
  export function tare() {}
  export function weigh() { tare() }
}
interface Props { onPick: (id: string) => void }
function run(p: Props) { p.onPick('a') }
`, []string{"scale.weigh -> scale.tare", "run -> Props.onPick"}},
	{"handed through then and map", "a.js", `
class Lot { sow() {} }
/** nothing */
function all() { return [new Lot()] }
function run() { all().map((l) => l.sow()) }
`, []string{"all -> Lot (construct)", "run -> all", "run -> Lot.sow"}},
	{"labels, regular expressions and divisions", "a.js", `
function f() { return 1 }
function run(x) {
  again: for (;;) { if (/f()/.test(x)) break again }
  return x / f() / 2
}
`, []string{"run -> f"}},

	// Python
	{"class attributes, class methods, what is built by cls", "a.py", `
class Lot:
    kind = None

    @classmethod
    def make(cls):
        return cls()

    def sow(self):
        pass

def run():
    Lot.make().sow()
`, []string{"Lot.make -> Lot (construct)", "run -> Lot.make", "run -> Lot.sow"}},
	{"what an attribute is set to in a constructor", "a.py", `
class Scale:
    def tare(self): pass

class Desk:
    def __init__(self, scale=None):
        self.scale = scale or Scale()

    def run(self):
        self.scale.tare()
`, []string{"Desk.__init__ -> Scale (construct)", "Desk.run -> Scale.tare"}},
	{"annotations in quotes, optional ones, lists of them", "a.py", `
class Lot:
    def sow(self): pass

def a(x: "Lot"): x.sow()
def b(x: Optional[Lot] = None): x.sow()
def c(xs: dict[str, list[Lot]]): xs["a"][0].sow()
`, []string{"a -> Lot.sow", "b -> Lot.sow", "c -> Lot.sow"}},
	{"comprehensions, lambdas, decorators, conditional expressions", "a.py", `
def mark(f): return f
def a(x): pass
def b(): pass

@mark
def run(xs):
    ys = [a(x) for x in xs if b()]
    f = lambda y: a(y)
    return b() if ys else None
`, []string{"run -> a", "run -> b"}},
	{"functions within functions are definitions of their own", "a.py", `
def outer():
    def inner():
        other()
    inner()

def other(): pass
`, []string{"outer.inner -> other", "outer -> outer.inner"}},
	{"with and except bind what they name", "a.py", `
class Store:
    def put(self): pass

class Full(Exception):
    def tell(self): pass

def run():
    with Store() as s:
        s.put()
    try:
        pass
    except Full as e:
        e.tell()
`, []string{"run -> Store (construct)", "run -> Store.put", "run -> Full.tell"}},
	{"keyword arguments are no names, and strings call nothing", "a.py", `
def weigh(lot=None): pass

def run():
    weigh(lot=tare())
    "weigh()"

def tare(): pass
`, []string{"run -> weigh", "run -> tare"}},

	// Java
	{"overloads, chained builders, casts", "A.java", `
class Builder {
  Builder with(int n) { return this; }
  Builder with(String s) { return this; }
  Lot build() { return new Lot(); }
}
class Lot { void sow() {} }
class A {
  void run(Object o) {
    new Builder().with(1).with("a").build().sow();
    ((Lot) o).sow();
    if (o instanceof Lot l) { l.sow(); }
  }
}
`, []string{"Builder.build -> Lot (construct)", "A.run -> Builder (construct)", "A.run -> Builder.with", "A.run -> Builder.build", "A.run -> Lot.sow"}},
	{"classes without a name, and lambdas", "A.java", `
import java.util.*;
class A {
  void tare() {}
  void run(List<A> all) {
    Runnable r = new Runnable() { public void run() { tare(); } };
    all.forEach(a -> a.tare());
    all.forEach(A::tare);
  }
}
`, []string{"A.run -> A.tare"}},
	{"records, enumerations with members, static nested classes", "A.java", `
enum State { DRY, WET; boolean dry() { return this == DRY; } }
record Lot(State state) { boolean dry() { return state.dry(); } }
class A {
  static class Desk { void show() {} }
  void run(Lot l) { l.dry(); State.WET.dry(); new A.Desk().show(); }
}
`, []string{"Lot.dry -> State.dry", "A.run -> Lot.dry", "A.run -> State.dry", "A.run -> A.Desk (construct)", "A.run -> A.Desk.show"}},
	{"fields of a class built upon, and calls of its constructor", "A.java", `
class Base { protected Scale scale; Base(int n) {} void close() {} }
class Scale { void tare() {} }
class A extends Base {
  A() { super(1); }
  void run() { scale.tare(); super.close(); close(); }
}
`, []string{"A -> Base (inherit)", "A.run -> Scale.tare", "A.run -> Base.close"}},
	{"a local hides a field of another type", "A.java", `
class X { void go() {} }
class Y { void go() {} }
class A {
  X it;
  void run() { Y it = new Y(); it.go(); }
  void other() { it.go(); }
}
`, []string{"A.run -> Y (construct)", "A.run -> Y.go", "A.other -> X.go"}},

	// C#
	{"properties with bodies, indexers, null-conditional calls", "A.cs", `
class Scale { public void Tare() {} public static Scale Of(int n) => new Scale(); }
class A {
    Scale Main => Scale.Of(1);
    private Scale? _other;
    public void Run() { Main.Tare(); _other?.Tare(); this.Main.Tare(); }
}
`, []string{"Scale.Of -> Scale (construct)", "A.Main -> Scale.Of", "A.Run -> Scale.Tare"}},
	{"object initialisers, patterns, out variables", "A.cs", `
class Lot { public Box Box { get; set; } public void Sow() {} }
class Box { public void Open() {} }
class A {
    bool Find(out Lot lot) { lot = new Lot { Box = new Box() }; return true; }
    void Run(object o) {
        if (Find(out Lot l)) l.Sow();
        if (o is Lot x) x.Box.Open();
    }
}
`, []string{"A.Find -> Lot (construct)", "A.Find -> Box (construct)", "A.Run -> A.Find", "A.Run -> Lot.Sow", "A.Run -> Box.Open"}},
	{"lists walked by functions, foreach with var", "A.cs", `
using System.Collections.Generic;
class Lot { public void Sow() {} public bool Dry() => true; }
class A {
    private readonly List<Lot> _lots = new();
    void Run() {
        foreach (var l in _lots) l.Sow();
        _lots.Where(l => l.Dry()).First().Sow();
    }
}
`, []string{"A.Run -> Lot.Sow", "A.Run -> Lot.Dry"}},
	{"base constructors and overrides", "A.cs", `
class Base { public Base(int n) {} public virtual void Close() {} }
class A : Base {
    public A() : base(Count()) {}
    static int Count() => 1;
    public override void Close() { base.Close(); }
}
`, []string{"A -> Base (inherit)", "A.A -> A.Count", "A.Close -> Base.Close"}},

	// PHP
	{"closures that take variables along, arrow functions", "a.php", `<?php
class Lot { public function sow() {} }
function tare() {}
function run(array $lots, Lot $one) {
    $f = function () use ($one) { $one->sow(); };
    $g = fn($x) => tare();
}
`, []string{"run -> Lot.sow", "run -> tare"}},
	{"what is caught, what is built and called at once, nullsafe calls", "a.php", `<?php
class Full extends Exception { public function tell() {} }
class Lot { public function sow(): self { return $this; } }
function run(?Lot $l) {
    try { (new Lot())->sow()->sow(); } catch (Full $e) { $e->tell(); }
    $l?->sow();
}
`, []string{"run -> Lot (construct)", "run -> Lot.sow", "run -> Full.tell"}},
	{"text between the code, and names in other cases", "a.php", `<b>weigh()</b>
<?php
function weigh() {}
function run() { weigh(); ?> <i>tare()</i> <?php tare(); }
function tare() {}
`, []string{"run -> weigh", "run -> tare"}},

	// Ruby
	{"class methods, modules, what self calls", "a.rb", `
module Vault
  class Lot
    def self.find(id)
      new
    end

    def sow
      self.dry
      water
    end

    def dry; end
    def water; end
  end
end
`, []string{"Vault.Lot.find -> Vault.Lot (construct)", "Vault.Lot.sow -> Vault.Lot.dry", "Vault.Lot.sow -> Vault.Lot.water"}},
	{"a member that several have is told of none", "a.rb", `
class A
  def go; end
end
class B
  def go; end
end
def run(x)
  x.go
end
`, []string{}},

	// Kotlin, Rust, C++, Perl, GDScript: by names
	{"objects and functions at the top", "a.kt", `
fun tare() {}
object Scale { fun weigh() { tare() } }
fun run(s: Scale) { Scale.weigh(); s.weigh() }
`, []string{"Scale.weigh -> tare", "run -> Scale.weigh"}},
	{"methods of a type in several blocks", "a.rs", `
struct Lot { n: u8 }
impl Lot {
    fn new() -> Lot { Lot { n: 1 } }
    fn sow(&self) { self.dry(); helper(); }
}
impl Lot { fn dry(&self) {} }
fn helper() {}
fn run(l: &Lot) { l.sow(); Lot::new(); }
`, []string{"Lot.sow -> Lot.dry", "Lot.sow -> helper", "run -> Lot.sow", "run -> Lot.new"}},
	{"functions of a script", "a.gd", `
extends Node

func _ready():
	tare(1)
	self.weigh()

func tare(n):
	pass

func weigh():
	pass
`, []string{"_ready -> tare"}},
	{"functions of a package, called with its name", "A.pm", `
package A;
sub tare { return 1 }
sub run {
    my $self = shift;
    tare(1);
    A::tare(2);
}
1;
`, []string{"A.run -> A.tare"}},
}

func TestWhoCallsWhomInSmallFiles(t *testing.T) {
	for _, c := range small {
		t.Run(c.file+": "+c.name, func(t *testing.T) {
			got := []string{}
			for _, l := range found(t, "-- "+c.file+" --\n"+strings.TrimPrefix(c.text, "\n"), false) {
				got = append(got, strings.ReplaceAll(l, c.file+" ", ""))
			}
			require.ElementsMatch(t, c.want, got)
		})
	}
}
