// Package frameworks knows what frameworks and platforms prescribe, load by
// themselves and start, as a table of data. Judges ask it instead of knowing any of
// them by name.
package frameworks

import (
	"maps"
	"path"
	"regexp"
	"slices"
	"strings"

	"jantel/core/model"
)

// Framework is a row of the table.
type Framework struct {
	Name string
	// Needs are what a project depends on that is built on it: the tool of its project
	// file and the package, "npm next"; a package may be the beginning of one.
	Needs []string
	// Marks are files that show it where they stand, alone or joined by " & ".
	Marks []string
	// Starts are files that it starts pages or programs with.
	Starts []string
	// Loads are files that it finds by their place or name: that no line of code needs
	// them says nothing. With LoadsWith only where that is depended on as well.
	Loads     []string
	LoadsWith []string
	// Folders are what the folders that it prescribes mean.
	Folders map[string]string
	// Outer are packages of it that only the outer layers of a system have business with;
	// where a package has plain things as well, the names that are none stand behind it.
	Outer []string
	// Layouts are files and folders that its generator lays out together.
	Layouts [][]string
}

// In tells which frameworks the projects of a survey are built on. It may be asked by
// several at a time; nil knows of none.
type In struct {
	at map[string][]*Framework // by the folder of the project
}

// compiled are the globs of a row as expressions.
type compiled struct {
	starts, loads *regexp.Regexp
	folders       []meaning
}

type meaning struct {
	of   *regexp.Regexp
	text string
}

var rows = map[*Framework]*compiled{}

func init() {
	for i := range Table {
		f := &Table[i]
		c := &compiled{starts: anyOf(f.Starts), loads: anyOf(f.Loads)}
		for _, glob := range slices.Sorted(maps.Keys(f.Folders)) {
			c.folders = append(c.folders, meaning{anyOf([]string{glob}), f.Folders[glob]})
		}
		rows[f] = c
	}
}

// anyOf is an expression for any of some globs; nil for none.
func anyOf(globs []string) *regexp.Regexp {
	if len(globs) == 0 {
		return nil
	}
	var all []string
	for _, g := range globs {
		all = append(all, expression(g))
	}
	return regexp.MustCompile("^(?:" + strings.Join(all, "|") + ")$")
}

// expression is a glob as an expression.
func expression(glob string) string {
	var b strings.Builder
	for i := 0; i < len(glob); i++ {
		switch c := glob[i]; c {
		case '*':
			switch {
			case strings.HasPrefix(glob[i:], "**/"):
				b.WriteString(`(?:[^/]+/)*`)
				i += 2
			case strings.HasPrefix(glob[i:], "**"):
				b.WriteString(`.*`)
				i++
			default:
				b.WriteString(`[^/]*`)
			}
		case '{':
			b.WriteString(`(?:`)
		case '}':
			b.WriteByte(')')
		case ',':
			b.WriteByte('|')
		default:
			b.WriteString(regexp.QuoteMeta(string(c)))
		}
	}
	return b.String()
}

// Of looks at what the projects of a survey depend on, and at the marks that stand
// in them.
func Of(s *model.Survey) *In {
	in := &In{at: map[string][]*Framework{}}
	needs := map[string][]string{} // by folder: tool and package
	there := map[string]bool{}
	for _, f := range s.Files {
		there[f.Path] = true
		if f.Facts == nil || f.Facts.Project == nil || f.Skipped != "" {
			continue
		}
		p, d := f.Facts.Project, model.FolderOf(f.Path)
		for name := range p.Dependencies {
			needs[d] = append(needs[d], p.Tool+" "+strings.ToLower(name))
		}
	}
	for d, all := range needs {
		for i := range Table {
			if Table[i].needed(all) {
				in.add(d, &Table[i])
			}
		}
	}
	in.marked(there)
	for d := range in.at { // in the order of the table
		slices.SortFunc(in.at[d], func(a, b *Framework) int { return index(a) - index(b) })
	}
	return in
}

func index(f *Framework) int {
	return slices.IndexFunc(Table, func(x Framework) bool { return x.Name == f.Name })
}

func (in *In) add(d string, f *Framework) {
	if !slices.Contains(in.at[d], f) {
		in.at[d] = append(in.at[d], f)
	}
}

// needed reports whether what a project depends on says that it is built on it.
func (f *Framework) needed(all []string) bool {
	return hasAny(all, f.Needs) && (len(f.LoadsWith) == 0 || hasAny(all, f.LoadsWith) || f.Outer != nil)
}

func hasAny(all, wanted []string) bool {
	return slices.ContainsFunc(wanted, func(w string) bool {
		w = strings.ToLower(w)
		return slices.ContainsFunc(all, func(has string) bool {
			rest, ok := strings.CutPrefix(has, w)
			return ok && (rest == "" || strings.ContainsAny(rest[:1], ".:/-@"))
		})
	})
}

// marked finds the frameworks whose marks stand somewhere.
func (in *In) marked(there map[string]bool) {
	type mark struct {
		f    *Framework
		rest []string // that must stand there too
		full string
	}
	by := map[string][]mark{} // by the name of the first file
	for i := range Table {
		for _, m := range Table[i].Marks {
			all := strings.Split(m, " & ")
			by[path.Base(all[0])] = append(by[path.Base(all[0])], mark{&Table[i], all[1:], all[0]})
		}
	}
	for p := range there {
		for _, m := range by[path.Base(p)] {
			d, ok := strings.CutSuffix("/"+p, "/"+m.full)
			if !ok {
				continue
			}
			if d = strings.TrimPrefix(d, "/"); d == "" {
				d = "."
			}
			if !slices.ContainsFunc(m.rest, func(r string) bool { return !there[path.Join(d, r)] }) {
				in.add(d, m.f)
			}
		}
	}
}

// up goes through the projects that a path lies in, from the innermost on, with the
// path as each of them has it.
func (in *In) up(p string, yield func(f *Framework, rel string) bool) {
	if in == nil || len(in.at) == 0 {
		return
	}
	for d := model.FolderOf(p); ; d = model.FolderOf(d) {
		rel := p
		if d != "." {
			rel = strings.TrimPrefix(p, d+"/")
		}
		for _, f := range in.at[d] {
			if !yield(f, rel) {
				return
			}
		}
		if d == "." {
			return
		}
	}
}

// Loads is the framework that finds a file by its place or name; nil where none
// does.
func (in *In) Loads(p string) (by *Framework) {
	in.up(p, func(f *Framework, rel string) bool {
		if c := rows[f]; c.loads != nil && c.loads.MatchString(rel) {
			by = f
		}
		return by == nil
	})
	return by
}

// Starts is the framework that starts a page or a program with a file; nil where
// none does.
func (in *In) Starts(p string) (by *Framework) {
	in.up(p, func(f *Framework, rel string) bool {
		if c := rows[f]; c.starts != nil && c.starts.MatchString(rel) {
			by = f
		}
		return by == nil
	})
	return by
}

// Means is what a folder means to the framework that prescribes it.
func (in *In) Means(folder string) (text string, by *Framework) {
	in.up(folder, func(f *Framework, rel string) bool {
		for _, m := range rows[f].folders {
			if m.of.MatchString(rel) {
				text, by = m.text, f
			}
		}
		return by == nil
	})
	return text, by
}

// Names are the frameworks of a project's own folder and of those around it.
func (in *In) Names(folder string) (names []string) {
	in.up(folder+"/x", func(f *Framework, _ string) bool {
		if !slices.Contains(names, f.Name) {
			names = append(names, f.Name)
		}
		return true
	})
	return names
}

// OuterPackage is one that only the outer layers of a system have business with.
type OuterPackage struct {
	Name string
	By   []string // the names of it that show it; nil where all do
}

// Outer are the packages that only the outer layers of a system have business with.
func Outer() (all []OuterPackage) {
	for i := range Table {
		for _, o := range Table[i].Outer {
			name, by, _ := strings.Cut(o, ": ")
			all = append(all, OuterPackage{name, strings.Fields(by)})
		}
	}
	return all
}

// Layouts are what generators lay out: files and folders that stand together.
func Layouts() (all [][]string) {
	for i := range Table {
		all = append(all, Table[i].Layouts...)
	}
	return all
}
