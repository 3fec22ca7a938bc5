package weave

import (
	"path"
	"regexp"
	"slices"
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
		f.Purpose = purpose(f, own[f.Path], s.Codebase)
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

// purpose takes the authors' own words for a folder, where they say what it is:
// its project file first, then its README, then the file that speaks for it. How
// many files of which role it holds is told elsewhere, and is no purpose.
func purpose(d *model.Folder, files []*model.File, codebase string) model.Purpose {
	best, rank := model.Purpose{}, len(spokesmen)
	for _, f := range files {
		if f.Facts == nil || f.Facts.Doc == "" || f.Skipped != "" {
			continue
		}
		text, firm := syntax.Statement(f.Facts.Doc)
		if text == "" || echoes(text, d, codebase) {
			continue
		}
		r := slices.IndexFunc(spokesmen, func(speaks spokesman) bool { return speaks(d, f, firm) })
		if r >= 0 && r < rank {
			best, rank = model.Purpose{Text: text, Source: "author", Path: f.Path, Line: f.Facts.DocLine}, r
		}
	}
	return best
}

// spokesman reports whether what a file says of itself is about its folder; firm
// tells that it says what it is in so many words.
type spokesman func(d *model.Folder, f *model.File, firm bool) bool

// spokesmen are heard in this order.
var spokesmen = []spokesman{
	func(_ *model.Folder, f *model.File, firm bool) bool {
		return f.Facts.Project != nil && (firm || len(strings.Fields(f.Facts.Doc)) > 4)
	},
	func(_ *model.Folder, f *model.File, _ bool) bool { return readme.MatchString(path.Base(f.Path)) },
	func(_ *model.Folder, f *model.File, _ bool) bool { return f.Facts.Project != nil },
	func(_ *model.Folder, f *model.File, _ bool) bool {
		return slices.Contains(syntax.ProfileOf(f.Language).FolderFiles, path.Base(f.Path))
	},
	func(d *model.Folder, f *model.File, _ bool) bool {
		return syntax.ProfileOf(f.Language).FolderPackages && naming.Stem(path.Base(f.Path)) == path.Base(d.Path)
	},
	func(_ *model.Folder, f *model.File, _ bool) bool {
		return syntax.ProfileOf(f.Language).FolderPackages && !strings.HasSuffix(f.Path, "_test.go")
	},
}

// readme is a README for everybody; others are for one platform or language.
var readme = regexp.MustCompile(`(?i)^readme(\.en)?(\.(md|markdown|mdown|mkd|txt|rst|adoc|rdoc|textile))?$`)

// fillers say nothing of a package that its name does not.
var fillers = syntax.Set("the", "a", "an", "this", "is", "package", "module", "library", "plugin", "component", "for", "of", "folder")

// echoes reports whether a text only repeats the names of a folder and of those
// around it.
func echoes(text string, d *model.Folder, codebase string) bool {
	known := naming.Words(d.Path + " " + codebase)
	return !slices.ContainsFunc(naming.Words(text), func(w string) bool { return !fillers[w] && !slices.Contains(known, w) })
}
