package smells

import (
	"fmt"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/weave"
)

var catchAllFolderRule = &Rule{
	Slug: "catch-all-folder", Facet: model.Layout, Title: "Catch-all folder", Weight: 1.5, Family: familyPlace, find: catchAllFolder,
	Question:   "Is there a folder for whatever had no other home?",
	Why:        "A folder named for nothing attracts everything; what is in it can only be found by those who put it there.",
	Example:    "`misc/` with a date parser, a weight conversion and a retry loop.",
	Remedy:     "Move each file to the feature that uses it; what several use gets a folder named for what it provides.",
	Parameters: []Parameter{{"files", "judged files in it, tests aside", 8, 4, 3}},
}

// programs reports whether half of the files or more are each started by themselves:
// tools in a folder of tools, with what they share, have found their place.
func (c *Context) programs(files []*model.File) bool {
	n := 0
	for _, f := range files {
		if r := c.seen(f.Path); r == model.RoleEntry || r == model.RoleScript {
			n++
		}
	}
	return 2*n >= len(files)
}

func catchAllFolder(c *Context, r *Rule) (out []hit) {
	limit := c.Value(r, "files")
	lex := weave.Words()
	for _, d := range c.Folders {
		if d.Path == "." || testPlace(d.Path) || !lex.CatchAll[strings.Join(naming.Words(d.Name), " ")] {
			continue
		}
		files := c.units(d.Path)
		if n := float64(len(files)); n >= limit && !c.programs(files) {
			out = append(out, hit{path: d.Path, strength: 0.3 + 0.4*(n-limit)/(2*limit),
				message:  fmt.Sprintf("*%s* holds %s files that share a folder only for want of a better one", d.Name, number(len(files))),
				evidence: evidence(paths(files), "lies in it"), touches: paths(files)})
		}
	}
	return out
}
