package javascript

import (
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// importStatement reads an import statement at i; a call of import() is met
// by walk.
func (r *reader) importStatement(i int) int {
	s := r.s
	if s.Any(i+1, "(", ".") {
		return r.statementEnd(i, s.Len()) + 1
	}
	t := taken{names: map[string]bool{}, locals: map[string]string{}}
	j := i + 1
	if s.Is(j, "type") && !s.Any(j+1, "from", ",", "=") {
		t.types = true
		j++
	}
	for ; j < s.Len(); j++ {
		switch {
		case s.Kind(j) == syntax.String:
			return r.takenFrom(i, j, &t)
		case s.Is(j, "{"):
			r.takenNames(j, &t)
			j = s.Close(j)
		case s.Is(j, "*"):
			t.names["*"] = true
			if s.Is(j+1, "as") {
				t.as(s.Text(j+2), "*")
				j += 2
			}
		case s.Is(j, "="): // import x = require("y")
			if !s.Is(j+1, "require") || s.Kind(j+3) != syntax.String {
				return r.statementEnd(j, s.Len()) + 1
			}
			t.names = map[string]bool{"*": true}
		case s.Any(j, "from", ",", "require", "("):
		case s.IsIdent(j):
			t.names["default"] = true
			t.as(s.Text(j), "default")
		default:
			return i + 1
		}
	}
	return s.Len()
}

// taken is what an import statement takes in.
type taken struct {
	names  map[string]bool
	alias  string            // the name of the whole, or of the default
	locals map[string]string // what each name here is called there
	types  bool              // only types are taken
}

func (t *taken) as(alias, name string) {
	t.alias = alias
	t.locals[alias] = name
}

// takenNames reads "{ a, b as c, type D }".
func (r *reader) takenNames(open int, t *taken) {
	s := r.s
	types := !s.Is(open-1, ",") // nothing is taken besides
	defer func() { t.types = t.types || types && len(t.names) > 0 }()
	for k := open + 1; k < s.Close(open); k++ {
		if !s.IsIdent(k) || !s.Any(k-1, "{", ",", "type") || s.Match(k, "type", syntax.Name) && !s.Is(k+1, "as") {
			continue
		}
		types = types && s.Is(k-1, "type")
		t.names[s.Text(k)] = true
		local := k
		if s.Is(k+1, "as") {
			local = k + 2
		}
		t.locals[s.Text(local)] = s.Text(k)
	}
}

// takenFrom ends an import statement with the module it names; it gives the
// token behind.
func (r *reader) takenFrom(i, module int, t *taken) int {
	s := r.s
	text := s.Unquote(module)
	r.add(model.Import{Kind: model.LinkImport, Line: s.Line(i), Text: text, Alias: t.alias, Names: syntax.SortedSet(t.names), Types: t.types})
	for local, name := range t.locals {
		r.locals[local] = model.Use{Module: text, Name: name}
	}
	if s.Any(module+1, "with", "assert") {
		module = s.Close(module + 2)
	}
	if s.Is(module+1, ";") {
		module++
	}
	return module + 1
}

// exportList reads "export { a, b as c } [from '…']" and "export * from '…'".
func (r *reader) exportList(i int) int {
	s := r.s
	j := i + 1
	types := s.Is(j, "type")
	if types {
		j++
	}
	im := model.Import{Kind: model.LinkReExport, Line: s.Line(i), Types: types}
	var local, outer []string
	if s.Is(j, "*") {
		local = append(local, "*")
		j++
		if s.Is(j, "as") {
			outer = append(outer, s.Unquote(j+1))
			j += 2
		}
	} else {
		close := s.Close(j)
		for k := j + 1; k < close; k++ {
			if s.Match(k, "type", syntax.Name) && !s.Is(k+1, "as") {
				continue
			}
			if !s.IsIdent(k) {
				continue
			}
			local = append(local, s.Text(k))
			if s.Is(k+1, "as") {
				k += 2
			}
			outer = append(outer, s.Unquote(k))
		}
		j = close + 1
	}
	for _, n := range outer {
		r.names[n] = true
	}
	if s.Match(j, "from", syntax.Quoted) {
		im.Text = s.Unquote(j + 1)
		im.Names, im.As = pairs(local, outer)
		r.add(im)
		r.signs.Add(model.SignReExports, im.Line)
		j += 2
	} else {
		for _, n := range local {
			r.public[n] = true
			if !slices.Contains(outer, n) {
				r.renamed[n] = true
			}
		}
	}
	if s.Is(j, ";") {
		j++
	}
	return j
}

// pairs puts the names a module has and those they get outside in order; the
// second are nil where all stay the same.
func pairs(local, outer []string) (names, as []string) {
	if len(outer) < len(local) { // all, under no name of its own
		return local, nil
	}
	at := make([]int, len(local))
	same := true
	for i := range at {
		at[i] = i
		same = same && local[i] == outer[i]
	}
	sort.Slice(at, func(i, j int) bool { return local[at[i]] < local[at[j]] })
	for _, i := range at {
		names, as = append(names, local[i]), append(as, outer[i])
	}
	if same {
		as = nil
	}
	return names, as
}

// use notes that a component taken from elsewhere is rendered.
func (r *reader) use(name string, line int) {
	u, ok := r.locals[name]
	if !ok || r.drawn[name] {
		return
	}
	r.drawn[name] = true // once is enough
	u.Kind, u.Line = model.LinkRendering, line
	r.f.Uses = append(r.f.Uses, u)
}

// useOf is use for <module.Part>.
func (r *reader) useOf(module, name string, line int) {
	u, ok := r.locals[module]
	if !ok || r.drawn[module+"."+name] {
		return
	}
	r.signs.Add(model.SignComposes, line)
	r.drawn[module+"."+name] = true
	if u.Name == "*" {
		u.Name = name
	}
	u.Kind, u.Line = model.LinkRendering, line
	r.f.Uses = append(r.f.Uses, u)
}

// bases notes the base types that are taken from elsewhere.
func (r *reader) bases() {
	for _, b := range r.built {
		if u, ok := r.locals[b.Module]; ok && u.Name == "*" {
			b.Module = u.Module
			r.f.Uses = append(r.f.Uses, b)
		}
	}
	for i := range r.f.Definitions {
		d := &r.f.Definitions[i]
		for _, b := range d.Bases {
			if u, ok := r.locals[b]; ok {
				u.Kind, u.Line = model.LinkInheritance, d.Line
				r.f.Uses = append(r.f.Uses, u)
			}
		}
	}
}

// required notes the names that "const { a, b: c } = require(…)" or
// "const a = require(…)" give.
func (r *reader) required(i int, module string) {
	s := r.s
	if !s.Is(i-1, "=") {
		return
	}
	if s.IsIdent(i - 2) {
		r.locals[s.Text(i-2)] = model.Use{Module: module, Name: "*"}
		return
	}
	if s.Is(i-2, "}") {
		for k := int(s.Tokens[i-2].Match) + 1; k > 0 && k < i-2; k++ {
			if s.IsIdent(k) && !s.Is(k-1, ":") {
				local := k
				if s.Match(k+1, ":", syntax.Name) {
					local = k + 2
				}
				r.locals[s.Text(local)] = model.Use{Module: module, Name: s.Text(k)}
			}
		}
	}
}

func (r *reader) add(im model.Import) {
	if im.Text != "" && !strings.ContainsAny(im.Text, "\n\\") {
		r.f.Imports = append(r.f.Imports, im)
	}
}

// walk passes over all tokens once for calls that matter wherever they stand:
// require and import() as links, and signs of what the file does.
func (r *reader) walk() {
	s := r.s
	depth := 0
	for i := range s.Tokens {
		switch t := &s.Tokens[i]; t.Kind {
		case syntax.TagOpen:
			r.tag(i)
		case syntax.Punct:
			switch s.Src[t.Start] {
			case '(':
				if r.answers(i) {
					r.signs.Add(model.SignHandles, int(t.Line))
				}
			case '{':
				if t.Match > int32(i) {
					depth++
				}
			case '}':
				if t.Match >= 0 {
					depth--
				}
			}
		case syntax.Ident:
			if s.Any(i+1, "(", "<", "`") {
				r.call(i, depth)
			}
		}
	}
}

// tag reads an element that opens at i: one of the page, or a component.
func (r *reader) tag(i int) {
	s, line := r.s, r.s.Line(i)
	r.signs.Add(model.SignDraws, line)
	switch name := s.Text(i + 1); {
	case name == "svg":
		r.signs.Add(model.SignPicture, line)
	case s.Match(i+2, ".", syntax.Name):
		r.useOf(name, s.Text(i+3), line)
	case upper(name):
		r.signs.Add(model.SignComposes, line)
		r.use(name, line)
	}
}

// answers reports whether the parameters that open at i are those of what
// answers a request.
func (r *reader) answers(i int) bool {
	s := r.s
	switch s.Text(i + 1) {
	case "req", "request", "_req":
	default:
		return false
	}
	end := s.Close(i)
	for k := i + 2; k < end; k = s.Close(k) + 1 {
		if s.Is(k, ",") && (s.Any(k+1, "res", "response", "reply", "_res")) {
			return s.Any(end+1, "{", "=>", ":")
		}
	}
	return false
}

// called is a call as walk meets it.
type called struct {
	at, arg int // the name, and the first token of what it is called with
	depth   int // of the braces around
	name    string
	dotted  bool // called on something
}

// on reports whether it is called on one of the names.
func (r *reader) on(c called, names ...string) bool { return c.dotted && r.s.Any(c.at-2, names...) }

// calls are those with a meaning, by their name.
var calls = map[string]func(*reader, called){
	"import":  (*reader).lazyImport,
	"require": (*reader).requireCall,
	"define": func(r *reader, c called) {
		if r.on(c, "customElements") && r.s.Kind(c.arg) == syntax.String {
			r.selectors(r.s.Unquote(c.arg), r.s.Line(c.arg))
			return
		}
		r.listed(c)
	},
	"requirejs": (*reader).listed,
	"listen":    func(r *reader, c called) { r.signIf(c.dotted, model.SignListens, c) },
	"fetch":     func(r *reader, c called) { r.signIf(!c.dotted, model.SignHTTP, c) },
}

func init() {
	for names, call := range map[string]func(*reader, called){
		"get post put delete patch all use route": (*reader).verbCall,
		"describe it test suite": func(r *reader, c called) {
			r.signIf(!c.dotted && r.s.Kind(c.arg) == syntax.String, model.SignTest, c)
		},
		"useState useReducer": func(r *reader, c called) { r.signIf(!c.dotted || r.on(c, "React"), model.SignKeepsState, c) },
		"createSlice configureStore createStore createContext":        func(r *reader, c called) { r.signIf(true, model.SignStore, c) },
		"getElementById querySelector querySelectorAll createElement": func(r *reader, c called) { r.onPage(r.on(c, "document"), c) },
		"$ jQuery":             func(r *reader, c called) { r.onPage(!c.dotted && r.s.Kind(c.arg) == syntax.String, c) },
		"createRoot":           func(r *reader, c called) { r.signIf(true, model.SignEntry, c) },
		"bootstrapApplication": func(r *reader, c called) { r.signIf(true, model.SignEntry, c) },
		"bootstrapModule":      func(r *reader, c called) { r.signIf(true, model.SignEntry, c) },
	} {
		for _, name := range strings.Fields(names) {
			calls[name] = call
		}
	}
}

func (r *reader) signIf(is bool, sign model.SignName, c called) {
	if is {
		r.signs.Add(sign, r.s.Line(c.at))
	}
}

// drawsPage is from how many steps on a page's elements a file draws: one may
// look something up in passing.
const drawsPage = 3

// onPage counts a step that takes or makes an element of the page.
func (r *reader) onPage(is bool, c called) {
	if !is {
		return
	}
	if r.page++; r.page == drawsPage {
		r.signs.Add(model.SignDraws, r.s.Line(c.at))
	}
}

// call looks at a call of the name at i.
func (r *reader) call(i, depth int) {
	read := calls[string(r.s.Bytes(i))]
	if read == nil {
		return
	}
	if open := r.skipTypeArgs(i + 1); r.s.Is(open, "(") {
		read(r, called{at: i, arg: open + 1, depth: depth, name: r.s.Text(i), dotted: r.s.Any(i-1, ".", "?.")})
	}
}

// verbCall is a call named like a method of HTTP: it declares a route where a
// path and something else follow, and asks where it is called on a client.
func (r *reader) verbCall(c called) {
	if !c.dotted {
		return
	}
	if r.s.Match(c.arg, syntax.Quoted, ",") && strings.HasPrefix(r.s.Unquote(c.arg), "/") {
		r.signs.Add(model.SignRoutes, r.s.Line(c.at))
		return
	}
	r.signIf(r.on(c, "axios", "http"), model.SignHTTP, c)
}

// lazyImport reads import("…"), and "const Part = lazy(() => import("…"))".
func (r *reader) lazyImport(c called) {
	s := r.s
	if c.dotted || s.Kind(c.arg) != syntax.String || !s.Any(c.arg+1, ")", ",") {
		return
	}
	text := s.Unquote(c.arg)
	r.add(model.Import{Kind: model.LinkLazyImport, Line: s.Line(c.at), Text: text, Names: []string{"*"}})
	if !s.Is(c.at-1, "=>") || !s.Match(c.at-5, syntax.Name, "(") {
		return
	}
	k := c.at - 6
	for s.Match(k-1, syntax.Name, ".") {
		k -= 2
	}
	if s.Match(k-1, syntax.Name, "=") {
		r.locals[s.Text(k-1)] = model.Use{Module: text, Name: "default"}
	}
}

// requireCall reads require("…") with the names that are taken from it.
func (r *reader) requireCall(c called) {
	s, i := r.s, c.at
	if s.Is(c.arg, "[") {
		r.listed(c)
		return
	}
	if c.dotted || !s.Match(c.arg, syntax.Quoted, ")") || s.Match(i-3, "import", syntax.Name, "=") {
		return // an import statement is read already
	}
	im := model.Import{Kind: model.LinkImport, Line: s.Line(i), Text: s.Unquote(c.arg), Names: []string{"*"}}
	if c.depth > 0 || s.Is(i-1, "=>") {
		im.Kind = model.LinkLazyImport
	}
	switch {
	case s.Match(c.arg+2, ".", syntax.Name):
		im.Names = []string{s.Text(c.arg + 3)}
	case s.Match(i-2, "}", "="):
		im.Names = r.unpacked(i - 2)
	}
	r.add(im)
	r.required(i, im.Text)
}

// ofLoader are what a loader hands to a module besides others.
var ofLoader = syntax.Set("require", "exports", "module")

// listed reads "define(['./lot', 'text!./lot.html'], function (lot, page) …)", with
// or without a name of its own first: what is listed is taken in, and handed over
// in the same order.
func (r *reader) listed(c called) {
	s, args := r.s, r.s.Args(c.arg-1)
	if c.dotted && !r.on(c, "ui") {
		return
	}
	if len(args) > 1 && s.Kind(args[0][0]) == syntax.String {
		args = args[1:]
	}
	if len(args) == 0 || !s.Is(args[0][0], "[") {
		return
	}
	var given [][2]int
	if len(args) > 1 {
		given = r.handed(args[1][0])
	}
	kind := model.LinkImport
	if c.name != "define" && c.depth > 0 {
		kind = model.LinkLazyImport
	}
	for n, a := range s.Args(args[0][0]) {
		if s.Kind(a[0]) != syntax.String || a[1] != a[0]+1 || ofLoader[s.Unquote(a[0])] {
			continue
		}
		im := model.Import{Kind: kind, Line: s.Line(a[0]), Text: s.Unquote(a[0]), Names: []string{"*"}}
		if n < len(given) && s.IsIdent(given[n][0]) {
			im.Alias = s.Text(given[n][0])
			r.locals[im.Alias] = model.Use{Module: im.Text, Name: "*"}
		}
		r.add(im)
	}
}

// handed are the parameters of the function that is written at i.
func (r *reader) handed(i int) [][2]int {
	s := r.s
	if w, ok := r.functionAt(i); ok {
		return s.Args(w.head)
	}
	if s.Is(i, "async") {
		i++
	}
	if s.Is(i, "(") && s.Is(s.Close(i)+1, "=>") {
		return s.Args(i)
	}
	return nil
}

// unpacked are the names that "{ a, b: c }" takes, by the bracket that closes it.
func (r *reader) unpacked(shut int) []string {
	set := map[string]bool{}
	for k := int(r.s.Tokens[shut].Match) + 1; k > 0 && k < shut; k++ {
		if r.s.IsIdent(k) && !r.s.Is(k-1, ":") {
			set[r.s.Text(k)] = true
		}
	}
	return syntax.SortedSet(set)
}
