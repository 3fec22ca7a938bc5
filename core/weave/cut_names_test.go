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

// What folders are called, and what their files build upon, tell how a tree is cut where
// the files themselves say little.
func TestFoldersAndFamiliesTellTheCut(t *testing.T) {
	heirs := func(folder, base string, names ...string) string {
		var b strings.Builder
		fmt.Fprintf(&b, "-- moor/%s/base.py --\nclass %s:\n    pass\n", folder, base)
		for _, n := range names {
			fmt.Fprintf(&b, "-- moor/%[1]s/%[2]s.py --\nfrom .base import %[3]s\n\n\nclass %[4]s%[3]s(%[3]s):\n    def run(self, n):\n        return n + %[5]d\n",
				folder, n, base, title(n), len(n))
		}
		return b.String()
	}
	files := func(folder string, n int) string {
		var b strings.Builder
		for i := range n {
			fmt.Fprintf(&b, "-- %[1]s/%[2]s%[3]c.go --\npackage %[2]s\n\nfunc turn%[3]c(n int) int { return n + %[4]d }\n", folder, folder[strings.LastIndexByte(folder, '/')+1:], 'a'+i, i)
		}
		return b.String()
	}
	kinds := ""
	for _, of := range [][2]string{{"kiln", "repository"}, {"fan", "controller"}, {"scale", "service"}} {
		kinds += spread("src/"+of[0]+"/{t}.{k}.ts", "export class {T}{K} {}", things, []string{of[1]})
	}
	plain := ""
	for _, folder := range []string{"moisture", "thermometer"} {
		plain += spread("src/"+folder+"/{t}.ts", "export function {t}(n: number) { return n + 1 }", []string{"dry", "wet", "warm", "cold", "still"}, []string{"x"})
	}
	for name, c := range map[string]struct{ tree, want string }{
		"families in a folder each, which no word of roles tells": {
			heirs("encoders", "Turner", "hex", "plain", "octal", "packed", "quoted") + heirs("walkers", "Walker", "deep", "wide", "back", "plain", "hex") +
				heirs("sieves", "Sieve", "fine", "coarse", "plain", "deep", "hex"), "by kind",
		},
		"packages called for what they are about, each of one kind": {
			kinds + plain, "by feature",
		},
		"the same where each is a project of its own: parts are not what the code is about": {
			strings.ReplaceAll(strings.ReplaceAll(kinds+plain, "-- src/kiln/", "-- kiln/"), "-- src/", "-- ") +
				"-- kiln/package.json --\n{\"name\": \"kiln\"}\n-- fan/package.json --\n{\"name\": \"fan\"}\n-- scale/package.json --\n{\"name\": \"scale\"}\n" +
				"-- moisture/package.json --\n{\"name\": \"moisture\"}\n-- thermometer/package.json --\n{\"name\": \"thermometer\"}\n", "by kind",
		},
		"folders called for kinds, of files that say nothing": {
			"-- go.mod --\nmodule moor\n" + files("model", 5) + files("util", 5) + files("view", 5) + files("attack", 3), "by kind",
		},
		"a flat program with a few more beside": {"-- go.mod --\nmodule moor\n" + files("moor/moor", 15) + files("moor/extra", 5), ""},
	} {
		t.Run(name, func(t *testing.T) {
			c, want := cutOf(t, c.tree), c.want
			require.Equal(t, want, c.Label, "%+v", c.Evidence)
			if want != "" {
				require.NotEmpty(t, c.Evidence)
			}
		})
	}
}

func TestWhatAProjectInstallsAsACommandIsAnEntry(t *testing.T) {
	j := judgement.Judge(testkit.Survey(t, "-- package.json --\n{\"name\": \"vault\", \"bin\": {\"vault\": \"src/index.js\"}}\n"+
		"-- src/index.js --\n#!/usr/bin/env node\nrun()\n-- src/tidy.js --\n#!/usr/bin/env node\ntidy()\n"), model.Brief{}, nil)
	require.Equal(t, model.RoleEntry, j.Roles["src/index.js"].Role, j.Roles["src/index.js"].Reasons)
	require.Equal(t, model.RoleScript, j.Roles["src/tidy.js"].Role)
}

// What lies beside a package that does not hold it is run to write that package's files.
func TestAProgramBesideAPackageIsAScript(t *testing.T) {
	s := testkit.Survey(t, "-- go.mod --\nmodule moor\n-- kiln/kiln.go --\npackage kiln\n\nfunc Dry() {}\n-- kiln/gen.go --\npackage main\n\nfunc main() {}\n"+
		"-- cmd/moor/main.go --\npackage main\n\nimport \"moor/kiln\"\n\nfunc main() { kiln.Dry() }\n")
	roles := judgement.Judge(s, model.Brief{}, nil).Roles
	require.Equal(t, model.RoleScript, roles["kiln/gen.go"].Role)
	require.Equal(t, model.RoleEntry, roles["cmd/moor/main.go"].Role)
}
