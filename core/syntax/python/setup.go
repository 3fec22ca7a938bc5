package python

import (
	"regexp"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// A project that is described by a program: setup.py hands over to a function what
// other project files declare.

// setupModules offer that function.
var setupModules = syntax.Set("setuptools", "distutils.core", "numpy.distutils.core", "skbuild")

var command = regexp.MustCompile(`^\s*([\w.-]+)\s*=\s*([\w.]+(?::[\w.]+)?)`)

// setup reads the call by which a program describes its project; without one the file
// describes none.
func (r *reader) setup() {
	if !slices.ContainsFunc(r.f.Imports, func(im model.Import) bool { return setupModules[im.Text] }) {
		return
	}
	s := r.s
	for i := range s.Tokens {
		if !s.Match(i, "setup", "(") || s.Is(i-1, "def") {
			continue
		}
		p := &model.Project{Tool: "python", Dependencies: map[string]string{}}
		told := map[string]bool{} // each is heard once: to look for what a name stands for goes over the whole text
		for _, a := range s.Args(i + 1) {
			if key := s.Text(a[0]); s.IsIdent(a[0]) && s.Is(a[0]+1, "=") && a[0]+2 < a[1] && !told[key] {
				told[key] = true
				r.told(p, key, [2]int{a[0] + 2, a[1]})
			}
		}
		r.f.Project = p
		if p.Description != "" {
			r.f.Doc = syntax.Sentence(p.Description, 240)
		}
		return
	}
}

// told takes one keyword of the call, whose value stands in a range of tokens.
func (r *reader) told(p *model.Project, key string, at [2]int) {
	switch key {
	case "name":
		p.Name = r.literal(at)
	case "description":
		p.Description = r.literal(at)
		r.f.DocLine = r.s.Line(at[0])
	case "scripts":
		p.Bin = r.literals(at)
	case "install_requires":
		for _, t := range r.literals(at) {
			syntax.Require(p.Dependencies, t)
		}
	case "package_dir":
		for k := at[0]; k < at[1]; k++ {
			if r.s.Match(k, syntax.Quoted, ":", syntax.Quoted) && plain(r.s.Text(k)) == "" {
				p.Roots = append(p.Roots, plain(r.s.Text(k+2)))
			}
		}
	case "classifiers":
		p.Library = slices.ContainsFunc(r.literals(at), func(t string) bool { return strings.Contains(t, ":: Libraries") })
	case "entry_points":
		r.commands(p, at)
	}
}

// literal is a value that is a text, or a name that one is assigned to; else "".
func (r *reader) literal(at [2]int) string {
	s := r.s
	switch {
	case s.Match(at[0], syntax.Quoted):
		return strings.Join(r.literals(at), "")
	case at[1] == at[0]+1 && s.IsIdent(at[0]):
		for i := range at[0] {
			if s.Match(i, s.Text(at[0]), "=", syntax.Quoted) {
				return plain(s.Text(i + 2))
			}
		}
	}
	return ""
}

// literals are the texts in a range, in their order.
func (r *reader) literals(at [2]int) (out []string) {
	for k := at[0]; k < at[1]; k++ {
		if r.s.Match(k, syntax.Quoted) {
			out = append(out, plain(r.s.Text(k)))
		}
	}
	return out
}

// commands are the functions that are installed to be called by a name; what else a
// package offers by name is for its plug-ins.
func (r *reader) commands(p *model.Project, at [2]int) {
	s := r.s
	group := ""
	for k := at[0]; k < at[1]; k++ {
		if !s.Match(k, syntax.Quoted) {
			continue
		}
		text := plain(s.Text(k))
		if s.Is(k+1, ":") {
			group = text
			continue
		}
		if m := command.FindStringSubmatch(text); m != nil && (group == "console_scripts" || group == "gui_scripts") {
			p.Scripts = append(p.Scripts, model.Command{Name: m[1], Text: m[2], Line: s.Line(k)})
		}
	}
}
