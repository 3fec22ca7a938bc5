package server

import (
	"context"
	"net/http"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/texts"

	"github.com/danielgtaylor/huma/v2"
)

// TextRow is a name that is asked for, as far as the list shows it.
type TextRow struct {
	texts.Row
	HeldIn  int `json:"held_in" doc:"places that hold it, those not listed too"`
	AskedIn int `json:"asked_in" doc:"places that ask for it, those not listed too"`
}

// TextList is what is asked for by name at a place, with the catalogues that hold
// texts there.
type TextList struct {
	Sets  []texts.TextSet `json:"sets"`
	Rows  []TextRow       `json:"rows" doc:"the first of those that are asked for"`
	Found int             `json:"found"`
	Kinds map[string]int  `json:"kinds" doc:"names of each kind at the place"`
	Wrong map[string]int  `json:"wrong" doc:"of the kind that is asked for, how many names have what may be wrong"`
}

// How many rows are told at once, and how many places of each where it is not open.
const (
	mostTexts  = 200
	textPlaces = 4
)

func (s *Server) allTexts(ctx context.Context, o *judged) *texts.Texts {
	ctx = context.WithoutCancel(ctx) // what is kept is for those who ask later as well
	return cached(o, "texts", func() *texts.Texts {
		return texts.Of(o.Reading, func(p string) model.FileOrigin { return o.Origins[p].Origin }, func(fn func(string, []byte) bool) {
			// What can not be read any more is written nowhere that could be shown.
			_, _ = s.texts.each(ctx, s.facts, o, ".", func(f *model.File, text []byte) bool { return fn(f.Path, text) })
		})
	})
}

// TextsAsk is what of the texts is asked for.
type TextsAsk struct {
	Kind  string `query:"kind" enum:"text,setting,route" default:"text"`
	Words string `query:"words" maxLength:"100" doc:"part of a name or of a text"`
	Wrong string `query:"wrong" maxLength:"40" doc:"what may be wrong with it"`
	Set   string `query:"set" maxLength:"1000" doc:"catalogues alone, by their path"`
	Open  string `query:"open" maxLength:"400" doc:"the name of which all places are told"`
}

func (s *Server) registerTexts(api huma.API) {
	huma.Get(api, "/api/codebases/{id}/texts", func(ctx context.Context, in *struct {
		ViewIn
		TextsAsk
	}) (*view[*TextList], error) {
		return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*TextList, error) {
			if o.Folder(in.place()) == nil && o.facts.File(in.place()) == nil {
				return nil, noPlace(in.place())
			}
			return textList(s.allTexts(ctx, o), in.place(), in.TextsAsk), nil
		})
	}, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
}

func textList(all *texts.Texts, place string, ask TextsAsk) *TextList {
	out := &TextList{Sets: []texts.TextSet{}, Rows: []TextRow{}, Kinds: map[string]int{}, Wrong: map[string]int{}}
	sets := map[string]bool{}
	words := strings.ToLower(strings.TrimSpace(ask.Words))
	for i := range all.Rows {
		r := &all.Rows[i]
		if !standsAt(r, place) {
			continue
		}
		out.Kinds[r.Kind]++
		sets[r.Set] = true
		if r.Kind != ask.Kind || ask.Set != "" && r.Set != ask.Set || !reads(r, words) {
			continue
		}
		for _, w := range r.Wrong {
			out.Wrong[w]++
		}
		if ask.Wrong != "" && !slices.Contains(r.Wrong, ask.Wrong) {
			continue
		}
		if out.Found++; len(out.Rows) < mostTexts {
			out.Rows = append(out.Rows, rowOf(*r, ask.Open))
		}
	}
	for _, s := range all.Sets {
		if sets[s.Name] {
			out.Sets = append(out.Sets, s)
		}
	}
	return out
}

// standsAt reports whether a name is held or asked for at a place.
func standsAt(r *texts.Row, place string) bool {
	return slices.ContainsFunc(r.Asked, func(p texts.TextAt) bool { return model.Within(place, p.Path) }) ||
		slices.ContainsFunc(r.Held, func(h texts.HeldText) bool { return model.Within(place, h.Path) })
}

// reads reports whether a name or one of its texts has the words in it.
func reads(r *texts.Row, words string) bool {
	return words == "" || strings.Contains(strings.ToLower(r.Name), words) ||
		slices.ContainsFunc(r.Held, func(h texts.HeldText) bool { return strings.Contains(strings.ToLower(h.Value), words) })
}

// rowOf is a row as the list shows it: all its places where it is open, else the
// first of them.
func rowOf(r texts.Row, open string) TextRow {
	row := TextRow{Row: r, HeldIn: len(r.Held), AskedIn: len(r.Asked)}
	if open != r.Name {
		row.Held, row.Asked = r.Held[:min(len(r.Held), textPlaces)], r.Asked[:min(len(r.Asked), textPlaces)]
		row.Written = r.Written[:min(len(r.Written), textPlaces)]
		row.Missing = r.Missing[:min(len(r.Missing), 2*textPlaces)]
	}
	return row
}
