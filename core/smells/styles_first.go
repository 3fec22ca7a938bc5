package smells

import (
	"fmt"

	"jantel/core/model"
)

var stylesFirstRule = &Rule{
	Slug: "styles-first", Facet: model.Units, Title: "Styles before what is drawn", Weight: 0.4, Habit: true, find: stylesFirst,
	Question:   "Do styles stand before the component that they are for?",
	Why:        "Who opens the file wants to know what it draws, and reads colours first.",
	Example:    "Forty lines of widths and colours on top of `ShelfMap.tsx`.",
	Remedy:     "Put the styles below the component, or into a sheet beside it.",
	Parameters: []Parameter{{"lines", "lines of styles before the first component", 40, 25, 15}},
}

func stylesFirst(c *Context, r *Rule) (out []hit) {
	least := int(c.Value(r, "lines"))
	c.source(func(f *model.File) {
		first := 0
		for _, d := range f.Facts.Definitions {
			if d.Kind == model.DefComponent && (first == 0 || d.Line < first) {
				first = d.Line
			}
		}
		lines := 0
		var ev []model.Evidence
		for _, b := range f.Facts.StyleBlocks {
			if b.To < first {
				lines += b.To - b.From + 1
				ev = append(ev, model.Evidence{Path: f.Path, Line: b.From, Note: fmt.Sprintf("%s lines of styles", number(b.To-b.From+1))})
			}
		}
		if lines < least {
			return
		}
		out = append(out, hit{
			path: f.Path, line: ev[0].Line, strength: min(0.4, 0.2+0.005*float64(lines-least)), touches: []string{f.Path},
			evidence: ev[:min(12, len(ev))],
			message:  fmt.Sprintf("%s lines of styles stand before the first component", capital(number(lines))),
		})
	})
	return out
}
