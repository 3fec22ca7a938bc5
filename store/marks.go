package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"maps"
	"slices"
	"time"

	"jantel/core/model"
	"jantel/review"
)

var emptyEvidence = []model.Evidence{}

// ReadMarks returns which files of a codebase were looked at, by path.
func (r *Review) ReadMarks(ctx context.Context, codebase int64) (map[string]review.ReadMark, error) {
	rows, err := r.db.QueryContext(ctx, "SELECT path, hash, at, by FROM read_marks WHERE codebase = ?", codebase)
	if err != nil {
		return nil, err
	}
	defer func() { _ = rows.Close() }()
	out := map[string]review.ReadMark{}
	for rows.Next() {
		var m review.ReadMark
		var at int64
		if err := rows.Scan(&m.Path, &m.Hash, &at, &m.By); err != nil {
			return nil, err
		}
		m.At = fromMillis(at)
		out[m.Path] = m
	}
	return out, rows.Err()
}

// keptSteps is how many steps of marking can still be taken back.
const keptSteps = 50

// MarkRead sets or takes away the read marks of files, by path and content. It
// returns the step, by which UndoMarks takes it back, and how many marks it
// changed; files that are marked as asked already are left as they are.
func (r *Review) MarkRead(
	ctx context.Context, codebase int64, files map[string]string, read bool, by review.Actor,
) (step int64, changed int, err error) {
	err = inTx(ctx, r.db, func(tx *sql.Tx) error {
		now := time.Now().UnixMilli()
		res, err := tx.ExecContext(ctx, "INSERT INTO mark_steps (codebase, at) VALUES (?, ?)", codebase, now)
		if err != nil {
			return err
		}
		if step, err = res.LastInsertId(); err != nil {
			return err
		}
		for _, p := range slices.Sorted(maps.Keys(files)) {
			did, err := mark(ctx, tx, codebase, step, p, files[p], read, by, now)
			if err != nil {
				return err
			}
			if did {
				changed++
			}
		}
		if _, err := tx.ExecContext(
			ctx,
			"DELETE FROM mark_steps WHERE codebase = ? AND id NOT IN (SELECT id FROM mark_steps WHERE codebase = ? "+
				"ORDER BY id DESC LIMIT ?)",
			codebase, codebase, keptSteps,
		); err != nil {
			return err
		}
		return touch(ctx, tx, codebase, review.PartMarks)
	})
	return step, changed, err
}

// mark changes one mark and keeps what it was.
func mark(
	ctx context.Context, tx *sql.Tx, codebase, step int64, path, hash string, read bool, by review.Actor, now int64,
) (changed bool, err error) {
	var was oldMark
	err = tx.QueryRowContext(
		ctx, "SELECT hash, at, by FROM read_marks WHERE codebase = ? AND path = ?", codebase, path,
	).Scan(&was.hash, &was.at, &was.by)
	if err != nil && !errors.Is(err, sql.ErrNoRows) {
		return false, err
	}
	if read && was.hash.String == hash && was.hash.Valid || !read && !was.hash.Valid {
		return false, nil
	}
	var newHash, newAt any
	if read {
		newHash, newAt = hash, now
		_, err = tx.ExecContext(
			ctx,
			"INSERT INTO read_marks (codebase, path, hash, at, by) VALUES (?, ?, ?, ?, ?) ON CONFLICT (codebase, "+
				"path) DO UPDATE SET hash = excluded.hash, at = excluded.at, by = excluded.by",
			codebase, path, hash, now, by,
		)
	} else {
		_, err = tx.ExecContext(ctx, "DELETE FROM read_marks WHERE codebase = ? AND path = ?", codebase, path)
	}
	if err != nil {
		return false, err
	}
	_, err = tx.ExecContext(
		ctx,
		"INSERT INTO mark_changes (step, path, old_hash, old_at, old_by, new_hash, new_at) VALUES (?, ?, ?, ?, ?, ?, ?)",
		step, path, was.hash, was.at, was.by, newHash, newAt,
	)
	return true, err
}

type oldMark struct {
	hash, by sql.NullString
	at       sql.NullInt64
}

// UndoMarks takes a step of marking back: every mark that still is as the step
// left it becomes what it was before, and what was marked otherwise since is
// left alone. It returns how many marks it put back, and how many it left.
func (r *Review) UndoMarks(ctx context.Context, codebase, step int64) (back, left int, err error) {
	err = inTx(ctx, r.db, func(tx *sql.Tx) error {
		var n int
		if err := tx.QueryRowContext(
			ctx, "SELECT COUNT(*) FROM mark_steps WHERE id = ? AND codebase = ?", step, codebase,
		).Scan(&n); err != nil {
			return err
		}
		if n == 0 {
			return fmt.Errorf("%w: this step of marking can not be taken back any more", review.ErrNotFound)
		}
		// What still is as the step left it: the same content at the same time,
		// or still no mark.
		const same = "FROM mark_changes c LEFT JOIN read_marks m ON m.codebase = ? AND m.path = c.path WHERE c.step = " +
			"? AND m.hash IS c.new_hash AND m.at IS c.new_at"
		var all int
		if err := tx.QueryRowContext(ctx, "SELECT COUNT(*) FROM mark_changes WHERE step = ?", step).Scan(&all); err != nil {
			return err
		}
		if err := tx.QueryRowContext(ctx, "SELECT COUNT(*) "+same, codebase, step).Scan(&back); err != nil {
			return err
		}
		left = all - back
		if _, err := tx.ExecContext(ctx, "CREATE TEMP TABLE IF NOT EXISTS undone (path TEXT, hash TEXT, at INTEGER, by TEXT)"); err != nil {
			return err
		}
		for _, q := range []struct {
			text string
			args []any
		}{
			{"DELETE FROM undone", nil},
			{"INSERT INTO undone SELECT c.path, c.old_hash, c.old_at, c.old_by " + same, []any{codebase, step}},
			{"DELETE FROM read_marks WHERE codebase = ? AND path IN (SELECT path FROM undone)", []any{codebase}},
			{
				"INSERT INTO read_marks (codebase, path, hash, at, by) SELECT ?, path, hash, at, by FROM undone WHERE hash IS NOT NULL",
				[]any{codebase},
			},
			{"DELETE FROM mark_steps WHERE id = ?", []any{step}},
		} {
			if _, err := tx.ExecContext(ctx, q.text, q.args...); err != nil {
				return err
			}
		}
		return touch(ctx, tx, codebase, review.PartMarks)
	})
	return back, left, err
}

// Silences returns the smells that do not count, by id.
func (r *Review) Silences(ctx context.Context, codebase int64) (map[string]model.Silence, error) {
	rows, err := r.db.QueryContext(ctx, "SELECT smell, reason, rule, path, name FROM silences WHERE codebase = ?", codebase)
	if err != nil {
		return nil, err
	}
	defer func() { _ = rows.Close() }()
	out := map[string]model.Silence{}
	for rows.Next() {
		var id string
		var s model.Silence
		if err := rows.Scan(&id, &s.Reason, &s.Rule, &s.Path, &s.Name); err != nil {
			return nil, err
		}
		out[id] = s
	}
	return out, rows.Err()
}

// KeepKeys keeps beside silences what their smells are about, where an earlier
// version kept the id alone.
func (r *Review) KeepKeys(ctx context.Context, codebase int64, keys map[string]model.SmellKey) error {
	return inTx(ctx, r.db, func(tx *sql.Tx) error {
		for id, k := range keys {
			if _, err := tx.ExecContext(
				ctx,
				"UPDATE silences SET rule = ?, path = ?, name = ? WHERE codebase = ? AND smell = ? AND rule = ''",
				k.Rule, k.Path, k.Name, codebase, id,
			); err != nil {
				return err
			}
		}
		return nil
	})
}

// Silence stops a smell from counting, or with an empty reason lets it count
// again.
func (r *Review) Silence(ctx context.Context, codebase int64, smell string, s model.Silence, by review.Actor) error {
	return inTx(ctx, r.db, func(tx *sql.Tx) error {
		var err error
		if s.Reason == "" {
			_, err = tx.ExecContext(ctx, "DELETE FROM silences WHERE codebase = ? AND smell = ?", codebase, smell)
		} else {
			_, err = tx.ExecContext(
				ctx,
				"INSERT INTO silences (codebase, smell, reason, rule, path, name, at, by) VALUES (?, ?, ?, ?, ?, ?, "+
					"?, ?) ON CONFLICT (codebase, smell) DO UPDATE SET reason = excluded.reason, rule = "+
					"excluded.rule, path = excluded.path, name = excluded.name, at = excluded.at, by = excluded.by",
				codebase, smell, s.Reason, s.Rule, s.Path, s.Name, time.Now().UnixMilli(), by,
			)
		}
		if err != nil {
			return err
		}
		return touch(ctx, tx, codebase, review.PartJudged)
	})
}

// Hold keeps everybody else from writing until it is released, as a program
// that copies the data would.
func (r *Review) Hold(ctx context.Context) (release func() error, err error) {
	tx, err := r.db.BeginTx(ctx, nil)
	if err != nil {
		return nil, err
	}
	return tx.Rollback, nil
}
