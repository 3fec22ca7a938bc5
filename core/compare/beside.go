// Package compare puts two things beside each other and tells what differs:
// two places of one survey, of two surveys, or of two codebases.
package compare

import (
	"cmp"
	"maps"
	"slices"
	"strings"

	"jantel/core/judgement"
	"jantel/core/links"
	"jantel/core/model"
)

// Side is a place of a judged survey.
type Side struct {
	Survey *model.Survey
	Result *judgement.Result
	Place  string
	// Ties are the dependencies inside each folder and across its edge, where
	// they are known already; nil has them counted.
	Ties map[string]links.Ties
}

// Beside is what two places have in common and what not.
type Beside struct {
	Here    string   `json:"here"`
	There   string   `json:"there"`
	Figures []Figure `json:"figures"`
	// Features and files, matched by name and by path below the place.
	Features Match `json:"features"`
	Files    Match `json:"files"`
}

// Figure is one measure of both sides: a number, or words where it has none.
type Figure struct {
	What   string   `json:"what"`
	Here   *float64 `json:"here" doc:"null where it is not known or no number"`
	There  *float64 `json:"there"`
	Words  string   `json:"words" doc:"what it is here, where it is no number"`
	Others string   `json:"others" doc:"what it is there, where it is no number"`
}

// Match is how two lists of names lie over each other. The lists are cut off
// where they grow long; the counts are whole.
type Match struct {
	Same      int      `json:"same" doc:"on both sides, and alike as far as can be told"`
	Changed   []string `json:"changed" doc:"on both sides, with other content"`
	Here      []string `json:"here" doc:"on this side alone"`
	There     []string `json:"there" doc:"on the other side alone"`
	Changes   int      `json:"changes"`
	HereOnly  int      `json:"here_only"`
	ThereOnly int      `json:"there_only"`
}

// longest is how many names of a list are told.
const longest = 200

// Of compares two places. It returns nil when one of them is not there.
func Of(a, b Side) *Beside {
	if !a.there() || !b.there() {
		return nil
	}
	for _, s := range []*Side{&a, &b} {
		if s.Ties == nil {
			s.Ties = links.TiesOf(s.Survey.Links)
		}
	}
	out := &Beside{Here: a.Place, There: b.Place}
	out.Figures = figures(a, b)
	out.Features = match(a.features(), b.features())
	out.Files = match(a.files(), b.files())
	return out
}

func (s Side) folder() *model.Folder { return s.Result.Folder(s.Place) }
func (s Side) there() bool           { return s.folder() != nil || s.Survey.File(s.Place) != nil }

// figures lists the measures both sides have: those of folders for two
// folders, else those that any place has.
func figures(a, b Side) []Figure {
	var out []Figure
	number := func(what string, of func(Side) *float64) {
		if x, y := of(a), of(b); x != nil || y != nil {
			out = append(out, Figure{What: what, Here: x, There: y})
		}
	}
	words := func(what string, of func(Side) string) {
		if x, y := of(a), of(b); x != "" || y != "" {
			out = append(out, Figure{What: what, Words: x, Others: y})
		}
	}
	number("files", Side.countFiles)
	number("lines", Side.lines)
	words("role", Side.role)
	words("feature", Side.feature)
	words("cut", Side.cut)
	number("features", Side.countFeatures)
	number("dependencies inside", func(s Side) *float64 { return s.ties(func(t links.Ties) int { return t.Inside }) })
	number("dependencies across its edge", func(s Side) *float64 { return s.ties(func(t links.Ties) int { return t.Crossing }) })
	number("rings", Side.rings)
	number("smells", Side.smells)
	number("legibility", func(s Side) *float64 { return s.legibility("") })
	for _, f := range model.Facets {
		number("legibility: "+strings.ToLower(string(f)), func(s Side) *float64 { return s.legibility(f) })
	}
	return out
}

func count(n int) *float64 {
	v := float64(n)
	return &v
}

func (s Side) countFiles() *float64 {
	if d := s.folder(); d != nil {
		return count(d.Files)
	}
	return count(1)
}

func (s Side) lines() *float64 {
	if d := s.folder(); d != nil {
		return count(d.Lines)
	}
	return count(s.Survey.File(s.Place).Lines())
}

func (s Side) role() string {
	if s.folder() != nil {
		return ""
	}
	return cmp.Or(string(s.Result.Roles[s.Place].Role), "unknown")
}

func (s Side) feature() string {
	if s.folder() != nil {
		return ""
	}
	return cmp.Or(s.Result.FeatureOf[s.Place].Feature, "shared")
}

// cut is how the whole, or the module that the place is, is cut.
func (s Side) cut() string {
	if s.Place == "." {
		return cmp.Or(s.Result.Cut.Label, "too little to tell")
	}
	for _, m := range s.Result.Modules {
		if m.Path == s.Place {
			return cmp.Or(m.Cut.Label, "too little to tell")
		}
	}
	return ""
}

func (s Side) countFeatures() *float64 {
	if s.folder() == nil {
		return nil
	}
	return count(len(s.features()))
}

func (s Side) ties(of func(links.Ties) int) *float64 {
	if s.folder() == nil {
		return nil
	}
	return count(of(s.Ties[s.Place]))
}

// rings counts the rings of files that lie in the place or pass through it.
func (s Side) rings() *float64 {
	n := 0
	for _, c := range s.Result.Cycles {
		if c.Level == "file" && slices.ContainsFunc(c.Members, func(m string) bool { return model.Within(s.Place, m) }) {
			n++
		}
	}
	return count(n)
}

func (s Side) smells() *float64 {
	n := 0
	for _, sm := range s.Result.SmellsAt(s.Place) {
		if sm.Silenced == "" {
			n++
		}
	}
	return count(n)
}

func (s Side) legibility(f model.Facet) *float64 {
	d := s.folder()
	if d == nil {
		return nil
	}
	if f == "" {
		return d.Legibility.Total
	}
	return d.Legibility.Facet(f)
}

// features are the features of the files at the place, each with nothing to
// hold against another of the same name.
func (s Side) features() map[string]string {
	out := map[string]string{}
	for p, f := range s.Result.FeatureOf {
		if f.Feature != "" && s.Result.InScope[p] && model.Within(s.Place, p) {
			out[f.Feature] = ""
		}
	}
	return out
}

// files are the files at a folder by their path below it, with their content.
func (s Side) files() map[string]string {
	out := map[string]string{}
	for _, f := range s.Survey.Files {
		switch {
		case f.Path == s.Place:
			out[s.Place[strings.LastIndexByte(s.Place, '/')+1:]] = f.Hash
		case s.Place == ".":
			out[f.Path] = f.Hash
		case model.Within(s.Place, f.Path):
			out[f.Path[len(s.Place)+1:]] = f.Hash
		}
	}
	return out
}

// match lays two sets of names over each other.
func match(a, b map[string]string) Match {
	m := Match{Changed: []string{}, Here: []string{}, There: []string{}}
	put := func(list *[]string, n *int, name string) {
		*n++
		if len(*list) < longest {
			*list = append(*list, name)
		}
	}
	for _, name := range slices.Sorted(maps.Keys(a)) {
		switch other, ok := b[name]; {
		case !ok:
			put(&m.Here, &m.HereOnly, name)
		case other != a[name]:
			put(&m.Changed, &m.Changes, name)
		default:
			m.Same++
		}
	}
	for _, name := range slices.Sorted(maps.Keys(b)) {
		if _, ok := a[name]; !ok {
			put(&m.There, &m.ThereOnly, name)
		}
	}
	return m
}
