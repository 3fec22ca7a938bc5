package perl

import (
	"path"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// resolve looks modules up in the folders that the language searches: those a
// file names with "use lib", folders called lib, and the roots that packages
// of the tree show by their own place.
func resolve(t *syntax.Tree) {
	bySuffix := map[string][]string{} // last part of a module's path to files
	packages := map[string][]string{} // full package name to files
	versions := map[string]string{}
	for _, f := range t.Files {
		if f.Language != "Perl" || f.Facts == nil {
			continue
		}
		bySuffix[path.Base(f.Path)] = append(bySuffix[path.Base(f.Path)], f.Path)
		for _, d := range f.Facts.Definitions {
			if d.Kind == model.DefNamespace || d.Kind == model.DefClass {
				packages[d.Name] = append(packages[d.Name], f.Path)
			}
		}
		if f.Facts.Project != nil {
			for n, v := range f.Facts.Project.Dependencies {
				versions[n] = v
			}
		}
	}
	t.Each(func(out *syntax.Out, f *model.File) {
		(&searcher{t, bySuffix, packages, versions, f, out}).link()
	}, "Perl")
}

type searcher struct {
	t        *syntax.Tree
	bySuffix map[string][]string
	packages map[string][]string
	versions map[string]string
	f        *model.File
	out      *syntax.Out
}

func (s *searcher) link() {
	var libs []string
	for _, im := range s.f.Facts.Imports {
		if im.Alias == "lib" {
			rel := strings.TrimPrefix(strings.NewReplacer("$FindBin::Bin", ".", "$Bin", ".", "$RealBin", ".").Replace(im.Text), "/")
			for _, base := range []string{path.Dir(s.f.Path), "."} {
				if d, ok := syntax.Join(base, rel); ok && s.t.HasDir(d) {
					libs = append(libs, d)
				}
			}
		}
	}
	for _, im := range s.f.Facts.Imports {
		switch im.Alias {
		case "lib":
		case "file":
			s.file(im, libs)
		default:
			s.module(im, libs)
		}
	}
	for _, d := range s.f.Facts.Definitions {
		for _, b := range d.Bases {
			to := s.find(b, libs)
			if to == "" {
				if l := s.packages[b]; len(l) == 1 {
					to = l[0]
				}
			}
			if to != "" && to != s.f.Path {
				s.out.Links = append(s.out.Links, model.Link{
					From: s.f.Path, To: to, Kind: model.LinkInheritance, Line: d.Line, Text: b, Sure: true,
				})
			}
		}
	}
}

func (s *searcher) file(im model.Import, libs []string) {
	for _, d := range append([]string{path.Dir(s.f.Path), "."}, libs...) {
		if p, ok := syntax.Join(d, im.Text); ok && s.t.File(p) != nil {
			if p != s.f.Path {
				s.out.Links = append(s.out.Links, model.Link{
					From: s.f.Path, To: p, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: true,
				})
			}
			return
		}
	}
	if to := s.nearest(im.Text); to != "" {
		s.out.Links = append(s.out.Links, model.Link{From: s.f.Path, To: to, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: false})
		return
	}
	if strings.HasSuffix(im.Text, ".pl") || strings.HasPrefix(im.Text, ".") {
		s.out.Unresolved = append(s.out.Unresolved, model.Unresolved{
			From: s.f.Path, Text: im.Text, Line: im.Line,
			Reason: "no such file beside it or in a folder that is searched",
		})
	}
}

func (s *searcher) module(im model.Import, libs []string) {
	if to := s.find(im.Text, libs); to != "" {
		if to != s.f.Path {
			s.out.Links = append(s.out.Links, model.Link{
				From: s.f.Path, To: to, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: true, Names: im.Names,
			})
		}
		return
	}
	for _, d := range s.f.Facts.Definitions {
		if d.Name == im.Text {
			return // a package of this very file
		}
	}
	if pragmas[im.Text] {
		return
	}
	var version *string
	if v := s.versions[im.Text]; v != "" && v != "0" {
		version = &v
	}
	s.out.External = append(s.out.External, model.External{From: s.f.Path, Package: im.Text, Version: version, Line: im.Line})
}

// pragmas are what the language itself brings under "use".
var pragmas = syntax.Set(
	"strict", "warnings", "utf8", "feature", "vars", "integer", "bytes", "overload", "re", "bigint", "locale",
	"open", "sort", "subs", "diagnostics", "autodie", "experimental", "mro", "fields", "less", "filetest", "bignum",
	"encoding", "threads", "attributes", "if", "version", "deprecate", "charnames", "sigtrap", "vmsish", "builtin",
	"English",
)

// find is the file of a module.
func (s *searcher) find(name string, libs []string) string {
	rel := strings.ReplaceAll(name, "::", "/") + ".pm"
	for _, d := range libs {
		if p, ok := syntax.Join(d, rel); ok && s.t.File(p) != nil {
			return p
		}
	}
	return s.nearest(rel)
}

// nearest is the file at that path below a folder that may be searched, the
// one with most folders in common with the file that asks.
func (s *searcher) nearest(rel string) string {
	best, score := "", -1
	for _, p := range s.bySuffix[path.Base(rel)] {
		root, ok := strings.CutSuffix("/"+p, "/"+rel)
		if !ok {
			continue
		}
		// A module of one word would fit anywhere: its package has to say that
		// this is its name.
		if !strings.Contains(rel, "/") && !s.declares(p, strings.TrimSuffix(rel, ".pm")) {
			continue
		}
		n := common(p, s.f.Path) * 2
		if path.Base(root) == "lib" {
			n++
		}
		if n > score {
			best, score = p, n
		}
	}
	return best
}

func (s *searcher) declares(p, pkg string) bool {
	for _, q := range s.packages[pkg] {
		if q == p {
			return true
		}
	}
	return false
}

// common is how many leading folders two paths share.
func common(a, b string) int {
	n := 0
	x, y := strings.Split(path.Dir(a), "/"), strings.Split(path.Dir(b), "/")
	for n < len(x) && n < len(y) && x[n] == y[n] {
		n++
	}
	return n
}
