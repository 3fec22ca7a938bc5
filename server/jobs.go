package server

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"sync"
	"time"

	"jantel/core/source"
	"jantel/core/survey"
	"jantel/review"
	"jantel/server/worker"
)

// jobs runs surveys in the background, one at a time for each codebase.
type jobs struct {
	life context.Context
	s    *Server
	mu   sync.Mutex
	now  map[int64]*job // by codebase
	wg   sync.WaitGroup
}

type job struct {
	record   review.SurveyRecord
	progress survey.Progress
	cancel   context.CancelFunc
	stopped  bool // by the server's end rather than by a person
}

// Progress is how far a running survey is.
type Progress struct {
	Codebase int64              `json:"codebase"`
	Survey   int64              `json:"survey"`
	State    review.SurveyState `json:"state"`
	Problem  string             `json:"problem"`
	Step     string             `json:"step" doc:"listing, reading, linking or keeping"`
	Done     int                `json:"done"`
	Total    int                `json:"total" doc:"0 while unknown"`
	Lines    int                `json:"lines"`
	Links    int                `json:"links"`
}

func newJobs(life context.Context, s *Server) *jobs {
	return &jobs{life: life, s: s, now: map[int64]*job{}}
}

var errBusy = fmt.Errorf("%w: a survey of this codebase is running already", review.ErrInvalid)

// startSurvey begins a survey of a codebase.
func (j *jobs) startSurvey(ctx context.Context, c review.Codebase) (review.SurveyRecord, error) {
	j.mu.Lock()
	defer j.mu.Unlock()
	if j.now[c.ID] != nil {
		return review.SurveyRecord{}, errBusy
	}
	rec, err := j.s.review.StartSurvey(ctx, c.ID)
	if err != nil {
		return rec, err
	}
	run, cancel := context.WithCancel(j.life)
	jb := &job{record: rec, cancel: cancel, progress: survey.Progress{Step: "listing"}}
	j.now[c.ID] = jb
	j.wg.Go(func() {
		defer cancel()
		j.run(run, c, jb)
	})
	return rec, nil
}

func (j *jobs) run(ctx context.Context, c review.Codebase, jb *job) {
	began := time.Now()
	rec := jb.record
	err := j.survey(ctx, c, jb, &rec)
	rec.Seconds = time.Since(began).Seconds()
	j.mu.Lock()
	stopped := jb.stopped
	j.mu.Unlock()
	switch {
	case err == nil:
		rec.State = review.Finished
	case stopped:
		rec.State, rec.Problem = review.Interrupted, "the server was stopped before it ended"
	case errors.Is(err, context.Canceled), ctx.Err() != nil:
		rec.State, rec.Problem = review.Cancelled, "cancelled"
	default:
		rec.State, rec.Problem = review.Failed, strings.TrimPrefix(err.Error(), source.ErrNotCodebase.Error()+": ")
		j.s.cfg.Log.Warn("survey failed", "codebase", c.ID, "error", err)
	}
	// The end is recorded even when what the survey ran under is gone.
	if err := j.s.review.EndSurvey(context.WithoutCancel(ctx), rec); err != nil {
		j.s.cfg.Log.Error("the end of a survey can not be recorded", "survey", rec.ID, "error", err)
	}
	j.mu.Lock()
	delete(j.now, c.ID)
	j.mu.Unlock()
	if rec.State == review.Finished {
		_, _ = j.s.shelf.survey(context.WithoutCancel(ctx), c.ID, rec.ID) // judged before anyone looks
	}
	j.s.hub.send("survey", Progress{
		Codebase: c.ID, Survey: rec.ID, State: rec.State, Problem: rec.Problem, Step: "ended", Done: rec.Files,
		Total: rec.Files, Lines: rec.Lines,
	})
}

// survey surveys in a process of its own: nothing that a tree holds can take
// the server down.
func (j *jobs) survey(ctx context.Context, c review.Codebase, jb *job, rec *review.SurveyRecord) error {
	said, err := j.s.review.Overrules(ctx, c.ID)
	if err != nil {
		return err
	}
	r := worker.Request{
		Said:   said,
		Survey: rec.ID, Name: c.Name, Path: c.Path, Revision: c.Revision, Key: sourceKey(c), Allow: j.s.allowed(),
		Data: j.s.cfg.Data, Scratch: j.s.scratch(), Limits: j.s.cfg.Limits,
	}
	progress := func(p survey.Progress) {
		j.mu.Lock()
		jb.progress = p
		j.mu.Unlock()
		j.s.hub.send("survey", Progress{
			Codebase: c.ID, Survey: rec.ID, State: review.Running, Step: p.Step, Done: p.Done, Total: p.Total,
			Lines: p.Lines, Links: p.Links,
		})
	}
	end, err := worker.Run(ctx, r, progress)
	if errors.Is(err, worker.ErrDamaged) {
		// Made anew, it holds nothing: the survey reads everything once more.
		j.s.facts.Remake(ctx, err)
		end, err = worker.Run(ctx, r, progress)
	}
	rec.Revision, rec.Files, rec.Lines = end.Revision, end.Files, end.Lines
	return err
}

// sourceKey names a source in the cache.
func sourceKey(c review.Codebase) string {
	if c.Kind == "git" {
		return "git:" + c.Path
	}
	return c.Kind + ":" + c.Path
}

// running tells how far the survey of a codebase is, or nil.
func (j *jobs) running(codebase int64) *Progress {
	j.mu.Lock()
	defer j.mu.Unlock()
	jb := j.now[codebase]
	if jb == nil {
		return nil
	}
	p := jb.progress
	return &Progress{
		Codebase: codebase, Survey: jb.record.ID, State: review.Running, Step: p.Step, Done: p.Done, Total: p.Total,
		Lines: p.Lines, Links: p.Links,
	}
}

func (j *jobs) cancel(codebase int64) error {
	j.mu.Lock()
	defer j.mu.Unlock()
	jb := j.now[codebase]
	if jb == nil {
		return fmt.Errorf("%w: no survey of this codebase is running", review.ErrNotFound)
	}
	jb.cancel()
	return nil
}

func (j *jobs) stopAll() {
	j.mu.Lock()
	defer j.mu.Unlock()
	for _, jb := range j.now {
		jb.stopped = true
		jb.cancel()
	}
}

func (j *jobs) wait() { j.wg.Wait() }

// Survey surveys a codebase and waits for the end.
func (s *Server) Survey(ctx context.Context, c review.Codebase) error {
	rec, err := s.jobs.startSurvey(ctx, c)
	if err != nil {
		return err
	}
	s.jobs.wait()
	list, err := s.review.Surveys(ctx, c.ID)
	if err != nil {
		return err
	}
	for _, r := range list {
		if r.ID == rec.ID && r.State != review.Finished {
			return fmt.Errorf("the survey was %s: %s", r.State, r.Problem)
		}
	}
	return nil
}
