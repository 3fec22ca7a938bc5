package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"time"

	"jantel/review"
)

// mostPages is how many pages a codebase may have.
const mostPages = 500

// Pages lists the pages of a codebase without their texts, by kind and title.
func (r *Review) Pages(ctx context.Context, codebase int64) ([]review.Page, error) {
	rows, err := r.db.QueryContext(
		ctx, "SELECT id, kind, title, '', version, at, by FROM pages WHERE codebase = ? AND gone = 0 ORDER BY "+
			"CASE kind WHEN 'guide' THEN 0 WHEN 'report' THEN 1 WHEN 'decision' THEN 2 ELSE 3 END, title, id", codebase,
	)
	if err != nil {
		return nil, err
	}
	defer func() { _ = rows.Close() }()
	out := []review.Page{}
	for rows.Next() {
		p, err := scanPage(rows)
		if err != nil {
			return nil, err
		}
		out = append(out, p)
	}
	return out, rows.Err()
}

func scanPage(row interface{ Scan(...any) error }) (p review.Page, err error) {
	var at int64
	err = row.Scan(&p.ID, &p.Kind, &p.Title, &p.Text, &p.Version, &at, &p.By)
	p.At = fromMillis(at)
	return p, err
}

// Page is a page with its text.
func (r *Review) Page(ctx context.Context, codebase, id int64) (p review.Page, err error) {
	p, err = scanPage(r.db.QueryRowContext(
		ctx, "SELECT id, kind, title, text, version, at, by FROM pages WHERE codebase = ? AND id = ? AND gone = 0", codebase, id,
	))
	if errors.Is(err, sql.ErrNoRows) {
		return p, fmt.Errorf("page %d: %w", id, review.ErrNotFound)
	}
	return p, err
}

// AddPage keeps a page.
func (r *Review) AddPage(ctx context.Context, codebase int64, p review.Page) (review.Page, error) {
	if err := review.CheckPage(p.Kind, p.Title, p.Text); err != nil {
		return p, err
	}
	err := inTx(ctx, r.db, func(tx *sql.Tx) error {
		if err := touch(ctx, tx, codebase, review.PartPages); err != nil {
			return err
		}
		if _, err := tx.ExecContext(
			ctx, "DELETE FROM pages WHERE codebase = ? AND gone > 0 AND id NOT IN "+
				"(SELECT id FROM pages WHERE codebase = ? AND gone > 0 ORDER BY gone DESC LIMIT ?)", codebase, codebase, keptGone,
		); err != nil {
			return err
		}
		var n int
		if err := tx.QueryRowContext(ctx, "SELECT count(*) FROM pages WHERE codebase = ? AND gone = 0", codebase).Scan(&n); err != nil {
			return err
		}
		if n >= mostPages {
			return fmt.Errorf("%w: a codebase may have %d pages; take some away first", review.ErrInvalid, mostPages)
		}
		now := time.Now().UnixMilli()
		p.Version, p.At = 1, fromMillis(now)
		res, err := tx.ExecContext(
			ctx, "INSERT INTO pages (codebase, kind, title, text, at, by) VALUES (?, ?, ?, ?, ?, ?)",
			codebase, p.Kind, p.Title, p.Text, now, p.By,
		)
		if err != nil {
			return err
		}
		p.ID, err = res.LastInsertId()
		return err
	})
	return p, err
}

// ChangePage sets title and text of a page when its version is still the newest, and
// takes it away or brings it back.
func (r *Review) ChangePage(ctx context.Context, codebase int64, p review.Page, gone bool) (out review.Page, err error) {
	now, away := time.Now().UnixMilli(), int64(0)
	if gone {
		away = now
	}
	err = inTx(ctx, r.db, func(tx *sql.Tx) error {
		if err := touch(ctx, tx, codebase, review.PartPages); err != nil {
			return err
		}
		out, err = scanPage(tx.QueryRowContext(
			ctx, "UPDATE pages SET title = ?, text = ?, gone = ?, at = ?, by = ?, version = version + 1 "+
				"WHERE codebase = ? AND id = ? AND version = ? RETURNING id, kind, title, text, version, at, by",
			p.Title, p.Text, away, now, p.By, codebase, p.ID, p.Version,
		))
		if err == nil {
			return review.CheckPage(out.Kind, out.Title, out.Text) // else nothing is kept of it
		}
		if !errors.Is(err, sql.ErrNoRows) {
			return err
		}
		var there int
		if err := tx.QueryRowContext(ctx, "SELECT count(*) FROM pages WHERE codebase = ? AND id = ?", codebase, p.ID).Scan(&there); err != nil {
			return err
		}
		if there == 0 {
			return fmt.Errorf("page %d: %w", p.ID, review.ErrNotFound)
		}
		return ErrStale
	})
	return out, err
}
