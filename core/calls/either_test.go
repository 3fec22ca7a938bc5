package calls_test

import "testing"

// either are small files in which something is of one of several types, or is
// asked what it is; what is called was written down before any was run.
var either = []smallFile{
	{"a union of three, and what is left of it", "a.ts", `
class A {
  go() {}
}
class B {
  go() {}
}
class C {
  stop() {}
}
function run(x: A | B | C | null) {
  x.go()
  x.stop()
}
`, []string{"run -> A.go", "run -> B.go", "run -> C.stop"}, nil},
	{"a type that is another name for a union", "a.ts", `
class A {
  go() {}
}
class B {
  go() {}
}
type Either = A | B
function run(x: Either) {
  x.go()
}
`, []string{"run -> A.go", "run -> B.go"}, nil},
	{"a type that is one of itself ends", "a.ts", `
class B {
  go() {}
}
type A = A | B
type C = D | B
type D = C | A
function run(x: A, y: C) {
  x.go()
  y.go()
  y.none()
}
`, []string{}, []string{"run -> B.go"}},
	{"what a list of one of two holds, and a map of them", "a.ts", `
class A {
  go() {}
}
class B {
  go() {}
}
function run(all: (A | B)[], by: Map<string, A>) {
  for (const one of all) {
    one.go()
  }
  by.get('x')?.go()
}
`, []string{"run -> A.go", "run -> B.go"}, nil},
	{"a parameter with a default of another type", "a.py", `
class A:
    def go(self): pass

class Desk:
    def __init__(self, press: A = None):
        self.press = press or A()

    def run(self):
        self.press.go()
`, []string{"Desk.__init__ -> A (construct)", "Desk.run -> A.go"}, nil},
	{"a union of a list and one", "a.ts", `
class Lot {
  sow() {}
}
function run(x: Lot | Lot[], y: Array<Lot | null>) {
  for (const one of y) {
    one.sow()
  }
}
`, []string{"run -> Lot.sow"}, nil},
	{"a field that is one of two", "a.ts", `
class Press {
  print() {}
}
class Screen {
  show() {}
}
class Desk {
  private out: Press | Screen
  run() {
    this.out.print()
    this.out.show()
  }
}
`, []string{"Desk.run -> Press.print", "Desk.run -> Screen.show"}, nil},
	{"a union of texts calls nothing", "a.ts", `
type State = 'idle' | 'busy'
class Job {
  idle() {}
  run(s: State) {
    s.toUpperCase()
  }
}
`, []string{}, nil},
	{"what a conditional gives", "a.py", `
class A:
    def go(self): pass

class B:
    def go(self): pass

def pick(flag):
    return A() if flag else B()

def run():
    pick(1).go()
    x = A() or B()
    x.go()
`, []string{"pick -> A (construct)", "pick -> B (construct)", "run -> pick", "run -> A.go", "run -> B.go", "run -> A (construct)", "run -> B (construct)"}, nil},
	{"what is optional, written in two ways", "a.py", `
from typing import Optional

class A:
    def go(self): pass

def one() -> Optional[A]:
    return None

def two() -> A | None:
    return None

def run():
    one().go()
    two().go()
`, []string{"run -> one", "run -> two", "run -> A.go"}, nil},
	{"three faults caught as one", "A.java", `
class Full extends Exception {
    void tell() {}
}
class Dry extends Exception {
    void tell() {}
}
class Late extends Exception {
}
class A {
    void run() {
        try {
            go();
        } catch (Full | Dry | Late e) {
            e.tell();
        }
    }

    void go() throws Full, Dry, Late {}
}
`, []string{"A.run -> A.go", "A.run -> Full.tell", "A.run -> Dry.tell"}, nil},
	{"a type written with its package", "A.java", `
-- vault/Lot.java --
package vault;
public class Lot {
    public void sow() {}
}
-- web/Desk.java --
package web;
class Desk {
    void run(vault.Lot lot) {
        lot.sow();
        new vault.Lot().sow();
    }
}
`, []string{"Desk.run -> Lot.sow", "Desk.run -> Lot (construct)"}, nil},
	{"what a comment says and what is given differ", "a.php", `<?php
class A { public function go(): void {} }
class B { public function go(): void {} public function dry(): void {} }
/** @return A */
function one() { return new B(); }
function run() { one()->go(); one()->dry(); }
`, []string{"one -> B (construct)", "run -> one", "run -> A.go", "run -> B.go", "run -> B.dry"}, nil},
}

func TestWhatIsOneOfSeveral(t *testing.T) { holdFiles(t, either) }
