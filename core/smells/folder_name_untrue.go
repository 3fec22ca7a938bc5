package smells

import (
	"cmp"
	"fmt"
	"maps"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
	"jantel/core/weave"
)

var folderNameUntrueRule = &Rule{
	Slug: "folder-name-untrue", Facet: model.Layout, Title: "Folder whose name promises other contents", Weight: 1,
	Family: familyPlace, find: folderNameUntrue,
	Question:   "Does a folder hold what its name says?",
	Why:        "A reader goes by the names; one that is not true sends everybody the wrong way.",
	Example:    "`desk/src/models/` holds six pages and one type.",
	Remedy:     "Name it for what it holds, or move what does not belong.",
	Parameters: []Parameter{{"files", "files in it whose role can be told", 6, 4, 3}},
}

// folderNameUntrue reports folders named for one role that hold another. The
// name speaks for its role when roles are voted, so what outvotes it is sure. A
// folder named for a machine holds all sorts of things for that machine.
func folderNameUntrue(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "files"))
	for _, d := range c.Folders {
		promised, ok := weave.Words().Folders[strings.Join(naming.Words(d.Name), " ")]
		fs := c.SourceIn(d.Path)
		// A core is the first part of something, of whatever kind; the steps of a store may well
		// be taken by what works on it.
		if !ok || !oneMeaning[strings.ToLower(d.Name)] || len(fs) < limit ||
			strings.EqualFold(d.Name, "core") || stepsTaken.MatchString(d.Path+"/step") {
			continue
		}
		counts := map[model.Role]int{}
		known := 0
		for _, f := range fs {
			if role := c.seen(f.Path); role != "" && role != model.RoleEntry {
				counts[role]++
				known++
			}
		}
		// What the better part of it holds has to be told.
		if known < limit || 2*known < len(fs) || 4*counts[promised] > known {
			continue
		}
		first := slices.SortedFunc(maps.Keys(counts), func(a, b model.Role) int {
			return cmp.Or(cmp.Compare(counts[b], counts[a]), cmp.Compare(a, b))
		})[0]
		if !contrary[first] || near[[2]model.Role{promised, first}] {
			continue
		}
		if 2*counts[first] <= known || belowNamed(d.Path, first) {
			continue
		}
		out = append(out, hit{path: d.Path, strength: 0.3 +
			0.3*float64(counts[first])/float64(known), touches: paths(fs), evidence: rolesOf(c, fs),
			message: fmt.Sprintf(
				"*%s* promises %s, and %d of %d files whose role can be told are %s", d.Name, promised,
				counts[first], known, first,
			)})
	}
	return out
}

// oneMeaning are names of folders that mean one role wherever they stand: others are
// called so for what they are about, or for several things.
var oneMeaning = syntax.Set("views", "pages", "screens", "controllers", "handlers", "resolvers", "models", "entities",
	"repositories", "stores", "dao", "daos", "services", "migrations", "routes", "routers")

// contrary are roles that nobody takes for another: what works for all of them may lie
// in the folder of each.
var contrary = map[model.Role]bool{
	model.RoleHandler: true, model.RoleView: true, model.RoleDataAccess: true, model.RoleModel: true, model.RoleSchema: true,
	model.RoleRouting: true,
}

// near are roles of which one stands for the other under the same words: images are what
// systems are started from as well, an API is what answers as well as what is asked, and
// shapes of data are models.
var near = map[[2]model.Role]bool{
	{model.RoleAsset, model.RoleScript}:       true,
	{model.RoleDataAccess, model.RoleHandler}: true,
	{model.RoleDataAccess, model.RoleRouting}: true,
	{model.RoleModel, model.RoleSchema}:       true,
	{model.RoleSchema, model.RoleModel}:       true,
	{model.RoleHandler, model.RoleRouting}:    true,
	{model.RoleRouting, model.RoleHandler}:    true,
}

// belowNamed reports whether a folder lies in one that is named for a role:
// there its name tells what it is about.
func belowNamed(d string, role model.Role) bool {
	for d = model.FolderOf(d); d != "."; d = model.FolderOf(d) {
		if weave.Words().Folders[strings.Join(naming.Words(path.Base(d)), " ")] == role {
			return true
		}
	}
	return false
}
