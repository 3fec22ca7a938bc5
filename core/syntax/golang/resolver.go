package golang

import (
	"path"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

type module struct{ path, dir string }

// resolve finds for each import the folder that holds the package, as the Go
// command does, and in it the files whose names are used.
func resolve(t *syntax.Tree) {
	var out syntax.Out
	defer func() { t.Add(&out) }()
	var mods []module
	versions := map[string]map[string]string{} // module folder to requirements
	for _, f := range t.Files {
		if path.Base(f.Path) == "go.mod" && f.Facts != nil && f.Facts.Project != nil && f.Facts.Project.Name != "" {
			d := path.Dir(f.Path)
			mods = append(mods, module{f.Facts.Project.Name, d})
			versions[d] = f.Facts.Project.Dependencies
		}
	}
	sort.Slice(mods, func(i, j int) bool { return len(mods[i].path) > len(mods[j].path) })
	cache := map[string]map[string][]string{} // package folder to name to files
	for _, f := range t.Files {
		if f.Language != "Go" || f.Facts == nil {
			continue
		}
		own := ""
		syntax.Up(path.Dir(f.Path), func(d string) bool {
			if _, ok := versions[d]; ok {
				own = d
				return true
			}
			return false
		})
		for _, im := range f.Facts.Imports {
			if im.Text == "C" || im.Text == "unsafe" {
				continue
			}
			dir, inside := find(t, mods, own, path.Dir(f.Path), im.Text)
			switch {
			case dir != "":
				narrow(t, &out, cache, f, im, dir)
			case inside:
				out.Unresolved = append(out.Unresolved, model.Unresolved{From: f.Path, Text: im.Text, Line: im.Line, Reason: "no Go files in the folder this import names"})
			default:
				out.External = append(out.External, model.External{From: f.Path, Package: im.Text, Version: require(versions[own], im.Text), Line: im.Line})
			}
		}
	}
}

// find returns the folder of a package, and whether the import should lead
// into the codebase even when there is none.
func find(t *syntax.Tree, mods []module, own, from, imp string) (dir string, inside bool) {
	if strings.HasPrefix(imp, "./") || strings.HasPrefix(imp, "../") {
		if d, ok := syntax.Join(from, imp); ok && hasGo(t, d) {
			return d, true
		}
		return "", true
	}
	// A vendored copy wins over everything, as it does for the go command.
	vendored := ""
	syntax.Up(from, func(d string) bool {
		if v := path.Join(d, "vendor", imp); hasGo(t, v) {
			vendored = v
			return true
		}
		return d == own
	})
	if vendored != "" {
		return vendored, true
	}
	for _, m := range mods {
		if m.path == "std" {
			continue
		}
		if rest, ok := strings.CutPrefix(imp+"/", m.path+"/"); ok {
			d := path.Join(m.dir, rest)
			if hasGo(t, d) {
				return d, true
			}
			inside = true
		}
	}
	// The standard library's own module is named std, but its packages are
	// imported without that name.
	for _, m := range mods {
		if m.path == "std" {
			if d := path.Join(m.dir, imp); hasGo(t, d) {
				return d, true
			}
		}
	}
	return "", inside
}

func hasGo(t *syntax.Tree, dir string) bool {
	for _, f := range t.Dir(dir) {
		if f.Language == "Go" {
			return true
		}
	}
	return false
}

// narrow links to the files of a package that define the names used.
func narrow(t *syntax.Tree, out *syntax.Out, cache map[string]map[string][]string, f *model.File, im model.Import, dir string) {
	names := cache[dir]
	if names == nil {
		names = map[string][]string{}
		for _, g := range t.Dir(dir) {
			if g.Language != "Go" || g.Facts == nil || strings.HasSuffix(g.Path, "_test.go") {
				continue
			}
			for _, n := range g.Facts.Names {
				names[n] = append(names[n], g.Path)
			}
			names[""] = append(names[""], g.Path)
		}
		cache[dir] = names
	}
	taken := map[string][]string{}
	for _, n := range im.Names {
		for _, p := range names[n] {
			taken[p] = append(taken[p], n)
		}
	}
	sure := true
	if len(taken) == 0 {
		// Imported for its effects, or under a name that can not be told:
		// the file named like the package stands for it.
		sure = false
		files := names[""]
		if len(files) == 0 {
			for _, g := range t.Dir(dir) {
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
		taken[pick] = nil
	}
	for p, ns := range taken {
		if p == f.Path {
			continue
		}
		out.Links = append(out.Links, model.Link{From: f.Path, To: p, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: sure, Names: ns})
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
