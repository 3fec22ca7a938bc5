package drawing

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"jantel/core/links"
	"jantel/core/model"
)

// orders reports whether a class puts boxes above each other.
func orders(class string) bool {
	return class == Code || class == Rendered || class == ByName || class == Declared
}

// Measures of the picture, in pixels.
const (
	boxHeight = 30
	rowGap    = 58
	boxGap    = 26
	charWidth = 7.3
	boxPad    = 26
	maxWidth  = 860
	margin    = 20
	passes    = 8
	frameGap  = 12
)

// layout puts the boxes in rows by level, orders each row so that few bundles
// cross, and leads the bundles through the gaps between boxes.
func (d *Drawing) layout(r Request) {
	if len(d.Boxes) == 0 {
		return
	}
	names := make([]string, len(d.Boxes))
	at := map[string]int{}
	for i, b := range d.Boxes {
		names[i], at[b.Path] = b.Path, i
	}
	g := links.NewGraph(names)
	var between []model.Link
	for _, b := range d.Bundles {
		if orders(b.Class) {
			for range b.Count {
				g.Add(b.From, b.To)
			}
			between = append(between, model.Link{From: b.From, To: b.To, Kind: model.LinkImport})
		}
	}
	cut := map[[2]string]bool{}
	for i, c := range links.FileCycles(between, func(string) bool { return true }) {
		d.Rings = append(d.Rings, Ring{c.Members, c.Break, c.Exact})
		for _, m := range c.Members {
			d.Boxes[at[m]].Ring = i + 1
		}
		for _, e := range c.Break {
			cut[[2]string{e.From, e.To}] = true
		}
	}
	// Within a ring the levels are those that are left once it is cut.
	acyclic := links.NewGraph(names)
	for _, b := range d.Bundles {
		if orders(b.Class) && !cut[[2]string{b.From, b.To}] {
			acyclic.Add(b.From, b.To)
		}
	}
	for l, level := range acyclic.Levels() {
		for _, n := range level {
			d.Boxes[at[n]].Level = l
		}
	}
	// What comes from outside stands below all, whoever needs it.
	lowest := -1
	for _, b := range d.Boxes {
		if !b.Rim {
			lowest = max(lowest, b.Level)
		}
	}
	for i := range d.Boxes {
		if d.Boxes[i].Rim {
			d.Boxes[i].Level = lowest + 1
		}
	}
	if len(r.Circles) > 0 {
		// Each ring stands in rows of its own; what depends on nothing in it
		// lies lowest.
		d.circles()
	}
	rows := d.rows(at, r.Order)
	top := float64(margin)
	if len(r.Circles) > 0 {
		top += 24 // for the name of the outermost ring
	}
	d.place(rows, top)
	d.frame(rows, r.Circles)
	d.route(rows, at, cut)
}

// circles makes the levels follow the rings: first by ring, within each by the
// level that was found.
func (d *Drawing) circles() {
	keys := map[[2]int]bool{}
	for i := range d.Boxes {
		if d.Boxes[i].Rim {
			d.Boxes[i].Circle = outermost
		}
		keys[[2]int{d.Boxes[i].Circle, d.Boxes[i].Level}] = true
	}
	order := make([][2]int, 0, len(keys))
	for k := range keys {
		order = append(order, k)
	}
	slices.SortFunc(order, func(a, b [2]int) int { return cmp.Or(cmp.Compare(a[0], b[0]), cmp.Compare(a[1], b[1])) })
	for i := range d.Boxes {
		d.Boxes[i].Level = slices.Index(order, [2]int{d.Boxes[i].Circle, d.Boxes[i].Level})
		if d.Boxes[i].Rim {
			d.Boxes[i].Circle = 0
		}
	}
}

// outermost puts packages from outside below all rings.
const outermost = 1 << 20

// frame draws the outline of each ring around its rows and all further in.
func (d *Drawing) frame(rows [][]int, names []string) {
	if len(names) == 0 {
		return
	}
	top := make([]float64, len(names)+1)
	for i := range top {
		top[i] = -1
	}
	for _, r := range rows {
		c := d.Boxes[r[0]].Circle
		if y := d.Boxes[r[0]].Y; c > 0 && (top[c] < 0 || y < top[c]) {
			top[c] = y
		}
	}
	used := 0
	for c := 1; c <= len(names); c++ {
		if top[c] >= 0 {
			used++
		}
	}
	// Room for the outlines beside and below what they hold.
	room := float64(frameGap * used)
	for i := range d.Boxes {
		d.Boxes[i].X += room
	}
	bottom := d.Height + room - margin/2
	for _, b := range d.Boxes {
		if b.Rim {
			bottom = min(bottom, b.Y-18)
		}
	}
	k := 0.0
	for c, name := range names {
		if y := top[c+1]; y >= 0 {
			d.Frames = append(d.Frames, Frame{
				Name: name, X: margin/2 + frameGap*k, Y: y - 24, W: d.Width + 2*room - margin - 2*frameGap*k,
				H: bottom - (y - 24) - frameGap*k,
			})
			k++
		}
	}
	d.Width += 2 * room
	d.Height += room
}

// rows orders the boxes of each level by where their neighbours stand, in a
// fixed number of passes, and breaks levels that are too wide.
func (d *Drawing) rows(at map[string]int, order []string) [][]int {
	levels := 0
	for i := range d.Boxes {
		d.Boxes[i].W = math.Round(charWidth*float64(len([]rune(d.Boxes[i].Name)))) + boxPad
		d.Boxes[i].H = boxHeight
		levels = max(levels, d.Boxes[i].Level+1)
	}
	row := make([][]int, levels)
	for i, b := range d.Boxes {
		row[b.Level] = append(row[b.Level], i)
	}
	neighbours := make([][]int, len(d.Boxes))
	for _, b := range d.Bundles {
		a, c := at[b.From], at[b.To]
		neighbours[a] = append(neighbours[a], c)
		neighbours[c] = append(neighbours[c], a)
	}
	position := make([]float64, len(d.Boxes))
	spread := func() {
		for _, r := range row {
			for k, i := range r {
				position[i] = (float64(k) + 0.5) / float64(len(r))
			}
		}
	}
	spread()
	for pass := range passes {
		for k := range row {
			r := row[k]
			if pass%2 == 1 {
				r = row[len(row)-1-k]
			}
			centre := map[int]float64{}
			for _, i := range r {
				sum, n := 0.0, 0
				for _, j := range neighbours[i] {
					if d.Boxes[j].Level != d.Boxes[i].Level {
						sum += position[j]
						n++
					}
				}
				centre[i] = position[i]
				if n > 0 {
					centre[i] = math.Round(1e4*sum/float64(n)) / 1e4
				}
			}
			slices.SortStableFunc(r, func(a, b int) int {
				return cmp.Or(
					cmp.Compare(d.Boxes[a].Within, d.Boxes[b].Within), cmp.Compare(centre[a], centre[b]),
					cmp.Compare(d.Boxes[a].Path, d.Boxes[b].Path),
				)
			})
		}
		spread()
	}
	if len(order) > 0 {
		d.arrange(row, order)
	}
	var out [][]int
	for _, r := range row {
		width, from := 0.0, 0
		for k, i := range r {
			w := d.Boxes[i].W + boxGap
			if width+w > maxWidth && k > from {
				out = append(out, r[from:k])
				from, width = k, 0
			}
			width += w
		}
		out = append(out, r[from:])
	}
	return out
}

// arrange puts the boxes of each row that a hand moved in the order it gave
// them, in the places that they have together.
func (d *Drawing) arrange(row [][]int, order []string) {
	rank := map[string]int{}
	for i, p := range order {
		rank[p] = i + 1
	}
	for _, r := range row {
		var places, moved []int
		for k, i := range r {
			if rank[d.Boxes[i].Path] > 0 {
				places, moved = append(places, k), append(moved, i)
			}
		}
		before := slices.Clone(moved)
		slices.SortStableFunc(moved, func(a, b int) int { return cmp.Compare(rank[d.Boxes[a].Path], rank[d.Boxes[b].Path]) })
		for n, k := range places {
			r[k] = moved[n]
		}
		d.Moved = d.Moved || !slices.Equal(before, moved)
	}
}

func (d *Drawing) place(rows [][]int, y float64) {
	widest := 0.0
	widths := make([]float64, len(rows))
	for k, r := range rows {
		w := -float64(boxGap)
		for _, i := range r {
			w += d.Boxes[i].W + boxGap
		}
		widths[k] = w
		widest = max(widest, w)
	}
	d.Width = widest + 2*margin + 2*boxGap
	for k, r := range rows {
		x := math.Round((d.Width - widths[k]) / 2)
		for _, i := range r {
			d.Boxes[i].X, d.Boxes[i].Y = x, y
			x += d.Boxes[i].W + boxGap
		}
		y += boxHeight + rowGap
	}
	d.Height = y - rowGap + margin + rowGap/2
}

// route gives each bundle its curve: straight down (or up) from box to box, and
// where rows lie between, through the gap nearest to the straight line.
func (d *Drawing) route(rows [][]int, at map[string]int, cut map[[2]string]bool) {
	rowOf := make([]int, len(d.Boxes))
	gaps := make([][]float64, len(rows))
	for k, r := range rows {
		for n, i := range r {
			rowOf[i] = k
			if n == 0 {
				gaps[k] = append(gaps[k], d.Boxes[i].X-boxGap/2)
			}
			gaps[k] = append(gaps[k], d.Boxes[i].X+d.Boxes[i].W+boxGap/2)
		}
	}
	// Where the ends of a box's bundles stand side by side.
	out, in := map[string]int{}, map[string]int{}
	for _, b := range d.Bundles {
		out[b.From]++
		in[b.To]++
	}
	outAt, inAt := map[string]int{}, map[string]int{}
	port := func(b Box, k, n int) float64 {
		return b.X + b.W*(float64(k)+1)/(float64(n)+1)
	}
	used := map[[2]int]int{} // gaps that are passed already
	for n := range d.Bundles {
		bd := &d.Bundles[n]
		a, b := d.Boxes[at[bd.From]], d.Boxes[at[bd.To]]
		ra, rb := rowOf[at[bd.From]], rowOf[at[bd.To]]
		x0 := port(a, outAt[bd.From], out[bd.From])
		x1 := port(b, inAt[bd.To], in[bd.To])
		outAt[bd.From]++
		inAt[bd.To]++
		bd.Up = orders(bd.Class) && a.Level > b.Level || orders(bd.Class) && a.Level == b.Level && a.Ring > 0 && a.Ring == b.Ring
		bd.Cut = cut[[2]string{bd.From, bd.To}]
		var c strings.Builder
		point := func(f string, v ...float64) {
			for i := range v {
				v[i] = math.Round(v[i]*10) / 10
			}
			args := make([]any, len(v))
			for i := range v {
				args[i] = v[i]
			}
			fmt.Fprintf(&c, f, args...)
		}
		curve := func(fx, fy, tx, ty float64) {
			mid := (fy + ty) / 2
			point("C%g %g %g %g %g %g", fx, mid, tx, mid, tx, ty)
		}
		const tip = 6
		switch {
		case ra == rb: // below the row and back up
			y := a.Y + a.H
			point("M%g %g", x0, y)
			point("C%g %g %g %g %g %g", x0, y+rowGap*0.7, x1, y+rowGap*0.7, x1, y+tip)
			bd.Tip = arrow(x1, y, -1)
		case ra < rb: // down
			point("M%g %g", x0, a.Y+a.H)
			px, py := x0, a.Y+a.H
			for k := ra + 1; k < rb; k++ {
				gx := nearest(gaps[k], px+(x1-px)/float64(rb-k+1), used, k)
				y := d.Boxes[rows[k][0]].Y
				curve(px, py, gx, y)
				point("L%g %g", gx, y+boxHeight)
				px, py = gx, y+boxHeight
			}
			curve(px, py, x1, b.Y-tip)
			bd.Tip = arrow(x1, b.Y, 1)
		default: // up
			point("M%g %g", x0, a.Y)
			px, py := x0, a.Y
			for k := ra - 1; k > rb; k-- {
				gx := nearest(gaps[k], px+(x1-px)/float64(k-rb+1), used, k)
				y := d.Boxes[rows[k][0]].Y
				curve(px, py, gx, y+boxHeight)
				point("L%g %g", gx, y)
				px, py = gx, y
			}
			curve(px, py, x1, b.Y+b.H+tip)
			bd.Tip = arrow(x1, b.Y+b.H, -1)
		}
		bd.Curve = c.String()
	}
}

// nearest is the middle of the gap of a row that lies nearest to x, moved a
// little for each bundle that passes there already.
func nearest(gaps []float64, x float64, used map[[2]int]int, row int) float64 {
	best := 0
	for i, g := range gaps {
		if math.Abs(g-x) < math.Abs(gaps[best]-x) {
			best = i
		}
	}
	n := used[[2]int{row, best}]
	used[[2]int{row, best}]++
	// Side by side within the gap: right, left, further right …
	shift := float64((n+1)/2) * 3
	if n%2 == 1 {
		shift = -shift
	}
	return gaps[best] + math.Max(-boxGap/2+3, math.Min(boxGap/2-3, shift))
}

// arrow is a tip that touches y, pointing down (1) or up (-1).
func arrow(x, y float64, way float64) string {
	return fmt.Sprintf("M%.1f %.1fl-3.5 %.1fh7z", x, y, -7*way)
}
