package languages_test

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"os/exec"
	"path/filepath"
	"sort"
	"strings"
	"testing"

	"jantel/core/model"
	"jantel/core/survey"
	"jantel/core/syntax"
	_ "jantel/core/syntax/languages"

	"github.com/stretchr/testify/require"
)

// facts reads a text as the language its name tells.
func facts(name, text string) *model.Facts {
	return survey.Read(syntax.ForFile(name, []byte(text)), []byte(text))
}

// told writes definitions as "kind name first-last", imports as "text: names".
func told(f *model.Facts) (defs, imports []string) {
	for _, d := range f.Definitions {
		mark := ""
		if d.Exported {
			mark = "+"
		}
		defs = append(defs, fmt.Sprintf("%s%s %s %d-%d", mark, d.Kind, d.Qualified(), d.Line, d.EndLine))
	}
	for _, im := range f.Imports {
		kind := ""
		if im.Kind != model.LinkImport {
			kind = string(im.Kind) + " "
		}
		imports = append(imports, fmt.Sprintf("%d %s%s: %s", im.Line, kind, im.Text, strings.Join(im.Names, " ")))
	}
	return defs, imports
}

type sample struct {
	name, file, text string
	defs, imports    []string
	partial          bool
}

func run(t *testing.T, samples []sample) {
	for _, s := range samples {
		t.Run(s.name, func(t *testing.T) {
			f := facts(s.file, s.text)
			defs, imports := told(f)
			require.Equal(t, s.defs, defs)
			require.Equal(t, s.imports, imports)
			require.Equal(t, s.partial, f.Read == model.ReadPartial, f.Problem)
		})
	}
}

func TestJavaScriptAndTypeScript(t *testing.T) {
	run(t, []sample{
		{name: "functions and classes", file: "a.ts", text: `export function weigh(lot: Lot, scale?: Scale): number {
  return 1
}
async function* steps() {}
export default class Shelf<T extends Lot> extends Rack<T> implements Holder, Named {
  private slots = 4
  static readonly max: number = 9;
  get free(): number { return this.slots }
  put = (lot: Lot) => {
    this.slots--
  }
  #secret() {}
  take(
    n: number,
  ): Lot {
    return { n }
  }
}
`, defs: []string{"+function weigh 1-3", "function steps 4-4", "+class Shelf 5-18", "property Shelf.slots 6-6", "+property Shelf.max 7-7", "+method Shelf.free 8-8", "+method Shelf.put 9-11", "method Shelf.#secret 12-12", "+method Shelf.take 13-17"}},
		{name: "types, enums and namespaces", file: "a.ts", text: `export interface Lot { id: string }
export type Grams = number | { value: number }
declare enum Stage { Damp, Dry }
export const enum Size { S }
namespace Vault.Cold {
  export function open() {}
}
`, defs: []string{"+interface Lot 1-1", "+type Grams 2-2", "enum Stage 3-3", "+enum Size 4-4", "namespace Vault.Cold 5-7", "+function Vault.Cold.open 6-6"}},
		{name: "variables", file: "a.ts", text: `const a = 1, b = (x: number) => x
export let { c, d: { e }, ...rest } = f()
var [g, h = 2] = []
export const dried = (lot: Lot): boolean => lot.moisture < 5
const later = function () {
}
`, defs: []string{"constant a 1-1", "function b 1-1", "+variable c 2-2", "+variable e 2-2", "+variable rest 2-2", "variable g 3-3", "variable h 3-3", "+function dried 4-4", "function later 5-6"}},
		{name: "statements without semicolons", file: "a.js", text: `const total = lots
  .map((lot) => lot.grams)
  .reduce((a, b) => a + b, 0)
const next = total
function after() {}
`, defs: []string{"constant total 1-3", "constant next 4-4", "function after 5-5"}},
		{name: "a regular expression against a division", file: "a.js", text: "const a = b / c / d\nif (x) /[/\\]}'\"`]/.test(y)\nconst r = /'/g, s = a / 2\nlet q = x++ / 2\nfunction f() {}\n",
			defs: []string{"constant a 1-1", "constant r 3-3", "constant s 3-3", "variable q 4-4", "function f 5-5"}},
		{name: "templates in templates", file: "a.ts", text: "const a = `one ${b ? `two ${c({ d: '}' })}` : '`'} three`\nfunction f() {}\n",
			defs: []string{"constant a 1-1", "function f 2-2"}},
		{name: "elements with apostrophes and generics", file: "a.tsx", text: `export const Note = <T,>({ text }: { text: T }) => (
  <p className="it's" {...rest}>
    Don't {text ? <b>it's</b> : null} move <i/> / this // not a comment
  </p>
)
export function Pair() {
  const id = <T extends object>(x: T) => x
  return <><Note<string> text="a" /></>
}
const after = 1 < 2 && 3 > 2
`, defs: []string{"+component Note 1-5", "+component Pair 6-9", "constant after 10-10"}},
		{name: "wrapped components", file: "a.jsx", text: "export const Tag = memo(function Tag() {\n  return <i />\n})\nexport default () => <Tag />\n",
			defs: []string{"+component Tag 1-3", "+component default 4-4"}},
		{name: "imports", file: "a.ts", text: `import fs, { readFile as read, type Stats } from 'node:fs'
import * as path from "path"
import type { Lot } from './lots'
import './side.css'
export * from './all'
export { box, type Slot as Place } from '../shelf'
import shelf = require('./old')
const lazy = () => import('./later')
const { a, b: c } = require('./both')
function f() { return require('./inside').one }
import data from './x.json' with { type: 'json' }
`, defs: []string{"function lazy 8-8", "constant a 9-9", "constant c 9-9", "function f 10-10"},
			imports: []string{"1 node:fs: Stats default readFile", "2 path: *", "3 ./lots: Lot", "4 ./side.css: ", "5 re-export ./all: *", "6 re-export ../shelf: Slot box", "7 ./old: *", "8 lazy import ./later: *", "9 ./both: a b", "10 lazy import ./inside: one", "11 ./x.json: default"}},
		{name: "what is exported by other means", file: "a.js", text: "function one() {}\nconst two = 2\nexport { one, two as deux }\n", defs: []string{"+function one 1-1", "+constant two 2-2"}},
		{name: "CommonJS", file: "a.cjs", text: "exports.weigh = function (lot) {}\nmodule.exports.pack = (lot) => {\n}\nfunction x() {}\nmodule.exports = { x }\n",
			defs: []string{"+function weigh 1-1", "+function pack 2-3", "+function x 4-4"}},
		{name: "decorators and overloads", file: "a.ts", text: "@Part({ name: 'shelf' })\nexport class Shelf {\n  @Input() lot: string\n  put(a: string): void\n  put(a: number): void\n  put(a: unknown) {}\n}\nfunction f(a: string): { b: number }\nfunction f(a: unknown): { b: number } {\n  return { b: 1 }\n}\n",
			defs: []string{"+class Shelf 1-7", "+property Shelf.lot 3-3", "+method Shelf.put 6-6", "function f 9-11"}},
		{name: "a quote that is not closed costs an island", file: "a.js", text: "const a = 'open\nfunction after() {}\n", defs: []string{"constant a 1-1", "function after 2-2"}, partial: true},
		{name: "a template that is not closed costs an island", file: "a.js", text: "const a = `open\nfunction after() {}\n", defs: []string{"constant a 1-1", "function after 2-2"}, partial: true},
		{name: "an import inside a text is none", file: "a.ts", text: "const a = `import x from 'y'`\n// import z from 'q'\n", defs: []string{"constant a 1-1"}},
	})
}

func TestPython(t *testing.T) {
	run(t, []sample{
		{name: "definitions", file: "a.py", text: `"""Trials."""
import os, sys as system
from ..lots import (
    Lot,
    Box as B,  # why
)
LIMIT = 5
count: int = 0
a, b = 1, 2

@dataclass(frozen=True)
class Trial(Base, metaclass=Meta):
    sown: int
    kept = []

    def rate(self, n):
        def inner():
            pass
        return inner

    @property
    async def late(self): return 1

class Stage(str, Enum):
    DAMP = "damp"

def _hidden(*args, key=None, **more):
    import json
    return json
`, defs: []string{"+constant LIMIT 7-7", "+variable count 8-8", "+variable a 9-9", "+variable b 9-9", "+class Trial 12-22", "+property Trial.sown 13-13", "+property Trial.kept 14-14", "+method Trial.rate 16-19", "function Trial.rate.inner 17-18", "+method Trial.late 22-22", "+enum Stage 24-25", "+property Stage.DAMP 25-25", "function _hidden 27-29"},
			imports: []string{"2 os: *", "2 sys: *", "3 ..lots: Box Lot", "28 lazy import json: *"}},
		{name: "strings of every kind, one of them not closed", file: "a.py", text: "a = f\"{x['k']} {{}} {y!r:>{w}}\"\nb = rb'\\'\nc = '''\ndef no(): pass\n'''\nd = \"it's\" 'so'\ne = f'{\"a\" if b else \"c\"}'\ng = f\"{d[\"same\"]}\"\ndef yes(): pass\n",
			defs: []string{"+variable a 1-1", "+variable b 2-2", "+variable c 3-5", "+variable d 6-6", "+variable e 7-7", "+variable g 8-8", "+function yes 9-9"}, partial: true},
		{name: "f-strings that hold their own quotes", file: "a.py", text: "g = f\"{d[\"same\"]} {e['x']}\"\nh = f'{x}' f\"{y}\"\ndef yes(): pass\n",
			defs: []string{"+variable g 1-1", "+variable h 2-2", "+function yes 3-3"}},
		{name: "continuation lines and one-line bodies", file: "a.py", text: "total = 1 + \\\n    2\nif x: import y\nclass A: z = 1\nfor i in range(3):\n    from .q import r\n",
			defs: []string{"+variable total 1-2", "+class A 4-4", "+property A.z 4-4"}, imports: []string{"3 y: *", "6 .q: r"}},
		{name: "conditional imports", file: "a.py", text: "try:\n    import fast\nexcept ImportError:\n    import slow as fast\nif TYPE_CHECKING:\n    from .lots import Lot\n",
			imports: []string{"2 fast: *", "4 slow: *", "6 .lots: Lot"}},
		{name: "words that are names as well", file: "a.py", text: "match = 1\ncase = 2\ntype = 3\ndef match_all(): pass\n",
			defs: []string{"+variable match 1-1", "+variable case 2-2", "+variable type 3-3", "+function match_all 4-4"}},
		{name: "tabs and comments at odd depths", file: "a.py", text: "class A:\n\tdef f(self):\n\t\tpass\n# out\n\tdef g(self):\n\t\t# in\n\t\tpass\n",
			defs: []string{"+class A 1-7", "+method A.f 2-3", "+method A.g 5-7"}},
	})
}

func TestGo(t *testing.T) {
	run(t, []sample{
		{name: "declarations", file: "a.go", text: `// Package lots keeps lots.
package lots

import (
	"fmt"
	sh "vault/shelf"
	. "vault/words"
	_ "vault/driver"
)

type (
	Lot struct {
		*sh.Box
		ID string
	}
	Named interface {
		fmt.Stringer
		Name() string
	}
	Grams = float64
)

const (
	A, b = iota, 2
	C    = "x" +
		"y"
)

var Kept map[string]func(int) struct{ X int }

func (l *Lot) Weigh(a, b int, c ...string) (n int, err error) {
	return sh.Scale(l.ID), fmt.Errorf("x")
}

func Of[T any](x T) []T { return nil }

func outside(a int) int
`, defs: []string{"+class Lot 12-15", "+interface Named 16-19", "+type Grams 20-20", "+constant A 24-24", "constant b 24-24", "+constant C 25-26", "+variable Kept 29-29", "+method Lot.Weigh 31-33", "+function Of 35-35", "function outside 37-37"},
			imports: []string{"5 fmt: Errorf Stringer", "6 vault/shelf: Box Scale", "7 vault/words: A C Grams ID Kept Lot Name Named Of T Weigh X", "8 vault/driver: "}},
		{name: "braces in runes and raw strings", file: "a.go", text: "package a\nvar x = '{'\nvar y = `}\n{`\nfunc f() { if a := (struct{ b int }{1}); a.b > 0 { } }\n",
			defs: []string{"variable x 2-2", "variable y 3-4", "function f 5-5"}},
	})
	require.Equal(t, "Package lots keeps lots.", facts("a.go", "// Package lots keeps lots.\npackage lots\n").Doc)
	require.Equal(t, 3, facts("a.go", "package main\n\nfunc main() {}\n").Starts)
	require.Zero(t, facts("a.go", "package lots\n\nfunc main() {}\n").Starts)
}

// Every package of Go's own standard library is read, and what is found is
// held against Go's own parser.
func TestGoDefinitionsAgreeWithGoItself(t *testing.T) {
	root, err := exec.Command("go", "env", "GOROOT").Output()
	require.NoError(t, err)
	for _, dir := range []string{"net/http", "encoding/json", "go/types", "text/template", "sort", "strconv", "database/sql"} {
		files, err := filepath.Glob(filepath.Join(strings.TrimSpace(string(root)), "src", dir, "*.go"))
		require.NoError(t, err)
		require.NotEmpty(t, files)
		for _, p := range files {
			src, err := os.ReadFile(p)
			require.NoError(t, err)
			fset := token.NewFileSet()
			tree, err := parser.ParseFile(fset, p, src, parser.ParseComments)
			require.NoError(t, err)
			f := facts("a.go", string(src))
			require.Equal(t, wanted(fset, tree), got(f), p)
			require.True(t, f.Read == model.ReadFull || syntax.Unlooked(f), "%s: %s", p, f.Problem)
			var imports []string
			for _, im := range tree.Imports {
				imports = append(imports, strings.Trim(im.Path.Value, "\""))
			}
			var found []string
			for _, im := range f.Imports {
				found = append(found, im.Text)
			}
			require.Equal(t, imports, found, p)
		}
	}
}

func got(f *model.Facts) []string {
	var out []string
	for _, d := range f.Definitions {
		if d.Name != "_" {
			out = append(out, fmt.Sprintf("%s %d-%d", d.Qualified(), d.Line, d.EndLine))
		}
	}
	sort.Strings(out)
	return out
}

func wanted(fset *token.FileSet, f *ast.File) []string {
	var out []string
	add := func(name string, n ast.Node, from token.Pos) {
		if name != "_" && !strings.HasSuffix(name, "._") {
			out = append(out, fmt.Sprintf("%s %d-%d", name, fset.Position(from).Line, fset.Position(n.End()).Line))
		}
	}
	for _, d := range f.Decls {
		switch d := d.(type) {
		case *ast.FuncDecl:
			name := d.Name.Name
			if d.Recv != nil {
				r := d.Recv.List[0].Type
				for {
					switch x := r.(type) {
					case *ast.StarExpr:
						r = x.X
						continue
					case *ast.IndexExpr:
						r = x.X
						continue
					case *ast.IndexListExpr:
						r = x.X
						continue
					case *ast.ParenExpr:
						r = x.X
						continue
					}
					break
				}
				name = r.(*ast.Ident).Name + "." + name
			}
			add(name, d, d.Pos())
		case *ast.GenDecl:
			for _, s := range d.Specs {
				switch s := s.(type) {
				case *ast.TypeSpec:
					add(s.Name.Name, s, s.Pos())
				case *ast.ValueSpec:
					for _, n := range s.Names {
						add(n.Name, s, s.Pos())
					}
				}
			}
		}
	}
	sort.Strings(out)
	return out
}

func TestLinesAreCodeCommentOrBlank(t *testing.T) {
	for name, c := range map[string]struct {
		file, text           string
		code, comment, blank int
	}{
		"TypeScript":               {"a.ts", "// one\n\nconst a = 1 // two\n/* three\n\n*/\nb()\n", 2, 4, 1},
		"Python":                   {"a.py", "# one\n\"\"\"doc\n\nmore\"\"\"\n\nx = 1\n", 4, 1, 1},
		"Go without a last break":  {"a.go", "package a\n\n/* x */ var b int", 2, 0, 1},
		"a text nobody reads":      {"a.zzz", "one\n\ntwo\n", 2, 0, 1},
		"nothing":                  {"a.go", "", 0, 0, 0},
		"UTF-16":                   {"a.py", "\xff\xfex\x00=\x001\x00\n\x00", 1, 0, 0},
		"a mark and Windows lines": {"a.py", "\xef\xbb\xbfx = 1\r\n\r\ny = 2\r\n", 2, 0, 1},
	} {
		t.Run(name, func(t *testing.T) {
			f := facts(c.file, c.text)
			require.Equal(t, [3]int{c.code, c.comment, c.blank}, [3]int{f.Code, f.Comment, f.Blank})
			require.Equal(t, c.code+c.comment+c.blank, f.Lines)
		})
	}
}

func TestWhatAProgramWroteSaysSo(t *testing.T) {
	for name, c := range map[string]struct {
		file, text string
		line       int
	}{
		"Go's own mark":           {"a.go", "// Code generated by seedgen. DO NOT EDIT.\n\npackage a\n", 1},
		"a mark after a licence":  {"a.js", "/*\n * Free to use.\n */\n// @generated by seedgen\nx()\n", 4},
		"within a comment":        {"a.c", "/* The scale's table.\n   This file was automatically generated by weigh.\n */\nint a;\n", 2},
		"a lexer's words":         {"a.c", "/* A lexical scanner generated by flex */\nint a;\n", 1},
		"a completion of a shell": {"a.sh", "# bash completion for vault      -*- shell-script -*-\n\n__vault_debug()\n{\n}\n", 1},
		"one written by hand":     {"a.sh", "# bash completion for vault      -*- shell-script -*-\n\n_vault()\n{\n}\n", 0},
		"a page":                  {"a.html", "<!DOCTYPE html>\n<!-- Generated by seeddoc on a Monday -->\n<p>", 2},
		"a shell script":          {"a.sh", "#!/bin/sh\n# Generated from labels.tmpl, do not edit\necho\n", 2},
		"words in a string":       {"a.go", "package a\n\nvar mark = \"// Code generated by x. DO NOT EDIT.\"\n", 0},
		"prose about such a mark": {"a.go", "// Code generated elsewhere is skipped.\npackage a\n", 0},
		"what it makes":           {"a.py", "# Prints the labels generated by the drying room.\nx = 1\n", 0},
		"one block of it":         {"a.cfg", "# do not edit the section below by hand\nx = 1\n", 0},
	} {
		t.Run(name, func(t *testing.T) {
			h := facts(c.file, c.text).Hint(model.HintGenerated)
			if c.line == 0 {
				require.Nil(t, h)
				return
			}
			require.NotNil(t, h)
			require.Equal(t, c.line, h.Line)
		})
	}
}

func TestWhatAProgramWroteIsToldApart(t *testing.T) {
	long := "const a=1;" + strings.Repeat("b(2);", 900)
	for name, c := range map[string]struct{ file, text, skipped string }{
		"squeezed":                 {"a.js", long + "\n", "minified"},
		"one long line among many": {"a.js", strings.Repeat("call(1, 2)\n", 400) + long + "\n", ""},
		"a picture":                {"a.png", "\x89PNG\r\n\x1a\n\x00\x00\x00", "binary"},
	} {
		t.Run(name, func(t *testing.T) { require.Equal(t, c.skipped, facts(c.file, c.text).Skipped) })
	}
}

func TestFilesWithoutEndingAreKnownByTheirFirstLine(t *testing.T) {
	require.Equal(t, "Python", syntax.ForFile("bin/dry", []byte("#!/usr/bin/env python3.11\n")).Name)
	require.Equal(t, "JavaScript", syntax.ForFile("bin/dry", []byte("#!/usr/bin/env -S node --harmony\n")).Name)
	require.Nil(t, syntax.ForFile("bin/dry", []byte("#!/bin/sh\n")))
	for name, want := range map[string]string{
		"CHANGES.ru": "Plain text", "README.pl": "Plain text", "README.md": "Markdown", "config.ru": "Ruby", "boxes.pl": "Perl", "NOTICE.html": "HTML",
	} {
		require.Equal(t, want, syntax.ForFile(name, nil).Name, name)
	}
	catalogue := []byte("<?xml version=\"1.0\"?>\n<!DOCTYPE TS>\n<TS version=\"2.1\"></TS>")
	require.Equal(t, "XML", syntax.ForFile("vault_fr.ts", catalogue).Name)
	require.Equal(t, "TypeScript", syntax.ForFile("vault.ts", []byte("export const x = 1")).Name)
	require.Equal(t, "PHP", syntax.ForFile("head.inc", []byte("<div><?php box(); ?></div>")).Name)
	require.Equal(t, "C", syntax.ForFile("ports.inc", []byte("#define PORT 7420\n")).Name, "taken in by code of another language")
	require.Nil(t, syntax.ForFile("ports.inc", []byte("1,\n2,\n3,\n")), "a list is code in none")
	require.Nil(t, syntax.ForFile("base.inc", []byte("# keys that all layouts share\nkeycode 1 = Escape # cancel/leave\n")), "nor is a table with comments")
	require.Nil(t, syntax.ForFile("bin/dry", nil))
}

// sound holds for whatever bytes a reader is given.
func sound(t *testing.T, name string, src []byte) {
	f := survey.Read(syntax.ForFile(name, src), src)
	lines := f.Lines
	require.Equal(t, lines, f.Code+f.Comment+f.Blank)
	for _, d := range f.Definitions {
		require.NotEmpty(t, d.Name)
		require.True(t, 1 <= d.Line && d.Line <= d.EndLine && d.EndLine <= lines, "%s %d-%d of %d", d.Name, d.Line, d.EndLine, lines)
	}
	for _, im := range f.Imports {
		require.NotEmpty(t, im.Text)
		require.True(t, 1 <= im.Line && im.Line <= lines)
	}
	b, err := model.UnpackBody(f.Body)
	require.NoError(t, err)
	for _, c := range b.Calls {
		require.Less(t, int(c.In), len(f.Definitions), "a call stands in a definition that is there")
		require.True(t, 1 <= c.Line && int(c.Line) <= lines, "line %d of %d", c.Line, lines)
	}
	for _, s := range b.Shapes {
		require.True(t, s.Name != "" || s.Owner != "", "a shape is of something")
	}
}

func TestNestingWithoutEndIsSurvived(t *testing.T) {
	for _, open := range []string{"(", "{", "[", "`${", "<a>", "<a b={", "f(() => {", "class A { x = ", "if x:\n ", "lambda: (", "f'{", "{{", "\\'", "\\\"", "%(\n", "<<~A\n", "<<<A\n", "\"#{", "(]", "/*", "\"\"\"", "<?php '\\"} {
		for _, name := range []string{"a.tsx", "a.ts", "a.js", "a.py", "a.go", "A.java", "A.cs", "a.php", "a.rb", "a.rs", "a.kt", "a.c", "a.cpp", "a.pl", "a.gd", "a.vue", "a.svelte", "a.scss", "a.html", "a.blade.php", "a.sql", "a.xaml", "package.json", "tsconfig.json", "README.md"} {
			// Lines short enough to be read, enough of them to be seen in time.
			sound(t, name, []byte(strings.Repeat(strings.Repeat(open, 40)+"\n", 400)))
		}
	}
	deep := ""
	for i := range 400 {
		deep += strings.Repeat(" ", i) + "def f():\n"
	}
	sound(t, "a.py", []byte(deep))
}

func fuzz(f *testing.F, name string, seeds ...string) {
	for _, s := range seeds {
		f.Add([]byte(s))
	}
	f.Fuzz(func(t *testing.T, src []byte) { sound(t, name, src) })
}

func FuzzTSX(f *testing.F) {
	fuzz(f, "a.tsx", "export const A = <T,>(x: T) => <p a='b'>{`${x}`}it's</p>\nimport a from 'b'", "class A { b = /[/]/g; c<T>(d?: E): F {} }", "export default function* () { return x as Y }")
}

func FuzzJavaScript(f *testing.F) {
	fuzz(f, "a.js", "module.exports = { a, b }\nconst c = require('d').e", "var [a, {b}] = c / d / e, f = /g/.test(h)", "label: for (;;) { if (x) /y/ }")
}

func FuzzPython(f *testing.F) {
	fuzz(f, "a.py", "from . import a\nclass B(C):\n  def d(self, *e): return f'{g[\"h\"]}'\n", "if x:\n\ty = '''z\n'''\nmatch a:\n case b: pass\n", "async def f(a=lambda: 1): import b, c as d; e = 1\n")
}

func FuzzGo(f *testing.F) {
	fuzz(f, "a.go", "package a\nimport (\n b \"c\"\n)\ntype D[E any] struct { *F; G.H }\nfunc (i J[K]) L(m, n int) (o P) { q.R() }\n", "package main\nconst (\n a = iota\n)\nfunc main()\nvar b = []c{{1}}\n")
}

// others are the languages read by name alone, each with what is hard in it.
var others = []struct{ name, text string }{
	{"A.java", "package a; @B(c = {\")\"}) class C<T> extends D implements E { enum F { G { } } int h[] = {1}, i; C() {} String j = \"\"\"\n }\"\"\"; }"},
	{"a.php", "<b><?php namespace A\\B; use C\\{D, E as F, function g}; #[H(1)] abstract class I extends D { use J; const K = 1, L = [2]; public function __construct(private ?M $n = null) {} } $o = <<<P\n}\nP; new class(1) { function q() {} }; require __DIR__ . '/r.php' ?>s"},
	{"A.cs", "using A;\nnamespace B { [C(\"}\")] public partial class D<T> : E<T>, F where T : new() { int g { get; } = 1; string h = $@\"{i}\"\"\", j = \"\"\"k\"\"\"; void L() => M(); } }\n#if N\n#else\n}\n#endif\nenum O { P = 1 }"},
	{"a.rs", "pub mod a { use super::{b, c as d, e::*}; } #[derive(F)] enum G<'h> { I { j: u8 }, K(L) = 1 } impl<T> M<T> for N { fn o(p: &'h str) -> q!(r) { r#\"}\"#; b'}' } } macro_rules! s { () => {} }"},
	{"a.kt", "package a\nimport b.c as d\ndata class E<F>(val g: H = i(1)) : J(), K by l { var m: N get() = 1\n companion object { fun <O> P.q() = \"${r(\"}\")}\"\n} }\nenum class S { T(1) { }, U; }\nval `v w` = \"\"\"x\"\"\""},
	{"a.cpp", "#include \"b\"\n#define C(d) \\\n e\nnamespace f { template <class G> class H : public I<G> { J(int k) : l{1} {} ~J(); operator m(); public: int n[2], *o; }; } p q::r(s) const -> t { R\"u(})u\" '{' } typedef struct { int v : 1; } w; enum x { y = 1, z };\n#if 0\n{\n#else\nint a(b) int b; { }\n#endif\nfoo operator;"},
	{"a.pl", "package A; use B qw(c d); sub e($f, $) { s{g}{h}e; <<I; m/j/; $k->{s} // q(l) }\nI\n=pod\n\n=cut\n@ISA = ('M'); our $n = $#{o}; get '/p' => sub { }; format Q =\n.\nsub r : Path('s') { }\n__END__\n"},
	{"a.gd", "class_name A extends B\nsignal c(d)\nenum E { F = 1, G }\n@export var h := 1:\n\tset(v):\n\t\tpass\nclass I extends J:\n\tfunc k(l = func(): pass): return $M/N\nconst o = preload(\"res://p\")\n"},
	{"a.tscn", "[gd_scene]\n[ext_resource path=\"res://a.gd\" id=1]\n"},
	{"project.godot", "[application]\nrun/main_scene=\"res://a\"\n[autoload]\nB=\"*res://c\"\n"},
	{"a.vue", "<template><a-b><template #c/></a-b></template><script lang=\"ts\">import AB from './c'</script><style src='d'>@use 'e'</style>"},
	{"a.svelte", "<script>export let a</script>{#if b}<C/>{/if}<style>@import 'd'</style>"},
	{"a.scss", "@use 'a' as b; $c: 1; @mixin d($e) { f: url(g) } @function h() { @return 1 }"},
	{"a.html", "{% extends 'a' %}<form action='/b/{{ c }}'><!-- d --><script src=\"e\"></script>"},
	{"a.blade.php", "@include('a.b', [])<x-c.d/>{{-- e --}}"},
	{"a.cshtml", "@page \"/a\"\n@model B.C\n@{ Layout = \"d\"; }@* e *@"},
	{"a.sql", "CREATE TABLE a.\"b\" (c int, d text DEFAULT 'e'); CREATE FUNCTION f() AS $$ g $$; CREATE TRIGGER h BEGIN SELECT 1; END;"},
	{"a.xaml", "<A x:Class=\"b.C\" xmlns:d=\"clr-namespace:e\"><d:F G=\"{x:Type d:H}\"/></A>"},
	{"a.xml", "<a b=\"c.d.E\"><![CDATA[x]]>f.g.H</a>"},
	{"a.rb", "module A; class B < C::D; E = %w[f]; def g(h = :i) = <<~J; attr_reader :k\n l #{m}\nJ\n end; x = /n/ if o ? p : q\n while r do s end\nend\nrequire 't'\nclass << self; def -@; end; end\n"},
}

// FuzzLanguages hands any bytes to any of the other languages.
func FuzzLanguages(f *testing.F) {
	for i, o := range others {
		f.Add(uint8(i), []byte(o.text))
	}
	f.Fuzz(func(t *testing.T, kind uint8, src []byte) { sound(t, others[int(kind)%len(others)].name, src) })
}

func FuzzProjectFiles(f *testing.F) {
	names := []string{"package.json", "tsconfig.json", "go.mod", "pyproject.toml", "requirements.txt", "setup.cfg", "Makefile", "Dockerfile", "README.md", "composer.json", "pom.xml", "build.gradle", "Cargo.toml", "Makefile.am", "Makefile.in", "CMakeLists.txt", "meson.build", "a.pc.in"}
	f.Add(uint8(9), []byte(`{"name":"a/b","require":{"c/d":"^1"},"scripts":{"test":["x","y"]},"autoload":{"psr-4":{"A\\":["src"]}}}`))
	f.Add(uint8(10), []byte("<project><artifactId>a</artifactId><dependencies><dependency><groupId>b</groupId><artifactId>c</artifactId></dependency></dependencies></project>"))
	f.Add(uint8(11), []byte("dependencies {\n implementation(\"a:b:1\")\n}\n"))
	f.Add(uint8(0), []byte(`{"name":"a","exports":{".":{"import":["./b"]}},"workspaces":{"packages":["c"]}}`))
	f.Add(uint8(1), []byte("{ // c\n\"compilerOptions\": { \"paths\": { \"@/*\": [\"./*\",] }, } }"))
	f.Add(uint8(2), []byte("module a\nrequire b v1.0.0\n"))
	f.Add(uint8(3), []byte("[project]\nname='a'\ndependencies=['b>=1']\n"))
	f.Add(uint8(5), []byte("[options]\ninstall_requires =\n  a>1\n"))
	f.Add(uint8(8), []byte("# A\n\nwords\n\n```\nmake b\n```\n"))
	f.Add(uint8(13), []byte("bin_PROGRAMS = a \\\n $(B)\nB = c\nx_la_LDFLAGS = -module\n"))
	f.Add(uint8(15), []byte("project(a)\nset(B ${A})\nadd_library(${B} MODULE c)\ninstall(TARGETS ${B})\n"))
	f.Add(uint8(16), []byte("library('a', f(')'), install : true)\n"))
	f.Fuzz(func(t *testing.T, kind uint8, src []byte) { sound(t, names[int(kind)%len(names)], src) })
}
