package links

import (
	"slices"

	"jantel/core/model"
)

// Parts are folders of a codebase, such as its modules, that may lie in each
// other. Where there are hundreds of them, each question must be answered in
// one pass over the files or links, not in one for each.
type Parts struct {
	// Touching are, for each part, the links of which an end lies below it,
	// in their order.
	Touching [][]model.Link
	index    map[string]int
	holding  map[string][]int
}

// PartsOf sorts the links by the folders they touch.
func PartsOf(ls []model.Link, folders []string) *Parts {
	p := &Parts{Touching: make([][]model.Link, len(folders)), index: make(map[string]int, len(folders)), holding: map[string][]int{}}
	for i, f := range folders {
		p.index[f] = i
	}
	// First counted, so that a part that every link touches shares them all
	// and no other one grows step by step.
	count := make([]int, len(folders))
	p.each(ls, func(_, i int) { count[i]++ })
	for i, n := range count {
		if n == len(ls) {
			p.Touching[i] = ls
		} else if n > 0 {
			p.Touching[i] = make([]model.Link, 0, n)
		}
	}
	p.each(ls, func(k, i int) {
		if count[i] < len(ls) {
			p.Touching[i] = append(p.Touching[i], ls[k])
		}
	})
	return p
}

// each calls fn for each link with each part it touches.
func (p *Parts) each(ls []model.Link, fn func(link, part int)) {
	for k := range ls {
		from, to := p.Holding(model.FolderOf(ls[k].From)), p.Holding(model.FolderOf(ls[k].To))
		for _, i := range from {
			fn(k, i)
		}
		for _, i := range to {
			if !slices.Contains(from, i) {
				fn(k, i)
			}
		}
	}
}

// Holding returns which parts a folder is or lies in, outermost first. It
// keeps what it finds, so it is not for several goroutines at once.
func (p *Parts) Holding(folder string) []int {
	if in, ok := p.holding[folder]; ok {
		return in
	}
	var in []int
	if folder != "." {
		in = p.Holding(model.FolderOf(folder))
	}
	if i, ok := p.index[folder]; ok {
		in = append(slices.Clone(in), i)
	}
	p.holding[folder] = in
	return in
}
