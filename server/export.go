package server

import (
	"bytes"
	"cmp"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"jantel/report"
	"jantel/review"

	"github.com/go-chi/chi/v5"
)

// export hands out the findings and the survey as files.
func (s *Server) export(w http.ResponseWriter, r *http.Request) {
	id, _ := strconv.ParseInt(chi.URLParam(r, "id"), 10, 64)
	c, err := s.review.Codebase(r.Context(), id)
	if err != nil {
		problem(w, http.StatusNotFound, err.Error())
		return
	}
	found, err := s.review.Findings(r.Context(), id)
	if err != nil {
		problem(w, http.StatusInternalServerError, err.Error())
		return
	}
	// Handed out as it is seen: what is filtered away stays away.
	q := r.URL.Query()
	filter := review.Filter{
		At: q.Get("at"), Words: q.Get("words"), Kind: review.Kind(q.Get("kind")), State: review.State(q.Get("state")),
		Person: q.Get("person"), Label: q.Get("label"),
	}
	survey, _ := strconv.ParseInt(q.Get("survey"), 10, 64)
	passes, err := s.passing(r.Context(), id, survey, filter, Narrow{q.Get("feature"), q.Get("role")})
	if err != nil {
		problem(w, http.StatusNotFound, err.Error())
		return
	}
	found = slices.DeleteFunc(found, func(f review.Finding) bool { return !passes(&f) })
	var out bytes.Buffer
	kind := ""
	switch file := chi.URLParam(r, "file"); file {
	case "findings.md":
		kind, err = "text/markdown; charset=utf-8", report.FindingsMarkdown(&out, c.Name, found)
	case "findings.csv":
		kind, err = "text/csv; charset=utf-8", report.FindingsCSV(&out, found)
	case "survey.html", "survey.json", "survey.md", "section.svg", "dependencies.svg", "dependencies.dot", "dependencies.graphml":
		o, e := s.shelf.survey(r.Context(), id, survey)
		if e != nil {
			problem(w, http.StatusNotFound, e.Error())
			return
		}
		switch file {
		case "survey.html":
			kind, err = "text/html; charset=utf-8", report.HTML(&out, o.facts, o.Result, found)
		case "survey.md":
			kind, err = "text/markdown; charset=utf-8", report.Markdown(&out, o.facts, o.Result)
		case "section.svg":
			place := cmp.Or(q.Get("at"), ".")
			if o.Folder(place) == nil {
				problem(w, http.StatusNotFound, noPlace(place).Error())
				return
			}
			kind, err = "image/svg+xml", report.Section(&out, s.cutOpen(o, place), c.Name+": "+report.PlaceName(place), report.Source(o.facts))
		case "dependencies.dot":
			kind, err = "text/vnd.graphviz", report.DOT(&out, o.facts)
		case "dependencies.graphml":
			kind, err = "application/xml", report.GraphML(&out, o.facts, o.Roles)
		case "dependencies.svg":
			place := q.Get("at")
			if place == "" {
				place = "."
			}
			d, e := s.drawn(r.Context(), o, place, DrawingIn{
				Narrow: Narrow{q.Get("feature"), q.Get("role")}, Opened: q["open"], Auto: q.Get("auto") == "true",
				Tests: q.Get("tests") == "true", Rim: q.Get("rim") == "true", Focus: q.Get("focus"),
			})
			if e != nil {
				problem(w, http.StatusNotFound, e.Error())
				return
			}
			kind, err = "image/svg+xml", report.SVG(&out, d, c.Name+": dependencies of "+report.PlaceName(place), report.Source(o.facts))
		default:
			kind, err = "application/json", report.JSON(&out, o.facts, o.Result, report.Extras{Version: s.cfg.Version})
		}
	default:
		hand, known := handOuts[file]
		if !known {
			problem(
				w, http.StatusNotFound,
				"findings go out as findings.md and findings.csv, the survey as survey.html, survey.md and survey.json, "+
					"the section as section.svg, dependencies as dependencies.svg, .dot and .graphml, "+
					"a way as journey.svg, a part as part.md and part.svg, what is reached as reach.md and reach.svg",
			)
			return
		}
		o, e := s.shelf.survey(r.Context(), id, survey)
		if e != nil {
			problem(w, http.StatusNotFound, e.Error())
			return
		}
		if e := hand.write(r.Context(), s, o, q, &out); e != nil {
			problem(w, status(e), e.Error())
			return
		}
		kind = hand.kind
	}
	if err != nil {
		problem(w, http.StatusInternalServerError, err.Error())
		return
	}
	name := strings.Map(func(c rune) rune {
		if c < 0x20 || strings.ContainsRune(`"\/;`, c) || c > 0x7e {
			return '_'
		}
		return c
	}, c.Name)
	w.Header().Set("Content-Type", kind)
	w.Header().Set("Content-Disposition", `attachment; filename="`+name+"-"+chi.URLParam(r, "file")+`"`)
	_, _ = w.Write(out.Bytes())
}
