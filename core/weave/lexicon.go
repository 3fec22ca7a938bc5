// Package weave tells what files are: their technical role, what their
// folders are for, and how a codebase is cut.
package weave

import (
	_ "embed" // the lexicon
	"maps"
	"path"
	"slices"
	"strings"
	"sync"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/parallel"
	"jantel/core/syntax"

	"github.com/goccy/go-yaml"
)

//go:embed lexicon.yaml
var lexiconText []byte

// Lexicon is what words of the trade stand for.
type Lexicon struct {
	Names, Folders, Files, Extensions map[string]model.Role
	CatchAll                          map[string]bool
	VagueFiles, VagueFunctions        map[string]bool
	VagueTypes, VagueSuffixes         map[string]bool
	NoFeatures                        map[string]bool
	Things                            map[string]bool // of those, what software may be about all the same
	Protocols                         map[string]bool
	// Needs are, by a word of Names or Folders, names of which one must be taken in
	// for it to mean its role.
	Needs map[string]string
	// answered tells that something is asked from outside and answered.
	answered bool
	// defined are types of the codebase that are called by a word which means something
	// else elsewhere.
	defined map[string]bool
	// passing are folders of one codebase that only lead on to the packages in
	// them, as org and acme do in org/acme/vault: their words say nothing.
	passing map[string]bool
	// beside are programs that lie in the folder of a package which does not hold them:
	// the build, or somebody by hand, runs them to write its files.
	beside map[string]bool
	// installed are files that a project file installs as commands, with that file.
	installed map[string]string
}

// Words returns the lexicon that Jantel ships.
var Words = sync.OnceValue(func() *Lexicon {
	var raw struct {
		Roles map[model.Role]struct {
			Names, Folders, Files []string
		}
		Extensions map[model.Role][]string
		CatchAll   []string `yaml:"catch_all"`
		NoFeatures []string `yaml:"no_features"`
		Things     []string
		Protocols  []string
		Needs      map[string][]string
		Vague      struct{ Files, Functions, Types, Suffixes []string }
	}
	if err := yaml.Unmarshal(lexiconText, &raw); err != nil {
		panic("the lexicon that is part of the program can not be read: " + err.Error())
	}
	l := &Lexicon{
		Names: map[string]model.Role{}, Folders: map[string]model.Role{}, Files: map[string]model.Role{},
		Extensions: map[string]model.Role{},
	}
	for _, role := range model.Roles { // the fixed order decides when a word stands twice
		r := raw.Roles[role]
		fill(l.Names, r.Names, role)
		fill(l.Folders, r.Folders, role)
		fill(l.Files, r.Files, role)
		fill(l.Extensions, raw.Extensions[role], role)
	}
	l.NoFeatures, l.Things, l.Protocols, l.Needs = set(raw.NoFeatures), set(raw.Things), set(raw.Protocols), map[string]string{}
	for what, words := range raw.Needs {
		for _, w := range words {
			l.Needs[w] = what
		}
	}
	l.CatchAll, l.VagueFiles = set(raw.CatchAll), set(raw.Vague.Files)
	l.VagueFunctions, l.VagueTypes, l.VagueSuffixes = set(raw.Vague.Functions), set(raw.Vague.Types), set(raw.Vague.Suffixes)
	return l
})

// In is the lexicon that Jantel ships as it is read in one codebase, whose package paths
// it knows, and what it takes in.
func In(s *model.Survey) *Lexicon {
	return s.Derived("lexicon", func() any { return Words().in(s) }).(*Lexicon)
}

func (lex *Lexicon) in(s *model.Survey) *Lexicon {
	out := *lex.needed(s).passed(s)
	out.beside, out.installed = besidePackages(s), commands(s)
	return &out
}

// commands are the files that project files install as commands, with the project file.
func commands(s *model.Survey) map[string]string {
	out := map[string]string{}
	for _, f := range s.Files {
		if f.Facts == nil || f.Facts.Project == nil {
			continue
		}
		for _, bin := range f.Facts.Project.Bin {
			if at, ok := syntax.Join(model.FolderOf(f.Path), bin); ok {
				out[at] = f.Path
			}
		}
	}
	return out
}

// besidePackages are the programs in folders of packages that do not hold them.
func besidePackages(s *model.Survey) map[string]bool {
	programs, packages := map[string][]string{}, map[string]bool{}
	for _, f := range s.Files {
		if f.Facts == nil || !syntax.ProfileOf(f.Language).FolderPackages {
			continue
		}
		switch d := model.FolderOf(f.Path); f.Facts.Namespace {
		case "main":
			programs[d] = append(programs[d], f.Path)
		case "", "main_test":
		default:
			packages[d] = true
		}
	}
	out := map[string]bool{}
	for d, files := range programs {
		for _, p := range files {
			out[p] = packages[d]
		}
	}
	return out
}

// needed leaves out the words that mean their role only where something is taken
// in that a codebase does not take in.
func (lex *Lexicon) needed(s *model.Survey) *Lexicon {
	missing := map[string]bool{}
	for _, what := range lex.Needs {
		missing[what] = true
	}
	answering := Answering(s)
	for _, f := range s.Files {
		for what := range missing {
			for _, name := range strings.Fields(what) {
				if name == requests && answering[f.Path] || path.Ext(f.Path) == "."+name || f.Facts != nil && takesIn(f.Facts, name) {
					delete(missing, what)
				}
			}
		}
	}
	out := *lex
	out.answered = !missing[requests]
	out.defined = map[string]bool{}
	for _, f := range s.Files {
		for i := 0; f.Facts != nil && i < len(f.Facts.Definitions); i++ {
			d := &f.Facts.Definitions[i]
			// A view of the data draws nothing, where hardly a program of the language draws at all.
			if types[d.Kind] && (manyMeanings[d.Name] || strings.HasSuffix(d.Name, "View") && syntax.ProfileOf(f.Language).FolderPackages) {
				out.defined[d.Name] = true
			}
		}
	}
	for _, words := range []*map[string]model.Role{&out.Names, &out.Folders} {
		*words = maps.Clone(*words)
		maps.DeleteFunc(*words, func(w string, _ model.Role) bool { return missing[lex.Needs[w]] })
	}
	return &out
}

var types = map[model.DefinitionKind]bool{model.DefClass: true, model.DefInterface: true, model.DefType: true}

// manyMeanings are bases that mean one thing in the libraries known for them, and any other
// where a codebase has its own.
var manyMeanings = syntax.Set("Component", "Resource", "Form", "Store", "Job", "Action", "Reader", "Writer", "Icon", "Control")

// requests stands among the names for what is asked from outside and answered.
const requests = "requests"

// Answering are the files of a survey that answer when something is asked from outside,
// tests and what others wrote among them.
func Answering(s *model.Survey) map[string]bool {
	return s.Derived("answering", func() any {
		answers := make([]bool, len(s.Files))
		parallel.Each(len(s.Files), func(i int) { answers[i] = Answers(s.Files[i].Facts) })
		out := map[string]bool{}
		for i, f := range s.Files {
			if answers[i] {
				out[f.Path] = true
			}
		}
		return out
	}).(map[string]bool)
}

// Answers reports whether a file declares what it answers when something is asked
// from outside, or answers it.
func Answers(f *model.Facts) bool {
	if f == nil {
		return false
	}
	handles, _ := f.Sign(model.SignHandles)
	listens, _ := f.Sign(model.SignListens)
	if handles > 0 || listens > 0 || len(f.Routes) > 0 {
		return true
	}
	return slices.ContainsFunc(f.Imports, ofWebViews) || slices.ContainsFunc(f.Definitions, answersAs)
}

// answersAs reports whether a type is marked, or built upon a base, as what answers
// requests is.
func answersAs(d model.Definition) bool {
	return slices.ContainsFunc(d.Marks, func(m string) bool { return markRoles[m] == model.RoleHandler }) ||
		slices.ContainsFunc(d.Bases, func(base string) bool {
			ends, _, _ := baseRole(base, simple(base))
			return answering[ends]
		})
}

// takesIn reports whether a file takes in something that is called so in part, or
// declares to need it.
func takesIn(f *model.Facts, what string) bool {
	for i := range f.Imports {
		if strings.Contains(f.Imports[i].Text, what) {
			return true
		}
	}
	if f.Project != nil {
		for name := range f.Project.Dependencies {
			if strings.Contains(name, what) {
				return true
			}
		}
	}
	return false
}

// passed knows the package paths of a codebase. Where the folders of a file spell
// its package, those from the source root down that hold a single folder and no file belong to the path alone.
func (lex *Lexicon) passed(s *model.Survey) *Lexicon {
	inside := map[string]map[string]bool{} // what a folder holds, files and folders
	var spelled []*model.File
	for _, f := range s.Files {
		if f.Facts == nil || packagePath(f) == "" {
			continue
		}
		spelled = append(spelled, f)
		for p, d := f.Path, model.FolderOf(f.Path); !inside[d][p]; p, d = d, model.FolderOf(d) {
			if inside[d] == nil {
				inside[d] = map[string]bool{}
			}
			if inside[d][p] = true; d == "." {
				break
			}
		}
	}
	if len(spelled) == 0 {
		return lex
	}
	out := *lex
	out.passing = map[string]bool{}
	for i, f := range spelled {
		if i > 0 && f.Facts.Namespace == spelled[i-1].Facts.Namespace && model.FolderOf(f.Path) == model.FolderOf(spelled[i-1].Path) {
			continue // the same folders again
		}
		parts := strings.Split(packagePath(f), "/")
		d := model.FolderOf(f.Path)
		for len(parts) > 1 { // up to the folder of the package's first part
			d, parts = model.FolderOf(d), parts[1:]
		}
		// Down again, as long as there is but one way.
		for rest := strings.Split(packagePath(f), "/"); len(inside[d]) == 1; {
			out.passing[d] = true
			if rest = rest[1:]; len(rest) == 0 {
				break
			}
			d = path.Join(d, rest[0])
			if d == model.FolderOf(f.Path) {
				break
			}
		}
	}
	return &out
}

// packagePath is the package of a file as a path, where its folders spell it.
func packagePath(f *model.File) string {
	p := strings.ReplaceAll(f.Facts.Namespace, ".", "/")
	if d := model.FolderOf(f.Path); p != "" && strings.Contains(p, "/") && (d == p || strings.HasSuffix(d, "/"+p)) {
		return p
	}
	return ""
}

// With is the lexicon with what the lead says words stand for in one codebase:
// a role, or none of them. The lexicon itself stays as it is.
func (lex *Lexicon) With(by []model.Overrule) *Lexicon {
	said := map[string]model.Role{}
	for _, o := range by {
		if o.Kind == model.OverruleWord {
			said[strings.ToLower(strings.TrimSpace(o.Target))] = model.Role(o.Value)
		}
	}
	if len(said) == 0 {
		return lex
	}
	out := *lex
	for _, m := range []*map[string]model.Role{&out.Names, &out.Folders, &out.Files} {
		*m = maps.Clone(*m)
		for w, r := range said {
			if r == "" {
				delete(*m, w)
			} else {
				(*m)[w] = r
			}
		}
	}
	return &out
}

func fill(m map[string]model.Role, words []string, role model.Role) {
	for _, w := range words {
		if w = strings.Join(naming.Words(w), " "); m[w] == "" { // as names are split: x86 is two words
			m[w] = role
		}
	}
}

func set(words []string) map[string]bool {
	m := make(map[string]bool, len(words))
	for _, w := range words {
		m[strings.ToLower(w)] = true
	}
	return m
}
