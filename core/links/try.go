package links

import (
	"slices"

	"jantel/core/model"
)

// Tried is what a dependency between two places would do before it exists.
type Tried struct {
	From string `json:"from"`
	To   string `json:"to"`
	// Now is how many dependencies there are from the one to the other already.
	Now int `json:"now"`
	// Ring is the shortest way that leads back already, file by file from the
	// second place to the first; empty where it would close no ring.
	Ring []string `json:"ring"`
	// Newly is how many files would need the second place for the first time,
	// directly or not: those that a change there would reach from then on.
	Newly int `json:"newly"`
	// Along is how many files the first place would come to need that it does
	// not need now, directly or not.
	Along int `json:"along"`
}

// Try tells what a dependency from one place to another would do. Places are
// files, or folders that stand for all below them. in says which files count.
func Try(ls []model.Link, in func(path string) bool, from, to string) Tried {
	t := Tried{From: from, To: to, Ring: []string{}}
	down, up := map[string][]string{}, map[string][]string{}
	for i := range ls {
		l := &ls[i]
		if !Directs(l.Kind) || l.Kind == model.LinkLazyImport || l.From == l.To || !in(l.From) || !in(l.To) {
			continue
		}
		down[l.From] = append(down[l.From], l.To)
		up[l.To] = append(up[l.To], l.From)
		if model.Within(from, l.From) && model.Within(to, l.To) {
			t.Now++
		}
	}
	// What the second place reaches holds a way back where it touches the first.
	reached, before := spread(down, to)
	for _, p := range reached {
		if model.Within(from, p) {
			t.Ring = wayTo(p, before)
			break
		}
	}
	needs, _ := spread(down, from)
	t.Along = len(missing(reached, needs))
	above, _ := spread(up, from)
	already, _ := spread(up, to)
	t.Newly = len(missing(above, already))
	return t
}

// spread lists what can be reached from a place along edges, nearest first and
// the place's own files among it, with the file each was reached from.
func spread(edges map[string][]string, place string) (reached []string, before map[string]string) {
	before = map[string]string{}
	for p := range edges {
		if model.Within(place, p) {
			reached = append(reached, p)
		}
	}
	for _, tos := range edges {
		for _, p := range tos {
			if model.Within(place, p) {
				reached = append(reached, p)
			}
		}
	}
	slices.Sort(reached)
	reached = slices.Compact(reached)
	for _, p := range reached {
		before[p] = ""
	}
	for i := 0; i < len(reached); i++ {
		for _, next := range edges[reached[i]] {
			if _, ok := before[next]; !ok {
				before[next] = reached[i]
				reached = append(reached, next)
			}
		}
	}
	return reached, before
}

func wayTo(p string, before map[string]string) (way []string) {
	for ; p != ""; p = before[p] {
		way = append(way, p)
	}
	slices.Reverse(way)
	return way
}

// missing lists the names of a that b does not hold.
func missing(a, b []string) (out []string) {
	there := make(map[string]bool, len(b))
	for _, p := range b {
		there[p] = true
	}
	for _, p := range a {
		if !there[p] {
			out = append(out, p)
		}
	}
	return out
}
