package smells

import (
	"fmt"
	"path"
	"sort"

	"jantel/core/model"
	"jantel/core/relations"
	"jantel/core/syntax"
	"jantel/core/weave"
)

// order is the trade's order of the roles that a request passes.
var order = map[model.Role]int{model.RoleEntry: 1, model.RoleRouting: 2, model.RoleHandler: 3, model.RoleLogic: 4, model.RoleDataAccess: 5}

// between lists the links of two roles within one module, once for each pair
// of files.
func (c *Context) between(from, to model.Role) (out []model.Link) {
	seen := map[[2]string]bool{}
	for i := range c.edges {
		l := &c.edges[i]
		if l.fromRole != from || l.toRole != to || l.Kind == model.LinkRoute || l.Kind == model.LinkHTTP || l.Kind == model.LinkMessage {
			continue
		}
		if k := [2]string{l.From, l.To}; !seen[k] && c.moduleOf(l.From) == c.moduleOf(l.To) {
			seen[k] = true
			out = append(out, *l.Link)
		}
	}
	return out
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
	for m, ls := range past {
		// Without logic to go through nothing is skipped.
		if through[m] < 2 || len(ls) > through[m] {
			continue
		}
		for _, l := range ls {
			out = append(out, hit{path: l.From, line: l.Line, extra: l.To, strength: 0.45, touches: []string{l.From, l.To}, evidence: []model.Evidence{{Path: l.From, Line: l.Line, Note: l.Text}, {Path: l.To, Note: "data access"}},
				message: fmt.Sprintf("The handler *%s* reaches past the logic to %s, where %d others go through it", path.Base(l.From), path.Base(l.To), through[m])})
		}
	}
	return out
}

// upwardLink reports dependencies against the trade's order of roles. With a
// charter the charter alone says what is up.
func upwardLink(c *Context, _ *Rule) (out []hit) {
	if c.Held != nil {
		return nil
	}
	seen := map[[2]string]bool{}
	for _, l := range c.Survey.Links {
		a, b := order[c.Roles[l.From].Role], order[c.Roles[l.To].Role]
		k := [2]string{l.From, l.To}
		if a == 0 || b == 0 || a <= b || a < 4 || b > 3 || seen[k] || l.Kind.Repeats() || l.Kind == model.LinkHTTP || l.Kind == model.LinkMessage || l.Kind == model.LinkRoute || !c.Judged[l.From] || !c.Judged[l.To] || c.moduleOf(l.From) != c.moduleOf(l.To) {
			continue
		}
		seen[k] = true
		out = append(out, hit{path: l.From, line: l.Line, extra: l.To, strength: 0.4, touches: []string{l.From, l.To}, evidence: []model.Evidence{{Path: l.From, Line: l.Line, Note: l.Text}},
			message: fmt.Sprintf("%s needs %s: against the usual order, in which %s comes after %s", path.Base(l.From), path.Base(l.To), c.Roles[l.From].Role, c.Roles[l.To].Role)})
	}
	return out
}

// degrees counts, for each judged file, how many others need it and how many it
// needs.
func (c *Context) degrees() (in, out map[string]int) {
	in, out = map[string]int{}, map[string]int{}
	for i := range c.edges {
		if l := &c.edges[i]; !l.again && l.fromRole != model.RoleTest {
			in[l.To]++
			out[l.From]++
		}
	}
	return in, out
}

// hub reports files through which much of a codebase goes, in and out.
func hub(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "dependencies"))
	in, from := c.degrees()
	for _, f := range c.Survey.Files {
		if a, b := in[f.Path], from[f.Path]; a >= limit && b >= limit && c.Roles[f.Path].Role != model.RoleEntry {
			out = append(out, hit{path: f.Path, strength: 0.3 + 0.01*float64(a+b-2*limit), touches: []string{f.Path}, message: fmt.Sprintf("%d files need *%s*, and it needs %d", a, path.Base(f.Path), b)})
		}
	}
	return out
}

// centralDrop reports files of types or state that much of a codebase hangs on.
func centralDrop(c *Context, r *Rule) (out []hit) {
	limit := c.Value(r, "share")
	in, _ := c.degrees()
	source := 0
	for _, f := range c.Survey.Files {
		if c.Judged[f.Path] && weave.IsCode(f) && c.Roles[f.Path].Role != model.RoleTest {
			source++
		}
	}
	if source < 20 {
		return nil
	}
	for _, f := range c.Survey.Files {
		role := c.Roles[f.Path].Role
		if role != model.RoleModel && role != model.RoleState && role != model.RoleSchema || f.Facts == nil || len(f.Facts.Definitions) < 4 {
			continue
		}
		if share := float64(in[f.Path]) / float64(source); share >= limit {
			out = append(out, hit{path: f.Path, strength: 0.3 + share, touches: []string{f.Path}, message: fmt.Sprintf("%d of %d source files hang on *%s*, which holds %d definitions", in[f.Path], source, path.Base(f.Path), len(f.Facts.Definitions))})
		}
	}
	return out
}

// wiringWithLogic reports places that start a program and hold much code of
// their own.
func wiringWithLogic(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "lines"))
	for _, f := range c.Survey.Files {
		if !c.Judged[f.Path] || f.Facts == nil || c.Roles[f.Path].Role != model.RoleEntry {
			continue
		}
		for _, d := range f.Facts.Definitions {
			if (d.Kind == model.DefFunction || d.Kind == model.DefMethod) && d.EndLine-d.Line+1 >= limit {
				out = append(out, hit{path: f.Path, line: d.Line, end: d.EndLine, name: d.Qualified(), strength: over(float64(d.EndLine-d.Line+1), float64(limit)), touches: []string{f.Path},
					message: fmt.Sprintf("*%s*, %d lines long, stands where the program is put together", d.Name, d.EndLine-d.Line+1)})
			}
		}
	}
	return out
}

// nobodyReaches reports source files that no entry, test or other file needs.
func nobodyReaches(c *Context, _ *Rule) (out []hit) {
	used := map[string]bool{}
	for _, l := range c.Survey.Links {
		if l.From != l.To {
			used[l.To] = true
		}
	}
	entries := 0
	for _, f := range c.Survey.Files {
		if f.Facts != nil && f.Facts.Starts > 0 {
			entries++
		}
	}
	for _, f := range c.Survey.Files {
		role := c.Roles[f.Path].Role
		if used[f.Path] || !c.Judged[f.Path] || !syntax.ProfileOf(f.Language).Reached || f.Facts == nil || len(f.Facts.Definitions) == 0 || f.Facts.Starts > 0 || entries == 0 {
			continue
		}
		if (role != model.RoleLogic && role != model.RoleView && role != model.RoleHelper && role != model.RoleModel && role != model.RoleState && role != model.RoleDataAccess) || len(f.Facts.Routes) > 0 {
			continue
		}
		out = append(out, hit{path: f.Path, strength: 0.35, touches: []string{f.Path}, message: fmt.Sprintf("No file was found that needs *%s*", path.Base(f.Path))})
	}
	return out
}

// senderWithoutReceiver reports messages of which one end is missing.
func senderWithoutReceiver(c *Context, _ *Rule) (out []hit) {
	ends := map[string][2][]model.Message{}
	for _, m := range relations.Messages(c.Survey) {
		if !c.Judged[m.Path] || c.Roles[m.Path].Role == model.RoleTest {
			continue
		}
		e := ends[m.Name]
		i := 0
		if m.Direction == model.Receive {
			i = 1
		}
		e[i] = append(e[i], m)
		ends[m.Name] = e
	}
	names := make([]string, 0, len(ends))
	for n := range ends {
		names = append(names, n)
	}
	sort.Strings(names)
	for _, n := range names {
		e := ends[n]
		if len(e[0]) > 0 && len(e[1]) > 0 {
			continue
		}
		here, what := e[0], "is sent and nobody here receives it"
		if len(here) == 0 {
			here, what = e[1], "is waited for and nobody here sends it"
		}
		out = append(out, hit{path: here[0].Path, line: here[0].Line, name: n, strength: 0.35, touches: []string{here[0].Path}, message: fmt.Sprintf("The message *%s* %s", n, what), evidence: []model.Evidence{{Path: here[0].Path, Line: here[0].Line, Note: n}}})
	}
	return out
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
		out = append(out, hit{path: q.Path, line: q.Line, name: q.Text(), strength: 0.45, touches: []string{q.Path}, message: fmt.Sprintf("Nothing in the codebase answers *%s*", q.Text()), evidence: []model.Evidence{{Path: q.Path, Line: q.Line, Note: q.Text()}}})
	}
	return out
}
