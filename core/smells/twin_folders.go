package smells

import (
	"fmt"
	"sort"

	"jantel/core/model"
)

var twinFoldersRule = &Rule{
	Slug: "twin-folders", Facet: model.Layout, Title: "Twin folders", Weight: 1.2, Family: familyTwin, find: twinFolders,
	Question:   "Is a whole folder nearly the same as another?",
	Why:        "Each correction has to be made twice, in as many files as there are.",
	Example:    "`pages/seedbank/` and `pages/herbarium/`, five files each, alike but for names.",
	Remedy:     "Keep one, and hand in what differs.",
	Parameters: []Parameter{{"files", "files of a folder that have a twin in the other", 4, 3, 3}},
}

// twinFolders reports pairs of folders most of whose files have a twin in the
// other.
func twinFolders(c *Context, r *Rule) (out []hit) {
	least := int(c.Value(r, "files"))
	type pair struct{ a, b string }
	twins := map[pair]map[string]string{} // file of a to its twin in b, and back
	note := func(a, b string) {
		da, db := model.FolderOf(a), model.FolderOf(b)
		if da == db {
			return
		}
		if da > db {
			da, db, a, b = db, da, b, a
		}
		p := pair{da, db}
		if twins[p] == nil {
			twins[p] = map[string]string{}
		}
		if twins[p][a] == "" && twins[p][b] == "" {
			twins[p][a], twins[p][b] = b, a
		}
	}
	for _, t := range c.Survey.Twins {
		if len(t.Members) > 40 {
			continue // one text in so many places tells nothing of two folders
		}
		for i, m := range t.Members {
			for _, n := range t.Members[i+1:] {
				if m.Path != n.Path && c.Judged[m.Path] && c.Judged[n.Path] && !c.IsTest(m.Path) && !c.IsTest(n.Path) {
					note(m.Path, n.Path)
				}
			}
		}
	}
	for p, of := range twins {
		n := len(of) / 2
		if n < least || 10*n < 6*len(c.units(p.a)) || 10*n < 6*len(c.units(p.b)) {
			continue
		}
		var ev []model.Evidence
		var touched []string
		for f, twin := range of {
			touched = append(touched, f)
			if model.FolderOf(f) == p.a {
				ev = append(ev, model.Evidence{Path: f, Note: "like " + twin})
			}
		}
		sort.Strings(touched)
		sort.Slice(ev, func(i, j int) bool { return ev[i].Path < ev[j].Path })
		out = append(out, hit{
			path: p.a, extra: p.b, strength: 0.5 + 0.05*float64(n-least), touches: touched, evidence: ev[:min(12, len(ev))],
			message: fmt.Sprintf("%s of its files have a twin in %s", capital(number(n)), p.b),
		})
	}
	return out
}
