// Package calls finds which definition calls, builds or reads which other. It
// follows the chains that readers keep of each file (model.Body), step by step,
// from the names a file knows over members and results to definitions.
//
// A link is sure where each step is told by a declared type or a name that is
// there once; likely where it goes through an interface to those that implement
// it. What can not be told is counted for each file.
package calls

import (
	"slices"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"

	"jantel/core/model"
	"jantel/core/parallel"
	"jantel/core/syntax"
)

// maxImplementers is how many implement an interface at most for a call of it
// to be likely one of them; where there are more it says nothing.
const maxImplementers = 12

// Graph is all links between the definitions of a survey.
type Graph struct {
	Edges []Edge // by file, definition and line
	// Untold counts by file the calls that lead nowhere that is known.
	Untold map[string]int
	// Told counts by file those that do, or that lead outside of the codebase.
	Told map[string]int

	survey  *model.Survey
	members []string // what Ref.Member stands for, sorted, behind ""
	places  []int32  // by file, where its definitions begin among all; the top of the file is the first
	out     []int32  // by place, where its edges begin among all

	once sync.Once
	back []int32 // the edges by where they lead, as numbers of them
	in   []int32 // by place, where those that lead to it begin among back
}

// Ref is a definition of a file; Definition is -1 for the top of the file, and
// Member stands for a member of an interface that has no body, by its number in
// the graph, 0 for none. There are a million of them in a large codebase: they
// hold no text, so that they are small and nothing in them has to be followed.
type Ref struct {
	File       int32
	Definition int32
	Member     int32
}

// Edge is a link between two definitions.
type Edge struct {
	From, To Ref
	Line     int32
	Kind     model.CallKind
	Sure     bool
}

// Path and Name tell where a definition stands and what it is called there:
// its qualified name, "" for the top of the file.
func (g *Graph) Path(r Ref) string { return g.survey.Files[r.File].Path }

// Name is what a definition is called in its file.
func (g *Graph) Name(r Ref) string {
	if r.Definition < 0 {
		return g.members[r.Member]
	}
	d := g.survey.Files[r.File].Facts.Definitions[r.Definition]
	if r.Member != 0 {
		return d.Qualified() + "." + g.members[r.Member]
	}
	return d.Qualified()
}

// Of gives the graph of a survey, which is made once.
func Of(s *model.Survey) *Graph { return s.Derived("calls", func() any { return made(s) }).(*Graph) }

func made(s *model.Survey) *Graph {
	w := newWorld(s)
	g := &Graph{survey: s, Untold: map[string]int{}, Told: map[string]int{}}
	found := make([]fileEdges, len(s.Files))
	parallel.Each(len(s.Files), func(i int) {
		if f := w.files[i]; f != nil {
			if parallel.Try(func() { found[i] = f.edges() }) != nil {
				found[i] = fileEdges{untold: len(f.body.Calls)} // what breaks on a file costs that file's calls
			}
		}
	})
	g.nameMembers(found)
	parallel.Each(len(found), func(i int) { found[i].order() })
	n := 0
	for i := range found {
		n += len(found[i].edges)
	}
	g.Edges = make([]Edge, 0, n)
	for i := range found {
		e := &found[i]
		g.Edges = append(g.Edges, e.edges...)
		e.edges = nil // given up at once: all of them twice would be the most that a survey holds
		if e.untold > 0 {
			g.Untold[s.Files[i].Path] = e.untold
		}
		if e.told > 0 {
			g.Told[s.Files[i].Path] = e.told
		}
	}
	g.index()
	return g
}

// fileEdges are the links that begin in one file.
type fileEdges struct {
	edges        []Edge
	told, untold int
	members      []string         // by the numbers that Ref.Member has here, behind ""
	numbers      map[string]int32 // of them
}

// ref is the definition that a value is, a member by its number here.
func (e *fileEdges) ref(v value) Ref {
	r := v.ref()
	if v.member == "" {
		return r
	}
	n, ok := e.numbers[v.member]
	if !ok {
		if e.numbers == nil {
			e.numbers, e.members = map[string]int32{}, []string{""}
		}
		n = int32(len(e.members))
		e.numbers[v.member], e.members = n, append(e.members, v.member)
	}
	r.Member = n
	return r
}

// order sorts the links and leaves out what stands there twice.
func (e *fileEdges) order() {
	slices.SortStableFunc(e.edges, compareEdges)
	e.edges = slices.CompactFunc(e.edges, func(a, b Edge) bool { return a == b })
}

// nameMembers gives the members that each file numbered for itself one number
// for all, in the order of their names: whatever was found first, a graph is
// the same each time.
func (g *Graph) nameMembers(found []fileEdges) {
	for i := range found {
		g.members = append(g.members, found[i].members...)
	}
	g.members = append(g.members, "")
	slices.Sort(g.members)
	g.members = slices.Clip(slices.Compact(g.members))
	for i := range found {
		e := &found[i]
		if e.numbers == nil {
			continue
		}
		for k := range e.edges {
			if m := &e.edges[k].To.Member; *m != 0 {
				n, _ := slices.BinarySearch(g.members, e.members[*m])
				*m = int32(n)
			}
		}
		e.numbers, e.members = nil, nil
	}
}

// edges are the links that begin in a file.
func (f *file) edges() (out fileEdges) {
	e := &eval{profile: f.profile}
	out.edges = make([]Edge, 0, len(f.body.Calls))
	for _, c := range f.body.Calls {
		from := Ref{File: f.at, Definition: c.In}
		v := e.node(f, c.Node)
		if v.kind == vUnit && c.Kind != model.CallRead {
			v = e.standsFor(v.unit) // a module that stands for one function or class
		}
		if c.Kind == model.CallPlain {
			if m := e.invoked(v); m.kind == vDef {
				v = m
			} else if v.kind == vInst || v.kind == vNone {
				v = e.heldBy(f, c.Node, v)
			}
		}
		switch {
		case v.kind == vDef || v.kind == vMember:
			out.told++
			f.reach(&out, from, c, v, e.askedOf(f, c.Node, v), v.unit.twice[v.name] || e.only(f, c.Node, v) || e.overloaded(f, c.Node, v))
			for _, other := range e.others(f, c.Node, v) {
				f.reach(&out, from, c, other, nil, false)
			}
		case c.Kind == model.CallRead:
			// A member of something that is no definition is only a field.
		case v.kind == vOutside:
			out.told++
		default:
			out.untold++
		}
		// Whatever it is, what it was asked of is read.
		if last, ok := e.lastKnown(f, c.Node); ok && !last.same(v) {
			out.edges = append(out.edges, Edge{From: from, To: out.ref(last), Line: c.Line, Kind: model.CallRead, Sure: true})
		}
	}
	return out
}

func compareEdges(a, b Edge) int {
	switch {
	case a.From.Definition != b.From.Definition:
		return int(a.From.Definition - b.From.Definition)
	case a.Line != b.Line:
		return int(a.Line - b.Line)
	}
	if c := compareRefs(a.To, b.To); c != 0 {
		return c
	}
	return int(a.Kind) - int(b.Kind)
}

func compareRefs(a, b Ref) int {
	switch {
	case a.File != b.File:
		return int(a.File - b.File)
	case a.Definition != b.Definition:
		return int(a.Definition - b.Definition)
	}
	return int(a.Member - b.Member)
}

// askedOf is the type of what a member is asked of; nil where it is not one that
// stands here.
func (e *eval) askedOf(f *file, node int32, v value) *typ {
	n := &f.body.Nodes[node]
	if n.Op == model.ChainBare {
		of, name, _ := strings.Cut(f.body.Name(n), " ")
		if k := (typeKey{f.unit, of}); f.unit.defs[of].file != nil && e.find(k, name, 0).same(v) {
			return &typ{key: k}
		}
		return nil
	}
	if n.Op != model.ChainMember && n.Op != model.ChainOnly || n.From < 0 {
		return nil
	}
	if t := e.typeOf(e.node(f, n.From)); t != nil && t.kind == tNamed {
		return t
	}
	return nil
}

// overloaded reports whether another method of the name, which takes as many arguments,
// may be meant, for the sorts of those: one of a type that the type is built upon, where
// nothing says that it is written anew here; or, where several take as many, one outside.
func (e *eval) overloaded(f *file, node int32, v value) bool {
	_, args := e.cutCount(f.body.Name(&f.body.Nodes[node]))
	if args < 0 || v.kind != vDef || v.place.def().Kind != model.DefMethod {
		return false
	}
	of, name := cutLast(v.name)
	for _, mark := range v.place.def().Marks {
		if strings.Contains(mark, "Override") {
			return false
		}
	}
	above := e.fromBases(typeKey{v.unit, of}, name+string(model.Counted)+strconv.Itoa(args), 0)
	// One that takes just so many goes before one that takes any number.
	also := above.kind == vDef && above.name != v.name && (!above.place.def().Variadic || v.place.def().Variadic)
	return also || above.kind == vOutside && v.unit.again[v.name]>>min(args, 63)&1 == 1
}

// only reports whether a member is told by nothing but its name, and so is only
// likely.
func (e *eval) only(f *file, node int32, v value) bool {
	n := &f.body.Nodes[node]
	return n.Op == model.ChainOnly && (n.From == model.NoChain || !e.member(e.node(f, n.From), f.body.Name(n)).same(v))
}

// reach adds the links of one call: to what it names, and to those that may
// answer where that is a member of an interface.
func (f *file) reach(out *fileEdges, from Ref, c model.BodyCall, v value, on *typ, only bool) {
	kind := c.Kind
	if kind == model.CallPlain && v.isType() {
		kind = model.CallConstruct // a type that is called is built, or something is turned into it
	}
	to := out.ref(v)
	if to == from && kind == model.CallRead {
		return
	}
	out.edges = append(out.edges, Edge{From: from, To: to, Line: c.Line, Kind: kind, Sure: !only})
	if only {
		return
	}
	if f.inherited(v) && !f.bound(c) {
		for _, m := range f.world.implementers(v, on) {
			out.edges = append(out.edges, Edge{From: from, To: m, Line: c.Line, Kind: kind})
		}
	}
}

// inherited reports whether what is built upon a type may answer in the place of a
// member of it.
func (f *file) inherited(v value) bool {
	return v.kind == vMember && v.abstract || v.kind == vDef && f.profile.Inherits && v.place.def().Kind == model.DefMethod
}

// bound reports whether nothing else can answer a call: what a class is built upon is
// asked, or a type by its name (Base.open(self)). A method that is handed on is called
// on whatever comes.
func (f *file) bound(c model.BodyCall) bool {
	at := f.body.Nodes[c.Node].From
	if at < 0 {
		return false
	}
	return f.body.Nodes[at].Op == model.ChainBase || c.Kind != model.CallRead && (&eval{profile: f.profile}).node(f, at).isType()
}

// newWorld unpacks the bodies of all files and indexes what they define.
func newWorld(s *model.Survey) *world {
	w := &world{survey: s, files: make([]*file, len(s.Files)), at: make(map[string]int32, len(s.Files)), units: map[string]*unit{},
		extends: map[string][]shapeAt{}}
	for i, f := range s.Files {
		w.at[f.Path] = int32(i)
	}
	parallel.Each(len(s.Files), func(i int) {
		f := s.Files[i]
		if f.Facts == nil {
			return
		}
		if len(f.Facts.Body) == 0 && len(f.Facts.Definitions) == 0 && len(f.Facts.Imports) == 0 {
			return // what only hands on has a part in it as well
		}
		body, err := model.UnpackBody(f.Facts.Body)
		if err != nil {
			return // damaged facts are as good as none
		}
		p := syntax.ProfileOf(f.Language)
		w.files[i] = &file{world: w, facts: f.Facts, path: f.Path, profile: &p, at: int32(i), body: body,
			known: make([]atomic.Pointer[value], len(body.Nodes)), defined: make([]atomic.Pointer[value], len(f.Facts.Definitions))}
	})
	w.index()
	w.space()
	w.plainly()
	w.globally()
	w.links()
	return w
}
