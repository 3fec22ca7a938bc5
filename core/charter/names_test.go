package charter_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/charter"

	"github.com/stretchr/testify/require"
)

func TestRulesForNamesAndTheGlossaryAreChecked(t *testing.T) {
	for name, c := range map[string]struct{ text, says string }{
		"a rule of nothing":           {"names:\n  - case: camelCase\n", "says of what it is"},
		"a kind that there is not":    {"names:\n  - of: [gadget]\n    case: camelCase\n", `"gadget" is nothing that a rule for names can be about`},
		"a case that there is not":    {"names:\n  - of: [file]\n    case: SpongeCase\n", `"SpongeCase" is no way to write names`},
		"a rule that asks nothing":    {"names:\n  - of: [file]\n", "asks for a case"},
		"a place outside":             {"names:\n  - of: [file]\n    case: camelCase\n    places: [\"../x\"]\n", "no glob of paths"},
		"a word without one":          {"glossary:\n  - means: seed\n", "a word of the glossary is empty"},
		"a word twice":                {"glossary:\n  - word: lot\n  - word: Lot\n", "stands in the glossary twice"},
		"a word instead of itself":    {"glossary:\n  - word: lot\n    not: [lot]\n", "instead of itself"},
		"a key that is not known":     {"glossary:\n  - word: lot\n    meaning: seed\n", "unknown field"},
		"nothing at all of a charter": {"rings: true\n", "at least one layer"},
	} {
		t.Run(name, func(t *testing.T) {
			got, faults := charter.Parse([]byte(c.text))
			require.Nil(t, got)
			require.Contains(t, fmt.Sprint(faults), c.says)
		})
	}
	many := "glossary:\n" + strings.Repeat("  - word: lot\n", 600)
	_, faults := charter.Parse([]byte(many))
	require.Len(t, faults, 1, "it is not told of each")
}

func TestNamesAndAGlossaryAreACharterWithoutLayers(t *testing.T) {
	c, faults := charter.Parse([]byte("names:\n  - of: [file, class]\n    ends: [Store]\nglossary:\n  - word: lot\n    means: seed as it came in\n"))
	require.Empty(t, faults)
	require.Equal(t, []charter.NameRule{{Of: []string{"file", "class"}, Places: []string{}, Begins: []string{}, Ends: []string{"Store"}, Not: []string{}}}, c.Names)
	require.Equal(t, []charter.Term{{Word: "lot", Means: "seed as it came in", Not: []string{}}}, c.Glossary)
	require.Empty(t, c.Layers)
	text, err := c.Text()
	require.NoError(t, err)
	again, faults := charter.Parse([]byte(text))
	require.Empty(t, faults, text)
	require.Equal(t, c.Glossary, again.Glossary)
}
