package links

import (
	"cmp"
	"maps"
	"path"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"

	"gonum.org/v1/gonum/graph/simple"
	"gonum.org/v1/gonum/graph/topo"
)

// Graph is dependencies between named things, with how many links stand for
// each.
type Graph struct {
	Names []string
	Edges map[[2]int]int
	index map[string]int
}

// NewGraph starts a graph over names.
func NewGraph(names []string) *Graph {
	g := &Graph{Names: append([]string(nil), names...), Edges: map[[2]int]int{}, index: map[string]int{}}
	sort.Strings(g.Names)
	for i, n := range g.Names {
		g.index[n] = i
	}
	return g
}

// Add counts one link between two names; links within one, and of names the
// graph does not have, are left out.
func (g *Graph) Add(from, to string) {
	a, ok := g.index[from]
	b, ok2 := g.index[to]
	if ok && ok2 && a != b {
		g.Edges[[2]int{a, b}]++
	}
}

// Levels puts the names in levels from the top: each level needs only what
// lies below it, and the last needs nothing. Names that need each other in a
// ring share a level.
func (g *Graph) Levels() [][]string {
	d := simple.NewDirectedGraph()
	for i := range g.Names {
		d.AddNode(simple.Node(i))
	}
	for e := range g.Edges {
		d.SetEdge(simple.Edge{F: simple.Node(e[0]), T: simple.Node(e[1])})
	}
	comp := make([]int, len(g.Names))
	sccs := topo.TarjanSCC(d) // what is needed comes before what needs it
	for i, c := range sccs {
		for _, n := range c {
			comp[n.ID()] = i
		}
	}
	needs := make([]map[int]bool, len(sccs))
	for e := range g.Edges {
		if a, b := comp[e[0]], comp[e[1]]; a != b {
			if needs[a] == nil {
				needs[a] = map[int]bool{}
			}
			needs[a][b] = true
		}
	}
	level := make([]int, len(sccs))
	highest := 0
	for i := range sccs {
		for b := range needs[i] {
			level[i] = max(level[i], level[b]+1)
		}
		highest = max(highest, level[i])
	}
	out := make([][]string, highest+1)
	for i, n := range g.Names {
		l := highest - level[comp[i]]
		out[l] = append(out[l], n)
	}
	return out
}

// Stack puts the names in levels as Levels does, but takes rings apart: the
// fewest of their dependencies that have to point upwards for the others to
// point down are given back, in the order of their names.
func (g *Graph) Stack() (levels [][]string, up [][2]string) {
	d := simple.NewDirectedGraph()
	for i := range g.Names {
		d.AddNode(simple.Node(i))
	}
	for e := range g.Edges {
		d.SetEdge(simple.Edge{F: simple.Node(e[0]), T: simple.Node(e[1])})
	}
	down := NewGraph(g.Names)
	maps.Copy(down.Edges, g.Edges)
	for _, ring := range topo.TarjanSCC(d) {
		if len(ring) < 2 {
			continue
		}
		at := map[int]int{} // of a name among the members
		members := make([]int, 0, len(ring))
		for _, n := range ring {
			members = append(members, int(n.ID()))
		}
		slices.Sort(members)
		for i, m := range members {
			at[m] = i
		}
		var within []edge
		for e, weight := range g.Edges {
			from, in := at[e[0]]
			to, both := at[e[1]]
			if in && both {
				within = append(within, edge{from, to, weight})
			}
		}
		cut, _ := fewest(len(members), within)
		for _, c := range cut {
			e := [2]int{members[c.from], members[c.to]}
			delete(down.Edges, e)
			up = append(up, [2]string{g.Names[e[0]], g.Names[e[1]]})
		}
	}
	slices.SortFunc(up, func(a, b [2]string) int { return cmp.Or(cmp.Compare(a[0], b[0]), cmp.Compare(a[1], b[1])) })
	return down.Levels(), up
}

// AtDepth is the part of a path with so many folders below a root, the path
// itself where it has fewer.
func AtDepth(root, p string, depth int) string {
	rel := p
	if root != "." {
		rel = strings.TrimPrefix(p, root+"/")
	}
	parts := strings.Split(rel, "/")
	if len(parts) > depth {
		parts = parts[:depth]
	}
	return path.Join(root, strings.Join(parts, "/"))
}

// FolderLevels puts the folders below a root, so many deep, in levels. Lazy
// imports, messages and requests do not order anything.
func FolderLevels(ls []model.Link, root string, depth int, in func(string) bool) [][]string {
	names := map[string]bool{}
	known := map[string]string{}
	of := func(p string) string {
		d := model.FolderOf(p)
		n, ok := known[d]
		if !ok {
			if d != root && model.Within(root, p) {
				n = AtDepth(root, d, depth)
			}
			known[d] = n
		}
		return n
	}
	// Links stand by the file they start in, which is looked up once.
	type ends struct{ from, to string }
	at := make([]ends, len(ls))
	from, last := "", ""
	for i := range ls {
		if ls[i].From != last {
			if last, from = ls[i].From, ""; in(last) {
				from = of(last)
			}
		}
		to := ""
		if in(ls[i].To) {
			to = of(ls[i].To)
		}
		at[i] = ends{from, to}
		names[from], names[to] = true, true
	}
	delete(names, "")
	list := make([]string, 0, len(names))
	for n := range names {
		list = append(list, n)
	}
	g := NewGraph(list)
	for i := range ls {
		l := &ls[i]
		if e := at[i]; Directs(l.Kind) && l.Kind != model.LinkLazyImport && e.from != "" && e.to != "" && e.from != e.to {
			g.Add(e.from, e.to)
		}
	}
	if len(list) == 0 {
		return nil
	}
	return g.Levels()
}

// FolderCycles returns the rings of folders that need each other through the
// files directly in them.
func FolderCycles(ls []model.Link, in func(path string) bool) []model.Cycle {
	var between []model.Link
	for i := range ls {
		l := ls[i]
		if !Directs(l.Kind) || l.Kind == model.LinkLazyImport || l.TypeOnly || !in(l.From) || !in(l.To) {
			continue
		}
		a, b := model.FolderOf(l.From), model.FolderOf(l.To)
		// A folder and one inside it belong together.
		if a == b || model.Within(a, b) || model.Within(b, a) {
			continue
		}
		between = append(between, model.Link{From: a, To: b, Kind: model.LinkImport})
	}
	out := FileCycles(between, func(string) bool { return true })
	for i := range out {
		out[i].Level = "folder"
	}
	return out
}
