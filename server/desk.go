package server

import (
	"cmp"
	"context"
	"net/http"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/smells"
	"jantel/review"

	"github.com/danielgtaylor/huma/v2"
)

// Desk is where the smells of a place are worked through: in groups, with those
// that are asked for, and what is known of the rule that is picked.
type Desk struct {
	Groups []DeskGroup         `json:"groups" doc:"the largest first"`
	Count  int                 `json:"count" doc:"smells asked for that count"`
	Quiet  int                 `json:"quiet" doc:"smells asked for that were silenced"`
	From   int                 `json:"from"`
	Smells []model.Smell       `json:"smells" doc:"a stretch of those asked for, strongest first, silenced ones last"`
	Titles map[string]RuleText `json:"titles" doc:"the rules of the smells told"`
	Rule   *DeskRule           `json:"rule,omitempty"`
	Raise  []model.Mend        `json:"raise" doc:"what would raise the score of the codebase most"`
}

// DeskGroup is smells that have something in common.
type DeskGroup struct {
	Key       string  `json:"key"`
	Title     string  `json:"title"`
	Count     int     `json:"count" doc:"smells that count"`
	Quiet     int     `json:"quiet"`
	Strongest float64 `json:"strongest"`
}

// DeskRule is a rule as it stands in this codebase.
type DeskRule struct {
	Slug      string      `json:"slug"`
	Title     string      `json:"title"`
	Facet     model.Facet `json:"facet"`
	Question  string      `json:"question"`
	Why       string      `json:"why"`
	Example   string      `json:"example"`
	Remedy    string      `json:"remedy"`
	Limits    []DeskLimit `json:"limits"`
	Dismissed []Dismissal `json:"dismissed" doc:"what was silenced one by one, and why"`
	Rests     string      `json:"rests" doc:"why the rule rests here; empty when it does not"`
}

// DeskLimit is a figure of a rule: the charter's, else that of the brief's stage.
type DeskLimit struct {
	Meaning string  `json:"meaning"`
	Value   float64 `json:"value"`
}

// Dismissal is a smell that somebody silenced.
type Dismissal struct {
	Path   string `json:"path"`
	Line   int    `json:"line"`
	Text   string `json:"text"`
	Reason string `json:"reason"`
}

// DeskIn says which smells are asked for, and how they are grouped.
type DeskIn struct {
	ViewIn
	Narrow
	Group string `query:"group" enum:"rule,facet,folder,feature,telling" default:"rule"`
	Key   string `query:"key" doc:"one group alone"`
	Words string `query:"words" doc:"of the message, the place or the rule" maxLength:"200"`
	Quiet bool   `query:"quiet" doc:"silenced ones as well"`
	Each  bool   `query:"each" doc:"every hit by itself, those as well that a habit or another rule tells of"`
	From  int    `query:"from" minimum:"0"`
	Count int    `query:"count" minimum:"0" maximum:"500" default:"100"`
}

// keyOf is the group that a smell belongs to, with its title.
func (in *DeskIn) keyOf(o *judged, sm *model.Smell) (key, title string) {
	switch in.Group {
	case "facet":
		return string(sm.Facet), string(sm.Facet)
	case "telling":
		switch {
		case sm.Habit:
			return "habit", "habits of a folder"
		case sm.Count > 1:
			return "several", "several at one place"
		}
		return "one", "one by one"
	case "feature":
		if f := o.FeatureOf[sm.Path].Feature; f != "" {
			return f, f
		}
		return "-", "no feature"
	case "folder":
		p := sm.Path
		if o.Folder(p) == nil {
			p = model.FolderOf(p)
		}
		for p != in.place() && p != "." && model.FolderOf(p) != in.place() {
			p = model.FolderOf(p)
		}
		if p == in.place() {
			return p, "directly in it"
		}
		return p, p
	}
	title = sm.Rule
	if r := smells.Named(sm.Rule); r != nil {
		title = r.Title
	}
	return sm.Rule, title
}

// desk lists the smells of a place in groups, those of one group in a stretch.
func (s *Server) desk(ctx context.Context, in *DeskIn) (*view[*Desk], error) {
	return viewOf(ctx, s, &in.ViewIn, func(o *judged) (*Desk, error) {
		if o.Folder(in.place()) == nil && o.facts.File(in.place()) == nil {
			return nil, noPlace(in.place())
		}
		out := &Desk{From: in.From, Smells: []model.Smell{}, Raise: o.Raise}
		if out.Raise == nil {
			out.Raise = []model.Mend{}
		}
		words := strings.Fields(strings.ToLower(in.Words))
		groups := map[string]*DeskGroup{}
		var asked []*model.Smell
		list := smellsAt
		if in.Each {
			list = hitsAt
		}
		all := list(o, in.place(), in.Narrow).Smells
		for i := range all {
			sm := &all[i]
			key, title := in.keyOf(o, sm)
			if !speaksOf(sm, title, words) {
				continue
			}
			g := groups[key]
			if g == nil {
				g = &DeskGroup{Key: key, Title: title}
				groups[key] = g
			}
			g.add(sm)
			if in.Key != "" && in.Key != key {
				continue
			}
			switch {
			case sm.Silenced == "":
				out.Count++
			default:
				if out.Quiet++; !in.Quiet {
					continue
				}
			}
			asked = append(asked, sm)
		}
		for i := min(in.From, len(asked)); i < min(in.From+in.Count, len(asked)); i++ {
			out.Smells = append(out.Smells, *asked[i])
		}
		out.Titles = titlesOf(out.Smells)
		out.Groups = sortedGroups(groups)
		if in.Group == "rule" && in.Key != "" {
			out.Rule = ruleAt(o, in.Key)
		}
		return out, nil
	})
}

func (g *DeskGroup) add(sm *model.Smell) {
	if sm.Silenced != "" {
		g.Quiet++
		return
	}
	g.Count++
	g.Strongest = max(g.Strongest, sm.Strength)
}

func sortedGroups(groups map[string]*DeskGroup) []DeskGroup {
	out := make([]DeskGroup, 0, len(groups))
	for _, g := range groups {
		out = append(out, *g)
	}
	slices.SortFunc(out, func(a, b DeskGroup) int {
		return cmp.Or(cmp.Compare(b.Count, a.Count), cmp.Compare(b.Strongest, a.Strongest), cmp.Compare(a.Key, b.Key))
	})
	return out
}

// speaksOf reports whether a smell has all of the words.
func speaksOf(sm *model.Smell, title string, words []string) bool {
	if len(words) == 0 {
		return true
	}
	text := strings.ToLower(sm.Message + " " + sm.Path + " " + title + " " + sm.Rule)
	return !slices.ContainsFunc(words, func(w string) bool { return !strings.Contains(text, w) })
}

// ruleAt is a rule with what became of it here; nil for none of that name.
func ruleAt(o *judged, slug string) *DeskRule {
	r := smells.Named(slug)
	if r == nil {
		return nil
	}
	d := &DeskRule{
		Slug: slug, Title: r.Title, Facet: r.Facet, Question: r.Question, Why: r.Why, Example: r.Example, Remedy: r.Remedy,
		Limits: []DeskLimit{}, Dismissed: []Dismissal{},
	}
	at := smells.Context{Stage: o.Brief.Stage}
	if o.Charter != nil {
		at.Thresholds = o.Charter.Thresholds
	}
	for _, p := range r.Parameters {
		d.Limits = append(d.Limits, DeskLimit{Meaning: p.Meaning, Value: at.Value(r, p.Name)})
	}
	for i := range o.Hits {
		sm := &o.Hits[i]
		if sm.Rule != slug || sm.Silenced == "" {
			continue
		}
		if why, ok := strings.CutPrefix(sm.Silenced, model.RuleRests); ok {
			d.Rests = why
			continue
		}
		line := 0
		if sm.Line != nil {
			line = *sm.Line
		}
		d.Dismissed = append(d.Dismissed, Dismissal{Path: sm.Path, Line: line, Text: sm.Message, Reason: sm.Silenced})
	}
	return d
}

// Silences are smells silenced, or let count again, in one step.
type Silences struct {
	All []Quiet      `json:"all" minItems:"1" maxItems:"500"`
	By  review.Actor `json:"by,omitempty"`
}

// silenceAll keeps with the id of each smell what it is about, so that the
// lead's word outlives a change of the rule. Whatever was silenced can be let
// count again, even when no survey holds it any more. All are told in one event,
// so that the codebase is judged anew once; one that is not there stops all.
func (s *Server) silenceAll(ctx context.Context, codebase int64, all Silences) error {
	o, err := s.shelf.survey(ctx, codebase, 0)
	if err != nil {
		return err
	}
	keys := make([]model.Silence, len(all.All))
	for i, q := range all.All {
		keys[i].Reason = q.Reason
		if q.Reason == "" {
			continue
		}
		sm := o.smell(q.Smell)
		if sm == nil {
			return errNoSmell
		}
		keys[i].SmellKey = sm.Key()
	}
	for i, q := range all.All {
		if err := s.review.Silence(ctx, codebase, q.Smell, keys[i], all.By); err != nil {
			return failure(err)
		}
	}
	s.changed(review.Happened{Codebase: codebase, Part: review.PartJudged, What: "silence", By: all.By})
	return nil
}

func (s *Server) registerDesk(api huma.API) {
	huma.Get(api, "/api/codebases/{id}/desk", s.desk, func(op *huma.Operation) { op.Errors = []int{http.StatusNotFound} })
	huma.Put(api, "/api/codebases/{id}/silences", func(ctx context.Context, in *struct {
		CodebaseIn
		Body Silences
	}) (*struct{}, error) {
		return nil, s.silenceAll(ctx, in.ID, in.Body)
	})
}
