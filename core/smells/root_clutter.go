package smells

import (
	"fmt"

	"jantel/core/model"
	"jantel/core/syntax"
)

var rootClutterRule = &Rule{
	Slug: "root-clutter", Facet: model.Layout, Title: "Clutter at the root", Weight: 0.8, Family: familyPlace, find: rootClutter,
	Question:   "Do source files lie loose at the top?",
	Why:        "The top is what a stranger sees first; loose files hide what the folders would say.",
	Example:    "Fourteen `.ts` files beside `counter/`, `desk/` and `shared/`.",
	Remedy:     "Move each into the folder it belongs to, and leave at the top what starts the program.",
	Parameters: []Parameter{{"files", "source files at the top", 16, 10, 8}},
}

// rootClutter reports code that lies loose at the top of a codebase that has
// folders for it.
func rootClutter(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "files"))
	files := c.SourceIn(".")
	folders := 0
	for _, s := range c.sub["."] {
		for _, d := range c.Folders {
			if d.Path == s && d.JudgedLines > 0 {
				folders++
			}
		}
	}
	if len(files) < limit || folders < 2 {
		return nil
	}
	for _, f := range files {
		if syntax.ProfileOf(f.Language).FolderPackages {
			return nil // a package at the top is how the language has it
		}
	}
	return []hit{{path: ".", extra: "root", strength: over(
		float64(len(files)), float64(limit),
	), touches: paths(files), evidence: evidence(paths(files), "lies at the top"),
		message: fmt.Sprintf("%s source files lie loose at the top, beside %s folders", capital(number(len(files))), number(folders))}}
}
