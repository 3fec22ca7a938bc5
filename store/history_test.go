package store_test

import (
	"context"
	"testing"

	"jantel/core/routes"
	"jantel/core/source"
	"jantel/core/survey"
	"jantel/core/testkit"
	"jantel/store"

	"github.com/stretchr/testify/require"
)

// Whatever a survey tells must be the same when it comes back from the file:
// a view must not change because the server was started again.
func TestHistoryAndEveryLanguageComeBackAsTheyWere(t *testing.T) {
	ctx := context.Background()
	dir := testkit.Repository(t, `
-- a.ts --
import { b } from './b'
const app = express()
app.get('/lots', b)
const port = process.env.PORT
-- b.ts --
export const b = () => 1
-- A.java --
package v;
class A extends B { String s = System.getenv("X"); @GetMapping("/x") void f() {} }
-- B.java --
package v;
class B {}
-- a.php --
<?php
namespace V;
class C extends D {}
-- d.php --
<?php
namespace V;
class D {}
-- a.rb --
class E < F; end
-- f.rb --
class F; end
-- A.cs --
namespace V;
class G : H { }
-- H.cs --
namespace V;
class H { }
-- a.py --
from b import c
-- b.py --
def c(): pass
-- composer.json --
{ "require": { "psr/log": "^3" } }
-- pom.xml --
<project><artifactId>v</artifactId></project>
`)
	facts, err := store.OpenFacts(ctx, t.TempDir())
	require.NoError(t, err)
	defer func() { require.NoError(t, facts.Close()) }()
	testkit.Git(t, dir, "commit", "-q", "--allow-empty", "-m", "second")
	src, err := source.Open(ctx, source.Request{Path: dir, Revision: "main"})
	require.NoError(t, err)
	s, err := survey.Run(ctx, src, survey.Options{Name: "v", Key: dir, Cache: facts})
	require.NoError(t, err)
	require.NoError(t, src.Close())
	require.Equal(t, 2, s.History.Commits)
	require.NoError(t, facts.SaveSurvey(ctx, 1, s))
	back, err := facts.Survey(ctx, 1)
	require.NoError(t, err)
	require.Equal(t, s.History, back.History)
	require.Equal(t, s.Links, back.Links)
	require.Equal(t, s.External, back.External)
	require.Len(t, back.Files, len(s.Files))
	for i := range s.Files {
		require.Equal(t, s.Files[i], back.Files[i], s.Files[i].Path)
	}
	require.Equal(t, routes.Of(s), routes.Of(back))
	require.Len(t, routes.Of(back), 2)
}

func TestASecondSurveyFromTheCacheIsTheFirst(t *testing.T) {
	ctx := context.Background()
	dir := testkit.Repository(t, "-- a.rb --\nclass A < B; end\n-- b.rb --\nclass B; end\n-- run --\n#!/usr/bin/env ruby\nrequire './a'\n")
	facts, err := store.OpenFacts(ctx, t.TempDir())
	require.NoError(t, err)
	defer func() { require.NoError(t, facts.Close()) }()
	for _, rev := range []string{"main", ""} {
		var first, second any
		for _, into := range []*any{&first, &second} {
			src, err := source.Open(ctx, source.Request{Path: dir, Revision: rev})
			require.NoError(t, err)
			s, err := survey.Run(ctx, src, survey.Options{Name: "v", Key: "k" + rev, Cache: facts})
			require.NoError(t, err)
			require.NoError(t, src.Close())
			*into = []any{s.Files, s.Links, s.History, s.Notes}
		}
		require.Equal(t, first, second, "revision %q", rev)
	}
}
