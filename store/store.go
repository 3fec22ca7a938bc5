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
	"time"

	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // the driver
)

//go:embed migrations
var migrations embed.FS

// Review is the store of what people wrote.
type Review struct{ db *sql.DB }

// Facts is the store of what was read.
type Facts struct{ db *sql.DB }

// OpenReview opens review.db in the data folder, making it where it is
// missing and bringing it up to date.
func OpenReview(ctx context.Context, dir string) (*Review, error) {
	// FULL: an acknowledged remark survives a killed process and a power cut.
	db, err := open(ctx, dir, "review.db", "FULL", "review")
	if err != nil {
		return nil, err
	}
	return &Review{db}, nil
}

// OpenFacts opens facts.db in the data folder. A file that can not be used is
// put aside, as nothing in it is precious.
func OpenFacts(ctx context.Context, dir string) (*Facts, error) {
	db, err := open(ctx, dir, "facts.db", "OFF", "facts")
	if err != nil && strings.Contains(err.Error(), "not a database") || err != nil && strings.Contains(err.Error(), "malformed") {
		p := filepath.Join(dir, "facts.db")
		_ = os.Rename(p, p+".broken")
		_ = os.Remove(p + "-wal")
		_ = os.Remove(p + "-shm")
		db, err = open(ctx, dir, "facts.db", "OFF", "facts")
	}
	if err != nil {
		return nil, err
	}
	return &Facts{db}, nil
}

func open(ctx context.Context, dir, name, synchronous, set string) (*sql.DB, error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("the data folder %s can not be made: %w; choose another with --data", dir, err)
	}
	p := filepath.Join(dir, name)
	dsn := "file:" + strings.NewReplacer("%", "%25", "?", "%3f", "#", "%23").Replace(p) +
		"?_pragma=busy_timeout(10000)&_pragma=journal_mode(WAL)&_pragma=foreign_keys(1)&_pragma=synchronous(" + synchronous + ")&_txlock=immediate"
	db, err := sql.Open("sqlite", dsn)
	if err != nil {
		return nil, fmt.Errorf("%s can not be opened: %w", p, err)
	}
	fail := func(err error) (*sql.DB, error) {
		_ = db.Close()
		return nil, fmt.Errorf("%s can not be used: %w", p, err)
	}
	sub, err := fs.Sub(migrations, "migrations/"+set)
	if err != nil {
		return fail(err)
	}
	provider, err := goose.NewProvider(goose.DialectSQLite3, db, sub)
	if err != nil {
		return fail(err)
	}
	if _, err := provider.Up(ctx); err != nil {
		return fail(err)
	}
	_ = os.Chmod(p, 0o600)
	return db, nil
}

// Close closes the file.
func (r *Review) Close() error { return r.db.Close() }

// Close closes the file.
func (f *Facts) Close() error { return f.db.Close() }

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
