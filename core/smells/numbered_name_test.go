package smells_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func TestManyNumberedThingsAreNamedOnce(t *testing.T) {
	tree := func(n int) string {
		text := "-- lots.ts --\n"
		for i := range n {
			text += fmt.Sprintf("export function weigh%d() { return %d }\n", i+1, i)
		}
		return text
	}
	found := func(n int) (out []string) {
		s := testkit.Survey(t, tree(n))
		for _, sm := range judgement.Judge(s, model.Brief{}, nil).Smells {
			if sm.Rule == "numbered-name" {
				out = append(out, sm.Message)
			}
		}
		return out
	}
	require.Empty(t, found(1))
	require.Len(t, found(5), 5, "a few are named one by one")
	require.Equal(t, []string{"Seven things called *weigh* are told apart by a number alone"}, found(7))
	require.Len(t, found(40), 1)
}

func TestAWordThatGoesWithItsNumberEverywhereIsATerm(t *testing.T) {
	found := func(number string) (out []string) {
		s := testkit.Survey(t, strings.ReplaceAll(`
-- send.ts --
export function sendTag() {}
export function sendTag9() {}
-- readTag9.ts --
export function read() {}
-- tags/store.ts --
export class Tag9Store {}
`, "9", number))
		for _, sm := range judgement.Judge(s, model.Brief{}, nil).Smells {
			if sm.Rule == "numbered-name" {
				out = append(out, sm.Message)
			}
		}
		return out
	}
	require.Empty(t, found("4"), "the fourth version of the tags")
	require.Len(t, found("1"), 1, "with 1 begins what is merely counted")
}
