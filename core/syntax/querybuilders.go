package syntax

import (
	"strings"

	"jantel/core/model"
)

// What is done by chains of calls in which the table is an argument or a text of
// its own: select().from(lots), update(lots).set(…), resultset('Lot')->search(…),
// and by calls with nothing but a block behind them: Lots.insert { … }.

// chainDoes are the calls behind a set of rows, with what each does.
var chainDoes = map[string]string{
	"create": model.Create, "new_result": model.Create, "populate": model.Create, "find_or_create": model.Create,
	"search": model.Read, "find": model.Read, "single": model.Read, "all": model.Read, "first": model.Read, "count": model.Read,
	"update": model.Update, "update_all": model.Update, "update_or_create": model.Update, "delete": model.Delete, "delete_all": model.Delete,
}

// blockDoes are calls of tables that a block alone may stand behind.
var blockDoes = map[string]string{
	"insert": model.Create, "insertAndGetId": model.Create, "insertIgnore": model.Create, "batchInsert": model.Create, "upsert": model.Update,
	"select": model.Read, "selectAll": model.Read, "update": model.Update, "deleteWhere": model.Delete, "deleteAll": model.Delete,
}

// rowSets are calls that name a set of rows by a text.
var rowSets = Set("resultset", "rs", "ResultSet")

func init() {
	for n := range chainDoes {
		operSieve.add(n)
	}
	for n := range blockDoes {
		operSieve.add(n)
	}
	for n := range rowSets {
		names[n] = true
		namesSieve.add(n)
	}
	names["from"], names["table"] = true, true
	namesSieve.add("from")
	namesSieve.add("table")
}

// doneTo keeps what is done to something that is kept.
func (t *traiter) doneTo(entity, what string, i int, byName bool) {
	if entity != "" && what != "" && len(entity) < 80 && len(t.f.Operations) < maxTraits {
		t.f.Operations = append(t.f.Operations, model.OperationFact{
			Entity: entity, What: what, Line: t.s.Line(i), ByName: byName, By: t.s.Text(i),
		})
	}
}

// built reads the calls of those that build a statement by a chain. It reports
// whether the call was one.
func (t *traiter) built(i int, name string, args [][2]int) bool {
	switch {
	case rowSets[name]:
		if text, ok := t.text(args[0][0]); ok {
			t.rowSet(i, text[strings.LastIndexByte(text, ':')+1:])
		}
		return true
	case name == "from":
		t.doneTo(t.selectedFrom(i), model.Read, i, true)
		return true
	case name == "table":
		return t.receiver(i) == "PACKAGE__" && t.ofPackage(i)
	}
	return false
}

// rowSet reads what is done behind a set of rows, and what the result stands for.
func (t *traiter) rowSet(i int, entity string) {
	s := t.s
	said := ""
	for k := s.Close(i + 1); ; {
		k = skipArrow(s, k+1)
		what := ""
		if k > 0 && s.IsIdent(k) {
			what = chainDoes[s.Text(k)]
		}
		if what == "" {
			break
		}
		if what != said { // search(…)->first reads once
			t.doneTo(entity, what, k, false)
			said = what
		}
		if !s.Is(k+1, "(") {
			break
		}
		k = s.Close(k + 1)
	}
	for k := i; k > i-14 && k > 0; k-- {
		if s.Is(k, "=") && s.IsIdent(k-1) {
			t.stands[strings.TrimLeft(s.Text(k-1), "$")] = standsFor{entity: entity}
			return
		}
		if s.Any(k, ";", "{", "}") {
			return
		}
	}
}

// skipArrow is the token behind an arrow or a dot at k; 0 where none is.
func skipArrow(s *Stream, k int) int {
	switch {
	case s.Any(k, "->", "."):
		return k + 1
	case s.Match(k, "-", ">"):
		return k + 2
	}
	return 0
}

// selectedFrom is the table in select(…).from(lots); "" where that is not read so.
func (t *traiter) selectedFrom(i int) string {
	s := t.s
	if !s.Is(i-1, ".") || !s.Is(i-2, ")") {
		return ""
	}
	if m := int(s.Tokens[i-2].Match); m < 1 || !s.Any(m-1, "select", "selectDistinct") {
		return ""
	}
	args := s.Args(i + 1)
	if len(args) != 1 || args[0][1]-args[0][0] != 1 || !s.IsIdent(args[0][0]) {
		return ""
	}
	return s.Text(args[0][0])
}

// updated is the table in update(lots).set(…); "" where that is not read so.
func (t *traiter) updated(i, open int) string {
	s := t.s
	args := s.Args(open)
	if len(args) != 1 || args[0][1]-args[0][0] != 1 || !s.IsIdent(args[0][0]) || !s.Match(s.Close(open)+1, ".", "set") {
		return ""
	}
	return s.Text(args[0][0])
}

// ofPackage keeps the class of a file whose table is named: __PACKAGE__->table('lots').
func (t *traiter) ofPackage(i int) bool {
	for k := range t.f.Definitions {
		d := &t.f.Definitions[k]
		if d.Kind != model.DefClass && d.Kind != model.DefNamespace {
			continue
		}
		name := d.Name[strings.LastIndexAny(d.Name, ":.")+1:]
		t.f.Entities = append(t.f.Entities, model.EntityFact{Name: name, Line: d.Line, From: "model"})
		return true
	}
	return false
}

// withBlock reads Lots.insert { … } and Lots.deleteWhere { … }.
func (t *traiter) withBlock(i int) {
	what := blockDoes[t.s.Text(i)]
	if what == "" {
		return
	}
	if name, found := t.entityBefore(i, false); found {
		t.doneTo(name, what, i, true)
	}
}
