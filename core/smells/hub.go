package smells

import (
	"fmt"
	"path"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/reading"
)

var hubRule = &Rule{
	Slug: "hub", Facet: model.Boundaries, Title: "Hub", Weight: 1, Family: familyRing, find: hub,
	Question:   "Does everything go through one file?",
	Why:        "A file that needs much and is needed by much is touched by every change and ties together what could be apart.",
	Example:    "`store.ts` is needed by 24 files and needs 22.",
	Remedy:     "Split it by who needs what of it.",
	Parameters: []Parameter{{"dependencies", "files that need it, and that it needs, each", 25, 20, 15}},
}

// hub reports files through which much of a codebase goes, in and out.
// faces are how files are called that stand for their folder.
var faces = map[string]bool{"__init__": true, "index": true, "mod": true}

// stands reports whether a file stands for its folder and mostly takes in what others of
// it define.
func stands(f *model.File) bool {
	names := 0
	for i := range f.Facts.Imports {
		names += max(1, len(f.Facts.Imports[i].Names))
	}
	return faces[naming.Stem(f.Path)] && names >= 2*len(f.Facts.Definitions)
}

func hub(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "dependencies"))
	in, from := c.degrees()
	for _, f := range c.Survey.Files {
		if f.Facts == nil || lists(f.Facts) || !reading.IsCode(f) || c.seen(f.Path) == model.RoleFacade || stands(f) {
			continue // what only takes in others is made to be needed in their place
		}
		if a, b := in[f.Path], from[f.Path]; a >= limit && b >= limit && c.Roles[f.Path].Role != model.RoleEntry {
			out = append(out, hit{
				path: f.Path, strength: 0.3 + 0.01*float64(a+b-2*limit), touches: []string{f.Path},
				message: fmt.Sprintf("%d files need *%s*, and it needs %d", a, path.Base(f.Path), b),
			})
		}
	}
	return out
}
