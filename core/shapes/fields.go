// Package shapes reads the fields of what only holds data (entities, forms, transfer
// objects, tables) and lays two of them side by side, field by field.
//
// Fields are read from the lines of a definition by a few forms in which nearly all
// languages write them, without asking which language it is: the form that fits most
// lines is taken for all of them.
package shapes

import (
	"regexp"
	"strings"
)

// ShapeField is one field of a shape.
type ShapeField struct {
	Name     string `json:"name"`
	Type     string `json:"type" doc:"as it is written"`
	Optional bool   `json:"optional" doc:"it may be left out or empty"`
	Default  string `json:"default" doc:"what stands for it, as it is written; empty for nothing"`
	Limits   string `json:"limits" doc:"bounds of its size or value, as they are written; empty for none"`
	Line     int    `json:"line"`
}

// form is one way in which fields are written.
type form struct {
	re               *regexp.Regexp
	name, kind, rest int  // groups
	optional         bool // a field may be empty unless it says otherwise
}

const (
	modifiers = `(?:(?:export|readonly|public|private|protected|internal|static|declare|pub(?:\(\w+\))?|val|var|override|lateinit|final|` +
		`required|virtual|const|mut|transient|volatile|abstract|@\w+(?:\([^)]*\))?)\s+)*`
	typed = `[A-Za-z_][\w.]*(?:<[^;=]*>)?(?:\[\])*\??`
)

// forms are asked in this order; of those that fit equally many lines the first is
// taken.
var forms = []form{
	// name: Type, with a value behind it.
	{re: regexp.MustCompile(`^` + modifiers + `["']?` +
		`([A-Za-z_$][\w$]*)["']?([?!]?)\s*:\s*([^=;]+?)\s*(?:=\s*(.*?))?[;,]?$`), name: 1, kind: 3, rest: 4},
	// t.type :name, attribute :name, Type
	{re: regexp.MustCompile(`^(?:t\.(\w+)|attribute|field|property)` +
		`\s*\(?\s*[:"']?(\w+)["']?\s*(.*?)\)?$`), name: 2, kind: 1, rest: 3, optional: true},
	// Type name; Type name = value; Type Name { get; set; }
	{re: regexp.MustCompile(`^` + modifiers + `\??(` + typed + `)\s+\$?([A-Za-z_]\w*)` +
		`\s*(?:\{[^}]*\}\s*)?(?:=\s*([^>\s].*?))?\s*;?$`), name: 2, kind: 1, rest: 3},
	// name = models.Text(…)
	{re: regexp.MustCompile(`^([A-Za-z_]\w*)\s*=\s*([\w.]+)\((.*)\)?$`), name: 1, kind: 2, rest: 3},
	// name TYPE rest, and Name Type
	{re: regexp.MustCompile("^[\"`]?([A-Za-z_]\\w*)[\"`]?\\s+([*\\[\\]\\w.]+(?:\\([^)]*\\))?\\??)\\s*(.*?),?$"), name: 1, kind: 2, rest: 3},
}

// keywords begin lines that are no fields.
var keywords = regexp.MustCompile(`^(?:def|func|function|fun|return|class|if|for|while|import|package|use|using|` +
	`constraint|primary|foreign|unique|check|index|key|` +
	`create|end|begin|get|set|constructor|async|case|switch|throw|raise|pass|type|interface|struct|enum|` +
	`namespace|new|else|try|self|this|super|` +
	`const|let|my|local|belongs_to|has_many|has_one|validates|scope|include|extend|attr_\w+|implements|extends|record|data)\b`)

// Fields reads the fields of a definition from its lines; first is the number of the
// first of them.
func Fields(lines []string, first int) []ShapeField {
	if inHead := headFields(lines, first); len(inHead) > 0 {
		return inHead
	}
	body := members(lines, first)
	best, most := []ShapeField(nil), 0
	for i := range forms {
		if got := forms[i].read(body); len(got) > most {
			best, most = got, len(got)
		}
	}
	return best
}

// line is a line of a body that may be a field, with what stands above it about it.
type line struct {
	text  string
	above string
	n     int
}

// members are the lines that stand right in a body, not deeper: of a body in braces
// or parentheses those between them, else those that are indented as the first is.
func members(lines []string, first int) (out []line) {
	depth, indent, above := 0, -1, ""
	right := 1 // how many brackets are open right in the body
	for i, raw := range lines {
		raw = strings.ReplaceAll(raw, "\t", "    ")
		text := strings.TrimSpace(raw)
		at := depth
		depth += opens(text)
		if i == 0 {
			right = max(right, depth)
		}
		if i == 0 || text == "" || comment(text) {
			continue
		}
		own := len(raw) - len(strings.TrimLeft(raw, " "))
		if indent < 0 && !strings.HasPrefix(text, "{") && !strings.HasPrefix(text, "(") {
			indent = own
		}
		if at > right || own != indent || strings.HasSuffix(text, "{") {
			continue
		}
		if annotation.MatchString(text) {
			above += " " + text
			continue
		}
		if text = strings.TrimSpace(cutComment(text)); !strings.ContainsAny(text[:1], "})]<#") {
			out = append(out, line{text, above, first + i})
		}
		above = ""
	}
	return out
}

// annotation is a line that says something about the field below it.
var annotation = regexp.MustCompile(`^(?:@[\w.]+(?:\(.*\))?|\[.*\])$`)

// opens is by how much a line opens more than it closes.
func opens(text string) int {
	n := 0
	for _, c := range text {
		switch c {
		case '{', '(':
			n++
		case '}', ')':
			n--
		}
	}
	return n
}

func comment(text string) bool {
	for _, sign := range []string{"//", "#", "/*", "*", "--", `"""`, "'''"} {
		if strings.HasPrefix(text, sign) && !strings.HasPrefix(text, "#[") {
			return true
		}
	}
	return false
}

// cutComment takes off what is said behind a field.
func cutComment(text string) string {
	for _, sign := range []string{" //", " # ", " -- ", " /*"} {
		if i := strings.Index(text, sign); i > 0 {
			text = text[:i]
		}
	}
	return text
}

var head = regexp.MustCompile(`^(?:[\w\s@<>,\[\]]*\b(?:class|record|struct)\s+\w+(?:<[^>]*>)?|.*\b__construct|.*\bconstructor)\s*\(`)

// headFields are fields that stand in parentheses behind the name: of records, of
// data classes, of a constructor that takes all.
func headFields(lines []string, first int) []ShapeField {
	for i, raw := range lines {
		text := strings.TrimSpace(raw)
		m := head.FindStringIndex(text)
		if m == nil {
			continue
		}
		var body []line
		inside, n := text[m[1]:], i
		for depth := 1; n < len(lines); {
			end := closes(inside, &depth)
			if end >= 0 {
				inside = inside[:end]
			}
			for _, part := range apart(inside) {
				if part = strings.TrimSpace(cutComment(part)); part != "" && !comment(part) {
					body = append(body, line{text: part, n: first + n})
				}
			}
			if n++; end >= 0 || n >= len(lines) {
				break
			}
			inside = strings.TrimSpace(lines[n])
		}
		var best []ShapeField
		for k := range forms {
			if strings.Contains(text[:m[1]], "onstruct") && !promotes(body) {
				continue
			}
			if got := forms[k].read(body); len(got) > len(best) {
				best = got
			}
		}
		if len(best) > 0 && len(best) == len(body) {
			return best
		}
	}
	return nil
}

// promotes reports whether parameters of a constructor are fields as well.
func promotes(body []line) bool {
	for _, l := range body {
		if !regexp.MustCompile(`^(?:public|private|protected|readonly)\b`).MatchString(l.text) {
			return false
		}
	}
	return true
}

// closes is where the parenthesis is closed that depth counts, -1 where it stays open.
func closes(text string, depth *int) int {
	for i, c := range text {
		switch c {
		case '(':
			*depth++
		case ')':
			if *depth--; *depth == 0 {
				return i
			}
		}
	}
	return -1
}

// apart cuts at commas that stand in no brackets.
func apart(text string) (out []string) {
	depth, from := 0, 0
	for i, c := range text {
		switch c {
		case '(', '[', '<', '{':
			depth++
		case ')', ']', '>', '}':
			depth--
		case ',':
			if depth == 0 {
				out = append(out, text[from:i])
				from = i + 1
			}
		}
	}
	return append(out, text[from:])
}

// maxFields bounds how many fields of one shape are read.
const maxFields = 300

// last is the form of names and types with nothing between them, which other lines
// read like as well.
var (
	last     = &forms[len(forms)-1]
	modified = regexp.MustCompile(`^(?:public|private|protected|internal|static|final|readonly|override|abstract)\b`)
)

func (f *form) read(body []line) (out []ShapeField) {
	for _, l := range body {
		if keywords.MatchString(strings.ToLower(l.text)) && !strings.Contains(l.text, ":") || len(out) >= maxFields {
			continue
		}
		m := f.re.FindStringSubmatch(l.text)
		if m == nil || f == last && (strings.HasSuffix(l.text, ";") || modified.MatchString(l.text)) {
			continue
		}
		d := ShapeField{Name: m[f.name], Type: strings.TrimSpace(m[f.kind]), Line: l.n}
		rest := strings.TrimSpace(m[f.rest])
		d.Optional = isOptional(f, &d, m[0])
		d.Type = bare(d.Type)
		d.Default = defaultOf(f, rest)
		d.Limits = limits(m[f.kind] + " " + rest + " " + l.above)
		out = append(out, d)
	}
	return out
}

var (
	mayMiss = regexp.MustCompile(`(?i)\bnull\b|undefined|\boptional\b|nullable|\bnone\b|null\s*=\s*true|blank\s*=\s*true|omitempty`)
	mustBe  = regexp.MustCompile(`(?i)not\s+null|primary\s+key|null:\s*false|nullable\s*=\s*false|required`)
)

// isOptional reports whether a field may be left out or empty: it says so, or it
// stands in a table that does not say it must be there.
func isOptional(f *form, d *ShapeField, whole string) bool {
	switch {
	case mustBe.MatchString(whole):
		return false
	case strings.HasPrefix(d.Type, "*"), strings.HasSuffix(d.Type, "?"), optionalType.MatchString(d.Type), mayMiss.MatchString(whole):
		return true
	case strings.Contains(whole, d.Name+"?"), strings.Contains(whole, "?"+d.Type):
		return true
	}
	return f.optional || f == last && tables.MatchString(d.Type)
}

var optionalType = regexp.MustCompile(`^(?:Optional|Nullable|Option|Maybe)\b`)

// tables are types as tables write them, whose fields may be empty unless they say
// otherwise.
var tables = regexp.MustCompile(`^(?:[A-Z]+(?:\(.*\))?|text|integer|real|varchar(?:\(.*\))?|` +
	`numeric(?:\(.*\))?|boolean|bigint|timestamp|date|serial|uuid|jsonb?|bytea|blob)$`)

var (
	wrapped = regexp.MustCompile(`^(?:Mapped|Optional|Nullable|Column|Ref|Field|Option|Maybe)\s*[\[<](.+)[\]>]$`)
	orNone  = regexp.MustCompile(`\s*\|\s*(?:null|undefined|None)\b|\b(?:null|undefined|None)\s*\|\s*`)
)

// bare is a type without what only says that it may be missing.
func bare(t string) string {
	t = strings.TrimSpace(orNone.ReplaceAllString(t, ""))
	t = strings.TrimSuffix(strings.TrimPrefix(t, "*"), "?")
	if m := wrapped.FindStringSubmatch(t); m != nil {
		t = m[1]
	}
	return t
}

var inDefault = regexp.MustCompile(`(?i)\bdefault(?:\s*[=:(]\s*|\s+)("[^"]*"|'[^']*'|[\w.\-]+)`)

// defaultOf is what stands for a field that is not given.
func defaultOf(f *form, rest string) string {
	if m := inDefault.FindStringSubmatch(rest); m != nil {
		return m[1]
	}
	if plain := f == &forms[0] || f == &forms[2]; plain && rest != "" && len(rest) <= 40 && !strings.Contains(rest, "(") {
		return strings.TrimSuffix(rest, ";")
	}
	return ""
}

var bounds = regexp.MustCompile(`(?i)\b((?:var)?char|n?varchar2?|decimal|numeric|string)\s*\(\s*(\d+(?:\s*,\s*\d+)?)\s*\)|` +
	`\b(max(?:_?length|size)?|min(?:_?length|size)?|length|size|limit|gte?|lte?)\s*[=:(]\s*(\d+)`)

// limits are the bounds that a field says it has.
func limits(text string) string {
	var out []string
	for _, m := range bounds.FindAllStringSubmatch(text, 4) {
		if m[1] != "" {
			out = append(out, "at most "+m[2])
		} else {
			out = append(out, strings.ToLower(m[3])+" "+m[4])
		}
	}
	return strings.Join(out, ", ")
}
