package smells

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

var namespaceAgainstPathRule = &Rule{
	Slug: "namespace-against-path", Facet: model.Layout, Title: "Namespace against path", Weight: 0.6,
	Habit: true, find: namespaceAgainstPath,
	Question: "Does a file declare another namespace than its folder has?",
	Why:      "Readers and tools derive one from the other; where they differ both are wrong half of the time.",
	Example:  "`archive/import/Lots.java` declares `package moor.tools`.",
	Remedy:   "Move the file, or declare the namespace of the folder.",
}

// fewAgainst is up to how many files may be against their folders without that being how
// they are laid out.
const fewAgainst = 10

// namespaceAgainstPath reports files whose declared namespace does not end as
// their folders do.
func namespaceAgainstPath(c *Context, _ *Rule) (out []hit) {
	asked, against := map[string]int{}, map[string]int{} // files, by language
	defer func() {
		// Where most are so, folders follow another rule, and none of them breaks it.
		out = slices.DeleteFunc(out, func(h hit) bool {
			l := c.Survey.File(h.path).Language
			return against[l] > fewAgainst && 2*against[l] > asked[l]
		})
	}()
	for f := range c.Own(".") {
		if f.Facts.Namespace == "" || c.IsTest(f.Path) {
			continue
		}
		habit := syntax.ProfileOf(f.Language)
		if habit.Namespace == "" {
			continue
		}
		asked[f.Language]++
		parts := strings.Split(f.Facts.Namespace, habit.Namespace)
		last := parts[len(parts)-1]
		folder := path.Base(model.FolderOf(f.Path))
		if strings.EqualFold(last, folder) || len(parts) < 2 || folder == "." {
			continue
		}
		// The top folder of a project may stand for the whole root.
		holds := false
		for _, d := range strings.Split(model.FolderOf(f.Path), "/") {
			holds = holds || strings.EqualFold(d, last)
		}
		if !holds && !habit.NamespaceIsPath {
			continue
		}
		against[f.Language]++
		out = append(out, hit{
			path: f.Path, line: 1, strength: 0.3, touches: []string{f.Path},
			message:  fmt.Sprintf("Its namespace ends in *%s*, its folder is *%s*", last, folder),
			evidence: []model.Evidence{{Path: f.Path, Line: 1, Note: f.Facts.Namespace}},
		})
	}
	return out
}
