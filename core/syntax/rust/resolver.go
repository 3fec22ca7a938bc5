package rust

import (
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// module is one place in the tree of modules that a crate's root file starts:
// a file, or a part of one.
type module struct {
	crate    *crate
	file     *model.File
	path     string // below the crate, "" for its root
	children map[string]*module
	parent   *module
	named    bool // its file was named by #[path], and so looks for others beside itself
}

// crate is what is compiled from one root file.
type crate struct {
	root   *module
	name   string
	folder string // of its Cargo.toml
	lib    bool
}

type index struct {
	t      *syntax.Tree
	libs   map[string]*crate        // by name, as code writes it
	byFile map[string][]*module     // the places a file takes, mostly one
	deps   map[string]*model.File   // folder to Cargo.toml
	mains  map[string][]*model.File // files main.rs by the folder that holds theirs
}

// resolve follows mod declarations from each crate's root and looks the paths
// of use statements up in the modules found, as the compiler does.
func resolve(t *syntax.Tree) {
	x := &index{
		t: t, libs: map[string]*crate{}, byFile: map[string][]*module{}, deps: map[string]*model.File{},
		mains: map[string][]*model.File{},
	}
	var roots []*crate
	for _, f := range t.Files {
		if path.Base(f.Path) == "main.rs" {
			up := path.Dir(path.Dir(f.Path))
			x.mains[up] = append(x.mains[up], f)
		}
	}
	for _, f := range t.Files {
		if path.Base(f.Path) == "Cargo.toml" && f.Facts != nil && f.Facts.Project != nil {
			x.deps[path.Dir(f.Path)] = f
			roots = append(roots, x.crates(f)...)
		}
	}
	for _, c := range roots {
		if c.lib && x.libs[c.name] == nil {
			x.libs[c.name] = c
		}
		x.grow(c.root, 0)
	}
	// A file that no crate reaches is a root of its own, first where its name says so.
	x.unreached("lib.rs", "main.rs")
	x.unreached()
	t.Each(func(out *syntax.Out, f *model.File) { x.link(out, f) }, "Rust")
}

// unreached makes a crate of each file that none has reached so far; of those
// called by one of the names where names are given.
func (x *index) unreached(names ...string) {
	for _, f := range x.t.Files {
		base := path.Base(f.Path)
		if f.Language != "Rust" || f.Facts == nil || len(x.byFile[f.Path]) > 0 || len(names) > 0 && !slices.Contains(names, base) {
			continue
		}
		c := &crate{folder: path.Dir(f.Path), lib: len(names) > 0 && base == "lib.rs"}
		c.root = &module{crate: c, file: f}
		x.grow(c.root, 0)
	}
}

// crates lists what a Cargo.toml has compiled: the files it names and those
// found where they usually lie.
func (x *index) crates(f *model.File) []*crate {
	p := f.Facts.Project
	dir := path.Dir(f.Path)
	var out []*crate
	seen := map[string]bool{}
	add := func(rel string, lib bool, name string) {
		at, ok := syntax.Join(dir, rel)
		file := x.t.File(at)
		if !ok || file == nil || file.Facts == nil || seen[at] {
			return
		}
		seen[at] = true
		c := &crate{name: strings.ReplaceAll(name, "-", "_"), folder: dir, lib: lib}
		c.root = &module{crate: c, file: file}
		out = append(out, c)
	}
	name := p.Name
	if n := p.Exports["lib"]; n != "" {
		name = n
	}
	if len(p.Roots) > 0 {
		add(p.Roots[0], true, name)
	}
	add("src/lib.rs", true, name)
	for _, e := range p.Entries {
		add(e, false, name)
	}
	for _, e := range []string{"src/main.rs", "build.rs"} {
		add(e, false, name)
	}
	for _, d := range []string{"src/bin", "tests", "examples", "benches"} {
		at, _ := syntax.Join(dir, d)
		for _, file := range x.t.Dir(at) {
			if path.Dir(file.Path) == at && strings.HasSuffix(file.Path, ".rs") {
				add(d+"/"+path.Base(file.Path), false, name)
			}
		}
		// A folder with a main.rs in it is a program as well.
		for _, file := range x.mains[at] {
			add(d+strings.TrimPrefix(file.Path, at), false, name)
		}
	}
	return out
}

// maxModules bounds how deep modules lie in modules.
const maxModules = 64

// grow follows the mod declarations of a module's file.
func (x *index) grow(m *module, depth int) {
	if depth > maxModules {
		return
	}
	x.byFile[m.file.Path] = append(x.byFile[m.file.Path], m)
	for _, d := range m.file.Facts.Definitions {
		if d.Kind == model.DefNamespace {
			m.place(strings.Split(d.Qualified(), "."), m.file)
		}
	}
	for _, im := range m.file.Facts.Imports {
		name, to := x.declared(m, im)
		if to == nil || depth > 0 && x.within(m, to) {
			continue
		}
		parts := strings.Split(name, "::")
		c := m.place(parts, to)
		c.file, c.named = to, im.Alias == "path"
		x.grow(c, depth+1)
	}
}

// within reports whether a file is one of the modules around m: a ring.
func (x *index) within(m *module, f *model.File) bool {
	for ; m != nil; m = m.parent {
		if m.file == f {
			return true
		}
	}
	return false
}

func (m *module) place(names []string, f *model.File) *module {
	for _, n := range names {
		c := m.children[n]
		if c == nil {
			if m.children == nil {
				m.children = map[string]*module{}
			}
			c = &module{crate: m.crate, file: f, parent: m, path: n}
			if m.path != "" {
				c.path = m.path + "::" + n
			}
			m.children[n] = c
		}
		m = c
	}
	return m
}

// declared is the file that a mod declaration means, and the module's path
// below m; nil when im is none or the file is missing.
func (x *index) declared(m *module, im model.Import) (string, *model.File) {
	dir := path.Dir(m.file.Path)
	stem := strings.TrimSuffix(path.Base(m.file.Path), ".rs")
	if m.parent != nil && stem != "mod" && !m.named {
		dir = path.Join(dir, stem)
	}
	switch im.Alias {
	case "path":
		if len(im.Names) == 0 {
			return "", nil
		}
		at, ok := syntax.Join(path.Dir(m.file.Path), im.Text)
		if f := x.t.File(at); ok && f != nil && f.Facts != nil {
			return im.Names[0], f
		}
	case "mod":
		rel := strings.ReplaceAll(im.Text, "::", "/")
		for _, c := range []string{rel + ".rs", rel + "/mod.rs"} {
			at, ok := syntax.Join(dir, c)
			if f := x.t.File(at); ok && f != nil && f.Facts != nil {
				return im.Text, f
			}
		}
	}
	return "", nil
}

func (x *index) link(out *syntax.Out, f *model.File) {
	places := x.byFile[f.Path]
	if len(places) == 0 {
		return
	}
	here := places[0]
	for _, im := range f.Facts.Imports {
		switch im.Alias {
		case "mod", "path":
			if _, to := x.declared(here, im); to != nil {
				out.Links = append(out.Links, model.Link{
					From: f.Path, To: to.Path, Kind: im.Kind, Line: im.Line, Text: "mod " + im.Text, Sure: true,
				})
			} else {
				out.Unresolved = append(out.Unresolved, model.Unresolved{
					From: f.Path, Text: "mod " + im.Text, Line: im.Line,
					Reason: "no file of this module where the compiler looks for it",
				})
			}
		case "file":
			if at, ok := syntax.Join(path.Dir(f.Path), im.Text); ok && x.t.File(at) != nil {
				out.Links = append(out.Links, model.Link{From: f.Path, To: at, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: true})
			} else {
				out.Unresolved = append(
					out.Unresolved,
					model.Unresolved{From: f.Path, Text: im.Text, Line: im.Line, Reason: "no such file"},
				)
			}
		default:
			x.use(out, here, im)
		}
	}
	x.bases(out, here)
}

// bases links the types of a file with the traits it gives them.
func (x *index) bases(out *syntax.Out, m *module) {
	for _, d := range m.file.Facts.Definitions {
		for _, b := range d.Bases {
			simple := b[strings.LastIndex(b, ":")+1:]
			for _, im := range m.file.Facts.Imports {
				if !strings.HasSuffix(im.Text, "::"+simple) {
					continue
				}
				if to, _, how := x.find(m, im); how == found && to.file != m.file && defines(to.file, simple) {
					out.Links = append(out.Links, model.Link{
						From: m.file.Path, To: to.file.Path, Kind: model.LinkInheritance, Line: d.Line, Text: b,
						Sure: true,
					})
				}
				break
			}
		}
	}
}

func defines(f *model.File, name string) bool {
	for i := range f.Facts.Definitions {
		if d := &f.Facts.Definitions[i]; d.Name == name && d.Kind != model.DefMethod && d.Kind != model.DefProperty {
			return true
		}
	}
	return false
}

// What came of looking a path up.
const (
	found = iota
	foreign
	missing
)

func (x *index) use(out *syntax.Out, here *module, im model.Import) {
	to, rest, how := x.find(here, im)
	switch how {
	case found:
		if to.file == here.file {
			return
		}
		out.Links = append(out.Links, model.Link{
			From: here.file.Path, To: to.file.Path, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: true,
			Names: im.Names,
		})
		// A name that the module only passes on lies in another file.
		if len(rest) == 1 && !defines(to.file, rest[0]) {
			if real := x.passedOn(to, rest[0], 0); real != nil && real.file != here.file && real.file != to.file {
				out.Links = append(out.Links, model.Link{
					From: here.file.Path, To: real.file.Path, Kind: model.LinkNameViaIndex, Line: im.Line,
					Text: im.Text, Sure: true, Names: im.Names,
				})
			}
		}
	case foreign:
		head, _, _ := strings.Cut(strings.TrimPrefix(im.Text, "::"), "::")
		out.External = append(out.External, model.External{
			From: here.file.Path, Package: head, Version: x.version(here, head), Line: im.Line,
		})
	case missing:
		if im.Alias != "here" {
			out.Unresolved = append(out.Unresolved, model.Unresolved{
				From: here.file.Path, Text: im.Text, Line: im.Line, Reason: "no module of this name below the path",
			})
		}
	}
}

// passedOn follows the public use statements of a module to the one that
// defines the name.
func (x *index) passedOn(m *module, name string, depth int) *module {
	if depth > 8 {
		return nil
	}
	for _, im := range m.file.Facts.Imports {
		if im.Kind != model.LinkReExport || len(im.Names) == 0 || im.Names[0] != name && im.Names[0] != "*" {
			continue
		}
		to, rest, how := x.find(m, im)
		if how != found || to == m {
			continue
		}
		want := name
		if len(rest) == 1 && im.Names[0] != "*" {
			want = rest[0]
		}
		if defines(to.file, want) || len(rest) == 0 && im.Names[0] != "*" {
			return to
		}
		if deeper := x.passedOn(to, want, depth+1); deeper != nil {
			return deeper
		}
	}
	return nil
}

func (x *index) version(m *module, name string) *string {
	var v *string
	syntax.Up(path.Dir(m.file.Path), func(d string) bool {
		f := x.deps[d]
		if f == nil {
			return false
		}
		for dep, version := range f.Facts.Project.Dependencies {
			if strings.ReplaceAll(dep, "-", "_") == name && version != "" && version != "*" {
				v = &version
				return true
			}
		}
		return false
	})
	return v
}

// find looks the path of an import up from the module it stands in. It returns
// the deepest module on the path and the names that are left.
func (x *index) find(here *module, im model.Import) (*module, []string, int) {
	at := here
	switch im.Alias {
	case "", "mod", "path", "file", "crate", "here":
	default: // written in a module within the file
		for _, n := range strings.Split(im.Alias, "::") {
			if c := at.children[n]; c != nil {
				at = c
			}
		}
	}
	at, parts, how := x.first(at, im.Text)
	if how != found {
		return nil, nil, how
	}
	for len(parts) > 0 {
		c := at.children[parts[0]]
		if c == nil {
			break
		}
		at, parts = c, parts[1:]
	}
	return at, parts, found
}

// first is the module that the first names of a path lead to, and the names
// behind them.
func (x *index) first(at *module, text string) (*module, []string, int) {
	outside := strings.HasPrefix(text, "::")
	parts := strings.Split(strings.TrimPrefix(text, "::"), "::")
	switch parts[0] {
	case "crate", "$crate":
		return at.crate.root, parts[1:], found
	case "self":
		return at, parts[1:], found
	case "super":
		for len(parts) > 0 && parts[0] == "super" {
			if at.parent == nil {
				return nil, nil, missing
			}
			at = at.parent
			parts = parts[1:]
		}
		return at, parts, found
	}
	name, lib := parts[0], x.libs[parts[0]]
	switch {
	case !outside && at.children[name] != nil:
		return at, parts, found
	case lib != nil:
		return lib.root, parts[1:], found
	case !outside && (hasName(at, name) || defines(at.file, name)):
		return at, parts, found // a name that this module took in itself
	case !outside && at.crate.root.children[name] != nil:
		return at.crate.root, parts, found // as the first edition looked paths up
	}
	return nil, nil, foreign
}

// hasName reports whether a use statement of the module takes the name in.
func hasName(m *module, name string) bool {
	for _, im := range m.file.Facts.Imports {
		for _, n := range im.Names {
			if n == name {
				return true
			}
		}
	}
	return false
}
