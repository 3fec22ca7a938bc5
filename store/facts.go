package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"runtime"
	"sort"
	"strings"
	"sync"

	"jantel/core/model"
	"jantel/review"

	"github.com/klauspost/compress/s2"
	"github.com/klauspost/compress/zstd"
	"github.com/tinylib/msgp/msgp"
)

// Encoders and decoders of the library may be shared by goroutines. Texts are
// packed tightly; facts, which every survey writes and reads in thousands, fast.
var (
	packer   = mustEncoder()
	unpacker = mustDecoder()
)

func mustEncoder() *zstd.Encoder {
	e, err := zstd.NewWriter(nil, zstd.WithEncoderLevel(zstd.SpeedFastest), zstd.WithEncoderCRC(false))
	if err != nil {
		panic(err)
	}
	return e
}

func mustDecoder() *zstd.Decoder {
	d, err := zstd.NewReader(nil, zstd.WithDecoderConcurrency(0), zstd.WithDecoderMaxMemory(4<<30))
	if err != nil {
		panic(err)
	}
	return d
}

// pack packs a record by the code that was made for it; there is no other
// packing.
func pack(r msgp.Marshaler) ([]byte, error) {
	b, err := r.MarshalMsg(nil)
	if err != nil {
		return nil, err
	}
	return s2.Encode(nil, b), nil
}

// maxUnpacked bounds what a record may claim to hold, in bytes.
const maxUnpacked = 2 << 30

// unpack opens a record, with room to do it in, which it returns for the next;
// nothing of what is unpacked lies in it. Records come from a file that anyone
// could have changed.
func unpack(room, data []byte, into msgp.Unmarshaler) ([]byte, error) {
	if n, err := s2.DecodedLen(data); err != nil || n > maxUnpacked {
		return room, errors.Join(errors.New("a record is damaged"), err)
	}
	b, err := s2.Decode(room, data)
	if err != nil {
		return room, err
	}
	_, err = into.UnmarshalMsg(b)
	return b[:cap(b)], err
}

// Facts implements survey.Cache.
func (f *Facts) Facts(ctx context.Context, keys []string) map[string]*model.Facts {
	out := make(map[string]*model.Facts, len(keys))
	type row struct {
		key  string
		data []byte
	}
	rows := make(chan row, 256)
	var mu sync.Mutex
	var wg sync.WaitGroup
	for range runtime.GOMAXPROCS(0) {
		wg.Go(func() {
			mine := map[string]*model.Facts{}
			var room []byte
			for r := range rows {
				x := &model.Facts{}
				var err error
				if room, err = unpack(room, r.data, x); err == nil {
					mine[r.key] = x
				}
			}
			mu.Lock()
			defer mu.Unlock()
			for k, v := range mine {
				out[k] = v
			}
		})
	}
	list, err := json.Marshal(keys)
	if err == nil {
		var rs *sql.Rows
		db := f.db()
		rs, err = db.QueryContext(ctx, "SELECT key, data FROM facts WHERE key IN (SELECT value FROM json_each(?))", string(list))
		if err == nil {
			for rs.Next() {
				var r row
				if rs.Scan(&r.key, &r.data) == nil {
					rows <- r
				}
			}
			err = errors.Join(rs.Err(), rs.Close())
		}
		f.heal(ctx, db, err)
	}
	close(rows)
	wg.Wait()
	return out
}

// SaveFacts implements survey.Cache.
func (f *Facts) SaveFacts(ctx context.Context, facts map[string]*model.Facts) error {
	keys := make([]string, 0, len(facts))
	for k := range facts {
		keys = append(keys, k)
	}
	sort.Strings(keys) // rows next to each other in the index are written together
	packed := make([][]byte, len(keys))
	var wg sync.WaitGroup
	var mu sync.Mutex
	var failed error
	workers := runtime.GOMAXPROCS(0)
	for w := range workers {
		wg.Go(func() {
			for i := w; i < len(keys); i += workers {
				data, err := pack(facts[keys[i]])
				if err != nil {
					mu.Lock()
					failed = err
					mu.Unlock()
					return
				}
				packed[i] = data
			}
		})
	}
	wg.Wait()
	if failed != nil {
		return failed
	}
	return f.insert(ctx, "INSERT OR IGNORE INTO facts (key, data) VALUES ", keys, packed)
}

// on runs fn on the file, and makes it anew where that meets damage.
func (f *Facts) on(ctx context.Context, fn func(db *sql.DB) error) error {
	db := f.db()
	err := fn(db)
	f.heal(ctx, db, err)
	return busy(err)
}

// insert writes rows of a key and a blob, many a statement.
func (f *Facts) insert(ctx context.Context, into string, keys []string, blobs [][]byte) error {
	const batch = 200
	return f.on(ctx, func(db *sql.DB) error {
		return inTx(ctx, db, func(tx *sql.Tx) error {
			for i := 0; i < len(keys); i += batch {
				n := min(batch, len(keys)-i)
				args := make([]any, 0, 2*n)
				for k := i; k < i+n; k++ {
					args = append(args, keys[k], blobs[k])
				}
				if _, err := tx.ExecContext(ctx, into+strings.TrimSuffix(strings.Repeat("(?, ?), ", n), ", "), args...); err != nil {
					return err
				}
			}
			return nil
		})
	})
}

// SaveSurvey keeps a survey. Its facts must have been saved by the cache.
func (f *Facts) SaveSurvey(ctx context.Context, id int64, s *model.Survey) error {
	m := manifest{
		Codebase: s.Codebase, Origin: s.Origin, SurveyedAt: s.SurveyedAt.UnixMilli(), Links: s.Links, External: s.External,
		Unresolved: s.Unresolved, Twins: s.Twins, Notes: s.Notes, History: s.History, Timings: s.Timings,
	}
	extra := map[string]*model.Facts{}
	for _, x := range s.Files {
		k := manifestFile{Path: x.Path, Language: x.Language, Hash: x.Hash, Bytes: x.Bytes, Skipped: x.Skipped}
		if x.Facts != nil {
			k.Key = x.Key
			extra[k.Key] = x.Facts
		}
		m.Files = append(m.Files, k)
	}
	// What the cache could not keep is kept now: a survey must be whole.
	if err := f.saveMissing(ctx, extra); err != nil {
		return fmt.Errorf("the facts of the survey can not be kept: %w", err)
	}
	data, err := pack(&m)
	if err != nil {
		return err
	}
	err = f.on(ctx, func(db *sql.DB) error {
		_, err := db.ExecContext(ctx, "INSERT OR REPLACE INTO surveys (id, data) VALUES (?, ?)", id, data)
		return err
	})
	if err != nil {
		return fmt.Errorf("the survey can not be kept: %w", err)
	}
	return nil
}

func (f *Facts) saveMissing(ctx context.Context, facts map[string]*model.Facts) error {
	keys := make([]string, 0, len(facts))
	for k := range facts {
		keys = append(keys, k)
	}
	list, err := json.Marshal(keys)
	if err != nil {
		return err
	}
	err = f.rows(ctx, "SELECT key FROM facts WHERE key IN (SELECT value FROM "+
		"json_each(?))", []any{string(list)}, func(row *sql.Rows) error {
		var k string
		err := row.Scan(&k)
		delete(facts, k)
		return err
	})
	if err != nil {
		return err
	}
	if len(facts) == 0 {
		return nil
	}
	return f.SaveFacts(ctx, facts)
}

// rows calls fn with every row that a question gives.
func (f *Facts) rows(ctx context.Context, query string, args []any, fn func(row *sql.Rows) error) error {
	return f.on(ctx, func(db *sql.DB) error {
		rows, err := db.QueryContext(ctx, query, args...)
		if err != nil {
			return err
		}
		defer func() { _ = rows.Close() }()
		for rows.Next() {
			if err := fn(rows); err != nil {
				return err
			}
		}
		return rows.Err()
	})
}

// blob is the packed value that a question gives; lost says what it is for
// when there is none, or what there was is damaged.
func (f *Facts) blob(ctx context.Context, query string, arg any, lost string) (data []byte, err error) {
	err = f.on(ctx, func(db *sql.DB) error { return db.QueryRowContext(ctx, query, arg).Scan(&data) })
	if errors.Is(err, sql.ErrNoRows) || Damaged(err) {
		return nil, fmt.Errorf("%w: %s", review.ErrNotFound, lost)
	}
	return data, err
}

// Survey loads a survey whole.
func (f *Facts) Survey(ctx context.Context, id int64) (*model.Survey, error) {
	data, err := f.blob(
		ctx, "SELECT data FROM surveys WHERE id = ?", id,
		fmt.Sprintf("the facts of survey %d are gone; survey the codebase again", id),
	)
	if err != nil {
		return nil, err
	}
	var m manifest
	if _, err := unpack(nil, data, &m); err != nil {
		return nil, fmt.Errorf("%w: survey %d is damaged (%v); survey the codebase again", review.ErrNotFound, id, err)
	}
	keys := make([]string, 0, len(m.Files))
	for _, k := range m.Files {
		if k.Key != "" {
			keys = append(keys, k.Key)
		}
	}
	facts := f.Facts(ctx, keys)
	s := &model.Survey{
		Codebase: m.Codebase, Origin: m.Origin, SurveyedAt: fromMillis(m.SurveyedAt), Links: m.Links, External: m.External,
		Unresolved: m.Unresolved, Twins: m.Twins, Notes: m.Notes, History: m.History, Timings: m.Timings,
	}
	for _, k := range m.Files {
		x := &model.File{Path: k.Path, Language: k.Language, Hash: k.Hash, Bytes: k.Bytes, Skipped: k.Skipped, Key: k.Key}
		if k.Key != "" {
			if x.Facts = facts[k.Key]; x.Facts == nil {
				return nil, fmt.Errorf("%w: part of the facts of survey %d is gone; survey the codebase again", review.ErrNotFound, id)
			}
		}
		s.Files = append(s.Files, x)
	}
	s.BuildIndex()
	return s, nil
}

// TextHashes returns the hashes of all texts that are kept.
func (f *Facts) TextHashes(ctx context.Context) (map[string]bool, error) {
	out := map[string]bool{}
	err := f.rows(ctx, "SELECT hash FROM texts", nil, func(row *sql.Rows) error {
		var h string
		err := row.Scan(&h)
		out[h] = true
		return err
	})
	return out, err
}

// TextKeeper gathers texts and writes them in batches, so that a reading
// goroutine never waits for a transaction of its own.
type TextKeeper struct {
	f      *Facts
	ctx    context.Context
	mu     sync.Mutex
	hashes []string
	blobs  [][]byte
	size   int
}

// KeepTexts returns a keeper; Flush must be called at the end.
func (f *Facts) KeepTexts(ctx context.Context) *TextKeeper { return &TextKeeper{f: f, ctx: ctx} }

// Keep adds a text, from any goroutine.
func (k *TextKeeper) Keep(hash string, text []byte) error {
	data := packer.EncodeAll(text, nil)
	k.mu.Lock()
	k.hashes, k.blobs, k.size = append(k.hashes, hash), append(k.blobs, data), k.size+len(data)
	if k.size < 4<<20 {
		k.mu.Unlock()
		return nil
	}
	hashes, blobs := k.hashes, k.blobs
	k.hashes, k.blobs, k.size = nil, nil, 0
	k.mu.Unlock()
	return k.f.insert(k.ctx, "INSERT OR IGNORE INTO texts (hash, data) VALUES ", hashes, blobs)
}

// Flush writes what is left.
func (k *TextKeeper) Flush() error {
	k.mu.Lock()
	defer k.mu.Unlock()
	if len(k.hashes) == 0 {
		return nil
	}
	err := k.f.insert(k.ctx, "INSERT OR IGNORE INTO texts (hash, data) VALUES ", k.hashes, k.blobs)
	k.hashes, k.blobs, k.size = nil, nil, 0
	return err
}

// Text returns a kept text.
func (f *Facts) Text(ctx context.Context, hash string) ([]byte, error) {
	data, err := f.blob(ctx, "SELECT data FROM texts WHERE hash = ?", hash, "this text is not kept")
	if err != nil {
		return nil, err
	}
	return unpacker.DecodeAll(data, nil)
}

// Texts calls fn with the packed texts of the hashes; Unpack opens them.
func (f *Facts) Texts(ctx context.Context, hashes []string, fn func(hash string, packed []byte) error) error {
	list, err := json.Marshal(hashes)
	if err != nil {
		return err
	}
	return f.rows(ctx, "SELECT hash, data FROM texts WHERE hash IN (SELECT value FROM "+
		"json_each(?))", []any{string(list)}, func(row *sql.Rows) error {
		var h string
		var data []byte
		if err := row.Scan(&h, &data); err != nil {
			return err
		}
		return fn(h, data)
	})
}

// Unpack opens a text that Texts handed out.
func Unpack(packed []byte) ([]byte, error) { return unpacker.DecodeAll(packed, nil) }
