// Package patterns names the architectural patterns a codebase may follow.
// Each pattern is a list of signals; a signal is a computed test with a weight
// and a sentence for either outcome.
package patterns

import (
	"cmp"
	"math"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/reading"
	"jantel/core/relations"
	"jantel/core/weave"
)

// outcome is what one signal found: how far it holds (0 to 1), in words, with
// the places it was seen in.
type outcome struct {
	share    float64
	text     string
	evidence []model.Evidence
	// silent is set where nothing can be told: then the signal does not count.
	silent bool
	// byCut, where it is set, makes of it what stands once it is known how the folders
	// are cut.
	byCut func(model.Cut) outcome
}

func outcomeOf(share float64, text string, evidence []model.Evidence) outcome {
	return outcome{share: share, text: text, evidence: evidence}
}

type signal struct {
	weight float64
	// needed signals cap the score: a pattern without what makes it up is
	// not that pattern, whatever else fits.
	needed bool
	// floor is what a needed signal leaves possible when it does not hold at
	// all, 0 to 100.
	floor float64
	test  func(c *context) outcome
}

type pattern struct {
	name    string
	signals []signal
}

// threshold is the score below which a pattern is not mentioned.
const threshold = 25

// Sight is what the signals of each pattern of the catalogue found.
type Sight [][]outcome

// Look asks every signal of what lies below a folder ("." for the codebase), whatever
// its cut is.
func Look(root string, s *model.Survey, roles map[string]model.RoleOf, judged map[string]bool, folders []*model.Folder) Sight {
	c := newContext(root, s, roles, judged, folders)
	out := make(Sight, len(catalogue))
	for i, p := range catalogue {
		for _, sg := range p.signals {
			out[i] = append(out[i], sg.test(c))
		}
	}
	return out
}

// Rank judges every pattern by what was seen, best first, those under the threshold
// left out; the ranking may be empty. The cut of the folders is what weave found.
func (seen Sight) Rank(cut model.Cut) []model.PatternMatch {
	out := []model.PatternMatch{}
	for i, p := range catalogue {
		m := model.PatternMatch{Name: p.name, For: []model.Argument{}, Against: []model.Argument{}}
		var got, all float64
		limit := 100.0
		for k, sg := range p.signals {
			o := seen[i][k]
			if o.byCut != nil {
				o = o.byCut(cut)
			}
			if o.silent {
				continue
			}
			o.share = math.Max(0, math.Min(1, o.share))
			got += sg.weight * o.share
			all += sg.weight
			if sg.needed {
				limit = math.Min(limit, sg.floor+(100-sg.floor)*o.share)
			}
			a := model.Argument{Text: o.text, Points: round1(sg.weight * o.share), Evidence: o.evidence}
			if a.Evidence == nil {
				a.Evidence = []model.Evidence{}
			}
			if o.share >= 0.5 {
				m.For = append(m.For, a)
			} else {
				a.Points = round1(sg.weight * (o.share - 1))
				m.Against = append(m.Against, a)
			}
		}
		m.Score = round1(math.Min(limit, 100*got/all))
		// What nothing speaks for is no answer, however little speaks against it.
		if m.Score >= threshold && len(m.For) > 0 {
			out = append(out, m)
		}
	}
	behind(out, delivered, 40, general, delivered)
	behind(out, general, 60, general, delivered)
	behind(out, general, 70, general)
	// The packages of a library are about different things, as a matter of course.
	behind(out, map[string]bool{"by feature": true}, 60, general)
	behind(out, map[string]bool{"scaffold": true}, threshold, general, delivered)
	sort.SliceStable(out, func(i, j int) bool { return before(&out[i], &out[j]) })
	return out
}

// behind puts some below the best of those that say more, where that reaches a score: how
// folders are cut stands behind what they are for, and as what code is delivered behind
// how its parts work together. The silent ones say no more. The order follows the scores.
func behind(out []model.PatternMatch, less map[string]bool, from float64, silent ...map[string]bool) {
	best := 0.0
	for i := range out {
		if !slices.ContainsFunc(silent, func(all map[string]bool) bool { return all[out[i].Name] }) {
			best = math.Max(best, out[i].Score)
		}
	}
	if best < from {
		return
	}
	for i := range out {
		if less[out[i].Name] {
			out[i].Score = math.Min(out[i].Score, round1(best-1))
		}
	}
}

// Patterns answer three questions: how the folders are cut, as what the code is
// delivered, and all others how its parts work together. An answer to one is no
// rival of an answer to another.
var (
	general   = map[string]bool{"by feature": true, "by kind": true}
	delivered = map[string]bool{"library": true, "scripts": true, "scaffold": true, "apps and libs": true}
)

// Rivals reports whether one pattern stands in the way of another that leads.
func Rivals(a, b string) bool {
	return general[a] == general[b] && delivered[a] == delivered[b] || general[a]
}

func before(a, b *model.PatternMatch) bool {
	if a.Score != b.Score {
		return a.Score > b.Score
	}
	return a.Name < b.Name
}

func round1(x float64) float64 { return math.Round(x*10) / 10 }

// Verdict puts a ranking into a word: "clear" when the first leads by far,
// "leaning" when it leads, "undecided" when nothing does.
func Verdict(ranking []model.PatternMatch) string {
	if len(ranking) == 0 {
		return "undecided"
	}
	lead := ranking[0].Score
	for _, next := range ranking[1:] {
		if Rivals(ranking[0].Name, next.Name) {
			lead = ranking[0].Score - next.Score
			break
		}
	}
	switch {
	case ranking[0].Score >= 70 && lead >= 15:
		return "clear"
	case ranking[0].Score >= 45 && lead >= 5:
		return "leaning"
	}
	return "undecided"
}

type context struct {
	root    string // the folder that is looked at
	survey  *model.Survey
	roles   map[string]model.RoleOf
	folders []*model.Folder
	source  []*model.File // judged program text except tests
	judged  map[string]bool
	byRole  map[model.Role][]*model.File
	plugs   *plugs // what is plugged in, once it was asked for
	told    bool
	// registrars are functions that others hand something over to, with a file of each.
	registrars map[string]string
	drawn      []*model.File    // judged files that draw, templates as well
	edges      []*model.Link    // between judged files, from no test, none that only says more of another
	needed     map[string][]int // edges by what they lead to, once they were asked for
	links      map[[2]model.Role][]model.Link
	inner      map[string]*model.Folder
	defined    map[string]bool            // what judged files define, once it was asked for
	named      map[string][]*model.Folder // by the words of their names, outermost first
	sent       []model.Message
	askedSent  bool // sent is filled in

	builds   *made         // what builds make, once it was asked for
	starting []*model.File // programs, once counted
	counted  bool
	reach    map[string]bool // what they need, once it was asked for
}

// messages lists the messages; few codebases have any, and two signals ask.
func (c *context) messages() []model.Message {
	if !c.askedSent {
		c.sent, c.askedSent = relations.Messages(c.survey), true
	}
	return c.sent
}

func newContext(root string, s *model.Survey, roles map[string]model.RoleOf, judged map[string]bool, folders []*model.Folder) *context {
	c := &context{
		root: root, survey: s, roles: roles, folders: folders, judged: judged,
		byRole: map[model.Role][]*model.File{}, links: map[[2]model.Role][]model.Link{},
		inner: map[string]*model.Folder{},
	}
	for _, f := range s.Files {
		r := roles[f.Path].Role
		if r == model.RoleView && judged[f.Path] {
			c.drawn = append(c.drawn, f)
		}
		if judged[f.Path] && reading.IsCode(f) && r != model.RoleTest && r != model.RoleConfig {
			c.source = append(c.source, f)
		}
	}
	c.withoutShows()
	for _, f := range c.source {
		r := roles[f.Path].Role
		c.byRole[r] = append(c.byRole[r], f)
	}
	for i := range s.Links {
		l := &s.Links[i]
		a, b := roles[l.From].Role, roles[l.To].Role
		if !l.Kind.Repeats() && judged[l.From] && judged[l.To] && a != model.RoleTest {
			c.edges = append(c.edges, l)
			c.links[[2]model.Role{a, b}] = append(c.links[[2]model.Role{a, b}], *l)
		}
	}
	for _, f := range folders {
		c.inner[f.Path] = f
	}
	return c
}

// withoutShows leaves out what lies in folders of examples, which is built as suits the
// showing, unless there is hardly anything else.
func (c *context) withoutShows() {
	var rest []*model.File
	left, all := 0, 0 // lines: examples may be many small files beside a few large ones
	for _, f := range c.source {
		if all += f.Lines(); !inShows(model.FolderOf(f.Path)) {
			rest = append(rest, f)
			left += f.Lines()
		}
	}
	if 2*left < all {
		return
	}
	c.source = rest
	c.folders = slices.DeleteFunc(slices.Clone(c.folders), func(d *model.Folder) bool { return inShows(d.Path) })
}

// inShows reports whether a folder is one of examples, or lies in one.
func inShows(folder string) bool {
	for d := range strings.SplitSeq(folder, "/") {
		switch strings.ToLower(strings.Trim(d, "_")) {
		case "example", "examples", "sample", "samples":
			return true
		}
	}
	return false
}

func (c *context) part(roles ...model.Role) float64 {
	n := 0
	for _, r := range roles {
		n += len(c.byRole[r])
	}
	if len(c.source) == 0 {
		return 0
	}
	return float64(n) / float64(len(c.source))
}

func filesEvidence(fs []*model.File, note string) (ev []model.Evidence) {
	for i, f := range fs {
		if i == 5 {
			break
		}
		ev = append(ev, model.Evidence{Path: f.Path, Note: note})
	}
	return ev
}

// foldersEnding finds folders whose names end in one of the words, and are more than it.
func (c *context) foldersEnding(words ...string) (out []*model.Folder) {
	for _, d := range c.folders {
		if d.JudgedLines > 0 && slices.ContainsFunc(words, func(w string) bool {
			n := strings.ToLower(d.Name)
			return len(n) > len(w) && strings.HasSuffix(n, w)
		}) {
			out = append(out, d)
		}
	}
	return out
}

// foldersNamed finds folders whose name is one of the words, outermost first.
func (c *context) foldersNamed(words ...string) (out []*model.Folder) {
	if c.named == nil {
		c.named = map[string][]*model.Folder{}
		for _, d := range c.folders {
			if d.Path != "." && d.JudgedLines > 0 {
				n := strings.Join(naming.Words(d.Name), " ")
				c.named[n] = append(c.named[n], d)
			}
		}
	}
	for _, w := range words {
		out = append(out, c.named[w]...)
	}
	slices.SortStableFunc(out, func(a, b *model.Folder) int {
		return cmp.Or(cmp.Compare(a.Depth, b.Depth), cmp.Compare(a.Path, b.Path))
	})
	return out
}

func foldersEvidence(ds []*model.Folder, note string) (ev []model.Evidence) {
	for i, d := range ds {
		if i == 5 {
			break
		}
		ev = append(ev, model.Evidence{Path: d.Path, Note: note})
	}
	return ev
}

func linksEvidence(ls []model.Link) (ev []model.Evidence) {
	for i, l := range ls {
		if i == 5 {
			break
		}
		ev = append(ev, model.Evidence{Path: l.From, Line: l.Line, Note: "needs " + l.To})
	}
	return ev
}

// kindFolder reports whether a folder is named for a technical kind.
func kindFolder(name string) (model.Role, bool) {
	r, ok := weave.Words().Folders[strings.Join(naming.Words(name), " ")]
	return r, ok && r != model.RoleTest && r != model.RoleDocs && r != model.RoleScript
}

// sortsOf counts, for each innermost folder, the files of each role.
func (c *context) sortsOf() map[string]map[model.Role]int {
	out := map[string]map[model.Role]int{}
	for _, f := range c.source {
		d := model.FolderOf(f.Path)
		if out[d] == nil {
			out[d] = map[model.Role]int{}
		}
		out[d][c.roles[f.Path].Role]++
	}
	return out
}
