package relations

import (
	"cmp"
	"regexp"
	"slices"
	"strings"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/naming"
)

// written adds the tables that nothing here declares and statements name: those that
// one of them writes, or that two and more read.
func written(s *model.Survey, at map[string]*model.Entity) {
	type named struct {
		first model.Entity
		reads int
		write bool
	}
	found := map[string]*named{}
	for _, f := range s.Files {
		if f.Facts == nil || f.Skipped != "" || len(f.Facts.Cases) > 0 {
			continue
		}
		for _, o := range f.Facts.Operations {
			k := key(o.Entity)
			if !o.Written || k == "" || at[k] != nil {
				continue
			}
			n := found[k]
			if n == nil {
				n = &named{first: model.Entity{Name: o.Entity, Path: f.Path, Line: o.Line}}
				found[k] = n
			}
			n.write = n.write || o.What != model.Read
			n.reads++
		}
	}
	for k, n := range found {
		if n.write || n.reads > 1 {
			n.first.Operations = map[string][]model.Evidence{}
			at[k] = &n.first
		}
	}
}

// Entities lists what the code keeps, by name, with the places that create,
// read, update and delete it. A model and the table it is kept in are one:
// number, case and the way words are joined make no difference.
func Entities(s *model.Survey) []model.Entity {
	at := map[string]*model.Entity{}
	rank := map[string]int{"model": 0, "schema": 1, "table": 2}
	best := map[string]int{}
	for _, f := range s.Files {
		if f.Facts == nil || f.Skipped != "" {
			continue
		}
		for _, e := range f.Facts.Entities {
			k := key(e.Name)
			if k == "" {
				continue
			}
			if at[k] == nil || rank[e.From] < best[k] {
				old := at[k]
				at[k] = &model.Entity{Name: e.Name, Path: f.Path, Line: e.Line, Operations: map[string][]model.Evidence{}}
				if old != nil {
					at[k].Operations = old.Operations
				}
				best[k] = rank[e.From]
			}
		}
	}
	written(s, at)
	if len(at) == 0 {
		return []model.Entity{}
	}
	bodies, g := bodiesOf(s), calls.Of(s)
	for i, f := range s.Files {
		if f.Facts == nil || f.Skipped != "" {
			continue
		}
		for _, o := range f.Facts.Operations {
			e := at[key(o.Entity)]
			if e == nil || o.Via != "" && bodies[o.Via] || o.By != "" && ownCall(s, g, i, o, e) {
				continue
			}
			places, place := e.Operations[o.What], model.Evidence{Path: f.Path, Line: o.Line}
			if n := len(places); n < maxPlaces && (n == 0 || places[n-1] != place) {
				e.Operations[o.What] = append(places, place)
			}
		}
	}
	out := make([]model.Entity, 0, len(at))
	for k, e := range at {
		// An object mapper does without a statement that could be seen: that
		// none was found says nothing of it.
		if len(e.Operations) == 0 && best[k] == rank["model"] {
			e.Operations = nil
		}
		out = append(out, *e)
	}
	slices.SortFunc(out, func(a, b model.Entity) int {
		return cmp.Or(cmp.Compare(a.Name, b.Name), cmp.Compare(a.Path, b.Path), cmp.Compare(a.Line, b.Line))
	})
	return out
}

// ownCall reports whether what seems to be asked of a mapper is a call of the
// codebase's own: a definition of that name that stands elsewhere than the model.
func ownCall(s *model.Survey, g *calls.Graph, file int, o model.OperationFact, of *model.Entity) bool {
	for _, e := range g.From(g.At(file, o.Line)) {
		if int(e.Line) != o.Line || !e.Sure || e.Kind == model.CallRead || e.To.Definition < 0 || e.To.Member != 0 {
			continue
		}
		if d := g.Definition(e.To); d != nil && d.Name == o.By && g.Path(e.To) != of.Path && !promised(s.Files[e.To.File].Facts, d) {
			return true
		}
	}
	return false
}

// promised reports whether a method stands in an interface: what it does is
// written elsewhere, or made up by the mapper.
func promised(f *model.Facts, d *model.Definition) bool {
	return slices.ContainsFunc(f.Definitions, func(of model.Definition) bool {
		return of.Kind == model.DefInterface && of.Qualified() == d.Parent
	})
}

// repositories are names of classes that keep things.
var repositories = regexp.MustCompile(`(?:[Rr]epository|[Rr]epo|[Dd]ao|DAO|[Mm]apper)$`)

// bodiesOf holds the methods of such classes, by their qualified names: what a
// repository of the codebase's own does stands in its body.
func bodiesOf(s *model.Survey) map[string]bool {
	classes, out := map[string]bool{}, map[string]bool{}
	for _, f := range s.Files {
		if f.Facts == nil {
			continue
		}
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			switch {
			case d.Kind == model.DefClass && repositories.MatchString(d.Name):
				classes[d.Name] = true
			case d.Kind == model.DefMethod && classes[d.Parent]:
				out[d.Parent+"."+d.Name] = true
			}
		}
	}
	return out
}

// maxPlaces bounds the places kept of each operation.
const maxPlaces = 200

// key is a name without its case and number: Lot, lots and LOTS are one.
func key(name string) string {
	name = name[strings.LastIndexAny(name, ".:\\")+1:]
	words := naming.Words(name)
	if len(words) == 0 {
		return ""
	}
	for i := range words {
		words[i] = strings.ToLower(words[i])
	}
	words[len(words)-1] = naming.Singular(words[len(words)-1])
	return strings.Join(words, "")
}
