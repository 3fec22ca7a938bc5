package judgement

import (
	"slices"
	"testing"

	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

const vault = `
-- go.mod --
module vault
-- main.go --
package main

import "vault/lots"

func main() { lots.Weigh() }
-- lots/lots.go --
package lots

func Weigh() {}
`

// breaking is the judges with one that panics in the place of name.
func breaking(name string) []judge {
	all := slices.Clone(judges)
	for i := range all {
		if all[i].name == name {
			all[i].run = func(*work) { panic("the scale is stuck") }
		}
	}
	return all
}

func TestAJudgeThatBreaksCostsItselfAndWhatNeedsIt(t *testing.T) {
	s := testkit.Survey(t, vault)
	for _, j := range judges {
		t.Run(j.name, func(t *testing.T) {
			res := judgeWith(s, Inputs{}, breaking(j.name))
			lost := map[string]bool{j.name: true}
			for range judges { // what needs it, what needs that, …
				for _, k := range judges {
					for _, n := range k.needs {
						if lost[n] {
							lost[k.name] = true
						}
					}
				}
			}
			require.Len(t, res.Notes, len(lost))
			said := ""
			for _, n := range res.Notes {
				said += n.Text + "\n"
			}
			require.Contains(t, said, "the "+j.name+" could not be told: it broke off: the scale is stuck (judgement/judges_test.go:")
			if !lost["roles"] {
				require.Equal(t, model.RoleEntry, res.Roles["main.go"].Role)
			}
			if lost["legibility"] {
				require.Nil(t, res.Legibility.Total, "unknown, not perfect")
			}
			require.NotNil(t, res.Folder("."))
		})
	}
}

func TestEveryJudgeIsTimedAndNeedsWhatThereIs(t *testing.T) {
	res := JudgeBy(testkit.Survey(t, vault), Inputs{})
	require.Empty(t, res.Notes)
	names := map[string]bool{}
	for _, j := range judges {
		for _, n := range j.needs {
			require.True(t, names[n], "%s needs %s, which stands before it", j.name, n)
		}
		require.False(t, names[j.name], "named twice")
		names[j.name] = true
		require.Contains(t, res.Timings, "judge: "+j.name)
	}
}
