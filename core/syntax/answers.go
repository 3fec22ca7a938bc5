package syntax

import (
	"strings"

	"jantel/core/model"
)

// answering are calls by which what answers a request hands its answer over,
// with the kind of it. Frameworks of many languages call these alike; they count
// only where a route leads to the lines that they stand on.
var answering = map[string]string{
	"json": model.AnswerData, "jsonify": model.AnswerData, "Json": model.AnswerData, "JSON": model.AnswerData,
	"JsonResponse": model.AnswerData, "JSONResponse": model.AnswerData, "NewEncoder": model.AnswerData, "jsonResponse": model.AnswerData,
	"WriteJSON": model.AnswerData, "writeJSON": model.AnswerData, "IndentedJSON": model.AnswerData, "json_encode": model.AnswerData,
	"Ok": model.AnswerData, "CreatedAtAction": model.AnswerData, "jsonp": model.AnswerData, "NoContent": model.AnswerData,
	"render": model.AnswerPage, "render_template": model.AnswerPage, "View": model.AnswerPage, "view": model.AnswerPage,
	"TemplateResponse": model.AnswerPage, "ExecuteTemplate": model.AnswerPage, "renderToString": model.AnswerPage,
	"PartialView": model.AnswerPage, "HTML": model.AnswerPage, "HTMLResponse": model.AnswerPage, "render_to_response": model.AnswerPage,
	"redirect": model.AnswerRedirect, "redirect_to": model.AnswerRedirect, "Redirect": model.AnswerRedirect,
	"RedirectToAction": model.AnswerRedirect, "RedirectResponse": model.AnswerRedirect, "redirectTo": model.AnswerRedirect,
	"HttpResponseRedirect": model.AnswerRedirect, "RedirectToPage": model.AnswerRedirect, "RedirectToRoute": model.AnswerRedirect,
	"sendFile": model.AnswerFile, "send_file": model.AnswerFile, "download": model.AnswerFile, "FileResponse": model.AnswerFile,
	"ServeFile": model.AnswerFile, "PhysicalFile": model.AnswerFile, "send_from_directory": model.AnswerFile, "send_data": model.AnswerFile,
	"ServeContent": model.AnswerFile, "attachment": model.AnswerFile,
}

// maxAnswers bounds what is kept of one file.
const maxAnswers = 2000

// answers notes where answers are handed over, in files with routes and in those
// that may answer for others, and the names that routes are given.
func answers(f *model.Facts, s *Stream) {
	s.tells(asksAnswers, func(i int) {
		kind := answering[string(s.Bytes(i))]
		if kind == "" || i+1 >= len(s.Tokens) || len(f.Answers) >= maxAnswers {
			return
		}
		switch {
		case s.Is(i+1, "("):
		case s.Ends && (s.Any(i+1, ":", "json:") || s.Kind(i+1) == Ident || s.Kind(i+1) == String):
			// render json: lot, redirect_to lots_path
		default:
			return
		}
		if kind == model.AnswerPage && (s.Any(i+1, "json:") || s.Any(i+2, "json:") || s.Match(i+1, "json", ":")) {
			kind = model.AnswerData
		}
		f.Answers = append(f.Answers, model.Mention{Name: kind, Line: s.Line(i)})
	})
	next := f.NextRoute()
	for i := range f.Routes {
		r := &f.Routes[i]
		r.Name = s.nameOfRoute(r.Line, next(r.Line))
	}
}

// nameOfRoute is the name that the statement of a route gives it: name="lots",
// .name('lots'), ->name('lots'), as: :lots, Name = "Lots"; "" for none.
func (s *Stream) nameOfRoute(line, until int) string {
	from := lineToken(s, line)
	for k := from; k < len(s.Tokens) && k < from+60 && s.Line(k) < until; k++ {
		if s.Kind(k) == Punct && s.Is(k, ";") || s.Kind(k) == Newline && s.Line(k) > line+6 {
			break
		}
		if s.Kind(k) != Ident {
			continue
		}
		word := strings.TrimSuffix(s.Text(k), ":")
		if word != "name" && word != "Name" && word != "as" && word != "route_name" {
			continue
		}
		v := k + 1
		for v < k+4 && s.Any(v, "=", "(", ":", ">", "=>") {
			v++
		}
		if v == k+1 && !strings.HasSuffix(s.Text(k), ":") {
			continue
		}
		if s.Kind(v) == String && s.EndLine(v) == s.Line(v) {
			return strings.Trim(s.Unquote(v), "\"'")
		}
		if s.Ends && s.Kind(v) == Ident && (s.Is(v-1, ":") || strings.HasPrefix(s.Text(v), ":")) {
			return strings.TrimPrefix(s.Text(v), ":")
		}
	}
	return ""
}
