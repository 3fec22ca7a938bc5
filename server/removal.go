package server

import (
	"context"
	"os"
	"path/filepath"
	"strings"

	"jantel/review"
	"jantel/store"
)

// removeCodebase removes a codebase with all that was kept of it, and tells
// what that freed.
func (s *Server) removeCodebase(ctx context.Context, in *CodebaseIn) (*body[store.Freed], error) {
	c, err := s.review.Codebase(ctx, in.ID)
	if err != nil {
		return nil, failure(err)
	}
	surveys, err := s.review.Surveys(ctx, in.ID)
	if err != nil {
		return nil, failure(err)
	}
	_ = s.jobs.cancel(in.ID)
	if err := s.review.RemoveCodebase(ctx, in.ID); err != nil {
		return nil, failure(err)
	}
	ids := []int64{}
	for _, sv := range surveys {
		ids = append(ids, sv.ID)
	}
	freed, err := s.facts.Forget(ctx, ids, sourceKey(c))
	if err != nil {
		// The review is gone, as was asked; what is left of the facts can be read again or deleted at any time.
		s.cfg.Log.Warn("the facts of a removed codebase are still kept", "codebase", c.ID, "error", err)
	}
	s.shelf.forget(ids)
	freed.Bytes += s.removeUpload(c)
	return &body[store.Freed]{freed}, nil
}

// removeUpload removes the archive of a codebase that was sent, and returns its
// size; 0 for one that lies elsewhere.
func (s *Server) removeUpload(c review.Codebase) int64 {
	uploads := s.uploads()
	if real, err := filepath.EvalSymlinks(uploads); err == nil {
		uploads = real
	}
	if c.Kind != "archive" || filepath.Dir(c.Path) != uploads || strings.HasPrefix(filepath.Base(c.Path), ".") {
		return 0
	}
	st, err := os.Lstat(c.Path)
	if err != nil || !st.Mode().IsRegular() || os.Remove(c.Path) != nil {
		return 0
	}
	return st.Size()
}
