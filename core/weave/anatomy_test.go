package weave_test

import (
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"
	"jantel/core/weave"

	"github.com/stretchr/testify/require"
)

func anatomies(t *testing.T, tree string) map[string]model.Feature {
	out := map[string]model.Feature{}
	for _, f := range judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil).Features {
		out[f.Name] = f
	}
	return out
}

func TestPartsAreCalledAsTheCodebaseCallsThem(t *testing.T) {
	got := anatomies(t, spread("{t}/{k}.go", "package {t}\n\nfunc {T}() {}", things[:4], []string{"dial", "wire", "ledger"}))
	require.Equal(t, map[string][]string{"dial": {"lot/dial.go"}, "wire": {"lot/wire.go"}, "ledger": {"lot/ledger.go"}}, got["lot"].Parts)
	kinds := anatomies(t, spread("{k}s/{t}.js", "export const {t} = 1", things[:4], []string{"handler", "service", "route"}))
	require.Equal(t, []string{"services/lot.js"}, kinds["lot"].Parts["service"], "where its name says nothing else, its folder does")
	named := anatomies(t, spread("src/{t}/{T}{K}.ts", "export class {T}{K} {}", things[:4], []string{"card", "page"}))
	require.Equal(t, []string{"src/lot/LotCard.ts"}, named["lot"].Parts["card"])
}

func TestOneFeatureIsTheSpecimenAndAnotherLacksAPart(t *testing.T) {
	got := anatomies(t, spread("{t}/{k}.go", "package {t}\n\nfunc {T}() {}", things[:3], []string{"dial", "wire", "ledger"})+
		spread("drying/{k}.go", "package drying\n\nfunc D() {}", []string{"x"}, []string{"dial", "wire"})+
		"-- lot/odd.go --\npackage lot\n-- lot/other.go --\npackage lot\n")
	require.Equal(t, []string{"ledger"}, got["drying"].Missing)
	require.Empty(t, got["lot"].Missing)
	specimens := 0
	for _, f := range got {
		if f.Specimen {
			specimens++
			require.Len(t, f.Parts, 3, f.Name)
			require.Empty(t, f.Missing)
		}
	}
	require.Equal(t, 1, specimens)
	require.False(t, got["drying"].Specimen)
}

func TestFeaturesBuiltInNoOneWayHaveNoSpecimen(t *testing.T) {
	for _, f := range anatomies(t, "-- lot/a.go --\npackage lot\n\nfunc Lot() {}\n-- lot/b.go --\npackage lot\n-- box/c.go --\npackage box\n\nfunc Box() {}\n-- box/d.go --\npackage box\n-- shelf/e.go --\npackage shelf\n\nfunc S() {}\n-- shelf/f.go --\npackage shelf\n") {
		require.False(t, f.Specimen, f.Name)
		require.Empty(t, f.Missing, f.Name)
	}
}

func TestAFeatureIsReadFromTheOutsideIn(t *testing.T) {
	f := &model.Feature{Files: []string{"a/data.go", "b/view.go", "c/route.go"}}
	roles := map[string]model.RoleOf{"a/data.go": {Role: model.RoleDataAccess}, "b/view.go": {Role: model.RoleView}, "c/route.go": {Role: model.RoleRouting}}
	require.Equal(t, []string{"c/route.go", "b/view.go", "a/data.go"}, weave.InReadingOrder(f, roles))
}
