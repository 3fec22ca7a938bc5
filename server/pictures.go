package server

import (
	"context"
	"fmt"
	"net/http"
	"strconv"
	"strings"

	"jantel/review"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"
)

// PictureChange sets the boxes of a picture, or takes it away.
type PictureChange struct {
	Boxes   []review.PictureBox `json:"boxes" maxItems:"60"`
	Version int64               `json:"version" doc:"that was changed"`
	Gone    bool                `json:"gone,omitempty" doc:"takes it away; without it, it is there again"`
	By      review.Actor        `json:"by,omitempty" maxLength:"100"`
}

// PicturesOf are the pictures of a part or a route.
type PicturesOf struct {
	Pictures []review.Picture `json:"pictures"`
}

// PictureOf names what a picture is about.
type PictureOf struct {
	CodebaseIn
	At   string `query:"at" required:"true" maxLength:"4000"`
	Name string `query:"name" maxLength:"400"`
}

// registerPictures serves the pictures that are put to parts and routes.
func (s *Server) registerPictures(api huma.API) {
	errs := func(op *huma.Operation) {
		op.Errors = []int{http.StatusNotFound, http.StatusPreconditionFailed, http.StatusUnprocessableEntity}
	}
	huma.Get(api, "/api/codebases/{id}/pictures", func(ctx context.Context, in *PictureOf) (*body[PicturesOf], error) {
		all, err := s.review.Pictures(ctx, in.ID, in.At, in.Name)
		return &body[PicturesOf]{PicturesOf{all}}, failure(err)
	}, errs)
	huma.Post(api, "/api/codebases/{id}/pictures", func(ctx context.Context, in *struct {
		PictureOf
		By      review.Actor `query:"by" maxLength:"100"`
		RawBody []byte
	}) (*body[review.Picture], error) {
		png, width, height, err := review.Redrawn(in.RawBody)
		if err != nil {
			return nil, failure(err)
		}
		p, err := s.review.AddPicture(ctx, in.ID, review.Picture{Path: in.At, Name: in.Name, Width: width, Height: height, By: in.By}, png)
		if err != nil {
			return nil, failure(err)
		}
		s.changed(review.Happened{Codebase: in.ID, Part: review.PartPictures, What: "picture", By: in.By})
		return &body[review.Picture]{p}, nil
	}, errs, func(op *huma.Operation) { op.MaxBodyBytes = review.MaxPictureBytes + 1 })
	huma.Put(api, "/api/codebases/{id}/pictures/{picture}", func(ctx context.Context, in *struct {
		CodebaseIn
		Picture int64 `path:"picture"`
		Body    PictureChange
	}) (*body[review.Picture], error) {
		if err := review.CheckBoxes(in.Body.Boxes); err != nil {
			return nil, failure(err)
		}
		p, err := s.review.ChangePicture(ctx, in.ID, in.Picture, in.Body.Version, in.Body.Boxes, in.Body.Gone, in.Body.By)
		if err != nil {
			return nil, failure(err)
		}
		s.changed(review.Happened{Codebase: in.ID, Part: review.PartPictures, What: "picture", By: in.Body.By})
		return &body[review.Picture]{p}, nil
	}, errs)
}

// picture hands out a picture itself. What it is never changes; it is no page,
// whatever is in it.
func (s *Server) picture(w http.ResponseWriter, r *http.Request) {
	id, _ := strconv.ParseInt(chi.URLParam(r, "id"), 10, 64)
	n, _ := strconv.ParseInt(strings.TrimSuffix(chi.URLParam(r, "file"), ".png"), 10, 64)
	png, err := s.review.PNG(r.Context(), id, n)
	if err != nil {
		problem(w, http.StatusNotFound, fmt.Sprintf("there is no picture %d", n))
		return
	}
	w.Header().Set("Content-Type", "image/png")
	w.Header().Set("X-Content-Type-Options", "nosniff")
	w.Header().Set("Content-Security-Policy", "default-src 'none'; sandbox")
	w.Header().Set("Cache-Control", "private, max-age=31536000, immutable")
	_, _ = w.Write(png)
}
