package smells_test

import (
	"fmt"
	"slices"
	"testing"

	"jantel/core/charter"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/smells"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

const vault = `-- package.json --
{ "name": "vault" }
-- src/lots/weighBatch.ts --
export class BatchStore {
  take(batch: string) { const parcelCount = 2; return batch + parcelCount }
}
-- src/lots/lot_list.ts --
export function LotList(lots: string[]) { return lots }
export function listLots() { return [] }
-- src/hooks/scale.ts --
export function scale() { return 1 }
export function useShelf() { return 1 }
`

// told are the smells of some rules, as rule, name and line.
func told(t *testing.T, tree, text string, said []model.Overrule, rules ...string) (out []string) {
	t.Helper()
	in := judgement.Inputs{Overrules: said}
	if text != "" {
		tree += "-- jantel.yaml --\n" + text
	}
	for _, sm := range judgement.JudgeBy(testkit.Survey(t, tree), in).Hits {
		if slices.Contains(rules, sm.Rule) {
			line := 0
			if sm.Line != nil {
				line = *sm.Line
			}
			out = append(out, fmt.Sprintf("%s %s:%d %s", sm.Rule, sm.Path, line, sm.Message))
		}
	}
	return out
}

func TestNamesAreHeldAgainstTheCodebasesOwnRules(t *testing.T) {
	got := told(t, vault, `names:
  - of: [file]
    places: ["src/lots/**"]
    case: camelCase
  - of: [function]
    places: ["src/hooks/**"]
    begins: [use]
    why: hooks are called so
  - of: [class, interface]
    ends: [Repository, Service]
  - of: [class]
    not: [store]
`, nil, "case-against-folder", "suffix-against-folder", "vague-name")
	require.ElementsMatch(t, []string{
		"case-against-folder src/lots/lot_list.ts:0 *lot_list* is not written in camelCase, as the charter asks of a file here",
		"suffix-against-folder src/hooks/scale.ts:1 *scale* does not begin with *use*, as the charter asks of a function here: hooks are called so",
		"suffix-against-folder src/lots/weighBatch.ts:1 *BatchStore* does not end in one of *Repository*, *Service*, as the charter asks of a class here",
		"vague-name src/lots/weighBatch.ts:1 *BatchStore* has the word *store*, which the charter does not want of a class here",
	}, got)
}

func TestWordsThatTheGlossaryDoesNotSay(t *testing.T) {
	by := "several-words src/lots/weighBatch.ts:0 *batch* stands in three names, where the glossary says *lot*"
	require.Equal(t, []string{by}, told(t, vault, "glossary:\n  - word: lot\n    means: seed as it came in\n    not: [batch]\n", nil, "several-words"))
	said := []model.Overrule{
		{Kind: model.OverruleTerm, Target: "lot", Value: "seed as it came in"}, {Kind: model.OverruleInstead, Target: "batch", Value: "lot"},
		{Kind: model.OverruleInstead, Target: "parcel", Value: "lot"},
	}
	got := told(t, vault, "", said, "several-words")
	require.ElementsMatch(t, []string{
		by, "several-words src/lots/weighBatch.ts:2 *parcel* stands in one name, where the glossary says *lot*",
	}, got)
	require.Empty(t, told(t, vault, "", nil, "several-words"), "nothing is said of words where nobody said any")
}

func TestTheGlossaryIsJoinedFromTheCharterAndFromWhatIsSaid(t *testing.T) {
	c := &charter.Charter{Glossary: []charter.Term{{Word: "Lot", Means: "old", Not: []string{"batch"}}, {Word: "Shelf", Means: "a row"}}}
	require.Equal(t, []charter.Term{
		{Word: "lot", Means: "new", Not: []string{"batch", "parcel"}}, {Word: "shelf", Means: "a row"},
	}, smells.Glossary(c, []model.Overrule{
		{Kind: model.OverruleTerm, Target: "lot", Value: "new"}, {Kind: model.OverruleInstead, Target: "parcel", Value: "lot"},
		{Kind: model.OverruleInstead, Target: "batch", Value: "lot"},
	}))
	require.Empty(t, smells.Glossary(nil, nil))
}
