package calls

import (
	"cmp"
	"slices"
	"strings"

	"jantel/core/model"
)

// From lists the links that begin in a definition, by line. Those of a file
// stand together in the order of its definitions.
func (g *Graph) From(r Ref) []Edge {
	first, _ := slices.BinarySearchFunc(g.Edges, r, func(e Edge, r Ref) int {
		if e.From.File != r.File {
			return int(e.From.File) - int(r.File)
		}
		return int(e.From.Definition) - int(r.Definition)
	})
	last := first
	for last < len(g.Edges) && g.Edges[last].From.File == r.File && g.Edges[last].From.Definition == r.Definition {
		last++
	}
	return g.Edges[first:last:last]
}

// To lists the links that lead to a definition, by file and line.
func (g *Graph) To(r Ref) []Edge {
	g.once.Do(func() {
		g.back = make([]int32, len(g.Edges))
		for i := range g.back {
			g.back[i] = int32(i)
		}
		slices.SortStableFunc(g.back, func(a, b int32) int { return compareEnds(g.Edges[a].To, g.Edges[b].To) })
	})
	first, _ := slices.BinarySearchFunc(g.back, r, func(i int32, r Ref) int { return compareEnds(g.Edges[i].To, r) })
	var out []Edge
	for ; first < len(g.back) && compareEnds(g.Edges[g.back[first]].To, r) == 0; first++ {
		out = append(out, g.Edges[g.back[first]])
	}
	return out
}

// compareEnds orders definitions; a member that stands in none is its interface's.
func compareEnds(a, b Ref) int {
	return cmp.Or(cmp.Compare(a.File, b.File), cmp.Compare(a.Definition, b.Definition))
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
