package routes

import (
	"path"
	"regexp"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// byFile lists the routes that frameworks take from where a file lies: pages
// below "pages" or "app" and below "src/routes", in projects that ask for such
// a framework.
func byFile(s *model.Survey) []model.Route {
	needs := map[string]string{} // folder to framework
	for _, f := range s.Files {
		if f.Facts == nil || f.Facts.Project == nil || f.Facts.Project.Tool != "npm" {
			continue
		}
		for _, name := range []string{"next", "nuxt", "@sveltejs/kit", "astro"} {
			if _, ok := f.Facts.Project.Dependencies[name]; ok {
				needs[path.Dir(f.Path)] = name
			}
		}
	}
	if len(needs) == 0 {
		return nil
	}
	var out []model.Route
	for _, f := range s.Files {
		if f.Facts == nil || f.Skipped != "" {
			continue
		}
		at, framework := "", ""
		syntax.Up(path.Dir(f.Path), func(d string) bool {
			at, framework = d, needs[d]
			return framework != ""
		})
		if framework == "" {
			continue
		}
		rel := f.Path
		if at != "." {
			rel = strings.TrimPrefix(f.Path, at+"/")
		}
		rel = strings.TrimPrefix(rel, "src/")
		for _, r := range placed(framework, rel, f.Facts) {
			at, line := f.Path, r.Line
			if r.On != "" {
				at, line = handedOn(s, f.Path, r)
			}
			out = append(out, model.Route{
				Method: r.Method, Pattern: r.Pattern, Path: f.Path, Line: r.Line, HandlerPath: at,
				HandlerName: r.Handler, HandlerLine: line,
			})
		}
	}
	return out
}

// handedOn is where something is defined that a file hands on from another.
func handedOn(s *model.Survey, file string, r model.RouteFact) (string, int) {
	j := &joiner{s: s}
	for l := range j.links(file) {
		if g := s.File(l.To); l.Text == r.On && g != nil && g.Facts != nil {
			return l.To, max(defined(g, "", r.Handler), 1)
		}
	}
	return "", 0
}

var verbs = map[string]bool{"GET": true, "POST": true, "PUT": true, "PATCH": true, "DELETE": true, "HEAD": true, "OPTIONS": true}

// placed are the routes that a file gives by lying where it does.
func placed(framework, rel string, f *model.Facts) []model.RouteFact {
	ext := path.Ext(rel)
	stem := strings.TrimSuffix(rel, ext)
	base := path.Base(stem)
	page := func(p string) []model.RouteFact {
		line, name := 1, ""
		for _, d := range f.Definitions {
			if d.Exported && d.Parent == "" && (d.Kind == model.DefComponent || d.Name == "default") {
				line, name = d.Line, d.Name
				break
			}
		}
		return []model.RouteFact{{Method: "GET", Pattern: address(p), Line: line, Handler: name}}
	}
	answers := func(p string) (out []model.RouteFact) {
		for _, d := range f.Definitions {
			if verbs[d.Name] && d.Exported {
				out = append(out, model.RouteFact{Method: d.Name, Pattern: address(p), Line: d.Line, Handler: d.Name})
			}
		}
		// What answers may be written elsewhere and handed on: export { list as GET }.
		for _, im := range f.Imports {
			for k, n := range im.Names {
				outside := n
				if k < len(im.As) && im.As[k] != "" {
					outside = im.As[k]
				}
				if im.Kind == model.LinkReExport && verbs[outside] {
					out = append(out, model.RouteFact{Method: outside, Pattern: address(p), Line: im.Line, Handler: n, On: im.Text})
				}
			}
		}
		return out
	}
	switch framework {
	case "next":
		if p, ok := strings.CutPrefix(stem, "pages/"); ok && code[ext] && !strings.HasPrefix(base, "_") {
			if rest, ok := strings.CutPrefix(p, "api/"); ok {
				return []model.RouteFact{{Method: "ANY", Pattern: address("api/" + rest), Line: 1, Handler: "default"}}
			}
			return page(p)
		}
		if p, ok := strings.CutPrefix(stem, "app/"); ok || stem == "app" {
			switch base {
			case "page":
				return page(path.Dir(p))
			case "route":
				return answers(path.Dir(p))
			}
		}
	case "nuxt":
		if p, ok := strings.CutPrefix(strings.TrimPrefix(stem, "app/"), "pages/"); ok && ext == ".vue" {
			return page(p)
		}
		if p, ok := strings.CutPrefix(stem, "server/api/"); ok {
			method := "ANY"
			if m := strings.ToUpper(strings.TrimPrefix(path.Ext(p), ".")); verbs[m] {
				method, p = m, strings.TrimSuffix(p, path.Ext(p))
			}
			return []model.RouteFact{{Method: method, Pattern: address("api/" + p), Line: 1, Handler: "default"}}
		}
	case "@sveltejs/kit":
		if p, ok := strings.CutPrefix(stem, "routes/"); ok {
			switch base {
			case "+page":
				if ext == ".svelte" {
					return page(path.Dir(p))
				}
			case "+server":
				return answers(path.Dir(p))
			}
		}
	case "astro":
		if p, ok := strings.CutPrefix(stem, "pages/"); ok && (ext == ".astro" || code[ext] || ext == ".md") {
			return page(p)
		}
	}
	return nil
}

var code = map[string]bool{".js": true, ".jsx": true, ".ts": true, ".tsx": true, ".mjs": true}

var group = regexp.MustCompile(`^(?:\(.*\)|@.*)$`)

// address turns the path of a page into that of a route: [id] and [...rest]
// stand for what is put in, (groups) for nothing.
func address(p string) string {
	var parts []string
	for _, part := range strings.Split(p, "/") {
		if part == "." || part == "" || part == "index" || group.MatchString(part) {
			continue
		}
		part = strings.ReplaceAll(strings.ReplaceAll(part, "[[", "["), "]]", "]")
		switch {
		case strings.HasPrefix(part, "[..."):
			part = "*" + strings.Trim(part[4:], "]")
		case strings.HasPrefix(part, "["):
			part = ":" + strings.Trim(part, "[]")
		}
		parts = append(parts, part)
	}
	return "/" + strings.Join(parts, "/")
}
