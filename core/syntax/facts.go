package syntax

import (
	"cmp"
	"regexp"
	"slices"
	"sort"
	"strings"
	"sync"

	"jantel/core/model"
)

// Signs gathers telling things while a reader walks.
type Signs map[model.SignName]*model.Sign

// Add counts one more of name, met on line.
func (s Signs) Add(name model.SignName, line int) {
	if x := s[name]; x != nil {
		x.Count++
		x.Line = min(x.Line, line)
		return
	}
	s[name] = &model.Sign{Name: name, Line: line, Count: 1}
}

// List returns the signs by name.
func (s Signs) List() []model.Sign {
	var out []model.Sign
	for _, x := range s {
		out = append(out, *x)
	}
	sort.Slice(out, func(i, j int) bool { return out[i].Name < out[j].Name })
	return out
}

// Finish puts the facts of a lexed file into their fixed order and fills in
// what every language shares. The stream is not to be used afterwards.
func Finish(how How, f *model.Facts, s *Stream, signs Signs) *model.Facts {
	CountStream(f, s)
	if how.By != ByOthers {
		s.tell()
		traits(f, s, signs)
		wired(f, s)
	}
	if f.Starts == 0 && Interpreter(s.Src) != "" {
		f.Starts = 1 // it can be run by its name
	}
	f.Read = model.ReadFull
	if f.Problem = cmp.Or(s.Problem, unlooked[how.By]); f.Problem != "" {
		f.Read = model.ReadPartial
	}
	f.Signs = signs.List()
	for i := range f.Definitions {
		// A group that is never closed would end behind the last line.
		d := &f.Definitions[i]
		d.EndLine = min(max(d.Line, d.EndLine), f.Lines)
	}
	if f.Starts == 1 && Interpreter(s.Src) != "" && onlyDefines(f, ProfileOf(how.Language).CalledBelow, s.LastLine()) {
		f.Starts = 0 // it has the line of a program, and does nothing when it is run
	}
	moved := order(f)
	if s.chains != nil {
		f.Body = s.chains.pack(f.Definitions, moved, comesIn(f))
		s.chains.release()
		s.chains = nil
	}
	if how.By != ByOthers {
		answers(f, s)
		inserted(f, s)
		faults(f, s)
	}
	if how.By == ByPeople {
		insides(f, s)
		offRoutes(f, s)
		prints(f, s)
		f.Hints = weigh(s)
	}
	sort.SliceStable(f.Imports, func(i, j int) bool { return f.Imports[i].Line < f.Imports[j].Line })
	s.Release()
	return f
}

// comesIn reports whether a file has functions in place that requests or
// messages come in by.
func comesIn(f *model.Facts) bool {
	return slices.ContainsFunc(f.Routes, func(r model.RouteFact) bool { return r.InPlace }) ||
		slices.ContainsFunc(f.Messages, func(m model.MessageFact) bool { return !m.Send })
}

// order sorts the definitions by where they stand, and tells where each went.
func order(f *model.Facts) []int32 {
	was := make([]int32, len(f.Definitions))
	for i := range was {
		was[i] = int32(i)
	}
	slices.SortStableFunc(was, func(i, j int32) int {
		a, b := &f.Definitions[i], &f.Definitions[j]
		return cmp.Or(cmp.Compare(a.Line, b.Line), cmp.Compare(b.EndLine, a.EndLine))
	})
	moved := make([]int32, len(was))
	room := f.Definitions
	if f.Definitions = nil; len(was) > 0 {
		f.Definitions = make([]model.Definition, len(was))
	}
	for to, from := range was {
		f.Definitions[to], moved[from] = room[from], int32(to)
	}
	if cap(room) <= mostRoom {
		clear(room)
		room = room[:0]
		definitionRooms.Put(&room)
	}
	return moved
}

// NewFacts are the facts of a file whose reader ends with Finish. Until then its
// definitions stand in room that was used before: as many as there are in the
// end, nobody knows, and a definition is large.
func NewFacts() *model.Facts {
	f := &model.Facts{}
	if room, ok := definitionRooms.Get().(*[]model.Definition); ok {
		f.Definitions = *room
	}
	return f
}

var definitionRooms sync.Pool

// mostRoom bounds the room that is kept.
const mostRoom = 4096

// onlyDefines reports whether types are all that a file holds at its top, down to the
// line of its last token; functions as well where nothing below them is left to call
// them.
func onlyDefines(f *model.Facts, calledBelow bool, end int) bool {
	last, some := 0, false
	for i := range f.Definitions {
		d := &f.Definitions[i]
		if d.Parent != "" {
			continue
		}
		switch d.Kind {
		case model.DefClass, model.DefInterface, model.DefNamespace, model.DefType, model.DefEnum:
			last, some = max(last, d.EndLine), true
		case model.DefFunction, model.DefComponent:
			if !calledBelow {
				return false
			}
			last, some = max(last, d.EndLine), true
		}
	}
	return some && last >= end
}

var sqlStarts = []string{"SELECT ", "INSERT INTO ", "INSERT OR ", "UPDATE ", "DELETE FROM ", "CREATE TABLE ", "WITH "}

var sqlWords = Set("SELECT", "INSERT", "UPDATE", "DELETE", "CREATE", "WITH")

// LooksSQL reports whether a string literal is an SQL statement, however it is
// broken into lines.
func LooksSQL(text string) bool {
	text = strings.TrimLeft(text, " \t\r\n\"'`")
	if len(text) < 10 || !startsSQL(text[0]) {
		return false
	}
	end := strings.IndexAny(text[:min(len(text), 8)], " \t\r\n")
	if end < 4 || !sqlWords[strings.ToUpper(text[:end])] {
		return false
	}
	up := strings.Join(strings.Fields(strings.ToUpper(text[:min(len(text), 400)])), " ") + " "
	for _, p := range sqlStarts {
		if strings.HasPrefix(up, p) {
			if p == "UPDATE " { // people update things from somewhere as well
				return strings.Contains(up, " SET ")
			}
			return strings.Contains(up, " FROM ") || strings.Contains(up, " SET ") || strings.Contains(up, " INTO ") ||
				strings.Contains(up, " TABLE ")
		}
	}
	return false
}

// startsSQL reports whether a statement can start with a letter.
func startsSQL(c byte) bool {
	switch c | 0x20 {
	case 's', 'i', 'u', 'd', 'c', 'w':
		return true
	}
	return false
}

// LooksSQL reports whether token i, a text, is an SQL statement.
func (s *Stream) LooksSQL(i int) bool {
	b := s.Bytes(i)
	for n := 0; n < len(b); n++ {
		switch b[n] {
		case ' ', '\t', '\r', '\n', '"', '\'', '`':
			continue
		}
		// Nearly all texts are turned away by their first letter.
		return (startsSQL(b[n]) || n < 3 && startsSQL(b[min(n+1, len(b)-1)])) && LooksSQL(s.Unquote(i))
	}
	return false
}

// Sentence takes the opening paragraph of an author's text about a thing,
// as one line of at most max bytes.
func Sentence(text string, max int) string {
	text = strings.TrimSpace(strings.ToValidUTF8(text, ""))
	if i := strings.Index(text, "\n\n"); i >= 0 {
		text = text[:i]
	}
	text = strings.Join(strings.Fields(text), " ")
	if len(text) <= max {
		return text
	}
	if i := strings.LastIndex(text[:max], ". "); i > max/3 {
		return text[:i+1]
	}
	if i := strings.LastIndexByte(text[:max], ' '); i > 0 {
		return text[:i] + " …"
	}
	return text[:max]
}

var docTags = regexp.MustCompile(`\{@\w+ ([^}]*)\}|</?\w[^>]{0,200}>`)

// DocComment is what a comment between /** and */ says before its first tag.
func DocComment(comment string) string {
	var lines []string
	for l := range strings.Lines(strings.TrimSuffix(strings.TrimPrefix(comment, "/**"), "*/")) {
		l = strings.TrimPrefix(strings.TrimSpace(l), "*")
		l = strings.TrimSpace(strings.NewReplacer("@fileoverview", "", "@file", "").Replace(l))
		if strings.HasPrefix(l, "@") || strings.HasPrefix(l, "Copyright") {
			break
		}
		lines = append(lines, l)
	}
	return Sentence(docTags.ReplaceAllString(strings.Join(lines, "\n"), "$1"), 240)
}

// SortedSet returns the keys of a set in order.
func SortedSet(m map[string]bool) []string {
	if len(m) == 0 {
		return nil
	}
	out := make([]string, 0, len(m))
	for k := range m {
		out = append(out, k)
	}
	sort.Strings(out)
	return out
}

// TypeMentions lists the names met in the code that are written like types
// (a capital first), not behind a dot, without those to leave out.
func TypeMentions(s *Stream, without map[string]bool) []model.Mention {
	seen := map[string]int{}
	for i := range s.Tokens {
		t := &s.Tokens[i]
		if t.Kind != Ident || i > 0 && s.Tokens[i-1].Kind == Punct && s.Src[s.Tokens[i-1].Start] == '.' {
			continue
		}
		if c := s.Src[t.Start]; c < 'A' || c > 'Z' {
			continue
		}
		if _, ok := seen[string(s.Src[t.Start:t.End])]; !ok {
			seen[string(s.Src[t.Start:t.End])] = int(t.Line)
		}
	}
	out := make([]model.Mention, 0, len(seen))
	for n, line := range seen {
		if !without[n] {
			out = append(out, model.Mention{Name: n, Line: line})
		}
	}
	if len(out) == 0 {
		return nil
	}
	sort.Slice(out, func(i, j int) bool { return out[i].Name < out[j].Name })
	return out
}
