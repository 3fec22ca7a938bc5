// Package texts joins what code asks for by a name with what holds it: texts of
// catalogues by their keys, settings of the environment, addresses of routes by the
// names they were given. No compiler looks at these names, so that one which is
// missing shows when somebody meets it.
package texts

import (
	"cmp"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/reading"
)

// Kinds of Row.
const (
	Text    = "text"
	Setting = "setting"
	Route   = "route"
)

// What may be wrong with a name.
const (
	Nowhere = "held nowhere"    // asked for, and held by nothing
	Idle    = "not asked for"   // held, and asked for by nothing
	Partly  = "missing in some" // of several languages, some lack it
	Twice   = "held twice"      // in one catalogue, or given to two routes
)

// TextAt is where a name stands.
type TextAt struct {
	Path string `json:"path"`
	Line int    `json:"line"`
}

// HeldText is a text by its key in one catalogue, a value of a setting, or a route.
type HeldText struct {
	TextAt
	Tongue string `json:"tongue" doc:"the language of the catalogue; empty where it has none"`
	Value  string `json:"value"`
}

// Row is one name.
type Row struct {
	Kind    string     `json:"kind" enum:"text,setting,route"`
	Name    string     `json:"name"`
	Set     string     `json:"set" doc:"the catalogues that it belongs to, with * for the language; empty where it has none"`
	Held    []HeldText `json:"held"`
	Asked   []TextAt   `json:"asked"`
	Written []TextAt   `json:"written" doc:"where its name is written as a text, if no call is known to ask for it"`
	Maybe   bool       `json:"maybe" doc:"it may be asked for by a name that is put together when the code runs"`
	Missing []string   `json:"missing" doc:"languages that lack it"`
	Default string     `json:"default" doc:"of a setting: what stands for it where it is not set, as far as it is written where it is read"`
	Must    bool       `json:"must" doc:"of a setting: to read it fails where it is not set"`
	Wrong   []string   `json:"wrong" doc:"what may be wrong with it"`
}

func newRow(kind, name, set string) *Row {
	return &Row{
		Kind: kind, Name: name, Set: set, Held: []HeldText{}, Asked: []TextAt{}, Written: []TextAt{}, Missing: []string{}, Wrong: []string{},
	}
}

// TextSet are catalogues that hold the same texts in several languages.
type TextSet struct {
	Name    string   `json:"name" doc:"their path with * for the language"`
	Tongues []Tongue `json:"tongues"`
	Keys    int      `json:"keys" doc:"different ones of all languages together"`
	Asked   int      `json:"asked" doc:"those that are asked for somewhere"`
	// Told says that so many are asked for in a way that is known, that not to be
	// asked for means something.
	Told bool `json:"told" doc:"most of its keys are asked for in a way that is known"`
}

// Tongue is one language of a set.
type Tongue struct {
	Name string `json:"name"`
	Path string `json:"path"`
	Has  int    `json:"has" doc:"keys that it holds"`
}

// Texts is all that is asked for by name.
type Texts struct {
	Sets []TextSet `json:"sets"`
	Rows []Row     `json:"rows"`
}

// Each hands over the texts of all files until told to stop.
type Each func(fn func(path string, text []byte) bool)

// Of joins the names of a codebase. Tests and what was copied in ask for nothing.
// each is asked for the texts where a name is asked for by no call that is known: it
// may be written all the same.
func Of(r *reading.Reading, origin func(path string) model.FileOrigin, each Each) *Texts {
	j := &joiner{r: r, origin: origin}
	j.catalogues()
	j.ask()
	j.write(each)
	j.tellSets()
	out := &Texts{Sets: j.sets(), Rows: append(append(j.rows(), settings(r, origin)...), named(r)...)}
	slices.SortFunc(out.Rows, func(a, b Row) int {
		return cmp.Or(cmp.Compare(order[a.Kind], order[b.Kind]), strings.Compare(a.Set, b.Set), strings.Compare(a.Name, b.Name))
	})
	return out
}

var order = map[string]int{Text: 0, Setting: 1, Route: 2}

// others reports whether a file was written by others, or by a tool from something
// else: its names are not looked at.
func others(o model.FileOrigin) bool {
	return o == model.OriginVendored || o == model.OriginBuilt
}

// asks are the files whose code asks for names.
func asks(r *reading.Reading, origin func(string) model.FileOrigin) func(yield func(*model.File) bool) {
	return func(yield func(*model.File) bool) {
		for _, f := range r.Files {
			if f.Facts == nil || r.IsTest(f.Path) || others(origin(f.Path)) {
				continue
			}
			if !yield(f) {
				return
			}
		}
	}
}

// sampleShare is the share of a sample's variables that have to be read, before it
// is said of the others that nobody does.
const sampleShare = 0.6

// settings joins the variables of the environment that are read with the files that
// give them a value.
func settings(r *reading.Reading, origin func(string) model.FileOrigin) []Row {
	rows := map[string]*Row{}
	row := func(name string) *Row {
		if rows[name] == nil {
			rows[name] = newRow(Setting, name, "")
		}
		return rows[name]
	}
	given := false
	samples := map[string][]*Row{} // what each sample names
	for f := range asks(r, origin) {
		for _, e := range f.Facts.Env {
			x := row(e.Name)
			x.Asked = append(x.Asked, TextAt{f.Path, e.Line})
			x.Default, x.Must = cmp.Or(x.Default, e.Default), x.Must || e.Must
		}
		for _, g := range f.Facts.Given {
			row(g.Name).Held = append(row(g.Name).Held, HeldText{TextAt: TextAt{f.Path, g.Line}, Value: g.Value})
			given = true
			if f.Facts.Project == nil { // other files give values to programs of others too
				samples[f.Path] = append(samples[f.Path], row(g.Name))
			}
		}
	}
	for _, named := range samples {
		idle := slices.DeleteFunc(slices.Clone(named), func(x *Row) bool { return len(x.Asked) > 0 })
		if float64(len(named)-len(idle)) < sampleShare*float64(len(named)) {
			continue
		}
		for _, x := range idle {
			if !slices.Contains(x.Wrong, Idle) {
				x.Wrong = append(x.Wrong, Idle)
			}
		}
	}
	out := make([]Row, 0, len(rows))
	for _, x := range rows {
		// Where no file gives values, that one is given none says nothing.
		if given && len(x.Held) == 0 && x.Default == "" && x.Must {
			x.Wrong = append(x.Wrong, Nowhere)
		}
		out = append(out, *x)
	}
	return out
}

// named joins the names that routes were given with the places that ask for their
// addresses by them.
func named(r *reading.Reading) []Row {
	rows := map[string]*Row{}
	for _, f := range r.Files {
		if f.Facts == nil || r.IsTest(f.Path) || !r.Judged[f.Path] {
			continue
		}
		for i := range f.Facts.Routes {
			t := &f.Facts.Routes[i]
			if t.Name == "" {
				continue
			}
			x := rows[t.Name]
			if x == nil {
				x = newRow(Route, t.Name, "")
				rows[t.Name] = x
			}
			x.Held = append(x.Held, HeldText{TextAt: TextAt{f.Path, t.Line}, Value: t.Method + " " + t.Pattern})
		}
	}
	if len(rows) == 0 {
		return nil // their names are not told here, so that none is missed
	}
	askRoutes(r, rows)
	out := make([]Row, 0, len(rows))
	for _, x := range rows {
		switch {
		case len(x.Held) == 0:
			x.Wrong = append(x.Wrong, Nowhere)
		case len(x.Held) > 1 && inTwoFiles(x.Held):
			x.Wrong = append(x.Wrong, Twice)
		}
		out = append(out, *x)
	}
	return out
}

// inTwoFiles reports whether a name was given in more than one file: in one, the
// methods of one address share it.
func inTwoFiles(all []HeldText) bool {
	return slices.ContainsFunc(all, func(h HeldText) bool { return h.Path != all[0].Path })
}

// askRoutes adds the places that ask for routes by name. What is asked for by a
// call that is for nothing else has a row even where no route has the name, unless
// the name goes to a part that gives its routes names of its own.
func askRoutes(r *reading.Reading, rows map[string]*Row) {
	for _, f := range r.Files {
		if f.Facts == nil || r.IsTest(f.Path) || !r.Judged[f.Path] {
			continue
		}
		for _, a := range f.Facts.Asked {
			if a.Kind != model.AskRoute {
				continue
			}
			x := rows[a.Name]
			if x == nil {
				// counter:lots, desk.lots: the part before is the name of a part.
				if k := strings.LastIndexAny(a.Name, ":."); k >= 0 {
					x = rows[a.Name[k+1:]]
				}
			}
			if x == nil && a.Sure && !strings.ContainsAny(a.Name, "*:./ ") {
				x = newRow(Route, a.Name, "")
				rows[a.Name] = x
			}
			if x != nil {
				x.Asked = append(x.Asked, TextAt{f.Path, a.Line})
			}
		}
	}
}
