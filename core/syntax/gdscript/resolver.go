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
	roots := map[string]bool{}
	classes := map[string][]string{}
	loaded := map[string]string{} // folder of the project and name to file
	for _, f := range t.Files {
		if f.Facts == nil {
			continue
		}
		switch f.Language {
		case "Godot project":
			roots[path.Dir(f.Path)] = true
		case "GDScript":
			for _, d := range f.Facts.Definitions {
				if d.Kind == model.DefClass && d.Parent == "" {
					classes[d.Name] = append(classes[d.Name], f.Path)
				}
			}
		}
	}
	for _, f := range t.Files {
		if f.Language == "Godot project" && f.Facts != nil {
			for _, im := range f.Facts.Imports {
				if to := find(t, roots, f, im.Text); im.Alias != "" && to != "" {
					loaded[path.Dir(f.Path)+"\n"+im.Alias] = to
				}
			}
		}
	}
	scenes := scenesOf(t, roots)
	t.Each(func(out *syntax.Out, f *model.File) {
		scenes.link(out, f)
		for _, im := range f.Facts.Imports {
			to := find(t, roots, f, im.Text)
			switch {
			case im.Alias == "class":
				if to := one(roots, classes[im.Text], rootOf(roots, f.Path)); to != "" && to != f.Path {
					out.Links = append(out.Links, model.Link{From: f.Path, To: to, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: true})
				}
			case to == "":
				if !strings.HasPrefix(im.Text, "uid://") {
					out.Unresolved = append(out.Unresolved, model.Unresolved{From: f.Path, Text: im.Text, Line: im.Line, Reason: "no such file below the project"})
				}
			case to != f.Path:
				out.Links = append(out.Links, model.Link{From: f.Path, To: to, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: true})
				if im.Alias == "extends" {
					out.Links = append(out.Links, model.Link{From: f.Path, To: to, Kind: model.LinkInheritance, Line: im.Line, Text: im.Text, Sure: true})
				}
			}
		}
		root := rootOf(roots, f.Path)
		own := map[string]bool{}
		for _, d := range f.Facts.Definitions {
			own[d.Name] = true
		}
		for _, m := range f.Facts.Mentions {
			to := loaded[root+"\n"+m.Name]
			if to == "" && !own[m.Name] {
				to = one(roots, classes[m.Name], root)
			}
			if to != "" && to != f.Path {
				out.Links = append(out.Links, model.Link{From: f.Path, To: to, Kind: model.LinkImport, Line: m.Line, Text: m.Name, Sure: true})
			}
		}
		for _, d := range f.Facts.Definitions {
			for _, b := range d.Bases {
				if to := one(roots, classes[b], root); to != "" && to != f.Path {
					out.Links = append(out.Links, model.Link{From: f.Path, To: to, Kind: model.LinkInheritance, Line: d.Line, Text: b, Sure: true})
				}
			}
		}
	}, "GDScript", "Godot scene", "Godot resource", "Godot project")
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
				out.Links = append(out.Links, model.Link{From: f.Path, To: to, Kind: model.LinkRendering, Line: m.Line, Text: m.Name, Sure: len(x.of[f.Path]) == 1})
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
