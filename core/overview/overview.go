// Package overview says in plain computed sentences what a codebase is. Every
// sentence carries the places it rests on.
package overview

import (
	"cmp"
	"path"
	"regexp"
	"slices"
	"sort"
	"strings"
	"sync"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/parallel"
	"jantel/core/patterns"
	"jantel/core/reading"
	"jantel/core/syntax"
)

// Sentence is a statement with what it rests on.
type Sentence struct {
	Text     string           `json:"text"`
	Evidence []model.Evidence `json:"evidence"`
}

// Share is how much of the code is in one language.
type Share struct {
	Language string  `json:"language"`
	Files    int     `json:"files"`
	Lines    int     `json:"lines"`
	Share    float64 `json:"share"`
}

// Run is a command the project's own files tell.
type Run struct {
	Purpose string `json:"purpose"` // build, run, test, check, other
	Text    string `json:"text"`
	Path    string `json:"path"`
	Line    int    `json:"line"`
	Says    string `json:"says"` // what stands behind it, as written
}

// Sheet is the overview of a place.
type Sheet struct {
	Place     string               `json:"place"`
	Title     string               `json:"title"`
	Purpose   model.Purpose        `json:"purpose"`
	Origin    model.Origin         `json:"origin"`
	Sentences []Sentence           `json:"sentences"`
	Verdict   string               `json:"verdict"`
	Patterns  []model.PatternMatch `json:"patterns"`
	Score     model.Legibility     `json:"score"`
	Strains   []model.Strain       `json:"strains"`
	Resolved  int                  `json:"resolved"`
	Unsolved  int                  `json:"unresolved"`
	Worst     []model.Smell        `json:"worst"`
	Smells    int                  `json:"smells"`
	Languages []Share              `json:"languages"`
	Totals    Totals               `json:"totals"`
	Runs      []Run                `json:"runs"`
	System    []Roster             `json:"system"`
	Strong    []Sentence           `json:"strong"`
	Hurts     []Reason             `json:"hurts"`
	ReadFirst []Reason             `json:"read_first"`
	// Then is the view that leads on: journeys where requests come in, parts where
	// things are drawn; "" elsewhere.
	Then      string           `json:"then"`
	Ask       []Sentence       `json:"ask"`
	Practices []Practice       `json:"practices"`
	Modules   []ModulePattern  `json:"modules"`
	Suspects  []Suspect        `json:"suspects" doc:"folders that look as if others had written them, of the whole codebase alone"`
	Entries   []model.Evidence `json:"entries"`
	Notes     []model.Note     `json:"notes"`
	NoteCount int              `json:"note_count"`
	Limited   bool             `json:"limited"` // the brief leaves part of the codebase out
}

// ModulePattern is which pattern a module shows, and how it is cut.
type ModulePattern struct {
	Path    string  `json:"path"`
	Name    string  `json:"name"`
	Pattern string  `json:"pattern"`
	Verdict string  `json:"verdict"`
	Score   float64 `json:"score"`
	Cut     string  `json:"cut"`
}

// Totals are the figures of a place.
type Totals struct {
	Files      int            `json:"files"`
	Source     int            `json:"source_files" doc:"judged files of program text"`
	Folders    int            `json:"folders"`
	Lines      int            `json:"lines"`
	CodeLines  int            `json:"code_lines"`
	Judged     int            `json:"judged_lines"`
	Bytes      int64          `json:"bytes"`
	Links      int            `json:"links"`
	External   int            `json:"external_packages"`
	Unresolved int            `json:"unresolved"`
	Partial    int            `json:"partial"`
	Skipped    map[string]int `json:"skipped"`
}

// Of writes the sheet for the codebase (".") or a folder of it.
func Of(s *model.Survey, j *judgement.Result, place string) *Sheet {
	d := j.Folder(place)
	if d == nil {
		return nil
	}
	sh := &Sheet{
		Place: place, Title: d.Name, Purpose: d.Purpose, Origin: s.Origin, Patterns: []model.PatternMatch{},
		Score: d.Legibility, Worst: []model.Smell{}, Languages: []Share{}, Runs: []Run{},
		Entries: []model.Evidence{}, Notes: []model.Note{}, Sentences: []Sentence{},
	}
	// None of these needs another; they only look.
	var beside parallel.Group
	beside.Go(func() { sh.System = system(s, j, place) })
	used := sync.OnceValue(func() map[string]int { return uses(s, j, place) })
	beside.Go(func() { sh.Hurts, sh.Ask = hurts(s, j, place, used()), ask(s, j, place) })
	sh.Totals = totals(s, j, place)
	sh.Languages = languages(s, j, place)
	sh.Strains = j.Scores.Arithmetic(place)
	if sh.Strains == nil {
		sh.Strains = []model.Strain{}
	}
	sh.Resolved, sh.Unsolved = j.Scores.Unresolved(place)
	here := slices.DeleteFunc(j.SmellsAt(place), func(sm *model.Smell) bool { return sm.Silenced != "" })
	sh.Smells = len(here)
	sh.Worst = Worst(here, 3)
	if ranking, ranked := rankingOf(j, place); ranked {
		sh.Patterns = ranking[:min(3, len(ranking))]
		sh.Verdict = patterns.Verdict(ranking)
	}
	sh.Runs = runs(s, j, place)
	sh.Entries = Entries(j, place)
	beside.Go(func() { sh.Practices = practices(s, j, place, len(sh.Entries) > 0) })
	sh.Then = leadsOn(s, j, place)
	sh.ReadFirst = readFirst(s, j, place, sh.Entries, used())
	beside.Wait()
	sh.Strong = strong(s, j, place, sh)
	sh.Modules = []ModulePattern{}
	for _, m := range j.Modules {
		if place == "." && len(j.Modules) > 1 && m.Files >= 5 {
			p := ModulePattern{Path: m.Path, Name: m.Name, Cut: m.Cut.Label, Verdict: patterns.Verdict(m.Patterns)}
			if len(m.Patterns) > 0 {
				p.Pattern, p.Score = m.Patterns[0].Name, m.Patterns[0].Score
			}
			sh.Modules = append(sh.Modules, p)
		}
	}
	for _, n := range slices.Concat(j.Notes, s.Notes) {
		if model.Within(place, n.Path) {
			sh.NoteCount++
			if len(sh.Notes) < 20 {
				sh.Notes = append(sh.Notes, n)
			}
		}
	}
	sh.Suspects = suspects(s, j, place)
	sh.Limited = len(j.Brief.In)+len(j.Brief.Out) > 0
	sh.Sentences = once(sentences(s, j, sh, d))
	return sh
}

// rankingOf is the ranking of patterns for the codebase or for one of its modules;
// other folders have none.
func rankingOf(j *judgement.Result, place string) ([]model.PatternMatch, bool) {
	if place == "." {
		return j.Patterns, true
	}
	for _, m := range j.Modules {
		if m.Path == place && len(j.Modules) > 1 && m.Files >= 5 {
			return m.Patterns, true
		}
	}
	return nil, false
}

// weighty is how many times less a fault of the structure may weigh than what is
// loudest and still go before it.
const weighty = 15

// Worst picks the smells to name first. What is wrong with the structure goes
// first, then what is wrong with single units, then the other side of the
// structure, where it has a weight worth the turn; the rest by their rank. No rule has two turns before all had one.
func Worst(all []*model.Smell, n int) []model.Smell {
	left := slices.Clone(all)
	slices.SortStableFunc(left, func(a, b *model.Smell) int { return cmp.Compare(b.Rank, a.Rank) })
	loudest := 0.0
	if len(left) > 0 {
		loudest = left[0].Rank
	}
	out := []model.Smell{}
	taken := map[string]bool{} // rules, and facets in the first three turns
	pick := func(ok func(sm *model.Smell) bool) bool {
		i := slices.IndexFunc(left, ok)
		if i < 0 || len(out) == n {
			return false
		}
		sm := left[i]
		taken[sm.Rule], taken[string(sm.Facet)] = true, true
		out = append(out, *sm)
		left = slices.Delete(left, i, i+1)
		return true
	}
	structure := func(sm *model.Smell) bool {
		return (sm.Facet == model.Layout || sm.Facet == model.Boundaries) && !taken[string(sm.Facet)] && weighty*sm.Rank >= loudest
	}
	pick(structure)
	pick(func(sm *model.Smell) bool { return sm.Facet == model.Units })
	pick(structure)
	for pick(func(sm *model.Smell) bool { return !taken[sm.Rule] }) {
		continue
	}
	for pick(func(*model.Smell) bool { return true }) {
		continue
	}
	return out
}

func totals(s *model.Survey, j *judgement.Result, place string) Totals {
	t := Totals{Skipped: map[string]int{}}
	for _, f := range j.Reading.At(place) {
		t.Files++
		t.Lines += f.Lines()
		t.Bytes += f.Bytes
		if f.Facts != nil {
			if j.InScope[f.Path] && reading.IsCode(f) {
				t.CodeLines += f.Facts.Code
				t.Source++
			}
			if f.Facts.Read == model.ReadPartial && f.Skipped == "" {
				t.Partial++
			}
		}
		if j.InScope[f.Path] {
			t.Judged += f.Lines()
		} else if why := j.Skipped(f); why != "" {
			t.Skipped[why]++
		}
	}
	for _, d := range j.Folders {
		if model.Within(place, d.Path) {
			t.Folders++
		}
	}
	for _, l := range s.Links {
		if model.Within(place, l.From) || model.Within(place, l.To) {
			t.Links++
		}
	}
	for _, u := range s.Unresolved {
		if model.Within(place, u.From) {
			t.Unresolved++
		}
	}
	packages := map[string]bool{}
	for _, e := range s.External {
		if model.Within(place, e.From) {
			packages[e.Package] = true
		}
	}
	t.External = len(packages)
	return t
}

func languages(s *model.Survey, j *judgement.Result, place string) []Share {
	by := map[string]*Share{}
	total := 0
	for f := range j.Reading.Own(place) {
		if f.Language == "" || !reading.IsCode(f) && !syntax.ProfileOf(f.Language).Counted {
			continue
		}
		x := by[f.Language]
		if x == nil {
			x = &Share{Language: f.Language}
			by[f.Language] = x
		}
		x.Files++
		x.Lines += f.Facts.Code
		total += f.Facts.Code
	}
	out := []Share{}
	for _, x := range by {
		if total > 0 {
			x.Share = float64(x.Lines*10000/total) / 10000
		}
		out = append(out, *x)
	}
	sort.Slice(out, func(i, k int) bool {
		if out[i].Lines != out[k].Lines {
			return out[i].Lines > out[k].Lines
		}
		return out[i].Language < out[k].Language
	})
	return out
}

var runWords = []struct{ purpose, words string }{
	{"test", "test tests check spec e2e pytest tox"},
	{"build", "build compile dist bundle package install"},
	{"run", "start dev serve run up demo cmd entrypoint watch"},
	{"check", "lint format fmt vet typecheck types"},
}

// runner is what begins a command that runs one of the project's own: which, the rest says.
var runner = regexp.MustCompile(`\b(npm|yarn|pnpm|bun|poetry|pipenv|uv|pdm|hatch) run\b`)

// takesIn is a command by which others take in a package by its name: nothing is built.
var takesIn = regexp.MustCompile(`\b(?:npm (?:install|i)|yarn add|pnpm add|bun add|pip3? install|gem install|composer require|` +
	`cargo (?:add|install)|` +
	`go (?:get|install)|apt(?:-get)? install)\s+(?:-[gDSUy]\S*\s+|--(?:save|global|user|upgrade)\S*\s+)*[\w@][^\s./-]*`)

func purposeOf(name, text string) string {
	if takesIn.MatchString(text) {
		return "other"
	}
	text = runner.ReplaceAllString(text, "$1")
	for _, field := range []string{name, text} {
		for _, w := range strings.FieldsFunc(
			strings.ToLower(field),
			func(r rune) bool { return r == ' ' || r == ':' || r == '-' || r == '_' || r == '/' },
		) {
			for _, rw := range runWords {
				if strings.Contains(" "+rw.words+" ", " "+w+" ") {
					return rw.purpose
				}
			}
		}
	}
	return "other"
}

// runs lists how the project says it is built, run and tested: its README
// first, then its project files, from the top of the tree down.
func runs(s *model.Survey, j *judgement.Result, place string) []Run {
	out := []Run{}
	for _, f := range j.Reading.At(place) {
		if f.Facts == nil || f.Skipped != "" || j.Reading.IsTest(f.Path) {
			continue
		}
		d := model.FolderOf(f.Path)
		if strings.HasPrefix(strings.ToLower(path.Base(f.Path)), "readme") {
			for _, c := range f.Facts.Commands {
				out = append(out, Run{Purpose: purposeOf("", c.Text), Text: c.Text, Path: f.Path, Line: c.Line, Says: c.Text})
			}
		}
		p := f.Facts.Project
		if p == nil {
			continue
		}
		for _, c := range p.Scripts {
			text := c.Name
			switch p.Tool {
			case "npm":
				text = "npm run " + c.Name
				if c.Name == "test" || c.Name == "start" {
					text = "npm " + c.Name
				}
			case "composer":
				text = "composer " + c.Name
			case "make":
				text = "make " + c.Name
			case "docker":
				text = c.Text
			}
			if d != "." && p.Tool != "docker" && p.Tool != "python" {
				text += "  (in " + d + ")"
			}
			out = append(out, Run{Purpose: purposeOf(c.Name, ""), Text: text, Path: f.Path, Line: c.Line, Says: c.Text})
		}
	}
	sort.SliceStable(out, func(i, k int) bool {
		a, b := strings.Count(out[i].Path, "/"), strings.Count(out[k].Path, "/")
		return a < b
	})
	if len(out) > 40 {
		out = out[:40]
	}
	return out
}

// Entries lists where something starts at a place: the one list that the
// sheet, the text and the JSON speak of.
func Entries(j *judgement.Result, place string) []model.Evidence {
	out := []model.Evidence{}
	for _, e := range j.Entries {
		if model.Within(place, e.Path) {
			out = append(out, model.Evidence{Path: e.Path, Line: e.Line, Note: e.Kind + ": " + e.Mechanism})
		}
	}
	return out
}
