package patterns_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/patterns"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func ranking(t *testing.T, tree string) []model.PatternMatch {
	t.Helper()
	return judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil).Patterns
}

// service is a small HTTP service; each part is a format of the feature.
func service(layout map[string]string, features ...string) string {
	var b strings.Builder
	for _, f := range features {
		for path, text := range layout {
			fmt.Fprintf(&b, "-- "+path+" --\n%s\n", f, strings.ReplaceAll(text, "$", f))
		}
	}
	return b.String()
}

var byLayer = map[string]string{
	"src/routes/%s.ts":       "import { list } from '../handlers/$'\nrouter.get('/$', list)",
	"src/handlers/%s.ts":     "import { all } from '../services/$'\nexport const list = (req, res) => res.json(all())",
	"src/services/%s.ts":     "import { rows } from '../repositories/$'\nexport const all = () => rows()",
	"src/repositories/%s.ts": "export const rows = () => pool.query('SELECT id FROM $ WHERE 1 = 1')",
}

var byFeature = map[string]string{
	"src/%[1]s/routes.ts":     "import { all } from './service'\nrouter.get('/$', all)",
	"src/%[1]s/service.ts":    "import { rows } from './repository'\nexport const all = () => rows()",
	"src/%[1]s/repository.ts": "export const rows = () => pool.query('SELECT id FROM $ WHERE 1 = 1')",
	"src/%[1]s/model.ts":      "export interface Row { id: string }",
}

func TestPatternsAreTold(t *testing.T) {
	for name, c := range map[string]struct{ tree, want string }{
		"layers":               {service(byLayer, "lots", "boxes", "growers"), "layered"},
		"one folder a feature": {service(byFeature, "lots", "boxes", "growers"), "by feature"},
		"a library":            {"-- package.json --\n{ \"name\": \"words\", \"main\": \"index.js\" }\n-- index.js --\nexport { a } from './a'\n-- a.js --\nexport const a = 1\n-- b.js --\nexport const b = 1\n", "library"},
		"scripts":              {"-- dry.py --\n#!/usr/bin/env python3\nprint(1)\n-- weigh.py --\n#!/usr/bin/env python3\nprint(2)\n-- label.py --\nif __name__ == '__main__':\n    print(3)\n", "scripts"},
	} {
		t.Run(name, func(t *testing.T) {
			got := ranking(t, c.tree)
			require.NotEmpty(t, got)
			require.Equal(t, c.want, got[0].Name)
			for _, m := range got {
				require.True(t, m.Score >= 25 && m.Score <= 100)
				require.NotEmpty(t, append(m.For, m.Against...))
			}
		})
	}
}

func TestNoPatternIsAPossibleAnswer(t *testing.T) {
	require.Empty(t, ranking(t, "-- a.ts --\nexport const a = 1\n-- b/c.ts --\nimport '../a'\nimport '../d'\n-- d.ts --\nimport './a'\n"))
	require.Empty(t, ranking(t, "-- notes.md --\nwords\n"))
	require.Equal(t, "undecided", patterns.Verdict(nil))
}

func TestWhatSkipsALayerSpeaksAgainst(t *testing.T) {
	clean := ranking(t, service(byLayer, "lots", "boxes", "growers"))[0]
	skipping := map[string]string{}
	for k, v := range byLayer {
		skipping[k] = strings.ReplaceAll(v, "'../services/$'", "'../repositories/$'")
	}
	bad := ranking(t, service(skipping, "lots", "boxes", "growers"))
	for _, m := range bad {
		if m.Name == "layered" {
			require.Less(t, m.Score, clean.Score)
			require.NotEmpty(t, m.Against)
		}
	}
}

// TestTheCutSpeaksForAndAgainst: folders that are cut by kind are no evidence of
// features, and the other way round; where it can not be told it says nothing.
func TestTheCutSpeaksForAndAgainst(t *testing.T) {
	s := testkit.Survey(t, service(byFeature, "lots", "boxes", "growers"))
	j := judgement.Judge(s, model.Brief{}, nil)
	score := func(cut model.Cut, name string) float64 {
		for _, m := range patterns.Look(".", s, j.Roles, j.InScope, j.Folders).Rank(cut) {
			if m.Name == name {
				return m.Score
			}
		}
		return 0
	}
	way := func(x float64) model.Cut { return model.Cut{Value: &x} }
	require.Greater(t, score(way(0.9), "by feature"), 60.0)
	require.LessOrEqual(t, score(way(-0.9), "by feature"), 30.0)
	require.Equal(t, score(model.Cut{}, "by feature"), score(way(0.1), "by feature"), "mixed speaks for neither")
	// Where folders say nothing of kinds, which files lie together does where that shows from
	// both sides: of those where it showed from one alone none was labelled so.
	plain := testkit.Survey(t, "-- go.mod --\nmodule moor\n-- main.go --\npackage main\nfunc main() {}\n-- lots/a.go --\npackage lots\nfunc A() {}\n-- boxes/a.go --\npackage boxes\nfunc A() {}\n")
	flat := judgement.Judge(plain, model.Brief{}, nil)
	told := func(sides int) float64 {
		cut := way(0.9)
		for range sides {
			cut.Evidence = append(cut.Evidence, model.Evidence{Path: ".", Note: "of 21 pairs 20 lie in one folder"})
		}
		for _, m := range patterns.Look(".", plain, flat.Roles, flat.InScope, flat.Folders).Rank(cut) {
			if m.Name == "by feature" {
				return m.Score
			}
		}
		return 0
	}
	require.Zero(t, told(0))
	require.Zero(t, told(1))
	require.Greater(t, told(2), 40.0)
}

func TestVerdicts(t *testing.T) {
	m := func(scores ...float64) (out []model.PatternMatch) {
		for _, s := range scores {
			out = append(out, model.PatternMatch{Score: s})
		}
		return out
	}
	require.Equal(t, "clear", patterns.Verdict(m(80, 60)))
	require.Equal(t, "leaning", patterns.Verdict(m(80, 70)))
	require.Equal(t, "undecided", patterns.Verdict(m(80, 78)))
	require.Equal(t, "undecided", patterns.Verdict(m(40)))
	named := m(90, 88, 60)
	named[0].Name, named[1].Name, named[2].Name = "layered", "by kind", "rings"
	require.Equal(t, "clear", patterns.Verdict(named), "by kind is no rival of layers")
	named[1].Name = "library"
	require.Equal(t, "clear", patterns.Verdict(named), "as what it is delivered is no rival of how it works")
	named[1].Name = "rings"
	require.Equal(t, "undecided", patterns.Verdict(named))
	named[0].Name, named[1].Name = "library", "scripts"
	require.Equal(t, "undecided", patterns.Verdict(named))
	named[0].Name = "by feature"
	require.Equal(t, "undecided", patterns.Verdict(named))
}

// told writes a ranking with its reasons, for when a test fails.
func outcomeOf(ms []model.PatternMatch) string {
	var b strings.Builder
	for _, m := range ms {
		fmt.Fprintf(&b, "%s %.1f\n", m.Name, m.Score)
		for _, a := range append(m.For, m.Against...) {
			fmt.Fprintf(&b, "  %+.1f %s\n", a.Points, a.Text)
		}
	}
	return b.String()
}

func TestPackagesByFolderAreNotAskedWhetherTheyKeepToThemselves(t *testing.T) {
	tree := "-- go.mod --\nmodule vault\n"
	for _, f := range []string{"lots", "boxes", "shelves", "growers"} {
		tree += "-- " + f + "/" + f + ".go --\npackage " + f + "\n\nimport \"vault/data\"\n\nfunc All() { data.Open() }\n-- " + f + "/handler.go --\npackage " + f +
			"\n\nimport (\n\t\"net/http\"\n\t\"vault/data\"\n)\n\nfunc H(w http.ResponseWriter, r *http.Request) { data.Open() }\n"
	}
	for _, m := range ranking(t, tree+"-- data/data.go --\npackage data\n\nfunc Open() {}\n") {
		for _, a := range append(m.For, m.Against...) {
			require.NotContains(t, a.Text, "stay within their folder")
		}
	}
}
