package rust

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// nested reads what is declared inside the body of a function.
func (r *reader) nested(i, end int, in scope) {
	s := r.s
	for i < end {
		start := i == 0 || s.Any(i-1, ";", "}", "{", "]")
		if start && s.IsIdent(i) {
			switch s.Text(i) {
			case "use", "fn", "struct", "enum", "trait", "impl", "const", "static", "mod", "type", "macro_rules":
				i = max(r.item(i, end, in), i+1)
				continue
			}
		}
		i++
	}
}

var formats = map[string]bool{"include": true, "include_str": true, "include_bytes": true}

// inside looks through all tokens for what is told by a call or a path: files
// included, paths of modules used without a statement, routes and SQL.
func (r *reader) inside() {
	s := r.s
	for i := range s.Tokens {
		switch s.Tokens[i].Kind {
		case syntax.Ident:
			w := s.Bytes(i)
			switch {
			case formats[string(w)] && s.Is(i+1, "!") && s.Kind(i+3) == syntax.String && s.Close(i+2) == i+4:
				r.f.Imports = append(r.f.Imports, model.Import{
					Text: s.Unquote(i + 3), Kind: model.LinkImport, Line: s.Line(i), Alias: "file",
				})
			case (string(w) == "crate" || string(w) == "super") && s.Is(i+1, ":") && !s.Is(i-1, ":") && !s.Is(i-1, "("):
				r.mention(i)
			case string(w) == "route" && s.Is(i-1, ".") && s.Match(i+1, "(", syntax.Quoted):
				r.route(i)
			}
		}
	}
	r.attributeRoutes()
}

// mention keeps a path that is used where it stands, unless a use statement
// holds it.
func (r *reader) mention(i int) {
	s := r.s
	if i > 1 && s.Match(i-2, "(", "in") && s.Is(s.Close(i-2), ")") && s.Is(i-3, "pub") {
		return // pub(in crate::lots) says who may look, and uses nothing
	}
	for k := i - 1; k >= 0 && k > i-60; k-- {
		if s.Any(k, ";", "}") {
			break
		}
		if s.Is(k, "use") {
			return
		}
	}
	name, _ := r.path(i)
	if !r.paths[name] {
		r.paths[name] = true
		r.f.Imports = append(r.f.Imports, model.Import{Text: name, Kind: model.LinkImport, Line: s.Line(i), Alias: "here"})
	}
}

// route reads .route("/path", get(handler).post(other)).
func (r *reader) route(i int) {
	s := r.s
	args := s.Args(i + 1)
	if len(args) != 2 {
		return
	}
	pattern := s.Unquote(i + 2)
	for k := args[1][0]; k < args[1][1]; k++ {
		m, ok := syntax.Methods[s.Text(k)]
		if !ok || !s.Is(k+1, "(") {
			continue
		}
		handler := ""
		if name, j := r.path(k + 2); name != "" && j == s.Close(k+1) {
			handler = strings.ReplaceAll(name, "::", ".")
		}
		r.f.Routes = append(r.f.Routes, model.RouteFact{
			Method: m, Pattern: syntax.JoinRoute("", pattern), Line: s.Line(k), Handler: handler,
			InPlace: s.InPlace([2]int{k + 2, s.Close(k + 1)}),
		})
		k = s.Close(k + 1)
	}
}

// attributeRoutes reads #[get("/path")] above a function.
func (r *reader) attributeRoutes() {
	s := r.s
	for i := 0; i+5 < s.Len(); i++ {
		if !s.Is(i, "#") || !s.Is(i+1, "[") || s.Kind(i+4) != syntax.String || !s.Is(i+3, "(") {
			continue
		}
		m, ok := syntax.Methods[s.Text(i+2)]
		if !ok || !strings.HasPrefix(s.Unquote(i+4), "/") {
			continue
		}
		line := s.Line(i)
		for _, d := range r.f.Definitions {
			if d.Kind == model.DefFunction && d.Line <= line && line <= d.EndLine {
				pattern, _, _ := strings.Cut(s.Unquote(i+4), "?")
				r.f.Routes = append(r.f.Routes, model.RouteFact{
					Method: m, Pattern: syntax.JoinRoute("", pattern), Line: line, Handler: d.Name,
				})
				break
			}
		}
	}
}
