package reach

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"slices"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/reading"
)

// Which way a picture looks from a place.
const (
	Touched = "touched" // what a change there may touch
	Along   = "along"   // what comes along when it is taken elsewhere
)

// ReachPicture draws what is reached from a place, the place on the left and each
// step in a column of its own: folders, or files where it is of a definition. Lengths
// are in pixels.
type ReachPicture struct {
	Way     string        `json:"way"`
	Width   float64       `json:"width"`
	Height  float64       `json:"height"`
	Columns []ReachColumn `json:"columns"`
	Boxes   []ReachBox    `json:"boxes" doc:"the place first, then column by column"`
	Ties    []ReachTie    `json:"ties"`
	What    string        `json:"what" enum:"file,definition" doc:"what is counted"`
	Reached int           `json:"reached" doc:"all of them, tests left out"`
	Tests   int           `json:"tests" doc:"of tests that are reached"`
}

// ReachColumn is what lies so many steps away; the last may hold all beyond it.
type ReachColumn struct {
	X     float64 `json:"x"`
	Title string  `json:"title"`
	Count int     `json:"count" doc:"files or definitions in it, tests left out"`
}

// ReachBox is a folder or a file of a column.
type ReachBox struct {
	X      float64 `json:"x"`
	Y      float64 `json:"y"`
	W      float64 `json:"w"`
	H      float64 `json:"h"`
	Path   string  `json:"path" doc:"empty where it stands for several"`
	Name   string  `json:"name"`
	Column int     `json:"column"`
	Count  int     `json:"count" doc:"files or definitions in it"`
	Tests  bool    `json:"tests" doc:"it holds tests alone"`
	Likely bool    `json:"likely" doc:"no way there is sure"`
}

// ReachTie says that what is in one box needs what is in another.
type ReachTie struct {
	From  int     `json:"from" doc:"its place among the boxes: nearer to the place"`
	To    int     `json:"to"`
	Count int     `json:"count" doc:"links between the two"`
	Curve string  `json:"curve" doc:"as an SVG path"`
	Wide  float64 `json:"wide"`
}

// Sizes of the picture.
const (
	boxWidth   = 158.0
	boxGap     = 8.0
	columnGap  = 34.0
	headHeight = 30.0
	lowest     = 38.0 // of a box
	highest    = 86.0
	mostBoxes  = 9 // in a column, what is left over in one more
	mostColumn = 4 // so many fit beside each other
)

// found is something reached, with what it was reached from.
type found struct {
	path       string
	column     int
	sure, test bool
	near       []string // keys of what lies one step nearer
}

// Draw draws what is reached from a file or a folder.
func Draw(r *reading.Reading, place, way string) *ReachPicture {
	start := map[string]bool{}
	for _, f := range r.At(place) {
		start[f.Path] = true
	}
	g := filesOf(r)
	ahead, back := g.users, g.needs
	if way == Along {
		ahead, back = g.needs, g.users
	}
	far, sure := walk(start, ahead)
	all := map[string]*found{}
	for p, d := range far {
		x := &found{path: model.FolderOf(p), column: d, sure: sure[p], test: r.IsTest(p)}
		for _, s := range back[p] {
			if start[s.to] && d == 1 || far[s.to] == d-1 && d > 1 {
				x.near = append(x.near, s.to)
			}
		}
		all[p] = x
	}
	b := newBoxes(place, way, "file", start)
	return b.draw(all)
}

// DrawDefinition draws what is reached from the definition that holds a line; false
// where the file is not there.
func DrawDefinition(r *reading.Reading, place string, line int, way string) (*ReachPicture, bool) {
	g := calls.Of(r.Survey)
	at, ok := g.AtPath(place, line)
	if !ok {
		return nil, false
	}
	key := func(ref calls.Ref) string { return fmt.Sprintf("%d:%d:%d", ref.File, ref.Definition, ref.Member) }
	all := map[string]*found{}
	round, column := []calls.Ref{at}, map[calls.Ref]int{at: 0}
	for d := 1; len(round) > 0; d++ {
		var next []calls.Ref
		for _, ref := range round {
			for _, e := range steps(g, ref, way) {
				x := all[key(e.to)]
				if c, known := column[e.to]; known && c != d {
					continue
				} else if !known {
					column[e.to] = d
					path := g.Path(e.to)
					x = &found{path: path, column: d, test: r.IsTest(path)}
					all[key(e.to)] = x
					next = append(next, e.to)
				}
				x.sure = x.sure || e.sure
				x.near = append(x.near, key(ref))
			}
		}
		round = next
	}
	b := newBoxes(place, way, "definition", map[string]bool{key(at): true})
	b.name = g.Name(at)
	return b.draw(all), true
}

type towards struct {
	to   calls.Ref
	sure bool
}

// steps are the definitions one link away.
func steps(g *calls.Graph, ref calls.Ref, way string) (out []towards) {
	if way == Along {
		for _, e := range g.From(ref) {
			out = append(out, towards{e.To, e.Sure})
		}
		return out
	}
	for _, e := range g.To(ref) {
		out = append(out, towards{e.From, e.Sure})
	}
	return out
}

// boxes is a picture on the way.
type boxes struct {
	place, name, way, what string
	start                  map[string]bool
	at                     map[string]int // boxes by the key of what lies in them
	out                    ReachPicture
}

func newBoxes(place, way, what string, start map[string]bool) *boxes {
	return &boxes{place: place, name: short(place), way: way, what: what, start: start, at: map[string]int{}}
}

// short is the end of a path that a box has room for.
func short(p string) string {
	const room = 21
	if len(p) <= room {
		return p
	}
	for i := len(p) - room; i < len(p); i++ {
		if p[i] == '/' {
			return "…" + p[i:]
		}
	}
	return "…" + p[len(p)-room+1:]
}

// group is what one box holds.
type group struct {
	path   string
	test   bool
	keys   []string
	sure   bool
	folded int // paths, where it stands for several
}

func (b *boxes) draw(all map[string]*found) *ReachPicture {
	last := 0
	for _, x := range all {
		x.column = min(x.column, mostColumn)
		last = max(last, x.column)
		if x.test {
			b.out.Tests++
		} else {
			b.out.Reached++
		}
	}
	b.out.Way, b.out.What = b.way, b.what
	b.out.Boxes = []ReachBox{{X: 0, Y: headHeight, W: boxWidth, H: lowest, Path: b.place, Name: b.name, Count: len(b.start)}}
	b.out.Columns = []ReachColumn{{X: 0, Title: "from here", Count: len(b.start)}}
	for k := range b.start {
		b.at[k] = 0
	}
	for c := 1; c <= last; c++ {
		b.column(c, b.groups(all, c))
	}
	b.out.Width = b.out.Columns[last].X + boxWidth
	for _, x := range b.out.Boxes {
		b.out.Height = max(b.out.Height, x.Y+x.H)
	}
	b.middle()
	b.ties(all)
	return &b.out
}

// groups are the boxes of a column, the fullest first, tests last.
func (b *boxes) groups(all map[string]*found, column int) []*group {
	by := map[string]*group{}
	for _, k := range slices.Sorted(maps.Keys(all)) {
		x := all[k]
		if x.column != column {
			continue
		}
		id := x.path
		if x.test {
			id = "\x00tests"
		}
		g := by[id]
		if g == nil {
			g = &group{path: x.path, test: x.test, folded: 1}
			by[id] = g
		} else if g.path != x.path {
			g.path, g.folded = "", g.folded+1
		}
		g.keys, g.sure = append(g.keys, k), g.sure || x.sure
	}
	var out []*group
	for _, g := range by {
		out = append(out, g)
	}
	slices.SortFunc(out, func(a, b *group) int {
		if a.test != b.test {
			if a.test {
				return 1
			}
			return -1
		}
		return cmp.Or(cmp.Compare(len(b.keys), len(a.keys)), cmp.Compare(a.path, b.path))
	})
	return fold(out)
}

// fold puts what a column has no room for into one box.
func fold(all []*group) []*group {
	tests := slices.IndexFunc(all, func(g *group) bool { return g.test })
	if tests < 0 {
		tests = len(all)
	}
	if tests <= mostBoxes+1 {
		return all
	}
	rest := &group{}
	for _, g := range all[mostBoxes:tests] {
		rest.keys, rest.folded, rest.sure = append(rest.keys, g.keys...), rest.folded+g.folded, rest.sure || g.sure
	}
	return append(append(slices.Clone(all[:mostBoxes]), rest), all[tests:]...)
}

// column puts boxes below one another.
func (b *boxes) column(c int, groups []*group) {
	x := float64(c) * (boxWidth + columnGap)
	title := fmt.Sprintf("over %d steps", c)
	switch c {
	case 1:
		title = "directly"
	case mostColumn:
		title = fmt.Sprintf("over %d steps and more", c)
	}
	col := ReachColumn{X: x, Title: title}
	y := headHeight
	for _, g := range groups {
		n := len(g.keys)
		box := ReachBox{
			X: x, Y: y, W: boxWidth, H: round(min(highest, lowest+5*math.Sqrt(float64(n-1)))), Path: g.path, Name: short(g.path),
			Column: c, Count: n, Tests: g.test, Likely: !g.sure,
		}
		switch {
		case g.test:
			box.Name = "tests"
		case g.path == "":
			box.Name = fmt.Sprintf("%d more", g.folded)
		}
		if !g.test {
			col.Count += n
		}
		for _, k := range g.keys {
			b.at[k] = len(b.out.Boxes)
		}
		b.out.Boxes = append(b.out.Boxes, box)
		y += box.H + boxGap
	}
	b.out.Columns = append(b.out.Columns, col)
}

// middle puts each column into the middle of the tallest.
func (b *boxes) middle() {
	ends := make([]float64, len(b.out.Columns))
	for _, x := range b.out.Boxes {
		ends[x.Column] = max(ends[x.Column], x.Y+x.H)
	}
	for i := range b.out.Boxes {
		x := &b.out.Boxes[i]
		x.Y = round(x.Y + (b.out.Height-ends[x.Column])/2)
	}
}

// ties joins boxes with those that their files were reached from.
func (b *boxes) ties(all map[string]*found) {
	count := map[[2]int]int{}
	for _, k := range slices.Sorted(maps.Keys(all)) {
		for _, n := range all[k].near {
			if from, ok := b.at[n]; ok && from != b.at[k] {
				count[[2]int{from, b.at[k]}]++
			}
		}
	}
	b.out.Ties = []ReachTie{}
	for pair, n := range count {
		f, t := b.out.Boxes[pair[0]], b.out.Boxes[pair[1]]
		x1, y1, x2, y2 := f.X+f.W, round(f.Y+f.H/2), t.X, round(t.Y+t.H/2)
		if f.Column == t.Column { // beyond the last column all stand in one
			continue
		}
		half := round((x1 + x2) / 2)
		b.out.Ties = append(b.out.Ties, ReachTie{
			From: pair[0], To: pair[1], Count: n, Wide: round(min(7, 1+math.Log2(float64(n)))),
			Curve: fmt.Sprintf("M%g %g C%g %g %g %g %g %g", x1, y1, half, y1, half, y2, x2, y2),
		})
	}
	slices.SortFunc(b.out.Ties, func(a, c ReachTie) int { return cmp.Or(cmp.Compare(a.From, c.From), cmp.Compare(a.To, c.To)) })
}

func round(x float64) float64 { return math.Round(x*10) / 10 }
