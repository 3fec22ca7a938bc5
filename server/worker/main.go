package worker

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"os/signal"
	"path/filepath"
	"sync"
	"syscall"
	"time"

	"jantel/core/source"
	"jantel/core/survey"
	_ "jantel/core/syntax/languages" // all of them
	"jantel/core/weave"
	"jantel/store"
)

// problems are the errors that keep their meaning from process to process.
var problems = map[string]error{
	"codebase": source.ErrNotCodebase, "allowed": source.ErrNotAllowed, "busy": store.ErrBusy, "damaged": ErrDamaged,
	"cancelled": context.Canceled,
}

// carried is an error of another process: its words, and what sort it was.
type carried struct {
	text string
	sort error
}

func (c *carried) Error() string { return c.text }
func (c *carried) Unwrap() error { return c.sort }

func asError(m message) error {
	if sort := problems[m.Sort]; sort != nil {
		return &carried{m.Problem, sort}
	}
	return errors.New(m.Problem)
}

// Main is what a worker does: it reads one request from standard input and
// writes progress and end as lines of JSON. It returns the exit code.
func Main() int {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	context.AfterFunc(ctx, func() {
		// A reader that goes on all the same is ended.
		time.AfterFunc(grace, func() { os.Exit(3) })
	})
	out := &lines{enc: json.NewEncoder(os.Stdout)}
	var r Request
	err := json.NewDecoder(io.LimitReader(os.Stdin, 32<<20)).Decode(&r)
	var end End
	if err == nil {
		end, err = serve(ctx, r, out)
	}
	if err == nil {
		out.write(message{End: &end})
		return 0
	}
	m := message{Problem: err.Error()}
	if store.Damaged(err) {
		m.Sort = "damaged"
	}
	for name, sort := range problems {
		if errors.Is(err, sort) {
			m.Sort = name
		}
	}
	out.write(m)
	return 1
}

type lines struct {
	mu  sync.Mutex
	enc *json.Encoder
}

func (l *lines) write(m message) {
	l.mu.Lock()
	defer l.mu.Unlock()
	_ = l.enc.Encode(m)
}

func serve(ctx context.Context, r Request, out *lines) (End, error) {
	survey.CollectLate()
	if err := bound(r.Limits); err != nil {
		return End{}, fmt.Errorf("the limits of the survey can not be set: %w", err)
	}
	var facts *store.Facts
	if r.Survey > 0 || r.Past > 0 {
		var err error
		// Opened first: what is open already needs no leave.
		if facts, err = store.JoinFacts(ctx, r.Data); err != nil {
			return End{}, err
		}
		defer func() { _ = facts.Close() }()
	}
	reads, err := source.Reads(source.Request{Path: r.Path, Revision: r.Revision, Allow: r.Allow})
	if err != nil {
		return End{}, err
	}
	if err := confine(r, reads); err != nil {
		return End{}, fmt.Errorf("the survey can not be confined: %w", err)
	}
	if r.Past > 0 {
		return past(ctx, r, facts, out)
	}
	src, err := source.Open(ctx, source.Request{Path: r.Path, Revision: r.Revision, Allow: r.Allow})
	if err != nil {
		return End{}, err
	}
	defer func() { _ = src.Close() }()
	if r.Survey == 0 {
		_, err := src.List(ctx)
		return End{Kind: src.Origin().Kind, Revision: src.Origin().Revision}, err
	}
	return take(ctx, r, src, facts, out)
}

// take surveys and keeps what comes of it.
func take(ctx context.Context, r Request, src source.Source, facts *store.Facts, out *lines) (End, error) {
	texts, err := facts.TextHashes(ctx)
	if err != nil {
		return End{}, err
	}
	keeper := facts.KeepTexts(ctx)
	var mu sync.Mutex
	s, err := survey.Run(ctx, src, survey.Options{
		Name: r.Name, Root: filepath.Base(r.Path), Key: r.Key, Cache: facts,
		Listed: survey.Bound, Ours: weave.SaidOwn(r.Said),
		Keep: func(hash string, text []byte) error {
			mu.Lock()
			have := texts[hash]
			texts[hash] = true
			mu.Unlock()
			if have {
				return nil
			}
			return keeper.Keep(hash, text)
		},
		HasText: func(hash string) bool {
			mu.Lock()
			defer mu.Unlock()
			return texts[hash]
		},
		Progress: func(p survey.Progress) { out.write(message{Progress: &p}) },
	})
	if err != nil {
		return End{}, err
	}
	out.write(message{Progress: &survey.Progress{Step: "keeping", Done: len(s.Files), Total: len(s.Files), Links: len(s.Links)}})
	if err := keeper.Flush(); err != nil {
		return End{}, err
	}
	if err := facts.SaveSurvey(ctx, r.Survey, s); err != nil {
		return End{}, err
	}
	end := End{Kind: s.Origin.Kind, Revision: s.Origin.Revision, Files: len(s.Files)}
	for _, f := range s.Files {
		end.Lines += f.Lines()
	}
	return end, nil
}
