// Package php reads PHP.
package php

import (
	"bytes"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func init() {
	syntax.Register(&syntax.Language{
		Name: "PHP", Version: 8,
		Profile: syntax.Profile{
			Code: true, Pages: true, Invoked: "__invoke", Namespace: `\`, NamespaceIsPath: true, OneType: true, NamedForType: true,
			Inherits: true},
		Extensions: []string{".php", ".phtml", ".inc", ".php5"}, Shebangs: []string{"php"}, Read: read,
		Resolve: resolve,
	})
}

var environment = &syntax.Environment{Calls: syntax.Set("getenv", "env", `\getenv`), Indexed: syntax.Set("$_ENV")}

type reader struct {
	s     *syntax.Stream
	f     *model.Facts
	signs syntax.Signs
	names map[string]bool
	seen  map[string]int // names of classes met, with their first line
	// classPrefix is the address on the class whose methods are read.
	classPrefix string
	use         map[int]bool // tokens that belong to import statements
}

func read(how syntax.How, src []byte) *model.Facts {
	r := &reader{
		s: lex(src), f: syntax.NewFacts(), signs: syntax.Signs{}, names: map[string]bool{}, seen: map[string]int{},
		use: map[int]bool{},
	}
	r.statements(0, r.s.Len(), "")
	r.mentions()
	r.routes()
	r.pages()
	r.f.Env = environment.Read(r.s)
	r.f.Names = syntax.SortedSet(r.names)
	r.bodies()
	return syntax.Finish(how, r.f, r.s, r.signs)
}

// is compares a keyword, which this language writes in any case.
func (r *reader) is(i int, word string) bool {
	b := r.s.Bytes(i)
	return len(b) == len(word) && r.s.IsIdent(i) && strings.EqualFold(string(b), word)
}

// end is the index of the sign that ends the statement at i: a semicolon, a
// closing mark or the bracket around it.
func (r *reader) end(i, limit int) int {
	s := r.s
	for i < limit && !s.Is(i, ";") && s.Kind(i) != syntax.Newline && !s.Is(i, "}") {
		i = s.Close(i) + 1
	}
	return min(i, limit)
}

func (r *reader) define(first, last int, parent, name string, kind model.DefinitionKind, public bool) *model.Definition {
	s := r.s
	r.f.Definitions = append(r.f.Definitions, model.Definition{
		Name: name, Parent: parent, Kind: kind, Line: s.Line(first), EndLine: s.EndLine(last), Exported: public,
	})
	if parent == "" {
		r.names[name] = true
	}
	return &r.f.Definitions[len(r.f.Definitions)-1]
}

var modifiers = map[string]bool{
	"abstract": true, "final": true, "readonly": true, "public": true, "protected": true, "private": true,
	"static": true, "var": true,
}

// statements walks statements at the top and inside functions and blocks:
// functions and classes may be declared under a condition.
func (r *reader) statements(i, end int, parent string) {
	s := r.s
	for i < end {
		next := i + 1
		switch {
		case s.Kind(i) == syntax.Text, s.Kind(i) == syntax.Newline:
		case s.Match(i, "#", "["):
			// Attributes belong to what follows.
			j := i
			for s.Match(j, "#", "[") {
				j = s.Close(j+1) + 1
			}
			if n := r.declaration(i, j, end, parent); n > 0 {
				next = n
			} else {
				next = j
			}
		case s.IsIdent(i):
			if s.Match(i-2, "-", ">") || s.Match(i-2, ":", ":") {
				break
			}
			if n := r.declaration(i, i, end, parent); n > 0 {
				next = n
				break
			}
			if r.is(i, "class") && r.is(i-1, "new") {
				next = r.nameless(i, end, parent)
				break
			}
			next = r.word(i, end, parent)
		}
		i = max(next, i+1)
	}
}

// word handles the keywords that start a statement.
func (r *reader) word(i, end int, parent string) int {
	s := r.s
	switch strings.ToLower(s.Text(i)) {
	case "namespace":
		if s.IsIdent(i+1) && parent == "" {
			if r.f.Namespace == "" {
				r.f.Namespace = strings.Trim(s.Text(i+1), "\\")
			}
			r.use[i+1] = true
			return i + 2
		}
	case "use":
		if parent == "" && !s.Is(i+1, "(") { // what a closure takes along is no import
			return r.useStatement(i, end)
		}
	case "const":
		last := r.end(i, end)
		r.constants(i, last, parent, true)
		return last
	case "define":
		if s.Match(i+1, "(", syntax.Quoted, ",") {
			r.define(i, s.Close(i+1), "", s.Unquote(i+2), model.DefConstant, true)
			return i + 2
		}
	case "include", "include_once", "require", "require_once":
		r.include(i, end)
	}
	return i + 1
}

// valueEnd is the token before the comma or the end behind a constant's value.
func (r *reader) valueEnd(k, last int) int {
	for k < last && !r.s.Is(k, ",") {
		k = r.s.Close(k) + 1
	}
	return k - 1
}

// include keeps a file that is taken in by path, as far as the path is
// written down: a literal, or one behind __DIR__ or dirname(__FILE__).
func (r *reader) include(i, end int) {
	s := r.s
	last := r.end(i, end)
	j := i + 1
	if s.Is(j, "(") && s.Close(j)+1 >= last {
		j++
	}
	im := model.Import{Kind: model.LinkImport, Line: s.Line(i), Alias: "path"}
	up := 0
	for depth := 0; s.Any(j, syntax.Name, "("); j++ {
		switch {
		case r.is(j, "dirname"), r.is(j, `\dirname`):
			up++
		case r.is(j, "__DIR__"):
			im.Alias = "here"
		case r.is(j, "__FILE__"):
			im.Alias, up = "here", up-1
		case s.Is(j, "(") && depth < 10:
			depth++
		default:
			return
		}
	}
	for s.Any(j, ")", syntax.Figure, ",") {
		j++
	}
	if s.Is(j, ".") {
		j++
	}
	if up < 0 || s.Kind(j) != syntax.String || !s.Any(j+1, ";", ")", syntax.Break) {
		return
	}
	im.Text = strings.Repeat("../", up) + strings.TrimPrefix(s.Unquote(j), "/")
	if !strings.ContainsAny(im.Text, "$\n") {
		r.f.Imports = append(r.f.Imports, im)
	}
}

// useStatement reads "use A\B;", "use A\{B, C as D};", "use function a\b;".
func (r *reader) useStatement(i, end int) int {
	s := r.s
	last := r.end(i, end)
	sort, j := r.useSort(i+1, "")
	for ; j < last; j++ {
		switch {
		case !s.IsIdent(j):
		case s.Match(j+1, "\\", "{"):
			j = r.useGroup(j, sort)
		default:
			r.useName(j, "", sort)
			j = r.commaBefore(j, last)
		}
	}
	for k := i; k < last; k++ {
		r.use[k] = true
	}
	return last
}

// useSort is "function" or "const" where that stands at j, else what it is so
// far; with the token behind.
func (r *reader) useSort(j int, soFar string) (string, int) {
	if (r.is(j, "function") || r.is(j, "const")) && r.s.IsIdent(j+1) {
		return strings.ToLower(r.s.Text(j)), j + 1
	}
	return soFar, j
}

// useGroup reads "A\{B, function c}" and gives the bracket that closes it.
func (r *reader) useGroup(j int, sort string) int {
	s := r.s
	prefix, close := strings.TrimPrefix(s.Text(j), "\\")+"\\", s.Close(j+2)
	for k := j + 3; k < close; k++ {
		inner, name := r.useSort(k, sort)
		if k = name; s.IsIdent(k) {
			r.useName(k, prefix, inner)
			k = r.commaBefore(k, close)
		}
	}
	return close
}

// commaBefore is the next comma from k on, end without one.
func (r *reader) commaBefore(k, end int) int {
	for k < end && !r.s.Is(k, ",") {
		k++
	}
	return k
}

// useName keeps the name at j, with the name it goes by here.
func (r *reader) useName(j int, prefix, sort string) {
	name := prefix + strings.TrimPrefix(r.s.Text(j), "\\")
	im := model.Import{Kind: model.LinkImport, Line: r.s.Line(j), Text: name, Alias: name[strings.LastIndexByte(name, '\\')+1:]}
	if r.is(j+1, "as") && r.s.IsIdent(j+2) {
		im.Alias = r.s.Text(j + 2)
	}
	if sort != "" {
		im.Names = []string{sort}
	}
	r.f.Imports = append(r.f.Imports, im)
}

// declaration reads a class-like thing or a function whose modifiers start at
// i, its attributes at first. It returns 0 when there is none.
func (r *reader) declaration(first, i, end int, parent string) int {
	s := r.s
	for s.IsIdent(i) && modifiers[strings.ToLower(s.Text(i))] {
		i++
	}
	if !s.IsIdent(i) {
		return 0
	}
	switch strings.ToLower(s.Text(i)) {
	case "function":
		if j := r.functionName(i); j > 0 {
			return r.function(first, j, end, parent, model.DefFunction, true)
		}
	case "class", "trait":
		if s.IsIdent(i+1) && !s.Match(i-2, ":", ":") && !r.is(i-1, "new") {
			return r.class(first, i+1, end, parent, model.DefClass)
		}
	case "interface":
		if s.IsIdent(i + 1) {
			return r.class(first, i+1, end, parent, model.DefInterface)
		}
	case "enum":
		if s.IsIdent(i+1) && (s.Any(i+2, "{", ":") || r.is(i+2, "implements")) {
			return r.class(first, i+1, end, parent, model.DefEnum)
		}
	}
	return 0
}

// marks are the names of the attributes that begin at a token, without their namespaces.
func (r *reader) marks(i int) (out []string) {
	s := r.s
	for ; s.Match(i, "#", "["); i = s.Close(i+1) + 1 {
		for k, end := i+2, s.Close(i+1); k < end; k = s.Close(k) + 1 {
			if s.IsIdent(k) && (k == i+2 || s.Is(k-1, ",")) {
				name := s.Text(k)
				out = append(out, name[strings.LastIndexByte(name, '\\')+1:])
			}
		}
	}
	return out
}

// functionName is where the name of the function stands whose word is at i, 0
// where it has none.
func (r *reader) functionName(i int) int {
	j := i + 1
	if r.s.Is(j, "&") {
		j++
	}
	if r.s.Match(j, syntax.Name, "(") {
		return j
	}
	return 0
}

// function reads a function or method whose name stands at i.
func (r *reader) function(first, i, end int, parent string, kind model.DefinitionKind, public bool) int {
	s := r.s
	j := s.Close(i+1) + 1
	for j < end && !s.Is(j, "{") && !s.Is(j, ";") && s.Kind(j) != syntax.Newline {
		j = s.Close(j) + 1
	}
	last := min(s.Close(j), s.Len()-1)
	d := r.define(first, last, parent, s.Text(i), kind, public)
	d.Params = r.params(i + 1)
	name := d.Qualified()
	if s.Is(j, "{") {
		// What is declared in a body is declared for all once it runs.
		r.statements(j+1, last, name)
	}
	return last + 1
}

func (r *reader) params(open int) int {
	n := 0
	for k, end := open+1, r.s.Close(open); k < end; k = r.s.Close(k) + 1 {
		if b := r.s.Bytes(k); r.s.IsIdent(k) && b[0] == '$' && !r.s.Is(k-1, "=") {
			n++
		}
	}
	return n
}

func (r *reader) class(first, i, end int, parent string, kind model.DefinitionKind) int {
	s := r.s
	d := r.define(first, i, parent, s.Text(i), kind, true)
	at := len(r.f.Definitions) - 1
	r.f.Definitions[at].Marks = r.marks(first)
	name := d.Qualified()
	r.use[i] = true
	j := i + 1
	taking := false
	for j < end && !s.Is(j, "{") && !s.Is(j, ";") {
		switch {
		case r.is(j, "extends"), r.is(j, "implements"):
			taking = true
		case taking && s.IsIdent(j):
			r.f.Definitions[at].Bases = append(r.f.Definitions[at].Bases, s.Text(j))
		}
		j = s.Close(j) + 1
	}
	last := min(s.Close(j), s.Len()-1)
	r.f.Definitions[at].EndLine = s.EndLine(last)
	if !s.Is(j, "{") {
		return j
	}
	r.members(j+1, last, name, at)
	return last + 1
}

// nameless reads a class without a name: its members belong to what is around.
func (r *reader) nameless(i, end int, parent string) int {
	s := r.s
	j := i + 1
	for j < end && !s.Is(j, "{") && !s.Is(j, ";") {
		j = s.Close(j) + 1
	}
	if last := s.Close(j); s.Is(j, "{") && last > j {
		r.members(j+1, last, parent, -1)
		return last + 1
	}
	return i + 1
}

// members reads the body of a class; class is the index of its definition, -1
// when it has none.
func (r *reader) members(i, end int, parent string, class int) {
	for i < end {
		i = max(r.classMember(i, end, parent, class), i+1)
	}
}

// classMember reads one member and gives the token behind it.
func (r *reader) classMember(i, end int, parent string, class int) int {
	s, first := r.s, i
	for s.Match(i, "#", "[") {
		i = s.Close(i+1) + 1
	}
	public, found := true, false
	for s.IsIdent(i) && modifiers[strings.ToLower(s.Text(i))] {
		public = public && !r.is(i, "private") && !r.is(i, "protected")
		found = true
		i++
	}
	last := r.end(i, end)
	switch {
	case r.is(i, "use"):
		return r.useTraits(i, end, class)
	case r.is(i, "const"):
		r.constants(i, last, parent, public)
	case r.is(i, "case") && s.IsIdent(i+1):
		r.define(first, last, parent, s.Text(i+1), model.DefConstant, true)
	case r.is(i, "function"):
		j := r.functionName(i)
		if j == 0 {
			return i + 1
		}
		if r.is(j, "__construct") {
			r.promoted(j+1, parent)
		}
		return r.function(first, j, end, parent, model.DefMethod, public)
	case found, s.IsIdent(i):
		r.properties(i, last, parent, public)
	default:
		return s.Close(i) + 1
	}
	return last + 1
}

// useTraits reads what a class takes in whole.
func (r *reader) useTraits(i, end, class int) int {
	s := r.s
	last := i + 1
	for ; last < end && !s.Any(last, ";", "{"); last++ {
		if s.IsIdent(last) && class >= 0 {
			r.f.Definitions[class].Bases = append(r.f.Definitions[class].Bases, s.Text(last))
		}
	}
	return s.Close(last) + 1 // a block may say how names of traits are told apart
}

// constants reads "const A = 1, B = 2".
func (r *reader) constants(i, last int, parent string, public bool) {
	s := r.s
	for k := i + 1; k < last; k = s.Close(k) + 1 {
		if s.Match(k, syntax.Name, "=") {
			r.define(k, r.valueEnd(k, last), parent, s.Text(k), model.DefConstant, public)
		}
	}
}

func (r *reader) properties(i, last int, parent string, public bool) {
	s := r.s
	for k := i; k < last; k = s.Close(k) + 1 {
		if b := s.Bytes(k); s.IsIdent(k) && len(b) > 1 && b[0] == '$' && (k == i || !s.Is(k-1, "=") && !s.Is(k-1, ".")) {
			end := r.valueEnd(k, last)
			r.define(k, end, parent, string(b[1:]), model.DefProperty, public)
			k = end
		}
	}
}

// promoted reads the properties that a constructor declares as parameters.
func (r *reader) promoted(open int, parent string) {
	s := r.s
	end := s.Close(open)
	for k := open + 1; k < end; {
		stop := k
		for stop < end && !s.Is(stop, ",") {
			stop = s.Close(stop) + 1
		}
		r.promotedOne(k, stop, parent)
		k = stop + 1
	}
}

func (r *reader) promotedOne(first, stop int, parent string) {
	s := r.s
	made, public := false, true
	for k := first; k < stop; k = s.Close(k) + 1 {
		switch {
		case !s.IsIdent(k):
		case r.is(k, "public"), r.is(k, "readonly"):
			made = true
		case r.is(k, "private"), r.is(k, "protected"):
			made, public = true, false
		case made && s.Bytes(k)[0] == '$':
			r.define(first, stop-1, parent, s.Text(k)[1:], model.DefProperty, public)
			made = false
		}
	}
}

var builtin = map[string]bool{
	"self": true, "parent": true, "static": true, "true": true, "false": true, "null": true, "string": true,
	"int": true, "float": true, "bool": true, "array": true, "void": true, "mixed": true, "callable": true,
	"iterable": true, "object": true, "never": true,
}

// mentions gathers the names that stand where a class stands.
func (r *reader) mentions() {
	s := r.s
	for i := range s.Tokens {
		if s.Tokens[i].Kind == syntax.Ident && !r.use[i] && r.namesClass(i) {
			if n := s.Text(i); r.seen[n] == 0 {
				r.seen[n] = s.Line(i)
			}
		}
	}
	for n, line := range r.seen {
		r.f.Mentions = append(r.f.Mentions, model.Mention{Name: n, Line: line})
	}
	sort.Slice(r.f.Mentions, func(i, j int) bool { return r.f.Mentions[i].Name < r.f.Mentions[j].Name })
}

// namesClass reports whether the name at i is that of a class: written with a
// namespace or a capital, or where nothing else can stand; no member, nor what
// is declared or called.
func (r *reader) namesClass(i int) bool {
	s := r.s
	b := s.Bytes(i)
	if b[0] == '$' || s.Match(i-2, "-", ">") || s.Match(i-2, ":", ":") || r.isAny(i-1, "function", "const", "case") {
		return false
	}
	last := b[bytes.LastIndexByte(b, '\\')+1:]
	if len(last) == 0 || builtin[strings.ToLower(string(b))] {
		return false
	}
	made := r.is(i-1, "new")
	if small := last[0] >= 'a' && last[0] <= 'z' || last[0] == '_'; small && len(last) == len(b) {
		if !made && !s.Is(i+1, ":") && !r.isAny(i-1, "extends", "implements", "instanceof") {
			return false
		}
	}
	return made || !s.Is(i+1, "(") || s.Any(i-1, "[", ",")
}

func (r *reader) isAny(i int, words ...string) bool {
	return slices.ContainsFunc(words, func(w string) bool { return r.is(i, w) })
}
