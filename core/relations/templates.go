package relations

import (
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
	"jantel/core/syntax/templates"
)

// templateLinks follows the names of templates that code asks for, and the
// templates that frameworks take for an action without being asked.
func templateLinks(t *syntax.Tree) []model.Link {
	x := templates.NewIndex(t)
	if x.Empty() {
		return nil
	}
	var out []model.Link
	for _, f := range t.Files {
		if f.Facts == nil || templates.Is(f.Language) || syntax.ProfileOf(f.Language).NamesNodes {
			continue
		}
		add := func(to string, line int, text string) {
			if to != "" && to != f.Path {
				out = append(out, model.Link{From: f.Path, To: to, Kind: model.LinkTemplate, Line: line, Text: text, Sure: true})
			}
		}
		habit := syntax.ProfileOf(f.Language)
		named := map[int]bool{}
		for _, m := range f.Facts.Templates {
			to := x.Find(f.Path, m.Name)
			if to == "" && habit.ControllerEnd != "" && habit.ControllerRoot == "" {
				to = x.In(controllerFolders(f.Path, habit.ControllerEnd, ""), m.Name)
			}
			if to != "" {
				named[m.Line] = true
			}
			add(to, m.Line, m.Name)
		}
		if habit.ControllerEnd == "" || !strings.HasSuffix(f.Path, habit.ControllerEnd) {
			continue
		}
		// An action is answered by the template that has its name.
		dirs := controllerFolders(f.Path, habit.ControllerEnd, habit.ControllerRoot)
		for _, d := range f.Facts.Definitions {
			if d.Kind == model.DefMethod && d.Exported && !strings.HasPrefix(d.Name, ".") {
				add(x.In(dirs, d.Name), d.Line, d.Name)
			}
		}
	}
	return out
}

// componentLinks ties the elements and attributes of pages to the components
// that answer to them, where one file alone does.
func componentLinks(t *syntax.Tree) (out []model.Link) {
	answers := map[string][]string{}
	for _, f := range t.Files {
		if f.Facts == nil {
			continue
		}
		for _, m := range f.Facts.Selectors {
			if at := answers[m.Name]; !slices.Contains(at, f.Path) {
				answers[m.Name] = append(at, f.Path)
			}
		}
	}
	if len(answers) == 0 {
		return nil
	}
	for _, f := range t.Files {
		if f.Facts == nil {
			continue
		}
		for _, m := range f.Facts.Tags {
			if at := answers[m.Name]; len(at) == 1 && at[0] != f.Path {
				out = append(out, model.Link{From: f.Path, To: at[0], Kind: model.LinkRendering, Line: m.Line, Text: m.Name, Sure: true})
			}
		}
	}
	return out
}

// controllerFolders are where the views of a controller lie by convention:
// below the "views" that stands where its "controllers" does.
func controllerFolders(p, suffix, below string) []string {
	name := strings.TrimSuffix(path.Base(p), suffix)
	dir := path.Dir(p)
	if below != "" {
		i := strings.Index(p, below)
		if i < 0 {
			return nil
		}
		rest := strings.TrimSuffix(p[i+len(below):], suffix)
		return []string{p[:i] + "app/views/" + rest}
	}
	up := path.Dir(dir)
	if up == "." {
		return []string{"Views/" + name, "Views/Shared"}
	}
	return []string{up + "/Views/" + name, up + "/Views/Shared"}
}
