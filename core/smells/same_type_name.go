package smells

import (
	"fmt"
	"maps"
	"path"
	"slices"
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
		if len(dirs) < 2 || syntax.ProfileOf(f.Language).SameNames || c.standIns(touches) {
			continue
		}
		out = append(out, hit{
			path: ev[0].Path, line: ev[0].Line, end: ev[0].Line, name: k.name,
			strength: 0.25 + 0.05*float64(len(places)-2), touches: touches, evidence: ev[:min(12, len(ev))],
			message: fmt.Sprintf("*%s* is defined in %s places", k.name, number(len(places))),
		})
	}
	return again(out)
}

// standIns reports whether files are of one name in folders side by side that are
// built alike: each is what one of several parts of a sort has for the same thing.
func (c *Context) standIns(files []string) bool {
	first := model.FolderOf(files[0])
	return !slices.ContainsFunc(files, func(p string) bool {
		d := model.FolderOf(p)
		return path.Base(p) != path.Base(files[0]) || path.Dir(d) != path.Dir(first) || d != first && !c.builtAlike(first, d)
	})
}

// builtAlike reports whether most files of two folders, and several, have the same names.
func (c *Context) builtAlike(a, b string) bool {
	names := map[string]bool{}
	for _, f := range c.units(a) {
		names[path.Base(f.Path)] = true
	}
	both, other := 0, c.units(b)
	for _, f := range other {
		if names[path.Base(f.Path)] {
			both++
		}
	}
	return both >= 2 && 2*both > max(len(names), len(other))
}

// leastAgain is from how many types of one file that are defined elsewhere as well on
// that is told once of the file.
const leastAgain = 4

// again tells once of a file many of whose types are defined elsewhere as well.
func again(hits []hit) (out []hit) {
	in := map[string]int{}
	for i := range hits {
		for _, p := range hits[i].touches {
			in[p]++
		}
	}
	whole := map[string]*hit{}
	for i := range hits {
		h := &hits[i]
		most := ""
		for _, p := range h.touches { // the one that has most of them, of several the last
			if in[p] >= leastAgain && (most == "" || in[p] >= in[most]) {
				most = p
			}
		}
		if most == "" {
			out = append(out, *h)
			continue
		}
		if whole[most] == nil {
			whole[most] = &hit{path: most, extra: "again", strength: h.strength}
		}
		w := whole[most]
		for _, e := range h.evidence {
			if e.Path != most {
				e.Note = h.name + " as well"
				w.evidence = append(w.evidence, e)
				break
			}
		}
		w.touches = append(w.touches, h.touches...)
	}
	for _, p := range slices.Sorted(maps.Keys(whole)) {
		w := whole[p]
		w.message = fmt.Sprintf("%s types of *%s* are defined elsewhere as well", capital(number(len(w.evidence))), path.Base(p))
		w.strength = min(1, 0.25+0.05*float64(len(w.evidence)))
		w.evidence = w.evidence[:min(12, len(w.evidence))]
		slices.Sort(w.touches)
		w.touches = slices.Compact(w.touches)
		out = append(out, *w)
	}
	return out
}
