package weave_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// Words that mean a role in one trade and nothing in another: the tree, and the
// role of each file.
func TestWordsMeanTheirRoleWhereTheirTradeIs(t *testing.T) {
	for name, c := range map[string]struct {
		tree string
		want map[string]model.Role
	}{
		"a control draws, a version control does not": {
			"-- Vault/Dial.cs --\nclass Dial : Control { void A() {} }\n-- Vault/Lid.cs --\nclass Lid : UserControl { void A() {} }\n" +
				"-- keep/ledger.py --\nclass Ledger(VersionControl):\n    def pull(self): return 1\n",
			map[string]model.Role{"Vault/Dial.cs": model.RoleView, "Vault/Lid.cs": model.RoleView, "keep/ledger.py": model.RoleLogic},
		},
		"a resolver answers where queries are asked in a graph": {
			"-- lots.py --\nimport graphql\nclass LotResolver:\n    def lots(self): return 1\n",
			map[string]model.Role{"lots.py": model.RoleHandler},
		},
		"another library for that": {
			"-- lots.py --\nfrom ariadne import QueryType\nclass LotResolver:\n    def lots(self): return 1\n",
			map[string]model.Role{"lots.py": model.RoleHandler},
		},
		"elsewhere it works something out": {
			"-- lots.py --\nclass LotResolver:\n    def lots(self): return 1\n-- resolvers/shelf.py --\ndef shelf(): return 1\n",
			map[string]model.Role{"lots.py": model.RoleLogic, "resolvers/shelf.py": model.RoleLogic},
		},
		"what builds upon a library of interfaces is drawn, but for what keeps its rows": {
			"-- a/room.py --\nfrom gi.repository import Gtk\nclass Room(Gtk.Box):\n    def fill(self): return 1\n" +
				"-- a/moor.py --\nfrom gi.repository import Gio\nclass Moor(Gtk.Application):\n    def fill(self): return 2\n" +
				"-- a/rows.py --\nfrom gi.repository import GObject\nclass Rows(Gtk.ListStore):\n    def fill(self): return 2\n",
			map[string]model.Role{"a/room.py": model.RoleView, "a/moor.py": model.RoleLogic, "a/rows.py": model.RoleState},
		},
		"a word that means several things means what the codebase says where it has its own": {
			"-- vault/component.py --\nclass Component:\n    def start(self): return 1\n" +
				"-- vault/keeper.py --\nfrom vault.component import Component\nclass Keeper(Component):\n    def start(self): return 2\n" +
				"-- vault/lid.py --\nfrom vault.keeper import Keeper\nclass Lid(Keeper):\n    def start(self): return 3\n" +
				"-- vault/dial.py --\nfrom vault.component import Component\nclass Dial(UserControl):\n    def draw(self): return 2\n",
			map[string]model.Role{"vault/keeper.py": model.RoleLogic, "vault/lid.py": model.RoleLogic, "vault/dial.py": model.RoleView},
		},
		"folders of tests that say which": {
			"-- unit-tests/lots.cc --\nint weigh(int a) { return a; }\n-- test-run/lots.py --\ndef weigh(a): return a\n-- vault-tests/lots.py --\ndef weigh(a): return a\n" +
				"-- soil-test/lots.py --\ndef weigh(a): return a\n-- contest/lots.py --\ndef weigh(a): return a\n",
			map[string]model.Role{
				"unit-tests/lots.cc": model.RoleTest, "test-run/lots.py": model.RoleTest, "vault-tests/lots.py": model.RoleTest,
				"soil-test/lots.py": model.RoleLogic, "contest/lots.py": model.RoleLogic,
			},
		},
		"what nearly all programs in C take in tells nothing": {
			"-- vault/box.c --\n#include <unistd.h>\n#include <sys/types.h>\nint weigh(int a) { return a; }\n" +
				"-- vault/wire.c --\n#include <sys/mman.h>\nint map(int a) { return a; }\n-- vault/keep.h --\n#include <sys/mman.h>\nint keep(int);\n" +
				"-- vault/wire.h --\nint map(int);\n",
			map[string]model.Role{
				"vault/box.c": model.RoleLogic, "vault/wire.c": model.RolePlatform, "vault/wire.h": model.RolePlatform, "vault/keep.h": "",
			},
		},
		"a handler answers where something is asked from outside": {
			"-- src/handlers/lots.ts --\nexport function list() { return 1 }\n-- src/app.ts --\nimport express from 'express'\nimport { list } from './handlers/lots'\nconst app = express()\napp.get('/lots', list)\n",
			map[string]model.Role{"src/handlers/lots.ts": model.RoleHandler},
		},
		"in a library that asks others nothing is answered, nor routed": {
			"-- org/moor/http/Desk.java --\npackage org.moor.http;\npublic class Desk { int ask() { return new RetryHandler().more(); } }\n" +
				"-- org/moor/http/RetryHandler.java --\npackage org.moor.http;\npublic class RetryHandler { int more() { return 1; } }\n" +
				"-- org/moor/http/LotRoute.java --\npackage org.moor.http;\npublic class LotRoute { int hops() { return 2; } }\n",
			map[string]model.Role{
				"org/moor/http/Desk.java": model.RoleLogic, "org/moor/http/RetryHandler.java": model.RoleLogic, "org/moor/http/LotRoute.java": model.RoleLogic,
			},
		},
		"programs of tests, and one that only looks like one": {
			"-- nta/nta.c --\nint dry(int a) { return a; }\n-- nta/test_nta.c --\nint dry(int);\nint main(void) { return dry(1) != 1; }\n" +
				"-- nta/torture_vault.c --\nint dry(int);\nint test_box(void) { return dry(1); }\nint test_lid(void) { return dry(2); }\nint test_shelf(void) { return dry(3); }\n" +
				"int helper(void) { return 0; }\nint main(void) { return test_box() + test_lid() + test_shelf(); }\n" +
				"-- nta/check_lots.cc --\nSTART_TEST(lots_1)\n{\n  weigh(1);\n}\nEND_TEST\nSTART_TEST(lots_2)\n{\n  weigh(2);\n}\nEND_TEST\nSTART_TEST(lots_3)\n{\n  weigh(3);\n}\nEND_TEST\n" +
				"-- cc/test-lots_cc.cc --\n#include <boost/test/unit_test.hpp>\nBOOST_AUTO_TEST_CASE(one)\n{\n  BOOST_CHECK(lots(1));\n}\nBOOST_AUTO_TEST_CASE(two)\n{\n  BOOST_CHECK(lots(2));\n}\n" +
				"BOOST_AUTO_TEST_CASE(three)\n{\n  BOOST_CHECK(lots(3));\n}\n-- env/Test-lots.py --\nfrom env import run\n\nrun('lots')\n-- tool/src/it/first/Mojo.java --\nclass Mojo { void run() {} }\n-- nta/protest.c --\n#include <stdio.h>\nint main(void) { return 0; }\n-- nta/test_lab.c --\nint pipette(int a) { return a; }\n",
			map[string]model.Role{
				"nta/nta.c": model.RoleLogic, "nta/test_nta.c": model.RoleTest, "nta/torture_vault.c": model.RoleTest,
				"cc/test-lots_cc.cc": model.RoleTest, "tool/src/it/first/Mojo.java": model.RoleTest, "env/Test-lots.py": model.RoleTest,
				"nta/check_lots.cc": model.RoleTest, "nta/protest.c": model.RoleEntry, "nta/test_lab.c": model.RoleLogic,
			},
		},
		"what is tried again in a folder of C": {
			"-- plugins/vault/vault.c --\nint weigh(int a) { return a; }\n" +
				"-- plugins/vault/regress/check_weights.c --\nint weigh(int);\nint main(void) { return weigh(1) != 1; }\n",
			map[string]model.Role{"plugins/vault/vault.c": model.RoleLogic, "plugins/vault/regress/check_weights.c": model.RoleTest},
		},
		"a protocol by its name, and a header that starts nothing": {
			"-- src/pop3_in.c --\nint read_in(int a) { return a; }\n-- src/vaultd.c --\n#include \"vaultd.h\"\nint main(void) { return 0; }\n" +
				"-- src/vaultd.h --\nint weigh(int);\n",
			map[string]model.Role{"src/pop3_in.c": model.RoleFormat, "src/vaultd.c": model.RoleEntry, "src/vaultd.h": ""},
		},
	} {
		t.Run(name, func(t *testing.T) {
			j := judgement.Judge(testkit.Survey(t, c.tree), model.Brief{}, nil)
			for p, want := range c.want {
				require.Equal(t, want, j.Roles[p].Role, "%s: %s", p, j.Roles[p].Reasons)
			}
		})
	}
}

func TestWhatTheLeadSaysOfAWordHoldsWhateverIsTakenIn(t *testing.T) {
	s := testkit.Survey(t, "-- lots.py --\nclass LotResolver:\n    def lots(self): return 1\n")
	by := []model.Overrule{{Kind: model.OverruleWord, Target: "resolver", Value: "handler"}}
	require.Equal(t, model.RoleHandler, judgement.JudgeBy(s, judgement.Inputs{Overrules: by}).Roles["lots.py"].Role)
}

func featureNames(t *testing.T, tree string) (out []string) {
	t.Helper()
	for _, f := range judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil).Features {
		out = append(out, f.Name)
	}
	return out
}

func TestTestsOfAThingDoNotMakeItCommon(t *testing.T) {
	var tree strings.Builder
	for _, name := range []string{"drying", "weigher", "shelver", "sower"} {
		fmt.Fprintf(&tree, "-- src/%s.c --\nint drying_%s(void) { return 1; }\n", name, name)
	}
	tree.WriteString("-- src/drying.h --\nint drying(void);\n")
	for i := range 12 {
		fmt.Fprintf(&tree, "-- src/part%c.c --\nint part%c(void) { return 1; }\n", 'a'+i, 'a'+i)
	}
	for i := range 25 {
		fmt.Fprintf(&tree, "-- tests/drying_%c.c --\nint main(void) { return 0; }\n", 'a'+i)
	}
	require.Contains(t, featureNames(t, tree.String()), "drying")
}

func TestAFigureBelongsToAName(t *testing.T) {
	names := featureNames(t, "-- fs/ext2/read.c --\nint a(void) { return 1; }\n-- fs/ext2/write.c --\nint b(void) { return 1; }\n"+
		"-- fs/moor/read.c --\nint c(void) { return 1; }\n-- fs/moor/write.c --\nint d(void) { return 1; }\n")
	require.Contains(t, names, "ext2")
	require.Contains(t, names, "moor")
}

func TestALibraryIsAboutWhatItsNameSaysBehindLib(t *testing.T) {
	tree := ""
	for _, d := range []string{"libdrying", "libshelf", "library", "libretto"} {
		for _, f := range []string{"read", "write"} {
			tree += fmt.Sprintf("-- src/%s/%s.c --\nint %s_%s(void) { return 1; }\n", d, f, d, f)
		}
	}
	names := featureNames(t, tree)
	require.Contains(t, names, "drying")
	require.Contains(t, names, "shelf")
	require.Contains(t, names, "libretto")
}
