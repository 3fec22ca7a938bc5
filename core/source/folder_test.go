package source_test

import (
	"context"
	"os"
	"path/filepath"
	"sort"
	"sync"
	"syscall"
	"testing"

	"jantel/core/source"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// read opens what the request names and returns its texts, its errors by path
// and its notes.
func read(t *testing.T, r source.Request) (texts map[string]string, problems map[string]error, notes []string, src source.Source) {
	t.Helper()
	src, err := source.Open(context.Background(), r)
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, src.Close()) })
	l, err := src.List(context.Background())
	require.NoError(t, err)
	texts, problems = map[string]string{}, map[string]error{}
	var mu sync.Mutex
	require.NoError(t, src.Read(context.Background(), l.Entries, func(e source.Entry, data []byte, err error) error {
		mu.Lock()
		defer mu.Unlock()
		if err != nil {
			problems[e.Path] = err
		} else {
			texts[e.Path] = string(data)
		}
		return nil
	}))
	for _, n := range l.Notes {
		notes = append(notes, n.Path+": "+n.Text)
	}
	return texts, problems, notes, src
}

func keys(m map[string]string) []string {
	out := []string{}
	for k := range m {
		out = append(out, k)
	}
	sort.Strings(out)
	return out
}

func TestAFolderIsReadWithItsIgnoreRules(t *testing.T) {
	dir := testkit.Tree(t, `
-- .gitignore --
*.log
/dist/
-- lots.go --
package lots
-- dist/lots.js --
built
-- notes.log --
noise
-- shelf/.gitignore --
!keep.log
-- shelf/keep.log --
kept
-- shelf/box.go --
package shelf
`)
	texts, problems, _, src := read(t, source.Request{Path: dir})
	require.Empty(t, problems)
	require.Equal(t, []string{".gitignore", "lots.go", "shelf/.gitignore", "shelf/box.go", "shelf/keep.log"}, keys(texts))
	require.Equal(t, "package lots\n", texts["lots.go"])
	require.Equal(t, "folder", src.Origin().Kind)
}

func TestWhatIsNoPlainFileIsNotedAndNotOpened(t *testing.T) {
	dir := testkit.Tree(t, "-- lots.go --\npackage lots\n")
	outside := filepath.Join(t.TempDir(), "secret")
	require.NoError(t, os.WriteFile(outside, []byte("secret"), 0o600))
	require.NoError(t, os.Symlink(outside, filepath.Join(dir, "link.go")))
	require.NoError(t, os.Symlink(filepath.Dir(outside), filepath.Join(dir, "folder")))
	require.NoError(t, syscall.Mkfifo(filepath.Join(dir, "pipe.go"), 0o600))
	texts, _, notes, _ := read(t, source.Request{Path: dir})
	require.Equal(t, []string{"lots.go"}, keys(texts))
	require.Equal(t, []string{"folder: a symbolic link, not followed", "link.go: a symbolic link, not followed", "pipe.go: a named pipe, not opened"}, notes)
}

func TestARepositoryInsideIsNotedAndNotFollowed(t *testing.T) {
	dir := testkit.Tree(t, "-- lots.go --\npackage lots\n")
	inner := filepath.Join(dir, "inner")
	testkit.Write(t, inner, "-- a.go --\npackage a\n")
	testkit.Git(t, inner, "init", "-q", "-b", "main")
	testkit.Git(t, inner, "add", "-A")
	testkit.Git(t, inner, "commit", "-q", "-m", "x")
	texts, _, notes, _ := read(t, source.Request{Path: dir})
	require.Equal(t, []string{"lots.go"}, keys(texts))
	require.Equal(t, []string{"inner: a repository of its own, not followed; survey it by itself"}, notes)
}

func TestNamesThatAreNotUTF8AreEncoded(t *testing.T) {
	dir := testkit.Tree(t, "-- lots.go --\npackage lots\n")
	require.NoError(t, os.WriteFile(filepath.Join(dir, "caf\xe9%41.go"), []byte("x"), 0o644))
	require.NoError(t, os.WriteFile(filepath.Join(dir, "two\nlines.go"), []byte("y"), 0o644))
	texts, problems, _, _ := read(t, source.Request{Path: dir})
	require.Empty(t, problems)
	require.Equal(t, []string{"caf%E9%2541.go", "lots.go", "two%0Alines.go"}, keys(texts))
}

func TestLimitsAreKeptAndReported(t *testing.T) {
	dir := testkit.Tree(t, "-- a.go --\n12345678\n-- b.go --\n1\n-- c/d/e/f.go --\nx\n-- g.go --\ny\n")
	l := source.DefaultLimits()
	l.FileBytes, l.Files, l.Depth = 4, 2, 2
	texts, problems, notes, _ := read(t, source.Request{Path: dir, Limits: l})
	require.Equal(t, []string{"b.go"}, keys(texts))
	require.True(t, source.IsTooLarge(problems["a.go"]))
	require.Equal(t, []string{
		".: 1 files lie deeper than 2 folders and were left out",
		".: 3 files are more than the limit of 2; the rest was left out",
	}, notes)
}

func TestWhatIsNoCodebaseIsRefused(t *testing.T) {
	dir := testkit.Tree(t, "-- lots.go --\npackage lots\n-- empty/.gitignore --\n*\n")
	require.NoError(t, os.MkdirAll(filepath.Join(dir, "bare"), 0o755))
	for name, r := range map[string]struct {
		request source.Request
		says    string
	}{
		"a path that is missing":    {source.Request{Path: filepath.Join(dir, "none")}, "does not exist"},
		"no path":                   {source.Request{Path: "  "}, "no path was given"},
		"a file":                    {source.Request{Path: filepath.Join(dir, "lots.go")}, "is a file, neither a folder nor"},
		"a revision of a file":      {source.Request{Path: filepath.Join(dir, "lots.go"), Revision: "main"}, "has no revision"},
		"a revision of a folder":    {source.Request{Path: dir, Revision: "main"}, "is not a Git repository"},
		"a device":                  {source.Request{Path: "/dev/null"}, "neither a folder nor an archive"},
		"beyond the allowed":        {source.Request{Path: dir, Allow: []string{t.TempDir()}}, "outside the allowed folders"},
		"missing beyond allowed":    {source.Request{Path: dir + "/none", Allow: []string{t.TempDir()}}, "outside the allowed folders"},
		"a sibling with its prefix": {source.Request{Path: dir, Allow: []string{dir[:len(dir)-1]}}, "outside the allowed folders"},
	} {
		t.Run(name, func(t *testing.T) {
			_, err := source.Open(context.Background(), r.request)
			require.ErrorContains(t, err, r.says)
		})
	}
	for _, d := range []string{"empty", "bare"} {
		src, err := source.Open(context.Background(), source.Request{Path: filepath.Join(dir, d)})
		require.NoError(t, err)
		_, err = src.List(context.Background())
		if d == "bare" {
			require.ErrorIs(t, err, source.ErrNotCodebase)
		}
		require.NoError(t, src.Close())
	}
}

func TestASymlinkOutOfTheAllowedFoldersIsRefused(t *testing.T) {
	allowed, outside := t.TempDir(), testkit.Tree(t, "-- a.go --\nx\n")
	require.NoError(t, os.Symlink(outside, filepath.Join(allowed, "in")))
	_, err := source.Open(context.Background(), source.Request{Path: filepath.Join(allowed, "in"), Allow: []string{allowed}})
	require.ErrorIs(t, err, source.ErrNotAllowed)
}

func TestAFileThatVanishesIsAnErrorOfThatFile(t *testing.T) {
	dir := testkit.Tree(t, "-- a.go --\nx\n-- b.go --\ny\n")
	src, err := source.Open(context.Background(), source.Request{Path: dir})
	require.NoError(t, err)
	defer func() { require.NoError(t, src.Close()) }()
	l, err := src.List(context.Background())
	require.NoError(t, err)
	require.NoError(t, os.Remove(filepath.Join(dir, "a.go")))
	require.NoError(t, os.Remove(filepath.Join(dir, "b.go")))
	require.NoError(t, os.Symlink("/etc/hostname", filepath.Join(dir, "b.go")))
	seen := map[string]error{}
	var mu sync.Mutex
	require.NoError(t, src.Read(context.Background(), l.Entries, func(e source.Entry, data []byte, err error) error {
		mu.Lock()
		defer mu.Unlock()
		seen[e.Path] = err
		return nil
	}))
	require.Error(t, seen["a.go"])
	require.Error(t, seen["b.go"], "a link that took the place of a file must not be followed")
}

func TestReadingStopsWhenCancelled(t *testing.T) {
	dir := testkit.Tree(t, "-- a.go --\nx\n-- b/b.go --\ny\n")
	ctx, cancel := context.WithCancel(context.Background())
	src, err := source.Open(ctx, source.Request{Path: dir})
	require.NoError(t, err)
	defer func() { require.NoError(t, src.Close()) }()
	l, err := src.List(ctx)
	require.NoError(t, err)
	cancel()
	require.ErrorIs(t, src.Read(ctx, l.Entries, func(source.Entry, []byte, error) error { return nil }), context.Canceled)
}
