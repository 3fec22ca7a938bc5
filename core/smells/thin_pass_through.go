package smells

import (
	"fmt"
	"path"
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

// thinPassThrough reports types, and files of functions, most of whose
// functions only hand their arguments on to one and the same other.
func thinPassThrough(c *Context, r *Rule) (out []hit) {
	least := int(c.Value(r, "functions"))
	g := calls.Of(c.Survey)
	c.source(func(f *model.File) {
		if len(f.Facts.Insides) == 0 || c.seen(f.Path) == model.RoleFacade {
			return
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
		if e.Kind == model.CallPlain && e.To.File != ref.File {
			return true
		}
	}
	return false
}

// builds reports whether a definition makes an instance of its class.
func builds(d model.Definition) bool {
	switch d.Name {
	case "constructor", "__init__", "__construct", "initialize", "new":
		return true
	}
	return d.Parent != "" && (d.Name == d.Parent || strings.HasSuffix(d.Parent, "."+d.Name)) || strings.HasPrefix(d.Name, "New")
}
