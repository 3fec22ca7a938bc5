package calls_test

import "testing"

// php are small trees in PHP; what is called was written down before any was run.
var php = []smallFile{
	{"classes of other files by use, by an alias and by a group", "a.php", `
-- src/Vault/Lot.php --
<?php
namespace Vault;
class Lot { public function sow(): void {} }
-- src/Vault/Shelf.php --
<?php
namespace Vault;
class Shelf { public function put(Lot $lot): void { $lot->sow(); } }
-- src/Web/Desk.php --
<?php
namespace Web;
use Vault\Lot as Seeds;
use Vault\{Shelf};
class Desk { public function run(): void { $s = new Shelf(); $s->put(new Seeds()); } }
`, []string{"Shelf.put -> Lot.sow", "Desk.run -> Shelf (construct)", "Desk.run -> Lot (construct)", "Desk.run -> Shelf.put"}, nil},
	{"two classes of one name in two namespaces", "a.php", `
-- a.php --
<?php
namespace A;
class Lot { public function go() {} public function dry() {} }
-- b.php --
<?php
namespace B;
class Lot { public function go() {} }
class Desk { public function run(Lot $x, \A\Lot $y, namespace\Lot $z) { $y->go(); $y->dry(); $x->dry(); } }
`, []string{"Desk.run -> Lot.go", "Desk.run -> Lot.dry"}, nil},
	{"a function of the namespace hides the one of all", "a.php", `
-- a.php --
<?php
function tare() { all(); }
function all() {}
-- b.php --
<?php
namespace B;
function tare() { here(); }
function here() {}
function run() { tare(); all(); }
`, []string{"tare -> all", "tare -> here", "run -> tare", "run -> all"}, nil},
	{"a union and a nullable type lead to both", "a.php", `<?php
class A { public function go(): void {} }
class B { public function go(): void {} }
function run(A|B $x, ?A $y = null) { $x->go(); $y?->go(); }
`, []string{"run -> A.go", "run -> B.go"}, nil},
	{"what instanceof says holds in its branch", "a.php", `<?php
class A { public function go(): void {} }
function run(object $x) { if ($x instanceof A) { $x->go(); } }
`, []string{"run -> A.go"}, nil},
	{"what is caught has its type", "a.php", `<?php
class Full extends Exception { public function tell(): string { return ''; } }
class Dry extends Exception { public function tell(): string { return ''; } }
function run() { try { throw new Full('x'); } catch (Full | Dry $e) { $e->tell(); } finally { done(); } }
function done() {}
`, []string{"run -> Full (construct)", "run -> Full.tell", "run -> Dry.tell", "run -> done"}, nil},
	{"arrow functions and closures see what is around them", "a.php", `<?php
class Lot { public function dry(): bool { return true; } public function sow(): void {} }
function run(Lot $lot) {
    $f = fn($x) => $lot->dry();
    $g = function () use ($lot) { $lot->sow(); };
    $f(1); $g();
}
`, []string{"run -> Lot.dry", "run -> Lot.sow"}, nil},
	{"a closure has parameters of its own", "a.php", `<?php
class A { public function go(): void {} }
class B { public function go(): void {} }
function run(A $x, array $all) { array_map(function (B $x) { $x->go(); }, $all); $x->go(); }
`, []string{"run -> A.go", "run -> B.go"}, nil},
	{"chains that give themselves", "a.php", `<?php
class Query {
    public function where(string $a): static { return $this; }
    public function order(string $a): self { return $this; }
    public function all(): array { return []; }
}
class Lots { public function query(): Query { return new Query(); } }
function run(Lots $lots) { return $lots->query()->where('a')->order('b')->all(); }
`, []string{"Lots.query -> Query (construct)", "run -> Lots.query", "run -> Query.where", "run -> Query.order", "run -> Query.all"}, nil},
	{"an abstract class calls what its heirs write", "a.php", `<?php
abstract class Job {
    public function handle(): void { $this->before(); $this->work(); }
    protected function before(): void {}
    abstract protected function work(): void;
}
final class Sow extends Job {
    protected function work(): void { $this->tell(); }
    private function tell(): void {}
}
`, []string{"Sow -> Job (inherit)", "Job.handle -> Job.before", "Job.handle -> Job.work", "Job.handle ~> Sow.work", "Sow.work -> Sow.tell"}, nil},
	{"constants, static properties and the class by its name", "a.php", `<?php
class Lot {
    const MAX = 3;
    public static int $n = 0;
    public static function make(): Lot { return new self(); }
    public function sow() {}
}
function run() { $a = Lot::MAX; Lot::$n++; $c = Lot::class; $c::make(); (new $c)->sow(); Lot::make()->sow(); }
`, []string{"Lot.make -> Lot (construct)", "run -> Lot.make", "run -> Lot.sow"}, nil},
	{"two methods of one line are told by the last of them", "a.php", `<?php
class A { public function go() { tare(); } public function dry() { } }
function tare() {}
`, []string{"A.dry -> tare"}, []string{"A.go -> tare"}},
	{"what is asked not to be of a type leaves", "a.php", `<?php
class A { public function go(): void {} }
class B extends A { public function dry(): void {} }
function run(A $x, A $y) {
    if (!$x instanceof B) {
        return;
    }
    $x->dry();
    if ($y instanceof B) { $y->dry(); $y = new B(); }
    $y->dry();
    $x->go();
}
function other(A $x) { if ($x instanceof B) { $x->dry(); } $x->dry(); $x->go(); }
`, []string{"B -> A (inherit)", "run -> B.dry", "run -> B (construct)", "run -> A.go", "other -> B.dry", "other -> A.go"}, nil},
	{"an anonymous class has its own methods", "a.php", `<?php
interface Store { public function put(): void; }
function helper() {}
function run(): Store { return new class implements Store { public function put(): void { helper(); } }; }
`, []string{"run.put -> helper"}, []string{"run -> Store (inherit)"}},
	{"invokable objects", "a.php", `<?php
class Press { public function __invoke(int $x): int { return $x; } }
function run(Press $p) { $p(3); array_map($p, [1]); }
`, []string{"run -> Press.__invoke"}, nil},
	{"callables as text and as a pair", "a.php", `<?php
class Lot {
    public static function cmp($a, $b) { return 0; }
    public function one($x) { return $x; }
    public function run(array $a) { usort($a, 'Lot::cmp'); usort($a, [self::class, 'cmp']); array_map([$this, 'one'], $a); }
}
function tell() {}
function start() { add_action('init', 'tell'); }
`, []string{"Lot.run -> Lot.cmp", "Lot.run -> Lot.one", "start -> tell"}, nil},
	{"readonly classes and named arguments", "a.php", `<?php
final readonly class Weight { public function __construct(public int $grams, public string $of = 'x') {} public function add(Weight $w): Weight { return new Weight(of: 'y', grams: $this->grams + $w->grams); } }
function run(Weight $w) { $w->add($w)->add(new Weight(grams: 1)); }
`, []string{"Weight.add -> Weight (construct)", "run -> Weight.add", "run -> Weight (construct)"}, nil},
	{"properties of properties", "a.php", `<?php
class Lamp { public function on(): void {} }
class Desk { public Lamp $lamp; public function __construct() { $this->lamp = new Lamp(); } }
class Room { private Desk $desk; public function run(): void { $this->desk->lamp->on(); } }
`, []string{"Desk.__construct -> Lamp (construct)", "Room.run -> Lamp.on"}, nil},
	{"generators, and what foreach goes over", "a.php", `<?php
class Lot { public function sow(): void {} }
class Bed {
    /** @return Lot[] */
    public function lots(): array { return []; }
    /** @param list<Lot> $more */
    public function run(array $more) { foreach ($this->lots() as $lot) { $lot->sow(); } foreach ($more as $i => $m) { $m->sow(); } }
}
`, []string{"Bed.run -> Bed.lots", "Bed.run -> Lot.sow"}, nil},
	{"typed by a comment before the variable", "a.php", `<?php
class Lot { public function sow(): void {} }
function run($box) { /** @var Lot $lot */ $lot = $box->get('lot'); $lot->sow(); }
`, []string{"run -> Lot.sow"}, nil},
	{"parameters typed by a comment alone", "a.php", `<?php
class Lot { public function sow(): void {} }
class Desk {
    /**
     * @param Lot $lot what is sown
     * @return Lot
     */
    public function run($lot) { $lot->sow(); return $lot; }
    public function more() { $this->run(null)->sow(); }
}
`, []string{"Desk.run -> Lot.sow", "Desk.more -> Desk.run", "Desk.more -> Lot.sow"}, nil},
	{"an interface that is built upon another", "a.php", `<?php
interface Reads { public function get(): string; }
interface Store extends Reads { public function put(): void; }
class Shelf implements Store { public function get(): string { return ''; } public function put(): void {} }
function run(Store $s) { $s->get(); $s->put(); }
`, []string{"Store -> Reads (inherit)", "Shelf -> Store (inherit)", "run -> Reads.get", "run ~> Shelf.get", "run -> Store.put", "run ~> Shelf.put"}, nil},
	{"traits that are renamed and put before one another", "a.php", `<?php
trait A { public function go() {} }
trait B { public function go() {} }
class C { use A, B { A::go insteadof B; B::go as other; } public function run() { $this->go(); $this->other(); } }
`, []string{"C -> A (inherit)", "C -> B (inherit)", "C.run -> A.go"}, []string{"C.run -> B.go"}},
	{"what stands between pages of markup", "a.php", `<h1>tare()</h1>
<?php
function tare() { return 1; }
function weigh() { return 2; }
?>
<p>weigh() <?= tare() ?></p>
<?php if (weigh()): ?><b>tare()</b><?php endif; ?>
`, []string{"-> tare", "-> weigh"}, nil},
	{"heredocs and texts with calls in braces", "a.php", `<?php
class Lot { public function name(): string { return ''; } public string $of = ''; }
function run(Lot $lot) { $a = "x {$lot->name()} y"; $b = <<<T
  {$lot->name()}
T; $c = '{$lot->name()}'; }
`, []string{"run -> Lot.name"}, nil},
	{"static methods of heirs by late binding", "a.php", `<?php
class Model {
    public static function create(): static { return new static(); }
    public function save(): void {}
}
class Lot extends Model { public function sow(): void {} }
function run() { $l = Lot::create(); $l->sow(); $l->save(); }
`, []string{"Lot -> Model (inherit)", "Model.create -> Model (construct)", "run -> Model.create", "run -> Model.save"}, []string{"run -> Lot.sow"}},
	{"arrays with calls, spreads and keys", "a.php", `<?php
function a() { return []; }
function b() { return 1; }
function run() { return ['k' => b(), ...a(), b() => [a()[0]]]; }
`, []string{"run -> a", "run -> b"}, nil},
	{"defaults of parameters and constants build nothing of a local name", "a.php", `<?php
class Log { public function tell(): void {} }
class Desk {
    public function __construct(private Log $log = new Log()) {}
    public function run(): void { $this->log->tell(); }
}
`, []string{"Desk.__construct -> Log (construct)", "Desk.run -> Log.tell"}, nil},
	{"a member that several classes have and no type tells", "a.php", `<?php
class A { public function go(): void {} }
class B { public function go(): void {} }
function run($x) { $x->go(); }
`, []string{}, nil},
	{"attributes that name a class and are no call", "a.php", `<?php
#[Attribute]
class Route { public function __construct(public string $path) {} }
class Desk {
    #[Route('/lots')]
    public function run(): void { $this->more(); }
    private function more(): void {}
}
`, []string{"Desk.run -> Desk.more"}, nil},
}

func TestPHPInSmallTrees(t *testing.T) { holdFiles(t, php) }
