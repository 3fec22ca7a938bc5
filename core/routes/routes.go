// Package routes joins what single files declare into the routes of the whole
// system: under the prefixes they are mounted below, with the place of what
// answers.
package routes

import (
	"cmp"
	"iter"
	"path"
	"regexp"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// maxPrefixes bounds under how many paths one router is followed.
const maxPrefixes = 8

type joiner struct {
	s       *model.Survey
	mounted map[string][]place       // file or file and router to where it is mounted
	own     map[string]string        // file and router to the path that it is made with
	folder  map[string][]*model.File // that is a package
	classes map[string][]string      // name of a class to the files that define it
	inserts *inserts
}

// place is a router of a file with the path below which another is mounted, and
// the line where it is.
type place struct {
	file, on, path string
	line           int
	instead        bool // the path stands in the place of the router's own
}

// hung is how a router is reached: the path below which, and the places that it
// hangs at, the outermost first.
type hung struct {
	path string
	at   []place
}

// Of returns all routes of a survey, by pattern, method and place.
func Of(s *model.Survey) []model.Route {
	out := append([]model.Route{}, byFile(s)...)
	if len(out) == 0 && !slices.ContainsFunc(s.Files, func(f *model.File) bool { return f.Facts != nil && len(f.Facts.Routes) > 0 }) {
		return guarded(out)
	}
	j := &joiner{s: s, mounted: map[string][]place{}, own: map[string]string{}}
	for _, f := range s.Files {
		if f.Facts != nil {
			j.mounts(f)
		}
	}
	order := make([][]int, len(out))
	for _, f := range s.Files {
		if f.Facts == nil {
			continue
		}
		next := f.Facts.NextRoute()
		for _, r := range f.Facts.Routes {
			at, line := j.handler(f, r.Handler)
			if to, l := j.handler(f, r.Inner); j.runs(to, l) {
				r.Guards, r.Handler = append(slices.Clone(r.Guards), r.Handler), r.Inner
				at, line = to, l
			}
			for _, h := range j.prefixes(f.Path, r.On, map[string]bool{}) {
				out = append(out, model.Route{
					Method: r.Method, Pattern: syntax.JoinRoute(h.path, r.Pattern), Path: f.Path, Line: r.Line,
					HandlerPath: at, HandlerName: strings.TrimPrefix(r.Handler, "module:"), HandlerLine: line,
					InPlace: r.InPlace, Guards: append(slices.Clone(r.Guards), j.marks(at, line)...), Name: r.Name,
					Answers: j.answer(f, &r, next, at, line),
					Around:  j.around(f, &r, h, at, line), App: h.app(f.Path), Fallback: takesAll(r.Pattern),
				})
				last := &out[len(out)-1]
				last.Checks = j.checks(f, &r, next, last)
				order = append(order, h.order(f.Path, r.Line))
				for n, v := range j.verbs(last) { // a class answers each method by one of its own
					one := *last
					one.Method, one.HandlerLine, one.HandlerName = strings.ToUpper(v.name), v.line, last.HandlerName+"."+v.name
					if n == 0 {
						out[len(out)-1] = one
						continue
					}
					out, order = append(out, one), append(order, h.order(f.Path, r.Line))
				}
			}
		}
	}
	number(out, order)
	slices.SortFunc(out, func(a, b model.Route) int {
		return cmp.Or(
			cmp.Compare(a.Pattern, b.Pattern), cmp.Compare(a.Method, b.Method), cmp.Compare(a.Path, b.Path),
			cmp.Compare(a.Line, b.Line),
		)
	})
	return guarded(slices.CompactFunc(out, func(a, b model.Route) bool {
		return a.Pattern == b.Pattern && a.Method == b.Method && a.Path == b.Path && a.Line == b.Line
	}))
}

// runs reports whether a function is defined at a line.
func (j *joiner) runs(path string, line int) bool {
	f := j.s.File(path)
	return line > 0 && f != nil && f.Facts != nil && slices.ContainsFunc(f.Facts.Definitions, func(d model.Definition) bool {
		return d.Line == line && (d.Kind == model.DefFunction || d.Kind == model.DefMethod)
	})
}

// verb is a method of a class that answers the method of HTTP of its name.
type verb struct {
	name string
	line int
}

// verbs are those of the class that answers a route, whatever it is asked by; none
// where no class does.
func (j *joiner) verbs(r *model.Route) (all []verb) {
	f := j.s.File(r.HandlerPath)
	if r.Method != "ANY" || r.HandlerLine == 0 || f == nil || f.Facts == nil {
		return nil
	}
	class := ""
	for i := range f.Facts.Definitions {
		d := &f.Facts.Definitions[i]
		switch {
		case d.Kind == model.DefClass && d.Line == r.HandlerLine:
			class = d.Qualified()
		case class != "" && d.Kind == model.DefMethod && d.Parent == class && syntax.Methods[d.Name] == strings.ToUpper(d.Name):
			all = append(all, verb{d.Name, d.Line})
		}
	}
	return all
}

// guarded gives every route a list of guards, be it empty.
func guarded(all []model.Route) []model.Route {
	for i := range all {
		r := &all[i]
		if r.Guards == nil {
			r.Guards = []string{}
		}
		if r.Checks == nil {
			r.Checks = []string{}
		}
		if r.Around == nil {
			r.Around = []model.RouteInsert{}
		}
		// What asks for a right on the router asks for it at each of its routes.
		var above []string
		for _, x := range r.Around {
			if x.When != model.InsertAfter && x.When != model.InsertError && rights.MatchString(x.Name) &&
				!outside.MatchString(x.Name) && !slices.Contains(r.Guards, x.Name) {
				above = append(above, x.Name)
			}
		}
		if len(above) > 0 {
			r.Guards = append(above, r.Guards...)
		}
	}
	return all
}

// rights are words of marks that ask who may do something.
var rights = regexp.MustCompile(`(?i)auth|login|permission|permit|guard|role|secured|admin|staff|` +
	`user_passes|allow|polic|csrf|throttle|rate.?limit`)

// outside are words of what looks at any request, whoever sends it.
var outside = regexp.MustCompile(`(?i)helmet|secur|policy$|cors|rate|throttle|csrf`)

// marks are those of a handler, and of the class that it stands in, that speak of
// rights.
func (j *joiner) marks(p string, line int) (names []string) {
	f := j.s.File(p)
	if f == nil || f.Facts == nil || line == 0 {
		return nil
	}
	for _, d := range f.Facts.Definitions {
		if d.Line > line || d.EndLine < line || d.Line != line && d.Kind != model.DefClass {
			continue
		}
		for _, m := range d.Marks {
			if rights.MatchString(m) && m != "UseGuards" && !strings.HasSuffix(m, "route") && !slices.Contains(names, m) {
				names = append(names, m)
			}
		}
	}
	return names
}

// links goes through the links that start from a file, but those that only say
// more of another. Those of a file stand together, in the order of the files.
func (j *joiner) links(file string) iter.Seq[*model.Link] {
	return func(yield func(*model.Link) bool) {
		ls := j.s.Links
		i, _ := slices.BinarySearchFunc(ls, file, func(l model.Link, p string) int { return cmp.Compare(l.From, p) })
		for ; i < len(ls) && ls[i].From == file; i++ {
			if k := ls[i].Kind; (!k.Repeats() || k == model.LinkNameViaIndex) && !yield(&ls[i]) {
				return
			}
		}
	}
}

// beside lists the files of a folder that is a package.
func (j *joiner) beside(folder string) []*model.File {
	if j.folder == nil { // few codebases ask
		j.folder = map[string][]*model.File{}
		for _, f := range j.s.Files {
			if f.Facts != nil && syntax.ProfileOf(f.Language).FolderPackages {
				d := model.FolderOf(f.Path)
				j.folder[d] = append(j.folder[d], f)
			}
		}
	}
	return j.folder[folder]
}

// class lists the files that define a class of that name.
func (j *joiner) class(name string) []string {
	if j.classes == nil { // few codebases ask
		j.classes = map[string][]string{}
		for _, f := range j.s.Files {
			if f.Facts == nil {
				continue
			}
			for i := range f.Facts.Definitions {
				if d := &f.Facts.Definitions[i]; d.Kind == model.DefClass {
					n := strings.ReplaceAll(d.Qualified(), ".", "::")
					j.classes[n] = append(j.classes[n], f.Path)
					if ns := f.Facts.Namespace; strings.Contains(ns, `\`) {
						n = strings.ReplaceAll(ns, `\`, "::") + "::" + n
						j.classes[n] = append(j.classes[n], f.Path)
					}
				}
			}
		}
	}
	return j.classes[name]
}

// mounts notes where the routers that a file mounts come from: the file
// itself, or another it imports.
func (j *joiner) mounts(f *model.File) {
	own := map[string]bool{}
	for _, r := range f.Facts.Routes {
		own[r.On] = true
	}
	for _, m := range f.Facts.Mounts {
		own[m.On] = true
	}
	for _, m := range f.Facts.Mounts {
		at := place{f.Path, m.On, m.Path, m.Line, m.Instead}
		if m.On == "" && own[m.Target] { // a router that is made with a path of its own
			j.own[f.Path+"\x00"+m.Target] = m.Path
			continue
		}
		if strings.HasPrefix(m.Target, model.Chain) {
			j.mounted[m.Target] = append(j.mounted[m.Target], at)
			continue
		}
		if mod, ok := strings.CutPrefix(m.Target, "module:"); ok {
			for _, to := range j.module(f, mod) {
				j.mounted[to] = append(j.mounted[to], at)
			}
			continue
		}
		if own[m.Target] && m.Target != m.On {
			j.mounted[f.Path+"\x00"+m.Target] = append(j.mounted[f.Path+"\x00"+m.Target], at)
			continue
		}
		head, rest, _ := strings.Cut(m.Target, ".")
		for _, to := range j.imported(f, head, rest) {
			j.mounted[to] = append(j.mounted[to], at)
		}
	}
}

// module is the file that a module named in a text means: a path, or a dotted
// name anywhere in the tree.
func (j *joiner) module(f *model.File, name string) []string {
	for l := range j.links(f.Path) {
		if l.Text == name {
			return []string{l.To}
		}
	}
	want := "/" + strings.ReplaceAll(name, ".", "/") + ".py"
	var out []string
	for _, g := range j.s.Files {
		if strings.HasSuffix("/"+g.Path, want) {
			out = append(out, g.Path)
		}
	}
	if len(out) > 1 {
		return nil
	}
	return out
}

// imported are the files that a name of a file comes from.
func (j *joiner) imported(f *model.File, name, member string) []string {
	var out []string
	take := func(im *model.Import, was string) {
		for l := range j.links(f.Path) {
			if l.Line == im.Line && l.Text == im.Text && !slices.Contains(out, l.To) &&
				(len(l.Names) == 0 || slices.Contains(l.Names, was) || slices.Contains(l.Names, member) ||
					slices.Contains(l.Names, "*") || slices.Contains(l.Names, "default")) {
				out = append(out, l.To)
			}
		}
	}
	for i := range f.Facts.Imports {
		im := &f.Facts.Imports[i]
		switch k := slices.Index(im.As, name); {
		case k >= 0 && k < len(im.Names): // taken under another name
			take(im, im.Names[k])
		case im.Alias == name || slices.Contains(im.Names, name) || im.Alias == "" && stem(im.Text) == name:
			take(im, name)
		}
	}
	return out
}

// stem is the last part of a module's text, without an ending.
func stem(text string) string {
	text = strings.TrimSuffix(text, "/index")
	b := path.Base(strings.ReplaceAll(text, `\`, "/"))
	if i := strings.LastIndexByte(b, '.'); i > 0 && !strings.Contains(text, "/") {
		return b[i+1:] // a dotted module
	}
	return strings.TrimSuffix(b, path.Ext(b))
}

// prefixes are the ways by which a router of a file is reached, none of them by
// the same path.
func (j *joiner) prefixes(file, on string, seen map[string]bool) []hung {
	key := file + "\x00" + on
	if strings.HasPrefix(on, model.Chain) {
		key, file = on, ""
	}
	if seen[key] {
		return nil
	}
	seen[key] = true
	defer delete(seen, key)
	at := j.mounted[key]
	if len(at) == 0 && file != "" {
		// What is mounted by its file's name is every router in it.
		at = j.mounted[file]
	}
	if len(at) == 0 {
		return []hung{{path: j.own[key]}}
	}
	var out []hung
	for _, p := range at {
		below := p.path
		if own := j.own[key]; own != "" && (p.path == "" || !p.instead) {
			below = syntax.JoinRoute(p.path, own)
		}
		for _, up := range j.prefixes(p.file, p.on, seen) {
			full := strings.TrimSuffix(syntax.JoinRoute(up.path, below), "/")
			if !slices.ContainsFunc(out, func(h hung) bool { return h.path == full }) && len(out) < maxPrefixes {
				out = append(out, hung{full, append(slices.Clone(up.at), p)})
			}
		}
	}
	if len(out) == 0 {
		return []hung{{}}
	}
	return out
}

// handler finds the place of what answers, "" when it can not be followed: a
// module required in place, a name of the file itself or of one it takes in, a
// method of the same package, or a class and its method anywhere in the tree.
func (j *joiner) handler(f *model.File, name string) (string, int) {
	if name == "" {
		return "", 0
	}
	if mod, ok := strings.CutPrefix(name, "module:"); ok {
		for l := range j.links(f.Path) {
			if l.Text == mod {
				return l.To, 1
			}
		}
		return "", 0
	}
	parts := strings.Split(strings.TrimPrefix(name, "this."), ".")
	last := parts[len(parts)-1]
	if len(parts) == 1 || parts[0] == "self" {
		if line := defined(f, "", last); line > 0 {
			return f.Path, line
		}
	}
	member := ""
	if len(parts) > 1 {
		member = parts[1]
	}
	for _, to := range j.imported(f, parts[0], member) {
		if line := defined(j.s.File(to), "", last); line > 0 {
			return to, line
		}
	}
	// A method of the same package, in Go: its files know each other's names.
	if syntax.ProfileOf(f.Language).FolderPackages {
		for _, g := range j.beside(model.FolderOf(f.Path)) {
			if line := defined(g, "", last); line > 0 {
				return g.Path, line
			}
		}
	}
	if len(parts) != 2 {
		return "", 0
	}
	if to, line := j.method(f, strings.ReplaceAll(parts[0], `\`, "::"), last); line > 0 {
		return to, line
	}
	if line := defined(f, "", last); line > 0 {
		return f.Path, line
	}
	return "", 0
}

// method finds a method of a class that is one of its name, or one of those
// that the file is linked with.
func (j *joiner) method(f *model.File, class, name string) (string, int) {
	short := class[strings.LastIndex(class, ":")+1:]
	found := j.class(class)
	if len(found) == 0 {
		all := j.class(short)
		for _, to := range all {
			if j.linked(f.Path, to) || len(all) == 1 {
				found = []string{to}
			}
		}
	}
	for _, to := range found {
		if len(found) > 1 && !j.linked(f.Path, to) {
			continue
		}
		if line := defined(j.s.File(to), short, name); line > 0 {
			return to, line
		}
	}
	return "", 0
}

func (j *joiner) linked(from, to string) bool {
	for l := range j.links(from) {
		if l.To == to {
			return true
		}
	}
	return false
}

// defined is the line on which a file defines a name, within a class where one
// is named; 0 when it does not.
func defined(f *model.File, class, name string) int {
	if f == nil || f.Facts == nil {
		return 0
	}
	for i := range f.Facts.Definitions {
		d := &f.Facts.Definitions[i]
		if d.Name == name && (class == "" || d.Parent == class || strings.HasSuffix(d.Parent, "."+class)) {
			return d.Line
		}
	}
	return 0
}

// Match reports whether a path typed by hand is answered by a pattern: a part
// in braces, behind a colon or in angle brackets stands for any one part, a
// star or a catch-all for the rest.
func Match(pattern, typed string) bool {
	ps, ts := parts(pattern), parts(typed)
	for i, p := range ps {
		if takesRest(p) {
			return true
		}
		if i >= len(ts) {
			return false
		}
		if p == ts[i] || p[0] == ':' || strings.Contains(p, "{") || strings.Contains(p, "<") || strings.HasPrefix(p, "[") ||
			strings.HasPrefix(p, "(") {
			continue
		}
		return false
	}
	return len(ps) == len(ts)
}

// takesRest reports whether a part of a pattern stands for all that follows.
func takesRest(p string) bool {
	return strings.HasPrefix(p, "*") || strings.HasPrefix(p, "{*") || strings.HasSuffix(p, "...}") ||
		strings.HasPrefix(p, "<path:") || strings.HasPrefix(p, "[...")
}

func parts(p string) []string {
	p, _, _ = strings.Cut(p, "?")
	return strings.FieldsFunc(p, func(r rune) bool { return r == '/' })
}
