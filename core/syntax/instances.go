package syntax

import (
	"slices"
	"strings"

	"jantel/core/model"
)

// What is done to one of what is kept (lot.save()), and what is asked of who
// keeps it (lotRepository.find(), em.persist(lot)). What a name stands for is
// told by where it is declared or built, else by the name itself: a name that
// means nothing that is kept is dropped when the tree is joined.

// instanceDoes are operations of an instance on itself. What is saved the first
// time is made by it.
var instanceDoes = map[string]string{
	"save": model.Update, "save!": model.Update, "Save": model.Update, "update": model.Update, "update!": model.Update,
	"destroy": model.Delete, "destroy!": model.Delete, "delete": model.Delete, "remove": model.Delete, "forceDelete": model.Delete,
	"reload": model.Read, "refresh": model.Read, "deleteOne": model.Delete, "updateOne": model.Update, "fill": model.Update,
	"update_attribute": model.Update, "update_attributes": model.Update, "update_attributes!": model.Update,
	"update_column": model.Update, "update_columns": model.Update, "touch": model.Update,
}

// withValues are those that are handed what they set, on whatever name.
var withValues = Set("update", "update!", "update_attribute", "update_attributes", "update_attributes!", "update_column", "update_columns")

// noKeepers hold things that no mapper keeps.
var noKeepers = Set("cookies", "params", "headers", "flash", "cache", "seen", "visited")

// keeperDoes are operations that a keeper does to what it is handed.
var keeperDoes = map[string]string{
	"persist": model.Create, "merge": model.Update, "add": model.Create, "remove": model.Delete, "delete": model.Delete,
	"save": model.Update, "saveAll": model.Update, "saveAndFlush": model.Update, "insert": model.Create, "update": model.Update,
	"Add": model.Create, "Update": model.Update, "Remove": model.Delete, "Create": model.Create, "Save": model.Update,
	"Find": model.Read, "First": model.Read, "Take": model.Read, "Delete": model.Delete, "Insert": model.Create, "Updates": model.Update,
}

// repositoryDoes are operations of a repository, which knows what it keeps.
var repositoryDoes = map[string]string{
	"save": model.Update, "saveAll": model.Update, "saveAndFlush": model.Update, "insert": model.Create, "create": model.Create,
	"update": model.Update, "upsert": model.Update, "find": model.Read, "findOne": model.Read, "findAll": model.Read, "count": model.Read,
	"get": model.Read, "findBy": model.Read, "findOneBy": model.Read, "delete": model.Delete, "remove": model.Delete,
	"softDelete": model.Delete, "deleteAll": model.Delete, "add": model.Create, "existsById": model.Read, "findById": model.Read,
	"deleteById": model.Delete, "all": model.Read,
}

// derived are beginnings of names that a repository makes a query of.
var derived = []struct{ begins, what string }{
	{"findBy", model.Read}, {"findAllBy", model.Read}, {"getBy", model.Read}, {"readBy", model.Read}, {"countBy", model.Read},
	{"existsBy", model.Read}, {"queryBy", model.Read}, {"deleteBy", model.Delete}, {"removeBy", model.Delete}, {"findFirstBy", model.Read},
}

// standsFor is what a name stands for.
type standsFor struct {
	entity string
	fresh  bool // built here, and not kept yet
	keeper bool // a repository of it
	class  string
}

// keepers are ends of names of those that keep what stands before.
var keepers = []string{"Repository", "Repo", "Dao", "Mapper", "_repository", "_repo"}

// beforeMember are the signs before a member and before an argument.
var beforeMember = [256]bool{'.': true, '(': true, '{': true, ',': true}

// declared notes what a name stands for that is declared or built at a token.
func (t *traiter) declared(i int) {
	s := t.s
	if !isCapital(s.Bytes(i)) || len(t.stands) > maxTraits {
		return
	}
	if beforeMember[s.First(i-1)] && s.First(i+1) != '<' && s.Kind(i+1) != Ident {
		return // a member, an argument: most capitals, and nothing is declared
	}
	of, at := i, -1
	fresh, keeper := false, false
	switch {
	case s.Kind(i+1) == Ident && s.Line(i+1) == s.Line(i) && !isCapital(s.Bytes(i+1)):
		at = i + 1 // Lot lot, Lot $lot
	case s.Match(i, Name, "<", Name, ">") && repositoryType(s.Text(i)):
		of, keeper = i+2, true // Repository<Lot> lots, lots: Repository<Lot>
		if at = i + 4; s.Kind(at) != Ident {
			at = before(s, i)
		}
	case s.Is(i-1, "new") && s.Is(i-2, "="), s.Is(i-1, "=") && s.Is(i+1, "("):
		at, fresh = before(s, i), true // lot = new Lot(…), lot = Lot(…)
	case s.Is(i-1, "=") && s.Match(i+1, ".", "new"):
		at, fresh = i-2, true
	case s.Is(i-1, "=") || s.Is(i-1, "await") && s.Is(i-2, "="):
		if s.Match(i+1, ".", Name) && !t.gives(i+2) {
			return // words = Setting.words: a value that it holds
		}
		at = before(s, i) // lot = await Lot.findOne(…)
	default:
		at = before(s, i) // lot: Lot, lot *Lot, all []Lot
	}
	if at < 0 || s.Kind(at) != Ident || at == i {
		return
	}
	name := s.Text(of)
	class := name
	for _, k := range keepers {
		if rest, ok := strings.CutSuffix(name, k); ok && rest != "" {
			name, keeper = rest, true
		}
	}
	t.stands[strings.TrimLeft(s.Text(at), "$&@")] = standsFor{name, fresh, keeper, class}
}

// gives reports whether a member of an entity hands out one of them, or some.
func (t *traiter) gives(i int) bool {
	w := t.s.Text(i)
	return asks[w] || operations[w] != "" || isCapital(t.s.Bytes(i)) || mayDerive(t.s.Bytes(i)) ||
		strings.HasPrefix(w, "find") || strings.HasPrefix(w, "build")
}

// before is the name that a type or a value at a token is of, -1 for none.
func before(s *Stream, i int) int {
	for k := i - 1; k > i-6 && k >= 0; k-- {
		switch {
		case s.Is(k, "]") && !s.Is(k-1, "["), s.Is(k, "&") && s.Is(k-1, "&"):
			return -1 // lots[at] && Lot.any?
		case s.Any(k, ":", "*", "[", "]", "=", "new", "await", "?", "&"):
		case s.Kind(k) == Ident && s.Line(k) == s.Line(i):
			return k
		default:
			return -1
		}
	}
	return -1
}

func repositoryType(name string) bool {
	return strings.HasSuffix(name, "Repository") || name == "DbSet" || name == "Model" || name == "EntityRepository"
}

// onInstance keeps what is done by a call whose chain names no entity.
func (t *traiter) onInstance(i, open int) {
	s := t.s
	word := s.Text(i)
	what, entity, via := "", "", ""
	if t.keeps(word, open) {
		entity, what = t.handed(open), keeperDoes[word]
	} else if on := t.receiver(i); on != "" {
		x, known := t.stands[strings.TrimLeft(on, "$@")]
		if !known {
			x = standsFor{entity: strings.TrimLeft(on, "$@")}
			for _, k := range keepers {
				if rest, ok := strings.CutSuffix(x.entity, k); ok && rest != "" {
					x.class, x.entity, x.keeper = strings.ToUpper(x.entity[:1])+x.entity[1:], rest, true
				}
			}
		}
		switch {
		case x.keeper:
			entity, what, via = x.entity, repositoryDoes[word], x.class+"."+word
			for _, d := range derived {
				if what == "" && strings.HasPrefix(word, d.begins) && len(word) > len(d.begins) {
					what = d.what
				}
			}
		case len(s.Args(open)) == 0 || known || withValues[word]:
			entity, what = x.entity, instanceDoes[word]
			if x.fresh && what == model.Update {
				what = model.Create
				x.fresh = false
				t.stands[strings.TrimLeft(on, "$@")] = x
			}
		}
	}
	if (what == "" || entity == "") && !noKeepers[t.receiver(i)] {
		entity, what = t.handed(open), keeperDoes[word]
	}
	if what != "" && entity != "" && len(entity) < 80 && len(t.f.Operations) < maxTraits {
		t.f.Operations = append(t.f.Operations, model.OperationFact{
			Entity: entity, What: what, Line: s.Line(i), ByName: true, Via: via, By: s.Text(i),
		})
		k := i - 2
		field := s.First(k) == '@' || s.Is(k-1, ".") && s.Any(k-2, "this", "self")
		if field && s.Is(i-1, ".") && entity == strings.TrimLeft(s.Text(k), "@") {
			t.fields = append(t.fields, len(t.f.Operations)-1)
		}
	}
}

// later names what is done to fields that are set further down than they are used,
// and makes what an action called create saves.
func (t *traiter) later() {
	for _, n := range t.fields {
		if x, ok := t.stands[t.f.Operations[n].Entity]; ok && !x.keeper {
			t.f.Operations[n].Entity = x.entity
		}
	}
	if !t.s.Ends {
		return
	}
	for i := range t.f.Operations {
		if o := &t.f.Operations[i]; o.What == model.Update && (o.By == "save" || o.By == "save!") && t.within("create", o.Line) {
			o.What = model.Create
		}
	}
}

// within reports whether a line stands in a definition of such a name.
func (t *traiter) within(name string, line int) bool {
	return slices.ContainsFunc(t.f.Definitions, func(d model.Definition) bool {
		return d.Name == name && line >= d.Line && line <= d.EndLine
	})
}

// keeps reports whether a keeper is handed one of what is kept, as declared.
func (t *traiter) keeps(word string, open int) bool {
	if keeperDoes[word] == "" {
		return false
	}
	args := t.s.Args(open)
	if len(args) == 0 || args[0][1] <= args[0][0] {
		return false
	}
	x, ok := t.stands[strings.TrimLeft(t.s.Text(args[0][1]-1), "$&")]
	return ok && !x.keeper && args[0][1]-args[0][0] <= 2
}

// handed is what the first argument of a call stands for: a name alone.
func (t *traiter) handed(open int) string {
	s := t.s
	args := s.Args(open)
	if len(args) == 0 {
		return ""
	}
	at, end := args[0][0], args[0][1]
	for at < end && s.Any(at, "&", "*") {
		at++
	}
	if end-at != 1 || s.Kind(at) != Ident {
		return ""
	}
	name := strings.TrimLeft(s.Text(at), "$&")
	if x, ok := t.stands[name]; ok {
		return x.entity
	}
	return name
}
