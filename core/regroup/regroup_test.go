package regroup_test

import (
	"testing"

	"jantel/core/model"
	"jantel/core/regroup"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

const vault = "-- desk/pages/dryingPage.ts --\nimport { rack } from '../parts/dryingRack'\nexport const page = rack\n" +
	"-- desk/parts/dryingRack.ts --\nexport const rack = 1\n-- desk/parts/shelf.ts --\nimport { rack } from './dryingRack'\nexport const shelf = rack\n"

func TestMovesAreReadFromTheLinesThatWouldMakeThem(t *testing.T) {
	got := regroup.Read("Why: drying is one thing.\n\n```\ngit mv desk/pages/dryingPage.ts desk/drying/page.ts\n  git mv desk/parts/ desk/kit\ngit mv one\nrm -r desk\n```\n")
	require.Equal(t, []regroup.Move{
		{From: "desk/pages/dryingPage.ts", To: "desk/drying/page.ts"}, {From: "desk/parts", To: "desk/kit"},
	}, got)
}

func TestACodebaseIsSeenAsIfItsFilesLayElsewhere(t *testing.T) {
	s := testkit.Survey(t, vault)
	require.Equal(t, 1, regroup.Across(s))
	after, moves := regroup.Of(s, []regroup.Move{
		{From: "desk/pages/dryingPage.ts", To: "desk/drying/page.ts"},
		{From: "desk/parts/dryingRack.ts", To: "desk/drying/rack.ts"},
		{From: "desk/parts", To: "desk/kit"},
		{From: "desk/parts", To: "desk/more"},
		{From: "desk/kit/shelf.ts", To: "desk/drying/rack.ts"},
		{From: "desk/kit", To: "../elsewhere"},
	})
	require.Equal(t, []string{"", "", "", "there is no such file or folder", "a file lies there already", "it would leave the codebase"}, nots(moves))
	require.Equal(t, []int{1, 1, 1, 0, 0, 0}, files(moves), "what went before is gone from its folder")
	require.NotNil(t, after.File("desk/drying/rack.ts"))
	require.NotNil(t, after.File("desk/kit/shelf.ts"))
	require.Nil(t, after.File("desk/parts/shelf.ts"))
	require.Equal(t, 1, regroup.Across(after), "the shelf needs the rack from outside, its page does not")
	require.NotNil(t, s.File("desk/parts/shelf.ts"), "today's survey stays as it is")
	require.Len(t, after.Links, len(s.Links))
}

func TestMovingEverythingThereAndBackChangesNothing(t *testing.T) {
	s := testkit.Survey(t, vault)
	after, _ := regroup.Of(s, []regroup.Move{{From: "desk", To: "house"}, {From: "house", To: "desk"}})
	require.Equal(t, paths(s), paths(after))
	require.Equal(t, s.Links, after.Links)
}

func nots(moves []regroup.Move) (out []string) {
	for _, m := range moves {
		out = append(out, m.Not)
	}
	return out
}

func files(moves []regroup.Move) (out []int) {
	for _, m := range moves {
		out = append(out, m.Files)
	}
	return out
}

func paths(s *model.Survey) (out []string) {
	for _, f := range s.Files {
		out = append(out, f.Path)
	}
	return out
}
