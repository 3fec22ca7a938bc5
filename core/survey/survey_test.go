package survey_test

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/source"
	"jantel/core/survey"
	"jantel/core/testkit"
	"jantel/report"

	"github.com/stretchr/testify/require"
)

// memory is a cache that counts what it is asked.
type memory struct {
	stamps map[string]map[string]survey.Stamped
	facts  map[string]*model.Facts
	full   bool
}

func newMemory() *memory {
	return &memory{stamps: map[string]map[string]survey.Stamped{}, facts: map[string]*model.Facts{}}
}

func (m *memory) Stamps(_ context.Context, s string) map[string]survey.Stamped { return m.stamps[s] }
func (m *memory) SaveStamps(_ context.Context, s string, v map[string]survey.Stamped) error {
	m.stamps[s] = v
	return nil
}
func (m *memory) Facts(_ context.Context, keys []string) map[string]*model.Facts {
	out := map[string]*model.Facts{}
	for _, k := range keys {
		if f := m.facts[k]; f != nil {
			out[k] = f
		}
	}
	return out
}
func (m *memory) SaveFacts(_ context.Context, fs map[string]*model.Facts) error {
	if m.full {
		return errors.New("disk is full")
	}
	for k, v := range fs {
		m.facts[k] = v
	}
	return nil
}

// counting counts the files that are read.
type counting struct {
	source.Source
	read *[]string
}

func (c counting) Read(ctx context.Context, es []source.Entry, fn func(source.Entry, []byte, error) error) error {
	for _, e := range es {
		*c.read = append(*c.read, e.Path)
	}
	return c.Source.Read(ctx, es, fn)
}

func take(t *testing.T, r source.Request, m survey.Cache, now time.Time) (*model.Survey, []string) {
	t.Helper()
	src, err := source.Open(context.Background(), r)
	require.NoError(t, err)
	defer func() { require.NoError(t, src.Close()) }()
	read := []string{}
	s, err := survey.Run(context.Background(), counting{src, &read}, survey.Options{Name: "tree", Key: r.Path, Cache: m, Now: func() time.Time { return now }})
	require.NoError(t, err)
	return s, read
}

func TestAnUnchangedFileIsNeverReadTwice(t *testing.T) {
	dir := testkit.Tree(t, "-- a.go --\npackage a\n-- b.go --\npackage a\n\nfunc B() {}\n-- c.go --\npackage a\n")
	old := time.Now().Add(-time.Hour)
	for _, n := range []string{"a.go", "b.go", "c.go"} {
		require.NoError(t, os.Chtimes(filepath.Join(dir, n), old, old))
	}
	// The clock is ahead, so that the files count as settled.
	m, later := newMemory(), time.Now().Add(time.Minute)
	first, read := take(t, source.Request{Path: dir}, m, later)
	require.Equal(t, []string{"a.go", "b.go", "c.go"}, read)
	second, read := take(t, source.Request{Path: dir}, m, later)
	require.Empty(t, read)
	require.Equal(t, first.Files[1], second.Files[1])
	require.NoError(t, os.WriteFile(filepath.Join(dir, "b.go"), []byte("package a\n\nfunc C() {}\n"), 0o644))
	third, read := take(t, source.Request{Path: dir}, m, later)
	require.Equal(t, []string{"b.go"}, read)
	require.Equal(t, "C", third.File("b.go").Facts.Definitions[0].Name)
}

func TestAFileThatJustChangedIsNotTrusted(t *testing.T) {
	dir := testkit.Tree(t, "-- a.go --\npackage a\n")
	m := newMemory()
	take(t, source.Request{Path: dir}, m, time.Now())
	_, read := take(t, source.Request{Path: dir}, m, time.Now())
	require.Equal(t, []string{"a.go"}, read, "it could change again within the clock's grain")
}

func TestOfARevisionOnlyNewBlobsAreRead(t *testing.T) {
	dir := testkit.Repository(t, "-- a.go --\npackage a\n-- b/b.go --\npackage b\n")
	m := newMemory()
	take(t, source.Request{Path: dir, Revision: "HEAD"}, m, time.Now())
	testkit.Write(t, dir, "-- a.go --\npackage a\n\nfunc New() {}\n")
	testkit.Git(t, dir, "mv", "b/b.go", "moved.go")
	testkit.Git(t, dir, "commit", "-q", "-a", "-m", "second")
	s, read := take(t, source.Request{Path: dir, Revision: "HEAD"}, m, time.Now())
	require.Equal(t, []string{"a.go"}, read, "a moved file keeps its blob")
	require.Equal(t, "b", s.File("moved.go").Facts.Namespace)
}

func TestACacheThatCanNotKeepMakesItSlowerNotWrong(t *testing.T) {
	dir := testkit.Tree(t, "-- a.go --\npackage a\n")
	m := newMemory()
	m.full = true
	s, _ := take(t, source.Request{Path: dir}, m, time.Now())
	require.Len(t, s.Files, 1)
	require.Contains(t, s.Notes[0].Text, "disk is full")
}

const mixed = `
-- go.mod --
module vault
-- main.go --
package main

import "vault/lots"

func main() { lots.Weigh() }
-- lots/lots.go --
// Package lots keeps lots.
package lots

func Weigh() {}
-- web/a.ts --
import { b } from './b'
export const a = b
-- web/b.ts --
import { a } from './a'
export const b = a
-- README.md --
# Vault

Keeps seed.
`

func TestTheSameBytesGiveTheSameSurvey(t *testing.T) {
	dir := testkit.Tree(t, mixed)
	var first []byte
	for range 3 {
		s := testkit.SurveyDir(t, dir)
		s.SurveyedAt, s.Timings = time.Time{}, nil
		var b bytes.Buffer
		j := judgement.Judge(s, model.Brief{}, nil)
		j.Timings = nil
		require.NoError(t, report.JSON(&b, s, j, report.Extras{}))
		if first == nil {
			first = b.Bytes()
		}
		require.Equal(t, string(first), b.String())
	}
}

func TestAnArchiveAndAFolderOfTheSameFilesAgree(t *testing.T) {
	dir := testkit.Repository(t, mixed)
	zip := filepath.Join(t.TempDir(), "vault.zip")
	testkit.Git(t, dir, "archive", "-o", zip, "HEAD")
	a, b, c := testkit.SurveyDir(t, dir), testkit.SurveyDir(t, zip), func() *model.Survey {
		s, _ := take(t, source.Request{Path: dir, Revision: "HEAD"}, nil, time.Now())
		return s
	}()
	for _, s := range []*model.Survey{b, c} {
		require.Equal(t, a.Links, s.Links)
		require.Len(t, s.Files, len(a.Files))
		for i := range s.Files {
			require.Equal(t, a.Files[i], s.Files[i])
		}
	}
}

func TestProgressIsTrue(t *testing.T) {
	dir := testkit.Tree(t, mixed)
	src, err := source.Open(context.Background(), source.Request{Path: dir})
	require.NoError(t, err)
	defer func() { require.NoError(t, src.Close()) }()
	var mu sync.Mutex
	var steps []string
	s, err := survey.Run(context.Background(), src, survey.Options{Progress: func(p survey.Progress) {
		mu.Lock()
		defer mu.Unlock()
		require.LessOrEqual(t, p.Done, max(p.Total, p.Done))
		if n := len(steps); n == 0 || steps[n-1] != p.Step {
			steps = append(steps, p.Step)
		}
	}})
	require.NoError(t, err)
	require.Equal(t, []string{"listing", "reading", "linking", "linked"}, steps)
	require.NotEmpty(t, s.Timings)
}

func TestASurveyCanBeCancelled(t *testing.T) {
	text := ""
	for i := range 200 {
		text += fmt.Sprintf("-- d%d/f.go --\npackage d\n", i)
	}
	dir := testkit.Tree(t, text)
	ctx, cancel := context.WithCancel(context.Background())
	src, err := source.Open(ctx, source.Request{Path: dir})
	require.NoError(t, err)
	defer func() { require.NoError(t, src.Close()) }()
	_, err = survey.Run(ctx, src, survey.Options{Progress: func(p survey.Progress) {
		if p.Step == "reading" {
			cancel()
		}
	}})
	require.ErrorIs(t, err, context.Canceled)
}

func TestVendoredAndGeneratedFilesAreToldApart(t *testing.T) {
	s := testkit.Survey(t, `
-- go.mod --
module vault
-- vendor/x/x.go --
package x
-- shop/vendor/list.go --
package vendor
-- node_modules/a/index.js --
x()
-- package-lock.json --
{}
-- big.min.js --
x()
-- lots.pb.go --
package lots
`)
	skipped := map[string]string{}
	for _, f := range s.Files {
		skipped[f.Path] = f.Skipped
	}
	require.Equal(t, map[string]string{"go.mod": "", "vendor/x/x.go": "vendored", "shop/vendor/list.go": "", "node_modules/a/index.js": "vendored", "package-lock.json": "generated", "big.min.js": "", "lots.pb.go": "generated"}, skipped)
}

func TestOddFilesSurvey(t *testing.T) {
	dir := testkit.Tree(t, "-- empty.go --\n-- crlf.ts --\nconst a = 1\r\n\r\nimport b from './b'\r\n-- b.ts --\nexport default 1\n")
	require.NoError(t, os.WriteFile(filepath.Join(dir, "latin.py"), []byte("# caf\xe9\nname = 'caf\xe9'\ndef f(): pass\n"), 0o644))
	require.NoError(t, os.WriteFile(filepath.Join(dir, "huge.js"), bytes.Repeat([]byte("a=1;"), 13<<20), 0o644))
	require.NoError(t, os.WriteFile(filepath.Join(dir, "noise.go"), []byte("package a\nfunc ((( \x01\x02 } ] x"), 0o644))
	s := testkit.SurveyDir(t, dir)
	require.Equal(t, "too large", s.File("huge.js").Skipped)
	require.Nil(t, s.File("huge.js").Facts)
	require.Equal(t, int64(52<<20), s.File("huge.js").Bytes)
	require.Equal(t, 0, s.File("empty.go").Lines())
	require.Equal(t, "f", s.File("latin.py").Facts.Definitions[1].Name)
	require.Equal(t, model.ReadPartial, s.File("noise.go").Facts.Read)
	require.Equal(t, []string{"crlf.ts -> b.ts"}, testkit.Links(s))
}
