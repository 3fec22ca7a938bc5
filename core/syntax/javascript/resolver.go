package javascript

import (
	"path"
	"regexp"
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
	r := &resolver{
		t: t, packages: map[string][]string{}, projects: map[string]*model.Project{}, configs: map[string]*model.Project{},
		nearest: map[string]*model.Project{}, owner: map[string]string{}, targets: map[string]string{}, origins: map[string]string{},
	}
	var own []*model.File
	for _, f := range t.Files {
		if f.Facts == nil {
			continue
		}
		if f.Facts.Project != nil {
			r.keepProject(f)
		}
		if family[f.Language] {
			own = append(own, f)
		}
	}
	var out syntax.Out
	for _, f := range own {
		for _, im := range f.Facts.Imports {
			if to := r.link(&out, f, im); to != "" {
				r.targets[f.Path+"\n"+im.Text] = to
			}
		}
	}
	for _, f := range own {
		r.byName(&out, f)
	}
	t.Add(&out)
}

// keepProject keeps what a project file says of packages and of paths.
func (r *resolver) keepProject(f *model.File) {
	p, d, base := f.Facts.Project, path.Dir(f.Path), path.Base(f.Path)
	switch {
	case p.Tool == "npm":
		r.projects[d] = p
		if p.Name != "" {
			r.packages[p.Name] = append(r.packages[p.Name], d)
		}
	case p.Tool != "typescript":
	case base == "tsconfig.json", base == "jsconfig.json" && r.configs[d] == nil:
		r.configs[d] = r.merged(f.Path, 0)
	}
}

// projectOf is the nearest package.json upwards, with its folder.
func (r *resolver) projectOf(d string) (*model.Project, string) {
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

// merged follows "extends" and keeps paths as paths below the root.
func (r *resolver) merged(p string, depth int) *model.Project {
	f := r.t.File(p)
	if f == nil || f.Facts == nil || f.Facts.Project == nil || depth > 8 {
		return nil
	}
	own, d := f.Facts.Project, path.Dir(p)
	out := &model.Project{}
	for _, e := range own.Extends {
		up := r.merged(r.extended(d, e), depth+1)
		if up == nil {
			continue
		}
		if up.BaseURL != "" {
			out.BaseURL = up.BaseURL
		}
		if len(up.Paths) > 0 {
			out.Paths = up.Paths
		}
	}
	base := d
	if own.BaseURL != "" {
		base = path.Join(d, own.BaseURL)
		out.BaseURL = base
	}
	if len(own.Paths) > 0 {
		out.Paths = aliases(own.Paths, base)
	}
	return out
}

// extended is the configuration that one in the folder d goes out from.
func (r *resolver) extended(d, name string) string {
	if !strings.HasPrefix(name, ".") {
		if dirs := r.packages[name]; len(dirs) > 0 {
			return path.Join(dirs[0], "tsconfig.json")
		}
		return ""
	}
	p := path.Join(d, name)
	if r.t.File(p) == nil {
		p += ".json"
	}
	return p
}

// aliases are those of a configuration as paths below the root, in the order
// in which they are tried: the longest fixed part wins, as in the compiler.
func aliases(own []model.Alias, base string) []model.Alias {
	var out []model.Alias
	for _, a := range own {
		b := model.Alias{Pattern: a.Pattern}
		for _, t := range a.Targets {
			b.Targets = append(b.Targets, path.Join(base, t))
		}
		out = append(out, b)
	}
	sort.SliceStable(out, func(i, j int) bool { return len(prefix(out[i].Pattern)) > len(prefix(out[j].Pattern)) })
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
				out.Links = append(out.Links, model.Link{
					From: f.Path, To: at, Kind: model.LinkNameViaIndex, Line: im.Line, Text: im.Text, Sure: true,
					Names: []string{n}, TypeOnly: im.Types,
				})
			}
		}
	}
	for _, u := range f.Facts.Uses {
		to := r.targets[f.Path+"\n"+u.Module]
		if to == "" {
			continue
		}
		if at := r.origin(to, u.Name, 0); at != f.Path {
			out.Links = append(out.Links, model.Link{
				From: f.Path, To: at, Kind: u.Kind, Line: u.Line, Text: u.Module, Sure: true,
				Names: []string{u.Name},
			})
		}
	}
}

// maxPassing bounds over how many files a name is followed.
const maxPassing = 12

// origin is the file that defines a name which p hands out: p itself, or the
// file that p takes it from only to pass it on. It looks, in this order, at
// what p hands on by name, at what it hands on as a whole ("*"), and at what
// one statement takes in and another hands out.
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
	at := r.handedOn(f, name, depth)
	if at == p && name != "default" && !defines(f, name) {
		if at = r.handedOnWhole(f, name, depth); at == p && handsOut(f, name) {
			at = r.takenIn(f, name, depth)
		}
	}
	r.origins[key] = at
	return at
}

// handedOn follows "export { a as name } from" and "export * as name from".
func (r *resolver) handedOn(f *model.File, name string, depth int) string {
	for _, im := range f.Facts.Imports {
		to := r.targets[f.Path+"\n"+im.Text]
		if im.Kind != model.LinkReExport || to == "" {
			continue
		}
		for i, n := range im.Names {
			outer := n
			if im.As != nil {
				outer = im.As[i]
			}
			switch {
			case outer != name:
			case n == "*":
				return to // the whole module under one name
			default:
				return r.origin(to, n, depth+1)
			}
		}
	}
	return f.Path
}

// handedOnWhole follows "export * from".
func (r *resolver) handedOnWhole(f *model.File, name string, depth int) string {
	for _, im := range f.Facts.Imports {
		to := r.targets[f.Path+"\n"+im.Text]
		if im.Kind != model.LinkReExport || to == "" || im.As != nil || !slices.Contains(im.Names, "*") {
			continue
		}
		if end := r.origin(to, name, depth+1); end != to || handsOut(r.t.File(to), name) {
			return end
		}
	}
	return f.Path
}

// takenIn follows a name that is taken in by one statement and handed out by another.
func (r *resolver) takenIn(f *model.File, name string, depth int) string {
	for _, im := range f.Facts.Imports {
		to := r.targets[f.Path+"\n"+im.Text]
		if to != "" && im.Kind == model.LinkImport && slices.Contains(im.Names, name) {
			return r.origin(to, name, depth+1)
		}
	}
	return f.Path
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
func (r *resolver) link(out *syntax.Out, f *model.File, im model.Import) string {
	text, _, _ := strings.Cut(im.Text, "?") // bundlers take a query behind the path
	if i := strings.LastIndexByte(text, '!'); i >= 0 {
		text = text[i+1:]
	}
	if text == "" && im.Kind != model.LinkTemplate {
		return ""
	}
	a := r.ask(path.Dir(f.Path), text, im)
	if f.Language == "JavaScript" {
		a.to = r.runs(a.to)
	}
	sure := true
	if a.outside != "" && f.Facts.Closed {
		a.to, sure = r.aroundBase(path.Dir(f.Path), text), false
	}
	switch {
	case a.to != "":
		if a.to != f.Path {
			out.Links = append(out.Links, model.Link{
				From: f.Path, To: a.to, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: sure, Names: im.Names, TypeOnly: im.Types,
			})
		}
	case a.reason != "":
		out.Unresolved = append(out.Unresolved, model.Unresolved{From: f.Path, Text: im.Text, Line: im.Line, Reason: a.reason})
	case a.outside != "":
		out.External = append(out.External, model.External{From: f.Path, Package: a.outside, Version: a.version, Line: im.Line})
	}
	return a.to
}

// aroundBase finds a module of a page by a path that counts from a folder which only
// the page knows: the nearest around that holds it.
func (r *resolver) aroundBase(d, text string) string {
	for ; ; d = path.Dir(d) {
		if to := r.plainFile(path.Join(d, text)); to != "" {
			return to
		}
		if d == "." {
			return ""
		}
	}
}

// answer is what an import leads to: a file, something outside, or nothing and why.
type answer struct {
	to, outside, reason string
	version             *string
}

// found is the answer that is a file, or why there is none.
func found(to, otherwise string) answer {
	if to != "" {
		return answer{to: to}
	}
	return answer{reason: otherwise}
}

// ask asks, in the order of Node and of the compiler: a path, an address,
// the aliases of the project, the imports of its package.json, a package of the
// codebase, and what comes from elsewhere.
func (r *resolver) ask(d, text string, im model.Import) answer {
	if im.Kind == model.LinkTemplate {
		if to := syntax.FindStyle(r.t, d, text); to != "" {
			return answer{to: to}
		}
	}
	switch {
	case text == "":
		return answer{}
	case strings.HasPrefix(text, "./"), strings.HasPrefix(text, "../"), text == ".", text == "..":
		p, ok := syntax.Join(d, text)
		if !ok {
			return answer{reason: "leads out of the codebase"}
		}
		return found(r.file(p, strings.HasSuffix(text, "/")), "no such file")
	case strings.HasPrefix(text, "/"):
		to := r.file(strings.TrimPrefix(path.Clean(text), "/"), false)
		return found(to, "an absolute path, and no such file below the root")
	case elsewhere.MatchString(text):
		return answer{outside: text}
	}
	if c := r.config(d); c != nil {
		if a := r.aliased(c, text); a != (answer{}) {
			return a
		}
	}
	if own, ownDir := r.projectOf(d); own != nil && strings.HasPrefix(text, "#") {
		return found(r.target(ownDir, own.Imports, text), "not among the imports of its package.json")
	}
	name, sub := packageName(text)
	to, known := r.packaged(d, name, sub)
	if to != "" || known && !builtin[name] {
		return found(to, "the package is in the codebase, and has no such file (not built?)")
	}
	return answer{outside: name, version: r.versionOf(d, name)}
}

// elsewhere is what stands in no tree: an address, data, a module of the program
// that runs the code.
var elsewhere = regexp.MustCompile(`://|^data:|^node:|^bun:`)

// aliased is what the paths and the base of a configuration make of an import;
// nothing where they do not speak of it.
func (r *resolver) aliased(c *model.Project, text string) answer {
	matched := false
	for _, a := range c.Paths {
		star, ok := match(a.Pattern, text)
		if !ok {
			continue
		}
		matched = true
		for _, t := range a.Targets {
			if to := r.file(strings.Replace(t, "*", star, 1), false); to != "" {
				return answer{to: to}
			}
		}
		break
	}
	if c.BaseURL != "" {
		if to := r.file(path.Join(c.BaseURL, text), false); to != "" {
			return answer{to: to}
		}
	}
	if matched && prefixOf(c.Paths, text) {
		return answer{reason: "a path alias of the project, and no such file"}
	}
	return answer{}
}

// versionOf is the version that the nearest package.json asks for.
func (r *resolver) versionOf(d, name string) (version *string) {
	syntax.Up(d, func(at string) bool {
		p := r.projects[at]
		if p == nil {
			return false
		}
		v, ok := p.Dependencies[name]
		if ok {
			version = &v
		}
		return ok
	})
	return version
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

// packaged finds a package by name: in the node_modules folders on the way up,
// as Node does, or wherever in the tree a package.json declares the name. A
// relative file wins over neither.
func (r *resolver) packaged(from, name, sub string) (to string, found bool) {
	dir := r.installed(from, name)
	if dir == "" {
		dir = r.declared(name)
	}
	if dir == "" {
		if strings.HasPrefix(name, "@types/") {
			return "", false
		}
		// Types that others wrote for a package stand under a name made of its own.
		return r.packaged(from, "@types/"+strings.ReplaceAll(strings.TrimPrefix(name, "@"), "/", "__"), sub)
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
		return r.firstOf(dir, sub, "src/"+sub), true
	}
	if to := r.firstOf(dir, p.Entries...); to != "" {
		return to, true
	}
	return r.firstOf(dir, "index", "src/index", "src/main", "lib/index"), true
}

// firstOf is the first of the paths below a folder that means a file.
func (r *resolver) firstOf(dir string, paths ...string) string {
	for _, p := range paths {
		if to := r.file(path.Join(dir, p), false); to != "" {
			return to
		}
	}
	return ""
}

// installed is the folder of a package in the node_modules on the way up.
func (r *resolver) installed(from, name string) (dir string) {
	syntax.Up(from, func(at string) bool {
		if path.Base(at) == "node_modules" {
			at = path.Dir(at)
		}
		if d := path.Join(at, "node_modules", name); r.t.HasDir(d) {
			dir = d
		}
		return dir != ""
	})
	if dir == "" && r.t.Name == "node_modules" && r.t.HasDir(name) {
		return name
	}
	return dir
}

// declared is the folder whose package.json has the name: the outermost, since
// copies repeat it.
func (r *resolver) declared(name string) string {
	best := ""
	for i, d := range r.packages[name] {
		if i == 0 || strings.Count(d, "/") < strings.Count(best, "/") {
			best = d
		}
	}
	return best
}

// target picks from a map of exports or imports: the exact key, else the
// pattern with the longest fixed part.
func (r *resolver) target(dir string, table map[string]string, key string) string {
	if t, ok := table[key]; ok {
		return r.built(dir, t)
	}
	best, star := "", ""
	for k := range table {
		if s, ok := match(k, key); ok && strings.Contains(k, "*") &&
			(best == "" || len(prefix(k)) > len(prefix(best)) || len(prefix(k)) == len(prefix(best)) && k < best) {
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

var endings = []string{
	".ts", ".tsx", ".d.ts", ".mts", ".cts", ".js", ".jsx", ".mjs", ".cjs", ".json", ".vue", ".svelte", ".d.mts",
	".d.cts",
}

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
		if to := r.plainFile(p); to != "" {
			return to
		}
	}
	if !r.t.HasDir(p) {
		return ""
	}
	if pr := r.projects[p]; pr != nil && !dirOnly {
		for _, e := range pr.Entries {
			q := path.Join(p, e)
			if q == p {
				continue
			}
			if to := r.file(q, false); to != "" {
				return to
			}
		}
	}
	return r.withEnding(path.Join(p, "index"))
}

// runs is what a file without types takes in where the compiler finds only what
// is declared of it: the code beside the declaration.
func (r *resolver) runs(p string) string {
	for declared, ran := range map[string]string{".d.ts": ".js", ".d.mts": ".mjs", ".d.cts": ".cjs"} {
		if stem, ok := strings.CutSuffix(p, declared); ok && r.t.File(stem+ran) != nil {
			return stem + ran
		}
	}
	return p
}

// plainFile is the file at a path, with an ending put on or swapped: the
// compiler prefers the source beside a built file.
func (r *resolver) plainFile(p string) string {
	ext := path.Ext(p)
	for _, e := range swaps[ext] {
		if q := strings.TrimSuffix(p, ext) + e; r.t.File(q) != nil {
			return q
		}
	}
	if r.t.File(p) != nil {
		return p
	}
	return r.withEnding(p)
}

func (r *resolver) withEnding(p string) string {
	for _, e := range endings {
		if r.t.File(p+e) != nil {
			return p + e
		}
	}
	return ""
}

var builtin = map[string]bool{}

func init() {
	for _, n := range strings.Fields(
		"assert async_hooks buffer child_process cluster console constants crypto dgram diagnostics_channel dns " +
			"domain events fs http http2 https inspector module net os path perf_hooks process punycode querystring " +
			"readline repl stream string_decoder timers tls tty url util v8 vm wasi worker_threads zlib",
	) {
		builtin[n] = true
	}
}
