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

// system lists what the code below a place runs with: its processes, stores,
// other systems, variables of the environment, planned jobs, and the checks of
// who may do something. Tests are set aside. Groups without items are left
// out.
func system(s *model.Survey, j *judgement.Result, place string) []Roster {
	var processes, databases, others, plans, checks gatherer
	counts := func(path string) bool {
		f := s.File(path)
		return f != nil && model.Within(place, path) && j.Roles[path].Role != model.RoleTest && f.Skipped == ""
	}
	for _, e := range s.External {
		if !counts(e.From) {
			continue
		}
		if n := named(stores, e.Package); n != "" {
			databases.add(n, e.From, e.Line)
		}
		if n := named(abroad, e.Package); n != "" {
			others.add(n, e.From, e.Line)
		}
	}
	for _, f := range j.Reading.At(place) {
		if f.Facts == nil || !counts(f.Path) {
			continue
		}
		for _, r := range f.Facts.Runs {
			switch r.Kind {
			case model.RunSchedule:
				plans.add(r.Name, f.Path, r.Line)
			case model.RunAccess:
				checks.add(r.Name, f.Path, r.Line)
			case model.RunProcess:
				processes.add(r.Name, f.Path, r.Line)
			case model.RunStore:
				databases.add(r.Name, f.Path, r.Line)
			}
		}
	}
	_, hosts := relations.Requests(s, routes.Of(s))
	for h, places := range hosts {
		for _, p := range places {
			if counts(p.Path) {
				others.add(h, p.Path, p.Line)
			}
		}
	}
	_, vars := environment(j.Reading, place)
	env := Roster{Name: "variables of the environment", Items: vars}
	out := []Roster{}
	for _, g := range []Roster{
		processes.group("processes"), databases.group("stores"), others.group("other systems"),
		plans.group("planned jobs"), checks.group("checks of sign-in and rights"), env,
	} {
		if len(g.Items) > 0 {
			out = append(out, g)
		}
	}
	return out
}
