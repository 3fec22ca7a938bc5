package texts

import (
	"path"
	"regexp"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/origin"
	"jantel/core/reading"
)

// joiner joins catalogues with what is asked of them.
type joiner struct {
	r      *reading.Reading
	origin func(string) model.FileOrigin
	all    map[string]*set // by their name
}

// set are the catalogues of one name on the way.
type set struct {
	name    string
	stem    string // of its files without the language: what some put before each key
	home    string // the folder around the one of catalogues: what others put there
	tongues map[string]string
	keys    map[string]*Row
	lower   []string // the keys in order, for what is asked for by its start
	spoken  bool     // its keys are the texts themselves
	told    bool
}

// tongue is how languages are written: de, pt-BR, zh_Hant.
var (
	tongue = regexp.MustCompile(`^[a-z]{2,3}(?:[_\-](?:[A-Z][a-z]{3}|[A-Za-z]{2}|\d{3}))?(?:@\w+)?$`)
	// inName is a language at the end of a name: messages_de, Shelves.pt-BR.
	inName = regexp.MustCompile(`^(.+)[._\-]([a-z]{2,3}(?:[_\-](?:[A-Z][a-z]{3}|[A-Z]{2}))?)$`)
	// values is a folder of texts of an application for telephones.
	values = regexp.MustCompile(`^values-([a-z]{2,3}(?:-r?[A-Za-z]+)?)$`)
)

// tongues are the languages that a short word is taken for one of.
var tongues = words(`aa ab af ak am ar as az ba be bg bn bo br bs ca ceb cs cy da de dv dz el en eo es et eu fa fi fil fo fr fy ga gd gl
	gu ha he hi hr ht hu hy ia id ig is it ja jv ka kab kk km kn ko ku ky la lb ln lo lt lv mg mi mk ml mn mr ms mt my nb ne nl nn no
	oc or pa pl ps pt rm ro ru rw sa sc sd se si sk sl sm sn so sq sr st su sv sw ta te tg th ti tk tl tn to tr tt ug uk ur uz vi vo
	wo xh yi yo zh zu ast bal crh dsb hsb nds szl tok vec hak nan yue ckb`)

func words(all string) map[string]bool {
	m := map[string]bool{}
	for _, w := range strings.Fields(all) {
		m[w] = true
	}
	return m
}

func isTongue(w string) bool {
	if !tongue.MatchString(w) {
		return false
	}
	first, _, _ := strings.Cut(strings.ReplaceAll(w, "_", "-"), "-")
	return tongues[first]
}

// isFolder reports whether catalogues lie in folders of that name: those that hold
// texts by language, and some that may hold others as well.
func isFolder(name string) bool {
	switch strings.ToLower(name) {
	case "resources", "strings", "text", "texts":
		return true
	}
	return origin.CatalogueFolder(name)
}

// belongs tells the set that a catalogue belongs to and its language: the path with
// "*" where the language stands, in the name of the file or of a folder around it.
func belongs(p string) (set, lang string) {
	dir, base := path.Split(p)
	ext := path.Ext(base)
	stem := strings.TrimSuffix(base, ext)
	if isTongue(stem) {
		return dir + "*" + ext, stem
	}
	if m := inName.FindStringSubmatch(stem); m != nil && isTongue(m[2]) {
		return dir + m[1] + stem[len(m[1]):len(m[1])+1] + "*" + ext, m[2]
	}
	parts := strings.Split(strings.TrimSuffix(dir, "/"), "/")
	for i := len(parts) - 1; i >= 0; i-- {
		if m := values.FindStringSubmatch(parts[i]); m != nil {
			parts[i] = "values*"
			return strings.Join(parts, "/") + "/" + base, m[1]
		}
		if isTongue(parts[i]) && i > 0 && isFolder(parts[i-1]) {
			lang, parts[i] = parts[i], "*"
			return strings.Join(parts, "/") + "/" + base, lang
		}
	}
	return "", ""
}

// catalogues gathers the sets: files of texts whose path names a language, where
// another stands beside or the folder says so; and the one without a language that
// lies beside them under their name.
func (j *joiner) catalogues() {
	j.all = map[string]*set{}
	plain := []*model.File{}
	for _, f := range j.r.Files {
		if f.Facts == nil || len(f.Facts.Texts) == 0 || others(j.origin(f.Path)) {
			continue
		}
		name, lang := belongs(f.Path)
		if name == "" {
			plain = append(plain, f)
			continue
		}
		j.take(f, name, lang)
	}
	for _, f := range plain {
		for _, name := range besides(f.Path) {
			if j.all[name] != nil {
				j.take(f, name, first)
				break
			}
		}
	}
	for name, s := range j.all {
		if len(s.tongues) < 2 && !saidByPath(name) {
			delete(j.all, name)
		}
	}
	for _, s := range j.all {
		for k := range s.keys {
			s.lower = append(s.lower, k)
		}
		sort.Strings(s.lower)
		s.spoken = s.sentences()
	}
}

// first is the language of a catalogue that names none beside others that do.
const first = "first"

// besides are the sets that a catalogue without a language may be the first of.
func besides(p string) []string {
	dir, base := path.Split(p)
	ext := path.Ext(base)
	stem := strings.TrimSuffix(base, ext)
	return []string{dir + stem + "_*" + ext, dir + stem + ".*" + ext, dir + stem + "-*" + ext,
		strings.Replace(p, "values/", "values*/", 1), dir + "*.po"}
}

// saidByPath reports whether the folder or the ending of a set says that it holds
// texts, though it is there in one language alone.
func saidByPath(name string) bool {
	switch path.Ext(name) {
	case ".po", ".resx", ".arb":
		return true
	}
	for d := path.Dir(name); d != "." && d != "/"; d = path.Dir(d) {
		if isFolder(path.Base(d)) {
			return true
		}
	}
	return false
}

func (j *joiner) take(f *model.File, name, lang string) {
	s := j.all[name]
	if s == nil {
		stem := strings.Trim(strings.ReplaceAll(strings.TrimSuffix(path.Base(name), path.Ext(name)), "*", ""), "._-")
		s = &set{name: name, stem: stem, home: homeOf(name), tongues: map[string]string{}, keys: map[string]*Row{}}
		j.all[name] = s
	}
	s.tongues[lang] = f.Path
	below := underTongue(f.Facts.Texts, lang)
	for _, l := range f.Facts.Texts {
		key := l.Name[below:]
		if key == "" {
			continue
		}
		x := s.keys[key]
		if x == nil {
			x = newRow(Text, key, name)
			s.keys[key] = x
		}
		x.Held = append(x.Held, HeldText{TextAt: TextAt{f.Path, l.Line}, Tongue: lang, Value: l.Value})
	}
}

// homeOf is the nearest folder around a set that is not one for catalogues.
func homeOf(name string) string {
	for d := path.Dir(name); d != "." && d != "/"; d = path.Dir(d) {
		if base := path.Base(d); base != "*" && !isFolder(base) {
			return base
		}
	}
	return ""
}

// underTongue is how long the start of all keys is, where a catalogue keeps all its
// texts below the name of their language.
func underTongue(all []model.Literal, lang string) int {
	for _, l := range all {
		if !strings.HasPrefix(l.Name, lang+".") {
			return 0
		}
	}
	return len(lang) + 1
}

// ask adds the places that ask for the texts of the sets, and marks those that may
// be asked for by names put together while the code runs.
func (j *joiner) ask() {
	where := map[string][]*Row{} // by the name that asks for it
	for _, s := range j.sorted() {
		for _, k := range s.lower {
			for _, n := range s.names(k) {
				where[n] = append(where[n], s.keys[k])
			}
		}
	}
	for f := range asks(j.r, j.origin) {
		for _, a := range f.Facts.Asked {
			if a.Kind != model.AskText {
				continue
			}
			if head, _, open := strings.Cut(a.Name, "*"); open {
				j.maybe(head)
				continue
			}
			for _, x := range where[a.Name] {
				x.Asked = append(x.Asked, TextAt{f.Path, a.Line})
			}
			if len(where[a.Name]) == 0 && a.Sure {
				j.missed(a.Name, TextAt{f.Path, a.Line})
			}
		}
	}
}

// write looks for the names that no known call asks for among all quoted texts: a
// table of buttons may hold them, or a call of the codebase's own.
func (j *joiner) write(each Each) {
	wanted, in := map[string][]*Row{}, map[string]bool{}
	for _, s := range j.sorted() {
		for _, p := range s.tongues {
			in[p] = true
		}
		for _, k := range s.lower {
			if x := s.keys[k]; len(x.Asked) == 0 && len(x.Held) > 0 {
				for _, n := range s.names(k) {
					wanted[n] = append(wanted[n], x)
				}
			}
		}
	}
	if len(wanted) == 0 || each == nil {
		return
	}
	each(func(path string, text []byte) bool {
		if in[path] || j.r.IsTest(path) || others(j.origin(path)) {
			return true
		}
		quoted(text, func(name []byte, line int) {
			for _, x := range wanted[string(name)] {
				if len(x.Written) < maxWritten {
					x.Written = append(x.Written, TextAt{path, line})
				}
			}
		})
		return true
	})
}

// maxWritten bounds how many places are kept of one name, maxQuoted how long a name
// is, in bytes.
const (
	maxWritten = 20
	maxQuoted  = 120
)

// quoted calls fn for all that stands between two quotes of one kind on one line.
// What is code and what a text is not told apart: two quotes may end one text and
// begin the next, so that both readings are handed over.
func quoted(text []byte, fn func(name []byte, line int)) {
	line := 1
	var last [256]int // where each kind of quote stood last, behind it
	for i, c := range text {
		switch c {
		case '\n':
			line++
			last = [256]int{}
		case '"', '\'', '`':
			if from := last[c]; from > 0 && i > from && i-from <= maxQuoted {
				fn(text[from:i], line)
			}
			last[c] = i + 1
		}
	}
}

// names are those by which a key of a set is asked for: by itself, or behind the
// name of its file or of the folder that it belongs to. Plural forms are asked for by what they share.
func (s *set) names(key string) []string {
	all := []string{key}
	for _, space := range []string{s.stem, s.home} {
		if space != "" {
			all = append(all, space+"."+key, space+":"+key, space+"/"+key)
		}
	}
	for _, form := range []string{"_one", "_other", "_plural", ".one", ".other", "_zero", "_few", "_many", "_two"} {
		if one, ok := strings.CutSuffix(key, form); ok && one != "" {
			all = append(all, one)
		}
	}
	return all
}

// maybe marks the keys that start as what is asked for does. A start too short says
// nothing.
func (j *joiner) maybe(head string) {
	if len(head) < 2 {
		return
	}
	for _, s := range j.all {
		start := head
		if s.stem != "" {
			for _, sep := range []string{".", ":"} {
				start = strings.TrimPrefix(start, s.stem+sep)
			}
		}
		for k := sort.SearchStrings(s.lower, start); k < len(s.lower) && strings.HasPrefix(s.lower[k], start); k++ {
			s.keys[s.lower[k]].Maybe = true
		}
	}
}

// missed keeps a key that no catalogue holds with the set that it would belong to:
// one that holds others with the same first part. Keys that are the text itself
// belong to a set whose keys are so as well.
func (j *joiner) missed(name string, at TextAt) {
	key, home := name, (*set)(nil)
	head, rest, dotted := strings.Cut(strings.ReplaceAll(name, ":", "."), ".")
	for _, s := range j.sorted() {
		switch {
		case dotted && s.stem == head:
			key, home = rest, s
		case dotted && !strings.Contains(name, " ") && s.startsWith(head+"."):
			home = s
		case strings.Contains(name, " ") && s.spoken:
			home = s
		}
		if home != nil {
			break
		}
	}
	if home == nil {
		return
	}
	x := home.keys[key]
	if x == nil {
		x = newRow(Text, key, home.name)
		home.keys[key] = x
	}
	x.Asked = append(x.Asked, at)
}

func (s *set) startsWith(head string) bool {
	k := sort.SearchStrings(s.lower, head)
	return k < len(s.lower) && strings.HasPrefix(s.lower[k], head)
}

// sentences reports whether the keys of a set are the texts themselves.
func (s *set) sentences() bool {
	n := 0
	for _, k := range s.lower {
		if strings.Contains(k, " ") {
			n++
		}
	}
	return n*3 > len(s.lower)
}

// toldShare is the share of a set's keys that have to be asked for in ways that are
// known, before it is said of the others that nobody does. Those that may be asked
// for by a name that is put together prove nothing and are left out.
const toldShare = 0.8

func (j *joiner) tellSets() {
	for _, s := range j.all {
		asked, held := 0, 0
		for _, x := range s.keys {
			switch {
			case len(x.Held) == 0:
			case len(x.Asked)+len(x.Written) > 0:
				asked++
				held++
			case !x.Maybe:
				held++
			}
		}
		s.told = asked > 0 && float64(asked) >= toldShare*float64(held)
		for _, x := range s.keys {
			s.judge(x)
		}
	}
}

// judge says what may be wrong with a text.
func (s *set) judge(x *Row) {
	if len(x.Held) == 0 {
		x.Wrong = append(x.Wrong, Nowhere)
		return
	}
	in := map[string]int{}
	for _, h := range x.Held {
		// A message that is there without its text waits for one.
		if h.Value != "" || strings.HasSuffix(h.Path, ".pot") {
			in[h.Tongue]++
		}
	}
	for lang, p := range s.tongues {
		if in[lang] == 0 && path.Ext(p) != ".pot" {
			x.Missing = append(x.Missing, lang)
		}
	}
	sort.Strings(x.Missing)
	if len(x.Missing) > 0 && len(x.Missing) < len(s.tongues) {
		x.Wrong = append(x.Wrong, Partly)
	}
	for _, n := range in {
		if n > 1 {
			x.Wrong = append(x.Wrong, Twice)
			break
		}
	}
	if s.told && len(x.Asked)+len(x.Written) == 0 && !x.Maybe {
		x.Wrong = append(x.Wrong, Idle)
	}
}

func (j *joiner) sorted() []*set {
	out := make([]*set, 0, len(j.all))
	for _, s := range j.all {
		out = append(out, s)
	}
	slices.SortFunc(out, func(a, b *set) int { return strings.Compare(a.name, b.name) })
	return out
}

func (j *joiner) sets() []TextSet {
	out := []TextSet{}
	for _, s := range j.sorted() {
		x := TextSet{Name: s.name, Told: s.told, Tongues: []Tongue{}}
		has := map[string]int{}
		for _, row := range s.keys {
			if len(row.Held) == 0 {
				continue
			}
			x.Keys++
			if len(row.Asked) > 0 {
				x.Asked++
			}
			seen := map[string]bool{}
			for _, h := range row.Held {
				if !seen[h.Tongue] && h.Value != "" {
					seen[h.Tongue] = true
					has[h.Tongue]++
				}
			}
		}
		for lang, p := range s.tongues {
			x.Tongues = append(x.Tongues, Tongue{Name: lang, Path: p, Has: has[lang]})
		}
		slices.SortFunc(x.Tongues, func(a, b Tongue) int { return strings.Compare(a.Name, b.Name) })
		out = append(out, x)
	}
	return out
}

// known ranks languages by how likely it is that who reads the code knows them.
func known(lang string) int {
	switch {
	case lang == "en":
		return 0
	case strings.HasPrefix(lang, "en"), lang == first:
		return 1
	}
	return 2
}

func (j *joiner) rows() []Row {
	out := []Row{}
	for _, s := range j.all {
		for _, x := range s.keys {
			// The language that most who read code know comes first.
			slices.SortStableFunc(x.Held, func(a, b HeldText) int { return known(a.Tongue) - known(b.Tongue) })
			out = append(out, *x)
		}
	}
	return out
}
