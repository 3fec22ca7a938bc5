package store

import (
	"context"
	"database/sql"
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

// MarkRead sets or takes away the read marks of files, by path and content.
func (r *Review) MarkRead(ctx context.Context, codebase int64, files map[string]string, read bool, by string) error {
	return inTx(ctx, r.db, func(tx *sql.Tx) error {
		now := time.Now().UnixMilli()
		for p, h := range files {
			var err error
			if read {
				_, err = tx.ExecContext(ctx, "INSERT INTO read_marks (codebase, path, hash, at, by) VALUES (?, ?, ?, ?, ?) ON CONFLICT (codebase, path) DO UPDATE SET hash = excluded.hash, at = excluded.at, by = excluded.by", codebase, p, h, now, by)
			} else {
				_, err = tx.ExecContext(ctx, "DELETE FROM read_marks WHERE codebase = ? AND path = ?", codebase, p)
			}
			if err != nil {
				return err
			}
		}
		return touch(ctx, tx, codebase)
	})
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
			if _, err := tx.ExecContext(ctx, "UPDATE silences SET rule = ?, path = ?, name = ? WHERE codebase = ? AND smell = ? AND rule = ''", k.Rule, k.Path, k.Name, codebase, id); err != nil {
				return err
			}
		}
		return nil
	})
}

// Silence stops a smell from counting, or with an empty reason lets it count
// again.
func (r *Review) Silence(ctx context.Context, codebase int64, smell string, s model.Silence, by string) error {
	return inTx(ctx, r.db, func(tx *sql.Tx) error {
		var err error
		if s.Reason == "" {
			_, err = tx.ExecContext(ctx, "DELETE FROM silences WHERE codebase = ? AND smell = ?", codebase, smell)
		} else {
			_, err = tx.ExecContext(ctx, "INSERT INTO silences (codebase, smell, reason, rule, path, name, at, by) VALUES (?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (codebase, smell) DO UPDATE SET reason = excluded.reason, rule = excluded.rule, path = excluded.path, name = excluded.name, at = excluded.at, by = excluded.by", codebase, smell, s.Reason, s.Rule, s.Path, s.Name, time.Now().UnixMilli(), by)
		}
		if err != nil {
			return err
		}
		return touch(ctx, tx, codebase)
	})
}
