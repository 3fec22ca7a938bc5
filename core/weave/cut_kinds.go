package weave

import (
	"fmt"
	"math"
	"slices"

	"jantel/core/model"
	"jantel/core/naming"
)

const (
	// leastOfKinds is the share of files in folders of mostly one kind from which on folders
	// are for kinds, and mostOfKind how much of a folder one kind has to be.
	leastOfKinds, mostOfKind = 0.55, 0.6
	// leastTold is of how many files the kind has to be told for that to be held against a cut.
	leastTold = 8
)

// ofKinds holds a cut by kind against the folders: that files of one kind lie together may
// come of one folder that holds most of what is told. Folders are for kinds where most
// files lie in such as hold mostly one kind, and those are of two kinds at least; else the
// cut counts as mixed.
func ofKinds(files []cutFile, module string, c model.Cut) model.Cut {
	if c.Label != model.CutByKind || c.Value == nil {
		return c
	}
	in := map[string]map[string]int{}
	told := 0
	for i := range files {
		f := &files[i]
		if f.kind == "" {
			continue
		}
		told++
		d := f.at(c.Depth)
		if in[d] == nil {
			in[d] = map[string]int{}
		}
		in[d][f.kind]++
	}
	held, kinds := 0, map[string]bool{}
	for _, by := range in {
		all, most, kind := 0, 0, ""
		for r, n := range by {
			all += n
			if n > most || n == most && r < kind {
				most, kind = n, r
			}
		}
		if all > 1 && float64(most) >= mostOfKind*float64(all) {
			held += all
			kinds[kind] = true
		}
	}
	if told < leastTold || len(kinds) > 1 && float64(held) >= leastOfKinds*float64(told) {
		return c
	}
	v := math.Max(*c.Value, -0.2) // as far as a mixed cut goes
	c.Value, c.Label = &v, label(v)
	note := fmt.Sprintf("of %s files whose kind is seen only %s lie in folders of mostly one kind", naming.Figure(told), naming.Figure(held))
	switch {
	case held == 0:
		note = fmt.Sprintf("of %s files whose kind is seen none lies in a folder of mostly one kind", naming.Figure(told))
	case len(kinds) < 2:
		note = fmt.Sprintf("of %s files whose kind is seen, those in folders of mostly one kind are all of the same", naming.Figure(told))
	}
	c.Evidence = append(slices.Clone(c.Evidence), model.Evidence{Path: module, Note: note})
	return c
}
