package syntax

import (
	"path"
	"strings"
)

// styleEndings are tried where the path of a style sheet has none.
var styleEndings = []string{"", ".css", ".scss", ".sass", ".less", ".pcss"}

// FindStyle is the style sheet that a path means which is written in the folder
// d: as it stands, with an ending, as a part (with "_" before its name), as the
// index of a folder, or below one of the folders around. It is "" for none.
func FindStyle(t *Tree, d, text string) string {
	text, _, _ = strings.Cut(strings.TrimPrefix(text, "~"), "?")
	if strings.Contains(text, "://") || text == "" {
		return ""
	}
	try := func(p string) string {
		dir, base := path.Split(p)
		for _, e := range styleEndings {
			for _, name := range []string{base + e, "_" + base + e} {
				if f := t.File(dir + name); f != nil && (e != "" || path.Ext(name) != "") {
					return f.Path
				}
			}
		}
		for _, name := range []string{"_index.scss", "_index.sass", "index.scss", "index.sass"} {
			if f := t.File(path.Join(p, name)); f != nil {
				return f.Path
			}
		}
		return ""
	}
	if p, ok := Join(d, text); ok {
		if to := try(p); to != "" {
			return to
		}
	}
	if strings.HasPrefix(text, ".") {
		return ""
	}
	found := ""
	Up(d, func(at string) bool {
		if p, ok := Join(at, strings.TrimPrefix(text, "/")); ok {
			found = try(p)
		}
		return found != ""
	})
	return found
}
