package server

import (
	"context"
	"net/http"
	"strings"

	"jantel/core/charter"
	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/smells"
	"jantel/core/vocabulary"

	"github.com/danielgtaylor/huma/v2"
)

// Names is how the code of a place speaks, with the words that are asked for.
type Names struct {
	vocabulary.Vocabulary
	All    int `json:"all" doc:"different words"`
	Found  int `json:"found" doc:"those that are asked for"`
	Smells int `json:"smells" doc:"smells of names at the place"`
	// Glossary are the words of the codebase's users, of the charter and as they were
	// set by hand.
	Glossary []Explained `json:"glossary"`
}

// Explained is a word of the glossary.
type Explained struct {
	charter.Term
	Names  int    `json:"names" doc:"names at the place that it stands in"`
	ByHand bool   `json:"by_hand" doc:"it was set here, not in the charter"`
	By     string `json:"by" doc:"who set it; empty where the charter has it"`
}

// glossary are the words of the glossary, with how often each stands in names.
func glossary(o *judged, v *vocabulary.Vocabulary) []Explained {
	out := []Explained{}
	count := map[string]int{}
	for _, w := range v.Words {
		count[w.Word] = w.Count
	}
	for _, t := range smells.Glossary(o.Charter, o.Said) {
		x := Explained{Term: t, Names: count[naming.Singular(t.Word)]}
		for _, s := range o.Said {
			if s.Kind == model.OverruleTerm && strings.EqualFold(s.Target, t.Word) {
				x.ByHand, x.By = true, s.By
			}
		}
		out = append(out, x)
	}
	return out
}

// mostNameWords is how many words are told at once.
const mostNameWords = 200

func (s *Server) registerNames(api huma.API) {
	huma.Get(api, "/api/codebases/{id}/names", func(ctx context.Context, in *struct {
		ViewIn
		Words string `query:"words" maxLength:"100" doc:"part of a word, or of what it shortens"`
		Short bool   `query:"short" doc:"words that shorten others alone"`
	}) (*view[*Names], error) {
		return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*Names, error) {
			if o.Folder(in.place()) == nil && o.facts.File(in.place()) == nil {
				return nil, noPlace(in.place())
			}
			v := cached(o, "names "+in.place(), func() *vocabulary.Vocabulary { return vocabulary.Of(o.Reading, in.place()) })
			out := &Names{Vocabulary: *v, All: len(v.Words), Glossary: glossary(o, v)}
			out.Words = []vocabulary.Word{}
			part := strings.ToLower(strings.TrimSpace(in.Words))
			for _, w := range v.Words {
				if in.Short && w.Long == "" || !strings.Contains(w.Word, part) && !strings.Contains(w.Long, part) {
					continue
				}
				if out.Found++; len(out.Words) < mostNameWords {
					out.Words = append(out.Words, w)
				}
			}
			for _, sm := range smellsAt(o, in.place(), Narrow{}).Smells {
				if sm.Facet == model.Names && sm.Silenced == "" {
					out.Smells++
				}
			}
			return out, nil
		})
	}, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
}
