package smells

import (
	"fmt"
	"path"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
	"jantel/core/weave"
)

var singularPluralMixedRule = &Rule{
	Slug: "singular-plural-mixed", Facet: model.Names, Title: "Singular and plural mixed", Weight: 0.4,
	Family: familyName, find: singularPluralMixed,
	Question: "Are some siblings singular and others plural?",
	Why:      "Every import is a guess.",
	Example:  "`controllers`, `models` and `service`.",
	Remedy:   "Write all of them as most are written.",
}

// kindsOfParts are words for sorts of part that there are many of: of others there is but
// one, or they are never written otherwise.
var kindsOfParts = syntax.Set(
	"controller", "model", "view", "service", "repository", "handler", "helper", "component", "page", "route", "hook", "entity",
	"middleware", "plugin", "widget", "screen", "serializer", "validator", "mapper", "presenter", "resolver", "job", "listener", "observer",
)

// singularPluralMixed reports sibling folders of which most are plural and some
// are not.
func singularPluralMixed(c *Context, _ *Rule) (out []hit) {
	lex := weave.Words()
	for _, d := range c.Folders {
		if lex.Folders[strings.Join(naming.Words(d.Name), " ")] != "" {
			continue // below a folder of one kind are things, which are called what they are
		}
		var one, many []string
		for _, s := range c.sub[d.Path] {
			words := naming.Words(path.Base(s))
			if len(words) == 0 || len(c.SourceIn(s)) == 0 {
				continue
			}
			// Only kinds: what a folder is about may well be one.
			if _, role := lex.Folders[strings.Join(words, " ")]; !role || !kindsOfParts[naming.Singular(words[len(words)-1])] {
				continue
			}
			w := words[len(words)-1]
			switch {
			case naming.Singular(w) != w:
				many = append(many, s)
			case lex.Folders[w+"s"] != "" || lex.Folders[strings.TrimSuffix(w, "y")+"ies"] != "":
				one = append(one, s)
			}
		}
		less, more, how := one, many, "singular"
		if len(many) < len(one) {
			less, more, how = many, one, "plural"
		}
		if len(less) == 0 || len(more) < 2 || len(less) >= len(more) {
			continue
		}
		for _, s := range less {
			out = append(out, hit{
				path: s, strength: 0.25, touches: paths(c.SourceIn(s)),
				evidence: evidence(more, "is written the other way"),
				message:  fmt.Sprintf("*%s* is %s, %s of its siblings are not", path.Base(s), how, number(len(more))),
			})
		}
	}
	return out
}
