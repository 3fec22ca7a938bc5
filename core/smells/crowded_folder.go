package smells

import (
	"fmt"

	"jantel/core/model"
)

var crowdedFolderRule = &Rule{
	Slug: "crowded-folder", Facet: model.Layout, Title: "Crowded folder", Weight: 1.2, Family: familyPlace, find: crowdedFolder,
	Question: "Does a folder hold more files than a reader can take in?",
	Why: "Where dozens of files lie side by side, nobody sees which belong together, and each new one is " +
		"dropped where there is room.",
	Example:    "`desk/src/components` holds 43 files side by side: buttons, cards, panels and whole top bars.",
	Remedy:     "Find the groups by what the files do, and give each a folder of its own.",
	Parameters: []Parameter{{"files", "judged files directly in the folder, tests and assets aside", 40, 30, 25}},
}

// oneSort reports whether nearly all files of a folder build upon the same, or are marked
// with the same: they are found by their names, and no group of them is to be parted.
func oneSort(files []*model.File) bool {
	upon := map[string]int{}
	for _, f := range files {
		for b := range makeOf(f) {
			upon[b]++
		}
	}
	for _, n := range upon {
		if float64(n) >= oneSortShare*float64(len(files)) {
			return true
		}
	}
	return false
}

// ofOneSort is up to how many times the limit files of one sort are found by their names.
const ofOneSort = 3

// oneSortShare is the share of a folder's files that makes them all of one sort.
const oneSortShare = 0.85

func crowdedFolder(c *Context, r *Rule) (out []hit) {
	limit := c.Value(r, "files")
	for _, d := range c.Folders {
		if testPlace(d.Path) {
			continue
		}
		files := c.units(d.Path)
		if n := float64(len(files)); n > limit && !(n <= ofOneSort*limit && oneSort(files)) {
			groups := firstWords(files)
			msg := fmt.Sprintf("%d files lie side by side", len(files))
			var ev []model.Evidence
			for _, g := range groups {
				if len(g.files) >= 3 && len(ev) < 6 {
					ev = append(ev, model.Evidence{
						Path: g.files[0].Path, Note: fmt.Sprintf("%d of them begin with %q", len(g.files), g.word),
					})
				}
			}
			if len(ev) == 0 {
				ev = evidence(paths(files), "one of them")
			}
			out = append(out, hit{path: d.Path, strength: over(n, limit), message: msg, evidence: ev, touches: paths(files)})
		}
	}
	return out
}
