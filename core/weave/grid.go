package weave

import (
	"cmp"
	"maps"
	"slices"
	"strings"

	"jantel/core/model"
)

// Cell is where a feature and a role meet: the files that are both.
type Cell struct {
	Role    int      `json:"role"`
	Feature int      `json:"feature"`
	Files   int      `json:"files"`
	Lines   int      `json:"lines"`
	Assumed int      `json:"assumed" doc:"of its lines, those whose role is only assumed"`
	Folder  string   `json:"folder" doc:"the folder most of it lies in"`
	Folders int      `json:"folders" doc:"how many folders it lies in"`
	Left    bool     `json:"left" doc:"it lies wholly in the one folder in which the cell to the left lies"`
	Up      bool     `json:"up" doc:"it lies wholly in the one folder in which the cell above lies"`
	First   string   `json:"first" doc:"its largest file"`
	Paths   []string `json:"paths" doc:"its files, the first dozen"`
}

// Column is a feature of the grid; the last, without a name, is what several
// features share.
type Column struct {
	Name    string `json:"name"`
	Files   int    `json:"files"`
	Lines   int    `json:"lines"`
	Scatter int    `json:"scatter" doc:"folders below the place it lies in, its own with all that it holds as one, tests left out"`
	Group   string `json:"group" doc:"the folder of the place that most of it lies in; features of one stand together"`
	Missing []int  `json:"missing" doc:"roles that most features have and this one has not"`
}

// Grid is the roles by features of a place.
type Grid struct {
	Place   string       `json:"place"`
	Feature string       `json:"feature" doc:"of a place that is a file: the feature it belongs to"`
	Roles   []model.Role `json:"roles" doc:"the rows: roles, or where these say little positions in the graph of dependencies"`
	// ByPosition tells that the rows are positions, since less than half of the
	// code has a role that is seen.
	ByPosition bool        `json:"by_position"`
	Seen       float64     `json:"seen" doc:"share of the lines whose role is seen rather than assumed"`
	Features   []Column    `json:"features"`
	Cells      []Cell      `json:"cells"`
	More       int         `json:"more" doc:"features that are not shown"`
	Cut        model.Cut   `json:"cut"`
	CutOf      string      `json:"cut_of" doc:"the folder the cut is told of: the module around the place, or the whole codebase"`
	Modules    []ModuleCut `json:"modules"`
}

// ModuleCut is how one module is cut.
type ModuleCut struct {
	Path string    `json:"path"`
	Name string    `json:"name"`
	Cut  model.Cut `json:"cut"`
}

// maxColumns bounds how many features are shown at once.
const maxColumns = 400

// GridOf makes the grid of the judged files at a place. Features that lie in
// the same folders stand side by side, so that bands show.
func GridOf(s *model.Survey, j *model.Judgement, place string) *Grid {
	g := &Grid{Place: place, Roles: []model.Role{}, Features: []Column{}, Cells: []Cell{}, Cut: j.Cut, CutOf: ".", Modules: []ModuleCut{}}
	for _, m := range j.Modules {
		if m.Path != "." && m.Project && model.Within(m.Path, place) && len(m.Path) >= len(g.CutOf) {
			g.Cut, g.CutOf = m.Cut, m.Path
		}
		if model.Within(place, m.Path) || model.Within(m.Path, place) {
			g.Modules = append(g.Modules, ModuleCut{m.Path, m.Name, m.Cut})
		}
	}
	w := weavingOf(s, j, place)
	g.Seen, g.ByPosition = w.seen(), w.position != nil
	for _, r := range w.rows() {
		if w.roles[r] {
			g.Roles = append(g.Roles, r)
		}
	}
	var names []string
	names, g.More = w.names()
	missed := w.usual(names, g.Roles)
	if w.byFeature[""] != nil {
		names = append(names, "")
	}
	for k, n := range names {
		of := w.byFeature[n]
		c := Column{Name: n, Files: len(of.files), Lines: of.lines, Scatter: scatter(n, paths(of.files), j.Roles), Missing: []int{}}
		if n != "" {
			c.Group = w.group(n)
		}
		for i, r := range g.Roles {
			switch x := w.cells[crossing{r, n}]; {
			case x != nil:
				g.Cells = append(g.Cells, x.cell(i, k))
			case n != "" && len(of.files) > 1 && missed[r]:
				c.Missing = append(c.Missing, i)
			}
		}
		g.Features = append(g.Features, c)
	}
	g.join()
	return g
}

// crossing is a place of the grid.
type crossing struct {
	role    model.Role
	feature string
}

// gathering is what lies together in a cell or a column.
type gathering struct {
	files   []*model.File
	lines   int
	assumed int            // of these
	folders map[string]int // folder to lines
}

func (c *gathering) add(f *model.File, assumed bool) {
	c.files = append(c.files, f)
	c.lines += f.Lines()
	if assumed {
		c.assumed += f.Lines()
	}
	c.folders[model.FolderOf(f.Path)] += max(f.Lines(), 1)
}

// main is the folder that holds most of it.
func (c *gathering) main() string {
	best := ""
	for d, n := range c.folders {
		if best == "" || n > c.folders[best] || n == c.folders[best] && d < best {
			best = d
		}
	}
	return best
}

func (c *gathering) cell(role, feature int) Cell {
	largest := c.files[0]
	for _, f := range c.files[1:] {
		if f.Lines() > largest.Lines() {
			largest = f
		}
	}
	return Cell{
		Role: role, Feature: feature, Files: len(c.files), Lines: c.lines, Assumed: c.assumed,
		Folder: c.main(), Folders: len(c.folders), First: largest.Path, Paths: paths(c.files),
	}
}

// weaving is the files of a place by role and by feature.
type weaving struct {
	place     string
	cells     map[crossing]*gathering
	byFeature map[string]*gathering
	roles     map[model.Role]bool
	position  map[string]model.Role // where roles say little: each file's place in the graph of dependencies
	lines     int                   // own lines that take part
	told      int                   // of these, lines whose role is seen
}

func weavingOf(s *model.Survey, j *model.Judgement, place string) *weaving {
	w := &weaving{place: place, cells: map[crossing]*gathering{}, byFeature: map[string]*gathering{}, roles: map[model.Role]bool{}}
	fresh := func() *gathering { return &gathering{folders: map[string]int{}} }
	var here []*model.File
	for _, f := range s.Files {
		role := j.Roles[f.Path]
		if !j.InScope[f.Path] || !model.Within(place, f.Path) || role.Role == "" || f.Facts == nil || !featured(f, role.Role) {
			continue
		}
		here = append(here, f)
		if role.Role == model.RoleTest {
			continue
		}
		w.lines += f.Lines()
		if role.Source != model.RoleAssumed {
			w.told += f.Lines()
		}
	}
	if len(here) > 0 && 2*w.told < w.lines {
		w.position = positions(s, j, here)
	}
	for _, f := range here {
		role := j.Roles[f.Path].Role
		assumed := j.Roles[f.Path].Source == model.RoleAssumed
		if w.position != nil && role != model.RoleTest {
			role, assumed = w.position[f.Path], false
		}
		feature := j.FeatureOf[f.Path].Feature
		get(w.cells, crossing{role, feature}, fresh).add(f, assumed)
		get(w.byFeature, feature, fresh).add(f, false)
		w.roles[role] = true
	}
	return w
}

// seen is the share of lines whose role is seen.
func (w *weaving) seen() float64 {
	if w.lines == 0 {
		return 0
	}
	return round4(float64(w.told) / float64(w.lines))
}

// rows are the rows there may be, from the top.
func (w *weaving) rows() []model.Role {
	if w.position == nil {
		return model.Roles
	}
	return append(slices.Clone(Positions), model.RoleTest)
}

// group is the part of the place that most of a feature lies in.
func (w *weaving) group(feature string) string {
	d := w.byFeature[feature].main()
	if w.place != "." {
		d = strings.TrimPrefix(strings.TrimPrefix(d, w.place), "/")
	}
	d, _, _ = strings.Cut(d, "/")
	return d
}

// names are the features to show, with how many are not: those of one part of
// the tree together, the largest first, and within a part those beside each
// other that lie in the same folders.
func (w *weaving) names() (names []string, more int) {
	for n := range w.byFeature {
		if n != "" {
			names = append(names, n)
		}
	}
	size := func(n string) int { return len(w.byFeature[n].files) }
	slices.SortFunc(names, func(a, b string) int { return cmp.Or(cmp.Compare(size(b), size(a)), cmp.Compare(a, b)) })
	if len(names) > maxColumns {
		more = len(names) - maxColumns
		names = names[:maxColumns]
	}
	group, weight := map[string]string{}, map[string]int{}
	folders := map[string]map[string]int{}
	for _, n := range names {
		group[n] = w.group(n)
		weight[group[n]] += size(n)
		folders[n] = w.byFeature[n].folders
	}
	slices.SortStableFunc(names, func(a, b string) int {
		x, y := group[a], group[b]
		return cmp.Or(cmp.Compare(weight[y], weight[x]), cmp.Compare(x, y), cmp.Compare(size(b), size(a)), cmp.Compare(a, b))
	})
	for from := 0; from < len(names); {
		to := from
		for to < len(names) && group[names[to]] == group[names[from]] {
			to++
		}
		together(names[from:to], folders)
		from = to
	}
	return names, more
}

// usual are the roles that three of four features have: that one has no such
// part stands out.
func (w *weaving) usual(names []string, roles []model.Role) map[model.Role]bool {
	out := map[model.Role]bool{}
	for _, r := range roles {
		have, all := 0, 0
		for _, n := range names {
			if len(w.byFeature[n].files) < 2 {
				continue // one file has one role
			}
			if all++; w.cells[crossing{r, n}] != nil {
				have++
			}
		}
		out[r] = all > 2 && 4*have >= 3*all && r != model.RoleTest
	}
	return out
}

// join tells of each cell which neighbours lie with it in one folder.
func (g *Grid) join() {
	folder := map[[2]int]string{}
	for _, c := range g.Cells {
		if c.Folders == 1 {
			folder[[2]int{c.Role, c.Feature}] = c.Folder
		}
	}
	for i := range g.Cells {
		c := &g.Cells[i]
		own, whole := folder[[2]int{c.Role, c.Feature}]
		left, ok := folder[[2]int{c.Role, c.Feature - 1}]
		c.Left = whole && ok && left == own
		up, ok := folder[[2]int{c.Role - 1, c.Feature}]
		c.Up = whole && ok && up == own
	}
}

// listed is how many files of a cell are named.
const listed = 12

func paths(files []*model.File) []string {
	out := []string{}
	for _, f := range files[:min(listed, len(files))] {
		out = append(out, f.Path)
	}
	return out
}

func get[K comparable, V any](m map[K]V, k K, make func() V) V {
	v, ok := m[k]
	if !ok {
		v = make()
		m[k] = v
	}
	return v
}

// passes is how often the order of columns is gone over.
const passes = 6

// together puts features beside each other that lie in the same folders, so
// that joined cells show as bands: each goes to the mean place of its folders,
// each folder to that of its features, ties by name.
func together(names []string, folders map[string]map[string]int) {
	at := map[string]float64{}
	for i, n := range names {
		at[n] = float64(i)
	}
	for range passes {
		sum, weight := map[string]float64{}, map[string]float64{}
		for _, n := range names {
			for _, d := range slices.Sorted(maps.Keys(folders[n])) {
				sum[d] += at[n] * float64(folders[n][d])
				weight[d] += float64(folders[n][d])
			}
		}
		mean := map[string]float64{}
		for _, n := range names {
			own, lines := 0.0, 0.0
			for _, d := range slices.Sorted(maps.Keys(folders[n])) {
				own += sum[d] / weight[d] * float64(folders[n][d])
				lines += float64(folders[n][d])
			}
			mean[n] = round4(own / lines)
		}
		slices.SortStableFunc(names, func(a, b string) int { return cmp.Or(cmp.Compare(mean[a], mean[b]), cmp.Compare(a, b)) })
		for i, n := range names {
			at[n] = float64(i)
		}
	}
}
