// Package calls finds which definition calls, builds or reads which other. It
// follows the chains that readers keep of each file (model.Body), step by step,
// from the names a file knows over members and results to definitions.
//
// A link is sure where each step is told by a declared type or a name that is
// there once; likely where it goes through an interface to those that implement
// it. What can not be told is counted for each file.
package calls

import (
	"cmp"
	"slices"
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

	survey *model.Survey

	once sync.Once
	back []int32 // the edges by where they lead, as places among them
}

// Ref is a definition of a file; Definition is -1 for the top of the file, and
// Member names a member of an interface that has no body.
type Ref struct {
	File       int32
	Definition int32
	Member     string
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
		return r.Member
	}
	d := g.survey.Files[r.File].Facts.Definitions[r.Definition]
	if r.Member != "" {
		return d.Qualified() + "." + r.Member
	}
	return d.Qualified()
}

// Of gives the graph of a survey, which is made once.
func Of(s *model.Survey) *Graph { return s.Derived("calls", func() any { return made(s) }).(*Graph) }

func made(s *model.Survey) *Graph {
	w := newWorld(s)
	g := &Graph{survey: s, Untold: map[string]int{}, Told: map[string]int{}}
	found := make([][]Edge, len(s.Files))
	untold, told := make([]int, len(s.Files)), make([]int, len(s.Files))
	parallel.Each(len(s.Files), func(i int) {
		if f := w.files[i]; f != nil {
			if parallel.Try(func() { found[i], told[i], untold[i] = f.edges() }) != nil {
				untold[i] = len(f.body.Calls) // what breaks on a file costs that file's calls
			}
		}
	})
	n := 0
	for _, e := range found {
		n += len(e)
	}
	g.Edges = make([]Edge, 0, n)
	for i, e := range found {
		g.Edges = append(g.Edges, e...)
		if untold[i] > 0 {
			g.Untold[s.Files[i].Path] = untold[i]
		}
		if told[i] > 0 {
			g.Told[s.Files[i].Path] = told[i]
		}
	}
	return g
}

// edges are the links that begin in a file.
func (f *file) edges() (all []Edge, told, untold int) {
	e := &eval{profile: f.profile}
	for _, c := range f.body.Calls {
		from := Ref{File: f.at, Definition: c.In}
		v := e.node(f, c.Node)
		if v.kind == vUnit && c.Kind != model.CallRead {
			v = e.standsFor(v.unit) // a module that stands for one function or class
		}
		switch {
		case v.kind == vDef || v.kind == vMember:
			told++
			all = append(all, f.reached(from, c, v)...)
		case c.Kind == model.CallRead:
			// A member of something that is no definition is only a field.
		case v.kind == vOutside:
			told++
		default:
			untold++
		}
		// Whatever it is, what it was asked of is read.
		if last, ok := e.lastKnown(f, c.Node); ok && !last.same(v) {
			all = append(all, Edge{From: from, To: last.ref(), Line: c.Line, Kind: model.CallRead, Sure: true})
		}
	}
	slices.SortStableFunc(all, compareEdges)
	return slices.CompactFunc(all, func(a, b Edge) bool { return a == b }), told, untold
}

func compareEdges(a, b Edge) int {
	return cmp.Or(cmp.Compare(a.From.Definition, b.From.Definition), cmp.Compare(a.Line, b.Line), compareRefs(a.To, b.To),
		cmp.Compare(a.Kind, b.Kind))
}

func compareRefs(a, b Ref) int {
	return cmp.Or(cmp.Compare(a.File, b.File), cmp.Compare(a.Definition, b.Definition), cmp.Compare(a.Member, b.Member))
}

// reached are the links of one call: to what it names, and to those that may
// answer where that is a member of an interface.
func (f *file) reached(from Ref, c model.BodyCall, v value) (all []Edge) {
	kind := c.Kind
	if kind == model.CallPlain && v.isType() {
		kind = model.CallConstruct // a type that is called is built, or something is turned into it
	}
	to := v.ref()
	if to == from && kind == model.CallRead {
		return nil
	}
	// A member told by nothing but its name is only likely.
	only := f.body.Nodes[c.Node].Op == model.ChainOnly
	all = append(all, Edge{From: from, To: to, Line: c.Line, Kind: kind, Sure: !only})
	if only {
		return all
	}
	if at := f.body.Nodes[c.Node].From; at >= 0 && f.body.Nodes[at].Op == model.ChainBase {
		return all // what a class is built upon is asked, not what is built upon that
	}
	if v.kind == vMember && v.abstract || v.kind == vDef && f.profile.Inherits && v.place.def().Kind == model.DefMethod {
		for _, m := range f.world.implementers(v) {
			all = append(all, Edge{From: from, To: m, Line: c.Line, Kind: kind})
		}
	}
	return all
}

// newWorld unpacks the bodies of all files and indexes what they define.
func newWorld(s *model.Survey) *world {
	w := &world{survey: s, files: make([]*file, len(s.Files)), at: make(map[string]int32, len(s.Files)), units: map[string]*unit{}}
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
			known: make([]atomic.Pointer[value], len(body.Nodes))}
	})
	w.index()
	w.space()
	w.plainly()
	w.links()
	return w
}
