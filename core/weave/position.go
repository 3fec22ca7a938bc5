package weave

import (
	"jantel/core/links"
	"jantel/core/model"
)

// Positions of a file in the graph of dependencies, from the top: what is
// always true of a file, whatever may be known of its role.
var Positions = []model.Role{positionTop, positionMiddle, positionBase, positionApart}

const (
	positionTop    model.Role = "top: needs others, needed by none"
	positionMiddle model.Role = "middle: needs others, and is needed"
	positionBase   model.Role = "base: needed, needs none"
	positionApart  model.Role = "apart: tied to nothing here"
)

// positions tells of files where they stand among the dependencies inside the
// codebase, tests left out.
func positions(s *model.Survey, j *model.Judgement, files []*model.File) map[string]model.Role {
	counts := func(p string) bool { return j.InScope[p] && j.Roles[p].Role != model.RoleTest }
	needs, needed := map[string]bool{}, map[string]bool{}
	for i := range s.Links {
		l := &s.Links[i]
		if l.From != l.To && links.Directs(l.Kind) && counts(l.From) && counts(l.To) {
			needs[l.From], needed[l.To] = true, true
		}
	}
	out := make(map[string]model.Role, len(files))
	for _, f := range files {
		switch a, b := needs[f.Path], needed[f.Path]; {
		case a && b:
			out[f.Path] = positionMiddle
		case a:
			out[f.Path] = positionTop
		case b:
			out[f.Path] = positionBase
		default:
			out[f.Path] = positionApart
		}
	}
	return out
}
