package charter

import (
	"maps"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/reading"
)

// fewestHeld is from how many interfaces that others implement on a direction is
// told: one alone may be chance.
const fewestHeld = 2

// learned writes a charter of rings from direction: what others implement the
// interfaces of lies inside, those others outside, what uses both outermost. It is
// nil where the code tells no such direction. What goes from inside outwards is
// allowed by none of it, whatever the code does.
func learned(s *model.Survey, j *model.Judgement) *Charter {
	l := &learner{of: unitsOf(j)}
	l.look(reading.Of(s, j.InScope, j.Roles))
	core := l.core()
	if len(core) == 0 {
		return nil
	}
	ring := map[string]int{} // 0 is the core
	for _, u := range core {
		ring[u] = 0
	}
	inside := slices.Clone(core)
	for len(inside) > 0 { // what the core needs is of the core, unless it implements what the core asks for
		u := inside[0]
		inside = inside[1:]
		for to := range l.needs[u] {
			if _, known := ring[to]; !known && !l.implements[to] {
				ring[to] = 0
				inside = append(inside, to)
			}
		}
	}
	for u := range l.units {
		if _, known := ring[u]; known {
			continue
		}
		ring[u] = 1 // it uses the core alone
		if l.implements[u] {
			ring[u] = 2
		}
	}
	needed := map[string]bool{}
	for _, to := range l.needs {
		for u := range to {
			needed[u] = true
		}
	}
	for u := range l.units {
		// What others need is no outermost ring: that it uses adapters is a way outwards.
		uses := func(to string) bool { return ring[to] == 2 }
		if ring[u] == 1 && !needed[u] && slices.ContainsFunc(slices.Collect(maps.Keys(l.needs[u])), uses) {
			ring[u] = 3 // it puts them together
		}
	}
	return l.charter(ring)
}

// learner is what the direction is told from.
type learner struct {
	of         func(p string) string
	units      map[string]bool
	needs      map[string]map[string]bool
	held       map[string]map[string]bool // by unit: interfaces of it that others implement
	implements map[string]bool            // units that implement interfaces of others
	by         map[[2]string]bool         // unit that implements, unit whose interface it is
}

// unitsOf tells the unit that a path lies in: the folder of the levels.
func unitsOf(j *model.Judgement) func(p string) string {
	unit := map[string]bool{}
	for _, level := range j.Levels {
		for _, d := range level {
			unit[d] = true
		}
	}
	return func(p string) string {
		for d := path.Dir(p); d != "."; d = path.Dir(d) {
			if unit[d] {
				return d
			}
		}
		return ""
	}
}

func (l *learner) look(r *reading.Reading) {
	l.units, l.needs, l.held = map[string]bool{}, map[string]map[string]bool{}, map[string]map[string]bool{}
	l.implements, l.by = map[string]bool{}, map[[2]string]bool{}
	for _, e := range r.Edges() {
		if !orders(e.Kind) || e.FromRole == model.RoleTest {
			continue
		}
		a, b := l.of(e.From), l.of(e.To)
		if a == "" || b == "" {
			continue
		}
		l.units[a], l.units[b] = true, true
		if a == b {
			continue
		}
		put(l.needs, a, b)
	}
	// What a class builds upon is told besides the import that brings it.
	for i := range r.Links {
		k := &r.Links[i]
		a, b := l.of(k.From), l.of(k.To)
		if k.Kind != model.LinkInheritance || !r.Judged[k.From] || r.IsTest(k.From) || a == "" || b == "" || a == b {
			continue
		}
		if holdsInterface(r.File(k.To), k.Names) {
			put(l.held, b, k.To)
			l.implements[a] = true
			l.by[[2]string{a, b}] = true
		}
	}
}

func put(m map[string]map[string]bool, k, v string) {
	if m[k] == nil {
		m[k] = map[string]bool{}
	}
	m[k][v] = true
}

// holdsInterface reports whether a file defines an interface, one of the names where
// these are told.
func holdsInterface(f *model.File, names []string) bool {
	if f == nil || f.Facts == nil {
		return false
	}
	return slices.ContainsFunc(f.Facts.Definitions, func(d model.Definition) bool {
		return d.Kind == model.DefInterface && (len(names) == 0 || slices.Contains(names, d.Name))
	})
}

// core are the units whose interfaces others implement, and that mostly need none of
// those: a unit that needs most of its implementers is no inside.
func (l *learner) core() (out []string) {
	held := 0
	for u, interfaces := range l.held {
		outside, needed := 0, 0
		for pair := range l.by {
			if pair[1] == u {
				outside++
				if l.needs[u][pair[0]] {
					needed++
				}
			}
		}
		if 2*needed <= outside && !l.implements[u] {
			out = append(out, u)
			held += len(interfaces)
		}
	}
	if held < fewestHeld {
		return nil
	}
	slices.Sort(out)
	return out
}

// ringNames are the rings by how far out they lie.
var ringNames = []string{"core", "application", "adapters", "outermost"}

// charter writes the rings, the outermost first; each may depend on all inside it.
func (l *learner) charter(ring map[string]int) *Charter {
	c := &Charter{Rings: true, Layers: []Layer{}, Apart: []Area{}, Exceptions: []Exception{}, Thresholds: map[string]float64{}}
	c.fillNames()
	for n := len(ringNames) - 1; n >= 0; n-- {
		x := Layer{Name: ringNames[n], Holds: []string{}, May: []string{}}
		for _, u := range slices.Sorted(maps.Keys(l.units)) {
			if ring[u] == n {
				x.Holds = append(x.Holds, u+"/**")
			}
		}
		if len(x.Holds) > 0 {
			c.Layers = append(c.Layers, x)
		}
	}
	for i := range c.Layers {
		for _, inner := range c.Layers[i+1:] {
			c.Layers[i].May = append(c.Layers[i].May, inner.Name)
		}
	}
	return c
}

// layerName is what a folder is called as a layer.
func layerName(folder string, used map[string]bool) string {
	name := strings.Join(naming.Words(path.Base(folder)), "-")
	if name == "" || used[name] {
		name = strings.ReplaceAll(folder, "/", "-")
	}
	used[name] = true
	return name
}
