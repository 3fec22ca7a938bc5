package languages_test

import "testing"

// Small files in which one sign is easily taken for another: what follows must
// still be found, with its lines.

func TestTypeScriptSmall(t *testing.T) {
	small(t, "a.ts", `
== a division after a bracket, an expression after a keyword
const half = (grams + 1) / 2 / scale
function isCode(s: string) { return /^[}\/]{2}"/.test(s) }
const next = 1
=> constant half 1-1; function isCode 2-2; constant next 3-3
== an expression after a closing brace of a block
if (dry) { store() } /store}/.exec(s)
function after() {}
=> function after 2-2
== a division after a call in a template
const label = `+"`${weigh(lot) / 2} g ${`in ${box}`}`"+`
function after() {}
=> constant label 1-1; function after 2-2
== braces in a template that are no code
const css = `+"`a { color: red; } ${x ? '}' : \"`\"} {`"+`
export const after = () => 1
=> constant css 1-1; +function after 2-2
== a template over lines with a function in it
const page = `+"`\n${lots.map((l) => `<b>${l}</b>`).join('')}\n`"+`
function after() {}
=> constant page 1-3; function after 4-4
== an apostrophe in a comment and a quote in an expression
// the lot's weight
const a = /['"]/
const b = 'it\'s { '
function after() {}
=> constant a 2-2; constant b 3-3; function after 4-4
== an arrow that returns an object, one that returns an arrow
export const lot = (id: string) => ({ id })
const add = (a: number) => (b: number) => a + b
=> +function lot 1-1; function add 2-2
== generics that are no comparison
const kept = new Map<string, Array<Lot>>()
function find<T extends { id: string }>(all: T[], id: string): T | undefined { return all.find((x) => x.id === id) }
const less = a < b && c > d
=> constant kept 1-1; function find 2-2; constant less 3-3
== of overloads the one with a body
export function weigh(lot: Lot): number
export function weigh(lot: Lot, box: Box): number
export function weigh(lot: Lot, box?: Box): number { return 1 }
=> +function weigh 3-3
== a class in an expression, one without a name
const Shelf = class Named { put() {} }
export default class { take() {} }
=> class Shelf 1-1; +method Shelf.put 1-1; +class default 2-2; +method default.take 2-2
== accessors, computed and quoted names
class Box {
  get 'full weight'() { return 1 }
  static async *[Symbol.iterator]() {}
  declare readonly slots: number
  constructor(private readonly lot: Lot) {}
}
=> class Box 1-6; +method Box.full weight 2-2; +property Box.slots 4-4; +method Box.constructor 5-5
== words of the language as names
const of = 1
const type = of
function get(async: boolean) { return async }
interface As { type: string; delete(): void }
=> constant of 1-1; constant type 2-2; function get 3-3; interface As 4-4
== types alone and with values
import type { Lot } from './lot'
import { type Box, weigh } from './box'
export type { Lot } from './lot'
<- 1 ./lot: Lot; 2 ./box: Box weigh; 3 re-export ./lot: Lot
== imports of every form
import './wire'
import * as all from './all'
import main, { a as b } from './main'
import data from './data.json' with { type: 'json' }
export * from './more'
export * as words from './words'
<- 1 ./wire; 2 ./all: *; 3 ./main: a default; 4 ./data.json: default; 5 re-export ./more: *; 6 re-export ./words: *
== what is required, at once and late
const { a } = require('./a')
const late = async () => (await import('./late')).run()
if (x) require('./maybe')
=> constant a 1-1; function late 2-2
<- 1 ./a: a; 2 lazy import ./late: *; 3 ./maybe: *
== an import in a text is none
const help = "import x from './x'"
// import y from './y'
/* require('./z') */
=> constant help 1-1
== a decorator with braces in its argument
@Component({ selector: 'app-lot', host: { class: '}' } })
export class LotComponent { @Input() lot!: Lot; @Output() kept = new EventEmitter<void>() }
=> +class LotComponent 1-2; +property LotComponent.lot 2-2; +property LotComponent.kept 2-2
== an enum with values and one that is declared
export enum Stage { Damp = 'damp', Dry = 1 << 2 }
declare module 'scale' { export function read(): number }
=> +enum Stage 1-1; namespace scale 2-2; +function scale.read 2-2
== JSX text with an apostrophe and braces in a.tsx
export function Note() {
  return <p>the lot's {'}'} weight: {1 > 2 ? <b>{"<"}</b> : null}</p>
}
function After() { return <br /> }
=> +component Note 1-3; component After 4-4
== a generic arrow beside JSX in a.tsx
const keep = <T,>(x: T) => x
export const Tag = <K extends string>({ k }: { k: K }) => <b>{k}</b>
=> function keep 1-1; +component Tag 2-2
== a fragment with a comparison around it in a.tsx
export const List = ({ n }: { n: number }) => (n < 1 ? <></> : <ul>{n}</ul>)
const after = 1
=> +component List 1-1; constant after 2-2
== a hashbang, a label and a regular expression of division signs in a.js
#!/usr/bin/env node
outer: for (const x of y) { continue outer }
const path = s.replace(/\//g, '/').split(/[/]/)
module.exports = { path }
=> +constant path 3-3
`)
}

func TestPythonSmall(t *testing.T) {
	small(t, "a.py", `
== a quote in a comment, a hash in a text
# the lot's weight
label = "#1 {"
def after():
    return 1
=> +variable label 2-2; +function after 3-4
== a text of three quotes with code in it
DOC = """
def no():
    pass
class No: pass
"""
def after(): pass
=> +constant DOC 1-5; +function after 6-6
== an f-string with quotes, braces and a call
name = f"{lot['id']!r:>{width}} {{not code}} {', '.join(x for x in y)}"
def after(): pass
=> +variable name 1-1; +function after 2-2
== raw and byte texts that end in a backslash
path = r"\d+\""
data = b'\x00\''
def after(): pass
=> +variable path 1-1; +variable data 2-2; +function after 3-3
== lines carried on by a backslash and by brackets
total = 1 + \
    2
lots = [
    1,
    2,
]
def after(
    a,
    b=(1, 2),
) -> dict[str, int]:
    return {}
=> +variable total 1-2; +variable lots 3-6; +function after 7-11
== several statements in a line
a = 1; b = 2; import os
class Empty: pass
=> +variable a 1-1; +variable b 1-1; +class Empty 2-2
<- 1 os: *
== decorators over lines, async, and a class in a function
@route(
    "/lots",
)
async def listed():
    class Inner:
        pass
    return Inner
=> +function listed 4-7; class listed.Inner 5-6
== a body after a comment without indent
def dry():
# says nothing
    return 1

def after():
    pass
=> +function dry 1-3; +function after 5-6
== conditional and late imports
try:
    import fast
except ImportError:
    import slow as fast
if TYPE_CHECKING:
    from lots import Lot
def late():
    from boxes import Box
<- 2 fast: *; 4 slow: *; 6 lots: Lot; 8 lazy import boxes: Box
=> +function late 7-8
== relative imports of each depth
from . import lots
from .. import boxes as b
from ...vault.shelf import (Shelf,
    Rack)
import a.b.c, d
<- 1 .: lots; 2 ..: boxes; 3 ...vault.shelf: Rack Shelf; 5 a.b.c: *; 5 d: *
== match and case are names as well
match = 1
case = match
def handle(x):
    match x:
        case [a, *rest] if a: return rest
        case {"k": v}: return v
=> +variable match 1-1; +variable case 2-2; +function handle 3-6
== bases, keywords and type parameters of classes
class Box[T](Base, Generic[T], metaclass=Meta):
    slots: int = 4
    __hidden = 1
    def __init__(self, *, lot: "Lot | None" = None): ...
    @property
    def free(self): return 1
=> +class Box 1-6; +property Box.slots 2-2; property Box.__hidden 3-3; method Box.__init__ 4-4; +method Box.free 6-6
== a lambda, a walrus and a star
weigh = lambda lot, *rest: lot
first, *others = lots
if (n := len(lots)) > 1: pass
=> +variable weigh 1-1; +variable first 2-2; +variable others 2-2
== tabs and blanks
class A:
	def one(self):
		pass

	def two(self):
		pass
=> +class A 1-6; +method A.one 2-3; +method A.two 5-6
== a program that starts
def main():
    pass

if __name__ == "__main__":
    main()
=> +function main 1-2
== a semicolon in a text, a colon in a slice
x = lots[1:2]["a;b"]
def after(y={1: 2}): return y
=> +variable x 1-1; +function after 2-2
`)
}

func TestJavaSmall(t *testing.T) {
	small(t, "A.java", `
== a text block with quotes and braces
class A {
    String page = """
        { "it's" } class No {}
        \""" still
        """;
    void after() {}
}
=> class A 1-7; property A.page 2-5; method A.after 6-6
== a character that is a quote or a brace
class A {
    char q = '\'', b = '}', u = '\u0027';
    void after() {}
}
=> class A 1-4; property A.q 2-2; property A.b 2-2; property A.u 2-2; method A.after 3-3
== records with a compact constructor
public record Lot(String id, int... grams) implements Comparable<Lot> {
    public Lot { if (id == null) throw new Error(); }
    static final Lot NONE = new Lot("");
    public int compareTo(Lot o) { return 0; }
}
=> +class Lot 1-5; +property Lot.id 1-1; +property Lot.grams 1-1; +method Lot.Lot 2-2; constant Lot.NONE 3-3; +method Lot.compareTo 4-4
== sealed types and what they permit
public sealed interface Stage permits Damp, Dry {}
final class Damp implements Stage {}
non-sealed class Dry implements Stage {}
=> +interface Stage 1-1; class Damp 2-2; class Dry 3-3
== lambdas and blocks in fields
class A {
    static final Map<String, List<int[]>> BY = new HashMap<>() {{ put("a", List.of()); }};
    Function<Integer, Integer> twice = x -> { return x * 2; };
    { start(); }
    <T extends Comparable<? super T>> T max(List<? extends T> all) { return null; }
}
=> class A 1-6; constant A.BY 2-2; property A.twice 3-3; method A.max 5-5
== a switch that yields, with arrows
class A {
    int of(Object o) {
        return switch (o) {
            case Integer i when i > 0 -> { yield i; }
            case String s -> s.length();
            default -> 0;
        };
    }
    void after() {}
}
=> class A 1-10; method A.of 2-8; method A.after 9-9
== classes without a name and in methods
class A {
    Runnable r = new Runnable() { public void run() { } };
    void f() {
        class Local { void g() {} }
    }
    void after() {}
}
=> class A 1-7; property A.r 2-2; method A.f 3-5; class A.f.Local 4-4; method A.f.Local.g 4-4; method A.after 6-6
== annotations with arrays and classes
@Table(name = "lots", indexes = { @Index(columnList = "id}") })
public class Lot {
    @Column(length = 1 << 3) @NotNull private String id;
    @GetMapping({"/lots", "/all"}) public List<@Valid Lot> all() { return null; }
}
=> +class Lot 1-5; property Lot.id 3-3; +method Lot.all 4-4
== imports of every form
package vault;
import java.util.*;
import static vault.Rules.MAX;
import static vault.Rules.*;
class A {}
=> class A 5-5
<- 2 java.util.*; 3 vault.Rules.MAX; 4 vault.Rules.*
== an enum with bodies and fields
enum Side {
    LEFT("l") { int turn() { return 1; } },
    RIGHT("r");
    final String sign;
    Side(String s) { sign = s; }
    abstract int turn();
}
=> enum Side 1-7; +constant Side.LEFT 2-2; method Side.LEFT.turn 2-2; +constant Side.RIGHT 3-3; property Side.sign 4-4; method Side.Side 5-5; method Side.turn 6-6
== an interface with bodies
interface Hold {
    int MAX = 3;
    void put(Lot l);
    default int free() { return MAX; }
    private static void log() {}
}
=> interface Hold 1-6; +constant Hold.MAX 2-2; +method Hold.put 3-3; +method Hold.free 4-4; method Hold.log 5-5
== comments in odd places
class A /* { */ {
    // }
    int /* ; */ a; /** } */
    void after() {}
}
=> class A 1-5; property A.a 3-3; method A.after 4-4
`)
}

func TestPHPSmall(t *testing.T) {
	small(t, "a.php", `
== text before, between and after
<p>{ it's
<?php function one() {} ?>
} <?= $x ? "a" : 'b}' ?>
<?php function two() {}
=> +function one 2-2; +function two 4-4
== a heredoc with code in it and one that is indented
<?php
$a = <<<"SQL"
  SELECT '{$x["a"]}' FROM lots
  function no() {}
  SQL;
$b = <<<'END'
{
END;
function after() {}
=> +function after 9-9
== quotes with variables in braces
<?php
$a = "{$lot->box['id']} ${x} \"}";
$b = 'it\'s {';
function after() {}
=> +function after 4-4
== attributes and comments with a hash
<?php
#[Route('/lots', methods: ['GET'])]
# function no() {}
class A { #[Inject] private Lot $lot; public function __construct(private readonly Box $box = new Box()) {} }
=> +class A 2-4; property A.lot 4-4; property A.box 4-4; +method A.__construct 4-4
== grouped and function imports
<?php
namespace Vault;
use Hollin\{Lot, Box as B, Shelf\Rack};
use function Hollin\weigh;
use const Hollin\MAX;
require_once __DIR__ . '/wire.php';
<- 3 Hollin\Lot; 3 Hollin\Box; 3 Hollin\Shelf\Rack; 4 Hollin\weigh: function; 5 Hollin\MAX: const; 6 wire.php
== enums and matches
<?php
enum Stage: string implements Named {
    case Damp = 'damp';
    case Dry = 'dry';
    const MAX = 2;
    public function next(): self { return match (true) { $this === self::Damp => self::Dry, default => $this }; }
}
=> +enum Stage 2-7; +constant Stage.Damp 3-3; +constant Stage.Dry 4-4; +constant Stage.MAX 5-5; +method Stage.next 6-6
== short functions and closures
<?php
$twice = fn(int $x) => $x * 2;
$close = function () use ($a) { return new class { function in() {} }; };
function after() {}
=> +method in 3-3; +function after 4-4
== old control structures
<?php if ($dry): ?>
<b>dry</b>
<?php else: ?>
{
<?php endif; ?>
<?php function after() {}
=> +function after 6-6
== traits and what they are asked for
<?php
trait Weighs { abstract function weigh(): int; static $all = []; }
class Lot { use Weighs, Dries { Weighs::weigh insteadof Dries; Dries::dry as protected; } const A = 1, B = 2; }
=> +class Weighs 2-2; +method Weighs.weigh 2-2; +property Weighs.all 2-2; +class Lot 3-3; +constant Lot.A 3-3; +constant Lot.B 3-3
`)
}

func TestRubySmall(t *testing.T) {
	small(t, "a.rb", `
== a division and an expression
half = grams / 2 / 3
code = text =~ /["'{]end/ ? 1 : 2
def after; end
=> +function after 3-3
== two heredocs in one line
call(<<~ONE, <<-TWO)
  def no; end
ONE
  class No
  TWO
def after
end
=> +function after 6-7
== texts of every kind of quote
a = %w[end if do]
b = %q{it's {deep} end}
c = %(#{lots.map { |l| "#{l}" }} end)
d = ?{
e = :"end if"
def after() = 1
=> +function after 6-6
== modifiers, ternaries and loops that need no end
x = 1 if dry
y += 1 while y < 3
z = dry ? 1 : 2
lots.each do |l| next unless l end
def after
end
=> +function after 5-6
== a method named by a word of the language
def end?
  self.class.end
end
def if() = @if
=> +function end? 1-3; +function if 4-4
== a class of one object and private methods
class Shelf < Rack
  class << self
    def all; end
  end
  private
  def secret; end
  public def open; end
end
=> +class Shelf 1-8; +method Shelf.all 3-3; method Shelf.secret 6-6; +method Shelf.open 7-7
== modules in a path and reopened
module Vault::Cold
  MAX = 3
  Lot = Struct.new(:id) do
    def dry? = true
  end
end
=> +namespace Vault.Cold 1-6; +constant Vault.Cold.MAX 2-2; +constant Vault.Cold.Lot 3-5; +method Vault.Cold.dry? 4-4
== what is required
require 'set'
require_relative 'lots/box'
load 'wire.rb' if ENV['X']
autoload :Shelf, 'vault/shelf'
<- 1 set; 2 lots/box; 3 wire.rb; 4 lazy import vault/shelf
== a comment of a block and the end of a program
=begin
def no
end
=end
def after; end
__END__
def no; end
=> +function after 5-5
`)
}
