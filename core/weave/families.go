package weave

import (
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
)

// heirsOf begins what stands for the kind of files that build upon the same.
const heirsOf = "heirs of "

// leastHeirs is from how many files on that build upon the same they are a sort of part.
const leastHeirs = 4

// families are the files that build upon what several others build upon as well, each
// with its name: of files that work, that says more of their kind than that they do. Of
// several bases the one that most files build upon is taken.
func (a *Aim) families(roles map[string]model.Role) map[string]string {
	heirs := map[string]int{}
	bases := func(f *model.File) (all []string) {
		switch roles[f.Path] {
		case "", model.RoleLogic, model.RoleStructure, model.RoleFormat, model.RoleHelper:
		default:
			return nil
		}
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			if d.Kind != model.DefClass || d.Parent != "" {
				continue
			}
			for _, b := range d.Bases {
				if b = naming.Own(b); !everyones[strings.ToLower(b)] && !slices.Contains(all, b) {
					all = append(all, b)
				}
			}
		}
		return all
	}
	for _, f := range a.files {
		for _, b := range bases(f) {
			heirs[b]++
		}
	}
	out := map[string]string{}
	for _, f := range a.files {
		best := ""
		for _, b := range bases(f) {
			if heirs[b] >= leastHeirs && (best == "" || heirs[b] > heirs[best] || heirs[b] == heirs[best] && b < best) {
				best = b
			}
		}
		if best != "" {
			out[f.Path] = best
		}
	}
	return out
}

// everyones are bases that a language gives everybody, in small letters.
var everyones = syntax.Set("object", "exception", "error", "runtimeexception", "enum", "abc", "namedtuple", "dict", "list", "str", "int",
	"serializable", "comparable", "cloneable", "runnable", "iterable", "iterator", "closeable", "autocloseable", "countable", "arrayaccess",
	"jsonserializable", "throwable", "idisposable", "qobject", "gobject", "thread")
