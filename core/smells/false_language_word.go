package smells

import (
	"fmt"
	"slices"
	"strings"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
)

var falseLanguageWordRule = &Rule{
	Slug: "false-language-word", Facet: model.Names, Title: "Word of the language used falsely", Weight: 0.5,
	Family: familyName, Habit: true, find: falseLanguageWord,
	Question: "Is something called a base or an interface that is none?",
	Why:      "The word has a fixed meaning in the language, and a reader trusts it.",
	Example:  "`BaseLabel` has no heirs; `StoreInterface` is a class.",
	Remedy:   "Name it for what it is about.",
}

// baseOf are words behind which a base is a thing of its own, and abstract classes are
// what something is about.
var baseOf = syntax.Set("class", "classes", "method", "methods", "function", "directory", "dir", "path", "url", "uri", "name", "type",
	"converter", "encoder", "decoder", "conversion", "encoding")

// aboutBases reports whether a name of two words or more is that of something else than what
// others build upon: the base of a path, an error, what is done with classes.
func aboutBases(words []string) bool {
	last := words[len(words)-1]
	return baseOf[words[1]] || last == "error" || last == "exception"
}

// leastOffered is from how many files on a codebase in which nothing starts is taken for one
// that others build upon.
const leastOffered = 30

// nothingStarts reports whether a codebase of some size starts no program outside of what
// shows or tests it.
func (c *Context) nothingStarts() bool {
	starts := 0
	c.source(func(f *model.File) {
		if f.Facts.Starts > 0 && !setAside(f.Path) {
			starts++
		}
	})
	return starts == 0 && c.sources() >= leastOffered
}

// hasBases reports whether bases are things that the codebase is about: a type of it is
// called one and nothing more.
func (c *Context) hasBases() (has bool) {
	c.source(func(f *model.File) {
		has = has || slices.ContainsFunc(f.Facts.Definitions, func(d model.Definition) bool {
			return d.Kind == model.DefClass && (d.Name == "Base" || d.Name == "Bases")
		})
	})
	return has
}

// isCapital reports whether a name begins as those of types do.
func isCapital(name string) bool { return naming.Own(name) != "" && isUpper(naming.Own(name)[0]) }

// built reports whether a class was seen to be made an instance of.
func built(g *calls.Graph, class calls.Ref) bool {
	return slices.ContainsFunc(g.To(class), func(e calls.Edge) bool { return e.Kind == model.CallConstruct })
}

// falseLanguageWord reports types called a base or abstract that are built as they are
// and that nothing builds upon, and interfaces by name that are none.
func falseLanguageWord(c *Context, _ *Rule) (out []hit) {
	heirs := map[string]bool{}
	for _, f := range c.Survey.Files {
		if f.Facts == nil {
			continue
		}
		for i := range f.Facts.Definitions {
			for _, b := range f.Facts.Definitions[i].Bases {
				if at := strings.LastIndexAny(b, `.\:`); at >= 0 {
					b = b[at+1:]
				}
				if at := strings.IndexAny(b, "<[("); at >= 0 {
					b = b[:at]
				}
				heirs[b] = true
			}
		}
		for _, u := range f.Facts.Uses {
			if u.Kind == model.LinkInheritance {
				heirs[u.Name] = true
			}
		}
	}
	builtUpon := map[string]bool{} // files of which a type is, whatever it is called there
	for i := range c.Survey.Links {
		if l := &c.Survey.Links[i]; l.Kind == model.LinkInheritance {
			builtUpon[l.To] = true
		}
	}
	bases := c.hasBases()
	g, at := calls.Of(c.Survey), map[string]int32{}
	for i, f := range c.Survey.Files {
		at[f.Path] = int32(i)
	}
	// What is offered to others may have its heirs there.
	offered := c.library() || c.nothingStarts()
	c.source(func(f *model.File) {
		if !syntax.ProfileOf(f.Language).Inherits {
			return
		}
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			if d.Parent != "" && d.Parent != f.Facts.Namespace {
				continue
			}
			w := naming.Words(naming.Own(d.Name))
			if len(w) < 2 || aboutBases(w) || d.Name == strings.ToUpper(d.Name) || w[1][0] <= '9' { // base64 is a format
				continue
			}
			say := func(text string) {
				out = append(out, hit{
					path: f.Path, line: d.Line, end: d.EndLine, name: d.Qualified(), strength: 0.3,
					touches:  []string{f.Path},
					evidence: []model.Evidence{{Path: f.Path, Line: d.Line, Note: string(d.Kind) + " " + d.Name}},
					message:  text,
				})
			}
			switch d.Kind {
			case model.DefClass:
				called := w[0] == "base" && !bases || w[0] == "abstract" || w[len(w)-1] == "base"
				upon := heirs[d.Name] || builtUpon[f.Path] || offered
				if called && !upon && isCapital(d.Name) && built(g, calls.Ref{File: at[f.Path], Definition: int32(i)}) {
					say(fmt.Sprintf("*%s* is called a base, and nothing here builds upon it", d.Name))
				}
				if w[len(w)-1] == "interface" && !syntax.ProfileOf(f.Language).ClassInterfaces {
					say(fmt.Sprintf("*%s* is called an interface, and is a class", d.Name))
				}
			case model.DefEnum:
				if w[len(w)-1] == "interface" {
					say(fmt.Sprintf("*%s* is called an interface, and is an enum", d.Name))
				}
			}
		}
	})
	return out
}
