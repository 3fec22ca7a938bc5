package smells

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
)

var hiddenByPrefixRule = &Rule{
	Slug: "hidden-by-prefix", Facet: model.Layout, Title: "Siblings with a common prefix", Weight: 1.2,
	Family: familyPlace, find: hiddenByPrefix,
	Question: "Do siblings repeat a prefix that wants to be a folder?",
	Why:      "A prefix shared by many files is a folder that nobody made: the grouping exists in the names but not in the tree.",
	Example: "`SeedBadge.tsx`, `SeedCount.tsx`, `SeedMap.tsx` … in one folder; `seed/Badge.tsx`, `seed/Count.tsx` " +
		"says the same in the tree.",
	Remedy:     "Make a folder of the prefix and drop it from the names.",
	Parameters: []Parameter{{"siblings", "files that share the prefix", 8, 5, 4}},
}

func hiddenByPrefix(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "siblings"))
	habits := c.prefixHabits()
	for _, d := range c.Folders {
		files := c.units(d.Path)
		if testPlace(d.Path) || len(files) <= limit {
			continue
		}
		lastWord := ""
		if w := naming.Words(path.Base(d.Path)); len(w) > 0 {
			lastWord = strings.TrimSuffix(w[len(w)-1], "s")
		}
		for _, g := range firstWords(files) {
			// A prefix of every file is the folder's name repeated, not a
			// folder inside it; "use" is the form of a hook.
			if len(g.files) < limit || len(g.files) == len(files) || beginnings[g.word] || habits[g.word] ||
				echoes(g.word, lastWord, 2*len(g.files) > len(files)) {
				continue
			}
			prefix := sharedPrefix(g.files)
			if around := wordsOfPlace(d.Path); !slices.ContainsFunc(naming.Words(prefix), func(w string) bool { return !around[w] }) {
				continue // the folders around are called so
			}
			home := path.Join(d.Path, strings.ToLower(prefix))
			out = append(out, hit{path: d.Path, extra: g.word, strength: 0.3 + 0.08*float64(len(g.files)-limit),
				message:  fmt.Sprintf("%s siblings share the prefix *%s*", capital(number(len(g.files))), prefix),
				evidence: evidence(paths(g.files), "begins with "+prefix), touches: paths(g.files),
				remedy: fmt.Sprintf("Make a folder %s and move the %s files there, without the prefix.", home, number(len(g.files)))})
		}
	}
	return out
}

// echoes reports whether a prefix only repeats what a folder is called, in part
// where most of its files have it.
func echoes(word, folder string, most bool) bool {
	return strings.TrimSuffix(word, "s") == strings.TrimPrefix(folder, "lib") || word == folder || most && strings.HasPrefix(folder, word) ||
		len(word) > 3 && strings.HasSuffix(folder, word)
}

// beginnings are written before words to turn them, or are the form of a name, and
// group nothing.
var beginnings = map[string]bool{
	"use": true, "get": true, "is": true,
	"pre": true, "post": true, "sub": true, "non": true, "multi": true, "anti": true, "auto": true,
}

// sharedPrefix is what the names of files begin with alike, to the end of a word, as
// the first of them writes it.
func sharedPrefix(files []*model.File) string {
	shared := naming.Words(naming.Stem(files[0].Path))
	shared = shared[:len(shared)-1] // one word is left to tell them apart
	for _, f := range files[1:] {
		n, words := 0, naming.Words(naming.Stem(f.Path))
		for n < len(shared) && n < len(words)-1 && shared[n] == words[n] {
			n++
		}
		shared = shared[:n]
	}
	stem, end := naming.Stem(files[0].Path), 0
	for _, w := range shared {
		at := strings.Index(strings.ToLower(stem[end:]), w)
		if at < 0 {
			return shared[0]
		}
		end += at + len(w)
	}
	return stem[:end]
}

// prefixHabits are first words that names have all over a codebase: that of the
// product, or of a good part of the files in several folders. Where a language has
// no namespaces they stand for one, and for no folder.
func (c *Context) prefixHabits() map[string]bool {
	files, folders, all := map[string]int{}, map[string]map[string]bool{}, 0
	c.source(func(f *model.File) {
		all++
		if w := naming.Words(naming.Stem(f.Path)); len(w) > 1 {
			files[w[0]]++
			if folders[w[0]] == nil {
				folders[w[0]] = map[string]bool{}
			}
			folders[w[0]][model.FolderOf(f.Path)] = true
		}
	})
	product := strings.ToLower(strings.Join(naming.Words(c.Survey.Codebase), ""))
	out := map[string]bool{}
	for w, n := range files {
		out[w] = len(folders[w]) >= 4 && 5*n >= all || len(w) > 3 && len(folders[w]) > 1 && strings.Contains(product, w)
	}
	return out
}
