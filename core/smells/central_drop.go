package smells

import (
	"fmt"
	"path"

	"jantel/core/model"
)

var centralDropRule = &Rule{
	Slug: "central-drop", Facet: model.Boundaries, Title: "Central drop", Weight: 0.8, Family: familyRing, find: centralDrop,
	Question:   "Does one file of types or state drag everything along?",
	Why:        "Whoever takes one type out of it takes all others with it, and every change to one reaches all.",
	Example:    "`shared/src/types/all.ts` with seven types that forty files import.",
	Remedy:     "Let each feature keep its own types, and leave only what is truly shared.",
	Parameters: []Parameter{{"share", "of the source files that need it", 0.35, 0.25, 0.2}},
}

// centralDrop reports files of types or state that much of a codebase hangs on.
func centralDrop(c *Context, r *Rule) (out []hit) {
	limit := c.Value(r, "share")
	in, _ := c.degrees()
	source := 0
	for range c.Source(".") {
		source++
	}
	if source < 20 {
		return nil
	}
	for _, f := range c.Survey.Files {
		role := c.seen(f.Path)
		if role != model.RoleModel && role != model.RoleState && role != model.RoleSchema || f.Facts == nil ||
			len(f.Facts.Definitions) < 4 {
			continue
		}
		if share := float64(in[f.Path]) / float64(source); share >= limit {
			out = append(out, hit{
				path: f.Path, strength: 0.3 + share, touches: []string{f.Path},
				message: fmt.Sprintf(
					"%d of %d source files hang on *%s*, which holds %d definitions", in[f.Path], source,
					path.Base(f.Path), len(f.Facts.Definitions),
				),
			})
		}
	}
	return out
}
