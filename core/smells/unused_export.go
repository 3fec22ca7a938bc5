package smells

import (
	"fmt"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

var unusedExportRule = &Rule{
	Slug: "unused-export", Facet: model.Boundaries, Title: "Exports nobody uses", Weight: 0.4, Habit: true, find: unusedExport,
	Question: "Does a file offer what nobody here takes?",
	Why:      "What is offered is kept as if somebody relied on it.",
	Example:  "`logic/viability.ts` exports eight functions, of which three are used.",
	Remedy:   "Take the word away that exports it; delete it where the file does not need it either.",
}

// unusedExport looks where exports are written out and taken by name. What a
// framework takes by its name, and what a package offers to the world, is
// somebody's.
func unusedExport(c *Context, _ *Rule) (out []hit) {
	used, whole := c.taken()
	for f := range c.Source(".") {
		if !syntax.ProfileOf(f.Language).WrittenExports || whole[f.Path] || used[f.Path] == nil ||
			c.Frameworks.Loads(f.Path) != nil {
			continue
		}
		switch c.Roles[f.Path].Role {
		case model.RoleEntry, model.RoleRouting, model.RoleConfig, model.RoleFacade, model.RoleScript, model.RoleSchema:
			continue
		}
		var ev []model.Evidence
		var names []string
		offered := 0
		for _, d := range f.Facts.Definitions {
			if !d.Exported || d.Parent != "" || !slices.Contains(f.Facts.Names, d.Name) || d.Kind == model.DefType ||
				d.Kind == model.DefInterface || d.Kind == model.DefEnum {
				continue
			}
			offered++
			if !used[f.Path][d.Name] {
				ev = append(ev, model.Evidence{Path: f.Path, Line: d.Line, Note: d.Name})
				names = append(names, "*"+d.Name+"*")
			}
		}
		// One forgotten word is no more than that.
		if len(ev) < 2 {
			continue
		}
		out = append(out, hit{
			path: f.Path, line: ev[0].Line, strength: min(0.4, 0.2+0.02*float64(len(ev)-2)), touches: []string{f.Path},
			evidence: ev[:min(12, len(ev))],
			message: fmt.Sprintf("%s of the %s exports are taken by nobody: %s",
				capital(number(len(ev))), number(offered), strings.Join(names[:min(4, len(names))], ", ")),
		})
	}
	return out
}

// taken tells which names of each file others take, and which files are taken
// whole, or in a way that names nothing.
func (c *Context) taken() (names map[string]map[string]bool, whole map[string]bool) {
	names, whole = map[string]map[string]bool{}, map[string]bool{}
	for i := range c.Survey.Links {
		l := &c.Survey.Links[i]
		if l.Kind == model.LinkRendering || l.Kind == model.LinkInheritance {
			continue // what is drawn was imported
		}
		if len(l.Names) == 0 || slices.Contains(l.Names, "*") {
			whole[l.To] = true
			continue
		}
		if names[l.To] == nil {
			names[l.To] = map[string]bool{}
		}
		for _, n := range l.Names {
			names[l.To][n] = true
		}
	}
	return names, whole
}
