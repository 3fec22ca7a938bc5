package weave

import (
	"cmp"
	"math"

	"jantel/core/naming"
)

// Counting pairs of files.

// pairs counts pairs of files, all and those that lie together.
type pairs struct{ all, together int }

func (p pairs) share() float64 {
	if p.all == 0 {
		return 0
	}
	return float64(p.together) / float64(p.all)
}

// figures are both as they stand in a sentence.
func (p pairs) figures() []any { return []any{naming.Figure(p.all), naming.Figure(p.together)} }

func (p pairs) less(q pairs) pairs { return pairs{p.all - q.all, p.together - q.together} }

// over is by how much more often these pairs lie together than others do, and 0
// where chance may well have done it: less than 1.64 standard errors of the
// others' share, one in twenty. Pairs of the same files hang together, so no more
// of them count than there are files.
func (p pairs) over(others pairs, files int) float64 {
	a, c := p.share(), others.share()
	if p.all < leastPairs || others.all < leastPairs || a-c <= 1.64*math.Sqrt(c*(1-c)/float64(min(p.all, files))) {
		return 0
	}
	return round4(a - c)
}

// paired are files whose pairs are counted, with numbers for what they are about and
// for their kinds.
type paired struct {
	files         []cutFile
	feature, role []int32
	all           tally
}

func pairsOf(files []cutFile) *paired {
	p, named := &paired{files: files, feature: make([]int32, len(files)), role: make([]int32, len(files))}, numbers{}
	for i := range files {
		p.feature[i], p.role[i] = named.of(files[i].feature), named.of(files[i].role)
	}
	p.all = p.count(func(int) int32 { return 0 })
	return p
}

// counts are the pairs that share a feature but not a role, a role but not a feature, and
// neither; and how many of the first two come from the one feature, and the one role, that
// brings most files together.
type counts struct{ feature, role, neither, mostFeature, mostRole pairs }

// at counts pairs from the sizes of groups, with the folders cut off at a depth.
func (p *paired) at(depth int) counts {
	named, last, number := numbers{}, "", int32(0)
	in := p.count(func(i int) int32 {
		if d := p.files[i].at(depth); number == 0 || d != last { // those of a folder stand together
			last, number = d, named.of(d)
		}
		return number
	})
	of := func(what func(tally) int) pairs { return pairs{what(p.all), what(in)} }
	f, r := largest(in.features, p.all.features), largest(in.roles, p.all.roles)
	return counts{
		feature:     of(func(t tally) int { return t.feature - t.both }),
		role:        of(func(t tally) int { return t.role - t.both }),
		neither:     of(func(t tally) int { return t.any - t.feature - t.role + t.both }),
		mostFeature: of(func(t tally) int { return t.features[f] }),
		mostRole:    of(func(t tally) int { return t.roles[r] }),
	}
}

// largest is what has the most pairs that lie together; of several the one with the
// fewest pairs in all, whose loss is felt most.
func largest(together, all map[int32]int) (most int32) {
	for k, n := range together {
		if most == 0 || cmp.Or(cmp.Compare(n, together[most]), cmp.Compare(all[most], all[k]), cmp.Compare(most, k)) > 0 {
			most = k
		}
	}
	return most
}

// tally counts pairs of files that lie together: all, those that share what they are
// about, their kind, and both; and by feature and role those that share it alone.
type tally struct {
	any, feature, role, both int
	features, roles          map[int32]int
}

func (p *paired) count(where func(i int) int32) tally {
	type key struct{ folder, feature, role int32 } // 0 for any
	n := make(map[key]int, 2*len(p.files))
	for i := range p.files {
		at := where(i)
		n[key{at, 0, 0}]++
		n[key{at, p.feature[i], 0}]++
		n[key{at, 0, p.role[i]}]++
		n[key{at, p.feature[i], p.role[i]}]++
	}
	t := tally{features: map[int32]int{}, roles: map[int32]int{}}
	for k, files := range n {
		two := files * (files - 1) / 2
		switch {
		case k.feature == 0 && k.role == 0:
			t.any += two
		case k.role == 0:
			t.feature += two
			t.features[k.feature] += two
		case k.feature == 0:
			t.role += two
			t.roles[k.role] += two
		default:
			t.both += two
			t.features[k.feature] -= two
			t.roles[k.role] -= two
		}
	}
	return t
}

// numbers stand for names, from 1 in the order in which they are asked for: files are
// counted by them faster than by long names.
type numbers map[string]int32

func (n numbers) of(name string) int32 {
	i := n[name]
	if i == 0 {
		i = int32(len(n) + 1)
		n[name] = i
	}
	return i
}

// add takes the pairs of a group of files: of all that are alike, or of those of
// them in a folder.
func (p *pairs) add(everywhere bool, files int) {
	two := files * (files - 1) / 2
	if everywhere {
		p.all += two
	} else {
		p.together += two
	}
}

// alike counts the pairs of files that share something, those of them that share the
// one thing which brings most together, and the others, and how many things bring files
// together, each in a folder of its own; files that nothing is known of are left out.
func alike(files []cutFile, what func(*cutFile) string, depth int) (same, most, other pairs, things int) {
	type key struct{ folder, what int32 } // 0 for any
	n, named := map[key]int{}, numbers{}
	for i := range files {
		f := &files[i]
		w := what(f)
		if w == "" {
			continue
		}
		what := named.of(w)
		for _, d := range [2]int32{0, named.of(f.at(depth))} {
			n[key{d, 0}]++
			n[key{d, what}]++
		}
	}
	var all pairs
	together, folders := map[int32]bool{}, map[int32]bool{}
	each := map[int32]pairs{}
	for k, c := range n {
		if k.what == 0 {
			all.add(k.folder == 0, c)
			continue
		}
		same.add(k.folder == 0, c)
		one := each[k.what]
		one.add(k.folder == 0, c)
		each[k.what] = one
		if c > 1 && k.folder != 0 {
			together[k.what], folders[k.folder] = true, true
		}
	}
	for _, one := range each {
		if one.together > most.together || one.together == most.together && one.all < most.all {
			most = one
		}
	}
	return same, most, all.less(same), min(len(together), len(folders))
}
