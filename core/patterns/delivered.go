package patterns

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/reading"
	"jantel/core/syntax"
)

// As what code is delivered: several applications, a library, scripts.

var appFolders = []string{"apps", "libs", "packages", "cmd", "pkg", "internal", "services", "modules"}

var projectTools = []string{"npm", "go", "python", "composer", "maven", "gradle"}

// projects counts what stands on its own below the folders for applications and
// libraries: with a project file, or as a program. A single one is what it is
// all about, and nothing lies beside it.
func projects(c *context) outcome {
	own := map[string]bool{}
	var ev []model.Evidence
	above := map[string]bool{}
	for _, d := range c.foldersNamed(appFolders...) {
		above[d.Path] = true
	}
	for _, f := range c.survey.Files {
		if f.Facts == nil || f.Facts.Starts == 0 && (f.Facts.Project == nil || !slices.Contains(projectTools, f.Facts.Project.Tool)) ||
			!c.judged[f.Path] || c.roles[f.Path].Role == model.RoleTest || insideOnly(f.Path) {
			continue
		}
		for part := model.FolderOf(f.Path); part != "."; part = model.FolderOf(part) {
			if above[model.FolderOf(part)] && !own[part] {
				own[part] = true
				ev = append(ev, model.Evidence{Path: f.Path, Line: f.Facts.Starts, Note: "stands on its own"})
			}
		}
	}
	return outcomeOf(
		float64(len(own)-1)/3,
		fmt.Sprintf("%d of the parts in them stand on their own, as a program or with a project file.", len(own)),
		ev[:min(5, len(ev))],
	)
}

// insideOnly reports whether a file is kept for the module it lies in: programs there
// write or try the rest.
func insideOnly(p string) bool { return strings.Contains("/"+p, "/internal/") }

// offers tests that others can take something from it: its authors or a project file
// say so, or nearly all of it is one package.
func offers(c *context) outcome {
	o := c.offered()
	if said, ok := c.called(); ok && o.share < said.share {
		return said
	}
	return o
}

// offered is what shows in the code and its project files that others can take something
// from it.
func (c *context) offered() outcome {
	if f := c.topPackage(); f != nil {
		return packaged(c, f)
	}
	if o, ok := libraryByBuild(c); ok {
		return o
	}
	ev := projectsOffer(c)
	switch {
	case len(ev) > 0 && c.application():
		return outcomeOf(mayOffer, "Others may import it, but it answers requests and draws pages, as an application does.", ev)
	case len(ev) > 0:
		return outcomeOf(1, "It offers its code to others.", ev)
	}
	if f := c.header(); f != nil {
		// Where others take in headers, they need no project file to do so.
		return outcomeOf(
			0.8, "Its headers can be taken in by others, and no program starts in it.",
			[]model.Evidence{{Path: f.Path, Line: 1, Note: "a header"}},
		)
	}
	if f := c.namesake(); f != nil {
		return outcomeOf(
			0.8, fmt.Sprintf("%s stands beside the folder that is called so and holds nearly all of the code: others take it in.", f.Path),
			[]model.Evidence{{Path: f.Path, Line: 1, Note: "what others take in"}},
		)
	}
	if f := c.loosePackage(); f != nil {
		return outcomeOf(
			0.8, "Its top folder is a package that others can take in, and no program starts in it.",
			[]model.Evidence{{Path: f.Path, Line: 1, Note: "makes its folder a package"}},
		)
	}
	if c.used() {
		return c.forOthers()
	}
	return outcomeOf(0, "Nothing offers the code to others: no project file does, and it is no single package.", nil)
}

// loosePackage is a file of the package that the top folder is, where no program starts:
// older code has no project file to say so.
func (c *context) loosePackage() *model.File {
	if c.root != "." || len(c.programs()) > 0 {
		return nil
	}
	return c.packageIn(".")
}

// asked is how many files are seen to answer what is asked from outside: what one is called
// or lies in says that of commands as well.
func (c *context) asked() (n int) {
	answering := slices.ContainsFunc(c.source, func(f *model.File) bool { return len(f.Facts.Routes) > 0 })
	for _, f := range slices.Concat(c.byRole[model.RoleRouting], c.byRole[model.RoleHandler]) {
		r := c.roles[f.Path]
		if r.Source == model.RoleSeen && (answering || slices.ContainsFunc(r.Reasons, tellsMore)) {
			n++
		}
	}
	return n
}

// tellsMore reports whether a reason is another than what something is called.
func tellsMore(reason string) bool { return !strings.HasPrefix(reason, "its name ") }

// used reports whether what there is can only be used by others: hardly any of it is
// reached from a program, page or route in it, and its files hand things out.
func (c *context) used() bool {
	may := len(c.byRole[model.RoleRouting]) + len(c.byRole[model.RoleHandler]) // those that only may be asked as well
	if c.root != "." || 20*may > len(c.source) || len(c.source) < 5 {
		return false
	}
	// What little is linked says nothing of what its programs reach.
	if n := c.started(); n > 0 && (c.startsMuch() || 10*n > len(c.source) || 2*c.unlinked() > len(c.source)) {
		return false
	}
	hands, others, all := 0, 0, 0 // lines: what is set up for it are a few
	for _, f := range c.source {
		p, n := syntax.ProfileOf(f.Language), f.Lines()
		all += n
		switch {
		case p.Scripts, f.Facts == nil, f.Facts.Starts > 0, p.Pages && len(f.Facts.Definitions) == 0:
			others += n
		case len(f.Facts.Definitions) > 0 && (p.Inherits || len(f.Facts.Names) > 0):
			hands += n
		}
	}
	return 10*others <= all && 4*hands >= 3*all
}

// leastAside is how many files of packages have to lie aside of the programs.
const leastAside = 3

// packageAside is a file of the packages that others can take in and no program here
// needs, where those are a quarter of the source, hardly any answers requests, and programs
// do need others: where none needs any, little is known of what they need.
func (c *context) packageAside() (first *model.File) {
	reached, aside, needed := c.reached(), 0, false
	for _, f := range c.source {
		switch {
		case !syntax.ProfileOf(f.Language).FolderPackages, f.Facts.Namespace == "main", insideOnly(f.Path):
		case reached[c.whole(f.Path)]:
			needed = true
		default:
			if aside++; first == nil {
				first = f
			}
		}
	}
	if !needed || aside < leastAside || 4*aside < len(c.source) || 20*c.asked() > len(c.source) {
		return nil
	}
	return first
}

// started counts the files that are reached from where something starts, tests apart.
func (c *context) started() (n int) {
	seen := c.reached()
	for _, f := range c.source {
		if seen[c.whole(f.Path)] {
			n++
		}
	}
	return n
}

// whole is what a file is a part of: its package where the files of a folder are one, else
// the file and what declares it.
func (c *context) whole(p string) string {
	if f := c.survey.File(p); f != nil && syntax.ProfileOf(f.Language).FolderPackages {
		return model.FolderOf(p) + "/"
	}
	return unit(p)
}

// reached are the parts that are needed where something starts, by way of others too, with
// those in which it does.
func (c *context) reached() map[string]bool {
	if c.reach != nil {
		return c.reach
	}
	needs := map[string][]string{}
	for _, l := range c.edges {
		from := c.whole(l.From)
		needs[from] = append(needs[from], c.whole(l.To))
	}
	seen := map[string]bool{}
	var next []string
	for _, f := range c.source {
		if f.Facts.Starts > 0 || c.roles[f.Path].Role == model.RoleEntry {
			next = append(next, c.whole(f.Path))
		}
	}
	for len(next) > 0 {
		at := next[len(next)-1]
		if next = next[:len(next)-1]; !seen[at] {
			seen[at] = true
			next = append(next, needs[at]...)
		}
	}
	c.reach = seen
	return seen
}

// forOthers says of what is used by others why that is so.
func (c *context) forOthers() outcome {
	switch {
	case len(c.programs()) > 0:
		return outcomeOf(0.65, fmt.Sprintf("Its programs reach hardly any of it (%d of %d source files): others use the rest.",
			c.started(), len(c.source)), nil)
	case c.asked() > 0:
		return outcomeOf(0.65, fmt.Sprintf(
			"No program starts in it and hardly anything in it (%d of %d source files) answers requests: others use it.",
			c.asked(), len(c.source),
		), nil)
	}
	return outcomeOf(0.65, "No program starts in it and nothing in it is asked from outside: others use it.", nil)
}

// mayOffer is what it comes to that others could take something from a codebase that is there
// to be run: too little to name it a library.
const mayOffer = 0.2

// packaged tells of what is one package without a project file: it may still be
// an application's.
func packaged(c *context, f *model.File) outcome {
	ev := []model.Evidence{{Path: f.Path, Line: 1, Note: "makes its folder a package"}}
	if c.application() {
		return outcomeOf(mayOffer, "Nearly all of it is one package, but it answers requests and draws pages, as an application does.", ev)
	}
	// A module that can be run as well is no program that the package is for.
	front := slices.ContainsFunc(c.programs(), func(p *model.File) bool {
		return !model.Within(model.FolderOf(f.Path), p.Path)
	})
	if n := c.started(); front && 5*n >= 3*len(c.source) {
		return outcomeOf(
			mayOffer, fmt.Sprintf("Nearly all of it is one package, but what starts in it needs %d of %d source files.", n, len(c.source)), ev,
		)
	}
	return outcomeOf(0.65, "Nearly all of it is one package, though no project file tells what it is for.", ev)
}

// application reports whether what is asked from outside is answered here, and drawn.
func (c *context) application() bool {
	if len(c.programs()) == 0 && c.byPackages() {
		return false // nothing could be started to answer
	}
	return c.asked() > 0 && len(c.drawn) > 2
}

// showsPages reports whether requests are answered here, or pages lie here that are no code:
// what draws in a program is for those who build one.
func (c *context) showsPages() bool {
	return c.asked() > 0 || slices.ContainsFunc(c.drawn, func(f *model.File) bool { return !reading.IsCode(f) })
}

// byPackages reports whether most of the source is of a language in which a program has
// to be written to start anything.
func (c *context) byPackages() bool {
	n := 0
	for _, f := range c.source {
		if syntax.ProfileOf(f.Language).FolderPackages {
			n++
		}
	}
	return 2*n > len(c.source)
}

// header is one that others may take in, of code in which nothing starts.
func (c *context) header() *model.File {
	if len(c.programs()) > 0 || 2*len(c.byRole[model.RolePlatform]) >= len(c.source) {
		return nil
	}
	for _, f := range c.source {
		if syntax.IsHeader(f.Path) {
			return f
		}
	}
	return nil
}

// projectsOffer are the project files that say what others may take in.
func projectsOffer(c *context) (ev []model.Evidence) {
	for _, f := range c.survey.Files {
		// A tool may well have written the project file.
		if f.Facts == nil {
			continue
		}
		d := model.FolderOf(f.Path)
		switch p := f.Facts.Project; {
		case p == nil:
		case strings.Count(f.Path, "/") > 1:
		case p.Library:
			ev = append(ev, model.Evidence{Path: f.Path, Line: 1, Note: "says that it is a library"})
		case p.Tool == "cargo" && c.survey.File(path.Join(d, "src/lib.rs")) != nil:
			ev = append(ev, model.Evidence{Path: path.Join(d, "src/lib.rs"), Line: 1, Note: "the crate's library"})
		case p.Tool == "perl" && c.survey.File(path.Join(d, "lib")) == nil && c.hasFolder(path.Join(d, "lib")):
			ev = append(ev, model.Evidence{Path: f.Path, Line: 1, Note: "installs what lies in lib"})
		case p.Tool == "npm" && len(p.Exports) == 0 && c.startsAll(d, p.Entries):
		case p.Tool == "npm" && (len(p.Entries) > 0 || len(p.Exports) > 0):
			ev = append(ev, model.Evidence{Path: f.Path, Line: 1, Note: "names what others may import"})
		case p.Tool == "npm" && d == "." && len(c.programs()) == 0 && laidOut(c).share == 0 && !isRun(p):
			ev = append(ev, model.Evidence{Path: f.Path, Line: 1, Note: "a package that starts nothing"})
		case p.Tool == "go" && p.Name != "":
			if g := c.packageIn(d); g != nil {
				ev = append(ev, model.Evidence{Path: g.Path, Line: 1, Note: "the folder of the module is a package"})
			} else if len(c.programs()) == 0 {
				ev = append(ev, model.Evidence{Path: f.Path, Line: 1, Note: "a module without a program in it"})
			} else if c.toolsAside(d, p.Name) {
				ev = append(ev, model.Evidence{Path: f.Path, Line: 1, Note: "a module of packages, with programs in cmd alone"})
			} else if g := c.packageAside(); g != nil {
				ev = append(ev, model.Evidence{Path: g.Path, Line: 1, Note: "of a package that no program here needs"})
			}
		case (p.Tool == "maven" || p.Tool == "gradle" || strings.HasSuffix(f.Path, ".gemspec")) && len(c.programs()) == 0 && !c.showsPages():
			ev = append(ev, model.Evidence{Path: f.Path, Line: 1, Note: "a project without a program in it"})
		case p.Tool == "python" && p.Name != "" && len(c.programs()) == 0:
			ev = append(ev, model.Evidence{Path: f.Path, Line: 1, Note: "a module without a program in it"})
		}
	}
	return ev
}

// leastOpen is how many packages have to lie open to others.
const leastOpen = 5

// toolsAside reports whether a module's programs all lie in a folder of commands, none of
// them called as it is, and a good part of its files in packages that others can take in.
func (c *context) toolsAside(d, module string) bool {
	commands := path.Join(d, "cmd")
	for _, f := range c.programs() {
		aside := model.Within(commands, f.Path) || insideOnly(f.Path) || path.Base(f.Path) == "gen.go"
		if !aside || path.Base(model.FolderOf(f.Path)) == path.Base(module) {
			return false
		}
	}
	files, packages := 0, map[string]bool{}
	for _, f := range c.source {
		if !model.Within(commands, f.Path) && !insideOnly(f.Path) {
			files++
			packages[model.FolderOf(f.Path)] = true
		}
	}
	return 4*files >= len(c.source) && len(packages) >= leastOpen
}

// runs are the scripts of a package that is run rather than taken in.
var runs = syntax.Set("start", "serve", "dev", "preview", "develop")

func isRun(p *model.Project) bool {
	return slices.ContainsFunc(p.Scripts, func(x model.Command) bool { return runs[x.Name] })
}

// startsAll reports whether a program starts in each of the files that a project
// names as its main ones: such a project is one to run.
func (c *context) startsAll(d string, entries []string) bool {
	for _, e := range entries {
		if !slices.ContainsFunc(c.programs(), func(f *model.File) bool { return f.Path == path.Join(d, e) }) {
			return false
		}
	}
	return len(entries) > 0
}

func (c *context) hasFolder(d string) bool {
	return slices.ContainsFunc(c.folders, func(x *model.Folder) bool { return x.Path == d })
}

// namesake is a file beside the folder of its name that holds nearly all source,
// as libraries are laid out where a name is looked for by its path; nil where more
// than one program starts in the rest.
func (c *context) namesake() *model.File {
	if c.root != "." || len(c.programs()) > 1 {
		return nil
	}
	folders := map[string]bool{}
	for _, d := range c.folders {
		folders[d.Path] = true
	}
	for _, f := range c.source {
		d := strings.TrimSuffix(f.Path, path.Ext(f.Path))
		if f.Facts == nil || f.Facts.Starts > 0 || !folders[d] {
			continue
		}
		in := 1
		for _, o := range c.source {
			if strings.HasPrefix(o.Path, d+"/") {
				in++
			}
		}
		if in > 3 && 100*in >= 85*len(c.source) {
			return f
		}
	}
	return nil
}

// topPackage is what makes nearly all of the codebase one package of Python; nil
// where a folder of commands lies in it, as an application has one.
func (c *context) topPackage() *model.File {
	if c.root != "." {
		return nil
	}
	for _, d := range c.folders {
		f := c.survey.File(path.Join(d.Path, "__init__.py"))
		if f == nil || !c.judged[f.Path] || 10*c.within(d) < 9*len(c.source) {
			continue
		}
		for _, in := range c.foldersNamed("bin", "cli", "commands", "command line", "scripts") {
			if in.Parent == d.Path && c.within(in) > 1 {
				return nil
			}
		}
		return f
	}
	return nil
}

// packageIn is a file directly in a folder that is a package and gives something
// to others.
func (c *context) packageIn(d string) *model.File {
	for _, f := range c.source {
		if syntax.ProfileOf(f.Language).FolderPackages && model.FolderOf(f.Path) == d && f.Facts.Namespace != "main" &&
			len(f.Facts.Names) > 0 {
			return f
		}
	}
	return nil
}

// programs are the files in which a program starts, but for those that only show
// how something is used, and for modules of a package that can be run as well.
func (c *context) programs() []*model.File {
	if c.counted {
		return c.starting
	}
	c.counted = true
	packages := c.pythonPackages()
	for _, f := range c.source {
		// What the build runs to write a file is a script, and no program.
		starts := c.roles[f.Path].Role == model.RoleEntry || f.Facts.Starts > 0 && c.roles[f.Path].Role != model.RoleScript &&
			(!packages[model.FolderOf(f.Path)] || path.Base(f.Path) == "__main__.py")
		if starts && !showsOrTries(model.FolderOf(f.Path)) {
			c.starting = append(c.starting, f)
		}
	}
	return c.starting
}

// shows are folders of programs that show, try or measure the rest.
var shows = syntax.Set(
	"example", "examples", "sample", "samples", "demo", "demos", "testdata", "hack", "bench", "benchmark", "benchmarks", "fuzz",
)

func (c *context) pythonPackages() map[string]bool {
	out := map[string]bool{}
	for _, f := range c.survey.Files {
		if path.Base(f.Path) == "__init__.py" {
			out[model.FolderOf(f.Path)] = true
		}
	}
	return out
}

// startsMuch reports whether programs start in more than a twentieth of the source.
func (c *context) startsMuch() bool { return 20*len(c.programs()) > len(c.source) }

func noStart(c *context) outcome {
	fs := c.programs()
	if len(fs) == 0 {
		return outcomeOf(1, "No program starts in it.", nil)
	}
	ev := filesEvidence(fs, "a program starts in it")
	_, called := c.called()
	switch {
	case c.startsMuch() && !called && c.made().part(model.BuiltLibrary, len(c.source)) < mostBuilt:
		return outcomeOf(0, fmt.Sprintf("Programs start in %d of %d source files.", len(fs), len(c.source)), ev)
	case len(fs) == 1:
		return outcomeOf(0.6, fmt.Sprintf("One program, %s, stands beside what it offers.", fs[0].Path), ev)
	}
	return outcomeOf(0.6, fmt.Sprintf("%d programs stand beside what it offers.", len(fs)), ev)
}

func starts(c *context) outcome {
	packages := c.pythonPackages() // a module of a package may well run by itself, to show what it does
	taken := map[string]bool{}     // what others need is there for them
	for _, l := range c.edges {
		taken[l.To] = taken[l.To] || l.From != l.To
	}
	scripts, fs := 0, []*model.File(nil)
	for _, f := range c.source {
		by := syntax.ProfileOf(f.Language).Scripts
		if by {
			scripts++
		}
		runs := f.Facts != nil && (f.Facts.Starts > 0 || by) && !taken[f.Path]
		if runs && (!packages[model.FolderOf(f.Path)] || path.Base(f.Path) == "__main__.py") {
			fs = append(fs, f)
		}
	}
	if 2*scripts < len(c.source) {
		// Beside a program in another language they build, try or install it.
		fs = slices.DeleteFunc(fs, func(f *model.File) bool { return syntax.ProfileOf(f.Language).Scripts })
	}
	if len(c.source) == 0 {
		return outcomeOf(0, "There is no program text to tell from.", nil)
	}
	share := float64(len(fs)) / float64(len(c.source))
	if share < 0.3 {
		share /= 4 // most software has a program or two to run in it
	}
	if c.made().part(model.BuiltLibrary, len(c.source)) >= leastBuilt {
		share /= 4 // they show, try or write what its build makes for others
	}
	return outcomeOf(
		share*1.7, fmt.Sprintf("%d of %d source files are programs to run.", len(fs), len(c.source)),
		filesEvidence(fs, "a program to run"),
	)
}

// unlinked counts the source files that neither need nor serve another.
func (c *context) unlinked() (n int) {
	linked := map[string]bool{}
	for _, l := range c.survey.Links {
		linked[l.From], linked[l.To] = true, true
	}
	for _, f := range c.source {
		if !linked[f.Path] {
			n++
		}
	}
	return n
}

func loose(c *context) outcome {
	n := c.unlinked()
	if len(c.source) == 0 {
		return outcomeOf(0, "There is no program text to tell from.", nil)
	}
	return outcomeOf(
		float64(n)/float64(len(c.source))*1.3,
		fmt.Sprintf("%d of %d source files neither need nor serve another.", n, len(c.source)), nil,
	)
}
