package smells

import (
	"fmt"
	"maps"
	"path"
	"slices"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/reading"
)

var featureKnowsInsideRule = &Rule{
	Slug: "feature-knows-inside", Facet: model.Boundaries, Title: "Feature depending on another's inside", Weight: 1,
	Habit: true, find: featureKnowsInside,
	Question:   "Is a folder entered past the index that it offers?",
	Why:        "What lies behind an index was meant to change without others noticing; who reaches past it will notice.",
	Example:    "Seven files take drying from `bench/drying/index.ts`; one takes `bench/drying/curve.ts` itself.",
	Remedy:     "Take it from the index, or let the index offer it.",
	Parameters: []Parameter{{"users", "files that keep to the index", 4, 3, 2}},
}

// featureKnowsInside reports dependencies that go past the index by which a
// folder is meant to be used, where others keep to it.
func featureKnowsInside(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "users"))
	doors := map[string]string{} // folder to its index
	for f := range c.Source(".") {
		if n, _ := f.Facts.Sign(model.SignReExports); n > 0 && isIndex(f.Path) {
			doors[model.FolderOf(f.Path)] = f.Path
		}
	}
	if len(doors) == 0 {
		return nil
	}
	through := map[string]map[string]bool{}
	past := map[string][]*reading.Edge{}
	for i := range c.Edges() {
		l := &c.Edges()[i]
		if l.FromRole == model.RoleTest || l.Again {
			continue
		}
		// The outermost door between the two ends is the one to knock at.
		for d := model.FolderOf(l.To); d != "."; d = model.FolderOf(d) {
			door, ok := doors[d]
			if !ok || model.Within(d, l.From) {
				continue
			}
			if door == l.To {
				if through[d] == nil {
					through[d] = map[string]bool{}
				}
				through[d][l.From] = true
			} else if l.Kind == model.LinkImport {
				past[d] = append(past[d], l)
			}
		}
	}
	for _, d := range slices.Sorted(maps.Keys(past)) {
		n := len(through[d])
		if n < limit || len(past[d]) > n {
			continue // it is no rule here
		}
		for _, l := range past[d] {
			if through[d][l.From] {
				continue // it comes by both ways: the index may not offer it
			}
			out = append(
				out, hit{path: l.From, line: l.Line, extra: l.To, strength: 0.35, touches: []string{l.From, l.To}, evidence: []model.Evidence{
					{Path: l.From, Line: l.Line, Note: l.Text},
					{Path: doors[d], Line: 1, Note: "what it offers to others"},
				},
					message: fmt.Sprintf(
						"%s reaches into *%s* past its index, by which %d others use it", path.Base(l.From),
						path.Base(d), n,
					)})
		}
	}
	return out
}

func isIndex(p string) bool {
	switch naming.Stem(p) {
	case "index", "__init__", "mod":
		return true
	}
	return false
}
