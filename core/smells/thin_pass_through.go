package smells

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/naming"
)

var thinPassThroughRule = &Rule{
	Slug: "thin-pass-through", Facet: model.Units, Title: "Thin pass-through", Weight: 0.8, Habit: true, find: thinPassThrough,
	Question:   "Is there a layer that only hands on what it is given?",
	Why:        "Each call goes through a place that decides nothing, and each change of a signature has to be made there too.",
	Example:    "`GrowerService`, five methods of which each calls the method of the same name of `GrowerStore`.",
	Remedy:     "Let callers ask what stands behind it, or move the rules here that belong to it.",
	Parameters: []Parameter{{"functions", "functions that only hand on", 5, 3, 3}},
}

// thinPassThrough reports types, and files of functions, that stand for a layer, and
// most of whose functions only hand their arguments on to one and the same other.
// What stands before something for another reason is none: the face of a library, a
// type that keeps a contract which others keep too, one of several ways to do a thing.
func thinPassThrough(c *Context, r *Rule) (out []hit) {
	least := int(c.Value(r, "functions"))
	g := calls.Of(c.Survey)
	kept := c.contracts()
	c.source(func(f *model.File) {
		role := c.seen(f.Path)
		if len(f.Facts.Insides) == 0 || role == model.RoleFacade {
			return
		}
		bases := map[string][]string{}
		for _, d := range f.Facts.Definitions {
			if len(d.Bases) > 0 {
				bases[d.Qualified()] = d.Bases
			}
		}
		all := map[string]int{}
		for _, d := range f.Facts.Definitions {
			if callable(d) && !builds(d) {
				all[d.Parent]++
			}
		}
		type thin struct {
			to string
			ev []model.Evidence
		}
		by := map[string]map[string]*thin{}
		for _, in := range f.Facts.Insides {
			d := f.Facts.Definitions[in.Definition]
			if in.Passes == "" || wraps(d) || !c.callsOwn(g, f.Path, d) {
				continue
			}
			to := in.Passes[:strings.LastIndexAny(in.Passes, ".>:")]
			to = strings.TrimRight(to, "-:?")
			if by[d.Parent] == nil {
				by[d.Parent] = map[string]*thin{}
			}
			if by[d.Parent][to] == nil {
				by[d.Parent][to] = &thin{to: to}
			}
			t := by[d.Parent][to]
			t.ev = append(t.ev, model.Evidence{Path: f.Path, Line: d.Line, Note: d.Name + " calls " + in.Passes})
		}
		for parent, targets := range by {
			if role != model.RoleHandler && role != model.RoleLogic && !namesLayer(parent) && !inLayer(f.Path) || kept.shared(bases[parent]) {
				continue
			}
			for _, t := range targets {
				n := len(t.ev)
				if n < least || 10*n < 6*all[parent] {
					continue
				}
				name := parent
				if name == "" {
					name = path.Base(f.Path)
				}
				out = append(out, hit{
					path: f.Path, line: t.ev[0].Line, name: parent, extra: t.to, touches: []string{f.Path},
					strength: 0.3 + 0.04*float64(n-least), evidence: t.ev[:min(12, n)],
					message: fmt.Sprintf("%s of the %s functions of *%s* only hand on to *%s*", capital(number(n)), number(all[parent]), name, t.to),
				})
			}
		}
	})
	return out
}

// wraps reports whether a function stands for another by its nature: it
// overrides what it was given, in a class whose name says that it wraps.
func wraps(d model.Definition) bool {
	for _, m := range d.Marks {
		if strings.Contains(m, "verride") {
			return true
		}
	}
	for _, w := range naming.Words(d.Parent) {
		switch w {
		case "wrapper", "decorator", "proxy", "adapter", "delegate", "delegating", "facade", "mock", "stub", "fake":
			return true
		}
	}
	return false
}

// callsOwn reports whether a function was seen to call another of this
// codebase: what only stands before a library's type is no layer.
func (c *Context) callsOwn(g *calls.Graph, path string, d model.Definition) bool {
	ref, ok := g.AtPath(path, d.Line)
	if !ok {
		return false
	}
	for _, e := range g.From(ref) {
		to := g.Definition(e.To)
		itself := to != nil && d.Parent != "" && to.Parent == d.Parent
		if e.Kind == model.CallPlain && e.To.File != ref.File && !itself {
			return true
		}
	}
	return false
}

// layerWords are how types and files are called that stand for a layer.
var layerWords = map[string]bool{
	"service": true, "services": true, "manager": true, "controller": true, "handler": true, "logic": true, "interactor": true,
	"business": true, "repository": true, "store": true, "dao": true, "bo": true,
}

func namesLayer(name string) bool {
	words := naming.Words(name)
	return len(words) > 0 && (layerWords[words[len(words)-1]] || layerWords[words[0]])
}

// inLayer reports whether a file, or a folder around it, is called like a layer.
func inLayer(p string) bool {
	return namesLayer(naming.Stem(p)) || slices.ContainsFunc(strings.Split(model.FolderOf(p), "/"), func(d string) bool {
		return layerWords[strings.TrimSuffix(strings.ToLower(d), "s")]
	})
}

// contracts counts, by name, how many types keep to a base; what is not defined here
// counts as kept by many.
type contracts struct {
	keepers map[string]int
	here    map[string]bool
}

func (c *Context) contracts() contracts {
	out := contracts{map[string]int{}, map[string]bool{}}
	for f := range c.Code(".") {
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			switch d.Kind {
			case model.DefClass, model.DefInterface, model.DefType:
				out.here[d.Name] = true
			}
			for _, b := range d.Bases {
				out.keepers[lastPart(b)]++
			}
		}
	}
	return out
}

// shared reports whether one of some bases is a contract that others keep too.
func (k contracts) shared(bases []string) bool {
	return slices.ContainsFunc(bases, func(b string) bool {
		b = lastPart(b)
		return !k.here[b] || k.keepers[b] > 1
	})
}

// lastPart is a name without what it lies in, and without what it is made of: moor.Base<Lot>.
func lastPart(name string) string {
	name, _, _ = strings.Cut(name, "<")
	return name[strings.LastIndexAny(name, ".:\\")+1:]
}

// builds reports whether a definition makes an instance of its class.
func builds(d model.Definition) bool {
	switch d.Name {
	case "constructor", "__init__", "__construct", "initialize", "new":
		return true
	}
	return d.Parent != "" && (d.Name == d.Parent || strings.HasSuffix(d.Parent, "."+d.Name)) || strings.HasPrefix(d.Name, "New")
}
