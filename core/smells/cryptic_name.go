package smells

import (
	"fmt"

	"jantel/core/model"
)

var crypticNameRule = &Rule{
	Slug: "cryptic-name", Facet: model.Names, Title: "Cryptic name", Weight: 0.5, find: crypticName,
	Question: "Is a name of one or two letters handed out to others?",
	Why:      "It has to be looked up wherever it is met.",
	Example:  "`export function wq()`.",
	Remedy:   "Write it out.",
}

func crypticName(c *Context, _ *Rule) (out []hit) {
	c.source(func(f *model.File) {
		for _, d := range f.Facts.Definitions {
			if (d.Kind == model.DefFunction || d.Kind == model.DefClass) && d.Exported && d.Parent == "" && len(d.Name) <= 2 &&
				len(d.Name) > 0 && d.EndLine-d.Line >= 4 && d.Name != "$" && d.Name != "_" && d.Name != "up" && d.Name != "of" &&
				d.Name != "go" && d.Name != "do" && d.Name != "to" && d.Name != "is" && d.Name != "on" && d.Name != "io" && d.Name != "db" {
				out = append(out, hit{
					path: f.Path, line: d.Line, end: d.Line, name: d.Qualified(), strength: 0.3,
					touches: []string{f.Path},
					message: fmt.Sprintf("*%s* can not be read out: others have to look it up", d.Name),
				})
			}
		}
	})
	return out
}
