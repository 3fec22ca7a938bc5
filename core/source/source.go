// Package source reads the bytes of a codebase from a folder, a Git revision
// or an archive. What it reads is untrusted: nothing in it is executed, no
// configuration of it is loaded, and nothing outside it is opened.
package source

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"sort"
	"strings"

	"jantel/core/model"
)

// ErrNotCodebase is wrapped by every error that says that what was named can
// not be taken in: it is missing, a plain file, empty, corrupt or hostile.
var ErrNotCodebase = errors.New("not a codebase")

// ErrNotAllowed is wrapped when a path leaves the allowed folders.
var ErrNotAllowed = errors.New("outside the allowed folders")

// Limits bound what is taken in. Reaching one is noted in the survey.
type Limits struct {
	FileBytes    int64 // a larger file is listed but not read
	Files        int   // further files are left out
	Depth        int   // deeper folders are left out
	TotalBytes   int64 // of one archive, unpacked
	Ratio        int64 // of an archive, unpacked to packed, once past 16 MB
	ArchiveBytes int64 // packed
}

// DefaultLimits are what a survey uses unless told otherwise.
func DefaultLimits() Limits {
	return Limits{FileBytes: 8 << 20, Files: 400_000, Depth: 64, TotalBytes: 2 << 30, Ratio: 200, ArchiveBytes: 1 << 30}
}

// Stamp tells whether a file changed without reading it. For Git it is the
// blob id; for a folder it is size, times and inode.
type Stamp struct {
	Blob  string `cbor:"1,keyasint,omitempty"`
	Size  int64  `cbor:"2,keyasint,omitempty"`
	MTime int64  `cbor:"3,keyasint,omitempty"` // nanoseconds
	CTime int64  `cbor:"4,keyasint,omitempty"`
	Inode uint64 `cbor:"5,keyasint,omitempty"`
}

// Zero reports whether the source can not tell changes without reading.
func (s Stamp) Zero() bool { return s == Stamp{} }

// Entry is one regular file of the source.
type Entry struct {
	Path  string // relative, with slashes, percent-encoded where not UTF-8
	Size  int64
	Stamp Stamp
	raw   string // the name as stored
}

// Listing is what a source holds.
type Listing struct {
	Entries []Entry // sorted by path
	Notes   []model.Note
}

// Source gives the bytes of a codebase.
type Source interface {
	// Origin says where the bytes come from.
	Origin() model.Origin
	// List names the regular files, ignore rules applied.
	List(ctx context.Context) (Listing, error)
	// Read calls fn once for each entry with its bytes, from several
	// goroutines. The bytes are fn's to keep. An entry that can not be read
	// gets a non-nil err instead. Read stops when fn returns an error.
	Read(ctx context.Context, entries []Entry, fn func(e Entry, data []byte, err error) error) error
	// Close releases what the source holds.
	Close() error
}

// Historian is a source that knows how its files came to be.
type Historian interface {
	// History is the log of the revision, newest commit first, as package
	// history reads it; nil when there is none. cut says why it is not whole.
	History(ctx context.Context) (log io.ReadCloser, cut string, err error)
}

// MaxCommits bounds how far back a history is read.
const MaxCommits = 50_000

// Request names what to open.
type Request struct {
	Path     string   // a folder, a Git repository or an archive
	Revision string   // of a Git repository; "" takes the folder as it is
	Allow    []string // folders that Path must lie in; none allows everything
	Limits   Limits
}

// Open opens what the request names.
func Open(ctx context.Context, r Request) (Source, error) {
	if r.Limits == (Limits{}) {
		r.Limits = DefaultLimits()
	}
	abs, err := Resolve(r.Path, r.Allow)
	if err != nil {
		return nil, err
	}
	info, err := os.Stat(abs)
	if err != nil {
		return nil, fmt.Errorf("%w: %s can not be read: %v", ErrNotCodebase, r.Path, errors.Unwrap(err))
	}
	if info.Mode().IsRegular() {
		if r.Revision != "" {
			return nil, fmt.Errorf("%w: %s is a file, so it has no revision %q", ErrNotCodebase, r.Path, r.Revision)
		}
		if !archiveName(abs) {
			return nil, fmt.Errorf(
				"%w: %s is a file, neither a folder nor a .zip, .tar, .tar.gz or .tar.zst archive", ErrNotCodebase,
				r.Path,
			)
		}
		return openArchive(ctx, abs, r.Limits)
	}
	if !info.IsDir() {
		return nil, fmt.Errorf("%w: %s is neither a folder nor an archive", ErrNotCodebase, r.Path)
	}
	bare := isBare(abs)
	if r.Revision != "" || bare {
		return openGit(ctx, abs, r.Revision, r.Allow, r.Limits)
	}
	return openFolder(ctx, abs, r.Allow, r.Limits)
}

// Reads names the files and folders that a source is read from: the codebase
// itself, and where its repository leads to as far as that is allowed.
func Reads(r Request) ([]string, error) {
	abs, err := Resolve(r.Path, r.Allow)
	if err != nil {
		return nil, err
	}
	out := []string{abs}
	if repo, err := findRepository(abs, r.Allow); err == nil {
		for _, p := range append([]string{repo.gitDir, repo.common}, repo.stores...) {
			if !allowed(p, out) {
				out = append(out, p)
			}
		}
	}
	return out, nil
}

// Resolve makes a path absolute, follows its symlinks and checks that it lies
// in one of the allowed folders.
func Resolve(path string, allow []string) (string, error) {
	if strings.TrimSpace(path) == "" {
		return "", fmt.Errorf("%w: no path was given", ErrNotCodebase)
	}
	abs, err := filepath.Abs(path)
	if err != nil {
		return "", fmt.Errorf("%w: %s: %v", ErrNotCodebase, path, err)
	}
	real, err := filepath.EvalSymlinks(abs)
	if err != nil {
		// Whether a path exists is told only below the allowed folders.
		if len(allow) > 0 && !allowed(abs, allow) {
			return "", fmt.Errorf("%w: %s; start the server with --allow for a folder above it", ErrNotAllowed, path)
		}
		return "", fmt.Errorf("%w: %s does not exist or can not be read", ErrNotCodebase, path)
	}
	if len(allow) > 0 && !allowed(real, allow) {
		return "", fmt.Errorf("%w: %s; start the server with --allow for a folder above it", ErrNotAllowed, path)
	}
	return real, nil
}

func allowed(path string, allow []string) bool {
	for _, a := range allow {
		abs, err := filepath.Abs(a)
		if err != nil {
			continue
		}
		if real, err := filepath.EvalSymlinks(abs); err == nil {
			abs = real
		}
		if path == abs || strings.HasPrefix(path, strings.TrimSuffix(abs, "/")+"/") {
			return true
		}
	}
	return false
}

// limit cuts a sorted listing down to the limits and notes what was cut.
func limit(entries []Entry, l Limits) ([]Entry, []model.Note) {
	var notes []model.Note
	kept := entries[:0]
	deep := 0
	for _, e := range entries {
		if strings.Count(e.Path, "/") > l.Depth {
			deep++
			continue
		}
		kept = append(kept, e)
	}
	if deep > 0 {
		notes = append(notes, model.Note{
			Path: ".", Text: fmt.Sprintf("%d files lie deeper than %d folders and were left out", deep, l.Depth),
		})
	}
	if len(kept) > l.Files {
		notes = append(notes, model.Note{
			Path: ".",
			Text: fmt.Sprintf("%d files are more than the limit of %d; the rest was left out", len(kept), l.Files),
		})
		kept = kept[:l.Files]
	}
	return kept, notes
}

func sortEntries(es []Entry) { sort.Slice(es, func(i, j int) bool { return es[i].Path < es[j].Path }) }

// maxNotes bounds what is noted of one source: a million links are one thing
// to know of, not a million.
const maxNotes = 1000

// sortNotes puts notes in order and says how many there are beyond the bound.
func sortNotes(ns []model.Note) []model.Note {
	sort.Slice(ns, func(i, j int) bool {
		if ns[i].Path != ns[j].Path {
			return ns[i].Path < ns[j].Path
		}
		return ns[i].Text < ns[j].Text
	})
	if more := len(ns) - maxNotes; more > 0 {
		ns = append(ns[:maxNotes:maxNotes], model.Note{Path: ".", Text: fmt.Sprintf("%d more notes like these were left out", more)})
	}
	return ns
}
