package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"jantel/core/model"
	"jantel/review"
)

// AddCodebase adds a codebase, or returns the one that is read from the same
// path and revision already.
func (r *Review) AddCodebase(ctx context.Context, c review.Codebase) (review.Codebase, error) {
	c.Created = time.Now().UTC().Truncate(time.Millisecond)
	_, err := r.db.ExecContext(
		ctx,
		"INSERT INTO codebases (name, kind, path, revision, created) VALUES (?, ?, ?, ?, ?) ON CONFLICT (path, revision) DO NOTHING",
		c.Name, c.Kind, c.Path, c.Revision, c.Created.UnixMilli(),
	)
	if err != nil {
		return c, fmt.Errorf("the codebase can not be kept: %w", err)
	}
	return r.one(ctx, "WHERE path = ? AND revision = ?", c.Path, c.Revision)
}

// Codebase returns one codebase.
func (r *Review) Codebase(ctx context.Context, id int64) (review.Codebase, error) {
	return r.one(ctx, "WHERE id = ?", id)
}

func (r *Review) one(ctx context.Context, where string, args ...any) (review.Codebase, error) {
	list, err := r.codebases(ctx, where, args...)
	if err != nil {
		return review.Codebase{}, err
	}
	if len(list) == 0 {
		return review.Codebase{}, fmt.Errorf("%w: there is no such codebase", review.ErrNotFound)
	}
	return list[0], nil
}

// Codebases lists all codebases, newest first.
func (r *Review) Codebases(ctx context.Context) ([]review.Codebase, error) {
	return r.codebases(ctx, "ORDER BY id DESC")
}

func (r *Review) codebases(ctx context.Context, where string, args ...any) ([]review.Codebase, error) {
	rows, err := r.db.QueryContext(ctx, "SELECT id, name, kind, path, revision, created FROM codebases "+where, args...)
	if err != nil {
		return nil, err
	}
	defer func() { _ = rows.Close() }()
	out := []review.Codebase{}
	for rows.Next() {
		var c review.Codebase
		var at int64
		if err := rows.Scan(&c.ID, &c.Name, &c.Kind, &c.Path, &c.Revision, &at); err != nil {
			return nil, err
		}
		c.Created = fromMillis(at)
		out = append(out, c)
	}
	return out, rows.Err()
}

// RemoveCodebase removes a codebase with its surveys and its review.
func (r *Review) RemoveCodebase(ctx context.Context, id int64) error {
	res, err := r.db.ExecContext(ctx, "DELETE FROM codebases WHERE id = ?", id)
	return gone(res, err, "codebase")
}

func gone(res sql.Result, err error, what string) error {
	if err != nil {
		return err
	}
	if n, err := res.RowsAffected(); err != nil || n > 0 {
		return err
	}
	return fmt.Errorf("%w: there is no such %s", review.ErrNotFound, what)
}

// Touched tells for each part of a codebase's review a number that every change
// of it raises.
func (r *Review) Touched(ctx context.Context, id int64) (map[review.Part]int64, error) {
	rows, err := r.db.QueryContext(ctx, "SELECT part, n FROM touched WHERE codebase = ?", id)
	if err != nil {
		return nil, err
	}
	defer func() { _ = rows.Close() }()
	out := map[review.Part]int64{}
	for rows.Next() {
		var part review.Part
		var n int64
		if err := rows.Scan(&part, &n); err != nil {
			return nil, err
		}
		out[part] = n
	}
	return out, rows.Err()
}

func touch(ctx context.Context, tx *sql.Tx, id int64, part review.Part) error {
	_, err := count(ctx, tx, id, part)
	return err
}

// count raises the number of a part and returns it.
func count(ctx context.Context, tx *sql.Tx, id int64, part review.Part) (n int64, err error) {
	res, err := tx.ExecContext(ctx, "UPDATE codebases SET touched = touched + 1 WHERE id = ?", id)
	if err := gone(res, err, "codebase"); err != nil {
		return 0, err
	}
	err = tx.QueryRowContext(
		ctx, "INSERT INTO touched (codebase, part, n) VALUES (?, ?, 1) ON CONFLICT (codebase, part) DO UPDATE SET n = n + 1 RETURNING n",
		id, part,
	).Scan(&n)
	return n, err
}

// Brief returns a codebase's brief and its version; version 0 means that none
// was set.
func (r *Review) Brief(ctx context.Context, id int64) (b model.Brief, version int64, err error) {
	var text string
	err = r.db.QueryRowContext(ctx, "SELECT brief, version FROM briefs WHERE codebase = ?", id).Scan(&text, &version)
	if errors.Is(err, sql.ErrNoRows) {
		return model.Brief{Stage: model.Growing, In: []string{}, Out: []string{}, Questions: []string{}}, 0, nil
	}
	if err != nil {
		return b, 0, err
	}
	return b, version, json.Unmarshal([]byte(text), &b)
}

// SetBrief replaces a codebase's brief when version is still the newest.
func (r *Review) SetBrief(ctx context.Context, id int64, b model.Brief, version int64) (int64, error) {
	text, err := json.Marshal(b)
	if err != nil {
		return 0, err
	}
	return r.replace(ctx, "briefs", "brief", id, string(text), version)
}

// replace puts a text in the one row that a codebase has in a table, when
// version is still the newest. Table and column are names of the schema.
func (r *Review) replace(ctx context.Context, table, column string, id int64, text string, version int64) (int64, error) {
	err := inTx(ctx, r.db, func(tx *sql.Tx) error {
		var now int64
		err := tx.QueryRowContext(ctx, "SELECT version FROM "+table+" WHERE codebase = ?", id).Scan(&now)
		if err != nil && !errors.Is(err, sql.ErrNoRows) {
			return err
		}
		if now != version {
			return ErrStale
		}
		if err := touch(ctx, tx, id, review.PartJudged); err != nil {
			return err
		}
		_, err = tx.ExecContext(
			ctx,
			"INSERT INTO "+table+" (codebase, version, "+column+
				", changed) VALUES (?, ?, ?, ?) ON CONFLICT (codebase) DO UPDATE SET version = excluded.version, "+column+
				" = excluded."+column+", changed = excluded.changed",
			id, version+1, text, time.Now().UnixMilli(),
		)
		return err
	})
	return version + 1, err
}

// ErrStale says that something was changed by somebody else in the meantime.
var ErrStale = errors.New("changed by somebody else in the meantime")

// StartSurvey records that a survey runs.
func (r *Review) StartSurvey(ctx context.Context, codebase int64) (review.SurveyRecord, error) {
	s := review.SurveyRecord{Codebase: codebase, State: review.Running, Started: time.Now().UTC().Truncate(time.Millisecond)}
	res, err := r.db.ExecContext(
		ctx, "INSERT INTO surveys (codebase, state, started) VALUES (?, 'running', ?)", codebase,
		s.Started.UnixMilli(),
	)
	if err != nil {
		return s, fmt.Errorf("the survey can not be recorded: %w", err)
	}
	s.ID, err = res.LastInsertId()
	return s, err
}

// EndSurvey records how a survey ended.
func (r *Review) EndSurvey(ctx context.Context, s review.SurveyRecord) error {
	return inTx(ctx, r.db, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, "UPDATE surveys SET state = ?, ended = ?, revision = ?, problem = ?, files = "+
			"?, lines = ?, seconds = ? WHERE id = ?",
			s.State, time.Now().UnixMilli(), s.Revision, s.Problem, s.Files, s.Lines, s.Seconds, s.ID); err != nil {
			return err
		}
		return touch(ctx, tx, s.Codebase, review.PartSurveys)
	})
}

// InterruptSurveys marks surveys that a stopped server left running.
func (r *Review) InterruptSurveys(ctx context.Context) error {
	_, err := r.db.ExecContext(
		ctx,
		"UPDATE surveys SET state = 'interrupted', ended = ?, problem = 'the server was stopped before it ended' WHERE state = 'running'",
		time.Now().UnixMilli(),
	)
	return err
}

// Surveys lists a codebase's surveys, newest first.
func (r *Review) Surveys(ctx context.Context, codebase int64) ([]review.SurveyRecord, error) {
	rows, err := r.db.QueryContext(
		ctx,
		"SELECT id, codebase, state, started, ended, revision, problem, files, lines, seconds FROM surveys WHERE "+
			"codebase = ? ORDER BY id DESC LIMIT 200",
		codebase,
	)
	if err != nil {
		return nil, err
	}
	defer func() { _ = rows.Close() }()
	out := []review.SurveyRecord{}
	for rows.Next() {
		var s review.SurveyRecord
		var started int64
		var ended sql.NullInt64
		if err := rows.Scan(
			&s.ID, &s.Codebase, &s.State, &started, &ended, &s.Revision, &s.Problem, &s.Files, &s.Lines, &s.Seconds,
		); err != nil {
			return nil, err
		}
		s.Started = fromMillis(started)
		if ended.Valid {
			t := fromMillis(ended.Int64)
			s.Ended = &t
		}
		out = append(out, s)
	}
	return out, rows.Err()
}

// LatestSurvey is the newest finished survey of a codebase.
func (r *Review) LatestSurvey(ctx context.Context, codebase int64) (id int64, err error) {
	err = r.db.QueryRowContext(
		ctx, "SELECT id FROM surveys WHERE codebase = ? AND state = 'finished' ORDER BY id DESC LIMIT 1", codebase,
	).Scan(&id)
	if errors.Is(err, sql.ErrNoRows) {
		return 0, fmt.Errorf("%w: this codebase has no finished survey yet", review.ErrNotFound)
	}
	return id, err
}

// Setting reads a setting into v and reports whether it was there.
func (r *Review) Setting(ctx context.Context, key string, v any) (bool, error) {
	var text string
	err := r.db.QueryRowContext(ctx, "SELECT value FROM settings WHERE key = ?", key).Scan(&text)
	if errors.Is(err, sql.ErrNoRows) {
		return false, nil
	}
	if err != nil {
		return false, err
	}
	return true, json.Unmarshal([]byte(text), v)
}

// SetSetting keeps a setting.
func (r *Review) SetSetting(ctx context.Context, key string, v any) error {
	text, err := json.Marshal(v)
	if err != nil {
		return err
	}
	_, err = r.db.ExecContext(
		ctx,
		"INSERT INTO settings (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value",
		key, string(text),
	)
	return err
}
