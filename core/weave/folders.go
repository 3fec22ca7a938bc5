package weave

import (
	"path"
	"regexp"
	"slices"
	"sort"
	"strings"

	"jantel/core/frameworks"
	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
)

// Folders sums the files up into their folders, the root first, and finds the
// purpose of each.
func Folders(
	s *model.Survey, roles map[string]model.RoleOf, judged map[string]bool, frameworks *frameworks.In,
) []*model.Folder {
	byPath := map[string]*summed{}
	var get func(p string) *summed
	get = func(p string) *summed {
		if f := byPath[p]; f != nil {
			return f
		}
		f := &summed{Folder: &model.Folder{Path: p, Name: path.Base(p), Roles: map[model.Role]int{}, RoleLines: map[model.Role]int{}}}
		if p == "." {
			f.Name = s.Codebase
		} else {
			f.above = get(model.FolderOf(p))
			f.Parent, f.Depth = f.above.Path, f.above.Depth+1
		}
		byPath[p] = f
		return f
	}
	get(".")
	for _, f := range s.Files {
		d, role, judged := get(model.FolderOf(f.Path)), roles[f.Path].Role, judged[f.Path]
		d.files = append(d.files, f)
		d.OwnFiles++
		for at := d; at != nil; at = at.above {
			at.Files++
			at.Lines += f.Lines()
			if f.Facts != nil {
				at.CodeLines += f.Facts.Code
			}
			if judged {
				at.JudgedLines += f.Lines()
				at.Roles[role]++
				at.RoleLines[role] += f.Lines()
			}
		}
	}
	crossings(s.Links, byPath)
	out := make([]*model.Folder, 0, len(byPath))
	for _, f := range byPath {
		out = append(out, f.Folder)
	}
	sort.Slice(out, func(i, j int) bool { return lessPath(out[i].Path, out[j].Path) })
	for _, f := range out {
		if f.Purpose = purpose(f, byPath[f.Path].files, s.Codebase); f.Purpose.Text == "" && f.Path != "." {
			// Nobody says it; where a framework prescribes the folder, it does.
			if text, by := frameworks.Means(f.Path); by != nil {
				f.Purpose = model.Purpose{Text: text + ", as " + by.Name + " has it", Source: "inferred"}
			}
		}
	}
	throughChain(out)
	return out
}

// summed is a folder on the way to its sums.
type summed struct {
	*model.Folder
	above *summed       // nil for the root
	files []*model.File // directly in it
}

// throughChain gives a codebase that is laid out as it is installed, or under the
// name of its package, the purpose of the folder that holds all its own code, where
// nobody says one for the whole.
func throughChain(folders []*model.Folder) {
	root := folders[0]
	for d := root; root.Purpose.Text == ""; {
		next := (*model.Folder)(nil)
		for _, f := range folders {
			if f.Parent == d.Path && f != root && 20*f.JudgedLines >= 19*root.JudgedLines {
				next = f
			}
		}
		if d = next; d == nil || d.JudgedLines == 0 {
			return
		}
		if d.Purpose.Source == "author" {
			root.Purpose = d.Purpose
		}
	}
}

// lessPath sorts a folder before what it holds, whatever signs names hold.
func lessPath(a, b string) bool {
	if a == "." || b == "." {
		return a == "." && b != "."
	}
	for i := range min(len(a), len(b)) {
		if a[i] != b[i] {
			return a[i] == '/' || b[i] != '/' && a[i] < b[i]
		}
	}
	return len(a) < len(b)
}

// crossings counts for each folder the links that enter and leave it.
func crossings(links []model.Link, byPath map[string]*summed) {
	for i := range links {
		if links[i].Kind.Repeats() {
			continue
		}
		from, to := byPath[model.FolderOf(links[i].From)], byPath[model.FolderOf(links[i].To)]
		for d := from; d.above != nil && !model.Within(d.Path, links[i].To); d = d.above {
			d.Out++
		}
		for d := to; d.above != nil && !model.Within(d.Path, links[i].From); d = d.above {
			d.In++
		}
	}
}

// purpose takes the authors' own words for a folder, where they say what it is:
// its project file first, then its README, then the file that speaks for it. How
// many files of which role it holds is told elsewhere, and is no purpose.
func purpose(d *model.Folder, files []*model.File, codebase string) model.Purpose {
	for _, speaks := range spokesmen {
		for _, f := range files {
			if f.Facts == nil || f.Facts.Doc == "" || f.Skipped != "" || !speaks.about(d, f) {
				continue
			}
			// Only now, as telling statements is slow.
			text, firm := syntax.Statement(f.Facts.Doc)
			if p := f.Facts.Project; text == "" && p != nil && p.Description != "" && syntax.Describes(f.Facts.Doc) {
				text = f.Facts.Doc // it stands where a description is asked for
			}
			if text == "" || echoes(text, d, codebase) || speaks.fully && !firm && len(strings.Fields(text)) <= 4 {
				continue
			}
			return model.Purpose{Text: text, Source: "author", Path: f.Path, Line: f.Facts.DocLine}
		}
	}
	return model.Purpose{}
}

// spokesman is a sort of file whose opening words are about its folder.
type spokesman struct {
	about func(d *model.Folder, f *model.File) bool
	fully bool // it is heard where it says what the thing is in so many words, or in more than four
}

func isProject(_ *model.Folder, f *model.File) bool { return f.Facts.Project != nil }

// spokesmen are heard in this order.
var spokesmen = []spokesman{
	{isProject, true},
	// Where there are two, the one that is laid out is for those who come first.
	{func(_ *model.Folder, f *model.File) bool {
		return readme.MatchString(path.Base(f.Path)) && path.Ext(f.Path) != ""
	}, false},
	{func(_ *model.Folder, f *model.File) bool { return readme.MatchString(path.Base(f.Path)) }, false},
	{isProject, false},
	{func(_ *model.Folder, f *model.File) bool {
		return slices.Contains(syntax.ProfileOf(f.Language).FolderFiles, path.Base(f.Path))
	}, false},
	{func(d *model.Folder, f *model.File) bool {
		return syntax.ProfileOf(f.Language).FolderPackages && naming.Stem(path.Base(f.Path)) == path.Base(d.Path)
	}, false},
	{func(_ *model.Folder, f *model.File) bool {
		return syntax.ProfileOf(f.Language).FolderPackages && !strings.HasSuffix(f.Path, "_test.go")
	}, false},
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
