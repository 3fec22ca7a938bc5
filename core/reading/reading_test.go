package reading_test

import (
	"maps"
	"math/rand/v2"
	"path"
	"slices"
	"sort"
	"testing"

	"jantel/core/model"
	"jantel/core/reading"
	_ "jantel/core/syntax/languages"

	"github.com/stretchr/testify/require"
)

func survey(paths ...string) *model.Survey {
	s := &model.Survey{}
	sort.Strings(paths)
	for _, p := range paths {
		s.Files = append(s.Files, &model.File{Path: p, Language: "Go", Facts: &model.Facts{}})
	}
	return s
}

func all(s *model.Survey) map[string]bool {
	in := map[string]bool{}
	for _, f := range s.Files {
		in[f.Path] = true
	}
	return in
}

func pathsOf(files []*model.File) []string {
	out := []string{}
	for _, f := range files {
		out = append(out, f.Path)
	}
	return out
}

func TestAPlaceHoldsWhatLiesBelowItAndNothingThatOnlyBeginsAlike(t *testing.T) {
	s := survey("a.go", "a/b.go", "a/c/d.go", "a-b/e.go", "a0/f.go", "ab/g.go", "z.go")
	r := reading.Of(s, all(s), nil)
	require.Equal(t, []string{"a/b.go", "a/c/d.go"}, pathsOf(r.At("a")))
	require.Equal(t, []string{"a/c/d.go"}, pathsOf(r.At("a/c")))
	require.Equal(t, []string{"a.go"}, pathsOf(r.At("a.go")))
	require.Empty(t, r.At("b"))
	require.Len(t, r.At("."), 7)
}

// Looking a place up is the same as asking each file whether it lies there.
func TestAtIsWithin(t *testing.T) {
	random := rand.New(rand.NewPCG(1, 2))
	name := func() string {
		b := make([]byte, 1+random.IntN(2))
		for i := range b {
			b[i] = "a0.-~"[random.IntN(5)]
		}
		return string(b)
	}
	for range 500 {
		folders := []string{name(), name() + "/" + name()}
		in := map[string]bool{}
		for range 12 {
			in[path.Join(folders[random.IntN(2)], name()+"x")] = true // no file is called like a folder
		}
		s := survey(slices.Collect(maps.Keys(in))...)
		place := append(folders, name(), ".")[random.IntN(4)]
		want := []string{}
		for _, f := range s.Files {
			if model.Within(place, f.Path) {
				want = append(want, f.Path)
			}
		}
		require.Equal(t, want, pathsOf(reading.Of(s, nil, nil).At(place)), "%s in %v", place, in)
	}
}

func TestOwnSourceAndEdges(t *testing.T) {
	s := survey("a/a.go", "a/a_test.go", "b/b.go", "b/old.go")
	s.Files = append(s.Files, &model.File{Path: "readme.md", Language: "Markdown", Facts: &model.Facts{}})
	s.Links = []model.Link{
		{From: "a/a.go", To: "b/b.go", Kind: model.LinkImport},
		{From: "a/a.go", To: "b/b.go", Kind: model.LinkInheritance}, // says more of the same
		{From: "a/a.go", To: "b/b.go", Kind: model.LinkImport},
		{From: "a/a_test.go", To: "b/b.go", Kind: model.LinkImport},
		{From: "a/a.go", To: "b/old.go", Kind: model.LinkImport},
	}
	judged := all(s)
	delete(judged, "b/old.go")
	r := reading.Of(s, judged, map[string]model.RoleOf{"a/a_test.go": {Role: model.RoleTest}})
	require.Equal(t, []string{"a/a.go", "a/a_test.go", "b/b.go", "readme.md"}, pathsOf(slices.Collect(r.Own("."))))
	require.Equal(t, []string{"a/a.go", "a/a_test.go"}, pathsOf(slices.Collect(r.Code("a"))))
	require.Equal(t, []string{"a/a.go", "b/b.go"}, pathsOf(slices.Collect(r.Source("."))))
	require.Equal(t, []string{"b/b.go"}, pathsOf(r.OwnIn("b")))
	require.Equal(t, []string{"a/a.go"}, pathsOf(r.SourceIn("a")))
	require.Empty(t, r.OwnIn("nowhere"))
	edges := r.Edges()
	require.Len(t, edges, 3)
	require.Equal(t, []bool{false, true, false}, []bool{edges[0].Again, edges[1].Again, edges[2].Again})
	require.Equal(t, model.RoleTest, edges[2].FromRole)
}
