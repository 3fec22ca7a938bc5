package projectfiles

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"maps"
	"path"
	"regexp"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"

	"go.yaml.in/yaml/v3"
)

func init() {
	for _, l := range []*syntax.Language{
		{
			Name: "Compose file", Version: 2,
			FileNames: []string{
				"docker-compose.yml", "docker-compose.yaml", "compose.yml", "compose.yaml",
				"docker-compose.override.yml", "docker-compose.prod.yml", "docker-compose.dev.yml",
			},
			Read: compose,
		},
		{Name: "Procfile", Version: 1, FileNames: []string{"Procfile"}, Read: procfile},
		{Name: "Crontab", Version: 1, FileNames: []string{"crontab"}, Extensions: []string{".crontab", ".cron"}, Read: crontab},
		{
			Name: "CI definition", Version: 1,
			FileNames: []string{".gitlab-ci.yml", ".travis.yml", "azure-pipelines.yml", "bitbucket-pipelines.yml"},
			Read:      definition,
		},
		{Name: "YAML", Version: 2, Extensions: []string{".yml", ".yaml"}, Read: definition},
		{Name: "C# project", Version: 1, Extensions: []string{".csproj", ".fsproj", ".vbproj"}, Read: msbuild, Resolve: resolveProjects},
		{Name: "Visual Studio solution", Version: 1, Extensions: []string{".sln"}, Read: solution, ResolvedWith: "C# project"},
		{Name: "Gemfile", Version: 1, FileNames: []string{"Gemfile"}, Extensions: []string{".gemspec"}, Read: wrap(gemfile)},
		{Name: "Charter", Version: 1, FileNames: []string{"jantel.yaml"}, Read: charterText},
		{Name: "Prisma schema", Version: 1, Extensions: []string{".prisma"}, Read: prisma},
	} {
		syntax.Register(l)
	}
}

// maxCharter bounds how much of a charter is kept; a larger one is refused
// where charters are read.
const maxCharter = 512 << 10

// charterText keeps the text of a charter for the judgement.
func charterText(_ syntax.How, src []byte) *model.Facts {
	f := plain(src)
	f.Charter = string(src[:min(len(src), maxCharter)])
	return f
}

func plain(src []byte) *model.Facts {
	f := &model.Facts{Read: model.ReadFull}
	syntax.CountPlain(f, src)
	return f
}

// yamlTree reads YAML as a tree of what is written, with lines. Nothing is
// decoded into values: aliases are not followed, and keys are not compared
// with each other, so that the time grows with the text alone.
func yamlTree(src []byte) (*yaml.Node, error) {
	if tooDeep(src) || len(src) > 4<<20 {
		return nil, errors.New("larger or nested deeper than is read")
	}
	var doc yaml.Node
	if err := yaml.Unmarshal(src, &doc); err != nil {
		return nil, err
	}
	if len(doc.Content) == 0 || doc.Content[0].Kind != yaml.MappingNode {
		return nil, errors.New("no mapping at the top")
	}
	return doc.Content[0], nil
}

// member is the value of a key of a mapping, nil where there is none.
func member(n *yaml.Node, key string) *yaml.Node {
	if n == nil || n.Kind != yaml.MappingNode {
		return nil
	}
	for i := 0; i+1 < len(n.Content); i += 2 {
		if n.Content[i].Value == key {
			return n.Content[i+1]
		}
	}
	return nil
}

// maxNamed bounds how many things of one project file are looked up by name.
const maxNamed = 500

// firstNamed are the names of things in order, as many as are looked up.
func firstNamed[V any](things map[string]V) []string {
	names := slices.Sorted(maps.Keys(things))
	return names[:min(len(names), maxNamed)]
}

// images are what the images of stores are called.
var images = map[string]string{
	"postgres": "PostgreSQL", "postgis": "PostgreSQL", "mysql": "MySQL", "mariadb": "MariaDB", "mongo": "MongoDB",
	"redis": "Redis", "valkey": "Valkey", "elasticsearch": "Elasticsearch", "opensearch": "OpenSearch",
	"cassandra": "Cassandra", "memcached": "Memcached", "minio": "MinIO", "rabbitmq": "RabbitMQ", "kafka": "Kafka",
	"nats": "NATS", "clickhouse": "ClickHouse", "neo4j": "Neo4j", "mssql": "SQL Server",
}

// compose reads which processes run side by side, and which of them are stores.
func compose(_ syntax.How, src []byte) *model.Facts {
	f := plain(src)
	f.Project = &model.Project{Tool: "compose"}
	top, err := yamlTree(src)
	if err != nil {
		f.Read, f.Problem = model.ReadPartial, "not YAML as compose reads it"
		f.Project.Problem = f.Problem
		return f
	}
	services := member(top, "services")
	for i := 0; services != nil && services.Kind == yaml.MappingNode && i+1 < len(services.Content) && len(f.Runs) < maxNamed; i += 2 {
		f.Runs = append(f.Runs, serviceRun(services.Content[i], services.Content[i+1]))
		if member(services.Content[i+1], "healthcheck") != nil {
			f.Runs = append(f.Runs, model.RunFact{
				Kind: model.RunHealth, Name: "healthcheck of " + services.Content[i].Value,
				Line: services.Content[i].Line,
			})
		}
		f.Given = append(f.Given, given(member(services.Content[i+1], "environment"))...)
	}
	sort.Slice(f.Runs, func(i, j int) bool {
		if f.Runs[i].Line != f.Runs[j].Line {
			return f.Runs[i].Line < f.Runs[j].Line
		}
		return f.Runs[i].Name < f.Runs[j].Name
	})
	return f
}

// given are the variables that a service is started with: a mapping, or a list of
// "NAME=value".
func given(environment *yaml.Node) (all []model.Literal) {
	if environment == nil {
		return nil
	}
	for i, n := range environment.Content[:min(len(environment.Content), maxNamed)] {
		switch {
		case environment.Kind == yaml.SequenceNode:
			name, value, _ := strings.Cut(n.Value, "=")
			all = append(all, syntax.Held(name, value, n.Line))
		case environment.Kind == yaml.MappingNode && i%2 == 0:
			all = append(all, syntax.Held(n.Value, environment.Content[i+1].Value, n.Line))
		}
	}
	return all
}

// serviceRun is what one service of a compose file runs: a store by its image,
// else a process with its command.
func serviceRun(name, service *yaml.Node) model.RunFact {
	if image := member(service, "image"); image != nil {
		base, _, _ := strings.Cut(path.Base(image.Value), ":")
		if store := images[base]; store != "" {
			return model.RunFact{Kind: model.RunStore, Name: store, Line: name.Line}
		}
	}
	text := name.Value
	if c := member(service, "command"); c != nil {
		words := []string{c.Value}
		if c.Kind == yaml.SequenceNode {
			words = words[:0]
			for _, w := range c.Content[:min(len(c.Content), 20)] {
				words = append(words, w.Value)
			}
		}
		text += ": " + strings.Join(words, " ")
	}
	return model.RunFact{Kind: model.RunProcess, Name: text, Line: name.Line}
}

func procfile(_ syntax.How, src []byte) *model.Facts {
	f := plain(src)
	f.Project = &model.Project{Tool: "procfile"}
	each(src, func(n int, line string) {
		if name, command, ok := strings.Cut(line, ":"); ok && !strings.HasPrefix(line, "#") {
			f.Runs = append(f.Runs, model.RunFact{Kind: model.RunProcess, Name: name + ": " + strings.TrimSpace(command), Line: n})
		}
	})
	return f
}

var cronLine = regexp.MustCompile(`^(?:(@\w+)|((?:[\d*/,\-]+|[a-zA-Z]{3})(?:\s+(?:[\d*/,\-]+|[a-zA-Z]{3})){4}))\s+(\S.*)$`)

func crontab(_ syntax.How, src []byte) *model.Facts {
	f := plain(src)
	each(src, func(n int, line string) {
		if m := cronLine.FindStringSubmatch(line); m != nil {
			f.Runs = append(f.Runs, model.RunFact{Kind: model.RunSchedule, Name: m[1] + m[2] + " " + m[3], Line: n})
		}
	})
	return f
}

var cronEntry = regexp.MustCompile(`^-?\s*(?:cron|schedule):\s*["']?((?:[\d*/,\-]+|[A-Z]{3})(?:\s+[\w*/,\-]+){4}|@\w+)["']?\s*(?:#.*)?$`)

// probes are the keys under which a cluster is told how to see that something
// is well.
var probes = syntax.Set("livenessProbe", "readinessProbe", "startupProbe", "healthcheck")

// definition reads the plans that YAML of builds and clusters holds.
func definition(_ syntax.How, src []byte) *model.Facts {
	f := plain(src)
	each(src, func(n int, line string) {
		if name, _, ok := strings.Cut(line, ":"); ok && probes[name] && len(f.Runs) < maxNamed {
			f.Runs = append(f.Runs, model.RunFact{Kind: model.RunHealth, Name: name, Line: n})
		}
		if m := cronEntry.FindStringSubmatch(line); m != nil {
			f.Runs = append(f.Runs, model.RunFact{Kind: model.RunSchedule, Name: m[1], Line: n})
		}
	})
	f.Texts = heldTexts(src)
	return f
}

// keyLine is a key of a mapping that stands in a line of its own, with its value.
var keyLine = regexp.MustCompile(`^( *)(?:"([^"]+)"|'([^']+)'|([\w.\-]+)):(?:\s+(.*))?$`)

// heldTexts lists the texts of a catalogue in YAML, their keys joined by dots: of a
// file that holds nothing but keys, and texts behind the innermost. It is read by
// lines, since catalogues are written so and large.
func heldTexts(src []byte) (out []model.Literal) {
	type open struct {
		indent int
		key    string
	}
	var above []open
	n, other, block := 0, 0, -1
	for raw := range bytes.Lines(src) {
		n++
		line := strings.TrimRight(string(raw), " \r\n")
		text := strings.TrimLeft(line, " ")
		indent := len(line) - len(text)
		if block >= 0 && (text == "" || indent > block) {
			continue // a text over several lines
		}
		block = -1
		if text == "" || text[0] == '#' || text == "---" {
			continue
		}
		m := keyLine.FindStringSubmatch(line)
		if m == nil {
			if other++; other > 20 && other > len(out) {
				return nil
			}
			continue
		}
		for len(above) > 0 && above[len(above)-1].indent >= indent {
			above = above[:len(above)-1]
		}
		key := m[2] + m[3] + m[4]
		if len(above) > 0 {
			key = above[len(above)-1].key + "." + key
		}
		switch value := m[5]; {
		case value == "" || value[0] == '#':
			if len(above) < maxKeys && len(key) <= 300 {
				above = append(above, open{indent, key})
			}
		case len(out) < syntax.MaxHeld && len(key) <= 300:
			if strings.Contains("|>", value[:1]) {
				block = indent
			}
			out = append(out, syntax.Held(key, strings.Trim(value, `"'`), n))
		}
	}
	if other*5 > len(out) {
		return nil
	}
	return out
}

// maxKeys bounds how deep keys lie in each other.
const maxKeys = 12

func each(src []byte, fn func(n int, line string)) {
	n := 0
	for line := range bytes.Lines(src) {
		n++
		fn(n, strings.TrimSpace(string(line)))
	}
}

// msbuild reads a project of .NET: which packages and which projects it needs.
func msbuild(_ syntax.How, src []byte) *model.Facts {
	f := plain(src)
	p := &model.Project{Tool: "msbuild", Dependencies: map[string]string{}}
	f.Project = p
	d := xml.NewDecoder(bytes.NewReader(src))
	d.Strict = false
	d.CharsetReader = func(_ string, in io.Reader) (io.Reader, error) { return in, nil }
	in := ""
	last, line := int64(0), 1
	for {
		t, err := d.RawToken()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			f.Read, f.Problem = model.ReadPartial, "not well-formed XML: "+err.Error()
			p.Problem = f.Problem
			break
		}
		// Lines are counted on from the last place, not from the start.
		line += bytes.Count(src[last:d.InputOffset()], []byte{'\n'})
		last = d.InputOffset()
		switch t := t.(type) {
		case xml.StartElement:
			in = t.Name.Local
			var include, version string
			for _, a := range t.Attr {
				switch a.Name.Local {
				case "Include":
					include = a.Value
				case "Version":
					version = a.Value
				}
			}
			line := min(line, max(f.Lines, 1))
			switch {
			case include == "":
			case in == "PackageReference":
				p.Dependencies[include] = version
			case in == "ProjectReference":
				f.Imports = append(f.Imports, model.Import{Text: include, Kind: model.LinkConfiguration, Line: line})
			}
		case xml.CharData:
			text := strings.TrimSpace(string(t))
			switch {
			case text == "":
			case in == "RootNamespace" || in == "AssemblyName" && p.Name == "":
				p.Name = text
			case in == "Description" && p.Description == "":
				p.Description = text
				f.Doc, f.DocLine = syntax.Sentence(text, 240), lineOf(src, "<Description")
			}
		}
	}
	if len(p.Dependencies) == 0 {
		p.Dependencies = nil
	}
	return f
}

var solutionProject = regexp.MustCompile(`^Project\("[^"]*"\)\s*=\s*"[^"]*",\s*"([^"]+\.\w*proj)"`)

func solution(_ syntax.How, src []byte) *model.Facts {
	f := plain(src)
	f.Project = &model.Project{Tool: "solution"}
	each(src, func(n int, line string) {
		if m := solutionProject.FindStringSubmatch(strings.TrimPrefix(line, "\ufeff")); m != nil {
			f.Imports = append(f.Imports, model.Import{Text: m[1], Kind: model.LinkConfiguration, Line: n})
		}
	})
	return f
}

// resolveProjects links projects with those they need, and solutions with what
// they hold.
func resolveProjects(t *syntax.Tree) {
	t.Each(func(out *syntax.Out, f *model.File) {
		for _, im := range f.Facts.Imports {
			at, ok := syntax.Join(path.Dir(f.Path), strings.ReplaceAll(im.Text, `\`, "/"))
			if ok && t.File(at) != nil && at != f.Path {
				out.Links = append(out.Links, model.Link{From: f.Path, To: at, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: true})
			} else {
				out.Unresolved = append(
					out.Unresolved,
					model.Unresolved{From: f.Path, Text: im.Text, Line: im.Line, Reason: "no such project"},
				)
			}
		}
	}, "C# project", "Visual Studio solution")
}

var (
	gemLine = regexp.MustCompile(
		`^\s*(?:gem|\w+\.add_(?:runtime_|development_)?dependency)\s*\(?\s*["']([\w.-]+)["'](?:\s*,\s*["']([^"']+)["'])?`,
	)
	gemText = regexp.MustCompile(`^\s*\w+\.(name|summary|description)\s*=\s*["']([^"']+)["']`)
)

// gemfile reads the gems that a Gemfile or a gemspec asks for.
func gemfile(src []byte) (*model.Project, error) {
	p := &model.Project{Tool: "bundler", Dependencies: map[string]string{}}
	each(src, func(_ int, line string) {
		if m := gemLine.FindStringSubmatch(line); m != nil {
			p.Dependencies[m[1]] = m[2]
		}
		if m := gemText.FindStringSubmatch(line); m != nil {
			if m[1] == "name" {
				p.Name = m[2]
			} else if p.Description == "" {
				p.Description = m[2]
			}
		}
	})
	return p, nil
}

var prismaModel = regexp.MustCompile(`^(model|enum|type)\s+(\w+)\s*\{`)

// prisma reads the models of a schema.
func prisma(_ syntax.How, src []byte) *model.Facts {
	f := plain(src)
	current := -1
	each(src, func(n int, line string) {
		if m := prismaModel.FindStringSubmatch(line); m != nil {
			kind := model.DefClass
			if m[1] == "enum" {
				kind = model.DefEnum
			}
			current = len(f.Definitions)
			f.Definitions = append(f.Definitions, model.Definition{Name: m[2], Kind: kind, Line: n, EndLine: n, Exported: true})
			if m[1] == "model" {
				f.Entities = append(f.Entities, model.EntityFact{Name: m[2], Line: n, From: "schema"})
			}
		}
		if line == "}" && current >= 0 {
			f.Definitions[current].EndLine = n
			current = -1
		}
	})
	return f
}
