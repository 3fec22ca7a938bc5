package smells

import (
	"fmt"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/relations"
)

var repeatedLiteralRule = &Rule{
	Slug: "repeated-literal", Facet: model.Boundaries, Title: "Two ends tied by a repeated literal", Weight: 0.4,
	Habit: true, find: repeatedLiteral,
	Question:   "Do several files write the same name each for itself?",
	Why:        "Nothing but the spelling holds the ends together; one of them is changed, and no compiler says so.",
	Example:    "`'lot.dried'` is written in the file that sends it and in the two that receive it; one constant would tie them.",
	Remedy:     "Keep it in one constant that all of them take.",
	Parameters: []Parameter{{"files", "files that write it", 3, 2, 2}},
}

// repeatedLiteral reports messages whose ends are tied by a text that each of
// several files writes for itself.
func repeatedLiteral(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "files"))
	constants := map[string]bool{} // texts that a constant holds
	written := map[[2]string]bool{}
	for f := range c.Source(".") {
		for _, l := range f.Facts.Literals {
			constants[l.Value] = true
		}
		for _, m := range f.Facts.Messages {
			if m.Name != "" {
				written[[2]string{f.Path, m.Name}] = true
			}
		}
	}
	type ends struct {
		at            []model.Evidence
		files         []string
		sent, arrives bool
	}
	by := map[string]*ends{}
	var names []string
	for _, m := range relations.Messages(c.Survey) {
		// A name of one word may be one of the platform's own, such as a key's; one with hyphens
		// alone is an event of the one object that declares it as often as one of a bus.
		if !c.Judged[m.Path] || c.Roles[m.Path].Role == model.RoleTest || constants[m.Name] || !strings.ContainsAny(m.Name, "._:/") ||
			!written[[2]string{m.Path, m.Name}] {
			continue
		}
		e := by[m.Name]
		if e == nil {
			e = &ends{}
			by[m.Name] = e
			names = append(names, m.Name)
		}
		e.sent, e.arrives = e.sent || m.Direction == model.Send, e.arrives || m.Direction == model.Receive
		e.at = append(e.at, model.Evidence{Path: m.Path, Line: m.Line, Note: m.Direction})
		if !slices.Contains(e.files, m.Path) {
			e.files = append(e.files, m.Path)
		}
	}
	slices.Sort(names)
	for _, n := range names {
		e := by[n]
		if len(e.files) < limit || !e.sent || !e.arrives {
			continue
		}
		out = append(out, hit{path: e.at[0].Path, line: e.at[0].Line, name: n, strength: 0.2 +
			0.05*float64(len(e.files)-limit), touches: e.files, evidence: e.at[:min(12, len(e.at))],
			message: fmt.Sprintf("%s files write *%s* each for itself, and are tied by it alone", capital(number(len(e.files))), n)})
	}
	return out
}
