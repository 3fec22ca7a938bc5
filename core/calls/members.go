package calls

import (
	"slices"
	"strconv"
	"strings"

	"jantel/core/model"
)

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

// cutCount parts a name from the number of arguments that it is called with, -1 where
// that is not said.
func (e *eval) cutCount(name string) (string, int) {
	if !e.profile.Overloads {
		return name, -1
	}
	at := strings.LastIndexByte(name, model.Counted)
	if at < 1 {
		return name, -1
	}
	n, err := strconv.Atoi(name[at+1:])
	if err != nil {
		return name, -1
	}
	return name[:at], n
}

// counted finds a member of a type by its name and the number of arguments that it is
// called with; where none takes so many, by its name alone.
func (e *eval) counted(k typeKey, name string) value {
	v := e.find(k, name, 0)
	if plain, n := e.cutCount(name); n >= 0 && v.kind == vNone {
		return e.find(k, plain, 0)
	}
	return v
}

// member finds what is called name in a value.
func (e *eval) member(v value, name string) value {
	if plain, n := e.cutCount(name); n >= 0 {
		if m := e.memberOf(v, name); m.kind != vNone {
			return m
		}
		name = plain
	}
	return e.memberOf(v, name)
}

func (e *eval) memberOf(v value, name string) value {
	switch {
	case v.kind == vOutside:
		return outside
	case name != "" && name[0] == '(' && v.kind == vMember:
		return e.own(v.unit, v.name+"."+v.member, name) // what a function says it hands on
	case name != "" && name[0] == '(' && v.kind == vDef && callable(v.place.def().Kind):
		return e.own(v.unit, v.name, name)
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
	for _, u := range k.unit.parts(k.name) {
		if v := e.own(u, k.name, name); v.kind != vNone {
			return v
		}
	}
	out := e.fromBases(k, name, depth)
	if out.kind != vNone && out.kind != vOutside {
		return out
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

// fromBases is the member of a name that a type has from those that it is built upon:
// outside where none of those that stand here has it, and one stands elsewhere.
func (e *eval) fromBases(k typeKey, name string, depth int) value {
	out := nothing
	for _, u := range k.unit.parts(k.name) {
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
	return out
}

// own is a member that a part of a type has itself.
func (e *eval) own(u *unit, of, name string) value {
	name, args := e.cutCount(name)
	q := of + "." + name
	if p, ok := u.defs[q]; ok {
		if may := u.takes[q]; args >= 0 && may != 0 && may>>min(args, 63)&1 == 0 {
			return nothing // another of that name is meant
		}
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

// heldBy is the field that a call asks for what it holds, where a field of a type may
// hold a function and nothing tells which; else the value as it was.
func (e *eval) heldBy(f *file, node int32, v value) value {
	n := &f.body.Nodes[node]
	if !f.profile.FieldCalls || n.Op != model.ChainMember || n.From < 0 {
		return v
	}
	if t := e.typeOf(e.node(f, n.From)); t != nil && t.kind == tNamed {
		if m := e.field(t.key, f.body.Name(n), 0); m.kind == vMember {
			return m
		}
	}
	return v
}

// field looks for a field of a type as find looks for a member.
func (e *eval) field(k typeKey, name string, depth int) value {
	if depth > 12 {
		return nothing
	}
	for _, u := range k.unit.parts(k.name) {
		if _, ok := u.shapes[shapeKey{k.name, name, model.ShapeValue, 0}]; ok && u.defs[k.name].file != nil {
			return value{kind: vMember, unit: u, name: k.name, member: name, place: u.defs[k.name]}
		}
		for _, b := range u.bases[k.name] {
			if t := e.asType(e.follow(b.file, b.shape.Node)); t != nil && t.kind == tNamed {
				if v := e.field(t.key, name, depth+1); v.kind == vMember {
					return v
				}
			}
		}
	}
	if t := e.aliased(k); t != nil && t.kind == tNamed {
		return e.field(t.key, name, depth+1)
	}
	return nothing
}

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
