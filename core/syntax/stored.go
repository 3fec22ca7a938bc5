package syntax

import (
	"regexp"
	"strings"

	"jantel/core/model"
)

// definers are calls that define what is kept, by a name that they are given.
var definers = Set("define", "model", "pgTable", "sqliteTable", "mysqlTable", "createTable", "create_table", "CreateTable", "create", "CreateModel", "Table", "Entity", "Schema", "DbSet")

// entityBases are what classes build upon that mappers keep.
var entityBases = Set("Model", "ApplicationRecord", "Base", "SQLModel", "Document", "EmbeddedDocument", "BaseEntity", "ActiveRecord", "Entity", "MongoModel", "PanacheEntity", "TimeStampedModel")

// entityMarks are annotations that make a class one that is kept.
var entityMarks = Set("@Entity", "Entity", "@Document", "@Table", "Table", "@entity", "@MappedSuperclass", "ORM\\Entity")

// models finds the classes that mappers keep.
func (t *traiter) models() {
	for i := range t.f.Definitions {
		d := &t.f.Definitions[i]
		if d.Kind != model.DefClass {
			continue
		}
		kept := false
		for _, m := range d.Marks {
			kept = kept || entityMarks[m]
		}
		for _, b := range d.Bases {
			simple := b
			if k := strings.LastIndexAny(b, ".:\\"); k >= 0 {
				simple = b[k+1:]
			}
			switch {
			case simple == "Base" && b != "ActiveRecord::Base":
				kept = kept || t.has(d, "__tablename__")
			case simple == "Model" || simple == "Entity":
				// Many things are called so: what they hold has to say more,
				// or the name where it stands.
				kept = kept || b != simple || t.has(d, "fillable", "table", "casts", "guarded", "objects", "Meta", "id") || t.columns(d)
			default:
				kept = kept || entityBases[simple]
			}
		}
		if kept && d.Name != "ApplicationRecord" && len(t.f.Entities) < maxTraits {
			t.f.Entities = append(t.f.Entities, model.EntityFact{Name: d.Name, Line: d.Line, From: "model"})
		}
	}
}

// has reports whether a class defines one of the names.
func (t *traiter) has(d *model.Definition, names ...string) bool {
	q := d.Qualified()
	for i := range t.f.Definitions {
		m := &t.f.Definitions[i]
		if m.Parent != q {
			continue
		}
		for _, n := range names {
			if strings.TrimPrefix(m.Name, "$") == n {
				return true
			}
		}
	}
	return false
}

// columns reports whether the class is written with columns: field calls of
// mappers stand in it.
func (t *traiter) columns(d *model.Definition) bool {
	for i := range t.s.Tokens {
		if line := int(t.s.Tokens[i].Line); line < d.Line || line > d.EndLine || t.s.Tokens[i].Kind != Ident {
			continue
		}
		if w := t.s.Text(i); t.s.Is(i+1, "(") && (strings.HasSuffix(w, "Field") || w == "Column" || w == "ForeignKey" || w == "belongsTo" || w == "hasMany" || w == "init") {
			return true
		}
	}
	return false
}

func (t *traiter) definer(i int, args [][2]int) {
	s := t.s
	name, on := s.Text(i), t.receiver(i)
	entity, from := "", "table"
	text, isText := t.text(args[0][0])
	switch name {
	case "define":
		if isText && (on == "sequelize" || on == "db" || on == "orm") {
			entity, from = text, "model"
		}
	case "model":
		if isText && (on == "mongoose" || on == "" || on == "db" || on == "connection") && len(args) > 1 {
			entity, from = text, "model"
		}
	case "pgTable", "sqliteTable", "mysqlTable":
		if isText {
			entity, from = text, "schema"
		}
	case "createTable", "create_table", "CreateTable":
		if isText {
			entity = text
		}
	case "create":
		if isText && on == "Schema" {
			entity = text
		}
	case "CreateModel":
		for _, a := range args {
			if s.Match(a[0], "name", "=") {
				entity, _ = t.text(a[0] + 2)
				from = "model"
			}
		}
	case "Table":
		if isText && (s.Is(i-1, "[") || on == "" || on == "sa" || on == "db") && len(args) > 1 && messageName.MatchString(text) {
			entity, from = text, "schema"
		}
	}
	if entity != "" && len(entity) < 80 && len(t.f.Entities) < maxTraits {
		t.f.Entities = append(t.f.Entities, model.EntityFact{Name: entity, Line: s.Line(i), From: from})
	}
}

// operations are the calls by which mappers are asked, with what each does.
var operations = map[string]string{
	"create": model.Create, "insert": model.Create, "bulkCreate": model.Create, "insertMany": model.Create, "Add": model.Create, "AddAsync": model.Create, "bulk_create": model.Create, "get_or_create": model.Create, "createMany": model.Create, "insertOne": model.Create, "create!": model.Create, "AddRange": model.Create, "Create": model.Create, "firstOrCreate": model.Create, "find_or_create_by": model.Create,
	"find": model.Read, "findAll": model.Read, "findOne": model.Read, "findByPk": model.Read, "findById": model.Read, "findMany": model.Read, "findUnique": model.Read, "findFirst": model.Read, "where": model.Read, "filter": model.Read, "all": model.Read, "get": model.Read, "first": model.Read, "find_by": model.Read, "count": model.Read, "Where": model.Read, "Find": model.Read, "FindAsync": model.Read, "First": model.Read, "FirstOrDefault": model.Read, "FirstOrDefaultAsync": model.Read, "ToListAsync": model.Read, "select": model.Read, "query": model.Read, "exclude": model.Read, "aggregate": model.Read, "paginate": model.Read, "findOrFail": model.Read, "order": model.Read, "Include": model.Read,
	"update": model.Update, "updateOne": model.Update, "updateMany": model.Update, "upsert": model.Update, "findByIdAndUpdate": model.Update, "findOneAndUpdate": model.Update, "update_all": model.Update, "Update": model.Update, "save": model.Update, "Save": model.Update, "Updates": model.Update, "updateOrCreate": model.Update,
	"delete": model.Delete, "destroy": model.Delete, "deleteOne": model.Delete, "deleteMany": model.Delete, "remove": model.Delete, "Remove": model.Delete, "findByIdAndDelete": model.Delete, "destroy_all": model.Delete, "delete_all": model.Delete, "Delete": model.Delete, "RemoveRange": model.Delete, "truncate": model.Delete,
}

// operation keeps what is asked of something that may be an entity: Lot.find(…),
// Lot.objects.filter(…), prisma.lot.update(…), db.Create(&Lot{…}), query(Lot).
func (t *traiter) operation(i, open int) {
	s := t.s
	w := s.Bytes(i)
	if !operSieve.May(w) {
		return
	}
	what, ok := operations[string(w)]
	if !ok || len(t.f.Operations) >= maxTraits {
		return
	}
	keep := func(name string) {
		if name != "" && len(name) < 80 {
			t.f.Operations = append(t.f.Operations, model.OperationFact{Entity: name, What: what, Line: s.Line(i)})
		}
	}
	// The first capital word of the chain before it, or what a client holds.
	k := i
	for steps := 0; steps < 6 && k >= 2; steps++ {
		j := k - 1
		for j > 0 && s.Kind(j) == Punct && (s.Any(j, ".", "->", "::", ":", ">", "-")) {
			j--
		}
		if j == k-1 {
			break
		}
		if s.Is(j, ")") {
			m := int(s.Tokens[j].Match)
			if m <= 0 || !s.IsIdent(m-1) {
				break
			}
			k = m - 1
			continue
		}
		if !s.IsIdent(j) {
			break
		}
		w := s.Text(j)
		if w[0] >= 'A' && w[0] <= 'Z' {
			keep(w)
			return
		}
		if p := t.receiver(j); p == "prisma" || p == "db" || p == "ctx" || p == "tx" {
			keep(w)
			return
		}
		k = j
	}
	// What it is handed: &Lot{…}, Lot, Lot{}, Lot(…)
	for n, a := range s.Args(open) {
		if n > 1 {
			return
		}
		at := a[0]
		for s.Any(at, "&", "[", "]", "new") {
			at++
		}
		if s.IsIdent(at) && at < a[1] {
			if w := s.Text(at); w[0] >= 'A' && w[0] <= 'Z' {
				keep(w)
				return
			}
		}
	}
}

var sqlUse = regexp.MustCompile(`(?i)\b(INSERT\s+(?:OR\s+\w+\s+)?INTO|UPDATE|DELETE\s+FROM|FROM|JOIN|CREATE\s+TABLE(?:\s+IF\s+NOT\s+EXISTS)?)\s+["\x60\[]?(?:\w+["\x60\]]?\.["\x60\[]?)?([A-Za-z_]\w*)`)

// statement reads the tables out of a statement of SQL.
func (t *traiter) statement(i int) {
	tok := &t.s.Tokens[i]
	if tok.End-tok.Start < 14 {
		return
	}
	text, ok := t.text(i)
	if tok.Kind == Text {
		text, ok = string(t.s.Bytes(i)), true // a text that starts on the line after its mark
	}
	if !ok || !LooksSQL(text) {
		// Perl quotes with a letter and any sign.
		if text = strings.TrimLeft(strings.TrimLeft(text, "q"), "({[|~"); !LooksSQL(text) {
			return
		}
	}
	line := int(tok.Line)
	if t.signs != nil {
		t.signs.Add(model.SignSQL, line)
	}
	for _, m := range sqlUse.FindAllStringSubmatchIndex(text, 40) {
		verb, name := strings.ToUpper(text[m[2]:m[3]]), text[m[4]:m[5]]
		at := line + strings.Count(text[:m[4]], "\n")
		what := model.Read
		switch {
		case strings.HasPrefix(verb, "INSERT"):
			what = model.Create
		case verb == "UPDATE":
			what = model.Update
			if strings.EqualFold(name, "SET") {
				continue
			}
		case strings.HasPrefix(verb, "DELETE"):
			what = model.Delete
		case strings.HasPrefix(verb, "CREATE"):
			t.f.Entities = append(t.f.Entities, model.EntityFact{Name: name, Line: at, From: "table"})
			continue
		case strings.EqualFold(name, "SELECT"):
			continue
		}
		if verb == "FROM" && strings.HasPrefix(strings.ToUpper(strings.TrimSpace(text[:m[2]])), "DELETE") {
			continue
		}
		if len(t.f.Operations) < maxTraits {
			t.f.Operations = append(t.f.Operations, model.OperationFact{Entity: name, What: what, Line: at})
		}
	}
}
