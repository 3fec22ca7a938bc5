package judgement_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	_ "jantel/core/syntax/languages"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func TestABriefThatIsNoneIsSaid(t *testing.T) {
	ok := model.Brief{Stage: model.Growing, In: []string{"desk/**"}, Out: []string{"**/fixtures/*"}}
	require.NoError(t, judgement.CheckBrief(ok))
	require.ErrorContains(t, judgement.CheckBrief(model.Brief{Stage: "finished"}), `"finished"`)
	require.ErrorContains(t, judgement.CheckBrief(model.Brief{Stage: model.Sketch, Out: []string{"[a"}}), `"[a"`)
}

func TestTheVersionFollowsWhateverJudgementDependsOn(t *testing.T) {
	v := judgement.Inputs{Brief: model.Brief{Stage: model.Growing}}.Version()
	require.Equal(t, v, judgement.Inputs{Brief: model.Brief{Stage: model.Growing}}.Version())
	require.NotEqual(t, v, judgement.Inputs{Brief: model.Brief{Stage: model.InService}}.Version())
	require.NotEqual(t, v, judgement.Inputs{Brief: model.Brief{Stage: model.Growing, Out: []string{"x"}}}.Version())
	require.NotEqual(t, v, judgement.Inputs{Brief: model.Brief{Stage: model.Growing}, Quiet: judgement.Silenced{"ab": {Reason: "why"}}}.Version())
}

const tree = `
-- desk/pack1.ts --
export const one = 1
-- desk/pack2.ts --
export const two = 2
-- bench/run.py --
x = 1
`

func TestScopeSetsWhatIsJudged(t *testing.T) {
	s := testkit.Survey(t, tree)
	for name, c := range map[string]struct {
		brief model.Brief
		want  []string
	}{
		"everything":         {model.Brief{}, []string{"bench/run.py", "desk/pack1.ts", "desk/pack2.ts"}},
		"what is let in":     {model.Brief{In: []string{"desk/**"}}, []string{"desk/pack1.ts", "desk/pack2.ts"}},
		"without what isn't": {model.Brief{Out: []string{"**/*1.ts", "bench"}}, []string{"bench/run.py", "desk/pack2.ts"}},
		"out wins over in":   {model.Brief{In: []string{"desk/**"}, Out: []string{"desk/**"}}, nil},
	} {
		t.Run(name, func(t *testing.T) {
			j := judgement.Judge(s, c.brief, nil)
			var got []string
			for _, f := range s.Files {
				if j.InScope[f.Path] {
					got = append(got, f.Path)
				}
			}
			require.Equal(t, c.want, got)
		})
	}
}

func TestSilencedSmellsAreListedAndDoNotCount(t *testing.T) {
	s := testkit.Survey(t, tree)
	loud := judgement.Judge(s, model.Brief{}, nil)
	require.NotEmpty(t, loud.Smells)
	quiet := judgement.Silenced{}
	for _, sm := range loud.Smells {
		quiet[sm.ID] = model.Silence{Reason: "they are two sizes of one box"}
	}
	j := judgement.Judge(s, model.Brief{}, quiet)
	require.Len(t, j.Smells, len(loud.Smells))
	for _, sm := range j.Smells {
		require.NotEmpty(t, sm.Silenced)
	}
	require.Greater(t, *j.Legibility.Names, *loud.Legibility.Names)
	require.Equal(t, 100.0, *j.Legibility.Names)
	require.Zero(t, j.Folder(".").Smells)
	require.Positive(t, loud.Folder("desk").Smells)
}

func TestAFolderCountsTheSmellsBelowIt(t *testing.T) {
	j := judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil)
	below := 0
	for _, sm := range j.Smells {
		if model.Within("desk", sm.Path) {
			below++
		}
	}
	require.Positive(t, below)
	require.Equal(t, below, j.Folder("desk").Smells)
	require.Equal(t, len(j.Smells), j.Folder(".").Smells)
	require.Nil(t, j.Folder("nowhere"))
}

func TestJudgingTwiceGivesTheSame(t *testing.T) {
	s := testkit.Survey(t, tree)
	a, b := judgement.Judge(s, model.Brief{}, nil), judgement.Judge(s, model.Brief{}, nil)
	require.Equal(t, a.Smells, b.Smells)
	require.Equal(t, a.Patterns, b.Patterns)
	require.Equal(t, a.Legibility, b.Legibility)
	require.Equal(t, a.Folders, b.Folders)
}

func TestTheChartersThresholdsHoldInsteadOfTheRules(t *testing.T) {
	tree := "-- src/a.go --\npackage src\n" + strings.Repeat("func dry() {\n\tprintln()\n}\n", 200)
	hits := func(charter string) (n int, faults []string) {
		s := testkit.Survey(t, tree)
		j := judgement.JudgeBy(s, judgement.Inputs{Charter: charter})
		for _, sm := range j.Smells {
			if sm.Rule == "long-file" {
				n++
			}
		}
		for _, f := range j.Faults {
			faults = append(faults, f.Error())
		}
		return n, faults
	}
	const layers = "layers:\n  - name: all\n    holds: [src]\nthresholds:\n"
	n, faults := hits(layers + "  long-file: 5000\n")
	require.Zero(t, n)
	require.Empty(t, faults)
	n, _ = hits(layers + "  long-file.code lines: 50\n")
	require.Equal(t, 1, n)
	for text, want := range map[string]string{
		"  no-rule: 3\n":          `line 5: there is no threshold "no-rule"`,
		"  long-file.weight: 3\n": `line 5: there is no threshold "long-file.weight"`,
		"  long-file: -1\n":       `line 5: the threshold "long-file" is below zero`,
	} {
		n, faults = hits(layers + text)
		require.Len(t, faults, 1)
		require.Contains(t, faults[0], want)
		none, _ := hits("")
		require.Equal(t, none, n, "a charter with a fault changes nothing")
	}
}

// TestAHostileCharterIsSaidAndTheSurveyGoesOn: whatever lies where a charter is
// looked for, with its line, and the rest is judged as if there were none.
func TestAHostileCharterIsSaidAndTheSurveyGoesOn(t *testing.T) {
	bomb := "a0: &a0 [x, x, x]\n"
	for i := range 9 {
		bomb += fmt.Sprintf("a%d: &a%d [*a%d, *a%d, *a%d]\n", i+1, i+1, i, i, i)
	}
	for name, c := range map[string]struct {
		text string
		line int
		want string
	}{
		"aliases that explode":      {bomb, 1, "aliases"},
		"ten megabytes in a line":   {strings.Repeat("a", 10_000_000), 1, "bytes"},
		"ten megabytes in lines":    {strings.Repeat("- name: aaaaaaaaa\n", 600_000), 1, "bytes"},
		"a key nobody knows":        {"layers:\n  - name: a\n    holds: [src]\ncolour: red\n", 4, "colour"},
		"no YAML at all":            {"layers: [\n", 1, ""},
		"a threshold nobody knows":  {"layers:\n  - name: a\n    holds: [src]\nthresholds:\n  colour: 3\n", 5, "colour"},
		"bytes that are no text":    {"layers:\x00\x01\x02\n", 1, ""},
		"a list as deep as it goes": {"layers: " + strings.Repeat("[", 5000) + "\n", 1, ""},
	} {
		t.Run(name, func(t *testing.T) {
			r := judgement.Judge(testkit.Survey(t, "-- src/a.ts --\nexport const a = 1\n-- jantel.yaml --\n"+c.text), model.Brief{}, nil)
			require.NotEmpty(t, r.Faults)
			require.Equal(t, c.line, r.Faults[0].Line, r.Faults[0].Text)
			require.Contains(t, r.Faults[0].Text, c.want)
			require.Nil(t, r.Charter)
			require.True(t, r.InScope["src/a.ts"], "the rest is judged")
			require.NotNil(t, r.Legibility.Total)
		})
	}
	require.Empty(t, judgement.Judge(testkit.Survey(t, "-- jantel.yaml --\n"), model.Brief{}, nil).Faults, "an empty file is no charter")
}

func TestARuleThatRestsIsListedAndDoesNotCount(t *testing.T) {
	s := testkit.Survey(t, "-- desk/panel1.ts --\nexport const a = 1\n-- desk/panel2.ts --\nexport const b = 2\n")
	numbered := func(j *judgement.Result) (counted, silenced int) {
		for _, sm := range j.Smells {
			if sm.Rule == "numbered-name" && sm.Silenced == "" {
				counted++
			} else if sm.Rule == "numbered-name" {
				require.Equal(t, "the rule rests: they are numbered on the wall", sm.Silenced)
				silenced++
			}
		}
		return counted, silenced
	}
	before := judgement.JudgeBy(s, judgement.Inputs{})
	n, _ := numbered(before)
	require.Positive(t, n)
	by := []model.Overrule{{Kind: model.OverruleRule, Target: "numbered-name", Value: "they are numbered on the wall"}}
	after := judgement.JudgeBy(s, judgement.Inputs{Overrules: by})
	counted, silenced := numbered(after)
	require.Zero(t, counted)
	require.Equal(t, n, silenced)
	require.Greater(t, *after.Legibility.Names, *before.Legibility.Names)
	require.NotEmpty(t, before.Raise)
}
