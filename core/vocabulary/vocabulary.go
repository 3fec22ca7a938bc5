// Package vocabulary tells how a codebase speaks: the words of its names, how
// names are written, by which verbs its functions are called and whether they
// keep what they promise.
package vocabulary

import (
	"cmp"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/reading"
	"jantel/core/syntax"
)

// Vocabulary is how the own code of a place speaks, tests left out.
type Vocabulary struct {
	Names       int          `json:"names"` // that were looked at: definitions, files and folders
	Words       []Word       `json:"words"` // the most frequent first
	Conventions []Convention `json:"conventions"`
	Verbs       []Verb       `json:"verbs"` // first words of functions, the most frequent first
	Actions     []Action     `json:"actions"`
}

// Word is a word that names are made of.
type Word struct {
	Word  string  `json:"word"` // in the singular, in lower case
	Count int     `json:"count"`
	Files int     `json:"files"`
	Kinds []Kinds `json:"kinds"` // of what is named so, the most frequent first
	// Long is the word that it shortens, where both occur; "" else.
	Long   string      `json:"long"`
	Places []NamePlace `json:"places"` // the first of them
}

// Kinds counts names of one kind.
type Kinds struct {
	Kind  string `json:"kind"`
	Count int    `json:"count"`
}

// NamePlace is where something is named.
type NamePlace struct {
	Path string `json:"path"`
	Line int    `json:"line"`
	Name string `json:"name"`
}

// Convention is how names of one kind are written in one language.
type Convention struct {
	Kind     string  `json:"kind"`
	Language string  `json:"language"`
	Count    int     `json:"count"` // whose case can be told
	Cases    []Cased `json:"cases"` // the most frequent first
	// Outliers are names written in a case that less than a tenth has.
	Outliers []NamePlace `json:"outliers"`
}

// Cased counts names written in one case.
type Cased struct {
	Case  string `json:"case"`
	Count int    `json:"count"`
}

// Verb is a first word of functions. Of those that promise a value, it tells
// how many were seen to give none.
type Verb struct {
	Verb    string      `json:"verb"`
	Count   int         `json:"count"`
	Broken  int         `json:"broken"`
	Promise bool        `json:"promise"` // its name promises something that can be checked
	Places  []NamePlace `json:"places"`  // those that do not keep it, else the first
}

// Action is one action that several verbs stand for.
type Action struct {
	Verbs []Kinds `json:"verbs"`
	// Things are what several of the verbs are said of, with those verbs.
	Things []ActedOn `json:"things"`
}

// ActedOn is what an action is done to.
type ActedOn struct {
	Thing string    `json:"thing"`
	Verbs []string  `json:"verbs"`
	Place NamePlace `json:"place"`
}

// How much is listed of each; everything is counted.
const (
	mostWords    = 1500
	mostPlaces   = 12
	mostVerbs    = 80
	mostThings   = 40
	leastToTell  = 5    // names of a kind, before a case of theirs is called one
	outlierShare = 0.10 // of the names of a kind
)

// Of tells the vocabulary of a place.
func Of(r *reading.Reading, place string) *Vocabulary {
	v := &teller{
		words: map[string]*wordAt{}, cases: map[[2]string]*casesAt{}, verbs: map[string]*Verb{},
		said: map[string]map[string]NamePlace{},
	}
	folders := map[string]bool{}
	for f := range r.Source(place) {
		for d := model.FolderOf(f.Path); d != "." && model.Within(place, d) && !folders[d]; d = model.FolderOf(d) {
			folders[d] = true
			v.name(path.Base(d), "folder", "", NamePlace{Path: d, Name: path.Base(d)})
		}
		stem := naming.Stem(f.Path)
		v.name(stem, "file", f.Language, NamePlace{Path: f.Path, Name: path.Base(f.Path)})
		broken := map[int]bool{}
		if !r.HandsOn(f.Path) {
			broken = promisesBroken(f)
		}
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			if d.Kind == model.DefOther || strings.ContainsAny(d.Name, " /<") || strings.HasPrefix(d.Name, "__") {
				continue
			}
			at := NamePlace{Path: f.Path, Line: d.Line, Name: d.Name}
			v.name(d.Name, kindOf(d), f.Language, at)
			if d.Kind == model.DefFunction || d.Kind == model.DefMethod {
				v.verb(d, at, broken[i])
			}
		}
		for l := range f.Facts.LocalNames() {
			v.name(l.Name, localKinds[l.Kind], f.Language, NamePlace{Path: f.Path, Line: l.Line, Name: l.Name})
		}
	}
	return v.told()
}

// localKinds are what names inside of bodies are called in the tables.
var localKinds = map[byte]string{model.LocalParameter: "parameter", model.LocalName: "local"}

// kindOf is what a definition is called in the tables.
func kindOf(d *model.Definition) string {
	switch d.Kind {
	case model.DefInterface, model.DefEnum, model.DefType, model.DefClass:
		return "type"
	case model.DefProperty:
		return "field"
	}
	return string(d.Kind)
}

// promisesBroken holds the definitions of a file that give no value.
func promisesBroken(f *model.File) map[int]bool {
	out := map[int]bool{}
	for _, in := range f.Facts.Insides {
		if !in.Gives && !in.Empty {
			out[in.Definition] = true
		}
	}
	return out
}

// teller gathers what is told.
type teller struct {
	names int
	words map[string]*wordAt
	cases map[[2]string]*casesAt
	verbs map[string]*Verb
	said  map[string]map[string]NamePlace // by thing and verb
}

type wordAt struct {
	Word
	kinds map[string]int
	last  string // the file met last
}

type casesAt struct {
	counts map[naming.Case]int
	places map[naming.Case][]NamePlace
}

// name takes one name.
func (v *teller) name(name, kind, language string, at NamePlace) {
	v.names++
	seen := map[string]bool{}
	for _, w := range naming.Words(name) {
		w = naming.Singular(strings.ToLower(w))
		if len(w) < 2 || seen[w] || w[0] >= '0' && w[0] <= '9' {
			continue
		}
		seen[w] = true
		x := v.words[w]
		if x == nil {
			x = &wordAt{Word: Word{Word: w, Places: []NamePlace{}}, kinds: map[string]int{}}
			v.words[w] = x
		}
		x.Count++
		x.kinds[kind]++
		if x.last != at.Path {
			x.last = at.Path
			x.Files++
		}
		if len(x.Places) < mostPlaces {
			x.Places = append(x.Places, at)
		}
	}
	c := naming.CaseOf(name)
	if c == naming.Plain || kind == "folder" {
		return
	}
	k := [2]string{kind, language}
	if v.cases[k] == nil {
		v.cases[k] = &casesAt{map[naming.Case]int{}, map[naming.Case][]NamePlace{}}
	}
	v.cases[k].counts[c]++
	if len(v.cases[k].places[c]) < mostPlaces {
		v.cases[k].places[c] = append(v.cases[k].places[c], at)
	}
}

// verb takes the first word of a function that has more than one.
func (v *teller) verb(d *model.Definition, at NamePlace, broken bool) {
	word := syntax.FirstWord(d.Name)
	// What the language calls by itself is named by nobody here.
	if strings.HasPrefix(d.Name, "__") || len(word) < 2 || len(word) >= len(strings.TrimLeft(d.Name, "_")) {
		return
	}
	x := v.verbs[word]
	if x == nil {
		x = &Verb{Verb: word, Promise: naming.Asking[word] || naming.Giving[word], Places: []NamePlace{}}
		v.verbs[word] = x
	}
	x.Count++
	switch {
	case x.Promise && broken:
		if x.Broken++; x.Broken == 1 {
			x.Places = x.Places[:0]
		}
		x.Places = append(x.Places, at)
	case x.Broken == 0:
		x.Places = append(x.Places, at)
	}
	x.Places = x.Places[:min(mostPlaces, len(x.Places))]
	if _, known := actionOf[word]; known {
		w := naming.Words(d.Name)
		if len(w) < 2 {
			return
		}
		thing := strings.ToLower(strings.Join(w[1:], " "))
		if v.said[thing] == nil {
			v.said[thing] = map[string]NamePlace{}
		}
		if _, ok := v.said[thing][word]; !ok {
			v.said[thing][word] = at
		}
	}
}

// actionOf is the action that a verb stands for.
var actionOf = func() map[string]int {
	out := map[string]int{}
	for i, row := range naming.SameAction {
		for _, w := range row {
			out[w] = i
		}
	}
	return out
}()

// told puts what was gathered in order.
func (v *teller) told() *Vocabulary {
	out := &Vocabulary{Names: v.names, Words: []Word{}, Conventions: v.conventions(), Verbs: []Verb{}, Actions: v.actions()}
	for _, x := range v.words {
		x.Kinds = counted(x.kinds)
		out.Words = append(out.Words, x.Word)
	}
	slices.SortFunc(out.Words, func(a, b Word) int { return cmp.Or(cmp.Compare(b.Count, a.Count), cmp.Compare(a.Word, b.Word)) })
	v.shortened(out.Words)
	out.Words = out.Words[:min(mostWords, len(out.Words))]
	for _, x := range v.verbs {
		if x.Count > 1 || x.Broken > 0 {
			out.Verbs = append(out.Verbs, *x)
		}
	}
	slices.SortFunc(out.Verbs, func(a, b Verb) int {
		return cmp.Or(cmp.Compare(b.Broken, a.Broken), cmp.Compare(b.Count, a.Count), cmp.Compare(a.Verb, b.Verb))
	})
	out.Verbs = out.Verbs[:min(mostVerbs, len(out.Verbs))]
	return out
}

func counted(by map[string]int) []Kinds {
	out := make([]Kinds, 0, len(by))
	for k, n := range by {
		out = append(out, Kinds{k, n})
	}
	slices.SortFunc(out, func(a, b Kinds) int { return cmp.Or(cmp.Compare(b.Count, a.Count), cmp.Compare(a.Kind, b.Kind)) })
	return out
}

// shortened finds words that shorten others: the letters of the long one in
// order, beginning and sounding alike (cfg and config, req and request).
func (v *teller) shortened(list []Word) {
	byFirst := map[byte][]string{}
	for _, w := range list {
		if w.Count >= 2 && len(w.Word) >= 5 && len(byFirst[w.Word[0]]) < 400 {
			byFirst[w.Word[0]] = append(byFirst[w.Word[0]], w.Word)
		}
	}
	known := make(map[string]bool, len(list))
	for i := range list {
		known[list[i].Word] = true
	}
	for i := range list {
		short := &list[i]
		if len(short.Word) < 2 || len(short.Word) > 5 || naming.Whole(short.Word) {
			continue
		}
		for _, long := range byFirst[short.Word[0]] {
			// What goes on with a word of its own was put together, not cut off: bean and beaninfo.
			if rest, begins := strings.CutPrefix(long, short.Word); shortens(short.Word, long) && !(begins && known[rest]) {
				short.Long = long
				break
			}
		}
	}
}

// shortens reports whether a word is another without its vowels, or its
// beginning where that ends before a vowel.
func shortens(short, long string) bool {
	if len(long) < len(short)+2 || naming.FormOf(long, short) {
		return false
	}
	if strings.HasPrefix(long, short) {
		return len(short) >= 3 && strings.IndexByte("aeiou", long[len(short)]) >= 0 &&
			strings.IndexByte("aeiou", short[len(short)-1]) < 0 && strings.ContainsAny(long[len(short):], "bcdfghjklmnpqrstvwxyz")
	}
	bare := long[:1]
	for i := 1; i < len(long); i++ {
		if strings.IndexByte("aeiou", long[i]) < 0 && long[i] != long[i-1] {
			bare += long[i : i+1]
		}
	}
	return len(short) >= 3 && strings.HasPrefix(bare, short) && len(bare) <= len(short)+1
}

// conventions tells how names of each kind are written.
func (v *teller) conventions() []Convention {
	out := []Convention{}
	for k, x := range v.cases {
		c := Convention{Kind: k[0], Language: k[1], Cases: []Cased{}, Outliers: []NamePlace{}}
		for written, n := range x.counts {
			c.Count += n
			c.Cases = append(c.Cases, Cased{string(written), n})
		}
		if c.Count < leastToTell {
			continue
		}
		slices.SortFunc(c.Cases, func(a, b Cased) int { return cmp.Or(cmp.Compare(b.Count, a.Count), cmp.Compare(a.Case, b.Case)) })
		for _, w := range c.Cases {
			if float64(w.Count) < outlierShare*float64(c.Count) {
				c.Outliers = append(c.Outliers, x.places[naming.Case(w.Case)]...)
			}
		}
		c.Outliers = c.Outliers[:min(mostPlaces, len(c.Outliers))]
		out = append(out, c)
	}
	slices.SortFunc(out, func(a, b Convention) int {
		return cmp.Or(cmp.Compare(b.Count, a.Count), cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.Language, b.Language))
	})
	return out
}

// actions tells which actions have several verbs, and of which things several
// of them are said.
func (v *teller) actions() []Action {
	out := []Action{}
	for i, row := range naming.SameAction {
		a := Action{Verbs: []Kinds{}, Things: []ActedOn{}}
		for _, w := range row {
			if x := v.verbs[w]; x != nil {
				a.Verbs = append(a.Verbs, Kinds{w, x.Count})
			}
		}
		if len(a.Verbs) < 2 {
			continue
		}
		slices.SortStableFunc(a.Verbs, func(a, b Kinds) int { return cmp.Compare(b.Count, a.Count) })
		for thing, by := range v.said {
			t := ActedOn{Thing: thing}
			for _, w := range row {
				if at, ok := by[w]; ok {
					t.Verbs = append(t.Verbs, w)
					t.Place = at
				}
			}
			if len(t.Verbs) > 1 && actionOf[t.Verbs[0]] == i {
				a.Things = append(a.Things, t)
			}
		}
		slices.SortFunc(a.Things, func(a, b ActedOn) int {
			return cmp.Or(cmp.Compare(len(b.Verbs), len(a.Verbs)), cmp.Compare(a.Thing, b.Thing))
		})
		a.Things = a.Things[:min(mostThings, len(a.Things))]
		out = append(out, a)
	}
	return out
}
