package weave

import (
	"fmt"
	"path"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/parallel"
	"jantel/core/reading"
)

// cutFile is a file as the cut sees it: what it is about and what kind it is,
// both told without its folders, and where it lies.
type cutFile struct {
	feature string
	role    model.Role
	dirs    []string // below the module, from the top
}

// Cuts tells how each module is cut, and the whole codebase as its modules are
// by files.
func (a *Aim) Cuts(ls []model.Link, modules []model.Module) ([]model.Module, model.Cut) {
	names, roles := a.known, a.roles
	byModule := map[string][]cutFile{}
	bareRoles, bareFeatures := map[string]model.Role{}, map[string]string{}
	type bare struct {
		role    model.Role
		feature string
	}
	bares := make([]*bare, len(a.files))
	parallel.Each(len(a.files), func(i int) {
		if f := a.files[i]; reading.IsCode(f) && roles[f.Path].Role != model.RoleTest {
			// The role again, without what its folders say of it.
			alone := *f
			alone.Path = path.Base(f.Path)
			bares[i] = &bare{a.lex.Role(&alone).Role, a.named(f, names)}
		}
	})
	for i, b := range bares {
		if b != nil {
			bareRoles[a.files[i].Path], bareFeatures[a.files[i].Path] = b.role, b.feature
		}
	}
	neighbours(ls, bareRoles, bareFeatures)
	// Folders without a project file of their own are cut as one: that they lie
	// side by side is part of how it is cut.
	var projects []string
	for _, m := range modules {
		if m.Project {
			projects = append(projects, m.Path)
		}
	}
	for _, f := range a.files {
		if !reading.IsCode(f) || roles[f.Path].Role == model.RoleTest {
			continue
		}
		role, feature := bareRoles[f.Path], bareFeatures[f.Path]
		if role == "" || feature == "" || role == model.RoleTest {
			continue
		}
		m := moduleOf(projects, f.Path)
		rel := model.FolderOf(f.Path)
		if m != "." {
			rel = strings.TrimPrefix(strings.TrimPrefix(rel, m), "/")
		}
		var dirs []string
		if rel != "." && rel != "" {
			dirs = strings.Split(rel, "/")
		}
		byModule[m] = append(byModule[m], cutFile{feature, role, dirs})
	}
	out := make([]model.Module, len(modules))
	weight, sum := 0, 0.0
	labels := map[string]int{}
	var ev []model.Evidence
	count := func(c model.Cut, m model.Module) {
		if c.Value != nil {
			n := len(byModule[m.Path])
			weight += n
			sum += *c.Value * float64(n)
			labels[c.Label] += n
			ev = append(ev, model.Evidence{Path: m.Path, Note: fmt.Sprintf("%s is cut %s", name(m), c.Label)})
		}
	}
	rest := cutOf(byModule["."], ".")
	own := false
	for i, m := range modules {
		out[i] = m
		switch {
		case m.Path == ".":
			out[i].Cut, own = rest, true
		case m.Project:
			out[i].Cut = cutOf(byModule[m.Path], m.Path)
		}
		count(out[i].Cut, m)
	}
	if !own {
		count(rest, model.Module{Path: "."})
	}
	if len(projects) == 0 || len(modules) == 1 {
		return out, rest
	}
	whole := model.Cut{Evidence: []model.Evidence{}}
	if weight > 0 {
		v := round4(sum / float64(weight))
		whole.Value, whole.Evidence = &v, ev
		whole.Label = label(v)
		if whole.Label == model.CutByFeature && labels[model.CutInside] > labels[model.CutByFeature] {
			whole.Label = model.CutInside
		}
	}
	return out, whole
}

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

func name(m model.Module) string {
	if m.Path == "." {
		return "the codebase"
	}
	return m.Path
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

// pairs counts pairs of files, all and those that lie together.
type pairs struct{ all, together int }

func (p pairs) share() float64 {
	if p.all == 0 {
		return 0
	}
	return float64(p.together) / float64(p.all)
}

// leastPairs is the number of pairs of a sort below which nothing is told.
const leastPairs = 10

// cutOf compares, for each depth, how often files lie together that are about
// the same and of different kinds, with how often those do that are of the same
// kind and about different things, both above what files do that share
// neither. The depth that tells most is taken.
func cutOf(files []cutFile, module string) model.Cut {
	none := model.Cut{Evidence: []model.Evidence{}}
	if len(files) < 5 {
		return none
	}
	deepest := 0
	for _, f := range files {
		deepest = max(deepest, len(f.dirs))
	}
	best, bestX, bestY, bestDepth := 0.0, 0.0, 0.0, 0
	var bestSame [2]pairs
	for d := 1; d <= deepest; d++ {
		sameFeature, sameRole, neither := count2(files, func(f cutFile) string { return strings.Join(f.dirs[:min(d, len(f.dirs))], "/") })
		if sameFeature.all < leastPairs || sameRole.all < leastPairs {
			return none
		}
		a, b, c := sameFeature.share(), sameRole.share(), neither.share()
		x, y := round4(max(0, a-c)), round4(max(0, b-c))
		if m := max(x, y); m > best {
			best, bestX, bestY, bestDepth, bestSame = m, x, y, d, [2]pairs{sameFeature, sameRole}
		}
	}
	if best < 0.1 {
		return none
	}
	v := round4((bestX - bestY) / (bestX + bestY))
	out := model.Cut{Value: &v, Label: label(v), Depth: bestDepth, Evidence: []model.Evidence{
		{
			Path: module,
			Note: fmt.Sprintf(
				"of %d pairs of files about the same and of different kinds, %d lie in one folder", bestSame[0].all,
				bestSame[0].together,
			),
		},
		{
			Path: module,
			Note: fmt.Sprintf(
				"of %d pairs of files of the same kind and about different things, %d lie in one folder",
				bestSame[1].all, bestSame[1].together,
			),
		},
	}}
	if out.Label == model.CutByFeature && inside(files, bestDepth) >= 0.2 {
		out.Label = model.CutInside
	}
	return out
}

// count2 counts the pairs that share a feature but not a role, a role but not a
// feature, and neither, from the sizes of groups.
func count2(files []cutFile, folder func(cutFile) string) (sameFeature, sameRole, neither pairs) {
	type key struct{ folder, feature, role string }
	n := map[key]int{}
	for _, f := range files {
		d, r := folder(f), string(f.role)
		n[key{"\x00", "", ""}]++
		n[key{"\x00", f.feature, ""}]++
		n[key{"\x00", "", r}]++
		n[key{"\x00", f.feature, r}]++
		n[key{d, "", ""}]++
		n[key{d, f.feature, ""}]++
		n[key{d, "", r}]++
		n[key{d, f.feature, r}]++
	}
	var all, feature, role, both pairs
	for k, c := range n {
		two := c * (c - 1) / 2
		var p *pairs
		switch {
		case k.feature == "" && k.role == "":
			p = &all
		case k.role == "":
			p = &feature
		case k.feature == "":
			p = &role
		default:
			p = &both
		}
		if k.folder == "\x00" {
			p.all += two
		} else {
			p.together += two
		}
	}
	sub := func(a, b pairs) pairs { return pairs{a.all - b.all, a.together - b.together} }
	sameFeature, sameRole = sub(feature, both), sub(role, both)
	neither = sub(sub(sub(all, both), sameFeature), sameRole)
	return sameFeature, sameRole, neither
}

// inside is how much more often files of one kind share their innermost folder
// than files of different kinds do, within the folders at the depth.
func inside(files []cutFile, depth int) float64 {
	byTop := map[string][]cutFile{}
	for _, f := range files {
		top := strings.Join(f.dirs[:min(depth, len(f.dirs))], "/")
		byTop[top] = append(byTop[top], f)
	}
	var same, other pairs
	tops := make([]string, 0, len(byTop))
	for t := range byTop {
		tops = append(tops, t)
	}
	sort.Strings(tops)
	for _, t := range tops {
		type key struct{ folder, role string }
		n := map[key]int{}
		for _, f := range byTop[t] {
			d := strings.Join(f.dirs, "/")
			n[key{"\x00", ""}]++
			n[key{"\x00", string(f.role)}]++
			n[key{d, ""}]++
			n[key{d, string(f.role)}]++
		}
		var all, role pairs
		for k, c := range n {
			two := c * (c - 1) / 2
			p := &role
			if k.role == "" {
				p = &all
			}
			if k.folder == "\x00" {
				p.all += two
			} else {
				p.together += two
			}
		}
		same.all += role.all
		same.together += role.together
		other.all += all.all - role.all
		other.together += all.together - role.together
	}
	return round4(same.share() - other.share())
}

// moduleOf is the innermost module that holds a path.
func moduleOf(modules []string, p string) string {
	best := "."
	for _, m := range modules {
		if m != "." && model.Within(m, p) && len(m) > len(best) {
			best = m
		}
	}
	return best
}

// projectTools are the tools whose project file makes a folder a module.
var projectTools = map[string]bool{
	"npm": true, "go": true, "python": true, "composer": true, "maven": true, "gradle": true, "cargo": true,
	"msbuild": true, "bundler": true, "godot": true, "perl": true,
}

// Modules are the folders with a project file, and where files lie in none, the
// top folders below the source root.
func Modules(s *model.Survey, judged map[string]bool) []model.Module {
	at := map[string]string{}
	for _, f := range s.Files {
		if f.Facts != nil && f.Facts.Project != nil && projectTools[f.Facts.Project.Tool] && f.Skipped == "" && !exampleOf(f.Path) {
			d := model.FolderOf(f.Path)
			if at[d] == "" {
				at[d] = f.Facts.Project.Name
				if at[d] == "" {
					at[d] = path.Base(d)
				}
			}
		}
	}
	paths := make([]string, 0, len(at))
	projects := map[string]bool{}
	for p := range at {
		paths = append(paths, p)
		projects[p] = true
	}
	files := map[string]int{}
	loose := map[string]int{}
	for _, f := range s.Files {
		if !judged[f.Path] || !reading.IsCode(f) {
			continue
		}
		m := moduleOf(paths, f.Path)
		if m == "." && at["."] == "" {
			loose[model.FolderOf(f.Path)]++
			continue
		}
		files[m]++
	}
	// A workspace's own project file at the top holds little besides.
	root := "."
	if len(loose) > 0 {
		root = sourceRoot(loose)
		for d, n := range loose {
			m := d
			switch {
			case !model.Within(root, d) || d == root:
				m = root
			default:
				rest := strings.TrimPrefix(d, root+"/")
				if root == "." {
					rest = d
				}
				first, _, _ := strings.Cut(rest, "/")
				m = path.Join(root, first)
			}
			files[m] += n
			if at[m] == "" {
				at[m] = path.Base(m)
			}
		}
	}
	out := []model.Module{}
	for m, n := range files {
		name := at[m]
		if m == "." {
			name = s.Codebase
		}
		out = append(out, model.Module{Path: m, Name: name, Project: projects[m], Files: n, Cut: model.Cut{Evidence: []model.Evidence{}}})
	}
	sort.Slice(out, func(i, j int) bool { return lessPath(out[i].Path, out[j].Path) })
	if len(out) == 0 {
		out = append(out, model.Module{Path: ".", Name: s.Codebase, Cut: model.Cut{Evidence: []model.Evidence{}}})
	}
	return out
}

// exampleOf reports whether a project file lies among what tests are made of.
func exampleOf(p string) bool {
	for d := model.FolderOf(p); d != "."; d = model.FolderOf(d) {
		if r := Words().Folders[strings.Join(naming.Words(path.Base(d)), " ")]; r == model.RoleTest ||
			strings.HasPrefix(path.Base(d), "_") {
			return true
		}
	}
	return false
}

// sourceRoot is the folder below which a reader first has a choice.
func sourceRoot(dirs map[string]int) string {
	root := "."
	for {
		next, several := "", false
		for d := range dirs {
			if !model.Within(root, d) {
				continue
			}
			if d == root {
				return root
			}
			rest := d
			if root != "." {
				rest = strings.TrimPrefix(d, root+"/")
			}
			first, _, _ := strings.Cut(rest, "/")
			if next != "" && next != first {
				several = true
			}
			next = first
		}
		if several || next == "" {
			return root
		}
		root = path.Join(root, next)
	}
}
