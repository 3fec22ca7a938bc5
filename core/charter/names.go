package charter

import (
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
)

// namedKinds are what a rule for names can be about.
var namedKinds = []string{
	"file", "folder", string(model.DefType), string(model.DefClass), string(model.DefInterface), string(model.DefEnum),
	string(model.DefFunction), string(model.DefMethod), string(model.DefComponent), string(model.DefConstant),
	string(model.DefVariable), string(model.DefProperty), "parameter", "local",
}

// cases are the ways of writing that a rule can ask for.
var cases = []string{string(naming.Kebab), string(naming.Snake), string(naming.Camel), string(naming.Pascal), string(naming.Caps)}

// maxTerms bounds rules for names and the words of a glossary.
const maxTerms = 500

func (x *faults) names(c *Charter) {
	if len(c.Names) > maxTerms || len(c.Glossary) > maxTerms {
		x.add(1, "more than %d rules for names or words of a glossary", maxTerms)
		return
	}
	for _, r := range c.Names {
		at := LineOf(x.src, "names:")
		if len(r.Of) == 0 {
			x.add(at, "a rule for names says of what it is: %s", strings.Join(namedKinds, ", "))
		}
		for _, k := range r.Of {
			if !slices.Contains(namedKinds, k) {
				x.add(LineOf(x.src, k), "%q is nothing that a rule for names can be about; there are %s", k, strings.Join(namedKinds, ", "))
			}
		}
		if r.Case != "" && !slices.Contains(cases, r.Case) {
			x.add(LineOf(x.src, r.Case), "%q is no way to write names; there are %s", r.Case, strings.Join(cases, ", "))
		}
		if r.Case == "" && len(r.Begins)+len(r.Ends)+len(r.Not) == 0 {
			x.add(at, "a rule for names asks for a case, for how names begin or end, or for words that they have not")
		}
		for _, g := range r.Places {
			x.glob(g)
		}
	}
	said := map[string]bool{}
	for _, t := range c.Glossary {
		w := strings.ToLower(strings.TrimSpace(t.Word))
		switch {
		case w == "":
			x.add(LineOf(x.src, "glossary:"), "a word of the glossary is empty")
		case said[w]:
			x.add(LineOf(x.src, t.Word), "%q stands in the glossary twice", t.Word)
		case slices.Contains(t.Not, t.Word):
			x.add(LineOf(x.src, t.Word), "%q is said not to be said instead of itself", t.Word)
		}
		said[w] = true
	}
}

// fillNames makes empty lists of those that are left out.
func (c *Charter) fillNames() {
	if c.Names == nil {
		c.Names = []NameRule{}
	}
	if c.Glossary == nil {
		c.Glossary = []Term{}
	}
	some := func(l *[]string) {
		if *l == nil {
			*l = []string{}
		}
	}
	for i := range c.Names {
		r := &c.Names[i]
		some(&r.Places)
		some(&r.Begins)
		some(&r.Ends)
		some(&r.Not)
	}
	for i := range c.Glossary {
		some(&c.Glossary[i].Not)
	}
}
