package smells

import (
	"cmp"
	"fmt"
	"maps"
	"slices"

	"jantel/core/model"
)

var partMissingRule = &Rule{
	Slug: "part-missing", Facet: model.Layout, Title: "Part missing", Weight: 0.4, Family: familyPlace, find: partMissing, AsksCut: true,
	Question: "Does a feature lack a part that all its siblings have?",
	Why:      "Either it lies where nobody looks for it, or it was forgotten.",
	Example:  "Six features have routes, handler, logic and data access; *weather* has no handler.",
	Remedy:   "Add it, or say beside the others why it is not needed.",
}

// leastShared is how many parts the features of a project have to have in common
// before one that lacks one of them is told from one that is merely another.
const leastShared = 3

// anyways are parts that a feature may have or not: what is not tested is told by
// rules of tests.
var anyways = map[model.Role]bool{model.RoleStyle: true, model.RoleAsset: true, model.RoleTest: true}

// ofProject is a feature of one project: the same word may be one in each.
type ofProject struct{ project, feature string }

// parts are the files of a feature by their role, as far as that was seen.
type parts map[model.Role][]string

// anatomy is what the features of a project are made of: how many of them have each
// part, and which parts nearly all have.
type anatomy struct {
	features int
	with     map[model.Role]int
	shared   []model.Role
}

// partMissing reports features without a part that nearly all others have.
func partMissing(c *Context, _ *Rule) (out []hit) {
	have := partsOf(c)
	built := anatomies(have)
	for _, k := range slices.SortedFunc(maps.Keys(have), func(a, b ofProject) int {
		return cmp.Or(cmp.Compare(a.project, b.project), cmp.Compare(a.feature, b.feature))
	}) {
		mine, a := have[k], built[k.project]
		if len(mine) < 2 || a.features < 4 || len(a.shared) < leastShared {
			continue
		}
		files := slices.Sorted(slices.Values(slices.Concat(slices.Collect(maps.Values(mine))...)))
		for _, r := range a.shared {
			if mine[r] == nil {
				out = append(out, hit{path: commonFolder(files), name: k.feature, extra: string(r), strength: 0.25, touches: files[:1],
					evidence: evidence(files, "is about it"),
					message:  fmt.Sprintf("*%s* has no %s, which all of its %d siblings have", k.feature, r, a.features-1)})
			}
		}
	}
	return out
}

func partsOf(c *Context) map[ofProject]parts {
	have := map[ofProject]parts{}
	for p, f := range c.FeatureOf {
		r := c.seen(p)
		if f.Feature == "" || r == "" || !c.Judged[p] {
			continue
		}
		k := ofProject{c.moduleOf(p), f.Feature}
		if have[k] == nil {
			have[k] = parts{}
		}
		have[k][r] = append(have[k][r], p)
	}
	return have
}

// anatomies are those of the projects, from the features that have parts at all.
func anatomies(have map[ofProject]parts) map[string]anatomy {
	out := map[string]anatomy{}
	for k, mine := range have {
		if len(mine) < 2 {
			continue
		}
		a := out[k.project]
		if a.with == nil {
			a.with = map[model.Role]int{}
		}
		a.features++
		for r := range mine {
			a.with[r]++
		}
		out[k.project] = a
	}
	for at, a := range out {
		for _, r := range model.Roles {
			if n := a.with[r]; n >= a.features-1 && n >= 3 && !anyways[r] {
				a.shared = append(a.shared, r)
			}
		}
		out[at] = a
	}
	return out
}
