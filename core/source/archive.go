package source

import (
	"archive/tar"
	"archive/zip"
	"compress/gzip"
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path"
	"strings"

	"jantel/core/model"

	"github.com/klauspost/compress/zstd"
	"golang.org/x/sync/errgroup"
)

var archiveEndings = []string{".zip", ".tar", ".tar.gz", ".tgz", ".tar.zst"}

func archiveName(p string) bool {
	p = strings.ToLower(p)
	for _, e := range archiveEndings {
		if strings.HasSuffix(p, e) {
			return true
		}
	}
	return false
}

// archive reads an archive by streaming it twice: once to check every name
// and size before anything is used, once for the bytes. Nothing of it is ever
// written to disk.
type archive struct {
	path   string
	limits Limits
	list   Listing
	packed int64
}

func openArchive(ctx context.Context, p string, l Limits) (Source, error) {
	info, err := os.Stat(p)
	if err != nil {
		return nil, fmt.Errorf("%w: %v", ErrNotCodebase, err)
	}
	if info.Size() > l.ArchiveBytes {
		return nil, fmt.Errorf("%w: the archive has %d bytes, more than the limit of %d", ErrNotCodebase, info.Size(), l.ArchiveBytes)
	}
	a := &archive{path: p, limits: l, packed: info.Size()}
	if err := a.check(ctx); err != nil {
		return nil, err
	}
	return a, nil
}

func (a *archive) Origin() model.Origin                  { return model.Origin{Kind: "archive"} }
func (a *archive) Close() error                          { return nil }
func (a *archive) List(context.Context) (Listing, error) { return a.list, nil }

type member struct {
	name    string
	size    int64
	regular bool
	dir     bool
	what    string // for what is neither
	open    func() (io.ReadCloser, error)
}

func corrupt(err error) error {
	return fmt.Errorf("%w: the archive is corrupt or not what its name says: %v", ErrNotCodebase, err)
}

// check walks the archive and refuses it whole when any entry is hostile.
func (a *archive) check(ctx context.Context) error {
	seen := map[string]string{}
	var entries []Entry
	var total int64
	members := 0
	err := a.walk(ctx, func(m member) error {
		// Folders and links cost as much as files where there are millions.
		if members++; members > 4*a.limits.Files {
			return fmt.Errorf("%w: the archive has more than %d entries", ErrNotCodebase, 4*a.limits.Files)
		}
		clean, err := memberName(m.name)
		if err != nil {
			return err
		}
		if clean == "." || inGit(clean) {
			return nil
		}
		if !m.dir {
			if other, ok := seen[foldName(clean)]; ok {
				return fmt.Errorf(
					"%w: the archive holds %q and %q, which are one file on many systems", ErrNotCodebase,
					EncodeName(other), EncodeName(clean),
				)
			}
			seen[foldName(clean)] = clean
		}
		switch {
		case m.dir:
		case !m.regular:
			a.list.Notes = append(a.list.Notes, model.Note{Path: EncodeName(clean), Text: "a " + m.what + ", not followed"})
		default:
			r, err := m.open()
			if err != nil {
				return corrupt(err)
			}
			// What an entry claims of its size is not trusted: it is counted.
			n, err := io.Copy(io.Discard, io.LimitReader(r, a.limits.TotalBytes-total+1))
			_ = r.Close()
			if err != nil {
				return corrupt(err)
			}
			total += n
			if err := a.bounded(total); err != nil {
				return err
			}
			entries = append(entries, Entry{Path: EncodeName(clean), raw: clean, Size: n})
		}
		return nil
	})
	if err != nil {
		return err
	}
	// A name that is a file here and a folder there can not be both.
	for _, e := range entries {
		for d := path.Dir(e.raw); d != "."; d = path.Dir(d) {
			if _, ok := seen[foldName(d)]; ok {
				return fmt.Errorf("%w: the archive holds %q both as a file and as a folder", ErrNotCodebase, EncodeName(d))
			}
		}
	}
	if len(entries) == 0 {
		return fmt.Errorf("%w: the archive holds no files", ErrNotCodebase)
	}
	entries = stripTop(entries, a.list.Notes)
	sortEntries(entries)
	entries, more := limit(entries, a.limits)
	a.list.Entries, a.list.Notes = entries, append(a.list.Notes, more...)
	a.list.Notes = sortNotes(a.list.Notes)
	return nil
}

func (a *archive) bounded(total int64) error {
	if total > a.limits.TotalBytes {
		return fmt.Errorf("%w: the archive unpacks to more than %d bytes", ErrNotCodebase, a.limits.TotalBytes)
	}
	if total > 16<<20 && total/max(a.packed, 1) > a.limits.Ratio {
		return fmt.Errorf("%w: the archive unpacks to more than %d times its size", ErrNotCodebase, a.limits.Ratio)
	}
	return nil
}

// memberName refuses names that climb or are absolute.
func memberName(n string) (string, error) {
	bad := func(why string) (string, error) {
		return "", fmt.Errorf("%w: the archive holds the name %q, which %s", ErrNotCodebase, EncodeName(n), why)
	}
	switch {
	case n == "":
		return bad("is empty")
	case strings.HasPrefix(n, "/"), len(n) > 1 && n[1] == ':':
		return bad("is absolute")
	case strings.Contains(n, "\\"):
		return bad("holds a backslash")
	case strings.Contains(n, "\x00"):
		return bad("holds a zero byte")
	}
	for part := range strings.SplitSeq(n, "/") {
		if part == ".." {
			return bad("climbs out of the archive")
		}
	}
	return path.Clean(n), nil
}

func inGit(p string) bool {
	for part := range strings.SplitSeq(p, "/") {
		if strings.EqualFold(part, ".git") {
			return true
		}
	}
	return false
}

// stripTop drops the one folder that many archives wrap around everything.
func stripTop(entries []Entry, notes []model.Note) []Entry {
	top, _, ok := strings.Cut(entries[0].raw, "/")
	if !ok {
		return entries
	}
	for _, e := range entries {
		if !strings.HasPrefix(e.raw, top+"/") {
			return entries
		}
	}
	for i := range entries {
		entries[i].Path = EncodeName(strings.TrimPrefix(entries[i].raw, top+"/"))
	}
	for i := range notes {
		notes[i].Path = strings.TrimPrefix(notes[i].Path, EncodeName(top)+"/")
	}
	return entries
}

func (a *archive) walk(ctx context.Context, visit func(member) error) error {
	if strings.HasSuffix(strings.ToLower(a.path), ".zip") {
		return a.walkZip(ctx, visit)
	}
	h, err := os.Open(a.path)
	if err != nil {
		return corrupt(err)
	}
	defer func() { _ = h.Close() }()
	var r io.Reader = h
	switch p := strings.ToLower(a.path); {
	case strings.HasSuffix(p, "gz"):
		z, err := gzip.NewReader(h)
		if err != nil {
			return corrupt(err)
		}
		r = z
	case strings.HasSuffix(p, "zst"):
		z, err := zstd.NewReader(h, zstd.WithDecoderMaxWindow(64<<20), zstd.WithDecoderMaxMemory(256<<20), zstd.WithDecoderConcurrency(1))
		if err != nil {
			return corrupt(err)
		}
		defer z.Close()
		r = z
	}
	// One more than the total: what stands between members counts as well.
	t := tar.NewReader(io.LimitReader(r, a.limits.TotalBytes+a.limits.TotalBytes/4+1<<20))
	for {
		if err := ctx.Err(); err != nil {
			return err
		}
		hd, err := t.Next()
		if errors.Is(err, io.EOF) {
			return nil
		}
		if err != nil {
			return corrupt(err)
		}
		m := member{name: hd.Name, size: hd.Size, dir: hd.Typeflag == tar.TypeDir, regular: hd.Typeflag == tar.TypeReg}
		if !m.dir && !m.regular {
			m.what = "link or special file"
			if hd.Typeflag == tar.TypeXGlobalHeader {
				continue
			}
		}
		m.open = func() (io.ReadCloser, error) { return io.NopCloser(t), nil }
		if err := visit(m); err != nil {
			return err
		}
	}
}

func (a *archive) walkZip(ctx context.Context, visit func(member) error) error {
	z, err := zip.OpenReader(a.path)
	if err != nil {
		return corrupt(err)
	}
	defer func() { _ = z.Close() }()
	for _, f := range z.File {
		if err := ctx.Err(); err != nil {
			return err
		}
		mode := f.Mode()
		m := member{
			name: f.Name, size: int64(f.UncompressedSize64), dir: mode.IsDir() || strings.HasSuffix(f.Name, "/"),
			regular: mode.IsRegular(), what: "link or special file", open: f.Open,
		}
		if err := visit(m); err != nil {
			return err
		}
	}
	return nil
}

func (a *archive) Read(ctx context.Context, entries []Entry, fn func(Entry, []byte, error) error) error {
	wanted := make(map[string]Entry, len(entries))
	for _, e := range entries {
		wanted[e.raw] = e
	}
	g, ctx := errgroup.WithContext(ctx)
	g.SetLimit(readers)
	err := a.walk(ctx, func(m member) error {
		clean, err := memberName(m.name)
		if err != nil {
			return err
		}
		e, ok := wanted[clean]
		if !ok || !m.regular {
			return nil
		}
		if e.Size > a.limits.FileBytes {
			return fn(e, nil, errTooLarge)
		}
		r, err := m.open()
		if err != nil {
			return corrupt(err)
		}
		data, err := io.ReadAll(io.LimitReader(r, a.limits.FileBytes+1))
		_ = r.Close()
		if err != nil {
			return corrupt(err)
		}
		g.Go(func() error { return fn(e, data, nil) })
		return nil
	})
	return errors.Join(err, g.Wait())
}

// IsTooLarge reports whether a file was left unread because of its size.
func IsTooLarge(err error) bool { return errors.Is(err, errTooLarge) }
