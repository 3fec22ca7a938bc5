// Package report writes a survey and its review in open formats. Text from a
// codebase is hostile in each of them and is made harmless here.
package report

import (
	"bufio"
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"reflect"
	"slices"
	"strings"
	"time"

	"jantel/core/calls"
	"jantel/core/judgement"
	"jantel/core/links"
	"jantel/core/model"
	"jantel/core/relations"
	"jantel/core/routes"
	"jantel/core/survey"
	"jantel/core/weave"
	"jantel/core/wiring"
)

type jsonFile struct {
	Path       string            `json:"path"`
	Language   *string           `json:"language"`
	Role       *model.Role       `json:"role"`
	Confidence *float64          `json:"role_confidence"`
	RoleSource *string           `json:"role_source"`
	RoleWhy    []string          `json:"role_evidence,omitempty"` // what the role is told from
	Origin     *model.FileOrigin `json:"origin"`
	OriginWhy  []string          `json:"origin_evidence"`
	Feature    *string           `json:"feature"`
	FeatureWhy []string          `json:"feature_evidence,omitempty"`
	Lines      *int              `json:"lines"`
	CodeLines  *int              `json:"code_lines"`
	Bytes      int64             `json:"bytes"`
	Hash       *string           `json:"hash"`
	Read       *string           `json:"read"`
	Problem    *string           `json:"problem,omitempty"`
	Entry      bool              `json:"entry"`
	Judged     bool              `json:"judged"`
	Skipped    *string           `json:"skipped"`
	Changes    *int              `json:"changes"`    // commits that changed it; null without history
	Changed    *string           `json:"changed_at"` // the newest of them
}

type jsonFolder struct {
	Path       string             `json:"path"`
	Purpose    *string            `json:"purpose"`
	Source     *string            `json:"purpose_source"`
	Files      int                `json:"files"`
	Lines      int                `json:"lines"`
	Roles      map[model.Role]int `json:"roles"`
	Legibility model.Legibility   `json:"legibility"`
	Cohesion   links.Ties         `json:"cohesion"` // dependencies of its files that stay inside, and that cross its edge
}

type jsonModule struct {
	Path     string        `json:"path"`
	Name     string        `json:"name"`
	Files    int           `json:"files"`
	Cut      jsonCut       `json:"cut"`
	Patterns []jsonPattern `json:"patterns"`
	Levels   [][]string    `json:"levels"`
}

type jsonDefinition struct {
	Path     string               `json:"path"`
	Name     string               `json:"name"`
	Parent   *string              `json:"parent"`
	Kind     model.DefinitionKind `json:"kind"`
	Line     int                  `json:"line"`
	EndLine  int                  `json:"end_line"`
	Exported bool                 `json:"exported"`
}

type jsonPattern struct {
	Name    string   `json:"name"`
	Score   float64  `json:"score"`
	For     []string `json:"for"`
	Against []string `json:"against"`
}

// jsonVersions are the states of what made a survey: two with the same versions
// differ by what they are made of alone.
type jsonVersions struct {
	Jantel *string `json:"jantel"`
	Reader string  `json:"reader"`
	Rules  string  `json:"rules"`
}

// document is the survey as JSON. What is not computed yet is null: unknown,
// not empty.
type document struct {
	Schema      string              `json:"schema"`
	Versions    jsonVersions        `json:"versions"`
	Codebase    string              `json:"codebase"`
	Revision    *string             `json:"revision"`
	SurveyedAt  string              `json:"surveyed_at"`
	Stage       model.Stage         `json:"stage"`
	Origin      model.Origin        `json:"origin"`
	Totals      map[string]int64    `json:"totals"`
	Files       []jsonFile          `json:"files"`
	Folders     []jsonFolder        `json:"folders"`
	Modules     []jsonModule        `json:"modules"`
	Definitions seq[jsonDefinition] `json:"definitions"`
	Links       []model.Link        `json:"links"`
	External    []model.External    `json:"external"`
	Unresolved  []model.Unresolved  `json:"unresolved"`
	Routes      []jsonRoute         `json:"routes"`
	Messages    []model.Message     `json:"messages"`
	Entities    []jsonEntity        `json:"entities"`
	Entries     []model.Entry       `json:"entries"`
	Facades     []string            `json:"facades"`
	Features    []jsonFeature       `json:"features"`
	Cut         jsonCut             `json:"cut"`
	Levels      [][]string          `json:"levels"`
	Cycles      []model.Cycle       `json:"cycles"`
	Patterns    []jsonPattern       `json:"patterns"`
	Breaches    []jsonBreach        `json:"breaches"`
	Smells      []model.Smell       `json:"smells"`
	Legibility  model.Legibility    `json:"legibility"`
	Raise       []model.Mend        `json:"raise"`
	History     *jsonHistory        `json:"history"`
	Environment []jsonVariable      `json:"environment"`
	Notes       []model.Note        `json:"notes"`
	Journeys    []jsonJourney       `json:"journeys"`
	TestedBy    []jsonTested        `json:"tested_by"`
	Wiring      []jsonWired         `json:"wiring"`
	Calls       seq[jsonCall]       `json:"calls"`
	Timings     map[string]float64  `json:"timings"`
}

// Extras are what the survey as JSON holds only when it is asked for.
type Extras struct {
	Calls   bool   // links between definitions
	Version string // of the program that writes; "" where it is not told
}

func startsOf(j *judgement.Result) map[string]bool {
	starts := map[string]bool{}
	for _, e := range j.Entries {
		starts[e.Path] = true
	}
	return starts
}

// notesOf are what was noted on the way and what could not be told.
func notesOf(s *model.Survey, j *judgement.Result) []model.Note {
	return slices.Concat(j.Notes, s.Notes)
}

// timings are the seconds of every step, those of the judges among them.
func timings(s *model.Survey, j *judgement.Result) map[string]float64 {
	out := maps.Clone(s.Timings)
	if out == nil {
		out = map[string]float64{}
	}
	maps.Copy(out, j.Timings)
	return out
}

type jsonPlace struct {
	Path string `json:"path"`
	Line int    `json:"line"`
}

type jsonEntity struct {
	Name       string                 `json:"name"`
	Path       string                 `json:"path"`
	Line       int                    `json:"line"`
	Operations map[string][]jsonPlace `json:"operations"` // null where it is not told
}

func entitiesOf(s *model.Survey) []jsonEntity {
	out := []jsonEntity{}
	for _, e := range relations.Entities(s) {
		if e.Operations == nil {
			out = append(out, jsonEntity{e.Name, e.Path, e.Line, nil})
			continue
		}
		ops := map[string][]jsonPlace{}
		for _, what := range []string{model.Create, model.Read, model.Update, model.Delete} {
			ops[what] = []jsonPlace{}
			for _, p := range e.Operations[what] {
				ops[what] = append(ops[what], jsonPlace{p.Path, p.Line})
			}
		}
		out = append(out, jsonEntity{e.Name, e.Path, e.Line, ops})
	}
	return out
}

type jsonRoute struct {
	Method      string  `json:"method"`
	Pattern     string  `json:"pattern"`
	Path        string  `json:"path"`
	Line        int     `json:"line"`
	HandlerPath *string `json:"handler_path"` // null when it is written in place or could not be followed
	HandlerName *string `json:"handler_name"`
	InPlace     bool    `json:"in_place"`
	Name        *string `json:"name"` // null: it has none
	// Guards are what is asked before it answers, as far as it is written at the
	// route or marked at what answers.
	Guards  []string `json:"guards"`
	Answers *string  `json:"answers"` // null: it could not be told
	// Checks is what looks at what is sent before it is used.
	Checks []string     `json:"checks"`
	Around []jsonInsert `json:"around"`
	// App is the file at the head of the routers it hangs below, order the place at
	// which it is tried there: null where the most exact route answers.
	App      string `json:"app"`
	Order    *int   `json:"order"`
	Fallback bool   `json:"fallback"` // it answers what no other route does
}

func routesOf(s *model.Survey) []jsonRoute {
	out := []jsonRoute{}
	for _, r := range routes.Of(s) {
		out = append(out, jsonRoute{
			Method: r.Method, Pattern: r.Pattern, Path: r.Path, Line: r.Line, HandlerPath: maybe(r.HandlerPath),
			HandlerName: maybe(r.HandlerName), InPlace: r.InPlace, Guards: list(r.Guards), Name: maybe(r.Name), Answers: maybe(r.Answers),
			Checks: list(r.Checks), Around: insertsOf(r.Around), App: r.App, Order: maybe(r.Order), Fallback: r.Fallback,
		})
	}
	return out
}

type jsonBreach struct {
	From      string `json:"from"`
	To        string `json:"to"`
	Line      int    `json:"line"`
	LayerFrom string `json:"layer_from"`
	LayerTo   string `json:"layer_to"`
	Rule      string `json:"rule"`
}

// breachList is null without a charter: then nothing is known of breaches.
func breachList(j *judgement.Result) []jsonBreach {
	if j.Conformance == nil {
		return nil
	}
	out := []jsonBreach{}
	for _, b := range j.Conformance.Breaches {
		out = append(out, jsonBreach{b.From, b.To, b.Line, b.LayerFrom, b.LayerTo, b.Rule})
	}
	return out
}

type jsonFeature struct {
	Name    string   `json:"name"`
	Files   []string `json:"files"`
	Scatter int      `json:"scatter"`
	// Parts are its files by sort of part, Missing what its siblings usually have.
	Parts    map[string][]string `json:"parts"`
	Missing  []string            `json:"missing"`
	Specimen bool                `json:"specimen"`
}

// jsonCut is how files lie together; value and label are null where there is
// too little to tell.
type jsonCut struct {
	Value    *float64 `json:"value"`
	Label    *string  `json:"label"`
	Depth    *int     `json:"depth"`
	Evidence []string `json:"evidence"`
	// Levels are folders within that are cut otherwise than what lies around them.
	Levels []model.CutLevel `json:"levels"`
}

func cutOf(c model.Cut) jsonCut {
	out := jsonCut{Value: c.Value, Label: maybe(c.Label), Evidence: []string{}, Levels: list(c.Levels)}
	if c.Value != nil {
		out.Depth = &c.Depth
	}
	for _, e := range c.Evidence {
		out.Evidence = append(out.Evidence, e.Note)
	}
	return out
}

// jsonVariable is a variable of the environment that a file reads.
type jsonVariable struct {
	Name string `json:"name"`
	Path string `json:"path"`
	Line int    `json:"line"`
}

// jsonHistory is what Git tells: how much, by whom, and how many folders an
// ordinary commit touches (null when no commit is ordinary).
type jsonHistory struct {
	Commits int            `json:"commits"`
	Authors []model.Author `json:"authors"`
	Median  *float64       `json:"median_folders_per_commit"`
	First   string         `json:"first"`
	Last    string         `json:"last"`
	Pairs   []model.Pair   `json:"pairs"`
	Cut     *string        `json:"cut"`
}

func historyOf(h *model.History) *jsonHistory {
	if h == nil {
		return nil
	}
	date := func(at int64) string { return time.Unix(at, 0).UTC().Format(time.RFC3339) }
	return &jsonHistory{h.Commits, list(h.Authors), h.MedianFolders, date(h.First), date(h.Last), list(h.Pairs), maybe(h.Cut)}
}

func maybe[T comparable](v T) *T {
	var zero T
	if v == zero {
		return nil
	}
	return &v
}

func list[T any](v []T) []T {
	if v == nil {
		return []T{}
	}
	return v
}

// JSON writes the survey in the format jantel-survey/1.
func JSON(w io.Writer, s *model.Survey, j *judgement.Result, more Extras) error {
	d := document{
		Schema: model.Schema, Versions: jsonVersions{maybe(more.Version), survey.Version(), judgement.Version()},
		Codebase: s.Codebase, Revision: maybe(s.Origin.Revision),
		SurveyedAt: s.SurveyedAt.Format("2006-01-02T15:04:05Z07:00"), Stage: j.Brief.Stage, Origin: s.Origin,
		Files: []jsonFile{}, Folders: []jsonFolder{}, Modules: []jsonModule{}, Definitions: definitionsOf(s),
		Breaches: breachList(j), Features: []jsonFeature{}, Cut: cutOf(j.Cut), Levels: list(j.Levels),
		Links: list(s.Links), External: list(s.External), Unresolved: list(s.Unresolved), Routes: routesOf(s),
		Messages: relations.Messages(s), Entities: entitiesOf(s), Environment: []jsonVariable{},
		Cycles: list(j.Cycles), Patterns: patternsOf(j.Patterns), Smells: list(j.Smells), Legibility: j.Legibility,
		Raise: list(j.Raise),
		Notes: list(notesOf(s, j)), History: historyOf(s.History), Timings: timings(s, j)}
	d.Entries, d.Facades = list(j.Entries), list(j.Facades)
	starts := startsOf(j)
	var bytes, code int64
	for _, f := range s.Files {
		bytes += f.Bytes
		role := j.Roles[f.Path]
		x := jsonFile{
			Path: f.Path, Feature: maybe(j.FeatureOf[f.Path].Feature), Language: maybe(f.Language),
			Role: maybe(role.Role), Bytes: f.Bytes, Hash: maybe(f.Hash), Judged: j.InScope[f.Path],
			Skipped: maybe(j.Skipped(f)), OriginWhy: []string{},
		}
		if o := j.Origins[f.Path]; o.Origin != "" {
			x.Origin, x.OriginWhy = &o.Origin, list(o.Evidence)
		}
		if role.Role != "" {
			x.RoleSource = maybe(role.Source)
			x.Confidence, x.RoleWhy = &role.Confidence, role.Reasons
		}
		if x.Feature != nil {
			x.FeatureWhy = j.FeatureOf[f.Path].Reasons
		}
		if f.Facts != nil && f.Facts.Skipped != model.SkippedBinary {
			x.Lines, x.CodeLines, x.Read, x.Problem = &f.Facts.Lines, &f.Facts.Code, maybe(f.Facts.Read), maybe(f.Facts.Problem)
			code += int64(f.Facts.Code)
			x.Entry = starts[f.Path]
		}
		if f.Facts != nil {
			for _, v := range f.Facts.Env {
				d.Environment = append(d.Environment, jsonVariable{v.Name, f.Path, v.Line})
			}
		}
		if fh := s.History.File(f.Path); fh != nil {
			last := time.Unix(fh.Last, 0).UTC().Format(time.RFC3339)
			x.Changes, x.Changed = &fh.Changes, &last
		}
		d.Files = append(d.Files, x)
	}
	ties := links.TiesOf(s.Links)
	for _, f := range j.Folders {
		roles := map[model.Role]int{}
		for r, n := range f.Roles {
			if r != "" {
				roles[r] = n
			}
		}
		d.Folders = append(d.Folders, jsonFolder{
			f.Path, maybe(f.Purpose.Text), maybe(f.Purpose.Source), f.Files, f.Lines, roles, f.Legibility,
			ties[f.Path],
		})
	}
	for _, m := range j.Modules {
		d.Modules = append(d.Modules, jsonModule{m.Path, m.Name, m.Files, cutOf(m.Cut), patternsOf(m.Patterns), list(m.Levels)})
	}
	for _, f := range j.Features {
		d.Features = append(d.Features, jsonFeature{f.Name, f.Files, f.Scatter, f.Parts, list(f.Missing), f.Specimen})
	}
	d.Totals = map[string]int64{
		"files": int64(len(s.Files)), "folders": int64(len(j.Folders)), "lines": int64(j.AllLines),
		"code_lines": code, "judged_lines": int64(j.Judged), "bytes": bytes, "links": int64(len(s.Links)),
		"unresolved": int64(len(s.Unresolved)),
	}
	d.Journeys, d.TestedBy, d.Wiring = journeysOf(j), testedBy(j), wiringOf(j)
	if more.Calls {
		d.Calls = callsOf(s, j)
	}
	return written(w, reflect.ValueOf(d))
}

// seq yields what a survey has so much of that a list would take more than the
// survey does; nil leaves it out.
type seq[T any] func(yield func(T) bool)

func (s seq[T]) each(fn func(any) bool) { s(func(v T) bool { return fn(v) }) }
func (s seq[T]) none() bool             { return s == nil }

// jsonEnd is one end of a link between definitions; Name is qualified, "" for
// the top of the file.
type jsonEnd struct {
	Path string `json:"path"`
	Name string `json:"name"`
}

type jsonCall struct {
	From jsonEnd `json:"from"`
	To   jsonEnd `json:"to"`
	Line int     `json:"line"`
	Kind string  `json:"kind"`
	Sure bool    `json:"sure"`
}

func callsOf(s *model.Survey, j *judgement.Result) seq[jsonCall] {
	g := calls.Of(s)
	handed := wiring.Edges(j.Reading, func(p string) string { return model.ProjectOf(j.Modules, p) })
	end := func(r calls.Ref) jsonEnd { return jsonEnd{g.Path(r), g.Name(r)} }
	return func(yield func(jsonCall) bool) {
		for _, e := range g.Edges {
			if !yield(jsonCall{end(e.From), end(e.To), int(e.Line), e.Kind.String(), e.Sure}) {
				return
			}
		}
		for _, e := range handed { // what a container hands to a class
			from, to := jsonEnd{e.From.Path, e.From.Name}, jsonEnd{e.To.Path, e.To.Name}
			if !yield(jsonCall{from, to, e.Line, model.CallInject.String(), e.Sure}) {
				return
			}
		}
	}
}

func definitionsOf(s *model.Survey) seq[jsonDefinition] {
	return func(yield func(jsonDefinition) bool) {
		for _, f := range s.Files {
			if f.Facts == nil || f.Facts.Skipped == model.SkippedBinary {
				continue
			}
			for _, d := range f.Facts.Definitions {
				if !yield(jsonDefinition{f.Path, d.Name, maybe(d.Parent), d.Kind, d.Line, d.EndLine, d.Exported}) {
					return
				}
			}
		}
	}
}

// written writes a document with each item of its lists on a line of its own,
// as it goes, so that no more than an item of it is held at once.
func written(w io.Writer, doc reflect.Value) error {
	out := bufio.NewWriterSize(w, 1<<16)
	var item bytes.Buffer
	enc := json.NewEncoder(&item)
	enc.SetEscapeHTML(false)
	put := func(v any) error {
		item.Reset()
		if err := enc.Encode(v); err != nil {
			return err
		}
		_, err := out.Write(bytes.TrimSuffix(item.Bytes(), []byte{'\n'}))
		return err
	}
	_ = out.WriteByte('{') // what goes wrong in writing is told by Flush
	for i := range doc.NumField() {
		name, _, _ := strings.Cut(doc.Type().Field(i).Tag.Get("json"), ",")
		if l, ok := doc.Field(i).Interface().(interface{ none() bool }); ok && l.none() {
			continue
		}
		if i > 0 {
			_ = out.WriteByte(',')
		}
		_, _ = fmt.Fprintf(out, "\n %q: ", name)
		v := doc.Field(i)
		var err error
		n := 0
		each := func(x any) bool {
			if n > 0 {
				_ = out.WriteByte(',')
			}
			_, _ = out.WriteString("\n  ")
			n++
			err = put(x)
			return err == nil
		}
		switch list, isList := v.Interface().(interface {
			each(fn func(any) bool)
		}); {
		case isList:
			_ = out.WriteByte('[')
			list.each(each)
		case v.Kind() == reflect.Slice && !v.IsNil():
			_ = out.WriteByte('[')
			for k := 0; k < v.Len() && each(v.Index(k).Addr().Interface()); k++ {
			}
		default:
			err = put(v.Interface())
			n = -1
		}
		if err != nil {
			return err
		}
		if n > 0 {
			_, _ = out.WriteString("\n ")
		}
		if n >= 0 {
			_ = out.WriteByte(']')
		}
	}
	_, _ = out.WriteString("\n}\n")
	return out.Flush()
}

func patternsOf(ms []model.PatternMatch) []jsonPattern {
	out := []jsonPattern{}
	for _, m := range ms {
		p := jsonPattern{Name: m.Name, Score: m.Score, For: []string{}, Against: []string{}}
		for _, a := range m.For {
			p.For = append(p.For, a.Text)
		}
		for _, a := range m.Against {
			p.Against = append(p.Against, a.Text)
		}
		out = append(out, p)
	}
	return out
}

// plural is how a role is spoken of for many files.
func plural(r model.Role) string { return weave.Plural(r) }

// RulesJSON writes the catalogue of rules.
func RulesJSON(w io.Writer, rules any) error {
	enc := json.NewEncoder(w)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", " ")
	return enc.Encode(rules)
}
