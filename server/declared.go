package server

import (
	"context"
	"net/http"
	"time"

	"jantel/core/charter"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/weave"
	"jantel/review"

	"github.com/danielgtaylor/huma/v2"
)

// CharterText is a charter as it is written.
type CharterText struct {
	Text    string `json:"text" maxLength:"262144"`
	Version int64  `json:"version" doc:"raised by every change; send it back when saving"`
}

// CharterState is a charter with what comes of holding the codebase against it.
type CharterState struct {
	CharterText
	From     string              `json:"from" enum:"codebase,jantel,none" doc:"where it is kept"`
	Faults   []charter.Fault     `json:"faults"`
	Charter  *charter.Charter    `json:"charter" doc:"null when there is none or it can not be read"`
	Breaches []charter.Breach    `json:"breaches"`
	Layers   []LayerFiles        `json:"layers"`
	Loose    []string            `json:"loose" doc:"source files that no layer holds; the first 200"`
	Loosely  int                 `json:"loosely" doc:"how many these are"`
	Idle     []string            `json:"idle" doc:"globs that match nothing"`
	Expired  []charter.Exception `json:"expired"`
	Wiring   []model.Evidence    `json:"wiring"`
}

// CharterChange is a change of the form, with the text that it is made in.
type CharterChange struct {
	Text   string           `json:"text" maxLength:"262144"`
	Change charter.Revision `json:"change"`
}

// ChangedText is a charter's text after a change of the form, not yet saved.
type ChangedText struct {
	Text   string          `json:"text"`
	Faults []charter.Fault `json:"faults" doc:"why it could not be changed; the text is as it was then"`
	// Charter is what the text says now, null where it can not be read.
	Charter *charter.Charter `json:"charter"`
}

// LayerFiles is how many files a layer holds.
type LayerFiles struct {
	Name  string `json:"name"`
	Files int    `json:"files"`
}

const maxLoose = 200

func stateOf(text string, version int64, from string, j *judgement.Result) *CharterState {
	st := &CharterState{
		CharterText: CharterText{text, version}, From: from, Faults: []charter.Fault{}, Breaches: []charter.Breach{},
		Layers: []LayerFiles{}, Loose: []string{}, Idle: []string{}, Expired: []charter.Exception{},
		Wiring: []model.Evidence{},
	}
	if len(j.Faults) > 0 {
		st.Faults = j.Faults
	}
	if j.Conformance == nil {
		return st
	}
	h := j.Conformance
	st.Charter, st.Breaches, st.Idle, st.Expired, st.Wiring, st.Loosely = j.Charter, h.Breaches, h.Idle, h.Expired, h.Wiring, len(h.Loose)
	st.Loose = h.Loose[:min(len(h.Loose), maxLoose)]
	n := map[string]int{}
	for _, l := range h.LayerOf {
		n[l]++
	}
	for _, l := range j.Charter.Layers {
		st.Layers = append(st.Layers, LayerFiles{l.Name, n[l.Name]})
	}
	return st
}

func (s *Server) registerDeclared(api huma.API) {
	notFound := func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} }
	huma.Get(api, "/api/codebases/{id}/charter", func(ctx context.Context, in *ViewIn) (*body[*CharterState], error) {
		o, err := s.shelf.survey(ctx, in.ID, in.Survey)
		if err != nil {
			return nil, err
		}
		text, version, err := s.review.Charter(ctx, in.ID)
		if err != nil {
			return nil, failure(err)
		}
		from := "jantel"
		if text == "" {
			from = "none"
			if f := o.facts.File(charter.FileName); f != nil && f.Facts != nil && f.Facts.Charter != "" {
				text, from = f.Facts.Charter, "codebase"
			}
		}
		return &body[*CharterState]{stateOf(text, version, from, o.Result)}, nil
	}, notFound)
	huma.Post(api, "/api/codebases/{id}/charter/try", func(ctx context.Context, in *struct {
		ViewIn
		Body CharterText
	}) (*body[*CharterState], error) {
		o, err := s.shelf.survey(ctx, in.ID, in.Survey)
		if err != nil {
			return nil, err
		}
		c, faults := judgement.ReadCharter(in.Body.Text)
		res := &judgement.Result{Judgement: o.Judgement, Charter: c, Faults: faults}
		if c != nil {
			res.Conformance = c.Hold(o.Reading, time.Now())
		}
		return &body[*CharterState]{stateOf(in.Body.Text, in.Body.Version, "jantel", res)}, nil
	}, notFound)
	huma.Post(api, "/api/codebases/{id}/charter/change", func(ctx context.Context, in *struct {
		CodebaseIn
		Body CharterChange
	}) (*body[ChangedText], error) {
		if _, err := s.review.Codebase(ctx, in.ID); err != nil {
			return nil, failure(err)
		}
		text, faults := charter.Apply(in.Body.Text, in.Body.Change)
		if faults == nil {
			faults = []charter.Fault{}
		}
		c, _ := charter.Parse([]byte(text))
		return &body[ChangedText]{ChangedText{text, faults, c}}, nil
	}, notFound)
	huma.Get(api, "/api/codebases/{id}/charter/derived", func(ctx context.Context, in *ViewIn) (*body[CharterText], error) {
		o, err := s.shelf.survey(ctx, in.ID, in.Survey)
		if err != nil {
			return nil, err
		}
		text, err := charter.Derive(o.facts, o.Judgement).Text()
		if err != nil {
			return nil, failure(err)
		}
		_, version, err := s.review.Charter(ctx, in.ID)
		return &body[CharterText]{CharterText{text, version}}, failure(err)
	}, notFound)
	huma.Put(api, "/api/codebases/{id}/charter", func(ctx context.Context, in *struct {
		CodebaseIn
		By   review.Actor `query:"by"`
		Body CharterText
	}) (*body[CharterText], error) {
		if in.Body.Text != "" {
			if _, faults := judgement.ReadCharter(in.Body.Text); len(faults) > 0 {
				return nil, huma.Error422UnprocessableEntity("the charter can not be read: " + faults[0].Error())
			}
		}
		v, err := s.review.SetCharter(ctx, in.ID, in.Body.Text, in.Body.Version)
		if err != nil {
			return nil, failure(err)
		}
		s.changed(review.Happened{Codebase: in.ID, Part: review.PartJudged, What: "charter", By: in.By})
		return &body[CharterText]{CharterText{in.Body.Text, v}}, nil
	}, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound, http.StatusConflict} })
	huma.Get(api, "/api/codebases/{id}/overrules", func(ctx context.Context, in *CodebaseIn) (*body[[]model.Overrule], error) {
		all, err := s.review.Overrules(ctx, in.ID)
		return &body[[]model.Overrule]{all}, failure(err)
	})
	huma.Post(api, "/api/codebases/{id}/overrules", func(ctx context.Context, in *struct {
		CodebaseIn
		Gone bool `query:"gone" doc:"take it back"`
		Body model.Overrule
	}) (*body[[]model.Overrule], error) {
		if err := weave.CheckOverrule(in.Body); err != nil && !in.Gone {
			return nil, huma.Error422UnprocessableEntity(err.Error())
		}
		if err := s.review.Overrule(ctx, in.ID, in.Body, in.Gone); err != nil {
			return nil, failure(err)
		}
		s.changed(review.Happened{Codebase: in.ID, Part: review.PartJudged, What: "overrule", By: review.Actor(in.Body.By)})
		all, err := s.review.Overrules(ctx, in.ID)
		return &body[[]model.Overrule]{all}, failure(err)
	}, notFound)
}
