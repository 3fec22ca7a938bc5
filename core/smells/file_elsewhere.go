package smells

import (
	"fmt"
	"path"

	"jantel/core/model"
	"jantel/core/reading"
	"jantel/core/syntax"
)

var fileElsewhereRule = &Rule{
	Slug: "file-elsewhere", Facet: model.Layout, Title: "File that belongs elsewhere", Weight: 0.8,
	Family: familyPlace, find: fileElsewhere,
	Question:   "Does a file work with another folder alone?",
	Why:        "Readers look for a thing where it is used; a file that lies apart is found late and kept up last.",
	Example:    "`helpers/boxLabel.ts` imports six files of `labels/` and none beside it.",
	Remedy:     "Move it where its dependencies lead.",
	Parameters: []Parameter{{"dependencies", "dependencies on the other folder", 8, 6, 5}},
}

// mostUsers is from how many folders one is needed before it is shared by all.
const mostUsers = 4

// ties are the dependencies of files, in either direction: those within their folder, and
// those with each other one.
type ties struct {
	own   map[string]int
	other map[string]map[string]int
	needs map[[2]string]int          // by file and folder, the links that lead there
	users map[string]map[string]bool // of a folder, those whose files need it
}

func (c *Context) ties() *ties {
	t := &ties{map[string]int{}, map[string]map[string]int{}, map[[2]string]int{}, map[string]map[string]bool{}}
	last, aside := "", false // of the file that the last dependency came from: they are sorted
	for i := range c.Edges() {
		l := &c.Edges()[i]
		if l.FromRole == model.RoleTest || l.ToRole == model.RoleTest || l.Kind == model.LinkHTTP || l.Kind == model.LinkMessage {
			continue
		}
		if l.From != last {
			last, aside = l.From, setAside(l.From)
		}
		if aside || syntax.IsHeader(l.To) {
			continue
		}
		a, b := model.FolderOf(l.From), model.FolderOf(l.To)
		if a == b {
			t.own[l.From]++
			t.own[l.To]++
			continue
		}
		t.needs[[2]string{l.From, b}]++
		if t.users[b] == nil {
			t.users[b] = map[string]bool{}
		}
		t.users[b][a] = true
		t.tie(l.From, b)
		t.tie(l.To, a)
	}
	return t
}

func (t *ties) tie(file, folder string) {
	if t.other[file] == nil {
		t.other[file] = map[string]int{}
	}
	t.other[file][folder]++
}

// together reports whether the files of a folder other than one belong together: most need
// each other. In a folder of files that each stand alone none is out of place.
func (t *ties) together(files []*model.File, but *model.File) bool {
	all, tied := 0, 0
	for _, f := range files {
		if f == but || !reading.IsCode(f) {
			continue
		}
		all++
		if t.own[f.Path] > 0 {
			tied++
		}
	}
	return tied >= 2 && 2*tied >= all
}

// fileElsewhere reports files whose dependencies nearly all lead to one other
// folder, and none to their own.
func fileElsewhere(c *Context, r *Rule) (out []hit) {
	least := int(c.Value(r, "dependencies"))
	t := c.ties()
	for _, f := range c.Survey.Files {
		total, best, most := t.own[f.Path], "", 0
		for d, n := range t.other[f.Path] {
			total += n
			if n > most || n == most && d < best {
				best, most = d, n
			}
		}
		role := c.Roles[f.Path].Role
		if t.own[f.Path] > 0 || most < least || 4*most < 3*total || role == model.RoleEntry || role == model.RoleRouting ||
			model.Within(model.FolderOf(f.Path), best) {
			continue
		}
		// What many folders need is made for all of them, and who needs it belongs there no more
		// than the others.
		if len(t.users[best]) > mostUsers && 2*t.needs[[2]string{f.Path, best}] > most {
			continue
		}
		// It works with that folder only where each needs the other: what is needed alone is
		// made for others, what needs alone stands above.
		if n := t.needs[[2]string{f.Path, best}]; n < 2 || most-n < 1 {
			continue
		}
		// Where its folder is one of its kind, its kind is why it lies there.
		same := 0
		for _, g := range c.SourceIn(model.FolderOf(f.Path)) {
			if c.Roles[g.Path].Role == role {
				same++
			}
		}
		if same > 2 && role != "" || !reading.IsCode(f) || !t.together(c.SourceIn(model.FolderOf(f.Path)), f) {
			continue
		}
		out = append(out, hit{path: f.Path, strength: 0.25 +
			0.03*float64(most-least), touches: []string{f.Path}, evidence: []model.Evidence{
			{Path: best, Note: fmt.Sprintf("%d of its %d dependencies", most, total)},
		},
			message: fmt.Sprintf("%d of %d dependencies of *%s* lead to %s, none to its own folder", most, total, path.Base(f.Path), best),
			remedy:  fmt.Sprintf("Move it to %s, or find what keeps it where it is.", best)})
	}
	return out
}
