package routes_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"jantel/core/model"
	"jantel/core/routes"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func whole(string) string { return "." }

func listed(rows ...string) (out []model.Route) {
	for i, r := range rows {
		x := model.Route{Path: "routes.ts", Line: i + 1}
		var guard string
		_, _ = fmt.Sscan(r, &x.Method, &x.Pattern, &guard)
		if guard != "" {
			x.Guards = []string{guard}
		}
		out = append(out, x)
	}
	return out
}

func TestRoutesOfOneThingAreAResourceWithItsGaps(t *testing.T) {
	for name, c := range map[string]struct {
		rows []string
		want string
	}{
		"all five, and what is done with one": {
			[]string{"GET /lots", "POST /lots", "GET /lots/:id", "PATCH /lots/:id", "DELETE /lots/:id", "POST /lots/:id/dry", "GET /lots/new"},
			"/lots has 5 of 7, lacks []",
		},
		"none that deletes":                    {[]string{"GET /lots", "GET /lots/{id}", "PUT /lots/{id}"}, "/lots has 3 of 3, lacks [create delete]"},
		"one below another":                    {[]string{"GET /lots/<id>/boxes", "GET /lots/<id>/boxes/<n>", "GET /lots", "GET /lots/<id>"}, "/lots has 2 of 2, lacks [create update delete]; /lots/<id>/boxes has 2 of 2, lacks [create update delete]"},
		"a page and a health check are none":   {[]string{"GET /", "GET /about", "GET /health"}, ""},
		"one route alone says nothing of gaps": {[]string{"GET /lots/:id", "GET /growers"}, ""},
		"what is done at an address of its own": {
			[]string{"GET /lots", "GET /lots/:id", "POST /lots/add", "POST /lots/:id/delete", "GET /lots/new"},
			"/lots has 4 of 5, lacks [update], at another address [create delete]",
		},
		"the usual address goes before an odd one": {
			[]string{"POST /lots/add", "POST /lots", "GET /lots/:id"}, "/lots has 2 of 3, lacks [list update delete]",
		},
	} {
		t.Run(name, func(t *testing.T) {
			got := ""
			for _, x := range routes.Resources(listed(c.rows...), whole) {
				if got != "" {
					got += "; "
				}
				got += fmt.Sprintf("%s has %d of %d, lacks %v", x.Pattern, len(x.Has), len(x.Routes), x.Missing)
				if len(x.Odd) > 0 {
					got += fmt.Sprintf(", at another address %v", x.Odd)
				}
			}
			require.Equal(t, c.want, got)
		})
	}
}

func TestServicesOfOneRepositoryHaveResourcesOfTheirOwn(t *testing.T) {
	rows := listed("GET /lots", "GET /lots/:id", "POST /lots", "GET /lots/:id")
	rows[2].Path, rows[3].Path = "bench/app.ts", "bench/app.ts"
	xs := routes.Resources(rows, model.FolderOf)
	require.Len(t, xs, 2)
	require.Equal(t, []string{".", "bench"}, []string{xs[0].In, xs[1].In})
}

func TestARouteThatAsksNothingAmongOthersThatDoIsOpen(t *testing.T) {
	xs := routes.Resources(listed("GET /lots signedIn", "POST /lots signedIn", "DELETE /lots/:id"), whole)
	require.Equal(t, []string{"signedIn"}, xs[0].Guards)
	require.Equal(t, []int{2}, xs[0].Open)
	none := routes.Resources(listed("GET /lots", "POST /lots", "DELETE /lots/:id"), whole)
	require.Empty(t, none[0].Open, "where none asks, none stands out")
}

func TestTheStandardFormStandsBesideTheRowsItWouldReplace(t *testing.T) {
	s := testkit.Survey(t, `
-- composer.json --
{"require": {"laravel/framework": "11"}}
-- routes/web.php --
<?php
use App\Http\Controllers\LotController;
Route::get('/lots', [LotController::class, 'index']);
Route::get('/lots/{lot}', [LotController::class, 'show']);
Route::post('/lots/save', [LotController::class, 'store']);
Route::patch('/lots/{lot}', [LotController::class, 'update']);
-- app/Http/Controllers/LotController.php --
<?php
namespace App\Http\Controllers;
class LotController { function index() {} function show($lot) {} function store() {} function update($lot) {} }
`)
	all := routes.Of(s)
	xs := routes.Resources(all, whole)
	require.Len(t, xs, 1)
	std := xs[0].Standard
	require.NotNil(t, std)
	require.Equal(t, "Route::resource('lots', LotController::class)->only(['index', 'store', 'show', 'update']);", std.Text)
	require.Len(t, std.Replaces, 4)
	require.Len(t, std.Otherwise, 1)
	require.Equal(t, "POST /lots/save", std.Otherwise[0].Now)
	require.Equal(t, "POST /lots", std.Otherwise[0].Then)
}

func TestWhichRouteAnswersFirst(t *testing.T) {
	order := func(rows []model.Route, method, typed string) (out []string) {
		for _, i := range routes.Answering(rows, method, typed) {
			out = append(out, rows[i].Method+" "+rows[i].Pattern)
		}
		return out
	}
	rows := listed("GET /lots/:id", "GET /lots/new", "POST /lots/:id", "ANY /*")
	require.Equal(t, []string{"GET /lots/:id", "GET /lots/new", "ANY /*"}, order(rows, "GET", "/lots/new"), "declared first")
	require.Equal(t, []string{"POST /lots/:id", "ANY /*"}, order(rows, "POST", "/lots/7"))
	require.Equal(t, "GET /lots/:id", order(rows, "HEAD", "/lots/7")[0])
	require.Len(t, order(rows, "", "/lots/7"), 3, "whatever the method")
	require.Equal(t, []string{"ANY /*"}, order(rows, "DELETE", "/lots/7"))
	for i := range rows {
		rows[i].Path = "routes.go"
	}
	require.Equal(t, []string{"GET /lots/new", "GET /lots/:id", "ANY /*"}, order(rows, "GET", "/lots/new"), "the most exact")
}

func TestWhatAnswersFirstDoesNotDependOnTheOrderOfTheList(t *testing.T) {
	for _, file := range []string{"routes.ts", "routes.go"} {
		rows := listed("GET /lots/:id", "GET /lots/new", "ANY /*", "GET /lots/:id/boxes", "POST /lots/:id", "GET /*", "GET /lots/:other")
		for i := range rows {
			rows[i].Path = file
		}
		for _, typed := range []string{"/lots/new", "/lots/7", "/lots/7/boxes", "/", "/nothing/at/all"} {
			var want []string
			for shuffle := range uint64(20) {
				mixed := slices.Clone(rows)
				rand.New(rand.NewPCG(shuffle, 1)).Shuffle(len(mixed), func(i, j int) { mixed[i], mixed[j] = mixed[j], mixed[i] })
				var got []string
				for _, i := range routes.Answering(mixed, "GET", typed) {
					require.True(t, routes.Match(mixed[i].Pattern, typed))
					got = append(got, mixed[i].Pattern)
				}
				if shuffle == 0 {
					want = got
				}
				require.Equal(t, want, got, "%s in %s", typed, file)
			}
		}
	}
}

func FuzzResources(f *testing.F) {
	f.Add("/lots/:id", "GET", "/lots/{id", "//")
	f.Fuzz(func(t *testing.T, one, method, other, typed string) {
		rows := []model.Route{{Pattern: one, Method: method, Path: "a.rb", HandlerName: "lots#index"}, {Pattern: other, Method: "GET", Path: "a.rb"}, {Pattern: one + "/:id", Method: "GET", Path: "a.php"}}
		for _, x := range routes.Resources(rows, model.FolderOf) {
			require.GreaterOrEqual(t, len(x.Has), 2)
			for _, i := range x.Routes {
				require.Less(t, i, len(rows))
			}
		}
		routes.Answering(rows, method, typed)
	})
}
