package smells

import (
	"fmt"
	"strings"

	"jantel/core/model"
)

var crypticNameRule = &Rule{
	Slug: "cryptic-name", Facet: model.Names, Title: "Cryptic name", Weight: 0.5, Family: familyName, Habit: true, find: crypticName,
	Question: "Is a name of one or two letters handed out to others?",
	Why:      "It has to be looked up wherever it is met.",
	Example:  "`export function wq()`.",
	Remedy:   "Write it out.",
}

// shortWords are words of one or two letters that are read out as they stand.
var shortWords = map[string]bool{
	"$": true, "_": true, "up": true, "of": true, "go": true, "do": true, "to": true, "is": true, "on": true, "in": true, "at": true,
	"ip": true, "os": true, "js": true, "fs": true, "tz": true, "eq": true, "ne": true, "lt": true, "le": true, "gt": true, "ge": true,
	"du": true, "df": true, "ls": true, "cp": true, "mv": true, "rm": true, "cd": true, "xz": true, "gz": true, "am": true, "pm": true,
	"vm": true, "ai": true, "ml": true, "hz": true, "km": true, "kg": true, "cm": true, "mm": true, "we": true, "me": true, "it": true,
	"by": true, "as": true, "or": true, "if": true, "io": true, "db": true, "ui": true, "id": true, "ok": true, "no": true, "my": true,
}

func crypticName(c *Context, _ *Rule) (out []hit) {
	c.source(func(f *model.File) {
		for _, d := range f.Facts.Definitions {
			if (d.Kind == model.DefFunction || d.Kind == model.DefClass) && d.Exported && d.Parent == "" && len(d.Name) <= 2 &&
				len(d.Name) > 0 && d.EndLine-d.Line >= 4 && !shortWords[strings.ToLower(d.Name)] {
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
