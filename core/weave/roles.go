package weave

import (
	"fmt"
	"math"
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

type vote struct {
	role   model.Role
	weight float64
	why    string
	seen   bool // in the file, not only around it
	tier   tier
}

// tier is how near evidence is to what a file does, the strongest first. A lower
// one speaks only where those above are silent or agree.
type tier int

const (
	mechanism tier = iota // what no word can lie about
	content               // what its types build upon, what it does and takes in
	byName                // what it is called
	byShape               // of which sort all that it defines is
	byFolder              // where it lies
	tiers
)

// enough is the weight from which a tier is not silent.
const enough = 0.6

// ballot gathers what speaks for the roles of a file.
type ballot struct {
	votes []vote
	tier  tier // that is being asked
}

func (b *ballot) add(r model.Role, w float64, seen bool, format string, args ...any) {
	b.votes = append(b.votes, vote{r, w, fmt.Sprintf(format, args...), seen, b.tier})
}

// heard are the votes that count: those of a tier above all others, and of the
// tiers below it those for what it says.
func heard(votes []vote) []vote {
	var out []vote
	said := map[model.Role]bool{}
	for t := range tiers {
		weight := 0.0
		for _, v := range votes {
			if v.tier == t && (len(said) == 0 || said[v.role]) {
				out = append(out, v)
				weight += v.weight
			}
		}
		if weight >= enough && len(said) == 0 {
			for _, v := range out {
				said[v.role] = true
			}
		}
	}
	return out
}

// Role judges what a file is technically, by a vote of its name, its ending,
// its folders and what stands in it.
func Role(f *model.File) model.RoleOf { return Words().Role(f) }

// Role tells the role of a file by the words of a lexicon.
func (lex *Lexicon) Role(f *model.File) model.RoleOf {
	return told(lex.poll(f).all())
}

// told is the role that votes make.
func told(votes []vote) model.RoleOf {
	against := votes
	votes = heard(votes)
	sum := map[model.Role]float64{}
	seen := map[model.Role]bool{}
	var total float64
	for _, v := range votes {
		sum[v.role] += v.weight
		seen[v.role] = seen[v.role] || v.seen
		total += v.weight
	}
	if total == 0 {
		return model.RoleOf{}
	}
	best, top := model.Role(""), 0.0
	for _, r := range model.Roles {
		if s := round4(sum[r]); s > top {
			best, top = r, s
		}
	}
	out := model.RoleOf{Role: best, Confidence: round4(top / total * math.Min(1, top/0.8)), Source: model.RoleAssumed}
	if seen[best] {
		out.Source = model.RoleSeen
	}
	sort.SliceStable(against, func(i, j int) bool { return against[i].weight > against[j].weight })
	for _, v := range against {
		if v.role == best {
			out.Reasons = append(out.Reasons, v.why)
		} else {
			out.Reasons = append(out.Reasons, "against: "+v.why+", which speaks for "+string(v.role))
		}
	}
	return out
}

// poll is what speaks for the role of a file: what no word can lie about, what it says
// itself, and what its place says.
type poll struct{ sure, itself, place []vote }

func (p *poll) all() []vote { return slices.Concat(p.sure, p.itself, p.place) }

// Polls are those of the files of a survey, by path: each file is polled once, and what
// speaks for it looked at by all that have to know.
type Polls map[string]*poll

// Poll asks files what speaks for their roles, and tells what comes of it; those that
// are not to be asked have none.
func (lex *Lexicon) Poll(files []*model.File, asked func(p string) bool) (Polls, map[string]model.RoleOf) {
	polls, roles := make([]*poll, len(files)), make([]model.RoleOf, len(files))
	parallel.Each(len(files), func(i int) {
		if asked(files[i].Path) {
			polls[i] = lex.poll(files[i])
			roles[i] = told(polls[i].all())
		}
	})
	byPath, out := make(Polls, len(files)), make(map[string]model.RoleOf, len(files))
	for i, f := range files {
		byPath[f.Path], out[f.Path] = polls[i], roles[i]
	}
	return byPath, out
}

// alone is the role of a file that was polled, without what its folders say of it.
func (lex *Lexicon) alone(f *model.File, polls Polls) model.Role {
	at := *f
	at.Path = path.Base(f.Path)
	p := polls[f.Path]
	if p == nil || !reading.IsCode(f) { // what files of no code say themselves hangs on their folders
		return lex.Role(&at).Role
	}
	b := ballot{tier: mechanism}
	b.mechanism(lex, &at, strings.ToLower(at.Path), true)
	return told(slices.Concat(b.votes, p.itself)).Role
}

func (lex *Lexicon) poll(f *model.File) *poll {
	b := &ballot{}
	base := path.Base(f.Path)
	lower := strings.ToLower(base)
	ext := strings.TrimPrefix(strings.ToLower(path.Ext(base)), ".")
	code := reading.IsCode(f)
	b.tier = mechanism
	b.mechanism(lex, f, lower, code)
	sure := len(b.votes)
	if !code {
		b.tier = content
		if syntax.ProfileOf(f.Language).Template {
			b.seen(model.RoleView, 1.5, "%s is a language of templates", f.Language)
		}
		if r, ok := lex.Extensions[ext]; ok {
			if r != model.RoleView && r != model.RoleStyle || ext == "html" || ext == "htm" {
				b.tier = byFolder // texts and data of any kind may be written so
			}
			if r == model.RoleView && documents.MatchString(f.Path) {
				r = model.RoleDocs // a page of the documentation, whichever language it is in
			}
			b.seen(r, 1.5, "files that end in .%s are %s", ext, plural(r))
		}
		b.tier = byFolder
		if readerNames.MatchString(lower) {
			b.seen(model.RoleDocs, 2, "its name is that of a text for readers")
		}
	} else {
		stem := naming.Stem(base)
		words := naming.Words(spelled(f, stem))
		if syntax.ProfileOf(f.Language).Scripts {
			b.tier = byName
			b.seen(model.RoleScript, 0.8, "%s is a language of scripts", f.Language)
		}
		b.tier = byName
		b.named(lex, f, stem, words)
		b.tier = content
		if f.Facts != nil {
			b.builds(lex, f.Facts)
			b.takes(f.Facts, slices.Contains(headers, path.Ext(lower)))
			does(f.Facts, words, func(r model.Role, w float64, format string, args ...any) {
				b.seen(r, w, format, args...)
			})
			if !syntax.ProfileOf(f.Language).PlainNames {
				b.tier = byName
				b.defines(lex, f.Facts)
			}
			b.tier = byShape
			b.shape(f.Facts)
		}
	}
	itself := len(b.votes)
	b.tier = byFolder
	b.folders(lex, f, code)
	b.windows(f)
	return &poll{b.votes[:sure:sure], b.votes[sure:itself:itself], b.votes[itself:]}
}

// ofForms are reasons that name a form, as a word or at the end of a name.
var ofForms = regexp.MustCompile(`\bforms?\b|(?:\b|[a-z0-9])Forms?\b`)

// windows hears what speaks of forms anew in a file that takes in what draws: a form
// is what is filled in and checked on a server, and a window elsewhere.
func (b *ballot) windows(f *model.File) {
	draws := func(im model.Import) bool { return roleOfPackage(im.Text) == model.RoleView }
	if f.Facts == nil || !slices.ContainsFunc(f.Facts.Imports, draws) {
		return
	}
	for i := range b.votes {
		if v := &b.votes[i]; v.role == model.RoleSchema && ofForms.MatchString(v.why) {
			v.role = model.RoleView
		}
	}
}

// commandPlace is where programs lie that people start by name.
var commandPlace = regexp.MustCompile(`(?:^|/)s?bin/[^/]+$`)

// documents are folders of what is written about the software.
var documents = regexp.MustCompile(`(?i)(?:^|/)(?:docs?|documentation|manual|website/docs)/`)

// readerNames are texts that people read first.
var readerNames = regexp.MustCompile(`^(?:readme|license|licence|change_?log|` +
	`(?:copying|authors|changes|news|install|history|thanks|todo|credits|contributors|maintainers)(?:[.-][a-z]{2,3})?$)`)

func does(f *model.Facts, words []string, add func(model.Role, float64, string, ...any)) {
	if f.Starts > 1 {
		add(model.RoleEntry, 1.2, "a program starts in it, line %d", f.Starts)
	} else if f.Starts == 1 {
		add(model.RoleScript, 0.7, "its first line makes it a program to run")
	}
	draws, line := f.Sign(model.SignDraws)
	if draws > 0 {
		svg, _ := f.Sign(model.SignPicture)
		composes, _ := f.Sign(model.SignComposes)
		if svg > 0 && composes == 0 && len(f.Definitions) <= 2 {
			add(model.RoleAsset, 1.3, "all it draws is a picture, line %d", line)
		} else {
			add(model.RoleView, 1.1, "it draws elements, first on line %d", line)
		}
	}
	if _, l := f.Sign(model.SignEntry); l > 0 {
		add(model.RoleEntry, 1.2, "it mounts the interface, line %d", l)
	}
	if l := reading.Listens(f); l > 0 {
		add(model.RoleEntry, 1, "it starts to listen, line %d", l)
	}
	n, l := f.Sign(model.SignRoutes)
	if len(f.Routes) > n {
		n, l = len(f.Routes), f.Routes[0].Line
	}
	if n > 0 {
		add(model.RoleRouting, math.Min(1.2, 0.5+0.15*float64(n)), "it declares %s, first on line %d", count(n, "route"), l)
	}
	if n, l := f.Sign(model.SignSQL); n > 0 {
		if at := answersItself(f); at > 0 {
			add(model.RoleHandler, 1, "it answers a request itself, line %d, though it runs SQL", at) // what it asks for is part of the answer
		} else {
			add(model.RoleDataAccess, math.Min(1.2, 0.6+0.2*float64(n)), "it runs SQL, first on line %d", l)
		}
	}
	if n, l := f.Sign(model.SignHandles); n > 0 {
		add(model.RoleHandler, math.Min(1, 0.4+0.2*float64(n)), "it answers HTTP requests, first on line %d", l)
	}
	if _, l := f.Sign(model.SignHTTP); l > 0 && draws == 0 {
		add(model.RoleDataAccess, 0.8, "it calls over HTTP, first on line %d", l)
	}
	if _, l := f.Sign(model.SignStore); l > 0 {
		add(model.RoleState, 1, "it makes a store, line %d", l)
	}
	if _, l := f.Sign(model.SignKeepsState); l > 0 && draws == 0 {
		add(model.RoleState, 0.8, "it keeps state without drawing, line %d", l)
	}
	if len(words) > 1 && words[0] == "use" {
		add(model.RoleState, 1, "its name has the form of a hook's")
	}
	if a, b, l := bothWays(f); l > 0 && (a != "pack" || !drawsItself(f)) {
		add(model.RoleFormat, 1.8, "it writes and reads a form: %s and %s, line %d", a, b, l)
	}
}

// answersItself is the line of a route that a function of the same file answers, 0
// where there is none.
func answersItself(f *model.Facts) int {
	for i := range f.Routes {
		r := &f.Routes[i]
		if r.InPlace || r.Handler != "" && slices.ContainsFunc(f.Definitions, func(d model.Definition) bool { return d.Name == r.Handler }) {
			return r.Line
		}
	}
	return 0
}

// defines asks what the first class of a file is called that has a word of a role
// at its end.
func (b *ballot) defines(lex *Lexicon, f *model.Facts) {
	for _, d := range f.Definitions {
		if d.Kind != model.DefClass || d.Parent != "" {
			continue
		}
		if w := naming.Words(d.Name); len(w) > 1 {
			if r, ok := lex.ending(w); ok && r != model.RoleStyle && mainly(f, d) {
				b.seen(r, 0.8, "it defines %s, line %d", d.Name, d.Line)
				return
			}
		}
	}
}

// mainly reports whether a class is at least half of what stands at the top of its file:
// beside functions that do the work a small one says little of what these are.
func mainly(f *model.Facts, class model.Definition) bool {
	all := 0
	for i := range f.Definitions {
		if d := &f.Definitions[i]; d.Parent == "" && (d.Kind == model.DefClass || d.Kind == model.DefFunction) {
			all += d.EndLine - d.Line + 1
		}
	}
	return 2*(class.EndLine-class.Line+1) >= all
}

// turned are what functions are called that write things in a form, and read it.
var turned = [][2]string{
	{"serialize", "deserialize"}, {"serialise", "deserialise"}, {"encode", "decode"}, {"marshal", "unmarshal"}, {"pack", "unpack"},
	{"compress", "decompress"}, {"encrypt", "decrypt"}, {"dump", "load"}, {"dumps", "loads"}, {"parse", "stringify"},
}

// turning is where each of them stands in turned: which pair, and which of it.
var turning, longestTurning = func() (map[string][2]int, int) {
	out, longest := map[string][2]int{}, 0
	for i, t := range turned {
		for j, w := range t {
			out[w], longest = [2]int{i, j}, max(longest, len(w))
		}
	}
	return out, longest
}()

// drawsItself reports whether a file takes in what draws for people, where to pack is to
// put into a window.
func drawsItself(f *model.Facts) bool {
	return slices.ContainsFunc(f.Imports, func(im model.Import) bool {
		first, _, _ := strings.Cut(strings.ToLower(im.Text), ".")
		return first == "gi" || first == "gtk" || first == "tkinter" || first == "wx"
	})
}

// bothWays are the functions of a file by which things are written in a form and
// read again.
func bothWays(f *model.Facts) (writes, reads string, line int) {
	at := make([][2]int, len(turned)) // the lines of each
	for i := range f.Definitions {
		d := &f.Definitions[i]
		if len(d.Name) > longestTurning || d.Kind != model.DefFunction && d.Kind != model.DefMethod {
			continue
		}
		if t, is := turning[strings.ToLower(d.Name)]; is {
			at[t[0]][t[1]] = d.Line
		}
	}
	for i, t := range turned {
		if at[i][0] > 0 && at[i][1] > 0 {
			return t[0], t[1], at[i][0]
		}
	}
	return "", "", 0
}

// leastDeclared is how many functions make what declares them the face of what has them.
const leastDeclared = 5

// shape asks of which sort all is that a file defines.
func (b *ballot) shape(f *model.Facts) {
	types, classes, rest := 0, 0, 0
	for _, d := range f.Definitions {
		switch d.Kind {
		case model.DefType, model.DefInterface, model.DefEnum:
			types++
		case model.DefClass:
			classes++
			rest++
		case model.DefFunction, model.DefMethod, model.DefComponent:
			rest++
		}
	}
	// A header that declares more functions than types is for those.
	if f.Declared >= leastDeclared && rest == classes && f.Declared > types+classes {
		b.seen(model.RoleFacade, 0.7, "it declares %d functions that are written elsewhere", f.Declared)
	} else if types > 0 && rest == 0 && f.Declared <= types {
		b.seen(model.RoleModel, 0.9, "it defines nothing but %s", count(types, "type"))
	} else if n := holders(f); n > 0 && f.Declared <= n {
		b.seen(model.RoleModel, 0.8, "it defines nothing but %s that only hold data", many(n, "class"))
	}
}

// holders counts the classes of a file that has nothing else: they keep data
// and hand it out, but do nothing.
func holders(f *model.Facts) (n int) {
	members := false
	for _, d := range f.Definitions {
		switch d.Kind {
		case model.DefClass:
			if len(d.Bases) > 0 || len(d.Marks) > 0 {
				return 0
			}
			n++
		case model.DefProperty, model.DefVariable, model.DefConstant:
			members = members || d.Parent != ""
		case model.DefFunction, model.DefComponent, model.DefMethod:
			members = true
			if d.Kind != model.DefMethod || !handsOut.MatchString(d.Name) && d.Name != d.Parent || d.EndLine-d.Line > 4 {
				return 0
			}
		}
	}
	if !members {
		return 0 // an empty class says nothing
	}
	return n
}

// handsOut are methods that a class has because it holds data.
var handsOut = regexp.MustCompile(`^(?:get|set|is|has|with)[A-Z_]|` +
	`^(?:equals|hashCode|toString|__init__|__repr__|__str__|__eq__|constructor|initialize|to_s|__construct)$`)

func many(n int, word string) string {
	if n == 1 {
		return "one " + word
	}
	return fmt.Sprintf("%d %ses", n, word)
}

func count(n int, word string) string {
	if n == 1 {
		return "one " + word
	}
	return fmt.Sprintf("%d %ss", n, word)
}

func isTestName(b string) bool {
	for _, mark := range []string{"_test.", ".test.", ".spec.", "_spec.", "-test.", "tests.cs", "test.java", "test.kt", "test.php"} {
		if strings.Contains(b, mark) {
			return true
		}
	}
	ext := path.Ext(b)
	return strings.HasPrefix(b, "test_") && ext == ".py" || b == "conftest.py" ||
		strings.HasPrefix(b, "test-") && (ext == ".py" || ext == ".pl" || ext == ".rb")
}

func isProjectFile(b string) bool {
	switch b {
	case "configure.ac", "configure.in", "meson.build", "makefile.am", "makefile", "gnumakefile", "makefile.pl", "build.pl",
		"dist.ini", "dockerfile", "containerfile", "gemfile", "rakefile", "guardfile", "capfile", "vagrantfile", "jantel.yaml", "procfile",
		"cmakelists.txt", "requirements.txt", "pom.xml", "build.gradle", "setup.py", "codeowners":
		return true
	}
	return strings.HasPrefix(b, ".") && !strings.HasSuffix(b, ".md") ||
		strings.Contains(b, ".config.") || strings.HasPrefix(b, "tsconfig") || strings.HasPrefix(b, "docker-compose") ||
		strings.HasPrefix(b, "compose.")
}

// plural is how a role is spoken of for many files.
func plural(r model.Role) string {
	switch r {
	case model.RoleEntry:
		return "entry points"
	case model.RoleRouting:
		return "routes"
	case model.RoleHandler:
		return "handlers"
	case model.RoleView:
		return "views"
	case model.RoleState:
		return "state"
	case model.RoleLogic:
		return "logic"
	case model.RoleMessage:
		return "events and messages"
	case model.RoleModel:
		return "models"
	case model.RoleDataAccess:
		return "data access"
	case model.RoleSchema:
		return "schemas"
	case model.RoleHelper:
		return "helpers"
	case model.RoleStyle:
		return "styles"
	case model.RoleAsset:
		return "assets"
	case model.RoleTranslation:
		return "translations"
	case model.RoleConfig:
		return "configuration"
	case model.RoleScript:
		return "scripts"
	case model.RoleTest:
		return "tests"
	case model.RoleDocs:
		return "documents"
	}
	return string(r)
}

// Plural is how a role is spoken of for many files: "views", "data access".
func Plural(r model.Role) string { return plural(r) }
