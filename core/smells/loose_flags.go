package smells

import (
	"fmt"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
)

var looseFlagsRule = &Rule{
	Slug: "loose-flags", Facet: model.Units, Title: "Life cycle in loose flags", Weight: 0.9, find: looseFlags,
	Question:   "Does something keep where it stands in several flags instead of one state?",
	Why:        "Four flags have sixteen combinations of which five are meant; the others are reached one day.",
	Example:    "A meter with `isReading`, `hasRead`, `hasFailed` and `wasMoved`.",
	Remedy:     "Name the states and keep one of them; what is allowed then can be seen.",
	Parameters: []Parameter{{"flags", "flags of one owner that are set as it goes on", 6, 4, 3}},
}

func looseFlags(c *Context, r *Rule) (out []hit) {
	least := int(c.Value(r, "flags"))
	c.source(func(f *model.File) {
		by := map[string][]model.Flag{}
		for _, x := range f.Facts.Flags {
			if x.Sets > 0 && tellsProgress(x.Name) {
				by[x.Owner] = append(by[x.Owner], x)
			}
		}
		for owner, flags := range by {
			if len(flags) < least {
				continue
			}
			sort.Slice(flags, func(i, j int) bool { return flags[i].Line < flags[j].Line })
			var ev []model.Evidence
			var names []string
			for _, x := range flags[:min(12, len(flags))] {
				ev = append(ev, model.Evidence{Path: f.Path, Line: x.Line, Note: x.Name})
				names = append(names, "*"+strings.TrimLeft(x.Name, "_$@")+"*")
			}
			out = append(out, hit{
				path: f.Path, line: flags[0].Line, name: owner, strength: 0.4 + 0.08*float64(len(flags)-least),
				touches: []string{f.Path}, evidence: ev,
				message: fmt.Sprintf("*%s* keeps where it stands in %s flags: %s",
					owner, number(len(flags)), strings.Join(names[:min(5, len(names))], ", ")),
			})
		}
	})
	return out
}

// whatItIs are words for what a thing is or can, however far it has come.
var whatItIs = syntax.Set("enabled", "disabled", "required", "supported", "needed", "allowed", "shared", "fixed", "nested", "sorted")

// states are words for how far it has come that do not end like those.
var states = syntax.Set("active", "busy", "idle", "dirty", "alive", "dead", "shut", "stale", "dry", "full", "on")

// irregular are participles that do not end as most do.
var irregular = syntax.Set("read", "sent", "put", "set", "begun", "gone", "come", "made", "taken", "left", "lost", "found", "met", "kept",
	"built", "cut", "hit", "run", "seen", "shown", "known", "given", "sown", "thrown", "drawn", "written", "broken")

// tellsProgress reports whether a flag is named for how far something has come,
// not for what it is: is reading, has failed, loaded.
func tellsProgress(name string) bool {
	w := naming.Words(name)
	if len(w) == 0 {
		return false
	}
	last := w[len(w)-1]
	if strings.HasSuffix(last, "ing") || strings.HasSuffix(last, "ed") || last == "done" || last == "open" || last == "ready" {
		return !whatItIs[last]
	}
	switch w[0] {
	case "is", "has", "was", "did", "had":
		return len(w) > 1 && (states[last] || irregular[last])
	}
	return states[last]
}
