package python

import (
	"maps"
	"path"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

type resolver struct {
	t     *syntax.Tree
	roots []string        // source roots, most specific first
	holds map[string]bool // folders with Python in them, at any depth
	cache map[string][]string
	// Where names come from, by file, module and name.
	origins map[string]string
	// self is what the codebase calls itself where its top folder is a package, whose
	// own name lies outside; "" where it is none.
	self string
}

// resolve links imports the way Python's own import system does, over the
// source roots that the tree shows.
func resolve(t *syntax.Tree) {
	r := &resolver{t: t, holds: map[string]bool{}, cache: map[string][]string{}, origins: map[string]string{}}
	r.findRoots()
	r.findSelf()
	versions := map[string]string{}
	for _, f := range t.Files {
		if isProject(f) {
			for k, v := range f.Facts.Project.Dependencies {
				versions[norm(k)] = v
			}
		}
	}
	var out syntax.Out
	for _, f := range t.Files {
		if f.Language != "Python" || f.Facts == nil {
			continue
		}
		for _, im := range f.Facts.Imports {
			r.link(&out, f, im, versions)
		}
		for _, u := range f.Facts.Uses {
			if to := r.origin(f, u.Module, u.Name, 0); to != "" && to != f.Path {
				out.Links = append(out.Links, model.Link{
					From: f.Path, To: to, Kind: u.Kind, Line: u.Line, Text: u.Name, Sure: true, Names: []string{u.Name},
				})
			}
		}
	}
	t.Add(&out)
}

func isProject(f *model.File) bool {
	return f.Facts != nil && f.Facts.Project != nil && f.Facts.Project.Tool == "python"
}

// findRoots finds the folders that imports are looked up from: the codebase
// itself, "src" and "lib", those of project files, and each folder above a
// package that is itself no package.
func (r *resolver) findRoots() {
	roots := map[string]bool{".": true}
	for _, f := range r.t.Files {
		d := path.Dir(f.Path)
		if f.Language == "Python" {
			for at := d; !r.holds[at]; at = path.Dir(at) {
				r.holds[at] = true
				if path.Base(at) == "src" {
					roots[at] = true
				}
			}
			if path.Base(d) == "lib" {
				roots[d] = true
			}
		}
		if isProject(f) {
			roots[d] = true
			for _, x := range f.Facts.Project.Roots {
				roots[path.Join(d, x)] = true
			}
		}
		if path.Base(f.Path) == "__init__.py" {
			if top := r.topPackage(d); top != "." {
				roots[path.Dir(top)] = true
			}
		}
	}
	for d := range roots {
		r.roots = append(r.roots, d)
	}
	// From the outermost inwards, the codebase itself first.
	depth := func(d string) int {
		if d == "." {
			return -1
		}
		return strings.Count(d, "/")
	}
	sort.Slice(r.roots, func(i, j int) bool {
		if a, b := depth(r.roots[i]), depth(r.roots[j]); a != b {
			return a < b
		}
		return r.roots[i] < r.roots[j]
	})
}

// findSelf finds what a package that is the codebase itself is called: the name by
// which most imports lead to modules that lie at the top and that nothing else holds.
func (r *resolver) findSelf() {
	if r.t.File("__init__.py") == nil {
		return
	}
	count := map[string]int{}
	for _, f := range r.t.Files {
		if f.Language != "Python" || f.Facts == nil {
			continue
		}
		for _, im := range f.Facts.Imports {
			if top := r.selfIn(f, im.Text); top != "" {
				count[top]++
			}
		}
	}
	for _, top := range slices.Sorted(maps.Keys(count)) {
		if count[top] >= 2 && count[top] > count[r.self] {
			r.self = top
		}
	}
}

// selfIn is the name before a module that lies at the top, where nothing in the
// codebase is called so that could hold it; "" for any other import.
func (r *resolver) selfIn(f *model.File, text string) string {
	top, rest, _ := strings.Cut(text, ".")
	next, _, _ := strings.Cut(rest, ".")
	if top == "" || next == "" || r.module(next) == "" && !r.namespace(next) {
		return ""
	}
	for _, root := range r.candidates(path.Dir(f.Path), top) {
		if root != "." || r.namespace(top) {
			return ""
		}
		// A module of the package's own name beside the others: nothing lies below a module.
	}
	return top
}

// topPackage is the outermost package around the package in the folder d.
func (r *resolver) topPackage(d string) string {
	for d != "." && r.t.File(path.Join(path.Dir(d), "__init__.py")) != nil {
		d = path.Dir(d)
	}
	return d
}

// maxPassing bounds over how many modules a name is followed.
const maxPassing = 8

// origin is the file that defines a name which f takes from a module, over
// modules that only pass it on; "" when none is found.
func (r *resolver) origin(f *model.File, module, name string, depth int) string {
	var found syntax.Out
	r.link(&found, f, model.Import{Text: module, Names: []string{name}, Kind: model.LinkImport}, nil)
	for _, l := range found.Links {
		to := r.t.File(l.To)
		if r.defines(l.To, name) {
			return l.To
		}
		if to == nil || to.Facts == nil || depth == maxPassing {
			continue
		}
		for _, im := range to.Facts.Imports {
			if im.Alias != "*" && !slices.Contains(im.Names, name) {
				continue
			}
			key := to.Path + "\x00" + im.Text + "\x00" + name
			at, known := r.origins[key]
			if !known {
				r.origins[key] = "" // a ring ends here
				at = r.origin(to, im.Text, name, depth+1)
				r.origins[key] = at
			}
			if at != "" {
				return at
			}
		}
	}
	return ""
}

func norm(p string) string { return strings.ToLower(strings.ReplaceAll(p, "_", "-")) }

// link follows one import: relative ones from the folder they stand in, others
// under the roots, one after the other.
func (r *resolver) link(out *syntax.Out, f *model.File, im model.Import, versions map[string]string) {
	add := func(to string, names ...string) {
		if to != f.Path {
			out.Links = append(out.Links, model.Link{
				From: f.Path, To: to, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: true, Names: names,
			})
		}
	}
	fail := func(reason string) {
		out.Unresolved = append(out.Unresolved, model.Unresolved{From: f.Path, Text: im.Text, Line: im.Line, Reason: reason})
	}
	if strings.HasPrefix(im.Text, ".") {
		if d, ok := relative(path.Dir(f.Path), im.Text); !ok {
			fail("climbs out of the codebase")
		} else if !r.from(d, im.Names, add) {
			fail("no such module")
		}
		return
	}
	p := strings.ReplaceAll(im.Text, ".", "/")
	top, below, _ := strings.Cut(p, "/")
	if top == r.self && top != "" && r.under(".", below, im, add) {
		return
	}
	for _, root := range r.candidates(path.Dir(f.Path), top) {
		if r.under(root, p, im, add) {
			return
		}
		// "import os.path": what hangs on a module is set by its code.
		if up := path.Dir(p); up != "." && r.t.File(path.Join(root, up)+".py") != nil {
			l := model.Link{From: f.Path, To: path.Join(root, up) + ".py", Kind: im.Kind, Line: im.Line, Text: im.Text}
			if !isWhole(im) {
				l.Names = im.Names
			}
			out.Links = append(out.Links, l)
			return
		}
	}
	if r.inside(path.Dir(f.Path), top) {
		fail("no such module in the package " + strings.ReplaceAll(top, "/", "."))
		return
	}
	ext := model.External{From: f.Path, Package: top, Line: im.Line}
	if v, ok := versions[norm(top)]; ok && v != "" {
		ext.Version = &v
	}
	out.External = append(out.External, ext)
}

// isWhole reports whether an import takes the module as a whole: "import a.b",
// or "from a import *".
func isWhole(im model.Import) bool { return len(im.Names) == 1 && im.Names[0] == "*" }

// relative is the folder that leading dots lead to from d; false above the root.
func relative(d, text string) (string, bool) {
	rest := strings.TrimLeft(text, ".")
	for range len(text) - len(rest) - 1 {
		if d == "." {
			return "", false
		}
		d = path.Dir(d)
	}
	if rest != "" {
		d = path.Join(d, strings.ReplaceAll(rest, ".", "/"))
	}
	return d, true
}

// under links an import that lies below a root; it reports whether one does.
func (r *resolver) under(root, p string, im model.Import, add func(string, ...string)) bool {
	d := path.Join(root, p)
	if !isWhole(im) {
		return r.from(d, im.Names, add)
	}
	if to := r.module(d); to != "" {
		add(to, "*")
		return true
	}
	return r.t.HasDir(d) // a namespace package holds nothing itself
}

// candidates are the roots under which a top-level name may lie: the roots
// above the importing file first, nearest first, then the others.
func (r *resolver) candidates(from, top string) []string {
	if c, ok := r.cache[from+"\x00"+top]; ok {
		return c
	}
	var near, far []string
	for _, root := range r.roots {
		if r.module(path.Join(root, top)) == "" && !r.namespace(path.Join(root, top)) {
			continue
		}
		if model.Within(root, from) {
			near = append([]string{root}, near...)
		} else {
			far = append(far, root)
		}
	}
	out := append(near, far...)
	// A script finds the modules beside itself.
	if r.t.File(path.Join(from, "__init__.py")) == nil && (r.module(path.Join(from, top)) != "" || r.namespace(path.Join(from, top))) {
		out = append([]string{from}, out...)
	}
	r.cache[from+"\x00"+top] = out
	return out
}

// inside reports whether a name that did not resolve should have: its top
// package is a real one of the tree.
func (r *resolver) inside(from, top string) bool {
	for _, root := range r.roots {
		if r.module(path.Join(root, top)) != "" && (model.Within(root, from) || r.t.File(path.Join(root, top, "__init__.py")) != nil) {
			return true
		}
	}
	return false
}

// namespace reports whether d holds Python without being a package itself.
func (r *resolver) namespace(d string) bool { return r.holds[d] }

// module is the file of the module at d: the package's __init__ or d.py.
func (r *resolver) module(d string) string {
	for _, p := range [...]string{path.Join(d, "__init__.py"), d + ".py", d + ".pyi", path.Join(d, "__init__.pyi")} {
		if r.t.File(p) != nil {
			return p
		}
	}
	return ""
}

// from links "from d import names": a name that is a module of the package d
// leads there, the others to the package itself.
func (r *resolver) from(d string, names []string, add func(string, ...string)) bool {
	var own []string
	found := false
	for _, n := range names {
		if n != "*" {
			init := r.module(d)
			isPackage := init == "" || strings.HasSuffix(init, "/__init__.py") || init == "__init__.py"
			if isPackage {
				if to := r.module(path.Join(d, n)); to != "" && !(init != "" && r.defines(init, n)) {
					add(to, n)
					found = true
					continue
				}
			}
		}
		own = append(own, n)
	}
	if len(own) > 0 {
		if to := r.module(d); to != "" {
			add(to, own...)
			return true
		}
	}
	return found
}

// defines reports whether a package's __init__ defines the name itself, which
// hides a module of the same name.
func (r *resolver) defines(init, name string) bool {
	f := r.t.File(init)
	if f == nil || f.Facts == nil {
		return false
	}
	for _, d := range f.Facts.Definitions {
		if d.Parent == "" && d.Name == name {
			return true
		}
	}
	return false
}
