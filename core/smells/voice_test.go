package smells_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/smells"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// long is a function of so many lines, with a name that says something.
func long(name string, lines int) string {
	return "export function " + name + "(seed: number) {\n" + strings.Repeat("  weigh(seed)\n", lines) + "}\n"
}

// sheds are files with one long function each.
func sheds(folder string, files int) string {
	var b strings.Builder
	for i := range files {
		fmt.Fprintf(&b, "-- %s/shed%c.ts --\n%s", folder, 'a'+i, long(fmt.Sprintf("dryIn%c", 'A'+i), 90+i))
	}
	return b.String()
}

func of(j *judgement.Result, rule string) (out []model.Smell) {
	for _, sm := range j.Smells {
		if sm.Rule == rule {
			out = append(out, sm)
		}
	}
	return out
}

func judge(t *testing.T, tree string) *judgement.Result {
	return judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil)
}

func TestTheSameSmallThingAllOverAFolderIsToldOnce(t *testing.T) {
	j := judge(t, sheds("drying", 9)+"-- vault/lots.ts --\nexport const lots = 1\n-- vault/boxes.ts --\nexport const boxes = 2\n")
	told := of(j, "long-function")
	require.Len(t, told, 1)
	h := told[0]
	require.Equal(t, "drying", h.Path)
	require.True(t, h.Habit)
	require.Equal(t, 9, h.Count)
	require.Len(t, h.Places, 9)
	require.Equal(t, "Long function is a habit here: nine of nine files", wordy(h.Message))
	require.Equal(t, "drying/shedi.ts", h.Evidence[0].Path, "the strongest first")
	require.Len(t, j.SmellsAt("drying"), len(of(j, "long-function"))+len(j.SmellsAt("drying"))-1)
	require.Equal(t, "dryInA", *one(t, j.SmellsAt("drying/sheda.ts"), "long-function").Name, "in the file the hit itself is told")
	require.Empty(t, only(j.SmellsAt("vault"), "long-function"))
}

func TestTheSameNameOverAndOverInOneFileIsToldOnce(t *testing.T) {
	tree := "-- vault/boxes.ts --\n"
	for _, w := range strings.Fields("open close lift weigh dry label") {
		tree += fmt.Sprintf("export function %[1]s(a: number) { return a }\nexport function %[1]s2(a: number, b: number) { return a + b }\n", w)
	}
	for i := range 8 {
		tree += fmt.Sprintf("-- vault/lot%c.ts --\nexport const lot%c = 1\n", 'a'+i, 'A'+i)
	}
	j := judge(t, tree+"-- vault/shelf.ts --\nexport function fill() { return 1 }\nexport function fill2() { return 2 }\n")
	told := of(j, "numbered-name")
	require.Len(t, told, 2)
	require.Equal(t, "vault/boxes.ts", told[0].Path)
	require.Equal(t, "Numbered name is a habit of this file: six times", strings.ReplaceAll(told[0].Message, "6", "six"))
	require.Equal(t, "fill2", *told[1].Name, "one alone is told as it is")
	require.Len(t, only(j.SmellsAt("vault/boxes.ts"), "numbered-name"), 6, "in the file each stands at its line")
	require.Len(t, only(j.SmellsAt("vault"), "numbered-name"), 2)
}

// wordy writes the figures of a message as words.
func wordy(s string) string { return strings.ReplaceAll(s, "9", "nine") }

func only(all []*model.Smell, rule string) (out []*model.Smell) {
	for _, sm := range all {
		if sm.Rule == rule {
			out = append(out, sm)
		}
	}
	return out
}

func one(t *testing.T, all []*model.Smell, rule string) *model.Smell {
	out := only(all, rule)
	require.Len(t, out, 1)
	return out[0]
}

func TestFewOfAThingAreNoHabit(t *testing.T) {
	require.Len(t, of(judge(t, sheds("drying", 5)), "long-function"), 5)
	// Eight of forty files are a fifth of them.
	var rest strings.Builder
	for i := range 32 {
		fmt.Fprintf(&rest, "-- drying/box%02d.ts --\nexport const box%02d = %d\n", i, i, i)
	}
	require.Len(t, of(judge(t, sheds("drying", 8)+rest.String()), "long-function"), 8)
}

func TestWhatStandsOutOfAHabitIsToldByItself(t *testing.T) {
	told := of(judge(t, sheds("drying", 9)+"-- drying/kiln.ts --\n"+long("fireTheKiln", 480)), "long-function")
	require.Len(t, told, 2)
	require.True(t, told[0].Habit)
	require.Equal(t, "drying/kiln.ts", told[1].Path)
}

func TestOnlyTheFewStrongestStandOut(t *testing.T) {
	tree := sheds("drying", 9)
	for i := range 6 {
		tree += fmt.Sprintf("-- drying/kiln%c.ts --\n%s", 'a'+i, long(fmt.Sprintf("fire%c", 'A'+i), 460+i))
	}
	told := of(judge(t, tree), "long-function")
	require.Len(t, told, 4)
	require.Equal(t, 12, told[0].Count)
}

func TestAHabitThatIsSilencedTakesItsHitsWithIt(t *testing.T) {
	s := testkit.Survey(t, sheds("drying", 9))
	loud := judgement.Judge(s, model.Brief{}, nil)
	h := of(loud, "long-function")[0]
	quiet := judgement.JudgeBy(s, judgement.Inputs{Quiet: judgement.Silenced{h.ID: {Reason: "drying is like that"}}})
	require.Equal(t, "drying is like that", of(quiet, "long-function")[0].Silenced)
	require.Greater(t, *quiet.Legibility.Units, *loud.Legibility.Units)
	require.Equal(t, loud.Folder("drying").Smells-1, quiet.Folder("drying").Smells)
}

func TestAtOnePlaceAFamilySpeaksThroughItsMostTellingRule(t *testing.T) {
	tree := "-- drying/shed.ts --\n" + long("fireTheKiln", 560) + "export function fan(a: 1, b: 1, c: 1, d: 1, e: 1, f: 1, g: 1) {\n  weigh(a)\n}\n"
	j := judge(t, tree)
	size := 0
	for _, sm := range j.Smells {
		switch sm.Rule {
		case "long-file", "long-function", "many-parameters":
			size++
			require.Equal(t, 3, sm.Count)
			require.Contains(t, fmt.Sprint(sm.Evidence), "takes")
		}
	}
	require.Equal(t, 1, size)
	hits := map[string]bool{}
	for _, sm := range j.Hits {
		hits[sm.Rule] = true
	}
	require.True(t, hits["long-file"] && hits["long-function"] && hits["many-parameters"], "each still weighs on the score")
}

func TestWhoeverSpeaksIsSilencedTheNextSpeaks(t *testing.T) {
	s := testkit.Survey(t, "-- drying/shed.ts --\n"+long("fireTheKiln", 560))
	speaks := func(j *judgement.Result) (out []string) {
		for _, sm := range j.Smells {
			if (sm.Rule == "long-file" || sm.Rule == "long-function") && sm.Silenced == "" {
				out = append(out, sm.Rule)
			}
		}
		return out
	}
	first := judgement.Judge(s, model.Brief{}, nil)
	require.Len(t, speaks(first), 1)
	quiet := judgement.Silenced{of(first, speaks(first)[0])[0].ID: {Reason: "it is read top down"}}
	next := judgement.JudgeBy(s, judgement.Inputs{Quiet: quiet})
	require.Len(t, speaks(next), 1)
	require.NotEqual(t, speaks(first), speaks(next))
	require.Len(t, of(next, speaks(first)[0]), 1, "what is silenced is listed")
}

func TestStrengthIsWhereAHitLiesAmongThoseOfOtherCodebases(t *testing.T) {
	before := 0.0
	for _, lines := range []int{85, 120, 200, 400, 900, 4000} {
		sm := of(judge(t, "-- drying/shed.go --\npackage drying\n\nfunc Fire(seed int) {\n"+strings.Repeat("\tweigh(seed)\n", lines)+"}\n"), "long-function")
		strength := 0.0
		if len(sm) > 0 {
			strength = sm[0].Strength
		} else { // the file is so long that it speaks for it
			for _, h := range judge(t, "-- drying/shed.go --\npackage drying\n\nfunc Fire(seed int) {\n"+strings.Repeat("\tweigh(seed)\n", lines)+"}\n").Hits {
				if h.Rule == "long-function" {
					strength = h.Strength
				}
			}
		}
		require.Greater(t, strength, before, "%d lines", lines)
		require.Less(t, strength, 1.0, "there may always be a longer one")
		before = strength
	}
}

func TestWhereAScoreLiesAmongOthersIsCounted(t *testing.T) {
	low, all := smells.Lies(0)
	require.Zero(t, low)
	require.GreaterOrEqual(t, all, 25)
	high, _ := smells.Lies(100)
	require.Equal(t, all, high)
}

func TestALineIsToldOnceInTheEvidence(t *testing.T) {
	body := strings.Repeat("\tx = step(x)\n", 120)
	var b strings.Builder
	b.WriteString("-- go.mod --\nmodule vault\n-- lots.go --\npackage vault\n\n")
	for i := range 6 {
		fmt.Fprintf(&b, "func weigh%c(x int) int {\n%s\treturn x\n}\n\n", 'A'+rune(i), body)
	}
	j := judgement.Judge(testkit.Survey(t, b.String()), model.Brief{}, nil)
	seen := false
	for _, sm := range j.Smells {
		lines := map[int]int{}
		for _, e := range sm.Evidence {
			if e.Line > 0 {
				lines[e.Line]++
				require.Equal(t, 1, lines[e.Line], "%s tells line %d twice", sm.Rule, e.Line)
			}
		}
		seen = seen || sm.Rule == "long-file" && sm.Count > 3
	}
	require.True(t, seen, "the file speaks for its functions")
}

func TestWhatShowsTheRestStandsBehindIt(t *testing.T) {
	told := of(judge(t, "-- src/kiln.ts --\n"+long("fire", 200)+"-- examples/kiln.ts --\n"+long("show", 200)), "long-function")
	require.Len(t, told, 2)
	require.Equal(t, "examples/kiln.ts", told[0].Path)
	require.InDelta(t, told[0].Strength, told[1].Strength, 0.001, "as strong")
	require.InDelta(t, 0.4, told[0].Rank/told[1].Rank, 0.01, "and less of a matter")
}

// copies are folders with the same files, of which each has a function longer than
// it should be.
func copies(places ...string) string {
	var b strings.Builder
	for _, d := range places {
		loop := "if"
		if strings.HasSuffix(d, "trays") { // another shape
			loop = "for (;;) while"
		}
		for i, name := range []string{"drying", "sieving", "weighing", "storing", "sowing"} {
			fmt.Fprintf(&b, "-- %s/%s.ts --\nexport function %s(seed: number) {\n", d, name, name)
			for n := range 90 {
				fmt.Fprintf(&b, "  %s (seed > %d) %s%d(seed, %d)\n", loop, n, name, n%(i+3), n*i)
			}
			b.WriteString("}\n")
		}
	}
	return b.String()
}

func TestFoldersThatAreTwinsInARowAreOneSmell(t *testing.T) {
	other := "-- vault/lots.ts --\nexport const lots = 1\n"
	two := judge(t, copies("desk", "bench")+other)
	told := of(two, "twin-folders")
	require.Len(t, told, 1)
	require.Equal(t, "bench", told[0].Path)
	require.Equal(t, "Five of its files have a twin in desk", told[0].Message)
	require.Equal(t, model.Evidence{Path: "bench/drying.ts", Note: "like desk/drying.ts"}, told[0].Evidence[0])
	require.Empty(t, of(two, "near-twin"), "who mends the folders mends the files")
	for _, sm := range two.Smells {
		require.NotContains(t, sm.Path, "desk", "what is said of the copy stands with the first of them: %s", sm.Message)
	}
	require.NotEmpty(t, of(two, "long-function"))

	three := of(judge(t, copies("desk", "bench", "counter")+other), "twin-folders")
	require.Len(t, three, 1)
	require.Equal(t, "Three folders hold nearly the same files: up to five have a twin in another", wordy(three[0].Message))
	require.Len(t, three[0].Evidence, 3)
}

func TestTheWholeOfTwoFoldersIsToldAndNotEachPlaceInThem(t *testing.T) {
	places := []string{"v1/desk", "v1/bench/trays", "v2/desk", "v2/bench/trays"}
	told := of(judge(t, copies(places...)+"-- vault/lots.ts --\nexport const lots = 1\n"), "twin-folders")
	require.Len(t, told, 1)
	require.Equal(t, "v1", told[0].Path)
	require.Contains(t, told[0].Message, "v2")
	// Where most of one of them is nowhere else, the folders within are told.
	extra := ""
	for i := range 20 {
		extra += fmt.Sprintf("-- v1/own%c/a.ts --\nexport const own%c = %d\n", 'a'+i, 'A'+i, i)
	}
	for _, sm := range of(judge(t, copies(places...)+extra), "twin-folders") {
		require.NotEqual(t, "v1", sm.Path)
	}
}

func TestWhatIsSaidOfACopyIsSaidAgainWhenTheTwinsAreDismissed(t *testing.T) {
	s := testkit.Survey(t, copies("desk", "bench")+"-- vault/lots.ts --\nexport const lots = 1\n")
	loud := judgement.Judge(s, model.Brief{}, nil)
	twins := of(loud, "twin-folders")[0]
	quiet := judgement.Judge(s, model.Brief{}, judgement.Silenced{twins.ID: {Reason: "two kinds of seed"}})
	require.Greater(t, len(quiet.Smells), len(loud.Smells))
	require.NotEmpty(t, of(quiet, "near-twin"))
}
