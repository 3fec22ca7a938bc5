package calls

import (
	"slices"
	"strings"

	"jantel/core/model"
)

// implementers are the methods that may answer where a member of an interface
// is called: those of each type that has all members of the interface with the
// same signatures. None where there are too many for that to say anything. What a
// member is asked of says more than where it is from: only what is built upon that
// may answer; on is nil where it is not known.
func (w *world) implementers(v value, on *typ) (all []Ref) {
	w.once.Do(w.gather)
	key := v.name + "\x00" + v.member + "\x00" + v.place.file.path
	if on != nil {
		key += "\x00" + on.key.name + "\x00" + on.key.unit.files[0].path
	}
	if known, ok := w.answers.Load(key); ok {
		return known.([]Ref)
	}
	defer func() { w.answers.Store(key, all) }()
	if v.kind == vDef {
		owner, name := cutLast(v.name)
		return w.answering(on, typeKey{v.unit, owner}, name)
	}
	if v.place.file.profile.Inherits {
		return w.answering(on, typeKey{v.unit, v.name}, v.member)
	}
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

// answering are the members that may answer one of a type when it is asked of what
// is built upon that. What an interface promises and nothing below provides is
// handed to something else that does.
func (w *world) answering(on *typ, owner typeKey, name string) []Ref {
	if on == nil {
		return w.overriders(owner, name)
	}
	all := w.overriders(on.key, name)
	if p := owner.unit.defs[owner.name]; len(all) == 0 && p.file != nil && p.def().Kind == model.DefInterface {
		return w.overriders(owner, name)
	}
	return all
}

// overriders are the members of a name in the types that are built upon a type,
// directly or not. None where there are too many.
func (w *world) overriders(k typeKey, name string) (all []Ref) {
	seen := map[typeKey]bool{k: true}
	for next := []typeKey{k}; len(next) > 0; next = next[1:] {
		for _, sub := range w.subtypes[next[0]] {
			if seen[sub] {
				continue
			}
			seen[sub] = true
			next = append(next, sub)
			if p, ok := sub.unit.defs[sub.name+"."+name]; ok {
				if len(all) == maxImplementers {
					return nil
				}
				all = append(all, defined(sub.unit, sub.name+"."+name, p).ref())
			}
		}
	}
	slices.SortFunc(all, compareRefs)
	return all
}

// gather lists which types have a method of a name, and which are built upon which.
func (w *world) gather() {
	w.subtypes = map[typeKey][]typeKey{}
	for _, u := range w.units {
		for name, bases := range u.bases {
			for _, b := range bases {
				if !b.file.profile.Inherits {
					continue
				}
				e := &eval{profile: b.file.profile}
				if t := e.asType(e.node(b.file, b.shape.Node)); t != nil && t.kind == tNamed {
					w.subtypes[t.key] = append(w.subtypes[t.key], typeKey{u, name})
				}
			}
		}
	}
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
