package weave

import (
	"cmp"
	"maps"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
)

// How features are built here: of which sorts of part, whatever the codebase
// calls them, which of these a feature lacks, and which one is built as most are.

const (
	// leastFeatures is of how many features a usual anatomy can be told.
	leastFeatures = 3
	// leastParts is of how many parts an anatomy is made.
	leastParts = 2
)

// Anatomies gives each feature its parts, those it lacks of the usual ones, and
// marks the specimen: the feature nearest to the usual anatomy.
func Anatomies(features []model.Feature, roles map[string]model.RoleOf) []model.Feature {
	out := slices.Clone(features)
	in := map[string]int{} // part: how many features have it
	several := 0           // features of more than one file: only those are built of parts
	for i := range out {
		if len(out[i].Files) < 2 {
			out[i].Parts = map[string][]string{}
			continue
		}
		several++
		out[i].Parts = partsOf(&out[i], roles)
		for p := range out[i].Parts {
			in[p]++
		}
	}
	// What one feature alone has, or hardly any of many, is no sort of part.
	whole := 0 // features that have parts to speak of
	for i := range out {
		maps.DeleteFunc(out[i].Parts, func(p string, _ []string) bool { return in[p] < max(2, several/10) })
		if len(out[i].Parts) >= leastParts {
			whole++
		}
	}
	var usual []string
	for _, p := range slices.Sorted(maps.Keys(in)) {
		if in[p] >= 2 && 2*in[p] >= whole {
			usual = append(usual, p)
		}
	}
	if whole < leastFeatures || len(usual) < leastParts {
		return out
	}
	best, nearest := -1, 0.0
	for i := range out {
		if len(out[i].Files) < 2 {
			continue
		}
		has := 0
		var missing []string
		for _, p := range usual {
			if len(out[i].Parts[p]) > 0 {
				has++
			} else {
				missing = append(missing, p)
			}
		}
		if 2*has < len(usual) {
			continue // built otherwise: it lacks nothing
		}
		out[i].Missing = missing
		near := float64(has) / float64(len(usual)+len(out[i].Parts)-has)
		// Of several alike the smallest is read the soonest.
		if near > nearest || near == nearest && best >= 0 && len(out[i].Files) < len(out[best].Files) {
			best, nearest = i, near
		}
	}
	if best >= 0 && nearest >= 0.6 {
		out[best].Specimen = true
	}
	return out
}

// partsOf tells the part of each file of a feature: what its name says besides
// the feature, else the folder it lies in where that is called for a kind, else
// its role. Tests are one part.
func partsOf(f *model.Feature, roles map[string]model.RoleOf) map[string][]string {
	parts := map[string][]string{}
	own := append(naming.Words(f.Name), stemWord(strings.Join(naming.Words(f.Name), " ")))
	for _, p := range f.Files {
		part := ""
		switch role := roles[p].Role; role {
		case model.RoleTest:
			part = string(model.RoleTest)
		default:
			if part = besides(p, own); part == "" {
				part = kindFolder(p)
			}
			if part == "" {
				part = string(role)
			}
		}
		if part != "" {
			parts[part] = append(parts[part], p)
		}
	}
	return parts
}

// besides is what a file's name says besides the words of its feature, its last
// word for what follows from a name of many; "" where nothing is left.
func besides(p string, own []string) string {
	base := path.Base(p)
	stem := strings.TrimSuffix(base, path.Ext(base))
	words := slices.DeleteFunc(naming.Words(stem), func(w string) bool {
		return slices.Contains(own, w) || slices.Contains(own, stemWord(w)) || generic[w]
	})
	if len(words) == 0 || len(words) > 2 {
		return ""
	}
	return stemWord(words[len(words)-1])
}

// generic are words of names that are no part.
var generic = syntax.Set("index", "main", "mod", "init", "list", "show", "new", "edit", "create", "update", "delete", "the", "use")

// kindFolder is the innermost folder of a file that is called for a kind.
func kindFolder(p string) string {
	for d := model.FolderOf(p); d != "."; d = model.FolderOf(d) {
		words := naming.Words(path.Base(d))
		if _, is := Words().Folders[strings.Join(words, " ")]; is && len(words) == 1 {
			return stemWord(words[0])
		}
	}
	return ""
}

// InReadingOrder lists the files of a feature from the outside in: by role, then
// by path.
func InReadingOrder(f *model.Feature, roles map[string]model.RoleOf) []string {
	order := map[model.Role]int{}
	for i, r := range model.Roles {
		order[r] = i
	}
	return slices.SortedStableFunc(slices.Values(f.Files), func(a, b string) int {
		return cmp.Or(cmp.Compare(order[roles[a].Role], order[roles[b].Role]), cmp.Compare(a, b))
	})
}
