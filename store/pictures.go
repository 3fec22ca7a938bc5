package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"jantel/review"
)

// How many pictures a codebase may have, and how many of those that were taken away
// are kept to be taken back.
const (
	mostPictures = 300
	keptGone     = 20
)

// Pictures lists the pictures of a part or a route, or with an empty name all of a
// file, the oldest first.
func (r *Review) Pictures(ctx context.Context, codebase int64, path, name string) ([]review.Picture, error) {
	rows, err := r.db.QueryContext(
		ctx,
		"SELECT id, path, name, width, height, boxes, version, at, by FROM pictures WHERE codebase = ? AND path = ? AND "+
			"(? = '' OR name = ?) AND gone = 0 ORDER BY id",
		codebase, path, name, name,
	)
	if err != nil {
		return nil, err
	}
	defer func() { _ = rows.Close() }()
	out := []review.Picture{}
	for rows.Next() {
		p, err := scanPicture(rows)
		if err != nil {
			return nil, err
		}
		out = append(out, p)
	}
	return out, rows.Err()
}

func scanPicture(row interface{ Scan(...any) error }) (p review.Picture, err error) {
	var boxes string
	var at int64
	if err := row.Scan(&p.ID, &p.Path, &p.Name, &p.Width, &p.Height, &boxes, &p.Version, &at, &p.By); err != nil {
		return p, err
	}
	p.At = fromMillis(at)
	return p, json.Unmarshal([]byte(boxes), &p.Boxes)
}

// PNG is a picture itself.
func (r *Review) PNG(ctx context.Context, codebase, id int64) (png []byte, err error) {
	err = r.db.QueryRowContext(ctx, "SELECT png FROM pictures WHERE codebase = ? AND id = ? AND gone = 0", codebase, id).Scan(&png)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, fmt.Errorf("picture %d: %w", id, review.ErrNotFound)
	}
	return png, err
}

// AddPicture keeps a picture that was drawn anew.
func (r *Review) AddPicture(ctx context.Context, codebase int64, p review.Picture, png []byte) (review.Picture, error) {
	err := inTx(ctx, r.db, func(tx *sql.Tx) error {
		if err := touch(ctx, tx, codebase, review.PartPictures); err != nil {
			return err
		}
		if _, err := tx.ExecContext(
			ctx,
			"DELETE FROM pictures WHERE codebase = ? AND gone > 0 AND id NOT IN "+
				"(SELECT id FROM pictures WHERE codebase = ? AND gone > 0 ORDER BY gone DESC LIMIT ?)",
			codebase, codebase, keptGone,
		); err != nil {
			return err
		}
		var n int
		if err := tx.QueryRowContext(ctx, "SELECT count(*) FROM pictures WHERE codebase = ? AND gone = 0", codebase).Scan(&n); err != nil {
			return err
		}
		if n >= mostPictures {
			return fmt.Errorf("%w: a codebase may have %d pictures; take some away first", review.ErrInvalid, mostPictures)
		}
		now := time.Now().UnixMilli()
		p.Version, p.At, p.Boxes = 1, fromMillis(now), []review.PictureBox{}
		res, err := tx.ExecContext(
			ctx, "INSERT INTO pictures (codebase, path, name, png, width, height, at, by) VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
			codebase, p.Path, p.Name, png, p.Width, p.Height, now, p.By,
		)
		if err != nil {
			return err
		}
		p.ID, err = res.LastInsertId()
		return err
	})
	return p, err
}

// ChangePicture sets the boxes of a picture when version is still the newest, and
// takes it away or brings it back.
func (r *Review) ChangePicture(
	ctx context.Context, codebase, id, version int64, boxes []review.PictureBox, gone bool, by review.Actor,
) (p review.Picture, err error) {
	text, err := json.Marshal(boxes)
	if err != nil {
		return p, err
	}
	away := int64(0)
	if gone {
		away = time.Now().UnixMilli()
	}
	err = inTx(ctx, r.db, func(tx *sql.Tx) error {
		if err := touch(ctx, tx, codebase, review.PartPictures); err != nil {
			return err
		}
		row := tx.QueryRowContext(
			ctx,
			"UPDATE pictures SET boxes = ?, gone = ?, by = ?, version = version + 1 WHERE codebase = ? AND id = ? AND version = ? "+
				"RETURNING id, path, name, width, height, boxes, version, at, by",
			string(text), away, by, codebase, id, version,
		)
		if p, err = scanPicture(row); !errors.Is(err, sql.ErrNoRows) {
			return err
		}
		var there int
		if err := tx.QueryRowContext(ctx, "SELECT count(*) FROM pictures WHERE codebase = ? AND id = ?", codebase, id).Scan(&there); err != nil {
			return err
		}
		if there == 0 {
			return fmt.Errorf("picture %d: %w", id, review.ErrNotFound)
		}
		return ErrStale
	})
	return p, err
}
