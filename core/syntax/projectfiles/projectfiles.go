// Package projectfiles reads the files in which projects declare themselves:
// package.json, tsconfig, go.mod, pyproject and its elders, Makefile and
// Dockerfile.
package projectfiles

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"regexp"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"

	"github.com/BurntSushi/toml"
	"golang.org/x/mod/modfile"
)

func init() {
	for _, l := range []*syntax.Language{
		{Name: "npm package", Version: 3, FileNames: []string{"package.json"}, Read: wrap(packageJSON)},
		{
			Name: "TypeScript configuration", Version: 2,
			FileNames: []string{
				"tsconfig.json", "jsconfig.json", "tsconfig.base.json", "tsconfig.app.json", "tsconfig.node.json",
				"tsconfig.build.json", "tsconfig.lib.json",
			},
			Read: wrap(tsconfig),
		},
		{Name: "Go module", Version: 1, FileNames: []string{"go.mod"}, Read: wrap(goMod)},
		{Name: "Python project", Version: 1, FileNames: []string{"pyproject.toml"}, Read: wrap(pyproject)},
		{Name: "Python requirements", Version: 1, FileNames: []string{"requirements.txt"}, Read: wrap(requirements)},
		{Name: "Python setup", Version: 1, FileNames: []string{"setup.cfg"}, Read: wrap(setupCfg)},
		{Name: "Makefile", Version: 2, FileNames: []string{"Makefile", "makefile", "GNUmakefile"}, Read: wrap(makefile)},
		{Name: "Git attributes", Version: 1, FileNames: []string{".gitattributes"}, Read: wrap(gitAttributes)},
		{Name: "Dockerfile", Version: 2, FileNames: []string{"Dockerfile", "Containerfile"}, Read: image},
	} {
		syntax.Register(l)
	}
}

// wrap turns a reader of one kind of project file into one of facts; what it
// can not understand is said, never guessed.
func wrap(fn func(src []byte) (*model.Project, error)) func(syntax.How, []byte) *model.Facts {
	return func(_ syntax.How, src []byte) *model.Facts {
		f := &model.Facts{Read: model.ReadFull}
		syntax.CountPlain(f, src)
		p, err := fn(src)
		if err != nil {
			f.Read, f.Problem = model.ReadPartial, err.Error()
			if p == nil {
				p = &model.Project{}
			}
			p.Problem = err.Error()
		}
		// Lists and maps are nil when empty, as they come back from the cache.
		if len(p.Dependencies) == 0 {
			p.Dependencies = nil
		}
		f.Project = p
		if p.Description != "" {
			f.Doc = syntax.Sentence(p.Description, 240)
			f.DocLine = lineOf(src, "description")
		}
		return f
	}
}

func lineOf(src []byte, word string) int {
	i := bytes.Index(src, []byte(word))
	if i < 0 {
		return 1
	}
	return bytes.Count(src[:i], []byte{'\n'}) + 1
}

// maxNesting bounds JSON that would otherwise exhaust the stack.
const maxNesting = 200

func tooDeep(src []byte) bool {
	depth := 0
	for _, c := range src {
		switch c {
		case '{', '[':
			if depth++; depth > maxNesting {
				return true
			}
		case '}', ']':
			depth--
		}
	}
	return false
}

// maxTables bounds how deep tables of TOML lie in each other: the library takes
// twice as long for each level.
const maxTables = 12

func decodeTOML(src []byte, into any) error {
	depth := 0
	for _, c := range src {
		switch c {
		case '{', '[':
			if depth++; depth > maxTables {
				return fmt.Errorf("nested deeper than %d", maxTables)
			}
		case '}', ']':
			depth = max(depth-1, 0)
		}
	}
	_, err := toml.Decode(string(src), into)
	return err
}

func decode(src []byte, into any) error {
	if tooDeep(src) {
		return fmt.Errorf("nested deeper than %d", maxNesting)
	}
	if err := json.Unmarshal(src, into); err != nil {
		return fmt.Errorf("not valid JSON: %w", err)
	}
	return nil
}

func packageJSON(src []byte) (*model.Project, error) {
	p := &model.Project{Tool: "npm"}
	var raw map[string]json.RawMessage
	if err := decode(src, &raw); err != nil {
		return p, err
	}
	str := func(k string) (s string) { _ = json.Unmarshal(raw[k], &s); return s }
	p.Name, p.Description = str("name"), str("description")
	var scripts map[string]json.RawMessage
	_ = json.Unmarshal(raw["scripts"], &scripts)
	at := bytes.Index(src, []byte(`"scripts"`))
	for _, name := range firstNamed(scripts) {
		v := scripts[name]
		var text string
		if json.Unmarshal(v, &text) != nil {
			continue
		}
		line := 1
		if key, _ := json.Marshal(name); at >= 0 {
			if i := bytes.Index(src[at+9:], key); i >= 0 {
				line = bytes.Count(src[:at+9+i], []byte{'\n'}) + 1
			}
		}
		p.Scripts = append(p.Scripts, model.Command{Name: name, Text: text, Line: line})
	}
	sort.Slice(p.Scripts, func(i, j int) bool {
		if p.Scripts[i].Line != p.Scripts[j].Line {
			return p.Scripts[i].Line < p.Scripts[j].Line
		}
		return p.Scripts[i].Name < p.Scripts[j].Name
	})
	p.Dependencies = map[string]string{}
	for _, k := range []string{"peerDependencies", "optionalDependencies", "devDependencies", "dependencies"} {
		var deps map[string]any
		_ = json.Unmarshal(raw[k], &deps)
		for n, v := range deps {
			if s, ok := v.(string); ok {
				p.Dependencies[n] = s
			}
		}
	}
	if json.Unmarshal(raw["workspaces"], &p.Workspaces) != nil {
		var w struct{ Packages []string }
		_ = json.Unmarshal(raw["workspaces"], &w)
		p.Workspaces = w.Packages
	}
	for _, k := range []string{"source", "module", "main", "types", "typings"} {
		if s := str(k); s != "" {
			p.Entries = append(p.Entries, s)
		}
	}
	p.Exports = conditions(raw["exports"], ".")
	var bins map[string]string
	if bin := str("bin"); bin != "" {
		p.Bin = []string{bin}
	} else if json.Unmarshal(raw["bin"], &bins) == nil {
		for _, name := range slices.Sorted(maps.Keys(bins)) {
			p.Bin = append(p.Bin, bins[name])
		}
	}
	p.Imports = conditions(raw["imports"], "#")
	return p, nil
}

// conditions flattens an exports or imports field to one target a subpath.
func conditions(raw json.RawMessage, mark string) map[string]string {
	if len(raw) == 0 {
		return nil
	}
	d := json.NewDecoder(bytes.NewReader(raw))
	v, err := ordered(d, 0)
	if err != nil || v == nil {
		return nil
	}
	out := map[string]string{}
	if m, ok := v.([]field); ok {
		sub := false
		for _, f := range m {
			sub = sub || strings.HasPrefix(f.key, mark)
		}
		if sub {
			for _, f := range m {
				if t := pick(f.value); t != "" {
					out[f.key] = t
				}
			}
			return out
		}
	}
	if t := pick(v); t != "" && mark == "." {
		out["."] = t
	}
	return out
}

// field is one member of an object; objects are read with their order, which
// has a meaning in the fields read here.
type field struct {
	key   string
	value any
}

func ordered(d *json.Decoder, depth int) (any, error) {
	t, err := d.Token()
	if err != nil {
		return nil, err
	}
	delim, ok := t.(json.Delim)
	if !ok {
		return t, nil
	}
	if depth > 12 {
		return nil, errors.New("nested too deeply")
	}
	fields, list := []field{}, []any{}
	for d.More() {
		f := field{}
		if delim == '{' {
			k, err := d.Token()
			if err != nil {
				return nil, err
			}
			f.key, _ = k.(string)
		}
		if f.value, err = ordered(d, depth+1); err != nil {
			return nil, err
		}
		fields, list = append(fields, f), append(list, f.value)
	}
	if _, err := d.Token(); err != nil {
		return nil, err
	}
	if delim == '{' {
		return fields, nil
	}
	return list, nil
}

// accepted are the conditions under which a target is taken, the first that is
// written, as the compiler does; "source" leads to what a reader wants.
var accepted = map[string]bool{"source": true, "types": true, "import": true, "default": true}

func pick(v any) string {
	switch x := v.(type) {
	case string:
		return x
	case []any:
		for _, e := range x {
			if t := pick(e); t != "" {
				return t
			}
		}
	case []field:
		for _, want := range []func(string) bool{func(k string) bool { return accepted[k] }, func(k string) bool { return !accepted[k] }} {
			for _, f := range x {
				if want(f.key) {
					if t := pick(f.value); t != "" {
						return t
					}
				}
			}
		}
	}
	return ""
}

// plainJSON takes comments and trailing commas out of what TypeScript accepts
// as JSON, leaving every line where it was.
func plainJSON(src []byte) []byte {
	out := make([]byte, 0, len(src))
	for i := 0; i < len(src); {
		c := src[i]
		switch {
		case c == '"':
			j := i + 1
			for j < len(src) && src[j] != '"' {
				if src[j] == '\\' {
					j++
				}
				j++
			}
			j = min(j+1, len(src))
			out = append(out, src[i:j]...)
			i = j
		case c == '/' && i+1 < len(src) && src[i+1] == '/':
			for i < len(src) && src[i] != '\n' {
				i++
			}
		case c == '/' && i+1 < len(src) && src[i+1] == '*':
			j := bytes.Index(src[i+2:], []byte("*/"))
			if j < 0 {
				return out
			}
			out = append(out, bytes.Repeat([]byte{'\n'}, bytes.Count(src[i:i+j+4], []byte{'\n'}))...)
			i += j + 4
		case syntax.In(c, "}]"):
			for k := len(out) - 1; k >= 0; k-- {
				if out[k] == ',' {
					out[k] = ' '
				}
				if out[k] != ' ' && out[k] != '\n' && out[k] != '\t' && out[k] != '\r' {
					break
				}
			}
			out = append(out, c)
			i++
		default:
			out = append(out, c)
			i++
		}
	}
	return out
}

func tsconfig(src []byte) (*model.Project, error) {
	p := &model.Project{Tool: "typescript"}
	var raw struct {
		Extends         any `json:"extends"`
		CompilerOptions struct {
			BaseURL string              `json:"baseUrl"`
			OutDir  string              `json:"outDir"`
			Paths   map[string][]string `json:"paths"`
		} `json:"compilerOptions"`
	}
	if err := decode(plainJSON(src), &raw); err != nil {
		return p, err
	}
	switch e := raw.Extends.(type) {
	case string:
		p.Extends = []string{e}
	case []any:
		for _, x := range e {
			if s, ok := x.(string); ok {
				p.Extends = append(p.Extends, s)
			}
		}
	}
	p.BaseURL = raw.CompilerOptions.BaseURL
	if raw.CompilerOptions.OutDir != "" {
		p.Outputs = []string{raw.CompilerOptions.OutDir}
	}
	for k, v := range raw.CompilerOptions.Paths {
		p.Paths = append(p.Paths, model.Alias{Pattern: k, Targets: v})
	}
	sort.Slice(p.Paths, func(i, j int) bool { return p.Paths[i].Pattern < p.Paths[j].Pattern })
	return p, nil
}

// authorship are the attributes by which a repository says who wrote a path, in
// the words of origins.
var authorship = map[string]string{
	"linguist-vendored": "vendored", "linguist-generated": "generated", "linguist-documentation": "generated",
	"gitlab-generated": "generated", "vendored": "vendored", "generated": "generated",
}

// gitAttributes reads what a repository says of its paths: a script for each
// glob, whose text is an origin, with "=false" where it is said not to be.
func gitAttributes(src []byte) (*model.Project, error) {
	p := &model.Project{Tool: "gitattributes"}
	n := 0
	for line := range strings.Lines(string(src)) {
		n++
		words := strings.Fields(line)
		if len(words) < 2 || strings.HasPrefix(words[0], "#") || len(p.Scripts) >= maxAttributes {
			continue
		}
		for _, w := range words[1:] {
			name, value, _ := strings.Cut(w, "=")
			bare := strings.TrimLeft(name, "-!")
			origin := authorship[bare]
			if origin == "" {
				continue
			}
			if value == "false" || bare != name {
				origin += "=false"
			}
			p.Scripts = append(p.Scripts, model.Command{Name: words[0], Text: origin, Line: n})
		}
	}
	return p, nil
}

// maxAttributes bounds how many lines of a .gitattributes count.
const maxAttributes = 500

func goMod(src []byte) (*model.Project, error) {
	p := &model.Project{Tool: "go"}
	m, err := modfile.ParseLax("go.mod", src, nil)
	if err != nil {
		return p, fmt.Errorf("not a valid go.mod: %s", strings.ReplaceAll(err.Error(), "\n", "; "))
	}
	if m.Module != nil {
		p.Name = m.Module.Mod.Path
	}
	p.Dependencies = map[string]string{}
	for _, r := range m.Require {
		p.Dependencies[r.Mod.Path] = r.Mod.Version
	}
	return p, nil
}

func pyproject(src []byte) (*model.Project, error) {
	p := &model.Project{Tool: "python", Dependencies: map[string]string{}}
	var raw struct {
		Project struct {
			Name, Description string
			Classifiers       []string
			Dependencies      []string
			Optional          map[string][]string `toml:"optional-dependencies"`
			Scripts           map[string]string
		}
		Tool struct {
			Poetry struct {
				Name, Description string
				Dependencies      map[string]any
				Scripts           map[string]any
			}
			Setuptools struct {
				PackageDir map[string]string `toml:"package-dir"`
				Packages   any
			}
		}
	}
	// One table of an unexpected shape must not hide the others.
	if err := decodeTOML(src, &raw); err != nil && raw.Project.Name == "" && raw.Tool.Poetry.Name == "" {
		return p, fmt.Errorf("not valid TOML: %s", strings.ReplaceAll(err.Error(), "\n", " "))
	}
	p.Name, p.Description = raw.Project.Name, raw.Project.Description
	p.Library = slices.ContainsFunc(raw.Project.Classifiers, func(t string) bool { return strings.Contains(t, ":: Libraries") })
	if p.Name == "" {
		p.Name, p.Description = raw.Tool.Poetry.Name, raw.Tool.Poetry.Description
	}
	for _, d := range raw.Project.Dependencies {
		syntax.Require(p.Dependencies, d)
	}
	for _, ds := range raw.Project.Optional {
		for _, d := range ds {
			syntax.Require(p.Dependencies, d)
		}
	}
	for n, v := range raw.Tool.Poetry.Dependencies {
		s, _ := v.(string)
		p.Dependencies[n] = s
	}
	for _, n := range firstNamed(raw.Project.Scripts) {
		p.Scripts = append(p.Scripts, model.Command{Name: n, Text: raw.Project.Scripts[n], Line: lineOf(src, n+" =")})
	}
	for _, n := range firstNamed(raw.Tool.Poetry.Scripts) {
		if text, ok := raw.Tool.Poetry.Scripts[n].(string); ok {
			p.Scripts = append(p.Scripts, model.Command{Name: n, Text: text, Line: lineOf(src, n+" =")})
		}
	}
	sort.Slice(p.Scripts, func(i, j int) bool { return p.Scripts[i].Name < p.Scripts[j].Name })
	for _, d := range raw.Tool.Setuptools.PackageDir {
		p.Roots = append(p.Roots, d)
	}
	sort.Strings(p.Roots)
	return p, nil
}

func requirements(src []byte) (*model.Project, error) {
	p := &model.Project{Tool: "python", Dependencies: map[string]string{}}
	for line := range strings.Lines(string(src)) {
		if !strings.HasPrefix(strings.TrimSpace(line), "#") && !strings.HasPrefix(strings.TrimSpace(line), "-") {
			syntax.Require(p.Dependencies, line)
		}
	}
	return p, nil
}

func setupCfg(src []byte) (*model.Project, error) {
	p := &model.Project{Tool: "python", Dependencies: map[string]string{}}
	section, key, n := "", "", 0
	for line := range strings.Lines(string(src)) {
		n++
		t := strings.TrimSpace(line)
		switch {
		case t == "" || syntax.In(t[0], "#;"):
		case t[0] == '[':
			section, key = strings.Trim(t, "[]"), ""
		case syntax.In(line[0], " \t"):
			switch {
			case section == "options" && key == "install_requires":
				syntax.Require(p.Dependencies, t)
			case section == "options.entry_points" && (key == "console_scripts" || key == "gui_scripts"):
				name, text, _ := strings.Cut(t, "=")
				p.Scripts = append(p.Scripts, model.Command{Name: strings.TrimSpace(name), Text: strings.TrimSpace(text), Line: n})
			case section == "metadata" && strings.HasPrefix(key, "classif") && strings.Contains(t, ":: Libraries"):
				p.Library = true
			}
		default:
			k, v, _ := strings.Cut(t, "=")
			key, v = strings.TrimSpace(k), strings.TrimSpace(v)
			switch {
			case section == "metadata" && key == "name":
				p.Name = v
			case section == "metadata" && key == "description":
				p.Description = v
			}
		}
	}
	return p, nil
}

var target = regexp.MustCompile(`^([A-Za-z0-9][A-Za-z0-9_.-]*)\s*:([^=]|$)`)

// written is where a line of a recipe has something written to: a file by its
// name, or what the rule is for.
var (
	written = regexp.MustCompile(`[^>&2]>\s*(\$@|[\w][\w./-]*)\s*$`)
	madeFor = regexp.MustCompile(`^([\w%][\w./%-]*)\s*:([^=]|$)`)
)

func makefile(src []byte) (*model.Project, error) {
	p := &model.Project{Tool: "make"}
	n, rule := 0, ""
	seen := map[string]bool{}
	var current *model.Command
	for line := range strings.Lines(string(src)) {
		n++
		if m := madeFor.FindStringSubmatch(line); m != nil {
			rule = strings.ReplaceAll(m[1], "%", "*")
		} else if !strings.HasPrefix(line, "\t") {
			rule = ""
		} else if m := written.FindStringSubmatch(line); m != nil && rule != "" {
			if m[1] == "$@" {
				m[1] = rule
			}
			if len(p.Written) < maxNamed {
				p.Written = append(p.Written, m[1])
			}
		}
		if m := target.FindStringSubmatch(line); m != nil && !seen[m[1]] && !strings.Contains(line, ":=") {
			seen[m[1]] = true
			p.Scripts = append(p.Scripts, model.Command{Name: m[1], Line: n})
			current = &p.Scripts[len(p.Scripts)-1]
		} else if strings.HasPrefix(line, "\t") && current != nil && current.Text == "" {
			current.Text = strings.TrimLeft(strings.TrimSpace(line), "@-+")
		}
	}
	p.Builds = madeByRules(src, "make").Builds
	return p, nil
}

// image reads how an image is made: what it starts, and how it is seen to be
// well.
func image(how syntax.How, src []byte) *model.Facts {
	f := wrap(dockerfile)(how, src)
	each(src, func(n int, line string) {
		if word, rest, _ := strings.Cut(line, " "); strings.EqualFold(word, "HEALTHCHECK") &&
			!strings.EqualFold(strings.TrimSpace(rest), "NONE") && len(f.Runs) == 0 {
			f.Runs = append(f.Runs, model.RunFact{Kind: model.RunHealth, Name: "HEALTHCHECK", Line: n})
		}
		if m := setInImage.FindStringSubmatch(line); m != nil && len(f.Given) < maxNamed {
			f.Given = append(f.Given, syntax.Held(m[1], m[2], n))
		}
	})
	return f
}

// setInImage is a variable that an image sets, the first of its line.
var setInImage = regexp.MustCompile(`^(?i:ENV)\s+(\w+)[= ]"?([^"]*)`)

func dockerfile(src []byte) (*model.Project, error) {
	p := &model.Project{Tool: "docker"}
	n := 0
	for line := range strings.Lines(string(src)) {
		n++
		word, rest, _ := strings.Cut(strings.TrimSpace(line), " ")
		switch strings.ToUpper(word) {
		case "CMD", "ENTRYPOINT":
			p.Scripts = append(p.Scripts, model.Command{Name: strings.ToLower(word), Text: strings.TrimSpace(rest), Line: n})
		}
	}
	return p, nil
}
