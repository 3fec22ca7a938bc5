package smells

import (
	"fmt"
	"strings"

	"jantel/core/model"
)

var folderCycleRule = &Rule{
	Slug: "folder-cycle", Facet: model.Boundaries, Title: "Cycle of folders", Weight: 2, Family: familyRing, find: folderCycle,
	Question: "Do folders need each other in a ring?",
	Why:      "Folders in a ring are one thing cut into pieces: none can be moved, tested or given to another team alone.",
	Example:  "`logic` needs `handlers` for a type, `handlers` needs `logic` for everything else.",
	Remedy:   "Cut the dependencies named below, or move what both need into a folder that both may use.",
}

// folderCycle reports folders whose files need each other in a ring.
func folderCycle(c *Context, _ *Rule) (out []hit) {
	lines := map[[2]string]model.Link{}
	for i := range c.Edges() {
		l := c.Edges()[i].Link
		if l.Kind == model.LinkLazyImport {
			continue
		}
		if k := [2]string{model.FolderOf(l.From), model.FolderOf(l.To)}; k[0] != k[1] {
			if _, ok := lines[k]; !ok {
				lines[k] = *l
			}
		}
	}
	for _, cy := range c.Cycles {
		if cy.Level != "folder" {
			continue
		}
		var ev []model.Evidence
		var touches []string
		for _, b := range cy.Break {
			l := lines[[2]string{b.From, b.To}]
			if len(ev) < 12 {
				ev = append(ev, model.Evidence{Path: l.From, Line: l.Line, Note: b.From + " needs " + b.To})
			}
			touches = append(touches, l.From, l.To)
		}
		how := "cutting"
		if !cy.Exact {
			how = "cutting at most"
		}
		deps := "dependencies"
		if len(cy.Break) == 1 {
			deps = "dependency"
		}
		out = append(out, hit{path: cy.Members[0], extra: strings.Join(cy.Members, "\x00"), strength: 0.3 + 0.06*float64(len(cy.Members)-2),
			message: fmt.Sprintf(
				"%s folders need each other in a ring (%s); %s %s %s opens it", capital(number(len(cy.Members))),
				shortList(cy.Members), how, number(len(cy.Break)), deps,
			),
			evidence: ev, touches: touches})
	}
	return out
}
