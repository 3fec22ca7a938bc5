package overview

import (
	"sort"

	"jantel/core/model"
	"jantel/core/reading"
)

// environment counts the variables of the environment that judged files below
// a place read, tests aside, and says where each is read first.
func environment(r *reading.Reading, place string) (int, []model.Evidence) {
	first := map[string]model.Evidence{}
	for f := range r.Own(place) {
		if r.IsTest(f.Path) {
			continue
		}
		for _, m := range f.Facts.Env {
			if _, ok := first[m.Name]; !ok {
				first[m.Name] = model.Evidence{Path: f.Path, Line: m.Line, Note: m.Name}
			}
		}
	}
	names := make([]string, 0, len(first))
	for n := range first {
		names = append(names, n)
	}
	sort.Strings(names)
	var ev []model.Evidence
	for _, n := range names {
		ev = append(ev, first[n])
	}
	return len(names), ev
}
