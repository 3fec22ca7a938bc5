package weave

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
)

// neutral are names of folders that say where code lies, not which.
var neutral = syntax.Set("src", "lib", "libs", "source", "sources", "include", "app", "main", "java", "kotlin", "internal", "pkg",
	"packages", "code", "com", "org", "libsrc", "libraries", "modules")

// How folders have to lie for their names alone to tell that a codebase is cut by what
// it is about.
const (
	leastTopics   = 4    // so many of them, none of them called for a kind,
	leastOfTopic  = 40   // each with at least one file of so many,
	mostOfTopic   = 0.62 // and none with more than this share of all;
	mostOfKinds   = 0.1  // hardly a file in a folder called for a kind,
	mostOnTop     = 0.3  // and most files in a folder at all
	mostOfPassing = 0.95
)

// named is how the files of a module lie in folders by what those are called.
type named struct {
	passing string         // the folder that nearly all lie in
	topics  map[string]int // files by the name of a folder that is called for no kind
	kinds   map[string]int // by one that is
	top     int            // files in none
}

func namesOf(files []cutFile) named {
	n := named{passing: passed(files), topics: map[string]int{}, kinds: map[string]int{}}
	roles := map[string]map[string]int{}
	for i := range files {
		name := called(files[i].dir, n.passing)
		switch {
		case name == "":
			n.top++
		case isKind(name):
			n.kinds[name]++
		default:
			n.topics[name]++
			if roles[name] == nil {
				roles[name] = map[string]int{}
			}
			roles[name][files[i].role]++
		}
	}
	for name, k := range n.topics {
		if family(roles[name], k) {
			n.kinds[name] = k
			delete(n.topics, name)
		}
	}
	return n
}

// large are the names of folders that hold one file of so many at least, those with most
// files first.
func large(folders map[string]int, of, all int) []string {
	out := slices.DeleteFunc(slices.Sorted(maps.Keys(folders)), func(name string) bool { return folders[name]*of < all })
	slices.SortStableFunc(out, func(a, b string) int { return cmp.Compare(folders[b], folders[a]) })
	return out
}

func sum(folders map[string]int) (n int) {
	for _, k := range folders {
		n += k
	}
	return n
}

// byNames reads the names of the folders that hold the code, the outermost that say
// something: where many lie side by side and none is called for a kind, they are what the
// code is about, whatever the files in them share.
func byNames(files []cutFile, module string) (out model.Cut, ok bool) {
	n := namesOf(files)
	topics, kinds, all := large(n.topics, leastOfTopic, len(files)), sum(n.kinds), float64(len(files))
	if len(topics) < leastTopics || float64(n.topics[topics[0]]) > mostOfTopic*all ||
		float64(kinds) > mostOfKinds*all || float64(n.top) > mostOnTop*all {
		return out, false
	}
	return n.cut(module, topics, n.topics, model.CutByFeature, fmt.Sprintf(
		"%d of %d files lie in %d folders that are called for what they are about, %d in such as are called for a kind",
		sum(n.topics), len(files), len(n.topics), kinds)), true
}

// byNamesOfKinds tells, where the files say nothing, from folders that are called for
// kinds: three that hold half of all.
func byNamesOfKinds(files []cutFile, module string) (out model.Cut, ok bool) {
	n := namesOf(files)
	kinds := large(n.kinds, leastOfTopic, len(files))
	if len(kinds) < 3 || 2*sum(n.kinds) < len(files) {
		return out, false
	}
	return n.cut(module, kinds, n.kinds, model.CutByKind, fmt.Sprintf(
		"%d of %d files lie in %d folders that are called for a kind", sum(n.kinds), len(files), len(n.kinds))), true
}

// cut is the cut that names tell, with the largest of the folders that do.
func (n named) cut(module string, folders []string, files map[string]int, label, why string) model.Cut {
	topics, kinds := sum(n.topics), sum(n.kinds)
	v := round4(float64(topics-kinds) / float64(topics+kinds))
	out := model.Cut{Value: &v, Label: label, Depth: 1 + strings.Count(n.passing, "/")}
	out.Evidence = []model.Evidence{{Path: module, Note: why}}
	for _, name := range folders[:3] {
		holds := fmt.Sprintf("%s holds %d files", name, files[name])
		out.Evidence = append(out.Evidence, model.Evidence{Path: path.Join(module, n.passing), Note: holds})
	}
	return out
}

// passed is the folder that nearly all files lie in, "" where that is the module itself.
func passed(files []cutFile) string {
	in := ""
	for {
		next := map[string]int{}
		for i := range files {
			if rest, ok := below(files[i].dir, in); ok && rest != "" {
				first, _, _ := strings.Cut(rest, "/")
				next[path.Join(in, first)]++
			}
		}
		deeper := ""
		for d, n := range next {
			if float64(n) >= mostOfPassing*float64(len(files)) {
				deeper = d
			}
		}
		if deeper == "" {
			return in
		}
		in = deeper
	}
}

// below is what is left of a folder behind another that it lies in.
func below(dir, in string) (rest string, ok bool) {
	if in == "" {
		return dir, true
	}
	if dir == in {
		return "", true
	}
	return strings.CutPrefix(dir, in+"/")
}

// called is the name of the outermost folder around a file that says something; "" where
// none does.
func called(dir, passing string) string {
	rest, ok := below(dir, passing)
	if !ok {
		rest = dir
	}
	for name := range strings.SplitSeq(rest, "/") {
		if name != "" && !neutral[strings.ToLower(name)] {
			return name
		}
	}
	return ""
}

// isKind reports whether a folder is called by a word of roles.
func isKind(name string) bool {
	switch Words().Folders[strings.Join(naming.Words(name), " ")] {
	case "", model.RoleTest, model.RoleDocs, model.RoleScript:
		return false
	}
	return true
}

// family reports whether most files of a folder build upon the same: such are of one kind,
// whatever it is called.
func family(roles map[string]int, files int) bool {
	for role, n := range roles {
		if strings.HasPrefix(role, heirsOf) && 10*n >= 7*files {
			return true
		}
	}
	return false
}
