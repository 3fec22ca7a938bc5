package php

import (
	"path"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// resolve links classes by their full names, as autoloading finds them, and
// files taken in by path.
func resolve(t *syntax.Tree) {
	x := newIndex(t)
	t.Each(func(out *syntax.Out, f *model.File) {
		(&scope{t: t, x: x, f: f, out: out, alias: map[string]string{}}).link()
	}, "PHP")
}

// index finds classes by full name, in any case, and the files of each
// namespace.
type index struct {
	classes    map[string][]string
	written    map[string]string // the full name of a class as its definition writes it
	functions  map[string][]string
	namespaces map[string]bool
}

func newIndex(t *syntax.Tree) *index {
	x := &index{map[string][]string{}, map[string]string{}, map[string][]string{}, map[string]bool{}}
	put := func(m map[string][]string, name, file string) {
		name = strings.ToLower(name)
		if l := m[name]; len(l) == 0 || l[len(l)-1] != file {
			m[name] = append(l, file)
		}
	}
	for _, f := range t.Files {
		if f.Language != "PHP" || f.Facts == nil {
			continue
		}
		for ns := strings.ToLower(f.Facts.Namespace); ns != "" && !x.namespaces[ns]; ns = above(ns) {
			x.namespaces[ns] = true
		}
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			switch d.Kind {
			case model.DefClass, model.DefInterface, model.DefEnum:
				put(x.classes, full(f.Facts.Namespace, d.Name), f.Path)
				x.written[strings.ToLower(full(f.Facts.Namespace, d.Name))] = full(f.Facts.Namespace, d.Name)
			case model.DefFunction, model.DefConstant:
				if d.Parent == "" {
					put(x.functions, full(f.Facts.Namespace, d.Name), f.Path)
				}
			}
		}
	}
	return x
}

func above(ns string) string {
	if i := strings.LastIndexByte(ns, '\\'); i >= 0 {
		return ns[:i]
	}
	return ""
}

func full(ns, name string) string {
	if ns == "" {
		return name
	}
	return ns + `\` + name
}

// nearest keeps of several files that define the same name those that lie
// nearest to the one that asks.
func nearest(l []string, from string) []string {
	if len(l) < 2 {
		return l
	}
	best, out := -1, []string(nil)
	for _, p := range l {
		n := 0
		for n < len(p) && n < len(from) && p[n] == from[n] {
			n++
		}
		n = strings.Count(p[:n], "/")
		if n > best {
			best, out = n, nil
		}
		if n == best {
			out = append(out, p)
		}
	}
	return out
}

type scope struct {
	t     *syntax.Tree
	x     *index
	f     *model.File
	out   *syntax.Out
	alias map[string]string // name in the file, lower case, to the full name
}

func (s *scope) add(kind model.LinkKind, to string, line int, text string, sure bool) {
	if to != s.f.Path {
		s.out.Links = append(s.out.Links, model.Link{From: s.f.Path, To: to, Kind: kind, Line: line, Text: text, Sure: sure})
	}
}

func (s *scope) link() {
	for _, im := range s.f.Facts.Imports {
		switch im.Alias {
		case "here", "path":
			s.include(im)
		default:
			s.use(im)
		}
	}
	done := map[string]bool{}
	for _, m := range s.f.Facts.Mentions {
		name, imported := s.meaning(m.Name)
		if imported && !strings.Contains(m.Name, `\`) || done[name] {
			continue
		}
		done[name] = true
		// A word in capitals is a constant, unless a class is written so.
		if capitals(m.Name) && !strings.HasSuffix(s.x.written[strings.ToLower(name)], m.Name) {
			continue
		}
		l := nearest(s.x.classes[strings.ToLower(name)], s.f.Path)
		for _, to := range l {
			s.add(model.LinkImport, to, m.Line, m.Name, len(l) == 1)
		}
	}
	for i := range s.f.Facts.Definitions {
		d := &s.f.Facts.Definitions[i]
		for _, b := range d.Bases {
			name, _ := s.meaning(b)
			l := nearest(s.x.classes[strings.ToLower(name)], s.f.Path)
			for _, to := range l {
				s.add(model.LinkInheritance, to, d.Line, b, len(l) == 1)
			}
		}
	}
}

func capitals(name string) bool { return len(name) > 1 && name == strings.ToUpper(name) }

// meaning is the full name of a class as the file writes it, and whether an
// import statement says so.
func (s *scope) meaning(name string) (string, bool) {
	if rest, ok := strings.CutPrefix(name, `\`); ok {
		return rest, false
	}
	head, rest, qualified := strings.Cut(name, `\`)
	if a, ok := s.alias[strings.ToLower(head)]; ok {
		if qualified {
			return a + `\` + rest, true
		}
		return a, true
	}
	if strings.EqualFold(head, "namespace") && qualified {
		return full(s.f.Facts.Namespace, rest), false
	}
	return full(s.f.Facts.Namespace, name), false
}

func (s *scope) use(im model.Import) {
	m := s.x.classes
	if len(im.Names) > 0 {
		m = s.x.functions
	} else {
		s.alias[strings.ToLower(im.Alias)] = im.Text
	}
	key := strings.ToLower(im.Text)
	l := nearest(m[key], s.f.Path)
	if len(l) > 1 && len(im.Names) > 0 {
		return // a constant that every starting file sets anew has no one home
	}
	if len(l) > 0 {
		for _, to := range l {
			s.add(im.Kind, to, im.Line, im.Text, len(l) == 1)
		}
		return
	}
	if s.x.namespaces[key] {
		return // a namespace is shortened; what is used of it links by itself
	}
	if ns := above(key); ns != "" && s.x.namespaces[ns] {
		s.out.Unresolved = append(s.out.Unresolved, model.Unresolved{
			From: s.f.Path, Text: im.Text, Line: im.Line, Reason: "the namespace is here, but holds no such name",
		})
		return
	}
	pkg := im.Text
	if i := strings.IndexByte(pkg, '\\'); i >= 0 {
		pkg = pkg[:i]
	}
	s.out.External = append(s.out.External, model.External{From: s.f.Path, Package: pkg, Line: im.Line})
}

// include finds a file named by path: beside the one that asks where that is
// said, else below it or any folder above, as an include path would.
func (s *scope) include(im model.Import) {
	here := path.Dir(s.f.Path)
	if p, ok := syntax.Join(here, im.Text); ok && s.t.File(p) != nil {
		s.add(im.Kind, p, im.Line, im.Text, true)
		return
	}
	if im.Alias == "path" {
		found := ""
		syntax.Up(here, func(d string) bool {
			if p, ok := syntax.Join(d, im.Text); ok && s.t.File(p) != nil {
				found = p
				return true
			}
			return false
		})
		if found != "" {
			s.add(im.Kind, found, im.Line, im.Text, false)
			return
		}
	}
	s.out.Unresolved = append(s.out.Unresolved, model.Unresolved{From: s.f.Path, Text: im.Text, Line: im.Line, Reason: "no such file"})
}
