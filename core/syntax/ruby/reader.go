// Package ruby reads Ruby.
package ruby

import (
	"bytes"
	"regexp"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func init() {
	syntax.Register(&syntax.Language{Name: "Ruby", Version: 7, Profile: syntax.Profile{Code: true, OneType: true, NamedForType: true, Inherits: true, ControllerEnd: "_controller.rb", ControllerRoot: "app/controllers/"}, Extensions: []string{".rb", ".rake", ".ru", ".thor", ".jbuilder"}, FileNames: []string{"Rakefile", "Guardfile", "Capfile", "Vagrantfile", "Thorfile"}, Shebangs: []string{"ruby", "rake"}, Read: read, Resolve: resolve})
}

// block is something that an "end" closes.
type block struct {
	def    int    // index of its definition, -1 when it defines nothing
	scope  string // the full name of the module around, behind it
	isType bool
	hidden bool // methods from here on are private
	loop   bool // its header may hold a "do" that opens nothing
}

var environment = &syntax.Environment{Calls: syntax.Set("ENV.fetch", "ENV.key?"), Indexed: syntax.Set("ENV")}

type reader struct {
	s     *syntax.Stream
	f     *model.Facts
	signs syntax.Signs
	names map[string]bool
	stack []block
	seen  map[string]int
	types map[int]bool // tokens that name what is defined
}

func read(_ string, src []byte) *model.Facts {
	r := &reader{s: lex(src), f: &model.Facts{}, signs: syntax.Signs{}, names: map[string]bool{}, seen: map[string]int{}, types: map[int]bool{}}
	for i := 0; i < r.s.Len(); {
		i = max(r.token(i), i+1)
	}
	for _, b := range r.stack {
		if b.def >= 0 {
			r.f.Definitions[b.def].EndLine = r.s.EndLine(r.s.Len() - 1)
			if r.s.Problem == "" {
				r.s.Problem = "an end is missing"
			}
		}
	}
	r.stack = nil
	r.routes()
	r.f.Env = environment.Read(r.s)
	for n, line := range r.seen {
		r.f.Mentions = append(r.f.Mentions, model.Mention{Name: n, Line: line})
	}
	sort.Slice(r.f.Mentions, func(i, j int) bool { return r.f.Mentions[i].Name < r.f.Mentions[j].Name })
	r.f.Names = syntax.SortedSet(r.names)
	return syntax.Finish(r.f, r.s, r.signs)
}

func (r *reader) scope() string {
	if len(r.stack) == 0 {
		return ""
	}
	return r.stack[len(r.stack)-1].scope
}

// starts reports whether a statement or an expression may begin at i.
func (r *reader) starts(i int) bool {
	if i == 0 {
		return true
	}
	s := r.s
	switch s.Kind(i - 1) {
	case syntax.Newline:
		return true
	case syntax.String:
		b := s.Bytes(i - 1)
		return b[len(b)-1] == ':' // behind a label
	case syntax.Text: // of a heredoc, which stands behind a line's end
		return r.starts(i - 1)
	case syntax.Number, syntax.Regex:
		return false
	case syntax.Ident:
		switch s.Text(i - 1) {
		case "if", "unless", "while", "until", "and", "or", "not", "then", "else", "elsif", "do", "begin", "ensure", "rescue", "when", "in", "case", "return", "private", "protected", "public", "module_function", "memoize", "helper_method", "private_class_method", "public_class_method":
			return !s.Is(i-2, ".")
		}
		return false
	}
	switch s.Src[s.Tokens[i-1].Start] {
	case ')', ']', '}', '.':
		return false
	}
	return true
}

func (r *reader) open(b block) { r.stack = append(r.stack, b) }

func (r *reader) token(i int) int {
	s := r.s
	if k := s.Kind(i); k == syntax.String || k == syntax.Text || k == syntax.Regex {
		r.holes(i)
	}
	if n := len(r.stack); n > 0 && (s.Any(i, syntax.Break, ";")) {
		r.stack[n-1].loop = false // the line's end ends a loop's header
	}
	if s.Kind(i) != syntax.Ident {
		return i + 1
	}
	if s.Any(i-1, ".", "&.") {
		// A method called by a keyword's name; "X::y" is looked at below.
		r.call(i)
		return i + 1
	}
	word := s.Text(i)
	switch word {
	case "class":
		return r.class(i)
	case "module":
		if r.starts(i) && isConstant(s, i+1) {
			return r.module(i)
		}
	case "def":
		return r.method(i)
	case "if", "unless":
		if r.starts(i) && !r.afterJump(i) {
			r.open(block{def: -1, scope: r.scope()})
		}
	case "while", "until":
		if r.starts(i) && !r.afterJump(i) {
			r.open(block{def: -1, scope: r.scope(), loop: true})
		}
	case "for":
		if r.starts(i) {
			r.open(block{def: -1, scope: r.scope(), loop: true})
		}
	case "case", "begin":
		r.open(block{def: -1, scope: r.scope()})
	case "do":
		if n := len(r.stack); n > 0 && r.stack[n-1].loop {
			r.stack[n-1].loop = false // the header's own "do"
			return i + 1
		}
		r.open(block{def: -1, scope: r.scope()})
	case "end":
		r.shut(i)
	case "private", "protected":
		if n := len(r.stack); n > 0 && (s.Any(i+1, syntax.Break, ";")) {
			r.stack[n-1].hidden = true
		}
	case "public":
		if n := len(r.stack); n > 0 && s.Kind(i+1) == syntax.Newline {
			r.stack[n-1].hidden = false
		}
	case "attr_accessor", "attr_reader", "attr_writer":
		r.attributes(i)
	case "__FILE__":
		if s.Is(i-1, "=") && s.Is(i+1, "=") || s.Match(i+1, "=", "=") || s.Is(i-1, "=") {
			if r.f.Starts == 0 {
				r.f.Starts = s.Line(i)
			}
		}
	default:
		if r.call(i) {
			return i + 1
		}
		if isConstant(s, i) {
			return r.constant(i)
		}
	}
	return i + 1
}

var inHole = regexp.MustCompile(`(?:::)?\b[A-Z]\w*(?:::[A-Z]\w*)*`)

// holes keeps the constants named in the code inside a string.
func (r *reader) holes(i int) {
	b := r.s.Bytes(i)
	for at := bytes.Index(b, []byte("#{")); at >= 0; {
		end := bytes.IndexByte(b[at:], '}')
		if end < 0 {
			return
		}
		for _, m := range inHole.FindAllIndex(b[at:at+end], -1) {
			if c := b[at+m[0]-1]; c != '.' && c != '@' && c != '"' && c != '\'' && c != ':' {
				r.mention(string(b[at+m[0]:at+m[1]]), r.scope(), r.s.Line(i)+bytes.Count(b[:at+m[0]], []byte{'\n'}))
			}
		}
		next := bytes.Index(b[at+end:], []byte("#{"))
		if next < 0 {
			return
		}
		at += end + next
	}
}

// afterJump reports whether the keyword at i follows "return" and its like: it
// is then a condition, not a block.
func (r *reader) afterJump(i int) bool {
	switch r.s.Text(i - 1) {
	case "return", "next", "break", "redo", "retry", "yield", "super", "private", "public", "protected":
		return true
	}
	return false
}

func (r *reader) shut(i int) {
	n := len(r.stack)
	if n == 0 {
		if r.s.Problem == "" {
			r.s.Problem = "an end closes nothing"
		}
		return
	}
	b := r.stack[n-1]
	r.stack = r.stack[:n-1]
	if b.def >= 0 {
		r.f.Definitions[b.def].EndLine = r.s.EndLine(i)
	}
}

func isConstant(s *syntax.Stream, i int) bool {
	if s.Kind(i) == syntax.Punct && s.Is(i, "::") {
		i++
	}
	b := s.Bytes(i)
	return s.Kind(i) == syntax.Ident && len(b) > 0 && b[0] >= 'A' && b[0] <= 'Z'
}

// path reads A::B::C and returns it with the index behind.
func (r *reader) path(i int) (string, int) {
	s := r.s
	var b strings.Builder
	if s.Is(i, "::") {
		b.WriteString("::")
		i++
	}
	for isConstant(s, i) && !s.Is(i, "::") {
		b.Write(s.Bytes(i))
		i++
		if !s.Is(i, "::") || !isConstant(s, i+1) {
			break
		}
		b.WriteString("::")
		i++
	}
	return b.String(), i
}

func (r *reader) define(i, end int, name string, kind model.DefinitionKind, public bool) int {
	s := r.s
	parent := strings.ReplaceAll(r.scope(), "::", ".")
	r.f.Definitions = append(r.f.Definitions, model.Definition{Name: name, Parent: parent, Kind: kind, Line: s.Line(i), EndLine: s.EndLine(end), Exported: public})
	return len(r.f.Definitions) - 1
}

// maxScope bounds how long the name of a scope grows, in bytes.
const maxScope = 500

func under(scope, name string) string {
	if rest, ok := strings.CutPrefix(name, "::"); ok || name == "" {
		return rest
	}
	if scope == "" {
		return name
	}
	if len(scope) > maxScope {
		return scope // nested without end by a text made for it: names say no more
	}
	return scope + "::" + name
}

func (r *reader) class(i int) int {
	s := r.s
	if s.Any(i+1, "<", "<<") { // class << self
		r.open(block{def: -1, scope: r.scope(), isType: true})
		j := i + 1
		for s.Is(j, "<") {
			j++
		}
		return j + 1
	}
	if !isConstant(s, i+1) || !r.starts(i) {
		return i + 1
	}
	name, j := r.path(i + 1)
	for k := i + 1; k < j; k++ {
		r.types[k] = true
	}
	d := r.define(i, i, last(name), model.DefClass, true)
	r.names[name] = true
	if i := strings.LastIndex(name, "::"); i >= 0 {
		r.f.Definitions[d].Parent = strings.ReplaceAll(under(r.scope(), name[:i]), "::", ".")
	}
	if s.Is(j, "<") && isConstant(s, j+1) {
		base, k := r.path(j + 1)
		r.f.Definitions[d].Bases = append(r.f.Definitions[d].Bases, base)
		r.mention(base, r.scope(), s.Line(j))
		j = k
	}
	r.open(block{def: d, scope: under(r.scope(), name), isType: true})
	return j
}

func last(name string) string { return name[strings.LastIndex(name, ":")+1:] }

func (r *reader) module(i int) int {
	name, j := r.path(i + 1)
	d := r.define(i, i, last(name), model.DefNamespace, true)
	r.names[name] = true
	if i := strings.LastIndex(name, "::"); i >= 0 {
		r.f.Definitions[d].Parent = strings.ReplaceAll(under(r.scope(), name[:i]), "::", ".")
	}
	r.open(block{def: d, scope: under(r.scope(), name), isType: true})
	return j
}

var operators = map[string]bool{"+": true, "-": true, "*": true, "/": true, "<": true, ">": true, "=": true, "!": true, "%": true, "&": true, "|": true, "^": true, "~": true, "[": true, "`": true}

// method reads a definition's head; its body goes on up to an "end", unless it
// is written in one expression behind "=".
func (r *reader) method(i int) int {
	s := r.s
	j := i + 1
	own := false
	if s.IsIdent(j) && (s.Any(j+1, ".", "::")) {
		j += 2
		own = true
	}
	name := ""
	switch {
	case s.Kind(j) == syntax.Ident:
		name = s.Text(j)
		j++
		// A setter: the sign right behind its name.
		if s.Is(j, "=") && s.Tokens[j].Start == s.Tokens[j-1].End && (s.Is(j+1, "(") || s.IsIdent(j+1) && s.Tokens[j+1].Start > s.Tokens[j].End) && !strings.HasSuffix(name, "?") {
			name += "="
			j++
		}
	case s.Kind(j) == syntax.String: // "def if:" can not be; a label eaten with its colon
		name = strings.TrimSuffix(s.Unquote(j), ":")
		j++
	case operators[s.Text(j)]:
		for s.Kind(j) == syntax.Punct && (operators[s.Text(j)] || s.Any(j, "]", "@")) && s.Line(j) == s.Line(i) && (len(name) == 0 || s.Tokens[j].Start == s.Tokens[j-1].End) {
			name += s.Text(j)
			j++
		}
		if s.Is(j, "@") && s.Tokens[j].Start == s.Tokens[j-1].End {
			if name == "+" || name == "-" {
				name += "@"
			}
			j++
		}
	case s.Kind(j) == syntax.Regex:
		name = "/"
		j++
	}
	if name == "" {
		return i + 1
	}
	kind := model.DefFunction
	public := true
	if sc := r.scope(); sc != "" || own {
		kind = model.DefMethod
	}
	if n := len(r.stack); n > 0 && !own {
		public = !r.stack[n-1].hidden
	}
	if s.Any(i-1, "private", "protected", "private_class_method") {
		public = false
	}
	public = public || s.Is(i-1, "public")
	params := 0
	if s.Is(j, "(") {
		close := s.Close(j)
		for k := j + 1; k < close; k = s.Close(k) + 1 {
			if s.Is(k, ",") {
				params++
			}
		}
		if close > j+1 {
			params++
		}
		for k := j + 1; k < close; {
			if isConstant(s, k) {
				k = max(r.constant(k), k+1)
				continue
			}
			k++
		}
		j = close + 1
	}
	d := r.define(i, j-1, name, kind, public)
	r.f.Definitions[d].Params = params
	if s.Is(j, "=") && s.Kind(j-1) != syntax.Newline && !strings.HasSuffix(name, "=") {
		// Written in one expression: it ends with its statement.
		k, depth := j+1, len(r.stack)
		for k < s.Len() && (s.Kind(k) != syntax.Newline || len(r.stack) > depth) {
			k = max(r.token(k), k+1)
		}
		r.f.Definitions[d].EndLine = s.EndLine(min(k-1, s.Len()-1))
		return k
	}
	r.open(block{def: d, scope: r.scope()})
	return j
}

func (r *reader) attributes(i int) {
	s := r.s
	if r.scope() == "" {
		return
	}
	for k := i + 1; s.Any(k, syntax.Quoted, ",", "(") || s.Match(k-1, ",", syntax.Break); k++ {
		if b := s.Text(k); s.Kind(k) == syntax.String && b[0] == ':' {
			n := len(r.stack)
			r.define(k, k, b[1:], model.DefProperty, n == 0 || !r.stack[n-1].hidden)
		}
	}
}

// constant reads a constant: set here, or only named.
func (r *reader) constant(i int) int {
	s := r.s
	name, j := r.path(i)
	if j == i {
		return i + 1
	}
	if s.Is(j, "=") && !s.Is(j+1, "=") && !s.Is(j+1, "~") && !s.Is(j+1, ">") && r.starts(i) && !s.Is(i-1, ",") && !strings.Contains(name, "::") && s.Tokens[j].End == s.Tokens[j].Start+1 {
		d := r.define(i, i, name, model.DefConstant, true)
		r.names[name] = true
		// Its value may hold blocks; the end of the statement is its end.
		k, depth := j+1, len(r.stack)
		for k < s.Len() && (s.Kind(k) != syntax.Newline || len(r.stack) > depth) {
			if s.Kind(k) == syntax.Punct && s.Close(k) > k {
				end := s.Close(k)
				for k++; k < end; {
					k = max(r.token(k), k+1)
				}
				continue
			}
			k = max(r.token(k), k+1)
		}
		r.f.Definitions[d].EndLine = s.EndLine(min(k-1, s.Len()-1))
		return k
	}
	if r.types[i] || s.Is(i-1, ":") {
		return j
	}
	if s.Is(i-1, "::") {
		// "::File" is looked up from the top; "x::File" in what x is, which is
		// not known.
		before := s.Kind(i - 2)
		if touching := i >= 2 && s.Tokens[i-2].End == s.Tokens[i-1].Start; touching && (before == syntax.Ident || s.Any(i-2, ")", "]")) {
			return j
		}
		name = "::" + name
	}
	r.mention(name, r.scope(), s.Line(i))
	return j
}

// mention keeps a constant with the modules around it, in which it is looked
// up one after the other.
func (r *reader) mention(name, scope string, line int) {
	key := scope + "|" + name
	if _, ok := r.seen[key]; !ok {
		r.seen[key] = line
	}
}

// call reads the calls that bring in other files or mix in modules.
func (r *reader) call(i int) bool {
	s := r.s
	j := i + 1
	if s.Is(j, "(") {
		j++
	}
	switch s.Text(i) {
	case "require", "require_relative", "load", "autoload":
		if s.Text(i) == "autoload" && s.Is(j+1, ",") {
			j += 2
		}
		if s.Kind(j) != syntax.String || s.Src[s.Tokens[j].Start] == ':' {
			return false
		}
		text := s.Unquote(j)
		if text == "" || strings.Contains(text, "#{") || strings.ContainsAny(text, "\n") {
			return true
		}
		im := model.Import{Text: text, Line: s.Line(i), Kind: model.LinkImport, Alias: s.Text(i)}
		for _, b := range r.stack {
			if b.def >= 0 && r.f.Definitions[b.def].Kind != model.DefClass && r.f.Definitions[b.def].Kind != model.DefNamespace {
				im.Kind = model.LinkLazyImport
			}
		}
		if s.Text(i) == "autoload" {
			im.Kind = model.LinkLazyImport
		}
		r.f.Imports = append(r.f.Imports, im)
		return true
	case "include", "extend", "prepend":
		if !isConstant(s, j) {
			return false
		}
		for n := len(r.stack) - 1; n >= 0; n-- {
			if b := r.stack[n]; b.isType && b.def >= 0 {
				name, _ := r.path(j)
				r.f.Definitions[b.def].Bases = append(r.f.Definitions[b.def].Bases, name)
				break
			}
		}
	}
	return false
}
