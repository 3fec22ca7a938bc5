package server

import (
	"context"
	"fmt"
	"net/http"
	"sort"
	"strings"

	"jantel/core/drawing"
	"jantel/core/links"
	"jantel/core/model"
	"jantel/core/patterns"
	"jantel/core/section"
	"jantel/core/weave"
	"jantel/review"

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
	registerView(s, api, "/api/codebases/{id}/weave", func(_ context.Context, o *judged, place string) (*weave.Grid, error) {
		if o.facts.File(place) != nil {
			// A file is looked at in the feature it belongs to.
			g := *cached(o, "weave .", func() *weave.Grid { return weave.GridOf(o.facts, o.Judgement, ".") })
			g.Feature = o.FeatureOf[place].Feature
			return &g, nil
		}
		if o.Folder(place) == nil {
			return nil, noPlace(place)
		}
		return cached(o, "weave "+place, func() *weave.Grid { return weave.GridOf(o.facts, o.Judgement, place) }), nil
	})
	registerView(s, api, "/api/codebases/{id}/built", func(_ context.Context, o *judged, place string) (*weave.Built, error) {
		if o.facts.File(place) != nil {
			place = "."
		}
		if o.Folder(place) == nil {
			return nil, noPlace(place)
		}
		return cached(o, "built "+place, func() *weave.Built { return weave.BuiltAt(o.facts, o.Judgement, place) }), nil
	})
	registerView(s, api, "/api/codebases/{id}/section", func(_ context.Context, o *judged, place string) (*section.Section, error) {
		if o.Folder(place) == nil {
			return nil, noPlace(place)
		}
		return s.cutOpen(o, place), nil
	})
	huma.Get(api, "/api/codebases/{id}/dependencies", s.dependencies, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
	huma.Get(api, "/api/codebases/{id}/narrowed", s.narrowed, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
	huma.Get(api, "/api/codebases/{id}/belongings", s.belongings, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
	huma.Get(api, "/api/codebases/{id}/tried", s.tried, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
	s.registerArrangements(api)
	s.registerPictures(api)
	huma.Get(api, "/api/codebases/{id}/between", s.between, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
}

// cutOpen is a folder cut open, laid out once.
func (s *Server) cutOpen(o *judged, place string) *section.Section {
	return cached(o, "section "+place, func() *section.Section { return section.Of(o.facts, o.Result, place) })
}

// Narrow leaves what belongs to a feature, a role or both; all when empty.
type Narrow struct {
	Feature string `query:"feature" doc:"one feature alone; - for what belongs to none"`
	Role    string `query:"role" doc:"one role alone"`
}

// holds reports whether a file is left.
func (n Narrow) holds(o *judged, p string) bool {
	f := o.FeatureOf[p].Feature
	return (n.Role == "" || string(o.Roles[p].Role) == n.Role) && (n.Feature == "" || n.Feature == f || n.Feature == "-" && f == "")
}

// DrawingIn says what is drawn.
type DrawingIn struct {
	Narrow
	Opened []string `query:"open,explode" doc:"folders that are taken apart in place"`
	Tests  bool     `query:"tests" doc:"draw tests as well"`
	Auto   bool     `query:"auto" doc:"open folders where there are only few"`
	Rim    bool     `query:"rim" doc:"draw the packages from outside as well"`
	Focus  string   `query:"focus" doc:"one box with its neighbours"`
}

// drawn lays the drawing of a place out, as it was arranged by hand.
func (s *Server) drawn(ctx context.Context, o *judged, place string, in DrawingIn) (*drawing.Drawing, error) {
	if o.Folder(place) == nil && o.facts.File(place) == nil {
		return nil, noPlace(place)
	}
	if len(in.Opened) > maxOpened {
		return nil, huma.Error422UnprocessableEntity(fmt.Sprintf("at most %d folders are taken apart at once", maxOpened))
	}
	order, err := s.review.Arrangement(ctx, o.codebase, place)
	if err != nil {
		return nil, failure(err)
	}
	// Asked for first: what is kept is made one at a time.
	rings := o.circles()
	key := fmt.Sprintf("drawing %s %+v %q", place, in, order)
	return cached(o, key, func() *drawing.Drawing {
		r := drawing.Request{Place: place, Opened: in.Opened, Tests: in.Tests, Auto: in.Auto, Rim: in.Rim, Focus: in.Focus, Order: order}
		r.Projects = o.Projects()
		if in.Narrow != (Narrow{}) {
			r.Only = func(p string) bool { return in.holds(o, p) }
		}
		if o.Conformance != nil && o.Charter.Rings {
			for _, l := range o.Charter.Layers {
				if !l.Wiring { // it stands outside of them all
					r.Circles = append(r.Circles, l.Name)
				}
			}
			r.RingOf = o.Conformance.LayerOf
		} else if o.Conformance == nil && rings != nil {
			r.Circles, r.RingOf = []string{patterns.CircleAround, patterns.CircleCore}, rings
		}
		return drawing.Of(o.facts, o.Roles, o.InScope, r)
	}), nil
}

// circles are the rings that files lie in where the leading pattern says so and
// no charter does; nil where it is another.
func (o *judged) circles() map[string]string {
	return cached(o, "circles", func() map[string]string {
		ringOf := patterns.Circles(o.Patterns)
		if ringOf == nil {
			return nil
		}
		out := map[string]string{}
		for _, f := range o.facts.Files {
			if in := ringOf(f.Path); in != "" {
				out[f.Path] = in
			}
		}
		return out
	})
}

func (s *Server) dependencies(ctx context.Context, in *struct {
	ViewIn
	DrawingIn
}) (*view[*Dependencies], error) {
	return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*Dependencies, error) {
		place := in.place()
		d, err := s.drawn(ctx, o, place, in.DrawingIn)
		if err != nil {
			return nil, err
		}
		list := cached(o, "packages "+place, func() []Package { return packages(o, place) })
		return &Dependencies{Drawing: d, Packages: list, Levels: o.Levels}, nil
	}, review.PartArrangement)
}

// Attempt is what a dependency would do before it exists, and what the charter
// says of it.
type Attempt struct {
	links.Tried
	Rule string `json:"rule" doc:"the rule of the charter that it would break; empty when none"`
}

// tried tells what a dependency between two places would do.
func (s *Server) tried(ctx context.Context, in *struct {
	ViewIn
	From string `query:"from" required:"true"`
	To   string `query:"to" required:"true"`
}) (*body[Attempt], error) {
	o, err := s.shelf.survey(ctx, in.ID, in.Survey)
	if err != nil {
		return nil, err
	}
	for _, p := range []string{in.From, in.To} {
		if o.Folder(p) == nil && o.facts.File(p) == nil {
			return nil, noPlace(p)
		}
	}
	if model.Within(in.From, in.To) || model.Within(in.To, in.From) {
		return nil, huma.Error422UnprocessableEntity("one of the two lies in the other; name two places beside each other")
	}
	t := Attempt{Tried: links.Try(o.facts.Links, func(p string) bool { return o.InScope[p] }, in.From, in.To)}
	if o.Charter != nil {
		t.Rule = o.Charter.Would(o.Reading, in.From, in.To)
	}
	return &body[Attempt]{t}, nil
}

// Arrangement is how a hand put the boxes of a drawing.
type Arrangement struct {
	Place string   `json:"place"`
	Boxes []string `json:"boxes" maxItems:"2000" doc:"paths from the left; none leaves it to what is reckoned"`
}

// registerArrangements lets boxes be put where a hand wants them.
func (s *Server) registerArrangements(api huma.API) {
	huma.Get(api, "/api/codebases/{id}/arrangement", func(ctx context.Context, in *struct {
		CodebaseIn
		At string `query:"at"`
	}) (*body[Arrangement], error) {
		boxes, err := s.review.Arrangement(ctx, in.ID, in.At)
		if boxes == nil {
			boxes = []string{}
		}
		return &body[Arrangement]{Arrangement{in.At, boxes}}, failure(err)
	})
	huma.Put(api, "/api/codebases/{id}/arrangement", func(ctx context.Context, in *struct {
		CodebaseIn
		By   review.Actor `query:"by"`
		Body Arrangement
	}) (*body[Arrangement], error) {
		if err := s.review.Arrange(ctx, in.ID, in.Body.Place, in.Body.Boxes); err != nil {
			return nil, failure(err)
		}
		s.changed(review.Happened{Codebase: in.ID, Part: review.PartArrangement, What: "arrangement", By: in.By})
		return &body[Arrangement]{in.Body}, nil
	}, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
}

// Belonging is a file of a folder with where it belongs.
type Belonging struct {
	links.Belonging
	Role    model.Role `json:"role"`
	Feature string     `json:"feature"`
	Lines   int        `json:"lines"`
}

// belongings tells of the files of a folder whether they belong in it.
func (s *Server) belongings(ctx context.Context, in *ViewIn) (*view[[]Belonging], error) {
	return viewOf(ctx, s, in, func(o *judged) ([]Belonging, error) {
		place := in.place()
		if o.Folder(place) == nil {
			return nil, noPlace(place)
		}
		out := cached(o, "belongings "+place, func() []Belonging {
			out := []Belonging{}
			for _, b := range links.BelongingsOf(o.facts, func(p string) bool { return o.InScope[p] }, place) {
				switch o.Roles[b.Path].Role {
				case model.RoleTest, model.RoleEntry, model.RoleRouting:
					// A test lies beside what it tests, whatever it needs for that; and what
					// starts or routes leads elsewhere because that is its work.
					b.Elsewhere = false
				}
				out = append(out, Belonging{b, o.Roles[b.Path].Role, o.FeatureOf[b.Path].Feature, o.facts.File(b.Path).Lines()})
			}
			return out
		})
		return out, nil
	})
}

// Narrowed lists the files that belong to a feature, a role or both.
type Narrowed struct {
	Paths  []string `json:"paths"`
	Lines  int      `json:"lines"`
	Smells int      `json:"smells" doc:"on these files"`
}

func (s *Server) narrowed(ctx context.Context, in *struct {
	ViewIn
	Narrow
}) (*view[*Narrowed], error) {
	return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*Narrowed, error) {
		out := cached(o, fmt.Sprintf("narrowed %q", in.Narrow), func() *Narrowed {
			n := &Narrowed{Paths: []string{}}
			for _, f := range o.facts.Files {
				if o.InScope[f.Path] && in.holds(o, f.Path) {
					n.Paths = append(n.Paths, f.Path)
					n.Lines += f.Lines()
				}
			}
			for i := range o.Hits {
				if sm := &o.Hits[i]; sm.Silenced == "" && o.InScope[sm.Path] && in.holds(o, sm.Path) {
					n.Smells++
				}
			}
			return n
		})
		return out, nil
	})
}

// packages lists what comes from outside, most used first.
func packages(o *judged, place string) []Package {
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
	return viewOf(ctx, s, &in.ViewIn, func(o *judged) ([]model.Link, error) {
		out := []model.Link{}
		if pkg, outside := strings.CutPrefix(in.To, drawing.RimPrefix); outside {
			for _, e := range o.facts.External {
				if len(out) < maxBetween && e.Package == pkg && model.Within(in.From, e.From) && o.InScope[e.From] {
					out = append(out, model.Link{From: e.From, To: in.To, Kind: model.LinkImport, Line: e.Line, Text: e.Package, Sure: true})
				}
			}
			return out, nil
		}
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
		return out, nil
	})
}
