package syntax

import (
	"bytes"
	"regexp"
	"slices"
	"strings"

	"jantel/core/model"
)

// definers are calls that define what is kept, by a name that they are given.
var definers = Set(
	"define", "model", "pgTable", "sqliteTable", "mysqlTable", "createTable", "create_table", "CreateTable",
	"create", "CreateModel", "Table", "Entity", "Schema", "DbSet",
)

// entityBases are what classes build upon that mappers keep.
var entityBases = Set(
	"Model", "ApplicationRecord", "Base", "SQLModel", "Document", "EmbeddedDocument", "BaseEntity", "ActiveRecord",
	"Entity", "MongoModel", "PanacheEntity", "TimeStampedModel",
)

// entityMarks are annotations that make a class one that is kept.
var entityMarks = Set("@Entity", "Entity", "@Document", "@Table", "Table", "@entity", "@MappedSuperclass", "ORM\\Entity")

// models finds the classes that mappers keep.
func (t *traiter) models() {
	for i := range t.f.Definitions {
		d := &t.f.Definitions[i]
		if d.Kind != model.DefClass || d.Name == "ApplicationRecord" || len(t.f.Entities) >= maxTraits {
			continue
		}
		marked := slices.ContainsFunc(d.Marks, func(m string) bool { return entityMarks[m] })
		if marked || t.embeds(d) || slices.ContainsFunc(d.Bases, func(b string) bool { return t.keptAs(d, b) }) {
			t.f.Entities = append(t.f.Entities, model.EntityFact{Name: d.Name, Line: d.Line, From: "model"})
		}
	}
}

// embeds reports whether a type holds the model of a mapper, or fields with its
// marks.
func (t *traiter) embeds(d *model.Definition) bool {
	from := lineToken(t.s, d.Line)
	for i := from; i < len(t.s.Tokens) && i < from+200 && int(t.s.Tokens[i].Line) <= d.EndLine; i++ {
		if t.s.Match(i, "gorm", ".", "Model") || t.s.Kind(i) == Ident && strings.HasSuffix(t.s.Text(i), `ORM\Entity`) {
			return true
		}
	}
	return false
}

// keptAs reports whether a class that builds upon base is one that a mapper
// keeps. Many things are called Base or Model: there what the class holds has
// to say more, or the name where it stands.
func (t *traiter) keptAs(d *model.Definition, base string) bool {
	simple := base[strings.LastIndexAny(base, ".:\\")+1:]
	switch {
	case simple == "Base" && base != "ActiveRecord::Base":
		return t.has(d, "__tablename__")
	case strings.HasSuffix(simple, "Table"):
		return t.imports("exposed.sql") || slices.ContainsFunc(t.f.Imports, func(im model.Import) bool {
			return strings.Contains(im.Text, ".exposed.")
		})
	case simple == "Model" || simple == "Entity":
		return base != simple || t.imports(`Eloquent\Model`) || t.columns(d) ||
			t.has(d, "fillable", "table", "casts", "guarded", "objects", "Meta", "id")
	}
	return entityBases[simple]
}

// imports reports whether a file takes in a module that ends so.
func (t *traiter) imports(end string) bool {
	return slices.ContainsFunc(t.f.Imports, func(im model.Import) bool { return strings.HasSuffix(im.Text, end) })
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

// columnCalls are the calls of mappers that make a column; so do all that end
// in "Field".
var columnCalls = Set("Column", "ForeignKey", "belongsTo", "hasMany", "init")

// columns reports whether the class is written with columns: field calls of
// mappers stand in it.
func (t *traiter) columns(d *model.Definition) bool {
	for i := range t.s.Tokens {
		tok := &t.s.Tokens[i]
		if line := int(tok.Line); line < d.Line || line > d.EndLine || tok.Kind != Ident {
			continue
		}
		if w := t.s.Text(i); t.s.Is(i+1, "(") && (columnCalls[w] || strings.HasSuffix(w, "Field")) {
			return true
		}
	}
	return false
}

// definition is what a call that may define an entity looks like.
type definition struct {
	on     string // what it is called on
	args   [][2]int
	text   string // its first argument, where that is a text
	inMark bool   // it is an annotation
}

// definitions give the entity that a call defines, by the call's name, and what
// it is defined from; "" where it defines none.
var definitions = map[string]func(*traiter, definition) (entity, from string){
	"define": func(_ *traiter, d definition) (string, string) { return d.textOn("sequelize", "db", "orm"), "model" },
	"model": func(_ *traiter, d definition) (string, string) {
		if len(d.args) < 2 {
			return "", ""
		}
		return d.textOn("mongoose", "", "db", "connection"), "model"
	},
	"pgTable":      func(_ *traiter, d definition) (string, string) { return d.text, "schema" },
	"sqliteTable":  func(_ *traiter, d definition) (string, string) { return d.text, "schema" },
	"mysqlTable":   func(_ *traiter, d definition) (string, string) { return d.text, "schema" },
	"createTable":  func(_ *traiter, d definition) (string, string) { return d.text, "table" },
	"create_table": func(_ *traiter, d definition) (string, string) { return d.text, "table" },
	"CreateTable":  func(_ *traiter, d definition) (string, string) { return d.text, "table" },
	"create":       func(_ *traiter, d definition) (string, string) { return d.textOn("Schema"), "table" },
	"CreateModel":  (*traiter).createdModel,
	"Table": func(_ *traiter, d definition) (string, string) {
		if len(d.args) < 2 || !messageName.MatchString(d.text) {
			return "", ""
		}
		if d.inMark {
			return d.text, "schema"
		}
		return d.textOn("", "sa", "db"), "schema"
	},
}

// textOn is the text, where the call is on one of the names.
func (d definition) textOn(names ...string) string {
	if slices.Contains(names, d.on) {
		return d.text
	}
	return ""
}

// createdModel reads CreateModel(name="Lot", …).
func (t *traiter) createdModel(d definition) (entity, from string) {
	for _, a := range d.args {
		if t.s.Match(a[0], "name", "=") {
			entity, _ = t.text(a[0] + 2)
		}
	}
	return entity, "model"
}

// sets keeps what a context of a mapper holds sets of: DbSet<Lot>.
func (t *traiter) sets(i int) {
	if t.s.Src[t.s.Tokens[i].Start] == 'D' && t.s.Match(i, "DbSet", "<", Name, ">") && len(t.f.Entities) < maxTraits {
		t.f.Entities = append(t.f.Entities, model.EntityFact{Name: t.s.Text(i + 2), Line: t.s.Line(i), From: "model"})
	}
}

func (t *traiter) definer(i int, args [][2]int) {
	read := definitions[t.s.Text(i)]
	if read == nil {
		return
	}
	d := definition{on: t.receiver(i), args: args, inMark: t.s.Is(i-1, "[")}
	if text, ok := t.text(args[0][0]); ok {
		d.text = text
	}
	if entity, from := read(t, d); entity != "" && len(entity) < 80 && len(t.f.Entities) < maxTraits {
		t.f.Entities = append(t.f.Entities, model.EntityFact{Name: entity, Line: t.s.Line(i), From: from})
	}
}

// operations are the calls by which mappers are asked, with what each does.
var operations = map[string]string{
	"create": model.Create, "insert": model.Create, "bulkCreate": model.Create, "insertMany": model.Create,
	"Add": model.Create, "AddAsync": model.Create, "bulk_create": model.Create, "get_or_create": model.Create,
	"createMany": model.Create, "insertOne": model.Create, "create!": model.Create, "AddRange": model.Create,
	"Create": model.Create, "firstOrCreate": model.Create, "find_or_create_by": model.Create,
	"find": model.Read, "findAll": model.Read, "findOne": model.Read, "findByPk": model.Read, "findById": model.Read,
	"findMany": model.Read, "findUnique": model.Read, "findFirst": model.Read, "where": model.Read,
	"filter": model.Read, "all": model.Read, "get": model.Read, "first": model.Read, "find_by": model.Read,
	"count": model.Read, "Where": model.Read, "Find": model.Read, "FindAsync": model.Read, "First": model.Read,
	"ToList": model.Read, "ToArray": model.Read, "ToArrayAsync": model.Read, "AnyAsync": model.Read, "CountAsync": model.Read,
	"SingleOrDefault": model.Read, "SingleOrDefaultAsync": model.Read, "FirstAsync": model.Read, "SingleAsync": model.Read,
	"AsNoTracking": model.Read, "FirstOrDefault": model.Read, "FirstOrDefaultAsync": model.Read, "ToListAsync": model.Read,
	"select": model.Read,
	"query":  model.Read, "exclude": model.Read, "aggregate": model.Read, "paginate": model.Read,
	"findOrFail": model.Read, "order": model.Read, "Include": model.Read,
	"update": model.Update, "updateOne": model.Update, "updateMany": model.Update, "upsert": model.Update,
	"findByIdAndUpdate": model.Update, "findOneAndUpdate": model.Update, "update_all": model.Update,
	"Update": model.Update, "save": model.Update, "Save": model.Update, "Updates": model.Update, "updateOrCreate": model.Update,
	"delete": model.Delete, "destroy": model.Delete, "deleteOne": model.Delete, "deleteMany": model.Delete,
	"remove": model.Delete, "Remove": model.Delete, "findByIdAndDelete": model.Delete, "destroy_all": model.Delete,
	"selectAll": model.Read, "deleteWhere": model.Delete, "insertAndGetId": model.Create, "batchInsert": model.Create,
	"delete_all": model.Delete, "Delete": model.Delete, "RemoveRange": model.Delete, "truncate": model.Delete,
}

// operation keeps what is asked of something that may be an entity: Lot.find(…),
// Lot.objects.filter(…), prisma.lot.update(…), db.Create(&Lot{…}), query(Lot).
func (t *traiter) operation(i, open int) {
	w := t.s.Bytes(i)
	if !operSieve.May(w) && !mayDerive(w) || len(t.f.Operations) >= maxTraits {
		return
	}
	what := operations[string(w)]
	name, found := "", false
	if string(w) == "update" {
		if table := t.updated(i, open); table != "" {
			t.doneTo(table, model.Update, i, true)
			return
		}
	}
	if what != "" {
		if name, found = t.entityBefore(i, changes(what)); !found {
			name = t.entityAmong(open)
		}
	}
	if name == "" {
		t.onInstance(i, open)
		return
	}
	if len(name) < 80 {
		t.f.Operations = append(t.f.Operations, model.OperationFact{Entity: name, What: what, Line: t.s.Line(i), By: string(w)})
	}
}

// mayDerive reports whether a word may be a query by its name: findByName.
func mayDerive(w []byte) bool {
	return len(w) > 5 && (w[0] == 'f' || w[0] == 'd' || w[0] == 'c' || w[0] == 'e' || w[0] == 'g') && bytes.Contains(w[3:], []byte("By"))
}

// mapperClients are what hold entities as their members.
var mapperClients = Set("prisma", "db", "ctx", "tx", "query")

// changes reports whether something is done to what is there already.
func changes(what string) bool { return what == model.Update || what == model.Delete }

// asks are members that ask for some of what is kept and hand out the same.
var asks = Set("where", "order", "find", "find_by", "first", "last", "all", "objects", "filter", "exclude", "query", "select", "limit",
	"joins",
	"includes", "unscoped", "get", "findById", "findOne", "withTrashed", "with", "orderBy", "latest", "find_or_create_by", "Where", "Set",
	"First", "Find", "Entry", "new", "scoped", "visible", "active", "lock", "preload", "take", "not", "current", "in_batches", "find_each")

// entityBefore is the first capital word of the chain before a call, or what a
// client holds.
func (t *traiter) entityBefore(i int, changed bool) (string, bool) {
	s := t.s
	k := i
	for steps := 0; steps < 6 && k >= 2; steps++ {
		j := k - 1
		for j > 0 && s.Kind(j) == Punct && s.Any(j, ".", "->", "::", ":", ">", "-") {
			j--
		}
		if steps > 0 && changed && !asks[s.Text(k)] {
			return "", false // what is handed out on the way is changed, and has no name here
		}
		switch {
		case j == k-1:
			return "", false
		case s.Is(j, ")"):
			m := int(s.Tokens[j].Match)
			if m <= 0 || !s.IsIdent(m-1) {
				return "", false
			}
			k = m - 1
		case !s.IsIdent(j):
			return "", false
		case isCapital(s.Bytes(j)), mapperClients[t.receiver(j)]:
			return s.Text(j), true
		default:
			k = j
		}
	}
	return "", false
}

func isCapital(w []byte) bool { return w[0] >= 'A' && w[0] <= 'Z' }

// entityAmong is what the call that opens is handed: &Lot{…}, Lot, Lot{}, Lot(…).
func (t *traiter) entityAmong(open int) string {
	s := t.s
	for n, a := range s.Args(open) {
		if n > 1 {
			return ""
		}
		at := a[0]
		for s.Any(at, "&", "[", "]", "new") {
			at++
		}
		if at < a[1] && s.IsIdent(at) && isCapital(s.Bytes(at)) {
			return s.Text(at)
		}
	}
	return ""
}

var sqlUse = regexp.MustCompile(
	`(?i)\b(INSERT\s+(?:OR\s+\w+\s+)?INTO|UPDATE|DELETE\s+FROM|FROM|JOIN|CREATE\s+TABLE(?:\s+IF\s+NOT\s+EXISTS)?)` +
		`\s+["\x60\[]?(?:\w+["\x60\]]?\.["\x60\[]?)?([A-Za-z_]\w*)`,
)

// statement reads the tables out of a statement of SQL.
func (t *traiter) statement(i int) {
	text := t.sqlAt(i)
	if text == "" {
		return
	}
	line := int(t.s.Tokens[i].Line)
	if t.signs != nil {
		t.signs.Add(model.SignSQL, line)
	}
	for _, m := range sqlUse.FindAllStringSubmatchIndex(text, 40) {
		verb, name := strings.ToUpper(text[m[2]:m[3]]), text[m[4]:m[5]]
		at := line + strings.Count(text[:m[4]], "\n")
		if strings.HasPrefix(verb, "CREATE") {
			t.f.Entities = append(t.f.Entities, model.EntityFact{Name: name, Line: at, From: "table"})
			continue
		}
		what := doneBy(verb, name)
		if verb == "FROM" && strings.HasPrefix(strings.ToUpper(strings.TrimSpace(text[:m[2]])), "DELETE") {
			what = ""
		}
		if what != "" && len(t.f.Operations) < maxTraits {
			t.f.Operations = append(t.f.Operations, model.OperationFact{Entity: name, What: what, Line: at, Written: !temporary(text, name)})
		}
	}
}

// ofTheStore are beginnings of names that a store has by itself, and of words that
// may stand where a table does.
var ofTheStore = []string{
	"information_schema", "pg_", "sqlite_", "sys", "dual", "unnest", "generate_series", "json_", "set", "select",
}

// temporary reports whether a name of a statement is no table that is kept: it is
// made by the statement itself, or belongs to the store.
func temporary(text, name string) bool {
	lower, n := strings.ToLower(text), strings.ToLower(name)
	if slices.ContainsFunc(ofTheStore, func(prefix string) bool { return strings.HasPrefix(n, prefix) }) {
		return true
	}
	return strings.Contains(lower, "with "+n+" as") || strings.Contains(lower, ", "+n+" as (") || strings.Contains(lower, "\n"+n+" as (")
}

// sqlAt is the statement that token i holds, "" where it holds none.
func (t *traiter) sqlAt(i int) string {
	tok := &t.s.Tokens[i]
	if tok.End-tok.Start < 14 {
		return ""
	}
	text, ok := t.text(i)
	if tok.Kind == Text {
		text, ok = string(t.s.Bytes(i)), true // a text that starts on the line after its mark
	}
	if ok && LooksSQL(text) {
		return text
	}
	// Perl quotes with a letter and any sign.
	if text = strings.TrimLeft(strings.TrimLeft(text, "q"), "({[|~"); LooksSQL(text) {
		return text
	}
	return ""
}

// doneBy is what a verb does to the table that follows; "" where no table does.
func doneBy(verb, name string) string {
	switch {
	case strings.HasPrefix(verb, "INSERT"):
		return model.Create
	case strings.HasPrefix(verb, "DELETE"):
		return model.Delete
	case verb == "UPDATE" && strings.EqualFold(name, "SET"), verb != "UPDATE" && strings.EqualFold(name, "SELECT"):
		return ""
	case verb == "UPDATE":
		return model.Update
	}
	return model.Read
}
