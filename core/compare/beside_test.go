package compare_test

import (
	"testing"

	"jantel/core/compare"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func side(t *testing.T, tree, place string) compare.Side {
	s := testkit.Survey(t, tree)
	return compare.Side{Survey: s, Result: judgement.Judge(s, model.Brief{}, nil), Place: place}
}

const before = `
-- bench/drying/rules.py --
from .store import rows

def due():
    return rows()
-- bench/drying/store.py --
def rows():
    return []
-- bench/vault/rules.py --
def shelves():
    return 3
-- bench/vault/store.py --
def kept():
    return []
`

const after = `
-- bench/drying/rules.py --
from .store import rows

def due():
    return [r for r in rows() if r]
-- bench/drying/store.py --
def rows():
    return []
-- bench/vault/rules.py --
def shelves():
    return 3
-- bench/vault/shelf.py --
def kept():
    return []
`

func figure(t *testing.T, b *compare.Beside, what string) compare.Figure {
	for _, f := range b.Figures {
		if f.What == what {
			return f
		}
	}
	t.Fatalf("there is no figure called %s", what)
	return compare.Figure{}
}

func TestTwoRevisionsAreMatchedByPathAndContent(t *testing.T) {
	b := compare.Of(side(t, before, "."), side(t, after, "."))
	require.Equal(t, 2, b.Files.Same)
	require.Equal(t, []string{"bench/drying/rules.py"}, b.Files.Changed)
	require.Equal(t, []string{"bench/vault/store.py"}, b.Files.Here)
	require.Equal(t, []string{"bench/vault/shelf.py"}, b.Files.There)
	require.InDelta(t, 4, *figure(t, b, "files").Here, 0)
}

func TestTwoFoldersOfOneSurveyAreMatchedBelowThemselves(t *testing.T) {
	a, b := side(t, before, "bench/drying"), side(t, before, "bench/vault")
	got := compare.Of(a, b)
	require.Equal(t, 0, got.Files.Same, "both have the same names, and other words in them")
	require.Equal(t, []string{"rules.py", "store.py"}, got.Files.Changed)
	ties := figure(t, got, "dependencies inside")
	require.InDelta(t, 1, *ties.Here, 0)
	require.InDelta(t, 0, *ties.There, 0)
}

func TestAFileHasWordsWhereAFolderHasFigures(t *testing.T) {
	got := compare.Of(side(t, before, "bench/drying/store.py"), side(t, before, "bench/vault"))
	role := figure(t, got, "role")
	require.NotEmpty(t, role.Words)
	require.Empty(t, role.Others)
	require.Nil(t, figure(t, got, "legibility").Here, "a file has no score of its own")
}

func TestAPlaceBesideItselfDiffersInNothing(t *testing.T) {
	for _, place := range []string{".", "bench/drying", "bench/vault/rules.py"} {
		got := compare.Of(side(t, before, place), side(t, before, place))
		require.Zero(t, got.Files.Changes+got.Files.HereOnly+got.Files.ThereOnly+got.Features.HereOnly+got.Features.ThereOnly)
		for _, f := range got.Figures {
			require.Equal(t, f.Here, f.There, f.What)
			require.Equal(t, f.Words, f.Others, f.What)
		}
	}
}

func TestWhatIsNotThereIsNotCompared(t *testing.T) {
	require.Nil(t, compare.Of(side(t, before, "press"), side(t, before, ".")))
	require.Nil(t, compare.Of(side(t, before, "."), side(t, before, "press")))
}
