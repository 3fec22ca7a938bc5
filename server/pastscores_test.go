package server_test

import (
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"jantel/core/testkit"
	"jantel/server"

	"github.com/stretchr/testify/require"
)

func TestHowAScoreCameAboutIsToldOnDemand(t *testing.T) {
	dir := testkit.Tree(t, "-- lots.ts --\nexport function weigh(lot: number) {\n  return lot + 1\n}\n")
	git := func(args ...string) { testkit.Git(t, dir, args...) }
	git("init", "-q", "-b", "main")
	commit := func(n int) {
		git("add", ".")
		git("-c", "user.name=ida", "-c", "user.email=ida@vault.example", "commit", "-q", "-m", fmt.Sprintf("Step %d", n))
	}
	commit(0)
	for n := 1; n <= 3; n++ { // it grows worse
		long := "export function weigh(lot: number) {\n" + strings.Repeat("  lot = step(lot)\n", 150*n) + "  return lot\n}\n"
		require.NoError(t, os.WriteFile(filepath.Join(dir, "lots.ts"), []byte(long), 0o600))
		commit(n)
	}
	p := start(t, dir)
	id := p.takeIn(dir)
	past := fmt.Sprintf("/api/codebases/%d/past", id)
	var told server.PastScores
	p.get(past, &told)
	require.Equal(t, "none", told.State)
	p.do(http.MethodPost, past, struct{}{}, &told)
	require.Equal(t, "running", told.State)
	require.Eventually(t, func() bool {
		p.get(past, &told)
		return told.State != "running"
	}, time.Minute, 20*time.Millisecond)
	require.Equal(t, "done", told.State, told.Problem)
	require.Equal(t, 4, told.Of)
	require.Len(t, told.Scores, 4)
	for i, s := range told.Scores {
		require.Len(t, s.Revision, 40)
		require.NotNil(t, s.Legibility.Units)
		if i > 0 {
			require.LessOrEqual(t, *s.Legibility.Units, *told.Scores[i-1].Legibility.Units, "each step is longer")
		}
	}
	require.Less(t, *told.Scores[3].Legibility.Units, *told.Scores[0].Legibility.Units)
	p.do(http.MethodPost, past, struct{}{}, &told)
	require.Equal(t, "done", told.State, "what is told is not told anew")
}

func TestWhatHasNoHistoryHasNoPast(t *testing.T) {
	dir := testkit.Tree(t, system)
	p := start(t, dir)
	id := p.takeIn(dir)
	r, body := p.send(http.MethodPost, fmt.Sprintf("/api/codebases/%d/past", id), struct{}{})
	require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode)
	require.Contains(t, string(body), "no history")
	r, _ = p.send(http.MethodPost, "/api/codebases/99/past", struct{}{})
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}
