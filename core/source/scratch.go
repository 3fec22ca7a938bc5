package source

import (
	"os"
	"path/filepath"
	"sync"
	"syscall"
	"time"

	"github.com/gofrs/flock"
)

// scratchAge is how old a folder must be before it is taken for a left-over:
// between making one and locking it lies a moment.
const scratchAge = time.Hour

// inUse holds the locks of our own scratch folders; the system lets go of them
// when this process ends, however it ends.
var inUse sync.Map

// makeScratch makes a folder for git that is ours until dropScratch. Left-overs
// of processes that were killed go on the way.
func makeScratch() (string, error) {
	sweepScratch()
	dir, err := os.MkdirTemp("", "jantel-git-")
	if err != nil {
		return "", err
	}
	lock := flock.New(filepath.Join(dir, "lock"))
	if _, err := lock.TryLock(); err == nil { // where nothing can be locked nothing is swept either
		inUse.Store(dir, lock)
	}
	return dir, nil
}

func dropScratch(dir string) error {
	err := os.RemoveAll(dir)
	if lock, ok := inUse.LoadAndDelete(dir); ok {
		_ = lock.(*flock.Flock).Close()
	}
	return err
}

// sweepScratch removes scratch folders that are old and that no process has
// locked. The folder of temporary files belongs to everybody: only real
// folders that no one else may enter are touched, and no lock is followed
// through a link, made, or waited for.
func sweepScratch() {
	list, err := filepath.Glob(filepath.Join(os.TempDir(), "jantel-git-*"))
	if err != nil {
		return
	}
	for _, dir := range list {
		i, err := os.Lstat(dir)
		if err != nil || !i.IsDir() || i.Mode().Perm() != 0o700 || time.Since(i.ModTime()) < scratchAge {
			continue
		}
		lock := flock.New(filepath.Join(dir, "lock"), flock.SetFlag(os.O_RDONLY|syscall.O_NOFOLLOW|syscall.O_NONBLOCK))
		if got, err := lock.TryLock(); err == nil && got {
			_ = os.RemoveAll(dir)
		}
		_ = lock.Close()
	}
}
