package smells_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/reading"
	"jantel/core/smells"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// hits judges a tree and returns the smells of one rule as "path: message".
// many makes files from a pattern of one %s.
func many(pattern string, names ...string) string {
	var b strings.Builder
	for _, n := range names {
		fmt.Fprintf(&b, "-- "+pattern+" --\nexport const x = 1\n", n)
	}
	return b.String()
}

func words(n int) []string {
	all := strings.Fields("barley clover dock elder fern gorse heath iris juniper kale larch moss nettle oat poppy quince rowan sedge thyme ulex vetch willow yarrow alder birch cedar daisy furze garlic hazel ivy linden maple")
	return all[:n]
}

func TestAnIdStaysTheSameFromSurveyToSurvey(t *testing.T) {
	id := func(tree string) string {
		j := judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil)
		at := slices.IndexFunc(j.Smells, func(sm model.Smell) bool { return sm.Rule == "catch-all-folder" })
		require.GreaterOrEqual(t, at, 0)
		return j.Smells[at].ID
	}
	tree := many("src/utils/%s.ts", words(4)...)
	require.Equal(t, id(tree), id(tree+"-- src/fern.ts --\nexport const a = 1\n"))
	require.NotEqual(t, id(tree), id(many("lib/utils/%s.ts", words(4)...)))
}

func TestRulesAreComplete(t *testing.T) {
	seen := map[string]bool{}
	for _, r := range smells.Rules() {
		require.False(t, seen[r.Slug])
		seen[r.Slug] = true
		require.Contains(t, model.Facets, r.Facet)
		for _, text := range []string{r.Title, r.Question, r.Why, r.Example, r.Remedy} {
			require.NotEmpty(t, text, r.Slug)
		}
		require.Positive(t, r.Weight)
		require.NotNil(t, r.Parameters)
		require.Same(t, r, smells.Named(r.Slug))
		for _, p := range r.Parameters {
			if p.Name != "share" {
				require.True(t, p.Sketch >= p.Growing && p.Growing >= p.InService, "%s is strictest in service", r.Slug)
			}
		}
	}
	require.Nil(t, smells.Named("none"))
}

// context makes a survey of n judged files in a few folders, without reading.
func context(n int, r *rand.Rand) *smells.Context {
	s := &model.Survey{}
	judged := map[string]bool{}
	for i := range n {
		f := &model.File{Path: fmt.Sprintf("d%d/f%03d.ts", i%4, i), Language: "TypeScript", Facts: &model.Facts{Lines: 1 + r.IntN(400)}}
		s.Files = append(s.Files, f)
		judged[f.Path] = r.IntN(10) > 0
	}
	slices.SortFunc(s.Files, func(a, b *model.File) int { return strings.Compare(a.Path, b.Path) })
	s.BuildIndex()
	return &smells.Context{Reading: reading.Of(s, judged, map[string]model.RoleOf{}), Stage: model.Growing}
}

func randomSmell(c *smells.Context, r *rand.Rand) model.Smell {
	rule := smells.Rules()[r.IntN(len(smells.Rules()))]
	sm := model.Smell{Rule: rule.Slug, Facet: rule.Facet, Strength: math.Round(r.Float64()*1e4) / 1e4}
	for range 1 + r.IntN(6) {
		sm.Touches = append(sm.Touches, c.Survey.Files[r.IntN(len(c.Survey.Files))].Path)
	}
	sm.Path = sm.Touches[0]
	return sm
}

func all(*model.File) bool { return true }

func figures(l model.Legibility) []float64 {
	var out []float64
	for _, p := range []*float64{l.Total, l.Layout, l.Boundaries, l.Units, l.Names} {
		if p == nil {
			out = append(out, -1)
		} else {
			out = append(out, *p)
		}
	}
	return out
}

func TestAScoreKeepsItsPromises(t *testing.T) {
	for seed := range uint64(60) {
		r := rand.New(rand.NewPCG(seed, 7))
		c := context(2+r.IntN(60), r)
		var found []model.Smell
		before := smells.Score(c, nil, all)
		for range 25 {
			found = append(found, randomSmell(c, r))
			now := smells.Score(c, found, all)
			for p, l := range now.ByFolder {
				for i, v := range figures(l) {
					if v < 0 {
						continue
					}
					require.True(t, v >= 0 && v <= 100, "between 0 and 100")
					require.LessOrEqual(t, v, figures(before.ByFolder[p])[i]+1e-9, "adding a smell never raises a score, removing one never lowers it")
				}
			}
			before = now
		}
		shuffled := slices.Clone(found)
		r.Shuffle(len(shuffled), func(i, j int) { shuffled[i], shuffled[j] = shuffled[j], shuffled[i] })
		require.Equal(t, before.ByFolder, smells.Score(c, shuffled, all).ByFolder, "the order does not matter")
		for i := range found {
			found[i].Silenced = "agreed"
		}
		require.Equal(t, smells.Score(c, nil, all).ByFolder["."], smells.Score(c, found, all).ByFolder["."], "silenced smells do not count")
	}
}

// TestWhatIsNoCodeChangesNoScore: a log of all changes, settings or texts may be longer
// than the code; the code is kept no better for it.
func TestWhatIsNoCodeChangesNoScore(t *testing.T) {
	code := many("desk/utils/%s.ts", words(6)...) + many("desk/%s.ts", "panel1", "panel2") + "-- desk/long.ts --\n" + strings.Repeat("call()\n", 700)
	long := func(line string) string { return strings.Repeat(line+"\n", 5000) }
	alone := judgement.Judge(testkit.Survey(t, code), model.Brief{}, nil).Legibility
	require.Less(t, *alone.Units, 99.0)
	for path, text := range map[string]string{
		"ChangeLog": long("* a seed was sown"), "desk/NOTES.md": long("Seeds are sown."), "desk/texts.tests": long("sown"), "settings.toml": long("a = 1"),
	} {
		with := judgement.Judge(testkit.Survey(t, code+"-- "+path+" --\n"+text), model.Brief{}, nil).Legibility
		require.Equal(t, *alone.Units, *with.Units, path)
		require.Equal(t, *alone.Layout, *with.Layout, path)
		require.Equal(t, *alone.Total, *with.Total, path)
	}
	styled := judgement.Judge(testkit.Survey(t, code+"-- desk/desk.css --\n"+long("a { margin: 0 }")), model.Brief{}, nil).Legibility
	require.Greater(t, *styled.Layout, *alone.Layout, "styles are code")
	none := judgement.Judge(testkit.Survey(t, "-- README.md --\n"+long("Seeds.")), model.Brief{}, nil).Legibility
	require.Nil(t, none.Total, "of prose alone nothing is scored")
}

func TestAFolderOfProgramsIsNoCatchAll(t *testing.T) {
	main := func(path string) string {
		return "-- " + path + " --\n#include \"opts.h\"\nint main(void) { return opts(); }\n"
	}
	shared := "-- src/tools/opts.c --\n#include \"opts.h\"\nint opts(void) { return 0; }\n-- src/tools/opts.h --\nint opts(void);\n"
	programs := main("src/tools/weigh.c") + main("src/tools/dry.c") + main("src/tools/sow.c")
	parts := strings.ReplaceAll(programs, "int main", "int part")
	require.Empty(t, of(judge(t, programs+shared), "catch-all-folder"))
	require.NotEmpty(t, of(judge(t, parts+shared), "catch-all-folder"))
}

func TestATreeBesideItsCopyScoresTheSame(t *testing.T) {
	one := many("a/utils/%s.ts", words(6)...) + many("a/%s.ts", "panel1", "panel2", "misc") + "-- a/long.ts --\n" + strings.Repeat("call()\n", 700)
	two := one + strings.ReplaceAll(one, "-- a/", "-- b/")
	// The copies themselves are set aside: they are what was asked for.
	apart := func(tree string) model.Legibility {
		s := testkit.Survey(t, tree)
		quiet := judgement.Silenced{}
		for _, sm := range judgement.Judge(s, model.Brief{}, nil).Smells {
			if sm.Rule == "near-twin" || sm.Rule == "same-type-name" {
				quiet[sm.ID] = model.Silence{Reason: "copies"}
			}
		}
		return judgement.Judge(s, model.Brief{}, quiet).Legibility
	}
	a, b := apart(one), apart(two)
	require.Equal(t, *a.Units, *b.Units)
	require.Equal(t, *a.Names, *b.Names)
}

func TestTheArithmeticAddsUpToTheScore(t *testing.T) {
	j := judgement.Judge(testkit.Survey(t, many("a/utils/%s.ts", words(6)...)+many("a/%s.ts", "panel1", "panel2")), model.Brief{}, nil)
	sum := map[model.Facet]float64{}
	var total, weights float64
	for _, s := range j.Strains {
		sum[s.Facet] += s.Strain
		require.InDelta(t, s.Weight*s.Touched/float64(s.JudgedLines), s.Strain, 1e-3)
		require.Positive(t, s.Hits)
	}
	for _, f := range model.Facets {
		require.InDelta(t, 100*math.Exp(-sum[f]), *j.Legibility.Facet(f), 1e-2)
		total += smells.FacetWeights[f] * sum[f]
		weights += smells.FacetWeights[f]
	}
	require.InDelta(t, 100*math.Exp(-total/weights), *j.Legibility.Total, 1e-2)
	require.InDelta(t, 1, weights, 1e-9)
}

func TestWhatIsNotKnownHasNoScore(t *testing.T) {
	j := judgement.Judge(testkit.Survey(t, "-- a.bin --\n\x00\x01\n"), model.Brief{}, nil)
	require.Nil(t, j.Legibility.Total)
	j = judgement.Judge(testkit.Survey(t, "-- a.f90 --\nprint 1\n-- b.f90 --\nprint 2\n"), model.Brief{}, nil)
	require.Nil(t, j.Legibility.Boundaries, "imports of this language are not read")
	require.NotNil(t, j.Legibility.Total)
	j = judgement.Judge(testkit.Survey(t, "-- a.ts --\nimport './x'\nimport './y'\nimport './b'\n-- b.ts --\n"), model.Brief{}, nil)
	require.Nil(t, j.Legibility.Boundaries, "two of three imports lead nowhere")
	bundle := "-- lib/all.js --\nrequire('./x')\nrequire('./y')\nrequire('./z')\n//# sourceMappingURL=all.js.map\n"
	j = judgement.Judge(testkit.Survey(t, bundle+"-- a.ts --\nimport './b'\n-- b.ts --\nexport const b = 1\n"), model.Brief{}, nil)
	require.NotNil(t, j.Legibility.Boundaries, "what a bundle takes in says nothing of those who keep it")
}

func TestFewLinesAmongOthersCodeAreNotScored(t *testing.T) {
	built := "-- dist/app.js --\n" + strings.Repeat("x(1)\n", 60_000) + "//# sourceMappingURL=app.js.map\n"
	few := judge(t, built+"-- src/lot.ts --\nexport const lot = 1\n")
	require.Nil(t, few.Legibility.Total, "one line of sixty thousand")
	require.NotNil(t, few.Legibility.JudgedShare)
	more := judge(t, built+"-- src/lot.ts --\n"+strings.Repeat("weigh(lot)\n", 700))
	require.NotNil(t, more.Legibility.Total)
	small := judge(t, "-- dist/app.js --\nx()\n//# sourceMappingURL=app.js.map\n-- src/lot.ts --\nexport const lot = 1\n")
	require.NotNil(t, small.Legibility.Total, "a small codebase of one's own is scored")
}

func TestTheBriefSetsWhatIsJudged(t *testing.T) {
	s := testkit.Survey(t, "-- a/x.ts --\nx()\n-- b/y.ts --\ny()\n-- b/fix/z.ts --\nz()\n")
	j := judgement.Judge(s, model.Brief{In: []string{"b/**"}, Out: []string{"**/fix/**"}}, nil)
	require.Equal(t, map[string]bool{"b/y.ts": true}, j.InScope)
	require.Equal(t, 1, j.Judged)
	require.NotEqual(t, judgement.Inputs{Brief: model.Brief{}}.Version(), judgement.Inputs{Brief: model.Brief{In: []string{"b/**"}}}.Version())
	require.Error(t, judgement.CheckBrief(model.Brief{Stage: "old"}))
	require.Error(t, judgement.CheckBrief(model.Brief{Stage: model.Sketch, Out: []string{"[a"}}))
	require.NoError(t, judgement.CheckBrief(model.Brief{Stage: model.InService, In: []string{"**/*.ts"}}))
}

func TestWhatWouldRaiseTheScoreComesTrue(t *testing.T) {
	for seed := range uint64(40) {
		r := rand.New(rand.NewPCG(seed, 11))
		c := context(2+r.IntN(60), r)
		var found []model.Smell
		for i := range 30 {
			sm := randomSmell(c, r)
			sm.ID = fmt.Sprint(i)
			found = append(found, sm)
		}
		before := smells.Score(c, found, all)
		last := math.Inf(1)
		for _, m := range smells.Raise(c, found, before, 10) {
			require.LessOrEqual(t, m.Gain, last, "the largest first")
			last = m.Gain
			left := slices.DeleteFunc(slices.Clone(found), func(sm model.Smell) bool { return sm.ID == m.Smells[0] })
			after := smells.Score(c, left, all)
			require.InDelta(t, m.Gain, *after.ByFolder["."].Total-*before.ByFolder["."].Total, 0.03, m.What)
		}
	}
}

// TestACommandMayReadWhatItWorksOn: only what answers requests skips the logic; a
// command beside it that reads its files does not.
func TestACommandMayReadWhatItWorksOn(t *testing.T) {
	var b strings.Builder
	b.WriteString("-- src/app.ts --\nimport express from 'express'\n")
	for _, n := range []string{"lots", "boxes", "growers", "shelves"} {
		fmt.Fprintf(&b, "import * as %[1]s from './handlers/%[1]s'\n", n)
	}
	b.WriteString("const app = express()\n")
	for _, n := range []string{"lots", "boxes", "growers", "shelves"} {
		fmt.Fprintf(&b, "app.get('/%[1]s', %[1]s.list)\n", n)
	}
	b.WriteString("app.listen(80)\n")
	for _, n := range []string{"lots", "boxes", "growers", "shelves"} {
		fmt.Fprintf(&b, "-- src/handlers/%[1]s.ts --\nimport { all } from '../logic/%[1]sService'\nexport function list(req, res) {\n  res.json(all())\n}\n", n)
		fmt.Fprintf(&b, "-- src/logic/%[1]sService.ts --\nimport { find } from '../data/%[1]sRepository'\nexport function all() {\n  return find().filter((x) => x.dry)\n}\n", n)
		fmt.Fprintf(&b, "-- src/data/%[1]sRepository.ts --\nexport function find() {\n  return db.query('SELECT * FROM %[1]s')\n}\n", n)
	}
	past := "import { find } from '../data/lotsRepository'\n"
	answers := "-- src/handlers/odd.ts --\n" + past + "export function odd(req, res) {\n  res.json(find())\n}\n"
	commands := "-- src/commands/count.ts --\n" + past + "import { Command } from 'commander'\nexport const count = new Command('count').action(() => console.log(find()))\n"
	routed := strings.Replace(b.String(), "app.listen", "import { odd } from './handlers/odd'\napp.get('/odd', odd)\napp.listen", 1)
	require.NotEmpty(t, of(judge(t, routed+answers), "layer-skipped"))
	require.Empty(t, of(judge(t, b.String()+commands), "layer-skipped"))
}
