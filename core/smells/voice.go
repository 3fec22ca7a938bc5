package smells

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// Family is what several rules have in common: at one place they ask much the
// same, and only the most telling of them speaks.
type Family string

// The families.
const (
	familySize  Family = "size"
	familyRing  Family = "ring"
	familyLayer Family = "layer"
	familyPlace Family = "place"
	familyName  Family = "name"
	familyTwin  Family = "twin"
)

// When the same small thing is a habit of a folder: so many hits, in so many
// files, which are so large a share of the folder's own.
const (
	habitHits  = 6
	habitFiles = 4
	habitShare = 0.25
	// A folder below that has so large a share of the hits is the one it is about.
	habitInside = 0.8
	// What is stronger than that stands out and is told by itself, the few
	// strongest of them.
	standsOut = 0.9
	mostOut   = 3
	// At most so many places are told as evidence.
	mostEvidence = 12
)

// Told decides which hits are told, and by which smell. It comes in two steps.
// First what a rule finds all over a folder becomes one smell of that folder,
// with its count and share; the few that stand out are told by themselves. Then, at
// each place, the rules of a family speak through the most telling of them, and
// the others are its evidence. Hits that are silenced are told as they are.
// Silenced says why a habit does not count, "" where it does: its hits are
// silenced with it.
//
// Told marks the hits with the smell that tells of them and returns those that
// are told, by path, line, rule and id.
func Told(c *Context, hits []model.Smell, silenced func(habit *model.Smell) string) []model.Smell {
	v := &voice{c: c, own: map[string]int{}}
	for _, f := range c.Survey.Files {
		if c.Judged[f.Path] {
			for d := model.FolderOf(f.Path); ; d = model.FolderOf(d) {
				v.own[d]++
				if d == "." {
					break
				}
			}
		}
	}
	out := []model.Smell{}
	byRule := map[string][]*model.Smell{}
	for i := range hits {
		hits[i].Rank = v.rank(&hits[i])
		byRule[hits[i].Rule] = append(byRule[hits[i].Rule], &hits[i])
	}
	for _, r := range catalogue {
		if !r.Habit {
			continue
		}
		for _, h := range v.habits(r, byRule[r.Slug]) {
			h.Silenced = silenced(&h)
			for _, sm := range byRule[r.Slug] {
				if sm.ToldBy == h.ID && h.Silenced != "" {
					sm.Silenced = h.Silenced
				}
			}
			out = append(out, h)
		}
	}
	out = append(out, v.families(hits)...)
	slices.SortStableFunc(out, func(a, b model.Smell) int {
		return cmp.Or(cmp.Compare(a.Path, b.Path), cmp.Compare(line(&a), line(&b)), cmp.Compare(a.Rule, b.Rule), cmp.Compare(a.ID, b.ID))
	})
	return out
}

// voice is what is counted once for all rules.
type voice struct {
	c   *Context
	own map[string]int // judged files below each folder
}

// rank is by how much a smell goes before others: what its rule weighs, how
// strong it is, and how many lines it is about, the more the less each adds. Of a
// definition those are its own; of a habit those of all that have it.
func (v *voice) rank(sm *model.Smell) float64 {
	lines, aside := 0, len(sm.Touches) > 0
	for _, p := range sm.Touches {
		if aside = aside && setAside(p); !aside {
			break
		}
	}
	for _, p := range sm.Touches {
		if sm.Name != nil && sm.EndLine != nil && !sm.Habit {
			lines = *sm.EndLine - line(sm) + 1
			break
		}
		if f := v.c.Survey.File(p); f != nil {
			lines += f.Lines()
		}
	}
	w := 1.0
	if r := Named(sm.Rule); r != nil {
		w = r.Weight
	}
	if aside {
		w *= asideWeight
	}
	return round4(w * sm.Strength * math.Sqrt(float64(lines+50)))
}

// asideWeight is how far what is set aside stands behind the rest.
const asideWeight = 0.4

// setAside reports whether a file shows the rest, is tried on it or makes it: such
// is changed more seldom.
func setAside(p string) bool {
	for d, rest, more := strings.Cut(p, "/"); more; d, rest, more = strings.Cut(rest, "/") {
		d = strings.ToLower(d)
		if asideFolders[d] || strings.HasSuffix(d, "-doc") || strings.HasSuffix(d, "-docs") {
			return true
		}
	}
	return strings.HasSuffix(p, ".go") && strings.HasPrefix(path.Base(p), "gen")
}

var asideFolders = syntax.Set("example", "examples", "demo", "demos", "sample", "samples", "snippets", "tutorial", "tutorials",
	"contrib", "contribs", "doc", "docs", "benchmark", "benchmarks", "bench", "hack")

// habits makes a smell of each folder that a rule hits all over, and marks the
// hits that it tells of.
func (v *voice) habits(r *Rule, hits []*model.Smell) (out []model.Smell) {
	left := slices.DeleteFunc(slices.Clone(hits), func(sm *model.Smell) bool { return sm.Silenced != "" })
	var look func(d string, in []*model.Smell)
	look = func(d string, in []*model.Smell) {
		if len(in) < habitHits {
			return
		}
		files := map[string]bool{}
		below := map[string][]*model.Smell{}
		for _, sm := range in {
			files[sm.Path] = true
			if next := stepTowards(d, v.folderOf(sm)); next != "" {
				below[next] = append(below[next], sm)
			}
		}
		inside := slices.Sorted(maps.Keys(below))
		for _, b := range inside {
			if float64(len(below[b])) >= habitInside*float64(len(in)) {
				look(b, below[b])
				return
			}
		}
		if share := float64(len(files)) / float64(max(1, v.own[d])); len(files) >= habitFiles && share >= habitShare {
			if in = usual(in); len(in) >= habitHits {
				out = append(out, v.habit(r, d, in))
				return
			}
		}
		for _, b := range inside {
			look(b, below[b])
		}
	}
	look(".", left)
	if r.Family == familyName {
		out = append(out, v.within(r, left)...)
	}
	return out
}

// within makes a smell of each file in which a name is the same small thing over
// and over, where its folder has no habit of it.
func (v *voice) within(r *Rule, hits []*model.Smell) (out []model.Smell) {
	by := map[string][]*model.Smell{}
	for _, sm := range hits {
		if sm.ToldBy == "" && sm.Name != nil {
			by[sm.Path] = append(by[sm.Path], sm)
		}
	}
	for _, p := range slices.Sorted(maps.Keys(by)) {
		if len(by[p]) >= habitHits {
			out = append(out, v.habit(r, p, by[p]))
		}
	}
	return out
}

func (v *voice) folderOf(sm *model.Smell) string {
	if v.c.Survey.File(sm.Path) != nil {
		return model.FolderOf(sm.Path)
	}
	return sm.Path
}

// stepTowards is the folder directly below d on the way to another below it; ""
// where that is d itself.
func stepTowards(d, to string) string {
	if d == to || !model.Within(d, to) {
		return ""
	}
	for model.FolderOf(to) != d {
		to = model.FolderOf(to)
	}
	return to
}

// usual are the hits without the few that stand out: the strongest, if they are
// so strong that each is worth a word of its own.
func usual(in []*model.Smell) []*model.Smell {
	in = slices.Clone(in)
	slices.SortStableFunc(in, func(a, b *model.Smell) int { return cmp.Compare(b.Strength, a.Strength) })
	n := 0
	for n < mostOut && n < len(in) && in[n].Strength >= standsOut {
		n++
	}
	return in[n:]
}

// habit is the smell of a folder, or of one file, that tells of the hits in it, the
// strongest first.
func (v *voice) habit(r *Rule, d string, in []*model.Smell) model.Smell {
	hit := map[string]bool{}
	for _, sm := range in {
		hit[sm.Path] = true
	}
	files := len(hit)
	h := model.Smell{
		ID: idOf(identity(r.Slug, d, "", "habit")), Was: []string{}, Rule: r.Slug, Facet: r.Facet, Path: d, Habit: true,
		Message: thousands(often(r, len(in), files, v.own[d])),
		Remedy:  r.Remedy, Count: len(in), Places: []string{},
	}
	places, touched := map[string]bool{}, map[string]bool{}
	sum := 0.0
	for i, sm := range in {
		sm.ToldBy, sm.ToldAt = h.ID, d
		sum += sm.Strength
		places[sm.Path] = true
		for _, p := range sm.Touches {
			touched[p] = true
		}
		if i < mostEvidence {
			h.Evidence = append(h.Evidence, model.Evidence{Path: sm.Path, Line: line(sm), Note: sm.Message})
		}
	}
	h.Places, h.Touches = slices.Sorted(maps.Keys(places)), slices.Sorted(maps.Keys(touched))
	// As strong as its hits are in the middle, and stronger the more of the
	// folder it takes.
	mean := sum / float64(len(in))
	h.Strength = round4(mean + (1-mean)*min(1, float64(files)/float64(max(1, v.own[d])))/2)
	h.Amount = h.Strength
	h.Rank = v.rank(&h)
	return h
}

// often says of a rule how often it is hit, and in how many files.
func often(r *Rule, hits, files, of int) string {
	if files == 1 && of == 0 {
		return fmt.Sprintf("%s is a habit of this file: %d times", r.Title, hits)
	}
	if hits == files {
		return fmt.Sprintf("%s is a habit here: %d of %d files", r.Title, files, of)
	}
	return fmt.Sprintf("%s is a habit here: %d times, in %d of %d files", r.Title, hits, files, of)
}

// place is where a family speaks once: a file, for most; for names what is named,
// and for what is about a feature that feature as well.
func (v *voice) place(f Family, sm *model.Smell) string {
	switch {
	case f == familyName && sm.Name != nil:
		return sm.Path + "\x00" + *sm.Name
	case f == familyPlace:
		name := ""
		if sm.Name != nil {
			name = *sm.Name
		}
		return v.folderOf(sm) + "\x00" + name
	}
	return sm.Path
}

// withOther puts what another rule says into the evidence of the one that speaks: in
// the place of what stands there of the same line, so that no line is told twice.
func withOther(all []model.Evidence, sm *model.Smell) []model.Evidence {
	e := model.Evidence{Path: sm.Path, Line: line(sm), Note: sm.Message}
	if i := slices.IndexFunc(all, func(x model.Evidence) bool { return x.Path == e.Path && x.Line == e.Line && e.Line > 0 }); i >= 0 {
		all[i] = e
		return all
	}
	if len(all) < mostEvidence {
		all = append(all, e)
	}
	return all
}

// families lets at each place the most telling hit of a family speak, with the
// others as its evidence, and returns the hits that are told.
func (v *voice) families(hits []model.Smell) (out []model.Smell) {
	type spot struct {
		family Family
		place  string
	}
	together := map[spot][]*model.Smell{}
	var order []spot
	wider := widerTwins(hits)
	parts := map[*model.Smell][]*model.Smell{} // by a hit of twin folders, those that are part of it
	for i := range hits {
		sm := &hits[i]
		switch r := Named(sm.Rule); {
		case sm.ToldBy != "":
		case wider[sm] != nil: // told below, once it is known what tells of those
			parts[wider[sm]] = append(parts[wider[sm]], sm)
		case r.Family == "" || sm.Silenced != "":
			out = append(out, *sm)
		default:
			at := spot{r.Family, v.place(r.Family, sm)}
			if together[at] == nil {
				order = append(order, at)
			}
			together[at] = append(together[at], sm)
		}
	}
	for _, at := range order {
		all := together[at]
		first := slices.MaxFunc(all, func(a, b *model.Smell) int {
			return cmp.Or(cmp.Compare(a.Rank, b.Rank), cmp.Compare(line(b), line(a)), cmp.Compare(b.Rule, a.Rule), cmp.Compare(b.ID, a.ID))
		})
		told := *first
		told.Evidence, told.Count, told.Places = slices.Clone(told.Evidence), len(all), slices.Clone(told.Places)
		for _, sm := range all {
			if sm == first {
				continue
			}
			sm.ToldBy = first.ID
			told.Places = append(told.Places, sm.Path)
			told.Evidence = withOther(told.Evidence, sm)
		}
		for _, sm := range all {
			for _, part := range parts[sm] {
				part.ToldBy, part.ToldAt = first.ID, told.Path
				told.Count++
				told.Places = append(told.Places, part.Path)
			}
		}
		slices.Sort(told.Places)
		told.Places = slices.Compact(told.Places)
		out = append(out, told)
	}
	return out
}

// widerTwins are, by a hit, that of the twin folders it is part of: it says that what
// they hold is there twice, or says of a copy what is said of the first of them. Who
// mends the folders mends it as well.
func widerTwins(hits []model.Smell) map[*model.Smell]*model.Smell {
	in := map[string][]*model.Smell{} // by file, the twin folders that it is a part of
	for i := range hits {
		if sm := &hits[i]; sm.Rule == twinFoldersRule.Slug && sm.Silenced == "" && sm.ToldBy == "" {
			for _, p := range sm.Touches {
				in[p] = append(in[p], sm)
			}
		}
	}
	out := map[*model.Smell]*model.Smell{}
	for i := range hits {
		sm := &hits[i]
		if len(sm.Touches) == 0 || sm.Rule == twinFoldersRule.Slug || sm.ToldBy != "" || sm.Silenced != "" {
			continue
		}
		twice := len(sm.Touches) > 1 && (sm.Rule == nearTwinRule.Slug || sm.Rule == sameTypeNameRule.Slug)
		for _, w := range in[sm.Touches[0]] {
			if (twice || !model.Within(w.Path, sm.Path)) &&
				!slices.ContainsFunc(sm.Touches, func(p string) bool { return !slices.Contains(in[p], w) }) {
				out[sm] = w
				break
			}
		}
	}
	return out
}
