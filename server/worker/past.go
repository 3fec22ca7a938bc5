package worker

import (
	"context"
	"encoding/json"
	"fmt"
	"path/filepath"
	"time"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/source"
	"jantel/core/survey"
	"jantel/core/weave"
	"jantel/store"
)

// Score is how a revision is judged by what holds today.
type Score struct {
	Revision   string           `json:"revision"`
	At         time.Time        `json:"at"`
	Files      int              `json:"files" doc:"that are judged"`
	Lines      int              `json:"lines" doc:"of those"`
	Smells     int              `json:"smells"`
	Legibility model.Legibility `json:"legibility"`
}

// past surveys some revisions of a repository one after the other, the oldest
// first, and tells how each is judged. What is unchanged between them is not read
// anew; nothing of them is kept but facts of single files.
func past(ctx context.Context, r Request, facts *store.Facts, out *lines) (End, error) {
	at := r.Revision
	if at == "" {
		at = "HEAD"
	}
	open := func(revision string) (source.Source, error) {
		return source.Open(ctx, source.Request{Path: r.Path, Revision: revision, Allow: r.Allow})
	}
	src, err := open(at)
	if err != nil {
		return End{}, err
	}
	defer func() { _ = src.Close() }()
	git, ok := src.(source.Past)
	if !ok {
		return End{}, fmt.Errorf("%w: it has no history", source.ErrNotCodebase)
	}
	revisions, err := git.Past(ctx, r.Past)
	if err != nil {
		return End{}, err
	}
	var in judgement.Inputs
	if err := json.Unmarshal(r.Inputs, &in); err != nil {
		return End{}, fmt.Errorf("what it is judged by can not be read: %w", err)
	}
	for i, c := range revisions {
		out.write(message{Progress: &survey.Progress{Step: "reading", Done: i, Total: len(revisions)}})
		s, err := scored(ctx, r, facts, open, c.Revision, in.Overrules)
		if err != nil {
			return End{}, fmt.Errorf("revision %.10s: %w", c.Revision, err)
		}
		j := judgement.JudgeBy(s, in)
		out.write(message{Score: &Score{c.Revision, c.At, len(j.InScope), j.Judged, len(j.Smells), j.Legibility}})
	}
	return End{Kind: src.Origin().Kind, Revision: src.Origin().Revision}, nil
}

// scored surveys one revision.
func scored(
	ctx context.Context, r Request, facts *store.Facts, open func(string) (source.Source, error), revision string,
	said []model.Overrule,
) (*model.Survey, error) {
	src, err := open(revision)
	if err != nil {
		return nil, err
	}
	defer func() { _ = src.Close() }()
	return survey.Run(ctx, src, survey.Options{Name: r.Name, Root: filepath.Base(r.Path), Key: r.Key, Cache: facts, Ours: weave.SaidOwn(said)})
}
