package patterns

import (
	"strings"

	"jantel/core/model"
)

// Names of the rings that are drawn where a pattern says rings, the outermost
// first.
const (
	CircleAround = "around the core"
	CircleCore   = "the core"
)

// clearly is from which score on a pattern is taken for granted in a drawing.
const clearly = 60

// Circles tells which ring a file lies in where the leading pattern is rings
// around a core, clearly; nil where it is another. Ports are what the core asks
// through, and lie in it.
func Circles(matches []model.PatternMatch) func(path string) string {
	if len(matches) == 0 || matches[0].Name != "rings" || matches[0].Score < clearly {
		return nil
	}
	for _, a := range matches[0].For {
		if len(a.Evidence) < 2 || a.Evidence[0].Line != 0 {
			continue // a sentence on links, not on the folders side by side
		}
		core, around := []string{a.Evidence[0].Path}, []string{}
		for _, e := range a.Evidence[1:] {
			name := e.Path[strings.LastIndexByte(e.Path, '/')+1:]
			if strings.HasPrefix(strings.ToLower(name), "port") {
				core = append(core, e.Path)
			} else {
				around = append(around, e.Path)
			}
		}
		return func(p string) string {
			for _, d := range core {
				if model.Within(d, p) {
					return CircleCore
				}
			}
			for _, d := range around {
				if model.Within(d, p) {
					return CircleAround
				}
			}
			return ""
		}
	}
	return nil
}
