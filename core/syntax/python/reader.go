// Package python reads Python.
package python

import (
	"cmp"
	"regexp"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
	"jantel/core/syntax/indented"
)

func init() {
	syntax.Register(&syntax.Language{
		Name: "Python", Version: 11,
		Profile: syntax.Profile{Code: true, Inherits: true, ClassInterfaces: true, Reached: true, CalledBelow: true,
			FolderFiles: []string{"__init__.py"},
			Words:       map[string]model.Role{"views": model.RoleHandler, "admin": model.RoleConfig},
			HandsOn:     true, Invoked: "__call__", Getters: syntax.Set("property", "cached_property", "functools.cached_property"),
			ListOne: syntax.Set("pop", "first", "last", "get"), ListGives: syntax.Set("filter", "all", "order_by", "exclude", "copy", "values"),
		},
		Loggers: []string{"logging", "loguru", "structlog", "eliot"}, Extensions: []string{".py", ".pyi", ".pyw"},
		Shebangs: []string{"python", "pypy"}, Read: read, Resolve: resolve,
	})
}

var environment = &syntax.Environment{
	Calls:   syntax.Set("os.getenv", "os.environ.get", "environ.get", "getenv", "os.environ.setdefault"),
	Indexed: syntax.Set("os.environ", "environ"), Fails: syntax.Set("os.environ[", "environ["),
}

type reader struct {
	s     *syntax.Stream
	f     *model.Facts
	signs syntax.Signs
	names map[string]bool
	// What names of other modules are called here, and what classes build upon.
	locals map[string]model.Use
	bases  []model.Use
}

func read(how syntax.How, src []byte) *model.Facts {
	r := &reader{s: indented.Lex(src), f: syntax.NewFacts(), signs: syntax.Signs{}, names: map[string]bool{}, locals: map[string]model.Use{}}
	if syntax.Interpreter(src) != "" {
		r.f.Starts = 1
	}
	r.doc()
	r.block(0, scope{})
	r.walk()
	r.routes()
	r.inherit()
	r.setup()
	r.f.Env = environment.Read(r.s)
	r.f.Names = syntax.SortedSet(r.names)
	r.bodies()
	return syntax.Finish(how, r.f, r.s, r.signs)
}

// doc keeps the opening paragraph of the module's docstring.
func (r *reader) doc() {
	s := r.s
	if s.Kind(0) != syntax.String {
		return
	}
	t := strings.TrimLeft(s.Text(0), "rRuUbB")
	for _, q := range []string{`"""`, `'''`, `"`, `'`} {
		if strings.HasPrefix(t, q) && len(t) >= 2*len(q) {
			t = t[len(q) : len(t)-len(q)]
			break
		}
	}
	r.f.Doc, r.f.DocLine = syntax.Sentence(t, 240), s.Line(0)
}

type scope struct {
	parent   string
	class    bool
	function bool
	depth    int
}

// block reads statements from i to the end of its indentation and returns the
// index behind it.
func (r *reader) block(i int, sc scope) int {
	s := r.s
	for i < s.Len() {
		switch s.Kind(i) {
		case syntax.Dedent:
			return i + 1
		case syntax.Indent:
			// Belongs to a compound statement whose head was read already.
			i = r.block(i+1, sc)
		case syntax.Newline:
			i++
		default:
			i = r.statement(i, sc)
		}
	}
	return i
}

// lineEnd is the index of the Newline that ends the logical line of token i.
func (r *reader) lineEnd(i int) int {
	for i < r.s.Len() && r.s.Kind(i) != syntax.Newline {
		i = r.s.Close(i) + 1
	}
	return i
}

// statements reads what each word begins, and gives the token behind it, 0 where
// it begins nothing here.
var statements map[string]func(r *reader, i int, sc scope, marks []string) int

func init() {
	statements = map[string]func(r *reader, i int, sc scope, marks []string) int{
		"def":    func(r *reader, i int, sc scope, marks []string) int { return r.function(i, i, sc, marks) },
		"class":  func(r *reader, i int, sc scope, marks []string) int { return r.class(i, sc, marks) },
		"import": func(r *reader, i int, sc scope, _ []string) int { return r.imports(i, sc) },
		"from":   func(r *reader, i int, sc scope, _ []string) int { return r.importFrom(i, sc) },
		"async": func(r *reader, i int, sc scope, marks []string) int {
			if !r.s.Is(i+1, "def") {
				return 0
			}
			return r.function(i+1, i, sc, marks)
		},
		"if": func(r *reader, i int, sc scope, _ []string) int {
			if sc.depth == 0 && r.s.Is(i+1, "__name__") && r.f.Starts == 0 {
				r.f.Starts = r.s.Line(i)
			}
			return 0
		},
	}
}

// statement reads the statement at i with the decorators above it.
func (r *reader) statement(i int, sc scope) int {
	s := r.s
	i, marks := r.decorators(i)
	if s.Kind(i) != syntax.Ident {
		return r.lineEnd(i) + 1
	}
	word := s.Text(i)
	if read := statements[word]; read != nil {
		if next := read(r, i, sc, marks); next > 0 {
			return next
		}
	}
	if isBlockWord[word] {
		return r.compound(i, sc)
	}
	end := r.lineEnd(i)
	for at := i; !sc.function && at < end; {
		if at > i && s.Any(at, "import", "from") {
			return at // a statement of its own
		}
		stop := r.until(at, end, ";")
		r.assignment(at, min(stop, end), sc)
		at = stop + 1
	}
	return end + 1
}

// until is the next token that reads text at or behind i, end without one.
func (r *reader) until(i, end int, text string) int {
	for i < end && !r.s.Is(i, text) {
		i = r.s.Close(i) + 1
	}
	return i
}

// decorators reads those above a statement and gives where it begins.
func (r *reader) decorators(i int) (int, []string) {
	s := r.s
	var marks []string
	for s.Is(i, "@") {
		end := r.lineEnd(i)
		var b strings.Builder
		for k := i + 1; k < end && s.Any(k, syntax.Name, "."); k++ {
			b.WriteString(s.Text(k))
		}
		marks = append(marks, b.String())
		if b.Len() > 0 && routeMark.MatchString(b.String()) {
			r.signs.Add(model.SignRoutes, s.Line(i))
		}
		for i = end; s.Kind(i) == syntax.Newline; {
			i++
		}
	}
	return i, marks
}

var isBlockWord = map[string]bool{
	"if": true, "elif": true, "else": true, "try": true, "except": true, "finally": true, "with": true, "for": true,
	"while": true, "match": true, "case": true, "async": true,
}

// compound steps behind the colon of "if", "try" and their like, so that what
// follows on the same line is read as a statement.
func (r *reader) compound(i int, sc scope) int {
	s := r.s
	for k := i + 1; k < s.Len(); k = s.Close(k) + 1 {
		if s.Kind(k) == syntax.Newline {
			return k + 1
		}
		if s.Is(k, "lambda") {
			for k < s.Len() && !s.Is(k, ":") && s.Kind(k) != syntax.Newline {
				k = s.Close(k) + 1
			}
			continue
		}
		if s.Is(k, ":") {
			return k + 1
		}
		if s.Is(k, "=") && (s.Any(i, "match", "case")) {
			end := r.lineEnd(i) // "match = …" is an assignment
			if !sc.function {
				r.assignment(i, end, sc)
			}
			return end + 1
		}
	}
	return s.Len()
}

// suite reads the body of a definition whose head starts at i and returns its
// last line and the index behind it.
func (r *reader) suite(i int, sc scope) (endLine, next int) {
	s := r.s
	k := i
	for k < s.Len() && !s.Any(k, ":", syntax.Break) {
		if s.Is(k, "lambda") {
			k = r.until(k, s.Len(), ":")
		}
		k = s.Close(k) + 1
	}
	if s.Is(k, ":") && s.Kind(k+1) != syntax.Newline { // all on one line
		end := r.lineEnd(k)
		if sc.depth < maxDepth {
			r.inline(k+1, end, sc)
		}
		return s.EndLine(end - 1), end + 1
	}
	for k++; s.Kind(k) == syntax.Newline; {
		k++
	}
	if s.Kind(k) != syntax.Indent {
		return s.EndLine(max(k-1, i)), k
	}
	if sc.depth < maxDepth {
		next = r.block(k+1, sc)
	} else {
		next = r.outdent(k)
	}
	last := next - 1
	for last > k && (s.Any(last, syntax.Break) || s.Kind(last) == syntax.Dedent || s.Kind(last) == syntax.EOF) {
		last--
	}
	return s.EndLine(last), next
}

// maxDepth is how deep definitions are read; deeper than anyone reads they are
// stepped over.
const maxDepth = 100

// outdent is behind the block that is indented at k.
func (r *reader) outdent(k int) int {
	for n := 0; k < r.s.Len(); k++ {
		switch r.s.Kind(k) {
		case syntax.Indent:
			n++
		case syntax.Dedent:
			if n--; n == 0 {
				return k + 1
			}
		}
	}
	return k + 1
}

func (r *reader) inline(i, end int, sc scope) {
	for i < end {
		stop := i
		for stop < end && !r.s.Is(stop, ";") {
			stop = r.s.Close(stop) + 1
		}
		switch {
		case r.s.Is(i, "import"):
			r.imports(i, sc)
		case r.s.Is(i, "from"):
			r.importFrom(i, sc)
		case !sc.function:
			r.assignment(i, stop, sc)
		}
		i = stop + 1
	}
}

func join(parent, name string) string {
	if parent == "" {
		return name
	}
	return parent + "." + name
}

func (r *reader) function(i, first int, sc scope, marks []string) int {
	s := r.s
	if !s.IsIdent(i + 1) {
		return r.lineEnd(i) + 1
	}
	name := s.Text(i + 1)
	d := model.Definition{Name: name, Parent: sc.parent, Kind: model.DefFunction, Line: s.Line(first), Marks: marks}
	if sc.class {
		d.Kind = model.DefMethod
	}
	d.Exported = !sc.function && !strings.HasPrefix(name, "_")
	j := i + 2
	if s.Is(j, "[") {
		j = s.Close(j) + 1
	}
	if s.Is(j, "(") {
		d.Params = params(s, j, sc.class)
	}
	if strings.HasPrefix(name, "test_") {
		r.signs.Add(model.SignTest, s.Line(i))
	}
	if sc.parent == "" {
		r.names[name] = true
	}
	at := len(r.f.Definitions)
	r.f.Definitions = append(r.f.Definitions, d)
	end, next := r.suite(i, scope{parent: join(sc.parent, name), function: true, depth: sc.depth + 1})
	r.f.Definitions[at].EndLine = max(end, d.Line)
	return next
}

func params(s *syntax.Stream, open int, method bool) int {
	end, n, any := s.Close(open), 0, false
	for k := open + 1; k < end; k = s.Close(k) + 1 {
		if s.Is(k, ",") {
			any = false
		} else if !any && s.IsIdent(k) {
			any = true
			if !(method && n == 0 && (s.Any(k, "self", "cls")) && k == open+1) {
				n++
			}
		}
	}
	return n
}

// maxBases bounds the base classes that are followed of one file.
const maxBases = 2000

// inherit keeps the base classes that come from other modules. A dotted name
// may be a class of a module, or of a module of a package.
func (r *reader) inherit() {
	for _, b := range r.bases {
		parts := strings.Split(b.Name, ".")
		for n := len(parts); n > 0; n-- {
			u, ok := r.locals[strings.Join(parts[:n], ".")]
			if !ok {
				continue
			}
			if rest := parts[n:]; len(rest) > 0 {
				if u.Name != "*" {
					if !strings.HasSuffix(u.Module, ".") { // "from . import lots" names .lots
						u.Module += "."
					}
					u.Module += u.Name
				}
				u.Name = rest[0]
			}
			if u.Name != "*" {
				r.f.Uses = append(r.f.Uses, model.Use{Kind: model.LinkInheritance, Module: u.Module, Name: u.Name, Line: b.Line})
			}
			break
		}
	}
}

func (r *reader) class(i int, sc scope, marks []string) int {
	s := r.s
	if !s.IsIdent(i + 1) {
		return r.lineEnd(i) + 1
	}
	name := s.Text(i + 1)
	d := model.Definition{
		Name: name, Parent: sc.parent, Kind: model.DefClass, Line: s.Line(i), Marks: marks,
		Exported: !sc.function && !strings.HasPrefix(name, "_"),
	}
	j := i + 2
	if s.Is(j, "[") {
		j = s.Close(j) + 1
	}
	if s.Is(j, "(") {
		r.buildsOn(j, &d)
	}
	if sc.parent == "" {
		r.names[name] = true
	}
	at := len(r.f.Definitions)
	r.f.Definitions = append(r.f.Definitions, d)
	end, next := r.suite(i, scope{parent: join(sc.parent, name), class: true, depth: sc.depth + 1})
	r.f.Definitions[at].EndLine = max(end, d.Line)
	return next
}

// enums are the bases that make a class an enumeration.
var enums = syntax.Set("Enum", "IntEnum", "StrEnum", "Flag", "IntFlag")

// buildsOn reads the bases of a class between parentheses.
func (r *reader) buildsOn(open int, d *model.Definition) {
	s := r.s
	for k, end := open+1, s.Close(open); k < end; k = s.Close(k) + 1 {
		if !s.IsIdent(k) || !s.Any(k-1, "(", ",") || s.Is(k+1, "=") {
			continue
		}
		for s.Is(k+1, ".") {
			k += 2
		}
		b := s.Text(k)
		if full, _ := s.Dotted(k); len(r.bases) < maxBases {
			r.bases = append(r.bases, model.Use{Kind: model.LinkInheritance, Name: full, Line: d.Line})
		}
		d.Bases = append(d.Bases, b)
		if enums[b] {
			d.Kind = model.DefEnum
		}
		if b == "TestCase" {
			r.signs.Add(model.SignTest, d.Line)
		}
	}
}

// assignment defines what a line at the top of a module or a class binds.
func (r *reader) assignment(i, end int, sc scope) {
	s := r.s
	if s.Match(i, "*", syntax.Name) {
		i++ // *rest, last = …
	}
	if !s.IsIdent(i) || end <= i+1 || !s.Any(i+1, ":", "=", ",") || s.Is(i+1, ",") && !r.isTuple(i, end) {
		return
	}
	for k := i; k < end; k += 2 {
		name := s.Text(k)
		kind := model.DefVariable
		switch {
		case sc.class:
			kind = model.DefProperty
		case name == strings.ToUpper(name):
			kind = model.DefConstant
		}
		if sc.parent == "" {
			r.names[name] = true
		}
		r.f.Definitions = append(r.f.Definitions, model.Definition{
			Name: name, Parent: sc.parent, Kind: kind, Line: s.Line(i), EndLine: s.EndLine(end - 1),
			Exported: !strings.HasPrefix(name, "_"),
		})
		if s.Match(k+1, ",", "*") {
			k++
		}
		if !s.Any(k+1, ",", "*") || !s.IsIdent(k+2) {
			return
		}
	}
}

// isTuple reports whether names and nothing else stand before the "=": a, *b = …
func (r *reader) isTuple(i, end int) bool {
	s := r.s
	for k := i; k < end && !s.Is(k, "="); k++ {
		if !s.Any(k, syntax.Name, ",") && !s.Match(k-1, ",", "*") {
			return false
		}
	}
	return true
}

func (r *reader) kind(sc scope) model.LinkKind {
	if sc.function {
		return model.LinkLazyImport
	}
	return model.LinkImport
}

// imports reads "import a.b as c, d".
func (r *reader) imports(i int, sc scope) int {
	s := r.s
	end := r.lineEnd(i)
	for k := i + 1; k < end; {
		name := ""
		for s.IsIdent(k) && !s.Is(k, "as") {
			name += s.Text(k)
			if k++; s.Is(k, ".") {
				name += "."
				k++
			}
		}
		im := model.Import{Kind: r.kind(sc), Line: s.Line(i), Text: name, Names: []string{"*"}}
		local := name
		if s.Is(k, "as") {
			im.Alias = s.Text(k + 1)
			local = im.Alias
			k += 2
		}
		r.locals[local] = model.Use{Module: name, Name: "*"}
		if name != "" {
			r.f.Imports = append(r.f.Imports, im)
		}
		if s.Is(k, ";") {
			return k + 1
		}
		k++
	}
	return end + 1
}

// importFrom reads "from ..a.b import (c as d, e)".
func (r *reader) importFrom(i int, sc scope) int {
	s := r.s
	end := r.lineEnd(i)
	im := model.Import{Kind: r.kind(sc), Line: s.Line(i)}
	k := i + 1
	for ; k < end && !s.Is(k, "import"); k++ {
		im.Text += s.Text(k)
	}
	names, as := map[string]bool{}, map[string]string{}
	for k++; k < end && !s.Is(k, ";"); k++ {
		switch {
		case s.Is(k, "*"):
			names["*"], im.Alias = true, "*"
		case s.Is(k, "as"):
			k++
		case s.IsIdent(k):
			names[s.Text(k)] = true
			local := s.Text(k)
			if s.Is(k+1, "as") {
				local = s.Text(k + 2)
				as[s.Text(k)] = local
			}
			r.locals[local] = model.Use{Module: im.Text, Name: s.Text(k)}
			if !sc.function && sc.parent == "" {
				r.names[s.Text(k)] = true
			}
		}
	}
	im.Names = syntax.SortedSet(names)
	for _, n := range im.Names {
		if len(as) > 0 {
			im.As = append(im.As, cmp.Or(as[n], n))
		}
	}
	if im.Text != "" && len(names) > 0 {
		r.f.Imports = append(r.f.Imports, im)
	}
	if k < end {
		return k + 1 // another statement follows in the line
	}
	return end + 1
}

var routeMark = regexp.MustCompile(`(^|\.)(route|get|post|put|delete|patch|websocket)$`)

// applications are the calls that make what a server is handed.
var applications = syntax.Set("Flask", "FastAPI", "Quart", "Starlette", "Sanic", "Litestar", "get_wsgi_application", "get_asgi_application")

// atTop reports whether a token begins a line without being indented.
func (r *reader) atTop(i int) bool {
	at := r.s.Tokens[i].Start
	return at == 0 || r.s.Src[at-1] == '\n'
}

// walk passes over all tokens once for signs of what the file does.
func (r *reader) walk() {
	s := r.s
	for i := range s.Tokens {
		switch s.Tokens[i].Kind {
		case syntax.Ident:
			if !s.Is(i+1, "(") {
				continue
			}
			switch name := string(s.Bytes(i)); {
			case name == "path" && s.Match(i+2, syntax.Quoted, ","), name == "add_url_rule", name == "include_router",
				name == "register_blueprint":
				r.signs.Add(model.SignRoutes, s.Line(i))
			case applications[name] && s.Match(i-2, syntax.Name, "=") && r.atTop(i-2):
				r.signs.Add(model.SignApplication, s.Line(i))
			case (name == "run" || name == "serve_forever") && s.Is(i-1, ".") && (s.Any(i-2, "app", "uvicorn", "server")):
				r.signs.Add(model.SignListens, s.Line(i))
			case (name == "get" || name == "post") && s.Is(i-1, ".") && (s.Any(i-2, "requests", "httpx")), name == "urlopen":
				r.signs.Add(model.SignHTTP, s.Line(i))
			}
		}
	}
}
