package overview

import (
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/routes"
)

// leadsOn is the view to go on in from the sheet: what a server does is learned
// by following one request, what draws by opening its parts. The larger share
// of the place's own code decides where there are both.
func leadsOn(s *model.Survey, j *judgement.Result, place string) string {
	answers := map[string]bool{}
	for _, r := range routes.Of(s) {
		if r.HandlerPath != "" && model.Within(place, r.Path) && j.Roles[r.HandlerPath].Role != model.RoleView {
			answers[r.HandlerPath] = true
		}
	}
	drawn, served := 0, 0
	for f := range j.Reading.Source(place) {
		switch {
		case answers[f.Path]:
			served++
		case j.Roles[f.Path].Role == model.RoleView:
			drawn++
		}
	}
	switch {
	case served > 0 && 4*served >= drawn:
		return "journeys"
	case drawn > 0:
		return "parts"
	}
	return ""
}
