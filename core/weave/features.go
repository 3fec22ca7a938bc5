package weave

import (
	"fmt"
	"path"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/parallel"
)

// tooCommon is the share of source files from which a word is everywhere and
// tells nothing.
const tooCommon = 0.5

// fewFiles is up to how many source files a word may stand in most: of two or
// three things that a small program is about, one is in half of it.
const fewFiles = 20

// Features finds what the software is about, from the words of names and
// folders: a word becomes a feature when it gathers files of two roles or has a
// folder of its own. Each file belongs to one feature at most.
func (a *Aim) Features() ([]model.Feature, map[string]model.FeatureOf) {
	names, roles := a.known, a.roles
	of := map[string]model.FeatureOf{}
	held := map[string]int{}
	for _, f := range a.files {
		name, why := a.featureOf(f, names)
		of[f.Path] = model.FeatureOf{Feature: name, Reasons: why}
		held[name]++
	}
	for _, f := range a.files {
		if n := of[f.Path].Feature; n != "" && held[n] < 2 {
			of[f.Path] = model.FeatureOf{Reasons: []string{"the only file about " + n}}
		}
	}
	a.oneEach(of)
	gathered := map[string][]string{}
	for _, f := range a.files {
		if name := of[f.Path].Feature; name != "" {
			gathered[name] = append(gathered[name], f.Path)
		}
	}
	out := []model.Feature{}
	for n, files := range gathered {
		out = append(out, model.Feature{Name: n, Files: files, Scatter: scatter(n, files, roles)})
	}
	sort.Slice(out, func(i, j int) bool {
		if len(out[i].Files) != len(out[j].Files) {
			return len(out[i].Files) > len(out[j].Files)
		}
		return out[i].Name < out[j].Name
	})
	return out, of
}

func scatter(name string, files []string, roles map[string]model.RoleOf) int {
	in := map[string]bool{}
	for _, p := range files {
		if roles[p].Role != model.RoleTest {
			in[Home(name, model.FolderOf(p))] = true
		}
	}
	return max(len(in), 1)
}

// Home is the folder in which a part of a feature lies: a folder that is named for
// the feature is one, with all that it holds.
func Home(name, folder string) string {
	want := stemWord(strings.ToLower(name))
	for from := 0; from < len(folder); {
		end := strings.IndexByte(folder[from:], '/')
		if end < 0 {
			end = len(folder) - from
		}
		if stemWord(strings.ToLower(folder[from:from+end])) == want {
			return folder[:from+end]
		}
		from += end + 1
	}
	return folder
}

// names are the words that are features, each with how many files have it.
func (a *Aim) names() map[string]int {
	by, source := a.wordsOfNames()
	out := map[string]int{}
	a.across = map[string]bool{}
	for w, g := range by {
		n := len(g.files)
		if g.own == 0 && len(g.whole) >= 3 && 3*len(g.whole) >= 2*g.named {
			continue // each of several folders has a part that is called so: it is a sort of part
		}
		product := a.product[w] || len(w) > 3 && 10*g.first >= source && strings.Contains(a.called, w)
		a.across[w] = g.first >= leastSpoken && len(g.folders) >= 2 && g.own == 0
		if product && source > fewFiles && g.own == 0 {
			continue // a large program is about more than what it is called
		}
		common := float64(n) > tooCommon*float64(source)
		if n < 2 || common && (source > fewFiles || product && source > 6) || source > 6 && 4*n > 3*source {
			continue
		}
		if len(g.roles) >= 2 || g.own >= 2 {
			out[w] = n
		}
	}
	// Where roles say little, what is spoken of in several files.
	asked := map[string]int{}
	for w, g := range by {
		rare, spread := len(g.source) <= fewFiles, g.named >= leastSpoken && len(g.folders) >= 2
		if n := len(g.files); out[w] == 0 && !a.product[w] && (rare || spread && float64(n) <= tooCommon*float64(source)) {
			asked[w] = n
		}
	}
	for w, n := range a.spoken(asked) {
		spread := by[w].named >= leastSpoken && len(by[w].folders) >= 2
		if n >= leastSpoken && (spread || 4*n <= source) {
			out[w] = asked[w]
		}
	}
	return out
}

// leastSpoken is in how many files what a file is called has to be spoken of, to
// be a thing the software is about.
const leastSpoken = 3

// spoken counts the files that define something by each of the words.
func (a *Aim) spoken(words map[string]int) map[string]int {
	in := make([][]string, len(a.files))
	parallel.Each(len(a.files), func(i int) {
		f := a.files[i]
		if a.roles[f.Path].Role == model.RoleTest {
			return
		}
		seen := map[string]bool{}
		for _, d := range f.Facts.Definitions {
			for _, w := range naming.Words(d.Name) {
				if w = stemWord(w); words[w] > 0 && !seen[w] {
					seen[w] = true
					in[i] = append(in[i], w)
				}
			}
		}
	})
	out := map[string]int{}
	for _, ws := range in {
		for _, w := range ws {
			out[w]++
		}
	}
	return out
}

// featureOf is the feature a file is about: what its own name says first, then
// its innermost folder that says anything.
func (a *Aim) featureOf(f *model.File, names map[string]int) (string, []string) {
	score := map[string]float64{}
	why := map[string]string{}
	add := func(w string, n float64, reason string) {
		if names[w] == 0 {
			return
		}
		if score[w] == 0 {
			why[w] = reason
		}
		score[w] += n
	}
	words := a.words[f.Path]
	for i, w := range words {
		// The first word of a name usually says what, the rest which part.
		weight := 1.6
		if i > 0 {
			weight = 1.2
		} else if a.across[w] {
			weight = 2
		}
		add(w, weight, fmt.Sprintf("its name holds %q", w))
	}
	weight := 1.9
	for d := model.FolderOf(f.Path); d != "."; d = model.FolderOf(d) {
		said := false
		for _, w := range a.dirs[d] {
			add(w, weight, "it lies in the folder "+path.Base(d))
			said = said || names[w] > 0
		}
		if said {
			weight /= 2
		}
	}
	best := ""
	for w, n := range score {
		if best == "" || n > score[best] || n == score[best] && (names[w] > names[best] || names[w] == names[best] && w < best) {
			best = w
		}
	}
	if best == "" {
		return "", nil
	}
	return best, []string{why[best]}
}

// named is the feature that a file's name and what it defines speak of, its
// folders left aside: what lies together must not be told by where it lies.
func (a *Aim) named(f *model.File, names map[string]int) string {
	score := map[string]float64{}
	for i, w := range a.words[f.Path] {
		if names[w] > 0 {
			score[w] += 3 - 0.5*float64(min(i, 2))
		}
	}
	n := 0
	for _, d := range f.Facts.Definitions {
		if d.Parent != "" && d.Kind != model.DefMethod || n >= 30 {
			continue
		}
		n++
		seen := map[string]bool{}
		for _, w := range a.lex.clean(naming.Words(d.Name)) {
			if names[w] > 0 && !seen[w] {
				seen[w] = true
				score[w] += 0.4
			}
		}
	}
	// What it asks of a store, and what its authors say it is for.
	asked := map[string]bool{}
	for _, o := range f.Facts.Operations {
		for _, w := range a.lex.clean(naming.Words(o.Entity)) {
			if names[w] > 0 && !asked[w] {
				asked[w] = true
				score[w]++
			}
		}
	}
	for _, w := range a.lex.clean(naming.Words(f.Facts.Doc)) {
		if names[w] > 0 && !asked["doc "+w] {
			asked["doc "+w] = true
			score[w] += 0.9
		}
	}
	for _, r := range f.Facts.Routes {
		for _, w := range a.lex.clean(naming.Words(r.Pattern)) {
			if names[w] > 0 {
				score[w] += 0.5
				break
			}
		}
	}
	best := ""
	for w, v := range score {
		if v = round4(v); best == "" || v > round4(score[best]) || v == round4(score[best]) && w < best {
			best = w
		}
	}
	if best != "" && round4(score[best]) < 0.8 {
		return ""
	}
	return best
}
