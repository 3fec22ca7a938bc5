package smells

import (
	"fmt"
	"path"

	"jantel/core/calls"
	"jantel/core/model"
)

var untestedHandlerRule = &Rule{
	Slug: "untested-handler", Facet: model.Units, Title: "Untested handler", Weight: 0.6, Tests: true, Habit: true, find: untestedHandler,
	Question: "Is there a route that no test reaches, though others are tested?",
	Why:      "Whether it still answers is found out by those who use it.",
	Example:  "`POST /requests/{id}/send`, the one route of requests without a test.",
	Remedy:   "Test it as its neighbours are tested.",
}

// untestedHandler reports handlers that no test comes to, over calls or by a
// request, where tests come to others: a codebase without such tests is told
// that by its practices, once.
func untestedHandler(c *Context, _ *Rule) (out []hit) {
	list := c.routes()
	if len(list) == 0 {
		return nil
	}
	g := calls.Of(c.Survey)
	missing, order, tested := c.untested(g, list)
	if tested == 0 {
		return nil
	}
	for _, p := range order {
		ev := missing[p]
		what := fmt.Sprintf("No test reaches what answers %s", ev[0].Note)
		if len(ev) > 1 {
			what = fmt.Sprintf("No test reaches %s of the handlers in *%s*", number(len(ev)), path.Base(p))
		}
		out = append(out, hit{
			path: p, line: ev[0].Line, strength: min(0.6, 0.3+0.03*float64(len(ev)-1)), touches: []string{p},
			evidence: ev[:min(12, len(ev))], message: what,
		})
	}
	return out
}

// untested lists the handlers that no test comes to, by file in order, and
// counts those that one comes to.
func (c *Context) untested(g *calls.Graph, list []model.Route) (missing map[string][]model.Evidence, order []string, tested int) {
	reached := c.reachedByTests(g)
	asked := map[string]bool{}
	for _, l := range c.Survey.Links {
		if l.Kind == model.LinkHTTP && c.IsTest(l.From) {
			asked[l.To] = true
		}
	}
	missing = map[string][]model.Evidence{}
	for _, r := range list {
		if r.HandlerPath == "" || r.HandlerLine == 0 || !c.Judged[r.HandlerPath] || c.IsTest(r.Path) ||
			c.Roles[r.HandlerPath].Role == model.RoleView { // what draws a page is tested on the screen
			continue
		}
		ref, ok := g.AtPath(r.HandlerPath, r.HandlerLine)
		switch {
		case !ok:
		case reached[ref], asked[r.Path], asked[r.HandlerPath]:
			tested++
		default:
			if missing[r.HandlerPath] == nil {
				order = append(order, r.HandlerPath)
			}
			missing[r.HandlerPath] = append(missing[r.HandlerPath],
				model.Evidence{Path: r.HandlerPath, Line: r.HandlerLine, Note: r.Method + " " + r.Pattern})
		}
	}
	return missing, order, tested
}

// reachedByTests holds the definitions that tests call, directly or over others.
func (c *Context) reachedByTests(g *calls.Graph) map[calls.Ref]bool {
	seen := map[calls.Ref]bool{}
	var next []calls.Ref
	tests := make([]bool, len(c.Files))
	for i, f := range c.Files {
		tests[i] = c.IsTest(f.Path)
	}
	for i := range g.Edges {
		if e := &g.Edges[i]; tests[e.From.File] && e.Kind != model.CallRead && !seen[e.To] {
			seen[e.To] = true
			next = append(next, e.To)
		}
	}
	for len(next) > 0 {
		at := next[len(next)-1]
		next = next[:len(next)-1]
		for _, e := range g.From(at) {
			if e.Kind != model.CallRead && !seen[e.To] {
				seen[e.To] = true
				next = append(next, e.To)
			}
		}
	}
	return seen
}
