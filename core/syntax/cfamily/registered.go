package cfamily

import (
	"bytes"
	"regexp"
	"strings"

	"jantel/core/model"
)

// Types of C that are made by macros and kept by a library at run time: what such a
// type builds upon stands in the macro alone.

// Macros that make such a type, by their beginnings.
var defining, declaring = []byte("G_DEFINE_"), []byte("G_DECLARE_")

// registered reads a type that the macro at i makes, as in
// G_DEFINE_TYPE (MoorShelf, moor_shelf, GTK_TYPE_BOX); it reports whether it is one.
func (r *reader) registered(i, paren int, in scope) bool {
	s := r.s
	declares := bytes.HasPrefix(s.Bytes(i), declaring)
	if !declares && !bytes.HasPrefix(s.Bytes(i), defining) {
		return false
	}
	args := s.Args(paren)
	if len(args) < 3 || !s.IsIdent(args[0][0]) {
		return false
	}
	name := s.Text(args[0][0])
	d := r.add(in, in.parent, name, model.DefClass, i, s.Close(paren))
	if declares {
		if last := args[len(args)-1]; s.IsIdent(last[0]) { // G_DECLARE_FINAL_TYPE (…, GtkBox)
			d.Bases = []string{s.Text(last[0])}
		}
		return true
	}
	d.Bases = appendBase(d.Bases, s.Text(args[2][0]))
	for k := args[2][0]; k < s.Close(paren); k++ {
		if s.Is(k, "G_IMPLEMENT_INTERFACE") && s.Is(k+1, "(") {
			d.Bases = appendBase(d.Bases, s.Text(k+2))
		}
	}
	return true
}

// parts of the name that a type is asked for by: GTK_TYPE_BOX, gtk_box_get_type.
var (
	typeMacro = regexp.MustCompile(`^([A-Z0-9_]+?)_TYPE_([A-Z0-9_]+)$`)
	typeGiven = regexp.MustCompile(`^([a-z0-9_]+)_get_type$`)
)

// appendBase adds the type that is asked for by a name: GTK_TYPE_BOX is GtkBox.
func appendBase(bases []string, by string) []string {
	words := ""
	if m := typeMacro.FindStringSubmatch(by); m != nil {
		words = m[1] + "_" + m[2]
	} else if m := typeGiven.FindStringSubmatch(by); m != nil {
		words = m[1]
	}
	if words == "" {
		return bases
	}
	var name strings.Builder
	for w := range strings.SplitSeq(strings.ToLower(words), "_") {
		if w != "" {
			name.WriteString(strings.ToUpper(w[:1]) + w[1:])
		}
	}
	return append(bases, name.String())
}
