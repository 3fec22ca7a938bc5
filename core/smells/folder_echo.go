package smells

import (
	"fmt"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
)

var folderEchoRule = &Rule{
	Slug: "folder-echo", Facet: model.Names, Title: "Echo of the folder", Weight: 0.5, Family: familyName, find: folderEcho,
	Question:   "Do files repeat the name of their folder?",
	Why:        "The part that tells them apart comes last and is cut off in lists.",
	Example:    "`labels/labelSize.ts`, `labels/labelSheet.ts`, `labels/labelPreview.ts` …",
	Remedy:     "Leave the folder's name out of theirs.",
	Parameters: []Parameter{{"files", "files that do", 8, 5, 4}},
}

// standsForNamespace reports whether most of what files define begins with a word, which they
// have from there: where a name may stand but once there is no other way to keep them apart.
func standsForNamespace(files []*model.File, word string) bool {
	all, with := 0, 0
	for _, f := range files {
		if !syntax.ProfileOf(f.Language).OneOfAName || f.Facts == nil {
			continue
		}
		for i := range f.Facts.Definitions {
			if d := &f.Facts.Definitions[i]; d.Exported && d.Parent == "" {
				all++
				if w := naming.Words(d.Name); len(w) > 1 && naming.Singular(w[0]) == word {
					with++
				}
			}
		}
	}
	return all > 0 && 2*with > all
}

// takenBare reports whether files of a folder are taken in from outside by their names
// alone, as headers may be: there those names have to say whose they are.
func (c *Context) takenBare(folder string, files []*model.File) bool {
	if len(files) == 0 || !syntax.ProfileOf(files[0].Language).OneOfAName {
		return false
	}
	bare, whole := 0, 0
	for i := range c.Survey.Links {
		l := &c.Survey.Links[i]
		if l.Kind != model.LinkImport || model.FolderOf(l.To) != folder || model.FolderOf(l.From) == folder {
			continue
		}
		if strings.Contains(l.Text, path.Base(folder)+"/") {
			whole++
		} else {
			bare++
		}
	}
	return bare >= whole // nobody outside takes any of them in: the echo is seen by nobody
}

// forMachine are last words of names that say which machine or system a file is built
// for: the words before are those of the file it stands for there.
var forMachine = syntax.Set("linux", "darwin", "windows", "freebsd", "netbsd", "openbsd", "bsd", "android", "apple", "ios", "unix", "posix",
	"win", "mac", "macos", "amd64", "arm64", "arm", "x86", "wasm", "js", "other", "others", "generic", "stub", "unsupported")

// definesItsName reports whether a type or component of the file's own name stands in it:
// there the name has to be whole.
func definesItsName(f *model.File) bool {
	stem := strings.Join(naming.Words(naming.Stem(f.Path)), "")
	return slices.ContainsFunc(f.Facts.Definitions, func(d model.Definition) bool {
		switch d.Kind {
		case model.DefClass, model.DefComponent, model.DefInterface, model.DefType, model.DefEnum:
			return strings.EqualFold(strings.ReplaceAll(d.Name, "_", ""), stem)
		}
		return false
	})
}

// echoing are the files that begin with a word, unless their language has them named for
// what they define.
func echoing(files []*model.File, word string) (out []string) {
	for _, f := range files {
		w := naming.Words(naming.Stem(f.Path))
		whole := syntax.ProfileOf(f.Language).NamedForType || len(w) > 1 && forMachine[w[len(w)-1]] || definesItsName(f)
		if len(w) > 1 && naming.Singular(w[0]) == word && !whole {
			out = append(out, f.Path)
		}
	}
	return out
}

// folderEcho reports files that repeat the whole name of their folder where
// their siblings do not have to.
func folderEcho(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "files"))
	for _, d := range c.Folders {
		if d.Path == "." || testPlace(d.Path) {
			continue
		}
		folder := naming.Words(d.Name)
		if len(folder) == 0 {
			continue
		}
		last := naming.Singular(folder[len(folder)-1])
		files := c.SourceIn(d.Path)
		echo := echoing(files, last)
		if len(echo) < limit || len(echo)*2 < len(files) || standsForNamespace(files, last) || c.takenBare(d.Path, files) {
			continue
		}
		out = append(out, hit{
			path: d.Path, strength: 0.2 + 0.02*float64(len(echo)-limit), touches: echo,
			evidence: evidence(echo, "repeats it"),
			message:  fmt.Sprintf("%s files in *%s* begin with its name again", capital(number(len(echo))), d.Name),
		})
	}
	return out
}
