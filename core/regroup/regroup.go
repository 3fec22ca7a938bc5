// Package regroup tells what becomes of a codebase whose files and folders get other
// homes: it is looked at as if they lay there, and nothing is moved.
package regroup

import (
	"path"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
)

// Move is a file or a folder and the home that it would get.
type Move struct {
	From  string `json:"from"`
	To    string `json:"to"`
	Files int    `json:"files" doc:"how many go with it; 0 where it can not be moved"`
	Lines int    `json:"lines"`
	Not   string `json:"not" doc:"why it can not be moved; empty where it can"`
}

// mostMoves is how many lines of a text are read as moves.
const mostMoves = 500

// Read finds the moves in a text: the lines that would make them, "git mv FROM TO".
func Read(text string) (out []Move) {
	for line := range strings.Lines(text) {
		words := strings.Fields(line)
		if len(words) != 4 || words[0] != "git" || words[1] != "mv" || len(out) == mostMoves {
			continue
		}
		out = append(out, Move{From: path.Clean(words[2]), To: path.Clean(words[3])})
	}
	return out
}

// Of is the survey with the moves made, one after the other, and the moves with what
// goes with each. A move that can not be made says why and changes nothing. Facts of
// files are shared with the survey, which stays as it is.
func Of(s *model.Survey, moves []Move) (*model.Survey, []Move) {
	home := make(map[string]string, len(s.Files)) // by the path of today
	taken := make(map[string]bool, len(s.Files))
	for _, f := range s.Files {
		home[f.Path], taken[f.Path] = f.Path, true
	}
	out := slices.Clone(moves)
	for i := range out {
		move(s, &out[i], home, taken)
	}
	return moved(s, home), out
}

// move makes one move, if it can be made.
func move(s *model.Survey, m *Move, home map[string]string, taken map[string]bool) {
	if strings.HasPrefix(m.To, "..") || path.IsAbs(m.To) || path.IsAbs(m.From) || m.From == "." {
		m.Not = "it would leave the codebase"
		return
	}
	type step struct {
		file *model.File
		to   string
	}
	var steps []step
	for _, f := range s.Files {
		at := home[f.Path]
		if rest, ok := strings.CutPrefix(at, m.From+"/"); ok {
			steps = append(steps, step{f, m.To + "/" + rest})
		} else if at == m.From {
			steps = append(steps, step{f, m.To})
		}
	}
	if len(steps) == 0 {
		m.Not = "there is no such file or folder"
		return
	}
	if slices.ContainsFunc(steps, func(x step) bool { return taken[x.to] }) {
		m.Not = "a file lies there already"
		return
	}
	for _, x := range steps {
		delete(taken, home[x.file.Path])
	}
	for _, x := range steps {
		home[x.file.Path], taken[x.to] = x.to, true
		m.Files++
		m.Lines += x.file.Lines()
	}
}

// moved is the survey with each file at its home.
func moved(s *model.Survey, home map[string]string) *model.Survey {
	out := *s
	at := func(p string) string {
		if to, ok := home[p]; ok {
			return to
		}
		return p
	}
	out.Files = make([]*model.File, len(s.Files))
	for i, f := range s.Files {
		g := *f
		g.Path = at(f.Path)
		out.Files[i] = &g
	}
	sort.Slice(out.Files, func(i, j int) bool { return out.Files[i].Path < out.Files[j].Path })
	out.Links = slices.Clone(s.Links)
	for i := range out.Links {
		l := &out.Links[i]
		l.From, l.To = at(l.From), at(l.To)
	}
	sort.SliceStable(out.Links, func(i, j int) bool {
		a, b := &out.Links[i], &out.Links[j]
		if a.From != b.From {
			return a.From < b.From
		}
		return a.Line < b.Line
	})
	out.External = slices.Clone(s.External)
	for i := range out.External {
		out.External[i].From = at(out.External[i].From)
	}
	out.Unresolved = slices.Clone(s.Unresolved)
	for i := range out.Unresolved {
		out.Unresolved[i].From = at(out.Unresolved[i].From)
	}
	out.Twins, out.History = nil, nil // they speak of today's paths
	out.BuildIndex()
	return &out
}

// Across counts the dependencies that leave their folder, each pair of files once.
func Across(s *model.Survey) (n int) {
	seen := map[[2]string]bool{}
	for i := range s.Links {
		l := &s.Links[i]
		k := [2]string{l.From, l.To}
		if l.Kind.Repeats() || seen[k] || model.FolderOf(l.From) == model.FolderOf(l.To) {
			continue
		}
		seen[k] = true
		n++
	}
	return n
}
