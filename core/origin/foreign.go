package origin

import (
	"fmt"
	"maps"
	"path"
	"regexp"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"

	"github.com/bmatcuk/doublestar/v4"
)

// foreign are the outermost folders of others' code, each with what tells it.
func (t *teller) foreign() map[string]string {
	out := map[string]string{}
	for d, x := range t.folders {
		if d == "." || t.member(d) {
			continue
		}
		name := strings.ToLower(path.Base(d))
		switch {
		case installed[name]:
			out[d] = fmt.Sprintf("a package manager fills %s", d)
		case name == "vendor" && t.managed(d):
			out[d] = fmt.Sprintf("a package manager fills %s", d)
		case plainly.MatchString(name) && (10*x.out <= x.files || x.out == 1 && thirdParty.MatchString(name)):
			out[d] = fmt.Sprintf("%s is named for what others wrote, and needs hardly anything outside it", d)
		case releases.MatchString(name) && x.in > 0 && fewOut*x.out <= x.files && !t.namesUs(name):
			out[d] = fmt.Sprintf("%s is named as a release of a library, and needs hardly anything outside it", d)
		}
	}
	t.whole = t.without(out)
	byName := maps.Clone(out)
	for d, x := range t.folders {
		if d == "." || t.member(d) || byName[d] != "" || within(byName, d) != "" {
			continue
		}
		if why := t.apart(d, x); why != "" {
			out[d] = why
		}
	}
	t.strangers(out)
	t.copied(out)
	t.leaning(out)
	t.among(out)
	return out
}

// without is the codebase but for some folders: whom the files of these name says nothing
// of the others.
func (t *teller) without(foreign map[string]string) *folder {
	whole := *t.folders["."]
	whole.holders, whole.starts = maps.Clone(whole.holders), maps.Clone(whole.starts)
	for d := range foreign {
		if within(foreign, d) != "" {
			continue
		}
		x := t.folders[d]
		whole.files -= x.files
		whole.source -= x.source
		for who, n := range x.holders {
			whole.holders[who] -= n
		}
		for who, n := range x.starts {
			whole.starts[who] -= n
		}
	}
	return &whole
}

// releases are names of folders with a version of two figures or more: libraries are
// unpacked so.
var releases = regexp.MustCompile(`^[a-z][\w+]*(?:-[a-z]\w*)*[-_]v?\d+\.\d+(?:\.\d+)*[a-z]?\d*$`)

// leaning are folders that need others' code and hardly anything else: a library that
// needs a library is no part of ours for that.
func (t *teller) leaning(out map[string]string) {
	found := map[string]string{}
	for d, n := range t.needsForeign(out) {
		x := *t.folders[d]
		before := x.out
		if x.out -= n; out[d] == "" && !t.member(d) && fewOut*before > x.files {
			found[d] = t.apart(d, &x)
		}
	}
	maps.DeleteFunc(found, func(_, why string) bool { return why == "" })
	maps.Copy(out, found)
}

// needsForeign counts, by folder, the links that lead from it to others' code outside.
func (t *teller) needsForeign(foreign map[string]string) map[string]int {
	out := map[string]int{}
	for i := range t.s.Links {
		l := &t.s.Links[i]
		to := within(foreign, l.To)
		if to == "" || model.Within(to, l.From) || saysNothing(l) {
			continue
		}
		for d := model.FolderOf(l.From); !model.Within(d, l.To); d = model.FolderOf(d) {
			if t.folders[d].outside(l.To) {
				out[d]++
			}
		}
	}
	return out
}

// within is the innermost of some folders that a path lies in, "" where it lies in none.
func within(folders map[string]string, p string) string {
	for d := model.FolderOf(p); d != "."; d = model.FolderOf(d) {
		if folders[d] != "" {
			return d
		}
	}
	return ""
}

// leastForeign is how many folders beside a folder have to be others' code before
// it is taken for such as well.
const leastForeign = 2

// leastInLib is how many there have to be in a folder called lib, which may be ours.
const leastInLib = 3

// among are folders that lie beside several of others' code in a place that is
// named for it, and like those need hardly anything outside: a library of one file
// has too little to prove itself by.
func (t *teller) among(out map[string]string) {
	told := t.placesOf(out)
	for d, x := range t.folders {
		n, up := len(told[model.FolderOf(d)]), path.Base(model.FolderOf(d))
		least := leastForeign
		if up == "lib" {
			least = leastInLib
		}
		if d != "." && out[d] == "" && n >= least && t.likeOthers(d, x) {
			out[d] = fmt.Sprintf("%s lies beside %d folders of others' code in %s, and needs hardly anything outside", d, n, up)
		}
	}
}

// placesOf are the places that are named for others' code, each with the folders in
// it that are some, or hold hardly anything else: a part of ours may keep a library in
// a folder of its own, and is no library for it.
func (t *teller) placesOf(foreign map[string]string) map[string]map[string]bool {
	told := map[string]map[string]bool{}
	for d := range foreign {
		theirs := t.folders[d].source
		for up := model.FolderOf(d); up != "." && 2*theirs > t.folders[d].source; d, up = up, model.FolderOf(up) {
			if base := path.Base(up); base != "lib" && !places.MatchString(base) {
				continue
			}
			if told[up] == nil {
				told[up] = map[string]bool{}
			}
			told[up][d] = true
		}
	}
	return told
}

// likeOthers reports whether a folder is needed from outside as a library is, needs
// hardly anything there, and is not the better part of the code.
func (t *teller) likeOthers(d string, x *folder) bool {
	return x.source > 0 && x.in > 0 && fewOut*x.out <= x.files && !x.betterPart(t.whole) && !t.member(d)
}

// leastReplaced is how many headers of the system have to be replaced in a folder
// that a library was copied into.
const leastReplaced = 3

// copied are the folders that a tool copied the portability library of GNU into:
// it leaves the list of what it took, and the headers of the system that are to be
// made anew.
func (t *teller) copied(out map[string]string) {
	list, replaced := "", map[string]int{}
	for p := range t.has {
		base := path.Base(p)
		if d := model.FolderOf(p); base == "gettextP.h" && d != "." && t.has[path.Join(d, "loadmsgcat.c")] && out[d] == "" {
			out[d] = fmt.Sprintf("the library for texts of GNU was copied into %s, with %s", d, base)
		}
		if base == "gnulib-comp.m4" && (list == "" || p < list) {
			list = p
		}
		if strings.HasSuffix(base, ".in.h") {
			replaced[model.FolderOf(p)]++
		}
	}
	for d, n := range replaced {
		if list != "" && n >= leastReplaced && d != "." && out[d] == "" {
			out[d] = fmt.Sprintf("%s lists what was copied into %s, which replaces %d headers of the system", list, d, n)
		}
	}
}

// strangers are packages of another organisation that need nothing of ours: in
// languages whose packages begin with one, those of few files beside one that
// has nearly all.
func (t *teller) strangers(out map[string]string) {
	org := func(f *model.File) string {
		if f.Facts == nil || !syntax.ProfileOf(f.Language).PathPackages {
			return ""
		}
		parts := strings.Split(f.Facts.Namespace, ".")
		if len(parts) < 3 {
			return ""
		}
		return parts[0] + "." + parts[1]
	}
	count, all := map[string]int{}, 0
	for _, f := range t.s.Files {
		if o := org(f); o != "" {
			count[o]++
			all++
		}
	}
	for _, f := range t.s.Files {
		o := org(f)
		if o == "" || 10*count[o] > all || !slices.ContainsFunc(slices.Collect(maps.Values(count)), func(n int) bool { return 2*n > all }) {
			continue
		}
		if d := model.FolderOf(f.Path); t.folders[d].out == 0 && out[d] == "" {
			out[d] = fmt.Sprintf("its package is %s's, and needs nothing outside its folder", o)
		}
	}
}

// managed reports whether a folder called vendor is filled by a tool that the
// project files beside it name.
func (t *teller) managed(d string) bool {
	up := model.FolderOf(d)
	for _, mark := range []string{"composer.json", "go.mod", "Gemfile", "Cargo.toml"} {
		if t.has[path.Join(up, mark)] {
			return true
		}
	}
	return t.has[path.Join(d, "modules.txt")] || t.has[path.Join(d, "autoload.php")]
}

// member reports whether a folder is part of a workspace of the codebase.
func (t *teller) member(d string) bool {
	for m := range t.members {
		if ok, _ := doublestar.Match(m, d); ok || m == d {
			return true
		}
	}
	return false
}

// apart tells a folder that stands on its own, as what others wrote does: a
// licence and a manifest of its own, a name for such code around it, needed from
// outside and needing nothing there.
func (t *teller) apart(d string, x *folder) string {
	if fewOut*x.out > x.files || writings[strings.ToLower(path.Base(d))] || t.namesUs(strings.ToLower(path.Base(d))) {
		return ""
	}
	points, said := t.marks(d, x)
	if points < proof {
		return ""
	}
	return fmt.Sprintf("%s stands on its own: %s; it needs hardly anything outside", d, strings.Join(said, ", "))
}

// writings are folders of what is written about a codebase: they often have a licence of
// their own, and are its own all the same.
var writings = syntax.Set("doc", "docs", "documentation", "website", "site", "manual")

// fewOut is to how many files of a folder there may be one link out of it: names
// alone may lead astray.
const fewOut = 5

// proof is from how many points on a folder is taken for others' code.
const proof = 3

// marks counts what speaks for others having written a folder, and says it.
func (t *teller) marks(d string, x *folder) (points int, said []string) {
	root := t.whole
	if x.betterPart(root) || x.files < 1 {
		return 0, nil
	}
	if x.licence != "" && !t.packs(d) {
		points++ // a codebase without a licence may keep one for each of its parts
		if root.licence != "" {
			points++
		}
		said = append(said, "a licence of its own")
	}
	if x.manifest != "" && x.name != "" && !strings.Contains(strings.ToLower(x.name), strings.ToLower(t.s.Codebase)) {
		points++
		said = append(said, "a manifest of its own")
	} else if x.manifest != "" && x.licence != "" {
		points++
		said = append(said, x.manifest)
	}
	if x.banners > 0 && 3*x.banners >= x.source {
		points++
		said = append(said, "banners of another project")
	}
	if who, all := x.ofTheirOwn(root); who != "" && who != root.namedMost() && !t.namesUs(who) {
		points++
		if all && root.mostly() {
			points += 2
		}
		said = append(said, "its files name "+who+", which hardly others do")
		if x.holders[who] == x.source && 10*x.namedOutside(root) <= root.source-x.source {
			points += 2
			said = append(said, "each of them, where nobody is named in the others")
		}
	}
	// A name alone may be that of what a part of ours works with.
	if points > 0 && x.source > 0 && carried.MatchString(path.Base(d)) && !t.namesUs(strings.ToLower(path.Base(d))) {
		points += 2
		said = append(said, "many programs carry a copy of what has its name")
	}
	if up := model.FolderOf(d); up != "." && others.MatchString(path.Base(up)) {
		points++
		said = append(said, "a place for others' code around it")
	}
	return points, said
}

// namedOutside counts the files outside of a folder that name who has their rights.
func (x *folder) namedOutside(root *folder) (n int) {
	for who, all := range root.holders {
		n += all - x.holders[who]
	}
	return n
}

// carried are names of libraries that programs of all makes carry a copy of.
var carried = regexp.MustCompile(`(?i)^(?:zlib(?:-ng)?|lib(?:png|jpeg|tiff|expat|xml2|jasper|ev|uv|yaml|event|tommath|tomcrypt|` +
	`intl|iconv|stemmer_c|b64|ltdl|argp|edit|pcre2?|sodium|curl|ssh2|usb|unwind|unistring|opts)|` +
	`lz4|zstd|bzip2|xz|snappy|brotli|lzo|minilzo|miniz|minizip|` +
	`lua(?:jit)?|sqlite3?|expat|jsoncpp|rapidjson|nlohmann|pugixml|tinyxml2?|cjson|jansson|yajl|yaml-cpp|argon2|blake2|` +
	`googletest|gtest|gmock|catch2?|doctest|cpputest|unity|cmocka|fmt(?:lib)?|spdlog|imgui|glew|glfw|glad|stb|freetype2?|harfbuzz|` +
	`boost|antlr3?|mbedtls|polarssl|wolfssl|tomcrypt|libffi|linenoise|editline|replxx|pcre2?|oniguruma|re2|utf8cpp|utfcpp|waflib|` +
	`mongoose|civetweb|libmicrohttpd|getopt|uthash|klib|htslib|eigen3?|kissfft|pffft|fftw3?|dsfmt|tinyformat|cxxopts|` +
	`jquery(?:-ui)?|tinymce|ckeditor|codemirror|bootstrap|fontawesome|font-awesome|simplejson|six|pyparsing|asn1crypto|tomli|` +
	`phpmailer|smarty|htmlpurifier|adodb|tcpdf|fpdf|simplepie|geshi|nusoap)$`)

// betterPart reports whether a folder is too much of a codebase to be others': half of
// it, or three quarters where all programs start outside of it and name who writes them.
func (x *folder) betterPart(root *folder) bool {
	part, of := 1, 2
	if root.startedBy() != "" && len(x.starts) == 0 {
		part, of = 3, 4
	}
	if root.source > 0 && x.source > 0 {
		return of*x.source > part*root.source // pictures and texts are many wherever they lie
	}
	return of*x.files > part*root.files
}

// packs reports whether a folder tells how the codebase is packed for a system:
// it says whose rights those are, and is the codebase's own.
func (t *teller) packs(d string) bool {
	return t.has[path.Join(d, "control")] && t.has[path.Join(d, "rules")]
}

// naming counts the files of a folder, and of that of its headers, that name somebody.
func (x *folder) naming(who string) int {
	if x.apartWith == nil {
		return x.holders[who]
	}
	return x.holders[who] + x.apartWith.holders[who]
}

// ofTheirOwn is whom the files of a folder name as having rights in them, or as
// the project they belong to, and hardly a file outside it; "" where nobody is named, or
// others are named more. all tells that hardly a file of several names another.
func (x *folder) ofTheirOwn(root *folder) (who string, all bool) {
	named, own := 0, 0
	for _, w := range slices.Sorted(maps.Keys(x.holders)) {
		n := x.holders[w]
		named += n
		if 5*x.naming(w) >= 4*(root.holders[w]+root.rights[w]) { // what takes it in may name it as well
			own += n
			if who == "" || n > x.holders[who] {
				who = w
			}
		}
	}
	if own < 2 || 3*own < 2*named || 2*own < x.source {
		return "", false
	}
	return who, own >= 5 && 10*own >= 9*named && 4*own >= 3*x.source && 2*x.holders[who] >= own
}

// namesUs reports whether a name holds that of the codebase: a part of it may be
// called by both.
func (t *teller) namesUs(who string) bool {
	own := strings.ToLower(t.s.Codebase)
	if len(own) <= 2 { // a short one may stand within any word
		return slices.Contains(strings.Fields(who), own)
	}
	return strings.Contains(who, own)
}

// namedMost is who writes the codebase: who is named where its programs start, else
// who is named as having rights in most files, where that is a good part of the code.
func (x *folder) namedMost() (who string) {
	if who = x.startedBy(); who != "" {
		return who
	}
	if who = x.mostNamed(); 4*x.holders[who] < x.source {
		return ""
	}
	return who
}

// mostNamed is who is named in most files.
func (x *folder) mostNamed() (who string) {
	for _, w := range slices.Sorted(maps.Keys(x.holders)) {
		if who == "" || x.holders[w] > x.holders[who] {
			who = w
		}
	}
	return who
}

// startedBy is who is named where most of the programs start that name somebody; ""
// where few do.
func (x *folder) startedBy() (who string) {
	all := 0
	for _, w := range slices.Sorted(maps.Keys(x.starts)) {
		all += x.starts[w]
		if who == "" || x.starts[w] > x.starts[who] {
			who = w
		}
	}
	if x.starts[who] < leastStarts || 2*x.starts[who] <= all {
		return ""
	}
	return who
}

// leastStarts is where how many programs start somebody has to be named before all is theirs.
const leastStarts = 2

// mostly reports whether a good third of the files of a codebase that name anybody name the same.
func (x *folder) mostly() bool {
	all, most := 0, 0
	for _, n := range x.holders {
		all += n
		most = max(most, n)
	}
	return 3*most > all && 4*all > x.source
}

// Suspect is a folder that looks as if others had written it, without proof.
type Suspect struct {
	Folder string
	Why    string
	Files  int // of own code, as it is told
	Lines  int
}

// Suspects are the outermost such folders, the largest first: what speaks for it
// is not enough to leave them out unasked. Whoever knows says so.
func Suspects(s *model.Survey, origins map[string]model.OriginOf) []Suspect {
	t := &teller{s: s, members: map[string]bool{}}
	t.projects()
	t.folders = foldersOf(s)
	t.whole = t.folders["."]
	files, lines := map[string]int{}, map[string]int{}
	for _, f := range s.Files {
		if o := origins[f.Path]; o.Origin != model.OriginOwn || o.ByHand || !syntax.ProfileOf(f.Language).Code {
			continue
		}
		for d := model.FolderOf(f.Path); d != "."; d = model.FolderOf(d) {
			files[d]++
			lines[d] += f.Lines()
		}
	}
	out := []Suspect{}
	for _, d := range slices.Sorted(maps.Keys(files)) {
		x := t.folders[d]
		under := slices.ContainsFunc(out, func(o Suspect) bool { return model.Within(o.Folder, d) })
		if under || t.member(d) || fewOut*x.out > x.files || x.in == 0 {
			continue
		}
		if points, said := t.marks(d, x); points >= proof-1 {
			out = append(out, Suspect{d, strings.Join(said, ", ") + "; it needs hardly anything outside", files[d], lines[d]})
		}
	}
	slices.SortStableFunc(out, func(a, b Suspect) int { return b.Lines - a.Lines })
	return out
}

// documentationIndexes are files that generators of documentation lay beside its pages.
var documentationIndexes = []string{
	"searchindex.js", "doxygen.css", "package-list", "element-list", "jsdoc-default.css", "created.rid", "rdoc.css", "rdoc-style.css",
}

// documentation marks pages that a generator of documentation wrote together.
func (t *teller) documentation() {
	for d := range t.folders {
		if !slices.ContainsFunc(documentationIndexes, func(name string) bool { return t.has[path.Join(d, name)] }) {
			continue
		}
		for _, f := range t.s.Files {
			if model.Within(d, f.Path) && t.out[f.Path].Origin == model.OriginOwn {
				t.out[f.Path] = model.OriginOf{
					Origin:   model.OriginGenerated,
					Evidence: []string{"written documentation: its index lies in " + d},
				}
			}
		}
	}
}

// declarations marks files that only declare what a compiler's output beside them
// does: they were written with it.
func (t *teller) declarations() {
	made, all := map[string]int{}, map[string]int{}
	for _, f := range t.s.Files {
		if !scripts[path.Ext(f.Path)] {
			continue
		}
		d := outputs.FindString(f.Path)
		if d == "" {
			continue
		}
		all[d]++
		if t.out[f.Path].Origin == model.OriginBuilt {
			made[d]++
		}
	}
	for _, f := range t.s.Files {
		if t.out[f.Path].Origin != model.OriginOwn || !declaring(f.Path) {
			continue
		}
		d := outputs.FindString(f.Path)
		if d == "" || 2*made[d] <= all[d] {
			continue
		}
		t.out[f.Path] = model.OriginOf{
			Origin: model.OriginBuilt, Evidence: []string{"it declares what was made in " + strings.TrimSuffix(d, "/")},
		}
	}
}

// outputs are folders that compilers write to, from the root down.
var outputs = regexp.MustCompile(`^(?:.*?/)??(?:dist|build|out|lib|esm|cjs|es)/`)

// declaring reports whether a file says what types there are in another, and no more.
func declaring(p string) bool {
	return strings.HasSuffix(p, ".d.ts") || strings.HasSuffix(p, ".d.mts") || strings.HasSuffix(p, ".d.cts")
}
