package origin_test

import (
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/origin"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// Each tree is a few files; what is expected stands beside the path.
func TestWhoWroteAFile(t *testing.T) {
	code := strings.Repeat("export function weigh(lot) {\n  return lot.grams - tare\n}\n", 20)
	squeezed := strings.Repeat("var a=b(c,d);e.f(g,h);i=j[k]\n", 60)
	for name, c := range map[string]struct {
		tree string
		want map[string]model.FileOrigin
	}{
		"our own code, whatever it is called": {
			"-- src/generator.ts --\nexport function generate() {}\n-- src/vendor-list.ts --\nexport const vendors = []\n-- lib/lots.js --\n" + code,
			map[string]model.FileOrigin{"src/generator.ts": "own", "src/vendor-list.ts": "own", "lib/lots.js": "own"},
		},
		"what tools write under their own names": {
			"-- package-lock.json --\n{}\n-- api/lots_pb2.py --\nx = 1\n-- ui/Form1.Designer.cs --\nclass Form1 {}\n-- ui/Form1.cs --\nclass Form1 {}\n",
			map[string]model.FileOrigin{"package-lock.json": "generated", "api/lots_pb2.py": "generated", "ui/Form1.Designer.cs": "generated", "ui/Form1.cs": "own"},
		},
		"the output of a compiler beside its source": {
			"-- src/lots.ts --\nexport const a = 1\n-- src/lots.js --\nexports.a = 1\n-- src/shelf.js --\nexports.b = 1\n-- css/a.scss --\n$a: 1;\n-- css/a.css --\na {}\n",
			map[string]model.FileOrigin{"src/lots.ts": "own", "src/lots.js": "built", "src/shelf.js": "own", "css/a.scss": "own", "css/a.css": "built"},
		},
		"an output folder that a project file names": {
			"-- tsconfig.json --\n{\"compilerOptions\": {\"outDir\": \"./made\"}}\n-- src/a.ts --\nexport const a = 1\n-- made/b.js --\nexports.a = 1\n",
			map[string]model.FileOrigin{"src/a.ts": "own", "made/b.js": "built"},
		},
		"squeezed code and source maps": {
			"-- web/app.js --\n" + squeezed + "-- web/b.js --\nexports.a = 1\n//# sourceMappingURL=b.js.map\n-- web/c.4f2a91bc.js --\nx()\n-- web/d.min.js --\nx()\n",
			map[string]model.FileOrigin{"web/app.js": "built", "web/b.js": "built", "web/c.4f2a91bc.js": "built", "web/d.min.js": "built"},
		},
		"a release of a library among our own scripts": {
			"-- js/scales-2.4.1.js --\n" + code + "-- js/dates.js --\n/*! Moorland Dates v3.1.0 | free to use */\n" + code + "-- js/desk.js --\n/* The desk, since v2 of the vault. */\n" + code,
			map[string]model.FileOrigin{"js/scales-2.4.1.js": "vendored", "js/dates.js": "vendored", "js/desk.js": "own"},
		},
		"a folder that stands on its own": {
			"-- LICENSE --\nours\n-- src/main.c --\n#include \"../ext/husk/husk.h\"\nint main(void) { return husk(); }\n-- src/a.c --\nint a;\n-- src/b.c --\nint b;\n-- src/c.c --\nint c;\n" +
				"-- ext/husk/COPYING --\ntheirs\n-- ext/husk/CHANGES --\n1.2\n-- ext/husk/husk.h --\nint husk(void);\n-- ext/husk/husk.c --\n#include \"husk.h\"\nint husk(void) { return 1; }\n",
			map[string]model.FileOrigin{"src/main.c": "own", "ext/husk/husk.c": "vendored", "ext/husk/husk.h": "vendored"},
		},
		"a part of a workspace with a licence of its own": {
			"-- package.json --\n{\"name\": \"vault\", \"workspaces\": [\"packages/*\"]}\n-- LICENSE --\nours\n-- packages/labels/package.json --\n{\"name\": \"@moor/labels\"}\n-- packages/labels/LICENSE --\nours\n" +
				"-- packages/labels/index.js --\n" + code + "-- packages/desk/index.js --\nimport '@moor/labels'\n-- packages/desk/package.json --\n{\"name\": \"@moor/desk\"}\n-- packages/desk/a.js --\nx()\n",
			map[string]model.FileOrigin{"packages/labels/index.js": "own", "packages/desk/index.js": "own"},
		},
		"catalogues of texts, in any format": {
			"-- po/de.po --\nmsgid \"\"\n-- lang/de/labels.php --\n<?php\n$labels['lot'] = 'Charge';\n-- lang/switch.php --\n<?php\nfunction pick($lang) { return $lang; }\n" +
				"-- src/messages_de.properties --\nlot=Charge\n-- src/messages_en.properties --\nlot=Lot\n-- src/vault.properties --\nport=1\n-- i18n/en.json --\n{\"lot\": \"Lot\"}\n",
			map[string]model.FileOrigin{
				"po/de.po": "data", "lang/de/labels.php": "data", "lang/switch.php": "own",
				"src/messages_de.properties": "data", "src/vault.properties": "own", "i18n/en.json": "data",
			},
		},
		"fixtures, snapshots, tables written as code": {
			"-- test/fixtures/lot.js --\nmodule.exports = {}\n-- test/lot.test.js --\ntest('a', () => {})\n-- src/__snapshots__/a.snap --\nx\n-- src/table.js --\nexport const grams = [" +
				strings.Repeat("1, 2, 3, 4,\n", 80) + "]\n-- src/species.csv --\na,b\n",
			map[string]model.FileOrigin{"test/fixtures/lot.js": "data", "test/lot.test.js": "own", "src/__snapshots__/a.snap": "data", "src/table.js": "data", "src/species.csv": "data"},
		},
		"what the repository itself says": {
			"-- .gitattributes --\nlegacy/** linguist-vendored\n*.gen.ts linguist-generated=true\nvendored/** -linguist-vendored\n-- legacy/a.ts --\nexport const a = 1\n-- src/b.gen.ts --\nexport const b = 1\n-- src/c.ts --\nexport const c = 1\n",
			map[string]model.FileOrigin{"legacy/a.ts": "vendored", "src/b.gen.ts": "generated", "src/c.ts": "own"},
		},
		"packages of another organisation": {
			strings.Join(func() (files []string) {
				for _, n := range []string{"A", "B", "C", "D", "E", "F", "G", "H", "I", "J", "K", "L"} {
					files = append(files, "-- src/org/vault/lots/"+n+".java --\npackage org.vault.lots;\npublic class "+n+" {}\n")
				}
				return files
			}(), "") + "-- src/com/moorland/scales/Scale.java --\npackage com.moorland.scales;\npublic class Scale {}\n",
			map[string]model.FileOrigin{"src/org/vault/lots/A.java": "own", "src/com/moorland/scales/Scale.java": "vendored"},
		},
		"packages of two organisations, both in use": {
			"-- src/org/vault/lots/A.java --\npackage org.vault.lots;\npublic class A {}\n-- src/com/moorland/scales/Scale.java --\npackage com.moorland.scales;\npublic class Scale {}\n",
			map[string]model.FileOrigin{"src/org/vault/lots/A.java": "own", "src/com/moorland/scales/Scale.java": "own"},
		},
		"what is made from a template beside": {
			"-- sbin/weigh --\n#!/usr/bin/perl\nprint 1;\n-- sbin/weigh.in --\n#!@PERL@\nprint 1;\n-- sbin/sow --\n#!/usr/bin/perl\nprint 2;\n",
			map[string]model.FileOrigin{"sbin/weigh": "built", "sbin/weigh.in": "own", "sbin/sow": "own"},
		},
		"a folder named for others that needs our code": {
			"-- external/bridge/a.ts --\nimport '../../src/b'\nexport const a = 1\n-- src/b.ts --\nexport const b = 1\n-- external/husk/c.ts --\nexport const c = 1\n",
			map[string]model.FileOrigin{"external/bridge/a.ts": "own", "src/b.ts": "own"},
		},
		"what a package manager fills": {
			"-- composer.json --\n{}\n-- vendor/moor/a.php --\n<?php\n-- src/a.php --\n<?php\n-- web/node_modules/x/index.js --\nx()\n",
			map[string]model.FileOrigin{"vendor/moor/a.php": "vendored", "src/a.php": "own", "web/node_modules/x/index.js": "vendored"},
		},
	} {
		t.Run(name, func(t *testing.T) {
			got := origin.Of(testkit.Survey(t, c.tree))
			for p, want := range c.want {
				require.Equal(t, want, got[p].Origin, "%s: %v", p, got[p].Evidence)
				if want != model.OriginOwn {
					require.NotEmpty(t, got[p].Evidence, p)
				}
			}
		})
	}
}

func TestOnlyOwnCodeIsJudgedAndTheLeadHasTheLastWord(t *testing.T) {
	s := testkit.Survey(t, "-- src/a.ts --\nexport const a = 1\n-- js/scales-2.4.1.js --\nvar a = 1\n-- src/b.ts --\nexport const b = 1\n")
	j := judgement.Judge(s, model.Brief{}, nil)
	require.True(t, j.InScope["src/a.ts"])
	require.False(t, j.InScope["js/scales-2.4.1.js"])
	require.Equal(t, "vendored", j.Skipped(s.File("js/scales-2.4.1.js")))
	by := []model.Overrule{
		{Kind: model.OverruleOrigin, Target: "js", Value: "own", By: "Ines"},
		{Kind: model.OverruleOrigin, Target: "src/b*", Value: "generated"},
	}
	j = judgement.JudgeBy(s, judgement.Inputs{Overrules: by})
	require.True(t, j.InScope["js/scales-2.4.1.js"])
	require.Equal(t, []string{"set by hand, by Ines"}, j.Origins["js/scales-2.4.1.js"].Evidence)
	require.Empty(t, j.Skipped(s.File("js/scales-2.4.1.js")))
	require.False(t, j.InScope["src/b.ts"])
	require.Empty(t, j.Roles["src/b.ts"].Role)
}
