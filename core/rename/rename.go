// Package rename tells what the renaming of a definition would touch: for sure,
// likely, and what only looks like it.
package rename

import (
	"bytes"
	"cmp"
	"slices"
	"strings"
	"sync"
	"unicode"
	"unicode/utf8"

	"jantel/core/calls"
	"jantel/core/model"
)

// mostLooks bounds how many places that only look like it are listed; the rest is
// counted.
const mostLooks = 300

// maxShown is as much of a line as is shown, in bytes.
const maxShown = 160

// NamedPlace is a line that has the name.
type NamedPlace struct {
	Path string    `json:"path"`
	Line int       `json:"line"`
	Text string    `json:"text" doc:"the line, without what it is set in by"`
	Tie  model.Tie `json:"tie"`
}

// Touched is what a rename would touch.
type Touched struct {
	Name   string       `json:"name" doc:"as it is written where it is defined"`
	Places []NamedPlace `json:"places" doc:"the sure ones first, then the likely ones, then those that only look like it"`
	Left   int          `json:"left" doc:"further places that only look like it"`
}

type spot struct {
	path string
	line int
}

// Of tells it for the definition at a place; nil for the top of a file, which has
// no name. each hands over all texts of the codebase, in any order and several at
// once.
//
// Sure is where it is defined, where an import names it, and what the links
// between definitions lead to it without doubt; likely what they lead to it over an
// interface, or because no other member has the name. All other lines with the word
// only look like it: of code that could not be followed, of another definition with
// the same name, of templates, texts and configuration.
func Of(s *model.Survey, g *calls.Graph, at calls.Ref, each func(func(path string, text []byte) bool)) *Touched {
	d := g.Definition(at)
	if d == nil {
		return nil
	}
	tied := ties(s, g, at, d)
	out := &Touched{Name: d.Name, Places: []NamedPlace{}}
	var mu sync.Mutex
	each(func(path string, text []byte) bool {
		lines := linesWith(text, d.Name)
		if len(lines) == 0 {
			return true
		}
		mu.Lock()
		defer mu.Unlock()
		for _, line := range lines {
			tie := cmp.Or(tied[spot{path, line.number}], model.TieLooks)
			out.Places = append(out.Places, NamedPlace{Path: path, Line: line.number, Text: line.text, Tie: tie})
		}
		return true
	})
	slices.SortFunc(out.Places, func(a, b NamedPlace) int {
		return cmp.Or(cmp.Compare(order[a.Tie], order[b.Tie]), cmp.Compare(a.Path, b.Path), cmp.Compare(a.Line, b.Line))
	})
	first := slices.IndexFunc(out.Places, func(p NamedPlace) bool { return p.Tie == model.TieLooks })
	if first >= 0 && len(out.Places)-first > mostLooks {
		out.Left = len(out.Places) - first - mostLooks
		out.Places = out.Places[:first+mostLooks]
	}
	return out
}

var order = map[model.Tie]int{model.TieSure: 0, model.TieLikely: 1, model.TieLooks: 2}

// ties are the lines that are tied to a definition by more than a word.
func ties(s *model.Survey, g *calls.Graph, at calls.Ref, d *model.Definition) map[spot]model.Tie {
	own := g.Path(at)
	tied := map[spot]model.Tie{}
	for _, e := range g.To(at) {
		where := spot{g.Path(e.From), int(e.Line)}
		switch {
		case e.Sure:
			tied[where] = model.TieSure
		case tied[where] == "":
			tied[where] = model.TieLikely
		}
	}
	for i := range s.Links {
		if l := &s.Links[i]; l.To == own && d.Parent == "" && slices.Contains(l.Names, d.Name) {
			tied[spot{l.From, l.Line}] = model.TieSure
		}
	}
	tied[spot{own, d.Line}] = model.TieSure
	return tied
}

type found struct {
	number int
	text   string
}

// linesWith are the lines of a text that have a name as a word of its own.
func linesWith(text []byte, name string) (out []found) {
	word := []byte(name)
	number, from := 1, 0
	for {
		i := bytes.Index(text[from:], word)
		if i < 0 {
			return out
		}
		i += from
		end := i + len(word)
		if apart(text, i, end) {
			number += bytes.Count(text[from:i], []byte{'\n'})
			start := bytes.LastIndexByte(text[:i], '\n') + 1
			stop := bytes.IndexByte(text[end:], '\n')
			if stop < 0 {
				stop = len(text)
			} else {
				stop += end
			}
			out = append(out, found{number, shown(text[start:stop])})
			if stop == len(text) {
				return out
			}
			number, from = number+1, stop+1
			continue
		}
		number += bytes.Count(text[from:end], []byte{'\n'})
		from = end
	}
}

// apart reports whether no letter, digit or underscore stands beside a stretch.
func apart(text []byte, from, to int) bool {
	before, _ := utf8.DecodeLastRune(text[:from])
	after, _ := utf8.DecodeRune(text[to:])
	return !part(before) && !part(after)
}

func part(r rune) bool { return r == '_' || r == '$' || unicode.IsLetter(r) || unicode.IsDigit(r) }

func shown(line []byte) string {
	text := strings.ToValidUTF8(string(bytes.TrimSpace(line[:min(len(line), 4*maxShown)])), "")
	if len(text) > maxShown {
		text = strings.ToValidUTF8(text[:maxShown], "") + "…"
	}
	return text
}
