package server

import (
	"context"
	"encoding/json"
	"net/http"
	"sync"

	"jantel/core/survey"
	"jantel/server/worker"

	"github.com/danielgtaylor/huma/v2"
)

// pastRevisions is how many revisions the history of a score is told from.
const pastRevisions = 12

// PastScores is how the score of a codebase came about, as far as it is told: past
// revisions judged by what holds today, the oldest first.
type PastScores struct {
	State   string         `json:"state" enum:"none,running,done,failed" doc:"none: nobody asked yet"`
	Of      int            `json:"of" doc:"revisions that are looked at; 0 while unknown"`
	Scores  []worker.Score `json:"scores"`
	Problem string         `json:"problem" doc:"why it failed; empty where it did not"`
}

// pastScores keeps what was told of the past of codebases, while nothing changes that it
// is judged by.
type pastScores struct {
	mu   sync.Mutex
	told map[int64]*pastTold
}

type pastTold struct {
	version string // of the judgement
	survey  int64
	PastScores
}

// of is what is told for a judgement; nil where nobody asked.
func (p *pastScores) of(o *judged) *pastTold {
	if t := p.told[o.codebase]; t != nil && t.version == o.Version && t.survey == o.survey {
		return t
	}
	return nil
}

// registerPast tells how a score came about, on demand: it takes a while.
func (s *Server) registerPast(api huma.API) {
	huma.Get(api, "/api/codebases/{id}/past", func(ctx context.Context, in *CodebaseIn) (*body[PastScores], error) {
		o, err := s.shelf.survey(ctx, in.ID, 0)
		if err != nil {
			return nil, err
		}
		s.past.mu.Lock()
		defer s.past.mu.Unlock()
		if t := s.past.of(o); t != nil {
			out := t.PastScores
			out.Scores = append([]worker.Score{}, t.Scores...)
			return &body[PastScores]{out}, nil
		}
		return &body[PastScores]{PastScores{State: "none", Scores: []worker.Score{}}}, nil
	})
	huma.Post(api, "/api/codebases/{id}/past", func(ctx context.Context, in *CodebaseIn) (*body[PastScores], error) {
		out, err := s.lookBack(ctx, in.ID)
		return &body[PastScores]{out}, err
	}, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound, http.StatusUnprocessableEntity} })
}

// lookBack begins to judge past revisions, unless that is under way or done.
func (s *Server) lookBack(ctx context.Context, id int64) (PastScores, error) {
	o, err := s.shelf.survey(ctx, id, 0)
	if err != nil {
		return PastScores{}, err
	}
	c, err := s.review.Codebase(ctx, id)
	if err != nil {
		return PastScores{}, failure(err)
	}
	if o.facts.History == nil {
		return PastScores{}, huma.Error422UnprocessableEntity("there is no history: it is not kept in Git, or the folder was taken as it is")
	}
	in, err := s.inputs(ctx, id)
	if err != nil {
		return PastScores{}, err
	}
	text, err := json.Marshal(in)
	if err != nil {
		return PastScores{}, failure(err)
	}
	s.past.mu.Lock()
	defer s.past.mu.Unlock()
	if t := s.past.of(o); t != nil && t.State != "failed" {
		return t.PastScores, nil
	}
	t := &pastTold{version: o.Version, survey: o.survey, PastScores: PastScores{State: "running", Scores: []worker.Score{}}}
	if s.past.told == nil {
		s.past.told = map[int64]*pastTold{}
	}
	s.past.told[id] = t
	r := worker.Request{
		Name: c.Name, Path: c.Path, Revision: c.Revision, Key: sourceKey(c), Allow: s.allowed(), Data: s.cfg.Data,
		Scratch: s.scratch(), Limits: s.cfg.Limits, Past: pastRevisions, Inputs: text,
		Scores: func(x worker.Score) { s.past.change(func() { t.Scores = append(t.Scores, x) }) },
	}
	s.jobs.wg.Go(func() {
		_, err := worker.Run(s.jobs.life, r, s.past.progress(t))
		s.past.change(func() {
			if t.State = "done"; err != nil {
				t.State, t.Problem = "failed", err.Error()
			}
		})
	})
	return t.PastScores, nil
}

// progress notes how many revisions are looked at.
func (p *pastScores) progress(t *pastTold) func(survey.Progress) {
	return func(x survey.Progress) { p.change(func() { t.Of = max(t.Of, x.Total) }) }
}

func (p *pastScores) change(by func()) {
	p.mu.Lock()
	defer p.mu.Unlock()
	by()
}
