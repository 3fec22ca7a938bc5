// Package links computes on the dependencies between files and folders:
// cycles and what breaks them, levels, and the links a folder's files have in
// common.
package links

import (
	"sort"

	"jantel/core/model"

	"gonum.org/v1/gonum/graph/simple"
	"gonum.org/v1/gonum/graph/topo"
)

// Directs reports whether a link of this kind makes one file need another at
// build or run time, so that it can close a cycle. Calls over HTTP and
// messages by name never do.
func Directs(k model.LinkKind) bool {
	switch k {
	case model.LinkHTTP, model.LinkMessage, model.LinkNameViaIndex:
		return false
	}
	return true
}

// FileCycles returns the rings of files that need each other, each with the
// dependencies to cut, sorted by their first member. A lazy import closes no
// ring: it is the usual way out of one.
func FileCycles(links []model.Link, in func(path string) bool) []model.Cycle {
	ids := map[string]int32{}
	var names []string
	id := func(p string) int32 {
		i, ok := ids[p]
		if !ok {
			if i = -1; in(p) {
				i = int32(len(names))
				names = append(names, p)
			}
			ids[p] = i
		}
		return i
	}
	var ends [][2]int32
	last, from := "", int32(-1)
	for i := range links {
		l := &links[i]
		// Types are gone when it runs: they close no ring.
		if !Directs(l.Kind) || l.Kind == model.LinkLazyImport || l.TypeOnly || l.From == l.To {
			continue
		}
		if l.From != last {
			last, from = l.From, id(l.From)
		}
		if to := id(l.To); from >= 0 && to >= 0 {
			ends = append(ends, [2]int32{from, to})
		}
	}
	g := simple.NewDirectedGraph()
	weight := map[[2]int64]int{}
	for _, e := range inRings(ends, len(names)) {
		a, b := int64(e[0]), int64(e[1])
		if weight[[2]int64{a, b}] == 0 {
			g.SetEdge(simple.Edge{F: simple.Node(a), T: simple.Node(b)})
		}
		weight[[2]int64{a, b}]++
	}
	var out []model.Cycle
	for _, scc := range topo.TarjanSCC(g) {
		if len(scc) < 2 {
			continue
		}
		members := make([]int64, len(scc))
		for i, n := range scc {
			members[i] = n.ID()
		}
		sort.Slice(members, func(i, j int) bool { return names[members[i]] < names[members[j]] })
		var edges []edge
		pos := map[int64]int{}
		for i, m := range members {
			pos[m] = i
		}
		for _, m := range members {
			to := g.From(m)
			for to.Next() {
				if j, ok := pos[to.Node().ID()]; ok {
					edges = append(edges, edge{pos[m], j, weight[[2]int64{m, to.Node().ID()}]})
				}
			}
		}
		cut, exact := fewest(len(members), edges)
		c := model.Cycle{Level: "file", Exact: exact}
		for _, m := range members {
			c.Members = append(c.Members, names[m])
		}
		for _, e := range cut {
			c.Break = append(c.Break, model.CycleLink{From: c.Members[e.from], To: c.Members[e.to]})
		}
		out = append(out, c)
	}
	sort.Slice(out, func(i, j int) bool { return out[i].Members[0] < out[j].Members[0] })
	return out
}

// inRings leaves of the edges among n nodes those that may close a ring: nodes
// that nothing leads to, or that lead nowhere, are taken away until none is
// left. In most trees hardly anything stays.
func inRings(edges [][2]int32, n int) [][2]int32 {
	for end := range 2 { // by what they start from, then by what they lead to
		// The edges of each node stand together in next, from first[node].
		first := make([]int32, n+1)
		into := make([]int32, n)
		for _, e := range edges {
			first[e[end]+1]++
			into[e[1-end]]++
		}
		for i := range n {
			first[i+1] += first[i]
		}
		next, at := make([]int32, len(edges)), make([]int32, n)
		copy(at, first)
		for _, e := range edges {
			next[at[e[end]]] = e[1-end]
			at[e[end]]++
		}
		var free []int32
		gone := make([]bool, n)
		for i := range n {
			if into[i] == 0 {
				free = append(free, int32(i))
			}
		}
		for len(free) > 0 {
			x := free[len(free)-1]
			free = free[:len(free)-1]
			gone[x] = true
			for _, to := range next[first[x]:first[x+1]] {
				if into[to]--; into[to] == 0 {
					free = append(free, to)
				}
			}
		}
		left := edges[:0]
		for _, e := range edges {
			if !gone[e[0]] && !gone[e[1]] {
				left = append(left, e)
			}
		}
		edges = left
	}
	return edges
}

type edge struct{ from, to, weight int }

// exactMembers is up to how many members the fewest links are found exactly.
const exactMembers = 15

// fewest finds the dependencies whose removal breaks every ring among n
// members, lightest together: over all orders of the members (by subsets)
// while that can be afforded, else greedily.
func fewest(n int, edges []edge) (cut []edge, exact bool) {
	sort.Slice(edges, func(i, j int) bool {
		if edges[i].from != edges[j].from {
			return edges[i].from < edges[j].from
		}
		return edges[i].to < edges[j].to
	})
	var order []int
	if n <= exactMembers {
		order, exact = bestOrder(n, edges), true
	} else {
		order = greedyOrder(n, edges)
	}
	pos := make([]int, n)
	for i, m := range order {
		pos[m] = i
	}
	for _, e := range edges {
		if pos[e.from] > pos[e.to] {
			cut = append(cut, e)
		}
	}
	return cut, exact
}

// bestOrder finds the order of members with the fewest links that point
// backwards, by dynamic programming over subsets. Links count one each, and
// the statements behind them decide between equals.
func bestOrder(n int, edges []edge) []int {
	const one = 1 << 20
	cost := make([][]int, n)
	for i := range cost {
		cost[i] = make([]int, n)
	}
	for _, e := range edges {
		cost[e.from][e.to] += one + e.weight
	}
	size := 1 << n
	best := make([]int, size)
	last := make([]int8, size)
	for set := 1; set < size; set++ {
		best[set] = -1
		for m := range n {
			if set&(1<<m) == 0 {
				continue
			}
			rest := set &^ (1 << m)
			c := best[rest]
			for p := range n { // m comes after rest: its links to rest point back
				if rest&(1<<p) != 0 {
					c += cost[m][p]
				}
			}
			if best[set] < 0 || c < best[set] {
				best[set], last[set] = c, int8(m)
			}
		}
	}
	order := make([]int, n)
	for set, i := size-1, n-1; i >= 0; i-- {
		order[i] = int(last[set])
		set &^= 1 << order[i]
	}
	return order
}

// greedyOrder takes sources first and sinks last, and between them the member
// that gives most and takes least (Eades, Lin and Smyth, 1993).
func greedyOrder(n int, edges []edge) []int {
	out, in := make([]map[int]bool, n), make([]map[int]bool, n)
	for i := range n {
		out[i], in[i] = map[int]bool{}, map[int]bool{}
	}
	for _, e := range edges {
		out[e.from][e.to], in[e.to][e.from] = true, true
	}
	gone := make([]bool, n)
	remove := func(m int) {
		gone[m] = true
		for t := range out[m] {
			delete(in[t], m)
		}
		for f := range in[m] {
			delete(out[f], m)
		}
	}
	var head, tail []int
	for len(head)+len(tail) < n {
		for again := true; again; {
			again = false
			for m := range n {
				switch {
				case gone[m]:
				case len(out[m]) == 0:
					tail = append(tail, m)
					remove(m)
					again = true
				case len(in[m]) == 0:
					head = append(head, m)
					remove(m)
					again = true
				}
			}
		}
		pick, top := -1, 0
		for m := range n {
			if d := len(out[m]) - len(in[m]); !gone[m] && (pick < 0 || d > top) {
				pick, top = m, d
			}
		}
		if pick >= 0 {
			head = append(head, pick)
			remove(pick)
		}
	}
	for i := len(tail) - 1; i >= 0; i-- {
		head = append(head, tail[i])
	}
	return head
}
