package patterns

import (
	"fmt"
	"strings"

	"jantel/core/model"
)

// What a build makes of the code.

// made is what the builds of a codebase make of its source: how many files go into
// each kind of thing, and what says so.
type made struct {
	files map[model.BuiltKind]float64
	names map[model.BuiltKind][]string
	says  map[model.BuiltKind][]model.Evidence
}

// made finds for every source file the nearest build file above it that makes something. A
// file below two kinds of it counts a half for each. Where the build files lie beside the
// source rather than above it, they speak for all of it.
func (c *context) made() *made {
	if c.builds != nil {
		return c.builds
	}
	m := &made{map[model.BuiltKind]float64{}, map[model.BuiltKind][]string{}, map[model.BuiltKind][]model.Evidence{}}
	c.builds = m
	in := map[string]map[model.BuiltKind]bool{}
	for _, f := range c.survey.Files {
		if f.Facts == nil || f.Facts.Project == nil || !c.judged[f.Path] || len(f.Facts.Project.Builds) == 0 {
			continue
		}
		d := model.FolderOf(f.Path)
		if showsOrTries(d) {
			continue
		}
		if in[d] == nil {
			in[d] = map[model.BuiltKind]bool{}
		}
		for _, b := range f.Facts.Project.Builds {
			in[d][b.Kind] = true
			m.names[b.Kind] = append(m.names[b.Kind], b.Name)
			m.says[b.Kind] = append(m.says[b.Kind], model.Evidence{Path: f.Path, Line: b.Line, Note: fmt.Sprintf("makes the %s %s", b.Kind, b.Name)})
		}
	}
	if len(in) == 0 {
		return m
	}
	told := 0
	for _, f := range c.source {
		kinds := nearest(in, model.FolderOf(f.Path))
		if len(kinds) > 0 {
			told++
		}
		for k := range kinds {
			m.files[k] += 1 / float64(len(kinds))
		}
	}
	if 2*told < len(c.source) {
		m.files = map[model.BuiltKind]float64{}
		for k := range m.names {
			m.files[k] = float64(len(c.source)) / float64(len(m.names))
		}
	}
	return m
}

func nearest(in map[string]map[model.BuiltKind]bool, d string) map[model.BuiltKind]bool {
	for {
		if kinds := in[d]; kinds != nil || d == "." {
			return kinds
		}
		d = model.FolderOf(d)
	}
}

// showsOrTries reports whether a folder holds what shows, tries or measures the rest.
func showsOrTries(folder string) bool {
	for d := range strings.SplitSeq(folder, "/") {
		d = strings.ToLower(strings.Trim(d, "_"))
		if shows[d] || strings.HasSuffix(d, "test") || strings.HasSuffix(d, "tests") || strings.HasSuffix(d, "testing") {
			return true
		}
	}
	return false
}

// part is the share of the source that goes into a kind of what is built.
func (m *made) part(k model.BuiltKind, of int) float64 {
	if of == 0 {
		return 0
	}
	return m.files[k] / float64(of)
}

// libraryByBuild is what the build says of libraries for others, where a good part of the
// code goes into them.
func libraryByBuild(c *context) (outcome, bool) {
	m := c.made()
	share := m.part(model.BuiltLibrary, len(c.source))
	if share < leastBuilt {
		return outcome{}, false
	}
	names := m.names[model.BuiltLibrary]
	of := int(m.files[model.BuiltLibrary] + 0.5)
	text := fmt.Sprintf("Its build makes %s for others, of about %d of %d source files.", names[0], of, len(c.source))
	if len(names) > 1 {
		text = fmt.Sprintf(
			"Its build makes %d libraries for others, %s first, of about %d of %d source files.", len(names), names[0], of, len(c.source),
		)
	}
	return outcomeOf(share/mostBuilt, text, m.says[model.BuiltLibrary][:min(5, len(names))]), true
}

// From leastBuilt of the source on it counts that a library is made of it, from
// mostBuilt on in full.
const leastBuilt, mostBuilt = 0.3, 0.5
