package smells

// What several rules ask.

import (
	"fmt"
	"path"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/reading"
	"jantel/core/weave"
)

// units are the judged files of a folder that a reader has to take in: tests,
// assets, prose and settings aside.
func (c *Context) units(d string) []*model.File {
	var out []*model.File
	for _, f := range c.OwnIn(d) {
		switch c.Roles[f.Path].Role {
		case model.RoleTest, model.RoleAsset, model.RoleDocs, model.RoleConfig, model.RoleTranslation:
			continue
		}
		if reading.IsCode(f) {
			out = append(out, f)
		}
	}
	return out
}

// answering are the projects in which something asks from outside and is answered:
// the order of the roles that a request passes means something in them alone.
func (c *Context) answering() map[string]bool {
	out, answers := map[string]bool{}, weave.Answering(c.Survey)
	for _, f := range c.Survey.Files {
		if f.Facts == nil || !c.Judged[f.Path] || c.Roles[f.Path].Role == model.RoleTest {
			continue
		}
		if answers[f.Path] || c.seen(f.Path) == model.RoleHandler {
			out[c.moduleOf(f.Path)] = true
		}
	}
	return out
}

// testPlace reports whether a folder holds tests or what tests work on, where
// many files side by side are a convention.
func testPlace(d string) bool {
	for part := range strings.SplitSeq(d, "/") {
		switch part {
		case "test", "tests", "__tests__", "spec", "specs", "testdata", "fixtures", "e2e", "examples", "locales":
			return true
		}
	}
	return false
}

type group struct {
	word  string
	files []*model.File
}

// firstWords groups files by the first word of their names, largest first.
func firstWords(files []*model.File) []group {
	by := map[string][]*model.File{}
	for _, f := range files {
		if w := naming.Words(naming.Stem(f.Path)); len(w) > 1 && len(w[0]) > 2 {
			by[w[0]] = append(by[w[0]], f)
		}
	}
	var out []group
	for w, fs := range by {
		out = append(out, group{w, fs})
	}
	sort.Slice(out, func(i, j int) bool {
		if len(out[i].files) != len(out[j].files) {
			return len(out[i].files) > len(out[j].files)
		}
		return out[i].word < out[j].word
	})
	return out
}

var smallNumbers = []string{"none", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"}

func number(n int) string {
	if n < len(smallNumbers) {
		return smallNumbers[n]
	}
	return fmt.Sprint(n)
}

func capital(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

// between lists the links of two roles within one module, once for each pair
// of files.
func (c *Context) between(from, to model.Role) (out []model.Link) {
	seen := map[[2]string]bool{}
	for i := range c.Edges() {
		l := &c.Edges()[i]
		if l.FromRole != from || l.ToRole != to || l.Kind == model.LinkRoute || l.Kind == model.LinkHTTP || l.Kind == model.LinkMessage {
			continue
		}
		if k := [2]string{l.From, l.To}; !seen[k] && c.moduleOf(l.From) == c.moduleOf(l.To) {
			seen[k] = true
			out = append(out, *l.Link)
		}
	}
	return out
}

// degrees counts, for each judged file, how many others need it and how many it
// needs.
func (c *Context) degrees() (in, out map[string]int) {
	in, out = map[string]int{}, map[string]int{}
	for i := range c.Edges() {
		if l := &c.Edges()[i]; !l.Again && l.FromRole != model.RoleTest {
			in[l.To]++
			out[l.From]++
		}
	}
	return in, out
}

// commonFolder is the innermost folder that holds all of the paths.
func commonFolder(ps []string) string {
	d := model.FolderOf(ps[0])
	for _, p := range ps[1:] {
		for !model.Within(d, p) {
			d = model.FolderOf(d)
		}
	}
	return d
}

// moduleOf is the innermost folder with a project file that holds a path; what
// lies in none is one.
func (c *Context) moduleOf(p string) string { return model.ProjectOf(c.Modules, p) }

func most[K comparable](counts map[K]int) (n int) {
	for _, k := range counts {
		n = max(n, k)
	}
	return n
}

func rolesOf(c *Context, fs []*model.File) (ev []model.Evidence) {
	for _, f := range fs[:min(12, len(fs))] {
		note := string(c.Roles[f.Path].Role)
		if note == "" {
			note = "role unknown"
		}
		ev = append(ev, model.Evidence{Path: f.Path, Note: note})
	}
	return ev
}

// shortList names up to three paths by their last parts.
func shortList(ps []string) string {
	var names []string
	for i, p := range ps {
		if i == 3 {
			return strings.Join(names, ", ") + " …"
		}
		names = append(names, path.Base(p))
	}
	return strings.Join(names, ", ")
}

// library reports whether a project file offers the code to others, who may use
// what nobody here does.
func (c *Context) library() bool {
	for _, f := range c.OwnIn(".") {
		if f.Facts.Project != nil && (len(f.Facts.Project.Entries) > 0 || len(f.Facts.Project.Exports) > 0) {
			return true
		}
	}
	return false
}

func namedThing(d model.Definition) bool {
	switch d.Kind {
	case model.DefType, model.DefClass, model.DefInterface, model.DefEnum, model.DefFunction, model.DefMethod, model.DefComponent:
		return true
	}
	return false
}

// sources counts the judged files of program text that are no test.
func (c *Context) sources() (n int) {
	for range c.Source(".") {
		n++
	}
	return n
}

// source calls fn for each judged file of program text that is no test.
func (c *Context) source(fn func(f *model.File)) {
	for f := range c.Source(".") {
		fn(f)
	}
}
