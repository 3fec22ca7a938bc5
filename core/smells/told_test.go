package smells_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/smells"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// madeUp is a tree of sheds and kilns with long functions, long files, numbered
// names and functions that take much, drawn by a seed.
func madeUp(seed uint64) string {
	r := rand.New(rand.NewPCG(seed, 7))
	var b strings.Builder
	for folder := range 2 + r.IntN(4) {
		for file := range 1 + r.IntN(14) {
			fmt.Fprintf(&b, "-- yard%d/shed%d.ts --\n", folder, file)
			for f := range r.IntN(4) {
				takes := strings.Repeat("x: number, ", r.IntN(9))
				lines := []int{3, 20, 85, 130, 520}[r.IntN(5)]
				fmt.Fprintf(&b, "export function dry%d%d%d(%s) {\n%s}\n", folder, file, f, takes, strings.Repeat("  weigh(x)\n", lines))
			}
		}
	}
	return b.String()
}

func TestEveryHitIsToldOnceAndNowhereLost(t *testing.T) {
	for seed := range uint64(12) {
		j := judge(t, madeUp(seed))
		told := map[string]*model.Smell{}
		count := 0
		for i := range j.Smells {
			sm := &j.Smells[i]
			require.Nil(t, told[sm.ID], "seed %d: %s is told twice", seed, sm.Message)
			told[sm.ID] = sm
			count += sm.Count
			require.NotEmpty(t, sm.Places)
			require.NotEmpty(t, sm.Evidence)
			require.True(t, sm.Strength > 0 && sm.Strength < 1, "%s: %v", sm.Rule, sm.Strength)
		}
		require.Equal(t, len(j.Hits), count, "seed %d: the counts add up to the hits", seed)
		for i := range j.Hits {
			switch hit := &j.Hits[i]; {
			case hit.ToldBy == "":
				require.NotNil(t, told[hit.ID], "seed %d: %s is told by nobody", seed, hit.Message)
			default:
				by := told[hit.ToldBy]
				require.NotNil(t, by, "seed %d: what tells of %s is not told", seed, hit.Message)
				require.Equal(t, by.Habit || by.Rule == "twin-folders" && by.Path != hit.Path, hit.ToldAt != "")
				require.Contains(t, by.Places, hit.Path)
			}
		}
		for _, d := range j.Folders {
			require.Len(t, j.SmellsAt(d.Path), d.Smells, "seed %d: the number at %s opens what it counts", seed, d.Path)
		}
		// In each file its hits are seen, those of habits above it as well.
		for _, f := range j.Reading.Files {
			at := map[string]bool{}
			for _, sm := range j.SmellsAt(f.Path) {
				at[sm.ID] = true
			}
			for i := range j.Hits {
				if hit := &j.Hits[i]; hit.Path == f.Path {
					by := told[hit.ToldBy]
					require.True(t, at[hit.ID] || by != nil && at[by.ID], "seed %d: %s is not seen in %s", seed, hit.Message, f.Path)
				}
			}
		}
	}
}

func TestTheSameTreeIsToldTheSameWay(t *testing.T) {
	for seed := range uint64(4) {
		one, other := judge(t, madeUp(seed)), judge(t, madeUp(seed))
		require.Equal(t, one.Smells, other.Smells)
		require.Equal(t, one.Hits, other.Hits)
	}
}

func TestDefinitionsOfOneNameAreHitsOfTheirOwn(t *testing.T) {
	takes := func(n int) string {
		return "  Shelf(" + strings.TrimSuffix(strings.Repeat("int row, ", n), ", ") + ") {}\n"
	}
	s := testkit.Survey(t, "-- vault/Shelf.java --\nclass Shelf {\n"+takes(8)+takes(9)+takes(10)+"}\n")
	j := judgement.Judge(s, model.Brief{}, nil)
	ids := map[string]bool{}
	for _, sm := range j.Hits {
		require.False(t, ids[sm.ID], "%s has the id of another", sm.Message)
		ids[sm.ID] = true
	}
	many := 0
	for _, sm := range j.Hits {
		if sm.Rule == "many-parameters" {
			many++
		}
	}
	require.Equal(t, 3, many)
	quiet := judgement.Judge(s, model.Brief{}, judgement.Silenced{j.Hits[0].ID: {Reason: "the first"}})
	silenced := 0
	for _, sm := range quiet.Hits {
		if sm.Silenced != "" {
			silenced++
		}
	}
	require.Equal(t, 1, silenced, "one is dismissed, the others stay")
}

func TestAFunctionThatGivesAListIsNoLongOne(t *testing.T) {
	rows := strings.Repeat("    'alder' => 12,\n", 300)
	tree := "-- lib/Vault/Weights.pm --\npackage Vault::Weights;\nsub data {\n  return {\n" + rows + "  };\n}\nsub one { return weigh(1); }\n1;\n"
	does := "-- lib/Vault/Dry.pm --\npackage Vault::Dry;\nsub plan {\n" + strings.Repeat("  dry($_[0]);\n", 300) + "}\nsub one { return weigh(1); }\n1;\n"
	require.Empty(t, of(judge(t, tree), "long-function"))
	require.NotEmpty(t, of(judge(t, does), "long-function"))
}

func TestAPrefixThatTheFoldersAroundHaveHidesNone(t *testing.T) {
	names := []string{"lot", "box", "shelf", "seed", "tray", "room", "key", "door", "lamp"}
	files := func(folder, prefix string) string {
		out := "-- " + folder + "/other.c --\nint other;\n-- " + folder + "/more.c --\nint more;\n-- " + folder + "/last.c --\nint last;\n"
		for _, n := range names {
			out += "-- " + folder + "/" + prefix + n + ".c --\nint " + n + ";\n"
		}
		return out
	}
	require.Empty(t, of(judge(t, files("src/keep/vault/ward", "keep_vault_")+"-- src/a.c --\nint a;\n"), "hidden-by-prefix"))
	require.NotEmpty(t, of(judge(t, files("src/desk/ward", "keep_vault_")+"-- src/a.c --\nint a;\n"), "hidden-by-prefix"))
}

func TestANameMaySayItsPlaceWhereThereAreNoNamespaces(t *testing.T) {
	takes := "int keep_vault_shelf_get_ignore_old_free_space(void) { return 1; }\n"
	require.Empty(t, of(judge(t, "-- src/keep-vault-shelf.c --\n"+takes), "overlong-name"))
	require.NotEmpty(t, of(judge(t, "-- src/desk.c --\n"+takes), "overlong-name"))
}

func TestRulesThatAreAskedFirstDoWithoutFeaturesAndCut(t *testing.T) {
	for seed := range uint64(20) {
		r := rand.New(rand.NewPCG(seed, 3))
		c := context(2+int(seed)*5, r)
		without, said := smells.Begin(c)
		one := model.Feature{Name: "lots"}
		c.FeatureOf = map[string]model.FeatureOf{}
		for _, f := range c.Survey.Files {
			if r.IntN(2) == 0 {
				one.Files = append(one.Files, f.Path)
				c.FeatureOf[f.Path] = model.FeatureOf{Feature: one.Name}
			}
		}
		v := -1.0
		c.Features, c.Cut = []model.Feature{one}, model.Cut{Value: &v, Label: model.CutByKind, Depth: 1}
		with, told := smells.Begin(c)
		require.Equal(t, without, with)
		require.Equal(t, said, told)
		all, _ := smells.End(c, with, told)
		require.NotNil(t, all, "none is none, not unknown")
		require.GreaterOrEqual(t, len(all), len(with))
	}
}
