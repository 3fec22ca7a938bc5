package smells

import (
	"fmt"
	"path"
	"sort"
	"strings"

	"jantel/core/model"
)

var twoFoldersOnePurposeRule = &Rule{
	Slug: "two-folders-one-purpose", Facet: model.Layout, Title: "Two folders for one purpose", Weight: 1, find: twoFolders,
	Question: "Do siblings promise the same?",
	Why:      "Nobody knows which of them to look into, or to add to.",
	Example:  "`utils/` and `helpers/` side by side.",
	Remedy:   "Make one folder of them, or give each a name that says how they differ.",
}

// onePurpose are names of folders that mean the same to most readers.
var onePurpose = [][]string{{
	"util", "utils", "helper", "helpers", "common", "misc",
}, {"type", "types", "interface", "interfaces", "typings"}, {"service", "services", "provider", "providers"},
	{"component", "components", "widget", "widgets"}, {
		"page", "pages", "screen", "screens", "view", "views",
	}, {
		"store", "stores", "state", "reducer", "reducers",
	}, {"test", "tests", "spec", "specs"}, {"doc", "docs", "documentation"}, {"config", "configs", "configuration", "settings"}}

// twoFolders reports siblings whose names promise the same.
func twoFolders(c *Context, _ *Rule) (out []hit) {
	for _, d := range c.Folders {
		for _, words := range onePurpose {
			var same []string
			for _, s := range c.sub[d.Path] {
				for _, w := range words {
					if strings.EqualFold(path.Base(s), w) && len(c.SourceIn(s)) > 0 {
						same = append(same, s)
					}
				}
			}
			if len(same) < 2 {
				continue
			}
			var touches []string
			for _, s := range same {
				touches = append(touches, paths(c.SourceIn(s))...)
			}
			sort.Strings(same)
			out = append(
				out,
				hit{path: d.Path, extra: strings.Join(same, "\x00"), strength: 0.4, touches: touches, evidence: evidence(same, "promises the same"),
					message: fmt.Sprintf("*%s* and *%s* promise the same", path.Base(same[0]), path.Base(same[1]))})
		}
	}
	return out
}
