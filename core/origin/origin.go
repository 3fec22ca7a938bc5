// Package origin tells who wrote each file: the people whose code is judged, a
// tool, or others. It is told before anything else, from what the repository
// says of itself, what stands at the head of a file, how files are named, what
// lies beside them, and who needs them.
package origin

import (
	"fmt"
	"path"
	"regexp"
	"strings"
	"sync"

	"jantel/core/model"
	"jantel/core/parallel"
	"jantel/core/syntax"
)

// teller is a survey on the way to the origins of its files.
type teller struct {
	s       *model.Survey
	out     map[string]model.OriginOf
	has     map[string]bool // files
	folders map[string]*folder
	whole   *folder           // the root without what is others' by its name alone
	around  map[string]around // by folder
	lying   map[string]lying  // by folder
	// What holds in one language what others beside hold in theirs: folders, with the names
	// of all of them, and files by folder and ending.
	tongueFolders map[string][]string
	tongueFiles   map[string]bool
	attrs         []attribute
	outputs       map[string]string // folders that project files have something written to, with the file that says so
	members       map[string]bool   // folders that are part of a workspace
	written       []writes
	// mirrored counts, by folder that is written to, the files that have their like
	// in the folder of the source, and all.
	mirrored map[string][2]int
	releases map[string]int // by folder, the scripts that lie beside their squeezed release
	// keywords counts files by the project whose store wrote a keyword into them.
	keywords map[string]int
	pages    map[string]int // that begin alike, by how
	licences [2]int         // files of code that carry a licence whole, and such as name who has their rights
	// Each of the five is counted when it is asked for first.
	mirroring, releasing, keying, paging, licensing sync.Once
}

// Of tells the origin of every file of a survey.
func Of(s *model.Survey) map[string]model.OriginOf {
	t := &teller{s: s, out: make(map[string]model.OriginOf, len(s.Files)), has: make(map[string]bool, len(s.Files))}
	for _, f := range s.Files {
		t.has[f.Path] = true
	}
	t.projects()
	t.folders = foldersOf(s)
	t.lying = t.allLying()
	t.tongueFolders, t.tongueFiles = t.translations()
	t.around = t.allAround(t.foreign())
	told := make([]model.OriginOf, len(s.Files))
	parallel.Each(len(s.Files), func(i int) {
		if f := s.Files[i]; f.Facts != nil && f.Skipped != model.SkippedBinary && f.Skipped != model.SkippedTooLarge {
			told[i] = t.of(f)
		}
	})
	for i, f := range s.Files {
		if told[i].Origin != "" {
			t.out[f.Path] = told[i]
		}
	}
	t.documentation()
	t.declarations()
	return t.out
}

// signal tells an origin from a file, with the reason; "" where it does not.
type signal func(t *teller, f *model.File) (model.FileOrigin, string)

// signals are asked in this order: the first that tells decides.
var signals = []signal{
	(*teller).said, (*teller).byTool, (*teller).inOutput, (*teller).output, (*teller).header, (*teller).named, (*teller).bundled,
	(*teller).fromTemplate, (*teller).dropIn, (*teller).mirrors, (*teller).released, (*teller).carriesBanner,
	(*teller).keyworded, (*teller).licensed, (*teller).translated,
	(*teller).table, (*teller).workedOn, (*teller).untouched,
}

func (t *teller) of(f *model.File) model.OriginOf {
	// What lies in others' code is theirs, whatever made it.
	if why := t.around[model.FolderOf(f.Path)].foreign; why != "" {
		if o, said := t.said(f); o != "" {
			return model.OriginOf{Origin: o, Evidence: []string{said}}
		}
		return model.OriginOf{Origin: model.OriginVendored, Evidence: []string{why}}
	}
	for _, ask := range signals {
		if o, why := ask(t, f); o != "" {
			return model.OriginOf{Origin: o, Evidence: []string{why}}
		}
	}
	return model.OriginOf{Origin: model.OriginOwn, Evidence: []string{}}
}

// byTool knows what tools write under a name of their own.
func (t *teller) byTool(f *model.File) (model.FileOrigin, string) {
	base := path.Base(f.Path)
	if written[base] {
		return model.OriginGenerated, base + " is written by a tool"
	}
	if lies := path.Base(model.FolderOf(f.Path)); lies == "CVS" && kept[base] {
		return model.OriginGenerated, "a store of versions keeps its state here"
	} else if lies == "_sources" && t.has[path.Join(path.Dir(model.FolderOf(f.Path)), "searchindex.js")] {
		return model.OriginGenerated, "what pages were made from, as it was laid beside them"
	}
	if h := f.Facts.Hint(model.HintHandedOn); h != nil && path.Ext(base) == ".m4" {
		return model.OriginVendored, fmt.Sprintf("line %d tells that it is a macro that many builds carry", h.Line)
	}
	if base == "Makefile.in" && t.has[path.Join(model.FolderOf(f.Path), "Makefile.am")] {
		return model.OriginGenerated, "it is made from Makefile.am"
	}
	if made := t.around[model.FolderOf(f.Path)].made; made != "" {
		return model.OriginGenerated, fmt.Sprintf("it lies in %s, which is named for what is made", made)
	}
	if small := strings.ToLower(base); !toolEndings[path.Ext(small)] &&
		!strings.Contains(small, "generated.") && !strings.Contains(small, ".xlator.") {
		return "", ""
	}
	if m := toolNames.FindString(base); m != "" {
		return model.OriginGenerated, fmt.Sprintf("its name ends in %s, as tools write it", m)
	}
	return "", ""
}

// written are files that tools write and nobody edits.
var written = set(`package-lock.json npm-shrinkwrap.json yarn.lock pnpm-lock.yaml go.sum go.work.sum composer.lock Gemfile.lock
	Cargo.lock poetry.lock uv.lock Pipfile.lock packages.lock.json bun.lock deno.lock pdm.lock flake.lock mix.lock pubspec.lock
	configure aclocal.m4 config.guess config.sub install-sh ltmain.sh depcomp missing mkinstalldirs compile test-driver ylwrap
	ar-lib mdate-sh texinfo.tex py-compile libtool.m4 ltoptions.m4 ltsugar.m4 ltversion.m4 lt~obsolete.m4 config.h.in gradlew
	gradlew.bat mvnw mvnw.cmd
	buildscript.json searchindex.js MANIFEST
	Makefile.in.in Rules-quot boldquot.sed quot.sed en@quot.header en@boldquot.header insert-header.sin remove-potcdate.sin
	remove-potcdate.sed Makevars.template stamp-po ABOUT-NLS config.rpath ltconfig git-version-gen useless-if-before-free vc-list-files
	gitlog-to-changelog gnupload announce-gen do-release-commit-and-tag update-copyright intltool-extract.in intltool-merge.in
	intltool-update.in intltool-extract intltool-merge intltool-update gtk-doc.make omf.make xmldocs.make shtool elisp-comp
	pkg.m4 sdl.m4 sdl2.m4 esd.m4 gtk-2.0.m4 glib-2.0.m4 glib-gettext.m4 intltool.m4 gtk-doc.m4 nls.m4`)

// kept are files in which a store of versions keeps what it knows of a folder.
var kept = set("Entries Root Repository Tag Template Baserev Entries.Log Entries.Static")

// madeFolders are names of folders that say that a tool writes what is in them.
var madeFolders = regexp.MustCompile(`(?i)^(?:__generated__|auto[-_]?generated|generated)` +
	`(?:[-_.]?(?:src|sources?|code|files|java|\d+))?$|\.(?:dist|egg)-info$`)

// toolEndings are the endings of what toolNames knows, but for those that it knows by a
// word before them.
var toolEndings = set(".cs .vb .dart .py .pyi .go .cc .cpp .h .rb .map .tsbuildinfo")

// toolNames are endings under which compilers, designers and the like write.
var toolNames = regexp.MustCompile(`(?i)(?:\.designer\.(?:cs|vb)|\.g\.(?:cs|dart|i\.cs)|\.freezed\.dart|` +
	`\.generated\.\w+|_generated\.\w+|_pb2(?:_grpc)?\.pyi?|\.pb\.(?:go|cc|h|rb|gw\.go)|_grpc\.pb\.go|\.xlator\.\w+|\.map|\.tsbuildinfo)$|` +
	`^(?:moc_\w+\.cpp|ui_\w+\.(?:h|py)|qrc_\w+\.cpp|\w+_rc\.py|zz_generated\.\w+\.go|bindata\.go)$`)

// filledIn are the endings of templates that no language of theirs is known by.
var filledIn = regexp.MustCompile(`(?i)\.(?:tmpl|tpl|template|erb|j2|jinja2?|mustache|tt)$`)

// drawnBy are the endings of screens that people draw with a tool.
var drawnBy = regexp.MustCompile(`(?i)\.(?:ui|glade|xib|storyboard|fxml)$`)

// header is a comment at the head of the file that says a program wrote it.
func (t *teller) header(f *model.File) (model.FileOrigin, string) {
	if model.Settled(f.Path) {
		return "", ""
	}
	if drawnBy.MatchString(f.Path) || syntax.ProfileOf(f.Language).Template || filledIn.MatchString(f.Path) {
		return "", "" // a designer of screens signs what people draw with it; what a template makes says so
	}
	if h := f.Facts.Hint(model.HintGenerated); h != nil {
		return model.OriginGenerated, fmt.Sprintf("line %d says so: %s", h.Line, h.Text)
	}
	return "", ""
}

var (
	minified = regexp.MustCompile(`(?i)[.\-_]min\.(?:js|css|mjs|less|scss)$|[.\-](?:bundle|pack|packed|compressed|umd|prod|` +
		`production\.min)\.(?:js|css)$`)
	hashed  = regexp.MustCompile(`^[0-9a-f]{6,20}-\w+\.(?:js|css)$|[.\-][0-9a-f]{8,20}(?:\.chunk)?\.(?:js|css|mjs)$`)
	release = regexp.MustCompile(`(?i)^(?:jquery|bootstrap|prototype|mootools|d3|three|ckeditor|tinymce|` +
		`[a-z]\w*(?:-[a-z]\w*){0,3})[.\-]v?\d+\.\d+(?:\.\d+)?` +
		`(?:[.\-](?:min|custom|pack|slim|full))*\.(?:js|css)$|` +
		`^(?:jquery|backbone|underscore|lodash|angular|ember|knockout|modernizr|require|handlebars|mustache|` +
		`moment|dojo|raphael|zepto|html5shiv|respond|jstree|select2|fullcalendar|codemirror|leaflet|tinymce|ckeditor|plupload|` +
		`dropzone|mathjax|sizzle|swfobject|cropper|scriptaculous|jszip|pako)` +
		`(?:\.[a-z][\w\-]*)*(?:[.\-](?:core|ui|all|custom|slim|full|min|with-locales|locales))*\.js$`)
)

// loadedByPages are the endings of what bundlers write and libraries are released as.
var loadedByPages = set(".js .mjs .css .less .scss")

// named are the names under which bundlers and releases write.
func (t *teller) named(f *model.File) (model.FileOrigin, string) {
	base := path.Base(f.Path)
	loaded := loadedByPages[strings.ToLower(path.Ext(base))]
	switch {
	case loaded && minified.MatchString(base):
		if f.Facts.Hint(model.HintBanner) != nil {
			return model.OriginVendored, "a squeezed release: " + f.Facts.Hint(model.HintBanner).Text
		}
		return model.OriginBuilt, "its name says it is squeezed"
	case loaded && hashed.MatchString(base):
		return model.OriginBuilt, "its name carries a hash of its contents"
	case loaded && release.MatchString(base):
		return model.OriginVendored, "it is named as a release of a library"
	case loaded && t.squeezed(f.Path) != "":
		return model.OriginBuilt, "it is the long form of " + path.Base(t.squeezed(f.Path)) + ", which is squeezed"
	case f.Skipped == model.SkippedMinified && path.Ext(base) != ".svg":
		return model.OriginBuilt, "its lines are squeezed"
	}
	return "", ""
}

// bundled are what compilers and bundlers leave behind: a source map, a
// prologue, squeezed names, or the source of the same name beside.
func (t *teller) bundled(f *model.File) (model.FileOrigin, string) {
	if h := f.Facts.Hint(model.HintSourceMap); h != nil {
		return model.OriginBuilt, fmt.Sprintf("it was made from something else: line %d names a source map", h.Line)
	}
	if from := t.sourceOf(f); from != "" {
		return model.OriginBuilt, "it is made from " + from
	}
	squeezed := f.Facts.Hint(model.HintSqueezed) != nil
	if h := f.Facts.Hint(model.HintBundle); h != nil &&
		(h.Text != "" || squeezed || (f.Facts.Hint(model.HintBanner) != nil || madePlaces.MatchString(f.Path)) && f.Lines() > 300) {
		return model.OriginBuilt, fmt.Sprintf("line %d is written by a bundler", h.Line)
	}
	if squeezed && scripts[path.Ext(f.Path)] {
		return model.OriginBuilt, "nearly all of its names are of one letter or two, and it has no comments"
	}
	return "", ""
}

var scripts = set(".js .mjs .cjs .css")

// compiled are endings of what is made, with those of what it may be made from.
var compiled = map[string][]string{
	".js": {".ts", ".tsx", ".coffee", ".ls", ".jsx"}, ".mjs": {".mts"}, ".cjs": {".cts"}, ".css": {".scss", ".sass", ".less", ".styl"},
	".d.ts": {".js", ".ts", ".mjs"}, ".c": {".y", ".l", ".pyx"}, ".h": {".y"},
}

// sourceOf is the file beside that a file is made from.
func (t *teller) sourceOf(f *model.File) string {
	ext := path.Ext(f.Path)
	if strings.HasSuffix(f.Path, ".d.ts") {
		ext = ".d.ts"
	}
	stem := strings.TrimSuffix(f.Path, ext)
	for _, from := range []string{".in", ".tmpl", ".template", ".erb"} {
		if t.has[f.Path+from] {
			return path.Base(f.Path + from)
		}
	}
	for _, from := range compiled[ext] {
		if t.has[stem+from] && !strings.HasSuffix(stem+from, ".d.ts") {
			return path.Base(stem + from)
		}
	}
	return ""
}

// madePlaces are folders that bundlers write to.
var madePlaces = regexp.MustCompile(`(?:^|/)(?:dist|min|umd|build|bundles?)/[^/]+$`)

// longForm is what the name of a release ends in that is there to be read, beside the one
// that pages load.
var longForm = regexp.MustCompile(`[.\-_](?:debug|src|uncompressed|dev)\.(?:js|css)$`)

// squeezed is the squeezed release of which a script is the long form; "" where there
// is none.
func (t *teller) squeezed(p string) string {
	at := longForm.FindStringIndex(p)
	if at == nil {
		return ""
	}
	if f := t.s.File(p[:at[0]] + path.Ext(p)); f != nil && f.Skipped == model.SkippedMinified {
		return f.Path
	}
	return ""
}

// dropIns are files that programs of all makes carry a copy of, since the system may
// lack what is in them, or a library is a file and nothing else.
var dropIns = regexp.MustCompile(`(?i)^(?:(?:gnu_|my|port_?)?getopt(?:_long|1|_int)?|inet_(?:ntop|pton|aton)|strl(?:cpy|cat)|strtok_r|` +
	`dfa|regexec|regcomp|regex_internal|` +
	`uthash|utlist|utarray|utstring|utringbuffer|catch|stb_\w+|miniz|sqlite3|tinyxml2?|cjson|jsmn|lemon|lempar|linenoise|khash|` +
	`(?:algo_)?xxhash|lapacke|valgrind|memcheck|callgrind|helgrind|doctest|man2html|` +
	`dr_(?:mp3|wav|flac)|minimp3\w*|dirent|libbf|(?:gtest|gmock)(?:[-_](?:all|main))?)\.(?:c|h|cc|cpp|hpp)$|^(?:texi2html|cpplint\.py)$`)

var dropInEndings = set(".c .h .cc .cpp .hpp .py")

// dropIn is such a file, where it does not name who writes the codebase.
func (t *teller) dropIn(f *model.File) (model.FileOrigin, string) {
	h, base := f.Facts.Hint(model.HintHolder), path.Base(f.Path)
	if ext := path.Ext(base); ext != "" && !dropInEndings[strings.ToLower(ext)] {
		return "", ""
	}
	if !dropIns.MatchString(base) || t.namesUs(strings.ToLower(base)) {
		return "", ""
	}
	if h != nil && (h.Text == t.whole.namedMost() || t.namesUs(h.Text)) {
		return "", ""
	}
	return model.OriginVendored, fmt.Sprintf("many programs carry a copy of %s", base)
}

// leastMirrored is how many files of a folder that is written to have to stand
// beside, in the folder of the source, for all of it to be written from there.
const leastMirrored = 5

// mirrors is a file in a folder whose files nearly all have one of the same path in
// the folder of the source beside it.
func (t *teller) mirrors(f *model.File) (model.FileOrigin, string) {
	if !scripts[path.Ext(f.Path)] {
		return "", ""
	}
	m := outputs.FindString(f.Path)
	if m == "" || strings.HasSuffix(m, "lib/") {
		return "", ""
	}
	t.mirroring.Do(func() {
		t.mirrored = map[string][2]int{}
		for _, o := range t.s.Files {
			if !scripts[path.Ext(o.Path)] {
				continue
			}
			d := outputs.FindString(o.Path)
			if d == "" {
				continue
			}
			n := t.mirrored[d]
			n[1]++
			if t.has[path.Join(model.FolderOf(strings.TrimSuffix(d, "/")), "src", strings.TrimPrefix(o.Path, d))] {
				n[0]++
			}
			t.mirrored[d] = n
		}
	})
	if n := t.mirrored[m]; n[0] >= leastMirrored && 10*n[0] >= 8*n[1] {
		return model.OriginBuilt, fmt.Sprintf("%d of %d files in %s have their like in src", n[0], n[1], strings.TrimSuffix(m, "/"))
	}
	return "", ""
}

// leastReleases is how many scripts of a folder have to lie beside their squeezed
// release before one that does so as well is taken for a library.
const leastReleases = 3

// released is a script that lies beside its squeezed release among others that do:
// people squeeze what they wrote when they build, and put libraries there so.
func (t *teller) released(f *model.File) (model.FileOrigin, string) {
	if path.Ext(f.Path) != ".js" || !t.squeezedBeside(f.Path) {
		return "", ""
	}
	t.releasing.Do(func() {
		t.releases = map[string]int{}
		for p := range t.has {
			if path.Ext(p) == ".js" && t.squeezedBeside(p) {
				t.releases[model.FolderOf(p)]++
			}
		}
	})
	if n := t.releases[model.FolderOf(f.Path)]; n >= leastReleases {
		return model.OriginVendored, fmt.Sprintf("it lies beside its squeezed release, as %d scripts in its folder do", n)
	}
	return "", ""
}

func (t *teller) squeezedBeside(p string) bool {
	stem := strings.TrimSuffix(p, ".js")
	return t.has[stem+".min.js"] || t.has[stem+"-min.js"]
}

// carriesBanner is the name of another project with its version at the head.
func (t *teller) carriesBanner(f *model.File) (model.FileOrigin, string) {
	h := f.Facts.Hint(model.HintBanner)
	if h == nil || !scripts[path.Ext(f.Path)] {
		return "", ""
	}
	name, _, _ := strings.Cut(strings.ToLower(h.Text), " ")
	if own := strings.ToLower(t.s.Codebase); strings.Contains(own, name) || strings.Contains(name, own) || t.ours(name) {
		return "", ""
	}
	return model.OriginVendored, fmt.Sprintf("line %d names another project: %s", h.Line, h.Text)
}

// keyworded is what the store of another project wrote into a file; where a good
// part of the code has the same it is the codebase's own.
func (t *teller) keyworded(f *model.File) (model.FileOrigin, string) {
	h := f.Facts.Hint(model.HintKeyword)
	if h == nil {
		return "", ""
	}
	t.keying.Do(func() {
		t.keywords = map[string]int{}
		for _, o := range t.s.Files {
			if k := o.Facts.Hint(model.HintKeyword); k != nil {
				t.keywords[k.Text]++
			}
		}
	})
	if 10*t.keywords[h.Text] > t.folders["."].source || strings.Contains(strings.ToLower(t.s.Codebase), strings.ToLower(h.Text)) {
		return "", ""
	}
	if h.Text == syntax.Kernel {
		return model.OriginVendored, fmt.Sprintf("line %d has the licence of the headers that the kernel gives programs", h.Line)
	}
	return model.OriginVendored, fmt.Sprintf("line %d was written by the store of another project: %s", h.Line, h.Text)
}

// mostStrangers is how many files may name somebody for these to be a stranger's.
const mostStrangers = 3

// licensed is a file that carries a licence whole, of somebody whom hardly another file
// names, among files that carry none and name others: its licence had to come along.
func (t *teller) licensed(f *model.File) (model.FileOrigin, string) {
	h, who := f.Facts.Hint(model.HintLicence), f.Facts.Hint(model.HintHolder)
	if h == nil || who == nil || !syntax.ProfileOf(f.Language).Code {
		return "", ""
	}
	t.licensing.Do(func() {
		for _, o := range t.s.Files {
			if !syntax.ProfileOf(o.Language).Code || o.Facts.Hint(model.HintHolder) == nil || t.around[model.FolderOf(o.Path)].foreign != "" {
				continue
			}
			t.licences[1]++
			if o.Facts.Hint(model.HintLicence) != nil {
				t.licences[0]++
			}
		}
	})
	most := t.whole.mostNamed()
	if 10*t.licences[0] > t.licences[1] || 2*t.whole.holders[most] < t.licences[1] || who.Text == most || t.namesUs(who.Text) ||
		t.whole.holders[who.Text] > mostStrangers {
		return "", ""
	}
	return model.OriginVendored, fmt.Sprintf(
		"line %d: the licence of %s, whom hardly another file names, where most name %s", h.Line, who.Text, most,
	)
}

// leastPages is how many pages have to begin alike for a program to have written them: a
// person who writes as many changes something above the first words of one.
const leastPages = 40

// fromTemplate is a page that begins as many others do, but for its title.
func (t *teller) fromTemplate(f *model.File) (model.FileOrigin, string) {
	h := f.Facts.Hint(model.HintPage)
	if h == nil {
		return "", ""
	}
	t.paging.Do(func() {
		t.pages = map[string]int{}
		for _, o := range t.s.Files {
			if p := o.Facts.Hint(model.HintPage); p != nil {
				t.pages[p.Text]++
			}
		}
	})
	if n := t.pages[h.Text]; n >= leastPages {
		return model.OriginGenerated, fmt.Sprintf("%d pages begin alike but for their titles: a program wrote them from a template", n)
	}
	return "", ""
}

// ours reports whether a name is that of one of the codebase's own projects.
func (t *teller) ours(name string) bool {
	for _, f := range t.s.Files {
		if f.Facts == nil || f.Facts.Project == nil || strings.Count(f.Path, "/") > 1 {
			continue
		}
		if own := strings.ToLower(f.Facts.Project.Name); own != "" &&
			(strings.Contains(own, name) || strings.Contains(name, path.Base(own))) {
			return true
		}
	}
	return false
}

// skeletons are what frameworks' generators lay out: they count only where
// nobody touched them since.
var skeletons = regexp.MustCompile(`(?:^|/)(?:manage\.py|wsgi\.py|asgi\.py|reportWebVitals\.[jt]s|setupTests\.[jt]s|` +
	`serviceWorker\.[jt]s|polyfills\.ts|` +
	`config/(?:boot|environment|puma|spring)\.rb|bin/(?:rails|rake|bundle|setup|spring|yarn)|config/environments/\w+\.rb|` +
	`config/initializers/\w+\.rb|` +
	`vite-env\.d\.ts|next-env\.d\.ts|Program\.cs|MainActivity\.kt|AppDelegate\.\w+|artisan|server\.php|bootstrap/app\.php)$`)

// untouched is a generator's skeleton that nobody changed since the first of
// several commits.
func (t *teller) untouched(f *model.File) (model.FileOrigin, string) {
	h := t.s.History
	if h == nil || h.Commits < 5 || !skeletons.MatchString(f.Path) {
		return "", ""
	}
	if c := h.File(f.Path); c != nil && c.Changes == 1 && c.First == h.First {
		return model.OriginScaffold, fmt.Sprintf("a generator lays it out so, and nobody changed it in %d commits", h.Commits)
	}
	return "", ""
}

func set(words string) map[string]bool {
	m := map[string]bool{}
	for w := range strings.FieldsSeq(words) {
		m[w] = true
	}
	return m
}
