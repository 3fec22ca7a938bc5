package calls

import (
	"jantel/core/model"
)

// Scripts that a page loads one after the other take nothing in and hand nothing
// out: what one writes at its top, or puts on an object at its top, all others
// know by its name.

// loose reports whether the names at the top of a file are known to all such.
func (f *file) loose() bool {
	return f.profile.Loose(f.facts)
}

// globally gathers what such files define, by qualified names.
func (w *world) globally() {
	w.globals = map[string][]place{}
	for _, f := range w.files {
		if f == nil || !f.loose() {
			continue
		}
		for i := range f.facts.Definitions {
			d := &f.facts.Definitions[i]
			if d.Parent == "" && f.facts.Closed || !typeLike(d.Kind) && d.Kind != model.DefFunction && d.Kind != model.DefComponent {
				continue
			}
			w.globals[d.Qualified()] = append(w.globals[d.Qualified()], place{f, int32(i)})
		}
	}
}

// global is what a chain of names leads to in the other scripts of a page; nothing
// where several define it.
func (e *eval) global(f *file, n *model.ChainNode) value {
	name := f.body.Name(n)
	for at := n; at.Op == model.ChainMember && at.From >= 0; name = f.body.Name(at) + "." + name {
		if at = &f.body.Nodes[at.From]; at.Op != model.ChainMember && at.Op != model.ChainName {
			return nothing
		}
	}
	if all := f.world.globals[name]; len(all) == 1 {
		return defined(all[0].file.unit, all[0].def().Qualified(), all[0])
	}
	return nothing
}
