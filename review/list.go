package review

import (
	"cmp"
	"slices"
	"strings"

	"jantel/core/model"
)

// Filter says which findings are listed; an empty part lets everything pass.
type Filter struct {
	At     string `query:"at" doc:"a place; all when empty"`
	Words  string `query:"words" doc:"words of the title, the text or the place"`
	Kind   Kind   `query:"kind"`
	State  State  `query:"state" doc:"a state, or open for what is neither done nor dropped"`
	Person string `query:"person"`
	Label  string `query:"label"`
}

// Open stands in a filter for every state in which something is still to do.
const Open State = "open"

// Passes reports whether a finding is listed.
func (w Filter) Passes(f *Finding) bool {
	return (w.At == "" || model.Within(w.At, f.Place.Path)) &&
		(w.Kind == "" || w.Kind == f.Kind) &&
		(w.State == "" || w.State == f.State || w.State == Open && !f.Settled()) &&
		(w.Person == "" || w.Person == f.Assignee) &&
		(w.Label == "" || slices.Contains(f.Labels, w.Label)) &&
		(w.Words == "" || f.says(strings.ToLower(w.Words)))
}

// Settled reports whether nothing is to be done any more.
func (f *Finding) Settled() bool { return f.State == Done || f.State == Dropped }

func (f *Finding) says(words string) bool {
	for _, text := range []string{f.Title, f.Text, f.Place.Path, f.Place.Definition} {
		if strings.Contains(strings.ToLower(text), words) {
			return true
		}
	}
	return false
}

// Listed is what a list shows of a finding.
type Listed struct {
	ID       int64    `json:"id"`
	Version  int64    `json:"version"`
	Kind     Kind     `json:"kind" enum:"redo,fix,improve,taste,ask,keep"`
	State    State    `json:"state" enum:"noted,agreed,doing,done,dropped"`
	Title    string   `json:"title"`
	Path     string   `json:"path"`
	Line     int      `json:"line"`
	EndLine  int      `json:"end_line"`
	Assignee string   `json:"assignee"`
	Labels   []string `json:"labels"`
	Position float64  `json:"position"`
}

// Listed is what a list shows of the finding.
func (f *Finding) Listed() Listed {
	return Listed{f.ID, f.Version, f.Kind, f.State, f.Title, f.Place.Path, f.Place.Line, f.Place.EndLine, f.Assignee, f.Labels, f.Position}
}

// Group is one group of a list: what its findings have in common, and how many
// they are.
type Group struct {
	Key   string `json:"key" doc:"the kind, state, person, label or path; empty for what has none"`
	Count int    `json:"count"`
}

// List is a stretch of a list of findings.
type List struct {
	Counter int64    `json:"counter" doc:"number of the last change of findings that is in it"`
	All     int      `json:"all" doc:"findings of the codebase"`
	Count   int      `json:"count" doc:"findings that pass the filter"`
	From    int      `json:"from" doc:"rows before the first one told"`
	Total   int      `json:"total" doc:"rows: more than findings where one stands in several groups"`
	Rows    []Listed `json:"rows"`
	Groups  []Group  `json:"groups" doc:"in the order of the rows; one without a key for the list as it is ordered"`
	People  []string `json:"people" doc:"of all findings"`
	Labels  []string `json:"labels" doc:"of all findings"`
}

// Select lists the findings that pass, in the order they are given in, in
// groups: by place, kind, state, person or label, or as one.
func Select(all []Finding, passes func(*Finding) bool, by string, from, count int) List {
	l := List{All: len(all), From: from, Rows: []Listed{}, Groups: []Group{}, People: []string{}, Labels: []string{}}
	groups := map[string][]*Finding{}
	for i := range all {
		f := &all[i]
		l.People = append(l.People, f.Assignee)
		l.Labels = append(l.Labels, f.Labels...)
		if !passes(f) {
			continue
		}
		l.Count++
		for _, k := range groupsOf(f, by) {
			groups[k] = append(groups[k], f)
		}
	}
	l.People, l.Labels = distinct(l.People), distinct(l.Labels)
	for _, k := range inOrder(groups, by) {
		l.Groups = append(l.Groups, Group{k, len(groups[k])})
		for _, f := range groups[k] {
			if l.Total >= from && len(l.Rows) < count {
				l.Rows = append(l.Rows, f.Listed())
			}
			l.Total++
		}
	}
	return l
}

func distinct(names []string) []string {
	slices.Sort(names)
	return slices.DeleteFunc(slices.Compact(names), func(n string) bool { return n == "" })
}

// groupsOf is which groups a finding stands in.
func groupsOf(f *Finding, by string) []string {
	switch by {
	case "place":
		return []string{f.Place.Path}
	case "kind":
		return []string{string(f.Kind)}
	case "state":
		return []string{string(f.State)}
	case "person":
		return []string{f.Assignee}
	case "label":
		if len(f.Labels) > 0 {
			return f.Labels
		}
	}
	return []string{""}
}

// inOrder sorts groups: kinds and states in their fixed order, others by name,
// and what has none last.
func inOrder(groups map[string][]*Finding, by string) []string {
	rank := func(k string) int {
		switch {
		case by == "kind":
			return slices.Index(Kinds, Kind(k))
		case by == "state":
			return slices.Index(States, State(k))
		case k == "":
			return 1
		}
		return 0
	}
	keys := make([]string, 0, len(groups))
	for k := range groups {
		keys = append(keys, k)
	}
	slices.SortFunc(keys, func(a, b string) int { return cmp.Or(cmp.Compare(rank(a), rank(b)), cmp.Compare(a, b)) })
	return keys
}
