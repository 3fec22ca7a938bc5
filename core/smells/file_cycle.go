package smells

import (
	"fmt"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

var fileCycleRule = &Rule{
	Slug: "file-cycle", Facet: model.Boundaries, Title: "Cycle of files", Weight: 2.5, Family: familyRing, find: fileCycle,
	Question: "Do files need each other in a ring?",
	Why:      "None of the files in a ring can be understood, tested or moved without all the others.",
	Example:  "`requests.ts` asks `growers.ts` for a greeting, `growers.ts` asks `requests.ts` for the allowance.",
	Remedy:   "Cut the dependencies named below: move what both ends share into a file of its own, or pass it in.",
}

func fileCycle(c *Context, _ *Rule) (out []hit) {
	from := map[string]bool{} // only of these the lines are asked for
	for _, cy := range c.Cycles {
		for _, b := range cy.Break {
			from[b.From] = true
		}
	}
	lines := map[[2]string]model.Link{}
	for _, l := range c.Survey.Links {
		if !from[l.From] {
			continue
		}
		if _, ok := lines[[2]string{l.From, l.To}]; !ok {
			lines[[2]string{l.From, l.To}] = l
		}
	}
	for _, cy := range c.Cycles {
		if cy.Level != "file" {
			continue
		}
		if c.inOnePackage(cy.Members, byFolder) ||
			!slices.ContainsFunc(cy.Members, func(p string) bool { return c.Roles[p].Role != model.RoleTest }) {
			continue
		}
		n := len(cy.Members)
		var ev []model.Evidence
		for _, b := range cy.Break {
			if len(ev) == 12 {
				break
			}
			ev = append(ev, model.Evidence{Path: b.From, Line: lines[[2]string{b.From, b.To}].Line, Note: "needs " + b.To})
		}
		how := "cutting"
		if !cy.Exact {
			how = "cutting at most"
		}
		links := "dependencies"
		if len(cy.Break) == 1 {
			links = "dependency"
		}
		strength := 0.35 + 0.07*float64(n-2)
		if c.inOnePackage(cy.Members, byPath) {
			strength *= packageShare
		}
		out = append(out, hit{path: cy.Members[0], extra: strings.Join(cy.Members, "\x00"), strength: strength,
			message: fmt.Sprintf(
				"%s files need each other in a ring (%s); %s %s %s opens it", capital(number(n)),
				shortList(cy.Members), how, number(len(cy.Break)), links,
			),
			evidence: ev, touches: cy.Members})
	}
	return out
}

// packageShare is how much of its strength a ring keeps that lies within one package:
// its classes may know each other, and only how many they are makes it one.
const packageShare = 0.5

// inOnePackage reports whether files lie in one folder that is a package in a way of their
// languages: that they know each other's names is what a package is for.
func (c *Context) inOnePackage(files []string, way func(syntax.Profile) bool) bool {
	for _, p := range files {
		f := c.Survey.File(p)
		if f == nil || !way(syntax.ProfileOf(f.Language)) || model.FolderOf(p) != model.FolderOf(files[0]) {
			return false
		}
	}
	return true
}

func byFolder(p syntax.Profile) bool { return p.FolderPackages }

func byPath(p syntax.Profile) bool { return p.PathPackages }
