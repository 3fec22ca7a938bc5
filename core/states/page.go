package states

import (
	"strings"
	"unicode"
)

// page is a text made ready to be asked for many holders: its lines without
// comments, and in which of them each word stands.
type page struct {
	lines []pageLine
	words map[string][]int32
}

type pageLine struct {
	text    string
	indent  int
	chooses bool // it may begin a choice
}

func newPage(lines []string) *page {
	p := &page{lines: make([]pageLine, len(lines)), words: map[string][]int32{}}
	for i, raw := range lines {
		text := cut(strings.ReplaceAll(raw, "\t", "    "))
		p.lines[i] = pageLine{text, len(text) - len(strings.TrimLeft(text, " ")), anyOf(text, choosing)}
		for _, w := range strings.FieldsFunc(text, func(c rune) bool { return c != '_' && !unicode.IsLetter(c) && !unicode.IsDigit(c) }) {
			if at := p.words[w]; len(at) == 0 || at[len(at)-1] != int32(i) {
				p.words[w] = append(at, int32(i))
			}
		}
	}
	return p
}

// naming tells of each line whether it names one of these.
func (p *page) naming(members []string) []bool {
	out := make([]bool, len(p.lines))
	for _, m := range members {
		for _, i := range p.words[firstWord(m)] {
			out[i] = out[i] || strings.Contains(p.lines[i].text, m)
		}
	}
	return out
}

// names reports whether one of these stands in it.
func (p *page) names(words []string) bool {
	for _, w := range words {
		for _, i := range p.words[firstWord(w)] {
			if strings.Contains(p.lines[i].text, w) {
				return true
			}
		}
	}
	return false
}

// firstWord is the beginning of a state up to a sign in it: "in" of "in-hand".
func firstWord(s string) string {
	if i := strings.IndexFunc(s, func(c rune) bool { return c != '_' && !unicode.IsLetter(c) && !unicode.IsDigit(c) }); i > 0 {
		return s[:i]
	}
	return s
}

func anyOf(line string, words []string) bool {
	for _, w := range words {
		if strings.Contains(line, w) {
			return true
		}
	}
	return false
}
