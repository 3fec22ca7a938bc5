package routes

import "jantel/core/model"

// inPlace is how many lines what answers in place may take, when no other route
// stands before that.
const inPlace = 60

// answer is the kind of answer that a route gives: the last that is handed over
// on the lines of what answers, since errors are turned away before. "" where
// none was seen there.
func (j *joiner) answer(f *model.File, r *model.RouteFact, next func(int) int, at string, line int) string {
	from, to := line, 0
	if at == "" || line == 0 {
		if !r.InPlace {
			return ""
		}
		at, from, to = f.Path, r.Line, min(r.Line+inPlace, next(r.Line)-1)
	}
	g := j.s.File(at)
	if g == nil || g.Facts == nil {
		return ""
	}
	if to == 0 {
		for _, d := range g.Facts.Definitions {
			if d.Line == line {
				to = max(to, d.EndLine)
				if d.Kind == model.DefComponent {
					return model.AnswerPage
				}
			}
		}
	}
	kind := ""
	for _, m := range g.Facts.Answers {
		if from <= m.Line && m.Line <= to {
			kind = m.Name
		}
	}
	return kind
}
