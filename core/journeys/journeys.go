// Package journeys follows what comes into a system (requests to routes,
// messages, commands) through the definitions that hand it on, to what is kept
// or asked of others.
//
// From a start the links between definitions are followed depth first, in the
// order of the lines they stand on, sure ones and those that are likely. Each
// definition is come through once. Of all that are reached the main way is told:
// the one to the definition that writes, else reads a store, else to the first
// that has access to data; where none does, to the first that holds rules. What
// only asks who may come in, or whether something is so, and what many routes come
// through stand behind all others.
package journeys

import (
	"cmp"
	"fmt"
	"path"
	"regexp"
	"slices"
	"strings"
	"sync"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/reading"
	"jantel/core/relations"
	"jantel/core/routes"
	"jantel/core/syntax"
)

// How far a journey is followed.
const (
	maxDeep    = 14
	maxReached = 400
	maxStarts  = 4000
)

// follower is what all journeys of a survey share.
type follower struct {
	r    *reading.Reading
	g    *calls.Graph
	at   map[string]int                         // files by path
	done map[calls.Ref][]model.JourneyOperation // what is done to entities in a definition
	sent map[calls.Ref][]saying                 // what a definition sends or asks of others
	// inPlace are the lines of each file from which on something comes in: what
	// stands between two of them belongs to the first.
	inPlace map[string][]opening
	// common is what more than a third of many routes come through: it tells nothing of one.
	common map[calls.Ref]bool
}

// opening is a line at which something comes in, and whether what answers it is
// written there.
type opening struct {
	line int
	here bool
}

type saying struct {
	line int
	text string
}

// Of follows all that comes in, routes first, by their pattern.
func Of(r *reading.Reading, entries []model.Entry) []model.Journey {
	f := newFollower(r)
	out := []model.Journey{}
	all := routes.Of(r.Survey)
	f.begins(all)
	all = slices.DeleteFunc(all, func(x model.Route) bool { return !r.Judged[x.Path] || r.IsTest(x.Path) })
	all = all[:min(len(all), maxStarts)]
	f.shared(all)
	for i := range all {
		out = append(out, f.route(&all[i]))
	}
	f.skipped(out)
	out = append(out, f.messages()...)
	for _, e := range entries {
		if e.Kind != model.EntryPage && e.Line > 0 && r.Judged[e.Path] && len(out) < maxStarts {
			out = append(out, f.command(e))
		}
	}
	return out
}

// Singly follows routes one at a time, those of tests as well, which Of leaves out. It
// may be asked by several at a time.
type Singly struct {
	mu  sync.Mutex
	f   *follower
	all []model.Route
}

// NewSingly gets ready to follow the routes of a survey.
func NewSingly(r *reading.Reading) *Singly {
	s := &Singly{f: newFollower(r), all: routes.Of(r.Survey)}
	s.f.begins(s.all)
	return s
}

// Of follows the route that is as it is asked for; nil where none is.
func (s *Singly) Of(is func(model.Route) bool) *model.Journey {
	at := slices.IndexFunc(s.all, is)
	if at < 0 {
		return nil
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	j := s.f.route(&s.all[at])
	return &j
}

// newFollower knows what is done to what is kept, and what is said in words.
func newFollower(r *reading.Reading) *follower {
	f := &follower{r: r, g: calls.Of(r.Survey), at: make(map[string]int, len(r.Files))}
	for i, file := range r.Files {
		f.at[file.Path] = i
	}
	f.operations()
	f.sayings()
	return f
}

// messages follows all that is received.
func (f *follower) messages() (out []model.Journey) {
	for _, m := range relations.Messages(f.r.Survey) {
		if m.Direction == model.Receive && f.r.Judged[m.Path] && !f.r.IsTest(m.Path) && len(out) < maxStarts {
			out = append(out, f.message(m))
		}
	}
	return out
}

// operations puts what is done to entities with the definition that holds its line.
func (f *follower) operations() {
	f.done = map[calls.Ref][]model.JourneyOperation{}
	for _, e := range relations.Entities(f.r.Survey) {
		for _, what := range []string{model.Create, model.Update, model.Delete, model.Read} {
			for _, p := range e.Operations[what] {
				if i, ok := f.at[p.Path]; ok && f.r.Judged[p.Path] {
					at := f.g.At(i, p.Line)
					f.done[at] = append(f.done[at], model.JourneyOperation{Entity: e.Name, What: what, Path: p.Path, Line: p.Line})
				}
			}
		}
	}
}

// sayings puts what is sent or asked of other systems with its definition.
func (f *follower) sayings() {
	f.sent = map[calls.Ref][]saying{}
	put := func(p string, line int, text string) {
		if i, ok := f.at[p]; ok && f.r.Judged[p] {
			at := f.g.At(i, line)
			f.sent[at] = append(f.sent[at], saying{line, text})
		}
	}
	for _, m := range relations.Messages(f.r.Survey) {
		if m.Direction == model.Send {
			put(m.Path, m.Line, "sends the message "+m.Name)
		}
	}
	for _, file := range f.r.Files {
		if file.Facts == nil {
			continue
		}
		for _, c := range file.Facts.Calls {
			if c.Host != "" {
				put(file.Path, c.Line, "asks "+c.Host)
			}
		}
	}
}

// span is the part of a definition that a journey begins in.
type span struct {
	ref      calls.Ref
	from, to int
}

func whole(r calls.Ref) span { return span{r, 0, 1 << 30} }

// route follows what answers a route.
func (f *follower) route(r *model.Route) model.Journey {
	j := model.Journey{Route: r, Start: model.JourneyStart{Kind: model.StartRoute, Path: r.Path, Line: r.Line}}
	at, ok := f.handler(r)
	if !ok {
		j.Broken = "what answers it could not be told"
		if r.HandlerName != "" {
			j.Broken = "what answers it, " + r.HandlerName + ", could not be found"
		}
		return j
	}
	f.follow(&j, at)
	return j
}

// handler finds the definition that answers a route: the one that is named, the
// lines where it is written in place, or the function that the line of the route
// names in some other way.
func (f *follower) handler(r *model.Route) (span, bool) {
	file, ok := f.at[r.Path]
	if !ok {
		return span{}, false
	}
	if r.HandlerPath != "" {
		if at, ok := f.named(r); ok {
			return whole(at), true
		}
	}
	here := f.g.At(file, r.Line)
	if r.InPlace {
		return f.from(here, r.Path, r.Line), true
	}
	for _, e := range slices.Backward(f.g.From(here)) {
		if int(e.Line) == r.Line && e.Kind == model.CallRead && f.runs(e.To) {
			return whole(e.To), true
		}
	}
	return span{}, false
}

// begins notes where routes and messages come in, file by file.
func (f *follower) begins(all []model.Route) {
	f.inPlace = map[string][]opening{}
	for _, r := range all {
		f.inPlace[r.Path] = append(f.inPlace[r.Path], opening{r.Line, r.InPlace})
	}
	for _, m := range relations.Messages(f.r.Survey) {
		if m.Direction == model.Receive {
			f.inPlace[m.Path] = append(f.inPlace[m.Path], opening{m.Line, true})
		}
	}
}

// from is what is written in place at a line: up to where the next comes in.
func (f *follower) from(at calls.Ref, path string, line int) span {
	to := 1 << 30
	for _, next := range f.inPlace[path] {
		if next.line > line {
			to = min(to, next.line)
		}
	}
	return span{at, line, to}
}

// named finds a handler by its file, line and name.
func (f *follower) named(r *model.Route) (calls.Ref, bool) {
	i, ok := f.at[r.HandlerPath]
	if !ok || f.r.Files[i].Facts == nil {
		return calls.Ref{}, false
	}
	last := r.HandlerName[strings.LastIndexAny(r.HandlerName, ".:#@/\\>")+1:]
	best := calls.Ref{Definition: -1}
	for d := range f.r.Files[i].Facts.Definitions {
		def := &f.r.Files[i].Facts.Definitions[d]
		at := calls.Ref{File: int32(i), Definition: int32(d)}
		// What is kept under a name may be a function that another was handed.
		wraps := (def.Kind == model.DefVariable || def.Kind == model.DefConstant) && def.EndLine > def.Line && len(f.g.From(at)) > 0
		if def.Line == r.HandlerLine && (f.runs(at) || wraps) {
			return at, true
		}
		if best.Definition < 0 && strings.EqualFold(def.Name, last) && f.runs(at) {
			best = at
		}
		if def.Line == r.HandlerLine && def.Kind == model.DefClass {
			if own, ok := f.steps(at); ok {
				return own, true
			}
			if len(def.Bases) > 0 {
				return at, true // all that it does its base does
			}
		}
	}
	return best, best.Definition >= 0
}

// classSteps are methods in which a class that answers says what it does, where its
// base takes the request: the most telling first.
var classSteps = []string{"form_valid", "perform_create", "perform_update", "dispatch", "get_queryset", "get_object", "get_context_data"}

// steps is the most telling method of a class that answers a route, its own or
// that of what it is built upon here; else its first that others may call.
func (f *follower) steps(at calls.Ref) (best calls.Ref, ok bool) {
	for depth := 0; depth < maxBases; depth++ {
		own, rank := f.stepsOf(at)
		if rank < len(classSteps) {
			return own, true
		}
		if rank == len(classSteps) && !ok {
			best, ok = own, true
		}
		base := slices.IndexFunc(f.g.From(at), func(e calls.Edge) bool { return e.Kind == model.CallInherit && e.Sure })
		if base < 0 {
			break
		}
		at = f.g.From(at)[base].To
	}
	return best, ok
}

// maxBases is over how many bases a step is looked for.
const maxBases = 5

// stepsOf is the most telling method of a class by itself, with its place among the
// steps; behind them all where nothing is told but that others may call it, and
// beyond that where there is none.
func (f *follower) stepsOf(class calls.Ref) (best calls.Ref, rank int) {
	rank = len(classSteps) + 1
	of := f.g.Definition(class)
	if of == nil {
		return best, rank
	}
	invoked := syntax.ProfileOf(f.r.Files[class.File].Language).Invoked
	for d := range f.r.Files[class.File].Facts.Definitions {
		def, at := &f.r.Files[class.File].Facts.Definitions[d], calls.Ref{File: class.File, Definition: int32(d)}
		if def.Parent != of.Qualified() || !f.runs(at) {
			continue
		}
		if def.Name == invoked {
			return at, 0
		}
		n := slices.Index(classSteps, def.Name)
		if n < 0 && !strings.HasPrefix(def.Name, "_") {
			n = len(classSteps)
		}
		if n >= 0 && n < rank {
			best, rank = at, n
		}
	}
	return best, rank
}

// runs reports whether a definition has a body that does something.
func (f *follower) runs(r calls.Ref) bool {
	d := f.g.Definition(r)
	return d != nil && r.Member == 0 && (d.Kind == model.DefFunction || d.Kind == model.DefMethod || d.Kind == model.DefComponent)
}

func (f *follower) message(m model.Message) model.Journey {
	j := model.Journey{Start: model.JourneyStart{Kind: model.StartMessage, Path: m.Path, Name: m.Name, Line: m.Line}}
	at := f.g.At(f.at[m.Path], m.Line)
	for _, e := range f.g.From(at) {
		if int(e.Line) == m.Line && e.Kind == model.CallRead && f.runs(e.To) {
			f.follow(&j, whole(e.To))
			return j
		}
	}
	f.follow(&j, f.from(at, m.Path, m.Line))
	return j
}

// command follows what a program does when it starts; what it writes in place to
// answer requests it does not do by itself.
func (f *follower) command(e model.Entry) model.Journey {
	j := model.Journey{Start: model.JourneyStart{Kind: model.StartCommand, Path: e.Path, Line: e.Line}}
	at := f.g.At(f.at[e.Path], e.Line)
	j.Start.Name = f.g.Name(at)
	own := whole(at)
	for _, o := range f.inPlace[e.Path] {
		if o.here && f.g.At(f.at[e.Path], o.line) == at {
			own.to = min(own.to, o.line)
		}
	}
	f.follow(&j, own)
	return j
}

// step is a definition on the way, with where it was come from.
type step struct {
	span
	before int // index of the step before, -1 for the first
	line   int // of the call
	tie    model.Tie
	deep   int
}

// follow comes through all that a start reaches, and tells the main way.
func (f *follower) follow(j *model.Journey, at span) {
	steps := f.reach(at)
	var way []int
	for i := f.end(steps); i >= 0; i = steps[i].before {
		way = append(way, i)
	}
	slices.Reverse(way)
	tie := model.TieSure
	for _, i := range way {
		s := &steps[i]
		if s.tie == model.TieLikely {
			tie = model.TieLikely
		}
		stop := model.JourneyStop{Path: f.g.Path(s.ref), Name: f.g.Name(s.ref), From: s.line, Tie: tie}
		stop.Role = f.r.Role(stop.Path)
		if d := f.g.Definition(s.ref); d != nil {
			stop.Line = d.Line
		}
		if i == 0 && at.from > 0 {
			stop.Line = at.from
		}
		f.inside(&stop, s)
		j.Stops = append(j.Stops, stop)
	}
	j.Others = len(steps) - len(way)
	f.outcome(j, steps)
}

// inside tells what a stop holds: the bounds of a transaction, and what becomes of
// faults.
func (f *follower) inside(stop *model.JourneyStop, s *step) {
	file, d := f.r.Files[s.ref.File], f.g.Definition(s.ref)
	if d == nil {
		return
	}
	for i := range file.Facts.Definitions {
		// A mark of the class holds for its methods.
		if x := &file.Facts.Definitions[i]; x == d || x.Qualified() == d.Parent {
			if k := slices.IndexFunc(x.Marks, bounding.MatchString); k >= 0 {
				stop.Bounds = strings.Trim(x.Marks[k], "@[]")
			}
		}
	}
	holds := func(line int) bool { return line >= d.Line && line <= d.EndLine && s.holds(line) }
	for _, r := range file.Facts.Runs {
		if r.Kind == model.RunBounds && holds(r.Line) && stop.Bounds == "" {
			stop.Bounds = r.Name
		}
	}
	for _, x := range file.Facts.Faults {
		if x.What != model.FaultCatch && holds(x.Line) {
			stop.Faults = append(stop.Faults, x)
		}
	}
}

// bounding are marks that make a transaction of what they stand above.
var bounding = regexp.MustCompile(`(?i)^@?\[?(?:[\w.]*\.)?(?:transactional|transaction|atomic|unitofwork)\b`)

// reach follows the links from a start, depth first.
func (f *follower) reach(at span) []step {
	steps := []step{{span: at, before: -1, tie: model.TieSure}}
	seen := map[calls.Ref]bool{}
	if at.from == 0 {
		seen[at.ref] = true
	}
	var come func(i int)
	come = func(i int) {
		s := steps[i]
		if s.deep >= maxDeep {
			return
		}
		next := sureFirst(f.g.From(s.ref))
		if i == 0 {
			// Who asks who is there may come through half of the code for it.
			later := func(e calls.Edge) int { return boolInt(f.letsIn(e.To)) }
			next = slices.Clone(next)
			slices.SortStableFunc(next, func(a, b calls.Edge) int { return cmp.Compare(later(a), later(b)) })
		}
		for _, e := range next {
			if int(e.Line) < s.from || int(e.Line) >= s.to || len(steps) >= maxReached {
				continue
			}
			if e.Kind != model.CallPlain && e.Kind != model.CallRender && e.Kind != model.CallInject || !f.runs(e.To) || seen[e.To] {
				continue
			}
			if p := f.g.Path(e.To); !f.r.Judged[p] || f.r.IsTest(p) {
				continue
			}
			seen[e.To] = true
			tie := model.TieSure
			if !e.Sure {
				tie = model.TieLikely
			}
			steps = append(steps, step{whole(e.To), i, int(e.Line), tie, s.deep + 1})
			come(len(steps) - 1)
		}
	}
	come(0)
	return steps
}

// sureFirst puts what is certain of a line before what may answer there besides: a
// base before its heirs, of which most ways come through none.
func sureFirst(all []calls.Edge) []calls.Edge {
	if !slices.ContainsFunc(all, func(e calls.Edge) bool { return !e.Sure }) {
		return all
	}
	all = slices.Clone(all)
	slices.SortStableFunc(all, func(a, b calls.Edge) int {
		return cmp.Or(cmp.Compare(a.Line, b.Line), cmp.Compare(boolInt(!a.Sure), boolInt(!b.Sure)))
	})
	return all
}

func boolInt(b bool) int {
	if b {
		return 1
	}
	return 0
}

func (s *step) holds(line int) bool { return line >= s.from && line < s.to }

// outcome tells what a journey does and how it ends.
func (f *follower) outcome(j *model.Journey, steps []step) {
	type key struct{ entity, what string }
	done := map[key]bool{}
	said := map[string]bool{}
	for i := range steps {
		s := &steps[i]
		for _, o := range f.done[s.ref] {
			if k := (key{o.Entity, o.What}); s.holds(o.Line) && !done[k] {
				done[k] = true
				j.Operations = append(j.Operations, o)
			}
		}
		for _, x := range f.sent[s.ref] {
			if s.holds(x.line) && !said[x.text] {
				said[x.text] = true
				j.Ends = append(j.Ends, fmt.Sprintf("%s (%s:%d)", x.text, path.Base(f.g.Path(s.ref)), x.line))
			}
		}
	}
	slices.SortStableFunc(j.Operations, func(a, b model.JourneyOperation) int {
		return cmp.Or(cmp.Compare(a.Entity, b.Entity), cmp.Compare(a.What, b.What))
	})
	verbs := map[string]string{model.Create: "creates", model.Read: "reads", model.Update: "changes", model.Delete: "deletes"}
	var kept []string
	for _, o := range j.Operations {
		kept = append(kept, verbs[o.What]+" "+o.Entity)
	}
	if len(kept) > 0 {
		j.Ends = append([]string{strings.Join(kept, ", ")}, j.Ends...)
	}
}

// skipped tells of each route what most of those beside it come through and it
// does not: of at least three whose handlers lie in one folder.
func (f *follower) skipped(all []model.Journey) {
	beside := map[string][]int{}
	for i := range all {
		if len(all[i].Stops) > 0 {
			d := model.FolderOf(all[i].Stops[0].Path)
			beside[d] = append(beside[d], i)
		}
	}
	for _, group := range beside {
		if len(group) < 3 {
			continue
		}
		for _, role := range []model.Role{model.RoleSchema, model.RoleLogic, model.RoleDataAccess} {
			var without []int
			for _, i := range group {
				if !slices.ContainsFunc(all[i].Stops, func(s model.JourneyStop) bool { return s.Role == role }) {
					without = append(without, i)
				}
			}
			if with := len(group) - len(without); 4*with >= 3*len(group) {
				for _, i := range without {
					all[i].Skipped = append(all[i].Skipped, role)
				}
			}
		}
	}
}
