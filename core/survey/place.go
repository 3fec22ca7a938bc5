package survey

import (
	"path"
	"strings"

	"jantel/core/model"
	"jantel/core/source"
	"jantel/core/syntax"
)

// place is what the place of a text says of who wrote it. Facts depend on the
// bytes and on this alone, and are kept under both.
type place string

const (
	unsaid place = ""        // the text itself may say that a tool wrote it
	theirs place = ":theirs" // a package manager fills the folder
	ours   place = ":ours"   // whatever the text says, it is judged
)

// places tells the place of every file of a source.
type places struct {
	vendored map[string]bool // folders of others' code, by their names
	managed  map[string]bool // those of them that a package manager fills
	ours     func(path string) bool
}

// placesOf looks at the paths of a source; ours is what the lead says is judged,
// nil where that is nothing.
func placesOf(paths []string, ours func(string) bool) places {
	all := make(map[string]bool, len(paths))
	for _, p := range paths {
		all[p] = true
	}
	out := places{map[string]bool{}, map[string]bool{}, ours}
	seen := map[string]bool{}
	for _, p := range paths {
		for d := model.FolderOf(p); d != "." && !seen[d]; d = model.FolderOf(d) {
			seen[d] = true
			switch base := strings.ToLower(path.Base(d)); {
			case installed[base], base == "vendor" && filled(d, all):
				out.vendored[d], out.managed[d] = true, true
			case base == "third_party", base == "thirdparty", base == "vendor" && besideProject(d, all):
				out.vendored[d] = true
			}
		}
	}
	return out
}

// installed are folders that package managers make.
var installed = map[string]bool{
	"node_modules": true, "bower_components": true, "site-packages": true, "pods": true, "godeps": true, ".venv": true, "venv": true,
}

// filled reports whether a folder "vendor" holds what a package manager writes into it.
func filled(d string, all map[string]bool) bool {
	return all[path.Join(d, "modules.txt")] || all[path.Join(d, "autoload.php")]
}

// besideProject reports whether a folder lies beside a project of a kind that keeps
// what it needs in such a folder.
func besideProject(d string, all map[string]bool) bool {
	for _, mark := range []string{"composer.json", "go.mod", "Gemfile", "Cargo.toml"} {
		if all[path.Join(model.FolderOf(d), mark)] {
			return true
		}
	}
	return false
}

// of is what the place of a file says. People keep the steps of a store, whatever
// tool began them.
func (p places) of(file string) place {
	switch {
	case p.ours != nil && p.ours(file), model.Settled(file):
		return ours
	case inside(file, p.managed):
		return theirs
	}
	return unsaid
}

func inside(p string, folders map[string]bool) bool {
	if len(folders) == 0 {
		return false
	}
	for d := model.FolderOf(p); d != "."; d = model.FolderOf(d) {
		if folders[d] {
			return true
		}
	}
	return false
}

// by is who wrote a text, as its place and the hints in it say.
func (p place) by(hints []model.Hint) syntax.By {
	switch p {
	case ours:
		return syntax.ByPeople
	case theirs:
		return syntax.ByOthers
	}
	for _, h := range hints {
		if h.Name == model.HintGenerated {
			return syntax.ByTool
		}
	}
	return syntax.ByPeople
}

func pathsOf(entries []source.Entry) []string {
	out := make([]string, len(entries))
	for i, e := range entries {
		out[i] = e.Path
	}
	return out
}
