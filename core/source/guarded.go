package source

import (
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"strings"

	"jantel/core/model"
)

// What stands below .git, ignore files and lists of alternates come from a
// stranger like every other file: none of them is opened before it is known to
// be a regular file of a sensible size, no link is followed to it, and it is
// read no further than its limit. Git itself opens them without asking, so
// whatever it would open is looked at first.

// The most bytes that are read of each.
const (
	maxRef        = 4 << 10
	maxGitText    = 64 << 10 // commondir, alternates, a .git file
	maxGitConfig  = 1 << 20
	maxGitRefs    = 64 << 20 // packed-refs
	maxShallow    = 16 << 20
	maxIgnoreFile = 1 << 20
)

// Bounds on how much of a stranger's folders is walked before git is asked.
const (
	maxRefs    = 200_000   // refs that are files of their own
	maxWalked  = 4_000_000 // entries of a folder's tree
	maxObjects = 4_000_000 // entries of an object store
)

// readRegular reads a regular file that is no larger than max.
func readRegular(p string, max int64) ([]byte, error) {
	root, err := os.OpenRoot(filepath.Dir(p))
	if err != nil {
		return nil, err
	}
	defer func() { _ = root.Close() }()
	return readFile(root, filepath.Base(p), max)
}

// readWord is the text of a small regular file without space around it.
func readWord(p string, max int64) (string, error) {
	b, err := readRegular(p, max)
	return strings.TrimSpace(string(b)), err
}

// absent reports whether an error says that a file is not there, which is no
// fault; any other error is.
func absent(err error) bool { return errors.Is(err, fs.ErrNotExist) }

// walked is what a walk over a folder met before git is asked to list it.
type walked struct {
	folders    int
	unreadable []refused // folders
	// odd is what git would open by itself although it is no regular file or
	// too large: then git is not asked.
	odd    *refused
	files  []string // everything that is no folder
	nested []string // folders that are repositories of their own
	seen   int
}

// refused is something that is not opened, and why.
type refused struct{ path, why string }

// maxWalkDepth is how deep folders are walked; git is not asked to list what
// is nested deeper, and files there are beyond the limit on depth anyway.
const maxWalkDepth = 200

// walk looks at the whole tree below dir without opening a file or following a
// link. It keeps all names, since they are the listing where git can not be
// asked.
func walk(dir string) (*walked, error) {
	root, err := os.OpenRoot(dir)
	if err != nil {
		return nil, err
	}
	defer func() { _ = root.Close() }()
	w := &walked{}
	if err := w.folder(root, ".", 0); err != nil {
		return nil, fmt.Errorf("%w: %s %v", ErrNotCodebase, dir, err)
	}
	return w, nil
}

func (w *walked) folder(root *os.Root, at string, depth int) error {
	w.folders++
	items, err := readFolder(root)
	if err != nil {
		w.unreadable = append(w.unreadable, refused{at, reason(err)})
	}
	if w.seen += len(items); w.seen > maxWalked {
		return fmt.Errorf("holds more than %d files and folders", maxWalked)
	}
	for _, it := range items {
		name := it.Name()
		rel := path.Join(at, name)
		switch {
		case name == ".git" && at == ".":
			// Of the repository itself openGit reads what it needs.
		case name == ".git":
			w.nested = append(w.nested, at)
			w.repository(root, rel)
		case it.IsDir() && depth >= maxWalkDepth:
			w.odd = &refused{rel, fmt.Sprintf("lies deeper than %d folders", maxWalkDepth)}
		case it.IsDir():
			sub, err := root.OpenRoot(name)
			if err != nil {
				w.folders++
				w.unreadable = append(w.unreadable, refused{rel, reason(err)})
				continue
			}
			err = w.folder(sub, rel, depth+1)
			_ = sub.Close()
			if err != nil {
				return err
			}
		default:
			w.files = append(w.files, rel)
			if name == ".gitignore" {
				w.regular(root, rel, name, maxIgnoreFile)
			}
		}
	}
	return nil
}

// repository looks at what git opens to see whether a folder inside is a
// repository of its own.
func (w *walked) repository(root *os.Root, rel string) {
	w.regular(root, rel, ".git", maxGitText)
	for _, name := range []string{"HEAD", "commondir", "config"} {
		w.regular(root, path.Join(rel, name), ".git/"+name, maxGitConfig)
	}
}

// regular notes what is neither absent nor a folder, a link or a regular file
// of at most max bytes: git opens no link of these by itself.
func (w *walked) regular(root *os.Root, rel, name string, max int64) {
	info, err := root.Lstat(name)
	if err != nil || info.IsDir() || info.Mode()&fs.ModeSymlink != 0 && path.Base(name) == ".gitignore" {
		return
	}
	switch {
	case info.Mode()&fs.ModeSymlink != 0:
		w.odd = &refused{rel, "is a symbolic link"}
	case !info.Mode().IsRegular():
		w.odd = &refused{rel, "is a " + specialKind(info.Mode())}
	case info.Size() > max:
		w.odd = &refused{rel, fmt.Sprintf("has more than %d bytes", max)}
	}
}

// unignored names all that was walked as if there were no ignore rules, which
// is how a folder is listed when git can not be asked; what belongs to a
// repository inside is left out, as git leaves it out.
func (w *walked) unignored() []string {
	inside := map[string]bool{}
	names := make([]string, 0, len(w.files))
	for _, d := range w.nested {
		inside[d] = true
		names = append(names, d+"/")
	}
	for _, f := range w.files {
		own := true
		for d := path.Dir(f); d != "." && own; d = path.Dir(d) {
			own = !inside[d]
		}
		if own {
			names = append(names, f)
		}
	}
	return names
}

// notes says what could not be read, and how much of the whole that is.
func (w *walked) notes() []model.Note {
	var notes []model.Note
	for _, u := range w.unreadable {
		notes = append(notes, model.Note{Path: EncodeName(u.path), Text: "a folder that can not be read: " + u.why})
	}
	if n := len(w.unreadable); n > 0 {
		notes = append(notes, model.Note{
			Path: ".",
			Text: fmt.Sprintf("%d of %d folders can not be read; what lies in them is not counted", n, w.folders),
		})
	}
	if w.odd != nil {
		notes = append(notes, model.Note{
			Path: EncodeName(w.odd.path),
			Text: w.odd.why + ", so git is not asked to open it: no ignore rules were applied to the whole folder",
		})
	}
	return notes
}

func readFolder(root *os.Root) ([]fs.DirEntry, error) {
	h, err := root.Open(".")
	if err != nil {
		return nil, err
	}
	defer func() { _ = h.Close() }()
	return h.ReadDir(-1)
}

// reason is the last part of an error of the file system: what went wrong,
// without the path that everybody knows.
func reason(err error) string {
	var p *fs.PathError
	if errors.As(err, &p) {
		return p.Err.Error()
	}
	return err.Error()
}
