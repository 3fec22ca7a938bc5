package smells

import (
	"fmt"
	"slices"
	"strings"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
)

var unrelatedContentsRule = &Rule{
	Slug: "unrelated-contents", Facet: model.Layout, Title: "Unrelated things in one folder", Weight: 0.8,
	Family: familyPlace, find: unrelatedContents, AsksCut: true,
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
	tie := func(from, to string) {
		if d := model.FolderOf(from); from != to && d == model.FolderOf(to) {
			tied[d] = true
		}
	}
	for i := range c.Edges() {
		tie(c.Edges()[i].From, c.Edges()[i].To)
	}
	g := calls.Of(c.Survey) // files of a package, and scripts of a page, know each other without taking each other in
	for i := range g.Edges {
		tie(c.Files[g.Edges[i].From.File].Path, c.Files[g.Edges[i].To.File].Path)
	}
	for _, d := range c.Folders {
		fs := c.SourceIn(d.Path)
		if d.Path == "." || len(fs) < limit || tied[d.Path] || slices.ContainsFunc(fs, scriptOfPage) {
			continue
		}
		roles, words, features := map[model.Role]int{}, map[string]int{}, map[string]int{}
		called := strings.ToLower(naming.Singular(d.Name))
		for _, f := range fs {
			roles[c.seen(f.Path)]++
			// What a folder is called its files have in common only by lying there.
			if of := c.FeatureOf[f.Path]; of.Feature != "" && of.Feature != called && !of.Alone {
				features[of.Feature]++
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

// scriptOfPage reports whether a file is no module: what such scripts share lies in
// what all of them know, and is not seen.
func scriptOfPage(f *model.File) bool {
	profile := syntax.ProfileOf(f.Language)
	return profile.Loose(f.Facts)
}
