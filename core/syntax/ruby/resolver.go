package ruby

import (
	"path"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// resolve links what is required by path, and constants as the language looks
// them up: in the modules around, from the inside out.
func resolve(t *syntax.Tree) {
	x := &index{t: t, defined: map[string][]string{}}
	versions := map[string]string{}
	for _, f := range t.Files {
		if f.Facts == nil {
			continue
		}
		if f.Facts.Project != nil && f.Facts.Project.Tool == "ruby" {
			for k, v := range f.Facts.Project.Dependencies {
				versions[k] = v
			}
		}
		if f.Language != "Ruby" {
			continue
		}
		x.offer(f)
	}
	t.Each(func(out *syntax.Out, f *model.File) {
		(&scope{x: x, f: f, out: out, versions: versions}).link()
	}, "Ruby")
}

type index struct {
	t       *syntax.Tree
	roots   []string            // folders that "require" looks in
	defined map[string][]string // full name of a constant to the files that set it
}

func (x *index) offer(f *model.File) {
	for d := path.Dir(f.Path); ; d = path.Dir(d) {
		if b := path.Base(d); b == "lib" || b == "ext" {
			x.root(d)
		}
		if d == "." {
			break
		}
	}
	for i := range f.Facts.Definitions {
		d := &f.Facts.Definitions[i]
		switch d.Kind {
		case model.DefClass, model.DefNamespace, model.DefConstant:
			full := strings.ReplaceAll(d.Qualified(), ".", "::")
			if l := x.defined[full]; len(l) == 0 || l[len(l)-1] != f.Path {
				x.defined[full] = append(l, f.Path)
			}
		}
	}
}

func (x *index) root(d string) {
	for _, r := range x.roots {
		if r == d {
			return
		}
	}
	x.roots = append(x.roots, d)
}

type scope struct {
	x        *index
	f        *model.File
	out      *syntax.Out
	versions map[string]string
}

func (s *scope) add(kind model.LinkKind, to string, line int, text string, sure bool) {
	if to != s.f.Path {
		s.out.Links = append(s.out.Links, model.Link{From: s.f.Path, To: to, Kind: kind, Line: line, Text: text, Sure: sure})
	}
}

func (s *scope) link() {
	for _, im := range s.f.Facts.Imports {
		s.required(im)
	}
	done := map[string]bool{}
	for _, m := range s.f.Facts.Mentions {
		around, name, _ := strings.Cut(m.Name, "|")
		if to, sure := s.home(around, name); to != "" && !done[to] {
			done[to] = true
			s.add(model.LinkImport, to, m.Line, name, sure)
		}
	}
	for i := range s.f.Facts.Definitions {
		d := &s.f.Facts.Definitions[i]
		for _, b := range d.Bases {
			if to, sure := s.home(strings.ReplaceAll(d.Qualified(), ".", "::"), b); to != "" {
				s.add(model.LinkInheritance, to, d.Line, b, sure)
			}
		}
	}
}

// home finds the file that sets a constant. Of several, the one named for it
// is meant, as autoloading has it; modules that many files open have no home.
func (s *scope) home(around, name string) (string, bool) {
	if rest, ok := strings.CutPrefix(name, "::"); ok {
		return s.choose(rest)
	}
	for ; around != ""; around = outer(around) {
		if full := around + "::" + name; len(s.x.defined[full]) > 0 {
			return s.choose(full)
		}
	}
	return s.choose(name)
}

func outer(name string) string {
	if i := strings.LastIndex(name, "::"); i >= 0 {
		return name[:i]
	}
	return ""
}

// core are the constants that come with the language itself; who opens one
// again does not make it his own.
var core = map[string]bool{}

func init() {
	for _, n := range strings.Fields(
		"ARGF ARGV Array BasicObject Binding Class Comparable Complex Data Dir ENV Encoding Enumerable Enumerator " +
			"Errno Etc Exception FalseClass Fiber File FileTest Float GC Hash IO Integer Kernel Marshal MatchData " +
			"Math Method Module Monitor Mutex NilClass Numeric Object ObjectSpace Proc Process Queue Random Range " +
			"Rational RbConfig Regexp RubyVM Set Signal String Struct Symbol Thread Time TracePoint TrueClass " +
			"UnboundMethod ArgumentError EOFError EncodingError FiberError FloatDomainError FrozenError IOError " +
			"IndexError Interrupt KeyError LoadError LocalJumpError NameError NoMemoryError NoMethodError " +
			"NotImplementedError RangeError RegexpError RuntimeError ScriptError SecurityError SignalException " +
			"StandardError StopIteration SyntaxError SystemCallError SystemExit SystemStackError ThreadError TypeError ZeroDivisionError",
	) {
		core[n] = true
	}
}

func (s *scope) choose(full string) (string, bool) {
	l := s.x.defined[full]
	switch {
	case len(l) == 0 || core[full]:
		return "", false
	case len(l) == 1:
		return l[0], true
	}
	want := "/" + underscored(full) + ".rb"
	found := ""
	for _, p := range l {
		if p == s.f.Path {
			return "", false // it is opened here as well
		}
		if strings.HasSuffix("/"+p, want) {
			if found != "" {
				return "", false
			}
			found = p
		}
	}
	return found, found != ""
}

// underscored is the path by habit of a constant: SeedVault::BoxList is
// seed_vault/box_list.
func underscored(full string) string {
	var b strings.Builder
	for i := 0; i < len(full); i++ {
		c := full[i]
		switch {
		case c == ':':
			b.WriteByte('/')
			i++
		case c >= 'A' && c <= 'Z':
			if i > 0 && full[i-1] != ':' && (full[i-1] < 'A' || full[i-1] > 'Z' || i+1 < len(full) && full[i+1] >= 'a' &&
				full[i+1] <= 'z') {
				b.WriteByte('_')
			}
			b.WriteByte(c + 'a' - 'A')
		default:
			b.WriteByte(c)
		}
	}
	return b.String()
}

func (s *scope) required(im model.Import) {
	here := path.Dir(s.f.Path)
	try := func(d string) bool {
		for _, e := range []string{"", ".rb"} {
			if p, ok := syntax.Join(d, im.Text+e); ok && s.x.t.File(p) != nil {
				s.add(im.Kind, p, im.Line, im.Text, true)
				return true
			}
		}
		return false
	}
	if im.Alias == "require_relative" || strings.HasPrefix(im.Text, "./") || strings.HasPrefix(im.Text, "../") {
		if !try(here) && !(im.Alias != "require_relative" && try(".")) {
			s.out.Unresolved = append(
				s.out.Unresolved,
				model.Unresolved{From: s.f.Path, Text: im.Text, Line: im.Line, Reason: "no such file"},
			)
		}
		return
	}
	// The nearest folder of libraries first: a tree may hold several.
	best, at := -1, ""
	for _, r := range s.x.roots {
		for _, e := range []string{".rb", ""} {
			if p, ok := syntax.Join(r, im.Text+e); ok && s.x.t.File(p) != nil {
				n := 0
				for a, b := r, s.f.Path; n < len(a) && n < len(b) && a[n] == b[n]; n++ {
				}
				if n > best {
					best, at = n, p
				}
				break
			}
		}
	}
	if at != "" {
		s.add(im.Kind, at, im.Line, im.Text, true)
		return
	}
	gem, _, _ := strings.Cut(im.Text, "/")
	s.out.External = append(s.out.External, model.External{From: s.f.Path, Package: gem, Version: version(s.versions, gem), Line: im.Line})
}

func version(versions map[string]string, gem string) *string {
	if v, ok := versions[gem]; ok && v != "" {
		return &v
	}
	return nil
}
