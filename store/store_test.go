package store_test

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"sync"
	"testing"

	"jantel/core/model"
	"jantel/core/source"
	"jantel/core/survey"
	"jantel/core/testkit"
	"jantel/review"
	"jantel/store"

	"github.com/stretchr/testify/require"
)

func openReview(t *testing.T, dir string) (*store.Review, review.Codebase) {
	t.Helper()
	r, err := store.OpenReview(context.Background(), dir)
	require.NoError(t, err)
	t.Cleanup(func() { _ = r.Close() })
	c, err := r.AddCodebase(context.Background(), review.Codebase{Name: "vault", Kind: "folder", Path: "/vault"})
	require.NoError(t, err)
	return r, c
}

func TestOfManyWhoSaveAtOnceOneWinsAndTheOthersAreTold(t *testing.T) {
	ctx := context.Background()
	r, c := openReview(t, t.TempDir())
	f, err := r.AddFinding(ctx, review.Finding{Codebase: c.ID, Kind: review.Fix, Title: "a", Place: review.Place{Path: "."}})
	require.NoError(t, err)
	var wg sync.WaitGroup
	results := make([]error, 16)
	for i := range results {
		wg.Go(func() {
			title := fmt.Sprintf("from %d", i)
			_, results[i] = r.ChangeFinding(ctx, c.ID, f.ID, 1, review.Patch{Title: &title}, "")
		})
	}
	wg.Wait()
	won := 0
	for _, err := range results {
		if err == nil {
			won++
			continue
		}
		var conflict *review.Conflict
		require.ErrorAs(t, err, &conflict)
		require.Equal(t, int64(2), conflict.Current.Version)
	}
	require.Equal(t, 1, won)
	log, err := r.Changes(ctx, c.ID, f.ID)
	require.NoError(t, err)
	require.Len(t, log, 1)
}

func TestWhatIsWrongChangesNothing(t *testing.T) {
	ctx := context.Background()
	r, c := openReview(t, t.TempDir())
	f, err := r.AddFinding(ctx, review.Finding{Codebase: c.ID, Kind: review.Fix, Title: "a", Place: review.Place{Path: "."}})
	require.NoError(t, err)
	empty, odd := "  ", review.Kind("odd")
	for _, p := range []review.Patch{{Title: &empty}, {Kind: &odd}} {
		_, err := r.ChangeFinding(ctx, c.ID, f.ID, 1, p, "")
		require.ErrorIs(t, err, review.ErrInvalid)
	}
	now, err := r.Finding(ctx, c.ID, f.ID)
	require.NoError(t, err)
	f.Counter = 0 // told of a change alone
	require.Equal(t, f, now)
	_, err = r.Finding(ctx, c.ID+1, f.ID)
	require.ErrorIs(t, err, review.ErrNotFound, "a finding belongs to its codebase")
	_, err = r.AddFinding(ctx, review.Finding{Codebase: 99, Kind: review.Fix, Title: "a", Place: review.Place{Path: "."}})
	require.ErrorIs(t, err, review.ErrNotFound)
}

func TestRemovingACodebaseTakesItsReviewAlong(t *testing.T) {
	ctx := context.Background()
	r, c := openReview(t, t.TempDir())
	_, err := r.AddFinding(ctx, review.Finding{Codebase: c.ID, Kind: review.Fix, Title: "a", Place: review.Place{Path: "."}})
	require.NoError(t, err)
	same, err := r.AddCodebase(ctx, review.Codebase{Name: "other", Kind: "folder", Path: "/vault"})
	require.NoError(t, err)
	require.Equal(t, c.ID, same.ID, "one path is one codebase")
	require.NoError(t, r.RemoveCodebase(ctx, c.ID))
	require.ErrorIs(t, r.RemoveCodebase(ctx, c.ID), review.ErrNotFound)
	list, err := r.Findings(ctx, c.ID)
	require.NoError(t, err)
	require.Empty(t, list)
}

func TestEverythingIsThereAfterOpeningAgain(t *testing.T) {
	ctx, dir := context.Background(), t.TempDir()
	r, c := openReview(t, dir)
	f, err := r.AddFinding(ctx, review.Finding{Codebase: c.ID, Kind: review.Keep, Title: "é 'quoted' \"x\"", Text: "*t*", Labels: []string{"b"}, Place: review.Place{Path: "a/b.go", Line: 2, EndLine: 3, Quote: "x\ny"}, Evidence: []model.Evidence{{Path: "c", Line: 1, Note: "n"}}})
	require.NoError(t, err)
	_, _, err = r.MarkRead(ctx, c.ID, map[string]string{"a/b.go": "h"}, true, "Maren")
	require.NoError(t, err)
	require.NoError(t, r.Close())
	r, _ = openReview(t, dir)
	list, err := r.Findings(ctx, c.ID)
	require.NoError(t, err)
	f.Counter = 0 // told of a change alone
	require.Equal(t, []review.Finding{f}, list)
	marks, err := r.ReadMarks(ctx, c.ID)
	require.NoError(t, err)
	require.Equal(t, "h", marks["a/b.go"].Hash)
	info, err := os.Stat(filepath.Join(dir, "review.db"))
	require.NoError(t, err)
	require.Equal(t, os.FileMode(0o600), info.Mode().Perm(), "for its owner alone")
}

func TestASurveyComesBackAsItWas(t *testing.T) {
	ctx := context.Background()
	facts, err := store.OpenFacts(ctx, t.TempDir())
	require.NoError(t, err)
	defer func() { require.NoError(t, facts.Close()) }()
	dir := testkit.Tree(t, "-- go.mod --\nmodule v\n-- a.go --\npackage a\n\nfunc A() {}\n-- b/b.go --\npackage b\n\nimport \"v\"\n\nvar _ = v.A\n-- run --\n#!/usr/bin/python3\nx = 1\n-- p.bin --\n\x00\n")
	for range 2 { // the second time from the cache
		src, err := source.Open(ctx, source.Request{Path: dir})
		require.NoError(t, err)
		keeper := facts.KeepTexts(ctx)
		s, err := survey.Run(ctx, src, survey.Options{Name: "v", Key: dir, Cache: facts, Keep: keeper.Keep})
		require.NoError(t, err)
		require.NoError(t, keeper.Flush())
		require.NoError(t, src.Close())
		require.NoError(t, facts.SaveSurvey(ctx, 7, s))
		back, err := facts.Survey(ctx, 7)
		require.NoError(t, err)
		require.Equal(t, s.Links, back.Links)
		for i := range s.Files {
			require.Equal(t, s.Files[i], back.Files[i])
		}
		text, err := facts.Text(ctx, s.File("a.go").Hash)
		require.NoError(t, err)
		require.Equal(t, "package a\n\nfunc A() {}\n", string(text))
	}
	_, err = facts.Survey(ctx, 8)
	require.ErrorIs(t, err, review.ErrNotFound)
	_, err = facts.Forget(ctx, []int64{7}, "")
	require.NoError(t, err)
	_, err = facts.Survey(ctx, 7)
	require.ErrorContains(t, err, "survey the codebase again")
}

func TestABrokenFactsFileIsPutAside(t *testing.T) {
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "facts.db"), []byte("this is no database, only words that are long enough"), 0o600))
	facts, err := store.OpenFacts(context.Background(), dir)
	require.NoError(t, err)
	require.NoError(t, facts.Close())
	require.FileExists(t, filepath.Join(dir, "facts.db.broken"))
	// What people wrote is never put aside.
	require.NoError(t, os.WriteFile(filepath.Join(dir, "review.db"), []byte("this is no database, only words that are long enough"), 0o600))
	_, err = store.OpenReview(context.Background(), dir)
	require.ErrorContains(t, err, "review.db")
	require.NoFileExists(t, filepath.Join(dir, "review.db.broken"))
}

func TestADataFolderThatCanNotBeMadeIsSaid(t *testing.T) {
	file := filepath.Join(t.TempDir(), "file")
	require.NoError(t, os.WriteFile(file, nil, 0o600))
	_, err := store.OpenReview(context.Background(), filepath.Join(file, "data"))
	require.ErrorContains(t, err, "--data")
}

func TestEachPartOfAReviewIsCountedByItself(t *testing.T) {
	ctx := context.Background()
	r, c := openReview(t, t.TempDir())
	before, err := r.Touched(ctx, c.ID)
	require.NoError(t, err)
	f, err := r.AddFinding(ctx, review.Finding{Codebase: c.ID, Kind: review.Fix, Title: "a", Place: review.Place{Path: "."}})
	require.NoError(t, err)
	words := "b"
	g, err := r.ChangeFinding(ctx, c.ID, f.ID, 1, review.Patch{Title: &words}, "")
	require.NoError(t, err)
	require.Equal(t, f.Counter+1, g.Counter, "each change has the next number")
	_, _, err = r.MarkRead(ctx, c.ID, map[string]string{"a.go": "h"}, true, "")
	require.NoError(t, err)
	require.NoError(t, r.Overrule(ctx, c.ID, model.Overrule{Kind: model.OverruleRole, Target: "a.go", Value: "logic"}, false))
	after, err := r.Touched(ctx, c.ID)
	require.NoError(t, err)
	for part, n := range map[review.Part]int64{review.PartFindings: 2, review.PartMarks: 1, review.PartJudged: 1, review.PartArrangement: 0} {
		require.Equal(t, n, after[part]-before[part], part)
	}
	_, counter, err := r.FindingsNow(ctx, c.ID)
	require.NoError(t, err)
	require.Equal(t, g.Counter, counter)
}
