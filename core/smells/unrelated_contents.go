package smells

import (
	"fmt"
	"slices"

	"jantel/core/model"
	"jantel/core/naming"
)

var unrelatedContentsRule = &Rule{
	Slug: "unrelated-contents", Facet: model.Layout, Title: "Unrelated things in one folder", Weight: 0.8,
	Family: familyPlace, find: unrelatedContents,
	Question:   "Do the files of a folder have anything to do with each other?",
	Why:        "A folder is a promise that its files belong together; where they do not, it has to be searched and not read.",
	Example:    "`archive/lib/` holds a page, a query, a schedule and a label printer; none of them needs another.",
	Remedy:     "Put each where it is used, and see what is left.",
	Parameters: []Parameter{{"files", "source files in the folder", 8, 6, 5}},
}

// unrelatedContents reports folders whose files have nothing to do with each
// other: no dependency, no word and no role in common.
func unrelatedContents(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "files"))
	tied := map[string]bool{} // folders in which one file needs another
	for i := range c.Edges() {
		if d := model.FolderOf(c.Edges()[i].From); d == model.FolderOf(c.Edges()[i].To) {
			tied[d] = true
		}
	}
	for _, d := range c.Folders {
		fs := c.SourceIn(d.Path)
		if d.Path == "." || len(fs) < limit || tied[d.Path] {
			continue
		}
		roles, words, features := map[model.Role]int{}, map[string]int{}, map[string]int{}
		for _, f := range fs {
			roles[c.seen(f.Path)]++
			if n := c.FeatureOf[f.Path].Feature; n != "" {
				features[n]++
			}
			for _, w := range slices.Compact(slices.Sorted(slices.Values(naming.Words(naming.Stem(f.Path))))) {
				words[w]++
			}
		}
		known := len(fs) - roles[""]
		delete(roles, "")
		if 2*known < len(fs) || len(roles) < 3 || 2*most(roles) > len(fs) || 2*most(words) > len(fs) || 2*most(features) > len(fs) {
			continue
		}
		out = append(out, hit{path: d.Path, strength: 0.3 + 0.02*float64(len(fs)-limit), touches: paths(fs), evidence: rolesOf(c, fs),
			message: fmt.Sprintf(
				"%s files of %s roles lie together and have nothing in common: none needs another",
				capital(number(len(fs))), number(len(roles)),
			)})
	}
	return out
}
