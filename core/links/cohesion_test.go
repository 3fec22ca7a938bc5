package links_test

import (
	"math/rand/v2"
	"testing"

	"jantel/core/links"
	"jantel/core/model"

	"github.com/stretchr/testify/require"
)

func TestTiesAreInsideOrCross(t *testing.T) {
	ls := []model.Link{
		{From: "desk/pages/a.ts", To: "desk/hooks/b.ts", Kind: model.LinkImport},
		{From: "desk/pages/a.ts", To: "desk/pages/c.ts", Kind: model.LinkImport},
		{From: "desk/pages/a.ts", To: "counter/d.ts", Kind: model.LinkHTTP},
		{From: "main.ts", To: "desk/pages/a.ts", Kind: model.LinkImport},
		{From: "counter/d.ts", To: "counter/d.ts", Kind: model.LinkImport},
	}
	require.Equal(t, map[string]links.Ties{
		".":          {4, 0},
		"desk":       {2, 2},
		"desk/pages": {1, 3},
		"desk/hooks": {0, 1},
		"counter":    {0, 1},
	}, links.TiesOf(ls))
	require.Empty(t, links.TiesOf(nil))
}

// Whatever the links: each folder has those with an end in it, each once.
func TestTiesCountEachLinkOnce(t *testing.T) {
	places := []string{"x.ts", "y.ts", "a/x.ts", "a/y.ts", "a/b/x.ts", "a/a/x.ts", "b/x.ts", "b/a/b/x.ts", "ab/x.ts"}
	for seed := range uint64(200) {
		r := rand.New(rand.NewPCG(seed, 1))
		var ls []model.Link
		for range r.IntN(12) {
			ls = append(ls, model.Link{From: places[r.IntN(len(places))], To: places[r.IntN(len(places))], Kind: model.LinkImport})
		}
		for folder, got := range links.TiesOf(ls) {
			var want links.Ties
			for _, l := range ls {
				from, to := model.Within(folder, l.From), model.Within(folder, l.To)
				switch {
				case l.From == l.To:
				case from && to:
					want.Inside++
				case from || to:
					want.Crossing++
				}
			}
			require.Equal(t, want, got, "%s of %v", folder, ls)
		}
	}
}

// Each folder gets just the links that touch it, in their order.
func TestTouchingFindsWhatGoingThroughAllWouldFind(t *testing.T) {
	places := []string{"x.ts", "a/x.ts", "a/b/x.ts", "a/b/c/x.ts", "ab/x.ts", "b/x.ts"}
	folders := []string{"a", "a/b", "ab", ".", "none"}
	for seed := range uint64(100) {
		r := rand.New(rand.NewPCG(seed, 2))
		var ls []model.Link
		for i := range r.IntN(10) {
			ls = append(ls, model.Link{From: places[r.IntN(len(places))], To: places[r.IntN(len(places))], Line: i})
		}
		for i, got := range links.PartsOf(ls, folders).Touching {
			var want []model.Link
			for _, l := range ls {
				if model.Within(folders[i], l.From) || model.Within(folders[i], l.To) {
					want = append(want, l)
				}
			}
			require.Equal(t, want, got, folders[i])
		}
	}
}
