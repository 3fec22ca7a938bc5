package languages_test

import "testing"

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

#[Entity(name: "}")]
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
