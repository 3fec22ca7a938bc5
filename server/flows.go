package server

import (
	"context"

	"jantel/core/model"
	"jantel/core/relations"
)

// RequestRow is a request that the code sends to a path, and what answers it
// in the same codebase.
type RequestRow struct {
	Method    string `json:"method" doc:"empty where it is not told"`
	Pattern   string `json:"pattern" doc:"* for what is put in"`
	Host      string `json:"host" doc:"of another system; empty for one's own"`
	Path      string `json:"path"`
	Line      int    `json:"line"`
	Route     string `json:"route" doc:"empty when nothing answers"`
	RoutePath string `json:"route_path"`
	RouteLine int    `json:"route_line"`
	Sure      bool   `json:"sure"`
}

// MessageRow is a message by name with its ends.
type MessageRow struct {
	Name      string           `json:"name"`
	Senders   []model.Evidence `json:"senders"`
	Receivers []model.Evidence `json:"receivers"`
}

// Flows are the lists of what moves through a system besides its routes.
type Flows struct {
	Requests []RequestRow   `json:"requests"`
	Messages []MessageRow   `json:"messages"`
	Entities []model.Entity `json:"entities"`
}

// allFlows are the lists of the whole codebase.
func allFlows(o *judged) *Flows {
	// Asked for first: what is kept is made one at a time.
	all := allRoutes(o)
	return cached(o, "flows", func() *Flows {
		out := &Flows{Requests: []RequestRow{}, Messages: []MessageRow{}, Entities: relations.Entities(o.facts)}
		own, abroad := relations.Requests(o.facts, all)
		for _, q := range own {
			r := RequestRow{Method: q.Method, Pattern: q.Pattern, Path: q.Path, Line: q.Line, Sure: q.Sure}
			if q.Route != nil {
				r.Route, r.RoutePath, r.RouteLine = q.Route.Method+" "+q.Route.Pattern, q.Route.Path, q.Route.Line
			}
			out.Requests = append(out.Requests, r)
		}
		for _, host := range relations.Hosts(abroad) {
			for _, e := range abroad[host] {
				out.Requests = append(out.Requests, RequestRow{Pattern: e.Note, Host: host, Path: e.Path, Line: e.Line})
			}
		}
		for _, m := range relations.Messages(o.facts) {
			n := len(out.Messages)
			if n == 0 || out.Messages[n-1].Name != m.Name {
				out.Messages = append(out.Messages, MessageRow{Name: m.Name, Senders: []model.Evidence{}, Receivers: []model.Evidence{}})
				n++
			}
			row, at := &out.Messages[n-1], model.Evidence{Path: m.Path, Line: m.Line}
			if m.Direction == model.Send {
				row.Senders = append(row.Senders, at)
			} else {
				row.Receivers = append(row.Receivers, at)
			}
		}
		return out
	})
}

// flows lists what is sent, received and kept at a place.
func (s *Server) flows(_ context.Context, o *judged, place string) (*Flows, error) {
	all := allFlows(o)
	if place == "." {
		return all, nil
	}
	out := &Flows{Requests: []RequestRow{}, Messages: []MessageRow{}, Entities: []model.Entity{}}
	for _, r := range all.Requests {
		if model.Within(place, r.Path) || r.RoutePath != "" && model.Within(place, r.RoutePath) {
			out.Requests = append(out.Requests, r)
		}
	}
	touches := func(es []model.Evidence) bool {
		for _, e := range es {
			if model.Within(place, e.Path) {
				return true
			}
		}
		return false
	}
	for _, m := range all.Messages {
		if touches(m.Senders) || touches(m.Receivers) {
			out.Messages = append(out.Messages, m)
		}
	}
	for _, e := range all.Entities {
		here := model.Within(place, e.Path)
		for _, places := range e.Operations {
			here = here || touches(places)
		}
		if here {
			out.Entities = append(out.Entities, e)
		}
	}
	return out, nil
}
