package patterns

import (
	"fmt"
	"strings"

	"jantel/core/model"
)

// Rings around a core.

// rings finds folders side by side that are a core and what surrounds it, the
// core first: by their names, or because three or more need the core, which
// needs none of them and does none of their work. Of several such places the
// one that holds most counts.
func (c *context) rings() (best []*model.Folder) {
	most := 0
	for _, core := range c.foldersNamed("core", "domain") {
		found := []*model.Folder{core}
		seen := map[string]bool{core.Name: true}
		for _, d := range c.foldersNamed("core", "domain", "ports", "adapters", "application", "infrastructure", "usecases", "use cases") {
			if d.Parent == core.Parent && !seen[d.Name] {
				seen[d.Name] = true
				found = append(found, d)
			}
		}
		if len(found) == 1 {
			found = append(found, c.surrounding(core)...)
		}
		if n := c.within(found...); len(found) > 1 && n > most {
			best, most = found, n
		}
	}
	return best
}

// surrounding are the folders beside a core that need it, where it is one in
// fact: three or more do, it is neither all nor little of the code, and it holds
// hardly anything that answers, draws or stores.
func (c *context) surrounding(core *model.Folder) (out []*model.Folder) {
	inside, outer := 0, 0
	for _, f := range c.source {
		if model.Within(core.Path, f.Path) {
			inside++
			switch c.roles[f.Path].Role {
			case model.RoleRouting, model.RoleHandler, model.RoleView, model.RoleDataAccess:
				outer++
			}
		}
	}
	if 4*outer > inside || 100*inside < 15*len(c.source) || 100*inside > 75*len(c.source) {
		return nil
	}
	needs, needed := map[string]bool{}, map[string]bool{}
	inwards, outwards, implemented := 0, 0, false
	for _, l := range c.edges {
		switch a, b := model.Within(core.Path, l.From), model.Within(core.Path, l.To); {
		case b && !a:
			needs[l.From] = true
			inwards++
			implemented = implemented || l.Kind == model.LinkInheritance
		case a && !b:
			needed[l.To] = true
			outwards++
		}
	}
	// What only lies below the others is no ring: a core asks for nothing around
	// it, or through interfaces that others implement.
	if 50*outwards > inwards && !implemented {
		return nil
	}
	below := func(d *model.Folder, of map[string]bool) bool {
		for p := range of {
			if model.Within(d.Path, p) {
				return true
			}
		}
		return false
	}
	for _, d := range c.folders {
		if d.Parent == core.Parent && d != core && below(d, needs) && !below(d, needed) {
			out = append(out, d)
		}
	}
	if len(out) < 3 || c.siblings(coreNames, featureNames) != nil || c.siblings(coreNames, sharedNames) != nil {
		return nil
	}
	return out
}

func around(c *context) outcome {
	ds := c.rings()
	if ds == nil {
		return outcomeOf(0, "No folder for a core lies beside others for what surrounds it.", nil)
	}
	n := c.within(ds...)
	return outcomeOf(
		c.large(n, 0.4),
		fmt.Sprintf("A core and what surrounds it lie side by side: %s, with %d of %d source files.", names(ds), n, len(c.source)),
		foldersEvidence(ds, "so named"),
	)
}

// inward tests that a core needs nothing of what surrounds it.
func inward(c *context) outcome {
	ds := c.rings()
	if ds == nil {
		return outcomeOf(0, "There is no core that could be kept clean.", nil)
	}
	core := ds[0]
	base := core.Parent
	// Ports are what the core asks through: they are its own.
	var ports *model.Folder
	for _, d := range ds[1:] {
		if strings.HasPrefix(strings.ToLower(d.Name), "port") {
			ports = d
		}
	}
	inside := func(p string) bool {
		return model.Within(core.Path, p) || ports != nil && model.Within(ports.Path, p)
	}
	in, out := 0, 0
	var against []model.Link
	for _, l := range c.survey.Links {
		a, b := inside(l.From), inside(l.To)
		if l.Kind.Repeats() || a == b || !model.Within(base, l.From) || !model.Within(base, l.To) || !c.judged[l.From] ||
			!c.judged[l.To] || c.roles[l.From].Role == model.RoleTest {
			continue
		}
		if b {
			in++
		} else {
			out++
			against = append(against, l)
		}
	}
	if in < 2 {
		return outcomeOf(0, fmt.Sprintf("Hardly anything depends on %s.", core.Path), nil)
	}
	return outcomeOf(
		1-3*float64(out)/float64(in+out),
		fmt.Sprintf("%d dependencies lead into %s and %d out of it.", in, core.Path, out),
		linksEvidence(sorted(against)),
	)
}
