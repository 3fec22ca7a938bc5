package weave

import (
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/reading"
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
