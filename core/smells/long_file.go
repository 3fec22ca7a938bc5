package smells

import (
	"fmt"
	"path"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/reading"
	"jantel/core/syntax"
)

var longFileRule = &Rule{
	Slug: "long-file", Facet: model.Units, Title: "Long file", Weight: 2, Family: familySize, Habit: true, find: longFile,
	Question:   "Is a file too long to be read in one go?",
	Why:        "A long file usually has several duties, and every change to any of them meets all the others.",
	Example:    "`labels.ts` with 412 lines of code: sizes, layout, printing and reprinting in one file.",
	Remedy:     "Split it along its duties; the largest definitions named below are where to start.",
	Parameters: []Parameter{{"code lines", "lines of code in a file; tests may be as long as they are", 800, 500, 400}},
}

// page reports whether a file is a page that is read as it stands: what is long about
// it is its text.
func page(f *model.File) bool {
	ext := strings.ToLower(path.Ext(f.Path))
	return (ext == ".html" || ext == ".htm") && !syntax.ProfileOf(f.Language).Template && len(f.Facts.Definitions) == 0
}

// drawnForms are the forms that a designer of screens writes: nobody reads them, and they
// are as long as the screen is full.
var drawnForms = syntax.Set(".ui", ".glade", ".xrc", ".xib", ".storyboard", ".fxml", ".form", ".lfm", ".dfm", ".tscn", ".tres")

// lists reports whether a file is hardly more than a list of what others define: as long as
// they are many.
func lists(f *model.Facts) bool {
	names := 0
	for i := range f.Imports {
		names += 1 + len(f.Imports[i].Names)
	}
	return len(f.Definitions) == 0 && 2*names >= f.Code
}

func longFile(c *Context, r *Rule) (out []hit) {
	for f := range c.Own(".") {
		role := c.Role(f.Path)
		if role == model.RoleTest || page(f) || strings.HasSuffix(f.Language, "Assembly") || drawnForms[strings.ToLower(path.Ext(f.Path))] {
			continue
		}
		if !reading.IsCode(f) && role != model.RoleStyle && role != model.RoleView {
			continue
		}
		limit := c.Value(r, "code lines")
		n := float64(f.Facts.Code)
		if n <= limit || lists(f.Facts) {
			continue
		}
		defs := make([]model.Definition, 0, len(f.Facts.Definitions))
		for _, d := range f.Facts.Definitions {
			if d.EndLine-d.Line >= 20 && d.Kind != model.DefNamespace { // that it has one says nothing
				defs = append(defs, d)
			}
		}
		sort.SliceStable(defs, func(i, j int) bool { return defs[i].EndLine-defs[i].Line > defs[j].EndLine-defs[j].Line })
		var ev []model.Evidence
		for i, d := range defs {
			if i == 5 {
				break
			}
			ev = append(ev, model.Evidence{
				Path: f.Path, Line: d.Line,
				Note: fmt.Sprintf("%s %s, %d lines", d.Kind, d.Qualified(), d.EndLine-d.Line+1),
			})
		}
		out = append(out, hit{
			path: f.Path, strength: over(n, limit),
			message:  fmt.Sprintf("%d lines of code in one file, where %d is the limit", f.Facts.Code, int(limit)),
			evidence: ev, touches: []string{f.Path},
		})
	}
	return out
}
