// Package section cuts a codebase open: its parts side by side, each a pile of
// blocks as wide as their own code and stacked by who needs whom, above them
// those who come in, below them what is kept and what is called. It computes
// coordinates; the browser and the writers of pictures draw the same ones.
package section

import (
	"maps"
	"slices"

	"jantel/core/drawing"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/reading"
	"jantel/core/syntax"
)

// Limits of one section: what an eye takes in.
const (
	maxParts  = 9
	maxBlocks = 14 // of a part alone
	minBlocks = 6  // of one of many
	maxRows   = 6
	maxTies   = 24
	maxTags   = 3 // above or below one part
)

// Section is a codebase or folder cut open. Lengths are in px.
type Section struct {
	Place  string   `json:"place"`
	Width  float64  `json:"width"`
	Height float64  `json:"height"`
	Roof   float64  `json:"roof" doc:"the line below those who come in"`
	Ground float64  `json:"ground" doc:"the line above what is kept and called"`
	Parts  []Pile   `json:"parts"`
	Blocks []Block  `json:"blocks"`
	Tags   []Tag    `json:"tags"`
	Ties   []Tie    `json:"ties"`
	Notes  []string `json:"notes"`
	In     string   `json:"in" doc:"what stands above the roof"`
	Out    string   `json:"out" doc:"what stands below the ground"`
}

// edges says what stands above and below, and that nothing does.
func (x *Section) edges() {
	x.In, x.Out = "comes in: not told", "kept and called: not told"
	for _, t := range x.Tags {
		if t.Below {
			x.Out = "kept and called"
		} else {
			x.In = "comes in"
		}
	}
}

// Pile is the blocks of a project, or of a folder that holds several.
type Pile struct {
	Path  string  `json:"path"`
	Name  string  `json:"name"`
	Lines int     `json:"lines" doc:"own program text, tests left out"`
	X     float64 `json:"x"`
	W     float64 `json:"w"`
}

// RoleLines is how many lines of a block have a role: its index in the order
// of roles, -1 where nothing tells.
type RoleLines struct {
	Role    int `json:"role"`
	Lines   int `json:"lines"`
	Assumed int `json:"assumed" doc:"of these, the lines whose role is only assumed"`
}

// Block is a folder or a file, or several small ones together.
type Block struct {
	Path     string      `json:"path" doc:"what it opens"`
	Name     string      `json:"name"`
	Pile     int         `json:"part" doc:"the index of its part"`
	Together int         `json:"together" doc:"how many stand together in it, 0 where it is one alone"`
	Row      int         `json:"row" doc:"from the top"`
	Lines    int         `json:"lines" doc:"own program text, tests left out: its width"`
	Files    int         `json:"files"`
	Tests    int         `json:"tests" doc:"lines of tests"`
	Foreign  int         `json:"foreign" doc:"lines that nobody here wrote"`
	Roles    []RoleLines `json:"roles"`
	Ring     bool        `json:"ring" doc:"it needs others in a ring"`
	Breaches int         `json:"breaches" doc:"dependencies from it that the charter forbids"`
	// Title are the lines its name is written on, none where it has no room.
	Title  []string `json:"title"`
	Beside bool     `json:"beside" doc:"its name stands to the right of it"`
	X      float64  `json:"x"`
	Y      float64  `json:"y"`
	W      float64  `json:"w"`
	H      float64  `json:"h"`

	together bool // files that lie loose or were gathered
}

// Tag names those who come into a part, or what it keeps and calls.
type Tag struct {
	Text  string  `json:"text"`
	Full  string  `json:"full" doc:"the text where it is cut short"`
	Path  string  `json:"path" doc:"the place it leads to"`
	Line  int     `json:"line"`
	Kind  string  `json:"kind" enum:"routes,entry,facade,job,store,system,more"`
	Below bool    `json:"below"`
	X     float64 `json:"x"`
	Y     float64 `json:"y"`
	W     float64 `json:"w"`
}

// Tie is what one block needs of another in the drawing.
type Tie struct {
	From   string `json:"from"`
	To     string `json:"to"`
	Class  string `json:"class" enum:"code,http,message,by name,declared"`
	Count  int    `json:"count"`
	Breach bool   `json:"breach" doc:"the charter forbids it"`
	Ring   bool   `json:"ring" doc:"it points upwards: without it there were no ring"`
	Faint  bool   `json:"faint" doc:"a longer way implies it"`
	Line   string `json:"line" doc:"path data"`
	Tip    string `json:"tip" doc:"path data of the arrow"`

	from, to int // the blocks
}

// builder is a section on the way.
type builder struct {
	*Section
	s      *model.Survey
	j      *judgement.Result
	place  string
	partOf map[string]int // of a file at the place
	// blockOf are the blocks of files, by their index.
	blockOf map[string]int
}

// Of cuts a place open: "." for the codebase, or a folder of it. It has no
// parts where no own program text lies.
func Of(s *model.Survey, j *judgement.Result, place string) *Section {
	b := &builder{
		Section: &Section{Place: place, Parts: []Pile{}, Blocks: []Block{}, Tags: []Tag{}, Ties: []Tie{}, Notes: []string{}},
		s:       s, j: j, place: place, partOf: map[string]int{}, blockOf: map[string]int{},
	}
	b.parts()
	if len(b.Parts) == 0 {
		return b.Section
	}
	b.order()
	for i := range b.Parts {
		b.blocks(i)
	}
	b.measure()
	needs := b.needs()
	for i := range b.Parts {
		b.stack(i, needs)
	}
	b.ties(needs)
	b.tags()
	b.edges()
	b.lay()
	return b.Section
}

// counts reports whether a file's lines make a block wider: own program text
// and what draws, tests left out.
func counts(r *reading.Reading, f *model.File) bool {
	if !r.Judged[f.Path] {
		return false
	}
	switch r.Role(f.Path) {
	case model.RoleTest, model.RoleDocs, model.RoleTranslation, model.RoleAsset, model.RoleConfig:
		return false
	case model.RoleView, model.RoleStyle, model.RoleSchema:
		return true
	}
	return reading.IsCode(f)
}

// measure counts what each block holds.
func (b *builder) measure() {
	r := b.j.Reading
	roles := make([]map[int]*RoleLines, len(b.Blocks))
	only := make([]string, len(b.Blocks)) // the last file met
	for i := range roles {
		roles[i] = map[int]*RoleLines{}
	}
	for _, f := range r.At(b.place) {
		i, ok := b.blockOf[f.Path]
		if !ok {
			continue
		}
		x := &b.Blocks[i]
		switch {
		case counts(r, f):
			x.Files++
			x.Lines += f.Facts.Lines
			only[i] = f.Path
			role := b.j.Roles[f.Path]
			at := slices.Index(model.Roles, role.Role)
			if roles[i][at] == nil {
				roles[i][at] = &RoleLines{Role: at}
			}
			roles[i][at].Lines += f.Facts.Lines
			if role.Source == model.RoleAssumed {
				roles[i][at].Assumed += f.Facts.Lines
			}
		case r.IsTest(f.Path) && r.Judged[f.Path]:
			x.Tests += f.Lines()
		case b.j.Skipped(f) != "" && syntax.ProfileOf(f.Language).Code:
			x.Foreign += f.Lines()
		}
	}
	for i := range b.Blocks {
		x := &b.Blocks[i]
		x.Roles = []RoleLines{}
		for _, at := range slices.Sorted(maps.Keys(roles[i])) {
			x.Roles = append(x.Roles, *roles[i][at])
		}
		switch {
		case x.together && x.Files == 1:
			x.Path = only[i]
		case x.together:
			x.Together = x.Files
		}
	}
}

// need is what one block needs of another.
type need struct{ from, to int }

// needs counts the links between blocks, per way they are drawn; of what is
// only needed as a type, and what is loaded late, nothing hangs.
func (b *builder) needs() map[need]map[string]int {
	out := map[need]map[string]int{}
	for i := range b.s.Links {
		l := &b.s.Links[i]
		from, ok := b.blockOf[l.From]
		to, both := b.blockOf[l.To]
		class := classOf(l)
		if !ok || !both || from == to || class == "" || !counts(b.j.Reading, b.s.File(l.From)) || !counts(b.j.Reading, b.s.File(l.To)) {
			continue
		}
		k := need{from, to}
		if out[k] == nil {
			out[k] = map[string]int{}
		}
		out[k][class]++
	}
	return out
}

// classOf is the class a link is tied by, as it is drawn among dependencies; here
// what is loaded late or drawn is code as well.
func classOf(l *model.Link) string {
	switch class := drawing.ClassOf(l.Kind); class {
	case drawing.Lazy, drawing.Rendered:
		return drawing.Code
	default:
		return class
	}
}
