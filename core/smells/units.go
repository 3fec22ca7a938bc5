package smells

import (
	"fmt"
	"sort"

	"jantel/core/model"
	"jantel/core/weave"
)

func longFile(c *Context, r *Rule) (out []hit) {
	for _, f := range c.Survey.Files {
		if !c.Judged[f.Path] || f.Facts == nil || !weave.IsCode(f) && c.Roles[f.Path].Role != model.RoleStyle && c.Roles[f.Path].Role != model.RoleView {
			continue
		}
		limit := c.Value(r, "code lines")
		if c.Roles[f.Path].Role == model.RoleTest {
			limit *= 1.5
		}
		n := float64(f.Facts.Code)
		if n <= limit {
			continue
		}
		defs := make([]model.Definition, 0, len(f.Facts.Definitions))
		for _, d := range f.Facts.Definitions {
			if d.EndLine-d.Line >= 20 {
				defs = append(defs, d)
			}
		}
		sort.SliceStable(defs, func(i, j int) bool { return defs[i].EndLine-defs[i].Line > defs[j].EndLine-defs[j].Line })
		var ev []model.Evidence
		for i, d := range defs {
			if i == 5 {
				break
			}
			ev = append(ev, model.Evidence{Path: f.Path, Line: d.Line, Note: fmt.Sprintf("%s %s, %d lines", d.Kind, d.Qualified(), d.EndLine-d.Line+1)})
		}
		out = append(out, hit{path: f.Path, strength: over(n, limit), message: fmt.Sprintf("%d lines of code in one file, where %d is the limit", f.Facts.Code, int(limit)), evidence: ev, touches: []string{f.Path}})
	}
	return out
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
