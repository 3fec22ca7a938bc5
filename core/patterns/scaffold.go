package patterns

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"jantel/core/frameworks"
	"jantel/core/model"
)

// Scaffolds: what a framework's generator lays out, with little in it yet.

// scaffolds are what generators lay out: files and folders that stand together.
var scaffolds = frameworks.Layouts()

// laidOut finds the scaffold of which all parts are there.
func laidOut(c *context) outcome {
	below := map[string][]string{} // names in a folder
	has := map[string]bool{}
	for _, f := range c.survey.Files {
		for p := f.Path; c.judged[f.Path] && p != "." && !has[p]; p = model.FolderOf(p) {
			has[p] = true
			below[model.FolderOf(p)] = append(below[model.FolderOf(p)], path.Base(p))
		}
	}
	roots := []string{"."}
	for _, d := range c.folders {
		if d.Path != "." && d.Depth <= 2 && has[d.Path] {
			roots = append(roots, d.Path)
		}
	}
	slices.Sort(roots)
	for _, root := range roots {
		for _, parts := range scaffolds {
			var what []string
			var ev []model.Evidence
			for _, p := range parts {
				at := ""
				for _, form := range strings.Split(p, "|") {
					if at = find(below, root, strings.Split(form, "/")); at != "" {
						break
					}
				}
				if at == "" {
					break
				}
				what = append(what, at)
				ev = append(ev, model.Evidence{Path: at, Note: "as a generator lays it out"})
			}
			if len(what) == len(parts) {
				return outcomeOf(1, "Its folders are those that a framework's generator makes: "+strings.Join(what, ", ")+".", ev)
			}
		}
	}
	return outcomeOf(0, "Its folders are not those of a framework's generator.", nil)
}

// find follows a form, part by part, from a folder to what is there; "" when
// nothing is.
func find(below map[string][]string, folder string, form []string) string {
	for _, name := range below[folder] {
		if ok, err := path.Match(form[0], name); !ok || err != nil {
			continue
		}
		at := path.Join(folder, name)
		if len(form) == 1 {
			return at
		}
		if deeper := find(below, at, form[1:]); deeper != "" {
			return deeper
		}
	}
	return ""
}

// barely tests that little was added to what was laid out.
func barely(c *context) outcome {
	if len(c.source) == 0 {
		return outcomeOf(0, "There is no program text to tell from.", nil)
	}
	small, lines := 0, 0
	for _, f := range c.source {
		lines += f.Facts.Code
		if f.Facts.Code <= 25 {
			small++
		}
	}
	share := float64(small) / float64(len(c.source))
	text := fmt.Sprintf("%d of %d source files have 25 lines of code or fewer.", small, len(c.source))
	if lines > 2000 {
		return outcomeOf(0, fmt.Sprintf("%d lines of code are more than a generator makes.", lines), nil)
	}
	return outcomeOf(2*share-1, text, nil)
}
