package wiring

import (
	"cmp"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/reading"
)

// Injected says that one class gets another handed, by what a container hands out
// for the type that it asks for.
type Injected struct {
	From, To Asked
	Line     int  // of the class that asks
	Sure     bool // one thing alone is handed out for it
}

// Asked is a class with its file.
type Asked struct{ Path, Name string }

// Edges tells which class gets which handed, sorted by who asks. What a function
// makes is told only where its class is.
func Edges(r *reading.Reading, module func(path string) string) []Injected {
	all := Join(r, module)
	if len(all) == 0 {
		return nil
	}
	classes := map[handedKey][]Asked{}
	for _, f := range r.Files {
		if f.Facts == nil || !r.Judged[f.Path] || r.IsTest(f.Path) {
			continue
		}
		for i := range f.Facts.Definitions {
			if d := &f.Facts.Definitions[i]; d.Kind == model.DefClass {
				k := handedKey{module(f.Path), d.Name}
				classes[k] = append(classes[k], Asked{f.Path, d.Qualified()})
			}
		}
	}
	var out []Injected
	for i := range all {
		h := &all[i]
		var given []Asked
		for _, w := range h.By {
			if found := classes[handedKey{h.Module, last(w.Provides)}]; len(found) == 1 && !slices.Contains(given, found[0]) {
				given = append(given, found[0])
			}
		}
		for _, a := range h.Askers {
			for _, to := range given {
				out = append(out, Injected{Asked{a.Path, a.Name}, to, a.Line, len(given) == 1 && len(h.By) == 1})
			}
		}
	}
	slices.SortFunc(out, func(a, b Injected) int {
		return cmp.Or(
			strings.Compare(a.From.Path, b.From.Path), cmp.Compare(a.Line, b.Line), strings.Compare(a.To.Path, b.To.Path),
			strings.Compare(a.To.Name, b.To.Name),
		)
	})
	return out
}
