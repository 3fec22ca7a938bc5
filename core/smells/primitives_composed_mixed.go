package smells

import (
	"fmt"

	"jantel/core/model"
)

var primitivesComposedMixedRule = &Rule{
	Slug: "primitives-composed-mixed", Facet: model.Layout, Title: "Primitives and composed " +
		"components mixed", Weight: 0.5, find: primitivesComposedMixed,
	Question: "Do building blocks lie among what is built of them?",
	Why:      "Who looks for a button finds whole forms, and changes one of them where all were meant.",
	Example: "`desk/src/components` holds `Button.tsx` and `Field.tsx` beside `AccessionForm.tsx`, which is put " +
		"together of nine others.",
	Remedy:     "Give the building blocks a folder of their own.",
	Parameters: []Parameter{{"components", "of either sort", 6, 4, 3}},
}

// primitivesComposedMixed reports folders in which components that render
// nothing of the codebase lie among those that are put together of others.
func primitivesComposedMixed(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "components"))
	renders := map[string]map[string]bool{}
	rendered := map[string]map[string]bool{}
	put := func(m map[string]map[string]bool, k, v string) {
		if m[k] == nil {
			m[k] = map[string]bool{}
		}
		m[k][v] = true
	}
	for i := range c.Survey.Links {
		if l := &c.Survey.Links[i]; l.Kind == model.LinkRendering && c.Judged[l.From] && c.Judged[l.To] &&
			c.Roles[l.From].Role != model.RoleTest {
			put(renders, l.From, l.To)
			put(rendered, l.To, l.From)
		}
	}
	for _, d := range c.Folders {
		var primitive, composed []*model.File
		for _, f := range c.SourceIn(d.Path) {
			switch {
			case c.seen(f.Path) != model.RoleView:
			case len(renders[f.Path]) >= 3:
				composed = append(composed, f)
			case len(renders[f.Path]) == 0 && len(rendered[f.Path]) >= 2:
				primitive = append(primitive, f)
			}
		}
		if len(primitive) < limit || len(composed) < limit {
			continue
		}
		ev := evidence(paths(primitive[:min(6, len(primitive))]), "renders no other, and is rendered by several")
		out = append(out, hit{path: d.Path, strength: 0.25 +
			0.02*float64(
				len(primitive)+len(composed)-2*limit,
			), touches: append(paths(primitive), paths(composed)...), evidence: append(ev, evidence(
			paths(composed[:min(6, len(composed))]), "is put together of three and more",
		)...),
			message: fmt.Sprintf(
				"%s primitive and %s composed components lie in one folder", capital(number(len(primitive))),
				number(len(composed)),
			)})
	}
	return out
}
