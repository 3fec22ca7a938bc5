package links_test

import (
	"testing"

	"jantel/core/links"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func all(string) bool { return true }

func TestAFileBelongsWhereItsDependenciesLie(t *testing.T) {
	s := testkit.Survey(t, `
-- drying/rack.ts --
import './chamber'
import './moisture'
-- drying/chamber.ts --
import './moisture'
-- drying/moisture.ts --
-- drying/label.ts --
import '../labels/size'
import '../labels/sheet'
import '../labels/ink'
import './moisture'
-- labels/size.ts --
-- labels/sheet.ts --
-- labels/ink.ts --
-- drying/alone.ts --
x()
`)
	got := links.BelongingsOf(s, all, "drying")
	require.Len(t, got, 5)
	first := got[0]
	require.Equal(t, "drying/label.ts", first.Path, "what belongs elsewhere comes first")
	require.True(t, first.Elsewhere)
	require.Equal(t, 4, first.Links)
	require.Equal(t, links.Kin{Folder: "labels", Links: 3, Value: 0.6429}, *first.Other)
	require.Equal(t, links.Kin{Folder: "drying", Links: 1, Value: 0.2143}, first.Own)
	for _, b := range got[1:] {
		require.False(t, b.Elsewhere, b.Path)
	}
	alone := got[1]
	require.Equal(t, "drying/alone.ts", alone.Path)
	require.Nil(t, alone.Other)
	require.Zero(t, alone.Own.Value)
	require.Empty(t, links.BelongingsOf(s, all, "nowhere"))
	require.Empty(t, links.BelongingsOf(s, func(string) bool { return false }, "drying"))
}

func TestWhatPutsTogetherStaysAboveItsParts(t *testing.T) {
	parts := `
-- desk/shell.ts --
import './pages/Vault'
import './pages/Drying'
import './pages/Growers'
-- desk/words.ts --
-- desk/pages/Vault.ts --
import '../words'
-- desk/pages/Drying.ts --
import '../words'
-- desk/pages/Growers.ts --
import '../words'
`
	got := links.BelongingsOf(testkit.Survey(t, parts), all, "desk")
	require.Len(t, got, 2)
	require.Equal(t, "desk/words.ts", got[0].Path, "needed by pages alone, it may as well lie among them")
	require.True(t, got[0].Elsewhere)
	require.Equal(t, "desk/pages", got[1].Other.Folder)
	require.False(t, got[1].Elsewhere, "the shell holds the pages")
}

func TestWhatChangesTogetherCountsAsWellAndNamesALittle(t *testing.T) {
	s := testkit.Survey(t, `
-- desk/growers.ts --
import '../shared/types'
-- growers/list.ts --
-- shared/types.ts --
`)
	s.History = &model.History{Pairs: []model.Pair{{A: "desk/growers.ts", B: "growers/list.ts", Together: 6}}}
	b := links.BelongingsOf(s, all, "desk")[0]
	require.Equal(t, 1, b.Links)
	require.Equal(t, 6, b.Changes)
	// One dependency to shared weighs more than changing with growers, whose name
	// it has: nothing is said for certain.
	require.Equal(t, "shared", b.Other.Folder)
	require.False(t, b.Elsewhere)
	s.Links = nil
	b = links.BelongingsOf(s, all, "desk")[0]
	require.Equal(t, links.Kin{Folder: "growers", Changes: 6, Words: 1, Value: 1}, *b.Other)
	require.True(t, b.Elsewhere)
}
