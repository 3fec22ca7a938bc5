package smells

import (
	"fmt"
	"sort"

	"jantel/core/model"
	"jantel/core/syntax"
)

var sameTypeNameRule = &Rule{
	Slug: "same-type-name", Facet: model.Names, Title: "Same type name in several places", Weight: 0.6,
	Family: familyName, find: sameTypeName,
	Question: "Are several types called the same?",
	Why:      "Who searches for one finds the other, and imports it.",
	Example:  "`Row` in `archive/import` and `Row` in `archive/export`.",
	Remedy:   "Make one of them, or say in the names how they differ.",
}

// sameTypeName reports types of one name that are defined in several places of
// one module.
func sameTypeName(c *Context, _ *Rule) (out []hit) {
	type at struct{ module, name string }
	by := map[at][]model.Evidence{}
	c.source(func(f *model.File) {
		for _, d := range f.Facts.Definitions {
			if (d.Kind == model.DefClass || d.Kind == model.DefInterface || d.Kind == model.DefEnum || d.Kind == model.DefType) &&
				(d.Parent == "" || d.Parent == f.Facts.Namespace) && d.Exported && len(d.Name) > 3 {
				k := at{c.moduleOf(f.Path), d.Name}
				by[k] = append(by[k], model.Evidence{Path: f.Path, Line: d.Line, Note: string(d.Kind)})
			}
		}
	})
	keys := make([]at, 0, len(by))
	for k := range by {
		keys = append(keys, k)
	}
	sort.Slice(keys, func(i, j int) bool {
		if keys[i].module != keys[j].module {
			return keys[i].module < keys[j].module
		}
		return keys[i].name < keys[j].name
	})
	for _, k := range keys {
		ev := by[k]
		places := map[string]bool{}
		var touches []string
		for _, e := range ev {
			if !places[e.Path] {
				touches = append(touches, e.Path)
			}
			places[e.Path] = true
		}
		// A header and its source, a package's platforms: one folder is one place.
		dirs := map[string]bool{}
		for p := range places {
			dirs[model.FolderOf(p)] = true
		}
		f := c.Survey.File(ev[0].Path)
		if len(dirs) < 2 || syntax.ProfileOf(f.Language).SameNames {
			continue
		}
		out = append(out, hit{
			path: ev[0].Path, line: ev[0].Line, end: ev[0].Line, name: k.name,
			strength: 0.25 + 0.05*float64(len(places)-2), touches: touches, evidence: ev[:min(12, len(ev))],
			message: fmt.Sprintf("*%s* is defined in %s places", k.name, number(len(places))),
		})
	}
	return out
}
