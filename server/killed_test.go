package server_test

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"jantel/core/testkit"
	"jantel/review"
	"jantel/server"
	"jantel/server/worker"
	"jantel/store"

	"github.com/stretchr/testify/require"
)

// times is how often something is killed: the whole number of times when the
// hostile bench runs, else a few.
func times(whole, few int) int {
	if os.Getenv("HOSTILE") != "" {
		return whole
	}
	return few
}

// process is a server in a process of its own.
func process(t *testing.T, data, allow string) (*exec.Cmd, *page) {
	t.Helper()
	cmd := exec.Command(os.Args[0])
	cmd.Env = append(os.Environ(), "JANTEL_TEST_SERVER="+data, "JANTEL_TEST_ALLOW="+allow)
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	url, err := bufio.NewReader(out).ReadString('\n')
	require.NoError(t, err, url)
	t.Cleanup(func() {
		_ = cmd.Process.Kill()
		_ = cmd.Wait()
	})
	return cmd, signIn(t, strings.TrimSpace(url), nil)
}

func TestAKilledServerLosesNothingItAcknowledged(t *testing.T) {
	dir, data := testkit.Tree(t, tree), t.TempDir()
	var id int64
	acknowledged := map[string]bool{}
	for n := range times(100, 5) {
		cmd, p := process(t, data, dir)
		if n == 0 {
			id = p.takeIn(dir)
		}
		var mu sync.Mutex
		var writers sync.WaitGroup
		for w := range 4 {
			writers.Go(func() {
				for i := 0; ; i++ {
					title := fmt.Sprintf("%d by %d, number %d", n, w, i)
					body := strings.NewReader(fmt.Sprintf(`{"kind":"ask","title":%q,"path":"."}`, title))
					r, err := http.NewRequest(http.MethodPost, p.base+fmt.Sprintf("/api/codebases/%d/findings", id), body)
					if err != nil {
						return
					}
					r.Header.Set("Origin", p.base)
					r.Header.Set("Content-Type", "application/json")
					answer, err := p.client.Do(r)
					if err != nil {
						return // it is dead
					}
					_ = answer.Body.Close()
					if answer.StatusCode == http.StatusOK {
						mu.Lock()
						acknowledged[title] = true
						mu.Unlock()
					}
				}
			})
		}
		for { // in the middle of it
			mu.Lock()
			enough := len(acknowledged) > 8*(n+1)
			mu.Unlock()
			if enough {
				break
			}
		}
		require.NoError(t, cmd.Process.Kill())
		writers.Wait()
		_ = cmd.Wait()
	}
	_, p := process(t, data, dir)
	var list review.List
	p.get(fmt.Sprintf("/api/codebases/%d/findings?count=1000", id), &list)
	there := map[string]bool{}
	for _, f := range list.Rows {
		there[f.Title] = true
	}
	for title := range acknowledged {
		require.True(t, there[title], "%q was acknowledged and is lost", title)
	}
	faults, err := store.Verify(context.Background(), data)
	require.NoError(t, err)
	require.Empty(t, faults)
}

func TestAServerKilledDuringASurveyLeavesNothingBehind(t *testing.T) {
	dir, data := testkit.Tree(t, tree), t.TempDir()
	var big strings.Builder
	for i := range 3000 {
		fmt.Fprintf(&big, "-- more%d/f.go --\npackage d\n%s\n", i, strings.Repeat("func F() {}\n", 50))
	}
	var id int64
	for n := range times(20, 3) {
		cmd, p := process(t, data, filepath.Dir(dir))
		if n == 0 {
			id = p.takeIn(dir)
			testkit.Write(t, dir, big.String())
			testkit.Git(t, dir, "init", "-q", "-b", "main")
		}
		p.events(func(name string, d map[string]any) bool {
			return name == "survey" && d["state"] == "running" && d["step"] != "listing"
		}, func() { p.do(http.MethodPost, fmt.Sprintf("/api/codebases/%d/surveys", id), nil, nil) })
		require.NoError(t, cmd.Process.Kill())
		_ = cmd.Wait()
		var c server.CodebaseStatus
		after, q := process(t, data, filepath.Dir(dir))
		q.get(fmt.Sprintf("/api/codebases/%d", id), &c)
		require.Equal(t, review.Interrupted, c.Last.State)
		require.Positive(t, c.Latest, "the earlier survey still stands")
		require.NoDirExists(t, worker.Scratch(data))
		var ledger server.Ledger
		q.get(fmt.Sprintf("/api/codebases/%d/layout", id), &ledger)
		require.NotEmpty(t, ledger.Rows)
		require.NoError(t, after.Process.Kill())
		_ = after.Wait()
	}
	_, p := process(t, data, filepath.Dir(dir))
	p.events(func(name string, d map[string]any) bool { return name == "survey" && d["state"] == "finished" }, func() {
		p.do(http.MethodPost, fmt.Sprintf("/api/codebases/%d/surveys", id), nil, nil)
	})
}

func TestASecondServerIsToldWhoHasTheData(t *testing.T) {
	data := t.TempDir()
	first, err := server.New(context.Background(), server.Config{Addr: "127.0.0.1:0", Data: data})
	require.NoError(t, err)
	_, err = server.New(context.Background(), server.Config{Addr: "127.0.0.1:0", Data: data})
	require.ErrorIs(t, err, store.ErrLocked)
	ctx, cancel := context.WithCancel(context.Background())
	cancel()
	require.NoError(t, first.Serve(ctx))
	again, err := server.New(context.Background(), server.Config{Addr: "127.0.0.1:0", Data: data})
	require.NoError(t, err)
	require.NoError(t, again.Serve(ctx))
}

func TestALockedReviewIsSaidAndNothingIsChanged(t *testing.T) {
	dir, data := testkit.Tree(t, tree), t.TempDir()
	_, p := process(t, data, dir)
	id := p.takeIn(dir)
	other, err := store.OpenReview(context.Background(), data)
	require.NoError(t, err)
	release, err := other.Hold(context.Background())
	require.NoError(t, err)
	r, text := p.send(http.MethodPost, fmt.Sprintf("/api/codebases/%d/findings", id), server.NewFinding{Kind: review.Ask, Title: "who weighs", Path: "."})
	require.Equal(t, http.StatusServiceUnavailable, r.StatusCode)
	require.Contains(t, string(text), "nothing was changed")
	require.NotEmpty(t, r.Header.Get("Retry-After"))
	require.NoError(t, errors.Join(release(), other.Close()))
	p.do(http.MethodPost, fmt.Sprintf("/api/codebases/%d/findings", id), server.NewFinding{Kind: review.Ask, Title: "who weighs", Path: "."}, nil)
}

func TestRemarksAreRecordedWhileTheFactsAreGone(t *testing.T) {
	dir, data := testkit.Tree(t, tree), t.TempDir()
	cmd, p := process(t, data, dir)
	id := p.takeIn(dir)
	require.NoError(t, cmd.Process.Kill())
	_ = cmd.Wait()
	_ = os.Remove(filepath.Join(data, "facts.db-wal"))
	require.NoError(t, os.WriteFile(filepath.Join(data, "facts.db"), []byte(strings.Repeat("seed", 4000)), 0o600))
	_, p = process(t, data, dir)
	r, text := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/overview", id), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
	require.Contains(t, string(text), "survey the codebase again")
	var f review.Finding
	p.do(http.MethodPost, fmt.Sprintf("/api/codebases/%d/findings", id), server.NewFinding{Kind: review.Ask, Title: "who weighs", Path: "lots/lots.go", Line: 4}, &f)
	require.Equal(t, 4, f.Place.Line)
	p.events(func(name string, d map[string]any) bool { return name == "survey" && d["state"] == "finished" }, func() {
		p.do(http.MethodPost, fmt.Sprintf("/api/codebases/%d/surveys", id), nil, nil)
	})
	var list review.List
	p.get(fmt.Sprintf("/api/codebases/%d/findings?count=1000", id), &list)
	require.Len(t, list.Rows, 1)
}

func TestASurveyThatTakesTooMuchEndsAloneAndSaysWhy(t *testing.T) {
	dir := testkit.Tree(t, tree)
	ctx, cancel := context.WithCancel(context.Background())
	s, err := server.New(ctx, server.Config{Addr: "127.0.0.1:0", Data: t.TempDir(), Allow: []string{dir}, Limits: worker.Limits{Memory: 256 << 20, Files: 256, Time: time.Minute}})
	require.NoError(t, err)
	done := make(chan error, 1)
	go func() { done <- s.Serve(ctx) }()
	t.Cleanup(func() {
		cancel()
		require.NoError(t, <-done)
	})
	p := signIn(t, s.URL(), s)
	id := p.takeIn(dir)
	big := []byte(strings.Repeat("call(a, b, c)\n", 400_000))
	for i := range 24 {
		require.NoError(t, os.WriteFile(filepath.Join(dir, fmt.Sprintf("big%d.ts", i)), big, 0o644))
	}
	said := ""
	p.events(func(name string, d map[string]any) bool {
		said = fmt.Sprint(d["problem"])
		return name == "survey" && d["state"] == "failed"
	}, func() { p.do(http.MethodPost, fmt.Sprintf("/api/codebases/%d/surveys", id), nil, nil) })
	require.Contains(t, said, "more than the 256 MB of memory")
	var home server.Home
	p.get("/api/home", &home)
	require.Equal(t, review.Failed, home.Codebases[0].Last.State, "and the server is there")
}
