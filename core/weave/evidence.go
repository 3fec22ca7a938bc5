package weave

import (
	"cmp"
	"math"
	"path"
	"regexp"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/reading"
	"jantel/core/syntax"
)

// What tells the role of a file, strongest first: a mechanism (a test by its
// place or form, a project file), what its types build upon and are marked with,
// what it does and takes in, what it is called, and last the folders it lies in,
// which alone make a role that is only assumed.

// testPlaces are folders that hold tests, whatever lies in them.
var testPlaces = set([]string{"test", "tests", "__tests__", "spec", "specs", "t", "testing", "e2e", "testsuite", "unittests", "regress"})

// testFolder are names of folders of tests that say of which, or what for.
var testFolder = regexp.MustCompile(
	`^(?:\w+[-_.])?(?:unit|integration|functional|acceptance|regression|system|api|smoke|perf|performance|e2e)[-_.]?tests?$|` +
		`^tests?[-_.](?:run|regress|suites?|cases|lib|utils?|helpers|scripts|programs|support|harness|integration|unit|functional)$|[-_.]tests$`,
)

// inTests reports whether a path lies among tests: below a folder named for
// them. Java and its like have their tests beside "main".
func (lex *Lexicon) inTests(f *model.File) bool {
	// Where names are declared apart from what they stand for, or packages are chains of
	// folders, a spec is what is agreed upon.
	profile := syntax.ProfileOf(f.Language)
	agreed := len(profile.Headers) > 0 || profile.PathPackages
	for d := model.FolderOf(f.Path); d != "."; d = model.FolderOf(d) {
		name := strings.ToLower(path.Base(d))
		if lex.passing[d] || agreed && (name == "spec" || name == "specs") {
			continue
		}
		if testPlaces[name] || strings.Contains(name, "test") && testFolder.MatchString(name) ||
			name == "it" && path.Base(model.FolderOf(d)) == "src" {
			return true
		}
	}
	return false
}

// systems are the last words of names that say which machine a file is for.
var systems = set([]string{
	"windows", "win32", "win64", "unix", "linux", "darwin", "posix", "macos", "mac", "osx", "freebsd", "openbsd", "x11",
	"wayland", "android",
	"ios", "amd64", "arm64", "aarch64", "x86", "x8664", "riscv64", "ppc64", "ppc64le", "s390x", "mips64", "cygwin", "solaris",
	"netbsd", "macosx", "os2", "vms", "msdos", "i386", "i686", "sparc", "sparc64", "mips", "powerpc", "ppc", "ia64", "s390",
	"m68k", "hppa", "riscv", "loongarch64", "avr32", "sh64", "nios2", "xtensa", "microblaze", "or1k", "metag", "m32r", "m88k", "bfin",
	"cris", "moxie", "csky", "kvx",
})

// otherThings are names of machines that stand for something else as well, where
// nothing is before them.
var otherThings = set([]string{"windows", "mac"})

// System is the machine or operating system that a name ends in, or is, by the name's
// words; "" where it ends in none. Names of machines with figures are split into
// several words.
func System(words []string) string {
	if len(words) == 1 && systems[words[0]] && !otherThings[words[0]] {
		return words[0]
	}
	for n := 1; n <= 3 && n < len(words); n++ {
		if w := strings.Join(words[len(words)-n:], ""); systems[w] {
			return w
		}
	}
	return ""
}

// seen is evidence in the file itself.
func (b *ballot) seen(r model.Role, w float64, format string, args ...any) {
	b.add(r, w, true, format, args...)
}

// onlyHandsOn is the public face of a package: re-exports and nothing else.
func onlyHandsOn(f *model.Facts) bool {
	if len(f.Imports) == 0 || len(f.Definitions) > 0 {
		return false
	}
	for _, im := range f.Imports {
		if im.Kind != model.LinkReExport {
			return false
		}
	}
	return true
}

// isFace reports whether a file only hands on what others define.
func isFace(f *model.File) bool {
	return onlyHandsOn(f.Facts) || isIndex(f) || syntax.ProfileOf(f.Language).TakesIn && onlyTakesIn(f.Facts) ||
		path.Base(f.Path) == "__init__.py" && marksOnly(f.Facts)
}

// onlyTakesIn reports whether a file takes in several others and defines nothing
// but the modules around them.
func onlyTakesIn(f *model.Facts) bool {
	return len(f.Imports) >= 2 && f.Starts == 0 && len(f.Routes) == 0 && !slices.ContainsFunc(f.Definitions, func(d model.Definition) bool {
		return d.Kind != model.DefNamespace && !packageMarks[d.Name]
	})
}

// isIndex reports whether a file called index takes in what lies beside and
// below it and defines nothing: a module of old, which hands on by an assignment.
func isIndex(f *model.File) bool {
	if naming.Stem(path.Base(f.Path)) != "index" || len(f.Facts.Definitions) > 0 || len(f.Facts.Imports) == 0 ||
		len(f.Facts.Routes) > 0 || len(f.Facts.Signs) > 0 {
		return false
	}
	for _, im := range f.Facts.Imports {
		if !strings.HasPrefix(im.Text, "./") {
			return false
		}
	}
	return true
}

// packageMarks are what a package says of itself, and no definition of its own.
var packageMarks = syntax.Set("__all__", "__version__", "__author__", "VERSION")

// marksOnly reports whether all that a file defines is such a mark.
func marksOnly(f *model.Facts) bool {
	return !slices.ContainsFunc(f.Definitions, func(d model.Definition) bool { return !packageMarks[d.Name] })
}

// leastCases is from how many functions that are cases of tests on a file may be
// one of tests by them.
const leastCases = 3

// programOfTests hears a file of a language whose tests are programs of their own:
// a good part of its functions are cases, or it starts and is named for a test.
func (b *ballot) programOfTests(f *model.File, lower string) {
	if f.Facts == nil || !syntax.ProfileOf(f.Language).TestPrograms {
		return
	}
	functions := 0
	for _, d := range f.Facts.Definitions {
		if d.Kind == model.DefFunction || d.Kind == model.DefMethod {
			functions++
		}
	}
	cases := len(f.Facts.Cases)
	words := naming.Words(naming.Stem(lower))
	named := len(words) > 1 && (words[0] == "test" || words[0] == "tests" || words[len(words)-1] == "test")
	switch {
	case cases >= leastCases && 4*cases >= functions:
		b.seen(model.RoleTest, 3, "%d of its %d functions are cases of tests, first on line %d", cases, functions, f.Facts.Cases[0].Line)
	case named && f.Facts.Starts > 1:
		b.seen(model.RoleTest, 3, "it is a program named for a test, which starts on line %d", f.Facts.Starts)
	}
}

// mechanism asks what no word can lie about.
func (b *ballot) mechanism(lex *Lexicon, f *model.File, lower string, code bool) {
	switch n, line := f.Facts.Sign(model.SignTest); {
	case isTestName(lower):
		b.seen(model.RoleTest, 4, "its name has the form of a test's")
	case lex.inTests(f):
		b.seen(model.RoleTest, 3.5, "it lies among tests")
	case n > 0 && !testsInside[path.Ext(lower)] && 2*line < lastLine(f.Facts):
		b.seen(model.RoleTest, 1.2, "it declares tests, first on line %d", line)
	default:
		b.programOfTests(f, lower)
	}
	if lex.beside[f.Path] && f.Facts.Starts > 0 {
		b.seen(model.RoleScript, 3, "a program beside a package that does not hold it, run by hand or by the build")
	}
	if by := lex.installed[f.Path]; by != "" && code {
		b.seen(model.RoleEntry, 2, "%s installs it as a command", by)
	}
	if lower == "__main__.py" {
		b.seen(model.RoleEntry, 2, "its name is that of what runs when its package is started")
	}
	if f.Facts != nil && f.Facts.Starts == 1 && commandPlace.MatchString(f.Path) && !syntax.ProfileOf(f.Language).Scripts {
		b.seen(model.RoleEntry, 1, "it lies among the commands that people start")
	}
	if isProjectFile(lower) || f.Facts != nil && f.Facts.Project != nil {
		b.seen(model.RoleConfig, 2.5, "it is a project file")
	}
	if f.Facts != nil && code && isFace(f) {
		b.seen(model.RoleFacade, 2, "it only hands on what others define")
	}
}

// testsInside are endings of languages that have a file's tests in the file.
var testsInside = map[string]bool{".rs": true, ".d": true, ".zig": true}

// ending is the role of the last word of a name, or of its last two where they
// are one: a "view model" is none of its words.
func (lex *Lexicon) ending(words []string) (model.Role, bool) {
	n := len(words)
	if n > 1 {
		if r, ok := lex.Names[words[n-2]+" "+words[n-1]]; ok {
			return r, true
		}
	}
	r, ok := lex.Names[words[n-1]]
	return r, ok
}

// named asks what a file is called. In languages where names end in no role a
// word says less.
// doing are words that a name begins with which says what is done: what it ends in
// is then what that is done to.
var doing = syntax.Set("get", "set", "is", "has", "can", "should", "parse", "sanitize", "validate", "apply", "fetch", "merge", "process",
	"calculate", "compute", "extract", "convert", "normalize", "resolve", "check", "ensure", "assert", "find", "filter", "generate", "reset",
	"remove", "delete", "update", "compare", "sort", "split", "strip", "escape", "encode", "decode", "transform", "flatten", "omit", "pick")

func (b *ballot) named(lex *Lexicon, f *model.File, stem string, words []string) {
	n := len(words)
	if n == 0 {
		return
	}
	last := words[n-1]
	profile := syntax.ProfileOf(f.Language)
	roleOf := func(w string) (model.Role, bool) {
		if r, ok := profile.Words[w]; ok {
			return r, r != ""
		}
		r, ok := lex.Names[w]
		return r, ok
	}
	switch r, whole := lex.Files[strings.Join(words, " ")]; {
	case System(words) != "":
		b.seen(model.RolePlatform, 1.3, "its name says which machine it is for: %s", System(words))
	case whole && (r != model.RoleEntry || f.Facts != nil && f.Facts.Starts > 0):
		b.seen(r, 0.7, "its name is %q", stem)
	default:
		r, ok := lex.ending(words)
		if own, said := profile.Words[last]; said {
			r, ok = own, own != ""
		}
		switch {
		case !ok && profile.PlainNames && (lex.Protocols[words[0]] || lex.Protocols[last]):
			b.add(model.RoleFormat, 0.4, false, "its name is that of a protocol or format: %q", stem)
		case !ok || r == model.RoleAsset:
		case r == model.RoleTranslation && acts(f.Facts): // messages that are sent and shown are no texts
		case doing[words[0]] && n > 1: // it is done to what the last word says
		case profile.PlainNames && n > 1: // a word at the end is part of what it is about
			b.add(r, 0.4, false, "its name ends in %q", last)
		default:
			b.seen(r, 1, "its name ends in %q", last)
		}
	}
	// "lots.service.ts": the word before the ending names the role.
	if parts := strings.Split(strings.ToLower(path.Base(f.Path)), "."); len(parts) > 2 {
		if r, ok := roleOf(parts[len(parts)-2]); ok {
			b.tier = content
			b.seen(r, 1.5, "its name ends in %q", "."+parts[len(parts)-2])
			b.tier = byName
		}
	}
}

// acts reports whether a file does something, and holds not texts alone.
func acts(f *model.Facts) bool {
	return f != nil && slices.ContainsFunc(f.Definitions, func(d model.Definition) bool {
		return d.Kind == model.DefFunction || d.Kind == model.DefMethod || d.Kind == model.DefComponent
	})
}

// drawn reports whether a file's ending says that it draws: such a page is none
// of the pictures it lies among.
func (b *ballot) drawn() bool {
	return slices.ContainsFunc(b.votes, func(v vote) bool { return v.role == model.RoleView })
}

// folders asks the folders it lies in, the innermost most. A folder of pictures,
// styles, texts or documents makes no role of code.
func (b *ballot) folders(lex *Lexicon, f *model.File, code bool) {
	weight := 0.95
	if strings.HasSuffix(model.FolderOf(f.Path), "res/layout") {
		b.seen(model.RoleView, 3, "it lies where screens are laid out")
	}
	for d := model.FolderOf(f.Path); d != "."; d = model.FolderOf(d) {
		if lex.passing[d] {
			continue
		}
		word := strings.Join(naming.Words(path.Base(d)), " ")
		r, ok := lex.Folders[word]
		if own := syntax.ProfileOf(f.Language).FolderWords[word]; ok && own != "" {
			r = own
		}
		switch {
		case !ok, r == model.RoleTest, r == model.RoleAsset && b.drawn():
		case code && r == model.RoleEntry && (f.Facts == nil || f.Facts.Starts == 0):
		case code && r == model.RoleScript && (f.Facts == nil || f.Facts.Starts == 0): // what programs are made of lies there as well
		case code && r == model.RoleDocs && strings.HasPrefix(word, "example"): // it shows how the rest is used, unless it says more
			b.add(r, 0.3, false, "it lies in the folder %s", path.Base(d))
		case code && (r == model.RoleAsset || r == model.RoleDocs || r == model.RoleStyle || r == model.RoleTranslation):
		case code:
			b.add(r, weight, false, "it lies in the folder %s", path.Base(d))
		case r == model.RoleDocs || r == model.RoleAsset || r == model.RoleSchema:
			b.add(r, 2, true, "it lies in the folder %s", path.Base(d))
		case r == model.RoleTranslation:
			b.add(r, 2, true, "it lies in the folder %s", path.Base(d))
		}
		if weight /= 2.5; weight < 0.1 {
			break
		}
	}
}

// AssumeRoles gives program text without a role one that is only assumed: that
// of nearly all its folder, that of the source a header belongs to, or else
// logic, which is what most code is.
func AssumeRoles(r *reading.Reading) map[string]model.RoleOf {
	out := make(map[string]model.RoleOf, len(r.Roles))
	for p, role := range r.Roles {
		out[p] = role
	}
	elsewhere, needed := sourcesOf(r), map[string]bool{}
	for i := range r.Survey.Links {
		needed[r.Survey.Links[i].To] = true
	}
	for f := range r.Code(".") {
		if r.Role(f.Path) != "" {
			continue
		}
		// A header of promises alone defines nothing, and is for what its source is.
		role, why := asItsTwin(r, f, elsewhere)
		switch {
		case role != "":
		case len(f.Facts.Definitions) > 0:
			role, why = assumed(r, f)
		case syntax.ProfileOf(f.Language).Pages && f.Facts.Code >= leastPage && !needed[f.Path]:
			role, why = model.RoleHandler, "assumed: it runs where it lies, and nothing takes it in"
		}
		if role == "" {
			continue
		}
		out[f.Path] = model.RoleOf{Role: role, Confidence: 0.2, Reasons: []string{why}, Source: model.RoleAssumed}
	}
	return out
}

// leastPage is how many lines of code a page has that does something by itself.
const leastPage = 3

// sourcesOf are the files that headers in other folders belong to, by what they are called;
// "" where several are called so.
func sourcesOf(r *reading.Reading) map[string]string {
	out := map[string]string{}
	for f := range r.Code(".") {
		if !slices.Contains(sources, path.Ext(f.Path)) {
			continue
		}
		stem := strings.TrimSuffix(path.Base(f.Path), path.Ext(f.Path))
		if _, more := out[stem]; more {
			out[stem] = ""
			continue
		}
		out[stem] = f.Path
	}
	return out
}

var (
	headers = []string{".h", ".hpp", ".hh"}
	sources = []string{".c", ".cpp", ".cc", ".cxx"}
	// beside are the endings of what belongs to a file, by its own.
	beside = map[string][]string{
		".h": sources, ".hpp": sources, ".hh": sources, ".c": headers, ".cpp": headers, ".cc": headers, ".cxx": headers,
	}
)

// asItsTwin is the role of the source that a header belongs to, and of the header
// for a source; none where there is no such file or it has no role to give.
func asItsTwin(r *reading.Reading, f *model.File, elsewhere map[string]string) (model.Role, string) {
	stem := strings.TrimSuffix(f.Path, path.Ext(f.Path))
	// A header follows its source, and a source that says nothing its header.
	for _, ext := range beside[path.Ext(f.Path)] {
		role := r.Role(stem + ext)
		// That a header declares types is what headers are for; it starts nothing.
		if role != "" && role != model.RoleEntry && (role != model.RoleModel || slices.Contains(headers, path.Ext(f.Path))) {
			return role, "assumed: it belongs to " + path.Base(stem+ext)
		}
	}
	if of := elsewhere[path.Base(stem)]; of != "" && slices.Contains(headers, path.Ext(f.Path)) {
		if role := r.Role(of); role != model.RoleEntry {
			return cmp.Or(role, model.RoleLogic), "assumed: it belongs to " + of
		}
	}
	return "", ""
}

func assumed(r *reading.Reading, f *model.File) (model.Role, string) {
	if g := machineTwin(r, f); g != "" {
		return model.RolePlatform, "assumed: it stands for other machines than " + path.Base(g)
	}
	told, by := 0, map[model.Role]int{}
	for _, g := range r.SourceIn(model.FolderOf(f.Path)) {
		// What starts a program says nothing of what lies beside it.
		if role := r.Roles[g.Path]; role.Source == model.RoleSeen && role.Role != model.RoleEntry {
			told++
			by[role.Role]++
		}
	}
	for _, role := range model.Roles {
		if told >= 4 && 4*by[role] >= 3*told {
			return role, "assumed: so are nearly all in its folder"
		}
	}
	return model.RoleLogic, "assumed: nothing tells it, and most code is logic"
}

// otherMachines are last words of names of what is for all machines but some.
var otherMachines = set([]string{"other", "others", "generic", "stub", "default", "dummy", "fallback", "unsupported"})

// machineTwin is the file beside one that is called as it is, for a machine; ""
// where there is none.
func machineTwin(r *reading.Reading, f *model.File) string {
	words := naming.Words(naming.Stem(path.Base(f.Path)))
	if n := len(words); n < 2 || !otherMachines[words[n-1]] {
		return ""
	}
	for _, g := range r.SourceIn(model.FolderOf(f.Path)) {
		w := naming.Words(naming.Stem(path.Base(g.Path)))
		if on := System(w); on != "" && strings.Join(w, "") == strings.Join(words[:len(words)-1], "")+on {
			return g.Path
		}
	}
	return ""
}

func round4(x float64) float64 { return math.Round(x*10000) / 10000 }
