// Package jvm holds what the languages have in common that compile into
// packages and classes of one machine: how names are looked up, and how
// annotations declare routes.
package jvm

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// Resolve links imports, types of the same package and base types of the files
// of one language as its compiler looks them up. The files of the other
// languages count as well: all compile into the same packages.
func Resolve(t *syntax.Tree, language string) {
	x := syntax.NewTypeIndex(t, ".", true, "Java", "Kotlin")
	t.Each(func(out *syntax.Out, f *model.File) {
		(&scope{x: x, f: f, out: out, known: map[string]string{}}).link()
	}, language)
}

// scope is what the names of one file mean.
type scope struct {
	x     *syntax.TypeIndex
	f     *model.File
	out   *syntax.Out
	known map[string]string // simple name to full name, "" for what lies outside
	stars []string          // packages and types whose members are all imported
}

func (s *scope) add(kind model.LinkKind, full string, line int, text string) {
	for _, to := range s.x.Files(full, s.f.Path) {
		if to != s.f.Path {
			s.out.Links = append(s.out.Links, model.Link{From: s.f.Path, To: to, Kind: kind, Line: line, Text: text, Sure: true})
		}
	}
}

func (s *scope) link() {
	for _, im := range s.f.Facts.Imports {
		s.importOf(im)
	}
	own := map[string]bool{}
	for _, d := range s.f.Facts.Definitions {
		switch d.Kind {
		case model.DefClass, model.DefInterface, model.DefEnum, model.DefFunction, model.DefType:
			own[d.Name] = true
		}
	}
	for _, m := range s.f.Facts.Mentions {
		if _, imported := s.known[m.Name]; imported || own[m.Name] {
			continue
		}
		if s.x.In(s.f.Facts.Namespace, m.Name) {
			full := joined(s.f.Facts.Namespace, m.Name)
			s.known[m.Name] = full
			s.add(model.LinkImport, full, m.Line, m.Name)
			continue
		}
		for _, star := range s.stars {
			if s.x.In(star, m.Name) {
				s.known[m.Name] = star + "." + m.Name
				break
			}
		}
	}
	for i := range s.f.Facts.Definitions {
		d := &s.f.Facts.Definitions[i]
		for _, b := range d.Bases {
			if full := s.meaning(b); full != "" {
				s.add(model.LinkInheritance, full, d.Line, b)
			}
		}
	}
}

// meaning is the full name of a type as the file writes it, "" when unknown.
func (s *scope) meaning(name string) string {
	head, rest, dotted := strings.Cut(name, ".")
	if full := s.known[head]; full != "" {
		if dotted && len(s.x.Files(full+"."+rest, s.f.Path)) > 0 {
			return full + "." + rest
		}
		return full
	}
	if len(s.x.Files(name, s.f.Path)) > 0 {
		return name
	}
	return ""
}

func joined(ns, name string) string {
	if ns == "" {
		return name
	}
	return ns + "." + name
}

// importOf follows one import: of a type, of a nested type, of a member, or of
// all that a package or a type holds.
func (s *scope) importOf(im model.Import) {
	name := im.Text
	if star, ok := strings.CutSuffix(name, ".*"); ok {
		s.star(im, star)
		return
	}
	simple := name[strings.LastIndex(name, ".")+1:]
	if im.Alias != "" && im.Alias != "static" {
		simple = im.Alias
	}
	// Of a member or a nested type the type around it is meant as well.
	for full := name; full != ""; full = parent(full) {
		if len(s.x.Files(full, s.f.Path)) > 0 {
			s.known[simple] = full
			s.add(im.Kind, full, im.Line, im.Text)
			return
		}
	}
	s.known[simple] = ""
	pkg := packageOf(name)
	if s.x.HasNamespace(pkg) {
		s.out.Unresolved = append(s.out.Unresolved, model.Unresolved{
			From: s.f.Path, Text: im.Text, Line: im.Line, Reason: "the package is here, but holds no such type",
		})
		return
	}
	s.out.External = append(s.out.External, model.External{From: s.f.Path, Package: pkg, Line: im.Line})
}

func (s *scope) star(im model.Import, star string) {
	if !s.x.HasNamespace(star) {
		// All members of a type that lies in the tree, or a package outside.
		if len(s.x.Files(star, s.f.Path)) > 0 {
			s.add(im.Kind, star, im.Line, im.Text)
			return
		}
		s.out.External = append(s.out.External, model.External{From: s.f.Path, Package: packageOf(star + ".X"), Line: im.Line})
		return
	}
	s.stars = append(s.stars, star)
	if len(s.x.Files(star, s.f.Path)) > 0 { // nested types of a type
		s.add(im.Kind, star, im.Line, im.Text)
		return
	}
	for _, m := range s.f.Facts.Mentions {
		if _, named := s.known[m.Name]; !named && s.x.In(star, m.Name) && !s.x.In(s.f.Facts.Namespace, m.Name) {
			s.add(im.Kind, star+"."+m.Name, im.Line, im.Text)
		}
	}
}

func parent(name string) string {
	i := strings.LastIndex(name, ".")
	if i < 0 {
		return ""
	}
	return name[:i]
}

// packageOf is the part of a full name before its first capital word, as the
// language's habit has it.
func packageOf(name string) string {
	parts := strings.Split(name, ".")
	for i, p := range parts {
		if p == "" || p[0] >= 'A' && p[0] <= 'Z' || i == len(parts)-1 {
			if i == 0 {
				return p
			}
			return strings.Join(parts[:i], ".")
		}
	}
	return name
}
