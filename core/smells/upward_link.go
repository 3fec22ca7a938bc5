package smells

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/weave"
)

var upwardLinkRule = &Rule{
	Slug: "upward-link", Facet: model.Boundaries, Title: "Upward dependency", Weight: 1.2,
	Family: familyLayer, Habit: true, find: upwardLink,
	Question: "Does what lies below need what lies above it?",
	Why:      "Logic that knows its handlers can not be used or tested without them.",
	Example:  "`logic/requests.ts` imports `handlers/requests` for the shape of an answer.",
	Remedy:   "Hand in what is needed, or move it down to where both may use it.",
}

// sharedGround is the share of the source files, in hundred, from which what they need is
// ground that all stand on; of few files none is.
const (
	sharedGround = 20
	fewFiles     = 30
)

// order is the trade's order of the roles that a request passes.
var order = map[model.Role]int{model.RoleRouting: 2, model.RoleHandler: 3, model.RoleLogic: 4, model.RoleDataAccess: 5}

// asked are the files that are asked from outside, and so stand above what they need,
// and how many of them each project has; those that are called a controller alone are
// not counted.
func (c *Context) asked() (files map[string]bool, routed map[string]int) {
	files, routed = map[string]bool{}, map[string]int{}
	answering := weave.Answering(c.Survey)
	for f := range c.Source(".") {
		answers := answering[f.Path]
		if answers {
			routed[c.moduleOf(f.Path)]++
		}
		if answers || isController(f) {
			files[f.Path] = true
		}
	}
	return files, routed
}

// isController reports whether a type of a file is called a controller, which frameworks
// hand requests to without a word in it.
func isController(f *model.File) bool {
	return slices.ContainsFunc(f.Facts.Definitions, func(d model.Definition) bool {
		return d.Kind == model.DefClass && strings.HasSuffix(strings.ToLower(d.Name), "controller")
	})
}

// leastRouted is how many files of a project have to be asked from outside for there to be
// an order of what is above and below.
const leastRouted = 2

// upwardLink reports dependencies against the trade's order of roles. With a
// charter the charter alone says what is up.
func upwardLink(c *Context, _ *Rule) (out []hit) {
	if c.Conformance != nil {
		return nil
	}
	asked, routed := c.asked()
	if len(asked) == 0 {
		return nil
	}
	seen, answering := map[[2]string]bool{}, c.answering()
	users, _ := c.degrees()
	all := c.sources()
	for _, l := range c.Survey.Links {
		if !asked[l.To] || routed[c.moduleOf(l.To)] < leastRouted {
			continue // what handles a stream or a click is no way in, nor is a list of addresses
		}
		a, b := order[c.seen(l.From)], order[c.seen(l.To)]
		k := [2]string{l.From, l.To}
		if a == 0 || b == 0 || a <= b || a < 4 || b > 3 || seen[k] || l.Kind.Repeats() || l.Kind == model.LinkHTTP ||
			l.Kind == model.LinkMessage || l.Kind == model.LinkRoute || !c.Judged[l.From] || !c.Judged[l.To] ||
			c.moduleOf(l.From) != c.moduleOf(l.To) || !answering[c.moduleOf(l.From)] {
			continue
		}
		if all > fewFiles && users[l.To] > sharedGround*all/100 {
			continue // what a good part of all files needs stands below them, whatever it is
		}
		seen[k] = true
		out = append(
			out, hit{path: l.From, line: l.Line, extra: l.To, strength: 0.4, touches: []string{l.From, l.To}, evidence: []model.Evidence{
				{Path: l.From, Line: l.Line, Note: l.Text},
			},
				message: fmt.Sprintf(
					"%s needs %s: against the usual order, in which %s comes after %s", path.Base(l.From),
					path.Base(l.To), c.seen(l.From), c.seen(l.To),
				)})
	}
	return out
}
