package smells

import (
	"fmt"
	"slices"

	"jantel/core/model"
	"jantel/core/syntax"
)

var folderOfOneRule = &Rule{
	Slug: "folder-of-one", Facet: model.Layout, Title: "Folder of one", Weight: 0.4, Habit: true, find: folderOfOne,
	Question: "Is there a folder for a single file?",
	Why:      "A folder that holds one file costs a step and groups nothing.",
	Example:  "`counter/src/clock/` holds `clock.ts` and nothing else.",
	Remedy:   "Move the file up, or bring to it what belongs with it.",
}

// mostBeside is how many folders, itself among them, may lie beside one another without
// being a row in which each thing of a sort has one.
const mostBeside = 2

// folderOfOne reports folders that hold one file and nothing else.
func folderOfOne(c *Context, _ *Rule) (out []hit) {
	for _, d := range c.Folders {
		if d.Path == "." || d.Files != 1 || len(c.sub[d.Path]) > 0 || testPlace(d.Path) {
			continue
		}
		files := c.SourceIn(d.Path)
		if len(files) != 1 {
			continue
		}
		// What a language makes of folders, they are for.
		if p := syntax.ProfileOf(files[0].Language); p.PathPackages || p.FolderPackages || p.NamespaceIsPath ||
			slices.Contains(p.ToolFolders, d.Name) {
			continue
		}
		// Where all siblings are so, it is how the place is arranged.
		alone := 0
		for _, s := range c.sub[d.Parent] {
			if len(c.OwnIn(s)) == 1 && len(c.sub[s]) == 0 {
				alone++
			}
		}
		if alone > 2 || len(c.sub[d.Parent]) > mostBeside {
			continue // one folder of a row of them has its place, however little it holds yet
		}
		out = append(out, hit{
			path: d.Path, strength: 0.25, message: fmt.Sprintf("The folder *%s* holds one file alone", d.Name),
			evidence: evidence(paths(files), "the only file"), touches: paths(files),
		})
	}
	return out
}
