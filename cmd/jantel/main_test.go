package main

import (
	"bytes"
	"encoding/json"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"

	"jantel/core/testkit"
	"jantel/server/worker"

	"github.com/stretchr/testify/require"
)

// The test binary is started again as the program itself.
func TestMain(m *testing.M) {
	if worker.IsWorker() {
		os.Exit(worker.Main())
	}
	if os.Getenv("JANTEL_TEST_MAIN") != "" {
		main()
		return
	}
	os.Exit(m.Run())
}

func jantel(t *testing.T, args ...string) *exec.Cmd {
	cmd := exec.Command(os.Args[0], args...)
	home := t.TempDir()
	cmd.Env = append(os.Environ(), "JANTEL_TEST_MAIN=1", "HOME="+home, "XDG_DATA_HOME=", "XDG_CACHE_HOME="+filepath.Join(home, "cache"))
	return cmd
}

func run(t *testing.T, args ...string) (out, problem string, code int) {
	t.Helper()
	var o, e bytes.Buffer
	cmd := jantel(t, args...)
	cmd.Stdout, cmd.Stderr = &o, &e
	_ = cmd.Run()
	return o.String(), e.String(), cmd.ProcessState.ExitCode()
}

func TestSurveyPrintsInTheFormatsItKnows(t *testing.T) {
	dir := testkit.Repository(t, "-- README.md --\nKeeps seed.\n-- lots.go --\npackage lots\n")
	testkit.Git(t, dir, "tag", "before")
	out, problem, code := run(t, "survey", dir)
	require.Zero(t, code, problem)
	require.Contains(t, out, "Keeps seed.")
	out, _, code = run(t, "survey", dir, "--rev", "before", "--format", "json", "--stage", "sketch")
	require.Zero(t, code)
	var d struct {
		Revision, Stage string
		Files           []any
	}
	require.NoError(t, json.Unmarshal([]byte(out), &d))
	require.Equal(t, testkit.Git(t, dir, "rev-parse", "before"), d.Revision)
	require.Equal(t, "sketch", d.Stage)
	require.Len(t, d.Files, 2)
	page := filepath.Join(t.TempDir(), "sheet.html")
	out, _, code = run(t, "survey", dir, "--format", "html", "--out", page, "--no-cache")
	require.Zero(t, code)
	require.Empty(t, out)
	text, err := os.ReadFile(page)
	require.NoError(t, err)
	require.Contains(t, string(text), "Keeps seed.")
}

func TestAnErrorIsOneLineThatSaysWhatToDo(t *testing.T) {
	dir := testkit.Tree(t, "-- a.go --\npackage a\n")
	for _, args := range [][]string{
		{"survey"}, {"survey", dir, dir}, {"survey", dir + "/none"}, {"survey", dir + "/a.go"}, {"survey", dir, "--rev", "x"}, {
			"survey", dir, "--format", "pdf",
		},
		{"survey", dir, "--stage", "old"}, {"survey", dir, "--charter", "x"}, {
			"survey", dir, "--out", "/none/x",
		}, {"check", dir}, {"check", dir, "--charter", "x"}, {
			"check", dir, "--format", "pdf",
		}, {"rules", "--format", "x"}, {"nonsense"}, {"serve", "--addr", "0.0.0.0:1"}, {
			"serve", "--data", dir + "/a.go/x",
		},
	} {
		out, problem, code := run(t, args...)
		require.Equal(t, 2, code, args)
		require.Empty(t, out, args)
		require.Regexp(t, `^jantel: .+\n$`, problem, args)
		require.Equal(t, 1, strings.Count(problem, "\n"), problem)
	}
}

func TestCheckHoldsACodebaseAgainstItsCharter(t *testing.T) {
	tree := "-- jantel.yaml --\nlayers:\n  - name: logic\n    holds: [logic]\n  - name: data\n    holds: [data]\n-- " +
		"logic/a.ts --\nimport '../data/b'\nexport function a() {}\n-- data/b.ts --\nexport function b() {}\n"
	dir := testkit.Tree(t, tree)
	out, problem, code := run(t, "check", dir)
	require.Equal(t, 1, code, problem)
	require.Contains(t, out, "logic/a.ts:1: needs data/b.ts: logic may depend on no other layer\n")
	require.Contains(t, out, "One dependency breaks the charter.")
	out, _, code = run(t, "check", dir, "--format", "sarif")
	require.Equal(t, 1, code)
	var doc struct {
		Version string
		Runs    []struct {
			Results []struct {
				RuleID    string
				Locations []any
			}
		}
	}
	require.NoError(t, json.Unmarshal([]byte(out), &doc))
	require.Equal(t, "2.1.0", doc.Version)
	require.Len(t, doc.Runs[0].Results, 1)
	require.Equal(t, "charter-breach", doc.Runs[0].Results[0].RuleID)
	own := filepath.Join(t.TempDir(), "other.yaml")
	require.NoError(t, os.WriteFile(
		own,
		[]byte("layers:\n  - name: logic\n    holds: [logic]\n    may: [data]\n  - name: data\n    holds: [data]\n"),
		0o600,
	))
	out, problem, code = run(t, "check", dir, "--charter", own)
	require.Zero(t, code, problem)
	require.Equal(t, "No dependency breaks the charter.\n", out)
	out, problem, code = run(t, "check", testkit.Tree(t, "-- jantel.yaml --\nlayers:\n  - name: a\n    holds: [a]\n    colour: red\n"))
	require.Equal(t, 2, code)
	require.Empty(t, out)
	require.Contains(t, problem, "line 4")
}

func TestASurveyIsWrittenAsMarkdownSARIFAndAPicture(t *testing.T) {
	dir := testkit.Tree(
		t,
		"-- README.md --\nKeeps seed_and_more.\n-- logic/a1.ts --\nimport '../data/b'\nexport function a() {}\n-- "+
			"logic/a2.ts --\nx()\n-- data/b.ts --\nexport function b() {}\n",
	)
	out, problem, code := run(t, "survey", dir, "--format", "markdown")
	require.Zero(t, code, problem)
	require.Contains(t, out, `Keeps seed\_and\_more.`)
	out, _, code = run(t, "survey", dir, "--format", "svg")
	require.Zero(t, code)
	require.Contains(t, out, "<title>logic: 3 own lines in 2 files</title>")
	out, _, code = run(t, "survey", dir, "--format", "sarif")
	require.Zero(t, code)
	require.Contains(t, out, "numbered-name")
}

func TestEveryCommandHasHelp(t *testing.T) {
	for _, c := range []string{"serve", "demo", "survey", "check", "rules", "backup", "restore", "verify"} {
		out, _, code := run(t, c, "--help")
		require.Zero(t, code)
		require.Contains(t, out, "Usage")
	}
}

func TestServeStopsCleanlyWhenAsked(t *testing.T) {
	for _, sig := range []syscall.Signal{syscall.SIGINT, syscall.SIGTERM} {
		cmd := jantel(t, "serve", "--addr", "127.0.0.1:0", "--data", t.TempDir())
		out, err := cmd.StdoutPipe()
		require.NoError(t, err)
		require.NoError(t, cmd.Start())
		line := make([]byte, 200)
		n, err := out.Read(line)
		require.NoError(t, err)
		require.Contains(t, string(line[:n]), "/start?token=")
		require.NoError(t, cmd.Process.Signal(sig))
		require.NoError(t, cmd.Wait())
	}
}

func TestTheSurveyOfAFolderTellsItsHistoryAndItsRoutes(t *testing.T) {
	dir := testkit.Repository(t, "-- app.js --\nconst app = express()\napp.get('/lots/:id', one)\nfunction one() {}\n")
	testkit.Git(t, dir, "commit", "-q", "--allow-empty", "-m", "second")
	out, problem, code := run(t, "survey", dir, "--format", "json")
	require.Zero(t, code, problem)
	var d struct {
		Routes  []struct{ Method, Pattern string }
		History struct{ Commits int }
		Timings map[string]float64
	}
	require.NoError(t, json.Unmarshal([]byte(out), &d))
	require.Equal(t, "/lots/:id", d.Routes[0].Pattern)
	require.Equal(t, 2, d.History.Commits)
	for _, step := range []string{"list", "read", "link", "history", "judge"} {
		require.Contains(t, d.Timings, step)
	}
	text, _, code := run(t, "survey", dir)
	require.Zero(t, code)
	require.Contains(t, text, "2 commits by one person")
}
