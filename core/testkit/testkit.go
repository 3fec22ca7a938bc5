// Package testkit makes tiny source trees for tests.
package testkit

import (
	"context"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"jantel/core/model"
	"jantel/core/source"
	"jantel/core/survey"
	_ "jantel/core/syntax/languages" // all of them

	"github.com/stretchr/testify/require"
	"golang.org/x/tools/txtar"
)

// Write writes the files of a txtar text below dir.
func Write(t testing.TB, dir, text string) {
	t.Helper()
	for _, f := range txtar.Parse([]byte(text)).Files {
		p := filepath.Join(dir, filepath.FromSlash(f.Name))
		require.NoError(t, os.MkdirAll(filepath.Dir(p), 0o755))
		require.NoError(t, os.WriteFile(p, f.Data, 0o644))
	}
}

// Tree makes a folder of the files of a txtar text.
func Tree(t testing.TB, text string) string {
	t.Helper()
	dir := t.TempDir()
	Write(t, dir, text)
	return dir
}

// Survey surveys the files of a txtar text.
func Survey(t testing.TB, text string) *model.Survey {
	t.Helper()
	return SurveyDir(t, Tree(t, text))
}

// SurveyDir surveys a folder without a cache.
func SurveyDir(t testing.TB, dir string) *model.Survey {
	t.Helper()
	src, err := source.Open(context.Background(), source.Request{Path: dir})
	require.NoError(t, err)
	defer func() { require.NoError(t, src.Close()) }()
	s, err := survey.Run(context.Background(), src, survey.Options{Name: "tree", Root: "tree"})
	require.NoError(t, err)
	return s
}

// Git runs git in dir, apart from the configuration of the machine.
func Git(t testing.TB, dir string, args ...string) string {
	t.Helper()
	cmd := exec.Command("git", args...)
	cmd.Dir = dir
	cmd.Env = append(
		os.Environ(), "GIT_CONFIG_NOSYSTEM=1", "GIT_CONFIG_GLOBAL=/dev/null", "GIT_AUTHOR_NAME=Maren",
		"GIT_AUTHOR_EMAIL=m@hollin-moor.example", "GIT_COMMITTER_NAME=Maren",
		"GIT_COMMITTER_EMAIL=m@hollin-moor.example", "GIT_AUTHOR_DATE=2026-03-01T10:00:00Z",
		"GIT_COMMITTER_DATE=2026-03-01T10:00:00Z", "GIT_ALLOW_PROTOCOL=file",
	)
	out, err := cmd.CombinedOutput()
	require.NoError(t, err, "git %v: %s", args, out)
	return strings.TrimSpace(string(out))
}

// Repository makes a Git repository with one commit of a txtar text.
func Repository(t testing.TB, text string) string {
	t.Helper()
	dir := Tree(t, text)
	Git(t, dir, "init", "-q", "-b", "main")
	Git(t, dir, "add", "-A")
	Git(t, dir, "commit", "-q", "-m", "first")
	return dir
}

// Links writes the links of a survey as "from:line kind to", one a line.
func Links(s *model.Survey) []string {
	out := []string{}
	for _, l := range s.Links {
		line := l.From + " -> " + l.To
		if l.Kind != model.LinkImport {
			line += " (" + string(l.Kind) + ")"
		}
		out = append(out, line)
	}
	return out
}
