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

// attribute is what a .gitattributes says of the paths of a glob.
type attribute struct {
	glob, file string
	origin     model.FileOrigin
	is         bool // false: it is said not to be
	line       int
}

// projects gathers what project files and .gitattributes say.
func (t *teller) projects() {
	t.outputs, t.members = map[string]string{}, map[string]bool{}
	for _, f := range t.s.Files {
		if f.Facts == nil || f.Facts.Project == nil {
			continue
		}
		p, d := f.Facts.Project, model.FolderOf(f.Path)
		for _, o := range p.Outputs {
			if out := path.Join(d, o); out != "." && out != d && !strings.HasPrefix(out, "../") {
				t.outputs[out] = f.Path
			}
		}
		for _, w := range p.Written {
			t.written = append(t.written, writes{path.Join(d, w), f.Path})
		}
		for _, w := range p.Workspaces {
			t.members[path.Join(d, w)] = true
		}
		if p.Tool == "gitattributes" {
			for _, c := range p.Scripts {
				glob := strings.TrimPrefix(c.Name, "/")
				if !strings.Contains(glob, "/") {
					glob = "**/" + glob
				}
				if strings.HasSuffix(glob, "/") {
					glob += "**"
				}
				kind, value, _ := strings.Cut(c.Text, "=")
				t.attrs = append(t.attrs, attribute{path.Join(d, glob), f.Path, model.FileOrigin(kind), value != "false", c.Line})
			}
		}
	}
}

// said is what the repository itself says of a file; the last line that speaks
// of it counts.
func (t *teller) said(f *model.File) (origin model.FileOrigin, why string) {
	for _, a := range t.attrs {
		if ok, _ := doublestar.Match(a.glob, f.Path); !ok && !model.Within(a.glob, f.Path) {
			continue
		}
		if origin, why = a.origin, fmt.Sprintf("%s says so, line %d", a.file, a.line); !a.is {
			origin = model.OriginOwn
		}
	}
	return origin, why
}

// inOutput is a folder that a project file has something written to.
func (t *teller) inOutput(f *model.File) (model.FileOrigin, string) {
	if d := t.around[model.FolderOf(f.Path)].output; d != "" {
		return model.OriginBuilt, fmt.Sprintf("%s has it written to %s", t.outputs[d], d)
	}
	return "", ""
}

// around is what a folder and those that it lies in say of what is in it, the innermost
// where several do.
type around struct {
	foreign        string // why it is others' code
	made, fixtures string // the names of folders for what is made, and for what tests work on
	texts, output  string // folders of texts by language, and such as a project file has something written to
	tests, specs   bool   // it holds tests; it may, or hold what something has to be like
	tested, shown  bool   // it holds what lies among them and is none; it does, or holds some of them
	tongue         string // a folder that holds in one language what others beside hold in theirs
}

// allAround is what is around each folder that there is.
func (t *teller) allAround(foreign map[string]string) map[string]around {
	out := make(map[string]around, len(t.folders))
	for _, d := range slices.Sorted(maps.Keys(t.folders)) { // a folder comes before what it holds
		if d == "." {
			continue
		}
		a, name := out[model.FolderOf(d)], path.Base(d)
		if why := foreign[d]; why != "" {
			a.foreign = why
		}
		if t.outputs[d] != "" {
			a.output = d
		}
		if madeFolders.MatchString(name) {
			a.made = name
		}
		if fixtureFolders[strings.ToLower(name)] {
			a.fixtures = name
		}
		if CatalogueFolder(name) {
			a.texts = d
		}
		a.tested = a.tested || (a.tests || a.specs) && testData.MatchString(name)
		a.shown = a.shown || (a.tests || a.specs) && mayBeTests.MatchString(name)
		a.tests = a.tests || testFolders.MatchString(name) && !notTests[strings.ToLower(name)]
		a.specs = a.specs || specFolders.MatchString(name)
		if t.tongueFolders[d] != nil {
			a.tongue = d
		}
		out[d] = a
	}
	return out
}

// writes is a file, or those of a pattern, that a project file has something
// written to.
type writes struct{ glob, by string }

// output is a file that a project file has written.
func (t *teller) output(f *model.File) (model.FileOrigin, string) {
	for _, w := range t.written {
		if ok, _ := path.Match(w.glob, f.Path); ok {
			return model.OriginGenerated, fmt.Sprintf("%s has something written to it", w.by)
		}
	}
	return "", ""
}

// folder is what a folder holds at any depth, and who needs it.
type folder struct {
	path          string
	texts         bool    // it lies in one of texts, or is one
	above         *folder // nil for the root
	files, source int
	licence       string // a licence that lies directly in it
	manifest      string // a manifest that lies directly in it
	name          string // as the manifest has it
	banners       int
	in, out       int // links over its border, of code
	// holders counts files by who has their rights, as they say themselves; starts
	// those of them that start a program.
	holders, starts map[string]int
	// rights counts, in the root alone, all files that say somebody has their rights,
	// those among them that name the project they are part of besides.
	rights map[string]int
	// apart is the folder of the headers of this one, or of the sources, where they lie
	// in a folder of the same name elsewhere: both are one.
	apart     string
	apartWith *folder
}

var (
	licences  = regexp.MustCompile(`(?i)^(?:license|licence|copying|copyright|unlicense|notice)(?:[.\-_]\w+)*$`)
	manifests = set(`package.json bower.json composer.json component.json CMakeLists.txt configure.ac configure.in configure
		setup.py pyproject.toml
		Cargo.toml go.mod pom.xml build.gradle META.json META.yml Makefile.PL
		dist.ini VERSION version.txt ChangeLog CHANGELOG CHANGELOG.md CHANGES CHANGES.md NEWS HISTORY.md`)
	// installed are folders that package managers fill.
	installed = set(`node_modules bower_components jspm_packages site-packages godeps pods carthage gnulib .venv venv .yarn .tox web_modules`)
	// others are folders named for what others wrote.
	others = regexp.MustCompile(`(?i)^(?:third[-_]?part(?:y|ies)|3rd[-_]?part(?:y|ies)|3rdparty|external|externals|extern|` +
		`vendors?|vendored|_vendor|contrib|` +
		`deps|dependencies|ext|bundled|thirdparty|foreign|upstream|submodules|imported|` +
		`libs?|libraries|packages|plugins?|js|javascript|scripts|assets|static|public|` +
		`inc|includes?|cpan|perllib)$`)
	// places are those of them that hold what others wrote, a folder each.
	places = regexp.MustCompile(`(?i)^(?:third[-_]?part(?:y|ies)|3rd[-_]?part(?:y|ies)|externals?|extern|vendors?|vendored|contrib|` +
		`deps|dependencies|ext|extlibs?|bundled|foreign|libs|libraries)$`)
	// thirdParty are those that can be named for nothing else, even where what
	// they hold takes in one file of ours that sets it up.
	thirdParty = regexp.MustCompile(`(?i)^(?:third|3rd)[-_]?part(?:y|ies)`)
	// plainly are those of them that are named for nothing else.
	plainly = regexp.MustCompile(
		`(?i)^(?:(?:third|3rd)[-_]?part(?:y|ies)(?:[-_.]\w+)*|vendors?|vendored|_vendor|externals?|extern|bundled[-_]libs)$`,
	)
)

// textFolders hold texts, one file for each language.
var textFolders = set("lang langs locale locales i18n l10n translation translations")

func foldersOf(s *model.Survey) map[string]*folder {
	all := map[string]*folder{".": {path: ".", rights: map[string]int{}}}
	var get func(d string) *folder
	get = func(d string) *folder {
		x := all[d]
		if x == nil {
			x = &folder{path: d, above: get(model.FolderOf(d))}
			x.texts = x.above.texts || textFolders[strings.ToLower(path.Base(d))]
			all[d] = x
		}
		return x
	}
	for _, f := range s.Files {
		code := syntax.ProfileOf(f.Language).Code
		banner, held := f.Facts.Hint(model.HintBanner) != nil, f.Facts.Hint(model.HintHolder)
		made := f.Facts.Hint(model.HintGenerated)
		if also := f.Facts.Hint(model.HintRights); also != nil && code {
			all["."].rights[also.Text]++
		}
		lies := get(model.FolderOf(f.Path))
		texts := lies.texts // one file a language, all alike
		for x := lies; x != nil; x = x.above {
			x.files++
			if code && !texts {
				x.source++
			}
			if held != nil && code && !texts && made == nil { // what a tool took over says nothing of its folder
				if x.holders == nil {
					x.holders, x.starts = map[string]int{}, map[string]int{}
				}
				x.holders[held.Text]++
				if f.Facts.Starts > 1 {
					x.starts[held.Text]++
				}
			}
			if banner {
				x.banners++
			}
		}
		x, base := lies, path.Base(f.Path)
		if licences.MatchString(base) && !code {
			x.licence = base
		}
		if manifests[base] {
			x.manifest = base
			if f.Facts != nil && f.Facts.Project != nil && f.Facts.Project.Name != "" {
				x.name = f.Facts.Project.Name
			}
		}
	}
	pairHeaders(all)
	for i := range s.Links {
		l := &s.Links[i]
		if saysNothing(l) {
			continue
		}
		for x := get(model.FolderOf(l.From)); x != nil; x = x.above {
			if x.outside(l.To) {
				x.out++
			}
		}
		for x := get(model.FolderOf(l.To)); x != nil; x = x.above {
			if x.outside(l.From) {
				x.in++
			}
		}
	}
	return all
}

// saysNothing reports whether a dependency tells nothing of who wrote its two ends: it
// repeats another, is a setting, or is the lead's word.
func saysNothing(l *model.Link) bool {
	return l.Kind.Repeats() || l.Kind == model.LinkConfiguration || l.Kind == model.LinkDeclared
}

// outside reports whether a path lies outside of the folder, and of that of its headers.
func (x *folder) outside(p string) bool {
	return !model.Within(x.path, p) && (x.apart == "" || !model.Within(x.apart, p))
}

// headerFolders hold the headers of what lies elsewhere, a folder for each part.
var headerFolders = regexp.MustCompile(`(?i)^(?:includes?|inc|headers?)$`)

// pairHeaders ties a folder of headers to the one other folder of its name.
func pairHeaders(all map[string]*folder) {
	named := map[string][]string{}
	for d, x := range all {
		if x.source > 0 {
			named[path.Base(d)] = append(named[path.Base(d)], d)
		}
	}
	for _, two := range named {
		if len(two) != 2 || model.Within(two[0], two[1]) || model.Within(two[1], two[0]) {
			continue
		}
		if headerFolders.MatchString(path.Base(model.FolderOf(two[0]))) != headerFolders.MatchString(path.Base(model.FolderOf(two[1]))) {
			a, b := all[two[0]], all[two[1]]
			a.apart, a.apartWith, b.apart, b.apartWith = two[1], b, two[0], a
		}
	}
}
