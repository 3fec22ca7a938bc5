package calls

import (
	"maps"
	"slices"
	"strings"

	"jantel/core/model"
)

// Types that may be opened again in any file have their members in many places,
// and what is mixed into them has what is mixed into that. Each type's line is
// found once, from what is written alone: to walk it for every name adds up.

// maxLine bounds how many types one is built upon.
const maxLine = 400

// open finds the lines of all types of a unit: the type itself, then what it is
// built upon, in the order in which a member is looked for.
func (u *unit) open() {
	upon := map[string][]string{}
	for _, f := range u.files {
		for i := range f.facts.Definitions {
			d := &f.facts.Definitions[i]
			for _, b := range d.Bases {
				if q := u.written(d.Qualified(), b); q != "" {
					upon[d.Qualified()] = append(upon[d.Qualified()], q)
				}
			}
		}
	}
	u.lines = make(map[string][]string, len(upon))
	for _, q := range slices.Sorted(maps.Keys(upon)) {
		var line []string
		seen := map[string]bool{}
		var add func(string)
		add = func(q string) {
			if seen[q] || len(line) >= maxLine {
				return
			}
			seen[q] = true
			line = append(line, q)
			for _, b := range upon[q] {
				add(b)
			}
		}
		add(q)
		u.lines[q] = line
	}
}

// written is the type that a name written within another means: one in it or in
// one around it, "" where there is none.
func (u *unit) written(within, name string) string {
	path := strings.ReplaceAll(strings.TrimPrefix(name, "::"), "::", ".")
	if strings.HasPrefix(name, "::") {
		within = ""
	}
	for q := within; q != ""; q, _ = cutLast(q) {
		if full := q + "." + path; full != within && u.defs[full].file != nil {
			return full
		}
	}
	if u.defs[path].file != nil && path != within {
		return path
	}
	return ""
}

// lineOf is the line of a type, itself alone where it is built upon nothing.
func (u *unit) lineOf(name string) []string {
	if l, ok := u.lines[name]; ok {
		return l
	}
	return []string{name}
}

// findOpen looks for a member of a type along its line. What a module has for
// itself is not mixed into others, but for what it sets apart for that.
func (e *eval) findOpen(k typeKey, name string) value {
	u := k.unit
	for i, at := range u.lineOf(k.name) {
		q := at + "." + name
		if p, ok := u.defs[q]; ok && (i == 0 || !mixedIn(u.defs[at]) || !slices.Contains(p.def().Marks, "self")) {
			return defined(u, q, p)
		}
		if s, ok := u.shapes[shapeKey{at, name, model.ShapeValue, 0}]; ok {
			return instance(e.typeOf(e.follow(s.file, s.shape.Node)))
		}
		q = at + ".ClassMethods." + name
		if p, ok := u.defs[q]; ok && i > 0 {
			return defined(u, q, p)
		}
	}
	return nothing
}

func mixedIn(p place) bool { return p.file != nil && p.def().Kind == model.DefNamespace }
