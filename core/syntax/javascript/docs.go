package javascript

import (
	"bytes"
	"regexp"
	"strconv"

	"jantel/core/model"
	"jantel/core/syntax"
)

// docs are the comments of a file without types of its own that say types: what
// a function takes and gives, what a name holds.
type docs struct {
	ends  map[int]*doc   // by the line they end on
	casts map[int32]*doc // by where what stands behind them begins
	names map[string]model.Use
	// types are those that comments define, as types are written.
	types []byte
	read  int // texts of comments that were read so far
}

// doc is one comment, with what it says as it is written.
type doc struct {
	params map[string][]byte
	order  [][]byte // the same, one after the other
	result []byte
	holds  []byte
	used   bool // by the first function or name below it
}

var (
	docParam   = regexp.MustCompile(`@(?:param|arg|argument)\s+\{`)
	docResult  = regexp.MustCompile(`@returns?\s+\{`)
	docHolds   = regexp.MustCompile(`@type\s+\{`)
	docImports = regexp.MustCompile(`@typedef\s+\{\s*import\(\s*["']([^"'\s]+)["']\s*\)(?:\.(\w+))?\s*\}\s*(\w+)`)
	docTag     = regexp.MustCompile(`@import\s+(?:\*\s+as\s+(\w+)|(\w+))?\s*,?\s*(?:\{([^}]*)\})?\s*from\s+["']([^"'\s]+)["']`)
	docDefines = regexp.MustCompile(`@typedef\s+\{`)
	docMember  = regexp.MustCompile(`@prop(?:erty)?\s+\{`)
	docName    = regexp.MustCompile(`^\s*\[?\s*(\w+)`)
)

// mostType is how long a type in a comment may be, in bytes.
const mostType = 200

// typesInComments gathers them.
func (r *reader) typesInComments(src []byte) *docs {
	if r.typed || !bytes.Contains(src, []byte("@")) {
		return nil
	}
	out := &docs{ends: map[int]*doc{}, casts: map[int32]*doc{}, names: map[string]model.Use{}}
	for i := range r.s.Comments {
		t := &r.s.Comments[i]
		text := src[t.Start:t.End]
		if len(text) < 5 || !bytes.HasPrefix(text, []byte("/**")) || !bytes.Contains(text, []byte("@")) {
			continue
		}
		for _, m := range docImports.FindAllSubmatch(text, -1) {
			name := "*"
			if len(m[2]) > 0 {
				name = string(m[2])
			}
			out.names[string(m[3])] = model.Use{Module: string(m[1]), Name: name}
		}
		out.imported(text)
		out.define(text)
		d := &doc{params: map[string][]byte{}}
		for _, at := range docParam.FindAllIndex(text, -1) {
			kind, rest := braced(text[at[1]:])
			if m := docName.FindSubmatch(rest); m != nil && kind != nil {
				d.params[string(m[1])] = kind
				if !bytes.HasPrefix(rest[len(m[0]):], []byte(".")) { // a member of one is none
					d.order = append(d.order, kind)
				}
			}
		}
		if at := docResult.FindIndex(text); at != nil {
			d.result, _ = braced(text[at[1]:])
		}
		if at := docHolds.FindIndex(text); at != nil {
			d.holds, _ = braced(text[at[1]:])
		}
		if len(d.params) > 0 || d.result != nil || d.holds != nil {
			out.ends[int(t.EndLine)] = d
			if d.holds != nil {
				at := t.End
				for int(at) < len(src) && syntax.In(src[at], " \t\r\n") {
					at++
				}
				out.casts[at] = d
			}
		}
	}
	if len(out.ends) == 0 && len(out.types) == 0 {
		return nil
	}
	return out
}

// imported takes the names that "@import Lot, { Box as Crate } from './lots'" gives.
func (d *docs) imported(text []byte) {
	for _, m := range docTag.FindAllSubmatch(text, -1) {
		module := string(m[4])
		if len(m[1]) > 0 {
			d.names[string(m[1])] = model.Use{Module: module, Name: "*"}
		}
		if len(m[2]) > 0 {
			d.names[string(m[2])] = model.Use{Module: module, Name: "default"}
		}
		for _, one := range bytes.Split(m[3], []byte(",")) {
			words := bytes.Fields(bytes.Trim(one, " \t\r\n*"))
			if len(words) > 0 {
				d.names[string(words[len(words)-1])] = model.Use{Module: module, Name: string(words[0])}
			}
		}
	}
}

// define takes the types that a comment defines: of another, or of members.
func (d *docs) define(text []byte) {
	for _, at := range docDefines.FindAllIndex(text, -1) {
		kind, rest := braced(text[at[1]:])
		name := docName.FindSubmatch(rest)
		if name == nil || bytes.HasPrefix(kind, []byte("import(")) {
			continue
		}
		if k := string(bytes.ToLower(kind)); k == "object" {
			if next := docDefines.FindIndex(rest); next != nil {
				rest = rest[:next[0]]
			}
			kind = []byte("{")
			for _, m := range docMember.FindAllIndex(rest, -1) {
				of, behind := braced(rest[m[1]:])
				if member := docName.FindSubmatch(behind); member != nil && of != nil {
					kind = append(append(append(append(kind, member[1]...), ": "...), of...), ';')
				}
			}
			kind = append(kind, '}')
		}
		d.types = append(append(append(append(append(d.types, "type "...), name[1]...), " = "...), kind...), ";\n"...)
	}
}

// braced is what stands before the brace that closes, and what stands behind it; nil
// where it is too long or not closed.
func braced(text []byte) (inside, rest []byte) {
	depth := 1
	for i := 0; i < min(len(text), mostType); i++ {
		switch text[i] {
		case '{':
			depth++
		case '}':
			if depth--; depth == 0 {
				return bytes.Trim(text[:i], " \t\r\n*?!=."), text[i+1:]
			}
		}
	}
	return nil, nil
}

// above is the comment right above a line, for the first that asks.
func (d *docs) above(line int) *doc {
	if d == nil {
		return nil
	}
	if found := d.ends[line-1]; found != nil && !found.used && found.holds == nil {
		found.used = true
		return found
	}
	return nil
}

// typeAbove is what the comment right above or before a name says that it holds.
func (d *docs) typeAbove(w *walker, i int) int32 {
	if d == nil {
		return none
	}
	for _, line := range [2]int{w.s.Line(i) - 1, w.s.Line(i)} {
		if found := d.ends[line]; found != nil && !found.used && found.holds != nil {
			found.used = true
			return w.said(found.holds)
		}
	}
	return none
}

// cast is what the comment right before a bracket says that stands in it.
func (d *docs) cast(w *walker, i int) int32 {
	if d == nil || d.casts[w.s.Tokens[i].Start] == nil {
		return none
	}
	found := d.casts[w.s.Tokens[i].Start]
	found.used = true
	return w.said(found.holds)
}

// gives is what the function below is said to give.
func (d *doc) gives(w *walker) int32 {
	if d == nil || d.result == nil {
		return none
	}
	return w.said(d.result)
}

// takes is what the function below is said to take under a name, or, where it takes it
// apart at once, in that place.
func (d *doc) takes(w *walker, at, nth int) int32 {
	switch {
	case d == nil:
	case w.s.IsIdent(at) && d.params[w.s.Text(at)] != nil:
		return w.said(d.params[w.s.Text(at)])
	case w.s.Is(at, "{") && nth < len(d.order):
		return w.said(d.order[nth])
	}
	return none
}

// said is a value of a type that stands in a comment. It is read as types are, with the
// names that comments give to those of other modules.
func (w *walker) said(text []byte) int32 {
	if text[0] == '{' || bytes.HasPrefix(text, []byte("function")) {
		return none
	}
	t, _ := w.inside(text).typ(0)
	if t == none {
		return none
	}
	return w.instance(t)
}

// inside walks a text of a comment, with the names of the file.
func (w *walker) inside(text []byte) *walker {
	w.r.docs.read++
	s := lex(text, false, true)
	r := &reader{s: s, f: w.r.f, typed: true, locals: w.r.locals, docs: w.r.docs}
	return &walker{
		r: r, s: s, c: w.c, gives: none, owner: w.owner, values: w.values, kept: w.kept, salt: strconv.Itoa(w.r.docs.read) + "@",
	}
}

// defined keeps the types that comments define.
func (w *walker) defined(text []byte) {
	in := w.inside(text)
	in.statements(0, in.s.Len())
	for i := range in.s.Len() {
		if in.s.Match(i, "type", syntax.Name, "=", "{") && (i == 0 || in.s.Line(i) != in.s.Line(i-1)) {
			// It is no definition, and others take it by its name all the same.
			w.c.Shape(model.Shape{Owner: w.owner, Name: in.s.Text(i + 1), Kind: model.ShapeUnder, Node: none})
		}
	}
}

// named is what a comment calls by a name.
func (d *docs) named(name string) (model.Use, bool) {
	if d == nil {
		return model.Use{}, false
	}
	u, ok := d.names[name]
	return u, ok
}
