package server

import (
	"context"
	"path"

	"jantel/core/model"
)

// Sibling is another place beside one step of the path.
type Sibling struct {
	Path string `json:"path"`
	Name string `json:"name"`
	File bool   `json:"file"`
}

// PlaceHit is a place that a search found.
type PlaceHit struct {
	Path       string `json:"path"`
	Kind       string `json:"kind" doc:"folder, file or the kind of a definition"`
	Name       string `json:"name"`
	Definition string `json:"definition"`
	Line       int    `json:"line"`
	score      int
}

// siblings lists what lies beside a place, itself among it.
func (s *Server) siblings(_ context.Context, o *judged, place string) ([]Sibling, error) {
	out := []Sibling{}
	if place == "." {
		return out, nil
	}
	up := model.FolderOf(place)
	for _, d := range o.Folders {
		if d.Parent == up && d.Path != "." {
			out = append(out, Sibling{d.Path, d.Name, false})
		}
	}
	for _, f := range o.facts.Files {
		if model.FolderOf(f.Path) == up {
			out = append(out, Sibling{f.Path, path.Base(f.Path), true})
		}
	}
	return out, nil
}
