package main

import (
	"io"
	"os"
	"path/filepath"
	"syscall"
	"testing"

	"jantel/core/testkit"
	"jantel/review"
	"jantel/store"

	"github.com/stretchr/testify/require"
)

func TestWhatIsWrittenOutReplacesFilesAndNothingElse(t *testing.T) {
	dir := testkit.Tree(t, "-- lots.go --\npackage lots\n")
	out := t.TempDir()
	at := func(name string) string { return filepath.Join(out, name) }

	// Nothing, or a regular file, which keeps its mode.
	require.NoError(t, os.WriteFile(at("old"), []byte("old"), 0o600))
	for _, name := range []string{"new", "old"} {
		_, problem, code := run(t, "survey", dir, "--out", at(name))
		require.Zero(t, code, problem)
		text, err := os.ReadFile(at(name))
		require.NoError(t, err)
		require.Contains(t, string(text), "line of code")
	}
	info, err := os.Stat(at("old"))
	require.NoError(t, err)
	require.Equal(t, os.FileMode(0o600), info.Mode().Perm())

	// A link is written through and stays one.
	require.NoError(t, os.Symlink("new", at("link")))
	_, problem, code := run(t, "survey", dir, "--format", "json", "--out", at("link"))
	require.Zero(t, code, problem)
	info, err = os.Lstat(at("link"))
	require.NoError(t, err)
	require.NotZero(t, info.Mode()&os.ModeSymlink)
	text, err := os.ReadFile(at("new"))
	require.NoError(t, err)
	require.Contains(t, string(text), "jantel-survey/1")

	// So is a pipe, and a device.
	require.NoError(t, syscall.Mkfifo(at("pipe"), 0o600))
	read := make(chan string, 1)
	go func() {
		h, err := os.Open(at("pipe"))
		if err != nil {
			read <- err.Error()
			return
		}
		b, _ := io.ReadAll(h)
		_ = h.Close()
		read <- string(b)
	}()
	_, problem, code = run(t, "survey", dir, "--out", at("pipe"))
	require.Zero(t, code, problem)
	require.Contains(t, <-read, "line of code")
	info, err = os.Lstat(at("pipe"))
	require.NoError(t, err)
	require.NotZero(t, info.Mode()&os.ModeNamedPipe)
	_, problem, code = run(t, "survey", dir, "--out", "/dev/null")
	require.Zero(t, code, problem)
	info, err = os.Stat("/dev/null")
	require.NoError(t, err)
	require.NotZero(t, info.Mode()&os.ModeDevice)

	_, problem, code = run(t, "survey", dir, "--out", out)
	require.Equal(t, 2, code)
	require.Contains(t, problem, "it is a folder")
	left, err := filepath.Glob(at(".jantel-*"))
	require.NoError(t, err)
	require.Empty(t, left)
}

func TestABackupIsWrittenVerifiedAndRestoredAsTheREADMESays(t *testing.T) {
	data, file := t.TempDir(), filepath.Join(t.TempDir(), "vault.backup")
	r, err := store.OpenReview(t.Context(), data)
	require.NoError(t, err)
	c, err := r.AddCodebase(t.Context(), review.Codebase{Name: "vault", Kind: "folder", Path: "/vault"})
	require.NoError(t, err)
	_, err = r.AddFinding(t.Context(), review.Finding{
		Codebase: c.ID, Kind: review.Fix, Title: "two scales", Place: review.Place{Path: "."},
	})
	require.NoError(t, err)
	out, problem, code := run(t, "backup", file, "--data", data)
	require.Zero(t, code, problem)
	require.Contains(t, out, "Backed up")
	require.NoError(t, r.Close())
	out, problem, code = run(t, "verify", "--data", data)
	require.Zero(t, code, problem)
	require.Contains(t, out, "sound")

	_, problem, code = run(t, "restore", file, "--data", data)
	require.Equal(t, 2, code)
	require.Contains(t, problem, "--force")
	out, problem, code = run(t, "restore", file, "--data", data, "--force")
	require.Zero(t, code, problem)
	require.Contains(t, out, "kept in "+data)
	elsewhere := t.TempDir()
	_, problem, code = run(t, "restore", file, "--data", elsewhere)
	require.Zero(t, code, problem)
	back, err := store.OpenReview(t.Context(), elsewhere)
	require.NoError(t, err)
	list, err := back.Findings(t.Context(), c.ID)
	require.NoError(t, err)
	require.Equal(t, "two scales", list[0].Title)
	require.NoError(t, back.Close())

	require.NoError(t, os.WriteFile(filepath.Join(elsewhere, "review.db"), nil, 0o600))
	out, _, code = run(t, "verify", "--data", elsewhere)
	require.Equal(t, 1, code)
	require.Contains(t, out, "bring a backup back")
	_, problem, code = run(t, "serve", "--addr", "127.0.0.1:0", "--data", elsewhere)
	require.Equal(t, 2, code)
	require.Contains(t, problem, "jantel restore")
	_, problem, code = run(t, "backup", file, "--data", t.TempDir())
	require.Equal(t, 2, code)
	require.Contains(t, problem, "nothing to back up")
}
