package journeys

import (
	"cmp"
	"path"
	"slices"
	"strings"

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

// TestedBy tells which tests reach which definitions, over how many calls.
func TestedBy(r *reading.Reading) []model.TestedBy {
	g := calls.Of(r.Survey)
	each := make([]map[calls.Ref]int, len(r.Files))
	parallel.Each(len(r.Files), func(i int) {
		if f := r.Files[i]; f.Facts != nil && r.Judged[f.Path] && r.IsTest(f.Path) {
			each[i] = from(r, g, i)
		}
	})
	reached := map[calls.Ref][]model.TestReach{}
	for i, of := range each {
		if of == nil {
			continue
		}
		f := r.Files[i]
		kind := kindOf(f)
		for ref, distance := range of {
			reached[ref] = append(reached[ref], model.TestReach{Path: f.Path, Kind: kind, Distance: distance})
		}
	}
	out := make([]model.TestedBy, 0, len(reached))
	for ref, tests := range reached {
		slices.SortFunc(tests, func(a, b model.TestReach) int {
			return cmp.Or(cmp.Compare(a.Distance, b.Distance), cmp.Compare(a.Path, b.Path))
		})
		out = append(out, model.TestedBy{Path: g.Path(ref), Name: g.Name(ref), Tests: tests[:min(len(tests), maxTests)]})
	}
	slices.SortFunc(out, func(a, b model.TestedBy) int {
		return cmp.Or(cmp.Compare(a.Path, b.Path), cmp.Compare(a.Name, b.Name))
	})
	return slices.CompactFunc(out, func(a, b model.TestedBy) bool { return a.Path == b.Path && a.Name == b.Name })
}

// from is what a test file reaches, with the number of calls to it, the nearest
// first. Tests that help each other are come through.
func from(r *reading.Reading, g *calls.Graph, file int) map[calls.Ref]int {
	seen := map[calls.Ref]int{}
	out := map[calls.Ref]int{}
	next := []calls.Ref{{File: int32(file), Definition: -1}}
	for d := range r.Files[file].Facts.Definitions {
		next = append(next, calls.Ref{File: int32(file), Definition: int32(d)})
	}
	for _, n := range next {
		seen[n] = 0
	}
	for ; len(next) > 0 && len(seen) < maxPerTest; next = next[1:] {
		at := seen[next[0]]
		if at >= maxDistance {
			continue
		}
		for _, e := range g.From(next[0]) {
			if _, known := seen[e.To]; known || e.Kind == model.CallRead || e.Kind == model.CallInherit || e.To.Member != "" {
				continue
			}
			p := g.Path(e.To)
			if !r.Judged[p] {
				continue
			}
			seen[e.To] = at + 1
			next = append(next, e.To)
			if d := g.Definition(e.To); d != nil && !r.IsTest(p) {
				out[e.To] = at + 1
			}
		}
	}
	return out
}

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
