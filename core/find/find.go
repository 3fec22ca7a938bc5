// Package find looks for places by name and for text in code.
package find

import (
	"bytes"
	"errors"
	"fmt"
	"regexp"
	"regexp/syntax"
	"strings"
	"unicode/utf8"
)

// Hit is one line that holds what was looked for. Start and End are byte
// offsets of the match within Text.
type Hit struct {
	Line  int    `json:"line"`
	Text  string `json:"text"`
	Start int    `json:"start"`
	End   int    `json:"end"`
}

// Pattern is a text or a regular expression to look for, line by line.
type Pattern struct {
	lower, upper []byte // the text in both cases; equal when case matters
	exact        bool
	re           *regexp.Regexp
	need         []byte // text that every match of re holds, lower case, or nil
	rare         int    // index of the rarest byte in lower
}

// ErrEmpty says that there is nothing to look for.
var ErrEmpty = errors.New("there is nothing to look for")

// NewPattern prepares a search. Without matchCase, letters of both cases are
// the same.
func NewPattern(q string, isRegexp, matchCase bool) (*Pattern, error) {
	if strings.TrimSpace(q) == "" {
		return nil, ErrEmpty
	}
	if !utf8.ValidString(q) {
		return nil, errors.New("what is looked for is not UTF-8")
	}
	if len(q) > 1000 {
		return nil, errors.New("a search has 1000 bytes at most")
	}
	if isRegexp {
		flags := "(?m)" // a line's start and end, as everyone means them
		if !matchCase {
			flags = "(?mi)"
		}
		re, err := regexp.Compile(flags + q)
		if err != nil {
			return nil, fmt.Errorf("this is not a regular expression: %s", strings.TrimPrefix(err.Error(), "error parsing regexp: "))
		}
		return &Pattern{re: re, need: required(q)}, nil
	}
	p := &Pattern{exact: matchCase || !isASCII(q)}
	if p.exact && !matchCase { // folding beyond ASCII is the library's work
		p.re = regexp.MustCompile("(?i)" + regexp.QuoteMeta(q))
		return p, nil
	}
	p.lower = []byte(q)
	if !matchCase {
		p.lower = []byte(strings.ToLower(q))
	}
	p.upper = p.lower
	if !matchCase {
		p.upper = []byte(strings.ToUpper(q))
	}
	for i := range p.lower {
		if rarity(p.lower[i]) > rarity(p.lower[p.rare]) {
			p.rare = i
		}
	}
	return p, nil
}

func isASCII(s string) bool {
	for i := 0; i < len(s); i++ {
		if s[i] >= 0x80 {
			return false
		}
	}
	return true
}

// rarity ranks bytes by how seldom they stand in code.
func rarity(c byte) int {
	if i := strings.IndexByte(" etnoiarslcdupmfhgb_.,()=\"yvwkx01234567;:{}[]<>/\\-+*&|!?#'@jqzEXTNOIARSLCDUPMFHGBYVWKJQZ", c); i >= 0 {
		return i
	}
	return 100
}

// required is the longest text that every match holds, in lower case; nil when
// none of three bytes can be told.
func required(q string) []byte {
	re, err := syntax.Parse(q, syntax.Perl)
	if err != nil {
		return nil
	}
	best := ""
	var walk func(r *syntax.Regexp)
	walk = func(r *syntax.Regexp) {
		switch r.Op {
		case syntax.OpLiteral:
			if s := string(r.Rune); isASCII(s) && len(s) > len(best) {
				best = s
			}
		case syntax.OpConcat, syntax.OpCapture, syntax.OpPlus:
			for _, s := range r.Sub {
				walk(s)
			}
		}
	}
	walk(re.Simplify())
	if len(best) < 3 {
		return nil
	}
	return []byte(strings.ToLower(best))
}

// In returns the first hit of each matching line, at most most of them.
func (p *Pattern) In(text []byte, most int) []Hit {
	if p.need != nil && !containsFold(text, p.need) {
		return nil
	}
	var hits []Hit
	line, counted, at := 1, 0, 0
	for at <= len(text) && len(hits) < most {
		start, end := p.next(text, at)
		if start < 0 {
			break
		}
		line += bytes.Count(text[counted:start], []byte{'\n'})
		counted = start
		ls := bytes.LastIndexByte(text[:start], '\n') + 1
		le := len(text)
		if i := bytes.IndexByte(text[start:], '\n'); i >= 0 {
			le = start + i
		}
		hits = append(hits, cut(text[ls:le], line, start-ls, min(end, le)-ls))
		at = le + 1
	}
	return hits
}

// width is how much of a long line a hit shows.
const width = 240

func cut(line []byte, n, start, end int) Hit {
	from := 0
	if start > width/2 && len(line) > width {
		from = start - width/3
		for from > 0 && !utf8.RuneStart(line[from]) {
			from--
		}
	}
	to := min(len(line), max(from+width, min(end, start+width)))
	t := string(line[from:to])
	lead := len(t) - len(strings.TrimLeft(t, " \t"))
	if lead > start-from {
		lead = start - from
	}
	t = strings.TrimRight(t[lead:], "\r")
	h := Hit{Line: n, Text: t, Start: start - from - lead, End: min(end-from-lead, len(t))}
	if !utf8.ValidString(h.Text) { // offsets stay right: one byte for one byte
		b := []byte(h.Text)
		for i := 0; i < len(b); {
			r, size := utf8.DecodeRune(b[i:])
			if r == utf8.RuneError && size == 1 {
				b[i] = '?'
			}
			i += size
		}
		h.Text = string(b)
	}
	return h
}

func (p *Pattern) next(text []byte, at int) (start, end int) {
	if p.re != nil {
		loc := p.re.FindIndex(text[at:])
		if loc == nil {
			return -1, -1
		}
		return at + loc[0], at + loc[1]
	}
	if p.exact || bytes.Equal(p.lower, p.upper) {
		if i := bytes.Index(text[at:], p.lower); i >= 0 {
			return at + i, at + i + len(p.lower)
		}
		return -1, -1
	}
	i := indexFold(text[at:], p.lower, p.upper, p.rare)
	if i < 0 {
		return -1, -1
	}
	return at + i, at + i + len(p.lower)
}

// indexFold finds a text whatever its case, by looking for its rarest byte in
// both cases and comparing around it.
func indexFold(text, lower, upper []byte, rare int) int {
	lo, up := lower[rare], upper[rare]
	nextLo, nextUp := -2, -2 // -2: not looked for yet
	for at := rare; at < len(text); {
		if nextLo != -1 && nextLo < at {
			if nextLo = bytes.IndexByte(text[at:], lo); nextLo >= 0 {
				nextLo += at
			}
		}
		if lo == up {
			nextUp = -1
		} else if nextUp != -1 && nextUp < at {
			if nextUp = bytes.IndexByte(text[at:], up); nextUp >= 0 {
				nextUp += at
			}
		}
		i := nextLo
		if i < 0 || nextUp >= 0 && nextUp < i {
			i = nextUp
		}
		if i < 0 {
			return -1
		}
		if s := i - rare; s+len(lower) <= len(text) && equalFold(text[s:s+len(lower)], lower, upper) {
			return s
		}
		at = i + 1
	}
	return -1
}

func equalFold(a, lower, upper []byte) bool {
	for i := range a {
		if a[i] != lower[i] && a[i] != upper[i] {
			return false
		}
	}
	return true
}

func containsFold(text, lower []byte) bool {
	upper := bytes.ToUpper(lower)
	rare := 0
	for i := range lower {
		if rarity(lower[i]) > rarity(lower[rare]) {
			rare = i
		}
	}
	return indexFold(text, lower, upper, rare) >= 0
}

// Matcher ranks names by how well a query fits them.
type Matcher struct{ q []byte }

// NewMatcher prepares a fuzzy search; blanks in the query are passed over.
func NewMatcher(q string) *Matcher {
	return &Matcher{[]byte(strings.ToLower(strings.Join(strings.Fields(q), "")))}
}

// Name scores a name, 0 when the query's letters are not in it in order. A
// whole match beats a prefix, that beats the starts of words, that anything
// else; shorter names come first.
func (m *Matcher) Name(name string) int {
	if len(m.q) == 0 || len(name) < len(m.q) {
		return 0
	}
	sc := score(name, m.q)
	if sc > 0 && strings.EqualFold(name, string(m.q)) {
		sc += 60
	}
	return sc
}

// Path scores a path: what matches in its last part counts most.
func (m *Matcher) Path(p string) int {
	if len(m.q) == 0 || len(p) < len(m.q) {
		return 0
	}
	base := p[strings.LastIndexByte(p, '/')+1:]
	best := m.Name(base)
	if best > 0 {
		best += 15
	}
	stem, _, _ := strings.Cut(base, ".")
	if strings.EqualFold(stem, string(m.q)) {
		best += 50
	}
	if sc := score(p, m.q); sc > best {
		best = sc
	}
	return best
}

func score(s string, q []byte) int {
	total, at, run := 0, 0, 0
	for _, c := range q {
		i := at
		for i < len(s) && lower(s[i]) != c {
			i++
		}
		if i == len(s) {
			return 0
		}
		switch {
		case i == at && at > 0:
			run++
			total += 6 + min(run, 6)
		case i == 0 || !alnum(s[i-1]) || s[i] >= 'A' && s[i] <= 'Z' && s[i-1] >= 'a':
			run = 0
			total += 8
		default:
			run = 0
			total -= min(3, i-at)
		}
		at = i + 1
	}
	total -= len(s) / 8
	if total < len(q)*2 {
		return 0 // letters strewn over a long path mean nothing
	}
	return total
}

func lower(c byte) byte {
	if c >= 'A' && c <= 'Z' {
		return c + 32
	}
	return c
}

func alnum(c byte) bool {
	return c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= '0' && c <= '9'
}
