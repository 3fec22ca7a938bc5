package smells

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
)

var stylesFromOutsideRule = &Rule{
	Slug: "styles-from-outside", Facet: model.Units, Title: "Places itself", Weight: 0.4, Habit: true, find: stylesFromOutside,
	Question: "Does a part say itself where it stands among others?",
	Why:      "It fits the one place it was made for; used elsewhere it pushes aside what stands there.",
	Example:  "`SidePanel` with `marginLeft: 240` on its own root.",
	Remedy:   "Leave margins and position to what puts it on the page; inside, set only how it looks.",
}

// over words of parts whose job is to lie over the page.
var overlays = map[string]bool{
	"modal": true, "dialog": true, "overlay": true, "tooltip": true, "popover": true, "portal": true, "toast": true, "drawer": true,
	"menu": true, "layout": true, "page": true, "backdrop": true, "app": true, "header": true, "footer": true, "sidebar": true, "popup": true,
}

func stylesFromOutside(c *Context, _ *Rule) (out []hit) {
	users := map[string]bool{}
	for _, l := range c.Survey.Links {
		if l.Kind == model.LinkRendering {
			users[l.To] = true
		}
	}
	c.source(func(f *model.File) {
		if len(f.Facts.OuterStyles) == 0 || !users[f.Path] ||
			slices.ContainsFunc(naming.Words(naming.Stem(f.Path)), func(w string) bool { return overlays[w] }) {
			return
		}
		var ev []model.Evidence
		var names []string
		for _, m := range f.Facts.OuterStyles {
			ev = append(ev, model.Evidence{Path: f.Path, Line: m.Line, Note: m.Name})
			if !slices.Contains(names, "*"+m.Name+"*") {
				names = append(names, "*"+m.Name+"*")
			}
		}
		out = append(out, hit{
			path: f.Path, line: ev[0].Line, strength: 0.2 + 0.05*float64(len(ev)-1), touches: []string{f.Path},
			evidence: ev[:min(12, len(ev))],
			message:  fmt.Sprintf("*%s* places itself among others, by %s", path.Base(f.Path), strings.Join(names[:min(4, len(names))], ", ")),
		})
	})
	return out
}
