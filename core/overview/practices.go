package overview

import (
	"path"
	"regexp"
	"slices"
	"strings"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/reading"
	"jantel/core/routes"
	"jantel/core/syntax"
)

// Absence is said only where it means something: of a logger where the packages
// of the languages in use are known, of a health check where something serves.

// most bounds the places that are named for a practice.
const most = 6

// logging finds where a log is kept: by a package of the language, or by the
// codebase's own logger. known tells whether not to find one says anything.
func logging(s *model.Survey, j *judgement.Result, place string) (found []model.Evidence, known bool) {
	loggers := map[string][]string{} // by language
	code, unknown := 0, 0
	for f := range j.Reading.Source(place) {
		code += f.Facts.Code
		if l := syntax.Named(f.Language); l != nil && l.Loggers != nil {
			loggers[f.Language] = l.Loggers
		} else {
			unknown += f.Facts.Code
		}
		if own := ownLogger(f); own > 0 && len(found) < most {
			found = append(found, model.Evidence{Path: f.Path, Line: own, Note: "a logger of its own"})
		}
	}
	for _, e := range s.External {
		f := s.File(e.From)
		if f == nil || len(found) >= most || !model.Within(place, e.From) || !j.InScope[e.From] {
			continue
		}
		if slices.ContainsFunc(loggers[f.Language], func(l string) bool { return isPackage(e.Package, l) }) {
			found = append(found, model.Evidence{Path: e.From, Line: e.Line, Note: e.Package})
		}
	}
	return found, code > 0 && 10*unknown < code
}

// isPackage reports whether a package is one of a list: by its whole name, by
// the start of it up to a sign, or by a part between signs.
func isPackage(name, want string) bool {
	i := strings.Index(name, want)
	if i < 0 {
		return false
	}
	letter := func(c byte) bool { return c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' }
	after := i + len(want)
	return (i == 0 || !letter(name[i-1])) && (after == len(name) || !letter(name[after]) || !letter(want[len(want)-1]))
}

// ownLogger is the line on which a file defines a logger, 0 when it does not.
func ownLogger(f *model.File) int {
	for _, d := range f.Facts.Definitions {
		if d.Kind != model.DefClass && d.Kind != model.DefInterface && d.Kind != model.DefType {
			continue
		}
		if w := naming.Words(naming.Own(d.Name)); len(w) > 0 && slices.Contains([]string{"log", "logger", "logging"}, w[len(w)-1]) &&
			d.Parent == "" {
			return d.Line
		}
	}
	switch strings.ToLower(naming.Stem(path.Base(f.Path))) {
	case "log", "logger", "logging":
		return 1
	}
	return 0
}

// served are the routes of a place, those told by where a file lies among them.
func served(s *model.Survey, j *judgement.Result, place string) []model.Route {
	var out []model.Route
	for _, r := range routes.Of(s) {
		if model.Within(place, r.Path) && j.InScope[r.Path] && j.Roles[r.Path].Role != model.RoleTest && !beside.MatchString(r.Path) {
			out = append(out, r)
		}
	}
	return out
}

// beside are folders of what stands beside the code, to be read or tried.
var beside = regexp.MustCompile(`(?i)(?:^|/)(?:examples?|docs?|samples?|fixtures?|testdata|t|tests?|spec)/`)

var healthWords = regexp.MustCompile(
	`(?i)health|(?:^|[/_-])(?:ready|readyz|live|livez|liveness|readiness|ping|up|heartbeat|alive)(?:$|[/_.-])`,
)

// healthChecks finds what says whether a system is well: a route, a
// registration, a probe of what it runs in.
func healthChecks(r *reading.Reading, served []model.Route, place string) (out []model.Evidence) {
	put := func(p string, line int, note string) {
		if len(out) < most {
			out = append(out, model.Evidence{Path: p, Line: line, Note: note})
		}
	}
	for _, a := range served {
		if healthWords.MatchString(a.Pattern) {
			put(a.Path, a.Line, a.Pattern)
		}
	}
	for _, e := range r.External {
		if p := strings.ToLower(e.Package); model.Within(place, e.From) &&
			(strings.Contains(p, "health") || strings.Contains(p, "actuator") || strings.Contains(p, "terminus")) {
			put(e.From, e.Line, e.Package)
		}
	}
	for _, f := range r.At(place) {
		if f.Facts == nil || f.Skipped != "" {
			continue
		}
		for _, r := range f.Facts.Runs {
			if r.Kind == model.RunHealth {
				put(f.Path, r.Line, r.Name)
			}
		}
		for _, d := range f.Facts.Definitions {
			if w := naming.Words(naming.Own(d.Name)); len(w) > 0 && w[0] == "health" && reading.IsCode(f) {
				put(f.Path, d.Line, naming.Own(d.Name))
			}
		}
	}
	return out
}
