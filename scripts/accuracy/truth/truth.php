<?php
// What a parser of the language says of a tree: definitions, and the classes a
// file names, followed to the files that define them. Prints one JSON object a
// file. Needs Debian's php-parser.
require_once 'PhpParser/autoload.php';

use PhpParser\Node;
use PhpParser\NodeTraverser;
use PhpParser\NodeVisitor\NameResolver;
use PhpParser\NodeVisitorAbstract;
use PhpParser\ParserFactory;

ini_set('memory_limit', '-1');
$root = rtrim($argv[1], '/');
$files = [];
foreach (new RecursiveIteratorIterator(new RecursiveDirectoryIterator($root, FilesystemIterator::SKIP_DOTS)) as $f) {
    if ($f->isFile() && !$f->isLink() && $f->getExtension() === 'php') {
        $files[] = $f->getPathname();
    }
}
sort($files);

class Collector extends NodeVisitorAbstract
{
    public $defs = [];
    public $classes = [];
    public $names = [];
    public $includes = [];
    public $file;

    /** The path an expression of literals stands for, null for any other. */
    private function path($e, $inside = false)
    {
        if ($e instanceof Node\Scalar\String_) {
            return $inside || str_starts_with($e->value, '/') ? $e->value : dirname($this->file) . '/' . $e->value;
        }
        if ($e instanceof Node\Scalar\MagicConst\Dir) {
            return dirname($this->file);
        }
        if ($e instanceof Node\Scalar\MagicConst\File) {
            return $this->file;
        }
        if ($e instanceof Node\Expr\FuncCall && $e->name instanceof Node\Name && $e->name->toString() === 'dirname') {
            $p = $this->path($e->args[0]->value, true);
            $up = isset($e->args[1]) && $e->args[1]->value instanceof Node\Scalar\LNumber ? $e->args[1]->value->value : 1;
            return $p === null ? null : dirname($p, $up);
        }
        if ($e instanceof Node\Expr\BinaryOp\Concat) {
            $a = $this->path($e->left, true);
            $b = $this->path($e->right, true);
            return $a === null || $b === null ? null : $a . $b;
        }
        return null;
    }

    private function add($node, $kind, $name)
    {
        $this->defs[] = ['kind' => $kind, 'name' => $name, 'line' => $node->getStartLine(), 'end' => $node->getEndLine()];
    }

    public function enterNode(Node $n)
    {
        if ($n instanceof Node\Expr\FuncCall || $n instanceof Node\Expr\ConstFetch) {
            $n->name->setAttribute('other', true); // a function or a constant, no class
        }
        if ($n instanceof Node\Expr\Include_) {
            $p = $this->path($n->expr);
            if ($p !== null && is_file($p)) {
                $this->includes[] = realpath($p);
            }
        }
        if ($n instanceof Node\Stmt\ClassLike && $n->name !== null) {
            $kind = $n instanceof Node\Stmt\Interface_ ? 'interface' : ($n instanceof Node\Stmt\Enum_ ? 'enum' : 'class');
            $this->add($n, $kind, $n->name->toString());
            $this->classes[] = $n->namespacedName->toString();
        } elseif ($n instanceof Node\Stmt\Function_) {
            $this->add($n, 'function', $n->name->toString());
        } elseif ($n instanceof Node\Stmt\ClassMethod) {
            $this->add($n, 'method', $n->name->toString());
            foreach ($n->params as $p) {
                if ($p->flags !== 0) {
                    $this->add($p, 'property', $p->var->name);
                }
            }
        } elseif ($n instanceof Node\Stmt\Property) {
            foreach ($n->props as $p) {
                $this->add($p, 'property', $p->name->toString());
            }
        } elseif ($n instanceof Node\Stmt\ClassConst || $n instanceof Node\Stmt\Const_) {
            foreach ($n->consts as $c) {
                $this->add($c, 'constant', $c->name->toString());
            }
        } elseif ($n instanceof Node\Stmt\EnumCase) {
            $this->add($n, 'constant', $n->name->toString());
        } elseif ($n instanceof Node\Expr\FuncCall && $n->name instanceof Node\Name && strtolower($n->name->toString()) === 'define' && count($n->args) > 1 && $n->args[0]->value instanceof Node\Scalar\String_) {
            $this->add($n, 'constant', $n->args[0]->value->value);
        } elseif ($n instanceof Node\Stmt\UseUse) {
            $this->names[] = $n->name->toString();
        } elseif ($n instanceof Node\Stmt\GroupUse) {
            foreach ($n->uses as $u) {
                $this->names[] = $n->prefix . '\\' . $u->name;
            }
        } elseif ($n instanceof Node\Name\FullyQualified && !$n->hasAttribute('other')) {
            $this->names[] = $n->toString();
        }
        return null;
    }
}

$parser = (new ParserFactory())->create(ParserFactory::PREFER_PHP7);
$said = [];
$where = [];
foreach ($files as $f) {
    try {
        $ast = $parser->parse(file_get_contents($f));
    } catch (PhpParser\Error $e) {
        continue; // what the language's own parser refuses is no truth
    }
    $c = new Collector();
    $c->file = $f;
    $t = new NodeTraverser();
    $t->addVisitor(new NameResolver());
    $t->addVisitor($c);
    $t->traverse($ast);
    $path = substr($f, strlen($root) + 1);
    $said[$path] = $c;
    foreach ($c->classes as $k) {
        $where[strtolower($k)][] = $path;
    }
}
foreach ($said as $path => $c) {
    $links = [];
    foreach ($c->names as $n) {
        $l = array_values(array_unique($where[strtolower($n)] ?? []));
        // A name that several files define has no one meaning to compare.
        if (count($l) === 1 && $l[0] !== $path) {
            $links[$l[0]] = true;
        }
    }
    foreach ($c->includes as $p) {
        if (str_starts_with($p, realpath($root) . '/') && $p !== realpath($c->file)) {
            $links[substr($p, strlen(realpath($root)) + 1)] = true;
        }
    }
    echo json_encode(['path' => (string) $path, 'defs' => $c->defs, 'links' => array_keys($links)], JSON_INVALID_UTF8_SUBSTITUTE), "\n";
}
