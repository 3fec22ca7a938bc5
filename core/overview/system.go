package overview

import (
	"sort"
	"strings"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/relations"
	"jantel/core/routes"
)

// Roster is one sort of thing a system runs with: what each is called, and the
// place that says so.
type Roster struct {
	Name  string           `json:"name"`
	Items []model.Evidence `json:"items"` // Note is what it is called
}

// stores are packages that mean a store, by the name under which they are
// asked for, over all languages.
var stores = map[string]string{
	"pg": "PostgreSQL", "postgres": "PostgreSQL", "psycopg2": "PostgreSQL", "psycopg": "PostgreSQL",
	"asyncpg": "PostgreSQL", "github.com/lib/pq": "PostgreSQL", "github.com/jackc/pgx": "PostgreSQL",
	"Npgsql": "PostgreSQL", "org.postgresql": "PostgreSQL", "DBD::Pg": "PostgreSQL", "tokio_postgres": "PostgreSQL",
	"mysql": "MySQL", "mysql2": "MySQL", "pymysql": "MySQL", "MySQLdb": "MySQL",
	"github.com/go-sql-driver/mysql": "MySQL", "DBD::mysql": "MySQL", "MySqlConnector": "MySQL",
	"sqlite3": "SQLite", "better-sqlite3": "SQLite", "node:sqlite": "SQLite", "aiosqlite": "SQLite",
	"modernc.org/sqlite": "SQLite", "github.com/mattn/go-sqlite3": "SQLite", "rusqlite": "SQLite",
	"Microsoft.Data.Sqlite": "SQLite", "DBD::SQLite": "SQLite",
	"mongodb": "MongoDB", "mongoose": "MongoDB", "pymongo": "MongoDB", "motor": "MongoDB", "go.mongodb.org/mongo-driver": "MongoDB",
	"redis": "Redis", "ioredis": "Redis", "github.com/redis/go-redis": "Redis", "github.com/go-redis/redis": "Redis",
	"StackExchange.Redis":    "Redis",
	"@elastic/elasticsearch": "Elasticsearch", "elasticsearch": "Elasticsearch", "go.etcd.io/bbolt": "bbolt",
	"memcached": "Memcached", "cassandra-driver": "Cassandra",
	"sequelize": "a database behind Sequelize", "typeorm": "a database behind TypeORM",
	"knex": "a database behind Knex", "@prisma/client": "a database behind Prisma",
	"sqlalchemy":                    "a database behind SQLAlchemy",
	"Microsoft.EntityFrameworkCore": "a database behind Entity Framework", "gorm.io/gorm": "a database behind GORM",
	"DBIx::Class": "a database behind DBIx::Class", "DBI": "a database behind DBI",
	"diesel": "a database behind Diesel", "sqlx": "a database behind SQLx",
}

// abroad are packages that mean another system.
var abroad = map[string]string{
	"kafkajs": "Kafka", "kafka": "Kafka", "github.com/segmentio/kafka-go": "Kafka", "confluent_kafka": "Kafka",
	"amqplib": "RabbitMQ", "pika": "RabbitMQ", "github.com/rabbitmq/amqp091-go": "RabbitMQ",
	"RabbitMQ.Client": "RabbitMQ", "nats": "NATS", "github.com/nats-io/nats.go": "NATS", "mqtt": "MQTT", "paho": "MQTT",
	"nodemailer": "mail", "smtplib": "mail", "net/smtp": "mail", "aiosmtplib": "mail", "MailKit": "mail",
	"Email::Sender": "mail", "stripe": "Stripe", "boto3": "AWS", "aws-sdk": "AWS", "@aws-sdk": "AWS",
	"github.com/aws/aws-sdk-go": "AWS", "google.cloud": "Google Cloud", "@google-cloud": "Google Cloud",
	"azure": "Azure", "@azure": "Azure",
	"ldap3": "LDAP", "ldapjs": "LDAP", "openai": "OpenAI", "twilio": "Twilio", "@sentry": "Sentry",
	"sentry_sdk": "Sentry", "firebase": "Firebase",
}

// named looks a package up, by its whole name or the start of it.
func named(table map[string]string, pkg string) string {
	for p := pkg; p != ""; {
		if n := table[p]; n != "" {
			return n
		}
		i := strings.LastIndexAny(p, "/.")
		if i <= 0 {
			return ""
		}
		p = p[:i]
	}
	return ""
}

// gatherer collects things by name, each with the first place that tells.
type gatherer struct {
	at map[string]model.Evidence
}

func (g *gatherer) add(name, path string, line int) {
	if g.at == nil {
		g.at = map[string]model.Evidence{}
	}
	if old, ok := g.at[name]; !ok || path < old.Path || path == old.Path && line < old.Line {
		g.at[name] = model.Evidence{Path: path, Line: line, Note: name}
	}
}

func (g *gatherer) group(name string) Roster {
	out := Roster{Name: name, Items: []model.Evidence{}}
	for _, e := range g.at {
		out.Items = append(out.Items, e)
	}
	sort.Slice(out.Items, func(i, j int) bool { return out.Items[i].Note < out.Items[j].Note })
	return out
}

// Names of rosters.
const (
	Processes = "processes"
	Stores    = "stores"
	Others    = "other systems"
	Plans     = "planned jobs"
	Checks    = "checks of sign-in and rights"
)

// system lists what the code below a place runs with: its processes, stores,
// other systems, variables of the environment, planned jobs, and the checks of
// who may do something. Groups without items are left out.
func system(s *model.Survey, j *judgement.Result, place string) []Roster {
	found := Systems(s, j, func(p string) (string, bool) { return "", model.Within(place, p) })[""]
	_, vars := environment(j.Reading, place)
	out := []Roster{}
	for _, g := range append(found, Roster{Name: "variables of the environment", Items: vars}) {
		if len(g.Items) > 0 {
			out = append(out, g)
		}
	}
	return out
}

// Systems lists what each part of the code runs with. PartOf says which part a
// file belongs to, and false for one that is left out; tests are set aside.
func Systems(s *model.Survey, j *judgement.Result, partOf func(path string) (part string, ok bool)) map[string][]Roster {
	names := []string{Processes, Stores, Others, Plans, Checks}
	found := map[string]*[5]gatherer{}
	// add notes a thing for the part its file belongs to.
	add := func(roster int, name, path string, line int) {
		f := s.File(path)
		if f == nil || f.Skipped != "" || j.Roles[path].Role == model.RoleTest {
			return
		}
		part, ok := partOf(path)
		if !ok {
			return
		}
		if found[part] == nil {
			found[part] = &[5]gatherer{}
		}
		found[part][roster].add(name, path, line)
	}
	coded := map[string]map[string]bool{} // stores that code asks for, by name, with the parts that do
	for _, e := range s.External {
		if n := named(stores, e.Package); n != "" {
			add(1, n, e.From, e.Line)
			if part, ok := partOf(e.From); ok {
				if coded[n] == nil {
					coded[n] = map[string]bool{}
				}
				coded[n][part] = true
			}
		}
		if n := named(abroad, e.Package); n != "" {
			add(2, n, e.From, e.Line)
		}
	}
	rosterOf := map[string]int{model.RunProcess: 0, model.RunStore: 1, model.RunSchedule: 3, model.RunAccess: 4}
	for _, f := range s.Files {
		if f.Facts == nil {
			continue
		}
		for _, r := range f.Facts.Runs {
			roster, ok := rosterOf[r.Kind]
			if part, _ := partOf(f.Path); r.Kind == model.RunStore && coded[r.Name] != nil && !coded[r.Name][part] {
				continue // what is started there is the store of the part whose code asks for it
			}
			if ok {
				add(roster, r.Name, f.Path, r.Line)
			}
		}
	}
	_, hosts := relations.Requests(s, routes.Of(s))
	for h, places := range hosts {
		for _, p := range places {
			add(2, h, p.Path, p.Line)
		}
	}
	out := map[string][]Roster{}
	for part, gathered := range found {
		for i := range gathered {
			if r := gathered[i].group(names[i]); len(r.Items) > 0 {
				out[part] = append(out[part], r)
			}
		}
	}
	return out
}
