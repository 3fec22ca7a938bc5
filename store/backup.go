package store

import (
	"archive/zip"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"strings"
	"time"
)

// A backup is a zip archive of what can not be made again: review.db as it
// stood at one moment, the archives that were sent in, and a manifest with the
// hash of each. facts.db is left out: surveys make it again.

// manifestName is the entry of a backup that says what is in it.
const manifestName = "jantel-backup.json"

// uploadsFolder is where a data folder keeps the archives that were sent in.
const uploadsFolder = "uploads"

// Manifest says what a backup holds.
type Manifest struct {
	Format int               `json:"format"` // 1
	Jantel string            `json:"jantel"` // the version that wrote it
	Made   time.Time         `json:"made"`
	Hashes map[string]string `json:"hashes"` // entry to hex SHA-256
}

// Backup writes a backup of a data folder to a file, of a running server too:
// it holds everything that was acknowledged before it began. The file is
// written beside and moved into place whole.
func Backup(ctx context.Context, dir, file, version string) (err error) {
	if _, err := os.Stat(filepath.Join(dir, reviewFile)); err != nil {
		return fmt.Errorf("there is nothing to back up in %s: %w", dir, err)
	}
	scratch, err := os.MkdirTemp(filepath.Dir(file), ".jantel-backup-")
	if err != nil {
		return fmt.Errorf("%s can not be written: %w", file, err)
	}
	defer func() { err = errors.Join(err, os.RemoveAll(scratch)) }()
	snapshot := filepath.Join(scratch, reviewFile)
	if err := snapshotOf(ctx, filepath.Join(dir, reviewFile), snapshot); err != nil {
		return err
	}
	out, err := os.OpenFile(filepath.Join(scratch, "backup"), os.O_RDWR|os.O_CREATE|os.O_EXCL, 0o600)
	if err != nil {
		return err
	}
	defer func() { _ = out.Close() }()
	z := zip.NewWriter(out)
	m := Manifest{Format: 1, Jantel: version, Made: time.Now().UTC().Truncate(time.Second), Hashes: map[string]string{}}
	if m.Hashes[reviewFile], err = pour(z, reviewFile, snapshot); err != nil {
		return err
	}
	items, err := os.ReadDir(filepath.Join(dir, uploadsFolder))
	if err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	for _, it := range items {
		if !it.Type().IsRegular() {
			continue
		}
		name := path.Join(uploadsFolder, it.Name())
		if m.Hashes[name], err = pour(z, name, filepath.Join(dir, uploadsFolder, it.Name())); err != nil {
			return err
		}
	}
	w, err := z.Create(manifestName)
	if err != nil {
		return err
	}
	if err := json.NewEncoder(w).Encode(m); err != nil {
		return err
	}
	if err := errors.Join(z.Close(), out.Sync(), out.Close()); err != nil {
		return fmt.Errorf("%s can not be written: %w", file, err)
	}
	if err := os.Rename(out.Name(), file); err != nil {
		return fmt.Errorf("%s can not be written: %w", file, err)
	}
	return nil
}

// snapshotOf copies a database as it stands, while others may write to it.
func snapshotOf(ctx context.Context, from, to string) error {
	db, err := open(from, "FULL")
	if err != nil {
		return err
	}
	_, err = db.ExecContext(ctx, "VACUUM INTO ?", to)
	if err = errors.Join(err, db.Close()); err != nil {
		return fmt.Errorf("%s can not be copied: %w", from, busy(err))
	}
	return nil
}

// pour puts a file into the archive and returns its hash.
func pour(z *zip.Writer, name, from string) (string, error) {
	h, err := os.Open(from)
	if err != nil {
		return "", err
	}
	defer func() { _ = h.Close() }()
	w, err := z.Create(name)
	if err != nil {
		return "", err
	}
	sum := sha256.New()
	_, err = io.Copy(io.MultiWriter(w, sum), h)
	return hex.EncodeToString(sum.Sum(nil)), err
}

// Restore brings a backup back into a data folder that no server uses. Where
// there is a review already it refuses, unless forced; then the old one is
// aside beside. Nothing is changed before the whole backup was found sound.
func Restore(ctx context.Context, dir, file string, force bool) (aside string, err error) {
	lock, err := LockFolder(dir, "")
	if err != nil {
		return "", err
	}
	defer func() { err = errors.Join(err, lock.Release()) }()
	_, err = os.Stat(filepath.Join(dir, reviewFile))
	there := err == nil
	if there && !force {
		return "", fmt.Errorf("%s holds a review already; with --force it is kept beside and the backup takes its place", dir)
	}
	scratch, err := os.MkdirTemp(dir, ".restore-")
	if err != nil {
		return "", err
	}
	defer func() { err = errors.Join(err, os.RemoveAll(scratch)) }()
	names, err := unpackBackup(file, scratch)
	if err != nil {
		return "", fmt.Errorf("%s is no sound backup, and nothing was changed: %w", file, err)
	}
	if err := sound(ctx, filepath.Join(scratch, reviewFile)); err != nil {
		return "", fmt.Errorf("%s is no sound backup, and nothing was changed: %w", file, err)
	}
	if err := moveUploads(ctx, filepath.Join(scratch, reviewFile), dir, names); err != nil {
		return "", err
	}
	for _, n := range names {
		if n == reviewFile {
			continue
		}
		to := filepath.Join(dir, filepath.FromSlash(n))
		if err := os.MkdirAll(filepath.Dir(to), 0o700); err != nil {
			return "", err
		}
		if err := os.Rename(filepath.Join(scratch, filepath.FromSlash(n)), to); err != nil {
			return "", err
		}
	}
	if there {
		if aside, err = putAside(ctx, dir); err != nil {
			return "", err
		}
	}
	// At every moment up to here the old review was in its place.
	return aside, os.Rename(filepath.Join(scratch, reviewFile), filepath.Join(dir, reviewFile))
}

// moveUploads makes the codebases of a restored review read their archives
// from the folder that it is restored to.
func moveUploads(ctx context.Context, review, dir string, names []string) error {
	abs, err := filepath.Abs(dir)
	if err != nil {
		return err
	}
	db, err := open(review, "FULL")
	if err != nil {
		return err
	}
	for _, n := range names {
		if n != reviewFile && err == nil {
			_, err = db.ExecContext(
				ctx, "UPDATE codebases SET path = ? WHERE kind = 'archive' AND path LIKE ? ESCAPE '!'",
				filepath.Join(abs, filepath.FromSlash(n)), "%/"+escapeLike(n),
			)
		}
	}
	return errors.Join(err, db.Close()) // closing writes everything into the one file
}

func escapeLike(s string) string {
	return strings.NewReplacer("!", "!!", "%", "!%", "_", "!_").Replace(s)
}

// putAside keeps the review of a folder beside, while it stays in its place.
func putAside(ctx context.Context, dir string) (aside string, err error) {
	aside = filepath.Join(dir, "replaced-"+time.Now().UTC().Format("20060102-150405"))
	if err := os.MkdirAll(aside, 0o700); err != nil {
		return "", err
	}
	// What still stands in its log is written into the one file; a damaged one
	// can not do that, and keeps its log.
	if db, err := open(filepath.Join(dir, reviewFile), "FULL"); err == nil {
		_, _ = db.ExecContext(ctx, "PRAGMA wal_checkpoint(TRUNCATE)")
		_ = db.Close()
	}
	if err := os.Link(filepath.Join(dir, reviewFile), filepath.Join(aside, reviewFile)); err != nil {
		return "", err
	}
	for _, n := range []string{reviewFile + "-wal", reviewFile + "-shm"} {
		if err := os.Rename(filepath.Join(dir, n), filepath.Join(aside, n)); err != nil && !errors.Is(err, fs.ErrNotExist) {
			return "", err
		}
	}
	return aside, nil
}

// unpackBackup writes what a backup holds into a folder, each file checked
// against its hash.
func unpackBackup(file, into string) (names []string, err error) {
	z, err := zip.OpenReader(file)
	if err != nil {
		return nil, err
	}
	defer func() { _ = z.Close() }()
	var m Manifest
	r, err := z.Open(manifestName)
	if err != nil {
		return nil, errors.New("it has no " + manifestName)
	}
	err = json.NewDecoder(io.LimitReader(r, 64<<20)).Decode(&m)
	_ = r.Close()
	switch {
	case err != nil:
		return nil, fmt.Errorf("its manifest can not be read: %w", err)
	case m.Format != 1:
		return nil, fmt.Errorf("it is of format %d, and this program knows 1", m.Format)
	case m.Hashes[reviewFile] == "":
		return nil, errors.New("it holds no " + reviewFile)
	}
	for name, want := range m.Hashes {
		if name != reviewFile && (path.Dir(name) != uploadsFolder || strings.ContainsAny(path.Base(name), `\:`) ||
			path.Base(name) == "..") {
			return nil, fmt.Errorf("it holds %q, which belongs in no backup", name)
		}
		to := filepath.Join(into, filepath.FromSlash(name))
		if err := os.MkdirAll(filepath.Dir(to), 0o700); err != nil {
			return nil, err
		}
		got, err := take(z, name, to)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", name, err)
		}
		if got != want {
			return nil, fmt.Errorf("%s is damaged: it is not what was backed up", name)
		}
		names = append(names, name)
	}
	return names, nil
}

func take(z *zip.ReadCloser, name, to string) (hash string, err error) {
	r, err := z.Open(name)
	if err != nil {
		return "", err
	}
	defer func() { _ = r.Close() }()
	h, err := os.OpenFile(to, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o600)
	if err != nil {
		return "", err
	}
	sum := sha256.New()
	_, err = io.Copy(io.MultiWriter(h, sum), r)
	return hex.EncodeToString(sum.Sum(nil)), errors.Join(err, h.Sync(), h.Close())
}

// sound looks through a whole database for damage.
func sound(ctx context.Context, p string) error {
	db, err := open(p, "FULL")
	if err != nil {
		return err
	}
	defer func() { _ = db.Close() }()
	rows, err := db.QueryContext(ctx, "PRAGMA integrity_check(10)")
	if err != nil {
		return busy(err)
	}
	defer func() { _ = rows.Close() }()
	var said []string
	for rows.Next() {
		var s string
		if err := rows.Scan(&s); err != nil {
			return err
		}
		if s != "ok" {
			said = append(said, s)
		}
	}
	if err := rows.Err(); err != nil {
		return busy(err)
	}
	if len(said) > 0 {
		return errors.New(strings.Join(said, "; "))
	}
	return nil
}

// Fault is something wrong with a data folder.
type Fault struct {
	File     string
	Text     string
	Precious bool // what it holds can not be made again
}

// Verify looks through a data folder, of a running server too, and lists what
// is wrong with it.
func Verify(ctx context.Context, dir string) (faults []Fault, err error) {
	review := filepath.Join(dir, reviewFile)
	if info, err := os.Stat(review); err != nil {
		return nil, fmt.Errorf("there is no review in %s: %w", dir, err)
	} else if info.Size() == 0 {
		return []Fault{{reviewFile, "it is there and holds nothing", true}}, nil
	}
	if err := sound(ctx, review); err != nil {
		if Busy(err) || ctx.Err() != nil {
			return nil, err
		}
		faults = append(faults, Fault{reviewFile, err.Error(), true})
	} else if lost, err := lostUploads(ctx, dir); err != nil {
		faults = append(faults, Fault{reviewFile, err.Error(), true})
	} else {
		faults = append(faults, lost...)
	}
	facts := filepath.Join(dir, factsFile)
	if _, err := os.Stat(facts); err == nil {
		if err := sound(ctx, facts); err != nil && !Busy(err) {
			faults = append(faults, Fault{factsFile, err.Error(), false})
		}
	}
	return faults, nil
}

// lostUploads are archives that a codebase is read from and that are gone.
func lostUploads(ctx context.Context, dir string) (faults []Fault, err error) {
	db, err := open(filepath.Join(dir, reviewFile), "FULL")
	if err != nil {
		return nil, err
	}
	defer func() { _ = db.Close() }()
	rows, err := db.QueryContext(ctx, "SELECT name, path FROM codebases WHERE kind = 'archive'")
	if err != nil {
		return nil, err
	}
	defer func() { _ = rows.Close() }()
	for rows.Next() {
		var name, p string
		if err := rows.Scan(&name, &p); err != nil {
			return nil, err
		}
		if _, err := os.Stat(p); err != nil && strings.Contains(p, string(filepath.Separator)+uploadsFolder+string(filepath.Separator)) {
			faults = append(faults, Fault{
				path.Join(uploadsFolder, filepath.Base(p)),
				fmt.Sprintf("the archive of the codebase %q is gone", name), true,
			})
		}
	}
	return faults, rows.Err()
}
