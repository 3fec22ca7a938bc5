package states

import (
	"cmp"
	"regexp"
	"slices"
	"strings"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/reading"
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
}

// Of follows the states of a codebase: those first whose names say so, then those
// that most others use. lines gives the lines of a file, nil where its text can not
// be had.
func Of(r *reading.Reading, lines func(path string) []string) *All {
	f := &finder{r: r, g: calls.Of(r.Survey), lines: lines, users: map[string][]string{}}
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
			enum := d.Kind == model.DefEnum || slices.ContainsFunc(d.Bases, func(b string) bool { return strings.HasSuffix(b, "Enum") })
			long := d.EndLine - d.Line
			if enum || d.Kind == model.DefType && (long <= 1 || long <= most && speaks.MatchString(d.Name)) {
				all = append(all, Holder{Name: d.Name, Path: file.Path, Line: d.Line})
			}
		}
	}
	return all
}

// members reads the states of a candidate; nil where it lists none.
func (f *finder) members(h *Holder) []string {
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
	for _, p := range append([]string{h.Path}, f.users[h.Path]...) {
		lines := f.lines(p)
		if f.r.IsTest(p) || !slices.ContainsFunc(lines, func(l string) bool { return anyOf(l, words) }) {
			continue
		}
		all = append(all, Text{Path: p, Lines: lines, By: func(line int) string {
			at, ok := f.g.AtPath(p, line)
			if !ok {
				return ""
			}
			return f.g.Name(at)
		}})
	}
	return all
}

func anyOf(line string, words []string) bool {
	return slices.ContainsFunc(words, func(w string) bool { return strings.Contains(line, w) })
}
