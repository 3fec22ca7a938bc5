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
	rails := false
	for i := range s.Tokens {
		if s.Match(i, "routes", ".", "draw") {
			rails = true
		}
	}
	var prefix []string // of the blocks around, "" for those without
	var module []string
	depthAt := []int{}
	depth := 0
	line := func(i int) (end int) {
		for end = i; end < s.Len() && s.Kind(end) != syntax.Newline; end++ {
		}
		return end
	}
	for i := 0; i < s.Len(); i++ {
		if s.Tokens[i].Kind != syntax.Ident || s.Is(i-1, ".") {
			continue
		}
		word := s.Text(i)
		end := line(i)
		opens := s.Is(end-1, "do") || end >= 2 && s.Is(end-1, "|") && hasDo(s, i, end)
		switch word {
		case "end":
			depth--
			if n := len(depthAt); n > 0 && depth < depthAt[n-1] {
				depthAt, prefix, module = depthAt[:n-1], prefix[:n-1], module[:n-1]
			}
			continue
		case "do", "if", "unless", "case", "begin", "def", "class", "module", "while":
			if word == "do" || r.starts(i) {
				depth++
			}
			continue
		}
		if rails && opens && (word == "member" || word == "collection") {
			prefix, module, depthAt = append(prefix, word+"!"), append(module, ""), append(depthAt, depth+1)
			continue
		}
		if s.Kind(i+1) != syntax.String && !(s.Match(i+1, "(", syntax.Quoted)) {
			continue
		}
		arg := i + 1
		if s.Is(arg, "(") {
			arg++
		}
		name := strings.TrimPrefix(s.Unquote(arg), ":")
		full := below(prefix)
		switch {
		case rails && (word == "namespace" || word == "scope" || word == "resources" || word == "resource"):
			below, mod := name, ""
			switch word {
			case "namespace":
				mod = name
			case "scope":
				if b := s.Text(arg); b[0] == ':' || b[len(b)-1] == ':' {
					below = "" // scope module: …
				}
				for k := i; k < end; k++ {
					if s.Match(k, "module:", syntax.Quoted) {
						mod = strings.TrimPrefix(s.Unquote(k+1), ":")
					}
				}
			default:
				r.resources(i, full, name, strings.Join(module, "/"), word == "resource", s.Text, end)
				if word == "resources" {
					below = name + "/:" + singular(name) + "_id"
				}
			}
			if opens {
				prefix, module, depthAt = append(prefix, below), append(module, mod), append(depthAt, depth+1)
			}
		default:
			m, ok := syntax.Methods[word]
			if !ok || word == "all" || word == "any" || word == "del" || !rails && (!opens || !strings.HasPrefix(name, "/")) {
				continue
			}
			h := ""
			for k := arg + 1; k < end; k++ {
				if s.Match(k, "to:", syntax.Quoted) || s.Match(k, "=>", syntax.Quoted) || s.Match(k, "=", ">", syntax.Quoted) {
					t := k + 1
					if s.Kind(t) != syntax.String {
						t++
					}
					h = action(strings.Join(module, "/"), s.Unquote(t))
				}
			}
			r.f.Routes = append(r.f.Routes, model.RouteFact{Method: m, Pattern: syntax.JoinRoute(full, name), Line: s.Line(i), Handler: h, InPlace: opens})
		}
	}
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

func (r *reader) resources(i int, full, name, module string, single bool, text func(int) string, end int) {
	only, except := map[string]bool{}, map[string]bool{}
	for k := i; k < end; k++ {
		var into map[string]bool
		switch text(k) {
		case "only:":
			into = only
		case "except:":
			into = except
		default:
			continue
		}
		for m := k + 1; m < end && m < k+12; m++ {
			if r.s.Kind(m) == syntax.String {
				if t := r.s.Unquote(m); strings.HasSuffix(t, ":") {
					break
				}
				for _, w := range symbols(r.s.Text(m)) {
					into[w] = true
				}
			}
		}
	}
	one := name
	if !single {
		one = name + "/:id"
	}
	controller := name
	for _, x := range []struct{ method, pattern, action string }{{"GET", name, "index"}, {"GET", name + "/new", "new"}, {"POST", name, "create"}, {"GET", one, "show"}, {"GET", one + "/edit", "edit"}, {"PATCH", one, "update"}, {"PUT", one, "update"}, {"DELETE", one, "destroy"}} {
		if single && x.action == "index" || len(only) > 0 && !only[x.action] || except[x.action] {
			continue
		}
		r.f.Routes = append(r.f.Routes, model.RouteFact{Method: x.method, Pattern: syntax.JoinRoute(full, x.pattern), Line: r.s.Line(i), Handler: action(module, controller+"#"+x.action)})
	}
}
