package source

import (
	"context"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"strings"
	"sync"
	"syscall"

	"jantel/core/model"

	"golang.org/x/sync/errgroup"
)

// readers is how many files are read at once; reading overlaps with lexing,
// so a few more than the cores keep both busy.
const readers = 4

type folder struct {
	dir    string
	root   *os.Root
	limits Limits
	origin model.Origin
	git    *gitSource // of the repository it lies in, nil when there is none
}

func openFolder(ctx context.Context, dir string, allow []string, l Limits) (Source, error) {
	root, err := os.OpenRoot(dir)
	if err != nil {
		return nil, fmt.Errorf("%w: %s can not be opened: %v", ErrNotCodebase, dir, err)
	}
	f := &folder{dir: dir, root: root, limits: l, origin: model.Origin{Kind: "folder"}}
	// A folder with history is told apart by the commit it is based on; when
	// that can not be read safely the folder is surveyed all the same.
	if _, err := os.Lstat(filepath.Join(dir, ".git")); err == nil {
		if g, err := openGit(ctx, dir, "HEAD", allow, l); err == nil {
			f.origin.BasedOn = g.Origin().Revision
			f.git, _ = g.(*gitSource)
		}
	}
	return f, nil
}

func (f *folder) Origin() model.Origin { return f.origin }
func (f *folder) Close() error {
	if f.git != nil {
		return errors.Join(f.root.Close(), f.git.Close())
	}
	return f.root.Close()
}

// History implements Historian.
func (f *folder) History(ctx context.Context) (io.ReadCloser, string, error) {
	if f.git == nil {
		return nil, "", nil
	}
	return f.git.History(ctx)
}

func (f *folder) List(ctx context.Context) (Listing, error) {
	names, notes, err := listUnignored(ctx, f.dir)
	if err != nil {
		return Listing{}, err
	}
	byDir := map[string]map[string]bool{}
	for _, n := range names {
		if strings.HasSuffix(n, "/") {
			notes = append(notes, model.Note{
				Path: EncodeName(strings.TrimSuffix(n, "/")),
				Text: "a repository of its own, not followed; survey it by itself",
			})
			continue
		}
		d, b := path.Dir(n), path.Base(n)
		if byDir[d] == nil {
			byDir[d] = map[string]bool{}
		}
		byDir[d][b] = true
	}
	if byDir["."] == nil {
		byDir["."] = map[string]bool{}
	}
	var (
		mu      sync.Mutex
		entries = make([]Entry, 0, len(names))
		g       errgroup.Group
	)
	g.SetLimit(readers)
	for d, listed := range byDir {
		g.Go(func() error {
			es, ns := f.statDir(d, listed)
			mu.Lock()
			entries, notes = append(entries, es...), append(notes, ns...)
			mu.Unlock()
			return ctx.Err()
		})
	}
	if err := g.Wait(); err != nil {
		return Listing{}, err
	}
	if len(entries) == 0 {
		return Listing{}, fmt.Errorf("%w: %s holds no files (ignore rules applied)", ErrNotCodebase, f.dir)
	}
	sortEntries(entries)
	entries, more := limit(entries, f.limits)
	notes = append(notes, more...)
	notes = sortNotes(notes)
	return Listing{Entries: entries, Notes: notes}, nil
}

// statDir stamps the listed files of one folder and notes what is in it that
// is neither file nor folder.
func (f *folder) statDir(d string, listed map[string]bool) (entries []Entry, notes []model.Note) {
	dir, err := f.root.OpenRoot(d)
	if err != nil {
		return nil, []model.Note{{Path: EncodeName(d), Text: "the folder can not be opened"}}
	}
	defer func() { _ = dir.Close() }()
	h, err := dir.Open(".")
	if err != nil {
		return nil, []model.Note{{Path: EncodeName(d), Text: "the folder can not be read"}}
	}
	infos, err := h.ReadDir(-1)
	_ = h.Close()
	if err != nil {
		notes = append(notes, model.Note{Path: EncodeName(d), Text: "the folder could not be read to its end"})
	}
	for _, de := range infos {
		raw := path.Join(d, de.Name())
		switch t := de.Type(); {
		case t&fs.ModeSymlink != 0:
			if listed[de.Name()] {
				notes = append(notes, model.Note{Path: EncodeName(raw), Text: "a symbolic link, not followed"})
			}
		case t&(fs.ModeDevice|fs.ModeNamedPipe|fs.ModeSocket|fs.ModeIrregular) != 0:
			notes = append(notes, model.Note{Path: EncodeName(raw), Text: "a " + specialKind(t) + ", not opened"})
		case t.IsRegular() && listed[de.Name()]:
			info, err := de.Info()
			if err != nil {
				notes = append(notes, model.Note{Path: EncodeName(raw), Text: "vanished while it was listed"})
				continue
			}
			entries = append(entries, Entry{Path: EncodeName(raw), raw: raw, Size: info.Size(), Stamp: stampOf(info)})
		}
	}
	return entries, notes
}

func specialKind(t fs.FileMode) string {
	switch {
	case t&fs.ModeNamedPipe != 0:
		return "named pipe"
	case t&fs.ModeSocket != 0:
		return "socket"
	case t&fs.ModeDevice != 0:
		return "device"
	}
	return "special file"
}

func stampOf(info fs.FileInfo) Stamp {
	s := Stamp{Size: info.Size(), MTime: info.ModTime().UnixNano()}
	if st, ok := info.Sys().(*syscall.Stat_t); ok {
		s.CTime = st.Ctim.Nano()
		s.Inode = st.Ino
	}
	return s
}

func (f *folder) Read(ctx context.Context, entries []Entry, fn func(Entry, []byte, error) error) error {
	g, gctx := errgroup.WithContext(ctx)
	g.SetLimit(readers)
	for i := 0; i < len(entries) && gctx.Err() == nil; {
		// Files of one folder are read together, so that the path to it is
		// walked, link by link, once.
		d := path.Dir(entries[i].raw)
		j := i + 1
		for j < len(entries) && j-i < 64 && path.Dir(entries[j].raw) == d {
			j++
		}
		batch := entries[i:j]
		i = j
		g.Go(func() error {
			dir, err := f.root.OpenRoot(d)
			if err != nil {
				for _, e := range batch {
					if err := fn(e, nil, fmt.Errorf("its folder can not be opened: %w", err)); err != nil {
						return err
					}
				}
				return nil
			}
			defer func() { _ = dir.Close() }()
			for _, e := range batch {
				if err := gctx.Err(); err != nil {
					return err
				}
				data, err := readFile(dir, path.Base(e.raw), f.limits.FileBytes)
				if err := fn(e, data, err); err != nil {
					return err
				}
			}
			return nil
		})
	}
	if err := g.Wait(); err != nil {
		return err
	}
	return ctx.Err()
}

var errTooLarge = errors.New("larger than the limit")

func readFile(dir *os.Root, name string, max int64) ([]byte, error) {
	// O_NOFOLLOW and O_NONBLOCK: what was a file when it was listed may have
	// become a link or a pipe since.
	h, err := dir.OpenFile(name, os.O_RDONLY|syscall.O_NOFOLLOW|syscall.O_NONBLOCK, 0)
	if err != nil {
		return nil, err
	}
	defer func() { _ = h.Close() }()
	info, err := h.Stat()
	if err != nil {
		return nil, err
	}
	if !info.Mode().IsRegular() {
		return nil, errors.New("no longer a regular file")
	}
	size := info.Size()
	if size > max {
		return nil, errTooLarge
	}
	buf := make([]byte, size+1)
	n := 0
	for {
		m, err := h.Read(buf[n:])
		n += m
		if int64(n) > max {
			return nil, errTooLarge
		}
		if err == io.EOF {
			return buf[:n], nil
		}
		if err != nil {
			return nil, err
		}
		if n == len(buf) {
			buf = append(buf, make([]byte, len(buf)+4096)...)
		}
	}
}
