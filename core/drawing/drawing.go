// Package drawing lays dependencies out: boxes in levels, joined by bundles
// that stand for links. It computes coordinates; the browser and the writers of
// pictures draw the same ones.
package drawing

import (
	"cmp"
	"fmt"
	"math"
	"path"
	"slices"
	"sort"
	"strings"

	"jantel/core/links"
	"jantel/core/model"
)

// Limits of one drawing: beyond them it collapses and says so.
const (
	MaxBoxes   = 150
	MaxBundles = 600
)

// How far folders are opened by themselves.
const (
	fewBoxes  = 12
	manyBoxes = 48
)

// Classes of links that are drawn apart.
const (
	Code     = "code"
	Lazy     = "lazy"
	Rendered = "rendered"
	HTTP     = "http"
	Message  = "message"
	ByName   = "by name"
	Declared = "declared"
)

// Classes lists the classes in the order of the legend.
var Classes = []string{Code, Lazy, Rendered, HTTP, Message, ByName, Declared}

// ClassOf is the class a kind of link is drawn as, "" for kinds that only say
// more of an import.
func ClassOf(k model.LinkKind) string {
	switch k {
	case model.LinkImport, model.LinkReExport, model.LinkInheritance:
		return Code
	case model.LinkLazyImport:
		return Lazy
	case model.LinkRendering:
		return Rendered
	case model.LinkHTTP:
		return HTTP
	case model.LinkMessage:
		return Message
	case model.LinkTemplate, model.LinkRoute, model.LinkConfiguration:
		return ByName
	case model.LinkDeclared:
		return Declared
	}
	return ""
}

// Box is a folder or a file.
type Box struct {
	Path   string  `json:"path"`
	Name   string  `json:"name"`
	Within string  `json:"within" doc:"the opened folder it lies in, empty at the top"`
	File   bool    `json:"file"`
	Opens  bool    `json:"opens" doc:"it can be taken apart in place"`
	Files  int     `json:"files"`
	Lines  int     `json:"lines"`
	Level  int     `json:"level"`
	Ring   int     `json:"ring" doc:"number of the ring of dependencies it is in, 0 for none"`
	Circle int     `json:"circle" doc:"number of the charter's ring it lies in, 1 for the outermost, 0 for none"`
	X      float64 `json:"x"`
	Y      float64 `json:"y"`
	W      float64 `json:"w"`
	H      float64 `json:"h"`
}

// Bundle stands for all links of one class from one box to another.
type Bundle struct {
	From  string  `json:"from"`
	To    string  `json:"to"`
	Class string  `json:"class"`
	Count int     `json:"count"`
	Wide  float64 `json:"wide" doc:"how thick it is drawn"`
	Up    bool    `json:"up" doc:"it points against the levels: it is part of a ring"`
	Cut   bool    `json:"cut" doc:"one of the fewest whose removal opens its ring"`
	Curve string  `json:"curve" doc:"path data"`
	Tip   string  `json:"tip" doc:"path data of the arrow"`
}

// Drawing is a laid out picture.
type Drawing struct {
	Place   string   `json:"place"`
	Width   float64  `json:"width"`
	Height  float64  `json:"height"`
	Boxes   []Box    `json:"boxes"`
	Bundles []Bundle `json:"bundles"`
	Opened  []string `json:"opened"`
	Classes []string `json:"classes" doc:"those that occur, in the order of the legend"`
	Rings   []Ring   `json:"rings"`
	Frames  []Frame  `json:"frames" doc:"the rings of a charter that asks for them, the outermost first"`
	Focus   string   `json:"focus" doc:"the one place that is shown with its neighbours, empty for all"`
	Moved   bool     `json:"moved" doc:"some of it stands where a hand put it"`
	Notes   []string `json:"notes"`
}

// Frame is the outline of a ring of the charter with all that lies further in.
type Frame struct {
	Name string  `json:"name"`
	X    float64 `json:"x"`
	Y    float64 `json:"y"`
	W    float64 `json:"w"`
	H    float64 `json:"h"`
}

// Ring is a ring among the boxes with the fewest dependencies to cut.
type Ring struct {
	Members []string          `json:"members"`
	Break   []model.CycleLink `json:"break"`
	Exact   bool              `json:"exact"`
}

// Request says what to draw.
type Request struct {
	Place  string   // the folder whose parts are drawn, or a file that is drawn with its neighbours
	Opened []string // folders taken apart in place
	Tests  bool     // draw tests as well
	Auto   bool     // open folders where there are only few
	Focus  string   // of all boxes, only this one and its neighbours
	Order  []string // boxes as a hand put them, from the left; the others stand where they are reckoned
	// Only reports whether a file is drawn; nil draws all.
	Only func(path string) bool
	// Circles are the rings of the charter, the outermost first; RingOf is the
	// name of the one that holds a file. Without them the drawing has levels.
	Circles []string
	RingOf  map[string]string
}

// Of draws the parts of a place.
func Of(s *model.Survey, roles map[string]model.RoleOf, judged map[string]bool, r Request) *Drawing {
	d := &Drawing{Place: r.Place, Boxes: []Box{}, Bundles: []Bundle{}, Opened: []string{}, Classes: []string{}, Rings: []Ring{}, Frames: []Frame{}, Notes: []string{}}
	inside := func(p string) bool { return model.Within(r.Place, p) }
	if s.File(r.Place) != nil {
		near := beside(s, r.Place)
		inside = func(p string) bool { return near[p] }
		r.Focus, r.Auto, r.Opened = r.Place, false, nil
	}
	var files []*model.File
	for _, f := range s.Files {
		if p := f.Path; judged[p] && inside(p) && (p == r.Place || (r.Tests || roles[p].Role != model.RoleTest) && drawn(roles[p].Role) && (r.Only == nil || r.Only(p))) {
			files = append(files, f)
		}
	}
	if s.File(r.Place) != nil {
		d.neighbours(s.Links, files, r)
		return d
	}
	opened := map[string]bool{}
	for _, o := range r.Opened {
		if model.Within(r.Place, o) && o != r.Place {
			opened[o] = true
		}
	}
	boxOf, boxes := parts(r.Place, files, opened)
	passed := map[string]bool{}
	for r.Auto && len(boxes) < fewBoxes {
		// A few boxes say little: the one with most in it is taken apart.
		largest := Box{}
		for _, b := range boxes {
			if b.Opens && !passed[b.Path] && (b.Files > largest.Files || b.Files == largest.Files && b.Path < largest.Path) {
				largest = b
			}
		}
		if largest.Files < 2 {
			break
		}
		opened[largest.Path] = true
		next, wider := parts(r.Place, files, opened)
		if len(wider) > manyBoxes {
			delete(opened, largest.Path)
			passed[largest.Path] = true
			continue
		}
		boxOf, boxes = next, wider
	}
	if len(boxes) > MaxBoxes && len(opened) > 0 {
		d.Notes = append(d.Notes, fmt.Sprintf("More than %d boxes: what was opened is shown closed again.", MaxBoxes))
		opened = map[string]bool{}
		boxOf, boxes = parts(r.Place, files, opened)
	}
	if len(boxes) > MaxBoxes {
		d.Notes = append(d.Notes, fmt.Sprintf("Of %d parts the %d with the most lines are shown.", len(boxes), MaxBoxes))
		slices.SortStableFunc(boxes, func(a, b Box) int { return cmp.Or(cmp.Compare(b.Lines, a.Lines), cmp.Compare(a.Path, b.Path)) })
		gone := map[string]bool{}
		for _, b := range boxes[MaxBoxes:] {
			gone[b.Path] = true
		}
		boxes = boxes[:MaxBoxes]
		for f, b := range boxOf {
			if gone[b] {
				delete(boxOf, f)
			}
		}
	}
	slices.SortFunc(boxes, func(a, b Box) int { return cmp.Compare(a.Path, b.Path) })
	for o := range opened {
		if slices.ContainsFunc(boxes, func(b Box) bool { return model.Within(o, b.Path) }) {
			d.Opened = append(d.Opened, o)
		}
	}
	sort.Strings(d.Opened)
	d.Boxes = boxes
	d.bundle(s.Links, boxOf)
	if r.Focus != "" {
		d.focus(r.Focus)
	}
	d.ring(boxOf, r)
	d.layout(r)
	return d
}

// beside are the files that a file needs and that need it, and itself.
func beside(s *model.Survey, file string) map[string]bool {
	near := map[string]bool{file: true}
	for i := range s.Links {
		if l := &s.Links[i]; ClassOf(l.Kind) != "" {
			switch file {
			case l.From:
				near[l.To] = true
			case l.To:
				near[l.From] = true
			}
		}
	}
	return near
}

// neighbours draws single files, each as a box of its own.
func (d *Drawing) neighbours(ls []model.Link, files []*model.File, r Request) {
	if len(files) > MaxBoxes {
		d.Notes = append(d.Notes, fmt.Sprintf("Of %d neighbours the %d with the most lines are shown.", len(files)-1, MaxBoxes-1))
		slices.SortStableFunc(files, func(a, b *model.File) int {
			return cmp.Or(-compareBool(a.Path == r.Place, b.Path == r.Place), cmp.Compare(b.Lines(), a.Lines()), cmp.Compare(a.Path, b.Path))
		})
		files = files[:MaxBoxes]
		slices.SortFunc(files, func(a, b *model.File) int { return cmp.Compare(a.Path, b.Path) })
	}
	boxOf := map[string]string{}
	for _, f := range files {
		boxOf[f.Path] = f.Path
		name := path.Base(f.Path)
		if in := model.FolderOf(f.Path); in != "." {
			name = path.Base(in) + "/" + name
		}
		d.Boxes = append(d.Boxes, Box{Path: f.Path, Name: name, File: true, Files: 1, Lines: f.Lines()})
	}
	d.bundle(ls, boxOf)
	d.focus(r.Place)
	d.ring(boxOf, r)
	d.layout(r)
}

func compareBool(a, b bool) int {
	switch {
	case a == b:
		return 0
	case a:
		return 1
	}
	return -1
}

// focus leaves the boxes of one place and those that are tied to them, with the
// bundles that tie them.
func (d *Drawing) focus(place string) {
	own := map[string]bool{}
	for _, b := range d.Boxes {
		if model.Within(place, b.Path) || model.Within(b.Path, place) {
			own[b.Path] = true
		}
	}
	if len(own) == 0 {
		return
	}
	d.Focus = place
	near := map[string]bool{}
	d.Bundles = slices.DeleteFunc(d.Bundles, func(b Bundle) bool {
		if !own[b.From] && !own[b.To] {
			return true
		}
		near[b.From], near[b.To] = true, true
		return false
	})
	d.Boxes = slices.DeleteFunc(d.Boxes, func(b Box) bool { return !own[b.Path] && !near[b.Path] })
	d.Classes = slices.DeleteFunc(d.Classes, func(c string) bool {
		return !slices.ContainsFunc(d.Bundles, func(b Bundle) bool { return b.Class == c })
	})
}

// ring finds in which ring of the charter each box lies: the one that holds
// most of its files. Boxes that none holds stand outside of all.
func (d *Drawing) ring(boxOf map[string]string, r Request) {
	if len(r.Circles) == 0 {
		return
	}
	votes := map[string]map[int]int{}
	for f, b := range boxOf {
		if k := slices.Index(r.Circles, r.RingOf[f]); k >= 0 {
			if votes[b] == nil {
				votes[b] = map[int]int{}
			}
			votes[b][k]++
		}
	}
	for i := range d.Boxes {
		best := -1
		for k := range r.Circles {
			if n := votes[d.Boxes[i].Path][k]; n > 0 && (best < 0 || n > votes[d.Boxes[i].Path][best]) {
				best = k
			}
		}
		d.Boxes[i].Circle = best + 1
	}
}

// drawn are the roles whose files are drawn: the code and what it is drawn
// with.
func drawn(r model.Role) bool {
	switch r {
	case model.RoleDocs, model.RoleConfig, model.RoleAsset, model.RoleTranslation, model.RoleGenerated:
		return false
	}
	return true
}

// parts cuts the files below a place into boxes: its folders and files, and
// those of each opened folder.
func parts(place string, files []*model.File, opened map[string]bool) (boxOf map[string]string, boxes []Box) {
	boxOf = map[string]string{}
	at := map[string]*Box{}
	// Folders that hold nothing but one folder are passed over.
	place = descend(place, files)
	below := map[string][]*model.File{}
	for o := range opened {
		for _, f := range files {
			if model.Within(o, f.Path) {
				below[o] = append(below[o], f)
			}
		}
	}
	for _, f := range files {
		in := place
		var b Box
		for {
			rest := f.Path
			if in != "." {
				rest = strings.TrimPrefix(f.Path, in+"/")
			}
			first, _, folder := strings.Cut(rest, "/")
			p := path.Join(in, first)
			if folder && opened[p] {
				in = descend(p, below[p])
				continue
			}
			within := in
			if in == place {
				within = ""
			}
			name := first
			if within != "" {
				name = path.Base(in) + "/" + first
				// A folder called src says less than what it is the source of.
				if up := path.Base(path.Dir(in)); sourceNames[path.Base(in)] && up != "." {
					name = up + "/" + first
				}
			}
			b = Box{Path: p, Name: name, Within: within, File: !folder, Opens: folder}
			break
		}
		boxOf[f.Path] = b.Path
		if at[b.Path] == nil {
			at[b.Path] = &b
		}
		at[b.Path].Files++
		at[b.Path].Lines += f.Lines()
	}
	for _, b := range at {
		boxes = append(boxes, *b)
	}
	return boxOf, boxes
}

func descend(place string, files []*model.File) string {
	for {
		next := ""
		for _, f := range files {
			rest := f.Path
			if place != "." {
				rest = strings.TrimPrefix(f.Path, place+"/")
			}
			first, _, folder := strings.Cut(rest, "/")
			if !folder || next != "" && next != first {
				return place
			}
			next = first
		}
		if next == "" {
			return place
		}
		place = path.Join(place, next)
	}
}

var sourceNames = map[string]bool{"src": true, "lib": true, "source": true, "main": true, "app": true}

type bundleKey struct{ from, to, class string }

func (d *Drawing) bundle(ls []model.Link, boxOf map[string]string) {
	count := map[bundleKey]int{}
	for i := range ls {
		l := &ls[i]
		a, b, class := boxOf[l.From], boxOf[l.To], ClassOf(l.Kind)
		if a == "" || b == "" || a == b || class == "" || l.Kind == model.LinkInheritance {
			continue
		}
		count[bundleKey{a, b, class}]++
	}
	classes := map[string]bool{}
	for k, n := range count {
		d.Bundles = append(d.Bundles, Bundle{From: k.from, To: k.to, Class: k.class, Count: n, Wide: math.Round(10*(1+math.Log2(float64(n))*0.8)) / 10})
		classes[k.class] = true
	}
	for _, c := range Classes {
		if classes[c] {
			d.Classes = append(d.Classes, c)
		}
	}
	slices.SortFunc(d.Bundles, func(a, b Bundle) int {
		return cmp.Or(cmp.Compare(b.Count, a.Count), cmp.Compare(a.From, b.From), cmp.Compare(a.To, b.To), cmp.Compare(a.Class, b.Class))
	})
	if len(d.Bundles) > MaxBundles {
		d.Notes = append(d.Notes, fmt.Sprintf("Of %d bundles the %d thickest are drawn.", len(d.Bundles), MaxBundles))
		d.Bundles = d.Bundles[:MaxBundles]
	}
	slices.SortFunc(d.Bundles, func(a, b Bundle) int {
		return cmp.Or(cmp.Compare(a.From, b.From), cmp.Compare(a.To, b.To), cmp.Compare(a.Class, b.Class))
	})
}

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
	open := links.NewGraph(names)
	for _, b := range d.Bundles {
		if orders(b.Class) && !cut[[2]string{b.From, b.To}] {
			open.Add(b.From, b.To)
		}
	}
	for l, level := range open.Levels() {
		for _, n := range level {
			d.Boxes[at[n]].Level = l
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
	for _, b := range d.Boxes {
		keys[[2]int{b.Circle, b.Level}] = true
	}
	order := make([][2]int, 0, len(keys))
	for k := range keys {
		order = append(order, k)
	}
	slices.SortFunc(order, func(a, b [2]int) int { return cmp.Or(cmp.Compare(a[0], b[0]), cmp.Compare(a[1], b[1])) })
	for i := range d.Boxes {
		d.Boxes[i].Level = slices.Index(order, [2]int{d.Boxes[i].Circle, d.Boxes[i].Level})
	}
}

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
	k := 0.0
	for c, name := range names {
		if y := top[c+1]; y >= 0 {
			d.Frames = append(d.Frames, Frame{Name: name, X: margin/2 + frameGap*k, Y: y - 24, W: d.Width + 2*room - margin - 2*frameGap*k, H: d.Height + room - (y - 24) - margin/2 - frameGap*k})
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
				return cmp.Or(cmp.Compare(d.Boxes[a].Within, d.Boxes[b].Within), cmp.Compare(centre[a], centre[b]), cmp.Compare(d.Boxes[a].Path, d.Boxes[b].Path))
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
