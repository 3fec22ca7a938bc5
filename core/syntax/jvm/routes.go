package jvm

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// mappings are the annotations that give a method or a class its address.
var mappings = map[string]string{
	"GetMapping": "GET", "PostMapping": "POST", "PutMapping": "PUT", "PatchMapping": "PATCH",
	"DeleteMapping": "DELETE", "RequestMapping": "ANY", "Path": "",
}

// verbs are the annotations that name a method apart from the address.
var verbs = map[string]bool{"GET": true, "POST": true, "PUT": true, "PATCH": true, "DELETE": true, "HEAD": true, "OPTIONS": true}

// Routes adds to the facts the routes that annotations declare: it joins the
// addresses on methods with those on the class around them.
func Routes(s *syntax.Stream, f *model.Facts) {
	at := map[int]*mark{} // what the annotations of a definition say
	for i := 0; i < s.Len(); i++ {
		if !s.Match(i, "@", syntax.Name) {
			continue
		}
		name := s.Text(i + 1)
		method, isMapping := mappings[name]
		if !isMapping && !verbs[name] {
			continue
		}
		d := owner(f, s.Line(i))
		if d < 0 {
			continue
		}
		m := at[d]
		if m == nil {
			m = &mark{line: s.Line(i)}
			at[d] = m
		}
		if verbs[name] {
			m.methods = append(m.methods, name)
			continue
		}
		if s.Is(i+2, "(") {
			m.read(s, i+2)
		} else {
			m.paths = append(m.paths, "")
		}
		if method != "" && (method != "ANY" || len(m.methods) == 0) {
			m.methods = append(m.methods, method)
		}
	}
	for i := range f.Definitions {
		if d := &f.Definitions[i]; at[i] != nil && d.Kind == model.DefMethod {
			at[i].answer(f, d, prefixes(f, d.Parent, at))
		}
	}
}

// mark is what the annotations of a definition say of its address.
type mark struct {
	paths   []string
	methods []string
	line    int
}

// read takes the paths and methods from the arguments that open at open.
func (m *mark) read(s *syntax.Stream, open int) {
	before := len(m.paths)
	for _, a := range s.Args(open) {
		key := ""
		if s.Is(a[0]+1, "=") {
			key = s.Text(a[0])
		}
		for k := a[0]; k < a[1]; k++ {
			switch {
			case s.Kind(k) == syntax.String && (key == "" || key == "value" || key == "path"):
				m.paths = append(m.paths, s.Unquote(k))
			case key == "method" && s.Match(k, "RequestMethod", "."):
				m.methods = append(m.methods, s.Text(k+2))
			}
		}
	}
	if len(m.paths) == before {
		m.paths = append(m.paths, "")
	}
}

// prefixes are the addresses of the class around, the last that says any.
func prefixes(f *model.Facts, class string, at map[int]*mark) []string {
	all := []string{""}
	for k := range f.Definitions {
		if m := at[k]; m != nil && len(m.paths) > 0 && f.Definitions[k].Qualified() == class {
			all = m.paths
		}
	}
	return all
}

// answer adds the routes that a method answers.
func (m *mark) answer(f *model.Facts, d *model.Definition, prefixes []string) {
	paths := m.paths
	if len(paths) == 0 {
		paths = []string{""}
	}
	for _, pre := range prefixes {
		for _, p := range paths {
			for _, method := range m.methods {
				if method == "ANY" && len(m.methods) > 1 {
					continue
				}
				f.Routes = append(f.Routes, model.RouteFact{
					Method: method, Pattern: syntax.JoinRoute(pre, p), Line: m.line, Handler: d.Name,
				})
			}
		}
	}
}

// owner is the index of the innermost definition whose head holds the line:
// annotations belong to the declaration that starts with them.
func owner(f *model.Facts, line int) int {
	best := -1
	for i := range f.Definitions {
		d := &f.Definitions[i]
		if d.Line <= line && line <= d.EndLine && len(d.Marks) > 0 && (best < 0 || d.Line >= f.Definitions[best].Line) &&
			strings.Join(d.Marks, " ") != "" {
			best = i
		}
	}
	return best
}
