package report

import (
	"encoding/json"
	"fmt"
	"io"
	"net/url"
	"strings"

	"jantel/core/charter"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/smells"
)

type sarifText struct {
	Text string `json:"text"`
}

type sarifRule struct {
	ID    string    `json:"id"`
	Name  string    `json:"name"`
	Short sarifText `json:"shortDescription"`
	Full  sarifText `json:"fullDescription"`
	Help  sarifText `json:"help"`
}

type sarifResult struct {
	RuleID    string            `json:"ruleId"`
	Level     string            `json:"level"`
	Message   sarifText         `json:"message"`
	Locations []sarifLocation   `json:"locations"`
	Prints    map[string]string `json:"partialFingerprints,omitempty"`
	Related   []sarifLocation   `json:"relatedLocations,omitempty"`
}

type sarifRegion struct {
	StartLine int `json:"startLine"`
	EndLine   int `json:"endLine,omitempty"`
}

type sarifLocation struct {
	ID       *int `json:"id,omitempty"`
	Physical struct {
		Artifact struct {
			URI    string `json:"uri"`
			BaseID string `json:"uriBaseId"`
		} `json:"artifactLocation"`
		Region *sarifRegion `json:"region,omitempty"`
	} `json:"physicalLocation"`
	Message *sarifText `json:"message,omitempty"`
}

func at(path string, line, end int) sarifLocation {
	var l sarifLocation
	parts := strings.Split(path, "/")
	for i := range parts {
		parts[i] = url.PathEscape(parts[i])
	}
	l.Physical.Artifact.URI, l.Physical.Artifact.BaseID = strings.Join(parts, "/"), "ROOT"
	if line > 0 {
		l.Physical.Region = &sarifRegion{StartLine: line}
		if end > line {
			l.Physical.Region.EndLine = end
		}
	}
	return l
}

// breachRule is the slug of the rule that breaches are told under.
const breachRule = "charter-breach"

func breachesOf(bs []charter.Breach) []sarifResult {
	out := []sarifResult{}
	for _, b := range bs {
		out = append(out, sarifResult{
			RuleID: breachRule, Level: "error",
			Message:   sarifText{fmt.Sprintf("%s needs %s: %s", b.From, b.To, b.Rule)},
			Locations: []sarifLocation{at(b.From, b.Line, 0)},
		})
	}
	return out
}

func sarifRules() []sarifRule {
	out := []sarifRule{
		{
			breachRule, "Charter breach", sarifText{"Does a dependency break the charter?"},
			sarifText{"The charter says which layer may depend on which; this dependency is not among them."},
			sarifText{"Move what is needed, pass it in, or agree on an exception with a reason."},
		},
	}
	for _, r := range smells.Rules() {
		if r.Slug != breachRule {
			out = append(out, sarifRule{r.Slug, r.Title, sarifText{r.Question}, sarifText{r.Why}, sarifText{r.Remedy}})
		}
	}
	return out
}

func sarif(w io.Writer, results []sarifResult) error {
	doc := map[string]any{
		"$schema": "https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json",
		"version": "2.1.0",
		"runs": []any{map[string]any{
			"tool":               map[string]any{"driver": map[string]any{"name": "Jantel", "rules": sarifRules()}},
			"columnKind":         "utf16CodeUnits",
			"results":            results,
			"originalUriBaseIds": map[string]any{"ROOT": map[string]any{"description": sarifText{"The root of the codebase."}}},
		}},
	}
	enc := json.NewEncoder(w)
	enc.SetIndent("", " ")
	return enc.Encode(doc)
}

// SARIF writes smells and breaches as SARIF 2.1.0.
func SARIF(w io.Writer, _ *model.Survey, j *judgement.Result) error {
	results := []sarifResult{}
	if j.Conformance != nil {
		results = breachesOf(j.Conformance.Breaches)
	}
	for _, sm := range j.Smells {
		if sm.Silenced != "" || sm.Rule == breachRule {
			continue
		}
		level := "note"
		if sm.Strength >= 0.6 {
			level = "warning"
		}
		line, end := 0, 0
		if sm.Line != nil {
			line = *sm.Line
		}
		if sm.EndLine != nil {
			end = *sm.EndLine
		}
		r := sarifResult{
			RuleID: sm.Rule, Level: level, Message: sarifText{sm.Message},
			Locations: []sarifLocation{at(sm.Path, line, end)}, Prints: map[string]string{"jantelSmell/1": sm.ID},
		}
		for i, e := range sm.Evidence {
			if i == 10 {
				break
			}
			l := at(e.Path, e.Line, 0)
			l.ID, l.Message = &i, &sarifText{e.Note}
			r.Related = append(r.Related, l)
		}
		results = append(results, r)
	}
	return sarif(w, results)
}

// BreachesSARIF writes breaches alone.
func BreachesSARIF(w io.Writer, r *charter.Result) error { return sarif(w, breachesOf(r.Breaches)) }

// BreachesJSON writes what came of holding a codebase against its charter.
func BreachesJSON(w io.Writer, r *charter.Result) error {
	enc := json.NewEncoder(w)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", " ")
	return enc.Encode(r)
}

// BreachesText writes breaches for a terminal, one a line.
func BreachesText(w io.Writer, r *charter.Result) error {
	var b strings.Builder
	for _, x := range r.Breaches {
		fmt.Fprintf(&b, "%s:%d: needs %s: %s\n", Plain(x.From), x.Line, Plain(x.To), Plain(x.Rule))
	}
	for _, e := range r.Wiring {
		fmt.Fprintf(&b, "%s:%d: logic where only wiring should be: %s\n", Plain(e.Path), e.Line, Plain(e.Note))
	}
	for _, e := range r.Expired {
		fmt.Fprintf(&b, "the exception from %s to %s has expired on %s\n", Plain(e.From), Plain(e.To), Plain(e.Until))
	}
	for _, g := range r.Idle {
		fmt.Fprintf(&b, "the glob %s matches nothing\n", Plain(g))
	}
	if n := len(r.Loose); n > 0 {
		fmt.Fprintf(&b, "%d files are held by no layer, the first is %s\n", n, Plain(r.Loose[0]))
	}
	switch n := len(r.Breaches); n {
	case 0:
		b.WriteString("No dependency breaks the charter.\n")
	case 1:
		b.WriteString("One dependency breaks the charter.\n")
	default:
		fmt.Fprintf(&b, "%d dependencies break the charter.\n", n)
	}
	_, err := io.WriteString(w, b.String())
	return err
}
