// Package perl reads Perl.
package perl

import (
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func init() {
	syntax.Register(&syntax.Language{Name: "Perl", Version: 2, Profile: syntax.Profile{Code: true}, Loggers: []string{"Log::", "Mojo::Log", "Sys::Syslog"}, Extensions: []string{".pl", ".pm", ".t", ".psgi", ".cgi", ".al"}, FileNames: []string{"cpanfile", "Makefile.PL", "Build.PL"},
		Shebangs: []string{"perl"}, Read: read, Resolve: resolve})
}

type reader struct {
	s       *syntax.Stream
	f       *model.Facts
	signs   syntax.Signs
	blessed int // calls that make an object
	names   map[string]bool
	env     map[string]int
	needs   map[string]string // what a cpanfile or a Makefile.PL asks for
	scope   []span            // packages with a block of their own, and subs
	pkg     int               // the open package without a block, -1 for none
	uses    map[string]bool
}

// span is a definition that reaches to a token.
type span struct {
	def, last int
	pack      bool
}

func read(_ string, src []byte) *model.Facts {
	r := &reader{s: lex(src), f: &model.Facts{}, signs: syntax.Signs{}, names: map[string]bool{}, env: map[string]int{}, needs: map[string]string{}, pkg: -1, uses: map[string]bool{}}
	r.f.Doc, r.f.DocLine = named(src)
	r.walk()
	r.endPackage(r.s.Len() - 1)
	r.classes()
	for n, line := range r.env {
		r.f.Env = append(r.f.Env, model.Mention{Name: n, Line: line})
	}
	sort.Slice(r.f.Env, func(i, j int) bool { return r.f.Env[i].Name < r.f.Env[j].Name })
	if len(r.needs) > 0 {
		r.f.Project = &model.Project{Tool: "perl", Dependencies: r.needs}
	}
	r.f.Names = syntax.SortedSet(r.names)
	return syntax.Finish(r.f, r.s, r.signs)
}

// named is what the NAME part of the documentation says behind the dash.
func named(src []byte) (string, int) {
	text := string(src)
	i := strings.Index(text, "=head1 NAME")
	if i < 0 || i > 0 && text[i-1] != '\n' {
		return "", 0
	}
	rest := text[i+len("=head1 NAME"):]
	if j := strings.Index(rest, "\n="); j >= 0 {
		rest = rest[:j]
	}
	_, words, ok := strings.Cut(rest, " - ")
	if !ok {
		return "", 0
	}
	return syntax.Sentence(words, 240), strings.Count(text[:i], "\n") + 1
}

func (r *reader) parent() string {
	for i := len(r.scope) - 1; i >= 0; i-- {
		if r.scope[i].pack {
			return r.f.Definitions[r.scope[i].def].Name
		}
	}
	if r.pkg >= 0 {
		return r.f.Definitions[r.pkg].Name
	}
	return ""
}

func (r *reader) add(name string, kind model.DefinitionKind, first, last int, parent string) int {
	exported := name != "" && name[0] != '_'
	r.f.Definitions = append(r.f.Definitions, model.Definition{Name: name, Parent: parent, Kind: kind, Line: r.s.Line(first), EndLine: r.s.EndLine(last), Exported: exported})
	if exported {
		r.names[name] = true
	}
	return len(r.f.Definitions) - 1
}

// endPackage closes the package that was opened without a block.
func (r *reader) endPackage(last int) {
	if r.pkg >= 0 {
		r.f.Definitions[r.pkg].EndLine = max(r.f.Definitions[r.pkg].Line, r.s.EndLine(last))
		r.pkg = -1
	}
}

// starts reports whether a statement may start at token i.
func (r *reader) starts(i int) bool {
	s := r.s
	return i == 0 || s.Any(i-1, ";", "{", "}") || s.Kind(i-1) == syntax.String && strings.Contains(s.Text(i-1), "\n")
}

func (r *reader) walk() {
	s := r.s
	for i := 0; i < s.Len(); i++ {
		for n := len(r.scope); n > 0 && i > r.scope[n-1].last; n-- {
			r.scope = r.scope[:n-1]
		}
		switch s.Kind(i) {
		case syntax.String:
			continue
		case syntax.Ident:
		default:
			continue
		}
		switch s.Text(i) {
		case "package":
			if s.IsIdent(i+1) && r.starts(i) {
				i = r.pack(i)
			}
		case "sub", "method", "fun":
			if s.IsIdent(i+1) && !s.Is(i-1, "->") && !s.Is(i-1, ">") && !s.Is(i+2, "=") && (s.Is(i, "sub") || r.starts(i)) {
				r.sub(i)
			}
		case "use", "no":
			if r.starts(i) && s.IsIdent(i+1) {
				i = r.use(i)
			}
		case "require", "do":
			if r.unarrowed(i) {
				r.require(i)
			}
		case "has":
			if r.starts(i) && (s.Any(i+1, syntax.Name, syntax.Quoted)) {
				last := r.stop(i)
				if name := word(s.Text(i + 1)); name != "" && s.Is(i+2, "=") {
					r.add(name, model.DefProperty, i, last, r.parent())
				}
			}
		case "extends", "with":
			if r.starts(i) {
				for k := i + 1; k < r.stop(i); k++ {
					if s.Kind(k) == syntax.String {
						r.base(words(s.Text(k)), s.Line(i), true)
					}
				}
			}
		case "our":
			if r.starts(i) && s.IsIdent(i+1) && len(r.scope) == 0 {
				name := strings.TrimLeft(s.Text(i+1), "$@%")
				if name == "ISA" {
					for k := i + 2; k < r.stop(i); k++ {
						if s.Kind(k) == syntax.String {
							r.base(words(s.Text(k)), s.Line(i), false)
						}
					}
				} else if name != "" && name != "VERSION" && name != "EXPORT" && name != "EXPORT_OK" && name != "EXPORT_TAGS" && name != "AUTOLOAD" {
					r.add(name, model.DefVariable, i, r.stop(i), r.parent())
				}
			}
		case "@ISA":
			if s.Is(i+1, "=") {
				for k := i + 2; k < r.stop(i); k++ {
					if s.Kind(k) == syntax.String {
						r.base(words(s.Text(k)), s.Line(i), false)
					}
				}
			}
		case "$ENV":
			if s.Is(i+1, "{") && s.Close(i+1) == i+3 {
				if name := word(s.Text(i + 2)); name != "" {
					if _, ok := r.env[name]; !ok && !syntax.OfRequest(name) {
						r.env[name] = s.Line(i)
					}
				}
			}
		case "bless":
			r.blessed++
		case "requires", "test_requires":
			if r.starts(i) && s.Kind(i+1) == syntax.String {
				version := ""
				for k := i + 2; k < r.stop(i); k++ {
					if s.Any(k, syntax.Quoted, syntax.Figure) {
						version = word(s.Text(k))
					}
				}
				r.needs[word(s.Text(i+1))] = version
			}
		case "PREREQ_PM", "TEST_REQUIRES", "BUILD_REQUIRES":
			for k := i + 1; k < i+4; k++ {
				if s.Is(k, "{") {
					for m := k + 1; m < s.Close(k); m++ {
						if (s.Any(m, syntax.Quoted, syntax.Name)) && s.Match(m+1, "=", ">") {
							r.needs[word(s.Text(m))] = word(s.Text(m + 3))
						}
					}
				}
			}
		default:
			r.route(i)
		}
	}
}

// unarrowed reports whether token i is no method called on something, nor the
// key of a pair.
func (r *reader) unarrowed(i int) bool {
	s := r.s
	return !(s.Match(i-2, "-", ">")) && !(s.Match(i+1, "=", ">")) && !s.Is(i-1, "sub")
}

// stop is the index of the semicolon that ends the statement at i.
func (r *reader) stop(i int) int {
	s := r.s
	for ; i < s.Len(); i = s.Close(i) + 1 {
		if s.Any(i, ";", "}") {
			return i
		}
	}
	return max(s.Len()-1, 0)
}

// word is a bare or quoted word without its quotes, "" for several words.
func word(text string) string {
	if w := words(text); len(w) == 1 {
		return w[0]
	}
	return ""
}

// words are the words of a quoted text: one for a string, several for qw().
func words(text string) []string {
	t := strings.TrimSpace(text)
	if len(t) > 3 && strings.HasPrefix(t, "qw") {
		t = strings.TrimSpace(t[2:])
		return strings.Fields(t[1 : len(t)-1])
	}
	if len(t) > 2 && t[0] == 'q' && !syntax.IsIdentPart(t[1]) {
		t = t[1:]
	} else if len(t) > 3 && strings.HasPrefix(t, "qq") && !syntax.IsIdentPart(t[2]) {
		t = t[2:]
	}
	if len(t) >= 2 && !syntax.IsIdentPart(t[0]) && t[0] != '$' && t[0] != '@' && t[0] != '-' && t[0] != '+' && t[0] != '.' && t[0] != '/' {
		t = t[1 : len(t)-1]
	}
	if t == "" || strings.ContainsAny(t, " \n\t") {
		return nil
	}
	return []string{t}
}

func (r *reader) pack(i int) int {
	s := r.s
	j := i + 2
	if s.Kind(j) == syntax.Number || s.IsIdent(j) && strings.HasPrefix(s.Text(j), "v") {
		j++
	}
	name := s.Text(i + 1)
	if s.Is(j, "{") {
		at := r.add(name, model.DefNamespace, i, s.Close(j), "")
		r.scope = append(r.scope, span{at, s.Close(j), true})
		return j
	}
	if !s.Is(j, ";") {
		return i
	}
	if len(r.scope) == 0 {
		r.endPackage(i - 1)
		r.pkg = r.add(name, model.DefNamespace, i, j, "")
	}
	return j
}

func (r *reader) sub(i int) {
	s := r.s
	name := s.Text(i + 1)
	open := i + 2
	marks := []string{}
	for open < s.Len() && !s.Is(open, "{") && !s.Is(open, ";") && !s.Is(open, "}") {
		if s.Match(open, ":", syntax.Name) {
			marks = append(marks, s.Text(open+1))
		}
		open = s.Close(open) + 1
	}
	if s.Is(open, "}") || open >= s.Len() {
		return
	}
	parent := r.parent()
	if k := strings.LastIndex(name, "::"); k >= 0 {
		parent, name = name[:k], name[k+2:]
	}
	kind := model.DefFunction
	if s.Is(i, "method") || s.Is(open, "{") && (r.takesSelf(open) || s.Is(i+2, "(") && r.takesSelf(i+2)) {
		kind = model.DefMethod
	}
	if s.Is(open, ";") {
		return // a declaration before the definition
	}
	last := s.Close(open)
	at := r.add(name, kind, i, last, parent)
	if len(marks) > 0 {
		r.f.Definitions[at].Marks = marks
		r.action(i, open, name, parent)
	}
	r.scope = append(r.scope, span{at, last, false})
}

// takesSelf reports whether the body at open starts by taking the object it is
// called on.
func (r *reader) takesSelf(open int) bool {
	s := r.s
	for k := open + 1; k < open+6; k++ {
		switch s.Text(k) {
		case "$self", "$class", "$proto", "$this":
			return true
		}
	}
	return false
}

func (r *reader) use(i int) int {
	s := r.s
	last := r.stop(i)
	name := s.Text(i + 1)
	switch {
	case s.Is(i, "no"), name == "constant" && s.Is(i, "use"):
		if name == "constant" && s.Is(i, "use") {
			r.constants(i, last)
		}
		return i + 1
	case name == "parent" || name == "base":
		var bases []string
		load := true
		for k := i + 2; k < last; k++ {
			if s.Match(k, "-", "norequire") {
				load = false
			}
			if s.Kind(k) == syntax.String {
				bases = append(bases, words(s.Text(k))...)
			}
		}
		if len(bases) > 0 && bases[0] == "-norequire" {
			load, bases = false, bases[1:]
		}
		r.base(bases, s.Line(i), load)
		return last
	case name == "lib":
		for k := i + 2; k < last; k++ {
			if s.Kind(k) == syntax.String {
				for _, w := range words(s.Text(k)) {
					r.f.Imports = append(r.f.Imports, model.Import{Text: w, Kind: model.LinkImport, Line: s.Line(i), Alias: "lib"})
				}
			}
		}
		return last
	case strings.HasPrefix(name, "v5"):
		return i + 1
	}
	r.uses[name] = true
	im := model.Import{Text: name, Kind: model.LinkImport, Line: s.Line(i)}
	for k := i + 2; k < last; k++ {
		if s.Kind(k) == syntax.String {
			im.Names = append(im.Names, words(s.Text(k))...)
		}
	}
	sort.Strings(im.Names)
	if len(im.Names) == 0 {
		im.Names = []string{"*"}
	}
	if len(r.scope) > 0 && !r.scope[len(r.scope)-1].pack {
		im.Names = im.Names[:len(im.Names):len(im.Names)]
	}
	r.f.Imports = append(r.f.Imports, im)
	return i + 1
}

func (r *reader) constants(i, last int) {
	s := r.s
	if s.Is(i+2, "{") {
		for k := i + 3; k < s.Close(i+2); {
			if (s.Any(k, syntax.Name, syntax.Quoted)) && s.Match(k+1, "=", ">") {
				at := k
				for k < s.Close(i+2) && !s.Is(k, ",") {
					k = s.Close(k) + 1
				}
				if name := word(s.Text(at)); name != "" {
					r.add(name, model.DefConstant, at, k-1, r.parent())
				}
			}
			k++
		}
		return
	}
	if s.Any(i+2, syntax.Name, syntax.Quoted) {
		if name := word(s.Text(i + 2)); name != "" {
			r.add(name, model.DefConstant, i, last, r.parent())
		}
	}
}

// base notes what the package at hand inherits from; load says that the file
// is brought in as well.
func (r *reader) base(bases []string, line int, load bool) {
	for _, b := range bases {
		if strings.HasPrefix(b, "-") || b == "Exporter" && len(bases) == 1 && !load {
			continue
		}
		if load {
			r.f.Imports = append(r.f.Imports, model.Import{Text: b, Kind: model.LinkImport, Line: line, Names: []string{"*"}})
		}
		name := r.parent()
		for k := range r.f.Definitions {
			if d := &r.f.Definitions[k]; d.Kind == model.DefNamespace && d.Name == name {
				d.Bases = append(d.Bases, b)
			}
		}
	}
}

func (r *reader) require(i int) {
	s := r.s
	kind := model.LinkImport
	if len(r.scope) > 0 && !r.scope[len(r.scope)-1].pack {
		kind = model.LinkLazyImport
	}
	switch {
	case s.Match(i, "require", syntax.Name) && !strings.HasPrefix(s.Text(i+1), "$") && !strings.HasPrefix(s.Text(i+1), "@"):
		if name := s.Text(i + 1); !strings.HasPrefix(name, "v5") {
			r.f.Imports = append(r.f.Imports, model.Import{Text: name, Kind: kind, Line: s.Line(i)})
		}
	case s.Kind(i+1) == syntax.String:
		if p := word(s.Text(i + 1)); p != "" && !strings.ContainsAny(p, "$@<") && (strings.Contains(p, ".") || strings.Contains(p, "/")) {
			r.f.Imports = append(r.f.Imports, model.Import{Text: p, Kind: kind, Line: s.Line(i), Alias: "file"})
		}
	}
}

// classes calls a package a class where its methods or its bases say so.
func (r *reader) classes() {
	blessed := r.blessed
	moose := r.uses["Moose"] || r.uses["Moo"] || r.uses["Mouse"] || r.uses["Mojo::Base"] || r.uses["Object::Pad"] || r.uses["Moose::Role"] || r.uses["Moo::Role"]
	methods := map[string]bool{}
	for _, d := range r.f.Definitions {
		if d.Kind == model.DefMethod {
			methods[d.Parent] = true
		}
	}
	for k := range r.f.Definitions {
		d := &r.f.Definitions[k]
		if d.Kind == model.DefNamespace && (moose || len(d.Bases) > 0 && methods[d.Name] || blessed > 0 && methods[d.Name]) {
			d.Kind = model.DefClass
		}
	}
}
