package server

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"jantel/core/model"
	"jantel/core/smells"
	"jantel/core/syntax"
	"jantel/report"
	"jantel/review"

	"github.com/danielgtaylor/huma/v2"
)

// NewFinding is a remark to record.
type NewFinding struct {
	Kind       review.Kind  `json:"kind" enum:"redo,fix,improve,taste,ask,keep"`
	Title      string       `json:"title"`
	Text       string       `json:"text,omitempty"`
	Assignee   string       `json:"assignee,omitempty"`
	Labels     []string     `json:"labels,omitempty"`
	Path       string       `json:"path" doc:"a file or a folder of the survey; . for the codebase"`
	Definition string       `json:"definition,omitempty"`
	Line       int          `json:"line,omitempty" minimum:"0"`
	EndLine    int          `json:"end_line,omitempty" minimum:"0"`
	Survey     int64        `json:"survey,omitempty"`
	Smell      string       `json:"smell,omitempty" doc:"the id of a smell; its evidence is filled in"`
	By         review.Actor `json:"by,omitempty"`
}

type FindingIn struct {
	ID      int64 `path:"id"`
	Finding int64 `path:"finding"`
}

// Markdown is a text to render.
type Markdown struct {
	Text string `json:"text" maxLength:"100000"`
}

// Rendered is a finding's text as safe HTML.
type Rendered struct {
	HTML string `json:"html"`
}

func (s *Server) registerFindings(api huma.API) {
	huma.Get(api, "/api/codebases/{id}/findings", s.listFindings)
	huma.Get(api, "/api/codebases/{id}/recorded", s.recorded)
	huma.Post(api, "/api/codebases/{id}/findings", s.addFinding)
	huma.Get(api, "/api/codebases/{id}/findings/{finding}", func(ctx context.Context, in *FindingIn) (*body[review.Finding], error) {
		f, err := s.review.Finding(ctx, in.ID, in.Finding)
		return &body[review.Finding]{f}, failure(err)
	})
	huma.Patch(api, "/api/codebases/{id}/findings/{finding}", func(ctx context.Context, in *struct {
		FindingIn
		Version string       `header:"If-Match" required:"true" doc:"the version that was changed"`
		By      review.Actor `query:"by"`
		Body    review.Patch
	}) (*body[review.Finding], error) {
		v, err := strconv.ParseInt(strings.Trim(in.Version, `"`), 10, 64)
		if err != nil {
			return nil, huma.Error422UnprocessableEntity("If-Match must be the finding's version")
		}
		f, err := s.review.ChangeFinding(ctx, in.ID, in.Finding, v, in.Body, in.By)
		if err != nil {
			return nil, failure(err)
		}
		more := 0
		switch {
		case in.Body.Deleted == nil:
		case f.Deleted:
			more = -1
		default:
			more = 1
		}
		if f.Counter > 0 { // something was changed
			s.found(f, in.By, more)
		}
		return &body[review.Finding]{f}, nil
	})
	huma.Get(api, "/api/codebases/{id}/findings/{finding}/changes", func(
		ctx context.Context, in *FindingIn,
	) (*body[[]review.Change], error) {
		l, err := s.review.Changes(ctx, in.ID, in.Finding)
		return &body[[]review.Change]{l}, failure(err)
	})
	huma.Post(api, "/api/render", func(_ context.Context, in *body[Markdown]) (*body[Rendered], error) {
		return &body[Rendered]{Rendered{report.SafeHTML(in.Body.Text)}}, nil
	})
}

// FindingsIn says which stretch of which findings is listed.
type FindingsIn struct {
	CodebaseIn
	review.Filter
	Narrow
	Survey int64  `query:"survey" doc:"by whose features and roles it is narrowed; 0 for the newest"`
	Group  string `query:"group" enum:"place,kind,state,person,label" doc:"none for the order set by hand"`
	From   int    `query:"from" minimum:"0" doc:"rows to leave out"`
	Count  int    `query:"count" minimum:"0" maximum:"1000" default:"100" doc:"rows at most"`
}

// listFindings lists a stretch of the findings that pass a filter.
func (s *Server) listFindings(ctx context.Context, in *FindingsIn) (*body[review.List], error) {
	if _, err := s.review.Codebase(ctx, in.ID); err != nil {
		return nil, failure(err)
	}
	all, counter, err := s.findings(ctx, in.ID)
	if err != nil {
		return nil, failure(err)
	}
	passes, err := s.passing(ctx, in.ID, in.Survey, in.Filter, in.Narrow)
	if err != nil {
		return nil, err
	}
	l := review.Select(all, passes, in.Group, in.From, in.Count)
	l.Counter = counter
	return &body[review.List]{l}, nil
}

// passing tells which findings are listed, or handed out: those that pass a
// filter, of a feature or a role where the views are narrowed to one.
func (s *Server) passing(ctx context.Context, id, survey int64, w review.Filter, n Narrow) (func(*review.Finding) bool, error) {
	if n == (Narrow{}) {
		return w.Passes, nil
	}
	o, err := s.shelf.survey(ctx, id, survey)
	if err != nil {
		return nil, err
	}
	return func(f *review.Finding) bool { return n.holds(o, f.Place.Path) && w.Passes(f) }, nil
}

// recorded lists the smells that findings were made of, by their ids.
func (s *Server) recorded(ctx context.Context, in *CodebaseIn) (*body[[]string], error) {
	all, _, err := s.findings(ctx, in.ID)
	if err != nil {
		return nil, failure(err)
	}
	out := []string{}
	for i := range all {
		if all[i].Smell != "" {
			out = append(out, all[i].Smell)
		}
	}
	return &body[[]string]{out}, nil
}

// findings are a codebase's findings in their order with the number of their
// last change, read anew when any of them was changed. They are shared: nobody
// writes to them.
func (s *Server) findings(ctx context.Context, codebase int64) ([]review.Finding, int64, error) {
	touched, err := s.review.Touched(ctx, codebase)
	if err != nil {
		return nil, 0, err
	}
	s.listed.Lock()
	defer s.listed.Unlock()
	l, ok := s.listed.of[codebase]
	if ok && l.counter == touched[review.PartFindings] {
		return l.findings, l.counter, nil
	}
	if l.findings, l.counter, err = s.review.FindingsNow(ctx, codebase); err != nil {
		return nil, 0, err
	}
	if s.listed.of == nil {
		s.listed.of = map[int64]listed{}
	}
	s.listed.of[codebase] = l
	return l.findings, l.counter, nil
}

// listed are findings as they were after the change with that number.
type listed struct {
	counter  int64
	findings []review.Finding
}

// found tells all open pages of a finding as it is now.
func (s *Server) found(f review.Finding, by review.Actor, more int) {
	s.changed(review.Happened{Codebase: f.Codebase, Part: review.PartFindings, What: "finding", By: by, Finding: &f, More: more})
}

func (s *Server) addFinding(ctx context.Context, in *struct {
	CodebaseIn
	Body NewFinding
}) (*body[review.Finding], error) {
	f, err := s.Record(ctx, in.ID, in.Body)
	if err != nil {
		return nil, err
	}
	return &body[review.Finding]{f}, nil
}

// Record keeps a remark with all that later surveys need to follow it.
func (s *Server) Record(ctx context.Context, codebase int64, n NewFinding) (f review.Finding, err error) {
	o, err := s.shelf.survey(ctx, codebase, n.Survey)
	if err != nil {
		if n.Smell == "" && s.factsGone(ctx, codebase) {
			return s.recordBare(ctx, codebase, n)
		}
		return f, err
	}
	f = review.Finding{
		Codebase: codebase, Kind: n.Kind, Title: n.Title, Text: n.Text, Assignee: n.Assignee, Labels: n.Labels,
		Author: n.By, Smell: n.Smell,
		Place: review.Place{Path: n.Path, Definition: n.Definition, Line: n.Line, EndLine: max(n.Line, n.EndLine), Survey: o.survey}}
	if n.Smell != "" {
		if err := fromSmell(o, &f); err != nil {
			return f, err
		}
	}
	file := o.facts.File(f.Place.Path)
	if file == nil && o.Folder(f.Place.Path) == nil {
		return f, noPlace(f.Place.Path)
	}
	if file != nil {
		f.Place.Hash = file.Hash
		if f.Place.Definition != "" && file.Facts != nil {
			for _, d := range file.Facts.Definitions {
				if d.Qualified() == f.Place.Definition && f.Place.Line == 0 {
					f.Place.Line, f.Place.EndLine = d.Line, d.EndLine
				}
			}
		}
		if f.Place.Line > file.Lines() {
			return f, huma.Error422UnprocessableEntity(fmt.Sprintf(
				"%s has %d lines, so there is no line %d", file.Path, file.Lines(), f.Place.Line,
			))
		}
		f.Place.EndLine = min(f.Place.EndLine, max(file.Lines(), f.Place.Line))
		if f.Place.Line > 0 {
			f.Place.Quote = s.quote(ctx, file.Hash, f.Place.Line, f.Place.EndLine)
			if f.Place.Definition == "" {
				f.Place.Definition = enclosing(file, f.Place.Line, f.Place.EndLine)
			}
		}
	}
	if f, err = s.review.AddFinding(ctx, f); err != nil {
		return f, failure(err)
	}
	s.found(f, n.By, 1)
	return f, nil
}

// factsGone reports whether a codebase was surveyed and what was read of it is
// not there any more, as after damage to the store of facts.
func (s *Server) factsGone(ctx context.Context, codebase int64) bool {
	latest, err := s.review.LatestSurvey(ctx, codebase)
	if err != nil {
		return false
	}
	_, err = s.facts.Survey(ctx, latest)
	return errors.Is(err, review.ErrNotFound)
}

// recordBare keeps a remark while nothing is known of its place but what the
// writer says: it must not wait until the codebase is surveyed again.
func (s *Server) recordBare(ctx context.Context, codebase int64, n NewFinding) (review.Finding, error) {
	f,
		err := s.review.AddFinding(
		ctx,
		review.Finding{Codebase: codebase, Kind: n.Kind, Title: n.Title, Text: n.Text, Assignee: n.Assignee, Labels: n.Labels, Author: n.By,
			Place: review.Place{Path: n.Path, Definition: n.Definition, Line: n.Line, EndLine: max(n.Line, n.EndLine)}})
	if err != nil {
		return f, failure(err)
	}
	s.found(f, n.By, 1)
	return f, nil
}

// SmellOf is the id of the first smell of a rule at a place, "" when there is
// none.
func (s *Server) SmellOf(ctx context.Context, codebase int64, rule, path string) string {
	o, err := s.shelf.survey(ctx, codebase, 0)
	if err != nil {
		return ""
	}
	for _, sm := range o.Hits {
		if sm.Rule == rule && (sm.Path == path || slices.Contains(sm.Touches, path)) {
			return sm.ID
		}
	}
	return ""
}

func fromSmell(o *judged, f *review.Finding) error {
	sm := o.smell(f.Smell)
	if sm == nil {
		return errNoSmell
	}
	key := sm.Key()
	f.Smell, f.Rule, f.SmellPath, f.SmellName, f.Evidence = sm.ID, key.Rule, key.Path, key.Name, sm.Evidence
	f.Place.Path = sm.Path
	if sm.Line != nil {
		f.Place.Line, f.Place.EndLine = *sm.Line, *sm.EndLine
	}
	if key.Name != "" {
		f.Place.Definition = key.Name
	}
	if f.Title == "" {
		f.Title = strings.ReplaceAll(sm.Message, "*", "")
	}
	if f.Kind == "" {
		f.Kind = review.Improve
	}
	if f.Text == "" {
		why := ""
		if r := smells.Named(sm.Rule); r != nil {
			why = r.Why
		}
		f.Text = why + "\n\n" + sm.Remedy
	}
	return nil
}

// quote keeps the lines a finding is about, as they stood.
func (s *Server) quote(ctx context.Context, hash string, from, to int) string {
	data, err := s.facts.Text(ctx, hash)
	if err != nil {
		return ""
	}
	text, _ := syntax.Decode(data)
	lines := bytes.Split(text, []byte{'\n'})
	if from > len(lines) {
		return ""
	}
	return strings.ToValidUTF8(string(bytes.Join(lines[from-1:min(to, len(lines), from+199)], []byte{'\n'})), "\uFFFD")
}

// enclosing names the innermost definition around the lines.
func enclosing(f *model.File, from, to int) string {
	best, size := "", 0
	if f.Facts == nil {
		return ""
	}
	for _, d := range f.Facts.Definitions {
		if n := d.EndLine - d.Line + 1; d.Line <= from && to <= d.EndLine && (best == "" || n <= size) {
			best, size = d.Qualified(), n
		}
	}
	return best
}
