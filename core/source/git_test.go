package source_test

import (
	"context"
	"errors"
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"testing"

	"jantel/core/source"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

const lots = "-- lots.go --\npackage lots\n-- shelf/box.go --\npackage shelf\n"

func TestARevisionIsReadWithoutACheckout(t *testing.T) {
	dir := testkit.Repository(t, lots)
	first := testkit.Git(t, dir, "rev-parse", "HEAD")
	testkit.Git(t, dir, "tag", "before")
	testkit.Git(t, dir, "branch", "side")
	testkit.Write(t, dir, "-- lots.go --\npackage changed\n")
	testkit.Git(t, dir, "commit", "-q", "-a", "-m", "second")
	testkit.Write(t, dir, "-- lots.go --\nnot committed\n")
	for _, rev := range []string{"before", "side", first, first[:10], "HEAD~1", "main^", "refs/tags/before"} {
		t.Run(rev, func(t *testing.T) {
			texts, _, _, src := read(t, source.Request{Path: dir, Revision: rev})
			require.Equal(t, map[string]string{"lots.go": "package lots\n", "shelf/box.go": "package shelf\n"}, texts)
			o := src.Origin()
			require.Equal(t, first, o.Revision)
			require.Equal(t, "first", o.Subject)
			require.Equal(t, "Maren", o.Author)
			require.Equal(t, "2026-03-01T10:00:00+00:00", o.Date)
		})
	}
	texts, _, _, src := read(t, source.Request{Path: dir})
	require.Equal(t, "not committed\n", texts["lots.go"], "without a revision the folder is taken as it is")
	require.Equal(t, testkit.Git(t, dir, "rev-parse", "HEAD"), src.Origin().BasedOn)
}

func TestABareAndAPackedRepositoryAreRead(t *testing.T) {
	dir := testkit.Repository(t, lots)
	bare := filepath.Join(t.TempDir(), "vault.git")
	testkit.Git(t, dir, "clone", "-q", "--bare", dir, bare)
	testkit.Git(t, bare, "gc", "-q")
	texts, _, _, _ := read(t, source.Request{Path: bare})
	require.Len(t, texts, 2)
	shallow := filepath.Join(t.TempDir(), "shallow")
	testkit.Write(t, dir, "-- lots.go --\nsecond\n")
	testkit.Git(t, dir, "commit", "-q", "-a", "-m", "second")
	testkit.Git(t, dir, "clone", "-q", "--depth", "1", "file://"+dir, shallow)
	texts, _, _, _ = read(t, source.Request{Path: shallow, Revision: "HEAD"})
	require.Equal(t, "second\n", texts["lots.go"])
}

func TestAWorkTreeBesideItsRepositoryIsRead(t *testing.T) {
	dir := testkit.Repository(t, lots)
	tree := filepath.Join(filepath.Dir(dir), filepath.Base(dir)+"-side")
	testkit.Git(t, dir, "worktree", "add", "-q", "-b", "side", tree)
	t.Cleanup(func() { _ = os.RemoveAll(tree) })
	texts, _, _, _ := read(t, source.Request{Path: tree, Revision: "side", Allow: []string{filepath.Dir(dir)}})
	require.Len(t, texts, 2)
	// Without allowed folders a tree leads to nothing but itself.
	_, err := source.Open(context.Background(), source.Request{Path: tree, Revision: "side"})
	require.ErrorIs(t, err, source.ErrNotAllowed)
	require.ErrorContains(t, err, "survey the repository it leads to instead")
	texts, _, _, src := read(t, source.Request{Path: tree})
	require.Len(t, texts, 2)
	require.Empty(t, src.Origin().BasedOn)
}

func TestLinksAndSubmodulesOfARevisionAreNoted(t *testing.T) {
	dir := testkit.Repository(t, lots)
	require.NoError(t, os.Symlink("/etc/passwd", filepath.Join(dir, "link")))
	testkit.Git(t, dir, "add", "-A")
	testkit.Git(t, dir, "update-index", "--add", "--cacheinfo", "160000,"+testkit.Git(t, dir, "rev-parse", "HEAD")+",inner")
	testkit.Git(t, dir, "commit", "-q", "-m", "odd")
	texts, _, notes, _ := read(t, source.Request{Path: dir, Revision: "HEAD"})
	require.Len(t, texts, 2)
	require.Equal(t, []string{"inner: a repository of its own (submodule), not followed", "link: a symbolic link, not followed"}, notes)
}

func TestRevisionsThatAreNoneAreRefused(t *testing.T) {
	dir := testkit.Repository(t, lots)
	for _, rev := range []string{"none", "--help", "-1", "main:lots.go", "main\nside", "0000000000000000000000000000000000000000"} {
		_, err := source.Open(context.Background(), source.Request{Path: dir, Revision: rev})
		require.ErrorIs(t, err, source.ErrNotCodebase, rev)
	}
	empty := t.TempDir()
	testkit.Git(t, empty, "init", "-q", "-b", "main")
	_, err := source.Open(context.Background(), source.Request{Path: empty, Revision: "HEAD"})
	require.ErrorContains(t, err, "has no commit yet")
}

// Each of these makes git run a program when the repository's configuration is
// loaded; the program would leave a mark.
func TestAHostileRepositoryRunsNothing(t *testing.T) {
	for name, config := range map[string][]string{
		"a file system monitor":  {"core.fsmonitor"},
		"a signature program":    {"gpg.program", "log.showSignature=true"},
		"an ssh command":         {"core.sshCommand", "remote.origin.promisor=true", "remote.origin.url=ssh://nowhere.invalid/x", "extensions.partialClone=origin"},
		"a pager":                {"core.pager", "pager.log"},
		"a hooks folder":         {"core.hooksPath"},
		"an external diff":       {"diff.external"},
		"an attributes filter":   {"filter.x.clean", "filter.x.smudge", "filter.x.process"},
		"an alternate refs tool": {"core.alternateRefsCommand"},
	} {
		t.Run(name, func(t *testing.T) {
			dir := testkit.Repository(t, lots+"-- .gitattributes --\n* filter=x diff=x\n")
			mark := filepath.Join(t.TempDir(), "ran")
			program := filepath.Join(t.TempDir(), "program")
			require.NoError(t, os.WriteFile(program, []byte("#!/bin/sh\ntouch "+mark+"\ncat\n"), 0o755))
			for _, c := range config {
				key, value := c, program
				for i := range c {
					if c[i] == '=' {
						key, value = c[:i], c[i+1:]
						break
					}
				}
				testkit.Git(t, dir, "config", key, value)
			}
			read(t, source.Request{Path: dir})
			texts, _, _, _ := read(t, source.Request{Path: dir, Revision: "HEAD"})
			require.Equal(t, "package lots\n", texts["lots.go"])
			require.NoFileExists(t, mark)
		})
	}
}

func TestTheWorkTreeARepositoryNamesIsNotFollowed(t *testing.T) {
	dir := testkit.Repository(t, lots)
	elsewhere := testkit.Tree(t, "-- secret --\nx\n")
	testkit.Git(t, dir, "config", "core.worktree", elsewhere)
	texts, _, _, _ := read(t, source.Request{Path: dir})
	require.NotContains(t, texts, "secret")
	require.Len(t, texts, 2)
}

func TestARepositoryThatLeavesTheAllowedFoldersIsRefused(t *testing.T) {
	secret := testkit.Repository(t, "-- secret.go --\npackage secret\n")
	head := testkit.Git(t, secret, "rev-parse", "HEAD")
	make := map[string]func(t *testing.T, dir string){
		"by a gitdir file": func(t *testing.T, dir string) {
			testkit.Write(t, dir, "-- .git --\ngitdir: "+secret+"/.git\n")
		},
		"by its common folder": func(t *testing.T, dir string) {
			testkit.Git(t, dir, "init", "-q", "-b", "main")
			require.NoError(t, os.WriteFile(filepath.Join(dir, ".git", "commondir"), []byte(secret+"/.git\n"), 0o644))
		},
		"by alternates": func(t *testing.T, dir string) {
			testkit.Git(t, dir, "init", "-q", "-b", "main")
			require.NoError(t, os.MkdirAll(filepath.Join(dir, ".git", "objects", "info"), 0o755))
			require.NoError(t, os.WriteFile(filepath.Join(dir, ".git", "objects", "info", "alternates"), []byte(secret+"/.git/objects\n"), 0o644))
		},
		"by a link to objects": func(t *testing.T, dir string) {
			testkit.Git(t, dir, "init", "-q", "-b", "main")
			require.NoError(t, os.RemoveAll(filepath.Join(dir, ".git", "objects")))
			require.NoError(t, os.Symlink(filepath.Join(secret, ".git", "objects"), filepath.Join(dir, ".git", "objects")))
		},
		"by a link to a fan of objects": func(t *testing.T, dir string) {
			testkit.Git(t, dir, "init", "-q", "-b", "main")
			require.NoError(t, os.Symlink(filepath.Join(secret, ".git", "objects", head[:2]), filepath.Join(dir, ".git", "objects", head[:2])))
		},
		"by a link to one object": func(t *testing.T, dir string) {
			testkit.Git(t, dir, "init", "-q", "-b", "main")
			fan := filepath.Join(dir, ".git", "objects", head[:2])
			require.NoError(t, os.MkdirAll(fan, 0o755))
			require.NoError(t, os.Symlink(filepath.Join(secret, ".git", "objects", head[:2], head[2:]), filepath.Join(fan, head[2:])))
		},
		"by a link to .git": func(t *testing.T, dir string) {
			require.NoError(t, os.Symlink(filepath.Join(secret, ".git"), filepath.Join(dir, ".git")))
		},
	}
	for name, prepare := range make {
		t.Run(name, func(t *testing.T) {
			allowed := t.TempDir()
			dir := filepath.Join(allowed, "project")
			testkit.Write(t, dir, "-- a.go --\npackage a\n")
			prepare(t, dir)
			_, err := source.Open(context.Background(), source.Request{Path: dir, Revision: head, Allow: []string{allowed}})
			require.ErrorIs(t, err, source.ErrNotAllowed)
			// The folder itself can still be surveyed as it is.
			texts, _, _, src := read(t, source.Request{Path: dir, Allow: []string{allowed}})
			require.Contains(t, texts, "a.go")
			require.Empty(t, src.Origin().BasedOn)
		})
	}
}

func TestNoScratchFolderIsLeftBehind(t *testing.T) {
	tmp := t.TempDir()
	t.Setenv("TMPDIR", tmp)
	dir := testkit.Repository(t, lots)
	src, err := source.Open(context.Background(), source.Request{Path: dir, Revision: "HEAD"})
	require.NoError(t, err)
	_, err = src.List(context.Background())
	require.NoError(t, err)
	require.NoError(t, src.Close())
	_, err = source.Open(context.Background(), source.Request{Path: dir, Revision: "none"})
	require.Error(t, err)
	left, err := filepath.Glob(filepath.Join(tmp, "jantel-*"))
	require.NoError(t, err)
	require.Empty(t, left)
}

// Each of these made git or us wait for ever, or read without end.
func TestWhatIsNoRegularFileBelowAStrangersFoldersIsNotOpened(t *testing.T) {
	fifo := func(t *testing.T, p string) {
		require.NoError(t, os.MkdirAll(filepath.Dir(p), 0o755))
		_ = os.Remove(p)
		require.NoError(t, syscall.Mkfifo(p, 0o644))
	}
	device := func(t *testing.T, p string) {
		require.NoError(t, os.MkdirAll(filepath.Dir(p), 0o755))
		_ = os.Remove(p)
		require.NoError(t, os.Symlink("/dev/zero", p))
	}
	sparse := func(t *testing.T, p string) {
		require.NoError(t, os.MkdirAll(filepath.Dir(p), 0o755))
		_ = os.Remove(p)
		h, err := os.Create(p)
		require.NoError(t, err)
		require.NoError(t, h.Truncate(5<<30))
		require.NoError(t, h.Close())
	}
	kinds := map[string]func(*testing.T, string){"a pipe": fifo, "a device": device, "a sparse file": sparse}
	for _, at := range []string{".git/HEAD", ".git/packed-refs", ".git/config", ".git/commondir", ".git/shallow", ".git/objects/info/alternates", ".git/refs/heads/main", ".git/objects/pack/pack-1.idx", ".git/objects/pack/multi-pack-index", ".git/objects/info/commit-graph", ".git"} {
		for kind, put := range kinds {
			t.Run(kind+" as "+at, func(t *testing.T) {
				t.Parallel()
				dir := testkit.Repository(t, lots)
				if at == ".git" {
					require.NoError(t, os.RemoveAll(filepath.Join(dir, at)))
				}
				put(t, filepath.Join(dir, at))
				// Of a revision it is refused or not needed, and said at once.
				if src, err := source.Open(context.Background(), source.Request{Path: dir, Revision: "HEAD"}); err == nil {
					_, err = src.List(context.Background())
					require.NoError(t, errors.Join(err, src.Close()))
				}
				texts, _, _, _ := read(t, source.Request{Path: dir})
				require.Len(t, texts, 2, "the folder as it is can be read all the same")
			})
		}
	}
	for _, at := range []string{".gitignore", "box/.gitignore", "box/.git/HEAD", "box/.git/commondir", "box/.git/config"} {
		for kind, put := range kinds {
			t.Run(kind+" as "+at, func(t *testing.T) {
				t.Parallel()
				dir := testkit.Tree(t, lots)
				put(t, filepath.Join(dir, at))
				texts, _, notes, _ := read(t, source.Request{Path: dir})
				require.Contains(t, texts, "lots.go")
				if kind != "a device" || at == "box/.git/HEAD" {
					require.Contains(t, strings.Join(notes, "\n"), "git is not asked to open it")
				}
			})
		}
	}
}
