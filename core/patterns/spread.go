package patterns

import (
	"cmp"
	"maps"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// leastSpread is how many parts of a kind make plug-ins, wherever they lie.
const leastSpread = 8

// spread are the parts, all over the codebase, that build upon one type of it and that
// nothing else names: whatever takes them in finds them at run time. Of several such
// kinds it is the one with the most parts.
func (c *context) spread() *plugs {
	kinds := c.byBase()
	made := map[[2]string]bool{}
	for i := range c.survey.Links {
		if l := &c.survey.Links[i]; l.Kind == model.LinkInheritance {
			made[[2]string{unit(l.From), unit(l.To)}] = true
		}
	}
	named := map[string]bool{} // parts that others need, but not to build upon them
	for _, l := range c.edges {
		if from, to := unit(l.From), unit(l.To); from != to && !made[[2]string{from, to}] {
			named[to] = true
		}
	}
	var best map[string][]*model.File
	for _, base := range slices.Sorted(maps.Keys(kinds)) {
		of := kinds[base]
		if len(of) < leastSpread || len(of) <= len(best) || !c.defines(base) {
			continue
		}
		known := 0
		var files []*model.File
		for part, fs := range of {
			files = append(files, fs...)
			if named[part] {
				known++
			}
		}
		if leastSpread*known <= len(of) && !c.loadedByFramework(files) {
			best = of
		}
	}
	if best == nil {
		best = c.byMethod(named)
	}
	if best == nil {
		return nil
	}
	return c.spreadOut(best)
}

// leastAsked is how many parts have to have the same method for it to be what all of them
// are asked by.
const leastAsked = 24

// byMethod are the parts, all over the codebase, whose classes have a method of the same
// name and of which hardly one is named by another: a third of the source at least.
func (c *context) byMethod(named map[string]bool) (best map[string][]*model.File) {
	by := map[string]map[string][]*model.File{}
	for _, f := range c.source {
		p := syntax.ProfileOf(f.Language)
		if f.Facts == nil || !p.Inherits || p.FolderPackages || named[unit(f.Path)] || showsOrTries(model.FolderOf(f.Path)) {
			continue
		}
		seen := map[string]bool{}
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			if d.Kind != model.DefMethod || seen[d.Name] || everybodys[strings.ToLower(strings.Trim(d.Name, "_"))] {
				continue
			}
			seen[d.Name] = true
			if by[d.Name] == nil {
				by[d.Name] = map[string][]*model.File{}
			}
			by[d.Name][unit(f.Path)] = append(by[d.Name][unit(f.Path)], f)
		}
	}
	for _, name := range slices.Sorted(maps.Keys(by)) {
		if of := by[name]; len(of) >= leastAsked && 3*len(of) >= len(c.source) && len(of) > len(best) {
			best = of
		}
	}
	if best != nil && c.loadedByFramework(slices.Concat(slices.Collect(maps.Values(best))...)) {
		return nil
	}
	return best
}

// everybodys are methods that classes of any sort have, in small letters.
var everybodys = syntax.Set("init", "construct", "initialize", "new", "constructor", "str", "repr", "tostring", "to_s", "equals", "eq",
	"hash", "hashcode", "len", "get", "set", "destruct", "clone", "call", "inspect", "inherited", "included")

// unit is what a file is a part of where its declarations have a file of their own.
func unit(p string) string { return strings.TrimSuffix(p, path.Ext(p)) }

// byBase are the parts, with their files, by the simple names of what they build upon,
// directly or not.
func (c *context) byBase() map[string]map[string][]*model.File {
	out := map[string]map[string][]*model.File{}
	for f, bases := range heritage(c.source) {
		if showsOrTries(model.FolderOf(f.Path)) {
			continue
		}
		for b := range bases {
			if out[b] == nil {
				out[b] = map[string][]*model.File{}
			}
			out[b][unit(f.Path)] = append(out[b][unit(f.Path)], f)
		}
	}
	return out
}

// spreadOut puts parts beside the folders that hold them, the one with the most first.
func (c *context) spreadOut(parts map[string][]*model.File) *plugs {
	out := &plugs{parts: map[string]bool{}, of: map[string]string{}, alone: true}
	held := map[string]int{}
	first := map[string]string{} // of a part, the file that it is called by
	for part, files := range parts {
		p := slices.MinFunc(files, func(a, b *model.File) int { return cmp.Compare(a.Path, b.Path) }).Path
		first[part], out.parts[p] = p, true
		held[model.FolderOf(p)]++
	}
	for _, f := range c.source {
		if p := first[unit(f.Path)]; p != "" {
			out.of[f.Path] = p
		}
	}
	for _, d := range c.folders {
		if held[d.Path] > 0 {
			out.in = append(out.in, d)
		}
	}
	slices.SortStableFunc(out.in, func(a, b *model.Folder) int { return held[b.Path] - held[a.Path] })
	return out
}
