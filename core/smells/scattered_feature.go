package smells

import (
	"fmt"
	"maps"
	"slices"

	"jantel/core/model"
	"jantel/core/weave"
)

var scatteredFeatureRule = &Rule{
	Slug: "scattered-feature", Facet: model.Layout, Title: "Scattered feature", Weight: 0.4, Family: familyPlace,
	find: scatteredFeature, AsksCut: true,
	Question:   "Is one feature spread over many folders?",
	Why:        "Who works on it has to know all of them, and what was forgotten is not seen.",
	Example:    "*labels* lies in `routes`, `handlers`, `logic`, `data`, `pages`, `store` and `api`.",
	Remedy:     "Bring its parts together in a folder that has its name.",
	Parameters: []Parameter{{"folders", "innermost folders a feature lies in", 9, 7, 6}},
}

// scatteredFeature reports features that lie in many folders of one project: in
// each of several one may well be at home.
func scatteredFeature(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "folders"))
	for _, f := range c.Features {
		if f.Scatter < limit {
			continue
		}
		by := map[string][]string{}
		for _, p := range f.Files {
			if c.Roles[p].Role != model.RoleTest {
				at := c.moduleOf(p)
				by[at] = append(by[at], p)
			}
		}
		for _, at := range slices.Sorted(maps.Keys(by)) {
			files, in := by[at], map[string]bool{}
			for _, p := range files {
				in[weave.Home(f.Name, model.FolderOf(p))] = true
			}
			if len(in) < limit || len(files) < limit {
				continue
			}
			out = append(out, hit{path: commonFolder(files), name: f.Name, strength: 0.15 + 0.04*float64(len(in)-limit),
				touches: files, evidence: evidence(slices.Sorted(maps.Keys(in)), "holds part of it"),
				message: fmt.Sprintf("*%s* lies in %s folders", f.Name, number(len(in)))})
		}
	}
	return out
}
