package smells

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
)

var placeholderNameRule = &Rule{
	Slug: "placeholder-name", Facet: model.Names, Title: "Placeholder name", Weight: 1.5,
	Family: familyName, Habit: true, find: placeholderName,
	Question: "Is a name one that stands for a name?",
	Why:      "It was meant to be replaced, and tells nothing.",
	Example:  "`foo.ts`.",
	Remedy:   "Name it for what it is.",
}

var placeholders = map[string]bool{
	"foo": true, "bar": true, "baz": true, "qux": true, "asdf": true, "xyz": true, "untitled": true, "dummy": true,
	"temp": true, "tmp": true, "blah": true, "thing": true, "stuff": true,
}

// placeholderWords are those of them that mean something on what they are called: the bar of a
// chart, the temp of a room, the things of a list.
var placeholderWords = map[string]bool{"bar": true, "temp": true, "tmp": true, "thing": true, "stuff": true, "xyz": true}

// beside are placeholders that are words of the trade where nothing is called foo or
// baz: the bar of a chart, and X, Y and Z.
var beside = map[string]bool{"bar": true, "xyz": true}

// namesFoo reports whether anything is called foo, baz or the like.
func (c *Context) namesFoo() (found bool) {
	is := func(name string) bool { return name == "foo" || name == "baz" || name == "qux" }
	c.source(func(f *model.File) {
		found = found || is(strings.ToLower(naming.Stem(f.Path)))
		for i := 0; i < len(f.Facts.Definitions) && !found; i++ {
			found = is(strings.ToLower(f.Facts.Definitions[i].Name))
		}
	})
	return found
}

func placeholderName(c *Context, _ *Rule) (out []hit) {
	foo := c.namesFoo()
	c.source(func(f *model.File) {
		words := naming.Words(naming.Stem(f.Path))
		if len(words) == 1 && placeholders[words[0]] && (foo || !beside[words[0]]) {
			out = append(out, hit{
				path: f.Path, strength: 0.5, touches: []string{f.Path},
				message: fmt.Sprintf("*%s* is a name that stands for a name", path.Base(f.Path)),
			})
		}
		for _, d := range f.Facts.Definitions {
			if len(d.Name) > 8 || d.Parent != "" && d.Kind != model.DefMethod || !namedThing(d) {
				continue
			}
			w := naming.Words(naming.Own(d.Name))
			// In a file of bars it is one of them.
			about := slices.ContainsFunc(words, func(x string) bool { return naming.Singular(x) == w[0] })
			if len(w) == 1 && placeholders[w[0]] && (d.Parent == "" || !placeholderWords[w[0]]) && !about && (foo || !beside[w[0]]) {
				out = append(out, hit{
					path: f.Path, line: d.Line, end: d.Line, name: d.Qualified(), strength: 0.4,
					touches: []string{f.Path}, message: fmt.Sprintf("*%s* is a name that stands for a name", d.Name),
				})
			}
		}
	})
	return out
}
