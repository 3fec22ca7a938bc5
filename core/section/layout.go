package section

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"
	"unicode"

	"jantel/core/drawing"
	"jantel/core/links"
	"jantel/core/model"
)

// Measures of the sheet, in px. Blocks stand on a grid of rows that all parts
// share, so that every gap between rows runs from one edge to the other: a tie
// leaves its block into a gap, changes rows in the gutter beside a part, and so
// never crosses a block or a word.
const (
	sheetW   = 900.0
	edge     = 20.0
	gutter   = 26.0 // between parts
	between  = 4.0  // blocks of a row
	rowH     = 36.0
	gap      = 11.0 // between rows
	tagH     = 17.0
	nameH    = 22.0 // of the parts, above the roof
	leastOf  = 64.0 // of a part
	letterW  = 7.25 // of the type
	belowTag = 24.0
	tagPad   = 14.0 // beside the text in the frame of a name below
)

// leastWs are how wide the narrowest blocks are drawn, the best first.
var leastWs = []float64{76, 62, 48, 36, 26, 14}

// stack puts the blocks of a part in rows from the top: each needs those
// below it. Where blocks need each other in a ring, the fewest ties that must
// point upwards are marked.
func (b *builder) stack(part int, needs map[need]map[string]int) {
	name := map[string]int{}
	var names []string
	for i := range b.Blocks {
		if b.Blocks[i].Pile == part {
			n := fmt.Sprintf("%05d", i)
			name[n] = i
			names = append(names, n)
		}
	}
	g := links.NewGraph(names)
	for k, of := range needs {
		if _, ok := name[fmt.Sprintf("%05d", k.from)]; ok {
			for range of[drawing.Code] + of[drawing.ByName] {
				g.Add(fmt.Sprintf("%05d", k.from), fmt.Sprintf("%05d", k.to))
			}
		}
	}
	levels, up := g.Stack()
	for l, level := range levels {
		row := l
		if len(levels) > maxRows {
			row = l * maxRows / len(levels)
		}
		for _, n := range level {
			b.Blocks[name[n]].Row = row
		}
	}
	for _, u := range up {
		from, to := name[u[0]], name[u[1]]
		if b.inRing(from, to) {
			b.Blocks[from].Ring, b.Blocks[to].Ring = true, true
			b.Ties = append(b.Ties, Tie{from: from, to: to, Class: drawing.Code, Count: needs[need{from, to}][drawing.Code], Ring: true})
		}
	}
	if len(levels) > maxRows {
		b.Notes = append(b.Notes, fmt.Sprintf("%s has %d levels, drawn as %d rows.", b.Parts[part].Name, len(levels), maxRows))
	}
}

// inRing reports whether two blocks lie in a ring that was found among files or
// folders. Files put together for the drawing alone can point both ways and be
// in none.
func (b *builder) inRing(x, y int) bool {
	holds := func(block int, member string) bool {
		k := &b.Blocks[block]
		if i, ok := b.blockOf[member]; ok {
			return i == block
		}
		return k.Together == 0 && model.Within(k.Path, member)
	}
	for _, c := range b.j.Cycles {
		if slices.ContainsFunc(c.Members, func(m string) bool { return holds(x, m) }) &&
			slices.ContainsFunc(c.Members, func(m string) bool { return holds(y, m) }) {
			return true
		}
	}
	return false
}

// ties chooses what is drawn between blocks: of what lies within a part only
// what is against the charter or in a ring, for the rows tell the rest; between
// two parts the heaviest of each class.
func (b *builder) ties(needs map[need]map[string]int) {
	b.breaches()
	type way struct {
		from, to int
		class    string
	}
	count, heaviest := map[way]int{}, map[way]need{}
	for _, k := range slices.SortedFunc(maps.Keys(needs), func(x, y need) int {
		return cmp.Or(cmp.Compare(x.from, y.from),
			cmp.Compare(x.to, y.to))
	}) {
		from, to := b.Blocks[k.from].Pile, b.Blocks[k.to].Pile
		if from == to {
			continue
		}
		for class, n := range needs[k] {
			w := way{from, to, class}
			count[w] += n
			if best, ok := heaviest[w]; !ok || n > needs[best][class] {
				heaviest[w] = k
			}
		}
	}
	order := slices.SortedFunc(maps.Keys(count), func(x, y way) int {
		return cmp.Or(cmp.Compare(count[y], count[x]), cmp.Compare(x.from, y.from), cmp.Compare(x.to, y.to), cmp.Compare(x.class, y.class))
	})
	if more := len(order) - maxTies; more > 0 {
		b.Notes = append(b.Notes, fmt.Sprintf("Of %d dependencies between parts the %d heaviest are drawn.", len(order), maxTies))
		order = order[:maxTies]
	}
	direct := map[[2]int]bool{}
	for _, w := range order {
		if w.class == drawing.Code {
			direct[[2]int{w.from, w.to}] = true
		}
	}
	for _, w := range order {
		k := heaviest[w]
		t := Tie{from: k.from, to: k.to, Class: w.class, Count: count[w]}
		t.Faint = w.class == drawing.Code && implied(direct, w.from, w.to, len(b.Parts))
		b.Ties = append(b.Ties, t)
	}
}

// implied reports whether a longer way leads from one part to the other.
func implied(direct map[[2]int]bool, from, to, parts int) bool {
	if direct[[2]int{to, from}] {
		return false // both ways: neither is implied
	}
	seen := map[int]bool{from: true}
	reached := []int{}
	for m := range parts {
		if m != to && m != from && direct[[2]int{from, m}] && !direct[[2]int{m, from}] {
			reached = append(reached, m)
			seen[m] = true
		}
	}
	for len(reached) > 0 {
		at := reached[0]
		reached = reached[1:]
		if direct[[2]int{at, to}] {
			return true
		}
		for m := range parts {
			if direct[[2]int{at, m}] && !seen[m] {
				seen[m] = true
				reached = append(reached, m)
			}
		}
	}
	return false
}

// breaches adds what the charter forbids, the heaviest first.
func (b *builder) breaches() {
	if b.j.Conformance == nil {
		return
	}
	count := map[need]int{}
	for _, x := range b.j.Conformance.Breaches {
		from, ok := b.blockOf[x.From]
		to, both := b.blockOf[x.To]
		if !ok {
			continue
		}
		b.Blocks[from].Breaches++
		if both && from != to {
			count[need{from, to}]++
		}
	}
	order := slices.SortedFunc(maps.Keys(count), func(x, y need) int {
		return cmp.Or(cmp.Compare(count[y], count[x]), cmp.Compare(x.from, y.from), cmp.Compare(x.to, y.to))
	})
	if more := len(order) - maxTies; more > 0 {
		b.Notes = append(b.Notes, fmt.Sprintf("Of %d dependencies against the charter the %d heaviest are drawn.", len(order), maxTies))
		order = order[:maxTies]
	}
	for _, k := range order {
		if i := slices.IndexFunc(b.Ties, func(t Tie) bool { return t.from == k.from && t.to == k.to }); i >= 0 {
			b.Ties[i].Breach = true // it closes a ring as well
			continue
		}
		b.Ties = append(b.Ties, Tie{from: k.from, to: k.to, Class: drawing.Code, Count: count[k], Breach: true})
	}
}

// lay gives everything its place.
func (b *builder) lay() {
	b.Width = sheetW
	rows := b.bottom()
	b.widths()
	above, below := 0, 0
	for _, t := range b.Tags {
		if t.Below {
			below = max(below, int(t.Y)+1)
		} else {
			above = max(above, int(t.Y)+1)
		}
	}
	b.Roof = 16 + float64(above)*tagH + nameH
	b.Ground = b.Roof + gap + float64(rows)*(rowH+gap)
	b.Height = b.Ground + 22 + float64(below)*belowTag
	for i := range b.Parts {
		b.row(i)
	}
	for i := range b.Tags {
		b.tag(&b.Tags[i], above)
	}
	b.route()
}

// bottom counts rows from the ground, so that what all need stands in one line
// over all parts, and says how many there are.
func (b *builder) bottom() int {
	of := make([]int, len(b.Parts))
	for i := range b.Blocks {
		of[b.Blocks[i].Pile] = max(of[b.Blocks[i].Pile], b.Blocks[i].Row+1)
	}
	rows := slices.Max(of)
	for i := range b.Blocks {
		b.Blocks[i].Row += rows - of[b.Blocks[i].Pile]
	}
	return rows
}

// inRow lists the blocks of a part by row and, within one, the largest first.
func (b *builder) inRow(part int) map[int][]int {
	out := map[int][]int{}
	for i := range b.Blocks {
		if b.Blocks[i].Pile == part {
			out[b.Blocks[i].Row] = append(out[b.Blocks[i].Row], i)
		}
	}
	for _, row := range out {
		slices.SortStableFunc(row, func(x, y int) int { return cmp.Compare(b.Blocks[y].Lines, b.Blocks[x].Lines) })
	}
	return out
}

// widths finds by how many px a line is wide, the same everywhere, so that all
// parts together fill the sheet.
func (b *builder) widths() {
	room := sheetW - 2*edge - gutter*float64(len(b.Parts)-1)
	rows := make([]map[int][]int, len(b.Parts))
	for i := range b.Parts {
		rows[i] = b.inRow(i)
	}
	least := 0.0
	wide := func(i int, scale float64) float64 {
		w := 0.0
		for _, row := range rows[i] {
			sum := between * float64(len(row)-1)
			for _, k := range row {
				sum += max(least, float64(b.Blocks[k].Lines)*scale)
			}
			w = max(w, sum)
		}
		return max(w, leastOf, letterW*1.1*float64(len([]rune(b.Parts[i].Name))))
	}
	all := func(scale float64) float64 {
		sum := 0.0
		for i := range b.Parts {
			sum += wide(i, scale)
		}
		return sum
	}
	// The narrowest blocks still hold a name, where that leaves the others
	// room to differ.
	for _, least = range leastWs {
		if all(0) <= room*0.82 {
			break
		}
	}
	low, high := 0.0, 100.0
	for range 60 {
		mid := (low + high) / 2
		if all(mid) > room {
			high = mid
		} else {
			low = mid
		}
	}
	// Where even the least is too much, all shrink alike.
	total := 0.0
	for i := range b.Parts {
		b.Parts[i].W = wide(i, low)
		total += b.Parts[i].W
	}
	shrink := min(1, room/total)
	x := edge
	for i := range b.Parts {
		b.Parts[i].W = round(b.Parts[i].W * shrink)
		b.Parts[i].X = round(x)
		x += b.Parts[i].W + gutter
	}
	for i := range b.Parts {
		for _, row := range rows[i] {
			sum := 0.0
			for _, k := range row {
				b.Blocks[k].W = max(least, float64(b.Blocks[k].Lines)*low)
				sum += b.Blocks[k].W
			}
			if most := b.Parts[i].W - between*float64(len(row)-1); sum > most {
				squeeze(b.Blocks, row, most)
			}
		}
	}
}

// squeeze makes the blocks of a row fit, the widest first.
func squeeze(blocks []Block, row []int, most float64) {
	sum := 0.0
	for _, k := range row {
		sum += blocks[k].W
	}
	for _, k := range row {
		blocks[k].W = max(2, blocks[k].W*most/sum)
	}
}

// row stands the blocks of a part side by side in each of its rows.
func (b *builder) row(part int) {
	for r, row := range b.inRow(part) {
		x := b.Parts[part].X
		for _, k := range row {
			blk := &b.Blocks[k]
			blk.X, blk.Y, blk.H = round(x), round(b.Roof+gap+float64(r)*(rowH+gap)), rowH
			w := blk.W
			blk.W = round(w)
			blk.Title = titled(blk.Name, int((blk.W-6)/letterW), false)
			x += w + between
		}
		// A narrow block at the end of its row says its name beside it.
		last := &b.Blocks[row[len(row)-1]]
		if free := b.Parts[part].X + b.Parts[part].W - last.X - last.W; len(last.Title) == 0 &&
			float64(len([]rune(last.Name)))*letterW+6 <= free {
			last.Title, last.Beside = []string{last.Name}, true
		}
		for _, k := range row {
			if blk := &b.Blocks[k]; len(blk.Title) == 0 {
				blk.Title = titled(blk.Name, int((blk.W-6)/letterW), true)
			}
		}
	}
}

// leastShown is how many letters of a name still say something of it.
const leastShown = 5

// titled breaks a name into at most two lines of so many letters, at a sign or a
// capital that parts words; none where it does not fit so, but for what may be cut
// short.
func titled(name string, letters int, cut bool) []string {
	n := []rune(name)
	switch {
	case letters < 4:
		return []string{}
	case len(n) <= letters:
		return []string{name}
	}
	first := 0
	for i := letters; i > letters/3; i-- {
		if strings.ContainsRune("/-_. ", n[i-1]) || unicode.IsUpper(n[i]) && unicode.IsLower(n[i-1]) {
			first = i
			break
		}
	}
	second := n[first:]
	switch fits := first > 0 && len(second) <= letters; {
	case fits:
	case !cut || letters < leastShown:
		return []string{}
	case first == 0:
		return []string{string(n[:letters-1]) + "…"}
	default:
		second = append(slices.Clone(second[:letters-1]), '…')
	}
	return []string{strings.TrimSpace(string(n[:first])), string(second)}
}

// tag puts a name above or below its part, cut short where the next begins.
func (b *builder) tag(t *Tag, above int) {
	i, k := int(t.X), t.Y
	part := b.Parts[i]
	t.X = part.X
	if t.Below {
		t.Y = round(b.Ground + 22 + k*belowTag)
	} else {
		t.Y = round(16 + (float64(above)-k-1)*tagH + 12)
	}
	// The next part's own tags begin where it does.
	room := part.W + gutter - 8
	if i == len(b.Parts)-1 {
		room = sheetW - part.X - 4
	}
	text := room
	if t.Below { // it stands in a frame
		text -= tagPad
	}
	if t.Full = t.Text; float64(len([]rune(t.Text)))*letterW > text {
		keep := max(3, int(text/letterW)-1)
		t.Text = strings.TrimSpace(string([]rune(t.Text)[:keep])) + "…"
	} else {
		t.Full = ""
	}
	t.W = round(min(room, float64(len([]rune(t.Text)))*letterW+tagPad))
}

// route lays the ties: out of a block into the gap beside its row, along it to
// the gutter, in the gutter to the gap beside the other's row, along that and
// in. Ties in one gap or gutter run in lanes of their own.
func (b *builder) route() {
	gaps, gutters := map[int]int{}, map[int]int{}
	ends := map[int]int{}
	lane := func(m map[int]int, k int, step, room float64) float64 {
		n := m[k]
		m[k]++
		lanes := int(room / step)
		return step * (float64(n%lanes) + 0.5 - float64(lanes)/2)
	}
	for i := range b.Ties {
		t := &b.Ties[i]
		f, g := b.Blocks[t.from], b.Blocks[t.to]
		x1, x2 := anchor(f, ends[t.from]), anchor(g, ends[t.to])
		ends[t.from]++
		ends[t.to]++
		down := f.Row < g.Row
		up := f.Row > g.Row
		// Gap r lies above row r.
		leave, arrive := f.Row+1, g.Row
		y1, y2 := f.Y+f.H, g.Y
		switch {
		case up:
			leave, arrive = f.Row, g.Row+1
			y1, y2 = f.Y, g.Y+g.H
		case !down: // the same row: over the top
			leave, arrive = f.Row, g.Row
			y1 = f.Y
		}
		gy := func(r int) float64 {
			return b.Roof + gap + float64(r)*(rowH+gap) - gap/2
		}
		a := gy(leave) + lane(gaps, leave, 2.5, gap-4)
		var way []string
		if leave == arrive {
			way = []string{point("M", x1, y1), vert(a), horiz(x2), vert(y2)}
		} else {
			beside := f.Pile // the gutter to the right of that part
			if g.Pile < f.Pile {
				beside--
			}
			gx := b.Parts[beside].X + b.Parts[beside].W + gutter/2
			if f.Pile == g.Pile {
				gx = b.past(f.Pile, min(f.Row, g.Row), max(f.Row, g.Row)) + gutter/2
			}
			gx = min(gx, sheetW-edge/2) + lane(gutters, beside, 3, edge-8)
			e := gy(arrive) + lane(gaps, arrive, 2.5, gap-4)
			way = []string{point("M", x1, y1), vert(a), horiz(gx), vert(e), horiz(x2), vert(y2)}
		}
		t.Line = strings.Join(way, " ")
		head := -5.0
		if up {
			head = 5
		}
		t.Tip = fmt.Sprintf("M%g,%g L%g,%g L%g,%g Z", round(x2), round(y2), round(x2-3), round(y2+head), round(x2+3), round(y2+head))
		t.From, t.To = f.Path, g.Path
	}
}

// past is where the widest of a part's rows between two ends.
func (b *builder) past(part, above, below int) float64 {
	x := b.Parts[part].X
	for i := range b.Blocks {
		if k := &b.Blocks[i]; k.Pile == part && k.Row > above && k.Row < below {
			x = max(x, k.X+k.W)
			if k.Beside {
				x = max(x, k.X+k.W+6+float64(len([]rune(k.Name)))*letterW)
			}
		}
	}
	return x
}

// anchor is where on its edge the nth tie of a block begins.
func anchor(b Block, n int) float64 {
	spots := max(1, int(b.W/9))
	return b.X + b.W*(float64(n*7%spots)+0.5)/float64(spots)
}

func point(op string, x, y float64) string { return fmt.Sprintf("%s%g,%g", op, round(x), round(y)) }
func vert(y float64) string                { return fmt.Sprintf("V%g", round(y)) }
func horiz(x float64) string               { return fmt.Sprintf("H%g", round(x)) }

func round(x float64) float64 { return math.Round(x*10) / 10 }
