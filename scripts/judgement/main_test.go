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
