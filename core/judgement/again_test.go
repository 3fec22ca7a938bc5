package judgement_test

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// shelves is a tree with a habit, single hits of several families and a fault
// that two rules see.
func shelves() string {
	var b strings.Builder
	for i := range 8 {
		fmt.Fprintf(&b, "-- vault/box%d.go --\npackage vault\n\nfunc Box%d(a, b, c, d, e, f, g, h int) int {\n", i, i)
		for n := range 3 {
			fmt.Fprintf(&b, "%sif a > %d {\n", strings.Repeat("\t", n+1), n)
		}
		b.WriteString("\t\t\t\treturn a\n\t\t\t}\n\t\t}\n\t}\n\treturn b\n}\n")
	}
	b.WriteString("-- bench/utils/misc.go --\npackage utils\n\nimport \"vault/vault\"\n\nfunc Misc() int { return vault.Box1(1, 2, 3, 4, 5, 6, 7, 8) }\n")
	b.WriteString("-- bench/utils/long.go --\npackage utils\n" + strings.Repeat("\nfunc dry() {\n\tprintln()\n}\n", 180))
	b.WriteString("-- go.mod --\nmodule vault\n")
	return b.String()
}

// told is all that a reader can see of a judgement.
func told(r *judgement.Result) any {
	scores := map[string]any{}
	for _, f := range r.Folders {
		scores[f.Path] = []any{*f, r.Scores.Arithmetic(f.Path)}
	}
	return []any{r.Version, r.Smells, r.Hits, r.Notes, r.Legibility, r.Strains, r.Raise, scores, r.Said, r.Roles, r.Patterns, r.Modules}
}

func TestJudgedAgainIsAsJudgedFromTheStart(t *testing.T) {
	s := testkit.Survey(t, shelves())
	draw := rand.New(rand.NewPCG(20261301, 1))
	var kept *judgement.Result
	in := judgement.Inputs{Quiet: judgement.Silenced{}}
	first := judgement.JudgeBy(s, in)
	require.Greater(t, len(first.Hits), 10)
	require.Less(t, len(first.Smells), len(first.Hits), "some speak for others")
	changes := []func(){
		func() { // dismissed, or counting again: a hit, or what tells of several
			all := first.Hits
			if draw.IntN(2) == 0 {
				all = first.Smells
			}
			id := all[draw.IntN(len(all))].ID
			in.Quiet = maps.Clone(in.Quiet)
			if _, is := in.Quiet[id]; is {
				delete(in.Quiet, id)
			} else {
				in.Quiet[id] = model.Silence{Reason: "they are boxes"}
			}
		},
		func() {
			rule := first.Hits[draw.IntN(len(first.Hits))].Rule
			in.Overrules = append([]model.Overrule{{Kind: model.OverruleRule, Target: rule, Value: "not here"}}, in.Overrules...)
		},
		func() {
			in.Overrules = append([]model.Overrule{{Kind: model.OverruleRule, Target: "no-rule", Value: "x"}}, in.Overrules...)
		},
		func() { in.Overrules = nil },
		func() {
			in.Overrules = []model.Overrule{{Kind: model.OverruleRole, Target: "vault/box1.go", Value: "model"}}
		},
		func() { in.Brief.Stage = model.InService },
		func() { in.Brief.Out = []string{"bench/**"} },
		func() { in.Brief = model.Brief{} },
		func() { in.Charter = "thresholds:\n  long-file: 5000\n" },
		func() { in.Charter = "" },
	}
	for i := range 120 {
		change := 0 // mostly what is dismissed
		if draw.IntN(3) == 0 {
			change = draw.IntN(len(changes))
		}
		changes[change]()
		before := kept
		var was string
		if before != nil {
			was = fmt.Sprintf("%+v", told(before))
		}
		kept = kept.Again(s, in)
		require.Equal(t, told(judgement.JudgeBy(s, in)), told(kept), "step %d, change %d", i, change)
		if before != nil {
			require.Equal(t, was, fmt.Sprintf("%+v", told(before)), "what was judged before stays as it is")
		}
	}
}

// TestWhatIsDismissedAsksNoOtherJudge: a click at the desk waits for what counts
// alone, however large the codebase is.
func TestWhatIsDismissedAsksNoOtherJudge(t *testing.T) {
	s := testkit.Survey(t, shelves())
	first := judgement.JudgeBy(s, judgement.Inputs{})
	quiet := judgement.Silenced{first.Smells[0].ID: {Reason: "it is meant"}}
	asked := func(r *judgement.Result) (n int) { return len(r.Timings) }
	require.Equal(t, 2, asked(first.Again(s, judgement.Inputs{Quiet: quiet})))
	require.Greater(t, asked(first.Again(s, judgement.Inputs{Brief: model.Brief{Stage: model.Sketch}})), 10)
	require.Greater(t, asked(first.Again(testkit.Survey(t, shelves()), judgement.Inputs{})), 10, "another survey")
}
