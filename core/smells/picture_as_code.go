package smells

import (
	"fmt"
	"sort"

	"jantel/core/model"
)

var pictureAsCodeRule = &Rule{
	Slug: "picture-as-code", Facet: model.Units, Title: "Picture kept as code", Weight: 0.4, find: pictureAsCode,
	Question:   "Are pictures kept as components?",
	Why:        "They are compiled, searched and read like code and are none.",
	Example:    "`icons/` with nine components that each draw one `<svg>`.",
	Remedy:     "Keep them as files of pictures and load them by name.",
	Parameters: []Parameter{{"files", "such files in one folder", 8, 5, 4}},
}

// pictureAsCode reports components that are nothing but a picture.
func pictureAsCode(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "files"))
	byFolder := map[string][]*model.File{}
	for f := range c.Code(".") {
		if c.Role(f.Path) == model.RoleAsset {
			byFolder[model.FolderOf(f.Path)] = append(byFolder[model.FolderOf(f.Path)], f)
		}
	}
	dirs := make([]string, 0, len(byFolder))
	for d := range byFolder {
		dirs = append(dirs, d)
	}
	sort.Strings(dirs)
	for _, d := range dirs {
		if fs := byFolder[d]; len(fs) >= limit {
			out = append(out, hit{
				path: d, extra: "pictures", strength: 0.2 + 0.03*float64(len(fs)-limit), touches: paths(fs),
				evidence: evidence(paths(fs), "draws a picture and nothing else"),
				message:  fmt.Sprintf("%s files are pictures kept as code", capital(number(len(fs)))),
			})
		}
	}
	return out
}
