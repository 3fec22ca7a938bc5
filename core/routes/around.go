package routes

import (
	"cmp"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// around is what runs around what answers a route without being named there, in
// running order: for the whole program, on the routers it hangs below from the
// outermost on, in the class of what answers and what that builds upon.
func (j *joiner) around(f *model.File, r *model.RouteFact, h hung, handler string, line int) []model.RouteInsert {
	if j.inserts == nil {
		j.gatherInserts()
	}
	var all []model.RouteInsert
	whole := syntax.JoinRoute(h.path, r.Pattern)
	for _, x := range j.inserts.whole {
		if model.Within(x.below, f.Path) && startsWith(whole, x.fact.Path) {
			all = append(all, j.insert(x.file, x.fact))
		}
	}
	for k := 0; k <= len(h.at); k++ {
		at, rest := place{file: f.Path, on: r.On, line: r.Line}, r.Pattern
		if k < len(h.at) {
			at = h.at[k]
			rest = strings.TrimPrefix(whole, h.upTo(k))
		}
		all = append(all, j.onRouter(at, rest)...)
	}
	all = append(all, j.ofClass(handler, line, 0)...)
	rank := map[string]int{model.InsertBefore: 0, model.InsertAround: 0, model.InsertAfter: 1, model.InsertError: 2}
	slices.SortStableFunc(all, func(a, b model.RouteInsert) int { return cmp.Compare(rank[a.When], rank[b.When]) })
	return all[:min(len(all), maxAround)]
}

// upTo is the path that the first k routers take up.
func (h hung) upTo(k int) string {
	full := ""
	for _, p := range h.at[:k] {
		full = strings.TrimSuffix(syntax.JoinRoute(full, p.path), "/")
	}
	return full
}

// startsWith reports whether a pattern lies below a path, by whole parts; what
// stands for any value in it fits every part.
func startsWith(pattern, below string) bool {
	ps, bs := parts(pattern), parts(below)
	if len(bs) > len(ps) {
		return false
	}
	for i, b := range bs {
		if ps[i] != b && !(isVariable(ps[i]) && isVariable(b)) {
			return false
		}
	}
	return true
}

// wholeInsert is what runs for all that lies below a folder.
type wholeInsert struct {
	file  *model.File
	fact  *model.InsertFact
	below string
}

// inserts are what runs around routes, as it is found.
type inserts struct {
	whole   []wholeInsert                  // in running order
	routers map[string][]*model.InsertFact // by file: what is put on routers, what hangs below them left out
}

// maxAround bounds how much is told around one route.
const maxAround = 100

func (j *joiner) gatherInserts() {
	j.inserts = &inserts{routers: map[string][]*model.InsertFact{}}
	for _, f := range j.s.Files {
		if f.Facts == nil || len(f.Facts.Inserts) == 0 {
			continue
		}
		for i := range f.Facts.Inserts {
			switch x := &f.Facts.Inserts[i]; {
			case x.Whole:
				j.inserts.whole = append(j.inserts.whole, wholeInsert{f, x, programOf(f)})
			case x.On != "" && !j.isMounted(f, x):
				j.inserts.routers[f.Path] = append(j.inserts.routers[f.Path], x)
			}
		}
	}
	slices.SortStableFunc(j.inserts.whole, func(a, b wholeInsert) int { return cmp.Compare(a.fact.Phase, b.fact.Phase) })
}

// programOf is the folder that what a file puts around the whole program holds
// for: all that its source folder lies in; of a package of settings, the folder
// around it.
func programOf(f *model.File) string {
	if i := strings.LastIndex("/"+f.Path, "/src/"); i >= 0 {
		return cmp.Or(strings.TrimSuffix(f.Path[:i], "/"), ".")
	}
	folder := model.FolderOf(f.Path)
	if strings.HasPrefix(path.Base(f.Path), "settings") {
		return model.FolderOf(folder)
	}
	return folder
}

// onRouter is what is put on one router, for what is declared at a place on it.
func (j *joiner) onRouter(at place, rest string) (out []model.RouteInsert) {
	f := j.s.File(at.file)
	var reversed []model.RouteInsert // what is put on last runs first
	for _, x := range j.inserts.routers[at.file] {
		switch {
		case x.On != at.on || !reaches(x, at, rest):
		case x.Phase < 0:
			reversed = append([]model.RouteInsert{j.insert(f, x)}, reversed...)
		default:
			out = append(out, j.insert(f, x))
		}
	}
	return append(reversed, out...)
}

// reaches reports whether what is put on a router runs for what is declared at a
// place on it, with the rest of its pattern.
func reaches(x *model.InsertFact, at place, rest string) bool {
	switch {
	case x.Until > 0 && (at.line < x.Line || at.line > x.Until), x.Ordered && x.Line > at.line:
		return false
	case strings.HasPrefix(x.Path, "\x00"): // for what is mounted there alone
		return x.Line == at.line && len(x.Path) > 1
	}
	return startsWith(rest, x.Path)
}

// isMounted reports whether what is put on a router is itself a router.
func (j *joiner) isMounted(f *model.File, x *model.InsertFact) bool {
	for i := range f.Facts.Mounts {
		m := &f.Facts.Mounts[i]
		if m.Line != x.Line || m.Target != x.Name {
			continue
		}
		if slices.ContainsFunc(f.Facts.Routes, func(r model.RouteFact) bool { return r.On == x.Name }) ||
			slices.ContainsFunc(f.Facts.Mounts, func(n model.MountFact) bool { return n.On == x.Name }) {
			return true
		}
		head, rest, _ := strings.Cut(x.Name, ".")
		for _, to := range j.imported(f, head, rest) {
			if g := j.s.File(to); g != nil && g.Facts != nil && len(g.Facts.Routes)+len(g.Facts.Mounts) > 0 {
				return true
			}
		}
	}
	return false
}

// maxBases bounds how far up the classes are gone that one builds upon.
const maxBases = 6

// ofClass is what the class of a handler puts around its actions, behind what the
// classes do that it builds upon.
func (j *joiner) ofClass(file string, line, deep int) []model.RouteInsert {
	f := j.s.File(file)
	if f == nil || f.Facts == nil || deep > maxBases {
		return nil
	}
	var class, action *model.Definition
	for i := range f.Facts.Definitions {
		d := &f.Facts.Definitions[i]
		if d.Line > line || d.EndLine < line {
			continue
		}
		if d.Kind == model.DefClass {
			class = d
		} else if d.Kind == model.DefMethod || d.Kind == model.DefFunction {
			action = d
		}
	}
	if class == nil {
		return nil
	}
	name := ""
	if action != nil {
		name = action.Name
	}
	return j.classInserts(f, class, name, deep)
}

func (j *joiner) classInserts(f *model.File, class *model.Definition, action string, deep int) (out []model.RouteInsert) {
	for _, b := range class.Bases {
		if up, d := j.base(f, b); d != nil && d != class && deep < maxBases {
			out = append(out, j.classInserts(up, d, action, deep+1)...)
		}
	}
	for i := range f.Facts.Inserts {
		x := &f.Facts.Inserts[i]
		switch {
		case x.Whole || x.On != "" || x.Line < class.Line || x.Line > class.EndLine || !isFor(x, action):
		case x.Lifts:
			out = slices.DeleteFunc(out, func(y model.RouteInsert) bool { return y.Name == x.Name })
		default:
			out = append(out, j.insert(f, x))
		}
	}
	return out
}

// isFor reports whether what a class puts around its actions runs for one.
func isFor(x *model.InsertFact, action string) bool {
	return action == "" || (len(x.Only) == 0 || slices.Contains(x.Only, action)) && !slices.Contains(x.Except, action)
}

// base finds a class that another of a file builds upon.
func (j *joiner) base(f *model.File, name string) (*model.File, *model.Definition) {
	short := name[strings.LastIndexAny(name, `.:\`)+1:]
	found := j.class(strings.ReplaceAll(strings.TrimPrefix(name, `\`), `\`, "::"))
	if len(found) == 0 {
		found = j.class(short)
	}
	for _, p := range found {
		if len(found) > 1 && !j.linked(f.Path, p) {
			continue
		}
		g := j.s.File(p)
		for i := range g.Facts.Definitions {
			if d := &g.Facts.Definitions[i]; d.Kind == model.DefClass && d.Name == short {
				return g, d
			}
		}
	}
	return nil, nil
}

// insert is what a fact says, with the place of what runs.
func (j *joiner) insert(f *model.File, x *model.InsertFact) model.RouteInsert {
	out := model.RouteInsert{Name: x.Name, When: x.When, Path: f.Path, Line: x.Line}
	if x.Name == "" {
		return out
	}
	if out.ToPath, out.ToLine = j.handler(f, x.Name); out.ToPath == "" {
		if found := j.class(x.Name); len(found) == 1 {
			out.ToPath, out.ToLine = found[0], defined(j.s.File(found[0]), "", x.Name)
		}
	}
	return out
}
