package smells

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
)

var severalWordsRule = &Rule{
	Slug: "several-words", Facet: model.Names, Title: "Several words for one thing", Weight: 0.4, Family: familyName, find: severalWords,
	Question:   "Is one action called by several verbs, or a thing by a word that the glossary does not say?",
	Why:        "A reader looks for the difference, and a searcher finds half of the places.",
	Example:    "`getLot`, `fetchLot` and `loadLot`, all three in the services of the counter.",
	Remedy:     "Agree on one verb, or say in the names how the actions differ.",
	Parameters: []Parameter{{"words", "verbs that mean the same, for one thing in one role", 3, 2, 2}},
}

var verbGroup = func() map[string]int {
	out := map[string]int{}
	for i, g := range naming.SameAction {
		for _, v := range g {
			out[v] = i
		}
	}
	return out
}()

// severalWords reports things for which one action has several verbs, in files
// of one role: across roles the verbs may well tell the layers apart.
func severalWords(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "words"))
	out = c.saidInstead()
	type key struct {
		role  string
		group int
		thing string
	}
	verbs := map[key]map[string][]model.Evidence{}
	c.source(func(f *model.File) {
		// Where no role is seen, the files of a folder are held to be of one.
		role := cmp.Or(string(c.Roles[f.Path].Role), "in "+model.FolderOf(f.Path))
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			if !d.Exported || d.Parent != "" || d.Kind != model.DefFunction {
				continue
			}
			w := naming.Words(naming.Own(d.Name))
			if len(w) < 2 {
				continue
			}
			g, ok := verbGroup[w[0]]
			if !ok || w[0] == "new" { // which is how what builds a type is called
				continue
			}
			k := key{role, g, strings.Join(w[1:], " ")}
			if verbs[k] == nil {
				verbs[k] = map[string][]model.Evidence{}
			}
			verbs[k][w[0]] = append(verbs[k][w[0]], model.Evidence{Path: f.Path, Line: d.Line, Note: d.Name})
		}
	})
	for _, k := range slices.SortedFunc(maps.Keys(verbs), func(a, b key) int {
		return cmp.Or(cmp.Compare(a.thing, b.thing), cmp.Compare(a.group, b.group), cmp.Compare(a.role, b.role))
	}) {
		of := verbs[k]
		if len(of) < limit {
			continue
		}
		words := slices.Sorted(maps.Keys(of))
		var ev []model.Evidence
		var touches []string
		for _, w := range words {
			for _, e := range of[w] {
				if len(ev) < 12 {
					ev = append(ev, e)
				}
				if !slices.Contains(touches, e.Path) {
					touches = append(touches, e.Path)
				}
			}
		}
		out = append(out, hit{path: ev[0].Path, line: ev[0].Line, name: k.thing, extra: words[0], strength: 0.2 +
			0.1*float64(len(words)-limit), touches: touches, evidence: ev,
			message: fmt.Sprintf(
				"For *%s* one action has the verbs %s and %s", k.thing, strings.Join(words[:len(words)-1], ", "),
				words[len(words)-1],
			)})
	}
	return out
}
