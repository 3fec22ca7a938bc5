// Package perl reads Perl.
package perl

import (
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func init() {
	syntax.Register(&syntax.Language{Name: "Perl", Version: 6, Profile: syntax.Profile{
		Code: true, Plain: "perl", PathPackages: true,
	}, Loggers: []string{
		"Log::", "Mojo::Log", "Sys::Syslog",
	}, Extensions: []string{
		".pl", ".pm", ".t", ".psgi", ".cgi", ".al",
	}, FileNames: []string{"cpanfile", "Makefile.PL", "Build.PL"},
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

func read(how syntax.How, src []byte) *model.Facts {
	r := &reader{
		s: lex(src), f: syntax.NewFacts(), signs: syntax.Signs{}, names: map[string]bool{}, env: map[string]int{},
		needs: map[string]string{}, pkg: -1, uses: map[string]bool{},
	}
	r.f.Doc, r.f.DocLine = named(src)
	r.walk()
	r.endPackage(r.s.Len() - 1)
	r.classes()
	for n, line := range r.env {
		r.f.Env = append(r.f.Env, model.EnvFact{Name: n, Line: line})
	}
	sort.Slice(r.f.Env, func(i, j int) bool { return r.f.Env[i].Name < r.f.Env[j].Name })
	if abstract := r.abstract(); len(r.needs) > 0 || abstract != "" {
		r.f.Project = &model.Project{Tool: "perl", Dependencies: r.needs, Description: abstract}
		if abstract != "" {
			r.f.Doc = abstract
		}
	}
	r.f.Names = syntax.SortedSet(r.names)
	plainly.Calls(r.s, r.f)
	r.s.Implicit = true
	return syntax.Finish(how, r.f, r.s, r.signs)
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
	r.f.Definitions = append(r.f.Definitions, model.Definition{
		Name: name, Parent: parent, Kind: kind, Line: r.s.Line(first), EndLine: r.s.EndLine(last),
		Exported: exported,
	})
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

// keywords reads what each word means where it stands, and gives the last token
// that is read with it.
var keywords map[string]func(*reader, int) int

func init() {
	keywords = map[string]func(*reader, int) int{
		"package":       (*reader).packWord,
		"sub":           (*reader).subWord,
		"method":        (*reader).subWord,
		"fun":           (*reader).subWord,
		"use":           (*reader).useWord,
		"no":            (*reader).useWord,
		"require":       (*reader).require,
		"do":            (*reader).require,
		"has":           (*reader).attribute,
		"extends":       (*reader).inherits,
		"with":          (*reader).inherits,
		"our":           (*reader).global,
		"@ISA":          (*reader).isa,
		"$ENV":          (*reader).setting,
		"bless":         func(r *reader, i int) int { r.blessed++; return i },
		"requires":      (*reader).needsOne,
		"test_requires": (*reader).needsOne,
	}
	for _, name := range []string{"PREREQ_PM", "TEST_REQUIRES", "BUILD_REQUIRES"} {
		keywords[name] = (*reader).needsMany
	}
	for verb := range verbs {
		keywords[verb] = func(r *reader, i int) int { r.route(i); return i }
	}
}

func (r *reader) walk() {
	s := r.s
	for i := 0; i < s.Len(); i++ {
		for n := len(r.scope); n > 0 && i > r.scope[n-1].last; n-- {
			r.scope = r.scope[:n-1]
		}
		if s.Tokens[i].Kind != syntax.Ident {
			continue
		}
		if read := keywords[string(s.Bytes(i))]; read != nil {
			i = read(r, i)
		}
	}
}

func (r *reader) packWord(i int) int {
	if r.s.IsIdent(i+1) && r.starts(i) {
		return r.pack(i)
	}
	return i
}

func (r *reader) subWord(i int) int {
	s := r.s
	if s.IsIdent(i+1) && !s.Any(i-1, "->", ">") && !s.Is(i+2, "=") && (s.Is(i, "sub") || r.starts(i)) {
		r.sub(i)
	}
	return i
}

func (r *reader) useWord(i int) int {
	if r.starts(i) && r.s.IsIdent(i+1) {
		return r.use(i)
	}
	return i
}

// attribute reads "has name => (…);".
func (r *reader) attribute(i int) int {
	s := r.s
	if r.starts(i) && s.Any(i+1, syntax.Name, syntax.Quoted) && s.Is(i+2, "=") {
		if name := word(s.Text(i + 1)); name != "" {
			r.add(name, model.DefProperty, i, r.stop(i), r.parent())
		}
	}
	return i
}

// inherits reads "extends 'A', 'B';" and "with 'Role';".
func (r *reader) inherits(i int) int {
	if r.starts(i) {
		r.basesFrom(i, i+1, true)
	}
	return i
}

// basesFrom takes the strings of the statement at i from a token on as bases.
func (r *reader) basesFrom(i, from int, load bool) {
	for k := from; k < r.stop(i); k++ {
		if r.s.Kind(k) == syntax.String {
			r.base(words(r.s.Text(k)), r.s.Line(i), load)
		}
	}
}

// unnamed are the package variables with which a package speaks to Perl.
var unnamed = syntax.Set("", "VERSION", "EXPORT", "EXPORT_OK", "EXPORT_TAGS", "AUTOLOAD")

// global reads "our $name" at the top of a package.
func (r *reader) global(i int) int {
	if !r.starts(i) || !r.s.IsIdent(i+1) || len(r.scope) > 0 {
		return i
	}
	switch name := strings.TrimLeft(r.s.Text(i+1), "$@%"); {
	case name == "ISA":
		r.basesFrom(i, i+2, false)
	case !unnamed[name]:
		r.add(name, model.DefVariable, i, r.stop(i), r.parent())
	}
	return i
}

func (r *reader) isa(i int) int {
	if r.s.Is(i+1, "=") {
		r.basesFrom(i, i+2, false)
	}
	return i
}

// setting reads "$ENV{NAME}".
func (r *reader) setting(i int) int {
	s := r.s
	if !s.Is(i+1, "{") || s.Close(i+1) != i+3 {
		return i
	}
	name := word(s.Text(i + 2))
	if _, known := r.env[name]; name != "" && !known && !syntax.OfRequest(name) {
		r.env[name] = s.Line(i)
	}
	return i
}

// needsOne reads "requires 'Name' => '1.0';".
func (r *reader) needsOne(i int) int {
	s := r.s
	if !r.starts(i) || s.Kind(i+1) != syntax.String {
		return i
	}
	version := ""
	for k := i + 2; k < r.stop(i); k++ {
		if s.Any(k, syntax.Quoted, syntax.Figure) {
			version = word(s.Text(k))
		}
	}
	r.needs[word(s.Text(i+1))] = version
	return i
}

// needsMany reads "PREREQ_PM => { 'Name' => '1.0', … }".
func (r *reader) needsMany(i int) int {
	s := r.s
	for k := i + 1; k < i+4; k++ {
		if !s.Is(k, "{") {
			continue
		}
		for m := k + 1; m < s.Close(k); m++ {
			if s.Any(m, syntax.Quoted, syntax.Name) && s.Match(m+1, "=", ">") {
				r.needs[word(s.Text(m))] = word(s.Text(m + 3))
			}
		}
	}
	return i
}

// abstract is what a Makefile.PL says a distribution is.
func (r *reader) abstract() string {
	s := r.s
	for i := range s.Tokens {
		if s.Match(i, "ABSTRACT", "=", ">", syntax.Quoted) {
			r.f.DocLine = s.Line(i)
			return syntax.Sentence(s.Unquote(i+3), 240)
		}
	}
	return ""
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
	switch {
	case len(t) > 3 && strings.HasPrefix(t, "qw"):
		t = strings.TrimSpace(t[2:])
		return strings.Fields(t[1 : len(t)-1])
	case len(t) > 2 && t[0] == 'q' && !syntax.IsIdentPart(t[1]):
		t = t[1:]
	case len(t) > 3 && strings.HasPrefix(t, "qq") && !syntax.IsIdentPart(t[2]):
		t = t[2:]
	}
	if len(t) >= 2 && !syntax.IsIdentPart(t[0]) && !syntax.In(t[0], "$@-+./") {
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
	for open < s.Len() && !s.Any(open, "{", ";", "}") {
		if s.Match(open, ":", syntax.Name) {
			marks = append(marks, s.Text(open+1))
		}
		open = s.Close(open) + 1
	}
	if !s.Is(open, "{") {
		return // a declaration before the definition, or none
	}
	parent := r.parent()
	if k := strings.LastIndex(name, "::"); k >= 0 {
		parent, name = name[:k], name[k+2:]
	}
	kind := model.DefFunction
	if s.Is(i, "method") || r.takesSelf(open) || s.Is(i+2, "(") && r.takesSelf(i+2) {
		kind = model.DefMethod
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

// use reads "use Name …" and gives the last token that is read with it.
func (r *reader) use(i int) int {
	s := r.s
	last := r.stop(i)
	switch name := s.Text(i + 1); {
	case s.Is(i, "no"):
		return i + 1
	case name == "constant":
		r.constants(i, last)
		return i + 1
	case name == "parent", name == "base":
		r.useBases(i, last)
		return last
	case name == "lib":
		for _, w := range r.quoted(i+2, last) {
			r.f.Imports = append(r.f.Imports, model.Import{Text: w, Kind: model.LinkImport, Line: s.Line(i), Alias: "lib"})
		}
		return last
	case !strings.HasPrefix(name, "v5"):
		r.uses[name] = true
		im := model.Import{Text: name, Kind: model.LinkImport, Line: s.Line(i), Names: r.quoted(i+2, last)}
		sort.Strings(im.Names)
		if len(im.Names) == 0 {
			im.Names = []string{"*"}
		}
		r.f.Imports = append(r.f.Imports, im)
	}
	return i + 1
}

// quoted are the words of all strings between two tokens.
func (r *reader) quoted(from, to int) (all []string) {
	for k := from; k < to; k++ {
		if r.s.Kind(k) == syntax.String {
			all = append(all, words(r.s.Text(k))...)
		}
	}
	return all
}

// useBases reads "use parent -norequire, 'A', 'B';".
func (r *reader) useBases(i, last int) {
	load := true
	for k := i + 2; k < last; k++ {
		if r.s.Match(k, "-", "norequire") {
			load = false
		}
	}
	bases := r.quoted(i+2, last)
	if len(bases) > 0 && bases[0] == "-norequire" {
		load, bases = false, bases[1:]
	}
	r.base(bases, r.s.Line(i), load)
}

// constants reads "use constant NAME => …;" and "use constant { NAME => …, … };".
func (r *reader) constants(i, last int) {
	s := r.s
	if !s.Is(i+2, "{") {
		if s.Any(i+2, syntax.Name, syntax.Quoted) {
			r.constant(i+2, i, last)
		}
		return
	}
	end := s.Close(i + 2)
	for k := i + 3; k < end; k++ {
		if !s.Any(k, syntax.Name, syntax.Quoted) || !s.Match(k+1, "=", ">") {
			continue
		}
		at := k
		for k < end && !s.Is(k, ",") {
			k = s.Close(k) + 1
		}
		r.constant(at, at, k-1)
	}
}

func (r *reader) constant(name, first, last int) {
	if n := word(r.s.Text(name)); n != "" {
		r.add(n, model.DefConstant, first, last, r.parent())
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

// require reads "require Name" and "require './file.pl'", "do" likewise. It
// gives the last token read.
func (r *reader) require(i int) int {
	s := r.s
	if !r.unarrowed(i) {
		return i
	}
	im := model.Import{Kind: model.LinkImport, Line: s.Line(i)}
	if len(r.scope) > 0 && !r.scope[len(r.scope)-1].pack {
		im.Kind = model.LinkLazyImport
	}
	switch {
	case s.Match(i, "require", syntax.Name) && !syntax.In(s.Bytes(i + 1)[0], "$@"):
		if im.Text = s.Text(i + 1); !strings.HasPrefix(im.Text, "v5") {
			r.f.Imports = append(r.f.Imports, im)
		}
	case s.Kind(i+1) == syntax.String:
		im.Text, im.Alias = word(s.Text(i+1)), "file"
		if !strings.ContainsAny(im.Text, "$@<") && strings.ContainsAny(im.Text, "./") {
			r.f.Imports = append(r.f.Imports, im)
		}
	}
	return i
}

// objectMakers are the modules that make a class of the package using them.
var objectMakers = []string{"Moose", "Moo", "Mouse", "Mojo::Base", "Object::Pad", "Moose::Role", "Moo::Role"}

// classes calls a package a class where its methods or its bases say so.
func (r *reader) classes() {
	made := slices.ContainsFunc(objectMakers, func(m string) bool { return r.uses[m] })
	methods := map[string]bool{}
	for _, d := range r.f.Definitions {
		if d.Kind == model.DefMethod {
			methods[d.Parent] = true
		}
	}
	for k := range r.f.Definitions {
		d := &r.f.Definitions[k]
		if d.Kind == model.DefNamespace && (made || methods[d.Name] && (len(d.Bases) > 0 || r.blessed > 0)) {
			d.Kind = model.DefClass
		}
	}
}
