package overview

import (
	"cmp"
	"fmt"
	"path"
	"slices"
	"sort"
	"strings"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/patterns"
	"jantel/core/reading"
	"jantel/core/weave"
)

// once leaves out sentences that say what one before them says already.
func once(all []Sentence) []Sentence {
	said := map[string]bool{}
	return slices.DeleteFunc(all, func(x Sentence) bool {
		key := strings.ToLower(strings.TrimSpace(x.Text))
		again := key == "" || said[key]
		said[key] = true
		return again
	})
}

// adder takes a sentence with the places it rests on.
type adder func(ev []model.Evidence, format string, args ...any)

// sentences say what a place is, the most telling first: of what parts it is
// made, how they work together and what is wrong with that, then its size and
// where it starts, and last what could not be read.
func sentences(s *model.Survey, j *judgement.Result, sh *Sheet, d *model.Folder) []Sentence {
	out := []Sentence{}
	add := func(ev []model.Evidence, format string, args ...any) {
		if ev == nil {
			ev = []model.Evidence{}
		}
		out = append(out, Sentence{fmt.Sprintf(format, args...), ev})
	}
	partsSentence(s, j, sh.Place, add)
	patternSentences(sh, add)
	cutSentences(j, sh, add)
	ringSentence(j, sh, add)
	sizeSentence(s, j, sh, add)
	entrySentence(sh, add)
	roleSentence(j, d, add, s, sh.Place)
	originSentence(s, j, sh.Place, add)
	historySentence(s, sh.Place, add)
	if vars, ev := environment(j.Reading, sh.Place); vars > 0 {
		add(ev, "It reads %s of its environment.", strings.ToLower(counted(vars, "variable")))
	}
	unreadSentences(s, j, sh, add)
	return out
}

// partsSentence names the projects that stand side by side, the largest first.
func partsSentence(s *model.Survey, j *judgement.Result, place string, add adder) {
	var parts []string
	for _, m := range j.Modules {
		if m.Project && m.Path != place && model.Within(place, m.Path) {
			parts = append(parts, m.Path)
		}
	}
	all := slices.Clone(parts)
	parts = slices.DeleteFunc(parts, func(p string) bool {
		return slices.ContainsFunc(all, func(outer string) bool { return outer != p && model.Within(outer, p) })
	})
	if len(parts) < 2 {
		return
	}
	lines := map[string]int{}
	inside, whole := 0, 0
	for _, p := range parts {
		for f := range j.Reading.Source(p) {
			lines[p] += f.Facts.Lines
			inside += f.Facts.Lines
		}
	}
	for f := range j.Reading.Source(place) {
		whole += f.Facts.Lines
	}
	if 2*inside < whole {
		return // what holds little of it is no part of note
	}
	slices.SortStableFunc(parts, func(a, b string) int { return cmp.Compare(lines[b], lines[a]) })
	var ev []model.Evidence
	names := []string{}
	for i, p := range parts {
		if i < mostNamed {
			names = append(names, path.Base(p))
			ev = append(ev, model.Evidence{Path: p, Note: naming.Figure(lines[p]) + " lines of its own"})
		}
	}
	if more := len(parts) - mostNamed; more > 0 {
		names = append(names, fmt.Sprintf("%d more", more))
	}
	where := "in one repository"
	if place != "." {
		where = "in one folder"
	}
	add(ev, "%s parts %s: %s.", spelled(len(parts)), where, list(names))
}

// mostNamed is how many parts one sentence names.
const mostNamed = 7

// spelled is a number as a sentence begins with it.
func spelled(n int) string {
	words := []string{"No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine", "Ten", "Eleven", "Twelve"}
	if n < len(words) {
		return words[n]
	}
	return naming.Figure(n)
}

func sizeSentence(s *model.Survey, j *judgement.Result, sh *Sheet, add adder) {
	t := sh.Totals
	if len(sh.Languages) == 0 && slices.ContainsFunc(s.Files, func(f *model.File) bool {
		return model.Within(sh.Place, f.Path) && reading.IsCode(f)
	}) {
		add(
			nil, "%s with %s; none of the code in them was written here, so that nothing of it is judged.", countOf(t.Files, "file"),
			strings.ToLower(countOf(t.Lines, "line")),
		)
		return
	}
	if len(sh.Languages) == 0 {
		add(
			nil, "%s with %s, none of them in a language whose code is counted.", countOf(t.Files, "file"),
			strings.ToLower(countOf(t.Lines, "line")),
		)
		return
	}
	top, lines, files := sh.Languages[0], 0, 0
	for _, l := range sh.Languages { // what the share is of
		lines, files = lines+l.Lines, files+l.Files
	}
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
	add(
		largest(s, j, sh.Place), "%s of code in %s, %d %% of it %s%s.", countOf(lines, "line"),
		strings.ToLower(countOf(files, "source file")), int(top.Share*100+0.5), top.Language, also,
	)
}

func patternSentences(sh *Sheet, add adder) {
	if sh.Verdict == "" {
		return
	}
	if len(sh.Patterns) == 0 {
		add(nil, "No pattern of the catalogue fits it well enough to be named.")
		return
	}
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
			return
		}
	}
}

func entrySentence(sh *Sheet, add adder) {
	switch n := len(sh.Entries); n {
	case 0:
	case 1:
		add(sh.Entries, "One program starts in it, in %s.", sh.Entries[0].Path)
	default:
		kinds := entryKinds(sh.Entries)
		if strings.Contains(kinds, " and ") {
			kinds = fmt.Sprintf("It starts in %d places: %s.", n, kinds)
		} else {
			kinds += " start in it."
		}
		add(sh.Entries[:min(12, n)], "%s", kinds)
	}
}

// entryKinds counts entries by kind, in the order of what matters to a reader.
func entryKinds(entries []model.Evidence) string {
	count := map[string]int{}
	for _, e := range entries {
		kind, _, _ := strings.Cut(e.Note, ":")
		count[kind]++
	}
	var parts []string
	for _, k := range []string{model.EntryProgram, model.EntryPage, model.EntryWorker, model.EntryCommand, model.EntryScript} {
		switch n := count[k]; n {
		case 0:
		case 1:
			parts = append(parts, "one "+k)
		default:
			parts = append(parts, naming.Figure(n)+" "+k+"s")
		}
	}
	return list(parts)
}

// ringSentence counts the rings of files. That there is none is said only where
// nearly all imports were followed.
func ringSentence(j *judgement.Result, sh *Sheet, add adder) {
	rings := 0
	var ev []model.Evidence
	for _, c := range j.Cycles {
		if c.Level == "file" && model.Within(sh.Place, c.Members[0]) {
			rings++
			if len(ev) < 12 {
				ev = append(ev, model.Evidence{Path: c.Members[0], Note: fmt.Sprintf("in a ring of %d files", len(c.Members))})
			}
		}
	}
	switch {
	case rings == 1:
		add(ev, "One ring of files: each needs the next, so that none can be taken without the others.")
	case rings > 1:
		add(ev, "%d rings of files: each file needs the next, so that none can be taken without the others.", rings)
	case len(sh.Languages) > 0 && sh.Totals.Links > 10 && 20*sh.Unsolved <= sh.Resolved:
		add(nil, "No two files need each other in a ring, over %s dependencies.", naming.Figure(sh.Totals.Links))
	}
}

func unreadSentences(s *model.Survey, j *judgement.Result, sh *Sheet, add adder) {
	if sh.Unsolved > 0 {
		var ev []model.Evidence
		for _, u := range s.Unresolved {
			if model.Within(sh.Place, u.From) && j.Reading.Judged[u.From] && len(ev) < 12 {
				ev = append(ev, model.Evidence{Path: u.From, Line: u.Line, Note: u.Text + ": " + u.Reason})
			}
		}
		lead := "lead"
		if sh.Unsolved == 1 {
			lead = "leads"
		}
		add(ev, "%s %s nowhere that can be found.", countOf(sh.Unsolved, "import"), lead)
	}
	if sh.Totals.Partial > 0 {
		var ev []model.Evidence
		for _, f := range j.Reading.At(sh.Place) {
			if f.Facts != nil && f.Facts.Read == model.ReadPartial && f.Skipped == "" && len(ev) < 12 {
				ev = append(ev, model.Evidence{Path: f.Path, Line: 1, Note: f.Facts.Problem})
			}
		}
		add(ev, "%s could be read only in part.", countOf(sh.Totals.Partial, "file"))
	}
}

// notProgram are the roles of what stands beside the program itself.
var notProgram = map[model.Role]bool{
	model.RoleDocs: true, model.RoleConfig: true, model.RoleTest: true, model.RoleAsset: true, model.RoleTranslation: true,
}

func roleSentence(j *judgement.Result, d *model.Folder, add func([]model.Evidence, string, ...any), s *model.Survey, place string) {
	type share struct {
		r model.Role
		n int
	}
	var shares []share
	total := 0
	for _, r := range model.Roles {
		if n := d.RoleLines[r]; n > 0 && !notProgram[r] {
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
	switch p := assumedShare(j, place); {
	case p >= 95:
		return // what is only assumed is no news
	case p >= 40:
		tail += fmt.Sprintf("; %d %% of what is told is only assumed", p)
	}
	add(ev, "By lines, tests left out, it is %s%s.", list(parts), tail)
}

// assumedShare is of how many of a hundred lines the role is only assumed.
func assumedShare(j *judgement.Result, place string) int {
	assumed, all := 0, 0
	for f := range j.Reading.Own(place) {
		if role := j.Roles[f.Path]; role.Role != "" && !notProgram[role.Role] {
			if all += f.Lines(); role.Source == model.RoleAssumed {
				assumed += f.Lines()
			}
		}
	}
	return assumed * 100 / max(1, all)
}

func largestOf(s *model.Survey, j *judgement.Result, place string, r model.Role) string {
	best, n := "", 0
	for f := range j.Reading.Own(place) {
		if j.Reading.Role(f.Path) == r && f.Lines() > n {
			best, n = f.Path, f.Lines()
		}
	}
	return best
}

func largest(s *model.Survey, j *judgement.Result, place string) []model.Evidence {
	fs := slices.Collect(j.Reading.Code(place))
	sort.SliceStable(fs, func(i, k int) bool { return fs[i].Facts.Code > fs[k].Facts.Code })
	var ev []model.Evidence
	for i, f := range fs {
		if i == 8 {
			break
		}
		ev = append(ev, model.Evidence{Path: f.Path, Note: naming.Figure(f.Facts.Code) + " lines of code"})
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
	return naming.Figure(n) + " " + word + "s"
}
