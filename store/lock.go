package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"time"

	"github.com/gofrs/flock"
)

// Owner is who uses a data folder.
type Owner struct {
	Process int       `json:"process"`
	Address string    `json:"address"`
	Since   time.Time `json:"since"`
}

// Lock is a data folder that one server has for itself.
type Lock struct{ lock *flock.Flock }

// ErrLocked says that another server uses a data folder.
var ErrLocked = errors.New("in use")

// LockFolder takes a data folder for one process. The system lets go of it
// when that process ends, however it ends.
func LockFolder(dir, address string) (*Lock, error) {
	if err := makeFolder(dir); err != nil {
		return nil, err
	}
	p := filepath.Join(dir, "lock")
	lock := flock.New(p)
	got, err := lock.TryLock()
	if err != nil {
		return nil, fmt.Errorf("the data folder %s can not be locked: %w", dir, err)
	}
	if !got {
		by := "another program"
		var o Owner
		if text, err := os.ReadFile(p + ".owner"); err == nil && json.Unmarshal(text, &o) == nil {
			by = fmt.Sprintf("process %d since %s", o.Process, o.Since.Format("2006-01-02 15:04"))
			if o.Address != "" {
				by = fmt.Sprintf("the server at %s (process %d since %s)", o.Address, o.Process, o.Since.Format("2006-01-02 15:04"))
			}
		}
		return nil, fmt.Errorf("%w: the data folder %s belongs to %s; stop it, or choose another with --data", ErrLocked, dir, by)
	}
	text, err := json.Marshal(Owner{os.Getpid(), address, time.Now().UTC().Truncate(time.Second)})
	if err == nil {
		// Who it is tells people; the lock itself does not depend on it.
		_ = os.WriteFile(p+".owner", text, 0o600)
	}
	return &Lock{lock}, nil
}

// Release lets go of the folder.
func (l *Lock) Release() error { return l.lock.Unlock() }
