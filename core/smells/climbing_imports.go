package smells

import (
	"fmt"
	"strings"

	"jantel/core/model"
)

var climbingImportsRule = &Rule{
	Slug: "climbing-imports", Facet: model.Boundaries, Title: "Long climbing imports", Weight: 1, Habit: true, find: climbingImports,
	Question: "Do imports climb through many folders?",
	Why: "An import that climbs out of several folders shows that what belongs together lies far apart, and it " +
		"breaks when either end moves.",
	Example:    "`import { Box } from '../../../../shared/src/types/all'` in a component.",
	Remedy:     "Move the two ends together, or name the target by a path alias or a package.",
	Parameters: []Parameter{{"steps", "folders an import climbs", 4, 3, 3}},
}

func climbingImports(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "steps"))
	targets := map[string][]string{}
	for _, l := range c.Survey.Links {
		if climbs(l.Text) >= limit {
			targets[l.From] = append(targets[l.From], l.To)
		}
	}
	for f := range c.Own(".") {
		if c.IsTest(f.Path) {
			continue
		}
		var ev []model.Evidence
		worst, first := 0, 0
		for _, im := range f.Facts.Imports {
			if n := climbs(im.Text); n >= limit {
				if worst == 0 {
					first = im.Line
				}
				worst = max(worst, n)
				if len(ev) < 12 {
					ev = append(ev, model.Evidence{Path: f.Path, Line: im.Line, Note: im.Text})
				}
			}
		}
		if worst == 0 {
			continue
		}
		what := "One import climbs"
		if len(ev) > 1 {
			what = capital(number(len(ev))) + " imports climb"
		}
		out = append(out, hit{path: f.Path, line: first, strength: 0.2 + 0.1*float64(worst-limit) + 0.05*float64(len(ev)),
			message: fmt.Sprintf(
				"%s up to %s folders", what, number(worst),
			), evidence: ev, touches: append([]string{f.Path}, targets[f.Path]...)})
	}
	return out
}

// climbs counts the folders a relative import goes up.
func climbs(text string) int {
	if strings.HasPrefix(text, "../") || text == ".." {
		n := 0
		for strings.HasPrefix(text, "../") {
			n, text = n+1, text[3:]
		}
		if text == ".." {
			n++
		}
		return n
	}
	// In Python one dot is the package itself.
	dots := len(text) - len(strings.TrimLeft(text, "."))
	if dots > 1 && !strings.HasPrefix(text, "./") {
		return dots - 1
	}
	return 0
}
