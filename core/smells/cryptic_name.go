package smells

import (
	"fmt"
	"slices"
	"strings"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
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

// crypticName reports short names that are handed out. Those in capitals, and those that
// their file is called by, are terms of whoever writes them. Where all that a file defines may
// be known everywhere, only their use shows which those are.
func crypticName(c *Context, _ *Rule) (out []hit) {
	g := calls.Of(c.Survey)
	taken := c.takenNames()
	c.source(func(f *model.File) {
		for _, d := range f.Facts.Definitions {
			if (d.Kind == model.DefFunction || d.Kind == model.DefClass) && d.Exported && d.Parent == "" && len(d.Name) <= 2 &&
				len(d.Name) > 0 && d.EndLine-d.Line >= 4 && !shortWords[strings.ToLower(d.Name)] &&
				d.Name != strings.ToUpper(d.Name) && !strings.EqualFold(d.Name, naming.Stem(f.Path)) && keepsName(f, d.Name) &&
				(!syntax.ProfileOf(f.Language).OneOfAName || taken[[2]string{f.Path, d.Name}] || calledElsewhere(g, f.Path, d)) {
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

// keepsName reports whether a definition is handed out by its own name; where a file says
// what it hands out, it may be by another.
func keepsName(f *model.File, name string) bool {
	return len(f.Facts.Names) == 0 || slices.Contains(f.Facts.Names, name)
}

// takenNames are the names that files take from others, each with where it is; of a
// header all are taken by whoever takes it in, and stand for themselves there.
func (c *Context) takenNames() map[[2]string]bool {
	taken := map[[2]string]bool{}
	headers := map[string]bool{}
	for i := range c.Survey.Links {
		l := &c.Survey.Links[i]
		for _, n := range l.Names {
			taken[[2]string{l.To, n}] = true
		}
		headers[l.To] = headers[l.To] || syntax.IsHeader(l.To)
	}
	for p, header := range headers {
		if !header {
			continue
		}
		for _, d := range c.Survey.File(p).Facts.Definitions {
			taken[[2]string{p, d.Name}] = true
		}
	}
	return taken
}

// calledElsewhere reports whether another file was seen to call a definition.
func calledElsewhere(g *calls.Graph, path string, d model.Definition) bool {
	ref, ok := g.AtPath(path, d.Line)
	return ok && slices.ContainsFunc(g.To(ref), func(e calls.Edge) bool { return e.From.File != ref.File })
}
