package server

import (
	"context"
	"fmt"
	"net/http"
	"sort"
	"strings"

	"jantel/core/drawing"
	"jantel/core/model"
	"jantel/core/weave"

	"github.com/danielgtaylor/huma/v2"
)

// Package is a package from outside with who asks for it.
type Package struct {
	Name     string   `json:"name"`
	Files    int      `json:"files" doc:"files that use it"`
	Modules  []string `json:"modules"`
	Versions []string `json:"versions" doc:"as the project files ask for them; several are a conflict"`
	Path     string   `json:"path" doc:"one file that uses it"`
	Line     int      `json:"line"`
}

// Dependencies is the drawing of a place, with what comes from outside.
type Dependencies struct {
	Drawing  *drawing.Drawing `json:"drawing"`
	Packages []Package        `json:"packages"`
	Levels   [][]string       `json:"levels" doc:"folders from the top; the last depend on nothing"`
}

// maxOpened bounds how many folders one address can take apart.
const maxOpened = 100

func (s *Server) registerDrawings(api huma.API) {
	registerView(s, api, "/api/codebases/{id}/weave", func(_ context.Context, o *open, place string) (*weave.Grid, error) {
		if o.Folder(place) == nil {
			return nil, noPlace(place)
		}
		return kept(o, "weave "+place, func() *weave.Grid { return weave.GridOf(o.facts, o.Judgement, place) }), nil
	})
	huma.Get(api, "/api/codebases/{id}/dependencies", s.dependencies, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
	huma.Get(api, "/api/codebases/{id}/between", s.between, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
}

func (s *Server) dependencies(ctx context.Context, in *struct {
	ViewIn
	Opened []string `query:"open,explode" doc:"folders that are taken apart in place"`
	Tests  bool     `query:"tests" doc:"draw tests as well"`
	Auto   bool     `query:"auto" doc:"open folders where there are only few"`
}) (*view[*Dependencies], error) {
	o, err := s.shelf.survey(ctx, in.ID, in.Survey)
	if err != nil {
		return nil, err
	}
	tag := o.etag()
	if in.Match == tag {
		return nil, huma.Status304NotModified()
	}
	place := in.place()
	if o.facts.File(place) != nil {
		place = model.FolderOf(place)
	}
	if o.Folder(place) == nil {
		return nil, noPlace(place)
	}
	if len(in.Opened) > maxOpened {
		return nil, huma.Error422UnprocessableEntity(fmt.Sprintf("at most %d folders are taken apart at once", maxOpened))
	}
	key := fmt.Sprintf("dependencies %s %v %v %s", place, in.Tests, in.Auto, strings.Join(in.Opened, "\x00"))
	out := kept(o, key, func() *Dependencies {
		return &Dependencies{
			Drawing:  drawing.Of(o.facts, o.Roles, o.InScope, drawing.Request{Place: place, Opened: in.Opened, Tests: in.Tests, Auto: in.Auto}),
			Packages: packages(o, place),
			Levels:   o.Levels,
		}
	})
	return &view[*Dependencies]{tag, out}, nil
}

// packages lists what comes from outside, most used first.
func packages(o *open, place string) []Package {
	type gathering struct {
		files, modules, versions map[string]bool
		path                     string
		line                     int
	}
	at := map[string]*gathering{}
	for _, e := range o.facts.External {
		if !model.Within(place, e.From) || !o.InScope[e.From] {
			continue
		}
		g := at[e.Package]
		if g == nil {
			g = &gathering{map[string]bool{}, map[string]bool{}, map[string]bool{}, e.From, e.Line}
			at[e.Package] = g
		}
		g.files[e.From] = true
		if e.Version != nil {
			g.versions[*e.Version] = true
		}
		m := "."
		for i := range o.Modules {
			if p := o.Modules[i].Path; model.Within(p, e.From) && (m == "." || len(p) > len(m)) {
				m = p
			}
		}
		g.modules[m] = true
	}
	keys := func(m map[string]bool) []string {
		out := []string{}
		for k := range m {
			out = append(out, k)
		}
		sort.Strings(out)
		return out
	}
	out := []Package{}
	for n, g := range at {
		out = append(out, Package{n, len(g.files), keys(g.modules), keys(g.versions), g.path, g.line})
	}
	sort.Slice(out, func(i, j int) bool {
		if out[i].Files != out[j].Files {
			return out[i].Files > out[j].Files
		}
		return out[i].Name < out[j].Name
	})
	return out
}

// maxBetween bounds how many links are listed behind one bundle.
const maxBetween = 500

// between lists the links that a bundle stands for.
func (s *Server) between(ctx context.Context, in *struct {
	ViewIn
	From  string `query:"from" required:"true"`
	To    string `query:"to" required:"true"`
	Class string `query:"class" doc:"one class alone; empty for all"`
}) (*view[[]model.Link], error) {
	o, err := s.shelf.survey(ctx, in.ID, in.Survey)
	if err != nil {
		return nil, err
	}
	tag := o.etag()
	if in.Match == tag {
		return nil, huma.Status304NotModified()
	}
	out := []model.Link{}
	for _, l := range o.facts.Links {
		if len(out) == maxBetween {
			break
		}
		if model.Within(in.From, l.From) && model.Within(in.To, l.To) && o.InScope[l.From] && o.InScope[l.To] {
			if c := drawing.ClassOf(l.Kind); c != "" && l.Kind != model.LinkInheritance && (in.Class == "" || in.Class == c) {
				out = append(out, l)
			}
		}
	}
	return &view[[]model.Link]{tag, out}, nil
}
