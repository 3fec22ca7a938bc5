package weave

import (
	"jantel/core/links"
	"jantel/core/model"
	"jantel/core/reading"
)

// fewLevels and manyLevels bound how many folders are put in levels at once.
const (
	fewFolders  = 3
	manyFolders = 60
)

// Levels puts the folders of a codebase in levels, at the depth below the
// source root that gives a reader something to look at; and those of each
// module below it; parts are the modules, in their order.
func Levels(
	s *model.Survey, roles map[string]model.RoleOf, judged map[string]bool, modules []model.Module,
	parts *links.Parts,
) ([][]string, int) {
	counted := make(map[string]bool, len(s.Files))
	for _, f := range s.Files {
		if judged[f.Path] && roles[f.Path].Role != model.RoleTest {
			counted[f.Path] = true
		}
	}
	in := func(p string) bool { return counted[p] }
	dirs := map[string]int{}
	for _, f := range s.Files {
		if in(f.Path) && reading.IsCode(f) {
			dirs[model.FolderOf(f.Path)]++
		}
	}
	below := make([]map[string]int, len(modules))
	for d, n := range dirs {
		for _, i := range parts.Holding(d) {
			if d == modules[i].Path {
				continue
			}
			if below[i] == nil {
				below[i] = map[string]int{}
			}
			below[i][d] = n
		}
	}
	all := sourceRoot(dirs)
	whole, depth := levelsAt(s.Links, all, dirs, in)
	for i := range modules {
		root := modules[i].Path
		if r := sourceRoot(below[i]); model.Within(root, r) {
			root = r
		}
		// A module that holds everything has the levels of the whole.
		if root == all && len(below[i]) == len(dirs) {
			modules[i].Levels = whole
			continue
		}
		modules[i].Levels, _ = levelsAt(parts.Touching[i], root, below[i], in)
	}
	return whole, depth
}

func levelsAt(ls []model.Link, root string, dirs map[string]int, in func(string) bool) ([][]string, int) {
	depth := 1
	for ; depth < 4; depth++ {
		seen, deeper := map[string]bool{}, map[string]bool{}
		for d := range dirs {
			if d != root {
				seen[links.AtDepth(root, d, depth)] = true
				deeper[links.AtDepth(root, d, depth+1)] = true
			}
		}
		if len(seen) >= fewFolders || len(deeper) == len(seen) || len(deeper) > manyFolders {
			break
		}
	}
	return links.FolderLevels(ls, root, depth, in), depth
}
