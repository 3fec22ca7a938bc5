// Package judgement makes of a survey's facts what Jantel has to say about
// them, under the brief of the lead. It is made anew whenever the brief or the
// rules change; facts stay as they are.
package judgement

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"maps"
	"math"
	"slices"
	"strconv"
	"time"

	"jantel/core/charter"
	"jantel/core/links"
	"jantel/core/model"
	"jantel/core/parallel"
	"jantel/core/patterns"
	"jantel/core/reading"
	"jantel/core/smells"
	"jantel/core/syntax"

	"github.com/bmatcuk/doublestar/v4"
)

// judgesVersion is raised when the lexicon, a signal or a judge changes, so
// that judgements kept elsewhere are made anew; the rules tell their own.
const judgesVersion = 44

// Version tells one state of the judges and their rules from another.
func Version() string { return strconv.Itoa(judgesVersion) + "." + smells.Version }

// Result is a judgement with the arithmetic of every folder's score.
type Result struct {
	*model.Judgement
	// Reading is the survey as it was judged.
	Reading *reading.Reading
	Scores  *smells.Scores
	// Charter is what the codebase was held against, nil where there is none.
	Charter *charter.Charter
	// Conformance is what came of it.
	Conformance *charter.Result
	// Faults say why the charter could not be read.
	Faults []charter.Fault
	// FromCodebase tells that the charter lies in the codebase.
	FromCodebase bool
	// Said is what the lead set by hand.
	Said []model.Overrule
	// Timings are the seconds each judge took.
	Timings map[string]float64

	work *work // what was asked on the way, for Again
}

// Skipped says why a file does not count whatever the brief says: who wrote it,
// or that it could not be read as text; "" where it counts.
func (r *Result) Skipped(f *model.File) string {
	switch o := r.Origins[f.Path]; {
	case o.Origin == model.OriginOwn:
		return ""
	case f.Skipped == model.SkippedMinified && !o.ByHand:
		return f.Skipped
	case o.Origin != "":
		return string(o.Origin)
	}
	return f.Skipped
}

// Inputs are what a judgement depends on besides the facts.
type Inputs struct {
	Brief model.Brief
	Quiet Silenced
	// Charter is the text of a charter kept outside the codebase; it goes
	// before one in the codebase.
	Charter string
	// Overrules are what the lead set by hand.
	Overrules []model.Overrule
	// Today decides which exceptions of a charter have expired; the zero time
	// stands for the day of the survey, so that a survey is judged alike
	// whenever it is.
	Today time.Time
}

// Silenced maps smell ids to the lead's word that they do not count.
type Silenced map[string]model.Silence

// apply marks the smells that do not count: by their id or one they had
// before, or else by what they are about, when the id that was silenced is
// gone.
func (q Silenced) apply(found []model.Smell) {
	if len(q) == 0 {
		return
	}
	present := map[string]bool{}
	for i := range found {
		present[found[i].ID] = true
		for _, id := range found[i].Was {
			present[id] = true
		}
	}
	about := map[model.SmellKey]string{}
	for _, id := range slices.Sorted(maps.Keys(q)) {
		if s := q[id]; !present[id] && s.Rule != "" {
			about[s.SmellKey] = s.Reason
		}
	}
	for i := range found {
		sm := &found[i]
		sm.Silenced = q[sm.ID].Reason
		for _, id := range sm.Was {
			if sm.Silenced == "" {
				sm.Silenced = q[id].Reason
			}
		}
		if sm.Silenced == "" {
			sm.Silenced = about[sm.Key()]
		}
	}
}

// Keyless are silences whose key was not kept, with the key of the smell that
// they are about now.
func (q Silenced) Keyless(found []model.Smell) map[string]model.SmellKey {
	out := map[string]model.SmellKey{}
	for i := range found {
		if s, ok := q[found[i].ID]; ok && s.Rule == "" {
			out[found[i].ID] = found[i].Key()
		}
	}
	return out
}

// Version identifies what a judgement depends on besides the facts.
func (in Inputs) Version() string {
	text, err := json.Marshal([]any{judgesVersion, smells.Version, in.Brief, in.Quiet, in.Charter, in.Overrules})
	if err != nil {
		panic(err) // plain strings always marshal
	}
	sum := sha256.Sum256(text)
	return hex.EncodeToString(sum[:8])
}

// CheckBrief reports what is wrong with a brief, or nil.
func CheckBrief(b model.Brief) error {
	if !b.Stage.Valid() {
		return fmt.Errorf("the stage %q is none of sketch, growing, in service", b.Stage)
	}
	for _, g := range append(append([]string(nil), b.In...), b.Out...) {
		if !doublestar.ValidatePattern(g) {
			return fmt.Errorf("%q is not a valid glob", g)
		}
	}
	return nil
}

// Judge judges a survey under a brief, with the charter that lies in it.
func Judge(s *model.Survey, brief model.Brief, quiet Silenced) *Result {
	return JudgeBy(s, Inputs{Brief: brief, Quiet: quiet})
}

// readCharter takes the charter that was handed in, or the one at the top of
// the codebase.
func readCharter(s *model.Survey, text string) (c *charter.Charter, faults []charter.Fault, inside bool) {
	if text == "" {
		f := s.File(charter.FileName)
		switch {
		case f == nil || f.Bytes == 0:
			return nil, nil, false
		case f.Facts == nil || f.Facts.Charter == "":
			return nil, []charter.Fault{
				{
					Line: 1,
					Text: fmt.Sprintf(
						"%s is %d bytes long and can not be read as text in lines; a charter has at most %d KB",
						charter.FileName, f.Bytes, charter.MaxBytes>>10,
					),
				},
			}, true
		}
		text, inside = f.Facts.Charter, true
	}
	c, faults = ReadCharter(text)
	return c, faults, inside
}

// ReadCharter reads a charter and checks that its thresholds mean something;
// with any fault the charter is nil.
func ReadCharter(text string) (*charter.Charter, []charter.Fault) {
	c, faults := charter.Parse([]byte(text))
	if c == nil {
		return nil, faults
	}
	for _, key := range slices.Sorted(maps.Keys(c.Thresholds)) {
		switch {
		case smells.UnknownThreshold(key):
			faults = append(faults, charter.Fault{
				Line: charter.LineOf([]byte(text), key),
				Text: fmt.Sprintf(
					"there is no threshold %q; \"jantel rules\" lists the rules and their parameters, as rule or rule.parameter",
					key,
				),
			})
		case c.Thresholds[key] < 0:
			faults = append(faults, charter.Fault{
				Line: charter.LineOf([]byte(text), key), Text: fmt.Sprintf("the threshold %q is below zero", key),
			})
		}
	}
	if len(faults) > 0 {
		return nil, faults
	}
	return c, nil
}

// JudgeBy judges a survey. The brief must have passed CheckBrief; a brief
// without a stage is taken as growing.
func JudgeBy(s *model.Survey, in Inputs) *Result { return judgeWith(s, in, judges) }

func judgeWith(s *model.Survey, in Inputs, all []judge) *Result {
	if in.Brief.Stage == "" {
		in.Brief.Stage = model.Growing
	}
	j := &model.Judgement{
		Version: in.Version(), Brief: in.Brief, InScope: map[string]bool{},
		Roles: make(map[string]model.RoleOf, len(s.Files)), FeatureOf: map[string]model.FeatureOf{},
		Smells: []model.Smell{},
	}
	for _, f := range s.Files {
		j.AllLines += f.Lines()
	}
	res := &Result{Judgement: j, Scores: smells.NoScores(), Said: in.Overrules}
	w := &work{survey: s, in: in, out: j, result: res}
	run(w, all)
	if res.Reading == nil {
		res.Reading = reading.Of(s, j.InScope, j.Roles)
	}
	if w.allRoles != nil {
		// Whoever judged knows only roles with evidence; what is shown has all.
		j.Roles = w.allRoles
	}
	for i, whole := range w.whole {
		if whole {
			j.Modules[i].Patterns = j.Patterns
		}
	}
	if len(j.Folders) == 0 {
		// Every view stands on the root, even when nothing more could be told.
		j.Folders = []*model.Folder{{Path: ".", Name: s.Codebase, Files: len(s.Files), Lines: j.AllLines, JudgedLines: j.Judged}}
	}
	w.finish()
	w.lexicon, w.polls, w.aim, w.parts, w.sight = nil, nil, nil, nil, nil // large, and nobody asks them any more
	return res
}

// finish puts together what several judges told.
func (w *work) finish() {
	j, res := w.out, w.result
	res.work = w
	j.Notes = slices.Concat(w.said, w.resting, w.failed, w.idle, unlooked(w.survey, j.Origins))
	if res.Conformance != nil {
		for _, glob := range res.Conformance.Idle {
			j.Notes = append(j.Notes, model.Note{Path: ".", Text: fmt.Sprintf("the charter speaks of %s, which holds nothing", glob)})
		}
	}
	j.BuildIndex()
	for _, f := range j.Folders {
		f.Legibility = res.Scores.ByFolder[f.Path]
	}
	countSmells(w.survey, j)
}

// Again judges the same survey anew; nil stands for no judgement yet. Where nothing
// else has changed than what the lead dismissed and lets rest, what was found
// stands, and only what counts of it is told again: a small part of the work.
func (r *Result) Again(s *model.Survey, in Inputs) *Result {
	if in.Brief.Stage == "" {
		in.Brief.Stage = model.Growing
	}
	if r == nil || r.work.survey != s || len(r.work.failed) > 0 || r.work.in.ground() != in.ground() {
		return JudgeBy(s, in)
	}
	j, res, w := *r.Judgement, *r, *r.work
	j.Version, j.Smells, j.Hits = in.Version(), []model.Smell{}, nil
	j.Folders = make([]*model.Folder, len(r.Folders))
	for i, f := range r.Folders {
		d := *f
		d.Smells, d.Strongest = 0, 0
		j.Folders[i] = &d
	}
	j.Legibility, j.Strains, j.Raise = model.Legibility{}, nil, nil
	res.Judgement, res.Scores, res.Said = &j, smells.NoScores(), in.Overrules
	w.in, w.out, w.result, w.resting = in, &j, &res, nil
	run(&w, counting)
	w.finish()
	return &res
}

// ground names the state of all that a judgement depends on besides the facts, but
// for what the lead dismissed and lets rest.
func (in Inputs) ground() string {
	all := in.Overrules
	in.Quiet, in.Overrules = nil, nil
	for _, o := range all {
		if o.Kind != model.OverruleRule {
			in.Overrules = append(in.Overrules, o)
		}
	}
	return in.Version() + in.Today.String()
}

// leastRanked is the number of source files from which a module's pattern is
// looked for.
const leastRanked = 5

// modulePatterns ranks the patterns of each module by itself, where there are
// several: a codebase may well be built in more than one way. A module that
// holds all files is only noted in whole, since it is ranked already.
func modulePatterns(s *model.Survey, j *model.Judgement, parts *links.Parts) (whole []bool) {
	if len(j.Modules) < 2 {
		return nil
	}
	whole = make([]bool, len(j.Modules))
	files := make([][]*model.File, len(j.Modules))
	for _, f := range s.Files {
		for _, i := range parts.Holding(model.FolderOf(f.Path)) {
			files[i] = append(files[i], f)
		}
	}
	folders := make([][]*model.Folder, len(j.Modules))
	for _, d := range j.Folders {
		for _, i := range parts.Holding(d.Path) {
			folders[i] = append(folders[i], d)
		}
	}
	parallel.Each(len(j.Modules), func(i int) {
		m := &j.Modules[i]
		if m.Files < leastRanked {
			return
		}
		if len(files[i]) == len(s.Files) {
			whole[i] = true
			return
		}
		in := make(map[string]bool, len(files[i]))
		for _, f := range files[i] {
			in[f.Path] = j.InScope[f.Path]
		}
		around := folders[i]
		if m.Path != "." {
			around = slices.Concat([]*model.Folder{j.Folders[0]}, around)
		}
		part := &model.Survey{Files: files[i], Links: parts.Touching[i]}
		m.Patterns = patterns.Look(m.Path, part, j.Roles, in, around).Rank(m.Cut)
	})
	return whole
}

// resolved reports whether the imports of a file's language are followed.
func resolved(f *model.File) bool {
	l := syntax.Named(f.Language)
	return l != nil && l.Links()
}

func countSmells(s *model.Survey, j *model.Judgement) {
	// Where another smell tells of a hit, the hit counts in the folders that do not hold
	// that one, so that each is counted once in any.
	count := func(sm *model.Smell, told string) {
		if sm.Silenced != "" {
			return
		}
		d := sm.Path
		if s.File(d) != nil {
			d = model.FolderOf(d)
		}
		for ; told == "" || !model.Within(d, told); d = model.FolderOf(d) {
			if f := j.Folder(d); f != nil {
				f.Smells++
				f.Strongest = math.Max(f.Strongest, sm.Strength)
			}
			if d == "." {
				break
			}
		}
	}
	for i := range j.Smells {
		count(&j.Smells[i], "")
	}
	for i := range j.Hits {
		if sm := &j.Hits[i]; sm.ToldAt != "" {
			count(sm, sm.ToldAt)
		}
	}
}

func inScope(b model.Brief, p string) bool {
	in := len(b.In) == 0
	for _, g := range b.In {
		if ok, _ := doublestar.Match(g, p); ok {
			in = true
			break
		}
	}
	if !in {
		return false
	}
	for _, g := range b.Out {
		if ok, _ := doublestar.Match(g, p); ok {
			return false
		}
	}
	return true
}

// unlooked says how many files that the lead says are ours were read as a tool's or
// as others', which nobody looks into.
func unlooked(s *model.Survey, origins map[string]model.OriginOf) []model.Note {
	n := 0
	for _, f := range s.Files {
		if o := origins[f.Path]; o.Origin == model.OriginOwn && o.ByHand && syntax.Unlooked(f.Facts) {
			n++
		}
	}
	if n == 0 {
		return nil
	}
	files := "files that are now said to be ours were"
	if n == 1 {
		files = "file that is now said to be ours was"
	}
	return []model.Note{{Path: ".", Text: fmt.Sprintf(
		"%d %s read as what others or tools wrote: what the bodies are like is known once the codebase is surveyed again", n, files,
	)}}
}
