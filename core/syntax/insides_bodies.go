package syntax

import (
	"slices"
	"strings"

	"jantel/core/model"
)

// body looks at the head of a definition and at what its body as a whole does:
// whether nothing stands in it, whether an expression is all of it, and whether
// it only hands its arguments on.
func (w *insider) body(i int, d *model.Definition, in *model.Inside) {
	s := w.s
	params, from, to, gives := w.head(i, d)
	in.Gives = gives || s.Implicit || handsOver(params)
	in.Takes = w.takes(d, params)
	if from < 0 {
		// Only declared, or written in a way that is not known here.
		in.Gives, in.Empty = true, true
		return
	}
	if w.indented && s.Kind(from) == String && s.Kind(from+1) == Newline {
		from += 2 // what it is for
	}
	if from >= to || s.Any(from, "pass", "throw", "raise", "...", ".", "panic") {
		in.Empty = true
		return
	}
	in.Passes = w.passes(params, from, to)
}

// mayAnswer is how classes are called whose methods answer requests.
var mayAnswer = []string{"Controller", "Resource", "Handler", "Action", "Endpoint", "Api", "View", "ViewSet"}

// answersByName reports whether a class is called so, of one or of many.
func answersByName(class string) bool {
	class = strings.TrimSuffix(class, "s")
	return slices.ContainsFunc(mayAnswer, func(end string) bool { return strings.HasSuffix(class, end) })
}

// takes are the types that something which may answer a request takes.
func (w *insider) takes(d *model.Definition, params [][]string) (types []string) {
	if len(w.f.Routes) == 0 && (d.Parent == "" || !answersByName(d.Parent)) {
		return nil
	}
	for _, words := range params {
		for _, word := range words {
			word = word[strings.LastIndexByte(word, '\\')+1:]
			if word != "" && word[0] >= 'A' && word[0] <= 'Z' && len(types) < 8 && !slices.Contains(types, word) {
				types = append(types, word)
			}
		}
	}
	return types
}

// head finds the parameters of a definition, each as the words it is written
// with, and its body: tokens from up to, but not with, to. from is -1 where it
// has none. gives says that the head alone tells that a value is given back: an
// expression is all of it, or its results have names.
func (w *insider) head(i int, d *model.Definition) (params [][]string, from, to int, gives bool) {
	s := w.s
	k := w.nameOf(i, d) + 1
	if k == 0 {
		return nil, -1, -1, false
	}
	for end := k + 24; k < end && !s.Is(k, "("); k++ {
		if s.Any(k, "{", ";", "=>") || s.Kind(k) == EOF || s.Kind(k) == Newline {
			break
		}
	}
	if s.Is(k, "(") {
		params = w.params(k)
		w.paramNames(k, s.Is(i, "func"))
		k = s.Close(k) + 1
	}
	for end := k + 60; k < end && s.Kind(k) != EOF; k++ {
		if s.Kind(k) == Newline {
			if from, to, ok := w.lineEnd(k); ok {
				return params, from, to, gives
			}
			continue
		}
		switch b := s.Bytes(k); {
		case b[0] == '{':
			return params, k + 1, s.Close(k), gives
		case string(b) == "=>" && s.Is(k+1, "{"):
			return params, k + 2, s.Close(k + 1), false
		case string(b) == "=>", b[0] == '=' && s.Is(k+1, ">"), w.written(k):
			return params, -1, -1, true
		case b[0] == ';':
			return params, -1, -1, false
		case b[0] == '(', b[0] == '[':
			gives = gives || s.Match(k, "(", Name) && (s.Kind(k+2) == Ident || s.Any(k+2, "*", "[", ","))
			k = s.Close(k)
		}
	}
	return params, -1, -1, false
}

// nameOf is the token that names a definition, -1 where it is not found.
func (w *insider) nameOf(i int, d *model.Definition) int {
	for k := i; k < i+40 && k < len(w.s.Tokens); k++ {
		if w.s.Is(k, d.Name) {
			return k
		}
	}
	return -1
}

// lineEnd is the body behind the end of a line, where one can begin there; ok is
// false where the head goes on.
func (w *insider) lineEnd(k int) (from, to int, ok bool) {
	switch {
	case w.s.Kind(k+1) == Indent:
		return k + 2, w.dedent(k + 2), true
	case w.s.Ends:
		return k + 1, k + 1 + min(24, len(w.s.Tokens)-k-1), true
	}
	return -1, -1, w.indented
}

// written reports whether a body written as one expression, or a value, begins
// at a token.
func (w *insider) written(k int) bool {
	s := w.s
	return s.Is(k, "=") && !w.indented && !s.Any(k+1, "async", "function", "(")
}

// takers are names of parameters that what is found is handed to.
var takers = Set("callback", "cb", "func", "callable", "closure", "done", "next",
	"result", "results", "out", "output", "into", "acc", "dest", "buffer", "buf", "bytes",
	"list", "ref", "handler", "listener", "consumer", "fn", "visitor", "res", "response", "resolve", "reply", "then")

// handsOver reports whether a value may leave through a parameter.
func handsOver(params [][]string) bool {
	for _, words := range params {
		for _, p := range words {
			if takers[strings.ToLower(strings.TrimLeft(p, "$&*"))] {
				return true
			}
		}
	}
	return false
}

// dedent is where the block that begins at a token ends.
func (w *insider) dedent(k int) int {
	depth := 1
	for end := min(len(w.s.Tokens), k+40); k < end; k++ {
		switch w.s.Tokens[k].Kind {
		case Indent:
			depth++
		case Dedent:
			if depth--; depth == 0 {
				return k
			}
		}
	}
	return k
}

// params are the words of each parameter in the brackets at a token; the
// instance is none.
func (w *insider) params(open int) (out [][]string) {
	s := w.s
	for _, a := range s.Args(open) {
		words := s.paramWords(a[0], min(a[1], a[0]+12))
		if len(words) > 0 && !(len(out) == 0 && (words[0] == "self" || words[0] == "cls")) {
			out = append(out, words)
		}
		if len(out) > 12 {
			break
		}
	}
	return out
}

// paramWords are the words of one parameter, without what it is by default.
func (s *Stream) paramWords(from, to int) (words []string) {
	for k := from; k < to && !s.Is(k, "="); k++ {
		if s.Is(k, "&") {
			words = append(words, "ref")
		}
		if s.Kind(k) == Ident {
			words = append(words, s.Text(k))
		}
	}
	return words
}

// passes is what a body hands its own arguments on to, in their order, when
// that is all it does; "" otherwise. What builds something, or asks the class
// it is built on, does more.
func (w *insider) passes(params [][]string, from, to int) string {
	s := w.s
	k := from
	for s.Any(k, "return", "await", "yield") {
		k++
	}
	start := k
	if s.Any(k, "new", "super", "base", "parent") {
		return ""
	}
	for k < to && k < start+12 && (s.Kind(k) == Ident || s.Any(k, ".", "?.", "-", ">", ":", "!")) {
		k++
	}
	if k == start || !s.Is(k, "(") || !strings.ContainsAny(s.span(start, k), ".>:") {
		return ""
	}
	end := s.Close(k) + 1
	for end < to && (s.Is(end, ";") || s.Kind(end) == Newline) {
		end++
	}
	if end < to && !(s.Ends && s.Is(end, "end")) {
		return ""
	}
	if !w.same(params, s.Args(k)) {
		return ""
	}
	return s.span(start, k)
}

// same reports whether arguments are the parameters, in their order.
func (w *insider) same(params [][]string, args [][2]int) bool {
	if len(args) != len(params) {
		return false
	}
	for n, a := range args {
		if a[1]-a[0] > 2 || w.s.Kind(a[1]-1) != Ident || !slices.Contains(params[n], w.s.Text(a[1]-1)) {
			return false
		}
	}
	return true
}

// span is the text of some tokens, without what stands between them, at most 80 bytes.
func (s *Stream) span(from, to int) string {
	var b strings.Builder
	for k := from; k < to && b.Len() < 80; k++ {
		if k > from && s.Kind(k) == Ident && s.Kind(k-1) == Ident {
			b.WriteByte(' ')
		}
		b.Write(s.Bytes(k))
	}
	return b.String()
}

// owner is what holds the fields named at the present token: the class of a
// method, else the function itself.
func (w *insider) owner() string {
	if len(w.around) == 0 {
		return ""
	}
	d := &w.f.Definitions[w.around[len(w.around)-1].def]
	switch {
	case d.Kind == model.DefComponent || d.Kind == model.DefClass || d.Kind == model.DefType:
		return d.Qualified()
	case d.Parent != "":
		return d.Parent
	}
	return d.Qualified()
}

// flag takes a "true" or "false": what it is given to is a flag.
func (w *insider) flag(i int) {
	s := w.s
	switch {
	case s.Is(i-1, "=") && s.Kind(i-2) == Ident && !s.Is(i-3, "="):
		w.assigned(i - 2)
	case s.Match(i-2, Name, "(") && s.Is(i+1, ")") && !s.Any(i-3, ".", ">"):
		w.cell(i)
	}
}

// assigned takes a field, or a name that was declared as one, that is set. What
// is set of something else is no flag of this; what is only named may be local.
func (w *insider) assigned(name int) {
	s := w.s
	inside := w.in >= 0
	switch {
	case s.Any(name-1, ",", "(", "-"):
		return // an argument by name
	case s.Any(name-1, ".", ">"):
		if !selfBefore(s, name) && !s.Is(name-3, "this") && !s.Is(name-4, "this") && !w.onReceiver(name) {
			return
		}
	case inside && s.Src[s.Tokens[name].Start] != '@':
		if _, known := w.flags[flagKey(w.owner(), s.Text(name))]; !known {
			return
		}
	}
	w.flagged(s.Text(name), s.Line(name), inside && !starting(&w.f.Definitions[w.in]))
}

// onReceiver reports whether a member is one of the instance that a method calls
// by a name of its own.
func (w *insider) onReceiver(member int) bool {
	a := w.innermost()
	return a != nil && a.receiver != "" && w.s.Is(member-1, ".") && w.s.Is(member-2, a.receiver) && !w.s.Is(member-3, ".")
}

// cell takes a cell of state that begins as true or false, or the call that
// sets one: const [isOpen, setOpen] = useState(false), setOpen(true).
func (w *insider) cell(i int) {
	s := w.s
	fn := s.Text(i - 2)
	if rest, ok := strings.CutPrefix(fn, "set"); ok && rest != "" {
		if _, known := w.flags[flagKey(w.owner(), rest)]; known {
			w.flagged(rest, s.Line(i), true)
		}
		return
	}
	if fn != "useState" && fn != "signal" && fn != "ref" {
		return
	}
	switch {
	case s.Match(i-8, "[", Name, ",", Name, "]", "="):
		w.flagged(s.Text(i-7), s.Line(i), false)
	case s.Match(i-4, Name, "="):
		w.flagged(s.Text(i-4), s.Line(i), false)
	}
}

// flagKey names a flag of an owner. A setter is named for its flag with a
// capital.
func flagKey(owner, name string) [2]string {
	return [2]string{owner, strings.ToLower(strings.TrimLeft(name, "_$@"))}
}

// starting reports whether a function sets up what it belongs to.
func starting(d *model.Definition) bool {
	switch d.Name {
	case "constructor", "__init__", "__construct", "initialize", "init", "_ready":
		return true
	}
	return d.Parent != "" && d.Name == d.Parent
}

// flagged counts a flag, or that it is set.
func (w *insider) flagged(name string, line int, set bool) {
	owner := w.owner()
	if owner == "" || len(name) < 3 {
		return
	}
	key := flagKey(owner, name)
	at, known := w.flags[key]
	if !known {
		if len(w.f.Flags) >= maxInsides {
			return
		}
		at = len(w.f.Flags)
		w.f.Flags = append(w.f.Flags, model.Flag{Owner: owner, Name: name, Line: line})
		w.flags[key] = at
	}
	if set {
		w.f.Flags[at].Sets++
	}
}

// choice counts the cases behind a word that chooses.
func (w *insider) choice(i int) {
	s := w.s
	open := w.brace(i, wordSwitch)
	if open == 0 {
		return
	}
	c := model.Choice{Definition: w.in, Line: s.Line(i), Subject: s.span(i+1, min(open, i+20))}
	if s.Is(i+1, "(") && s.Close(i+1) == open-1 {
		c.Subject = s.span(i+2, min(open-1, i+20))
	}
	if cut := strings.LastIndex(c.Subject, ";"); cut >= 0 {
		c.Subject = c.Subject[cut+1:]
	}
	c.ByType = strings.HasSuffix(c.Subject, ".(type)")
	typed := 0
	c.Cases, typed = w.arms(open)
	c.ByType = c.ByType || typed > 0 && 2*typed >= c.Cases
	w.choose(c)
}

// arms counts the cases in a block, and how many of them are types.
func (w *insider) arms(open int) (cases, typed int) {
	s := w.s
	arms := 0
	for k, end := open+1, s.Close(open); k < end; k++ {
		switch {
		case s.Any(k, "{", "(", "["):
			k = s.Close(k)
		case s.Is(k, "case"):
			cases++
			if s.Kind(k+1) == Ident && s.Kind(k+2) == Ident {
				typed++
			}
		case s.Is(k, "=>"), s.Is(k, ">") && s.Any(k-1, "=", "-"):
			arms++
			if s.Is(k-2, ")") || s.Is(k-3, "is") {
				typed++
			}
		}
	}
	return max(cases, arms), typed
}

// choose keeps a choice among enough cases.
func (w *insider) choose(c model.Choice) {
	if c.Cases >= 5 && len(w.f.Choices) < maxInsides {
		w.f.Choices = append(w.f.Choices, c)
	}
}

// compared counts that a subject is compared with one more value, or asked for
// its type: cases written as one condition after the other.
func (w *insider) compared(i, with int, byType bool) {
	s := w.s
	from := i
	for from > 1 && from > i-8 && s.Any(from-1, ".", "->") && s.Kind(from-2) == Ident {
		from -= 2
	}
	if s.Is(with, "=") {
		with++
	}
	if !byType && s.Kind(with) != String || !s.Any(from-1, "(", "if", "elif", "|", "or", "!") {
		return
	}
	key := itoa(max(w.in, 0)) + " " + s.span(from, i+1)
	at, known := w.chosen[key]
	if !known {
		if len(w.chosen) >= maxInsides {
			return
		}
		at = len(w.f.Choices)
		w.chosen[key] = at
		w.f.Choices = append(w.f.Choices, model.Choice{Definition: w.in, Line: s.Line(i), Subject: s.span(from, i+1), ByType: byType})
	}
	w.f.Choices[at].Cases++
}

// done drops choices among few, and tells what stands beside the bodies.
func (w *insider) done() {
	kept := w.f.Choices[:0]
	for _, c := range w.f.Choices {
		if c.Cases >= 5 {
			kept = append(kept, c)
		}
	}
	w.f.Choices = kept
	if len(kept) == 0 {
		w.f.Choices = nil
	}
	asides(w.f, w.s)
	testCases(w.f, w.s)
	styleBlocks(w.f, w.s)
}
