// Package drawing lays dependencies out: boxes in levels, joined by bundles
// that stand for links. It computes coordinates; the browser and the writers of
// pictures draw the same ones.
package drawing

import (
	"cmp"
	"fmt"
	"maps"
	"path"
	"slices"
	"sort"
	"strings"

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
	// So many projects say enough without their folders.
	fewProjects = 8
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
	External = "outside"
)

// Classes lists the classes in the order of the legend.
var Classes = []string{Code, Lazy, Rendered, HTTP, Message, ByName, Declared, External}

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
	Rim    bool    `json:"rim" doc:"a package from outside, by its name"`
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
	// Implied: a longer way leads there as well, so that it says nothing new.
	Implied bool   `json:"implied" doc:"a longer way over other boxes leads there too"`
	Curve   string `json:"curve" doc:"path data"`
	Tip     string `json:"tip" doc:"path data of the arrow"`
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
	Auto   bool     // open folders down to the projects, and where there are only few
	Rim    bool     // draw the packages from outside as a last row
	Focus  string   // of all boxes, only this one and its neighbours
	Order  []string // boxes as a hand put them, from the left; the others stand where they are reckoned
	// Projects are the folders with a project file of their own.
	Projects []string
	// Only reports whether a file is drawn; nil draws all.
	Only func(path string) bool
	// Circles are the rings of the charter, the outermost first; RingOf is the
	// name of the one that holds a file. Without them the drawing has levels.
	Circles []string
	RingOf  map[string]string
}

// Of draws the parts of a place.
func Of(s *model.Survey, roles map[string]model.RoleOf, judged map[string]bool, r Request) *Drawing {
	d := &Drawing{
		Place: r.Place, Boxes: []Box{}, Bundles: []Bundle{}, Opened: []string{}, Classes: []string{},
		Rings: []Ring{}, Frames: []Frame{}, Notes: []string{},
	}
	ofFile := s.File(r.Place) != nil
	inside := func(p string) bool { return model.Within(r.Place, p) }
	if ofFile {
		near := beside(s, r.Place)
		inside = func(p string) bool { return near[p] }
		r.Focus, r.Auto, r.Opened = r.Place, false, nil
	}
	var files []*model.File
	tied := map[string]bool{} // of files that no reader is for
	for i := range s.Links {
		tied[s.Links[i].From], tied[s.Links[i].To] = true, true
	}
	for _, f := range s.Files {
		if unspoken[f.Language] && !tied[f.Path] && f.Path != r.Place {
			continue // notes and make files are no parts of the code
		}
		if p := f.Path; judged[p] && inside(p) && (p == r.Place || r.draws(p, roles[p].Role)) {
			files = append(files, f)
		}
	}
	if ofFile {
		d.neighbours(s.Links, files, r)
		return d
	}
	c := cutting{place: r.Place, files: files, opened: map[string]bool{}}
	for _, o := range r.Opened {
		if model.Within(r.Place, o) && o != r.Place {
			c.opened[o] = true
		}
	}
	c.cut()
	if r.Auto && !c.openToProjects(r.Projects) {
		c.openFew()
	}
	d.Notes = append(d.Notes, c.bound()...)
	d.Opened = append(d.Opened, c.stillOpened()...)
	d.Boxes = c.boxes
	d.bundle(s.Links, c.boxOf)
	if r.Rim {
		d.rim(s.External, c.boxOf)
	}
	if r.Focus != "" {
		d.focus(r.Focus)
	}
	d.ring(c.boxOf, r)
	d.layout(r)
	d.imply()
	return d
}

// unspoken are the languages of files that have nothing to draw.
var unspoken = map[string]bool{
	"": true, "Text": true, "M4": true, "M4Sugar": true, "Makefile": true, "Ignore List": true, "INI": true,
	"Roff": true, "Roff Manpage": true,
}

// draws reports whether a request draws a file of a role.
func (r *Request) draws(p string, role model.Role) bool {
	return (r.Tests || role != model.RoleTest) && drawn(role) && (r.Only == nil || r.Only(p))
}

// cutting is how files are cut into boxes, folders opened one by one.
type cutting struct {
	place  string
	files  []*model.File
	opened map[string]bool
	boxOf  map[string]string // file to box
	boxes  []Box
}

func (c *cutting) cut() { c.boxOf, c.boxes = parts(c.place, c.files, c.opened) }

// openToProjects takes the folders apart that projects lie in, the outermost
// first, as long as an eye can follow it. It reports whether the projects are
// boxes enough by themselves: a reader first asks what needs what among them.
func (c *cutting) openToProjects(projects []string) bool {
	projects = slices.DeleteFunc(slices.Clone(projects), func(p string) bool { return p == c.place || !model.Within(c.place, p) })
	above := map[string]bool{}
	for _, p := range projects {
		for d := model.FolderOf(p); d != c.place && d != "."; d = model.FolderOf(d) {
			above[d] = true
		}
	}
	for _, p := range projects {
		// A project within another is a part of that one.
		maps.DeleteFunc(above, func(d string, _ bool) bool { return model.Within(p, d) })
	}
	depth := func(d string) int { return strings.Count(d, "/") }
	for _, d := range slices.SortedFunc(maps.Keys(above), func(a, b string) int {
		return cmp.Or(cmp.Compare(depth(a), depth(b)), cmp.Compare(a, b))
	}) {
		c.opened[d] = true
		next, wider := parts(c.place, c.files, c.opened)
		if len(wider) > manyBoxes {
			delete(c.opened, d)
			continue
		}
		c.boxOf, c.boxes = next, wider
	}
	drawn := 0
	for _, b := range c.boxes {
		if slices.Contains(projects, b.Path) {
			drawn++
		}
	}
	return drawn >= fewProjects
}

// openFew takes the fullest folders apart while there are only few boxes, which
// say little.
func (c *cutting) openFew() {
	passed := map[string]bool{}
	for len(c.boxes) < fewBoxes {
		largest := Box{}
		for _, b := range c.boxes {
			if b.Opens && !passed[b.Path] && (b.Files > largest.Files || b.Files == largest.Files && b.Path < largest.Path) {
				largest = b
			}
		}
		if largest.Files < 2 {
			return
		}
		c.opened[largest.Path] = true
		next, wider := parts(c.place, c.files, c.opened)
		if len(wider) > manyBoxes {
			delete(c.opened, largest.Path)
			passed[largest.Path] = true
			continue
		}
		c.boxOf, c.boxes = next, wider
	}
}

// bound keeps the boxes to as many as can be drawn, and says what it left out.
func (c *cutting) bound() (notes []string) {
	if len(c.boxes) > MaxBoxes && len(c.opened) > 0 {
		notes = append(notes, fmt.Sprintf("More than %d boxes: what was opened is shown closed again.", MaxBoxes))
		c.opened = map[string]bool{}
		c.cut()
	}
	if len(c.boxes) > MaxBoxes {
		notes = append(notes, fmt.Sprintf("Of %d parts the %d with the most lines are shown.", len(c.boxes), MaxBoxes))
		slices.SortStableFunc(c.boxes, func(a, b Box) int { return cmp.Or(cmp.Compare(b.Lines, a.Lines), cmp.Compare(a.Path, b.Path)) })
		gone := map[string]bool{}
		for _, b := range c.boxes[MaxBoxes:] {
			gone[b.Path] = true
		}
		c.boxes = c.boxes[:MaxBoxes]
		maps.DeleteFunc(c.boxOf, func(_, b string) bool { return gone[b] })
	}
	slices.SortFunc(c.boxes, func(a, b Box) int { return cmp.Compare(a.Path, b.Path) })
	return notes
}

// stillOpened are the opened folders of which something is drawn.
func (c *cutting) stillOpened() (all []string) {
	for o := range c.opened {
		if slices.ContainsFunc(c.boxes, func(b Box) bool { return model.Within(o, b.Path) }) {
			all = append(all, o)
		}
	}
	sort.Strings(all)
	return all
}

// drawn are the roles whose files are drawn: the code and what it is drawn
// with.
func drawn(r model.Role) bool {
	switch r {
	case model.RoleDocs, model.RoleConfig, model.RoleAsset, model.RoleTranslation:
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
		d.Bundles = append(d.Bundles, bundleOf(k, n))
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
	sortBundles(d.Bundles)
}
