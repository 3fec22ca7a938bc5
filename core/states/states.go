// Package states tells of what can be in one of several named states how it goes
// from one to another: which states there are, what leads from which to which, and
// which choices among them leave one out.
//
// It looks at texts by their lines. A state is a member of an enumeration or of a
// union of texts. The fields that hold one are those declared with that type;
// wherever such a field is given a state, something moves. From which state it goes
// is told by the case or the condition that stands around.
package states

import (
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"
)

// StateMove is one step from a state to another.
type StateMove struct {
	From string `json:"from" doc:"empty where it goes from any"`
	To   string `json:"to"`
	By   string `json:"by" doc:"the definition that does it"`
	When string `json:"when" doc:"what else is asked for on its line; empty for nothing"`
	Path string `json:"path"`
	Line int    `json:"line"`
}

// StateChoice is a choice among the states.
type StateChoice struct {
	By    string   `json:"by"`
	Path  string   `json:"path"`
	Line  int      `json:"line"`
	Lacks []string `json:"lacks" doc:"states that it has no case for, and nothing for the rest"`
	Else  bool     `json:"else" doc:"it has a case for the rest"`
	Rest  []string `json:"rest" doc:"states that fall under the case for the rest"`
}

// Holder is a type whose values are states.
type Holder struct {
	Name    string        `json:"name"`
	Path    string        `json:"path"`
	Line    int           `json:"line"`
	Members []string      `json:"members"`
	Moves   []StateMove   `json:"moves"`
	Choices []StateChoice `json:"choices"`
	Never   []string      `json:"never" doc:"states that nothing was seen to lead to"`
	Stuck   []string      `json:"stuck" doc:"states that nothing was seen to lead out of"`

	untyped bool // no type says which fields hold one: those of its name do
}

// Text is one file that may use a holder.
type Text struct {
	Path  string
	Lines []string
	// By names the definition that holds a line.
	By func(line int) string

	read *page // its lines made ready, where that was done before
}

// Members of an enumeration or of a union of texts.
const (
	fewest = 3
	most   = 30
)

var (
	unionHead  = regexp.MustCompile(`^\s*(?:export\s+)?type\s+\w+\s*=\s*(.*)$`)
	unionOnly  = regexp.MustCompile(`^\s*(?:\|?\s*["'][\w.:-]+["']\s*)+;?\s*$`)
	texts      = regexp.MustCompile(`["']([\w.:-]+)["']`)
	enumHead   = regexp.MustCompile(`\benum\b|\((?:[\w.]+,\s*)*(?:\w+\.)?(?:Str|Int|Text|Integer)?(?:Enum|Flag|Choices)\b`)
	enumItem   = regexp.MustCompile(`^(?:case\s+)?([A-Z]\w*)\s*(?:=\s*[^,;]+|\([^)]*\)|=>?\s*[^,;]+)?\s*[,;]?$`)
	objectHead = regexp.MustCompile(`^(?:export\s+)?(?:const|let|var)\s+\w+\s*=\s*(?:Object\.freeze\(\s*)?\{$`)
	objectItem = regexp.MustCompile(`^\s*([A-Z][A-Z0-9_]*)\s*:\s*(?:["'][^"']*["']|\d+|Symbol\([^)]*\))\s*,?\s*$`)
	described  = regexp.MustCompile(`^[A-Z]\w*\s*=\s*["'\w.-]+,\s*(?:_\()?["']`)
	underType  = regexp.MustCompile(`^type\s+(\w+)\s+(?:u?int\d*|string|byte)\s*$`)
)

// MembersOf reads the states of a definition from its lines; rest are the lines of
// the file behind it, where some languages list them. nil where they are none.
func MembersOf(lines, rest []string) []string {
	var out []string
	switch head := strings.TrimSpace(lines[0]); {
	case objectHead.MatchString(head):
		for _, l := range lines[1:] {
			if m := objectItem.FindStringSubmatch(l); m != nil {
				out = append(out, m[1])
			}
		}
	case unionHead.MatchString(head):
		body := unionHead.FindStringSubmatch(head)[1] + " " + strings.Join(lines[1:], " ")
		if unionOnly.MatchString(body) {
			for _, m := range texts.FindAllStringSubmatch(body, most+1) {
				out = append(out, m[1])
			}
		}
	case underType.MatchString(head):
		out = constants(underType.FindStringSubmatch(head)[1], rest)
	case enumHead.MatchString(head):
		out = items(lines)
	}
	if len(out) < fewest || len(out) > most {
		return nil
	}
	return out
}

// items are the members of an enumeration: of one in a line those between its
// braces, else one a line until something else begins.
func items(lines []string) (out []string) {
	body := lines[1:]
	if inBraces := strings.Contains(lines[0], "{ case "); inBraces {
		body = strings.Split(strings.Trim(lines[0][strings.IndexByte(lines[0], '{')+1:], " }"), ";")
	} else if open := strings.IndexByte(lines[0], '{'); open >= 0 && strings.Contains(lines[0], "}") {
		body = strings.Split(strings.TrimRight(lines[0][open+1:strings.LastIndexByte(lines[0], '}')], " ;"), ",")
	}
	for _, raw := range body {
		text := strings.TrimSpace(cut(raw))
		if text == "" || text == "{" || strings.HasPrefix(text, "@") || strings.HasPrefix(text, `"""`) || strings.HasPrefix(text, "#[") {
			continue
		}
		if described.MatchString(text) { // a member with what it is called besides
			text = text[:strings.IndexByte(text, ',')]
		}
		all := []string{text}
		if !strings.ContainsAny(text, "(=") && strings.Count(text, ",") > 0 {
			all = strings.Split(strings.TrimRight(text, ",; "), ",")
		}
		for _, one := range all {
			m := enumItem.FindStringSubmatch(strings.TrimSpace(one))
			if m == nil {
				return out
			}
			out = append(out, m[1])
		}
		if strings.HasSuffix(text, ";") && !strings.HasPrefix(text, "case ") {
			return out
		}
	}
	return out
}

var constant = regexp.MustCompile(`^(\w+)(?:\s+(\w+))?\s*(?:=.*)?$`)

// constants are those of a type in the first block of constants behind it.
func constants(name string, rest []string) (out []string) {
	in := false
	for i, raw := range rest {
		text := strings.TrimSpace(cut(raw))
		switch {
		case !in && i > 12:
			return nil
		case !in:
			in = text == "const ("
		case text == ")":
			return out
		case text != "":
			m := constant.FindStringSubmatch(text)
			if m == nil || len(out) == 0 && m[2] != name || m[2] != "" && m[2] != name {
				return out
			}
			out = append(out, m[1])
		}
	}
	return out
}

// cut takes off a comment behind what a line says.
func cut(line string) string {
	for _, sign := range []string{"//", " #", "--", "/*"} {
		if i := strings.Index(line, sign); i >= 0 {
			line = line[:i]
		}
	}
	return line
}

// Follow adds to a holder what the texts say of it.
func Follow(h *Holder, all []Text) {
	h.Moves, h.Choices, h.Never, h.Stuck = []StateMove{}, []StateChoice{}, []string{}, []string{}
	f := newFollower(h, all)
	if f.ref == nil {
		return
	}
	for i := range all {
		f.text(&all[i])
	}
	to, from := map[string]bool{}, map[string]bool{}
	any := false
	for _, m := range h.Moves {
		to[m.To] = true
		from[m.From] = true
		any = any || m.From == ""
	}
	for _, m := range h.Members {
		if len(h.Moves) > 0 && !to[m] {
			h.Never = append(h.Never, m)
		}
		if len(h.Moves) > 0 && !any && !from[m] {
			h.Stuck = append(h.Stuck, m)
		}
	}
}

// follower knows how a holder's states and the fields that hold one are written.
type follower struct {
	h      *Holder
	member map[string]bool
	ref    *regexp.Regexp // a state, as it is written in code
	given  *regexp.Regexp // a field that is given one
	either *regexp.Regexp // a field that is given one of two
	takes  *regexp.Regexp // a field that is given what a choice gives
	arms   *regexp.Regexp // what a case of such a choice gives
	asked  *regexp.Regexp // a condition on one
	unless *regexp.Regexp // a condition on any but one
}

func newFollower(h *Holder, all []Text) *follower {
	f := &follower{h: h, member: map[string]bool{}}
	if !utf8.ValidString(h.Name + strings.Join(h.Members, "")) {
		return f // of a file whose bytes are no text
	}
	var names []string
	for _, m := range h.Members {
		f.member[m] = true
		names = append(names, regexp.QuoteMeta(m))
	}
	slices.SortFunc(names, func(a, b string) int { return len(b) - len(a) })
	state := `(?:["'](?:` + strings.Join(names, "|") + `)["']|\b(?:\w+(?:\.|::|->))*(?:` + strings.Join(names, "|") + `)\b)`
	fields := fieldsOf(h.Name, all)
	if h.untyped {
		fields = append(fields, "(?i:"+regexp.QuoteMeta(h.Name)+")")
	}
	if len(fields) == 0 {
		return f
	}
	field := `\b(?:` + strings.Join(fields, "|") + `)`
	f.ref = regexp.MustCompile(state)
	set := `\bset_?(?i:` + strings.Join(fields, "|") + `)\(\s*`
	f.given = regexp.MustCompile(`(?:` + field + `["']?(?:\s*:\s*[\w.]+|\s*\{[^{}=]*\})?\s*(?:=|:|:=)\s*|` + set + `)(` + state + `)`)
	f.either = regexp.MustCompile(field + `\s*=[^=;?]+\?\s*(` + state + `)\s*:\s*(` + state + `)`)
	f.takes = regexp.MustCompile(field + `\s*=[^=].*\b(?:switch|match|when)\b`)
	f.arms = regexp.MustCompile(`(?:=>|->)\s*(` + state + `)\s*,?\s*$`)
	f.asked = regexp.MustCompile(field + `(?:\(\))?\s*(?:===?|is|eq|\.equals\()\s*(` + state + `)|` +
		`(` + state + `)\s*===?\s*\$?(?:\w+(?:\.|->))*` + field + `\b`)
	f.unless = regexp.MustCompile(field + `(?:\(\))?\s*(?:!==?|is not|ne)\s*(` + state + `)`)
	return f
}

// askedFor is the state that a condition on a line asks for, "" where none does.
func (f *follower) askedFor(line string) string {
	m := f.asked.FindStringSubmatch(line)
	if m == nil {
		return ""
	}
	return plain(m[1] + m[2])
}

// fieldsOf are the names of fields and parameters that are declared with a type.
func fieldsOf(name string, all []Text) []string {
	q := regexp.QuoteMeta(name)
	typed := regexp.MustCompile(`(\w+)\??\s*:\s*(?:\w+\.)?` + q + `(?:[^\w.:]|$)|\b` + q + `\??\s+\$?(\w+)\s*[;=,){]|` +
		`\b(\w+)\s+\*?(?:\w+\.)?` + q + "\\s*(?:`|$|,|\\)|})|" +
		`\b(\w+)\s*=\s*\w.*\b` + q + `\.choices\b|` +
		`\[(\w+),\s*\w+\]\s*=\s*use\w+<` + q + `>`)
	seen := map[string]bool{}
	for i := range all {
		if all[i].read == nil {
			all[i].read = newPage(all[i].Lines)
		}
		for _, n := range all[i].read.words[firstWord(name)] {
			l := all[i].read.lines[n].text
			if !strings.Contains(l, name) {
				continue
			}
			for _, m := range typed.FindAllStringSubmatch(l, 8) {
				for _, g := range m[1:] {
					if g != "" && !notFields[g] {
						seen[regexp.QuoteMeta(g)] = true
					}
				}
			}
		}
	}
	out := make([]string, 0, len(seen))
	for n := range seen {
		out = append(out, n)
	}
	slices.Sort(out)
	return out[:min(len(out), 20)]
}

var notFields = map[string]bool{
	"type": true, "enum": true, "class": true, "return": true, "case": true, "new": true, "extends": true, "import": true,
	"from": true, "as": true, "const": true, "export": true, "struct": true, "func": true, "string": true, "default": true,
	"static": true, "public": true, "private": true,
}

// plain is a state without its quotes and without what it is a member of.
func plain(ref string) string {
	ref = strings.Trim(ref, `"'`)
	return ref[strings.LastIndexAny(ref, `.:>`)+1:]
}

var (
	leaves  = regexp.MustCompile(`^\s*(?:return|throw|raise|continue|break|panic|exit)\b`)
	chooses = regexp.MustCompile(`\b(?:switch|match)\s*$|` +
		`^\s*(?:return\s+|\w+\s*=\s*)?(?:switch|match|when|case)\b[^:]*?(?:\{|:|\bof|\bin)?\s*$|` +
		`\b(?:switch|match|when)\b.*\{\s*$`)
	label   = regexp.MustCompile(`^\s*(?:case\b|when\b|\|)?\s*(.+?)\s*(?:=>|->|:|\bthen\b|$)`)
	forRest = regexp.MustCompile(`^\s*(?:default\b|_\s*(?:=>|->|:)|case\s+_|else\b)`)
	other   = regexp.MustCompile(`(\w+)\s*(?:===?|eq|is)\s*["'](\w[\w.-]*)["']`)
)

var choosing = []string{"switch", "match", "when", "case"}

// open is a choice that the scan is in.
type open struct {
	indent int
	choice StateChoice
	has    map[string]bool
	now    []string // the states of the case the scan is in
	gives  bool     // what its cases give a field is given
}

func (f *follower) text(t *Text) {
	var stack []open
	var was condition
	shut := func(to int) {
		for len(stack) > 0 && stack[len(stack)-1].indent >= to {
			f.close(&stack[len(stack)-1])
			stack = stack[:len(stack)-1]
		}
	}
	if t.read == nil {
		t.read = newPage(t.Lines)
	}
	naming := t.read.naming(f.h.Members)
	for i := range t.read.lines {
		line, indent := t.read.lines[i].text, t.read.lines[i].indent
		text := strings.TrimSpace(line)
		if text == "" || text == "{" { // a brace in a line of its own opens what stands before
			continue
		}
		// Cases may stand as deep as the word that opens the choice.
		if isCase := strings.HasPrefix(text, "case") || strings.HasPrefix(text, "default") || strings.HasPrefix(text, "when "); isCase {
			shut(indent + 1)
		} else {
			shut(indent)
		}
		was.leave(indent)
		// Most lines name no state and choose nothing.
		names := naming[i]
		if n := len(stack); n > 0 && (names || forRest.MatchString(line)) {
			f.arm(&stack[n-1], line)
		}
		if t.read.lines[i].chooses && chooses.MatchString(line) && !(names && f.ref.MatchString(text)) {
			stack = append(stack, open{
				indent: indent, has: map[string]bool{}, gives: f.takes.MatchString(line),
				choice: StateChoice{Path: t.Path, Line: i + 1, By: t.By(i + 1)},
			})
		}
		if !names {
			continue
		}
		f.moves(t, i+1, line, stack, &was)
		if !strings.Contains(text, "if") {
			continue
		}
		if state := f.askedFor(line); state != "" {
			was = condition{state: state, indent: indent, on: true}
		} else if m := f.unless.FindStringSubmatch(line); m != nil && turnsBack(t.read.lines, i) {
			was = condition{state: plain(m[1]), indent: indent - 1, on: true}
		}
	}
	shut(0)
}

// turnsBack reports whether what a condition decides on leaves, in its own line
// or the next.
func turnsBack(lines []pageLine, i int) bool {
	if at := strings.LastIndexAny(lines[i].text, "):"); at >= 0 && leaves.MatchString(lines[i].text[at+1:]) {
		return true
	}
	return i+1 < len(lines) && leaves.MatchString(lines[i+1].text)
}

// condition is the state that the block around asks for.
type condition struct {
	state  string
	indent int
	on     bool
}

func (c *condition) leave(indent int) {
	if c.on && indent <= c.indent {
		*c = condition{}
	}
}

// arm notes which states the case on a line is for.
func (f *follower) arm(o *open, line string) {
	if forRest.MatchString(line) {
		o.choice.Else, o.now = true, nil
		return
	}
	m := label.FindStringSubmatch(strings.ReplaceAll(line, "::", "."))
	if m == nil {
		return
	}
	// A line that goes on with something else is no case.
	var now []string
	for _, part := range strings.FieldsFunc(m[1], func(c rune) bool { return c == ',' || c == '|' }) {
		part = strings.TrimSpace(strings.TrimPrefix(strings.TrimSpace(part), "case "))
		if got := f.ref.FindString(part); got == "" || got != part || !f.member[plain(got)] {
			return
		}
		now = append(now, plain(part))
	}
	if len(now) == 0 {
		return
	}
	o.now = now
	for _, s := range now {
		o.has[s] = true
	}
}

func (f *follower) close(o *open) {
	if len(o.has) < 2 {
		return
	}
	c := o.choice
	c.Lacks, c.Rest = []string{}, []string{}
	for _, m := range f.h.Members {
		switch {
		case o.has[m]:
		case c.Else:
			c.Rest = append(c.Rest, m)
		default:
			c.Lacks = append(c.Lacks, m)
		}
	}
	f.h.Choices = append(f.h.Choices, c)
}

// maxMoves bounds how many steps of one holder are kept.
const maxMoves = 400

// moves notes what a line gives a field that holds a state.
func (f *follower) moves(t *Text, n int, line string, stack []open, was *condition) {
	for _, m := range f.given.FindAllStringSubmatchIndex(line, 6) {
		behind := strings.TrimLeft(line[m[1]:], " ")
		to := plain(line[m[2]:m[3]])
		// state: 'a' | 'b' declares; state == 'a' asks.
		if !f.member[to] || strings.HasPrefix(behind, "|") || strings.Contains(line[m[0]:m[2]], "==") || len(f.h.Moves) >= maxMoves {
			continue
		}
		move := StateMove{To: to, By: t.By(n), Path: t.Path, Line: n}
		before := line[:m[0]]
		for _, o := range other.FindAllStringSubmatch(line, 4) {
			if !f.member[o[2]] {
				move.When = o[1] + " " + o[2]
			}
		}
		f.move(move, f.froms(line, before, stack, was))
	}
	for _, m := range f.either.FindAllStringSubmatch(line, 2) {
		for _, to := range m[1:] {
			f.move(StateMove{To: plain(to), By: t.By(n), Path: t.Path, Line: n}, f.froms(line, "", stack, was))
		}
	}
	if k := len(stack); k > 0 && stack[k-1].gives {
		if m := f.arms.FindStringSubmatch(line); m != nil && f.member[plain(m[1])] {
			f.move(StateMove{To: plain(m[1]), By: t.By(n), Path: t.Path, Line: n}, stack[k-1].now)
		}
	}
}

// froms are the states that a move on a line goes from; "" stands for any.
func (f *follower) froms(line, before string, stack []open, was *condition) []string {
	asked := f.askedFor(before)
	if behind := strings.Index(line, " if "); asked == "" && behind > len(before) {
		asked = f.askedFor(line[behind:])
	}
	switch k := len(stack); {
	case asked != "":
		return []string{asked}
	case k > 0 && len(stack[k-1].now) > 0:
		return stack[k-1].now
	case was.on:
		return []string{was.state}
	}
	return []string{""}
}

func (f *follower) move(m StateMove, froms []string) {
	for _, from := range froms {
		if len(f.h.Moves) < maxMoves {
			m.From = from
			f.h.Moves = append(f.h.Moves, m)
		}
	}
}
