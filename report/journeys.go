package report

import (
	"jantel/core/journeys"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/wiring"
)

type jsonJourney struct {
	Route      *jsonWay        `json:"route"` // null for what comes in otherwise
	Start      jsonStart       `json:"start"`
	Stops      []jsonStop      `json:"stops"`
	Others     int             `json:"others"` // further definitions that it reaches
	Skipped    []model.Role    `json:"skipped"`
	Operations []jsonOperation `json:"operations"`
	Ends       []string        `json:"ends"`
	Broken     *string         `json:"broken"` // why it could not be followed
	Around     []jsonInsert    `json:"around"` // what runs before, around and after what answers, in running order
}

type jsonInsert struct {
	Name   *string `json:"name"` // null where it is written in place
	When   string  `json:"when"` // before, around, after, error
	Path   string  `json:"path"` // where it is put there
	Line   int     `json:"line"`
	ToPath *string `json:"to_path"` // where what runs is defined; null where that is not told
	ToLine *int    `json:"to_line"`
}

type jsonFault struct {
	What string  `json:"what"` // raise, turn, swallow
	Name *string `json:"name"`
	Line int     `json:"line"`
}

func insertsOf(all []model.RouteInsert) []jsonInsert {
	out := []jsonInsert{}
	for _, x := range all {
		out = append(out, jsonInsert{maybe(x.Name), x.When, x.Path, x.Line, maybe(x.ToPath), maybe(x.ToLine)})
	}
	return out
}

type jsonWay struct {
	Method  string `json:"method"`
	Pattern string `json:"pattern"`
}

type jsonStart struct {
	Kind string `json:"kind"`
	Path string `json:"path"`
	Name string `json:"name"`
	Line int    `json:"line"`
}

type jsonStop struct {
	Path string      `json:"path"`
	Name string      `json:"name"`
	Line int         `json:"line"`
	From *int        `json:"from"` // line in the stop before that leads here
	Role *model.Role `json:"role"`
	Tie  model.Tie   `json:"tie"`
	// Bounds is what makes it a transaction, null where it makes none.
	Bounds *string     `json:"bounds"`
	Faults []jsonFault `json:"faults"`
}

type jsonOperation struct {
	Entity string `json:"entity"`
	What   string `json:"what"`
	Path   string `json:"path"`
	Line   int    `json:"line"`
}

func journeysOf(j *judgement.Result) []jsonJourney {
	out := []jsonJourney{}
	for _, x := range journeys.Of(j.Reading, j.Entries) {
		s := x.Start
		y := jsonJourney{
			Start: jsonStart{s.Kind, s.Path, s.Name, s.Line}, Stops: []jsonStop{}, Others: x.Others, Skipped: list(x.Skipped),
			Operations: []jsonOperation{}, Ends: list(x.Ends), Broken: maybe(x.Broken),
			Around: []jsonInsert{},
		}
		if x.Route != nil {
			y.Around = insertsOf(x.Route.Around)
			y.Route = &jsonWay{x.Route.Method, x.Route.Pattern}
		}
		for _, t := range x.Stops {
			stop := jsonStop{t.Path, t.Name, t.Line, maybe(t.From), maybe(t.Role), t.Tie, maybe(t.Bounds), []jsonFault{}}
			for _, x := range t.Faults {
				stop.Faults = append(stop.Faults, jsonFault{x.What, maybe(x.Name), x.Line})
			}
			y.Stops = append(y.Stops, stop)
		}
		for _, o := range x.Operations {
			y.Operations = append(y.Operations, jsonOperation{o.Entity, o.What, o.Path, o.Line})
		}
		out = append(out, y)
	}
	return out
}

// jsonWired is what is handed out where something is asked for.
type jsonWired struct {
	Provides *string `json:"provides"` // null where a function makes it
	For      string  `json:"for"`
	Lifetime *string `json:"lifetime"` // null where it is not told
	How      string  `json:"how"`
	Path     string  `json:"path"`
	Line     int     `json:"line"`
}

func wiringOf(j *judgement.Result) []jsonWired {
	out := []jsonWired{}
	for _, w := range wiring.Of(j.Reading) {
		out = append(out, jsonWired{maybe(w.Provides), w.For, maybe(w.Lifetime), w.How, w.Path, w.Line})
	}
	return out
}

type jsonTested struct {
	Path  string     `json:"path"`
	Name  string     `json:"name"`
	Tests []jsonTest `json:"tests"`
}

type jsonTest struct {
	Path     string `json:"path"`
	Kind     string `json:"kind"`
	Distance int    `json:"distance"`
}

func testedBy(j *judgement.Result) []jsonTested {
	out := []jsonTested{}
	for _, x := range journeys.TestedBy(j.Reading) {
		y := jsonTested{x.Path, x.Name, []jsonTest{}}
		for _, t := range x.Tests {
			y.Tests = append(y.Tests, jsonTest{t.Path, t.Kind, t.Distance})
		}
		out = append(out, y)
	}
	return out
}
