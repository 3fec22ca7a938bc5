package smells

import (
	"cmp"
	"math"
	"slices"

	"jantel/core/model"
	"jantel/core/reading"
)

// Raise lists what would raise the score of the whole codebase most: for each
// smell the points that the total gains when it alone is mended, the largest
// first, at most so many. The gains are those of Score, worked out for one smell
// without scoring again: a file that it touches falls back to the next strongest
// smell of the same rule.
func Raise(c *Context, found []model.Smell, s *Scores, most int) []model.Mend {
	top := s.sums["."]
	if top == nil || top.judged == 0 {
		return nil
	}
	weights := 0.0
	for _, f := range model.Facets {
		if f != model.Boundaries || top.boundariesKnown() {
			weights += FacetWeights[f]
		}
	}
	total := s.ByFolder["."].Total
	if total == nil || weights == 0 {
		return nil
	}
	var out []model.Mend
	for _, r := range catalogue {
		if r.Tests || r.Facet == model.Boundaries && !top.boundariesKnown() {
			continue
		}
		of := hitsOf(found, r.Slug)
		for i, eased := range of.eased(c) {
			strain := r.Weight * eased / float64(top.judged)
			gain := *total * (math.Exp(FacetWeights[r.Facet]*strain/weights) - 1)
			if gain < 0.005 {
				continue
			}
			sm := of.smells[i]
			out = append(out, model.Mend{
				What: sm.Message, Path: sm.Path, Gain: math.Round(gain*100) / 100, Smells: []string{cmp.Or(sm.ToldBy, sm.ID)},
			})
		}
	}
	slices.SortStableFunc(out, func(a, b model.Mend) int {
		return cmp.Or(cmp.Compare(b.Gain, a.Gain), cmp.Compare(a.Path, b.Path), cmp.Compare(a.Smells[0], b.Smells[0]))
	})
	return out[:min(most, len(out))]
}

// ruleHits are the smells of a rule that count.
type ruleHits struct{ smells []*model.Smell }

func hitsOf(found []model.Smell, slug string) (h ruleHits) {
	for i := range found {
		if sm := &found[i]; sm.Rule == slug && sm.Silenced == "" {
			h.smells = append(h.smells, sm)
		}
	}
	return h
}

// eased is, for each smell, how many lines times strength go when it is mended.
func (h ruleHits) eased(c *Context) []float64 {
	type two struct {
		first  float64
		by     int // the smell that is strongest there
		second float64
	}
	at := map[string]*two{}
	for i, sm := range h.smells {
		for _, p := range sm.Touches {
			t := at[p]
			switch {
			case t == nil:
				at[p] = &two{first: sm.Strength, by: i}
			case t.by == i:
			case sm.Strength > t.first:
				t.first, t.by, t.second = sm.Strength, i, t.first
			default:
				t.second = math.Max(t.second, sm.Strength)
			}
		}
	}
	out := make([]float64, len(h.smells))
	for i, sm := range h.smells {
		for _, p := range slices.Compact(slices.Sorted(slices.Values(sm.Touches))) {
			f := c.Survey.File(p)
			if t := at[p]; t.by == i && f != nil && c.Judged[p] && reading.Weighs(f) && !c.IsTest(p) {
				out[i] += (t.first - t.second) * float64(f.Lines())
			}
		}
	}
	return out
}
