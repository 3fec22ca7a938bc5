package drawing

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"path"
	"slices"

	"jantel/core/model"
)

// MaxRim bounds how many packages from outside are drawn.
const MaxRim = 24

// rim adds the packages that most of the drawn files use, each joined with the
// boxes of those.
func (d *Drawing) rim(external []model.External, boxOf map[string]string) {
	type use struct{ file, pkg string }
	seen := map[use]bool{}
	users := map[string]int{}
	count := map[bundleKey]int{}
	for _, e := range external {
		b := boxOf[e.From]
		if b == "" || seen[use{e.From, e.Package}] {
			continue
		}
		seen[use{e.From, e.Package}] = true
		users[e.Package]++
		count[bundleKey{b, rimPath(e.Package), External}]++
	}
	names := slices.Sorted(maps.Keys(users))
	slices.SortStableFunc(names, func(a, b string) int { return cmp.Compare(users[b], users[a]) })
	if len(names) > MaxRim {
		d.Notes = append(d.Notes, fmt.Sprintf("Of %d packages from outside the %d used most are drawn.", len(names), MaxRim))
		names = names[:MaxRim]
	}
	drawn := map[string]bool{}
	for _, n := range names {
		drawn[rimPath(n)] = true
		d.Boxes = append(d.Boxes, Box{Path: rimPath(n), Name: n, Rim: true, Files: users[n]})
	}
	before := len(d.Bundles)
	for k, n := range count {
		if drawn[k.to] {
			d.Bundles = append(d.Bundles, bundleOf(k, n))
		}
	}
	if len(d.Bundles) > before {
		d.Classes = append(d.Classes, External)
	}
	sortBundles(d.Bundles)
}

// RimPrefix starts what the box of a package is called among those of places.
const RimPrefix = "package:"

func rimPath(pkg string) string { return RimPrefix + pkg }

func bundleOf(k bundleKey, n int) Bundle {
	return Bundle{From: k.from, To: k.to, Class: k.class, Count: n, Wide: math.Round(10*(1+math.Log2(float64(n))*0.8)) / 10}
}

func sortBundles(bs []Bundle) {
	slices.SortFunc(bs, func(a, b Bundle) int {
		return cmp.Or(cmp.Compare(a.From, b.From), cmp.Compare(a.To, b.To), cmp.Compare(a.Class, b.Class))
	})
}

// beside are the files that a file needs and that need it, and itself.
func beside(s *model.Survey, file string) map[string]bool {
	near := map[string]bool{file: true}
	for i := range s.Links {
		if l := &s.Links[i]; ClassOf(l.Kind) != "" {
			switch file {
			case l.From:
				near[l.To] = true
			case l.To:
				near[l.From] = true
			}
		}
	}
	return near
}

// neighbours draws single files, each as a box of its own.
func (d *Drawing) neighbours(ls []model.Link, files []*model.File, r Request) {
	if len(files) > MaxBoxes {
		d.Notes = append(d.Notes, fmt.Sprintf("Of %d neighbours the %d with the most lines are shown.", len(files)-1, MaxBoxes-1))
		slices.SortStableFunc(files, func(a, b *model.File) int {
			if first := a.Path == r.Place; first != (b.Path == r.Place) {
				if first {
					return -1
				}
				return 1
			}
			return cmp.Or(cmp.Compare(b.Lines(), a.Lines()), cmp.Compare(a.Path, b.Path))
		})
		files = files[:MaxBoxes]
		slices.SortFunc(files, func(a, b *model.File) int { return cmp.Compare(a.Path, b.Path) })
	}
	boxOf := map[string]string{}
	for _, f := range files {
		boxOf[f.Path] = f.Path
		name := path.Base(f.Path)
		if in := model.FolderOf(f.Path); in != "." {
			name = path.Base(in) + "/" + name
		}
		d.Boxes = append(d.Boxes, Box{Path: f.Path, Name: name, File: true, Files: 1, Lines: f.Lines()})
	}
	d.bundle(ls, boxOf)
	d.focus(r.Place)
	d.ring(boxOf, r)
	d.layout(r)
}

// focus leaves the boxes of one place and those that are tied to them, with the
// bundles that tie them.
func (d *Drawing) focus(place string) {
	own := map[string]bool{}
	for _, b := range d.Boxes {
		if model.Within(place, b.Path) || model.Within(b.Path, place) {
			own[b.Path] = true
		}
	}
	if len(own) == 0 {
		return
	}
	d.Focus = place
	near := map[string]bool{}
	d.Bundles = slices.DeleteFunc(d.Bundles, func(b Bundle) bool {
		if !own[b.From] && !own[b.To] {
			return true
		}
		near[b.From], near[b.To] = true, true
		return false
	})
	d.Boxes = slices.DeleteFunc(d.Boxes, func(b Box) bool { return !own[b.Path] && !near[b.Path] })
	d.Classes = slices.DeleteFunc(d.Classes, func(c string) bool {
		return !slices.ContainsFunc(d.Bundles, func(b Bundle) bool { return b.Class == c })
	})
}

// ring finds in which ring of the charter each box lies: the one that holds
// most of its files. Boxes that none holds stand outside of all.
func (d *Drawing) ring(boxOf map[string]string, r Request) {
	if len(r.Circles) == 0 {
		return
	}
	votes := map[string]map[int]int{}
	for f, b := range boxOf {
		if k := slices.Index(r.Circles, r.RingOf[f]); k >= 0 {
			if votes[b] == nil {
				votes[b] = map[int]int{}
			}
			votes[b][k]++
		}
	}
	for i := range d.Boxes {
		best := -1
		for k := range r.Circles {
			if n := votes[d.Boxes[i].Path][k]; n > 0 && (best < 0 || n > votes[d.Boxes[i].Path][best]) {
				best = k
			}
		}
		d.Boxes[i].Circle = best + 1
	}
}

// imply marks the bundles that a longer way implies: from a box to one that it
// reaches over others as well. What lies in a ring is left alone, since there
// everything leads everywhere.
func (d *Drawing) imply() {
	next := map[string][]string{}
	for i := range d.Bundles {
		if b := &d.Bundles[i]; orders(b.Class) && !b.Up {
			next[b.From] = append(next[b.From], b.To)
		}
	}
	ring := map[string]int{}
	for _, b := range d.Boxes {
		ring[b.Path] = b.Ring
	}
	// Downwards there are no rings, so that each box's reach is made of those below it.
	reach := map[string]map[string]bool{}
	var reached func(p string) map[string]bool
	reached = func(p string) map[string]bool {
		if r, ok := reach[p]; ok {
			return r
		}
		r := map[string]bool{}
		reach[p] = r // for what leads back to itself all the same
		for _, n := range next[p] {
			r[n] = true
			for x := range reached(n) {
				r[x] = true
			}
		}
		return r
	}
	for i := range d.Bundles {
		b := &d.Bundles[i]
		if !orders(b.Class) || b.Up || ring[b.From] > 0 && ring[b.From] == ring[b.To] {
			continue
		}
		for _, n := range next[b.From] {
			if n != b.To && reached(n)[b.To] {
				b.Implied = true
				break
			}
		}
	}
}
