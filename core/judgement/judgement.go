// Package judgement makes of a survey's facts what Jantel has to say about
// them, under the brief of the lead. It is made anew whenever the brief or the
// rules change; facts stay as they are.
package judgement

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"math"
	"runtime"
	"sync"

	"jantel/core/links"
	"jantel/core/model"
	"jantel/core/patterns"
	"jantel/core/smells"
	"jantel/core/syntax"
	"jantel/core/weave"

	"github.com/bmatcuk/doublestar/v4"
)

// RulesVersion is raised when a rule, a weight, the lexicon or a signal
// changes, so that judgements kept elsewhere are made anew.
const RulesVersion = 1

// Result is a judgement with the arithmetic of every folder's score.
type Result struct {
	*model.Judgement
	Scores *smells.Scores
}

// Silenced maps smell ids to the lead's reason for not counting them.
type Silenced map[string]string

// Version identifies what the judgement depends on besides the facts.
func Version(b model.Brief, quiet Silenced) string {
	text, err := json.Marshal([]any{RulesVersion, b, quiet})
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

// Judge judges a survey. The brief must have passed CheckBrief; a brief
// without a stage is taken as growing.
func Judge(s *model.Survey, brief model.Brief, quiet Silenced) *Result {
	if brief.Stage == "" {
		brief.Stage = model.Growing
	}
	j := &model.Judgement{Version: Version(brief, quiet), Brief: brief, InScope: map[string]bool{}, Roles: make(map[string]model.RoleOf, len(s.Files))}
	for _, f := range s.Files {
		j.AllLines += f.Lines()
		if f.Judgeable() && inScope(brief, f.Path) {
			j.InScope[f.Path] = true
			j.Judged += f.Lines()
		}
	}
	var cycles sync.WaitGroup
	scope := func(p string) bool { return j.InScope[p] }
	cycles.Go(func() {
		j.Cycles = append(links.FileCycles(s.Links, scope), links.FolderCycles(s.Links, scope)...)
	})
	roles := make([]model.RoleOf, len(s.Files))
	inParts(len(s.Files), func(i int) { roles[i] = weave.Role(s.Files[i]) })
	for i, f := range s.Files {
		j.Roles[f.Path] = roles[i]
	}
	j.Folders = weave.Folders(s, j.Roles, j.InScope)
	var cutting sync.WaitGroup
	cutting.Go(func() {
		j.Features, j.FeatureOf = weave.Features(s, j.Roles, j.InScope)
		j.Modules, j.Cut = weave.Cuts(s, j.Roles, j.InScope, weave.Modules(s, j.InScope))
		j.Levels, j.LevelDepth = weave.Levels(s, j.InScope, j.Modules)
	})
	cutting.Wait()
	cycles.Wait()
	c := &smells.Context{Survey: s, Roles: j.Roles, Judged: j.InScope, Folders: j.Folders, Stage: brief.Stage, Cycles: j.Cycles}
	var ranking sync.WaitGroup
	ranking.Go(func() { j.Patterns = patterns.Rank(s, j.Roles, j.InScope, j.Folders) })
	j.Smells = smells.Find(c)
	for i := range j.Smells {
		j.Smells[i].Silenced = quiet[j.Smells[i].ID]
	}
	scores := smells.Score(c, j.Smells, resolved)
	ranking.Wait()
	j.Legibility = scores.ByFolder["."]
	j.Strains = scores.Arithmetic(".")
	j.BuildIndex()
	for _, f := range j.Folders {
		f.Legibility = scores.ByFolder[f.Path]
	}
	countSmells(s, j)
	return &Result{j, scores}
}

// resolved reports whether the imports of a file's language are followed.
func resolved(f *model.File) bool {
	l := syntax.Named(f.Language)
	return l != nil && l.Links()
}

// inParts calls fn for each index below n, from several goroutines.
func inParts(n int, fn func(i int)) {
	workers := min(runtime.GOMAXPROCS(0), n)
	var wg sync.WaitGroup
	for w := range workers {
		wg.Go(func() {
			for i := w * n / workers; i < (w+1)*n/workers; i++ {
				fn(i)
			}
		})
	}
	wg.Wait()
}

func countSmells(s *model.Survey, j *model.Judgement) {
	for i := range j.Smells {
		sm := &j.Smells[i]
		if sm.Silenced != "" {
			continue
		}
		d := sm.Path
		if s.File(d) != nil {
			d = model.FolderOf(d)
		}
		for {
			if f := j.Folder(d); f != nil {
				f.Smells++
				f.Strongest = math.Max(f.Strongest, sm.Strength)
			}
			if d == "." {
				break
			}
			d = model.FolderOf(d)
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
