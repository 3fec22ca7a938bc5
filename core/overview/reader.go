package overview

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"path"
	"slices"
	"sort"
	"strings"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/patterns"
	"jantel/core/smells"
	"jantel/core/weave"
)

// Reason is a place with why it is named.
type Reason struct {
	Path string `json:"path"`
	Line int    `json:"line"`
	Why  string `json:"why"`
}

// Practice is one line of the checklist beside the score.
type Practice struct {
	Name     string           `json:"name"`
	Found    bool             `json:"found"`
	Text     string           `json:"text"`
	Evidence []model.Evidence `json:"evidence"`
}

// uses counts how many judged files need each file, once each.
func uses(s *model.Survey, j *judgement.Result, place string) map[string]int {
	out := map[string]int{}
	from, needs := "", false
	last := map[string]string{} // which file was the last to need each: those of a file stand together
	for i := range s.Links {
		l := &s.Links[i]
		if l.From != from {
			from, needs = l.From, j.InScope[l.From] && j.Roles[l.From].Role != model.RoleTest
		}
		if !needs || l.Kind.Repeats() || last[l.To] == from || !j.InScope[l.To] || !model.Within(place, l.To) {
			continue
		}
		last[l.To] = from
		out[l.To]++
	}
	return out
}

// strong names what is good, first: it is what a reader can rely on.
func strong(s *model.Survey, j *judgement.Result, place string, sh *Sheet) []Sentence {
	out := []Sentence{}
	add := func(ev []model.Evidence, format string, args ...any) {
		out = append(out, Sentence{fmt.Sprintf(format, args...), places(ev)})
	}
	if sh.Totals.Source < 5 {
		return out
	}
	rings := 0
	for _, c := range j.Cycles {
		if model.Within(place, c.Members[0]) {
			rings++
		}
	}
	if rings == 0 && sh.Totals.Links >= 10 {
		add(nil, "Dependencies run one way: no files and no folders need each other in a ring.")
	}
	// Tests beside or below what they test.
	tests, source := 0, 0
	var ev []model.Evidence
	for f := range j.Reading.Code(place) {
		if j.Reading.IsTest(f.Path) {
			tests += f.Facts.Code
			if len(ev) < 6 {
				ev = append(ev, model.Evidence{Path: f.Path})
			}
		} else {
			source += f.Facts.Code
		}
	}
	if source > 0 && 100*tests/(tests+source) >= 20 {
		add(ev, "It is tested: %d %% of its code is tests.", 100*tests/(tests+source))
	}
	if n := sh.Score.Names; n != nil && *n >= 95 {
		add(nil, "Its names are consistent: hardly a rule on names is hit.")
	}
	// Small parts.
	long, functions := 0, 0
	for f := range j.Reading.Own(place) {
		if j.Reading.IsTest(f.Path) {
			continue
		}
		for _, d := range f.Facts.Definitions {
			if d.Kind == model.DefFunction || d.Kind == model.DefMethod || d.Kind == model.DefComponent {
				functions++
				if d.EndLine-d.Line+1 > 40 {
					long++
				}
			}
		}
	}
	if functions >= 20 && 100*long/functions <= 5 {
		add(nil, "Its parts are small: %d of %s functions are longer than 40 lines.", long, naming.Figure(functions))
	}
	if c := j.Cut; place == "." && (c.Label == model.CutByFeature || c.Label == model.CutInside) {
		add(c.Evidence, "What belongs together lies together: it is cut %s.", c.Label)
	}
	purposes, folders := 0, 0
	for _, d := range j.Folders {
		if model.Within(place, d.Path) && d.JudgedLines > 0 {
			folders++
			if d.Purpose.Source == "author" {
				purposes++
			}
		}
	}
	if folders >= 4 && 2*purposes >= folders {
		add(nil, "Its authors say what %d of %d folders are for.", purposes, folders)
	}
	return out
}

// cutSentences say how the codebase is cut and, where its modules are built in
// different ways, which is built how.
// mostOtherwise is of how many folders one sentence says that they are cut
// otherwise; where there are more, no single one is worth naming.
const mostOtherwise = 4

func cutSentences(j *judgement.Result, sh *Sheet, add func([]model.Evidence, string, ...any)) {
	if sh.Place != "." {
		return
	}
	spread, far, several := 0, 4, 0
	var ev []model.Evidence
	for _, f := range j.Features {
		if len(f.Files) > 1 {
			several++ // one file alone lies in one folder, whatever the cut
		}
		if f.Scatter >= far {
			spread++
			if len(ev) < 12 {
				ev = append(ev, model.Evidence{Path: f.Files[0], Note: fmt.Sprintf("%s lies in %d folders", f.Name, f.Scatter)})
			}
		}
	}
	// Where the leading pattern is the cut, it was said.
	said := len(sh.Patterns) > 0 && sh.Verdict != "undecided" && sh.Patterns[0].Name == strings.TrimSuffix(j.Cut.Label, ", kinds inside")
	switch label := j.Cut.Label; {
	case label == "", said && len(ev) == 0:
	case several >= 3 && (label != model.CutByKind || 4*spread >= several):
		if spread == 0 {
			add(nil, "It is cut %s: each of its %d features lies in %d folders or fewer.", spokenCut(label), several, far-1)
			break
		}
		// How far features are spread is told where it bears the cut out.
		lie := "lie"
		if spread == 1 {
			lie = "lies"
		}
		if said {
			add(ev, "Of %d features %d %s in %d folders or more.", several, spread, lie, far)
			break
		}
		add(ev, "It is cut %s: %d of %d features %s in %d folders or more.", spokenCut(label), spread, several, lie, far)
	case !said:
		add(j.Cut.Evidence, "It is cut %s.", spokenCut(label))
	}
	if n := len(j.Cut.Levels); n > 0 && n <= mostOtherwise {
		var within []string
		var at []model.Evidence
		for _, l := range j.Cut.Levels {
			within = append(within, fmt.Sprintf("below %s %s", l.Path, spokenCut(l.Label)))
			at = append(at, model.Evidence{Path: l.Path, Note: "cut " + l.Label})
		}
		add(at, "Not everywhere alike: %s.", list(within))
	}
	var parts []string
	var at []model.Evidence
	kinds := map[string]bool{}
	for _, m := range j.Modules {
		if m.Files < 5 || len(parts) == 5 || patterns.Verdict(m.Patterns) == "undecided" {
			continue
		}
		p := m.Patterns[0]
		kinds[p.Name] = true
		where := m.Path
		if where == "." {
			where = "the rest"
		}
		parts = append(parts, fmt.Sprintf("%s is %s", where, Spoken(p.Name)))
		at = append(at, model.Evidence{Path: m.Path, Note: p.For[0].Text})
	}
	if len(kinds) > 1 && len(parts) > 1 {
		add(at, "It is built in several ways: %s.", list(parts))
	}
}

func spokenCut(label string) string {
	switch label {
	case model.CutMixed:
		return "partly by feature and partly by kind"
	case model.CutByKind:
		return "by technical kind"
	}
	return label
}

// places is never nil, as the interface wants its lists.
func places(ev []model.Evidence) []model.Evidence {
	if ev == nil {
		return []model.Evidence{}
	}
	return ev
}

// hurts orders smells by strength, how recently and often their files change,
// and how much needs them: where work will meet them first.
func hurts(s *model.Survey, j *judgement.Result, place string, used map[string]int) []Reason {
	newest := int64(0)
	if s.History != nil {
		newest = s.History.Last
	}
	type ranked struct {
		Reason
		rank float64
	}
	best := map[string]ranked{}
	for _, sm := range j.Hits {
		if sm.Silenced != "" || !model.Within(place, sm.Path) {
			continue
		}
		f := s.File(sm.Path)
		if f == nil {
			continue
		}
		weight := 1.0
		if r := smells.Named(sm.Rule); r != nil {
			weight = r.Weight
		}
		n := used[sm.Path]
		rank := sm.Strength * weight * (1 + math.Log2(1+float64(n)))
		why := smells.Named(sm.Rule).Title
		if n > 0 {
			why += fmt.Sprintf("; %s it", need(n))
		}
		if h := s.History.File(sm.Path); h != nil {
			months := float64(newest-h.Last) / (30 * 24 * 3600)
			rank *= (1 + math.Log2(1+float64(h.Changes))) / (1 + months/6)
			why += fmt.Sprintf("; changed %s, last in %s", times(h.Changes), month(h.Last))
		}
		line := 0
		if sm.Line != nil {
			line = *sm.Line
		}
		r := ranked{Reason{sm.Path, line, why}, math.Round(rank*1e4) / 1e4}
		if old, ok := best[sm.Path]; !ok || r.rank > old.rank {
			best[sm.Path] = r
		}
	}
	all := make([]ranked, 0, len(best))
	for _, r := range best {
		all = append(all, r)
	}
	sort.Slice(all, func(a, b int) bool {
		if all[a].rank != all[b].rank {
			return all[a].rank > all[b].rank
		}
		return all[a].Path < all[b].Path
	})
	out := []Reason{}
	for _, r := range all[:min(5, len(all))] {
		out = append(out, r.Reason)
	}
	return out
}

func need(n int) string {
	if n == 1 {
		return "one file needs"
	}
	return fmt.Sprintf("%d files need", n)
}

// readFirst names the files to read first, each with one reason.
func readFirst(s *model.Survey, j *judgement.Result, place string, entries []model.Evidence, used map[string]int) []Reason {
	out := []Reason{}
	seen := map[string]bool{}
	add := func(p string, line int, format string, args ...any) {
		if !seen[p] && len(out) < 8 {
			seen[p] = true
			out = append(out, Reason{p, line, fmt.Sprintf(format, args...)})
		}
	}
	source := func(p string) bool {
		f := s.File(p)
		return f != nil && model.Within(place, p) && j.Reading.IsSource(f)
	}
	// The program itself goes before what is run by hand beside it.
	byHand := map[string]bool{}
	for _, e := range j.Entries {
		byHand[e.Path] = e.Kind == model.EntryScript
	}
	after := func(late bool) int {
		if late {
			return 1
		}
		return 0
	}
	first := slices.Clone(entries)
	slices.SortStableFunc(first, func(a, b model.Evidence) int {
		// Of many that are asked for alike one that is called so is the first.
		return cmp.Or(
			cmp.Compare(after(byHand[a.Path]), after(byHand[b.Path])), cmp.Compare(after(!called[stemOf(a)]), after(!called[stemOf(b)])),
		)
	})
	for _, e := range first[:min(2, len(first))] {
		add(e.Path, e.Line, "where it starts")
	}
	for i := range j.Features {
		// One feature in depth, then the others are like it.
		if f := &j.Features[i]; f.Specimen {
			parts := slices.Sorted(maps.Keys(f.Parts))
			for k, p := range weave.InReadingOrder(f, j.Roles) {
				if k == 0 && source(p) {
					add(p, 0, "%s is built as most features here are: of %s", f.Name, list(parts))
				}
			}
		}
	}
	rank := func(n map[string]int, take int, format string) {
		var ps []string // the first of all, the highest first
		for p, k := range n {
			at := sort.Search(len(ps), func(i int) bool { return n[ps[i]] < k || n[ps[i]] == k && ps[i] > p })
			if k > 1 && at < take && source(p) {
				ps = slices.Insert(ps, at, p)
				ps = ps[:min(take, len(ps))]
			}
		}
		for _, p := range ps {
			add(p, 0, format, n[p])
		}
	}
	rank(used, 2, "most depended on: %d files need it")
	changed, size := map[string]int{}, map[string]int{}
	for _, f := range s.Files {
		if h := s.History.File(f.Path); h != nil {
			changed[f.Path] = h.Changes
		}
		if f.Facts != nil {
			size[f.Path] = f.Facts.Code
		}
	}
	rank(changed, 2, "most changed: %d times")
	rank(size, 2, "the largest: %d lines of code")
	return out
}

// ask says who knows what, from who changed the files of each part, and
// whether they are still at work on it.
func ask(s *model.Survey, j *judgement.Result, place string) []Sentence {
	out := []Sentence{}
	if s.History == nil {
		return out
	}
	type know struct {
		name  string
		files int
	}
	parts := map[string]map[string]*know{}
	for f := range j.Reading.Own(place) {
		h := s.History.File(f.Path)
		if h == nil || len(h.Authors) == 0 {
			continue
		}
		rest := f.Path
		if place != "." {
			rest = strings.TrimPrefix(f.Path, place+"/")
		}
		part, _, inside := strings.Cut(rest, "/")
		if !inside {
			continue
		}
		if parts[part] == nil {
			parts[part] = map[string]*know{}
		}
		who := ""
		for name, n := range h.Authors {
			if best := h.Authors[who]; who == "" || n > best || n == best && name < who {
				who = name
			}
		}
		k := parts[part][who]
		if k == nil {
			k = &know{name: who}
			parts[part][who] = k
		}
		k.files++
	}
	active := map[string]int64{}
	for _, a := range s.History.Authors {
		active[a.Name] = a.Last
	}
	names := make([]string, 0, len(parts))
	for p := range parts {
		names = append(names, p)
	}
	sort.Strings(names)
	for _, p := range names {
		var all []*know
		total := 0
		for _, k := range parts[p] {
			all = append(all, k)
			total += k.files
		}
		sort.Slice(all, func(a, b int) bool {
			if all[a].files != all[b].files {
				return all[a].files > all[b].files
			}
			return all[a].name < all[b].name
		})
		k := all[0]
		if len(out) == 6 {
			break
		}
		still := ""
		if last := active[k.name]; s.History.Last-last > 180*24*3600 {
			still = ", whose last commit is of " + month(last)
		}
		out = append(out, Sentence{
			fmt.Sprintf("On %s ask %s%s: most of the changes to %d of %d files.", p, k.name, still, k.files, total),
			[]model.Evidence{{Path: path.Join(place, p)}},
		})
	}
	return out
}

// practices is the checklist beside the score: what a codebase that is looked
// after has.
func practices(s *model.Survey, j *judgement.Result, place string, starts bool) []Practice {
	find := func(ok func(p, base string, f *model.File) bool) []model.Evidence {
		ev := []model.Evidence{}
		for _, f := range j.Reading.At(place) {
			if j.Origins[f.Path].Origin != model.OriginVendored && ok(f.Path, strings.ToLower(path.Base(f.Path)), f) && len(ev) < 6 {
				ev = append(ev, model.Evidence{Path: f.Path})
			}
		}
		return ev
	}
	has := func(base string, names ...string) bool {
		for _, n := range names {
			if strings.HasPrefix(base, n) {
				return true
			}
		}
		return false
	}
	uses := func(words ...string) []model.Evidence {
		ev := []model.Evidence{}
		for _, e := range s.External {
			p := strings.ToLower(e.Package)
			for _, w := range words {
				if strings.Contains(p, w) && model.Within(place, e.From) && j.InScope[e.From] && len(ev) < 6 {
					ev = append(ev, model.Evidence{Path: e.From, Line: e.Line, Note: e.Package})
					break
				}
			}
		}
		return ev
	}
	out := []Practice{}
	add := func(name string, ev []model.Evidence, yes, no string) {
		p := Practice{Name: name, Found: len(ev) > 0, Text: yes, Evidence: places(ev)}
		if !p.Found {
			p.Text = no
		}
		out = append(out, p)
	}
	runs := []model.Evidence{}
	for _, f := range j.Reading.At(place) {
		if f.Facts != nil && len(f.Facts.Commands) > 0 && strings.HasPrefix(strings.ToLower(path.Base(f.Path)), "readme") && len(runs) < 3 {
			runs = append(runs, model.Evidence{Path: f.Path, Line: f.Facts.Commands[0].Line, Note: f.Facts.Commands[0].Text})
		}
	}
	add("A README that says how to run it", runs, "It holds commands.", "No README with a command was found.")
	add("Tests", find(func(p, _ string, _ *model.File) bool {
		return j.Roles[p].Role == model.RoleTest && s.File(p).Facts != nil
	}), "There are tests.", "No test was found.")
	add("A build that checks each change", find(func(p, b string, _ *model.File) bool {
		return strings.Contains(p, ".github/workflows/") ||
			has(b, ".gitlab-ci", "jenkinsfile", ".travis", "azure-pipelines", "bitbucket-pipelines") || strings.HasPrefix(p, ".ci/") ||
			strings.HasPrefix(p, ".circleci/")
	}), "A definition is there.", "No definition of a build server was found.")
	add("A linter or formatter", find(func(_, b string, _ *model.File) bool {
		return has(
			b, ".eslintrc", "eslint.config", ".prettierrc", ".golangci", ".rubocop", ".flake8", "ruff.toml",
			".pylintrc", "phpcs.xml", "phpstan", ".editorconfig", "rustfmt.toml", "clippy.toml", ".clang-format",
			"biome.json", "checkstyle", ".perltidyrc", ".stylelintrc",
		)
	}), "Its configuration is there.", "No configuration of one was found.")
	add(
		"A licence", find(func(_, b string, _ *model.File) bool { return has(b, "license", "licence", "copying") }),
		"It is there.", "No licence was found.",
	)
	add("Locked versions", find(func(_, b string, _ *model.File) bool {
		switch b {
		case "package-lock.json", "yarn.lock", "pnpm-lock.yaml", "go.sum", "poetry.lock", "uv.lock", "cargo.lock",
			"composer.lock", "gemfile.lock", "packages.lock.json", "pipfile.lock", "bun.lock":
			return true
		}
		return false
	}), "A lock file is there.", "No lock file was found.")
	logs, logsKnown := logging(s, j, place)
	if len(logs) > 0 || logsKnown {
		add("Logging", logs, "A logger is used.", "No logger was found.")
	}
	served := served(s, j, place)
	monitors := uses("prometheus", "opentelemetry", "sentry", "datadog", "newrelic", "micrometer", "statsd", "prom-client")
	serves := len(served) > 0 && starts // a library only offers to
	if len(monitors) > 0 || serves {
		add("Monitoring", monitors, "Measures are handed out.", "Nothing that hands out measures was found.")
	}
	health := healthChecks(j.Reading, served, place)
	if len(health) > 0 || serves {
		add(
			"A health check", health, "Something asks, or is asked, whether it is well.",
			"No route, probe or registration for one was found.",
		)
	}
	return out
}

// called are names of what is to be looked at first.
var called = map[string]bool{"index": true, "main": true, "app": true, "server": true, "__main__": true, "program": true}

func stemOf(e model.Evidence) string { return strings.ToLower(naming.Stem(path.Base(e.Path))) }
