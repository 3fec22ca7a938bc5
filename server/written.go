package server

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/regroup"
	"jantel/report"
	"jantel/review"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"
)

// PageList are the pages of a codebase.
type PageList struct {
	Pages []review.Page `json:"pages" doc:"without their texts"`
}

// PageStart is what a page begins with.
type PageStart struct {
	Title string `json:"title"`
	Text  string `json:"text"`
}

// NewPage is a page that is written.
type NewPage struct {
	Kind  review.PageKind `json:"kind" enum:"guide,report,decision,regrouping"`
	Title string          `json:"title" maxLength:"400"`
	Text  string          `json:"text" maxLength:"262144"`
	By    review.Actor    `json:"by,omitempty" maxLength:"100"`
}

// PageChange sets title and text of a page, or takes it away.
type PageChange struct {
	Title   string       `json:"title" maxLength:"400"`
	Text    string       `json:"text" maxLength:"262144"`
	Version int64        `json:"version" doc:"that was changed"`
	Gone    bool         `json:"gone,omitempty" doc:"takes it away; without it, it is there again"`
	By      review.Actor `json:"by,omitempty" maxLength:"100"`
}

// PageShown is a page as it is read.
type PageShown struct {
	Page    review.Page `json:"page"`
	Blocks  []PageBlock `json:"blocks"`
	Regroup *Regrouping `json:"regroup" doc:"what becomes of its moves; null where it is no draft of a regrouping or has none"`
}

// PageBlock is text, or the lines of a place.
type PageBlock struct {
	HTML    string   `json:"html" doc:"made harmless; empty where a place stands"`
	Excerpt *Excerpt `json:"excerpt" doc:"null where text stands"`
}

// Excerpt are lines of a file of the newest survey.
type Excerpt struct {
	Path    string   `json:"path"`
	Caption string   `json:"caption"`
	First   int      `json:"first" doc:"the number of the first line"`
	Lines   []string `json:"lines"`
	Missing string   `json:"missing" doc:"why there are no lines; empty where there are"`
}

// Regrouping is a codebase as it is, beside what it would be with the moves of a draft.
// The charter is left out of both: it speaks of today's folders.
type Regrouping struct {
	Moves []regroup.Move `json:"moves"`
	Now   Regrouped      `json:"now"`
	Then  Regrouped      `json:"then"`
}

// Regrouped are the figures of one of the two.
type Regrouped struct {
	Folders    int              `json:"folders"`
	Across     int              `json:"across" doc:"dependencies that leave their folder, each pair of files once"`
	Cut        string           `json:"cut" doc:"empty where there is too little to tell"`
	Smells     int              `json:"smells"`
	Legibility model.Legibility `json:"legibility"`
}

// PageIn names a page.
type PageIn struct {
	CodebaseIn
	Page int64 `path:"page"`
}

// registerPages serves what people write to be read.
func (s *Server) registerPages(api huma.API) {
	errs := func(op *huma.Operation) {
		op.Errors = []int{http.StatusNotFound, http.StatusPreconditionFailed, http.StatusUnprocessableEntity}
	}
	huma.Get(api, "/api/codebases/{id}/pages", func(ctx context.Context, in *CodebaseIn) (*body[PageList], error) {
		if _, err := s.review.Codebase(ctx, in.ID); err != nil {
			return nil, failure(err)
		}
		all, err := s.review.Pages(ctx, in.ID)
		return &body[PageList]{PageList{all}}, failure(err)
	}, errs)
	huma.Get(api, "/api/codebases/{id}/pages/begin", func(ctx context.Context, in *struct {
		CodebaseIn
		Kind review.PageKind `query:"kind" required:"true" enum:"guide,report,decision,regrouping"`
	}) (*body[PageStart], error) {
		title, text, err := s.BeginPage(ctx, in.ID, in.Kind)
		return &body[PageStart]{PageStart{title, text}}, err
	}, errs)
	huma.Get(api, "/api/codebases/{id}/pages/{page}", func(ctx context.Context, in *PageIn) (*body[*PageShown], error) {
		p, err := s.shown(ctx, in.ID, in.Page)
		return &body[*PageShown]{p}, err
	}, errs)
	huma.Post(api, "/api/codebases/{id}/pages", func(ctx context.Context, in *struct {
		CodebaseIn
		Body NewPage
	}) (*body[review.Page], error) {
		p, err := s.review.AddPage(ctx, in.ID, review.Page{Kind: in.Body.Kind, Title: in.Body.Title, Text: in.Body.Text, By: in.Body.By})
		if err != nil {
			return nil, failure(err)
		}
		s.changed(review.Happened{Codebase: in.ID, Part: review.PartPages, What: "page", By: in.Body.By})
		return &body[review.Page]{p}, nil
	}, errs)
	huma.Put(api, "/api/codebases/{id}/pages/{page}", func(ctx context.Context, in *struct {
		PageIn
		Body PageChange
	}) (*body[review.Page], error) {
		p, err := s.review.ChangePage(ctx, in.ID, review.Page{
			ID: in.Page, Title: in.Body.Title, Text: in.Body.Text, Version: in.Body.Version, By: in.Body.By,
		}, in.Body.Gone)
		if err != nil {
			return nil, failure(err)
		}
		s.changed(review.Happened{Codebase: in.ID, Part: review.PartPages, What: "page", By: in.Body.By})
		return &body[review.Page]{p}, nil
	}, errs)
}

// BeginPage is what a page of a kind starts out with, from the newest survey and what was
// recorded.
func (s *Server) BeginPage(ctx context.Context, codebase int64, kind review.PageKind) (title, text string, err error) {
	c, err := s.review.Codebase(ctx, codebase)
	if err != nil {
		return "", "", failure(err)
	}
	o, err := s.shelf.survey(ctx, codebase, 0)
	if err != nil {
		return "", "", err
	}
	k := &report.Known{Name: c.Name}
	if k.Sheet, err = s.overview(ctx, o, "."); err != nil {
		return "", "", err
	}
	if k.Findings, _, err = s.findings(ctx, codebase); err != nil {
		return "", "", failure(err)
	}
	for _, f := range o.Features {
		if f.Specimen {
			k.Feature, k.Parts = f.Name, f.Files
		}
	}
	marks, err := s.review.ReadMarks(ctx, codebase)
	if err != nil {
		return "", "", failure(err)
	}
	looked := map[string]bool{".": true}
	for p := range marks {
		for d := model.FolderOf(p); d != "."; d = model.FolderOf(d) {
			looked[d] = true
		}
	}
	for _, f := range o.Folders {
		// The outermost alone: what lies below was not looked at either.
		if !looked[f.Path] && f.JudgedLines > 0 && looked[f.Parent] {
			k.Unread = append(k.Unread, f.Path)
		}
	}
	title, text = report.Begin(kind, k)
	return title, text, nil
}

// shown is a page with the lines of its places and what becomes of its moves.
func (s *Server) shown(ctx context.Context, codebase, id int64) (*PageShown, error) {
	p, err := s.review.Page(ctx, codebase, id)
	if err != nil {
		return nil, failure(err)
	}
	out := &PageShown{Page: p, Blocks: []PageBlock{}}
	o, err := s.shelf.survey(ctx, codebase, 0)
	if err != nil {
		o = nil // it is read all the same; its places say what they lack
	}
	for _, b := range report.PageBlocks(p.Text) {
		block := PageBlock{HTML: b.HTML}
		if b.Excerpt != nil {
			block.Excerpt = s.excerpt(ctx, o, b.Excerpt)
		}
		out.Blocks = append(out.Blocks, block)
	}
	if p.Kind == review.PageRegrouping && o != nil {
		out.Regroup = regrouped(o, regroup.Read(p.Text))
	}
	return out, nil
}

// mostLines is how many lines of a place a page shows.
const mostLines = 60

// excerpt are the lines of a place: those it names, those of the definition it names, or
// the head of the file.
func (s *Server) excerpt(ctx context.Context, o *judged, x *report.ExcerptRef) *Excerpt {
	out := &Excerpt{Path: x.Path, Caption: x.Caption, Lines: []string{}}
	if o == nil {
		out.Missing = "there is no survey to take its lines from"
		return out
	}
	f := o.facts.File(x.Path)
	if f == nil || f.Facts == nil {
		out.Missing = "it is not in this survey any more"
		return out
	}
	from, to := max(x.From, 1), x.To
	if x.Name != "" {
		at := slices.IndexFunc(f.Facts.Definitions, func(d model.Definition) bool { return d.Name == x.Name || d.Qualified() == x.Name })
		if at < 0 {
			out.Missing = x.Name + " is not in it any more"
			return out
		}
		from, to = f.Facts.Definitions[at].Line, f.Facts.Definitions[at].EndLine
	} else if to == 0 {
		to = 12
	}
	all := s.linesOf(ctx, o, x.Path)
	if from > len(all) {
		out.Missing = fmt.Sprintf("it has %d lines now", len(all))
		return out
	}
	out.First, out.Lines = from, all[from-1:min(to, from-1+mostLines, len(all))]
	return out
}

// regrouped tells what becomes of moves, nil where there are none.
func regrouped(o *judged, moves []regroup.Move) *Regrouping {
	if len(moves) == 0 {
		return nil
	}
	figures := func(s *model.Survey) Regrouped {
		j := judgement.Judge(s, o.Brief, nil)
		return Regrouped{
			Folders: len(j.Folders), Across: regroup.Across(s), Cut: j.Cut.Label, Smells: len(j.Smells), Legibility: j.Legibility,
		}
	}
	var key strings.Builder
	for _, m := range moves {
		key.WriteString(m.From + "\x00" + m.To + "\x00")
	}
	return cached(o, "regrouped "+key.String(), func() *Regrouping {
		after, made := regroup.Of(o.facts, moves)
		return &Regrouping{
			Moves: made, Then: figures(after),
			Now: cached(o, "regrouped", func() Regrouped { return figures(o.facts) }),
		}
	})
}

// pageFile hands out a page as CommonMark, or as one HTML file to be read anywhere.
func (s *Server) pageFile(w http.ResponseWriter, r *http.Request) {
	id, _ := strconv.ParseInt(chi.URLParam(r, "id"), 10, 64)
	name, ending, _ := strings.Cut(chi.URLParam(r, "file"), ".")
	n, _ := strconv.ParseInt(name, 10, 64)
	p, err := s.shown(r.Context(), id, n)
	if err != nil {
		problem(w, status(err), err.Error())
		return
	}
	var out bytes.Buffer
	kind := ""
	switch ending {
	case "md":
		kind = "text/markdown; charset=utf-8"
		fmt.Fprintf(&out, "# %s\n\n%s", p.Page.Title, p.Page.Text)
	case "html":
		kind = "text/html; charset=utf-8"
		sheet := report.PageSheet{Title: p.Page.Title, Kind: string(p.Page.Kind), By: string(p.Page.By), At: p.Page.At}
		for _, b := range p.Blocks {
			piece := report.PagePiece{HTML: b.HTML}
			if x := b.Excerpt; x != nil {
				piece.Path, piece.Caption, piece.First, piece.Lines, piece.Missing = x.Path, x.Caption, x.First, x.Lines, x.Missing
			}
			sheet.Pieces = append(sheet.Pieces, piece)
		}
		err = report.PageHTML(&out, &sheet)
	default:
		problem(w, http.StatusNotFound, "a page is handed out as .md or .html")
		return
	}
	if err != nil {
		problem(w, http.StatusInternalServerError, err.Error())
		return
	}
	h := w.Header()
	h.Set("Content-Type", kind)
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; font-src data:; sandbox")
	h.Set("Content-Disposition", fmt.Sprintf(`attachment; filename="page-%d.%s"`, n, ending))
	_, _ = w.Write(out.Bytes())
}
