package wiring

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/reading"
)

// What may be wrong with what is handed out.
const (
	// Twice: several things are handed out for one in the same module, by calls of
	// which the last one counts.
	Twice = "handed out twice"
	// Never: what is handed out itself asks for it, and nothing hands it out.
	Never = "handed out by nothing"
	// Outlived: something that is kept for good asks for what lives for one request.
	Outlived = "kept by what lives longer"
)

// Handed is a type that is asked for, with what is handed out for it.
type Handed struct {
	For    string         `json:"for"`
	Module string         `json:"module"`
	By     []model.Wiring `json:"by"`
	Askers []Asker        `json:"askers"`
	Wrong  []string       `json:"wrong" enum:"handed out twice,handed out by nothing,kept by what lives longer"`
}

// Asker is a class that is handed out itself and has a field of the type.
type Asker struct {
	Name     string `json:"name"`
	Path     string `json:"path"`
	Line     int    `json:"line"`
	Lifetime string `json:"lifetime" doc:"how long it lives itself; empty where it is not told"`
}

type handedKey struct{ module, name string }

// joiner joins what is handed out with who asks for it.
type joiner struct {
	r          *reading.Reading
	module     func(path string) string
	rows       map[handedKey]*Handed
	managed    map[handedKey]string // classes that are handed out, with how long they live
	interfaces map[handedKey]bool   // those with somebody in the tree who has them
	wired      map[string]bool      // modules in which anything is handed out
}

// Join tells of each type that is handed out or asked for in a module who hands it
// out, who asks, and what may be wrong; what is wrong first. Types are joined by
// their names within a module.
func Join(r *reading.Reading, module func(path string) string) []Handed {
	j := &joiner{r: r, module: module, rows: map[handedKey]*Handed{}, managed: map[handedKey]string{},
		interfaces: map[handedKey]bool{}, wired: map[string]bool{}}
	for _, w := range Of(r) {
		m := module(w.Path)
		j.wired[m] = true
		row := j.row(handedKey{m, last(w.For)})
		row.By = append(row.By, w)
		if w.Provides != "" {
			j.managed[handedKey{m, last(w.Provides)}] = w.Lifetime
		}
	}
	j.abstract()
	for _, f := range r.Files {
		if f.Facts != nil && r.Judged[f.Path] && !r.IsTest(f.Path) && j.wired[module(f.Path)] {
			j.asks(f)
		}
	}
	return j.done()
}

func last(name string) string { return name[strings.LastIndexAny(name, `.\:`)+1:] }

func (j *joiner) row(k handedKey) *Handed {
	if j.rows[k] == nil {
		j.rows[k] = &Handed{For: k.name, Module: k.module, By: []model.Wiring{}, Askers: []Asker{}, Wrong: []string{}}
	}
	return j.rows[k]
}

// abstract notes the interfaces of modules that some class there says it has.
func (j *joiner) abstract() {
	had := map[string]bool{}
	for _, f := range j.r.Files {
		if f.Facts == nil || !j.r.Judged[f.Path] || j.r.IsTest(f.Path) {
			continue
		}
		for i := range f.Facts.Definitions {
			for _, b := range f.Facts.Definitions[i].Bases {
				b, _, _ = strings.Cut(b, "<")
				had[last(b)] = true
			}
		}
	}
	for _, f := range j.r.Files {
		if f.Facts == nil || !j.r.Judged[f.Path] {
			continue
		}
		for i := range f.Facts.Definitions {
			if d := &f.Facts.Definitions[i]; d.Kind == model.DefInterface && had[d.Name] {
				j.interfaces[handedKey{j.module(f.Path), d.Name}] = true
			}
		}
	}
}

// asks adds the fields of the classes of a file that are handed out themselves.
func (j *joiner) asks(f *model.File) {
	m := j.module(f.Path)
	lines := map[string]int{}
	for i := range f.Facts.Definitions {
		d := &f.Facts.Definitions[i]
		if _, ok := j.managed[handedKey{m, d.Name}]; ok && d.Kind == model.DefClass {
			lines[d.Qualified()] = d.Line
		}
	}
	if len(lines) == 0 {
		return
	}
	body, err := model.UnpackBody(f.Facts.Body)
	if err != nil {
		return // what bodies do is not known of it
	}
	for _, s := range body.Shapes {
		line, ok := lines[s.Owner]
		if s.Kind != model.ShapeValue || !ok {
			continue
		}
		k := handedKey{m, typeOf(body, s.Node)}
		if j.rows[k] == nil && !j.interfaces[k] {
			continue
		}
		a := Asker{Name: s.Owner, Path: f.Path, Line: line, Lifetime: j.managed[handedKey{m, last(s.Owner)}]}
		if row := j.row(k); !slices.Contains(row.Askers, a) {
			row.Askers = append(row.Askers, a)
		}
	}
}

// typeOf is the name of the type that a chain ends in a value of, "" where it is
// none that is named.
func typeOf(body *model.Body, n int32) string {
	for steps := 0; n >= 0 && int(n) < len(body.Nodes) && steps < 8; steps++ {
		switch c := &body.Nodes[n]; c.Op {
		case model.ChainInstance, model.ChainList:
			n = c.From
		case model.ChainName, model.ChainTaken, model.ChainType, model.ChainMember:
			name := body.Name(c)
			return last(name[strings.LastIndexByte(name, ' ')+1:])
		default:
			return ""
		}
	}
	return ""
}

// short are the lifetimes of what lives for one request.
var short = map[string]bool{"scoped": true, "request": true, "session": true}

func (j *joiner) done() []Handed {
	out := make([]Handed, 0, len(j.rows))
	for _, row := range j.rows {
		row.judge()
		slices.SortFunc(row.Askers, func(a, b Asker) int {
			return cmp.Or(strings.Compare(a.Path, b.Path), cmp.Compare(a.Line, b.Line))
		})
		out = append(out, *row)
	}
	slices.SortFunc(out, func(a, b Handed) int {
		return cmp.Or(cmp.Compare(min(len(b.Wrong), 1), min(len(a.Wrong), 1)), strings.Compare(a.Module, b.Module), strings.Compare(a.For, b.For))
	})
	return out
}

func (h *Handed) judge() {
	byHand := map[string]bool{}
	brief := len(h.By) > 0
	for _, w := range h.By {
		if !strings.HasPrefix(w.How, "@") && !strings.HasPrefix(w.How, "Try") && !strings.HasSuffix(w.How, "If") {
			byHand[cmp.Or(w.Provides, fmt.Sprintf("%s:%d", w.Path, w.Line))] = true
		}
		brief = brief && short[w.Lifetime]
	}
	if len(byHand) > 1 {
		h.Wrong = append(h.Wrong, Twice)
	}
	if len(h.By) == 0 {
		h.Wrong = append(h.Wrong, Never)
	}
	if brief && slices.ContainsFunc(h.Askers, func(a Asker) bool { return a.Lifetime == "singleton" }) {
		h.Wrong = append(h.Wrong, Outlived)
	}
}
