// Package kotlin reads Kotlin.
package kotlin

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
	"jantel/core/syntax/jvm"
)

func init() {
	syntax.Register(&syntax.Language{Name: "Kotlin", Version: 2, Profile: syntax.Profile{
		ExactRoutes: true,
		Code:        true, Plain: "kotlin", PathPackages: true, Namespace: ".", NamedForType: true, Inherits: true,
		Invoked: "invoke", ListGives: listGives, ListOne: listOne,
	}, Loggers: []string{
		"slf4j", "log4j", "java.util.logging", "mu.", "kotlin-logging", "oshai", "timber", "android.util.Log",
	}, Extensions: []string{".kt", ".kts"}, Read: read,
		Resolve: func(t *syntax.Tree) { jvm.Resolve(t, "Kotlin") }})
}

var grammar = &syntax.Braces{NestedComments: true, Chars: true, Special: special}

// special takes strings with code in them, raw strings and names in backticks.
func special(b *syntax.Builder) bool {
	switch b.Src[b.Pos] {
	case '"':
		if b.Next(`"""`) {
			b.Until(3, `"""`)
			// More quotes than three belong to the string.
			for b.Pos < len(b.Src) && b.Src[b.Pos] == '"' && b.Last().Kind == syntax.String {
				b.Pos++
				b.Last().End++
			}
			return true
		}
		return b.Interpolated(0, '"', "${", false)
	case '`':
		for p := b.Pos + 1; p < len(b.Src) && b.Src[p] != '\n'; p++ {
			if b.Src[p] == '`' && p > b.Pos+1 {
				start, line := b.Pos, b.LineNo
				b.Pos = p + 1
				b.Add(syntax.Ident, start, line)
				return true
			}
		}
	}
	return false
}

var environment = &syntax.Environment{Calls: syntax.Set("System.getenv", "getenv"), Indexed: syntax.Set("System.getenv()")}

type reader struct {
	s     *syntax.Stream
	f     *model.Facts
	signs syntax.Signs
	names map[string]bool
}

func read(how syntax.How, src []byte) *model.Facts {
	r := &reader{s: grammar.Lex(src), f: syntax.NewFacts(), signs: syntax.Signs{}, names: map[string]bool{}}
	r.file()
	r.f.Mentions = r.mentions()
	r.inside()
	jvm.Routes(r.s, r.f)
	r.f.Env = environment.Read(r.s)
	r.f.Names = syntax.SortedSet(r.names)
	r.bodies()
	return syntax.Finish(how, r.f, r.s, r.signs)
}

var common = syntax.Set("String", "Int", "Long", "Boolean", "Double", "Float", "Any", "Unit", "List", "Map", "Set", "Override", "Exception")

// name is the text of a token without the backticks around it.
func (r *reader) name(i int) string { return strings.Trim(r.s.Text(i), "`") }

func (r *reader) file() {
	s := r.s
	for i := 0; i < s.Len(); {
		switch {
		case s.Match(i, "package", syntax.Name):
			r.f.Namespace, i = jvm.Dotted(r.s, i+1)
		case s.Match(i, "@", "file", ":"):
			// It belongs to the file, not to what follows.
			if i += 3; s.Is(i, "[") {
				i = s.Close(i) + 1
				continue
			}
			_, i = jvm.Dotted(r.s, i)
			if s.Is(i, "(") {
				i = s.Close(i) + 1
			}
		case s.Match(i, "import", syntax.Name):
			im := model.Import{Kind: model.LinkImport, Line: s.Line(i)}
			im.Text, i = jvm.Dotted(r.s, i+1)
			if s.Match(i, "as", syntax.Name) {
				im.Alias = r.name(i + 1)
				i += 2
			}
			r.f.Imports = append(r.f.Imports, im)
		default:
			i = max(r.member(i, s.Len(), "", false), i+1)
		}
	}
}

var modifiers = syntax.Set(
	"public", "private", "protected", "internal", "open", "abstract", "final", "sealed", "data", "inner", "override",
	"lateinit", "const", "suspend", "inline", "noinline", "crossinline", "tailrec", "operator", "infix", "external",
	"enum", "annotation", "companion", "value", "expect", "actual", "vararg", "reified",
)

// beforeWord reports whether what follows a word that can be a modifier makes
// it one.
func (r *reader) beforeWord(i int) bool {
	s := r.s
	return s.IsIdent(i+1) && !s.Is(i+1, "in") && !s.Is(i+1, "is") && !s.Is(i+1, "as") || s.Is(i+1, "@")
}

type head struct {
	first                        int
	hidden                       bool
	constant, enum, note, common bool
	marks                        []string
}

// say notes what a word before a declaration says of it.
func (h *head) say(word string) {
	switch word {
	case "private", "internal", "protected":
		h.hidden = true
	case "const":
		h.constant = true
	case "enum":
		h.enum = true
	case "annotation":
		h.note = true
	case "companion":
		h.common = true
	}
}

// head reads the annotations and words before a declaration.
func (r *reader) head(i, end int) (head, int) {
	s := r.s
	h := head{first: i}
	for i < end {
		switch {
		case s.Is(i, "@"):
			i = r.annotation(i, end, &h)
		case s.IsIdent(i) && modifiers[string(s.Bytes(i))] && r.beforeWord(i):
			h.say(s.Text(i))
			i++
		default:
			return h, i
		}
	}
	return h, i
}

// annotation reads @Name<T>(…), @get:Name or @[…] at i.
func (r *reader) annotation(i, end int, h *head) int {
	s := r.s
	j := i + 1
	if s.Match(j, syntax.Name, ":") {
		j += 2
	}
	if s.Is(j, "[") {
		return s.Close(j) + 1
	}
	name, k := jvm.Dotted(s, j)
	h.marks = append(h.marks, "@"+name)
	k = r.angle(k, end)
	if s.Is(k, "(") && s.Tokens[k].Start == s.Tokens[k-1].End {
		k = s.Close(k) + 1
	}
	return max(k, i+1)
}

// angle steps over <…> at i.
func (r *reader) angle(i, end int) int {
	s := r.s
	if !s.Is(i, "<") {
		return i
	}
	depth := 0
	for ; i < end; i++ {
		switch string(s.Bytes(i)) {
		case "<":
			depth++
		case ">":
			if s.Is(i-1, "-") {
				continue
			}
			if depth--; depth == 0 {
				return i + 1
			}
		case "(", "[":
			i = s.Close(i)
		case ";", "{", "}", "=":
			return i
		}
	}
	return i
}

func (r *reader) add(h head, parent, name string, kind model.DefinitionKind, last int) *model.Definition {
	r.f.Definitions = append(r.f.Definitions, model.Definition{Name: name, Parent: parent, Kind: kind, Line: r.s.Line(h.first),
		EndLine: r.s.EndLine(last), Exported: !h.hidden, Marks: h.marks})
	if parent == "" {
		r.names[name] = true
	}
	return &r.f.Definitions[len(r.f.Definitions)-1]
}

// member reads one declaration and returns the index behind it.
func (r *reader) member(i, end int, parent string, local bool) int {
	s := r.s
	h, i := r.head(i, end)
	next := 0
	switch s.Text(i) {
	case "class", "interface", "object":
		return r.typeOf(h, i, end, parent)
	case "fun":
		if s.Is(i+1, "interface") {
			return r.typeOf(h, i+1, end, parent)
		}
		return r.function(h, i, end, parent, local)
	case "val", "var":
		if !local {
			return r.value(h, i, end, parent)
		}
	case "typealias":
		if s.IsIdent(i + 1) {
			last := r.expression(i+1, end)
			r.add(h, parent, r.name(i+1), model.DefType, last)
			return last + 1
		}
	case "constructor":
		next = r.constructor(h, i, parent)
	case "init":
		if s.Is(i+1, "{") {
			r.locals(i+2, s.Close(i+1), parent)
			return s.Close(i+1) + 1
		}
	}
	if next > 0 {
		return next
	}
	if !local && s.Is(i, "{") {
		r.locals(i+1, s.Close(i), parent)
	}
	return s.Close(i) + 1
}

// constructor reads a secondary one and gives the token behind it, 0 where the
// word is none.
func (r *reader) constructor(h head, i int, parent string) int {
	s := r.s
	if parent == "" || !s.Is(i+1, "(") {
		return 0
	}
	last := s.Close(i + 1)
	if s.Is(last+1, ":") { // this(…) or super(…)
		last = s.Close(last + 3)
	}
	if s.Is(last+1, "{") {
		last = s.Close(last + 1)
	}
	r.add(h, parent, "constructor", model.DefMethod, last).Params = s.Params(i + 1)
	return last + 1
}

// typeOf reads a type whose word stands at i: its name, its primary
// constructor, what it builds upon, and its body.
func (r *reader) typeOf(h head, i, end int, parent string) int {
	s := r.s
	d := model.Definition{Parent: parent, Kind: model.DefClass, Line: s.Line(h.first), Exported: !h.hidden, Marks: h.marks}
	switch {
	case h.enum:
		d.Kind = model.DefEnum
	case h.note, s.Is(i, "interface"):
		d.Kind = model.DefInterface
	}
	j := i + 1
	switch {
	case s.IsIdent(j) && !s.Is(j, "by"):
		d.Name = r.name(j)
		j++
	case h.common:
		d.Name = "Companion"
	default: // an object without a name is an expression
		return i + 1
	}
	j = r.primary(r.angle(j, end), end)
	last := j - 1
	parts := -1
	if s.Is(j, "(") {
		parts = j
		d.Params = s.Params(j)
		last = s.Close(j)
		j = last + 1
	}
	if s.Is(j, ":") {
		d.Bases, j, last = r.bases(j+1, end, last)
	}
	if s.Is(j, "where") {
		for j < end && !s.Is(j, "{") && s.Line(j)-s.Line(last) < 2 {
			last = j
			j++
		}
	}
	open := -1
	if s.Is(j, "{") {
		open, last = j, s.Close(j)
	}
	d.EndLine = s.EndLine(last)
	r.f.Definitions = append(r.f.Definitions, d)
	if parent == "" {
		r.names[d.Name] = true
	}
	full := d.Qualified()
	r.parts(parts, full)
	if open < 0 {
		return last + 1
	}
	k := open + 1
	if d.Kind == model.DefEnum {
		k = r.entries(k, last, full)
	}
	for k < last {
		k = max(r.member(k, last, full, false), k+1)
	}
	return last + 1
}

// primary steps over the words before the parameters of a primary constructor.
func (r *reader) primary(j, end int) int {
	h, k := r.head(j, end)
	switch {
	case r.s.Is(k, "constructor"):
		return k + 1
	case k > j && r.s.Is(k, "(") && len(h.marks) > 0:
		return k
	}
	return j
}

// parts defines the properties that a primary constructor declares as
// parameters.
func (r *reader) parts(open int, parent string) {
	s := r.s
	if open < 0 {
		return
	}
	for _, a := range s.Args(open) {
		h, k := r.head(a[0], a[1])
		if s.Any(k, "val", "var") && s.IsIdent(k+1) {
			r.add(h, parent, r.name(k+1), model.DefProperty, a[1]-1)
		}
	}
}

// bases reads what stands behind the colon of a type; last is its last token.
func (r *reader) bases(j, end, before int) (bases []string, next, last int) {
	s := r.s
	for last = before; j < end; {
		if s.Is(j, "@") {
			_, j = r.head(j, end)
		}
		base, k := jvm.Dotted(s, j)
		if base == "" {
			break
		}
		bases = append(bases, base)
		k = r.angle(k, end)
		if s.Is(k, "(") {
			k = s.Close(k) + 1
		}
		if s.Is(k, "by") {
			k = r.delegate(k+1, end)
		}
		last, j = k-1, k
		if !s.Is(k, ",") {
			break
		}
		j++
	}
	return bases, j, last
}

// delegate steps over the expression behind "by". A brace after it opens the
// body of the class.
func (r *reader) delegate(k, end int) int {
	s := r.s
	for k < end && !s.Any(k, "{", ",") && (s.Line(k) == s.Line(k-1) || s.Is(k-1, "by") || s.Is(k, ".")) {
		k = s.Close(k) + 1
	}
	return k
}

// entries reads the constants of an enum.
func (r *reader) entries(i, end int, parent string) int {
	s := r.s
	for i < end && !s.Is(i, ";") {
		h, j := r.head(i, end)
		if !s.IsIdent(j) {
			i = max(s.Close(j)+1, i+1)
			continue
		}
		name, last := r.name(j), j
		j++
		if s.Is(j, "(") {
			last = s.Close(j)
			j = last + 1
		}
		body := -1
		if s.Is(j, "{") {
			body, last = j, s.Close(j)
			j = last + 1
		}
		d := r.add(h, parent, name, model.DefConstant, last)
		if full := d.Qualified(); body >= 0 {
			for k := body + 1; k < last; {
				k = max(r.member(k, last, full, false), k+1)
			}
		}
		i = j
		if !s.Is(i, ",") {
			break
		}
		i++
	}
	return i
}
