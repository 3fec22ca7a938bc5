package syntax

import (
	"bytes"
	"strings"

	"jantel/core/model"
)

// insides tells what bodies look like, in whatever language: how deep branches
// stand in each other, what only hands its arguments on, what is chosen on in
// many cases, which fields are only true or false. One walk over the tokens
// serves all languages, since they differ in three things alone: how a block
// is written (in braces, by indentation, up to an "end"), which words branch,
// and whether the last value is given back without a word.
//
// The heart is a stack of open blocks. A block counts as a branch when a word
// that branches stands before it; which opening brace that is, is found by
// looking ahead from the word, over whatever stands in brackets.
func insides(f *model.Facts, s *Stream) {
	if len(s.Tokens) == 0 {
		return
	}
	w := &insider{f: f, s: s, in: -1, flags: map[[2]string]int{}, chosen: map[string]int{}, locals: map[string]int{}}
	w.indented = s.indented()
	for i := range s.Tokens {
		w.enter(i)
		switch t := &s.Tokens[i]; t.Kind {
		case Ident:
			w.word(i)
		case Punct:
			if t.End > t.Start {
				w.sign(i, s.Src[t.Start])
			}
		case Indent:
			w.open(w.header)
			w.header = false
		case Dedent:
			w.shut()
		case Newline:
			w.header = w.header && s.Kind(i+1) == Indent
		}
	}
	w.leave(1 << 30)
	w.done()
}

// maxInsides bounds what is kept of each sort of one file.
const maxInsides = 2000

// insider walks one file.
type insider struct {
	f        *model.Facts
	s        *Stream
	indented bool
	header   bool    // the line before an indent branches
	branch   []int32 // opening braces that branch, the next to come last
	blocks   []bool  // open blocks: which of them branch
	depth    int     // how many of them do
	around   []around
	next     int // the next definition to begin
	changes  int // the first line at which definitions begin or end again
	in       int // the innermost open function, -1 for none
	flags    map[[2]string]int
	chosen   map[string]int // by definition and subject: its place among the choices
	locals   map[string]int // names of parameters and locals that are kept
}

// around is a definition that is open.
type around struct {
	def, base int
	inside    model.Inside
	telling   bool   // of a kind that has a body
	receiver  string // what its own instance is called, where each method says so
	throws    bool   // it may break on purpose
}

// indented reports whether blocks are told by indentation.
func (s *Stream) indented() bool {
	for i := range s.Tokens[:min(len(s.Tokens), 4000)] {
		if s.Tokens[i].Kind == Indent {
			return true
		}
	}
	return false
}

func hasBody(k model.DefinitionKind) bool {
	return k == model.DefFunction || k == model.DefMethod || k == model.DefComponent
}

// enter opens the definitions that begin at a token and shuts those that ended
// before it.
func (w *insider) enter(i int) {
	line := int(w.s.Tokens[i].Line)
	if line < w.changes { // nearly all tokens stand where the one before them stands
		return
	}
	defer w.until()
	if n := len(w.around); n > 0 && w.f.Definitions[w.around[n-1].def].EndLine < line {
		w.leave(line)
	}
	for w.next < len(w.f.Definitions) && w.f.Definitions[w.next].Line <= line {
		d := &w.f.Definitions[w.next]
		w.leave(d.Line)
		a := around{def: w.next, base: w.depth, telling: hasBody(d.Kind)}
		if a.telling {
			a.inside = model.Inside{Definition: w.next}
			w.body(i, d, &a.inside)
			if w.s.Match(i, "func", "(", Name) {
				a.receiver = w.s.Text(i + 2)
			}
			w.in = w.next
		}
		if len(w.around) < MaxNesting {
			w.around = append(w.around, a)
		}
		w.next++
	}
}

// until finds the line at which the next definition begins or the innermost has ended.
func (w *insider) until() {
	w.changes = 1 << 30
	if w.next < len(w.f.Definitions) {
		w.changes = w.f.Definitions[w.next].Line
	}
	if n := len(w.around); n > 0 {
		w.changes = min(w.changes, w.f.Definitions[w.around[n-1].def].EndLine+1)
	}
}

// leave shuts the definitions that end before a line.
func (w *insider) leave(line int) {
	for n := len(w.around); n > 0 && w.f.Definitions[w.around[n-1].def].EndLine < line; n-- {
		a := &w.around[n-1]
		if a.telling && len(w.f.Insides) < maxInsides && w.tells(a) {
			w.f.Insides = append(w.f.Insides, a.inside)
		}
		w.around = w.around[:n-1]
		w.in = -1
		for k := len(w.around) - 1; k >= 0 && w.in < 0; k-- {
			if w.around[k].telling {
				w.in = w.around[k].def
			}
		}
	}
}

// promises are first words of names that say what is given back, or that
// nothing changes.
var promises = Set("get", "is", "has", "can", "should", "find", "fetch", "load", "read", "to", "as", "compute", "calculate", "count")

// tells reports whether what is inside of a definition is worth keeping.
func (w *insider) tells(a *around) bool {
	in := &a.inside
	if in.Nesting >= 3 || in.Branches >= 8 || in.Passes != "" || in.Asserts || len(in.Takes) > 0 {
		return true
	}
	// What breaks where something does not hold needs no answer.
	in.Gives = in.Gives || a.throws
	return (!in.Gives || len(in.Sets) > 0) && !in.Empty && promises[FirstWord(w.f.Definitions[a.def].Name)]
}

// FirstWord is the first word of a name, in lower case.
func FirstWord(name string) string {
	name = strings.TrimLeft(name, "_$@&")
	for i := 1; i < len(name); i++ {
		if c := name[i]; c == '_' || c >= 'A' && c <= 'Z' || c >= '0' && c <= '9' {
			return strings.ToLower(name[:i])
		}
	}
	return strings.ToLower(name)
}

// innermost is the body that a token stands in, nil for none.
func (w *insider) innermost() *around {
	for n := len(w.around) - 1; n >= 0; n-- {
		if w.around[n].telling {
			return &w.around[n]
		}
	}
	return nil
}

// open opens a block.
func (w *insider) open(branches bool) {
	if len(w.blocks) >= MaxNesting {
		return
	}
	w.blocks = append(w.blocks, branches)
	if !branches {
		return
	}
	w.depth++
}

// deeper notes how deep a branch stands.
func (w *insider) deeper(line int) {
	if a := w.innermost(); a != nil && w.depth-a.base > a.inside.Nesting {
		a.inside.Nesting, a.inside.NestLine = w.depth-a.base, line
	}
}

// shut shuts the block opened last.
func (w *insider) shut() {
	if n := len(w.blocks); n > 0 {
		if w.blocks[n-1] {
			w.depth--
		}
		w.blocks = w.blocks[:n-1]
	}
}

// sign takes one that opens or shuts a block.
func (w *insider) sign(i int, c byte) {
	switch c {
	case '{':
		branches := false
		for n := len(w.branch); n > 0 && int(w.branch[n-1]) <= i; n-- {
			branches = branches || int(w.branch[n-1]) == i
			w.branch = w.branch[:n-1]
		}
		w.open(branches)
		if branches {
			w.deeper(w.s.Line(i))
		}
	case '}':
		w.shut()
	}
}

// What words are, as their fingerprints have it.
const (
	wordIf = 301 + iota
	wordElse
	wordFor
	wordWhile
	wordReturn
	wordFunc
	wordClass
	wordSwitch
	wordCase
	wordTry
	wordCatch
	wordThrow
	wordYield = 316 // and await
	wordTrue  = 322 // and false
)

// word takes a word.
func (w *insider) word(i int) {
	s := w.s
	t := &s.Tokens[i]
	text := s.Src[t.Start:t.End]
	a := w.innermost()
	kind := t.shape
	if kind == aName {
		w.named(i, text, a)
		return
	}
	if i > 0 && s.Is(i-1, ".") {
		return // a member that is called like a word of the language
	}
	if a != nil {
		w.within(i, kind, text, a)
	}
	switch kind {
	case wordIf, wordFor, wordWhile, wordSwitch, wordCatch, wordElse:
		w.branching(i, kind, a)
	case wordTrue:
		w.flag(i)
	}
	if s.Ends {
		w.blockWord(i, kind, text)
	}
}

// within takes a word of the language inside of a body.
func (w *insider) within(i int, kind uint16, text []byte, a *around) {
	in := &a.inside
	switch kind {
	case wordYield:
		in.Gives = in.Gives || string(text) == "yield"
	case wordReturn:
		in.Gives = in.Gives || w.valueBehind(i)
	case wordThrow:
		a.throws = true
	case wordCase:
		in.Branches++
	}
}

// blockWord takes a word that opens a block up to an "end", and does not branch
// by itself.
func (w *insider) blockWord(i int, kind uint16, text []byte) {
	switch {
	case kind == wordCase:
		w.ending(i, true)
	case kind == wordTry, kind == wordFunc, kind == wordClass, string(text) == "do", string(text) == "module":
		w.ending(i, false)
	}
}

// branching takes a word that branches.
func (w *insider) branching(i int, kind uint16, a *around) {
	s := w.s
	if a != nil && kind != wordElse {
		a.inside.Branches++
	}
	switch {
	case s.Ends:
		// A "when" is a case of the "case" around it.
		if kind != wordElse && kind != wordCatch && kind != wordSwitch {
			w.ending(i, true)
		}
	case w.indented:
		w.headed(i)
	default:
		if at := w.brace(i, kind); at > 0 {
			w.branch = append(w.branch, int32(at))
		}
	}
	if kind == wordSwitch || kind == wordCase {
		w.choice(i)
	}
}

// headed takes a word that branches the indented block behind its line.
func (w *insider) headed(i int) {
	if !w.starts(i) {
		return
	}
	w.header = true
	w.depth++
	w.deeper(w.s.Line(i))
	w.depth--
}

// starts reports whether a token starts a statement.
func (w *insider) starts(i int) bool {
	if i == 0 {
		return true
	}
	switch w.s.Tokens[i-1].Kind {
	case Newline, Indent, Dedent:
		return true
	}
	return w.s.Any(i-1, ";", "else")
}

// ending opens a block that goes up to an "end", where the word opens one: one
// behind a statement ("return if done") opens none.
func (w *insider) ending(i int, branches bool) {
	s := w.s
	if branches && !w.starts(i) && !s.Any(i-1, "=", "(", "{", "|", "then", "do") && s.Line(i-1) == s.Line(i) {
		return
	}
	if s.Is(i, "do") && w.loops(i) {
		return
	}
	w.open(branches)
	if branches {
		w.deeper(s.Line(i))
	}
}

// loops reports whether a "do" belongs to a loop that began on its line.
func (w *insider) loops(i int) bool {
	s := w.s
	for k := i - 1; k >= 0 && k > i-40 && s.Tokens[k].Line == s.Tokens[i].Line; k-- {
		if v := s.Tokens[k].shape; (v == wordWhile || v == wordFor) && w.starts(k) {
			return true
		}
	}
	return false
}

// brace is the opening brace of the block behind a word that branches, 0 for
// none.
func (w *insider) brace(i int, kind uint16) int {
	s := w.s
	k := i + 1
	if kind == wordElse {
		if s.Is(k, "{") {
			return k
		}
		return 0
	}
	if s.Is(k, "await") {
		k++
	}
	if s.Is(k, "(") {
		if k = s.Close(k) + 1; s.Is(k, "{") {
			return k
		}
		// if (a || b) && c {
		if b := s.Bytes(k); len(b) == 0 || !In(b[0], "&|=!<>") {
			return 0
		}
	}
	return w.ahead(k, kind)
}

// ahead looks for the opening brace behind a condition without brackets.
func (w *insider) ahead(k int, kind uint16) int {
	s := w.s
	for end := k + 200; k < end; k++ {
		b := s.Bytes(k)
		if len(b) == 0 || s.Kind(k) == Newline { // the end of the line, or of the file
			return 0
		}
		switch b[0] {
		case '{':
			return k
		case '(', '[':
			k = s.Close(k)
		case ';': // for i := 0; i < n; i++ {
			if kind == wordWhile || kind == wordCatch {
				return 0
			}
		case ',':
			if kind != wordFor {
				return 0
			}
		case '}', ')', ']':
			return 0
		}
	}
	return 0
}

// valueBehind reports whether a value stands behind a "return".
func (w *insider) valueBehind(i int) bool {
	s := w.s
	switch s.Kind(i + 1) {
	case EOF, Newline, Indent, Dedent:
		return false
	}
	// In JavaScript a line end alone ends the statement.
	return !s.Any(i+1, ";", "}") && (s.Line(i+1) == s.Line(i) || s.Is(i+1, "(") || s.column(i+1) > s.column(i))
}

// column is how far from the start of its line a token stands, in bytes.
func (s *Stream) column(i int) int {
	at := int(s.Tokens[i].Start)
	return at - 1 - bytes.LastIndexByte(s.Src[max(0, at-400):at], '\n') - max(0, at-400)
}

// named takes a word that is no word of the language.
func (w *insider) named(i int, text []byte, a *around) {
	s := w.s
	if s.Ends && string(text) == "end" && !s.Is(i-1, ".") {
		w.shut()
		return
	}
	if a == nil {
		return
	}
	if s.First(i+1) == '=' {
		w.sets(i, text, a)
	}
	if w.in >= 0 {
		w.local(i, text)
	}
	if assertsAt(s, i) {
		a.inside.Asserts = true
	}
	switch s.First(i + 1) {
	case 'i':
		if s.Any(i+1, "instanceof", "is") {
			w.compared(i, i, true)
		}
	case '=':
		if s.Is(i+1, "==") {
			w.compared(i, i+2, false)
		} else if s.Match(i+1, "=", "=") {
			w.compared(i, i+3, false)
		}
	}
}

// selfBefore reports whether a member of the instance is named at a token.
func selfBefore(s *Stream, i int) bool {
	if s.Is(i-1, ".") {
		return s.Any(i-2, "this", "self")
	}
	return s.Is(i-1, ">") && s.Is(i-2, "-") && s.Is(i-3, "$this")
}

// sets notes a field of the instance that is set.
func (w *insider) sets(i int, text []byte, a *around) {
	s := w.s
	if (text[0] != '@' || !s.Ends) && !selfBefore(s, i) { // a sign before a list elsewhere
		return
	}
	if !s.Is(i+1, "=") || s.Any(i+2, "=", "=>") || len(a.inside.Sets) >= 8 {
		return
	}
	a.inside.Sets = append(a.inside.Sets, model.Mention{Name: string(text), Line: s.Line(i)})
}

// checking are first words of what checks in a test, checkers whole names.
var (
	checking = []string{
		"assert", "demand", "qverify", "qcompare", "expect", "should", "verify", "require", "ensure", "check", "must", "fail",
		"validate", "raises", "throws", "marktest", "skip",
	}
	checkers = Set("Error", "Errorf", "Fatal", "Fatalf", "Fail", "FailNow", "ok", "is", "isnt", "like", "is_deeply", "cmp_ok", "pass",
		"eq", "eql", "Equal", "equal", "deepEqual", "notEqual", "same", "truthy", "not", "toMatchSnapshot", "done_testing", "isa_ok", "can_ok")
	// lookers break a test where what they look for is not on the screen.
	lookers = func() map[string]bool {
		all := map[string]bool{}
		for _, what := range []string{"Text", "Role", "LabelText", "PlaceholderText", "DisplayValue", "AltText", "Title", "TestId"} {
			for _, by := range []string{"getBy", "getAllBy", "findBy", "findAllBy"} {
				all[by+what] = true
			}
		}
		return all
	}()
	checkersSieve = NewSieve(checkers, lookers)
)

// beforeChecked are the signs behind the name of what checks.
var beforeChecked = [256]bool{'(': true, '!': true, '=': true, '.': true}

// assertsAt reports whether something is checked at a token: by a call, by a
// word of the language, or by a member of what checks.
func assertsAt(s *Stream, i int) bool {
	b := s.Bytes(i)
	if !s.Ends && b[0] != 'a' && b[0] != 's' && !beforeChecked[s.First(i+1)] || !checks(b) {
		return false
	}
	return s.Any(i+1, "(", "!") || s.Is(i+1, "=") && bytes.HasPrefix(b, []byte("expected")) || string(b) == "assert" || s.Ends ||
		s.Is(i+1, ".") && !checkers[string(b)] || bytes.HasPrefix(b, []byte("should"))
}

// behindAName reports whether what stands behind a library's name is a word of
// checking that means nothing else there; long ones are cut off.
func behindAName(name []byte) bool {
	for _, c := range []string{"assert", "check", "requir", "expect"} {
		if beginsWith(name, c) {
			return true
		}
	}
	return false
}

// checkingBy are the words of checking by their first letter.
var checkingBy = func() (by [256][]string) {
	for _, c := range checking {
		by[c[0]] = append(by[c[0]], c)
	}
	return by
}()

// checks reports whether a function checks something, by its name. Every name of
// a codebase is asked about: nothing is made for it.
func checks(name []byte) bool {
	if len(name) > 0 && checkersSieve.May(name) && (checkers[string(name)] || lookers[string(name)]) {
		return true
	}
	name = bytes.TrimLeft(name, "_")
	if len(name) == 0 {
		return false
	}
	for _, c := range checkingBy[name[0]|0x20] {
		if beginsWith(name, c) {
			return true
		}
	}
	// A library may write its own name before: g_assert, BOOST_CHECK_EQUAL.
	at := bytes.IndexByte(name[:min(len(name), 6)], '_')
	return at > 0 && behindAName(name[at+1:])
}

// beginsWith reports whether a name begins with a word in small letters, in whatever
// letters it is written.
func beginsWith(name []byte, word string) bool {
	if len(name) < len(word) {
		return false
	}
	for i := range len(word) {
		if name[i]|0x20 != word[i] {
			return false
		}
	}
	return true
}
