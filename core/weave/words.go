package weave

import (
	"path"
	"regexp"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
)

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
