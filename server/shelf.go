package server

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"sync"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/weave"
	"jantel/review"

	"github.com/danielgtaylor/huma/v2"
)

// shelf keeps the surveys that are looked at in memory, with the newest
// judgement of each, so that a view is made in milliseconds.
type shelf struct {
	s       *Server
	mu      sync.Mutex
	shelved []*shelved // most recently used first
}

const shelfSize = 3

type shelved struct {
	survey   int64
	facts    once[*model.Survey]
	mu       sync.Mutex
	result   *judgement.Result
	declared *model.Survey    // the facts with what the lead declared
	views    map[string]*cell // what was made of result, by name
}

func newShelf(s *Server) *shelf { return &shelf{s: s} }

// open is a survey ready to be looked at.
type judged struct {
	codebase int64
	survey   int64
	facts    *model.Survey
	*judgement.Result
	shelved *shelved
	touched map[review.Part]int64
	sees    string // what who asks may see: Actor.Sees
}

var errNoSmell = huma.Error404NotFound("this survey has no such smell any more")

// smell is the smell that has an id, or had it before; nil when there is none.
func (o *judged) smell(id string) *model.Smell {
	for _, list := range [][]model.Smell{o.Smells, o.Hits} { // what another tells of is there as well
		for i := range list {
			if sm := &list[i]; sm.ID == id || slices.Contains(sm.Was, id) {
				return sm
			}
		}
	}
	return nil
}

// ViewIn names what a view is of.
type ViewIn struct {
	ID     int64  `path:"id"`
	Survey int64  `query:"survey" doc:"0 for the newest finished survey"`
	At     string `query:"at" doc:"the place; the root when empty"`
	Match  string `header:"If-None-Match"`
}

func (v *ViewIn) place() string {
	if v.At == "" {
		return "."
	}
	return v.At
}

// view is an answer that facts, judgement and review determine.
type view[T any] struct {
	ETag string `header:"ETag"`
	Body T
}

// survey loads what a view request names.
func (sh *shelf) survey(ctx context.Context, codebase, id int64) (*judged, error) {
	if _, err := sh.s.review.Codebase(ctx, codebase); err != nil {
		return nil, failure(err)
	}
	records, err := sh.s.review.Surveys(ctx, codebase)
	if err != nil {
		return nil, failure(err)
	}
	found := int64(0)
	for _, r := range records {
		if r.State == "finished" && (id == 0 || r.ID == id) {
			found = r.ID
			break
		}
	}
	if found == 0 {
		return nil, huma.Error404NotFound("this codebase has no such finished survey")
	}
	h := sh.hold(found)
	facts, err := h.facts.get(func() (*model.Survey, error) {
		return sh.s.facts.Survey(context.WithoutCancel(ctx), found)
	})
	if err != nil {
		sh.drop(h)
		return nil, failure(err)
	}
	in, err := sh.s.inputs(ctx, codebase)
	if err != nil {
		return nil, err
	}
	touched, err := sh.s.review.Touched(ctx, codebase)
	if err != nil {
		return nil, failure(err)
	}
	h.mu.Lock()
	defer h.mu.Unlock()
	if v := in.Version(); h.result == nil || h.result.Version != v {
		if h.result == nil || !weave.SameDeclared(h.result.Said, in.Overrules) {
			h.declared = weave.Declare(facts, in.Overrules)
		}
		h.result, h.views = h.result.Again(h.declared, in), map[string]*cell{}
		if keys := in.Quiet.Keyless(h.result.Smells); len(keys) > 0 {
			if err := sh.s.review.KeepKeys(ctx, codebase, keys); err != nil {
				return nil, failure(err)
			}
		}
	}
	return &judged{codebase, found, h.declared, h.result, h, touched, actorOf(ctx).Sees()}, nil
}

// inputs are what a codebase is judged by.
func (s *Server) inputs(ctx context.Context, codebase int64) (in judgement.Inputs, err error) {
	if in.Brief, _, err = s.review.Brief(ctx, codebase); err != nil {
		return in, failure(err)
	}
	if in.Quiet, err = s.review.Silences(ctx, codebase); err != nil {
		return in, failure(err)
	}
	if in.Charter, _, err = s.review.Charter(ctx, codebase); err != nil {
		return in, failure(err)
	}
	in.Overrules, err = s.review.Overrules(ctx, codebase)
	return in, failure(err)
}

// warm loads and judges the newest surveys of codebases, the first of them
// first, so that their first views need not wait. What goes wrong is told to
// who asks for the view.
func (sh *shelf) warm(list []CodebaseStatus) {
	sh.s.jobs.wg.Go(func() {
		for _, c := range list {
			if sh.s.jobs.life.Err() == nil {
				_, _ = sh.survey(sh.s.jobs.life, c.ID, c.Latest)
			}
		}
	})
}

func (sh *shelf) hold(id int64) *shelved {
	sh.mu.Lock()
	defer sh.mu.Unlock()
	for i, h := range sh.shelved {
		if h.survey == id {
			copy(sh.shelved[1:i+1], sh.shelved[:i])
			sh.shelved[0] = h
			return h
		}
	}
	h := &shelved{survey: id}
	sh.shelved = append([]*shelved{h}, sh.shelved[:min(len(sh.shelved), shelfSize-1)]...)
	return h
}

func (sh *shelf) drop(gone *shelved) {
	sh.mu.Lock()
	defer sh.mu.Unlock()
	for i, h := range sh.shelved {
		if h == gone {
			sh.shelved = append(sh.shelved[:i], sh.shelved[i+1:]...)
			return
		}
	}
}

// forget lets go of surveys that were removed.
func (sh *shelf) forget(ids []int64) {
	sh.mu.Lock()
	defer sh.mu.Unlock()
	sh.shelved = slices.DeleteFunc(sh.shelved, func(h *shelved) bool { return slices.Contains(ids, h.survey) })
}

// cell is a part of a view that is made once, by who asks for it first; others
// who ask for the same wait for it, and nobody else does.
type cell struct {
	mu   sync.Mutex
	made bool
	v    any
}

// cached makes a part of a view once for a judgement and for all who see the
// same of it.
func cached[T any](o *judged, name string, make func() T) T {
	name = o.sees + "\x00" + name
	o.shelved.mu.Lock()
	c := &cell{}
	if o.shelved.result == o.Result {
		if known := o.shelved.views[name]; known != nil {
			c = known
		} else {
			o.shelved.views[name] = c
		}
	}
	o.shelved.mu.Unlock()
	c.mu.Lock()
	defer c.mu.Unlock()
	if !c.made {
		c.v = make()
		c.made = true
	}
	v, _ := c.v.(T)
	return v
}

// module is the module that a path belongs to.
func (o *judged) module(p string) string { return model.ProjectOf(o.Modules, p) }

// etag names the state that an answer was made from: facts and judgement, and
// those parts of the review that it shows.
func (o *judged) etag(parts ...review.Part) string {
	tag := fmt.Sprintf("%d-%s", o.survey, o.Version)
	if o.sees != "" {
		tag += "-" + o.sees
	}
	for _, p := range parts {
		tag += fmt.Sprintf("-%d", o.touched[p])
	}
	return fmt.Sprintf("%q", tag)
}

// viewOf makes a view of an open survey, unless the reader has it already.
func viewOf[T any](
	ctx context.Context, s *Server, in *ViewIn, make func(o *judged) (T, error), parts ...review.Part,
) (*view[T], error) {
	o, err := s.shelf.survey(ctx, in.ID, in.Survey)
	if err != nil {
		return nil, err
	}
	return answer(in, o.etag(parts...), func() (T, error) { return make(o) })
}

// answer makes what a tag names, unless the reader has it already.
func answer[T any](in *ViewIn, tag string, make func() (T, error)) (*view[T], error) {
	if in.Match == tag {
		return nil, huma.Status304NotModified()
	}
	v, err := make()
	if err != nil {
		return nil, err
	}
	return &view[T]{tag, v}, nil
}

// registerView registers a view: a function of an open survey and a place, and
// of those parts of the review that it names.
func registerView[T any](
	s *Server, api huma.API, path string, make func(ctx context.Context, o *judged, place string) (T, error), parts ...review.Part,
) {
	huma.Get(api, path, func(ctx context.Context, in *ViewIn) (*view[T], error) {
		return viewOf(ctx, s, in, func(o *judged) (T, error) { return make(ctx, o, in.place()) }, parts...)
	}, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
}
