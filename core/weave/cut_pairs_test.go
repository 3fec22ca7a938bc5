package weave

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"jantel/core/model"

	"github.com/stretchr/testify/require"
)

// thrown are files of random features and roles in random folders, some of which
// tell nothing.
func thrown(r *rand.Rand) (out []cutFile) {
	known := func(letter string, n int) string {
		if k := r.IntN(n + 1); k > 0 {
			return fmt.Sprint(letter, k)
		}
		return ""
	}
	for i := range 5 + r.IntN(40) {
		p := fmt.Sprintf("d%d/e%d/f%d.ts", r.IntN(3), r.IntN(3), i)
		out = append(out, cutFile{path: p, feature: known("x", 4), role: known("y", 4)}.below("."))
	}
	return out
}

func TestPairsAreCountedAsByLookingAtEach(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	for range 60 {
		files, depth := thrown(r), 1+r.IntN(2)
		var want [3]pairs
		var same, other pairs
		add := func(p *pairs, together bool) {
			p.all++
			if together {
				p.together++
			}
		}
		for i := range files {
			for j := range i {
				a, b := &files[i], &files[j]
				together := a.at(depth) == b.at(depth)
				switch {
				case a.feature == b.feature && a.role != b.role:
					add(&want[0], together)
				case a.role == b.role && a.feature != b.feature:
					add(&want[1], together)
				case a.role != b.role:
					add(&want[2], together)
				}
				if a.role != "" && b.role != "" {
					if a.role == b.role {
						add(&same, together)
					} else {
						add(&other, together)
					}
				}
			}
		}
		// A name that is unknown is a name like others to pairsOf; byPairs leaves such
		// files out before.
		for i := range files {
			files[i].feature, files[i].role = files[i].feature+".", files[i].role+"."
		}
		got := pairsOf(files).at(depth)
		require.Equal(t, want, [3]pairs{got.feature, got.role, got.neither})
		requireOfOne(t, files, depth, featureOf, roleOf, got.mostFeature)
		requireOfOne(t, files, depth, roleOf, featureOf, got.mostRole)
		for i := range files {
			files[i].role = files[i].role[:len(files[i].role)-1]
		}
		gotSame, most, gotOther, _ := alike(files, roleOf, depth)
		require.LessOrEqual(t, most.together, gotSame.together)
		require.Equal(t, [2]pairs{same, other}, [2]pairs{gotSame, gotOther})
	}
}

// requireOfOne holds the pairs of the one thing that brings most files together, and that
// share not the other, against counting them one by one.
func requireOfOne(t *testing.T, files []cutFile, depth int, what, other func(*cutFile) string, got pairs) {
	t.Helper()
	each := map[string]pairs{}
	for i := range files {
		for j := range i {
			a, b := &files[i], &files[j]
			if what(a) == what(b) && other(a) != other(b) {
				p := each[what(a)]
				p.all++
				if a.at(depth) == b.at(depth) {
					p.together++
				}
				each[what(a)] = p
			}
		}
	}
	most := 0
	for _, p := range each {
		most = max(most, p.together)
	}
	require.Equal(t, most, got.together)
	require.True(t, most == 0 || slices.Contains(slices.Collect(maps.Values(each)), got))
}

func TestTheCutTurnsRoundWithItsSides(t *testing.T) {
	r, told := rand.New(rand.NewPCG(5, 6)), 0
	for range 400 {
		files := thrown(r)
		there, ok := byPairs(files, ".")
		turned := make([]cutFile, len(files))
		for to, from := range r.Perm(len(files)) {
			f := files[from]
			f.feature, f.role = f.role, f.feature
			turned[to] = f
		}
		back, also := byPairs(turned, ".")
		require.Equal(t, ok, also)
		if ok {
			told++
			require.InDelta(t, *there.Value, -*back.Value, 1e-9)
			require.Equal(t, there.Depth, back.Depth)
			require.LessOrEqual(t, max(*there.Value, -*there.Value), 1.0)
		}
	}
	require.Positive(t, told)
}

func TestFewFilesAndOneFolderAreNotCut(t *testing.T) {
	var files []cutFile
	for i := range 20 {
		files = append(files, cutFile{path: fmt.Sprintf("src/f%d.ts", i), feature: fmt.Sprint(i % 4), role: fmt.Sprint(i % 5)}.below("."))
	}
	require.Nil(t, cutOf(files, ".", true).Value, "all lie in one folder")
	require.Nil(t, cutOf(files[:4], ".", true).Value)
	files[0] = cutFile{path: "src/moor/f.ts", feature: "0", role: "0"}.below("src")
	require.Equal(t, "moor", files[0].dir)
	require.Equal(t, "moor", files[0].at(3))
	require.Empty(t, files[0].at(0))
}

func TestFoldersBuiltAlikeShareTwoNamesOnce(t *testing.T) {
	tree := func(paths ...string) (out []cutFile) {
		for _, p := range paths {
			out = append(out, cutFile{path: p}.below("."))
		}
		return out
	}
	alikes := tree("lots/rows.ts", "lots/card.ts", "beds/rows.ts", "beds/card.ts", "moors/rows.ts", "moors/card.ts", "a.ts")
	got, ok := byAnatomy(alikes, ".")
	require.True(t, ok)
	require.Equal(t, model.CutByFeature, got.Label)
	require.Len(t, got.Evidence, 3)
	_, ok = byAnatomy(tree("lots/rows.ts", "beds/rows.ts", "moors/rows.ts"), ".")
	require.False(t, ok, "one name is too little")
	_, ok = byAnatomy(tree("lots/index.ts", "lots/types.ts", "beds/index.ts", "beds/types.ts", "moors/index.ts", "moors/types.ts"), ".")
	require.False(t, ok, "names that tools prescribe")
	_, ok = byAnatomy(append(alikes, tree("b/1x.ts", "b/2y.ts", "b/3z.ts", "b/4w.ts", "b/5v.ts", "b/6u.ts", "b/7t.ts")...), ".")
	require.False(t, ok, "less than half of the files")
}

func TestACutByKindIsHeldAgainstTheFolders(t *testing.T) {
	lying := func(dirs ...string) (out []cutFile) { // each folder with the kinds of its files
		for _, d := range dirs {
			dir, kinds, _ := strings.Cut(d, ":")
			for i, k := range strings.Fields(kinds) {
				f := cutFile{path: fmt.Sprintf("%s/f%d.go", dir, i), kind: k}
				out = append(out, f.below("."))
			}
		}
		return out
	}
	v := -1.0
	told := func(files []cutFile) model.Cut {
		return ofKinds(files, ".", model.Cut{Value: &v, Label: model.CutByKind, Depth: 1})
	}
	many := func(kind string, n int) string { return strings.Repeat(kind+" ", n) }

	kinds := told(lying("rows:"+many("model", 12), "desk:"+many("view", 9)+"logic"))
	require.Equal(t, model.CutByKind, kinds.Label)
	require.Equal(t, -1.0, *kinds.Value)

	both := told(lying("lots:"+many("model", 6)+many("view", 6), "boxes:"+many("model", 5)+many("view", 5)))
	require.Equal(t, model.CutMixed, both.Label, "each folder holds both")
	require.Equal(t, -0.2, *both.Value)
	require.Contains(t, both.Evidence[len(both.Evidence)-1].Note, "of 22 files whose kind is seen none lies in a folder of mostly one kind")

	one := told(lying("all:"+many("model", 30), "more:"+many("model", 4)))
	require.Equal(t, model.CutMixed, one.Label, "all of one kind: no folder is for another")
	require.Contains(t, one.Evidence[len(one.Evidence)-1].Note, "are all of the same")

	some := told(lying("rows:"+many("model", 5), "desk:"+many("view", 5), "rest:"+many("model", 8)+many("view", 8)))
	require.Contains(t, some.Evidence[len(some.Evidence)-1].Note, "of 26 files whose kind is seen only 10 lie in folders of mostly one kind")

	few := told(lying("lots:model view", "boxes:model view"))
	require.Equal(t, model.CutByKind, few.Label, "of four files nothing can be held against it")
	require.Equal(t, -1.0, v, "what was handed in stays as it is")
}
