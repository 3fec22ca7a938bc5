package naming_test

import (
	"strings"
	"testing"

	"jantel/core/naming"

	"github.com/stretchr/testify/require"
)

func TestNamesAreTakenApartIntoWords(t *testing.T) {
	for name, want := range map[string]string{
		"seedLotHTTPView2": "seed lot http view 2",
		"seed_lot":         "seed lot",
		"seed-lot.view":    "seed lot view",
		"SEED_LOT":         "seed lot",
		"Seed":             "seed",
		"HTTPServer":       "http server",
		"x":                "x",
		"":                 "",
		"__init__":         "init",
		"lot2box":          "lot 2 box",
	} {
		require.Equal(t, want, strings.Join(naming.Words(name), " "), name)
	}
}

func TestAStemIsANameWithoutItsEndings(t *testing.T) {
	for name, want := range map[string]string{
		"desk/seed-lot.test.ts": "seed-lot",
		"seed.go":               "seed",
		".eslintrc.json":        ".eslintrc",
		"Makefile":              "Makefile",
		"a/b/c.d.ts":            "c",
	} {
		require.Equal(t, want, naming.Stem(name), name)
	}
}

func TestCasesAreToldApart(t *testing.T) {
	same := func(a, b string) {
		t.Helper()
		require.Equal(t, naming.CaseOf(a), naming.CaseOf(b), "%s and %s", a, b)
	}
	other := func(a, b string) {
		t.Helper()
		require.NotEqual(t, naming.CaseOf(a), naming.CaseOf(b), "%s and %s", a, b)
	}
	same("seedLot", "weightTag")
	same("SeedLot", "WeightTag")
	same("seed-lot", "weight-tag")
	same("seed_lot", "weight_tag")
	other("seedLot", "SeedLot")
	other("seed-lot", "seed_lot")
	other("seedLot", "seed_lot")
}

func TestANumberAtTheEndIsToldFromOneThatBelongs(t *testing.T) {
	for name, want := range map[string]string{"pack1": "pack|1", "panel12": "panel|12", "pack": "", "utf8": "", "sha256": "", "7": ""} {
		base, digits, ok := naming.Number(name)
		if want == "" {
			require.False(t, ok, name)
			continue
		}
		require.True(t, ok, name)
		require.Equal(t, want, base+"|"+digits)
	}
}

func FuzzWords(f *testing.F) {
	f.Add("seedLotHTTPView2")
	f.Add("\xff_ä")
	f.Fuzz(func(t *testing.T, name string) {
		for _, w := range naming.Words(name) {
			require.NotEmpty(t, w)
			require.Equal(t, strings.ToLower(w), w)
		}
	})
}

func TestAPackageIsNoPartOfAName(t *testing.T) {
	for name, want := range map[string]string{"Vault::Lots::weigh": "weigh", "vault.lots.Weigh": "Weigh", `Vault\Lots`: "Lots", "weigh": "weigh", "Vault::": "Vault::"} {
		require.Equal(t, want, naming.Own(name))
	}
}

func TestShortWordsStandForThemselves(t *testing.T) {
	require.True(t, naming.Whole("set"))
	require.True(t, naming.Whole("peer"))
	require.False(t, naming.Whole("cfg"))
	require.False(t, naming.Whole("ctx"))
	require.True(t, naming.FormOf("limited", "limit"))
	require.False(t, naming.FormOf("configuration", "config"))
}

func TestSingularKnowsWordsOfTheirOwn(t *testing.T) {
	for many, one := range map[string]string{
		"species": "species", "series": "series", "canvas": "canvas", "status": "status", "statuses": "status", "cookies": "cookie",
		"graphics": "graphics", "physics": "physics", "topics": "topic", "metrics": "metric", "moorgraphics": "moorgraphics", "deviceatlas": "deviceatlas",
		"indices": "index", "queries": "query", "shelves": "shelf", "boxes": "box", "caches": "cache", "lots": "lot", "dns": "dns",
	} {
		require.Equal(t, one, naming.Singular(many), many)
	}
}
