package server

import (
	"context"
	"path"

	"jantel/core/model"
	"jantel/core/syntax"
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

// figures are what the ledger of a judgement is made of, whatever the place.
type figures struct {
	order  []*model.Folder
	counts map[string]int
	worst  map[string]float64
	in     map[string]int
	out    map[string]int
}

func (o *judged) figures() *figures {
	return cached(o, "figures", func() *figures {
		p := &figures{counts: map[string]int{}, worst: map[string]float64{}, in: map[string]int{}, out: map[string]int{}}
		for _, sm := range o.Hits {
			if sm.Silenced == "" && (sm.ToldBy == "" || sm.ToldAt != "") {
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
		for _, e := range o.Entries {
			if e.Kind != model.EntryScript {
				shortest(out, e.Path)
			}
		}
		facades := map[string]string{}
		for _, p := range o.Facades {
			shortest(facades, p)
		}
		for d, name := range facades {
			if out[d] == "" {
				out[d] = name
			}
		}
		return out
	})
}

// shortest keeps of the files of a folder the one called shortest.
func shortest(of map[string]string, p string) {
	d, name := model.FolderOf(p), path.Base(p)
	if now, ok := of[d]; !ok || len(name) < len(now) {
		of[d] = name
	}
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
	p, pasts, heads := o.figures(), o.pasts(), o.heads()
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
