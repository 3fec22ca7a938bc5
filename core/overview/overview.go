// Package overview says in plain computed sentences what a codebase is. Every
// sentence carries the places it rests on.
package overview

import (
	"fmt"
	"math"
	"path"
	"sort"
	"strings"
	"sync"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/patterns"
	"jantel/core/smells"
	"jantel/core/weave"
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
	Ask       []Sentence           `json:"ask"`
	Practices []Practice           `json:"practices"`
	Modules   []ModulePattern      `json:"modules"`
	Entries   []model.Evidence     `json:"entries"`
	Notes     []model.Note         `json:"notes"`
	NoteCount int                  `json:"note_count"`
	Limited   bool                 `json:"limited"` // the brief leaves part of the codebase out
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
	sh := &Sheet{Place: place, Title: d.Name, Purpose: d.Purpose, Origin: s.Origin, Patterns: []model.PatternMatch{}, Score: d.Legibility, Worst: []model.Smell{}, Languages: []Share{}, Runs: []Run{}, Entries: []model.Evidence{}, Notes: []model.Note{}, Sentences: []Sentence{}}
	// None of these needs another; they only look.
	var beside sync.WaitGroup
	beside.Go(func() { sh.System = system(s, j, place) })
	used := sync.OnceValue(func() map[string]int { return uses(s, j, place) })
	beside.Go(func() { sh.Hurts, sh.Ask = hurts(s, j, place, used()), ask(s, j, place) })
	beside.Go(func() { sh.Practices = practices(s, j, place) })
	sh.Totals = totals(s, j, place)
	sh.Languages = languages(s, j, place)
	sh.Strains = j.Scores.Arithmetic(place)
	if sh.Strains == nil {
		sh.Strains = []model.Strain{}
	}
	sh.Resolved, sh.Unsolved = j.Scores.Unresolved(place)
	counts := func(sm *model.Smell) bool { return model.Within(place, sm.Path) && sm.Silenced == "" }
	n := 0
	for i := range j.Smells {
		if counts(&j.Smells[i]) {
			n++
		}
	}
	here := make([]*model.Smell, 0, n)
	for i := range j.Smells {
		if counts(&j.Smells[i]) {
			here = append(here, &j.Smells[i])
		}
	}
	sh.Smells = len(here)
	sh.Worst = Worst(s, here, 3)
	if ranking, ranked := rankingOf(j, place); ranked {
		sh.Patterns = ranking[:min(3, len(ranking))]
		sh.Verdict = patterns.Verdict(ranking)
	}
	sh.Runs = runs(s, j, place)
	sh.Entries = entries(s, j, place)
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
	for _, n := range s.Notes {
		if model.Within(place, n.Path) {
			sh.NoteCount++
			if len(sh.Notes) < 20 {
				sh.Notes = append(sh.Notes, n)
			}
		}
	}
	sh.Limited = len(j.Brief.In)+len(j.Brief.Out) > 0
	sh.Sentences = sentences(s, j, sh, d)
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

// Worst picks the smells to name first: the strongest by strength, weight and
// (dampened, so that size alone does not decide) the lines they lie on, at most one of a rule until all rules had their turn.
func Worst(s *model.Survey, all []*model.Smell, n int) []model.Smell {
	type ranked struct {
		sm   *model.Smell
		rank float64
	}
	rs := make([]ranked, 0, len(all))
	for _, sm := range all {
		lines := 0
		for _, p := range sm.Touches {
			if f := s.File(p); f != nil {
				lines += f.Lines()
			}
		}
		w := 1.0
		if r := smells.Named(sm.Rule); r != nil {
			w = r.Weight
		}
		rs = append(rs, ranked{sm, w * sm.Strength * math.Sqrt(float64(lines+50))})
	}
	sort.SliceStable(rs, func(i, j int) bool { return rs[i].rank > rs[j].rank })
	out := []model.Smell{}
	taken := map[string]bool{}
	for pass := 0; pass < 2 && len(out) < n; pass++ {
		for _, r := range rs {
			if len(out) == n {
				break
			}
			if pass == 0 && taken[r.sm.Rule] || pass == 1 && contains(out, r.sm.ID) {
				continue
			}
			taken[r.sm.Rule] = true
			out = append(out, *r.sm)
		}
	}
	return out
}

func contains(ss []model.Smell, id string) bool {
	for _, s := range ss {
		if s.ID == id {
			return true
		}
	}
	return false
}

func totals(s *model.Survey, j *judgement.Result, place string) Totals {
	t := Totals{Skipped: map[string]int{}}
	for _, f := range s.Files {
		if !model.Within(place, f.Path) {
			continue
		}
		t.Files++
		t.Lines += f.Lines()
		t.Bytes += f.Bytes
		if f.Facts != nil {
			if j.InScope[f.Path] && weave.IsCode(f) {
				t.CodeLines += f.Facts.Code
				t.Source++
			}
			if f.Facts.Read == model.ReadPartial && f.Skipped == "" {
				t.Partial++
			}
		}
		if j.InScope[f.Path] {
			t.Judged += f.Lines()
		} else if f.Skipped != "" {
			t.Skipped[f.Skipped]++
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
	for _, f := range s.Files {
		if !model.Within(place, f.Path) || !j.InScope[f.Path] || f.Language == "" || !weave.IsCode(f) && f.Language != "CSS" && f.Language != "SCSS" && f.Language != "HTML" && f.Language != "SQL" {
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

func purposeOf(name, text string) string {
	for _, field := range []string{name, text} {
		for _, w := range strings.FieldsFunc(strings.ToLower(field), func(r rune) bool { return r == ' ' || r == ':' || r == '-' || r == '_' || r == '/' }) {
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
	for _, f := range s.Files {
		if f.Facts == nil || f.Skipped != "" || !model.Within(place, f.Path) || j.Roles[f.Path].Role == model.RoleTest {
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

func entries(s *model.Survey, j *judgement.Result, place string) []model.Evidence {
	out := []model.Evidence{}
	for _, f := range s.Files {
		if !j.InScope[f.Path] || !model.Within(place, f.Path) || f.Facts == nil {
			continue
		}
		role := j.Roles[f.Path].Role
		if role == model.RoleTest || role == model.RoleDocs {
			continue
		}
		line, why := 0, ""
		if f.Facts.Starts > 0 {
			line, why = f.Facts.Starts, "a program starts here"
			if f.Facts.Starts == 1 {
				why = "a program to run, by its first line"
			}
		} else if _, l := f.Facts.Sign("mounts"); l > 0 {
			line, why = l, "mounts the interface"
		} else if _, l := f.Facts.Sign("listens"); l > 0 {
			line, why = l, "starts to listen"
		}
		if line > 0 {
			out = append(out, model.Evidence{Path: f.Path, Line: line, Note: why})
		}
	}
	return out
}

func sentences(s *model.Survey, j *judgement.Result, sh *Sheet, d *model.Folder) []Sentence {
	out := []Sentence{}
	add := func(ev []model.Evidence, format string, args ...any) {
		if ev == nil {
			ev = []model.Evidence{}
		}
		out = append(out, Sentence{fmt.Sprintf(format, args...), ev})
	}
	t := sh.Totals
	if len(sh.Languages) > 0 {
		top := sh.Languages[0]
		also := ""
		var more []string
		for _, l := range sh.Languages[1:min(4, len(sh.Languages))] {
			if l.Share >= 0.03 {
				more = append(more, l.Language)
			}
		}
		if len(more) > 0 {
			also = ", with " + list(more)
		}
		add(largest(s, j, sh.Place), "%s lines of code in %s source files, %d %% of it %s%s.", group(t.CodeLines), group(t.Source), int(top.Share*100+0.5), top.Language, also)
	} else {
		add(nil, "%s files with %s lines, none of them in a language whose code is counted.", group(t.Files), group(t.Lines))
	}
	if sh.Verdict != "" {
		if len(sh.Patterns) == 0 {
			add(nil, "No pattern of the catalogue fits it well enough to be named.")
		} else {
			p := sh.Patterns[0]
			var ev []model.Evidence
			reason := ""
			if len(p.For) > 0 {
				ev = p.For[0].Evidence
				reason = " " + p.For[0].Text
			}
			switch sh.Verdict {
			case "clear":
				add(ev, "It is clearly %s.%s", Spoken(p.Name), reason)
			case "leaning":
				add(ev, "It leans towards being %s.%s", Spoken(p.Name), reason)
			default:
				add(ev, "Its pattern is undecided; %s comes nearest.%s", p.Name, reason)
			}
			// How it works and as what it is delivered are two questions.
			for _, also := range sh.Patterns[1:] {
				if also.Score >= 65 && len(also.For) > 0 && !patterns.Rivals(p.Name, also.Name) && !patterns.Rivals(also.Name, p.Name) {
					add(also.For[0].Evidence, "It is %s as well. %s", Spoken(also.Name), also.For[0].Text)
					break
				}
			}
		}
	}
	cutSentences(j, sh, add)
	roleSentence(j, d, add, s, sh.Place)
	if n := len(sh.Entries); n > 0 {
		if n == 1 {
			add(sh.Entries, "One program starts in it, in %s.", sh.Entries[0].Path)
		} else {
			add(sh.Entries[:min(12, n)], "%d places start a program or an interface.", n)
		}
	}
	if vars, ev := environment(s, j, sh.Place); vars > 0 {
		add(ev, "It reads %s of its environment.", strings.ToLower(counted(vars, "variable")))
	}
	historySentence(s, sh.Place, add)
	rings := 0
	var ringEv []model.Evidence
	for _, c := range j.Cycles {
		if c.Level == "file" && model.Within(sh.Place, c.Members[0]) {
			rings++
			if len(ringEv) < 12 {
				ringEv = append(ringEv, model.Evidence{Path: c.Members[0], Note: fmt.Sprintf("in a ring of %d files", len(c.Members))})
			}
		}
	}
	switch {
	case rings > 0:
		if rings == 1 {
			add(ringEv, "One ring of files: each needs the next, so that none can be taken without the others.")
		} else {
			add(ringEv, "%d rings of files: each file needs the next, so that none can be taken without the others.", rings)
		}
	case t.Links > 10:
		add(nil, "No two files need each other in a ring, over %s dependencies.", group(t.Links))
	}
	if sh.Unsolved > 0 {
		var ev []model.Evidence
		for _, u := range s.Unresolved {
			if model.Within(sh.Place, u.From) && len(ev) < 12 {
				ev = append(ev, model.Evidence{Path: u.From, Line: u.Line, Note: u.Text + ": " + u.Reason})
			}
		}
		lead := "lead"
		if sh.Unsolved == 1 {
			lead = "leads"
		}
		add(ev, "%s %s nowhere that can be found.", countOf(sh.Unsolved, "import"), lead)
	}
	if t.Partial > 0 {
		var ev []model.Evidence
		for _, f := range s.Files {
			if f.Facts != nil && f.Facts.Read == model.ReadPartial && f.Skipped == "" && model.Within(sh.Place, f.Path) && len(ev) < 12 {
				ev = append(ev, model.Evidence{Path: f.Path, Line: 1, Note: f.Facts.Problem})
			}
		}
		add(ev, "%s could be read only in part.", countOf(t.Partial, "file"))
	}
	return out
}

func roleSentence(j *judgement.Result, d *model.Folder, add func([]model.Evidence, string, ...any), s *model.Survey, place string) {
	type share struct {
		r model.Role
		n int
	}
	var shares []share
	total := 0
	for _, r := range model.Roles {
		if n := d.RoleLines[r]; n > 0 && r != model.RoleDocs && r != model.RoleConfig {
			shares = append(shares, share{r, n})
			total += n
		}
	}
	unknown := d.RoleLines[""]
	total += unknown
	if total == 0 || len(shares) == 0 {
		return
	}
	sort.SliceStable(shares, func(i, k int) bool { return shares[i].n > shares[k].n })
	var parts []string
	var ev []model.Evidence
	for _, x := range shares[:min(3, len(shares))] {
		if p := x.n * 100 / total; p > 0 {
			parts = append(parts, fmt.Sprintf("%d %% %s", p, weave.Plural(x.r)))
			if f := largestOf(s, j, place, x.r); f != "" {
				ev = append(ev, model.Evidence{Path: f, Note: "the largest of its " + weave.Plural(x.r)})
			}
		}
	}
	if len(parts) == 0 {
		return
	}
	// Where little is known, that comes first.
	if p := unknown * 100 / total; p >= 60 {
		add(ev, "Of %d %% of its lines the role can not be told; the rest is %s.", p, list(parts))
		return
	}
	tail := ""
	if p := unknown * 100 / total; p >= 10 {
		tail = fmt.Sprintf("; of %d %% the role can not be told", p)
	}
	add(ev, "By lines it is %s%s.", list(parts), tail)
}

func largestOf(s *model.Survey, j *judgement.Result, place string, r model.Role) string {
	best, n := "", 0
	for _, f := range s.Files {
		if j.InScope[f.Path] && j.Roles[f.Path].Role == r && model.Within(place, f.Path) && f.Lines() > n {
			best, n = f.Path, f.Lines()
		}
	}
	return best
}

func largest(s *model.Survey, j *judgement.Result, place string) []model.Evidence {
	var fs []*model.File
	for _, f := range s.Files {
		if j.InScope[f.Path] && model.Within(place, f.Path) && weave.IsCode(f) {
			fs = append(fs, f)
		}
	}
	sort.SliceStable(fs, func(i, k int) bool { return fs[i].Facts.Code > fs[k].Facts.Code })
	var ev []model.Evidence
	for i, f := range fs {
		if i == 8 {
			break
		}
		ev = append(ev, model.Evidence{Path: f.Path, Note: group(f.Facts.Code) + " lines of code"})
	}
	return ev
}

// Spoken is how a pattern's name reads in a sentence.
func Spoken(name string) string {
	switch name {
	case "by feature", "by kind":
		return "cut " + name
	case "scripts":
		return "a collection of scripts"
	case "library":
		return "a library"
	case "rings":
		return "built in rings around a core"
	case "components and pages":
		return "built of components and pages"
	case "apps and libs":
		return "apps beside libraries"
	case "model-view-controller":
		return "model, view and controller"
	case "model-view-viewmodel":
		return "model, view and view model"
	case "core-feature-shared":
		return "a core with features and what they share"
	case "ui-logic-data":
		return "interface over logic over data"
	case "message loops":
		return "loops of state and messages"
	case "publish-subscribe":
		return "parts that publish and subscribe"
	case "pipeline":
		return "a pipeline of stages"
	case "plug-ins":
		return "a host with plug-ins"
	case "scaffold":
		return "what a framework's generator lays out"
	}
	return name
}

func list(ss []string) string {
	if len(ss) < 2 {
		return strings.Join(ss, "")
	}
	return strings.Join(ss[:len(ss)-1], ", ") + " and " + ss[len(ss)-1]
}

func countOf(n int, word string) string {
	if n == 1 {
		return "One " + word
	}
	return group(n) + " " + word + "s"
}

// group writes a number with a comma between thousands.
func group(n int) string {
	s := fmt.Sprint(n)
	for i := len(s) - 3; i > 0; i -= 3 {
		s = s[:i] + "," + s[i:]
	}
	return s
}

// Group writes a number with a comma between thousands.
func Group(n int) string { return group(n) }
