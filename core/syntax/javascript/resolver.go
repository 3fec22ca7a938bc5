package javascript

import (
	"path"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

type resolver struct {
	t        *syntax.Tree
	packages map[string][]string // package name to the folders that declare it
	projects map[string]*model.Project
	configs  map[string]*model.Project // folder to its tsconfig or jsconfig, extends merged
	nearest  map[string]*model.Project
	owner    map[string]string
	targets  map[string]string // file and import text to the file it leads to
	origins  map[string]string // file and name to the file that defines it
}

// resolve links the imports of all files of the family the way Node and the
// TypeScript compiler resolve them.
func resolve(t *syntax.Tree) {
	r := &resolver{t: t, packages: map[string][]string{}, projects: map[string]*model.Project{}, configs: map[string]*model.Project{}, nearest: map[string]*model.Project{}, owner: map[string]string{}, targets: map[string]string{}, origins: map[string]string{}}
	for _, f := range t.Files {
		if f.Facts == nil || f.Facts.Project == nil {
			continue
		}
		p, d := f.Facts.Project, path.Dir(f.Path)
		switch {
		case p.Tool == "npm":
			r.projects[d] = p
			if p.Name != "" {
				r.packages[p.Name] = append(r.packages[p.Name], d)
			}
		case p.Tool == "typescript" && (path.Base(f.Path) == "tsconfig.json" || path.Base(f.Path) == "jsconfig.json"):
			if path.Base(f.Path) == "tsconfig.json" || r.configs[d] == nil {
				r.configs[d] = r.merged(f.Path, 0)
			}
		}
	}
	var out syntax.Out
	for _, f := range t.Files {
		if !family[f.Language] || f.Facts == nil {
			continue
		}
		for _, im := range f.Facts.Imports {
			if to := r.link(&out, f, im); to != "" {
				r.targets[f.Path+"\n"+im.Text] = to
			}
		}
	}
	for _, f := range t.Files {
		if f.Facts != nil && family[f.Language] {
			r.byName(&out, f)
		}
	}
	t.Add(&out)
}

// merged follows "extends" and keeps paths as paths below the root.
func (r *resolver) merged(p string, depth int) *model.Project {
	f := r.t.File(p)
	if f == nil || f.Facts == nil || f.Facts.Project == nil || depth > 8 {
		return nil
	}
	own, d := f.Facts.Project, path.Dir(p)
	out := &model.Project{}
	for _, e := range own.Extends {
		target := ""
		if strings.HasPrefix(e, ".") {
			target = path.Join(d, e)
			if r.t.File(target) == nil {
				target += ".json"
			}
		} else if dirs := r.packages[e]; len(dirs) > 0 {
			target = path.Join(dirs[0], "tsconfig.json")
		}
		if up := r.merged(target, depth+1); up != nil {
			if up.BaseURL != "" {
				out.BaseURL = up.BaseURL
			}
			if len(up.Paths) > 0 {
				out.Paths = up.Paths
			}
		}
	}
	if own.BaseURL != "" {
		out.BaseURL = path.Join(d, own.BaseURL)
	}
	if len(own.Paths) > 0 {
		base := d
		if own.BaseURL != "" {
			base = path.Join(d, own.BaseURL)
		}
		out.Paths = nil
		for _, a := range own.Paths {
			b := model.Alias{Pattern: a.Pattern}
			for _, t := range a.Targets {
				b.Targets = append(b.Targets, path.Join(base, t))
			}
			out.Paths = append(out.Paths, b)
		}
		// The longest fixed part wins, as in the compiler.
		sort.SliceStable(out.Paths, func(i, j int) bool {
			return len(prefix(out.Paths[i].Pattern)) > len(prefix(out.Paths[j].Pattern))
		})
	}
	return out
}

func prefix(pattern string) string { p, _, _ := strings.Cut(pattern, "*"); return p }

// byName links what is reached through files that only pass it on, what is
// rendered and what is built upon.
func (r *resolver) byName(out *syntax.Out, f *model.File) {
	for _, im := range f.Facts.Imports {
		to := r.targets[f.Path+"\n"+im.Text]
		if to == "" || im.Kind == model.LinkTemplate {
			continue
		}
		for _, n := range im.Names {
			if n == "*" {
				continue
			}
			if at := r.origin(to, n, 0); at != to && at != f.Path {
				out.Links = append(out.Links, model.Link{From: f.Path, To: at, Kind: model.LinkNameViaIndex, Line: im.Line, Text: im.Text, Sure: true, Names: []string{n}})
			}
		}
	}
	for _, u := range f.Facts.Uses {
		to := r.targets[f.Path+"\n"+u.Module]
		if to == "" {
			continue
		}
		if at := r.origin(to, u.Name, 0); at != f.Path {
			out.Links = append(out.Links, model.Link{From: f.Path, To: at, Kind: u.Kind, Line: u.Line, Text: u.Module, Sure: true, Names: []string{u.Name}})
		}
	}
}

// maxPassing bounds over how many files a name is followed.
const maxPassing = 12

// origin is the file that defines a name which p hands out: p itself, or the
// file that p takes it from only to pass it on.
func (r *resolver) origin(p, name string, depth int) string {
	key := p + "\n" + name
	if at, ok := r.origins[key]; ok {
		return at
	}
	r.origins[key] = p // a ring ends here
	f := r.t.File(p)
	if f == nil || f.Facts == nil || depth > maxPassing || name == "*" {
		return p
	}
	at := p
	stars := []string{}
follow:
	for _, im := range f.Facts.Imports {
		if im.Kind != model.LinkReExport {
			continue
		}
		for i, n := range im.Names {
			outer := n
			if im.As != nil {
				outer = im.As[i]
			}
			to := r.targets[p+"\n"+im.Text]
			switch {
			case to == "":
			case outer == name && n == "*":
				at = to // the whole module under one name
				break follow
			case outer == name:
				at = r.origin(to, n, depth+1)
				break follow
			case n == "*" && im.As == nil:
				stars = append(stars, to)
			}
		}
	}
	if at == p && len(stars) > 0 && name != "default" && !defines(f, name) {
		for _, to := range stars {
			if end := r.origin(to, name, depth+1); end != to || handsOut(r.t.File(to), name) {
				at = end
				break
			}
		}
	}
	if at == p && name != "default" && !defines(f, name) && handsOut(f, name) {
		// Taken in by one statement and handed out by another.
		for _, im := range f.Facts.Imports {
			if to := r.targets[p+"\n"+im.Text]; to != "" && im.Kind == model.LinkImport && slices.Contains(im.Names, name) {
				at = r.origin(to, name, depth+1)
				break
			}
		}
	}
	r.origins[key] = at
	return at
}

func defines(f *model.File, name string) bool {
	for i := range f.Facts.Definitions {
		if d := &f.Facts.Definitions[i]; d.Name == name && d.Parent == "" && d.Exported {
			return true
		}
	}
	return false
}

func handsOut(f *model.File, name string) bool {
	if f == nil || f.Facts == nil {
		return false
	}
	i := sort.SearchStrings(f.Facts.Names, name)
	return i < len(f.Facts.Names) && f.Facts.Names[i] == name
}

// link follows one import; it returns the file it leads to, "" when none.
func (r *resolver) link(out *syntax.Out, f *model.File, im model.Import) (target string) {
	text, _, _ := strings.Cut(im.Text, "?") // bundlers take a query behind the path
	if i := strings.LastIndexByte(text, '!'); i >= 0 {
		text = text[i+1:]
	}
	d := path.Dir(f.Path)
	add := func(to string) {
		target = to
		if to != f.Path {
			out.Links = append(out.Links, model.Link{From: f.Path, To: to, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: true, Names: im.Names})
		}
	}
	fail := func(reason string) {
		out.Unresolved = append(out.Unresolved, model.Unresolved{From: f.Path, Text: im.Text, Line: im.Line, Reason: reason})
	}
	if im.Kind == model.LinkTemplate {
		if to := syntax.FindStyle(r.t, d, text); to != "" {
			add(to)
			return target
		}
	}
	switch {
	case text == "":
		return target
	case strings.HasPrefix(text, "./"), strings.HasPrefix(text, "../"), text == ".", text == "..":
		p, ok := syntax.Join(d, text)
		if !ok {
			fail("leads out of the codebase")
			return target
		}
		if to := r.file(p, strings.HasSuffix(text, "/")); to != "" {
			add(to)
		} else {
			fail("no such file")
		}
		return target
	case strings.HasPrefix(text, "/"):
		if to := r.file(strings.TrimPrefix(path.Clean(text), "/"), false); to != "" {
			add(to)
		} else {
			fail("an absolute path, and no such file below the root")
		}
		return target
	case strings.Contains(text, "://"), strings.HasPrefix(text, "data:"), strings.HasPrefix(text, "node:"), strings.HasPrefix(text, "bun:"):
		out.External = append(out.External, model.External{From: f.Path, Package: text, Line: im.Line})
		return target
	}
	if c := r.config(d); c != nil {
		matched := false
		for _, a := range c.Paths {
			star, ok := match(a.Pattern, text)
			if !ok {
				continue
			}
			matched = true
			for _, t := range a.Targets {
				if to := r.file(strings.Replace(t, "*", star, 1), false); to != "" {
					add(to)
					return target
				}
			}
			break
		}
		if c.BaseURL != "" {
			if to := r.file(path.Join(c.BaseURL, text), false); to != "" {
				add(to)
				return target
			}
		}
		if matched && prefixOf(c.Paths, text) {
			fail("a path alias of the project, and no such file")
			return target
		}
	}
	own, ownDir := r.project(d)
	if strings.HasPrefix(text, "#") && own != nil {
		if to := r.target(ownDir, own.Imports, text); to != "" {
			add(to)
		} else {
			fail("not among the imports of its package.json")
		}
		return target
	}
	name, sub := packageName(text)
	if to, found := r.packaged(d, name, sub); to != "" {
		add(to)
		return target
	} else if found && !builtin[name] {
		fail("the package is in the codebase, and has no such file (not built?)")
		return target
	}
	ext := model.External{From: f.Path, Package: name, Line: im.Line}
	syntax.Up(d, func(at string) bool {
		if p := r.projects[at]; p != nil {
			if v, ok := p.Dependencies[name]; ok {
				ext.Version = &v
				return true
			}
		}
		return false
	})
	out.External = append(out.External, ext)
	return target
}

func prefixOf(as []model.Alias, text string) bool {
	for _, a := range as {
		if p := prefix(a.Pattern); len(p) > 1 && strings.HasPrefix(text, p) {
			return true
		}
	}
	return false
}

// match matches a pattern with one "*" at most and returns what it stood for.
func match(pattern, text string) (star string, ok bool) {
	before, after, has := strings.Cut(pattern, "*")
	if !has {
		return "", pattern == text
	}
	if len(text) >= len(before)+len(after) && strings.HasPrefix(text, before) && strings.HasSuffix(text, after) {
		return text[len(before) : len(text)-len(after)], true
	}
	return "", false
}

func packageName(text string) (name, sub string) {
	parts := strings.SplitN(text, "/", 3)
	if strings.HasPrefix(text, "@") && len(parts) > 1 {
		name = parts[0] + "/" + parts[1]
	} else {
		name = parts[0]
	}
	return name, strings.TrimPrefix(text[len(name):], "/")
}

func (r *resolver) config(d string) *model.Project {
	if c, ok := r.nearest[d]; ok {
		return c
	}
	var found *model.Project
	syntax.Up(d, func(at string) bool { found = r.configs[at]; return found != nil })
	r.nearest[d] = found
	return found
}

func (r *resolver) project(d string) (*model.Project, string) {
	if at, ok := r.owner[d]; ok {
		return r.projects[at], at
	}
	found := ""
	syntax.Up(d, func(at string) bool {
		if r.projects[at] != nil {
			found = at
			return true
		}
		return false
	})
	r.owner[d] = found
	return r.projects[found], found
}

// packaged finds a package by name: in the node_modules folders on the way up,
// as Node does, or wherever in the tree a package.json declares the name. A
// relative file wins over neither.
func (r *resolver) packaged(from, name, sub string) (to string, found bool) {
	dir := ""
	syntax.Up(from, func(at string) bool {
		if path.Base(at) == "node_modules" {
			at = path.Dir(at)
		}
		if d := path.Join(at, "node_modules", name); r.t.HasDir(d) {
			dir = d
			return true
		}
		return false
	})
	if dir == "" && r.t.Name == "node_modules" && r.t.HasDir(name) {
		dir = name
	}
	if dir == "" {
		dirs := r.packages[name]
		if len(dirs) == 0 && !strings.HasPrefix(name, "@types/") {
			// Types that others wrote for a package stand under a name made of its own.
			return r.packaged(from, "@types/"+strings.ReplaceAll(strings.TrimPrefix(name, "@"), "/", "__"), sub)
		}
		if len(dirs) == 0 {
			return "", false
		}
		dir = dirs[0]
		for _, d := range dirs { // the outermost declares it, copies repeat it
			if strings.Count(d, "/") < strings.Count(dir, "/") {
				dir = d
			}
		}
	}
	p := r.projects[dir]
	if p == nil {
		return r.file(path.Join(dir, sub), false), true
	}
	key := "."
	if sub != "" {
		key = "./" + sub
	}
	if len(p.Exports) > 0 {
		if to := r.target(dir, p.Exports, key); to != "" {
			return to, true
		}
	}
	if sub != "" {
		if to := r.file(path.Join(dir, sub), false); to != "" {
			return to, true
		}
		return r.file(path.Join(dir, "src", sub), false), true
	}
	for _, e := range p.Entries {
		if to := r.file(path.Join(dir, e), false); to != "" {
			return to, true
		}
	}
	for _, e := range []string{"index", "src/index", "src/main", "lib/index"} {
		if to := r.file(path.Join(dir, e), false); to != "" {
			return to, true
		}
	}
	return "", true
}

// target picks from a map of exports or imports: the exact key, else the
// pattern with the longest fixed part.
func (r *resolver) target(dir string, table map[string]string, key string) string {
	if t, ok := table[key]; ok {
		return r.built(dir, t)
	}
	best, star := "", ""
	for k := range table {
		if s, ok := match(k, key); ok && strings.Contains(k, "*") && (best == "" || len(prefix(k)) > len(prefix(best)) || len(prefix(k)) == len(prefix(best)) && k < best) {
			best, star = k, s
		}
	}
	if best == "" {
		return ""
	}
	return r.built(dir, strings.ReplaceAll(table[best], "*", star))
}

// built finds a package's target, or the source it is built from when only
// that is in the tree.
func (r *resolver) built(dir, target string) string {
	p := path.Join(dir, target)
	if to := r.file(p, false); to != "" {
		return to
	}
	rel := strings.TrimPrefix(path.Clean(target), "./")
	_, rest, ok := strings.Cut(rel, "/")
	if !ok {
		return ""
	}
	for _, e := range []string{".d.ts", ".d.mts", ".mjs", ".cjs", ".js"} {
		rest = strings.TrimSuffix(rest, e)
	}
	for _, e := range []string{"esm/", "cjs/", "types/"} {
		rest = strings.TrimPrefix(rest, e)
	}
	return r.file(path.Join(dir, "src", rest), false)
}

var endings = []string{".ts", ".tsx", ".d.ts", ".mts", ".cts", ".js", ".jsx", ".mjs", ".cjs", ".json", ".vue", ".svelte", ".d.mts", ".d.cts"}

// swaps are the source endings that an import of a built file may mean.
var swaps = map[string][]string{".js": {".ts", ".tsx", ".d.ts"}, ".mjs": {".mts", ".d.mts"}, ".cjs": {".cts", ".d.cts"}, ".jsx": {".tsx"}}

// file finds the file that a path without or with its ending means; "" when
// there is none.
func (r *resolver) file(p string, dirOnly bool) string {
	p = path.Clean(p)
	if strings.HasPrefix(p, "../") {
		return ""
	}
	if !dirOnly && p != "." {
		ext := path.Ext(p)
		if alt := swaps[ext]; alt != nil {
			base := strings.TrimSuffix(p, ext)
			for _, e := range alt {
				// The compiler prefers the source beside a built file.
				if r.t.File(base+e) != nil {
					return base + e
				}
			}
		}
		if r.t.File(p) != nil {
			return p
		}
		for _, e := range endings {
			if r.t.File(p+e) != nil {
				return p + e
			}
		}
	}
	if !r.t.HasDir(p) {
		return ""
	}
	if pr := r.projects[p]; pr != nil && !dirOnly {
		for _, e := range pr.Entries {
			if q := path.Join(p, e); q != p {
				if to := r.file(q, false); to != "" {
					return to
				}
			}
		}
	}
	for _, e := range endings {
		if q := path.Join(p, "index") + e; r.t.File(q) != nil {
			return q
		}
	}
	return ""
}

var builtin = map[string]bool{}

func init() {
	for _, n := range strings.Fields("assert async_hooks buffer child_process cluster console constants crypto dgram diagnostics_channel dns domain events fs http http2 https inspector module net os path perf_hooks process punycode querystring readline repl stream string_decoder timers tls tty url util v8 vm wasi worker_threads zlib") {
		builtin[n] = true
	}
}
