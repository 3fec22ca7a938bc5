// Package csharp reads C#.
package csharp

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func init() {
	syntax.Register(&syntax.Language{Name: "C#", Version: 1, Profile: syntax.Profile{Code: true, Namespace: ".", OneType: true, NamedForType: true, Inherits: true, ControllerEnd: "Controller.cs"}, Loggers: []string{"Microsoft.Extensions.Logging", "Serilog", "NLog", "log4net", "System.Diagnostics"}, Extensions: []string{".cs", ".csx"}, Read: read, Resolve: resolve})
}

var environment = &syntax.Environment{Calls: syntax.Set("Environment.GetEnvironmentVariable")}

type reader struct {
	s     *syntax.Stream
	f     *model.Facts
	signs syntax.Signs
	names map[string]bool
	loose int // line of the first statement that stands outside of any type
}

var builtin = syntax.Set("String", "Object", "Task", "List", "Dictionary", "Exception", "Console", "Math", "Int32", "Boolean", "Guid", "DateTime", "Func", "Action")

func read(_ string, src []byte) *model.Facts {
	r := &reader{s: grammar.Lex(src), f: &model.Facts{}, signs: syntax.Signs{}, names: map[string]bool{}}
	r.body(0, r.s.Len(), "")
	if r.loose > 0 && r.f.Starts == 0 {
		r.f.Starts = r.loose
	}
	r.f.Mentions = syntax.TypeMentions(r.s, builtin)
	r.f.Env = environment.Read(r.s)
	r.routes()
	r.f.Names = syntax.SortedSet(r.names)
	return syntax.Finish(r.f, r.s, r.signs)
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
			name, j := r.dotted(i + 1)
			full := name
			if ns != "" {
				full = ns + "." + name
			}
			if s.Is(j, "{") {
				r.space(full)
				r.body(j+1, s.Close(j), full)
				next = s.Close(j) + 1
				break
			}
			r.space(full)
			ns, next = full, j+1
		case s.Match(i, "global", "using"), s.Is(i, "using") && !s.Is(i+1, "(") && !s.Is(i+1, "var") && r.isDirective(i):
			next = r.using(i)
		case s.Match(i, "extern", "alias"):
			next = i + 4
		case s.Is(i, "[") && (s.Any(i+1, "assembly", "module")):
			next = s.Close(i) + 1
		default:
			if n := r.member(i, end, "", ""); n > i {
				next = n
			} else {
				// A statement outside of any type: the program starts here.
				if r.loose == 0 && s.IsIdent(i) {
					r.loose = s.Line(i)
				}
				for next = i; next < end && !s.Is(next, ";"); next = s.Close(next) + 1 {
					if s.Is(next, "{") {
						break
					}
				}
				next = s.Close(next) + 1
			}
		}
		i = max(next, i+1)
	}
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

var modifiers = syntax.Set("public", "protected", "private", "internal", "static", "readonly", "sealed", "abstract", "virtual", "override", "async", "extern", "unsafe", "volatile", "new", "partial", "required", "file", "ref", "const", "event", "fixed", "scoped", "implicit", "explicit")

func (r *reader) define(first, last int, parent, name string, kind model.DefinitionKind, public bool, marks []string) *model.Definition {
	s := r.s
	r.f.Definitions = append(r.f.Definitions, model.Definition{Name: name, Parent: parent, Kind: kind, Line: s.Line(first), EndLine: s.EndLine(min(last, s.Len()-1)), Exported: public, Marks: marks})
	if parent == "" {
		r.names[name] = true
	}
	return &r.f.Definitions[len(r.f.Definitions)-1]
}

// member reads one declaration and returns the index behind it, or i when
// there is none. around is the kind of the type it stands in, "" at the top.
func (r *reader) member(i, end int, parent string, around model.DefinitionKind) int {
	s := r.s
	first := i
	var marks []string
	for s.Is(i, "[") {
		for _, a := range s.Args(i) {
			k := a[0]
			if s.Is(k+1, ":") {
				k += 2
			}
			if n, _ := r.dotted(k); n != "" {
				marks = append(marks, n)
			}
		}
		i = s.Close(i) + 1
	}
	public, constant := around == model.DefInterface, false
	for s.IsIdent(i) && modifiers[string(s.Bytes(i))] {
		// "new", "ref" and their like are words only before another.
		if !s.IsIdent(i+1) && !s.Is(i+1, "(") && !s.Is(i+1, "~") {
			break
		}
		public = public || s.Is(i, "public")
		constant = constant || s.Is(i, "const")
		i++
	}
	kind := model.DefinitionKind("")
	switch s.Text(i) {
	case "class", "struct":
		kind = model.DefClass
	case "interface":
		kind = model.DefInterface
	case "enum":
		kind = model.DefEnum
	case "record":
		if s.Any(i+1, "class", "struct") {
			i++
		}
		if s.IsIdent(i+1) && (s.Any(i+2, "(", "{", ":", "<", ";")) {
			kind = model.DefClass
		}
	case "delegate":
		for k := i + 1; k < end && !s.Is(k, ";"); k++ {
			if a := r.angle(k); a > k && s.Is(a, "(") {
				k = a
			}
			if s.Is(k, "(") {
				name := k - 1
				for ; name > i && !s.IsIdent(name); name-- {
				}
				last := s.Close(k)
				for last < end && !s.Is(last, ";") {
					last++
				}
				r.define(first, last, parent, r.generic(i, k), model.DefType, public, marks)
				return last + 1
			}
		}
	}
	if kind != "" && s.IsIdent(i+1) {
		return r.typeBody(first, i+1, end, parent, kind, public, marks)
	}
	if around == "" {
		return first
	}
	return r.value(first, i, end, parent, public, constant, marks)
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

func (r *reader) typeBody(first, i, end int, parent string, kind model.DefinitionKind, public bool, marks []string) int {
	s := r.s
	name := s.Text(i)
	r.define(first, i, parent, name, kind, public, marks)
	at := len(r.f.Definitions) - 1
	full := r.f.Definitions[at].Qualified()
	i = r.angle(i + 1)
	if s.Is(i, "(") { // a primary constructor
		args := s.Args(i)
		r.f.Definitions[at].Params = len(args)
		i = s.Close(i) + 1
	}
	if s.Is(i, ":") {
		for i < end && !s.Is(i, "{") && !s.Is(i, ";") && !s.Is(i, "where") {
			if s.Any(i, ":", ",") {
				if n, j := r.dotted(i + 1); n != "" {
					if kind != model.DefEnum {
						r.f.Definitions[at].Bases = append(r.f.Definitions[at].Bases, n)
					}
					i = r.angle(j)
					continue
				}
			}
			i = s.Close(i) + 1
		}
	}
	for i < end && !s.Is(i, "{") && !s.Is(i, ";") {
		i = s.Close(i) + 1
	}
	last := s.Close(i)
	r.f.Definitions[at].EndLine = s.EndLine(min(last, s.Len()-1))
	if last == i {
		return i + 1
	}
	if kind == model.DefEnum {
		for k := i + 1; k < last; k = s.Close(k) + 1 {
			if s.Is(k, "[") {
				continue
			}
			if s.IsIdent(k) && (s.Any(k-1, "{", ",", "]")) {
				to := k
				for to+1 < last && !s.Is(to+1, ",") {
					to = s.Close(to + 1)
				}
				r.define(k, to, full, s.Text(k), model.DefConstant, true, nil)
			}
		}
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

// value reads a method, a property or fields.
func (r *reader) value(first, i, end int, parent string, public, constant bool, marks []string) int {
	s := r.s
	class := parent[strings.LastIndexByte(parent, '.')+1:]
	for k := i; k < end; {
		switch {
		case s.Is(k, "<"):
			k = max(r.angle(k), k+1)
		case s.Is(k, "operator"):
			name, j := "", k+1
			for j < end && !s.Is(j, "(") {
				name += s.Text(j)
				j++
			}
			if s.Match(j, "(", ")", "(") { // operator ()
				j += 2
			}
			return r.method(first, j, end, parent, "operator "+name, public, marks)
		case s.Match(k, "this", "["):
			r.define(first, k, parent, "this", model.DefProperty, public, marks)
			at := len(r.f.Definitions) - 1
			last := r.accessors(s.Close(k+1)+1, end)
			r.f.Definitions[at].EndLine = s.EndLine(min(last, s.Len()-1))
			return last + 1
		case s.Is(k, "["):
			k = s.Close(k) + 1
		case s.Is(k, "("):
			if s.Is(k-1, "~") || !s.IsIdent(k-1) && !s.Is(k-1, ">") || k == i {
				// A tuple as a type: (int a, int b) name.
				k = s.Close(k) + 1
				continue
			}
			name := r.generic(i-1, k)
			if s.Is(k-2, "~") && name == class {
				name = "~" + name
			}
			return r.method(first, k, end, parent, name, public, marks)
		case s.Is(k, "{"), s.Match(k, "=", ">"):
			if k == i || !s.IsIdent(k-1) {
				return s.Close(k) + 1
			}
			r.define(first, k, parent, s.Text(k-1), model.DefProperty, public, marks)
			at := len(r.f.Definitions) - 1
			last := r.accessors(k, end)
			r.f.Definitions[at].EndLine = s.EndLine(min(last, s.Len()-1))
			return last + 1
		case s.Any(k, "=", ";", ","):
			return r.fields(first, i, k, end, parent, public, constant, marks)
		default:
			k++
		}
	}
	return end
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
func (r *reader) method(first, paren, end int, parent, name string, public bool, marks []string) int {
	s := r.s
	j := s.Close(paren) + 1
	for j < end && !s.Is(j, "{") && !s.Is(j, ";") && !(s.Match(j, "=", ">")) {
		j = s.Close(j) + 1
	}
	last := j
	if s.Is(j, "{") {
		last = s.Close(j)
	} else {
		for last < end && !s.Is(last, ";") {
			last = s.Close(last) + 1
		}
	}
	d := r.define(first, last, parent, name, model.DefMethod, public, marks)
	d.Params = s.Params(paren)
	if name == "Main" && r.f.Starts == 0 {
		r.f.Starts = d.Line
	}
	return last + 1
}

func (r *reader) fields(first, from, i, end int, parent string, public, constant bool, marks []string) int {
	s := r.s
	kind := model.DefProperty
	if constant {
		kind = model.DefConstant
	}
	var made []int
	ends := func(at int) {
		if n := len(made); n > 0 {
			r.f.Definitions[made[n-1]].EndLine = s.EndLine(min(at, s.Len()-1))
		}
	}
	name := func(at int) {
		if s.Is(at, "]") {
			at = int(s.Tokens[at].Match) - 1
		}
		if s.IsIdent(at) && at > from {
			r.define(first, at, parent, s.Text(at), kind, public, marks)
			made = append(made, len(r.f.Definitions)-1)
		}
	}
	name(i - 1)
	for i < end && !s.Is(i, ";") {
		if s.Match(i, ",", syntax.Name) && (s.Any(i+2, "=", ",", ";")) {
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
