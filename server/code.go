package server

import (
	"context"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// Use is one end of a dependency of a file.
type Use struct {
	Path  string         `json:"path"`
	Line  int            `json:"line" doc:"of the statement, in the file that needs the other"`
	Kind  model.LinkKind `json:"kind"`
	Text  string         `json:"text"`
	Names []string       `json:"names"`
	Sure  bool           `json:"sure"`
}

// Code is the Code view of a file.
type Code struct {
	Path        string             `json:"path"`
	Language    string             `json:"language"`
	Text        string             `json:"text"`
	Missing     string             `json:"missing" doc:"why there is no text, empty when there is"`
	Lines       int                `json:"lines"`
	Bytes       int64              `json:"bytes"`
	Hash        string             `json:"hash"`
	Role        model.RoleOf       `json:"role"`
	Skipped     string             `json:"skipped"`
	Partial     string             `json:"partial"`
	Unread      bool               `json:"unread" doc:"it is code of a language that is not read: what it defines and calls is not known"`
	Definitions []model.Definition `json:"definitions"`
	Uses        []Use              `json:"uses"`
	UsedBy      []Use              `json:"used_by"`
	External    []model.External   `json:"external"`
	Unresolved  []model.Unresolved `json:"unresolved"`
	Feature     model.FeatureOf    `json:"feature"`
	Origin      model.OriginOf     `json:"origin"`
	Layer       string             `json:"layer" doc:"of the charter, empty without one"`
	Twins       []model.Twins      `json:"twins" doc:"the file, or what it defines, and what is nearly the same code"`
	ReadMark    bool               `json:"read_mark"`
}

// maxShown is how much of a text is sent to be shown.
const maxShown = 2 << 20

func (s *Server) code(ctx context.Context, o *judged, place string) (*Code, error) {
	f := o.facts.File(place)
	if f == nil {
		return nil, noPlace(place)
	}
	c := &Code{
		Path: f.Path, Language: f.Language, Lines: f.Lines(), Bytes: f.Bytes, Hash: f.Hash, Role: o.Roles[place],
		Skipped: o.Skipped(f), Origin: o.Origins[place], Definitions: []model.Definition{}, Uses: []Use{}, UsedBy: []Use{},
		External: []model.External{}, Unresolved: []model.Unresolved{}, Twins: []model.Twins{},
		Feature: o.FeatureOf[place],
	}
	if c.Origin.Evidence == nil {
		c.Origin.Evidence = []string{}
	}
	if c.Feature.Reasons == nil {
		c.Feature.Reasons = []string{}
	}
	if o.Conformance != nil {
		c.Layer = o.Conformance.LayerOf[place]
	}
	if c.Role.Reasons == nil {
		c.Role.Reasons = []string{}
	}
	switch {
	case f.Skipped == model.SkippedBinary:
		c.Missing = "This is a binary file; it was counted, not read."
	case f.Hash == "":
		c.Missing = "This file was not read; the survey's notes say why."
	default:
		data, err := s.facts.Text(ctx, f.Hash)
		if err != nil {
			c.Missing = "Its text is not kept any more; survey the codebase again."
			break
		}
		text, _ := syntax.Decode(data)
		if len(text) > maxShown {
			text = text[:maxShown]
			c.Missing = "Only the first two megabytes are shown."
		}
		c.Text = strings.ToValidUTF8(string(text), "\uFFFD")
	}
	c.Unread = o.Reading.IsSource(f) && (f.Facts == nil || f.Facts.Read == "")
	if f.Facts != nil {
		c.Definitions = append(c.Definitions, f.Facts.Definitions...)
		if f.Facts.Read == model.ReadPartial {
			c.Partial = f.Facts.Problem
		}
	}
	for _, l := range o.facts.Links {
		if l.From == place {
			c.Uses = append(c.Uses, Use{l.To, l.Line, l.Kind, l.Text, names(l.Names), l.Sure})
		}
		if l.To == place {
			c.UsedBy = append(c.UsedBy, Use{l.From, l.Line, l.Kind, l.Text, names(l.Names), l.Sure})
		}
	}
	for _, e := range o.facts.External {
		if e.From == place {
			c.External = append(c.External, e)
		}
	}
	for _, t := range o.facts.Twins {
		if slices.ContainsFunc(t.Members, func(m model.TwinPlace) bool { return m.Path == place }) {
			c.Twins = append(c.Twins, t)
		}
	}
	for _, u := range o.facts.Unresolved {
		if u.From == place {
			c.Unresolved = append(c.Unresolved, u)
		}
	}
	_, read, err := s.readLines(ctx, o)
	c.ReadMark = read[place]
	return c, err
}

func names(ns []string) []string {
	if ns == nil {
		return []string{}
	}
	return ns
}

// linesOf are the lines of a file; nil where its text is not kept any more.
func (s *Server) linesOf(ctx context.Context, o *judged, path string) []string {
	f := o.facts.File(path)
	if f == nil || f.Facts == nil || f.Hash == "" {
		return nil
	}
	data, err := s.facts.Text(ctx, f.Hash)
	if err != nil {
		return nil
	}
	text, _ := syntax.Decode(data)
	lines := strings.Split(string(text), "\n")
	for i := range lines {
		lines[i] = strings.TrimRight(lines[i], "\r")
	}
	return lines
}
