package syntax_test

import (
	"fmt"
	"testing"

	"jantel/core/syntax"

	"github.com/stretchr/testify/require"
)

func TestHolesAreTakenOutOfTexts(t *testing.T) {
	for text, want := range map[string][]string{
		`"a #{b} c #{d(1)}"`:           {"b@1", "d(1)@1"},
		"\"a\n#{b\n}\nc #{d}\"":        {"b\n@2", "d@4"},
		`"#{ {a: 1}.keys } #{x}"`:      {" {a: 1}.keys @1", "x@1"},
		`"# { no } {neither} #{never"`: nil,
		`""`:                           nil,
	} {
		var got []string
		for hole, line := range syntax.Holes([]byte(text), 1, "#{") {
			got = append(got, fmt.Sprintf("%s@%d", hole, line))
		}
		require.Equal(t, want, got, text)
	}
}
