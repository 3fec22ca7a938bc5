package smells

import (
	"cmp"
	"fmt"
	"maps"
	"path"
	"slices"

	"jantel/core/model"
)

var twinFoldersRule = &Rule{
	Slug: "twin-folders", Facet: model.Layout, Title: "Twin folders", Weight: 1.2, Family: familyTwin, find: twinFolders,
	Question:   "Is a whole folder nearly the same as another?",
	Why:        "Each correction has to be made twice, in as many files as there are.",
	Example:    "`pages/seedbank/` and `pages/herbarium/`, five files each, alike but for names.",
	Remedy:     "Keep one, and hand in what differs.",
	Parameters: []Parameter{{"files", "files of a folder that have a twin in the other", 4, 3, 3}},
}

// twinFolders reports folders most of whose files have a twin in another. Pairs of
// folders are told first. Where several of them lie at the same places within two
// folders further out, those two are the copy; and folders that are twins of each
// other in a row are one smell with all of them, since they are mended at once.
func twinFolders(c *Context, r *Rule) (out []hit) {
	least := int(c.Value(r, "files"))
	pairs := c.outermost(c.twinPairs(least), least)
	for _, group := range together(pairs) {
		out = append(out, twinHit(group, least))
	}
	return out
}

// twinPair is two folders with the files of each that have a twin in the other.
type twinPair struct {
	a, b string            // a before b
	of   map[string]string // a file of one to its twin in the other, and back
}

// files is how many files of one of the two have a twin in the other.
func (p *twinPair) files() int { return len(p.of) / 2 }

// twinPairs are the pairs of folders most of whose own files have a twin in the other.
func (c *Context) twinPairs(least int) (out []*twinPair) {
	known := map[[2]string]*twinPair{}
	note := func(a, b string) {
		da, db := model.FolderOf(a), model.FolderOf(b)
		if da == db {
			return
		}
		if da > db {
			da, db, a, b = db, da, b, a
		}
		p := known[[2]string{da, db}]
		if p == nil {
			p = &twinPair{da, db, map[string]string{}}
			known[[2]string{da, db}] = p
			out = append(out, p)
		}
		if p.of[a] == "" && p.of[b] == "" {
			p.of[a], p.of[b] = b, a
		}
	}
	for _, t := range c.Survey.Twins {
		if len(t.Members) > 40 {
			continue // one text in so many places tells nothing of two folders
		}
		for i, m := range t.Members {
			for _, n := range t.Members[i+1:] {
				if m.Path != n.Path && c.Judged[m.Path] && c.Judged[n.Path] && !c.IsTest(m.Path) && !c.IsTest(n.Path) {
					note(m.Path, n.Path)
				}
			}
		}
	}
	return slices.DeleteFunc(out, func(p *twinPair) bool {
		n := p.files()
		return n < least || 10*n < 6*len(c.units(p.a)) || 10*n < 6*len(c.units(p.b))
	})
}

// outermost puts pairs that lie at the same places below two folders, and hold most of
// what is in those, in the place of which one pair of those two is told.
func (c *Context) outermost(pairs []*twinPair, least int) []*twinPair {
	by := map[[2]string]*twinPair{}
	parts := map[[2]string][]*twinPair{}
	for _, p := range pairs {
		a, b := p.a, p.b
		for path.Base(a) == path.Base(b) {
			x, y := model.FolderOf(a), model.FolderOf(b)
			if x == "." || y == "." || model.Within(x, y) || model.Within(y, x) {
				break
			}
			a, b = x, y
		}
		k := [2]string{a, b}
		if by[k] == nil {
			by[k] = &twinPair{a, b, map[string]string{}}
		}
		maps.Copy(by[k].of, p.of)
		parts[k] = append(parts[k], p)
	}
	var out []*twinPair
	for k, whole := range by {
		if n := whole.files(); len(parts[k]) > 1 && n >= least && 10*n >= 6*c.unitsBelow(k[0]) && 10*n >= 6*c.unitsBelow(k[1]) {
			out = append(out, whole)
			continue
		}
		out = append(out, parts[k]...)
	}
	slices.SortFunc(out, func(p, q *twinPair) int { return cmp.Or(cmp.Compare(p.a, q.a), cmp.Compare(p.b, q.b)) })
	return out
}

// unitsBelow is how many files a reader has to take in below a folder.
func (c *Context) unitsBelow(d string) (n int) {
	for f := range c.Source(d) {
		switch c.Roles[f.Path].Role {
		case model.RoleAsset, model.RoleDocs, model.RoleConfig, model.RoleTranslation:
		default:
			n++
		}
	}
	return n
}

// together are pairs that hang together, sorted by their first folder as they are.
func together(pairs []*twinPair) (out [][]*twinPair) {
	in := map[string]int{} // by folder, its group
	for _, p := range pairs {
		a, b := in[p.a]-1, in[p.b]-1
		switch {
		case a < 0 && b < 0:
			out = append(out, nil)
			a = len(out) - 1
		case a < 0:
			a = b
		case b >= 0 && a != b:
			for _, q := range out[b] {
				in[q.a], in[q.b] = a+1, a+1
			}
			out[a] = append(out[a], out[b]...)
			out[b] = nil
		}
		in[p.a], in[p.b] = a+1, a+1
		out[a] = append(out[a], p)
	}
	return slices.DeleteFunc(out, func(group []*twinPair) bool { return len(group) == 0 })
}

// twinHit tells of folders that are twins of each other.
func twinHit(group []*twinPair, least int) hit {
	folders, files := map[string]bool{}, map[string]bool{}
	most := group[0]
	for _, p := range group {
		folders[p.a], folders[p.b] = true, true
		for f := range p.of {
			files[f] = true
		}
		if p.files() > most.files() {
			most = p
		}
	}
	all := slices.Sorted(maps.Keys(folders))
	h := hit{
		path: all[0], extra: all[1], strength: 0.5 + 0.05*float64(most.files()-least), touches: slices.Sorted(maps.Keys(files)),
		message: fmt.Sprintf("%s of its files have a twin in %s", capital(number(most.files())), all[1]),
	}
	if len(all) == 2 {
		for _, f := range slices.Sorted(maps.Keys(most.of)) {
			if model.Within(most.a, f) {
				h.evidence = append(h.evidence, model.Evidence{Path: f, Note: "like " + most.of[f]})
			}
		}
	} else {
		h.message = fmt.Sprintf(
			"%s folders hold nearly the same files: up to %s have a twin in another", capital(number(len(all))), number(most.files()),
		)
		for _, p := range group {
			h.evidence = append(h.evidence, model.Evidence{Path: p.b, Note: fmt.Sprintf("%s files like those in %s", number(p.files()), p.a)})
		}
	}
	h.evidence = h.evidence[:min(12, len(h.evidence))]
	return h
}
