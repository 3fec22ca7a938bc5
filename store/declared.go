package store

import (
	"context"
	"database/sql"
	"errors"
	"time"

	"jantel/core/model"
)

// Charter returns the text of the charter that is kept for a codebase and its
// version; version 0 means that none is.
func (r *Review) Charter(ctx context.Context, id int64) (text string, version int64, err error) {
	err = r.db.QueryRowContext(ctx, "SELECT text, version FROM charters WHERE codebase = ?", id).Scan(&text, &version)
	if errors.Is(err, sql.ErrNoRows) {
		return "", 0, nil
	}
	return text, version, err
}

// SetCharter replaces the charter of a codebase when version is still the
// newest; an empty text takes it away.
func (r *Review) SetCharter(ctx context.Context, id int64, text string, version int64) (int64, error) {
	return r.replace(ctx, "charters", "text", id, text, version)
}

// Overrules returns what the lead set by hand, in a fixed order.
func (r *Review) Overrules(ctx context.Context, id int64) ([]model.Overrule, error) {
	rows, err := r.db.QueryContext(ctx, "SELECT kind, target, value, by FROM overrules WHERE codebase = ? ORDER BY kind, target", id)
	if err != nil {
		return nil, err
	}
	defer func() { _ = rows.Close() }()
	out := []model.Overrule{}
	for rows.Next() {
		var o model.Overrule
		if err := rows.Scan(&o.Kind, &o.Target, &o.Value, &o.By); err != nil {
			return nil, err
		}
		out = append(out, o)
	}
	return out, rows.Err()
}

// Overrule sets something by hand, or with gone takes it back.
func (r *Review) Overrule(ctx context.Context, id int64, o model.Overrule, gone bool) error {
	return inTx(ctx, r.db, func(tx *sql.Tx) error {
		var err error
		if gone {
			_, err = tx.ExecContext(ctx, "DELETE FROM overrules WHERE codebase = ? AND kind = ? AND target = ?", id, o.Kind, o.Target)
		} else {
			_, err = tx.ExecContext(ctx, "INSERT INTO overrules (codebase, kind, target, value, at, by) VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT (codebase, kind, target) DO UPDATE SET value = excluded.value, at = excluded.at, by = excluded.by", id, o.Kind, o.Target, o.Value, time.Now().UnixMilli(), o.By)
		}
		if err != nil {
			return err
		}
		return touch(ctx, tx, id)
	})
}
