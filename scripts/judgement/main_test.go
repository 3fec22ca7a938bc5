package main

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"
)

func TestLabelsAreReadByTheirPart(t *testing.T) {
	file := filepath.Join(t.TempDir(), "roles.txt")
	require.NoError(t, os.WriteFile(file, []byte("# of roles\n# open\nvault\tsrc/lot.ts\tlogic|model\n\n# locked\nmoor\tm.go\thandler\n"), 0o600))
	open, err := read(file, false)
	require.NoError(t, err)
	require.Equal(t, []label{{"vault", "src/lot.ts", []string{"logic", "model"}}}, open)
	locked, err := read(file, true)
	require.NoError(t, err)
	require.Equal(t, []label{{"moor", "m.go", []string{"handler"}}}, locked)
	require.NoError(t, os.WriteFile(file, []byte("vault src/lot.ts logic\n"), 0o600))
	_, err = read(file, false)
	require.ErrorContains(t, err, "is no label")
}

func TestLabelsOfTheRepositoryCanBeRead(t *testing.T) {
	files, err := filepath.Glob("labels/*.txt")
	require.NoError(t, err)
	require.Len(t, files, len(kinds))
	for _, file := range files {
		for _, locked := range []bool{false, true} {
			labels, err := read(file, locked)
			require.NoError(t, err, file)
			require.NotEmpty(t, labels, "%s, locked %v", file, locked)
		}
	}
}

func TestAnswersAreTallied(t *testing.T) {
	s := &survey{}
	s.Files = append(s.Files, struct {
		Path   string
		Role   string
		Source string `json:"role_source"`
		Origin string
	}{"a.ts", "logic", "seen", "built"})
	s.Entries = append(s.Entries, struct{ Path string }{"main.go"})
	s.Features = append(s.Features, struct{ Name string }{"Lot"})
	s.Patterns = append(s.Patterns, struct{ Name string }{"layered"}, struct{ Name string }{"library"})
	s.Folders = append(s.Folders, struct{ Path, Purpose string }{".", "A register of Lots."}, struct{ Path, Purpose string }{"src", ""})
	for _, c := range []struct {
		kind, of string
		right    []string
		want     map[string][3]int // right, wrong, untold
	}{
		{"roles", "a.ts", []string{"logic", "model"}, map[string][3]int{"roles": {1, 0, 0}, "roles seen": {1, 0, 0}}},
		{"roles", "a.ts", []string{"view"}, map[string][3]int{"roles": {0, 1, 0}, "roles seen": {0, 1, 0}}},
		{"roles", "gone.ts", []string{"view"}, map[string][3]int{}},
		{"origin", "a.ts", []string{"own"}, map[string][3]int{"own code kept": {0, 1, 0}}},
		{"origin", "a.ts", []string{"vendored"}, map[string][3]int{"the rest left out": {1, 0, 0}, "of these, called as expected": {0, 1, 0}}},
		{"origin", "a.ts", []string{"either"}, map[string][3]int{}},
		{"entries", "main.go", []string{"yes"}, map[string][3]int{"entries found": {1, 0, 0}}},
		{"entries", "main.go", []string{"no"}, map[string][3]int{"what only looks like one left alone": {0, 1, 0}}},
		{"features", "lot", []string{"yes"}, map[string][3]int{"features found": {1, 0, 0}}},
		{"cut", ".", []string{"by kind"}, map[string][3]int{"cut": {0, 0, 1}}},
		{"cut", ".", []string{"by kind", ""}, map[string][3]int{"cut": {1, 0, 0}}},
		{"patterns", ".", []string{"library"}, map[string][3]int{"leading pattern": {0, 1, 0}, "one of the first three": {1, 0, 0}}},
		{"purposes", ".", []string{"register of lots"}, map[string][3]int{"shown ones are purposes": {1, 0, 0}, "those authors wrote are shown": {1, 0, 0}}},
		{"purposes", ".", []string{"-"}, map[string][3]int{"shown ones are purposes": {0, 1, 0}}},
		{"purposes", "src", []string{"-"}, map[string][3]int{}},
		{"purposes", "src", []string{"the source"}, map[string][3]int{"those authors wrote are shown": {0, 0, 1}}},
	} {
		counts := map[string]*tally{}
		kinds[c.kind](s, label{"vault", c.of, c.right}, counts)
		got := map[string][3]int{}
		for name, n := range counts {
			got[name] = [3]int{n.right, n.wrong, n.untold}
		}
		require.Equal(t, c.want, got, "%s %s %v", c.kind, c.of, c.right)
	}
}

// TestTheOpenSmallTreesStayRight holds what was reached, so that a change to one
// judge cannot undo another unseen.
func TestTheOpenSmallTreesStayRight(t *testing.T) {
	counts, trees, err := smallTrees("small", false)
	require.NoError(t, err)
	require.Greater(t, trees, 35)
	for what, least := range map[[2]string]float64{
		{"origin", "own code kept"}: 1, {"roles", "roles"}: 0.95, {"roles", "roles seen"}: 0.98, {"entries", "entries found"}: 1,
		{"entries", "what only looks like one left alone"}: 1, {"features", "features found"}: 0.95,
		{"features", "what is none left alone"}: 1, {"purposes", "shown ones are purposes"}: 1, {"cut", "cut"}: 0.9,
		{"patterns", "leading pattern"}: 0.84, {"patterns", "one of the first three"}: 0.88,
	} {
		c := counts[what[0]][what[1]]
		require.NotNil(t, c, what)
		require.GreaterOrEqual(t, float64(c.right)/float64(c.right+c.wrong+c.untold), least, "%v: %v", what, c.misses)
	}
}

func TestTheHeadOfASmallTreeIsRead(t *testing.T) {
	for line, want := range map[string]struct {
		kind string
		l    label
	}{
		"role src/a b.ts":           {"roles", label{"t", "src/a", []string{"b.ts"}}},
		"role src/a.ts data access": {"roles", label{"t", "src/a.ts", []string{"data access"}}},
		"entry a.js|b.js":           {"entries", label{"t", "a.js|b.js", []string{"yes"}}},
		"no entry c.js":             {"entries", label{"t", "c.js", []string{"no"}}},
		"no feature util|utils":     {"features", label{"t", "util|utils", []string{"no"}}},
		"cut by kind|":              {"cut", label{"t", ".", []string{"by kind", ""}}},
		"purpose . keeps seed":      {"purposes", label{"t", ".", []string{"keeps seed"}}},
	} {
		kind, l, ok := statement("t", line)
		require.True(t, ok, line)
		require.Equal(t, want.kind, kind, line)
		require.Equal(t, want.l, l, line)
	}
	_, _, ok := statement("t", "A service in layers.")
	require.False(t, ok)
}
