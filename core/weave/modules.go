package weave

import (
	"path"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/reading"
)

// moduleOf is the innermost module that holds a path.
func moduleOf(modules []string, p string) string {
	best := "."
	for _, m := range modules {
		if m != "." && model.Within(m, p) && len(m) > len(best) {
			best = m
		}
	}
	return best
}

// projectTools are the tools whose project file makes a folder a module.
var projectTools = map[string]bool{
	"npm": true, "go": true, "python": true, "composer": true, "maven": true, "gradle": true, "cargo": true,
	"msbuild": true, "bundler": true, "godot": true, "perl": true,
}

// Modules are the folders with a project file, and where files lie in none, the
// top folders below the source root.
func Modules(s *model.Survey, judged map[string]bool) []model.Module {
	at := map[string]string{}
	for _, f := range s.Files {
		if f.Facts != nil && f.Facts.Project != nil && projectTools[f.Facts.Project.Tool] && f.Skipped == "" && !exampleOf(f.Path) {
			d := model.FolderOf(f.Path)
			if at[d] == "" {
				at[d] = f.Facts.Project.Name
				if at[d] == "" {
					at[d] = path.Base(d)
				}
			}
		}
	}
	paths := make([]string, 0, len(at))
	projects := map[string]bool{}
	for p := range at {
		paths = append(paths, p)
		projects[p] = true
	}
	files := map[string]int{}
	loose := map[string]int{}
	for _, f := range s.Files {
		if !judged[f.Path] || !reading.IsCode(f) {
			continue
		}
		m := moduleOf(paths, f.Path)
		if m == "." && at["."] == "" {
			loose[model.FolderOf(f.Path)]++
			continue
		}
		files[m]++
	}
	// A workspace's own project file at the top holds little besides.
	root := "."
	if len(loose) > 0 {
		root = sourceRoot(loose)
		for d, n := range loose {
			m := d
			switch {
			case !model.Within(root, d) || d == root:
				m = root
			default:
				rest := strings.TrimPrefix(d, root+"/")
				if root == "." {
					rest = d
				}
				first, _, _ := strings.Cut(rest, "/")
				m = path.Join(root, first)
			}
			files[m] += n
			if at[m] == "" {
				at[m] = path.Base(m)
			}
		}
	}
	out := []model.Module{}
	for m, n := range files {
		name := at[m]
		if m == "." {
			name = s.Codebase
		}
		out = append(out, model.Module{Path: m, Name: name, Project: projects[m], Files: n, Cut: model.Cut{Evidence: []model.Evidence{}}})
	}
	sort.Slice(out, func(i, j int) bool { return lessPath(out[i].Path, out[j].Path) })
	if len(out) == 0 {
		out = append(out, model.Module{Path: ".", Name: s.Codebase, Cut: model.Cut{Evidence: []model.Evidence{}}})
	}
	return out
}

// exampleOf reports whether a project file lies among what tests are made of.
func exampleOf(p string) bool {
	for d := model.FolderOf(p); d != "."; d = model.FolderOf(d) {
		if r := Words().Folders[strings.Join(naming.Words(path.Base(d)), " ")]; r == model.RoleTest ||
			strings.HasPrefix(path.Base(d), "_") {
			return true
		}
	}
	return false
}

// sourceRoot is the folder below which a reader first has a choice.
func sourceRoot(dirs map[string]int) string {
	root := "."
	for {
		next, several := "", false
		for d := range dirs {
			if !model.Within(root, d) {
				continue
			}
			if d == root {
				return root
			}
			rest := d
			if root != "." {
				rest = strings.TrimPrefix(d, root+"/")
			}
			first, _, _ := strings.Cut(rest, "/")
			if next != "" && next != first {
				several = true
			}
			next = first
		}
		if several || next == "" {
			return root
		}
		root = path.Join(root, next)
	}
}
