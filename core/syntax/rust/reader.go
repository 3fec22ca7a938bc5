// Package rust reads Rust.
package rust

import (
	"bytes"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func init() {
	syntax.Register(&syntax.Language{
		Name: "Rust", Version: 3, Profile: syntax.Profile{
			ExactRoutes: true,
			Code:        true, Plain: "rust", Reached: true, SameNames: true, FolderFiles: []string{"mod.rs", "lib.rs"},
		},
		Loggers: []string{"log", "tracing", "slog", "env_logger"}, Extensions: []string{".rs"}, Read: read,
		Resolve: resolve,
	})
}

var grammar = &syntax.Braces{NestedComments: true, Special: special}

// special takes raw strings, strings that run over lines, characters and the
// names of lifetimes, which start with the same sign as a character.
func special(b *syntax.Builder) bool {
	switch b.Src[b.Pos] {
	case '"':
		return quoted(b, 0)
	case '\'':
		return character(b, 0)
	case 'r', 'b', 'c':
		return marked(b)
	}
	return false
}

// marked takes what a letter stands before: r"…", r#"…"#, b"…", b'…', br"…",
// c"…", and r#type, which is the name "type".
func marked(b *syntax.Builder) bool {
	src, p := b.Src, b.Pos
	if p > 0 && syntax.IsIdentPart(src[p-1]) {
		return false
	}
	at := func(i int) byte {
		if i < len(src) {
			return src[i]
		}
		return 0
	}
	n := 1
	if src[p] != 'r' {
		switch at(p + 1) {
		case '"':
			return quoted(b, 1)
		case '\'':
			return character(b, 1)
		case 'r':
			n = 2
		default:
			return false
		}
	}
	hashes := 0
	for at(p+n+hashes) == '#' {
		hashes++
	}
	if at(p+n+hashes) == '"' {
		b.Until(n+hashes+1, `"`+strings.Repeat("#", hashes))
		return true
	}
	if hashes == 1 && n == 1 && syntax.IsIdentStart(at(p+2)) {
		for b.Pos += 2; b.Pos < len(src) && syntax.IsIdentPart(src[b.Pos]); {
			b.Pos++
		}
		b.Add(syntax.Ident, p+2, b.LineNo)
		return true
	}
	return false
}

// quoted takes a string, which may hold line ends, after so many bytes.
func quoted(b *syntax.Builder, prefix int) bool {
	start, line := b.Pos, b.LineNo
	b.Pos += prefix
	if b.Quoted('"', true) {
		b.FromEarlier(start)
		return true
	}
	b.Pos, b.LineNo = start+prefix+1, line
	b.Misread("a string is not closed", line)
	b.Add(syntax.Punct, start, line)
	return true
}

// character takes 'x' or '\n'; a lifetime 'a is taken as a sign.
func character(b *syntax.Builder, prefix int) bool {
	start, line, src := b.Pos, b.LineNo, b.Src
	p := b.Pos + prefix + 1
	if end := characterEnd(src, p); end >= 0 {
		b.Pos = end + 1
		b.Add(syntax.String, start, line)
		return true
	}
	for b.Pos = p; b.Pos < len(src) && syntax.IsIdentPart(src[b.Pos]); {
		b.Pos++
	}
	b.Add(syntax.Punct, start, line)
	return true
}

// characterEnd is where the sign stands that ends the character at p, -1 where
// none does.
func characterEnd(src []byte, p int) int {
	if p >= len(src) {
		return -1
	}
	if src[p] == '\\' {
		for k := p + 2; k < len(src) && k < p+14 && src[k-1] != '\n'; k++ {
			if src[k] == '\'' {
				return k
			}
		}
		return -1
	}
	k := p + 1
	for k < len(src) && k < p+4 && src[k]&0xC0 == 0x80 {
		k++
	}
	if k < len(src) && src[k] == '\'' && !syntax.In(src[p], "'\n") {
		return k
	}
	return -1
}

var environment = &syntax.Environment{Calls: syntax.Set("var", "var_os")}

type reader struct {
	s     *syntax.Stream
	f     *model.Facts
	signs syntax.Signs
	names map[string]bool
	paths map[string]bool // paths met in the code, once each
}

func read(how syntax.How, src []byte) *model.Facts {
	r := &reader{s: grammar.Lex(src), f: syntax.NewFacts(), signs: syntax.Signs{}, names: map[string]bool{}, paths: map[string]bool{}}
	r.items(0, r.s.Len(), scope{})
	r.inside()
	r.f.Doc, r.f.DocLine = opening(src)
	r.f.Env = environment.Read(r.s)
	r.f.Names = syntax.SortedSet(r.names)
	plainly.Calls(r.s, r.f)
	r.s.Implicit = true
	return syntax.Finish(how, r.f, r.s, r.signs)
}

// opening is the text of the "//!" lines a file starts with.
func opening(src []byte) (string, int) {
	var text []string
	first := 0
	for n, rest := 1, src; len(rest) > 0; n++ {
		var line []byte
		line, rest, _ = bytes.Cut(rest, []byte{'\n'})
		l := strings.TrimSpace(string(line))
		doc, ok := strings.CutPrefix(l, "//!")
		switch {
		case ok:
			if first == 0 {
				first = n
			}
			text = append(text, strings.TrimSpace(strings.TrimLeft(doc, " #")))
			continue
		case first == 0 && (l == "" || strings.HasPrefix(l, "//")):
			continue
		}
		break
	}
	return syntax.Sentence(strings.TrimLeft(strings.Join(text, "\n"), "\n"), 240), first
}

// scope is what a run of items lies in.
type scope struct {
	parent   string // qualified name
	modules  string // path of the modules around, for files below them
	body     bool   // of a type or a trait: functions are methods
	trait    bool   // whose members are as public as it is
	exported bool
	hidden   bool // inside a function, where modules are out of reach
}

// items reads declarations from i up to end and steps over everything else.
func (r *reader) items(i, end int, in scope) {
	for i < end {
		i = max(r.item(i, end, in), i+1)
	}
}

type head struct {
	first  int
	public bool
	path   string // of #[path = "…"]
	test   bool
	marks  []string
	macro  bool
}

// attributes reads #[…] and the words before a declaration.
func (r *reader) attributes(i, end int) (head, int) {
	s := r.s
	h := head{first: i}
	for i < end {
		switch {
		case s.Match(i, "#", "["), s.Match(i, "#", "!", "["):
			i = r.attribute(i, &h)
		case s.Is(i, "pub"):
			h.public = true
			i++
			if s.Is(i, "(") {
				i = s.Close(i) + 1
			}
		case r.isQualifier(i):
			i++
		case s.Match(i, "extern", syntax.Quoted) && !s.Is(i+2, "{"):
			i += 2
		default:
			return h, i
		}
	}
	return h, i
}

// isQualifier reports whether a word tells of the function behind it.
func (r *reader) isQualifier(i int) bool {
	s := r.s
	switch s.Text(i) {
	case "default", "safe":
		return s.IsIdent(i + 1)
	case "async":
		return !s.Any(i+1, "{", "move")
	case "unsafe":
		return !s.Is(i+1, "{")
	case "const":
		return s.Any(i+1, "fn", "unsafe", "async", "extern")
	case "extern":
		return s.Is(i+1, "fn")
	}
	return false
}

// attribute reads #[…], or #![…], which tells of all around it.
func (r *reader) attribute(i int, h *head) int {
	s := r.s
	inner := s.Is(i+1, "!")
	j := i + 1
	if inner {
		j++
	}
	name, _ := r.path(j + 1)
	if !inner {
		h.marks = append(h.marks, name)
	}
	switch name {
	case "path":
		if s.Kind(j+3) == syntax.String {
			h.path = s.Unquote(j + 3)
		}
	case "test", "tokio::test", "rstest":
		h.test = true
		r.signs.Add(model.SignTest, s.Line(i))
	case "macro_export":
		h.macro = true
	}
	if inner {
		h.first = s.Close(j) + 1
	}
	return s.Close(j) + 1
}

// path reads a::b::c and returns the index behind it.
func (r *reader) path(i int) (string, int) {
	s := r.s
	var b strings.Builder
	if s.Match(i, ":", ":") {
		b.WriteString("::")
		i += 2
	}
	for s.IsIdent(i) {
		b.Write(s.Bytes(i))
		i++
		if !s.Is(i, ":") || !s.Is(i+1, ":") || !s.IsIdent(i+2) {
			break
		}
		b.WriteString("::")
		i += 2
	}
	return b.String(), i
}

func (r *reader) add(h head, in scope, name string, kind model.DefinitionKind, last int) *model.Definition {
	exported := h.public || in.trait && in.exported
	r.f.Definitions = append(r.f.Definitions, model.Definition{Name: name, Parent: in.parent, Kind: kind,
		Line: r.s.Line(h.first), EndLine: r.s.EndLine(last), Exported: exported, Marks: h.marks})
	d := &r.f.Definitions[len(r.f.Definitions)-1]
	if in.parent == "" && !in.hidden {
		r.names[name] = true
	}
	return d
}

// stop is the index of the semicolon or of the closing brace that ends the
// declaration at i.
func (r *reader) stop(i, end int) (last, open int) {
	s := r.s
	for ; i < end; i = s.Close(i) + 1 {
		if s.Is(i, "{") {
			return s.Close(i), i
		}
		if s.Any(i, ";", "}") {
			return i, -1
		}
	}
	return max(end-1, 0), -1
}

// semicolon is the index of the semicolon that ends the statement at i.
func (r *reader) semicolon(i, end int) int {
	for ; i < end; i = r.s.Close(i) + 1 {
		if r.s.Any(i, ";", "}") {
			return i
		}
	}
	return max(end-1, 0)
}

// items reads what each word begins, and gives the token behind it, 0 where the
// word begins nothing here.
var items map[string]func(*reader, declared) int

// declared is a declaration as far as it is read: what stands before its word,
// where the word stands, and what holds it.
type declared struct {
	head
	at, end int
	in      scope
}

func init() {
	ifNamed := func(read func(*reader, declared) int) func(*reader, declared) int {
		return func(r *reader, d declared) int {
			if !r.s.IsIdent(d.at + 1) {
				return 0
			}
			return read(r, d)
		}
	}
	structure := ifNamed(func(r *reader, d declared) int { return r.structure(d.head, d.at, d.end, d.in) })
	items = map[string]func(*reader, declared) int{
		"use":         func(r *reader, d declared) int { return r.use(d.head, d.at, d.end, d.in) },
		"mod":         (*reader).moduleItem,
		"extern":      (*reader).externItem,
		"struct":      structure,
		"union":       structure,
		"enum":        ifNamed(func(r *reader, d declared) int { return r.enum(d.head, d.at, d.end, d.in) }),
		"trait":       ifNamed((*reader).traitItem),
		"impl":        func(r *reader, d declared) int { return r.implementation(d.at, d.end, d.in) },
		"fn":          ifNamed(func(r *reader, d declared) int { return r.function(d.head, d.at, d.end, d.in) }),
		"type":        ifNamed((*reader).typeItem),
		"const":       (*reader).valueItem,
		"static":      (*reader).valueItem,
		"macro_rules": (*reader).macroRules,
		"macro":       ifNamed((*reader).macroItem),
	}
}

// item reads one declaration, or steps over what is none.
func (r *reader) item(i, end int, in scope) int {
	s := r.s
	h, i := r.attributes(i, end)
	if i >= end {
		return i
	}
	if read := items[s.Text(i)]; read != nil {
		if next := read(r, declared{h, i, end, in}); next > 0 {
			return next
		}
	}
	if open := i + 2; s.Match(i, syntax.Name, "!") && !in.hidden && s.Any(open, "{", "(") {
		// A macro called among the items may well hold items.
		if s.Is(open, "{") && in.parent == "" && !s.Any(i, "compile_error", "thread_local") {
			r.items(open+1, s.Close(open), in)
		}
		return s.Close(open) + 1
	}
	if s.Is(i, "{") && !in.hidden && in.parent == "" {
		// The branch of a macro that picks items by platform.
		r.items(i+1, s.Close(i), in)
	}
	return s.Close(i) + 1
}

func (r *reader) moduleItem(d declared) int {
	if !r.s.IsIdent(d.at + 1) {
		return d.at + 1
	}
	return r.module(d.head, d.at, d.end, d.in)
}

// externItem reads "extern crate name;" and "extern "C" { … }".
func (r *reader) externItem(d declared) int {
	s := r.s
	if s.Is(d.at+1, "crate") {
		kind := model.LinkImport
		if d.public {
			kind = model.LinkReExport
		}
		r.f.Imports = append(r.f.Imports, model.Import{Text: s.Text(d.at + 2), Kind: kind, Line: s.Line(d.first), Alias: "crate"})
		return r.semicolon(d.at, d.end) + 1
	}
	open := d.at + 1
	if s.Kind(open) == syntax.String {
		open++
	}
	if !s.Is(open, "{") {
		return 0
	}
	r.items(open+1, s.Close(open), d.in)
	return s.Close(open) + 1
}

func (r *reader) traitItem(d declared) int {
	last, open := r.stop(d.at+2, d.end)
	def := r.add(d.head, d.in, r.s.Text(d.at+1), model.DefInterface, last)
	def.Bases = r.bounds(d.at+2, max(open, d.at+2))
	if open >= 0 {
		r.items(open+1, last, scope{parent: def.Qualified(), body: true, trait: true, exported: def.Exported, hidden: d.in.hidden})
	}
	return last + 1
}

func (r *reader) typeItem(d declared) int {
	last := r.semicolon(d.at, d.end)
	r.add(d.head, d.in, r.s.Text(d.at+1), model.DefType, last)
	return last + 1
}

// valueItem reads "const NAME: T = …;" and "static mut NAME: T = …;".
func (r *reader) valueItem(d declared) int {
	s := r.s
	j, kind := d.at+1, model.DefConstant
	if s.Any(j, "mut", "ref") {
		j++
		kind = model.DefVariable
	}
	if !s.Match(j, syntax.Name, ":") || s.Is(j+2, ":") {
		return 0
	}
	last := r.semicolon(j, d.end)
	if !s.Is(j, "_") {
		r.add(d.head, d.in, s.Text(j), kind, last)
	}
	return last + 1
}

func (r *reader) macroRules(d declared) int {
	s := r.s
	if !s.Match(d.at+1, "!", syntax.Name) {
		return 0
	}
	last := s.Close(d.at + 3)
	d.public = d.public || d.macro
	r.add(d.head, d.in, s.Text(d.at+2), model.DefOther, last)
	return last + 1
}

func (r *reader) macroItem(d declared) int {
	if !r.s.Any(d.at+2, "(", "{") {
		return 0
	}
	last, _ := r.stop(d.at+2, d.end)
	r.add(d.head, d.in, r.s.Text(d.at+1), model.DefOther, last)
	return last + 1
}

// bounds are the traits after the colon between i and end.
func (r *reader) bounds(i, end int) []string {
	s := r.s
	i = r.angle(i, end)
	if !s.Is(i, ":") {
		return nil
	}
	var out []string
	for i++; i < end && !s.Is(i, "where"); {
		if name, j := r.path(i); name != "" {
			out = append(out, name)
			i = r.angle(j, end)
			continue
		}
		i = s.Close(i) + 1
	}
	return out
}

// angle steps over <…> at i; an arrow closes nothing.
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
			if s.Is(i-1, "-") || s.Is(i-1, "=") && s.Tokens[i-1].End == s.Tokens[i].Start && !s.Is(i-2, "<") &&
				s.Kind(i-2) == syntax.Punct {
				continue
			}
			if depth--; depth == 0 {
				return i + 1
			}
		case "(", "[", "{":
			i = s.Close(i)
		case ";":
			return i
		}
	}
	return i
}

func (r *reader) structure(h head, i, end int, in scope) int {
	s := r.s
	name := s.Text(i + 1)
	j := r.angle(i+2, end)
	if s.Is(j, "(") { // a tuple
		last := r.semicolon(j, end)
		r.add(h, in, name, model.DefClass, last)
		return last + 1
	}
	last, open := r.stop(j, end)
	if s.Text(i) == "union" && open < 0 {
		return i + 1
	}
	d := r.add(h, in, name, model.DefClass, last)
	if open >= 0 {
		r.fields(open+1, last, d.Qualified())
	}
	return last + 1
}

// fields reads the named fields of a struct.
func (r *reader) fields(i, end int, parent string) {
	s := r.s
	for i < end {
		h, j := r.attributes(i, end)
		if s.Match(j, syntax.Name, ":") {
			k := j + 2
			for k < end && !s.Is(k, ",") {
				if s.Is(k, "<") {
					k = max(r.angle(k, end), k+1)
					continue
				}
				k = s.Close(k) + 1
			}
			r.add(h, scope{parent: parent}, s.Text(j), model.DefProperty, k-1)
			i = k + 1
			continue
		}
		i = max(s.Close(j)+1, i+1)
	}
}

func (r *reader) enum(h head, i, end int, in scope) int {
	s := r.s
	last, open := r.stop(i+2, end)
	d := r.add(h, in, s.Text(i+1), model.DefEnum, last)
	if open < 0 {
		return last + 1
	}
	parent, exported := d.Qualified(), d.Exported
	for k := open + 1; k < last; {
		h, j := r.attributes(k, last)
		if !s.IsIdent(j) {
			k = max(s.Close(j)+1, k+1)
			continue
		}
		h.public = exported
		at := j
		for j < last && !s.Is(j, ",") {
			j = s.Close(j) + 1
		}
		r.add(h, scope{parent: parent}, s.Text(at), model.DefConstant, j-1)
		k = j + 1
	}
	return last + 1
}

// implementation reads the members of impl T or impl Trait for T: they belong
// to T.
func (r *reader) implementation(i, end int, in scope) int {
	last, open := r.stop(i+1, end)
	if open < 0 {
		return last + 1
	}
	name, base := r.implemented(i, open)
	simple := name[strings.LastIndex(name, ":")+1:]
	parent := in.parent
	if simple != "" {
		if base != "" {
			r.addBase(simple, in.parent, base)
		}
		if parent = simple; in.parent != "" {
			parent = in.parent + "." + simple
		}
	}
	r.items(open+1, last, scope{parent: parent, modules: in.modules, body: true, trait: base != "", exported: true, hidden: in.hidden})
	return last + 1
}

// implemented reads the type, and the trait where there is one, between "impl"
// at i and the body.
func (r *reader) implemented(i, open int) (name, base string) {
	s := r.s
	for j := r.angle(i+1, open); j < open && !s.Is(j, "where"); j++ {
		p, k := r.path(j)
		switch {
		case s.Is(j, "for") && !s.Is(j+1, "<"):
			base, name = name, ""
		case s.Any(j, "dyn", "mut", "const"):
		case p != "":
			if name == "" {
				name = p
			}
			j = r.angle(k, open) - 1
		case s.Is(j, "<"):
			j = r.angle(j, open) - 1
		case s.Is(j, "(") && base != "":
			j = s.Close(j)
		}
	}
	return name, base
}

// addBase adds a trait to what a type builds upon.
func (r *reader) addBase(name, parent, base string) {
	for k := range r.f.Definitions {
		if d := &r.f.Definitions[k]; d.Name == name && d.Parent == parent {
			d.Bases = append(d.Bases, base)
		}
	}
}

func (r *reader) function(h head, i, end int, in scope) int {
	s := r.s
	paren := r.angle(i+2, end)
	last, open := r.stop(paren, end)
	kind := model.DefFunction
	if in.body {
		kind = model.DefMethod
	}
	d := r.add(h, in, s.Text(i+1), kind, last)
	if s.Is(paren, "(") {
		for _, a := range s.Args(paren) {
			for k := a[0]; k < a[1]; k++ {
				if s.Is(k, ":") {
					d.Params++
					break
				}
			}
		}
	}
	name := d.Qualified()
	if d.Name == "main" && in.parent == "" && r.f.Starts == 0 {
		r.f.Starts = d.Line
	}
	if open >= 0 {
		r.nested(open+1, last, scope{parent: name, hidden: true, modules: in.modules})
	}
	return last + 1
}
