package source

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/gofrs/flock"
	"github.com/stretchr/testify/require"
)

func TestScratchOfKilledProcessesIsSweptAndNoOther(t *testing.T) {
	tmp, elsewhere := t.TempDir(), t.TempDir()
	t.Setenv("TMPDIR", tmp)
	old := time.Now().Add(-2 * scratchAge)
	folder := func(name string, locked bool, perm os.FileMode, at time.Time) string {
		dir := filepath.Join(tmp, name)
		require.NoError(t, os.Mkdir(dir, 0o700))
		require.NoError(t, os.WriteFile(filepath.Join(dir, "HEAD"), nil, 0o600))
		lock := flock.New(filepath.Join(dir, "lock"))
		got, err := lock.TryLock()
		require.True(t, got && err == nil)
		if !locked {
			require.NoError(t, lock.Close())
		}
		t.Cleanup(func() { _ = lock.Close() })
		require.NoError(t, os.Chmod(dir, perm))
		require.NoError(t, os.Chtimes(dir, at, at))
		return dir
	}
	killed := folder("jantel-git-1", false, 0o700, old)
	stay := []string{
		folder("jantel-git-2", true, 0o700, old),         // of a process that is there
		folder("jantel-git-3", false, 0o700, time.Now()), // about to be locked
		folder("jantel-git-4", false, 0o755, old),        // not made by us
		folder("other-git-5", false, 0o700, old),
		filepath.Join(elsewhere, "kept"),
		filepath.Join(tmp, "jantel-git-6"),
	}
	require.NoError(t, os.WriteFile(filepath.Join(elsewhere, "kept"), nil, 0o600))
	require.NoError(t, os.Symlink(elsewhere, filepath.Join(tmp, "jantel-git-6")))
	linked := filepath.Join(tmp, "jantel-git-7") // its lock leads out
	require.NoError(t, os.Mkdir(linked, 0o700))
	require.NoError(t, os.Symlink(filepath.Join(elsewhere, "kept"), filepath.Join(linked, "lock")))
	require.NoError(t, os.Chtimes(linked, old, old))
	stay = append(stay, linked)

	mine, err := makeScratch()
	require.NoError(t, err)
	require.NoDirExists(t, killed)
	for _, path := range stay {
		_, err := os.Lstat(path)
		require.NoError(t, err)
	}
	require.NoError(t, os.Chtimes(mine, old, old))
	sweepScratch()
	require.DirExists(t, mine, "it is in use")
	require.NoError(t, dropScratch(mine))
	require.NoDirExists(t, mine)
}
