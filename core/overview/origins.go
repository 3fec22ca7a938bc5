package overview

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/origin"
)

// originWords say of files who wrote them, in the order they are told.
var originWords = []struct {
	origin model.FileOrigin
	words  string
}{
	{model.OriginVendored, "by others"}, {model.OriginBuilt, "built from other files"}, {model.OriginGenerated, "written by tools"},
	{model.OriginData, "of data"}, {model.OriginScaffold, "as a starter laid them out"},
}

// originSentence says how many files are left out of judgement because of who
// wrote them, and where most of them lie, so that it can be set otherwise.
func originSentence(s *model.Survey, j *judgement.Result, place string, add func([]model.Evidence, string, ...any)) {
	count, all := map[model.FileOrigin]int{}, 0
	type heap struct {
		folder string
		origin model.FileOrigin
	}
	files, why := map[heap]int{}, map[heap]string{}
	for _, f := range s.Files {
		o := j.Origins[f.Path]
		if o.Origin == "" || o.Origin == model.OriginOwn || !model.Within(place, f.Path) {
			continue
		}
		count[o.Origin]++
		all++
		h := heap{below(place, f.Path, 2), o.Origin}
		if files[h]++; why[h] == "" && len(o.Evidence) > 0 {
			why[h] = ": " + o.Evidence[0]
		}
	}
	if all == 0 {
		return
	}
	var parts []string
	for _, w := range originWords {
		if n := count[w.origin]; n > 0 {
			parts = append(parts, naming.Figure(n)+" "+w.words)
		}
	}
	heaps := make([]heap, 0, len(files))
	for h := range files {
		heaps = append(heaps, h)
	}
	slices.SortFunc(heaps, func(a, b heap) int {
		return cmp.Or(cmp.Compare(files[b], files[a]), cmp.Compare(a.folder, b.folder), cmp.Compare(a.origin, b.origin))
	})
	var ev []model.Evidence
	for _, h := range heaps[:min(12, len(heaps))] {
		ev = append(ev, model.Evidence{Path: h.folder, Note: strings.ToLower(countOf(files[h], "file")) + " " + string(h.origin) + why[h]})
	}
	if len(parts) == 1 {
		add(ev, "%s.", fmt.Sprintf("Not judged: %s %s", strings.ToLower(countOf(all, "file")), parts[0][strings.IndexByte(parts[0], ' ')+1:]))
		return
	}
	add(ev, "Not judged: %s, %s.", strings.ToLower(countOf(all, "file")), list(parts))
}

// Suspect is a folder that looks as if others had written it, with what leaving
// it out of the judgement would do.
type Suspect struct {
	Folder string  `json:"folder"`
	Why    string  `json:"why"`
	Files  int     `json:"files" doc:"of code that is judged today"`
	Lines  int     `json:"lines"`
	Share  float64 `json:"share" doc:"of the lines judged"`
	Smells int     `json:"smells" doc:"that lie in it alone"`
}

// mostSuspects bounds what is asked about at once.
const mostSuspects = 12

func suspects(s *model.Survey, j *judgement.Result, place string) []Suspect {
	out := []Suspect{}
	if place != "." {
		return out
	}
	for _, x := range origin.Suspects(s, j.Origins) {
		if len(out) == mostSuspects {
			break
		}
		n := Suspect{Folder: x.Folder, Why: x.Why, Files: x.Files, Lines: x.Lines}
		if j.Judged > 0 {
			n.Share = float64(x.Lines) / float64(j.Judged)
		}
		n.Smells = len(j.SmellsAt(x.Folder))
		out = append(out, n)
	}
	return out
}

// below is the folder of a file, at most so many levels below a place.
func below(place, file string, levels int) string {
	d := model.FolderOf(file)
	for depthBelow(place, d) > levels {
		d = model.FolderOf(d)
	}
	return d
}

func depthBelow(place, folder string) int {
	if folder == place || folder == "." {
		return 0
	}
	if place != "." {
		folder = strings.TrimPrefix(folder, place+"/")
	}
	return 1 + strings.Count(folder, "/")
}
