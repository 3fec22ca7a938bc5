package section

import (
	"cmp"
	"maps"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
)

// parts chooses what stands side by side: the projects. Where they are too
// many those that share a folder stand together, and at last the smallest. One
// project alone is one part.
func (b *builder) parts() {
	r := b.j.Reading
	projects := []string{}
	for _, m := range b.j.Modules {
		if m.Project && m.Path != b.place && model.Within(b.place, m.Path) {
			projects = append(projects, m.Path)
		}
	}
	// A project within another stands in it.
	projects = slices.DeleteFunc(projects, func(p string) bool {
		return slices.ContainsFunc(projects, func(outer string) bool { return outer != p && model.Within(outer, p) })
	})
	projectOf := func(p string) string {
		for _, m := range projects {
			if model.Within(m, p) {
				return m
			}
		}
		return b.place
	}
	of := map[string]string{} // the project of a folder
	lines := map[string]int{}
	for _, f := range r.At(b.place) {
		d := model.FolderOf(f.Path)
		if _, known := of[d]; !known {
			of[d] = projectOf(f.Path)
		}
		if counts(r, f) {
			lines[of[d]] += f.Facts.Lines
		}
	}
	// Projects that hold little of it lie in it as other folders do.
	inside, all := 0, 0
	for p, n := range lines {
		if all += n; p != b.place {
			inside += n
		}
	}
	if 2*inside < all {
		lines = map[string]int{b.place: all}
		for d := range of {
			of[d] = b.place
		}
	}
	into := folded(lines, b.place)
	weight := map[string]int{}
	for p, n := range lines {
		weight[into[p]] += n
	}
	at := map[string]int{}
	for _, p := range slices.Sorted(maps.Keys(weight)) {
		at[p] = len(b.Parts)
		part := Pile{Path: p, Name: path.Base(p), Lines: weight[p]}
		switch {
		case p == restOf(b.place):
			part.Path, part.Name = b.place, theRest
		case p == b.place:
			if part.Name = b.s.Codebase; p != "." {
				part.Name = path.Base(p)
			}
			if len(weight) > 1 {
				part.Path, part.Name = b.beside(projects)
			}
		}
		b.Parts = append(b.Parts, part)
	}
	for _, f := range r.At(b.place) {
		if i, ok := at[into[of[model.FolderOf(f.Path)]]]; ok {
			b.partOf[f.Path] = i
		}
	}
}

// order stands the parts that need others to the left of those they need, so
// that most ties run one way and few are long.
func (b *builder) order() {
	joined := map[need]bool{}
	for i := range b.s.Links {
		l := &b.s.Links[i]
		from, ok := b.partOf[l.From]
		to, both := b.partOf[l.To]
		if ok && both && from != to && classOf(l) != "" {
			joined[need{from, to}] = true
		}
	}
	weight := make([]int, len(b.Parts))
	for k := range joined {
		weight[k.from]--
		weight[k.to]++
	}
	was := make([]int, len(b.Parts))
	for i := range was {
		was[i] = i
	}
	for i := range b.Parts {
		if b.Parts[i].Name == theRest {
			weight[i] = len(joined) + 1 // last of all
		}
	}
	slices.SortStableFunc(was, func(x, y int) int { return cmp.Compare(weight[x], weight[y]) })
	parts, now := make([]Pile, len(was)), make([]int, len(was))
	for i, w := range was {
		parts[i], now[w] = b.Parts[w], i
	}
	b.Parts = parts
	for p, i := range b.partOf {
		b.partOf[p] = now[i]
	}
}

// beside names what lies in no project: by its folder where it is one.
func (b *builder) beside(projects []string) (at, name string) {
	var files []*model.File
	for _, f := range b.j.Reading.At(b.place) {
		if counts(b.j.Reading, f) && !slices.ContainsFunc(projects, func(p string) bool { return model.Within(p, f.Path) }) {
			files = append(files, f)
		}
	}
	if at = rootOf(files); at == b.place || at == "." {
		return b.place, "in no project"
	}
	return at, path.Base(at)
}

// theRest is what the smallest projects are called together.
const theRest = "all others"

// restOf is under which name the smallest projects stand together; no folder
// can be called so.
func restOf(place string) string { return place + "/" }

// folded says for each project which part it stands in, at most maxParts.
func folded(lines map[string]int, place string) map[string]string {
	into := make(map[string]string, len(lines))
	for p := range lines {
		into[p] = p
	}
	for {
		parts := map[string]bool{}
		for _, p := range into {
			parts[p] = true
		}
		if len(parts) <= maxParts {
			return into
		}
		// Of the folders that hold several, the one deepest in the tree stands
		// for them, the one that holds most first.
		holds := map[string]int{}
		for p := range parts {
			if d := model.FolderOf(p); p != place && d != place && model.Within(place, d) {
				holds[d]++
			}
		}
		best := ""
		for _, d := range slices.Sorted(maps.Keys(holds)) {
			deeper := strings.Count(d, "/") - strings.Count(best, "/")
			if best == "" || deeper > 0 || deeper == 0 && holds[d] > holds[best] {
				best = d
			}
		}
		if best == "" {
			break
		}
		for p, part := range into {
			if part != place && model.Within(best, part) {
				into[p] = best
			}
		}
	}
	weight := map[string]int{}
	for p, part := range into {
		weight[part] += lines[p]
	}
	order := slices.SortedFunc(maps.Keys(weight), func(x, y string) int {
		return cmp.Or(cmp.Compare(weight[y], weight[x]),
			cmp.Compare(x, y))
	})
	for p, part := range into {
		if slices.Index(order, part) >= maxParts-1 {
			into[p] = restOf(place)
		}
	}
	return into
}
