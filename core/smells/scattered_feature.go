package smells

import (
	"fmt"
	"sort"

	"jantel/core/model"
	"jantel/core/weave"
)

var scatteredFeatureRule = &Rule{
	Slug: "scattered-feature", Facet: model.Layout, Title: "Scattered feature", Weight: 0.6, Family: familyPlace, find: scatteredFeature,
	Question:   "Is one feature spread over many folders?",
	Why:        "Who works on it has to know all of them, and what was forgotten is not seen.",
	Example:    "*labels* lies in `routes`, `handlers`, `logic`, `data`, `pages`, `store` and `api`.",
	Remedy:     "Bring its parts together in a folder that has its name.",
	Parameters: []Parameter{{"folders", "innermost folders a feature lies in", 9, 7, 6}},
}

// scatteredFeature reports features that lie in many folders.
func scatteredFeature(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "folders"))
	for _, f := range c.Features {
		if f.Scatter < limit || len(f.Files) < limit {
			continue
		}
		in := map[string]int{}
		for _, p := range f.Files {
			in[weave.Home(f.Name, model.FolderOf(p))]++
		}
		dirs := make([]string, 0, len(in))
		for d := range in {
			dirs = append(dirs, d)
		}
		sort.Strings(dirs)
		at := commonFolder(f.Files)
		out = append(out, hit{path: at, name: f.Name, strength: 0.15 +
			0.04*float64(f.Scatter-limit), touches: f.Files, evidence: evidence(dirs, "holds part of it"),
			message: fmt.Sprintf("*%s* lies in %s folders", f.Name, number(f.Scatter))})
	}
	return out
}
