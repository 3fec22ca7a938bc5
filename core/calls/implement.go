package calls

import (
	"slices"
	"strings"

	"jantel/core/model"
)

// implementers are the methods that may answer where a member of an interface
// is called: those of each type that has all members of the interface with the
// same signatures. None where there are too many for that to say anything.
func (w *world) implementers(v value) (all []Ref) {
	w.once.Do(w.gather)
	e := &eval{profile: v.place.file.profile}
	wanted := map[string]string{}
	if !e.members(typeKey{v.unit, v.name}, wanted, 0) {
		return nil
	}
	for _, k := range w.owners[v.member] {
		if !e.has(k, wanted) {
			continue
		}
		if len(all) == maxImplementers {
			return nil
		}
		all = append(all, defined(k.unit, k.name, k.unit.defs[k.name+"."+v.member]).ref())
	}
	slices.SortFunc(all, compareRefs)
	return all
}

// gather lists which types have a method of a name.
func (w *world) gather() {
	w.owners = map[string][]typeKey{}
	for _, u := range w.units {
		for q, p := range u.defs {
			d := p.def()
			if d.Kind == model.DefMethod && d.Parent != "" {
				w.owners[d.Name] = append(w.owners[d.Name], typeKey{u, strings.TrimSuffix(q, "."+d.Name)})
			}
		}
	}
}

// members gathers the members of an interface with their signatures, of those
// it embeds too. It reports false where one of them stands outside.
func (e *eval) members(k typeKey, into map[string]string, depth int) bool {
	if depth > 8 {
		return false
	}
	for _, f := range k.unit.files {
		for i := range f.body.Shapes {
			if s := &f.body.Shapes[i]; s.Kind == model.ShapeMethod && s.Owner == k.name {
				into[s.Name] = s.Text
			}
		}
	}
	for _, b := range k.unit.bases[k.name] {
		t := e.asType(e.follow(b.file, b.shape.Node))
		if t == nil || t.kind != tNamed || !e.members(t.key, into, depth+1) {
			return false
		}
	}
	return true
}

// has reports whether a type has all these members with these signatures.
func (e *eval) has(k typeKey, wanted map[string]string) bool {
	for name, text := range wanted {
		e.steps, e.cut = 0, false
		v := e.find(k, name, 0)
		if v.kind != vDef {
			return false
		}
		s, ok := v.unit.shape(v.name, model.ShapeResult, 0)
		if !ok || s.shape.Text != text {
			return false
		}
	}
	return true
}
