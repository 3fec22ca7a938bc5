package server

import (
	"cmp"
	"context"
	"net/http"
	"slices"
	"strings"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/parts"

	"github.com/danielgtaylor/huma/v2"
)

// PartList is a stretch of the parts of a place.
type PartList struct {
	All   int            `json:"all" doc:"parts of the place"`
	Count int            `json:"count" doc:"those that are asked for"`
	From  int            `json:"from"`
	Kinds map[string]int `json:"kinds" doc:"how many of all are of each kind"`
	Parts []parts.Part   `json:"parts"`
	Names []string       `json:"duties" doc:"the names of the duties, in their order"`
	Only  map[string]int `json:"only" doc:"how many each of the filters leaves"`
}

// PartsIn says which parts are asked for, and in which order.
type PartsIn struct {
	ViewIn
	Narrow
	Words string `query:"words" maxLength:"200" doc:"of the name or the path"`
	Kind  string `query:"kind" doc:"one kind alone"`
	Only  string `query:"only" enum:"duties,twins,unused,untested" doc:"with several duties, with twins, used by nobody, reached by no test"`
	Sort  string `query:"sort" enum:"weight,name,lines,takes,offers,duties,uses,users,twins" default:"weight"`
	Up    bool   `query:"up" doc:"the smallest first"`
	From  int    `query:"from" minimum:"0"`
	Count int    `query:"count" minimum:"0" maximum:"500" default:"150"`
}

// manyDuties is from how many on a part does several things.
const manyDuties = 3

// partFilters are what a part can be picked by.
var partFilters = map[string]func(p *parts.Part) bool{
	"duties":   func(p *parts.Part) bool { return len(p.Duties) >= manyDuties },
	"twins":    func(p *parts.Part) bool { return p.Twins > 0 },
	"unused":   func(p *parts.Part) bool { return p.Users == 0 },
	"untested": func(p *parts.Part) bool { return !p.Tested },
}

// partOrders are what parts can be sorted by; the largest comes first.
var partOrders = map[string]func(a, b *parts.Part) int{
	// The largest and most used first: there most is to be learned.
	"weight": func(a, b *parts.Part) int { return cmp.Compare(b.Lines*(1+b.Users), a.Lines*(1+a.Users)) },
	"name":   func(a, b *parts.Part) int { return cmp.Compare(a.Name, b.Name) },
	"lines":  func(a, b *parts.Part) int { return cmp.Compare(b.Lines, a.Lines) },
	"takes":  func(a, b *parts.Part) int { return cmp.Compare(b.Takes, a.Takes) },
	"offers": func(a, b *parts.Part) int { return cmp.Compare(b.Offers, a.Offers) },
	"duties": func(a, b *parts.Part) int { return cmp.Compare(len(b.Duties), len(a.Duties)) },
	"uses":   func(a, b *parts.Part) int { return cmp.Compare(b.Uses, a.Uses) },
	"users":  func(a, b *parts.Part) int { return cmp.Compare(b.Users, a.Users) },
	"twins":  func(a, b *parts.Part) int { return cmp.Compare(b.Twins, a.Twins) },
}

// parts are all parts of the codebase, made once for a judgement.
func (o *judged) parts() []parts.Part {
	tested := o.testedBy()
	return cached(o, "parts", func() []parts.Part {
		return parts.Of(o.Reading, func(path, name string) bool { return len(tested[[2]string{path, name}]) > 0 })
	})
}

func (s *Server) partList(ctx context.Context, in *PartsIn) (*view[*PartList], error) {
	return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*PartList, error) {
		if o.Folder(in.place()) == nil && o.facts.File(in.place()) == nil {
			return nil, noPlace(in.place())
		}
		out := &PartList{From: in.From, Kinds: map[string]int{}, Only: map[string]int{}, Names: parts.DutyNames, Parts: []parts.Part{}}
		words := strings.Fields(strings.ToLower(in.Words))
		var asked []*parts.Part
		all := o.parts()
		for i := range all {
			p := &all[i]
			if !model.Within(in.place(), p.Path) || in.Narrow != (Narrow{}) && !in.holds(o, p.Path) {
				continue
			}
			out.All++
			out.Kinds[p.Kind]++
			for name, is := range partFilters {
				if is(p) {
					out.Only[name]++
				}
			}
			if in.asks(p, words) {
				asked = append(asked, p)
			}
		}
		by := partOrders[in.Sort]
		slices.SortStableFunc(asked, func(a, b *parts.Part) int {
			if in.Up {
				a, b = b, a
			}
			return cmp.Or(by(a, b), cmp.Compare(a.Path, b.Path), cmp.Compare(a.Line, b.Line))
		})
		out.Count = len(asked)
		for i := min(in.From, len(asked)); i < min(in.From+in.Count, len(asked)); i++ {
			out.Parts = append(out.Parts, *asked[i])
		}
		return out, nil
	})
}

func (in *PartsIn) asks(p *parts.Part, words []string) bool {
	if in.Kind != "" && p.Kind != in.Kind || in.Only != "" && !partFilters[in.Only](p) {
		return false
	}
	text := strings.ToLower(p.Name + " " + p.Path)
	return !slices.ContainsFunc(words, func(w string) bool { return !strings.Contains(text, w) })
}

// OnePart is a part opened.
type OnePart struct {
	Path    string            `json:"path"`
	Name    string            `json:"name"`
	Head    string            `json:"head" doc:"how it begins, as written"`
	Members []Member          `json:"members" doc:"what it is made of, by line"`
	Jobs    [][]string        `json:"jobs" doc:"members that hang together by calls, where there are several such groups"`
	Users   []CallEnd         `json:"users" doc:"tests left out"`
	Uses    []CallEnd         `json:"uses"`
	Left    int               `json:"left" doc:"further ends that are not listed"`
	Tests   []TestOfHandler   `json:"tests"`
	Twins   []model.TwinPlace `json:"twins"`
}

// Member is something that a part is made of.
type Member struct {
	Name     string `json:"name"`
	Kind     string `json:"kind"`
	Line     int    `json:"line"`
	EndLine  int    `json:"end_line"`
	Exported bool   `json:"exported"`
	Users    int    `json:"users" doc:"definitions elsewhere that call or read it"`
}

// mostHead is how many lines of the head of a part are told.
const mostHead = 12

func (s *Server) onePart(ctx context.Context, in *struct {
	ViewIn
	Name string `query:"name" required:"true"`
}) (*view[*OnePart], error) {
	return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*OnePart, error) {
		_, out, err := s.opened(ctx, o, in.place(), in.Name)
		return out, err
	})
}

// opened is a part of a file by its name, with all that is told of it.
func (s *Server) opened(ctx context.Context, o *judged, place, name string) (*parts.Part, *OnePart, error) {
	all := o.parts()
	i := slices.IndexFunc(all, func(p parts.Part) bool { return p.Path == place && p.Name == name })
	if i < 0 {
		return nil, nil, noPlace(name + " in " + place)
	}
	p := &all[i]
	out := &OnePart{
		Path: p.Path, Name: p.Name, Members: []Member{}, Jobs: [][]string{},
		Users: []CallEnd{}, Uses: []CallEnd{}, Twins: []model.TwinPlace{},
	}
	out.links(o, p)
	out.Twins = append(out.Twins, parts.TwinsOf(o.facts, p)...)
	file := o.facts.File(p.Path)
	if p.Kind != parts.Functions {
		out.Head = head(s.quote(ctx, file.Hash, p.Line, min(p.EndLine, p.Line+mostHead-1)))
	}
	return p, out, nil
}

// head is what stands before the body of a definition.
func head(text string) string {
	var out []string
	for line := range strings.Lines(text) {
		out = append(out, strings.TrimRight(line, "\r\n"))
		if t := strings.TrimSpace(line); strings.HasSuffix(t, "{") || strings.HasSuffix(t, ":") || strings.HasSuffix(t, ";") {
			break
		}
	}
	return strings.Join(out, "\n")
}

// links lists members, users and what is used.
func (out *OnePart) links(o *judged, p *parts.Part) {
	g := calls.Of(o.facts)
	file := o.facts.File(p.Path)
	at, _ := g.AtPath(p.Path, p.Line)
	own := map[calls.Ref]bool{}
	refs := p.Refs(int(at.File))
	for _, r := range refs {
		own[r] = true
	}
	seen := map[string]bool{}
	add := func(list []CallEnd, r calls.Ref, e calls.Edge, line int) []CallEnd {
		key := g.Path(r) + "\x00" + g.Name(r)
		if own[r] || seen[key] {
			return list
		}
		seen[key] = true
		if len(list) == maxEnds {
			out.Left++
			return list
		}
		return append(list, CallEnd{g.Path(r), g.Name(r), line, int(e.Line), e.Kind.String(), e.Sure})
	}
	for _, r := range refs {
		for _, e := range g.To(r) {
			if !o.Reading.IsTest(g.Path(e.From)) {
				out.Users = add(out.Users, e.From, e, int(e.Line))
			}
		}
	}
	clear(seen)
	together := newGroups(len(refs))
	index := map[calls.Ref]int{}
	for i, r := range refs {
		index[r] = i
	}
	for i, r := range refs {
		for _, e := range g.From(r) {
			if k, mine := index[e.To]; mine {
				together.join(i, k)
				continue
			}
			begins := 1
			if d := g.Definition(e.To); d != nil {
				begins = d.Line
			}
			out.Uses = add(out.Uses, e.To, e, begins)
		}
	}
	tests := map[string]TestOfHandler{}
	for _, r := range refs {
		d := file.Facts.Definitions[r.Definition]
		users := map[calls.Ref]bool{}
		for _, e := range g.To(r) {
			if !own[e.From] {
				users[e.From] = true
			}
		}
		if (len(refs) > 1 || p.Kind == parts.Functions) && d.Qualified() != p.Name {
			out.Members = append(out.Members, Member{d.Name, string(d.Kind), d.Line, d.EndLine, d.Exported, len(users)})
		}
		for _, t := range o.testsOf(p.Path, d.Qualified()) {
			if was, ok := tests[t.Path]; !ok || t.Distance < was.Distance {
				tests[t.Path] = t
			}
		}
	}
	out.Jobs = together.named(refs, file, p)
	out.Tests = make([]TestOfHandler, 0, len(tests))
	for _, t := range tests {
		out.Tests = append(out.Tests, t)
	}
	slices.SortFunc(out.Tests, func(a, b TestOfHandler) int {
		return cmp.Or(cmp.Compare(a.Distance, b.Distance), cmp.Compare(a.Path, b.Path))
	})
}

// groups joins what hangs together.
type groups []int

func newGroups(n int) groups {
	g := make(groups, n)
	for i := range g {
		g[i] = i
	}
	return g
}

func (g groups) top(i int) int {
	for g[i] != i {
		g[i] = g[g[i]]
		i = g[i]
	}
	return i
}

func (g groups) join(a, b int) { g[g.top(b)] = g.top(a) }

// named lists the members of each group of two and more functions, the largest
// first, where there are several such groups: what shares nothing has jobs apart.
func (g groups) named(refs []calls.Ref, file *model.File, p *parts.Part) [][]string {
	by := map[int][]string{}
	for i, r := range refs {
		d := file.Facts.Definitions[r.Definition]
		if d.Kind != model.DefMethod && d.Kind != model.DefFunction || d.Qualified() == p.Name {
			continue
		}
		by[g.top(i)] = append(by[g.top(i)], d.Name)
	}
	out := [][]string{}
	for _, names := range by {
		if len(names) > 1 {
			out = append(out, names)
		}
	}
	if len(out) < 2 {
		return [][]string{}
	}
	slices.SortFunc(out, func(a, b []string) int { return cmp.Or(cmp.Compare(len(b), len(a)), cmp.Compare(a[0], b[0])) })
	return out
}

func (s *Server) registerParts(api huma.API) {
	huma.Get(api, "/api/codebases/{id}/parts", s.partList, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
	huma.Get(api, "/api/codebases/{id}/part", s.onePart, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
}
