package smells

import (
	"fmt"
	"path"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
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
	entries, taken := 0, c.takenByName(used)
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
		if taken[f.Path] || c.oneOfMany(f, used) {
			continue
		}
		out = append(out, hit{
			path: f.Path, strength: 0.35, touches: []string{f.Path},
			message: fmt.Sprintf("No file was found that needs *%s*", path.Base(f.Path)),
		})
	}
	return out
}

// leastByName is how many files that nothing needs have to be numbered, or named as their
// folders are, for all of them to be loaded so; by a word that they share, which may be
// chance, it takes leastOfMany.
const leastByName = 3

// takenByName are the files that nothing needs and that are named alike: by the first
// word or by a number in one folder, or as their folder in folders side by side. A name
// that is put together where they are loaded is no need that can be seen.
func (c *Context) takenByName(used map[string]bool) map[string]bool {
	type alike struct {
		folder, by string
		least      int
	}
	by := map[alike][]string{}
	put := func(folder, name string, least int, f *model.File) {
		k := alike{folder, name, least}
		by[k] = append(by[k], f.Path)
	}
	for f := range c.Source(".") {
		if used[f.Path] || f.Facts == nil || len(f.Facts.Definitions) == 0 || f.Facts.Starts > 0 {
			continue // what defines nothing marks a package, and what starts needs nobody
		}
		d, stem := model.FolderOf(f.Path), naming.Stem(f.Path)
		words := naming.Words(stem)
		switch own := naming.Words(path.Base(d)); {
		case d == "." || len(words) == 0:
		case stem == "__init__" || strings.Join(words, "") == strings.Join(own, ""): // its folder's name is its own
			put(model.FolderOf(d), "", leastByName, f)
			if len(own) > 1 {
				put(model.FolderOf(d), own[0], leastOfMany, f)
			}
		case words[0][0] >= '0' && words[0][0] <= '9':
			put(d, "0", leastByName, f)
		case len(words) > 1:
			put(d, words[0], leastOfMany, f)
		}
	}
	out := map[string]bool{}
	for k, files := range by {
		for _, p := range files {
			out[p] = out[p] || len(files) >= k.least
		}
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
