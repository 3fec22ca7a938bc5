package smells

import (
	"fmt"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

var singleFolderChainRule = &Rule{
	Slug: "single-folder-chain", Facet: model.Layout, Title: "Chain of single folders", Weight: 0.6, find: singleFolderChain,
	Question:   "Must a reader open several folders that hold nothing but another folder?",
	Why:        "Each step of such a chain costs a look and tells nothing.",
	Example:    "`press/src/main/labels/` where `src`, `main` each hold one folder and nothing else.",
	Remedy:     "Fold the chain into one folder with the name that says most.",
	Parameters: []Parameter{{"folders", "folders in a row that hold one folder and no file", 3, 2, 2}},
}

func singleFolderChain(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "folders"))
	byPath := map[string]*model.Folder{}
	for _, d := range c.Folders {
		byPath[d.Path] = d
	}
	single := func(d *model.Folder) bool { return d.Path != "." && d.OwnFiles == 0 && len(c.sub[d.Path]) == 1 }
	for _, d := range c.Folders {
		if !single(d) || single(byPath[d.Parent]) || d.JudgedLines == 0 {
			continue
		}
		chain := []string{d.Path}
		at := byPath[c.sub[d.Path][0]]
		for single(at) {
			chain = append(chain, at.Path)
			at = byPath[c.sub[at.Path][0]]
		}
		if len(chain) < limit {
			continue
		}
		var below []string
		byConvention := false
		for _, f := range c.At(d.Path) {
			byConvention = byConvention || syntax.ProfileOf(f.Language).PathPackages
			if c.Judged[f.Path] {
				below = append(below, f.Path)
			}
		}
		if byConvention || len(below) == 0 || installedAt(d.Path) {
			continue
		}
		out = append(out, hit{path: d.Path, strength: 0.2 + 0.15*float64(len(chain)-limit+1),
			message: fmt.Sprintf(
				"%s folders in a row hold nothing but the next: %s", capital(number(len(chain))),
				strings.TrimPrefix(at.Path, d.Parent+"/"),
			),
			evidence: evidence(chain, "holds one folder and no file"), touches: below})
	}
	return out
}

// installedAt reports whether a folder lies where a system installs programs: its
// layout is the system's.
func installedAt(p string) bool { return p == "usr" || strings.HasPrefix(p, "usr/") }
