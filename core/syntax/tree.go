package syntax

import (
	"cmp"
	"path"
	"runtime"
	"slices"
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

// Each calls fn for every file of the given languages, from several
// goroutines, each with a place of its own to collect in. Files that lie
// together are mostly handed to the same one.
func (t *Tree) Each(fn func(out *Out, f *model.File), languages ...string) {
	var mine []*model.File
	for _, f := range t.Files {
		if f.Facts != nil && slices.Contains(languages, f.Language) {
			mine = append(mine, f)
		}
	}
	workers := min(runtime.GOMAXPROCS(0), len(mine))
	var wg sync.WaitGroup
	for w := range workers {
		wg.Go(func() {
			var out Out
			for _, f := range mine[w*len(mine)/workers : (w+1)*len(mine)/workers] {
				fn(&out, f)
			}
			t.Add(&out)
		})
	}
	wg.Wait()
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
	slices.SortFunc(t.links, compareLinks)
	links = t.links[:0]
	for _, l := range t.links {
		if n := len(links); n > 0 && links[n-1].From == l.From && links[n-1].To == l.To && links[n-1].Kind == l.Kind && links[n-1].Line == l.Line && links[n-1].Text == l.Text {
			continue
		}
		links = append(links, l)
	}
	t.versions()
	slices.SortStableFunc(t.external, func(a, b model.External) int {
		return cmp.Or(cmp.Compare(a.From, b.From), cmp.Compare(a.Line, b.Line), cmp.Compare(a.Package, b.Package))
	})
	slices.SortStableFunc(t.unresolved, func(a, b model.Unresolved) int {
		return cmp.Or(cmp.Compare(a.From, b.From), cmp.Compare(a.Line, b.Line), cmp.Compare(a.Text, b.Text), cmp.Compare(a.Reason, b.Reason))
	})
	return links, t.external, t.unresolved
}

// versions fills in what version of a package the nearest project file above
// asks for, where the language's own resolver left it open.
func (t *Tree) versions() {
	byDir := map[string][]*model.Project{}
	for _, f := range t.Files {
		if f.Facts != nil && f.Facts.Project != nil && len(f.Facts.Project.Dependencies) > 0 {
			d := path.Dir(f.Path)
			byDir[d] = append(byDir[d], f.Facts.Project)
		}
	}
	if len(byDir) == 0 {
		return
	}
	for i := range t.external {
		e := &t.external[i]
		if e.Version != nil {
			continue
		}
		Up(path.Dir(e.From), func(d string) bool {
			for _, p := range byDir[d] {
				if v, ok := p.Dependencies[e.Package]; ok && v != "" && v != "*" {
					e.Version = &v
					return true
				}
			}
			return false
		})
	}
}

func compareLinks(a, b model.Link) int {
	return cmp.Or(cmp.Compare(a.From, b.From), cmp.Compare(a.Line, b.Line), cmp.Compare(a.To, b.To), cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.Text, b.Text), slices.Compare(a.Names, b.Names))
}
