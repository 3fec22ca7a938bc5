package calls

import (
	"path"
	"slices"
	"strconv"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// How much is followed for one chain: chains that lead in rings, and types that
// are built upon each other without end, are given up. What was given up on the
// way is not kept, since from elsewhere it may be told.
const (
	maxDepth  = 80
	maxSteps  = 4000
	maxTyping = 60
)

type eval struct {
	profile      *syntax.Profile
	depth, steps int
	typing       int
	cut          bool
	active       []*model.ChainNode // steps that are being followed, few enough to be looked through
}

// node is the value of a step of a file.
func (e *eval) node(f *file, n int32) value {
	if e.depth == 0 {
		e.steps, e.cut = 0, false
	}
	return e.follow(f, n)
}

func (e *eval) follow(f *file, n int32) value {
	if n < 0 {
		return nothing
	}
	if v := f.known[n].Load(); v != nil {
		return *v
	}
	if e.depth >= maxDepth || e.steps >= maxSteps {
		e.cut = true
		return nothing
	}
	at := &f.body.Nodes[n]
	if slices.Contains(e.active, at) {
		e.cut = true // it leads back to itself
		return nothing
	}
	e.active = append(e.active, at)
	e.depth++
	e.steps++
	v := e.step(f, at)
	e.depth--
	e.active = e.active[:len(e.active)-1]
	if !e.cut {
		f.known[n].Store(v.kept())
	}
	return v
}

func (e *eval) step(f *file, n *model.ChainNode) value {
	name := f.body.Name(n)
	switch n.Op {
	case model.ChainName:
		if v := e.lookup(f, name); v.kind != vNone || !f.loose() {
			return v
		}
		return e.global(f, n)
	case model.ChainTaken:
		module, of, _ := strings.Cut(name, " ")
		return e.taken(f, module, of)
	case model.ChainSelf:
		return instance(&typ{key: typeKey{f.unit, name}})
	case model.ChainBare:
		return e.bare(f, name)
	case model.ChainOnly:
		if n.From != model.NoChain {
			from := e.follow(f, n.From)
			if v := e.member(from, name); v.kind != vNone {
				return v
			}
			if f.profile.OpenTypes && from.kind != vNone {
				return nothing // it is known, and has none of its own
			}
		}
		if p, ok := alone(f.world.members[f.profile.Plain][name]); ok {
			return defined(p.file.unit, p.def().Qualified(), p)
		}
		return nothing
	case model.ChainType:
		return e.innerType(f, name)
	case model.ChainFunc:
		t := &typ{kind: tFunc}
		if n.From != model.NoChain {
			t.results = append(t.results, e.asType(e.follow(f, n.From)))
			for _, more := range strings.Split(name, ",") {
				if k, err := strconv.Atoi(more); err == nil && k < len(f.body.Nodes) {
					t.results = append(t.results, e.asType(e.follow(f, int32(k))))
				}
			}
		}
		return value{kind: vType, typ: t}
	case model.ChainEither:
		return e.either(f, n)
	case model.ChainBase:
		for _, b := range f.unit.bases[name] {
			if t := e.asType(e.follow(b.file, b.shape.Node)); t != nil {
				return instance(t)
			}
		}
		return nothing
	}
	from := e.follow(f, n.From)
	switch n.Op {
	case model.ChainMember:
		if v := e.member(from, name); v.kind != vNone || !f.loose() {
			return v
		}
		return e.global(f, n)
	case model.ChainResult:
		nth, _ := strconv.Atoi(name)
		return instance(e.result(from, nth))
	case model.ChainElement, model.ChainKey:
		if from.isType() || from.kind == vDef && callable(from.place.def().Kind) {
			return from // a generic function or type made with its types
		}
		return instance(e.element(e.typeOf(from), n.Op == model.ChainKey))
	case model.ChainInstance:
		return instance(e.asType(from))
	case model.ChainList:
		elem := e.asType(from)
		if elem == nil {
			elem = e.typeOf(from) // a list of what a value is
		}
		return value{kind: vType, typ: &typ{kind: tList, elem: elem}}
	case model.ChainMap:
		t := &typ{kind: tMap, elem: e.asType(from)}
		if k, err := strconv.Atoi(name); err == nil && k < len(f.body.Nodes) {
			t.index = e.asType(e.follow(f, int32(k)))
		}
		return value{kind: vType, typ: t}
	}
	return nothing
}

// lookup finds what a name means at the top of a file.
func (e *eval) lookup(f *file, name string) value {
	if v := e.top(f.unit, name); v.kind != vNone {
		return v
	}
	if u := f.imports[name]; u != nil {
		return value{kind: vUnit, unit: u}
	}
	if f.profile.Namespace != "" {
		if v := f.spaced(name); v.kind != vNone {
			return v
		}
	}
	if f.profile.Plain != "" && !f.profile.OpenTypes {
		if p, ok := alone(f.world.plain[f.profile.Plain][name]); ok {
			return defined(p.file.unit, p.def().Qualified(), p)
		}
	}
	if f.outside[name] {
		return outside
	}
	return nothing
}

// bare finds a name that stands in a type without anything before it: a member
// of the type, of what it is built upon, or of a type around it; else what the
// file knows by that name.
func (e *eval) bare(f *file, words string) value {
	of, name, _ := strings.Cut(words, " ")
	for q := of; q != ""; {
		if v := e.counted(typeKey{f.unit, q}, name); v.kind != vNone && v.kind != vOutside {
			return v
		}
		q, _ = cutLast(q)
	}
	name, _ = e.cutCount(name)
	if v := e.lookup(f, name); v.kind != vNone {
		return v
	}
	return nothing
}

// innerType finds the name of a type that stands in a type: one within it, or
// within one around it; else what the file knows by that name.
func (e *eval) innerType(f *file, words string) value {
	of, name, _ := strings.Cut(words, " ")
	for q := of; q != ""; q, _ = cutLast(q) {
		if p, ok := f.unit.defs[q+"."+name]; ok && typeLike(p.def().Kind) {
			return defined(f.unit, q+"."+name, p)
		}
		if f.profile.OpenTypes {
			if v := e.top(f.unit, q+"."+name); v.kind != vNone {
				return v
			}
			if v := e.find(typeKey{f.unit, q}, name, 0); v.isType() {
				return v
			}
		}
	}
	return e.lookup(f, name)
}

// cutLast parts a qualified name before its last dot.
func cutLast(q string) (before, last string) {
	if i := strings.LastIndexByte(q, '.'); i >= 0 {
		return q[:i], q[i+1:]
	}
	return "", q
}

// top finds what a unit itself has under a name: a definition, or what a
// variable of it stands for where it is none.
func (e *eval) top(u *unit, name string) value {
	if p, ok := u.defs[name]; ok {
		return defined(u, name, p)
	}
	if s, ok := u.shapes[shapeKey{"", name, model.ShapeValue, 0}]; ok {
		return e.follow(s.file, s.shape.Node)
	}
	if _, ok := u.shapes[shapeKey{"", name, model.ShapeUnder, 0}]; ok {
		return value{kind: vType, typ: &typ{key: typeKey{u, name}}} // a type that a comment defines
	}
	return nothing
}

// taken finds a name that is taken from a module.
func (e *eval) taken(f *file, module, name string) value {
	units := f.modules[module]
	if len(units) == 0 {
		if units = f.beside(module); len(units) == 0 {
			return outside
		}
	}
	for _, u := range units {
		if name == "*" {
			return value{kind: vUnit, unit: u}
		}
		if v := e.exported(u, name); v.kind != vNone {
			return v
		}
	}
	for _, u := range units {
		if stem(u.files[0].path) == name {
			return value{kind: vUnit, unit: u} // a module of the package
		}
	}
	return nothing
}

// beside is what a relative path leads to that is taken in by no statement: a type in a
// comment may be the only one to name it.
func (f *file) beside(module string) []*unit {
	if !strings.HasPrefix(module, ".") {
		return nil
	}
	at, ext := path.Join(model.FolderOf(f.path), module), path.Ext(f.path)
	for _, p := range []string{at, at + ext, at + "/index" + ext} {
		if g := f.world.fileAt(p); g != nil && g.unit != nil {
			return []*unit{g.unit}
		}
	}
	return nil
}

// stem is what a file is called as a module: a package by its folder.
func stem(p string) string {
	base := strings.TrimSuffix(path.Base(p), path.Ext(p))
	if base == "__init__" {
		return path.Base(path.Dir(p))
	}
	return base
}

// standsFor is the one thing that a module hands out in place of itself.
func (e *eval) standsFor(u *unit) value {
	if d := e.top(u, "default"); d.kind != vUnit {
		return d
	}
	return nothing
}

// exported finds what a unit gives out under a name: its own, or what it takes
// from others to give out.
func (e *eval) exported(u *unit, name string) value { return e.handedOn(u, name, 0) }

func (e *eval) handedOn(u *unit, name string, depth int) value {
	if v := e.top(u, name); v.kind != vNone {
		return v
	}
	if e.steps++; e.steps >= maxSteps || depth > 12 {
		e.cut = true
		return nothing
	}
	for _, f := range u.files {
		for i := range f.facts.Imports {
			im := &f.facts.Imports[i]
			inner, ok := "", false
			if im.Kind == model.LinkReExport || f.profile.HandsOn && (len(im.Names) != 1 || im.Names[0] != "*" || im.Alias == "*") {
				inner, ok = innerName(im, name)
			}
			if !ok {
				continue
			}
			for _, from := range f.modules[im.Text] {
				if inner == "*" && len(im.As) > 0 {
					return value{kind: vUnit, unit: from}
				}
				if v := e.handedOn(from, inner, depth+1); v.kind != vNone {
					return v
				}
			}
		}
	}
	return nothing
}

// innerName is what a name that is handed on is called where it comes from.
func innerName(im *model.Import, name string) (string, bool) {
	for i, n := range im.Names {
		switch {
		case len(im.As) == len(im.Names) && im.As[i] == name, len(im.As) == 0 && n == name:
			return n, true
		case n == "*" && len(im.As) == 0 && name != "default":
			return name, true
		}
	}
	return "", false
}

// asType is the type that a value is the name of; nil where it is none.
func (e *eval) asType(v value) *typ {
	switch v.kind {
	case vDef:
		// What is mixed in is a namespace in some languages.
		if v.isType() || e.profile.Inherits && v.place.def().Kind == model.DefNamespace {
			return &typ{key: typeKey{v.unit, v.name}}
		}
	case vUnit:
		return e.asType(e.standsFor(v.unit))
	case vType:
		return v.typ
	case vOutside:
		return abroad
	}
	return nil
}

// typeOf is the type of a value; nil where it is not told.
func (e *eval) typeOf(v value) *typ {
	if e.typing >= maxTyping {
		e.cut = true // each stands for another
		return nil
	}
	e.typing++
	defer func() { e.typing-- }()
	switch v.kind {
	case vInst:
		return v.typ
	case vOutside:
		return abroad
	case vDef:
		if v.isType() {
			return nil
		}
		if d := v.place.def(); callable(d.Kind) && v.place.file.getter(d.Marks) {
			return e.shapeType(v.unit, v.name, 0)
		}
		if s, ok := v.unit.shape(v.name, model.ShapeValue, 0); ok {
			return e.typeOf(e.follow(s.file, s.shape.Node))
		}
	}
	return nil
}

// shape finds a shape by the qualified name of what it is of.
func (u *unit) shape(name string, kind model.ShapeKind, nth int) (shapeAt, bool) {
	owner, last := "", name
	if i := strings.LastIndexByte(name, '.'); i >= 0 {
		owner, last = name[:i], name[i+1:]
	}
	s, ok := u.shapes[shapeKey{owner, last, kind, uint8(nth)}]
	return s, ok
}
