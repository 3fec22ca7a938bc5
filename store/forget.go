package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"

	"jantel/review"
)

// Freed is what was removed with a codebase.
type Freed struct {
	Surveys int   `json:"surveys"`
	Texts   int   `json:"texts" doc:"texts that no other survey holds"`
	Bytes   int64 `json:"bytes" doc:"of texts and facts as they were kept, and of an upload"`
}

// Forget removes surveys with their texts and facts, as far as no other survey
// holds them, and what was remembered of the source's files.
func (f *Facts) Forget(ctx context.Context, surveys []int64, source string) (Freed, error) {
	ids, err := json.Marshal(surveys)
	if err != nil {
		return Freed{}, err
	}
	var out Freed
	err = f.on(ctx, func(db *sql.DB) error {
		out = Freed{Surveys: len(surveys)}
		return inTx(ctx, db, func(tx *sql.Tx) error {
			if _, err := tx.ExecContext(ctx, "DELETE FROM surveys WHERE id IN (SELECT value FROM json_each(?))", string(ids)); err != nil {
				return err
			}
			if _, err := tx.ExecContext(ctx, "DELETE FROM stamps WHERE source = ?", source); err != nil {
				return err
			}
			hashes, keys, err := held(ctx, tx)
			if err != nil {
				return err
			}
			for _, part := range []struct{ table, key, kept string }{{"texts", "hash", hashes}, {"facts", "key", keys}} {
				gone := "FROM " + part.table + " WHERE " + part.key + " NOT IN (SELECT value FROM json_each(?))"
				var n int
				var bytes int64
				if err := tx.QueryRowContext(ctx, "SELECT COUNT(*), COALESCE(SUM(LENGTH(data)), 0) "+gone, part.kept).Scan(&n, &bytes); err != nil {
					return err
				}
				if _, err := tx.ExecContext(ctx, "DELETE "+gone, part.kept); err != nil {
					return err
				}
				out.Bytes += bytes
				if part.table == "texts" {
					out.Texts = n
				}
			}
			return nil
		})
	})
	return out, err
}

// held lists, as JSON, the hashes of all texts and the keys of all facts that
// surveys hold.
func held(ctx context.Context, tx *sql.Tx) (hashes, keys string, err error) {
	rows, err := tx.QueryContext(ctx, "SELECT id, data FROM surveys")
	if err != nil {
		return "", "", err
	}
	defer func() { _ = rows.Close() }()
	texts, facts := []string{}, []string{}
	for rows.Next() {
		var id int64
		var data []byte
		if err := rows.Scan(&id, &data); err != nil {
			return "", "", err
		}
		var m manifest
		if _, err := unpack(nil, data, &m); err != nil {
			// What a damaged survey holds nobody knows: nothing is removed then.
			return "", "", fmt.Errorf("%w: survey %d is damaged, so it is not known what it shares", review.ErrInvalid, id)
		}
		for _, k := range m.Files {
			if k.Hash != "" {
				texts = append(texts, k.Hash)
			}
			if k.Key != "" {
				facts = append(facts, k.Key)
			}
		}
	}
	if err := rows.Err(); err != nil {
		return "", "", err
	}
	a, err := json.Marshal(texts)
	if err != nil {
		return "", "", err
	}
	b, err := json.Marshal(facts)
	return string(a), string(b), err
}
