package report

import (
	"cmp"
	"fmt"
	"html/template"
	"slices"
	"strings"

	"jantel/core/drawing"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/weave"
)

// htmlWeave is the grid of roles by features, ready to be written out.
type htmlWeave struct {
	*weave.Grid
	Rows []weaveRow
}

type weaveRow struct {
	Role  string
	Cells []weaveCell
}

// weaveCell is what one feature has of one role; Missing where most others
// have it and this one has not.
type weaveCell struct {
	Text, Title string
	Up, Left    bool // it lies in one folder with that neighbour
	Missing     bool
	Seen        int // of a hundred lines, those whose role is seen rather than assumed
}

// mostColumns is how many features fit the width of the page.
const mostColumns = 20

// largest are the indexes of the largest features, in the order they stand in.
func largest(all []weave.Column, most int) []int {
	order := make([]int, len(all))
	for i := range all {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(all[b].Lines, all[a].Lines) })
	order = order[:min(len(order), most)]
	slices.Sort(order)
	return order
}

// weaveOf writes out the grid of the whole codebase.
func weaveOf(s *model.Survey, j *judgement.Result) htmlWeave {
	whole := weave.GridOf(s, j.Judgement, ".")
	g := *whole
	shown := largest(g.Features, mostColumns)
	g.Features = nil
	at := map[int]int{} // a feature of the whole grid to its column here
	for _, i := range shown {
		at[i] = len(g.Features)
		g.Features = append(g.Features, whole.Features[i])
	}
	g.More += len(whole.Features) - len(shown)
	out := htmlWeave{Grid: &g}
	cells := map[[2]int]*weave.Cell{}
	for i := range g.Cells {
		if k, ok := at[g.Cells[i].Feature]; ok {
			cells[[2]int{g.Cells[i].Role, k}] = &g.Cells[i]
		}
	}
	for r, role := range g.Roles {
		row := weaveRow{Role: string(role)}
		for f, column := range g.Features {
			var cell weaveCell
			if c := cells[[2]int{r, f}]; c != nil {
				cell.Text = naming.Figure(c.Files)
				cell.Title = fmt.Sprintf("%s: %d files, %s lines", c.Folder, c.Files, naming.Figure(c.Lines))
				cell.Up = c.Up
				// A cell joins only the neighbour that is shown beside it.
				_, there := at[c.Feature-1]
				cell.Left = c.Left && there
				cell.Seen = 100 * (c.Lines - c.Assumed) / max(1, c.Lines)
			}
			cell.Missing = slices.Contains(column.Missing, r)
			row.Cells = append(row.Cells, cell)
		}
		out.Rows = append(out.Rows, row)
	}
	return out
}

// htmlDrawing is the drawing of the dependencies and the list that is its
// equal for whoever can not see it.
type htmlDrawing struct {
	*drawing.Drawing
	Picture template.HTML
	Listed  []drawing.Bundle
}

// maxListed bounds the list; the drawing holds the rest.
const maxListed = 200

func drawingOf(s *model.Survey, j *judgement.Result) (htmlDrawing, error) {
	d := drawing.Of(s, j.Roles, j.InScope, drawing.Request{Place: ".", Auto: true, Projects: j.Projects()})
	var b strings.Builder
	if err := SVG(&b, d, s.Codebase+": dependencies", Source(s)); err != nil {
		return htmlDrawing{}, err
	}
	// The picture writer escapes all text from the codebase.
	out := htmlDrawing{Drawing: d, Picture: template.HTML(b.String()), Listed: d.Bundles}
	out.Listed = out.Listed[:min(len(out.Listed), maxListed)]
	return out, nil
}
