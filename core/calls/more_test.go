package calls_test

import "testing"

// more are further files in Go, TypeScript, Python and Java, written down before
// any was run; see four for what is missed.
var more = []smallFile{
	// Go
	{"a function in a field, a map of functions, and one that is called at once", "a.go", `
package a

func tare() {}
func weigh() {}

type Desk struct{ run func() }

var by = map[string]func(){"tare": tare}

func main() {
	d := Desk{run: weigh}
	d.run()
	by["tare"]()
	func() { tare() }()
}
`, []string{"main -> Desk (construct)", "main -> tare"}, nil},
	{"a type switch, an assertion with two results, a named result", "a.go", `
package a

type A struct{}

func (A) Go() {}

type B struct{}

func (*B) Go() {}
func find() (a A, err error) { return }
func main(x any) {
	switch v := x.(type) {
	case A:
		v.Go()
	case *B:
		v.Go()
	}
	if a, ok := x.(A); ok {
		a.Go()
	}
	a, _ := find()
	a.Go()
}
`, []string{"main -> A.Go", "main -> B.Go", "main -> find"}, nil},
	{"an alias, a type of a type, and a method of an embedded interface", "a.go", `
package a

type Store interface{ Put() }
type Shelf struct{ Store }
type Box = Shelf
type Crate Shelf

func (Crate) Seal() {}
func main(b Box, c Crate) {
	b.Put()
	c.Seal()
}
`, []string{"main -> Store.Put", "main -> Crate.Seal"}, nil},
	{"slices of maps of slices", "a.go", `
package a

type Lot struct{}

func (Lot) Sow() {}
func main(all []map[string][]Lot) {
	for _, m := range all {
		for _, lots := range m {
			for i := range lots {
				lots[i].Sow()
			}
		}
	}
	all[0]["a"][1:][0].Sow()
}
`, []string{"main -> Lot.Sow"}, nil},

	// TypeScript
	{"a class with an arrow for a member, and one handed on", "a.ts", `
class Desk {
  run = () => this.tare()
  tare() {}
}
function all(f: () => void) { f() }
const d = new Desk()
all(d.run)
`, []string{"Desk.run -> Desk.tare", "d -> Desk (construct)", "-> all"}, nil},
	{"what a guard narrows, and optional calls", "a.ts", `
class A { go() {} }
class B { stop() {} }
function run(x: A | B, y?: A) {
  if (x instanceof A) x.go()
  else x.stop()
  y?.go()
  y!.go()
}
`, []string{"run -> A.go", "run -> B.stop"}, nil},
	{"what isinstance asks for, and asks not to be", "a.py", `
class A:
    def go(self): pass

class B(A):
    def dry(self): pass

class C:
    def dry(self): pass

def run(x: A, y, z: A | None, w):
    if isinstance(x, B) and x.dry():
        x.dry()
    x.dry()
    x.go()
    if not isinstance(y, (B, C)):
        return
    y.dry()
    if isinstance(w, A): w.go()
    one = z or C()
    one.dry()
`, []string{"B -> A (inherit)", "run -> B.dry", "run -> A.go", "run -> C.dry", "run -> C (construct)"}, nil},
	{"a type that is one of two, and what is caught of two", "a.py", `
from typing import Union

class A(Exception):
    def go(self): pass

class B(Exception):
    def go(self): pass

def run(x: Union[A, B, None]):
    try:
        x.go()
    except (A, B) as e:
        e.go()
`, []string{"run -> A.go", "run -> B.go"}, nil},
	{"values that are called", "a.py", `
class Press:
    def __call__(self, x): return Lot()

class Lot:
    def sow(self): pass

def run(press: Press):
    press(3).sow()
    Press()(4)
`, []string{"Press.__call__ -> Lot (construct)", "run -> Press.__call__", "run -> Lot.sow", "run -> Press (construct)"}, nil},
	{"a fault that is one of two", "A.java", `
class Full extends Exception { void tell() {} }
class Dry extends Exception { void tell() {} }
class A {
    void run() { try { go(); } catch (Full | Dry e) { e.tell(); } }
    void go() throws Full, Dry {}
}
`, []string{"A.run -> A.go", "A.run -> Full.tell", "A.run -> Dry.tell"}, nil},
	{"a function that gives an object written out", "a.ts", `
function scales() {
  return { tare() { zero() }, weigh: () => 3 }
}
function zero() {}
export function run() {
  scales().tare()
  const { weigh } = scales()
  weigh()
}
`, []string{"run -> scales", "scales -> zero"}, nil},
	{"static blocks, accessors and computed names", "a.ts", `
class Vault {
  static #all: Vault[] = []
  static first() { return Vault.#all[0] }
  get top() { return Vault.first() }
  ['open']() { this.top.shut() }
  shut() {}
}
`, []string{"Vault.top -> Vault.first"}, []string{"Vault.open -> Vault.shut"}},
	{"what is awaited, chained and caught", "a.ts", `
class Lot { async sow(): Promise<Lot> { return this } }
async function find(): Promise<Lot | undefined> { return undefined }
async function run() {
  const l = await find()
  await (await l?.sow())?.sow()
  try { await l!.sow() } catch (e) { fail(e) } finally { done() }
}
function fail(e: unknown) {}
function done() {}
`, []string{"run -> find", "run -> Lot.sow", "run -> fail", "run -> done"}, nil},
	{"names in types and strings call nothing", "a.ts", `
interface tare { (x: number): void }
type weigh = () => void
function tare2() {}
export function run(f: tare, g: weigh) {
  const s = 'tare2()'
  f(1)
  g()
}
`, []string{}, nil},

	// Python
	{"super, a class method and a static one", "a.py", `
class Base:
    def open(self):
        pass

    @staticmethod
    def check(x):
        pass


class Vault(Base):
    @classmethod
    def make(cls):
        return cls()

    def open(self):
        super().open()
        self.check(1)
        Vault.make().open()
`, []string{"Vault -> Base (inherit)", "Vault.make -> Vault (construct)", "Vault.open -> Base.open", "Vault.open -> Base.check", "Vault.open -> Vault.make", "Vault.open -> Vault.open"}, nil},
	{"walrus, starred, and a default that is called", "a.py", `
class Lot:
    def sow(self):
        pass


def find() -> Lot:
    return Lot()


def run(a=find()):
    if (l := find()):
        l.sow()
    first, *rest = [find()]
    rest.clear()
`, []string{"find -> Lot (construct)", "run -> find", "run -> Lot.sow"}, nil},
	{"a property, and what it gives", "a.py", `
class Scale:
    def tare(self):
        pass


class Desk:
    @property
    def scale(self) -> Scale:
        return Scale()

    def run(self):
        self.scale.tare()
`, []string{"Desk.scale -> Scale (construct)", "Desk.run -> Scale.tare"}, nil},
	{"match, and what is caught there", "a.py", `
class Lot:
    def sow(self):
        pass


def run(x):
    match x:
        case Lot() as l:
            l.sow()
        case _:
            stop()


def stop():
    pass
`, []string{"run -> stop", "run -> Lot.sow"}, nil},
	{"generators, and what a list of a type holds", "a.py", `
class Lot:
    def sow(self):
        pass

    def dry(self):
        pass


def run(lots: list[Lot], by: dict[str, Lot]):
    [l.sow() for l in lots if l.dry()]
    for name, l in by.items():
        l.sow()
    lots[0].dry()
`, []string{"run -> Lot.sow", "run -> Lot.dry"}, nil},

	// Java
	{"var, streams, references to methods", "A.java", `
import java.util.*;
class Lot { void sow() {} boolean dry() { return true; } static Lot of(int x) { return new Lot(); } }
class A {
    void run(List<Lot> lots) {
        var l = Lot.of(1);
        l.sow();
        lots.forEach(Lot::sow);
        lots.stream().filter(x -> x.dry()).forEach(x -> x.sow());
    }
}
`, []string{"Lot.of -> Lot (construct)", "A.run -> Lot.of", "A.run -> Lot.sow", "A.run -> Lot.dry"}, nil},
	{"pattern matching, and switches that give something", "A.java", `
class B { void go() {} }
class C { void stop() {} }
class A {
    void run(Object o) {
        if (o instanceof B b) b.go();
        switch (o) {
            case C c -> c.stop();
            default -> end();
        }
    }
    void end() {}
}
`, []string{"A.run -> B.go", "A.run -> C.stop", "A.run -> A.end"}, nil},
	{"try with what is closed, and several that are caught", "A.java", `
class Store implements AutoCloseable { void put() {} public void close() {} }
class Full extends RuntimeException { void tell() {} }
class A {
    void run() {
        try (Store s = new Store()) { s.put(); } catch (Full e) { e.tell(); } finally { end(); }
    }
    void end() {}
}
`, []string{"A.run -> Store (construct)", "A.run -> Store.put", "A.run -> Full.tell", "A.run -> A.end"}, nil},
	{"an interface with a body of its own, and what overrides it", "A.java", `
interface Store { void put(); default void keep() { put(); } }
class Shelf implements Store { public void put() {} }
class A { void run(Store s) { s.keep(); } }
`, []string{"Shelf -> Store (inherit)", "Store.keep -> Store.put", "Store.keep ~> Shelf.put", "A.run -> Store.keep"}, nil},
	{"generic methods and a wildcard", "A.java", `
import java.util.*;
class Lot { void sow() {} }
class A {
    <T> T first(List<T> all) { return all.get(0); }
    void run(List<? extends Lot> lots) {
        for (Lot l : lots) l.sow();
        lots.get(0).sow();
        first(new ArrayList<Lot>()).sow();
    }
}
`, []string{"A.run -> A.first", "A.run -> Lot.sow"}, nil},
	// TypeScript: what a function is handed that is put into a name of a type.
	{"a function put into a name of a type, types that are taken together", "a.ts", `
export interface Grower { greet(): void }
export type Ask = (input: Asked, more: number) => void
type Asked = { grower: Grower; box: Box } & Lid
interface Lid { open(): void }
interface Box { weigh(): void }
export const ask: Ask = ({ grower, box, open }) => {
  grower.greet()
  box.weigh()
  open()
}
export function later() {
  const inner: Ask = (input) => input.box.weigh()
  return inner
}
`, []string{"ask -> Box.weigh", "ask -> Grower.greet", "ask -> Lid.open", "later -> Box.weigh"}, nil},
	{"a type written out in its place, a member of a type, and a field that holds a function", "b.ts", `
export interface Box { weigh(): void }
type Fault = (text: string) => void
interface Base { onFault?: Fault }
export interface Options extends Base { box: Box; inner: { box: Box } }
export function run(of: { box: Box }, o: Options, lid: Options['box']) {
  of.box.weigh()
  o.onFault?.('torn')
  lid.weigh()
}
export function deep(o: Options) {
  o.inner.box.weigh()
}
`, []string{"Options -> Base (inherit)", "deep -> Box.weigh", "run -> Base.onFault", "run -> Box.weigh"}, nil},
	{"functions that are handed to functions, which say what those get", "c.ts", `
interface Sink { put(n: number): void }
class Source {
  constructor(begin: (sink: Sink) => void) {}
  each(run: (n: number, sink: Sink) => void): void {}
}
function operate(init: (from: Source, sink: Sink) => void): void {}
export function flow() {
  operate((from, sink) => {
    from.each((n, inner) => inner.put(n))
    sink.put(1)
  })
  return new Source((s) => s.put(2))
}
export function plain(list: number[]) {
  list.forEach((n, sink) => sink.put(n))
}
`, []string{"flow -> Sink.put", "flow -> Source (construct)", "flow -> Source.each", "flow -> operate"}, nil},
}

func TestMoreSmallFiles(t *testing.T) { holdFiles(t, more) }

// What a member is asked of tells which of those that are built upon its owner may
// answer.
func TestOnlyWhatIsBuiltUponWhatIsAskedMayAnswer(t *testing.T) {
	holdFiles(t, []smallFile{
		{"a base with two heirs, asked of each", "a.py", `
class Items:
    def read(self): pass

    def all(self):
        self.read()

class Files(Items):
    def read(self): pass

class Comments(Items):
    def list(self):
        self.read()

def run(c: Comments, i: Items, f: Files):
    c.read()
    i.all()
    f.read()
`, []string{
			"Files -> Items (inherit)", "Comments -> Items (inherit)", "Items.all -> Items.read", "Items.all ~> Files.read",
			"Comments.list -> Items.read", "run -> Items.read", "run -> Items.all", "run -> Files.read",
		}, nil},
		{"an interface that a class in between hands on", "A.java", `
interface Store { void put(); }
abstract class Kept implements Store { void more() { put(); } }
class Shelf extends Kept { public void put() {} }
class Drawer implements Store { public void put() {} }
class Desk { void run(Kept k, Store s) { k.put(); } }
class Bench { void run(Store s) { s.put(); } }
`, []string{
			"Kept -> Store (inherit)", "Shelf -> Kept (inherit)", "Drawer -> Store (inherit)", "Kept.more -> Store.put", "Kept.more ~> Shelf.put",
			"Desk.run -> Store.put", "Desk.run ~> Shelf.put", "Bench.run -> Store.put", "Bench.run ~> Shelf.put", "Bench.run ~> Drawer.put",
		}, nil},
	})
}
