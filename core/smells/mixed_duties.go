package smells

import (
	"fmt"
	"path"
	"strings"

	"jantel/core/model"
)

var mixedDutiesRule = &Rule{
	Slug: "mixed-duties", Facet: model.Units, Title: "Mixed duties", Weight: 1, Family: familySize, find: mixedDuties,
	Question: "Does one file draw, ask and store?",
	Why:      "Each of its duties changes for reasons of its own, and none can be tested without the others.",
	Example:  "`SeedMap.tsx` draws the map, keeps what is picked, and asks the counter for the lots.",
	Remedy:   "Give each duty a file, and let this one put them together.",
	Parameters: []Parameter{
		{"duties", "of drawing, storing, routing, calling over HTTP, keeping state", 4, 3, 3},
		{"lines", "lines of code from which it counts", 120, 80, 60},
	},
}

// duties are what a file may do, by the sign that shows it.
var duties = []struct {
	sign model.SignName
	does string
}{
	{model.SignDraws, "draws"},
	{model.SignSQL, "talks to the store"},
	{model.SignRoutes, "declares routes"},
	{model.SignHTTP, "calls over HTTP"},
	{model.SignKeepsState, "keeps state"},
}

// mixedDuties reports files that do several things which elsewhere have files
// of their own.
func mixedDuties(c *Context, r *Rule) (out []hit) {
	limit, least := int(c.Value(r, "duties")), int(c.Value(r, "lines"))
	c.source(func(f *model.File) {
		if f.Facts.Code < least || f.Facts.Starts > 0 {
			return
		}
		var does []string
		var ev []model.Evidence
		for _, d := range duties {
			if n, line := f.Facts.Sign(d.sign); n > 0 {
				does = append(does, d.does)
				ev = append(ev, model.Evidence{Path: f.Path, Line: line, Note: d.does})
			}
		}
		if len(does) < limit {
			return
		}
		out = append(out, hit{path: f.Path, strength: 0.3 + 0.15*float64(len(does)-limit) +
			float64(f.Facts.Code)/4000, touches: []string{f.Path}, evidence: ev,
			message: fmt.Sprintf("*%s* %s and %s", path.Base(f.Path), strings.Join(does[:len(does)-1], ", "), does[len(does)-1])})
	})
	return out
}
