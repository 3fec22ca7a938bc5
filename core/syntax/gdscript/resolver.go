package gdscript

import (
	"path"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// resolve follows paths from the folder that holds the project file, and names
// of classes and of what is loaded for all.
func resolve(t *syntax.Tree) {
	x := &index{t: t, roots: map[string]bool{}, classes: map[string][]string{}, loaded: map[string]string{}}
	for _, f := range t.Files {
		if f.Facts == nil {
			continue
		}
		switch f.Language {
		case "Godot project":
			x.roots[path.Dir(f.Path)] = true
		case "GDScript":
			for _, d := range f.Facts.Definitions {
				if d.Kind == model.DefClass && d.Parent == "" {
					x.classes[d.Name] = append(x.classes[d.Name], f.Path)
				}
			}
		}
	}
	for _, f := range t.Files {
		if f.Language != "Godot project" || f.Facts == nil {
			continue
		}
		for _, im := range f.Facts.Imports {
			if to := find(t, x.roots, f, im.Text); im.Alias != "" && to != "" {
				x.loaded[path.Dir(f.Path)+"\n"+im.Alias] = to
			}
		}
	}
	scenes := scenesOf(t, x.roots)
	t.Each(func(out *syntax.Out, f *model.File) {
		scenes.link(out, f)
		x.imports(out, f)
		x.names(out, f)
	}, "GDScript", "Godot scene", "Godot resource", "Godot project")
}

// index is what is looked up from all files of a tree.
type index struct {
	t       *syntax.Tree
	roots   map[string]bool     // folders with a project file
	classes map[string][]string // name to files
	loaded  map[string]string   // folder of the project and name to file
}

// to links f with another file.
func to(out *syntax.Out, f *model.File, target string, kind model.LinkKind, line int, text string) {
	if target != "" && target != f.Path {
		out.Links = append(out.Links, model.Link{From: f.Path, To: target, Kind: kind, Line: line, Text: text, Sure: true})
	}
}

// imports links what a file takes in by path, and the class it builds upon.
func (x *index) imports(out *syntax.Out, f *model.File) {
	for _, im := range f.Facts.Imports {
		if im.Alias == "class" {
			to(out, f, one(x.roots, x.classes[im.Text], rootOf(x.roots, f.Path)), im.Kind, im.Line, im.Text)
			continue
		}
		target := find(x.t, x.roots, f, im.Text)
		if target == "" && !strings.HasPrefix(im.Text, "uid://") {
			out.Unresolved = append(out.Unresolved, model.Unresolved{
				From: f.Path, Text: im.Text, Line: im.Line, Reason: "no such file below the project",
			})
		}
		to(out, f, target, im.Kind, im.Line, im.Text)
		if im.Alias == "extends" {
			to(out, f, target, model.LinkInheritance, im.Line, im.Text)
		}
	}
}

// names links what a file speaks of: what is loaded for all, and classes.
func (x *index) names(out *syntax.Out, f *model.File) {
	root := rootOf(x.roots, f.Path)
	own := map[string]bool{}
	for _, d := range f.Facts.Definitions {
		own[d.Name] = true
	}
	for _, m := range f.Facts.Mentions {
		target := x.loaded[root+"\n"+m.Name]
		if target == "" && !own[m.Name] {
			target = one(x.roots, x.classes[m.Name], root)
		}
		to(out, f, target, model.LinkImport, m.Line, m.Name)
	}
	for _, d := range f.Facts.Definitions {
		for _, b := range d.Bases {
			to(out, f, one(x.roots, x.classes[b], root), model.LinkInheritance, d.Line, b)
		}
	}
}

// stage is a scene in which a script stands at a node.
type stage struct{ scene, node string }

// scenes are what a tree's scenes hold: where each script stands, and which
// scenes are put in at which node.
type scenes struct {
	of     map[string][]stage
	put    map[string]map[string]string // scene to node path to the scene put in there
	unique map[string]map[string]string // scene to the name of a node to its path
}

func scenesOf(t *syntax.Tree, roots map[string]bool) *scenes {
	x := &scenes{of: map[string][]stage{}, put: map[string]map[string]string{}, unique: map[string]map[string]string{}}
	for _, f := range t.Files {
		if f.Language != "Godot scene" || f.Facts == nil {
			continue
		}
		x.put[f.Path], x.unique[f.Path] = map[string]string{}, map[string]string{}
		for _, m := range f.Facts.Selectors {
			x.unique[f.Path][path.Base(m.Name)] = m.Name
		}
		for _, u := range f.Facts.Uses {
			to := find(t, roots, f, u.Module)
			switch {
			case to == "":
			case u.Kind == model.LinkConfiguration:
				x.of[to] = append(x.of[to], stage{f.Path, u.Name})
			default:
				x.put[f.Path][u.Name] = to
			}
		}
	}
	return x
}

// link ties a script to the scenes that stand at the nodes it asks for. It is
// sure where the script stands in one scene alone.
func (x *scenes) link(out *syntax.Out, f *model.File) {
	for _, m := range f.Facts.Templates {
		seen := map[string]bool{}
		for _, at := range x.of[f.Path] {
			node := path.Join(at.node, m.Name)
			if name, ok := strings.CutPrefix(m.Name, "%"); ok {
				node = x.unique[at.scene][name]
			}
			if to := x.put[at.scene][node]; to != "" && !seen[to] {
				seen[to] = true
				out.Links = append(out.Links, model.Link{
					From: f.Path, To: to, Kind: model.LinkRendering, Line: m.Line, Text: m.Name,
					Sure: len(x.of[f.Path]) == 1,
				})
			}
		}
	}
}

// one is the file of the same project that has a class, "" where none or
// several have it.
func one(roots map[string]bool, files []string, root string) string {
	found := ""
	for _, p := range files {
		if rootOf(roots, p) == root {
			if found != "" {
				return ""
			}
			found = p
		}
	}
	return found
}

func rootOf(roots map[string]bool, p string) string {
	root := "."
	syntax.Up(path.Dir(p), func(d string) bool {
		if roots[d] {
			root = d
		}
		return roots[d]
	})
	return root
}

func find(t *syntax.Tree, roots map[string]bool, f *model.File, text string) string {
	base := path.Dir(f.Path)
	rel, absolute := strings.CutPrefix(text, "res://")
	if absolute {
		base = rootOf(roots, f.Path)
	}
	if p, ok := syntax.Join(base, rel); ok && t.File(p) != nil {
		return p
	}
	return ""
}
