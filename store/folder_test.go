package store_test

import (
	"bytes"
	"context"
	"database/sql"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"jantel/core/model"
	"jantel/review"
	"jantel/store"

	"github.com/stretchr/testify/require"
)

// raw opens a file of the data folder as SQLite alone.
func raw(t *testing.T, p string) *sql.DB {
	t.Helper()
	db, err := sql.Open("sqlite", "file:"+p)
	require.NoError(t, err)
	t.Cleanup(func() { _ = db.Close() })
	return db
}

func titles(t *testing.T, r *store.Review, codebase int64) []string {
	t.Helper()
	list, err := r.Findings(context.Background(), codebase)
	require.NoError(t, err)
	out := []string{}
	for _, f := range list {
		out = append(out, f.Title)
	}
	return out
}

func remark(t *testing.T, r *store.Review, codebase int64, title string) {
	t.Helper()
	_, err := r.AddFinding(context.Background(), review.Finding{Codebase: codebase, Kind: review.Fix, Title: title, Place: review.Place{Path: "."}})
	require.NoError(t, err)
}

func TestANewerReviewIsRefusedAndLeftAsItIs(t *testing.T) {
	ctx, dir := context.Background(), t.TempDir()
	r, c := openReview(t, dir)
	remark(t, r, c.ID, "kept")
	require.NoError(t, r.Close())
	db := raw(t, filepath.Join(dir, "review.db"))
	_, err := db.Exec("INSERT INTO goose_db_version (version_id, is_applied) VALUES (900, 1)")
	require.NoError(t, err)
	_, err = store.OpenReview(ctx, dir)
	require.ErrorIs(t, err, store.ErrNewer)
	require.ErrorContains(t, err, "is of version 900 and this program knows")
	_, err = db.Exec("DELETE FROM goose_db_version WHERE version_id = 900")
	require.NoError(t, err)
	r, err = store.OpenReview(ctx, dir)
	require.NoError(t, err)
	require.Equal(t, []string{"kept"}, titles(t, r, c.ID))
	require.NoError(t, r.Close())
}

func TestAnEmptiedReviewIsRefused(t *testing.T) {
	ctx := context.Background()
	for name, empty := range map[string]func(t *testing.T, p string){
		"of no length": func(t *testing.T, p string) { require.NoError(t, os.WriteFile(p, nil, 0o600)) },
		"of no tables": func(t *testing.T, p string) {
			require.NoError(t, os.Remove(p))
			_, err := raw(t, p).Exec("PRAGMA journal_mode = WAL; VACUUM")
			require.NoError(t, err)
		},
		"full of zeros": func(t *testing.T, p string) { require.NoError(t, os.WriteFile(p, make([]byte, 8192), 0o600)) },
		"another file": func(t *testing.T, p string) {
			require.NoError(t, os.WriteFile(p, []byte(strings.Repeat("seed ", 2000)), 0o600))
		},
	} {
		t.Run(name, func(t *testing.T) {
			dir := t.TempDir()
			r, _ := openReview(t, dir)
			require.NoError(t, r.Close())
			p := filepath.Join(dir, "review.db")
			empty(t, p)
			before, err := os.ReadFile(p)
			require.NoError(t, err)
			_, err = store.OpenReview(ctx, dir)
			require.Error(t, err)
			after, err := os.ReadFile(p)
			require.NoError(t, err)
			require.True(t, bytes.Equal(before, after), "nothing is written over it")
		})
	}
}

func TestAReviewIsCopiedBeforeItIsBroughtUpToDate(t *testing.T) {
	ctx, dir := context.Background(), t.TempDir()
	p := filepath.Join(dir, "review.db")
	db := raw(t, p)
	// As the first version left it, with a silence that knows only an id.
	start, err := os.ReadFile("migrations/review/0001_start.sql")
	require.NoError(t, err)
	_, err = db.Exec(string(start) + `;
CREATE TABLE goose_db_version (id INTEGER PRIMARY KEY AUTOINCREMENT, version_id INTEGER NOT NULL, is_applied INTEGER NOT NULL, tstamp TIMESTAMP DEFAULT (datetime('now')));
INSERT INTO goose_db_version (version_id, is_applied) VALUES (0, 1), (1, 1);
INSERT INTO codebases (id, name, kind, path, created) VALUES (1, 'vault', 'folder', '/vault', 0);
INSERT INTO silences (codebase, smell, reason, at, by) VALUES (1, 'abc', 'agreed', 0, '');`)
	require.NoError(t, err)
	require.NoError(t, db.Close())
	r, err := store.OpenReview(ctx, dir)
	require.NoError(t, err)
	t.Cleanup(func() { _ = r.Close() })
	quiet, err := r.Silences(ctx, 1)
	require.NoError(t, err)
	require.Equal(t, map[string]model.Silence{"abc": {Reason: "agreed"}}, quiet)
	key := model.SmellKey{Rule: "hub", Path: "a.go", Name: "x"}
	require.NoError(t, r.KeepKeys(ctx, 1, map[string]model.SmellKey{"abc": key}))
	quiet, err = r.Silences(ctx, 1)
	require.NoError(t, err)
	require.Equal(t, key, quiet["abc"].SmellKey)
	copies, err := filepath.Glob(p + ".before-*")
	require.NoError(t, err)
	require.Len(t, copies, 1)
	var n int
	require.NoError(t, raw(t, copies[0]).QueryRow("SELECT COUNT(*) FROM silences").Scan(&n))
	require.Equal(t, 1, n)
}

// damage writes over a file from its second page on, as a bad disk does.
func damage(t *testing.T, p string) {
	t.Helper()
	for _, end := range []string{"-wal", "-shm"} {
		_ = os.Remove(p + end)
	}
	h, err := os.OpenFile(p, os.O_RDWR, 0)
	require.NoError(t, err)
	info, err := h.Stat()
	require.NoError(t, err)
	_, err = h.WriteAt([]byte(strings.Repeat("\xa5", int(info.Size())-2048)), 2048)
	require.NoError(t, err)
	require.NoError(t, h.Close())
}

func TestDamageInsideTheStoreOfFactsMakesItAnew(t *testing.T) {
	ctx, dir := context.Background(), t.TempDir()
	p := filepath.Join(dir, "facts.db")
	f, err := store.OpenFacts(ctx, dir)
	require.NoError(t, err)
	many := map[string]*model.Facts{}
	for i := range 3000 {
		many[fmt.Sprintf("%d", i)] = &model.Facts{Doc: strings.Repeat("seed", i%50)}
	}
	require.NoError(t, f.SaveFacts(ctx, many))
	require.NoError(t, f.SaveSurvey(ctx, 1, &model.Survey{Codebase: "vault"}))
	require.NoError(t, f.Close())
	damage(t, p)
	f, err = store.OpenFacts(ctx, dir) // at the start, or with the first question
	require.NoError(t, err)
	t.Cleanup(func() { _ = f.Close() })
	_, err = f.Survey(ctx, 1)
	require.ErrorIs(t, err, review.ErrNotFound)
	require.NoError(t, f.SaveSurvey(ctx, 2, &model.Survey{Codebase: "vault"}))
	s, err := f.Survey(ctx, 2)
	require.NoError(t, err)
	require.Equal(t, "vault", s.Codebase)
	require.FileExists(t, p+".broken")
	for what, spoil := range map[string]func(){
		"a newer one": func() {
			_, err := raw(t, p).Exec("INSERT INTO goose_db_version (version_id, is_applied) VALUES (900, 1)")
			require.NoError(t, err)
		},
		"no database": func() { require.NoError(t, os.WriteFile(p, []byte("seed"), 0o600)) },
		"nothing":     func() { require.NoError(t, os.WriteFile(p, nil, 0o600)) },
	} {
		dir := t.TempDir()
		p = filepath.Join(dir, "facts.db")
		f, err := store.OpenFacts(ctx, dir)
		require.NoError(t, err)
		require.NoError(t, f.Close())
		spoil()
		f, err = store.OpenFacts(ctx, dir)
		require.NoError(t, err, what)
		require.NoError(t, f.SaveSurvey(ctx, 1, &model.Survey{}), what)
		require.NoError(t, f.Close())
	}
}

func TestADataFolderBelongsToOneServer(t *testing.T) {
	dir := t.TempDir()
	first, err := store.LockFolder(dir, "127.0.0.1:7420")
	require.NoError(t, err)
	_, err = store.LockFolder(dir, "127.0.0.1:7421")
	require.ErrorIs(t, err, store.ErrLocked)
	require.ErrorContains(t, err, fmt.Sprintf("the server at 127.0.0.1:7420 (process %d since ", os.Getpid()))
	require.NoError(t, first.Release())
	second, err := store.LockFolder(dir, "127.0.0.1:7421")
	require.NoError(t, err)
	require.NoError(t, second.Release())
}

func TestABackupTakenWhileOthersWriteHoldsAllThatWasAcknowledged(t *testing.T) {
	ctx, dir := context.Background(), t.TempDir()
	r, c := openReview(t, dir)
	require.NoError(t, os.MkdirAll(filepath.Join(dir, "uploads"), 0o700))
	upload := filepath.Join(dir, "uploads", "1-seed_lots.zip")
	require.NoError(t, os.WriteFile(upload, []byte("an archive"), 0o600))
	_, err := r.AddCodebase(ctx, review.Codebase{Name: "sent", Kind: "archive", Path: upload})
	require.NoError(t, err)
	var mu sync.Mutex
	acknowledged := map[string]bool{}
	stop := make(chan struct{})
	var writers sync.WaitGroup
	for w := range 4 {
		writers.Go(func() {
			for i := 0; ; i++ {
				select {
				case <-stop:
					return
				default:
				}
				title := fmt.Sprintf("%d-%d", w, i)
				if _, err := r.AddFinding(ctx, review.Finding{Codebase: c.ID, Kind: review.Fix, Title: title, Place: review.Place{Path: "."}}); err == nil {
					mu.Lock()
					acknowledged[title] = true
					mu.Unlock()
				}
			}
		})
	}
	for n := 0; n < 100; {
		mu.Lock()
		n = len(acknowledged)
		mu.Unlock()
	}
	mu.Lock()
	wanted := []string{}
	for title := range acknowledged {
		wanted = append(wanted, title)
	}
	mu.Unlock()
	file := filepath.Join(t.TempDir(), "vault.backup")
	require.NoError(t, store.Backup(ctx, dir, file, "test"))
	close(stop)
	writers.Wait()

	elsewhere := t.TempDir()
	kept, err := store.Restore(ctx, elsewhere, file, false)
	require.NoError(t, err)
	require.Empty(t, kept)
	back, err := store.OpenReview(ctx, elsewhere)
	require.NoError(t, err)
	require.Subset(t, titles(t, back, c.ID), wanted)
	all, err := back.Codebases(ctx)
	require.NoError(t, err)
	require.Equal(t, filepath.Join(elsewhere, "uploads", "1-seed_lots.zip"), all[0].Path, "read from where it was restored to")
	require.FileExists(t, all[0].Path)
	require.NoError(t, back.Close())
	faults, err := store.Verify(ctx, elsewhere)
	require.NoError(t, err)
	require.Empty(t, faults)

	// Over a review that is there only when told to, and then it is kept.
	_, err = store.Restore(ctx, dir, file, false)
	require.ErrorContains(t, err, "--force")
	held, err := store.LockFolder(dir, "127.0.0.1:1")
	require.NoError(t, err)
	_, err = store.Restore(ctx, dir, file, true)
	require.ErrorIs(t, err, store.ErrLocked)
	require.NoError(t, held.Release())
	before := len(titles(t, r, c.ID))
	require.NoError(t, r.Close())
	kept, err = store.Restore(ctx, dir, file, true)
	require.NoError(t, err)
	old, err := store.OpenReview(ctx, kept)
	require.NoError(t, err)
	require.Len(t, titles(t, old, c.ID), before)
	require.NoError(t, old.Close())
}

func TestABackupThatIsNotSoundChangesNothing(t *testing.T) {
	ctx, dir := context.Background(), t.TempDir()
	r, c := openReview(t, dir)
	remark(t, r, c.ID, "kept")
	file := filepath.Join(t.TempDir(), "vault.backup")
	require.NoError(t, store.Backup(ctx, dir, file, "test"))
	good, err := os.ReadFile(file)
	require.NoError(t, err)
	require.NoError(t, r.Close())
	for name, bad := range map[string][]byte{
		"cut off": good[:len(good)/2], "nothing": {}, "no archive": []byte("seed"),
		"a byte changed": append(append(append([]byte{}, good[:400]...), good[400]^0xff), good[401:]...),
	} {
		t.Run(name, func(t *testing.T) {
			spoiled := filepath.Join(t.TempDir(), "bad")
			require.NoError(t, os.WriteFile(spoiled, bad, 0o600))
			_, err := store.Restore(ctx, dir, spoiled, true)
			require.ErrorContains(t, err, "nothing was changed")
			r, err := store.OpenReview(ctx, dir)
			require.NoError(t, err)
			require.Equal(t, []string{"kept"}, titles(t, r, c.ID))
			require.NoError(t, r.Close())
			left, err := filepath.Glob(filepath.Join(dir, ".restore-*"))
			require.NoError(t, err)
			require.Empty(t, left)
		})
	}
}

func TestVerifySaysWhatIsDamaged(t *testing.T) {
	ctx, dir := context.Background(), t.TempDir()
	r, c := openReview(t, dir)
	for i := range 500 {
		remark(t, r, c.ID, fmt.Sprintf("number %d", i))
	}
	_, err := r.AddCodebase(ctx, review.Codebase{Name: "sent", Kind: "archive", Path: filepath.Join(dir, "uploads", "gone.zip")})
	require.NoError(t, err)
	faults, err := store.Verify(ctx, dir)
	require.NoError(t, err)
	require.Equal(t, []store.Fault{{File: "uploads/gone.zip", Text: `the archive of the codebase "sent" is gone`, Precious: true}}, faults)
	require.NoError(t, r.Close())
	damage(t, filepath.Join(dir, "review.db"))
	faults, err = store.Verify(ctx, dir)
	require.NoError(t, err)
	require.Equal(t, "review.db", faults[0].File)
	_, err = store.Verify(ctx, t.TempDir())
	require.ErrorContains(t, err, "there is no review")
}

func TestAStepOfMarkingIsTakenBackWithoutWhatOthersDidSince(t *testing.T) {
	ctx := context.Background()
	r, c := openReview(t, t.TempDir())
	set := func(read bool, by review.Actor, files ...string) (step int64) {
		of := map[string]string{}
		for _, f := range files {
			of[f] = "hash of " + f
		}
		step, _, err := r.MarkRead(ctx, c.ID, of, read, by)
		require.NoError(t, err)
		return step
	}
	marks := func() map[string]string {
		list, err := r.ReadMarks(ctx, c.ID)
		require.NoError(t, err)
		out := map[string]string{}
		for p, m := range list {
			out[p] = string(m.By)
		}
		return out
	}
	set(true, "Maren", "a")
	folder := set(true, "Tomas", "a", "b", "c")
	require.Equal(t, map[string]string{"a": "Maren", "b": "Tomas", "c": "Tomas"}, marks(), "a mark that is there stays whose it is")
	back, left, err := r.UndoMarks(ctx, c.ID, folder)
	require.NoError(t, err)
	require.Equal(t, [2]int{2, 0}, [2]int{back, left})
	require.Equal(t, map[string]string{"a": "Maren"}, marks())

	wiped := set(false, "Tomas", "a", "b")
	require.Empty(t, marks())
	set(true, "Ilse", "a") // a colleague is quicker
	back, left, err = r.UndoMarks(ctx, c.ID, wiped)
	require.NoError(t, err)
	require.Equal(t, [2]int{0, 1}, [2]int{back, left})
	require.Equal(t, map[string]string{"a": "Ilse"}, marks())
	_, _, err = r.UndoMarks(ctx, c.ID, wiped)
	require.ErrorIs(t, err, review.ErrNotFound, "once only")
	_, _, err = r.UndoMarks(ctx, c.ID+1, folder)
	require.ErrorIs(t, err, review.ErrNotFound, "a step belongs to its codebase")
}

func TestWhatEarlierVersionsReadIsReadAgain(t *testing.T) {
	ctx, dir := context.Background(), t.TempDir()
	facts, err := store.OpenFacts(ctx, dir)
	require.NoError(t, err)
	require.NoError(t, facts.Close())
	db := raw(t, filepath.Join(dir, "facts.db"))
	_, err = db.Exec(`DELETE FROM goose_db_version WHERE version_id > 1;
		INSERT INTO facts VALUES ('a:Go:1.1', x'28b52ffd00');
		INSERT INTO stamps VALUES ('folder:/a', x'00');
		INSERT INTO texts VALUES ('a', x'28b52ffd00');
		INSERT INTO surveys VALUES (1, x'28b52ffd00')`)
	require.NoError(t, err)
	require.NoError(t, db.Close())
	facts, err = store.OpenFacts(ctx, dir)
	require.NoError(t, err)
	defer func() { require.NoError(t, facts.Close()) }()
	require.Empty(t, facts.Facts(ctx, []string{"a:Go:1.1"}))
	require.Empty(t, facts.Stamps(ctx, "folder:/a"))
	_, err = facts.Survey(ctx, 1)
	require.ErrorContains(t, err, "survey the codebase again")
	texts, err := facts.TextHashes(ctx)
	require.NoError(t, err)
	require.Equal(t, map[string]bool{"a": true}, texts, "texts are packed as they were")
}
