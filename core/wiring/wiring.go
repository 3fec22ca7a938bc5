// Package wiring tells what is handed out where something is asked for: by calls
// of a container, and by marks on classes that a framework finds by itself.
package wiring

import (
	"cmp"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/reading"
)

// marks are those by which frameworks find what they hand out, with how long it
// lives where nothing else is said.
var marks = map[string]string{
	"Service": "singleton", "Component": "singleton", "Repository": "singleton", "Controller": "singleton",
	"RestController": "singleton", "Configuration": "singleton", "Injectable": "singleton", "Singleton": "singleton",
	"ApplicationScoped": "singleton", "RequestScoped": "request", "SessionScoped": "session", "Named": "", "Bean": "singleton",
	"Produces": "",
}

// Of lists it by path and line.
func Of(r *reading.Reading) []model.Wiring {
	out := []model.Wiring{}
	for _, f := range r.Files {
		if f.Facts == nil || !r.Judged[f.Path] || r.IsTest(f.Path) {
			continue
		}
		for _, w := range f.Facts.Wired {
			out = append(out, model.Wiring{Provides: w.Provides, For: w.For, Lifetime: w.Lifetime, How: w.How, Path: f.Path, Line: w.Line})
		}
		for i := range f.Facts.Definitions {
			out = append(out, marked(f.Path, &f.Facts.Definitions[i])...)
		}
	}
	slices.SortStableFunc(out, func(a, b model.Wiring) int {
		return cmp.Or(strings.Compare(a.Path, b.Path), cmp.Compare(a.Line, b.Line), strings.Compare(a.For, b.For))
	})
	return out
}

// marked is what a definition with a mark is handed out for: each interface that
// it says it has, else itself.
func marked(path string, d *model.Definition) (all []model.Wiring) {
	for _, m := range d.Marks {
		m, _, _ = strings.Cut(strings.TrimPrefix(m, "@"), "(")
		m = strings.TrimSpace(m[strings.LastIndexByte(m, '.')+1:])
		lifetime, known := marks[m]
		if !known {
			continue
		}
		asked := d.Bases
		if len(asked) == 0 || d.Kind == model.DefMethod {
			asked = []string{d.Name}
		}
		for _, a := range asked {
			all = append(all, model.Wiring{Provides: d.Name, For: a, Lifetime: lifetime, How: "@" + m, Path: path, Line: d.Line})
		}
		return all // one mark is enough
	}
	return nil
}
