package server

import (
	"time"

	"jantel/core/model"
)

// past sums up what Git tells of the files at one place.
type past struct {
	changes int
	authors map[string]bool
	last    int64
}

func (p *past) add(f *model.FileHistory) {
	p.changes += f.Changes
	p.last = max(p.last, f.Last)
	for a := range f.Authors {
		p.authors[a] = true
	}
}

func (p *past) fill(r *Row) {
	if p != nil && p.changes > 0 {
		r.Changes, r.Authors, r.Changed = p.changes, len(p.authors), time.Unix(p.last, 0).UTC().Format(time.DateOnly)
	}
}

// pasts sums up the history of each file and of each folder with all below it.
func (o *judged) pasts() map[string]*past {
	return cached(o, "pasts", func() map[string]*past {
		out := map[string]*past{}
		if o.facts.History == nil {
			return out
		}
		for i := range o.facts.History.Files {
			f := &o.facts.History.Files[i]
			if o.facts.File(f.Path) == nil {
				continue
			}
			for p := f.Path; ; p = model.FolderOf(p) {
				at := out[p]
				if at == nil {
					at = &past{authors: map[string]bool{}}
					out[p] = at
				}
				at.add(f)
				if p == "." {
					break
				}
			}
		}
		return out
	})
}
