package csharp

import (
	"path"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// resolve links types as the compiler looks them up: in the namespace of the
// file and those around it, then in those that using directives bring, also
// the global ones of the same project.
func resolve(t *syntax.Tree) {
	x := syntax.NewTypeIndex(t, ".", false, "C#")
	projects := map[string]bool{}
	global := map[string][]string{} // project folder to namespaces used everywhere in it
	for _, f := range t.Files {
		if strings.HasSuffix(f.Path, ".csproj") {
			projects[path.Dir(f.Path)] = true
		}
	}
	project := func(p string) string {
		found := "."
		syntax.Up(path.Dir(p), func(d string) bool {
			if projects[d] {
				found = d
				return true
			}
			return false
		})
		return found
	}
	for _, f := range t.Files {
		if f.Language != "C#" || f.Facts == nil {
			continue
		}
		for _, im := range f.Facts.Imports {
			if len(im.Names) > 0 && im.Names[0] == "global" && im.Alias == "" {
				p := project(f.Path)
				global[p] = append(global[p], im.Text)
			}
		}
	}
	t.Each(func(out *syntax.Out, f *model.File) {
		(&scope{x: x, f: f, out: out, known: map[string]string{}}).link(global[project(f.Path)])
	}, "C#")
}

type scope struct {
	x     *syntax.TypeIndex
	f     *model.File
	out   *syntax.Out
	known map[string]string // name in the file to the full name
}

func (s *scope) add(kind model.LinkKind, full string, line int, text string) {
	l := s.x.Files(full, s.f.Path)
	for _, to := range l {
		// Parts of a partial type lie in several files; all are meant.
		if to != s.f.Path {
			s.out.Links = append(s.out.Links, model.Link{From: s.f.Path, To: to, Kind: kind, Line: line, Text: text, Sure: true})
		}
	}
}

func outer(ns string) string {
	if i := strings.LastIndexByte(ns, '.'); i >= 0 {
		return ns[:i]
	}
	return ""
}

func full(ns, name string) string {
	if ns == "" {
		return name
	}
	return ns + "." + name
}

// link looks up what a file speaks of: in its own namespace and those around
// it, by its using directives, and in the namespaces used everywhere. A name
// that one of them explains is not looked up again.
func (s *scope) link(everywhere []string) {
	used := map[string]bool{}
	own := s.own()
	for _, m := range s.f.Facts.Mentions {
		if own[m.Name] {
			used[m.Name] = true
			continue
		}
		for ns := s.f.Facts.Namespace; ; ns = outer(ns) {
			if s.found(full(ns, m.Name), m, used) || ns == "" {
				break
			}
		}
	}
	for _, im := range s.f.Facts.Imports {
		s.using(im, used)
	}
	for _, ns := range everywhere {
		for _, m := range s.f.Facts.Mentions {
			if !used[m.Name] {
				s.found(ns+"."+m.Name, m, used)
			}
		}
	}
	for i := range s.f.Facts.Definitions {
		d := &s.f.Facts.Definitions[i]
		for _, b := range d.Bases {
			head, rest, dotted := strings.Cut(b, ".")
			name := s.known[head]
			if name == "" {
				name = b
			} else if dotted {
				name += "." + rest
			}
			s.add(model.LinkInheritance, name, d.Line, b)
		}
	}
}

// own are the names that the file itself gives to types, and to the members of
// enumerations, which name nothing else.
func (s *scope) own() map[string]bool {
	own, enums := map[string]bool{}, map[string]bool{}
	for i := range s.f.Facts.Definitions {
		d := &s.f.Facts.Definitions[i]
		switch d.Kind {
		case model.DefClass, model.DefInterface, model.DefType:
			own[d.Name] = true
		case model.DefEnum:
			own[d.Name], enums[d.Qualified()] = true, true
		case model.DefConstant:
			if enums[d.Parent] {
				own[d.Name] = true
			}
		}
	}
	return own
}

// found links what is spoken of when there is a type of the full name.
func (s *scope) found(name string, m model.Mention, used map[string]bool) bool {
	if len(s.x.Files(name, s.f.Path)) == 0 {
		return false
	}
	used[m.Name], s.known[m.Name] = true, name
	s.add(model.LinkImport, name, m.Line, m.Name)
	return true
}

// using follows one directive: to the files of the namespace whose types the
// file names, to a type for "using static" and for an alias.
func (s *scope) using(im model.Import, used map[string]bool) {
	static := len(im.Names) > 0 && im.Names[len(im.Names)-1] == "static"
	if static || im.Alias != "" {
		if len(s.x.Files(im.Text, s.f.Path)) > 0 {
			if im.Alias != "" {
				s.known[im.Alias], used[im.Alias] = im.Text, true
			}
			s.add(im.Kind, im.Text, im.Line, im.Text)
			return
		}
	}
	if !s.x.HasNamespace(im.Text) {
		if im.Alias == "" || !s.x.HasNamespace(outer(im.Text)) {
			s.out.External = append(s.out.External, model.External{From: s.f.Path, Package: im.Text, Line: im.Line})
			return
		}
		s.out.Unresolved = append(s.out.Unresolved, model.Unresolved{
			From: s.f.Path, Text: im.Text, Line: im.Line, Reason: "the namespace is here, but holds no such type",
		})
		return
	}
	for _, m := range s.f.Facts.Mentions {
		if f := im.Text + "." + m.Name; !used[m.Name] && s.x.In(im.Text, m.Name) {
			used[m.Name], s.known[m.Name] = true, f
			s.add(im.Kind, f, im.Line, im.Text)
		}
	}
}
