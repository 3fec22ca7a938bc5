package demo_test

import (
	"context"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"jantel/core/testkit"
	"jantel/demo"
	"jantel/review"
	"jantel/server"
	"jantel/server/worker"

	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) {
	if worker.IsWorker() {
		os.Exit(worker.Main())
	}
	os.Exit(m.Run())
}

func TestTheHistoryComesOutTheSameEachTime(t *testing.T) {
	ctx := context.Background()
	a, b := filepath.Join(t.TempDir(), "v"), filepath.Join(t.TempDir(), "v")
	require.NoError(t, demo.Make(ctx, a))
	require.NoError(t, demo.Make(ctx, b))
	for _, tag := range []string{"before", "after"} {
		require.Equal(t, testkit.Git(t, a, "rev-parse", tag), testkit.Git(t, b, "rev-parse", tag))
	}
	require.GreaterOrEqual(t, len(strings.Split(testkit.Git(t, a, "log", "--format=%h"), "\n")), 60)
	require.Equal(t, "main", testkit.Git(t, a, "branch", "--show-current"))
	require.Empty(t, testkit.Git(t, a, "status", "--porcelain"))
	authors := map[string]bool{}
	for _, n := range strings.Split(testkit.Git(t, a, "log", "--format=%an"), "\n") {
		authors[n] = true
	}
	require.Len(t, authors, 4)
	require.NoError(t, demo.Make(ctx, a), "made once, it is kept")
}

func TestTheDemoIsFilledOnce(t *testing.T) {
	ctx, cancel := context.WithCancel(context.Background())
	data := t.TempDir()
	repo := filepath.Join(data, "hollin-vault")
	require.NoError(t, demo.Make(ctx, repo))
	s, err := server.New(ctx, server.Config{Addr: "127.0.0.1:0", Data: data, Allow: []string{repo}})
	require.NoError(t, err)
	done := make(chan error, 1)
	go func() { done <- s.Serve(ctx) }()
	for range 2 {
		require.NoError(t, demo.Fill(ctx, s, repo))
		all, err := s.Review().Codebases(ctx)
		require.NoError(t, err)
		require.Len(t, all, 1)
		found, err := s.Review().Findings(ctx, all[0].ID)
		require.NoError(t, err)
		require.GreaterOrEqual(t, len(found), 12)
		kinds, states := map[review.Kind]bool{}, map[review.State]bool{}
		smells := 0
		for _, f := range found {
			kinds[f.Kind], states[f.State] = true, true
			if f.Smell != "" {
				smells++
			}
		}
		require.Len(t, kinds, len(review.Kinds), "of every kind")
		require.Len(t, states, len(review.States), "and of every state")
		require.GreaterOrEqual(t, smells, 3)
		shown, err := s.Review().Pictures(ctx, all[0].ID, "desk/src/components/ShelfPicker.tsx", "ShelfPicker")
		require.NoError(t, err)
		require.Len(t, shown, 1)
		require.NoError(t, review.CheckBoxes(shown[0].Boxes))
		for _, b := range shown[0].Boxes {
			text, err := os.ReadFile(filepath.Join(repo, b.Path))
			require.NoError(t, err)
			line := strings.Split(string(text), "\n")[b.Line-1]
			require.Regexp(t, `^export (function|const) `+b.Name+`\b`, line, "a box is tied to what draws it")
		}
	}
	cancel()
	require.NoError(t, <-done)
}
