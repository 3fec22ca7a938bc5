// Package smells holds the catalogue of rules and the score made from their
// hits. A rule is a question about a codebase, computed from facts and roles.
package smells

import (
	"crypto/sha256"
	"encoding/hex"
	"math"
	"regexp"
	"runtime"
	"slices"
	"sort"
	"strconv"
	"strings"
	"sync"

	"jantel/core/charter"
	"jantel/core/model"
	"jantel/core/parallel"
	"jantel/core/reading"
	"jantel/core/routes"

	"golang.org/x/sync/errgroup"
)

// Parameter is a figure a rule depends on, by how far along the codebase is.
type Parameter struct {
	Name      string  `json:"name"`
	Meaning   string  `json:"meaning"`
	Sketch    float64 `json:"sketch"`
	Growing   float64 `json:"growing"`
	InService float64 `json:"in_service"`
}

// Rule is one rule of the catalogue.
type Rule struct {
	Slug       string      `json:"slug"`
	Facet      model.Facet `json:"facet"`
	Title      string      `json:"title"`
	Question   string      `json:"question"`
	Why        string      `json:"why"`
	Example    string      `json:"-"` // for the guide
	Remedy     string      `json:"remedy"`
	Weight     float64     `json:"weight"`
	Parameters []Parameter `json:"parameters"`
	// Tests: it is about tests, which are told apart in the score.
	Tests bool `json:"tests,omitempty"`
	// Family is what rules have in common that ask much the same of a place; ""
	// for one that stands by itself.
	Family Family `json:"-"`
	// Habit: it finds small things, which are told once for a folder where they
	// are all over it.
	Habit bool `json:"-"`
	// AsksCut: it asks how the folders are cut or for the features, which are told late.
	AsksCut bool `json:"-"`

	find func(c *Context, r *Rule) []hit
}

// Context is what rules look at.
type Context struct {
	*reading.Reading
	Folders     []*model.Folder
	Stage       model.Stage
	Cycles      []model.Cycle
	Features    []model.Feature
	FeatureOf   map[string]model.FeatureOf
	Modules     []model.Module
	Cut         model.Cut       // of the whole codebase
	Conformance *charter.Result // what came of holding it against a charter, nil without one
	// Thresholds are the charter's own figures for parameters of rules.
	Thresholds map[string]float64
	NameRules  []charter.NameRule // of the charter
	Glossary   []charter.Term

	routesOnce sync.Once
	routeList  []model.Route

	sub map[string][]string // folders by their parent
}

// seen is the role of a file where it was seen or set by hand: what is only
// assumed is no reason for a smell.
func (c *Context) seen(file string) model.Role {
	if r := c.Roles[file]; r.Source != model.RoleAssumed {
		return r.Role
	}
	return ""
}

// index looks once at what many rules ask for.
func (c *Context) index() {
	c.sub = map[string][]string{}
	for _, d := range c.Folders {
		if d.Path != "." {
			c.sub[d.Parent] = append(c.sub[d.Parent], d.Path)
		}
	}
}

// routes lists all routes; several rules ask for them.
func (c *Context) routes() []model.Route {
	c.routesOnce.Do(func() { c.routeList = routes.Of(c.Survey) })
	return c.routeList
}

// hit is what a rule's function returns; findBy makes a smell of it.
type hit struct {
	path, name string
	extra      string   // what else tells it from others at the same place
	was        []string // what told it apart in earlier versions of its rule, as identity writes it
	line, end  int
	strength   float64
	message    string
	evidence   []model.Evidence
	touches    []string
	remedy     string
}

// UnknownThreshold reports whether a threshold of a charter means no parameter:
// it is a rule's slug where the rule has one parameter, else "slug.parameter".
func UnknownThreshold(key string) bool {
	slug, name, dotted := strings.Cut(key, ".")
	r := Named(slug)
	if r == nil || !dotted && len(r.Parameters) != 1 {
		return true
	}
	return dotted && !slices.ContainsFunc(r.Parameters, func(p Parameter) bool { return p.Name == name })
}

// Value is the parameter's figure: as the charter says, else at the stage of
// the brief.
func (c *Context) Value(r *Rule, name string) float64 {
	if v, ok := c.Thresholds[r.Slug+"."+name]; ok {
		return v
	}
	if v, ok := c.Thresholds[r.Slug]; ok && len(r.Parameters) == 1 {
		return v
	}
	for _, p := range r.Parameters {
		if p.Name == name {
			switch c.Stage {
			case model.Sketch:
				return p.Sketch
			case model.InService:
				return p.InService
			}
			return p.Growing
		}
	}
	panic("the rule " + r.Slug + " has no parameter " + name)
}

// Rules lists the catalogue in its fixed order.
func Rules() []*Rule { return catalogue }

func init() {
	for _, r := range catalogue {
		if r.Parameters == nil {
			r.Parameters = []Parameter{}
		}
	}
}

// Named returns the rule with that slug, or nil.
func Named(slug string) *Rule {
	for _, r := range catalogue {
		if r.Slug == slug {
			return r
		}
	}
	return nil
}

// Begin runs the rules that ask neither how the folders are cut nor for the features:
// Features, FeatureOf and Cut of the context need not be there yet, and of Modules the
// paths alone. A rule that breaks costs its own hits alone; notes say which, and why.
func Begin(c *Context) ([]model.Smell, []model.Note) {
	return findBy(c, slices.DeleteFunc(slices.Clone(catalogue), func(r *Rule) bool { return r.AsksCut }))
}

// End runs the other rules, once all is in the context, and returns what all of them hit, by
// path, line and rule.
func End(c *Context, begun []model.Smell, said []model.Note) ([]model.Smell, []model.Note) {
	found, notes := findBy(c, slices.DeleteFunc(slices.Clone(catalogue), func(r *Rule) bool { return !r.AsksCut }))
	return arranged(append(slices.Clip(begun), found...)), append(slices.Clip(said), notes...)
}

func findBy(c *Context, rules []*Rule) (out []model.Smell, notes []model.Note) {
	c.index()
	out = []model.Smell{}
	// Rules only look; each may run beside the others.
	hits := make([][]hit, len(rules))
	broken := make([]*parallel.Broken, len(rules))
	var g errgroup.Group
	g.SetLimit(runtime.GOMAXPROCS(0))
	for i, r := range rules {
		g.Go(func() error {
			broken[i] = parallel.Try(func() { hits[i] = r.find(c, r) })
			return nil
		})
	}
	_ = g.Wait()
	for i, r := range rules {
		if broken[i] != nil {
			notes = append(notes, model.Note{Path: ".", Text: "the rule " + r.Slug + " could not be told: " + broken[i].Error()})
			continue
		}
		for _, h := range hits[i] {
			if r.settles() && settled(h.touches) {
				continue
			}
			out = append(out, r.smell(h))
		}
	}
	return out, notes
}

// arranged are hits by path, line and rule, each with an id of its own.
func arranged(out []model.Smell) []model.Smell {
	sort.SliceStable(out, func(i, j int) bool {
		a, b := &out[i], &out[j]
		if a.Path != b.Path {
			return a.Path < b.Path
		}
		if la, lb := line(a), line(b); la != lb {
			return la < lb
		}
		if a.Rule != b.Rule {
			return a.Rule < b.Rule
		}
		return a.ID < b.ID
	})
	tellApart(out)
	return out
}

// tellApart gives each hit an id of its own: what a rule finds in several definitions of
// one name in a file, such as those that take other arguments, is told apart by which
// of them it is. The first keeps the id that all of them had.
func tellApart(found []model.Smell) {
	seen := make(map[string]int, len(found))
	for i := range found {
		sm := &found[i]
		id := sm.ID
		if seen[id]++; seen[id] > 1 {
			sm.ID = idOf(id + "\x00" + strconv.Itoa(seen[id]))
		}
	}
}

// settles reports whether a rule asks nothing of code that is settled: how long it is, what
// it is like, and what lies beside it.
func (r *Rule) settles() bool {
	switch r.Slug {
	case "crowded-folder", "hidden-by-prefix", "folder-echo", "numbered-name", "overlong-name", "same-type-name",
		"file-nobody-reaches":
		return true
	}
	return r.Family == familySize || r.Family == familyTwin
}

// settled reports whether all that a hit is about are steps of a store that were taken:
// nobody changes them any more.
func settled(paths []string) bool {
	return len(paths) > 0 && !slices.ContainsFunc(paths, func(p string) bool { return !mayBeStep(p) || !stepsTaken.MatchString(p) })
}

// mayBeStep holds for all that stepsTaken knows, and is told faster.
func mayBeStep(p string) bool {
	return strings.Contains(p, "migrat") || strings.Contains(p, "versions") || strings.Contains(p, "changesets")
}

var stepsTaken = regexp.MustCompile(`(?:^|/)(?:(?:\w+_)?migrations?|migrate|` +
	`(?:migrate|(?:\w+_)?migrations?)/[^/]+/versions|alembic/versions|changesets)/(?:[^/]+/)?[^/]+$`)

func line(s *model.Smell) int {
	if s.Line == nil {
		return 0
	}
	return *s.Line
}

// smell fills in the fixed parts. The id depends on the rule, the place and
// the name alone, so that it stays the same from survey to survey.
func (r *Rule) smell(h hit) model.Smell {
	s := model.Smell{
		ID: idOf(identity(r.Slug, h.path, h.name, h.extra)), Was: []string{}, Rule: r.Slug, Facet: r.Facet,
		Amount: round4(max(0, h.strength)), Path: h.path, Message: thousands(h.message), Evidence: h.evidence,
		Remedy: h.remedy, Touches: h.touches, Count: 1, Places: []string{h.path},
	}
	s.Strength = strengthOf(r.Slug, s.Amount)
	if s.Remedy == "" {
		s.Remedy = r.Remedy
	}
	for _, w := range h.was {
		s.Was = append(s.Was, idOf(w))
	}
	if h.line > 0 {
		s.Line = &h.line
		if h.end == 0 {
			h.end = h.line
		}
		s.EndLine = &h.end
	}
	if h.name != "" {
		s.Name = &h.name
	}
	if len(s.Evidence) == 0 {
		// Where it stands is the least that leads back to the code.
		s.Evidence = []model.Evidence{{Path: h.path, Line: h.line, Note: "here"}}
	}
	return s
}

// identity writes what tells a smell from all others.
func identity(slug, path, name, extra string) string {
	return slug + "\x00" + path + "\x00" + name + "\x00" + extra
}

func idOf(identity string) string {
	sum := sha256.Sum256([]byte(identity))
	return hex.EncodeToString(sum[:6])
}

func clamp(x float64) float64 { return math.Max(0.05, math.Min(1, x)) }

func round4(x float64) float64 { return math.Round(x*10000) / 10000 }

// over grows from 0.2 at the threshold to 1 at three times it.
func over(n, threshold float64) float64 { return 0.2 + 0.4*(n-threshold)/threshold }

// paths lists the paths of files.
func paths(fs []*model.File) []string {
	out := make([]string, len(fs))
	for i, f := range fs {
		out[i] = f.Path
	}
	return out
}

// evidence makes a place of each path, at most twelve.
func evidence(ps []string, note string) []model.Evidence {
	var out []model.Evidence
	for i, p := range ps {
		if i == 12 {
			break
		}
		out = append(out, model.Evidence{Path: p, Note: note})
	}
	return out
}
