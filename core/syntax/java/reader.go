// Package java reads Java.
package java

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
	"jantel/core/syntax/jvm"
	"jantel/core/syntax/typed"
)

func init() {
	syntax.Register(&syntax.Language{Name: "Java", Version: 8, Profile: syntax.Profile{
		ExactRoutes: true,
		Code:        true, PathPackages: true, Namespace: ".", NamespaceIsPath: true, OneType: true, NamedForType: true,
		Inherits: true, Overloads: true, FolderFiles: []string{"package-info.java"},
		ListOne: syntax.Set("get", "next", "poll", "peek", "remove", "first", "last", "pop", "orElse", "orElseThrow", "getOrDefault", "put"),
		ListGives: syntax.Set("stream", "iterator", "subList", "filter", "sorted", "limit", "skip", "distinct", "toList",
			"parallelStream", "values"),
	}, Loggers: []string{
		"slf4j", "log4j", "java.util.logging", "commons.logging", "logback", "jboss.logging", "flogger",
		"lombok.extern", "android.util.Log", "System.Logger",
	}, Extensions: []string{".java"}, Read: read,
		Resolve: func(t *syntax.Tree) { jvm.Resolve(t, "Java") }})
}

var grammar = &syntax.Braces{Special: textBlock}

// textBlock takes a string between three quotes, which runs over lines.
func textBlock(b *syntax.Builder) bool {
	if b.Src[b.Pos] != '"' || !b.Next(`"""`) {
		return false
	}
	b.Until(3, `"""`)
	// An escaped quote does not end it.
	for b.Pos-4 > 0 && b.Src[b.Pos-4] == '\\' && b.Last().Kind == syntax.String && b.Pos < len(b.Src) {
		start, line := int(b.Last().Start), int(b.Last().Line)
		b.Tokens = b.Tokens[:len(b.Tokens)-1]
		b.Pos -= 2
		b.Until(0, `"""`)
		if t := b.Last(); t != nil {
			t.Line = int32(line)
			b.FromEarlier(start)
		}
	}
	return true
}

var environment = &syntax.Environment{Calls: syntax.Set("System.getenv")}

type reader struct {
	s     *syntax.Stream
	f     *model.Facts
	signs syntax.Signs
	names map[string]bool
	// interfaces tells of each type, by its qualified name, whether it is one: each
	// of its members asks, and there may be very many.
	interfaces map[string]bool
}

func read(how syntax.How, src []byte) *model.Facts {
	r := &reader{s: grammar.Lex(src), f: syntax.NewFacts(), signs: syntax.Signs{}, names: map[string]bool{}, interfaces: map[string]bool{}}
	r.file()
	if len(r.f.Definitions) == 0 {
		r.doc()
	}
	r.f.Mentions = syntax.TypeMentions(r.s, keywords)
	jvm.Routes(r.s, r.f)
	r.f.Env = environment.Read(r.s)
	r.f.Names = syntax.SortedSet(r.names)
	typed.Walk(r.s, dialect)
	return syntax.Finish(how, r.f, r.s, r.signs)
}

// doc keeps what a file without types says of its package, above its name.
func (r *reader) doc() {
	for _, c := range r.s.Comments {
		if t := string(r.s.Src[c.Start:c.End]); strings.HasPrefix(t, "/**") && (r.s.Len() == 0 || c.Start < r.s.Tokens[0].Start) {
			r.f.Doc, r.f.DocLine = syntax.DocComment(t), int(c.Line)
		}
	}
}

var keywords = map[string]bool{
	"Override": true, "String": true, "Object": true, "Integer": true, "Long": true, "Boolean": true, "Double": true,
	"System": true, "Exception": true, "Deprecated": true,
}

func (r *reader) file() {
	s := r.s
	for i := 0; i < s.Len(); {
		switch {
		case s.Match(i, "package", syntax.Name):
			r.f.Namespace, i = jvm.Dotted(r.s, i+1)
			i++
		case s.Is(i, "import"):
			i = r.importStatement(i)
		case s.Is(i, ";"):
			i++
		default:
			i = max(r.member(i, s.Len(), ""), i+1)
		}
	}
}

func (r *reader) importStatement(i int) int {
	s := r.s
	im := model.Import{Kind: model.LinkImport, Line: s.Line(i)}
	i++
	if s.Is(i, "static") {
		im.Alias = "static"
		i++
	}
	im.Text, i = jvm.Dotted(r.s, i)
	if im.Text != "" {
		r.f.Imports = append(r.f.Imports, im)
	}
	if s.Is(i, ";") {
		i++
	}
	return i
}

var modifiers = map[string]bool{
	"public": true, "protected": true, "private": true, "static": true, "final": true, "abstract": true,
	"native": true, "synchronized": true, "transient": true, "volatile": true, "strictfp": true, "default": true,
	"sealed": true,
}

// typeWords are the words that begin a type with a body.
var typeWords = map[string]model.DefinitionKind{"class": model.DefClass, "interface": model.DefInterface, "enum": model.DefEnum}

// declared is a declaration as far as it is read: where it begins, where it has
// to end, what holds it, and what is said before its word.
type declared struct {
	first, end       int
	parent           string
	public, constant bool
	marks            []string
}

func (d *declared) define(s *syntax.Stream, name string, kind model.DefinitionKind) model.Definition {
	return model.Definition{Name: name, Parent: d.parent, Kind: kind, Line: s.Line(d.first), Exported: d.public, Marks: d.marks}
}

// member reads one declaration: a type, or within a type a method, a field or
// a block. It returns the index behind it.
func (r *reader) member(i, end int, parent string) int {
	s := r.s
	d, said, i := r.head(i, end, parent)
	kind := typeWords[s.Text(i)]
	switch {
	case s.Is(i, "record"):
		// "record" is only a word of the language before a name and its parts.
		if s.IsIdent(i+1) && s.Any(i+2, "(", "<") {
			kind = model.DefClass
		}
	case s.Match(i, "@", "interface"):
		kind = model.DefInterface
		i++
	}
	switch {
	case kind != "" && s.IsIdent(i+1):
		return r.typeBody(d, i+1, kind)
	case s.Is(i, "{"), parent == "":
		return s.Close(i) + 1
	}
	inInterface := r.interfaces[parent]
	d.public = d.public || inInterface && !said["private"]
	d.constant = inInterface || said["static"] && said["final"]
	return r.valueOrMethod(d, i)
}

// head reads the annotations and words before a declaration.
func (r *reader) head(i, end int, parent string) (d declared, said map[string]bool, next int) {
	s := r.s
	d = declared{first: i, end: end, parent: parent}
	for i < end {
		switch {
		case s.Is(i, "@") && !s.Is(i+1, "interface"):
			var name string
			name, i = r.annotation(i)
			d.marks = append(d.marks, "@"+name)
		case s.Match(i, "non", "-", "sealed"):
			i += 3
		case s.IsIdent(i) && modifiers[string(s.Bytes(i))]:
			if said == nil {
				said = map[string]bool{}
			}
			said[s.Text(i)] = true
			d.public = d.public || s.Is(i, "public")
			i++
		default:
			return d, said, i
		}
	}
	return d, said, i
}

// annotation reads @Name(…) and gives the token behind it.
func (r *reader) annotation(i int) (string, int) {
	name, j := jvm.Dotted(r.s, i+1)
	if r.s.Is(j, "(") {
		j = r.s.Close(j) + 1
	}
	return name, j
}

// angle steps over <…> at i.
func (r *reader) angle(i int) int {
	if !r.s.Is(i, "<") {
		return i
	}
	depth := 0
	for ; i < r.s.Len(); i++ {
		switch string(r.s.Bytes(i)) {
		case "<":
			depth++
		case ">":
			if depth--; depth == 0 {
				return i + 1
			}
		case ";", "{", "}":
			return i
		}
	}
	return i
}

// typeBody reads a type whose name stands at i.
func (r *reader) typeBody(d declared, i int, kind model.DefinitionKind) int {
	s := r.s
	def := d.define(s, s.Text(i), kind)
	if d.parent == "" {
		r.names[def.Name] = true
	}
	i = r.angle(i + 1)
	parts := -1
	if s.Is(i, "(") { // the parts of a record
		parts = i
		def.Params, _ = r.count(i)
		i = s.Close(i) + 1
	}
	def.Bases, i = r.bases(i, d.end)
	last := s.Close(i)
	def.EndLine = s.EndLine(last)
	r.f.Definitions = append(r.f.Definitions, def)
	r.interfaces[def.Qualified()] = def.Kind == model.DefInterface
	name := def.Qualified()
	if parts >= 0 {
		r.recordParts(parts, name)
	}
	if last == i {
		return i + 1
	}
	i++
	if kind == model.DefEnum {
		i = r.enumConstants(i, last, name)
	}
	for i < last {
		if s.Is(i, ";") {
			i++
			continue
		}
		i = max(r.member(i, last, name), i+1)
	}
	return last + 1
}

// bases reads "extends A<B> implements C, D" up to the body.
func (r *reader) bases(i, end int) (bases []string, next int) {
	s := r.s
	for i < end && !s.Any(i, "{", ";") {
		switch {
		case s.Any(i, "extends", "implements", ",") && !s.Is(i+1, "@"):
			name, j := jvm.Dotted(s, i+1)
			if name != "" {
				bases = append(bases, name)
			}
			i = r.angle(max(j, i+1))
		case s.Is(i, "permits"):
			for i < end && !s.Is(i, "{") {
				i++
			}
		default:
			i++
		}
	}
	return bases, i
}

// recordParts defines the parts of a record: the last word before each comma.
func (r *reader) recordParts(open int, parent string) {
	s := r.s
	end := s.Close(open)
	for k := open + 1; k < end; k++ {
		k = r.angle(k)
		if s.IsIdent(k) && (s.Is(k+1, ",") || k+1 == end) {
			r.f.Definitions = append(r.f.Definitions, model.Definition{
				Name: s.Text(k), Parent: parent, Kind: model.DefProperty, Line: s.Line(k), EndLine: s.Line(k), Exported: true,
			})
		} else if s.Is(k, "(") {
			k = s.Close(k)
		}
	}
}

// enumConstants reads the constants of an enumeration, up to the semicolon that
// may end them.
func (r *reader) enumConstants(i, end int, parent string) int {
	s := r.s
	for i < end && !s.Is(i, ";") {
		first := i
		for s.Is(i, "@") {
			_, i = r.annotation(i)
		}
		if !s.IsIdent(i) {
			i++
			continue
		}
		d := model.Definition{Name: s.Text(i), Parent: parent, Kind: model.DefConstant, Line: s.Line(first), Exported: true}
		last := i
		if s.Is(last+1, "(") {
			last = s.Close(last + 1)
		}
		body := -1
		if s.Is(last+1, "{") {
			body = last + 1
			last = s.Close(body)
		}
		d.EndLine = s.EndLine(last)
		r.f.Definitions = append(r.f.Definitions, d)
		r.interfaces[d.Qualified()] = false
		if body >= 0 {
			for k := body + 1; k < last; {
				k = max(r.member(k, last, d.Qualified()), k+1)
			}
		}
		i = last + 1
	}
	return i
}

// count is the number of parameters in the parentheses at i.
func (r *reader) count(i int) (n int, variadic bool) {
	s := r.s
	end := s.Close(i)
	for k := i + 1; k < end; {
		if n == 0 {
			n = 1
		}
		if k2 := r.angle(k); k2 > k {
			k = k2
			continue
		}
		if s.Is(k, ",") {
			n++
		}
		variadic = variadic || s.Is(k, "...") || s.Match(k, ".", ".", ".")
		k = s.Close(k) + 1
	}
	return n, variadic
}

// valueOrMethod reads a method, a constructor or fields; what comes first, a
// parenthesis or the end of a statement, tells which.
func (r *reader) valueOrMethod(d declared, i int) int {
	s := r.s
	i = r.angle(i) // type parameters of a method
	for i < d.end {
		switch {
		case s.Is(i, "<"):
			i = max(r.angle(i), i+1)
		case s.Is(i, "["):
			i = s.Close(i) + 1
		case s.Is(i, "@"):
			_, i = r.annotation(i)
		case s.Is(i, "("):
			if !s.IsIdent(i - 1) {
				return s.Close(i) + 1
			}
			return r.method(d, i)
		case s.Any(i, "=", ";", ","):
			return r.fields(d, i)
		case s.Is(i, "{"): // a compact constructor of a record
			if s.IsIdent(i-1) && i-1 >= d.first {
				def := d.define(s, s.Text(i-1), model.DefMethod)
				def.EndLine = s.EndLine(s.Close(i))
				r.f.Definitions = append(r.f.Definitions, def)
			}
			return s.Close(i) + 1
		case s.Is(i, "}"):
			return i + 1
		default:
			i++
		}
	}
	return i
}

// method reads a method whose parameters open at paren.
func (r *reader) method(d declared, paren int) int {
	s := r.s
	def := d.define(s, s.Text(paren-1), model.DefMethod)
	def.Params, def.Variadic = r.count(paren)
	j := s.Close(paren) + 1
	for j < d.end && !s.Any(j, "{", ";", "}") {
		j = s.Close(j) + 1
	}
	last := s.Close(j)
	def.EndLine = s.EndLine(last)
	r.f.Definitions = append(r.f.Definitions, def)
	if def.Name == "main" && isStatic(s, d.first, paren) && r.f.Starts == 0 {
		r.f.Starts = s.Line(d.first)
	}
	r.locals(j, last, def.Qualified())
	return last + 1
}

func isStatic(s *syntax.Stream, first, paren int) bool {
	for k := first; k < paren; k++ {
		if s.Is(k, "static") {
			return true
		}
	}
	return false
}

// locals reads the types declared inside a body, the only declarations there
// that a reader would call by name.
func (r *reader) locals(open, end int, parent string) {
	s := r.s
	for k := open + 1; k < end; k++ {
		if (s.Any(k, "class", "enum", "interface") || s.Match(k, "record", syntax.Name) && (s.Any(k+2, "(", "<"))) && s.IsIdent(k+1) &&
			!s.Is(k-1, ".") {
			first := k
			for first-1 > open && modifiers[string(s.Bytes(first-1))] {
				first--
			}
			k = max(r.member(first, end, parent)-1, k)
		}
	}
}

// fields reads "T a = 1, b[];" whose first name ends before i. Each of several
// names ends where its own part of the statement does.
func (r *reader) fields(d declared, i int) int {
	s := r.s
	kind := model.DefProperty
	if d.constant {
		kind = model.DefConstant
	}
	made := -1 // the field read last
	ends := func(at int) {
		if made >= 0 {
			r.f.Definitions[made].EndLine = s.EndLine(min(at, s.Len()-1))
		}
	}
	name := func(at int) {
		for s.Any(at, "]", "[") {
			at--
		}
		if s.IsIdent(at) && at > d.first {
			made = len(r.f.Definitions)
			r.f.Definitions = append(r.f.Definitions, d.define(s, s.Text(at), kind))
		}
	}
	name(i - 1)
	for i < d.end && !s.Is(i, ";") {
		switch {
		case s.Is(i, "="):
			i = r.valueEnd(i, d.end)
		case s.Is(i, ","):
			ends(i)
			for i++; i < d.end && !s.Any(i, ",", "=", ";"); {
				i = s.Close(i) + 1
			}
			name(i - 1)
		default:
			i = s.Close(i) + 1
		}
	}
	ends(i)
	return i + 1
}

// valueEnd is the comma or the semicolon that ends the value at i: a comma
// between the type arguments of a value parts nothing, one before a name and
// its value or end does.
func (r *reader) valueEnd(i, end int) int {
	s := r.s
	for i < end && !s.Is(i, ";") {
		if s.Match(i, ",", syntax.Name) && s.Any(i+2, "=", ",", ";", "[") {
			break
		}
		i = s.Close(i) + 1
	}
	return i
}
