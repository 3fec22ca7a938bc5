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
	Scatter int    `json:"scatter" doc:"innermost folders below the place it lies in, tests left out"`
	Group   string `json:"group" doc:"the folder of the place that most of it lies in; features of one stand together"`
	Missing []int  `json:"missing" doc:"roles that most features have and this one has not"`
}

// Grid is the roles by features of a place.
type Grid struct {
	Place    string       `json:"place"`
	Roles    []model.Role `json:"roles"`
	Features []Column     `json:"features"`
	Cells    []Cell       `json:"cells"`
	More     int          `json:"more" doc:"features that are not shown"`
	Cut      model.Cut    `json:"cut"`
	CutOf    string       `json:"cut_of" doc:"the folder the cut is told of: the module around the place, or the whole codebase"`
	Modules  []ModuleCut  `json:"modules"`
}

// ModuleCut is how one module is cut.
type ModuleCut struct {
	Path string    `json:"path"`
	Name string    `json:"name"`
	Cut  model.Cut `json:"cut"`
}

// maxColumns bounds how many features are shown at once.
const maxColumns = 60

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
	type at struct {
		role    model.Role
		feature string
	}
	type gathering struct {
		files   []*model.File
		lines   int
		folders map[string]int
	}
	cells := map[at]*gathering{}
	byFeature := map[string]*gathering{}
	roles := map[model.Role]bool{}
	for _, f := range s.Files {
		role := j.Roles[f.Path].Role
		if !j.InScope[f.Path] || !model.Within(place, f.Path) || role == "" || f.Facts == nil || !featured(f, role) {
			continue
		}
		k := at{role, j.FeatureOf[f.Path].Feature}
		for _, c := range []*gathering{get(cells, k, func() *gathering { return &gathering{folders: map[string]int{}} }), get(byFeature, k.feature, func() *gathering { return &gathering{folders: map[string]int{}} })} {
			c.files = append(c.files, f)
			c.lines += f.Lines()
			c.folders[model.FolderOf(f.Path)] += max(f.Lines(), 1)
		}
		roles[role] = true
	}
	for _, r := range model.Roles {
		if roles[r] {
			g.Roles = append(g.Roles, r)
		}
	}
	names := make([]string, 0, len(byFeature))
	for n := range byFeature {
		if n != "" {
			names = append(names, n)
		}
	}
	slices.SortFunc(names, func(a, b string) int {
		return cmp.Or(cmp.Compare(len(byFeature[b].files), len(byFeature[a].files)), cmp.Compare(a, b))
	})
	if len(names) > maxColumns {
		g.More = len(names) - maxColumns
		names = names[:maxColumns]
	}
	main := func(c *gathering) string {
		best := ""
		for d, n := range c.folders {
			if best == "" || n > c.folders[best] || n == c.folders[best] && d < best {
				best = d
			}
		}
		return best
	}
	// Features of one part of the tree stand together, the largest first.
	top := func(n string) string {
		d := main(byFeature[n])
		if place != "." {
			d = strings.TrimPrefix(strings.TrimPrefix(d, place), "/")
		}
		d, _, _ = strings.Cut(d, "/")
		return d
	}
	weight := map[string]int{}
	for _, n := range names {
		weight[top(n)] += len(byFeature[n].files)
	}
	slices.SortStableFunc(names, func(a, b string) int {
		return cmp.Or(cmp.Compare(weight[top(b)], weight[top(a)]), cmp.Compare(top(a), top(b)), cmp.Compare(len(byFeature[b].files), len(byFeature[a].files)), cmp.Compare(a, b))
	})
	folders := map[string]map[string]int{}
	for _, n := range names {
		folders[n] = byFeature[n].folders
	}
	for from := 0; from < len(names); {
		to := from
		for to < len(names) && top(names[to]) == top(names[from]) {
			to++
		}
		together(names[from:to], folders)
		from = to
	}
	if byFeature[""] != nil {
		names = append(names, "")
	}
	have := map[model.Role]int{}
	for _, n := range names {
		for _, r := range g.Roles {
			if n != "" && cells[at{r, n}] != nil {
				have[r]++
			}
		}
	}
	features := len(names)
	if byFeature[""] != nil {
		features--
	}
	for k, n := range names {
		c := Column{Name: n, Files: len(byFeature[n].files), Lines: byFeature[n].lines, Scatter: scatter(paths(byFeature[n].files), j.Roles), Missing: []int{}}
		if n != "" {
			c.Group = top(n)
		}
		for i, r := range g.Roles {
			x := cells[at{r, n}]
			if x == nil {
				// Most features have such a part: its absence stands out.
				if n != "" && features >= 3 && 4*have[r] >= 3*features && r != model.RoleTest {
					c.Missing = append(c.Missing, i)
				}
				continue
			}
			largest := x.files[0]
			for _, f := range x.files[1:] {
				if f.Lines() > largest.Lines() {
					largest = f
				}
			}
			g.Cells = append(g.Cells, Cell{Role: i, Feature: k, Files: len(x.files), Lines: x.lines, Folder: main(x), Folders: len(x.folders), First: largest.Path, Paths: paths(x.files)})
		}
		g.Features = append(g.Features, c)
	}
	g.join()
	return g
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
