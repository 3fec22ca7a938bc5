package smells

import (
	"fmt"
	"path"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
)

var overlongNameRule = &Rule{
	Slug: "overlong-name", Facet: model.Names, Title: "Overlong name", Weight: 0.4, Family: familyName, Habit: true, find: overlongName,
	Question:   "Does a name need a line of its own?",
	Why:        "Long names differ where nobody looks, and the code around them is no longer seen.",
	Example:    "`takeTheLotOutOfTheShelfAndWeighIt`.",
	Remedy:     "Say in the name what its surroundings do not say, and leave the rest to them.",
	Parameters: []Parameter{{"words", "words in a name", 8, 7, 6}},
}

func overlongName(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "words"))
	c.source(func(f *model.File) {
		var place map[string]bool
		for _, d := range f.Facts.Definitions {
			if !namedThing(d) || len(d.Name) < 3*limit {
				continue
			}
			w := naming.Words(naming.Own(d.Name))
			if len(w) > limit && place == nil {
				place = wordsOfPlace(f.Path)
			}
			for len(w) > limit && place[w[0]] {
				w = w[1:] // where there are no namespaces the place is said first
			}
			if len(w) > limit {
				out = append(out, hit{
					path: f.Path, line: d.Line, end: d.Line, name: d.Qualified(),
					strength: 0.15 + 0.08*float64(len(w)-limit), touches: []string{f.Path},
					message: fmt.Sprintf("*%s* has %s words", d.Name, number(len(naming.Words(naming.Own(d.Name))))),
				})
			}
		}
	})
	return out
}

// wordsOfPlace are the words of a file's name and of the folders it lies in.
func wordsOfPlace(p string) map[string]bool {
	out := map[string]bool{}
	for part := range strings.SplitSeq(strings.TrimSuffix(p, path.Ext(p)), "/") {
		for _, w := range naming.Words(part) {
			out[w] = true
		}
	}
	return out
}
