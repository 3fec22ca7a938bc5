package routes_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"jantel/core/model"
	"jantel/core/routes"

	"github.com/stretchr/testify/require"
)

func inOrder(patterns ...string) (all []model.Route) {
	for i, p := range patterns {
		all = append(all, model.Route{Method: "GET", Pattern: p, Path: "app.js", Line: i + 1, App: "app.js", Order: i + 1})
	}
	return all
}

func TestWhichAddressesWouldBeAnsweredOtherwise(t *testing.T) {
	all := inOrder("/lots/new", "/lots/:id", "/growers", "/*")
	for name, c := range map[string]struct {
		which   int
		method  string
		pattern string
		want    []string
	}{
		"nothing changes":                 {1, "GET", "/lots/:id", []string{}},
		"by another name nothing changes": {1, "GET", "/lots/{lot}", []string{}},
		"what was hidden behind it comes out": {0, "GET", "/lots/blank", []string{
			"GET /lots/new: /lots/new then /lots/:id", "GET /lots/blank: /lots/:id then /lots/new",
		}},
		"it hides what stands behind it": {1, "GET", "/:what", []string{
			"GET /lots/7: /lots/:id then /*", "GET /7: /* then /lots/:id", "GET /growers: /growers then /lots/:id",
		}},
		"another method": {2, "POST", "/growers", []string{"GET /growers: /growers then /*", "POST /growers: none then /growers"}},
	} {
		t.Run(name, func(t *testing.T) {
			name := func(i int) string {
				if i < 0 {
					return "none"
				}
				return all[i].Pattern
			}
			got := []string{}
			for _, x := range routes.Otherwise(all, c.which, c.method, c.pattern) {
				got = append(got, fmt.Sprintf("%s %s: %s then %s", x.Method, x.Address, name(x.Now), name(x.Then)))
			}
			require.Subset(t, c.want, got)
			require.Subset(t, got, c.want)
		})
	}
}

// Whatever is tried: what is told is what asking before and after tells, and trying
// a route as it is tells nothing.
func TestTryingAPatternTellsWhatAskingTells(t *testing.T) {
	words := []string{"lots", "new", ":id", "{x}", "growers", "*"}
	pattern := func(r *rand.Rand) (p string) {
		for range 1 + r.IntN(3) {
			p += "/" + words[r.IntN(len(words))]
		}
		return p
	}
	first := func(in []model.Route, address string) int {
		if fits := routes.Answering(in, "GET", address); len(fits) > 0 {
			return fits[0]
		}
		return -1
	}
	for seed := range uint64(400) {
		r := rand.New(rand.NewPCG(seed, 11))
		var patterns []string
		for range 1 + r.IntN(8) {
			patterns = append(patterns, pattern(r))
		}
		all, other := inOrder(patterns...), pattern(r)
		which := r.IntN(len(all))
		require.Empty(t, routes.Otherwise(all, which, all[which].Method, all[which].Pattern))
		changed := slices.Clone(all)
		changed[which].Pattern = other
		for _, x := range routes.Otherwise(all, which, "GET", other) {
			require.NotEqual(t, x.Now, x.Then)
			require.Equal(t, first(all, x.Address), x.Now, "%v", patterns)
			require.Equal(t, first(changed, x.Address), x.Then, "%v, %s in the place of %d", patterns, other, which)
		}
		require.True(t, routes.Match(other, routes.Sample(other)), "a sample fits its pattern")
	}
}
