// Package csharp reads C#.
package csharp

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
	"jantel/core/syntax/typed"
)

func init() {
	syntax.Register(&syntax.Language{
		Name: "C#", Version: 2,
		Profile: syntax.Profile{
			ExactRoutes: true, ToolFolders: []string{"Properties"},
			Code: true, Namespace: ".", OneType: true, NamedForType: true, Inherits: true, PartialTypes: true,
			ControllerEnd: "Controller.cs",
			ListOne: syntax.Set("First", "FirstOrDefault", "Single", "SingleOrDefault", "Last", "LastOrDefault", "Find", "FindAsync",
				"FirstAsync", "FirstOrDefaultAsync", "SingleAsync", "SingleOrDefaultAsync", "Dequeue", "Pop", "Peek", "ElementAt"),
			ListGives: syntax.Set("Where", "OrderBy", "OrderByDescending", "ThenBy", "Skip", "Take", "ToList", "ToArray", "Include",
				"ThenInclude", "AsNoTracking", "Distinct", "Reverse", "Concat", "AsQueryable", "ToListAsync", "ToArrayAsync", "AsEnumerable"),
		},
		Loggers:    []string{"Microsoft.Extensions.Logging", "Serilog", "NLog", "log4net", "System.Diagnostics"},
		Extensions: []string{".cs", ".csx"}, Read: read, Resolve: resolve,
	})
}

var environment = &syntax.Environment{Calls: syntax.Set("Environment.GetEnvironmentVariable")}

type reader struct {
	s     *syntax.Stream
	f     *model.Facts
	signs syntax.Signs
	names map[string]bool
	loose int // line of the first statement that stands outside of any type
}

var builtin = syntax.Set(
	"String", "Object", "Task", "List", "Dictionary", "Exception", "Console", "Math", "Int32", "Boolean", "Guid",
	"DateTime", "Func", "Action",
)

func read(how syntax.How, src []byte) *model.Facts {
	r := &reader{s: grammar.Lex(src), f: syntax.NewFacts(), signs: syntax.Signs{}, names: map[string]bool{}}
	r.body(0, r.s.Len(), "")
	if r.loose > 0 && r.f.Starts == 0 {
		r.f.Starts = r.loose
	}
	r.f.Mentions = syntax.TypeMentions(r.s, builtin)
	r.f.Env = environment.Read(r.s)
	r.routes()
	r.f.Names = syntax.SortedSet(r.names)
	typed.Walk(r.s, dialect)
	return syntax.Finish(how, r.f, r.s, r.signs)
}

// dotted reads A.B.C and returns the index behind it.
func (r *reader) dotted(i int) (string, int) {
	s := r.s
	var b strings.Builder
	for s.IsIdent(i) {
		b.Write(s.Bytes(i))
		i++
		if s.Match(i, ":", ":") { // global::System
			b.Reset()
			i += 2
			continue
		}
		if !s.Is(i, ".") || !s.IsIdent(i+1) {
			break
		}
		b.WriteByte('.')
		i++
	}
	return b.String(), i
}

// angle steps over <…> at i.
func (r *reader) angle(i int) int {
	s := r.s
	if !s.Is(i, "<") {
		return i
	}
	depth := 0
	for k := i; k < s.Len() && k < i+600; k = s.Close(k) + 1 {
		switch string(s.Bytes(k)) {
		case "<":
			depth++
		case ">":
			if depth--; depth == 0 {
				return k + 1
			}
		case ";", "{", "}", ")":
			return i
		}
	}
	return i
}

// body reads what stands at the top of a file or in a namespace.
func (r *reader) body(i, end int, ns string) {
	s := r.s
	for i < end {
		next := i + 1
		switch {
		case s.Any(i, ";", "}"):
		case s.Match(i, "namespace", syntax.Name):
			next, ns = r.namespace(i, ns)
		case s.Match(i, "global", "using"), s.Is(i, "using") && !s.Any(i+1, "(", "var") && r.isDirective(i):
			next = r.using(i)
		case s.Match(i, "extern", "alias"):
			next = i + 4
		case s.Is(i, "[") && s.Any(i+1, "assembly", "module"):
			next = s.Close(i) + 1
		default:
			if next = r.member(i, end, "", ""); next <= i {
				next = r.looseStatement(i, end)
			}
		}
		i = max(next, i+1)
	}
}

// namespace reads "namespace A.B { … }", or "namespace A.B;", which holds for
// the rest of the file; it gives the token behind and the namespace there.
func (r *reader) namespace(i int, around string) (next int, ns string) {
	s := r.s
	full, j := r.dotted(i + 1)
	if around != "" {
		full = around + "." + full
	}
	r.space(full)
	if !s.Is(j, "{") {
		return j + 1, full
	}
	r.body(j+1, s.Close(j), full)
	return s.Close(j) + 1, around
}

// looseStatement steps over a statement outside of any type: the program starts
// there.
func (r *reader) looseStatement(i, end int) int {
	s := r.s
	if r.loose == 0 && s.IsIdent(i) {
		r.loose = s.Line(i)
	}
	for i < end && !s.Any(i, ";", "{") {
		i = s.Close(i) + 1
	}
	return s.Close(i) + 1
}

// space keeps the namespace that holds most of the file: the innermost that is
// met first.
func (r *reader) space(full string) {
	if r.f.Namespace == "" || len(r.f.Definitions) == 0 {
		r.f.Namespace = full
	}
}

// isDirective tells "using X.Y;" and "using A = X;" from a statement.
func (r *reader) isDirective(i int) bool {
	for k := i + 1; k < r.s.Len() && k < i+60; k++ {
		if r.s.Is(k, ";") {
			return true
		}
		if r.s.Is(k, "(") && !r.s.Is(k-1, "=") || r.s.Is(k, "{") {
			return false
		}
	}
	return false
}

func (r *reader) using(i int) int {
	s := r.s
	im := model.Import{Kind: model.LinkImport, Line: s.Line(i)}
	if s.Is(i, "global") {
		im.Names = append(im.Names, "global")
		i++
	}
	i++
	if s.Is(i, "static") {
		im.Names = append(im.Names, "static")
		i++
	}
	if s.Match(i, syntax.Name, "=") {
		im.Alias = s.Text(i)
		i += 2
	}
	im.Text, i = r.dotted(i)
	if im.Text != "" {
		r.f.Imports = append(r.f.Imports, im)
	}
	for i < s.Len() && !s.Is(i, ";") {
		i++
	}
	return i + 1
}

var modifiers = syntax.Set(
	"public", "protected", "private", "internal", "static", "readonly", "sealed", "abstract", "virtual", "override",
	"async", "extern", "unsafe", "volatile", "new", "partial", "required", "file", "ref", "const", "event", "fixed",
	"scoped", "implicit", "explicit",
)

func (r *reader) define(first, last int, parent, name string, kind model.DefinitionKind, public bool, marks []string) *model.Definition {
	s := r.s
	r.f.Definitions = append(r.f.Definitions, model.Definition{
		Name: name, Parent: parent, Kind: kind, Line: s.Line(first), EndLine: s.EndLine(min(last, s.Len()-1)),
		Exported: public, Marks: marks,
	})
	if parent == "" {
		r.names[name] = true
	}
	return &r.f.Definitions[len(r.f.Definitions)-1]
}

// typeWords are the words that begin a type with a body.
var typeWords = map[string]model.DefinitionKind{
	"class": model.DefClass, "struct": model.DefClass, "interface": model.DefInterface, "enum": model.DefEnum,
}

// declared is a declaration as far as it is read: where it begins, where it has
// to end, what holds it, and what is said before its word.
type declared struct {
	first, end       int
	parent           string
	public, constant bool
	marks            []string
}

func (r *reader) add(d declared, last int, name string, kind model.DefinitionKind) *model.Definition {
	return r.define(d.first, last, d.parent, name, kind, d.public, d.marks)
}

// member reads one declaration and returns the index behind it, or i when
// there is none. around is the kind of the type it stands in, "" at the top.
func (r *reader) member(i, end int, parent string, around model.DefinitionKind) int {
	s := r.s
	d := declared{first: i, end: end, parent: parent, public: around == model.DefInterface}
	i = r.attributes(i, &d)
	for s.IsIdent(i) && modifiers[string(s.Bytes(i))] && s.Any(i+1, syntax.Name, "(", "~") {
		// "new", "ref" and their like are words only before another.
		d.public = d.public || s.Is(i, "public")
		d.constant = d.constant || s.Is(i, "const")
		i++
	}
	kind := typeWords[s.Text(i)]
	switch {
	case s.Is(i, "record"):
		if s.Any(i+1, "class", "struct") {
			i++
		}
		if s.Any(i+2, "(", "{", ":", "<", ";") {
			kind = model.DefClass
		}
	case s.Is(i, "delegate"):
		if next := r.delegate(i, d); next > 0 {
			return next
		}
	}
	switch {
	case kind != "" && s.IsIdent(i+1):
		return r.typeBody(d, i+1, kind)
	case around == "":
		return d.first
	}
	return r.value(d, i)
}

// attributes reads [A, B(…)] before a declaration.
func (r *reader) attributes(i int, d *declared) int {
	s := r.s
	for s.Is(i, "[") {
		for _, a := range s.Args(i) {
			k := a[0]
			if s.Is(k+1, ":") {
				k += 2
			}
			if n, _ := r.dotted(k); n != "" {
				d.marks = append(d.marks, n)
			}
		}
		i = s.Close(i) + 1
	}
	return i
}

// delegate reads "delegate T Name(…);" and gives the token behind, 0 where none
// is declared.
func (r *reader) delegate(i int, d declared) int {
	s := r.s
	for k := i + 1; k < d.end && !s.Is(k, ";"); k++ {
		if a := r.angle(k); a > k && s.Is(a, "(") {
			k = a
		}
		if !s.Is(k, "(") {
			continue
		}
		last := s.Close(k)
		for last < d.end && !s.Is(last, ";") {
			last++
		}
		r.add(d, last, r.generic(i, k), model.DefType)
		return last + 1
	}
	return 0
}

// generic is the name before the parenthesis at paren, its type parameters
// left out.
func (r *reader) generic(from, paren int) string {
	s := r.s
	k := paren - 1
	if s.Is(k, ">") {
		for depth := 0; k > from; k-- {
			if s.Is(k, ">") {
				depth++
			}
			if s.Is(k, "<") {
				if depth--; depth == 0 {
					k--
					break
				}
			}
		}
	}
	return s.Text(k)
}

// typeBody reads a type whose name stands at i.
func (r *reader) typeBody(d declared, i int, kind model.DefinitionKind) int {
	s := r.s
	full := r.add(d, i, s.Text(i), kind).Qualified()
	at := len(r.f.Definitions) - 1
	i = r.angle(i + 1)
	if s.Is(i, "(") { // a primary constructor
		r.f.Definitions[at].Params = len(s.Args(i))
		i = s.Close(i) + 1
	}
	bases, i := r.basesAt(i, d.end)
	if kind != model.DefEnum {
		r.f.Definitions[at].Bases = bases
	}
	for i < d.end && !s.Any(i, "{", ";") {
		i = s.Close(i) + 1
	}
	last := s.Close(i)
	r.f.Definitions[at].EndLine = s.EndLine(min(last, s.Len()-1))
	if last == i {
		return i + 1
	}
	if kind == model.DefEnum {
		r.enumerators(i, full)
		return last + 1
	}
	for i++; i < last; {
		if s.Is(i, ";") {
			i++
			continue
		}
		i = max(r.member(i, last, full, kind), i+1)
	}
	return last + 1
}

// basesAt reads ": A, B<C>" at i and gives the token behind.
func (r *reader) basesAt(i, end int) (bases []string, next int) {
	s := r.s
	if !s.Is(i, ":") {
		return nil, i
	}
	for i < end && !s.Any(i, "{", ";", "where") {
		if s.Any(i, ":", ",") {
			if n, j := r.dotted(i + 1); n != "" {
				bases = append(bases, n)
				i = r.angle(j)
				continue
			}
		}
		i = s.Close(i) + 1
	}
	return bases, i
}

// enumerators reads the members of an enumeration whose body opens at open.
func (r *reader) enumerators(open int, parent string) {
	s := r.s
	last := s.Close(open)
	for k := open + 1; k < last; k = s.Close(k) + 1 {
		if !s.IsIdent(k) || !s.Any(k-1, "{", ",", "]") {
			continue
		}
		to := k
		for to+1 < last && !s.Is(to+1, ",") {
			to = s.Close(to + 1)
		}
		r.define(k, to, parent, s.Text(k), model.DefConstant, true, nil)
	}
}

// value reads a method, a property or fields: which of them it is shows in the
// first sign behind the name.
func (r *reader) value(d declared, i int) int {
	s := r.s
	for k := i; k < d.end; {
		switch {
		case s.Is(k, "<"):
			k = max(r.angle(k), k+1)
		case s.Is(k, "operator"):
			return r.operator(d, k)
		case s.Match(k, "this", "["):
			return r.property(d, k, "this", s.Close(k+1)+1)
		case s.Is(k, "["):
			k = s.Close(k) + 1
		case s.Is(k, "(") && (k == i || s.Is(k-1, "~") || !s.Any(k-1, syntax.Name, ">")):
			// A tuple as a type: (int a, int b) name.
			k = s.Close(k) + 1
		case s.Is(k, "("):
			name := r.generic(i-1, k)
			if s.Is(k-2, "~") && name == d.parent[strings.LastIndexByte(d.parent, '.')+1:] {
				name = "~" + name
			}
			return r.method(d, k, name)
		case s.Is(k, "{"), s.Match(k, "=", ">"):
			if k == i || !s.IsIdent(k-1) {
				return s.Close(k) + 1
			}
			return r.property(d, k, s.Text(k-1), k)
		case s.Any(k, "=", ";", ","):
			return r.fields(d, i, k)
		default:
			k++
		}
	}
	return d.end
}

func (r *reader) operator(d declared, k int) int {
	s := r.s
	name, j := "", k+1
	for ; j < d.end && !s.Is(j, "("); j++ {
		name += s.Text(j)
	}
	if s.Match(j, "(", ")", "(") { // operator ()
		j += 2
	}
	return r.method(d, j, "operator "+name)
}

// property reads one whose accessors begin at from.
func (r *reader) property(d declared, at int, name string, from int) int {
	r.add(d, at, name, model.DefProperty)
	made := len(r.f.Definitions) - 1
	last := r.accessors(from, d.end)
	r.f.Definitions[made].EndLine = r.s.EndLine(min(last, r.s.Len()-1))
	return last + 1
}

// accessors steps over what follows a property's name: a block, perhaps with a
// value behind it, or an arrow and an expression. It returns its last token.
func (r *reader) accessors(k, end int) int {
	s := r.s
	for k < end && !s.Is(k, "{") && !s.Is(k, "=") && !s.Is(k, ";") {
		k++
	}
	if s.Is(k, "{") {
		last := s.Close(k)
		if s.Is(last+1, "=") {
			k = last + 1
		} else {
			return last
		}
	}
	for k < end && !s.Is(k, ";") {
		k = s.Close(k) + 1
	}
	return min(k, end)
}

// method reads a method whose parameters open at paren.
func (r *reader) method(d declared, paren int, name string) int {
	s := r.s
	j := s.Close(paren) + 1
	for j < d.end && !s.Any(j, "{", ";") && !s.Match(j, "=", ">") {
		j = s.Close(j) + 1
	}
	last := j
	if s.Is(j, "{") {
		last = s.Close(j)
	} else {
		for last < d.end && !s.Is(last, ";") {
			last = s.Close(last) + 1
		}
	}
	def := r.add(d, last, name, model.DefMethod)
	def.Params = s.Params(paren)
	if name == "Main" && r.f.Starts == 0 {
		r.f.Starts = def.Line
	}
	return last + 1
}

// fields reads "T a = 1, b;" whose type begins at from and whose first name
// ends before i.
func (r *reader) fields(d declared, from, i int) int {
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
		if s.Is(at, "]") {
			at = int(s.Tokens[at].Match) - 1
		}
		if s.IsIdent(at) && at > from {
			r.add(d, at, s.Text(at), kind)
			made = len(r.f.Definitions) - 1
		}
	}
	name(i - 1)
	for i < d.end && !s.Is(i, ";") {
		if s.Match(i, ",", syntax.Name) && s.Any(i+2, "=", ",", ";") {
			ends(i)
			name(i + 1)
			i += 2
			continue
		}
		i = s.Close(i) + 1
	}
	ends(i)
	return i + 1
}
