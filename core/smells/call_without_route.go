package smells

import (
	"fmt"

	"jantel/core/model"
	"jantel/core/relations"
)

var callWithoutRouteRule = &Rule{
	Slug: "call-without-route", Facet: model.Boundaries, Title: "Call without route", Weight: 1, Habit: true, find: callWithoutRoute,
	Question: "Is a request sent that no route answers?",
	Why:      "It fails when it is used, and only then.",
	Example:  "`PUT /api/vault/weigh` from the shelf picker, where the counter has `POST` alone.",
	Remedy:   "Bring the route back, correct the path or the method, or take the call away.",
}

// callWithoutRoute reports requests to paths that nothing in the codebase
// answers, where it has routes.
func callWithoutRoute(c *Context, _ *Rule) (out []hit) {
	all := c.routes()
	if len(all) == 0 {
		return nil
	}
	own, _ := relations.Requests(c.Survey, all)
	answered := 0
	for _, q := range own {
		if q.Route != nil {
			answered++
		}
	}
	// Where most go nowhere, the server is another codebase's.
	if answered == 0 || 2*answered < len(own) {
		return nil
	}
	for _, q := range own {
		if q.Route != nil || !c.Judged[q.Path] || c.Roles[q.Path].Role == model.RoleTest {
			continue
		}
		out = append(out, hit{
			path: q.Path, line: q.Line, name: q.Text(), strength: 0.45, touches: []string{q.Path},
			message:  fmt.Sprintf("Nothing in the codebase answers *%s*", q.Text()),
			evidence: []model.Evidence{{Path: q.Path, Line: q.Line, Note: q.Text()}},
		})
	}
	return out
}
