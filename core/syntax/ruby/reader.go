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
	syntax.Register(&syntax.Language{
		Name: "Ruby", Version: 9,
		Profile: syntax.Profile{
			Code: true, Plain: "ruby", OpenTypes: true, TakesIn: true, OneType: true, NamedForType: true, Inherits: true, CalledBelow: true,
			ControllerEnd: "_controller.rb", ControllerRoot: "app/controllers/",
		},
		Extensions: []string{".rb", ".rake", ".ru", ".thor", ".jbuilder"},
		FileNames:  []string{"Rakefile", "Guardfile", "Capfile", "Vagrantfile", "Thorfile"},
		Shebangs:   []string{"ruby", "rake"}, Read: read, Resolve: resolve,
	})
}

// block is something that an "end" closes.
type block struct {
	def    int    // index of its definition, -1 when it defines nothing
	scope  string // the full name of the module around, behind it
	isType bool
	hidden bool // methods from here on are private
	loop   bool // its header may hold a "do" that opens nothing
}

var environment = &syntax.Environment{
	Calls: syntax.Set("ENV.fetch", "ENV.key?"), Indexed: syntax.Set("ENV"), Fails: syntax.Set("ENV.fetch("),
}

type reader struct {
	s     *syntax.Stream
	f     *model.Facts
	signs syntax.Signs
	names map[string]bool
	stack []block
	seen  map[string]int
	types map[int]bool // tokens that name what is defined
}

func read(how syntax.How, src []byte) *model.Facts {
	r := &reader{
		s: lex(src), f: syntax.NewFacts(), signs: syntax.Signs{}, names: map[string]bool{}, seen: map[string]int{},
		types: map[int]bool{},
	}
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
	r.bodies()
	r.s.Ends, r.s.Implicit = true, true
	return syntax.Finish(how, r.f, r.s, r.signs)
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
		case "if", "unless", "while", "until", "and", "or", "not", "then", "else", "elsif", "do", "begin", "ensure",
			"rescue", "when", "in", "case", "return", "private", "protected", "public", "module_function", "memoize",
			"helper_method", "private_class_method", "public_class_method":
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

func (r *reader) push(b block) { r.stack = append(r.stack, b) }

// blockWords are the words that open what an "end" closes, where a statement
// may begin; with the loops among them.
var blockWords = map[string]struct{ anywhere, loop bool }{
	"if": {}, "unless": {}, "while": {loop: true}, "until": {loop: true}, "for": {loop: true},
	"case": {anywhere: true}, "begin": {anywhere: true},
}

// keywords reads what each word means where it stands, and gives the token
// behind it.
var keywords map[string]func(*reader, int) int

func init() {
	keywords = map[string]func(*reader, int) int{
		"class":         (*reader).class,
		"module":        (*reader).module,
		"def":           (*reader).method,
		"do":            (*reader).do,
		"end":           (*reader).shut,
		"private":       (*reader).hide,
		"protected":     (*reader).hide,
		"public":        (*reader).show,
		"attr_accessor": (*reader).attributes,
		"attr_reader":   (*reader).attributes,
		"attr_writer":   (*reader).attributes,
		"__FILE__":      (*reader).ownFile,
	}
	for word := range blockWords {
		keywords[word] = (*reader).block
	}
}

// token reads on at token i and gives the next one to read.
func (r *reader) token(i int) int {
	s := r.s
	switch s.Kind(i) {
	case syntax.String, syntax.Text, syntax.Regex:
		r.holes(i)
	}
	if n := len(r.stack); n > 0 && s.Any(i, syntax.Break, ";") {
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
	if read := keywords[string(s.Bytes(i))]; read != nil {
		return read(r, i)
	}
	if !r.call(i) && isConstant(s, i) {
		return r.constant(i)
	}
	return i + 1
}

// block opens what an "end" will close; behind a statement the word is only
// its condition.
func (r *reader) block(i int) int {
	w := blockWords[r.s.Text(i)]
	if w.anywhere || r.starts(i) && (r.s.Is(i, "for") || !r.afterJump(i)) {
		r.push(block{def: -1, scope: r.scope(), loop: w.loop})
	}
	return i + 1
}

func (r *reader) do(i int) int {
	if n := len(r.stack); n > 0 && r.stack[n-1].loop {
		r.stack[n-1].loop = false // the header's own "do"
		return i + 1
	}
	r.push(block{def: -1, scope: r.scope()})
	return i + 1
}

// hide reads "private" alone: methods from here on are.
func (r *reader) hide(i int) int {
	if n := len(r.stack); n > 0 && r.s.Any(i+1, syntax.Break, ";") {
		r.stack[n-1].hidden = true
	}
	return i + 1
}

func (r *reader) show(i int) int {
	if n := len(r.stack); n > 0 && r.s.Kind(i+1) == syntax.Newline {
		r.stack[n-1].hidden = false
	}
	return i + 1
}

// ownFile reads "if __FILE__ == $0": the file is run by itself.
func (r *reader) ownFile(i int) int {
	if r.f.Starts == 0 && (r.s.Is(i-1, "=") || r.s.Match(i+1, "=", "=")) {
		r.f.Starts = r.s.Line(i)
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

func (r *reader) shut(i int) int {
	n := len(r.stack)
	if n == 0 {
		if r.s.Problem == "" {
			r.s.Problem = "an end closes nothing"
		}
		return i + 1
	}
	b := r.stack[n-1]
	r.stack = r.stack[:n-1]
	if b.def >= 0 {
		r.f.Definitions[b.def].EndLine = r.s.EndLine(i)
	}
	return i + 1
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
	r.f.Definitions = append(r.f.Definitions, model.Definition{
		Name: name, Parent: parent, Kind: kind, Line: s.Line(i), EndLine: s.EndLine(end), Exported: public,
	})
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
		r.push(block{def: -1, scope: r.scope(), isType: true})
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
	r.push(block{def: d, scope: under(r.scope(), name), isType: true})
	return j
}

func last(name string) string { return name[strings.LastIndex(name, ":")+1:] }

func (r *reader) module(i int) int {
	if !r.starts(i) || !isConstant(r.s, i+1) {
		return i + 1
	}
	name, j := r.path(i + 1)
	d := r.define(i, i, last(name), model.DefNamespace, true)
	r.names[name] = true
	if i := strings.LastIndex(name, "::"); i >= 0 {
		r.f.Definitions[d].Parent = strings.ReplaceAll(under(r.scope(), name[:i]), "::", ".")
	}
	r.push(block{def: d, scope: under(r.scope(), name), isType: true})
	return j
}

var operators = map[string]bool{
	"+": true, "-": true, "*": true, "/": true, "<": true, ">": true, "=": true, "!": true, "%": true, "&": true,
	"|": true, "^": true, "~": true, "[": true, "`": true,
}

// method reads a definition's head; its body goes on up to an "end", unless it
// is written in one expression behind "=".
func (r *reader) method(i int) int {
	s := r.s
	j := i + 1
	own := s.IsIdent(j) && s.Any(j+1, ".", "::")
	if own {
		j += 2
	}
	name, j := r.methodName(j)
	if name == "" {
		return i + 1
	}
	kind := model.DefFunction
	if r.scope() != "" || own {
		kind = model.DefMethod
	}
	params, j := r.parameters(j)
	d := r.define(i, j-1, name, kind, r.isPublic(i, own))
	r.f.Definitions[d].Params = params
	if n := len(r.stack); own || n > 0 && r.stack[n-1].isType && r.stack[n-1].def < 0 {
		r.f.Definitions[d].Marks = append(r.f.Definitions[d].Marks, "self")
	}
	if s.Is(j, "=") && s.Kind(j-1) != syntax.Newline && !strings.HasSuffix(name, "=") {
		return r.valueOf(d, j, false)
	}
	r.push(block{def: d, scope: r.scope()})
	return j
}

// isPublic reports whether what the "def" at i defines may be called from
// elsewhere; own says that it belongs to the class itself.
func (r *reader) isPublic(i int, own bool) bool {
	if r.s.Any(i-1, "private", "protected", "private_class_method") {
		return false
	}
	n := len(r.stack)
	return n == 0 || own || !r.stack[n-1].hidden || r.s.Is(i-1, "public")
}

// touching reports whether no blank stands between a token and the one before.
func (r *reader) touching(i int) bool { return r.s.Tokens[i].Start == r.s.Tokens[i-1].End }

// methodName reads the name at j, with the sign of a setter or all signs of an
// operator, and gives the token behind.
func (r *reader) methodName(j int) (string, int) {
	s := r.s
	switch {
	case s.Kind(j) == syntax.Ident:
		name := s.Text(j)
		j++
		argument := s.Is(j+1, "(") || s.IsIdent(j+1) && !r.touching(j+1)
		if s.Is(j, "=") && r.touching(j) && argument && !strings.HasSuffix(name, "?") {
			return name + "=", j + 1
		}
		return name, j
	case s.Kind(j) == syntax.String: // "def if:" can not be; a label eaten with its colon
		return strings.TrimSuffix(s.Unquote(j), ":"), j + 1
	case operators[s.Text(j)]:
		return r.operatorName(j)
	case s.Kind(j) == syntax.Regex:
		return "/", j + 1
	}
	return "", j
}

// operatorName reads "+", "<=>", "[]=", "-@" and their like.
func (r *reader) operatorName(j int) (name string, next int) {
	s := r.s
	first := j
	for s.Kind(j) == syntax.Punct && (operators[s.Text(j)] || s.Any(j, "]", "@")) && (j == first || r.touching(j)) {
		name += s.Text(j)
		j++
	}
	if s.Is(j, "@") && r.touching(j) {
		if name == "+" || name == "-" {
			name += "@"
		}
		j++
	}
	return name, j
}

// parameters counts those that open at j and gives the token behind them.
func (r *reader) parameters(j int) (count, next int) {
	s := r.s
	if !s.Is(j, "(") {
		return 0, j
	}
	close := s.Close(j)
	if close > j+1 {
		count = 1
	}
	for k := j + 1; k < close; k = s.Close(k) + 1 {
		if s.Is(k, ",") {
			count++
		}
	}
	for k := j + 1; k < close; {
		if isConstant(s, k) {
			k = max(r.constant(k), k+1)
			continue
		}
		k++
	}
	return count, close + 1
}

// valueOf reads what stands behind the "=" at eq up to the end of the
// statement, which may hold blocks of its own, and ends definition d there;
// brackets says that lines may end within brackets.
func (r *reader) valueOf(d, eq int, brackets bool) int {
	s := r.s
	k, depth := eq+1, len(r.stack)
	for k < s.Len() && (s.Kind(k) != syntax.Newline || len(r.stack) > depth) {
		if brackets && s.Kind(k) == syntax.Punct && s.Close(k) > k {
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

func (r *reader) attributes(i int) int {
	s := r.s
	if r.scope() == "" {
		return i + 1
	}
	for k := i + 1; s.Any(k, syntax.Quoted, ",", "(") || s.Match(k-1, ",", syntax.Break); k++ {
		if b := s.Text(k); s.Kind(k) == syntax.String && b[0] == ':' {
			n := len(r.stack)
			r.define(k, k, b[1:], model.DefProperty, n == 0 || !r.stack[n-1].hidden)
		}
	}
	return i + 1
}

// constant reads a constant: set here, or only named.
func (r *reader) constant(i int) int {
	s := r.s
	name, j := r.path(i)
	if j == i {
		return i + 1
	}
	if s.Is(j, "=") && !s.Any(j+1, "=", "~", ">") && r.starts(i) && !s.Is(i-1, ",") && !strings.Contains(name, "::") {
		d := r.define(i, i, name, model.DefConstant, true)
		r.names[name] = true
		return r.valueOf(d, j, true)
	}
	if r.types[i] || s.Is(i-1, ":") {
		return j
	}
	if s.Is(i-1, "::") {
		// "::File" is looked up from the top; "x::File" in what x is, which is
		// not known.
		if i >= 2 && r.touching(i-1) && s.Any(i-2, syntax.Name, ")", "]") {
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
	case "autoload":
		if s.Is(j+1, ",") {
			j += 2
		}
		return r.required(i, j)
	case "require", "require_relative", "load":
		return r.required(i, j)
	case "include", "extend", "prepend":
		r.mixed(j)
	}
	return false
}

// required reads the file that the call at i brings in by the text at j.
func (r *reader) required(i, j int) bool {
	s := r.s
	if s.Kind(j) != syntax.String || s.Src[s.Tokens[j].Start] == ':' {
		return false
	}
	text := s.Unquote(j)
	if text == "" || strings.Contains(text, "#{") || strings.ContainsAny(text, "\n") {
		return true
	}
	im := model.Import{Text: text, Line: s.Line(i), Kind: model.LinkImport, Alias: s.Text(i)}
	if s.Is(i, "autoload") || r.inMethod() {
		im.Kind = model.LinkLazyImport
	}
	r.f.Imports = append(r.f.Imports, im)
	return true
}

// inMethod reports whether what is read only runs when something is called.
func (r *reader) inMethod() bool {
	for _, b := range r.stack {
		if b.def < 0 {
			continue
		}
		if k := r.f.Definitions[b.def].Kind; k != model.DefClass && k != model.DefNamespace {
			return true
		}
	}
	return false
}

// mixed adds the module at j to the bases of the type around.
func (r *reader) mixed(j int) {
	if !isConstant(r.s, j) {
		return
	}
	for n := len(r.stack) - 1; n >= 0; n-- {
		if b := r.stack[n]; b.isType && b.def >= 0 {
			name, end := r.path(j)
			if r.s.Is(end, ".") {
				return // made in place
			}
			r.f.Definitions[b.def].Bases = append(r.f.Definitions[b.def].Bases, name)
			return
		}
	}
}
