package weave

import (
	"bytes"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// What packages say of the role of a file that takes them in.

// taken are what a file is for that takes in a package or something of it.
var taken = map[model.Role][]string{
	model.RoleView: {
		"javax.swing", "java.awt", "javafx", "android.widget", "android.view", "tkinter", "PyQt5", "PyQt6", "PySide2", "PySide6", "wx", "Gtk",
		"gtk", "QWidget", "QDialog", "QMainWindow", "QPainter", "QMenu", "QTreeView", "QStyledItemDelegate", "github.com/gdamore/tcell",
		"System.Windows.Forms", "Avalonia", "gi.repository.Gtk", "ratatui", "UnityEngine.UI", "github.com/charmbracelet/bubbletea", "curses",
	},
	model.RolePlatform: {
		"syscall", "golang.org/x/sys", "windows.h", "termios.h",
		"sys/ioctl.h", "sys/mman.h", "sys/epoll.h", "sys/event.h", "sys/inotify.h", "sys/ptrace.h", "sys/prctl.h", "sys/mount.h",
		"sys/syscall.h", "sys/sysctl.h", "sys/shm.h", "sys/sem.h", "sys/sysinfo.h", "sys/sysmacros.h", "libc", "nix", "winapi",
		"dlfcn.h", "pthread.h", "serial",
		"serialport", "System.IO.Ports", "linux/", "asm/", "GL/", "vulkan", "SDL2/", "SDL/", "javax.print", "ctypes", "java.lang.foreign",
		"java.util.prefs", "Win32", "Posix",
	},
	model.RoleHandler: {
		"github.com/spf13/cobra", "commander", "yargs", "argparse", "optparse", "click", "typer", "docopt", "clap", "structopt", "picocli",
		"github.com/urfave/cli", "Getopt.Long", "optparse", "thor", "django.views", "django.shortcuts", "rest_framework.views",
		"rest_framework.viewsets", "rest_framework.decorators", "flask.views",
	},
	model.RoleDataAccess: {
		"pg", "mysql", "mysql2", "sqlite3", "better-sqlite3", "knex", "mongodb", "ioredis", "redis", "psycopg2", "psycopg", "asyncpg", "pymysql",
		"sqlalchemy", "pymongo", "database/sql", "github.com/jackc/pgx", "gorm.io/gorm", "github.com/jmoiron/sqlx", "DBI",
		"Microsoft.Data.Sqlite", "Npgsql", "System.Data.SqlClient", "Microsoft.Data.SqlClient", "Dapper", "java.sql", "javax.sql",
		"rusqlite", "sqlx", "diesel",
		"org.jetbrains.exposed", "libpq-fe.h", "mysql.h", "sqlite3.h", "axios", "requests", "httpx", "aiohttp", "node:net",
	},
	model.RoleMessage: {
		"pika", "amqplib", "kafkajs", "kafka", "github.com/segmentio/kafka-go", "RabbitMQ.Client", "github.com/nats-io/nats.go",
		"bullmq", "celery",
	},
	model.RoleFormat: {"csv", "encoding/csv", "encoding/xml", "System.Xml", "javax.xml.parsers", "org.w3c.dom", "expat.h", "struct"},
}

// takenFor is the same the other way round. One that ends in a
// stroke means what lies below it.
var takenFor = func() map[string]model.Role {
	out := map[string]model.Role{}
	for role, packages := range taken {
		for _, p := range packages {
			out[p] = role
		}
	}
	return out
}()

// strokes part what packages are called.
const strokes = "/.:\\"

// beginnings are the first two parts of their names, and those that are one part "".
var beginnings = func() map[string][]string {
	out := map[string][]string{}
	for p := range takenFor {
		first, second := beginning(p)
		if !slices.Contains(out[first], second) {
			out[first] = append(out[first], second)
		}
	}
	return out
}()

// beginning are the first two parts of a name, the second "" where it has but one.
func beginning(text string) (first, second string) {
	from := strings.IndexAny(text, strokes)
	if from < 0 {
		return text, ""
	}
	first, second = text[:from], strings.TrimLeft(text[from:], strokes)
	if end := strings.IndexAny(second, strokes); end >= 0 {
		second = second[:end]
	}
	return first, second
}

// begins reports whether any package that is known begins as a name does. Nearly all
// that files take in does not, and is looked up no further.
func begins(text string) bool {
	first, second := beginning(text)
	known := beginnings[first]
	return slices.Contains(known, "") || slices.Contains(known, second)
}

// roleOfPackage is what a file is for that takes in a package, which is written
// with what it takes of it: the whole is looked up, then what it begins with.
func roleOfPackage(text string) model.Role {
	if bare, is := strings.CutPrefix(text, "node:"); is {
		if r := takenFor[text]; r != "" {
			return r
		}
		text = bare
	}
	if !begins(text) {
		return ""
	}
	for {
		if r := takenFor[text]; r != "" {
			return r
		}
		i := strings.LastIndexAny(text, strokes)
		if i <= 0 {
			return ""
		}
		if r := takenFor[text[:i+1]]; r != "" {
			return r
		}
		text = strings.TrimRight(text[:i], ":")
	}
}

// webViews are packages whose views answer requests; elsewhere a view draws.
var webViews = syntax.Set("django", "rest_framework", "flask", "pyramid")

// ofWebViews reports whether an import is of such a package.
func ofWebViews(im model.Import) bool {
	first, rest, _ := strings.Cut(im.Text, ".")
	return webViews[first] || first == "aiohttp" && (rest == "web" || strings.HasPrefix(rest, "web."))
}

// putTo are what a file does that reads the command line: of what such a package
// gives many take the type of what was read alone.
var putTo = map[string][][]byte{
	"argparse": {[]byte("add_argument"), []byte("add_parser"), []byte("parse_args")},
	"optparse": {[]byte("add_option"), []byte("parse_args")},
}

// puts reports whether a file puts a package to the work that it is known for, as
// far as what that is can be told.
func puts(f *model.Facts, of string) bool {
	words, asked := putTo[of]
	return !asked || slices.ContainsFunc(words, func(w []byte) bool { return bytes.Contains(f.Body, w) })
}

// onOthers reports whether a file takes in what other systems alone have: what it takes
// in of one system besides it takes for whichever it is built on.
func onOthers(f *model.Facts) bool {
	return slices.ContainsFunc(f.Imports, func(im model.Import) bool {
		return im.Text == "unistd.h" || im.Text == "pthread.h" || strings.HasPrefix(im.Text, "sys/")
	})
}

// bindings are packages that hold one for each library: which is meant, the name says
// that is taken from them.
var bindings = map[string]bool{"gi.repository": true}

// takes asks what a file takes in from elsewhere. A header does so for the types
// that it passes on.
func (b *ballot) takes(f *model.Facts, header bool) {
	told := map[model.Role]bool{}
	for _, im := range f.Imports {
		if header && strings.HasSuffix(im.Text, ".h") {
			continue
		}
		r, text := roleOfPackage(im.Text), im.Text
		for i := 0; r == "" && i < len(im.Names) && bindings[im.Text]; i++ {
			text = im.Text + "." + im.Names[i]
			r = roleOfPackage(text)
		}
		if r == model.RolePlatform && im.Text == "windows.h" && onOthers(f) {
			continue
		}
		if r != "" && !told[r] && !strings.HasPrefix(im.Text, ".") && puts(f, im.Text) {
			told[r] = true
			b.seen(r, 0.7, "it takes in %s, line %d", text, im.Line)
		}
	}
}
