// Package java reads Java.
package java

import (
	"jantel/core/model"
	"jantel/core/syntax"
	"jantel/core/syntax/jvm"
)

func init() {
	syntax.Register(&syntax.Language{Name: "Java", Version: 5, Profile: syntax.Profile{Code: true, PathPackages: true, Namespace: ".", NamespaceIsPath: true, OneType: true, NamedForType: true, Inherits: true}, Loggers: []string{"slf4j", "log4j", "java.util.logging", "commons.logging", "logback", "jboss.logging", "flogger", "lombok.extern", "android.util.Log", "System.Logger"}, Extensions: []string{".java"}, Read: read,
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
			t.Start, t.Line = int32(start), int32(line)
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
}

func read(_ string, src []byte) *model.Facts {
	r := &reader{s: grammar.Lex(src), f: &model.Facts{}, signs: syntax.Signs{}, names: map[string]bool{}}
	r.file()
	r.f.Mentions = syntax.TypeMentions(r.s, keywords)
	jvm.Routes(r.s, r.f)
	r.f.Env = environment.Read(r.s)
	r.f.Names = syntax.SortedSet(r.names)
	return syntax.Finish(r.f, r.s, r.signs)
}

var keywords = map[string]bool{"Override": true, "String": true, "Object": true, "Integer": true, "Long": true, "Boolean": true, "Double": true, "System": true, "Exception": true, "Deprecated": true}

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

var modifiers = map[string]bool{"public": true, "protected": true, "private": true, "static": true, "final": true, "abstract": true, "native": true, "synchronized": true, "transient": true, "volatile": true, "strictfp": true, "default": true, "sealed": true}

// member reads one declaration: a type, or within a type a method, a field or
// a block. It returns the index behind it.
func (r *reader) member(i, end int, parent string) int {
	s := r.s
	first := i
	var marks []string
	public, private, static, final := false, false, false, false
	for i < end {
		switch {
		case s.Is(i, "@") && !s.Is(i+1, "interface"):
			name, j := jvm.Dotted(r.s, i+1)
			marks = append(marks, "@"+name)
			if s.Is(j, "(") {
				j = s.Close(j) + 1
			}
			i = j
			continue
		case s.Match(i, "non", "-", "sealed"):
			i += 3
			continue
		case modifiers[string(s.Bytes(i))] && s.IsIdent(i):
			public = public || s.Is(i, "public")
			private = private || s.Is(i, "private")
			static = static || s.Is(i, "static")
			final = final || s.Is(i, "final")
			i++
			continue
		}
		break
	}
	kind := model.DefinitionKind("")
	switch s.Text(i) {
	case "class":
		kind = model.DefClass
	case "record":
		// "record" is only a word of the language before a name and its parts.
		if s.IsIdent(i+1) && (s.Any(i+2, "(", "<")) {
			kind = model.DefClass
		}
	case "interface":
		kind = model.DefInterface
	case "enum":
		kind = model.DefEnum
	case "@":
		if s.Is(i+1, "interface") {
			kind = model.DefInterface
			i++
		}
	}
	if kind != "" && s.IsIdent(i+1) {
		return r.typeBody(first, i+1, end, parent, kind, public, marks)
	}
	if s.Is(i, "{") {
		return s.Close(i) + 1
	}
	if parent == "" {
		return s.Close(i) + 1
	}
	return r.valueOrMethod(first, i, end, parent, public || !private && r.inInterface(parent), static && final || r.inInterface(parent), marks)
}

func (r *reader) inInterface(parent string) bool {
	for k := len(r.f.Definitions) - 1; k >= 0; k-- {
		if d := &r.f.Definitions[k]; d.Qualified() == parent {
			return d.Kind == model.DefInterface
		}
	}
	return false
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
func (r *reader) typeBody(first, i, end int, parent string, kind model.DefinitionKind, public bool, marks []string) int {
	s := r.s
	d := model.Definition{Name: s.Text(i), Parent: parent, Kind: kind, Line: s.Line(first), Exported: public, Marks: marks}
	if parent == "" {
		r.names[d.Name] = true
	}
	i = r.angle(i + 1)
	var parts [2]int
	if s.Is(i, "(") { // the parts of a record
		d.Params = r.count(i)
		parts = [2]int{i + 1, s.Close(i)}
		i = s.Close(i) + 1
	}
	for i < end && !s.Is(i, "{") && !s.Is(i, ";") {
		switch {
		case s.Any(i, "extends", "implements", ","):
			if s.Is(i+1, "@") {
				i++
				continue
			}
			name, j := jvm.Dotted(r.s, i+1)
			if name != "" {
				d.Bases = append(d.Bases, name)
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
	last := s.Close(i)
	d.EndLine = s.EndLine(last)
	r.f.Definitions = append(r.f.Definitions, d)
	name := d.Qualified()
	for k := parts[0]; k < parts[1]; k++ {
		// The last word before a comma names a part.
		k = r.angle(k)
		if s.IsIdent(k) && (s.Is(k+1, ",") || k+1 == parts[1]) {
			r.f.Definitions = append(r.f.Definitions, model.Definition{Name: s.Text(k), Parent: name, Kind: model.DefProperty, Line: s.Line(k), EndLine: s.Line(k), Exported: true})
		} else if s.Is(k, "(") {
			k = s.Close(k)
		}
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

func (r *reader) enumConstants(i, end int, parent string) int {
	s := r.s
	for i < end && !s.Is(i, ";") {
		first := i
		for s.Is(i, "@") {
			_, i = jvm.Dotted(r.s, i+1)
			if s.Is(i, "(") {
				i = s.Close(i) + 1
			}
		}
		if !s.IsIdent(i) {
			i++
			continue
		}
		d := model.Definition{Name: s.Text(i), Parent: parent, Kind: model.DefConstant, Line: s.Line(first), Exported: true}
		last := i
		i++
		if s.Is(i, "(") {
			last = s.Close(i)
			i = last + 1
		}
		body := -1
		if s.Is(i, "{") {
			body = i
			last = s.Close(i)
			i = last + 1
		}
		d.EndLine = s.EndLine(last)
		r.f.Definitions = append(r.f.Definitions, d)
		if body >= 0 {
			for k := body + 1; k < last; {
				k = max(r.member(k, last, d.Qualified()), k+1)
			}
		}
	}
	return i
}

// count is the number of parameters in the parentheses at i.
func (r *reader) count(i int) int {
	s := r.s
	end := s.Close(i)
	n := 0
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
		k = s.Close(k) + 1
	}
	return n
}

// valueOrMethod reads a method, a constructor or fields; what comes first, a
// parenthesis or the end of a statement, tells which.
func (r *reader) valueOrMethod(first, i, end int, parent string, public, constant bool, marks []string) int {
	s := r.s
	i = r.angle(i) // type parameters of a method
	for i < end {
		switch {
		case s.Is(i, "<"):
			i = max(r.angle(i), i+1)
		case s.Is(i, "["):
			i = s.Close(i) + 1
		case s.Is(i, "@"):
			_, i = jvm.Dotted(r.s, i+1)
			if s.Is(i, "(") {
				i = s.Close(i) + 1
			}
		case s.Is(i, "("):
			if !s.IsIdent(i - 1) {
				return s.Close(i) + 1
			}
			d := model.Definition{Name: s.Text(i - 1), Parent: parent, Kind: model.DefMethod, Line: s.Line(first), Exported: public, Params: r.count(i), Marks: marks}
			j := s.Close(i) + 1
			for j < end && !s.Is(j, "{") && !s.Is(j, ";") && !s.Is(j, "}") {
				j = s.Close(j) + 1
			}
			last := s.Close(j)
			d.EndLine = s.EndLine(last)
			r.f.Definitions = append(r.f.Definitions, d)
			if d.Name == "main" && constantMain(s, first, i) && r.f.Starts == 0 {
				r.f.Starts = s.Line(first)
			}
			r.locals(j, last, d.Qualified())
			return last + 1
		case s.Any(i, "=", ";", ","):
			return r.fields(first, i, end, parent, public, constant, marks)
		case s.Is(i, "{"): // a compact constructor of a record
			if s.IsIdent(i-1) && i-1 >= first {
				d := model.Definition{Name: s.Text(i - 1), Parent: parent, Kind: model.DefMethod, Line: s.Line(first), EndLine: s.EndLine(s.Close(i)), Exported: public, Marks: marks}
				r.f.Definitions = append(r.f.Definitions, d)
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

func constantMain(s *syntax.Stream, first, paren int) bool {
	static := false
	for k := first; k < paren; k++ {
		static = static || s.Is(k, "static")
	}
	return static
}

// locals reads the types declared inside a body, the only declarations there
// that a reader would call by name.
func (r *reader) locals(open, end int, parent string) {
	s := r.s
	for k := open + 1; k < end; k++ {
		if (s.Any(k, "class", "enum", "interface") || s.Match(k, "record", syntax.Name) && (s.Any(k+2, "(", "<"))) && s.IsIdent(k+1) && !s.Is(k-1, ".") {
			first := k
			for first-1 > open && modifiers[string(s.Bytes(first-1))] {
				first--
			}
			k = max(r.member(first, end, parent)-1, k)
		}
	}
}

func (r *reader) fields(first, i, end int, parent string, public, constant bool, marks []string) int {
	s := r.s
	kind := model.DefProperty
	if constant {
		kind = model.DefConstant
	}
	var made []int
	// Each of several names ends where its own part of the statement does.
	ends := func(at int) {
		if n := len(made); n > 0 {
			r.f.Definitions[made[n-1]].EndLine = s.EndLine(min(at, s.Len()-1))
		}
	}
	name := func(at int) {
		for s.Any(at, "]", "[") {
			at--
		}
		if s.IsIdent(at) && at > first {
			made = append(made, len(r.f.Definitions))
			r.f.Definitions = append(r.f.Definitions, model.Definition{Name: s.Text(at), Parent: parent, Kind: kind, Line: s.Line(first), Exported: public, Marks: marks})
		}
	}
	name(i - 1)
	for i < end && !s.Is(i, ";") {
		if s.Is(i, "=") {
			for i < end && !s.Is(i, ";") {
				// A comma between the type arguments of a value parts nothing;
				// one before a name and its value or end does.
				if s.Match(i, ",", syntax.Name) && (s.Any(i+2, "=", ",", ";", "[")) {
					break
				}
				i = s.Close(i) + 1
			}
			continue
		}
		if s.Is(i, ",") {
			ends(i)
			j := i + 1
			for j < end && !s.Is(j, ",") && !s.Is(j, "=") && !s.Is(j, ";") {
				j = s.Close(j) + 1
			}
			name(j - 1)
			i = j
			continue
		}
		i = s.Close(i) + 1
	}
	ends(i)
	return i + 1
}
