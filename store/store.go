// Package store keeps Jantel's data in two SQLite files: review.db holds what
// people wrote and is precious; facts.db holds what was read and can always be
// read again. They are apart, so that a survey's writing never holds up a
// remark.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"time"

	"github.com/pressly/goose/v3"
	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"
)

//go:embed migrations
var migrations embed.FS

// The names of the two files in a data folder.
const (
	reviewFile = "review.db"
	factsFile  = "facts.db"
)

var (
	// ErrNewer says that a file was written by a later version.
	ErrNewer = errors.New("written by a newer Jantel")
	// ErrEmptied says that a file is there and holds nothing, not even what a
	// new one holds: somebody or something took its contents away.
	ErrEmptied = errors.New("emptied")
	// ErrBusy says that another program is writing to a file.
	ErrBusy = errors.New("another program is writing to the data")
)

// Review is the store of what people wrote.
type Review struct {
	db  *sql.DB
	dir string
}

// Facts is the store of what was read.
type Facts struct {
	dir string
	mu  sync.RWMutex
	now *sql.DB
	// joined tells that another process keeps the file.
	joined bool
	// Rebuilt is told why when the file was damaged and was made anew.
	Rebuilt func(why string)
}

// OpenReview opens review.db in the data folder, making it where it is
// missing and bringing it up to date. One that is newer, emptied or no
// database is refused: nothing is ever written over it.
func OpenReview(ctx context.Context, dir string) (*Review, error) {
	if err := makeFolder(dir); err != nil {
		return nil, err
	}
	p := filepath.Join(dir, reviewFile)
	switch info, err := os.Stat(p); {
	case errors.Is(err, fs.ErrNotExist):
		if err := create(ctx, p); err != nil {
			return nil, err
		}
	case err == nil && info.Size() == 0:
		return nil, emptied(p)
	}
	// FULL: an acknowledged remark survives a killed process and a power cut.
	db, err := open(p, "FULL")
	if err != nil {
		return nil, err
	}
	if err := upToDate(ctx, db, p, "review", true); err != nil {
		return nil, errors.Join(err, db.Close())
	}
	return &Review{db, dir}, nil
}

// create makes a new file beside and moves it into place whole, so that one
// that holds nothing never comes of a process that was killed.
func create(ctx context.Context, p string) error {
	tmp := p + ".new"
	for _, end := range []string{"", "-wal", "-shm"} {
		_ = os.Remove(tmp + end)
	}
	db, err := open(tmp, "FULL")
	if err != nil {
		return err
	}
	err = errors.Join(migrate(ctx, db, tmp, "review"), db.Close())
	if err == nil {
		err = os.Rename(tmp, p)
	}
	return err
}

func emptied(p string) error {
	return fmt.Errorf(
		"%w: %s is there and holds nothing; bring a backup back with `jantel restore`, or move the file away to start anew",
		ErrEmptied, p,
	)
}

// OpenFacts opens facts.db in the data folder. A file that can not be used,
// for whatever reason but that somebody else is writing to it, is put aside
// and made anew, as nothing in it is precious.
func OpenFacts(ctx context.Context, dir string) (*Facts, error) {
	f := &Facts{dir: dir}
	if err := makeFolder(dir); err != nil {
		return nil, err
	}
	err := f.open(ctx)
	if err != nil && !errors.Is(err, ErrBusy) && ctx.Err() == nil {
		err = f.rebuild(ctx, err)
	}
	if err != nil {
		return nil, err
	}
	return f, nil
}

// JoinFacts opens a facts.db that another process has open and keeps sound: it
// is used as it is, and never made anew.
func JoinFacts(ctx context.Context, dir string) (*Facts, error) {
	db, err := open(filepath.Join(dir, factsFile), "OFF")
	if err != nil {
		return nil, err
	}
	if err := db.PingContext(ctx); err != nil {
		return nil, errors.Join(fmt.Errorf("the store of facts can not be opened: %w", busy(err)), db.Close())
	}
	return &Facts{dir: dir, now: db, joined: true}, nil
}

// FactsFiles are the files that a facts.db consists of.
func FactsFiles(dir string) []string {
	p := filepath.Join(dir, factsFile)
	return []string{p, p + "-wal", p + "-shm"}
}

func (f *Facts) path() string { return filepath.Join(f.dir, factsFile) }

func (f *Facts) open(ctx context.Context) error {
	db, err := open(f.path(), "OFF")
	if err != nil {
		return err
	}
	if err := upToDate(ctx, db, f.path(), "facts", false); err != nil {
		return errors.Join(err, db.Close())
	}
	f.now = db
	return nil
}

// db is the file as it stands now: it may be made anew while somebody asks.
func (f *Facts) db() *sql.DB {
	f.mu.RLock()
	defer f.mu.RUnlock()
	return f.now
}

// rebuild puts a damaged file aside, one at a time, and opens a new one.
func (f *Facts) rebuild(ctx context.Context, why error) error {
	p := f.path()
	if err := os.Rename(p, p+".broken"); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return errors.Join(why, err)
	}
	_ = os.Remove(p + "-wal")
	_ = os.Remove(p + "-shm")
	if err := f.open(ctx); err != nil {
		return err
	}
	if f.Rebuilt != nil {
		f.Rebuilt(why.Error())
	}
	return nil
}

// heal makes the file anew when err says that it is damaged. What was kept in
// it is gone; it will be read again with the next survey.
func (f *Facts) heal(ctx context.Context, used *sql.DB, err error) {
	if f.joined || !Damaged(err) {
		return
	}
	f.mu.Lock()
	defer f.mu.Unlock()
	if f.now != used {
		return // somebody else met the damage as well, and was first
	}
	f.replace(ctx, err)
}

func (f *Facts) replace(ctx context.Context, why error) {
	_ = f.now.Close()
	if f.rebuild(context.WithoutCancel(ctx), why) != nil {
		f.now, _ = sql.Open("sqlite", "file::memory:") // answers, and says that nothing is there
	}
}

// Remake makes the file anew because another process met damage in it.
func (f *Facts) Remake(ctx context.Context, why error) {
	f.mu.Lock()
	defer f.mu.Unlock()
	f.replace(ctx, why)
}

// Damaged reports whether an error says that a file is no sound database.
func Damaged(err error) bool {
	var e *sqlite.Error
	if errors.As(err, &e) {
		switch e.Code() & 0xff {
		case sqlite3.SQLITE_CORRUPT, sqlite3.SQLITE_NOTADB, sqlite3.SQLITE_FORMAT:
			return true
		}
	}
	return false
}

// busy puts a locked file in words; other errors stay what they are.
func busy(err error) error {
	var e *sqlite.Error
	if errors.As(err, &e) {
		switch e.Code() & 0xff {
		case sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED:
			return fmt.Errorf("%w: %w", ErrBusy, err)
		}
	}
	return err
}

// Busy reports whether an error says that another program is writing.
func Busy(err error) bool { return errors.Is(busy(err), ErrBusy) }

func makeFolder(dir string) error {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return fmt.Errorf("the data folder %s can not be made: %w; choose another with --data", dir, err)
	}
	return nil
}

// patience is how long a writer waits for another before it says so.
const patience = 5 * time.Second

func open(p, synchronous string) (*sql.DB, error) {
	dsn := fmt.Sprintf(
		"file:%s?_pragma=busy_timeout(%d)&_pragma=journal_mode(WAL)&_pragma=foreign_keys(1)&_pragma=synchronous(%s)&_txlock=immediate",
		strings.NewReplacer("%", "%25", "?", "%3f", "#", "%23").Replace(p), patience.Milliseconds(), synchronous)
	db, err := sql.Open("sqlite", dsn)
	if err != nil {
		return nil, fmt.Errorf("%s can not be opened: %w", p, err)
	}
	return db, nil
}

// upToDate brings a file that is there up to date, and refuses one that is
// newer than this program knows. A precious one is copied before it is
// changed.
func upToDate(ctx context.Context, db *sql.DB, p, set string, precious bool) error {
	m, err := migrator(db, set)
	if err != nil {
		return fmt.Errorf("%s can not be used: %w", p, busy(err))
	}
	tables := 0
	if err := db.QueryRowContext(ctx, "SELECT COUNT(*) FROM sqlite_master").Scan(&tables); err != nil {
		return fmt.Errorf("%s can not be used: %w", p, busy(err))
	}
	if precious && tables == 0 {
		return emptied(p)
	}
	has, knows, err := m.versions(ctx, tables > 0)
	switch {
	case err != nil:
		return fmt.Errorf("%s can not be used: %w", p, busy(err))
	case has > knows:
		return fmt.Errorf(
			"%w: %s is of version %d and this program knows %d; use the newer program, or another folder with --data",
			ErrNewer, p, has, knows,
		)
	case has == knows:
		return nil
	case precious:
		copied := fmt.Sprintf("%s.before-%d", p, knows)
		_ = os.Remove(copied)
		if _, err := db.ExecContext(ctx, "VACUUM INTO ?", copied); err != nil {
			return fmt.Errorf("%s can not be copied before it is brought up to date: %w", p, busy(err))
		}
	}
	return migrate(ctx, db, p, set)
}

type schema struct{ *goose.Provider }

func migrator(db *sql.DB, set string) (schema, error) {
	sub, err := fs.Sub(migrations, "migrations/"+set)
	if err != nil {
		return schema{}, err
	}
	provider, err := goose.NewProvider(goose.DialectSQLite3, db, sub)
	return schema{provider}, err
}

// versions are the version that a file has and the newest that is known.
func (m schema) versions(ctx context.Context, any bool) (has, knows int64, err error) {
	for _, s := range m.ListSources() {
		knows = max(knows, s.Version)
	}
	if any {
		has, err = m.GetDBVersion(ctx)
	}
	return has, knows, err
}

func migrate(ctx context.Context, db *sql.DB, p, set string) error {
	m, err := migrator(db, set)
	if err == nil {
		_, err = m.Up(ctx)
	}
	if err != nil {
		return fmt.Errorf("%s can not be brought up to date: %w", p, busy(err))
	}
	_ = os.Chmod(p, 0o600)
	return nil
}

// Close closes the file.
func (r *Review) Close() error { return r.db.Close() }

// Close closes the file.
func (f *Facts) Close() error { return f.db().Close() }

// inTx runs fn in a transaction and commits it when fn succeeds.
func inTx(ctx context.Context, db *sql.DB, fn func(tx *sql.Tx) error) error {
	tx, err := db.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	if err := fn(tx); err != nil {
		return errors.Join(err, tx.Rollback())
	}
	return tx.Commit()
}

func fromMillis(ms int64) time.Time { return time.UnixMilli(ms).UTC() }
