package smells

import (
	"maps"
	"math"
	"slices"

	"jantel/core/model"
	"jantel/core/reading"
)

// FacetWeights say how much each facet counts in the total.
var FacetWeights = map[model.Facet]float64{model.Layout: 0.3, model.Boundaries: 0.3, model.Units: 0.2, model.Names: 0.2}

// minResolved is the share of in-tree imports that must resolve before
// Boundaries can be told.
const minResolved = 0.8

// Scores is the legibility of every folder and the arithmetic of each.
type Scores struct {
	ByFolder map[string]model.Legibility
	sums     map[string]*sums
}

// NoScores is what there is where nothing could be scored: all of it unknown.
func NoScores() *Scores {
	return &Scores{ByFolder: map[string]model.Legibility{}, sums: map[string]*sums{}}
}

type sums struct {
	lines, own          int                // all there are; what people here write
	judged              int                // own production code
	tests               int                // own tests
	touched             map[string]float64 // rule to lines times strength
	inTests             map[string]float64 // the same, of tests
	hits                map[string]int
	above               *sums // of the folder that this one lies in, nil for the root
	resolved, unresolve int
	readable            int // judged lines in languages whose imports are read
}

// Score computes the legibility of every folder from the smells, silenced
// ones left out. For a rule a file counts once, with its strongest hit.
func Score(c *Context, found []model.Smell, readable func(f *model.File) bool) *Scores {
	s := NoScores()
	var at func(d string) *sums
	at = func(d string) *sums {
		x := s.sums[d]
		if x == nil {
			x = &sums{touched: map[string]float64{}, inTests: map[string]float64{}, hits: map[string]int{}}
			if d != "." {
				x.above = at(model.FolderOf(d))
			}
			s.sums[d] = x
		}
		return x
	}
	up := func(p string, fn func(*sums)) {
		for x := at(model.FolderOf(p)); x != nil; x = x.above {
			fn(x)
		}
	}
	at(".")
	for _, f := range c.Survey.Files {
		own, canRead := c.Judged[f.Path], readable(f)
		weighs, test := own && reading.Weighs(f), own && c.IsTest(f.Path)
		up(f.Path, func(x *sums) {
			x.lines += f.Lines()
			if own {
				x.own += f.Lines()
			}
			switch {
			case !weighs:
			case test:
				x.tests += f.Lines()
			default:
				x.judged += f.Lines()
				if canRead {
					x.readable += f.Lines()
				}
			}
		})
	}
	imports, from := 0, ""
	count := func() {
		if imports > 0 && c.Reading.Judged[from] { // what a bundle takes in says nothing of those who keep it
			up(from, func(x *sums) { x.resolved += imports })
		}
	}
	for i := range c.Survey.Links { // those of a file stand together
		l := &c.Survey.Links[i]
		if l.From != from {
			count()
			imports, from = 0, l.From
		}
		if l.Kind == model.LinkImport || l.Kind == model.LinkLazyImport || l.Kind == model.LinkReExport {
			imports++
		}
	}
	count()
	for _, u := range c.Survey.Unresolved {
		if c.Reading.Judged[u.From] {
			up(u.From, func(x *sums) { x.unresolve++ })
		}
	}
	for _, r := range catalogue {
		strongest := map[string]float64{}
		for i := range found {
			sm := &found[i]
			if sm.Rule != r.Slug || sm.Silenced != "" {
				continue
			}
			for _, p := range sm.Touches {
				strongest[p] = math.Max(strongest[p], sm.Strength)
			}
			d := sm.Path
			if c.Survey.File(d) != nil {
				d = model.FolderOf(d)
			}
			for x := at(d); x != nil; x = x.above {
				x.hits[r.Slug]++
			}
		}
		for _, p := range slices.Sorted(maps.Keys(strongest)) { // in order, so that sums come out the same
			if f := c.Survey.File(p); f != nil && strongest[p] > 0 && c.Judged[p] && reading.Weighs(f) {
				w := strongest[p] * float64(f.Lines())
				switch {
				case !c.IsTest(p):
					up(p, func(x *sums) { x.touched[r.Slug] += w })
				case r.Tests:
					up(p, func(x *sums) { x.inTests[r.Slug] += w })
				}
			}
		}
	}
	for p := range s.sums {
		s.ByFolder[p] = s.legibility(p)
	}
	return s
}

// What few lines are left of others' code, or of what was built, say nothing of it:
// below so many, and so small a part, nothing is scored.
const (
	leastJudged = 500
	leastShare  = 0.01
)

func (s *Scores) legibility(p string) model.Legibility {
	x := s.sums[p]
	var l model.Legibility
	if x.lines > 0 {
		l.JudgedShare = ptr(float64(x.own) / float64(x.lines))
	}
	if x.tests > 0 {
		l.Tests = ptr(100 * math.Exp(-x.testStrain()))
	}
	if x.judged == 0 || x.judged < leastJudged && float64(x.judged) < leastShare*float64(x.lines) {
		return l
	}
	strain := map[model.Facet]float64{}
	for _, st := range s.Arithmetic(p) {
		strain[st.Facet] += st.Strain
	}
	var sum, weights float64
	for _, f := range model.Facets {
		if f == model.Boundaries && !x.boundariesKnown() {
			continue
		}
		v := ptr(100 * math.Exp(-strain[f]))
		switch f {
		case model.Layout:
			l.Layout = v
		case model.Boundaries:
			l.Boundaries = v
		case model.Units:
			l.Units = v
		case model.Names:
			l.Names = v
		}
		sum += FacetWeights[f] * strain[f]
		weights += FacetWeights[f]
	}
	l.Total = ptr(100 * math.Exp(-sum/weights))
	return l
}

// testStrain is what the rules about tests find, over the lines of tests and of
// what they leave untested.
func (x *sums) testStrain() (strain float64) {
	for _, r := range catalogue {
		if !r.Tests {
			continue
		}
		strain += r.Weight * x.inTests[r.Slug] / float64(x.tests)
		if x.judged > 0 {
			strain += r.Weight * x.touched[r.Slug] / float64(x.judged)
		}
	}
	return strain
}

func (x *sums) boundariesKnown() bool {
	if x.readable*2 < x.judged {
		return false
	}
	n := x.resolved + x.unresolve
	return n == 0 || float64(x.resolved) >= minResolved*float64(n)
}

// Arithmetic lists, for a folder, what each rule adds to the strain; rules
// without hits are left out.
func (s *Scores) Arithmetic(p string) []model.Strain {
	x := s.sums[p]
	if x == nil || x.judged == 0 {
		return nil
	}
	var out []model.Strain
	for _, r := range catalogue {
		t, ok := x.touched[r.Slug]
		if !ok || r.Tests {
			continue
		}
		share := t / float64(x.judged)
		out = append(out, model.Strain{
			Rule: r.Slug, Facet: r.Facet, Weight: r.Weight, Hits: x.hits[r.Slug], JudgedLines: x.judged,
			Touched: round4(t), Strain: round4(r.Weight * share),
		})
	}
	return out
}

// Unresolved is how many imports of judged files that should lead into the
// codebase do, and how many do not, below a folder.
func (s *Scores) Unresolved(p string) (resolved, unresolved int) {
	if x := s.sums[p]; x != nil {
		return x.resolved, x.unresolve
	}
	return 0, 0
}

func ptr(x float64) *float64 { x = round4(x); return &x }
