package smells

import (
	"fmt"
	"sort"

	"jantel/core/model"
)

var partMissingRule = &Rule{
	Slug: "part-missing", Facet: model.Layout, Title: "Part missing", Weight: 0.4, Family: familyPlace, find: partMissing,
	Question: "Does a feature lack a part that all its siblings have?",
	Why:      "Either it lies where nobody looks for it, or it was forgotten.",
	Example:  "Six features have routes, handler, logic and data access; *weather* has no handler.",
	Remedy:   "Add it, or say beside the others why it is not needed.",
}

// partMissing reports features without a part that nearly all others have.
func partMissing(c *Context, _ *Rule) (out []hit) {
	type at struct {
		module  string
		feature string
	}
	have := map[at]map[model.Role][]string{}
	for p, f := range c.FeatureOf {
		r := c.seen(p)
		if f.Feature == "" || r == "" || !c.Judged[p] {
			continue
		}
		k := at{c.moduleOf(p), f.Feature}
		if have[k] == nil {
			have[k] = map[model.Role][]string{}
		}
		have[k][r] = append(have[k][r], p)
	}
	full := map[string]int{}
	with := map[string]map[model.Role]int{}
	for k, roles := range have {
		if len(roles) < 2 {
			continue
		}
		full[k.module]++
		if with[k.module] == nil {
			with[k.module] = map[model.Role]int{}
		}
		for r := range roles {
			with[k.module][r]++
		}
	}
	keys := make([]at, 0, len(have))
	for k := range have {
		keys = append(keys, k)
	}
	sort.Slice(keys, func(i, j int) bool {
		if keys[i].module != keys[j].module {
			return keys[i].module < keys[j].module
		}
		return keys[i].feature < keys[j].feature
	})
	for _, k := range keys {
		roles := have[k]
		if len(roles) < 2 || full[k.module] < 4 {
			continue
		}
		for _, r := range model.Roles {
			if n := with[k.module][r]; roles[r] != nil || n < full[k.module]-1 || n < 3 || r == model.RoleStyle || r == model.RoleAsset {
				continue
			}
			var mine []string
			for _, ps := range roles {
				mine = append(mine, ps...)
			}
			sort.Strings(mine)
			out = append(
				out,
				hit{path: commonFolder(mine), name: k.feature, extra: string(r), strength: 0.25, touches: mine[:1],
					evidence: evidence(mine, "is about it"),
					message:  fmt.Sprintf("*%s* has no %s, which all of its %d siblings have", k.feature, r, full[k.module]-1)})
		}
	}
	return out
}
