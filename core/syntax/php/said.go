package php

import (
	"bytes"
	"regexp"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// maxAbout is as much of a comment as is looked at, in bytes: each parameter is
// looked for in it, which would add up without end in a text made for it.
const maxAbout = 4000

// about is the comment that stands right before a token and speaks of what
// begins there, "" where there is none.
func (w *walker) about(i int) string {
	s := w.s
	if i >= s.Len() {
		return ""
	}
	start := s.Tokens[i].Start
	k := sort.Search(len(s.Comments), func(k int) bool { return s.Comments[k].Start >= start }) - 1
	if k < 0 || i > 0 && s.Comments[k].Start < s.Tokens[i-1].Start {
		return ""
	}
	text := s.Src[s.Comments[k].Start:s.Comments[k].End]
	text = text[:min(len(text), maxAbout)]
	if !bytes.HasPrefix(text, []byte("/**")) {
		return ""
	}
	return string(text)
}

// saidOf is a value of the type that a comment gives a variable, or what is
// handed out.
func (w *walker) saidOf(about, tag, variable string) int32 {
	for rest := about; ; {
		at := strings.Index(rest, tag)
		if at < 0 {
			return none
		}
		rest = rest[at+len(tag):]
		line, _, _ := strings.Cut(strings.TrimSuffix(rest, "*/"), "\n")
		typ, more := cutType(strings.TrimSpace(line))
		if variable != "" && !strings.HasPrefix(strings.TrimLeft(more, ".& "), variable) {
			continue
		}
		return w.typeSaid(typ)
	}
}

// cutType parts a type from what follows it: blanks part it but between brackets.
func cutType(line string) (typ, more string) {
	deep := 0
	for i := range len(line) {
		switch line[i] {
		case '<', '(', '{':
			deep++
		case '>', ')', '}':
			deep--
		case ' ', '\t':
			if deep <= 0 {
				return line[:i], strings.TrimSpace(line[i:])
			}
		}
	}
	return line, ""
}

var listTypes = syntax.Set("array", "list", "iterable", "non-empty-list", "non-empty-array", "Traversable", "Iterator", "Generator")

// typeSaid is a value of the type as comments write it: Lot, ?Lot, Lot|null,
// Lot[], array<int, Lot>.
func (w *walker) typeSaid(typ string) int32 {
	all := none
	for _, one := range strings.Split(strings.Trim(typ, "?()"), "|") {
		all = w.c.Either(all, w.oneSaid(one))
	}
	return all
}

func (w *walker) oneSaid(one string) int32 {
	name, inner, generic := strings.Cut(one, "<")
	list := strings.HasSuffix(one, "[]")
	if generic && listTypes[name] {
		parts := strings.Split(strings.TrimSuffix(inner, ">"), ",")
		name, list = strings.TrimSpace(parts[len(parts)-1]), true
	}
	name = strings.TrimSuffix(name, "[]")
	low := strings.ToLower(name)
	if ownType[low] {
		name = w.class
	}
	if plain[low] || !className.MatchString(name) {
		return none
	}
	node := w.c.Name([]byte(strings.TrimPrefix(name, `\`)))
	if list {
		node = w.c.Go(node, model.ChainList, nil)
	}
	return w.c.Instance(node)
}

var ownType = syntax.Set("self", "static", "$this")

var className = regexp.MustCompile(`^\\?[A-Za-z_$][\w\\]*$`)

// holes walks what stands in braces between the letters of a text.
func (w *walker) holes(i int) {
	text := w.s.Bytes(i)
	if text[0] == '\'' || text[0] == '`' || bytes.HasPrefix(text, []byte("<<<'")) {
		return
	}
	line := w.s.Line(i)
	for at := bytes.Index(text, []byte("{$")); at >= 0; at = bytes.Index(text, []byte("{$")) {
		line += bytes.Count(text[:at], []byte{'\n'})
		text = text[at+1:]
		end := bytes.IndexByte(text, '}')
		if end < 0 {
			return
		}
		if hole := text[:end]; bytes.Contains(hole, []byte("->")) || bytes.Contains(hole, []byte("::")) {
			b := syntax.NewBuilder(hole)
			b.LineNo = line
			code(b)
			in := *w
			in.s = b.Finish()
			in.expr(0)
			in.s.Release()
		}
		text = text[end:]
	}
}

// pair reads [a thing, 'a method of it'], which stands for the method.
func (w *walker) pair(open int) {
	s := w.s
	args := s.Args(open)
	if len(args) != 2 || args[1][1] != args[1][0]+1 || s.Kind(args[1][0]) != syntax.String || args[0][1]-args[0][0] > 4 {
		return
	}
	name := s.Unquote(args[1][0])
	if !className.MatchString(name) {
		return
	}
	first := args[0][0]
	node := none
	switch {
	case args[0][1] == first+1:
		node, _, _ = w.operand(first)
	case s.Match(first, syntax.Name, ":", ":") && w.is(first+3, "class"):
		node = w.name(first)
	}
	w.c.Put(w.c.Member(node, []byte(name)), model.CallPlain, s.Line(first))
}

// takers are functions that are handed the name of a function to call.
var takers = syntax.Set("array_map", "array_filter", "array_walk", "array_reduce", "usort", "uasort", "uksort", "call_user_func",
	"call_user_func_array", "preg_replace_callback", "register_shutdown_function", "set_error_handler", "set_exception_handler",
	"spl_autoload_register", "ob_start", "add_action", "add_filter", "add_shortcode", "register_activation_hook",
	"register_deactivation_hook", "register_uninstall_hook", "add_menu_page", "add_submenu_page", "add_meta_box", "forward_static_call")

// handed reads the names of functions that are handed as texts to what calls them.
func (w *walker) handed(open int) {
	s := w.s
	if open == 0 || !takers[strings.ToLower(s.Text(open-1))] || s.Any(open-2, ">", ":") {
		return
	}
	for n, a := range s.Args(open) {
		if n == 0 && strings.HasPrefix(s.Text(open-1), "add_") {
			continue // what it hangs on is a name of its own
		}
		if a[1] == a[0]+1 && s.Kind(a[0]) == syntax.String {
			w.c.Put(w.written(s.Unquote(a[0])), model.CallPlain, s.Line(a[0]))
		}
	}
}

// written is what a text names: a function, or "Class::method".
func (w *walker) written(text string) int32 {
	class, method, of := strings.Cut(text, "::")
	if !className.MatchString(class) || of && !className.MatchString(method) {
		return none
	}
	node := w.c.Name([]byte(strings.TrimPrefix(class, `\`)))
	if of {
		return w.c.Member(node, []byte(method))
	}
	return node
}
