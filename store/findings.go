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

const findingColumns = "id, version, codebase, kind, state, title, text, assignee, labels, position, path, " +
	"definition, line, end_line, COALESCE(survey, 0), hash, quote, smell, rule, smell_path, smell_name, evidence, " +
	"created, author, updated, deleted"

func scanFinding(row interface{ Scan(...any) error }) (f review.Finding, err error) {
	var labels, evidence string
	var created, updated int64
	err = row.Scan(
		&f.ID, &f.Version, &f.Codebase, &f.Kind, &f.State, &f.Title, &f.Text, &f.Assignee, &labels, &f.Position,
		&f.Place.Path, &f.Place.Definition, &f.Place.Line, &f.Place.EndLine, &f.Place.Survey, &f.Place.Hash,
		&f.Place.Quote, &f.Smell, &f.Rule, &f.SmellPath, &f.SmellName, &evidence, &created, &f.Author, &updated,
		&f.Deleted,
	)
	if err != nil {
		return f, err
	}
	f.Created, f.Updated = fromMillis(created), fromMillis(updated)
	if err := json.Unmarshal([]byte(labels), &f.Labels); err != nil {
		return f, err
	}
	return f, json.Unmarshal([]byte(evidence), &f.Evidence)
}

// Findings lists a codebase's findings in the order set by hand, deleted ones
// left out.
func (r *Review) Findings(ctx context.Context, codebase int64) ([]review.Finding, error) {
	all, _, err := r.FindingsNow(ctx, codebase)
	return all, err
}

// FindingsNow lists the findings and tells the number of their last change, as
// both were at one moment.
func (r *Review) FindingsNow(ctx context.Context, codebase int64) (all []review.Finding, counter int64, err error) {
	tx, err := r.db.BeginTx(ctx, &sql.TxOptions{ReadOnly: true})
	if err != nil {
		return nil, 0, err
	}
	defer func() { _ = tx.Rollback() }()
	err = tx.QueryRowContext(ctx, "SELECT n FROM touched WHERE codebase = ? AND part = ?", codebase, review.PartFindings).Scan(&counter)
	if err != nil && !errors.Is(err, sql.ErrNoRows) {
		return nil, 0, err
	}
	all, err = findings(ctx, tx, codebase)
	return all, counter, err
}

func findings(ctx context.Context, tx *sql.Tx, codebase int64) ([]review.Finding, error) {
	rows, err := tx.QueryContext(
		ctx, "SELECT "+findingColumns+" FROM findings WHERE codebase = ? AND NOT deleted ORDER BY position, id",
		codebase,
	)
	if err != nil {
		return nil, err
	}
	defer func() { _ = rows.Close() }()
	out := []review.Finding{}
	for rows.Next() {
		f, err := scanFinding(rows)
		if err != nil {
			return nil, err
		}
		out = append(out, f)
	}
	return out, rows.Err()
}

// Finding returns one finding, deleted or not.
func (r *Review) Finding(ctx context.Context, codebase, id int64) (review.Finding, error) {
	f, err := scanFinding(r.db.QueryRowContext(ctx, "SELECT "+findingColumns+" FROM findings WHERE codebase = ? AND id = ?", codebase, id))
	return f, notFound(err, "finding")
}

func notFound(err error, what string) error {
	if err == sql.ErrNoRows {
		return fmt.Errorf("%w: there is no such %s", review.ErrNotFound, what)
	}
	return err
}

// AddFinding adds a finding at the end of the order.
func (r *Review) AddFinding(ctx context.Context, f review.Finding) (review.Finding, error) {
	if f.State == "" {
		f.State = review.Noted
	}
	if err := f.Check(); err != nil {
		return f, err
	}
	f.Version = 1
	f.Created = time.Now().UTC().Truncate(time.Millisecond)
	f.Updated = f.Created
	labels, err := json.Marshal(f.Labels)
	if err != nil {
		return f, err
	}
	if f.Evidence == nil {
		f.Evidence = emptyEvidence
	}
	evidence, err := json.Marshal(f.Evidence)
	if err != nil {
		return f, err
	}
	err = inTx(ctx, r.db, func(tx *sql.Tx) error {
		if f.Counter, err = count(ctx, tx, f.Codebase, review.PartFindings); err != nil {
			return err
		}
		if err := tx.QueryRowContext(
			ctx, "SELECT COALESCE(MAX(position), 0) + 1 FROM findings WHERE codebase = ?", f.Codebase,
		).Scan(&f.Position); err != nil {
			return err
		}
		var survey any
		if f.Place.Survey > 0 {
			survey = f.Place.Survey
		}
		res, err := tx.ExecContext(ctx, "INSERT INTO findings (version, codebase, kind, state, title, text, assignee, "+
			"labels, position, path, definition, line, end_line, survey, hash, quote, smell, rule, smell_path, "+
			"smell_name, evidence, created, author, updated) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, "+
			"?, ?, ?, ?, ?, ?, ?, ?)",
			f.Version, f.Codebase, f.Kind, f.State, f.Title, f.Text, f.Assignee, string(labels), f.Position,
			f.Place.Path, f.Place.Definition, f.Place.Line, f.Place.EndLine, survey, f.Place.Hash, f.Place.Quote,
			f.Smell, f.Rule, f.SmellPath, f.SmellName, string(evidence), f.Created.UnixMilli(), f.Author, f.Updated.UnixMilli())
		if err != nil {
			return err
		}
		f.ID, err = res.LastInsertId()
		return err
	})
	return f, err
}

// ChangeFinding applies a patch to the version the writer saw. When it is no
// longer the newest it returns a *review.Conflict and changes nothing.
func (r *Review) ChangeFinding(ctx context.Context, codebase, id, version int64, p review.Patch, by review.Actor) (review.Finding, error) {
	var f review.Finding
	err := inTx(ctx, r.db, func(tx *sql.Tx) (err error) {
		f, err = scanFinding(tx.QueryRowContext(ctx, "SELECT "+findingColumns+" FROM findings WHERE codebase = ? AND id = ?", codebase, id))
		if err != nil {
			return notFound(err, "finding")
		}
		if f.Version != version {
			return &review.Conflict{Current: f}
		}
		changes, err := f.Apply(p)
		if err != nil || len(changes) == 0 {
			return err
		}
		f.Version++
		f.Updated = time.Now().UTC().Truncate(time.Millisecond)
		labels, err := json.Marshal(f.Labels)
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, "UPDATE findings SET version = ?, kind = ?, state = ?, title = ?, text = ?, "+
			"assignee = ?, labels = ?, position = ?, updated = ?, deleted = ? WHERE id = ?",
			f.Version, f.Kind, f.State, f.Title, f.Text, f.Assignee, string(labels), f.Position, f.Updated.UnixMilli(), f.Deleted, id); err != nil {
			return err
		}
		for _, c := range changes {
			if _, err := tx.ExecContext(
				ctx,
				"INSERT INTO finding_changes (finding, version, at, by, field, old, new) VALUES (?, ?, ?, ?, ?, ?, ?)",
				id, f.Version, f.Updated.UnixMilli(), by, c.Field, c.Old, c.New,
			); err != nil {
				return err
			}
		}
		f.Counter, err = count(ctx, tx, codebase, review.PartFindings)
		return err
	})
	return f, err
}

// Changes lists what changed in a finding, oldest first.
func (r *Review) Changes(ctx context.Context, codebase, id int64) ([]review.Change, error) {
	rows, err := r.db.QueryContext(
		ctx,
		"SELECT c.version, c.at, c.by, c.field, c.old, c.new FROM finding_changes c JOIN findings f ON f.id = "+
			"c.finding WHERE f.codebase = ? AND f.id = ? ORDER BY c.version, c.field",
		codebase, id,
	)
	if err != nil {
		return nil, err
	}
	defer func() { _ = rows.Close() }()
	out := []review.Change{}
	for rows.Next() {
		var c review.Change
		var at int64
		if err := rows.Scan(&c.Version, &at, &c.By, &c.Field, &c.Old, &c.New); err != nil {
			return nil, err
		}
		c.At = fromMillis(at)
		out = append(out, c)
	}
	return out, rows.Err()
}
