package weave

import (
	"fmt"
	"maps"
	"path"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
)

// byGrid reads the folders themselves, where they lie in a grid of things and
// kinds: folders called by a word of roles that each hold several things, which
// several of them hold (the same things over and over, one kind each); against
// folders that hold one thing each, after which they are called. Half of the files
// that are about something have to lie in such folders.
func byGrid(files []cutFile, module string) (out model.Cut, ok bool) {
	for d := 1; d <= deepest(files); d++ {
		about := map[string]map[string]int{} // folder: how many files about what
		told := 0
		for i := range files {
			if files[i].feature != "" {
				told++
			}
			if f := &files[i]; len(f.ends) >= d && f.feature != "" {
				at := f.at(d)
				if about[at] == nil {
					about[at] = map[string]int{}
				}
				about[at][f.feature]++
			}
		}
		kinds, inKinds := gridKinds(about)
		things, inThings := gridThings(about)
		if max(len(kinds), len(things)) < 2 || 2*(inKinds+inThings) < told || 4*told < len(files) {
			continue
		}
		v := round4(float64(inThings-inKinds) / float64(inThings+inKinds))
		out = model.Cut{Value: &v, Label: label(v), Depth: d}
		for _, k := range kinds[:min(3, len(kinds))] {
			at := path.Join(module, k)
			out.Evidence = append(out.Evidence, model.Evidence{Path: at, Note: fmt.Sprintf(
				"%s is called for one kind and holds %s", at, thingsOf(about[k]))})
		}
		for _, k := range things[:min(3, len(things))] {
			at := path.Join(module, k)
			out.Evidence = append(out.Evidence, model.Evidence{Path: at, Note: fmt.Sprintf("%s holds what is about %s", at, thingsOf(about[k]))})
		}
		return out, true
	}
	return out, false
}

// gridKinds are folders called by a word of roles that hold two things or more,
// of which each stands in another such folder too, and how many files they hold.
func gridKinds(about map[string]map[string]int) (folders []string, held int) {
	in := map[string]int{} // thing: how many of the folders hold it
	for at, things := range about {
		if isRoleFolder(at) {
			for t := range things {
				in[t]++
			}
		}
	}
	for at, things := range about {
		shared, n := 0, 0
		for t, k := range things {
			if n += k; in[t] > 1 {
				shared++
			}
		}
		if isRoleFolder(at) && shared > 1 {
			folders = append(folders, at)
			held += n
		}
	}
	sort.Strings(folders)
	return folders, held
}

func isRoleFolder(at string) bool {
	_, is := Words().Folders[strings.Join(naming.Words(path.Base(at)), " ")]
	return is
}

// gridThings are folders that hold several files about the one thing that they
// are called after, hardly any about another, and how many files they hold.
func gridThings(about map[string]map[string]int) (folders []string, held int) {
	for at, things := range about {
		n := 0
		for _, k := range things {
			n += k
		}
		for t, k := range things {
			if k > 1 && 4*k >= 3*n && slices.Contains(naming.Words(path.Base(at)), t) ||
				k > 1 && 4*k >= 3*n && stemWord(strings.Join(naming.Words(path.Base(at)), " ")) == t {
				folders = append(folders, at)
				held += n
			}
		}
	}
	sort.Strings(folders)
	return folders, held
}

// thingsOf names the things in a folder, the first three in the order of words.
func thingsOf(things map[string]int) string {
	names := slices.Sorted(maps.Keys(things))
	if len(names) > 3 {
		return strings.Join(names[:3], ", ") + fmt.Sprintf(" and %d more", len(names)-3)
	}
	return strings.Join(names, ", ")
}
