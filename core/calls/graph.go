package calls

import (
	"slices"
	"strings"

	"jantel/core/model"
)

// index notes where the definitions of each file begin among all, and the links
// of each definition among all.
func (g *Graph) index() {
	g.places = make([]int32, len(g.survey.Files)+1)
	for i, f := range g.survey.Files {
		n := 1
		if f.Facts != nil {
			n += len(f.Facts.Definitions)
		}
		g.places[i+1] = g.places[i] + int32(n)
	}
	g.out = make([]int32, g.Places()+1)
	for i := range g.Edges {
		g.out[g.Place(g.Edges[i].From)+1]++
	}
	for p := range g.Places() {
		g.out[p+1] += g.out[p]
	}
}

// Places is how many definitions there are in all, the tops of files among them.
func (g *Graph) Places() int { return int(g.places[len(g.places)-1]) }

// Place is the number of a definition among all of them, from 0; a member that
// stands in none has its interface's.
func (g *Graph) Place(r Ref) int { return int(g.places[r.File] + r.Definition + 1) }

// RefAt is the definition with a number among all of them.
func (g *Graph) RefAt(n int) Ref {
	file, there := slices.BinarySearch(g.places, int32(n))
	if !there {
		file--
	}
	return Ref{File: int32(file), Definition: int32(n) - g.places[file] - 1}
}

// From lists the links that begin in a definition, by line. Those of a file
// stand together in the order of its definitions.
func (g *Graph) From(r Ref) []Edge {
	p := g.Place(r)
	first, last := g.out[p], g.out[p+1]
	return g.Edges[first:last:last]
}

// To lists the links that lead to a definition, by file and line.
func (g *Graph) To(r Ref) []Edge {
	g.once.Do(g.indexBack)
	p := g.Place(r)
	var out []Edge
	for _, i := range g.back[g.in[p]:g.in[p+1]] {
		out = append(out, g.Edges[i])
	}
	return out
}

// indexBack puts the links in the order of where they lead, by counting how many
// lead to each place.
func (g *Graph) indexBack() {
	g.in, g.back = make([]int32, g.Places()+1), make([]int32, len(g.Edges))
	for i := range g.Edges {
		g.in[g.Place(g.Edges[i].To)+1]++
	}
	for p := range g.Places() {
		g.in[p+1] += g.in[p]
	}
	next := slices.Clone(g.in)
	for i := range g.Edges {
		p := g.Place(g.Edges[i].To)
		g.back[next[p]] = int32(i)
		next[p]++
	}
}

// AtPath is At for a file by its path; false where there is no such file.
func (g *Graph) AtPath(path string, line int) (Ref, bool) {
	i, ok := slices.BinarySearchFunc(g.survey.Files, path, func(f *model.File, p string) int { return strings.Compare(f.Path, p) })
	if !ok {
		return Ref{}, false
	}
	return g.At(i, line), true
}

// At is the innermost definition of a file that holds a line; the top of the
// file where none does.
func (g *Graph) At(file, line int) Ref {
	r := Ref{File: int32(file), Definition: -1}
	facts := g.survey.Files[file].Facts
	if facts == nil {
		return r
	}
	for i := range facts.Definitions {
		d := &facts.Definitions[i]
		if d.Line > line {
			break
		}
		if d.EndLine >= line && (r.Definition < 0 || d.EndLine <= facts.Definitions[r.Definition].EndLine) {
			r.Definition = int32(i)
		}
	}
	return r
}

// Definition is what a reference names; nil at the top of a file.
func (g *Graph) Definition(r Ref) *model.Definition {
	if r.Definition < 0 {
		return nil
	}
	return &g.survey.Files[r.File].Facts.Definitions[r.Definition]
}
