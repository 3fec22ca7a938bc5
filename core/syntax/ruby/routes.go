package ruby

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// routes reads the addresses that a Rails application lists (get, resources,
// namespace, scope) and those of blocks in the manner of Sinatra.
func (r *reader) routes() {
	s := r.s
	a := addresses{r: r}
	for i := range s.Tokens {
		if s.Match(i, "routes", ".", "draw") {
			a.rails = true
		}
	}
	for i := 0; i < s.Len(); i++ {
		if s.Tokens[i].Kind == syntax.Ident && !s.Is(i-1, ".") {
			a.word(i)
		}
	}
}

// addresses is where in the blocks of a list of addresses the reading stands.
type addresses struct {
	r     *reader
	rails bool // the file is such a list
	depth int  // blocks open
	// Of the blocks around that say something of addresses: what they put
	// before them ("" for nothing), the module of what answers, and how many
	// blocks were open inside.
	around []addressBlock
}

type addressBlock struct {
	prefix, module string
	controller     string // of the resource that the block is about
	depth          int
}

func (a *addresses) prefixes() (all []string) {
	for _, b := range a.around {
		all = append(all, b.prefix)
	}
	return all
}

func (a *addresses) module() string {
	var all []string
	for _, b := range a.around {
		all = append(all, b.module)
	}
	return strings.Join(all, "/")
}

func (a *addresses) enter(prefix, module string) {
	a.around = append(a.around, addressBlock{prefix: prefix, module: module, depth: a.depth + 1})
}

// word reads what the word at i says of addresses.
func (a *addresses) word(i int) {
	s := a.r.s
	word := s.Text(i)
	switch word {
	case "end":
		a.depth--
		if n := len(a.around); n > 0 && a.depth < a.around[n-1].depth {
			a.around = a.around[:n-1]
		}
		return
	case "do", "if", "unless", "case", "begin", "def", "class", "module", "while":
		if word == "do" || a.r.starts(i) {
			a.depth++
		}
		return
	}
	end := i
	for end < s.Len() && s.Kind(end) != syntax.Newline {
		end++
	}
	l := addressLine{at: i, arg: i + 1, end: end, word: word}
	l.opens = s.Is(end-1, "do") || end >= 2 && s.Is(end-1, "|") && hasDo(s, i, end)
	if a.rails && l.opens && (word == "member" || word == "collection") {
		a.enter(word+"!", "")
		return
	}
	if s.Is(l.arg, "(") {
		l.arg++
	}
	if s.Kind(l.arg) != syntax.String {
		return
	}
	l.name = strings.TrimPrefix(s.Unquote(l.arg), ":")
	if read := nesting[word]; a.rails && read != nil {
		prefix, module := read(a, l)
		if l.opens {
			a.enter(prefix, module)
			if strings.HasPrefix(word, "resource") {
				a.around[len(a.around)-1].controller = a.r.controller(l)
			}
		}
		return
	}
	a.address(l)
}

// addressLine is a line of such a list: a word, what it names, and whether a
// block opens at its end.
type addressLine struct {
	at, arg, end int
	word, name   string
	opens        bool
}

// nesting are the words whose block stands below an address or in a module;
// they give both.
var nesting = map[string]func(*addresses, addressLine) (prefix, module string){
	"namespace": func(_ *addresses, l addressLine) (string, string) { return l.name, l.name },
	"scope":     (*addresses).scope,
	"resource":  (*addresses).resource,
	"resources": (*addresses).resource,
}

func (a *addresses) scope(l addressLine) (prefix, module string) {
	s := a.r.s
	prefix = l.name
	if b := s.Text(l.arg); b[0] == ':' || b[len(b)-1] == ':' {
		prefix = "" // scope module: …
	}
	if k := a.r.option(l, "module"); k > 0 {
		module = strings.TrimPrefix(s.Unquote(k), ":")
	}
	if k := a.r.option(l, "path"); k > 0 && prefix == "" {
		prefix = strings.TrimPrefix(s.Unquote(k), ":")
	}
	return prefix, module
}

// option is where the value of an option of a line stands, "to: x" or ":to => x";
// 0 where it is not given.
func (r *reader) option(l addressLine, name string) int {
	s := r.s
	for k := l.at + 1; k < l.end; k++ {
		if s.Kind(k) != syntax.String {
			continue
		}
		switch text := s.Text(k); {
		case text == name+":":
			return k + 1
		case text == ":"+name && s.Match(k+1, "=", ">"):
			return k + 3
		}
	}
	return 0
}

func (a *addresses) resource(l addressLine) (prefix, module string) {
	a.r.resources(l, below(a.prefixes()), a.module())
	if l.word == "resources" {
		return l.name + "/:" + singular(l.name) + "_id", ""
	}
	return l.name, ""
}

// address reads one address with what answers it.
func (a *addresses) address(l addressLine) {
	s := a.r.s
	prefixes := a.prefixes()
	if k := a.r.option(l, "on"); a.rails && k > 0 { // of one of the resource, or of all
		prefixes = append(prefixes, strings.TrimPrefix(s.Unquote(k), ":")+"!")
	}
	for _, method := range a.methods(l) {
		a.r.f.Routes = append(a.r.f.Routes, model.RouteFact{
			Method: method, Pattern: syntax.JoinRoute(below(prefixes), l.name), Line: s.Line(l.at), Handler: a.answers(l), InPlace: l.opens,
		})
	}
}

// methods are those that an address answers.
func (a *addresses) methods(l addressLine) (all []string) {
	if a.rails && l.word == "match" {
		via := map[string]bool{}
		if k := a.r.option(l, "via"); k > 0 {
			a.r.actions(k, l.end, via)
		}
		for _, m := range []string{"get", "post", "put", "patch", "delete"} {
			if via[m] {
				all = append(all, strings.ToUpper(m))
			}
		}
		if via["all"] {
			all = append(all, "ANY")
		}
		return all
	}
	method, ok := syntax.Methods[l.word]
	if !ok || l.word == "all" || l.word == "any" || l.word == "del" {
		return nil
	}
	if !a.rails && (!l.opens || !strings.HasPrefix(l.name, "/")) {
		return nil
	}
	return []string{method}
}

// answers is what answers an address: behind "to" or an arrow, or told by its
// controller and action; else what the address itself says.
func (a *addresses) answers(l addressLine) string {
	s := a.r.s
	if k := a.r.option(l, "to"); k > 0 && s.Kind(k) == syntax.String {
		return action(a.module(), s.Unquote(k))
	}
	controller, doing := a.r.option(l, "controller"), a.r.option(l, "action")
	if controller > 0 && doing > 0 {
		return action(a.module(), strings.TrimPrefix(s.Unquote(controller), ":")+"#"+strings.TrimPrefix(s.Unquote(doing), ":"))
	}
	if k := l.arg; s.Match(k+1, "=", ">", syntax.Quoted) {
		return action(a.module(), s.Unquote(k+3))
	}
	if !a.rails || l.opens {
		return ""
	}
	name := strings.Trim(l.name, "/")
	if doing > 0 {
		name = strings.TrimPrefix(s.Unquote(doing), ":")
	}
	for i := len(a.around) - 1; i >= 0; i-- {
		if c := a.around[i].controller; c != "" && plainWord(name) {
			return action(a.module(), c+"#"+name)
		}
	}
	if c, m, ok := strings.Cut(name, "/"); ok && plainWord(c) && plainWord(m) {
		return action(a.module(), c+"#"+m) // "lots/index" says both
	}
	return ""
}

func plainWord(s string) bool {
	for _, c := range s {
		if c != '_' && (c < 'a' || c > 'z') && (c < '0' || c > '9') {
			return false
		}
	}
	return s != ""
}

// below joins the prefixes of the blocks around. Within "member" the resource
// itself is meant, within "collection" all of them.
func below(prefix []string) string {
	var parts []string
	for _, p := range prefix {
		n := len(parts)
		switch {
		case p == "member!" && n > 0:
			parts[n-1] = parts[n-1][:strings.LastIndexByte(parts[n-1], '/')+1] + ":id"
		case p == "collection!" && n > 0:
			parts[n-1] = strings.TrimSuffix(parts[n-1][:strings.LastIndexByte(parts[n-1], '/')+1], "/")
		case p != "":
			parts = append(parts, p)
		}
	}
	return strings.Join(parts, "/")
}

func hasDo(s *syntax.Stream, from, to int) bool {
	for k := from; k < to; k++ {
		if s.Is(k, "do") {
			return true
		}
	}
	return false
}

func singular(n string) string {
	switch {
	case strings.HasSuffix(n, "lves"), strings.HasSuffix(n, "rves"), strings.HasSuffix(n, "aves"):
		return strings.TrimSuffix(n, "ves") + "f"
	case strings.HasSuffix(n, "ies"):
		return strings.TrimSuffix(n, "ies") + "y"
	case strings.HasSuffix(n, "s"):
		return strings.TrimSuffix(n, "s")
	}
	return n
}

// action writes "lots#list" as the class and method it means by habit.
func action(module, text string) string {
	c, m, ok := strings.Cut(text, "#")
	if !ok {
		return ""
	}
	if mod := strings.Trim(module, "/"); mod != "" {
		c = mod + "/" + c
	}
	return camel(c) + "Controller." + m
}

// camel turns seed_vault/lots into SeedVault::Lots.
func camel(p string) string {
	var b strings.Builder
	up := true
	for i := 0; i < len(p); i++ {
		switch c := p[i]; {
		case c == '_':
			up = true
		case c == '/':
			if b.Len() > 0 {
				b.WriteString("::")
			}
			up = true
		case up && c >= 'a' && c <= 'z':
			b.WriteByte(c - 'a' + 'A')
			up = false
		default:
			b.WriteByte(c)
			up = false
		}
	}
	return b.String()
}

// symbols are the words of :a or %i[a b].
func symbols(text string) []string {
	if strings.HasPrefix(text, "%") {
		text = strings.TrimLeft(text, "%iIwW")
	}
	return strings.Fields(strings.Trim(text, `:[](){}"'`))
}

// standard are the addresses of a resource with their actions; "%" stands for
// all of them, "%1" for one.
var standard = []struct{ method, pattern, action string }{
	{"GET", "%", "index"}, {"GET", "%/new", "new"}, {"POST", "%", "create"}, {"GET", "%1", "show"},
	{"GET", "%1/edit", "edit"}, {"PATCH", "%1", "update"}, {"PUT", "%1", "update"}, {"DELETE", "%1", "destroy"},
}

// resources adds the addresses that one "resources" or "resource" stands for.
func (r *reader) resources(l addressLine, full, module string) {
	only, except := r.chosen(l)
	chosen := r.option(l, "only") > 0 // "only: []" is none
	one, single := l.name+"/:id", l.word == "resource"
	if single {
		one = l.name
	}
	patterns := strings.NewReplacer("%1", one, "%", l.name)
	controller := r.controller(l)
	for _, x := range standard {
		if single && x.action == "index" || chosen && !only[x.action] || except[x.action] {
			continue
		}
		r.f.Routes = append(r.f.Routes, model.RouteFact{
			Method: x.method, Pattern: syntax.JoinRoute(full, patterns.Replace(x.pattern)), Line: r.s.Line(l.at),
			Handler: action(module, controller+"#"+x.action),
		})
	}
}

// controller is what answers a resource: called like it, if the line says no other.
func (r *reader) controller(l addressLine) string {
	if k := r.option(l, "controller"); k > 0 {
		return strings.TrimPrefix(r.s.Unquote(k), ":")
	}
	return l.name
}

// chosen are the actions that a line asks for or leaves out.
func (r *reader) chosen(l addressLine) (only, except map[string]bool) {
	only, except = map[string]bool{}, map[string]bool{}
	if k := r.option(l, "only"); k > 0 {
		r.actions(k, l.end, only)
	}
	if k := r.option(l, "except"); k > 0 {
		r.actions(k, l.end, except)
	}
	return only, except
}

func (r *reader) actions(from, end int, into map[string]bool) {
	for m := from; m < end && m < from+24; m++ {
		if r.s.Kind(m) != syntax.String {
			continue
		}
		if strings.HasSuffix(r.s.Unquote(m), ":") || r.s.Match(m+1, "=", ">") {
			return // the next option
		}
		for _, w := range symbols(r.s.Text(m)) {
			into[w] = true
		}
	}
}
