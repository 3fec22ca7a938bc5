package golang

import (
	"path"
	"slices"
	"sort"
	"strings"
	"sync"

	"jantel/core/model"
	"jantel/core/syntax"
)

type module struct{ path, dir string }

// resolve finds for each import the folder that holds the package, as the Go
// command does, and in it the files whose names are used.
func resolve(t *syntax.Tree) {
	r := &resolver{t: t, versions: map[string]map[string]string{}, packages: map[string]*goPackage{}}
	for _, f := range t.Files {
		if path.Base(f.Path) == "go.mod" && f.Facts != nil && f.Facts.Project != nil && f.Facts.Project.Name != "" {
			d := model.FolderOf(f.Path)
			r.mods = append(r.mods, module{f.Facts.Project.Name, d})
			r.versions[d] = f.Facts.Project.Dependencies
		}
		if f.Language == "Go" && f.Facts != nil {
			d := model.FolderOf(f.Path)
			if r.packages[d] == nil {
				r.packages[d] = &goPackage{}
			}
			r.packages[d].files = append(r.packages[d].files, f)
		}
	}
	sort.Slice(r.mods, func(i, j int) bool {
		a, b := r.mods[i], r.mods[j]
		if len(a.path) != len(b.path) {
			return len(a.path) > len(b.path)
		}
		return a.dir < b.dir
	})
	r.vendors = map[string]bool{}
	for d := range r.packages {
		for rest := d; ; {
			i := strings.LastIndex(rest, "vendor/")
			if i < 0 {
				break
			}
			if rest = strings.TrimSuffix(rest[:i], "/"); i == 0 || d[i-1] == '/' {
				r.vendors[path.Clean(rest)] = true
			}
		}
	}
	t.Each(r.link, "Go")
}

type resolver struct {
	t        *syntax.Tree
	mods     []module                     // longest path first
	versions map[string]map[string]string // module folder to requirements
	packages map[string]*goPackage        // by folder
	vendors  map[string]bool              // folders with vendored packages
}

// goPackage is the files of a folder, with what they give to those who import
// it; that is gathered when somebody does.
type goPackage struct {
	files []*model.File
	once  sync.Once
	names map[string][]string // exported name to files; "" lists all but tests

	mu    sync.Mutex
	found map[string]leading // where imports of its files lead: most are written in several
}

// leading is the folder of a package, and whether the import should lead into
// the codebase even when there is none.
type leading struct {
	dir    string
	inside bool
}

func (p *goPackage) offers() map[string][]string {
	p.once.Do(func() {
		n := 0
		for _, f := range p.files {
			n += len(f.Facts.Names)
		}
		p.names = make(map[string][]string, n)
		all := make([]string, 0, len(p.files))
		for _, f := range p.files {
			if strings.HasSuffix(f.Path, "_test.go") {
				continue
			}
			// Nearly every name is in one file: those of a file share one list.
			all = append(all, f.Path)
			alone := all[len(all)-1 : len(all) : len(all)]
			for _, n := range f.Facts.Names {
				if !exported(n) {
					continue
				}
				if there := p.names[n]; len(there) > 0 {
					p.names[n] = append(there, f.Path)
				} else {
					p.names[n] = alone
				}
			}
		}
		if len(all) > 0 {
			p.names[""] = all
		}
	})
	return p.names
}

// defines lists the files of a package that define a name.
func (p *goPackage) defines(name string) (out []string) {
	for _, f := range p.files {
		if _, ok := slices.BinarySearch(f.Facts.Names, name); ok {
			out = append(out, f.Path)
		}
	}
	return out
}

func (r *resolver) link(out *syntax.Out, f *model.File) {
	own := ""
	syntax.Up(model.FolderOf(f.Path), func(d string) bool {
		if _, ok := r.versions[d]; ok {
			own = d
			return true
		}
		return false
	})
	for _, im := range f.Facts.Imports {
		if im.Text == "C" {
			continue
		}
		dir, inside := r.find(own, model.FolderOf(f.Path), im.Text)
		switch {
		case dir != "":
			r.narrow(out, f, im, dir)
		case inside:
			out.Unresolved = append(out.Unresolved, model.Unresolved{
				From: f.Path, Text: im.Text, Line: im.Line, Reason: "no Go files in the folder this import names",
			})
		case im.Text == "unsafe": // part of the language itself
		default:
			out.External = append(out.External, model.External{
				From: f.Path, Package: im.Text, Version: require(r.versions[own], im.Text), Line: im.Line,
			})
		}
	}
	r.inherit(out, f, own)
}

// inherit links the types that a file embeds with the files that define them:
// of its own package, or of one it imports.
func (r *resolver) inherit(out *syntax.Out, f *model.File, own string) {
	for _, u := range f.Facts.Uses {
		here := model.FolderOf(f.Path)
		dir := here
		if u.Module != "" {
			if dir, _ = r.find(own, here, u.Module); dir == "" {
				continue
			}
		}
		for _, to := range r.packages[dir].defines(u.Name) {
			if to != f.Path && (u.Module == "" && r.t.File(to).Facts.Namespace == f.Facts.Namespace || u.Module != "" &&
				!strings.HasSuffix(to, "_test.go")) {
				out.Links = append(out.Links, model.Link{
					From: f.Path, To: to, Kind: u.Kind, Line: u.Line, Text: u.Name, Sure: true,
					Names: []string{u.Name},
				})
			}
		}
	}
}

// find is where an import of a file in the folder from leads; own is the module
// it lies in.
func (r *resolver) find(own, from, imp string) (dir string, inside bool) {
	p := r.packages[from]
	p.mu.Lock()
	defer p.mu.Unlock()
	t, ok := p.found[imp]
	if !ok {
		t.dir, t.inside = r.look(own, from, imp)
		if p.found == nil {
			p.found = map[string]leading{}
		}
		p.found[imp] = t
	}
	return t.dir, t.inside
}

func (r *resolver) look(own, from, imp string) (dir string, inside bool) {
	if strings.HasPrefix(imp, "./") || strings.HasPrefix(imp, "../") {
		if d, ok := syntax.Join(from, imp); ok && r.hasGo(d) {
			return d, true
		}
		return "", true
	}
	// A vendored copy wins over everything, as it does for the go command.
	vendored := ""
	syntax.Up(from, func(d string) bool {
		if r.vendors[d] {
			if v := path.Join(d, "vendor", imp); r.hasGo(v) {
				vendored = v
				return true
			}
		}
		return d == own
	})
	if vendored != "" {
		return vendored, true
	}
	for _, m := range r.mods {
		if m.path == "std" {
			continue
		}
		if rest, ok := strings.CutPrefix(imp, m.path); ok && (rest == "" || rest[0] == '/') {
			d := path.Join(m.dir, rest)
			if r.hasGo(d) {
				return d, true
			}
			inside = true
		}
	}
	// The standard library's own module is named std, but its packages are
	// imported without that name.
	for _, m := range r.mods {
		if m.path == "std" {
			if d := path.Join(m.dir, imp); r.hasGo(d) {
				return d, true
			}
		}
	}
	return "", inside
}

func (r *resolver) hasGo(dir string) bool { return r.packages[dir] != nil }

// narrow links to the files of a package that define the names used.
func (r *resolver) narrow(out *syntax.Out, f *model.File, im model.Import, dir string) {
	names := r.packages[dir].offers()
	type use struct{ path, name string }
	taken := make([]use, 0, len(im.Names))
	for _, n := range im.Names {
		for _, p := range names[n] {
			taken = append(taken, use{p, n})
		}
	}
	slices.SortStableFunc(taken, func(a, b use) int { return strings.Compare(a.path, b.path) })
	sure := true
	if len(taken) == 0 {
		// Imported for its effects, or under a name that can not be told:
		// the file named like the package stands for it.
		sure = false
		files := names[""]
		if len(files) == 0 {
			for _, g := range r.t.Dir(dir) {
				if g.Language == "Go" {
					files = append(files, g.Path)
				}
			}
		}
		pick := files[0]
		for _, p := range files {
			if path.Base(p) == path.Base(dir)+".go" {
				pick = p
			}
		}
		taken = []use{{path: pick}}
	}
	for i := 0; i < len(taken); {
		p, from := taken[i].path, i
		for ; i < len(taken) && taken[i].path == p; i++ {
		}
		if p == f.Path {
			continue
		}
		l := model.Link{From: f.Path, To: p, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: sure}
		if sure {
			l.Names = make([]string, 0, i-from)
			for _, u := range taken[from:i] {
				l.Names = append(l.Names, u.name)
			}
		}
		out.Links = append(out.Links, l)
	}
}

// require finds the version of the module that provides an import.
func require(reqs map[string]string, imp string) *string {
	best := ""
	for m := range reqs {
		if (imp == m || strings.HasPrefix(imp, m+"/")) && len(m) > len(best) {
			best = m
		}
	}
	if best == "" {
		return nil
	}
	v := reqs[best]
	return &v
}
