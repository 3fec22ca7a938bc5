package smells

import (
	"fmt"

	"jantel/core/model"
	"jantel/core/syntax"
)

var tooDeepRule = &Rule{
	Slug: "too-deep", Facet: model.Layout, Title: "Too deep", Weight: 0.5, find: tooDeep,
	Question:   "Must many folders be opened to reach the code?",
	Why:        "Each step is a choice that can be wrong, and paths grow too long to be read.",
	Example:    "`desk/src/app/main/features/vault/shelves/parts/boxes/BoxGrid.tsx`.",
	Remedy:     "Fold levels together that hold little but the next.",
	Parameters: []Parameter{{"folders", "folders above the file", 9, 8, 7}},
}

// tooDeep reports folders with code that lie many folders down.
func tooDeep(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "folders"))
	for _, d := range c.Folders {
		files := c.SourceIn(d.Path)
		if d.Depth <= limit || len(files) == 0 || syntax.ProfileOf(files[0].Language).PathPackages || testPlace(d.Path) {
			continue
		}
		out = append(out, hit{path: d.Path, strength: 0.2 +
			0.1*float64(d.Depth-limit), touches: paths(files), evidence: evidence(paths(files), "lies here"),
			message: fmt.Sprintf("%s folders must be opened to reach its files", capital(number(d.Depth)))})
	}
	return out
}
