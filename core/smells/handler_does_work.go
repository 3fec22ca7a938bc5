package smells

import (
	"fmt"
	"path"

	"jantel/core/model"
)

var handlerDoesWorkRule = &Rule{
	Slug: "handler-does-work", Facet: model.Units, Title: "Handler that does the work itself", Weight: 1,
	Family: familyLayer, find: handlerDoesWork,
	Question: "Does a handler talk to the store itself?",
	Why:      "What it does can then be had over HTTP alone, and is tested through it or not at all.",
	Example:  "`handlers/germination.ts` with `SELECT … FROM trials` in it.",
	Remedy:   "Move the statement into data access and what decides about it into the logic.",
}

// handlerDoesWork reports handlers that talk to the store themselves.
func handlerDoesWork(c *Context, _ *Rule) (out []hit) {
	c.source(func(f *model.File) {
		if c.seen(f.Path) != model.RoleHandler {
			return
		}
		var ev []model.Evidence
		for _, o := range f.Facts.Operations {
			if n, l := f.Facts.Sign(model.SignSQL); n > 0 && l <= o.Line && !o.ByName {
				ev = append(ev, model.Evidence{Path: f.Path, Line: o.Line, Note: o.What + " " + o.Entity})
			}
		}
		if n, l := f.Facts.Sign(model.SignSQL); n > 0 && len(ev) == 0 {
			ev = append(ev, model.Evidence{Path: f.Path, Line: l, Note: "a statement to the store"})
		}
		if len(ev) > 0 {
			out = append(out, hit{
				path: f.Path, line: ev[0].Line, strength: 0.35 + 0.05*float64(len(ev)), touches: []string{f.Path},
				evidence: ev[:min(12, len(ev))],
				message:  fmt.Sprintf("The handler *%s* talks to the store itself", path.Base(f.Path)),
			})
		}
	})
	return out
}
