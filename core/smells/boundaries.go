package smells

import (
	"fmt"
	"path"
	"strings"

	"jantel/core/model"
)

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
		out = append(out, hit{path: cy.Members[0], extra: strings.Join(cy.Members, "\x00"), strength: 0.35 + 0.07*float64(n-2),
			message:  fmt.Sprintf("%s files need each other in a ring (%s); %s %s %s opens it", capital(number(n)), shortList(cy.Members), how, number(len(cy.Break)), links),
			evidence: ev, touches: cy.Members})
	}
	return out
}

// folderCycle reports folders whose files need each other in a ring.
func folderCycle(c *Context, _ *Rule) (out []hit) {
	lines := map[[2]string]model.Link{}
	for i := range c.edges {
		l := c.edges[i].Link
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
			message:  fmt.Sprintf("%s folders need each other in a ring (%s); %s %s %s opens it", capital(number(len(cy.Members))), shortList(cy.Members), how, number(len(cy.Break)), deps),
			evidence: ev, touches: touches})
	}
	return out
}

// charterBreach reports the dependencies that the charter forbids, once for
// each pair of files.
func charterBreach(c *Context, _ *Rule) (out []hit) {
	if c.Held == nil {
		return nil
	}
	seen := map[[2]string]bool{}
	for _, b := range c.Held.Breaches {
		if k := [2]string{b.From, b.To}; !seen[k] {
			seen[k] = true
			out = append(out, hit{path: b.From, line: b.Line, extra: b.To, strength: 0.6, touches: []string{b.From, b.To},
				message:  fmt.Sprintf("The charter forbids that %s needs %s: %s", path.Base(b.From), b.To, b.Rule),
				evidence: []model.Evidence{{Path: b.From, Line: b.Line, Note: b.Text}}})
		}
	}
	for _, e := range c.Held.Wiring {
		out = append(out, hit{path: e.Path, line: e.Line, extra: "wiring", strength: 0.4, touches: []string{e.Path},
			message: "Logic stands where the charter has only wiring: " + e.Note, evidence: []model.Evidence{e}})
	}
	return out
}

// shortList names up to three paths by their last parts.
func shortList(ps []string) string {
	var names []string
	for i, p := range ps {
		if i == 3 {
			return strings.Join(names, ", ") + " …"
		}
		names = append(names, path.Base(p))
	}
	return strings.Join(names, ", ")
}

func climbingImports(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "steps"))
	targets := map[string][]string{}
	for _, l := range c.Survey.Links {
		if climbs(l.Text) >= limit {
			targets[l.From] = append(targets[l.From], l.To)
		}
	}
	for _, f := range c.Survey.Files {
		if !c.Judged[f.Path] || f.Facts == nil || c.Roles[f.Path].Role == model.RoleTest {
			continue
		}
		var ev []model.Evidence
		worst, first := 0, 0
		for _, im := range f.Facts.Imports {
			if n := climbs(im.Text); n >= limit {
				if worst == 0 {
					first = im.Line
				}
				worst = max(worst, n)
				if len(ev) < 12 {
					ev = append(ev, model.Evidence{Path: f.Path, Line: im.Line, Note: im.Text})
				}
			}
		}
		if worst == 0 {
			continue
		}
		what := "One import climbs"
		if len(ev) > 1 {
			what = capital(number(len(ev))) + " imports climb"
		}
		out = append(out, hit{path: f.Path, line: first, strength: 0.2 + 0.1*float64(worst-limit) + 0.05*float64(len(ev)),
			message: fmt.Sprintf("%s up to %s folders", what, number(worst)), evidence: ev, touches: append([]string{f.Path}, targets[f.Path]...)})
	}
	return out
}

// climbs counts the folders a relative import goes up.
func climbs(text string) int {
	if strings.HasPrefix(text, "../") || text == ".." {
		n := 0
		for strings.HasPrefix(text, "../") {
			n, text = n+1, text[3:]
		}
		if text == ".." {
			n++
		}
		return n
	}
	// In Python one dot is the package itself.
	dots := len(text) - len(strings.TrimLeft(text, "."))
	if dots > 1 && !strings.HasPrefix(text, "./") {
		return dots - 1
	}
	return 0
}
