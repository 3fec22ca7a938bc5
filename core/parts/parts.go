// Package parts tells what a codebase is built of: its components, classes and
// types, and the files of functions that belong to none. Of each it tells the
// duties with the lines that prove them, who uses it, what it uses, and what is
// nearly the same.
package parts

import (
	"cmp"
	"path"
	"slices"
	"strings"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/parallel"
	"jantel/core/reading"
	"jantel/core/relations"
)

// Duties that a part can have.
const (
	Draws    = "draws"
	State    = "keeps state"
	Asks     = "asks over HTTP"
	Stores   = "reads or writes a store"
	Answers  = "answers requests"
	Messages = "sends or receives messages"
	Styles   = "holds styles"
	Reckons  = "decides" // in branches
)

// DutyNames lists the duties in the order they are always shown in.
var DutyNames = []string{Draws, State, Asks, Stores, Answers, Messages, Styles, Reckons}

// Kinds of part besides those of definitions.
const Functions = "functions" // of a file that belong to no type

// Duty is something a part does, with the first line that proves it and how
// many do.
type Duty struct {
	Name  string `json:"name"`
	Line  int    `json:"line"`
	Count int    `json:"count"`
}

// Part is one of what a codebase is built of.
type Part struct {
	Path    string     `json:"path"`
	Name    string     `json:"name"` // qualified; the file's for its functions
	Kind    string     `json:"kind"`
	Line    int        `json:"line"`
	EndLine int        `json:"end_line"`
	Lines   int        `json:"lines"`
	Takes   int        `json:"takes"` // parameters
	Offers  int        `json:"offers"`
	Duties  []Duty     `json:"duties"`
	Built   string     `json:"built"` // primitive or composed, of components; "" where that says nothing
	Uses    int        `json:"uses"`  // other parts
	Users   int        `json:"users"` // definitions elsewhere
	Twins   int        `json:"twins"`
	Tested  bool       `json:"tested"`
	Role    model.Role `json:"role"`
	defs    []int      // its definitions in the file
	holding map[int]bool
}

// Of lists the parts of the codebase's own code, tests left out, by path and line.
func Of(r *reading.Reading, tested func(path, name string) bool) []Part {
	g := calls.Of(r.Survey)
	twins := twinsByPlace(r.Survey)
	kept := keptAt(r.Survey)
	each := make([][]Part, len(r.Files))
	parallel.Each(len(r.Files), func(i int) {
		f := r.Files[i]
		if f.Facts == nil || !r.IsSource(f) {
			return
		}
		each[i] = inFile(f)
		for k := range each[i] {
			p := &each[i][k]
			p.holding = make(map[int]bool, len(p.defs))
			for _, d := range p.defs {
				p.holding[d] = true
			}
			p.Role = r.Roles[f.Path].Role
			p.duties(f, kept[f.Path])
			p.links(g, i, r)
			p.built(f)
			p.Twins = len(twins.of(p))
			for _, d := range p.defs {
				p.Tested = p.Tested || tested(f.Path, f.Facts.Definitions[d].Qualified())
			}
		}
	})
	out := slices.Concat(each...)
	slices.SortStableFunc(out, func(a, b Part) int {
		return cmp.Or(cmp.Compare(a.Path, b.Path), cmp.Compare(a.Line, b.Line), cmp.Compare(a.Name, b.Name))
	})
	return out
}

// Refs are its definitions in the graph of calls, by line, as those of the file
// of that number.
func (p *Part) Refs(file int) []calls.Ref {
	out := make([]calls.Ref, len(p.defs))
	for i, d := range p.defs {
		out[i] = calls.Ref{File: int32(file), Definition: int32(d)}
	}
	return out
}

// isPart reports whether a definition is a part by itself: what has members, or
// draws.
func isPart(d *model.Definition, members int) bool {
	switch d.Kind {
	case model.DefComponent, model.DefClass:
		return true
	case model.DefType, model.DefInterface:
		return members > 0
	}
	return false
}

// inFile lists the parts of one file.
func inFile(f *model.File) (out []Part) {
	members, defined := map[string][]int{}, map[string]bool{}
	for i := range f.Facts.Definitions {
		d := &f.Facts.Definitions[i]
		defined[d.Qualified()] = true
		members[d.Parent] = append(members[d.Parent], i)
	}
	rest := Part{Path: f.Path, Name: path.Base(f.Path), Kind: Functions}
	for i := range f.Facts.Definitions {
		d := &f.Facts.Definitions[i]
		below := members[d.Qualified()]
		switch {
		case isPart(d, len(below)) && (d.Parent == "" || d.Kind != model.DefComponent):
			p := Part{
				Path: f.Path, Name: d.Qualified(), Kind: string(d.Kind), Line: d.Line, EndLine: d.EndLine,
				Takes: d.Params, defs: append([]int{i}, below...),
			}
			p.measure(f)
			out = append(out, p)
		case d.Kind == model.DefFunction && d.Parent == "":
			rest.defs = append(rest.defs, i)
		case d.Kind == model.DefMethod && !defined[d.Parent]:
			// A method of a type that stands in another file of its package.
			rest.defs = append(rest.defs, i)
		}
	}
	if len(rest.defs) > 0 {
		rest.Line = f.Facts.Definitions[rest.defs[0]].Line
		rest.measure(f)
		out = append(out, rest)
	}
	return out
}

// measure tells how many lines it has and how much it offers. Methods may stand
// apart from their type.
func (p *Part) measure(f *model.File) {
	end := 0 // lines up to here are counted
	defs := slices.Clone(p.defs)
	slices.SortFunc(defs, func(a, b int) int { return cmp.Compare(f.Facts.Definitions[a].Line, f.Facts.Definitions[b].Line) })
	for _, i := range defs {
		d := &f.Facts.Definitions[i]
		if from := max(d.Line, end+1); from <= d.EndLine {
			p.Lines += d.EndLine - from + 1
			end = d.EndLine
		}
		p.EndLine = max(p.EndLine, d.EndLine)
		if d.Exported && (p.Kind == Functions || d.Parent != "") {
			p.Offers++
		}
	}
}

// holds reports whether a line belongs to it.
func (p *Part) holds(f *model.File, line int) bool {
	return slices.ContainsFunc(p.defs, func(i int) bool {
		d := &f.Facts.Definitions[i]
		return d.Line <= line && line <= d.EndLine
	})
}

// duties tells what it does, from what was read of its lines.
func (p *Part) duties(f *model.File, kept []int) {
	found := map[string]*Duty{}
	add := func(name string, line int) {
		if !p.holds(f, line) {
			return
		}
		d := found[name]
		if d == nil {
			d = &Duty{Name: name, Line: line}
			found[name] = d
		}
		d.Line = min(d.Line, line)
		d.Count++
	}
	for _, u := range f.Facts.Uses {
		if u.Kind == model.LinkRendering {
			add(Draws, u.Line)
		}
	}
	if p.Kind == string(model.DefComponent) && found[Draws] == nil {
		add(Draws, p.Line)
	}
	for _, c := range f.Facts.Calls {
		add(Asks, c.Line)
	}
	for _, line := range kept {
		add(Stores, line)
	}
	for _, r := range f.Facts.Routes {
		add(Answers, r.Line)
	}
	for _, m := range f.Facts.Messages {
		if m.Plain {
			add(Messages, m.Line)
		}
	}
	for _, s := range f.Facts.OuterStyles {
		add(Styles, s.Line)
	}
	for _, x := range f.Facts.Flags {
		if x.Sets > 0 { // what is never set says what something is
			add(State, x.Line)
		}
	}
	if n, line := f.Facts.Sign(model.SignKeepsState); n > 0 {
		add(State, line)
	}
	if n, line := f.Facts.Sign(model.SignSQL); n > 0 && found[Stores] == nil {
		add(Stores, line)
	}
	for _, in := range f.Facts.Insides {
		if in.Branches >= 6 && p.holding[in.Definition] {
			add(Reckons, f.Facts.Definitions[in.Definition].Line)
		}
	}
	p.Duties = []Duty{}
	for _, name := range DutyNames {
		if d := found[name]; d != nil {
			p.Duties = append(p.Duties, *d)
		}
	}
}

// keptAt lists by file the lines that do something to what is kept.
func keptAt(s *model.Survey) map[string][]int {
	out := map[string][]int{}
	for _, e := range relations.Entities(s) {
		for _, places := range e.Operations {
			for _, p := range places {
				out[p.Path] = append(out[p.Path], p.Line)
			}
		}
	}
	for _, f := range s.Files {
		if f.Facts == nil {
			continue
		}
		for _, o := range f.Facts.Operations {
			// What nothing here declares, and no statement names, may be anything: a list, a set of options.
			if o.Written && !slices.Contains(out[f.Path], o.Line) {
				out[f.Path] = append(out[f.Path], o.Line)
			}
		}
	}
	return out
}

// links counts who uses it, tests left out, and what it uses besides itself.
func (p *Part) links(g *calls.Graph, file int, r *reading.Reading) {
	users, uses := map[calls.Ref]bool{}, map[string]bool{}
	own := func(r calls.Ref) bool { return int(r.File) == file && p.holding[int(r.Definition)] }
	for _, i := range p.defs {
		ref := calls.Ref{File: int32(file), Definition: int32(i)}
		for _, e := range g.To(ref) {
			if !own(e.From) && !r.IsTest(g.Path(e.From)) {
				users[e.From] = true
			}
		}
		for _, e := range g.From(ref) {
			if own(e.To) {
				continue
			}
			if d := g.Definition(e.To); d != nil {
				name := d.Qualified()
				if d.Parent != "" {
					name = d.Parent
				}
				uses[g.Path(e.To)+"\x00"+name] = true
			}
		}
	}
	p.Users, p.Uses = len(users), len(uses)
}

// built tells whether a component is put together of others.
func (p *Part) built(f *model.File) {
	if p.Kind != string(model.DefComponent) {
		return
	}
	p.Built = "primitive"
	for _, u := range f.Facts.Uses {
		// What is written small is an element of the page.
		if u.Kind == model.LinkRendering && p.holds(f, u.Line) && u.Name != "" && u.Module != "" && !strings.HasPrefix(u.Module, "@") {
			p.Built = "composed"
			return
		}
	}
}

// places are twins by where they stand.
type places map[string][]twinAt

// twinAt is a place with those elsewhere that are nearly the same.
type twinAt struct {
	model.TwinPlace
	others []model.TwinPlace
}

func twinsByPlace(s *model.Survey) places {
	out := places{}
	for _, t := range s.Twins {
		for _, m := range t.Members {
			out[m.Path] = append(out[m.Path], twinAt{m, t.Members})
		}
	}
	return out
}

// TwinsOf lists the places in other files that are nearly the same as a part, or
// as something in it.
func TwinsOf(s *model.Survey, p *Part) []model.TwinPlace { return twinsByPlace(s).of(p) }

func (t places) of(p *Part) (out []model.TwinPlace) {
	for _, m := range t[p.Path] {
		if m.Name != "" && (m.Line < p.Line || p.EndLine < m.EndLine) {
			continue
		}
		for _, o := range m.others {
			if o.Path != p.Path && len(out) < mostTwins && !slices.Contains(out, o) {
				out = append(out, o)
			}
		}
	}
	return out
}

// mostTwins bounds the twins of one part.
const mostTwins = 200
