package smells

import (
	"fmt"
	"path"

	"jantel/core/model"
	"jantel/core/syntax"
)

var fileNobodyReachesRule = &Rule{
	Slug: "file-nobody-reaches", Facet: model.Boundaries, Title: "File nobody reaches", Weight: 0.6, Habit: true, find: nobodyReaches,
	Question: "Is there code that nothing needs?",
	Why:      "It is read, kept up and searched through for nothing.",
	Example:  "`logic/oldLabels.ts`, left when the printer was replaced.",
	Remedy:   "Delete it, or find the way by which it is reached that can not be seen in the code.",
}

// nobodyReaches reports source files that no entry, test or other file needs.
func nobodyReaches(c *Context, _ *Rule) (out []hit) {
	used := map[string]bool{}
	for _, l := range c.Survey.Links {
		if l.From != l.To {
			used[l.To] = true
		}
	}
	entries := 0
	for _, f := range c.Survey.Files {
		if f.Facts != nil && (f.Facts.Starts > 0 || c.Roles[f.Path].Role == model.RoleEntry) {
			entries++
		}
	}
	for _, f := range c.Survey.Files {
		role := c.Roles[f.Path].Role
		if used[f.Path] || !c.Judged[f.Path] || !syntax.ProfileOf(f.Language).Reached || f.Facts == nil ||
			len(f.Facts.Definitions) == 0 || loadedByPages(f) || f.Facts.Starts > 0 || entries == 0 || c.Frameworks.Loads(f.Path) != nil {
			continue
		}
		if (role != model.RoleLogic && role != model.RoleView && role != model.RoleHelper && role != model.RoleModel &&
			role != model.RoleState && role != model.RoleDataAccess) || len(f.Facts.Routes) > 0 {
			continue
		}
		if c.oneOfMany(f, used) {
			continue
		}
		out = append(out, hit{
			path: f.Path, strength: 0.35, touches: []string{f.Path},
			message: fmt.Sprintf("No file was found that needs *%s*", path.Base(f.Path)),
		})
	}
	return out
}

// leastOfMany is how many files of a folder have to be of one make, for one of them to be
// found by where it lies.
const leastOfMany = 4

// oneOfMany reports whether what a file defines builds upon the same, or is marked with the
// same, as in other files of its folder: such are looked for there and loaded one by one.
func (c *Context) oneOfMany(f *model.File, used map[string]bool) bool {
	own := makeOf(f)
	same, reached := map[string]int{}, map[string]bool{}
	for _, g := range c.SourceIn(model.FolderOf(f.Path)) {
		for x := range makeOf(g) {
			if own[x] {
				same[x]++
				reached[x] = reached[x] || used[g.Path]
			}
		}
	}
	for x, n := range same {
		// Where none of a make is reached, a few are enough.
		if n >= leastOfMany || n > 1 && !reached[x] {
			return true
		}
	}
	return false
}

// makeOf is what the types of a file build upon and are marked with.
func makeOf(f *model.File) map[string]bool {
	out := map[string]bool{}
	for i := range f.Facts.Definitions {
		d := &f.Facts.Definitions[i]
		if d.Kind != model.DefClass {
			continue
		}
		for _, b := range d.Bases {
			out[b] = true
		}
		for _, m := range d.Marks {
			out["@"+m] = true
		}
	}
	delete(out, "object")
	return out
}

// loadedByPages reports whether a file is a script that pages load: which do, in
// what order, is often put together where it can not be seen.
func loadedByPages(f *model.File) bool {
	return syntax.ProfileOf(f.Language).Globals && len(f.Facts.Imports) == 0 && len(f.Facts.Names) == 0
}
