package projectfiles

import (
	"bytes"
	"encoding/json"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"regexp"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func init() {
	for _, l := range []*syntax.Language{
		{Name: "Composer package", Version: 1, FileNames: []string{"composer.json"}, Read: wrap(composer)},
		{Name: "Maven project", Version: 1, FileNames: []string{"pom.xml"}, Read: wrap(maven)},
		{Name: "Cargo package", Version: 1, FileNames: []string{"Cargo.toml"}, Read: wrap(cargo)},
		{Name: "Gradle build", Version: 2, FileNames: []string{"build.gradle", "build.gradle.kts"}, Read: wrap(gradle)},
	} {
		syntax.Register(l)
	}
}

// composer reads composer.json: what the package is, what it needs, what can
// be run and where its namespaces lie.
func composer(src []byte) (*model.Project, error) {
	p := &model.Project{Tool: "composer", Dependencies: map[string]string{}}
	if tooDeep(src) {
		return p, errors.New("nested too deeply to be read")
	}
	var raw struct {
		Name        string            `json:"name"`
		Description string            `json:"description"`
		Type        string            `json:"type"`
		Require     map[string]string `json:"require"`
		RequireDev  map[string]string `json:"require-dev"`
		Scripts     map[string]any    `json:"scripts"`
		Autoload    struct {
			PSR4 map[string]any `json:"psr-4"`
		} `json:"autoload"`
	}
	if err := json.Unmarshal(src, &raw); err != nil {
		return p, fmt.Errorf("not JSON as composer reads it: %w", err)
	}
	p.Name, p.Description, p.Library = raw.Name, raw.Description, raw.Type == "library"
	for _, m := range []map[string]string{raw.RequireDev, raw.Require} {
		for k, v := range m {
			if strings.Contains(k, "/") { // the language and its extensions are no packages
				p.Dependencies[k] = v
			}
		}
	}
	for _, name := range firstNamed(raw.Scripts) {
		v := raw.Scripts[name]
		text := fmt.Sprint(v)
		if l, ok := v.([]any); ok {
			var parts []string
			for _, x := range l {
				parts = append(parts, fmt.Sprint(x))
			}
			text = strings.Join(parts, " && ")
		}
		p.Scripts = append(p.Scripts, model.Command{Name: name, Text: text, Line: lineOf(src, `"`+name+`"`)})
	}
	sort.Slice(p.Scripts, func(i, j int) bool { return p.Scripts[i].Name < p.Scripts[j].Name })
	for _, v := range raw.Autoload.PSR4 {
		switch x := v.(type) {
		case string:
			p.Roots = append(p.Roots, x)
		case []any:
			for _, y := range x {
				if s, ok := y.(string); ok {
					p.Roots = append(p.Roots, s)
				}
			}
		}
	}
	sort.Strings(p.Roots)
	return p, nil
}

// maven reads pom.xml as a stream of elements, so that no nesting is too deep.
func maven(src []byte) (*model.Project, error) {
	p := &model.Project{Tool: "maven", Dependencies: map[string]string{}}
	d := xml.NewDecoder(bytes.NewReader(src))
	d.Strict = false
	var at []string
	var group, artifact, version string
	for {
		t, err := d.Token()
		if errors.Is(err, io.EOF) {
			return p, nil
		}
		if err != nil {
			return p, fmt.Errorf("not XML: %w", err)
		}
		switch t := t.(type) {
		case xml.StartElement:
			if len(at) > maxNesting {
				return p, errors.New("nested too deeply to be read")
			}
			at = append(at, t.Name.Local)
		case xml.EndElement:
			if t.Name.Local == "dependency" && artifact != "" {
				p.Dependencies[group+":"+artifact] = version
				group, artifact, version = "", "", ""
			}
			if len(at) > 0 {
				at = at[:len(at)-1]
			}
		case xml.CharData:
			text := strings.TrimSpace(string(t))
			if text == "" || len(at) < 2 {
				continue
			}
			last := at[len(at)-1]
			switch {
			case len(at) == 2 && last == "artifactId":
				p.Name = text
			case len(at) == 2 && last == "description":
				p.Description = strings.Join(strings.Fields(text), " ")
			case at[len(at)-2] == "dependency":
				switch last {
				case "groupId":
					group = text
				case "artifactId":
					artifact = text
				case "version":
					version = text
				}
			}
		}
	}
}

var (
	gradleDependency = regexp.MustCompile(
		`(?m)^\s*(?:api|implementation|compileOnly|runtimeOnly|` +
			`testImplementation|testRuntimeOnly|annotationProcessor|kapt|compile|testCompile)` +
			`\s*\(?\s*["']([\w.\-]+:[\w.\-]+)(?::([\w.\-+$\{\}]+))?["']`,
	)
	gradleText = regexp.MustCompile(`(?m)^\s*description\s*=?\s*["']([^"'\n]+)["']`)
)

// gradle reads what a build script says in plain lines; the rest is a program.
func gradle(src []byte) (*model.Project, error) {
	p := &model.Project{Tool: "gradle", Dependencies: map[string]string{}}
	for _, m := range gradleDependency.FindAllSubmatch(src, -1) {
		p.Dependencies[string(m[1])] = string(m[2])
	}
	for _, m := range gradleText.FindAllSubmatchIndex(src, -1) {
		// In a block it says what a task or another project is.
		if bytes.Count(src[:m[0]], []byte{'{'}) == bytes.Count(src[:m[0]], []byte{'}'}) {
			p.Description = string(src[m[2]:m[3]])
			break
		}
	}
	return p, nil
}

// cargo reads Cargo.toml: the package, what it needs and the files its
// programs and its library start with. The library's name stands in Exports
// under "lib" where it differs, its file in Roots.
func cargo(src []byte) (*model.Project, error) {
	p := &model.Project{Tool: "cargo", Dependencies: map[string]string{}}
	type target struct {
		Name string `toml:"name"`
		Path string `toml:"path"`
	}
	type needs map[string]any
	var raw struct {
		Package struct {
			Name        string `toml:"name"`
			Description any    `toml:"description"`
		} `toml:"package"`
		Lib       target   `toml:"lib"`
		Bin       []target `toml:"bin"`
		Test      []target `toml:"test"`
		Example   []target `toml:"example"`
		Bench     []target `toml:"bench"`
		Needs     needs    `toml:"dependencies"`
		DevNeeds  needs    `toml:"dev-dependencies"`
		Building  needs    `toml:"build-dependencies"`
		Workspace struct {
			Members []string `toml:"members"`
			Needs   needs    `toml:"dependencies"`
		} `toml:"workspace"`
	}
	if tooDeep(src) {
		return p, errors.New("nested too deeply to be read")
	}
	if err := decodeTOML(src, &raw); err != nil {
		return p, fmt.Errorf("not TOML as cargo reads it: %w", err)
	}
	p.Name = raw.Package.Name
	p.Description, _ = raw.Package.Description.(string)
	p.Workspaces = raw.Workspace.Members
	if raw.Lib.Path != "" {
		p.Roots = []string{raw.Lib.Path}
	}
	if raw.Lib.Name != "" {
		p.Exports = map[string]string{"lib": raw.Lib.Name}
	}
	for _, l := range [][]target{raw.Bin, raw.Test, raw.Example, raw.Bench} {
		for _, t := range l {
			if t.Path != "" {
				p.Entries = append(p.Entries, t.Path)
			}
		}
	}
	sort.Strings(p.Entries)
	for _, m := range []needs{raw.Workspace.Needs, raw.Building, raw.DevNeeds, raw.Needs} {
		for name, v := range m {
			version := ""
			switch x := v.(type) {
			case string:
				version = x
			case map[string]any:
				version, _ = x["version"].(string)
			}
			if version != "" || p.Dependencies[name] == "" {
				p.Dependencies[name] = version
			}
		}
	}
	return p, nil
}
