package calls

import (
	"sync/atomic"

	"jantel/core/model"
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

func defined(u *unit, name string, p place) value {
	return value{kind: vDef, unit: u, name: name, place: p}
}

func callable(k model.DefinitionKind) bool {
	return k == model.DefFunction || k == model.DefMethod || k == model.DefComponent
}

// isAbstract reports whether the members of a definition have their bodies
// elsewhere: those of an object written out have them there.
func isAbstract(p place) bool { return p.file != nil && typeLike(p.def().Kind) }
