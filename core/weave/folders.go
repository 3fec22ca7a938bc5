package weave

import (
	"path"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
)

// Folders sums the files up into their folders, the root first, and finds the
// purpose of each.
func Folders(s *model.Survey, roles map[string]model.RoleOf, judged map[string]bool) []*model.Folder {
	byPath := map[string]*model.Folder{}
	var get func(p string) *model.Folder
	get = func(p string) *model.Folder {
		if f := byPath[p]; f != nil {
			return f
		}
		f := &model.Folder{Path: p, Name: path.Base(p), Roles: map[model.Role]int{}, RoleLines: map[model.Role]int{}}
		if p == "." {
			f.Name = s.Codebase
		} else {
			up := get(model.FolderOf(p))
			f.Parent, f.Depth = up.Path, up.Depth+1
		}
		byPath[p] = f
		return f
	}
	get(".")
	own := map[string][]*model.File{}
	for _, f := range s.Files {
		d := model.FolderOf(f.Path)
		own[d] = append(own[d], f)
		get(d).OwnFiles++
		role := roles[f.Path].Role
		for at := get(d); ; at = byPath[at.Parent] {
			at.Files++
			at.Lines += f.Lines()
			if f.Facts != nil {
				at.CodeLines += f.Facts.Code
			}
			if judged[f.Path] {
				at.JudgedLines += f.Lines()
				at.Roles[role]++
				at.RoleLines[role] += f.Lines()
			}
			if at.Path == "." {
				break
			}
		}
	}
	crossings(s.Links, byPath)
	out := make([]*model.Folder, 0, len(byPath))
	for _, f := range byPath {
		out = append(out, f)
	}
	sort.Slice(out, func(i, j int) bool { return lessPath(out[i].Path, out[j].Path) })
	for _, f := range out {
		f.Purpose = purpose(f, own[f.Path])
	}
	return out
}

// lessPath sorts a folder before what it holds, whatever signs names hold.
func lessPath(a, b string) bool {
	if a == "." || b == "." {
		return a == "." && b != "."
	}
	return strings.ReplaceAll(a, "/", "\x00") < strings.ReplaceAll(b, "/", "\x00")
}

// crossings counts for each folder the links that enter and leave it.
func crossings(links []model.Link, byPath map[string]*model.Folder) {
	for i := range links {
		if links[i].Kind.Repeats() {
			continue
		}
		from, to := model.FolderOf(links[i].From), model.FolderOf(links[i].To)
		for d := from; d != "." && !model.Within(d, links[i].To); d = model.FolderOf(d) {
			byPath[d].Out++
		}
		for d := to; d != "." && !model.Within(d, links[i].From); d = model.FolderOf(d) {
			byPath[d].In++
		}
	}
}

// purpose takes the authors' own words for a folder, or infers a plain
// sentence from what it holds.
func purpose(d *model.Folder, files []*model.File) model.Purpose {
	best, rank := model.Purpose{}, 99
	for _, f := range files {
		if f.Facts == nil || f.Facts.Doc == "" || f.Skipped != "" {
			continue
		}
		b := strings.ToLower(path.Base(f.Path))
		r := 99
		switch {
		case strings.HasPrefix(b, "readme"):
			r = 0
		case f.Facts.Project != nil:
			r = 1
		case b == "__init__.py", b == "doc.go", b == "index.ts", b == "index.js", b == "mod.rs":
			r = 2
		case syntax.ProfileOf(f.Language).FolderPackages && naming.Stem(b) == path.Base(d.Path):
			r = 3
		case syntax.ProfileOf(f.Language).FolderPackages && !strings.HasSuffix(b, "_test.go"):
			r = 4
		}
		if r < rank {
			best, rank = model.Purpose{Text: f.Facts.Doc, Source: "author", Path: f.Path, Line: f.Facts.DocLine}, r
		}
	}
	if rank < 99 && !echoes(best.Text, d.Name) {
		return best
	}
	// How many files of which role it holds is told elsewhere, and is no purpose.
	return model.Purpose{}
}

// echoes reports whether a text only repeats a name.
func echoes(text, name string) bool {
	return strings.Join(naming.Words(text), "") == strings.Join(naming.Words(name), "")
}
