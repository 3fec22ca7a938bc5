// Package sql reads the statements of SQL that define something.
package sql

import (
	"bytes"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func init() {
	syntax.Register(&syntax.Language{
		Name: "SQL", Version: 2, Profile: syntax.Profile{Counted: true},
		Extensions: []string{".sql", ".ddl", ".psql", ".mysql", ".sqlite"}, Read: read,
	})
}

func lex(src []byte) *syntax.Stream {
	b := syntax.NewBuilder(src)
	for b.Pos < len(src) && !b.Full() {
		c := src[b.Pos]
		start, line := b.Pos, b.LineNo
		switch {
		case c == '\n':
			b.LineNo++
			b.Pos++
		case syntax.In(c, " \t\r"):
			b.Pos++
		case c == '-' && b.Next("--"), c == '#' && (b.Pos == 0 || src[b.Pos-1] == '\n'):
			b.LineComment()
		case c == '/' && b.Next("/*"):
			b.BlockComment("/*", "*/", true)
		case c == '$' && dollar(b):
		case syntax.In(c, "'\"`"):
			if !b.Quoted(c, true) {
				b.Pos, b.LineNo = start+1, line
				b.Misread("a string is not closed", line)
				b.Add(syntax.Punct, start, line)
			}
		case syntax.IsIdentStart(c):
			for b.Pos++; b.Pos < len(src) && syntax.IsIdentPart(src[b.Pos]); {
				b.Pos++
			}
			b.Add(syntax.Ident, start, line)
		case c >= '0' && c <= '9':
			b.Number()
		default:
			b.Sign()
		}
	}
	return b.Finish()
}

// dollar takes a text between two equal marks such as $$ or $body$.
func dollar(b *syntax.Builder) bool {
	end := b.Pos + 1
	for end < len(b.Src) && syntax.IsIdentPart(b.Src[end]) && b.Src[end] != '$' {
		end++
	}
	if end >= len(b.Src) || b.Src[end] != '$' {
		return false
	}
	mark := b.Src[b.Pos : end+1]
	if !bytes.Contains(b.Src[end+1:], mark) {
		return false
	}
	b.Until(len(mark), string(mark))
	return true
}

// defined are the things a CREATE makes that are worth a name.
var defined = map[string]model.DefinitionKind{
	"TABLE": model.DefType, "VIEW": model.DefType, "TYPE": model.DefType, "DOMAIN": model.DefType,
	"FUNCTION": model.DefFunction, "PROCEDURE": model.DefFunction,
	"TRIGGER": model.DefFunction, "INDEX": model.DefOther, "SEQUENCE": model.DefOther, "SCHEMA": model.DefNamespace,
	"DATABASE": model.DefNamespace}

var between = syntax.Set(
	"OR", "REPLACE", "TEMP", "TEMPORARY", "UNIQUE", "MATERIALIZED", "GLOBAL", "LOCAL", "UNLOGGED", "VIRTUAL",
	"RECURSIVE", "FORCE", "EXTERNAL", "CONSTRAINT", "FOREIGN", "PUBLIC", "DEFINER", "CLUSTERED", "NONCLUSTERED",
	"CONCURRENTLY", "ALTER", "FULLTEXT", "SPATIAL",
)

func read(how syntax.How, src []byte) *model.Facts {
	s, f := lex(src), &model.Facts{}
	names := map[string]bool{}
	for i := 0; i < s.Len(); i++ {
		if s.Kind(i) != syntax.Ident || !strings.EqualFold(s.Text(i), "CREATE") || i > 0 && !starts(s, i) {
			continue
		}
		j := i + 1
		for s.IsIdent(j) && between[strings.ToUpper(s.Text(j))] {
			j++
		}
		what := strings.ToUpper(s.Text(j))
		kind, ok := defined[what]
		if !ok {
			continue
		}
		j++
		if strings.EqualFold(s.Text(j), "IF") { // IF NOT EXISTS
			j += 3
		}
		name, after := dotted(s, j)
		last := stop(s, after, what)
		if name == "" {
			continue
		}
		f.Definitions = append(f.Definitions, model.Definition{
			Name: name, Kind: kind, Line: s.Line(i), EndLine: s.EndLine(last), Exported: true,
		})
		names[name] = true
		if what == "TABLE" {
			f.Entities = append(f.Entities, model.EntityFact{Name: name[strings.LastIndex(name, ".")+1:], Line: s.Line(i), From: "table"})
			if s.Is(after, "(") {
				columns(s, f, after, name)
			}
		}
		i = last
	}
	f.Names = syntax.SortedSet(names)
	table := rows(s)
	f = syntax.Finish(how, f, s, syntax.Signs{})
	if table {
		f.Hints = append(f.Hints, model.Hint{Name: model.HintLiterals, Line: 1})
	}
	return f
}

// leastRows is from how many statements that put rows in a file may be a table of them.
const leastRows = 10

// rows reports whether nine of ten statements put rows in.
func rows(s *syntax.Stream) bool {
	statements, inserts := 0, 0
	for i := range s.Tokens {
		if s.Kind(i) != syntax.Ident || i > 0 && !s.Is(i-1, ";") {
			continue
		}
		statements++
		if strings.EqualFold(s.Text(i), "INSERT") {
			inserts++
		}
	}
	return inserts >= leastRows && 10*inserts >= 9*statements
}

// starts reports whether a statement may start at i: BEGIN and AS come before
// statements as well.
func starts(s *syntax.Stream, i int) bool {
	return s.Is(i-1, ";") || s.Line(i) > s.EndLine(i-1)
}

func dotted(s *syntax.Stream, i int) (string, int) {
	var b strings.Builder
	for s.Any(i, syntax.Name, syntax.Quoted, "[") {
		if s.Is(i, "[") {
			b.WriteString(s.Text(i + 1))
			i = s.Close(i)
		} else {
			b.WriteString(s.Unquote(i))
		}
		i++
		if !s.Is(i, ".") {
			break
		}
		b.WriteByte('.')
		i++
	}
	return b.String(), i
}

// stop is the last token of the statement: a body may hold statements of its
// own between BEGIN and END.
func stop(s *syntax.Stream, i int, what string) int {
	depth := 0
	body := what == "FUNCTION" || what == "PROCEDURE" || what == "TRIGGER"
	for ; i < s.Len(); i = s.Close(i) + 1 {
		switch {
		case body && s.IsIdent(i):
			switch strings.ToUpper(s.Text(i)) {
			case "BEGIN", "CASE":
				depth++
			case "END":
				if w := strings.ToUpper(s.Text(i + 1)); w != "IF" && w != "LOOP" && w != "WHILE" && w != "REPEAT" && w != "FOR" {
					depth--
				}
			}
		case s.Is(i, ";") && depth <= 0:
			return i
		}
	}
	return max(s.Len()-1, 0)
}

var noColumn = syntax.Set("PRIMARY", "FOREIGN", "UNIQUE", "CHECK", "CONSTRAINT", "KEY", "INDEX", "EXCLUDE", "LIKE", "FULLTEXT", "PERIOD")

func columns(s *syntax.Stream, f *model.Facts, open int, table string) {
	for _, a := range s.Args(open) {
		if (s.Any(a[0], syntax.Name, syntax.Quoted)) && !noColumn[strings.ToUpper(s.Text(a[0]))] && a[1]-a[0] > 1 {
			f.Definitions = append(f.Definitions, model.Definition{
				Name: s.Unquote(a[0]), Parent: table, Kind: model.DefProperty, Line: s.Line(a[0]),
				EndLine: s.EndLine(a[1] - 1), Exported: true,
			})
		}
	}
}
