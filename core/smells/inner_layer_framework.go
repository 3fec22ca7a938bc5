package smells

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"jantel/core/frameworks"
	"jantel/core/model"
)

var innerLayerFrameworkRule = &Rule{
	Slug: "inner-layer-framework", Facet: model.Boundaries, Title: "Inner layer that knows a framework", Weight: 0.8,
	Family: familyLayer, find: innerLayerFramework,
	Question: "Do rules know how requests come in, or how things are drawn?",
	Why:      "They can then be used and tested in that surrounding alone, and move with every version of it.",
	Example:  "`counter/src/logic/requests.ts` imports *express* to read a header.",
	Remedy:   "Hand in plain values, and leave the framework to what lies outside.",
}

// outerPackages are what only the outer layers of a system have business with:
// what answers requests, and what draws. A name ends where a part of it does.
var outerPackages = frameworks.Outer()

// innerLayerFramework reports logic that knows how requests come in or
// how things are drawn, where there is an outer layer to know it.
func innerLayerFramework(c *Context, _ *Rule) (out []hit) {
	outer := 0
	for f := range c.Source(".") {
		switch c.seen(f.Path) {
		case model.RoleHandler, model.RoleRouting, model.RoleView:
			outer++
		}
	}
	if outer < 3 {
		return nil
	}
	seen := map[string]bool{}
	for _, e := range c.Survey.External {
		role := c.seen(e.From)
		// What keeps data for a framework of screens is a model of its.
		if role != model.RoleLogic || !c.Judged[e.From] || seen[e.From] ||
			c.Survey.File(e.From).Facts.Starts > 0 {
			continue
		}
		if !c.isOuter(e) {
			continue
		}
		seen[e.From] = true
		out = append(
			out, hit{path: e.From, line: e.Line, name: e.Package, strength: 0.35, touches: []string{e.From}, evidence: []model.Evidence{
				{Path: e.From, Line: e.Line, Note: e.Package},
			},
				message: fmt.Sprintf("*%s* is %s, and knows %s", path.Base(e.From), role, e.Package)})
	}
	return out
}

// isOuter reports whether a package is one that the outer layers alone have business
// with, or what is taken of it: some languages name what they take, and a package
// is no more than its beginning.
func (c *Context) isOuter(e model.External) bool {
	return slices.ContainsFunc(c.Survey.File(e.From).Facts.Imports, func(im model.Import) bool {
		return im.Line == e.Line && (isOuter(e.Package, im.Names) || within(im.Text, e.Package) && isOuter(im.Text, im.Names))
	})
}

func isOuter(name string, taken []string) bool {
	return slices.ContainsFunc(outerPackages, func(p frameworks.OuterPackage) bool {
		return (name == p.Name || within(name, p.Name)) &&
			(len(p.By) == 0 || len(taken) == 0 || slices.ContainsFunc(taken, func(n string) bool { return slices.Contains(p.By, n) }))
	})
}

// within reports whether a package lies below another, however the two are
// parted in its language.
func within(p, outer string) bool {
	rest, ok := strings.CutPrefix(p, outer)
	return ok && rest != "" && strings.ContainsRune(`/.\`, rune(rest[0]))
}
