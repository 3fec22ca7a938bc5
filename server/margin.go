package server

import (
	"cmp"
	"context"
	"path"
	"slices"
	"time"

	"jantel/core/links"
	"jantel/core/model"
	"jantel/core/smells"
	"jantel/review"
)

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
	Lower      int                 `json:"lower" doc:"how many of the codebases that the rules were calibrated on have a lower score"`
	Others     int                 `json:"others" doc:"of how many; 0 where it is not compared"`
	Strains    []model.Strain      `json:"strains"`
	Smells     []model.Smell       `json:"smells" doc:"strongest first, at most 20"`
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

// marginSmells is how many smells the margin is sent; the list has the rest.
const marginSmells = 20

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

// ties are the dependencies inside each folder and across its edge.
func (o *judged) ties() map[string]links.Ties {
	return cached(o, "ties", func() map[string]links.Ties { return links.TiesOf(o.facts.Links) })
}

func (s *Server) margin(ctx context.Context, o *judged, place string) (*Margin, error) {
	m := &Margin{
		Path: place, Name: path.Base(place), Smells: []model.Smell{}, Findings: []review.Listed{},
		Strains: []model.Strain{}, Roles: map[model.Role]int{},
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
		m.Ties = o.ties()[place]
		score := d.Legibility
		m.Score = &score
		if place == "." && score.Total != nil {
			m.Lower, m.Others = smells.Lies(*score.Total)
		}
		if st := o.Scores.Arithmetic(place); st != nil {
			m.Strains = st
		}
		m.Read = share(readFolders[place], d.JudgedLines)
	} else {
		return nil, noPlace(place)
	}
	here := smellsAt(o, place, Narrow{})
	m.SmellCount = here.Count
	m.Smells = append(m.Smells, here.Smells[:min(len(here.Smells), marginSmells)]...)
	m.Titles = titlesOf(m.Smells)
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
