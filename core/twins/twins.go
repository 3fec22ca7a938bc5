// Package twins finds files and definitions that are nearly the same code.
package twins

import (
	"cmp"
	"encoding/binary"
	"slices"

	"jantel/core/model"
	"jantel/core/parallel"
	"jantel/core/syntax"
)

// unit is a set of fingerprints with where it stands.
type unit struct {
	file       *model.File
	definition int      // -1 for the whole file
	packed     []byte   // the set, sorted
	prints     []uint32 // the same, of those that are compared
}

func (u *unit) size() int { return len(u.packed) / 4 }

// least are those of the set that are looked up.
func (u *unit) least() []byte { return u.packed[:4*syntax.Lookups(u.size())] }

func (u *unit) place() model.TwinPlace {
	if u.definition < 0 {
		return model.TwinPlace{Path: u.file.Path, Line: 1, EndLine: u.file.Facts.Lines}
	}
	d := &u.file.Facts.Definitions[u.definition]
	return model.TwinPlace{Path: u.file.Path, Line: d.Line, EndLine: d.EndLine, Name: d.Qualified()}
}

// Of returns the twins among files, which are sorted by path: files first, then definitions that do not
// lie in files that are twins as a whole. Code that is vendored, generated or
// squeezed is not compared.
func Of(files []*model.File) []model.Twins {
	var whole []unit
	for _, f := range files {
		if compared(f) {
			whole = append(whole, unit{file: f, definition: -1, packed: f.Facts.Prints})
		}
	}
	out := group(whole)
	twin := map[string]bool{}
	for _, g := range out {
		for _, m := range g.Members {
			twin[m.Path] = true
		}
	}
	var inside []unit
	for _, f := range files {
		if compared(f) && !twin[f.Path] {
			inside = definitions(inside, f)
		}
	}
	return append(out, group(inside)...)
}

func compared(f *model.File) bool {
	return f.Facts != nil && f.Skipped == "" && len(f.Facts.Prints) > 0
}

func definitions(out []unit, f *model.File) []unit {
	for i := range f.Facts.Spans {
		sp := &f.Facts.Spans[i]
		if sp.Definition >= len(f.Facts.Definitions) || len(sp.Prints) == 0 {
			continue
		}
		out = append(out, unit{file: f, definition: sp.Definition, packed: sp.Prints})
	}
	return out
}

// group finds all pairs that are alike and puts those together that hang
// together.
func group(units []unit) []model.Twins {
	list := candidates(units)
	whole(units, list)
	like := make([]float64, len(list))
	parallel.Ranges(len(list), func(from, to int) {
		for i := from; i < to; i++ {
			like[i] = jaccard(units[list[i]>>32].prints, units[uint32(list[i])].prints)
		}
	})
	parent := make([]int32, len(units))
	for i := range parent {
		parent[i] = int32(i)
	}
	find := func(i int32) int32 {
		for parent[i] != i {
			parent[i] = parent[parent[i]]
			i = parent[i]
		}
		return i
	}
	least := map[int32]float64{}
	for i, p := range list {
		if like[i] < syntax.Alike {
			continue
		}
		a, b := find(int32(p>>32)), find(int32(uint32(p)))
		l := like[i]
		for _, r := range []int32{a, b} {
			if v, ok := least[r]; ok {
				l = min(l, v)
			}
		}
		if a > b {
			a, b = b, a
		}
		parent[b] = a
		least[a] = l
	}
	members := map[int32][]model.TwinPlace{}
	for i := range units {
		if r := find(int32(i)); least[r] > 0 {
			members[r] = append(members[r], units[i].place())
		}
	}
	var out []model.Twins
	for r, ms := range members {
		if len(ms) > 1 {
			out = append(out, model.Twins{Alike: float64(int(least[r]*100+0.5)) / 100, Members: ms})
		}
	}
	slices.SortFunc(out, func(a, b model.Twins) int {
		return cmp.Or(
			cmp.Compare(a.Members[0].Path, b.Members[0].Path), cmp.Compare(a.Members[0].Line, b.Members[0].Line),
			cmp.Compare(a.Members[0].Name, b.Members[0].Name),
		)
	})
	return out
}

// candidates lists the pairs that may be alike, each as one number. Two sets
// that are alike share one of the least fingerprints of each, as many as a fifth
// of it: only units that do are compared.
func candidates(units []unit) []uint64 {
	// Each entry is a fingerprint with the unit it is one of, as one number.
	total := 0
	for i := range units {
		total += syntax.Lookups(units[i].size())
	}
	entries := make([]uint64, 0, total)
	for i := range units {
		for b := units[i].least(); len(b) >= 4; b = b[4:] {
			entries = append(entries, uint64(binary.LittleEndian.Uint32(b))<<32|uint64(i))
		}
	}
	// They stand in the order of the units, which sorting keeps.
	entries = syntax.SortPairs(entries, true)
	var list []uint64 // pairs of units, as one number
	for from := 0; from < len(entries); {
		to := from
		for to < len(entries) && entries[to]>>32 == entries[from]>>32 {
			to++
		}
		// A run that everything has says nothing; its neighbours still do.
		if n := to - from; n > 1 && n <= maxShared {
			for i := from; i < to; i++ {
				for k := i + 1; k < to; k++ {
					a, b := int32(uint32(entries[i])), int32(uint32(entries[k]))
					la, lb := units[a].size(), units[b].size()
					if float64(min(la, lb)) >= syntax.Alike*float64(max(la, lb)) {
						list = append(list, uint64(a)<<32|uint64(b))
					}
				}
			}
		} else if n > maxShared {
			for i := from + 1; i < to; i++ {
				list = append(list, entries[i-1]<<32|entries[i]&0xffffffff)
			}
		}
		from = to
	}
	list = slices.Compact(syntax.SortPairs(list, false))
	parallel.Ranges(len(list), func(from, to int) {
		for i := from; i < to; i++ {
			a, b := &units[list[i]>>32], &units[uint32(list[i])]
			if !mayBeAlike(a, b) || a.file == b.file && overlap(a, b) { // a class and its own method
				list[i] = apart
			}
		}
	})
	return slices.DeleteFunc(list, func(p uint64) bool { return p == apart })
}

// maxShared is how many units may share a fingerprint and all be compared.
const maxShared = 60

// whole unpacks the sets of the units that are compared at all, which are few.
func whole(units []unit, pairs []uint64) {
	asked := make([]bool, len(units))
	for _, p := range pairs {
		asked[p>>32], asked[uint32(p)] = true, true
	}
	parallel.Ranges(len(units), func(from, to int) {
		for i := from; i < to; i++ {
			if asked[i] {
				units[i].prints = syntax.DecodePrints(make([]uint32, units[i].size()), units[i].packed)
			}
		}
	})
}

// apart stands for a pair that is none: a unit and itself.
const apart = 0

// mayBeAlike reports whether two units can be alike as far as the least of
// their fingerprints tell: where one has too many that the other has not, the
// sets themselves need not be made.
func mayBeAlike(a, b *unit) bool {
	spareA, spareB := spare(a.size(), b.size())
	x, y := a.least(), b.least()
	for len(x) >= 4 && len(y) >= 4 {
		p, q := binary.LittleEndian.Uint32(x), binary.LittleEndian.Uint32(y)
		if p <= q {
			x = x[4:]
		}
		if q <= p {
			y = y[4:]
		}
		if p < q {
			if spareA--; spareA < 0 {
				return false
			}
		}
		if q < p {
			if spareB--; spareB < 0 {
				return false
			}
		}
	}
	return true
}

// spare is how many each of two sets of these sizes may have that the other
// has not, when they are alike.
func spare(a, b int) (int, int) {
	need := int(syntax.Alike/(1+syntax.Alike)*float64(a+b) + 0.999999)
	return a - need, b - need
}

func overlap(a, b *unit) bool {
	if a.definition < 0 {
		return false
	}
	x, y := &a.file.Facts.Definitions[a.definition], &b.file.Facts.Definitions[b.definition]
	return x.Line <= y.EndLine && y.Line <= x.EndLine
}

// jaccard is how much two sets have in common of all they have, 0 as soon as it
// is clear that they are not alike: then the rest is not looked at.
func jaccard(a, b []uint32) float64 {
	spareA, spareB := spare(len(a), len(b))
	both, i, k := 0, 0, 0
	for i < len(a) && k < len(b) {
		switch {
		case a[i] == b[k]:
			both++
			i++
			k++
		case a[i] < b[k]:
			if i++; i-both > spareA {
				return 0
			}
		default:
			if k++; k-both > spareB {
				return 0
			}
		}
	}
	return float64(both) / float64(len(a)+len(b)-both)
}
