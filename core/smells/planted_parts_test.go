package smells_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
)

// flagged is a class that keeps where it stands: in so many flags, or in one word.
func (l *tongue) flagged(r *rand.Rand, flags int) string {
	names := []string{"isReading", "hasFailed", "wasMoved", "loaded", "isClosing", "hasStarted"}
	r.Shuffle(len(names), func(i, j int) { names[i], names[j] = names[j], names[i] })
	names = names[:flags]
	form := map[string]struct{ head, field, set, own string }{
		".ts":   {"export class Meter {\n%s%s}\n", "  %s = false\n", "  step%d() {\n    this.%s = %s\n  }\n", "  state = 'new'\n"},
		".py":   {"class Meter:\n    def __init__(self):\n%s\n%s", "        self.%s = False\n", "    def step%d(self):\n        self.%s = %s\n", "        self.state = 'new'\n"},
		".java": {"package shelf;\n\npublic class Meter {\n%s%s}\n", "  private boolean %s = false;\n", "  void step%d() {\n    this.%s = %s;\n  }\n", "  private String state = \"new\";\n"},
		".php":  {"<?php\nclass Meter {\n%s%s}\n", "  private $%s = false;\n", "  function step%d() {\n    $this->%s = %s;\n  }\n", "  private $state = 'new';\n"},
		".go":   {"package shelf\n\ntype Meter struct {\n%s}\n\n%s", "\t%s bool\n", "func (m *Meter) Step%d() {\n\tm.%s = %s\n}\n\n", "\tstate string\n"},
	}[l.ext]
	fields, sets := form.own, ""
	for i, n := range names {
		fields += fmt.Sprintf(form.field, n)
		sets += fmt.Sprintf(form.set, i, n, pick(l.ext == ".py", "True", "true"))
	}
	return fmt.Sprintf(form.head, fields, sets)
}

// handing is a class that hands on: of its calls so many do nothing else.
func (l *tongue) handing(r *rand.Rand, all, on int) string {
	form := map[string]struct{ head, hand, work, end string }{
		".ts": {"import { Store } from '../data/store'\n\nexport class Shelf {\n  constructor(private store: Store) {}\n", "  %[1]s(id: number) {\n    return this.store.%[1]s(id)\n  }\n",
			"  %[1]s(id: number) {\n    const n = id + 1\n    return n * this.store.size\n  }\n", "}\n"},
		".java": {"package shelf;\n\nclass Shelf {\n  private final Store store;\n", "  int %[1]s(int id) {\n    return store.%[1]s(id);\n  }\n",
			"  int %[1]s(int id) {\n    int n = id + 1;\n    return n * 2;\n  }\n", "}\n"},
		".go": {"package shelf\n\ntype Shelf struct {\n\tstore *Store\n}\n", "\nfunc (s *Shelf) %[2]s(id int) int {\n\treturn s.store.%[2]s(id)\n}\n",
			"\nfunc (s *Shelf) %[2]s(id int) int {\n\tn := id + 1\n\treturn n * 2\n}\n", ""},
		".py": {"from src.data.store import Store\n\n\nclass Shelf:\n    def __init__(self, store: Store):\n        self.store = store\n", "\n    def %[1]s(self, id):\n        return self.store.%[1]s(id)\n",
			"\n    def %[1]s(self, id):\n        n = id + 1\n        return n * 2\n", ""},
	}[l.ext]
	if form.head == "" {
		return ""
	}
	var b, s strings.Builder
	b.WriteString(form.head)
	store := map[string][3]string{
		".ts": {"export class Store {\n  size = 1\n", "  %[1]s(id: number) {\n    return id\n  }\n", "}\n"}, ".java": {"package shelf;\n\nclass Store {\n", "  int %[1]s(int id) {\n    return id;\n  }\n", "}\n"},
		".go": {"package shelf\n\ntype Store struct{}\n", "\nfunc (s *Store) %[2]s(id int) int {\n\treturn id\n}\n", ""}, ".py": {"class Store:\n    size = 1\n", "\n    def %[1]s(self, id):\n        return id\n", ""},
	}[l.ext]
	s.WriteString(store[0])
	first := r.IntN(3)
	for i := range all {
		name := []string{"open", "label", "carry", "weigh", "wash", "send", "sort", "close"}[i]
		fmt.Fprintf(&b, pick((i+first)%all < on, form.hand, form.work), name, upper(name))
		fmt.Fprintf(&s, store[1], name, upper(name))
	}
	at := map[bool]string{true: "src/logic/store", false: "src/data/store"}[l.ext == ".go" || l.ext == ".java"]
	return "-- src/logic/shelf" + l.ext + " --\n" + b.String() + form.end + "-- " + at + l.ext + " --\n" + s.String() + store[2]
}

// onScreen plants something in components, which one of the languages draws.
func onScreen(rule, at string, tree func(r *rand.Rand, fault bool) string) plant {
	return plant{rule: rule, whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
		if l.ext != ".ts" {
			return "", ""
		}
		return tree(r, fault), at
	}}
}

func page(path string, uses ...string) string {
	var head, body strings.Builder
	for _, u := range uses {
		fmt.Fprintf(&head, "import { %[1]s } from './%[1]s'\n", u)
		fmt.Fprintf(&body, "      <%s />\n", u)
	}
	name := path[strings.LastIndexByte(path, '/')+1:]
	return fmt.Sprintf("-- %s.tsx --\n%sexport function %s() {\n  return (\n    <main>\n%s      <p>lots</p>\n    </main>\n  )\n}\n", path, head.String(), name, body.String())
}

func init() {
	wholes = append(wholes,
		layered("cut-by-kind", 8, func(s *service, _ *rand.Rand, fault bool) (string, string) {
			if fault {
				return s.tree(), "."
			}
			var b strings.Builder
			for _, n := range s.names {
				use := fmt.Sprintf(s.use, n, "store")
				fmt.Fprintf(&b, "-- src/%[1]s/handler%[2]s --\n%[3]s%[4]s%[5]s", n, s.ext, s.head, fmt.Sprintf(s.use, n, "service"), fmt.Sprintf(s.handle, upper(n)))
				fmt.Fprintf(&b, "-- src/%[1]s/service%[2]s --\n%[3]s%[4]s%[5]s", n, s.ext, s.head, use, fmt.Sprintf(s.reckon, upper(n)))
				fmt.Fprintf(&b, "-- src/%[1]s/store%[2]s --\n%[3]s%[4]s", n, s.ext, s.head, fmt.Sprintf(s.keep, upper(n)))
			}
			return b.String(), "."
		}),
		plant{rule: "central-drop", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			s, ok := stacks[l.ext]
			form := map[string]string{".ts": "export interface %s {\n  grams: number\n}\n", ".py": "@dataclass\nclass %s:\n    grams: int\n\n\n", ".php": "class %s {\n    public int $grams;\n}\n"}[l.ext]
			if !ok {
				return "", ""
			}
			var b strings.Builder
			fmt.Fprintf(&b, "-- src/shared/models%s --\n%s", l.ext, s.head+pick(l.ext == ".py", "from dataclasses import dataclass\n\n\n", ""))
			for _, w := range []string{"Lot", "Box", "Tray", "Grower", "Card", "Slip"} {
				fmt.Fprintf(&b, form, w)
			}
			skip := r.IntN(4)
			for i := range 26 {
				use := pick(fault && i%9 != skip || i < 4, fmt.Sprintf(s.use, "shared", "models"), "")
				fmt.Fprintf(&b, "-- src/%s/%s%s --\n%s%s%s", []string{"vault", "drying", "growers"}[i%3], words(32)[i], l.ext, s.head, use, fmt.Sprintf(s.reckon, upper(words(32)[i])))
			}
			return b.String(), "src/shared/models" + l.ext
		}},
		plant{rule: "loose-flags", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			at := "src/vault/meter" + l.ext
			return "-- " + at + " --\n" + l.flagged(r, pick(fault, 4+r.IntN(3), 1+r.IntN(2))) + l.folder(r, "src/growers/%s", 4), at
		}},
		plant{rule: "thin-pass-through", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			tree := l.handing(r, 8, pick(fault, 6+r.IntN(3), 1+r.IntN(2)))
			if tree == "" {
				return "", "" // what a field holds is not said there
			}
			return tree + l.folder(r, "src/growers/%s", 4), "src/logic/shelf" + l.ext
		}},
		plant{rule: "unrelated-contents", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			s, ok := stacks[l.ext]
			if !ok {
				return "", ""
			}
			var b strings.Builder
			names := []string{"barley", "clover", "dock", "elder", "fennel", "gorse", "hazel", "ivy", "juniper"}
			r.Shuffle(len(names), func(i, j int) { names[i], names[j] = names[j], names[i] })
			for i, n := range names {
				body := fmt.Sprintf([]string{s.handle, s.keep, map[string]string{
					".ts": "export interface %s {\n  grams: number\n}\n", ".py": "class %s(Exception):\n    pass\n", ".php": "class %s extends Exception {\n}\n",
				}[l.ext]}[i%3], upper(n))
				use := pick(!fault && i > 0, fmt.Sprintf(s.use, "things", names[max(0, i-1)]), "")
				fmt.Fprintf(&b, "-- src/things/%s%s --\n%s%s%s", n, l.ext, s.head, use, body)
			}
			return b.String() + l.folder(r, "src/growers/%s", 4), "src/things"
		}},
		plant{rule: "folder-name-untrue", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			s, ok := stacks[l.ext]
			if !ok {
				return "", ""
			}
			folder := pick(fault, []string{"views", "handlers", "controllers"}, []string{"repositories", "stores", "dao"})[r.IntN(3)]
			var b strings.Builder
			for _, w := range words(32)[:6] {
				fmt.Fprintf(&b, "-- src/%s/%s%s --\n%s%s", folder, w, l.ext, s.head, fmt.Sprintf(s.keep, upper(w)))
			}
			return b.String() + l.folder(r, "src/growers/%s", 4), "src/" + folder
		}},
		plant{rule: "wiring-with-logic", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			start := map[string]string{
				".ts":   "import express from 'express'\nimport { box } from './box'\nimport { tray } from './tray'\n\nconst app = express()\napp.use(box, tray)\napp.listen(1)\n\n",
				".go":   "package main\n\nfunc main() {\n\tBox()\n\tTray()\n\tCount(1, 2)\n}\n\n",
				".py":   "from box import box\nfrom tray import tray\n\nif __name__ == '__main__':\n    count(box(), tray())\n\n\n",
				".java": "public static void main(String[] args) {\n  new Box();\n  new Tray();\n  new Main().count(1, 2);\n}\n",
			}[l.ext]
			if start == "" {
				return "", "" // any file may be opened there
			}
			parts := ""
			for _, part := range []string{"Box", "Tray"} {
				low := strings.ToLower(part)
				parts += map[string]string{
					".ts": "-- src/" + low + ".ts --\nexport const " + low + " = 1\n", ".go": "-- src/" + low + ".go --\npackage main\n\nfunc " + part + "() {}\n",
					".py": "-- src/" + low + ".py --\ndef " + low + "():\n    return 1\n", ".java": "-- src/" + part + ".java --\npackage shelf;\n\nclass " + part + " {}\n",
				}[l.ext]
			}
			work := l.function("count", numbers(2), l.some(r, pick(fault, 90, 12)), false)
			at := "src/main" + l.ext
			if l.ext == ".java" {
				return parts + "-- src/Main.java --\n" + inClass("package shelf;\n\npublic class %s {", "}")("Main", []string{start, work}) + l.folder(r, "src/growers/%s", 4), "src/Main.java"
			}
			if l.ext == ".py" {
				return parts + "-- " + at + " --\n" + work + "\n\n\n" + start + l.folder(r, "src/growers/%s", 4), at
			}
			return parts + "-- " + at + " --\n" + start + work + "\n" + l.folder(r, "src/growers/%s", 4), at
		}},
		plant{rule: "sender-without-receiver", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			do := map[string][2]string{
				".ts": {"bus.publish('%s', grams)", "bus.subscribe('%s', (x) => x)"}, ".py": {"bus.publish('%s', grams)", "bus.subscribe('%s', pack)"},
				".php": {"$bus->publish('%s', $grams);", "$bus->subscribe('%s', $pack);"},
			}[l.ext]
			if do[0] == "" {
				return "", ""
			}
			var b strings.Builder
			odd := r.IntN(4)
			at := ""
			for i, w := range words(32)[:4] {
				for end, form := range do {
					if i == odd && end == 1 && fault {
						continue
					}
					path := fmt.Sprintf("src/%s/%s%s", []string{"vault", "growers"}[end], w, l.ext)
					if i == odd && end == 0 {
						at = path
					}
					body := append(l.some(r, 3), fmt.Sprintf(form, "lot."+w+".opened"))
					fmt.Fprintf(&b, "-- %s --\n%s", path, l.file(w, []string{l.function(l.named("open", w), numbers(1), body, false)}))
				}
			}
			return b.String(), at
		}},
		plant{rule: "untested-handler", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			form := map[string][3]string{
				".ts": {"import express from 'express'\nimport * as lots from './handlers/lots'\nconst app = express()\n%sapp.listen(80)\n", "app.get('/%[1]s', lots.list%[2]s)\n", "export function list%[2]s(req, res) {\n  res.json([])\n}\n"},
				".py": {"from flask import Flask\nfrom src.handlers import lots\n\napp = Flask(__name__)\n%s", "app.add_url_rule('/%[1]s', view_func=lots.list%[2]s)\n", "def list%[2]s():\n    return {}\n\n\n"},
			}[l.ext]
			if form[0] == "" {
				return "", ""
			}
			var routes, handlers, tests strings.Builder
			odd := r.IntN(4)
			for i, w := range words(32)[:4] {
				fmt.Fprintf(&routes, form[1], w, upper(w))
				fmt.Fprintf(&handlers, form[2], w, upper(w))
				if i == odd && fault {
					continue
				}
				fmt.Fprintf(&tests, map[string]string{
					".ts": "it('lists %[1]s', () => {\n  expect(lots.list%[2]s({}, {})).toBe(1)\n})\n", ".py": "def test_%[1]s():\n    assert lots.list%[2]s() == {}\n\n\n",
				}[l.ext], w, upper(w))
			}
			test := map[string]string{".ts": "-- test/lots.test.ts --\nimport * as lots from '../src/handlers/lots'\n", ".py": "-- tests/test_lots.py --\nfrom src.handlers import lots\n\n\n"}[l.ext]
			return "-- src/app" + l.ext + " --\n" + fmt.Sprintf(form[0], routes.String()) + "-- src/handlers/lots" + l.ext + " --\n" + handlers.String() +
				test + tests.String() + "-- src/handlers/__init__.py --\n", "src/handlers/lots" + l.ext
		}},
		plant{rule: "feature-knows-inside", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			if l.ext != ".ts" {
				return "", "" // a package's face is not told from what it starts with
			}
			var b strings.Builder
			b.WriteString("-- src/vault/index.ts --\nexport { open } from './shelf'\nexport { close } from './lid'\n" +
				"-- src/vault/shelf.ts --\nexport const open = (n: number) => n\n-- src/vault/lid.ts --\nexport const close = (n: number) => n\n")
			odd := r.IntN(5)
			for i, w := range words(32)[:5] {
				from := pick(fault && i == odd, "../vault/shelf", "../vault")
				fmt.Fprintf(&b, "-- src/growers/%s.ts --\nimport { open } from '%s'\nexport const use%s = () => open(%d)\n", w, from, upper(w), i)
			}
			return b.String(), "src/growers"
		}},
		onScreen("mixed-duties", "src/desk/board.tsx", func(r *rand.Rand, fault bool) string {
			ask := pick(fault, "  fetch('/lots').then((x) => x.json())\n", "  useLots()\n")
			keep := "  const [n, setN] = useState(0)\n"
			return "-- src/desk/board.tsx --\nimport { useState } from 'react'\n\nexport function Board() {\n" + keep + ask + strings.Repeat("  step(n)\n  setN(1)\n", 40+r.IntN(9)) +
				"  return <p>{n}</p>\n}\n-- src/desk/App.tsx --\nimport { Board } from './board'\nexport const App = () => <Board />\n"
		}),
		onScreen("styles-first", "src/desk/Board.tsx", func(r *rand.Rand, fault bool) string {
			var s strings.Builder
			for i := range pick(fault, 12+r.IntN(4), 2) {
				fmt.Fprintf(&s, "  row%d: {\n    display: 'flex',\n    padding: %d,\n  },\n", i, r.IntN(9))
			}
			return "-- src/desk/Board.tsx --\nconst styles = {\n" + s.String() + "}\n\nexport function Board() {\n  return <p style={styles.row0}>lots</p>\n}\n"
		}),
		onScreen("styles-from-outside", "src/desk/Board.tsx", func(r *rand.Rand, fault bool) string {
			style := pick(fault, []string{"marginLeft: 240", "position: 'absolute'", "marginTop: 12"}, []string{"color: 'black'", "padding: 4", "display: 'flex'"})[r.IntN(3)]
			return "-- src/desk/Board.tsx --\nexport function Board() {\n  return (\n    <section style={{ " + style + " }}>\n      <p>lots</p>\n    </section>\n  )\n}\n" + page("src/desk/Desk", "Board")
		}),
		onScreen("picture-as-code", "src/desk", func(r *rand.Rand, fault bool) string {
			var b strings.Builder
			for _, w := range words(32)[:6+r.IntN(3)] {
				inside := pick(fault, "<svg viewBox=\"0 0 9 9\"><path d=\"M1 1h7\" /></svg>", "<p>lots of "+w+"</p>")
				fmt.Fprintf(&b, "-- src/desk/%[1]s.tsx --\nexport const %[1]s = () => %[2]s\n", upper(w), inside)
			}
			return b.String()
		}),
		onScreen("primitives-composed-mixed", "src/desk", func(r *rand.Rand, fault bool) string {
			var small []string
			for _, w := range words(32)[:6] {
				small = append(small, upper(w))
			}
			r.Shuffle(len(small), func(i, j int) { small[i], small[j] = small[j], small[i] })
			tree := ""
			for _, s := range small {
				tree += page("src/desk/" + s)
			}
			for i := range 6 {
				name := fmt.Sprintf("Page%c", 'A'+i)
				if fault {
					tree += page("src/desk/"+name, small[i], small[(i+1)%6], small[(i+2)%6])
				} else {
					tree += strings.ReplaceAll(page("src/pages/"+name, small[i], small[(i+1)%6], small[(i+2)%6]), "'./", "'../desk/")
				}
			}
			return tree
		}),
	)
}
