// Package twins finds files and definitions that are nearly the same code.
package twins

import (
	"cmp"
	"encoding/binary"
	"runtime"
	"slices"
	"sync"

	"jantel/core/model"
)

// Alike is the share of fingerprints (by Jaccard) from which two are twins.
const Alike = 0.8

// unit is a set of fingerprints with where it stands.
type unit struct {
	place  model.TwinPlace
	file   int
	whole  bool
	prints []uint32 // sorted, each once
}

// Of returns the twins among files, which are sorted by path: files first, then definitions that do not
// lie in files that are twins as a whole. Code that is vendored, generated or
// squeezed is not compared.
func Of(files []*model.File) []model.Twins {
	out := group(gather(files, wholeFile))
	twin := map[string]bool{}
	for _, g := range out {
		for _, m := range g.Members {
			twin[m.Path] = true
		}
	}
	return append(out, group(gather(files, func(o *sorter, i int, f *model.File) []unit {
		if twin[f.Path] {
			return nil
		}
		return definitions(o, i, f)
	}))...)
}

// gather makes units of all files, in their order.
func gather(files []*model.File, of func(o *sorter, i int, f *model.File) []unit) (out []unit) {
	workers := runtime.GOMAXPROCS(0)
	parts := make([][]unit, workers)
	var wg sync.WaitGroup
	for w := range workers {
		wg.Go(func() {
			var o sorter
			n := len(files)
			for i := w * n / workers; i < (w+1)*n/workers; i++ {
				if f := files[i]; f.Facts != nil && f.Skipped == "" && len(f.Facts.Prints) > 0 {
					parts[w] = append(parts[w], of(&o, i, f)...)
				}
			}
		})
	}
	wg.Wait()
	for _, p := range parts {
		out = append(out, p...)
	}
	return out
}

func wholeFile(o *sorter, i int, f *model.File) []unit {
	return []unit{{place: model.TwinPlace{Path: f.Path, Line: 1, EndLine: f.Facts.Lines}, file: i, whole: true, prints: o.set(f.Facts.Prints)}}
}

func definitions(o *sorter, i int, f *model.File) (out []unit) {
	for _, sp := range f.Facts.Spans {
		if sp.Definition >= len(f.Facts.Definitions) || 4*sp.To > len(f.Facts.Prints) || sp.From >= sp.To {
			continue
		}
		d := f.Facts.Definitions[sp.Definition]
		out = append(out, unit{place: model.TwinPlace{Path: f.Path, Line: d.Line, EndLine: d.EndLine, Name: d.Qualified()}, file: i, prints: o.set(f.Facts.Prints[4*sp.From : 4*sp.To])})
	}
	return out
}

// sorter makes sets of fingerprints; each goroutine has its own.
type sorter struct{ room []uint32 }

// set returns the fingerprints that b holds, sorted and each once.
func (o *sorter) set(b []byte) []uint32 {
	out := decode(make([]uint32, len(b)/4), b)
	if len(out) < few {
		slices.Sort(out)
		return slices.Compact(out)
	}
	if len(o.room) < len(out) {
		o.room = make([]uint32, 2*len(out))
	}
	copy(out, radix(out, o.room[:len(out)], 0, 1, 2, 3))
	return slices.Compact(out)
}

func decode(into []uint32, b []byte) []uint32 {
	for i := range into {
		into[i] = binary.LittleEndian.Uint32(b[4*i:])
	}
	return into
}

// group finds all pairs that are alike and puts those together that hang
// together. Two sets that are alike share one of the least fingerprints of
// each, as many as a fifth of it: only units that do are compared.
func group(units []unit) []model.Twins {
	// Each entry is a fingerprint with the unit it is one of, as one number.
	total := 0
	for i := range units {
		total += first(len(units[i].prints))
	}
	entries := make([]uint64, 0, total)
	for i, u := range units {
		for _, p := range u.prints[:first(len(u.prints))] {
			entries = append(entries, uint64(p)<<32|uint64(i))
		}
	}
	// They stand in the order of the units, which radix keeps.
	entries = radix(entries, make([]uint64, len(entries)), 4, 5, 6, 7)
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
					la, lb := len(units[a].prints), len(units[b].prints)
					if float64(min(la, lb)) >= Alike*float64(max(la, lb)) {
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
	list = slices.Compact(radix(list, make([]uint64, len(list)), 0, 1, 2, 3, 4, 5, 6, 7))
	like := make([]float64, len(list))
	workers := min(runtime.GOMAXPROCS(0), max(len(list), 1))
	var wg sync.WaitGroup
	for w := range workers {
		wg.Go(func() {
			for i := w * len(list) / workers; i < (w+1)*len(list)/workers; i++ {
				a, b := &units[list[i]>>32], &units[uint32(list[i])]
				if a.file == b.file && !a.whole && overlap(a.place, b.place) {
					continue // a class and its own method
				}
				like[i] = jaccard(a.prints, b.prints)
			}
		})
	}
	wg.Wait()
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
		if like[i] < Alike {
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
			members[r] = append(members[r], units[i].place)
		}
	}
	var out []model.Twins
	for r, ms := range members {
		if len(ms) > 1 {
			out = append(out, model.Twins{Alike: float64(int(least[r]*100+0.5)) / 100, Members: ms})
		}
	}
	slices.SortFunc(out, func(a, b model.Twins) int {
		return cmp.Or(cmp.Compare(a.Members[0].Path, b.Members[0].Path), cmp.Compare(a.Members[0].Line, b.Members[0].Line), cmp.Compare(a.Members[0].Name, b.Members[0].Name))
	})
	return out
}

// first is how many of n fingerprints have to be looked up.
func first(n int) int {
	return min(n-int(float64(n)*Alike+0.999999)+1, n)
}

// maxShared is how many units may share a fingerprint and all be compared.
const maxShared = 60

func overlap(a, b model.TwinPlace) bool { return a.Line <= b.EndLine && b.Line <= a.EndLine }

// jaccard is how much two sets have in common of all they have, 0 as soon as it
// is clear that they are not alike: then the rest is not looked at.
func jaccard(a, b []uint32) float64 {
	// So many each may have that the other has not.
	need := int(Alike/(1+Alike)*float64(len(a)+len(b)) + 0.999999)
	spareA, spareB := len(a)-need, len(b)-need
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
