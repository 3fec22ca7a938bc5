package smells

import (
	"fmt"
	"path"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
	"jantel/core/weave"
)

// code lists the judged program text directly in a folder, tests aside.
func (c *Context) code(d string) []*model.File { return c.codeIn[d] }

// folderOfOne reports folders that hold one file and nothing else.
func folderOfOne(c *Context, _ *Rule) (out []hit) {
	for _, d := range c.Folders {
		if d.Path == "." || d.Files != 1 || len(c.sub[d.Path]) > 0 || testPlace(d.Path) {
			continue
		}
		files := c.code(d.Path)
		if len(files) != 1 || syntax.ProfileOf(files[0].Language).PathPackages || syntax.ProfileOf(files[0].Language).FolderPackages {
			continue
		}
		// Where all siblings are so, it is how the place is arranged.
		alone := 0
		for _, s := range c.sub[d.Parent] {
			if len(c.own[s]) == 1 && len(c.sub[s]) == 0 {
				alone++
			}
		}
		if alone > 2 {
			continue
		}
		out = append(out, hit{path: d.Path, strength: 0.25, message: fmt.Sprintf("The folder *%s* holds one file alone", d.Name), evidence: evidence(paths(files), "the only file"), touches: paths(files)})
	}
	return out
}

// cutByKind reports modules whose folders are technical kinds while their
// features are spread over them.
func cutByKind(c *Context, _ *Rule) (out []hit) {
	modules := append([]model.Module{}, c.Modules...)
	if !slices.ContainsFunc(modules, func(m model.Module) bool { return m.Project }) {
		modules = []model.Module{{Path: ".", Cut: c.Cut}}
	}
	for _, m := range modules {
		if m.Cut.Label != model.CutByKind {
			continue
		}
		var spread []string
		var touches []string
		var ev []model.Evidence
		for _, f := range c.Features {
			in := map[string]bool{}
			var mine []string
			for _, p := range f.Files {
				if model.Within(m.Path, p) && c.Roles[p].Role != model.RoleTest {
					in[model.FolderOf(p)] = true
					mine = append(mine, p)
				}
			}
			if len(in) >= 3 {
				spread = append(spread, f.Name)
				touches = append(touches, mine...)
				if len(ev) < 12 {
					ev = append(ev, model.Evidence{Path: mine[0], Note: fmt.Sprintf("%s lies in %d folders", f.Name, len(in))})
				}
			}
		}
		if len(spread) < 3 {
			continue
		}
		out = append(out, hit{path: m.Path, extra: "cut", strength: 0.2 + 0.03*float64(len(spread)), touches: touches, evidence: ev,
			message: fmt.Sprintf("%s features are spread over folders of technical kinds", capital(number(len(spread))))})
	}
	return out
}

// scatteredFeature reports features that lie in many folders.
func scatteredFeature(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "folders"))
	for _, f := range c.Features {
		if f.Scatter < limit || len(f.Files) < limit {
			continue
		}
		in := map[string]int{}
		for _, p := range f.Files {
			in[model.FolderOf(p)]++
		}
		dirs := make([]string, 0, len(in))
		for d := range in {
			dirs = append(dirs, d)
		}
		sort.Strings(dirs)
		at := commonFolder(f.Files)
		out = append(out, hit{path: at, name: f.Name, strength: 0.15 + 0.04*float64(f.Scatter-limit), touches: f.Files, evidence: evidence(dirs, "holds part of it"),
			message: fmt.Sprintf("*%s* lies in %s folders", f.Name, number(f.Scatter))})
	}
	return out
}

// commonFolder is the innermost folder that holds all of the paths.
func commonFolder(ps []string) string {
	d := model.FolderOf(ps[0])
	for _, p := range ps[1:] {
		for !model.Within(d, p) {
			d = model.FolderOf(d)
		}
	}
	return d
}

// fileElsewhere reports files whose dependencies nearly all lead to one other
// folder, and none to their own.
func fileElsewhere(c *Context, r *Rule) (out []hit) {
	least := int(c.Value(r, "dependencies"))
	own, other := map[string]int{}, map[string]map[string]int{}
	for i := range c.edges {
		l := &c.edges[i]
		if l.fromRole == model.RoleTest || l.toRole == model.RoleTest {
			continue
		}
		for _, e := range [2][2]string{{l.From, l.To}, {l.To, l.From}} {
			a, b := model.FolderOf(e[0]), model.FolderOf(e[1])
			if a == b {
				own[e[0]]++
				continue
			}
			if other[e[0]] == nil {
				other[e[0]] = map[string]int{}
			}
			other[e[0]][b]++
		}
	}
	for _, f := range c.Survey.Files {
		total, best, most := own[f.Path], "", 0
		for d, n := range other[f.Path] {
			total += n
			if n > most || n == most && d < best {
				best, most = d, n
			}
		}
		role := c.Roles[f.Path].Role
		if own[f.Path] > 0 || most < least || 4*most < 3*total || role == model.RoleEntry || role == model.RoleRouting || model.Within(model.FolderOf(f.Path), best) {
			continue
		}
		// Where its folder is one of its kind, its kind is why it lies there.
		same := 0
		for _, g := range c.code(model.FolderOf(f.Path)) {
			if c.Roles[g.Path].Role == role {
				same++
			}
		}
		if same > 2 && role != "" || !weave.IsCode(f) {
			continue
		}
		out = append(out, hit{path: f.Path, strength: 0.25 + 0.03*float64(most-least), touches: []string{f.Path}, evidence: []model.Evidence{{Path: best, Note: fmt.Sprintf("%d of its %d dependencies", most, total)}},
			message: fmt.Sprintf("%d of %d dependencies of *%s* lead to %s, none to its own folder", most, total, path.Base(f.Path), best),
			remedy:  fmt.Sprintf("Move it to %s, or find what keeps it where it is.", best)})
	}
	return out
}

// onePurpose are names of folders that mean the same to most readers.
var onePurpose = [][]string{{"util", "utils", "helper", "helpers", "common", "misc", "tools", "lib", "libs"}, {"type", "types", "interface", "interfaces", "typings"}, {"service", "services", "provider", "providers"},
	{"component", "components", "widget", "widgets"}, {"page", "pages", "screen", "screens", "view", "views"}, {"store", "stores", "state", "reducer", "reducers"}, {"test", "tests", "spec", "specs"}, {"doc", "docs", "documentation"}, {"config", "configs", "configuration", "settings"}}

// twoFolders reports siblings whose names promise the same.
func twoFolders(c *Context, _ *Rule) (out []hit) {
	for _, d := range c.Folders {
		for _, words := range onePurpose {
			var same []string
			for _, s := range c.sub[d.Path] {
				for _, w := range words {
					if strings.EqualFold(path.Base(s), w) && len(c.code(s)) > 0 {
						same = append(same, s)
					}
				}
			}
			if len(same) < 2 {
				continue
			}
			var touches []string
			for _, s := range same {
				touches = append(touches, paths(c.code(s))...)
			}
			sort.Strings(same)
			out = append(out, hit{path: d.Path, extra: strings.Join(same, "\x00"), strength: 0.4, touches: touches, evidence: evidence(same, "promises the same"),
				message: fmt.Sprintf("*%s* and *%s* promise the same", path.Base(same[0]), path.Base(same[1]))})
		}
	}
	return out
}

// tooDeep reports folders with code that lie many folders down.
func tooDeep(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "folders"))
	for _, d := range c.Folders {
		files := c.code(d.Path)
		if d.Depth <= limit || len(files) == 0 || syntax.ProfileOf(files[0].Language).PathPackages || testPlace(d.Path) {
			continue
		}
		out = append(out, hit{path: d.Path, strength: 0.2 + 0.1*float64(d.Depth-limit), touches: paths(files), evidence: evidence(paths(files), "lies here"),
			message: fmt.Sprintf("%s folders must be opened to reach its files", capital(number(d.Depth)))})
	}
	return out
}

// partMissing reports features without a part that nearly all others have.
func partMissing(c *Context, _ *Rule) (out []hit) {
	type at struct {
		module  string
		feature string
	}
	have := map[at]map[model.Role][]string{}
	for p, f := range c.FeatureOf {
		r := c.Roles[p].Role
		if f.Feature == "" || r == "" || !c.Judged[p] {
			continue
		}
		k := at{c.moduleOf(p), f.Feature}
		if have[k] == nil {
			have[k] = map[model.Role][]string{}
		}
		have[k][r] = append(have[k][r], p)
	}
	full := map[string]int{}
	with := map[string]map[model.Role]int{}
	for k, roles := range have {
		if len(roles) < 2 {
			continue
		}
		full[k.module]++
		if with[k.module] == nil {
			with[k.module] = map[model.Role]int{}
		}
		for r := range roles {
			with[k.module][r]++
		}
	}
	keys := make([]at, 0, len(have))
	for k := range have {
		keys = append(keys, k)
	}
	sort.Slice(keys, func(i, j int) bool {
		if keys[i].module != keys[j].module {
			return keys[i].module < keys[j].module
		}
		return keys[i].feature < keys[j].feature
	})
	for _, k := range keys {
		roles := have[k]
		if len(roles) < 2 || full[k.module] < 4 {
			continue
		}
		for _, r := range model.Roles {
			if n := with[k.module][r]; roles[r] != nil || n < full[k.module]-1 || n < 3 || r == model.RoleStyle || r == model.RoleAsset {
				continue
			}
			var mine []string
			for _, ps := range roles {
				mine = append(mine, ps...)
			}
			sort.Strings(mine)
			out = append(out, hit{path: commonFolder(mine), name: k.feature, extra: string(r), strength: 0.25, touches: mine[:1], evidence: evidence(mine, "is about it"),
				message: fmt.Sprintf("*%s* has no %s, which all of its %d siblings have", k.feature, r, full[k.module]-1)})
		}
	}
	return out
}

// moduleOf is the innermost folder with a project file that holds a path; what
// lies in none is one.
func (c *Context) moduleOf(p string) string {
	best := "."
	for i := range c.Modules {
		if m := c.Modules[i].Path; c.Modules[i].Project && model.Within(m, p) && (best == "." || len(m) > len(best)) {
			best = m
		}
	}
	return best
}

// rootClutter reports code that lies loose at the top of a codebase that has
// folders for it.
func rootClutter(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "files"))
	files := c.code(".")
	folders := 0
	for _, s := range c.sub["."] {
		for _, d := range c.Folders {
			if d.Path == s && d.JudgedLines > 0 {
				folders++
			}
		}
	}
	if len(files) < limit || folders < 2 {
		return nil
	}
	for _, f := range files {
		if syntax.ProfileOf(f.Language).FolderPackages {
			return nil // a package at the top is how the language has it
		}
	}
	return []hit{{path: ".", extra: "root", strength: over(float64(len(files)), float64(limit)), touches: paths(files), evidence: evidence(paths(files), "lies at the top"),
		message: fmt.Sprintf("%s source files lie loose at the top, beside %s folders", capital(number(len(files))), number(folders))}}
}

// namespaceAgainstPath reports files whose declared namespace does not end as
// their folders do.
func namespaceAgainstPath(c *Context, _ *Rule) (out []hit) {
	for _, f := range c.Survey.Files {
		if !c.Judged[f.Path] || f.Facts == nil || f.Facts.Namespace == "" || c.Roles[f.Path].Role == model.RoleTest {
			continue
		}
		habit := syntax.ProfileOf(f.Language)
		if habit.Namespace == "" {
			continue
		}
		parts := strings.Split(f.Facts.Namespace, habit.Namespace)
		last := parts[len(parts)-1]
		folder := path.Base(model.FolderOf(f.Path))
		if strings.EqualFold(last, folder) || len(parts) < 2 || folder == "." {
			continue
		}
		// The top folder of a project may stand for the whole root.
		holds := false
		for _, d := range strings.Split(model.FolderOf(f.Path), "/") {
			holds = holds || strings.EqualFold(d, last)
		}
		if !holds && !habit.NamespaceIsPath {
			continue
		}
		out = append(out, hit{path: f.Path, line: 1, strength: 0.3, touches: []string{f.Path}, message: fmt.Sprintf("Its namespace ends in *%s*, its folder is *%s*", last, folder), evidence: []model.Evidence{{Path: f.Path, Line: 1, Note: f.Facts.Namespace}}})
	}
	return out
}

// singularPluralMixed reports sibling folders of which most are plural and some
// are not.
func singularPluralMixed(c *Context, _ *Rule) (out []hit) {
	lex := weave.Words()
	for _, d := range c.Folders {
		var one, many []string
		for _, s := range c.sub[d.Path] {
			words := naming.Words(path.Base(s))
			if len(words) == 0 || len(c.code(s)) == 0 {
				continue
			}
			// Only kinds: what a folder is about may well be one.
			if _, role := lex.Folders[strings.Join(words, " ")]; !role {
				continue
			}
			w := words[len(words)-1]
			switch {
			case naming.Singular(w) != w:
				many = append(many, s)
			case lex.Folders[w+"s"] != "" || lex.Folders[strings.TrimSuffix(w, "y")+"ies"] != "":
				one = append(one, s)
			}
		}
		less, more, how := one, many, "singular"
		if len(many) < len(one) {
			less, more, how = many, one, "plural"
		}
		if len(less) == 0 || len(more) < 2 {
			continue
		}
		for _, s := range less {
			out = append(out, hit{path: s, strength: 0.25, touches: paths(c.code(s)), evidence: evidence(more, "is written the other way"), message: fmt.Sprintf("*%s* is %s, %s of its siblings are not", path.Base(s), how, number(len(more)))})
		}
	}
	return out
}
