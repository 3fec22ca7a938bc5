package survey_test

import (
	"strings"
	"testing"

	"jantel/core/model"
	"jantel/core/syntax"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func init() {
	syntax.Register(&syntax.Language{Name: "Stuck", Version: 1, Extensions: []string{".stuck"}, Read: func(_ syntax.How, src []byte) *model.Facts {
		if strings.Contains(string(src), "read") {
			panic("the reader is stuck")
		}
		return &model.Facts{Lines: 1, Code: 1, Read: model.ReadFull, Imports: []model.Import{{Text: "x", Line: 1}}}
	}, Resolve: func(t *syntax.Tree) {
		t.Each(func(out *syntax.Out, f *model.File) {
			if f.Path == "one.stuck" {
				panic("one file is stuck")
			}
			out.Links = append(out.Links, model.Link{From: f.Path, To: "a.go", Kind: model.LinkImport, Line: 1})
		}, "Stuck")
		if t.File("all.stuck") != nil {
			panic("all is stuck")
		}
	}})
}

func TestAReaderThatBreaksCostsItsFileAlone(t *testing.T) {
	s := testkit.Survey(t, "-- a.go --\npackage a\n\nfunc A() {}\n-- b.stuck --\nread\nme\n")
	f := s.File("b.stuck").Facts
	require.Equal(t, model.ReadPartial, f.Read)
	require.Contains(t, f.Problem, "its reader could not go on: it broke off: the reader is stuck (survey/broken_test.go:")
	require.Equal(t, 2, f.Lines)
	require.Equal(t, "A", s.File("a.go").Facts.Definitions[0].Name)
}

func TestAResolverThatBreaksCostsWhatItWouldHaveFound(t *testing.T) {
	s := testkit.Survey(t, "-- a.go --\npackage a\n-- one.stuck --\nx\n-- two.stuck --\nx\n")
	require.Equal(t, []string{"two.stuck -> a.go"}, testkit.Links(s))
	require.Len(t, s.Notes, 1)
	require.Equal(t, "one.stuck", s.Notes[0].Path)
	require.Contains(t, s.Notes[0].Text, "its imports could not be followed: it broke off: one file is stuck")

	s = testkit.Survey(t, "-- a.go --\npackage a\n-- all.stuck --\nx\n")
	require.Equal(t, []string{"all.stuck -> a.go"}, testkit.Links(s), "what was found before stays")
	require.Contains(t, s.Notes[0].Text, "the imports of Stuck could not be followed: it broke off: all is stuck")
}
