// Package rights tells who may do what: for each thing that can be asked of a
// system, where a right is checked: on the screen that offers it, at the route
// before it answers, or further in, on the way to what is kept. A check on the
// screen alone keeps nobody out.
package rights

import (
	"cmp"
	"maps"
	"regexp"
	"slices"
	"strings"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/reading"
	"jantel/core/relations"
)

// Where a right is checked, from outside to inside.
const (
	Screen = "screen"
	Route  = "route"
	Inside = "inside"
)

// What is missing of an action's checks.
const (
	// Open: nothing is asked, though most others that change something ask, or all
	// others that change the same thing.
	Open = "nothing is asked"
	// ScreenOnly: what the screen asks, nothing behind it does.
	ScreenOnly = "asked on the screen alone"
	// Less: most that change the same thing ask for a right that it does not.
	Less = "asks for less than others of it"
)

// RightCheck is one place that checks a right.
type RightCheck struct {
	Right string `json:"right" doc:"the right or role, as it is written; else the name of the check"`
	Where string `json:"where" enum:"screen,route,inside"`
	Path  string `json:"path"`
	Line  int    `json:"line"`
}

// Permitted is something that can be asked of a system over a route.
type Permitted struct {
	Method  string       `json:"method"`
	Pattern string       `json:"pattern"`
	Path    string       `json:"path"`
	Line    int          `json:"line"`
	Does    []string     `json:"does" doc:"what it changes, as far as that is followed: creates lots"`
	Changes bool         `json:"changes" doc:"it changes something, or its method says so"`
	Checks  []RightCheck `json:"checks"`
	Hole    string       `json:"hole" doc:"what is missing of its checks; empty where nothing is"`
	Lacks   string       `json:"lacks" doc:"the right that most others ask for and it does not"`
}

// Rights are all actions of a system, those with a hole first.
type Rights struct {
	Actions []Permitted `json:"actions"`
	// Names are the rights, the most often asked for first.
	Names []string `json:"names"`
}

// speaks are names that have to do with who somebody is and what he may.
var speaks = regexp.MustCompile(`(?i)auth|sign(?:ed)?_?in|log(?:ged)?_?in|permission|permit|allow|rights?(?:$|[^a-z])|roles?(?:$|[^a-z])|` +
	`secured|guard|protect|forbid|access|owner|member|admin|user|session|token|privilege|(?:^|[^a-z])(?:can|may)(?:$|[^a-z])|` +
	`^(?:can|may|must|ensure|require)(?-i:[A-Z_])|verified|bearer|jwt|apikey|api_key`)

// notRights are names that speak of the like and ask for no right.
var notRights = regexp.MustCompile(`(?i)csrf|author(?:$|s|[^i])|antiforgery|body|parse|validate|cache|limit|valid$|` +
	`AllowAnonymous|permit_?all|log(?:ger|ging)|url|redirect|origin|mime|extension|content`)

// Speaks reports whether the name of what is called before something is done
// speaks of a right.
func Speaks(name string) bool { return speaks.MatchString(name) && !notRights.MatchString(name) }

// quoted is what a guard is called with.
var quoted = regexp.MustCompile(`\(\s*["'` + "`" + `]?([^"'` + "`" + `()]+?)["'` + "`" + `]?\s*\)`)

// rightOf is the right that a guard asks for: what it is called with, else itself.
func rightOf(guard string) string {
	if m := quoted.FindStringSubmatch(guard); m != nil && !strings.ContainsAny(m[1], "=>{}") {
		return m[1]
	}
	name, _, _ := strings.Cut(guard, "(")
	return name
}

// teller is a survey on the way to its rights.
type teller struct {
	r      *reading.Reading
	g      *calls.Graph
	at     map[string]int                   // files by path
	checks map[calls.Ref][]runCheck         // by the definition that holds them
	sent   map[routeKey][]relations.Request // by the route they lead to
}

type routeKey struct {
	method, pattern, path string
	line                  int
}

func keyOf(r *model.Route) routeKey { return routeKey{r.Method, r.Pattern, r.Path, r.Line} }

type runCheck struct {
	name, right string
	line        int
}

// Of tells the rights of the routes that journeys were followed from. modules
// tells the module that a file belongs to: only within one it means something that
// one route asks and another does not.
func Of(r *reading.Reading, all []model.Journey, routes []model.Route, module func(path string) string) *Rights {
	t := &teller{r: r, g: calls.Of(r.Survey), at: make(map[string]int, len(r.Files)), checks: map[calls.Ref][]runCheck{}}
	for i, f := range r.Files {
		t.at[f.Path] = i
	}
	t.gather()
	t.sent = map[routeKey][]relations.Request{}
	requests, _ := relations.Requests(r.Survey, routes)
	for _, q := range requests {
		if q.Route != nil {
			t.sent[keyOf(q.Route)] = append(t.sent[keyOf(q.Route)], q)
		}
	}
	out := &Rights{Actions: []Permitted{}, Names: []string{}}
	for i := range all {
		if all[i].Route != nil {
			out.Actions = append(out.Actions, t.action(&all[i]))
		}
	}
	holes(out.Actions, module)
	count := map[string]int{}
	for i := range out.Actions {
		seen := map[string]bool{}
		for _, c := range out.Actions[i].Checks {
			if !seen[c.Right] {
				seen[c.Right] = true
				count[c.Right]++
			}
		}
	}
	for n := range count {
		out.Names = append(out.Names, n)
	}
	slices.SortFunc(out.Names, func(a, b string) int { return cmp.Or(cmp.Compare(count[b], count[a]), strings.Compare(a, b)) })
	slices.SortStableFunc(out.Actions, func(a, b Permitted) int {
		return cmp.Or(cmp.Compare(rank(&a), rank(&b)), strings.Compare(a.Pattern, b.Pattern), strings.Compare(a.Method, b.Method))
	})
	return out
}

// rank puts holes first, then what changes something.
func rank(a *Permitted) int {
	switch {
	case a.Hole == Open:
		return 0
	case a.Hole == ScreenOnly:
		return 1
	case a.Hole == Less:
		return 2
	case a.Changes:
		return 3
	}
	return 4
}

// gather puts the checks that code makes by itself with the definition that holds
// them.
func (t *teller) gather() {
	for i, f := range t.r.Files {
		if f.Facts == nil || t.r.IsTest(f.Path) || !t.r.Judged[f.Path] {
			continue
		}
		for _, run := range f.Facts.Runs {
			if run.Kind == model.RunAccess {
				at := t.g.At(i, run.Line)
				t.checks[at] = append(t.checks[at], runCheck{run.Name, cmp.Or(run.Right, run.Name), run.Line})
			}
		}
	}
}

func (t *teller) action(j *model.Journey) Permitted {
	r := j.Route
	a := Permitted{Method: r.Method, Pattern: r.Pattern, Path: r.Path, Line: r.Line, Does: []string{}, Checks: []RightCheck{}}
	a.Changes = r.Method != "GET" && r.Method != "HEAD" && r.Method != "OPTIONS" && r.Method != "ANY"
	for _, op := range j.Operations {
		if text := op.What + "s " + op.Entity; op.What != model.Read && !slices.Contains(a.Does, text) {
			a.Does = append(a.Does, text)
			a.Changes = true
		}
	}
	t.route(&a, r)
	for _, s := range j.Stops {
		i, ok := t.at[s.Path]
		if !ok {
			continue
		}
		t.inside(&a, t.g.At(i, s.Line), Inside)
	}
	for _, q := range t.sent[keyOf(r)] {
		t.screen(&a, q)
	}
	return a
}

// route adds what is asked at the route: by what stands before its handler, by marks,
// and by what is put on the routers above it.
func (t *teller) route(a *Permitted, r *model.Route) {
	put := func(name string) *model.RouteInsert {
		i := slices.IndexFunc(r.Around, func(x model.RouteInsert) bool { return x.Name == name })
		if i < 0 {
			return nil
		}
		return &r.Around[i]
	}
	for _, g := range r.Guards {
		if x := put(g); x == nil && Speaks(g) {
			a.add(RightCheck{t.marked(r, rightOf(g)), Route, r.Path, r.Line})
		}
	}
	for _, x := range r.Around {
		if x.When != model.InsertAfter && x.When != model.InsertError && Speaks(x.Name) {
			a.add(RightCheck{x.Name, Route, x.Path, x.Line})
		}
	}
}

func (a *Permitted) add(c RightCheck) {
	if !slices.Contains(a.Checks, c) {
		a.Checks = append(a.Checks, c)
	}
}

// inside adds the checks that a definition makes: by itself, and by calling what
// speaks of a right.
func (t *teller) inside(a *Permitted, at calls.Ref, where string) {
	path := t.g.Path(at)
	d := t.g.Definition(at)
	for _, c := range t.checks[at] {
		// A mark above the handler was counted at the route.
		if d != nil && hasMark(d, c.name) || where == Inside && t.atRoute(a, c.right) {
			continue
		}
		a.add(RightCheck{c.right, where, path, c.line})
	}
	for _, e := range t.g.From(at) {
		if e.Kind != model.CallPlain || !e.Sure {
			continue
		}
		name := t.g.Name(e.To)
		last := name[strings.LastIndexByte(name, '.')+1:]
		told := slices.ContainsFunc(t.checks[at], func(c runCheck) bool { return c.name == last && c.line == int(e.Line) })
		if !told && Speaks(last) && asksSomething(last) && !t.atRoute(a, last) {
			a.add(RightCheck{last, where, path, int(e.Line)})
		}
	}
}

// marked is the right that a mark of the handler or of its class asks for, where it
// is written in the mark; else the name of the mark itself.
func (t *teller) marked(r *model.Route, guard string) string {
	i, ok := t.at[cmp.Or(r.HandlerPath, r.Path)]
	if !ok {
		return guard
	}
	at := t.g.At(i, cmp.Or(r.HandlerLine, r.Line))
	for d := t.g.Definition(at); d != nil; d = t.around(i, d) {
		if !hasMark(d, guard) {
			continue
		}
		for _, run := range t.r.Files[i].Facts.Runs {
			near := run.Line >= d.Line-maxMarks && run.Line <= d.Line+maxMarks
			if near && run.Kind == model.RunAccess && run.Name == guard && run.Right != "" {
				return run.Right
			}
		}
	}
	return guard
}

// maxMarks is how many lines of marks stand before a definition at most.
const maxMarks = 8

// around is the definition that encloses another, nil where none does.
func (t *teller) around(file int, d *model.Definition) *model.Definition {
	all := t.r.Files[file].Facts.Definitions
	for k := range all {
		if d.Parent != "" && all[k].Qualified() == d.Parent {
			return &all[k]
		}
	}
	return nil
}

func hasMark(d *model.Definition, name string) bool {
	return slices.ContainsFunc(d.Marks, func(m string) bool {
		m, _, _ = strings.Cut(strings.Trim(m, "@[]"), "(")
		return m == name || strings.HasSuffix(m, "."+name)
	})
}

// atRoute reports whether the route asks for a right already.
func (t *teller) atRoute(a *Permitted, right string) bool {
	return slices.ContainsFunc(a.Checks, func(c RightCheck) bool { return c.Where == Route && c.Right == right })
}

// asks are names of functions that check: what only reads who somebody is keeps
// nobody out.
var asks = regexp.MustCompile(`^(?:[Cc]an|[Mm]ay|[Mm]ust|[Ii]s|[Hh]as|[Ee]nsure|[Rr]equire|[Cc]heck|[Aa]uthori[sz]e|[Aa]ssert|` +
	`[Aa]llow|[Dd]eny|[Vv]erify|[Ff]orbid|[Pp]rotect|[Gg]uard)(?:[A-Z_].*|s?$)`)

func asksSomething(name string) bool { return asks.MatchString(name) }

// maxBack is how many calls are gone back from a request to the screen.
const maxBack = 4

// screen adds what is checked where a request is sent from, and in what leads
// there.
func (t *teller) screen(a *Permitted, q relations.Request) {
	i, ok := t.at[q.Path]
	if !ok || t.r.IsTest(q.Path) {
		return
	}
	seen := map[calls.Ref]bool{}
	round := []calls.Ref{t.g.At(i, q.Line)}
	for depth := 0; depth <= maxBack && len(round) > 0 && len(seen) < 200; depth++ {
		var next []calls.Ref
		for _, at := range round {
			if seen[at] || t.r.IsTest(t.g.Path(at)) {
				continue
			}
			seen[at] = true
			t.inside(a, at, Screen)
			for _, e := range t.g.To(at) {
				next = append(next, e.From)
			}
		}
		round = next
	}
}

// groupKey is what routes of one module are about.
type groupKey struct{ module, thing string }

// holes tells what is missing of the checks. Only where rights are asked for in a
// module at all, and of half of what changes something, it means something that
// nothing is asked.
func holes(all []Permitted, module func(path string) string) {
	type tally struct{ changing, guarded int }
	by, groups := map[string]*tally{}, map[groupKey][]*Permitted{}
	keys := make([]groupKey, len(all))
	for i := range all {
		a := &all[i]
		keys[i] = groupKey{module(a.Path), thing(a.Pattern)}
		n := by[keys[i].module]
		if n == nil {
			n = &tally{}
			by[keys[i].module] = n
		}
		if a.Changes {
			groups[keys[i]] = append(groups[keys[i]], a)
			n.changing++
			if a.kept() {
				n.guarded++
			}
		}
	}
	for i := range all {
		a, like := &all[i], groups[keys[i]]
		switch n := by[keys[i].module]; {
		case a.kept():
			a.less(like)
		case len(a.Checks) > 0:
			a.Hole = ScreenOnly
		case !a.Changes || opens.MatchString(a.Pattern):
		case n.guarded > 0 && 2*n.guarded >= n.changing-1, a.alone(like):
			a.Hole = Open
		}
	}
}

// alone reports whether all others that change the same thing check a right, two of
// them at least.
func (a *Permitted) alone(like []*Permitted) bool {
	return len(like) > 2 && !slices.ContainsFunc(like, func(b *Permitted) bool { return b != a && !b.kept() })
}

// opens are addresses by which one comes to have rights.
var opens = regexp.MustCompile(`(?i)log-?in|sign-?(?:in|up)|register|password|forgot|reset|token|oauth|callback|webhook|` +
	`session|health|invit`)

// kept reports whether a right is checked behind the screen.
func (a *Permitted) kept() bool {
	return slices.ContainsFunc(a.Checks, func(c RightCheck) bool { return c.Where != Screen })
}

// less tells the right that most others which change the same thing ask for and the
// action does not: of three or more others, three quarters. What asks for a second
// right of its own asks for another, not for less.
func (a *Permitted) less(like []*Permitted) {
	own := a.names()
	if !a.Changes || len(own) > 1 {
		return
	}
	asked := map[string]int{}
	for _, b := range like {
		for _, n := range b.names() {
			asked[n]++
		}
	}
	others := len(like) - 1
	for _, n := range slices.Sorted(maps.Keys(asked)) {
		if others >= 3 && 4*asked[n] >= 3*others && !slices.Contains(own, n) {
			a.Hole, a.Lacks = Less, n
			return
		}
	}
}

// names are the rights that are asked for behind the screen.
func (a *Permitted) names() (out []string) {
	for _, c := range a.Checks {
		if c.Where != Screen && !slices.Contains(out, c.Right) {
			out = append(out, c.Right)
		}
	}
	return out
}

// thing is what an address is about: its first part that is no version and no
// common beginning. POST /api/lots/add is about lots, as /api/lots/:id is.
func thing(pattern string) string {
	for part := range strings.SplitSeq(strings.Trim(pattern, "/"), "/") {
		if part != "" && !common.MatchString(part) {
			return part
		}
	}
	return ""
}

var common = regexp.MustCompile(`^(?:api|rest|v\d+|[:*{<\[(].*)$`)
