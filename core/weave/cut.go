package weave

import (
	"fmt"
	"maps"
	"math"
	"path"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/parallel"
	"jantel/core/reading"
	"jantel/core/syntax"
)

// cutFile is a file as the cut sees it: what it is about and what kind it is,
// both told without its folders and "" where nothing tells, and where it lies.
type cutFile struct {
	path          string
	feature, role string
	kind          string // its role as evidence in it tells, "" where that is assumed
	text          bool   // program text, not what it only draws with
	dir           string // below the module; "" for the module itself
	ends          []int  // where the folders on the way end in dir, from the top
}

// at is the folder the file lies in, cut off at a depth.
func (f *cutFile) at(depth int) string {
	if d := min(depth, len(f.ends)); d > 0 {
		return f.dir[:f.ends[d-1]]
	}
	return ""
}

// below is the file as a folder sees it that it lies in.
func (f cutFile) below(module string) cutFile {
	d := model.FolderOf(f.path)
	if d == module || d == "." {
		d = ""
	} else if module != "." {
		d = strings.TrimPrefix(d, module+"/")
	}
	f.dir, f.ends = d, nil
	for i := range d {
		if d[i] == '/' {
			f.ends = append(f.ends, i)
		}
	}
	if d != "" {
		f.ends = append(f.ends, len(d))
	}
	return f
}

// Cuts tells how each module is cut, and the whole codebase over all of its
// files: that projects lie side by side is part of how it is cut.
func (a *Aim) Cuts(ls []model.Link, modules []model.Module) ([]model.Module, model.Cut) {
	files := a.cutFiles(ls)
	var projects []string
	for _, m := range modules {
		if m.Project {
			projects = append(projects, m.Path)
		}
	}
	byModule := map[string][]cutFile{}
	for _, f := range files {
		m := moduleOf(projects, f.path)
		byModule[m] = append(byModule[m], f.below(m))
	}
	whole := make([]cutFile, len(files))
	for i, f := range files {
		whole[i] = f.below(".")
	}
	// Of several projects the folders are parts, whatever they are called.
	all := cutOf(whole, ".", len(byModule) < 2)
	all.Levels = otherwise(files, all.Label)
	out := slices.Clone(modules)
	for i, m := range modules {
		switch {
		case m.Path == "." && len(byModule) < 2:
			out[i].Cut = all
		case m.Path == "." || m.Project:
			out[i].Cut = cutOf(byModule[m.Path], m.Path, true)
		}
		if c := out[i].Cut; c.Value != nil && m.Path != "." && all.Value != nil && c.Label != all.Label {
			all.Evidence = append(all.Evidence, model.Evidence{Path: m.Path, Note: fmt.Sprintf("%s alone is cut %s", m.Path, c.Label)})
		}
	}
	return out, all
}

const (
	// mostLevels bounds how many folders are named that are cut otherwise.
	mostLevels = 8
	// levelFiles is from how many files on a folder is asked for itself.
	levelFiles = 12
)

// otherwise asks the folders of the first two levels for themselves and names
// those that are cut otherwise than the whole, the outermost and largest first.
func otherwise(files []cutFile, whole string) []model.CutLevel {
	held := map[string][]cutFile{}
	for _, f := range files {
		for up := model.FolderOf(f.path); up != "."; up = model.FolderOf(up) {
			if strings.Count(up, "/") < 2 {
				held[up] = append(held[up], f.below(up))
			}
		}
	}
	folders := slices.DeleteFunc(slices.Sorted(maps.Keys(held)), func(d string) bool { return len(held[d]) < levelFiles })
	cuts := make([]model.Cut, len(folders))
	parallel.Each(len(folders), func(i int) { cuts[i] = cutOf(held[folders[i]], folders[i], true) })
	label := map[string]string{".": whole}
	out := []model.CutLevel{}
	for i, d := range folders {
		if label[d] = cuts[i].Label; cuts[i].Value == nil {
			label[d] = label[model.FolderOf(d)] // as what lies around it
			continue
		}
		// What all of a folder's files share says nothing new of the folder around.
		if cuts[i].Label != label[model.FolderOf(d)] {
			out = append(out, model.CutLevel{Path: d, Label: cuts[i].Label, Value: *cuts[i].Value})
		}
	}
	slices.SortStableFunc(out, func(a, b model.CutLevel) int { return len(held[b.Path]) - len(held[a.Path]) })
	return out[:min(mostLevels, len(out))]
}

// cutFiles are the files of program text that are no tests, with what their own
// names, contents and neighbours say of them.
func (a *Aim) cutFiles(ls []model.Link) []cutFile {
	roles, features := map[string]model.Role{}, map[string]string{}
	asked := make([]bool, len(a.files))
	told := make([]cutFile, len(a.files))
	parallel.Each(len(a.files), func(i int) {
		if f := a.files[i]; a.roles[f.Path].Role != model.RoleTest {
			asked[i] = true
			told[i] = cutFile{path: f.Path, feature: a.named(f, a.known), role: string(a.lex.alone(f, a.polls)), text: reading.IsCode(f)}
			if r := a.roles[f.Path]; r.Source == model.RoleSeen {
				told[i].kind = string(r.Role)
			}
		}
	})
	for i, f := range told {
		if asked[i] {
			roles[f.path], features[f.path] = model.Role(f.role), f.feature
		}
	}
	neighbours(ls, roles, features)
	for p, base := range a.families(roles) {
		roles[p] = model.Role(heirsOf + base)
	}
	out := make([]cutFile, 0, len(told))
	for i, f := range told {
		if r := roles[f.path]; asked[i] && r != model.RoleTest {
			f.role, f.feature = string(r), features[f.path]
			// Programs and scripts lie in folders of their own however the rest is cut.
			if apart[r] {
				f.role = ""
			}
			if apart[model.Role(f.kind)] {
				f.kind = ""
			}
			out = append(out, f)
		}
	}
	return out
}

// apart are kinds that lie in folders of their own whatever the plan.
var apart = map[model.Role]bool{model.RoleEntry: true, model.RoleScript: true}

// neighbours fills in what dependencies tell of files that say nothing
// themselves: what stands between those that answer and those that store is
// logic, and a file is about what most of its neighbours are about.
func neighbours(ls []model.Link, roles map[string]model.Role, features map[string]string) {
	uses, usedBy := map[string][]string{}, map[string][]string{}
	for _, l := range ls {
		if !l.Kind.Repeats() {
			uses[l.From] = append(uses[l.From], l.To)
			usedBy[l.To] = append(usedBy[l.To], l.From)
		}
	}
	logic, about := []string{}, map[string]string{}
	for p, r := range roles {
		if r == "" {
			above, below := false, false
			for _, q := range usedBy[p] {
				above = above || roles[q] == model.RoleHandler || roles[q] == model.RoleRouting || roles[q] == model.RoleView
			}
			for _, q := range uses[p] {
				below = below || roles[q] == model.RoleDataAccess || roles[q] == model.RoleModel
			}
			if above && below || below && len(usedBy[p]) > 0 && roles[p] == "" && dataBelow(uses[p], roles) {
				logic = append(logic, p)
			}
		}
		if features[p] == "" {
			n, total := map[string]int{}, 0
			for _, q := range append(append([]string(nil), uses[p]...), usedBy[p]...) {
				if f := features[q]; f != "" {
					n[f]++
					total++
				}
			}
			for f, k := range n {
				if k >= 2 && 3*k >= 2*total {
					about[p] = f
				}
			}
		}
	}
	for _, p := range logic {
		roles[p] = model.RoleLogic
	}
	for p, f := range about {
		features[p] = f
	}
}

// dataBelow reports whether a file needs what reads or writes a store.
func dataBelow(uses []string, roles map[string]model.Role) bool {
	for _, q := range uses {
		if roles[q] == model.RoleDataAccess {
			return true
		}
	}
	return false
}

func label(v float64) string {
	switch {
	case v > 0.2:
		return model.CutByFeature
	case v < -0.2:
		return model.CutByKind
	}
	return model.CutMixed
}

const (
	// leastPairs is the number of pairs of a sort below which nothing is told.
	leastPairs = 10
	// leastOver is what pairs have to be over others, at least on one side.
	leastOver = 0.1
	// leastFiles is below how many files there is nothing to be cut.
	leastFiles = 5
	// one folder that holds more than this leaves nothing to be cut.
	mostTogether = 0.7
)

// cutOf tells how files are cut: from pairs that share what they are about or
// their kind, where there are enough; else from folders built alike; else from
// one of the two sides alone.
//
// Program text is asked first; where that says nothing, what it draws with as
// well. names says that what folders are called may tell.
func cutOf(all []cutFile, module string, names bool) model.Cut {
	files := slices.DeleteFunc(slices.Clone(all), func(f cutFile) bool { return !f.text })
	out := cutOfThese(files, module, names)
	if out.Value == nil && len(files) < len(all) {
		return cutOfThese(all, module, names)
	}
	return out
}

func cutOfThese(files []cutFile, module string, names bool) model.Cut {
	none := model.Cut{Evidence: []model.Evidence{}}
	if len(files) < leastFiles {
		return none
	}
	own := map[string]int{}
	for i := range files {
		own[files[i].dir]++
		if float64(own[files[i].dir]) > mostTogether*float64(len(files)) {
			return none
		}
	}
	for _, way := range []func([]cutFile, string) (model.Cut, bool){byPairs, byGrid, byAnatomy, byOneSide} {
		if c, ok := way(files, module); ok {
			if names && c.Label != model.CutByFeature {
				if named, told := byNames(files, module); told {
					return named
				}
			}
			if c.Label == model.CutByFeature && inside(files, c.Depth) >= 0.2 {
				c.Label = model.CutInside
			}
			return ofKinds(files, module, c)
		}
	}
	if names {
		if kinds, told := byNamesOfKinds(files, module); told {
			return kinds
		}
	}
	return none
}

func deepest(files []cutFile) (d int) {
	for i := range files {
		d = max(d, len(files[i].ends))
	}
	return d
}

// byPairs compares, for each depth, how often files lie together that are about
// the same and of different kinds, with how often those do that are of the same
// kind and about different things, both above what files do that share neither.
// The outermost depth that tells most is taken. It has to tell as much without the one
// feature, or the one kind, that brings most files together: one large folder is no plan.
func byPairs(files []cutFile, module string) (out model.Cut, ok bool) {
	both := make([]cutFile, 0, len(files))
	for _, f := range files {
		if f.feature != "" && f.role != "" {
			both = append(both, f)
		}
	}
	bestX, bestY := 0.0, 0.0
	var feature, role pairs
	counted := pairsOf(both)
	for d := 1; d <= deepest(both); d++ {
		at := counted.at(d)
		if at.feature.all < leastPairs || at.role.all < leastPairs {
			return out, false
		}
		x := min(at.feature.over(at.neither, len(both)), at.feature.less(at.mostFeature).over(at.neither, len(both)))
		y := min(at.role.over(at.neither, len(both)), at.role.less(at.mostRole).over(at.neither, len(both)))
		if max(x, y) > max(bestX, bestY) {
			bestX, bestY, out.Depth, feature, role = x, y, d, at.feature, at.role
		}
	}
	if max(bestX, bestY) < leastOver {
		return out, false
	}
	v := round4((bestX - bestY) / (bestX + bestY))
	out.Value, out.Label = &v, label(v)
	out.Evidence = []model.Evidence{
		{Path: module, Note: fmt.Sprintf(
			"of %s pairs of files about the same and of different kinds, %s lie in one folder", feature.figures()...)},
		{Path: module, Note: fmt.Sprintf(
			"of %s pairs of files of the same kind and about different things, %s lie in one folder", role.figures()...)},
	}
	return out, true
}

func featureOf(f *cutFile) string { return f.feature }
func roleOf(f *cutFile) string    { return f.role }

// byOneSide is asked where too few files are told both ways. One folder where
// things of one kind lie is no plan: three kinds, or three features, have to lie
// together.
func byOneSide(files []cutFile, module string) (out model.Cut, ok bool) {
	bestX, bestY := 0.0, 0.0
	var feature, role pairs
	for d := 1; d <= deepest(files); d++ {
		sameFeature, x, _ := aside(files, featureOf, d)
		sameRole, all, less := aside(files, roleOf, d)
		y := min(all, less) // a folder that holds most of one kind is no plan
		if max(x, y) > max(bestX, bestY) {
			bestX, bestY, out.Depth, feature, role = x, y, d, sameFeature, sameRole
		}
	}
	if max(bestX, bestY) < leastOver {
		return out, false
	}
	v := round4((bestX - bestY) / (bestX + bestY))
	out.Value, out.Label = &v, label(v)
	if bestX > 0 {
		out.Evidence = append(out.Evidence, model.Evidence{Path: module, Note: fmt.Sprintf(
			"of %s pairs of files about the same, %s lie in one folder, whatever their kinds", feature.figures()...)})
	}
	if bestY > 0 {
		out.Evidence = append(out.Evidence, model.Evidence{Path: module, Note: fmt.Sprintf(
			"of %s pairs of files of the same kind, %s lie in one folder, whatever they are about", role.figures()...)})
	}
	return out, true
}

// aside is by how much more often files lie together that share one thing, whatever else
// they are; and how much that is without the thing that brings most together.
func aside(files []cutFile, what func(*cutFile) string, depth int) (of pairs, all, less float64) {
	known := 0
	for i := range files {
		if what(&files[i]) != "" {
			known++
		}
	}
	same, most, others, things := alike(files, what, depth)
	if things < 3 {
		return same, 0, 0
	}
	return same, same.over(others, known), same.less(most).over(others, known)
}

// prescribed are names that a language or its tools give files, whatever they
// are for.
var prescribed = syntax.Set(
	"index", "main", "init", "mod", "lib", "types", "doc", "package info", "readme", "style", "styles", "test", "tests",
)

// byAnatomy tells folders side by side that are built alike: three of them or
// more share two names of files, the folder's own name left out, and hold half
// of all files.
func byAnatomy(files []cutFile, module string) (out model.Cut, ok bool) {
	for d := 1; d <= deepest(files); d++ {
		stems, size := map[string]map[string]int{}, map[string]int{}
		for i := range files {
			f := &files[i]
			if len(f.ends) < d {
				continue
			}
			at := f.at(d)
			size[at]++
			if stem := anatomical(f, at); stem != "" {
				if stems[at] == nil {
					stems[at] = map[string]int{}
				}
				stems[at][stem]++
			}
		}
		if built, held := builtAlike(stems, size); len(built) > 2 && 2*held >= len(files) {
			v := 1.0
			out = model.Cut{Value: &v, Label: model.CutByFeature, Depth: d}
			for _, b := range built[:min(3, len(built))] {
				at := path.Join(module, b)
				out.Evidence = append(out.Evidence, model.Evidence{Path: at, Note: fmt.Sprintf(
					"%s is one of %d folders built alike, with %d of %d files", at, len(built), held, len(files))})
			}
			return out, true
		}
	}
	return out, false
}

// anatomical is the name of a file without its folder's and what it is about, in
// words; "" where it is one that tools prescribe, or nothing is left: things of
// one name in several folders make those kinds, not parts built alike.
func anatomical(f *cutFile, folder string) string {
	around := append(naming.Words(path.Base(folder)), naming.Words(f.feature)...)
	base := path.Base(f.path)
	words := slices.DeleteFunc(naming.Words(strings.TrimSuffix(base, path.Ext(base))), func(w string) bool {
		return slices.Contains(around, w) || slices.Contains(around, w+"s")
	})
	if stem := strings.Join(words, " "); !prescribed[stem] {
		return stem
	}
	return ""
}

// builtAlike are the folders that share two names with two others beside them,
// and how many files they hold. A name that stands for a part stands once in a
// folder: where it is there for several things, they were thrown together.
func builtAlike(stems map[string]map[string]int, size map[string]int) (built []string, held int) {
	beside := map[[2]string]int{} // folder above, stem: how many have it
	for d, has := range stems {
		for s := range has {
			beside[[2]string{path.Dir(d), s}]++
		}
	}
	for d, has := range stems {
		once, often := 0, 0
		for s, n := range has {
			switch {
			case beside[[2]string{path.Dir(d), s}] < 3:
			case n == 1:
				once++
			default:
				often++
			}
		}
		if once > 1 && often == 0 {
			built = append(built, d)
			held += size[d]
		}
	}
	sort.Strings(built)
	return built, held
}

// inside is how much more often files of one kind share their innermost folder
// than files of different kinds do, within the folders at the depth.
func inside(files []cutFile, depth int) float64 {
	byTop := map[string][]cutFile{}
	for _, f := range files {
		byTop[f.at(depth)] = append(byTop[f.at(depth)], f)
	}
	var same, other pairs
	for _, fs := range byTop {
		s, _, o, _ := alike(fs, roleOf, math.MaxInt)
		same = pairs{same.all + s.all, same.together + s.together}
		other = pairs{other.all + o.all, other.together + o.together}
	}
	return round4(same.share() - other.share())
}
