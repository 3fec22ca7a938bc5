package smells

import (
	"fmt"
	"path"

	"jantel/core/model"
	"jantel/core/weave"
)

var layerSkippedRule = &Rule{
	Slug: "layer-skipped", Facet: model.Boundaries, Title: "Layer skipped", Weight: 1.2,
	Family: familyLayer, Habit: true, find: layerSkipped,
	Question: "Do handlers reach past the logic to the store?",
	Why:      "Rules that stand in the logic do not hold where it is passed by.",
	Example:  "`handlers/growers.ts` imports `data/growers`, where the other handlers go through `logic`.",
	Remedy:   "Ask the logic for it, and let the logic ask the store.",
}

// layerSkipped reports handlers that reach past the logic, where most go
// through it.
func layerSkipped(c *Context, _ *Rule) (out []hit) {
	through := map[string]int{}
	for _, l := range c.between(model.RoleHandler, model.RoleLogic) {
		through[c.moduleOf(l.From)]++
	}
	past := map[string][]model.Link{}
	for _, l := range c.between(model.RoleHandler, model.RoleDataAccess) {
		m := c.moduleOf(l.From)
		past[m] = append(past[m], l)
	}
	answering := c.answering()
	handles := map[string]bool{}
	for _, r := range c.routes() {
		handles[r.HandlerPath] = true
	}
	for m, ls := range past {
		// Without logic to go through nothing is skipped, nor where nobody asks.
		if through[m] < 2 || len(ls) > through[m] || !answering[m] {
			continue
		}
		for _, l := range ls {
			if !handles[l.From] && !weave.Answering(c.Survey)[l.From] {
				continue // a command may read what it works on
			}
			out = append(
				out, hit{path: l.From, line: l.Line, extra: l.To, strength: 0.45, touches: []string{l.From, l.To}, evidence: []model.Evidence{
					{Path: l.From, Line: l.Line, Note: l.Text}, {Path: l.To, Note: "data access"},
				},
					message: fmt.Sprintf(
						"The handler *%s* reaches past the logic to %s, where %d others go through it",
						path.Base(l.From), path.Base(l.To), through[m],
					)})
		}
	}
	return out
}
