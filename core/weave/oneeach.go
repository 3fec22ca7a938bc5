package weave

import (
	"fmt"
	"maps"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/reading"
	"jantel/core/syntax"
)

// leastOneEach is how many files of a folder have to be built alike for each to be about
// something else: commands, modules of a tool, formats, sites.
const leastOneEach = 6

// oneEach gives files that are about nothing by their words, but of which a folder holds
// many that are built alike, what each is called: a command each, a format each. The
// folder's word for what they all are is no feature of theirs.
func (a *Aim) oneEach(of map[string]model.FeatureOf) {
	in := map[string][]*model.File{}
	for _, f := range a.files {
		switch a.roles[f.Path].Role {
		case model.RoleTest, model.RoleModel, model.RoleStructure, model.RoleSchema, model.RoleHelper, model.RoleStyle, model.RoleFacade,
			model.RoleState, model.RoleRouting:
			continue
		}
		if reading.IsCode(f) && !opensFolder(f) {
			d := model.FolderOf(f.Path)
			in[d] = append(in[d], f)
		}
	}
	for _, d := range slices.Sorted(maps.Keys(in)) {
		alike, sort := builtAs(in[d])
		called := strings.Join(naming.Words(path.Base(d)), " ")
		packages := syntax.ProfileOf(in[d][0].Language).PathPackages // they hold all that has to do with what they are called
		if one := stemWord(called); one != called && sortFolders[one] && len(in[d]) >= leastOfASort && !packages {
			alike, sort[one] = in[d], true
		} else if len(alike) < leastOneEach || 5*len(alike) < 3*len(in[d]) {
			continue
		}
		shared := sharedWords(alike)
		for w := range sort {
			shared[w] = true
		}
		for _, f := range alike {
			told := of[f.Path].Feature
			if told != "" && !shared[told] {
				continue
			}
			if name := a.itself(f, shared); name != "" {
				why := fmt.Sprintf("one of %d files in %s that are built alike, each for something else", len(alike), path.Base(d))
				of[f.Path] = model.FeatureOf{Feature: name, Reasons: []string{why}, Alone: true}
			}
		}
	}
}

// sortFolders are folders whose name, there in the plural, says what each file in them is.
var sortFolders = syntax.Set("command", "cmd", "subcommand", "action", "job", "task", "plugin", "addon", "driver", "format", "filter",
	"extractor", "importer", "exporter", "codec", "encoder", "decoder", "linter", "sensor", "device", "protocol", "transport", "bridge",
	"check", "rule")

// opensFolder reports whether a file stands for its folder, and not beside what is in it.
func opensFolder(f *model.File) bool {
	return slices.Contains(syntax.ProfileOf(f.Language).FolderFiles, path.Base(f.Path)) || naming.Stem(path.Base(f.Path)) == "index"
}

// builtAs are those of some files that share what most of them do: a base, what one of
// their functions is called, or a word that their types end in; with the words for it.
func builtAs(files []*model.File) (alike []*model.File, words map[string]bool) {
	by := map[string][]*model.File{}
	for _, f := range files {
		seen, spaces := map[string]bool{}, reading.Namespaces(f.Facts)
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			if d.Parent != "" && !spaces[d.Parent] {
				continue
			}
			var marks []string
			switch d.Kind {
			case model.DefClass:
				for _, b := range d.Bases {
					if b = naming.Own(b); !everyones[strings.ToLower(b)] {
						marks = append(marks, b)
					}
				}
				if ws := naming.Words(d.Name); len(ws) > 1 {
					marks = append(marks, ws[len(ws)-1])
				}
			case model.DefFunction:
				marks = append(marks, d.Name)
			}
			for _, m := range marks {
				if !seen[m] {
					seen[m] = true
					by[m] = append(by[m], f)
				}
			}
		}
	}
	best := ""
	for _, m := range slices.Sorted(maps.Keys(by)) {
		if w := strings.ToLower(m); strings.HasSuffix(w, "exception") || strings.HasSuffix(w, "error") {
			continue
		}
		if len(by[m]) > len(by[best]) {
			best = m
		}
	}
	words = map[string]bool{}
	for _, w := range naming.Words(best) {
		words[stemWord(w)] = true
	}
	return by[best], words
}

// sharedWords are those of names that half of some files have in theirs.
func sharedWords(files []*model.File) map[string]bool {
	n := map[string]int{}
	for _, f := range files {
		for _, w := range slices.Compact(slices.Sorted(slices.Values(naming.Words(ownName(f))))) {
			n[stemWord(w)]++
		}
	}
	shared := map[string]bool{}
	for w, k := range n {
		shared[w] = 2*k > len(files)
	}
	return shared
}

// ownName is the name of a file without its last ending: of several parts each may say what
// it is about.
func ownName(f *model.File) string {
	base := path.Base(f.Path)
	return strings.TrimSuffix(base, path.Ext(base))
}

// itself is what a file is called besides the words that it shares, "" where that says
// nothing.
func (a *Aim) itself(f *model.File, shared map[string]bool) string {
	words := naming.Words(spelled(f, ownName(f)))
	words = slices.DeleteFunc(words, func(w string) bool { return shared[stemWord(w)] || len(w) < 2 })
	if len(words) == 0 || len(words) > 3 {
		return ""
	}
	says := slices.ContainsFunc(words, func(w string) bool {
		return len(w) > 2 && !a.lex.CatchAll[w] && !plainParts[w] && !a.product[stemWord(w)]
	})
	if !says {
		return ""
	}
	return strings.Join(words, " ")
}

// plainParts are words for parts that stand beside others of their sort and are none.
var plainParts = syntax.Set("main", "base", "core", "default", "abstract", "init", "type", "types", "constant", "constants", "version",
	"config", "error", "errors", "exception", "exceptions", "factory", "manager", "registry", "loader", "runner", "interface", "generic",
	"test", "tests", "all")
