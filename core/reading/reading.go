// Package reading is one indexed view of a survey with what is told of its
// files: which are judged and what each is technically. It is made once for a
// judgement; every judge and every view that asks "which files lie here" or
// "what needs this" asks it.
package reading

import (
	"iter"
	"slices"
	"sort"

	"jantel/core/frameworks"
	"jantel/core/model"
	"jantel/core/syntax"
)

// Reading is a survey in the eyes of those who judge it. It is not changed once
// it is made, and may be asked by several at a time.
type Reading struct {
	*model.Survey
	// Judged holds the paths of the files that count.
	Judged map[string]bool
	Roles  map[string]model.RoleOf
	// Frameworks are what its projects are built on.
	Frameworks *frameworks.In

	folders map[string]*folder
	source  []*model.File // judged program text, tests left out
	edges   []Edge
}

// folder is what lies directly in one folder.
type folder struct {
	own, source []*model.File
}

// Edge is a link between two judged files, with their roles, that repeats none
// of another kind.
type Edge struct {
	*model.Link
	FromRole, ToRole model.Role
	Again            bool // the two are linked by one before it
}

// Of indexes a survey, whose files and links are sorted by path.
func Of(s *model.Survey, judged map[string]bool, roles map[string]model.RoleOf) *Reading {
	r := &Reading{Survey: s, Judged: judged, Roles: roles, Frameworks: frameworks.Of(s), folders: map[string]*folder{}}
	for _, f := range s.Files {
		if !judged[f.Path] {
			continue
		}
		at := model.FolderOf(f.Path)
		d := r.folders[at]
		if d == nil {
			d = &folder{}
			r.folders[at] = d
		}
		d.own = append(d.own, f)
		if r.IsSource(f) {
			d.source = append(d.source, f)
			r.source = append(r.source, f)
		}
	}
	seen := make(map[[2]string]bool, len(s.Links)/2)
	for i := range s.Links {
		l := &s.Links[i]
		if l.Kind.Repeats() || !judged[l.From] || !judged[l.To] {
			continue
		}
		k := [2]string{l.From, l.To}
		r.edges = append(r.edges, Edge{l, roles[l.From].Role, roles[l.To].Role, seen[k]})
		seen[k] = true
	}
	return r
}

// IsCode reports whether a file is program text rather than data or prose.
func IsCode(f *model.File) bool { return syntax.ProfileOf(f.Language).Code }

// Weighs reports whether the lines of a file are among those that a score is of:
// program text, and the templates, markup, styles and statements to a store beside
// it. Prose, settings and what no reader is for are no code, however long they are.
func Weighs(f *model.File) bool {
	p := syntax.ProfileOf(f.Language)
	return p.Code || p.Template || p.Counted
}

// IsTable reports whether a function does nothing but give a list of values: it
// branches nowhere to speak of, and calls nothing.
func IsTable(f *model.File, definition int) bool {
	if slices.ContainsFunc(f.Facts.Insides, func(in model.Inside) bool { return in.Definition == definition && in.Branches > 0 }) {
		return false
	}
	body, err := model.UnpackBody(f.Facts.Body)
	return err == nil &&
		!slices.ContainsFunc(body.Calls, func(c model.BodyCall) bool { return int(c.In) == definition && c.Kind != model.CallRead })
}

// Listens is the line on which a file starts to answer on a port when it is run or asked
// to, 0 where it does not: what a method of a type does is up to who has one.
func Listens(f *model.Facts) int {
	_, line := f.Sign(model.SignListens)
	if line == 0 || slices.ContainsFunc(f.Definitions, func(d model.Definition) bool {
		return d.Kind == model.DefMethod && d.Line <= line && line <= d.EndLine
	}) {
		return 0
	}
	return line
}

// Namespaces are those that a file declares, by their full names: what stands in one stands
// at its top.
func Namespaces(f *model.Facts) map[string]bool {
	out := map[string]bool{}
	for i := range f.Definitions {
		if d := &f.Definitions[i]; d.Kind == model.DefNamespace {
			out[d.Qualified()] = true
		}
	}
	return out
}

// Role is what a file is technically, "" where nothing tells.
func (r *Reading) Role(path string) model.Role { return r.Roles[path].Role }

// IsTest reports whether a file is one of the tests.
func (r *Reading) IsTest(path string) bool { return r.Roles[path].Role == model.RoleTest }

// HandsOn reports whether what is found in a file goes on by other ways than
// being given back: it answers requests, or a framework calls it.
func (r *Reading) HandsOn(path string) bool {
	switch r.Roles[path].Role {
	case model.RoleHandler, model.RoleRouting, model.RoleEntry, model.RoleMessage:
		return true
	}
	return false
}

// IsSource reports whether a file is judged program text and no test.
func (r *Reading) IsSource(f *model.File) bool {
	return r.Judged[f.Path] && IsCode(f) && !r.IsTest(f.Path)
}

// At lists all files at a place: the file itself, or those below a folder.
func (r *Reading) At(place string) []*model.File { return At(r.Files, place) }

// At are those of some files, sorted by path, that stand at a place.
func At(files []*model.File, place string) []*model.File {
	if place == "." {
		return files
	}
	// What lies below a folder stands together in the order of paths, and so
	// does a file alone.
	from := sort.Search(len(files), func(i int) bool { return files[i].Path >= place })
	if from < len(files) && files[from].Path == place {
		return files[from : from+1]
	}
	from = sort.Search(len(files), func(i int) bool { return files[i].Path >= place+"/" })
	to := sort.Search(len(files), func(i int) bool { return files[i].Path >= place+"0" }) // "0" follows "/"
	return files[from:to]
}

// Own goes over the judged files at a place.
func (r *Reading) Own(place string) iter.Seq[*model.File] {
	return r.where(place, func(f *model.File) bool { return r.Judged[f.Path] })
}

// Code goes over the judged program text at a place, tests among it.
func (r *Reading) Code(place string) iter.Seq[*model.File] {
	return r.where(place, func(f *model.File) bool { return r.Judged[f.Path] && IsCode(f) })
}

// Source goes over the judged program text at a place, tests left out.
func (r *Reading) Source(place string) iter.Seq[*model.File] {
	return slices.Values(At(r.source, place))
}

func (r *Reading) where(place string, is func(*model.File) bool) iter.Seq[*model.File] {
	return func(yield func(*model.File) bool) {
		for _, f := range r.At(place) {
			if is(f) && !yield(f) {
				return
			}
		}
	}
}

// OwnIn lists the judged files that lie directly in a folder.
func (r *Reading) OwnIn(d string) []*model.File {
	if in := r.folders[d]; in != nil {
		return in.own
	}
	return nil
}

// SourceIn lists the judged program text directly in a folder, tests left out.
func (r *Reading) SourceIn(d string) []*model.File {
	if in := r.folders[d]; in != nil {
		return in.source
	}
	return nil
}

// Edges lists the links between judged files, in the order of the survey.
func (r *Reading) Edges() []Edge { return r.edges }
