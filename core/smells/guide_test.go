package smells

import (
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// The guide to the analysis ends with the catalogue; `GUIDE=1 go test
// ./core/smells -run Guide` writes it anew.
func TestTheGuideTellsTheCatalogue(t *testing.T) {
	const path, head = "../../docs/analysis.md", "A limit depends on the stage in the brief: sketch / growing / in service.\n\n"
	text, err := os.ReadFile(path)
	require.NoError(t, err)
	before, rules, found := strings.Cut(string(text), head)
	require.True(t, found)
	if os.Getenv("GUIDE") != "" {
		require.NoError(t, os.WriteFile(path, []byte(before+head+Guide()), 0o644))
		return
	}
	require.Equal(t, Guide(), rules, "write the guide anew: GUIDE=1 go test ./core/smells -run Guide")
}

// A judgement kept by an earlier state of the rules must not be taken for one
// of now, and the version must not move with the tests.
func TestTheVersionIsMadeOfTheRules(t *testing.T) {
	require.Equal(t, Version, version())
	list, err := sources.ReadDir(".")
	require.NoError(t, err)
	seen := 0
	for _, file := range list {
		text, err := sources.ReadFile(file.Name())
		require.NoError(t, err)
		if strings.Contains(string(text), "= &Rule{") && !strings.HasSuffix(file.Name(), "_test.go") {
			seen++
		}
	}
	require.GreaterOrEqual(t, seen, len(catalogue), "each rule's source goes into the version")
}
