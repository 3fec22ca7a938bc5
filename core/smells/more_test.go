package smells_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func long(n int) string { return strings.Repeat("  step()\n", n) }

func each(pattern string, names ...string) string {
	out := ""
	for _, n := range names {
		out += strings.NewReplacer("{n}", n, "{N}", strings.ToUpper(n[:1])+n[1:]).Replace(pattern) + "\n"
	}
	return out
}

// door is a feature with an index by which it is meant to be used.
const door = "-- src/drying/index.ts --\nexport { dry } from './dry'\n-- src/drying/dry.ts --\nimport { wet } from './wet'\nexport const dry = () => wet()\n-- src/drying/wet.ts --\nexport const wet = () => 1\n"

// mixed are four components that render no other and four that are put together
// of three each, in the folders named.
func mixed(primitive, composed string) string {
	from := "."
	if primitive != composed {
		from = "../" + strings.TrimPrefix(primitive, "src/")
	}
	small := []string{"seal", "mark", "line", "tick"}
	out := each("-- "+primitive+"/{N}.tsx --\nexport function {N}() { return <i>{n}</i> }", small...)
	head, body := "", ""
	for _, n := range small[:3] {
		n = strings.ToUpper(n[:1]) + n[1:]
		head += "import { " + n + " } from '" + from + "/" + n + "'\n"
		body += "<" + n + " />"
	}
	tick := strings.ReplaceAll(head, "Seal", "Tick")
	out += each("-- "+composed+"/{N}Card.tsx --\n"+head+"export function {N}Card() { return <p>"+body+"</p> }", "lot", "shelf")
	return out + each("-- "+composed+"/{N}Card.tsx --\n"+tick+"export function {N}Card() { return <p>"+strings.ReplaceAll(body, "Seal", "Tick")+"</p> }", "crate", "order")
}

// Each rule has a tree in which it is hit, with where and what it says, and one
// that looks like it and is left alone.
func TestRulesHitWhatTheyAreFor(t *testing.T) {
	things := []string{"lot", "shelf", "grower", "label", "order", "crate"}
	server := each("-- src/handlers/{n}.ts --\nimport '../logic/{n}'\nexport function list{N}(req, res) {}\n-- src/logic/{n}.ts --\nimport '../data/{n}'\nexport function {n}Of() {}\n-- src/data/{n}.ts --\nexport const rows = () => db.query('SELECT id FROM {n}s WHERE id = 1')", things...)
	for rule, c := range map[string]struct {
		hit, at, says string
		quiet         string
	}{
		"folder-of-one":           {"-- src/a/x.ts --\nexport const a = 1\n-- src/b.ts --\nexport const b = 1\n-- src/c/d.ts --\nf()\n-- src/c/e.ts --\nf()\n", "src/a", "one file alone", "-- src/a/x.ts --\nf()\n-- src/a/y.ts --\nf()\n"},
		"cut-by-kind":             {server, ".", "features are spread", each("-- src/{n}/{n}.handler.ts --\nexport class {N}Handler {}\n-- src/{n}/{n}.service.ts --\nexport class {N}Service {}", things...)},
		"two-folders-one-purpose": {"-- src/utils/a.ts --\nf()\n-- src/helpers/b.ts --\nf()\n", "src", "promise the same", "-- src/utils/a.ts --\nf()\n-- src/pages/b.ts --\nf()\n"},
		"too-deep":                {"-- a/b/c/d/e/f/g/h/i/x.ts --\nf()\n", "a/b/c/d/e/f/g/h/i", "Nine folders", "-- a/b/c/x.ts --\nf()\n"},
		"root-clutter":            {each("-- {n}.ts --\nf()", "ash", "birch", "cedar", "elm", "fir", "hazel", "larch", "maple", "oak", "pine") + "-- a/x.ts --\nf()\n-- b/y.ts --\nf()\n", ".", "Ten source files", each("-- {n}.ts --\nf()", "ash", "birch") + "-- a/x.ts --\nf()\n-- b/y.ts --\nf()\n"},
		"namespace-against-path":  {"-- src/vault/lots/A.java --\npackage vault.shelves;\nclass A {}\n", "src/vault/lots/A.java", "shelves", "-- src/vault/lots/A.java --\npackage vault.lots;\nclass A {}\n"},
		"file-elsewhere":          {"-- a/odd.ts --\n" + each("import '../b/{n}'", things...) + "export const odd = 1\n-- a/own.ts --\nf()\n" + each("-- b/{n}.ts --\nexport const {n} = 1", things...), "a/odd.ts", "6 of 6 dependencies", "-- b/odd.ts --\n" + each("import './{n}'", things...) + each("-- b/{n}.ts --\nexport const {n} = 1", things...)},
		"part-missing":            {each("-- src/handlers/{n}.ts --\nexport function a(req, res) {}\n-- src/data/{n}.ts --\nexport const rows = () => db.query('SELECT id FROM x WHERE id = 1')", things...) + each("-- src/models/{n}.ts --\nexport interface {N} { id: string }", things[:5]...), "src", "*crate* has no model", each("-- src/handlers/{n}.ts --\nexport function a(req, res) {}\n-- src/data/{n}.ts --\nexport const rows = () => db.query('SELECT id FROM x WHERE id = 1')", things...)},
		"singular-plural-mixed":   {"-- src/controllers/a.ts --\nf()\n-- src/models/a.ts --\nf()\n-- src/service/a.ts --\nf()\n", "src/service", "singular", "-- src/controllers/a.ts --\nf()\n-- src/models/a.ts --\nf()\n-- src/services/a.ts --\nf()\n"},
		"folder-cycle":            {"-- a/x.ts --\nimport '../b/y'\n-- b/y.ts --\n-- b/z.ts --\nimport '../a/x'\n", "a", "Two folders need each other", "-- a/x.ts --\nimport '../b/y'\n-- b/y.ts --\n"},
		"layer-skipped":           {server + "-- src/handlers/odd.ts --\nimport '../data/lot'\nexport function odd(req, res) {}\n", "src/handlers/odd.ts", "reaches past the logic", server},
		"upward-link":             {strings.Replace(server, "export function lotOf", "import '../handlers/lot'\nexport function lotOf", 1), "src/logic/lot.ts", "against the usual order", server},
		"wiring-with-logic":       {"-- src/main.ts --\nexport function start() {\n" + long(90) + "}\napp.listen(1)\n", "src/main.ts", "put together", "-- src/main.ts --\nexport function start() {\n" + long(5) + "}\napp.listen(1)\n"},
		"file-nobody-reaches":     {"-- src/main.ts --\nimport './services/a'\napp.listen(1)\ncreateRoot(x)\n-- src/services/a.ts --\nexport function a() {}\n-- src/services/b.ts --\nexport function b() {}\n-- cmd/x.py --\nif __name__ == '__main__':\n    f()\n", "src/services/b.ts", "No file was found", "-- src/services/b.ts --\nexport function b() {}\n"},
		"sender-without-receiver": {"-- a.ts --\nbus.publish('lot.dried', 1)\n", "a.ts", "nobody here receives it", "-- a.ts --\nbus.publish('lot.dried', 1)\n-- b.ts --\nbus.subscribe('lot.dried', f)\n"},
		"call-without-route":      {"-- a.ts --\nconst app = express()\napp.get('/lots', list)\n-- b.ts --\nfetch('/lots')\nfetch('/gone')\n", "b.ts", "GET /gone", "-- b.ts --\nfetch('/gone')\n"},
		"long-function":           {"-- a.ts --\nexport function a() {\n" + long(90) + "}\n", "a.ts", "92 lines long", "-- a.ts --\nexport function a() {\n" + long(70) + "}\n"},
		"many-parameters":         {"-- a.ts --\nexport function a(b, c, d, e, f, g, h) {}\n", "a.ts", "seven parameters", "-- a.ts --\nexport function a(b, c, d, e) {}\n"},
		"handler-does-work":       {"-- src/handlers/lot.ts --\nexport function a(req, res) { db.query('SELECT id FROM lots WHERE id = 1') }\n", "src/handlers/lot.ts", "talks to the store itself", "-- src/handlers/lot.ts --\nexport function a(req, res) { list() }\n"},
		"several-types":           {"-- A.java --\n" + each("class {N} {\n"+strings.Repeat("int a;\n", 12)+"}", "ash", "birch", "cedar", "elm"), "A.java", "Four types", "-- A.java --\nclass A {\n" + strings.Repeat("int a;\n", 30) + "}\n"},
		"picture-as-code":         {each("-- src/icons/{n}.tsx --\nexport const {N} = () => <svg><path d=\"M1 1\" /></svg>", "ash", "birch", "cedar", "elm", "fir"), "src/icons", "pictures kept as code", each("-- src/icons/{n}.tsx --\nexport const {N} = () => <p />", "ash", "birch", "cedar", "elm", "fir")},
		"debug-left-over":         {"-- a.ts --\nexport function a() { console.log(1) }\n", "a.ts", "left over", "-- a.ts --\nexport function a() { logger.log(1) }\n"},
		"placeholder-name":        {"-- src/foo.ts --\nexport const a = 1\n", "src/foo.ts", "stands for a name", "-- src/food.ts --\nexport const a = 1\n"},
		"folder-echo":             {each("-- src/lots/lot-{n}.ts --\nf()", "ash", "birch", "cedar", "elm", "fir"), "src/lots", "begin with its name again", each("-- src/lots/{n}.ts --\nf()", "ash", "birch", "cedar", "elm", "fir")},
		"stacked-role-words":      {"-- a.ts --\nexport class LotServiceManagerHandler {}\n", "a.ts", "three words", "-- a.ts --\nexport class LotHandler {}\n"},
		"suffix-against-folder":   {each("-- src/lots/{n}-service.ts --\nf()", "ash", "birch", "cedar", "elm", "fir", "hazel", "larch", "maple") + "-- src/lots/odd.ts --\nf()\n", "src/lots/odd.ts", "does not end in", each("-- src/lots/{n}-service.ts --\nf()", "ash", "birch", "cedar", "elm", "fir", "hazel", "larch", "maple")},
		"same-type-name":          {"-- a/x.ts --\nexport class Shelf {}\n-- b/y.ts --\nexport class Shelf {}\n", "a/x.ts", "two places", "-- a/x.ts --\nexport class Shelf {}\n-- a/y.ts --\nexport class Shelf {}\n"},
		"cryptic-name":            {"-- a.ts --\nexport function zq() {\n" + long(6) + "}\n", "a.ts", "can not be read out", "-- a.ts --\nexport function to() {\n" + long(6) + "}\n"},
		"overlong-name":           {"-- a.ts --\nexport function takeTheLotOutOfTheShelfAndWeighIt() {}\n", "a.ts", "ten words", "-- a.ts --\nexport function weighLot() {}\n"},
		"route-form":              {"-- a.ts --\nconst app = express()\napp.post('/lots/add', save)\n", "a.ts", "the verb *add*", "-- a.ts --\nconst app = express()\napp.post('/lots', save)\n"},
		"central-drop":            {"-- src/types.ts --\n" + each("export interface {N} { id: string }", things...) + manyUsers(24), "src/types.ts", "hang on", "-- src/types.ts --\n" + each("export interface {N} { id: string }", things...) + manyUsers(3)},
		"hub":                     {"-- src/hub.ts --\n" + needs(22) + "export const hub = 1\n" + parts(22) + usersOf("hub", 22), "src/hub.ts", "files need *hub.ts*", "-- src/hub.ts --\n" + needs(3) + "export const hub = 1\n" + parts(3)},
		"near-twin":               {"-- a.ts --\n" + twin("one") + "-- b.ts --\n" + twin("two"), "a.ts", "the same but for names", "-- a.ts --\n" + twin("one")},
		"scattered-feature":       {each("-- src/{n}/lot.ts --\nexport const a = 1\n-- src/{n}/about{N}.ts --\nf()", "services", "pages", "models", "api", "hooks", "store", "handlers"), "src", "*lot* lies in seven folders", each("-- src/{n}/lot.ts --\nexport const a = 1", "services", "pages")},
		"unrelated-contents": {"-- src/lib/pack.tsx --\nexport const A = () => <p>a</p>\n-- src/lib/seal.tsx --\nexport const B = () => <p>b</p>\n-- src/lib/rows.ts --\nexport const rows = () => db.query('SELECT id FROM x WHERE id = 1')\n-- src/lib/lines.ts --\nexport const lines = () => db.query('SELECT id FROM y WHERE id = 1')\n-- src/lib/answer.ts --\nexport function answer(req, res) { res.json(1) }\n-- src/lib/reply.ts --\nexport function reply(req, res) { res.json(2) }\n", "src/lib", "nothing in common",
			"-- src/lib/pack.tsx --\nimport './rows'\nexport const A = () => <p>a</p>\n-- src/lib/seal.tsx --\nexport const B = () => <p>b</p>\n-- src/lib/rows.ts --\nexport const rows = () => db.query('SELECT id FROM x WHERE id = 1')\n-- src/lib/lines.ts --\nexport const lines = () => db.query('SELECT id FROM y WHERE id = 1')\n-- src/lib/answer.ts --\nexport function answer(req, res) { res.json(1) }\n-- src/lib/reply.ts --\nexport function reply(req, res) { res.json(2) }\n"},
		"primitives-composed-mixed": {mixed("src/parts", "src/parts"), "src/parts", "primitive and", mixed("src/base", "src/parts")},
		"folder-name-untrue":        {each("-- src/models/{n}Page.tsx --\nexport function {N}Page() { return <main>{n}</main> }", things...), "src/models", "promises model", each("-- src/pages/{n}Page.tsx --\nexport function {N}Page() { return <main>{n}</main> }", things...)},
		"feature-knows-inside":      {door + each("-- src/desk/{n}.ts --\nimport { dry } from '../drying'\ndry()", things...) + "-- src/desk/odd.ts --\nimport { wet } from '../drying/wet'\nwet()\n", "src/desk/odd.ts", "past its index", door + each("-- src/desk/{n}.ts --\nimport { wet } from '../drying/wet'\nwet()", things...)},
		"inner-layer-framework":     {strings.Replace(server, "export function lotOf", "import express from 'express'\nexport function lotOf", 1), "src/logic/lot.ts", "knows express", strings.Replace(server, "export function lotOf", "import { z } from 'zod'\nexport function lotOf", 1)},
		"repeated-literal":          {"-- a.ts --\nbus.publish('lot.dried', 1)\n-- b.ts --\nbus.subscribe('lot.dried', f)\n", "a.ts", "tied by it alone", "-- names.ts --\nexport const DRIED = 'lot.dried'\n-- a.ts --\nimport { DRIED } from './names'\nbus.publish(DRIED, 1)\n-- b.ts --\nimport { DRIED } from './names'\nbus.subscribe(DRIED, f)\n"},
		"mixed-duties":              {"-- src/all.tsx --\nexport function All() {\n  const [x, setX] = useState(1)\n  fetch('/lots')\n" + long(80) + "  return <p>{x}</p>\n}\n", "src/all.tsx", "draws", "-- src/all.tsx --\nexport function All() {\n" + long(80) + "  return <p>1</p>\n}\n"},
		"false-language-word":       {"-- a.ts --\nexport class BaseShelf { a() {} }\n", "a.ts", "nothing here builds upon it", "-- a.ts --\nexport class BaseShelf { a() {} }\n-- b.ts --\nimport { BaseShelf } from './a'\nexport class Shelf extends BaseShelf {}\n"},
		"several-words":             {"-- src/services/a.ts --\nexport function getLot() {}\n-- src/services/b.ts --\nexport function fetchLot() {}\n", "src/services/b.ts", "fetch and get", "-- src/services/a.ts --\nexport function getLot() {}\n-- src/services/b.ts --\nexport function dryLot() {}\n"},
		"probable-typo":             {each("-- {n}.ts --\nexport function receive{N}() {}", "ash", "birch", "cedar", "elm", "fir", "hazel", "larch", "maple") + "-- odd.ts --\nexport function recieveShelf() {}\n", "odd.ts", "a slip away from *receive*", each("-- {n}.ts --\nexport function receive{N}() {}", "ash", "birch", "cedar", "elm", "fir", "hazel", "larch", "maple") + "-- odd.ts --\nexport function receiverShelf() {}\nexport function receivedShelf() {}\n"},
	} {
		t.Run(rule, func(t *testing.T) {
			found := func(tree string) []model.Smell {
				var out []model.Smell
				for _, sm := range judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil).Smells {
					if sm.Rule == rule {
						out = append(out, sm)
					}
				}
				return out
			}
			hits := found(c.hit)
			require.NotEmpty(t, hits)
			at, says := false, ""
			for _, h := range hits {
				at = at || h.Path == c.at
				says += h.Message + "\n"
				require.True(t, h.Strength > 0 && h.Strength <= 1)
				require.NotEmpty(t, h.Remedy)
				require.NotEmpty(t, h.ID)
			}
			require.True(t, at, says)
			require.Contains(t, says, c.says)
			require.Empty(t, found(c.quiet))
		})
	}
}

func manyUsers(n int) string { return usersOf("types", n) }

func usersOf(what string, n int) string {
	out := ""
	for i := range n {
		out += fmt.Sprintf("-- src/u/u%c%c.ts --\nimport '../%s'\nexport const a = 1\n", 'a'+i/10, 'a'+i%10, what)
	}
	return out
}

func needs(n int) string {
	out := ""
	for i := range n {
		out += fmt.Sprintf("import './p/p%c%c'\n", 'a'+i/10, 'a'+i%10)
	}
	return out
}

func parts(n int) string {
	out := ""
	for i := range n {
		out += fmt.Sprintf("-- src/p/p%c%c.ts --\nexport const a = 1\n", 'a'+i/10, 'a'+i%10)
	}
	return out
}

func twin(name string) string {
	out := "export function " + name + "(lot, box) {\n"
	for i := range 30 {
		switch i % 3 {
		case 0:
			out += fmt.Sprintf("  if (lot.a > %d) { box.put(lot, [%d]) } else { return null }\n", i, i)
		case 1:
			out += "  for (const s of box.slots) { s.take({ at: 1, by: 'x' }) }\n"
		default:
			out += "  const v = [lot.x, ...box.y].map((z) => z * 2)\n"
		}
	}
	return out + "}\n"
}

func TestManyNumberedThingsAreNamedOnce(t *testing.T) {
	tree := func(n int) string {
		text := "-- lots.ts --\n"
		for i := range n {
			text += fmt.Sprintf("export function weigh%d() { return %d }\n", i+1, i)
		}
		return text
	}
	found := func(n int) (out []string) {
		s := testkit.Survey(t, tree(n))
		for _, sm := range judgement.Judge(s, model.Brief{}, nil).Smells {
			if sm.Rule == "numbered-name" {
				out = append(out, sm.Message)
			}
		}
		return out
	}
	require.Empty(t, found(1))
	require.Len(t, found(6), 6, "a few are named one by one")
	require.Equal(t, []string{"Seven things called *weigh* are told apart by a number alone"}, found(7))
	require.Len(t, found(40), 1)
}
