package javascript

import (
	"regexp"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// loggers are what programs keep a log with; the console is none.
var loggers = []string{"winston", "pino", "bunyan", "log4js", "loglevel", "debug", "signale", "npmlog", "consola", "morgan", "tslog"}

func init() {
	syntax.Register(&syntax.Language{Name: "TypeScript", Version: 9, Profile: syntax.Profile{Code: true, Inherits: true, Reached: true}, Loggers: loggers, Extensions: []string{".ts", ".mts", ".cts"}, Read: read, Resolve: resolve})
	syntax.Register(&syntax.Language{Name: "TSX", Version: 9, Profile: syntax.Profile{Code: true, Inherits: true, Reached: true}, Loggers: loggers, ResolvedWith: "TypeScript", Extensions: []string{".tsx"}, Read: read})
	syntax.Register(&syntax.Language{Name: "JavaScript", Version: 9, Profile: syntax.Profile{Code: true, Inherits: true, Reached: true}, Loggers: loggers, ResolvedWith: "TypeScript", Extensions: []string{".js", ".mjs", ".cjs", ".es6"}, Shebangs: []string{"node", "deno", "bun"}, Read: read})
	syntax.Register(&syntax.Language{Name: "JSX", Version: 9, Profile: syntax.Profile{Code: true, Inherits: true, Reached: true}, Loggers: loggers, ResolvedWith: "TypeScript", Extensions: []string{".jsx"}, Read: read})
}

// family are the languages this package reads.
var family = map[string]bool{"TypeScript": true, "TSX": true, "JavaScript": true, "JSX": true, "Vue": true, "Svelte": true}

var environment = &syntax.Environment{Calls: syntax.Set("Deno.env.get"), Indexed: syntax.Set("process.env", "import.meta.env", "Bun.env"), Members: syntax.Set("process.env", "import.meta.env", "Bun.env")}

type reader struct {
	s      *syntax.Stream
	f      *model.Facts
	signs  syntax.Signs
	names  map[string]bool
	public map[string]bool      // names in export lists
	heads  map[int]bool         // definitions of functions without a body
	locals map[string]model.Use // what names taken from elsewhere stand for
	drawn  map[string]bool
	built  []model.Use // base types named with the module they are of
}

func newReader(s *syntax.Stream, f *model.Facts) *reader {
	return &reader{s: s, f: f, signs: syntax.Signs{}, names: map[string]bool{}, public: map[string]bool{}, heads: map[int]bool{}, locals: map[string]model.Use{}, drawn: map[string]bool{}}
}

func read(language string, src []byte) *model.Facts {
	ts := language == "TypeScript" || language == "TSX"
	r := newReader(lex(src, language != "TypeScript", ts), &model.Facts{})
	if syntax.Interpreter(src) != "" {
		r.f.Starts = 1
	}
	r.statements(0, r.s.Len(), "")
	r.dropOverloads()
	r.walk()
	for i := range r.f.Definitions {
		d := &r.f.Definitions[i]
		if d.Parent == "" && r.public[d.Name] {
			d.Exported = true
		}
		if d.Parent == "" && d.Exported {
			r.names[d.Name] = true
		}
	}
	r.f.Names = syntax.SortedSet(r.names)
	r.bases()
	r.routes()
	r.pages()
	r.f.Env = environment.Read(r.s)
	r.doc()
	return syntax.Finish(r.f, r.s, r.signs)
}

// hasBody reports whether a function that ends with token last is written out:
// a brace behind a colon is only a type.
func (r *reader) hasBody(last int) bool {
	s := r.s
	if !s.Is(last, "}") {
		return false
	}
	open := int(s.Tokens[last].Match)
	return open <= 0 || !s.Is(open-1, ":")
}

// dropOverloads leaves out the heads of a function that is written out further
// on: they say how it may be called, not what it is.
func (r *reader) dropOverloads() {
	if len(r.heads) == 0 {
		return
	}
	whole := map[string]bool{}
	key := func(d *model.Definition) string { return string(d.Kind) + " " + d.Parent + " " + d.Name }
	for i := range r.f.Definitions {
		if d := &r.f.Definitions[i]; !r.heads[i] && (d.Kind == model.DefFunction || d.Kind == model.DefMethod) {
			whole[key(d)] = true
		}
	}
	kept := r.f.Definitions[:0]
	for i := range r.f.Definitions {
		if d := r.f.Definitions[i]; !r.heads[i] || !whole[key(&d)] {
			kept = append(kept, d)
		}
	}
	r.f.Definitions = kept
}

// doc keeps a block comment that opens the file, when it is about the module.
func (r *reader) doc() {
	s := r.s
	for _, c := range s.Comments {
		if len(s.Tokens) > 0 && c.Start > s.Tokens[0].Start {
			return
		}
		t := string(s.Src[c.Start:c.End])
		if !strings.HasPrefix(t, "/**") {
			continue
		}
		// A comment right above a definition is about that, unless it says so.
		if len(s.Tokens) > 0 && int(s.Tokens[0].Line) == int(c.EndLine)+1 && !strings.Contains(t, "@file") && !strings.Contains(t, "@module") && !s.Is(0, "import") {
			return
		}
		var lines []string
		for l := range strings.Lines(strings.TrimSuffix(t[3:], "*/")) {
			l = strings.TrimPrefix(strings.TrimSpace(l), "*")
			l = strings.TrimSpace(strings.NewReplacer("@fileoverview", "", "@file", "").Replace(l))
			if strings.HasPrefix(l, "@") || strings.HasPrefix(l, "Copyright") {
				break
			}
			lines = append(lines, l)
		}
		r.f.Doc, r.f.DocLine = syntax.Sentence(strings.Join(lines, "\n"), 240), int(c.Line)
		return
	}
}

func (r *reader) define(name, parent string, kind model.DefinitionKind, first, last int, exported bool) *model.Definition {
	r.f.Definitions = append(r.f.Definitions, model.Definition{Name: name, Parent: parent, Kind: kind, Line: r.s.Line(first), EndLine: r.s.EndLine(last), Exported: exported})
	return &r.f.Definitions[len(r.f.Definitions)-1]
}

// statements walks the statements between two tokens that are at the top of a
// file or of a namespace.
func (r *reader) statements(i, end int, parent string) {
	for i < end {
		next := r.statement(i, end, parent)
		if next <= i {
			next = r.s.Close(i) + 1
		}
		i = next
	}
}

var modifiers = map[string]bool{"declare": true, "abstract": true, "async": true, "default": true, "export": true}

func (r *reader) statement(i, end int, parent string) int {
	s := r.s
	first := i
	exported, isDefault := false, false
	for s.Is(i, "@") { // decorators
		i++
		for s.IsIdent(i) || s.Is(i, ".") {
			i++
		}
		if s.Is(i, "(") {
			r.decorator(s.Text(i-1), i)
			i = s.Close(i) + 1
		}
	}
	for modifiers[string(s.Bytes(i))] && s.Kind(i) == syntax.Ident && !s.Is(i+1, "=") && !s.Is(i+1, ".") && (!s.Is(i+1, "(") || exported && s.Is(i, "default")) {
		switch {
		case s.Is(i, "export"):
			exported = true
			if s.Is(i+1, "{") || s.Is(i+1, "*") || s.Is(i+1, "type") && (s.Is(i+2, "{") || s.Is(i+2, "*")) {
				return r.exportList(i)
			}
			if s.Is(i+1, "=") {
				return i + 2
			}
		case s.Is(i, "default"):
			isDefault = true
			r.names["default"] = true
		}
		i++
	}
	if s.Kind(i) != syntax.Ident {
		if isDefault && s.Is(i, "(") { // export default (…) => …
			last := r.statementEnd(i, end)
			r.define("default", parent, r.functionKind("", i, last), first, last, true)
			return last + 1
		}
		return i
	}
	switch s.Text(i) {
	case "import":
		return r.importStatement(i)
	case "function":
		j := i + 1
		if s.Is(j, "*") {
			j++
		}
		name := "default"
		if s.IsIdent(j) {
			name = s.Text(j)
			j++
		}
		j = r.skipTypeArgs(j)
		params := r.params(j)
		last := r.bodyEnd(j)
		d := r.define(name, parent, r.functionKind(name, j, last), first, last, exported)
		d.Params = params
		if !r.hasBody(last) {
			r.heads[len(r.f.Definitions)-1] = true
		}
		if isDefault && name != "default" {
			r.public[name] = true
		}
		return last + 1
	case "class":
		return r.class(i, first, parent, exported)
	case "interface":
		if !s.IsIdent(i + 1) {
			return i + 1
		}
		j := r.skipTypeArgs(i + 2)
		for j < end && !s.Is(j, "{") {
			if k := r.skipTypeArgs(j); k > j {
				j = k
				continue
			}
			j = s.Close(j) + 1
		}
		d := r.define(s.Text(i+1), parent, model.DefInterface, first, s.Close(j), exported)
		d.Bases = r.baseNames(i+2, j)
		return s.Close(j) + 1
	case "enum":
		if s.IsIdent(i+1) && s.Is(i+2, "{") {
			r.define(s.Text(i+1), parent, model.DefEnum, first, s.Close(i+2), exported)
			return s.Close(i+2) + 1
		}
	case "type":
		if s.IsIdent(i+1) && s.Line(i) == s.Line(i+1) {
			j := r.skipTypeArgs(i + 2)
			if s.Is(j, "=") {
				last := r.statementEnd(j+1, end)
				r.define(s.Text(i+1), parent, model.DefType, first, last, exported)
				return last + 1
			}
		}
	case "global":
		// "declare global { … }": what it holds belongs to no one namespace.
		if s.Is(i+1, "{") {
			close := s.Close(i + 1)
			r.statements(i+2, close, parent)
			return close + 1
		}
	case "namespace", "module":
		j := i + 1
		name := ""
		for s.IsIdent(j) || s.Is(j, ".") || s.Kind(j) == syntax.String {
			name += s.Unquote(j)
			j++
		}
		if name != "" && s.Is(j, "{") && s.Line(i) == s.Line(i+1) {
			close := s.Close(j)
			r.define(name, parent, model.DefNamespace, first, close, exported)
			r.statements(j+1, close, join(parent, name))
			return close + 1
		}
	case "const", "let", "var":
		if s.Is(i+1, "enum") && s.IsIdent(i+2) && s.Is(i+3, "{") {
			r.define(s.Text(i+2), parent, model.DefEnum, first, s.Close(i+3), exported)
			return s.Close(i+3) + 1
		}
		return r.variables(i, first, end, parent, exported)
	case "module.exports":
	}
	if isDefault {
		last := r.statementEnd(i, end)
		if s.IsIdent(i) && last <= i+1 {
			r.public[s.Text(i)] = true
		} else {
			kind := r.functionKind("", i, last)
			if kind == model.DefFunction && !r.isFunction(i, last) {
				kind = model.DefConstant // a value that something else makes
			}
			r.define("default", parent, kind, first, last, true)
		}
		return last + 1
	}
	return r.assignment(i, end, parent)
}

// assignment reads "exports.name = …", "module.exports = …" and
// "Thing.prototype.name = …".
func (r *reader) assignment(i, end int, parent string) int {
	s := r.s
	j := i
	for s.IsIdent(j) && s.Is(j+1, ".") && s.IsIdent(j+2) {
		j += 2
	}
	if j > i && s.Is(j+1, "=") && !s.Is(j+2, "=") && s.Tokens[j+1].End == s.Tokens[j+1].Start+1 && (s.Is(i, "exports") || s.Is(i, "module") && s.Is(i+2, "exports")) {
		name := s.Text(j)
		last := r.statementEnd(j+2, end)
		if name == "exports" {
			r.names["default"] = true
			if s.Is(j+2, "{") { // module.exports = { a, b }
				for k := j + 3; k < s.Close(j+2); k = s.Close(k) + 1 {
					if s.IsIdent(k) && (s.Is(k-1, "{") || s.Is(k-1, ",")) {
						r.public[s.Text(k)] = true
						r.names[s.Text(k)] = true
					}
				}
			} else if s.IsIdent(j+2) && last <= j+3 {
				r.public[s.Text(j+2)] = true
			}
			return last + 1
		}
		if s.Is(j+2, "function") || s.Is(j+2, "async") || s.Is(j+2, "(") {
			r.define(name, parent, r.functionKind(name, j+2, last), i, last, true)
		}
		r.names[name] = true
		return last + 1
	}
	return r.statementEnd(i, end) + 1
}

func join(parent, name string) string {
	if parent == "" {
		return name
	}
	return parent + "." + name
}

func (r *reader) variables(i, first, end int, parent string, exported bool) int {
	s := r.s
	kind := model.DefVariable
	if s.Is(i, "const") {
		kind = model.DefConstant
	}
	last := r.statementEnd(i+1, end)
	for j := i + 1; j <= last; {
		start := j
		if j == i+1 {
			start = first
		}
		stop := j
		for stop <= last && !s.Is(stop, ",") {
			if s.Is(stop, "<") { // a comma between type arguments is none
				if k := r.skipTypeArgs(stop); k > stop {
					stop = k
					continue
				}
			}
			stop = s.Close(stop) + 1
		}
		ending := stop - 1
		if ending > j && s.Is(ending, ";") {
			ending--
		}
		switch {
		case s.Is(j, "{") || s.Is(j, "["):
			r.pattern(j, kind, parent, start, ending, exported)
		case s.IsIdent(j):
			eq := j + 1
			for eq <= ending && !s.Is(eq, "=") {
				eq = s.Close(eq) + 1
			}
			k := kind
			if eq <= ending {
				k = r.valueKind(s.Text(j), eq+1, ending, kind)
			}
			d := r.define(s.Text(j), parent, k, start, max(ending, j), exported)
			if k == model.DefFunction || k == model.DefComponent {
				d.Params = r.params(r.paramsOf(eq+1, ending))
			}
			if k == model.DefClass {
				for c := eq + 1; c <= ending; c++ {
					if s.Is(c, "{") {
						r.classBody(c, join(parent, s.Text(j)))
						break
					}
				}
			}
		}
		j = stop + 1
	}
	return last + 1
}

// pattern defines the names a destructuring pattern binds.
func (r *reader) pattern(open int, kind model.DefinitionKind, parent string, first, last int, exported bool) {
	s := r.s
	for k := open + 1; k < s.Close(open); {
		switch {
		case s.IsIdent(k) && (s.Is(k+1, ",") || s.Is(k+1, "}") || s.Is(k+1, "]") || s.Is(k+1, "=")):
			r.define(s.Text(k), parent, kind, first, last, exported)
			if s.Is(k+1, "=") {
				for k++; k < s.Close(open) && !s.Is(k, ","); k = s.Close(k) + 1 {
				}
			}
		case (s.Is(k, "{") || s.Is(k, "[")) && !s.Is(k-1, "="):
			r.pattern(k, kind, parent, first, last, exported)
		}
		k = s.Close(k) + 1
	}
}

var wrappers = map[string]bool{"memo": true, "forwardRef": true, "observer": true, "lazy": true}

// valueKind is the kind of a variable by what it is set to.
func (r *reader) valueKind(name string, i, end int, kind model.DefinitionKind) model.DefinitionKind {
	s := r.s
	switch {
	case s.Is(i, "class"):
		return model.DefClass
	case r.isFunction(i, end):
		return r.functionKind(name, i, end)
	}
	call := i
	for s.IsIdent(call) && s.Is(call+1, ".") {
		call += 2
	}
	if s.IsIdent(call) && wrappers[s.Text(call)] && upper(name) {
		return model.DefComponent
	}
	return kind
}

// isFunction reports whether the expression from i to end is a function or an
// arrow function.
func (r *reader) isFunction(i, end int) bool {
	s := r.s
	if s.Is(i, "async") {
		i++
	}
	if s.Is(i, "function") {
		return true
	}
	i = r.skipTypeArgs(i)
	if s.IsIdent(i) && s.Is(i+1, "=>") {
		return true
	}
	if !s.Is(i, "(") {
		return false
	}
	for k := s.Close(i) + 1; k <= end; k = s.Close(k) + 1 {
		switch {
		case s.Is(k, "=>"):
			return true
		case s.Is(k, ":"), s.IsIdent(k), s.Is(k, "<"), s.Is(k, ">"), s.Is(k, "."), s.Is(k, "|"), s.Is(k, "&"), s.Is(k, "["), s.Is(k, "{"), s.Kind(k) == syntax.String, s.Is(k, ","):
		default:
			return false
		}
	}
	return false
}

func (r *reader) paramsOf(i, end int) int {
	for ; i <= end && !r.s.Is(i, "("); i++ {
		if r.s.Is(i, "=>") {
			return end + 1
		}
	}
	return i
}

func upper(name string) bool { return name != "" && name[0] >= 'A' && name[0] <= 'Z' }

// functionKind tells components from other functions: a capital letter and an
// element drawn inside.
func (r *reader) functionKind(name string, i, end int) model.DefinitionKind {
	if !upper(name) && name != "" {
		return model.DefFunction
	}
	for k := i; k <= end && k < r.s.Len(); k++ {
		if r.s.Kind(k) == syntax.TagOpen {
			return model.DefComponent
		}
	}
	return model.DefFunction
}

func (r *reader) params(open int) int {
	s := r.s
	if !s.Is(open, "(") {
		return 0
	}
	end := s.Close(open)
	if end <= open+1 {
		return 0
	}
	n := 1
	for k := open + 1; k < end; {
		if s.Is(k, "<") {
			if j := r.skipTypeArgs(k); j > k {
				k = j
				continue
			}
		}
		if s.Is(k, ",") && k+1 < end {
			n++
		}
		k = s.Close(k) + 1
	}
	return n
}

// skipTypeArgs steps over "<…>" at i when it reads like type parameters.
func (r *reader) skipTypeArgs(i int) int {
	s := r.s
	if !s.Is(i, "<") {
		return i
	}
	depth := 0
	for k := i; k < s.Len() && k < i+2000; {
		switch {
		case s.Is(k, "<"):
			depth++
		case s.Is(k, ">"):
			depth--
			if depth == 0 {
				return k + 1
			}
		case s.Is(k, ";"), s.Is(k, ")"), s.Is(k, "}"), s.Is(k, "]"):
			return i
		}
		k = s.Close(k) + 1
	}
	return i
}

// bodyEnd is the last token of a function whose parameters open at or after i:
// its body's "}", or the end of an overload without one.
func (r *reader) bodyEnd(i int) int {
	s := r.s
	for i < s.Len() && !s.Is(i, "(") {
		if s.Is(i, "{") || s.Is(i, ";") {
			return s.Close(i)
		}
		i++
	}
	last := s.Close(i)
	for k := last + 1; k < s.Len(); {
		switch {
		case s.Is(k, ";"):
			return k
		case s.Is(k, "{"):
			// In a return type an object type comes right behind ":" or an
			// operator of types; a body comes behind anything else.
			if p := k - 1; s.Is(p, ":") || s.Is(p, "|") || s.Is(p, "&") || s.Is(p, "<") || s.Is(p, ",") || s.Is(p, "=>") || s.Is(p, "is") || s.Is(p, "extends") || s.Is(p, "?") {
				break
			}
			return s.Close(k)
		case s.Line(k) != s.EndLine(k-1) && (s.IsIdent(k) || s.Is(k, "}") || s.Is(k, "@")) && !s.Is(k-1, ":") && !s.Is(k-1, "|") && !s.Is(k-1, "&") && !s.Is(k-1, "=>") && !s.Is(k-1, ",") && !s.Is(k-1, "<"):
			return k - 1
		case s.Is(k, "}"), s.Is(k, ")"):
			return k - 1
		}
		last = s.Close(k)
		k = last + 1
	}
	return max(min(last, s.Len()-1), 0)
}

var goesOn = regexp.MustCompile(`^(in|of|instanceof|as|satisfies|extends|is|keyof|typeof|infer|new|return|await|yield|const|let|var|case|default|else|async|readonly|unique)$`)

// statementEnd is the last token of the statement that holds token i, by the
// rules with which semicolons are put in.
func (r *reader) statementEnd(i, end int) int {
	s := r.s
	for i < end {
		if s.Is(i, ";") {
			return i
		}
		j := s.Close(i)
		if j+1 >= end {
			return end - 1
		}
		if s.Line(j+1) > s.EndLine(j) && r.endsValue(j) && r.startsStatement(j+1) {
			return j
		}
		i = j + 1
	}
	return max(end-1, 0)
}

// endsValue reports whether an expression can end with token i.
func (r *reader) endsValue(i int) bool {
	s := r.s
	switch s.Kind(i) {
	case syntax.Number, syntax.String, syntax.Regex, syntax.TagEnd:
		return true
	case syntax.Ident:
		if (s.Is(i, "of") || s.Is(i, "is") || s.Is(i, "as")) && (s.Is(i-1, "=") || s.Is(i-1, "(") || s.Is(i-1, ",")) {
			return true // a name here, since nothing stands before it to be one of
		}
		return s.Is(i-1, ".") || s.Is(i, "const") && s.Is(i-1, "as") || !goesOn.Match(s.Bytes(i))
	}
	switch string(s.Bytes(i)) {
	case ")", "]", "}", "++", "--", ">", "!":
		return true
	}
	return false
}

// startsStatement reports whether token i, first on its line, begins anew
// rather than going on with the line before.
func (r *reader) startsStatement(i int) bool {
	s := r.s
	switch s.Kind(i) {
	case syntax.Ident:
		switch s.Text(i) {
		case "in", "of", "instanceof", "as", "satisfies", "extends", "is":
			return s.Is(i+1, "=") || s.Is(i+1, "(") || s.Is(i+1, ".")
		}
		return true
	case syntax.Number, syntax.String, syntax.Regex:
		return true
	case syntax.TagOpen:
		return true
	}
	switch string(s.Bytes(i)) {
	case "@", "{", "}", "++", "--", "...", "!", "~", ";":
		return true
	}
	return false
}
