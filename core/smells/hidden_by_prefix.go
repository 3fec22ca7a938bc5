package smells

import (
	"fmt"
	"path"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
)

var hiddenByPrefixRule = &Rule{
	Slug: "hidden-by-prefix", Facet: model.Layout, Title: "Siblings with a common prefix", Weight: 1.2,
	Family: familyPlace, find: hiddenByPrefix,
	Question: "Do siblings repeat a prefix that wants to be a folder?",
	Why:      "A prefix shared by many files is a folder that nobody made: the grouping exists in the names but not in the tree.",
	Example: "`SeedBadge.tsx`, `SeedCount.tsx`, `SeedMap.tsx` … in one folder; `seed/Badge.tsx`, `seed/Count.tsx` " +
		"says the same in the tree.",
	Remedy:     "Make a folder of the prefix and drop it from the names.",
	Parameters: []Parameter{{"siblings", "files that share the prefix", 8, 5, 4}},
}

func hiddenByPrefix(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "siblings"))
	habits := c.prefixHabits()
	for _, d := range c.Folders {
		files := c.units(d.Path)
		if testPlace(d.Path) || len(files) <= limit {
			continue
		}
		lastWord := ""
		if w := naming.Words(path.Base(d.Path)); len(w) > 0 {
			lastWord = strings.TrimSuffix(w[len(w)-1], "s")
		}
		for _, g := range firstWords(files) {
			// A prefix of every file is the folder's name repeated, not a
			// folder inside it; "use" is the form of a hook.
			if len(g.files) < limit || len(g.files) == len(files) || strings.TrimSuffix(g.word, "s") == lastWord || g.word == "use" ||
				g.word == "get" || g.word == "is" || 2*len(g.files) > len(files) && strings.HasPrefix(lastWord, g.word) || habits[g.word] {
				continue
			}
			home := path.Join(d.Path, g.word)
			out = append(out, hit{path: d.Path, extra: g.word, strength: 0.3 + 0.08*float64(len(g.files)-limit),
				message:  fmt.Sprintf("%s siblings share the prefix *%s*", capital(number(len(g.files))), g.word),
				evidence: evidence(paths(g.files), "begins with "+g.word), touches: paths(g.files),
				remedy: fmt.Sprintf("Make a folder %s and move the %s files there, without the prefix.", home, number(len(g.files)))})
		}
	}
	return out
}

// prefixHabits are first words that names have all over a codebase: that of the
// product, or of a good part of the files in several folders. Where a language has
// no namespaces they stand for one, and for no folder.
func (c *Context) prefixHabits() map[string]bool {
	files, folders, all := map[string]int{}, map[string]map[string]bool{}, 0
	c.source(func(f *model.File) {
		all++
		if w := naming.Words(naming.Stem(f.Path)); len(w) > 1 {
			files[w[0]]++
			if folders[w[0]] == nil {
				folders[w[0]] = map[string]bool{}
			}
			folders[w[0]][model.FolderOf(f.Path)] = true
		}
	})
	product := strings.ToLower(strings.Join(naming.Words(c.Survey.Codebase), ""))
	out := map[string]bool{}
	for w, n := range files {
		out[w] = len(folders[w]) >= 4 && 5*n >= all || len(w) > 3 && len(folders[w]) > 1 && strings.Contains(product, w)
	}
	return out
}
