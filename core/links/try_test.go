package links_test

import (
	"strings"
	"testing"

	"jantel/core/links"
	"jantel/core/model"

	"github.com/stretchr/testify/require"
)

// needs are imports, each as two paths with a blank between.
func needs(pairs ...string) (out []model.Link) {
	for _, p := range pairs {
		from, to, _ := strings.Cut(p, " ")
		out = append(out, model.Link{From: from, To: to, Kind: model.LinkImport})
	}
	return out
}

func TestADependencyIsTriedBeforeItExists(t *testing.T) {
	// The page needs the logic, which needs the store; the job needs the logic.
	ls := needs("page/a logic/b", "logic/b store/c", "job/d logic/b", "other/e other/f")
	up := links.Try(ls, every, "store", "page")
	require.Equal(t, []string{"page/a", "logic/b", "store/c"}, up.Ring, "the way back is there already")
	down := links.Try(ls, every, "page", "store")
	require.Empty(t, down.Ring)
	require.Zero(t, down.Newly, "it needs the store already, over the logic")
	require.Zero(t, down.Along)
	aside := links.Try(ls, every, "logic", "other")
	require.Empty(t, aside.Ring)
	require.Equal(t, 3, aside.Newly, "the logic, the page and the job")
	require.Equal(t, 2, aside.Along)
	require.Equal(t, 1, links.Try(ls, every, "page", "logic").Now)
}

func TestWhatNoLinkTouchesClosesNoRing(t *testing.T) {
	got := links.Try(nil, every, "a", "b")
	require.Equal(t, links.Tried{From: "a", To: "b", Ring: []string{}}, got)
}

// Whatever is tried: with the dependency added there is a ring through both
// exactly where a way back was told.
func TestATriedRingIsARingOnceItIsThere(t *testing.T) {
	ls := needs("a b", "b c", "c a", "c d", "e a")
	for _, from := range []string{"a", "b", "d", "e"} {
		for _, to := range []string{"a", "c", "d", "e"} {
			if from == to {
				continue
			}
			tried := links.Try(ls, every, from, to)
			with := append(append([]model.Link{}, ls...), needs(from+" "+to)...)
			ring := false
			for _, c := range links.FileCycles(with, every) {
				in := map[string]bool{}
				for _, m := range c.Members {
					in[m] = true
				}
				ring = ring || in[from] && in[to]
			}
			require.Equal(t, ring, len(tried.Ring) > 0, "%s to %s", from, to)
		}
	}
}
