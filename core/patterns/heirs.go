package patterns

import (
	"maps"
	"regexp"
	"slices"
	"strings"

	"jantel/core/model"
)

// leastBeside is how many heirs beside their base are plugged in.
const leastBeside = 6

// commonBase is what at least three files of a folder, and most of them, build
// upon, "" where that is nothing, and whether it stands among them.
func commonBase(files []*model.File, heirs map[*model.File]map[string]bool) (best string, among bool) {
	count := map[string]int{}
	for _, of := range heirs {
		for b := range of {
			count[b]++
		}
	}
	for b, n := range count {
		if n >= 3 && 5*n >= 3*len(files) && (n > count[best] || n == count[best] && b < best) {
			best = b
		}
	}
	return best, slices.ContainsFunc(files, func(f *model.File) bool {
		return slices.ContainsFunc(f.Facts.Definitions, func(d model.Definition) bool { return best != "" && d.Name == best })
	})
}

// basesOf are what the classes of a file build upon, by their simple names.
func basesOf(f *model.File) map[string]bool {
	out := map[string]bool{}
	if f.Facts == nil {
		return out
	}
	for i := range f.Facts.Definitions {
		addBases(out, &f.Facts.Definitions[i])
	}
	return out
}

// saysMark are marks that make a mark of a class.
var saysMark = regexp.MustCompile(`^\W*(?:[\w.\\]*[.\\])?(?:Attribute|AttributeUsage|Annotation|Retention)\b`)

// addBases adds what a definition builds upon, by simple names. What is put on others as a
// mark is named where it is put, which is no way of plugging it in.
func addBases(to map[string]bool, d *model.Definition) {
	if slices.ContainsFunc(d.Marks, saysMark.MatchString) {
		return
	}
	for _, b := range d.Bases {
		to[b[strings.LastIndexAny(b, ".:\\")+1:]] = true
	}
}

func directly(files []*model.File) map[*model.File]map[string]bool {
	out := make(map[*model.File]map[string]bool, len(files))
	for _, f := range files {
		out[f] = basesOf(f)
	}
	return out
}

// heritage is what the classes of some files build upon, by their simple names: also by
// way of each other.
func heritage(files []*model.File) map[*model.File]map[string]bool {
	upon := map[string]map[string]bool{} // by the name of a class of theirs
	for _, f := range files {
		for i := 0; f.Facts != nil && i < len(f.Facts.Definitions); i++ {
			if d := &f.Facts.Definitions[i]; len(d.Bases) > 0 && d.Kind == model.DefClass {
				bases := map[string]bool{}
				addBases(bases, d)
				upon[d.Name] = bases
			}
		}
	}
	out := map[*model.File]map[string]bool{}
	for _, f := range files {
		all := basesOf(f)
		next := slices.Collect(maps.Keys(all))
		for len(next) > 0 {
			b := next[len(next)-1]
			next = next[:len(next)-1]
			for above := range upon[b] {
				if !all[above] {
					all[above] = true
					next = append(next, above)
				}
			}
		}
		out[f] = all
	}
	return out
}
