package javascript

import (
	"regexp"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// loggers are what programs keep a log with; the console is none.
var loggers = []string{"winston", "pino", "bunyan", "log4js", "loglevel", "debug", "signale", "npmlog", "consola", "morgan", "tslog"}

var profile = syntax.Profile{
	WrittenExports: true, FieldCalls: true,
	Code: true, Inherits: true, Reached: true, FolderFiles: []string{"index.ts", "index.js", "index.mjs"},
	ListGives: syntax.Set("filter", "slice", "sort", "reverse", "concat", "splice", "toSorted", "toReversed", "values"),
	ListOne:   syntax.Set("find", "findLast", "at", "pop", "shift", "get"),
	Words: map[string]model.Role{
		"store": model.RoleState, "stores": model.RoleState, "context": model.RoleState, "module": model.RoleConfig,
	},
	FolderWords: map[string]model.Role{"store": model.RoleState, "stores": model.RoleState},
}

// scripted is the same of scripts that may stand without modules.
var scripted = func() syntax.Profile {
	p := profile
	p.Globals = true
	return p
}()

func init() {
	syntax.Register(&syntax.Language{
		Name: "TypeScript", Version: 18, Profile: profile,
		Loggers: loggers, Extensions: []string{".ts", ".mts", ".cts"}, Read: read, Resolve: resolve,
	})
	syntax.Register(&syntax.Language{
		Name: "TSX", Version: 18, Profile: profile,
		Loggers: loggers, ResolvedWith: "TypeScript", Extensions: []string{".tsx"}, Read: read,
	})
	syntax.Register(&syntax.Language{
		Name: "JavaScript", Version: 21, Profile: scripted,
		Loggers: loggers, ResolvedWith: "TypeScript", Extensions: []string{".js", ".mjs", ".cjs", ".es6"},
		Shebangs: []string{"node", "deno", "bun"}, Read: read,
	})
	syntax.Register(&syntax.Language{
		Name: "JSX", Version: 19, Profile: profile,
		Loggers: loggers, ResolvedWith: "TypeScript", Extensions: []string{".jsx"}, Read: read,
	})
}

// family are the languages this package reads.
var family = map[string]bool{"TypeScript": true, "TSX": true, "JavaScript": true, "JSX": true, "Vue": true, "Svelte": true}

var environment = &syntax.Environment{
	Calls: syntax.Set("Deno.env.get"), Indexed: syntax.Set("process.env", "import.meta.env", "Bun.env"),
	Members: syntax.Set("process.env", "import.meta.env", "Bun.env"),
}

type reader struct {
	s       *syntax.Stream
	f       *model.Facts
	signs   syntax.Signs
	names   map[string]bool
	public  map[string]bool      // names in export lists
	renamed map[string]bool      // those of them that have another name outside
	heads   map[int]bool         // definitions of functions without a body
	locals  map[string]model.Use // what names taken from elsewhere stand for
	drawn   map[string]bool
	built   []model.Use // base types named with the module they are of
	// ends counts by which names routes end, nextTo which stand right before.
	ends, nextTo map[string]int
	page         int  // steps on the elements of a page
	component    bool // a file that is one component: what it hands out is no object
	// typed: it is written with types, and so with modules.
	typed bool
	wraps map[int][]wrapped // by the token a statement begins with
	// standsAt is the "return" by which the function of a module gives what stands
	// for it, 0 where there is none.
	standsAt int
	docs     *docs           // what comments say of types, nil where none does
	puts     map[int]put     // the same
	makes    map[string]bool // functions that are types, by their qualified names
}

func newReader(s *syntax.Stream, f *model.Facts) *reader {
	return &reader{
		s: s, f: f, signs: syntax.Signs{}, names: map[string]bool{}, public: map[string]bool{}, renamed: map[string]bool{},
		heads: map[int]bool{}, locals: map[string]model.Use{}, drawn: map[string]bool{},
	}
}

func read(how syntax.How, src []byte) *model.Facts {
	ts := how.Language == "TypeScript" || how.Language == "TSX"
	r := newReader(lex(src, how.Language != "TypeScript", ts), syntax.NewFacts())
	if syntax.Interpreter(src) != "" {
		r.f.Starts = 1
	}
	r.typed = ts
	r.statements(0, r.s.Len(), "")
	r.constructors()
	r.dropOverloads()
	r.walk()
	for i := range r.f.Definitions {
		d := &r.f.Definitions[i]
		if d.Parent == "" && r.public[d.Name] {
			d.Exported = true
		}
		if d.Parent == "" && d.Exported && !r.renamed[d.Name] {
			r.names[d.Name] = true
		}
	}
	r.f.Names = syntax.SortedSet(r.names)
	r.bases()
	r.routes()
	r.controllers()
	r.pages()
	r.f.Env = environment.Read(r.s)
	r.doc()
	r.docs = r.typesInComments(src)
	r.bodies()
	return syntax.Finish(how, r.f, r.s, r.signs)
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
		if len(s.Tokens) > 0 && int(s.Tokens[0].Line) == int(c.EndLine)+1 && !strings.Contains(t, "@file") &&
			!strings.Contains(t, "@module") && !s.Is(0, "import") {
			return
		}
		r.f.Doc, r.f.DocLine = syntax.DocComment(t), int(c.Line)
		return
	}
}

func (r *reader) define(name, parent string, kind model.DefinitionKind, first, last int, exported bool) *model.Definition {
	r.f.Definitions = append(r.f.Definitions, model.Definition{
		Name: name, Parent: parent, Kind: kind, Line: r.s.Line(first), EndLine: r.s.EndLine(last),
		Exported: exported,
	})
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

// declaration is what a statement declares, as far as it is read.
type declaration struct {
	first     int // its first token, modifiers included
	at, end   int // the word that says what it is, and the end of the scope it stands in
	parent    string
	exported  bool
	isDefault bool
}

// declarations reads what each word begins and gives the token behind it, 0
// where the word is none of that sort here.
var declarations map[string]func(*reader, declaration) int

func init() {
	declarations = map[string]func(*reader, declaration) int{
		"import":    func(r *reader, d declaration) int { return r.importStatement(d.at) },
		"class":     func(r *reader, d declaration) int { return r.class(d.at, d.first, d.parent, d.exported) },
		"function":  (*reader).functionStatement,
		"interface": (*reader).interfaceStatement,
		"enum":      func(r *reader, d declaration) int { return r.enumStatement(d, d.at+1) },
		"type":      (*reader).typeStatement,
		"global":    (*reader).globalBlock,
		"namespace": (*reader).namespaceBlock,
		"module":    (*reader).namespaceBlock,
		"const":     (*reader).bindings,
		"let":       (*reader).bindings,
		"var":       (*reader).bindings,
	}
}

// statement reads the statement at i: decorators, modifiers, then what the
// word behind them begins. What is no declaration is an assignment at most.
func (r *reader) statement(i, end int, parent string) int {
	s := r.s
	d := declaration{first: i, at: r.decorators(i), end: end, parent: parent}
	if next := r.modifiers(&d); next > 0 {
		return next
	}
	if next := r.wrapper(i, end, parent); next > 0 {
		return next
	}
	if !s.IsIdent(d.at) {
		if d.isDefault && s.Is(d.at, "(") { // export default (…) => …
			last := r.statementEnd(d.at, end)
			r.define("default", parent, r.functionKind("", d.at, last), d.first, last, true)
			return last + 1
		}
		if d.isDefault && s.Is(d.at, "{") && !r.component { // export default { … }
			last := r.statementEnd(d.at, end)
			r.define("default", parent, model.DefConstant, d.first, last, true)
			r.members(d.at, join(parent, "default"), true)
			return last + 1
		}
		return d.at
	}
	if read := declarations[s.Text(d.at)]; read != nil {
		if next := read(r, d); next > 0 {
			return next
		}
	}
	if d.isDefault {
		return r.defaultValue(d)
	}
	return r.assignment(d.at, end, parent)
}

// decorators reads those at i and gives the token behind them.
func (r *reader) decorators(i int) int {
	s := r.s
	for s.Is(i, "@") {
		i++
		for s.Any(i, syntax.Name, ".") {
			i++
		}
		if s.Is(i, "(") {
			r.decorator(s.Text(i-1), i)
			i = s.Close(i) + 1
		}
	}
	return i
}

// modifiers steps over the words before a declaration. A list of exports is
// none: it is read, and the token behind it given; otherwise 0.
func (r *reader) modifiers(d *declaration) int {
	s := r.s
	for r.isModifier(d) {
		switch s.Text(d.at) {
		case "export":
			d.exported = true
			if s.Any(d.at+1, "{", "*") || s.Is(d.at+1, "type") && s.Any(d.at+2, "{", "*") {
				return r.exportList(d.at)
			}
			if s.Is(d.at+1, "=") {
				return d.at + 2
			}
		case "default":
			d.isDefault = true
			r.names["default"] = true
		}
		d.at++
	}
	return 0
}

// isModifier reports whether the word is one rather than a name that is set,
// asked or called.
func (r *reader) isModifier(d *declaration) bool {
	s := r.s
	if !s.IsIdent(d.at) || !modifiers[s.Text(d.at)] || s.Any(d.at+1, "=", ".") {
		return false
	}
	return !s.Is(d.at+1, "(") || d.exported && s.Is(d.at, "default")
}

func (r *reader) functionStatement(d declaration) int {
	s := r.s
	j := d.at + 1
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
	def := r.define(name, d.parent, r.functionKind(name, j, last), d.first, last, d.exported)
	def.Params = params
	if !r.hasBody(last) {
		r.heads[len(r.f.Definitions)-1] = true
	}
	if d.isDefault && name != "default" {
		r.public[name] = true
	}
	return last + 1
}

func (r *reader) interfaceStatement(d declaration) int {
	s, i := r.s, d.at
	if !s.IsIdent(i + 1) {
		return i + 1
	}
	j := r.skipTypeArgs(i + 2)
	for j < d.end && !s.Is(j, "{") {
		if k := r.skipTypeArgs(j); k > j {
			j = k
			continue
		}
		j = s.Close(j) + 1
	}
	def := r.define(s.Text(i+1), d.parent, model.DefInterface, d.first, s.Close(j), d.exported)
	def.Bases = r.baseNames(i+2, j)
	return s.Close(j) + 1
}

func (r *reader) enumStatement(d declaration, name int) int {
	s := r.s
	if !s.Match(name, syntax.Name, "{") {
		return 0
	}
	r.define(s.Text(name), d.parent, model.DefEnum, d.first, s.Close(name+1), d.exported)
	return s.Close(name+1) + 1
}

func (r *reader) typeStatement(d declaration) int {
	s, i := r.s, d.at
	if !s.IsIdent(i+1) || s.Line(i) != s.Line(i+1) {
		return 0
	}
	j := r.skipTypeArgs(i + 2)
	if !s.Is(j, "=") {
		return 0
	}
	last := r.statementEnd(j+1, d.end)
	r.define(s.Text(i+1), d.parent, model.DefType, d.first, last, d.exported)
	return last + 1
}

// globalBlock reads "declare global { … }": what it holds belongs to no one
// namespace.
func (r *reader) globalBlock(d declaration) int {
	if !r.s.Is(d.at+1, "{") {
		return 0
	}
	close := r.s.Close(d.at + 1)
	r.statements(d.at+2, close, d.parent)
	return close + 1
}

func (r *reader) namespaceBlock(d declaration) int {
	s, j := r.s, d.at+1
	name := ""
	for s.Any(j, syntax.Name, ".", syntax.Quoted) {
		name += s.Unquote(j)
		j++
	}
	if name == "" || !s.Is(j, "{") || s.Line(d.at) != s.Line(d.at+1) {
		return 0
	}
	close := s.Close(j)
	r.define(name, d.parent, model.DefNamespace, d.first, close, d.exported)
	r.statements(j+1, close, join(d.parent, name))
	return close + 1
}

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
		case s.Any(k, ";", ")", "}", "]"):
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
		if s.Any(i, "{", ";") {
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
			if p := k - 1; s.Any(p, ":", "|", "&", "<", ",", "=>", "is", "extends", "?") {
				break
			}
			return s.Close(k)
		case s.Line(k) != s.EndLine(k-1) && (s.Any(k, syntax.Name, "}", "@")) && !s.Is(k-1, ":") && !s.Is(k-1, "|") &&
			!s.Is(k-1, "&") && !s.Is(k-1, "=>") && !s.Is(k-1, ",") && !s.Is(k-1, "<"):
			return k - 1
		case s.Any(k, "}", ")"):
			return k - 1
		}
		last = s.Close(k)
		k = last + 1
	}
	return max(min(last, s.Len()-1), 0)
}

var goesOn = regexp.MustCompile(
	`^(in|of|instanceof|as|satisfies|extends|is|keyof|typeof|infer|new|return|` +
		`await|yield|const|let|var|case|default|else|async|readonly|unique)$`,
)

// statementEnd is the last token of the statement that holds token i, by the
// rules with which semicolons are put in.
func (r *reader) statementEnd(i, end int) int {
	s := r.s
	for i < end {
		if s.Is(i, ";") {
			return i
		}
		j := s.Close(i)
		if w, ok := r.functionAt(i); ok {
			j = s.Close(w.open) // its body may open on the next line
		}
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
		if (s.Any(i, "of", "is", "as")) && (s.Any(i-1, "=", "(", ",")) {
			return true // a name here, since nothing stands before it to be one of
		}
		return s.Is(i-1, ".") || s.Match(i-1, "as", "const") || !goesOn.Match(s.Bytes(i))
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
			return s.Any(i+1, "=", "(", ".")
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
