package smells

import (
	"fmt"
	"path"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/weave"
)

var suffixAgainstFolderRule = &Rule{
	Slug: "suffix-against-folder", Facet: model.Names, Title: "Suffix against its folder", Weight: 0.5,
	Family: familyName, Habit: true, find: suffixAgainstFolder,
	Question:   "Does a file lack the ending that nearly all its siblings have?",
	Why:        "Readers take the ending for a rule; what lacks it is taken for something else.",
	Example:    "`growersSlice.ts`, `lotsSlice.ts`, `dryingSlice.ts` … and `boxes.ts`.",
	Remedy:     "Give it the ending, or move it where its like are.",
	Parameters: []Parameter{{"siblings", "files in the folder", 10, 7, 6}},
}

// suffixAgainstFolder reports files that lack the ending nearly all of their
// siblings have.
func suffixAgainstFolder(c *Context, r *Rule) (out []hit) {
	out = c.ruled(askedEnds)
	least := int(c.Value(r, "siblings"))
	for _, d := range c.Folders {
		files := c.SourceIn(d.Path)
		if len(files) < least || testPlace(d.Path) {
			continue
		}
		by := map[string][]string{}
		for _, f := range files {
			if w := naming.Words(naming.Stem(f.Path)); len(w) > 1 {
				by[w[len(w)-1]] = append(by[w[len(w)-1]], f.Path)
			}
		}
		for suffix, with := range by {
			if _, role := weave.Words().Names[suffix]; !role || len(with)*100 < 85*len(files) || len(with) == len(files) {
				continue
			}
			for _, f := range files {
				w := naming.Words(naming.Stem(f.Path))
				if len(w) == 0 || w[0] == "index" || w[0] == "base" || strings.HasPrefix(path.Base(f.Path), "_") {
					continue
				}
				if last := w[len(w)-1]; last != suffix && naming.Singular(last) != suffix {
					out = append(out, hit{
						path: f.Path, strength: 0.25, touches: []string{f.Path},
						evidence: evidence(with, "ends in "+suffix),
						message: fmt.Sprintf(
							"*%s* does not end in *%s*, as %s of its siblings do", path.Base(f.Path), suffix,
							number(len(with)),
						),
					})
				}
			}
		}
	}
	return out
}
