package server

import (
	"cmp"
	"context"
	"net/http"
	"regexp"
	"slices"
	"strings"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/states"
	"jantel/core/syntax"

	"github.com/danielgtaylor/huma/v2"
)

// StateRow is something that can be in one of several named states.
type StateRow struct {
	Name    string   `json:"name"`
	Path    string   `json:"path"`
	Line    int      `json:"line"`
	Members []string `json:"members"`
	Moves   int      `json:"moves" doc:"steps from one to another that were seen"`
	Choices int      `json:"choices" doc:"choices among them"`
	Lacks   int      `json:"lacks" doc:"choices that leave one out, with nothing for the rest"`
}

// StateList are those of a place in which something moves or is chosen by them.
type StateList struct {
	Rows  []StateRow `json:"rows" doc:"those in which most moves first"`
	Still int        `json:"still" doc:"enumerations by which nothing was seen to move or to be chosen"`
	Left  int        `json:"left" doc:"further ones that were not looked at"`
}

// Bounds of what is looked at, since texts are read for it.
const (
	mostHolders = 120
	mostUsing   = 40
)

func (s *Server) registerStates(api huma.API) {
	registerView(s, api, "/api/codebases/{id}/states", func(ctx context.Context, o *judged, place string) (*StateList, error) {
		all := s.allStates(ctx, o)
		out := &StateList{Rows: []StateRow{}, Left: all.left}
		for i := range all.holders {
			h := &all.holders[i]
			if !model.Within(place, h.Path) {
				continue
			}
			if len(h.Moves)+len(h.Choices) == 0 {
				out.Still++
				continue
			}
			row := StateRow{Name: h.Name, Path: h.Path, Line: h.Line, Members: h.Members, Moves: len(h.Moves), Choices: len(h.Choices)}
			for _, c := range h.Choices {
				if len(c.Lacks) > 0 {
					row.Lacks++
				}
			}
			out.Rows = append(out.Rows, row)
		}
		slices.SortStableFunc(out.Rows, func(a, b StateRow) int {
			return cmp.Or(cmp.Compare(b.Moves, a.Moves), cmp.Compare(b.Lacks, a.Lacks), cmp.Compare(b.Choices, a.Choices))
		})
		return out, nil
	})
	huma.Get(api, "/api/codebases/{id}/state", func(ctx context.Context, in *struct {
		ViewIn
		Line int `query:"line" required:"true" minimum:"1" doc:"where the states are defined"`
	}) (*view[*states.Holder], error) {
		return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*states.Holder, error) {
			all := s.allStates(ctx, o)
			for i := range all.holders {
				if h := &all.holders[i]; h.Path == in.place() && h.Line == in.Line {
					return h, nil
				}
			}
			return nil, huma.Error404NotFound("no states are defined at this line of " + in.place())
		})
	}, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
}

type stateHolders struct {
	holders []states.Holder
	left    int
}

// speaksOfStates are names that things which move from state to state are called by.
var speaksOfStates = regexp.MustCompile(`(?i)stat(?:e|us)|phase|stage|mode|step|lifecycle|progress`)

// allStates are the states of the whole codebase: those first whose names say so,
// then those that most others use.
func (s *Server) allStates(ctx context.Context, o *judged) *stateHolders {
	ctx = context.WithoutCancel(ctx) // what is kept is for those who ask later as well
	return cached(o, "states", func() *stateHolders {
		users := map[string][]string{} // files that are linked to one, by its path
		for i := range o.facts.Links {
			l := &o.facts.Links[i]
			if len(users[l.To]) < mostUsing && !slices.Contains(users[l.To], l.From) {
				users[l.To] = append(users[l.To], l.From)
			}
		}
		all := candidates(o)
		slices.SortStableFunc(all, func(a, b states.Holder) int {
			says := func(h *states.Holder) int {
				if speaksOfStates.MatchString(h.Name) {
					return 0
				}
				return 1
			}
			return cmp.Or(cmp.Compare(says(&a), says(&b)), cmp.Compare(len(users[b.Path]), len(users[a.Path])))
		})
		out := &stateHolders{}
		for _, h := range all {
			if len(out.holders) >= mostHolders {
				out.left++
				continue
			}
			if s.members(ctx, o, &h) {
				states.Follow(&h, s.using(ctx, o, &h, users[h.Path]))
				out.holders = append(out.holders, h)
			}
		}
		return out
	})
}

// candidates are the definitions that may list states: enumerations, and types of
// few lines.
func candidates(o *judged) (all []states.Holder) {
	for f := range o.Reading.Own(".") {
		if o.Reading.IsTest(f.Path) {
			continue
		}
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			enum := d.Kind == model.DefEnum || slices.ContainsFunc(d.Bases, func(b string) bool { return strings.HasSuffix(b, "Enum") })
			if enum || d.Kind == model.DefType && d.EndLine-d.Line <= 30 && (speaksOfStates.MatchString(d.Name) || d.EndLine-d.Line <= 1) {
				all = append(all, states.Holder{Name: d.Name, Path: f.Path, Line: d.Line})
			}
		}
	}
	return all
}

// members reads the states of a candidate; false where it lists none.
func (s *Server) members(ctx context.Context, o *judged, h *states.Holder) bool {
	lines := s.linesOf(ctx, o, h.Path)
	f := o.facts.File(h.Path)
	for i := range f.Facts.Definitions {
		if d := &f.Facts.Definitions[i]; d.Line == h.Line && d.Name == h.Name && d.EndLine <= len(lines) && d.Line > 0 {
			from := d.Line
			for from < d.EndLine && marked.MatchString(lines[from-1]) {
				from++
			}
			h.Members = states.MembersOf(lines[from-1:d.EndLine], lines[d.EndLine:])
			return h.Members != nil
		}
	}
	return false
}

// marked is a line of marks above a definition.
var marked = regexp.MustCompile(`^\s*[@#]`)

// using are the texts that may use the states: the file itself, and those linked to
// it.
func (s *Server) using(ctx context.Context, o *judged, h *states.Holder, users []string) (all []states.Text) {
	g := calls.Of(o.facts)
	for _, p := range append([]string{h.Path}, users...) {
		if o.Reading.IsTest(p) {
			continue
		}
		lines := s.linesOf(ctx, o, p)
		if !slices.ContainsFunc(lines, func(l string) bool { return strings.Contains(l, h.Name) || anyOf(l, h.Members) }) {
			continue
		}
		all = append(all, states.Text{Path: p, Lines: lines, By: func(line int) string {
			at, ok := g.AtPath(p, line)
			if !ok {
				return ""
			}
			return g.Name(at)
		}})
	}
	return all
}

func anyOf(line string, words []string) bool {
	return slices.ContainsFunc(words, func(w string) bool { return strings.Contains(line, w) })
}

// linesOf are the lines of a file; nil where its text is not kept any more.
func (s *Server) linesOf(ctx context.Context, o *judged, path string) []string {
	f := o.facts.File(path)
	if f == nil || f.Facts == nil || f.Hash == "" {
		return nil
	}
	data, err := s.facts.Text(ctx, f.Hash)
	if err != nil {
		return nil
	}
	text, _ := syntax.Decode(data)
	lines := strings.Split(string(text), "\n")
	for i := range lines {
		lines[i] = strings.TrimRight(lines[i], "\r")
	}
	return lines
}
