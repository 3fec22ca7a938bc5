package server

import (
	"context"
	"net/http"

	"jantel/core/model"
	"jantel/review"

	"github.com/danielgtaylor/huma/v2"
)

// Mark sets or takes away a read mark.
type Mark struct {
	Path string       `json:"path" doc:"a file, or a folder with all below it"`
	Read bool         `json:"read"`
	By   review.Actor `json:"by,omitempty"`
}

// Marked is what a step of marking did.
type Marked struct {
	Step    int64 `json:"step" doc:"by which the step is taken back"`
	Changed int   `json:"changed" doc:"files whose mark is another now"`
	Files   int   `json:"files" doc:"files that were asked for"`
}

// Unmarked is what came of taking a step back.
type Unmarked struct {
	Back int `json:"back" doc:"marks that are as they were before"`
	Left int `json:"left" doc:"marks that somebody set otherwise since, and that were left alone"`
}

// Quiet stops a smell from counting.
type Quiet struct {
	Smell  string       `json:"smell"`
	Reason string       `json:"reason" doc:"empty lets it count again" maxLength:"500"`
	By     review.Actor `json:"by,omitempty"`
}

// Settings are what a reader set for the interface.
type Settings struct {
	Person string            `json:"person" maxLength:"100" doc:"the name under which remarks are recorded"`
	Editor string            `json:"editor" maxLength:"500" doc:"URL template with {path} and {line}"`
	Keys   map[string]string `json:"keys" doc:"action to key; an empty key switches the action off"`
	Single bool              `json:"single_keys" doc:"whether single keys act at all"`
	Theme  string            `json:"theme" enum:"auto,light,dark"`
}

func (s *Server) registerMarks(api huma.API) {
	huma.Put(api, "/api/codebases/{id}/read", func(ctx context.Context, in *struct {
		CodebaseIn
		Body Mark
	}) (*body[Marked], error) {
		m, err := s.MarkRead(ctx, in.ID, in.Body.Path, in.Body.Read, in.Body.By)
		return &body[Marked]{m}, err
	})
	huma.Delete(api, "/api/codebases/{id}/read/{step}", func(ctx context.Context, in *struct {
		CodebaseIn
		Step int64        `path:"step"`
		By   review.Actor `query:"by"`
	}) (*body[Unmarked], error) {
		back, left, err := s.review.UndoMarks(ctx, in.ID, in.Step)
		if err != nil {
			return nil, failure(err)
		}
		s.changed(review.Happened{Codebase: in.ID, Part: review.PartMarks, What: "read", By: in.By})
		return &body[Unmarked]{Unmarked{back, left}}, nil
	}, func(o *huma.Operation) { o.DefaultStatus = http.StatusOK })
	huma.Get(api, "/api/settings", func(ctx context.Context, _ *struct{}) (*body[Settings], error) {
		v := Settings{Single: true, Theme: "auto", Keys: map[string]string{}}
		_, err := s.review.Setting(ctx, "interface", &v)
		return &body[Settings]{v}, failure(err)
	})
	huma.Put(api, "/api/settings", func(ctx context.Context, in *body[Settings]) (*body[Settings], error) {
		if len(in.Body.Keys) > 100 {
			return nil, huma.Error422UnprocessableEntity("there are not that many actions")
		}
		err := s.review.SetSetting(ctx, "interface", in.Body)
		return in, failure(err)
	})
}

// MarkRead sets or takes away the read marks of a file, or of all judged files
// below a folder.
func (s *Server) MarkRead(ctx context.Context, codebase int64, path string, read bool, by review.Actor) (m Marked, err error) {
	o, err := s.shelf.survey(ctx, codebase, 0)
	if err != nil {
		return m, err
	}
	files := map[string]string{}
	for _, f := range o.facts.Files {
		if model.Within(path, f.Path) && (o.InScope[f.Path] || f.Path == path) {
			files[f.Path] = f.Hash
		}
	}
	if len(files) == 0 {
		return m, noPlace(path)
	}
	m.Files = len(files)
	if m.Step, m.Changed, err = s.review.MarkRead(ctx, codebase, files, read, by); err != nil {
		return m, failure(err)
	}
	s.changed(review.Happened{Codebase: codebase, Part: review.PartMarks, What: "read", By: by})
	return m, nil
}
