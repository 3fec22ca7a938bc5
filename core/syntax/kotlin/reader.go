// Package kotlin reads Kotlin.
package kotlin

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
	"jantel/core/syntax/jvm"
)

func init() {
	syntax.Register(&syntax.Language{Name: "Kotlin", Version: 1, Profile: syntax.Profile{Code: true, PathPackages: true, Namespace: ".", NamedForType: true, Inherits: true}, Loggers: []string{"slf4j", "log4j", "java.util.logging", "mu.", "kotlin-logging", "oshai", "timber", "android.util.Log"}, Extensions: []string{".kt", ".kts"}, Read: read,
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

func read(_ string, src []byte) *model.Facts {
	r := &reader{s: grammar.Lex(src), f: &model.Facts{}, signs: syntax.Signs{}, names: map[string]bool{}}
	r.file()
	r.f.Mentions = r.mentions()
	r.inside()
	jvm.Routes(r.s, r.f)
	r.f.Env = environment.Read(r.s)
	r.f.Names = syntax.SortedSet(r.names)
	return syntax.Finish(r.f, r.s, r.signs)
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

var modifiers = syntax.Set("public", "private", "protected", "internal", "open", "abstract", "final", "sealed", "data", "inner", "override", "lateinit", "const", "suspend", "inline", "noinline", "crossinline", "tailrec", "operator", "infix", "external", "enum", "annotation", "companion", "value", "expect", "actual", "vararg", "reified")

// beforeWord reports whether what follows a word that can be a modifier makes
// it one.
func (r *reader) beforeWord(i int) bool {
	s := r.s
	return s.IsIdent(i+1) && !s.Is(i+1, "in") && !s.Is(i+1, "is") && !s.Is(i+1, "as") || s.Is(i+1, "@")
}

type head struct {
	first              int
	hidden, constant   bool
	enum, note, common bool
	marks              []string
}

func (r *reader) head(i, end int) (head, int) {
	s := r.s
	h := head{first: i}
	for i < end {
		switch {
		case s.Is(i, "@"):
			j := i + 1
			if s.Match(j, syntax.Name, ":") {
				j += 2
			}
			if s.Is(j, "[") {
				i = s.Close(j) + 1
				continue
			}
			name, k := jvm.Dotted(r.s, j)
			h.marks = append(h.marks, "@"+name)
			k = r.angle(k, end)
			if s.Is(k, "(") && s.Tokens[k].Start == s.Tokens[k-1].End {
				k = s.Close(k) + 1
			}
			i = max(k, i+1)
		case s.IsIdent(i) && modifiers[string(s.Bytes(i))] && r.beforeWord(i):
			switch s.Text(i) {
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
			i++
		default:
			return h, i
		}
	}
	return h, i
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
		if parent != "" && s.Is(i+1, "(") {
			last := s.Close(i + 1)
			j := last + 1
			if s.Is(j, ":") { // this(…) or super(…)
				last = s.Close(j + 2)
				j = last + 1
			}
			if s.Is(j, "{") {
				last = s.Close(j)
			}
			d := r.add(h, parent, "constructor", model.DefMethod, last)
			d.Params = s.Params(i + 1)
			return last + 1
		}
	case "init":
		if s.Is(i+1, "{") {
			r.locals(i+2, s.Close(i+1), parent)
			return s.Close(i+1) + 1
		}
	}
	if !local && s.Is(i, "{") {
		r.locals(i+1, s.Close(i), parent)
	}
	return s.Close(i) + 1
}

func (r *reader) typeOf(h head, i, end int, parent string) int {
	s := r.s
	kind := model.DefClass
	switch {
	case h.enum:
		kind = model.DefEnum
	case h.note, s.Is(i, "interface"):
		kind = model.DefInterface
	}
	name, j := "", i+1
	switch {
	case s.IsIdent(j) && !s.Is(j, "by"):
		name = r.name(j)
		j++
	case h.common:
		name = "Companion"
	default: // an object without a name is an expression
		return i + 1
	}
	d := model.Definition{Name: name, Parent: parent, Kind: kind, Line: s.Line(h.first), Exported: !h.hidden, Marks: h.marks}
	last := j - 1
	j = r.angle(j, end)
	var parts int
	// The way to a primary constructor.
	if h2, k := r.head(j, end); s.Is(k, "constructor") {
		j = k + 1
	} else if k > j && s.Is(k, "(") && len(h2.marks) > 0 {
		j = k
	}
	if s.Is(j, "(") {
		parts = j
		d.Params = s.Params(j)
		last = s.Close(j)
		j = last + 1
	} else {
		last = max(last, j-1)
	}
	if s.Is(j, ":") {
		j++
		for j < end {
			if s.Is(j, "@") {
				_, j = r.head(j, end)
			}
			base, k := jvm.Dotted(r.s, j)
			if base == "" {
				break
			}
			d.Bases = append(d.Bases, base)
			k = r.angle(k, end)
			if s.Is(k, "(") {
				k = s.Close(k) + 1
			}
			if s.Is(k, "by") {
				// A brace after it opens the body of the class.
				for k++; k < end && !s.Is(k, "{") && !s.Is(k, ",") && (s.Line(k) == s.Line(k-1) || s.Is(k-1, "by") || s.Is(k, ".")); {
					k = s.Close(k) + 1
				}
			}
			last = k - 1
			if !s.Is(k, ",") {
				j = k
				break
			}
			j = k + 1
		}
	}
	if s.Is(j, "where") {
		for j < end && !s.Is(j, "{") && s.Line(j)-s.Line(last) < 2 {
			last = j
			j++
		}
	}
	open := -1
	if s.Is(j, "{") {
		open = j
		last = s.Close(j)
	}
	d.EndLine = s.EndLine(last)
	r.f.Definitions = append(r.f.Definitions, d)
	if parent == "" {
		r.names[name] = true
	}
	full := d.Qualified()
	if parts > 0 {
		for _, a := range s.Args(parts) {
			h, k := r.head(a[0], a[1])
			if (s.Any(k, "val", "var")) && s.IsIdent(k+1) {
				r.add(h, full, r.name(k+1), model.DefProperty, a[1]-1)
			}
		}
	}
	if open < 0 {
		return last + 1
	}
	k := open + 1
	if kind == model.DefEnum {
		k = r.entries(k, last, full)
	}
	for k < last {
		k = max(r.member(k, last, full, false), k+1)
	}
	return last + 1
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
