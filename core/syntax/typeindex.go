package syntax

import (
	"path"
	"sort"
	"strings"

	"jantel/core/model"
)

// TypeIndex finds types by their full name, for languages in which a name is
// looked up in packages or namespaces and not in files.
type TypeIndex struct {
	byName  map[string][]string // full name to the files that define it
	members map[string]map[string]bool
}

// NewTypeIndex indexes the types of all files of the given languages. With
// members, functions and values at the top count as well. sep stands between a
// namespace and a name.
func NewTypeIndex(t *Tree, sep string, members bool, languages ...string) *TypeIndex {
	x := &TypeIndex{byName: map[string][]string{}, members: map[string]map[string]bool{}}
	for _, f := range t.Files {
		if f.Facts == nil || !contains(languages, f.Language) {
			continue
		}
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			switch d.Kind {
			case model.DefClass, model.DefInterface, model.DefEnum, model.DefType:
			case model.DefFunction, model.DefConstant, model.DefVariable, model.DefProperty:
				if !members || d.Parent != "" && d.Parent != f.Facts.Namespace {
					continue
				}
			default:
				continue
			}
			x.add(join(f.Facts.Namespace, strings.ReplaceAll(d.Qualified(), ".", sep), sep), f.Path, sep)
		}
	}
	return x
}

func contains(l []string, s string) bool {
	for _, x := range l {
		if x == s {
			return true
		}
	}
	return false
}

func join(a, b, sep string) string {
	if a == "" || a == b || strings.HasPrefix(b, a+sep) {
		return b
	}
	return a + sep + b
}

func (x *TypeIndex) add(full, file, sep string) {
	l := x.byName[full]
	if len(l) == 0 || l[len(l)-1] != file {
		x.byName[full] = append(l, file)
	}
	ns, name := "", full
	if i := strings.LastIndex(full, sep); i >= 0 {
		ns, name = full[:i], full[i+len(sep):]
	}
	m := x.members[ns]
	if m == nil {
		m = map[string]bool{}
		x.members[ns] = m
	}
	m[name] = true
}

// Files returns the files that define the full name, for a file that asks:
// where several folders define it, those nearest to the one that asks.
func (x *TypeIndex) Files(full, from string) []string {
	l := x.byName[full]
	if len(l) < 2 {
		return l
	}
	best, out := -1, []string(nil)
	for _, p := range l {
		n := shared(path.Dir(p), path.Dir(from))
		if n > best {
			best, out = n, nil
		}
		if n == best {
			out = append(out, p)
		}
	}
	return out
}

// HasNamespace reports whether anything lies in the namespace itself.
func (x *TypeIndex) HasNamespace(ns string) bool { return len(x.members[ns]) > 0 }

// In reports whether the namespace holds the name.
func (x *TypeIndex) In(ns, name string) bool { return x.members[ns][name] }

// Names lists what lies in a namespace.
func (x *TypeIndex) Names(ns string) []string { return SortedSet(x.members[ns]) }

// shared is the number of folders two paths have in common.
func shared(a, b string) int {
	n := 0
	for x, y := strings.Split(a, "/"), strings.Split(b, "/"); n < len(x) && n < len(y) && x[n] == y[n]; n++ {
	}
	return n
}

// MentionLine is the line a file first mentions a name on, 0 when it does not.
func MentionLine(f *model.Facts, name string) int {
	i := sort.Search(len(f.Mentions), func(i int) bool { return f.Mentions[i].Name >= name })
	if i < len(f.Mentions) && f.Mentions[i].Name == name {
		return f.Mentions[i].Line
	}
	return 0
}
