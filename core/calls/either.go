package calls

import (
	"slices"
	"strconv"
	"strings"

	"jantel/core/model"
)

// either is one of several values, or one of several types. Of those that are
// not known nothing is said; where only one is, it is that.
func (e *eval) either(f *file, n *model.ChainNode) value {
	union, first := &typ{kind: tUnion}, nothing
	types := true
	add := func(node int32) {
		v := e.follow(f, node)
		t := e.asType(v)
		if t == nil {
			t = e.typeOf(v)
			types = types && t == nil
		}
		switch {
		case t == nil:
		case t.kind == tUnion:
			union.of = append(union.of, t.of...)
		case !slices.ContainsFunc(union.of, func(o *typ) bool { return o.kind == tNamed && t.kind == tNamed && o.key == t.key }):
			union.of = append(union.of, t)
		default:
			return
		}
		if first.kind == vNone {
			first = v
		}
	}
	add(n.From)
	for _, more := range strings.Split(f.body.Name(n), ",") {
		if k, err := strconv.Atoi(more); err == nil && k < len(f.body.Nodes) && len(union.of) < maxUnion {
			add(int32(k))
		}
	}
	switch {
	case len(union.of) < 2:
		return first
	case types:
		return value{kind: vType, typ: union}
	}
	return instance(union)
}

// maxUnion bounds of how many types one value may be.
const maxUnion = 12

// others are the further members that a chain may lead to where what it goes
// on from is one of several.
func (e *eval) others(f *file, node int32, told value) (out []value) {
	n := &f.body.Nodes[node]
	if n.Op != model.ChainMember && n.Op != model.ChainOnly || n.From < 0 {
		return nil
	}
	t := e.under(e.typeOf(e.node(f, n.From)), func(t *typ) bool { return t.kind == tUnion })
	if t == nil {
		return nil
	}
	for _, one := range t.of {
		v := e.member(instance(one), f.body.Name(n))
		if (v.kind == vDef || v.kind == vMember) && !v.same(told) && !slices.ContainsFunc(out, v.same) {
			out = append(out, v)
		}
	}
	return out
}
