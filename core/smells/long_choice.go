package smells

import (
	"fmt"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
)

var longChoiceRule = &Rule{
	Slug: "long-choice", Facet: model.Units, Title: "Long choice on a type", Weight: 0.8, Family: familySize, Habit: true, find: longChoice,
	Question: "Is it decided here, case by case, what each kind of thing does?",
	Why:      "A new kind has to be added in every such place, and the one that is forgotten shows in use.",
	Example:  "`widthOf` with a case for each of nine sorts of label, and `heightOf` with the same nine.",
	Remedy:   "Let each kind say it itself, or keep one table from kind to what differs.",
	Parameters: []Parameter{
		{"cases", "cases of one choice", 12, 8, 7},
	},
}

// kindWords are last words of subjects that tell what sort of thing something
// is; a choice on an amount, a key or a sign is no choice on a type.
var kindWords = map[string]bool{"type": true, "kind": true, "sort": true, "variant": true, "category": true, "class": true, "species": true}

func longChoice(c *Context, r *Rule) (out []hit) {
	least := int(c.Value(r, "cases"))
	c.source(func(f *model.File) {
		switch c.Roles[f.Path].Role {
		// What reads a format or keeps state takes one case a word by its nature.
		case model.RoleFormat, model.RoleState, model.RoleStructure, model.RoleConfig:
			return
		}
		for _, ch := range f.Facts.Choices {
			if ch.Cases < least || strings.HasSuffix(ch.Subject, "this") || !ch.ByType && !choosesKind(ch.Subject) {
				continue
			}
			h := hit{
				path: f.Path, line: ch.Line, extra: ch.Subject, touches: []string{f.Path},
				strength: 0.3 + 0.04*float64(ch.Cases-least),
				evidence: []model.Evidence{{Path: f.Path, Line: ch.Line, Note: "the choice"}},
			}
			in := "The file"
			if ch.Definition >= 0 {
				d := f.Facts.Definitions[ch.Definition]
				h.name, in = d.Qualified(), "*"+d.Name+"*"
			}
			h.message = fmt.Sprintf("%s decides for %s kinds of *%s* in one place", in, number(ch.Cases), ch.Subject)
			out = append(out, h)
		}
	})
	return out
}

func choosesKind(subject string) bool {
	subject = strings.TrimRight(subject, "()")
	if i := strings.LastIndexAny(subject, ".>:"); i >= 0 {
		subject = subject[i+1:]
	}
	w := naming.Words(subject)
	return len(w) > 0 && kindWords[w[len(w)-1]]
}
