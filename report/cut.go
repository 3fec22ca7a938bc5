package report

import (
	"fmt"
	"html/template"
	"slices"
	"strings"

	"jantel/core/drawing"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/overview"
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
}

// weaveOf writes out the grid of the whole codebase.
func weaveOf(s *model.Survey, j *judgement.Result) htmlWeave {
	g := weave.GridOf(s, j.Judgement, ".")
	out := htmlWeave{Grid: g}
	at := map[[2]int]*weave.Cell{}
	for i := range g.Cells {
		at[[2]int{g.Cells[i].Role, g.Cells[i].Feature}] = &g.Cells[i]
	}
	for r, role := range g.Roles {
		row := weaveRow{Role: string(role)}
		for f, column := range g.Features {
			var cell weaveCell
			if c := at[[2]int{r, f}]; c != nil {
				cell.Text = overview.Group(c.Files)
				cell.Title = fmt.Sprintf("%s: %d files, %s lines", c.Folder, c.Files, overview.Group(c.Lines))
				cell.Up, cell.Left = c.Up, c.Left
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
	d := drawing.Of(s, j.Roles, j.InScope, drawing.Request{Place: ".", Auto: true})
	var b strings.Builder
	if err := SVG(&b, d, s.Codebase+": dependencies", Source(s)); err != nil {
		return htmlDrawing{}, err
	}
	// The picture writer escapes all text from the codebase.
	out := htmlDrawing{Drawing: d, Picture: template.HTML(b.String()), Listed: d.Bundles}
	out.Listed = out.Listed[:min(len(out.Listed), maxListed)]
	return out, nil
}
