package patterns

import (
	"fmt"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// What the authors call it.

var (
	libraryWords = syntax.Set("library", "libraries", "bindings", "sdk")
	// What may stand behind such a word where it is what the thing is: a library manager is none.
	behindNoun = syntax.Set("for", "to", "that", "which", "written", "providing", "of", "in", "with", "implementing", "used",
		"and", "is", "provides", "implements", "supports", "designed", "intended", "from", "by", "on", "contains", "allows", "-", "--", "–", "—")
	// Words that lead to what the thing is.
	leadsToNoun = syntax.Set("is", "are", "provides", "contains", "comprises", "-", "--", "–", "—")
	// Behind these stands what the thing is for, or made of.
	leadsAway = syntax.Set("for", "to", "that", "which", "of", "with", "in", "by", "using", "on", "from", "around", "via", "your")
	articles  = syntax.Set("a", "an", "the", "this", "these")
)

// mostBetween is how many words may stand between what leads to a noun and the noun.
const mostBetween = 8

// isLibrary reports whether a statement says that a thing is a library.
func isLibrary(statement string) bool {
	first, _, _ := strings.Cut(statement, ". ")
	words := strings.Fields(strings.ToLower(first))
	for i, w := range words {
		noun := strings.Trim(w, `.,;:()"'`)
		if !libraryWords[noun] || strings.HasPrefix(w, "(") {
			continue
		}
		ends := noun != w || i+1 == len(words)
		if ends || behindNoun[words[i+1]] {
			return toldSo(words[:i])
		}
	}
	return false
}

// toldSo reports whether words lead to the noun behind them as to what the thing is.
func toldSo(before []string) bool {
	for k := len(before) - 1; k >= 0 && len(before)-k <= mostBetween; k-- {
		w := before[k]
		switch {
		case leadsToNoun[w], strings.HasSuffix(w, ":"):
			return true
		case leadsAway[w]:
			return false
		case k == 0:
			return articles[w]
		}
	}
	return len(before) == 0
}

// called is what the authors call what is looked at, where they call it a library.
func (c *context) called() (outcome, bool) {
	d := c.inner[c.root]
	if d == nil || d.Purpose.Source != "author" || !isLibrary(d.Purpose.Text) {
		return outcome{}, false
	}
	said, _, _ := strings.Cut(d.Purpose.Text, ". ")
	return outcomeOf(
		0.9, fmt.Sprintf("Its authors call it a library: “%s”.", strings.TrimSuffix(said, ".")),
		[]model.Evidence{{Path: d.Purpose.Path, Line: d.Purpose.Line, Note: "says what it is"}},
	), true
}
