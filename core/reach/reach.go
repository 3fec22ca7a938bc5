// Package reach tells what a change at a place may touch, and what comes along
// when the place is taken elsewhere.
//
// Of files and folders it follows the links between files, of a definition
// those between definitions. Types alone close no way: what is reached over
// types only is counted apart. Tests are told apart from what they test.
package reach

import (
	"cmp"
	"slices"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/reading"
)

// Reach is what a change at a place may touch.
type Reach struct {
	Files   int           `json:"files"`   // that may be touched, tests and the place itself left out
	Steps   []ReachStep   `json:"steps"`   // by distance, the nearest first
	Folders []FolderReach `json:"folders"` // that they lie in, the fullest first
	Tests   []Reached     `json:"tests"`   // that reach it, the nearest first
	ByTypes int           `json:"by_types"`
	// Together are files that were changed with it, as its history tells.
	Together []ChangedTogether `json:"together"`
	Along    ComesAlong        `json:"along"`
}

// ReachStep is what lies so many links away.
type ReachStep struct {
	Distance int       `json:"distance"`
	Count    int       `json:"count"`
	Places   []Reached `json:"places"` // the first of them
}

// Reached is a file, or a definition of one.
type Reached struct {
	Path     string `json:"path"`
	Name     string `json:"name"` // qualified; "" for a file
	Line     int    `json:"line"`
	Distance int    `json:"distance"`
	Sure     bool   `json:"sure"` // each link on the way is
}

// FolderReach counts files of a folder.
type FolderReach struct {
	Path  string `json:"path"`
	Files int    `json:"files"`
}

// ChangedTogether is a file that was changed with the place.
type ChangedTogether struct {
	Path  string  `json:"path"`
	Times int     `json:"times"`
	Share float64 `json:"share"` // of the changes of either that were of both
}

// ComesAlong is what a place needs, directly or not: what comes along when it is
// taken elsewhere.
type ComesAlong struct {
	Files int       `json:"files"`
	List  []Reached `json:"list"` // the first of them, the nearest first
	Cuts  []Saving  `json:"cuts"` // direct needs that bring most, the largest first
}

// Saving is a direct need, with how many files would stay behind without it.
type Saving struct {
	From  string `json:"from"`
	To    string `json:"to"`
	Line  int    `json:"line"`
	Saves int    `json:"saves"`
}

// How much is listed; everything is counted.
const (
	mostPlaces = 40
	mostCuts   = 5
	mostTried  = 60 // direct needs that are tried as cuts
	mostSteps  = 12
)

// Of tells the reach of a file or a folder.
func Of(r *reading.Reading, place string) *Reach {
	start := map[string]bool{}
	for _, f := range r.At(place) {
		start[f.Path] = true
	}
	g := filesOf(r)
	far, sure := walk(start, g.users)
	out := &Reach{Steps: []ReachStep{}, Folders: []FolderReach{}, Tests: []Reached{}, Together: together(r, start)}
	var places []Reached
	for p, d := range far {
		places = append(places, Reached{Path: p, Distance: d, Sure: sure[p]})
	}
	out.take(r, places)
	types, _ := walk(start, g.withTypes)
	out.ByTypes = max(0, len(types)-len(far))
	out.Along = along(g, start)
	return out
}

// OfDefinition tells the reach of the definition that holds a line; false where
// the file is not there.
func OfDefinition(r *reading.Reading, place string, line int) (*Reach, bool) {
	g := calls.Of(r.Survey)
	at, ok := g.AtPath(place, line)
	if !ok {
		return nil, false
	}
	far := map[calls.Ref]Reached{}
	next := []calls.Ref{at}
	for d := 1; len(next) > 0; d++ {
		var after []calls.Ref
		for _, ref := range next {
			was := d == 1 || far[ref].Sure
			for _, e := range g.To(ref) {
				if _, known := far[e.From]; known || e.From == at {
					continue
				}
				far[e.From] = Reached{Path: g.Path(e.From), Name: g.Name(e.From), Line: int(e.Line), Distance: d, Sure: was && e.Sure}
				after = append(after, e.From)
			}
		}
		next = after
	}
	out := &Reach{
		Steps: []ReachStep{}, Folders: []FolderReach{}, Tests: []Reached{}, Together: together(r, map[string]bool{place: true}),
		Along: ComesAlong{List: []Reached{}, Cuts: []Saving{}},
	}
	places := make([]Reached, 0, len(far))
	for _, p := range far {
		places = append(places, p)
	}
	out.take(r, places)
	return out, true
}

// take sorts places into tests and others, and these into steps and folders.
func (out *Reach) take(r *reading.Reading, places []Reached) {
	slices.SortFunc(places, func(a, b Reached) int {
		return cmp.Or(cmp.Compare(a.Distance, b.Distance), cmp.Compare(a.Path, b.Path), cmp.Compare(a.Line, b.Line), cmp.Compare(a.Name, b.Name))
	})
	files, folders := map[string]bool{}, map[string]int{}
	tests := map[string]bool{}
	for _, p := range places {
		if r.IsTest(p.Path) {
			if !tests[p.Path] {
				tests[p.Path] = true
				out.Tests = append(out.Tests, p)
			}
			continue
		}
		n := len(out.Steps)
		if n == 0 || out.Steps[n-1].Distance != p.Distance && n < mostSteps {
			out.Steps = append(out.Steps, ReachStep{Distance: p.Distance, Places: []Reached{}})
			n++
		}
		s := &out.Steps[n-1]
		s.Count++
		if len(s.Places) < mostPlaces {
			s.Places = append(s.Places, p)
		}
		if !files[p.Path] {
			files[p.Path] = true
			folders[model.FolderOf(p.Path)]++
		}
	}
	out.Files = len(files)
	for d, n := range folders {
		out.Folders = append(out.Folders, FolderReach{Path: d, Files: n})
	}
	slices.SortFunc(out.Folders, func(a, b FolderReach) int {
		return cmp.Or(cmp.Compare(b.Files, a.Files), cmp.Compare(a.Path, b.Path))
	})
}

// step is a link to another file.
type step struct {
	to   string
	line int
	sure bool
}

// files are the links between the judged files of a codebase, both ways.
type files struct{ users, withTypes, needs map[string][]step }

func filesOf(r *reading.Reading) files {
	g := files{map[string][]step{}, map[string][]step{}, map[string][]step{}}
	for i := range r.Edges() {
		l := r.Edges()[i].Link
		if l.From == l.To {
			continue
		}
		g.withTypes[l.To] = append(g.withTypes[l.To], step{l.From, l.Line, l.Sure})
		if l.TypeOnly {
			continue
		}
		g.users[l.To] = append(g.users[l.To], step{l.From, l.Line, l.Sure})
		g.needs[l.From] = append(g.needs[l.From], step{l.To, l.Line, l.Sure})
	}
	return g
}

// walk is how far each file lies from those at the start, and whether each link
// on the way there is sure.
func walk(start map[string]bool, links map[string][]step) (far map[string]int, sure map[string]bool) {
	far, sure = map[string]int{}, map[string]bool{}
	var next []string
	for p := range start {
		next = append(next, p)
	}
	slices.Sort(next)
	for d := 1; len(next) > 0; d++ {
		var after []string
		for _, p := range next {
			for _, s := range links[p] {
				if _, known := far[s.to]; known || start[s.to] {
					continue
				}
				far[s.to] = d
				sure[s.to] = s.sure && (d == 1 || sure[p])
				after = append(after, s.to)
			}
		}
		next = after
	}
	return far, sure
}

// along is what the files at the start need, and which of their direct needs
// bring most of it: each is tried without.
func along(g files, start map[string]bool) ComesAlong {
	far, sure := walk(start, g.needs)
	out := ComesAlong{Files: len(far), List: []Reached{}, Cuts: []Saving{}}
	for p, d := range far {
		out.List = append(out.List, Reached{Path: p, Distance: d, Sure: sure[p]})
	}
	slices.SortFunc(out.List, func(a, b Reached) int {
		return cmp.Or(cmp.Compare(a.Distance, b.Distance), cmp.Compare(a.Path, b.Path))
	})
	tried := map[string]bool{}
	for _, p := range out.List {
		if p.Distance > 1 || len(tried) >= mostTried {
			break
		}
		tried[p.Path] = true
		without := map[string][]step{}
		var from string
		var line int
		for f := range start {
			for _, s := range g.needs[f] {
				if s.to != p.Path {
					without[f] = append(without[f], s)
				} else if from == "" || f < from {
					from, line = f, s.line
				}
			}
		}
		left, _ := walk(start, overlay(start, without, g.needs))
		if saves := len(far) - len(left); saves > 1 {
			out.Cuts = append(out.Cuts, Saving{From: from, To: p.Path, Line: line, Saves: saves})
		}
	}
	slices.SortFunc(out.Cuts, func(a, b Saving) int { return cmp.Or(cmp.Compare(b.Saves, a.Saves), cmp.Compare(a.To, b.To)) })
	out.Cuts = out.Cuts[:min(mostCuts, len(out.Cuts))]
	out.List = out.List[:min(mostPlaces, len(out.List))]
	return out
}

// overlay is the links with those of some files put in the place of theirs.
func overlay(start map[string]bool, own, all map[string][]step) map[string][]step {
	out := make(map[string][]step, len(all))
	for f, s := range all {
		if !start[f] {
			out[f] = s
		}
	}
	for f, s := range own {
		out[f] = s
	}
	return out
}

// together lists what was changed with the files at the start most often.
func together(r *reading.Reading, start map[string]bool) []ChangedTogether {
	out := []ChangedTogether{}
	if r.History == nil {
		return out
	}
	for _, p := range r.History.Pairs {
		other := ""
		switch {
		case start[p.A] && !start[p.B]:
			other = p.B
		case start[p.B] && !start[p.A]:
			other = p.A
		default:
			continue
		}
		if i := slices.IndexFunc(out, func(t ChangedTogether) bool { return t.Path == other }); i >= 0 {
			out[i].Times = max(out[i].Times, p.Together)
			continue
		}
		if len(out) < mostPlaces {
			out = append(out, ChangedTogether{Path: other, Times: p.Together, Share: p.Confidence})
		}
	}
	slices.SortStableFunc(out, func(a, b ChangedTogether) int {
		return cmp.Or(cmp.Compare(b.Times, a.Times), cmp.Compare(a.Path, b.Path))
	})
	return out[:min(10, len(out))]
}
