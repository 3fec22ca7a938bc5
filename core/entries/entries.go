// Package entries tells where a codebase starts: programs, pages, workers,
// commands and scripts run by hand, each with the mechanism that starts it; and
// the public faces of what is used as a library.
package entries

import (
	"fmt"
	"path"
	"regexp"
	"slices"
	"strings"

	"jantel/core/links"
	"jantel/core/model"
	"jantel/core/reading"
	"jantel/core/syntax"
)

// finder gathers the entries of a codebase; the first mechanism that starts a
// file is the one that is told.
type finder struct {
	r      *reading.Reading
	found  map[string]model.Entry
	needed map[string]bool // files that own code outside tests takes in
	pages  map[string]string
}

// Of lists the entries by path, and the facades.
func Of(r *reading.Reading) (entries []model.Entry, facades []string) {
	f := &finder{r: r, found: map[string]model.Entry{}, needed: map[string]bool{}, pages: map[string]string{}}
	for _, e := range r.Edges() {
		switch {
		case e.FromRole == model.RoleTest, !links.Directs(e.Kind):
		case path.Ext(e.From) == ".html":
			f.pages[e.To] = e.From
		default:
			f.needed[e.To] = true
		}
	}
	f.projects()
	f.placed()
	for file := range r.Own(".") {
		if !r.IsTest(file.Path) && r.Role(file.Path) != model.RoleDocs {
			f.file(file)
		}
	}
	for _, e := range f.found {
		entries = append(entries, e)
	}
	slices.SortFunc(entries, func(a, b model.Entry) int { return strings.Compare(a.Path, b.Path) })
	return entries, f.facades()
}

func (f *finder) add(p string, line int, kind, mechanism string) {
	if _, known := f.found[p]; !known && f.r.Judged[p] && !f.r.IsTest(p) {
		f.found[p] = model.Entry{Path: p, Line: max(line, 1), Kind: kind, Mechanism: mechanism}
	}
}

// projects are what project files start.
func (f *finder) projects() {
	for _, file := range f.r.Files {
		if file.Facts == nil || file.Facts.Project == nil || !f.r.Judged[file.Path] {
			continue
		}
		p, d := file.Facts.Project, model.FolderOf(file.Path)
		for _, bin := range p.Bin {
			f.resolved(d, bin, model.EntryCommand, fmt.Sprintf("%s installs it as a command", file.Path))
		}
		if p.Tool == "godot" {
			for _, scene := range p.Entries {
				f.add(path.Join(d, scene), 1, model.EntryProgram, file.Path+" names it as the main scene")
			}
		}
		f.prescribed(file)
		for _, c := range p.Scripts {
			if p.Tool == "npm" && bundlers.MatchString(c.Text) {
				f.bundled(d, c.Text, fmt.Sprintf("%s has it bundled, line %d", file.Path, c.Line))
			}
			if p.Tool == "python" {
				f.function(d, p.Roots, c.Text, fmt.Sprintf("%s installs it as the command %s, line %d", file.Path, c.Name, c.Line))
			}
			if p.Tool == "docker" || p.Tool == "npm" && starts[c.Name] {
				f.started(d, c.Text, fmt.Sprintf("%s starts it, line %d", file.Path, c.Line))
			}
		}
	}
	for _, file := range f.r.Files {
		if file.Facts == nil || !f.r.Judged[file.Path] {
			continue
		}
		for _, run := range file.Facts.Runs {
			if run.Kind == model.RunProcess {
				f.started(model.FolderOf(file.Path), run.Name, fmt.Sprintf("%s starts it, line %d", file.Path, run.Line))
			}
		}
	}
}

// prescribed are what the frameworks start that a package depends on.
func (f *finder) prescribed(file *model.File) {
	p, d := file.Facts.Project, model.FolderOf(file.Path)
	if p.Tool != "npm" {
		return
	}
	if p.Dependencies["electron"] != "" {
		for _, e := range p.Entries {
			f.resolved(d, e, model.EntryProgram, file.Path+" names it as the main script of a desktop program")
		}
	}
}

// placed are the files that a framework starts pages with by their place.
func (f *finder) placed() {
	for _, file := range f.r.Files {
		if f.r.Judged[file.Path] {
			if by := f.r.Frameworks.Starts(file.Path); by != nil {
				f.add(file.Path, 1, model.EntryPage, by.Name+" finds it by its place")
			}
		}
	}
}

var starts = map[string]bool{"start": true, "serve": true, "dev": true, "server": true, "develop": true, "start:dev": true}

// bundlers are the tools that make one script of those that one takes in.
var bundlers = regexp.MustCompile(`(?:^|[ /])(?:esbuild|rollup|parcel|browserify|webpack|tsup|ncc)(?: |$)`)

// bundled looks for the files that a bundler is handed: those that it is to
// write stand behind an option.
func (f *finder) bundled(d, command, mechanism string) {
	words := strings.Fields(command)
	for i, w := range words {
		if strings.Contains(w, ".") && !strings.HasPrefix(w, "-") && (i == 0 || !strings.HasPrefix(words[i-1], "-o")) {
			if at, ok := syntax.Join(d, strings.Trim(w, `"'`)); ok && f.r.Judged[at] && f.r.File(at) != nil && reading.IsCode(f.r.File(at)) {
				f.add(at, 1, model.EntryPage, mechanism)
			}
		}
	}
}

// function adds the file of a function that is written by its module, as in
// "vault.cli:main", looked for from where the project keeps its modules.
func (f *finder) function(d string, roots []string, written, mechanism string) {
	module, name, _ := strings.Cut(written, ":")
	module = strings.ReplaceAll(strings.TrimSpace(module), ".", "/")
	for _, root := range append([]string{".", "src"}, roots...) {
		for _, try := range []string{module + ".py", module + "/__init__.py"} {
			at, ok := syntax.Join(d, path.Join(root, try))
			file := f.r.File(at)
			if !ok || !f.r.Judged[at] || file == nil || file.Facts == nil {
				continue
			}
			line := file.Facts.Starts
			for i := range file.Facts.Definitions {
				if def := &file.Facts.Definitions[i]; def.Name == name && def.Parent == "" {
					line = def.Line
				}
			}
			f.add(at, line, model.EntryCommand, mechanism)
			return
		}
	}
}

// started looks for the file that a command names.
func (f *finder) started(d, command, mechanism string) {
	for _, w := range strings.FieldsFunc(command, func(c rune) bool { return strings.ContainsRune(" \t\"'[],:=", c) }) {
		if strings.ContainsAny(w, "./") && !strings.HasPrefix(w, "-") {
			f.resolved(d, w, model.EntryProgram, mechanism)
		}
	}
}

// resolved adds the file that a path means: itself, with an ending, or the
// source of what is built.
func (f *finder) resolved(d, p, kind, mechanism string) {
	p = strings.TrimPrefix(p, "./")
	stem := strings.TrimSuffix(p, path.Ext(p))
	_, inner, _ := strings.Cut(stem, "/")
	for _, try := range []string{p, p + ".js", p + ".ts", stem + ".ts", path.Join("src", inner) + ".ts", path.Join("src", inner) + ".js"} {
		if at, ok := syntax.Join(d, try); ok && f.r.Judged[at] && f.r.File(at) != nil {
			f.add(at, f.r.File(at).Facts.Starts, kind, mechanism)
			return
		}
	}
}

var (
	byHand = regexp.MustCompile(
		`(?i)(?:^|/)(?:scripts?|tools?|examples?|_examples|contrib|hack|build|ci|benchmarks?|bench|misc|utils?|maint|dev)/`,
	)
	installed = regexp.MustCompile(`(?:^|/)s?bin/|(?:^|/)script/`)
	served    = map[string]string{
		"config.ru": "Rack starts it", "wsgi.py": "a WSGI server starts it", "asgi.py": "an ASGI server starts it",
		"manage.py": "its framework's commands",
		"artisan":   "its framework's commands",
	}
	workers    = regexp.MustCompile(`(?i)(?:^|[.-])(?:service-?worker|sw)\.[jt]s$|\.worker\.[jt]sx?$`)
	publicRoot = map[string]bool{".": true, "public": true, "web": true, "www": true, "htdocs": true, "public_html": true, "html": true}
)

// file asks the mechanisms that show in a file itself.
func (f *finder) file(file *model.File) {
	p, facts, base := file.Path, file.Facts, path.Base(file.Path)
	switch {
	case base == "build.rs", base == "setup.py", base == "conftest.py":
		return // the build runs them
	case served[base] != "":
		f.add(p, 1, model.EntryProgram, served[base])
	case path.Ext(base) == ".psgi":
		f.add(p, 1, model.EntryProgram, "a PSGI server starts it")
	case base == "App.xaml", base == "App.axaml":
		f.add(p, 1, model.EntryProgram, "the application of a desktop program")
	case base == "index.php" && (publicRoot[path.Base(model.FolderOf(p))] || f.atTop(file)):
		f.add(p, 1, model.EntryPage, "the front script of a site")
	case base == "AndroidManifest.xml":
		f.add(p, 1, model.EntryProgram, "the system starts the activities that it names")
	case syntax.ProfileOf(file.Language).Scripts && facts.Starts == 0 && !takenIn.MatchString(p):
		kind := model.EntryScript
		if path.Ext(base) == "" && installed.MatchString(p) {
			kind = model.EntryCommand
		}
		f.add(p, 1, kind, "a script in "+file.Language)
	case f.answers(file):
		f.add(p, 1, model.EntryPage, "a server answers with it at its own address")
	case strings.Contains(path.Ext(base), "s") && workers.MatchString(base):
		f.add(p, 1, model.EntryWorker, "a worker, by its name")
	case facts.Starts > 1, startsAtOnce(facts):
		f.program(file)
	case facts.Starts == 1:
		kind := model.EntryScript
		if installed.MatchString(p) || path.Ext(base) == "" && !byHand.MatchString(p) {
			kind = model.EntryCommand
		}
		f.add(p, 1, kind, "its first line makes it a program to run")
	case f.pages[p] != "" && !f.needed[p] && reading.IsCode(file):
		f.add(p, 1, model.EntryPage, f.pages[p]+" loads it")
	default:
		if _, l := facts.Sign(model.SignEntry); l > 0 {
			f.add(p, l, model.EntryPage, "it mounts the interface")
		} else if l := reading.Listens(facts); l > 0 && !f.needed[p] {
			f.add(p, l, model.EntryProgram, "it starts to listen, and nothing takes it in")
		} else if _, l := facts.Sign(model.SignApplication); l > 0 && !f.needed[p] {
			f.add(p, l, model.EntryProgram, "it makes the application that a server is handed, and nothing takes it in")
		}
	}
}

// takenIn are folders of scripts that others take in.
var takenIn = regexp.MustCompile(`(?:^|/)(?:lib|libs|inc|includes?|common|functions)(?:/|\.sh$)`)

// atTop reports whether nearly all code in the language of a file lies in its folder
// and below, and nothing takes it in: it is the front script of what is installed there.
func (f *finder) atTop(file *model.File) bool {
	d := model.FolderOf(file.Path)
	all, below := 0, 0
	for g := range f.r.Code(".") {
		if g.Language == file.Language {
			all++
			if model.Within(d, g.Path) {
				below++
			}
		}
	}
	return !f.needed[file.Path] && 20*below >= 19*all
}

// answers reports whether a script lies where a server answers with it, as it
// does in a language whose files are pages: nothing takes it in, and it defines no
// class.
func (f *finder) answers(file *model.File) bool {
	d := model.FolderOf(file.Path)
	if !syntax.ProfileOf(file.Language).Pages || f.needed[file.Path] || !publicRoot[path.Base(d)] ||
		f.r.File(path.Join(d,
			"composer.json")) != nil {
		return false
	}
	return !slices.ContainsFunc(file.Facts.Definitions, func(x model.Definition) bool {
		return x.Kind == model.DefClass || x.Kind == model.DefInterface
	})
}

// startsAtOnce reports whether a main function stands on the first line, where
// else the first line makes a program of the whole.
func startsAtOnce(f *model.Facts) bool {
	return f.Starts == 1 && slices.ContainsFunc(f.Definitions, func(d model.Definition) bool {
		return d.Line == 1 && strings.EqualFold(d.Name, "main")
	})
}

// program is a file with a main function: a script where it lies among tools or
// is left out of the package it lies in.
func (f *finder) program(file *model.File) {
	if syntax.ProfileOf(file.Language).FolderPackages {
		for _, g := range f.r.SourceIn(model.FolderOf(file.Path)) {
			if file.Facts.Namespace == "main" && g.Facts.Namespace != "" && g.Facts.Namespace != "main" {
				f.add(file.Path, file.Facts.Starts, model.EntryScript, "a program beside a package that does not hold it, run by hand")
				return
			}
		}
	}
	kind := model.EntryProgram
	if byHand.MatchString(file.Path) {
		kind = model.EntryScript
	}
	f.add(file.Path, file.Facts.Starts, kind, "its main function starts a program")
}

// facades are the public faces of libraries: what project files hand out, and
// indexes near the top that only hand on.
func (f *finder) facades() []string {
	out := map[string]bool{}
	for _, file := range f.r.Files {
		if file.Facts == nil || file.Facts.Project == nil || !f.r.Judged[file.Path] || file.Facts.Project.Tool != "npm" {
			continue
		}
		for _, e := range file.Facts.Project.Entries {
			if at, ok := syntax.Join(model.FolderOf(file.Path), e); ok && f.r.File(at) != nil && f.found[at].Path == "" {
				out[at] = true
			}
		}
	}
	for file := range f.r.Source(".") {
		depth := strings.Count(file.Path, "/")
		switch base := path.Base(file.Path); {
		case f.r.Role(file.Path) == model.RoleFacade && depth <= 2, base == "lib.rs" && depth <= 2:
			out[file.Path] = true
		case depth == 0 && syntax.ProfileOf(file.Language).FolderPackages &&
			strings.TrimSuffix(base, path.Ext(base)) == file.Facts.Namespace &&
			file.Facts.Namespace != "main":
			out[file.Path] = true
		}
	}
	list := make([]string, 0, len(out))
	for p := range out {
		list = append(list, p)
	}
	slices.Sort(list)
	return list
}
