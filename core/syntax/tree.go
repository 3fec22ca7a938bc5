package syntax

import (
	"path"
	"runtime"
	"slices"
	"strings"
	"sync"

	"jantel/core/model"
	"jantel/core/parallel"
)

// Tree is all files of a survey, as resolvers see them, and where they put
// what they find.
type Tree struct {
	Files []*model.File // sorted by path
	// Name is the name of the codebase's root folder; some resolvers give a
	// meaning to it ("node_modules").
	Name  string
	at    map[string]int // place among the files by path
	byDir map[string][]*model.File

	mu         sync.Mutex
	links      []model.Link
	external   []model.External
	unresolved []model.Unresolved
	notes      []model.Note
}

// Notes says what could not be linked because a resolver broke.
func (t *Tree) Notes() []model.Note { return t.notes }

// try runs a part of linking; when it breaks that is noted at path, and costs
// only what that part would have found.
func (t *Tree) try(path, what string, fn func()) {
	if broken := parallel.Try(fn); broken != nil {
		t.mu.Lock()
		defer t.mu.Unlock()
		t.notes = append(t.notes, model.Note{Path: path, Text: what + " could not be followed: " + broken.Error()})
	}
}

// NewTree indexes the files.
func NewTree(files []*model.File, name string) *Tree {
	t := &Tree{Files: files, Name: name, at: make(map[string]int, len(files)), byDir: map[string][]*model.File{}}
	for i, f := range files {
		t.at[f.Path] = i
		d := model.FolderOf(f.Path)
		t.byDir[d] = append(t.byDir[d], f)
		for ; d != "."; d = model.FolderOf(d) {
			if up := model.FolderOf(d); t.byDir[up] == nil {
				t.byDir[up] = []*model.File{}
			}
		}
	}
	return t
}

// File is the file at p, or nil.
func (t *Tree) File(p string) *model.File {
	if i, ok := t.at[p]; ok {
		return t.Files[i]
	}
	return nil
}

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
		d = model.FolderOf(d)
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
			own := mine[w*len(mine)/workers : (w+1)*len(mine)/workers]
			imports := 0
			for _, f := range own {
				imports += len(f.Facts.Imports)
			}
			out.Links = make([]model.Link, 0, imports)
			for _, f := range own {
				t.try(f.Path, "its imports", func() { fn(&out, f) })
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
	if len(t.links) == 0 {
		t.links = o.Links
	} else {
		t.links = append(t.links, o.Links...)
	}
	t.external = append(t.external, o.External...)
	t.unresolved = append(t.unresolved, o.Unresolved...)
}

// Resolve runs the resolver of every registered language and returns what
// they found, sorted, without repetitions.
func (t *Tree) Resolve() (links []model.Link, external []model.External, unresolved []model.Unresolved) {
	var wg sync.WaitGroup
	for _, l := range languages {
		if l.Resolve != nil {
			wg.Go(func() { t.try(".", "the imports of "+l.Name, func() { l.Resolve(t) }) })
		}
	}
	wg.Wait()
	t.links = byFile(t, t.links, func(l *model.Link) string { return l.From }, compareLinks)
	links = slices.CompactFunc(t.links, func(a, b model.Link) bool {
		return a.From == b.From && a.To == b.To && a.Kind == b.Kind && a.Line == b.Line && a.Text == b.Text
	})
	t.versions()
	external = byFile(t, t.external, func(e *model.External) string { return e.From }, func(a, b *model.External) int {
		return first(a.Line-b.Line, strings.Compare(a.Package, b.Package))
	})
	unresolved = byFile(t, t.unresolved, func(u *model.Unresolved) string { return u.From }, func(a, b *model.Unresolved) int {
		return first(a.Line-b.Line, strings.Compare(a.Text, b.Text), strings.Compare(a.Reason, b.Reason))
	})
	return links, external, unresolved
}

// byFile sorts what was found by the file it starts from, and for each file by
// compare: files are numbered in their order, so that no two paths are compared.
func byFile[T any](t *Tree, all []T, from func(*T) string, compare func(a, b *T) int) []T {
	if len(all) == 0 {
		return nil
	}
	at := make([]int32, len(t.Files)+1)
	of := make([]int32, len(all))
	last, here := "", int32(-1)
	for i := range all {
		if p := from(&all[i]); p != last || here < 0 {
			last, here = p, int32(t.at[p])
		}
		of[i] = here
		at[here+1]++
	}
	for i := 1; i < len(at); i++ {
		at[i] += at[i-1]
	}
	// Pointers are put in order, so that each is copied once.
	order := make([]*T, len(all))
	next := slices.Clone(at)
	for i := range all {
		order[next[of[i]]] = &all[i]
		next[of[i]]++
	}
	for i := 0; i+1 < len(at); i++ {
		if part := order[at[i]:at[i+1]]; len(part) > 1 && !slices.IsSortedFunc(part, compare) {
			slices.SortStableFunc(part, compare)
		}
	}
	out := make([]T, len(all))
	for i, x := range order {
		out[i] = *x
	}
	return out
}

func first(orders ...int) int {
	for _, o := range orders {
		if o != 0 {
			return o
		}
	}
	return 0
}

// versions fills in what version of a package the nearest project file above
// asks for, where the language's own resolver left it open.
func (t *Tree) versions() {
	byDir := map[string][]*model.Project{}
	for _, f := range t.Files {
		if f.Facts != nil && f.Facts.Project != nil && len(f.Facts.Project.Dependencies) > 0 {
			d := model.FolderOf(f.Path)
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
		Up(model.FolderOf(e.From), func(d string) bool {
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

// compareLinks orders the links of one file.
func compareLinks(a, b *model.Link) int {
	if a.Line != b.Line {
		return a.Line - b.Line
	}
	if c := strings.Compare(a.To, b.To); c != 0 {
		return c
	}
	return first(strings.Compare(string(a.Kind), string(b.Kind)), strings.Compare(a.Text, b.Text), slices.Compare(a.Names, b.Names))
}
