package javascript

import (
	"regexp"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// importStatement reads an import statement at i; a call of import() is met
// by walk.
func (r *reader) importStatement(i int) int {
	s := r.s
	if s.Is(i+1, "(") || s.Is(i+1, ".") {
		return r.statementEnd(i, s.Len()) + 1
	}
	im := model.Import{Kind: model.LinkImport, Line: s.Line(i)}
	j := i + 1
	if s.Is(j, "type") && !s.Is(j+1, "from") && !s.Is(j+1, ",") && !s.Is(j+1, "=") {
		j++
	}
	names, locals := map[string]bool{}, map[string]string{}
	for ; j < s.Len(); j++ {
		switch {
		case s.Kind(j) == syntax.String:
			im.Text = s.Unquote(j)
			im.Names = syntax.SortedSet(names)
			r.add(im)
			for local, name := range locals {
				r.locals[local] = model.Use{Module: im.Text, Name: name}
			}
			if s.Is(j+1, "with") || s.Is(j+1, "assert") {
				j = s.Close(j + 2)
			}
			if s.Is(j+1, ";") {
				j++
			}
			return j + 1
		case s.Is(j, "{"):
			for k := j + 1; k < s.Close(j); k++ {
				if s.IsIdent(k) && (s.Is(k-1, "{") || s.Is(k-1, ",") || s.Is(k-1, "type")) && !(s.Is(k, "type") && s.IsIdent(k+1) && !s.Is(k+1, "as")) {
					names[s.Text(k)] = true
					local := k
					if s.Is(k+1, "as") {
						local = k + 2
					}
					locals[s.Text(local)] = s.Text(k)
				}
			}
			j = s.Close(j)
		case s.Is(j, "*"):
			names["*"] = true
			if s.Is(j+1, "as") {
				im.Alias = s.Text(j + 2)
				locals[im.Alias] = "*"
				j += 2
			}
		case s.Is(j, "="): // import x = require("y")
			if s.Is(j+1, "require") && s.Kind(j+3) == syntax.String {
				names = map[string]bool{"*": true}
				continue
			}
			return r.statementEnd(j, s.Len()) + 1
		case s.Is(j, "from"), s.Is(j, ","), s.Is(j, "require"), s.Is(j, "("):
		case s.IsIdent(j):
			names["default"] = true
			im.Alias = s.Text(j)
			locals[im.Alias] = "default"
		default:
			return i + 1
		}
	}
	return s.Len()
}

// exportList reads "export { a, b as c } [from '…']" and "export * from '…'".
func (r *reader) exportList(i int) int {
	s := r.s
	j := i + 1
	if s.Is(j, "type") {
		j++
	}
	im := model.Import{Kind: model.LinkReExport, Line: s.Line(i)}
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
			if s.Is(k, "type") && s.IsIdent(k+1) && !s.Is(k+1, "as") {
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
	if s.Is(j, "from") && s.Kind(j+1) == syntax.String {
		im.Text = s.Unquote(j + 1)
		im.Names, im.As = pairs(local, outer)
		r.add(im)
		r.signs.Add(model.SignReExports, im.Line)
		j += 2
	} else {
		for _, n := range local {
			r.public[n] = true
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
				if s.Is(k+1, ":") && s.IsIdent(k+2) {
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

var (
	httpVerb = regexp.MustCompile(`^(get|post|put|delete|patch|all|use|route)$`)
	testCall = regexp.MustCompile(`^(describe|it|test|suite)$`)
)

// walk passes over all tokens once for calls that matter wherever they stand:
// require and import() as links, and signs of what the file does.
func (r *reader) walk() {
	s := r.s
	depth := 0
	for i := range s.Tokens {
		t := &s.Tokens[i]
		switch t.Kind {
		case syntax.TagOpen:
			r.signs.Add(model.SignDraws, int(t.Line))
			if c := s.Bytes(i + 1); len(c) > 0 && string(c) == "svg" {
				r.signs.Add(model.SignPicture, int(t.Line))
			} else if s.Is(i+2, ".") && s.IsIdent(i+3) {
				r.useOf(string(c), s.Text(i+3), int(t.Line))
			} else if len(c) > 0 && (c[0] >= 'A' && c[0] <= 'Z') {
				r.signs.Add(model.SignComposes, int(t.Line))
				r.use(string(c), int(t.Line))
			}
		case syntax.Punct:
			if s.Src[t.Start] == '(' && r.answers(i) {
				r.signs.Add(model.SignHandles, int(t.Line))
			}
			switch s.Src[t.Start] {
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
			if !s.Is(i+1, "(") && !s.Is(i+1, "<") && !s.Is(i+1, "`") {
				continue
			}
			r.call(i, depth)
		}
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
		if s.Is(k, ",") && (s.Is(k+1, "res") || s.Is(k+1, "response") || s.Is(k+1, "reply") || s.Is(k+1, "_res")) {
			return s.Is(end+1, "{") || s.Is(end+1, "=>") || s.Is(end+1, ":")
		}
	}
	return false
}

// call looks at a call of the name at i.
func (r *reader) call(i, depth int) {
	s := r.s
	name := s.Text(i)
	open := r.skipTypeArgs(i + 1)
	if !s.Is(open, "(") {
		return
	}
	arg := open + 1
	dotted := s.Is(i-1, ".") || s.Is(i-1, "?.")
	switch {
	case name == "define" && dotted && s.Is(i-2, "customElements") && s.Kind(arg) == syntax.String:
		r.selectors(s.Unquote(arg), s.Line(arg))
	case name == "import" && !dotted && s.Kind(arg) == syntax.String && (s.Is(arg+1, ")") || s.Is(arg+1, ",")):
		r.add(model.Import{Kind: model.LinkLazyImport, Line: s.Line(i), Text: s.Unquote(arg), Names: []string{"*"}})
		// const Part = lazy(() => import("…"))
		if s.Is(i-1, "=>") && s.Is(i-4, "(") && s.IsIdent(i-5) {
			k := i - 6
			for s.Is(k, ".") && s.IsIdent(k-1) {
				k -= 2
			}
			if s.Is(k, "=") && s.IsIdent(k-1) {
				r.locals[s.Text(k-1)] = model.Use{Module: s.Unquote(arg), Name: "default"}
			}
		}
	case name == "require" && !dotted && s.Kind(arg) == syntax.String && s.Is(arg+1, ")"):
		if s.Is(i-1, "=") && s.IsIdent(i-2) && s.Is(i-3, "import") {
			return // read as an import statement already
		}
		kind := model.LinkImport
		if depth > 0 || s.Is(i-1, "=>") {
			kind = model.LinkLazyImport
		}
		im := model.Import{Kind: kind, Line: s.Line(i), Text: s.Unquote(arg), Names: []string{"*"}}
		if s.Is(arg+2, ".") && s.IsIdent(arg+3) {
			im.Names = []string{s.Text(arg + 3)}
		} else if s.Is(i-1, "=") && s.Is(i-2, "}") {
			set := map[string]bool{}
			for k := int(s.Tokens[i-2].Match) + 1; k > 0 && k < i-2; k++ {
				if s.IsIdent(k) && !s.Is(k-1, ":") {
					set[s.Text(k)] = true
				}
			}
			im.Names = syntax.SortedSet(set)
		}
		r.add(im)
		r.required(i, im.Text)
	case (name == "mock" || name == "unmock" || name == "requireActual") && dotted && s.Kind(arg) == syntax.String:
	case dotted && httpVerb.MatchString(name) && s.Kind(arg) == syntax.String && strings.HasPrefix(s.Unquote(arg), "/") && s.Is(arg+1, ","):
		r.signs.Add(model.SignRoutes, s.Line(i))
	case dotted && name == "listen":
		r.signs.Add(model.SignListens, s.Line(i))
	case !dotted && testCall.MatchString(name) && (s.Kind(arg) == syntax.String):
		r.signs.Add(model.SignTest, s.Line(i))
	case !dotted && name == "fetch", dotted && (s.Is(i-2, "axios") || s.Is(i-2, "http")) && httpVerb.MatchString(name):
		r.signs.Add(model.SignHTTP, s.Line(i))
	case !dotted && (name == "useState" || name == "useReducer"), dotted && s.Is(i-2, "React") && (name == "useState" || name == "useReducer"):
		r.signs.Add(model.SignKeepsState, s.Line(i))
	case name == "createSlice" || name == "configureStore" || name == "createStore" || name == "createContext":
		r.signs.Add(model.SignStore, s.Line(i))
	case !dotted && name == "createRoot", dotted && name == "createRoot":
		r.signs.Add(model.SignEntry, s.Line(i))
	}
}
