package smells

import (
	"cmp"
	"fmt"
	"maps"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/weave"
)

// unrelatedContents reports folders whose files have nothing to do with each
// other: no dependency, no word and no role in common.
func unrelatedContents(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "files"))
	tied := map[string]bool{} // folders in which one file needs another
	for i := range c.edges {
		if d := model.FolderOf(c.edges[i].From); d == model.FolderOf(c.edges[i].To) {
			tied[d] = true
		}
	}
	for _, d := range c.Folders {
		fs := c.codeIn[d.Path]
		if d.Path == "." || len(fs) < limit || tied[d.Path] {
			continue
		}
		roles, words, features := map[model.Role]int{}, map[string]int{}, map[string]int{}
		for _, f := range fs {
			roles[c.Roles[f.Path].Role]++
			if n := c.FeatureOf[f.Path].Feature; n != "" {
				features[n]++
			}
			for _, w := range slices.Compact(slices.Sorted(slices.Values(naming.Words(naming.Stem(f.Path))))) {
				words[w]++
			}
		}
		known := len(fs) - roles[""]
		delete(roles, "")
		if 2*known < len(fs) || len(roles) < 3 || 2*most(roles) > len(fs) || 2*most(words) > len(fs) || 2*most(features) > len(fs) {
			continue
		}
		out = append(out, hit{path: d.Path, strength: 0.3 + 0.02*float64(len(fs)-limit), touches: paths(fs), evidence: rolesOf(c, fs),
			message: fmt.Sprintf("%s files of %s roles lie together and have nothing in common: none needs another", capital(number(len(fs))), number(len(roles)))})
	}
	return out
}

func most[K comparable](counts map[K]int) (n int) {
	for _, k := range counts {
		n = max(n, k)
	}
	return n
}

func rolesOf(c *Context, fs []*model.File) (ev []model.Evidence) {
	for _, f := range fs[:min(12, len(fs))] {
		note := string(c.Roles[f.Path].Role)
		if note == "" {
			note = "role unknown"
		}
		ev = append(ev, model.Evidence{Path: f.Path, Note: note})
	}
	return ev
}

// primitivesComposedMixed reports folders in which components that render
// nothing of the codebase lie among those that are put together of others.
func primitivesComposedMixed(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "components"))
	renders := map[string]map[string]bool{}
	rendered := map[string]map[string]bool{}
	put := func(m map[string]map[string]bool, k, v string) {
		if m[k] == nil {
			m[k] = map[string]bool{}
		}
		m[k][v] = true
	}
	for i := range c.Survey.Links {
		if l := &c.Survey.Links[i]; l.Kind == model.LinkRendering && c.Judged[l.From] && c.Judged[l.To] && c.Roles[l.From].Role != model.RoleTest {
			put(renders, l.From, l.To)
			put(rendered, l.To, l.From)
		}
	}
	for _, d := range c.Folders {
		var primitive, composed []*model.File
		for _, f := range c.codeIn[d.Path] {
			switch {
			case c.Roles[f.Path].Role != model.RoleView:
			case len(renders[f.Path]) >= 3:
				composed = append(composed, f)
			case len(renders[f.Path]) == 0 && len(rendered[f.Path]) >= 2:
				primitive = append(primitive, f)
			}
		}
		if len(primitive) < limit || len(composed) < limit {
			continue
		}
		ev := evidence(paths(primitive[:min(6, len(primitive))]), "renders no other, and is rendered by several")
		out = append(out, hit{path: d.Path, strength: 0.25 + 0.02*float64(len(primitive)+len(composed)-2*limit), touches: append(paths(primitive), paths(composed)...), evidence: append(ev, evidence(paths(composed[:min(6, len(composed))]), "is put together of three and more")...),
			message: fmt.Sprintf("%s primitive and %s composed components lie in one folder", capital(number(len(primitive))), number(len(composed)))})
	}
	return out
}

// folderNameUntrue reports folders named for one role that hold another. The
// name speaks for its role when roles are voted, so what outvotes it is sure.
func folderNameUntrue(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "files"))
	for _, d := range c.Folders {
		promised, ok := weave.Words().Folders[strings.Join(naming.Words(d.Name), " ")]
		fs := c.codeIn[d.Path]
		if !ok || len(fs) < limit || promised == model.RoleTest || promised == model.RoleHelper || promised == model.RoleScript || promised == model.RoleConfig {
			continue
		}
		held := map[model.Role]int{}
		known := 0
		for _, f := range fs {
			if role := c.Roles[f.Path].Role; role != "" && role != model.RoleEntry {
				held[role]++
				known++
			}
		}
		if known < limit || 4*held[promised] > known {
			continue
		}
		first := slices.SortedFunc(maps.Keys(held), func(a, b model.Role) int {
			return cmp.Or(cmp.Compare(held[b], held[a]), cmp.Compare(a, b))
		})[0]
		if 2*held[first] <= known || belowNamed(d.Path, first) {
			continue
		}
		out = append(out, hit{path: d.Path, strength: 0.3 + 0.3*float64(held[first])/float64(known), touches: paths(fs), evidence: rolesOf(c, fs),
			message: fmt.Sprintf("*%s* promises %s, and %d of %d files whose role can be told are %s", d.Name, promised, held[first], known, first)})
	}
	return out
}

// belowNamed reports whether a folder lies in one that is named for a role:
// there its name tells what it is about.
func belowNamed(d string, role model.Role) bool {
	for d = model.FolderOf(d); d != "."; d = model.FolderOf(d) {
		if weave.Words().Folders[strings.Join(naming.Words(path.Base(d)), " ")] == role {
			return true
		}
	}
	return false
}
