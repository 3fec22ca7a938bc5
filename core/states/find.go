package states

import (
	"cmp"
	"regexp"
	"slices"
	"strings"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/reading"
	"jantel/core/syntax"
)

// All are the holders of a codebase that were looked at, and how many were not.
type All struct {
	Holders []Holder
	Left    int
}

// Bounds of what is looked at, since texts are read for it.
const (
	mostHolders = 120
	mostUsing   = 40
)

// speaks are names that things which move from state to state are called by.
var speaks = regexp.MustCompile(`(?i)stat(?:e|us)|phase|stage|mode|step|lifecycle|progress`)

// finder finds the holders of a codebase.
type finder struct {
	r     *reading.Reading
	g     *calls.Graph
	lines func(path string) []string
	users map[string][]string // files that are linked to one, by its path
	pages map[string]*page
}

// Of follows the states of a codebase: those first whose names say so, then those
// that most others use. lines gives the lines of a file, nil where its text can not
// be had.
func Of(r *reading.Reading, lines func(path string) []string) *All {
	f := &finder{r: r, g: calls.Of(r.Survey), lines: lines, users: map[string][]string{}, pages: map[string]*page{}}
	for i := range r.Links {
		l := &r.Links[i]
		if len(f.users[l.To]) < mostUsing && !slices.Contains(f.users[l.To], l.From) {
			f.users[l.To] = append(f.users[l.To], l.From)
		}
	}
	all := f.candidates()
	says := func(h *Holder) int {
		if speaks.MatchString(h.Name) {
			return 0
		}
		return 1
	}
	slices.SortStableFunc(all, func(a, b Holder) int {
		return cmp.Or(cmp.Compare(says(&a), says(&b)), cmp.Compare(len(f.users[b.Path]), len(f.users[a.Path])))
	})
	out := &All{}
	for _, h := range all {
		if len(out.Holders) >= mostHolders {
			out.Left++
			continue
		}
		if h.Members = f.members(&h); h.Members != nil {
			Follow(&h, f.using(&h))
			out.Holders = append(out.Holders, h)
		}
	}
	return out
}

// candidates are the definitions that may list states: enumerations, and types of
// few lines.
func (f *finder) candidates() (all []Holder) {
	for file := range f.r.Own(".") {
		if f.r.IsTest(file.Path) {
			continue
		}
		for i := range file.Facts.Definitions {
			d := &file.Facts.Definitions[i]
			enum := d.Kind == model.DefEnum || slices.ContainsFunc(d.Bases, lists)
			long := d.EndLine - d.Line
			if enum || d.Kind == model.DefType && (long <= 1 || long <= most && speaks.MatchString(d.Name)) {
				all = append(all, Holder{Name: d.Name, Path: file.Path, Line: d.Line})
			}
			if (d.Kind == model.DefConstant || d.Kind == model.DefVariable) && long >= fewest && long <= most && speaks.MatchString(d.Name) {
				all = append(all, Holder{Name: d.Name, Path: file.Path, Line: d.Line, untyped: true})
			}
		}
		all = append(all, prefixed(file)...)
	}
	return all
}

// lists reports whether a class that builds upon this one lists its members.
func lists(base string) bool {
	return strings.HasSuffix(base, "Enum") || strings.HasSuffix(base, "Choices")
}

// prefixed are constants of a class that begin with the same word, such as
// STATUS_NEW and STATUS_PAID: what they say is held by a field of that word.
func prefixed(file *model.File) (all []Holder) {
	at, listed := map[string]int{}, map[string]bool{}
	for i := range file.Facts.Definitions {
		d := &file.Facts.Definitions[i]
		if d.Kind == model.DefEnum { // its members are told as its own
			listed[d.Qualified()] = true
		}
		word, rest, more := strings.Cut(d.Name, "_")
		if !more || rest == "" || d.Parent == "" || listed[d.Parent] || d.Kind == model.DefMethod {
			continue
		}
		if word != strings.ToUpper(word) || !speaks.MatchString(word) {
			continue
		}
		key := d.Parent + "." + word
		if at[key] == 0 {
			all = append(all, Holder{Name: word, Path: file.Path, Line: d.Line, untyped: true})
			at[key] = len(all)
		}
		h := &all[at[key]-1]
		h.Members = append(h.Members, d.Name)
	}
	return slices.DeleteFunc(all, func(h Holder) bool { return len(h.Members) < fewest || len(h.Members) > most })
}

// members reads the states of a candidate; nil where it lists none.
func (f *finder) members(h *Holder) []string {
	if h.Members != nil {
		return h.Members
	}
	lines := f.lines(h.Path)
	for _, d := range f.r.File(h.Path).Facts.Definitions {
		if d.Line != h.Line || d.Name != h.Name || d.EndLine > len(lines) {
			continue
		}
		from := d.Line
		for from < d.EndLine && marked.MatchString(lines[from-1]) {
			from++
		}
		return MembersOf(lines[from-1:d.EndLine], lines[d.EndLine:])
	}
	return nil
}

// marked is a line of marks above a definition.
var marked = regexp.MustCompile(`^\s*[@#]`)

// using are the texts that may use the states: the file itself, and those linked to
// it that name the holder or one of its states.
func (f *finder) using(h *Holder) (all []Text) {
	words := append([]string{h.Name}, h.Members...)
	for _, p := range slices.Concat([]string{h.Path}, f.users[h.Path], f.beside(h.Path)) {
		if f.r.IsTest(p) {
			continue
		}
		read := f.page(p)
		if !read.names(words) {
			continue
		}
		all = append(all, Text{Path: p, read: read, By: func(line int) string {
			at, ok := f.g.AtPath(p, line)
			if !ok {
				return ""
			}
			return f.g.Name(at)
		}})
	}
	return all
}

// page is a file made ready, once for all holders.
func (f *finder) page(p string) *page {
	if f.pages[p] == nil {
		f.pages[p] = newPage(f.lines(p))
	}
	return f.pages[p]
}

// beside are the other files of a package that is a folder: they know the names
// of each other without a link.
func (f *finder) beside(p string) (all []string) {
	if !syntax.ProfileOf(f.r.File(p).Language).FolderPackages {
		return nil
	}
	for file := range f.r.Own(model.FolderOf(p)) {
		if file.Path != p && model.FolderOf(file.Path) == model.FolderOf(p) && len(all) < mostUsing {
			all = append(all, file.Path)
		}
	}
	return all
}
