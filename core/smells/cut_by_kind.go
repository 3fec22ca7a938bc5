package smells

import (
	"fmt"
	"slices"

	"jantel/core/model"
)

var cutByKindRule = &Rule{
	Slug: "cut-by-kind", Facet: model.Layout, Title: "Cut by kind while features scatter", Weight: 0.8, find: cutByKind, AsksCut: true,
	Question: "Do folders follow technical kinds while each feature is spread over all of them?",
	Why:      "A change to one feature then touches every folder, and no folder says what the software is about.",
	Example:  "`desk/src` has `pages`, `components`, `hooks`, `store` and `api`; *drying* lies in all five.",
	Remedy:   "Make a folder of each feature and keep only what several share in folders of kinds.",
}

// leastKinds is of how many kinds the files of a feature have to be, as is seen, for folders
// of kinds to spread it.
const leastKinds = 2

// kindsOf is how many roles are seen among files.
func (c *Context) kindsOf(files []string) int {
	seen := map[model.Role]bool{}
	for _, p := range files {
		if r := c.seen(p); r != "" && r != model.RoleTest {
			seen[r] = true
		}
	}
	return len(seen)
}

// cutByKind reports modules whose folders are technical kinds while their
// features are spread over them.
func cutByKind(c *Context, _ *Rule) (out []hit) {
	modules := append([]model.Module{}, c.Modules...)
	if !slices.ContainsFunc(modules, func(m model.Module) bool { return m.Project }) {
		modules = []model.Module{{Path: ".", Cut: c.Cut}}
	}
	for _, m := range modules {
		if m.Cut.Label != model.CutByKind {
			continue
		}
		var spread []string
		var touches []string
		var ev []model.Evidence
		for _, f := range c.Features {
			in := map[string]bool{}
			var mine []string
			for _, p := range f.Files {
				if model.Within(m.Path, p) && c.Roles[p].Role != model.RoleTest {
					in[model.FolderOf(p)] = true
					mine = append(mine, p)
				}
			}
			if len(in) >= 3 && c.kindsOf(mine) >= leastKinds {
				spread = append(spread, f.Name)
				touches = append(touches, mine...)
				if len(ev) < 12 {
					ev = append(ev, model.Evidence{Path: mine[0], Note: fmt.Sprintf("%s lies in %d folders", f.Name, len(in))})
				}
			}
		}
		if len(spread) < 3 {
			continue
		}
		out = append(out, hit{path: m.Path, extra: "cut", strength: 0.2 + 0.03*float64(len(spread)), touches: touches, evidence: ev,
			message: fmt.Sprintf("%s features are spread over folders of technical kinds", capital(number(len(spread))))})
	}
	return out
}
