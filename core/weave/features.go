package weave

import (
	"fmt"
	"path"
	"regexp"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/parallel"
	"jantel/core/reading"
	"jantel/core/syntax"
)

// Aim is what features and cuts are told from: the judged files with their
// roles, the words of their names, and which of these are features.
type Aim struct {
	lex   *Lexicon
	polls Polls // may be empty
	files []*model.File
	roles map[string]model.RoleOf
	words map[string][]string // of a file's own name
	dirs  map[string][]string // of each folder's name
	// product are the words of what it is called, called all of them in one.
	product map[string]bool
	called  string
	known   map[string]int // the words that are features, with how many files have each
	// across are those of them by which files in several folders are called: there a
	// folder says less than the name.
	across map[string]bool
}

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
	gathered := map[string][]string{}
	for _, f := range a.files {
		name, why := a.featureOf(f, names)
		of[f.Path] = model.FeatureOf{Feature: name, Reasons: why}
		if name != "" {
			gathered[name] = append(gathered[name], f.Path)
		}
	}
	out := []model.Feature{}
	for n, files := range gathered {
		if len(files) < 2 {
			of[files[0]] = model.FeatureOf{Reasons: []string{"the only file about " + n}}
		}
	}
	a.oneEach(of)
	clear(gathered)
	for _, f := range a.files {
		if name := of[f.Path].Feature; name != "" {
			gathered[name] = append(gathered[name], f.Path)
		}
	}
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

// NewAim gathers what files can be about.
func NewAim(s *model.Survey, polls Polls, roles map[string]model.RoleOf, judged map[string]bool, lex *Lexicon) *Aim {
	at := map[string]bool{} // folders with a project file: what they are called is no feature of them
	for _, f := range s.Files {
		if f.Facts != nil && f.Facts.Project != nil && projectTools[f.Facts.Project.Tool] {
			at[model.FolderOf(f.Path)] = true
		}
	}
	own := map[string]bool{} // words of what the codebase and its projects are called
	for _, w := range naming.Words(s.Codebase) {
		own[stemWord(w)] = true
	}
	built := alikeFolders(s, judged, lex)
	called := strings.ToLower(strings.Join(naming.Words(s.Codebase), ""))
	a := &Aim{product: own, called: called, lex: lex, polls: polls, roles: roles, words: map[string][]string{}, dirs: map[string][]string{}}
	for _, f := range s.Files {
		if !judged[f.Path] || f.Facts == nil || !featured(f, roles[f.Path].Role) {
			continue
		}
		a.files = append(a.files, f)
		a.words[f.Path] = lex.subject(f)
		for d := model.FolderOf(f.Path); d != "."; d = model.FolderOf(d) {
			if _, ok := a.dirs[d]; ok {
				break
			}
			up := model.FolderOf(d)
			// A package named as the project around it says nothing more.
			if at[d] || sameWords(path.Base(d), s.Codebase) ||
				up != "." && path.Base(up) == path.Base(d) || at[up] && sameWords(path.Base(up), path.Base(d)) {
				a.dirs[d] = nil
				continue
			}
			if a.dirs[d] = lex.folderWords(path.Base(d)); built[d] && len(a.dirs[d]) == 0 {
				a.dirs[d] = []string{stemWord(strings.Join(naming.Words(path.Base(d)), " "))}
			}
		}
	}
	a.sorts()
	a.folderThings()
	a.things()
	a.known = a.names()
	return a
}

// sorts takes from the names of folders the word that many siblings begin or end with:
// filter_mesh, filter_noise and filter_paint are filters, each for something else.
func (a *Aim) sorts() {
	beside := map[string][]string{}
	for d, words := range a.dirs {
		if len(words) > 1 {
			beside[model.FolderOf(d)] = append(beside[model.FolderOf(d)], d)
		}
	}
	for _, siblings := range beside {
		first, last := map[string]int{}, map[string]int{}
		for _, d := range siblings {
			first[a.dirs[d][0]]++
			last[a.dirs[d][len(a.dirs[d])-1]]++
		}
		for _, d := range siblings {
			words := a.dirs[d]
			if first[words[0]] >= leastOfASort {
				words = words[1:]
			}
			if n := len(words); n > 1 && last[words[n-1]] >= leastOfASort {
				words = words[:n-1]
			}
			a.dirs[d] = words
		}
	}
}

// leastOfASort is how many siblings a word has to begin, to be the word for what they
// all are.
const leastOfASort = 4

// leastInThing is how many files a folder called by a word of roles has to hold to be about
// what it is called, and leastThings how many folders beside it that are about something.
const leastInThing, leastThings = 3, 2

// folderThings adds what folders are called by a word that names of files end in for their
// role, where few of their files are of that role, and what lies beside them is called for
// what it is about: a library of menus, forms and panels is about panels.
func (a *Aim) folderThings() {
	held, ofRole := map[string]int{}, map[string]int{}
	for _, f := range a.files {
		d := model.FolderOf(f.Path)
		if a.roles[f.Path].Role == model.RoleTest || !reading.IsCode(f) || d == "." {
			continue
		}
		held[d]++
		if r := a.roles[f.Path]; r.Source == model.RoleSeen && r.Role == a.lex.Names[strings.ToLower(path.Base(d))] {
			ofRole[d]++
		}
	}
	about := map[string]int{} // folders in a folder that are about something
	for d, words := range a.dirs {
		if len(words) > 0 && held[d] > 0 {
			about[model.FolderOf(d)]++
		}
	}
	for d, words := range a.dirs {
		name := strings.ToLower(path.Base(d))
		_, ends := a.lex.Names[name]
		if len(words) > 0 || !ends || a.lex.NoFeatures[name] || a.lex.CatchAll[name] || a.lex.Folders[name] != "" || a.product[name] {
			continue
		}
		if held[d] >= leastInThing && 3*ofRole[d] <= held[d] && about[model.FolderOf(d)] >= leastThings {
			a.dirs[d] = []string{stemWord(name)}
		}
	}
}

// things adds words that mostly say how code is arranged, where they say what it
// is about: where something is called so and nothing else that answers, holds or
// keeps it, and files of several roles in three folders are named for it.
func (a *Aim) things() {
	type gathering struct {
		folders map[string]bool
		roles   map[model.Role]bool
		itself  bool
		family  bool
		files   []*model.File
		within  map[string]bool // folders of that name
	}
	by := map[string]*gathering{}
	add := func(w string, f *model.File, itself bool, folder string) {
		if w = stemWord(w); !a.lex.Things[w] || a.product[w] {
			return
		}
		g := by[w]
		if g == nil {
			g = &gathering{folders: map[string]bool{}, roles: map[model.Role]bool{}, within: map[string]bool{}}
			by[w] = g
		}
		r := a.roles[f.Path].Role
		if r == model.RoleTest {
			return
		}
		if r != "" {
			g.roles[r] = true
		}
		g.folders[model.FolderOf(f.Path)] = true
		if folder != "" {
			g.within[folder] = true
			return
		}
		g.files = append(g.files, f)
		switch r {
		case model.RoleHandler, model.RoleModel, model.RoleDataAccess, model.RoleRouting, model.RoleView:
			g.itself = g.itself || itself
		}
		// A file beside the folder of its name is the head of a family.
		if _, family := a.dirs[strings.TrimSuffix(f.Path, path.Ext(f.Path))]; family && itself {
			g.itself, g.family = true, true
		}
	}
	for _, f := range a.files {
		words := naming.Words(naming.Stem(path.Base(f.Path)))
		if len(words) == 0 {
			continue
		}
		add(words[0], f, len(words) == 1, "")
		if d := model.FolderOf(f.Path); d != "." {
			if w := naming.Words(path.Base(d)); len(w) == 1 {
				add(w[0], f, false, d)
			}
		}
	}
	for w, g := range by {
		if !g.itself || len(g.roles) < 2 && !g.family || len(g.folders) < 3 {
			continue
		}
		for _, f := range g.files {
			a.words[f.Path] = slices.Insert(a.words[f.Path], 0, w) // it stands first in its name
		}
		for d := range g.within {
			a.dirs[d] = append(a.dirs[d], w)
		}
	}
}

// alikeFolders are folders called by a word of roles that are built like two
// others beside them, of parts whose names are words of roles: each is what the
// software is about, and its name no role.
func alikeFolders(s *model.Survey, judged map[string]bool, lex *Lexicon) map[string]bool {
	stems, size := map[string]map[string]int{}, map[string]int{}
	for _, f := range s.Files {
		if !judged[f.Path] || !reading.IsCode(f) {
			continue
		}
		d, stem := model.FolderOf(f.Path), strings.Join(naming.Words(naming.Stem(path.Base(f.Path))), " ")
		size[d]++
		if _, role := lex.Names[stem]; role {
			if stems[d] == nil {
				stems[d] = map[string]int{}
			}
			stems[d][stem]++
		}
	}
	built, _ := builtAlike(stems, size)
	out := make(map[string]bool, len(built))
	for _, d := range built {
		out[d] = d != "."
	}
	return out
}

func sameWords(a, b string) bool {
	return strings.Join(naming.Words(a), "") == strings.Join(naming.Words(b), "")
}

// featured reports whether a file can be about a feature.
func featured(f *model.File, r model.Role) bool {
	switch r {
	case model.RoleConfig, model.RoleDocs, model.RoleScript, model.RoleTranslation, model.RoleAsset:
		return false
	case model.RoleStyle, model.RoleSchema, model.RoleView, model.RoleTest:
		return true
	}
	return reading.IsCode(f)
}

// stemWord is a word as features are named: in the singular.
func stemWord(w string) string { return naming.Singular(w) }

// subject is the words of a file's name that can be what it is about: without
// those of the trade at its end and those that stand anywhere.
func (lex *Lexicon) subject(f *model.File) []string {
	base := path.Base(f.Path)
	words := naming.Words(spelled(f, naming.Stem(base)))
	if parts := strings.Split(base, "."); len(parts) > 2 {
		// lots.service.ts: only the first part can be the subject; module.lots.php: what follows a
		// word of the trade.
		first := 0
		for first < len(parts)-2 && (lex.NoFeatures[parts[first]] || typeWords[parts[first]]) {
			first++
		}
		words = naming.Words(strings.TrimPrefix(parts[first], "_"))
	}
	for len(words) > 0 {
		last := words[len(words)-1]
		if _, role := lex.Names[last]; (role || last == "test" || last == "tests" || last == "spec" || last == "css" ||
			last == "use") && (len(words) > 1 || role) {
			words = words[:len(words)-1]
			continue
		}
		break
	}
	if len(words) > 1 && (words[0] == "use" || words[0] == "test" || words[0] == "i" && len(words[0]) == 1) {
		words = words[1:]
	}
	return lex.clean(words)
}

// typeWords begin names of files for the sort of type that they hold.
var typeWords = syntax.Set("class", "interface", "trait", "enum", "func", "lib")

// spelled is a name written in one as the type in the file that is called so
// spells it: torrentimpl as TorrentImpl.
func spelled(f *model.File, stem string) string {
	if f.Facts == nil || len(stem) < 6 || strings.ToLower(stem) != stem || strings.ContainsAny(stem, "_-. ") {
		return stem
	}
	for _, d := range f.Facts.Definitions {
		name := d.Name
		if d.Parent != "" && d.Kind == model.DefMethod {
			name = d.Parent
		}
		if len(name) == len(stem) && strings.EqualFold(name, stem) {
			return name
		}
	}
	return stem
}

func (lex *Lexicon) clean(words []string) []string {
	var out []string
	for _, w := range words {
		if len(w) < 3 || lex.NoFeatures[w] || w[0] >= '0' && w[0] <= '9' {
			continue
		}
		out = append(out, stemWord(w))
	}
	return out
}

// libOf is what stands behind "lib" where that is cut off, and not part of a word.
var libOf = regexp.MustCompile(`^(?:[b-df-hj-np-qstv-xz]|a[^r]|[eiou][^r])`)

// folderWords is the words of a folder's name that can be what it is about;
// none where the folder is one of a role.
func (lex *Lexicon) folderWords(name string) []string {
	if rest, ok := strings.CutPrefix(name, "lib"); ok && len(rest) > 2 && libOf.MatchString(rest) {
		name = rest // libdrying is a library for drying
	}
	words := naming.Words(name)
	if _, ok := lex.Folders[strings.Join(words, " ")]; ok || lex.CatchAll[strings.Join(words, " ")] {
		return nil
	}
	if n := len(words); n == 0 || n > 3 {
		return nil
	} else if _, role := lex.Names[stemWord(words[n-1])]; role {
		words = words[:n-1]
	}
	if len(words) == 2 && words[1][0] <= '9' && len(lex.clean(words)) == 0 && !lex.NoFeatures[strings.Join(words, "")] {
		return []string{strings.Join(words, "")} // ext2, mp3: the figure belongs to it
	}
	return lex.clean(words)
}

// spokenOf is what a word stands in.
type spokenOf struct {
	files   map[string]bool
	source  map[string]bool // those that are no tests
	roles   map[model.Role]bool
	folders map[string]bool // those that hold files named for it, tests left out
	named   int             // how many those are
	first   int             // of them, those whose name it begins
	whole   map[string]bool // folders about something, with a file that is called so and nothing else
	own     int             // files in a folder of that name
}

// wordsOfNames gathers what each word of the names of files and folders stands in,
// and counts the files that are no tests.
func (a *Aim) wordsOfNames() (by map[string]*spokenOf, source int) {
	by = map[string]*spokenOf{}
	get := func(w string) *spokenOf {
		if by[w] == nil {
			by[w] = &spokenOf{files: map[string]bool{}, source: map[string]bool{}, roles: map[model.Role]bool{},
				folders: map[string]bool{}, whole: map[string]bool{}}
		}
		return by[w]
	}
	for _, f := range a.files {
		role := a.roles[f.Path].Role
		if role != model.RoleTest {
			source++
		}
		add := func(g *spokenOf) (counts bool) {
			g.files[f.Path] = true
			if role == model.RoleTest {
				return false
			}
			g.source[f.Path] = true
			if role != "" {
				g.roles[role] = true
			}
			return true
		}
		folder := model.FolderOf(f.Path)
		for i, w := range a.words[f.Path] {
			g := get(w)
			if !add(g) {
				continue
			}
			if i == 0 {
				g.first++
			}
			if len(a.words[f.Path]) == 1 && len(a.dirs[folder]) > 0 {
				g.whole[folder] = true
			}
			g.folders[folder] = true
			g.named++
		}
		for d := folder; d != "."; d = model.FolderOf(d) {
			for _, w := range a.dirs[d] {
				if g := get(w); add(g) {
					g.own++
				}
			}
		}
	}
	return by, source
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
