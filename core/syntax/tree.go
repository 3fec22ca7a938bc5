package syntax

import (
	"path"
	"sort"
	"strings"
	"sync"

	"jantel/core/model"
)

// Tree is all files of a survey, as resolvers see them, and where they put
// what they find.
type Tree struct {
	Files []*model.File // sorted by path
	// Name is the name of the codebase's root folder; some resolvers give a
	// meaning to it ("node_modules").
	Name  string
	byPth map[string]*model.File
	byDir map[string][]*model.File

	mu         sync.Mutex
	links      []model.Link
	external   []model.External
	unresolved []model.Unresolved
}

// NewTree indexes the files.
func NewTree(files []*model.File, name string) *Tree {
	t := &Tree{Files: files, Name: name, byPth: make(map[string]*model.File, len(files)), byDir: map[string][]*model.File{}}
	for _, f := range files {
		t.byPth[f.Path] = f
		d := path.Dir(f.Path)
		t.byDir[d] = append(t.byDir[d], f)
		for ; d != "."; d = path.Dir(d) {
			if up := path.Dir(d); t.byDir[up] == nil {
				t.byDir[up] = []*model.File{}
			}
		}
	}
	return t
}

// File is the file at p, or nil.
func (t *Tree) File(p string) *model.File { return t.byPth[p] }

// Dir lists the files directly in the folder d.
func (t *Tree) Dir(d string) []*model.File { return t.byDir[d] }

// HasDir reports whether the folder d holds any file, at any depth.
func (t *Tree) HasDir(d string) bool { _, ok := t.byDir[d]; return ok }

// Up calls fn with each folder from d up to ".", until fn returns true.
func Up(d string, fn func(d string) bool) {
	for {
		if fn(d) || d == "." {
			return
		}
		d = path.Dir(d)
	}
}

// Join joins path elements below the root and reports whether the result
// stays there.
func Join(elem ...string) (string, bool) {
	p := path.Join(elem...)
	if p == "" {
		p = "."
	}
	return p, p != ".." && !strings.HasPrefix(p, "../") && !strings.HasPrefix(p, "/")
}

// Out is where one resolver collects; Flush hands it to the tree.
type Out struct {
	Links      []model.Link
	External   []model.External
	Unresolved []model.Unresolved
}

// Add takes over what a resolver collected.
func (t *Tree) Add(o *Out) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.links = append(t.links, o.Links...)
	t.external = append(t.external, o.External...)
	t.unresolved = append(t.unresolved, o.Unresolved...)
}

// Resolve runs the resolver of every registered language and returns what
// they found, sorted, without repetitions.
func (t *Tree) Resolve() (links []model.Link, external []model.External, unresolved []model.Unresolved) {
	var wg sync.WaitGroup
	for _, l := range languages {
		if l.Resolve != nil {
			wg.Go(func() { l.Resolve(t) })
		}
	}
	wg.Wait()
	sort.Slice(t.links, func(i, j int) bool { return lessLink(&t.links[i], &t.links[j]) })
	links = t.links[:0]
	for _, l := range t.links {
		if n := len(links); n > 0 && links[n-1].From == l.From && links[n-1].To == l.To && links[n-1].Kind == l.Kind && links[n-1].Line == l.Line && links[n-1].Text == l.Text {
			continue
		}
		links = append(links, l)
	}
	sort.Slice(t.external, func(i, j int) bool {
		a, b := &t.external[i], &t.external[j]
		if a.From != b.From {
			return a.From < b.From
		}
		if a.Line != b.Line {
			return a.Line < b.Line
		}
		return a.Package < b.Package
	})
	sort.Slice(t.unresolved, func(i, j int) bool {
		a, b := &t.unresolved[i], &t.unresolved[j]
		if a.From != b.From {
			return a.From < b.From
		}
		if a.Line != b.Line {
			return a.Line < b.Line
		}
		return a.Text < b.Text
	})
	return links, t.external, t.unresolved
}

func lessLink(a, b *model.Link) bool {
	if a.From != b.From {
		return a.From < b.From
	}
	if a.Line != b.Line {
		return a.Line < b.Line
	}
	if a.To != b.To {
		return a.To < b.To
	}
	if a.Kind != b.Kind {
		return a.Kind < b.Kind
	}
	return a.Text < b.Text
}
