package overview_test

import (
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/overview"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// sheetOf is the overview of a tree.
func sheetOf(t *testing.T, tree string) *overview.Sheet {
	t.Helper()
	s := testkit.Survey(t, tree)
	return overview.Of(s, judgement.Judge(s, model.Brief{}, nil), ".")
}

func roster(sh *overview.Sheet, name string) []string {
	out := []string{}
	for _, g := range sh.System {
		if g.Name == name {
			for _, e := range g.Items {
				out = append(out, e.Note)
			}
		}
	}
	return out
}

func practice(sh *overview.Sheet, name string) string {
	for _, p := range sh.Practices {
		if p.Name == name {
			if p.Evidence == nil {
				return "no list" // the interface goes through it
			}
			if p.Found {
				return "found"
			}
			return "missing"
		}
	}
	return "not told"
}

// Each of these trees showed a statement that was not true.

func TestAComparisonIsNoCheckOfRights(t *testing.T) {
	require.Empty(t, roster(sheetOf(t, `
-- lots.py --
if kind != "wild" and state!=dry: pass
-- lots.ts --
if (lot.grams != 0) weigh(lot!)
const a = lot!.grams
-- Lots.kt --
fun a() { if (x != y) { z!!.run() } }
-- lots.rs --
fn a() { println!("x"); if a != b {} }
-- lots.rb --
save! if grams != 0
lot.update!(a: 1)
`), "checks of sign-in and rights"))
	require.Equal(t, []string{"authenticate_grower!", "authorize!"}, roster(sheetOf(t, `
-- lots_controller.rb --
class LotsController
  before_action :x
  def index
    authenticate_grower!
    authorize! :read, lot
  end
end
`), "checks of sign-in and rights"))
}

func TestAHeaderOfARequestIsNoVariableOfTheEnvironment(t *testing.T) {
	require.Equal(t, []string{"VAULT_PORT"}, roster(sheetOf(t, `
-- a.php --
<?php $h = $_SERVER['HTTP_X_LOT']; $m = $_SERVER['REQUEST_METHOD']; $p = getenv('VAULT_PORT');
-- a.rb --
host = ENV['HTTP_HOST']
-- a.pl --
my $u = $ENV{REMOTE_USER}; my $q = $ENV{QUERY_STRING};
`), "variables of the environment"))
}

func TestAbsenceIsSaidOnlyWhereItMeansSomething(t *testing.T) {
	for name, c := range map[string]struct{ tree, logging, health string }{
		"a logger of the standard library": {"-- a.go --\npackage a\nimport \"log\"\nfunc A() { log.Print(1) }\n", "found", "not told"},
		"no logger":                        {"-- a.go --\npackage a\nimport \"fmt\"\nfunc A() { fmt.Print(1) }\n", "missing", "not told"},
		"a logger of its own":              {"-- a.ts --\nexport class Logger {}\n-- b.ts --\nexport const a = 1\n", "found", "not told"},
		"a logger nobody asks for":         {"-- a.rb --\nclass A\n  def a\n    Rails.logger.info 'x'\n  end\nend\n", "not told", "not told"},
		"a language without packages":      {"-- a.c --\nint main(void) { return 0; }\n", "not told", "not told"},
		"routes and no check":              {"-- a.py --\nimport logging\n@app.get('/lots')\ndef lots(): pass\napp.run()\n", "found", "missing"},
		"routes that a library offers":     {"-- a.py --\nimport logging\n@app.get('/lots')\ndef lots(): pass\n", "found", "not told"},
		"a route that answers for it":      {"-- a.py --\nimport logging\n@app.get('/healthz')\ndef ok(): pass\n", "found", "found"},
		"a registration":                   {"-- A.cs --\nclass A { void B() { app.MapGet(\"/lots\", Lots); app.MapHealthChecks(\"/x\"); } }\n", "missing", "found"},
		"an image that is asked":           {"-- a.py --\nimport logging\n@app.get('/lots')\ndef lots(): pass\n-- Dockerfile --\nFROM x\nHEALTHCHECK CMD curl localhost\n", "found", "found"},
		"a cluster that asks":              {"-- a.py --\nimport logging\n@app.get('/lots')\ndef lots(): pass\n-- deploy.yaml --\nspec:\n  livenessProbe:\n    tcp: 1\n", "found", "found"},
		"services that are asked":          {"-- a.py --\nimport logging\n@app.get('/lots')\ndef lots(): pass\n-- docker-compose.yml --\nservices:\n  vault:\n    image: vault\n    healthcheck:\n      test: x\n", "found", "found"},
	} {
		t.Run(name, func(t *testing.T) {
			sh := sheetOf(t, c.tree)
			require.Equal(t, [2]string{c.logging, c.health}, [2]string{practice(sh, "Logging"), practice(sh, "A health check")})
		})
	}
}

func TestOneCommitIsNoHistory(t *testing.T) {
	dir := testkit.Repository(t, "-- a.go --\npackage a\n")
	s := testkit.SurveyDir(t, dir)
	require.Nil(t, s.History)
	for _, x := range overview.Of(s, judgement.Judge(s, model.Brief{}, nil), ".").Sentences {
		require.NotContains(t, x.Text, "commit")
	}
	testkit.Write(t, dir, "-- a.go --\npackage a\n\nfunc A() {}\n")
	testkit.Git(t, dir, "commit", "-q", "-a", "-m", "second")
	require.Equal(t, 2, testkit.SurveyDir(t, dir).History.Commits)
}

func TestAFolderOfAPackagePathMakesNoRole(t *testing.T) {
	s := testkit.Survey(t, `
-- src/main/java/org/test/views/vault/Lot.java --
package org.test.views.vault;
public class Lot { int grams; void weigh() {} }
-- src/main/java/org/test/views/vault/box/Box.java --
package org.test.views.vault.box;
public class Box { void put() {} }
-- src/main/java/org/test/views/vault/model/Grower.java --
package org.test.views.vault.model;
public class Grower { void grow() {} }
`)
	j := judgement.Judge(s, model.Brief{}, nil)
	require.NotContains(t, []model.Role{model.RoleTest, model.RoleView}, j.Roles["src/main/java/org/test/views/vault/Lot.java"].Role)
	require.NotContains(t, []model.Role{model.RoleTest, model.RoleView}, j.Roles["src/main/java/org/test/views/vault/box/Box.java"].Role)
	require.Equal(t, model.RoleModel, j.Roles["src/main/java/org/test/views/vault/model/Grower.java"].Role, "its own folder still tells")
}

func TestNoSentenceIsEmptyOrSaidTwice(t *testing.T) {
	for _, tree := range []string{"-- a.go --\npackage a\n", "-- README.md --\n# A\n", "-- a.zzz --\nx\n"} {
		said := map[string]bool{}
		for _, x := range sheetOf(t, tree).Sentences {
			require.NotEmpty(t, strings.TrimSpace(x.Text))
			require.False(t, said[x.Text], x.Text)
			said[x.Text] = true
		}
	}
}
