package server

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"time"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/source"
	"jantel/review"
	"jantel/server/worker"

	"github.com/danielgtaylor/huma/v2"
)

// CodebaseIn names the codebase of a request.
type CodebaseIn struct {
	ID int64 `path:"id"`
}

type body[T any] struct {
	Body T
}

// CodebaseStatus is a codebase with how its surveys stand.
type CodebaseStatus struct {
	review.Codebase
	Root    string               `json:"root" doc:"the folder on disk that an editor can open, empty when there is none"`
	Latest  int64                `json:"latest" doc:"the newest finished survey, 0 when there is none"`
	Running *Progress            `json:"running"`
	Last    *review.SurveyRecord `json:"last" doc:"the newest survey, whatever became of it"`
}

// NewCodebase asks for a codebase to be taken in.
type NewCodebase struct {
	Path     string `json:"path" doc:"a folder, a Git repository or an archive below the allowed folders, or the id of an upload"`
	Revision string `json:"revision,omitempty" doc:"of a Git repository; empty takes the folder as it is"`
	Name     string `json:"name,omitempty"`
}

// BriefVersion is a brief with its version.
type BriefVersion struct {
	Brief   model.Brief `json:"brief"`
	Version int64       `json:"version"`
}

// Home is what the interface starts from.
type Home struct {
	Version   string           `json:"version"`
	Allowed   []string         `json:"allowed" doc:"the folders that may be surveyed"`
	Codebases []CodebaseStatus `json:"codebases"`
}

func (s *Server) registerCodebases(api huma.API) {
	huma.Get(api, "/api/home", func(ctx context.Context, _ *struct{}) (*body[Home], error) {
		list, err := s.review.Codebases(ctx)
		if err != nil {
			return nil, failure(err)
		}
		h := Home{Version: s.cfg.Version, Allowed: s.cfg.Allow, Codebases: []CodebaseStatus{}}
		if h.Allowed == nil {
			h.Allowed = []string{}
		}
		for _, c := range list {
			st, err := s.status(ctx, c)
			if err != nil {
				return nil, failure(err)
			}
			h.Codebases = append(h.Codebases, st)
		}
		return &body[Home]{h}, nil
	})
	huma.Get(api, "/api/codebases/{id}", func(ctx context.Context, in *CodebaseIn) (*body[CodebaseStatus], error) {
		c, err := s.review.Codebase(ctx, in.ID)
		if err != nil {
			return nil, failure(err)
		}
		st, err := s.status(ctx, c)
		return &body[CodebaseStatus]{st}, failure(err)
	})
	huma.Post(api, "/api/codebases", s.addCodebase)
	huma.Delete(api, "/api/codebases/{id}", s.removeCodebase, func(op *huma.Operation) { op.DefaultStatus = http.StatusOK })
	huma.Get(api, "/api/folders", s.folders, func(op *huma.Operation) { op.Errors = []int{http.StatusUnprocessableEntity} })
	huma.Get(api, "/api/codebases/{id}/surveys", func(ctx context.Context, in *CodebaseIn) (*body[[]review.SurveyRecord], error) {
		l, err := s.review.Surveys(ctx, in.ID)
		return &body[[]review.SurveyRecord]{l}, failure(err)
	})
	huma.Post(api, "/api/codebases/{id}/surveys", func(ctx context.Context, in *CodebaseIn) (*body[review.SurveyRecord], error) {
		c, err := s.review.Codebase(ctx, in.ID)
		if err != nil {
			return nil, failure(err)
		}
		rec, err := s.jobs.startSurvey(ctx, c)
		return &body[review.SurveyRecord]{rec}, failure(err)
	})
	huma.Post(api, "/api/codebases/{id}/cancel", func(_ context.Context, in *CodebaseIn) (*struct{}, error) {
		return nil, failure(s.jobs.cancel(in.ID))
	})
	huma.Get(api, "/api/codebases/{id}/brief", func(ctx context.Context, in *CodebaseIn) (*body[BriefVersion], error) {
		b, v, err := s.review.Brief(ctx, in.ID)
		return &body[BriefVersion]{BriefVersion{b, v}}, failure(err)
	})
	huma.Put(api, "/api/codebases/{id}/brief", func(ctx context.Context, in *struct {
		CodebaseIn
		By   review.Actor `query:"by"`
		Body BriefVersion
	}) (*body[BriefVersion], error) {
		b := in.Body.Brief
		if err := judgement.CheckBrief(b); err != nil {
			return nil, huma.Error422UnprocessableEntity(err.Error())
		}
		for _, l := range []*[]string{&b.In, &b.Out, &b.Questions} {
			if *l == nil {
				*l = []string{}
			}
			if len(*l) > 200 {
				return nil, huma.Error422UnprocessableEntity("a brief has 200 globs or questions at most")
			}
		}
		v, err := s.review.SetBrief(ctx, in.ID, b, in.Body.Version)
		if err != nil {
			return nil, failure(err)
		}
		s.changed(review.Happened{Codebase: in.ID, Part: review.PartJudged, What: "brief", By: in.By})
		return &body[BriefVersion]{BriefVersion{b, v}}, nil
	})
}

// changed tells all open pages what changed in a codebase's review.
func (s *Server) changed(h review.Happened) { s.hub.send("review", h) }

func (s *Server) status(ctx context.Context, c review.Codebase) (CodebaseStatus, error) {
	st := CodebaseStatus{Codebase: c, Running: s.jobs.running(c.ID)}
	switch c.Kind {
	case "folder":
		st.Root = c.Path
	case "git":
		// A bare repository has no files to open.
		if _, err := os.Lstat(filepath.Join(c.Path, ".git")); err == nil {
			st.Root = c.Path
		}
	}
	list, err := s.review.Surveys(ctx, c.ID)
	if err != nil {
		return st, err
	}
	if len(list) > 0 {
		st.Last = &list[0]
		if st.Running == nil && st.Last.State == review.Running {
			// It may have begun since it was asked for.
			st.Running = s.jobs.running(c.ID)
		}
		if st.Running == nil && st.Last.State == review.Running {
			// Its end could not be recorded, as on a full disk.
			st.Last.State, st.Last.Problem = review.Interrupted, "it broke off, and its end could not be recorded"
		}
	}
	for _, r := range list {
		if r.State == review.Finished {
			st.Latest = r.ID
			break
		}
	}
	return st, nil
}

// allowed are the folders that may be read: those the operator named, and the
// place where uploads are kept.
func (s *Server) allowed() []string {
	return append([]string{s.uploads()}, s.cfg.Allow...)
}

func (s *Server) uploads() string { return filepath.Join(s.cfg.Data, "uploads") }

// addCodebase checks that a codebase can be read before anything is kept of
// it, then surveys it.
func (s *Server) addCodebase(ctx context.Context, in *body[NewCodebase]) (*body[CodebaseStatus], error) {
	p := strings.TrimSpace(in.Body.Path)
	if rest, ok := strings.CutPrefix(p, "~/"); ok {
		if home, err := os.UserHomeDir(); err == nil {
			p = filepath.Join(home, rest)
		}
	}
	if id, ok := strings.CutPrefix(p, "upload:"); ok {
		if strings.ContainsAny(id, "/\\") || strings.Contains(id, "..") {
			return nil, huma.Error422UnprocessableEntity("there is no such upload")
		}
		p = filepath.Join(s.uploads(), id)
	}
	c, err := s.TakeIn(ctx, p, strings.TrimSpace(in.Body.Revision), in.Body.Name)
	if err != nil {
		if errors.Is(err, source.ErrNotCodebase) || errors.Is(err, source.ErrNotAllowed) || errors.Is(err, worker.ErrLimit) {
			return nil, huma.Error422UnprocessableEntity(err.Error())
		}
		return nil, failure(err)
	}
	if _, err := s.jobs.startSurvey(ctx, c); err != nil && !errors.Is(err, errBusy) {
		return nil, failure(err)
	}
	st, err := s.status(ctx, c)
	return &body[CodebaseStatus]{st}, failure(err)
}

// TakeIn opens a source to see that it can be read and keeps the codebase; a
// source that can not be read leaves nothing behind.
func (s *Server) TakeIn(ctx context.Context, p, revision, name string) (review.Codebase, error) {
	var none review.Codebase
	look, err := s.look(ctx, p, revision)
	if err != nil {
		return none, err
	}
	real, err := source.Resolve(p, s.allowed())
	if err != nil {
		return none, err
	}
	kind := look.Kind
	if name = strings.TrimSpace(name); name == "" {
		name = filepath.Base(real)
		if kind == "archive" {
			_, after, ok := strings.Cut(name, "-") // an upload's own name stands behind its number
			if ok && strings.HasPrefix(real, s.uploads()) {
				name = after
			}
		}
		name = strings.TrimSuffix(name, ".git")
	}
	if len(name) > review.MaxName {
		name = strings.ToValidUTF8(name[:review.MaxName], "")
	}
	return s.review.AddCodebase(ctx, review.Codebase{Name: name, Kind: kind, Path: real, Revision: revision})
}

// look sees whether a source can be taken in, in a process of its own like a
// survey.
func (s *Server) look(ctx context.Context, path, revision string) (worker.End, error) {
	limits := s.cfg.Limits
	limits.Time = min(limits.Time, lookTime)
	return worker.Run(ctx, worker.Request{
		Path: path, Revision: revision, Allow: s.allowed(), Data: s.cfg.Data, Scratch: s.scratch(), Limits: limits,
	}, nil)
}

// lookTime is how long looking at a source before it is taken in may take.
const lookTime = 2 * time.Minute

// scratch is a new folder for what a worker writes on its way.
func (s *Server) scratch() string {
	return filepath.Join(worker.Scratch(s.cfg.Data), strconv.FormatInt(s.looks.Add(1), 10))
}

// upload takes an archive as a byte stream. It is kept under a name of ours,
// and only read by streaming.
func (s *Server) upload(w http.ResponseWriter, r *http.Request) {
	name := filepath.Base(filepath.Clean("/" + r.URL.Query().Get("name")))
	lower := strings.ToLower(name)
	ending := ""
	for _, e := range archives {
		if strings.HasSuffix(lower, e) {
			ending = e
			break
		}
	}
	if ending == "" {
		problem(w, http.StatusUnprocessableEntity, "an archive is a .zip, .tar, .tar.gz or .tar.zst file")
		return
	}
	stem := strings.Map(func(c rune) rune {
		if c == '.' || c == '-' || c == '_' || c >= '0' && c <= '9' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' {
			return c
		}
		return '_'
	}, name[:len(name)-len(ending)])
	if len(stem) > 60 {
		stem = stem[:60]
	}
	if err := os.MkdirAll(s.uploads(), 0o700); err != nil {
		problem(w, http.StatusInternalServerError, "the folder for uploads can not be made: "+err.Error())
		return
	}
	id := randomHex()[:12] + "-" + stem + ending
	p := filepath.Join(s.uploads(), id)
	err := save(p, http.MaxBytesReader(w, r.Body, source.DefaultLimits().ArchiveBytes))
	if err == nil {
		// A corrupt or hostile archive is refused at once and not kept.
		_, err = s.look(r.Context(), p, "")
	}
	if err != nil {
		_ = os.Remove(p)
		status := http.StatusUnprocessableEntity
		var big *http.MaxBytesError
		if errors.As(err, &big) {
			status = http.StatusRequestEntityTooLarge
		}
		problem(w, status, strings.TrimPrefix(err.Error(), source.ErrNotCodebase.Error()+": "))
		return
	}
	w.Header().Set("Content-Type", "application/json")
	_, _ = fmt.Fprintf(w, "{\"upload\":%s}\n", quoted("upload:"+id))
}

func save(p string, from io.Reader) error {
	h, err := os.OpenFile(p, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o600)
	if err != nil {
		return err
	}
	_, err = io.Copy(h, from)
	return errors.Join(err, h.Close())
}
