package languages_test

import "testing"

func TestTypeScriptInItsCorners(t *testing.T) {
	run(t, []sample{
		{name: "a value made constant ends its statement", file: "a.ts", text: "const a = ['x'] as const\nexport function f() {}\nexport const b = { c: 1 } satisfies D as const\ntype E = (typeof a)[number]['x']\nfunction g() {}\n",
			defs: []string{"constant a 1-1", "+function f 2-2", "+constant b 3-3", "type E 4-4", "function g 5-5"}},
		{name: "interfaces whose type arguments hold braces", file: "a.ts", text: "export interface A<T = string & {}, U extends { b: 1 } = { b: 1 }> extends B<string & {}>, C<{ d: 2 }> {\n  e: T\n}\nfunction f() {}\n",
			defs: []string{"+interface A 1-3", "function f 4-4"}},
		{name: "what belongs to everybody", file: "a.d.ts", text: "declare global {\n  interface Window { vault: string }\n  var shelf: number\n}\ndeclare module 'lots' {\n  global {\n    type G = 1\n  }\n  export function weigh(): number\n}\nexport {}\n",
			defs: []string{"interface Window 2-2", "variable shelf 3-3", "namespace lots 5-10", "type lots.G 7-7", "+function lots.weigh 9-9"}},
		{name: "what a file exports by default", file: "a.ts", text: "export default defineConfig({ plugins: [a(() => 1)] })\n", defs: []string{"+constant default 1-1"}},
		{name: "a function exported by default", file: "a.ts", text: "export default async (x: number) => {\n  return x\n}\n", defs: []string{"+function default 1-3"}},
		{name: "abstract classes and their members", file: "a.ts", text: "export abstract class A {\n  abstract b(): void\n  protected constructor(private readonly c: C) { super() }\n  static { init() }\n  declare d: string\n  [key: string]: unknown\n  override e?(): void\n  accessor f = 1\n  async *g() {}\n  get 'h'() { return 1 }\n  i = async () => {\n  }\n}\n",
			defs: []string{"+class A 1-13", "+method A.b 2-2", "method A.constructor 3-3", "+property A.d 5-5", "+method A.e 7-7", "+property A.f 8-8", "+method A.g 9-9", "+method A.h 10-10", "+method A.i 11-12"}},
		{name: "arrows with types on several lines", file: "a.ts", text: "export const f = async <T extends object>(\n  a: T,\n  { b, c }: { b: number; c?: string } = {},\n): Promise<Map<string, T>> => {\n  return g(a)\n}\nconst h = (x): x is Y => true\n",
			defs: []string{"+function f 1-6", "function h 7-7"}},
		{name: "regular expressions where a value is due", file: "a.ts", text: "const a = [/[/]'/, b ? /x{1,2}/ : c / d / e]\nreturn_(/\\/*/g)\nif (f) /}/.exec(g)\nconst h = i++ / 2, j = k /* / */ / 3\nfunction l() { return /`/ }\nfunction m() {}\n",
			defs: []string{"constant a 1-1", "constant h 4-4", "constant j 4-4", "function l 5-5", "function m 6-6"}},
		{name: "imports of types, of everything, and of what is not a module", file: "a.ts", text: "import type A, { type B } from './a'\nimport * as C from \"./c\"\nimport D = E.F\nexport type { G } from './g'\nexport * as H from './h'\nimport './i.css'\nconst J = await import(`./j`)\nconst K = import(`./${x}`)\nlet l: import('./m').M\n",
			defs:    []string{"constant J 7-7", "constant K 8-8", "variable l 9-9"},
			imports: []string{"1 ./a: B default", "2 ./c: *", "4 re-export ./g: G", "5 re-export ./h: *", "6 ./i.css: ", "7 lazy import ./j: *", "9 lazy import ./m: *"}},
	})
}

func TestPythonInItsCorners(t *testing.T) {
	run(t, []sample{
		{name: "decorated, nested and conditional", file: "a.py", text: "@a(b, c=[1,\n  2])\nclass D(E, metaclass=F):\n    g: int = 1\n    @property\n    def h(self): return 1\n    class I:\n        async def j(self): pass\nif x:\n    def k(): pass\nelse:\n    def k(): pass\ntry:\n    import l\nexcept ImportError:\n    l = None\n",
			defs: []string{"+class D 3-8", "+property D.g 4-4", "+method D.h 6-6", "+class D.I 7-8", "+method D.I.j 8-8", "+function k 10-10", "+function k 12-12", "+variable l 16-16"}, imports: []string{"14 l: *"}},
		{name: "strings of every form", file: "a.py", text: "a = f'{b[\"c\"]}' rb'\\'' \"\"\"\ndef no(): pass\n\"\"\"\nd = f'''{\n  e!r:>{f}}\n'''\ng = 'h\\\n# no'\ndef i(): pass\n", defs: []string{"+variable a 1-3", "+variable d 4-6", "+variable g 7-8", "+function i 9-9"}},
		{name: "lines that go on", file: "a.py", text: "a = (1 +\n     2)\nb = 3 + \\\n    4\ndef c(\n    d,\n    e={\n      'f': 1,\n    },\n):\n    return d\ndef g(): pass\n", defs: []string{"+variable a 1-2", "+variable b 3-4", "+function c 5-11", "+function g 12-12"}},
		{name: "imports of every form", file: "a.py", text: "import a.b as c, d\nfrom . import e\nfrom ..f import (g as h,\n    i)\nfrom j import *\ndef k():\n    from l import m\nif TYPE_CHECKING:\n    import n\n",
			defs: []string{"+function k 6-7"}, imports: []string{"1 a.b: *", "1 d: *", "2 .: e", "3 ..f: g i", "5 j: *", "7 lazy import l: m", "9 n: *"}},
	})
}

func TestGoInItsCorners(t *testing.T) {
	run(t, []sample{
		{name: "groups, generics, methods on them and embedded types", file: "a.go", text: "package a\n\nimport (\n\t. \"b\"\n\t_ \"c\"\n\td \"e/f\"\n)\n\ntype (\n\tG[T any] struct {\n\t\t*H\n\t\ti, j int `k:\"}\"`\n\t}\n\tL interface{ M(); ~int | string }\n\tN = map[string][]func(int) error\n)\n\nconst (\n\to = iota\n\tP\n)\n\nvar q, R = 1, func() int { return 2 }()\n\nfunc (g *G[T]) S(t ...T) (u int, v error) { return }\nfunc w[X comparable](x X) {}\nfunc asm(a int)\n",
			defs:    []string{"+class G 10-13", "+interface L 14-14", "+type N 15-15", "constant o 19-19", "+constant P 20-20", "variable q 23-23", "+variable R 23-23", "+method G.S 25-25", "function w 26-26", "function asm 27-27"},
			imports: []string{"4 b: G H L M N P R S T X", "5 c: ", "6 e/f: "}},
	})
}
