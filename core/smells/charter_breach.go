package smells

import (
	"fmt"
	"path"

	"jantel/core/model"
)

var charterBreachRule = &Rule{
	Slug: "charter-breach", Facet: model.Boundaries, Title: "Breach of the charter", Weight: 3, Family: familyLayer, find: charterBreach,
	Question: "Does a dependency break the charter?",
	Why:      "The charter says which part may depend on which; each breach is a way round it that others will follow.",
	Example:  "The charter lets `desk` depend on `shared` alone; `desk/src/api/lots.ts` imports `counter/src/logic/lots`.",
	Remedy:   "Move what is needed, hand it in from outside, or agree on an exception with a reason and a last day.",
}

// charterBreach reports the dependencies that the charter forbids, once for
// each pair of files.
func charterBreach(c *Context, _ *Rule) (out []hit) {
	if c.Conformance == nil {
		return nil
	}
	seen := map[[2]string]bool{}
	for _, b := range c.Conformance.Breaches {
		if k := [2]string{b.From, b.To}; !seen[k] {
			seen[k] = true
			out = append(out, hit{path: b.From, line: b.Line, extra: b.To, strength: 0.6, touches: []string{b.From, b.To},
				message:  fmt.Sprintf("The charter forbids that %s needs %s: %s", path.Base(b.From), b.To, b.Rule),
				evidence: []model.Evidence{{Path: b.From, Line: b.Line, Note: b.Text}}})
		}
	}
	for _, e := range c.Conformance.Wiring {
		out = append(out, hit{path: e.Path, line: e.Line, extra: "wiring", strength: 0.4, touches: []string{e.Path},
			message: "Logic stands where the charter has only wiring: " + e.Note, evidence: []model.Evidence{e}})
	}
	return out
}
