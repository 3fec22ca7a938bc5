package calls

import (
	"path"
	"slices"
	"strconv"
	"strings"
	"sync/atomic"

	"jantel/core/model"
	"jantel/core/syntax"
)

// A chain is followed by giving each of its steps a value: a definition, an
// instance of a type, a type. The values of steps are kept with their file,
// since many chains share them; that two goroutines find the same one side by
// side does no harm, since both find it alike.

type valueKind uint8

const (
	vNone    valueKind = iota
	vOutside           // it leads out of the codebase
	vUnit              // a package or module
	vDef               // a definition
	vMember            // a member of an interface that is no definition
	vInst              // a value of a type
	vType              // a type without a name
)

type value struct {
	kind     valueKind
	unit     *unit  // of vUnit, vDef, vMember
	name     string // qualified; of vMember the interface's
	member   string // of vMember
	abstract bool
	place    place
	typ      *typ // of vInst, vType
}

type typeKind uint8

const (
	tNamed typeKind = iota
	tList
	tMap
	tFunc
	tUnion
	tOutside
)

type typ struct {
	kind    typeKind
	key     typeKey
	elem    *typ // of a list or map
	index   *typ // the key of a map
	results []*typ
	of      []*typ // of a union
}

var (
	nothing = value{}
	outside = value{kind: vOutside}
	abroad  = &typ{kind: tOutside}
)

func (v value) isType() bool { return v.kind == vDef && typeLike(v.place.def().Kind) }

func typeLike(k model.DefinitionKind) bool {
	switch k {
	case model.DefType, model.DefClass, model.DefInterface, model.DefEnum:
		return true
	}
	return false
}

func (v value) same(o value) bool {
	return v.kind == o.kind && v.unit == o.unit && v.name == o.name && v.member == o.member
}

// ref is the definition that a value is; of a member of an interface that one.
func (v value) ref() Ref { return Ref{File: v.place.file.at, Definition: v.place.at} }

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

// kept is where a value is kept. Most are nothing, or lead outside, and every
// call of a function has the same: those are there once.
func (v value) kept() *value {
	switch {
	case v == nothing:
		return &nothing
	case v == outside:
		return &outside
	}
	var same *atomic.Pointer[value]
	if v.kind == vDef && v.place.file != nil && v.place.at >= 0 {
		same = &v.place.file.defined[v.place.at]
		if old := same.Load(); old != nil && *old == v {
			return old
		}
	}
	own := v // room is made only here
	if same != nil {
		same.Store(&own)
	}
	return &own
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

// instance is a value of a type; of one that is not known nothing is.
func instance(t *typ) value {
	switch {
	case t == nil:
		return nothing
	case t.kind == tOutside:
		return outside
	}
	return value{kind: vInst, typ: t}
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
		if v := e.find(typeKey{f.unit, q}, name, 0); v.kind != vNone && v.kind != vOutside {
			return v
		}
		q, _ = cutLast(q)
	}
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
	return nothing
}

func defined(u *unit, name string, p place) value {
	return value{kind: vDef, unit: u, name: name, place: p}
}

// taken finds a name that is taken from a module.
func (e *eval) taken(f *file, module, name string) value {
	units := f.modules[module]
	if len(units) == 0 {
		return outside
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

// result is the type of what a call gives, nth of several.
func (e *eval) result(v value, nth int) *typ {
	switch {
	case v.kind == vOutside:
		return abroad
	case v.kind == vUnit:
		return e.result(e.standsFor(v.unit), nth)
	case v.kind == vMember:
		return e.shapeType(v.unit, v.name+"."+v.member, nth)
	case v.isType() || v.kind == vType:
		if nth == 0 {
			return e.asType(v) // what is built, or turned into it
		}
		return nil
	case v.kind == vDef && callable(v.place.def().Kind):
		return e.shapeType(v.unit, v.name, nth)
	}
	t := e.typeOf(v)
	if e.profile.OpenTypes {
		return t // what is read is called
	}
	if t := e.called(t, nth); t != nil {
		return t
	}
	return e.invokedGives(v, nth)
}

// invoked is the method that runs when a value is called like a function.
func (e *eval) invoked(v value) value {
	if e.profile.Invoked == "" || v.kind != vInst && (v.kind != vDef || v.isType() || callable(v.place.def().Kind)) {
		return nothing
	}
	return e.member(v, e.profile.Invoked)
}

func (e *eval) invokedGives(v value, nth int) *typ {
	if m := e.invoked(v); m.kind == vDef {
		return e.shapeType(m.unit, m.name, nth)
	}
	return nil
}

// called is what a value that is a function gives.
func (e *eval) called(t *typ, nth int) *typ {
	t = e.under(t, func(t *typ) bool { return t.kind == tFunc || t.kind == tOutside })
	switch {
	case t == nil:
		return nil
	case t.kind == tOutside:
		return abroad
	case nth < len(t.results):
		return t.results[nth]
	}
	return nil
}

func callable(k model.DefinitionKind) bool {
	return k == model.DefFunction || k == model.DefMethod || k == model.DefComponent
}

// shapeType is the type of a result, as its shape tells it.
func (e *eval) shapeType(u *unit, name string, nth int) *typ {
	s, ok := u.shape(name, model.ShapeResult, nth)
	if !ok {
		return nil
	}
	v := e.follow(s.file, s.shape.Node)
	if t := e.asType(v); t != nil {
		return t
	}
	return e.typeOf(v)
}

// under follows types that are other names for others until one is as asked.
func (e *eval) under(t *typ, is func(*typ) bool) *typ {
	for range 10 {
		if t == nil || is(t) {
			return t
		}
		if t.kind != tNamed {
			return nil
		}
		t = e.aliased(t.key)
	}
	return nil
}

// aliased is the type that a type is another name for; nil where it is none.
func (e *eval) aliased(k typeKey) *typ {
	if s, ok := k.unit.shape(k.name, model.ShapeUnder, 0); ok {
		return e.asType(e.follow(s.file, s.shape.Node))
	}
	return nil
}

// element is the type of the elements of a list or map, or of its keys.
func (e *eval) element(t *typ, key bool) *typ {
	t = e.under(t, func(t *typ) bool { return t.kind != tNamed })
	switch {
	case t == nil:
		return nil
	case t.kind == tOutside:
		return abroad
	case key && t.kind == tMap:
		return t.index
	case key, t.kind == tFunc:
		return nil
	}
	return t.elem
}

// member finds what is called name in a value.
func (e *eval) member(v value, name string) value {
	switch {
	case v.kind == vOutside:
		return outside
	case v.kind == vUnit:
		if m := e.exported(v.unit, name); m.kind != vNone {
			return m
		}
		return e.member(e.standsFor(v.unit), name)
	case v.isType(), v.kind == vDef && v.place.def().Kind == model.DefNamespace:
		return e.find(typeKey{v.unit, v.name}, name, 0)
	}
	t := e.typeOf(v)
	switch {
	case t == nil:
		return nothing
	case t.kind == tOutside:
		return outside
	case t.kind == tNamed:
		if m := e.find(t.key, name, 0); m.kind == vDef || m.kind == vMember || m.kind == vInst {
			return m
		} else if x := e.extended(t, name); x.kind != vNone {
			return x
		} else {
			return m
		}
	case t.kind == tUnion:
		out := nothing
		for _, one := range t.of {
			if v := e.member(instance(one), name); v.kind != vNone && (out.kind == vNone || out.kind == vOutside) {
				out = v
			}
		}
		return out
	}
	return e.ofList(t, name)
}

// ofList is a member that lists and maps have by themselves.
func (e *eval) ofList(t *typ, name string) value {
	switch {
	case t.kind == tList && e.profile.ListGives[name]:
		return instance(&typ{kind: tFunc, results: []*typ{t}})
	case t.elem != nil && e.profile.ListOne[name]:
		return instance(&typ{kind: tFunc, results: []*typ{t.elem}})
	}
	return nothing
}

// find looks for a member of a type: its own, then those it is built upon or
// embeds, then those of the type it is another name for.
func (e *eval) find(k typeKey, name string, depth int) value {
	if e.steps++; e.steps >= maxSteps || depth > 12 {
		e.cut = true
		return nothing
	}
	if e.profile.OpenTypes {
		return e.findOpen(k, name)
	}
	parts := k.unit.parts(k.name)
	for _, u := range parts {
		if v := e.own(u, k.name, name); v.kind != vNone {
			return v
		}
	}
	out := nothing
	for _, u := range parts {
		for _, b := range u.bases[k.name] {
			switch t := e.asType(e.follow(b.file, b.shape.Node)); {
			case t == nil:
			case t.kind == tOutside:
				out = outside
			case t.kind == tNamed:
				if v := e.find(t.key, name, depth+1); v.kind == vOutside {
					out = v
				} else if v.kind != vNone {
					return v
				}
			}
		}
	}
	if t := e.aliased(k); t != nil && out.kind == vNone {
		switch t.kind {
		case tOutside:
			return outside
		case tNamed:
			return e.find(t.key, name, depth+1)
		case tUnion:
			return e.member(instance(t), name)
		}
	}
	return out
}

// own is a member that a part of a type has itself.
func (e *eval) own(u *unit, of, name string) value {
	q := of + "." + name
	if p, ok := u.defs[q]; ok {
		return defined(u, q, p)
	}
	if _, ok := u.shapes[shapeKey{of, name, model.ShapeMethod, 0}]; ok && u.defs[of].file != nil {
		return value{kind: vMember, unit: u, name: of, member: name, abstract: isAbstract(u.defs[of]), place: u.defs[of]}
	}
	if s, ok := u.shapes[shapeKey{of, name, model.ShapeValue, 0}]; ok {
		return instance(e.typeOf(e.follow(s.file, s.shape.Node)))
	}
	return nothing
}

// isAbstract reports whether the members of a definition have their bodies
// elsewhere: those of an object written out have them there.
func isAbstract(p place) bool { return p.file != nil && typeLike(p.def().Kind) }

// getter reports whether a method with these marks is read like a field.
func (f *file) getter(marks []string) bool {
	return len(f.profile.Getters) > 0 && slices.ContainsFunc(marks, func(m string) bool { return f.profile.Getters[m] })
}

// lastKnown is the last definition on the way of a chain: what a member is
// asked of, or the type of that.
func (e *eval) lastKnown(f *file, n int32) (value, bool) {
	if v := e.node(f, n); v.kind == vDef || v.kind == vMember {
		return nothing, false
	}
	for n = f.body.Nodes[n].From; n >= 0; n = f.body.Nodes[n].From {
		v := e.node(f, n)
		if v.kind == vDef {
			return v, true
		}
		if t := e.typeOf(v); t != nil && t.kind == tNamed {
			if p, ok := t.key.unit.defs[t.key.name]; ok {
				return defined(t.key.unit, t.key.name, p), true
			}
		}
	}
	return nothing, false
}
