package calls

import (
	"cmp"
	"path"
	"slices"
	"strings"
	"sync"
	"sync/atomic"

	"jantel/core/model"
	"jantel/core/syntax"
)

// world is all files of a survey with what they define, ready for chains to be
// followed in them from several goroutines.
type world struct {
	survey *model.Survey
	files  []*file
	at     map[string]int32 // by path
	units  map[string]*unit

	plain    map[string]map[string][]place // by languages that know each other's names: all at the top of a name
	members  map[string]map[string][]place // and all members of a name
	globals  map[string][]place            // by qualified name: what scripts of pages know of each other
	spaces   map[string]map[string]place   // by language and namespace: what stands at its top
	partial  map[[2]string][]*unit         // by namespace and name: types that several files write parts of
	extends  map[string][]shapeAt          // by name: functions that look like members of something
	once     sync.Once
	subtypes map[typeKey][]typeKey
	answers  sync.Map             // who implements a member of an interface, as far as it was asked for
	owners   map[string][]typeKey // by the name of a method, for languages that match interfaces by their members
}

// file is one file with its chains.
type file struct {
	world   *world
	facts   *model.Facts
	path    string
	profile *syntax.Profile
	at      int32
	body    *model.Body
	unit    *unit
	// imports are the units behind a name of the file; modules those behind the
	// text of an import.
	imports map[string]*unit
	modules map[string][]*unit
	named   map[string]place        // what is taken by name, in languages with namespaces; no place for what is outside
	within  []map[string]place      // the namespaces that are known, the nearest first
	outside map[string]bool         // names and texts of imports that lead out of the codebase
	known   []atomic.Pointer[value] // by the steps of its chains
	defined []atomic.Pointer[value] // by its definitions, what stands for each
}

// unit is what shares one table of names: a package of a folder, or a file.
type unit struct {
	name   string
	files  []*file
	defs   map[string]place // by qualified name
	shapes map[shapeKey]shapeAt
	bases  map[string][]shapeAt // by the qualified name of a type
	alone  []*unit              // itself
	twice  map[string]bool      // members of types opened again that several files write
	takes  map[string]uint64    // by the qualified name of a function: by how many arguments it may be called, a bit each
	again  map[string]uint64    // those of them that several of the name take
	lines  map[string][]string  // of types that may be opened again: all that one is built upon
}

type place struct {
	file *file
	at   int32
}

func (p place) def() *model.Definition { return &p.file.facts.Definitions[p.at] }

type shapeKey struct {
	owner, name string
	kind        model.ShapeKind
	nth         uint8
}

type shapeAt struct {
	file  *file
	shape *model.Shape
}

// typeKey is a type that stands in the codebase.
type typeKey struct {
	unit *unit
	name string // qualified
}

// index gathers what each unit defines.
func (w *world) index() {
	for _, f := range w.files {
		if f == nil {
			continue
		}
		key := f.path
		if f.profile.FolderPackages {
			// A folder may hold a package and the tests of it from outside.
			key = model.FolderOf(f.path) + "\x00" + f.facts.Namespace
		}
		if f.profile.OpenTypes {
			key = "\x00" + f.profile.Plain // all of them are one
		}
		u := w.units[key]
		if u == nil {
			u = &unit{
				name: f.facts.Namespace, defs: map[string]place{}, shapes: map[shapeKey]shapeAt{}, bases: map[string][]shapeAt{},
				twice: map[string]bool{}, takes: map[string]uint64{}, again: map[string]uint64{},
			}
			u.alone = []*unit{u}
			w.units[key] = u
		}
		u.files = append(u.files, f)
		f.unit = u
	}
	for _, u := range w.units {
		// Where one name is defined in several files, for one system each, the
		// plainest stands for all.
		slices.SortStableFunc(u.files, func(a, b *file) int { return a.plainness() - b.plainness() })
		for _, f := range u.files {
			u.add(f)
		}
		if u.files[0].profile.OpenTypes {
			u.open()
		}
	}
	w.parted()
	for _, of := range w.extends {
		slices.SortStableFunc(of, func(a, b shapeAt) int { return cmp.Compare(a.file.at, b.file.at) })
	}
}

// parted gathers the types that are written in parts.
func (w *world) parted() {
	w.partial = map[[2]string][]*unit{}
	for _, f := range w.files {
		if f == nil || !f.profile.PartialTypes {
			continue
		}
		for i := range f.facts.Definitions {
			if d := &f.facts.Definitions[i]; d.Kind == model.DefClass || d.Kind == model.DefInterface {
				key := [2]string{f.facts.Namespace, d.Qualified()}
				if !slices.Contains(w.partial[key], f.unit) {
					w.partial[key] = append(w.partial[key], f.unit)
				}
			}
		}
	}
}

// parts are the units that write a type, this one first.
func (u *unit) parts(name string) []*unit {
	f := u.files[0]
	if !f.profile.PartialTypes {
		return u.alone
	}
	all := f.world.partial[[2]string{f.facts.Namespace, name}]
	if len(all) < 2 {
		return u.alone
	}
	return append(slices.Clip(u.alone), slices.DeleteFunc(slices.Clone(all), func(o *unit) bool { return o == u })...)
}

// plainly gathers the names of languages that know each other's.
func (w *world) plainly() {
	w.plain, w.members = map[string]map[string][]place{}, map[string]map[string][]place{}
	put := func(all map[string]map[string][]place, family, name string, p place) {
		if all[family] == nil {
			all[family] = map[string][]place{}
		}
		all[family][name] = append(all[family][name], p)
	}
	for _, f := range w.files {
		if f == nil || f.profile.Plain == "" {
			continue
		}
		for i := range f.facts.Definitions {
			d, p := &f.facts.Definitions[i], place{f, int32(i)}
			switch {
			case d.Kind == model.DefMethod:
				put(w.members, f.profile.Plain, d.Name, p)
			case typeLike(d.Kind) || d.Kind == model.DefFunction || d.Kind == model.DefNamespace:
				put(w.plain, f.profile.Plain, d.Name, p)
			}
		}
	}
}

// alone is the one definition of a name among several; none where there are more.
// What is declared and written out is one: that which is longest stands for both.
func alone(all []place) (place, bool) {
	if len(all) == 0 {
		return place{}, false
	}
	best, whole := all[0], 0
	for _, p := range all {
		d := p.def()
		if d.EndLine > d.Line {
			whole++
		}
		if d.EndLine-d.Line > best.def().EndLine-best.def().Line {
			best = p
		}
	}
	return best, len(all) == 1 || whole == 1
}

// space gathers what stands at the top of each namespace.
func (w *world) space() {
	w.spaces = map[string]map[string]place{}
	for _, f := range w.files {
		if f == nil || f.profile.Namespace == "" {
			continue
		}
		key := f.profile.Namespace + f.facts.Namespace
		in := w.spaces[key]
		if in == nil {
			in = map[string]place{}
			w.spaces[key] = in
		}
		for i := range f.facts.Definitions {
			if d := &f.facts.Definitions[i]; d.Parent == "" && in[d.Name].file == nil {
				in[d.Name] = place{f, int32(i)}
			}
		}
	}
}

// spaced finds a name as languages with namespaces do: taken by a statement of
// the file, of its own namespace or one around it, or of one that is taken whole.
func (f *file) spaced(name string) value {
	if sign := f.profile.Namespace; strings.Contains(name, sign) {
		return f.spelled(name, sign)
	}
	if p, ok := f.named[name]; ok {
		if p.file == nil {
			return outside
		}
		return defined(p.file.unit, p.def().Qualified(), p)
	}
	for _, space := range f.within {
		if p, ok := space[name]; ok {
			return defined(p.file.unit, name, p)
		}
	}
	return nothing
}

// spelled finds a name that is written with its namespace: whole, from the
// file's own, or from one that is taken.
func (f *file) spelled(name, sign string) value {
	first, rest, _ := strings.Cut(name, sign)
	ways := []string{name, f.facts.Namespace + sign + name}
	for _, im := range f.facts.Imports {
		if _, last := partLast(im.Text, sign); im.Alias == first || im.Alias == "" && last == first {
			ways = append(ways, im.Text+sign+rest)
		}
	}
	for _, way := range ways {
		space, last := partLast(way, sign)
		if p, ok := f.world.spaces[sign+space][last]; ok {
			return defined(p.file.unit, last, p)
		}
	}
	return nothing
}

// take gathers the names that a file with namespaces takes, and the namespaces
// whose names it knows, the nearest first.
func (f *file) take() {
	w, sign := f.world, f.profile.Namespace
	f.named = map[string]place{}
	know := func(space string) {
		if in := w.spaces[sign+space]; in != nil {
			f.within = append(f.within, in)
		}
	}
	for space := f.facts.Namespace; ; {
		know(space)
		i := strings.LastIndex(space, sign)
		if i < 0 || f.profile.PathPackages {
			break
		}
		space = space[:i]
	}
	know("") // what stands in no namespace is known to all
	for _, im := range f.facts.Imports {
		if slices.Contains(im.Names, "static") {
			f.takeMembers(im.Text, "*")
			continue
		}
		if whole, ok := strings.CutSuffix(im.Text, sign+"*"); ok && im.Alias != "static" {
			know(whole)
			continue
		}
		know(im.Text)
		space, last := partLast(im.Text, sign)
		name := last
		if im.Alias != "" && im.Alias != "static" {
			name = im.Alias
		}
		if im.Alias == "static" {
			f.takeMembers(space, last)
		} else if p, ok := w.spaces[sign+space][last]; ok {
			f.named[name] = p
		} else if _, inside := w.spaces[sign+im.Text]; !inside && space != "" {
			f.named[name] = place{}
		}
	}
}

// takeMembers takes a member of a type by its name, or all of them.
func (f *file) takeMembers(of, name string) {
	space, last := partLast(of, f.profile.Namespace)
	p, ok := f.world.spaces[f.profile.Namespace+space][last]
	if !ok {
		return
	}
	for q, m := range p.file.unit.defs {
		if d := m.def(); d.Parent == last && (name == "*" || d.Name == name) && strings.HasPrefix(q, last+".") {
			f.named[d.Name] = m
		}
	}
}

func partLast(text, sign string) (before, last string) {
	if i := strings.LastIndex(text, sign); i >= 0 {
		return text[:i], text[i+len(sign):]
	}
	return "", text
}

// plainness ranks the files of a package: one that is for another system than
// the usual one, as it or its name says, is put behind.
func (f *file) plainness() int {
	n := 0
	if f.body.Spare {
		n = 10
	}
	for _, w := range strings.Split(strings.TrimSuffix(path.Base(f.path), path.Ext(f.path)), "_")[1:] {
		if otherSystems[w] {
			n += 10
		}
	}
	return n
}

// otherSystems are words at the end of a file's name that say which system it is
// for, but for the usual one.
var otherSystems = syntax.Set(
	"windows", "darwin", "freebsd", "netbsd", "openbsd", "dragonfly", "solaris", "illumos", "aix", "plan9", "js", "wasip1", "android",
	"ios", "arm", "arm64", "386", "mips", "mipsle", "mips64", "mips64le", "mips64x", "mipsx", "ppc64", "ppc64le", "ppc64x", "riscv64",
	"s390x", "loong64", "wasm", "zos", "nacl",
)

func (u *unit) add(f *file) {
	for i := range f.facts.Definitions {
		d := &f.facts.Definitions[i]
		q := d.Qualified()
		if f.profile.Overloads && callable(d.Kind) {
			u.again[q] |= u.takes[q] & takes(d)
			u.takes[q] |= takes(d)
		}
		if u.defs[q].file == nil {
			u.defs[q] = place{f, int32(i)}
		} else if f.profile.OpenTypes && d.Kind != model.DefNamespace && d.Kind != model.DefClass {
			u.twice[q] = true
		}
	}
	for i := range f.body.Shapes {
		s := &f.body.Shapes[i]
		if s.Kind == model.ShapeBase {
			u.bases[s.Name] = append(u.bases[s.Name], shapeAt{f, s})
			continue
		}
		if s.Kind == model.ShapeExtends {
			f.world.extends[s.Name] = append(f.world.extends[s.Name], shapeAt{f, s})
			continue
		}
		k := shapeKey{s.Owner, s.Name, s.Kind, s.Nth}
		if _, there := u.shapes[k]; !there {
			u.shapes[k] = shapeAt{f, s}
		}
	}
}

// takes are the numbers of arguments that a function may be called with, a bit each.
func takes(d *model.Definition) uint64 {
	switch {
	case d.Params >= 63:
		return 1 << 63
	case d.Variadic:
		return ^uint64(0) << max(0, d.Params-1)
	}
	return 1 << d.Params
}

// links ties the imports of each file to the units they lead to.
func (w *world) links() {
	for _, f := range w.files {
		if f != nil {
			f.imports, f.modules, f.outside = map[string]*unit{}, map[string][]*unit{}, map[string]bool{}
		}
	}
	for i := range w.survey.Links {
		l := &w.survey.Links[i]
		if l.Kind != model.LinkImport && l.Kind != model.LinkLazyImport && l.Kind != model.LinkReExport {
			continue
		}
		from, to := w.fileAt(l.From), w.fileAt(l.To)
		if from == nil || to == nil || to.unit == nil {
			continue
		}
		if !slices.Contains(from.modules[l.Text], to.unit) {
			from.modules[l.Text] = append(from.modules[l.Text], to.unit)
		}
	}
	for _, f := range w.files {
		if f == nil {
			continue
		}
		if f.profile.Namespace != "" {
			f.take()
		}
		for _, im := range f.facts.Imports {
			units := f.modules[im.Text]
			if len(units) == 0 {
				f.outside[im.Text] = true
				if f.profile.FolderPackages {
					f.outside[lastOf(im)] = true
				}
				continue
			}
			if f.profile.FolderPackages {
				name := im.Alias
				if name == "" {
					name = units[0].name
				}
				f.imports[name] = units[0]
			}
		}
	}
}

// lastOf is under which name a package from outside is most likely used.
func lastOf(im model.Import) string {
	if im.Alias != "" {
		return im.Alias
	}
	base := path.Base(im.Text)
	if len(base) > 1 && base[0] == 'v' && strings.Trim(base[1:], syntax.Digits) == "" {
		base = path.Base(path.Dir(im.Text))
	}
	base, _, _ = strings.Cut(base, ".")
	return base
}

func (w *world) fileAt(p string) *file {
	if i, ok := w.at[p]; ok {
		return w.files[i]
	}
	return nil
}
