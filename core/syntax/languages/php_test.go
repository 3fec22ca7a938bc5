package languages_test

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestPHP(t *testing.T) {
	run(t, []sample{
		{name: "text between, heredoc and nowdoc, quotes over lines", file: "a.php", text: `<h1>it's</h1>
<?php
// a ?> class Text {} <?php
$a = <<<END
  class No { END_ }
  END;
$b = <<<'N'
function no() {
N;
$c = 'one
function two() {}';
# hash { ?>
<p>{</p>
<?php function after() {} ?>
`, defs: []string{"+function after 14-14"}},
		{name: "classes with attributes, traits, enums and promoted properties", file: "Shelf.php", text: `<?php
namespace Hollin\Vault;

use Hollin\Lots\{Lot, Grams as G, function weigh};
use Hollin\Rack;

#[Entity(name: "}"), \Hollin\Kept] #[Audited]
final class Shelf extends Rack implements \Countable, G
{
    use Named, Kept { Named::name as protected; }
    const SLOTS = 40, SPARE = [1, 2];
    private static ?Lot $first = null;
    public $a = 1, $b;
    public function __construct(#[Inject] private readonly Lot $lot, protected int $n = 3, $plain = null) {}
    abstract protected function free(): int;
    public function class() { return Shelf::class; }
    function each() { return new class($this) extends Lot { private function inner() {} }; }
}
enum Side: string { case Left = 'l'; case Right = 'r'; }
interface Holder {}
if (!function_exists('x')) { function x() {} }
define('MAX', 3);
const MIN = 1;
`, defs: []string{"+class Shelf 7-18", "+constant Shelf.SLOTS 11-11", "+constant Shelf.SPARE 11-11", "property Shelf.first 12-12", "+property Shelf.a 13-13", "+property Shelf.b 13-13", "property Shelf.lot 14-14", "property Shelf.n 14-14", "+method Shelf.__construct 14-14", "method Shelf.free 15-15", "+method Shelf.class 16-16", "+method Shelf.each 17-17", "method Shelf.each.inner 17-17", "+enum Side 19-19", "+constant Side.Left 19-19", "+constant Side.Right 19-19", "+interface Holder 20-20", "+function x 21-21", "+constant MAX 22-22", "+constant MIN 23-23"},
			imports: []string{`4 Hollin\Lots\Lot: `, `4 Hollin\Lots\Grams: `, `4 Hollin\Lots\weigh: function`, `5 Hollin\Rack: `}},
	})
}

func TestPHPLinks(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"names of the namespace, imported, grouped, in full and by path": {tree: `
-- src/Vault/Shelf.php --
<?php
namespace Hollin\Vault;
use Hollin\Lots\{Lot, None};
use Hollin\Lots as L;
use Psr\Log\Logger;
class Shelf extends Rack {
    function f(L\Seed $s): \Hollin\Grams { return new Lot(); }
}
-- src/Vault/Rack.php --
<?php
namespace Hollin\Vault;
require_once __DIR__ . '/../start.php';
require dirname(__DIR__) . '/none.php';
class Rack {}
-- src/Lots/Lot.php --
<?php namespace Hollin\Lots; class Lot {}
-- src/Lots/Seed.php --
<?php namespace Hollin\Lots; class Seed {}
-- src/Grams.php --
<?php namespace Hollin; class Grams {}
-- src/start.php --
<?php
`, links: []string{
			"src/Vault/Rack.php -> src/start.php",
			"src/Vault/Shelf.php -> src/Lots/Lot.php",
			"src/Vault/Shelf.php -> src/Vault/Rack.php",
			"src/Vault/Shelf.php -> src/Vault/Rack.php (inheritance)",
			"src/Vault/Shelf.php -> src/Grams.php",
			"src/Vault/Shelf.php -> src/Lots/Seed.php",
		}, external: []string{"Psr"}, unresolved: []string{`Hollin\Lots\None`, "../none.php"}},
	})
}

func TestPHPInItsCorners(t *testing.T) {
	run(t, []sample{
		{name: "keywords in any case, and as names of methods and constants", file: "a.php", text: `<?php
CLASS A EXTENDS B {
    CONST list = 1, class_ = 2;
    Public Static Function list() { return static::list; }
    function print() {}
    function new() { return new static; }
}
FUNCTION f() {}
`, defs: []string{"+class A 2-7", "+constant A.list 3-3", "+constant A.class_ 3-3", "+method A.list 4-4", "+method A.print 5-5", "+method A.new 6-6", "+function f 8-8"}},
		{name: "the other way to write blocks", file: "a.php", text: `<?php if ($a): ?>
<ul><?php foreach ($b as $c): ?><li><?= $c ?></li><?php endforeach; ?></ul>
<?php function shown() { ?> <b>{</b> <?php } ?>
<?php elseif (x): class Late {} endif ?>
`, defs: []string{"+function shown 3-3", "+class Late 4-4"}},
		{name: "functions in functions, closures and arrows", file: "a.php", text: `<?php
function outer() {
    function inner() {}
    $f = function ($x) use (&$y): ?int { return 1; };
    $g = fn (int $x): int => $x + 1;
    return static function () {};
}
abstract class A { abstract function f(self|null $a, int ...$b): static; }
`, defs: []string{"+function outer 2-7", "+function outer.inner 3-3", "+class A 8-8", "+method A.f 8-8"}},
		{name: "heredocs with code in them, and quotes in comments", file: "a.php", text: "<?php\n$a = f(<<<HTML\n  {$x['y']} it's ${z} \"\n  HTML, 2);\n# don't\n// it's ?> text <?php\n/* ' */\nfunction g() {}\n$b = <<<\"Q\"\nclass No {}\nQ . <<<'R'\n$none\nR;\nclass H {}\n",
			defs: []string{"+function g 8-8", "+class H 14-14"}},
		{name: "enums, readonly, and constructors that declare", file: "a.php", text: `<?php
enum Side: string implements Named {
    use Kept;
    case Left = 'l';
    case Right = 'r';
    const First = self::Left;
    public static function of(string $s): self { return self::from($s); }
}
final readonly class Lot {
    public function __construct(
        public string $name,
        private ?Side $side = Side::Left,
        int $plain = 1,
    ) {}
}
`, defs: []string{"+enum Side 2-8", "+constant Side.Left 4-4", "+constant Side.Right 5-5", "+constant Side.First 6-6", "+method Side.of 7-7", "+class Lot 9-15", "+method Lot.__construct 10-14", "+property Lot.name 11-11", "property Lot.side 12-12"}},
		{name: "imports of every form", file: "a.php", text: `<?php
namespace Hollin;
use A\B, C\D as E;
use function A\f, A\g as h;
use const A\{X, Y};
use A\{B\C, function k, const Z,};
function f() { use_it(); }
require_once('x.php');
include __DIR__ . "/y.php";
include dirname(__DIR__, 1) . '/z.php';
require $dynamic . '/no.php';
`, defs: []string{"+function f 7-7"}, imports: []string{`3 A\B: `, `3 C\D: `, `4 A\f: function`, `4 A\g: function`, `5 A\X: const`, `5 A\Y: const`, `6 A\B\C: `, `6 A\k: function`, `6 A\Z: const`, `8 x.php: `, `9 y.php: `, `10 ../z.php: `}},
		{name: "a string that never ends", file: "a.php", partial: true, text: "<?php\nfunction a() {}\n$b = 'open;\nfunction c() {}\n", defs: []string{"+function a 2-2", "+function c 4-4"}},
		{name: "text alone", file: "a.php", text: "<h1>class No { function no() {} }</h1>\n"},
	})
}

func TestMarksOfClasses(t *testing.T) {
	f := facts("Shelf.php", "<?php\n#[ORM\\Entity(name: \"}\"), Kept(['a', 'b'])] #[\\Attribute(1)]\nfinal class Shelf {}\nclass Plain {}\n")
	require.Equal(t, []string{"Entity", "Kept", "Attribute"}, f.Definitions[0].Marks)
	require.Empty(t, f.Definitions[1].Marks)
}
