package weave_test

import (
	"fmt"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/testkit"
	"jantel/core/weave"

	"github.com/stretchr/testify/require"
)

func TestRoles(t *testing.T) {
	for _, c := range []struct {
		file, text string
		want       model.Role
	}{
		{"src/lots.controller.ts", "export class Lots {}", model.RoleHandler},
		{"src/routes/lots.ts", "router.get('/lots', list)", model.RoleRouting},
		{"src/services/lots.ts", "export function dry() {}", model.RoleLogic},
		{"src/data/lots.ts", "pool.query('SELECT id FROM lots WHERE id = 1')", model.RoleDataAccess},
		{"src/lots.ts", "const rows = db.all('SELECT id, name FROM lots')", model.RoleDataAccess},
		{"src/LotCard.tsx", "export const LotCard = () => <p><b>lot</b></p>", model.RoleView},
		{"src/icons/box.tsx", "export const Box = () => <svg><path d=\"M1 1\" /></svg>", model.RoleAsset},
		{"src/useLots.ts", "export function useLots() { return useState(0) }", model.RoleState},
		{"src/lots.test.ts", "describe('lots', () => {})", model.RoleTest},
		{"vault/test_lots.py", "def test_one(): pass", model.RoleTest},
		{"lots/lots_test.go", "package lots", model.RoleTest},
		{"src/types.ts", "export interface Lot { id: string }\nexport type Grams = number", model.RoleModel},
		{"src/lots.css", "p { margin: 0 }", model.RoleStyle},
		{"cmd/vault/main.go", "package main\n\nfunc main() {}", model.RoleEntry},
		{"src/main.tsx", "createRoot(x).render(<App />)", model.RoleEntry},
		{"package.json", "{}", model.RoleConfig},
		{"vite.config.ts", "export default {}", model.RoleConfig},
		{"db/001.sql", "CREATE TABLE lots (id int)", model.RoleSchema},
		{"README.md", "# Vault", model.RoleDocs},
		{"locales/de.json", "{}", model.RoleTranslation},
		{"src/utils/dates.ts", "export const day = 1", model.RoleHelper},
		{"src/moor.ts", "export const moor = () => 1", model.RoleLogic},
		{"src/index.ts", "export { moor } from './moor'\nexport * from './bog'", model.RoleFacade},
		{"ui/BoxPane.java", "import javax.swing.*;\npublic class BoxPane extends JPanel { }", model.RoleView},
		{"ui/Box.cs", "public class Box : UserControl { }", model.RoleView},
		{"api/Lots.java", "@RestController\npublic class Lots { public void list() {} }", model.RoleHandler},
		{"src/lot.h", "struct lot { int grams; };\nint weigh(struct lot *l);\nint dry(struct lot *l);\n", model.RoleLogic},
		{"src/lot.h", "struct lot { int grams; };\nstruct box { int lots; };\nint weigh(struct lot *l);\n", model.RoleModel},
		{"src/moor.h", "struct lot { int grams; };\nint a(void);\nint b(void);\nint c(void);\nint d(void);\nint e(void);\n", model.RoleFacade},
		{"vault/shelf.py", "from collections.abc import MutableMapping\n\nclass Shelf(MutableMapping):\n    def __getitem__(self, k):\n        return self.kept[k]\n", model.RoleStructure},
		{"ui/LotList.php", "<?php\nclass LotList extends BaseHtmlElement {\n  function assemble() { return 1; }\n}", model.RoleView},
		{"src/spec/weigh.c", "int weigh(void) { return 1; }", model.RoleLogic},
		{"spec/weigh.rb", "class Weigh\nend", model.RoleTest},
		{"bin/vault.fcgi", "#!/usr/bin/perl\nuse Vault;\nVault->run;\n", model.RoleEntry},
		{"src/sleep.c", "#include <unistd.h>\n#ifdef ON_MOOR\n#include <windows.h>\n#endif\nint nap(void) { return 1; }", model.RoleLogic},
		{"src/lots_parser.c", "int parse(void) { return 1; }", model.RoleFormat},
		{"src/clock_windows.go", "package src\n\nfunc now() {}", model.RolePlatform},
		{"src/tree.c", "int grow(void) { return 1; }", model.RoleStructure},
		{"t/lots.t", "use Test::More;\nok(1);", model.RoleTest},
		{"src/lots.rs", "pub fn weigh() {}\n#[cfg(test)]\nmod tests {\n  #[test]\n  fn one() {}\n}", model.RoleLogic},
		{"src/utils/sanitize-query.js", "export function sanitizeQuery(q) { return { limit: q.limit ?? 10 } }", model.RoleHelper},
		{"src/get-schema.js", "export function getSchema() { return find() }", model.RoleLogic},
		{"src/lot-query.js", "export class LotQuery { run() { return 1 } }", model.RoleDataAccess},
		{"public/scale.ts", "export function weigh() { return 1 }", model.RoleLogic},
		{"bin/vault", "#!/usr/bin/env ruby\nrequire 'vault'\nVault.run\n", model.RoleEntry},
		{"lib/bog.rb", "#!/usr/bin/env ruby -w\nclass Bog\n  def drain\n    1\n  end\nend\n", model.RoleLogic},
		{"lib/bog.rb", "#!/usr/bin/env ruby\nclass Bog\n  def drain\n    1\n  end\nend\nBog.new.drain\n", model.RoleScript},
		{"lib/vault.rb", "require 'vault/lot'\nrequire 'vault/bog'\nmodule Vault\nend\n", model.RoleFacade},
		{"vault/__main__.py", "#!/usr/bin/env python3\nprint(1)\n", model.RoleEntry},
		{"src/arm64/clock.c", "int tick(void) { return 1; }", model.RolePlatform},
		{"src/x86_64/clock.c", "int tick(void) { return 1; }", model.RolePlatform},
		{"src/power_x11.c", "int dim(void) { return 1; }", model.RolePlatform},
		{"src/linux.rs", "pub fn tick() {}", model.RolePlatform},
		{"vault/bogs.rb", "flag nil, :fetch, 'Update available lots from all stores'\n", ""},
		{"vault/bogs.py", "from argparse import Namespace\n\ndef drain(options: Namespace):\n    return options.deep\n", model.RoleLogic},
		{"vault/bogs.py", "import argparse\n\ndef options():\n    return argparse.ArgumentParser().parse_args()\n", model.RoleHandler},
		{
			"vault/bogs.py", "import unittest\n\ndef drain():\n    n = 1\n    for x in range(9):\n        n += x\n    return n\n\n" +
				"class TestDrain(unittest.TestCase):\n    def test_it(self):\n        assert drain()\n", model.RoleLogic,
		},
		{"src/board/BoardContext.java", "public class BoardContext { int n; void fill() { n++; } }", model.RoleLogic},
		{"gui/desk.ui", "<interface>\n  <!-- Generated with glade 3.38 -->\n</interface>\n", model.RoleView},
		{"examples/fill.py", "lot = make(1)\n", model.RoleDocs},
	} {
		t.Run(c.file, func(t *testing.T) {
			j := judgement.Judge(testkit.Survey(t, "-- "+c.file+" --\n"+c.text+"\n"), model.Brief{}, nil)
			r := j.Roles[c.file]
			require.Equal(t, c.want, r.Role, r.Reasons)
			if c.want != "" {
				require.NotEmpty(t, r.Reasons)
				require.True(t, r.Confidence > 0 && r.Confidence <= 1)
			}
		})
	}
}

func TestPurposesAreTheAuthorsWordsOrInferredOrNothing(t *testing.T) {
	s := testkit.Survey(t, `
-- README.md --
[![build](x)](y)

# Seed vault

Keeps **wild** seed, [as told](z).
More words.

Another paragraph.
-- lots/lots.go --
// Package lots weighs lots.
package lots
-- bench/__init__.py --
"""Trials of what still sprouts.

Details.
"""
-- words/package.json --
{ "name": "words", "description": "Words for labels." }
-- cards/A.tsx --
export const A = () => <p><b>a</b></p>
-- cards/B.tsx --
export const B = () => <p><b>b</b></p>
-- moor/README.md --
# Moor

moor
-- moor/x.ts --
export const x = () => 1
`)
	j := judgement.Judge(s, model.Brief{}, nil)
	got := map[string]model.Purpose{}
	for _, f := range j.Folders {
		got[f.Path] = f.Purpose
	}
	require.Equal(t, model.Purpose{Text: "Keeps wild seed, as told. More words.", Source: "author", Path: "README.md", Line: 5}, got["."])
	require.Equal(t, model.Purpose{Text: "Package lots weighs lots.", Source: "author", Path: "lots/lots.go", Line: 1}, got["lots"])
	require.Equal(t, "Trials of what still sprouts.", got["bench"].Text)
	require.Equal(t, model.Purpose{Text: "Words for labels.", Source: "author", Path: "words/package.json", Line: 1}, got["words"])
	require.Equal(t, model.Purpose{}, got["cards"], "a count of roles is no purpose")
	require.NotEqual(t, "author", got["moor"].Source, "repeating the name is no purpose")
}

func TestTheFirstToSpeakForAFolderIsHeard(t *testing.T) {
	s := testkit.Survey(t, `
-- package.json --
{ "name": "vault", "description": "A register of seed lots for the growers of a valley" }
-- README.md --
# Vault

Vault is what the growers call it.
-- lots/README.de.md --
Lots sind Beutel in Kisten, und so weiter.
-- lots/README --
Lots of the vault

To weigh a lot, run the scales. The output is in grams.

Version 3.1, released in May 2025.

A lot is a bag of seed of one harvest.
-- lots/a.ts --
export const a = 1
-- moor/package-info.java --
/**
 * Provides what is known of the moor.
 */
package moor;
-- moor/Moor.java --
package moor;
/** Provides the moor itself. */
class Moor {}
-- scales/README.md --
Run the scales before noon.
-- scales/a.ts --
export const a = 1
`)
	j := judgement.Judge(s, model.Brief{}, nil)
	require.Equal(t, "package.json", j.Folder(".").Purpose.Path)
	require.Equal(t, model.Purpose{Text: "A lot is a bag of seed of one harvest.", Source: "author", Path: "lots/README", Line: 7}, j.Folder("lots").Purpose)
	require.Equal(t, "Provides what is known of the moor.", j.Folder("moor").Purpose.Text)
	require.Empty(t, j.Folder("scales").Purpose.Text, "what is to be done is no purpose")
}

func TestOfTwoTextsForReadersTheOneThatIsLaidOutIsHeard(t *testing.T) {
	j := judgement.Judge(testkit.Survey(t, "-- README --\nVault notes\n\nThe drier is useful when many boxes come in at once, and is equally capable.\n"+
		"-- README.md --\n# Vault\n\nVault is a keeper of wild seed for a moor.\n-- main.py --\nx = 1\n"), model.Brief{}, nil)
	require.Equal(t, "README.md", j.Folder(".").Purpose.Path)
	require.Contains(t, j.Folder(".").Purpose.Text, "keeper of wild seed")
}

func TestFoldersSumUpWhatLiesBelow(t *testing.T) {
	s := testkit.Survey(t, "-- a/b/x.ts --\nimport '../../c/y'\nimport './z'\n-- a/b/z.ts --\nimport '../w'\n-- a/w.ts --\n-- c/y.ts --\none()\ntwo()\n")
	j := judgement.Judge(s, model.Brief{}, nil)
	paths := []string{}
	for _, f := range j.Folders {
		paths = append(paths, f.Path)
	}
	require.Equal(t, []string{".", "a", "a/b", "c"}, paths)
	a, b, c := j.Folder("a"), j.Folder("a/b"), j.Folder("c")
	require.Equal(t, []int{3, 1, 0, 1}, []int{a.Files, a.OwnFiles, a.In, a.Out})
	require.Equal(t, []int{2, 2, 0, 2}, []int{b.Files, b.OwnFiles, b.In, b.Out})
	require.Equal(t, []int{1, 2, 1, 0}, []int{c.Files, c.Lines, c.In, c.Out})
}

func TestNamesAreTakenApart(t *testing.T) {
	for name, want := range map[string][]string{
		"seedLotHTTPView2": {"seed", "lot", "http", "view", "2"}, "print_label-sheet": {"print", "label", "sheet"}, "XMLFile": {"xml", "file"}, "": nil, "ÄrgerLot": {"ärger", "lot"},
	} {
		require.Equal(t, want, naming.Words(name), name)
	}
	for name, want := range map[string]naming.Case{"seedLot": naming.Camel, "SeedLot": naming.Pascal, "seed_lot": naming.Snake, "seed-lot": naming.Kebab, "seed": naming.Plain, "Seed": naming.Pascal, "SEED": naming.Caps, "seed_Lot": naming.Mixed, "_seed": naming.Plain} {
		require.Equal(t, want, naming.CaseOf(name), name)
	}
	require.Equal(t, "seed-lot", naming.Stem("a/seed-lot.test.ts"))
	require.Equal(t, ".eslintrc", naming.Stem(".eslintrc.json"))
	for _, n := range []string{"utf8", "sha256", "v2", "base64", "seed", "7", "level3", "x1", "seed2026"} {
		_, _, ok := naming.Number(n)
		require.False(t, ok, n)
	}
	base, digits, ok := naming.Number("panel-2")
	require.True(t, ok)
	require.Equal(t, []string{"panel", "2"}, []string{base, digits})
}

func featuresOf(t *testing.T, tree string) map[string][]string {
	out := map[string][]string{}
	for _, f := range judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil).Features {
		out[f.Name] = f.Files
	}
	return out
}

func TestAWordOfRolesIsAFeatureWhereTheSoftwareIsAboutIt(t *testing.T) {
	built := featuresOf(t, spread("{t}/{k}.py", "def {t}_{k}(): pass", []string{"model", "route", "event"}, []string{"service", "store", "page"}))
	require.Contains(t, built, "model")
	require.Contains(t, built, "route")
	kinds := featuresOf(t, spread("{k}s/{t}.py", "def {t}(): pass", things, []string{"model", "route", "event"}))
	require.NotContains(t, kinds, "model")
	require.Contains(t, kinds, "shelf")
}

func TestAWordThatMostlyArrangesCodeIsAFeatureWhereSomethingIsCalledSo(t *testing.T) {
	rest := spread("{k}/{t}.py", "def {t}(): pass", things, []string{"lots", "boxes"})
	about := featuresOf(t, rest+"-- views/domain.py --\nfrom django.shortcuts import render\ndef show(request): return render(request)\n"+
		"-- forms/domain_forms.py --\nclass DomainForm(Form): pass\n-- templates/domain/edit.html --\n<p>x</p>\n-- templates/domain/new.html --\n<p>x</p>\n")
	require.Contains(t, about, "domain")
	require.Contains(t, about["domain"], "forms/domain_forms.py")
	layer := featuresOf(t, rest+"-- vault/domain/lot.py --\nclass Lot(Entity): pass\n-- vault/domain/weigh_service.py --\ndef weigh(): pass\n-- vault/domain/box.py --\nclass Box(Entity): pass\n")
	require.NotContains(t, layer, "domain", "a layer is no feature, however many kinds of file it holds")
	verbs := featuresOf(t, rest+"-- views/list_lots.py --\ndef a(): pass\n-- forms/list_form.py --\nclass F(Form): pass\n-- db/list_store.py --\ndef b(): pass\n")
	require.NotContains(t, verbs, "list", "nothing is called so by itself")
}

func TestWhatIsSpokenOfInSeveralFilesIsAFeature(t *testing.T) {
	tree := "-- src/history.go --\npackage src\n\nfunc Open() {}\n"
	for _, f := range []string{"lines", "keys", "screen"} {
		tree += "-- src/" + f + ".go --\npackage src\n\nfunc " + title(f) + "() {}\n\nfunc historyOf" + title(f) + "() {}\n"
	}
	for _, f := range []string{"aa", "bb", "cc", "dd", "ee", "ff", "gg", "hh", "ii", "jj", "kk", "ll", "mm"} {
		tree += "-- src/" + f + "x.go --\npackage src\n\nfunc " + title(f) + "() {}\n"
	}
	require.NotContains(t, featuresOf(t, tree), "key", "spoken of in one file")
}

func TestAThingThatFilesInSeveralFoldersAreCalledByIsAFeatureOfItsOwn(t *testing.T) {
	got := featuresOf(t, spread("struct/{t}s/x{t}.py", "def {t}(): pass", []string{"filter", "summary", "group"}, []string{"a"})+
		"-- struct/filters/edge_rules.py --\ndef has_edge(): pass\n-- struct/filters/a.py --\ndef a(): pass\n"+
		"-- struct/summarys/edge_counts.py --\ndef count_edges(): pass\n-- struct/groups/edge_ways.py --\ndef group_edges(): pass\n"+
		"-- struct/groups/node_groups.py --\ndef group_nodes(): pass\n")
	require.ElementsMatch(t, got["edge"], []string{"struct/filters/edge_rules.py", "struct/summarys/edge_counts.py", "struct/groups/edge_ways.py"})
	require.NotContains(t, got, "node", "one file is called so")
}

func TestASortOfPartThatEachThingHasIsNoFeature(t *testing.T) {
	parts := []string{"tcp", "udp"}
	got := featuresOf(t, spread("vault/{t}/{k}.py", "class {T}{K}:\n    pass", things, parts))
	require.NotContains(t, got, "tcp")
	require.Contains(t, got, "lot")
	require.Contains(t, featuresOf(t, spread("{k}/{t}.py", "def {t}(): pass", things, []string{"routes", "services", "models"})), "lot",
		"folders of kinds are no things")
}

func TestTheWordThatManySiblingsBeginWithIsASortOfThem(t *testing.T) {
	four := []string{"lot", "box", "shelf", "grower"}
	got := featuresOf(t, spread("plugins/filter_{t}/{k}.py", "class {T}{K}:\n    pass", four, []string{"rule", "window"}))
	require.NotContains(t, got, "filter")
	require.Contains(t, got, "shelf")
	require.Contains(t, featuresOf(t, spread("plugins/filter_{t}/{k}.py", "class {T}{K}:\n    pass", four[:2], []string{"rule", "window"})+
		spread("core/{t}/{k}.py", "class {T}{K}:\n    pass", []string{"sowing", "drying"}, []string{"rule", "window"})), "filter", "two are no sort")
}

func TestAFolderBesideThingsIsAboutWhatItIsCalled(t *testing.T) {
	of := func(folder string, names ...string) (out string) {
		for _, n := range names {
			out += fmt.Sprintf("-- src/%s/%s.c --\nint %s_%s(int n) { return n; }\n", folder, n, folder, n)
		}
		return out
	}
	rest := of("shelf", "fill", "empty", "turn") + of("kiln", "dry", "heat", "cool") + of("weir", "open", "shut", "flow")
	require.Contains(t, featuresOf(t, rest+of("panel", "above", "below", "hide")), "panel")
	require.NotContains(t, featuresOf(t, rest+of("panel", "above", "below")), "panel", "two files are a corner")
	require.NotContains(t, featuresOf(t, of("panel", "above", "below", "hide")+of("shelf", "fill", "empty", "turn")), "panel", "little lies beside it")
	drawn := ""
	for _, n := range []string{"Above", "Below", "Hide"} {
		drawn += fmt.Sprintf("-- src/panel/%s.java --\nimport javax.swing.*;\npublic class %s extends JPanel { }\n", n, n)
	}
	require.NotContains(t, featuresOf(t, rest+drawn), "panel", "there it is the kind of what lies in it")
}

func TestAFamilyWithItsHeadBesideItIsAFeature(t *testing.T) {
	rest := spread("{k}/{t}.rb", "class {T}\nend", things, []string{"lots", "boxes"})
	family := "-- lib/module/base.rb --\nclass ModuleBase\nend\n-- lib/module/git.rb --\nclass GitModule\nend\n-- cli/module_list.rb --\nclass ModuleList\nend\n"
	require.Contains(t, featuresOf(t, rest+family+"-- lib/module.rb --\nclass Module\nend\n"), "module")
	require.NotContains(t, featuresOf(t, rest+family), "module", "a folder alone may arrange what is there")
}

func TestAPurposeIsFoundAtTheEndOfTheFoldersThatOnlyLeadThere(t *testing.T) {
	root := func(tree string) model.Purpose {
		return judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil).Folders[0].Purpose
	}
	deep := "-- usr/share/vault/README.md --\n# Vault\n\nVault is a register of lots for growers.\n-- usr/share/vault/a.py --\nx = 1\ny = 2\nz = 3\n"
	require.Equal(t, "Vault is a register of lots for growers.", root(deep).Text)
	require.Equal(t, "usr/share/vault/README.md", root(deep).Path)
	require.Empty(t, root(deep+"-- usr/lib/b.py --\nx = 1\ny = 2\nz = 3\n").Text, "there are two parts")
}

func TestANameWrittenInOneIsReadAsItsTypeIsSpelled(t *testing.T) {
	got := featuresOf(t, "-- src/lotlabel.cpp --\nclass LotLabel { void print(); };\n-- src/lotlabel.h --\nclass LotLabel {};\n-- src/lot.cpp --\nvoid lot() {}\n-- ui/lotview.cpp --\nclass LotView : public QWidget {};\n-- data/lotdao.cpp --\nclass LotDao { void all(); };\n")
	require.Contains(t, got, "lot")
	require.Contains(t, got["lot"], "src/lotlabel.cpp")
}

func TestHalfOfAFewFilesMayBeAboutOneThing(t *testing.T) {
	require.Contains(t, featuresOf(t, spread("{k}/{t}.js", "export const {t} = 1", things[:2], []string{"handlers", "services", "routes", "data"})), "lot")
}

func TestWhatLiesInTheFolderOfAFeatureIsAtHome(t *testing.T) {
	for folder, want := range map[string]string{
		"src/vault/shelves": "src/vault", "vault": "vault", "src/Vaults/a/b": "src/Vaults", "src/pages": "src/pages", ".": ".", "src/vaulted": "src/vaulted",
	} {
		require.Equal(t, want, weave.Home("vault", folder), folder)
	}
}

func TestAPageOfTheDocumentationIsNoView(t *testing.T) {
	s := testkit.Survey(t, "-- docs/news/index.html --\n<html><body>New shelves.</body></html>\n-- web/index.html --\n<html><body></body></html>\n")
	j := judgement.Judge(s, model.Brief{}, nil)
	require.Equal(t, model.RoleDocs, j.Roles["docs/news/index.html"].Role)
	require.Equal(t, model.RoleView, j.Roles["web/index.html"].Role)
}
