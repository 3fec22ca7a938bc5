package smells_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
)

// typed is a type of so many members in a language's own way; "" where the
// language has none that stand in a file beside others.
func (l *tongue) typed(r *rand.Rand, name string, members int) string {
	name = strings.ToUpper(name[:1]) + name[1:]
	var body []string
	for i := range members {
		one := l.named([]string{"open", "close", "label", "carry", "wash", "send"}[i%6], words(32)[(i+r.IntN(5))%32])
		switch l.ext {
		case ".ts":
			body = append(body, one+"(grams: number): number {", "  return grams + 1", "}")
		case ".go":
			body = append(body, fmt.Sprintf("func (b *%s) %s(grams int) int {", name, strings.ToUpper(one[:1])+one[1:]), "\treturn grams + 1", "}")
		case ".py":
			body = append(body, "def "+one+"(self, grams):", "    return grams + 1", "")
		case ".java":
			body = append(body, "int "+one+"(int grams) {", "  return grams + 1;", "}")
		case ".php":
			body = append(body, "public function "+one+"($grams) {", "  return $grams + 1;", "}")
		}
	}
	switch l.ext {
	case ".ts":
		return strings.Join(braces("export class "+name, body), "\n")
	case ".go":
		return "type " + name + " struct{ grams int }\n\n" + strings.Join(body, "\n")
	case ".py":
		return strings.Join(append([]string{"class " + name + ":"}, indent(body)...), "\n")
	}
	open := map[string]string{".java": "public "}[l.ext]
	return strings.Join(braces(open+"class "+name, body), "\n")
}

// types is a file of types alone.
func (l *tongue) types(r *rand.Rand, path string, members int, names ...string) string {
	var all []string
	for _, n := range names {
		all = append(all, l.typed(r, n, members))
	}
	head := map[string]string{".go": "package shelf\n\n", ".php": "<?php\n", ".java": "package shelf;\n\n"}[l.ext]
	return fmt.Sprintf("-- %s --\n%s%s\n", path, head, strings.Join(all, "\n\n"))
}

// asked is a test of a function in a language's own way; checks tells that it asks
// what came of it, waits that it sleeps on the way.
func (l *tongue) asked(name string, checks, waits bool) (path, text string) {
	wait := map[bool]string{true: map[string]string{
		".ts": "  await new Promise((r) => setTimeout(r, 500))\n", ".go": "\ttime.Sleep(500 * time.Millisecond)\n", ".py": "    time.sleep(0.5)\n",
		".java": "    Thread.sleep(500);\n", ".php": "    sleep(1);\n",
	}[l.ext]}[waits]
	check := map[bool]string{true: map[string]string{
		".ts": "  expect(n).toBe(2)\n", ".go": "\tif n != 2 {\n\t\tt.Fatal(n)\n\t}\n", ".py": "    assert n == 2\n",
		".java": "    assertEquals(2, n);\n", ".php": "    $this->assertSame(2, $n);\n",
	}[l.ext], false: map[string]string{".go": "\t_ = n\n"}[l.ext]}[checks]
	switch l.ext {
	case ".ts":
		return "src/vault/" + name + ".test.ts", "import { pack } from './pack'\n\ntest('packs', async () => {\n  const n = pack(1)\n" + wait + check + "})\n"
	case ".go":
		return "src/vault/" + name + "_test.go", "package shelf\n\nimport (\n\t\"testing\"\n\t\"time\"\n)\n\nfunc TestPack(t *testing.T) {\n\tn := Pack(1)\n" +
			wait + check + "\t_ = time.Second\n}\n"
	case ".py":
		return "tests/test_" + name + ".py", "import time\nfrom src.vault.pack import pack\n\n\ndef test_pack():\n    n = pack(1)\n" + wait + check
	case ".java":
		return "src/test/java/" + name + "Test.java", "import org.junit.jupiter.api.Test;\nimport static org.junit.jupiter.api.Assertions.*;\n\nclass " +
			name + "Test {\n  @Test\n  void packs() throws Exception {\n    int n = new Pack().pack(1);\n" + wait + check + "  }\n}\n"
	}
	return "tests/" + name + "Test.php", "<?php\nuse PHPUnit\\Framework\\TestCase;\n\nclass " + name +
		"Test extends TestCase {\n  public function testPacks() {\n    $n = pack(1);\n" + wait + check + "  }\n}\n"
}

func (l *tongue) namedForType() bool { return l.ext == ".java" || l.ext == ".php" }

func init() {
	wholes = append(wholes,
		plant{rule: "several-types", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			if !l.namedForType() {
				return "", "" // elsewhere nobody expects one type a file
			}
			names := []string{"Boxes", "Trays", "Growers", "Slips"}
			at := "src/vault/Boxes" + l.ext
			return l.types(r, at, 5, names[:map[bool]int{true: 4, false: 2}[fault]]...) + l.folder(r, "src/growers/%s", 4), at
		}},
		plant{rule: "same-type-name", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			at, other := "src/drying/shelf"+l.ext, map[bool]string{true: "Shelf", false: "Rack"}[fault]
			if l.ext == ".go" {
				return "", "" // packages part them
			}
			return l.types(r, "src/vault/shelf"+l.ext, 4, "Shelf") + l.types(r, at, 4, other) + l.folder(r, "src/growers/%s", 4), "src"
		}},
		plant{rule: "stacked-role-words", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			name := map[bool]string{true: []string{"BoxServiceHandlerManager", "TrayProviderHandlerHelper"}[r.IntN(2)], false: "BoxServiceFactory"}[fault]
			at := "src/vault/" + name + l.ext
			return l.types(r, at, 4, name) + l.folder(r, "src/growers/%s", 4), at
		}},
		plant{rule: "probable-typo", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			var b strings.Builder
			for i, w := range words(32)[:10] {
				b.WriteString(l.source(r, "src/vault/"+w+l.ext, 4, l.named("weigh", "receiver", words(32)[(i+3)%32])))
			}
			at := "src/vault/packing" + l.ext
			return b.String() + l.source(r, at, 4, l.named("weigh", map[bool]string{true: "reciever", false: "receiver"}[fault], "row")), at
		}},
		plant{rule: "folder-of-one", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			if l.namedForType() || l.ext == ".go" {
				return "", "" // a folder is a package there
			}
			tree := l.folder(r, "src/vault/%s", 5) + l.folder(r, "src/growers/%s", 4)
			w := words(32)[r.IntN(20)]
			tree += l.source(r, "src/vault/"+w+"/lid"+l.ext, 5, l.named("open", w))
			if !fault {
				tree += l.source(r, "src/vault/"+w+"/tape"+l.ext, 5, l.named("close", w)) + l.source(r, "src/vault/"+w+"/seal"+l.ext, 5, l.named("wash", w))
			}
			return tree, "src/vault/" + w
		}},
		plant{rule: "root-clutter", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			if l.namedForType() || l.ext == ".go" {
				return "", ""
			}
			n := map[bool]int{true: 13, false: 4}[fault]
			return l.folder(r, "%s", n) + l.folder(r, "vault/%s", 6) + l.folder(r, "growers/%s", 6), "."
		}},
		plant{rule: "twin-folders", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			var b strings.Builder
			seed := r.Uint64()
			for i, w := range []string{"plan", "order", "card", "label"} {
				one := rand.New(rand.NewPCG(seed, uint64(i)))
				b.WriteString(l.source(one, "src/vault/"+w+l.ext, 40, l.named("count", w)))
				if fault {
					b.WriteString(l.source(rand.New(rand.NewPCG(seed, uint64(i))), "src/drying/"+w+l.ext, 40, l.named("count", w)))
					continue
				}
				body := append(append(l.choice("kind", cases(4+i)), l.nested(2+i)...), append(l.nested(3), l.choice("grams", cases(3+i))...)...)
				fmt.Fprintf(&b, "-- src/drying/%s%s --\n%s", w, l.ext, l.file(w, []string{l.function(l.named("weigh", w), numbers(2), body, false)}))
			}
			return b.String() + l.folder(r, "src/growers/%s", 4), "src"
		}},
		plant{rule: "two-folders-one-purpose", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			other := map[bool]string{true: "helpers", false: "growers"}[fault]
			return l.folder(r, "src/utils/%s", 5) + l.folder(r, "src/"+other+"/%s", 5) + l.folder(r, "src/vault/%s", 5), "src"
		}},
		plant{rule: "test-without-assertion", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			path, text := l.asked("Pack", !fault, false)
			return l.source(r, "src/vault/pack"+l.ext, 4, "pack") + l.folder(r, "src/growers/%s", 4) + "-- " + path + " --\n" + text, path
		}},
		plant{rule: "test-waits", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			path, text := l.asked("Pack", true, fault)
			return l.source(r, "src/vault/pack"+l.ext, 4, "pack") + l.folder(r, "src/growers/%s", 4) + "-- " + path + " --\n" + text, path
		}},
		plant{rule: "false-language-word", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			if l.ext == ".go" {
				return "", "" // nothing builds upon a type there
			}
			name := map[bool]string{true: []string{"BaseShelf", "AbstractLot", "ShelfBase"}[r.IntN(3)], false: []string{"Basement", "ShelfBasis"}[r.IntN(2)]}[fault]
			at := "src/vault/" + name + l.ext
			built := map[string]string{
				".ts": "\nexport const kept = new %[1]s()\n", ".py": "\n\nkept = %[1]s()\n",
				".java": "\nclass Keeper {\n  %[1]s kept = new %[1]s();\n}\n", ".php": "\n$kept = new %[1]s();\n",
			}[l.ext]
			return l.types(r, at, 4, name) + fmt.Sprintf(built, name) + l.folder(r, "src/growers/%s", 4), at
		}},
		plant{rule: "singular-plural-mixed", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			tree := ""
			for _, w := range []string{"services", "models", "views"} { // what folders are about may well be one

				tree += l.folder(r, "src/"+w+"/%s", 3)
			}
			odd := map[bool]string{true: "controller", false: "controllers"}[fault]
			return tree + l.folder(r, "src/"+odd+"/%s", 3) + l.folder(r, "src/barley/%s", 3), "src/" + odd
		}},
		plant{rule: "climbing-imports", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			if l.ext != ".ts" {
				return "", "" // others name a package, wherever they stand
			}
			head := map[bool]string{true: "import * as other from '../../../../growers/barley'\n", false: "import * as other from '../barley'\n"}[fault]
			at := "src/vault/rooms/rows/trays/slip" + l.ext
			_, code, _ := strings.Cut(l.source(r, at, 5, l.named("open", "slip")), "\n")
			return l.folder(r, "src/growers/%s", 4) + l.folder(r, "src/vault/rooms/rows/%s", 3) + "-- " + at + " --\n" + head + code, at
		}},
		plant{rule: "repeated-literal", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			var b strings.Builder
			for i, w := range words(32)[:5] {
				text := "vault.shelf.opened"
				if !fault {
					text = fmt.Sprintf("vault.shelf.%s%d", w, i)
				}
				do := map[string][2]string{
					".ts": {"bus.emit('%s', grams)", "bus.on('%s', (x) => x)"}, ".py": {"bus.emit('%s', grams)", "bus.on('%s', pack)"},
					".php": {"$bus->emit('%s', $grams);", "$bus->on('%s', $pack);"},
				}[l.ext]
				if do[0] == "" {
					return "", "" // messages have types there
				}
				body := append(l.some(r, 3), fmt.Sprintf(do[i%2], text))
				fmt.Fprintf(&b, "-- src/vault/%s%s --\n%s", w, l.ext, l.file(w, []string{l.function(l.named("open", w), numbers(1), body, false)}))
			}
			return b.String() + l.folder(r, "src/growers/%s", 4), "src"
		}},
	)
}
