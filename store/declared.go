package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"time"

	"jantel/core/model"
	"jantel/review"
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
		err := touch(ctx, tx, id, review.PartJudged)
		if err != nil {
			return err
		}
		if gone {
			_, err = tx.ExecContext(ctx, "DELETE FROM overrules WHERE codebase = ? AND kind = ? AND target = ?", id, o.Kind, o.Target)
		} else {
			_, err = tx.ExecContext(
				ctx,
				"INSERT INTO overrules (codebase, kind, target, value, at, by) VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT "+
					"(codebase, kind, target) DO UPDATE SET value = excluded.value, at = excluded.at, by = excluded.by",
				id, o.Kind, o.Target, o.Value, time.Now().UnixMilli(), o.By,
			)
		}
		return err
	})
}

// Arrangement returns how a hand put the boxes of a drawing, from the left; nil
// when none did.
func (r *Review) Arrangement(ctx context.Context, id int64, place string) ([]string, error) {
	var text string
	err := r.db.QueryRowContext(ctx, "SELECT boxes FROM arrangements WHERE codebase = ? AND place = ?", id, place).Scan(&text)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	var boxes []string
	return boxes, json.Unmarshal([]byte(text), &boxes)
}

// Arrange keeps how a hand put the boxes of a drawing; none at all leaves it to
// what is reckoned.
func (r *Review) Arrange(ctx context.Context, id int64, place string, boxes []string) error {
	text, err := json.Marshal(boxes)
	if err != nil {
		return err
	}
	return inTx(ctx, r.db, func(tx *sql.Tx) error {
		err := touch(ctx, tx, id, review.PartArrangement)
		if err != nil {
			return err
		}
		if len(boxes) == 0 {
			_, err = tx.ExecContext(ctx, "DELETE FROM arrangements WHERE codebase = ? AND place = ?", id, place)
		} else {
			_, err = tx.ExecContext(
				ctx,
				"INSERT INTO arrangements (codebase, place, boxes) VALUES (?, ?, ?) ON CONFLICT (codebase, place) DO "+
					"UPDATE SET boxes = excluded.boxes",
				id, place, string(text),
			)
		}
		return err
	})
}
