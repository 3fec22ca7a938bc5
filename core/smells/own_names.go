package smells

import (
	"cmp"
	"fmt"
	"path"
	"slices"
	"strings"

	"jantel/core/charter"
	"jantel/core/model"
	"jantel/core/naming"

	"github.com/bmatcuk/doublestar/v4"
)

// Glossary joins the words of a charter with those that were set by hand, which go
// before: each word once, by its name.
func Glossary(c *charter.Charter, said []model.Overrule) []charter.Term {
	by := map[string]*charter.Term{}
	term := func(word string) *charter.Term {
		k := strings.ToLower(strings.TrimSpace(word))
		if by[k] == nil {
			by[k] = &charter.Term{Word: k, Not: []string{}}
		}
		return by[k]
	}
	if c != nil {
		for _, t := range c.Glossary {
			x := term(t.Word)
			x.Means, x.Not = t.Means, slices.Clone(t.Not)
		}
	}
	for _, o := range said {
		switch o.Kind {
		case model.OverruleTerm:
			term(o.Target).Means = o.Value
		case model.OverruleInstead:
			if x := term(o.Value); !slices.Contains(x.Not, o.Target) {
				x.Not = append(x.Not, o.Target)
			}
		}
	}
	out := []charter.Term{}
	for _, t := range by {
		out = append(out, *t)
	}
	slices.SortFunc(out, func(a, b charter.Term) int { return strings.Compare(a.Word, b.Word) })
	return out
}

// named is something that has a name.
type named struct {
	name, kind, path string
	line             int
}

// eachName goes through what is named in own code: folders, files, definitions, and
// what holds inside of bodies alone.
func (c *Context) eachName(fn func(n named)) {
	for _, d := range c.Folders {
		if d.Path != "." && d.JudgedLines > 0 && !testPlace(d.Path) {
			fn(named{path.Base(d.Path), "folder", d.Path, 0})
		}
	}
	for f := range c.Source(".") {
		fn(named{naming.Stem(f.Path), "file", f.Path, 0})
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			if d.Kind != model.DefOther && !strings.ContainsAny(d.Name, " /<") && !strings.HasPrefix(d.Name, "__") {
				fn(named{d.Name, string(d.Kind), f.Path, d.Line})
			}
		}
		for l := range f.Facts.LocalNames() {
			kind := "local"
			if l.Kind == model.LocalParameter {
				kind = "parameter"
			}
			fn(named{l.Name, kind, f.Path, l.Line})
		}
	}
}

// demand is what one rule of a charter asks of a name; "" where the name has it.
type demand func(r *charter.NameRule, name string) string

// ruled are the names that go against what the codebase itself asks of names.
func (c *Context) ruled(asks demand) (out []hit) {
	for i := range c.NameRules {
		r := &c.NameRules[i]
		c.eachName(func(n named) {
			if !slices.Contains(r.Of, n.kind) || !liesBelow(r.Places, n.path) {
				return
			}
			if text := asks(r, n.name); text != "" {
				why := ""
				if r.Why != "" {
					why = ": " + r.Why
				}
				out = append(out, hit{
					path: n.path, line: n.line, name: n.name, extra: "charter", strength: 0.5, touches: []string{n.path},
					message:  fmt.Sprintf("*%s* %s of a %s here%s", n.name, text, n.kind, why),
					evidence: []model.Evidence{{Path: n.path, Line: n.line, Note: "named " + n.name}},
				})
			}
		})
	}
	return out
}

// liesBelow reports whether a path lies where a rule holds.
func liesBelow(places []string, p string) bool {
	return len(places) == 0 || slices.ContainsFunc(places, func(g string) bool {
		ok, err := doublestar.Match(g, p)
		return err == nil && ok
	})
}

// askedCase is that a name is written in the case that is asked for. One word alone
// is written so in several.
func askedCase(r *charter.NameRule, name string) string {
	has := naming.CaseOf(strings.TrimLeft(name, "_$@"))
	if r.Case == "" || has == naming.Plain && r.Case != string(naming.Pascal) || string(has) == r.Case {
		return ""
	}
	return "is not written in " + r.Case + ", as the charter asks"
}

// askedEnds is that a name begins and ends as is asked for.
func askedEnds(r *charter.NameRule, name string) string {
	switch {
	case len(r.Ends) > 0 && !slices.ContainsFunc(r.Ends, func(e string) bool { return strings.HasSuffix(name, e) }):
		return "does not end in " + oneOf(r.Ends) + ", as the charter asks"
	case len(r.Begins) > 0 && !slices.ContainsFunc(r.Begins, func(b string) bool { return strings.HasPrefix(name, b) }):
		return "does not begin with " + oneOf(r.Begins) + ", as the charter asks"
	}
	return ""
}

// askedWords is that a name has none of the words that it is not to have.
func askedWords(r *charter.NameRule, name string) string {
	words := naming.Words(name)
	for _, n := range r.Not {
		if slices.ContainsFunc(words, func(w string) bool { return strings.EqualFold(w, n) }) {
			return "has the word *" + n + "*, which the charter does not want"
		}
	}
	return ""
}

func oneOf(words []string) string {
	if len(words) == 1 {
		return "*" + words[0] + "*"
	}
	return "one of *" + strings.Join(words, "*, *") + "*"
}

// saidInstead are the words that the glossary says are not to be said, each with the
// names it stands in.
func (c *Context) saidInstead() (out []hit) {
	instead := map[string]string{}
	for _, t := range c.Glossary {
		for _, n := range t.Not {
			instead[strings.ToLower(n)] = t.Word
		}
	}
	if len(instead) == 0 {
		return nil
	}
	found := map[string][]named{}
	c.eachName(func(n named) {
		seen := map[string]bool{}
		for _, w := range naming.Words(n.name) {
			w = strings.ToLower(w)
			for _, form := range []string{w, naming.Singular(w)} {
				if instead[form] != "" && !seen[form] {
					seen[form] = true
					found[form] = append(found[form], n)
				}
			}
		}
	})
	for w, all := range found {
		slices.SortStableFunc(all, func(a, b named) int { return cmp.Or(cmp.Compare(a.path, b.path), cmp.Compare(a.line, b.line)) })
		var ev []model.Evidence
		var touches []string
		for _, n := range all {
			if len(ev) < mostEvidence {
				ev = append(ev, model.Evidence{Path: n.path, Line: n.line, Note: n.name})
			}
			if !slices.Contains(touches, n.path) {
				touches = append(touches, n.path)
			}
		}
		out = append(out, hit{
			path: all[0].path, line: all[0].line, name: w, extra: "glossary", strength: min(0.6, 0.2+0.02*float64(len(all))),
			touches: touches, evidence: ev,
			message: fmt.Sprintf("*%s* stands in %s, where the glossary says *%s*", w, names(len(all)), instead[w]),
		})
	}
	return out
}

func names(n int) string {
	if n == 1 {
		return "one name"
	}
	return number(n) + " names"
}
