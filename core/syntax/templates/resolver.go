package templates

import (
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
)

// names are the languages whose files are templates.
var names = func() []string {
	var out []string
	for _, k := range kinds {
		out = append(out, k.name)
	}
	return out
}()

// Index finds templates by what code and other templates call them.
type Index struct {
	t      *syntax.Tree
	byStem map[string][]string // last part of the name, without endings and "_"
}

// NewIndex indexes the templates of a tree.
func NewIndex(t *syntax.Tree) *Index {
	x := &Index{t: t, byStem: map[string][]string{}}
	for _, f := range t.Files {
		for _, n := range names {
			if f.Language == n {
				s := stem(path.Base(f.Path))
				x.byStem[s] = append(x.byStem[s], f.Path)
			}
		}
	}
	return x
}

// Empty reports whether the tree has no templates at all.
func (x *Index) Empty() bool { return len(x.byStem) == 0 }

func stem(base string) string {
	base = strings.TrimPrefix(base, "_")
	base, _, _ = strings.Cut(base, ".")
	return strings.ToLower(base)
}

// Find is the template that a name means which is written in the file from. A
// name is a path with or without endings, or one with dots for slashes; the
// template lies beside the file, or below a folder whose name ends the path.
// It is "" when none fits or several do equally.
func (x *Index) Find(from, name string) string {
	name = strings.TrimPrefix(strings.TrimPrefix(strings.ReplaceAll(name, "::", "/"), "~/"), "/")
	if name == "" || strings.Contains(name, "://") {
		return ""
	}
	forms := []string{name}
	if !strings.Contains(name, "/") && strings.Contains(name, ".") {
		forms = append(forms, strings.ReplaceAll(name, ".", "/"))
	}
	for _, form := range forms {
		if p, ok := syntax.Join(path.Dir(from), form); ok && x.template(p) {
			return p
		}
	}
	for _, form := range forms {
		if best, tied := x.nearest(from, form); tied {
			return ""
		} else if best != "" {
			return best
		}
	}
	return ""
}

// nearest is the template of that form which shares most of its path with the
// file from; tied where several do.
func (x *Index) nearest(from, form string) (best string, tied bool) {
	dir, base := path.Split(strings.ToLower(path.Clean(form)))
	dir = strings.Trim(strings.TrimLeft(dir, "./"), "/")
	score := -1
	for _, p := range x.byStem[stem(base)] {
		in := strings.ToLower(path.Dir(p))
		if !fits(base, strings.ToLower(path.Base(p))) || dir != "" && in != dir && !strings.HasSuffix(in, "/"+dir) {
			continue
		}
		n := 2 * common(p, from)
		if path.Dir(p) == path.Dir(from) {
			n++
		}
		if n > score {
			best, score, tied = p, n, false
		} else if n == score && p != best {
			tied = true
		}
	}
	return best, tied
}

func (x *Index) template(p string) bool {
	for _, q := range x.byStem[stem(path.Base(p))] {
		if q == p {
			return true
		}
	}
	return false
}

// fits reports whether a file of that name can be meant: the name has some of
// its endings, or none.
func fits(name, file string) bool {
	name, file = strings.TrimPrefix(name, "_"), strings.TrimPrefix(file, "_")
	return file == name || strings.HasPrefix(file, name+".")
}

func common(a, b string) int {
	n := 0
	x, y := strings.Split(path.Dir(a), "/"), strings.Split(path.Dir(b), "/")
	for n < len(x) && n < len(y) && x[n] == y[n] {
		n++
	}
	return n
}

// resolve links templates with those they build upon and include, and pages
// with the sheets and scripts they bring along.
func resolve(t *syntax.Tree) {
	x := NewIndex(t)
	if x.Empty() {
		return
	}
	types := syntax.NewTypeIndex(t, ".", false, "C#")
	t.Each(func(out *syntax.Out, f *model.File) {
		for _, m := range f.Facts.Templates {
			x.link(t, out, f, m)
		}
		for _, im := range f.Facts.Imports {
			if to := brought(t, f, im.Text); to != "" && to != f.Path {
				out.Links = append(out.Links, model.Link{From: f.Path, To: to, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: true})
			}
		}
		for _, m := range f.Facts.Mentions {
			for _, to := range types.Files(m.Name, f.Path) {
				out.Links = append(out.Links, model.Link{
					From: f.Path, To: to, Kind: model.LinkImport, Line: m.Line, Text: m.Name, Sure: true,
				})
			}
		}
	}, names...)
}

// link follows the name of a template. What a variable holds has the template
// of its kind, by the variable's name.
func (x *Index) link(t *syntax.Tree, out *syntax.Out, f *model.File, m model.Mention) {
	to := ""
	for _, name := range spelled(f.Language, m.Name) {
		if to = x.Find(f.Path, name); to != "" {
			break
		}
	}
	if to == "" && path.Ext(m.Name) != "" {
		to = beside(t, path.Dir(f.Path), m.Name)
	}
	variable := strings.HasPrefix(m.Name, "@")
	switch {
	case to != "" && to != f.Path:
		out.Links = append(out.Links, model.Link{
			From: f.Path, To: to, Kind: model.LinkTemplate, Line: m.Line, Text: m.Name, Sure: !variable,
		})
	case to == "" && f.Language != "Blade" && f.Language != "HTML" && !variable:
		out.Unresolved = append(out.Unresolved, model.Unresolved{
			From: f.Path, Text: m.Name, Line: m.Line, Reason: "no template of this name, or several",
		})
	}
}

// brought is the file that a page brings along by its address.
func brought(t *syntax.Tree, f *model.File, address string) string {
	text, _, _ := strings.Cut(address, "?")
	if p, ok := syntax.Join(path.Dir(f.Path), text); ok && t.File(p) != nil && !strings.HasPrefix(text, "/") {
		return p
	}
	rest, absolute := strings.CutPrefix(strings.TrimPrefix(text, "~"), "/")
	if p, ok := syntax.Join(rest); ok && absolute {
		return below(t, path.Dir(f.Path), p)
	}
	return ""
}

// beside looks for a text that is put in as it is: from the folder of the
// template or one above it.
func beside(t *syntax.Tree, d, name string) (found string) {
	syntax.Up(d, func(at string) bool {
		if q, ok := syntax.Join(at, name); ok && t.File(q) != nil {
			found = q
		}
		return found != ""
	})
	return found
}

// below looks for an absolute path of a site in the folders that are handed
// out from the top: beside the page and on the way up.
func below(t *syntax.Tree, d, p string) string {
	found := ""
	syntax.Up(d, func(at string) bool {
		for _, sub := range []string{"", "public", "static", "wwwroot", "assets", "app/assets", "web", "src"} {
			if q, ok := syntax.Join(at, sub, p); ok && t.File(q) != nil {
				found = q
				return true
			}
		}
		return false
	})
	return found
}

// spelled are the names a template may have that is called so.
func spelled(language, name string) []string {
	switch language {
	case "Blade":
		if i := strings.LastIndex(name, "::"); i >= 0 {
			name = name[i+2:]
		}
		// A component has a template below "components" or "livewire".
		return []string{name, "components." + name, "livewire." + name, "components." + name + ".index"}
	case "ERB":
		if variable, ok := strings.CutPrefix(name, "@"); ok {
			one := naming.Singular(variable)
			return []string{variable + "/" + one, variable + "s/" + one}
		}
	case "Handlebars":
		return []string{name, "partials/" + name}
	}
	return []string{name}
}

// Is reports whether a language is one of templates.
func Is(language string) bool { return slices.Contains(names, language) }

// In is the template of a name in the first of the folders that has it.
func (x *Index) In(folders []string, name string) string {
	for _, d := range folders {
		for _, p := range x.byStem[stem(name)] {
			if path.Dir(p) == d && fits(strings.ToLower(name), strings.ToLower(path.Base(p))) {
				return p
			}
		}
	}
	return ""
}
