package smells

import (
	"fmt"

	"jantel/core/model"
)

var nearTwinRule = &Rule{
	Slug: "near-twin", Facet: model.Units, Title: "Near twin", Weight: 1.5, Family: familyTwin, find: nearTwin,
	Question:   "Does nearly the same code stand in several places?",
	Why:        "What is corrected in one place stays wrong in the others, and nobody knows which of them is the right one.",
	Example:    "`WeightTag.tsx` and `WeightBadge.tsx`, the same but for a colour.",
	Remedy:     "Keep one of them, with what differs as a parameter, and let the others call it.",
	Parameters: []Parameter{{"lines", "lines from which a repetition counts", 40, 25, 20}},
}

// nearTwin reports code that stands in several places with little difference,
// once for all places that hang together.
func nearTwin(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "lines"))
	for _, t := range c.Survey.Twins {
		var at []model.TwinPlace
		tests := 0
		for _, m := range t.Members {
			if c.Judged[m.Path] && m.EndLine-m.Line+1 >= limit {
				at = append(at, m)
				if c.Roles[m.Path].Role == model.RoleTest {
					tests++
				}
			}
		}
		// Tests repeat themselves on purpose.
		if len(at) < 2 || tests > len(at)/2 {
			continue
		}
		first := at[0]
		var ev []model.Evidence
		var touches []string
		for _, m := range at {
			note := "the whole file"
			if m.Name != "" {
				note = m.Name
			}
			if len(ev) < 12 {
				ev = append(ev, model.Evidence{Path: m.Path, Line: m.Line, Note: note})
			}
			if len(touches) == 0 || touches[len(touches)-1] != m.Path {
				touches = append(touches, m.Path)
			}
		}
		what := "files"
		h := hit{path: first.Path, evidence: ev, touches: touches}
		if first.Name != "" {
			what = "places"
			h.line, h.end, h.name = first.Line, first.EndLine, first.Name
		}
		lines := first.EndLine - first.Line + 1
		h.strength = 0.3 + 0.05*float64(len(at)-2) + float64(lines)/400
		likeness := fmt.Sprintf("nearly the same %d lines (%d %% alike or more)", lines, int(100*t.Alike))
		if t.Alike >= 1 {
			likeness = fmt.Sprintf("%d lines that are the same but for names and values", lines)
		}
		h.message = fmt.Sprintf("%s %s hold %s", capital(number(len(at))), what, likeness)
		out = append(out, h)
	}
	return out
}
