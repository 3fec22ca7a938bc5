package server

import (
	"cmp"
	"context"
	"path"
	"slices"
	"sort"
	"strings"
	"time"

	"jantel/core/links"
	"jantel/core/model"
	"jantel/core/overview"
	"jantel/core/routes"
	"jantel/core/smells"
	"jantel/core/syntax"
	"jantel/review"

	"github.com/danielgtaylor/huma/v2"
)

// Row is one line of the Layout ledger: a folder, or a file of the place.
type Row struct {
	Path      string   `json:"path"`
	Name      string   `json:"name"`
	Depth     int      `json:"depth" doc:"below the place"`
	File      bool     `json:"file"`
	Purpose   string   `json:"purpose"`
	Source    string   `json:"source" doc:"who says so: author, inferred, lead or empty"`
	Roles     [][2]int `json:"roles" doc:"pairs of the role's index in the legend and its lines"`
	Lines     int      `json:"lines"`
	Files     int      `json:"files"`
	Own       int      `json:"own" doc:"files directly in it"`
	In        int      `json:"in"`
	Out       int      `json:"out"`
	Smells    int      `json:"smells"`
	Strongest float64  `json:"strongest"`
	Findings  int      `json:"findings"`
	Read      float64  `json:"read" doc:"share of its lines looked at"`
	Skipped   string   `json:"skipped"`
	Judged    int      `json:"judged"`
	Changes   int      `json:"changes" doc:"how often its files were changed; 0 where Git tells nothing"`
	Authors   int      `json:"authors" doc:"how many people changed them"`
	Head      string   `json:"head" doc:"of a folder: the file in it that stands for it to the outside, empty where none does"`
	Changed   string   `json:"changed" doc:"day of the last change, as 2026-06-11; empty where Git tells nothing"`
}

// Ledger is the Layout view of a place.
type Ledger struct {
	Place   string       `json:"place"`
	Counter int64        `json:"counter" doc:"number of the last change of findings that is in it"`
	Roles   []model.Role `json:"roles" doc:"the legend, in drawing order"`
	Rows    []Row        `json:"rows"`
}

// Margin is what stands beside every view for one place.
type Margin struct {
	Path       string              `json:"path"`
	Kind       string              `json:"kind" enum:"codebase,folder,file"`
	Name       string              `json:"name"`
	Language   string              `json:"language"`
	Purpose    model.Purpose       `json:"purpose"`
	Role       model.RoleOf        `json:"role" doc:"of a file"`
	Origin     model.OriginOf      `json:"origin" doc:"of a file: who wrote it"`
	Roles      map[model.Role]int  `json:"roles" doc:"judged files of each role"`
	Ties       links.Ties          `json:"ties" doc:"of a folder: dependencies that stay inside, and that cross its edge"`
	Score      *model.Legibility   `json:"score"`
	Strains    []model.Strain      `json:"strains"`
	Smells     []model.Smell       `json:"smells" doc:"strongest first, at most 60"`
	SmellCount int                 `json:"smell_count"`
	Findings   []review.Listed     `json:"findings" doc:"in their order, at most 40"`
	Counter    int64               `json:"counter" doc:"number of the last change of findings that is in it"`
	Recorded   int                 `json:"recorded" doc:"how many findings there are here"`
	History    *Changed            `json:"history" doc:"of a file; null where Git tells nothing"`
	Lines      int                 `json:"lines"`
	Files      int                 `json:"files"`
	Read       float64             `json:"read"`
	Skipped    string              `json:"skipped"`
	Partial    string              `json:"partial" doc:"why the file was read only in part"`
	Titles     map[string]RuleText `json:"titles" doc:"the rules of the smells shown"`
}

// marginFindings is how many findings the margin is sent; the list has the rest.
const marginFindings = 40

// Changed is how a file came to be what it is. Times are RFC 3339.
type Changed struct {
	Changes  int            `json:"changes"`
	First    time.Time      `json:"first"`
	Last     time.Time      `json:"last"`
	Authors  []model.Author `json:"authors" doc:"who changed it, most often first; commits are changes of this file"`
	Together []model.Pair   `json:"together" doc:"files that change with it; b is the other one"`
}

// RuleText is what a reader needs of a rule.
type RuleText struct {
	Title    string `json:"title"`
	Question string `json:"question"`
	Why      string `json:"why"`
}

// Use is one end of a dependency of a file.
type Use struct {
	Path  string         `json:"path"`
	Line  int            `json:"line" doc:"of the statement, in the file that needs the other"`
	Kind  model.LinkKind `json:"kind"`
	Text  string         `json:"text"`
	Names []string       `json:"names"`
	Sure  bool           `json:"sure"`
}

// Code is the Code view of a file.
type Code struct {
	Path        string             `json:"path"`
	Language    string             `json:"language"`
	Text        string             `json:"text"`
	Missing     string             `json:"missing" doc:"why there is no text, empty when there is"`
	Lines       int                `json:"lines"`
	Bytes       int64              `json:"bytes"`
	Hash        string             `json:"hash"`
	Role        model.RoleOf       `json:"role"`
	Skipped     string             `json:"skipped"`
	Partial     string             `json:"partial"`
	Definitions []model.Definition `json:"definitions"`
	Uses        []Use              `json:"uses"`
	UsedBy      []Use              `json:"used_by"`
	External    []model.External   `json:"external"`
	Unresolved  []model.Unresolved `json:"unresolved"`
	Feature     model.FeatureOf    `json:"feature"`
	Origin      model.OriginOf     `json:"origin"`
	Layer       string             `json:"layer" doc:"of the charter, empty without one"`
	Twins       []model.Twins      `json:"twins" doc:"the file, or what it defines, and what is nearly the same code"`
	ReadMark    bool               `json:"read_mark"`
}

// Sibling is another place beside one step of the path.
type Sibling struct {
	Path string `json:"path"`
	Name string `json:"name"`
	File bool   `json:"file"`
}

// PlaceHit is a place that a search found.
type PlaceHit struct {
	Path       string `json:"path"`
	Kind       string `json:"kind" doc:"folder, file or the kind of a definition"`
	Name       string `json:"name"`
	Definition string `json:"definition"`
	Line       int    `json:"line"`
	score      int
}

func (s *Server) registerViews(api huma.API) {
	registerView(s, api, "/api/codebases/{id}/overview", s.overview)
	registerView(s, api, "/api/codebases/{id}/layout", s.layout, review.PartFindings, review.PartMarks)
	registerView(s, api, "/api/codebases/{id}/margin", s.margin, review.PartFindings, review.PartMarks)
	registerView(s, api, "/api/codebases/{id}/code", s.code, review.PartMarks)
	registerView(s, api, "/api/codebases/{id}/siblings", s.siblings)
	registerView(s, api, "/api/codebases/{id}/smells", s.smells)
	registerView(s, api, "/api/codebases/{id}/flows", s.flows)
	s.registerDrawings(api)
	s.registerDeclared(api)
	huma.Get(api, "/api/codebases/{id}/routes", s.routesView)
	huma.Get(api, "/api/codebases/{id}/places", func(ctx context.Context, in *struct {
		ViewIn
		Q string `query:"q"`
	}) (*body[[]PlaceHit], error) {
		o, err := s.shelf.survey(ctx, in.ID, in.Survey)
		if err != nil {
			return nil, err
		}
		return &body[[]PlaceHit]{findPlaces(o, in.Q, 30)}, nil
	})
	huma.Get(api, "/api/rules", func(context.Context, *struct{}) (*body[[]*smells.Rule], error) {
		return &body[[]*smells.Rule]{smells.Rules()}, nil
	})
}

// routesView lists the routes that are declared or answered at a place, or
// those that would answer a typed path.
func (s *Server) routesView(ctx context.Context, in *struct {
	ViewIn
	Typed string `query:"path" doc:"only routes that answer this path"`
}) (*view[[]model.Route], error) {
	o, err := s.shelf.survey(ctx, in.ID, in.Survey)
	if err != nil {
		return nil, err
	}
	tag := o.etag()
	if in.Match == tag {
		return nil, huma.Status304NotModified()
	}
	out := []model.Route{}
	for _, r := range cached(o, "routes", func() []model.Route { return routes.Of(o.facts) }) {
		here := model.Within(in.place(), r.Path) || r.HandlerPath != "" && model.Within(in.place(), r.HandlerPath)
		if here && (in.Typed == "" || routes.Match(r.Pattern, in.Typed)) {
			out = append(out, r)
		}
	}
	return &view[[]model.Route]{tag, out}, nil
}

func noPlace(place string) error {
	return huma.Error404NotFound("there is no " + place + " in this survey")
}

func (s *Server) overview(_ context.Context, o *judged, place string) (*overview.Sheet, error) {
	if o.facts.File(place) != nil {
		place = model.FolderOf(place)
	}
	sh := cached(o, "overview "+place, func() *overview.Sheet { return overview.Of(o.facts, o.Result, place) })
	if sh == nil {
		return nil, noPlace(place)
	}
	return sh, nil
}

// readLines returns the looked-at lines of each folder. A mark counts while
// the file still has the content it was set on.
func (s *Server) readLines(ctx context.Context, o *judged) (map[string]int, map[string]bool, error) {
	marks, err := s.review.ReadMarks(ctx, o.codebase)
	if err != nil {
		return nil, nil, failure(err)
	}
	folders, files := map[string]int{}, map[string]bool{}
	for p, m := range marks {
		f := o.facts.File(p)
		if f == nil || f.Hash != m.Hash {
			continue
		}
		files[p] = true
		for d := model.FolderOf(p); ; d = model.FolderOf(d) {
			if o.InScope[p] {
				folders[d] += f.Lines()
			}
			if d == "." {
				break
			}
		}
	}
	return folders, files, nil
}

func share(part, whole int) float64 {
	if whole == 0 {
		return 0
	}
	return float64(int(float64(part)/float64(whole)*10000)) / 10000
}

// parts are what the ledger of a judgement is made of, whatever the place.
type parts struct {
	order  []*model.Folder
	counts map[string]int
	worst  map[string]float64
	in     map[string]int
	out    map[string]int
}

func (o *judged) parts() *parts {
	return cached(o, "parts", func() *parts {
		p := &parts{counts: map[string]int{}, worst: map[string]float64{}, in: map[string]int{}, out: map[string]int{}}
		for _, sm := range o.Smells {
			if sm.Silenced == "" {
				p.counts[sm.Path]++
				p.worst[sm.Path] = max(p.worst[sm.Path], sm.Strength)
			}
		}
		for _, l := range o.facts.Links {
			if !l.Kind.Repeats() {
				p.out[l.From]++
				p.in[l.To]++
			}
		}
		p.order = o.Folders
		return p
	})
}

// heads are the files that stand for their folders to the outside: where
// something starts, else the facade; of several the one called shortest.
func (o *judged) heads() map[string]string {
	return cached(o, "heads", func() map[string]string {
		out := map[string]string{}
		put := func(p string) {
			d, name := model.FolderOf(p), path.Base(p)
			if now, ok := out[d]; !ok || len(name) < len(now) {
				out[d] = name
			}
		}
		for _, p := range o.Facades {
			put(p)
		}
		started := map[string]bool{}
		for _, e := range o.Entries {
			if d := model.FolderOf(e.Path); e.Kind != model.EntryScript && !started[d] {
				started[d] = true
				delete(out, d)
			}
		}
		for _, e := range o.Entries {
			if e.Kind != model.EntryScript {
				put(e.Path)
			}
		}
		return out
	})
}

func (s *Server) layout(ctx context.Context, o *judged, place string) (*Ledger, error) {
	if o.facts.File(place) != nil {
		place = model.FolderOf(place)
	}
	top := o.Folder(place)
	if top == nil {
		return nil, noPlace(place)
	}
	readFolders, readFiles, err := s.readLines(ctx, o)
	if err != nil {
		return nil, err
	}
	found, counter, err := s.findings(ctx, o.codebase)
	if err != nil {
		return nil, failure(err)
	}
	findings := map[string]int{}
	for _, f := range found {
		findings[f.Place.Path]++
		if f.Place.Path != "." {
			for d := model.FolderOf(f.Place.Path); ; d = model.FolderOf(d) {
				findings[d]++
				if d == "." {
					break
				}
			}
		}
	}
	p, pasts, heads := o.parts(), o.pasts(), o.heads()
	l := &Ledger{Place: place, Roles: model.Roles, Rows: []Row{}, Counter: counter}
	index := map[model.Role]int{}
	for i, r := range model.Roles {
		index[r] = i
	}
	for _, d := range p.order {
		if !model.Within(place, d.Path) {
			continue
		}
		r := Row{
			Path: d.Path, Name: d.Name, Depth: d.Depth - top.Depth, Purpose: d.Purpose.Text,
			Source: d.Purpose.Source, Roles: [][2]int{}, Lines: d.Lines, Files: d.Files, Own: d.OwnFiles, In: d.In,
			Out: d.Out, Smells: d.Smells, Strongest: d.Strongest, Findings: findings[d.Path],
			Read: share(readFolders[d.Path], d.JudgedLines), Judged: d.JudgedLines,
		}
		if len(r.Purpose) > 160 {
			r.Purpose = syntax.Sentence(r.Purpose, 160)
		}
		for i, role := range model.Roles {
			if n := d.RoleLines[role]; n > 0 {
				r.Roles = append(r.Roles, [2]int{i, n})
			}
		}
		if n := d.RoleLines[""]; n > 0 {
			r.Roles = append(r.Roles, [2]int{-1, n})
		}
		pasts[d.Path].fill(&r)
		r.Head = heads[d.Path]
		l.Rows = append(l.Rows, r)
	}
	for _, f := range o.facts.Files {
		if model.FolderOf(f.Path) != place {
			continue
		}
		r := Row{
			Path: f.Path, Name: path.Base(f.Path), Depth: 1, File: true, Roles: [][2]int{}, Lines: f.Lines(),
			Files: 1, In: p.in[f.Path], Out: p.out[f.Path], Smells: p.counts[f.Path], Strongest: p.worst[f.Path],
			Findings: findings[f.Path], Skipped: o.Skipped(f),
		}
		if f.Facts != nil && f.Facts.Doc != "" {
			r.Purpose, r.Source = syntax.Sentence(f.Facts.Doc, 160), "author"
		}
		if readFiles[f.Path] {
			r.Read = 1
		}
		if o.InScope[f.Path] {
			r.Judged = f.Lines()
			i, ok := index[o.Roles[f.Path].Role]
			if !ok {
				i = -1
			}
			r.Roles = append(r.Roles, [2]int{i, f.Lines()})
		}
		pasts[f.Path].fill(&r)
		l.Rows = append(l.Rows, r)
	}
	return l, nil
}

func (s *Server) margin(ctx context.Context, o *judged, place string) (*Margin, error) {
	m := &Margin{
		Path: place, Name: path.Base(place), Smells: []model.Smell{}, Findings: []review.Listed{},
		Strains: []model.Strain{}, Titles: map[string]RuleText{}, Roles: map[model.Role]int{},
		Role: model.RoleOf{Reasons: []string{}}, Origin: model.OriginOf{Evidence: []string{}},
	}
	readFolders, readFiles, err := s.readLines(ctx, o)
	if err != nil {
		return nil, err
	}
	if f := o.facts.File(place); f != nil {
		m.Kind, m.Language, m.Lines, m.Files, m.Skipped = "file", f.Language, f.Lines(), 1, o.Skipped(f)
		m.Origin.Origin = o.Origins[place].Origin
		m.Origin.Evidence = append(m.Origin.Evidence, o.Origins[place].Evidence...)
		m.Origin.ByHand = o.Origins[place].ByHand
		if r := o.Roles[place]; r.Reasons != nil {
			m.Role = r
		}
		if f.Facts != nil {
			if f.Facts.Doc != "" {
				m.Purpose = model.Purpose{Text: f.Facts.Doc, Source: "author", Path: f.Path, Line: f.Facts.DocLine}
			}
			if f.Facts.Read == model.ReadPartial {
				m.Partial = f.Facts.Problem
			}
		}
		if readFiles[place] {
			m.Read = 1
		}
		m.History = changed(o.facts.History, place)
	} else if d := o.Folder(place); d != nil {
		m.Kind = "folder"
		if place == "." {
			m.Kind = "codebase"
		}
		m.Name, m.Lines, m.Files, m.Purpose, m.Roles = d.Name, d.Lines, d.Files, d.Purpose, d.Roles
		m.Ties = cached(o, "ties", func() map[string]links.Ties { return links.TiesOf(o.facts.Links) })[place]
		score := d.Legibility
		m.Score = &score
		if st := o.Scores.Arithmetic(place); st != nil {
			m.Strains = st
		}
		m.Read = share(readFolders[place], d.JudgedLines)
	} else {
		return nil, noPlace(place)
	}
	for _, sm := range o.Smells {
		if model.Within(place, sm.Path) {
			m.Smells = append(m.Smells, sm)
			if sm.Silenced == "" {
				m.SmellCount++
			}
		}
	}
	sort.SliceStable(m.Smells, func(i, j int) bool {
		a, b := &m.Smells[i], &m.Smells[j]
		if (a.Silenced == "") != (b.Silenced == "") {
			return a.Silenced == ""
		}
		return a.Strength > b.Strength
	})
	if len(m.Smells) > 60 {
		m.Smells = m.Smells[:60]
	}
	for _, sm := range m.Smells {
		if r := smells.Named(sm.Rule); r != nil {
			m.Titles[sm.Rule] = RuleText{r.Title, r.Question, r.Why}
		}
	}
	all, counter, err := s.findings(ctx, o.codebase)
	if err != nil {
		return nil, failure(err)
	}
	m.Counter = counter
	for i := range all {
		if model.Within(place, all[i].Place.Path) {
			if m.Recorded++; m.Recorded <= marginFindings {
				m.Findings = append(m.Findings, all[i].Listed())
			}
		}
	}
	return m, nil
}

func changed(h *model.History, p string) *Changed {
	f := h.File(p)
	if f == nil {
		return nil
	}
	c := &Changed{
		Changes: f.Changes, First: time.Unix(f.First, 0).UTC(), Last: time.Unix(f.Last, 0).UTC(),
		Authors: []model.Author{}, Together: []model.Pair{},
	}
	for name, n := range f.Authors {
		c.Authors = append(c.Authors, model.Author{Name: name, Commits: n, Last: f.Last})
	}
	slices.SortFunc(c.Authors, func(a, b model.Author) int {
		return cmp.Or(cmp.Compare(b.Commits, a.Commits), cmp.Compare(a.Name, b.Name))
	})
	for _, x := range h.Pairs {
		if x.B == p {
			x.A, x.B = x.B, x.A
		}
		if x.A == p && len(c.Together) < 8 {
			c.Together = append(c.Together, x)
		}
	}
	return c
}

// smells lists all smells of a place, so that every number opens its list.
func (s *Server) smells(_ context.Context, o *judged, place string) ([]model.Smell, error) {
	out := []model.Smell{}
	for _, sm := range o.Smells {
		if model.Within(place, sm.Path) {
			out = append(out, sm)
		}
	}
	return out, nil
}

// maxShown is how much of a text is sent to be shown.
const maxShown = 2 << 20

func (s *Server) code(ctx context.Context, o *judged, place string) (*Code, error) {
	f := o.facts.File(place)
	if f == nil {
		return nil, noPlace(place)
	}
	c := &Code{
		Path: f.Path, Language: f.Language, Lines: f.Lines(), Bytes: f.Bytes, Hash: f.Hash, Role: o.Roles[place],
		Skipped: o.Skipped(f), Origin: o.Origins[place], Definitions: []model.Definition{}, Uses: []Use{}, UsedBy: []Use{},
		External: []model.External{}, Unresolved: []model.Unresolved{}, Twins: []model.Twins{},
		Feature: o.FeatureOf[place],
	}
	if c.Origin.Evidence == nil {
		c.Origin.Evidence = []string{}
	}
	if c.Feature.Reasons == nil {
		c.Feature.Reasons = []string{}
	}
	if o.Conformance != nil {
		c.Layer = o.Conformance.LayerOf[place]
	}
	if c.Role.Reasons == nil {
		c.Role.Reasons = []string{}
	}
	switch {
	case f.Skipped == model.SkippedBinary:
		c.Missing = "This is a binary file; it was counted, not read."
	case f.Hash == "":
		c.Missing = "This file was not read; the survey's notes say why."
	default:
		data, err := s.facts.Text(ctx, f.Hash)
		if err != nil {
			c.Missing = "Its text is not kept any more; survey the codebase again."
			break
		}
		text, _ := syntax.Decode(data)
		if len(text) > maxShown {
			text = text[:maxShown]
			c.Missing = "Only the first two megabytes are shown."
		}
		c.Text = strings.ToValidUTF8(string(text), "\uFFFD")
	}
	if f.Facts != nil {
		c.Definitions = append(c.Definitions, f.Facts.Definitions...)
		if f.Facts.Read == model.ReadPartial {
			c.Partial = f.Facts.Problem
		}
	}
	for _, l := range o.facts.Links {
		if l.From == place {
			c.Uses = append(c.Uses, Use{l.To, l.Line, l.Kind, l.Text, names(l.Names), l.Sure})
		}
		if l.To == place {
			c.UsedBy = append(c.UsedBy, Use{l.From, l.Line, l.Kind, l.Text, names(l.Names), l.Sure})
		}
	}
	for _, e := range o.facts.External {
		if e.From == place {
			c.External = append(c.External, e)
		}
	}
	for _, t := range o.facts.Twins {
		if slices.ContainsFunc(t.Members, func(m model.TwinPlace) bool { return m.Path == place }) {
			c.Twins = append(c.Twins, t)
		}
	}
	for _, u := range o.facts.Unresolved {
		if u.From == place {
			c.Unresolved = append(c.Unresolved, u)
		}
	}
	_, read, err := s.readLines(ctx, o)
	c.ReadMark = read[place]
	return c, err
}

func names(ns []string) []string {
	if ns == nil {
		return []string{}
	}
	return ns
}

// siblings lists what lies beside a place, itself among it.
func (s *Server) siblings(_ context.Context, o *judged, place string) ([]Sibling, error) {
	out := []Sibling{}
	if place == "." {
		return out, nil
	}
	up := model.FolderOf(place)
	for _, d := range o.Folders {
		if d.Parent == up && d.Path != "." {
			out = append(out, Sibling{d.Path, d.Name, false})
		}
	}
	for _, f := range o.facts.Files {
		if model.FolderOf(f.Path) == up {
			out = append(out, Sibling{f.Path, path.Base(f.Path), true})
		}
	}
	return out, nil
}
