package weave_test

import (
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"
	"jantel/core/weave"

	"github.com/stretchr/testify/require"
)

func TestWhatTheLeadSetsTakesTheirPlace(t *testing.T) {
	s := testkit.Survey(t, spread("src/{k}s/{t}.{k}.ts", "export class {T}{K} {}", []string{"lot", "shelf", "box"}, []string{"controller", "service"}))
	by := func(os ...model.Overrule) *judgement.Result {
		for _, o := range os {
			require.NoError(t, weave.CheckOverrule(o))
		}
		return judgement.JudgeBy(s, judgement.Inputs{Overrules: os})
	}
	plain := by()
	require.Equal(t, model.RoleLogic, plain.Roles["src/services/lot.service.ts"].Role)
	j := by(model.Overrule{Kind: "role", Target: "src/services", Value: "helper"}, model.Overrule{Kind: "role", Target: "src/services/lot.*", Value: "model", By: "Ada"})
	require.Equal(t, model.RoleHelper, j.Roles["src/services/shelf.service.ts"].Role)
	require.Equal(t, model.RoleModel, j.Roles["src/services/lot.service.ts"].Role, "the longer target counts")
	require.Equal(t, []string{"set by hand, by Ada"}, j.Roles["src/services/lot.service.ts"].Reasons)
	require.True(t, j.Roles["src/services/lot.service.ts"].ByHand)
	require.NotEqual(t, plain.Version, j.Version)

	j = by(model.Overrule{Kind: "rename", Target: "shelf", Value: "lot"}, model.Overrule{Kind: "rename", Target: "box", Value: ""}, model.Overrule{Kind: "feature", Target: "src/controllers/box.controller.ts", Value: "crate"})
	var names []string
	for _, f := range j.Features {
		names = append(names, f.Name)
	}
	require.Equal(t, []string{"lot", "crate"}, names)
	require.Len(t, j.Features[0].Files, 4)
	require.Empty(t, j.FeatureOf["src/services/box.service.ts"].Feature)
	require.Contains(t, j.FeatureOf["src/services/shelf.service.ts"].Reasons[0], "renamed by hand from shelf")

	j = by(model.Overrule{Kind: "purpose", Target: "src/services", Value: "The rules."})
	require.Equal(t, model.Purpose{Text: "The rules.", Source: "lead"}, j.Folder("src/services").Purpose)

	for _, o := range []model.Overrule{{Kind: "role", Target: "a", Value: "none"}, {Kind: "mood", Target: "a"}, {Kind: "role", Target: "", Value: "helper"}, {Kind: "role", Target: "a[", Value: "helper"}} {
		require.Error(t, weave.CheckOverrule(o))
	}
}

func TestTheGridOfRolesAndFeatures(t *testing.T) {
	s := testkit.Survey(t, spread("src/{k}s/{t}.{k}.ts", "export class {T}{K} {}\n// x", things, []string{"controller", "service", "repository"})+"-- src/services/extra.service.ts --\nexport class Extra {}\n"+"-- src/controllers/late.controller.ts --\nx()\n-- src/services/late.service.ts --\nx()\n")
	j := judgement.Judge(s, model.Brief{}, nil)
	g := weave.GridOf(s, j.Judgement, ".")
	require.Equal(t, []model.Role{model.RoleHandler, model.RoleLogic, model.RoleDataAccess}, g.Roles)
	require.Len(t, g.Features, len(things)+2)
	last := g.Features[len(g.Features)-1]
	require.Empty(t, last.Name, "what is shared stands last")
	for _, c := range g.Features {
		if c.Name == "late" {
			require.Equal(t, []int{2}, c.Missing, "a part that the others have")
		} else {
			require.Empty(t, c.Missing)
		}
	}
	files := 0
	for _, c := range g.Cells {
		files += c.Files
		require.NotEmpty(t, c.Folder)
	}
	require.Equal(t, len(s.Files), files, "each file stands in one cell")
	require.Equal(t, g, weave.GridOf(s, j.Judgement, "."))
	require.Len(t, weave.GridOf(s, j.Judgement, "src/services").Roles, 1)
}

func TestTheGridOfAPlaceTellsHowItsModuleIsCut(t *testing.T) {
	parts := []string{"controller", "service", "repository"}
	s := testkit.Survey(t, "-- desk/package.json --\n{\"name\": \"desk\"}\n-- bench/package.json --\n{\"name\": \"bench\"}\n"+
		spread("desk/{k}s/{t}.{k}.ts", "export class {T}{K} {}\n// x", things, parts)+spread("bench/{t}/{t}.{k}.ts", "export class {T}{K} {}\n// x", things, parts))
	j := judgement.Judge(s, model.Brief{}, nil).Judgement
	for place, want := range map[string][2]string{
		".":                  {".", model.CutMixed},
		"desk":               {"desk", model.CutByKind},
		"desk/services":      {"desk", model.CutByKind},
		"bench/" + things[0]: {"bench", model.CutByFeature},
	} {
		g := weave.GridOf(s, j, place)
		require.Equal(t, want, [2]string{g.CutOf, g.Cut.Label}, place)
	}
}

func TestCellsAreJoinedOnlyWhereTheyLieWhollyInOneFolder(t *testing.T) {
	parts := []string{"controller", "service", "repository"}
	joins := func(tree string) (left, up, cells int) {
		s := testkit.Survey(t, tree)
		for _, c := range weave.GridOf(s, judgement.Judge(s, model.Brief{}, nil).Judgement, ".").Cells {
			cells++
			if c.Left {
				left++
			}
			if c.Up {
				up++
			}
		}
		return left, up, cells
	}
	byFeature := spread("src/{t}/{t}.{k}.ts", "export class {T}{K} {}\n// x", things, parts)
	left, up, cells := joins(byFeature)
	require.Equal(t, []int{0, cells - len(things), len(things) * len(parts)}, []int{left, up, cells}, "columns hold together")

	byKind := spread("src/{k}s/{t}.{k}.ts", "export class {T}{K} {}\n// x", things, parts)
	left, up, cells = joins(byKind)
	require.Equal(t, []int{cells - len(parts), 0, len(things) * len(parts)}, []int{left, up, cells}, "rows hold together")

	// A cell that has files elsewhere as well lies in no one folder.
	left, up, _ = joins(byFeature + spread("old/{t}.{k}.ts", "export class Old{T}{K} {}\n// x", things[:1], parts[1:2]))
	require.Zero(t, left)
	require.Equal(t, cells-len(things)-2, up)
}

func TestAWordOfTheTradeIsTaughtForOneCodebase(t *testing.T) {
	s := testkit.Survey(t, `
-- kilns/warm_kiln.ts --
export function run() {}
-- kilns/cold_kiln.ts --
export function run() {}
-- services/seed_service.ts --
export function run() {}
`)
	by := []model.Overrule{{Kind: model.OverruleWord, Target: "kilns", Value: "logic"}, {Kind: model.OverruleWord, Target: "Service", Value: ""}, {Kind: model.OverruleWord, Target: "services", Value: ""}}
	before := judgement.Judge(s, model.Brief{}, nil)
	after := judgement.JudgeBy(s, judgement.Inputs{Overrules: by})
	require.Equal(t, model.RoleAssumed, before.Roles["kilns/warm_kiln.ts"].Source)
	require.Contains(t, after.Roles["kilns/warm_kiln.ts"].Reasons, "it lies in the folder kilns")
	require.Equal(t, model.RoleLogic, after.Roles["kilns/warm_kiln.ts"].Role)
	require.Equal(t, model.RoleSeen, before.Roles["services/seed_service.ts"].Source)
	require.Equal(t, model.RoleAssumed, after.Roles["services/seed_service.ts"].Source)
	require.Equal(t, before.Roles, judgement.Judge(s, model.Brief{}, nil).Roles, "the lexicon itself stays as it is")
	require.Error(t, weave.CheckOverrule(model.Overrule{Kind: model.OverruleWord, Target: "kilns", Value: "oven"}))
	require.NoError(t, weave.CheckOverrule(by[0]))
	require.Same(t, weave.Words(), weave.Words().With(nil))
}

func TestWhatIsSetForWhatIsNotThereIsSaidAndFailsNothing(t *testing.T) {
	s := testkit.Survey(t, "-- jantel.yaml --\nlayers:\n  - name: logic\n    holds: [\"src/**\", \"gone/**\"]\n-- src/lot.go --\npackage src\n\nfunc Lot() {}\n")
	j := judgement.JudgeBy(s, judgement.Inputs{Overrules: []model.Overrule{
		{Kind: model.OverruleRole, Target: "src/gone.go", Value: "logic"}, {Kind: model.OverruleRole, Target: "src", Value: "logic"},
		{Kind: model.OverruleOrigin, Target: "lib/**", Value: "vendored"}, {Kind: model.OverruleRename, Target: "shelf", Value: "box"},
		{Kind: model.OverruleLink, Target: "src/lot.go\tsrc/gone.go", Value: "by name"}, {Kind: model.OverrulePurpose, Target: "nowhere", Value: "keeps lots"},
		{Kind: model.OverruleWord, Target: "herbarium", Value: "view"},
	}})
	var notes []string
	for _, n := range j.Notes {
		notes = append(notes, n.Text)
	}
	require.Equal(t, []string{
		"role was set by hand for src/gone.go, which is not there; it is kept",
		"origin was set by hand for lib/**, which is not there; it is kept",
		"rename was set by hand for shelf, which is not there; it is kept",
		"link was set by hand for src/lot.go to src/gone.go, which is not there; it is kept",
		"purpose was set by hand for nowhere, which is not there; it is kept",
		"the charter speaks of gone/**, which holds nothing",
	}, notes)
	require.Equal(t, model.RoleLogic, j.Roles["src/lot.go"].Role)
}
