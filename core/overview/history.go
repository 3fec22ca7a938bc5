package overview

import (
	"fmt"
	"path"
	"slices"
	"time"

	"jantel/core/model"
	"jantel/core/naming"
)

// historySentence says how the place came to be what it is; its evidence are
// the files changed most.
func historySentence(s *model.Survey, place string, add func(ev []model.Evidence, format string, args ...any)) {
	h := s.History
	if h == nil || h.Commits == 0 {
		return
	}
	var below []model.FileHistory
	people := map[string]int{}
	first, last := int64(0), int64(0)
	for _, f := range h.Files {
		if !model.Within(place, f.Path) {
			continue
		}
		below = append(below, f)
		for n, k := range f.Authors {
			people[n] += k
		}
		if first == 0 || f.First < first {
			first = f.First
		}
		last = max(last, f.Last)
	}
	if len(below) == 0 {
		return
	}
	slices.SortStableFunc(below, func(a, b model.FileHistory) int { return b.Changes - a.Changes })
	var ev []model.Evidence
	for _, f := range below[:min(12, len(below))] {
		ev = append(ev, model.Evidence{Path: f.Path, Note: fmt.Sprintf("changed %s, last in %s", times(f.Changes), month(f.Last))})
	}
	if place != "." {
		add(ev, "%s worked on it %s.", persons(len(people)), span(first, last))
		return
	}
	touch := ""
	if h.MedianFolders != nil {
		touch = fmt.Sprintf("; an ordinary one touches %s", folders(*h.MedianFolders))
	}
	add(ev, "%s by %s %s%s.", counted(h.Commits, "commit"), persons(len(h.Authors)), span(h.First, h.Last), touch)
	if len(h.Pairs) > 0 {
		p := h.Pairs[0]
		ev = nil
		for _, q := range h.Pairs[:min(12, len(h.Pairs))] {
			ev = append(ev, model.Evidence{Path: q.A, Note: fmt.Sprintf("with %s in %s of its changes", q.B, times(q.Together))})
		}
		add(
			ev, "%s together as a rule; %s and %s did so %s.",
			plural(len(h.Pairs), "pair of files changes", "pairs of files change"), path.Base(p.A), path.Base(p.B),
			times(p.Together),
		)
	}
}

func span(first, last int64) string {
	if month(first) == month(last) {
		return "in " + month(first)
	}
	return "from " + month(first) + " to " + month(last)
}

func month(at int64) string { return time.Unix(at, 0).UTC().Format("January 2006") }

func times(n int) string {
	switch n {
	case 1:
		return "once"
	case 2:
		return "twice"
	}
	return naming.Figure(n) + " times"
}

func persons(n int) string {
	if n == 1 {
		return "one person"
	}
	return naming.Figure(n) + " people"
}

func folders(n float64) string {
	if n == 1 {
		return "one folder"
	}
	return fmt.Sprintf("%g folders", n)
}

func plural(n int, one, many string) string {
	if n == 1 {
		return "One " + one
	}
	return naming.Figure(n) + " " + many
}

func counted(n int, word string) string {
	if n == 1 {
		return "One " + word
	}
	return naming.Figure(n) + " " + word + "s"
}
