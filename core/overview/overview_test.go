package overview_test

import (
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/overview"
	_ "jantel/core/syntax/languages"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func sheet(t *testing.T, tree, place string, b model.Brief) *overview.Sheet {
	t.Helper()
	s := testkit.Survey(t, tree)
	return overview.Of(s, judgement.Judge(s, b, nil), place)
}

func text(s *overview.Sheet) string {
	var l []string
	for _, x := range s.Sentences {
		l = append(l, x.Text)
	}
	return strings.Join(l, "\n")
}

const vault = `
-- README.md --
# Vault

Keeps the boxes of the seed vault.

    make test

Run it:

` + "```\nnpm start\n```" + `
-- package.json --
{ "name": "vault", "description": "Boxes.", "scripts": { "start": "node src/main.js", "test": "node --test", "lint": "eslint ." } }
-- Makefile --
test:
	node --test
-- src/main.js --
import { list } from './lots.js'
import './none.js'
const port = process.env.PORT ?? process.env.VAULT_PORT
app.listen(port)
-- src/lots.js --
import { weigh } from './weights.js'
export const list = () => weigh(1)
-- src/weights.js --
import { list } from './lots.js'
export const weigh = (n) => list
-- src/lots.test.js --
const home = process.env.ONLY_IN_TESTS
`

func TestTheSheetSaysWhatThereIsToSay(t *testing.T) {
	s := sheet(t, vault, ".", model.Brief{})
	require.Equal(t, "Keeps the boxes of the seed vault.", s.Purpose.Text)
	require.Equal(t, "author", s.Purpose.Source)
	said := text(s)
	require.Contains(t, said, "of it JavaScript")
	require.Contains(t, said, "One ring of files: each needs the next")
	require.Contains(t, said, "It reads 2 variables of its environment.")
	require.Contains(t, said, "One import leads nowhere that can be found.")
	require.NotContains(t, said, "commits", "without Git nothing is said of it")
	for _, x := range s.Sentences {
		for _, e := range x.Evidence {
			require.NotEmpty(t, e.Path, x.Text)
		}
	}
	require.Equal(t, 1, s.Unsolved)
	require.Equal(t, 3, s.Resolved)
}

func TestHowItIsBuiltRunAndTestedIsWhatItsFilesSay(t *testing.T) {
	s := sheet(t, vault, ".", model.Brief{})
	by := map[string][]string{}
	for _, r := range s.Runs {
		by[r.Purpose] = append(by[r.Purpose], r.Text)
		require.Positive(t, r.Line, r.Text)
		require.NotEmpty(t, r.Path)
	}
	require.Contains(t, by["run"], "npm start")
	require.Contains(t, by["test"], "npm test")
	require.Contains(t, by["test"], "make test")
	require.Contains(t, by["check"], "npm run lint")
}

func TestACommandOfTheReadmeIsForWhatItRuns(t *testing.T) {
	s := sheet(t, "-- README.md --\n# Vault\n\n```sh\nnpm install vault\nnpm install\nnpm run test:browser\nnpm run start\npip install -r needs.txt\ngo get example.org/vault\n```\n-- main.js --\nvault()\n", ".", model.Brief{})
	got := map[string]string{}
	for _, r := range s.Runs {
		got[r.Text] = r.Purpose
	}
	require.Equal(t, map[string]string{
		"npm install vault": "other", "npm install": "build", "npm run test:browser": "test", "npm run start": "run",
		"pip install -r needs.txt": "build", "go get example.org/vault": "other",
	}, got)
}

func TestAFolderHasASheetOfItsOwn(t *testing.T) {
	s := sheet(t, vault, "src", model.Brief{})
	require.Equal(t, "src", s.Title)
	require.Empty(t, s.Patterns, "a pattern is the codebase's")
	require.Equal(t, 4, s.Totals.Files)
	require.Nil(t, sheet(t, vault, "nowhere", model.Brief{}))
}

func TestTheBriefLimitsWhatIsSaid(t *testing.T) {
	s := sheet(t, vault, ".", model.Brief{Out: []string{"src/**"}})
	require.True(t, s.Limited)
	require.NotContains(t, text(s), "ring")
	require.NotContains(t, text(s), "environment")
}

func TestAnEmptyLanguageIsNotInvented(t *testing.T) {
	s := sheet(t, "-- notes.txt --\nwords\n-- data.bin --\n\x00\x01\n", ".", model.Brief{})
	require.Contains(t, text(s), "none of them in a language whose code is counted")
	require.Equal(t, map[string]int{"binary": 1}, s.Totals.Skipped)
}

func TestTheWorstBeginWithTheStructureAndAreOfDifferentRules(t *testing.T) {
	all := []*model.Smell{
		{ID: "name", Rule: "numbered-name", Facet: model.Names, Rank: 9},
		{ID: "name again", Rule: "numbered-name", Facet: model.Names, Rank: 8},
		{ID: "file", Rule: "long-file", Facet: model.Units, Rank: 7},
		{ID: "file again", Rule: "long-file", Facet: model.Units, Rank: 6},
		{ID: "folder", Rule: "crowded-folder", Facet: model.Layout, Rank: 2},
		{ID: "prefix", Rule: "hidden-by-prefix", Facet: model.Layout, Rank: 3},
		{ID: "ring", Rule: "file-cycle", Facet: model.Boundaries, Rank: 1},
	}
	ids := func(worst []model.Smell) (out []string) {
		for _, w := range worst {
			out = append(out, w.ID)
		}
		return out
	}
	require.Equal(t, []string{"prefix", "file", "ring", "name", "folder", "name again", "file again"}, ids(overview.Worst(all, 9)))
	require.Equal(t, []string{"name", "name again"}, ids(overview.Worst(all[:2], 3)), "where there is nothing else")
	require.Empty(t, overview.Worst(nil, 3))
	slight := *all[len(all)-1]
	slight.ID, slight.Rule, slight.Facet, slight.Rank = "slight ring", "file-cycle", model.Boundaries, 0.01
	require.Equal(t, "name", ids(overview.Worst([]*model.Smell{all[0], all[1], &slight}, 3))[0], "a slight fault of the structure waits its turn")
}

func TestTheHistoryIsToldInASentence(t *testing.T) {
	s := testkit.Survey(t, vault)
	two := 2.0
	s.History = &model.History{Commits: 12, First: 1772360000, Last: 1780000000, MedianFolders: &two,
		Authors: []model.Author{{Name: "Maren Thistlewood", Commits: 9}, {Name: "Odd Fennimore", Commits: 3}},
		Files: []model.FileHistory{
			{Path: "src/lots.js", Changes: 7, Authors: map[string]int{"Maren Thistlewood": 7}, First: 1772360000, Last: 1780000000},
			{Path: "src/weights.js", Changes: 1, Authors: map[string]int{"Odd Fennimore": 1}, First: 1772360000, Last: 1772360000},
		},
		Pairs: []model.Pair{{A: "src/lots.js", B: "src/weights.js", Together: 4, Confidence: 1}},
	}
	j := judgement.Judge(s, model.Brief{}, nil)
	said := text(overview.Of(s, j, "."))
	require.Contains(t, said, "12 commits by 2 people from March 2026 to May 2026; an ordinary one touches 2 folders.")
	require.Contains(t, said, "One pair of files changes together as a rule; lots.js and weights.js did so 4 times.")
	require.Contains(t, text(overview.Of(s, j, "src")), "2 people worked on it from March 2026 to May 2026.")
	s.History = &model.History{}
	require.NotContains(t, text(overview.Of(s, judgement.Judge(s, model.Brief{}, nil), ".")), "commit")
}

// TestWhatItIsDeliveredAsIsSaidBesideHowItWorks: the two are no rivals, and both
// are told with their reason.
func TestWhatItIsDeliveredAsIsSaidBesideHowItWorks(t *testing.T) {
	tree := "-- package.json --\n{ \"name\": \"lots\", \"main\": \"index.js\" }\n-- index.js --\nexport { start } from './run'\n-- run.js --\nimport { bus } from './bus'\nexport function start() { bus.publish('lot.start', 1); bus.publish('lot.end', 1); bus.publish('lot.dry', 1) }\n-- bus.js --\nexport const bus = make()\n-- show.js --\nimport { bus } from './bus'\nbus.subscribe('lot.start', f)\nbus.subscribe('lot.end', f)\nbus.subscribe('lot.dry', f)\n-- count.js --\nimport { bus } from './bus'\nbus.subscribe('lot.end', g)\n"
	said := text(sheet(t, tree, ".", model.Brief{}))
	require.Contains(t, said, "publish and subscribe")
	require.Contains(t, said, "a library")
	require.Contains(t, said, " as well. ")
}

// TestAModuleHasARankingOfItsOwn: in a codebase built in several ways each part
// is told apart, and a folder that is none has no ranking.
func TestAModuleHasARankingOfItsOwn(t *testing.T) {
	tree := ""
	for _, f := range []string{"lots", "boxes", "growers"} {
		tree += strings.ReplaceAll("-- counter/routes/$.ts --\nimport { list } from '../handlers/$'\nrouter.get('/$', list)\n-- counter/handlers/$.ts --\nimport { all } from '../services/$'\nexport const list = (req, res) => res.json(all())\n-- counter/services/$.ts --\nimport { rows } from '../repositories/$'\nexport const all = () => rows()\n-- counter/repositories/$.ts --\nexport const rows = () => pool.query('SELECT id FROM $ WHERE 1 = 1')\n-- bench/$/run.ts --\nexport const run = () => 1\n-- bench/$/model.ts --\nexport interface Row { id: string }\n", "$", f)
	}
	s := sheet(t, tree, "counter", model.Brief{})
	require.NotEmpty(t, s.Verdict)
	require.Equal(t, "layered", s.Patterns[0].Name)
	require.NotEmpty(t, s.Patterns[0].For[0].Evidence)
	require.Contains(t, text(s), "layered")
	inside := sheet(t, tree, "counter/routes", model.Brief{})
	require.Empty(t, inside.Verdict)
	require.Empty(t, inside.Patterns)
}

func TestTheMostTellingSentenceComesFirst(t *testing.T) {
	s := testkit.Survey(t, "-- desk/package.json --\n{\"name\": \"desk\"}\n-- desk/a.ts --\nexport const a = 1\nexport const b = 2\n-- counter/package.json --\n{\"name\": \"counter\"}\n-- counter/b.ts --\nexport const b = 1\n")
	said := overview.Of(s, judgement.Judge(s, model.Brief{}, nil), ".").Sentences
	require.Equal(t, "Two parts in one repository: desk and counter.", said[0].Text)
	require.Equal(t, "desk", said[0].Evidence[0].Path)
	one := testkit.Survey(t, "-- src/a.ts --\nexport const a = 1\nexport const b = 2\nexport const c = 2\n-- tools/x/package.json --\n{\"name\": \"x\"}\n-- tools/x/b.ts --\nexport const b = 1\n-- tools/y/package.json --\n{\"name\": \"y\"}\n")
	for _, x := range overview.Of(one, judgement.Judge(one, model.Brief{}, nil), ".").Sentences {
		require.NotContains(t, x.Text, "parts in one repository", "what holds little of it is none of its parts")
	}
}

func TestWhereItStartsIsCountedByKind(t *testing.T) {
	s := testkit.Survey(t, "-- a/main.go --\npackage main\n\nfunc main() {}\n-- b/main.go --\npackage main\n\nfunc main() {}\n-- public/index.php --\n<?php\nboot();\n")
	var texts []string
	for _, x := range overview.Of(s, judgement.Judge(s, model.Brief{}, nil), ".").Sentences {
		texts = append(texts, x.Text)
	}
	require.Contains(t, texts, "It starts in 3 places: 2 programs and one page.")
}

func TestPlacesOfOneKindAreCountedOnce(t *testing.T) {
	s := testkit.Survey(t, "-- a/main.go --\npackage main\n\nfunc main() {}\n-- b/main.go --\npackage main\n\nfunc main() {}\n")
	var texts []string
	for _, x := range overview.Of(s, judgement.Judge(s, model.Brief{}, nil), ".").Sentences {
		texts = append(texts, x.Text)
	}
	require.Contains(t, texts, "2 programs start in it.")
}

func TestWhatIsOnlyAssumedIsSaid(t *testing.T) {
	s := testkit.Survey(t, "-- a.go --\npackage a\n\nfunc A() {}\n-- b.go --\npackage a\n\nfunc B() {}\n-- c_test.go --\npackage a\n")
	said := ""
	for _, x := range overview.Of(s, judgement.Judge(s, model.Brief{}, nil), ".").Sentences {
		said += x.Text + "\n"
	}
	require.NotContains(t, said, "only assumed", "nothing but assumptions is no sentence")
	s = testkit.Survey(t, "-- handlers/a.ts --\nexport function a() {}\n-- handlers/b.ts --\nexport function b() {}\n-- lots.service.ts --\nexport function c() {}\n")
	said = ""
	for _, x := range overview.Of(s, judgement.Judge(s, model.Brief{}, nil), ".").Sentences {
		said += x.Text + "\n"
	}
	require.Contains(t, said, "; 66 % of what is told is only assumed.")
}

func TestTheProgramIsReadBeforeWhatIsRunByHandBesideIt(t *testing.T) {
	s := sheet(t, "-- contrib/weigh.pl --\n#!/usr/bin/perl\nprint 1;\n-- src/vault.c --\nint main(void) { return 0; }\n", ".", model.Brief{})
	require.Equal(t, "src/vault.c", s.ReadFirst[0].Path)
	require.Equal(t, "contrib/weigh.pl", s.ReadFirst[1].Path)
}
