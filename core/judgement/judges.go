package judgement

import (
	"maps"
	"slices"
	"sync"
	"time"

	"jantel/core/charter"
	"jantel/core/entries"
	"jantel/core/frameworks"
	"jantel/core/links"
	"jantel/core/model"
	"jantel/core/origin"
	"jantel/core/parallel"
	"jantel/core/patterns"
	"jantel/core/reading"
	"jantel/core/smells"
	"jantel/core/weave"
)

// A judge tells one thing of a survey. It says whose results it looks at; the
// runner finds the order, runs what can run side by side, takes the time, and
// keeps a judge that breaks from taking anything along but what needs it.
type judge struct {
	name  string
	needs []string
	run   func(w *work)
}

// work is what judges look at and where they put what they tell. Each field is
// written by one judge and read by those that need it.
type work struct {
	survey  *model.Survey
	in      Inputs
	out     *model.Judgement
	result  *Result
	lexicon *weave.Lexicon

	polls       weave.Polls
	allRoles    map[string]model.RoleOf // those that are only assumed among them
	aim         *weave.Aim
	modules     []model.Module // found, nothing told of them yet
	levelled    []model.Module // with their levels
	parts       *links.Parts   // the links by module
	sight       patterns.Sight // of the codebase, how it is cut left open
	fileRings   []model.Cycle
	folderRings []model.Cycle
	rules       *smells.Context
	whole       []bool        // modules that hold the whole codebase
	idle        []model.Note  // what was set by hand and names nothing
	found       []model.Smell // what the rules hit, whatever the lead says of it
	said        []model.Note  // of rules that broke off
	resting     []model.Note  // of rules that are let rest and are not there
	failed      []model.Note  // of judges that broke off, and of those that need them
}

// judges are all there are; a new one is a line in one of the two lists.
var judges = slices.Concat(finding, counting)

// finding tell what there is, whatever the lead dismissed.
var finding = []judge{
	{"origin", nil, judgeOrigin},
	{"lexicon", nil, func(w *work) { w.lexicon = weave.In(w.survey).With(w.in.Overrules) }},
	{"scope", []string{"origin"}, judgeScope},
	{"roles", []string{"origin", "lexicon"}, judgeRoles},
	{"reading", []string{"scope", "roles"}, func(w *work) { w.result.Reading = reading.Of(w.survey, w.out.InScope, w.out.Roles) }},
	{"entries", []string{"reading"}, func(w *work) { w.out.Entries, w.out.Facades = entries.Of(w.result.Reading) }},
	{"assumed roles", []string{"reading"}, func(w *work) { w.allRoles = weave.AssumeRoles(w.result.Reading) }},
	{"file rings", []string{"scope"}, judgeFileRings},
	{"folder rings", []string{"scope", "roles"}, judgeFolderRings},
	{"modules", []string{"scope"}, func(w *work) { w.modules = weave.Modules(w.survey, w.out.InScope) }},
	{"names", []string{"scope", "roles"}, func(w *work) { w.aim = weave.NewAim(w.survey, w.polls, w.out.Roles, w.out.InScope, w.lexicon) }},
	{"features", []string{"names"}, judgeFeatures},
	{"cut", []string{"names", "modules"}, func(w *work) { w.out.Modules, w.out.Cut = w.aim.Cuts(w.survey.Links, slices.Clone(w.modules)) }},
	{"levels", []string{"roles", "modules"}, judgeLevels},
	{"folders", []string{"scope", "assumed roles"}, judgeFolders},
	{"charter", []string{"reading"}, judgeCharter},
	{"module levels", []string{"cut", "levels"}, judgeModuleLevels},
	{"sight of patterns", []string{"folders"}, judgeSight},
	{"patterns", []string{"cut", "sight of patterns"}, judgePatterns},
	{"module patterns", []string{"module levels", "folders"}, func(w *work) { w.whole = modulePatterns(w.survey, w.out, w.parts) }},
	// Most rules ask neither how the folders are cut nor for the features, which take longest to tell.
	{"first smells", []string{"reading", "modules", "file rings", "folder rings", "folders", "charter"}, judgeFirstSmells},
	{"smells", []string{"first smells", "features", "module levels"}, judgeSmells},
}

// counting tell what counts of it: they ask which smells the lead dismissed and which
// rules rest, and are all that Again has to ask.
var counting = []judge{
	{"counted smells", []string{"smells"}, judgeCounted},
	{"legibility", []string{"counted smells"}, judgeLegibility},
}

// run runs the judges; what they need besides must have been told before. What
// broke, and what could not be told because of it, is noted.
func run(w *work, all []judge) {
	done := make(map[string]chan struct{}, len(all))
	for _, j := range all {
		done[j.name] = make(chan struct{})
	}
	var mu sync.Mutex
	failed := map[string]string{}
	took := make(map[string]float64, len(all))
	because := func(j judge) string {
		mu.Lock()
		defer mu.Unlock()
		for _, n := range j.needs {
			if failed[n] != "" {
				return "it needs the " + n + ", which could not be told"
			}
		}
		return ""
	}
	var running sync.WaitGroup
	for _, j := range all {
		running.Go(func() {
			defer close(done[j.name])
			for _, n := range j.needs {
				if asked := done[n]; asked != nil { // else it was asked before
					<-asked
				}
			}
			began, why := time.Now(), because(j)
			if why == "" {
				if broken := parallel.Try(func() { j.run(w) }); broken != nil {
					why = broken.Error()
				}
			}
			mu.Lock()
			defer mu.Unlock()
			took["judge: "+j.name] = float64(time.Since(began).Microseconds()) / 1e6
			if why != "" {
				failed[j.name] = why
			}
		})
	}
	running.Wait()
	w.result.Timings = took
	for _, n := range slices.Sorted(maps.Keys(failed)) {
		w.failed = append(w.failed, model.Note{Path: ".", Text: "the " + n + " could not be told: " + failed[n]})
	}
}

// Who wrote a file follows from the facts, whatever the brief says; only what the lead
// says of it changes.
func judgeOrigin(w *work) {
	told := w.survey.Derived("origin", func() any { return origin.Of(w.survey) }).(map[string]model.OriginOf)
	w.out.Origins = maps.Clone(told)
	weave.OverruleOrigins(w.out.Origins, w.in.Overrules)
}

// What counts is what people here write; the brief may leave some of that out.
func judgeScope(w *work) {
	for _, f := range w.survey.Files {
		if w.out.Origins[f.Path].Origin == model.OriginOwn && inScope(w.in.Brief, f.Path) {
			w.out.InScope[f.Path] = true
			w.out.Judged += f.Lines()
		}
	}
}

func judgeRoles(w *work) {
	asked := func(p string) bool { // of what a tool or others wrote nobody here gave it a part
		switch w.out.Origins[p].Origin {
		case model.OriginGenerated, model.OriginBuilt, model.OriginVendored:
			return false
		}
		return true
	}
	w.polls, w.out.Roles = w.lexicon.Poll(w.survey.Files, asked)
	weave.OverruleRoles(w.out.Roles, w.in.Overrules)
	weave.Headers(w.survey, w.polls, w.out.Roles)
	w.lexicon.Inherit(w.survey, w.polls, w.out.Roles)
}

func judgeFileRings(w *work) {
	w.fileRings = links.FileCycles(w.survey.Links, func(p string) bool { return w.out.InScope[p] })
}

// Tests and programs beside a folder's code may need what needs it: they order
// nothing, since nothing needs them.
func judgeFolderRings(w *work) {
	w.folderRings = links.FolderCycles(w.survey.Links, func(p string) bool {
		return w.out.InScope[p] && w.out.Roles[p].Role != model.RoleTest && w.survey.File(p).Facts.Starts == 0
	})
}

func judgeFeatures(w *work) {
	w.out.Features, w.out.FeatureOf = w.aim.Features()
	if len(w.in.Overrules) > 0 {
		w.idle = weave.Idle(w.survey, w.out.Features, w.in.Overrules)
		w.out.Features = weave.OverruleFeatures(w.out.FeatureOf, w.out.Roles, w.in.Overrules)
	}
	w.out.Features = weave.Anatomies(w.out.Features, w.out.Roles)
}

func judgeLevels(w *work) {
	paths := make([]string, len(w.modules))
	for i, m := range w.modules {
		paths[i] = m.Path
	}
	w.parts = links.PartsOf(w.survey.Links, paths)
	w.levelled = slices.Clone(w.modules)
	w.out.Levels, w.out.LevelDepth = weave.Levels(w.survey, w.out.Roles, w.out.InScope, w.levelled, w.parts)
}

func judgeModuleLevels(w *work) {
	for i := range w.levelled {
		w.out.Modules[i].Levels = w.levelled[i].Levels
	}
}

func judgeFolders(w *work) {
	w.out.Folders = weave.Folders(w.survey, w.allRoles, w.out.InScope, frameworks.Of(w.survey))
	weave.OverrulePurposes(w.out.Folders, w.in.Overrules)
}

func judgeCharter(w *work) {
	res := w.result
	var c *charter.Charter
	if c, res.Faults, res.FromCodebase = readCharter(w.survey, w.in.Charter); c == nil {
		return
	}
	today := w.in.Today
	if today.IsZero() {
		today = w.survey.SurveyedAt
	}
	res.Charter = c
	if len(c.Layers) > 0 {
		res.Conformance = c.Hold(res.Reading, today)
	}
}

func judgeSight(w *work) {
	w.sight = patterns.Look(".", w.survey, w.out.Roles, w.out.InScope, w.out.Folders)
}

func judgePatterns(w *work) {
	w.out.Patterns = w.sight.Rank(w.out.Cut)
}

func judgeFirstSmells(w *work) {
	j := w.out
	j.Cycles = slices.Concat(w.fileRings, w.folderRings)
	var thresholds map[string]float64
	var nameRules []charter.NameRule
	if w.result.Charter != nil {
		thresholds, nameRules = w.result.Charter.Thresholds, w.result.Charter.Names
	}
	w.rules = &smells.Context{
		Reading: w.result.Reading, Folders: j.Folders, Stage: j.Brief.Stage, Thresholds: thresholds, Conformance: w.result.Conformance,
		Modules: slices.Clone(w.modules), Cycles: j.Cycles,
		NameRules: nameRules, Glossary: smells.Glossary(w.result.Charter, w.in.Overrules),
	}
	w.found, w.said = smells.Begin(w.rules)
}

func judgeSmells(w *work) {
	// The modules are copied: their patterns are ranked while the rules look.
	w.rules.Features, w.rules.FeatureOf, w.rules.Modules, w.rules.Cut = w.out.Features, w.out.FeatureOf, slices.Clone(w.out.Modules), w.out.Cut
	w.found, w.said = smells.End(w.rules, w.found, w.said)
}

// judgeCounted tells which of what was found counts, and which hits speak for the
// others. What was found stays as it is.
func judgeCounted(w *work) {
	j := w.out
	j.Hits = slices.Clone(w.found)
	w.in.Quiet.apply(j.Hits)
	rest(j.Hits, w.in.Overrules)
	for _, o := range w.in.Overrules {
		if o.Kind == model.OverruleRule && smells.Named(o.Target) == nil {
			w.resting = append(w.resting, model.Note{Path: ".", Text: "a rule was let rest that is not there: " + o.Target + "; it is kept"})
		}
	}
	j.Smells = smells.Told(w.rules, j.Hits, func(habit *model.Smell) string { return w.in.Quiet[habit.ID].Reason })
}

// mostMends is how many things that would raise the score are told.
const mostMends = 10

// rest silences what rules hit that the lead lets rest.
func rest(found []model.Smell, by []model.Overrule) {
	for _, o := range by {
		if o.Kind != model.OverruleRule || o.Value == "" {
			continue
		}
		for i := range found {
			if sm := &found[i]; sm.Rule == o.Target && sm.Silenced == "" {
				sm.Silenced = model.RuleRests + o.Value
			}
		}
	}
}

func judgeLegibility(w *work) {
	scores := smells.Score(w.rules, w.out.Hits, resolved)
	w.out.Legibility = scores.ByFolder["."]
	w.out.Strains = scores.Arithmetic(".")
	w.out.Raise = smells.Raise(w.rules, w.out.Hits, scores, mostMends)
	w.result.Scores = scores
}
