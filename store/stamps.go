package store

import (
	"cmp"
	"context"
	"database/sql"
	"slices"

	"jantel/core/source"
	"jantel/core/survey"
)

//go:generate go tool msgp -file stamps.go -o stamps_packed.go -io=false -tests=false -unexported

//msgp:tuple stampRow
//msgp:limit arrays:10000000 maps:0

// stampRow is what is known of one file of a source.
type stampRow struct {
	Key   string // blob id or path
	Hash  string
	Blob  string
	Size  int64
	MTime int64 // nanoseconds
	CTime int64
	Inode uint64
}

type stampRows []stampRow

// Stamps implements survey.Cache.
func (f *Facts) Stamps(ctx context.Context, of string) map[string]survey.Stamped {
	var rows stampRows
	data, err := f.blob(ctx, "SELECT data FROM stamps WHERE source = ?", of, "")
	if err == nil {
		_, err = unpack(nil, data, &rows)
	}
	if err != nil { // nothing is known, then
		return map[string]survey.Stamped{}
	}
	out := make(map[string]survey.Stamped, len(rows))
	for i := range rows {
		r := &rows[i]
		out[r.Key] = survey.Stamped{
			Hash:  r.Hash,
			Stamp: source.Stamp{Blob: r.Blob, Size: r.Size, MTime: r.MTime, CTime: r.CTime, Inode: r.Inode},
		}
	}
	return out
}

// SaveStamps implements survey.Cache.
func (f *Facts) SaveStamps(ctx context.Context, of string, stamps map[string]survey.Stamped) error {
	rows := make(stampRows, 0, len(stamps))
	for k, s := range stamps {
		rows = append(rows, stampRow{
			Key: k, Hash: s.Hash, Blob: s.Stamp.Blob, Size: s.Stamp.Size, MTime: s.Stamp.MTime, CTime: s.Stamp.CTime,
			Inode: s.Stamp.Inode,
		})
	}
	slices.SortFunc(rows, func(a, b stampRow) int { return cmp.Compare(a.Key, b.Key) })
	data, err := pack(rows)
	if err != nil {
		return err
	}
	return f.on(ctx, func(db *sql.DB) error {
		_, err := db.ExecContext(
			ctx,
			"INSERT INTO stamps (source, data) VALUES (?, ?) ON CONFLICT (source) DO UPDATE SET data = excluded.data",
			of, data,
		)
		return err
	})
}
