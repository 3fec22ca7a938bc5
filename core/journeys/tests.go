package journeys

import (
	"cmp"
	"path"
	"slices"
	"strings"
	"sync"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/parallel"
	"jantel/core/reading"
)

// Over how many calls a test is followed, and how many definitions of one.
const (
	maxDistance = 5
	maxPerTest  = 2000
	maxTests    = 20 // that are listed of one definition, the nearest first
)

// reachedBy says that a test file reaches a definition.
type reachedBy struct {
	place, distance, file int32 // the definition's place in the graph; over how many calls; which test
}

// TestedBy tells which tests reach which definitions, over how many calls.
func TestedBy(r *reading.Reading) []model.TestedBy {
	g := calls.Of(r.Survey)
	each := make([][]reachedBy, len(r.Files))
	room := sync.Pool{New: func() any { return &visited{at: make([]int32, g.Places())} }}
	parallel.Each(len(r.Files), func(i int) {
		if f := r.Files[i]; f.Facts != nil && r.Judged[f.Path] && r.IsTest(f.Path) {
			v := room.Get().(*visited)
			each[i] = from(r, g, i, v)
			room.Put(v)
		}
	})
	all := slices.Concat(each...)
	slices.SortFunc(all, func(a, b reachedBy) int {
		return cmp.Or(cmp.Compare(a.place, b.place), cmp.Compare(a.distance, b.distance), cmp.Compare(a.file, b.file))
	})
	kinds := map[int32]string{}
	for i := range each {
		if len(each[i]) > 0 {
			kinds[int32(i)] = kindOf(r.Files[i])
		}
	}
	var out []model.TestedBy
	for len(all) > 0 {
		n := 1
		for n < len(all) && all[n].place == all[0].place {
			n++
		}
		ref := g.RefAt(int(all[0].place))
		t := model.TestedBy{Path: g.Path(ref), Name: g.Name(ref), Tests: make([]model.TestReach, min(n, maxTests))}
		for i := range t.Tests {
			by := all[i]
			t.Tests[i] = model.TestReach{Path: r.Files[by.file].Path, Kind: kinds[by.file], Distance: int(by.distance)}
		}
		out, all = append(out, t), all[n:]
	}
	slices.SortStableFunc(out, func(a, b model.TestedBy) int {
		return cmp.Or(cmp.Compare(a.Path, b.Path), cmp.Compare(a.Name, b.Name))
	})
	return slices.CompactFunc(out, func(a, b model.TestedBy) bool { return a.Path == b.Path && a.Name == b.Name })
}

// visited notes where one walk has been: the places that have its number.
type visited struct {
	at   []int32
	walk int32
}

func (v *visited) first(place int) bool {
	if v.at[place] == v.walk {
		return false
	}
	v.at[place] = v.walk
	return true
}

// from is what a test file reaches, with the number of calls to it, the nearest
// first. Tests that help each other are come through.
func from(r *reading.Reading, g *calls.Graph, file int, seen *visited) (out []reachedBy) {
	seen.walk++
	type step struct {
		ref calls.Ref
		at  int32
	}
	var next []step
	for d := -1; d < len(r.Files[file].Facts.Definitions); d++ {
		ref := calls.Ref{File: int32(file), Definition: int32(d)}
		seen.first(g.Place(ref))
		next = append(next, step{ref, 0})
	}
	for i := 0; i < len(next) && len(next) < maxPerTest; i++ {
		if next[i].at >= maxDistance {
			break
		}
		at := next[i].at + 1
		for _, e := range g.From(next[i].ref) {
			onlyRead := e.Kind == model.CallRead && (at > 1 || !isClass(g.Definition(e.To)))
			// Whether it is judged is asked once of each: it is the dearest question here.
			if onlyRead || e.Kind == model.CallInherit || e.To.Member != 0 || !seen.first(g.Place(e.To)) || !r.Judged[g.Path(e.To)] {
				continue
			}
			next = append(next, step{e.To, at})
			if e.To.Definition >= 0 && !r.IsTest(g.Path(e.To)) {
				out = append(out, reachedBy{int32(g.Place(e.To)), at, int32(file)})
			}
		}
	}
	return out
}

// isClass reports whether a definition is a class: a test that names one has to do
// with it, since many build what they test by the class that a method of theirs gives.
func isClass(d *model.Definition) bool { return d != nil && d.Kind == model.DefClass }

// runsAll are packages that start the whole program, or a browser.
var runsAll = []string{"playwright", "cypress", "puppeteer", "selenium", "webdriver", "capybara", "testcafe", "nightwatch", "detox"}

// runsParts are packages that start a server or a store for a test.
var runsParts = []string{"supertest", "testcontainers", "httptest", "TestClient", "fastapi.testclient", "django.test",
	"WebApplicationFactory",
	"spring.test.web", "rack/test", "rest-assured", "starlette.testclient"}

// kindOf tells what a test is by where it lies and what it takes in.
func kindOf(f *model.File) string {
	words := strings.FieldsFunc(strings.ToLower(f.Path), func(r rune) bool { return r == '/' || r == '.' || r == '_' || r == '-' })
	for _, w := range words {
		switch w {
		case "e2e", "acceptance", "system", "functional", "browser":
			return "end to end"
		case "integration", "it":
			return "integration"
		case "contract", "contracts", "pact":
			return "contract"
		}
	}
	takes := func(all []string) bool {
		return slices.ContainsFunc(f.Facts.Imports, func(im model.Import) bool {
			return slices.ContainsFunc(all, func(p string) bool { return strings.Contains(im.Text, p) || path.Base(im.Text) == p })
		})
	}
	switch {
	case takes(runsAll):
		return "end to end"
	case takes(runsParts):
		return "integration"
	case takes([]string{"pact"}):
		return "contract"
	}
	return "unit"
}
